//! What is said of pieces in the cold.

use crate::figure::degrees;
use crate::figure::number;
use crate::names::Name;
use crate::sentence::{Say, Sentence, said};
use ready_slab_core::cold::{Never, WaterState};
use ready_slab_core::job::ReadingNote;

impl Say for Never {
    fn say(&self) -> Sentence {
        match *self {
            Self::LiquidFat => {
                "never: most of the fat in this dough stays liquid, so no cold makes it firm enough to roll or slice"
                    .into()
            }
            Self::PlaceIsAt { lies, air, core } => said![
                "never: the ",
                lies.name(),
                " is at ",
                degrees(air, 1),
                ", and the core would have to reach ",
                degrees(core, 1),
            ],
            Self::NotWithinADay { core } => said!["not within a day: the core is then still at ", degrees(core, 1)],
            Self::TooColdAlready { mean } => said![
                "too cold already at ",
                degrees(mean, 1),
                ": let it rest on the bench, it will not get better here",
            ],
            Self::TooCoolToSoften { air } => said!["never: ", degrees(air, 1), " is too cool to soften it"],
            Self::GettingWarmer { mean } => {
                said!["too warm at ", degrees(mean, 1), " and getting warmer: put it back in the cold"]
            }
            Self::RimFirst => "never all through: its edge is too hard here before its middle is firm; take it out early and let it rest".into(),
        }
    }
}

/// No water freezes at this or colder: so much is dissolved in it.
const NEVER_FREEZES_C: f64 = -59.9;

impl Say for WaterState {
    fn say(&self) -> Sentence {
        match *self {
            Self::Unfrozen { freezing: Some(f) } if f.c() <= NEVER_FREEZES_C => {
                "The water stays liquid: so much sugar is dissolved in it that no freezer freezes it.".into()
            }
            Self::Unfrozen { freezing: Some(f) } => {
                said!["The water stays liquid: with its sugar it would freeze at ", degrees(f, 0), "."]
            }
            Self::Unfrozen { freezing: None } => "The water is taken to stay liquid.".into(),
            Self::Freezes { freezing } => {
                said!["Its water begins to freeze at ", degrees(freezing, 1), "; the heat of freezing is counted."]
            }
        }
    }
}

impl Say for ReadingNote {
    fn say(&self) -> Sentence {
        match *self {
            Self::NoneHere => "No reading here yet: the range is as wide as what is known of the place.".into(),
            Self::SoFar(here) => said![
                if here.readings == 1 { "One reading".to_owned() } else { format!("{} readings", here.readings) },
                " so far: the ",
                here.place.name(),
                " takes heat ",
                number(here.takes_heat, 2),
                " times as well as assumed, its air is ",
                degrees(here.air, 1),
                ".",
            ],
            Self::DoesNotFit { shows } => said![
                "The reading of ",
                degrees(shows, 1),
                " does not fit the others and is set aside; was it another unit, or another piece?",
            ],
            Self::SetAsideInAll(count) => said![count, " readings are set aside in all."],
        }
    }
}
