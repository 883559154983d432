//! What control charts come to, as things to be said and done.

use super::control::{Capability, Signal, Varies};
use crate::units::{Length, Share};
use serde::{Deserialize, Serialize};

/// What is looked at.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum EvenMeasure {
    /// Widths after baking.
    Width,
    /// Thicknesses after baking.
    Thickness,
}

/// Pieces are cut alike whose widths, and thicknesses, as cut differ by less than this, mm. Our own choice: less than a rod or a cutter differs from the next.
pub const CUT_ALIKE_MM: (f64, f64) = (0.5, 0.3);

impl EvenMeasure {
    /// What pieces may be off by where nobody says it. Our own choice.
    #[must_use]
    pub fn usual_tolerance(self) -> Length {
        match self {
            Self::Width => Length::new_mm(1.0),
            Self::Thickness => Length::new_mm(0.5),
        }
    }
}

/// Something to be said of evenness.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Evenness {
    /// Most varies within a tray: so much of all.
    Within(EvenMeasure, Share),
    /// Most varies from tray to tray of a day.
    Trays(EvenMeasure, Share),
    /// Most varies from day to day.
    Days(EvenMeasure, Share),
    /// So much of all pieces lie beyond so much from what is wanted.
    Beyond(Share, Length),
    /// They would not, were all trays as even as the pieces of one are.
    CouldKeep,
    /// Nor would they if all trays were alike: it is within the tray.
    CouldNotKeep,
}

/// A tolerance is kept where six deviations fit into it: Cp is 1, and 0.3 % lie beyond.
const KEPT: f64 = 1.0;
/// Less than so much of all beyond a tolerance is none.
const NONE_BEYOND: f64 = 0.003;

/// What is to be said.
#[must_use]
pub fn evenness(measure: EvenMeasure, varies: &Varies, capable: &Capability, tolerance: Length) -> Vec<Evenness> {
    let (w, t, d) = (varies.within.value(), varies.trays.value(), varies.days.value());
    let most = if w >= t && w >= d {
        Evenness::Within(measure, varies.within)
    } else if t >= d {
        Evenness::Trays(measure, varies.trays)
    } else {
        Evenness::Days(measure, varies.days)
    };
    let mut found = vec![Evenness::Beyond(capable.beyond, tolerance), most];
    if capable.beyond.value() > NONE_BEYOND {
        found.push(if capable.could >= KEPT { Evenness::CouldKeep } else { Evenness::CouldNotKeep });
    }
    found
}

/// A point that is no chance.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum NoChance {
    /// A tray's mean.
    Mean(EvenMeasure, Signal),
    /// Its range.
    Range(Signal),
}
