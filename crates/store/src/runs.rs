//! Runs and what happened in them: kept as it happens, outside the undo history.

use crate::cold::{moment, written};
use crate::error::StoreError;
use crate::from_row::row;
use crate::store::Store;
use crate::things::{NewRun, RunId, StoredRun};
use chrono::{DateTime, NaiveDate, Utc};
use ready_slab_core::run::{Happened, RunEvent, RunPlan};

const THING: &str = "run";

row! {
    struct RunRow {
        id: i64,
        name: String,
        day: String,
        zero_at: String,
        began_at: String,
        began_min: f64,
        speed: f64,
        plan: String,
        ended_at: Option<String>,
    }
}

row! {
    struct EventRow {
        id: i64,
        at_min: f64,
        what: String,
    }
}

fn damaged(id: i64, why: impl ToString) -> StoreError {
    StoreError::Damaged { thing: THING, id, why: why.to_string() }
}

impl RunRow {
    fn into_run(self) -> Result<StoredRun, StoreError> {
        let id = self.id;
        let plan: RunPlan = serde_json::from_str(&self.plan).map_err(|e| damaged(id, e))?;
        if !plan.holds_together() {
            return Err(damaged(id, "its plan points to something it doesn’t contain"));
        }
        Ok(StoredRun {
            id: RunId(id),
            ended_at: self.ended_at.map(|at| moment(THING, id, &at)).transpose()?,
            run: NewRun {
                name: self.name,
                day: self.day.parse::<NaiveDate>().map_err(|e| damaged(id, e))?,
                zero_at: moment(THING, id, &self.zero_at)?,
                began_at: moment(THING, id, &self.began_at)?,
                began_min: self.began_min,
                speed: self.speed,
                plan,
            },
        })
    }
}

impl Store {
    /// Keeps a run that begins.
    pub async fn add_run(&self, run: &NewRun) -> Result<RunId, StoreError> {
        let w = self.begin(None).await?;
        let id = w.next(THING).await?;
        let plan = serde_json::to_string(&run.plan).map_err(|e| damaged(id, e))?;
        sqlx::query(
            "INSERT INTO run (id, name, day, zero_at, began_at, began_min, speed, plan) VALUES (?, ?, ?, ?, ?, ?, ?, ?)",
        )
        .bind(id)
        .bind(&run.name)
        .bind(run.day.to_string())
        .bind(written(run.zero_at))
        .bind(written(run.began_at))
        .bind(run.began_min)
        .bind(run.speed)
        .bind(plan)
        .execute(&mut *w.conn().await?)
        .await?;
        w.commit().await?;
        Ok(RunId(id))
    }

    /// One run.
    pub async fn run(&self, id: RunId) -> Result<StoredRun, StoreError> {
        let row: Option<RunRow> = sqlx::query_as("SELECT * FROM run WHERE id = ?")
            .bind(id.0)
            .fetch_optional(&mut *self.conn().await?)
            .await?;
        row.ok_or(StoreError::NotFound { thing: THING, id: id.0 })?.into_run()
    }

    /// The runs that go on, the newest first.
    pub async fn open_runs(&self) -> Result<Vec<StoredRun>, StoreError> {
        let rows: Vec<RunRow> = sqlx::query_as("SELECT * FROM run WHERE ended_at IS NULL ORDER BY id DESC")
            .fetch_all(&mut *self.conn().await?)
            .await?;
        rows.into_iter().map(RunRow::into_run).collect()
    }

    /// Ends a run; one that has ended stays as it is.
    pub async fn end_run(&self, id: RunId, at: DateTime<Utc>) -> Result<(), StoreError> {
        self.run(id).await?;
        let w = self.begin(None).await?;
        sqlx::query("UPDATE run SET ended_at = ? WHERE id = ? AND ended_at IS NULL")
            .bind(written(at))
            .bind(id.0)
            .execute(&mut *w.conn().await?)
            .await?;
        w.commit().await
    }

    /// Notes what happened, all of it or nothing; a press that is known already is not noted again.
    pub async fn note_events(
        &self,
        id: RunId,
        noted_at: DateTime<Utc>,
        events: &[(String, f64, Happened)],
    ) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        for (press, at_min, what) in events {
            let number = w.next("run event").await?;
            let what = serde_json::to_string(what).map_err(|e| damaged(id.0, e))?;
            sqlx::query(
                "INSERT INTO run_event (id, run_id, press, at_min, noted_at, what) VALUES (?, ?, ?, ?, ?, ?) ON CONFLICT (run_id, press) DO NOTHING",
            )
            .bind(number)
            .bind(id.0)
            .bind(press)
            .bind(at_min)
            .bind(written(noted_at))
            .bind(what)
            .execute(&mut *w.conn().await?)
            .await?;
        }
        w.commit().await
    }

    /// The names of the presses that were noted of a run.
    pub async fn known_presses(&self, id: RunId) -> Result<Vec<String>, StoreError> {
        let rows: Vec<(String,)> = sqlx::query_as("SELECT press FROM run_event WHERE run_id = ?")
            .bind(id.0)
            .fetch_all(&mut *self.conn().await?)
            .await?;
        Ok(rows.into_iter().map(|(press,)| press).collect())
    }

    /// All that was noted of a run, in the order in which it was.
    pub async fn run_events(&self, id: RunId) -> Result<Vec<RunEvent>, StoreError> {
        let rows: Vec<EventRow> = sqlx::query_as("SELECT id, at_min, what FROM run_event WHERE run_id = ? ORDER BY id")
            .bind(id.0)
            .fetch_all(&mut *self.conn().await?)
            .await?;
        let event = |row: EventRow| {
            let what = serde_json::from_str(&row.what).map_err(|e| damaged(id.0, e))?;
            Ok(RunEvent { id: row.id, at_min: row.at_min, what })
        };
        rows.into_iter().map(event).collect()
    }
}
