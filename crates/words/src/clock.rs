//! What is said of why a step lies where it does.

use crate::sentence::{Say, Sentence, said};
use ready_slab_core::clock::{ChillWaits, Held, MoreChill};
use ready_slab_core::job::WhenLate;

fn min(minutes: i64) -> String {
    format!("{minutes} min")
}

impl Say for ChillWaits {
    fn say(&self) -> Sentence {
        let mut said = said!["ready in ", min(self.ready_min)];
        if self.slow_min > 0 {
            said = said.then(said![", +", min(self.slow_min), " if it chills slowly"]);
        }
        match self.more {
            Some((more, MoreChill::Flour { at_least_min })) => {
                said.then(said![", +", min(more), ": the flour rests at least ", min(at_least_min)])
            }
            Some((more, MoreChill::Asked { at_least_min })) => {
                said.then(said![", +", min(more), ": your minimum is ", min(at_least_min)])
            }
            // What never gets ready there may stay the night all the same.
            Some((_, MoreChill::Overnight)) if self.ready_min == 0 => "overnight".into(),
            Some((_, MoreChill::Overnight)) => said!["overnight (ready in ", min(self.ready_min), ")"],
            None => said,
        }
    }
}

impl Say for Held {
    fn say(&self) -> Sentence {
        match *self {
            Self::AnotherHeat => "starts early: the next tray needs a different temperature".into(),
            Self::OvenWanted => "starts early: the next tray needs the oven".into(),
            Self::CoolingPlaceWanted => "starts early: another tray needs its cooling space".into(),
            Self::TrayWanted => "starts early: you need its tray again".into(),
            Self::LongerOnItsTray { longer_min } => {
                said!["waits ", min(longer_min), ": you or the oven are busy"]
            }
            Self::Chill(waits) => waits.say(),
            Self::HandsBusy { longer_min } => {
                said!["waits ", min(longer_min), ": you’re busy, or the next tray isn’t due yet",]
            }
            Self::TooCold => "too cold to work: let it rest, wrapped, until you can work it".into(),
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
        (0, WhenLate::Later) => "Move the ready-by time",
        (_, WhenLate::Later) => "move the ready-by time",
        (_, WhenLate::ThawOnTheBench) => "thaw the dough on the bench",
        (_, WhenLate::InTheFreezer) => "chill in the freezer",
        (_, WhenLate::QuickerFinish) => "use a finish that dries faster, such as sugar or chocolate",
        (_, WhenLate::AsSheets) => "roll the dough first and chill the sheets",
    };
    let words: Vec<&str> = all.iter().enumerate().map(one).collect();
    let said = match words.split_last() {
        Some((last, [])) => format!("{last}."),
        Some((last, before)) => format!("{}, or {last}.", before.join(", ")),
        None => String::new(),
    };
    said.as_str().into()
}
