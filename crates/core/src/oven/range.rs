//! How far off a forecast may be, and how it is told beside common practice.

use super::bake::{BakeForecast, BakeKnowledge, BakeWarning, NINE_OF_TEN, SPREAD_NOISE, TIME_NOISE, WIDTH_NOISE};
use super::practice::Practice;
use crate::units::{Share, Span};

/// How far off a time may be: an oven that nobody has measured (15 degC either way make about a fifth), one that was
/// measured against a thermometer. One standard deviation of what the fit starts from (docs/oven.md).
pub(crate) const TIME_UNMEASURED: f64 = 0.18;
pub(crate) const TIME_MEASURED: f64 = 0.07;

/// What is known of the oven beside what bakes have taught.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OvenDoubt {
    /// Whether it was measured against a thermometer.
    pub measured: bool,
    /// What a swing of its thermostat leaves unsure of a time, of itself: one standard deviation.
    pub swing: f64,
}

/// Ranges of a forecast.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct BakeRange {
    /// In the oven.
    pub bake: (Span, Span),
    /// Growth across, of the width of a round as cut.
    pub spread: (Share, Share),
    /// Whether either was widened to touch common practice.
    pub bake_widened: bool,
    /// The same of the spread.
    pub spread_widened: bool,
}

impl BakeRange {
    /// Nine of ten bakes lie within: by what is unsure of oven, dough and model. Until the kitchen's own bakes of the dough decide, a range that
    /// does not meet common practice is widened to touch it.
    #[must_use]
    pub fn of(found: &BakeForecast, known: &BakeKnowledge, doubt: OvenDoubt, practice: &Practice) -> Self {
        let of_oven = if doubt.measured { TIME_MEASURED } else { TIME_UNMEASURED };
        let time = NINE_OF_TEN * known.time_sd(of_oven).hypot(TIME_NOISE).hypot(doubt.swing);
        let own_bakes = known.dough.records > 0;
        let spread_alone = spread_alone(found.spread, &found.warnings, known);
        // A time is off by so much of itself either way: never less than nothing.
        let alone = (found.bake * (-time).exp(), found.bake * time.exp());
        let (bake, spread) = if own_bakes {
            (alone, spread_alone)
        } else {
            (touching(alone, practice.bake), touching(spread_alone, practice.spread))
        };
        Self { bake, spread, bake_widened: bake != alone, spread_widened: spread != spread_alone }
    }
}

/// The range of a spread by what is unsure of dough and model alone.
fn spread_alone(spread: Share, warnings: &[BakeWarning], known: &BakeKnowledge) -> (Share, Share) {
    let own_bakes = known.dough.records > 0;
    let widens = if own_bakes { 1.0 } else { warnings.iter().map(|w| w.widens()).fold(1.0, f64::max) };
    let of_dough = spread.value().abs() * known.dough.spread_sd.hypot(SPREAD_NOISE) * widens;
    let off = NINE_OF_TEN * of_dough.hypot(WIDTH_NOISE);
    (Share::new((spread.value() - off).max(0.0)), Share::new(spread.value() + off))
}

/// The range of a spread, as [`BakeRange::of`] has it.
#[must_use]
pub fn spread_range(
    spread: Share,
    warnings: &[BakeWarning],
    known: &BakeKnowledge,
    practice: &Practice,
) -> (Share, Share) {
    let alone = spread_alone(spread, warnings, known);
    if known.dough.records > 0 { alone } else { touching(alone, practice.spread) }
}

/// A range, reaching as far as it has to in order to touch another.
fn touching<T: PartialOrd + Copy>(own: (T, T), other: (T, T)) -> (T, T) {
    (if own.0 > other.1 { other.1 } else { own.0 }, if own.1 < other.0 { other.0 } else { own.1 })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_range_is_widened_only_as_far_as_it_must_be() {
        assert_eq!(touching((5, 7), (6, 9)), (5, 7));
        assert_eq!(touching((5, 7), (8, 9)), (5, 8));
        assert_eq!(touching((5, 7), (1, 3)), (3, 7));
    }
}
