//! What a recipe says beside our own figures, and why they differ.

use crate::dough::RecipeSays;
use crate::job::answers::ColdPlan;
use crate::job::answers::OvenPlan;
use crate::job::reasons::reason::{Otherwise, Reason};
use crate::job::settings::job::Job;
use crate::units::TemperatureDifference;
use std::cmp::Ordering;

/// Sheets differ from so much on, mm; ovens and their settings, K. Our own choice: less moves a bake by less than half a minute.
const THICKER_MM: f64 = 0.7;
const HOTTER_K: f64 = 4.0;

/// How long the recipe chills beside when the dough is ready; nothing where it says nothing of it or the dough is not chilled until it is.
pub(crate) fn recipe_chills(says: &RecipeSays, cold: &ColdPlan) -> Option<Reason> {
    let says = says.chills()?;
    let ready = cold.answer.told().filter(|_| cold.stays.waits_for_ready() && cold.thaw.is_none())?.ready();
    let rests = cold.flour_rest;
    Some(Reason::RecipeChills { says, ready: if rests > ready { rests } else { ready }, target: cold.target })
}

/// How long the recipe bakes beside the one figure, and why that is another.
pub(crate) fn recipe_bakes(says: &RecipeSays, job: &Job, oven: &OvenPlan) -> Option<Reason> {
    let said = says.bakes()?;
    let about = oven.expected.about();
    let order = if about > said.1 {
        Ordering::Greater
    } else if about < said.0 {
        Ordering::Less
    } else {
        Ordering::Equal
    };
    let mut why = vec![];
    if let Some(thick) = says.thick() {
        let by = oven.thickness.mm() - thick.mm();
        match order {
            Ordering::Greater if by > THICKER_MM => why.push(Otherwise::Thicker),
            Ordering::Less if by < -THICKER_MM => why.push(Otherwise::Thinner),
            _ => {}
        }
    }
    let set = says.set_to().map_or(0.0, |t| job.input().oven.oven_c - t.c());
    let runs = oven.question.fit.offset.k();
    for (k, cooler, hotter) in [
        (set, Otherwise::SetCooler as fn(TemperatureDifference) -> Otherwise, Otherwise::SetHotter as fn(_) -> _),
        (runs, Otherwise::RunsCool, Otherwise::RunsHot),
    ] {
        let by = TemperatureDifference::new_k(k.abs());
        match order {
            Ordering::Greater if k <= -HOTTER_K => why.push(cooler(by)),
            Ordering::Less if k >= HOTTER_K => why.push(hotter(by)),
            _ => {}
        }
    }
    Some(Reason::RecipeBakes { says: said, about, why })
}
