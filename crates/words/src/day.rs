//! What is said of a planned day: why a task lies where it does, and which rule forbids a day.

use crate::sentence::{Sentence, said};
use ready_slab_core::clock::{DayHeld, DayRule, Forbidden, Step, Wanted};
use ready_slab_core::job::{DayGain, DayHelp, Shared};

fn min(minutes: i32) -> String {
    format!("{minutes} min")
}

/// What is done to a batch, by its name.
fn doing(wanted: Wanted, name: &str) -> String {
    let tray = wanted.tray.map_or_else(|| name.to_owned(), |tray| format!("tray {} of {name}", tray + 1));
    match wanted.step {
        Step::Mix => format!("mix {name}"),
        Step::Form => format!("form {name}"),
        Step::Cut => format!("cut {tray}"),
        Step::Finish => format!("finish {tray}"),
        Step::Pack => format!("pack {tray}"),
        _ => tray,
    }
}

/// Why a task lies where it does. Batches are named by the one that asks.
#[must_use]
pub fn day_why(held: &[DayHeld], name: impl Fn(usize) -> String) -> Sentence {
    let one = |held: &DayHeld| -> Sentence {
        match *held {
            DayHeld::WantedThen => "it is wanted then".into(),
            DayHeld::Hands(w) => said!["the hands ", doing(w, &name(w.batch)), " next"],
            DayHeld::Oven(w) => said!["the oven takes ", doing(w, &name(w.batch)), " next"],
            DayHeld::AnotherHeat(w) => {
                said!["the oven settles at another heat for ", doing(w, &name(w.batch))]
            }
            DayHeld::CoolingPlace(w) => said![doing(w, &name(w.batch)), " takes its place to cool"],
            DayHeld::Tray(w) => said!["its tray is wanted to ", doing(w, &name(w.batch))],
            DayHeld::Longer(longer) => said![min(longer), " longer than it must: the next step is not due yet"],
            DayHeld::WindowEnds => "it would get too soft to cut another tray, so it goes back into the cold".into(),
            DayHeld::TooCold => "it has got too cold: it rests, wrapped, until it can be worked".into(),
        }
    };
    let mut all = held.iter().map(one);
    let first = all.next().unwrap_or_else(|| "as late as the step after it allows".into());
    all.fold(first, |said, next| said.then("; ").then(next))
}

/// Which rule forbids a day, and what would do.
#[must_use]
pub fn day_forbidden(forbidden: &Forbidden, name: impl Fn(usize) -> String) -> Sentence {
    let of = forbidden.batch.map_or_else(|| "This day".to_owned(), &name);
    let has = forbidden.has;
    let place = |what: &str, whats: &str| -> Sentence {
        let needs = forbidden.needs.unwrap_or(1);
        let there = if has == 0 { "there is none".to_owned() } else { format!("there is {has}") };
        said![of.clone(), format!(" needs {needs} {}; ", if needs == 1 { what } else { whats }), there]
    };
    match forbidden.rule {
        DayRule::Hands => place("pair of hands", "pairs of hands"),
        DayRule::Mixers => place("mixer", "mixers"),
        DayRule::FridgeSlots => place("place in the fridge", "places in the fridge"),
        DayRule::FreezerSlots => place("place in the freezer", "places in the freezer"),
        DayRule::Trays => place("tray", "trays"),
        DayRule::Ovens => place("oven with a rack", "ovens with a rack"),
        DayRule::CoolingSlots => place("place to cool", "places to cool"),
        DayRule::WorkWindow => match forbidden.needs {
            Some(needs) => said![
                of,
                " can be worked for ",
                min(has),
                " out of the cold, but rolling and cutting one tray takes ",
                min(needs),
                ": cut smaller trays, or roll it first and chill the sheets"
            ],
            None => "The dough can not be worked long enough: with a longer window it would go".into(),
        },
        DayRule::TrayChill => said![
            of,
            " is to chill ",
            min(forbidden.needs.unwrap_or(0)),
            " on its trays at least, but ",
            min(has),
            " at most"
        ],
        DayRule::Together => "No order was found in which all of it goes together".into(),
    }
}

fn and(names: &[String]) -> String {
    match names {
        [] => String::new(),
        [one] => one.clone(),
        [first @ .., last] => format!("{} and {last}", first.join(", ")),
    }
}

/// What jobs of a day share.
#[must_use]
pub fn day_shared(shared: &Shared, name: impl Fn(usize) -> String) -> Sentence {
    let named = |lots: &[usize]| and(&lots.iter().map(|lot| name(*lot)).collect::<Vec<_>>());
    match shared {
        Shared::Dough(lots) => said!["One dough is mixed for ", named(lots), "."],
        Shared::Load(lots) => said![named(lots), " share a load in the oven."],
    }
}

/// What would let a day start later.
#[must_use]
pub fn day_help(gain: &DayGain, name: impl Fn(usize) -> String) -> Sentence {
    let what = match gain.help {
        DayHelp::Tray => "One more tray".to_owned(),
        DayHelp::Oven => "One more oven".to_owned(),
        DayHelp::Hands => "Another pair of hands".to_owned(),
        DayHelp::FridgePlace => "One more place in the fridge".to_owned(),
        DayHelp::CoolingPlace => "One more place to cool".to_owned(),
        DayHelp::InTheFreezer(lot) => format!("The dough of {} in the freezer, not the fridge", name(lot)),
    };
    let (hours, min) = (gain.gain_min / 60, gain.gain_min % 60);
    let long = match (hours, min) {
        (0, min) => format!("{min} min"),
        (hours, 0) => format!("{hours} h"),
        (hours, min) => format!("{hours} h {min} min"),
    };
    said![what, format!(": start {long} later.")]
}
