//! A whole bakery as one open archive: a ZIP of JSON lines, CSV, SVG and JPEG, and back again.
//!
//! What it holds are the tables that are named here; a test holds the list against the file's own tables, so that nothing new can be forgotten. `tables/` is
//! what is read again; `csv/`, `cutters/` and `photos/` are for other programs.

use crate::archive_cells::{BASE64, DOCUMENT, decoded, heads, not_an_archive, put, spread};
use crate::connected::{connected, looked_at};
use crate::document;
use crate::error::StoreError;
use crate::header::{io, with_tail};
use crate::in_pieces::InPieces;
use crate::keeping::{Place, copy_of, remove, scratch, whole};
use crate::schema::{bring_to, is_step, newest};
use crate::store::Store;
use chrono::{DateTime, SecondsFormat, Utc};
use futures_util::TryStreamExt as _;
use ready_slab_core::geometry::write_svg;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use sqlx::sqlite::SqliteConnectOptions;
use sqlx::{AssertSqlSafe, Connection, Row as _, SqliteConnection};
use std::collections::BTreeMap;
use std::fs::File;
use std::io::{BufRead, BufReader, BufWriter, Read as _, Seek, Write};
use std::path::{Path, PathBuf};
use std::sync::mpsc::{Receiver, SyncSender, sync_channel};
use std::thread::JoinHandle;
use zip::write::SimpleFileOptions;
use zip::{ZipArchive, ZipWriter};

/// What the first entry is called, and what it says it is.
const CONTENTS: &str = "bakery.json";
const FORMAT: &str = "ready-slab-bakery";
const FORMAT_VERSION: u32 = 1;

/// The tables that an archive holds. What it lets in by, who was let in, is in none, and is taken from none.
pub const CARRIED: [&str; TABLES] = [
    "bake_record",
    "bakery",
    "chill",
    "counter",
    "cutter",
    "dough_knowledge",
    "edit",
    "edit_change",
    "formula",
    "formula_line",
    "formula_version",
    "job",
    "kitchen",
    "mix_note",
    "oven_knowledge",
    "packed_readings",
    "pantry",
    "place_knowledge",
    "place_use",
    "probe",
    "reading",
    "record_photo",
    "revision",
    "run",
    "run_event",
    "stay",
    "touch",
    "try",
];
const TABLES: usize = 28;

/// Tables that hold how the others came to be as they are: nothing another program would read.
const NO_CSV: [&str; 4] = ["edit", "edit_change", "counter", "revision"];

/// Archives of earlier versions name it, empty.
const LET_IN: &str = "device";

/// Longest line of a table, bytes: many times the largest row there can be, so that a made-up archive does not fill the memory. Our own choice.
const MOST_LINE_BYTES: u64 = 64_000_000;
const MOST_CONTENTS_BYTES: u64 = 1_000_000;
/// A zip may not unpack to more: three million readings are 0.3 GB. Our own choice.
const MOST_BYTES: u64 = 20_000_000_000;

/// The first entry.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
struct Contents {
    format: String,
    format_version: u32,
    /// Of the tables: the number of the last change that was made to what they are.
    schema: i64,
    made_at: String,
    /// How many rows each has.
    tables: BTreeMap<String, u64>,
}

/// The tables of a file that an archive holds, and the columns of each.
async fn tables(conn: &mut SqliteConnection) -> Result<Vec<(String, Vec<String>)>, StoreError> {
    let names: Vec<(String,)> = sqlx::query_as(
        "SELECT name FROM sqlite_schema WHERE type = 'table' AND name NOT LIKE 'sqlite\\_%' ESCAPE '\\' AND name <> '_sqlx_migrations' ORDER BY name",
    )
    .fetch_all(&mut *conn)
    .await?;
    let mut found = vec![];
    for (name,) in names.into_iter().filter(|(name,)| CARRIED.contains(&name.as_str())) {
        let columns: Vec<(String,)> = sqlx::query_as("SELECT name FROM pragma_table_info(?) ORDER BY cid")
            .bind(&name)
            .fetch_all(&mut *conn)
            .await?;
        found.push((name, columns.into_iter().map(|(c,)| c).collect()));
    }
    Ok(found)
}

/// A name from the file's own schema, as SQL takes it.
fn quoted(name: &str) -> String {
    format!("\"{}\"", name.replace('"', "\"\""))
}

fn list(names: &[String]) -> String {
    names.iter().map(|n| quoted(n)).collect::<Vec<_>>().join(", ")
}

/// Writes the rows of a table, in the order of their columns: as JSON lines into `json`, and where there is one as CSV into `csv`.
async fn each_row(
    conn: &mut SqliteConnection,
    (name, columns): &(String, Vec<String>),
    json: &mut Entry,
    mut csv: Option<&mut csv::Writer<Entry>>,
) -> Result<(), StoreError> {
    let heads = heads(name, columns);
    let document = columns.iter().position(|c| c == DOCUMENT && document::fields(name).is_some());
    let sql = format!("SELECT {0} FROM {1} ORDER BY {0}", list(columns), quoted(name));
    let mut rows = sqlx::query(AssertSqlSafe(sql)).fetch(conn);
    let (mut line, mut cell, mut cells) = (vec![], vec![], Vec::<Vec<u8>>::new());
    let broken = |e: csv::Error| not_an_archive(e);
    while let Some(row) = rows.try_next().await? {
        line.clear();
        cells.clear();
        for i in 0..row.len() {
            line.push(if i == 0 { b'[' } else { b',' });
            put(row.try_get_raw(i)?, &mut line, &mut cell)?;
            if csv.is_some() {
                cells.push(cell.clone());
            }
        }
        line.extend_from_slice(b"]\n");
        json.write_all(&line).map_err(not_an_archive)?;
        if let Some(csv) = &mut csv {
            if let Some(at) = document {
                let held = cells.remove(at);
                spread(&held, &heads[cells.len()..], &mut cells);
            }
            csv.write_record(&cells).map_err(broken)?;
        }
    }
    Ok(())
}

impl Store {
    /// Writes all of the bakery as it stands into a new archive. Refuses where there is a file already; of one that fails nothing is left.
    pub async fn export(&self, to: &Path, now: DateTime<Utc>) -> Result<(), StoreError> {
        let folder = scratch()?;
        let copy = folder.path().join("copy.db");
        self.back_up(&copy).await?;
        export_copy(&copy, to, now).await
    }

    /// Writes it to wherever it is to go, as it is packed. Where that takes nothing more the archive is given up.
    pub async fn export_into(&self, to: impl Write + Send + 'static, now: DateTime<Utc>) -> Result<(), StoreError> {
        let folder = scratch()?;
        let copy = folder.path().join("copy.db");
        self.back_up(&copy).await?;
        written(&copy, to, Path::new("the archive"), now).await
    }
}

/// Writes a bakery file as an archive, also while a program has it open. Refuses where there is a file already.
pub async fn export_file(file: &Path, to: &Path, now: DateTime<Utc>) -> Result<(), StoreError> {
    let (_folder, copy) = copy_of(file).await?;
    // The archive of an earlier version's file is one of this version.
    let store = Store::open(&copy).await?;
    store.close().await;
    export_copy(&copy, to, now).await
}

async fn export_copy(copy: &Path, to: &Path, now: DateTime<Utc>) -> Result<(), StoreError> {
    if to.exists() {
        return Err(StoreError::FileThere { path: to.display().to_string() });
    }
    let partial = with_tail(to, ".partial");
    let made = async {
        let file = File::create(&partial).map_err(io("write", to))?;
        let packed = file.try_clone().map_err(io("write", to))?;
        written(copy, packed, to, now).await?;
        file.sync_all().map_err(io("write", to))
    };
    match made.await {
        Ok(()) => std::fs::rename(&partial, to).map_err(io("write", to)),
        Err(error) => {
            remove(&partial)?;
            Err(error)
        }
    }
}

/// An archive under way: a thread of its own packs what the other reads.
struct Packing<T> {
    to: SyncSender<Packed>,
    packs: JoinHandle<Result<T, zip::result::ZipError>>,
}

enum Packed {
    Begin(String),
    Bytes(Vec<u8>),
    /// All entries of another archive, as they are packed there.
    Archive(File),
}

/// So many pieces wait to be packed, each so large.
const PIECES_WAIT: usize = 8;
const PIECE_BYTES: usize = 256 * 1024;
/// Packed quickly rather than small (bench/README.md has the measurement).
const LEVEL: i64 = 1;

fn pack<W: Write + Seek>(mut zip: ZipWriter<W>, comes: Receiver<Packed>) -> Result<W, zip::result::ZipError> {
    let entry = SimpleFileOptions::default().large_file(true).compression_level(Some(LEVEL));
    for piece in comes {
        match piece {
            Packed::Begin(name) => zip.start_file(name, entry)?,
            Packed::Bytes(bytes) => zip.write_all(&bytes)?,
            Packed::Archive(file) => {
                let mut other = ZipArchive::new(BufReader::new(file))?;
                for i in 0..other.len() {
                    zip.raw_copy_file(other.by_index_raw(i)?)?;
                }
            }
        }
    }
    zip.finish()
}

impl<T: Send + 'static> Packing<T> {
    fn begun(packs: impl FnOnce(Receiver<Packed>) -> Result<T, zip::result::ZipError> + Send + 'static) -> Self {
        let (to, comes) = sync_channel::<Packed>(PIECES_WAIT);
        Self { to, packs: std::thread::spawn(move || packs(comes)) }
    }

    fn entry(&self, name: impl Into<String>) -> Entry {
        // Where it is packed no more, its end tells why.
        let _ = self.to.send(Packed::Begin(name.into()));
        let to = self.to.clone();
        let give =
            move |piece| to.send(Packed::Bytes(piece)).map_err(|_| std::io::Error::other("it is packed no more"));
        InPieces::new(PIECE_BYTES, Box::new(give))
    }

    fn ends(self, path: &Path) -> Result<T, StoreError> {
        drop(self.to);
        let packed = self.packs.join().map_err(|_| not_an_archive("packing broke off"))?;
        packed.map_err(|e| io("write", path)(e.into()))
    }
}

/// An entry as it is written.
type Entry = InPieces<Box<dyn FnMut(Vec<u8>) -> std::io::Result<()> + Send>>;

async fn written(
    copy: &Path,
    to: impl Write + Send + 'static,
    path: &Path,
    now: DateTime<Utc>,
) -> Result<(), StoreError> {
    // What takes it may wait for a reader: on that thread alone.
    let packing = Packing::begun(|comes| {
        let mut packed = pack(ZipWriter::new_stream(BufWriter::new(to)), comes)?;
        Ok(packed.flush()?)
    });
    // The tables for spreadsheets come behind the others, and are packed beside them meanwhile.
    let sheets = tempfile::tempfile().map_err(io("make", &std::env::temp_dir()))?;
    let beside = Packing::begun(|comes| pack(ZipWriter::new(sheets), comes));
    let read = read_out(copy, now, &packing, &beside).await;
    let sheets = beside.ends(path);
    if let (Ok(()), Ok(sheets)) = (&read, &sheets) {
        let sheets = sheets.try_clone().map_err(io("read", path))?;
        let _ = packing.to.send(Packed::Archive(sheets));
    }
    // Its end tells first what is wrong with the disk; else what could not be read is told.
    let packed = packing.ends(path);
    read?;
    sheets?;
    packed
}

async fn read_out(
    copy: &Path,
    now: DateTime<Utc>,
    packing: &Packing<impl Send + 'static>,
    beside: &Packing<impl Send + 'static>,
) -> Result<(), StoreError> {
    connected(looked_at(copy), async |conn| tables_out(conn, now, packing, beside).await).await?;
    let store = Store::open(copy).await?;
    let cutters = store.cutters().await;
    store.close().await;
    for cutter in cutters? {
        let svg = write_svg(&cutter.outline, &cutter.name);
        packing.entry(format!("cutters/{}.svg", cutter.id.0)).write_all(svg.as_bytes()).map_err(not_an_archive)?;
    }
    Ok(())
}

async fn tables_out(
    conn: &mut SqliteConnection,
    now: DateTime<Utc>,
    packing: &Packing<impl Send + 'static>,
    beside: &Packing<impl Send + 'static>,
) -> Result<(), StoreError> {
    let (schema,): (i64,) = sqlx::query_as("SELECT MAX(version) FROM _sqlx_migrations").fetch_one(&mut *conn).await?;
    let all = tables(conn).await?;
    let mut contents = Contents {
        format: FORMAT.to_owned(),
        format_version: FORMAT_VERSION,
        schema,
        made_at: now.to_rfc3339_opts(SecondsFormat::Secs, true),
        tables: BTreeMap::new(),
    };
    for (name, _) in &all {
        let count = format!("SELECT COUNT(*) FROM {}", quoted(name));
        let (rows,): (i64,) = sqlx::query_as(AssertSqlSafe(count)).fetch_one(&mut *conn).await?;
        contents.tables.insert(name.clone(), rows.unsigned_abs());
    }
    let first = serde_json::to_vec_pretty(&contents).map_err(not_an_archive)?;
    packing.entry(CONTENTS).write_all(&first).map_err(not_an_archive)?;
    for table in &all {
        let (name, columns) = table;
        let mut json = packing.entry(format!("tables/{name}.jsonl"));
        serde_json::to_writer(&mut json, columns).map_err(not_an_archive)?;
        json.write_all(b"\n").map_err(not_an_archive)?;
        if NO_CSV.contains(&name.as_str()) {
            each_row(conn, table, &mut json, None).await?;
        } else {
            let mut csv = csv::Writer::from_writer(beside.entry(format!("csv/{name}.csv")));
            csv.write_record(heads(name, columns)).map_err(not_an_archive)?;
            each_row(conn, table, &mut json, Some(&mut csv)).await?;
            csv.flush().map_err(not_an_archive)?;
        }
    }
    let photos = "SELECT record_id, jpeg FROM record_photo ORDER BY record_id";
    let mut all_photos = sqlx::query_as::<_, (i64, Vec<u8>)>(photos).fetch(conn);
    while let Some((record, jpeg)) = all_photos.try_next().await? {
        packing.entry(format!("photos/record-{record}.jpg")).write_all(&jpeg).map_err(not_an_archive)?;
    }
    Ok(())
}

/// Reads an archive into a new bakery file and puts that in the place of another; what was there is kept beside it under a name with the time, which is
/// answered.
///
/// Fails, and changes nothing, where it is no archive of a bakery, is of a later version, is not whole, or where the bakery is in use.
pub async fn import(archive: &Path, to: &Path, now: DateTime<Utc>) -> Result<Option<PathBuf>, StoreError> {
    let place = Place::of(to)?;
    let fresh = with_tail(place.file(), ".read");
    remove(&fresh)?;
    let read = match read_into(archive, &fresh).await {
        Ok(()) => match whole(&fresh).await {
            Ok(()) => place.put(&fresh, now).await,
            Err(error) => Err(error),
        },
        Err(error) => Err(error),
    };
    for tail in ["", "-wal", "-shm", "-journal"] {
        remove(&with_tail(&fresh, tail))?;
    }
    read
}

/// The step of the schema an archive was made at.
fn step_of(schema: i64) -> Result<i64, StoreError> {
    let known = newest();
    if schema > known {
        return Err(not_an_archive(format!(
            "made by a newer version of Ready Slab (schema {schema}; this one knows {known}). Update, then import"
        )));
    }
    if !is_step(schema) {
        return Err(not_an_archive(format!("unknown schema version {schema}")));
    }
    Ok(schema)
}

async fn read_into(archive: &Path, fresh: &Path) -> Result<(), StoreError> {
    let file = File::open(archive).map_err(io("read", archive))?;
    let mut zip = ZipArchive::new(BufReader::new(file)).map_err(not_an_archive)?;
    let contents = contents(&mut zip)?;
    let size: u64 = (0..zip.len()).map(|i| zip.by_index_raw(i).map_or(0, |e| e.size())).sum();
    if size > MOST_BYTES {
        return Err(not_an_archive(format!("too big: {size} bytes unpacked, {MOST_BYTES} at most")));
    }
    let schema = step_of(contents.schema)?;
    let options = SqliteConnectOptions::new().filename(fresh).create_if_missing(true).foreign_keys(false);
    connected(options, async |conn| {
        bring_to(conn, schema).await?;
        tables_in(conn, zip, &contents).await
    })
    .await
}

async fn tables_in(
    conn: &mut SqliteConnection,
    mut zip: ZipArchive<BufReader<File>>,
    contents: &Contents,
) -> Result<(), StoreError> {
    let then = tables(conn).await?;
    refuse_others(&mut zip, contents, &then)?;
    let mut tx = conn.begin().await?;
    for (name, columns) in &then {
        let wanted = contents.tables.get(name).ok_or_else(|| not_an_archive(format!("table {name:?} is missing")))?;
        sqlx::query(AssertSqlSafe(format!("DELETE FROM {}", quoted(name)))).execute(&mut *tx).await?;
        let read = table(&mut zip, name, columns, &mut tx).await?;
        if read != *wanted {
            return Err(not_an_archive(format!("table {name:?} has {read} rows; {CONTENTS} says {wanted}")));
        }
    }
    Ok(tx.commit().await?)
}

/// Only what is named is read: another table, told of or not, is refused by its name. Who was let in may be named, as earlier versions did, and is nobody.
fn refuse_others(
    zip: &mut ZipArchive<BufReader<File>>,
    contents: &Contents,
    then: &[(String, Vec<String>)],
) -> Result<(), StoreError> {
    let known = |name: &str| then.iter().any(|(table, _)| table == name);
    let told = contents.tables.iter().map(|(name, rows)| (name.clone(), *rows));
    let mut all: Vec<(String, u64)> = told.collect();
    for i in 0..zip.len() {
        let entry = zip.by_index(i).map_err(not_an_archive)?;
        let name = entry.name().map_err(not_an_archive)?.into_owned();
        let Some(table) = name.strip_prefix("tables/").and_then(|n| n.strip_suffix(".jsonl")) else { continue };
        if table == LET_IN {
            let mut lines = BufReader::new(entry.take(MOST_CONTENTS_BYTES)).lines();
            all.push((table.to_owned(), u64::from(lines.nth(1).is_some())));
        } else {
            all.push((table.to_owned(), 0));
        }
    }
    for (name, rows) in all {
        if name == LET_IN && rows == 0 {
            continue;
        }
        if name == LET_IN {
            return Err(not_an_archive(format!(
                "table {name:?} holds {rows} rows; devices aren\u{2019}t imported. Connect them again here"
            )));
        }
        if !known(&name) {
            return Err(not_an_archive(format!("unexpected table {name:?}")));
        }
    }
    Ok(())
}

fn contents(zip: &mut ZipArchive<BufReader<File>>) -> Result<Contents, StoreError> {
    let entry = zip.by_name(CONTENTS).map_err(|e| not_an_archive(format!("{CONTENTS}: {e}")))?;
    let mut text = String::new();
    entry
        .take(MOST_CONTENTS_BYTES)
        .read_to_string(&mut text)
        .map_err(|e| not_an_archive(format!("{CONTENTS}: {e}")))?;
    let contents: Contents = serde_json::from_str(&text).map_err(|e| not_an_archive(format!("{CONTENTS}: {e}")))?;
    if contents.format != FORMAT || contents.format_version != FORMAT_VERSION {
        return Err(not_an_archive(format!(
            "{CONTENTS} is {:?} {}; this version reads {FORMAT:?} {FORMAT_VERSION}",
            contents.format, contents.format_version
        )));
    }
    Ok(contents)
}

/// Reads the rows of a table.
async fn table(
    zip: &mut ZipArchive<BufReader<File>>,
    name: &str,
    columns: &[String],
    conn: &mut SqliteConnection,
) -> Result<u64, StoreError> {
    let path = format!("tables/{name}.jsonl");
    let entry = zip.by_name(&path).map_err(|e| not_an_archive(format!("{path}: {e}")))?;
    let mut entry = BufReader::new(entry);
    let mut text = vec![];
    let mut number = 0u64;
    let mut next = |text: &mut Vec<u8>| -> Result<bool, StoreError> {
        text.clear();
        number += 1;
        let read = (&mut entry).take(MOST_LINE_BYTES).read_until(b'\n', text);
        let read = read.map_err(|e| not_an_archive(format!("{path}, line {number}: {e}")))?;
        Ok(read > 0)
    };
    next(&mut text)?;
    let told: Vec<String> =
        serde_json::from_slice(&text).map_err(|e| not_an_archive(format!("{path}, line 1: {e}")))?;
    if told != *columns {
        return Err(not_an_archive(format!("{path}: columns are {told:?}, but should be {columns:?}")));
    }
    let marks = vec!["?"; columns.len()].join(", ");
    let sql = format!("INSERT INTO {} ({}) VALUES ({marks})", quoted(name), list(columns));
    let mut rows = 0;
    while next(&mut text)? {
        let line = rows + 2;
        let row: Vec<Value> =
            serde_json::from_slice(&text).map_err(|e| not_an_archive(format!("{path}, line {line}: {e}")))?;
        if row.len() != columns.len() {
            return Err(not_an_archive(format!(
                "{path}, line {line}: {} values for {} columns",
                row.len(),
                columns.len()
            )));
        }
        let mut insert = sqlx::query(AssertSqlSafe(sql.clone()));
        for value in row {
            insert = match value {
                Value::Null => insert.bind(None::<String>),
                Value::String(text) => insert.bind(text),
                Value::Number(n) if n.is_i64() => insert.bind(n.as_i64()),
                Value::Number(n) if n.is_f64() => insert.bind(n.as_f64()),
                Value::Object(bytes) => insert.bind(decoded(&bytes).ok_or_else(|| {
                    not_an_archive(format!("{path}, line {line}: an object that is not {{\"{BASE64}\": ...}}"))
                })?),
                other => return Err(not_an_archive(format!("{path}, line {line}: unexpected value {other}"))),
            };
        }
        insert.execute(&mut *conn).await.map_err(|e| match e.into() {
            StoreError::Database(e) => not_an_archive(format!("{path}, line {line}: {e}")),
            other => other,
        })?;
        rows += 1;
    }
    Ok(rows)
}
