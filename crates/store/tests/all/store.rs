//! The memory on temporary files.

use crate::shelf::{baked, filled, formula, job, jobs, kitchen, outline, record};
use chrono::NaiveDate;
use ready_slab_core::dough::{
    Analysis, BowlNote, FatKind, Feel, Formula, Household, Ingredient, IngredientInput, Kind, LineInput, Squeeze,
};
use ready_slab_core::job::{Job, Kitchen, OvenMeasured};
use ready_slab_core::oven::{DoughKnowledge, HeatKnowledge, OvenKnowledge};
use ready_slab_core::units::{Mass, TemperatureDifference};
use ready_slab_store::{
    CutterId, FormulaId, JobId, JobPage, JobsWanted, NewMixNote, NewRecord, Store, StoreError, StoredJob,
};

#[tokio::test]
async fn everything_comes_back_as_it_was_put_in_also_from_a_reopened_file() {
    let (dir, store, f, c, j) = filled().await;
    let r = store.add_record(&record(j), true).await.unwrap();
    store.close().await;
    let store = Store::open(&dir.path().join("bakery.db")).await.unwrap();
    assert_eq!(store.kitchen().await.unwrap(), kitchen(22.0));
    assert_eq!(store.formula(f).await.unwrap().formula, formula("Plain"));
    let back = store.cutter(c).await.unwrap();
    assert!((back.outline.area().mm2() - outline().area().mm2()).abs() < 0.1);
    // It has changed twice: added, and its version kept.
    assert_eq!(
        store.job(j).await.unwrap(),
        StoredJob { revision: 2, ..StoredJob::new(j, job(48, f, c).keeping_version(1)) }
    );
    let records = store.records(j).await.unwrap();
    let kept = NewRecord { formula_id: Some(f), formula_version: Some(1), as_baked: None, ..record(j) };
    assert_eq!((records.len(), records[0].id), (1, r));
    assert_eq!(NewRecord { as_baked: None, ..records[0].kept.clone() }, kept);
    assert_eq!(baked(&records[0].kept), baked(&record(j)));
}

#[tokio::test]
async fn each_edit_is_undone_in_order_and_done_again() {
    let (_dir, store, f, c, j) = filled().await;
    let changed = StoredJob::new(j, job(96, f, c));
    store.save_job(&changed, "pieces 48 to 96").await.unwrap();
    store.save_formula(f, &formula("Renamed"), "name").await.unwrap();
    assert_eq!(store.undo().await.unwrap().unwrap().label, "name");
    assert_eq!(store.formula(f).await.unwrap().formula.name(), "Plain");
    assert_eq!(store.undo().await.unwrap().unwrap().label, "pieces 48 to 96");
    assert_eq!(store.job(j).await.unwrap().job, job(48, f, c));
    assert_eq!(store.redo().await.unwrap().unwrap().label, "pieces 48 to 96");
    assert_eq!(store.job(j).await.unwrap().job, job(96, f, c));
    // A new edit forgets what was undone.
    store.save_kitchen(&kitchen(25.0), "room").await.unwrap();
    assert_eq!(store.redo().await.unwrap(), None);
    assert_eq!(store.history().await.unwrap().undo.unwrap().label, "room");
}

#[tokio::test]
async fn a_cutter_in_use_stays_and_the_answer_says_why() {
    let (_dir, store, _, c, j) = filled().await;
    let refused = store.delete_cutter(c, "gone").await.unwrap_err();
    assert_eq!(refused.to_string(), "This cutter is used by 1 job. Change or delete that first.");
    store.delete_job(j, "job gone").await.unwrap();
    store.delete_cutter(c, "gone").await.unwrap();
    assert!(store.cutters().await.unwrap().is_empty());
}

#[tokio::test]
async fn a_whole_job_is_added_as_one_edit_without_doubling_what_is_there() {
    let (_dir, store, _, _, j) = filled().await;
    let back = store
        .add_whole_job(
            &formula("Plain"),
            ("Petal", "petal", &outline()),
            &job(24, FormulaId(0), CutterId(0)),
            &[record(j)],
            "read back",
        )
        .await
        .unwrap();
    assert_eq!((store.formulas().await.unwrap().len(), store.cutters().await.unwrap().len()), (1, 1));
    assert_eq!(store.records(back).await.unwrap().len(), 1);
    store.undo().await.unwrap();
    assert!(store.job(back).await.is_err());
    store.redo().await.unwrap();
    assert_eq!(store.records(back).await.unwrap().len(), 1, "its bakes have waited for it");
    store.undo().await.unwrap();
    assert_eq!(jobs(&store).await.unwrap().len(), 1);
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
    let all: Vec<_> = (2..=21)
        .map(|n| {
            let store = store.clone();
            tokio::spawn(async move { store.add_job(&job(n, f, c), "job").await })
        })
        .collect();
    for one in all {
        one.await.unwrap().unwrap();
    }
    assert_eq!(jobs(&store).await.unwrap().len(), 21);
}

#[tokio::test]
async fn each_saved_edit_is_a_version_and_an_undo_takes_it_back() {
    let (_dir, store, f, _, _) = filled().await;
    store.save_formula(f, &formula("Second"), "name").await.unwrap();
    store.save_formula(f, &formula("Third"), "name").await.unwrap();
    let names = |versions: Vec<ready_slab_store::FormulaVersion>| -> Vec<String> {
        versions.iter().map(|v| format!("{} {}", v.number, v.formula.name())).collect()
    };
    assert_eq!(names(store.versions(f).await.unwrap()), ["3 Third", "2 Second", "1 Plain"]);
    store.undo().await.unwrap();
    assert_eq!((store.formula(f).await.unwrap().version, names(store.versions(f).await.unwrap()).len()), (2, 2));
    store.redo().await.unwrap();
    assert_eq!(store.formula_at(f, Some(3)).await.unwrap().formula.name(), "Third");
    assert_eq!(store.formula_at(f, Some(1)).await.unwrap().formula, formula("Plain"));
}

#[tokio::test]
async fn a_job_keeps_the_version_it_was_baked_with() {
    let (_dir, store, f, _, j) = filled().await;
    store.save_formula(f, &formula("Second"), "name").await.unwrap();
    assert_eq!(store.job(j).await.unwrap().formula_version(), None);
    store.add_record(&record(j), true).await.unwrap();
    store.save_formula(f, &formula("Third"), "name").await.unwrap();
    let job = store.job(j).await.unwrap();
    assert_eq!(job.formula_version(), Some(2));
    assert_eq!(store.formula_at(f, job.formula_version()).await.unwrap().formula.name(), "Second");
    assert_eq!(store.records(j).await.unwrap()[0].kept.formula_version, Some(2));
}

#[tokio::test]
async fn a_formula_in_use_stays_and_another_goes_with_its_versions() {
    let (_dir, store, f, _, _) = filled().await;
    assert!(matches!(store.delete_formula(f, "gone").await, Err(StoreError::InUse { .. })));
    let other = store.add_formula(&formula("Other"), "other").await.unwrap();
    store.save_formula(other, &formula("Other yet"), "name").await.unwrap();
    store.delete_formula(other, "gone").await.unwrap();
    assert!(store.formula(other).await.is_err());
    store.undo().await.unwrap();
    assert_eq!(store.versions(other).await.unwrap().len(), 2);
}

fn kelp(key: String) -> Result<Ingredient, StoreError> {
    let input = IngredientInput {
        name: "Kelp salt".into(),
        kind: Kind::Salt,
        analysis: Analysis { water: 2.0, ash: 98.0, salt: 90.0, ..Analysis::default() },
        fat_kind: FatKind::Liquid,
        household: Household { tsp: Some(5.0), ..Household::default() },
        allergens: vec!["fish".into()],
        aliases: vec!["kelp".into()],
        source: "the bag".into(),
    };
    Ok(Ingredient::own(key, input).unwrap())
}

#[tokio::test]
async fn own_ingredients_and_prices_come_back_and_are_kept_while_used() {
    let (dir, store, f, _, _) = filled().await;
    let key = store.add_ingredient(kelp, "kelp").await.unwrap();
    store.save_price("butter", Some(9.5), "price").await.unwrap();
    store.save_price(&key, Some(30.0), "price").await.unwrap();
    store.close().await;
    let store = Store::open(&dir.path().join("bakery.db")).await.unwrap();
    let pantry = store.pantry().await.unwrap();
    assert_eq!(pantry.get(&key).unwrap().as_ref(), &kelp(key.clone()).unwrap());
    assert_eq!((pantry.price_per_kg("butter"), pantry.price_per_kg(&key)), (Some(9.5), Some(30.0)));
    let lines: [LineInput; 3] = [("flour-ap", 300.0).into(), ("butter", 100.0).into(), (key.as_str(), 4.0).into()];
    store.save_formula(f, &Formula::new("Salty", &lines, &pantry).unwrap(), "salt").await.unwrap();
    store.save_formula(f, &formula("Plain"), "salt out").await.unwrap();
    let refused = store.delete_ingredient(&key, "gone").await.unwrap_err();
    assert!(refused.to_string().contains("1 recipe or an earlier version"), "{refused}");
    store.save_price("butter", None, "no price").await.unwrap();
    assert_eq!(store.pantry().await.unwrap().price_per_kg("butter"), None);
    store.undo().await.unwrap();
    assert_eq!(store.pantry().await.unwrap().price_per_kg("butter"), Some(9.5));
    let other = store.add_ingredient(kelp, "kelp again").await.unwrap();
    store.delete_ingredient(&other, "gone").await.unwrap();
    assert!(store.save_ingredient(&kelp(other).unwrap(), "x").await.is_err());
}

#[tokio::test]
async fn what_the_bowl_asked_for_is_kept_with_the_mix() {
    let (_dir, store, f, _, j) = filled().await;
    let note = NewMixNote {
        job_id: j,
        formula_id: f,
        formula_version: 1,
        noted_at: "2026-11-28T09:10".into(),
        note: BowlNote {
            mix: 1,
            feel: Feel::TooSticky,
            squeeze: Squeeze::Clings,
            ingredient: Some("flour-ap".into()),
            added_g: 6.0,
            left_over_g: 0.0,
            dough_c: Some(20.5),
        },
        flour: Mass::new_g(300.0),
    };
    let id = store.add_mix_note(&note).await.unwrap();
    assert_eq!(store.mix_notes(j).await.unwrap()[0].kept, note);
    assert_eq!(store.mix_notes_of(f).await.unwrap().len(), 1);
    store.strike_mix_note(id, true).await.unwrap();
    assert!(store.mix_notes(j).await.unwrap().is_empty());
    store.strike_mix_note(id, false).await.unwrap();
    store.delete_job(j, "job gone").await.unwrap();
    store.undo().await.unwrap();
    assert_eq!(store.mix_notes(j).await.unwrap()[0].id, id);
}

#[tokio::test]
async fn jobs_that_share_a_dough_come_apart_when_the_one_that_mixes_it_goes() {
    let (_dir, store, f, c, j) = filled().await;
    let other = store.add_job(&job(12, f, c), "job").await.unwrap();
    let shared = StoredJob::new(other, job(12, f, c).mixed_with(Some(j.0)));
    store.save_job(&shared, "shared").await.unwrap();
    store.delete_job(j, "gone").await.unwrap();
    assert_eq!(store.job(other).await.unwrap().dough_with(), None);
    store.undo().await.unwrap();
    assert_eq!(store.job(other).await.unwrap().dough_with(), Some(j));
}

#[tokio::test]
async fn a_bakery_of_the_first_version_is_brought_to_this_one_with_its_formulas() {
    let dir = tempfile::tempdir().unwrap();
    let path = dir.path().join("bakery.db");
    let first = dir.path().join("first");
    std::fs::create_dir(&first).unwrap();
    std::fs::copy("migrations/0001_bakery.sql", first.join("0001_bakery.sql")).unwrap();
    let pool = sqlx::SqlitePool::connect(&format!("sqlite://{}?mode=rwc", path.display())).await.unwrap();
    sqlx::migrate::Migrator::new(first).await.unwrap().run(&pool).await.unwrap();
    for statement in [
        "INSERT INTO formula (id, name) VALUES (7, 'Old')",
        "INSERT INTO formula_line VALUES (7, 0, 'flour-ap', 300), (7, 1, 'butter', 100.5)",
    ] {
        sqlx::query(statement).execute(&pool).await.unwrap();
    }
    pool.close().await;
    let store = Store::open(&path).await.unwrap();
    let versions = store.versions(FormulaId(7)).await.unwrap();
    assert_eq!((versions.len(), versions[0].number, versions[0].formula.name()), (1, 1, "Old"));
    assert_eq!(versions[0].formula, store.formula(FormulaId(7)).await.unwrap().formula);
    assert_eq!(versions[0].formula.mass_of("butter").g(), 100.5);
}

#[tokio::test]
async fn what_bakes_taught_is_kept_until_it_is_forgotten_or_the_oven_is_measured_anew() {
    let dir = tempfile::tempdir().unwrap();
    let store = Store::open(&dir.path().join("b.db")).await.unwrap();
    store.save_kitchen(&kitchen(22.0), "kitchen").await.unwrap();
    let one = store.add_formula(&formula("Lemon thyme"), "added").await.unwrap();
    let other = store.add_formula(&formula("Rye caraway"), "added").await.unwrap();
    assert_eq!(store.taught_by_bakes(one).await.unwrap(), None);
    let k = TemperatureDifference::new_k;
    let heat = Some(HeatKnowledge { heat: 1.1, heat_sd: 0.06, with_offset: -0.9 });
    let oven = OvenKnowledge { offset: k(-9.0), offset_sd: k(3.0), heat, records: 5 };
    let spread = DoughKnowledge { spread: 1.2, spread_sd: 0.1, time: 1.1, browning: 0.9, time_sd: 0.05, records: 4 };
    store.teach_by_bakes(&oven, &[(one, spread)], &[]).await.unwrap();
    let taught = store.taught_by_bakes(one).await.unwrap().unwrap();
    assert_eq!((taught.oven, taught.dough), (Some(oven), spread));
    // The oven is the same for a formula that was never baked.
    let beside = store.taught_by_bakes(other).await.unwrap().unwrap();
    assert_eq!((beside.oven, beside.dough), (Some(oven), DoughKnowledge::NONE));
    // A newer reading on a thermometer counts in place of what bakes taught of the oven, and nothing else goes.
    let before = store.kitchen().await.unwrap();
    let measured = vec![OvenMeasured { set_c: 175.0, read_c: 170.0, swing_k: 0.0 }];
    let newer = Kitchen::new(before.input().clone().with(|k| k.oven.oven_readings = measured)).unwrap();
    store.save_kitchen(&newer, "readings of the oven changed").await.unwrap();
    let after = store.taught_by_bakes(one).await.unwrap().unwrap();
    assert_eq!((after.oven, after.dough), (None, spread));
    assert_eq!(store.taught_by_bakes(other).await.unwrap(), None);
    store.forget_bakes().await.unwrap();
    assert_eq!(store.taught_by_bakes(one).await.unwrap(), None);
}

#[tokio::test]
async fn a_formula_keeps_what_bakes_taught_while_one_of_them_stands() {
    // The ledger has a bake of the first formula, and none of the other.
    let (_dir, store, one, _, j) = filled().await;
    let bake = store.add_record(&record(j), false).await.unwrap();
    let other = store.add_formula(&formula("Rye caraway"), "added").await.unwrap();
    let k = TemperatureDifference::new_k;
    let oven = OvenKnowledge { offset: k(-9.0), offset_sd: k(3.0), heat: None, records: 5 };
    let taught = |spread| DoughKnowledge { spread, records: 4, ..DoughKnowledge::NONE };
    let spread = async |f| store.taught_by_bakes(f).await.unwrap().unwrap().dough.spread;
    store.teach_by_bakes(&oven, &[(one, taught(1.2)), (other, taught(1.3))], &[]).await.unwrap();
    // The newest bakes are of neither: the one that was baked keeps what it was taught.
    store.teach_by_bakes(&oven, &[], &[]).await.unwrap();
    assert_eq!((spread(one).await, spread(other).await), (1.2, 1.0));
    store.teach_by_bakes(&oven, &[(one, taught(1.1))], &[]).await.unwrap();
    assert_eq!(spread(one).await, 1.1);
    store.strike_record(bake, true).await.unwrap();
    store.teach_by_bakes(&oven, &[], &[]).await.unwrap();
    assert_eq!(spread(one).await, 1.0);
}

#[tokio::test]
async fn jobs_are_found_a_page_at_a_time_by_name_by_date_and_by_what_they_have_to_do_with() {
    let (_dir, store, f, c, first) = filled().await;
    let day = |d: u32| NaiveDate::from_ymd_opt(2026, 11, d).unwrap();
    let mut ids = vec![];
    for n in 1..=9_u32 {
        let mut input = job(48, f, c).input().clone();
        input.order.name = format!("Job 10% no_{n}");
        input.order.ready_by = day(n).and_hms_opt(14, 0, 0).unwrap();
        ids.push(store.add_job(&Job::new(input).unwrap(), "new").await.unwrap());
    }
    // A lot of the fifth, wanted with it.
    let lead = store.job(ids[4]).await.unwrap();
    let lot = Job::new(lead.job.input().clone().with(|j| {
        j.order.lot_of = Some(lead.id.0);
        j.order.name = "Lot".into();
    }))
    .unwrap();
    let lot = store.add_job(&lot, "lot").await.unwrap();
    let page = |named: &str, from, most| JobsWanted { today: day(6), named: named.to_owned(), from, most };
    let names = |page: &JobPage| page.jobs.iter().map(|j| j.job.input().order.name.clone()).collect::<Vec<_>>();
    // From today on the soonest first, then the earlier ones, the latest first, with lots after all; of every page.
    let own = store.job(first).await.unwrap().job.input().order.name.clone();
    let all = store.job_page(&page("", 0, 50)).await.unwrap();
    let wanted: Vec<String> = [6, 7, 8, 9].iter().map(|n| format!("Job 10% no_{n}")).chain([own]).collect();
    let earlier: Vec<String> =
        [5, 4, 3, 2, 1].iter().map(|n| format!("Job 10% no_{n}")).chain(["Lot".to_owned()]).collect();
    assert_eq!((names(&all), all.total, all.coming), ([wanted, earlier].concat(), 10, 5));
    let mut leads = vec![];
    for from in [0, 3, 6, 9, 12] {
        let found = store.job_page(&page("", from, 3)).await.unwrap();
        leads.extend(found.jobs.into_iter().filter(|j| j.lot_of().is_none()).map(|j| j.id));
    }
    let in_order: Vec<JobId> = all.jobs.iter().filter(|j| j.lot_of().is_none()).map(|j| j.id).collect();
    assert_eq!(leads, in_order);
    // What SQL would read as a pattern is a letter like others; recipes and cutters have names, too.
    for (named, found) in [("no_3", 1), ("10% NO", 9), ("no%3", 0), ("\\", 0), ("nowhere", 0)] {
        assert_eq!(store.job_page(&page(named, 0, 50)).await.unwrap().total, found, "{named}");
    }
    let cutter = store.cutter(c).await.unwrap().name;
    assert_eq!(store.job_page(&page(&cutter, 0, 50)).await.unwrap().total, 10);
    let on = |jobs: Vec<StoredJob>| jobs.iter().map(|j| j.id).collect::<Vec<_>>();
    assert_eq!(on(store.jobs_on(day(5)).await.unwrap()), [lead.id, lot]);
    assert_eq!(on(store.jobs_on(day(30)).await.unwrap()), []);
    assert_eq!(on(store.related_jobs(&[lead.id]).await.unwrap()), [lead.id, lot]);
    assert_eq!(on(store.related_jobs(&[]).await.unwrap()), []);
    let dates = store.dates_from(day(8), 50).await.unwrap();
    assert_eq!(dates.iter().map(|d| d.0).take(2).collect::<Vec<_>>(), [day(8), day(9)]);
    assert_eq!(store.dates_from(day(8), 1).await.unwrap().len(), 1);
}

/// What is asked again and again is found by an index, not by looking at every row (SQLite's own plan of the query).
#[tokio::test]
async fn hot_questions_scan_no_table_that_grows() {
    let (dir, store, ..) = filled().await;
    drop(store);
    let mut conn = crate::keeping::raw(&dir.path().join("bakery.db")).await;
    for (asked, by) in [
        ("SELECT * FROM job WHERE job.id IN (1) OR job.lot_of IN (1) OR job.dough_with IN (1)", "job_by_lead"),
        ("SELECT * FROM job WHERE job.id IN (1) OR job.lot_of IN (1) OR job.dough_with IN (1)", "job_by_dough"),
        ("SELECT id FROM job WHERE ready_by >= 'a' AND ready_by < 'b' AND lot_of IS NULL", "job_by_time"),
        ("SELECT COUNT(*) FROM job WHERE formula_id = 1", "job_by_formula"),
        ("SELECT COUNT(*) FROM job WHERE cutter_id = 1", "job_by_cutter"),
        ("SELECT MAX(number) FROM revision WHERE thing = 'job' AND thing_id = 1", "revision"),
        (
            "SELECT * FROM bake_record WHERE struck_at IS NULL ORDER BY recorded_at DESC, id DESC LIMIT 24",
            "bake_record_",
        ),
        ("SELECT * FROM bake_record WHERE job_id = 1 ORDER BY recorded_at", "bake_record_by_job"),
        (
            "SELECT COUNT(*) FROM bake_record WHERE struck_at IS NULL AND (job_id IN (1) OR formula_id IN (1) OR notes LIKE '%a%')",
            "COVERING INDEX bake_record_in_book",
        ),
        ("SELECT * FROM chill WHERE ended_at IS NULL ORDER BY put_in_at, id", "chill_by_end"),
        ("SELECT * FROM chill WHERE job_id = 1 ORDER BY put_in_at, id", "chill_by_job"),
        ("SELECT * FROM reading WHERE chill_id = 1 ORDER BY read_at", "reading_by_chill"),
        ("SELECT * FROM run WHERE ended_at IS NULL ORDER BY id DESC", "run_by_end"),
        ("SELECT id, at_min, what FROM run_event WHERE run_id = 1 ORDER BY id", "run_event_by_run"),
        ("SELECT * FROM formula_version WHERE formula_id = 1 AND number = 1", "formula_version"),
        ("SELECT * FROM touch WHERE formula_id = 1 ORDER BY noted_at DESC", "touch_by_formula"),
        ("SELECT id FROM device WHERE token_hash = 'a'", "device"),
    ] {
        let plan: Vec<(i64, i64, i64, String)> =
            sqlx::query_as(sqlx::AssertSqlSafe(format!("EXPLAIN QUERY PLAN {asked}")))
                .fetch_all(&mut conn)
                .await
                .unwrap();
        let told: Vec<&str> = plan.iter().map(|p| p.3.as_str()).collect();
        let scans = told.iter().any(|t| t.starts_with("SCAN") && !t.contains("INDEX"));
        assert!(told.iter().any(|t| t.contains(by)) && !scans, "{asked}: {told:?}");
    }
}
