//! A day at the bench: a small plan, and what is said of every step and event of it.

use ready_slab_core::clock::{DayKitchen, DayPlace, Lane, Step};
use ready_slab_core::run::{CatchUp, ColdRun, Happened, RunLot, RunPlan, RunTask, Saves, Timer, TimerState};
use ready_slab_words::Sentence;
use ready_slab_words::bench::{catch_up, done_button, happened, timer_headline, timer_note, timer_times, timer_title};

fn plan() -> RunPlan {
    let lot = |name: &str| RunLot {
        job_id: 1,
        name: name.to_owned(),
        wanted_min: 200.0,
        warm: false,
        oven_c: 175.0,
        look_after_min: 10.0,
        one_piece: true,
        dough_cold: ColdRun::default(),
        tray_cold: ColdRun::default(),
        workable_min: None,
        too_cold: None,
        other_tray: None,
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
                to_begin,
            };
            let (due, by) = timer_times(&p, &timer);
            let head = timer_headline(&p, &timer).unwrap_or("counts down");
            let line = format!("{} | {head} | {due}, {by}", timer_title(&p, &timer));
            said.push(line.as_str().into());
            said.extend(timer_note(&p, &timer));
        }
    }
    let (chill, tray_chill, bake, cut) = (3, 6, 8, 5);
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
    said.push(catch_up(&p, &saves(CatchUp::TrayElsewhere { task: tray_chill, place: DayPlace::Fridge })));
    said.push(catch_up(&p, &saves(CatchUp::MoreHands)));
    said
}
