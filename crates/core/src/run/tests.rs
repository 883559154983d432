//! Days worked by hand, and sound in every order of events.

use super::plan::LotShape;
use super::*;
use crate::clock::{DayKitchen, DayPlace, Lane, Step};
use proptest::prelude::*;

fn kitchen(trays: u32, hands: u32) -> DayKitchen {
    DayKitchen {
        hands,
        mixers: 1,
        fridge_slots: 6,
        freezer_slots: 4,
        trays,
        ovens: 1,
        racks_per_oven: 1,
        preheat_min: 20,
        temp_change_min: 10,
        rechill_min: 0,
        cooling_slots: 8,
    }
}

fn lot(name: &str, wanted_min: f64) -> RunLot {
    RunLot {
        job_id: 1,
        name: name.to_owned(),
        wanted_min,
        warm: false,
        oven_c: 175.0,
        look_after_min: 10.0,
        one_piece: true,
        dough_cold: ColdRun { mean_c: vec![(0.0, 20.0), (10.0, 16.0), (20.0, 13.0), (60.0, 7.0)] },
        tray_cold: ColdRun { mean_c: vec![(0.0, 14.0), (10.0, 2.0), (20.0, -4.0)] },
        workable_min: Some((8.0, 14.0)),
        too_cold: Some((50.0, 6.0)),
        other_tray: Some((DayPlace::Freezer, 5.0)),
    }
}

/// `trays` trays of one mix: mixed 0 to 12, formed to 16, chilled 30, each cut in 6, chilled 12, baked 14, cooled 8.
fn plan(trays: u32, owned: u32) -> RunPlan {
    let task = |step, lane, mix: Option<u32>, tray: Option<u32>, start: f64, end: f64| RunTask {
        step,
        lane,
        lot: 0,
        mix,
        tray,
        oven: (lane == Lane::Oven).then_some(0),
        place: (lane == Lane::Cold).then_some(DayPlace::Fridge),
        start_min: start,
        end_min: end,
        least_min: end - start,
        pieces: tray.map(|_| 20),
        does: format!("{step:?} {tray:?}"),
        after: vec![],
    };
    let mut all = vec![
        task(Step::Mix, Lane::Hands, Some(0), None, 0.0, 12.0),
        task(Step::Form, Lane::Hands, Some(0), None, 12.0, 16.0),
        task(Step::Chill, Lane::Cold, Some(0), None, 16.0, 46.0),
        task(Step::Preheat, Lane::Oven, None, None, 44.0, 64.0),
    ];
    let mut end = 0.0;
    for tray in 0..trays {
        let bake = 64.0 + 14.0 * f64::from(tray);
        let on = Some(tray);
        all.push(task(Step::Cut, Lane::Hands, None, on, bake - 18.0, bake - 12.0));
        all.push(task(Step::TrayChill, Lane::Cold, None, on, bake - 12.0, bake));
        all.push(task(Step::Bake, Lane::Oven, None, on, bake, bake + 14.0));
        all.push(task(Step::Cool, Lane::Cooling, None, on, bake + 14.0, bake + 22.0));
        end = bake + 22.0;
    }
    let shapes = [LotShape { mixes: 1, trays, mixed_by: None }];
    RunPlan::new(kitchen(owned, 1), vec![lot("Gulls", end)], all, &shapes)
}

/// As it stands when somebody was at work from the first minute.
fn state(plan: &RunPlan, events: &[RunEvent], now_min: f64) -> RunState {
    super::state(plan, events, Moment { began_min: 0.0, now_min })
}

fn find(plan: &RunPlan, step: Step, tray: Option<u32>) -> usize {
    plan.tasks.iter().position(|t| t.step == step && t.tray == tray).unwrap()
}

fn event(id: i64, at_min: f64, what: Happened) -> RunEvent {
    RunEvent { id, at_min, what }
}

fn done(plan: &RunPlan, id: i64, at: f64, step: Step, tray: Option<u32>) -> RunEvent {
    event(id, at, Happened::Done { task: find(plan, step, tray) })
}

#[test]
fn before_anything_happened_the_day_lies_as_planned() {
    let p = plan(3, 4);
    let s = state(&p, &[], 0.0);
    for bar in &s.bars {
        let t = &p.tasks[bar.task];
        assert!((bar.start_min - t.start_min).abs() < 0.01 && (bar.end_min - t.end_min).abs() < 0.01, "{t:?} {bar:?}");
    }
    assert_eq!((s.hands[0].task, s.hands[0].now), (find(&p, Step::Mix, None), true));
    assert!(s.lots[0].late_min.abs() < 0.01 && s.catch_up.is_none() && !s.finished);
}

#[test]
fn dough_chills_from_when_it_was_formed_and_the_rest_moves_with_it() {
    let p = plan(2, 4);
    let events = [done(&p, 1, 15.0, Step::Mix, None), done(&p, 2, 26.0, Step::Form, None)];
    let s = state(&p, &events, 30.0);
    let chill = s.timers.iter().find(|t| t.tasks == [find(&p, Step::Chill, None)]).unwrap();
    // By hand: in at 26, 30 min long; ten minutes late, and so is all that follows.
    assert_eq!((chill.since_min, chill.due_min, chill.state), (26.0, 56.0, TimerState::Counting));
    assert!((chill.shows_c.unwrap() - 18.4).abs() < 0.01, "4 of 10 min from 20 to 16");
    let cut = s.bars.iter().find(|b| b.task == find(&p, Step::Cut, Some(0))).unwrap();
    assert_eq!((cut.start_min, s.lots[0].late_min), (56.0, 10.0));
    // In the freezer the first tray needs 5 of its 12 min; the second follows the first.
    assert!(matches!(s.catch_up, Some(Saves { what: CatchUp::TrayElsewhere { .. }, .. })) || s.catch_up.is_none());
}

#[test]
fn a_look_is_due_then_it_is_over_and_a_minute_more_puts_it_off() {
    let p = plan(1, 4);
    let bake = find(&p, Step::Bake, Some(0));
    let mut events = vec![done(&p, 1, 52.0, Step::Cut, Some(0)), event(2, 64.0, Happened::Started { task: bake })];
    let at = |events: &[RunEvent], now: f64| {
        let s = state(&p, events, now);
        s.timers.iter().find(|t| t.tasks == [bake]).map(|t| (t.state, t.due_min, t.by_min))
    };
    assert_eq!(at(&events, 70.0), Some((TimerState::Counting, 74.0, Some(78.0))));
    assert_eq!(at(&events, 74.0), Some((TimerState::Due, 74.0, Some(78.0))));
    assert_eq!(at(&events, 79.0), Some((TimerState::Over, 74.0, Some(78.0))));
    events.push(event(3, 78.0, Happened::MoreTime { task: bake, min: 2.0 }));
    assert_eq!(at(&events, 79.0), Some((TimerState::Due, 76.0, Some(80.0))));
    events.push(event(4, 80.0, Happened::Done { task: bake }));
    assert_eq!(at(&events, 81.0), None);
    let out = baked(&p, &events, 81.0);
    // In the cold from 52 to 64: 12 min, between 2 at 10 min and -4 at 20.
    assert_eq!((out.len(), out[0].baked_min, out[0].pieces), (1, 16.0, Some(20)));
    assert!((out[0].start_c.unwrap() - 0.8).abs() < 0.01);
}

#[test]
fn a_press_made_twice_counts_once_and_a_mistaken_one_is_taken_back() {
    let p = plan(1, 4);
    let mix = done(&p, 1, 12.0, Step::Mix, None);
    let twice = [mix.clone(), done(&p, 2, 13.0, Step::Mix, None)];
    assert_eq!(state(&p, &twice, 14.0).bars, state(&p, std::slice::from_ref(&mix), 14.0).bars);
    let back = [mix.clone(), event(3, 14.0, Happened::TakenBack { event: 1 })];
    assert_eq!(state(&p, &back, 14.0).bars, state(&p, &[], 14.0).bars);
    // What was taken back by mistake comes back.
    let again = [
        mix.clone(),
        event(3, 14.0, Happened::TakenBack { event: 1 }),
        event(4, 14.5, Happened::TakenBack { event: 3 }),
    ];
    assert_eq!(state(&p, &again, 15.0).bars, state(&p, std::slice::from_ref(&mix), 15.0).bars);
    let moved = [mix, event(5, 15.0, Happened::Moved { event: 1, at_min: 10.0 })];
    assert_eq!(effective(&moved)[0].at_min, 10.0);
}

#[test]
fn what_was_not_pressed_is_taken_to_have_been_done() {
    let p = plan(1, 4);
    // Nobody pressed anything until the first tray was cut.
    let s = state(&p, &[done(&p, 1, 55.0, Step::Cut, Some(0))], 56.0);
    let open: Vec<Step> = s.bars.iter().filter(|b| b.state != BarState::Done).map(|b| p.tasks[b.task].step).collect();
    assert!(!open.contains(&Step::Mix) && !open.contains(&Step::Chill), "{open:?}");
    assert!(s.timers.iter().any(|t| t.tasks == [find(&p, Step::TrayChill, Some(0))]));
}

#[test]
fn a_dropped_tray_is_gone_and_its_tray_is_free() {
    let p = plan(2, 2);
    let cut = done(&p, 1, 52.0, Step::Cut, Some(0));
    let before = state(&p, std::slice::from_ref(&cut), 54.0);
    let dropped = event(2, 54.0, Happened::Dropped { task: find(&p, Step::TrayChill, Some(0)) });
    let s = state(&p, &[cut, dropped], 54.0);
    assert_eq!((before.trays_free, s.trays_free), (1, 2));
    assert!(!s.bars.iter().any(|b| b.task == find(&p, Step::Bake, Some(0))));
    assert!(s.bars.iter().any(|b| b.task == find(&p, Step::Bake, Some(1))));
}

#[test]
fn dough_that_got_too_soft_waits_and_all_behind_it_does() {
    let p = plan(1, 4);
    let events = [
        done(&p, 1, 16.0, Step::Form, None),
        event(2, 50.0, Happened::TooSoft { task: find(&p, Step::Cut, Some(0)), min: 15.0 }),
    ];
    let s = state(&p, &events, 51.0);
    let cut = s.bars.iter().find(|b| b.task == find(&p, Step::Cut, Some(0))).unwrap();
    assert_eq!((cut.start_min, s.lots[0].late_min), (65.0, 19.0));
    let saved = s.catch_up.unwrap();
    assert!(
        matches!(saved.what, CatchUp::TrayElsewhere { place: DayPlace::Freezer, .. }) && (saved.min - 7.0).abs() < 0.01
    );
}

#[test]
fn of_dough_in_one_piece_all_is_too_soft_and_of_several_only_the_one() {
    let soft = |p: &RunPlan| event(2, 50.0, Happened::TooSoft { task: find(p, Step::Cut, Some(0)), min: 15.0 });
    let starts = |p: &RunPlan| {
        let s = state(p, &[done(p, 1, 16.0, Step::Form, None), soft(p)], 51.0);
        let cut = |tray| s.bars.iter().find(|b| b.task == find(p, Step::Cut, Some(tray))).unwrap().start_min;
        (cut(0), cut(1))
    };
    let p = plan(2, 4);
    assert_eq!(starts(&p), (65.0, 71.0));
    let several = RunPlan { lots: vec![RunLot { one_piece: false, ..p.lots[0].clone() }], ..p };
    // The other disc is cold: it is cut first, when it was to be.
    assert_eq!(starts(&several), (66.0, 60.0));
}

#[test]
fn warmer_dough_takes_longer_and_colder_dough_is_sooner_ready() {
    let run = lot("Gulls", 0.0).dough_cold;
    // By hand: it is at 16 after 10 min; 0.4 K a minute at its beginning.
    assert!((run.ahead_by(16.0) - 10.0).abs() < 1e-9 && (run.ahead_by(20.0)).abs() < 1e-9);
    assert!((run.ahead_by(22.0) + 5.0).abs() < 1e-9);
    let p = plan(1, 4);
    let chill = find(&p, Step::Chill, None);
    let events = [done(&p, 1, 16.0, Step::Form, None), event(2, 17.0, Happened::Measured { task: chill, c: 22.0 })];
    let s = state(&p, &events, 20.0);
    assert_eq!(s.timers.iter().find(|t| t.tasks == [chill]).unwrap().due_min, 51.0);
}

fn any_event(tasks: usize) -> impl Strategy<Value = Happened> {
    let task = 0..tasks;
    prop_oneof![
        6 => task.clone().prop_map(|task| Happened::Done { task }),
        3 => task.clone().prop_map(|task| Happened::Started { task }),
        1 => (task.clone(), 0.5f64..20.0).prop_map(|(task, min)| Happened::MoreTime { task, min }),
        1 => (task.clone(), 1f64..40.0).prop_map(|(task, min)| Happened::TooSoft { task, min }),
        1 => task.clone().prop_map(|task| Happened::Elsewhere { task, place: DayPlace::Freezer }),
        1 => task.clone().prop_map(|task| Happened::Dropped { task }),
        1 => (1f64..60.0).prop_map(|min| Happened::PowerWent { min }),
        1 => (task, -5f64..35.0).prop_map(|(task, c)| Happened::Measured { task, c }),
        1 => (1i64..40).prop_map(|event| Happened::TakenBack { event }),
        1 => (1i64..40, 0f64..200.0).prop_map(|(event, at_min)| Happened::Moved { event, at_min }),
    ]
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 200, ..ProptestConfig::default() })]

    /// Whatever is pressed, in whatever order, late or for nothing: time never runs backwards, no tray is used that is not there, and what is over
    /// its time says so.
    #[test]
    fn every_sequence_of_events_keeps_the_run_sound(
        trays in 1u32..5,
        owned in 1u32..5,
        events in prop::collection::vec((0f64..200.0, any_event(24)), 0..40),
        now in 0f64..260.0,
    ) {
        let p = plan(trays, owned);
        let events: Vec<RunEvent> = (1i64..).zip(events).map(|(id, (at, what))| event(id, at, what)).collect();
        let s = state(&p, &events, now);
        prop_assert_eq!(&state(&p, &events, now), &s, "the same each time");
        prop_assert!(s.trays_free <= owned);
        for bar in &s.bars {
            let t = &p.tasks[bar.task];
            prop_assert!(bar.start_min.is_finite() && bar.end_min >= bar.start_min, "{:?} {:?}", t, bar);
            if bar.state == BarState::ToCome {
                prop_assert!(bar.start_min >= now - 1e-6, "{:?} {:?}", t, bar);
            }
            for before in &t.after {
                if let Some(other) = s.bars.iter().find(|b| b.task == *before) {
                    prop_assert!(other.start_min <= bar.start_min + 1e-6, "{:?} after {:?}", bar, other);
                }
            }
        }
        for timer in &s.timers {
            let left = timer.due_min - now;
            prop_assert!(left >= 0.0 || timer.state != TimerState::Counting || timer.tasks.iter().all(|t| p.tasks[*t].ends_by_itself()), "{:?}", timer);
        }
        let mut open = s.bars.iter().filter(|b| b.state != BarState::Done);
        prop_assert_eq!(s.finished, open.next().is_none() );
        let _ = baked(&p, &events, now);
    }
}
