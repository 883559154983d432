//! Changes with their before and after, undone and done again in order.

use crate::error::StoreError;
use crate::rows::{CutterRow, FormulaRow, JobRow, KitchenRow, LineRow, RecordRow};
use serde::{Deserialize, Serialize};
use sqlx::{FromRow, Sqlite, Transaction};

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
    Job(JobRow),
    Record(RecordRow),
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
}

impl Thing {
    pub const fn word(self) -> &'static str {
        match self {
            Self::Kitchen => "kitchen",
            Self::Formula => "formula",
            Self::Cutter => "cutter",
            Self::Job => "job",
            Self::Record => "bake record",
        }
    }

    fn from_word(word: &str) -> Result<Self, StoreError> {
        [Self::Kitchen, Self::Formula, Self::Cutter, Self::Job, Self::Record]
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
        };
        Key { thing, id }
    }
}

pub(crate) type Tx<'a> = Transaction<'a, Sqlite>;

pub(crate) async fn read(tx: &mut Tx<'_>, key: Key) -> Result<Option<Row>, StoreError> {
    let conn = &mut **tx;
    Ok(match key.thing {
        Thing::Kitchen => sqlx::query_as("SELECT * FROM kitchen WHERE id = ?")
            .bind(key.id)
            .fetch_optional(conn)
            .await?
            .map(Row::Kitchen),
        Thing::Formula => {
            let name: Option<(String,)> =
                sqlx::query_as("SELECT name FROM formula WHERE id = ?").bind(key.id).fetch_optional(&mut **tx).await?;
            match name {
                None => None,
                Some((name,)) => {
                    Some(Row::Formula(FormulaRow { id: key.id, name, lines: read_lines(tx, key.id).await? }))
                }
            }
        }
        Thing::Cutter => sqlx::query_as("SELECT * FROM cutter WHERE id = ?")
            .bind(key.id)
            .fetch_optional(conn)
            .await?
            .map(Row::Cutter),
        Thing::Job => {
            sqlx::query_as("SELECT * FROM job WHERE id = ?").bind(key.id).fetch_optional(conn).await?.map(Row::Job)
        }
        Thing::Record => sqlx::query_as("SELECT * FROM bake_record WHERE id = ?")
            .bind(key.id)
            .fetch_optional(conn)
            .await?
            .map(Row::Record),
    })
}

async fn read_lines(tx: &mut Tx<'_>, formula: i64) -> Result<Vec<LineRow>, StoreError> {
    Ok(sqlx::query_as("SELECT ingredient, grams FROM formula_line WHERE formula_id = ? ORDER BY position")
        .bind(formula)
        .fetch_all(&mut **tx)
        .await?)
}

async fn write(tx: &mut Tx<'_>, row: &Row) -> Result<(), StoreError> {
    match row {
        Row::Kitchen(k) => {
            sqlx::query(
                "INSERT INTO kitchen (id, name, room_c, fridge_c, fridge_fan, freezer_c, tray_width_mm, tray_length_mm, \
                 tray_kind, trays_owned, least_gap_mm, mixer_limit_g, rods_mm, ovens, racks_per_oven, oven_fan, \
                 preheat_min, roll_min, cut_s) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) \
                 ON CONFLICT (id) DO UPDATE SET name = excluded.name, room_c = excluded.room_c, \
                 fridge_c = excluded.fridge_c, fridge_fan = excluded.fridge_fan, freezer_c = excluded.freezer_c, \
                 tray_width_mm = excluded.tray_width_mm, tray_length_mm = excluded.tray_length_mm, \
                 tray_kind = excluded.tray_kind, trays_owned = excluded.trays_owned, \
                 least_gap_mm = excluded.least_gap_mm, mixer_limit_g = excluded.mixer_limit_g, \
                 rods_mm = excluded.rods_mm, ovens = excluded.ovens, racks_per_oven = excluded.racks_per_oven, \
                 oven_fan = excluded.oven_fan, preheat_min = excluded.preheat_min, roll_min = excluded.roll_min, \
                 cut_s = excluded.cut_s",
            )
            .bind(k.id)
            .bind(&k.name)
            .bind(k.room_c)
            .bind(k.fridge_c)
            .bind(k.fridge_fan)
            .bind(k.freezer_c)
            .bind(k.tray_width_mm)
            .bind(k.tray_length_mm)
            .bind(&k.tray_kind)
            .bind(k.trays_owned)
            .bind(k.least_gap_mm)
            .bind(k.mixer_limit_g)
            .bind(&k.rods_mm)
            .bind(k.ovens)
            .bind(k.racks_per_oven)
            .bind(k.oven_fan)
            .bind(k.preheat_min)
            .bind(k.roll_min)
            .bind(k.cut_s)
            .execute(&mut **tx)
            .await?;
        }
        Row::Formula(f) => {
            sqlx::query(
                "INSERT INTO formula (id, name) VALUES (?, ?) ON CONFLICT (id) DO UPDATE SET name = excluded.name",
            )
            .bind(f.id)
            .bind(&f.name)
            .execute(&mut **tx)
            .await?;
            sqlx::query("DELETE FROM formula_line WHERE formula_id = ?").bind(f.id).execute(&mut **tx).await?;
            for (position, line) in (0_i64..).zip(&f.lines) {
                sqlx::query("INSERT INTO formula_line (formula_id, position, ingredient, grams) VALUES (?, ?, ?, ?)")
                    .bind(f.id)
                    .bind(position)
                    .bind(&line.ingredient)
                    .bind(line.grams)
                    .execute(&mut **tx)
                    .await?;
            }
        }
        Row::Cutter(c) => {
            sqlx::query(
                "INSERT INTO cutter (id, name, origin, points_mm, neck_mm) VALUES (?, ?, ?, ?, ?) \
                 ON CONFLICT (id) DO UPDATE SET name = excluded.name, origin = excluded.origin, \
                 points_mm = excluded.points_mm, neck_mm = excluded.neck_mm",
            )
            .bind(c.id)
            .bind(&c.name)
            .bind(&c.origin)
            .bind(&c.points_mm)
            .bind(c.neck_mm)
            .execute(&mut **tx)
            .await?;
        }
        Row::Job(j) => {
            sqlx::query(
                "INSERT INTO job (id, name, formula_id, cutter_id, pieces, thickness_mm, ready_by, method, dough_c, \
                 chill_as_disc, disc_mm, chill_place, tray_chill_place, web_mm, edge_mm, surface, rerolls, \
                 reserve_percent, oven_c) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) \
                 ON CONFLICT (id) DO UPDATE SET name = excluded.name, formula_id = excluded.formula_id, \
                 cutter_id = excluded.cutter_id, pieces = excluded.pieces, thickness_mm = excluded.thickness_mm, \
                 ready_by = excluded.ready_by, method = excluded.method, dough_c = excluded.dough_c, \
                 chill_as_disc = excluded.chill_as_disc, disc_mm = excluded.disc_mm, \
                 chill_place = excluded.chill_place, tray_chill_place = excluded.tray_chill_place, \
                 web_mm = excluded.web_mm, edge_mm = excluded.edge_mm, surface = excluded.surface, \
                 rerolls = excluded.rerolls, reserve_percent = excluded.reserve_percent, oven_c = excluded.oven_c",
            )
            .bind(j.id)
            .bind(&j.name)
            .bind(j.formula_id)
            .bind(j.cutter_id)
            .bind(j.pieces)
            .bind(j.thickness_mm)
            .bind(&j.ready_by)
            .bind(&j.method)
            .bind(j.dough_c)
            .bind(j.chill_as_disc)
            .bind(j.disc_mm)
            .bind(&j.chill_place)
            .bind(&j.tray_chill_place)
            .bind(j.web_mm)
            .bind(j.edge_mm)
            .bind(&j.surface)
            .bind(j.rerolls)
            .bind(j.reserve_percent)
            .bind(j.oven_c)
            .execute(&mut **tx)
            .await?;
        }
        Row::Record(r) => {
            sqlx::query(
                "INSERT INTO bake_record (id, job_id, recorded_at, cut_width_mm, cut_thickness_mm, widths_mm, \
                 thicknesses_mm, baked_min, edge_colour, notes, expected_bake_least_min, expected_bake_most_min, \
                 expected_spread_least_share, expected_spread_most_share) \
                 VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
            )
            .bind(r.id)
            .bind(r.job_id)
            .bind(&r.recorded_at)
            .bind(r.cut_width_mm)
            .bind(r.cut_thickness_mm)
            .bind(&r.widths_mm)
            .bind(&r.thicknesses_mm)
            .bind(r.baked_min)
            .bind(&r.edge_colour)
            .bind(&r.notes)
            .bind(r.expected_bake_least_min)
            .bind(r.expected_bake_most_min)
            .bind(r.expected_spread_least_share)
            .bind(r.expected_spread_most_share)
            .execute(&mut **tx)
            .await?;
        }
    }
    Ok(())
}

async fn delete(tx: &mut Tx<'_>, key: Key) -> Result<(), StoreError> {
    let query = match key.thing {
        Thing::Kitchen => sqlx::query("DELETE FROM kitchen WHERE id = ?"),
        Thing::Formula => sqlx::query("DELETE FROM formula WHERE id = ?"),
        Thing::Cutter => sqlx::query("DELETE FROM cutter WHERE id = ?"),
        Thing::Job => sqlx::query("DELETE FROM job WHERE id = ?"),
        Thing::Record => sqlx::query("DELETE FROM bake_record WHERE id = ?"),
    };
    query.bind(key.id).execute(&mut **tx).await?;
    Ok(())
}

/// The next free number of a thing. Numbers of deleted things come back only when nothing undoable refers to them.
pub(crate) async fn next_id(tx: &mut Tx<'_>, thing: Thing) -> Result<i64, StoreError> {
    let query = match thing {
        Thing::Kitchen => sqlx::query_as("SELECT 1"),
        Thing::Formula => sqlx::query_as("SELECT COALESCE(MAX(id), 0) + 1 FROM formula"),
        Thing::Cutter => sqlx::query_as("SELECT COALESCE(MAX(id), 0) + 1 FROM cutter"),
        Thing::Job => sqlx::query_as("SELECT COALESCE(MAX(id), 0) + 1 FROM job"),
        Thing::Record => sqlx::query_as("SELECT COALESCE(MAX(id), 0) + 1 FROM bake_record"),
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
