//! The oven station on the wire.

use crate::wire::{BakeView, SentenceView, ring, say, say_all};
use ready_slab_core::job::Plan;
use ready_slab_core::shape::ONE_CLASS;
use ready_slab_words::turn;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The oven station.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct OvenView {
    /// Set to.
    pub oven_c: f64,
    /// Least time.
    pub bake_least_min: f64,
    /// Most time.
    pub bake_most_min: f64,
    /// What common practice states, least.
    pub practice_bake_least_min: f64,
    /// And most.
    pub practice_bake_most_min: f64,
    /// What to look for, as a sentence.
    pub look_for: SentenceView,
    /// Look first.
    pub look_after_min: f64,
    /// Lots whose times are within so much of each other may share a tray.
    pub one_class_percent: f64,
    /// Least growth across the longer side.
    pub spread_least_percent: f64,
    /// Most growth across the longer side.
    pub spread_most_percent: f64,
    /// Least spread of a round of this dough.
    pub round_spread_least_percent: f64,
    /// Most spread of a round of this dough.
    pub round_spread_most_percent: f64,
    /// What common practice states of a round, least.
    pub practice_spread_least_percent: f64,
    /// And most.
    pub practice_spread_most_percent: f64,
    /// Least growth at the rim.
    pub growth_least_mm: f64,
    /// Most growth at the rim.
    pub growth_most_mm: f64,
    /// The outline after the most growth, about the cutter's centre.
    pub baked_outline_mm: Vec<[f64; 2]>,
    /// What is left of its holes then.
    pub baked_holes_mm: Vec<Vec<[f64; 2]>>,
    /// Longer side as cut.
    pub cut_width_mm: f64,
    /// Its height as it goes in.
    pub thickness_mm: f64,
    /// With the least spread.
    pub baked_width_least_mm: f64,
    /// With the most spread.
    pub baked_width_most_mm: f64,
    /// On the tray before the rack.
    pub cool_on_tray_min: f64,
    /// From the oven until it can be packed, iced or filled.
    pub packs_after_min: f64,
    /// What these figures are: `forecast` or `common practice`.
    pub basis: String,
    /// The forecast; null beyond what the model knows.
    pub forecast: Option<BakeView>,
    /// Which side of the oven is hotter and what helps; null where it is even, or nobody has tried.
    pub turn: Option<SentenceView>,
    /// Until all but a seventh of what the door cost is back.
    pub comes_back_min: f64,
    /// Whether a covered pot stands in for the oven.
    pub cover_pot: bool,
    /// Why.
    pub reasons: Vec<SentenceView>,
    /// What to mind.
    pub warnings: Vec<SentenceView>,
}

pub(super) fn oven(plan: &Plan) -> OvenView {
    let o = &plan.oven;
    let p = &o.expected;
    let (bake, look_after) = p.told();
    OvenView {
        oven_c: o.oven.c(),
        bake_least_min: bake.0.min(),
        bake_most_min: bake.1.min(),
        practice_bake_least_min: p.practice.bake.0.min(),
        practice_bake_most_min: p.practice.bake.1.min(),
        look_for: say(&o.look_for),
        look_after_min: look_after.min(),
        one_class_percent: 100.0 * ONE_CLASS.value(),
        spread_least_percent: 100.0 * o.spread_across().0.value(),
        spread_most_percent: 100.0 * o.spread_across().1.value(),
        round_spread_least_percent: 100.0 * p.spread.0.value(),
        round_spread_most_percent: 100.0 * p.spread.1.value(),
        practice_spread_least_percent: 100.0 * p.practice.spread.0.value(),
        practice_spread_most_percent: 100.0 * p.practice.spread.1.value(),
        growth_least_mm: o.growth.0.mm(),
        growth_most_mm: o.growth.1.mm(),
        baked_outline_mm: ring(&o.baked_outline),
        baked_holes_mm: o.baked_holes.iter().map(|hole| ring(hole)).collect(),
        cut_width_mm: o.width.mm(),
        thickness_mm: o.thickness.mm(),
        baked_width_least_mm: o.baked_width().0.mm(),
        baked_width_most_mm: o.baked_width().1.mm(),
        cool_on_tray_min: o.cooling.on_tray().min(),
        packs_after_min: (o.cooling.on_tray() + o.cooling.on_rack()).min(),
        basis: if o.forecast.is_some() { "forecast" } else { "common practice" }.to_owned(),
        forecast: o.forecast.as_ref().map(|f| BakeView::new(f, o)),
        turn: turn(&o.turn).map(Into::into),
        comes_back_min: o.comes_back.min(),
        cover_pot: o.cover_pot,
        reasons: say_all(&o.reasons),
        warnings: say_all(&o.warnings),
    }
}
