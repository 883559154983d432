//! The solver against runs of an independent, converged solver, and against textbook series.
#![allow(clippy::too_many_arguments, reason = "the columns of reference tables")]

use ready_slab_core::cold::{Body, Piece, Sample, Support, Thermal, TrayKind, Wrap};
use ready_slab_core::dough::{Composition, FatKind};
use ready_slab_core::units::{Density, Film, Length, Span, Temperature};
use rstest::rstest;

fn a() -> Composition {
    Composition::from_analysis(0.1287, 0.1666, 0.0642, 0.6223, 0.0038, 0.0144, FatKind::Butter).unwrap()
}

fn b() -> Composition {
    Composition::from_analysis(0.1457, 0.2018, 0.0575, 0.5799, 0.0035, 0.0116, FatKind::Butter).unwrap()
}

fn mm(v: f64) -> Length {
    Length::new_mm(v)
}

fn sheet() -> Piece {
    Piece::Sheet { thickness: mm(6.0) }
}

fn tray(start_c: f64) -> Support {
    Support::Tray { kind: TrayKind::Aluminium, start: Temperature::new_c(start_c) }
}

struct Run {
    composition: Composition,
    piece: Piece,
    wrap: Wrap,
    support: Support,
    start_c: f64,
    air_c: f64,
    film: f64,
}

impl Run {
    fn samples(&self, refine: usize) -> Vec<Sample> {
        let thermal = Thermal::new(&self.composition, Temperature::new_c(self.start_c), Temperature::new_c(self.air_c));
        let alike = matches!(self.support, Support::Rack);
        let mut body = Body::refined(&thermal, self.piece, self.wrap, Temperature::new_c(self.start_c), alike, refine);
        body.leave(
            Temperature::new_c(self.air_c),
            Film::new_w_m2k(self.film),
            self.support,
            Span::new_min(400.0),
            |_| false,
        )
    }

    /// Minutes until `value` passes `limit`, in the direction the run goes.
    fn minutes(&self, samples: &[Sample], core: bool, limit: f64) -> f64 {
        let sign = if self.air_c > self.start_c { -1.0 } else { 1.0 };
        let value = |s: &Sample| match (core, sign > 0.0) {
            (false, _) => sign * s.mean.c(),
            (true, true) => s.warmest.c(),
            (true, false) => -s.coldest.c(),
        };
        let limit = sign * limit;
        let i = samples.iter().position(|s| value(s) <= limit).expect("the run reaches it");
        let (p, q) = (&samples[i - 1], &samples[i]);
        p.after.min() + (q.after.min() - p.after.min()) * (value(p) - limit) / (value(p) - value(q))
    }
}

fn close(got: f64, wanted: f64) {
    let allowed = (wanted * 0.02).max(0.5);
    assert!((got - wanted).abs() <= allowed, "{got:.2} min against {wanted} min, {allowed:.2} allowed");
}

// Reference runs of an independent solver, converged; water treated as unfrozen. Each within 2 % or half a minute.
#[rstest]
#[case::sheet_open(a(), sheet(), Wrap::Open, Support::Rack, 21.0, 4.0, 7.0, &[(16.0, 8.3, 8.0), (12.0, 17.3, 17.0), (8.0, 32.2, 31.8)])]
#[case::sheet_on_warm_tray(a(), sheet(), Wrap::Open, tray(21.0), 21.0, 4.0, 7.0, &[(16.0, 9.7, 9.3), (12.0, 20.2, 19.8), (8.0, 37.3, 37.0)])]
#[case::sheet_on_cold_tray(a(), sheet(), Wrap::Open, tray(4.0), 21.0, 4.0, 7.0, &[(16.0, 6.7, 6.3), (12.0, 17.2, 16.8), (8.0, 34.2, 33.8)])]
#[case::sheet_in_freezer(a(), sheet(), Wrap::Open, tray(21.0), 21.0, -18.0, 8.0, &[(12.0, 6.7, 6.2), (8.0, 9.7, 9.3), (0.0, 17.3, 17.0)])]
#[case::four_sheets_stacked(a(), Piece::Stack { thickness: mm(6.0), count: 4 }, Wrap::Open, Support::Rack, 21.0, 4.0, 7.0, &[(16.0, 39.3, 34.0), (12.0, 79.0, 73.8), (8.0, 143.3, 138.5)])]
#[case::disc_in_film(b(), Piece::Disc { thickness: mm(22.0), diameter: mm(180.0) }, Wrap::Wrapped, Support::Rack, 20.5, 4.0, 7.0, &[(16.0, 36.0, 25.8), (12.0, 76.0, 59.2), (8.0, 138.2, 114.2)])]
#[case::ball(a(), Piece::Ball { diameter: mm(100.0) }, Wrap::Open, Support::Rack, 21.0, 4.0, 7.0, &[(16.0, 125.5, 53.8), (12.0, 199.5, 123.2), (8.0, 313.0, 240.0)])]
#[case::log_in_fridge(a(), Piece::Log { diameter: mm(50.0) }, Wrap::Open, Support::Rack, 21.0, 4.0, 7.0, &[(12.0, 98.5, 81.2), (8.0, 169.3, 153.2), (6.0, 239.0, 222.8)])]
#[case::log_in_freezer(a(), Piece::Log { diameter: mm(50.0) }, Wrap::Open, Support::Rack, 21.0, -18.0, 8.0, &[(8.0, 54.5, 37.8), (4.0, 69.3, 53.0), (0.0, 87.0, 70.8)])]
#[case::bar_in_fan_fridge(b(), Piece::Bar { width: mm(60.0), height: mm(35.0) }, Wrap::Open, Support::Rack, 22.0, 2.0, 14.0, &[(12.0, 57.3, 39.0), (8.0, 86.0, 68.5), (4.0, 146.0, 128.7)])]
fn a_run_meets_the_independent_solver(
    #[case] composition: Composition,
    #[case] piece: Piece,
    #[case] wrap: Wrap,
    #[case] support: Support,
    #[case] start_c: f64,
    #[case] air_c: f64,
    #[case] film: f64,
    #[case] expected: &[(f64, f64, f64)],
) {
    let run = Run { composition, piece, wrap, support, start_c, air_c, film };
    let samples = run.samples(1);
    let fine = run.samples(2);
    for &(limit, core, mean) in expected {
        close(run.minutes(&samples, true, limit), core);
        close(run.minutes(&samples, false, limit), mean);
        let (coarse, refined) = (run.minutes(&samples, true, limit), run.minutes(&fine, true, limit));
        assert!((coarse / refined - 1.0).abs() < 0.005, "halving grid and step moves {coarse:.3} to {refined:.3}");
    }
}

#[rstest]
#[case::both_faces(8.0, Support::Rack, 22.0, &[(14.0, 9.7), (16.0, 14.8), (17.5, 20.0)])]
#[case::on_the_bench(11.0, Support::Bench { bench: Temperature::new_c(23.0) }, 23.0, &[(14.0, 2.2), (16.0, 4.2), (17.5, 6.0)])]
fn a_warming_run_meets_the_independent_solver(
    #[case] start_c: f64,
    #[case] support: Support,
    #[case] air_c: f64,
    #[case] expected: &[(f64, f64)],
) {
    let run = Run { composition: a(), piece: sheet(), wrap: Wrap::Open, support, start_c, air_c, film: 9.0 };
    let samples = run.samples(1);
    for &(limit, mean) in expected {
        close(run.minutes(&samples, false, limit), mean);
    }
}

/// One-term series, centre temperature share theta = C exp(-zeta^2 Fo); Incropera and DeWitt, Table 5.1.
#[rstest]
#[case::wall_bi_01(0.1, 0.3111, 1.0161)]
#[case::wall_bi_1(1.0, 0.8603, 1.1191)]
#[case::wall_bi_10(10.0, 1.4289, 1.2620)]
fn a_plane_wall_follows_the_one_term_series(#[case] biot: f64, #[case] zeta: f64, #[case] c1: f64) {
    let (k, rho, cp, half) = (0.25, 1200.0, 2500.0, 0.010);
    series(Piece::Sheet { thickness: mm(2000.0 * half) }, biot * k / half, k, rho, cp, half, zeta, c1);
}

#[test]
fn a_long_cylinder_follows_the_one_term_series() {
    let (k, rho, cp, radius) = (0.25, 1200.0, 2500.0, 0.025);
    series(Piece::Log { diameter: mm(2000.0 * radius) }, k / radius, k, rho, cp, radius, 1.2558, 1.2071);
}

/// Incropera and DeWitt, Table 5.1, sphere: Bi = h r / k.
#[rstest]
#[case::bi_01(0.1, 0.5423, 1.0298)]
#[case::bi_1(1.0, std::f64::consts::FRAC_PI_2, 1.2732)]
#[case::bi_10(10.0, 2.8363, 1.9249)]
fn a_sphere_follows_the_one_term_series(#[case] biot: f64, #[case] zeta: f64, #[case] c1: f64) {
    let (k, rho, cp, radius) = (0.25, 1200.0, 2500.0, 0.020);
    series(Piece::Sphere { diameter: mm(2000.0 * radius) }, biot * k / radius, k, rho, cp, radius, zeta, c1);
}

/// A ball is taken as a cylinder as high as wide: its middle follows the product of the wall's and the cylinder's series
/// (Incropera and DeWitt, section 5.8), here at Bi 1 for both.
#[test]
fn a_ball_follows_the_product_of_wall_and_cylinder() {
    let (k, rho, cp, radius) = (0.25, 1200.0, 2500.0, 0.040);
    let thermal = Thermal::constant(Density::new_kg_m3(rho), cp, k);
    let ball = Piece::Ball { diameter: mm(2000.0 * radius) };
    let mut body = Body::new(&thermal, ball, Wrap::Open, Temperature::new_c(20.0), true);
    let per_fo = rho * cp * radius * radius / k;
    let film = Film::new_w_m2k(k / radius);
    let samples = body.leave(Temperature::new_c(0.0), film, Support::Rack, Span::new_s(per_fo * 1.2), |_| false);
    for fo in [0.3, 0.5, 1.0] {
        let seen = samples.iter().find(|s| s.after.s() >= fo * per_fo).unwrap();
        let fo = seen.after.s() / per_fo;
        let wall = 1.1191 * (-0.8603_f64.powi(2) * fo).exp();
        let cylinder = 1.2071 * (-1.2558_f64.powi(2) * fo).exp();
        assert!((seen.warmest.c() - 20.0 * wall * cylinder).abs() < 0.3, "Fo {fo}: {seen:?}");
    }
}

fn series(piece: Piece, film: f64, k: f64, rho: f64, cp: f64, length_m: f64, zeta: f64, c1: f64) {
    let thermal = Thermal::constant(Density::new_kg_m3(rho), cp, k);
    let mut body = Body::new(&thermal, piece, Wrap::Open, Temperature::new_c(20.0), true);
    let per_fo = rho * cp * length_m * length_m / k;
    let samples =
        body.leave(Temperature::new_c(0.0), Film::new_w_m2k(film), Support::Rack, Span::new_s(per_fo * 2.0), |_| false);
    for fo in [0.3, 0.5, 1.0, 1.9] {
        let seen = samples.iter().find(|s| s.after.s() >= fo * per_fo).unwrap();
        let theta = c1 * (-zeta * zeta * seen.after.s() / per_fo).exp();
        let wanted = 20.0 * theta;
        assert!((seen.warmest.c() - wanted).abs() < 0.3, "Fo {fo}: {:?} against {wanted:.2}", seen.warmest);
    }
}

#[test]
fn a_thin_slab_cools_as_a_lump() {
    // Lumped solution at Bi 0.01: theta = exp(-2 h t / (rho c L)); textbook.
    let thermal = Thermal::constant(Density::new_kg_m3(1200.0), 2500.0, 1.5);
    let mut body = Body::new(&thermal, Piece::Sheet { thickness: mm(6.0) }, Wrap::Open, Temperature::new_c(20.0), true);
    let samples =
        body.leave(Temperature::new_c(0.0), Film::new_w_m2k(5.0), Support::Rack, Span::new_min(40.0), |_| false);
    for s in samples.iter().step_by(25) {
        let wanted = 20.0 * (-2.0 * 5.0 * s.after.s() / (1200.0 * 2500.0 * 0.006)).exp();
        assert!((s.mean.c() - wanted).abs() < 0.1, "{s:?} against {wanted:.2}");
    }
}

#[test]
fn a_thicker_sheet_or_warmer_air_or_thinner_film_takes_longer() {
    let time = |thickness: f64, air_c: f64, film: f64| {
        let run = Run {
            composition: b(),
            piece: Piece::Sheet { thickness: mm(thickness) },
            wrap: Wrap::Open,
            support: Support::Rack,
            start_c: 21.0,
            air_c,
            film,
        };
        run.minutes(&run.samples(1), true, 12.0)
    };
    let base = time(6.0, 4.0, 7.0);
    assert!(time(8.0, 4.0, 7.0) > base && time(6.0, 6.0, 7.0) > base && time(6.0, 4.0, 5.0) > base);
}

#[test]
fn the_trades_own_times_fall_out() {
    // Common practice, no source: a 50 mm log slices after 3-4 h in the fridge or about 1 h in the freezer; cut pieces
    // are firm after 10-15 min in the fridge on a cold tray, or 5-10 min in the freezer.
    let log = |air_c: f64, film: f64| Run {
        composition: a(),
        piece: Piece::Log { diameter: mm(50.0) },
        wrap: Wrap::Wrapped,
        support: Support::Rack,
        start_c: 21.0,
        air_c,
        film,
    };
    let fridge = log(4.0, 7.0);
    let cold_through = fridge.minutes(&fridge.samples(1), true, 7.0);
    assert!((180.0..250.0).contains(&cold_through), "{cold_through}");
    let freezer = log(-18.0, 8.0);
    let sliceable = freezer.minutes(&freezer.samples(1), true, 11.3);
    assert!((45.0..75.0).contains(&sliceable), "{sliceable}");
    let pieces = |air_c: f64, film: f64| Run {
        composition: a(),
        piece: sheet(),
        wrap: Wrap::Open,
        support: tray(air_c),
        start_c: 17.0,
        air_c,
        film,
    };
    let (cool, frozen) = (pieces(4.0, 7.0), pieces(-18.0, 8.0));
    let in_fridge = cool.minutes(&cool.samples(1), true, 12.0);
    assert!((8.0..15.0).contains(&in_fridge), "{in_fridge}");
    let in_freezer = frozen.minutes(&frozen.samples(1), true, 4.0);
    assert!((4.0..10.0).contains(&in_freezer), "{in_freezer}");
}

#[test]
fn no_heat_is_lost_between_dough_and_tray() {
    // Heat balance by hand: with next to no film, dough and tray settle at (m c T + C T') / (m c + C).
    let (rho, cp, thickness_m) = (1200.0, 2500.0, 0.006);
    let thermal = Thermal::constant(Density::new_kg_m3(rho), cp, 0.25);
    let mut body =
        Body::new(&thermal, Piece::Sheet { thickness: mm(6.0) }, Wrap::Open, Temperature::new_c(21.0), false);
    let samples =
        body.leave(Temperature::new_c(21.0), Film::new_w_m2k(1e-6), tray(4.0), Span::new_min(120.0), |_| false);
    let (dough, metal) = (rho * cp * thickness_m, TrayKind::Aluminium.heat_j_m2k());
    let settled = (dough * 21.0 + metal * 4.0) / (dough + metal);
    let last = samples.last().unwrap();
    assert!((last.mean.c() - settled).abs() < 0.001 * (21.0 - 4.0), "{:?} against {settled:.3}", last.mean);
    assert!((last.warmest - last.coldest).k() < 0.01);
}

#[rstest]
#[case::disc(Piece::Disc { thickness: mm(22.0), diameter: mm(180.0) })]
#[case::log(Piece::Log { diameter: mm(50.0) })]
#[case::bar(Piece::Bar { width: mm(60.0), height: mm(35.0) })]
#[case::sheet(Piece::Sheet { thickness: mm(6.0) })]
fn temperatures_never_overshoot_the_air_or_rise_again(#[case] piece: Piece) {
    let run = Run {
        composition: b(),
        piece,
        wrap: Wrap::Wrapped,
        support: Support::Rack,
        start_c: 22.0,
        air_c: 3.0,
        film: 14.0,
    };
    let samples = run.samples(1);
    for pair in samples.windows(2) {
        assert!(
            pair[1].warmest <= pair[0].warmest && pair[1].mean <= pair[0].mean && pair[1].coldest <= pair[0].coldest
        );
        assert!(pair[1].coldest.c() >= 3.0 - 1e-9);
        assert!(pair[1].coldest <= pair[1].mean && pair[1].mean <= pair[1].warmest);
    }
    assert!((samples.last().unwrap().mean.c() - 3.0).abs() < 1.0);
}

#[test]
fn a_disc_on_its_faces_alone_is_a_sheet_and_a_long_log_is_a_bar_of_its_kind() {
    // A disc as wide as can be chills in its middle as a sheet of its thickness does.
    let minutes = |piece| {
        let run = Run {
            composition: a(),
            piece,
            wrap: Wrap::Open,
            support: Support::Rack,
            start_c: 21.0,
            air_c: 4.0,
            film: 7.0,
        };
        run.minutes(&run.samples(1), true, 12.0)
    };
    let disc = minutes(Piece::Disc { thickness: mm(12.0), diameter: mm(600.0) });
    let sheet = minutes(Piece::Sheet { thickness: mm(12.0) });
    assert!((disc / sheet - 1.0).abs() < 0.01, "{disc} against {sheet}");
    let stack = minutes(Piece::Stack { thickness: mm(6.0), count: 2 });
    assert!((stack / sheet - 1.0).abs() < 1e-9);
    // A square bar has a larger section than the round log inside it, and takes longer.
    assert!(minutes(Piece::Bar { width: mm(50.0), height: mm(50.0) }) > minutes(Piece::Log { diameter: mm(50.0) }));
}

/// Minutes until the warmest point of a butter dough is as cold, and until it is as firm, as a temperature: an independent prototype of fat that sets
/// later than it cools (docs/cold.md), dough of 20 % fat. Common practice, no source: a thin sheet takes 10 to 15 min in the fridge, 5 to 10 in the
/// freezer, where temperature alone says half of that.
#[rstest]
#[case("6 mm sheet on a tray, fridge", Piece::Sheet { thickness: mm(6.0) }, 22.0, Some(22.0), (4.0, 7.0), 17.7, (7.8, 12.5))]
#[case("6 mm sheet on a tray, freezer", Piece::Sheet { thickness: mm(6.0) }, 22.0, Some(22.0), (-18.0, 8.0), 17.7, (3.2, 6.3))]
#[case("cut 6 mm pieces, fridge", Piece::Sheet { thickness: mm(6.0) }, 19.0, Some(20.0), (4.0, 7.0), 12.0, (17.6, 20.3))]
#[case("cut 6 mm pieces, freezer", Piece::Sheet { thickness: mm(6.0) }, 19.0, Some(20.0), (-18.0, 8.0), 12.0, (5.6, 7.9))]
#[case("cut 3 mm pieces, freezer", Piece::Sheet { thickness: mm(3.0) }, 19.0, Some(20.0), (-18.0, 8.0), 12.0, (3.0, 5.1))]
#[case("disc in film, fridge", Piece::Disc { thickness: mm(22.0), diameter: mm(180.0) }, 22.0, None, (4.0, 7.0), 17.7, (29.0, 36.4))]
#[case("disc in film, freezer", Piece::Disc { thickness: mm(22.0), diameter: mm(180.0) }, 22.0, None, (-18.0, 8.0), 17.7, (13.0, 19.0))]
#[case("log, fridge", Piece::Log { diameter: mm(50.0) }, 21.0, None, (4.0, 7.0), 11.3, (118.0, 119.3))]
#[case("log, freezer", Piece::Log { diameter: mm(50.0) }, 21.0, None, (-18.0, 8.0), 11.3, (47.0, 49.3))]
fn fat_sets_later_than_the_dough_cools(
    #[case] what: &str,
    #[case] piece: Piece,
    #[case] start: f64,
    #[case] tray: Option<f64>,
    #[case] place: (f64, f64),
    #[case] to: f64,
    #[case] wanted: (f64, f64),
) {
    let dough = Composition::from_analysis(0.1457, 0.2018, 0.0575, 0.5799, 0.0035, 0.0116, FatKind::Butter).unwrap();
    let thermal = Thermal::new(&dough, Temperature::new_c(start), Temperature::new_c(place.0));
    let (support, wrap) = match tray {
        Some(c) => (Support::Tray { kind: TrayKind::Aluminium, start: Temperature::new_c(c) }, Wrap::Open),
        None => (Support::Rack, Wrap::Wrapped),
    };
    let mut body = Body::new(&thermal, piece, wrap, Temperature::new_c(start), tray.is_none());
    let (air, film) = (Temperature::new_c(place.0), Film::new_w_m2k(place.1));
    let curve = body.leave(air, film, support, Span::new_min(240.0), |s| s.softest.c() <= to);
    let first = |of: fn(&Sample) -> f64| curve.iter().find(|s| of(s) <= to).unwrap().after.min();
    let (cold, firm) = (first(|s| s.warmest.c()), first(|s| s.softest.c()));
    // The prototype's own starts were rounded: a tenth, or a minute and a half.
    assert!((cold - wanted.0).abs() < (0.10 * wanted.0).max(1.5), "{what}: cold after {cold}");
    assert!((firm - wanted.1).abs() < (0.10 * wanted.1).max(1.5), "{what}: firm after {firm}");
}
