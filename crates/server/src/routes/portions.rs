//! Portions of a job's dough, how even its sheets are, and what its scraps give with those of another.

use crate::bakeries::Of;
use crate::board::Board;
use crate::problem::{ApiError, Problem, Query};
use crate::whole::{Planned, WholeJob};
use crate::wire::{EvenQuery, EvenView, FirmView, MarbledQuery, MarbledView, PortionQuery, PortionView};
use actix_web::{get, web};
use ready_slab_core::error::InputErrors;
use ready_slab_core::job::{ColdPlace, chill_portion, even_bake, even_sheet, marbled, portion_outline};
use ready_slab_core::shape::portion_out;
use ready_slab_core::units::Span;
use ready_slab_store::{JobId, Store};

/// What the job's dough gives in portions, how large they are and when they are firm for the oven.
#[utoipa::path(tag = "shape", operation_id = "shape_portion", params(("id" = i64, Path), PortionQuery), responses((status = 200, body = PortionView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/portion")]
pub async fn portion(
    store: Of<Store>,
    id: web::Path<i64>,
    query: Query<PortionQuery>,
) -> Result<web::Json<PortionView>, ApiError> {
    let whole = WholeJob::read(&store, JobId(*id)).await?;
    let view = web::block(move || {
        let dough = whole.dough()?;
        let trays = whole.kitchen.trays();
        let portion = query.portion((trays.width(), trays.length()))?;
        let batch = query.batch(dough.dough)?;
        let found = portion_out(portion.clone(), batch, dough.density)?;
        let outline = portion_outline(&portion, dough.density)?;
        let mut firm = Vec::with_capacity(2);
        for place in [ColdPlace::Fridge, ColdPlace::Freezer] {
            firm.push(FirmView::new(place.key(), &chill_portion(&whole.kitchen, &dough, found.chills_as, place)?));
        }
        Ok::<_, InputErrors>(PortionView::new(&portion, batch, &found, &outline, firm))
    })
    .await??;
    Ok(web::Json(view))
}

/// How even a sheet is, by the thickness read on it, and what that does to the bake; null while nothing was read.
#[utoipa::path(tag = "shape", operation_id = "shape_evenness", params(("id" = i64, Path), EvenQuery), responses((status = 200, body = Option<EvenView>), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/evenness")]
pub async fn evenness(
    board: Of<Board>,
    id: web::Path<i64>,
    query: Query<EvenQuery>,
) -> Result<web::Json<Option<EvenView>>, ApiError> {
    let planned = board.planned(JobId(*id)).await?;
    let view = web::block(move || {
        let Planned { whole, plan } = &*planned;
        let job = &whole.stored.job;
        let Some(even) = even_sheet(job, &whole.kitchen, query.sheet) else { return Ok(None) };
        let bake = even_bake(job, &whole.formula.formula, &whole.kitchen, &plan.oven.question, &even)?;
        Ok::<_, InputErrors>(Some(EvenView::new(&even, bake)))
    })
    .await??;
    Ok(web::Json(view))
}

/// The scraps of this job and of another pressed together and rolled once: what they give with this job's cutter.
#[utoipa::path(tag = "shape", operation_id = "shape_marbled", params(("id" = i64, Path), MarbledQuery), responses((status = 200, body = MarbledView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/marbled")]
pub async fn marble(
    board: Of<Board>,
    id: web::Path<i64>,
    query: Query<MarbledQuery>,
) -> Result<web::Json<MarbledView>, ApiError> {
    let own = board.planned(JobId(*id)).await?;
    let other = board.planned(JobId(query.with)).await?;
    let view = web::block(move || {
        let (whole, own_plan, other_plan) = (&own.whole, &own.plan, &other.plan);
        let (own_left, other_left) = (own_plan.shape.demand.left, other_plan.shape.demand.left);
        let (own, beside) = query.masses((own_left, other_left))?;
        let both = [(own, own_plan.dough.density), (beside, other_plan.dough.density)];
        let found = marbled(&whole.stored.job, &whole.cutter.outline, &whole.kitchen, both[0], both[1])?;
        let allergens = [whole, &other.whole].into_iter().flat_map(|w| w.formula.formula.allergens()).collect();
        // The same pieces of the other dough: what is done first says when to look.
        let of_other = whole.clone().of_dough(&other.whole).plan()?;
        let bakes = [&own_plan.oven.expected, &of_other.oven.expected];
        let sooner = |a: Span, b: Span| if b < a { b } else { a };
        let about = sooner(bakes[0].about(), bakes[1].about());
        let look = sooner(bakes[0].look_after, bakes[1].look_after);
        Ok::<_, InputErrors>(MarbledView::new(&found, own, beside, (about, look), &allergens))
    })
    .await??;
    Ok(web::Json(view))
}
