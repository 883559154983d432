//! The repository: reads, and changes that can be undone.

use crate::edits::{Change, Direction, EditSummary, History, Key, Row, Thing, apply, history, next_id, step};
use crate::error::StoreError;
use crate::rows::{CutterRow, JobRow, KitchenRow, RecordRow};
use crate::rows_dough::{FormulaRow, MixNoteRow, VersionRow};
use crate::tables::{Tx, read};
use crate::things::{
    CutterId, FormulaId, JobId, MixNoteId, NewMixNote, NewRecord, RecordId, StoredCutter, StoredJob, StoredMixNote,
    StoredRecord,
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
    pub(crate) pool: SqlitePool,
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
    pub(crate) async fn change(&self, label: &str, changes: Vec<Change>) -> Result<(), StoreError> {
        let mut tx = self.write().await?;
        apply(&mut tx, &now(), label, changes).await?;
        Ok(tx.commit().await?)
    }

    pub(crate) async fn write(&self) -> Result<Tx<'_>, StoreError> {
        Ok(self.pool.begin_with("BEGIN IMMEDIATE").await?)
    }

    pub(crate) async fn one(&self, thing: Thing, id: i64) -> Result<Row, StoreError> {
        let mut tx = self.pool.begin().await?;
        read(&mut tx, Key { thing, id }).await?.ok_or(StoreError::NotFound { thing: thing.word(), id })
    }

    pub(crate) async fn add(&self, label: &str, thing: Thing, row: impl FnOnce(i64) -> Row) -> Result<i64, StoreError> {
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
        let stored = StoredJob {
            id: JobId(0),
            job: job.clone(),
            formula_id: formula,
            cutter_id: cutter,
            formula_version: None,
            dough_with: None,
            lot_of: None,
            mixed: vec![],
        };
        self.add(label, Thing::Job, |id| Row::Job(Box::new(JobRow::of(id, &stored)))).await.map(JobId)
    }

    /// Adds a lot to a job: all that is said of it but its number.
    pub async fn add_lot(&self, lot: &StoredJob, label: &str) -> Result<JobId, StoreError> {
        self.check_references(lot).await?;
        self.add(label, Thing::Job, |id| {
            Row::Job(Box::new(JobRow::of(id, &StoredJob { id: JobId(id), ..lot.clone() })))
        })
        .await
        .map(JobId)
    }

    /// Keeps a job under its number.
    pub async fn save_job(&self, stored: &StoredJob, label: &str) -> Result<(), StoreError> {
        self.save_jobs(std::slice::from_ref(stored), label).await
    }

    /// Keeps several jobs under their numbers, as one edit.
    pub async fn save_jobs(&self, all: &[StoredJob], label: &str) -> Result<(), StoreError> {
        let mut changes = Vec::with_capacity(all.len());
        for stored in all {
            self.job(stored.id).await?;
            self.check_references(stored).await?;
            changes.push(Change::put(Row::Job(Box::new(JobRow::of(stored.id.0, stored)))));
        }
        self.change(label, changes).await
    }

    async fn check_references(&self, stored: &StoredJob) -> Result<(), StoreError> {
        self.formula(stored.formula_id).await?;
        self.cutter(stored.cutter_id).await?;
        for other in stored.dough_with.iter().chain(&stored.lot_of) {
            self.job(*other).await?;
        }
        Ok(())
    }

    /// Deletes a job with its lots, their records and notes, as one edit. Jobs whose dough was mixed with one of them are on
    /// their own again; sheets laid for several lots are gone with any of them.
    pub async fn delete_job(&self, id: JobId, label: &str) -> Result<(), StoreError> {
        self.job(id).await?;
        let jobs = self.jobs().await?;
        let gone: Vec<JobId> =
            std::iter::once(id).chain(jobs.iter().filter(|j| j.lot_of == Some(id)).map(|j| j.id)).collect();
        let mut changes: Vec<Change> = Vec::new();
        for mut other in jobs.into_iter().filter(|j| !gone.contains(&j.id)) {
            let before = other.clone();
            other.dough_with = other.dough_with.filter(|with| !gone.contains(with));
            if other.mixed.iter().any(|s| s.pieces.iter().any(|(lot, _)| gone.contains(lot))) {
                other.mixed = vec![];
            }
            if other != before {
                changes.push(Change::put(Row::Job(Box::new(JobRow::of(other.id.0, &other)))));
            }
        }
        // The lots before the job they name.
        for job in gone.iter().rev() {
            let records = self.records(*job).await?;
            changes.extend(records.iter().map(|r| Change::Remove(Key { thing: Thing::Record, id: r.id.0 })));
            let notes = self.mix_notes(*job).await?;
            changes.extend(notes.iter().map(|n| Change::Remove(Key { thing: Thing::MixNote, id: n.id.0 })));
            changes.push(Change::Remove(Key { thing: Thing::Job, id: job.0 }));
        }
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
                let version = next_id(&mut tx, Thing::Version).await?;
                changes.push(Change::put(Row::Version(VersionRow::of(version, id, 1, &now(), formula))));
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
        let stored = StoredJob {
            id: JobId(job_id),
            job: job.clone(),
            formula_id: FormulaId(formula_id),
            cutter_id: CutterId(cutter_id),
            formula_version: None,
            dough_with: None,
            lot_of: None,
            mixed: vec![],
        };
        changes.push(Change::put(Row::Job(Box::new(JobRow::of(job_id, &stored)))));
        let first_record = next_id(&mut tx, Thing::Record).await?;
        for (id, record) in (first_record..).zip(records) {
            let own = NewRecord { job_id: JobId(job_id), formula_version: None, ..record.clone() };
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

    /// Keeps a record with the version of the formula that was baked. With `own_bake` (not a trial) the job keeps that
    /// version from then on.
    pub async fn add_record(&self, record: &NewRecord, own_bake: bool, label: &str) -> Result<RecordId, StoreError> {
        let mut job = self.job(record.job_id).await?;
        let version = match job.formula_version {
            Some(version) => version,
            None => self.formula(job.formula_id).await?.version,
        };
        let kept = NewRecord { formula_version: Some(version), ..record.clone() };
        let mut tx = self.write().await?;
        let id = next_id(&mut tx, Thing::Record).await?;
        let mut changes = vec![Change::put(Row::Record(RecordRow::of(id, &kept)))];
        if own_bake && job.formula_version.is_none() {
            job.formula_version = Some(version);
            changes.push(Change::put(Row::Job(Box::new(JobRow::of(job.id.0, &job)))));
        }
        apply(&mut tx, &now(), label, changes).await?;
        tx.commit().await?;
        Ok(RecordId(id))
    }

    /// Takes a record away.
    pub async fn delete_record(&self, id: RecordId, label: &str) -> Result<(), StoreError> {
        self.one(Thing::Record, id.0).await?;
        self.change(label, vec![Change::Remove(Key { thing: Thing::Record, id: id.0 })]).await
    }

    /// Notes on the mixes of a job, in the order they were made.
    pub async fn mix_notes(&self, job: JobId) -> Result<Vec<StoredMixNote>, StoreError> {
        let rows: Vec<MixNoteRow> = sqlx::query_as("SELECT * FROM mix_note WHERE job_id = ? ORDER BY noted_at, id")
            .bind(job.0)
            .fetch_all(&self.pool)
            .await?;
        rows.into_iter().map(MixNoteRow::into_core).collect()
    }

    /// Notes on the mixes of a formula in all jobs.
    pub async fn mix_notes_of(&self, formula: FormulaId) -> Result<Vec<StoredMixNote>, StoreError> {
        let rows: Vec<MixNoteRow> = sqlx::query_as("SELECT * FROM mix_note WHERE formula_id = ? ORDER BY noted_at, id")
            .bind(formula.0)
            .fetch_all(&self.pool)
            .await?;
        rows.into_iter().map(MixNoteRow::into_core).collect()
    }

    /// Keeps a note on a mix.
    pub async fn add_mix_note(&self, note: &NewMixNote, label: &str) -> Result<MixNoteId, StoreError> {
        self.job(note.job_id).await?;
        self.add(label, Thing::MixNote, |id| Row::MixNote(MixNoteRow::of(id, note))).await.map(MixNoteId)
    }

    /// Takes a note away.
    pub async fn delete_mix_note(&self, id: MixNoteId, label: &str) -> Result<(), StoreError> {
        self.one(Thing::MixNote, id.0).await?;
        self.change(label, vec![Change::Remove(Key { thing: Thing::MixNote, id: id.0 })]).await
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

pub(crate) fn now() -> String {
    chrono::Utc::now().format("%Y-%m-%dT%H:%M:%SZ").to_string()
}
