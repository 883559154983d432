//! The pantry: ingredients with their make-up, the bakery's own, and prices.

use super::read;
use crate::bakeries::Of;
use crate::problem::{ApiError, Problem};
use crate::wire::{IngredientView, PriceBody};
use actix_web::{HttpResponse, delete, get, post, put, web};
use ready_slab_core::dough::{Ingredient, IngredientInput, Pantry};
use ready_slab_core::error::InputError;
use ready_slab_store::Store;

/// All ingredients that a formula can use.
#[utoipa::path(tag = "pantry", operation_id = "pantry_list", responses((status = 200, body = Vec<IngredientView>)))]
#[get("/api/ingredients")]
pub async fn list(store: Of<Store>) -> Result<web::Json<Vec<IngredientView>>, ApiError> {
    Ok(web::Json(IngredientView::all(&store.pantry().await?)))
}

async fn shown(store: &Store, key: &str) -> Result<web::Json<IngredientView>, ApiError> {
    let pantry = store.pantry().await?;
    let found = pantry.get(key).ok_or_else(|| ApiError::NoSuchPath(format!("ingredient {key}")))?;
    Ok(web::Json(IngredientView::new(found, &pantry)))
}

/// Refuses a name that another ingredient has: recipes are read by names.
fn unlike_others(pantry: &Pantry, own: &Ingredient) -> Result<(), ApiError> {
    let same = |i: &Ingredient| i.key != own.key && i.name.eq_ignore_ascii_case(&own.name);
    match pantry.all().iter().find(|i| same(i)) {
        Some(other) => Err(InputError::refused(
            "name",
            format!("You already have an ingredient named {}. Choose another name.", other.name),
        )
        .into()),
        None => Ok(()),
    }
}

/// Puts an ingredient of one's own into the pantry.
#[utoipa::path(tag = "pantry", operation_id = "pantry_add", request_body = IngredientInput, responses((status = 200, body = IngredientView), (status = 422, body = Problem)))]
#[post("/api/ingredients")]
pub async fn add(store: Of<Store>, payload: web::Payload) -> Result<web::Json<IngredientView>, ApiError> {
    let body: IngredientInput = read(payload).await?;
    let pantry = store.pantry().await?;
    let label = format!("new ingredient {}", body.name);
    let make = |key: String| -> Result<Ingredient, ApiError> {
        let own = Ingredient::own(key, body)?;
        unlike_others(&pantry, &own)?;
        Ok(own)
    };
    let key = store.add_ingredient(make, &label).await?;
    shown(&store, &key).await
}

/// Changes an ingredient of one's own.
#[utoipa::path(tag = "pantry", operation_id = "pantry_change", request_body = IngredientInput, responses((status = 200, body = IngredientView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[put("/api/ingredients/{key}")]
pub async fn change(
    store: Of<Store>,
    key: web::Path<String>,
    payload: web::Payload,
) -> Result<web::Json<IngredientView>, ApiError> {
    let own = Ingredient::own(key.clone(), read::<IngredientInput>(payload).await?)?;
    unlike_others(&store.pantry().await?, &own)?;
    store.save_ingredient(&own, &format!("ingredient {}", own.name)).await?;
    shown(&store, &key).await
}

/// Takes an ingredient of one's own out of the pantry.
#[utoipa::path(tag = "pantry", operation_id = "pantry_delete", responses((status = 204), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[delete("/api/ingredients/{key}")]
pub async fn delete(store: Of<Store>, key: web::Path<String>) -> Result<HttpResponse, ApiError> {
    let name = store.pantry().await?.get(&key).map_or_else(|| key.to_string(), |i| i.name.to_string());
    store.delete_ingredient(&key, &format!("ingredient {name} removed")).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Keeps what a kilogram of an ingredient costs, or forgets it.
#[utoipa::path(tag = "pantry", operation_id = "pantry_price", request_body = PriceBody, responses((status = 200, body = IngredientView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[put("/api/ingredients/{key}/price")]
pub async fn price(
    store: Of<Store>,
    key: web::Path<String>,
    payload: web::Payload,
) -> Result<web::Json<IngredientView>, ApiError> {
    let body: PriceBody = read(payload).await?;
    let pantry = store.pantry().await?;
    let found = pantry.get(&key).ok_or_else(|| ApiError::NoSuchPath(format!("ingredient {key}")))?;
    if let Some(price) = body.price_per_kg {
        let mut checks = ready_slab_core::error::Checks::new();
        checks.range("price_per_kg", price, 0.0, 100_000.0, "per kilogram");
        checks.finish(())?;
    }
    store.save_price(&key, body.price_per_kg, &format!("price of {}", found.name.to_lowercase())).await?;
    shown(&store, &key).await
}
