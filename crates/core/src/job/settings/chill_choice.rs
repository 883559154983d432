//! Two decisions, free of each other, for cut, sliced and portioned pieces alike: how the dough chills before it is shaped, and how the
//! shaped pieces do.

use crate::units::{Length, Span};
use serde::{Deserialize, Serialize};

/// In which form the dough lies in the cold before it is cut or portioned; a log that is sliced is always chilled as it is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum DoughForm {
    /// In its bowl, or as a lump in film.
    Lump,
    /// Pressed to discs, wrapped.
    Disc,
    /// Rolled first between papers, on trays.
    Sheets,
}

/// How long it stays in the cold.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ChillFor {
    /// Not at all.
    No,
    /// Until it is ready by the forecast.
    Ready,
    /// Until it is best by the forecast: firm through and through.
    Best,
    /// Until it is ready, and at least so long.
    AtLeast,
    /// So long, ready or not.
    Exactly,
    /// From the evening before.
    Overnight,
}

/// The dough in the cold, as it is really done.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum ChillForm {
    /// All of a mix, as it left the bowl.
    Lump,
    /// Pressed to a disc, wrapped, rolled after the chill.
    Disc {
        /// As pressed.
        thickness: Length,
    },
    /// Rolled first between papers.
    Sheets {
        /// So many on each other.
        stack: u32,
    },
    /// The log or bar that is sliced.
    Log,
}

/// Most sheets on each other: more are one thick slab whose middle is hours behind. Common practice, no source.
pub(crate) const MOST_STACKED: u32 = 6;
/// Longest stay in the cold that is planned, min: three days, as long as dough is kept in a fridge. Common practice, no source.
pub(crate) const LONGEST_CHILL_MIN: f64 = 3.0 * 24.0 * 60.0;
/// What people call overnight, at least and at most. Common usage, no source.
pub const OVERNIGHT: (Span, Span) = (Span::new_min(8.0 * 60.0), Span::new_min(14.0 * 60.0));
/// At least and exactly so long until somebody says: an hour of the dough, a quarter of the pieces, min. Common practice, no source.
pub const USUAL_CHILL_MIN: (f64, f64) = (60.0, 15.0);
/// Dough for the night goes in between these hours of the clock, in minutes of the day: after work, before bed. Our own choice.
pub(crate) const EVENING_MIN: (i64, i64) = (15 * 60, 21 * 60 + 30);

/// How dough from the freezer thaws.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Thaw {
    /// Overnight in the fridge, then on the bench until it can be worked.
    Fridge,
    /// On the bench, wrapped.
    Bench,
}

impl ChillFor {
    /// Whether it stays at least until it is ready.
    #[must_use]
    pub const fn waits_for_ready(self) -> bool {
        matches!(self, Self::Ready | Self::Best | Self::AtLeast)
    }
}
