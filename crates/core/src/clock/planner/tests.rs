//! Days by hand, and every plan proved by the checker.

use super::*;
use crate::clock::step::Step;
use proptest::prelude::*;

/// As it travels in the planner's JSON: one batch of a kind.
fn batch(trays: usize) -> DayBatch {
    DayBatch {
        mix_min: 12,
        form_min: 4,
        chill_min: 30,
        rests: vec![(121, 10)],
        window_min: 25,
        tray_chill_min: 10,
        tray_chill_max: 120,
        cool_min: 6,
        ..DayBatch::plain(vec![8; trays], 175.0, 12)
    }
}

fn kitchen() -> DayKitchen {
    DayKitchen {
        hands: 1,
        mixers: 1,
        fridge_slots: 3,
        freezer_slots: 2,
        trays: 4,
        ovens: 1,
        racks_per_oven: 1,
        preheat_min: 20,
        temp_change_min: 10,
        rechill_min: 15,
        cooling_slots: 3,
    }
}

fn planned(day: &Day, seconds: f64) -> PlannedDay {
    let plan = plan_day(day, PlanBudget { seconds, seed: 1 }).expect("a plan");
    assert_eq!(broken_rules(day, &plan.tasks), vec![], "{:#?}", plan.tasks);
    assert!(plan.makespan_min >= plan.bound_min, "{} under its bound {}", plan.makespan_min, plan.bound_min);
    plan
}

#[test]
fn one_tray_takes_its_steps_one_after_the_other() {
    let day = Day { kitchen: kitchen(), batches: vec![batch(1)] };
    let plan = planned(&day, 0.05);
    // By hand: 12 + 4 + 30 + 8 + 10 + 12 + 6.
    assert_eq!((plan.makespan_min, plan.bound_min), (82, 82));
    assert!(plan.proved());
}

#[test]
fn a_dough_goes_back_into_the_cold_when_its_window_ends() {
    let day = Day { kitchen: kitchen(), batches: vec![batch(4)] };
    let plan = planned(&day, 0.2);
    // By hand: three cuts of 8 fit the window of 25; the fourth waits 15 min. 46 + 24 + 15 + 8 + 10 + 12 + 6.
    assert_eq!(plan.makespan_min, 121);
    assert!(plan.proved());
    assert_eq!(plan.tasks.iter().filter(|t| t.step == Step::Chill).count(), 2);
}

#[test]
fn two_racks_take_two_trays_at_once() {
    let slow = DayBatch { bake_min: 40, window_min: 60, ..batch(4) };
    let racks =
        |racks_per_oven| Day { kitchen: DayKitchen { racks_per_oven, ..kitchen() }, batches: vec![slow.clone()] };
    let (one, two) = (planned(&racks(1), 0.2), planned(&racks(2), 0.2));
    // By hand: the first tray is ready for the oven after 64 min; four loads of 40, or the second tray 8 min later and two loads.
    assert_eq!((one.makespan_min, two.makespan_min), (64 + 160 + 6, 72 + 80 + 6));
}

#[test]
fn another_heat_is_baked_in_one_go() {
    let hot = DayBatch { oven_c: 190.0, ..batch(2) };
    let day = Day { kitchen: kitchen(), batches: vec![batch(2), hot] };
    let plan = planned(&day, 0.5);
    let mut bakes: Vec<_> = plan.tasks.iter().filter(|t| t.step == Step::Bake).collect();
    bakes.sort_by_key(|t| t.start_min);
    let changes = bakes.windows(2).filter(|w| w[0].batch != w[1].batch).count();
    assert_eq!(changes, 1, "{bakes:?}");
}

#[test]
fn what_can_not_be_says_which_rule_forbids_it() {
    let of =
        |kitchen: DayKitchen, batch: DayBatch| plan_day(&Day { kitchen, batches: vec![batch] }, PlanBudget::AT_ONCE);
    let rules = |found: Result<PlannedDay, Vec<Forbidden>>| -> Vec<DayRule> {
        found.expect_err("forbidden").into_iter().map(|f| f.rule).collect()
    };
    assert_eq!(rules(of(DayKitchen { hands: 0, ..kitchen() }, batch(1))), vec![DayRule::Hands]);
    assert_eq!(rules(of(DayKitchen { trays: 0, ..kitchen() }, batch(1))), vec![DayRule::Trays]);
    assert_eq!(rules(of(kitchen(), DayBatch { window_min: 7, ..batch(1) })), vec![DayRule::WorkWindow]);
    assert_eq!(rules(of(kitchen(), DayBatch { tray_chill_max: 5, ..batch(1) })), vec![DayRule::TrayChill]);
    let cold = DayKitchen { fridge_slots: 0, freezer_slots: 0, ..kitchen() };
    assert_eq!(rules(of(cold, batch(1))), vec![DayRule::FridgeSlots, DayRule::FridgeSlots]);
    // One place in the fridge and none in the freezer: after a cut the tray and the dough want it at the same minute.
    let one = DayKitchen { fridge_slots: 1, freezer_slots: 0, ..kitchen() };
    assert_eq!(rules(of(one, DayBatch { window_min: 8, ..batch(2) })), vec![DayRule::FridgeSlots]);
}

#[test]
fn jobs_wanted_at_their_own_times_are_ready_then() {
    let morning = DayBatch { wanted_before_min: 240, ..batch(2) };
    let day = Day { kitchen: kitchen(), batches: vec![batch(2), morning] };
    let plan = planned(&day, 0.2);
    let end = |at: usize| {
        let of = plan.tasks.iter().filter(|t| t.batch == at && t.step == Step::Cool);
        of.map(|t| t.end_min).max().expect("it cools")
    };
    assert_eq!((end(0), end(1)), (plan.makespan_min, plan.makespan_min - 240));
    assert!(plan.proved(), "the morning's batch alone makes the day as long as it is");
}

#[test]
fn a_plan_that_breaks_a_rule_is_found_out() {
    let hot = DayBatch { oven_c: 190.0, ..batch(2) };
    let day = Day { kitchen: kitchen(), batches: vec![batch(4), hot] };
    let sound = planned(&day, 0.05).tasks;
    let broken = |kitchen: DayKitchen, change: &dyn Fn(&mut DayTask), of: fn(&DayTask) -> bool| -> Vec<&'static str> {
        let mut tasks = sound.clone();
        tasks.iter_mut().filter(|t| of(t)).take(1).for_each(change);
        broken_rules(&Day { kitchen, ..day.clone() }, &tasks).into_iter().map(|b| b.rule).collect()
    };
    let same: &dyn Fn(&mut DayTask) = &|_| {};
    let later: &dyn Fn(&mut DayTask) = &|t| (t.start_min, t.end_min) = (t.start_min + 1, t.end_min + 1);
    let longer: &dyn Fn(&mut DayTask) = &|t| t.end_min += 1;
    let any: fn(&DayTask) -> bool = |_| true;
    let few = |change: fn(&mut DayKitchen)| {
        let mut kitchen = kitchen();
        change(&mut kitchen);
        broken(kitchen, same, any)
    };
    assert_eq!(few(|_| {}), Vec::<&str>::new());
    for (rule, found) in [
        ("hands do one thing at a time", few(|k| k.hands = 0)),
        ("a mixer mixes one dough at a time", few(|k| k.mixers = 0)),
        ("the fridge has so many places", few(|k| k.fridge_slots = 0)),
        ("the freezer has so many places", few(|k| k.freezer_slots = 0)),
        ("there are so many trays", few(|k| k.trays = 1)),
        ("so many trays can stand to cool", few(|k| k.cooling_slots = 0)),
        ("every load has an oven of the kitchen", few(|k| k.ovens = 0)),
        ("an oven holds so many trays", few(|k| k.racks_per_oven = 0)),
        ("an oven is heated before its first load", few(|k| k.preheat_min = 300)),
        ("the door opens between loads, and another heat takes its time", few(|k| k.temp_change_min = 400)),
        ("dough is in the cold at least so long", few(|k| k.rechill_min = 500)),
        ("mixing takes its time", broken(kitchen(), longer, |t| t.step == Step::Mix)),
        ("forming takes its time, after the mix", broken(kitchen(), longer, |t| t.step == Step::Form)),
        ("dough chills from when it is formed", broken(kitchen(), later, |t| t.step == Step::Form)),
        ("dough chills where it is to", broken(kitchen(), &|t| t.place = None, |t| t.step == Step::Chill)),
        (
            "dough goes back into the cold at once",
            broken(kitchen(), &|t| t.start_min += 1, |t| t.step == Step::Chill && t.tray > Some(0)),
        ),
        ("a cut takes its time", broken(kitchen(), longer, |t| t.step == Step::Cut)),
        (
            "every cut lies within the window of its outing",
            broken(kitchen(), &|t| t.start_min -= 60, |t| t.step == Step::Cut && t.tray == Some(0)),
        ),
        (
            "trays are cut one after the other",
            broken(kitchen(), &|t| t.start_min -= 30, |t| t.step == Step::Cut && t.tray == Some(1)),
        ),
        ("a cut tray chills at once, so long at least and at most", broken(kitchen(), later, |t| t.step == Step::Cut)),
        ("a cut tray chills where it is to", broken(kitchen(), &|t| t.place = None, |t| t.step == Step::TrayChill)),
        ("a tray goes from the cold into the oven, for its time", broken(kitchen(), longer, |t| t.step == Step::Bake)),
        (
            "trays bake in the order in which they were cut",
            broken(kitchen(), &|t| t.start_min += 200, |t| t.step == Step::Bake && t.tray == Some(0)),
        ),
        ("a tray cools when it comes out", broken(kitchen(), later, |t| t.step == Step::Cool)),
        (
            "a task lies within the day and ends after it starts",
            broken(kitchen(), &|t| t.end_min = t.start_min - 1, |t| t.step == Step::Cool),
        ),
        (
            "every tray is cut, chilled, baked and cooled",
            broken(kitchen(), &|t| t.tray = None, |t| t.step == Step::Bake),
        ),
        ("each batch is mixed and formed once", broken(kitchen(), &|t| t.step = Step::Rest, |t| t.step == Step::Mix)),
    ] {
        assert!(found.contains(&rule), "{rule}: {found:?}");
    }
}

#[test]
fn pieces_are_finished_dry_and_packed_by_the_wanted_time() {
    let iced = DayBatch { rack_min: 25, finish_min: vec![20; 2], dry_min: 60, pack_min: vec![3; 2], ..batch(2) };
    let day = Day { kitchen: kitchen(), batches: vec![iced] };
    let plan = planned(&day, 0.1);
    let of = |step, tray| plan.tasks.iter().find(|t| t.step == step && t.tray == Some(tray)).expect("a task");
    for tray in [0, 1] {
        let (cool, rack, finish) = (of(Step::Cool, tray), of(Step::CoolOnRack, tray), of(Step::Finish, tray));
        let (dry, pack) = (of(Step::Dry, tray), of(Step::Pack, tray));
        assert!(cool.end_min == rack.start_min && rack.end_min <= finish.start_min, "{tray}");
        assert!(finish.end_min == dry.start_min && dry.end_min - dry.start_min >= 60 && dry.end_min == pack.start_min);
    }
    // By hand: the last is packed at the end, so it dries from 63 and is iced from 83 min before it.
    let last = plan.tasks.iter().filter(|t| t.step == Step::Finish).map(|t| t.start_min).max();
    assert_eq!(last, Some(plan.makespan_min - 83));
}

#[test]
fn what_is_wanted_warm_cools_after_its_time() {
    let day = Day { kitchen: kitchen(), batches: vec![DayBatch { warm: true, ..batch(1) }] };
    let plan = planned(&day, 0.05);
    let bake = plan.tasks.iter().find(|t| t.step == Step::Bake).expect("a bake");
    assert_eq!((bake.end_min, plan.makespan_min), (76, 76));
}

#[test]
fn a_shared_dough_is_mixed_once_before_all_that_is_formed_of_it_and_a_lump_chills_between() {
    let logs = DayBatch { mix_min: 0, mixed_by: Some(0), bulk_min: 45, ..batch(1) };
    let day = Day { kitchen: kitchen(), batches: vec![batch(2), logs] };
    let plan = planned(&day, 0.2);
    let of = |step, at: usize| plan.tasks.iter().filter(|t| t.step == step && t.batch == at).collect::<Vec<_>>();
    let (mix, lump, form) = (of(Step::Mix, 0), of(Step::BulkChill, 1), of(Step::Form, 1));
    assert_eq!((mix.len(), of(Step::Mix, 1).len()), (1, 0));
    assert!(mix[0].end_min == lump[0].start_min && lump[0].end_min == form[0].start_min);
    assert!(lump[0].end_min - lump[0].start_min >= 45 && mix[0].end_min <= of(Step::Form, 0)[0].start_min);
}

#[test]
fn the_same_day_is_planned_the_same_twice() {
    let day = Day { kitchen: kitchen(), batches: vec![batch(5), DayBatch { bake_min: 15, ..batch(4) }] };
    assert_eq!(planned(&day, 0.1), planned(&day, 0.1));
}

prop_compose! {
    fn any_batch()(trays in 1usize..6, mix in 0i32..20, form in 0i32..8, chill in 0i32..70, max in 0i32..60, temper in 0i32..20,
                   cut in 1i32..12, window in 0i32..40, tmin in 0i32..25, tmax in 0i32..90, heat in 0usize..3, bake in 6i32..25,
                   cool in 0i32..12, before in prop_oneof![4 => Just(0), 1 => 0i32..200]) -> DayBatch {
        DayBatch {
            mix_min: mix, form_min: form, chill_min: chill, rests: vec![(chill + max + 1, temper)], cut_min: vec![cut; trays],
            window_min: cut + window, tray_chill_min: tmin, tray_chill_max: tmin + tmax,
            oven_c: [165.0, 175.0, 190.0][heat], bake_min: bake, cool_min: cool, wanted_before_min: before, ..batch(trays)
        }
    }
}

prop_compose! {
    fn any_kitchen()(hands in 1u32..3, mixers in 1u32..3, fridge in 1u32..5, freezer in 0u32..4, trays in 1u32..7, ovens in 1u32..3,
                     racks in 1u32..4, preheat in 0i32..30, change in 0i32..20, rechill in 0i32..25, cooling in 1u32..5) -> DayKitchen {
        DayKitchen {
            hands, mixers, fridge_slots: fridge, freezer_slots: freezer, trays, ovens, racks_per_oven: racks, preheat_min: preheat,
            temp_change_min: change, rechill_min: rechill, cooling_slots: cooling
        }
    }
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 60, ..ProptestConfig::default() })]
    #[test]
    fn every_plan_is_sound_in_any_kitchen(kitchen in any_kitchen(), batches in prop::collection::vec(any_batch(), 1..5)) {
        let day = Day { kitchen, batches };
        match plan_day(&day, PlanBudget { seconds: 0.01, seed: 1 }) {
            Ok(plan) => {
                prop_assert_eq!(broken_rules(&day, &plan.tasks), vec![]);
                prop_assert!(plan.makespan_min >= plan.bound_min);
            }
            Err(forbidden) => prop_assert!(!forbidden.is_empty()),
        }
    }
}
