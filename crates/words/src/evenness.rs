//! What is said of evenness over time.

use crate::figure::{mm, percent};
use crate::sentence::{Say, Sentence, said};
use ready_slab_core::ledger::{EvenMeasure, Evenness, NoChance, Signal};
use ready_slab_core::units::Share;

fn most(of: Share, r#where: &'static str, what_to_do: &'static str) -> Sentence {
    said!["Most of what varies, ", percent(of, 0), ", is ", r#where, ": ", what_to_do]
}

impl Say for Evenness {
    fn say(&self) -> Sentence {
        match *self {
            Self::Within(EvenMeasure::Thickness, of) => most(
                of,
                "within a tray",
                "roll between rods out to the ends of the sheet, and turn it by a quarter half way.",
            ),
            Self::Within(EvenMeasure::Width, of) => most(
                of,
                "within a tray",
                "rods for the sheet, pieces of one size on a tray, and turn the tray half way if one side of the oven is hotter.",
            ),
            Self::Trays(_, of) => most(
                of,
                "from tray to tray",
                "let each go in as cold as the other, on a cold tray, and roll each piece of the dough when it is as firm.",
            ),
            Self::Days(_, of) => most(
                of,
                "from day to day",
                "weigh the flour, mix to the same temperature, and look at the oven\u{2019}s thermometer.",
            ),
            Self::Beyond(share, tolerance) if share.value() < 0.003 => {
                said!["As good as no piece is more than ", mm(tolerance), " off."]
            }
            Self::Beyond(share, tolerance) => said![
                percent(share, if share.value() < 0.1 { 1 } else { 0 }),
                " of the pieces are more than ",
                mm(tolerance),
                " off, if this goes on."
            ],
            Self::CouldKeep => {
                "Pieces of one tray are alike enough: with trays alike, that tolerance would be kept.".into()
            }
            Self::CouldNotKeep => {
                "Pieces of one tray alone differ more than that tolerance allows: begin there.".into()
            }
        }
    }
}

impl Say for NoChance {
    fn say(&self) -> Sentence {
        use EvenMeasure::{Thickness, Width};
        match *self {
            Self::Mean(Width, Signal::Above) => "wider than chance explains".into(),
            Self::Mean(Thickness, Signal::Above) => "thicker than chance explains".into(),
            Self::Mean(Width, Signal::Below) => "narrower than chance explains".into(),
            Self::Mean(Thickness, Signal::Below) => "thinner than chance explains".into(),
            Self::Range(Signal::Above) => "less even than chance explains".into(),
            Self::Range(Signal::Below) => "more even than chance explains: keep what was done".into(),
            Self::Mean(_, Signal::OneSide) => {
                "the last of nine trays on one side of the middle: something has shifted".into()
            }
            Self::Mean(Width, Signal::Rises) => {
                "the last of six trays each wider than the one before: do dough or trays get warmer?".into()
            }
            Self::Mean(Thickness, Signal::Rises) => "the last of six trays each thicker than the one before".into(),
            Self::Mean(Width, Signal::Falls) => "the last of six trays each narrower than the one before".into(),
            Self::Mean(Thickness, Signal::Falls) => {
                "the last of six trays each thinner than the one before: are the rods worn, or the scraps softer?"
                    .into()
            }
            Self::Mean(_, Signal::TwoOfThree) => "the second of three trays far to one side".into(),
            Self::Range(Signal::OneSide) => {
                "the last of nine trays on one side in how even they are: something has shifted".into()
            }
            Self::Range(Signal::Rises) => "the last of six trays each less even than the one before".into(),
            Self::Range(Signal::Falls) => "the last of six trays each more even than the one before".into(),
            Self::Range(Signal::TwoOfThree) => "the second of three trays far to one side in how even they are".into(),
        }
    }
}
