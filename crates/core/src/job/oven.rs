//! The oven station's answer: what is expected of a job's bake, how far its piece grows, and what to do at the oven.

use super::bake::{expect_bake, is_cocoa};
use super::{BakeQuestion, Job, Kitchen, OvenPlan};
use crate::dough::Formula;
use crate::error::InputErrors;
use crate::geometry::Outline;
use crate::oven::{BakeEnd, BakeKnowledge, BakeSetting, HotSpots};

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
    let growth = (outline.rim_radius() * expected.spread.0.value(), outline.rim_radius() * expected.spread.1.value());
    let width = if w > h { w } else { h };
    expected.reasons.push(format!(
        "Spread is that of a round. Growth happens at the rim: {:.1} to {:.1} mm all round this piece.",
        growth.0.mm(),
        growth.1.mm()
    ));
    Ok(OvenPlan {
        baked_holes: outline.holes_after_spread(growth.1),
        look_for: if is_cocoa(formula) { BakeEnd::Dull } else { question.end }.look_for(),
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
