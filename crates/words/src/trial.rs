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
                (EvenMeasure::Width, true) => " wider than \u{201c}",
                (EvenMeasure::Width, false) => " narrower than \u{201c}",
                (EvenMeasure::Thickness, true) => " thicker than \u{201c}",
                (EvenMeasure::Thickness, false) => " thinner than \u{201c}",
            };
            let size = |l: Length| Length::new_mm(l.mm().abs());
            let (near, far) = if more { (low, high) } else { (size(high), size(low)) };
            said![
                "\u{201c}",
                name(way),
                "\u{201d} comes out ",
                mm(size(by)),
                word,
                first,
                "\u{201d}; nineteen times of twenty the difference lies within ",
                lengths(near, far),
                "."
            ]
        }
        TrialVerdict::Alike { way, at_most } => said![
            "No difference is seen between \u{201c}",
            name(way),
            "\u{201d} and \u{201c}",
            first,
            "\u{201d}; if there is one, it is under ",
            mm(at_most),
            "."
        ],
        TrialVerdict::TooFew(each) => said![
            "The pieces differed more than was reckoned with: to see the difference you look for, take ",
            each,
            " of each way."
        ],
    }
}
