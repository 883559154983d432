//! Runs on real files.

use chrono::{NaiveDate, TimeDelta};
use ready_slab_core::clock::{DayKitchen, Lane, Step};
use ready_slab_core::run::{ColdRun, Happened, RunLot, RunPlan, RunTask};
use ready_slab_store::{NewRun, RunId, Store, StoreError};

fn plan() -> RunPlan {
    let lot = RunLot {
        job_id: 1,
        name: "Gulls".into(),
        mixed_by: None,
        wanted_min: 12.0,
        warm: false,
        oven_c: 175.0,
        about_min: 11.0,
        look_after_min: 10.0,
        one_piece: true,
        dough_cold: ColdRun { mean_c: vec![(0.0, 20.5), (10.0, 14.25)] },
        tray_cold: ColdRun::default(),
        workable_min: Some((8.0, 14.0)),
        too_cold: None,
        ..RunLot::default()
    };
    let task = RunTask {
        step: Step::Mix,
        lane: Lane::Hands,
        lot: 0,
        mix: Some(0),
        tray: None,
        dough: 0,
        oven: None,
        place: None,
        start_min: 0.0,
        end_min: 12.0,
        least_min: 12.0,
        pieces: None,
        does: "Weigh and mix the dough".into(),
        after: vec![],
    };
    let kitchen = DayKitchen {
        hands: 1,
        mixers: 1,
        fridge_slots: 6,
        freezer_slots: 4,
        trays: 4,
        ovens: 1,
        racks_per_oven: 1,
        preheat_min: 20,
        temp_change_min: 10,
        rechill_min: 0,
        cooling_slots: 8,
    };
    RunPlan { kitchen, lots: vec![lot], tasks: vec![task] }
}

fn new() -> NewRun {
    let zero_at = NaiveDate::from_ymd_opt(2026, 11, 28).unwrap().and_hms_milli_opt(11, 18, 0, 250).unwrap().and_utc();
    NewRun {
        name: "Gulls".into(),
        day: NaiveDate::from_ymd_opt(2026, 11, 28).unwrap(),
        zero_at,
        began_at: zero_at + TimeDelta::minutes(3),
        began_min: 3.0,
        speed: 1.0,
        plan: plan(),
    }
}

async fn empty() -> (tempfile::TempDir, Store) {
    let dir = tempfile::tempdir().unwrap();
    let store = Store::open(&dir.path().join("bakery.db")).await.unwrap();
    (dir, store)
}

#[tokio::test]
async fn a_run_comes_back_whole_with_what_happened_also_from_a_reopened_file() {
    let (dir, store) = empty().await;
    let id = store.add_run(&new()).await.unwrap();
    let done = || Happened::Done { task: 0 };
    store.note_events(id, new().began_at, &[("a".into(), 12.5, done())]).await.unwrap();
    // The same press again is not noted again; another one is, after it.
    let more = [("a".into(), 99.0, done()), ("b".into(), 4.0, Happened::TakenBack { event: 1 })];
    store.note_events(id, new().began_at, &more).await.unwrap();
    store.close().await;
    let store = Store::open(&dir.path().join("bakery.db")).await.unwrap();
    let back = store.run(id).await.unwrap();
    assert_eq!((back.run, back.ended_at), (new(), None));
    let events = store.run_events(id).await.unwrap();
    let told: Vec<_> = events.iter().map(|e| (e.at_min, e.what.clone())).collect();
    assert_eq!(told, [(12.5, done()), (4.0, Happened::TakenBack { event: 1 })]);
    assert!(events[0].id < events[1].id);
}

#[tokio::test]
async fn a_run_is_no_edit_and_ends_once() {
    let (_dir, store) = empty().await;
    let (first, second) = (store.add_run(&new()).await.unwrap(), store.add_run(&new()).await.unwrap());
    assert!(store.history().await.unwrap().undo.is_none(), "there is nothing to undo");
    let open: Vec<RunId> = store.open_runs().await.unwrap().iter().map(|r| r.id).collect();
    assert_eq!(open, [second, first]);
    let end = new().began_at + TimeDelta::hours(2);
    store.end_run(first, end).await.unwrap();
    store.end_run(first, end + TimeDelta::hours(1)).await.unwrap();
    assert_eq!(store.run(first).await.unwrap().ended_at, Some(end));
    assert_eq!(store.open_runs().await.unwrap().len(), 1);
    let missing = store.end_run(RunId(99), end).await.unwrap_err();
    assert!(matches!(missing, StoreError::NotFound { thing: "run", id: 99 }), "{missing}");
}

#[tokio::test]
async fn a_plan_that_names_what_it_does_not_hold_is_damaged_and_said_so() {
    let (_dir, store) = empty().await;
    let mut broken = new();
    broken.plan.tasks[0].lot = 7;
    let id = store.add_run(&broken).await.unwrap();
    let damaged = store.run(id).await.unwrap_err();
    assert!(matches!(damaged, StoreError::Damaged { thing: "run", .. }), "{damaged}");
}
