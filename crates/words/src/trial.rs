//! What a trial came to, in words.

use crate::figure::{lengths, mm};
use crate::sentence::{Sentence, said};
use ready_slab_core::ledger::{EvenMeasure, TrialVerdict};
use ready_slab_core::units::Length;

/// A verdict on one of some ways.
#[must_use]
pub fn trial_verdict(verdict: &TrialVerdict, ways: &[String], measure: EvenMeasure) -> Sentence {
    let name = |way: usize| ways.get(way).cloned().unwrap_or_default();
    let first = name(0);
    match *verdict {
        TrialVerdict::Differs { way, by, between: (low, high) } => {
            let more = by.mm() > 0.0;
            let word = match (measure, more) {
                (EvenMeasure::Width, true) => " wider than ",
                (EvenMeasure::Width, false) => " narrower than ",
                (EvenMeasure::Thickness, true) => " thicker than ",
                (EvenMeasure::Thickness, false) => " thinner than ",
            };
            let size = |l: Length| Length::new_mm(l.mm().abs());
            let (near, far) = if more { (low, high) } else { (size(high), size(low)) };
            said![name(way), " is ", mm(size(by)), word, first, " (likely ", lengths(near, far), ")."]
        }
        TrialVerdict::Alike { way, at_most } => said![
            "No difference seen between ",
            name(way),
            " and ",
            first,
            ". If there is one, it\u{2019}s under ",
            mm(at_most),
            "."
        ],
        TrialVerdict::TooFew(each) => said!["Too much variation to tell: you need ", each, " cookies of each version."],
    }
}
