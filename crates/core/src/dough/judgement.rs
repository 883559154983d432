//! A judgement of a dough.

/// A place on a scale with the word for it.
#[derive(Debug, Clone, PartialEq)]
pub struct Judgement {
    /// The word.
    pub word: &'static str,
    /// Where it lies, 0 to 1 on its scale.
    pub level: f64,
    /// Why, in sentences.
    pub reasons: Vec<String>,
}
