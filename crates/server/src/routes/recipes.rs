//! Recipes read into formulas. Nothing is kept: the formula that comes of it is sent to `/api/formulas`.

use super::read;
use crate::bakeries::Of;
use crate::heavy::Heavy;
use crate::problem::{ApiError, Problem};
use crate::wire::{ReadRequest, ReadingView};
use actix_web::{post, web};
use ready_slab_store::Store;

/// Reads a recipe: free text, JSON-LD, HTML, CSV or a formula file.
#[utoipa::path(tag = "recipes", operation_id = "recipes_read", request_body = ReadRequest, responses((status = 200, body = ReadingView), (status = 413, body = Problem), (status = 422, body = Problem)))]
#[post("/api/recipes/read")]
pub async fn read_text(
    heavy: web::Data<Heavy>,
    store: Of<Store>,
    payload: web::Payload,
) -> Result<web::Json<ReadingView>, ApiError> {
    let request: ReadRequest = read(payload).await?;
    let pantry = store.pantry().await?;
    Ok(web::Json(heavy.run(move || request.read(&pantry)).await??))
}
