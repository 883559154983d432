//! The board of levers, told one after the other; and what recorded bakes teach.

use crate::bakeries::Of;
use crate::heavy::{Heavy, apart};
use crate::problem::{ApiError, Problem};
use crate::routes::stream::event;
use crate::whole::WholeJob;
use crate::wire::{BakesTeachView, BandView, CoolingView, LeverView, LeversDone, RestsOnView, TaughtView, say_all};
use actix_web::http::header::{CACHE_CONTROL, CONTENT_ENCODING};
use actix_web::web::Bytes;
use actix_web::{HttpResponse, delete, get, post, web};
use ready_slab_core::error::{InputError, InputErrors};
use ready_slab_core::job::{bake_levers, colder_takes, cooling};
use ready_slab_core::oven::{BakeSeen, BakesFitted, MOST_FITTED, learn_bakes};
use ready_slab_store::{FormulaId, JobId, RecordId, Store};
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
pub async fn levers(heavy: web::Data<Heavy>, store: Of<Store>, id: web::Path<i64>) -> Result<HttpResponse, ApiError> {
    let whole = WholeJob::read(&store, JobId(*id)).await?;
    let turn = Arc::new(heavy.turn().await?);
    let began = Instant::now();
    let (oven, planned, levers) = web::block(move || {
        let plan = whole.plan()?;
        let Some(forecast) = &plan.oven.forecast else {
            let why = "beyond what the forecast knows; the oven station says what";
            return Err(InputErrors::from(InputError::refused("bake", why)));
        };
        let input = whole.stored.job.input();
        let colder = colder_takes(&plan);
        let levers = bake_levers(&plan.oven.question, colder, &whole.formula.formula, input.method)?;
        let planned = forecast.clone();
        Ok((Arc::new(plan.oven), Arc::new(planned), levers))
    })
    .await??;
    let (tell, heard) = mpsc::unbounded_channel();
    let (levers, next) = (Arc::new(levers), Arc::new(AtomicUsize::new(0)));
    for _ in 0..THREADS {
        let (levers, next, tell) = (levers.clone(), next.clone(), tell.clone());
        let (oven, planned, turn) = (oven.clone(), planned.clone(), turn.clone());
        apart(move || {
            let _turn = turn;
            loop {
                let at = next.fetch_add(1, Ordering::Relaxed);
                let Some(lever) = levers.get(at) else { return };
                let effect = lever.effect(planned.bake).map_err(|e| e.to_string());
                // Nobody listens any more: the rest is not wanted.
                if tell.send(LeverView::new(at, levers.len(), lever, &planned, &oven, &effect)).is_err() {
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
pub async fn cools(store: Of<Store>, id: web::Path<i64>) -> Result<web::Json<CoolingView>, ApiError> {
    let whole = WholeJob::read(&store, JobId(*id)).await?;
    let found = web::block(move || {
        let plan = whole.plan()?;
        let Some(forecast) = &plan.oven.forecast else {
            let why = "beyond what the forecast knows; the oven station says what";
            return Err(InputErrors::from(InputError::refused("bake", why)));
        };
        Ok(cooling(&plan.oven.question, forecast))
    })
    .await??;
    Ok(web::Json(found.into()))
}

/// The recorded bakes of all formulas, and what they would teach; the job's own formula is counted first.
struct Book {
    whole: WholeJob,
    formulas: Vec<FormulaId>,
    seen: Vec<(RestsOnView, BakeSeen)>,
    /// Baked with what the forecast does not reach.
    beyond: Vec<RecordId>,
    /// Without what they were baked with: they teach nothing.
    incomplete: Vec<RecordId>,
    records: usize,
}

impl Book {
    async fn read(store: &Store, id: JobId) -> Result<Self, ApiError> {
        let whole = WholeJob::read(store, id).await?;
        let all = store.newest_records(MOST_FITTED).await?;
        let mut formulas = vec![whole.formula.id];
        Ok(web::block(move || {
            let (mut seen, mut beyond, mut incomplete) = (Vec::new(), Vec::new(), Vec::new());
            for record in &all {
                let (Some(baked), Some(formula)) = (&record.kept.as_baked, record.kept.formula_id) else {
                    incomplete.push(record.id);
                    continue;
                };
                let number = formulas.iter().position(|f| *f == formula).unwrap_or_else(|| {
                    formulas.push(formula);
                    formulas.len() - 1
                });
                match baked.seen(number, &record.kept.record) {
                    Some(one) => seen.push((RestsOnView::of(record, number == 0), one)),
                    None => beyond.push(record.id),
                }
            }
            Self { whole, formulas, seen, beyond, incomplete, records: all.len() }
        })
        .await?)
    }

    fn measured(&self) -> bool {
        !self.whole.kitchen.input().oven_readings.is_empty()
    }

    fn learn(&self) -> Result<Option<BakesFitted>, InputErrors> {
        learn_bakes(&self.seen.iter().map(|(_, seen)| seen.clone()).collect::<Vec<_>>())
    }
}

/// What the recorded bakes of the kitchen teach of its oven and of the job's dough; nothing of it counts until it is taken over.
#[utoipa::path(tag = "oven", operation_id = "oven_bakes_teach", params(("id" = i64, Path)), responses((status = 200, body = BakesTeachView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/bakes-teach")]
pub async fn bakes_teach(
    heavy: web::Data<Heavy>,
    store: Of<Store>,
    id: web::Path<i64>,
) -> Result<web::Json<BakesTeachView>, ApiError> {
    let mut book = Book::read(&store, JobId(*id)).await?;
    let view = heavy
        .run(move || {
            let found = book.learn()?;
            let taken = book.whole.learnt.take();
            let before = BandView::from(&book.whole.plan()?.oven);
            book.whole.learnt = found.as_ref().map(|f| f.of(0));
            let after = match &found {
                Some(_) => Some(BandView::from(&book.whole.plan()?.oven)),
                None => None,
            };
            let odd: Vec<usize> = found.iter().flat_map(|f| f.odd.iter().copied()).collect();
            let counts = |i: usize, r: &RestsOnView| RestsOnView { counts_little: odd.contains(&i), ..r.clone() };
            let rests_on = book.seen.iter().enumerate().map(|(i, (r, _))| counts(i, r)).collect();
            let measured = book.measured();
            Ok::<_, InputErrors>(BakesTeachView {
                records: book.records,
                odd: odd.iter().map(|i| book.seen[*i].0.record_id).collect(),
                rests_on,
                says: found.as_ref().map_or_else(Vec::new, |f| say_all(&f.lessons())),
                would: found.as_ref().map(|f| TaughtView::new(&f.of(0), measured)),
                beyond: book.beyond.iter().map(|id| id.0).collect(),
                incomplete: book.incomplete.iter().map(|id| id.0).collect(),
                before,
                after,
                taken: taken.as_ref().map(|k| TaughtView::new(k, measured)),
            })
        })
        .await??;
    Ok(web::Json(view))
}

/// Takes over what the recorded bakes of the kitchen teach of its oven and of every formula among them.
#[utoipa::path(tag = "oven", operation_id = "oven_take_over", params(("id" = i64, Path)), responses((status = 200, body = TaughtView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/jobs/{id}/bakes-teach")]
pub async fn take_over(
    heavy: web::Data<Heavy>,
    store: Of<Store>,
    id: web::Path<i64>,
) -> Result<web::Json<TaughtView>, ApiError> {
    let book = Book::read(&store, JobId(*id)).await?;
    let (formulas, measured) = (book.formulas.clone(), book.measured());
    let Some(found) = heavy.run(move || book.learn()).await?? else {
        return Err(InputError::refused("records", "no bake is recorded that the forecast reaches").into());
    };
    // Those that were never baked take what all have in common.
    let others = store.formulas().await?.into_iter().map(|f| f.id).filter(|id| !formulas.contains(id));
    let all: Vec<FormulaId> = formulas.iter().copied().chain(others).collect();
    let taught: Vec<_> = all.into_iter().enumerate().map(|(i, id)| (id, found.of(i).dough)).collect();
    store.teach_by_bakes(&found.oven, &taught).await?;
    Ok(web::Json(TaughtView::new(&found.of(0), measured)))
}

/// Forgets what bakes have taught of the oven and of all formulas.
#[utoipa::path(tag = "oven", operation_id = "oven_forget", params(("id" = i64, Path)), responses((status = 204), (status = 404, body = Problem)))]
#[delete("/api/jobs/{id}/bakes-teach")]
pub async fn forget(store: Of<Store>, id: web::Path<i64>) -> Result<HttpResponse, ApiError> {
    store.job(JobId(*id)).await?;
    store.forget_bakes().await?;
    Ok(HttpResponse::NoContent().finish())
}
