//! What is said about a photo of baked pieces.

use crate::figure::percent;
use crate::names::Name;
use crate::sentence::{Say, Sentence, said};
use ready_slab_core::ledger::{PhotoMeasures, PhotoNote};

fn pieces(n: u32) -> String {
    if n == 1 { "One piece".to_owned() } else { format!("{n} pieces") }
}

impl Say for PhotoNote {
    fn say(&self) -> Sentence {
        match *self {
            Self::OverTheEdge(n) => format!(
                "{} over the paper\u{2019}s edge and {} left out",
                if n == 1 { "One piece lies".to_owned() } else { format!("{n} pieces lie") },
                if n == 1 { "was" } else { "were" }
            )
            .into(),
            Self::Touching(n) => format!(
                "{} lay against another and {} cut apart where they are narrow; look whether that is right",
                pieces(n),
                if n == 1 { "was" } else { "were" }
            )
            .into(),
            Self::NoCutter(n) => format!(
                "{} {} no cutter of this job, so growth is not told",
                pieces(n),
                if n == 1 { "fits" } else { "fit" }
            )
            .into(),
            Self::BurntOut => {
                "The paper is as white as the camera can tell: colours come out too light. Take it with less light"
                    .into()
            }
            Self::NothingAt(n) => format!(
                "{} nothing that differs from paper",
                if n == 1 {
                    "At the place you pointed at there is".to_owned()
                } else {
                    format!("At {n} of the places you pointed at there is")
                }
            )
            .into(),
            Self::Aside => {
                "The camera looked further aside than it should: sizes are rougher. Hold it more above the paper".into()
            }
            Self::Dark { of, all, place, at_point } => {
                let what = if at_point { "point" } else { "edge" };
                let many = if of == all && all > 1 { "on every piece".to_owned() } else { format!("on {of} of {all}") };
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
