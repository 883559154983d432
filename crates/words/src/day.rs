//! What is said of a planned day: why a task lies where it does, and which rule forbids a day.

use crate::sentence::{Sentence, said};
use ready_slab_core::clock::{DayHeld, DayRule, Forbidden, Step, Wanted};
use ready_slab_core::job::{DayGain, DayHelp, Shared};

fn min(minutes: i32) -> String {
    format!("{minutes} min")
}

/// What is done to a batch, by its name.
fn doing(wanted: Wanted, name: &str) -> String {
    let tray = wanted.tray.map_or_else(|| name.to_owned(), |tray| format!("{name}, tray {}", tray + 1));
    match wanted.step {
        Step::Mix => format!("mix {name}"),
        Step::Form => format!("shape {name}"),
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
            DayHeld::WantedThen => "that’s its ready-by time".into(),
            DayHeld::Hands(w) => said!["you ", doing(w, &name(w.batch)), " next"],
            DayHeld::Oven(w) => said![doing(w, &name(w.batch)), " is next in the oven"],
            DayHeld::AnotherHeat(w) => {
                said!["the oven changes temperature for ", doing(w, &name(w.batch))]
            }
            DayHeld::CoolingPlace(w) => said![doing(w, &name(w.batch)), " needs its cooling space"],
            DayHeld::Tray(w) => said!["you need its tray to ", doing(w, &name(w.batch))],
            DayHeld::Longer(longer) => said!["waits ", min(longer), ": the next step isn’t due yet"],
            DayHeld::WindowEnds => "too soft to cut another tray, so it goes back in the cold".into(),
            DayHeld::TooCold => "too cold to work: let it rest, wrapped, until you can work it".into(),
        }
    };
    let mut all = held.iter().map(one);
    let first = all.next().unwrap_or_else(|| "as late as the next step allows".into());
    all.fold(first, |said, next| said.then("; ").then(next))
}

/// Which rule forbids a day, and what would do.
#[must_use]
pub fn day_forbidden(forbidden: &Forbidden, name: impl Fn(usize) -> String) -> Sentence {
    let of = forbidden.batch.map_or_else(|| "This day".to_owned(), &name);
    let has = forbidden.has;
    let place = |what: &str, whats: &str| -> Sentence {
        let needs = forbidden.needs.unwrap_or(1);
        let there = if has == 0 { "none".to_owned() } else { has.to_string() };
        said![of.clone(), format!(": needs {needs} {}, you have ", if needs == 1 { what } else { whats }), there]
    };
    match forbidden.rule {
        DayRule::Hands => place("person", "people"),
        DayRule::Mixers => place("mixer", "mixers"),
        DayRule::FridgeSlots => place("fridge space", "fridge spaces"),
        DayRule::FreezerSlots => place("freezer space", "freezer spaces"),
        DayRule::Trays => place("tray", "trays"),
        DayRule::Ovens => place("oven", "ovens"),
        DayRule::CoolingSlots => place("cooling space", "cooling spaces"),
        DayRule::WorkWindow => match forbidden.needs {
            Some(needs) => said![
                of,
                " stays workable ",
                min(has),
                ", but one tray takes ",
                min(needs),
                " to roll and cut. Cut smaller trays, or roll first and chill the sheets"
            ],
            None => "The dough softens before you finish. Chill it colder, or work smaller amounts".into(),
        },
        DayRule::TrayChill => said![
            of,
            ": tray chill is set to at least ",
            min(forbidden.needs.unwrap_or(0)),
            " but at most ",
            min(has),
            ". Change one"
        ],
        DayRule::Together => {
            "Couldn’t fit all of this into one day. Move a job, or add a tray, an oven or a helper".into()
        }
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
        Shared::Dough(lots) => said![named(lots), " share one dough."],
        Shared::Load(lots) => said![named(lots), " bake together."],
    }
}

/// What would let a day start later.
#[must_use]
pub fn day_help(gain: &DayGain, name: impl Fn(usize) -> String) -> Sentence {
    let what = match gain.help {
        DayHelp::Tray => "One more tray".to_owned(),
        DayHelp::Oven => "One more oven".to_owned(),
        DayHelp::Hands => "One more person".to_owned(),
        DayHelp::FridgePlace => "One more fridge space".to_owned(),
        DayHelp::CoolingPlace => "One more cooling space".to_owned(),
        DayHelp::InTheFreezer(lot) => format!("{}: dough in the freezer instead of the fridge", name(lot)),
    };
    let (hours, min) = (gain.gain_min / 60, gain.gain_min % 60);
    let long = match (hours, min) {
        (0, min) => format!("{min} min"),
        (hours, 0) => format!("{hours} h"),
        (hours, min) => format!("{hours} h {min} min"),
    };
    said![what, format!(": start {long} later.")]
}
