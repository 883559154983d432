//! Days as they are worked.

use super::days::date;
use super::read;
use super::stream::event;
use crate::bakeries::Of;
use crate::board::Board;
use crate::paths::DEMO;
use crate::problem::{ApiError, Problem};
use crate::wire::{EventBody, NewRunBody, RunClock, RunView, When};
use actix_web::http::header::{CACHE_CONTROL, CONTENT_ENCODING};
use actix_web::web::Bytes;
use actix_web::{HttpRequest, HttpResponse, get, post, web};
use chrono::{TimeDelta, Utc};
use qrcode::QrCode;
use qrcode::render::svg;
use ready_slab_core::error::InputError;
use ready_slab_core::job::{Plan, RunsLot, run_plan};
use ready_slab_store::{NewRun, RunId, Store};
use ready_slab_words::{Say, System};
use serde::Deserialize;
use std::convert::Infallible;
use std::time::Duration;
use tokio::sync::watch;

/// So much faster goes a day that is only tried.
const REHEARSAL: f64 = 60.0;
/// A day that is tried begins so long before its first step, min.
const LEAD_MIN: f64 = 1.0;
/// A run is told anew so often, of a day that is tried oftener.
const EVERY: Duration = Duration::from_secs(5);
const EVERY_TRIED: Duration = Duration::from_millis(500);
/// Most days that go on at once.
const MOST_OPEN: usize = 12;

async fn view(store: &Store, board: &Board, id: RunId) -> Result<RunView, ApiError> {
    let (run, events) = (store.run(id).await?, store.run_events(id).await?);
    let zone = store.kitchen().await?.zone();
    let pieces = if run.ended_at.is_none() { board.all().await? } else { vec![] };
    // A long day is planned anew in a few milliseconds; other requests do not wait for it.
    Ok(web::block(move || RunView::new(&run, &events, &pieces, zone, Utc::now())).await?)
}

/// The days that go on, the newest first.
#[utoipa::path(tag = "runs", operation_id = "runs_list", responses((status = 200, body = Vec<RunView>)))]
#[get("/api/runs")]
pub async fn list(store: Of<Store>, board: Of<Board>) -> Result<web::Json<Vec<RunView>>, ApiError> {
    let mut found = vec![];
    for run in store.open_runs().await? {
        found.push(view(&store, &board, run.id).await?);
    }
    Ok(web::Json(found))
}

/// Begins a run of a date: its plan as it stands is kept with it.
#[utoipa::path(tag = "runs", operation_id = "runs_begin", request_body = NewRunBody, responses((status = 200, body = RunView), (status = 422, body = Problem)))]
#[post("/api/runs")]
pub async fn begin(store: Of<Store>, board: Of<Board>, payload: web::Payload) -> Result<web::Json<RunView>, ApiError> {
    let body: NewRunBody = read(payload).await?;
    let day = date("date", &body.date)?;
    let open = store.open_runs().await?;
    if let Some(same) = open.iter().find(|r| r.run.day == day && !body.rehearsal && r.run.speed <= 1.0) {
        // Two people may press it at once; there is one day.
        return Ok(web::Json(view(&store, &board, same.id).await?));
    }
    if open.len() >= MOST_OPEN {
        return Err(
            InputError::refused("date", format!("{MOST_OPEN} bench days are still open. End one first.")).into()
        );
    }
    let planned = board.date(day).await?;
    if planned.lots.is_empty() {
        return Err(InputError::refused("date", "No job that can be planned is due that day.").into());
    }
    let now = Utc::now();
    let run = web::block(move || {
        let other: Vec<(Option<Plan>, Option<Plan>)> =
            planned.lots.iter().map(|l| (l.whole.plan_elsewhere(&l.plan), l.whole.plan_frozen())).collect();
        // What is seen has no figures: it reads alike in every unit.
        let looks: Vec<String> = planned.lots.iter().map(|l| l.plan.oven.look_for.say().text(System::Metric)).collect();
        let lots: Vec<RunsLot> = (planned.lots.iter().zip(planned.plans()).zip(other.iter().zip(&looks)))
            .map(|((planned, lot), ((elsewhere, frozen), look_for))| RunsLot {
                job_id: planned.whole.stored.id.0,
                lot,
                elsewhere: elsewhere.as_ref(),
                frozen: frozen.as_ref(),
                look_for,
            })
            .collect();
        let kitchen = &planned.lots[0].whole.kitchen;
        let plan = run_plan(kitchen, &lots, &planned.relay, |t| planned.does(t));
        let zero_at = planned.ends_at().unwrap_or(now) + TimeDelta::minutes(planned.relay.start_min);
        let leads = planned.lots.iter().map(|l| &l.whole.stored).filter(|j| j.lot_of().is_none());
        let names: Vec<String> = leads.map(|j| j.job.input().order.name.clone()).collect();
        #[expect(clippy::cast_precision_loss, reason = "days at most")]
        let since_zero = (now - zero_at).num_milliseconds() as f64 / 60_000.0;
        NewRun {
            name: names.join(", "),
            day,
            zero_at,
            began_at: now,
            began_min: if body.rehearsal { -LEAD_MIN } else { since_zero },
            speed: if body.rehearsal { REHEARSAL } else { 1.0 },
            plan,
        }
    })
    .await?;
    let id = store.add_run(&run).await?;
    Ok(web::Json(view(&store, &board, id).await?))
}

/// A run as it stands.
#[utoipa::path(tag = "runs", operation_id = "runs_show", params(("id" = i64, Path)), responses((status = 200, body = RunView), (status = 404, body = Problem)))]
#[get("/api/runs/{id}")]
pub async fn show(store: Of<Store>, board: Of<Board>, id: web::Path<i64>) -> Result<web::Json<RunView>, ApiError> {
    Ok(web::Json(view(&store, &board, RunId(*id)).await?))
}

/// Notes what happened, all of it or nothing; the rest of the day is planned anew. What was noted before passes by, also of a day that has ended; of
/// such a day what was before its end is still taken.
#[utoipa::path(tag = "runs", operation_id = "runs_note", params(("id" = i64, Path)), request_body = Vec<EventBody>, responses((status = 200, body = RunView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/runs/{id}/events")]
pub async fn note(
    store: Of<Store>,
    board: Of<Board>,
    id: web::Path<i64>,
    payload: web::Payload,
) -> Result<web::Json<RunView>, ApiError> {
    let id = RunId(*id);
    let bodies: Vec<EventBody> = read(payload).await?;
    let run = store.run(id).await?;
    let now = Utc::now();
    let (noted, known) = (store.run_events(id).await?, store.known_presses(id).await?);
    let when = When {
        began_min: run.run.began_min,
        now_min: RunClock::of(&run, store.kitchen().await?.zone()).now(&run, &noted, now),
        ended: run.ended_at.is_some(),
    };
    let events = EventBody::list(bodies, &run.run.plan, when, &known)?;
    store.note_events(id, now, &events).await?;
    Ok(web::Json(view(&store, &board, id).await?))
}

/// Ends a run; what was noted stays.
#[utoipa::path(tag = "runs", operation_id = "runs_end", params(("id" = i64, Path)), responses((status = 200, body = RunView), (status = 404, body = Problem)))]
#[post("/api/runs/{id}/end")]
pub async fn end(store: Of<Store>, board: Of<Board>, id: web::Path<i64>) -> Result<web::Json<RunView>, ApiError> {
    store.end_run(RunId(*id), Utc::now()).await?;
    Ok(web::Json(view(&store, &board, RunId(*id)).await?))
}

/// Which bakery's.
#[derive(Deserialize)]
struct CodeQuery {
    #[serde(default)]
    demo: bool,
}

/// The address of a run's bench view as a QR code (ISO/IEC 18004), for a phone in the same network.
#[utoipa::path(tag = "runs", operation_id = "runs_code", params(("id" = i64, Path), ("demo" = Option<bool>, Query, description = "Whether the day is from the demo")), responses((status = 200, content_type = "image/svg+xml", body = String), (status = 404, body = Problem)))]
#[get("/api/runs/{id}/code.svg")]
pub async fn code(
    store: Of<Store>,
    id: web::Path<i64>,
    query: web::Query<CodeQuery>,
    request: HttpRequest,
) -> Result<HttpResponse, ApiError> {
    store.run(RunId(*id)).await?;
    let at = request.connection_info();
    let demo = if query.demo { DEMO } else { "" };
    let address = format!("{}://{}{demo}/bench/{}", at.scheme(), at.host(), *id);
    let code = QrCode::new(address.as_bytes()).map_err(|_| ApiError::Broken)?;
    let picture = code.render::<svg::Color>().min_dimensions(240, 240).build();
    Ok(HttpResponse::Ok().content_type("image/svg+xml").insert_header((CACHE_CONTROL, "no-store")).body(picture))
}

struct Listener {
    store: Store,
    board: Board,
    id: RunId,
    every: Duration,
    changes: watch::Receiver<u64>,
    closing: watch::Receiver<bool>,
    first: bool,
}

impl Listener {
    async fn next(mut self) -> Option<(Result<Bytes, Infallible>, Self)> {
        let mut sent: Vec<u8> = vec![];
        if self.first {
            self.first = false;
            // Where the connection is lost, the browser asks again after a second.
            sent.extend_from_slice(b"retry: 1000\n\n");
        } else {
            tokio::select! {
                _ = self.closing.wait_for(|closing| *closing) => return None,
                _ = self.changes.changed() => {}
                () = tokio::time::sleep(self.every) => {}
            }
        }
        self.changes.mark_unchanged();
        let told = match view(&self.store, &self.board, self.id).await {
            Ok(run) => {
                self.every = if run.rehearsal { EVERY_TRIED } else { EVERY };
                event("run", &run)
            }
            Err(error) => event("trouble", &error.problem()),
        };
        sent.extend_from_slice(&told);
        Some((Ok(sent.into()), self))
    }
}

/// A run, live: `run` (a `RunView`) at once, after every change, and every few seconds; `trouble` (a `Problem`) where it cannot be told.
#[utoipa::path(tag = "runs", operation_id = "runs_live", params(("id" = i64, Path)), responses((status = 200, body = String, content_type = "text/event-stream")))]
#[get("/api/runs/{id}/live")]
pub async fn live(store: Of<Store>, board: Of<Board>, id: web::Path<i64>) -> Result<HttpResponse, ApiError> {
    store.run(RunId(*id)).await?;
    let listener = Listener {
        store: store.into_inner(),
        board: Board::clone(&board),
        id: RunId(*id),
        every: EVERY,
        changes: board.changes(),
        closing: board.closing(),
        first: true,
    };
    Ok(HttpResponse::Ok()
        .content_type("text/event-stream")
        .insert_header((CACHE_CONTROL, "no-store"))
        // A packed stream would be held back until a block is full.
        .insert_header((CONTENT_ENCODING, "identity"))
        .streaming(futures_util::stream::unfold(listener, Listener::next)))
}
