//! The followed pieces as server-sent events (WHATWG HTML, section 9.2).

use super::chills::views;
use crate::bakeries::Of;
use crate::board::Board;
use crate::problem::ApiError;
use crate::wire::NowView;
use actix_web::http::header::{CACHE_CONTROL, CONTENT_ENCODING};
use actix_web::web::Bytes;
use actix_web::{HttpResponse, get};
use chrono::Utc;
use serde::Serialize;
use std::convert::Infallible;
use std::time::{Duration, Instant};
use tokio::sync::watch;

/// The pieces as they are at the moment, so often.
const EVERY: Duration = Duration::from_secs(1);
/// Whole pieces are sent no oftener than this; what changes meanwhile goes together.
const TOGETHER: Duration = Duration::from_millis(300);

pub(super) fn event<T: Serialize>(name: &str, data: &T) -> Bytes {
    // Views of numbers and words always serialise, and JSON has no line breaks of its own.
    let json = serde_json::to_string(data).unwrap_or_else(|_| "null".to_owned());
    format!("event: {name}\ndata: {json}\n\n").into()
}

struct Listener {
    board: Board,
    changes: watch::Receiver<u64>,
    closing: watch::Receiver<bool>,
    first: bool,
    /// When whole pieces were sent last.
    told: Option<Instant>,
}

impl Listener {
    async fn pieces(&self) -> Bytes {
        match views(&self.board).await {
            Ok(pieces) => event("pieces", &pieces),
            Err(error) => event("trouble", &error.problem()),
        }
    }

    async fn now(&self) -> Bytes {
        let at = Utc::now();
        match self.board.all().await {
            Ok(pieces) => {
                let now: Vec<NowView> =
                    pieces.iter().map(|p| NowView::new(&p.stored, &p.live, &p.keeping, at)).collect();
                event("now", &now)
            }
            Err(error) => event("trouble", &error.problem()),
        }
    }

    /// What is sent next; nothing when the server is about to stop.
    async fn next(mut self) -> Option<(Result<Bytes, Infallible>, Self)> {
        let sent = if self.first {
            self.first = false;
            self.changes.mark_unchanged();
            // Where the connection is lost, the browser asks again after a second.
            let mut sent = b"retry: 1000\n\n".to_vec();
            sent.extend_from_slice(&self.pieces().await);
            sent.into()
        } else {
            let changed = tokio::select! {
                _ = self.closing.wait_for(|closing| *closing) => return None,
                _ = self.changes.changed() => true,
                () = tokio::time::sleep(EVERY) => false,
            };
            if changed {
                // The first change of several is told at once, the others together.
                let since = self.told.map_or(TOGETHER, |told| told.elapsed());
                tokio::time::sleep(TOGETHER.saturating_sub(since)).await;
                self.changes.mark_unchanged();
                let pieces = self.pieces().await;
                self.told = Some(Instant::now());
                pieces
            } else {
                self.now().await
            }
        };
        Some((Ok(sent), self))
    }
}

/// All followed pieces, live: `pieces` (a list of `LiveView`) at once and after every change, `now` (a list of `NowView`) every
/// second, `trouble` (a `Problem`) where they cannot be told.
#[utoipa::path(tag = "live", operation_id = "live_stream", responses((status = 200, body = String, content_type = "text/event-stream")))]
#[get("/api/cold/live")]
pub async fn live(board: Of<Board>) -> Result<HttpResponse, ApiError> {
    let board = board.into_inner();
    let listener = Listener { changes: board.changes(), closing: board.closing(), board, first: true, told: None };
    Ok(HttpResponse::Ok()
        .content_type("text/event-stream")
        .insert_header((CACHE_CONTROL, "no-store"))
        // A packed stream would be held back until a block is full.
        .insert_header((CONTENT_ENCODING, "identity"))
        .streaming(futures_util::stream::unfold(listener, Listener::next)))
}
