//! What is said at the bench while a day is run.

use crate::figure::{self, degrees, setting};
use crate::sentence::{Sentence, said};
use ready_slab_core::clock::{DayPlace, Step};
use ready_slab_core::run::{CatchUp, Happened, HeldUp, RunPlan, RunTask, Saves, Timer, TimerState, WentIn};
use ready_slab_core::units::{Share, Span, Temperature};

fn place(place: DayPlace) -> &'static str {
    match place {
        DayPlace::Fridge => "fridge",
        DayPlace::Freezer => "freezer",
        DayPlace::Counter => "bench",
    }
}

fn minutes(min: f64) -> String {
    format!("{min:.0} min")
}

fn tray(task: &RunTask) -> String {
    task.tray.map_or_else(|| "the dough".to_owned(), |t| format!("tray {}", t + 1))
}

fn big(text: &str) -> String {
    let mut chars = text.chars();
    chars.next().map_or_else(String::new, |first| first.to_uppercase().chain(chars).collect())
}

/// The step that goes on by itself after a task.
fn goes_on(plan: &RunPlan, task: usize) -> Option<&RunTask> {
    plan.tasks.iter().find(|t| t.after.contains(&task) && t.begins_by_itself())
}

/// What the one big button says: that it is done, and where it goes.
#[must_use]
pub fn done_button(plan: &RunPlan, task: usize) -> String {
    let t = &plan.tasks[task];
    let goes = goes_on(plan, task).and_then(|next| next.place).filter(|p| *p != DayPlace::Counter);
    let into = goes.map_or_else(String::new, |p| format!(", in the {}", place(p)));
    match t.step {
        Step::Mix if goes.is_some() => format!("Mixed{into}"),
        Step::Mix => "Mixed".to_owned(),
        Step::Form => format!("Shaped{into}"),
        Step::Cut if t.does.starts_with("Slice") => format!("Sliced{into}"),
        Step::Cut if t.does.starts_with("Fill") || t.does.starts_with("Portion") => format!("On the tray{into}"),
        Step::Cut => format!("Cut{into}"),
        Step::Finish => "Finished, drying".to_owned(),
        Step::Pack => "Packed".to_owned(),
        Step::Bake => "Out of the oven".to_owned(),
        Step::TrayChill => "In the oven".to_owned(),
        Step::Chill | Step::Thaw | Step::BulkChill => "Out of the cold".to_owned(),
        Step::Preheat => "Oven’s on".to_owned(),
        _ => "Done".to_owned(),
    }
}

/// What something that has its time is: where, and what.
#[must_use]
pub fn timer_title(plan: &RunPlan, timer: &Timer) -> String {
    let t = &plan.tasks[timer.tasks[0]];
    let several = plan.lots.len() > 1;
    let whose = if several && timer.tasks.iter().any(|i| plan.tasks[*i].tray.is_some()) {
        format!(": {}", plan.lots[t.lot].name)
    } else {
        String::new()
    };
    let numbers: Vec<String> =
        timer.tasks.iter().filter_map(|i| plan.tasks[*i].tray).map(|t| (t + 1).to_string()).collect();
    let trays = match numbers.as_slice() {
        [] if several => format!("{} dough", plan.lots[t.lot].name),
        [] => "the dough".to_owned(),
        [one] => format!("tray {one}"),
        [first @ .., last] => format!("trays {} and {last}", first.join(", ")),
    };
    let at = match (t.step, t.place) {
        (Step::Bake, _) => "Oven",
        (Step::Preheat, _) => return "Oven".to_owned(),
        (_, Some(p)) if p != DayPlace::Counter => return format!("{}, {trays}{whose}", big(place(p))),
        (Step::Cool | Step::CoolOnRack | Step::Dry, _) => "Rack",
        _ => "Bench",
    };
    format!("{at}, {trays}{whose}")
}

/// How it stands, in a word or two; nothing while it only counts down.
#[must_use]
pub fn timer_headline(plan: &RunPlan, timer: &Timer) -> Option<&'static str> {
    let step = plan.tasks[timer.tasks[0]].step;
    Some(match (step, timer.state) {
        (Step::Preheat, TimerState::Due | TimerState::Over) => "Turn the oven on",
        (Step::Thaw, TimerState::Due) if timer.to_begin => "Take it out of the freezer",
        (Step::Bake, TimerState::Over) => "Take it out now",
        (Step::Bake, TimerState::Due) => "Look now",
        (Step::TrayChill, TimerState::Due) => "Put it in the oven",
        (Step::TrayChill, TimerState::Ready) => "Firm",
        (Step::Thaw, TimerState::Due | TimerState::Ready) => "Thawed",
        (Step::Chill | Step::BulkChill, TimerState::Due) => "Take it out",
        (Step::Chill | Step::BulkChill, TimerState::Ready) => "Ready",
        _ => return None,
    })
}

/// What to look for, or what it waits for.
#[must_use]
pub fn timer_note(plan: &RunPlan, timer: &Timer) -> Option<Sentence> {
    let t = &plan.tasks[timer.tasks[0]];
    let shows = timer.shows_c.map(Temperature::new_c);
    match (t.step, timer.state) {
        (Step::Preheat, _) => Some(said!["set to ", setting(Temperature::new_c(plan.lots[t.lot].oven_c))]),
        (Step::Bake, TimerState::Due | TimerState::Over) => Some(match plan.lots[t.lot].look_for.as_str() {
            "" => "edges the color you chose, middle no longer shiny".into(),
            look_for => unsentenced(look_for).into(),
        }),
        (Step::Bake, _) => {
            let about = plan.lots[t.lot].about_min;
            let about = (about > 0.0).then(|| said!["about ", figure::minutes(Span::new_min(about), 0)]);
            let went_in = timer.went_in.as_ref().and_then(went_in);
            match (about, went_in) {
                (Some(about), Some(went_in)) => Some(about.then(", ").then(went_in)),
                (about, went_in) => about.or(went_in),
            }
        }
        (Step::Chill | Step::TrayChill, _) if timer.measured => {
            shows.map(|c| said![degrees(c, 1), " on the thermometer"])
        }
        (Step::Chill | Step::TrayChill, _) => shows.map(|c| said!["about ", degrees(c, 0), " (forecast)"]),
        (Step::Cool, _) => Some("on its tray".into()),
        (Step::Dry, _) => Some("in one layer".into()),
        (Step::Rest, _) => Some("wrapped, until you can work it".into()),
        _ => None,
    }
}

/// A sentence as a part of a line: it begins small and has no full stop.
fn unsentenced(text: &str) -> String {
    let mut chars = text.trim_end_matches('.').chars();
    chars.next().map_or_else(String::new, |first| first.to_lowercase().chain(chars).collect())
}

/// A bake is told as longer or shorter from here on, min, and a spread as another, of the width. Our own choice.
const OTHER_MIN: f64 = 0.5;
const OTHER_SPREAD: f64 = 0.005;

/// What it means that a tray went in at another temperature than planned; nothing where it means nothing.
#[must_use]
pub fn went_in(how: &WentIn) -> Option<Sentence> {
    let (c, planned) = (Temperature::new_c(how.start_c), Temperature::new_c(how.planned_c));
    let time = figure::minutes(Span::new_min(how.longer_min.abs()), 1);
    let bakes = match how.longer_min {
        m if m >= OTHER_MIN => Some(said![": bake ", time, " longer"]),
        m if m <= -OTHER_MIN => Some(said![": bake ", time, " less"]),
        _ => None,
    };
    let other = (how.spread - how.planned_spread).abs() >= OTHER_SPREAD;
    let of = |spread: f64| figure::percent(Share::new(spread), 1);
    let spreads = other.then(|| said!["; spread ", of(how.spread), " (plan ", of(how.planned_spread), ")"]);
    if bakes.is_none() && spreads.is_none() {
        return None;
    }
    let began = said!["went in at ", degrees(c, 0), " (plan ", degrees(planned, 0), ")"];
    Some([bakes, spreads].into_iter().flatten().fold(began, Sentence::then))
}

/// What holds a run up most.
#[must_use]
pub fn held_up(plan: &RunPlan, held: &HeldUp) -> Sentence {
    let t = &plan.tasks[held.task];
    let what = match t.step {
        Step::Bake => format!("{} in the oven", tray(t)),
        _ if t.waits() => format!("{} in the {}", tray(t), t.place.map_or("cold", place)),
        _ => unsentenced(&t.does),
    };
    said![format!("{} late, mostly {what}", minutes(held.min))]
}

/// What a time beside it is: when it is ready or looked at, and by when.
#[must_use]
pub fn timer_times(plan: &RunPlan, timer: &Timer) -> (&'static str, &'static str) {
    let t = &plan.tasks[timer.tasks[0]];
    if timer.to_begin {
        return ("start at", "by");
    }
    match t.step {
        Step::Bake => ("look at", "out by"),
        Step::TrayChill => ("firm at", "in the oven by"),
        // Where it does not get too cold, it only keeps so long.
        Step::Chill if plan.lots[t.lot].too_cold.is_some() => ("ready", "too cold from"),
        Step::Chill | Step::BulkChill => ("ready", "keeps until"),
        Step::Thaw => ("thawed", "by"),
        Step::Preheat => ("hot at", "by"),
        Step::Cool => ("lift at", "by"),
        Step::Dry => ("dry at", "by"),
        _ => ("until", "by"),
    }
}

/// What would help a run that is late, and by how much.
#[must_use]
pub fn catch_up(plan: &RunPlan, saves: &Saves) -> Sentence {
    let gain = minutes(saves.min);
    match saves.what {
        CatchUp::Elsewhere { task, place: to } => {
            let t = &plan.tasks[task];
            let now = t.place.map_or("where it is", place);
            let whose = if plan.lots.len() > 1 { format!("{}, ", plan.lots[t.lot].name) } else { String::new() };
            let what = format!("Chill {whose}{} in the {} instead of the {now}", tray(t), place(to));
            said![what, format!(": saves {gain}")]
        }
        CatchUp::MoreHands => said![format!("One more person saves {gain}")],
    }
}

/// Something that was noted, as the log tells it.
#[must_use]
pub fn happened(plan: &RunPlan, what: &Happened) -> Sentence {
    let task = what.task().and_then(|t| plan.tasks.get(t));
    let whose = |t: &RunTask| if plan.lots.len() > 1 { format!(", {}", plan.lots[t.lot].name) } else { String::new() };
    let named = task.map_or_else(String::new, |t| format!("{}{}", tray(t), whose(t)));
    match *what {
        Happened::Started { .. } => match task.map(|t| t.step) {
            Some(Step::Bake) => said![big(&named), ": in the oven"],
            Some(Step::Preheat) => "Oven on".into(),
            _ => said!["Started: ", task.map_or_else(String::new, |t| t.does.clone())],
        },
        Happened::Done { task: at } => match task.map(|t| t.step) {
            Some(Step::Bake) => said![big(&named), ": out of the oven"],
            Some(Step::Chill | Step::Thaw | Step::BulkChill) => said![big(&named), ": out of the cold"],
            Some(_) => {
                let button = done_button(plan, at);
                said![big(&named), ": ", button.to_lowercase()]
            }
            None => "Done".into(),
        },
        Happened::MoreTime { min, .. } => said![big(&named), ": ", minutes(min), " longer"],
        Happened::TooSoft { min, .. } => said![big(&named), ": too soft, back in the cold for ", minutes(min)],
        Happened::Elsewhere { place: to, .. } => said![big(&named), ": moved to the ", place(to)],
        Happened::Dropped { .. } => said![big(&named), ": dropped"],
        Happened::PowerWent { min } => said!["Power out: oven off for ", minutes(min)],
        Happened::Measured { c, .. } => {
            said![big(&named), ": ", degrees(Temperature::new_c(c), 1), " going in"]
        }
        Happened::Counted { pieces, .. } => {
            said![big(&named), format!(": {pieces} {}", if pieces == 1 { "cookie" } else { "cookies" })]
        }
        Happened::TakenBack { .. } => "Undone".into(),
        Happened::Moved { .. } => "Time corrected".into(),
    }
}
