//! What is kept, as core values with their numbers.

use chrono::{DateTime, NaiveDate, Utc};
use ready_slab_core::cold::{Finding, Piece, PlaceKnowledge, ProbeKind, Spot, Target};
use ready_slab_core::dough::{BowlNote, Formula, Ingredient};
use ready_slab_core::geometry::Outline;
pub use ready_slab_core::job::AsBaked;
use ready_slab_core::job::{Job, KeptSheet, Kin, Whereabouts, sheet_key};
use ready_slab_core::ledger::{BakeRecord, TryNoted, Trying};
use ready_slab_core::run::RunPlan;
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
id!(/// Number of a piece in the cold.
    ChillId);
id!(/// Number of something that is tried.
    TryId);
id!(/// Number of a pantry entry.
    PantryId);
id!(/// Number of a note on a mix.
    MixNoteId);
id!(/// Number of a run.
    RunId);

/// A run that begins.
#[derive(Debug, Clone, PartialEq)]
pub struct NewRun {
    /// Its name.
    pub name: String,
    /// The date it is wanted on.
    pub day: NaiveDate,
    /// Minute 0 of its plan.
    pub zero_at: DateTime<Utc>,
    /// When it began.
    pub began_at: DateTime<Utc>,
    /// At which of its minutes.
    pub began_min: f64,
    /// How much faster than ours its clock runs; above 1 for a rehearsal.
    pub speed: f64,
    /// Its plan as it stood.
    pub plan: RunPlan,
}

/// A run.
#[derive(Debug, Clone, PartialEq)]
pub struct StoredRun {
    /// Its number.
    pub id: RunId,
    /// As it began.
    pub run: NewRun,
    /// When it ended.
    pub ended_at: Option<DateTime<Utc>>,
}

/// A formula on the shelf.
#[derive(Debug, Clone, PartialEq)]
pub struct StoredFormula {
    /// Its number.
    pub id: FormulaId,
    /// The formula.
    pub formula: Formula,
    /// Which of its versions this is, from 1.
    pub version: u32,
    /// How often it has changed.
    pub revision: i64,
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
    /// What was done.
    pub note: BowlNote,
    /// Flour of the mix by formula.
    pub flour: Mass,
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

/// A job that is kept.
#[derive(Debug, Clone, PartialEq)]
pub struct StoredJob {
    /// Its number.
    pub id: JobId,
    /// The job.
    pub job: Job,
    /// How often it has changed; what is saved does not say.
    pub revision: i64,
}

impl StoredJob {
    /// A job under a number.
    #[must_use]
    pub fn new(id: JobId, job: Job) -> Self {
        Self { id, job, revision: 0 }
    }

    /// Its formula.
    #[must_use]
    pub fn formula_id(&self) -> FormulaId {
        FormulaId(self.job.input().order.formula_id)
    }

    /// Its cutter.
    #[must_use]
    pub fn cutter_id(&self) -> CutterId {
        CutterId(self.job.input().order.cutter_id)
    }

    /// The version of the formula it keeps; the newest while absent.
    #[must_use]
    pub fn formula_version(&self) -> Option<u32> {
        self.job.input().order.formula_version
    }

    /// The job whose mixes also hold this one's dough.
    #[must_use]
    pub fn dough_with(&self) -> Option<JobId> {
        self.job.input().order.dough_with.map(JobId)
    }

    /// The job of which it is a lot.
    #[must_use]
    pub fn lot_of(&self) -> Option<JobId> {
        self.job.input().order.lot_of.map(JobId)
    }

    /// Sheets from which the pieces of several lots are cut together; empty for none. Only a job that is no lot of another
    /// has any.
    #[must_use]
    pub fn mixed(&self) -> &[KeptSheet] {
        &self.job.input().shape.mixed
    }

    /// What it has to do with others.
    #[must_use]
    pub fn kin(&self) -> Kin {
        Kin::of(self.id.0, self.job.input())
    }

    /// Jobs of one key may be cut from one sheet; nothing where none are cut.
    #[must_use]
    pub fn sheet_key(&self) -> Option<String> {
        sheet_key(&self.kin(), &self.job)
    }
}

/// A piece put into the cold.
#[derive(Debug, Clone, PartialEq)]
pub struct NewChill {
    /// The job it belongs to.
    pub job_id: JobId,
    /// What it is called.
    pub name: String,
    /// Where it was put first.
    pub place: Whereabouts,
    /// Whether that place is crowded or often opened.
    pub busy: bool,
    /// Its form.
    pub piece: Piece,
    /// What it is for.
    pub purpose: Target,
    /// All of it when it went in.
    pub start: Temperature,
    /// How much faster than ours its clock runs, 1 or more.
    pub clock_speed: f64,
    /// When.
    pub put_in_at: DateTime<Utc>,
}

/// A piece was put somewhere.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct StoredStay {
    /// Where.
    pub place: Whereabouts,
    /// Whether the place was crowded or often opened.
    pub busy: bool,
    /// Since when.
    pub from: DateTime<Utc>,
}

/// A piece that is or was followed.
#[derive(Debug, Clone, PartialEq)]
pub struct StoredChill {
    /// Its number.
    pub id: ChillId,
    /// The piece as it was put in.
    pub kept: NewChill,
    /// Where it lay, in order, the first as in `kept`.
    pub stays: Vec<StoredStay>,
    /// When it was used up or put away; absent while it is followed.
    pub ended_at: Option<DateTime<Utc>>,
    /// Whether its readings have taught its places.
    pub taught: bool,
    /// Whether it is left out of what readings teach.
    pub left_out: bool,
    /// The stand-in thermometer in it.
    pub probe: Option<ProbeKind>,
    /// How many readings it had before those were left out that are not needed to draw it again; nothing while it has all.
    pub readings_taken: Option<u64>,
}

impl StoredChill {
    /// The latest moment that was noted of it.
    #[must_use]
    pub fn latest(&self) -> DateTime<Utc> {
        let moved = self.stays.iter().map(|s| s.from).max();
        moved.into_iter().chain(self.ended_at).fold(self.kept.put_in_at, DateTime::max)
    }
}

/// What accepted readings have taught of a place.
#[derive(Debug, Clone, PartialEq)]
pub struct StoredKnowledge {
    /// What is known.
    pub knowledge: PlaceKnowledge,
    /// From how many pieces.
    pub pieces: u32,
    /// When the last of them was accepted.
    pub taught_at: DateTime<Utc>,
}

/// What hands found of a dough.
#[derive(Debug, Clone, PartialEq)]
pub struct StoredTouch {
    /// Its number.
    pub id: i64,
    /// The job it was found in.
    pub job_id: JobId,
    /// When.
    pub noted_at: DateTime<Utc>,
    /// What was done, how it went, at what temperature.
    pub finding: Finding,
}

/// What a thermometer showed.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct StoredReading {
    /// Its number.
    pub id: i64,
    /// When.
    pub read_at: DateTime<Utc>,
    /// What.
    pub shows: Temperature,
    /// Where.
    pub spot: Spot,
    /// Whether a stand-in showed it.
    pub simulated: bool,
}

/// A record to be kept, with what was expected.
#[derive(Debug, Clone, PartialEq)]
pub struct NewRecord {
    /// The job that was baked.
    pub job_id: JobId,
    /// Local time of the kitchen, ISO 8601.
    pub recorded_at: String,
    /// The formula that was baked; unknown of old records whose job was gone.
    pub formula_id: Option<FormulaId>,
    /// Its version.
    pub formula_version: Option<u32>,
    /// What it was baked with; unknown of records made before that was kept.
    pub as_baked: Option<AsBaked>,
    /// What was measured.
    pub record: BakeRecord,
    /// Time that was expected.
    pub expected_bake: (Span, Span),
    /// Spread that was expected.
    pub expected_spread: (Share, Share),
    /// The run that it was a tray of, and which, from 1; nothing of a bake without one.
    pub of_run: Option<(RunId, u32)>,
}

/// The photo that a record was measured by.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct RecordPhoto {
    /// The paper from straight above, a JPEG file.
    pub jpeg: Vec<u8>,
    /// What was found on it, as JSON.
    pub found: String,
}

/// A kept record.
#[derive(Debug, Clone, PartialEq)]
pub struct StoredRecord {
    /// Its number.
    pub id: RecordId,
    /// Whether it was struck out.
    pub struck: bool,
    /// Whether the photo that it was measured by is kept.
    pub has_photo: bool,
    /// Whether it is left out of what bakes teach.
    pub left_out: bool,
    /// What it moved when it was recorded.
    pub moved: Option<Moved>,
    /// The record.
    pub kept: NewRecord,
}

/// What a bake moved of the minutes its job was told.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Moved {
    /// The one figure, least and most before it.
    pub before: [Span; 3],
    /// And after it.
    pub after: [Span; 3],
}

/// Something to be tried.
#[derive(Debug, Clone, PartialEq)]
pub struct NewTry {
    /// The job it was planned for.
    pub job_id: JobId,
    /// The dough it is about.
    pub formula_id: FormulaId,
    /// When it was planned.
    pub planned_at: DateTime<Utc>,
    /// What it is.
    pub trying: Trying,
}

/// Something that was or is to be tried.
#[derive(Debug, Clone, PartialEq)]
pub struct StoredTry {
    /// Its number.
    pub id: TryId,
    /// What was noted of it; nothing while it is still to be made.
    pub noted: Option<TryNoted>,
    /// When.
    pub noted_at: Option<DateTime<Utc>>,
    /// What it is.
    pub kept: NewTry,
}
