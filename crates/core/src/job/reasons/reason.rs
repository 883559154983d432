//! Why a plan is as it is, and what to mind with it.

use crate::clock::Forbidden;
use crate::cold::{ColdPlace, Feeling, Target};
use crate::error::InputErrors;
use crate::job::reasons::part_ahead::PartsAhead;
use crate::job::reasons::piece_reason::PieceReason;
use crate::job::settings::chill_choice::Thaw;
use crate::job::settings::ready_means::ReadyMeans;
use crate::oven::{DoneBy, Profile};
use crate::shape::{KeptFault, MixedFault, SheetForm};
use crate::units::{Density, Length, Mass, Share, Span, Temperature, TemperatureDifference};
use crate::{dough, finish, oven};
use chrono::NaiveDateTime;

/// What sets in the cold.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Setting {
    /// The dough.
    Dough,
    /// A cut piece on its tray.
    CutPiece,
}

/// What to mind with a covered pot in place of an oven. Common practice, no source; the pot's own leaflet and local rules come first.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum PotCaution {
    /// The tray never on its base.
    OnARack,
    /// Thick metal, no glass, no coating.
    ThickMetal,
    /// The lid loose.
    LooseLid,
    /// Never unattended.
    Attended,
    /// Children away.
    Children,
}

impl PotCaution {
    /// All of them, in the order in which they are read.
    pub const ALL: [Self; 5] = [Self::OnARack, Self::ThickMetal, Self::LooseLid, Self::Attended, Self::Children];
}

/// Why a bake takes longer or shorter than its recipe says.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Otherwise {
    /// The pieces are thicker than it says.
    Thicker,
    /// They are thinner.
    Thinner,
    /// The oven is set cooler by so much.
    SetCooler(TemperatureDifference),
    /// It is set hotter.
    SetHotter(TemperatureDifference),
    /// The oven runs cool by so much.
    RunsCool(TemperatureDifference),
    /// It runs hot.
    RunsHot(TemperatureDifference),
}

/// What figures of a plan rest on, and what to mind.
#[derive(Debug, Clone, PartialEq)]
#[expect(missing_docs, reason = "each is said in full in the words")]
pub enum Reason {
    Dough(dough::Reason),
    Oven(oven::Reason),
    Finish(finish::Reason),
    Piece(PieceReason),
    // What so many pieces take.
    PiecesWeigh { pieces: u32, each: Mass, all: Mass },
    ScrapAdds { scrap: Mass, reserve: Mass },
    ForTheFreezer { dough: Mass, pieces: u32 },
    MixedForAnother { dough: Mass, job: String },
    // The cold.
    LeavesTheMixer { at: Temperature, measured: bool },
    CanBeWorked { from: Span, middle: Temperature, best: Option<Span> },
    RestsForItsFlour { at_least: Span },
    RecipeChills { says: (Span, Span), ready: Span, target: Target },
    RecipeBakes { says: (Span, Span), about: Span, why: Vec<Otherwise> },
    NotChilled { what: Setting, at: Temperature, feels: Feeling },
    ChilledFor { what: Setting, span: Span, at: Temperature, feels: Feeling, ready: Option<Span> },
    ChilledOvernight { what: Setting },
    FlourNotRested { usually: Span },
    PiecesNotChilled { at: Temperature },
    ThawsOnly { way: Thaw, span: Span },
    NeverTwice,
    BulkFirst { formed: Temperature },
    StillSets { what: Setting, cold_enough: Span, more: Span },
    RangeOfReadings { place: ColdPlace },
    RangeOfTheFilm,
    RollInParts { bench: Span, hands: Span, back: Span },
    // Shape.
    RolledTo { mass: Mass, thickness: Length, form: SheetForm },
    Logs { logs: u32, mass: Mass, length: Length, slices: u32, slice: Length, trim: Length },
    Trays { trays: u32, mass: Mass },
    Portions { portions: u32, mass: Mass },
    SmallestGap { gap: Length },
    FromSecondReroll { pieces: u32 },
    SheetKeptTo { sheet: (Length, Length), tray: (Length, Length) },
    NoRods { thickness: Length },
    LayoutNotUsed { fault: KeptFault },
    SheetsNotUsed { fault: MixedFault },
    TrayNotUsed { fault: KeptFault, gap: Length },
    GapOnTheTray { gap: Length, by_growth: bool },
    // The oven.
    NotDoneWithin { span: Span },
    BeyondTheForecast { why: InputErrors },
    WideBar { across: Length },
    DoneAfter { span: Span, by: DoneBy },
    OvenTaught { bakes: u32, off: TemperatureDifference, sd: TemperatureDifference, measured: bool },
    OvenMeasured,
    OvenUnmeasured { doubt: TemperatureDifference },
    HeatsTimes { times: f64 },
    DoughTaught { bakes: u32, spread: f64, time: f64, browning: f64 },
    ModelAndPractice { model: Span, practice: (Span, Span), told: Span },
    SpreadWidened { practice: (Share, Share) },
    ThermostatSwings { by: TemperatureDifference },
    AirAt { metres: f64, kpa: f64 },
    TrayCovered { share: Share },
    FlowsBetween { fat: Span, set: Span },
    ComesOut { cut: Length, high: Length, density: Density, profile: Profile },
    GrowsAtTheRim { by: (Length, Length) },
    SwapShelves,
    SmallOven,
    Pot(PotCaution),
    PotIsNotForecast,
    PotStaysPale,
    PotTray { tray: (Length, Length) },
    PartAhead(PartsAhead),
    // Pieces of a tray, and an uneven sheet.
    OneTimeWillDo { done: (Span, Span) },
    DoneApart { done: (Span, Span), more_than: Share },
    TurnedDone { done: (Span, Span) },
    SortByThickness { thin: usize, of: usize },
    ThinFirstOneTray { by: Span },
    ThinFirstApart { by: Span },
    SheetOff { thicker: bool, by: Length },
    // The clock.
    CountedBack,
    DoneWhen { means: ReadyMeans },
    SlowAndLongEnds,
    TraysGoRound { trays: u32, times: u32 },
    ClocksChange { from: NaiveDateTime, to: NaiveDateTime },
    // Lots together.
    AsLateAsTheNextAllows,
    // The kitchen has too little of something for the day, for one lot or for all.
    KitchenLacks { short: Forbidden, lot: Option<String> },
    // Other jobs of the date are planned with it.
    WithTheDate { jobs: Vec<String> },
    HeatsSettle,
    MayShareATray { lots: Vec<String>, bake: (Span, Span), within: Share },
    LastTraysTogether { lots: Vec<String> },
    // Keeping of a followed piece.
    LainTooLong { place: ColdPlace, lain: f64, keeps: (f64, f64) },
}

impl Reason {
    /// Whether it asks for something to be done: such a one is told openly. The others say why, to whoever asks.
    pub const fn is_warning(&self) -> bool {
        matches!(
            self,
            Self::Piece(
                PieceReason::ReliefFades { .. }
                    | PieceReason::PowderLiftsTheRelief
                    | PieceReason::InPlaceTooNear { .. }
            ) | Self::NotChilled { .. }
                | Self::FlourNotRested { .. }
                | Self::PiecesNotChilled { .. }
                | Self::NeverTwice
                | Self::RollInParts { .. }
                | Self::FromSecondReroll { .. }
                | Self::NoRods { .. }
                | Self::LayoutNotUsed { .. }
                | Self::SheetsNotUsed { .. }
                | Self::TrayNotUsed { .. }
                | Self::ClocksChange { .. }
                | Self::KitchenLacks { .. }
                | Self::LainTooLong { .. }
        )
    }
}

impl From<dough::Reason> for Reason {
    fn from(reason: dough::Reason) -> Self {
        Self::Dough(reason)
    }
}

impl From<oven::Reason> for Reason {
    fn from(reason: oven::Reason) -> Self {
        Self::Oven(reason)
    }
}
