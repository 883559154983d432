//! How it stands, what can be done, and why.

use crate::cold::{ColdPlace, Target};
use crate::units::{Length, Mass, Span, Temperature, TemperatureDifference};

/// What has to get done at the bench before it is too warm.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum BenchWork {
    /// A sheet of that thickness is rolled and cut.
    Sheet(Length),
    /// It is sliced.
    Slicing,
    /// It is laid out for the oven.
    LayingOut,
}

/// How dough is in a shut fridge or freezer.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum PowerState {
    /// It has been out of the cold for too long.
    Spent,
    /// It is too cold still.
    TooCold,
    /// It can be worked.
    Ready(Target),
    /// It is too warm to work.
    TooWarm,
}

/// A moment, seen from now.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum When {
    /// So long from now.
    In(Span),
    /// So long ago.
    Ago(Span),
}

/// What hands get done before it is too warm.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Enough {
    /// Not even one.
    None,
    /// So many cut.
    Cut(u32),
    /// So many sliced.
    Sliced(u32),
    /// So many laid out.
    LaidOut(u32),
}

/// How it stands.
#[derive(Debug, Clone, Copy, PartialEq)]
#[expect(missing_docs, reason = "each is said in full in the words")]
pub enum Headline {
    NotTooWarm { core: Temperature, target: Target, to: Temperature },
    TooWarm { by: TemperatureDifference, core: Temperature, target: Target, to: Temperature },
    NotTooCold { dough: Temperature, target: Target, from: Temperature },
    AsFirmAsItMay { dough: Temperature },
    TooCold { by: TemperatureDifference, dough: Temperature, target: Target, from: Temperature },
    Lasts { room: Temperature, work: BenchWork, just_ready: Span, coldest: Span },
    LastsAlways { room: Temperature, work: BenchWork },
    MustGetTo { pieces: u32, mass: Mass, from: Temperature, to: Temperature },
    NoColdNeeded { at: Temperature, target: Target },
    PowerIsOff { place: ColdPlace, air: Temperature, dough: Temperature, state: PowerState },
}

/// One thing that can be done, or that holds.
#[derive(Debug, Clone, Copy, PartialEq)]
#[expect(missing_docs, reason = "each is said in full in the words")]
pub enum Measure {
    AsItIs(ColdPlace),
    Pressed { to: Length },
    RolledBetweenPapers { to: Length },
    OnAFrozenTray,
    RestOnTheBench { room: Temperature },
    SplitInTwo { room: Temperature },
    WarmerSpot,
    NoOvenNoMicrowave,
    LeavesTheBowl { at: Temperature, ready: Option<Span> },
    LeaveInTheCold { place: ColdPlace, until: Option<Span> },
    CutOnAFrozenTray,
    RollBeforeTheChill,
    TakeTurns { sheets: u32 },
    Stacked { sheets: u32, high: Length },
    FreezerInstead,
    CoolBox,
    Cellar { at: Temperature },
    ThrowItOut { limit: Span, ended: When },
    BakeBy { when: When },
    HasLeft { left: Span, of: Span },
    StaysCold { at_least: Span },
    KeepTheDoorShut,
    WorkUntil { from_now: Span },
    MoveItNow,
}

/// Why, and what to mind.
#[derive(Debug, Clone, Copy, PartialEq)]
#[expect(missing_docs, reason = "each is said in full in the words")]
pub enum Because {
    TooColdFrom(Span),
    NothingMeanwhile,
    QuicklyTooMuch,
    HalfAsThick,
    SoftRollsBetweenPapers,
    NotFirmEnough { firmest: Temperature },
    CutThereUntil(Span),
    CutThere,
    TurnItOnce(Target),
    HalvesInTurn,
    RoomIsColder { room: Temperature },
    RimMelts,
    AsTheKitchenIsSet { dough: Temperature, ready: Option<Span> },
    LastsOnTheBench { span: Span, enough: Enough },
    SheetLasts { span: Span, else_only: Option<Span> },
    LastsAsLongAsNeeded,
    OnlyCuttingHurries,
    EachSheetNeeds(Span),
    InnerOnesLast,
    SetAClock,
    BoxAt { at: Temperature },
    NoColdPlace,
    AboveTheLine { will_be: bool, when: When, limit: Span },
    AboveSince { when: When },
    NobodyOpens,
    OpeningCosts,
    TooWarmAfterThat,
    BoxLastsADay,
}
