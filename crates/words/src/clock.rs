//! What is said of why a step lies where it does.

use crate::sentence::{Say, Sentence, said};
use ready_slab_core::clock::{ChillWaits, Held, MoreChill};
use ready_slab_core::job::WhenLate;

fn min(minutes: i64) -> String {
    format!("{minutes} min")
}

impl Say for ChillWaits {
    fn say(&self) -> Sentence {
        let mut said = said!["ready after ", min(self.ready_min)];
        if self.slow_min > 0 {
            said = said.then(said![", ", min(self.slow_min), " more at the slow end of its range"]);
        }
        match self.more {
            Some((more, MoreChill::Flour { at_least_min })) => {
                said.then(said![", ", min(more), " more for its flour, which rests ", min(at_least_min), " at least",])
            }
            Some((more, MoreChill::Asked { at_least_min })) => {
                said.then(said![", ", min(more), " more, for you want it in there ", min(at_least_min), " at least"])
            }
            // What never gets ready there may stay the night all the same.
            Some((_, MoreChill::Overnight)) if self.ready_min == 0 => "overnight".into(),
            Some((_, MoreChill::Overnight)) => said!["overnight; ready after ", min(self.ready_min)],
            None => said,
        }
    }
}

impl Say for Held {
    fn say(&self) -> Sentence {
        match *self {
            Self::AnotherHeat => "early, for the next tray wants another heat".into(),
            Self::OvenWanted => "early, for the next tray wants the oven".into(),
            Self::CoolingPlaceWanted => "early, for another tray takes its place to cool".into(),
            Self::TrayWanted => "early, so that its tray is free again".into(),
            Self::LongerOnItsTray { longer_min } => {
                said![min(longer_min), " longer than it must: hands or oven are at something else"]
            }
            Self::Chill(waits) => waits.say(),
            Self::HandsBusy { longer_min } => {
                said![min(longer_min), " longer than it must: the hands are busy, or the next tray is not due yet",]
            }
            Self::TooCold => "it has got too cold: it rests, wrapped, until it can be worked again".into(),
        }
    }
}

/// Why a step lies where it does; nothing where only the step after it holds it.
#[must_use]
pub fn why(held: &[Held]) -> Option<Sentence> {
    let mut all = held.iter().map(Say::say);
    let first = all.next()?;
    Some(all.fold(first, |said, next| said.then("; ").then(next)))
}

/// What can still be done when the start has passed, as one sentence.
#[must_use]
pub fn when_late(all: &[WhenLate]) -> Sentence {
    let one = |(at, what): (usize, &WhenLate)| match (at, what) {
        (0, WhenLate::Later) => "Move the wanted time",
        (_, WhenLate::Later) => "move the wanted time",
        (_, WhenLate::ThawOnTheBench) => "thaw the dough on the bench",
        (_, WhenLate::InTheFreezer) => "chill in the freezer",
        (_, WhenLate::QuickerFinish) => "take a finish that dries sooner, such as sugar or chocolate",
        (_, WhenLate::AsSheets) => "roll the dough first and chill it as sheets",
    };
    let words: Vec<&str> = all.iter().enumerate().map(one).collect();
    let said = match words.split_last() {
        Some((last, [])) => format!("{last}."),
        Some((last, before)) => format!("{}, or {last}.", before.join(", ")),
        None => String::new(),
    };
    said.as_str().into()
}
