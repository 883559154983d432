//! Pieces in the cold with a thermometer in them: what it tells goes before what the plan thought.

use super::fact::{Fact, Read};
use super::plan::RunPlan;
use crate::clock::Step;

/// A piece that is followed in the cold.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Followed {
    /// Its job.
    pub job_id: i64,
    /// Cut pieces on their tray, not dough.
    pub cut: bool,
    /// When it went in, minutes of the run.
    pub put_in_min: f64,
    /// When it is ready by its readings, minutes of the run; nothing where it is not going to be.
    pub ready_min: Option<f64>,
    /// Its mean, degC.
    pub shows_c: f64,
}

/// A thermometer is taken to be in what went in within so long of it, min. Our own choice.
const SAME_MIN: f64 = 30.0;

/// Notes what thermometers tell of what lies in the cold.
pub(super) fn follow(plan: &RunPlan, facts: &mut [Fact], followed: &[Followed]) {
    for piece in followed {
        let step = if piece.cut { Step::TrayChill } else { Step::Chill };
        let apart = |task: usize| facts[task].started.map(|from| (from - piece.put_in_min).abs());
        let found = (0..plan.tasks.len())
            .filter(|t| plan.tasks[*t].step == step && plan.lots[plan.tasks[*t].lot].job_id == piece.job_id)
            .filter(|t| facts[*t].done.is_none() && !facts[*t].gone)
            .filter_map(|t| Some((apart(t)?, t)))
            .filter(|(apart, _)| *apart <= SAME_MIN)
            .min_by(|a, b| a.0.total_cmp(&b.0));
        let Some((_, task)) = found else { continue };
        let lot = &plan.lots[plan.tasks[task].lot];
        let at_least = if piece.cut { lot.tray_waits_min } else { lot.dough_waits_min };
        let until_min = at_least.zip(piece.ready_min).zip(facts[task].started);
        let until_min = until_min.map(|((least, ready), from)| ready.max(from + least));
        facts[task].read = Some(Read { shows_c: piece.shows_c, until_min });
    }
}
