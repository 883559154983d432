//! How far a dough spreads by itself: one named piece of it, baked as usual, so that doughs can be told apart before anybody has chosen a
//! cutter. The same model as every forecast.

use super::bake::{BakeEnd, BakeFit, BakeKnowledge, BakePiece, OvenDough, OvenSetup, forecast};
use super::edge::EdgeColour;
use super::practice::Practice;
use super::range::spread_range;
use super::reason::{Reason, Spreading};
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
    /// On the whole, with reasons.
    pub judgement: Judgement<Spreading, Reason>,
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
        let verdict = match middle {
            // Of a piece of 65 mm: 2 mm nobody sees, 5 mm is a little, 13 mm a good deal. Common practice, no source.
            m if m < 0.03 => Spreading::Hardly,
            m if m < 0.08 => Spreading::ALittle,
            m if m < 0.20 => Spreading::Spreads,
            _ => Spreading::Far,
        };
        let mut reasons = vec![match grows {
            Some(by) => Reason::StandardGrows {
                thickness: STANDARD_PIECE.thickness,
                across: STANDARD_PIECE.radius * 2.0,
                chilled: STANDARD_PIECE.start,
                oven: Temperature::new_c(STANDARD_OVEN_C),
                by,
                spread: Share::new(middle),
            },
            None => Reason::StandardUnknown,
        }];
        reasons.extend(tendency.reasons.into_iter().map(Reason::Dough));
        Self {
            across: Share::new(middle),
            judgement: Judgement { verdict, level: (middle / 0.15).sqrt().clamp(0.0, 1.0), reasons },
            range,
            grows,
        }
    }

    /// Its spread and a neighbour's; nothing where they are near each other.
    #[must_use]
    pub fn beside(&self, neighbour: &Self) -> Option<(Share, Share)> {
        let (own, other) = (100.0 * self.across.value(), 100.0 * neighbour.across.value());
        ((own - other).abs() > 0.5 && (own / other.max(0.01) - 1.0).abs() > 0.1)
            .then_some((self.across, neighbour.across))
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
    #[case(&[("butter", 100.0), ("sugar", 100.0), ("flour-ap", 300.0), ("egg", 25.0)], Spreading::Hardly)]
    #[case(&[("butter", 100.0), ("sugar", 90.0), ("flour-ap", 170.0), ("egg", 22.0)], Spreading::ALittle)]
    #[case(&[("butter", 100.0), ("sugar", 65.0), ("sugar-brown", 65.0), ("flour-ap", 130.0), ("egg", 45.0), ("baking-soda", 1.3)], Spreading::Far)]
    fn doughs_are_told_by_the_standard_piece(#[case] lines: &[(&str, f64)], #[case] verdict: Spreading) {
        let found = spread(lines);
        assert_eq!(found.judgement.verdict, verdict, "{found:?}");
        assert!(
            matches!(found.judgement.reasons[0], Reason::StandardGrows { across, .. } if across.mm() == 65.0)
                && found.grows.is_some()
        );
    }

    #[test]
    fn a_batter_is_told_by_practice_alone() {
        let tuile = spread(&[("butter", 50.0), ("sugar", 100.0), ("white", 70.0), ("flour-ap", 50.0)]);
        assert!(tuile.grows.is_none() && tuile.judgement.reasons[0] == Reason::StandardUnknown, "{tuile:?}");
    }
}
