//! Backups, on real files: complete, checked before they are trusted, and nothing lost when one is brought back.

use crate::shelf::{filled, job, record};
use chrono::{DateTime, TimeDelta, TimeZone, Utc};
use ready_slab_store::{Backups, JobId, Lock, Store, StoreError, StoredJob, Why, back_up_file, check_file, restore};
use sqlx::sqlite::SqliteConnectOptions;
use sqlx::{AssertSqlSafe, ConnectOptions, Connection, SqliteConnection};
use std::fs;
use std::path::Path;

pub fn noon() -> DateTime<Utc> {
    Utc.with_ymd_and_hms(2026, 11, 29, 12, 0, 0).unwrap()
}

pub async fn raw(file: &Path) -> SqliteConnection {
    SqliteConnectOptions::new().filename(file).foreign_keys(false).connect().await.unwrap()
}

/// Every table of both files holds the same rows, by SQLite itself.
pub async fn alike(one: &Path, other: &Path) -> usize {
    let mut conn = raw(one).await;
    sqlx::query("ATTACH ? AS other").bind(other.to_str().unwrap()).execute(&mut conn).await.unwrap();
    let tables: Vec<(String,)> =
        sqlx::query_as("SELECT name FROM main.sqlite_master WHERE type = 'table' ORDER BY name")
            .fetch_all(&mut conn)
            .await
            .unwrap();
    for (table,) in &tables {
        // When the tables were made is told by no archive.
        let columns = if table == "_sqlx_migrations" { "version, checksum" } else { "*" };
        for (a, b) in [("main", "other"), ("other", "main")] {
            let differ = format!(
                "SELECT COUNT(*) FROM (SELECT {columns} FROM {a}.\"{table}\" EXCEPT SELECT {columns} FROM {b}.\"{table}\")"
            );
            let (differ,): (i64,) = sqlx::query_as(AssertSqlSafe(differ)).fetch_one(&mut conn).await.unwrap();
            assert_eq!(differ, 0, "{table} in {a}");
        }
    }
    conn.close().await.unwrap();
    tables.len()
}

#[tokio::test]
async fn a_backup_made_while_the_bakery_is_used_holds_every_table_and_is_whole() {
    let (dir, store, _, _, j) = filled().await;
    store.add_record(&record(j), true).await.unwrap();
    let (here, copy) = (dir.path().join("bakery.db"), dir.path().join("copy.db"));
    store.back_up(&copy).await.unwrap();
    assert!(alike(&here, &copy).await > 15);
    let found = check_file(&copy).await.unwrap();
    assert!(found.whole(), "{found:?}");
    assert!(found.holds.contains(&("jobs", 1)) && found.holds.contains(&("bakes", 1)), "{found:?}");
    // The one that is used can be looked at, too, and copied by another program.
    assert!(check_file(&here).await.unwrap().whole());
    back_up_file(&here, &dir.path().join("second.db")).await.unwrap();
    assert_eq!(alike(&copy, &dir.path().join("second.db")).await, alike(&here, &copy).await);
    // Nothing is written over, and of a copy that fails nothing is left.
    let again = store.back_up(&copy).await.unwrap_err();
    assert!(matches!(again, StoreError::FileThere { .. }), "{again}");
    let nowhere = dir.path().join("no such folder").join("copy.db");
    assert!(store.back_up(&nowhere).await.is_err() && !nowhere.parent().unwrap().exists());
}

#[tokio::test]
async fn a_file_that_is_not_whole_says_what_is_wrong() {
    let (dir, store, _, _, j) = filled().await;
    store.close().await;
    let here = dir.path().join("bakery.db");
    let spoilt = |name: &str| {
        let file = dir.path().join(name);
        fs::copy(&here, &file).unwrap();
        file
    };
    // A row that reads as no sound value, and one that refers to nothing.
    let (row, reference) = (spoilt("row.db"), spoilt("reference.db"));
    let mut conn = raw(&row).await;
    sqlx::query("PRAGMA ignore_check_constraints = 1").execute(&mut conn).await.unwrap();
    sqlx::query("UPDATE job SET ready_by = 'soon'").execute(&mut conn).await.unwrap();
    conn.close().await.unwrap();
    let found = check_file(&row).await.unwrap();
    assert!(found.faults.iter().any(|fault| fault.contains("job 1 is damaged")), "{found:?}");
    let mut conn = raw(&reference).await;
    sqlx::query("DELETE FROM cutter").execute(&mut conn).await.unwrap();
    conn.close().await.unwrap();
    let found = check_file(&reference).await.unwrap();
    assert!(found.faults.iter().any(|fault| fault.contains("job 1 refers to a cutter")), "{found:?}");
    // Bytes in the middle that are not what was written.
    let torn = spoilt("torn.db");
    let mut bytes = fs::read(&torn).unwrap();
    let middle = bytes.len() / 2;
    bytes[middle - 3000..middle + 3000].fill(0x5a);
    fs::write(&torn, bytes).unwrap();
    assert!(!check_file(&torn).await.unwrap().whole());
    let other = dir.path().join("letter.txt");
    fs::write(&other, "Dear baker,\n").unwrap();
    assert!(matches!(check_file(&other).await, Err(StoreError::NotABakery)));
    assert!(matches!(check_file(&dir.path().join("none.db")).await, Err(StoreError::File { .. })));
    // None of them is put in the place of anything.
    for bad in [&row, &reference, &torn, &other] {
        assert!(restore(bad, &here, noon()).await.is_err());
    }
    let store = Store::open(&here).await.unwrap();
    assert_eq!(store.job(j).await.unwrap().job.input().order.pieces, 48);
}

#[tokio::test]
async fn a_copy_of_the_file_without_its_log_is_refused_and_with_it_is_complete() {
    let (dir, store, f, c, j) = filled().await;
    store.save_job(&StoredJob::new(j, job(96, f, c)), "pieces").await.unwrap();
    let here = dir.path().join("bakery.db");
    let (alone, both) = (dir.path().join("alone"), dir.path().join("both"));
    for (folder, tails) in [(&alone, &[""][..]), (&both, &["", "-wal"])] {
        fs::create_dir(folder).unwrap();
        for tail in tails {
            fs::copy(format!("{}{tail}", here.display()), folder.join(format!("bakery.db{tail}"))).unwrap();
        }
    }
    for refused in [
        check_file(&alone.join("bakery.db")).await.map(|_| ()),
        Store::open(&alone.join("bakery.db")).await.map(|_| ()),
    ] {
        assert!(matches!(refused, Err(StoreError::WithoutItsLog)), "{refused:?}");
    }
    let moved = Store::open(&both.join("bakery.db")).await.unwrap();
    assert_eq!(moved.job(j).await.unwrap().job.input().order.pieces, 96);
    moved.close().await;
    // Once it is closed, the file alone is all there is; and a program that ended without closing it leaves it where it can go on.
    store.close().await;
    assert!(check_file(&here).await.unwrap().whole());
    let left = Store::open(&here).await.unwrap();
    drop(left);
    assert_eq!(Store::open(&here).await.unwrap().job(j).await.unwrap().job.input().order.pieces, 96);
}

#[tokio::test]
async fn a_backup_is_brought_back_and_what_was_there_is_kept() {
    let (dir, store, f, c, j) = filled().await;
    let (here, copy) = (dir.path().join("bakery.db"), dir.path().join("copy.db"));
    store.back_up(&copy).await.unwrap();
    store.save_job(&StoredJob::new(j, job(96, f, c)), "pieces").await.unwrap();
    // A program that has it open is not robbed of it.
    let lock = Lock::of(&here).unwrap();
    assert!(matches!(restore(&copy, &here, noon()).await, Err(StoreError::OpenElsewhere)));
    assert!(matches!(Lock::of(&here), Err(StoreError::OpenElsewhere)));
    drop(lock);
    store.close().await;
    let aside = restore(&copy, &here, noon()).await.unwrap().unwrap();
    let pieces = |file: std::path::PathBuf| async move {
        let store = Store::open(&file).await.unwrap();
        let pieces = store.job(JobId(1)).await.unwrap().job.input().order.pieces;
        store.close().await;
        pieces
    };
    assert_eq!((pieces(here).await, pieces(aside).await), (48, 96));
    // In a place where there is nothing yet, nothing is put aside.
    assert_eq!(restore(&copy, &dir.path().join("new.db"), noon()).await.unwrap(), None);
    assert_eq!(pieces(dir.path().join("new.db")).await, 48);
}

#[tokio::test]
async fn so_many_backups_are_kept_and_those_before_an_update_all() {
    let (dir, store, ..) = filled().await;
    let here = dir.path().join("bakery.db");
    let backups = Backups::of(&here, None, 2);
    assert_eq!((backups.list().unwrap(), backups.folder()), (vec![], dir.path().join("bakery-backups").as_path()));
    for day in 0..4 {
        backups.make(&store, noon() + TimeDelta::days(day), Why::Day).await.unwrap();
    }
    let names = |backups: &Backups| -> Vec<String> {
        let all = backups.list().unwrap();
        all.iter().map(|b| b.file.file_name().unwrap().to_string_lossy().into_owned()).collect()
    };
    assert_eq!(names(&backups), ["bakery 2026-12-02 120000.backup.db", "bakery 2026-12-01 120000.backup.db"]);
    // Presses in a row push no day out, and are as many themselves.
    for minute in 1..5 {
        backups.make(&store, noon() + TimeDelta::minutes(minute), Why::Asked).await.unwrap();
    }
    let all = names(&backups);
    assert_eq!((all.len(), all.iter().filter(|n| n.contains("asked for")).count()), (4, 2), "{all:?}");
    assert!(all.contains(&"bakery 2026-12-02 120000.backup.db".to_owned()), "{all:?}");
    assert!(backups.made_since(Utc::now() - TimeDelta::minutes(5)).unwrap());
    assert!(!backups.made_since(Utc::now() + TimeDelta::minutes(5)).unwrap());
    // What else lies in the folder is left alone.
    fs::write(backups.folder().join("note.txt"), "x").unwrap();
    // A file of this version needs none before it is opened; one of an earlier version does.
    store.close().await;
    assert_eq!(backups.before_migration(&here, noon()).await.unwrap(), None);
    let mut conn = raw(&here).await;
    sqlx::query("DELETE FROM _sqlx_migrations WHERE version = (SELECT MAX(version) FROM _sqlx_migrations)")
        .execute(&mut conn)
        .await
        .unwrap();
    conn.close().await.unwrap();
    let kept = backups.before_migration(&here, noon()).await.unwrap().unwrap();
    assert_eq!(backups.before_migration(&dir.path().join("none.db"), noon()).await.unwrap(), None);
    let other = Store::open(&dir.path().join("other.db")).await.unwrap();
    let of_it = Backups::of(&here, None, 1);
    of_it.make(&other, noon() + TimeDelta::days(9), Why::Day).await.unwrap();
    assert!(kept.exists() && backups.folder().join("note.txt").exists());
    let left = names(&of_it);
    assert_eq!(left.iter().filter(|n| !n.contains("asked for")).count(), 2, "one day, one before an update: {left:?}");
}

#[tokio::test]
async fn a_file_that_something_else_holds_is_busy_not_broken() {
    let (dir, store, f, c, j) = filled().await;
    let mut other = raw(&dir.path().join("bakery.db")).await;
    sqlx::query("BEGIN IMMEDIATE").execute(&mut other).await.unwrap();
    let refused = store.save_job(&StoredJob::new(j, job(96, f, c)), "pieces").await.unwrap_err();
    assert!(matches!(refused, StoreError::Busy), "{refused}");
    assert_eq!(store.job(j).await.unwrap().job.input().order.pieces, 48, "it can be read meanwhile");
    sqlx::query("ROLLBACK").execute(&mut other).await.unwrap();
    store.save_job(&StoredJob::new(j, job(96, f, c)), "pieces").await.unwrap();
}

/// What SQLite answers, by making it answer so: no page more than there are, nothing to be written, bytes that are no pages.
#[tokio::test]
async fn a_full_a_read_only_and_a_torn_file_are_each_told_as_what_they_are() {
    let dir = tempfile::tempdir().unwrap();
    let file = dir.path().join("small.db");
    let mut conn = SqliteConnectOptions::new().filename(&file).create_if_missing(true).connect().await.unwrap();
    let asked = |sql: &'static str| sqlx::raw_sql(sql);
    asked("CREATE TABLE note (text TEXT); PRAGMA max_page_count = 2").execute(&mut conn).await.unwrap();
    let full = asked("INSERT INTO note VALUES (hex(randomblob(20000)))").execute(&mut conn).await.unwrap_err();
    assert!(matches!(StoreError::from(full), StoreError::Full));
    let (left,): (i64,) = sqlx::query_as("SELECT COUNT(*) FROM note").fetch_one(&mut conn).await.unwrap();
    assert_eq!(left, 0, "nothing is half-written");
    asked("PRAGMA query_only = 1").execute(&mut conn).await.unwrap();
    let refused = asked("INSERT INTO note VALUES ('x')").execute(&mut conn).await.unwrap_err();
    assert!(matches!(StoreError::from(refused), StoreError::ReadOnly));
    conn.close().await.unwrap();
    let mut bytes = fs::read(&file).unwrap();
    bytes[100..].fill(0x5a);
    fs::write(&file, bytes).unwrap();
    let mut conn = raw(&file).await;
    let torn = sqlx::query("SELECT * FROM note").execute(&mut conn).await.unwrap_err();
    assert!(matches!(StoreError::from(torn), StoreError::Torn));
}

#[tokio::test]
async fn a_file_that_was_moved_away_takes_nothing_more_and_goes_on_when_it_is_put_back() {
    let (dir, store, f, c, j) = filled().await;
    let (here, aside) = (dir.path().join("bakery.db"), dir.path().join("aside.db"));
    fs::rename(&here, &aside).unwrap();
    let changed = |pieces| StoredJob::new(j, job(pieces, f, c));
    let refused = store.save_job(&changed(96), "pieces").await.unwrap_err();
    assert!(matches!(refused, StoreError::Gone { .. }), "{refused}");
    // Another in its place is not it.
    fs::write(&here, "another").unwrap();
    assert!(matches!(store.save_job(&changed(96), "pieces").await, Err(StoreError::Gone { .. })));
    fs::rename(&aside, &here).unwrap();
    store.save_job(&changed(96), "pieces").await.unwrap();
    assert_eq!(store.job(j).await.unwrap().job.input().order.pieces, 96);
}

#[tokio::test]
async fn one_bad_row_is_told_and_takes_nothing_else_away() {
    let (dir, store, f, c, j) = filled().await;
    let other = store.add_job(&job(24, f, c), "another").await.unwrap();
    let mut conn = raw(&dir.path().join("bakery.db")).await;
    sqlx::query("UPDATE job SET document = json_set(document, '$.thickness_mm', -6) WHERE id = ?")
        .bind(other.0)
        .execute(&mut conn)
        .await
        .unwrap();
    let wanted = ready_slab_store::JobsWanted { today: noon().date_naive(), named: String::new(), from: 0, most: 50 };
    let page = store.job_page(&wanted).await.unwrap();
    assert_eq!(page.jobs.iter().map(|j| j.id).collect::<Vec<_>>(), [j]);
    assert!(page.damaged[0].0 == other && page.damaged[0].1.contains("thickness_mm"), "{:?}", page.damaged);
    // What stands beside it goes on; it can be deleted.
    assert_eq!(store.jobs_on(store.job(j).await.unwrap().job.input().order.ready_by.date()).await.unwrap().len(), 1);
    store.save_job(&StoredJob::new(j, job(96, f, c)), "pieces").await.unwrap();
    store.delete_job(other, "deleted").await.unwrap();
    assert_eq!(store.job_page(&wanted).await.unwrap().damaged, vec![]);
}

/// A file that acts by itself would act in whoever's place it is put into.
#[tokio::test]
async fn a_file_with_triggers_views_or_columns_of_others_is_refused() {
    let (dir, store, ..) = filled().await;
    store.close().await;
    let here = dir.path().join("bakery.db");
    let insert = "INSERT INTO device VALUES (9, 'Stranger', 'full', 'ab', '2026-11-29T10:00:00.000Z', NULL)";
    for (i, (sql, says)) in [
        (format!("CREATE TRIGGER t AFTER DELETE ON device BEGIN {insert}; END"), "the trigger t"),
        ("CREATE VIEW v AS SELECT * FROM device".to_owned(), "the view v"),
        ("CREATE TABLE more (x TEXT)".to_owned(), "the table more"),
        ("CREATE INDEX i ON job (id + 1)".to_owned(), "the index i"),
        ("ALTER TABLE job ADD COLUMN x TEXT".to_owned(), "the column x (TEXT) of job"),
        ("ALTER TABLE job ADD COLUMN y TEXT AS (id || 'x')".to_owned(), "the computed column y (TEXT) of job"),
    ]
    .into_iter()
    .enumerate()
    {
        let bad = dir.path().join(format!("bad{i}.db"));
        fs::copy(&here, &bad).unwrap();
        let mut conn = raw(&bad).await;
        sqlx::query(AssertSqlSafe(sql)).execute(&mut conn).await.unwrap();
        conn.close().await.unwrap();
        let found = check_file(&bad).await.unwrap();
        assert!(
            found.faults.iter().any(|f| f.starts_with(says) && f.ends_with("was not made by this program")),
            "{found:?}"
        );
        let refused = restore(&bad, &here, noon()).await.unwrap_err();
        assert!(matches!(refused, StoreError::NotWhole { .. }), "{refused}");
    }
    assert!(check_file(&here).await.unwrap().whole());
}

/// Whatever it is called by, it is one file.
#[tokio::test]
async fn a_file_is_locked_by_whatever_name_it_is_come_to() {
    let (dir, store, f, c, j) = filled().await;
    let (here, copy) = (dir.path().join("bakery.db"), dir.path().join("copy.db"));
    store.back_up(&copy).await.unwrap();
    store.save_job(&StoredJob::new(j, job(96, f, c)), "pieces").await.unwrap();
    let elsewhere = dir.path().join("elsewhere");
    fs::create_dir(&elsewhere).unwrap();
    let (soft, hard) = (elsewhere.join("soft.db"), elsewhere.join("hard.db"));
    std::os::unix::fs::symlink("../bakery.db", &soft).unwrap();
    fs::hard_link(&here, &hard).unwrap();
    let lock = Lock::of(&here).unwrap();
    for name in [&here, &soft, &hard, &dir.path().join("elsewhere/../bakery.db")] {
        assert!(matches!(Lock::of(name), Err(StoreError::OpenElsewhere)), "{}", name.display());
        assert!(matches!(restore(&copy, name, noon()).await, Err(StoreError::OpenElsewhere)), "{}", name.display());
    }
    drop(lock);
    store.close().await;
    // Brought back through a link, the file that it leads to is another, and the link stays one.
    let aside = restore(&copy, &soft, noon()).await.unwrap().unwrap();
    assert!(
        soft.is_symlink() && aside.starts_with(fs::canonicalize(dir.path()).unwrap()) && !aside.starts_with(&elsewhere)
    );
    assert_eq!(Store::open(&here).await.unwrap().job(j).await.unwrap().job.input().order.pieces, 48);
    // A lock on what is not there makes nothing that stays.
    let none = dir.path().join("none.db");
    let lock = Lock::of(&none).unwrap();
    assert!(lock.made() && none.exists() && matches!(Lock::of(&none), Err(StoreError::OpenElsewhere)));
    drop(lock);
    assert!(!none.exists());
    // What was begun under it does.
    let lock = Lock::of(&none).unwrap();
    Store::open(&none).await.unwrap().close().await;
    drop(lock);
    assert!(check_file(&none).await.is_ok());
}

#[tokio::test]
async fn backups_asked_for_in_one_second_are_each_made_and_what_a_kill_left_is_taken_away() {
    let (dir, store, ..) = filled().await;
    let here = dir.path().join("bakery.db");
    let backups = Backups::of(&here, None, 9);
    let made = futures_util::future::join_all((0..6).map(|_| backups.make(&store, noon(), Why::Asked))).await;
    let files: std::collections::BTreeSet<_> = made.into_iter().map(|b| b.unwrap().file).collect();
    assert_eq!((files.len(), backups.list().unwrap().len()), (6, 6));
    for file in &files {
        assert!(check_file(file).await.unwrap().whole(), "{}", file.display());
    }
    // Asked of two programs at once, too.
    let both = dir.path().join("both.db");
    let (one, other) = tokio::join!(store.back_up(&both), back_up_file(&here, &both));
    assert!(one.is_ok() != other.is_ok(), "{one:?} {other:?}");
    assert!(check_file(&both).await.unwrap().whole());
    let folder = backups.folder();
    let left = ["bakery 2026-11-28 120000.backup.db.3.partial", "bakery 2026-11-28 120000.backup.db.3.partial-journal"];
    let others = ["note.partial", "other 2026-11-28 120000.backup.db.1.partial", "bakery 2026-11-28 120000.backup.db"];
    for name in left.iter().chain(&others) {
        fs::write(folder.join(name), "x").unwrap();
    }
    backups.remove_left_over().unwrap();
    assert!(left.iter().all(|name| !folder.join(name).exists()));
    assert!(others.iter().all(|name| folder.join(name).exists()));
}
