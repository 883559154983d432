//! What a line of a recipe was read by, what it asks, and why it is left out: what is known, without a word of how it is said.
//! Words of the line itself are quoted as they stand.

use crate::dough::{CupWay, EggClass};
use crate::units::{Mass, Share};

/// How a line was read.
#[derive(Debug, Clone, PartialEq)]
#[expect(missing_docs, reason = "each is said in full in the words")]
pub enum ReadBy {
    YouSaidItIs { name: String },
    YouSaidGrams { mass: Mass },
    YouSaidAsRead,
    ReadAs { name: String },
    TakenAsUnsalted,
    BoardNotCounted,
    MiddleTaken { of: String },
    LevelTaken { word: &'static str },
    WeightOfACup { way: CupWay },
    WeightCounts { said: String, other: String },
    SaysTheSame { other: String },
    Weighs { said: String, mass: Mass },
    PinchTakenAs { word: &'static str, name: String, mass: Mass },
    MeasureWeighs { word: &'static str, name: String, way: Option<CupWay>, mass: Mass },
    StickWeighs { name: String, mass: Mass },
    EggWeighs { name: String, class: EggClass, mass: Mass },
    OneTakenAs { mass: Mass },
    AsTheFileHasIt,
    HeardAs { said: String, is: &'static str },
}

/// What a line asks.
#[derive(Debug, Clone, PartialEq)]
#[expect(missing_docs, reason = "each is said in full in the words")]
pub enum Ask {
    LineTooLong { most: usize },
    CornFlour,
    TwoThings { first: String, other: String },
    NotKnown { word: String, name: String },
    NotInThePantry { name: String },
    TwoAmounts { second: String },
    Several { names: Vec<String> },
    HowMuch { name: String, to_taste: bool },
    OutsideAnyDough,
    MinusBefore,
    TwoNumbers { text: String, large: f64, small: f64 },
    GramsOfThat { name: String },
    GramsOfAMeasure { word: String, name: String },
    GramsInAContainer { word: String, name: String },
    GramsEach { said: String, name: String },
    GramsOfAStick { name: String },
    GramsOf { said: String, name: String },
    Disagrees { said: String, name: String, mass: Mass, other: String, apart: f64 },
    NothingLeft { name: String },
    NotUnderstood { text: String },
    Unlikely { name: String, mass: Mass, flour: Mass, most: Share },
    NoFlour { name: String, mass: Mass },
}

/// Why a line is not part of the dough.
#[derive(Debug, Clone, PartialEq, Eq)]
#[expect(missing_docs, reason = "each is said in full in the words")]
pub enum LeftOut {
    ByYou,
    NoIngredient,
    ForTheFinish,
    ForTheBoard,
    Under { section: String },
}

/// A way to settle a question.
#[derive(Debug, Clone, PartialEq)]
#[expect(missing_docs, reason = "each is said in full in the words")]
pub enum Settle {
    Is { name: String },
    Weighs { mass: Mass, by: Option<String> },
    ADash,
    ItIsRight,
    NoIngredient,
}
