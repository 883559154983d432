//! The dough station on the wire.

use crate::wire::PartView;
use crate::wire::{SentenceView, say, say_all, view};
use ready_slab_core::dough::{Composition, MixMethod, Weighed};
use ready_slab_core::job::{Job, Plan};
use ready_slab_core::units::BakersPercent;
use ready_slab_words::{Say, System, standing};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

view! {
    /// A weight and its baker's percentage.
    pub struct WeightView(w: &Weighed, bakers: BakersPercent) {
        /// Key.
        ingredient: String = w.ingredient.key.to_string(),
        /// Name.
        name: String = w.ingredient.name.to_string(),
        /// For one mix, the part kept aside included.
        mass_g: f64 = w.mass.g(),
        /// Of it, kept aside to be added by feel.
        held_back_g: f64 = w.held_back.g(),
        /// Spoons that come near it.
        measure: Option<String> = w.measure.map(|m| m.say().text(System::Metric)),
        /// Cups, spoons, sticks or eggs that come near it.
        beside: Option<String> = w.beside.map(|b| b.say().text(System::Metric)),
        /// Why the scale may not read it.
        warning: Option<SentenceView> = w.warning.as_ref().map(say),
        /// What is done to it first.
        note: String = w.note.clone(),
        /// Over the flour.
        bakers_percent: f64 = bakers.percent(),
    }
}

view! {
    /// Mass fractions.
    pub struct MakeUpView(c: &Composition) {
        let sugars = c.sugars().unwrap_or(0.0);

        /// Of the dough.
        water: f64 = c.water(),
        /// Of the dough.
        fat: f64 = c.fat(),
        /// Of the dough.
        sugars: f64 = sugars,
        /// Carbohydrate that is neither sugar nor fibre.
        starch: f64 = c.carbohydrate() - sugars,
        /// Of the dough.
        protein: f64 = c.protein(),
        /// Fibre and ash.
        rest: f64 = 1.0 - c.water() - c.fat() - c.carbohydrate() - c.protein(),
    }
}

view! {
    /// The dough station.
    pub struct DoughView(plan: &Plan, job: &Job) {
        let d = &plan.dough;

        /// To mix in all: reserve, freezer and other jobs included.
        dough_g: f64 = d.dough.g(),
        /// What of it is for what.
        parts: Vec<PartView> = d.parts.iter().map(Into::into).collect(),
        /// Most dough in one mix, by motor and bowl.
        mix_limit_g: f64 = d.mix_limit.g(),
        /// One piece as cut.
        piece_g: f64 = d.piece.g(),
        /// With its air.
        density_kg_m3: f64 = d.density.kg_m3(),
        /// How many equal mixes.
        mixes: u32 = d.mixes.count,
        /// Dough in each.
        mix_g: f64 = d.mixes.each.g(),
        /// To weigh for one mix.
        weights: Vec<WeightView> = d.mixes.weights.iter().zip(&d.bakers).map(|(w, b)| WeightView::new(w, b.percent)).collect(),
        /// Sugar over fat.
        ratio_sugar: f64 = d.ratio.sugar,
        /// Flour over fat.
        ratio_flour: f64 = d.ratio.flour,
        /// The school, in words.
        school: String = standing(d.standing).to_owned(),
        /// Out of the mixer.
        dough_c: f64 = d.temperature.c(),
        /// Measured rather than computed.
        dough_measured: bool = d.temperature_measured,
        /// How it is mixed.
        method: MixMethod = job.input().dough.method,
        /// What the fats should be when they go in.
        butter_c: f64 = job.input().dough.method.butter().c(),
        /// What it is made of.
        make_up: MakeUpView = (&d.composition).into(),
        /// To name on a label; local rules decide.
        allergens: Vec<String> = d.allergens.clone(),
        /// What to mind.
        warnings: Vec<SentenceView> = say_all(&d.warnings),
        /// Why.
        reasons: Vec<SentenceView> = say_all(&d.reasons),
    }
}
