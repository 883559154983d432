//! Test of record: runs of FiPy 4.0.3 (an open finite-volume solver from PyPI) with properties written anew, kept as a table by
//! `record/fipy_cold.py`. Nothing of the core is in them.

use ready_slab_core::cold::{Body, Piece, Support, Thermal, Wrap};
use ready_slab_core::dough::{Composition, FatKind};
use ready_slab_core::units::{Film, Length, Span, Temperature};
use rstest::rstest;

const TABLE: &str = include_str!("record/fipy_cold.csv");

/// Minutes of FiPy for a case.
fn recorded(case: &str) -> Vec<f64> {
    let line = TABLE.lines().find_map(|l| l.strip_prefix(case)?.strip_prefix(',')).expect("the case is in the table");
    line.split(',').map(|m| m.parse().expect("minutes")).collect()
}

/// Water, fat, protein, carbohydrate, ash, fibre of butter doughs.
fn dough(x: [f64; 6]) -> Composition {
    Composition::from_analysis(x[0], x[1], x[2], x[3], x[4], x[5], FatKind::Butter).unwrap()
}

const A: [f64; 6] = [0.1287, 0.1666, 0.0642, 0.6223, 0.0038, 0.0144];
const B: [f64; 6] = [0.1457, 0.2018, 0.0575, 0.5799, 0.0035, 0.0116];

fn mm(v: f64) -> Length {
    Length::new_mm(v)
}

#[rstest]
#[case("A sheet 6", A, Piece::Sheet { thickness: mm(6.0) }, Wrap::Open, [21.0, 4.0, 7.0], [16.0, 12.0, 8.0])]
#[case("B disc 22 x 180 wrapped", B, Piece::Disc { thickness: mm(22.0), diameter: mm(180.0) }, Wrap::Wrapped, [20.5, 4.0, 7.0], [16.0, 12.0, 8.0])]
#[case("A log 50", A, Piece::Log { diameter: mm(50.0) }, Wrap::Open, [21.0, 4.0, 7.0], [12.0, 8.0, 6.0])]
#[case("B bar 60 x 35", B, Piece::Bar { width: mm(60.0), height: mm(35.0) }, Wrap::Open, [22.0, 2.0, 14.0], [12.0, 8.0, 4.0])]
#[case("A sphere 40", A, Piece::Sphere { diameter: mm(40.0) }, Wrap::Open, [21.0, 4.0, 7.0], [16.0, 12.0, 8.0])]
fn a_run_meets_fipy_within_two_percent_or_half_a_minute(
    #[case] case: &str,
    #[case] composition: [f64; 6],
    #[case] piece: Piece,
    #[case] wrap: Wrap,
    #[case] start_air_film: [f64; 3],
    #[case] core_c: [f64; 3],
) {
    let [start_c, air_c, film_w_m2k] = start_air_film;
    let (start, air) = (Temperature::new_c(start_c), Temperature::new_c(air_c));
    let thermal = Thermal::new(&dough(composition), start, air);
    let mut body = Body::new(&thermal, piece, wrap, start, true);
    let samples = body.leave(air, Film::new_w_m2k(film_w_m2k), Support::Rack, Span::new_min(400.0), |_| false);
    for (wanted_c, fipy_min) in core_c.into_iter().zip(recorded(case)) {
        let i = samples.iter().position(|s| s.warmest.c() <= wanted_c).expect("the run gets there");
        let (p, q) = (&samples[i - 1], &samples[i]);
        let share = (p.warmest.c() - wanted_c) / (p.warmest - q.warmest).k();
        let ours_min = p.after.min() + (q.after - p.after).min() * share;
        let allowed_min = (0.02 * fipy_min).max(0.5);
        assert!(
            (ours_min - fipy_min).abs() <= allowed_min,
            "{case} to {wanted_c}: {ours_min:.2} min, FiPy {fipy_min} min"
        );
    }
}
