//! Logs and patterned bars of a job's dough.

use crate::problem::{ApiError, Problem};
use crate::whole::WholeJob;
use crate::wire::{LogQuery, LogView, PatternQuery, PatternView};
use actix_web::{get, web};
use ready_slab_core::error::InputErrors;
use ready_slab_core::shape::{LONGEST_LOG, build_pattern, divide_batch, solve_log};
use ready_slab_store::{JobId, Store};

/// A log of the job's dough, solved for the two of its five measures that are not given.
#[utoipa::path(tag = "shape", operation_id = "shape_log", params(("id" = i64, Path), LogQuery), responses((status = 200, body = LogView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/log")]
pub async fn log(
    store: web::Data<Store>,
    id: web::Path<i64>,
    query: web::Query<LogQuery>,
) -> Result<web::Json<LogView>, ApiError> {
    let whole = WholeJob::read(&store, JobId(*id)).await?;
    let view = web::block(move || {
        let density = whole.dough()?.density;
        let form = query.form();
        let log = solve_log(form, &query.given()?, density)?;
        let divided = divide_batch(form, log.mass, log.width, LONGEST_LOG, density)?;
        Ok::<_, InputErrors>(LogView::new(&log, form, divided))
    })
    .await??;
    Ok(web::Json(view))
}

/// A patterned bar of the job's dough and another that is as dense: its strips or sheets, and how it is built.
#[utoipa::path(tag = "shape", operation_id = "shape_pattern", params(("id" = i64, Path), PatternQuery), responses((status = 200, body = PatternView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/pattern")]
pub async fn pattern(
    store: web::Data<Store>,
    id: web::Path<i64>,
    query: web::Query<PatternQuery>,
) -> Result<web::Json<PatternView>, ApiError> {
    let whole = WholeJob::read(&store, JobId(*id)).await?;
    let view = web::block(move || {
        let density = whole.dough()?.density;
        Ok::<_, InputErrors>(build_pattern(query.pattern()?, query.length()?, [density; 2])?.into())
    })
    .await??;
    Ok(web::Json(view))
}
