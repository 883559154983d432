//! Ranges the trade states for time and spread by thickness, temperature and make-up. Common practice, no source; every
//! oven differs, so the screen says 'look early'.

use super::bake::{BakeEnd, BakePiece, NINE_OF_TEN, SETTING_C};
use super::edge::EdgeColour;
use super::reason::Reason;
use crate::dough::{SpreadTendency, between};
use crate::error::{Checks, InputErrors};
use crate::units::{Length, Share, Span, Temperature, TemperatureDifference};
use std::ops::RangeInclusive;

/// Thickness in mm against the least and most minutes at 175 degC in a still oven.
const MINUTES_AT_175: [(f64, f64, f64); 5] =
    [(2.0, 4.0, 6.0), (3.0, 5.0, 7.0), (6.0, 8.0, 14.0), (11.0, 12.0, 17.0), (20.0, 15.0, 22.0)];
/// Oven in degC against what multiplies the least and the most of them (6 mm: 60-90 at 100, 35-50 at 120, 18-28 at 140, 12-20 at 162,
/// 7-10 at 190, 6-8 at 205, 5-7 at 220, 3-5 at 260).
const TEMPERATURE_FACTORS: [(f64, f64, f64); 10] = [
    (100.0, 7.5, 6.4),
    (120.0, 4.4, 3.6),
    (140.0, 2.25, 2.0),
    (150.0, 1.75, 1.65),
    (162.0, 1.5, 1.43),
    (175.0, 1.0, 1.0),
    (190.0, 0.875, 0.714),
    (205.0, 0.7, 0.57),
    (220.0, 0.6, 0.5),
    (260.0, 0.4, 0.36),
];
/// A fan oven bakes like a still one set this much higher (the trade lowers a fan oven by 15 to 25).
const FAN: TemperatureDifference = TemperatureDifference::new_k(20.0);
/// What a bake to another colour takes of the time to just golden. Common practice, no source: pale ones come out early, brown ones late.
const fn by_colour(end: BakeEnd) -> f64 {
    match end {
        BakeEnd::Soft(EdgeColour::Pale) => 0.80,
        BakeEnd::Colour(EdgeColour::Pale) => 0.85,
        BakeEnd::Soft(_) => 0.90,
        BakeEnd::Colour(EdgeColour::JustGolden) | BakeEnd::Dull => 1.0,
        BakeEnd::Colour(EdgeColour::Golden) => 1.12,
        BakeEnd::Colour(EdgeColour::Brown) => 1.30,
    }
}

/// The oven for which the trade states its times.
const PRACTICE_AT: Temperature = Temperature::new_c(175.0);
/// On the tray before the rack.
const COOL_ON_TRAY: Span = Span::new_min(8.0);

/// What the oven is set to.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct BakeSetting {
    oven: Temperature,
    fan: bool,
}

impl BakeSetting {
    /// An oven of 100 to 260 degC, with or without its fan.
    pub fn new(oven_c: f64, fan: bool) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        checks.range("oven_c", oven_c, *SETTING_C.start(), *SETTING_C.end(), "\u{b0}C");
        checks.finish(())?;
        Ok(Self { oven: Temperature::new_c(oven_c), fan })
    }

    /// What it is set to.
    #[must_use]
    pub fn oven(&self) -> Temperature {
        self.oven
    }
}

/// What the trade states of a bake.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Practice {
    /// Least and most time in the oven.
    pub bake: (Span, Span),
    /// Least and most growth across, of the width as cut.
    pub spread: (Share, Share),
}

/// What is expected of a bake.
#[derive(Debug, Clone, PartialEq)]
pub struct Expected {
    /// Least and most time in the oven: nine of ten.
    pub bake: (Span, Span),
    /// The one figure: what the forecast, common practice and the kitchen's own bakes come to.
    pub middle: Span,
    /// When to look first: never later than the early end of practice.
    pub look_after: Span,
    /// Least and most growth across, of the width as cut.
    pub spread: (Share, Share),
    /// On the tray before the rack.
    pub cool_on_tray: Span,
    /// What the trade states beside it.
    pub practice: Practice,
}

/// What common practice expects, and why.
#[derive(Debug, Clone, PartialEq)]
pub struct Stated {
    /// What is expected.
    pub expected: Expected,
    /// What the figures rest on.
    pub reasons: Vec<Reason>,
    /// What to mind.
    pub warnings: Vec<Reason>,
}

impl Expected {
    /// The one figure in whole minutes, as every station tells it.
    #[must_use]
    pub fn about(&self) -> Span {
        Span::new_min(self.middle.min().round().max(1.0))
    }

    /// The bake and the first look as every station tells them, in whole minutes: the range outward, the look no later.
    #[must_use]
    pub fn told(&self) -> ((Span, Span), Span) {
        let least = Span::new_min(1.0);
        let down = |s: Span| if s > least { s.whole_down() } else { least };
        ((down(self.bake.0), self.bake.1.whole_up()), down(self.look_after))
    }
}

/// Where the trade's table knows little: an oven (a fan as 20 higher) below or above, pieces thinner or thicker, or so small. Common practice, no source.
const KNOWN_OVEN_C: RangeInclusive<f64> = 155.0..=195.0;
const KNOWN_THICKNESS_MM: RangeInclusive<f64> = 3.0..=15.0;
const KNOWN_ACROSS_MM: f64 = 35.0;

/// How sure practice is of a time where its table knows little, and where nothing else is asked: one deviation of its logarithm. Common practice, no source.
pub(super) const PRACTICE_SD_WIDE: f64 = 0.35;

pub(super) fn geometric_mean((least, most): (Span, Span)) -> Span {
    Span::new_min((least.min() * most.min()).sqrt())
}

/// A time is off by so much of itself either way: never less than nothing.
pub(super) fn nine_of_ten(middle: Span, sd: f64) -> (Span, Span) {
    let off = NINE_OF_TEN * sd;
    (middle * (-off).exp(), middle * off.exp())
}

/// The one figure and its range where common practice alone is asked.
fn practice_alone(stated: (Span, Span)) -> (Span, (Span, Span)) {
    let middle = geometric_mean(stated);
    (middle, nine_of_ten(middle, PRACTICE_SD_WIDE))
}

/// Whether common practice knows little of such a bake; `odd` where its dough browns fast, or it is a bar as wide as its pan.
#[must_use]
pub fn practice_knows_little(piece: &BakePiece, setting: BakeSetting, end: BakeEnd, odd: bool) -> bool {
    let felt = if setting.fan { setting.oven + FAN } else { setting.oven };
    odd || !KNOWN_OVEN_C.contains(&felt.c())
        || !KNOWN_THICKNESS_MM.contains(&piece.thickness.mm())
        || 2.0 * piece.radius.mm() < KNOWN_ACROSS_MM
        || matches!(end, BakeEnd::Soft(_) | BakeEnd::Colour(EdgeColour::Brown))
}

/// Time and spread as the trade states them for a thickness, an oven, an end and the tendency of the dough.
#[must_use]
pub fn bake_practice(thickness: Length, setting: BakeSetting, end: BakeEnd, tendency: &SpreadTendency) -> Stated {
    let felt = if setting.fan { setting.oven + FAN } else { setting.oven };
    let (least, most) = between(&MINUTES_AT_175, thickness.mm());
    let (quicker, slower) = between(&TEMPERATURE_FACTORS, felt.c());
    let of_end = by_colour(end);
    let bake =
        (Span::new_min(of_end * least * quicker), Span::new_min(of_end * (most * slower).max(least * quicker + 1.0)));
    let spread = tendency.range;
    let high = 100.0 * spread.1.value();
    let mut reasons = vec![Reason::PracticeTimes {
        minutes: (Span::new_min(least), Span::new_min(most)),
        thickness,
        at: PRACTICE_AT,
    }];
    if setting.fan {
        reasons.push(Reason::FanBakesLike { set: setting.oven, like: felt });
    } else if (felt.c() - 175.0).abs() > 0.5 {
        let by = (Share::new(quicker.min(slower)), Share::new(quicker.max(slower)));
        reasons.push(Reason::TimesStretch { at: felt, by });
    }
    reasons.extend(tendency.reasons.iter().cloned().map(Reason::Dough));
    let mut warnings = Vec::new();
    if thickness.mm() > 9.0 && high > 20.0 {
        warnings.push(Reason::WideRanges);
    }
    if thickness.mm() <= 3.0 {
        warnings.push(Reason::ThinBrownsFast);
    }
    let (middle, within) = practice_alone(bake);
    let expected = Expected {
        bake: within,
        middle,
        look_after: Span::new_s(within.0.s().min(bake.0.s()).max(60.0)),
        spread,
        practice: Practice { bake, spread },
        cool_on_tray: COOL_ON_TRAY,
    };
    Stated { expected, reasons, warnings }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    const OWN: crate::dough::Reason = crate::dough::Reason::SodaBrowns;
    const JUST_GOLDEN: BakeEnd = BakeEnd::Colour(EdgeColour::JustGolden);

    fn tendency(low: f64, high: f64) -> SpreadTendency {
        SpreadTendency { range: (Share::new(low), Share::new(high)), reasons: vec![OWN] }
    }

    // Common practice, no source.
    #[rstest]
    #[case(6.0, 175.0, 8.0, 14.0)]
    #[case(6.0, 190.0, 7.0, 10.0)]
    #[case(6.0, 162.0, 12.0, 20.0)]
    #[case(3.0, 175.0, 5.0, 7.0)]
    #[case(11.0, 175.0, 12.0, 17.0)]
    fn the_ranges_are_the_trades(#[case] mm: f64, #[case] oven: f64, #[case] least: f64, #[case] most: f64) {
        let answer = bake_practice(
            Length::new_mm(mm),
            BakeSetting::new(oven, false).unwrap(),
            JUST_GOLDEN,
            &tendency(0.02, 0.06),
        )
        .expected;
        let stated = answer.practice.bake;
        assert!((stated.0.min() - least).abs() < 0.1 && (stated.1.min() - most).abs() < 0.1, "{stated:?}");
        // Alone it is told by the middle of its ends, and with a range that is wider than they are.
        assert!((answer.middle.min() - (least * most).sqrt()).abs() < 0.1);
        assert!(answer.bake.0 < stated.0 && answer.bake.1 > stated.1 && answer.look_after <= answer.bake.0);
    }

    #[test]
    fn a_fan_bakes_faster_and_the_spread_is_the_doughs_own() {
        let at = |fan, dough: &SpreadTendency| {
            bake_practice(Length::new_mm(6.0), BakeSetting::new(175.0, fan).unwrap(), JUST_GOLDEN, dough)
        };
        let firm = tendency(0.02, 0.06);
        assert!(at(true, &firm).expected.bake.1 < at(false, &firm).expected.bake.1);
        let answer = at(false, &tendency(0.10, 0.20)).expected;
        assert_eq!((answer.spread.0.value(), answer.spread.1.value()), (0.10, 0.20));
        assert!(at(false, &tendency(0.10, 0.20)).reasons.contains(&Reason::Dough(OWN)));
    }

    #[test]
    fn an_oven_no_cookie_is_baked_in_is_refused() {
        for oven in [60.0, 400.0, f64::NAN] {
            assert!(BakeSetting::new(oven, false).is_err());
        }
    }
}
