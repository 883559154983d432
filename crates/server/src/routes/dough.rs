//! The dough station of a job: sizes, the mixing sheet, the bowl, cost and label.

use super::read;
use crate::problem::{ApiError, Problem};
use crate::whole::WholeJob;
use crate::wire::{
    BowlRequest, CorrectionView, LabelView, MINUTE_FORMAT, MixNoteBody, MixNoteView, MixingView, SizeRequest, SizedView,
};
use actix_web::{HttpResponse, delete, get, post, web};
use ready_slab_core::dough::{NotedMix, Role, correct, cost_of, label, learn, mixing_sheet, size_dough};
use ready_slab_core::error::{Checks, InputErrors};
use ready_slab_core::job::{pan_fill, pieces_from};
use ready_slab_core::units::{Mass, Temperature};
use ready_slab_store::{JobId, MixNoteId, NewMixNote, Store, StoredMixNote};

/// The mixing sheet of a job.
#[utoipa::path(tag = "dough", operation_id = "dough_mixing", responses((status = 200, body = MixingView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/mixing")]
pub async fn mixing(store: web::Data<Store>, id: web::Path<i64>) -> Result<web::Json<MixingView>, ApiError> {
    let id = JobId(*id);
    let whole = WholeJob::read(&store, id).await?;
    let notes = store.mix_notes(id).await?;
    let all = store.mix_notes_of(whole.stored.formula_id).await?;
    let pantry = store.pantry().await?;
    let view = web::block(move || {
        let plan = whole.dough()?;
        let job = &whole.stored.job;
        let method = job.input().method;
        let sheet = mixing_sheet(&plan.mixes, method, job.tints(), whole.kitchen.room(), whole.kitchen.fridge_air());
        let learnt = learn(&noted(&all, &pantry));
        Ok::<_, InputErrors>(MixingView::new(&sheet, &plan.mixes, method, whole.formula.version, &notes, learnt))
    })
    .await??;
    Ok(web::Json(view))
}

/// Notes as mixes: several notes on one mix of a job are one mix.
fn noted(notes: &[StoredMixNote], pantry: &ready_slab_core::dough::Pantry) -> Vec<NotedMix> {
    let mut mixes: Vec<((i64, u32), NotedMix)> = Vec::new();
    for n in notes.iter().map(|n| &n.kept) {
        let key = (n.job_id.0, n.mix);
        let at = mixes.iter().position(|m| m.0 == key).unwrap_or_else(|| {
            mixes.push((key, NotedMix { flour: n.flour, flour_more_g: 0.0, water_more_g: 0.0 }));
            mixes.len() - 1
        });
        let mix = &mut mixes[at].1;
        mix.flour_more_g -= n.left_over.g();
        if let Some(ingredient) = n.ingredient.as_deref().and_then(|key| pantry.get(key)) {
            if ingredient.role() == Role::Flour {
                mix.flour_more_g += n.added.g();
            } else {
                mix.water_more_g += n.added.g() * ingredient.analysis.water / 100.0;
            }
        }
    }
    mixes.into_iter().map(|m| m.1).collect()
}

/// Grams of flour and of anything else that went into a mix before.
fn added_before(notes: &[StoredMixNote], mix: u32, pantry: &ready_slab_core::dough::Pantry) -> (Mass, Mass) {
    let mut added = (0.0, 0.0);
    for n in notes.iter().map(|n| &n.kept).filter(|n| n.mix == mix) {
        let flour = n.ingredient.as_deref().and_then(|k| pantry.get(k)).is_some_and(|i| i.role() == Role::Flour);
        if flour { added.0 += n.added.g() } else { added.1 += n.added.g() }
    }
    (Mass::new_g(added.0), Mass::new_g(added.1))
}

fn measured(dough_c: Option<f64>) -> Option<Temperature> {
    dough_c.and_then(|c| Temperature::from_c(c).ok())
}

/// What to do about a dough that does not feel right; nothing is kept.
#[utoipa::path(tag = "dough", operation_id = "dough_bowl_advice", request_body = BowlRequest, responses((status = 200, body = CorrectionView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/jobs/{id}/bowl/advice")]
pub async fn bowl_advice(
    store: web::Data<Store>,
    id: web::Path<i64>,
    payload: web::Payload,
) -> Result<web::Json<CorrectionView>, ApiError> {
    let id = JobId(*id);
    let request: BowlRequest = read(payload).await?;
    let whole = WholeJob::read(&store, id).await?;
    let plan = whole.dough()?;
    mix_number(request.mix, plan.mixes.count)?;
    let pantry = store.pantry().await?;
    let added = added_before(&store.mix_notes(id).await?, request.mix, &pantry);
    let method = whole.stored.job.input().method;
    let correction = correct(
        &plan.mixes.formula,
        plan.mixes.each,
        method,
        request.feel,
        request.squeeze,
        measured(request.dough_c),
        added,
    )?;
    let name = correction.add.and_then(|key| pantry.get(key)).map(|i| i.name.to_string());
    let flour = correction.add.and_then(|key| pantry.get(key)).is_some_and(|i| i.role() == Role::Flour);
    Ok(web::Json(CorrectionView::new(&correction, name, if flour { added.0 } else { added.1 })))
}

fn mix_number(mix: u32, count: u32) -> Result<(), InputErrors> {
    let mut checks = Checks::new();
    checks.range("mix", f64::from(mix), 1.0, f64::from(count), "mixes");
    checks.finish(())
}

/// Keeps what was done at the bowl.
#[utoipa::path(tag = "dough", operation_id = "dough_bowl_note", request_body = MixNoteBody, responses((status = 200, body = MixNoteView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/jobs/{id}/bowl")]
pub async fn bowl_note(
    store: web::Data<Store>,
    id: web::Path<i64>,
    payload: web::Payload,
) -> Result<web::Json<MixNoteView>, ApiError> {
    let id = JobId(*id);
    let body: MixNoteBody = read(payload).await?;
    let whole = WholeJob::read(&store, id).await?;
    let plan = whole.dough()?;
    mix_number(body.mix, plan.mixes.count)?;
    let mut checks = Checks::new();
    let most = plan.mixes.each.g().max(1.0);
    checks.range("added_g", body.added_g, 0.0, most, "g");
    checks.range("left_over_g", body.left_over_g, 0.0, most, "g");
    if let Some(c) = body.dough_c {
        checks.range("dough_c", c, -5.0, 45.0, "\u{b0}C");
    }
    if let Some(key) = &body.ingredient
        && store.pantry().await?.get(key).is_none()
    {
        checks.push(ready_slab_core::error::InputError::refused("ingredient", "that is not in the pantry"));
    }
    checks.finish(())?;
    let formula = &plan.mixes.formula;
    let note = NewMixNote {
        job_id: id,
        formula_id: whole.stored.formula_id,
        formula_version: whole.formula.version,
        noted_at: whole.kitchen.zone().shown(chrono::Utc::now()).format(MINUTE_FORMAT).to_string(),
        mix: body.mix,
        feel: body.feel,
        squeeze: body.squeeze,
        ingredient: body.ingredient.clone(),
        added: Mass::new_g(body.added_g),
        left_over: Mass::new_g(body.left_over_g),
        flour: formula.role_mass(Role::Flour) * (plan.mixes.each / formula.total()),
        dough: measured(body.dough_c),
    };
    let kept = store.add_mix_note(&note).await?;
    Ok(web::Json((&StoredMixNote { id: kept, kept: note }).into()))
}

/// Strikes a note on a mix out; it is kept and can be put back.
#[utoipa::path(tag = "dough", operation_id = "dough_bowl_delete", responses((status = 204), (status = 404, body = Problem)))]
#[delete("/api/bowl/{id}")]
pub async fn bowl_delete(store: web::Data<Store>, id: web::Path<i64>) -> Result<HttpResponse, ApiError> {
    store.strike_mix_note(MixNoteId(*id), true).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Puts a note on a mix back that was struck out.
#[utoipa::path(tag = "dough", operation_id = "dough_bowl_put_back", responses((status = 204), (status = 404, body = Problem)))]
#[post("/api/bowl/{id}/put-back")]
pub async fn bowl_put_back(store: web::Data<Store>, id: web::Path<i64>) -> Result<HttpResponse, ApiError> {
    store.strike_mix_note(MixNoteId(*id), false).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// What size a dough has by mass, factor or what is on hand, and how many of the job's pieces that makes; nothing is kept.
#[utoipa::path(tag = "dough", operation_id = "dough_size", request_body = SizeRequest, responses((status = 200, body = SizedView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/jobs/{id}/size")]
pub async fn size(
    store: web::Data<Store>,
    id: web::Path<i64>,
    payload: web::Payload,
) -> Result<web::Json<SizedView>, ApiError> {
    let request: SizeRequest = read(payload).await?;
    let whole = WholeJob::read(&store, JobId(*id)).await?;
    let view = web::block(move || {
        let formula = &whole.formula.formula;
        let sized = size_dough(formula, &request.by()?)?;
        let pieces = pieces_from(sized.dough, &whole.stored.job, formula, &whole.cutter.outline, &whole.kitchen)?;
        Ok::<_, InputErrors>(SizedView::new(&sized, formula, pieces, pan_fill(sized.dough, &whole.stored.job, formula)))
    })
    .await??;
    Ok(web::Json(view))
}

/// What the job's dough costs, and the draft of its label.
#[utoipa::path(tag = "dough", operation_id = "dough_label", responses((status = 200, body = LabelView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/label")]
pub async fn cost_and_label(store: web::Data<Store>, id: web::Path<i64>) -> Result<web::Json<LabelView>, ApiError> {
    let whole = WholeJob::read(&store, JobId(*id)).await?;
    let plan = whole.dough()?;
    let pantry = store.pantry().await?;
    let formula = &plan.mixes.formula;
    let cost = cost_of(formula, plan.dough, &pantry);
    let pieces = plan.parts.iter().map(|p| p.pieces).sum();
    let currency = &whole.kitchen.input().currency;
    Ok(web::Json(LabelView::new(&cost, &label(formula), &pantry, currency, pieces, formula.allergens())))
}
