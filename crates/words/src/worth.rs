//! What is most worth measuring next, in words.

use crate::figure::percent;
use crate::sentence::{Say, Sentence, said};
use ready_slab_core::ledger::Worth;
use ready_slab_core::units::Share;

fn narrows(what: &'static str, now: Share, then: Share) -> Sentence {
    said![" That narrows ", what, " from ±", percent(now, 0), " to about ±", percent(then, 0), "."]
}

impl Say for Worth {
    fn say(&self) -> Sentence {
        match *self {
            Self::FirstTray(now, then) => {
                said![
                    "Measure some cookies of one tray and note its minutes: no bakes of this dough yet.",
                    narrows("its spread", now, then)
                ]
            }
            Self::Oven(now, then) => {
                said!["Check your oven with a thermometer, under Kitchen.", narrows("the times", now, then)]
            }
            Self::Minutes(1, now, then) => {
                said!["Note the minutes of the next tray: your one bake has none.", narrows("the times", now, then)]
            }
            Self::Minutes(n, now, then) => {
                said![
                    "Note the minutes of the next tray: none of your ",
                    n,
                    " bakes has them.",
                    narrows("the times", now, then)
                ]
            }
            Self::Widths(now, then) => said!["Measure the widths of another tray.", narrows("the spread", now, then)],
            Self::Thicknesses => {
                "Measure a few cookies’ thickness with a caliper: it shows how evenly you roll.".into()
            }
            Self::AnotherTray => {
                "Just another tray now and then: the ranges are about as narrow as your trays allow.".into()
            }
        }
    }
}
