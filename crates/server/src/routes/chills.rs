//! Pieces that lie in the cold: put in, moved, read, taken out. They are facts of the day, outside the undo history; each step has
//! its own way back.

use super::{file, read};
use crate::bakeries::Of;
use crate::board::{Board, LivePiece};
use crate::problem::{ApiError, Problem};
use crate::wire::{LiveView, MoveBody, PhysicsView, PutInBody, ReadingBody, ReadingsTaken, written};
use actix_web::{HttpResponse, delete, get, post, put, web};
use chrono::{DateTime, TimeDelta, Utc};
use ready_slab_core::cold::{MOST_READINGS, MOST_STAYS, PlaceKnowledge, ProbeInput};
use ready_slab_core::error::InputError;
use ready_slab_core::job::{ColdPlace, StayRead, WentIn, Whereabouts, lessons};
use ready_slab_store::{ChillId, JobId, NewChill, Store, StoredStay};
use std::fmt::Write as _;

/// Between two things that happen to a piece, at least.
const A_MOMENT: TimeDelta = TimeDelta::milliseconds(1);
/// Nobody follows more pieces at once.
const MOST_FOLLOWED: usize = 60;

fn view(piece: &LivePiece, now: DateTime<Utc>) -> LiveView {
    LiveView::new(&piece.stored, &piece.job_name, &piece.readings, &piece.live, &piece.keeping, &piece.tracked, now)
}

/// The piece after a change of it.
async fn after_change(board: &Board, id: ChillId) -> Result<web::Json<LiveView>, ApiError> {
    board.touch();
    Ok(web::Json(view(&*board.by_id(id).await?, Utc::now())))
}

/// All pieces that are followed, of all jobs.
pub async fn views(board: &Board) -> Result<Vec<LiveView>, ApiError> {
    let now = Utc::now();
    Ok(board.all().await?.iter().map(|p| view(p, now)).collect())
}

/// Pieces of a job that lie in the cold or lay there, as they are now.
#[utoipa::path(tag = "live", operation_id = "live_of_job", params(("id" = i64, Path)), responses((status = 200, body = Vec<LiveView>), (status = 404, body = Problem)))]
#[get("/api/jobs/{id}/chills")]
pub async fn of_job(board: Of<Board>, id: web::Path<i64>) -> Result<web::Json<Vec<LiveView>>, ApiError> {
    let now = Utc::now();
    Ok(web::Json(board.of_job(JobId(*id)).await?.iter().map(|p| view(p, now)).collect()))
}

/// One piece, as it is now.
#[utoipa::path(tag = "live", operation_id = "live_show", params(("id" = i64, Path)), responses((status = 200, body = LiveView), (status = 404, body = Problem)))]
#[get("/api/chills/{id}")]
pub async fn show(board: Of<Board>, id: web::Path<i64>) -> Result<web::Json<LiveView>, ApiError> {
    Ok(web::Json(view(&*board.by_id(ChillId(*id)).await?, Utc::now())))
}

async fn busy(store: &Store, place: Whereabouts) -> Result<bool, ApiError> {
    match place {
        Whereabouts::Cold(cold) => Ok(store.busy(cold).await?),
        Whereabouts::Bench => Ok(false),
    }
}

/// Puts a piece of the job's dough into the cold; its clock starts.
#[utoipa::path(tag = "live", operation_id = "live_put_in", params(("id" = i64, Path)), request_body = PutInBody, responses((status = 200, body = LiveView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/jobs/{id}/chills")]
pub async fn put_in(
    store: Of<Store>,
    board: Of<Board>,
    id: web::Path<i64>,
    payload: web::Payload,
) -> Result<web::Json<LiveView>, ApiError> {
    let id = JobId(*id);
    let body: PutInBody = read(payload).await?;
    let (put_in_at, clock_speed) = body.checked(Utc::now())?;
    if store.followed().await?.len() >= MOST_FOLLOWED {
        let why = format!("{MOST_FOLLOWED} doughs in the fridge already. Remove those you’ve used.");
        return Err(InputError::refused("name", why).into());
    }
    let planned = board.planned(id).await?;
    let name = body.name.trim().to_owned();
    let said = body.goes_in()?;
    let WentIn { purpose, piece, place, start } = said.as_planned(&planned.whole.stored.job, &planned.plan);
    let busy = busy(&store, place).await?;
    let new = NewChill { job_id: id, name, place, busy, piece, purpose, start, clock_speed, put_in_at };
    let kept = store.put_in(&new).await?;
    after_change(&board, kept).await
}

/// Moves a piece to another place, or from a quiet fridge to a busy one.
#[utoipa::path(tag = "live", operation_id = "live_move", params(("id" = i64, Path)), request_body = MoveBody, responses((status = 200, body = LiveView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/chills/{id}/move")]
pub async fn move_to(
    store: Of<Store>,
    board: Of<Board>,
    id: web::Path<i64>,
    payload: web::Payload,
) -> Result<web::Json<LiveView>, ApiError> {
    let id = ChillId(*id);
    let body: MoveBody = read(payload).await?;
    let w = store.begin(None).await?;
    let chill = w.chill(id).await?;
    let place = body.place;
    // A clock that was set back does not stop work: what happens now is after all that was noted before.
    let from = Utc::now().max(chill.latest() + A_MOMENT);
    let stay = StoredStay { place, busy: busy(&w, place).await?, from };
    let refuse = |why: &str| Err(ApiError::from(InputError::refused("place", why)));
    match chill.stays.last() {
        Some(last) if last.place == stay.place && last.busy == stay.busy => return refuse("It’s already there."),
        _ => {}
    }
    if chill.stays.len() >= MOST_STAYS {
        return refuse("Moved too many times to forecast. Take it out and add it again.");
    }
    w.move_chill(id, stay).await?;
    // Nothing is kept that cannot be followed.
    board.trackable(&w, &w.chill(id).await?).await?;
    w.commit().await?;
    after_change(&board, id).await
}

/// Takes the last move back, as if it had not happened.
#[utoipa::path(tag = "live", operation_id = "live_unmove", params(("id" = i64, Path)), responses((status = 200, body = LiveView), (status = 404, body = Problem)))]
#[post("/api/chills/{id}/unmove")]
pub async fn unmove(store: Of<Store>, board: Of<Board>, id: web::Path<i64>) -> Result<web::Json<LiveView>, ApiError> {
    store.unmove_chill(ChillId(*id)).await?;
    after_change(&board, ChillId(*id)).await
}

/// Notes that a piece was used or put away; its clock stops.
#[utoipa::path(tag = "live", operation_id = "live_end", params(("id" = i64, Path)), responses((status = 200, body = LiveView), (status = 404, body = Problem)))]
#[post("/api/chills/{id}/end")]
pub async fn end(store: Of<Store>, board: Of<Board>, id: web::Path<i64>) -> Result<web::Json<LiveView>, ApiError> {
    let id = ChillId(*id);
    if store.chill(id).await?.ended_at.is_none() {
        store.end_chill(id, Some(Utc::now().max(store.chill(id).await?.latest()))).await?;
        board.tend_probes().await?;
        let chill = store.chill(id).await?;
        // What it teaches it teaches at once; a piece that teaches nothing is used up all the same.
        if !chill.left_out
            && !chill.taught
            && let Ok(learnt) = taught_by(&store, &board, id).await
        {
            store.teach(id, &learnt, Utc::now()).await?;
        }
    }
    after_change(&board, id).await
}

/// Follows a piece again that was ended by mistake, as if it had lain there all the time.
#[utoipa::path(tag = "live", operation_id = "live_reopen", params(("id" = i64, Path)), responses((status = 200, body = LiveView), (status = 404, body = Problem)))]
#[post("/api/chills/{id}/reopen")]
pub async fn reopen(store: Of<Store>, board: Of<Board>, id: web::Path<i64>) -> Result<web::Json<LiveView>, ApiError> {
    let chill = store.chill(ChillId(*id)).await?;
    if chill.taught {
        store.unteach(chill.id, false).await?;
    }
    store.end_chill(ChillId(*id), None).await?;
    board.tend_probes().await?;
    after_change(&board, ChillId(*id)).await
}

/// Forgets a piece with its readings.
#[utoipa::path(tag = "live", operation_id = "live_forget", params(("id" = i64, Path)), responses((status = 204), (status = 404, body = Problem)))]
#[delete("/api/chills/{id}")]
pub async fn forget(store: Of<Store>, board: Of<Board>, id: web::Path<i64>) -> Result<HttpResponse, ApiError> {
    store.forget_chill(ChillId(*id)).await?;
    board.stop_probe(ChillId(*id));
    board.touch();
    Ok(HttpResponse::NoContent().finish())
}

/// Takes readings of any device: what a thermometer showed, where and when, in any order. All are kept or none; one that is there already (same moment, spot and
/// degrees) is kept once, so that a device may send again what it got no answer to.
#[utoipa::path(tag = "live", operation_id = "live_readings", params(("id" = i64, Path)), request_body = Vec<ReadingBody>, responses((status = 200, body = ReadingsTaken), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/chills/{id}/readings")]
pub async fn readings(
    store: Of<Store>,
    board: Of<Board>,
    id: web::Path<i64>,
    payload: web::Payload,
) -> Result<web::Json<ReadingsTaken>, ApiError> {
    let id = ChillId(*id);
    let bodies: Vec<ReadingBody> = read(payload).await?;
    let chill = store.chill(id).await?;
    let readings = ReadingBody::list(&bodies, &chill, Utc::now())?;
    // Of a piece that only stands in for one, no reading is real.
    let simulated = chill.kept.clock_speed > 1.0 || bodies.iter().any(|b| b.simulated);
    let kept = u64::try_from(readings.len()).unwrap_or(u64::MAX);
    let total = store.count_readings(id).await?.saturating_add(kept);
    if total > MOST_READINGS as u64 {
        let why = format!("{total} readings; {MOST_READINGS} at most. Take it out and add it again.");
        return Err(InputError::refused("readings", why).into());
    }
    store.add_readings(id, &readings, simulated).await?;
    board.touch();
    Ok(web::Json(ReadingsTaken { kept, total: store.count_readings(id).await? }))
}

/// Takes a reading away.
#[utoipa::path(tag = "live", operation_id = "live_delete_reading", params(("id" = i64, Path)), responses((status = 204), (status = 404, body = Problem)))]
#[delete("/api/readings/{id}")]
pub async fn delete_reading(store: Of<Store>, board: Of<Board>, id: web::Path<i64>) -> Result<HttpResponse, ApiError> {
    store.delete_reading(*id).await?;
    board.touch();
    Ok(HttpResponse::NoContent().finish())
}

/// All readings of a piece as a table (CSV, RFC 4180).
#[utoipa::path(tag = "live", operation_id = "live_csv", params(("id" = i64, Path)), responses((status = 200, body = String, content_type = "text/csv"), (status = 404, body = Problem)))]
#[get("/api/chills/{id}/readings.csv")]
pub async fn as_csv(board: Of<Board>, id: web::Path<i64>) -> Result<HttpResponse, ApiError> {
    let piece = board.by_id(ChillId(*id)).await?;
    let mut table = "read_at,after_min,shows_c,spot,set_aside,simulated\r\n".to_owned();
    for (i, (stored, read)) in
        piece.readings.iter().zip(crate::wire::as_read(&piece.stored, &piece.readings)).enumerate()
    {
        let spot = match stored.spot {
            ready_slab_core::cold::Spot::Core => "core",
            ready_slab_core::cold::Spot::Surface => "surface",
        };
        let aside = piece.live.set_aside.binary_search(&i).is_ok();
        // Writing to a string cannot fail.
        let _ = write!(
            table,
            "{},{:.3},{:.2},{spot},{aside},{}\r\n",
            written(stored.read_at),
            read.after.min(),
            stored.shows.c(),
            stored.simulated
        );
    }
    Ok(file("text/csv; charset=utf-8", &format!("readings-{id}.csv"), table.into_bytes()))
}

/// Everything a simulation of the piece needs, for stand-in devices.
#[utoipa::path(tag = "live", operation_id = "live_physics", params(("id" = i64, Path)), responses((status = 200, body = PhysicsView), (status = 404, body = Problem)))]
#[get("/api/chills/{id}/physics")]
pub async fn physics(board: Of<Board>, id: web::Path<i64>) -> Result<web::Json<PhysicsView>, ApiError> {
    let piece = board.by_id(ChillId(*id)).await?;
    Ok(web::Json(PhysicsView::new(&piece.stored, &piece.tracked)))
}

/// Puts the stand-in thermometer into a piece, in place of any other.
#[utoipa::path(tag = "live", operation_id = "live_probe", params(("id" = i64, Path)), request_body = ProbeInput, responses((status = 200, body = LiveView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[put("/api/chills/{id}/probe")]
pub async fn probe(
    store: Of<Store>,
    board: Of<Board>,
    id: web::Path<i64>,
    payload: web::Payload,
) -> Result<web::Json<LiveView>, ApiError> {
    let id = ChillId(*id);
    let kind = read::<ProbeInput>(payload).await?.kind()?;
    if store.chill(id).await?.ended_at.is_some() {
        return Err(InputError::refused("probe", "This dough has been taken out. Add it again first.").into());
    }
    store.set_probe(id, Some(&kind)).await?;
    board.tend_probes().await?;
    after_change(&board, id).await
}

/// Takes the stand-in thermometer out; what it read stays.
#[utoipa::path(tag = "live", operation_id = "live_probe_out", params(("id" = i64, Path)), responses((status = 200, body = LiveView), (status = 404, body = Problem)))]
#[delete("/api/chills/{id}/probe")]
pub async fn probe_out(
    store: Of<Store>,
    board: Of<Board>,
    id: web::Path<i64>,
) -> Result<web::Json<LiveView>, ApiError> {
    store.set_probe(ChillId(*id), None).await?;
    board.tend_probes().await?;
    after_change(&board, ChillId(*id)).await
}

/// What a piece's readings teach of its places.
///
/// Fails where they teach nothing, saying why.
async fn taught_by(
    store: &Store,
    board: &Board,
    id: ChillId,
) -> Result<Vec<(ColdPlace, bool, PlaceKnowledge)>, ApiError> {
    let piece = board.by_id(id).await?;
    let refuse = |why: &str| Err(ApiError::from(InputError::refused("readings", why)));
    if piece.readings.iter().any(|r| r.simulated) && !store.is_made_up().await? {
        return refuse(
            "Some readings are from a simulated thermometer, not your fridge. Remove them, or use a real thermometer.",
        );
    }
    let shown = view(&piece, Utc::now()).stays;
    let stays = piece.stored.stays.iter().zip(&piece.live.fits).zip(&shown);
    let stays = stays.map(|((stay, fit), shown)| StayRead {
        place: stay.place,
        busy: stay.busy,
        found: fit.place,
        readings: shown.readings,
    });
    let learnt = lessons(&stays.collect::<Vec<_>>());
    if learnt.is_empty() {
        return refuse("No fridge or freezer readings to use yet.");
    }
    Ok(learnt)
}

/// Lets a piece's readings teach of its places what they say, also where it was left out.
#[utoipa::path(tag = "live", operation_id = "live_teach", params(("id" = i64, Path)), responses((status = 200, body = LiveView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/chills/{id}/teach")]
pub async fn teach(store: Of<Store>, board: Of<Board>, id: web::Path<i64>) -> Result<web::Json<LiveView>, ApiError> {
    let id = ChillId(*id);
    if store.chill(id).await?.taught {
        return Err(InputError::refused("readings", "Your plans already use these readings.").into());
    }
    let learnt = taught_by(&store, &board, id).await?;
    store.teach(id, &learnt, Utc::now()).await?;
    after_change(&board, id).await
}

/// Leaves a piece out of what readings teach; what others taught stays.
#[utoipa::path(tag = "live", operation_id = "live_unteach", params(("id" = i64, Path)), responses((status = 200, body = LiveView), (status = 404, body = Problem)))]
#[delete("/api/chills/{id}/teach")]
pub async fn unteach(store: Of<Store>, board: Of<Board>, id: web::Path<i64>) -> Result<web::Json<LiveView>, ApiError> {
    store.unteach(ChillId(*id), true).await?;
    after_change(&board, ChillId(*id)).await
}
