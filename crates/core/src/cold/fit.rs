//! Readings of a thermometer teach a place: its film and its air are fitted by least squares with what is known of it
//! before as a prior, and the ready time and its range follow.

use super::piece::Support;
use super::report::{ChillQuestion, Place};
use super::solver::{Body, Sample};
use super::thermal::Thermal;
use crate::error::{Checks, InputErrors};
use crate::units::{Film, Span, Temperature, TemperatureDifference};

/// How far a stated range reaches to each side, in standard deviations: nine in ten.
pub const RANGE_SDS: f64 = 1.645;
/// The film is known to 25 % (a factor of 0.8 to 1.25) before any reading: nine in ten.
const FILM_LN_SD: f64 = 0.223 / RANGE_SDS;
/// A dial or a cheap thermometer tells a place's air to this, K, nine in ten. Common practice, no source.
const AIR_SD_K: f64 = 1.5 / RANGE_SDS;
/// What a probe pushed in by hand is off by, K: its own error and where its tip came to lie. Common practice, no source.
const READING_SD_K: f64 = 0.5;
/// A reading this far from what the others say is set aside, K.
const OUTLIER_K: f64 = 2.5;
/// The air is fitted too from this many readings on.
const READINGS_FOR_AIR: usize = 3;
const ITERATIONS: usize = 8;
const MOST_READINGS: usize = 5000;

/// Where a thermometer was held.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Spot {
    /// In the middle.
    Core,
    /// On the face.
    Surface,
}

/// One reading.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Reading {
    /// Since the piece was put where it is.
    pub after: Span,
    /// What was shown.
    pub shows: Temperature,
    /// Where.
    pub spot: Spot,
}

/// What is known of a place: mean and standard deviation.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PlaceKnowledge {
    /// Natural logarithm of what multiplies the assumed film.
    pub ln_film: (f64, f64),
    /// What the air is off by from what was said.
    pub air: (TemperatureDifference, TemperatureDifference),
}

impl Default for PlaceKnowledge {
    /// As much as anybody knows: a quarter of the film, a degree and a half of the air.
    fn default() -> Self {
        let k = TemperatureDifference::new_k;
        Self { ln_film: (0.0, FILM_LN_SD), air: (k(0.0), k(AIR_SD_K)) }
    }
}

impl PlaceKnowledge {
    /// What multiplies the assumed film: lower end, middle and upper end of the range that holds it nine times in ten.
    #[must_use]
    pub fn film_factor(&self) -> (f64, f64, f64) {
        let (mean, sd) = self.ln_film;
        ((mean - RANGE_SDS * sd).exp(), mean.exp(), (mean + RANGE_SDS * sd).exp())
    }

    /// A place as it is now thought to be.
    pub fn apply(&self, place: &Place) -> Result<Place, InputErrors> {
        Place::new(place.air().c() + self.air.0.k(), place.film().w_m2k() * self.film_factor().1)
    }
}

/// What came of the readings.
#[derive(Debug, Clone, PartialEq)]
pub struct Fit {
    /// What is known of the place now.
    pub place: PlaceKnowledge,
    /// Which readings were set aside, by their position.
    pub set_aside: Vec<usize>,
    /// How far the readings that count lie from the fitted run, root mean square.
    pub off: TemperatureDifference,
}

/// Fits film and, from three readings on, air of the place of a question.
///
/// Readings may come in any order; those before the start are refused, and so are values no dough has. One that no
/// place could bring together with the others is set aside, up to a quarter of them; it is not lost.
pub fn fit(question: &ChillQuestion, readings: &[Reading], before: &PlaceKnowledge) -> Result<Fit, InputErrors> {
    let mut checks = Checks::new();
    checks.limit("readings", readings.len(), MOST_READINGS, "readings");
    for (i, r) in readings.iter().enumerate() {
        checks.range(&format!("readings[{i}].after_min"), r.after.min(), 0.0, 7.0 * 24.0 * 60.0, "min");
        checks.range(&format!("readings[{i}].shows_c"), r.shows.c(), -40.0, 45.0, "\u{b0}C");
    }
    checks.finish(())?;
    let mut used: Vec<usize> = (0..readings.len()).collect();
    let mut set_aside = Vec::new();
    let chosen = |used: &[usize]| used.iter().map(|&i| readings[i]).collect::<Vec<_>>();
    let mut found = solve(question, &chosen(&used), before);
    while used.len() >= READINGS_FOR_AIR && set_aside.len() < readings.len() / 4 + usize::from(readings.len() == 3) {
        // The reading that is furthest off is looked at as the others see it.
        let off = residuals(question, &chosen(&used), &found.0);
        let worst = (0..used.len()).max_by(|&a, &b| off[a].abs().total_cmp(&off[b].abs())).expect("not empty");
        let others: Vec<usize> = used.iter().copied().filter(|&i| i != used[worst]).collect();
        let without = solve(question, &chosen(&others), before);
        let as_others_see_it = residuals(question, &[readings[used[worst]]], &without.0)[0];
        if as_others_see_it.abs() < OUTLIER_K {
            break;
        }
        set_aside.push(used[worst]);
        used = others;
        found = without;
    }
    set_aside.sort_unstable();
    Ok(Fit { place: found.0, set_aside, off: TemperatureDifference::new_k(found.1) })
}

/// Gauss-Newton on the logarithm of the film and the shift of the air.
fn solve(question: &ChillQuestion, readings: &[Reading], before: &PlaceKnowledge) -> (PlaceKnowledge, f64) {
    let with_air = readings.len() >= READINGS_FOR_AIR;
    let prior = [before.ln_film, (before.air.0.k(), before.air.1.k())];
    let n = if with_air { 2 } else { 1 };
    let mut x = [prior[0].0, prior[1].0];
    let know = |x: &[f64; 2], sd: [f64; 2]| PlaceKnowledge {
        ln_film: (x[0], sd[0]),
        air: (TemperatureDifference::new_k(x[1]), TemperatureDifference::new_k(sd[1])),
    };
    let at = |x: &[f64; 2]| residuals(question, readings, &know(x, [0.0, 0.0]));
    let mut information = [[1.0 / prior[0].1.powi(2), 0.0], [0.0, 1.0 / prior[1].1.powi(2)]];
    let weight = 1.0 / (READING_SD_K * READING_SD_K);
    for _ in 0..ITERATIONS {
        let off = at(&x);
        let steps = [0.02, 0.05];
        let slopes: Vec<Vec<f64>> = (0..n)
            .map(|p| {
                let mut moved = x;
                moved[p] += steps[p];
                at(&moved).iter().zip(&off).map(|(a, b)| (a - b) / steps[p]).collect()
            })
            .collect();
        information = [[1.0 / prior[0].1.powi(2), 0.0], [0.0, 1.0 / prior[1].1.powi(2)]];
        let mut pull = [(prior[0].0 - x[0]) * information[0][0], (prior[1].0 - x[1]) * information[1][1]];
        for p in 0..n {
            for q in 0..n {
                information[p][q] += weight * slopes[p].iter().zip(&slopes[q]).map(|(a, b)| a * b).sum::<f64>();
            }
            pull[p] -= weight * slopes[p].iter().zip(&off).map(|(s, r)| s * r).sum::<f64>();
        }
        let det = information[0][0] * information[1][1] - information[0][1] * information[1][0];
        let step = [
            (pull[0] * information[1][1] - pull[1] * information[0][1]) / det,
            (pull[1] * information[0][0] - pull[0] * information[1][0]) / det,
        ];
        x[0] = (x[0] + step[0].clamp(-0.5, 0.5)).clamp(-2.0, 2.0);
        x[1] = (x[1] + step[1].clamp(-3.0, 3.0)).clamp(-15.0, 15.0);
        if step[0].abs() < 1e-4 && step[1].abs() < 1e-3 {
            break;
        }
    }
    let det = information[0][0] * information[1][1] - information[0][1] * information[1][0];
    let sd = [(information[1][1] / det).sqrt(), (information[0][0] / det).sqrt()];
    let off = at(&x);
    #[expect(clippy::cast_precision_loss, reason = "readings are few")]
    let rms = (off.iter().map(|r| r * r).sum::<f64>() / off.len().max(1) as f64).sqrt();
    (know(&x, sd), rms)
}

/// What the run shows less what was read, K, reading by reading.
fn residuals(question: &ChillQuestion, readings: &[Reading], place: &PlaceKnowledge) -> Vec<f64> {
    let Some(longest) = readings.iter().map(|r| r.after.s()).max_by(f64::total_cmp) else { return vec![] };
    let curve = run(question, place, Span::new_s(longest + 1.0));
    readings.iter().map(|r| shown(&curve, question, r) - r.shows.c()).collect()
}

fn run(question: &ChillQuestion, place: &PlaceKnowledge, until: Span) -> Vec<Sample> {
    let air = Temperature::new_c(question.place.air().c() + place.air.0.k());
    let film = Film::new_w_m2k((question.place.film().w_m2k() * place.ln_film.0.exp()).clamp(0.5, 200.0));
    let thermal = Thermal::new(&question.composition, question.start, question.place.air());
    let alike = matches!(question.support, Support::Rack);
    Body::new(&thermal, question.piece, question.wrap, question.start, alike).leave(
        air,
        film,
        question.support,
        until,
        |s| s.after >= until,
    )
}

fn shown(curve: &[Sample], question: &ChillQuestion, reading: &Reading) -> f64 {
    let warming = question.place.air() > question.start;
    let value = |s: &Sample| match (reading.spot, warming) {
        (Spot::Surface, _) => s.surface.c(),
        (Spot::Core, false) => s.warmest.c(),
        (Spot::Core, true) => s.coldest.c(),
    };
    match curve.iter().position(|s| s.after >= reading.after) {
        None => value(&curve[curve.len() - 1]),
        Some(0) => value(&curve[0]),
        Some(i) => {
            let (a, b) = (&curve[i - 1], &curve[i]);
            let along = (reading.after - a.after) / (b.after - a.after);
            value(a) + along * (value(b) - value(a))
        }
    }
}

#[cfg(test)]
mod tests {
    use super::super::{Piece, Target, Wrap};
    use super::*;
    use crate::dough::{Composition, FatKind};
    use crate::units::Length;

    fn question(piece: Piece) -> ChillQuestion {
        let a = Composition::from_analysis(0.1287, 0.1666, 0.0642, 0.6223, 0.0038, 0.0144, FatKind::Butter).unwrap();
        let place = Place::new(4.0, 7.0).unwrap();
        ChillQuestion::new(a, piece, Wrap::Open, Support::Rack, 21.0, place, Target::Rolling).unwrap()
    }

    fn sheet() -> ChillQuestion {
        question(Piece::Sheet { thickness: Length::new_mm(12.0) })
    }

    /// Seeded numbers: splitmix64, and a normal deviate of twelve of them (Irwin and Hall).
    struct Chance(u64);

    impl Chance {
        fn uniform(&mut self) -> f64 {
            self.0 = self.0.wrapping_add(0x9e37_79b9_7f4a_7c15);
            let mut z = self.0;
            z = (z ^ (z >> 30)).wrapping_mul(0xbf58_476d_1ce4_e5b9);
            z = (z ^ (z >> 27)).wrapping_mul(0x94d0_49bb_1331_11eb);
            f64::from(u32::try_from((z ^ (z >> 31)) >> 32).unwrap()) / f64::from(u32::MAX)
        }

        fn normal(&mut self) -> f64 {
            (0..12).map(|_| self.uniform()).sum::<f64>() - 6.0
        }
    }

    fn true_place(ln_film: f64, air_k: f64) -> PlaceKnowledge {
        let k = TemperatureDifference::new_k;
        PlaceKnowledge { ln_film: (ln_film, 0.0), air: (k(air_k), k(0.0)) }
    }

    /// Readings every five minutes of a piece in a place that is not as assumed.
    fn readings(
        q: &ChillQuestion,
        place: &PlaceKnowledge,
        count: u32,
        noise_k: f64,
        chance: &mut Chance,
    ) -> Vec<Reading> {
        let curve = run(q, place, Span::new_min(5.0 * f64::from(count) + 1.0));
        (1..=count)
            .map(|i| {
                let blank = Reading {
                    after: Span::new_min(5.0 * f64::from(i)),
                    shows: Temperature::new_c(0.0),
                    spot: Spot::Core,
                };
                Reading { shows: Temperature::new_c(shown(&curve, q, &blank) + noise_k * chance.normal()), ..blank }
            })
            .collect()
    }

    #[test]
    fn without_readings_nothing_is_learnt() {
        let before = PlaceKnowledge::default();
        let f = fit(&sheet(), &[], &before).unwrap();
        assert_eq!(f.place, before);
        let (low, middle, high) = before.film_factor();
        assert!((low - 0.8).abs() < 0.001 && middle == 1.0 && (high - 1.25).abs() < 0.001);
    }

    #[test]
    fn exact_readings_find_the_place_whatever_their_order() {
        let q = sheet();
        let mut seen = readings(&q, &true_place(0.20, 0.8), 14, 0.0, &mut Chance(1));
        let in_order = fit(&q, &seen, &PlaceKnowledge::default()).unwrap();
        // Film and air pull the same way, so each alone is found within its stated range; together they meet the readings.
        let (film, air) = (in_order.place.ln_film, in_order.place.air);
        assert!((film.0 - 0.20).abs() < RANGE_SDS * film.1 && film.0 > 0.08, "{in_order:?}");
        assert!((air.0.k() - 0.8).abs() < RANGE_SDS * air.1.k(), "{in_order:?}");
        seen.reverse();
        let reversed = fit(&q, &seen, &PlaceKnowledge::default()).unwrap();
        assert!((reversed.place.ln_film.0 - in_order.place.ln_film.0).abs() < 1e-6);
        assert!(in_order.set_aside.is_empty() && in_order.off.k() < 0.2);
    }

    #[test]
    fn each_reading_narrows_the_range() {
        let q = sheet();
        let all = readings(&q, &true_place(-0.1, 0.3), 12, 0.0, &mut Chance(2));
        let width = |n: usize| fit(&q, &all[..n], &PlaceKnowledge::default()).unwrap().place.ln_film.1;
        // From the third reading on the air is fitted too, which first widens what is said of the film.
        assert!(width(1) < FILM_LN_SD && width(2) < width(1) && width(6) < width(3) && width(12) < width(6));
    }

    #[test]
    fn two_hundred_noisy_probes_lie_within_their_stated_range_nine_times_in_ten() {
        let q = sheet();
        let mut chance = Chance(20_261_125);
        let (mut film, mut air) = (0, 0);
        for _ in 0..200 {
            let truth = true_place(FILM_LN_SD * chance.normal(), AIR_SD_K * chance.normal());
            let seen = readings(&q, &truth, 10, READING_SD_K, &mut chance);
            let f = fit(&q, &seen, &PlaceKnowledge::default()).unwrap().place;
            let within = |(mean, sd): (f64, f64), truth: f64| (mean - truth).abs() <= RANGE_SDS * sd;
            film += u32::from(within(f.ln_film, truth.ln_film.0));
            air += u32::from(within((f.air.0.k(), f.air.1.k()), truth.air.0.k()));
        }
        // Nine in ten is 180; a fair count of 200 lies within 171 to 189 nineteen times in twenty.
        assert!(film >= 172 && air >= 172, "film {film}, air {air} of 200");
    }

    #[test]
    fn a_reading_in_the_wrong_unit_is_set_aside_and_said() {
        let q = sheet();
        let mut seen = readings(&q, &true_place(0.1, 0.0), 8, 0.2, &mut Chance(3));
        let clean = fit(&q, &seen, &PlaceKnowledge::default()).unwrap();
        assert!(clean.set_aside.is_empty(), "{clean:?}");
        seen[4].shows = Temperature::new_c(39.0);
        let dirty = fit(&q, &seen, &PlaceKnowledge::default()).unwrap();
        assert_eq!(dirty.set_aside, [4]);
        assert!((dirty.place.ln_film.0 - clean.place.ln_film.0).abs() < 0.05, "{dirty:?} {clean:?}");
    }

    #[test]
    fn readings_no_dough_gives_are_refused_by_name() {
        let bad = Reading { after: Span::new_min(-3.0), shows: Temperature::new_c(68.0), spot: Spot::Core };
        let errors = fit(&sheet(), &[bad], &PlaceKnowledge::default()).unwrap_err();
        let fields: Vec<_> = errors.all().iter().map(crate::error::InputError::field).collect();
        assert_eq!(fields, ["readings[0].after_min", "readings[0].shows_c"]);
    }

    #[test]
    fn a_disc_read_at_its_face_teaches_too() {
        let q = question(Piece::Disc { thickness: Length::new_mm(22.0), diameter: Length::new_mm(180.0) });
        let truth = true_place(0.25, -0.5);
        let curve = run(&q, &truth, Span::new_min(61.0));
        let seen: Vec<Reading> = [10.0, 25.0, 40.0, 60.0]
            .map(|m| {
                let blank = Reading { after: Span::new_min(m), shows: Temperature::new_c(0.0), spot: Spot::Surface };
                Reading { shows: Temperature::new_c(shown(&curve, &q, &blank)), ..blank }
            })
            .to_vec();
        let f = fit(&q, &seen, &PlaceKnowledge::default()).unwrap();
        assert!((f.place.ln_film.0 - 0.25).abs() < 0.12, "{f:?}");
        let place = f.place.apply(&q.place).unwrap();
        assert!(place.film().w_m2k() > 7.5, "{place:?}");
    }
}
