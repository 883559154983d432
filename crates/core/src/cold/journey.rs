//! A piece in several places one after another: bench, fridge, bench, freezer.

use super::piece::{Piece, Support, Wrap};
use super::report::Place;
use super::solver::{Body, Sample};
use super::thermal::Thermal;
use crate::dough::Composition;
use crate::error::{Checks, InputErrors};
use crate::units::{Span, Temperature};

/// Places at or below this count as cold (FDA Food Code 2022, 3-501.16: cold holding at 5 degC; local rules decide).
pub(super) const COLD_C: f64 = 5.0;
/// Out of the cold no longer than this in all. Common practice, no source; local rules decide.
pub const OUT_OF_THE_COLD: Span = Span::new_min(120.0);
/// The longest stay and the most of them.
const LONGEST_MIN: f64 = 7.0 * 24.0 * 60.0;
const MOST_STAYS: usize = 20;

/// A time in one place.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Stay {
    /// Where.
    pub place: Place,
    /// On what.
    pub support: Support,
    /// For how long.
    pub lasts: Span,
}

/// What a piece went through.
#[derive(Debug, Clone)]
pub struct Journey {
    /// The whole way, from when it was first put somewhere.
    pub curve: Vec<Sample>,
    /// When each stay ends.
    pub ends: Vec<Span>,
    /// Time in places warmer than 5 degC, while the dough itself was warmer than that.
    pub out_of_the_cold: Span,
}

impl Journey {
    /// Whether it was out of the cold for longer than two hours in all.
    #[must_use]
    pub fn too_long_out(&self) -> bool {
        self.out_of_the_cold > OUT_OF_THE_COLD
    }

    /// What a thermometer would have shown at a moment, linear between steps; the last state after the end.
    #[must_use]
    pub fn at(&self, after: Span) -> Sample {
        Sample::at(&self.curve, after)
    }
}

/// Takes a piece through its stays.
///
/// Fails, naming the stay, for a stay of no time or of more than a week, for none, and for more than twenty.
pub fn journey(
    composition: &Composition,
    piece: Piece,
    wrap: Wrap,
    start: Temperature,
    stays: &[Stay],
) -> Result<Journey, InputErrors> {
    let mut checks = Checks::new();
    let piece = checks.take("piece", piece.checked());
    checks.range("start_c", start.c(), -30.0, 45.0, "\u{b0}C");
    if stays.is_empty() {
        checks.push(crate::error::InputError::refused("stays", "at least one place is needed"));
    }
    checks.limit("stays", stays.len(), MOST_STAYS, "stays");
    for (i, stay) in stays.iter().enumerate() {
        checks.range(&format!("stays[{i}].minutes"), stay.lasts.min(), 0.1, LONGEST_MIN, "min");
    }
    checks.finish(())?;
    let piece = piece.expect("checked");
    // The water is taken as it is in the coldest of the places.
    let coldest = stays.iter().map(|s| s.place.air().c()).fold(start.c(), f64::min);
    let thermal = Thermal::new(composition, start, Temperature::new_c(coldest));
    let alike = stays.iter().all(|s| matches!(s.support, Support::Rack));
    let mut body = Body::new(&thermal, piece, wrap, start, alike);
    let mut curve: Vec<Sample> = Vec::new();
    let (mut ends, mut from) = (Vec::new(), Span::new_s(0.0));
    let mut out = 0.0;
    for stay in stays {
        let mut seen = body.leave(stay.place.air(), stay.place.film(), stay.support, stay.lasts, |_| false);
        // The last step may go past the end of the stay: cut it there.
        if let [.., before, last] = seen.as_mut_slice()
            && last.after > stay.lasts
        {
            *last = Sample::between(before, last, stay.lasts);
        }
        if stay.place.air().c() > COLD_C {
            out += seen
                .windows(2)
                .filter(|w| w[1].warmest.c() > COLD_C)
                .map(|w| (w[1].after - w[0].after).s())
                .sum::<f64>();
        }
        let skip = usize::from(!curve.is_empty());
        curve.extend(seen.iter().skip(skip).map(|s| Sample { after: from + s.after, ..*s }));
        from = from + stay.lasts;
        ends.push(from);
    }
    Ok(Journey { curve, ends, out_of_the_cold: Span::new_s(out) })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::dough::FatKind;
    use crate::units::Length;

    fn dough() -> Composition {
        Composition::from_analysis(0.1457, 0.2018, 0.0575, 0.5799, 0.0035, 0.0116, FatKind::Butter).unwrap()
    }

    fn disc() -> Piece {
        Piece::Disc { thickness: Length::new_mm(22.0), diameter: Length::new_mm(180.0) }
    }

    fn stay(air_c: f64, film: f64, minutes: f64) -> Stay {
        Stay { place: Place::new(air_c, film).unwrap(), support: Support::Rack, lasts: Span::new_min(minutes) }
    }

    fn go(stays: &[Stay]) -> Journey {
        journey(&dough(), disc(), Wrap::Wrapped, Temperature::new_c(20.5), stays).unwrap()
    }

    #[test]
    fn one_stay_in_two_parts_is_the_same_stay() {
        let whole = go(&[stay(4.0, 7.0, 80.0)]);
        let parts = go(&[stay(4.0, 7.0, 33.0), stay(4.0, 7.0, 47.0)]);
        for minutes in [10.0, 33.0, 50.0, 80.0] {
            let (a, b) = (whole.at(Span::new_min(minutes)), parts.at(Span::new_min(minutes)));
            assert!((a.warmest.c() - b.warmest.c()).abs() < 0.05, "{minutes}: {a:?} {b:?}");
        }
        assert_eq!(parts.ends.len(), 2);
        assert!((parts.ends[1].min() - 80.0).abs() < 1e-9);
    }

    #[test]
    fn bench_fridge_bench_freezer_goes_the_way_bakers_know() {
        // 10 min on the bench, 40 in the fridge, 5 on the bench, 8 in the freezer.
        let j = go(&[stay(22.0, 9.0, 10.0), stay(4.0, 7.0, 40.0), stay(22.0, 9.0, 5.0), stay(-18.0, 8.0, 8.0)]);
        let at = |minutes| j.at(Span::new_min(minutes));
        assert!(at(10.0).mean.c() > 20.4, "the bench is as warm as the dough");
        assert!(at(50.0).mean.c() < at(10.0).mean.c() - 5.0);
        assert!(at(55.0).surface.c() > at(50.0).surface.c(), "on the bench the skin warms");
        assert!(at(63.0).surface.c() < at(55.0).surface.c() - 2.0, "the freezer takes the skin first");
        assert!((j.out_of_the_cold.min() - 15.0).abs() < 1.0, "{:?}", j.out_of_the_cold);
        assert!(j.curve.windows(2).all(|w| w[0].after <= w[1].after));
        assert!(!j.too_long_out());
    }

    #[test]
    fn more_than_two_hours_on_the_bench_is_told() {
        let j = go(&[stay(22.0, 9.0, 70.0), stay(4.0, 7.0, 60.0), stay(22.0, 9.0, 55.0)]);
        assert!(j.too_long_out() && (j.out_of_the_cold.min() - 125.0).abs() < 1.5, "{:?}", j.out_of_the_cold);
        // Frozen dough thawing in a cool room is not out of the cold until it is warm itself.
        let frozen =
            journey(&dough(), disc(), Wrap::Wrapped, Temperature::new_c(-18.0), &[stay(18.0, 9.0, 30.0)]).unwrap();
        assert!(frozen.out_of_the_cold.min() < 20.0, "{:?}", frozen.out_of_the_cold);
    }

    #[test]
    fn stays_that_are_none_are_named() {
        let bad = [stay(4.0, 7.0, 10.0), stay(4.0, 7.0, 0.0)];
        let errors = journey(&dough(), disc(), Wrap::Wrapped, Temperature::new_c(20.0), &bad).unwrap_err();
        assert_eq!(errors.all()[0].field(), "stays[1].minutes");
        assert!(journey(&dough(), disc(), Wrap::Wrapped, Temperature::new_c(20.0), &[]).is_err());
        let many = [stay(4.0, 7.0, 1.0); 21];
        assert!(journey(&dough(), disc(), Wrap::Wrapped, Temperature::new_c(20.0), &many).is_err());
    }
}
