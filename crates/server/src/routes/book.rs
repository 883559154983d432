//! The whole book of bakes: looked through, two side by side, as a table out and in.

use super::{bytes, file};
use crate::bakeries::Of;
use crate::board::Board;
use crate::heavy::Heavy;
use crate::learning::learn_after;
use crate::problem::{ApiError, Problem, Query};
use crate::whole::Planned;
use crate::wire::{
    BesideBakesView, BesideQuery, BookFormatQuery, BookQuery, BookRecordView, BookView, CallipersView, MINUTE_FORMAT,
    ReadBackView, book_csv,
};
use actix_web::{HttpResponse, get, post, web};
use ready_slab_core::error::InputErrors;
use ready_slab_core::ledger::beside;
use ready_slab_store::{BookRecord, JobId, NewRecord, RecordId, Store};

/// A file of bakes is not larger.
const MOST_FILE_BYTES: usize = 4_000_000;
const MOST_CALLIPER_BYTES: usize = 20_000;

/// A page of all bakes, the newest first.
#[utoipa::path(tag = "records", operation_id = "book_page", params(BookQuery), responses((status = 200, body = BookView), (status = 422, body = Problem)))]
#[get("/api/book")]
pub async fn show(store: Of<Store>, query: Query<BookQuery>) -> Result<web::Json<BookView>, ApiError> {
    Ok(web::Json((&store.book(&query.page()?).await?).into()))
}

/// Bakes as a table (CSV, RFC 4180), at most the newest 5,000 that are looked for.
#[utoipa::path(tag = "records", operation_id = "book_csv", params(BookQuery), responses((status = 200, body = String, content_type = "text/csv"), (status = 422, body = Problem)))]
#[get("/api/book.csv")]
pub async fn as_csv(store: Of<Store>, query: Query<BookQuery>) -> Result<HttpResponse, ApiError> {
    let page = store.book(&query.file()?).await?;
    Ok(file("text/csv; charset=utf-8", "bakes.csv", web::block(move || book_csv(&page)).await?))
}

/// The same as a list of objects.
#[utoipa::path(tag = "records", operation_id = "book_json", params(BookQuery), responses((status = 200, body = Vec<BookRecordView>), (status = 422, body = Problem)))]
#[get("/api/book.json")]
pub async fn as_json(store: Of<Store>, query: Query<BookQuery>) -> Result<HttpResponse, ApiError> {
    let found: BookView = (&store.book(&query.file()?).await?).into();
    let list = serde_json::to_vec_pretty(&found.records).expect("numbers and texts serialise");
    Ok(file("application/json", "bakes.json", list))
}

/// Two bakes side by side: what differs, what came out, and what the forecast says of it.
#[utoipa::path(tag = "records", operation_id = "book_beside", params(BesideQuery), responses((status = 200, body = BesideBakesView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/book/beside")]
pub async fn side_by_side(store: Of<Store>, query: Query<BesideQuery>) -> Result<web::Json<BesideBakesView>, ApiError> {
    let one = store.book_record(RecordId(query.one)).await?;
    let other = store.book_record(RecordId(query.other)).await?;
    let learnt = match one.stored.kept.formula_id {
        Some(formula) => store.taught_by_bakes(formula).await?,
        None => None,
    };
    let found = web::block(move || {
        let of = |r: &BookRecord| {
            let kept = &r.stored.kept;
            kept.as_baked.as_ref().map(|b| b.weighed_by(&kept.record, kept.expected_bake))
        };
        let (a, b) = (of(&one), of(&other));
        let records = (&one.stored.kept.record, &other.stored.kept.record);
        let found = beside((a.as_ref(), records.0), (b.as_ref(), records.1), learnt.as_ref())?;
        Ok::<_, InputErrors>(BesideBakesView::new((&one, &other), &found))
    });
    Ok(web::Json(found.await??))
}

/// Reads bakes from a file into a job, all of them or none: a table or a list as they go out here, or of one's own.
#[utoipa::path(
    tag = "records", operation_id = "book_read", params(("id" = i64, Path), BookFormatQuery),
    request_body(content = String, content_type = "text/csv", description = "CSV or JSON, at most 4 MB and 5,000 bakes"),
    responses((status = 200, body = ReadBackView), (status = 404, body = Problem), (status = 413, body = Problem), (status = 422, body = Problem))
)]
#[post("/api/jobs/{id}/records/read")]
pub async fn read_back(
    heavy: web::Data<Heavy>,
    store: Of<Store>,
    board: Of<Board>,
    id: web::Path<i64>,
    query: Query<BookFormatQuery>,
    payload: web::Payload,
) -> Result<web::Json<ReadBackView>, ApiError> {
    let file = bytes(payload, MOST_FILE_BYTES).await?;
    let planned = board.planned(JobId(*id)).await?;
    let now = planned.whole.kitchen.zone().shown(chrono::Utc::now()).format(MINUTE_FORMAT).to_string();
    let all = web::block(move || {
        let Planned { whole, plan } = &*planned;
        let read = query.format.read(&file)?;
        let records = read.into_iter().enumerate().map(|(i, read)| {
            let at = read.recorded_at.unwrap_or_else(|| now.clone());
            let within = |e: InputErrors| e.within(&format!("[{i}]"));
            let then = read.expected.told().map_err(within)?;
            let record = super::records::as_recorded(whole, plan, &read.body, at).map_err(within)?;
            Ok(match then {
                Some(then) => NewRecord { expected_bake: then.bake, expected_spread: then.spread, ..record },
                None => record,
            })
        });
        records.collect::<Result<Vec<_>, InputErrors>>()
    });
    let all = all.await??;
    store.add_records(&all).await?;
    learn_after(&heavy, &store).await;
    Ok(web::Json(ReadBackView { added: all.len() }))
}

/// Reads what a calliper wrote: one piece a line.
#[utoipa::path(
    tag = "records", operation_id = "callipers_read",
    request_body(content = String, content_type = "text/csv", description = "At most 60 lines"),
    responses((status = 200, body = CallipersView), (status = 413, body = Problem), (status = 422, body = Problem))
)]
#[post("/api/callipers")]
pub async fn callipers(payload: web::Payload) -> Result<web::Json<CallipersView>, ApiError> {
    Ok(web::Json(CallipersView::read(&bytes(payload, MOST_CALLIPER_BYTES).await?)?))
}
