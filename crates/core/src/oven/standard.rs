//! How far a dough spreads by itself: one named piece of it, baked as usual, so that doughs can be told apart before anybody has chosen a
//! cutter. The same model as every forecast.

use super::bake::{BakeEnd, BakeFit, BakeKnowledge, BakePiece, OvenDough, OvenSetup, forecast};
use super::edge::EdgeColour;
use super::practice::Practice;
use super::range::spread_range;
use crate::dough::{Formula, Judgement, MixMethod, spread_tendency};
use crate::units::{Length, Share, Span, Temperature};

/// A round of 65 mm and 6 mm, chilled to 6 degC.
pub const STANDARD_PIECE: BakePiece = BakePiece {
    thickness: Length::new_mm(6.0),
    radius: Length::new_mm(32.5),
    start: Temperature::new_c(6.0),
    firm_as_at: Temperature::new_c(6.0),
    wait: Span::new_s(0.0),
};
/// Baked at so much in a still oven.
const STANDARD_OVEN_C: f64 = 175.0;

/// How far a dough spreads.
#[derive(Debug, Clone, PartialEq)]
pub struct StandardSpread {
    /// In a word, with reasons.
    pub judgement: Judgement,
    /// Growth across, of the width as cut: the forecast's, in the middle of what the trade states where the model refuses the dough.
    pub across: Share,
    /// Its least and most, as of every forecast.
    pub range: (Share, Share),
    /// Growth all round the standard piece; nothing where the model refuses the dough.
    pub grows: Option<Length>,
}

impl StandardSpread {
    /// Of a formula.
    #[must_use]
    pub fn of(formula: &Formula) -> Self {
        let tendency = spread_tendency(formula);
        let oven = OvenSetup::usual(STANDARD_OVEN_C, false);
        let end = BakeEnd::Colour(EdgeColour::JustGolden);
        let found = OvenDough::of(formula, MixMethod::LightAndFluffy.air())
            .and_then(|dough| forecast(&dough, &STANDARD_PIECE, &oven, &BakeFit::NONE, end));
        let (range, grows) = match &found {
            Ok(f) => {
                let practice = Practice { bake: (f.bake, f.bake), spread: tendency.range };
                let range = spread_range(f.spread, &f.warnings, &BakeKnowledge::NONE, &practice);
                (range, Some(STANDARD_PIECE.radius * f.spread.value()))
            }
            Err(_) => (tendency.range, None),
        };
        let practice = f64::midpoint(tendency.range.0.value(), tendency.range.1.value());
        let middle = found.as_ref().map_or(practice, |f| f.spread.value());
        let word = match middle {
            m if m < 0.02 => "hardly spreads",
            m if m < 0.05 => "spreads a little",
            m if m < 0.12 => "spreads",
            _ => "spreads far",
        };
        let mut reasons = vec![match grows {
            Some(grows) => format!(
                "A round of 65 mm and 6 mm, chilled to 6\u{b0} and baked at {STANDARD_OVEN_C:.0}\u{b0}, grows {:.1} mm all round: {:.1} % across.",
                grows.mm(),
                100.0 * middle
            ),
            None => "Beyond what the forecast knows: the range is that of common practice.".to_owned(),
        }];
        reasons.extend(tendency.reasons);
        Self {
            across: Share::new(middle),
            judgement: Judgement { word, level: (middle / 0.15).sqrt().clamp(0.0, 1.0), reasons },
            range,
            grows,
        }
    }

    /// How it differs from a neighbour's, as a sentence; nothing where they are near each other.
    #[must_use]
    pub fn beside(&self, neighbour: &Self) -> Option<String> {
        let (own, other) = (100.0 * self.across.value(), 100.0 * neighbour.across.value());
        let word = if own > other { "more" } else { "less" };
        ((own - other).abs() > 0.5 && (own / other.max(0.01) - 1.0).abs() > 0.1)
            .then(|| format!("It spreads {word}: {own:.1} against {other:.1} % across the standard piece."))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::dough::{LineInput, Pantry};
    use rstest::rstest;

    fn spread(lines: &[(&str, f64)]) -> StandardSpread {
        let lines: Vec<LineInput> = lines.iter().map(|l| (*l).into()).collect();
        StandardSpread::of(&Formula::new("Test", &lines, Pantry::built_in()).unwrap())
    }

    // The schools of the trade: common practice, no source.
    #[rstest]
    #[case(&[("butter", 100.0), ("sugar", 100.0), ("flour-ap", 300.0), ("egg", 25.0)], "hardly spreads")]
    #[case(&[("butter", 100.0), ("sugar", 90.0), ("flour-ap", 170.0), ("egg", 22.0)], "spreads a little")]
    #[case(&[("butter", 100.0), ("sugar", 65.0), ("sugar-brown", 65.0), ("flour-ap", 130.0), ("egg", 45.0), ("baking-soda", 1.3)], "spreads far")]
    fn doughs_are_told_by_the_standard_piece(#[case] lines: &[(&str, f64)], #[case] word: &str) {
        let found = spread(lines);
        assert_eq!(found.judgement.word, word, "{found:?}");
        assert!(found.judgement.reasons[0].contains("65 mm") && found.grows.is_some());
    }

    #[test]
    fn a_batter_is_told_by_practice_alone() {
        let tuile = spread(&[("butter", 50.0), ("sugar", 100.0), ("white", 70.0), ("flour-ap", 50.0)]);
        assert!(tuile.grows.is_none() && tuile.judgement.reasons[0].contains("common practice"), "{tuile:?}");
    }
}
