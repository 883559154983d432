//! A date of several jobs, and its run, from real plans.

use crate::bakehouse::{job_input, kitchen_input, lemon_thyme, planned, round};
use chrono::TimeDelta;
use ready_slab_core::clock::{DayPlace, Lane, Relay, Step};
use ready_slab_core::job::{
    ColdPlace, DayHelp, Job, Kitchen, KitchenInput, LotPlan, Plan, RunsLot, Shared, day_clashes, day_helps, day_shares,
    plan_date, run_plan, wanted_before,
};
use ready_slab_core::run::{BarState, Happened, Moment, RunEvent, RunPlan, RunState, TimerState, baked, state};

/// A job wanted so many minutes after the usual one, in a kitchen.
fn job(pieces: u32, later_min: i64, kitchen: &KitchenInput) -> (Job, Plan) {
    let usual = job_input();
    let ready_by = usual.order.ready_by + TimeDelta::minutes(later_min);
    let input = usual.with(|j| {
        j.order.pieces = pieces;
        j.order.ready_by = ready_by;
    });
    let plan = planned(input.clone(), kitchen.clone(), &lemon_thyme(), &round(65.0)).unwrap();
    (Job::new(input).unwrap(), plan)
}

fn lots(all: &[(Job, Plan)]) -> Vec<LotPlan<'_>> {
    all.iter().map(|(job, plan)| LotPlan { job, plan, mixed_by: None }).collect()
}

fn date(kitchen: &KitchenInput, all: &[(Job, Plan)]) -> Relay {
    plan_date(&Kitchen::new(kitchen.clone()).unwrap(), &lots(all), None).relay
}

#[test]
fn each_job_of_a_date_is_ready_when_it_is_wanted_itself() {
    let kitchen = kitchen_input();
    let all = [job(20, 0, &kitchen), job(20, 90, &kitchen)];
    let relay = date(&kitchen, &all);
    let before = wanted_before(Kitchen::new(kitchen).unwrap().zone(), &lots(&all));
    assert_eq!(before, [90, 0]);
    let last = |lot: u32| relay.tasks.iter().filter(|t| t.lot == lot).map(|t| t.end_min).max();
    assert!(last(0) <= Some(-90) && last(1) == Some(0), "{:?} {:?}", last(0), last(1));
    // Its part, told from its own wanted time.
    let own = relay.of_lots(|lot| (lot == 0).then_some(0), 90);
    assert!(own.tasks.iter().all(|t| t.lot == 0 && t.end_min <= 0) && own.start_min < 0);
}

#[test]
fn two_jobs_of_one_heat_share_a_load_where_the_oven_takes_two_trays() {
    let one = kitchen_input();
    let two = kitchen_input().with(|k| k.oven.racks_per_oven = 2);
    let shares = |kitchen: &KitchenInput| {
        let all = [job(10, 0, kitchen), job(10, 0, kitchen)];
        day_shares(&lots(&all), &date(kitchen, &all))
    };
    assert_eq!(shares(&one), []);
    assert_eq!(shares(&two), [Shared::Load(vec![0, 1])]);
    let all = [job(10, 0, &one), job(10, 0, &one)];
    let mut mixed = lots(&all);
    mixed[1].mixed_by = Some(0);
    let relay = plan_date(&Kitchen::new(one).unwrap(), &mixed, None).relay;
    assert_eq!(day_shares(&mixed, &relay), [Shared::Dough(vec![0, 1])]);
}

#[test]
fn what_would_help_a_day_lets_it_start_later_by_as_much() {
    let short = kitchen_input().with(|k| k.trays.trays_owned = 1);
    let all = [job(60, 0, &short), job(60, 30, &short)];
    let (relay, kitchen) = (date(&short, &all), Kitchen::new(short.clone()).unwrap());
    let gains = day_helps(&kitchen, &lots(&all), &relay, &[None, None]);
    let tray = gains.iter().find(|g| g.help == DayHelp::Tray).expect("one tray is too few");
    let more = date(&short.with(|k| k.trays.trays_owned = 2), &all);
    // The searches differ in how long they look.
    assert!((more.start_min - relay.start_min - tray.gain_min).abs() <= 5, "{tray:?} {}", more.start_min);
    assert!(gains.windows(2).all(|g| g[0].gain_min >= g[1].gain_min) && gains.len() <= 3);
    // Dough that is not in the fridge does not go from there into the freezer.
    let frozen = all[0].0.input().clone().with(|j| j.cold.chill_place = ColdPlace::Freezer);
    assert_eq!(Job::new(frozen).unwrap().with_dough_frozen(), None);
}

fn run(kitchen: &KitchenInput, all: &[(Job, Plan)]) -> RunPlan {
    let lots = lots(all);
    let elsewhere: Vec<Plan> = all
        .iter()
        .map(|(job, _)| {
            let other = job.with_trays_in(ColdPlace::Freezer).unwrap();
            planned(other.input().clone(), kitchen.clone(), &lemon_thyme(), &round(65.0)).unwrap()
        })
        .collect();
    let lots: Vec<RunsLot> = (1..)
        .zip(lots)
        .zip(&elsewhere)
        .map(|((job_id, lot), elsewhere)| RunsLot {
            job_id,
            lot,
            elsewhere: Some(elsewhere),
            frozen: None,
            look_for: "edges golden",
        })
        .collect();
    run_plan(&Kitchen::new(kitchen.clone()).unwrap(), &lots, &date(kitchen, all), |t| format!("{:?}", t.step))
}

fn at(plan: &RunPlan, events: &[RunEvent], now_min: f64) -> RunState {
    state(plan, events, &[], Moment { began_min: 0.0, now_min })
}

fn find(plan: &RunPlan, step: Step, lot: usize, tray: Option<u32>) -> usize {
    plan.tasks.iter().position(|t| t.step == step && t.lot == lot && t.tray == tray).unwrap()
}

#[test]
fn a_run_of_a_planned_date_begins_as_it_was_planned() {
    let kitchen = kitchen_input().with(|k| k.oven.racks_per_oven = 2);
    let all = [job(48, 0, &kitchen), job(24, 60, &kitchen)];
    let plan = run(&kitchen, &all);
    assert!(plan.holds_together());
    assert_eq!(plan.lots.iter().map(|l| l.wanted_min).collect::<Vec<_>>()[1], plan.lots[0].wanted_min + 60.0);
    let s = at(&plan, &[], 0.0);
    for bar in &s.bars {
        let t = &plan.tasks[bar.task];
        assert!((bar.start_min - t.start_min).abs() < 0.01, "{t:?} lies at {}", bar.start_min);
    }
    assert!(s.lots.iter().all(|l| l.late_min.abs() < 0.01), "{:?}", s.lots);
    // Every step but the first of a dough, and heating, has something before it.
    for t in plan.tasks.iter().filter(|t| t.step != Step::Mix && t.step != Step::Preheat) {
        assert!(!t.after.is_empty(), "{t:?}");
        assert!(t.after.iter().all(|b| plan.tasks[*b].start_min <= t.start_min), "{t:?}");
    }
    // Trays of a load go in together, whatever happens to one of them before.
    let load = (0..plan.tasks.len()).map(|t| plan.load_of(t)).find(|l| l.len() == 2).expect("two racks");
    let cut = find(&plan, Step::Cut, 0, plan.tasks[*load.last().unwrap()].tray);
    let slow = RunEvent { id: 1, at_min: 0.0, what: Happened::MoreTime { task: cut, min: 25.0 } };
    let s = at(&plan, &[slow], 0.0);
    let starts: Vec<f64> = load.iter().map(|t| s.bars.iter().find(|b| b.task == *t).unwrap().start_min).collect();
    assert!(load.len() == 2 && (starts[0] - starts[1]).abs() < 0.01 && s.lots[0].late_min > 1.0, "{starts:?}");
}

#[test]
fn a_tray_that_lay_in_the_cold_for_longer_goes_in_colder() {
    let kitchen = kitchen_input();
    let all = [job(20, 0, &kitchen)];
    let plan = run(&kitchen, &all);
    let (cut, bake) = (find(&plan, Step::Cut, 0, Some(0)), find(&plan, Step::Bake, 0, Some(0)));
    let went_in = |after: f64| {
        let done = |id, at_min, what| RunEvent { id, at_min, what };
        let events = [
            done(1, 100.0, Happened::Done { task: cut }),
            done(2, 100.0 + after, Happened::Started { task: bake }),
            done(3, 115.0 + after, Happened::Done { task: bake }),
        ];
        baked(&plan, &events, 400.0)[0].start_c.unwrap()
    };
    let (soon, later, long) = (went_in(2.0), went_in(12.0), went_in(170.0));
    assert!(soon > later && later > long, "{soon} {later} {long}");
    // After three hours it is as cold as the freezer (-18 degC), within a degree.
    assert!((long + 18.0).abs() < 1.0 && soon < kitchen.house.room_c, "{long}");
}

#[test]
fn the_power_goes_and_what_is_in_the_oven_takes_longer() {
    let kitchen = kitchen_input();
    let plan = run(&kitchen, &[job(20, 0, &kitchen)]);
    let bake = find(&plan, Step::Bake, 0, Some(0));
    let start = plan.tasks[bake].start_min;
    let mut events = vec![RunEvent { id: 1, at_min: start, what: Happened::Started { task: bake } }];
    let due = |events: &[RunEvent]| {
        let s = at(&plan, events, start + 3.0);
        let timer = s.timers.iter().find(|t| t.tasks == [bake]).unwrap().clone();
        (timer.due_min, timer.by_min.unwrap(), timer.state)
    };
    let before = due(&events);
    events.push(RunEvent { id: 2, at_min: start + 2.0, what: Happened::PowerWent { min: 12.0 } });
    let after = due(&events);
    assert_eq!((after.0 - before.0, after.1 - before.1, after.2), (12.0, 12.0, TimerState::Counting));
}

#[test]
fn a_tray_elsewhere_takes_the_time_of_that_place() {
    let fridge = kitchen_input();
    let usual = job_input().with(|j| {
        j.cold.tray_chill_place = ColdPlace::Fridge;
        j.order.pieces = 20;
    });
    let planned_so = planned(usual.clone(), fridge.clone(), &lemon_thyme(), &round(65.0)).unwrap();
    let plan = run(&fridge, &[(Job::new(usual).unwrap(), planned_so)]);
    let (cut, chill) = (find(&plan, Step::Cut, 0, Some(0)), find(&plan, Step::TrayChill, 0, Some(0)));
    let other = plan.lots[0].tray_elsewhere.as_ref().unwrap();
    let (place, least) = (other.place, other.least_min);
    assert_eq!((place, plan.tasks[chill].place), (DayPlace::Freezer, Some(DayPlace::Fridge)));
    assert!(least < plan.tasks[chill].least_min, "a freezer is faster (facts of the trade)");
    let events = [
        RunEvent { id: 1, at_min: 50.0, what: Happened::Done { task: cut } },
        RunEvent { id: 2, at_min: 50.0, what: Happened::Elsewhere { task: chill, place } },
    ];
    let s = at(&plan, &events, 52.0);
    assert_eq!(s.timers.iter().find(|t| t.tasks == [chill]).unwrap().due_min, 50.0 + least);
    assert!(s.bars.iter().any(|b| b.task == chill && b.state == BarState::On));
}

/// What a run says between the temperatures that were asked, beside the same job planned with its dough, or its pieces, as measured: the whole plan asked
/// again, not the run's own table.
#[test]
fn a_run_asks_physics_what_the_plan_of_a_measured_job_answers() {
    let kitchen = kitchen_input();
    let all = [job(20, 0, &kitchen)];
    let run = run(&kitchen, &all);
    let (lot, usual) = (&run.lots[0], all[0].0.input().clone());
    let planned = |input| planned(input, kitchen.clone(), &lemon_thyme(), &round(65.0)).unwrap();
    // It waits for the slow end of the range.
    let ready = |plan: &Plan| plan.cold.answer.ready_between.unwrap().1.min();
    let start = lot.dough_cold.at(0.0).unwrap();
    for by in [-2.0, 1.5, 4.5] {
        let other = planned(usual.clone().with(|j| j.dough.dough_c = Some(start + by)));
        let sooner = ready(&all[0].1) - ready(&other);
        assert!((lot.ahead_by(start + by) - sooner).abs() < 2.0, "{by} K: {} and {sooner}", lot.ahead_by(start + by));
        assert!((lot.ahead_by(start + by) > 0.0) == (by < 0.0), "warmer dough takes longer");
        let curve = &other.cold.answer.curve;
        let half = &curve[curve.len() / 2];
        let told = lot.dough_at(Some(start + by), half.after.min()).unwrap();
        assert!((told - half.mean.c()).abs() < 0.5, "{by} K: {told} and {} after {}", half.mean.c(), half.after.min());
    }
    for c in [-9.0, 0.0, 15.0] {
        let other = planned(usual.clone().with(|j| j.oven.goes_in_c = Some(c)));
        let (told, found) = (lot.bake_at(c).unwrap(), other.oven.forecast.unwrap());
        let spread = found.spread.value();
        assert!((told.bake_min - found.bake.min()).abs() < 0.4, "{c}: {} and {}", told.bake_min, found.bake.min());
        assert!((told.spread - spread).abs() < 0.005, "{c}: {} and {spread}", told.spread);
    }
}

#[test]
fn two_dates_clash_where_both_want_the_only_hands_or_the_only_oven() {
    let one = kitchen_input();
    let all = [job(20, 0, &one)];
    let relay = date(&one, &all);
    let clashes =
        |kitchen: &KitchenInput, later| day_clashes(&Kitchen::new(kitchen.clone()).unwrap(), &relay, &relay, later);
    // The same day twice at once: whatever hands do, both want them.
    let at_once = clashes(&one, 0);
    let hands: i64 = at_once.iter().filter(|c| c.lane == Lane::Hands).map(|c| c.to_min - c.from_min).sum();
    assert_eq!(hands, relay.hands_min);
    assert!(at_once.iter().any(|c| c.lane == Lane::Oven), "{at_once:?}");
    assert_eq!(clashes(&one, 24 * 60), [], "a day apart they do not meet");
    let two = kitchen_input().with(|k| k.house.hands = 2);
    assert!(clashes(&two, 0).iter().all(|c| c.lane == Lane::Oven), "two people do both");
}
