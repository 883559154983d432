//! What is said of pieces in the cold.

use crate::figure::degrees;
use crate::figure::percent;
use crate::names::Name;
use crate::sentence::{Say, Sentence, said};
use ready_slab_core::cold::{Never, WaterState};
use ready_slab_core::job::ReadingNote;
use ready_slab_core::units::Share;

impl Say for Never {
    fn say(&self) -> Sentence {
        match *self {
            Self::LiquidFat => {
                "never firm enough to roll or slice: most of its fat stays liquid, even frozen"
                    .into()
            }
            Self::PlaceIsAt { lies, air, core } => said![
                "never: your ", lies.name(), " is at ", degrees(air, 1), "; the middle needs ", degrees(core, 1),
            ],
            Self::NotWithinADay { core } => said!["not within a day: the middle will still be at ", degrees(core, 1)],
            Self::TooColdAlready { mean } => said![
                "already too cold at ", degrees(mean, 1), ": take it out and rest it on the bench",
            ],
            Self::TooCoolToSoften { air } => said!["won’t soften: ", degrees(air, 1), " is too cool"],
            Self::GettingWarmer { mean } => {
                said!["too warm at ", degrees(mean, 1), " and warming up: put it back in the fridge or freezer"]
            }
            Self::RimFirst => "never all the way through: the edge gets too hard before the middle is firm. Take it out early and let it even out on the bench".into(),
        }
    }
}

/// No water freezes at this or colder: so much is dissolved in it.
const NEVER_FREEZES_C: f64 = -59.9;

impl Say for WaterState {
    fn say(&self) -> Sentence {
        match *self {
            Self::Unfrozen { freezing: Some(f) } if f.c() <= NEVER_FREEZES_C => "Too sugary to freeze hard.".into(),
            Self::Unfrozen { freezing: Some(f) } => {
                said!["Not frozen: with its sugar, this dough starts to freeze at ", degrees(f, 0), "."]
            }
            Self::Unfrozen { freezing: None } => "Its water stays liquid.".into(),
            Self::Freezes { freezing } => {
                said!["Starts to freeze at ", degrees(freezing, 1), ". The forecast allows for it."]
            }
        }
    }
}

/// `6% faster than assumed`, `as fast as assumed`.
fn pace(takes_heat: f64) -> Sentence {
    let by = Share::new((takes_heat - 1.0).abs());
    match takes_heat {
        _ if by.value() < 0.005 => "as fast as assumed".into(),
        slow if slow < 1.0 => said![percent(by, 0), " slower than assumed"],
        _ => said![percent(by, 0), " faster than assumed"],
    }
}

impl Say for ReadingNote {
    fn say(&self) -> Sentence {
        match *self {
            Self::NoneHere => "No thermometer readings here yet, so the range is wide.".into(),
            Self::SoFar(here) => said![
                if here.readings == 1 { "1 reading".to_owned() } else { format!("{} readings", here.readings) },
                " so far: your ",
                here.place.name(),
                " chills ",
                pace(here.takes_heat),
                "; its air is ",
                degrees(here.air, 1),
                ".",
            ],
            Self::DoesNotFit { shows } => said![
                degrees(shows, 1),
                " doesn’t fit the other readings, so it isn’t counted. Wrong unit, or wrong dough?",
            ],
            Self::SetAsideInAll(count) => said![count, " readings not counted."],
        }
    }
}
