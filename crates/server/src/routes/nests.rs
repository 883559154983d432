//! Nesting a sheet of a job: searched live, measured by hand, printed at true size.

use super::read;
use crate::problem::{ApiError, Problem};
use crate::routes::stream::event;
use crate::searches::{Said, Search, Searches};
use crate::template;
use crate::whole::WholeJob;
use crate::wire::{GapsView, MeasureBody, NestBeat, NestBody, NestDone, NestView, TemplateQuery};
use actix_web::http::header::{CACHE_CONTROL, CONTENT_DISPOSITION, CONTENT_ENCODING};
use actix_web::web::Bytes;
use actix_web::{HttpResponse, get, post, web};
use ready_slab_core::error::{InputError, InputErrors};
use ready_slab_core::shape::{NestQuestion, Nested};
use ready_slab_store::{JobId, Store};
use std::convert::Infallible;
use std::time::Duration;

/// So often a search that found nothing says that it still searches; also how a page that has gone away is noticed.
const BEAT: Duration = Duration::from_millis(200);

struct Listener {
    search: Search,
    question: NestQuestion,
    best: Option<Nested>,
    exhausted: bool,
}

impl Listener {
    fn after_s(&self) -> f64 {
        self.search.began.elapsed().as_secs_f64()
    }

    /// What is sent next; nothing once the end was told.
    async fn next(mut self) -> Option<(Result<Bytes, Infallible>, Self)> {
        if self.best.is_none() {
            let first = self.search.first.clone();
            let sent = event("layout", &NestView::new(&first, &self.question, self.after_s()));
            self.best = Some(first);
            return Some((Ok(sent), self));
        }
        while self.search.running > 0 {
            let mut closing = self.search.closing.clone();
            let said = tokio::select! {
                _ = closing.wait_for(|closing| *closing) => return None,
                said = self.search.next() => said,
                () = tokio::time::sleep(BEAT) => {
                    let sent = event("beat", &NestBeat { after_s: self.after_s() });
                    return Some((Ok(sent), self));
                }
            };
            match said {
                Some(Said::Better(nested)) if self.best.as_ref().is_none_or(|b| nested.beats(b)) => {
                    let sent = event("layout", &NestView::new(&nested, &self.question, self.after_s()));
                    self.best = Some(*nested);
                    return Some((Ok(sent), self));
                }
                Some(Said::Better(_)) => {}
                Some(Said::Ended { exhausted }) => {
                    self.search.running -= 1;
                    self.exhausted |= exhausted;
                    if self.search.running == 0 {
                        let done = NestDone { after_s: self.after_s(), exhausted: self.exhausted };
                        return Some((Ok(event("done", &done)), self));
                    }
                }
                None => return None,
            }
        }
        None
    }
}

/// Searches a layout of the job's cutter: `layout` (a `NestView`) at once and whenever a better one is found, `beat` (a
/// `NestBeat`) meanwhile, `done` (a `NestDone`) at the end. It stops when the connection is closed.
#[utoipa::path(
    tag = "shape", operation_id = "shape_nest", params(("id" = i64, Path)), request_body = NestBody,
    responses((status = 200, body = String, content_type = "text/event-stream"), (status = 404, body = Problem), (status = 422, body = Problem), (status = 503, body = Problem))
)]
#[post("/api/jobs/{id}/nest")]
pub async fn search(
    store: web::Data<Store>,
    searches: web::Data<Searches>,
    id: web::Path<i64>,
    payload: web::Payload,
) -> Result<HttpResponse, ApiError> {
    let body: NestBody = read(payload).await?;
    let stored = store.job(JobId(*id)).await?;
    let cutter = store.cutter(stored.cutter_id).await?;
    let (seconds, seed) = (body.seconds, body.seed);
    let question = web::block(move || body.question(&stored.job, &cutter.outline)).await??;
    let search = searches.begin(question.clone(), seconds, seed).await?;
    let listener = Listener { search, question, best: None, exhausted: false };
    Ok(HttpResponse::Ok()
        .content_type("text/event-stream")
        .insert_header((CACHE_CONTROL, "no-store"))
        // A packed stream would be held back until a block is full.
        .insert_header((CONTENT_ENCODING, "identity"))
        .streaming(futures_util::stream::unfold(listener, Listener::next)))
}

/// Measures pieces as a hand has laid them, each against every other and against the rim.
#[utoipa::path(tag = "shape", operation_id = "shape_measure", params(("id" = i64, Path)), request_body = MeasureBody, responses((status = 200, body = Vec<GapsView>), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/jobs/{id}/nest/measure")]
pub async fn measure(
    store: web::Data<Store>,
    id: web::Path<i64>,
    payload: web::Payload,
) -> Result<web::Json<Vec<GapsView>>, ApiError> {
    let body: MeasureBody = read(payload).await?;
    let stored = store.job(JobId(*id)).await?;
    let cutter = store.cutter(stored.cutter_id).await?;
    Ok(web::Json(web::block(move || body.answer(&stored.job, &cutter.outline)).await??))
}

async fn sheet_of(store: &Store, id: i64, roll: usize) -> Result<template::Drawing, ApiError> {
    let whole = WholeJob::read(store, JobId(id)).await?;
    web::block(move || {
        let plan = whole.plan()?;
        let rolls = &plan.shape.demand.rolls;
        let Some(roll) = rolls.get(roll) else {
            let fault = format!("there is no such roll; 0 to {} are there", rolls.len() - 1);
            return Err(InputErrors::from(InputError::refused("roll", fault)));
        };
        Ok(template::Drawing {
            name: format!("{}, {} {}", whole.stored.job.input().name, roll.layout.pieces.len(), whole.cutter.name),
            width_mm: plan.shape.sheet_width.mm(),
            length_mm: roll.length.mm(),
            rim: true,
            outlines: roll.layout.pieces.iter().map(|p| whole.cutter.outline.placed(*p)).collect(),
            lines: vec![],
            words: vec![],
        })
    })
    .await?
    .map_err(Into::into)
}

/// A sheet at true size on pages that are laid edge to edge, with marks where they overlap and a line of 100 mm to check.
#[utoipa::path(tag = "shape", operation_id = "shape_template_pdf", params(("id" = i64, Path), TemplateQuery), responses((status = 200, body = Vec<u8>, content_type = "application/pdf"), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/template.pdf")]
pub async fn template_pdf(
    store: web::Data<Store>,
    id: web::Path<i64>,
    query: web::Query<TemplateQuery>,
) -> Result<HttpResponse, ApiError> {
    let sheet = sheet_of(&store, *id, query.roll).await?;
    let paper = query.paper.into();
    let pdf = web::block(move || template::pdf(&sheet, paper)).await?;
    Ok(HttpResponse::Ok()
        .content_type("application/pdf")
        .insert_header((CONTENT_DISPOSITION, "attachment; filename=\"template.pdf\""))
        .body(pdf))
}

/// A sheet at true size, in one piece.
#[utoipa::path(tag = "shape", operation_id = "shape_template_svg", params(("id" = i64, Path), TemplateQuery), responses((status = 200, body = String, content_type = "image/svg+xml"), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/template.svg")]
pub async fn template_svg(
    store: web::Data<Store>,
    id: web::Path<i64>,
    query: web::Query<TemplateQuery>,
) -> Result<HttpResponse, ApiError> {
    let sheet = sheet_of(&store, *id, query.roll).await?;
    Ok(HttpResponse::Ok()
        .content_type("image/svg+xml")
        .insert_header((CONTENT_DISPOSITION, "attachment; filename=\"template.svg\""))
        .body(template::svg(&sheet)))
}
