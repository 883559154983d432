//! What was learnt of the kitchen's cold places and of the doughs, visible and resettable.

use super::read;
use crate::bakeries::Of;
use crate::board::Board;
use crate::problem::{ApiError, Problem};
use crate::whole::WholeJob;
use crate::wire::{PlaceUseBody, PlaceView, TouchBody, TouchesView, UseWord};
use actix_web::{HttpResponse, delete, get, post, put, web};
use chrono::Utc;
use ready_slab_core::cold::Window;
use ready_slab_core::job::ColdPlace;
use ready_slab_store::{JobId, Store};

async fn places_of(store: &Store) -> Result<Vec<PlaceView>, ApiError> {
    let kitchen = store.kitchen().await?;
    let mut found = Vec::with_capacity(4);
    for place in [ColdPlace::Fridge, ColdPlace::Freezer] {
        let present = store.busy(place).await?;
        for busy in [false, true] {
            let taught = store.taught(place, busy).await?;
            let knowledge = store.knowledge(place, busy).await?;
            found.push(PlaceView::new(place, busy, busy == present, &kitchen, knowledge, taught.as_ref()));
        }
    }
    Ok(found)
}

/// What is thought of each cold place, in its usual use and when it is crowded or often opened.
#[utoipa::path(tag = "learnt", operation_id = "places_list", responses((status = 200, body = Vec<PlaceView>)))]
#[get("/api/places")]
pub async fn places(store: Of<Store>) -> Result<web::Json<Vec<PlaceView>>, ApiError> {
    Ok(web::Json(places_of(&store).await?))
}

/// Says how a place is used at present; plans and pieces put in from now on follow it.
#[utoipa::path(tag = "learnt", operation_id = "place_use", params(("place" = ColdPlace, Path)), request_body = PlaceUseBody, responses((status = 200, body = Vec<PlaceView>), (status = 422, body = Problem)))]
#[put("/api/places/{place}/use")]
pub async fn use_of(
    store: Of<Store>,
    board: Of<Board>,
    place: web::Path<ColdPlace>,
    payload: web::Payload,
) -> Result<web::Json<Vec<PlaceView>>, ApiError> {
    let body: PlaceUseBody = read(payload).await?;
    store.set_busy(place.into_inner(), body.busy).await?;
    board.touch();
    Ok(web::Json(places_of(&store).await?))
}

/// Forgets what was learnt of a place in one of its uses.
#[utoipa::path(tag = "learnt", operation_id = "place_reset", params(("place" = ColdPlace, Path), ("used" = UseWord, Path)), responses((status = 200, body = Vec<PlaceView>)))]
#[delete("/api/places/{place}/{used}")]
pub async fn reset(
    store: Of<Store>,
    board: Of<Board>,
    path: web::Path<(ColdPlace, UseWord)>,
) -> Result<web::Json<Vec<PlaceView>>, ApiError> {
    let (place, used) = path.into_inner();
    store.reset_place(place, used == UseWord::Busy).await?;
    board.touch();
    Ok(web::Json(places_of(&store).await?))
}

async fn touches_of(store: &Store, job: JobId) -> Result<TouchesView, ApiError> {
    let whole = WholeJob::read(store, job).await?;
    let now = Window::of(&whole.formula.formula.composition());
    let limits = whole.felt.as_ref().zip(now.as_ref()).map(|((by_fat, learnt), now)| (by_fat, now, learnt));
    Ok(TouchesView::new(limits, &whole.touches))
}

/// What hands have found of the job's dough, and how far it moved the dough's limits.
#[utoipa::path(tag = "learnt", operation_id = "touches_list", params(("id" = i64, Path)), responses((status = 200, body = TouchesView), (status = 404, body = Problem)))]
#[get("/api/jobs/{id}/touches")]
pub async fn touches(store: Of<Store>, id: web::Path<i64>) -> Result<web::Json<TouchesView>, ApiError> {
    Ok(web::Json(touches_of(&store, JobId(*id)).await?))
}

/// Notes what a hand found at a temperature; it holds for every job of the formula.
#[utoipa::path(tag = "learnt", operation_id = "touches_add", params(("id" = i64, Path)), request_body = TouchBody, responses((status = 200, body = TouchesView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/jobs/{id}/touches")]
pub async fn add_touch(
    store: Of<Store>,
    board: Of<Board>,
    id: web::Path<i64>,
    payload: web::Payload,
) -> Result<web::Json<TouchesView>, ApiError> {
    let id = JobId(*id);
    let finding = read::<TouchBody>(payload).await?.finding()?;
    let job = store.job(id).await?;
    store.add_touch(job.formula_id(), id, finding, Utc::now()).await?;
    board.touch();
    Ok(web::Json(touches_of(&store, id).await?))
}

/// Takes a finding away.
#[utoipa::path(tag = "learnt", operation_id = "touches_delete", params(("id" = i64, Path)), responses((status = 204), (status = 404, body = Problem)))]
#[delete("/api/touches/{id}")]
pub async fn delete_touch(store: Of<Store>, board: Of<Board>, id: web::Path<i64>) -> Result<HttpResponse, ApiError> {
    store.delete_touch(*id).await?;
    board.touch();
    Ok(HttpResponse::NoContent().finish())
}
