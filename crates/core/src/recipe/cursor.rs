//! A place in a line that is read word by word.

/// A place in a line.
#[derive(Clone, Copy)]
pub(super) struct Cursor<'a> {
    pub rest: &'a str,
}

impl<'a> Cursor<'a> {
    pub fn new(rest: &'a str) -> Self {
        Self { rest }
    }

    pub(super) fn skip(&mut self) {
        self.rest = self.rest.trim_start();
    }

    pub(super) fn eat(&mut self, prefix: &str) -> bool {
        self.skip();
        match self.rest.strip_prefix(prefix) {
            Some(rest) => {
                self.rest = rest;
                true
            }
            None => false,
        }
    }

    /// The next word, letters only, as written.
    pub(super) fn peek_word(&self) -> (&'a str, &'a str) {
        let text = self.rest.trim_start();
        let end = text.find(|c: char| !c.is_alphabetic()).unwrap_or(text.len());
        (&text[..end], &text[end..])
    }

    pub(super) fn eat_word(&mut self, words: &[&str]) -> Option<&'a str> {
        let (word, rest) = self.peek_word();
        let known = words.iter().any(|w| w.eq_ignore_ascii_case(word));
        known.then(|| {
            self.rest = rest;
            word
        })
    }
}
