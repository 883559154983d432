//! Places in the cold and to cool, as they are taken by what goes on.

use super::fact::{Fact, least_of};
use super::plan::{RunPlan, RunTask};
use crate::clock::{DayPlace, Step};

/// Places of one kind: when each is free, endless while that is not known.
struct Kind {
    of: fn(&RunTask, &Fact) -> bool,
    free: Vec<f64>,
    /// Which step has which place.
    taken: Vec<(usize, usize)>,
}

/// A place in the cold: where it is, or where it was moved to.
fn lies_in(task: &RunTask, fact: &Fact, place: DayPlace) -> bool {
    task.waits() && fact.place.or(task.place) == Some(place)
}

/// Fridge, freezer, and where trays cool.
const KINDS: [fn(&RunTask, &Fact) -> bool; 3] =
    [|t, f| lies_in(t, f, DayPlace::Fridge), |t, f| lies_in(t, f, DayPlace::Freezer), |t, _| t.step == Step::Cool];

/// How many lie there at once as planned: a plan is never held up by itself.
fn planned(plan: &RunPlan, of: fn(&RunTask, &Fact) -> bool) -> usize {
    let there: Vec<&RunTask> = plan.tasks.iter().filter(|t| of(t, &Fact::default())).collect();
    let at = |minute: f64| there.iter().filter(|t| t.start_min <= minute && minute < t.end_min).count();
    there.iter().map(|t| at(t.start_min)).max().unwrap_or(0)
}

/// All places.
pub(super) struct Room {
    kinds: Vec<Kind>,
    /// What begins by itself after each step.
    next: Vec<Vec<usize>>,
}

impl Room {
    pub(super) fn new(plan: &RunPlan) -> Self {
        let k = &plan.kitchen;
        let counts = [k.fridge_slots, k.freezer_slots, k.cooling_slots];
        let kind = |(of, count): (fn(&RunTask, &Fact) -> bool, u32)| {
            let places = usize::try_from(count).unwrap_or(usize::MAX).min(plan.tasks.len()).max(planned(plan, of));
            Kind { of, free: vec![f64::MIN; places], taken: vec![] }
        };
        let mut next = vec![vec![]; plan.tasks.len()];
        for (task, t) in plan.tasks.iter().enumerate().filter(|(_, t)| t.begins_by_itself()) {
            t.after.iter().for_each(|before| next[*before].push(task));
        }
        Self { kinds: KINDS.into_iter().zip(counts).map(kind).collect(), next }
    }

    /// What goes by itself from a step to a place of a kind.
    fn follows<'a>(
        &'a self,
        plan: &'a RunPlan,
        facts: &'a [Fact],
        kind: &'a Kind,
        task: usize,
    ) -> impl Iterator<Item = usize> + 'a {
        let there = move |t: &usize| !facts[*t].gone && (kind.of)(&plan.tasks[*t], &facts[*t]);
        self.next[task].iter().copied().filter(there)
    }

    /// When steps can begin together so that there is a place for all that follows them by itself.
    pub(super) fn lets_begin(&self, plan: &RunPlan, facts: &[Fact], tasks: &[usize]) -> f64 {
        let from = self.kinds.iter().filter_map(|kind| {
            let goes = |t: &usize| self.follows(plan, facts, kind, *t).next().is_some();
            let wanted: Vec<usize> = tasks.iter().copied().filter(goes).collect();
            let length = wanted.iter().map(|t| least_of(plan, facts, *t)).min_by(f64::total_cmp)?;
            let mut free = kind.free.clone();
            for (place, free) in free.iter_mut().enumerate() {
                // What they take out themselves leaves its place when they begin.
                let last = kind.taken.iter().rev().find(|(_, p)| *p == place);
                if last.is_some_and(|(held, _)| tasks.iter().any(|t| plan.tasks[*t].after.contains(held))) {
                    *free = f64::MIN;
                }
            }
            free.sort_by(f64::total_cmp);
            // More than there are places for was never planned: somebody moved it there and knows the place.
            Some(free.get(wanted.len() - 1)? - length)
        });
        from.max_by(f64::total_cmp).unwrap_or(f64::MIN)
    }

    /// A step ends then: what follows it by itself has its place from now on.
    pub(super) fn put(&mut self, plan: &RunPlan, facts: &[Fact], task: usize, end: f64) {
        for at in 0..self.kinds.len() {
            let all: Vec<usize> = self.follows(plan, facts, &self.kinds[at], task).collect();
            let kind = &mut self.kinds[at];
            for next in all {
                let soonest = (0..kind.free.len()).min_by(|a, b| kind.free[*a].total_cmp(&kind.free[*b]));
                if let Some(place) = soonest {
                    // How long what is in the cold stays is not its own doing.
                    let cools = plan.tasks[next].step == Step::Cool;
                    kind.free[place] = if cools { end + least_of(plan, facts, next) } else { f64::INFINITY };
                    kind.taken.push((next, place));
                }
            }
        }
    }

    /// A step leaves its place at a minute.
    pub(super) fn leaves(&mut self, task: usize, at: f64) {
        for kind in &mut self.kinds {
            if let Some((_, place)) = kind.taken.iter().find(|(t, _)| *t == task) {
                kind.free[*place] = at;
            }
        }
    }
}
