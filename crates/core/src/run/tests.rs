//! Days worked by hand, and sound in every order of events.

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
        mixed_by: None,
        wanted_min,
        warm: false,
        oven_c: 175.0,
        about_min: 11.0,
        look_after_min: 10.0,
        one_piece: true,
        dough_cold: ColdRun { mean_c: vec![(0.0, 20.0), (10.0, 16.0), (20.0, 13.0), (60.0, 7.0)] },
        tray_cold: ColdRun { mean_c: vec![(0.0, 14.0), (10.0, 2.0), (20.0, -4.0)] },
        workable_min: Some((8.0, 14.0)),
        too_cold: Some((50.0, 6.0)),
        tray_elsewhere: Some(Elsewhere {
            place: DayPlace::Freezer,
            least_min: 5.0,
            run: ColdRun { mean_c: vec![(0.0, 14.0), (5.0, 2.0), (10.0, -10.0)] },
        }),
        dough_from: [(14.0, 20.0), (20.0, 30.0), (26.0, 42.0)].map(from).to_vec(),
        goes_in_c: Some(0.8),
        bakes: [(-9.2, 15.0, 0.020), (0.8, 14.0, 0.024), (10.8, 12.0, 0.032)].map(bake).to_vec(),
        ..RunLot::default()
    }
}

/// From another temperature: as long, and a sixth of the way to the cold place after 10 min.
fn from((start_c, least_min): (f64, f64)) -> ColdFrom {
    ColdFrom {
        start_c,
        least_min,
        run: ColdRun { mean_c: vec![(0.0, start_c), (10.0, start_c - (start_c - 4.0) / 4.0)] },
    }
}

fn bake((start_c, bake_min, spread): (f64, f64, f64)) -> BakeAt {
    BakeAt { start_c, bake_min, spread }
}

/// `trays` trays of one mix: mixed 0 to 12, formed to 16, chilled 30, each cut in 6, chilled 12, baked 14, cooled 8.
fn plan(trays: u32, owned: u32) -> RunPlan {
    let task = |step, lane, mix: Option<u32>, tray: Option<u32>, start: f64, end: f64| RunTask {
        step,
        lane,
        lot: 0,
        mix,
        tray,
        dough: 0,
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
    RunPlan::new(kitchen(owned, 1), vec![lot("Gulls", end)], all)
}

/// As it stands when somebody was at work from the first minute.
fn state(plan: &RunPlan, events: &[RunEvent], now_min: f64) -> RunState {
    super::state(plan, events, &[], Moment { began_min: 0.0, now_min })
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
    assert!(matches!(s.catch_up, Some(Saves { what: CatchUp::Elsewhere { .. }, .. })) || s.catch_up.is_none());
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
fn a_tray_is_cut_when_there_is_a_place_in_the_cold_for_it() {
    // One place in the fridge, as planned: a tray chills while the next is cut, and goes in when that comes out.
    let mut one = plan(2, 4);
    one.kitchen.fridge_slots = 1;
    let second = find(&one, Step::Cut, Some(1));
    assert!((state(&one, &[], 0.0).bars[second].start_min - 60.0).abs() < 1e-9);
    // The first is baked 20 min late: the second is ready to be cut when it comes out of the fridge.
    let chill = find(&one, Step::TrayChill, Some(0));
    let late = [done(&one, 1, 52.0, Step::Cut, Some(0)), event(2, 60.0, Happened::MoreTime { task: chill, min: 20.0 })];
    let now = state(&one, &late, 60.0);
    assert!((now.bars[find(&one, Step::Bake, Some(0))].start_min - 84.0).abs() < 1e-9);
    assert!((now.bars[second].end_min - 84.0).abs() < 1e-9);
    // With two places it is cut as planned.
    one.kitchen.fridge_slots = 2;
    assert!((state(&one, &late, 60.0).bars[second].start_min - 60.0).abs() < 1e-9);
}

#[test]
fn a_tray_bakes_when_it_can_stand_somewhere_to_cool() {
    let mut one = plan(2, 4);
    one.kitchen.cooling_slots = 1;
    let (first, second) = (find(&one, Step::Cool, Some(0)), find(&one, Step::Bake, Some(1)));
    let slow = [
        done(&one, 1, 66.0, Step::Cut, Some(1)),
        done(&one, 2, 78.0, Step::Bake, Some(0)),
        event(3, 79.0, Happened::MoreTime { task: first, min: 30.0 }),
    ];
    // The first cools from 78 to 116, and the second comes out then.
    assert!((state(&one, &slow, 79.0).bars[second].end_min - 116.0).abs() < 1e-9);
    one.kitchen.cooling_slots = 2;
    assert!((state(&one, &slow, 79.0).bars[second].end_min - 93.0).abs() < 1e-9);
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
        matches!(saved.what, CatchUp::Elsewhere { place: DayPlace::Freezer, .. }) && (saved.min - 7.0).abs() < 0.01
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
    let gulls = lot("Gulls", 0.0);
    // By hand: 12 min more for 6 K, 10 less; the planned 20 degrees ask 30 min.
    assert_eq!([20.0, 22.0, 17.0, 35.0].map(|c| gulls.ahead_by(c)), [0.0, -4.0, 5.0, -12.0]);
    let p = plan(1, 4);
    let chill = find(&p, Step::Chill, None);
    let measured = |c: f64| {
        let events = [done(&p, 1, 16.0, Step::Form, None), event(2, 17.0, Happened::Measured { task: chill, c })];
        let s = state(&p, &events, 26.0);
        let timer = s.timers.into_iter().find(|t| t.tasks == [chill]).unwrap();
        (timer.due_min, timer.by_min.unwrap(), timer.shows_c.unwrap())
    };
    // Ten minutes in, it has gone a quarter of the way to 4 degrees, from wherever it began; too cold 50 min in, as planned.
    let ((due, by, shows), (planned, planned_by, planned_shows)) = (measured(22.0), measured(20.0));
    assert_eq!((due, by, planned, planned_by), (50.0, 70.0, 46.0, 66.0));
    assert!((shows - 17.5).abs() < 1e-9 && (planned_shows - 16.0).abs() < 1e-9, "{shows} {planned_shows}");
    // Where nothing was asked, nothing is made up.
    assert_eq!(RunLot { dough_from: vec![], ..gulls }.ahead_by(30.0), 0.0);
}

#[test]
fn dough_that_never_gets_too_cold_keeps_so_long() {
    let mut p = plan(1, 4);
    (p.lots[0].too_cold, p.lots[0].keeps_min) = (None, Some(2880.0));
    let s = state(&p, &[done(&p, 1, 16.0, Step::Form, None)], 20.0);
    let chill = s.timers.iter().find(|t| t.tasks == [find(&p, Step::Chill, None)]).unwrap();
    assert_eq!(chill.by_min, Some(16.0 + 2880.0));
}

#[test]
fn a_tray_that_goes_in_warmer_is_done_sooner_and_spreads_more() {
    let p = plan(1, 4);
    let bake = find(&p, Step::Bake, Some(0));
    let goes_in = |at: f64| {
        let events = [done(&p, 1, 52.0, Step::Cut, Some(0)), event(2, at, Happened::Started { task: bake })];
        let s = state(&p, &events, at + 1.0);
        let timer = s.timers.into_iter().find(|t| t.tasks == [bake]).unwrap();
        (timer.due_min - at, timer.by_min.unwrap() - at, timer.went_in.unwrap())
    };
    // By hand: after 5 min in the cold it is at 8 degrees, 0.72 of the way from 0.8 to 10.8: 1.44 min less, 0.576 % more.
    let (look, out, how) = goes_in(57.0);
    assert!((look - 8.56).abs() < 1e-9 && (out - 12.56).abs() < 1e-9, "{look} {out}");
    assert!((how.start_c - 8.0).abs() < 1e-9 && (how.longer_min + 1.44).abs() < 1e-9, "{how:?}");
    assert!((how.spread - 0.02976).abs() < 1e-9 && (how.planned_spread, how.planned_c) == (0.024, 0.8), "{how:?}");
    // And at -4 after 20: 0.48 min longer.
    let (_, out, how) = goes_in(72.0);
    assert!((out - 14.48).abs() < 1e-9 && (how.spread - 0.02208).abs() < 1e-9, "{out} {how:?}");
}

#[test]
fn pieces_left_on_the_counter_go_in_as_warm_as_it_made_them() {
    let mut p = plan(1, 4);
    let (cut, chill, bake) =
        (find(&p, Step::Cut, Some(0)), find(&p, Step::TrayChill, Some(0)), find(&p, Step::Bake, Some(0)));
    p.tasks[bake].after = vec![cut];
    p.tasks[chill].tray = None;
    p.lots[0].tray_counter = ColdRun { mean_c: vec![(0.0, 2.0), (20.0, 10.0)] };
    let events = [event(1, 52.0, Happened::Done { task: cut }), event(2, 67.0, Happened::Started { task: bake })];
    let s = state(&p, &events, 68.0);
    let how = s.timers.iter().find(|t| t.tasks == [bake]).and_then(|t| t.went_in).unwrap();
    // A quarter of an hour of the twenty minutes from 2 to 10.
    assert!((how.start_c - 8.0).abs() < 1e-9 && how.spread > how.planned_spread, "{how:?}");
}

#[test]
fn what_a_press_changed_is_told_beside_what_it_was() {
    let p = plan(2, 4);
    let cut = |tray| find(&p, Step::Cut, Some(tray));
    let formed = done(&p, 1, 16.0, Step::Form, None);
    // A press at its time changes nothing.
    assert_eq!(state(&p, std::slice::from_ref(&formed), 17.0).changed, None);
    let hot = event(2, 44.0, Happened::Started { task: find(&p, Step::Preheat, None) });
    let noted = [formed, hot, event(3, 50.0, Happened::TooSoft { task: cut(0), min: 15.0 })];
    let changed = state(&p, &noted, 55.0).changed.unwrap();
    // By hand: cut at 65 and 71, not 46 and 60 at once; the load in at 83, not 64, and all is done by 119.
    assert_eq!((changed.event, changed.lots.len()), (3, 1));
    assert_eq!((changed.lots[0].from_min, changed.lots[0].to_min), (100.0, 119.0));
    assert_eq!(changed.work.iter().map(|s| (s.of, s.to_min)).collect::<Vec<_>>(), [(cut(0), 65.0), (cut(1), 71.0)]);
    // It stays told as it was then; taken back, what that changes is told.
    assert_eq!(state(&p, &noted, 58.0).changed, Some(changed));
    let back = event(4, 52.0, Happened::TakenBack { event: 3 });
    let changed = state(&p, &[noted.as_slice(), &[back]].concat(), 53.0).changed.unwrap();
    assert_eq!((changed.event, changed.lots[0].to_min), (4, 100.0));
}

#[test]
fn what_holds_a_run_up_is_the_step_that_lost_the_time_not_what_waited_for_it() {
    let p = plan(2, 4);
    let held = |events: &[RunEvent], now: f64| state(&p, events, now).held_up.map(|h| (h.task, h.min));
    let mixed = done(&p, 1, 24.0, Step::Mix, None);
    assert_eq!(held(std::slice::from_ref(&mixed), 25.0), Some((find(&p, Step::Mix, None), 12.0)));
    let formed = done(&p, 2, 28.0, Step::Form, None);
    assert_eq!(held(&[mixed.clone(), formed.clone()], 30.0), Some((find(&p, Step::Mix, None), 12.0)));
    let warm = event(3, 29.0, Happened::Measured { task: find(&p, Step::Chill, None), c: 35.0 });
    let more = [mixed, formed, warm];
    assert!(held(&more, 30.0).is_some_and(|(_, min)| (min - 12.0).abs() < 1e-9), "{:?}", held(&more, 30.0));
    // Nothing holds up what is in time.
    assert_eq!(held(&[done(&p, 1, 12.0, Step::Mix, None)], 13.0), None);
}

#[test]
fn what_is_moved_half_way_keeps_the_half_that_is_done() {
    let p = plan(1, 4);
    let (cut, chill) = (done(&p, 1, 52.0, Step::Cut, Some(0)), find(&p, Step::TrayChill, Some(0)));
    let timer =
        |events: &[RunEvent], now: f64| state(&p, events, now).timers.into_iter().find(|t| t.tasks == [chill]).unwrap();
    let moved = |at: f64| [cut.clone(), event(2, at, Happened::Elsewhere { task: chill, place: DayPlace::Freezer })];
    // By hand: 12 min in the fridge or 5 in the freezer; after 6 in the fridge 2.5 are left, and no sooner.
    assert_eq!(timer(std::slice::from_ref(&cut), 53.0).due_min, 64.0);
    assert_eq!(timer(&moved(52.0), 53.0).due_min, 57.0);
    assert_eq!(timer(&moved(58.0), 59.0).due_min, 60.5);
    // At 6.8 degrees after 6 min, where the freezer's has been 3 min; 2 min on it is as that after 5.
    assert!((timer(&moved(58.0), 60.0).shows_c.unwrap() - 2.0).abs() < 1e-9);
    // Once more into the same place changes nothing.
    let again =
        [moved(58.0).as_slice(), &[event(3, 60.0, Happened::Elsewhere { task: chill, place: DayPlace::Freezer })]]
            .concat();
    assert_eq!(timer(&again, 60.0).due_min, 60.5);
}

#[test]
fn late_dough_is_sooner_ready_in_the_freezer_and_that_is_offered() {
    let mut p = plan(1, 4);
    p.lots[0].tray_elsewhere = None;
    let run = ColdRun { mean_c: vec![(0.0, 20.0), (12.0, 5.0)] };
    p.lots[0].dough_elsewhere = Some(Elsewhere { place: DayPlace::Freezer, least_min: 12.0, run });
    let mut events = vec![
        event(1, 44.0, Happened::Started { task: find(&p, Step::Preheat, None) }),
        done(&p, 2, 40.0, Step::Form, None),
    ];
    let s = state(&p, &events, 50.0);
    let chill = find(&p, Step::Chill, None);
    // Formed 24 min late; a third of its 30 min is done, so 8 of 12 are left: 58, not 70.
    assert_eq!(
        (s.lots[0].late_min, s.catch_up.unwrap().what),
        (24.0, CatchUp::Elsewhere { task: chill, place: DayPlace::Freezer })
    );
    assert!((s.catch_up.unwrap().min - 12.0).abs() < 1e-9, "{:?}", s.catch_up);
    events.push(event(3, 50.0, Happened::Elsewhere { task: chill, place: DayPlace::Freezer }));
    assert!((state(&p, &events, 50.0).lots[0].late_min - 12.0).abs() < 1e-9);
}

#[test]
fn a_thermometer_in_the_dough_goes_before_what_the_plan_thought() {
    let mut p = plan(1, 4);
    let (formed, chill) = (done(&p, 1, 16.0, Step::Form, None), find(&p, Step::Chill, None));
    let piece = Followed { job_id: 1, cut: false, put_in_min: 18.0, ready_min: Some(58.0), shows_c: 11.4 };
    let told = |p: &RunPlan, piece: Followed| {
        let s = super::state(p, std::slice::from_ref(&formed), &[piece], Moment { began_min: 0.0, now_min: 30.0 });
        let timer = s.timers.iter().find(|t| t.tasks == [chill]).unwrap().clone();
        (timer.due_min, timer.measured, timer.shows_c, s.lots[0].late_min)
    };
    let shows = |p: &RunPlan, piece| (told(p, piece).0, told(p, piece).1);
    // It stays as long as somebody said: the reading is shown, and moves nothing.
    assert_eq!(shows(&p, piece), (46.0, true));
    p.lots[0].dough_waits_min = Some(20.0);
    assert_eq!(told(&p, piece), (58.0, true, Some(11.4), 12.0));
    // At least twenty minutes, however cold it is.
    assert_eq!(shows(&p, Followed { ready_min: Some(25.0), ..piece }).0, 36.0);
    // Another job's, cut pieces, and what went in at another time are not this dough.
    assert_eq!(shows(&p, Followed { job_id: 2, ..piece }), (46.0, false));
    assert_eq!(shows(&p, Followed { cut: true, ..piece }), (46.0, false));
    assert_eq!(shows(&p, Followed { put_in_min: -90.0, ..piece }), (46.0, false));
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
        1 => (task.clone(), -5f64..35.0).prop_map(|(task, c)| Happened::Measured { task, c }),
        1 => (task.clone(), 0u32..30).prop_map(|(task, pieces)| Happened::Counted { task, pieces }),
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

#[test]
fn a_clock_that_is_set_back_undoes_nothing_that_was_noted() {
    let events = [event(1, 100.0, Happened::Done { task: 0 }), event(2, 130.0, Happened::Done { task: 1 })];
    for (clock, now) in [(131.0, 131.0), (71.0, 130.0), (5.0, 100.0), (-60.0, -60.0)] {
        assert_eq!(not_before_noted(clock, &events), now, "{clock}");
    }
    assert_eq!(not_before_noted(5.0, &[]), 5.0);
    // What was noted by a clock a day ahead holds nothing up.
    let ahead = [event(3, 1_580.0, Happened::Done { task: 2 })];
    assert_eq!(not_before_noted(140.0, &ahead), 140.0);
    assert_eq!(none_ahead(&ahead, 140.0)[0].at_min, 140.0, "and yet it has happened");
    assert_eq!(none_ahead(&events, 140.0), events);
}
