//! The whole book of bakes on the wire: a page of it, two of it side by side, and as a table out and in.

use super::record::RecordView;
use chrono::NaiveDate;
use ready_slab_core::error::{InputError, InputErrors};
use ready_slab_core::ledger::{AgainstExpected, Beside, Condition};
use ready_slab_core::oven::EdgeColour;
use ready_slab_store::{BookPage, BookRecord, BookWanted};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

/// Records of a page, and of a file.
const PAGE: usize = 50;
pub(super) const MOST_IN_FILE: usize = 5_000;

/// What records are looked for.
#[derive(Debug, Clone, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct BookQuery {
    /// Part of the name of the job or of its dough, or of the notes.
    #[serde(default)]
    named: String,
    /// With this edge.
    #[param(inline)]
    edge: Option<EdgeColour>,
    /// That spread less than expected, within it, or more.
    #[param(inline)]
    spread: Option<AgainstExpected>,
    /// From this day on, as 2026-12-05.
    from_day: Option<String>,
    /// Until this day, as 2026-12-05.
    to_day: Option<String>,
    /// So many are left out.
    #[serde(default)]
    from: usize,
}

pub(super) fn refused(place: impl std::fmt::Display, why: impl std::fmt::Display) -> InputErrors {
    InputError::refused(place.to_string(), why.to_string()).into()
}

fn day(field: &str, asked: Option<&String>) -> Result<Option<NaiveDate>, InputErrors> {
    let read = |d: &String| d.parse().map_err(|_| refused(field, "Use a date such as 2026-12-05."));
    asked.filter(|d| !d.is_empty()).map(read).transpose()
}

impl BookQuery {
    /// A page of it.
    pub fn page(&self) -> Result<BookWanted, InputErrors> {
        Ok(BookWanted {
            named: self.named.clone(),
            edge: self.edge,
            spread: self.spread,
            from_day: day("from_day", self.from_day.as_ref())?,
            to_day: day("to_day", self.to_day.as_ref())?,
            from: self.from,
            most: PAGE,
        })
    }

    /// All of it, as far as a file goes.
    pub fn file(&self) -> Result<BookWanted, InputErrors> {
        Ok(BookWanted { from: 0, most: MOST_IN_FILE, ..self.page()? })
    }
}

/// A record of the book.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BookRecordView {
    /// Its job.
    pub job_id: i64,
    /// That job's name; null where it is gone.
    pub job: Option<String>,
    /// Its dough's name; null where it is gone.
    pub formula: Option<String>,
    /// The record.
    #[serde(flatten)]
    pub record: RecordView,
}

impl From<&BookRecord> for BookRecordView {
    fn from(r: &BookRecord) -> Self {
        let (job, formula) = (r.job.clone(), r.formula.clone());
        Self { job_id: r.stored.kept.job_id.0, job, formula, record: (&r.stored).into() }
    }
}

/// A page of the book.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BookView {
    /// The newest first.
    pub records: Vec<BookRecordView>,
    /// How many there are in all.
    pub total: usize,
}

impl From<&BookPage> for BookView {
    fn from(page: &BookPage) -> Self {
        Self { records: page.records.iter().map(Into::into).collect(), total: page.total }
    }
}

/// Two records of the book.
#[derive(Debug, Clone, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct BesideQuery {
    /// The first.
    pub one: i64,
    /// The second.
    pub other: i64,
}

/// A condition that differs.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct DiffersView {
    /// Which.
    pub what: Condition,
    /// What it alone makes of the first bake, by the forecast: more spread across the piece.
    pub spread_percent: f64,
    /// And longer in the oven.
    pub min: f64,
}

/// Two bakes side by side: each figure is of the second, less that of the first.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BesideBakesView {
    /// The first.
    pub one: BookRecordView,
    /// The second.
    pub other: BookRecordView,
    /// What differs, what makes most first; null where one of them was kept without what it was baked with.
    pub differs: Option<Vec<DiffersView>>,
    /// More spread, as it came out.
    pub spread_percent: f64,
    /// Longer in the oven, where both were noted.
    pub min: Option<f64>,
    /// What the forecast makes of all that differs; null where it says nothing.
    pub told_spread_percent: Option<f64>,
    /// The same of the time.
    pub told_min: Option<f64>,
}

impl BesideBakesView {
    /// Of two records.
    pub fn new((one, other): (&BookRecord, &BookRecord), found: &Beside) -> Self {
        let differs = found.differs.as_ref().map(|all| {
            all.iter()
                .map(|d| DiffersView { what: d.what, spread_percent: 100.0 * d.spread.value(), min: d.time.min() })
                .collect()
        });
        Self {
            one: one.into(),
            other: other.into(),
            differs,
            spread_percent: 100.0 * found.spread.value(),
            min: found.time.map(|t| t.min()),
            told_spread_percent: found.explained.map(|(s, _)| 100.0 * s.value()),
            told_min: found.explained.map(|(_, t)| t.min()),
        }
    }
}
