//! The oven station of whole jobs: the forecast in the plan, its bands, and the board of levers.

use crate::bakehouse::{job_input, kitchen_input, lemon_thyme, planned, round, usual};
use ready_slab_core::dough::MixMethod;
use ready_slab_core::geometry::{NarrowKind, Outline};
use ready_slab_core::job::{
    BakeLever, ColdPlace, Job, KitchenInput, LeverGroup, Notch, OvenMeasured, PartsAhead, Plan, Reason, bake_levers,
    colder_takes, parts_ahead,
};
use ready_slab_core::oven::{
    self, BakeEnd, BakeKnowledge, BakeWarning, DoneBy, DoughKnowledge, EdgeColour, OvenKnowledge, TrayLiner,
    TrayMaterial,
};
use ready_slab_core::units::{Span, TemperatureDifference};
use rstest::rstest;

fn measured(set_c: f64, read_c: f64) -> OvenMeasured {
    OvenMeasured { set_c, read_c, swing_k: 0.0 }
}

fn in_kitchen(kitchen: KitchenInput) -> Plan {
    planned(job_input(), kitchen, &lemon_thyme(), &round(65.0)).unwrap()
}

#[test]
fn the_range_lies_around_the_forecast_and_narrows_when_the_oven_is_measured() {
    let (plain, read) =
        (usual(job_input()), in_kitchen(kitchen_input().with(|k| k.oven.oven_readings = vec![measured(175.0, 175.0)])));
    let wide = |p: &Plan| (p.oven.expected.bake.1 - p.oven.expected.bake.0).min();
    let found = plain.oven.forecast.as_ref().unwrap();
    assert!(plain.oven.expected.bake.0 < found.bake && found.bake < plain.oven.expected.bake.1);
    assert!(wide(&read) < 0.95 * wide(&plain));
    // Looked at first at the early end, or practice's, whichever is sooner.
    let expected = &plain.oven.expected;
    let early = expected.bake.0.min().min(expected.practice.bake.0.min());
    assert!((expected.look_after.min() - early).abs() < 1e-9, "{early}");
    // The one figure lies between the model and the middle of practice.
    let practice = (expected.practice.bake.0.min() * expected.practice.bake.1.min()).sqrt();
    let (low, high) = (practice.min(found.bake.min()), practice.max(found.bake.min()));
    assert!((low..=high).contains(&expected.middle.min()), "{low} {} {high}", expected.middle.min());
    // The clock keeps the long end.
    let bake = plain.clock.relay.tasks.iter().find(|t| t.oven.is_some() && t.tray.is_some()).unwrap();
    let most = plain.oven.expected.bake.1.min();
    assert!(f64::from(i32::try_from(bake.end_min - bake.start_min).unwrap()) >= most);
}

#[test]
fn an_oven_that_runs_cool_takes_longer_between_its_readings_too() {
    let readings = vec![measured(150.0, 145.0), measured(200.0, 175.0)];
    let cool = in_kitchen(kitchen_input().with(|k| k.oven.oven_readings = readings));
    // Half way between -5 and -25 at 175.
    assert!((cool.oven.question.fit.offset.k() + 15.0).abs() < 1e-9);
    let plain = usual(job_input());
    assert!(cool.oven.forecast.unwrap().bake > plain.oven.forecast.unwrap().bake);
}

#[test]
fn a_longer_tray_chill_makes_pieces_spread_less() {
    use ready_slab_core::units::TemperatureDifference;
    let plan = usual(job_input());
    let mut colder = plan.oven.question.clone();
    colder.piece.start = colder.piece.start + TemperatureDifference::new_k(-10.0);
    assert!(colder.answer().unwrap().spread < plan.oven.forecast.unwrap().spread);
}

#[rstest]
#[case(BakeEnd::Colour(EdgeColour::Pale), BakeEnd::Colour(EdgeColour::JustGolden))]
#[case(BakeEnd::Colour(EdgeColour::JustGolden), BakeEnd::Colour(EdgeColour::Golden))]
#[case(BakeEnd::Colour(EdgeColour::Golden), BakeEnd::Colour(EdgeColour::Brown))]
fn darker_takes_longer(#[case] pale: BakeEnd, #[case] dark: BakeEnd) {
    let bake = |bake_end| usual(job_input().with(|j| j.oven.bake_end = bake_end)).oven.forecast.unwrap().bake;
    assert!(bake(pale) < bake(dark));
}

#[test]
fn a_dull_middle_is_asked_for_without_colour() {
    let found = usual(job_input().with(|j| j.oven.bake_end = BakeEnd::Dull)).oven.forecast.unwrap();
    assert!(matches!(found.done_by, DoneBy::Dull | DoneBy::Set), "{:?}", found.done_by);
}

#[test]
fn what_the_forecast_does_not_reach_keeps_the_ranges_of_common_practice_and_says_so() {
    let plan = planned(job_input(), kitchen_input(), &lemon_thyme(), &round(210.0)).unwrap();
    assert!(plan.oven.forecast.is_none());
    let Reason::BeyondTheForecast { why } = &plan.oven.warnings[0] else { panic!("{:?}", plan.oven.warnings) };
    assert_eq!(why.all()[0].field(), "across_mm");
    // By hand from the trade's table: 6 mm at 175 take 8 to 14 min.
    let stated = plan.oven.expected.practice.bake;
    assert!((stated.0.min() - 8.0).abs() < 0.1 && (stated.1.min() - 14.0).abs() < 0.1);
    assert!((plan.oven.expected.middle.min() - 10.6).abs() < 0.1, "the middle of its ends");
}

#[test]
fn colder_pieces_are_told_with_what_they_cost_in_the_cold() {
    let plan = usual(job_input());
    let colder = colder_takes(&plan).unwrap();
    // The tray chill is in the freezer: a few minutes more.
    assert!((1.0..15.0).contains(&colder.0.min()) && colder.1 == ColdPlace::Freezer, "{colder:?}");
    let levers = bake_levers(&plan.oven.question, Some(colder), &lemon_thyme(), MixMethod::JustCombined).unwrap();
    assert!(levers.iter().any(|l| matches!(l.notch, Notch::Colder(_, Some((_, ColdPlace::Freezer))))));
}

#[test]
fn every_lever_is_one_notch_from_the_bake_as_planned() {
    let plan = usual(job_input());
    let levers = bake_levers(&plan.oven.question, None, &lemon_thyme(), MixMethod::JustCombined).unwrap();
    assert!(levers.len() >= 25, "{}", levers.len());
    let twice = (1..levers.len()).find(|&i| levers[..i].iter().any(|l| l.notch == levers[i].notch));
    assert_eq!(twice, None, "no lever twice");
    assert!(levers.iter().all(|l| l.question != plan.oven.question), "none that changes nothing");
    let found = plan.oven.forecast.unwrap();
    let effect = |notch: Notch| {
        let lever: &BakeLever = levers.iter().find(|l| l.notch == notch).unwrap_or_else(|| panic!("{notch:?}"));
        lever.effect(found.bake).unwrap()
    };
    let k = TemperatureDifference::new_k;
    let hotter = Notch::Hotter(k(15.0));
    // Directions that every baker knows: common practice, no source.
    for (notch, more) in [
        (Notch::Colder(k(6.0), None), false),
        (Notch::OnTheCounter(Span::new_min(10.0)), true),
        (hotter, false),
        (Notch::Cooler(k(15.0)), true),
        (Notch::Liner(TrayLiner::Greased), true),
        (Notch::MoreFlour, false),
        (Notch::MoreSugar, true),
        (Notch::HalfPowdered, false),
    ] {
        let spread = effect(notch).forecast.spread;
        assert!((spread > found.spread) == more, "{notch:?}: {spread:?} against {:?}", found.spread);
    }
    assert!(effect(hotter).rim_at_same_time > found.rim_colour);
    assert!(effect(Notch::Tray(TrayMaterial::Dark)).forecast.under_colour > found.under_colour);
    // What lies within the forecast's own steps is told as no change, what lies beyond is told as it is.
    let same = BakeLever { group: LeverGroup::Oven, notch: Notch::AtTheSea, question: plan.oven.question.clone() };
    let none = same.effect(found.bake).unwrap().change(&found);
    assert_eq!((none.spread_points, none.bake_min, none.rim), (None, None, None));
    let hotter = effect(hotter).change(&found);
    assert!(
        hotter.spread_points.is_none_or(|points| points < 0.0)
            && hotter.bake_min.unwrap() < 0.0
            && hotter.rim.unwrap() > 0.0
    );
    // What is there already is no lever.
    let parchment = Notch::Liner(TrayLiner::Parchment);
    assert!(!levers.iter().any(|l| l.notch == parchment || l.notch == Notch::Tray(TrayMaterial::Light)));
    let greased = usual(job_input().with(|j| j.oven.liner = TrayLiner::Greased));
    let others = bake_levers(&greased.oven.question, None, &lemon_thyme(), MixMethod::JustCombined).unwrap();
    assert!(
        others.iter().any(|l| l.notch == parchment)
            && !others.iter().any(|l| l.notch == Notch::Liner(TrayLiner::Greased))
    );
}

/// Common practice, no source: high up dough widens more, dries sooner and spreads further.
#[test]
fn high_up_it_loses_more_water_and_spreads_no_less() {
    let (sea, high) = (usual(job_input()), in_kitchen(kitchen_input().with(|k| k.house.altitude_m = 1600.0)));
    let (sea, high) = (sea.oven.forecast.unwrap(), high.oven.forecast.unwrap());
    assert!(high.spread > sea.spread, "{:?} {:?}", high.spread, sea.spread);
    assert!(high.core < sea.core || high.loss > sea.loss);
}

#[test]
fn a_door_that_costs_more_and_comes_back_later_makes_a_longer_bake() {
    let bake = |door_dip_k, recovery_min| {
        let kitchen = kitchen_input().with(|k| {
            k.oven.door_dip_k = door_dip_k;
            k.oven.recovery_min = recovery_min;
        });
        in_kitchen(kitchen).oven.forecast.unwrap()
    };
    let (shut, usual, slow) = (bake(0.0, 1.5), bake(15.0, 1.5), bake(40.0, 4.0));
    assert!(shut.bake < usual.bake && usual.bake < slow.bake);
    // A cool start makes more spread, as a cool oven does.
    assert!(shut.spread < slow.spread);
}

#[test]
fn an_oven_that_swings_is_told_with_a_wider_band() {
    let wide = |swing_k| {
        let read = OvenMeasured { swing_k, ..measured(175.0, 175.0) };
        let e = in_kitchen(kitchen_input().with(|k| k.oven.oven_readings = vec![read])).oven.expected;
        (e.bake.1 - e.bake.0).min()
    };
    assert!(wide(20.0) > wide(0.0));
}

#[test]
fn the_board_has_the_altitude_among_its_levers_and_goes_down_again_from_high_up() {
    let names = |altitude_m| {
        let plan = in_kitchen(kitchen_input().with(|k| k.house.altitude_m = altitude_m));
        let levers = bake_levers(&plan.oven.question, None, &lemon_thyme(), MixMethod::JustCombined).unwrap();
        levers
            .into_iter()
            .map(|l| l.notch)
            .filter(|n| matches!(n, Notch::Altitude(_) | Notch::AtTheSea))
            .collect::<Vec<_>>()
    };
    assert_eq!(names(0.0), [Notch::Altitude(1600.0)]);
    assert_eq!(names(1200.0), [Notch::Altitude(1600.0), Notch::AtTheSea]);
}

/// A five-pointed star of 90 mm: its points bake ahead, and the finer the point the more.
#[test]
fn points_bake_ahead_and_the_finer_the_more() {
    let star = |inner: f64| {
        let corner = |i: i32| {
            let (turn, r) =
                (std::f64::consts::TAU * (f64::from(i) / 10.0 - 0.25), if i % 2 == 0 { 45.0 } else { inner });
            (r * turn.cos(), r * turn.sin())
        };
        Outline::new(&(0..10).map(corner).collect::<Vec<_>>()).unwrap()
    };
    let told = |outline: &Outline| {
        let plan = planned(job_input(), kitchen_input(), &lemon_thyme(), outline).unwrap();
        parts_ahead(outline, &plan.oven.question, plan.oven.forecast.as_ref().unwrap()).unwrap()
    };
    let (plump, fine) = (told(&star(27.0)), told(&star(17.0)));
    assert_eq!(fine[0].at.len(), 5);
    assert_eq!((fine[0].kind, fine[0].place), (NarrowKind::Point, None));
    let ahead = |p: &[PartsAhead]| p.first().map_or(0.0, |p| p.ahead.min());
    assert!(ahead(&fine) > 0.2 && ahead(&fine) >= ahead(&plump) - 0.8, "{fine:?} {plump:?}");
    assert!(
        fine[0].colour
            > planned(job_input(), kitchen_input(), &lemon_thyme(), &star(17.0))
                .unwrap()
                .oven
                .forecast
                .unwrap()
                .rim_colour
    );
    assert!(told(&round(65.0)).is_empty());
}

#[test]
fn pieces_measured_colder_than_their_chill_leaves_them_spread_less() {
    let (chilled, frozen) = (usual(job_input()), usual(job_input().with(|j| j.oven.goes_in_c = Some(-10.0))));
    assert_eq!(frozen.oven.question.piece.start.c(), -10.0);
    assert!(frozen.oven.forecast.unwrap().spread < chilled.oven.forecast.unwrap().spread);
    let errors = Job::new(job_input().with(|j| j.oven.goes_in_c = Some(40.0))).unwrap_err();
    assert_eq!(errors.all()[0].field(), "goes_in_c");
}

#[test]
fn cocoa_is_not_judged_by_colour() {
    let dough = |cocoa| {
        crate::bakehouse::formula(&[
            ("flour-ap", 400.0),
            ("cocoa", cocoa),
            ("butter", 225.0),
            ("sugar", 190.0),
            ("egg", 50.0),
        ])
    };
    let told = |cocoa| planned(job_input(), kitchen_input(), &dough(cocoa), &round(65.0)).unwrap().oven;
    let (dark, pale) = (told(50.0), told(4.0));
    let hidden = Reason::Oven(oven::Reason::Warning(BakeWarning::Cocoa));
    assert_eq!((dark.look_for.end, dark.look_for.seen), (BakeEnd::Dull, None));
    assert_eq!(dark.warnings[0], hidden);
    assert!(pale.look_for.seen.is_some() && !pale.warnings.contains(&hidden));
}

#[test]
fn trays_on_several_shelves_are_told_to_swap() {
    let two = in_kitchen(kitchen_input().with(|k| k.oven.racks_per_oven = 2));
    assert_eq!(two.oven.turn, [Reason::SwapShelves]);
    assert_eq!(usual(job_input()).oven.turn, []);
}

#[test]
fn a_newer_reading_of_the_oven_counts_instead_of_what_bakes_taught_of_it() {
    let k = TemperatureDifference::new_k;
    let oven = OvenKnowledge { offset: k(-9.0), offset_sd: k(3.0), heat: None, records: 5 };
    let dough = DoughKnowledge { spread: 1.2, ..DoughKnowledge::NONE };
    let beside = [(175.0, 170.0)];
    let standing = |now: &[(f64, f64)], dough| BakeKnowledge::standing(Some((oven, &beside[..])), now, dough);
    assert_eq!(standing(&beside, Some(dough)), Some(BakeKnowledge { oven: Some(oven), dough }));
    assert_eq!(standing(&[(175.0, 171.0)], Some(dough)), Some(BakeKnowledge { oven: None, dough }));
    let only_oven = BakeKnowledge { oven: Some(oven), dough: DoughKnowledge::NONE };
    assert_eq!((standing(&[], None), standing(&beside, None)), (None, Some(only_oven)));
}
