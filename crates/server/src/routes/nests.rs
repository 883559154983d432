//! Nesting a sheet of a job: searched live, measured by hand, printed at true size.

use super::read;
use crate::bakeries::Of;
use crate::board::Board;
use crate::problem::{ApiError, Problem, Query};
use crate::routes::stream::event;
use crate::searches::{Said, Search, Searches};
use crate::template;
use crate::whole::{Family, Planned, WholeJob};
use crate::wire::{
    GapsView, LotWanted, MeasureBody, NestBeat, NestBody, NestDone, NestView, OnSheet, SheetChoiceView, TemplateQuery,
};
use actix_web::http::header::{CACHE_CONTROL, CONTENT_DISPOSITION, CONTENT_ENCODING};
use actix_web::web::Bytes;
use actix_web::{HttpResponse, get, post, web};
use ready_slab_core::error::{InputError, InputErrors};
use ready_slab_core::geometry::{Outline, Placement};
use ready_slab_core::job::{Making, largest_sheet, sheet_choices};
use ready_slab_core::shape::{NestQuestion, Nested, SheetForm};
use ready_slab_store::{JobId, Store};
use std::convert::Infallible;
use std::time::Duration;

/// So often a search that found nothing says that it still searches; also how a page that has gone away is noticed.
const BEAT: Duration = Duration::from_millis(200);

/// Other sheets than the job's own that need less dough, the best of each form, the best first.
#[utoipa::path(tag = "shape", operation_id = "shape_sheets", params(("id" = i64, Path)), responses((status = 200, body = Vec<SheetChoiceView>), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/sheets")]
pub async fn sheets(store: Of<Store>, id: web::Path<i64>) -> Result<web::Json<Vec<SheetChoiceView>>, ApiError> {
    let whole = WholeJob::read(&store, JobId(*id)).await?;
    let found = web::block(move || {
        sheet_choices(&whole.stored.job, &whole.formula.formula, &whole.cutter.outline, &whole.kitchen)
    })
    .await??;
    Ok(web::Json(found.into_iter().map(Into::into).collect()))
}

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
    store: Of<Store>,
    searches: Of<Searches>,
    id: web::Path<i64>,
    payload: web::Payload,
) -> Result<HttpResponse, ApiError> {
    let body: NestBody = read(payload).await?;
    let on_sheet = on_sheet(&store, *id, &body.lots).await?;
    let (seconds, seed) = (body.seconds, body.seed);
    let question = web::block(move || body.question(&on_sheet)).await??;
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
    store: Of<Store>,
    id: web::Path<i64>,
    payload: web::Payload,
) -> Result<web::Json<Vec<GapsView>>, ApiError> {
    let body: MeasureBody = read(payload).await?;
    let on_sheet = on_sheet(&store, *id, &body.lots).await?;
    Ok(web::Json(web::block(move || body.answer(&on_sheet)).await??))
}

/// The job and the lots that are cut with it.
async fn on_sheet(store: &Store, id: i64, lots: &[LotWanted]) -> Result<OnSheet, ApiError> {
    let first = WholeJob::read(store, JobId(id)).await?;
    let mut all = vec![(first.stored.job.clone(), first.cutter.outline)];
    for (i, lot) in lots.iter().enumerate() {
        let other = store.job(JobId(lot.job_id)).await?;
        if other.sheet_key().is_none() || other.sheet_key() != first.stored.sheet_key() {
            let why = "Only cut-out items of the same dough and thickness can share a sheet.";
            return Err(InputError::refused(format!("lots[{i}]"), why).into());
        }
        let cutter = store.cutter(other.cutter_id()).await?;
        all.push((other.job, cutter.outline));
    }
    Ok(all)
}

async fn sheet_of(store: &Store, board: &Board, id: i64, query: &TemplateQuery) -> Result<template::Drawing, ApiError> {
    if let Some(number) = query.mixed {
        return mixed_sheet(store, id, number).await;
    }
    let planned = board.planned(JobId(id)).await?;
    let roll = query.roll;
    web::block(move || {
        let Planned { whole, plan } = &*planned;
        if whole.stored.job.input().shape.making != Making::Cut {
            return Err(InputErrors::from(InputError::refused("roll", "This item isn’t cut from a sheet.")));
        }
        let rolls = &plan.shape.demand.rolls;
        let Some(roll) = rolls.get(roll) else {
            let fault = format!("No such roll. Use 0 to {}.", rolls.len() - 1);
            return Err(InputErrors::from(InputError::refused("roll", fault)));
        };
        let name =
            format!("{}, {} {}", whole.stored.job.input().order.name, roll.layout.pieces.len(), whole.cutter.name);
        let placed: Vec<_> = roll.layout.pieces.iter().map(|p| (whole.cutter.outline.clone(), *p)).collect();
        Ok(drawing(name, roll.form, placed))
    })
    .await?
    .map_err(Into::into)
}

/// A sheet kept for several lots.
async fn mixed_sheet(store: &Store, id: i64, number: usize) -> Result<template::Drawing, ApiError> {
    let family = Family::of(store, &store.job(JobId(id)).await?).await?;
    let lead = &family.all[0];
    let Some(sheet) = lead.mixed().get(number) else {
        let fault = format!("No such shared sheet: there are {}, counted from 0.", lead.mixed().len());
        return Err(InputError::refused("mixed", fault).into());
    };
    let mut placed = Vec::with_capacity(sheet.pieces.len());
    for piece in &sheet.pieces {
        let job = family.all.iter().find(|j| j.id.0 == piece.job_id).ok_or(ApiError::Broken)?;
        placed.push((store.cutter(job.cutter_id()).await?.outline, piece.at()));
    }
    let width = largest_sheet(&lead.job, &store.kitchen_as_known().await?).extent().0;
    let form = SheetForm::oblong(width.mm(), sheet.length_mm, 0.0)?;
    let name = format!("{}, sheet {} of {}", lead.job.input().order.name, number + 1, lead.mixed().len());
    Ok(drawing(name, form, placed))
}

/// A sheet with its cuts, numbered in their order.
fn drawing(name: String, form: SheetForm, placed: Vec<(Outline, Placement)>) -> template::Drawing {
    let (width, length) = form.extent();
    let oblong = matches!(form, SheetForm::Oblong { .. });
    let words = placed.iter().enumerate().map(|(i, (_, at))| ((at.x_mm - 2.0, at.y_mm + 1.2), (i + 1).to_string()));
    let words = words.collect();
    let rings =
        placed.iter().flat_map(|(outline, at)| std::iter::once(outline.placed(*at)).chain(outline.holes_placed(*at)));
    let mut outlines: Vec<Vec<(f64, f64)>> = rings.collect();
    if !oblong {
        outlines.push(form.rim());
    }
    template::Drawing {
        name,
        width_mm: width.mm(),
        length_mm: length.mm(),
        rim: oblong,
        outlines,
        lines: vec![],
        words,
    }
}

/// A sheet at true size on pages that are laid edge to edge, with marks where they overlap and a line of 100 mm to check.
#[utoipa::path(tag = "shape", operation_id = "shape_template_pdf", params(("id" = i64, Path), TemplateQuery), responses((status = 200, body = Vec<u8>, content_type = "application/pdf"), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/template.pdf")]
pub async fn template_pdf(
    store: Of<Store>,
    board: Of<Board>,
    id: web::Path<i64>,
    query: Query<TemplateQuery>,
) -> Result<HttpResponse, ApiError> {
    let sheet = sheet_of(&store, &board, *id, &query).await?;
    let paper = query.paper;
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
    store: Of<Store>,
    board: Of<Board>,
    id: web::Path<i64>,
    query: Query<TemplateQuery>,
) -> Result<HttpResponse, ApiError> {
    let sheet = sheet_of(&store, &board, *id, &query).await?;
    Ok(HttpResponse::Ok()
        .content_type("image/svg+xml")
        .insert_header((CONTENT_DISPOSITION, "attachment; filename=\"template.svg\""))
        .body(template::svg(&sheet)))
}
