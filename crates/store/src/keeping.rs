//! Keeping a bakery: a copy of it while it is used, whether a file is whole, and bringing one back.

use crate::connected::{connected, looked_at};
use crate::error::StoreError;
use crate::header::{io, sniff, with_tail};
use crate::lock::Lock;
use crate::schema::{bring_to, is_step};
use crate::store::Store;
use crate::things::{ChillId, CutterId, FormulaId, JobId, RecordId, RunId, TryId};
use chrono::{DateTime, Utc};
use sqlx::SqliteConnection;
use sqlx::sqlite::SqliteConnectOptions;
use std::collections::BTreeSet;
use std::fs;
use std::path::{Path, PathBuf};
use std::sync::Arc;
use std::sync::atomic::{AtomicU32, Ordering};
use tempfile::TempDir;
use tokio::sync::Mutex;

/// What SQLite keeps beside a file while it is used.
const BESIDE: [&str; 2] = ["-wal", "-shm"];
/// Faults of a file that are told; behind the first few stands one cause.
const MOST_FAULTS: usize = 20;

/// What a look at a bakery file found.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct Checked {
    /// What it holds, and how many of each.
    pub holds: Vec<(&'static str, usize)>,
    /// What is wrong with it, in words; nothing where it is whole.
    pub faults: Vec<String>,
}

impl Checked {
    /// Whether it is whole.
    #[must_use]
    pub fn whole(&self) -> bool {
        self.faults.is_empty()
    }
}

/// A file that is gone once it is dropped.
#[derive(Debug)]
pub struct Taken {
    /// To be read.
    pub file: fs::File,
    /// How large it is.
    pub bytes: u64,
    _folder: TempDir,
}

impl Store {
    /// Copies the bakery into a new file, while it is used: SQLite's own consistent copy. Refuses where there is a file already; of a copy that fails
    /// nothing is left.
    pub async fn back_up(&self, to: &Path) -> Result<(), StoreError> {
        into_new(&mut *self.conn().await?, to).await
    }

    /// All of it as it stands as a bakery file, to be taken away.
    pub async fn taken_away(&self) -> Result<Taken, StoreError> {
        let folder = scratch()?;
        let path = folder.path().join("bakery");
        self.back_up(&path).await?;
        let file = fs::File::open(&path).map_err(io("read", &path))?;
        let bytes = file.metadata().map_err(io("read", &path))?.len();
        Ok(Taken { file, bytes, _folder: folder })
    }

    /// What of the bakery does not read as a sound value, and how much there is of each.
    pub async fn check(&self) -> Result<Checked, StoreError> {
        let mut found = Checked::default();
        found.note(self.kitchen().await);
        found.note(self.entries().await);
        found.note(self.history().await);
        for id in self.count(&mut found, "cutters", "SELECT id FROM cutter").await? {
            found.note(self.cutter(CutterId(id)).await);
        }
        for id in self.count(&mut found, "formulas", "SELECT id FROM formula").await? {
            let id = FormulaId(id);
            found.note(self.formula(id).await);
            found.note(self.versions(id).await);
            found.note(self.touches(id).await);
            found.note(self.taught_by_bakes(id).await);
        }
        for id in self.count(&mut found, "jobs", "SELECT id FROM job").await? {
            found.note(self.job(JobId(id)).await);
            found.note(self.mix_notes(JobId(id)).await);
        }
        for id in self.count(&mut found, "bakes", "SELECT id FROM bake_record").await? {
            found.note(self.record(RecordId(id)).await);
        }
        for id in self.count(&mut found, "tests", "SELECT id FROM try").await? {
            found.note(self.one_try(TryId(id)).await);
        }
        for id in self.count(&mut found, "doughs chilled", "SELECT id FROM chill").await? {
            found.note(self.chill(ChillId(id)).await);
            found.note(self.readings(ChillId(id)).await);
        }
        for id in self.count(&mut found, "bench days", "SELECT id FROM run").await? {
            found.note(self.run(RunId(id)).await);
            found.note(self.run_events(RunId(id)).await);
        }
        Ok(found)
    }

    async fn count(
        &self,
        found: &mut Checked,
        word: &'static str,
        numbers: &'static str,
    ) -> Result<Vec<i64>, StoreError> {
        let ids: Vec<(i64,)> = sqlx::query_as(numbers).fetch_all(&mut *self.conn().await?).await?;
        found.holds.push((word, ids.len()));
        Ok(ids.into_iter().map(|(id,)| id).collect())
    }
}

impl Checked {
    fn note<T>(&mut self, read: Result<T, StoreError>) {
        match read {
            Err(error) if self.faults.len() < MOST_FAULTS => self.faults.push(error.to_string()),
            _ => {}
        }
    }
}

/// Looks at a bakery file, of this version or an earlier one, without changing it: that SQLite finds it whole, that what refers to something finds it, and
/// that every row reads as a sound value.
///
/// Fails where it is no bakery file, cannot be read, or was copied without the log beside it.
pub async fn check_file(file: &Path) -> Result<Checked, StoreError> {
    sniff(file)?;
    let mut found = Checked { faults: connected(looked_at(file), faults_of).await?, ..Checked::default() };
    if !found.whole() {
        return Ok(found);
    }
    // A copy is brought to this version and read; the file stays as it is.
    let (_folder, copy) = copy_of(file).await?;
    let store = match Store::open(&copy).await {
        Ok(store) => store,
        Err(error @ StoreError::Migration(_)) => {
            found.faults.push(error.to_string());
            return Ok(found);
        }
        Err(error) => return Err(error),
    };
    let read = store.check().await;
    store.close().await;
    read
}

/// What SQLite finds wrong with a file, and what is in it that is not ours.
async fn faults_of(conn: &mut SqliteConnection) -> Result<Vec<String>, StoreError> {
    let mut faults = vec![];
    let whole: Result<Vec<(String,)>, sqlx::Error> =
        sqlx::query_as("PRAGMA integrity_check(20)").fetch_all(&mut *conn).await;
    match whole {
        Ok(lines) => faults.extend(lines.into_iter().map(|(line,)| line).filter(|line| line != "ok")),
        Err(error) => faults.push(error.to_string()),
    }
    let broken: Result<Vec<(String, Option<i64>, String)>, sqlx::Error> =
        sqlx::query_as("SELECT \"table\", rowid, parent FROM pragma_foreign_key_check").fetch_all(&mut *conn).await;
    match broken {
        Ok(rows) => faults.extend(rows.into_iter().take(MOST_FAULTS).map(|(table, row, parent)| {
            let row = row.map_or_else(String::new, |row| format!(" {row}"));
            format!("{table}{row} refers to a {parent} that is not there")
        })),
        Err(error) => faults.push(error.to_string()),
    }
    if faults.is_empty() {
        faults.extend(strange(conn).await?);
    }
    Ok(faults)
}

/// What a file holds that no version of this program puts into one: triggers and views, which would run by themselves, tables and columns of others.
async fn strange(conn: &mut SqliteConnection) -> Result<Vec<String>, StoreError> {
    let version: Result<(i64,), sqlx::Error> =
        sqlx::query_as("SELECT COALESCE(MAX(version), 0) FROM _sqlx_migrations").fetch_one(&mut *conn).await;
    // Of what is no bakery at all, or of a later version, the opening tells.
    let Ok((version,)) = version else { return Ok(vec![]) };
    if !is_step(version) {
        return Ok(vec![]);
    }
    let made = SqliteConnectOptions::new().in_memory(true);
    let ours = connected(made, async |made| {
        bring_to(made, version).await?;
        parts(made).await
    })
    .await?;
    let theirs = parts(conn).await?;
    Ok(theirs.difference(&ours).take(MOST_FAULTS).map(|part| format!("{part} was not made by this program")).collect())
}

/// All that a schema holds: its tables with their columns, indexes, triggers, views.
async fn parts(conn: &mut SqliteConnection) -> Result<BTreeSet<String>, StoreError> {
    // What SQLite keeps for itself: its statistics, and the indexes behind keys.
    let things: Vec<(String, String)> =
        sqlx::query_as("SELECT type, name FROM sqlite_schema WHERE name NOT LIKE 'sqlite\\_%' ESCAPE '\\'")
            .fetch_all(&mut *conn)
            .await?;
    let mut all: BTreeSet<String> = BTreeSet::new();
    for (kind, name) in things {
        if kind == "table" {
            let columns: Vec<(String, String, i64)> =
                sqlx::query_as("SELECT name, type, hidden FROM pragma_table_xinfo(?)")
                    .bind(&name)
                    .fetch_all(&mut *conn)
                    .await?;
            all.extend(columns.into_iter().map(|(column, its, hidden)| {
                let computed = if hidden == 0 { "" } else { "computed " };
                format!("the {computed}column {column} ({its}) of {name}")
            }));
        }
        all.insert(format!("the {kind} {name}"));
    }
    Ok(all)
}

/// Copies a bakery file into a new one, also while a program has it open. Refuses where there is a file already; of a copy that fails nothing is left.
pub async fn back_up_file(file: &Path, to: &Path) -> Result<(), StoreError> {
    sniff(file)?;
    connected(looked_at(file), async |conn| into_new(conn, to).await).await
}

/// Puts a backup in the place of a bakery file. The backup is checked first; what was there is kept beside it under a name with the time, which is answered.
///
/// Fails, and changes nothing, where the backup is not whole or the bakery is in use.
pub async fn restore(backup: &Path, to: &Path, now: DateTime<Utc>) -> Result<Option<PathBuf>, StoreError> {
    whole(backup).await?;
    let place = Place::of(to)?;
    let fresh = with_tail(place.file(), ".restored");
    remove(&fresh)?;
    back_up_file(backup, &fresh).await?;
    place.put(&fresh, now).await
}

/// Fails where a file is not whole.
pub(crate) async fn whole(file: &Path) -> Result<(), StoreError> {
    let found = check_file(file).await?;
    if found.whole() { Ok(()) } else { Err(StoreError::NotWhole { faults: found.faults }) }
}

/// Where a bakery file lies, or is to lie, while nobody else has it open.
pub(crate) struct Place {
    lock: Lock,
}

impl Place {
    pub(crate) fn of(file: &Path) -> Result<Self, StoreError> {
        Ok(Self { lock: Lock::of(file)? })
    }

    /// Where it really lies, also where it was named by a link.
    pub(crate) fn file(&self) -> &Path {
        self.lock.file()
    }

    /// Puts another file there; what was there is kept beside it under a name with the time, which is answered.
    pub(crate) async fn put(&self, fresh: &Path, now: DateTime<Utc>) -> Result<Option<PathBuf>, StoreError> {
        let file = self.file();
        let aside = with_tail(file, &format!(".before-{}", now.format("%Y%m%d-%H%M%S")));
        if aside.exists() {
            return Err(StoreError::FileThere { path: aside.display().to_string() });
        }
        let there = !self.lock.made();
        if there {
            // What its log holds is brought into it.
            connected(SqliteConnectOptions::new().filename(file), async |conn| {
                sqlx::query("PRAGMA wal_checkpoint(TRUNCATE)").execute(conn).await?;
                Ok(())
            })
            .await?;
            fs::rename(file, &aside).map_err(io("move aside", file))?;
            for tail in BESIDE {
                remove(&with_tail(file, tail))?;
            }
        }
        fs::rename(fresh, file).map_err(io("write", file))?;
        Ok(there.then_some(aside))
    }
}

/// A copy of a file in a folder of its own, which is gone with what is answered first.
pub(crate) async fn copy_of(file: &Path) -> Result<(TempDir, PathBuf), StoreError> {
    let folder = scratch()?;
    let copy = folder.path().join("copy.db");
    back_up_file(file, &copy).await?;
    Ok((folder, copy))
}

/// SQLite's own copy of all that a connection sees, whole or not there; it is in use by nobody.
async fn into_new(conn: &mut SqliteConnection, to: &Path) -> Result<(), StoreError> {
    if to.exists() {
        return Err(StoreError::FileThere { path: to.display().to_string() });
    }
    // Of its own: two that are made at once do not write into each other's.
    let partial = with_tail(to, &format!(".{}{PARTIAL}", MADE.fetch_add(1, Ordering::Relaxed)));
    remove(&partial)?;
    match vacuum(conn, &partial).await {
        // Over nothing that came there meanwhile: a link is made only where there is no file.
        Ok(()) => match fs::hard_link(&partial, to) {
            Ok(()) => remove(&partial),
            Err(error) if error.kind() == std::io::ErrorKind::AlreadyExists => {
                remove(&partial)?;
                Err(StoreError::FileThere { path: to.display().to_string() })
            }
            // A file system without links.
            Err(_) => fs::rename(&partial, to).map_err(io("write", to)),
        },
        Err(error) => {
            remove(&partial)?;
            remove(&with_tail(&partial, "-journal"))?;
            Err(error)
        }
    }
}

/// What is not made to its end is called so.
const PARTIAL: &str = ".partial";
/// Counts the copies that were begun.
static MADE: AtomicU32 = AtomicU32::new(0);

async fn vacuum(conn: &mut SqliteConnection, into: &Path) -> Result<(), StoreError> {
    let Some(name) = into.to_str() else {
        let (path, why) = (into.display().to_string(), "its name can’t be read as text".to_owned());
        return Err(StoreError::File { what: "write", path, why });
    };
    sqlx::query("VACUUM INTO ?").bind(name).execute(conn).await?;
    connected(SqliteConnectOptions::new().filename(into), async |copy| {
        sqlx::query("PRAGMA user_version = 0").execute(&mut *copy).await?;
        // Who was let in here is not let in wherever the copy goes, nor again where it is brought back.
        let (devices,): (i64,) =
            sqlx::query_as("SELECT COUNT(*) FROM sqlite_schema WHERE name = 'device'").fetch_one(&mut *copy).await?;
        if devices > 0 {
            sqlx::raw_sql("PRAGMA secure_delete = ON; DELETE FROM device").execute(copy).await?;
        }
        Ok(())
    })
    .await?;
    fs::File::open(into).and_then(|f| f.sync_all()).map_err(io("write", into))
}

/// A folder that is gone when it is dropped.
pub(crate) fn scratch() -> Result<TempDir, StoreError> {
    let named = format!("{SCRATCH}{}-", std::process::id());
    tempfile::Builder::new().prefix(&named).tempdir().map_err(io("make", &std::env::temp_dir()))
}

/// Folders for a while are called so, with the number of the program that made them.
const SCRATCH: &str = "ready-slab-copy-";

/// Removes what programs that were killed have left half made: each is as large as the bakery.
pub fn remove_left_over() {
    let Ok(entries) = fs::read_dir(std::env::temp_dir()) else { return };
    for entry in entries.flatten() {
        let name = entry.file_name().to_string_lossy().into_owned();
        let maker = name.strip_prefix(SCRATCH).and_then(|rest| rest.split('-').next()).map(str::to_owned);
        // Where programs cannot be looked at, nothing is taken away.
        let gone = |pid: &String| Path::new("/proc/self").exists() && !Path::new("/proc").join(pid).exists();
        if maker.as_ref().is_some_and(gone)
            && let Err(error) = fs::remove_dir_all(entry.path())
        {
            tracing::warn!(%error, folder = %entry.path().display(), "what an ended program left cannot be removed");
        }
    }
}

/// Removes a file, if it is there.
pub(crate) fn remove(file: &Path) -> Result<(), StoreError> {
    match fs::remove_file(file) {
        Err(error) if error.kind() != std::io::ErrorKind::NotFound => Err(io("remove", file)(error)),
        _ => Ok(()),
    }
}

/// A backup that was made.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Backup {
    /// Its file.
    pub file: PathBuf,
    /// When it was made.
    pub made_at: DateTime<Utc>,
    /// How large it is.
    pub bytes: u64,
}

/// Where backups lie, and how many are kept.
#[derive(Debug, Clone)]
pub struct Backups {
    folder: PathBuf,
    /// Names begin with this.
    name: String,
    keep: usize,
    making: Arc<Mutex<()>>,
}

/// Every backup ends so; only those are removed again.
const ENDING: &str = ".backup.db";
/// More are not made in one second; far more than anybody presses.
const MOST_IN_A_SECOND: u32 = 999;

/// What a backup was made for.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Why {
    /// A day has begun.
    Day,
    /// Somebody asked for it.
    Asked,
    /// The file is about to be brought to another version.
    Update,
}

impl Why {
    /// As its file is called.
    const fn word(self) -> &'static str {
        match self {
            Self::Day => "",
            Self::Asked => " asked for",
            Self::Update => " before an update",
        }
    }
}

impl Backups {
    /// Backups of a bakery file.
    #[must_use]
    pub fn of(file: &Path, folder: Option<PathBuf>, keep: usize) -> Self {
        let name = file.file_stem().map_or_else(|| "bakery".to_owned(), |n| n.to_string_lossy().into_owned());
        let folder = folder.unwrap_or_else(|| with_tail(&file.with_file_name(&name), "-backups"));
        Self { folder, name, keep: keep.max(1), making: Arc::default() }
    }

    /// Where they lie.
    #[must_use]
    pub fn folder(&self) -> &Path {
        &self.folder
    }

    /// So many are kept.
    #[must_use]
    pub const fn keep(&self) -> usize {
        self.keep
    }

    /// Those that were made by themselves or by a press, the newest first.
    pub fn list(&self) -> Result<Vec<Backup>, StoreError> {
        let entries = match fs::read_dir(&self.folder) {
            Ok(entries) => entries,
            Err(error) if error.kind() == std::io::ErrorKind::NotFound => return Ok(vec![]),
            Err(error) => return Err(io("read", &self.folder)(error)),
        };
        let own = |file: &Path| {
            let name = file.file_name().map(|n| n.to_string_lossy().into_owned()).unwrap_or_default();
            name.strip_prefix(&self.name).and_then(|n| n.strip_suffix(ENDING)).is_some_and(|n| n.starts_with(' '))
        };
        let mut found = vec![];
        for entry in entries.flatten() {
            let Ok(meta) = entry.metadata() else { continue };
            if meta.is_file() && own(&entry.path()) {
                let made_at = meta.modified().map_err(io("read", &entry.path()))?.into();
                found.push(Backup { file: entry.path(), made_at, bytes: meta.len() });
            }
        }
        found.sort_by(|a, b| b.made_at.cmp(&a.made_at).then(b.file.cmp(&a.file)));
        Ok(found)
    }

    /// A name for one that is made now; `why` is part of it, and a number where several are made in one second.
    fn name(&self, now: DateTime<Utc>, why: Why) -> PathBuf {
        let stamp = now.format("%Y-%m-%d %H%M%S");
        let named = |number: String| self.folder.join(format!("{} {stamp}{number}{}{ENDING}", self.name, why.word()));
        let free = (2..=MOST_IN_A_SECOND).map(|n| named(format!("-{n}"))).find(|file| !file.exists());
        Some(named(String::new())).filter(|file| !file.exists()).or(free).unwrap_or_else(|| named(String::new()))
    }

    /// Removes what a program that was killed has left half made. To be called while no other one serves the bakery.
    pub fn remove_left_over(&self) -> Result<(), StoreError> {
        let Ok(entries) = fs::read_dir(&self.folder) else { return Ok(()) };
        let began = format!("{} ", self.name);
        for entry in entries.flatten() {
            let name = entry.file_name().to_string_lossy().into_owned();
            let half = name.ends_with(PARTIAL) || name.ends_with(&format!("{PARTIAL}-journal"));
            if half && name.starts_with(&began) && name.contains(ENDING) {
                remove(&entry.path())?;
            }
        }
        Ok(())
    }

    /// Makes one, and removes the oldest of its kind beyond those that are kept: a press takes no day's place.
    pub async fn make(&self, store: &Store, now: DateTime<Utc>, why: Why) -> Result<Backup, StoreError> {
        fs::create_dir_all(&self.folder).map_err(io("make", &self.folder))?;
        // One after the other: each finds the name of the one before taken.
        let _one = self.making.lock().await;
        let file = self.name(now, why);
        store.back_up(&file).await?;
        self.thin(why)?;
        let bytes = fs::metadata(&file).map_err(io("read", &file))?.len();
        Ok(Backup { file, made_at: now, bytes })
    }

    /// Makes one of a file that is about to be brought to this version; nothing of one that is of this version already, or is not there.
    pub async fn before_migration(&self, file: &Path, now: DateTime<Utc>) -> Result<Option<PathBuf>, StoreError> {
        if !file.exists() || !Store::is_older(file).await? {
            return Ok(None);
        }
        fs::create_dir_all(&self.folder).map_err(io("make", &self.folder))?;
        let to = self.name(now, Why::Update);
        back_up_file(file, &to).await?;
        Ok(Some(to))
    }

    /// Whether one was made on a day of the kitchen's clock since a moment.
    pub fn made_since(&self, moment: DateTime<Utc>) -> Result<bool, StoreError> {
        Ok(self.list()?.first().is_some_and(|newest| newest.made_at >= moment))
    }

    fn thin(&self, why: Why) -> Result<(), StoreError> {
        let all = self.list()?;
        let alike = |b: &&Backup| Self::why(&b.file) == why;
        match why {
            // Nobody can make them again.
            Why::Update => Ok(()),
            Why::Day | Why::Asked => all.iter().filter(alike).skip(self.keep).try_for_each(|old| remove(&old.file)),
        }
    }

    fn why(file: &Path) -> Why {
        let name = file.file_name().map(|n| n.to_string_lossy().into_owned()).unwrap_or_default();
        let of = |why: &Why| name.ends_with(&format!("{}{ENDING}", why.word()));
        [Why::Update, Why::Asked].into_iter().find(|w| of(w)).unwrap_or(Why::Day)
    }
}
