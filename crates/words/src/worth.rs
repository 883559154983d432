//! What is most worth measuring next, in words.

use crate::figure::percent;
use crate::sentence::{Say, Sentence, said};
use ready_slab_core::ledger::Worth;
use ready_slab_core::units::Share;

fn narrows(what: &'static str, now: Share, then: Share) -> Sentence {
    said![
        " It takes the range of ",
        what,
        " from \u{b1}",
        percent(now, 0),
        " to about \u{b1}",
        percent(then, 0),
        " of itself."
    ]
}

impl Say for Worth {
    fn say(&self) -> Sentence {
        match *self {
            Self::FirstTray(now, then) => {
                said!["Some pieces of one tray, and its minutes: nothing is recorded of this dough.", narrows("its spread", now, then)]
            }
            Self::Oven(now, then) => {
                said!["The oven, with a thermometer in it, at Kitchen.", narrows("times", now, then)]
            }
            Self::Minutes(1, now, then) => {
                said!["The minutes of the next tray: the bake recorded has none.", narrows("times", now, then)]
            }
            Self::Minutes(n, now, then) => {
                said!["The minutes of the next tray: none of ", n, " bakes has them.", narrows("times", now, then)]
            }
            Self::Widths(now, then) => said!["Widths of another tray.", narrows("the spread", now, then)],
            Self::Thicknesses => "Thicknesses of a few pieces, by calliper: nobody has measured one, and they tell how even the rolling is.".into(),
            Self::AnotherTray => "Another tray like the last, now and then: the ranges are about as narrow as your trays are alike.".into(),
        }
    }
}
