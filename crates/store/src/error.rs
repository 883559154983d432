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
    /// The database itself.
    #[error("the bakery file failed: {0}")]
    Database(#[from] sqlx::Error),
    /// The file could not be brought to this version.
    #[error("the bakery file could not be brought to this version: {0}")]
    Migration(#[from] sqlx::migrate::MigrateError),
}

impl StoreError {
    pub(crate) fn damaged(thing: &'static str, id: i64, errors: &InputErrors) -> Self {
        Self::Damaged { thing, id, why: errors.to_string() }
    }
}
