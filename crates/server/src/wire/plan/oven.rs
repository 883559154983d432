//! The oven station on the wire.

use crate::wire::{BakeView, SentenceView, ring, say, say_all, view};
use ready_slab_core::job::Plan;
use ready_slab_core::shape::ONE_CLASS;
use ready_slab_words::turn;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

view! {
    /// The oven station.
    pub struct OvenView(plan: &Plan) {
        let o = &plan.oven;
        let p = &o.expected;
        let (bake, look_after) = p.told();

        /// Set to.
        oven_c: f64 = o.oven.c(),
        /// The one figure: what the forecast, common practice and the kitchen's own bakes come to.
        bake_about_min: f64 = p.about().min(),
        /// Least time.
        bake_least_min: f64 = bake.0.min(),
        /// Most time.
        bake_most_min: f64 = bake.1.min(),
        /// What common practice states, least.
        practice_bake_least_min: f64 = p.practice.bake.0.min(),
        /// And most.
        practice_bake_most_min: f64 = p.practice.bake.1.min(),
        /// What to look for, as a sentence.
        look_for: SentenceView = say(&o.look_for),
        /// Look first.
        look_after_min: f64 = look_after.min(),
        /// Lots whose times are within so much of each other may share a tray.
        one_class_percent: f64 = 100.0 * ONE_CLASS.value(),
        /// Least growth across the longer side.
        spread_least_percent: f64 = 100.0 * o.spread_across().0.value(),
        /// Most growth across the longer side.
        spread_most_percent: f64 = 100.0 * o.spread_across().1.value(),
        /// Least spread of a round of this dough.
        round_spread_least_percent: f64 = 100.0 * p.spread.0.value(),
        /// Most spread of a round of this dough.
        round_spread_most_percent: f64 = 100.0 * p.spread.1.value(),
        /// What common practice states of a round, least.
        practice_spread_least_percent: f64 = 100.0 * p.practice.spread.0.value(),
        /// And most.
        practice_spread_most_percent: f64 = 100.0 * p.practice.spread.1.value(),
        /// Least growth at the rim.
        growth_least_mm: f64 = o.growth.0.mm(),
        /// Most growth at the rim.
        growth_most_mm: f64 = o.growth.1.mm(),
        /// The outline after the most growth, about the cutter's centre.
        baked_outline_mm: Vec<[f64; 2]> = ring(&o.baked_outline),
        /// What is left of its holes then.
        baked_holes_mm: Vec<Vec<[f64; 2]>> = o.baked_holes.iter().map(|hole| ring(hole)).collect(),
        /// Longer side as cut.
        cut_width_mm: f64 = o.width.mm(),
        /// Its height as it goes in.
        thickness_mm: f64 = o.thickness.mm(),
        /// With the least spread.
        baked_width_least_mm: f64 = o.baked_width().0.mm(),
        /// With the most spread.
        baked_width_most_mm: f64 = o.baked_width().1.mm(),
        /// On the tray before the rack.
        cool_on_tray_min: f64 = o.cooling.on_tray().min(),
        /// From the oven until it can be packed, iced or filled.
        packs_after_min: f64 = (o.cooling.on_tray() + o.cooling.on_rack()).min(),
        /// What these figures are: `forecast` or `common practice`.
        basis: String = if o.forecast.is_some() { "forecast" } else { "usual" }.to_owned(),
        /// The forecast; null beyond what the model knows.
        forecast: Option<BakeView> = o.forecast.as_ref().map(|f| BakeView::new(f, o)),
        /// Which side of the oven is hotter and what helps; null where it is even, or nobody has tried.
        turn: Option<SentenceView> = turn(&o.turn).map(Into::into),
        /// Until all but a seventh of what the door cost is back.
        comes_back_min: f64 = o.comes_back.min(),
        /// Whether a covered pot stands in for the oven.
        cover_pot: bool = o.cover_pot,
        /// Why.
        reasons: Vec<SentenceView> = say_all(&o.reasons),
        /// What the recipe says of its bake, beside ours; null where it says nothing.
        recipe: Option<SentenceView> = o.recipe.as_ref().map(say),
        /// What to mind.
        warnings: Vec<SentenceView> = say_all(&o.warnings),
    }
}
