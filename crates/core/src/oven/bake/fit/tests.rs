//! What bakes teach, on kitchens whose truth is known.

use super::super::forecast::forecast;
use super::known::SPREAD_SD;
use super::search::{BROWNING_SD, TIME_SD};
use super::*;
use crate::dough::{Formula, LineInput, Pantry};
use crate::oven::practice::Practice;
use crate::oven::range::{BakeRange, OvenDoubt};
use crate::oven::{BakeEnd, BakeFit, BakePiece, EdgeColour, OvenDough, OvenSetup};
use crate::units::{Length, Share, Span, Temperature};
use rand::{RngExt as _, SeedableRng as _};
use rand_pcg::Pcg64Mcg;

fn dough() -> OvenDough {
    let lines = [("butter", 100.0), ("sugar", 90.0), ("flour-ap", 170.0), ("egg", 22.0), ("salt", 1.0)];
    let lines: Vec<LineInput> = lines.iter().map(|l| (*l).into()).collect();
    OvenDough::of(&Formula::new("Test", &lines, Pantry::built_in()).unwrap(), 0.08).unwrap()
}

/// What would be recorded of a bake in an oven that is so far off, of a dough that spreads so much more, with noise.
fn recorded(high: f64, across: f64, oven_c: f64, truth: &BakeFit, noise: (f64, f64)) -> BakeSeen {
    let (oven, dough) = (OvenSetup::usual(oven_c, false), dough());
    let piece = BakePiece {
        thickness: Length::new_mm(high),
        radius: Length::new_mm(across / 2.0),
        start: Temperature::new_c(6.0),
        firm_as_at: Temperature::new_c(6.0),
        wait: Span::new_s(0.0),
    };
    let colour = EdgeColour::JustGolden;
    let found = forecast(&dough, &piece, &oven, truth, BakeEnd::Colour(colour)).unwrap();
    BakeSeen {
        formula: 0,
        dough,
        piece,
        oven,
        measured: None,
        end: BakeEnd::Colour(colour),
        bake: Some(found.bake * noise.0.exp()),
        spread: Share::new(found.spread.value() + noise.1),
    }
}

fn four(truth: &BakeFit, noise: &mut dyn FnMut() -> (f64, f64)) -> Vec<BakeSeen> {
    [(6.0, 65.0, 175.0), (6.0, 65.0, 190.0), (4.0, 45.0, 175.0), (8.0, 65.0, 165.0)]
        .iter()
        .map(|(h, d, c)| recorded(*h, *d, *c, truth, noise()))
        .collect()
}

fn truth(offset_k: f64, spread: f64) -> BakeFit {
    BakeFit { offset: TemperatureDifference::new_k(offset_k), spread, ..BakeFit::NONE }
}

#[test]
fn an_oven_that_runs_cool_and_a_dough_that_runs_are_found_from_clean_records() {
    let found = learn_bakes(&four(&truth(-12.0, 1.4), &mut || (0.0, 0.0))).unwrap().unwrap();
    let (oven, dough) = (found.oven, found.doughs[0]);
    assert!((oven.offset.k() + 12.0).abs() < 1.5, "{oven:?}");
    assert!((dough.spread / 1.4 - 1.0).abs() < 0.08, "{dough:?}");
    assert!(oven.offset_sd.k() < 6.0 && dough.spread_sd < 0.2, "narrower than before");
    assert_eq!((oven.records, dough.records, found.odd), (4, 4, vec![]));
}

#[test]
fn of_one_tray_far_off_nobody_says_that_trays_differ() {
    let far = recorded(6.0, 65.0, 175.0, &BakeFit::NONE, (0.0, 0.25));
    let fitted = learn_bakes(&[far]).unwrap().unwrap();
    assert!(fitted.differ.1 > 1.3 && fitted.lessons().is_empty(), "{:?}", fitted.lessons());
}

#[test]
fn more_records_leave_less_unsure_and_none_teach_nothing() {
    let all = four(&truth(8.0, 0.8), &mut || (0.0, 0.0));
    let sd = |n: usize| learn_bakes(&all[..n]).unwrap().unwrap();
    let (one, four) = (sd(1), sd(4));
    assert!(four.oven.offset_sd < one.oven.offset_sd && four.doughs[0].spread_sd < one.doughs[0].spread_sd);
    assert!(learn_bakes(&[]).unwrap().is_none());
}

#[test]
fn two_formulas_share_their_oven_and_keep_their_own_spread() {
    let mut all = four(&truth(-10.0, 1.4), &mut || (0.0, 0.0));
    let others = four(&truth(-10.0, 0.7), &mut || (0.0, 0.0)).into_iter().take(2);
    all.extend(others.map(|b| BakeSeen { formula: 1, ..b }));
    let found = learn_bakes(&all).unwrap().unwrap();
    assert!((found.oven.offset.k() + 10.0).abs() < 1.5, "{found:?}");
    assert!(
        (found.doughs[0].spread / 1.4 - 1.0).abs() < 0.1 && (found.doughs[1].spread / 0.7 - 1.0).abs() < 0.15,
        "{found:?}"
    );
    assert_eq!((found.oven.records, found.doughs[1].records), (6, 2));
    // The second formula knows its oven better than its own two bakes alone would tell.
    let alone: Vec<BakeSeen> = all[4..].iter().map(|b| BakeSeen { formula: 0, ..b.clone() }).collect();
    assert!(found.oven.offset_sd < learn_bakes(&alone).unwrap().unwrap().oven.offset_sd);
    // One that was never baked takes the oven's, and of itself what both have in common: nothing sure, since one runs and the other does not.
    let third = found.of(7).dough;
    assert!(third.records == 0 && (0.8..1.3).contains(&third.spread) && third.spread_sd > 0.35, "{third:?}");
}

/// Bakes beside a thermometer that showed the oven as far off as it is.
fn beside_a_thermometer(truth: &BakeFit, showed_k: f64) -> BakesFitted {
    let seen: Vec<BakeSeen> = four(truth, &mut || (0.0, 0.0))
        .into_iter()
        .map(|b| BakeSeen { measured: Some(TemperatureDifference::new_k(showed_k)), ..b })
        .collect();
    learn_bakes(&seen).unwrap().unwrap()
}

#[test]
fn what_a_thermometer_showed_at_each_setting_is_taken_off_first() {
    let found = beside_a_thermometer(&truth(-9.0, 1.0), -9.0);
    assert!(found.oven.offset.k().abs() < 0.8, "{found:?}");
    assert!((found.of(0).fit(TemperatureDifference::new_k(-9.0)).offset.k() + 9.0).abs() < 0.8);
    assert!((found.oven.heat.unwrap().heat - 1.0).abs() < 0.03, "{found:?}");
}

#[test]
fn how_strongly_an_oven_heats_is_told_only_beside_a_thermometer() {
    let known = BakeFit { heat: 1.2, ..truth(-9.0, 1.0) };
    let found = beside_a_thermometer(&known, -9.0);
    let heat = found.oven.heat.unwrap();
    // Heat, offset, time and browning trade off, and each prior takes its part: the time is known far better than any of them.
    assert!((1.05..1.25).contains(&heat.heat) && heat.with_offset < -0.2, "{found:?}");
    assert!(found.doughs[0].time_sd < 0.05 && found.doughs[0].time_sd < 0.5 * found.oven.time_sd(), "{found:?}");
    let fit = found.of(0).fit(TemperatureDifference::new_k(-9.0));
    let again = |fit: &BakeFit| recorded(6.0, 65.0, 175.0, fit, (0.0, 0.0)).bake.unwrap();
    assert!((again(&fit) / again(&known) - 1.0).abs() < 0.015);
    // Without one nothing is told of it, and offset and dough take it.
    let alone = learn_bakes(&four(&known, &mut || (0.0, 0.0))).unwrap().unwrap();
    assert!(alone.oven.heat.is_none() && alone.oven.offset.k() > -9.0, "{alone:?}");
}

/// Three bakes of one dough at one setting, that took much longer and spread less than the forecast has it.
fn three_that_agree() -> Vec<BakeSeen> {
    [(13.0, 0.015), (13.8, 0.020), (14.5, 0.024)]
        .map(|(min, spread)| BakeSeen {
            bake: Some(Span::new_min(min)),
            spread: Share::new(spread),
            ..recorded(6.0, 65.0, 175.0, &BakeFit::NONE, (0.0, 0.0))
        })
        .to_vec()
}

#[test]
fn a_forecast_lies_among_the_bakes_that_taught_it() {
    let found = learn_bakes(&three_that_agree()).unwrap().unwrap();
    assert!(found.odd.is_empty(), "what agrees is never set aside");
    let fit = found.of(0).fit(TemperatureDifference::new_k(0.0));
    let again = recorded(6.0, 65.0, 175.0, &fit, (0.0, 0.0));
    let min = again.bake.unwrap().min();
    assert!((13.0..14.5).contains(&min), "{min} {found:?}");
    assert!((0.015..0.024).contains(&again.spread.value()), "{:?} {found:?}", again.spread);
    // Nothing is clamped: ten bakes twice as long are believed, too.
    let far: Vec<BakeSeen> = three_that_agree()
        .iter()
        .cycle()
        .take(9)
        .map(|b| BakeSeen { bake: b.bake.map(|t| t * 1.7), spread: Share::new(0.16), ..b.clone() })
        .collect();
    let found = learn_bakes(&far).unwrap().unwrap();
    let again = recorded(6.0, 65.0, 175.0, &found.of(0).fit(TemperatureDifference::new_k(0.0)), (0.0, 0.0));
    assert!(found.odd.is_empty() && (22.0..24.8).contains(&again.bake.unwrap().min()), "{found:?} {again:?}");
    assert!((0.14..0.17).contains(&again.spread.value()), "{again:?}");
}

#[test]
fn a_record_that_fits_with_no_other_counts_for_little_and_is_named() {
    let mut all = four(&truth(-6.0, 1.1), &mut || (0.0, 0.0));
    all[1].bake = all[1].bake.map(|b| b * 2.2);
    let found = learn_bakes(&all).unwrap().unwrap();
    assert_eq!(found.odd, vec![1]);
    assert!((found.oven.offset.k() + 6.0).abs() < 3.0, "{found:?}");
}

#[test]
fn two_that_agree_against_three_are_not_put_away_and_the_range_says_so() {
    let mut all = three_that_agree();
    let longer = |b: &BakeSeen| BakeSeen { bake: b.bake.map(|t| t * 1.5), spread: Share::new(0.05), ..b.clone() };
    let (one, other) = (longer(&all[0]), longer(&all[1]));
    let before = learn_bakes(&all).unwrap().unwrap();
    all.extend([one, other]);
    let found = learn_bakes(&all).unwrap().unwrap();
    assert!(found.odd.is_empty(), "{found:?}");
    // The forecast lies between them, and is told to be less sure.
    let again = recorded(6.0, 65.0, 175.0, &found.of(0).fit(TemperatureDifference::new_k(0.0)), (0.0, 0.0));
    assert!((14.6..18.6).contains(&again.bake.unwrap().min()), "{again:?}");
    assert!(found.differ.0 > 1.5 * before.differ.0 && found.doughs[0].time_sd > before.doughs[0].time_sd, "{found:?}");
}

#[test]
fn what_all_recipes_of_a_baker_do_is_expected_of_the_next() {
    // Three recipes, all of which spread 1.6 times as far.
    let all: Vec<BakeSeen> = (0..3)
        .flat_map(|formula| {
            let two = four(&truth(0.0, 1.6), &mut || (0.0, 0.0)).into_iter().take(2);
            two.map(move |b| BakeSeen { formula, ..b })
        })
        .collect();
    let found = learn_bakes(&all).unwrap().unwrap();
    let next = found.of(9).dough;
    assert!((1.15..1.6).contains(&next.spread) && next.spread_sd < DoughKnowledge::NONE.spread_sd, "{next:?}");
    // Clean records lie within what the others tell.
    assert_eq!((found.held.times, found.held.spreads), ((6, 6), (6, 6)));
}

/// Kitchens as they may be before anybody has baked in them, by a seed: offset, spread, time and browning from what is unsure of them; four
/// noisy bakes; and whether the next bake's time and spread lie within the ranges then told.
fn next_bake_lies_within(seed: u64) -> [bool; 2] {
    let mut rng = Pcg64Mcg::seed_from_u64(seed);
    // Twelve even numbers added up are near enough a bell of deviation 1.
    let mut bell = move || -> f64 { (0..12).map(|_| rng.random::<f64>()).sum::<f64>() - 6.0 };
    let known = BakeFit {
        offset: TemperatureDifference::new_k(OFFSET_SD_K.0 * bell()),
        heat: 1.0,
        spread: (SPREAD_SD * bell()).exp(),
        time: (TIME_SD * bell()).exp(),
        browning: (BROWNING_SD * bell()).exp(),
    };
    let records = four(&known, &mut || (TIME_NOISE * bell(), WIDTH_NOISE * bell()));
    let found = learn_bakes(&records).unwrap().unwrap().of(0);
    let fit = found.fit(TemperatureDifference::new_k(0.0));
    let (oven, piece) = (&records[0].oven, &records[0].piece);
    let told = forecast(&records[0].dough, piece, oven, &fit, records[0].end).unwrap();
    let practice = Practice { bake: (told.bake, told.bake), spread: (told.spread, told.spread) };
    let range = BakeRange::of(&told, &found, OvenDoubt { measured: false, swing: 0.0 }, &practice, false);
    let next = recorded(6.0, 65.0, 175.0, &known, (TIME_NOISE * bell(), WIDTH_NOISE * bell()));
    let (time, spread) = (next.bake.unwrap(), next.spread);
    [range.bake.0 <= time && time <= range.bake.1, range.spread.0 <= spread && spread <= range.spread.1]
}

#[test]
fn of_a_hundred_kitchens_ninety_bake_within_the_ranges_told() {
    let threads = std::thread::available_parallelism().map_or(1, |n| n.get() as u64);
    let of = |from: u64| {
        let all = (from..100).step_by(usize::try_from(threads).unwrap()).map(next_bake_lies_within);
        all.fold([0; 2], |sum, within| [sum[0] + i32::from(within[0]), sum[1] + i32::from(within[1])])
    };
    let [times, spreads] = std::thread::scope(|scope| {
        let kitchens: Vec<_> = (0..threads).map(|from| scope.spawn(move || of(from))).collect();
        kitchens.into_iter().map(|k| k.join().unwrap()).fold([0; 2], |a, b| [a[0] + b[0], a[1] + b[1]])
    });
    assert!(times >= 88 && spreads >= 88, "{times} {spreads}");
}
