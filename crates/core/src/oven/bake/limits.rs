//! Where the model knows something, and where it only guesses.

use super::dough::OvenDough;
use super::flow::packed_as_laid;
use super::setup::{BakePiece, OvenSetup, TrayCover};
use crate::air::standard_pressure_pa;
use crate::error::{Checks, InputError, InputErrors};
use crate::units::Length;
use std::ops::RangeInclusive;

/// Height of a piece that the model knows, mm.
pub const THICKNESS_MM: RangeInclusive<f64> = 2.0..=25.0;
/// Width of a round that it knows, mm.
pub const ACROSS_MM: RangeInclusive<f64> = 15.0..=200.0;
/// Radius of the smallest disc it knows, mm.
pub const LEAST_RADIUS_MM: f64 = 7.5;
/// Setting of an oven that people bake cookies at, degC: from drying to a pizza oven's least. Common practice, no source.
pub const SETTING_C: RangeInclusive<f64> = 100.0..=260.0;
/// Setting of an oven that the model knows, degC.
pub const OVEN_C: RangeInclusive<f64> = 140.0..=220.0;
/// Dough as it goes in, degC.
pub const START_C: RangeInclusive<f64> = -20.0..=28.0;
/// Tray as the pieces are laid on it, degC.
pub const TRAY_C: RangeInclusive<f64> = -40.0..=100.0;
/// The least and the most of a tray that may lie under pieces.
pub const COVER: RangeInclusive<f64> = 0.05..=0.90;
/// No further up, m: and from where on it is told.
const HIGHEST_M: f64 = 3000.0;
const HIGH_M: f64 = 1500.0;
/// Of the dough: fat the model was calibrated to; all it takes.
const FAT_KNOWN: RangeInclusive<f64> = 0.18..=0.30;
const FAT_TAKEN: RangeInclusive<f64> = 0.04..=0.40;
const MOST_WATER: f64 = 0.25;
/// From here on it is mainly nuts; a paste of them. Of the dough, our own reading of where rows of practice end.
const MAINLY_NUTS: f64 = 0.30;
const MUCH_PASTE: f64 = 0.15;
/// Solids fill so little of the room between them in what flows on its tray before it bakes: tuiles, wafers, drops of batter.
const BATTER: f64 = 0.42;
/// Less than this, and a dough is soft, to be dropped or piped.
const SOFT: f64 = 0.68;
/// Heights from which discs and rich doughs slump too far in the model, mm, and what rich is.
const TALL_MM: f64 = 15.0;
const TALL_RICH_MM: f64 = 12.0;
const RICH: f64 = 0.24;
/// Colour runs ahead of pieces thinner than this.
pub const BAKES_THIN: Length = Length::new_mm(4.0);
/// Of the dough: syrup that counts beside soda, pieces that are many; of the flour, ammonia, per cent.
const SYRUP: f64 = 0.03;
const MANY_PIECES: f64 = 0.20;
const MUCH_AMMONIA_PERCENT: f64 = 0.5;
/// Undersides outside these covers are a guess.
const COVER_KNOWN: RangeInclusive<f64> = 0.2..=0.6;

/// What to mind about a forecast.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum BakeWarning {
    /// Balls, thick discs, thick rich doughs.
    Slumps,
    /// A soft dough with soda.
    SoftWithSoda,
    /// Syrup or honey with soda.
    SyrupWithSoda,
    /// Cocoa hides its colour.
    Cocoa,
    /// Less or more fat than the rows of practice have.
    Fat,
    /// Thin air.
    High,
    /// Much baker's ammonia.
    Ammonia,
    /// So thin that colour runs ahead.
    Thin,
    /// Many pieces in it.
    Pieces,
    /// A leavener of which nothing is known.
    UnknownLeavener,
    /// A tray so full or so empty that its underside is a guess.
    Cover,
    /// Books and bakers disagree on powdered sugar.
    Powdered,
}

impl BakeWarning {
    /// By how much wider the range of the spread is for it.
    #[must_use]
    pub const fn widens(self) -> f64 {
        match self {
            Self::Slumps | Self::SoftWithSoda | Self::SyrupWithSoda | Self::UnknownLeavener => 1.5,
            Self::Fat | Self::High | Self::Ammonia | Self::Pieces => 1.25,
            Self::Cocoa | Self::Thin | Self::Cover | Self::Powdered => 1.0,
        }
    }
}

/// What the model knows too little of.
///
/// Fails, naming what and the range, for a piece under 2 or over 25 mm high, under 15 or over 200 mm across, an oven under
/// 140 or over 220 degC, a tray over 100 degC, air of more than 3,000 m, a dough of under 4 or over 40 % fat, over 25 % water, without flour, mainly of
/// nuts, or not between -20 and 28 degC.
pub fn check_bake(dough: &OvenDough, piece: &BakePiece, oven: &OvenSetup) -> Result<Vec<BakeWarning>, InputErrors> {
    let (p, facts) = (dough.parts(), dough.facts());
    let mut checks = Checks::new();
    let mut within = |field: &str, value: f64, range: &RangeInclusive<f64>, unit: &'static str| {
        checks.range(field, value, *range.start(), *range.end(), unit);
    };
    let high = piece.thickness.mm();
    within("thickness_mm", high, &THICKNESS_MM, "mm");
    within("across_mm", 2.0 * piece.radius.mm(), &ACROSS_MM, "mm");
    within("oven_c", oven.air.c(), &OVEN_C, "\u{b0}C");
    within("dough_c", piece.start.c(), &START_C, "\u{b0}C");
    within("tray_c", oven.tray_start.c(), &TRAY_C, "\u{b0}C");
    within("fat_percent", 100.0 * p.fat, &in_percent(&FAT_TAKEN), "% of the dough");
    within("water_percent", 100.0 * p.water, &(0.0..=100.0 * MOST_WATER), "% of the dough");
    within("wait_min", piece.wait.min(), &(0.0..=120.0), "min");
    match oven.cover {
        TrayCover::Share(share) => within("cover_percent", 100.0 * share.value(), &in_percent(&COVER), "% of the tray"),
        TrayCover::Gap(gap) => within("gap_mm", gap.mm(), &(0.0..=200.0), "mm"),
    }
    if p.flour + p.starch < 0.02 {
        checks.push(InputError::refused("flour", "No flour, so it won’t set. Add some."));
    }
    if facts.nuts > MAINLY_NUTS || facts.nut_paste > MUCH_PASTE {
        checks.push(InputError::refused("nuts", "Mostly nuts or nut paste: no forecast. Bake one test tray first."));
    }
    if packed_as_laid(dough) < BATTER {
        checks.push(InputError::refused("flour", "Not enough flour: this runs like batter, so there’s no forecast."));
    }
    if oven.pressure_pa < standard_pressure_pa(HIGHEST_M) {
        checks.push(InputError::refused("altitude_m", format!("No forecast above {HIGHEST_M:.0} m of altitude.")));
    }
    checks.finish(())?;
    Ok(warnings(dough, piece, oven))
}

fn in_percent(range: &RangeInclusive<f64>) -> RangeInclusive<f64> {
    100.0 * range.start()..=100.0 * range.end()
}

fn warnings(dough: &OvenDough, piece: &BakePiece, oven: &OvenSetup) -> Vec<BakeWarning> {
    let (p, facts, high) = (dough.parts(), dough.facts(), piece.thickness.mm());
    let outside = |cover: TrayCover| matches!(cover, TrayCover::Share(s) if !COVER_KNOWN.contains(&s.value()));
    let all = [
        (dough.hides_colour(), BakeWarning::Cocoa),
        (high > TALL_MM || high > TALL_RICH_MM && p.fat > RICH, BakeWarning::Slumps),
        (p.soda_percent > 0.0 && packed_as_laid(dough) < SOFT, BakeWarning::SoftWithSoda),
        (facts.soda && facts.syrup > SYRUP, BakeWarning::SyrupWithSoda),
        (!FAT_KNOWN.contains(&p.fat), BakeWarning::Fat),
        (oven.pressure_pa < standard_pressure_pa(HIGH_M), BakeWarning::High),
        (facts.ammonia_percent > MUCH_AMMONIA_PERCENT, BakeWarning::Ammonia),
        (high < BAKES_THIN.mm(), BakeWarning::Thin),
        (p.pieces > MANY_PIECES, BakeWarning::Pieces),
        (facts.unknown_leavener, BakeWarning::UnknownLeavener),
        (outside(oven.cover), BakeWarning::Cover),
        (p.powdered > 0.0, BakeWarning::Powdered),
    ];
    all.into_iter().filter_map(|(holds, warning)| holds.then_some(warning)).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::dough::{Formula, LineInput, Pantry};
    use crate::units::{Span, Temperature};
    use rstest::rstest;

    fn told(lines: &[(&str, f64)]) -> Vec<BakeWarning> {
        let lines: Vec<LineInput> = lines.iter().map(|l| (*l).into()).collect();
        let formula = Formula::new("Test", &lines, Pantry::built_in()).unwrap();
        let piece = BakePiece {
            thickness: Length::new_mm(6.0),
            radius: Length::new_mm(32.5),
            start: Temperature::new_c(6.0),
            firm_as_at: Temperature::new_c(6.0),
            wait: Span::new_s(0.0),
        };
        check_bake(&OvenDough::of(&formula, 0.08).unwrap(), &piece, &OvenSetup::usual(175.0, false)).unwrap()
    }

    #[rstest]
    #[case(&[("honey", 40.0), ("baking-soda", 1.5)], BakeWarning::SyrupWithSoda)]
    #[case(&[("cocoa", 15.0)], BakeWarning::Cocoa)]
    #[case(&[("bakers-ammonia", 1.5)], BakeWarning::Ammonia)]
    #[case(&[("chocolate", 150.0)], BakeWarning::Pieces)]
    #[case(&[("oil", 90.0)], BakeWarning::Fat)]
    fn what_the_model_knows_little_of_is_told(#[case] more: &[(&str, f64)], #[case] warning: BakeWarning) {
        let plain = [("butter", 100.0), ("sugar", 90.0), ("flour-ap", 170.0), ("egg", 22.0), ("salt", 1.0)];
        assert_eq!(told(&plain), vec![]);
        let all = told(&[&plain[..], more].concat());
        assert!(all.contains(&warning), "{all:?}");
    }

    #[test]
    fn a_dropped_dough_with_soda_is_told_as_soft_and_a_rolled_one_is_not() {
        let dropped = [
            ("sugar", 65.0),
            ("sugar-brown", 65.0),
            ("butter", 100.0),
            ("flour-ap", 130.0),
            ("egg", 45.0),
            ("baking-soda", 1.3),
        ];
        assert!(told(&dropped).contains(&BakeWarning::SoftWithSoda));
        let rolled = [("sugar", 90.0), ("butter", 100.0), ("flour-ap", 170.0), ("egg", 22.0), ("baking-soda", 0.85)];
        assert!(!told(&rolled).contains(&BakeWarning::SoftWithSoda));
    }
}
