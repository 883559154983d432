//! Against published figures.

use super::*;

fn asked(difference: f64, sd: f64, per_tray: u32) -> TrialAsked {
    TrialAsked { ways: 2, difference: Length::new_mm(difference), sd: Length::new_mm(sd), per_tray }
}

#[test]
fn the_power_of_a_t_test_is_the_one_that_is_published() {
    // R's own examples of power.t.test (its documentation, from memory): n 20, delta 1, sd 1 has power 0.8689528; power 0.90 at delta 1 takes n 22.02110.
    assert!((seen_with(&asked(1.0, 1.0, 400), 20, 1) - 0.868_952_8).abs() < 1e-5);
    assert_eq!(asked(1.0, 1.0, 400).size().unwrap().per_way, 23);
    assert!((seen_with(&asked(1.0, 1.0, 400), 22, 1) - 0.9).abs() < 0.001);
    // Cohen, Statistical Power Analysis, 1988, table 2.4.1 (from memory): power 0.80 at d 0.5 takes 64, at d 0.8 takes 26, at d 1.0 takes 17.
    for (d, n) in [(0.5, 64), (0.8, 26), (1.0, 17)] {
        let power = |n| seen_with(&asked(d, 1.0, 400), n, 1);
        assert!(power(n) >= 0.8 && power(n - 1) < 0.8 + 1e-3, "{d}: {} {}", power(n), power(n - 1));
    }
}

#[test]
fn pieces_are_shared_evenly_among_trays_and_what_is_too_fine_says_what_could_be_seen() {
    let size = asked(1.0, 0.9, 12).size().unwrap();
    assert_eq!(size.on_trays.iter().sum::<u32>(), size.per_way);
    assert!(size.on_trays.iter().all(|n| *n <= 6 && size.on_trays[0] - n <= 1), "{size:?}");
    assert!(size.seen.value() >= SEEN);
    let refused = asked(0.2, 2.0, 12).size().unwrap_err();
    let told = refused.to_string();
    assert!(told.contains("120 of each version") && told.contains("0.9 mm or more"), "{told}");
    assert_eq!(TrialAsked { ways: 5, ..asked(1.0, 1.0, 12) }.size().unwrap_err().all()[0].field(), "ways");
    // More ways take more pieces: each is compared with the first.
    let three = TrialAsked { ways: 3, ..asked(1.0, 0.9, 12) }.size().unwrap();
    assert!(three.per_way > size.per_way);
}

/// The extra hours of sleep of ten patients by two drugs: Student, The probable error of a mean, Biometrika 6, 1908; R's data set sleep (from memory). So
/// many hours over ten, since lengths are positive.
const SLEEP: ([f64; 10], [f64; 10]) =
    ([0.7, -1.6, -0.2, -1.2, -0.1, 3.4, 3.7, 0.8, 0.0, 2.0], [1.9, 0.8, 1.1, 0.1, -0.1, 4.4, 5.5, 1.6, 4.6, 3.4]);

#[test]
fn trays_as_blocks_are_students_paired_test_and_one_tray_his_other_one() {
    let asked = asked(1.0, 1.0, 20);
    let paired: Vec<Vec<Vec<f64>>> =
        SLEEP.0.iter().zip(SLEEP.1).map(|(a, b)| vec![vec![10.0 + a], vec![10.0 + b]]).collect();
    let found = trial_outcome(&asked, &paired).unwrap();
    let between = found.ways[1].between.unwrap();
    // Paired: 1.58, 95 % from 0.7001142 to 2.4598858.
    assert!((found.ways[1].more.unwrap().mm() - 1.58).abs() < 1e-9);
    assert!((between.0.mm() - 0.700_114_2).abs() < 1e-6 && (between.1.mm() - 2.459_885_8).abs() < 1e-6, "{between:?}");
    assert!(matches!(found.verdicts[0], TrialVerdict::Differs { way: 1, .. }));
    // Of two samples with one variance: from -0.203874 to 3.363874.
    let one: Vec<Vec<f64>> = [SLEEP.0, SLEEP.1].iter().map(|v| v.iter().map(|h| 10.0 + h).collect()).collect();
    let found = trial_outcome(&asked, &[one]).unwrap();
    let between = found.ways[1].between.unwrap();
    assert!((between.0.mm() + 0.203_874).abs() < 1e-5 && (between.1.mm() - 3.363_874).abs() < 1e-5, "{between:?}");
    assert!(matches!(found.verdicts[0], TrialVerdict::Alike { .. }));
    assert!(matches!(found.verdicts[1], TrialVerdict::TooFew(n) if n > 40), "{:?}", found.verdicts);
}

#[test]
fn a_hot_tray_does_not_decide_and_what_is_missing_is_said_by_place() {
    let asked = asked(1.0, 0.3, 6);
    // The second tray runs 5 mm wider and holds more of the second way; the ways themselves differ by 1 mm.
    let trays = [vec![vec![65.0, 65.2, 64.9], vec![66.1]], vec![vec![70.1], vec![71.0, 70.9, 71.2]]];
    let found = trial_outcome(&asked, &trays).unwrap();
    assert!((found.ways[1].more.unwrap().mm() - 1.0).abs() < 0.15, "{found:?}");
    assert!(found.ways[1].mean.mm() - found.ways[0].mean.mm() > 3.0, "the plain means are misled");
    let bad = trial_outcome(&asked, &[vec![vec![65.0, f64::NAN], vec![66.0]]]).unwrap_err();
    assert_eq!(bad.all()[0].field(), "trays[0][0][1]");
    // Ways that never lie beside each other tell nothing.
    assert!(trial_outcome(&asked, &[vec![vec![65.0, 65.1], vec![]], vec![vec![], vec![66.0, 66.2]]]).is_err());
    assert!(trial_outcome(&asked, &[]).is_err());
}

#[test]
fn ways_lie_about_one_middle_and_a_slope_over_the_tray_makes_no_difference() {
    let places: Vec<(f64, f64)> =
        (0..24).map(|i| (40.0 + 75.0 * f64::from(i % 6), 40.0 + 75.0 * f64::from(i / 6))).collect();
    for (ways, of_each) in [(2, 12), (2, 8), (3, 8), (4, 5)] {
        let laid = lay_trial(&places, ways, of_each, 7);
        assert_eq!(laid, lay_trial(&places, ways, of_each, 7), "the same seed lays the same");
        let mean = |way: usize, of: &dyn Fn((f64, f64)) -> f64| {
            let own: Vec<f64> =
                laid.iter().zip(&places).filter(|(w, _)| **w == Some(way)).map(|(_, p)| of(*p)).collect();
            assert_eq!(own.len(), of_each, "way {way} of {ways}");
            own.iter().sum::<f64>() / f64::from(u32::try_from(own.len()).unwrap())
        };
        for way in 1..ways {
            for of in [&|p: (f64, f64)| p.0, &|p: (f64, f64)| p.1] as [&dyn Fn((f64, f64)) -> f64; 2] {
                // A tray of 450 by 300: a twentieth of it.
                assert!(
                    (mean(way, of) - mean(0, of)).abs() < 45.0,
                    "{ways} {of_each}: {}",
                    mean(way, of) - mean(0, of)
                );
            }
        }
    }
    assert!(lay_trial(&[], 2, 3, 1).is_empty());
    assert_eq!(lay_trial(&[(0.0, 0.0)], 2, 3, 1), [None], "one place is no trial");
}
