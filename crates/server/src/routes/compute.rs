//! Single computations without a job.

use super::read;
use crate::heavy::Heavy;
use crate::problem::{ApiError, Problem};
use crate::wire::{BakeRequest, BakeResult, ChillRequest, ChillResult, ScheduleResult, SheetRequest, SheetResult};
use actix_web::{post, web};
use ready_slab_core::clock::DayInput;

/// Chills a piece.
#[utoipa::path(tag = "compute", operation_id = "compute_chill", request_body = ChillRequest, responses((status = 200, body = ChillResult), (status = 422, body = Problem)))]
#[post("/api/compute/chill")]
pub async fn chill(heavy: web::Data<Heavy>, payload: web::Payload) -> Result<web::Json<ChillResult>, ApiError> {
    let request: ChillRequest = read(payload).await?;
    Ok(web::Json(heavy.run(move || request.answer()).await??))
}

/// Lays out a sheet.
#[utoipa::path(tag = "compute", operation_id = "compute_sheet", request_body = SheetRequest, responses((status = 200, body = SheetResult), (status = 422, body = Problem)))]
#[post("/api/compute/sheet")]
pub async fn sheet(heavy: web::Data<Heavy>, payload: web::Payload) -> Result<web::Json<SheetResult>, ApiError> {
    let request: SheetRequest = read(payload).await?;
    Ok(web::Json(heavy.run(move || request.answer()).await??))
}

/// Bakes a piece.
#[utoipa::path(tag = "compute", operation_id = "compute_bake", request_body = BakeRequest, responses((status = 200, body = BakeResult), (status = 422, body = Problem)))]
#[post("/api/compute/bake")]
pub async fn bake(heavy: web::Data<Heavy>, payload: web::Payload) -> Result<web::Json<BakeResult>, ApiError> {
    let request: BakeRequest = read(payload).await?;
    Ok(web::Json(heavy.run(move || request.answer()).await??))
}

/// Plans a day over hands, mixers, cold places, trays, ovens and cooling places. A day that a rule forbids is answered with the rule.
#[utoipa::path(tag = "compute", operation_id = "compute_schedule", request_body = DayInput, responses((status = 200, body = ScheduleResult), (status = 422, body = Problem)))]
#[post("/api/compute/schedule")]
pub async fn schedule(heavy: web::Data<Heavy>, payload: web::Payload) -> Result<web::Json<ScheduleResult>, ApiError> {
    let asked: DayInput = read(payload).await?;
    Ok(web::Json(heavy.run(move || ScheduleResult::of(&asked)).await??))
}
