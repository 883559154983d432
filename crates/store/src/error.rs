//! What can go wrong with the memory.

use ready_slab_core::error::InputErrors;

/// A failed read or write. Nothing is half-written: each change is one transaction.
#[derive(Debug, thiserror::Error)]
pub enum StoreError {
    /// There is no such thing.
    #[error("there is no {thing} {id}")]
    NotFound {
        /// What was looked for.
        thing: &'static str,
        /// Under which number.
        id: i64,
    },
    /// It is used by something else.
    #[error("the {thing} is used by {count} {by}; change or delete those first")]
    InUse {
        /// What was to be deleted.
        thing: &'static str,
        /// What uses it.
        by: &'static str,
        /// How many.
        count: i64,
    },
    /// A row does not read as a sound value.
    #[error("the stored {thing} {id} is damaged: {why}")]
    Damaged {
        /// What it is.
        thing: &'static str,
        /// Its number.
        id: i64,
        /// What is wrong with it.
        why: String,
    },
    /// It was closed while something was still asked of it: the program ends, or the demo is removed.
    #[error("this bakery was closed meanwhile")]
    Closed,
    /// Another program has it open.
    #[error("another program has this bakery open; end that one first")]
    OpenElsewhere,
    /// It is no bakery file.
    #[error("this is not a bakery file: it does not begin as one")]
    NotABakery,
    /// A copy of the file alone, made while it was open.
    #[error(
        "this is a copy of a bakery that was open: what was written last lies in the file beside it that ends in -wal, which is not here. \
         Bring that one too, or use a backup"
    )]
    WithoutItsLog,
    /// It is no archive of a bakery, or not one that can be read.
    #[error("this archive cannot be read: {why}")]
    NotAnArchive {
        /// Why not, and where.
        why: String,
    },
    /// There is a file where one was to be made.
    #[error("there is a file {path} already")]
    FileThere {
        /// Where.
        path: String,
    },
    /// A file could not be worked with.
    #[error("cannot {what} {path}: {why}")]
    File {
        /// What was to be done.
        what: &'static str,
        /// With which.
        path: String,
        /// Why not.
        why: String,
    },
    /// A backup that is not whole is not put in the place of anything.
    #[error("it is not whole: {}", faults.join("; "))]
    NotWhole {
        /// What is wrong.
        faults: Vec<String>,
    },
    /// Something else holds the file for longer than one waits.
    #[error("the bakery is busy with other changes; try again in a moment")]
    Busy,
    /// No room is left.
    #[error("the disk is full: nothing of this was kept. Make room, then try again")]
    Full,
    /// Nothing can be written.
    #[error("the bakery file can only be read; nothing of this was kept. See who may write to it")]
    ReadOnly,
    /// It is not at its place any more, or another is.
    #[error(
        "the bakery file {path} was moved or removed while it was open; nothing of this was kept. Put it back, or end the program and \
         restore a backup"
    )]
    Gone {
        /// Where it was.
        path: String,
    },
    /// SQLite finds it damaged.
    #[error("the bakery file is damaged; nothing of this was kept. Bring back a backup")]
    Torn,
    /// The database itself.
    #[error("the bakery file failed: {0}")]
    Database(sqlx::Error),
    /// The file could not be brought to this version.
    #[error("the bakery file could not be brought to this version: {0}")]
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
