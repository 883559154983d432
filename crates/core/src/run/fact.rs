//! What is known of one step.

use super::plan::RunPlan;
use crate::clock::DayPlace;

/// What a thermometer tells of something in the cold.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Read {
    pub(super) shows_c: f64,
    /// It stays until then, minutes of the run; nothing where that is not by how it feels.
    pub(super) until_min: Option<f64>,
}

/// What is known of one step.
#[derive(Debug, Clone, Default, PartialEq)]
pub(super) struct Fact {
    pub(super) started: Option<f64>,
    pub(super) done: Option<f64>,
    /// Takes so much longer.
    pub(super) more_min: f64,
    /// Can not begin before.
    pub(super) not_before: f64,
    /// Chills elsewhere than planned.
    pub(super) place: Option<DayPlace>,
    /// It lay so long where it was to before that, min.
    pub(super) moved_after: f64,
    /// Nothing more is done of it.
    pub(super) gone: bool,
    /// What went in at another temperature than planned is ready so much sooner.
    pub(super) ahead_min: f64,
    /// A thermometer in it tells this.
    pub(super) read: Option<Read>,
    /// As the dough was measured when it went in, degC.
    pub(super) start_c: Option<f64>,
    pub(super) pieces: Option<u32>,
}

impl Fact {
    /// It goes elsewhere at a minute: what lies there already stays.
    pub(super) fn move_to(&mut self, place: DayPlace, at: f64) {
        if self.place != Some(place) {
            self.place = Some(place);
            self.moved_after = self.started.map_or(0.0, |from| (at - from).max(0.0));
        }
    }
}

/// How long a step takes at least, as it is known now.
pub(super) fn least_of(plan: &RunPlan, facts: &[Fact], task: usize) -> f64 {
    let (t, fact) = (&plan.tasks[task], &facts[task]);
    if let (Some(from), Some(until)) = (fact.started, fact.read.and_then(|r| r.until_min)) {
        return (until - from).max(0.0) + fact.more_min;
    }
    let elsewhere = plan.lots[t.lot].elsewhere(t.step).filter(|e| fact.place == Some(e.place));
    let least = match elsewhere {
        // The share of its chill that is done is done there too.
        Some(e) if t.least_min > 0.0 => {
            let done = (fact.moved_after / t.least_min).min(1.0);
            fact.moved_after.min(t.least_min) + (1.0 - done) * e.least_min
        }
        _ => t.least_min,
    };
    (least - fact.ahead_min).max(0.0) + fact.more_min
}
