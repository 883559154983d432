//! What the first bytes of a bakery file tell, before SQLite opens it.

use crate::error::StoreError;
use std::ffi::OsString;
use std::fs;
use std::io::Read as _;
use std::os::unix::fs::MetadataExt as _;
use std::path::{Path, PathBuf};

/// The user version of a file that is open.
pub(crate) const IN_USE: i32 = 1;

/// The header of a file of SQLite, bytes.
const HEADER: usize = 100;

/// A file with more after its name.
#[must_use]
pub(crate) fn with_tail(file: &Path, tail: &str) -> PathBuf {
    let mut name: OsString = file.as_os_str().to_owned();
    name.push(tail);
    name.into()
}

/// What could not be done with a file.
pub(crate) fn io(what: &'static str, path: &Path) -> impl FnOnce(std::io::Error) -> StoreError {
    let path = path.display().to_string();
    move |error| StoreError::File { what, path, why: error.to_string() }
}

/// A mark of this very file: a copy of it has another.
pub(crate) fn mark(file: &Path) -> Result<i32, StoreError> {
    let meta = fs::metadata(file).map_err(io("read", file))?;
    // Numbers of files are small: mixed with the device they rarely meet (constant of the golden ratio, Knuth 6.4, from memory).
    let mixed = (meta.ino() ^ meta.dev().rotate_left(40)).wrapping_mul(0x9e37_79b9_7f4a_7c15) >> 33;
    Ok(i32::try_from(mixed).unwrap_or(0))
}

/// Looks at the first bytes of a file: whether it is a bakery at all, and whether what was written last lies in a file beside it that is not there.
pub(crate) fn sniff(file: &Path) -> Result<(), StoreError> {
    let mut header = [0u8; HEADER];
    let read = fs::File::open(file).and_then(|mut f| f.read_exact(&mut header));
    match read {
        Err(error) if error.kind() == std::io::ErrorKind::UnexpectedEof => return Err(StoreError::NotABakery),
        other => other.map_err(io("read", file))?,
    }
    if !header.starts_with(b"SQLite format 3\0") {
        return Err(StoreError::NotABakery);
    }
    // Offsets of the file format of SQLite (sqlite.org/fileformat2.html): 18 is 2 with a write-ahead log, 60 holds the user version,
    // 68 the application's number.
    let logged = header[18] == 2;
    let number = |at: usize| i32::from_be_bytes([header[at], header[at + 1], header[at + 2], header[at + 3]]);
    let used = number(60) == IN_USE;
    // What is itself the file that was open was closed by the program's end, its log taken in.
    // Its log lies beside the file itself, not beside a link to it.
    let itself = fs::canonicalize(file).unwrap_or_else(|_| file.to_owned());
    if logged && used && !with_tail(&itself, "-wal").exists() && number(68) != mark(file)? {
        return Err(StoreError::WithoutItsLog);
    }
    Ok(())
}
