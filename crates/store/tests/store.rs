//! The memory on temporary files.

use chrono::NaiveDate;
use ready_slab_core::cold::TrayKind;
use ready_slab_core::dough::{Formula, MixMethod};
use ready_slab_core::geometry::{Builtin, BuiltinKind, Outline};
use ready_slab_core::job::{ColdPlace, Job, JobInput, Kitchen, KitchenInput};
use ready_slab_core::ledger::BakeRecord;
use ready_slab_core::oven::EdgeColour;
use ready_slab_core::shape::BenchSurface;
use ready_slab_core::units::{Length, Share, Span};
use ready_slab_store::{CutterId, FormulaId, JobId, NewRecord, Store, StoreError, StoredJob};

fn kitchen(room_c: f64) -> Kitchen {
    Kitchen::new(KitchenInput {
        name: "Tern Street Bakehouse".into(),
        room_c,
        fridge_c: 4.0,
        fridge_fan: false,
        freezer_c: -18.0,
        tray_width_mm: 310.0,
        tray_length_mm: 440.0,
        tray_kind: TrayKind::Steel,
        trays_owned: 4,
        least_gap_mm: 25.0,
        mixer_limit_g: 1200.0,
        rods_mm: vec![3.0, 6.0],
        ovens: 1,
        racks_per_oven: 2,
        oven_fan: true,
        preheat_min: 20.0,
        roll_min: 4.0,
        cut_s: 6.0,
    })
    .unwrap()
}

fn formula(name: &str) -> Formula {
    let lines = [("flour-ap", 300.0), ("butter", 100.0), ("sugar", 100.0)];
    Formula::new(name, &lines.map(|(k, g)| (k.to_owned(), g))).unwrap()
}

fn outline() -> Outline {
    Builtin::new(BuiltinKind::Petal, 65.0, 0.0).unwrap().outline().unwrap()
}

fn job(pieces: u32) -> Job {
    Job::new(JobInput {
        name: "Regatta".into(),
        pieces,
        thickness_mm: 6.0,
        ready_by: NaiveDate::from_ymd_opt(2026, 11, 28).unwrap().and_hms_opt(14, 0, 0).unwrap(),
        method: MixMethod::RubbedIn,
        dough_c: Some(19.5),
        chill_as_disc: true,
        disc_mm: 22.0,
        chill_place: ColdPlace::Fridge,
        tray_chill_place: ColdPlace::Freezer,
        web_mm: 3.0,
        edge_mm: 4.0,
        surface: BenchSurface::BetweenPapers,
        rerolls: 1,
        reserve_percent: 3.0,
        oven_c: 175.0,
    })
    .unwrap()
}

async fn filled() -> (tempfile::TempDir, Store, FormulaId, CutterId, JobId) {
    let dir = tempfile::tempdir().unwrap();
    let store = Store::open(&dir.path().join("bakery.db")).await.unwrap();
    store.save_kitchen(&kitchen(22.0), "kitchen").await.unwrap();
    let f = store.add_formula(&formula("Plain"), "formula").await.unwrap();
    let c = store.add_cutter("Petal", "petal", &outline(), "cutter").await.unwrap();
    let j = store.add_job(&job(48), f, c, "job").await.unwrap();
    (dir, store, f, c, j)
}

fn record(job_id: JobId) -> NewRecord {
    let measured = BakeRecord::new(
        Length::new_mm(65.0),
        Length::new_mm(6.0),
        &[68.0, 69.0],
        &[6.4],
        Some(11.0),
        EdgeColour::Golden,
        "left tray first",
    );
    NewRecord {
        job_id,
        recorded_at: "2026-11-28T13:10".into(),
        record: measured.unwrap(),
        expected_bake: (Span::new_min(8.0), Span::new_min(14.0)),
        expected_spread: (Share::new(0.02), Share::new(0.06)),
    }
}

#[tokio::test]
async fn everything_comes_back_as_it_was_put_in_also_from_a_reopened_file() {
    let (dir, store, f, c, j) = filled().await;
    let r = store.add_record(&record(j), "record").await.unwrap();
    store.close().await;
    let store = Store::open(&dir.path().join("bakery.db")).await.unwrap();
    assert_eq!(store.kitchen().await.unwrap(), kitchen(22.0));
    assert_eq!(store.formula(f).await.unwrap().formula, formula("Plain"));
    let back = store.cutter(c).await.unwrap();
    assert!((back.outline.area().mm2() - outline().area().mm2()).abs() < 0.1);
    assert_eq!(store.job(j).await.unwrap(), StoredJob { id: j, job: job(48), formula_id: f, cutter_id: c });
    let records = store.records(j).await.unwrap();
    assert_eq!((records.len(), records[0].id, &records[0].kept), (1, r, &record(j)));
}

#[tokio::test]
async fn each_edit_is_undone_in_order_and_done_again() {
    let (_dir, store, f, c, j) = filled().await;
    let changed = StoredJob { id: j, job: job(96), formula_id: f, cutter_id: c };
    store.save_job(&changed, "pieces 48 to 96").await.unwrap();
    store.save_formula(f, &formula("Renamed"), "name").await.unwrap();
    assert_eq!(store.undo().await.unwrap().unwrap().label, "name");
    assert_eq!(store.formula(f).await.unwrap().formula.name(), "Plain");
    assert_eq!(store.undo().await.unwrap().unwrap().label, "pieces 48 to 96");
    assert_eq!(store.job(j).await.unwrap().job, job(48));
    assert_eq!(store.redo().await.unwrap().unwrap().label, "pieces 48 to 96");
    assert_eq!(store.job(j).await.unwrap().job, job(96));
    // A new edit forgets what was undone.
    store.save_kitchen(&kitchen(25.0), "room").await.unwrap();
    assert_eq!(store.redo().await.unwrap(), None);
    assert_eq!(store.history().await.unwrap().undo.unwrap().label, "room");
}

#[tokio::test]
async fn a_deleted_job_comes_back_with_its_records() {
    let (_dir, store, _, _, j) = filled().await;
    store.add_record(&record(j), "record").await.unwrap();
    store.delete_job(j, "job gone").await.unwrap();
    assert!(matches!(store.job(j).await, Err(StoreError::NotFound { thing: "job", .. })));
    store.undo().await.unwrap();
    assert_eq!(store.records(j).await.unwrap().len(), 1);
    store.redo().await.unwrap();
    assert!(store.jobs().await.unwrap().is_empty());
}

#[tokio::test]
async fn a_cutter_in_use_stays_and_the_answer_says_why() {
    let (_dir, store, _, c, j) = filled().await;
    let refused = store.delete_cutter(c, "gone").await.unwrap_err();
    assert_eq!(refused.to_string(), "the cutter is used by 1 job; change or delete those first");
    store.delete_job(j, "job gone").await.unwrap();
    store.delete_cutter(c, "gone").await.unwrap();
    assert!(store.cutters().await.unwrap().is_empty());
}

#[tokio::test]
async fn numbers_of_deleted_things_are_not_given_out_while_an_undo_may_bring_them_back() {
    let (_dir, store, f, c, j) = filled().await;
    store.delete_job(j, "gone").await.unwrap();
    let next = store.add_job(&job(12), f, c, "job").await.unwrap();
    assert_ne!(next, j);
}

#[tokio::test]
async fn a_whole_job_is_added_as_one_edit_without_doubling_what_is_there() {
    let (_dir, store, _, _, j) = filled().await;
    let back = store
        .add_whole_job(&formula("Plain"), ("Petal", "petal", &outline()), &job(24), &[record(j)], "read back")
        .await
        .unwrap();
    assert_eq!((store.formulas().await.unwrap().len(), store.cutters().await.unwrap().len()), (1, 1));
    assert_eq!(store.records(back).await.unwrap().len(), 1);
    store.undo().await.unwrap();
    assert!(store.job(back).await.is_err());
    assert_eq!(store.jobs().await.unwrap().len(), 1);
}

#[tokio::test]
async fn a_damaged_row_is_named_and_does_not_panic() {
    let dir = tempfile::tempdir().unwrap();
    let path = dir.path().join("bakery.db");
    let store = Store::open(&path).await.unwrap();
    store.add_formula(&formula("Plain"), "formula").await.unwrap();
    let pool = sqlx::SqlitePool::connect(&format!("sqlite://{}", path.display())).await.unwrap();
    sqlx::query("UPDATE formula_line SET grams = -5 WHERE ingredient = 'butter'").execute(&pool).await.unwrap();
    let said = store.formula(FormulaId(1)).await.unwrap_err().to_string();
    assert!(said.contains("formula 1 is damaged") && said.contains("lines[1].grams"), "{said}");
}

#[tokio::test(flavor = "multi_thread")]
async fn many_writers_at_once_lose_nothing() {
    let (_dir, store, f, c, _) = filled().await;
    let all: Vec<_> = (1..=20)
        .map(|n| {
            let store = store.clone();
            tokio::spawn(async move { store.add_job(&job(n), f, c, "job").await })
        })
        .collect();
    for one in all {
        one.await.unwrap().unwrap();
    }
    assert_eq!(store.jobs().await.unwrap().len(), 21);
}
