//! A value of a table as an archive holds it: in a JSON line, which is read again, and in a cell of CSV.

use crate::document;
use crate::error::StoreError;
use base64::Engine as _;
use base64::prelude::BASE64_STANDARD;
use serde_json::Value;
use sqlx::sqlite::SqliteValueRef;
use sqlx::{TypeInfo as _, ValueRef as _};

/// The column of what is decided of a job and of the kitchen.
pub const DOCUMENT: &str = "document";

/// Bytes are a JSON object with this one field.
pub const BASE64: &str = "base64";

/// What an archive is refused for.
pub fn not_an_archive(why: impl std::fmt::Display) -> StoreError {
    StoreError::NotAnArchive { why: why.to_string() }
}

/// Writes a value as JSON has it, and as a cell of CSV. Every table is STRICT: the value's own kind is its column's.
pub fn put(value: SqliteValueRef<'_>, json: &mut Vec<u8>, cell: &mut Vec<u8>) -> Result<(), StoreError> {
    let read = |e: sqlx::error::BoxDynError| StoreError::Database(sqlx::Error::Decode(e));
    cell.clear();
    if value.is_null() {
        json.extend_from_slice(b"null");
        return Ok(());
    }
    let kind = value.type_info().name().to_owned();
    let from = json.len();
    match kind.as_str() {
        "INTEGER" => {
            let number = <i64 as sqlx::Decode<sqlx::Sqlite>>::decode(value).map_err(read)?;
            serde_json::to_writer(&mut *json, &number).map_err(not_an_archive)?;
            cell.extend_from_slice(&json[from..]);
        }
        "REAL" => {
            let number = <f64 as sqlx::Decode<sqlx::Sqlite>>::decode(value).map_err(read)?;
            if !number.is_finite() {
                return Err(not_an_archive("a number is infinite"));
            }
            serde_json::to_writer(&mut *json, &number).map_err(not_an_archive)?;
            cell.extend_from_slice(&json[from..]);
        }
        // In a JSON of its own, so that no text is taken for one. Beside it bytes lie as files.
        "BLOB" => {
            let bytes = <&[u8] as sqlx::Decode<sqlx::Sqlite>>::decode(value).map_err(read)?;
            json.extend_from_slice(format!("{{\"{BASE64}\":\"{}\"}}", BASE64_STANDARD.encode(bytes)).as_bytes());
        }
        "TEXT" => {
            let text = <&str as sqlx::Decode<sqlx::Sqlite>>::decode(value).map_err(read)?;
            serde_json::to_writer(&mut *json, text).map_err(not_an_archive)?;
            as_text(text, cell);
        }
        other => return Err(not_an_archive(format!("unknown kind of value: {other}"))),
    }
    Ok(())
}

/// A spreadsheet computes what begins so; behind an apostrophe it is text (OWASP, CSV injection).
fn as_text(text: &str, cell: &mut Vec<u8>) {
    if text.starts_with(['=', '+', '-', '@', '\t', '\r']) {
        cell.push(b'\'');
    }
    cell.extend_from_slice(text.as_bytes());
}

/// The columns of a table for a spreadsheet: what a document holds has a column a field.
pub fn heads(name: &str, columns: &[String]) -> Vec<String> {
    let within = document::fields(name).unwrap_or_default();
    let spread = within.into_iter().filter(|field| !columns.contains(field));
    let own = columns.iter().filter(|column| *column != DOCUMENT || document::fields(name).is_none()).cloned();
    own.chain(spread).collect()
}

/// What a document holds under these heads.
pub fn spread(document: &[u8], heads: &[String], cells: &mut Vec<Vec<u8>>) {
    let held: serde_json::Map<String, Value> = serde_json::from_slice(document).unwrap_or_default();
    cells.extend(heads.iter().map(|head| {
        let mut cell = vec![];
        match held.get(head) {
            None | Some(Value::Null) => {}
            Some(Value::String(text)) => as_text(text, &mut cell),
            Some(other) => cell.extend_from_slice(other.to_string().as_bytes()),
        }
        cell
    }));
}

/// Bytes as they were.
pub fn decoded(object: &serde_json::Map<String, Value>) -> Option<Vec<u8>> {
    let text = object.get(BASE64).filter(|_| object.len() == 1)?.as_str()?;
    BASE64_STANDARD.decode(text).ok()
}
