//! The kitchen.

use super::{label, read};
use crate::bakeries::Of;
use crate::problem::{ApiError, Problem};
use crate::revise::{Base, Tagged, made_from, merged};
use crate::wire::{EquipBody, KitchenView};
use actix_web::{HttpRequest, get, patch, post, web};
use ready_slab_core::clock::Zone;
use ready_slab_core::job::Kitchen;
use ready_slab_store::Store;
use ready_slab_words::kitchen_word;

async fn as_it_stands(store: &Store) -> Result<Tagged<KitchenView>, ApiError> {
    let revision = store.kitchen_revision().await?;
    let view = KitchenView::new(store.kitchen().await?.input(), revision, store.is_made_up().await?);
    Ok(Tagged(view, revision))
}

/// The kitchen.
#[utoipa::path(tag = "kitchen", operation_id = "kitchen_show", responses((status = 200, body = KitchenView)))]
#[get("/api/kitchen")]
pub async fn show(store: Of<Store>) -> Result<Tagged<KitchenView>, ApiError> {
    as_it_stands(&store).await
}

/// Changes some fields of the kitchen. Fields that somebody else has changed since the revision named are asked about (412).
#[utoipa::path(
    tag = "kitchen", operation_id = "kitchen_change",
    params(("If-Match" = Option<String>, Header, description = "The revision that the change was made from")),
    request_body(content = Object, content_type = "application/json", description = "Fields of KitchenBody to change"),
    responses((status = 200, body = KitchenView), (status = 412, body = Problem), (status = 422, body = Problem))
)]
#[patch("/api/kitchen")]
pub async fn change(
    store: Of<Store>,
    request: HttpRequest,
    payload: web::Payload,
) -> Result<Tagged<KitchenView>, ApiError> {
    let (patch, from) = (read(payload).await?, made_from(&request)?);
    let w = store.begin(None).await?;
    let (current, now) = (w.kitchen().await?.input().clone(), w.kitchen_revision().await?);
    let older = match from {
        Some(from) => w.kitchen_at(from).await?.map(|k| k.input().clone()),
        None => None,
    };
    let (body, changed) = merged(patch, &current, &Base::of(from, now, older), now)?;
    let kitchen = Kitchen::new(body)?;
    if !changed.is_empty() {
        w.save_kitchen(&kitchen, &label(&changed, kitchen_word)).await?;
    }
    w.commit().await?;
    as_it_stands(&store).await
}

/// Equips a new kitchen in millimetres or in inches: what nobody has said yet becomes as it is usual there. Once there is a job the kitchen stays as it is.
#[utoipa::path(
    tag = "kitchen", operation_id = "kitchen_equip", request_body = EquipBody,
    responses((status = 200, body = KitchenView), (status = 422, body = Problem))
)]
#[post("/api/kitchen/equipment")]
pub async fn equip(store: Of<Store>, payload: web::Payload) -> Result<Tagged<KitchenView>, ApiError> {
    let body: EquipBody = read(payload).await?;
    let w = store.begin(None).await?;
    let now = w.kitchen().await?.input().clone();
    let then = now.clone().equipped(body.equipment);
    if then != now && !w.has_jobs().await? {
        w.save_kitchen(&Kitchen::new(then)?, "guides and trays").await?;
    }
    w.commit().await?;
    as_it_stands(&store).await
}

/// All time zones by their names in the IANA database.
#[utoipa::path(tag = "kitchen", operation_id = "kitchen_zones", responses((status = 200, body = Vec<String>)))]
#[get("/api/zones")]
pub async fn zones() -> web::Json<Vec<&'static str>> {
    web::Json(Zone::all().collect())
}
