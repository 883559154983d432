//! What was laid, as tasks in time, each with what holds it where it lies.

use super::day::{DayBatch, DayPlace};
use super::laid::{DayLayout, Stretch};
use crate::clock::step::Step;

/// A task that another one waits for.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Wanted {
    /// Its batch, from 0.
    pub batch: usize,
    /// Its tray, from 0.
    pub tray: Option<usize>,
    /// What is done.
    pub step: Step,
}

/// What holds a task where it lies: why it is not done later, or why it takes longer than it must.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum DayHeld {
    /// It is wanted then.
    WantedThen,
    /// The hands are at something else after it.
    Hands(Wanted),
    /// The oven takes the next load.
    Oven(Wanted),
    /// The oven takes the next load, at another heat.
    AnotherHeat(Wanted),
    /// Another tray takes its place to cool.
    CoolingPlace(Wanted),
    /// Its tray is taken by another cut.
    Tray(Wanted),
    /// In the cold so much longer than it must, min.
    Longer(i32),
    /// It went back into the cold, for the window of the dough ends.
    WindowEnds,
    /// It got too cold and rests before it can be worked.
    TooCold,
}

/// A task of a day.
#[derive(Debug, Clone, PartialEq)]
pub struct DayTask {
    /// What is done.
    pub step: Step,
    /// The batch, from 0; the first one it is heated for, of an oven.
    pub batch: usize,
    /// The tray, from 0; of a chill of the dough the one that is cut first after it.
    pub tray: Option<usize>,
    /// Where it chills.
    pub place: Option<DayPlace>,
    /// The oven, from 0.
    pub oven: Option<usize>,
    /// From the start of the day.
    pub start_min: i32,
    /// It ends there: half-open.
    pub end_min: i32,
    /// What holds it there.
    pub why: Vec<DayHeld>,
}

/// All tasks of what was laid last, by start; those of no length too, where a batch has the step at all.
pub(super) fn of(layout: &DayLayout) -> Vec<DayTask> {
    let day = layout.day;
    let task = |step, batch: usize, tray: Option<usize>, at: Stretch| DayTask {
        step,
        batch,
        tray,
        place: None,
        oven: None,
        start_min: layout.start - at.to,
        end_min: layout.start - at.from,
        why: vec![],
    };
    let mut tasks = vec![];
    for d in &layout.doughs {
        let batch = &day.batches[d.batch];
        if batch.mixed_by.is_none() {
            tasks.push(task(Step::Mix, d.batch, None, d.mix));
        }
        if batch.bulk_min > 0 {
            tasks.push(DayTask { place: Some(batch.dough_place), ..task(Step::BulkChill, d.batch, None, d.bulk) });
        }
        tasks.push(task(Step::Form, d.batch, None, d.form));
    }
    for c in &layout.chills {
        let batch = &day.batches[c.batch];
        let mut why = vec![];
        if c.tray > 0 {
            why.push(DayHeld::WindowEnds);
        }
        let least = if c.tray > 0 { day.kitchen.rechill_min } else { batch.chill_min };
        if c.chill.length() > least {
            why.push(DayHeld::Longer(c.chill.length() - least));
        }
        let chill = task(Step::Chill, c.batch, Some(c.tray), c.chill);
        tasks.push(DayTask { place: Some(batch.dough_place), why, ..chill });
        if c.rest > 0 {
            let rest = Stretch { from: c.chill.from - c.rest, to: c.chill.from };
            tasks.push(DayTask { why: vec![DayHeld::TooCold], ..task(Step::Rest, c.batch, Some(c.tray), rest) });
        }
    }
    for t in &layout.laid {
        let batch = &day.batches[t.batch];
        let of = |step, at| task(step, t.batch, Some(t.tray), at);
        tasks.push(of(Step::Cut, t.cut));
        let longer = t.chill.length() - batch.tray_chill_min;
        let why = if longer > 0 { vec![DayHeld::Longer(longer)] } else { vec![] };
        // A stay without length uses no place; it is told the one it would use.
        let would = if day.kitchen.freezer_slots > 0 { DayPlace::Freezer } else { DayPlace::Fridge };
        let place = t.place.or(batch.tray_place).unwrap_or(would);
        tasks.push(DayTask { place: Some(place), why, ..of(Step::TrayChill, t.chill) });
        tasks.push(DayTask { oven: Some(t.oven), ..of(Step::Bake, t.bake) });
        tasks.push(of(Step::Cool, t.cool));
        let rack = Stretch { from: t.cool.from - batch.rack_min, to: t.cool.from };
        let more = [(Step::CoolOnRack, rack), (Step::Finish, t.finish), (Step::Dry, t.dry), (Step::Pack, t.pack)];
        tasks.extend(more.into_iter().filter(|(_, at)| at.length() > 0).map(|(step, at)| of(step, at)));
    }
    for oven in 0..usize::try_from(day.kitchen.ovens).unwrap_or(0) {
        let first = layout.laid.iter().filter(|t| t.oven == oven).max_by_key(|t| t.bake.to);
        if let Some(first) = first.filter(|_| day.kitchen.preheat_min > 0) {
            let heat = Stretch { from: first.bake.to, to: first.bake.to + day.kitchen.preheat_min };
            tasks.push(DayTask { oven: Some(oven), ..task(Step::Preheat, first.batch, None, heat) });
        }
    }
    tasks.sort_by_key(|t| (t.start_min, t.end_min, t.batch, t.tray));
    hold(layout, &mut tasks);
    tasks
}

/// Finds what each task could not lie later for.
fn hold(layout: &DayLayout, tasks: &mut [DayTask]) {
    let day = layout.day;
    let named = |t: &DayTask| Wanted { batch: t.batch, tray: t.tray, step: t.step };
    let found: Vec<Vec<DayHeld>> = tasks
        .iter()
        .map(|t| {
            if t.end_min == t.start_min {
                return vec![];
            }
            // Its own next step begins when it ends: nothing else holds it.
            let next = |other: &DayTask| {
                other.batch == t.batch && other.start_min == t.end_min && (other.tray == t.tray || t.tray.is_none())
            };
            let starts =
                |other: &&DayTask| other.start_min == t.end_min && other.end_min > other.start_min && !next(other);
            match t.step {
                step if step.by_hand() => {
                    let hands = |o: &&DayTask| o.step.by_hand() && starts(o);
                    if t.end_min == layout.start - day.batches[t.batch].wanted_before_min {
                        return vec![DayHeld::WantedThen];
                    }
                    tasks.iter().find(hands).map(|o| DayHeld::Hands(named(o))).into_iter().collect()
                }
                Step::Bake => bake_held(layout, tasks, t).into_iter().collect(),
                _ => vec![],
            }
        })
        .collect();
    for (task, why) in tasks.iter_mut().zip(found) {
        task.why.extend(why);
    }
}

fn bake_held(layout: &DayLayout, tasks: &[DayTask], t: &DayTask) -> Option<DayHeld> {
    let day = layout.day;
    let batch = &day.batches[t.batch];
    let named = |t: &DayTask| Wanted { batch: t.batch, tray: t.tray, step: t.step };
    let tray = t.tray.unwrap_or(0);
    let done = t.end_min
        + batch.cool_min
        + batch.rack_min
        + DayBatch::of(&batch.finish_min, tray)
        + batch.dry_min
        + DayBatch::of(&batch.pack_min, tray);
    let wanted = layout.start - batch.wanted_before_min;
    if done == wanted || (batch.warm && t.end_min == wanted) {
        return Some(DayHeld::WantedThen);
    }
    let bakes = || tasks.iter().filter(|o| o.step == Step::Bake);
    if let Some(next) = bakes().filter(|o| o.oven == t.oven && o.start_min >= t.end_min).min_by_key(|o| o.start_min) {
        let changes = day.batches[next.batch].oven_c.total_cmp(&batch.oven_c).is_ne();
        if changes && next.start_min == t.end_min + day.kitchen.temp_change_min {
            return Some(DayHeld::AnotherHeat(named(next)));
        }
        if next.start_min == t.end_min {
            return Some(DayHeld::Oven(named(next)));
        }
    }
    let cooled = t.end_min + batch.cool_min;
    let cut = tasks.iter().find(|o| o.step == Step::Cut && o.start_min == cooled);
    if let Some(cut) = cut {
        return Some(DayHeld::Tray(named(cut)));
    }
    let cool = tasks.iter().find(|o| o.step == Step::Cool && o.start_min == cooled && o.end_min > cooled);
    cool.map(|o| DayHeld::CoolingPlace(named(o)))
}
