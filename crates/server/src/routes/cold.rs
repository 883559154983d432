//! The cold station of a job: what must be done to have it ready when it is wanted, other ways, and what to do if it is not.

use crate::bakeries::Of;
use crate::board::Board;
use crate::problem::{ApiError, Problem, Query};
use crate::whole::Planned;
use crate::wire::{AdviceView, SectionView, WantedQuery, WantedView, WayView, WaysQuery};
use actix_web::{get, web};
use ready_slab_core::cold::{drawn_to, section};
use ready_slab_core::error::{InputError, InputErrors};
use ready_slab_core::job::{TroubleInput, advise, one_way, question_of_way, wanted_ways, ways};
use ready_slab_core::units::Span;
use ready_slab_store::JobId;

/// Pictures of the inside over the time that matters.
const FRAMES: u32 = 36;
/// How far the pictures go where a piece is never ready or never past.
const SHOWN: Span = Span::new_min(24.0 * 60.0);

/// Every way to have the first mix ready to roll at a wanted time, at the slow end of its range.
#[utoipa::path(tag = "cold", operation_id = "cold_wanted", params(("id" = i64, Path), WantedQuery), responses((status = 200, body = WantedView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/cold/wanted")]
pub async fn wanted(
    board: Of<Board>,
    id: web::Path<i64>,
    query: Query<WantedQuery>,
) -> Result<web::Json<WantedView>, ApiError> {
    let planned = board.planned(JobId(*id)).await?;
    let zone = planned.whole.kitchen.zone();
    let (within, ready_at) = query.within(zone)?;
    let view = web::block(move || {
        let Planned { whole, plan } = &*planned;
        let ways = wanted_ways(&whole.stored.job, &whole.kitchen, plan, within)?;
        Ok::<_, InputErrors>(WantedView::new(&ways, within, ready_at, zone))
    })
    .await??;
    Ok(web::Json(view))
}

/// The dough of the job's first roll chilled in other forms, in fridge and freezer, the quickest first.
#[utoipa::path(tag = "cold", operation_id = "cold_ways", params(("id" = i64, Path), WaysQuery), responses((status = 200, body = Vec<WayView>), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/cold/ways")]
pub async fn other_ways(
    board: Of<Board>,
    id: web::Path<i64>,
    query: Query<WaysQuery>,
) -> Result<web::Json<Vec<WayView>>, ApiError> {
    let sizes = query.sizes()?;
    let planned = board.planned(JobId(*id)).await?;
    let views = web::block(move || {
        let Planned { whole, plan } = &*planned;
        let found = ways(&whole.stored.job, &whole.kitchen, plan, &sizes)?;
        Ok::<_, InputErrors>(found.iter().map(WayView::from).collect::<Vec<_>>())
    })
    .await??;
    Ok(web::Json(views))
}

/// The inside of a piece, chilled in one of the ways, over the time that matters.
#[utoipa::path(tag = "cold", operation_id = "cold_section", params(("id" = i64, Path), WaysQuery), responses((status = 200, body = SectionView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/cold/section")]
pub async fn inside(
    board: Of<Board>,
    id: web::Path<i64>,
    query: Query<WaysQuery>,
) -> Result<web::Json<SectionView>, ApiError> {
    let sizes = query.sizes()?;
    let planned = board.planned(JobId(*id)).await?;
    let view = web::block(move || {
        let Planned { whole, plan } = &*planned;
        let job = &whole.stored.job;
        let Some(way) = one_way(job, &whole.kitchen, plan, &sizes, query.way.as_deref())? else {
            let found = ways(job, &whole.kitchen, plan, &sizes)?;
            let keys: Vec<&str> = found.iter().map(|w| w.key.as_str()).collect();
            return Err(InputError::refused("way", format!("Use one of {}.", keys.join(", "))).into());
        };
        let question = question_of_way(job, &whole.kitchen, plan, &way)?;
        let answer = &way.answer;
        let until = drawn_to(answer.ready_after, answer.past_after).unwrap_or(SHOWN);
        Ok::<_, InputErrors>(SectionView::new(&way, &section(&question, until, FRAMES), plan.cold.window))
    })
    .await??;
    Ok(web::Json(view))
}

/// What to do when something went wrong, with figures.
#[utoipa::path(tag = "cold", operation_id = "cold_advice", params(("id" = i64, Path), TroubleInput), responses((status = 200, body = AdviceView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/cold/advice")]
pub async fn advice(
    board: Of<Board>,
    id: web::Path<i64>,
    query: Query<TroubleInput>,
) -> Result<web::Json<AdviceView>, ApiError> {
    let planned = board.planned(JobId(*id)).await?;
    let view = web::block(move || {
        let Planned { whole, plan } = &*planned;
        let trouble = query.trouble(&whole.kitchen, plan)?;
        let found = advise(&whole.stored.job, &whole.kitchen, plan, trouble, &|kitchen| whole.plan_in(kitchen))?;
        Ok::<_, InputErrors>(AdviceView::new(&found, trouble))
    })
    .await??;
    Ok(web::Json(view))
}
