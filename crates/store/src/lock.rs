//! One program at a time has a bakery file open.

use crate::error::StoreError;
use crate::header::{io, with_tail};
use std::fs::{File, OpenOptions, TryLockError};
use std::path::Path;

/// Held while a bakery file is open; gone with the program, however that ends.
#[derive(Debug)]
pub struct Lock(#[expect(dead_code, reason = "it is held")] File);

impl Lock {
    /// Of a bakery file: a file beside it, since SQLite's own locks on the file itself must not be touched.
    ///
    /// Fails where another program holds it.
    pub fn of(file: &Path) -> Result<Self, StoreError> {
        let beside = with_tail(file, "-lock");
        let open = OpenOptions::new().create(true).truncate(false).write(true).open(&beside);
        let lock = open.map_err(io("make", &beside))?;
        match lock.try_lock() {
            Ok(()) => Ok(Self(lock)),
            Err(TryLockError::WouldBlock) => Err(StoreError::OpenElsewhere),
            Err(TryLockError::Error(error)) => Err(io("lock", &beside)(error)),
        }
    }
}
