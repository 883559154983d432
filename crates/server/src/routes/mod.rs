//! The routes, one file a resource.

mod access;
mod backups;
mod bakes;
mod begin;
mod book;
mod chills;
mod cold;
mod compute;
mod cutters;
mod days;
mod demo;
mod dough;
mod formulas;
mod health;
mod history;
mod jobs;
mod kitchen;
mod learnt;
mod logs;
mod nests;
mod oven;
mod pantry;
mod photos;
mod portions;
mod recipes;
mod records;
mod runs;
mod stream;
mod tries;
mod units;

use crate::problem::{ApiError, Problem, parse};
use crate::wire::MINUTE_FORMAT;
use actix_web::http::header::{ContentDisposition, DispositionParam, DispositionType};
use actix_web::{HttpResponse, web};
use ready_slab_words::Sentence;
use serde::de::DeserializeOwned;
use serde_json::Value;
use std::time::Duration;
use utoipa::OpenApi;
use utoipa_actix_web::service_config::ServiceConfig;

/// Largest accepted body: an SVG file of 1 MB, escaped, and some room.
pub const BODY_LIMIT_BYTES: usize = 2_500_000;

/// A body that is not there after so long is not waited for any more. Our own choice: a photo over a poor line takes some seconds.
const BODY_WAITS: Duration = Duration::from_secs(30);

/// What the description says of itself.
#[derive(OpenApi)]
#[openapi(
    info(
        title = "Ready Slab",
        description = "Plans cut-out and icebox cookies: dough, chilling, cutting and baking. Every quantity has its unit in its name. Errors are problem details (RFC 9457) with field paths. Changes are JSON Merge Patch (RFC 7396)."
    ),
    components(schemas(
        Problem,
        formulas::WrittenAs,
        crate::wire::UseWord,
        crate::wire::NestView,
        crate::wire::LotWanted,
        crate::wire::LeverView,
        crate::wire::LeversDone,
        ready_slab_core::oven::OvenReading,
        crate::wire::NestBeat,
        crate::wire::NestDone
    ))
)]
pub struct Description;

/// All routes of the API.
pub fn configure(config: &mut ServiceConfig) {
    config
        .service(kitchen::show)
        .service(kitchen::change)
        .service(kitchen::equip)
        .service(kitchen::zones)
        .service(formulas::list)
        .service(formulas::add)
        .service(formulas::change)
        .service(formulas::delete)
        .service(formulas::beside)
        .service(formulas::pull)
        .service(formulas::versions)
        .service(formulas::as_file)
        .service(pantry::list)
        .service(pantry::add)
        .service(pantry::change)
        .service(pantry::delete)
        .service(pantry::price)
        .service(recipes::read_text)
        .service(cutters::list)
        .service(cutters::forms)
        .service(cutters::add)
        .service(cutters::look)
        .service(cutters::from_photo)
        .service(cutters::delete)
        .service(cutters::as_svg)
        .service(jobs::list)
        .service(jobs::add)
        .service(begin::starters)
        .service(begin::begin)
        .service(begin::begin_plan)
        .service(jobs::read_back)
        .service(jobs::show)
        .service(jobs::change)
        .service(jobs::delete)
        .service(jobs::plan_of)
        .service(jobs::export)
        .service(jobs::add_lot)
        .service(jobs::together)
        .service(jobs::calendar)
        .service(cold::wanted)
        .service(cold::other_ways)
        .service(cold::inside)
        .service(cold::advice)
        .service(chills::of_job)
        .service(chills::put_in)
        .service(chills::as_csv)
        .service(chills::show)
        .service(chills::move_to)
        .service(chills::unmove)
        .service(chills::end)
        .service(chills::reopen)
        .service(chills::forget)
        .service(chills::readings)
        .service(chills::delete_reading)
        .service(chills::physics)
        .service(chills::probe)
        .service(chills::probe_out)
        .service(chills::teach)
        .service(chills::unteach)
        .service(stream::live)
        .service(records::even)
        .service(records::worth)
        .service(tries::list)
        .service(tries::weigh)
        .service(tries::put_test)
        .service(tries::of_job)
        .service(tries::how_large)
        .service(tries::begin)
        .service(tries::note)
        .service(tries::as_csv)
        .service(tries::unnote)
        .service(tries::delete)
        .service(book::show)
        .service(book::as_csv)
        .service(book::as_json)
        .service(book::side_by_side)
        .service(book::read_back)
        .service(book::callipers)
        .service(photos::measure)
        .service(photos::made_up)
        .service(photos::keep)
        .service(photos::kept_found)
        .service(photos::kept_file)
        .service(photos::remove)
        .service(learnt::places)
        .service(learnt::use_of)
        .service(learnt::reset)
        .service(learnt::touches)
        .service(learnt::add_touch)
        .service(learnt::delete_touch)
        .service(logs::log)
        .service(logs::strip)
        .service(logs::pattern)
        .service(bakes::levers)
        .service(bakes::cools)
        .service(bakes::bakes_teach)
        .service(oven::parts)
        .service(oven::tray)
        .service(oven::pot_cautions)
        .service(oven::hot_spots)
        .service(oven::test)
        .service(oven::thermometer)
        .service(portions::portion)
        .service(portions::evenness)
        .service(nests::sheets)
        .service(portions::marble)
        .service(nests::search)
        .service(nests::measure)
        .service(nests::template_pdf)
        .service(nests::template_svg)
        .service(dough::mixing)
        .service(dough::size)
        .service(dough::cost_and_label)
        .service(dough::bowl_advice)
        .service(dough::bowl_note)
        .service(dough::bowl_delete)
        .service(dough::bowl_put_back)
        .service(records::list)
        .service(records::add)
        .service(records::delete)
        .service(records::put_back)
        .service(records::leave_out)
        .service(health::health)
        .service(history::show)
        .service(history::undo)
        .service(history::redo)
        .service(units::table)
        .service(units::read_text)
        .service(compute::chill)
        .service(compute::sheet)
        .service(compute::bake)
        .service(compute::schedule)
        .service(access::pair)
        .service(access::show)
        .service(access::list)
        .service(access::code)
        .service(access::drop_code)
        .service(access::thermometer)
        .service(access::rename)
        .service(access::shut_out)
        .service(backups::show)
        .service(backups::make)
        .service(backups::take)
        .service(backups::archive)
        .service(days::list)
        .service(days::show)
        .service(days::calendar)
        .service(runs::list)
        .service(runs::begin)
        .service(runs::show)
        .service(runs::note)
        .service(runs::end)
        .service(runs::code)
        .service(runs::live)
        .service(demo::show)
        .service(demo::open)
        .service(demo::remove);
}

/// The whole body, or why not.
async fn body(payload: web::Payload) -> Result<web::Bytes, ApiError> {
    bytes(payload, BODY_LIMIT_BYTES).await
}

/// The whole body where it may be larger or must be smaller than others.
async fn bytes(payload: web::Payload, limit_bytes: usize) -> Result<web::Bytes, ApiError> {
    match tokio::time::timeout(BODY_WAITS, payload.to_bytes_limited(limit_bytes)).await {
        Ok(Ok(Ok(bytes))) => Ok(bytes),
        Ok(Ok(Err(error))) => Err(ApiError::Unreadable(error.to_string())),
        Ok(Err(_)) => Err(ApiError::TooLarge { limit_bytes }),
        Err(_) => Err(ApiError::Unreadable(format!("it took longer than {} s to arrive", BODY_WAITS.as_secs()))),
    }
}

/// Reads the body as `T`.
/// A file to be kept.
fn file(kind: &'static str, name: &str, body: Vec<u8>) -> HttpResponse {
    let name = DispositionParam::Filename(name.to_owned());
    HttpResponse::Ok()
        .content_type(kind)
        .insert_header(ContentDisposition { disposition: DispositionType::Attachment, parameters: vec![name] })
        .body(body)
}

async fn read<T: DeserializeOwned>(payload: web::Payload) -> Result<T, ApiError> {
    parse(&body(payload).await?)
}

/// The label of an edit: what changed, from what to what.
fn label(changed: &[(String, Value, Value)], word: fn(&str) -> &'static str) -> String {
    match changed {
        [] => "no change".to_owned(),
        [(field, before, after)] => match (short(field, before), short(field, after)) {
            (Some(before), Some(after)) => {
                Sentence::from(word(field)).then(" from ").then(before).then(" to ").then(after).written()
            }
            _ => word(field).to_owned(),
        },
        [(field, ..), ..] => {
            let mut words: Vec<&str> = changed.iter().map(|(f, ..)| word(f)).collect();
            words.dedup();
            if words.len() == 1 { word(field).to_owned() } else { words.join(", ") }
        }
    }
}

/// Fields that people write in their own words.
const NAMES: [&str; 2] = ["name", "currency"];

fn short(field: &str, value: &Value) -> Option<Sentence> {
    // Numbers of other things say nothing to people.
    if field.rsplit('_').next() == Some("id") {
        return None;
    }
    let text = match value {
        Value::Number(n) => {
            let n = n.as_f64()?;
            return Some(Sentence::of_field(field, n).unwrap_or_else(|| {
                let unit = if field.ends_with("_s") { " s" } else { "" };
                format!("{}{unit}", trimmed(n)).replace('-', "\u{2212}").into()
            }));
        }
        // Only a time has a T between its day and its hour; a name keeps its own.
        Value::String(s) if let Ok(time) = chrono::NaiveDateTime::parse_from_str(s, MINUTE_FORMAT) => {
            time.format("%a, %b %-d, %H:%M").to_string()
        }
        Value::String(s) if s.chars().count() <= 24 && NAMES.contains(&field) => format!("\u{201c}{s}\u{201d}"),
        Value::String(s) if s.chars().count() <= 24 => s.replace('_', " "),
        Value::Null => "none".to_owned(),
        Value::Bool(_) | Value::String(_) | Value::Array(_) | Value::Object(_) => return None,
    };
    Some(text.into())
}

fn trimmed(value: f64) -> String {
    let text = format!("{value:.2}");
    text.trim_end_matches('0').trim_end_matches('.').to_owned()
}
