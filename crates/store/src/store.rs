//! The repository: reads, and changes that can be undone.

use crate::connected::connected;
use crate::document::{JobRow, KitchenRow};
use crate::edits::{Change, Direction, EditSummary, History, apply, at_revision, history, next_number, revision, step};
use crate::error::StoreError;
use crate::row::{Key, Row, Thing};
use crate::rows::CutterRow;
use crate::rows_dough::{FormulaRow, VersionRow};
use crate::schema::newest;
use crate::source::{Conn, Source};
use crate::tables::read;
use crate::things::{CutterId, FormulaId, JobId, NewRecord, StoredCutter, StoredJob};
use ready_slab_core::dough::Formula;
use ready_slab_core::geometry::Outline;
use ready_slab_core::job::{Job, Kin, Kitchen, goes_along, left_of};
use sqlx::sqlite::SqliteConnectOptions;
use std::path::Path;

/// The bakery's memory. Cheap to clone; all clones share the file.
#[derive(Debug, Clone)]
pub struct Store {
    pub(crate) source: Source,
}

impl Store {
    /// Opens the file, makes it when it is not there, and brings it to this version.
    pub async fn open(path: &Path) -> Result<Self, StoreError> {
        Ok(Self { source: Source::open(path).await? })
    }

    /// Whether a file is of an earlier version, and would be changed when it is opened.
    pub(crate) async fn is_older(path: &Path) -> Result<bool, StoreError> {
        let options = SqliteConnectOptions::new().filename(path).read_only(true);
        let at = connected(options, async |conn| {
            let at: Result<(i64,), sqlx::Error> =
                sqlx::query_as("SELECT COALESCE(MAX(version), 0) FROM _sqlx_migrations").fetch_one(conn).await;
            Ok(at)
        })
        .await?;
        Ok(at.is_ok_and(|(at,)| at < newest()))
    }

    /// How often something was kept since the file was opened: what was read at one count still stands at the same. A transaction does not count itself.
    pub fn commits(&self) -> u64 {
        match &self.source {
            Source::File { at, .. } => at.commits(),
            Source::Within(_) => 0,
        }
    }

    /// Waits for running statements and closes the file.
    pub async fn close(&self) {
        self.source.close().await;
    }

    pub(crate) async fn conn(&self) -> Result<Conn, StoreError> {
        self.source.conn().await
    }

    /// Whether nothing was ever put in.
    pub async fn is_empty(&self) -> Result<bool, StoreError> {
        let (count,): (i64,) =
            sqlx::query_as("SELECT COUNT(*) FROM kitchen").fetch_one(&mut *self.conn().await?).await?;
        Ok(count == 0)
    }

    /// Whether the bakery is a demo: then simulated readings may teach it.
    pub async fn is_made_up(&self) -> Result<bool, StoreError> {
        let (made_up,): (bool,) =
            sqlx::query_as("SELECT made_up FROM bakery WHERE id = 1").fetch_one(&mut *self.conn().await?).await?;
        Ok(made_up)
    }

    /// Notes that the bakery is a demo.
    pub async fn set_made_up(&self) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        sqlx::query("UPDATE bakery SET made_up = 1").execute(&mut *w.conn().await?).await?;
        w.commit().await
    }

    /// Makes all changes in one transaction, noted as one edit.
    pub(crate) async fn change(&self, label: &str, changes: Vec<Change>) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        w.note(label, changes).await?;
        w.commit().await
    }

    /// Makes the changes in the transaction that this store is in.
    pub(crate) async fn note(&self, label: &str, changes: Vec<Change>) -> Result<(), StoreError> {
        let Conn::Within(mut guard) = self.conn().await? else { unreachable!("changes are made in a transaction") };
        let (tx, noted, whole) = guard.as_mut().expect("the transaction is open while its store is used").parts();
        let label = whole.map_or_else(|| label.to_owned(), str::to_owned);
        apply(tx, noted, &now(), &label, changes).await
    }

    pub(crate) async fn next(&self, thing: &str) -> Result<i64, StoreError> {
        next_number(&mut *self.conn().await?, thing).await
    }

    pub(crate) async fn one(&self, thing: Thing, id: i64) -> Result<Row, StoreError> {
        let found = read(&mut *self.conn().await?, Key { thing, id }).await?;
        found.ok_or(StoreError::NotFound { thing: thing.word(), id })
    }

    pub(crate) async fn add(&self, label: &str, thing: Thing, row: impl FnOnce(i64) -> Row) -> Result<i64, StoreError> {
        let w = self.begin(None).await?;
        let id = w.next(thing.word()).await?;
        w.note(label, vec![Change::put(row(id))]).await?;
        w.commit().await?;
        Ok(id)
    }

    pub(crate) async fn revision(&self, thing: Thing, id: i64) -> Result<i64, StoreError> {
        revision(&mut *self.conn().await?, Key { thing, id }).await
    }

    pub(crate) async fn at_revision(&self, thing: Thing, id: i64, number: i64) -> Result<Option<Row>, StoreError> {
        at_revision(&mut *self.conn().await?, Key { thing, id }, number).await
    }

    /// How often the kitchen has changed.
    pub async fn kitchen_revision(&self) -> Result<i64, StoreError> {
        self.revision(Thing::Kitchen, 1).await
    }

    /// The kitchen as it was at a revision, where that is still known.
    pub async fn kitchen_at(&self, revision: i64) -> Result<Option<Kitchen>, StoreError> {
        match self.at_revision(Thing::Kitchen, 1, revision).await? {
            Some(Row::Kitchen(row)) => row.into_core().map(Some),
            _ => Ok(None),
        }
    }

    /// A job as it was at a revision, where that is still known.
    pub async fn job_at(&self, id: JobId, revision: i64) -> Result<Option<StoredJob>, StoreError> {
        match self.at_revision(Thing::Job, id.0, revision).await? {
            Some(Row::Job(row)) => row.into_core().map(Some),
            _ => Ok(None),
        }
    }

    /// Gives a kitchen that has no time zone the one the program runs in; no edit, since nobody chose it.
    pub async fn settle_zone(&self, zone: &str) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        sqlx::query(
            "UPDATE kitchen SET document = json_set(document, '$.zone', ?) WHERE json_extract(document, '$.zone') = ''",
        )
        .bind(zone)
        .execute(&mut *w.conn().await?)
        .await?;
        w.commit().await
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
        self.change(label, vec![Change::put(Row::Kitchen(Box::new(KitchenRow::of(kitchen))))]).await
    }

    /// All cutters by name.
    pub async fn cutters(&self) -> Result<Vec<StoredCutter>, StoreError> {
        let rows: Vec<CutterRow> =
            sqlx::query_as("SELECT * FROM cutter ORDER BY name, id").fetch_all(&mut *self.conn().await?).await?;
        rows.into_iter().map(CutterRow::into_core).collect()
    }

    /// One cutter.
    pub async fn cutter(&self, id: CutterId) -> Result<StoredCutter, StoreError> {
        match self.one(Thing::Cutter, id.0).await? {
            Row::Cutter(row) => row.into_core(),
            _ => Err(StoreError::NotFound { thing: "cutter", id: id.0 }),
        }
    }

    /// Puts a cutter on the shelf. Works out its narrowest neck before the file is locked, since that takes a moment for an
    /// intricate one.
    pub async fn add_cutter(
        &self,
        name: &str,
        origin: &str,
        outline: &Outline,
        label: &str,
    ) -> Result<CutterId, StoreError> {
        let row = CutterRow::of(0, name, origin, outline);
        self.add(label, Thing::Cutter, |id| Row::Cutter(CutterRow { id, ..row })).await.map(CutterId)
    }

    /// Takes a cutter off the shelf; refuses while a job uses it.
    pub async fn delete_cutter(&self, id: CutterId, label: &str) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        w.cutter(id).await?;
        w.unused("cutter", "SELECT COUNT(*) FROM job WHERE cutter_id = ?", id.0).await?;
        w.note(label, vec![Change::Remove(Key { thing: Thing::Cutter, id: id.0 })]).await?;
        w.commit().await
    }

    /// Refuses while a job uses the thing.
    pub(crate) async fn unused(&self, thing: &'static str, count: &'static str, id: i64) -> Result<(), StoreError> {
        let (count,): (i64,) = sqlx::query_as(count).bind(id).fetch_one(&mut *self.conn().await?).await?;
        match count {
            0 => Ok(()),
            count => Err(StoreError::InUse { thing, by: if count == 1 { "job" } else { "jobs" }, count }),
        }
    }

    /// One job.
    pub async fn job(&self, id: JobId) -> Result<StoredJob, StoreError> {
        match self.one(Thing::Job, id.0).await? {
            Row::Job(row) => row.into_core(),
            _ => Err(StoreError::NotFound { thing: "job", id: id.0 }),
        }
    }

    /// Adds a job, or a lot to one.
    pub async fn add_job(&self, job: &Job, label: &str) -> Result<JobId, StoreError> {
        let w = self.begin(None).await?;
        w.check_references(&StoredJob::new(JobId(0), job.clone())).await?;
        let id = w.add(label, Thing::Job, |id| Row::Job(Box::new(JobRow::of(id, job)))).await?;
        w.commit().await?;
        Ok(JobId(id))
    }

    /// Keeps a job under its number.
    pub async fn save_job(&self, stored: &StoredJob, label: &str) -> Result<(), StoreError> {
        self.save_jobs(std::slice::from_ref(stored), label).await
    }

    /// Keeps several jobs under their numbers, as one edit.
    pub async fn save_jobs(&self, all: &[StoredJob], label: &str) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        let mut changes = Vec::with_capacity(all.len());
        for stored in all {
            w.job(stored.id).await?;
            w.check_references(stored).await?;
            changes.push(Change::put(Row::Job(Box::new(JobRow::of(stored.id.0, &stored.job)))));
        }
        w.note(label, changes).await?;
        w.commit().await
    }

    async fn check_references(&self, stored: &StoredJob) -> Result<(), StoreError> {
        self.formula(stored.formula_id()).await?;
        self.cutter(stored.cutter_id()).await?;
        for other in stored.dough_with().into_iter().chain(stored.lot_of()) {
            self.job(other).await?;
        }
        Ok(())
    }

    /// Deletes a job with its lots, as one edit. Their bakes, notes and pieces in the cold are facts and stay, for the job to find
    /// when it comes back. Jobs whose dough was mixed with one of them are on their own again; sheets laid for several lots are
    /// gone with any of them.
    pub async fn delete_job(&self, id: JobId, label: &str) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        // One that is damaged can be deleted, too.
        let own = match w.job(id).await {
            Err(StoreError::Damaged { .. }) => None,
            other => Some(other?),
        };
        let kin: Vec<Kin> = w.related_jobs(&[id]).await?.iter().map(StoredJob::kin).collect();
        let gone = goes_along(id.0, &kin);
        // Sheets for several lots are kept by the job they belong to.
        let touched: Vec<JobId> = gone.iter().copied().map(JobId).chain(own.and_then(|j| j.lot_of())).collect();
        let jobs = w.related_jobs(&touched).await?;
        let mut changes: Vec<Change> = Vec::new();
        for other in jobs.iter().filter(|j| !gone.contains(&j.id.0)) {
            let on_sheets = other.mixed().iter().flat_map(|s| s.pieces.iter().map(|p| p.job_id));
            let left = left_of(&other.kin(), on_sheets, &gone);
            let job = other.job.clone().mixed_with(left.dough_with);
            let job = if left.keeps_sheets { job } else { job.without_kept_sheets() };
            if job != other.job {
                changes.push(Change::put(Row::Job(Box::new(JobRow::of(other.id.0, &job)))));
            }
        }
        changes.extend(gone.iter().map(|job| Change::Remove(Key { thing: Thing::Job, id: *job })));
        w.note(label, changes).await?;
        w.commit().await
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
        let same_cutter = CutterRow::of(0, cutter.0, cutter.1, cutter.2);
        let w = self.begin(None).await?;
        let known_formula = w.formulas().await?.into_iter().find(|f| f.formula == *formula).map(|f| f.id.0);
        let shelf: Vec<CutterRow> = sqlx::query_as("SELECT * FROM cutter").fetch_all(&mut *w.conn().await?).await?;
        let known_cutter = shelf.into_iter().find(|c| c.alike(&same_cutter)).map(|c| c.id);
        let mut changes = Vec::new();
        let formula_id = match known_formula {
            Some(id) => id,
            None => {
                let id = w.next(Thing::Formula.word()).await?;
                changes.push(Change::put(Row::Formula(FormulaRow::of(id, formula))));
                let version = w.next(Thing::Version.word()).await?;
                let number = w.next_version(id).await?;
                changes.push(Change::put(Row::Version(VersionRow::of(version, id, number, &now(), formula))));
                id
            }
        };
        let cutter_id = match known_cutter {
            Some(id) => id,
            None => {
                let id = w.next(Thing::Cutter.word()).await?;
                changes.push(Change::put(Row::Cutter(CutterRow { id, ..same_cutter })));
                id
            }
        };
        let job_id = w.next(Thing::Job.word()).await?;
        let job = job.clone().referring_to(formula_id, cutter_id);
        changes.push(Change::put(Row::Job(Box::new(JobRow::of(job_id, &job)))));
        w.note(label, changes).await?;
        for record in records {
            let own = NewRecord {
                job_id: JobId(job_id),
                formula_id: Some(FormulaId(formula_id)),
                formula_version: None,
                ..record.clone()
            };
            w.keep_record(&own).await?;
        }
        w.commit().await?;
        Ok(JobId(job_id))
    }

    /// What undo and redo would do now.
    pub async fn history(&self) -> Result<History, StoreError> {
        history(&mut *self.conn().await?).await
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
        let w = self.begin(None).await?;
        let edit = step(&mut *w.conn().await?, &now(), direction).await?;
        w.commit().await?;
        Ok(edit)
    }

    /// Forgets how the present state came about, so that nothing before it can be undone (after seeding).
    pub async fn forget_history(&self) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        sqlx::query("DELETE FROM edit").execute(&mut *w.conn().await?).await?;
        w.commit().await
    }
}

pub(crate) fn now() -> String {
    chrono::Utc::now().format("%Y-%m-%dT%H:%M:%SZ").to_string()
}
