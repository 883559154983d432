//! Units, and reading of what people type.

use super::read;
use crate::problem::{ApiError, Problem};
use crate::wire::{ParseRequest, ParseResult, UnitView};
use actix_web::{get, post, web};

/// All units with their factors; the browser converts by this table and holds none of its own.
#[utoipa::path(tag = "units", operation_id = "units_table", responses((status = 200, body = Vec<UnitView>)))]
#[get("/api/units")]
pub async fn table() -> web::Json<Vec<UnitView>> {
    web::Json(UnitView::all())
}

/// Reads a quantity as people type it: `1/4 in`, `350F`, `4 dozen`.
#[utoipa::path(tag = "units", operation_id = "units_read_text", request_body = ParseRequest, responses((status = 200, body = ParseResult), (status = 422, body = Problem)))]
#[post("/api/units/parse")]
pub async fn read_text(payload: web::Payload) -> Result<web::Json<ParseResult>, ApiError> {
    Ok(web::Json(read::<ParseRequest>(payload).await?.read()?))
}
