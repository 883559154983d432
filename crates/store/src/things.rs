//! What is kept, as core values with their numbers.

use ready_slab_core::dough::{Feel, Formula, Ingredient, Squeeze};
use ready_slab_core::geometry::Outline;
use ready_slab_core::job::Job;
use ready_slab_core::ledger::BakeRecord;
use ready_slab_core::units::{Length, Mass, Share, Span, Temperature};

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
id!(/// Number of a pantry entry.
    PantryId);
id!(/// Number of a note on a mix.
    MixNoteId);

/// A formula on the shelf.
#[derive(Debug, Clone, PartialEq)]
pub struct StoredFormula {
    /// Its number.
    pub id: FormulaId,
    /// The formula.
    pub formula: Formula,
    /// Which of its versions this is, from 1.
    pub version: u32,
}

/// A saved edit of a formula.
#[derive(Debug, Clone, PartialEq)]
pub struct FormulaVersion {
    /// From 1.
    pub number: u32,
    /// UTC, ISO 8601.
    pub saved_at: String,
    /// As it was.
    pub formula: Formula,
}

/// A pantry entry of the bakery's own: an ingredient, a price, or both.
#[derive(Debug, Clone, PartialEq)]
pub struct StoredEntry {
    /// Its number.
    pub id: PantryId,
    /// Key of the ingredient.
    pub key: String,
    /// The ingredient, where it is the bakery's own.
    pub own: Option<Ingredient>,
    /// A kilogram, in the bakery's money.
    pub price_per_kg: Option<f64>,
}

/// What a mix asked for at the bowl.
#[derive(Debug, Clone, PartialEq)]
pub struct NewMixNote {
    /// The job.
    pub job_id: JobId,
    /// The formula that was mixed.
    pub formula_id: FormulaId,
    /// Its version.
    pub formula_version: u32,
    /// Local time, ISO 8601.
    pub noted_at: String,
    /// Which mix of the job, from 1.
    pub mix: u32,
    /// How it felt.
    pub feel: Feel,
    /// What a squeezed handful did.
    pub squeeze: Squeeze,
    /// Key of what was added.
    pub ingredient: Option<String>,
    /// How much of it.
    pub added: Mass,
    /// Of the flour kept aside, what was not used.
    pub left_over: Mass,
    /// Flour of the mix by formula.
    pub flour: Mass,
    /// The dough, where it was measured.
    pub dough: Option<Temperature>,
}

/// A kept note.
#[derive(Debug, Clone, PartialEq)]
pub struct StoredMixNote {
    /// Its number.
    pub id: MixNoteId,
    /// The note.
    pub kept: NewMixNote,
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
    /// The version of the formula it was baked with; the newest while absent.
    pub formula_version: Option<u32>,
    /// The job whose mixes also hold this one's dough.
    pub dough_with: Option<JobId>,
}

/// A record to be kept, with what was expected.
#[derive(Debug, Clone, PartialEq)]
pub struct NewRecord {
    /// The job that was baked.
    pub job_id: JobId,
    /// Local time, ISO 8601.
    pub recorded_at: String,
    /// The version of the formula that was baked.
    pub formula_version: Option<u32>,
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
