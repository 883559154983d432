//! Logs and patterned bars of a job's dough.

use crate::bakeries::Of;
use crate::problem::{ApiError, Problem, Query};
use crate::template::{self, Drawing};
use crate::whole::WholeJob;
use crate::wire::{LogQuery, LogView, PatternQuery, PatternView};
use actix_web::http::header::CONTENT_DISPOSITION;
use actix_web::{HttpResponse, get, web};
use ready_slab_core::error::InputErrors;
use ready_slab_core::geometry::PaperSize;
use ready_slab_core::shape::{build_pattern, divide_batch, solve_log};
use ready_slab_store::{JobId, Store};

/// A log of the job's dough, solved for the two of its five measures that are not given.
#[utoipa::path(tag = "shape", operation_id = "shape_log", params(("id" = i64, Path), LogQuery), responses((status = 200, body = LogView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/log")]
pub async fn log(store: Of<Store>, id: web::Path<i64>, query: Query<LogQuery>) -> Result<web::Json<LogView>, ApiError> {
    let whole = WholeJob::read(&store, JobId(*id)).await?;
    let view = web::block(move || {
        let (dough, form) = (whole.dough()?, query.form());
        let density = dough.density;
        let given = query.given()?.or_usual(form, dough.mixes.each, whole.stored.job.thickness());
        let (trim, longest) = (query.trim(), query.longest()?);
        let log = solve_log(form, &given, trim, density)?;
        let form = form.kind().with_height(log.height / log.width);
        let (logs, each) = divide_batch(form, log.mass, log.width, longest, density)?;
        Ok::<_, InputErrors>(LogView::new(&log, &given, form, (trim, longest), logs, each))
    })
    .await??;
    Ok(web::Json(view))
}

/// Across the printed strip, mm; the marks of the slices, and of every fifth, across it.
const STRIP_MM: (f64, f64, f64) = (26.0, 8.0, 14.0);

/// The strip that is laid along a log, at true size: a line at each cut, every fifth longer and counted.
#[utoipa::path(tag = "shape", operation_id = "shape_log_strip", params(("id" = i64, Path), LogQuery), responses((status = 200, body = Vec<u8>, content_type = "application/pdf"), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/log/strip.pdf")]
pub async fn strip(store: Of<Store>, id: web::Path<i64>, query: Query<LogQuery>) -> Result<HttpResponse, ApiError> {
    let whole = WholeJob::read(&store, JobId(*id)).await?;
    let pdf = web::block(move || {
        let dough = whole.dough()?;
        let given = query.given()?.or_usual(query.form(), dough.mixes.each, whole.stored.job.thickness());
        let solved = solve_log(query.form(), &given, query.trim(), dough.density)?;
        let (width, short, long) = STRIP_MM;
        let mut drawing = Drawing {
            name: format!(
                "{}: {} slices, {:.0} mm",
                whole.stored.job.input().order.name,
                solved.slices,
                solved.length.mm()
            ),
            width_mm: width,
            length_mm: solved.length.mm(),
            rim: true,
            outlines: vec![],
            lines: vec![],
            words: vec![],
        };
        for (i, cut) in solved.cuts.iter().enumerate() {
            let counted = i % 5 == 0;
            drawing.lines.push([(0.0, cut.mm()), (if counted { long } else { short }, cut.mm())]);
            if counted && i > 0 {
                drawing.words.push(((long + 1.0, cut.mm() + 1.2), i.to_string()));
            }
        }
        Ok::<_, InputErrors>(template::pdf(&drawing, query.paper.unwrap_or(PaperSize::A4)))
    })
    .await??;
    Ok(HttpResponse::Ok()
        .content_type("application/pdf")
        .insert_header((CONTENT_DISPOSITION, "attachment; filename=\"strip.pdf\""))
        .body(pdf))
}

/// A patterned bar of the job's dough and another that is as dense: its strips or sheets, and how it is built.
#[utoipa::path(tag = "shape", operation_id = "shape_pattern", params(("id" = i64, Path), PatternQuery), responses((status = 200, body = PatternView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/pattern")]
pub async fn pattern(
    store: Of<Store>,
    id: web::Path<i64>,
    query: Query<PatternQuery>,
) -> Result<web::Json<PatternView>, ApiError> {
    let whole = WholeJob::read(&store, JobId(*id)).await?;
    let view = web::block(move || {
        let density = whole.dough()?.density;
        let (pattern, length) = (query.pattern()?, query.length()?);
        let built = build_pattern(pattern, length, [density; 2])?;
        Ok::<_, InputErrors>(PatternView::new(query.pattern, &pattern, length, built))
    })
    .await??;
    Ok(web::Json(view))
}
