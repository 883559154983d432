//! Household measures as people write them.

use crate::sentence::{Say, Sentence, said};
use ready_slab_core::dough::{Beside, CupWay, Spoons};

/// A number of parts as people write it: `2\u{bc}`.
fn mixed(value: u32, of: u32) -> String {
    let part = ["", "\u{215b}", "\u{bc}", "\u{215c}", "\u{bd}", "\u{215d}", "\u{be}", "\u{215e}"]
        [(value % of * 8 / of) as usize];
    match value / of {
        0 if !part.is_empty() => part.to_owned(),
        whole => format!("{whole}{part}"),
    }
}

impl Say for Spoons {
    fn say(&self) -> Sentence {
        match *self {
            Self::Pinch => "a pinch".into(),
            Self::TeaspoonEighths(n) => said![mixed(n, 8), " tsp"],
            Self::TablespoonHalves(n) => said![mixed(n, 2), " tbsp"],
        }
    }
}

/// So many large measures in quarters, and the tablespoons left over.
fn with_spoons(quarters: u32, tablespoons: u32, one: &str, many: &str) -> String {
    let large = match quarters {
        0 => String::new(),
        n => format!("{} {}", mixed(n, 4), if n > 4 { many } else { one }),
    };
    let small = if tablespoons == 0 { String::new() } else { format!("{tablespoons} tbsp") };
    match (large.is_empty(), small.is_empty()) {
        (false, false) => format!("{large} and {small}"),
        _ => large + &small,
    }
}

impl Say for Beside {
    fn say(&self) -> Sentence {
        match *self {
            Self::EachHalves(n) => said!["\u{d7} ", mixed(n, 2)],
            Self::Sticks { tablespoons } => with_spoons(tablespoons / 8 * 4, tablespoons % 8, "stick", "sticks").into(),
            Self::Cups { tablespoons, filled } => {
                let cups = with_spoons(tablespoons / 4, tablespoons % 4, "cup", "cups");
                match filled {
                    Some(CupWay::Spooned) => said![cups, ", spooned"],
                    Some(CupWay::Packed) => said![cups, ", packed"],
                    _ => cups.into(),
                }
            }
            Self::Spoons(spoons) => spoons.say(),
        }
    }
}
