//! What the last press changed of the plan, and what holds a run up.

use super::ahead::{Lies, Moment, ahead, ready};
use super::event::{RunEvent, effective};
use super::fact::{Fact, least_of};
use super::facts::facts;
use super::plan::RunPlan;

/// Something that is to be at another time than before.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Shift {
    /// Of which: a lot, or a step.
    pub of: usize,
    /// Minutes of the run.
    pub from_min: f64,
    /// Minutes of the run.
    pub to_min: f64,
}

/// What the last press changed.
#[derive(Debug, Clone, PartialEq)]
pub struct Changed {
    /// The press.
    pub event: i64,
    /// The lots that are ready at another time for it.
    pub lots: Vec<Shift>,
    /// The work for the hands that moved, the next first.
    pub work: Vec<Shift>,
}

/// What holds a run up most.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct HeldUp {
    /// The step.
    pub task: usize,
    /// By so much of its own, min.
    pub min: f64,
}

/// Less than this is no change to speak of, min.
const CHANGE_MIN: f64 = 1.0;
/// Steps that are told as moved.
const MOST_TOLD: usize = 2;
/// A step that is later by less of its own holds nothing up, min. Our own choice.
const HOLDS_UP_MIN: f64 = 2.0;

/// What the last press changed: the plan as it stands with it, beside the plan as it stood at the press before, or when work began. Nothing where it
/// changed nothing.
pub(super) fn changed(plan: &RunPlan, events: &[RunEvent], began_min: f64) -> Option<Changed> {
    let mut sorted: Vec<RunEvent> = events.to_vec();
    sorted.sort_by_key(|e| e.id);
    let last = sorted.last()?.clone();
    // One press may note several things: a load of two trays.
    let of_it = |e: &RunEvent| (e.at_min - last.at_min).abs() < 1e-6 && e.what.alike(&last.what);
    let without = &sorted[..sorted.len() - sorted.iter().rev().take_while(|e| of_it(e)).count()];
    let at = |events: &[RunEvent], now_min: f64| {
        let moment = Moment { began_min, now_min };
        let facts = facts(plan, &effective(events), now_min);
        let at = ahead(plan, &facts, moment, plan.kitchen.hands);
        (facts, at)
    };
    let press_before = without.iter().map(|e| e.at_min).filter(|at| *at <= last.at_min).fold(began_min, f64::max);
    let ((facts_before, before), (facts_after, after)) = (at(without, press_before), at(&sorted, last.at_min));
    let ready_before = ready(plan, &before);
    let lots = ready_before.into_iter().zip(ready(plan, &after)).enumerate();
    let lots: Vec<Shift> = lots.filter_map(|(of, (from, to))| shift(of, from?, to?)).collect();
    let open = |f: &Fact| f.started.is_none() && !f.gone;
    let mut work: Vec<Shift> = (0..plan.tasks.len())
        .filter(|t| plan.tasks[*t].step.by_hand() && open(&facts_before[*t]) && open(&facts_after[*t]))
        .filter_map(|t| shift(t, before[t]?.start, after[t]?.start))
        .collect();
    work.sort_by(|a, b| a.to_min.total_cmp(&b.to_min).then(a.of.cmp(&b.of)));
    work.truncate(MOST_TOLD);
    (!lots.is_empty() || !work.is_empty()).then_some(Changed { event: last.id, lots, work })
}

fn shift(of: usize, from_min: f64, to_min: f64) -> Option<Shift> {
    ((from_min - to_min).abs() >= CHANGE_MIN).then_some(Shift { of, from_min, to_min })
}

/// The step that lost most time of its own: what only waited for another is not to blame.
pub(super) fn held_up(plan: &RunPlan, facts: &[Fact], at: &[Option<Lies>]) -> Option<HeldUp> {
    let late: Vec<Option<f64>> = (0..plan.tasks.len()).map(|t| later(plan, facts, at, t)).collect();
    let own = |task: usize| {
        let mut of_others = 0f64;
        for before in &plan.tasks[task].after {
            of_others = of_others.max(late[*before].unwrap_or(0.0));
        }
        if plan.tasks[task].step.by_hand() {
            of_others = of_others.max(hands_before(plan, at, &late, task));
        }
        Some(HeldUp { task, min: late[task]? - of_others })
    };
    // Of two the first: the other may come of it.
    let all = (0..plan.tasks.len()).filter_map(own).filter(|h| h.min >= HOLDS_UP_MIN);
    all.reduce(|most, h| if h.min > most.min + 1e-6 { h } else { most })
}

/// By how much a step that was begun ends later than planned; of what lies in the cold, by how much later it is ready.
fn later(plan: &RunPlan, facts: &[Fact], at: &[Option<Lies>], task: usize) -> Option<f64> {
    let (t, lies) = (&plan.tasks[task], at[task]?);
    let started =
        facts[task].started.or_else(|| (t.step.by_hand() && facts[task].not_before > 0.0).then_some(lies.start))?;
    Some(if t.waits() {
        started + least_of(plan, facts, task) - (t.start_min + t.least_min)
    } else {
        lies.end - t.end_min
    })
}

/// By how much the hands were late when they came to a step: the least late pair, as any of them may do it.
fn hands_before(plan: &RunPlan, at: &[Option<Lies>], late: &[Option<f64>], task: usize) -> f64 {
    let Some(lies) = at[task] else { return 0.0 };
    let mut earlier: Vec<(f64, f64)> = (0..plan.tasks.len())
        .filter(|o| *o != task && plan.tasks[*o].step.by_hand())
        .filter_map(|o| Some((at[o].filter(|l| l.end <= lies.start + 1e-6)?.end, late[o]?)))
        .collect();
    earlier.sort_by(|a, b| b.0.total_cmp(&a.0));
    let hands = usize::try_from(plan.kitchen.hands).unwrap_or(1).max(1);
    if earlier.len() < hands {
        return 0.0;
    }
    earlier.iter().take(hands).map(|(_, late)| *late).fold(f64::INFINITY, f64::min)
}
