//! The state of a dough from the solid share of its fat, and the temperatures between which it can be worked.

use super::solver::Sample;
use crate::dough::{Composition, rolling_limits, solid_share};
use crate::units::{Span, Temperature, TemperatureDifference};
use serde::{Deserialize, Serialize};

// Shares of a fat's own limits at which the state changes. Common practice, no source; with them butter rolls clean
// from 9.3 to 17.7 degC, a log can be sliced at 12.6 and slices best at 8, and cut pieces are firm to the touch at 16.
const TACKY_OF_SOFTEST: f64 = 0.42;
/// The knife meets the middle, so the middle counts; but it need not be hard.
const SLICES_OF_HARDEST: f64 = 0.84;
const SLICES_BEST_OF_HARDEST: f64 = 1.04;
/// Cut pieces must lift and keep their edge, no more.
const OVEN_OF_HARDEST: f64 = 0.66;
/// Mean temperature below which a slice shatters. Common practice, no source.
const SHATTERS_C: f64 = -4.0;
/// A lump in film that is divided and rolled later lies at least so long: its core comes last. Common practice, no source.
const LUMP_LEAST: Span = Span::new_min(60.0);
/// Least width of the rolling window after hands have moved its ends, K.
const NARROWEST_K: f64 = 1.0;

/// How the dough feels.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum DoughState {
    /// Cracks at the rim when rolled.
    Hard,
    /// Rolls clean.
    RollsClean,
    /// Sticks to the hand and the pin.
    Tacky,
    /// Runs; no shape holds.
    Slack,
}

/// How a piece is for its purpose.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Feeling {
    /// To be rolled: runs.
    Slack,
    /// To be rolled: sticks.
    Tacky,
    /// To be rolled: as it should be.
    RollsClean,
    /// To be rolled: cracks.
    Cracks,
    /// To be sliced: squashes under the knife.
    Squashes,
    /// To be sliced: as it should be.
    SlicesClean,
    /// To be sliced: shatters.
    Shatters,
    /// Cut pieces: too soft for the oven.
    Soft,
    /// Cut pieces: as they should be.
    Firm,
    /// Cold enough by a thermometer, its fat not set yet.
    StillSetting,
    /// A wanted temperature is not reached.
    NotThere,
    /// It is.
    There,
}

/// Which side of ready a piece is on.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Side {
    /// Too warm for its purpose.
    TooWarm,
    /// As it should be.
    Ready,
    /// Too cold for its purpose.
    TooCold,
}

/// Working temperatures of one dough.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Window {
    /// Below this mean it cracks when rolled.
    pub rolls_from: Temperature,
    /// Above this core it is tacky.
    pub rolls_to: Temperature,
    /// Above this it is slack.
    pub tacky_to: Temperature,
    /// Slices clean at this or colder.
    pub slices_to: Temperature,
    /// Shatters under the knife when the mean is colder.
    pub slices_from: Temperature,
    /// It slices best at this or colder.
    pub slices_best: Temperature,
    /// Cut pieces may go to the oven when on the whole they are as firm as at this or colder.
    pub oven_ready: Temperature,
}

/// What the piece is wanted for.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Target {
    /// To be rolled or scooped: on the whole as firm as at the window's warm end, not below its cold end. Pin, scoop and hands work outside and middle
    /// together.
    Rolling,
    /// A lump that is divided cold and rolled later: as firm in its core, too, and an hour in the cold at least.
    RolledLater,
    /// To be sliced.
    Slicing,
    /// Cut pieces, to go to the oven.
    Oven,
    /// Its core to reach a temperature.
    Core(Temperature),
}

/// Between which temperatures a piece is right for a purpose.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Working {
    /// A mean below this is too cold for it; nothing where it cannot be too cold.
    pub from: Option<Temperature>,
    /// Its core at this or colder; of a piece that is warming up its mean.
    pub to: Temperature,
}

impl Target {
    /// In the cold at least so long, whatever a thermometer shows.
    #[must_use]
    pub const fn least(self) -> Span {
        match self {
            Self::RolledLater => LUMP_LEAST,
            Self::Rolling | Self::Slicing | Self::Oven | Self::Core(_) => Span::new_s(0.0),
        }
    }

    /// Whether the softest point counts; else the piece on the whole.
    #[must_use]
    pub const fn softest_counts(self) -> bool {
        matches!(self, Self::Slicing | Self::RolledLater)
    }
}

impl Window {
    /// The window of a dough; `None` when no fat in it is ever firm, so that it can be neither rolled nor sliced.
    #[must_use]
    pub fn of(composition: &Composition) -> Option<Self> {
        let fats = composition.fats();
        let limits = rolling_limits(fats)?;
        let at = |solid: f64| -> Option<Temperature> {
            let (mut low, mut high) = (-40.0, 60.0);
            if solid_share(fats, low) < solid {
                return None;
            }
            while high - low > 1e-6 {
                let middle = f64::midpoint(low, high);
                if solid_share(fats, middle) >= solid { low = middle } else { high = middle }
            }
            Some(Temperature::new_c(low))
        };
        let felt = composition.felt;
        let rolls_from = at(limits.hardest)? + felt.rolls_from;
        // However hands moved them, the two ends keep their order.
        let narrowest = rolls_from + TemperatureDifference::new_k(NARROWEST_K);
        let rolls_to = at(limits.softest)? + felt.rolls_to;
        let rolls_to = if rolls_to < narrowest { narrowest } else { rolls_to };
        let tacky_to = at(TACKY_OF_SOFTEST * limits.softest)?;
        Some(Self {
            rolls_from,
            rolls_to,
            tacky_to: if tacky_to < rolls_to { rolls_to } else { tacky_to },
            slices_to: at(SLICES_OF_HARDEST * limits.hardest)? + felt.slices_to,
            slices_best: at(SLICES_BEST_OF_HARDEST * limits.hardest)? + felt.slices_to,
            slices_from: Temperature::new_c(SHATTERS_C),
            oven_ready: at(OVEN_OF_HARDEST * limits.hardest)?,
        })
    }

    /// Between which temperatures a piece is right for its purpose.
    #[must_use]
    pub fn working(&self, target: Target) -> Working {
        match target {
            Target::Rolling | Target::RolledLater => Working { from: Some(self.rolls_from), to: self.rolls_to },
            Target::Slicing => Working { from: Some(self.slices_from), to: self.slices_to },
            Target::Oven => Working { from: None, to: self.oven_ready },
            Target::Core(to) => Working { from: None, to },
        }
    }

    /// How a dough of this temperature feels.
    #[must_use]
    pub fn state(&self, dough: Temperature) -> DoughState {
        if dough < self.rolls_from {
            DoughState::Hard
        } else if dough <= self.rolls_to {
            DoughState::RollsClean
        } else if dough <= self.tacky_to {
            DoughState::Tacky
        } else {
            DoughState::Slack
        }
    }

    /// A rolled sheet is worked on until it is as soft as at this: half way from where it begins to stick to where it does. Floured, or between papers, dough
    /// that just begins to stick is rolled on. Common practice, no source.
    #[must_use]
    pub fn bench_to(&self) -> Temperature {
        Temperature::new_c(f64::midpoint(self.rolls_to.c(), self.tacky_to.c()))
    }

    /// At what it is best for a purpose, by its softest point; nothing where that is no other than when it can be worked.
    #[must_use]
    pub fn best(&self, target: Target) -> Option<Temperature> {
        match target {
            Target::Rolling => Some(self.rolls_to),
            Target::Slicing => Some(self.slices_best),
            Target::RolledLater | Target::Oven | Target::Core(_) => None,
        }
    }

    /// How a piece is for its purpose, and how it feels: `warm` is what counts as warm, the mean counts as cold.
    #[must_use]
    pub fn feels(&self, target: Target, warm: Temperature, mean: Temperature) -> (Side, Feeling) {
        match target {
            Target::Rolling | Target::RolledLater => match self.state(warm) {
                DoughState::Slack => (Side::TooWarm, Feeling::Slack),
                DoughState::Tacky => (Side::TooWarm, Feeling::Tacky),
                DoughState::RollsClean if mean >= self.rolls_from => (Side::Ready, Feeling::RollsClean),
                DoughState::RollsClean | DoughState::Hard => (Side::TooCold, Feeling::Cracks),
            },
            Target::Slicing if warm > self.slices_to => (Side::TooWarm, Feeling::Squashes),
            Target::Slicing if mean < self.slices_from => (Side::TooCold, Feeling::Shatters),
            Target::Slicing => (Side::Ready, Feeling::SlicesClean),
            Target::Oven if warm > self.oven_ready => (Side::TooWarm, Feeling::Soft),
            Target::Oven => (Side::Ready, Feeling::Firm),
            Target::Core(wanted) if warm > wanted => (Side::TooWarm, Feeling::NotThere),
            Target::Core(_) => (Side::Ready, Feeling::There),
        }
    }

    /// The same of a moment of a run, by how firm the fat is: what counts as warm is the softest point or the whole, by the purpose; of a piece that warms up
    /// the whole. What a thermometer would call ready while its fat has not set yet is told as that.
    #[must_use]
    pub fn feels_at(&self, target: Target, s: &Sample, warming: bool) -> (Side, Feeling) {
        let softest = (target.softest_counts() || matches!(target, Target::Core(_))) && !warming;
        let felt = self.feels(target, if softest { s.softest } else { s.felt }, s.felt);
        let by_thermometer = self.feels(target, if softest { s.warmest } else { s.mean }, s.mean);
        match (felt.0, by_thermometer.0) {
            (Side::TooWarm, Side::Ready | Side::TooCold) => (Side::TooWarm, Feeling::StillSetting),
            _ => felt,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::dough::FatKind;

    fn composition(fat: f64, kind: FatKind) -> Composition {
        Composition::from_analysis(0.14, fat, 0.06, 0.80 - fat, 0.0, 0.0, kind).unwrap()
    }

    #[test]
    fn butter_rolls_clean_where_the_trade_says() {
        // Common practice, no source: 9.3 to 17.7 degC; tacky to 25; sliced from 12.6, best from 8; firm to the touch at 16.
        let w = Window::of(&composition(0.23, FatKind::Butter)).unwrap();
        for (got, wanted) in [
            (w.rolls_from, 9.3),
            (w.rolls_to, 17.7),
            (w.tacky_to, 25.0),
            (w.slices_to, 12.6),
            (w.slices_best, 8.0),
            (w.oven_ready, 16.0),
        ] {
            assert!((got.c() - wanted).abs() < 0.1, "{got:?} against {wanted}");
        }
        assert_eq!(w.state(Temperature::new_c(14.0)), DoughState::RollsClean);
        assert_eq!(w.state(Temperature::new_c(4.0)), DoughState::Hard);
        assert_eq!(w.state(Temperature::new_c(21.0)), DoughState::Tacky);
        assert_eq!(w.state(Temperature::new_c(27.0)), DoughState::Slack);
    }

    #[test]
    fn a_lean_dough_is_rolled_as_warm_as_a_rich_one() {
        let lean = Window::of(&composition(0.17, FatKind::Butter)).unwrap();
        let rich = Window::of(&composition(0.28, FatKind::Butter)).unwrap();
        assert_eq!(lean, rich);
    }

    #[test]
    fn an_oil_dough_has_no_window() {
        assert_eq!(Window::of(&composition(0.2, FatKind::Liquid)), None);
    }
}
