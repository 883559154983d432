//! A whole bakery as one open archive: a ZIP of JSON lines, CSV, SVG and JPEG, and back again.
//!
//! What it holds follows from the tables of the file, so that nothing new can be forgotten. `tables/` is what is read again; `csv/`,
//! `cutters/` and `photos/` are for other programs.

use crate::error::StoreError;
use crate::header::{io, with_tail};
use crate::keeping::{Place, copy_of, looked_at, remove, scratch, whole};
use crate::store::{MIGRATIONS, Store};
use base64::Engine as _;
use base64::prelude::BASE64_STANDARD;
use chrono::{DateTime, SecondsFormat, Utc};
use futures_util::TryStreamExt as _;
use ready_slab_core::geometry::write_svg;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use sqlx::migrate::Migrator;
use sqlx::sqlite::{SqliteConnectOptions, SqliteRow, SqliteValueRef};
use sqlx::{AssertSqlSafe, ConnectOptions, Connection, Row as _, SqliteConnection, TypeInfo as _, ValueRef as _};
use std::collections::BTreeMap;
use std::fs::File;
use std::io::{BufRead, BufReader, BufWriter, Read as _, Write};
use std::path::{Path, PathBuf};
use zip::write::SimpleFileOptions;
use zip::{ZipArchive, ZipWriter};

/// What the first entry is called, and what it says it is.
const CONTENTS: &str = "bakery.json";
const FORMAT: &str = "ready-slab-bakery";
const FORMAT_VERSION: u32 = 1;

/// Tables that hold how the others came to be as they are: nothing another program would read.
const NO_CSV: [&str; 5] = ["edit", "edit_change", "counter", "revision", "device"];

/// Longest line of a table, bytes: many times the largest row there can be, so that a made-up archive does not fill the memory. Our own choice.
const MOST_LINE_BYTES: u64 = 64_000_000;
const MOST_CONTENTS_BYTES: u64 = 1_000_000;
/// A zip may not unpack to more: three million readings are 0.3 GB. Our own choice.
const MOST_BYTES: u64 = 20_000_000_000;

/// Bytes are a JSON object with this one field.
const BASE64: &str = "base64";

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

fn not_an_archive(why: impl std::fmt::Display) -> StoreError {
    StoreError::NotAnArchive { why: why.to_string() }
}

/// The tables of a file, and the columns of each.
async fn tables(conn: &mut SqliteConnection) -> Result<Vec<(String, Vec<String>)>, StoreError> {
    let names: Vec<(String,)> = sqlx::query_as(
        "SELECT name FROM sqlite_schema WHERE type = 'table' AND name NOT LIKE 'sqlite\\_%' ESCAPE '\\' AND name <> '_sqlx_migrations' ORDER BY name",
    )
    .fetch_all(&mut *conn)
    .await?;
    let mut found = vec![];
    for (name,) in names {
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

/// A value as JSON has it. Every table is STRICT: the value's own kind is its column's.
fn json(value: SqliteValueRef<'_>) -> Result<Value, StoreError> {
    if value.is_null() {
        return Ok(Value::Null);
    }
    let read = |e: sqlx::error::BoxDynError| StoreError::Database(sqlx::Error::Decode(e));
    let kind = value.type_info().name().to_owned();
    match kind.as_str() {
        "INTEGER" => <i64 as sqlx::Decode<sqlx::Sqlite>>::decode(value).map(Value::from).map_err(read),
        "REAL" => {
            let number = <f64 as sqlx::Decode<sqlx::Sqlite>>::decode(value).map_err(read)?;
            serde_json::Number::from_f64(number).map(Value::Number).ok_or_else(|| not_an_archive("a number has no end"))
        }
        // In a JSON of its own, so that no text is taken for one.
        "BLOB" => {
            let bytes = <Vec<u8> as sqlx::Decode<sqlx::Sqlite>>::decode(value).map_err(read)?;
            Ok(serde_json::json!({ BASE64: BASE64_STANDARD.encode(bytes) }))
        }
        "TEXT" => <String as sqlx::Decode<sqlx::Sqlite>>::decode(value).map(Value::from).map_err(read),
        other => Err(not_an_archive(format!("{other} is no kind of value that a bakery holds"))),
    }
}

fn values(row: &SqliteRow) -> Result<Vec<Value>, StoreError> {
    (0..row.len()).map(|i| json(row.try_get_raw(i)?)).collect()
}

/// Goes through the rows of a table, in the order of their columns.
async fn each_row(
    conn: &mut SqliteConnection,
    (name, columns): &(String, Vec<String>),
    mut with: impl FnMut(&[Value]) -> Result<(), StoreError>,
) -> Result<(), StoreError> {
    let sql = format!("SELECT {0} FROM {1} ORDER BY {0}", list(columns), quoted(name));
    let mut rows = sqlx::query(AssertSqlSafe(sql)).fetch(conn);
    while let Some(row) = rows.try_next().await? {
        with(&values(&row)?)?;
    }
    Ok(())
}

/// Bytes as they were.
fn decoded(object: &serde_json::Map<String, Value>) -> Option<Vec<u8>> {
    let text = object.get(BASE64).filter(|_| object.len() == 1)?.as_str()?;
    BASE64_STANDARD.decode(text).ok()
}

/// What a cell of a CSV file shows.
fn cell(value: &Value) -> String {
    match value {
        Value::Null => String::new(),
        // A spreadsheet computes what begins so; behind an apostrophe it is text (OWASP, CSV injection).
        Value::String(text) if text.starts_with(['=', '+', '-', '@', '\t', '\r']) => format!("'{text}"),
        Value::String(text) => text.clone(),
        // Bytes lie beside it as files.
        Value::Object(_) => String::new(),
        other => other.to_string(),
    }
}

impl Store {
    /// Writes all of the bakery as it stands into a new archive. Refuses where there is a file already; of one that fails nothing is left.
    pub async fn export(&self, to: &Path, now: DateTime<Utc>) -> Result<(), StoreError> {
        let folder = scratch()?;
        let copy = folder.path().join("copy.db");
        self.back_up(&copy).await?;
        export_copy(&copy, to, now).await
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
    match written(copy, &partial, now).await {
        Ok(()) => std::fs::rename(&partial, to).map_err(io("write", to)),
        Err(error) => {
            remove(&partial)?;
            Err(error)
        }
    }
}

async fn written(copy: &Path, to: &Path, now: DateTime<Utc>) -> Result<(), StoreError> {
    let mut conn = looked_at(copy).await?;
    let (schema,): (i64,) = sqlx::query_as("SELECT MAX(version) FROM _sqlx_migrations").fetch_one(&mut conn).await?;
    let all = tables(&mut conn).await?;
    let mut contents = Contents {
        format: FORMAT.to_owned(),
        format_version: FORMAT_VERSION,
        schema,
        made_at: now.to_rfc3339_opts(SecondsFormat::Secs, true),
        tables: BTreeMap::new(),
    };
    for (name, _) in &all {
        let count = format!("SELECT COUNT(*) FROM {}", quoted(name));
        let (rows,): (i64,) = sqlx::query_as(AssertSqlSafe(count)).fetch_one(&mut conn).await?;
        contents.tables.insert(name.clone(), rows.unsigned_abs());
    }
    let failed = |e: zip::result::ZipError| io("write", to)(e.into());
    let file = File::create(to).map_err(io("write", to))?;
    let mut zip = ZipWriter::new(BufWriter::new(file));
    let entry = SimpleFileOptions::default().large_file(true);
    zip.start_file(CONTENTS, entry).map_err(failed)?;
    let first = serde_json::to_vec_pretty(&contents).map_err(not_an_archive)?;
    zip.write_all(&first).map_err(io("write", to))?;
    for table in &all {
        zip.start_file(format!("tables/{}.jsonl", table.0), entry).map_err(failed)?;
        line(&mut zip, &table.1, to)?;
        each_row(&mut conn, table, |row| line(&mut zip, row, to)).await?;
    }
    for table in all.iter().filter(|(name, _)| !NO_CSV.contains(&name.as_str())) {
        zip.start_file(format!("csv/{}.csv", table.0), entry).map_err(failed)?;
        let mut csv = csv::Writer::from_writer(&mut zip);
        let failed = |e: csv::Error| io("write", to)(e.into());
        csv.write_record(&table.1).map_err(failed)?;
        each_row(&mut conn, table, |row| csv.write_record(row.iter().map(cell)).map_err(failed)).await?;
        csv.flush().map_err(io("write", to))?;
    }
    let photos = "SELECT record_id, jpeg FROM record_photo ORDER BY record_id";
    let mut all_photos = sqlx::query_as::<_, (i64, Vec<u8>)>(photos).fetch(&mut conn);
    while let Some((record, jpeg)) = all_photos.try_next().await? {
        zip.start_file(format!("photos/record-{record}.jpg"), entry).map_err(failed)?;
        zip.write_all(&jpeg).map_err(io("write", to))?;
    }
    drop(all_photos);
    conn.close().await?;
    let store = Store::open(copy).await?;
    let cutters = store.cutters().await;
    store.close().await;
    for cutter in cutters? {
        zip.start_file(format!("cutters/{}.svg", cutter.id.0), entry).map_err(failed)?;
        zip.write_all(write_svg(&cutter.outline, &cutter.name).as_bytes()).map_err(io("write", to))?;
    }
    let written = zip.finish().map_err(failed)?.into_inner().map_err(|e| io("write", to)(e.into_error()))?;
    written.sync_all().map_err(io("write", to))
}

fn line<T: Serialize>(zip: &mut impl Write, row: &[T], to: &Path) -> Result<(), StoreError> {
    let mut text = serde_json::to_vec(row).map_err(not_an_archive)?;
    text.push(b'\n');
    zip.write_all(&text).map_err(io("write", to))
}

/// Reads an archive into a new bakery file and puts that in the place of another; what was there is kept beside it under a name with the time, which is
/// answered.
///
/// Fails, and changes nothing, where it is no archive of a bakery, is of a later version, is not whole, or where the bakery is in use.
pub async fn import(archive: &Path, to: &Path, now: DateTime<Utc>) -> Result<Option<PathBuf>, StoreError> {
    let place = Place::of(to)?;
    let fresh = with_tail(to, ".read");
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

/// The tables as they were when the archive was made.
async fn as_then(schema: i64, fresh: &Path) -> Result<SqliteConnection, StoreError> {
    let known = MIGRATIONS.iter().map(|m| m.version).max().unwrap_or(0);
    if schema > known {
        return Err(not_an_archive(format!(
            "it is of a later version of this program (its tables are number {schema}, this one knows {known}); use that one"
        )));
    }
    let then: Vec<_> = MIGRATIONS.iter().filter(|m| m.version <= schema).cloned().collect();
    if then.last().is_none_or(|m| m.version != schema) {
        return Err(not_an_archive(format!("there never was a version {schema} of its tables")));
    }
    let options = SqliteConnectOptions::new().filename(fresh).create_if_missing(true).foreign_keys(false);
    let mut conn = options.connect().await?;
    Migrator::with_migrations(then).run(&mut conn).await?;
    Ok(conn)
}

async fn read_into(archive: &Path, fresh: &Path) -> Result<(), StoreError> {
    let file = File::open(archive).map_err(io("read", archive))?;
    let mut zip = ZipArchive::new(BufReader::new(file)).map_err(not_an_archive)?;
    let contents = contents(&mut zip)?;
    let size: u64 = (0..zip.len()).map(|i| zip.by_index_raw(i).map_or(0, |e| e.size())).sum();
    if size > MOST_BYTES {
        return Err(not_an_archive(format!("it would unpack to {size} bytes; the most is {MOST_BYTES}")));
    }
    let mut conn = as_then(contents.schema, fresh).await?;
    let then = tables(&mut conn).await?;
    if let Some(unknown) = contents.tables.keys().find(|name| !then.iter().any(|(known, _)| &known == name)) {
        return Err(not_an_archive(format!("its version has no table {unknown:?}")));
    }
    let mut tx = conn.begin().await?;
    for (name, columns) in &then {
        let wanted = contents.tables.get(name).ok_or_else(|| not_an_archive(format!("table {name:?} is missing")))?;
        sqlx::query(AssertSqlSafe(format!("DELETE FROM {}", quoted(name)))).execute(&mut *tx).await?;
        let read = table(&mut zip, name, columns, &mut tx).await?;
        if read != *wanted {
            return Err(not_an_archive(format!(
                "table {name:?} holds {read} rows, not the {wanted} that {CONTENTS} tells"
            )));
        }
    }
    tx.commit().await?;
    Ok(conn.close().await?)
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
            "{CONTENTS} says {:?} {}; this program reads {FORMAT:?} {FORMAT_VERSION}",
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
        return Err(not_an_archive(format!("{path}: its columns are {told:?}, those of its version {columns:?}")));
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
                other => return Err(not_an_archive(format!("{path}, line {line}: {other} is no value of a bakery"))),
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
