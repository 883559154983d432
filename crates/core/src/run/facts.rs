//! What has happened to each step.

use super::baking::went_in;
use super::event::{Happened, RunEvent};
use super::fact::{Fact, least_of};
use super::plan::RunPlan;
use crate::clock::Step;

/// The facts of a run up to `now`; what is noted for later has not happened yet.
pub(super) fn facts(plan: &RunPlan, events: &[RunEvent], now: f64) -> Vec<Fact> {
    let mut all = Facts { plan, facts: vec![Fact::default(); plan.tasks.len()] };
    for event in events.iter().filter(|e| e.at_min <= now) {
        all.end_what_ends(event.at_min);
        all.happened(&event.what, event.at_min);
    }
    all.end_what_ends(now);
    all.facts
}

struct Facts<'a> {
    plan: &'a RunPlan,
    facts: Vec<Fact>,
}

impl Facts<'_> {
    fn least(&self, task: usize) -> f64 {
        least_of(self.plan, &self.facts, task)
    }

    fn happened(&mut self, what: &Happened, at: f64) {
        // A file may name what the plan does not hold.
        if what.task().is_some_and(|task| task >= self.facts.len()) {
            return;
        }
        match *what {
            Happened::Started { task } => self.start(task, at),
            Happened::Done { task } => self.end(task, at),
            Happened::MoreTime { task, min } => self.facts[task].more_min += min.max(0.0),
            // Only what is worked gets too soft for it.
            Happened::TooSoft { task, .. } if !self.plan.tasks[task].step.by_hand() => {}
            Happened::TooSoft { task, min } => {
                let soft = &self.plan.tasks[task];
                let whole = self.plan.lots[soft.lot].one_piece;
                for (i, (other, fact)) in self.plan.tasks.iter().zip(&mut self.facts).enumerate() {
                    let of_it = whole && other.step == soft.step && other.lot == soft.lot && other.after == soft.after;
                    if (i == task || of_it) && fact.done.is_none() {
                        fact.not_before = fact.not_before.max(at + min.max(0.0));
                        fact.started = None;
                    }
                }
            }
            Happened::Elsewhere { task, place } => {
                let fact = &mut self.facts[task];
                fact.move_to(place, at);
            }
            Happened::Dropped { task } => {
                let (lot, tray) = (self.plan.tasks[task].lot, self.plan.tasks[task].tray);
                for (other, fact) in self.plan.tasks.iter().zip(&mut self.facts) {
                    if tray.is_some() && other.lot == lot && other.tray == tray && fact.done.is_none() {
                        fact.gone = true;
                        fact.done = fact.started.map(|from| at.max(from));
                    }
                }
            }
            Happened::PowerWent { min } => {
                for (task, fact) in self.plan.tasks.iter().zip(&mut self.facts) {
                    if task.step == Step::Bake && fact.started.is_some() && fact.done.is_none() {
                        fact.more_min += min.max(0.0);
                    }
                }
            }
            Happened::Measured { task, c } => {
                let t = &self.plan.tasks[task];
                if t.step == Step::Chill {
                    self.facts[task].ahead_min = self.plan.lots[t.lot].ahead_by(c);
                    self.facts[task].start_c = Some(c);
                }
            }
            Happened::Counted { task, pieces } => self.facts[task].pieces = Some(pieces),
            Happened::TakenBack { .. } | Happened::Moved { .. } => {}
        }
    }

    /// What has to be done before a step was begun at a moment, whether or not somebody pressed for it; when it could be begun then, which is later
    /// where something before it was begun later.
    fn before(&mut self, task: usize, at: f64) -> f64 {
        let mut from = at;
        for before in self.plan.tasks[task].after.clone() {
            if !self.facts[before].gone {
                self.end(before, at);
            }
            from = from.max(self.facts[before].done.unwrap_or(at));
        }
        from
    }

    fn start(&mut self, task: usize, at: f64) {
        if self.facts[task].started.is_none() && !self.facts[task].gone {
            let from = self.before(task, at);
            self.begin(task, from);
        }
    }

    fn begin(&mut self, task: usize, at: f64) {
        self.facts[task].started = Some(at);
        if self.plan.tasks[task].step == Step::Bake
            && let Some(how) = went_in(self.plan, &self.facts, task, at)
        {
            self.facts[task].ahead_min = -how.longer_min;
        }
    }

    fn end(&mut self, task: usize, at: f64) {
        if self.facts[task].done.is_some() || self.facts[task].gone {
            return;
        }
        let begun = self.facts[task].started.unwrap_or_else(|| {
            let t = &self.plan.tasks[task];
            let long = if t.step.by_hand() || t.step == Step::Bake { t.least_min } else { 0.0 };
            // Not before what was done before it.
            let known = t.after.iter().filter_map(|b| self.facts[*b].done).fold(f64::MIN, f64::max);
            let begun = (at - long).max(known).min(at);
            self.before(task, begun)
        });
        let at = at.max(begun);
        if self.facts[task].started.is_none() {
            self.begin(task, begun);
        }
        self.facts[task].done = Some(at);
        for next in 0..self.plan.tasks.len() {
            let t = &self.plan.tasks[next];
            let fact = &self.facts[next];
            if t.begins_by_itself()
                && t.after.contains(&task)
                && fact.started.is_none()
                && !fact.gone
                && t.after.iter().all(|b| self.facts[*b].done.is_some() || self.facts[*b].gone)
            {
                self.facts[next].started = Some(at);
            }
        }
    }

    /// What ends by itself has ended by a moment.
    fn end_what_ends(&mut self, now: f64) {
        loop {
            let over = (0..self.facts.len()).find_map(|task| {
                let fact = &self.facts[task];
                let ends = fact.started? + self.least(task);
                let by_itself = self.plan.tasks[task].ends_by_itself() && fact.done.is_none() && !fact.gone;
                (by_itself && ends <= now).then_some((task, ends))
            });
            match over {
                Some((task, ends)) => self.end(task, ends),
                None => return,
            }
        }
    }
}
