//! The board of levers, told one after the other; and what recorded bakes teach.

use crate::bakeries::Of;
use crate::board::Board;
use crate::heavy::{Heavy, apart};
use crate::learning::{Book, learn_after};
use crate::problem::{ApiError, Problem};
use crate::routes::stream::event;
use crate::whole::{Planned, WholeJob};
use crate::wire::{BakesTeachView, BandView, CoolingView, LeverView, LeversDone, RestsOnView, TaughtView, say_all};
use actix_web::http::header::{CACHE_CONTROL, CONTENT_ENCODING};
use actix_web::web::Bytes;
use actix_web::{HttpResponse, get, web};
use ready_slab_core::error::{InputError, InputErrors};
use ready_slab_core::job::{bake_levers, colder_takes, cooling};
use ready_slab_store::{JobId, Store, StoredRecord};
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
pub async fn levers(heavy: web::Data<Heavy>, board: Of<Board>, id: web::Path<i64>) -> Result<HttpResponse, ApiError> {
    let planned = board.planned(JobId(*id)).await?;
    let turn = Arc::new(heavy.turn().await?);
    let began = Instant::now();
    let (oven, forecast, levers) = web::block(move || {
        let Planned { whole, plan } = &*planned;
        let Some(forecast) = &plan.oven.forecast else {
            let why = "No forecast for this bake. The Oven station says why.";
            return Err(InputErrors::from(InputError::refused("bake", why)));
        };
        let input = whole.stored.job.input();
        let colder = colder_takes(plan);
        let levers = bake_levers(&plan.oven.question, colder, &whole.formula.formula, input.dough.method)?;
        Ok((Arc::new(plan.oven.clone()), Arc::new(forecast.clone()), levers))
    })
    .await??;
    let (tell, heard) = mpsc::unbounded_channel();
    let (levers, next) = (Arc::new(levers), Arc::new(AtomicUsize::new(0)));
    for _ in 0..THREADS {
        let (levers, next, tell) = (levers.clone(), next.clone(), tell.clone());
        let (oven, forecast, turn) = (oven.clone(), forecast.clone(), turn.clone());
        apart(move || {
            let _turn = turn;
            loop {
                let at = next.fetch_add(1, Ordering::Relaxed);
                let Some(lever) = levers.get(at) else { return };
                let effect = lever.effect(forecast.bake).map_err(|e| e.to_string());
                // Nobody listens any more: the rest is not wanted.
                if tell.send(LeverView::new(at, levers.len(), lever, &forecast, &oven, &effect)).is_err() {
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

/// How a piece of the job cools on its tray.
#[utoipa::path(tag = "oven", operation_id = "oven_cooling", params(("id" = i64, Path)), responses((status = 200, body = CoolingView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/cooling")]
pub async fn cools(board: Of<Board>, id: web::Path<i64>) -> Result<web::Json<CoolingView>, ApiError> {
    let planned = board.planned(JobId(*id)).await?;
    let found = web::block(move || {
        let plan = &planned.plan;
        let Some(forecast) = &plan.oven.forecast else {
            let why = "No forecast for this bake. The Oven station says why.";
            return Err(InputErrors::from(InputError::refused("bake", why)));
        };
        Ok(cooling(&plan.oven.question, forecast))
    })
    .await??;
    Ok(web::Json(found.into()))
}

/// What the recorded bakes of the kitchen have taught of its oven and of the job's dough.
#[utoipa::path(tag = "oven", operation_id = "oven_bakes_teach", params(("id" = i64, Path)), responses((status = 200, body = BakesTeachView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/bakes-teach")]
pub async fn bakes_teach(
    heavy: web::Data<Heavy>,
    store: Of<Store>,
    id: web::Path<i64>,
) -> Result<web::Json<BakesTeachView>, ApiError> {
    let id = JobId(*id);
    store.job(id).await?;
    learn_after(&heavy, &store).await;
    let mut whole = WholeJob::read(&store, id).await?;
    let book = Book::read(&store, Some(whole.formula.id)).await?;
    let own = whole.formula.id;
    let view = heavy
        .run(move || {
            let found = book.learn()?;
            let measured = !whole.kitchen.input().oven.oven_readings.is_empty();
            let known = whole.learnt.take();
            let before = BandView::from(&whole.plan()?.oven);
            whole.learnt = known;
            let after = match &known {
                Some(_) => Some(BandView::from(&whole.plan()?.oven)),
                None => None,
            };
            let odd: Vec<usize> = found.iter().flat_map(|f| f.odd.iter().copied()).collect();
            let counted = book.seen.iter().enumerate().map(|(i, (r, _))| (r, odd.contains(&i)));
            let all = counted.chain(book.left_out.iter().map(|r| (r, false)));
            let mut rests_on: Vec<RestsOnView> =
                all.map(|(r, little)| RestsOnView::of(r, r.kept.formula_id == Some(own), little)).collect();
            rests_on.sort_by(|a, b| (&b.recorded_at, b.record_id).cmp(&(&a.recorded_at, a.record_id)));
            let ids = |all: &[StoredRecord]| all.iter().map(|r| r.id.0).collect::<Vec<_>>();
            Ok::<_, InputErrors>(BakesTeachView {
                records: book.seen.len() + book.left_out.len() + book.beyond.len() + book.incomplete.len(),
                odd: odd.iter().map(|i| book.seen[*i].0.id.0).collect(),
                rests_on,
                says: found.as_ref().map_or_else(Vec::new, |f| say_all(&f.lessons())),
                taught: known.as_ref().map(|k| TaughtView::new(k, measured)),
                beyond: ids(&book.beyond),
                incomplete: ids(&book.incomplete),
                before,
                after,
            })
        })
        .await??;
    Ok(web::Json(view))
}
