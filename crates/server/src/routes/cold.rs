//! The cold station of a job: what must be done to have it ready when it is wanted.

use super::whole::WholeJob;
use crate::problem::{ApiError, Problem};
use crate::wire::{WantedQuery, WantedView};
use actix_web::{get, web};
use ready_slab_core::error::InputErrors;
use ready_slab_core::job::wanted_ways;
use ready_slab_store::{JobId, Store};

/// Every way to have the first mix ready to roll at a wanted time, at the slow end of its range.
#[utoipa::path(tag = "cold", operation_id = "cold_wanted", params(("id" = i64, Path), WantedQuery), responses((status = 200, body = WantedView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/cold/wanted")]
pub async fn wanted(
    store: web::Data<Store>,
    id: web::Path<i64>,
    query: web::Query<WantedQuery>,
) -> Result<web::Json<WantedView>, ApiError> {
    let (within, ready_at) = query.within()?;
    let whole = WholeJob::read(&store, JobId(*id)).await?;
    let view = web::block(move || {
        let plan = whole.plan()?;
        let ways = wanted_ways(&whole.stored.job, &whole.kitchen, &plan, within)?;
        Ok::<_, InputErrors>(WantedView::new(&ways, within, ready_at))
    })
    .await??;
    Ok(web::Json(view))
}
