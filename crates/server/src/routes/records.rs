//! What came out of the oven.

use super::read;
use crate::bakeries::Of;
use crate::board::Board;
use crate::heavy::Heavy;
use crate::learning::learn_after;
use crate::problem::{ApiError, Problem, Query};
use crate::whole::{Planned, WholeJob};
use crate::wire::{
    BakesEvenQuery, BakesEvenView, LeftOutBody, MINUTE_FORMAT, RecordBody, RecordView, SentenceView, say,
};
use actix_web::{HttpResponse, delete, get, post, put, web};
use ready_slab_core::error::{Checks, InputErrors};
use ready_slab_core::job::Plan;
use ready_slab_core::ledger::{BakeRecord, worth_measuring};
use ready_slab_core::units::Span;
use ready_slab_store::{JobId, Moved, NewRecord, RecordId, RunId, Store};

/// Records of a job, the latest first.
#[utoipa::path(tag = "records", operation_id = "records_list", responses((status = 200, body = Vec<RecordView>), (status = 404, body = Problem)))]
#[get("/api/jobs/{id}/records")]
pub async fn list(store: Of<Store>, id: web::Path<i64>) -> Result<web::Json<Vec<RecordView>>, ApiError> {
    let id = JobId(*id);
    store.job(id).await?;
    Ok(web::Json(store.records(id).await?.iter().map(Into::into).collect()))
}

/// How even the pieces of the job's cutter and dough are over time: control charts by tray, what varies, and that against a tolerance.
#[utoipa::path(tag = "records", operation_id = "records_even", params(("id" = i64, Path), BakesEvenQuery), responses((status = 200, body = BakesEvenView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/bakes-even")]
pub async fn even(
    store: Of<Store>,
    id: web::Path<i64>,
    query: Query<BakesEvenQuery>,
) -> Result<web::Json<BakesEvenView>, ApiError> {
    let records = store.records_like(JobId(*id)).await?;
    Ok(web::Json(web::block(move || query.of(&records)).await??))
}

/// The one thing most worth measuring next of the job's dough.
#[utoipa::path(tag = "records", operation_id = "records_worth", params(("id" = i64, Path)), responses((status = 200, body = SentenceView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/worth-measuring")]
pub async fn worth(
    store: Of<Store>,
    board: Of<Board>,
    id: web::Path<i64>,
) -> Result<web::Json<SentenceView>, ApiError> {
    let id = JobId(*id);
    let planned = board.planned(id).await?;
    let records = store.records(id).await?;
    let found = web::block(move || {
        let Planned { whole, plan } = &*planned;
        let records: Vec<&BakeRecord> = records.iter().map(|r| &r.kept.record).collect();
        let read = !whole.kitchen.input().oven.oven_readings.is_empty();
        let spread = plan.oven.forecast.as_ref().map_or(plan.oven.expected.spread.1, |f| f.spread);
        Ok::<_, InputErrors>(say(&worth_measuring(&records, whole.learnt.as_ref(), read, spread)))
    });
    Ok(web::Json(found.await??))
}

/// What came out, with what it was baked with and what the plan expects.
pub(super) fn as_recorded(
    whole: &WholeJob,
    plan: &Plan,
    body: &RecordBody,
    recorded_at: String,
) -> Result<NewRecord, InputErrors> {
    let record = BakeRecord::new(
        plan.oven.width,
        plan.oven.thickness,
        &body.widths_mm,
        &body.thicknesses_mm,
        body.baked_min,
        body.edge_colour,
        &body.notes,
    )?;
    let (job, formula) = (&whole.stored.job, &whole.formula.formula);
    let start = plan.oven.question.piece.start;
    Ok(NewRecord {
        job_id: whole.stored.id,
        recorded_at,
        formula_id: Some(whole.formula.id),
        formula_version: Some(whole.formula.version),
        as_baked: Some(body.conditions.as_baked(job, formula, &whole.cutter.outline, &whole.kitchen, start)?),
        record,
        expected_bake: plan.oven.expected.told().0,
        expected_spread: plan.oven.spread_across(),
        of_run: body.of_tray.map(|t| (RunId(t.run_id), t.tray)),
    })
}

/// The one figure of a plan's bake, its least and its most.
fn told(plan: &Plan) -> [Span; 3] {
    let (bake, _) = plan.oven.expected.told();
    [plan.oven.expected.about(), bake.0, bake.1]
}

/// Keeps what came out, together with what the plan expects now. It teaches at once; the answer says what it moved.
#[utoipa::path(tag = "records", operation_id = "records_add", request_body = RecordBody, responses((status = 200, body = RecordView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/jobs/{id}/records")]
pub async fn add(
    heavy: web::Data<Heavy>,
    store: Of<Store>,
    board: Of<Board>,
    id: web::Path<i64>,
    payload: web::Payload,
) -> Result<web::Json<RecordView>, ApiError> {
    let id = JobId(*id);
    let body: RecordBody = read(payload).await?;
    if let Some(of) = body.of_tray {
        let mut checks = Checks::new();
        checks.range("of_tray.tray", f64::from(of.tray), 1.0, 400.0, "");
        checks.finish(())?;
        store.run(RunId(of.run_id)).await?;
    }
    let planned = board.planned(id).await?;
    let now = planned.whole.kitchen.zone().shown(chrono::Utc::now());
    let own_bake = planned.whole.stored.job.is_own_bake(now);
    let recorded_at = now.format(MINUTE_FORMAT).to_string();
    let new = as_recorded(&planned.whole, &planned.plan, &body, recorded_at)?;
    let kept = store.add_record(&new, own_bake).await?;
    if learn_after(&heavy, &store).await {
        // A plan that can no longer be made moves nothing.
        if let Ok(now) = board.planned(id).await {
            store.record_moved(kept, &Moved { before: told(&planned.plan), after: told(&now.plan) }).await?;
        }
    }
    Ok(web::Json((&store.record(kept).await?).into()))
}

/// Strikes a record out; it is kept and can be put back.
#[utoipa::path(tag = "records", operation_id = "records_delete", responses((status = 204), (status = 404, body = Problem)))]
#[delete("/api/records/{id}")]
pub async fn delete(heavy: web::Data<Heavy>, store: Of<Store>, id: web::Path<i64>) -> Result<HttpResponse, ApiError> {
    store.strike_record(RecordId(*id), true).await?;
    learn_after(&heavy, &store).await;
    Ok(HttpResponse::NoContent().finish())
}

/// Puts a record back that was struck out.
#[utoipa::path(tag = "records", operation_id = "records_put_back", responses((status = 200, body = RecordView), (status = 404, body = Problem)))]
#[post("/api/records/{id}/put-back")]
pub async fn put_back(
    heavy: web::Data<Heavy>,
    store: Of<Store>,
    id: web::Path<i64>,
) -> Result<web::Json<RecordView>, ApiError> {
    store.strike_record(RecordId(*id), false).await?;
    learn_after(&heavy, &store).await;
    Ok(web::Json((&store.record(RecordId(*id)).await?).into()))
}

/// Leaves a record out of what bakes teach, or puts it back.
#[utoipa::path(tag = "records", operation_id = "records_leave_out", params(("id" = i64, Path)), request_body = LeftOutBody, responses((status = 200, body = RecordView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[put("/api/records/{id}/left-out")]
pub async fn leave_out(
    heavy: web::Data<Heavy>,
    store: Of<Store>,
    id: web::Path<i64>,
    payload: web::Payload,
) -> Result<web::Json<RecordView>, ApiError> {
    let id = RecordId(*id);
    let body: LeftOutBody = read(payload).await?;
    store.leave_record_out(id, body.left_out).await?;
    learn_after(&heavy, &store).await;
    Ok(web::Json((&store.record(id).await?).into()))
}
