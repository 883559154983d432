//! What was answered as saved stays: numbers, facts of the day, edits from several hands, files of earlier versions.

use crate::shelf::{baked, filled, formula, job, jobs, kitchen, outline, record};
use chrono::{DateTime, TimeZone, Utc};
use ready_slab_core::cold::{Finding, Piece, Spot, Target, Touch};
use ready_slab_core::dough::{BowlNote, Feel, Squeeze};
use ready_slab_core::job::{ColdPlace, Job, Whereabouts};
use ready_slab_core::units::{Length, Mass, Temperature};
use ready_slab_store::{FormulaId, JobId, NewChill, NewMixNote, RecordId, Store, StoreError, StoredJob};

fn at(minute: u32) -> DateTime<Utc> {
    Utc.with_ymd_and_hms(2026, 11, 28, 12, minute, 0).unwrap()
}

fn disc(job: JobId) -> NewChill {
    NewChill {
        job_id: job,
        name: "Mix 1".into(),
        place: Whereabouts::Cold(ColdPlace::Fridge),
        busy: false,
        piece: Piece::Disc { thickness: Length::new_mm(22.0), diameter: Length::new_mm(180.0) },
        purpose: Target::Rolling,
        start: Temperature::new_c(20.5),
        clock_speed: 1.0,
        put_in_at: at(20),
    }
}

fn note(job_id: JobId, formula_id: FormulaId) -> NewMixNote {
    NewMixNote {
        job_id,
        formula_id,
        formula_version: 1,
        noted_at: "2026-11-28T09:10".into(),
        note: BowlNote {
            mix: 1,
            feel: Feel::TooSticky,
            squeeze: Squeeze::Clings,
            ingredient: Some("flour-ap".into()),
            added_g: 6.0,
            left_over_g: 0.0,
            dough_c: None,
        },
        flour: Mass::new_g(300.0),
    }
}

#[tokio::test]
async fn no_number_is_given_out_twice_whatever_is_undone_or_deleted() {
    let (_dir, store, _, c, j) = filled().await;
    // A job with a piece in the cold is undone; the next job must not inherit the piece.
    let f2 = store.add_formula(&formula("Second"), "formula").await.unwrap();
    let j2 = store.add_job(&job(12, f2, c), "job").await.unwrap();
    store.put_in(&disc(j2)).await.unwrap();
    let found = Finding { purpose: Target::Rolling, touch: Touch::Right, dough: Temperature::new_c(14.0) };
    store.add_touch(f2, j2, found, at(1)).await.unwrap();
    store.undo().await.unwrap();
    store.undo().await.unwrap();
    assert!(store.formula(f2).await.is_err());
    // A new edit forgets what was undone, and with it every trace of the numbers but the counter.
    store.save_kitchen(&kitchen(24.0), "room").await.unwrap();
    let f3 = store.add_formula(&formula("Third"), "formula").await.unwrap();
    let j3 = store.add_job(&job(24, f3, c), "job").await.unwrap();
    assert!(f3 > f2 && j3 > j2 && j2 > j, "{f2:?} {f3:?} {j2:?} {j3:?}");
    assert!(store.touches(f3).await.unwrap().is_empty() && store.chills(j3).await.unwrap().is_empty());
    // The same for versions, cutters, ingredients' keys, pieces, readings and bakes.
    store.save_formula(f3, &formula("Third once more"), "name").await.unwrap();
    store.undo().await.unwrap();
    store.save_formula(f3, &formula("Third after all"), "name").await.unwrap();
    assert_eq!(store.formula(f3).await.unwrap().version, 3, "version 2 was undone and stays gone");
    let c2 = store.add_cutter("Disc", "disc", &outline(), "cutter").await.unwrap();
    store.delete_cutter(c2, "gone").await.unwrap();
    assert!(store.add_cutter("Disc", "disc", &outline(), "cutter").await.unwrap() > c2);
    let p = store.put_in(&disc(j)).await.unwrap();
    store.add_readings(p, &[(at(30), Temperature::new_c(17.0), Spot::Core)], false).await.unwrap();
    let reading = store.readings(p).await.unwrap()[0].id;
    store.forget_chill(p).await.unwrap();
    let p2 = store.put_in(&disc(j)).await.unwrap();
    store.add_readings(p2, &[(at(30), Temperature::new_c(17.0), Spot::Core)], false).await.unwrap();
    assert!(p2 > p && store.readings(p2).await.unwrap()[0].id > reading);
}

#[tokio::test]
async fn facts_of_the_day_outlive_undo_and_deletion_of_what_they_belong_to() {
    let (_dir, store, f, _, j) = filled().await;
    let r = store.add_record(&record(j), false).await.unwrap();
    let n = store.add_mix_note(&note(j, f)).await.unwrap();
    // Recording is no edit: undo takes back what was edited before it, here the whole job, and leaves the bake.
    assert_eq!(store.undo().await.unwrap().unwrap().label, "job");
    assert!(store.job(j).await.is_err());
    assert_eq!(store.newest_records(9).await.unwrap()[0].id, r);
    store.redo().await.unwrap();
    assert_eq!((store.records(j).await.unwrap()[0].id, store.mix_notes(j).await.unwrap()[0].id), (r, n));
    store.delete_job(j, "job gone").await.unwrap();
    store.delete_formula(f, "formula gone").await.unwrap();
    store.undo().await.unwrap();
    store.undo().await.unwrap();
    assert_eq!(store.mix_notes_of(f).await.unwrap()[0].id, n, "a note at the bowl came back with its formula");
    assert_eq!(baked(&store.records(j).await.unwrap()[0].kept), baked(&record(j)));
}

#[tokio::test]
async fn a_bake_that_was_struck_out_can_be_put_back() {
    let (_dir, store, _, _, j) = filled().await;
    let r = store.add_record(&record(j), false).await.unwrap();
    store.strike_record(r, true).await.unwrap();
    assert!(store.records(j).await.unwrap().is_empty() && store.newest_records(9).await.unwrap().is_empty());
    assert!(store.record(r).await.unwrap().struck);
    store.strike_record(r, false).await.unwrap();
    assert_eq!(store.records(j).await.unwrap().len(), 1);
    assert!(store.strike_record(RecordId(99), true).await.is_err());
}

#[tokio::test]
async fn recording_one_lot_keeps_the_version_for_all_whose_dough_was_in_the_bowl() {
    let (_dir, store, f, c, j) = filled().await;
    let lot = job(12, f, c).input().clone().with(|job| {
        job.order.lot_of = Some(j.0);
        job.order.dough_with = Some(j.0);
    });
    let lot = store.add_job(&Job::new(lot).unwrap(), "lot").await.unwrap();
    let stranger = store.add_job(&job(30, f, c), "job").await.unwrap();
    store.add_record(&record(lot), true).await.unwrap();
    store.save_formula(f, &formula("Changed"), "name").await.unwrap();
    let mut kept = Vec::new();
    for id in [j, lot, stranger] {
        kept.push(store.job(id).await.unwrap().formula_version());
    }
    assert_eq!(kept, [Some(1), Some(1), None], "the job and its lot stay one dough; another job follows the newest");
}

#[tokio::test]
async fn a_transaction_that_is_not_kept_has_not_happened_and_one_that_is_is_one_edit() {
    let (_dir, store, f, c, _) = filled().await;
    let before = store.history().await.unwrap();
    {
        let w = store.begin(None).await.unwrap();
        w.add_job(&job(5, f, c), "job").await.unwrap();
        w.save_formula(f, &formula("Half done"), "name").await.unwrap();
        assert_eq!(jobs(&w).await.unwrap().len(), 2, "within it, what was written is read");
        assert_eq!(jobs(&store).await.unwrap().len(), 1, "outside it, it is not there yet");
    }
    assert_eq!(jobs(&store).await.unwrap().len(), 1);
    assert_eq!(store.history().await.unwrap(), before);
    let w = store.begin(Some("both")).await.unwrap();
    w.add_job(&job(5, f, c), "job").await.unwrap();
    w.save_formula(f, &formula("Done"), "name").await.unwrap();
    w.commit().await.unwrap();
    assert_eq!(store.undo().await.unwrap().unwrap().label, "both");
    assert_eq!((jobs(&store).await.unwrap().len(), store.formula(f).await.unwrap().formula.name()), (1, "Plain"));
}

#[tokio::test]
async fn a_thing_is_known_as_it_was_at_its_latest_revisions() {
    let (_dir, store, f, c, j) = filled().await;
    assert_eq!(store.job(j).await.unwrap().revision, 1);
    for pieces in 49..=100 {
        store.save_job(&StoredJob::new(j, job(pieces, f, c)), "pieces").await.unwrap();
    }
    let now = store.job(j).await.unwrap();
    assert_eq!((now.job.input().order.pieces, now.revision), (100, 53));
    assert_eq!(store.job_at(j, 52).await.unwrap().unwrap().job.input().order.pieces, 99);
    assert_eq!(store.job_at(j, 2).await.unwrap(), None, "long ago");
    // Undo is a change like any other: what was made from the state before it is seen as made from an older one.
    store.undo().await.unwrap();
    assert_eq!((store.job(j).await.unwrap().revision, store.job(j).await.unwrap().job.input().order.pieces), (54, 99));
}

#[tokio::test(flavor = "multi_thread")]
async fn of_many_changes_at_once_each_in_a_transaction_none_is_lost() {
    let (_dir, store, _, _, j) = filled().await;
    let all: Vec<_> = (0..20)
        .map(|_| {
            let store = store.clone();
            tokio::spawn(async move {
                let w = store.begin(None).await?;
                let now = w.job(j).await?;
                let input = now.job.input().clone().with(|j| j.order.pieces = now.job.input().order.pieces + 1);
                let next = Job::new(input).unwrap();
                w.save_job(&StoredJob::new(j, next), "one more").await?;
                w.commit().await
            })
        })
        .collect();
    for one in all {
        one.await.unwrap().unwrap();
    }
    assert_eq!(store.job(j).await.unwrap().job.input().order.pieces, 68);
}

#[tokio::test]
async fn a_file_of_the_version_before_gives_its_bakes_back_and_marks_them_as_incomplete() {
    let dir = tempfile::tempdir().unwrap();
    let (path, old) = (dir.path().join("bakery.db"), dir.path().join("old"));
    std::fs::create_dir(&old).unwrap();
    for file in std::fs::read_dir("migrations").unwrap().map(Result::unwrap) {
        if file.file_name().to_str().unwrap() < "0012" {
            std::fs::copy(file.path(), old.join(file.file_name())).unwrap();
        }
    }
    let pool = sqlx::SqlitePool::connect(&format!("sqlite://{}?mode=rwc", path.display())).await.unwrap();
    sqlx::migrate::Migrator::new(old).await.unwrap().run(&pool).await.unwrap();
    let gone = r#"{"Record":{"id":9,"job_id":4,"recorded_at":"2026-10-02T15:00","cut_width_mm":65.0,"cut_thickness_mm":6.0,
        "widths_mm":"[67.5]","thicknesses_mm":"[]","baked_min":11.0,"edge_colour":"golden","notes":"","expected_bake_least_min":8.0,
        "expected_bake_most_min":14.0,"expected_spread_least_share":0.02,"expected_spread_most_share":0.06,"formula_version":2}}"#;
    let job_gone = r#"{"Job":{}}"#;
    for statement in [
        "INSERT INTO formula (id, name) VALUES (7, 'Old')".to_owned(),
        "INSERT INTO formula_line (formula_id, position, ingredient, grams) VALUES (7, 0, 'flour-ap', 300), (7, 1, 'butter', 100.5)".to_owned(),
        "INSERT INTO touch (id, formula_id, job_id, noted_at, purpose, touch, dough_c) VALUES (3, 12, 31, 'x', 'rolling', 'right', 14.0)".to_owned(),
        "INSERT INTO edit (id, at, label) VALUES (1, 'x', 'job gone'), (2, 'x', 'bake recorded')".to_owned(),
        format!("INSERT INTO edit_change VALUES (1, 0, 'bake record', 9, '{gone}', NULL), (1, 1, 'job', 4, '{job_gone}', NULL), (2, 0, 'bake record', 11, NULL, '{gone}')"),
    ] {
        sqlx::query(sqlx::AssertSqlSafe(statement)).execute(&pool).await.unwrap();
    }
    pool.close().await;
    let store = Store::open(&path).await.unwrap();
    let kept = store.records(JobId(4)).await.unwrap();
    assert_eq!((kept.len(), kept[0].id, kept[0].kept.record.widths()[0].mm()), (1, RecordId(9), 67.5));
    assert_eq!((kept[0].kept.as_baked.as_ref(), kept[0].kept.formula_version), (None, Some(2)));
    assert_eq!(store.history().await.unwrap().undo.unwrap().label, "job gone", "an edit of facts alone is gone");
    // Numbers go on after all that were ever seen, also those that only a finding still names.
    let c = store.add_cutter("Petal", "petal", &outline(), "cutter").await.unwrap();
    assert_eq!(store.add_formula(&formula("New"), "new").await.unwrap(), FormulaId(13));
    store.save_kitchen(&kitchen(22.0), "kitchen").await.unwrap();
    assert_eq!(store.add_job(&job(4, FormulaId(7), c), "job").await.unwrap(), JobId(32));
    assert!(matches!(store.job(JobId(4)).await, Err(StoreError::NotFound { .. })));
}

#[tokio::test]
async fn what_is_asked_of_a_closed_bakery_is_told_that_it_is_closed() {
    let dir = tempfile::tempdir().unwrap();
    let store = Store::open(&dir.path().join("bakery.db")).await.unwrap();
    store.close().await;
    assert!(matches!(jobs(&store).await, Err(StoreError::Closed)));
    assert!(matches!(store.kitchen().await, Err(StoreError::Closed)));
}
