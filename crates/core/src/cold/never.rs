//! Why a piece is never ready where it lies.

use crate::units::Temperature;
use serde::{Deserialize, Serialize};

/// Where something chills.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ColdPlace {
    /// The fridge.
    Fridge,
    /// The freezer.
    Freezer,
}

impl ColdPlace {
    /// The other one.
    #[must_use]
    pub const fn other(self) -> Self {
        match self {
            Self::Fridge => Self::Freezer,
            Self::Freezer => Self::Fridge,
        }
    }

    /// Its key in files and addresses.
    #[must_use]
    pub const fn key(self) -> &'static str {
        match self {
            Self::Fridge => "fridge",
            Self::Freezer => "freezer",
        }
    }
}

/// Where a piece lies.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Lies {
    /// In a cold place.
    In(ColdPlace),
    /// On the bench.
    OnTheBench,
    /// In a place that has no name.
    Somewhere,
}

/// Why a piece is never ready where it lies.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Never {
    /// Most of its fat stays liquid.
    LiquidFat,
    /// The place is not as cold (or as warm) as its core would have to be.
    PlaceIsAt {
        /// Which.
        lies: Lies,
        /// Its air.
        air: Temperature,
        /// What the core would have to reach.
        core: Temperature,
    },
    /// Not within a day, when its core is still at so much.
    NotWithinADay {
        /// Its core then.
        core: Temperature,
    },
    /// It is too cold already where nothing warms it.
    TooColdAlready {
        /// On the whole.
        mean: Temperature,
    },
    /// The place does not soften it.
    TooCoolToSoften {
        /// Its air.
        air: Temperature,
    },
    /// It is too warm and getting warmer.
    GettingWarmer {
        /// On the whole.
        mean: Temperature,
    },
    /// Its rim is too hard before its middle is firm.
    RimFirst,
}
