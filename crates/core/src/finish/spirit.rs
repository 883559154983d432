//! What is left of the alcohol in a dough after its bake.

use super::Reason;
use crate::dough::Formula;
use crate::units::{Mass, Share, Span};

/// USDA Table of Nutrient Retention Factors, alcohol, "stirred into mixture, baked or simmered" (from memory): minutes, % left.
const LEFT: [(f64, f64); 6] = [(15.0, 40.0), (30.0, 35.0), (60.0, 25.0), (90.0, 20.0), (120.0, 10.0), (150.0, 5.0)];

/// Of the dough, from which its alcohol is spoken of. Common practice, no source.
const COUNTS_FROM: f64 = 0.005;

/// Alcohol of one piece.
#[derive(Debug, Clone, PartialEq)]
pub struct SpiritLeft {
    /// As it is mixed.
    pub mixed: Mass,
    /// After the bake, least and most.
    pub left: (Mass, Mass),
    /// What the table says of it.
    pub reason: Reason,
}

/// What is left of the alcohol of a piece of so much dough after so long in the oven; `None` for a dough without any.
#[must_use]
pub fn spirit_left(formula: &Formula, piece: Mass, bake: Span) -> Option<SpiritLeft> {
    let alcohol: f64 = formula.lines().iter().map(|l| l.mass().g() * l.ingredient().analysis.alcohol / 100.0).sum();
    // A little extract is no spirit: under half a per cent, as drinks that count as free of alcohol.
    if alcohol / formula.total().g() < COUNTS_FROM {
        return None;
    }
    let mixed = piece * (alcohol / formula.total().g());
    let (least, most) = left_after(bake);
    let reason = if most.value() >= 1.0 {
        Reason::TableBeginsLater { from: Span::new_min(LEFT[0].0), left: Share::new(LEFT[0].1 / 100.0), bake }
    } else {
        Reason::LeftByTheTable { bake, left: least }
    };
    Some(SpiritLeft { mixed, left: (mixed * least.value(), mixed * most.value()), reason })
}

/// Share of the alcohol that is left, least and most: straight between the table's rows, anything from its first row up to all of
/// it before them.
fn left_after(bake: Span) -> (Share, Share) {
    let min = bake.min();
    let of = |percent: f64| Share::new(percent / 100.0);
    if min < LEFT[0].0 {
        return (of(LEFT[0].1), of(100.0));
    }
    let found = match LEFT.windows(2).find(|w| min <= w[1].0) {
        Some(w) => w[0].1 + (w[1].1 - w[0].1) * (min - w[0].0) / (w[1].0 - w[0].0),
        None => LEFT[LEFT.len() - 1].1,
    };
    (of(found), of(found))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::dough::{LineInput, Pantry};
    use rstest::rstest;

    /// USDA Table of Nutrient Retention Factors: 15 min 40 %, 30 min 35 %, 1 h 25 %.
    #[rstest]
    #[case(15.0, 0.40)]
    #[case(30.0, 0.35)]
    #[case(60.0, 0.25)]
    #[case(45.0, 0.30)]
    #[case(400.0, 0.05)]
    fn the_published_rows_are_told_as_they_are(#[case] min: f64, #[case] left: f64) {
        let (least, most) = left_after(Span::new_min(min));
        assert!((least.value() - left).abs() < 1e-9 && least == most);
    }

    #[test]
    fn before_the_first_row_it_only_says_that_more_is_left() {
        assert_eq!(left_after(Span::new_min(10.0)), (Share::new(0.4), Share::new(1.0)));
    }

    #[test]
    fn a_piece_has_its_share_of_the_alcohol() {
        let lines: Vec<LineInput> = [("butter", 100.0), ("sugar", 90.0), ("flour-ap", 170.0), ("vanilla", 10.0)]
            .iter()
            .map(|l| (*l).into())
            .collect();
        let formula = Formula::new("Test", &lines, Pantry::built_in()).unwrap();
        let found = spirit_left(&formula, Mass::new_g(37.0), Span::new_min(10.0)).unwrap();
        // 10 g of extract hold 3.44 g in 370 g of dough.
        assert!((found.mixed.g() - 0.344).abs() < 1e-6, "{found:?}");
        assert!((found.left.0.g() - 0.1376).abs() < 1e-6 && found.left.1 == found.mixed);
        let plain = Formula::new("Plain", &lines[..3], Pantry::built_in()).unwrap();
        assert_eq!(spirit_left(&plain, Mass::new_g(37.0), Span::new_min(10.0)), None);
    }
}
