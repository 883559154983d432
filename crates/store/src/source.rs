//! Where statements run: on the file as it stands, or within one transaction that is kept or dropped as a whole.

use crate::edits::Noted;
use crate::error::StoreError;
use crate::header::{IN_USE, mark, sniff};
use crate::schema::{bring_to, newest};
use sqlx::pool::PoolConnection;
use sqlx::sqlite::{SqliteConnectOptions, SqliteJournalMode, SqlitePoolOptions, SqliteSynchronous};
use sqlx::{AssertSqlSafe, Connection as _, Sqlite, SqliteConnection, SqlitePool, Transaction};
use std::ops::{Deref, DerefMut};
use std::path::{Path, PathBuf};
use std::sync::Arc;
use std::sync::atomic::{AtomicU64, Ordering};
use std::time::Duration;
use tokio::sync::{Mutex, OwnedMutexGuard};

/// So long a change waits for others to be done.
const WRITE_WAITS: Duration = Duration::from_secs(5);
const READERS: u32 = 4;

#[derive(Debug, Clone)]
pub(crate) enum Source {
    /// Readers never wait for the one writer.
    File {
        read: SqlitePool,
        write: SqlitePool,
        at: Arc<Opened>,
    },
    Within(Arc<Mutex<Option<Within>>>),
}

/// The file that was opened: what is at its place later may be another.
#[derive(Debug)]
pub(crate) struct Opened {
    path: PathBuf,
    mark: i32,
    commits: AtomicU64,
}

impl Opened {
    /// How often something was kept since it was opened.
    pub(crate) fn commits(&self) -> u64 {
        self.commits.load(Ordering::Acquire)
    }

    pub(crate) fn committed(&self) {
        self.commits.fetch_add(1, Ordering::AcqRel);
    }

    /// Fails where the file was removed, or another put in its place: what is written then would be lost with the last program that has it open.
    pub(crate) fn is_there(&self) -> Result<(), StoreError> {
        match mark(&self.path) {
            Ok(now) if now == self.mark => Ok(()),
            _ => Err(StoreError::Gone { path: self.path.display().to_string() }),
        }
    }
}

#[derive(Debug)]
pub(crate) struct Within {
    pub(crate) tx: Transaction<'static, Sqlite>,
    pub(crate) noted: Noted,
    pub(crate) label: Option<String>,
    pub(crate) at: Arc<Opened>,
}

impl Within {
    pub(crate) fn parts(&mut self) -> (&mut SqliteConnection, &mut Noted, Option<&str>) {
        (&mut self.tx, &mut self.noted, self.label.as_deref())
    }
}

/// A connection for one statement or a few.
pub(crate) enum Conn {
    Pooled(PoolConnection<Sqlite>),
    Within(OwnedMutexGuard<Option<Within>>),
}

impl Deref for Conn {
    type Target = SqliteConnection;

    fn deref(&self) -> &SqliteConnection {
        match self {
            Self::Pooled(conn) => conn,
            Self::Within(guard) => &guard.as_ref().expect("the transaction is open while its store is used").tx,
        }
    }
}

impl DerefMut for Conn {
    fn deref_mut(&mut self) -> &mut SqliteConnection {
        match self {
            Self::Pooled(conn) => conn,
            Self::Within(guard) => &mut guard.as_mut().expect("the transaction is open while its store is used").tx,
        }
    }
}

impl Source {
    pub async fn open(path: &Path) -> Result<Self, StoreError> {
        // An empty file is a bakery that begins: its lock has made it.
        if std::fs::metadata(path).is_ok_and(|m| m.len() > 0) {
            sniff(path)?;
        }
        let options = SqliteConnectOptions::new()
            .filename(path)
            .create_if_missing(true)
            .journal_mode(SqliteJournalMode::Wal)
            .synchronous(SqliteSynchronous::Full)
            .foreign_keys(true)
            .busy_timeout(WRITE_WAITS);
        let write = SqlitePoolOptions::new()
            .max_connections(1)
            .acquire_timeout(WRITE_WAITS)
            // A change that finds the disk full is rolled back by SQLite itself; what was asked for then is no transaction any more, and cannot be
            // rolled back again: such a connection is given up for a new one.
            .before_acquire(|conn, _| Box::pin(async move { Ok(!conn.is_in_transaction()) }))
            .connect_with(options.clone())
            .await?;
        let mut conn = write.acquire().await?;
        bring_to(&mut conn, newest()).await?;
        // A copy of the file alone, without its log, is told by these.
        let marked = format!("PRAGMA user_version = {IN_USE}; PRAGMA application_id = {}", mark(path)?);
        sqlx::raw_sql(AssertSqlSafe(marked)).execute(&mut *conn).await?;
        sqlx::query("PRAGMA wal_checkpoint(PASSIVE)").execute(&mut *conn).await?;
        drop(conn);
        let read =
            SqlitePoolOptions::new().max_connections(READERS).connect_with(options.create_if_missing(false)).await?;
        let at = Arc::new(Opened { path: path.to_owned(), mark: mark(path)?, commits: AtomicU64::new(0) });
        Ok(Self::File { read, write, at })
    }

    pub async fn conn(&self) -> Result<Conn, StoreError> {
        Ok(match self {
            Self::File { read, .. } => Conn::Pooled(read.acquire().await?),
            Self::Within(tx) => Conn::Within(tx.clone().lock_owned().await),
        })
    }

    pub async fn close(&self) {
        if let Self::File { read, write, .. } = self {
            read.close().await;
            let closed = sqlx::query("PRAGMA user_version = 0").execute(write).await;
            if let Err(error) = closed
                && !matches!(error, sqlx::Error::PoolClosed)
            {
                tracing::warn!(%error, "the bakery file cannot be marked as closed");
            }
            write.close().await;
        }
    }
}
