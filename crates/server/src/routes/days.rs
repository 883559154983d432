//! Dates of the bakery: all jobs wanted on one, planned together.

use crate::bakeries::Of;
use crate::board::Board;
use crate::problem::{ApiError, Problem, Query};
use crate::whole::{MovedJob, WholeDate};
use crate::wire::{DateView, DayFile, DayView};
use actix_web::http::header;
use actix_web::{HttpResponse, get, web};
use chrono::{Days, NaiveDate, NaiveTime, Utc};
use ready_slab_core::clock::Minute;
use ready_slab_core::error::{InputError, Problem as Fault};
use ready_slab_core::job::{Job, Plan, day_helps};
use ready_slab_store::{JobId, Store};
use serde::Deserialize;
use std::collections::BTreeMap;
use std::sync::Arc;
use utoipa::IntoParams;

pub(super) fn date(field: &str, text: &str) -> Result<NaiveDate, ApiError> {
    text.parse().map_err(|_| {
        let text = text.chars().filter(|c| !c.is_control()).take(40).collect();
        InputError::new(field, Fault::Unreadable { text, accepted: "a date such as 2026-12-05" }).into()
    })
}

/// Dates begin so long before today when nothing else is said, and so many jobs are told.
const BEFORE: Days = Days::new(60);
const MOST_TOLD: usize = 500;

/// From when on.
#[derive(Debug, Clone, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct DatesQuery {
    /// A date such as 2026-12-05; 60 days before today when absent.
    from: Option<String>,
}

/// The dates from one on, on which something is wanted, in order.
#[utoipa::path(tag = "days", operation_id = "days_list", params(DatesQuery), responses((status = 200, body = Vec<DateView>), (status = 422, body = Problem)))]
#[get("/api/days")]
pub async fn list(store: Of<Store>, query: Query<DatesQuery>) -> Result<web::Json<Vec<DateView>>, ApiError> {
    let from = match &query.from {
        Some(from) => date("from", from)?,
        None => {
            let today = store.kitchen().await?.zone().shown(Utc::now()).date();
            today.checked_sub_days(BEFORE).unwrap_or(today)
        }
    };
    let mut dates: BTreeMap<NaiveDate, Vec<String>> = BTreeMap::new();
    for (date, name) in store.dates_from(from, MOST_TOLD).await? {
        dates.entry(date).or_default().push(name);
    }
    Ok(web::Json(dates.into_iter().map(|(date, jobs)| DateView::new(date, jobs)).collect()))
}

/// A calendar file to be kept; the page names it.
pub(super) fn calendar_file(file: &DayFile) -> HttpResponse {
    HttpResponse::Ok()
        .insert_header((header::CONTENT_TYPE, "text/calendar; charset=utf-8"))
        .insert_header((header::CONTENT_DISPOSITION, "attachment"))
        .body(file.text())
}

/// The steps of all jobs of a date as an iCalendar file (RFC 5545), with alarms.
#[utoipa::path(tag = "days", operation_id = "days_calendar", params(("date" = String, Path)), responses((status = 200, content_type = "text/calendar", body = String), (status = 422, body = Problem)))]
#[get("/api/days/{date}/calendar")]
pub async fn calendar(store: Of<Store>, board: Of<Board>, path: web::Path<String>) -> Result<HttpResponse, ApiError> {
    let date = date("date", &path)?;
    let day = board.date(date).await?;
    let lots: Vec<(i64, &Job, &Plan)> =
        day.lots.iter().map(|l| (l.whole.stored.id.0, &l.whole.stored.job, &l.plan)).collect();
    let wanted = lots.iter().map(|(_, job, _)| job.input().order.ready_by).max();
    let file = DayFile {
        name: &format!("Baking, {date}"),
        lots: &lots,
        relay: &day.relay,
        wanted: wanted.unwrap_or_else(|| date.and_time(NaiveTime::MIN)),
        zone: store.kitchen().await?.zone(),
        now: Utc::now(),
    };
    Ok(calendar_file(&file))
}

/// A job of the date, wanted at another time; both or neither.
#[derive(Debug, Clone, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct TriedQuery {
    /// A job that is wanted on the date.
    job: Option<i64>,
    /// When it would be wanted, such as 2026-12-05T14:05; nothing is saved.
    #[param(value_type = Option<String>)]
    ready_by: Option<Minute>,
}

impl TriedQuery {
    fn moved(&self) -> Result<Option<MovedJob>, ApiError> {
        match (self.job, self.ready_by) {
            (None, None) => Ok(None),
            (Some(id), Some(Minute(ready_by))) => Ok(Some(MovedJob { id: JobId(id), ready_by })),
            (job, _) => {
                let missing = if job.is_none() { "job" } else { "ready_by" };
                Err(InputError::refused(missing, "Give `job` and `ready_by` together.").into())
            }
        }
    }
}

/// All jobs of a date on the kitchen's lanes: what is planned, what they share, what is short and what would help. As it is, or as it would be
/// were one of them wanted at another time.
#[utoipa::path(tag = "days", operation_id = "days_show", params(("date" = String, Path), TriedQuery), responses((status = 200, body = DayView), (status = 422, body = Problem)))]
#[get("/api/days/{date}")]
pub async fn show(
    store: Of<Store>,
    board: Of<Board>,
    path: web::Path<String>,
    query: Query<TriedQuery>,
) -> Result<web::Json<DayView>, ApiError> {
    let date = date("date", &path)?;
    let day = match query.moved()? {
        None => board.date(date).await?,
        moved => Arc::new(WholeDate::plan(&store, date, moved, Some(board.date(date).await?)).await?),
    };
    let run = store.open_runs().await?.into_iter().find(|r| r.run.day == date && r.run.speed <= 1.0);
    let now = store.kitchen().await?.zone().shown(Utc::now());
    // Work may lie on the evening before.
    let mut beside = vec![];
    for other in [date.pred_opt(), date.succ_opt()].into_iter().flatten() {
        beside.push((other, board.date(other).await?));
    }
    let view = web::block(move || {
        let frozen: Vec<_> = day.lots.iter().map(|l| l.whole.plan_frozen()).collect();
        let gains = match day.lots.first() {
            Some(first) => day_helps(&first.whole.kitchen, &day.plans(), &day.relay, &frozen),
            None => vec![],
        };
        DayView::new(date, &day, &beside, &gains, now, run.map(|r| r.id.0))
    })
    .await?;
    Ok(web::Json(view))
}
