//! The rest of a run, planned anew from where it stands: each step as planned, or as soon after as what comes before it, hands, ovens, trays and places allow.

use super::fact::{Fact, least_of};
use super::plan::{RunPlan, RunTask};
use super::room::Room;
use crate::clock::{DayPlace, Step};

/// When a run is looked at.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Moment {
    /// Since when somebody is at work, minutes of the run.
    pub began_min: f64,
    /// The minute.
    pub now_min: f64,
}

/// A step, as it was or as it is expected.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Lies {
    pub(super) start: f64,
    pub(super) end: f64,
}

/// Between two loads of an oven at other heats lies so much; below it heats are the same, K.
const SAME_HEAT_K: f64 = 0.5;

/// Where every step lies; nothing of those that are gone.
///
/// Hands that are free take the next work that can be done: nobody presses when they begin it, so it is taken to go on since then.
pub(super) fn ahead(plan: &RunPlan, facts: &[Fact], at: Moment, hands: u32) -> Vec<Option<Lies>> {
    Ahead::new(plan, facts, at, hands).all()
}

struct Ahead<'a> {
    plan: &'a RunPlan,
    facts: &'a [Fact],
    now: f64,
    at: Vec<Option<Lies>>,
    taken: Vec<bool>,
    hands: Vec<f64>,
    /// When each oven is free, and its heat.
    ovens: Vec<(f64, Option<f64>)>,
    /// When each tray is free; endless while that is not known.
    trays: Vec<f64>,
    /// The tray that a lot's tray lies on.
    on: Vec<(usize, Option<u32>, usize)>,
    /// Places in the cold and to cool.
    room: Room,
}

fn size(n: u32) -> usize {
    usize::try_from(n).unwrap_or(1).max(1)
}

/// The one that is free first.
fn soonest(free: &[f64]) -> usize {
    (0..free.len()).min_by(|a, b| free[*a].total_cmp(&free[*b])).unwrap_or(0)
}

impl<'a> Ahead<'a> {
    fn new(plan: &'a RunPlan, facts: &'a [Fact], at: Moment, hands: u32) -> Self {
        let now = at.now_min;
        // Each pair of hands is free since its last work was done.
        let mut free: Vec<f64> = (plan.tasks.iter().zip(facts))
            .filter(|(t, _)| t.step.by_hand())
            .filter_map(|(_, f)| f.done.map(|done| done.max(at.began_min)))
            .collect();
        free.sort_by(|a, b| b.total_cmp(a));
        free.resize(size(hands), at.began_min);
        free.iter_mut().for_each(|f| *f = f.min(now));
        let mut found = Self {
            plan,
            facts,
            now,
            at: vec![None; plan.tasks.len()],
            taken: vec![false; plan.tasks.len()],
            hands: free,
            ovens: vec![(f64::MIN, None); size(plan.kitchen.ovens)],
            trays: vec![f64::MIN; size(plan.kitchen.trays)],
            on: vec![],
            room: Room::new(plan),
        };
        let mut order: Vec<usize> = (0..plan.tasks.len()).filter(|t| facts[*t].started.is_some()).collect();
        order.sort_by(|a, b| facts[*a].started.unwrap_or(0.0).total_cmp(&facts[*b].started.unwrap_or(0.0)));
        for task in order {
            let fact = &facts[task];
            let Some(start) = fact.started else { continue };
            let end = fact.done.unwrap_or_else(|| (start + least_of(plan, facts, task)).max(now));
            found.put(task, Lies { start, end });
        }
        found
    }

    fn put(&mut self, task: usize, at: Lies) {
        self.at[task] = Some(at);
        let t = &self.plan.tasks[task];
        let known = self.facts[task].done.is_some();
        if t.step.by_hand() && !known {
            let free = soonest(&self.hands);
            self.hands[free] = at.end;
        }
        match t.step {
            Step::Bake if at.end > self.ovens[self.oven_of(t)].0 => {
                let oven = self.oven_of(t);
                self.ovens[oven] = (at.end, Some(self.plan.lots[t.lot].oven_c));
            }
            Step::Cut => {
                let tray = soonest(&self.trays);
                self.trays[tray] = f64::INFINITY;
                self.on.push((t.lot, t.tray, tray));
            }
            _ => {}
        }
        // A tray is free when it has cooled, and one that was dropped when it was.
        if (t.step == Step::Cool || self.facts[task].gone)
            && let Some((_, _, tray)) = self.on.iter().find(|(lot, on, _)| *lot == t.lot && *on == t.tray)
        {
            self.trays[*tray] = at.end;
        }
        self.room.put(self.plan, self.facts, task, at.end);
        if known || self.facts[task].gone || t.step == Step::Cool {
            self.room.leaves(task, at.end);
        }
        // What lies in the cold does so until it is first taken.
        for &before in &t.after {
            let open = self.plan.tasks[before].waits() && self.facts[before].done.is_none();
            if open && !self.taken[before] {
                self.taken[before] = true;
                if let Some(lies) = &mut self.at[before] {
                    lies.end = at.start.max(lies.start);
                    self.room.leaves(before, lies.end);
                }
            }
        }
    }

    fn oven_of(&self, task: &RunTask) -> usize {
        usize::try_from(task.oven.unwrap_or(0)).unwrap_or(0).min(self.ovens.len() - 1)
    }

    /// When what comes before a step lets it begin; nothing while that is not known.
    fn may_begin(&self, task: usize) -> Option<f64> {
        let mut from = f64::MIN;
        for before in &self.plan.tasks[task].after {
            if self.facts[*before].gone {
                continue;
            }
            let lies = self.at[*before]?;
            let done = match self.facts[*before].done {
                Some(done) => done,
                // In the cold at least so long; when it is taken is not its own doing.
                None if self.plan.tasks[*before].waits() => lies.start + least_of(self.plan, self.facts, *before),
                None => lies.end,
            };
            from = from.max(done);
        }
        Some(from)
    }

    fn start_of(&self, task: usize) -> Option<f64> {
        let t = &self.plan.tasks[task];
        let from = self.may_begin(task)?;
        if t.begins_by_itself() {
            return Some(from);
        }
        let mut start = from.max(t.start_min).max(self.facts[task].not_before);
        start = start.max(if t.step.by_hand() { self.hands[soonest(&self.hands)] } else { self.now });
        match t.step {
            Step::Bake => return self.load_start(task, start),
            Step::Cut => start = start.max(self.trays[soonest(&self.trays)]),
            _ => {}
        }
        Some(start.max(self.room.lets_begin(self.plan, self.facts, &[task])))
    }

    /// When a load can go in of which one tray could at `start`.
    fn load_start(&self, task: usize, mut start: f64) -> Option<f64> {
        let t = &self.plan.tasks[task];
        let others: Vec<usize> =
            self.plan.load_of(task).into_iter().filter(|o| *o != task && !self.facts[*o].gone).collect();
        let mut open: Vec<usize> = others.iter().copied().filter(|o| self.at[*o].is_none()).collect();
        for other in &open {
            start = start.max(self.may_begin(*other)?);
        }
        open.push(task);
        start = start.max(self.room.lets_begin(self.plan, self.facts, &open));
        let (free, heat) = self.ovens[self.oven_of(t)];
        let other_heat = heat.is_some_and(|c| (c - self.plan.lots[t.lot].oven_c).abs() > SAME_HEAT_K);
        let settles = if other_heat { f64::from(self.plan.kitchen.temp_change_min) } else { 0.0 };
        // The rest of a load goes in with it.
        let in_it = others.into_iter().filter(|o| self.facts[*o].done.is_none()).find_map(|o| self.at[o]);
        Some(in_it.map(|lies| lies.start).filter(|load| *load >= start).unwrap_or_else(|| start.max(free + settles)))
    }

    fn all(mut self) -> Vec<Option<Lies>> {
        loop {
            let open = (0..self.at.len()).filter(|t| self.at[*t].is_none() && !self.facts[*t].gone);
            let next = open
                .filter_map(|t| Some((self.start_of(t)?, t)))
                .min_by(|a, b| a.0.total_cmp(&b.0).then(a.1.cmp(&b.1)));
            let Some((start, task)) = next else { return self.at };
            // Trays that never come back hold nothing up for ever.
            let start = if start.is_finite() { start } else { self.now.max(self.plan.tasks[task].start_min) };
            let end = (start + least_of(self.plan, self.facts, task)).max(self.now.max(start));
            self.put(task, Lies { start, end });
        }
    }
}

/// When each lot is ready.
pub(super) fn ready(plan: &RunPlan, at: &[Option<Lies>]) -> Vec<Option<f64>> {
    (0..plan.lots.len())
        .map(|lot| {
            let own = plan.tasks.iter().zip(at).filter(|(t, _)| t.lot == lot && t.step != Step::Preheat);
            let counts = own.filter(|(t, _)| !plan.lots[lot].warm || t.step == Step::Bake);
            counts.filter_map(|(_, lies)| lies.map(|l| l.end)).max_by(f64::total_cmp)
        })
        .collect()
}

/// By how much the latest of all lots is late; not positive while all is in time.
pub(super) fn lateness(plan: &RunPlan, at: &[Option<Lies>]) -> f64 {
    let late = ready(plan, at).into_iter().zip(&plan.lots).filter_map(|(ready, lot)| Some(ready? - lot.wanted_min));
    late.max_by(f64::total_cmp).unwrap_or(0.0)
}

/// What would help a run that is late.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum CatchUp {
    /// A cut tray, or dough, chills in the other cold place.
    Elsewhere {
        /// Its stay in the cold.
        task: usize,
        /// Where.
        place: DayPlace,
    },
    /// Another pair of hands.
    MoreHands,
}

/// Something that would help, and how much.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Saves {
    /// What.
    pub what: CatchUp,
    /// Minutes of lateness saved.
    pub min: f64,
}

/// What would help most; nothing where the run is in time or nothing helps by a minute.
pub(super) fn catch_up(plan: &RunPlan, facts: &[Fact], now: Moment, late: f64) -> Option<Saves> {
    if late < 1.0 {
        return None;
    }
    let mut found: Vec<Saves> = vec![];
    let saves = |facts: &[Fact], hands: u32| {
        let late_then = lateness(plan, &ahead(plan, facts, now, hands)).max(0.0);
        late - late_then
    };
    for (task, t) in plan.tasks.iter().enumerate() {
        if facts[task].done.is_some() || facts[task].gone || facts[task].place.is_some() {
            continue;
        }
        let Some(other) = plan.lots[t.lot].elsewhere(t.step).filter(|e| e.least_min < t.least_min) else { continue };
        let mut then = facts.to_vec();
        then[task].move_to(other.place, now.now_min);
        let what = CatchUp::Elsewhere { task, place: other.place };
        found.push(Saves { what, min: saves(&then, plan.kitchen.hands) });
    }
    found.push(Saves { what: CatchUp::MoreHands, min: saves(facts, plan.kitchen.hands + 1) });
    found.into_iter().filter(|s| s.min >= 1.0).max_by(|a, b| a.min.total_cmp(&b.min))
}
