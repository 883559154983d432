//! Why a dough is what it is, what to mind with it and what to do about it: what is known, without a word of how it is said.

use super::household::{EggClass, Spoons};
use super::part::Part;
use super::school::{School, Standing};
use super::{FatKind, Texture};
use crate::units::{Mass, Share, Temperature, TemperatureDifference};

/// How a dough handles at working temperature.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Handling {
    /// Holds any edge, cracks when cold or dry.
    Firm,
    /// Rolls clean in its window.
    Right,
    /// Between papers, well chilled.
    Soft,
    /// Rather piped, scooped or pressed.
    Pipeable,
}

/// How fast a dough colours.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Browning {
    /// Hardly at all.
    StaysPale,
    /// In its time.
    Golden,
    /// Before it is done, where one does not look.
    Early,
    /// Within a minute or two.
    Fast,
}

/// How a piece bites.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Bite {
    /// Firm.
    Firm,
    /// Snaps.
    Snaps,
    /// Tender.
    Tender,
    /// So short that it breaks while it is warm.
    VeryShort,
}

/// What moves the spread of a dough from what its balance alone would give, with what decides it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum SpreadCause {
    /// Of the sugar, powdered.
    PowderedSugar(Share),
    /// Of the flour, starch.
    Starch(Share),
    /// Of the dough, water, more than usual.
    Wet(Share),
    /// Of the dough, water, less than usual.
    Dry(Share),
    /// Of the flour, baking powder.
    Powder(Share),
    /// Of the flour, baking soda.
    Soda(Share),
}

/// A part of a dough's balance.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum BalancePart {
    /// Water.
    Water,
    /// Fat.
    Fat,
    /// Sugar.
    Sugar,
    /// Starch, protein, fibre and ash: what flour, cocoa and meals bring.
    DrySolids,
}

/// How a dough differs from a neighbour. Where there are two values, the first is its own.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Difference {
    /// So much more of a part, or less where it is negative.
    Part(BalancePart, Share),
    /// The kind that most of the fat is of.
    MainFat(FatKind, FatKind),
    /// So much more cocoa, or less.
    Cocoa(Share),
    /// Binding protein of the flour.
    Strength(Share, Share),
    /// In the hand.
    Handling(Handling, Handling),
    /// Colour.
    Browning(Browning, Browning),
    /// Bite.
    Bite(Bite, Bite),
    /// None that counts.
    None,
}

/// A judgement, a warning or a change of a dough, with the figures behind it.
#[derive(Debug, Clone, PartialEq)]
#[expect(missing_docs, reason = "each is said in full in the words")]
pub enum Reason {
    // Spread by common practice.
    BalanceSpreads { flour_to_rest: f64, range: (Share, Share) },
    SpreadChanged { cause: SpreadCause, by: Share },
    // Handling.
    Packed { handling: Handling, packing: Share },
    WaterToFlour { water: Share },
    FatStaysLiquid { share: Share },
    // Bite.
    FatToFlour { fat: Share },
    Toughens { protein: Share },
    CrispBySugar { sugar: Share },
    Eats { texture: Texture },
    // Browning.
    Sugars { share: Share },
    LateWithoutEgg,
    BrownsEarly { share: Share, pace: f64 },
    SodaBrowns,
    CocoaHides,
    // What to mind.
    FatBringsSalt { fat: String, added: Mass },
    Salty { salt: Share, from: Share },
    LittleStrength { protein: Share },
    LiquidColour,
    MuchPowder { powder: Share, from: Share },
    MuchSoda { soda: Share, from: Share },
    MoreSugarThanFlour { sugar: Mass, flour: Mass },
    // Where it stands.
    AmongSchools { nearest: School, standing: Standing, more_flour: Share, to_the_letter: bool },
    // Keeping.
    Keeps { egg: bool, fresh: bool, nuts: bool },
    // Temperatures at the bowl.
    WouldLeaveTheBowl { butter: Temperature, rest: Temperature, dough: Temperature, wanted: (Temperature, Temperature) },
    PartGoesIn { part: Part, colder: bool, at: Temperature },
    StillOff { by: TemperatureDifference },
    // Mixes and weights.
    EqualMixes { by_bowl: bool, limit: Mass, count: u32 },
    MuchForOneBowl { times: f64 },
    MoreForWholeEggs { more: Mass, egg: String, count: u32, class: EggClass },
    LessThanHalfAnEgg { egg: String, mass: Mass },
    EggsTaken { egg: String, count: u32, class: EggClass, mass: Mass, instead_of: Mass },
    TooLittleForTheScale { mass: Mass, step: Mass, spoons: Option<Spoons> },
    // At the bowl.
    LeaveIt,
    HandfulHolds,
    AddNothingChill,
    WarmFat,
    WarmerThanWanted { dough: Temperature, at_most: Temperature },
    NoMoreFlour,
    FlourWentIn { mass: Mass, at_most: Share },
    AddFlour { mass: Mass },
    FlourAtATime { share: Share, flour: Mass },
    StopAt { mass: Mass, share: Share },
    NoMoreLiquid,
    LiquidWentIn { mass: Mass, spoons: f64 },
    AddLiquid { mass: Mass, with: &'static str },
    SpoonToDough { spoon: Mass, dough: Mass },
    UsualCauseOfDry,
    // Levers.
    Becomes { share: Share, from: String, to: String },
    FatWaterSaltStay,
    FatWaterStayLessSalt,
    FatStaysFlourDrinks,
    SameSugars,
    WaterFatStay,
    BindsAsMuch,
    GramForGram { from: String, to: String },
    EggInstead { mass: Mass, before: Mass },
    ButterGivesWay,
    FatChanged { by: Share },
    AirAt { metres: f64, kpa: f64, boils: Temperature },
    TooLowToChange { metres: f64 },
    HighUp,
    FlourHolds { humidity: Share, more_water: Share },
    DampFlourWeighed,
    AsTheBowlAsked,
}
