//! The dough station of a job: sizes, the mixing sheet, the bowl, cost and label.

use super::read;
use crate::bakeries::Of;
use crate::problem::{ApiError, Problem};
use crate::whole::WholeJob;
use crate::wire::{CorrectionView, LabelView, MINUTE_FORMAT, MixNoteView, MixingView, SizedView};
use actix_web::{HttpResponse, delete, get, post, web};
use ready_slab_core::dough::{
    Added, BowlNote, BowlQuestion, SizeBy, correct, cost_of, flour_of_a_mix, label, learn, mixing_sheet, noted_mixes,
    size_dough,
};
use ready_slab_core::error::InputErrors;
use ready_slab_core::job::{pan_fill, pieces_from};
use ready_slab_core::units::Mass;
use ready_slab_store::{JobId, MixNoteId, NewMixNote, Store, StoredMixNote};

/// The mixing sheet of a job.
#[utoipa::path(tag = "dough", operation_id = "dough_mixing", responses((status = 200, body = MixingView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/mixing")]
pub async fn mixing(store: Of<Store>, id: web::Path<i64>) -> Result<web::Json<MixingView>, ApiError> {
    let id = JobId(*id);
    let whole = WholeJob::read(&store, id).await?;
    let notes = store.mix_notes(id).await?;
    let all = store.mix_notes_of(whole.stored.formula_id()).await?;
    let pantry = store.pantry().await?;
    let view = web::block(move || {
        let plan = whole.dough()?;
        let job = &whole.stored.job;
        let method = job.input().dough.method;
        let sheet = mixing_sheet(&plan.mixes, method, job.tints(), whole.kitchen.room(), whole.kitchen.fridge_air());
        let learnt = learn(&noted_mixes(all.iter().map(|n| (n.kept.job_id.0, n.kept.flour, &n.kept.note)), &pantry));
        Ok::<_, InputErrors>(MixingView::new(&sheet, &plan.mixes, method, whole.formula.version, &notes, learnt))
    })
    .await??;
    Ok(web::Json(view))
}

/// What to do about a dough that does not feel right; nothing is kept.
#[utoipa::path(tag = "dough", operation_id = "dough_bowl_advice", request_body = BowlQuestion, responses((status = 200, body = CorrectionView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/jobs/{id}/bowl/advice")]
pub async fn bowl_advice(
    store: Of<Store>,
    id: web::Path<i64>,
    payload: web::Payload,
) -> Result<web::Json<CorrectionView>, ApiError> {
    let id = JobId(*id);
    let question: BowlQuestion = read(payload).await?;
    let whole = WholeJob::read(&store, id).await?;
    let plan = whole.dough()?;
    let pantry = store.pantry().await?;
    let notes = store.mix_notes(id).await?;
    let added = Added::to(question.mix, notes.iter().map(|n| &n.kept.note), &pantry);
    let correction = correct(&plan.mixes, whole.stored.job.input().dough.method, &question, added)?;
    let name = correction.add.and_then(|key| pantry.get(key)).map(|i| i.name.to_string());
    let before = correction.add.map_or(Mass::new_g(0.0), |key| added.like(key, &pantry));
    Ok(web::Json(CorrectionView::new(&correction, name, before)))
}

/// Keeps what was done at the bowl.
#[utoipa::path(tag = "dough", operation_id = "dough_bowl_note", request_body = BowlNote, responses((status = 200, body = MixNoteView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/jobs/{id}/bowl")]
pub async fn bowl_note(
    store: Of<Store>,
    id: web::Path<i64>,
    payload: web::Payload,
) -> Result<web::Json<MixNoteView>, ApiError> {
    let id = JobId(*id);
    let note: BowlNote = read(payload).await?;
    let whole = WholeJob::read(&store, id).await?;
    let mixes = whole.dough()?.mixes;
    note.check(&mixes, &store.pantry().await?)?;
    let new = NewMixNote {
        job_id: id,
        formula_id: whole.stored.formula_id(),
        formula_version: whole.formula.version,
        noted_at: whole.kitchen.zone().shown(chrono::Utc::now()).format(MINUTE_FORMAT).to_string(),
        flour: flour_of_a_mix(&mixes),
        note,
    };
    let kept = store.add_mix_note(&new).await?;
    Ok(web::Json((&StoredMixNote { id: kept, kept: new }).into()))
}

/// Strikes a note on a mix out; it is kept and can be put back.
#[utoipa::path(tag = "dough", operation_id = "dough_bowl_delete", responses((status = 204), (status = 404, body = Problem)))]
#[delete("/api/bowl/{id}")]
pub async fn bowl_delete(store: Of<Store>, id: web::Path<i64>) -> Result<HttpResponse, ApiError> {
    store.strike_mix_note(MixNoteId(*id), true).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Puts a note on a mix back that was struck out.
#[utoipa::path(tag = "dough", operation_id = "dough_bowl_put_back", responses((status = 204), (status = 404, body = Problem)))]
#[post("/api/bowl/{id}/put-back")]
pub async fn bowl_put_back(store: Of<Store>, id: web::Path<i64>) -> Result<HttpResponse, ApiError> {
    store.strike_mix_note(MixNoteId(*id), false).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// What size a dough has by mass, factor or what is on hand, and how many of the job's pieces that makes; nothing is kept.
#[utoipa::path(tag = "dough", operation_id = "dough_size", request_body = SizeBy, responses((status = 200, body = SizedView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/jobs/{id}/size")]
pub async fn size(
    store: Of<Store>,
    id: web::Path<i64>,
    payload: web::Payload,
) -> Result<web::Json<SizedView>, ApiError> {
    let by: SizeBy = read(payload).await?;
    let whole = WholeJob::read(&store, JobId(*id)).await?;
    let view = web::block(move || {
        let formula = &whole.formula.formula;
        let sized = size_dough(formula, &by)?;
        let job = &whole.stored.job;
        let pieces = pieces_from(sized.dough, job, formula, &whole.cutter.outline, &whole.kitchen)?;
        Ok::<_, InputErrors>(SizedView::new(&sized, formula, job, pieces, pan_fill(sized.dough, job, formula)))
    })
    .await??;
    Ok(web::Json(view))
}

/// What the job's dough costs, and the draft of its label.
#[utoipa::path(tag = "dough", operation_id = "dough_label", responses((status = 200, body = LabelView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/label")]
pub async fn cost_and_label(store: Of<Store>, id: web::Path<i64>) -> Result<web::Json<LabelView>, ApiError> {
    let whole = WholeJob::read(&store, JobId(*id)).await?;
    let plan = whole.dough()?;
    let pantry = store.pantry().await?;
    let formula = &plan.mixes.formula;
    let cost = cost_of(formula, plan.dough, &pantry);
    let pieces = plan.parts.iter().map(|p| p.pieces).sum();
    let currency = &whole.kitchen.input().house.currency;
    Ok(web::Json(LabelView::new(&cost, &label(formula), &pantry, currency, pieces, formula.allergens())))
}
