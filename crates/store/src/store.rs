//! The repository: reads, and changes that can be undone.

use crate::edits::{Change, Direction, EditSummary, History, Key, Row, Thing, Tx, apply, history, next_id, read, step};
use crate::error::StoreError;
use crate::rows::{CutterRow, FormulaRow, JobRow, KitchenRow, LineRow, RecordRow};
use crate::things::{
    CutterId, FormulaId, JobId, NewRecord, RecordId, StoredCutter, StoredFormula, StoredJob, StoredRecord,
};
use ready_slab_core::dough::Formula;
use ready_slab_core::geometry::Outline;
use ready_slab_core::job::{Job, Kitchen};
use sqlx::SqlitePool;
use sqlx::sqlite::{SqliteConnectOptions, SqliteJournalMode, SqlitePoolOptions, SqliteSynchronous};
use std::path::Path;
use std::time::Duration;

static MIGRATIONS: sqlx::migrate::Migrator = sqlx::migrate!();

/// The bakery's memory. Cheap to clone; all clones share one pool.
#[derive(Debug, Clone)]
pub struct Store {
    pool: SqlitePool,
}

impl Store {
    /// Opens the file, makes it when it is not there, and brings it to this version.
    pub async fn open(path: &Path) -> Result<Self, StoreError> {
        let options = SqliteConnectOptions::new()
            .filename(path)
            .create_if_missing(true)
            .journal_mode(SqliteJournalMode::Wal)
            .synchronous(SqliteSynchronous::Full)
            .foreign_keys(true)
            .busy_timeout(Duration::from_secs(5));
        let pool = SqlitePoolOptions::new().max_connections(4).connect_with(options).await?;
        MIGRATIONS.run(&pool).await?;
        Ok(Self { pool })
    }

    /// Waits for running statements and closes the file.
    pub async fn close(&self) {
        self.pool.close().await;
    }

    /// Whether nothing was ever put in.
    pub async fn is_empty(&self) -> Result<bool, StoreError> {
        let (count,): (i64,) = sqlx::query_as("SELECT COUNT(*) FROM kitchen").fetch_one(&self.pool).await?;
        Ok(count == 0)
    }

    /// Makes all changes in one transaction, noted as one edit. A write lock is taken first, so that numbers stay free.
    async fn change(&self, label: &str, changes: Vec<Change>) -> Result<(), StoreError> {
        let mut tx = self.write().await?;
        apply(&mut tx, &now(), label, changes).await?;
        Ok(tx.commit().await?)
    }

    async fn write(&self) -> Result<Tx<'_>, StoreError> {
        Ok(self.pool.begin_with("BEGIN IMMEDIATE").await?)
    }

    async fn one(&self, thing: Thing, id: i64) -> Result<Row, StoreError> {
        let mut tx = self.pool.begin().await?;
        read(&mut tx, Key { thing, id }).await?.ok_or(StoreError::NotFound { thing: thing.word(), id })
    }

    async fn add(&self, label: &str, thing: Thing, row: impl FnOnce(i64) -> Row) -> Result<i64, StoreError> {
        let mut tx = self.write().await?;
        let id = next_id(&mut tx, thing).await?;
        apply(&mut tx, &now(), label, vec![Change::put(row(id))]).await?;
        tx.commit().await?;
        Ok(id)
    }

    /// The kitchen.
    pub async fn kitchen(&self) -> Result<Kitchen, StoreError> {
        match self.one(Thing::Kitchen, 1).await? {
            Row::Kitchen(row) => row.into_core(),
            _ => Err(StoreError::NotFound { thing: "kitchen", id: 1 }),
        }
    }

    /// Keeps the kitchen.
    pub async fn save_kitchen(&self, kitchen: &Kitchen, label: &str) -> Result<(), StoreError> {
        self.change(label, vec![Change::put(Row::Kitchen(KitchenRow::of(kitchen)))]).await
    }

    /// All formulas by name.
    pub async fn formulas(&self) -> Result<Vec<StoredFormula>, StoreError> {
        let heads: Vec<(i64, String)> =
            sqlx::query_as("SELECT id, name FROM formula ORDER BY name, id").fetch_all(&self.pool).await?;
        let lines: Vec<(i64, String, f64)> =
            sqlx::query_as("SELECT formula_id, ingredient, grams FROM formula_line ORDER BY formula_id, position")
                .fetch_all(&self.pool)
                .await?;
        heads
            .into_iter()
            .map(|(id, name)| {
                let own = lines.iter().filter(|l| l.0 == id);
                let lines = own.map(|l| LineRow { ingredient: l.1.clone(), grams: l.2 }).collect();
                FormulaRow { id, name, lines }.into_core()
            })
            .collect()
    }

    /// One formula.
    pub async fn formula(&self, id: FormulaId) -> Result<StoredFormula, StoreError> {
        match self.one(Thing::Formula, id.0).await? {
            Row::Formula(row) => row.into_core(),
            _ => Err(StoreError::NotFound { thing: "formula", id: id.0 }),
        }
    }

    /// Puts a formula on the shelf.
    pub async fn add_formula(&self, formula: &Formula, label: &str) -> Result<FormulaId, StoreError> {
        self.add(label, Thing::Formula, |id| Row::Formula(FormulaRow::of(id, formula))).await.map(FormulaId)
    }

    /// Keeps a formula under its number.
    pub async fn save_formula(&self, id: FormulaId, formula: &Formula, label: &str) -> Result<(), StoreError> {
        self.formula(id).await?;
        self.change(label, vec![Change::put(Row::Formula(FormulaRow::of(id.0, formula)))]).await
    }

    /// All cutters by name.
    pub async fn cutters(&self) -> Result<Vec<StoredCutter>, StoreError> {
        let rows: Vec<CutterRow> =
            sqlx::query_as("SELECT * FROM cutter ORDER BY name, id").fetch_all(&self.pool).await?;
        rows.into_iter().map(CutterRow::into_core).collect()
    }

    /// One cutter.
    pub async fn cutter(&self, id: CutterId) -> Result<StoredCutter, StoreError> {
        match self.one(Thing::Cutter, id.0).await? {
            Row::Cutter(row) => row.into_core(),
            _ => Err(StoreError::NotFound { thing: "cutter", id: id.0 }),
        }
    }

    /// Puts a cutter on the shelf. Works out its narrowest neck, which takes a moment for an intricate one.
    pub async fn add_cutter(
        &self,
        name: &str,
        origin: &str,
        outline: &Outline,
        label: &str,
    ) -> Result<CutterId, StoreError> {
        self.add(label, Thing::Cutter, |id| Row::Cutter(CutterRow::of(id, name, origin, outline))).await.map(CutterId)
    }

    /// Takes a cutter off the shelf; refuses while a job uses it.
    pub async fn delete_cutter(&self, id: CutterId, label: &str) -> Result<(), StoreError> {
        self.cutter(id).await?;
        let (count,): (i64,) =
            sqlx::query_as("SELECT COUNT(*) FROM job WHERE cutter_id = ?").bind(id.0).fetch_one(&self.pool).await?;
        if count > 0 {
            return Err(StoreError::InUse { thing: "cutter", by: if count == 1 { "job" } else { "jobs" }, count });
        }
        self.change(label, vec![Change::Remove(Key { thing: Thing::Cutter, id: id.0 })]).await
    }

    /// All jobs, the soonest first.
    pub async fn jobs(&self) -> Result<Vec<StoredJob>, StoreError> {
        let rows: Vec<JobRow> = sqlx::query_as("SELECT * FROM job ORDER BY ready_by, id").fetch_all(&self.pool).await?;
        rows.into_iter().map(JobRow::into_core).collect()
    }

    /// One job.
    pub async fn job(&self, id: JobId) -> Result<StoredJob, StoreError> {
        match self.one(Thing::Job, id.0).await? {
            Row::Job(row) => row.into_core(),
            _ => Err(StoreError::NotFound { thing: "job", id: id.0 }),
        }
    }

    /// Adds a job.
    pub async fn add_job(
        &self,
        job: &Job,
        formula: FormulaId,
        cutter: CutterId,
        label: &str,
    ) -> Result<JobId, StoreError> {
        self.formula(formula).await?;
        self.cutter(cutter).await?;
        self.add(label, Thing::Job, |id| Row::Job(JobRow::of(id, job, formula, cutter))).await.map(JobId)
    }

    /// Keeps a job under its number.
    pub async fn save_job(&self, stored: &StoredJob, label: &str) -> Result<(), StoreError> {
        self.job(stored.id).await?;
        self.formula(stored.formula_id).await?;
        self.cutter(stored.cutter_id).await?;
        let row = JobRow::of(stored.id.0, &stored.job, stored.formula_id, stored.cutter_id);
        self.change(label, vec![Change::put(Row::Job(row))]).await
    }

    /// Deletes a job and its records, as one edit.
    pub async fn delete_job(&self, id: JobId, label: &str) -> Result<(), StoreError> {
        self.job(id).await?;
        let mut changes: Vec<Change> =
            self.records(id).await?.iter().map(|r| Change::Remove(Key { thing: Thing::Record, id: r.id.0 })).collect();
        changes.push(Change::Remove(Key { thing: Thing::Job, id: id.0 }));
        self.change(label, changes).await
    }

    /// Adds a formula, a cutter, a job and its records together, as one edit: a job read back from a file.
    pub async fn add_whole_job(
        &self,
        formula: &Formula,
        cutter: (&str, &str, &Outline),
        job: &Job,
        records: &[NewRecord],
        label: &str,
    ) -> Result<JobId, StoreError> {
        // A formula or cutter that is on the shelf already, alike in everything, is not doubled.
        let known_formula = self.formulas().await?.into_iter().find(|f| f.formula == *formula).map(|f| f.id.0);
        let same_cutter = CutterRow::of(0, cutter.0, cutter.1, cutter.2);
        let known_cutter = self.cutters().await?.into_iter().find_map(|c| {
            let row = CutterRow::of(0, &c.name, &c.origin, &c.outline);
            (row == same_cutter).then_some(c.id.0)
        });
        let mut tx = self.write().await?;
        let mut changes = Vec::new();
        let formula_id = match known_formula {
            Some(id) => id,
            None => {
                let id = next_id(&mut tx, Thing::Formula).await?;
                changes.push(Change::put(Row::Formula(FormulaRow::of(id, formula))));
                id
            }
        };
        let cutter_id = match known_cutter {
            Some(id) => id,
            None => {
                let id = next_id(&mut tx, Thing::Cutter).await?;
                changes.push(Change::put(Row::Cutter(CutterRow { id, ..same_cutter })));
                id
            }
        };
        let job_id = next_id(&mut tx, Thing::Job).await?;
        changes.push(Change::put(Row::Job(JobRow::of(job_id, job, FormulaId(formula_id), CutterId(cutter_id)))));
        let first_record = next_id(&mut tx, Thing::Record).await?;
        for (id, record) in (first_record..).zip(records) {
            let own = NewRecord { job_id: JobId(job_id), ..record.clone() };
            changes.push(Change::put(Row::Record(RecordRow::of(id, &own))));
        }
        apply(&mut tx, &now(), label, changes).await?;
        tx.commit().await?;
        Ok(JobId(job_id))
    }

    /// Records of a job, the latest first.
    pub async fn records(&self, job: JobId) -> Result<Vec<StoredRecord>, StoreError> {
        let rows: Vec<RecordRow> =
            sqlx::query_as("SELECT * FROM bake_record WHERE job_id = ? ORDER BY recorded_at DESC, id DESC")
                .bind(job.0)
                .fetch_all(&self.pool)
                .await?;
        rows.into_iter().map(RecordRow::into_core).collect()
    }

    /// Keeps a record.
    pub async fn add_record(&self, record: &NewRecord, label: &str) -> Result<RecordId, StoreError> {
        self.job(record.job_id).await?;
        self.add(label, Thing::Record, |id| Row::Record(RecordRow::of(id, record))).await.map(RecordId)
    }

    /// Takes a record away.
    pub async fn delete_record(&self, id: RecordId, label: &str) -> Result<(), StoreError> {
        self.one(Thing::Record, id.0).await?;
        self.change(label, vec![Change::Remove(Key { thing: Thing::Record, id: id.0 })]).await
    }

    /// What undo and redo would do now.
    pub async fn history(&self) -> Result<History, StoreError> {
        let mut tx = self.pool.begin().await?;
        history(&mut tx).await
    }

    /// Takes back the latest edit.
    pub async fn undo(&self) -> Result<Option<EditSummary>, StoreError> {
        self.step(Direction::Undo).await
    }

    /// Does the latest undone edit again.
    pub async fn redo(&self) -> Result<Option<EditSummary>, StoreError> {
        self.step(Direction::Redo).await
    }

    async fn step(&self, direction: Direction) -> Result<Option<EditSummary>, StoreError> {
        let mut tx = self.write().await?;
        let edit = step(&mut tx, direction).await?;
        tx.commit().await?;
        Ok(edit)
    }

    /// Forgets how the present state came about, so that nothing before it can be undone (after seeding).
    pub async fn forget_history(&self) -> Result<(), StoreError> {
        sqlx::query("DELETE FROM edit").execute(&self.pool).await?;
        Ok(())
    }
}

fn now() -> String {
    chrono::Utc::now().format("%Y-%m-%dT%H:%M:%SZ").to_string()
}
