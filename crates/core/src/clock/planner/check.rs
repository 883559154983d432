//! Proves a planned day by going through its minutes, written apart from the search: it shares nothing with it but what a day and a task are.

use super::day::{Day, DayPlace};
use super::tasks::DayTask;
use crate::clock::step::Step;
use std::collections::BTreeMap;

/// A rule that a plan breaks, and the task that does, counted as they were given.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Broken {
    /// Which rule.
    pub rule: &'static str,
    /// The task.
    pub task: Option<usize>,
}

/// Every rule of the day that the tasks break; none for a sound plan.
#[must_use]
pub fn broken_rules(day: &Day, tasks: &[DayTask]) -> Vec<Broken> {
    let mut found = vec![];
    places(day, tasks, &mut found);
    ovens(day, tasks, &mut found);
    for batch in 0..day.batches.len() {
        dough(day, tasks, batch, &mut found);
        trays(day, tasks, batch, &mut found);
    }
    for (i, t) in tasks.iter().enumerate() {
        if t.start_min < 0 || t.end_min < t.start_min {
            found.push(Broken { rule: "a task lies within the day and ends after it starts", task: Some(i) });
        }
    }
    found
}

/// At every minute no more is in use than there is. What ends at a minute is free at it.
fn places(day: &Day, tasks: &[DayTask], found: &mut Vec<Broken>) {
    let k = &day.kitchen;
    let hands = |s: Step| matches!(s, Step::Mix | Step::Form | Step::Cut | Step::Finish | Step::Pack);
    let held = |t: &DayTask| matches!(t.step, Step::Chill | Step::TrayChill | Step::BulkChill);
    type Uses<'a> = Box<dyn Fn(&DayTask) -> Option<(i32, i32)> + 'a>;
    let within = |t: &DayTask| Some((t.start_min, t.end_min));
    let cooled = |t: &DayTask| {
        let cool = tasks.iter().find(|c| c.step == Step::Cool && c.batch == t.batch && c.tray == t.tray);
        Some((t.start_min, cool.map_or(i32::MAX, |c| c.end_min)))
    };
    let kinds: [(&'static str, u32, Uses); 6] = [
        ("hands do one thing at a time", k.hands, Box::new(|t| within(t).filter(|_| hands(t.step)))),
        ("a mixer mixes one dough at a time", k.mixers, Box::new(|t| within(t).filter(|_| t.step == Step::Mix))),
        (
            "the fridge has so many places",
            k.fridge_slots,
            Box::new(|t| within(t).filter(|_| held(t) && t.place == Some(DayPlace::Fridge))),
        ),
        (
            "the freezer has so many places",
            k.freezer_slots,
            Box::new(|t| within(t).filter(|_| held(t) && t.place == Some(DayPlace::Freezer))),
        ),
        ("there are so many trays", k.trays, Box::new(|t| (t.step == Step::Cut).then(|| cooled(t)).flatten())),
        ("so many trays can stand to cool", k.cooling_slots, Box::new(|t| within(t).filter(|_| t.step == Step::Cool))),
    ];
    for (rule, places, uses) in kinds {
        // Ends come before starts at one minute.
        let mut events: Vec<(i32, i32, usize)> = vec![];
        for (i, t) in tasks.iter().enumerate() {
            if let Some((start, end)) = uses(t).filter(|(start, end)| end > start) {
                events.push((start, 1, i));
                events.push((end, -1, i));
            }
        }
        events.sort_unstable();
        let mut used = 0;
        for (_, by, task) in events {
            used += by;
            if i64::from(used) > i64::from(places) {
                found.push(Broken { rule, task: Some(task) });
                break;
            }
        }
    }
}

/// Loads of one oven follow each other; what is in it together went in together at one heat for one time.
fn ovens(day: &Day, tasks: &[DayTask], found: &mut Vec<Broken>) {
    let k = &day.kitchen;
    let mut by_oven: BTreeMap<usize, Vec<usize>> = BTreeMap::new();
    for (i, t) in tasks.iter().enumerate().filter(|(_, t)| t.step == Step::Bake) {
        match t.oven {
            Some(oven) if oven < usize::try_from(k.ovens).unwrap_or(0) => by_oven.entry(oven).or_default().push(i),
            _ => found.push(Broken { rule: "every load has an oven of the kitchen", task: Some(i) }),
        }
    }
    for bakes in by_oven.into_values() {
        for &a in &bakes {
            let (t, heat) = (&tasks[a], day.batches[tasks[a].batch].oven_c);
            if t.start_min < k.preheat_min {
                found.push(Broken { rule: "an oven is heated before its first load", task: Some(a) });
            }
            let together =
                bakes.iter().filter(|&&b| tasks[b].start_min == t.start_min && tasks[b].end_min == t.end_min);
            if together.count() > usize::try_from(k.racks_per_oven).unwrap_or(0) {
                found.push(Broken { rule: "an oven holds so many trays", task: Some(a) });
            }
            for &b in bakes.iter().filter(|&&b| b > a) {
                let (o, other) = (&tasks[b], day.batches[tasks[b].batch].oven_c);
                let alike = heat.to_bits() == other.to_bits();
                let gap = if alike { 0 } else { k.temp_change_min };
                let apart = t.end_min + gap <= o.start_min || o.end_min + gap <= t.start_min;
                let one_load = alike && t.start_min == o.start_min && t.end_min == o.end_min;
                if !apart && !one_load {
                    found.push(Broken {
                        rule: "the door opens between loads, and another heat takes its time",
                        task: Some(b),
                    });
                }
            }
        }
    }
}

fn of_batch(tasks: &[DayTask], batch: usize, step: Step) -> Vec<(usize, &DayTask)> {
    tasks.iter().enumerate().filter(|(_, t)| t.batch == batch && t.step == step).collect()
}

/// Mixed, formed and chilled in this order and for so long.
fn dough(day: &Day, tasks: &[DayTask], at: usize, found: &mut Vec<Broken>) {
    let batch = &day.batches[at];
    let mut broken = |rule, task| found.push(Broken { rule, task });
    let mixes = of_batch(tasks, batch.mixed_by.unwrap_or(at), Step::Mix);
    let forms = of_batch(tasks, at, Step::Form);
    let ([(mixed, mix)], [(formed, form)]) = (&mixes[..], &forms[..]) else {
        return broken("each batch is mixed and formed once", None);
    };
    if mix.end_min - mix.start_min != day.batches[mix.batch].mix_min {
        broken("mixing takes its time", Some(*mixed));
    }
    if form.end_min - form.start_min != batch.form_min || form.start_min < mix.end_min + batch.bulk_min {
        broken("forming takes its time, after the mix", Some(*formed));
    }
    let mut chills = of_batch(tasks, at, Step::Chill);
    chills.sort_by_key(|(_, c)| c.tray);
    if chills.first().is_none_or(|(_, c)| c.tray != Some(0) || c.start_min != form.end_min) {
        broken("dough chills from when it is formed", chills.first().map(|c| c.0));
    }
    for (i, chill) in chills {
        let least = if chill.tray == Some(0) { batch.chill_min } else { day.kitchen.rechill_min };
        if chill.end_min - chill.start_min < least {
            broken("dough is in the cold at least so long", Some(i));
        }
        if chill.place != Some(batch.dough_place) {
            broken("dough chills where it is to", Some(i));
        }
    }
}

/// Cut in order within the window, chilled, baked in order, cooled.
fn trays(day: &Day, tasks: &[DayTask], at: usize, found: &mut Vec<Broken>) {
    let batch = &day.batches[at];
    let mut broken = |rule, task| found.push(Broken { rule, task });
    let of = |step, tray| tasks.iter().position(|t| t.batch == at && t.step == step && t.tray == Some(tray));
    let mut usable = 0;
    let mut before: Option<(usize, usize)> = None;
    for tray in 0..batch.trays() {
        let (Some(cut), Some(chill), Some(bake), Some(cool)) =
            (of(Step::Cut, tray), of(Step::TrayChill, tray), of(Step::Bake, tray), of(Step::Cool, tray))
        else {
            return broken("every tray is cut, chilled, baked and cooled", None);
        };
        let (c, t, b, l) = (&tasks[cut], &tasks[chill], &tasks[bake], &tasks[cool]);
        if let Some(out) = of(Step::Chill, tray) {
            let o = &tasks[out];
            usable = o.end_min + batch.rest_after(o.end_min - o.start_min);
            if before.is_some_and(|(cut, _)| o.start_min != tasks[cut].end_min) {
                broken("dough goes back into the cold at once", Some(out));
            }
        }
        if c.start_min < usable || c.end_min > usable + batch.window_min {
            broken("every cut lies within the window of its outing", Some(cut));
        }
        if c.end_min - c.start_min != batch.cut_min[tray] {
            broken("a cut takes its time", Some(cut));
        }
        let stay = t.end_min - t.start_min;
        if t.start_min != c.end_min || stay < batch.tray_chill_min || stay > batch.tray_chill_max {
            broken("a cut tray chills at once, so long at least and at most", Some(chill));
        }
        let cold = t.place.is_some_and(|p| p != DayPlace::Counter) || batch.tray_place == Some(DayPlace::Counter);
        if stay > 0 && (!cold || batch.tray_place.is_some_and(|p| t.place != Some(p))) {
            broken("a cut tray chills where it is to", Some(chill));
        }
        if b.start_min != t.end_min || b.end_min - b.start_min != batch.bake_min {
            broken("a tray goes from the cold into the oven, for its time", Some(bake));
        }
        if l.start_min != b.end_min || l.end_min - l.start_min != batch.cool_min {
            broken("a tray cools when it comes out", Some(cool));
        }
        if let Some((cut_before, bake_before)) = before {
            if c.start_min < tasks[cut_before].end_min {
                broken("trays are cut one after the other", Some(cut));
            }
            if b.start_min < tasks[bake_before].start_min {
                broken("trays bake in the order in which they were cut", Some(bake));
            }
        }
        before = Some((cut, bake));
    }
}
