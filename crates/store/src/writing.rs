//! Changes that are kept or dropped as a whole.

use crate::edits::Noted;
use crate::error::StoreError;
use crate::source::{Source, Within};
use crate::store::Store;
use std::ops::Deref;
use std::sync::Arc;
use tokio::sync::Mutex;

/// A store whose reads and changes are one transaction, noted as one edit. Dropped without `commit`, nothing has happened.
#[derive(Debug)]
pub struct Writing {
    store: Store,
    outermost: bool,
}

impl Deref for Writing {
    type Target = Store;

    fn deref(&self) -> &Store {
        &self.store
    }
}

impl Store {
    /// Begins a transaction, or joins the one that this store is in. The write lock is taken at once, so that what is read in it
    /// stays true until it ends. Its changes are one edit with this label, or with that of the first change where none is given.
    pub async fn begin(&self, label: Option<&str>) -> Result<Writing, StoreError> {
        match &self.source {
            Source::Within(_) => Ok(Writing { store: self.clone(), outermost: false }),
            Source::File { write, at, .. } => {
                at.is_there()?;
                let tx = write.begin_with("BEGIN IMMEDIATE").await?;
                let within = Within { tx, noted: Noted::default(), label: label.map(str::to_owned), at: at.clone() };
                let source = Source::Within(Arc::new(Mutex::new(Some(within))));
                Ok(Writing { store: Self { source }, outermost: true })
            }
        }
    }
}

impl Writing {
    /// Keeps all of it; a transaction that was joined is kept by whoever began it.
    pub async fn commit(self) -> Result<(), StoreError> {
        if self.outermost
            && let Source::Within(within) = &self.store.source
            && let Some(within) = within.lock().await.take()
        {
            within.tx.commit().await?;
            within.at.committed();
        }
        Ok(())
    }
}
