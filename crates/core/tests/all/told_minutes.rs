//! Minutes are told alike at every station: what the Cold says is what the Clock counts with, what the Oven says is what the bake sheet and
//! the Clock hold. Whole minutes, never sooner than computed for what has to be over, never later for what must not be missed.

use crate::bakehouse::{job_input, kitchen_input, lemon_thyme, planned, round, usual};
use ready_slab_core::job::{ColdPlace, DoughForm, JobInput, Plan, Reason, Setting};
use ready_slab_core::units::Span;
use rstest::rstest;

fn whole(span: Span) -> bool {
    (span.min() - span.min().round()).abs() < 1e-9
}

fn jobs() -> Vec<JobInput> {
    let mut all = Vec::new();
    for (thickness_mm, disc_mm, oven_c) in [(3.0, 15.0, 160.0), (6.0, 22.0, 175.0), (10.0, 40.0, 190.0)] {
        for chill_place in [ColdPlace::Fridge, ColdPlace::Freezer] {
            for dough_form in [DoughForm::Disc, DoughForm::Sheets] {
                all.push(job_input().with(|j| {
                    j.shape.thickness_mm = thickness_mm;
                    j.cold.disc_mm = disc_mm;
                    j.oven.oven_c = oven_c;
                    j.cold.chill_place = chill_place;
                    j.cold.dough_form = dough_form;
                }));
            }
        }
    }
    all
}

fn plans() -> Vec<Plan> {
    jobs().into_iter().map(usual).collect()
}

#[test]
fn the_clock_counts_with_the_minutes_that_the_stations_tell() {
    for plan in plans() {
        let (lot, told) = (&plan.clock.lot, plan.cold.answer.told().unwrap());
        assert!(lot.chill_min >= told.latest, "{} {told:?}", lot.chill_min);
        assert!(
            lot.chill_why.is_none_or(|why| why.ready_min == told.ready && why.ready_min + why.slow_min == told.latest)
        );
        assert_eq!(lot.tray_chill_min, plan.cold.tray_chill.as_ref().unwrap().answer.told().unwrap().latest);
        let expected = &plan.oven.expected;
        let (bake, look) = expected.told();
        assert!([bake.0, bake.1, look, expected.cool_on_tray].into_iter().all(whole), "{expected:?}");
        assert!(bake.0 <= expected.bake.0 && expected.bake.1 <= bake.1 && look <= expected.look_after);
        #[expect(clippy::cast_precision_loss, reason = "minutes of a bake")]
        let counted = [lot.bake_min as f64, lot.cool_min as f64, (lot.cool_min + lot.rack_min) as f64];
        let said = [bake.1.min(), expected.cool_on_tray.min(), plan.oven.cooling.packs_after.unwrap().min()];
        assert_eq!(counted, said);
        assert!(look <= bake.0 || look.min() <= 1.0);
    }
}

#[test]
fn nothing_is_told_ready_before_it_is_nor_too_cold_after_it_is() {
    for plan in plans() {
        let (answer, told) = (&plan.cold.answer, plan.cold.answer.told().unwrap());
        let at = |minutes: i64| Span::new_min(f64::from(i32::try_from(minutes).unwrap()) + 1e-5);
        let (early, late) = answer.ready_between.unwrap();
        assert!(at(told.ready) >= answer.ready_after.unwrap() && at(told.latest) >= late);
        assert!(told.earliest <= told.ready && told.ready <= told.latest);
        assert!(told.earliest == told.ready || at(told.earliest) <= early + Span::new_min(2e-5));
        if let (Some(past), Some(told)) = (answer.past_after, told.past) {
            assert!(Span::new_min(f64::from(i32::try_from(told).unwrap()) - 1e-5) <= past);
        }
    }
}

#[test]
fn what_is_cold_enough_but_still_setting_adds_up_to_the_minutes_until_it_is_ready() {
    let mut found = 0;
    for plan in plans() {
        for reason in &plan.cold.reasons {
            if let Reason::StillSets { what: Setting::Dough, cold_enough, more } = reason {
                assert!(whole(*cold_enough) && whole(*more), "{reason:?}");
                assert_eq!((*cold_enough + *more).min_up(), plan.cold.answer.told().unwrap().ready, "{reason:?}");
                found += 1;
            }
        }
    }
    assert!(found > 3, "{found}");
}

// By hand.
#[rstest]
#[case(8.2, 9, 8)]
#[case(8.0, 8, 8)]
#[case(7.999_999_9, 8, 8)]
#[case(0.0, 0, 0)]
fn whole_minutes_go_up_or_down(#[case] minutes: f64, #[case] up: i64, #[case] down: i64) {
    let span = Span::new_min(minutes);
    assert_eq!((span.min_up(), span.min_down()), (up, down));
}

#[test]
fn the_gap_on_the_tray_says_whose_it_is() {
    let told = |plan: &Plan| {
        let gap = plan.shape.reasons.iter().find_map(|r| match r {
            Reason::GapOnTheTray { gap, by_growth } => Some((gap.mm(), *by_growth)),
            _ => None,
        });
        gap.unwrap()
    };
    let firm = usual(job_input());
    assert!(firm.shape.trays.gap.mm() > 2.0 * firm.oven.growth.1.mm());
    assert_eq!(told(&firm), (25.0, false));
    let narrow = planned(job_input(), bakehouse_with_gap(5.0), &lemon_thyme(), &round(65.0)).unwrap();
    assert!(narrow.shape.trays.gap.mm() < 25.0);
    assert_eq!(told(&narrow), (narrow.shape.trays.gap.mm(), narrow.shape.trays.gap.mm() > 5.0));
}

fn bakehouse_with_gap(least_gap_mm: f64) -> ready_slab_core::job::KitchenInput {
    kitchen_input().with(|k| k.trays.least_gap_mm = least_gap_mm)
}
