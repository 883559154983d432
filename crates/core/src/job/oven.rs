//! The oven station's answer: what is expected of a job's bake, how far its piece grows, and what to do at the oven.

use super::bake::{Cooling, cooling, expect_bake, is_cocoa};
use super::{BakeQuestion, Job, Kitchen, Making, OvenPlan};
use crate::dough::Formula;
use crate::error::InputErrors;
use crate::geometry::Outline;
use crate::oven::{BakeEnd, BakeKnowledge, BakeSetting, HotSpots};
use crate::shape::Portion;
use crate::units::Share;

pub(super) fn oven_plan(
    job: &Job,
    formula: &Formula,
    outline: &Outline,
    kitchen: &Kitchen,
    question: &BakeQuestion,
    learnt: Option<&BakeKnowledge>,
) -> Result<OvenPlan, InputErrors> {
    let setting = BakeSetting::new(job.input().oven_c, kitchen.ovens().fan)?;
    let (w, h) = outline.extent();
    let (mut expected, forecast) = expect_bake(job, formula, kitchen, question, learnt)?;
    // Spread is that of a round; it happens at the rim, so any outline grows like the disc that stands for it.
    let in_pan = matches!(job.input().making, Making::Portioned(Portion::TrayBar { .. }));
    if in_pan {
        // The walls of the pan hold it.
        expected.spread = (Share::new(0.0), Share::new(0.0));
    }
    let growth = (outline.rim_radius() * expected.spread.0.value(), outline.rim_radius() * expected.spread.1.value());
    let hides_colour = is_cocoa(formula);
    let cooling = match &forecast {
        Some(f) => cooling(question, f.bake)?,
        None => Cooling::usual(&expected),
    };
    expected.cool_on_tray = cooling.on_tray();
    let width = if w > h { w } else { h };
    expected.reasons.push(if in_pan {
        "It fills its pan, whose walls hold it: it rises and does not spread sideways.".to_owned()
    } else {
        format!(
            "Spread is that of a round. Growth happens at the rim: {:.1} to {:.1} mm all round this piece.",
            growth.0.mm(),
            growth.1.mm()
        )
    });
    Ok(OvenPlan {
        baked_holes: outline.holes_after_spread(growth.1),
        look_for: if hides_colour { BakeEnd::Dull } else { question.end }.look_for(forecast.as_ref()),
        hides_colour,
        cooling,
        turn: turn_words(kitchen),
        comes_back: kitchen.door().1 * 2.0,
        cover_pot: kitchen.cover_pot(),
        oven: setting.oven(),
        question: question.clone(),
        expected,
        forecast,
        width,
        thickness: question.piece.thickness,
        growth,
        baked_outline: outline.spread_by(growth.1),
    })
}

/// What to turn or swap half way, as sentences; nothing in an oven that is even, or that nobody has tried.
fn turn_words(kitchen: &Kitchen) -> Option<String> {
    let side = kitchen.hot_spots().and_then(HotSpots::advice);
    // Common practice, no source.
    let shelves = (kitchen.ovens().racks > 1).then(|| "Trays on several shelves swap theirs half way.".to_owned());
    let all: Vec<String> = side.into_iter().chain(shelves).collect();
    (!all.is_empty()).then(|| all.join(" "))
}
