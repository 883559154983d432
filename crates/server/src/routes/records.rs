//! What came out of the oven.

use super::read;
use crate::problem::{ApiError, Problem};
use crate::whole::WholeJob;
use crate::wire::{RecordBody, RecordView};
use actix_web::{HttpResponse, delete, get, post, web};
use ready_slab_core::error::InputErrors;
use ready_slab_core::ledger::BakeRecord;
use ready_slab_store::{JobId, NewRecord, RecordId, Store};

/// Records of a job, the latest first.
#[utoipa::path(tag = "records", operation_id = "records_list", responses((status = 200, body = Vec<RecordView>), (status = 404, body = Problem)))]
#[get("/api/jobs/{id}/records")]
pub async fn list(store: web::Data<Store>, id: web::Path<i64>) -> Result<web::Json<Vec<RecordView>>, ApiError> {
    let id = JobId(*id);
    store.job(id).await?;
    Ok(web::Json(store.records(id).await?.iter().map(Into::into).collect()))
}

/// Keeps what came out, together with what the plan expects now.
#[utoipa::path(tag = "records", operation_id = "records_add", request_body = RecordBody, responses((status = 200, body = RecordView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/jobs/{id}/records")]
pub async fn add(
    store: web::Data<Store>,
    id: web::Path<i64>,
    payload: web::Payload,
) -> Result<web::Json<RecordView>, ApiError> {
    let id = JobId(*id);
    let body: RecordBody = read(payload).await?;
    let whole = WholeJob::read(&store, id).await?;
    let now = chrono::Local::now().naive_local();
    // From the day before it is wanted a bake is the job's own and the job keeps its formula; earlier ones are trials.
    let own_bake = now.date() + chrono::Days::new(1) >= whole.stored.job.input().ready_by.date();
    let recorded_at = now.format("%Y-%m-%dT%H:%M").to_string();
    let new = web::block(move || {
        let plan = whole.plan()?;
        let record = BakeRecord::new(
            plan.oven.width,
            plan.oven.thickness,
            &body.widths_mm,
            &body.thicknesses_mm,
            body.baked_min,
            body.edge_colour.into(),
            &body.notes,
        )?;
        Ok::<_, InputErrors>(NewRecord {
            job_id: id,
            recorded_at,
            formula_version: Some(whole.formula.version),
            record,
            expected_bake: plan.oven.expected.bake,
            expected_spread: plan.oven.spread_across(),
        })
    })
    .await??;
    let kept = store.add_record(&new, own_bake, "bake recorded").await?;
    let all = store.records(id).await?;
    let found = all.iter().find(|r| r.id == kept).ok_or(ApiError::Broken)?;
    Ok(web::Json(found.into()))
}

/// Takes a record away.
#[utoipa::path(tag = "records", operation_id = "records_delete", responses((status = 204), (status = 404, body = Problem)))]
#[delete("/api/records/{id}")]
pub async fn delete(store: web::Data<Store>, id: web::Path<i64>) -> Result<HttpResponse, ApiError> {
    store.delete_record(RecordId(*id), "record taken away").await?;
    Ok(HttpResponse::NoContent().finish())
}
