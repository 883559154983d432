//! How far off a forecast may be, and how it is told beside common practice.

use super::bake::{BakeForecast, BakeKnowledge, BakeWarning, NINE_OF_TEN, SPREAD_NOISE, TIME_NOISE, WIDTH_NOISE};
use super::practice::{PRACTICE_SD_WIDE, Practice, geometric_mean, nine_of_ten};
use crate::units::{Share, Span};

// How sure two witnesses of a bake's time are, standard deviations of its logarithm: the model, in an oven that nobody has read on a thermometer and in one
// that was read; common practice, and common practice where its table knows little. And how far the two err together: both meet the same
// unknown oven. Common practice, no source; the rows of tests/data/practice_rows.json.
const MODEL_SD: f64 = 0.20;
const MODEL_SD_MEASURED: f64 = 0.15;
const PRACTICE_SD: f64 = 0.20;
const TOGETHER: f64 = 0.5;

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
    /// The one figure of it.
    pub middle: Span,
    /// Growth across, of the width of a round as cut.
    pub spread: (Share, Share),
    /// Whether that was widened to touch common practice.
    pub spread_widened: bool,
}

impl BakeRange {
    /// A time by two witnesses, the model and common practice (`wide` where it knows little), each counted by how sure it is; the kitchen's own bakes make
    /// the model surer, until practice falls away. Nine of ten bakes lie within.
    #[must_use]
    pub fn of(found: &BakeForecast, known: &BakeKnowledge, doubt: OvenDoubt, practice: &Practice, wide: bool) -> Self {
        let (unread, of_oven) =
            if doubt.measured { (MODEL_SD_MEASURED, TIME_MEASURED) } else { (MODEL_SD, TIME_UNMEASURED) };
        let own_bakes = known.dough.records > 0;
        let model_sd = if own_bakes { known.time_sd(of_oven).hypot(TIME_NOISE).min(unread) } else { unread };
        let practice_sd = if wide { PRACTICE_SD_WIDE } else { PRACTICE_SD };
        let weight = model_sd.powi(-2) / (model_sd.powi(-2) + practice_sd.powi(-2));
        let stated = geometric_mean(practice.bake);
        let middle = Span::new_min((weight * found.bake.min().ln() + (1.0 - weight) * stated.min().ln()).exp());
        let (by_model, by_practice) = (weight * model_sd, (1.0 - weight) * practice_sd);
        let variance = by_model.powi(2) + by_practice.powi(2) + 2.0 * TOGETHER * by_model * by_practice;
        let spread_alone = spread_alone(found.spread, &found.warnings, known);
        let spread = if own_bakes { spread_alone } else { touching(spread_alone, practice.spread) };
        let bake = nine_of_ten(middle, variance.sqrt().hypot(doubt.swing));
        Self { bake, middle, spread, spread_widened: spread != spread_alone }
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
