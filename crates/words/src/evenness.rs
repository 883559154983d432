//! What is said of evenness over time.

use crate::figure::{mm, percent};
use crate::sentence::{Say, Sentence, said};
use ready_slab_core::ledger::{EvenMeasure, Evenness, NoChance, Signal};
use ready_slab_core::units::Share;

fn most(of: Share, r#where: &'static str, what_to_do: &'static str) -> Sentence {
    said![percent(of, 0), " of the variation is ", r#where, ". ", what_to_do]
}

impl Say for Evenness {
    fn say(&self) -> Sentence {
        match *self {
            Self::Within(EvenMeasure::Thickness, of) => most(
                of,
                "within a tray",
                "Roll out to the ends on your rolling guides. Give the sheet a quarter turn halfway.",
            ),
            Self::Within(EvenMeasure::Width, of) => most(
                of,
                "within a tray",
                "Use rolling guides and one size per tray. If one side of the oven is hotter, turn the tray halfway.",
            ),
            Self::Trays(_, of) => {
                most(of, "between trays", "Chill every tray alike, use cold trays, and roll each disc equally firm.")
            }
            Self::Days(_, of) => most(
                of,
                "from day to day",
                "Weigh the flour, mix to the same temperature, and check the oven thermometer.",
            ),
            Self::Beyond(share, tolerance) if share.value() < 0.003 => {
                said!["Hardly any cookie is more than ", mm(tolerance), " off."]
            }
            Self::Beyond(share, tolerance) => said![
                percent(share, if share.value() < 0.1 { 1 } else { 0 }),
                " of cookies will be more than ",
                mm(tolerance),
                " off if this goes on."
            ],
            Self::CouldKeep => {
                "Each tray is even enough. Make the trays alike and you\u{2019}ll stay within it.".into()
            }
            Self::CouldNotKeep => "Even one tray varies by more than that. Start there.".into(),
        }
    }
}

impl Say for NoChance {
    fn say(&self) -> Sentence {
        use EvenMeasure::{Thickness, Width};
        match *self {
            Self::Mean(Width, Signal::Above) => "wider than usual".into(),
            Self::Mean(Thickness, Signal::Above) => "thicker than usual".into(),
            Self::Mean(Width, Signal::Below) => "narrower than usual".into(),
            Self::Mean(Thickness, Signal::Below) => "thinner than usual".into(),
            Self::Range(Signal::Above) => "less even than usual".into(),
            Self::Range(Signal::Below) => "more even than usual: do that again".into(),
            Self::Mean(_, Signal::OneSide) => "9 trays in a row on one side: something has changed".into(),
            Self::Mean(Width, Signal::Rises) => {
                "6 trays in a row, each wider: is your dough or tray warming up?".into()
            }
            Self::Mean(Thickness, Signal::Rises) => "6 trays in a row, each thicker".into(),
            Self::Mean(Width, Signal::Falls) => "6 trays in a row, each narrower".into(),
            Self::Mean(Thickness, Signal::Falls) => {
                "6 trays in a row, each thinner: are your rolling guides worn, or the scraps softer?".into()
            }
            Self::Mean(_, Signal::TwoOfThree) => "2 of the last 3 trays far off on one side".into(),
            Self::Range(Signal::OneSide) => {
                "9 trays in a row more even, or less even, than average: something has changed".into()
            }
            Self::Range(Signal::Rises) => "6 trays in a row, each less even".into(),
            Self::Range(Signal::Falls) => "6 trays in a row, each more even".into(),
            Self::Range(Signal::TwoOfThree) => "2 of the last 3 trays far less even, or far more even".into(),
        }
    }
}
