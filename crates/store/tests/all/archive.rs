//! The open archive, on real files: every table goes out and comes back.

use crate::keeping::{alike, noon, raw};
use crate::shelf::{filled, job, record};
use ready_slab_store::{
    CARRIED, Lock, RecordPhoto, Role, Store, StoreError, StoredJob, check_file, export_file, import,
};
use std::fs::{self, File};
use std::io::{Read as _, Write as _};
use std::path::{Path, PathBuf};
use zip::write::SimpleFileOptions;
use zip::{ZipArchive, ZipWriter};

fn entries(archive: &Path) -> Vec<(String, String)> {
    let mut zip = ZipArchive::new(File::open(archive).unwrap()).unwrap();
    let mut all = vec![];
    for i in 0..zip.len() {
        let mut entry = zip.by_index(i).unwrap();
        let mut bytes = vec![];
        entry.read_to_end(&mut bytes).unwrap();
        all.push((entry.name().unwrap().into_owned(), String::from_utf8_lossy(&bytes).into_owned()));
    }
    all
}

/// An archive like another, but for what is changed of its entries; an entry of which nothing is left is left out.
fn but(archive: &Path, name: &str, changed: impl Fn(&str, String) -> Option<String>) -> PathBuf {
    let to = archive.with_file_name(name);
    let mut zip = ZipWriter::new(File::create(&to).unwrap());
    for (name, text) in entries(archive) {
        if let Some(text) = changed(&name, text) {
            zip.start_file(name, SimpleFileOptions::default()).unwrap();
            zip.write_all(text.as_bytes()).unwrap();
        }
    }
    zip.finish().unwrap();
    to
}

/// A table more, as the first entry tells it and as an entry.
fn strangers(name: &str, text: String, table: &str, rows: &str) -> Option<String> {
    if name != "bakery.json" {
        return Some(text);
    }
    let rows = rows.lines().count() - 1;
    Some(text.replacen("\"tables\": {", &format!("\"tables\": {{ {table:?}: {},", rows.max(1)), 1))
}

/// An archive with an entry more, which holds a row.
fn with_more(archive: &Path, name: &str, entry: &str) -> PathBuf {
    let to = archive.with_file_name(name);
    fs::copy(archive, &to).unwrap();
    let mut zip = ZipWriter::new_append(File::options().read(true).write(true).open(&to).unwrap()).unwrap();
    zip.start_file(entry, SimpleFileOptions::default()).unwrap();
    let row = r#"[1,"Stranger","full","6b86b273ff34fce19d6b804eff5a3f5747ada4eaa22f1d49c01e52ddb7875b4b","2026-11-29T10:00:00.000Z",null]"#;
    zip.write_all(format!("[\"id\",\"name\",\"role\",\"token_hash\",\"let_in_at\",\"seen_at\"]\n{row}\n").as_bytes())
        .unwrap();
    zip.finish().unwrap();
    to
}

/// A table that is added one day is carried, or is known not to be: nothing is forgotten by leaving it out of a list.
#[tokio::test]
async fn every_table_is_carried_but_who_was_let_in() {
    let (dir, ..) = filled().await;
    let mut conn = raw(&dir.path().join("bakery.db")).await;
    let all: Vec<(String,)> = sqlx::query_as(
        "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite\\_%' ESCAPE '\\' AND name <> '_sqlx_migrations' ORDER BY name",
    )
    .fetch_all(&mut conn)
    .await
    .unwrap();
    let left: Vec<&str> = all.iter().map(|(n,)| n.as_str()).filter(|n| !CARRIED.contains(n)).collect();
    assert_eq!((left, all.len()), (vec!["device"], CARRIED.len() + 1));
}

/// Archives of earlier versions have an empty table of devices; of this one none names it.
#[tokio::test]
async fn who_was_let_in_is_in_no_archive_and_an_empty_table_of_them_is_read_over() {
    let (dir, store, ..) = filled().await;
    store.let_in("Office", Role::Full, "5feceb66ffc86f38", noon()).await.unwrap();
    let archive = dir.path().join("bakery.zip");
    store.export(&archive, noon()).await.unwrap();
    assert!(
        entries(&archive).iter().all(|(name, text)| !name.contains("device") && !text.contains("5feceb66ffc86f38"))
    );
    let older = but(&archive, "older.zip", |name, text| {
        Some(if name == "bakery.json" {
            text.replacen("\"tables\": {", "\"tables\": { \"device\": 0,", 1)
        } else {
            text
        })
    });
    let other = dir.path().join("other.db");
    import(&older, &other, noon()).await.unwrap();
    assert_eq!(Store::open(&other).await.unwrap().devices().await.unwrap(), vec![]);
}

/// What takes nothing more, as a browser does that was closed.
struct Closed(usize);

impl std::io::Write for Closed {
    fn write(&mut self, bytes: &[u8]) -> std::io::Result<usize> {
        self.0 = self.0.checked_sub(bytes.len()).ok_or_else(|| std::io::Error::other("closed"))?;
        Ok(bytes.len())
    }

    fn flush(&mut self) -> std::io::Result<()> {
        Ok(())
    }
}

#[tokio::test]
async fn an_archive_that_nobody_takes_is_given_up() {
    let (_dir, store, ..) = filled().await;
    for room in [0, 100, 5_000] {
        let told = store.export_into(Closed(room), noon()).await.unwrap_err();
        assert!(matches!(told, StoreError::File { .. }), "{room}: {told}");
    }
}

#[tokio::test]
async fn every_table_goes_out_and_comes_back() {
    let (dir, store, f, c, j) = filled().await;
    let kept = store.add_record(&record(j), true).await.unwrap();
    // Every byte there is.
    let photo = RecordPhoto { jpeg: (0..=255).collect(), found: r#"{"pieces":[]}"#.to_owned() };
    store.keep_photo(kept, &photo).await.unwrap();
    store.save_job(&StoredJob::new(j, job(96, f, c)), "pieces").await.unwrap();
    let here = dir.path().join("bakery.db");
    // Numbers and letters that writers of JSON and CSV like to change.
    let mut conn = raw(&here).await;
    for (id, value) in [(900, 0.1 + 0.2), (901, 5.0), (902, 1.0 / 3.0), (903, -0.0), (904, 17.999_999_999_999_996)] {
        sqlx::query("INSERT INTO touch (id, formula_id, job_id, noted_at, purpose, touch, dough_c) SELECT ?, ?, ?, '2026-11-28T10:00:00.000Z', 'rolling', 'right', ? FROM job")
            .bind(id)
            .bind(f.0)
            .bind(j.0)
            .bind(value)
            .execute(&mut conn)
            .await
            .unwrap();
    }
    let odd = "=1+1; '\"quoted\", \u{1f36a}; \\ %";
    sqlx::query("UPDATE cutter SET name = ?").bind(odd).execute(&mut conn).await.unwrap();
    let archive = dir.path().join("bakery.zip");
    store.export(&archive, noon()).await.unwrap();
    let other = dir.path().join("other.db");
    assert_eq!(import(&archive, &other, noon()).await.unwrap(), None);
    assert!(alike(&here, &other).await > 15);
    let back = Store::open(&other).await.unwrap();
    assert_eq!(back.photo(kept).await.unwrap(), photo);
    back.close().await;
    // Nothing is written over; the same bakery makes the same archive.
    assert!(matches!(store.export(&archive, noon()).await, Err(StoreError::FileThere { .. })));
    export_file(&other, &dir.path().join("again.zip"), noon()).await.unwrap();
    assert_eq!(entries(&archive), entries(&dir.path().join("again.zip")));
    // What another program reads: a table with its heads, an outline in millimetres.
    let all = entries(&archive);
    let text = |name: &str| all.iter().find(|(n, _)| n == name).map(|(_, text)| text.as_str()).unwrap();
    let mut rows = csv::Reader::from_reader(text("csv/job.csv").as_bytes());
    let pieces = rows.headers().unwrap().iter().position(|head| head == "pieces").unwrap();
    assert_eq!(&rows.records().next().unwrap().unwrap()[pieces], "96");
    // Nothing that a spreadsheet would compute.
    assert!(text("csv/cutter.csv").contains("\"'=1+1; '"), "{}", &text("csv/cutter.csv")[..200]);
    let outline = ready_slab_core::geometry::read_svg(text("cutters/1.svg"), None).unwrap();
    let kept = store.cutter(c).await.unwrap().outline;
    assert!((outline.area().mm2() / kept.area().mm2() - 1.0).abs() < 1e-3);
    assert!(text("bakery.json").contains("\"format\": \"ready-slab-bakery\""));
}

#[tokio::test]
async fn what_is_read_takes_the_place_of_what_was_there() {
    let (dir, store, f, c, j) = filled().await;
    let (here, archive) = (dir.path().join("bakery.db"), dir.path().join("bakery.zip"));
    store.export(&archive, noon()).await.unwrap();
    store.save_job(&StoredJob::new(j, job(96, f, c)), "pieces").await.unwrap();
    let lock = Lock::of(&here).unwrap();
    assert!(matches!(import(&archive, &here, noon()).await, Err(StoreError::OpenElsewhere)));
    drop(lock);
    store.close().await;
    let aside = import(&archive, &here, noon()).await.unwrap().unwrap();
    for (file, pieces) in [(&here, 48), (&aside, 96)] {
        assert!(check_file(file).await.unwrap().whole());
        assert_eq!(Store::open(file).await.unwrap().job(j).await.unwrap().job.input().order.pieces, pieces);
    }
}

#[tokio::test]
async fn what_is_no_archive_says_where_it_is_wrong_and_changes_nothing() {
    let (dir, store, ..) = filled().await;
    let (here, archive) = (dir.path().join("bakery.db"), dir.path().join("bakery.zip"));
    store.export(&archive, noon()).await.unwrap();
    store.close().await;
    let before = fs::read(&here).unwrap();
    let letter = dir.path().join("letter.txt");
    fs::write(&letter, "Dear baker,\n").unwrap();
    let half = dir.path().join("half.zip");
    fs::write(&half, &fs::read(&archive).unwrap()[..2000]).unwrap();
    let only = |wanted: &'static str, change: fn(String) -> Option<String>| {
        move |name: &str, text: String| if name == wanted { change(text) } else { Some(text) }
    };
    let wrong = [
        (letter, ""),
        (half, ""),
        (but(&archive, "1.zip", only("bakery.json", |_| None)), "bakery.json"),
        (but(&archive, "2.zip", only("bakery.json", |t| Some(t.replace("ready-slab-bakery", "cake")))), "\"cake\""),
        (
            but(&archive, "3.zip", only("bakery.json", |t| Some(t.replace("\"schema\": ", "\"schema\": 9")))),
            "newer version",
        ),
        (but(&archive, "4.zip", only("tables/job.jsonl", |_| None)), "tables/job.jsonl"),
        (
            but(&archive, "5.zip", only("tables/job.jsonl", |t| t.lines().next().map(|l| format!("{l}\n")))),
            "has 0 rows",
        ),
        (but(&archive, "6.zip", only("tables/job.jsonl", |t| Some(t.replacen("[1,", "[1,2,", 1)))), "line 2"),
        (
            but(&archive, "7.zip", only("tables/job.jsonl", |t| Some(t.replace("\"cutter_id\"", "\"cakes\"")))),
            "columns are",
        ),
        (
            but(&archive, "8.zip", only("tables/kitchen.jsonl", |t| Some(t.replacen("[1,", "[true,", 1)))),
            "unexpected value",
        ),
        (but(&archive, "9.zip", only("tables/job.jsonl", |t| Some(t.replacen("[1,", "[\"one\",", 1)))), "line 2"),
        // Somebody who would be let in, a table of nobody's, one that is not told of.
        (but(&archive, "11.zip", |name, text| strangers(name, text, "device", "[1]\n[2]\n")), "aren\u{2019}t imported"),
        (
            but(&archive, "12.zip", |name, text| strangers(name, text, "sqlite_master", "[1]\n")),
            "unexpected table \"sqlite_master\"",
        ),
        (with_more(&archive, "13.zip", "tables/_sqlx_migrations.jsonl"), "unexpected table \"_sqlx_migrations\""),
        (with_more(&archive, "14.zip", "tables/device.jsonl"), "aren\u{2019}t imported"),
        // A job of a formula that is not there.
        (but(&archive, "10.zip", only("tables/cutter.jsonl", |t| Some(t.replacen("[1,", "[7,", 1)))), "damaged"),
    ];
    for (file, says) in wrong {
        let told = import(&file, &here, noon()).await.unwrap_err().to_string();
        assert!(told.contains(says), "{}: {told}", file.display());
        assert!(fs::read(&here).unwrap() == before, "{}", file.display());
    }
    let left: Vec<_> = fs::read_dir(dir.path()).unwrap().map(|e| e.unwrap().file_name()).collect();
    assert!(!left.iter().any(|n| n.to_string_lossy().contains(".read")), "{left:?}");
}

#[tokio::test]
#[cfg(target_os = "linux")]
async fn an_archive_that_is_refused_holds_nothing_open_and_can_be_tried_again_at_once() {
    let (dir, store, ..) = filled().await;
    let (here, archive) = (dir.path().join("bakery.db"), dir.path().join("bakery.zip"));
    store.export(&archive, noon()).await.unwrap();
    store.close().await;
    // Refused while its rows are read in, with a journal beside them.
    let short = but(&archive, "short.zip", |name, text| match name {
        "tables/job.jsonl" => text.lines().next().map(|l| format!("{l}\n")),
        _ => Some(text),
    });
    for _ in 0..10 {
        import(&short, &here, noon()).await.unwrap_err();
        let open: Vec<_> = fs::read_dir("/proc/self/fd")
            .unwrap()
            .filter_map(|fd| fs::read_link(fd.ok()?.path()).ok())
            .filter(|file| file.starts_with(dir.path()))
            .collect();
        assert!(open.is_empty(), "{open:?}");
    }
    import(&archive, &here, noon()).await.unwrap();
}
