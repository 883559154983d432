//! The tables: rows read by key, written, and taken away, within a transaction.

use crate::error::StoreError;
use crate::row::{Key, Row, Thing};
use crate::rows_dough::{FormulaRow, LineRow};
use serde::Serialize;
use serde_json::Value;
use sqlx::{QueryBuilder, Sqlite, SqliteConnection};

/// Jobs with how often each has changed.
macro_rules! job_rows {
    () => {
        "SELECT job.*, (SELECT COALESCE(MAX(number), 0) FROM revision WHERE thing = 'job' AND thing_id = job.id) AS revision \
         FROM job"
    };
}

pub(crate) use job_rows;

pub(crate) async fn read(tx: &mut SqliteConnection, key: Key) -> Result<Option<Row>, StoreError> {
    Ok(match key.thing {
        Thing::Kitchen => sqlx::query_as("SELECT * FROM kitchen WHERE id = ?")
            .bind(key.id)
            .fetch_optional(&mut *tx)
            .await?
            .map(|k| Row::Kitchen(Box::new(k))),
        Thing::Formula => {
            let head: Option<(String, Option<String>)> = sqlx::query_as("SELECT name, says FROM formula WHERE id = ?")
                .bind(key.id)
                .fetch_optional(&mut *tx)
                .await?;
            match head {
                None => None,
                Some((name, says)) => {
                    Some(Row::Formula(FormulaRow { id: key.id, name, lines: read_lines(tx, key.id).await?, says }))
                }
            }
        }
        Thing::Cutter => sqlx::query_as("SELECT * FROM cutter WHERE id = ?")
            .bind(key.id)
            .fetch_optional(&mut *tx)
            .await?
            .map(Row::Cutter),
        Thing::Job => sqlx::query_as(concat!(job_rows!(), " WHERE id = ?"))
            .bind(key.id)
            .fetch_optional(&mut *tx)
            .await?
            .map(|row| Row::Job(Box::new(row))),
        Thing::Version => sqlx::query_as("SELECT * FROM formula_version WHERE id = ?")
            .bind(key.id)
            .fetch_optional(&mut *tx)
            .await?
            .map(Row::Version),
        Thing::Pantry => sqlx::query_as("SELECT * FROM pantry WHERE id = ?")
            .bind(key.id)
            .fetch_optional(&mut *tx)
            .await?
            .map(Row::Pantry),
    })
}

async fn read_lines(tx: &mut SqliteConnection, formula: i64) -> Result<Vec<LineRow>, StoreError> {
    Ok(sqlx::query_as("SELECT ingredient, grams, note FROM formula_line WHERE formula_id = ? ORDER BY position")
        .bind(formula)
        .fetch_all(&mut *tx)
        .await?)
}

/// Writes a row under its number: a column for every name of its JSON, which are the names of the struct.
async fn put(tx: &mut SqliteConnection, table: &str, row: &impl Serialize) -> Result<(), StoreError> {
    let Ok(Value::Object(columns)) = serde_json::to_value(row) else { unreachable!("a row is an object") };
    let mut query = QueryBuilder::<Sqlite>::new(format!("INSERT INTO {table} ("));
    let mut names = query.separated(", ");
    columns.keys().for_each(|name| {
        names.push(name);
    });
    query.push(") VALUES (");
    let mut values = query.separated(", ");
    for value in columns.values() {
        match value {
            Value::Null => values.push_bind(None::<String>),
            Value::Bool(is) => values.push_bind(*is),
            Value::Number(n) if n.is_f64() => values.push_bind(n.as_f64()),
            Value::Number(n) => values.push_bind(n.as_i64()),
            Value::String(text) => values.push_bind(text.clone()),
            list @ (Value::Array(_) | Value::Object(_)) => unreachable!("a column holds one value, not {list}"),
        };
    }
    query.push(") ON CONFLICT (id) DO UPDATE SET ");
    let mut changes = query.separated(", ");
    for name in columns.keys().filter(|name| *name != "id") {
        changes.push(format!("{name} = excluded.{name}"));
    }
    query.build().execute(tx).await?;
    Ok(())
}

pub(crate) async fn write(tx: &mut SqliteConnection, row: &Row) -> Result<(), StoreError> {
    match row {
        Row::Kitchen(k) => {
            // A kitchen of an older edit has no time zone; the one that was found stays.
            sqlx::query(
                "INSERT INTO kitchen (id, document) VALUES (?, ?) ON CONFLICT (id) DO UPDATE SET document = \
                 CASE COALESCE(json_extract(excluded.document, '$.zone'), '') WHEN '' \
                 THEN json_set(excluded.document, '$.zone', json_extract(kitchen.document, '$.zone')) \
                 ELSE excluded.document END",
            )
            .bind(k.id)
            .bind(&k.document)
            .execute(tx)
            .await?;
            Ok(())
        }
        Row::Cutter(c) => put(tx, "cutter", c).await,
        Row::Job(j) => put(tx, "job", j).await,
        Row::Version(v) => put(tx, "formula_version", v).await,
        Row::Pantry(p) => put(tx, "pantry", p).await,
        Row::Formula(f) => {
            sqlx::query(
                "INSERT INTO formula (id, name, says) VALUES (?, ?, ?) \
                 ON CONFLICT (id) DO UPDATE SET name = excluded.name, says = excluded.says",
            )
            .bind(f.id)
            .bind(&f.name)
            .bind(&f.says)
            .execute(&mut *tx)
            .await?;
            sqlx::query("DELETE FROM formula_line WHERE formula_id = ?").bind(f.id).execute(&mut *tx).await?;
            for (position, line) in (0_i64..).zip(&f.lines) {
                sqlx::query(
                    "INSERT INTO formula_line (formula_id, position, ingredient, grams, note) VALUES (?, ?, ?, ?, ?)",
                )
                .bind(f.id)
                .bind(position)
                .bind(&line.ingredient)
                .bind(line.grams)
                .bind(&line.note)
                .execute(&mut *tx)
                .await?;
            }
            Ok(())
        }
    }
}

pub(crate) async fn delete(tx: &mut SqliteConnection, key: Key) -> Result<(), StoreError> {
    let query = match key.thing {
        Thing::Kitchen => sqlx::query("DELETE FROM kitchen WHERE id = ?"),
        Thing::Formula => sqlx::query("DELETE FROM formula WHERE id = ?"),
        Thing::Cutter => sqlx::query("DELETE FROM cutter WHERE id = ?"),
        Thing::Job => sqlx::query("DELETE FROM job WHERE id = ?"),
        Thing::Version => sqlx::query("DELETE FROM formula_version WHERE id = ?"),
        Thing::Pantry => sqlx::query("DELETE FROM pantry WHERE id = ?"),
    };
    query.bind(key.id).execute(&mut *tx).await?;
    Ok(())
}
