//! The other way round: what must be done so that a piece is ready at a wanted time.

use super::never::Never;
use super::piece::Piece;
use super::report::{ChillQuestion, chill};
use crate::error::InputErrors;
use crate::units::{Density, Length, Mass, Span};

/// Thinnest and thickest to which a disc is pressed, mm. Common practice, no source.
const DISC_MM: (f64, f64) = (10.0, 60.0);
/// The answer is given to this, mm.
const STEP_MM: f64 = 0.5;
/// Across a disc, mm: more does not fit a shelf.
const WIDEST_MM: f64 = 400.0;

/// What makes a piece ready in time.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct InTime {
    /// How long it takes at the slow end of its range.
    pub needs: Span,
    /// Whether that is within the time there is.
    pub makes_it: bool,
    /// For a disc that does not make it (or could be thicker): the thickest that does. `None` where even the thinnest
    /// does not.
    pub thickest: Option<Length>,
}

/// A disc of so much dough pressed to a thickness.
#[must_use]
pub fn disc_of(mass: Mass, thickness: Length, density: Density) -> Piece {
    let area = mass.rolled_to(thickness, density).mm2();
    Piece::Disc { thickness, diameter: Length::new_mm((area * 4.0 / std::f64::consts::PI).sqrt().clamp(10.0, 600.0)) }
}

/// Whether a piece is ready within the time there is, at the slow end of its range.
///
/// Fails when it never gets ready where it is put, with the reason.
pub fn in_time(question: &ChillQuestion, within: Span) -> Result<InTime, Never> {
    let needs = slow_end(question)?;
    Ok(InTime { needs, makes_it: needs <= within, thickest: None })
}

/// As [`in_time`] for a disc of `mass`, with the thickest disc that makes it.
///
/// A thinner disc is never slower, so the thickest is found by halving, to half a millimetre.
pub fn disc_in_time(question: &ChillQuestion, mass: Mass, density: Density, within: Span) -> Result<InTime, Never> {
    let mut answer = in_time(question, within)?;
    let needs = |mm: f64| -> Result<Option<Span>, InputErrors> {
        let piece = disc_of(mass, Length::new_mm(mm), density);
        Ok(slow_end(&question.of_piece(piece)?).ok())
    };
    let enough = |mm: f64| needs(mm).ok().flatten().is_some_and(|n| n <= within);
    // A disc wider than a shelf is no way out.
    let widest = std::f64::consts::PI / 4.0 * WIDEST_MM * WIDEST_MM;
    let thinnest = (mass.g() * 1e6 / density.kg_m3() / widest).max(DISC_MM.0);
    let (mut low, mut high) = ((thinnest / STEP_MM).ceil() * STEP_MM, DISC_MM.1);
    if low > high || !enough(low) {
        return Ok(answer);
    }
    if enough(high) {
        low = high;
    }
    while high - low > STEP_MM + 1e-9 {
        let middle = ((low + high) / 2.0 / STEP_MM).round() * STEP_MM;
        if enough(middle) { low = middle } else { high = middle }
    }
    answer.thickest = Some(Length::new_mm(low));
    Ok(answer)
}

fn slow_end(question: &ChillQuestion) -> Result<Span, Never> {
    let answer = chill(question);
    match (answer.ready_between, answer.ready_after) {
        (Some((_, late)), _) => Ok(late),
        (None, Some(ready)) => Ok(ready),
        (None, None) => Err(answer.never.unwrap_or(Never::LiquidFat)),
    }
}

#[cfg(test)]
mod tests {
    use super::super::{Place, Support, Target, Wrap};
    use super::*;
    use crate::dough::{Composition, FatKind};
    use rstest::rstest;

    const DENSITY: Density = Density::new_kg_m3(1210.0);
    const MASS: Mass = Mass::new_g(700.0);

    fn disc(mm: f64, air_c: f64) -> ChillQuestion {
        let b = Composition::from_analysis(0.1457, 0.2018, 0.0575, 0.5799, 0.0035, 0.0116, FatKind::Butter).unwrap();
        let piece = disc_of(MASS, Length::new_mm(mm), DENSITY);
        let place = Place::new(air_c, 7.0).unwrap();
        ChillQuestion::new(b, piece, Wrap::Wrapped, Support::Rack, 20.5, place, Target::Rolling).unwrap()
    }

    #[test]
    fn a_disc_of_a_mass_is_as_wide_as_it_must_be() {
        // 700 g at 1.21 g/mL and 22 mm: 263 cm2, 183 mm across.
        let Piece::Disc { diameter, .. } = disc_of(MASS, Length::new_mm(22.0), DENSITY) else { panic!() };
        assert!((diameter.mm() - 183.0).abs() < 0.3, "{diameter:?}");
    }

    #[rstest]
    #[case(16.0)]
    #[case(20.0)]
    #[case(25.0)]
    fn the_thickest_disc_makes_it_and_a_thicker_one_does_not(#[case] minutes: f64) {
        let within = Span::new_min(minutes);
        let answer = disc_in_time(&disc(30.0, 4.0), MASS, DENSITY, within).unwrap();
        let thickest = answer.thickest.unwrap().mm();
        assert!(in_time(&disc(thickest, 4.0), within).unwrap().makes_it, "{thickest}");
        assert!(!in_time(&disc(thickest + 1.0, 4.0), within).unwrap().makes_it, "{thickest}");
        assert_eq!(answer.makes_it, thickest >= 30.0);
    }

    #[test]
    fn more_time_never_asks_for_a_thinner_disc() {
        let mut last = 0.0;
        for minutes in [12.0, 18.0, 25.0, 30.0, 60.0, 240.0] {
            let answer = disc_in_time(&disc(22.0, 4.0), MASS, DENSITY, Span::new_min(minutes)).unwrap();
            let now = answer.thickest.map_or(0.0, |t| t.mm());
            assert!(now >= last, "{minutes} min: {now} after {last}");
            last = now;
        }
        assert_eq!(last, 60.0);
    }

    #[test]
    fn no_time_at_all_has_no_way_out_and_a_warm_place_says_never() {
        assert_eq!(disc_in_time(&disc(22.0, 4.0), MASS, DENSITY, Span::new_min(1.0)).unwrap().thickest, None);
        let never = disc_in_time(&disc(22.0, 19.0), MASS, DENSITY, Span::new_min(60.0)).unwrap_err();
        assert!(matches!(never, Never::PlaceIsAt { air, .. } if air.c() == 19.0), "{never:?}");
    }
}
