//! What is said about a photo of baked pieces.

use crate::figure::percent;
use crate::names::Name;
use crate::sentence::{Say, Sentence, said};
use ready_slab_core::ledger::{PhotoMeasures, PhotoNote};

fn pieces(n: u32) -> String {
    if n == 1 { "1 cookie".to_owned() } else { format!("{n} cookies") }
}

impl Say for PhotoNote {
    fn say(&self) -> Sentence {
        match *self {
            Self::OverTheEdge(n) => format!(
                "{} over the paper\u{2019}s edge, so {} measured",
                if n == 1 { "1 cookie is".to_owned() } else { format!("{n} cookies are") },
                if n == 1 { "it wasn\u{2019}t" } else { "they weren\u{2019}t" }
            )
            .into(),
            Self::Touching(n) => format!(
                "{}, split at the narrow part. Check the outlines",
                if n == 1 { "1 cookie touches another".to_owned() } else { format!("{n} cookies touch") }
            )
            .into(),
            Self::NoCutter(n) => format!(
                "{} no cutter in this job, so no spread",
                if n == 1 { "1 cookie matches".to_owned() } else { format!("{n} cookies match") }
            )
            .into(),
            Self::BurntOut => "Overexposed: colors come out too light. Retake it with less light".into(),
            Self::NothingAt(n) => format!(
                "Nothing but paper {}",
                if n == 1 { "where you pointed".to_owned() } else { format!("at {n} of the spots you pointed at") }
            )
            .into(),
            Self::Aside => "Camera tilted, so sizes are less exact. Hold it straight above the paper".into(),
            Self::Dark { of, all, place, at_point } => {
                let what = if at_point { "tip" } else { "edge" };
                let many =
                    if of == all && all > 1 { "on every cookie".to_owned() } else { format!("on {of} of {all}") };
                format!("Dark at the {} {what} {many}", place.name()).into()
            }
        }
    }
}

/// What was found, in a line.
#[must_use]
pub fn photo_found(found: &PhotoMeasures) -> Sentence {
    let n = u32::try_from(found.pieces.len()).unwrap_or(u32::MAX);
    let many = pieces(n);
    match found.spread() {
        Some(spread) => said![many, ", spread about ", percent(spread, 1)],
        None => many.into(),
    }
}
