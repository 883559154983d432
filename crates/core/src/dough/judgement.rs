//! A judgement of a dough.

use super::Reason;

/// A place on a scale, and what is found there.
#[derive(Debug, Clone, PartialEq)]
pub struct Judgement<Verdict, Because = Reason> {
    /// What is found.
    pub verdict: Verdict,
    /// Where it lies, 0 to 1 on its scale.
    pub level: f64,
    /// Why.
    pub reasons: Vec<Because>,
}
