//! Constants against their integrals and published limits; charts and components against made-up trays whose truth is known.

use super::*;
use rand::SeedableRng as _;
use rand_distr::{Distribution as _, Normal};
use rand_pcg::Pcg64;

/// Mean and deviation of the range of n values, by their integrals: E R = int 1 - F^n - (1 - F)^n, and
/// E R^2 = 2 int int_{x<y} 1 - F(y)^n - (1 - F(x))^n + (F(y) - F(x))^n (Tippett 1925).
fn by_integrals(n: usize) -> (f64, f64) {
    let power = i32::try_from(n).unwrap();
    let step = 0.02;
    let grid: Vec<f64> = (-325..=325).map(|i| below(f64::from(i) * step)).collect();
    let first: f64 = grid.iter().map(|f| 1.0 - f.powi(power) - (1.0 - f).powi(power)).sum::<f64>() * step;
    let mut second = 0.0;
    for (i, x) in grid.iter().enumerate() {
        for (j, y) in grid.iter().enumerate().skip(i) {
            let weight = if i == j { 0.5 } else { 1.0 };
            second += weight * (1.0 - y.powi(power) - (1.0 - x).powi(power) + (y - x).powi(power));
        }
    }
    (first, (2.0 * second * step * step - first * first).sqrt())
}

#[test]
fn the_constants_of_the_tables_are_their_integrals() {
    for n in [2, 3, 4, 5, 7, 10, 15, 20, 25] {
        let ((d2, d3), (first, second)) = (of_range(n), by_integrals(n));
        assert!((d2 - first).abs() < 0.002 && (d3 - second).abs() < 0.003, "{n}: {d2} {first}, {d3} {second}");
    }
}

/// A2, D3 and D4 as they are published (ASTM E2587, ISO 7870-2: from memory): limits of means and ranges in mean ranges.
#[test]
fn limits_are_those_of_the_published_factors() {
    for (n, a2, low, high) in [
        (2, 1.880, 0.0, 3.267),
        (3, 1.023, 0.0, 2.575),
        (4, 0.729, 0.0, 2.282),
        (5, 0.577, 0.0, 2.114),
        (6, 0.483, 0.0, 2.004),
        (8, 0.373, 0.136, 1.864),
        (10, 0.308, 0.223, 1.777),
        (15, 0.223, 0.347, 1.653),
        (25, 0.153, 0.459, 1.541),
    ] {
        // Trays whose pieces lie 1 mm apart from end to end, about the same mean.
        let pieces = |shift: f64| {
            (0..n)
                .map(|i| {
                    mm(65.0
                        + shift
                        + if i == 0 {
                            -0.5
                        } else if i == 1 {
                            0.5
                        } else {
                            0.0
                        })
                })
                .collect()
        };
        let trays: Vec<MeasuredTray> = (0..4).map(|day| MeasuredTray { day, pieces: pieces(0.0) }).collect();
        let found = control_charts(&trays).unwrap();
        let (mean, range) = (found.means[0], found.ranges[0]);
        assert!((mean.high.mm() - 65.0 - a2).abs() < 0.0015, "{n}: {mean:?}");
        assert!((range.low.mm() - low).abs() < 0.004 && (range.high.mm() - high).abs() < 0.004, "{n}: {range:?}");
    }
}

#[test]
fn what_is_no_chance_is_marked_by_the_rule_that_it_breaks() {
    let at = |z: &[f64]| signals(z).last().copied().unwrap();
    assert_eq!(at(&[0.1, -0.5, 3.2]), Some(Signal::Above));
    assert_eq!(at(&[0.1, -0.5, -3.2]), Some(Signal::Below));
    assert_eq!(at(&[0.5, 0.1, 0.3, 0.4, 0.2, 0.3, 0.1, 0.6, 0.2]), Some(Signal::OneSide));
    assert_eq!(at(&[-1.0, -0.6, -0.2, 0.1, 0.5, 0.9]), Some(Signal::Rises));
    assert_eq!(at(&[1.0, 0.6, 0.2, -0.1, -0.5, -0.9]), Some(Signal::Falls));
    assert_eq!(at(&[2.2, 0.3, 2.4]), Some(Signal::TwoOfThree));
    // On both sides, or only five that rise, or eight on one side, is chance.
    assert_eq!(at(&[2.2, 0.3, -2.4]), None);
    assert_eq!(at(&[-1.0, -0.6, -0.2, 0.1, 0.5]), None);
    assert_eq!(at(&[0.5, 0.1, 0.3, 0.4, 0.2, 0.3, 0.1, 0.6]), None);
}

/// Trays of a kitchen whose deviations are known: of days, trays and pieces.
fn kitchen(seed: u64, days: i64, trays: usize, sds: [f64; 3]) -> Vec<MeasuredTray> {
    let mut random = Pcg64::seed_from_u64(seed);
    let mut any = |sd: f64| Normal::new(0.0, sd).unwrap().sample(&mut random);
    let mut found = vec![];
    for day in 0..days {
        let of_day = 65.0 + any(sds[0]);
        for tray in 0..trays {
            let of_tray = of_day + any(sds[1]);
            // Trays have four to seven pieces.
            let pieces = (0..4 + tray % 4).map(|_| mm(of_tray + any(sds[2]))).collect();
            found.push(MeasuredTray { day, pieces });
        }
    }
    found
}

#[test]
fn what_varies_is_found_where_it_varies() {
    let sds = [0.8, 0.5, 0.3];
    let found: Vec<Varies> = (0..40).map(|seed| control_charts(&kitchen(seed, 30, 4, sds)).unwrap().varies).collect();
    let mean_of = |f: fn(&Varies) -> f64| found.iter().map(f).sum::<f64>() / 40.0;
    let variance = |f: fn(&Varies) -> Share| found.iter().map(|v| f(v).value() * v.sd.mm().powi(2)).sum::<f64>() / 40.0;
    assert!((variance(|v| v.days) - 0.64).abs() < 0.06, "{}", variance(|v| v.days));
    assert!((variance(|v| v.trays) - 0.25).abs() < 0.02, "{}", variance(|v| v.trays));
    assert!((variance(|v| v.within) - 0.09).abs() < 0.004, "{}", variance(|v| v.within));
    assert!((mean_of(|v| v.within.value() + v.trays.value() + v.days.value()) - 1.0).abs() < 1e-9);
}

#[test]
fn a_kitchen_in_order_is_left_in_peace_and_one_that_shifts_is_not() {
    let quiet = (0..40).map(|seed| control_charts(&kitchen(seed, 20, 1, [0.0, 0.0, 0.4])).unwrap());
    let marked =
        |charts: &ControlCharts| charts.means.iter().chain(&charts.ranges).filter(|p| p.signal.is_some()).count();
    // Of 1,600 points chance marks about one in a hundred.
    let false_alarms: usize = quiet.map(|c| marked(&c)).sum();
    assert!(false_alarms < 40, "{false_alarms}");
    let mut shifted = kitchen(3, 20, 1, [0.0, 0.0, 0.4]);
    for tray in shifted.iter_mut().skip(14) {
        tray.pieces.iter_mut().for_each(|p| *p = mm(p.mm() + 1.0));
    }
    assert!(control_charts(&shifted).unwrap().means[14..].iter().any(|p| p.signal.is_some()));
}

#[test]
fn a_tolerance_of_six_deviations_is_just_kept() {
    let charts = control_charts(&kitchen(5, 60, 1, [0.0, 0.0, 0.5])).unwrap();
    let found = charts.capability(mm(65.0), mm(1.5));
    // Six deviations of 0.5 are 3 mm: Cp is 1, and 0.27 % lie beyond (tables of the normal distribution).
    assert!((found.could - 1.0).abs() < 0.08, "{found:?}");
    assert!(found.beyond.value() < 0.01 && found.does <= found.could + 0.1);
    // Off by a deviation and a half: half as good at its nearer limit.
    let off = charts.capability(mm(64.25), mm(1.5));
    assert!((off.does - 0.5).abs() < 0.08, "{off:?}");
    assert!((below(1.96) - 0.975_002).abs() < 1e-6 && (below(-1.0) - 0.158_655).abs() < 1e-6);
}

#[test]
fn too_little_is_told_as_nothing() {
    let one = |pieces: &[f64]| MeasuredTray { day: 0, pieces: pieces.iter().map(|v| mm(*v)).collect() };
    assert_eq!(control_charts(&[one(&[65.0, 66.0]), one(&[65.0, 66.0]), one(&[65.0])]), None);
    assert_eq!(control_charts(&[one(&[65.0, 65.0]), one(&[65.0, 65.0]), one(&[65.0, 65.0])]), None);
    // More pieces than the tables have are taken evenly out of the tray.
    let many: Vec<f64> = (0..60).map(|i| 65.0 + f64::from(i % 7) / 10.0).collect();
    assert!(control_charts(&[one(&many), one(&many), one(&many)]).is_some());
}
