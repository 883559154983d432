//! Why a bake is expected so, and what to mind with it.

use super::bake::BakeWarning;
use crate::dough;
use crate::units::{Length, Share, Span, Temperature, TemperatureDifference};

/// How far a dough spreads by itself.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Spreading {
    /// Hardly.
    Hardly,
    /// A little.
    ALittle,
    /// It does.
    Spreads,
    /// Far.
    Far,
}

/// A side of an oven.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum OvenSide {
    /// The left.
    Left,
    /// The right.
    Right,
    /// The back.
    Back,
    /// Toward the door.
    Door,
}

/// What figures of the oven rest on, and what to mind.
#[derive(Debug, Clone, PartialEq)]
#[expect(missing_docs, reason = "each is said in full in the words")]
pub enum Reason {
    Dough(dough::Reason),
    // Common practice.
    PracticeTimes {
        minutes: (Span, Span),
        thickness: Length,
        at: Temperature,
    },
    FanBakesLike {
        set: Temperature,
        like: Temperature,
    },
    TimesStretch {
        at: Temperature,
        by: (Share, Share),
    },
    WideRanges,
    ThinBrownsFast,
    Warning(BakeWarning),
    // The standard piece.
    StandardGrows {
        thickness: Length,
        across: Length,
        chilled: Temperature,
        oven: Temperature,
        by: Length,
        spread: Share,
    },
    StandardUnknown,
    // The test of a thermometer.
    OvenHolds {
        set: Temperature,
        holds: Temperature,
        swings: (Temperature, Temperature),
    },
    HeatedUp {
        after: Span,
    },
    DoorFell {
        by: TemperatureDifference,
        back_after: Span,
    },
    // Hot places.
    SideIsHotter {
        side: OvenSide,
        within: TemperatureDifference,
    },
    NoSideIsHotter {
        within: TemperatureDifference,
    },
}

impl From<dough::Reason> for Reason {
    fn from(reason: dough::Reason) -> Self {
        Self::Dough(reason)
    }
}
