//! Why a bake came out so, and what is tried on purpose.

use super::{file, read};
use crate::bakeries::Of;
use crate::board::Board;
use crate::heavy::Heavy;
use crate::problem::{ApiError, Problem, Query};
use crate::wire::{
    CausesQuery, CausesView, NewTrialBody, SeenView, TrialSizeQuery, TrialSizeView, TryView, measured_trays, trial_csv,
};
use actix_web::{HttpResponse, delete, get, post, web};
use chrono::Utc;
use ready_slab_core::error::{InputError, InputErrors};
use ready_slab_core::ledger::{
    CauseAsked, Causes, EvenMeasure, TestPlanned, Trial, TrialGround, TryNoted, Trying, causes,
};
use ready_slab_core::units::Length;
use ready_slab_store::{FormulaId, JobId, NewTry, RecordId, Store, StoredRecord, TryId};

/// So many of a dough are listed, the newest.
const MOST_LISTED: u32 = 100;

/// What a baker may see of a bake that came out otherwise.
#[utoipa::path(tag = "records", operation_id = "causes_list", responses((status = 200, body = Vec<SeenView>)))]
#[get("/api/causes")]
pub async fn list() -> web::Json<Vec<SeenView>> {
    web::Json(SeenView::all())
}

/// A record, and the dough it is of: one of its job where the record was kept before that was.
async fn recorded(store: &Store, id: RecordId) -> Result<(StoredRecord, FormulaId), ApiError> {
    let record = store.record(id).await?;
    let formula = match record.kept.formula_id {
        Some(formula) => formula,
        None => store.job(record.kept.job_id).await?.formula_id(),
    };
    Ok((record, formula))
}

async fn weighed(
    heavy: &Heavy,
    store: &Store,
    record: &StoredRecord,
    formula: FormulaId,
    query: &CausesQuery,
) -> Result<Causes, ApiError> {
    let (seen, clues) = (query.seen()?, query.clues()?);
    let learnt = store.taught_by_bakes(formula).await?;
    let kept = record.kept.clone();
    let found = heavy.run(move || {
        let baked = kept.as_baked.as_ref().map(|b| b.weighed_by(&kept.record, kept.expected_bake));
        causes(&CauseAsked {
            seen: &seen,
            baked: baked.as_ref(),
            record: &kept.record,
            learnt: learnt.as_ref(),
            clues: &clues,
        })
    });
    Ok(found.await??)
}

/// What may be behind a bake: causes that the trade knows, weighed, and what tells the first two apart.
#[utoipa::path(tag = "records", operation_id = "causes_weigh", params(("id" = i64, Path), CausesQuery), responses((status = 200, body = CausesView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/records/{id}/causes")]
pub async fn weigh(
    store: Of<Store>,
    heavy: web::Data<Heavy>,
    id: web::Path<i64>,
    query: Query<CausesQuery>,
) -> Result<web::Json<CausesView>, ApiError> {
    let (record, formula) = recorded(&store, RecordId(*id)).await?;
    let found = weighed(&heavy, &store, &record, formula, &query).await?;
    Ok(web::Json(CausesView::new(&query.seen()?, &found)))
}

/// Puts the test that tells the first two causes apart into the next bake of the dough.
#[utoipa::path(tag = "records", operation_id = "causes_test", request_body = CausesQuery, responses((status = 200, body = TryView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/records/{id}/test")]
pub async fn put_test(
    store: Of<Store>,
    heavy: web::Data<Heavy>,
    id: web::Path<i64>,
    payload: web::Payload,
) -> Result<web::Json<TryView>, ApiError> {
    let query: CausesQuery = read(payload).await?;
    let (record, formula) = recorded(&store, RecordId(*id)).await?;
    let found = weighed(&heavy, &store, &record, formula, &query).await?;
    let Some(test) = found.test else {
        return Err(InputError::refused("seen", "No test would tell these causes apart.").into());
    };
    let trying = Trying::Test(TestPlanned { record: record.id.0, seen: query.seen()?, test });
    kept(&store, NewTry { job_id: record.kept.job_id, formula_id: formula, planned_at: Utc::now(), trying }).await
}

async fn kept(store: &Store, new: NewTry) -> Result<web::Json<TryView>, ApiError> {
    let id = store.add_try(&new).await?;
    shown(store, id).await
}

async fn shown(store: &Store, id: TryId) -> Result<web::Json<TryView>, ApiError> {
    Ok(web::Json(TryView::new(&store.one_try(id).await?)?))
}

/// What was and is to be tried of the job's dough, the newest first.
#[utoipa::path(tag = "records", operation_id = "tries_list", params(("id" = i64, Path)), responses((status = 200, body = Vec<TryView>), (status = 404, body = Problem)))]
#[get("/api/jobs/{id}/tries")]
pub async fn of_job(store: Of<Store>, id: web::Path<i64>) -> Result<web::Json<Vec<TryView>>, ApiError> {
    let formula = store.job(JobId(*id)).await?.formula_id();
    let all = store.tries(formula, MOST_LISTED).await?;
    Ok(web::Json(all.iter().map(TryView::new).collect::<Result<_, InputErrors>>()?))
}

/// What a trial of a job has to go by.
async fn ground(
    store: &Store,
    board: &Board,
    id: JobId,
    measure: EvenMeasure,
) -> Result<(FormulaId, TrialGround), ApiError> {
    let planned = board.planned(id).await?;
    let records = store.records_like(id).await?;
    let (_, trays) = measured_trays(&records, measure);
    Ok((planned.whole.formula.id, planned.plan.trial_ground(&planned.whole.kitchen, measure, &trays)))
}

fn difference(mm: f64) -> Result<Length, InputErrors> {
    Length::from_mm(mm).map_err(|e| InputError::refused("difference_mm", e.to_string()).into())
}

/// How large a trial of the job's dough would be.
#[utoipa::path(tag = "records", operation_id = "trial_size", params(("id" = i64, Path), TrialSizeQuery), responses((status = 200, body = TrialSizeView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/trial-size")]
pub async fn how_large(
    store: Of<Store>,
    board: Of<Board>,
    id: web::Path<i64>,
    query: Query<TrialSizeQuery>,
) -> Result<web::Json<TrialSizeView>, ApiError> {
    let (_, ground) = ground(&store, &board, JobId(*id), query.measure).await?;
    let asked = ground.asked(query.ways, difference(query.difference_mm)?);
    let own = ground.own;
    Ok(web::Json(web::block(move || Ok::<_, InputErrors>(TrialSizeView::new(&asked.size()?, &asked, own))).await??))
}

/// Plans a trial: its pieces are laid out over the job's trays, so that no hot side decides.
#[utoipa::path(tag = "records", operation_id = "trial_plan", request_body = NewTrialBody, responses((status = 200, body = TryView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/jobs/{id}/tries")]
pub async fn begin(
    store: Of<Store>,
    board: Of<Board>,
    id: web::Path<i64>,
    payload: web::Payload,
) -> Result<web::Json<TryView>, ApiError> {
    let id = JobId(*id);
    let body: NewTrialBody = read(payload).await?;
    let (formula_id, ground) = ground(&store, &board, id, body.measure).await?;
    let difference = difference(body.difference_mm)?;
    let planned_at = Utc::now();
    let seed = planned_at.timestamp_millis().cast_unsigned();
    let trial = web::block(move || Trial::new(&body.name, &body.ways, (body.measure, difference), ground, seed));
    let trying = Trying::Trial(trial.await??);
    kept(&store, NewTry { job_id: id, formula_id, planned_at, trying }).await
}

/// Notes what came of it, and reads it out.
#[utoipa::path(tag = "records", operation_id = "try_note", request_body = TryNoted, responses((status = 200, body = TryView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/tries/{id}/noted")]
pub async fn note(store: Of<Store>, id: web::Path<i64>, payload: web::Payload) -> Result<web::Json<TryView>, ApiError> {
    let id = TryId(*id);
    let noted: TryNoted = read(payload).await?;
    // What cannot be read out is not kept.
    store.one_try(id).await?.kept.trying.found(&noted)?;
    store.note_try(id, Some(&noted), Utc::now()).await?;
    shown(&store, id).await
}

/// What was measured in a trial, as a table (CSV, RFC 4180): a piece a line.
#[utoipa::path(tag = "records", operation_id = "try_csv", params(("id" = i64, Path)), responses((status = 200, body = String, content_type = "text/csv"), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/tries/{id}/noted.csv")]
pub async fn as_csv(store: Of<Store>, id: web::Path<i64>) -> Result<HttpResponse, ApiError> {
    let Some(table) = trial_csv(&store.one_try(TryId(*id)).await?) else {
        return Err(InputError::refused("id", "Nothing measured yet. Measure some cookies first.").into());
    };
    Ok(file("text/csv; charset=utf-8", "trial.csv", table))
}

/// Takes back what was noted: it is still to be made.
#[utoipa::path(tag = "records", operation_id = "try_unnote", responses((status = 200, body = TryView), (status = 404, body = Problem)))]
#[delete("/api/tries/{id}/noted")]
pub async fn unnote(store: Of<Store>, id: web::Path<i64>) -> Result<web::Json<TryView>, ApiError> {
    store.note_try(TryId(*id), None, Utc::now()).await?;
    shown(&store, TryId(*id)).await
}

/// Takes it away.
#[utoipa::path(tag = "records", operation_id = "try_delete", responses((status = 204), (status = 404, body = Problem)))]
#[delete("/api/tries/{id}")]
pub async fn delete(store: Of<Store>, id: web::Path<i64>) -> Result<HttpResponse, ApiError> {
    store.delete_try(TryId(*id)).await?;
    Ok(HttpResponse::NoContent().finish())
}
