//! Changes with their before and after, undone and done again in order; numbers that are never given out twice; and the latest
//! revisions of each thing, so that edits made from an older one can be merged or refused.

use crate::error::StoreError;
use crate::from_row::row;
use crate::row::{Key, Row, Thing};
use crate::tables::{delete, read, write};
use sqlx::SqliteConnection;

/// Edits kept; older ones can no longer be undone (our own choice).
const KEPT_EDITS: i64 = 500;
/// And so many bytes of what stood before and after: a sheet of many pieces weighs a hundred times what a name does (our own choice). It is looked at every few
/// edits.
const KEPT_BYTES: i64 = 20_000_000;
const LOOKED_AT_EVERY: i64 = 16;
/// Revisions kept of each thing; an edit made from an older one is asked about (our own choice).
const KEPT_REVISIONS: i64 = 40;

row! {
    /// One edit in words.
    #[derive(Debug, Clone, PartialEq, Eq)]
    pub struct EditSummary {
        /// Its number.
        pub id: i64,
        /// When, UTC, ISO 8601.
        pub at: String,
        /// What was done.
        pub label: String,
    }
}

/// What undo and redo would do now.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct History {
    /// The edit that undo would take back.
    pub undo: Option<EditSummary>,
    /// The edit that redo would do again.
    pub redo: Option<EditSummary>,
}

/// The next number of a thing. It is counted up for good: undo, deletion and other things never bring a number back.
pub(crate) async fn next_number(tx: &mut SqliteConnection, thing: &str) -> Result<i64, StoreError> {
    let (number,): (i64,) = sqlx::query_as(
        "INSERT INTO counter (thing, last) VALUES (?, 1) ON CONFLICT (thing) DO UPDATE SET last = last + 1 RETURNING last",
    )
    .bind(thing)
    .fetch_one(tx)
    .await?;
    Ok(number)
}

/// One step of an edit.
pub(crate) enum Change {
    Put(Box<Row>),
    Remove(Key),
}

impl Change {
    pub fn put(row: Row) -> Self {
        Self::Put(Box::new(row))
    }
}

/// The edit that a transaction is noted as: begun with its first change, all others go with it.
#[derive(Debug, Default)]
pub(crate) struct Noted {
    edit: Option<i64>,
    changes: i64,
}

fn json(row: Option<&Row>) -> Option<String> {
    row.map(|r| serde_json::to_string(r).expect("rows serialise"))
}

/// Makes the changes and notes them, so that they can be undone. Edits that were undone before are forgotten.
pub(crate) async fn apply(
    tx: &mut SqliteConnection,
    noted: &mut Noted,
    at: &str,
    label: &str,
    changes: Vec<Change>,
) -> Result<(), StoreError> {
    let edit = match noted.edit {
        Some(edit) => edit,
        None => {
            sqlx::query("DELETE FROM edit WHERE undone = 1").execute(&mut *tx).await?;
            let edit = next_number(tx, "edit").await?;
            sqlx::query("INSERT INTO edit (id, at, label) VALUES (?, ?, ?)")
                .bind(edit)
                .bind(at)
                .bind(label)
                .execute(&mut *tx)
                .await?;
            sqlx::query("DELETE FROM edit WHERE id <= ? - ?").bind(edit).bind(KEPT_EDITS).execute(&mut *tx).await?;
            if edit % LOOKED_AT_EVERY == 0 {
                forget_beyond(tx, KEPT_BYTES).await?;
            }
            noted.edit = Some(edit);
            edit
        }
    };
    for change in changes {
        let key = match &change {
            Change::Put(row) => row.key(),
            Change::Remove(key) => *key,
        };
        let before = read(tx, key).await?;
        let after = match change {
            Change::Put(row) => Some(*row),
            Change::Remove(_) => None,
        };
        change_to(tx, at, key, before.as_ref(), after.as_ref()).await?;
        sqlx::query(
            "INSERT INTO edit_change (edit_id, position, thing, thing_id, before, after) VALUES (?, ?, ?, ?, ?, ?)",
        )
        .bind(edit)
        .bind(noted.changes)
        .bind(key.thing.word())
        .bind(key.id)
        .bind(json(before.as_ref()))
        .bind(json(after.as_ref()))
        .execute(&mut *tx)
        .await?;
        noted.changes += 1;
    }
    Ok(())
}

/// Forgets the oldest edits where those after them hold so many bytes already; the newest stays whatever it weighs.
pub(crate) async fn forget_beyond(tx: &mut SqliteConnection, bytes: i64) -> Result<(), StoreError> {
    sqlx::query(
        "DELETE FROM edit WHERE id IN (SELECT edit_id FROM (SELECT edit_id, SUM(SUM(COALESCE(LENGTH(before), 0) + COALESCE(LENGTH(after), 0))) \
         OVER (ORDER BY edit_id DESC ROWS BETWEEN UNBOUNDED PRECEDING AND 1 PRECEDING) AS newer FROM edit_change GROUP BY edit_id) WHERE newer >= ?)",
    )
    .bind(bytes)
    .execute(tx)
    .await?;
    Ok(())
}

/// Writes or takes away a row, and keeps how it looks now as its next revision.
async fn change_to(
    tx: &mut SqliteConnection,
    at: &str,
    key: Key,
    before: Option<&Row>,
    after: Option<&Row>,
) -> Result<(), StoreError> {
    match after {
        Some(row) => write(tx, row).await?,
        None => delete(tx, key).await?,
    }
    let now = revision(tx, key).await?;
    let keep = async |tx: &mut SqliteConnection, number: i64, row: Option<&Row>| -> Result<(), StoreError> {
        sqlx::query("INSERT OR IGNORE INTO revision (thing, thing_id, number, at, row) VALUES (?, ?, ?, ?, ?)")
            .bind(key.thing.word())
            .bind(key.id)
            .bind(number)
            .bind(at)
            .bind(json(row))
            .execute(tx)
            .await?;
        Ok(())
    };
    if now == 0 {
        keep(tx, 0, before).await?;
    }
    keep(tx, now + 1, after).await?;
    sqlx::query("DELETE FROM revision WHERE thing = ? AND thing_id = ? AND number <= ?")
        .bind(key.thing.word())
        .bind(key.id)
        .bind(now + 1 - KEPT_REVISIONS)
        .execute(&mut *tx)
        .await?;
    Ok(())
}

/// How often a thing has changed since its numbers were begun; 0 where it has not.
pub(crate) async fn revision(tx: &mut SqliteConnection, key: Key) -> Result<i64, StoreError> {
    let (number,): (i64,) =
        sqlx::query_as("SELECT COALESCE(MAX(number), 0) FROM revision WHERE thing = ? AND thing_id = ?")
            .bind(key.thing.word())
            .bind(key.id)
            .fetch_one(tx)
            .await?;
    Ok(number)
}

/// A thing as it was at a revision; `None` where that is no longer, or not yet, known.
pub(crate) async fn at_revision(tx: &mut SqliteConnection, key: Key, number: i64) -> Result<Option<Row>, StoreError> {
    let found: Option<(Option<String>,)> =
        sqlx::query_as("SELECT row FROM revision WHERE thing = ? AND thing_id = ? AND number = ?")
            .bind(key.thing.word())
            .bind(key.id)
            .bind(number)
            .fetch_optional(&mut *tx)
            .await?;
    match found {
        Some((Some(json),)) => row_of(&json, key.id).map(Some),
        Some((None,)) => Ok(None),
        // Before its first change it is as it stands.
        None if number == 0 && revision(tx, key).await? == 0 => read(tx, key).await,
        None => Ok(None),
    }
}

fn row_of(json: &str, id: i64) -> Result<Row, StoreError> {
    serde_json::from_str(json).map_err(|e| StoreError::Damaged { thing: "edit", id, why: e.to_string() })
}

pub(crate) async fn history(tx: &mut SqliteConnection) -> Result<History, StoreError> {
    let undo = sqlx::query_as("SELECT id, at, label FROM edit WHERE undone = 0 ORDER BY id DESC LIMIT 1")
        .fetch_optional(&mut *tx)
        .await?;
    let redo = sqlx::query_as("SELECT id, at, label FROM edit WHERE undone = 1 ORDER BY id LIMIT 1")
        .fetch_optional(&mut *tx)
        .await?;
    Ok(History { undo, redo })
}

/// Which way a step through the history goes.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Direction {
    Undo,
    Redo,
}

/// Takes back the latest edit, or does the earliest undone one again; `None` when there is none.
pub(crate) async fn step(
    tx: &mut SqliteConnection,
    at: &str,
    direction: Direction,
) -> Result<Option<EditSummary>, StoreError> {
    let history = history(tx).await?;
    let Some(edit) = (match direction {
        Direction::Undo => history.undo,
        Direction::Redo => history.redo,
    }) else {
        return Ok(None);
    };
    let mut changes: Vec<(String, i64, Option<String>, Option<String>)> =
        sqlx::query_as("SELECT thing, thing_id, before, after FROM edit_change WHERE edit_id = ? ORDER BY position")
            .bind(edit.id)
            .fetch_all(&mut *tx)
            .await?;
    if direction == Direction::Undo {
        changes.reverse();
    }
    for (thing, id, before, after) in changes {
        let key = Key { thing: Thing::from_word(&thing)?, id };
        let wanted = if direction == Direction::Undo { before } else { after };
        let wanted = wanted.map(|json| row_of(&json, edit.id)).transpose()?;
        let now = read(tx, key).await?;
        change_to(tx, at, key, now.as_ref(), wanted.as_ref()).await?;
    }
    sqlx::query("UPDATE edit SET undone = ? WHERE id = ?")
        .bind(direction == Direction::Undo)
        .bind(edit.id)
        .execute(&mut *tx)
        .await?;
    Ok(Some(edit))
}

#[cfg(test)]
mod tests {
    use super::*;
    use sqlx::sqlite::SqliteConnectOptions;
    use sqlx::{ConnectOptions as _, Connection as _};

    #[tokio::test]
    async fn the_oldest_edits_go_where_those_after_them_weigh_enough_and_the_newest_stays() {
        let mut conn = SqliteConnectOptions::new().in_memory(true).foreign_keys(true).connect().await.unwrap();
        crate::schema::bring_to(&mut conn, crate::schema::newest()).await.unwrap();
        // The newest weighs most.
        for (id, bytes) in [(1, 400), (2, 300), (3, 200), (4, 100), (5, 900)] {
            sqlx::query("INSERT INTO edit (id, at, label) VALUES (?, '', '')")
                .bind(id)
                .execute(&mut conn)
                .await
                .unwrap();
            for (position, of_it) in [(0, bytes / 2), (1, bytes - bytes / 2)] {
                sqlx::query("INSERT INTO edit_change (edit_id, position, thing, thing_id, before, after) VALUES (?, ?, 'job', 1, ?, NULL)")
                    .bind(id)
                    .bind(position)
                    .bind("x".repeat(of_it))
                    .execute(&mut conn)
                    .await
                    .unwrap();
            }
        }
        for (bytes, left) in [
            (2000, vec![1, 2, 3, 4, 5]),
            (1201, vec![2, 3, 4, 5]),
            (1200, vec![3, 4, 5]),
            (1000, vec![4, 5]),
            (10, vec![5]),
        ] {
            forget_beyond(&mut conn, bytes).await.unwrap();
            let ids: Vec<(i64,)> =
                sqlx::query_as("SELECT id FROM edit ORDER BY id").fetch_all(&mut conn).await.unwrap();
            assert_eq!(ids.into_iter().map(|i| i.0).collect::<Vec<_>>(), left, "{bytes}");
        }
        conn.close().await.unwrap();
    }
}
