//! A tray's bake asked anew: the model's answer for the temperature that its pieces really went in at.

use super::fact::Fact;
use super::plan::RunPlan;
use crate::clock::Step;

/// How a tray went in, beside how it was to.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct WentIn {
    /// The pieces as they went in, degC.
    pub start_c: f64,
    /// As the plan has them, degC.
    pub planned_c: f64,
    /// Longer in the oven than planned, min; negative where it is sooner done.
    pub longer_min: f64,
    /// Growth across, of the width as cut.
    pub spread: f64,
    /// As planned.
    pub planned_spread: f64,
}

/// The pieces of a tray at a minute before its bake, by the model and by where they lay until then, degC. `of` is any step of the tray.
pub(super) fn went_in_c(plan: &RunPlan, facts: &[Fact], of: usize, from: f64) -> Option<f64> {
    let t = &plan.tasks[of];
    let lot = &plan.lots[t.lot];
    let on = |step: Step| plan.tasks.iter().position(|o| o.step == step && o.lot == t.lot && o.tray == t.tray);
    match on(Step::TrayChill) {
        Some(chill) => {
            let (fact, lay) = (&facts[chill], from - facts[chill].started?);
            match lot.tray_elsewhere.as_ref().filter(|e| fact.place == Some(e.place)) {
                Some(other) => lot.tray_cold.moved(fact.moved_after, &other.run, lay),
                None => lot.tray_cold.at(lay),
            }
        }
        None => lot.tray_counter.at(from - facts[on(Step::Cut)?].done?),
    }
}

/// How a bake that began at a minute went in; nothing where nothing is forecast.
pub(super) fn went_in(plan: &RunPlan, facts: &[Fact], bake: usize, from: f64) -> Option<WentIn> {
    let lot = &plan.lots[plan.tasks[bake].lot];
    let start_c = went_in_c(plan, facts, bake, from)?;
    let (planned, now) = (lot.bake_at(lot.goes_in_c?)?, lot.bake_at(start_c)?);
    Some(WentIn {
        start_c,
        planned_c: planned.start_c,
        longer_min: now.bake_min - planned.bake_min,
        spread: now.spread,
        planned_spread: planned.spread,
    })
}
