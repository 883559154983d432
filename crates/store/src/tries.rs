//! What is tried on purpose, and what came of it: kept outside the undo history, as records are.

use crate::cold::{moment, written};
use crate::error::StoreError;
use crate::from_row::row;
use crate::store::Store;
use crate::things::{FormulaId, JobId, NewTry, StoredTry, TryId};
use chrono::{DateTime, Utc};
use ready_slab_core::ledger::{
    Cause, CauseTest, EvenMeasure, Seen, Tell, TestPlanned, Trial, TrialAsked, TryNoted, Trying, WithCause,
};
use ready_slab_core::units::{Length, Share};
use serde::{Deserialize, Serialize};

const THING: &str = "try";

row! {
    struct TryRow {
        id: i64,
        job_id: i64,
        formula_id: i64,
        planned_at: String,
        trying: String,
        noted: Option<String>,
        noted_at: Option<String>,
    }
}

#[derive(Serialize, Deserialize)]
struct ExpectsJson {
    cause: Cause,
    share: f64,
    wider_mm: Option<f64>,
}

#[derive(Serialize, Deserialize)]
#[serde(tag = "kind", rename_all = "snake_case")]
enum TryingJson {
    Trial {
        name: String,
        ways: Vec<String>,
        measure: EvenMeasure,
        difference_mm: f64,
        sd_mm: f64,
        per_tray: u32,
        places_mm: Vec<(f64, f64)>,
        tray_mm: (f64, f64),
        trays: Vec<Vec<Option<usize>>>,
    },
    Test {
        record: i64,
        seen: Vec<Seen>,
        of: Cause,
        from: Option<Cause>,
        beside: bool,
        pieces: u32,
        sd_mm: f64,
        expects: Vec<ExpectsJson>,
    },
}

impl TryingJson {
    fn of(trying: &Trying) -> Self {
        match trying {
            Trying::Trial(t) => Self::Trial {
                name: t.name.clone(),
                ways: t.ways.clone(),
                measure: t.measure,
                difference_mm: t.asked.difference.mm(),
                sd_mm: t.asked.sd.mm(),
                per_tray: t.asked.per_tray,
                places_mm: t.places.clone(),
                tray_mm: t.tray_mm,
                trays: t.trays.clone(),
            },
            Trying::Test(TestPlanned { record, seen, test }) => Self::Test {
                record: *record,
                seen: seen.clone(),
                of: test.of,
                from: test.from,
                beside: test.tell == Tell::Beside,
                pieces: test.pieces,
                sd_mm: test.sd.mm(),
                expects: test
                    .expects
                    .iter()
                    .map(|e| ExpectsJson { cause: e.cause, share: e.share.value(), wider_mm: e.wider.map(|l| l.mm()) })
                    .collect(),
            },
        }
    }

    fn into_core(self, id: i64) -> Result<Trying, StoreError> {
        let damaged = |why: String| StoreError::Damaged { thing: THING, id, why };
        let mm = |v: f64| Length::from_mm(v).map_err(|e| damaged(e.to_string()));
        Ok(match self {
            Self::Trial { name, ways, measure, difference_mm, sd_mm, per_tray, places_mm, tray_mm, trays } => {
                let whole =
                    trays.iter().all(|t| t.len() == places_mm.len() && t.iter().flatten().all(|w| *w < ways.len()));
                if !whole {
                    return Err(damaged("its trays don’t match its spots and versions".to_owned()));
                }
                let asked = TrialAsked { ways: ways.len(), difference: mm(difference_mm)?, sd: mm(sd_mm)?, per_tray };
                Trying::Trial(Trial { name, ways, measure, asked, places: places_mm, tray_mm, trays })
            }
            Self::Test { record, seen, of, from, beside, pieces, sd_mm, expects } => {
                let expects = expects.into_iter().map(|e| {
                    let share = Share::from_value(e.share).map_err(|e| damaged(e.to_string()))?;
                    Ok(WithCause { cause: e.cause, share, wider: e.wider_mm.map(mm).transpose()? })
                });
                let tell = if beside { Tell::Beside } else { Tell::ByHand };
                let expects = expects.collect::<Result<_, StoreError>>()?;
                let test = CauseTest { of, from, tell, expects, pieces, sd: mm(sd_mm)? };
                Trying::Test(TestPlanned { record, seen, test })
            }
        })
    }
}

impl TryRow {
    fn into_core(self) -> Result<StoredTry, StoreError> {
        let id = self.id;
        let damaged = |e: serde_json::Error| StoreError::Damaged { thing: THING, id, why: e.to_string() };
        let trying: TryingJson = serde_json::from_str(&self.trying).map_err(damaged)?;
        let noted = self.noted.map(|n| serde_json::from_str::<TryNoted>(&n).map_err(damaged)).transpose()?;
        Ok(StoredTry {
            id: TryId(id),
            noted,
            noted_at: self.noted_at.map(|at| moment(THING, id, &at)).transpose()?,
            kept: NewTry {
                job_id: JobId(self.job_id),
                formula_id: FormulaId(self.formula_id),
                planned_at: moment(THING, id, &self.planned_at)?,
                trying: trying.into_core(id)?,
            },
        })
    }
}

impl Store {
    /// Keeps what is to be tried.
    pub async fn add_try(&self, new: &NewTry) -> Result<TryId, StoreError> {
        let w = self.begin(None).await?;
        let id = w.next(THING).await?;
        sqlx::query("INSERT INTO try (id, job_id, formula_id, planned_at, trying) VALUES (?, ?, ?, ?, ?)")
            .bind(id)
            .bind(new.job_id.0)
            .bind(new.formula_id.0)
            .bind(written(new.planned_at))
            .bind(serde_json::to_string(&TryingJson::of(&new.trying)).expect("what is tried serialises"))
            .execute(&mut *w.conn().await?)
            .await?;
        w.commit().await?;
        Ok(TryId(id))
    }

    /// What was and is to be tried of a dough, in whichever of its jobs, the newest first; at most so many.
    pub async fn tries(&self, formula: FormulaId, most: u32) -> Result<Vec<StoredTry>, StoreError> {
        let rows: Vec<TryRow> = sqlx::query_as("SELECT * FROM try WHERE formula_id = ? ORDER BY id DESC LIMIT ?")
            .bind(formula.0)
            .bind(most)
            .fetch_all(&mut *self.conn().await?)
            .await?;
        rows.into_iter().map(TryRow::into_core).collect()
    }

    /// One of them.
    pub async fn one_try(&self, id: TryId) -> Result<StoredTry, StoreError> {
        let row: Option<TryRow> = sqlx::query_as("SELECT * FROM try WHERE id = ?")
            .bind(id.0)
            .fetch_optional(&mut *self.conn().await?)
            .await?;
        row.ok_or(StoreError::NotFound { thing: THING, id: id.0 })?.into_core()
    }

    /// Notes what came of it, or (with nothing) that it is still to be made.
    pub async fn note_try(&self, id: TryId, noted: Option<&TryNoted>, at: DateTime<Utc>) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        w.one_try(id).await?;
        sqlx::query("UPDATE try SET noted = ?, noted_at = ? WHERE id = ?")
            .bind(noted.map(|n| serde_json::to_string(n).expect("what was noted serialises")))
            .bind(noted.map(|_| written(at)))
            .bind(id.0)
            .execute(&mut *w.conn().await?)
            .await?;
        w.commit().await
    }

    /// Takes one away.
    pub async fn delete_try(&self, id: TryId) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        w.one_try(id).await?;
        sqlx::query("DELETE FROM try WHERE id = ?").bind(id.0).execute(&mut *w.conn().await?).await?;
        w.commit().await
    }
}
