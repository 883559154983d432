//! Bytes that are handed on in pieces as they are written.

use std::io::{Error, Write};

/// A writer that gives away what is written in pieces of a size, the last when it is flushed or dropped.
pub struct InPieces<F: FnMut(Vec<u8>) -> Result<(), Error>> {
    give: F,
    size: usize,
    bytes: Vec<u8>,
}

impl<F: FnMut(Vec<u8>) -> Result<(), Error>> InPieces<F> {
    /// One of pieces so large, each given to `give`; what that fails with, the writing fails with.
    pub fn new(size: usize, give: F) -> Self {
        Self { give, size, bytes: Vec::with_capacity(size) }
    }
}

impl<F: FnMut(Vec<u8>) -> Result<(), Error>> Write for InPieces<F> {
    fn write(&mut self, bytes: &[u8]) -> Result<usize, Error> {
        self.bytes.extend_from_slice(bytes);
        if self.bytes.len() >= self.size {
            self.flush()?;
        }
        Ok(bytes.len())
    }

    fn flush(&mut self) -> Result<(), Error> {
        if self.bytes.is_empty() {
            return Ok(());
        }
        (self.give)(std::mem::replace(&mut self.bytes, Vec::with_capacity(self.size)))
    }
}

impl<F: FnMut(Vec<u8>) -> Result<(), Error>> Drop for InPieces<F> {
    fn drop(&mut self) {
        // Nobody is left to be told.
        let _ = self.flush();
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn all_that_is_written_is_given_away_in_order() {
        let mut given: Vec<Vec<u8>> = vec![];
        let mut to = InPieces::new(4, |piece| {
            given.push(piece);
            Ok(())
        });
        for part in ["ab", "cde", "", "f"] {
            to.write_all(part.as_bytes()).unwrap();
        }
        drop(to);
        assert_eq!(given, [b"abcde".to_vec(), b"f".to_vec()]);
        let mut none = InPieces::new(1, |_| Err(Error::other("nobody reads it any more")));
        assert!(none.write_all(b"x").is_err());
    }
}
