//! What can go wrong with the memory.

use ready_slab_core::error::InputErrors;

/// A failed read or write. Nothing is half-written: each change is one transaction.
#[derive(Debug, thiserror::Error)]
pub enum StoreError {
    /// There is no such thing.
    #[error("There’s no {thing} {id}.")]
    NotFound {
        /// What was looked for.
        thing: &'static str,
        /// Under which number.
        id: i64,
    },
    /// It is used by something else.
    #[error("This {thing} is used by {count} {by}. Change or delete that first.")]
    InUse {
        /// What was to be deleted.
        thing: &'static str,
        /// What uses it.
        by: &'static str,
        /// How many.
        count: i64,
    },
    /// A row does not read as a sound value.
    #[error("{thing} {id} is damaged: {why}. Restore a backup.")]
    Damaged {
        /// What it is.
        thing: &'static str,
        /// Its number.
        id: i64,
        /// What is wrong with it.
        why: String,
    },
    /// It was closed while something was still asked of it: the program ends, or the demo is removed.
    #[error("This bakery is closed. Reload the page.")]
    Closed,
    /// Another program has it open.
    #[error("This bakery is open in another program. Close that first.")]
    OpenElsewhere,
    /// It is no bakery file.
    #[error("This isn’t a bakery file.")]
    NotABakery,
    /// A copy of the file alone, made while it was open.
    #[error(
        "This copy was made while the bakery was open, so the latest changes are missing. Copy the -wal file next to it too, or use a backup."
    )]
    WithoutItsLog,
    /// It is no archive of a bakery, or not one that can be read.
    #[error("Can’t read this archive: {why}")]
    NotAnArchive {
        /// Why not, and where.
        why: String,
    },
    /// There is a file where one was to be made.
    #[error("{path} already exists. Choose another name.")]
    FileThere {
        /// Where.
        path: String,
    },
    /// A file could not be worked with.
    #[error("Can’t {what} {path}: {why}")]
    File {
        /// What was to be done.
        what: &'static str,
        /// With which.
        path: String,
        /// Why not.
        why: String,
    },
    /// A backup that is not whole is not put in the place of anything.
    #[error("The file is damaged: {}", faults.join("; "))]
    NotWhole {
        /// What is wrong.
        faults: Vec<String>,
    },
    /// Something else holds the file for longer than one waits.
    #[error("Busy saving other changes. Try again in a moment.")]
    Busy,
    /// No room is left.
    #[error("Disk full: nothing was saved. Free up space and try again.")]
    Full,
    /// Nothing can be written.
    #[error("The bakery file is read-only: nothing was saved. Check its permissions.")]
    ReadOnly,
    /// It is not at its place any more, or another is.
    #[error(
        "{path} was moved or removed while open: nothing was saved. Put it back, or stop Ready Slab and restore a backup."
    )]
    Gone {
        /// Where it was.
        path: String,
    },
    /// SQLite finds it damaged.
    #[error("The bakery file is damaged: nothing was saved. Restore a backup.")]
    Torn,
    /// The database itself.
    #[error("Bakery file error: {0}")]
    Database(sqlx::Error),
    /// The file could not be brought to this version.
    #[error("Couldn’t update the bakery file to this version: {0}")]
    Migration(#[from] sqlx::migrate::MigrateError),
}

impl From<sqlx::Error> for StoreError {
    fn from(error: sqlx::Error) -> Self {
        match error {
            sqlx::Error::PoolClosed => Self::Closed,
            sqlx::Error::PoolTimedOut => Self::Busy,
            sqlx::Error::Database(told) => {
                // Result codes of SQLite (sqlite.org/rescode.html); the lowest byte tells the kind.
                let code = told.code().and_then(|code| code.parse::<i64>().ok()).map(|code| code & 0xff);
                match code {
                    Some(5 | 6) => Self::Busy,
                    Some(8) => Self::ReadOnly,
                    Some(11 | 26) => Self::Torn,
                    Some(13) => Self::Full,
                    _ => Self::Database(sqlx::Error::Database(told)),
                }
            }
            error => Self::Database(error),
        }
    }
}

impl StoreError {
    pub(crate) fn damaged(thing: &'static str, id: i64, errors: &InputErrors) -> Self {
        Self::Damaged { thing, id, why: errors.to_string() }
    }
}
