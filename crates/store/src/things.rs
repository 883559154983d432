//! What is kept, as core values with their numbers.

use ready_slab_core::dough::Formula;
use ready_slab_core::geometry::Outline;
use ready_slab_core::job::Job;
use ready_slab_core::ledger::BakeRecord;
use ready_slab_core::units::{Length, Share, Span};

macro_rules! id {
    ($(#[$doc:meta])* $name:ident) => {
        $(#[$doc])*
        #[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
        pub struct $name(pub i64);
    };
}

id!(/// Number of a job.
    JobId);
id!(/// Number of a formula.
    FormulaId);
id!(/// Number of a cutter.
    CutterId);
id!(/// Number of a bake record.
    RecordId);

/// A formula on the shelf.
#[derive(Debug, Clone, PartialEq)]
pub struct StoredFormula {
    /// Its number.
    pub id: FormulaId,
    /// The formula.
    pub formula: Formula,
}

/// A cutter on the shelf.
#[derive(Debug, Clone, PartialEq)]
pub struct StoredCutter {
    /// Its number.
    pub id: CutterId,
    /// Its name.
    pub name: String,
    /// Where the outline came from: `svg` or the built-in form's word.
    pub origin: String,
    /// The outline.
    pub outline: Outline,
    /// Narrowest neck, if any.
    pub neck: Option<Length>,
}

/// A job with what it refers to.
#[derive(Debug, Clone, PartialEq)]
pub struct StoredJob {
    /// Its number.
    pub id: JobId,
    /// The job.
    pub job: Job,
    /// Its formula.
    pub formula_id: FormulaId,
    /// Its cutter.
    pub cutter_id: CutterId,
}

/// A record to be kept, with what was expected.
#[derive(Debug, Clone, PartialEq)]
pub struct NewRecord {
    /// The job that was baked.
    pub job_id: JobId,
    /// Local time, ISO 8601.
    pub recorded_at: String,
    /// What was measured.
    pub record: BakeRecord,
    /// Time that was expected.
    pub expected_bake: (Span, Span),
    /// Spread that was expected.
    pub expected_spread: (Share, Share),
}

/// A kept record.
#[derive(Debug, Clone, PartialEq)]
pub struct StoredRecord {
    /// Its number.
    pub id: RecordId,
    /// The record.
    pub kept: NewRecord,
}
