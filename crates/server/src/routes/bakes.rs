//! The board of levers: what each would change of a job's bake, told one after the other.

use crate::problem::{ApiError, Problem};
use crate::routes::stream::event;
use crate::whole::WholeJob;
use crate::wire::{LeverView, LeversDone};
use actix_web::http::header::{CACHE_CONTROL, CONTENT_ENCODING};
use actix_web::web::Bytes;
use actix_web::{HttpResponse, get, web};
use ready_slab_core::error::{InputError, InputErrors};
use ready_slab_core::job::bake_levers;
use ready_slab_store::{JobId, Store};
use std::convert::Infallible;
use std::sync::Arc;
use std::sync::atomic::{AtomicUsize, Ordering};
use std::time::Instant;
use tokio::sync::mpsc;

/// Levers are run by so many threads.
const THREADS: usize = 2;

/// What every lever would change of the job's bake: `lever` (a `LeverView`) for each as it is found, `done` (a `LeversDone`) at
/// the end. It stops when the connection is closed.
#[utoipa::path(tag = "oven", operation_id = "oven_levers", params(("id" = i64, Path)), responses((status = 200, body = String, content_type = "text/event-stream"), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/levers")]
pub async fn levers(store: web::Data<Store>, id: web::Path<i64>) -> Result<HttpResponse, ApiError> {
    let whole = WholeJob::read(&store, JobId(*id)).await?;
    let began = Instant::now();
    let (planned, levers) = web::block(move || {
        let plan = whole.plan()?;
        let Some(forecast) = &plan.oven.forecast else {
            let why = "beyond what the forecast knows; the oven station says what";
            return Err(InputErrors::from(InputError::refused("bake", why)));
        };
        let method = whole.stored.job.input().method;
        Ok((forecast.bake, bake_levers(&plan.oven.question, &whole.formula.formula, method)?))
    })
    .await??;
    let (tell, heard) = mpsc::unbounded_channel();
    let (levers, next) = (Arc::new(levers), Arc::new(AtomicUsize::new(0)));
    for _ in 0..THREADS {
        let (levers, next, tell) = (levers.clone(), next.clone(), tell.clone());
        std::thread::spawn(move || {
            loop {
                let at = next.fetch_add(1, Ordering::Relaxed);
                let Some(lever) = levers.get(at) else { return };
                let effect = lever.effect(planned).map_err(|e| e.to_string());
                // Nobody listens any more: the rest is not wanted.
                if tell.send(LeverView::new(at, levers.len(), lever, effect)).is_err() {
                    return;
                }
            }
        });
    }
    drop(tell);
    let told = futures_util::stream::unfold(Some(heard), move |heard| async move {
        let mut heard = heard?;
        Some(match heard.recv().await {
            Some(lever) => (Ok::<Bytes, Infallible>(event("lever", &lever)), Some(heard)),
            None => {
                let after_s = began.elapsed().as_secs_f64();
                (Ok(event("done", &LeversDone { after_s })), None)
            }
        })
    });
    Ok(HttpResponse::Ok()
        .content_type("text/event-stream")
        .insert_header((CACHE_CONTROL, "no-store"))
        .insert_header((CONTENT_ENCODING, "identity"))
        .streaming(told))
}
