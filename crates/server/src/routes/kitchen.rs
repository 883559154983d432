//! The kitchen.

use super::{label, patched};
use crate::problem::{ApiError, Problem};
use crate::wire::{KitchenBody, kitchen_word};
use actix_web::{get, patch, web};
use ready_slab_core::job::Kitchen;
use ready_slab_store::Store;

/// The kitchen.
#[utoipa::path(tag = "kitchen", operation_id = "kitchen_show", responses((status = 200, body = KitchenBody)))]
#[get("/api/kitchen")]
pub async fn show(store: web::Data<Store>) -> Result<web::Json<KitchenBody>, ApiError> {
    Ok(web::Json((&store.kitchen().await?).into()))
}

/// Changes some fields of the kitchen.
#[utoipa::path(
    tag = "kitchen", operation_id = "kitchen_change",
    request_body(content = Object, content_type = "application/json", description = "Fields of KitchenBody to change"),
    responses((status = 200, body = KitchenBody), (status = 422, body = Problem))
)]
#[patch("/api/kitchen")]
pub async fn change(store: web::Data<Store>, payload: web::Payload) -> Result<web::Json<KitchenBody>, ApiError> {
    let current = KitchenBody::from(&store.kitchen().await?);
    let (body, changed) = patched(payload, &current).await?;
    let kitchen = Kitchen::try_from(body)?;
    if !changed.is_empty() {
        store.save_kitchen(&kitchen, &label(&changed, kitchen_word)).await?;
    }
    Ok(web::Json((&kitchen).into()))
}
