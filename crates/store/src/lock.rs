//! One program at a time has a bakery file open.

use crate::error::StoreError;
use crate::header::{io, with_tail};
use std::fs::{self, File, OpenOptions, TryLockError};
use std::path::{Path, PathBuf};

/// Held while a bakery file is open; gone with the program, however that ends.
///
/// It is to be dropped after the last connection of this program to the file is closed: closing any handle of a file ends the locks that SQLite
/// itself holds on it (POSIX, sqlite.org/howtocorrupt.html 2.2).
#[derive(Debug)]
pub struct Lock {
    file: PathBuf,
    /// The file itself: whoever comes by another name of it, a link, finds it locked.
    itself: File,
    /// A file beside it, by which programs of earlier versions know.
    _beside: File,
    /// It was not there; left empty it is taken away again.
    made: bool,
}

/// The file a name leads to, through links.
pub(crate) fn real(file: &Path) -> Result<PathBuf, StoreError> {
    if let Ok(found) = fs::canonicalize(file) {
        return Ok(found);
    }
    // A link to a file that is to be made, or no file yet.
    let file = fs::read_link(file)
        .map_or_else(|_| file.to_owned(), |to| file.parent().map_or_else(|| to.clone(), |folder| folder.join(&to)));
    let folder = match file.parent() {
        Some(folder) if folder != Path::new("") => folder,
        _ => Path::new("."),
    };
    let name = file.file_name().ok_or(StoreError::NotABakery)?;
    Ok(fs::canonicalize(folder).map_err(io("find", folder))?.join(name))
}

fn locked(file: File, path: &Path) -> Result<File, StoreError> {
    match file.try_lock() {
        Ok(()) => Ok(file),
        Err(TryLockError::WouldBlock) => Err(StoreError::OpenElsewhere),
        Err(TryLockError::Error(error)) => Err(io("lock", path)(error)),
    }
}

impl Lock {
    /// Of a bakery file; it is made, empty, where it is not there.
    ///
    /// Fails where another program holds it, by whatever name it came to it.
    pub fn of(file: &Path) -> Result<Self, StoreError> {
        let file = real(file)?;
        let beside = with_tail(&file, "-lock");
        let open = OpenOptions::new().create(true).truncate(false).write(true).open(&beside);
        let held = locked(open.map_err(io("make", &beside))?, &beside)?;
        let made = !file.exists();
        // A file that can only be read is locked all the same.
        let open = match OpenOptions::new().create(made).truncate(false).read(true).write(true).open(&file) {
            Err(error)
                if error.kind() == std::io::ErrorKind::PermissionDenied
                    || error.kind() == std::io::ErrorKind::ReadOnlyFilesystem =>
            {
                File::open(&file)
            }
            other => other,
        };
        let itself = locked(open.map_err(io("open", &file))?, &file)?;
        Ok(Self { file, itself, _beside: held, made })
    }

    /// Where the file really lies.
    #[must_use]
    pub fn file(&self) -> &Path {
        &self.file
    }

    /// Whether there was none before.
    #[must_use]
    pub const fn made(&self) -> bool {
        self.made
    }
}

impl Drop for Lock {
    fn drop(&mut self) {
        if self.made
            && self.itself.metadata().is_ok_and(|m| m.len() == 0)
            && fs::metadata(&self.file).is_ok_and(|m| m.len() == 0)
        {
            // Nothing came of it. That it cannot be removed is no fault of whoever asked.
            let _ = fs::remove_file(&self.file);
        }
    }
}
