//! The oven looked at closer: points and necks of a piece, a tray's pieces one by one, the map of hot spots, and a thermometer's test.

use super::read;
use super::stream::event;
use crate::bakeries::Of;
use crate::board::Board;
use crate::problem::{ApiError, Problem, Query};
use crate::whole::Planned;
use crate::wire::{HotSpotsView, OvenTestBody, OvenTestView, PartsAheadView, ThermometerQuery, TrayTimesView};
use crate::wire::{SentenceView, say_all};
use actix_web::http::header::{CACHE_CONTROL, CONTENT_ENCODING};
use actix_web::web::Bytes;
use actix_web::{HttpResponse, get, post, web};
use ready_slab_core::error::InputErrors;
use ready_slab_core::job::{PotCaution, parts_ahead, tray_times};
use ready_slab_core::oven::HotSpotsInput;
use ready_slab_core::oven::{OvenStandIn, judge_oven};
use ready_slab_core::units::Temperature;
use ready_slab_store::{JobId, Store};
use std::convert::Infallible;
use std::time::Duration;

/// Points and necks of a job's piece that bake ahead of the rest; none where the forecast does not reach.
#[utoipa::path(tag = "oven", operation_id = "oven_parts", params(("id" = i64, Path)), responses((status = 200, body = Vec<PartsAheadView>), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/parts-ahead")]
pub async fn parts(board: Of<Board>, id: web::Path<i64>) -> Result<web::Json<Vec<PartsAheadView>>, ApiError> {
    let planned = board.planned(JobId(*id)).await?;
    let found = web::block(move || {
        let Planned { whole, plan } = &*planned;
        let found = match &plan.oven.forecast {
            Some(forecast) => parts_ahead(&whole.cutter.outline, &plan.oven.question, forecast)?,
            None => vec![],
        };
        let view = |part| PartsAheadView::new(part, plan.oven.hides_colour);
        Ok::<_, InputErrors>(found.iter().map(view).collect())
    })
    .await??;
    Ok(web::Json(found))
}

/// When each piece of a job's full tray is done, by its place in the oven and by the sheet it was cut from.
#[utoipa::path(tag = "oven", operation_id = "oven_tray_times", params(("id" = i64, Path)), responses((status = 200, body = TrayTimesView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/tray-times")]
pub async fn tray(board: Of<Board>, id: web::Path<i64>) -> Result<web::Json<TrayTimesView>, ApiError> {
    let planned = board.planned(JobId(*id)).await?;
    let found = web::block(move || {
        let Planned { whole, plan } = &*planned;
        tray_times(&whole.stored.job, &whole.kitchen, plan)
    })
    .await??;
    Ok(web::Json((&found).into()))
}

/// What to mind with a covered pot in place of an oven, to be read before it is chosen.
#[utoipa::path(tag = "oven", operation_id = "oven_pot_cautions", responses((status = 200, body = Vec<SentenceView>)))]
#[get("/api/kitchen/pot-cautions")]
pub async fn pot_cautions() -> web::Json<Vec<SentenceView>> {
    web::Json(say_all(&PotCaution::ALL))
}

/// What a map of the oven's hot spots says.
#[utoipa::path(tag = "oven", operation_id = "oven_hot_spots", request_body = HotSpotsInput, responses((status = 200, body = HotSpotsView), (status = 422, body = Problem)))]
#[post("/api/compute/hot-spots")]
pub async fn hot_spots(payload: web::Payload) -> Result<web::Json<HotSpotsView>, ApiError> {
    let body: HotSpotsInput = read(payload).await?;
    Ok(web::Json((&body.checked()?).into()))
}

/// What the readings of a thermometer in an oven say of it.
#[utoipa::path(tag = "oven", operation_id = "oven_test", request_body = OvenTestBody, responses((status = 200, body = OvenTestView), (status = 422, body = Problem)))]
#[post("/api/compute/oven-test")]
pub async fn test(payload: web::Payload) -> Result<web::Json<OvenTestView>, ApiError> {
    let body: OvenTestBody = read(payload).await?;
    Ok(web::Json((&body.judged()?).into()))
}

/// The stand-in thermometer in the oven: `reading` (an `OvenReadBody`) for each, as the stand-in's clock has it, then `found` (an
/// `OvenTestView`). It stops when the connection is closed.
#[utoipa::path(tag = "oven", operation_id = "oven_thermometer", params(ThermometerQuery), responses((status = 200, body = String, content_type = "text/event-stream"), (status = 422, body = Problem)))]
#[get("/api/kitchen/oven-thermometer")]
pub async fn thermometer(store: Of<Store>, query: Query<ThermometerQuery>) -> Result<HttpResponse, ApiError> {
    let query = query.0.checked()?;
    let room = store.kitchen().await?.room();
    let readings = OvenStandIn::DEMO.reads(Temperature::new_c(query.set_c), room);
    let found = judge_oven(query.set_c, &readings)?;
    let told = futures_util::stream::unfold((0_usize, readings), move |(at, readings)| {
        let found = found.clone();
        async move {
            let said = match (at.checked_sub(1).and_then(|i| readings.get(i)), readings.get(at)) {
                (before, Some(reading)) => {
                    let wait_min = before.map_or(0.0, |b| reading.after_min - b.after_min);
                    tokio::time::sleep(Duration::from_secs_f64(60.0 * wait_min / query.speed)).await;
                    event("reading", reading)
                }
                (Some(_), None) => event("found", &OvenTestView::from(&found)),
                (None, None) => return None,
            };
            Some((Ok::<Bytes, Infallible>(said), (at + 1, readings)))
        }
    });
    Ok(HttpResponse::Ok()
        .content_type("text/event-stream")
        .insert_header((CACHE_CONTROL, "no-store"))
        .insert_header((CONTENT_ENCODING, "identity"))
        .streaming(told))
}
