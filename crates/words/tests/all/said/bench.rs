//! A day at the bench: a small plan, and what is said of every step and event of it.

use ready_slab_core::clock::{DayKitchen, DayPlace, Lane, Step};
use ready_slab_core::run::{
    CatchUp, ColdRun, Happened, HeldUp, RunLot, RunPlan, RunTask, Saves, Timer, TimerState, WentIn,
};
use ready_slab_words::Sentence;
use ready_slab_words::bench::{
    catch_up, done_button, happened, held_up, timer_headline, timer_note, timer_times, timer_title, went_in,
};

fn plan() -> RunPlan {
    let lot = |name: &str| RunLot {
        job_id: 1,
        name: name.to_owned(),
        mixed_by: None,
        wanted_min: 200.0,
        warm: false,
        oven_c: 175.0,
        about_min: 11.0,
        look_after_min: 10.0,
        one_piece: true,
        dough_cold: ColdRun::default(),
        tray_cold: ColdRun::default(),
        workable_min: None,
        too_cold: None,
        ..RunLot::default()
    };
    let order = [
        (Step::Mix, Lane::Hands, None),
        (Step::BulkChill, Lane::Cold, Some(DayPlace::Fridge)),
        (Step::Form, Lane::Hands, None),
        (Step::Chill, Lane::Cold, Some(DayPlace::Fridge)),
        (Step::Rest, Lane::Cooling, None),
        (Step::Cut, Lane::Hands, None),
        (Step::TrayChill, Lane::Cold, Some(DayPlace::Freezer)),
        (Step::Preheat, Lane::Oven, None),
        (Step::Bake, Lane::Oven, None),
        (Step::Cool, Lane::Cooling, None),
        (Step::CoolOnRack, Lane::Cooling, None),
        (Step::Finish, Lane::Hands, None),
        (Step::Dry, Lane::Cooling, None),
        (Step::Pack, Lane::Hands, None),
        (Step::Thaw, Lane::Cooling, Some(DayPlace::Counter)),
    ];
    let tasks = order.into_iter().enumerate().map(|(i, (step, lane, place))| RunTask {
        step,
        lane,
        lot: 0,
        mix: (i < 5).then_some(0),
        tray: (i > 4 && step != Step::Preheat && step != Step::Thaw).then_some(1),
        dough: 0,
        oven: None,
        place,
        start_min: 10.0,
        end_min: 20.0,
        least_min: 10.0,
        pieces: Some(20),
        does: format!("{step:?}"),
        after: i.checked_sub(1).filter(|_| step != Step::Preheat && step != Step::Thaw).into_iter().collect(),
    });
    let kitchen = DayKitchen {
        hands: 1,
        mixers: 1,
        fridge_slots: 1,
        freezer_slots: 1,
        trays: 2,
        ovens: 1,
        racks_per_oven: 2,
        preheat_min: 20,
        temp_change_min: 10,
        rechill_min: 0,
        cooling_slots: 2,
    };
    RunPlan { kitchen, lots: vec![lot("Gulls"), lot("Boats")], tasks: tasks.collect() }
}

pub fn bench() -> Vec<Sentence> {
    let p = plan();
    let mut said: Vec<Sentence> = (0..p.tasks.len()).map(|t| done_button(&p, t).as_str().into()).collect();
    for task in (0..p.tasks.len()).filter(|t| !p.tasks[*t].step.by_hand()) {
        for state in [TimerState::Counting, TimerState::Ready, TimerState::Due, TimerState::Over] {
            let to_begin = p.tasks[task].after.is_empty();
            let timer = Timer {
                tasks: vec![task],
                state,
                since_min: 0.0,
                due_min: 10.0,
                by_min: Some(12.0),
                shows_c: Some(7.4),
                measured: false,
                to_begin,
                went_in: None,
            };
            let (due, by) = timer_times(&p, &timer);
            let head = timer_headline(&p, &timer).unwrap_or("counts down");
            let line = format!("{} | {head} | {due}, {by}", timer_title(&p, &timer));
            said.push(line.as_str().into());
            said.extend(timer_note(&p, &timer));
        }
    }
    let (chill, tray_chill, bake, cut) = (3, 6, 8, 5);
    // What lies in the cold gets too cold, or keeps so long; what is to be seen on a tray is the lot's own.
    let mut other = plan();
    other.lots[0].too_cold = Some((40.0, 8.0));
    other.lots[0].look_for = "Done when the middle no longer shines, edge and underside are straw.".into();
    let timer = |tasks, state, went_in| Timer {
        tasks,
        state,
        since_min: 0.0,
        due_min: 10.0,
        by_min: None,
        shows_c: None,
        measured: false,
        to_begin: false,
        went_in,
    };
    said.push(timer_times(&other, &timer(vec![chill], TimerState::Counting, None)).1.into());
    said.extend(timer_note(&other, &timer(vec![bake], TimerState::Due, None)));
    let read = Timer { shows_c: Some(11.42), measured: true, ..timer(vec![chill], TimerState::Counting, None) };
    said.extend(timer_note(&other, &read));
    let how =
        |start_c, longer_min, spread| WentIn { start_c, planned_c: -2.0, longer_min, spread, planned_spread: 0.024 };
    for how in [how(9.0, -1.4, 0.031), how(-12.0, 0.8, 0.023), how(3.0, -0.2, 0.025), how(-1.0, -0.1, 0.024)] {
        said.extend(went_in(&how));
        said.extend(timer_note(&other, &timer(vec![bake], TimerState::Counting, Some(how))));
    }
    for task in [0, chill, bake] {
        said.push(held_up(&p, &HeldUp { task, min: 12.0 }));
    }
    let all = [
        Happened::Started { task: bake },
        Happened::Started { task: 7 },
        Happened::Started { task: cut },
        Happened::Done { task: bake },
        Happened::Done { task: chill },
        Happened::Done { task: cut },
        Happened::MoreTime { task: bake, min: 1.0 },
        Happened::TooSoft { task: cut, min: 15.0 },
        Happened::Elsewhere { task: tray_chill, place: DayPlace::Fridge },
        Happened::Dropped { task: tray_chill },
        Happened::PowerWent { min: 12.0 },
        Happened::Measured { task: chill, c: 21.5 },
        Happened::Counted { task: cut, pieces: 19 },
        Happened::TakenBack { event: 1 },
        Happened::Moved { event: 1, at_min: 3.0 },
    ];
    said.extend(all.iter().map(|what| happened(&p, what)));
    let saves = |what| Saves { what, min: 7.0 };
    said.push(catch_up(&p, &saves(CatchUp::Elsewhere { task: tray_chill, place: DayPlace::Fridge })));
    said.push(catch_up(&p, &saves(CatchUp::Elsewhere { task: chill, place: DayPlace::Freezer })));
    said.push(catch_up(&p, &saves(CatchUp::MoreHands)));
    said
}
