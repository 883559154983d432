//! Changes with their before and after, undone and done again in order.

use crate::error::StoreError;
use crate::rows::{CutterRow, JobRow, KitchenRow, RecordRow};
use crate::rows_dough::{FormulaRow, MixNoteRow, PantryRow, VersionRow};
use crate::tables::{Tx, delete, read, write};
use serde::{Deserialize, Serialize};
use sqlx::FromRow;

/// Edits kept; older ones can no longer be undone (our own choice).
const KEPT_EDITS: i64 = 500;

/// One edit in words.
#[derive(Debug, Clone, PartialEq, Eq, FromRow)]
pub struct EditSummary {
    /// Its number.
    pub id: i64,
    /// When, UTC, ISO 8601.
    pub at: String,
    /// What was done.
    pub label: String,
}

/// What undo and redo would do now.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct History {
    /// The edit that undo would take back.
    pub undo: Option<EditSummary>,
    /// The edit that redo would do again.
    pub redo: Option<EditSummary>,
}

/// Any row that an edit can touch.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub(crate) enum Row {
    Kitchen(KitchenRow),
    Formula(FormulaRow),
    Cutter(CutterRow),
    Job(Box<JobRow>),
    Record(RecordRow),
    Version(VersionRow),
    Pantry(PantryRow),
    MixNote(MixNoteRow),
}

/// Which table, which number.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct Key {
    pub thing: Thing,
    pub id: i64,
}

#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Thing {
    Kitchen,
    Formula,
    Cutter,
    Job,
    Record,
    Version,
    Pantry,
    MixNote,
}

impl Thing {
    pub const fn word(self) -> &'static str {
        match self {
            Self::Kitchen => "kitchen",
            Self::Formula => "formula",
            Self::Cutter => "cutter",
            Self::Job => "job",
            Self::Record => "bake record",
            Self::Version => "formula version",
            Self::Pantry => "pantry entry",
            Self::MixNote => "mix note",
        }
    }

    fn from_word(word: &str) -> Result<Self, StoreError> {
        [
            Self::Kitchen,
            Self::Formula,
            Self::Cutter,
            Self::Job,
            Self::Record,
            Self::Version,
            Self::Pantry,
            Self::MixNote,
        ]
        .into_iter()
        .find(|t| t.word() == word)
        .ok_or_else(|| StoreError::Damaged { thing: "edit", id: 0, why: format!("unknown thing {word}") })
    }
}

impl Change {
    pub fn put(row: Row) -> Self {
        Self::Put(Box::new(row))
    }
}

impl Row {
    pub fn key(&self) -> Key {
        let (thing, id) = match self {
            Self::Kitchen(r) => (Thing::Kitchen, r.id),
            Self::Formula(r) => (Thing::Formula, r.id),
            Self::Cutter(r) => (Thing::Cutter, r.id),
            Self::Job(r) => (Thing::Job, r.id),
            Self::Record(r) => (Thing::Record, r.id),
            Self::Version(r) => (Thing::Version, r.id),
            Self::Pantry(r) => (Thing::Pantry, r.id),
            Self::MixNote(r) => (Thing::MixNote, r.id),
        };
        Key { thing, id }
    }
}

/// The next free number of a thing. Numbers of deleted things come back only when nothing undoable refers to them.
pub(crate) async fn next_id(tx: &mut Tx<'_>, thing: Thing) -> Result<i64, StoreError> {
    let query = match thing {
        Thing::Kitchen => sqlx::query_as("SELECT 1"),
        Thing::Formula => sqlx::query_as("SELECT COALESCE(MAX(id), 0) + 1 FROM formula"),
        Thing::Cutter => sqlx::query_as("SELECT COALESCE(MAX(id), 0) + 1 FROM cutter"),
        Thing::Job => sqlx::query_as("SELECT COALESCE(MAX(id), 0) + 1 FROM job"),
        Thing::Record => sqlx::query_as("SELECT COALESCE(MAX(id), 0) + 1 FROM bake_record"),
        Thing::Version => sqlx::query_as("SELECT COALESCE(MAX(id), 0) + 1 FROM formula_version"),
        Thing::Pantry => sqlx::query_as("SELECT COALESCE(MAX(id), 0) + 1 FROM pantry"),
        Thing::MixNote => sqlx::query_as("SELECT COALESCE(MAX(id), 0) + 1 FROM mix_note"),
    };
    let (live,): (i64,) = query.fetch_one(&mut **tx).await?;
    let (logged,): (i64,) = sqlx::query_as("SELECT COALESCE(MAX(thing_id), 0) + 1 FROM edit_change WHERE thing = ?")
        .bind(thing.word())
        .fetch_one(&mut **tx)
        .await?;
    Ok(if thing == Thing::Kitchen { 1 } else { live.max(logged) })
}

/// One step of an edit.
pub(crate) enum Change {
    Put(Box<Row>),
    Remove(Key),
}

/// Makes the changes and notes them as one edit that can be undone. Edits that were undone before are forgotten.
pub(crate) async fn apply(tx: &mut Tx<'_>, at: &str, label: &str, changes: Vec<Change>) -> Result<(), StoreError> {
    sqlx::query("DELETE FROM edit WHERE undone = 1").execute(&mut **tx).await?;
    let edit = sqlx::query("INSERT INTO edit (at, label) VALUES (?, ?)")
        .bind(at)
        .bind(label)
        .execute(&mut **tx)
        .await?
        .last_insert_rowid();
    for (position, change) in (0_i64..).zip(changes) {
        let key = match &change {
            Change::Put(row) => row.key(),
            Change::Remove(key) => *key,
        };
        let before = read(tx, key).await?;
        let after = match change {
            Change::Put(row) => {
                write(tx, &row).await?;
                Some(*row)
            }
            Change::Remove(key) => {
                delete(tx, key).await?;
                None
            }
        };
        let json = |row: &Option<Row>| row.as_ref().map(|r| serde_json::to_string(r).expect("rows serialise"));
        sqlx::query(
            "INSERT INTO edit_change (edit_id, position, thing, thing_id, before, after) VALUES (?, ?, ?, ?, ?, ?)",
        )
        .bind(edit)
        .bind(position)
        .bind(key.thing.word())
        .bind(key.id)
        .bind(json(&before))
        .bind(json(&after))
        .execute(&mut **tx)
        .await?;
    }
    sqlx::query("DELETE FROM edit WHERE id <= (SELECT MAX(id) FROM edit) - ?")
        .bind(KEPT_EDITS)
        .execute(&mut **tx)
        .await?;
    Ok(())
}

pub(crate) async fn history(tx: &mut Tx<'_>) -> Result<History, StoreError> {
    let undo = sqlx::query_as("SELECT id, at, label FROM edit WHERE undone = 0 ORDER BY id DESC LIMIT 1")
        .fetch_optional(&mut **tx)
        .await?;
    let redo = sqlx::query_as("SELECT id, at, label FROM edit WHERE undone = 1 ORDER BY id LIMIT 1")
        .fetch_optional(&mut **tx)
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
pub(crate) async fn step(tx: &mut Tx<'_>, direction: Direction) -> Result<Option<EditSummary>, StoreError> {
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
            .fetch_all(&mut **tx)
            .await?;
    if direction == Direction::Undo {
        changes.reverse();
    }
    for (thing, id, before, after) in changes {
        let key = Key { thing: Thing::from_word(&thing)?, id };
        let wanted = if direction == Direction::Undo { before } else { after };
        match wanted {
            None => delete(tx, key).await?,
            Some(json) => {
                let row: Row = serde_json::from_str(&json).map_err(|e| StoreError::Damaged {
                    thing: "edit",
                    id: edit.id,
                    why: e.to_string(),
                })?;
                write(tx, &row).await?;
            }
        }
    }
    sqlx::query("UPDATE edit SET undone = ? WHERE id = ?")
        .bind(direction == Direction::Undo)
        .bind(edit.id)
        .execute(&mut **tx)
        .await?;
    Ok(Some(edit))
}
