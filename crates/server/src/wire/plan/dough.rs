//! The dough station on the wire.

use crate::wire::PartView;
use crate::wire::{SentenceView, say, say_all};
use ready_slab_core::dough::MixMethod;
use ready_slab_core::job::{Job, Plan};
use ready_slab_words::{Say, System, standing};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A weight and its baker's percentage.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct WeightView {
    /// Key.
    pub ingredient: String,
    /// Name.
    pub name: String,
    /// For one mix, the part kept aside included.
    pub mass_g: f64,
    /// Of it, kept aside to be added by feel.
    pub held_back_g: f64,
    /// Spoons that come near it.
    pub measure: Option<String>,
    /// Why the scale may not read it.
    pub warning: Option<SentenceView>,
    /// What is done to it first.
    pub note: String,
    /// Over the flour.
    pub bakers_percent: f64,
}

/// Mass fractions.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct MakeUpView {
    /// Of the dough.
    pub water: f64,
    /// Of the dough.
    pub fat: f64,
    /// Of the dough.
    pub sugars: f64,
    /// Carbohydrate that is neither sugar nor fibre.
    pub starch: f64,
    /// Of the dough.
    pub protein: f64,
    /// Fibre and ash.
    pub rest: f64,
}

/// The dough station.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct DoughView {
    /// To mix in all: reserve, freezer and other jobs included.
    pub dough_g: f64,
    /// What of it is for what.
    pub parts: Vec<PartView>,
    /// Most dough in one mix, by motor and bowl.
    pub mix_limit_g: f64,
    /// One piece as cut.
    pub piece_g: f64,
    /// With its air.
    pub density_kg_m3: f64,
    /// How many equal mixes.
    pub mixes: u32,
    /// Dough in each.
    pub mix_g: f64,
    /// To weigh for one mix.
    pub weights: Vec<WeightView>,
    /// Sugar over fat.
    pub ratio_sugar: f64,
    /// Flour over fat.
    pub ratio_flour: f64,
    /// The school, in words.
    pub school: String,
    /// Out of the mixer.
    pub dough_c: f64,
    /// Measured rather than computed.
    pub dough_measured: bool,
    /// How it is mixed.
    pub method: MixMethod,
    /// What the fats should be when they go in.
    pub butter_c: f64,
    /// What it is made of.
    pub make_up: MakeUpView,
    /// To name on a label; local rules decide.
    pub allergens: Vec<String>,
    /// What to mind.
    pub warnings: Vec<SentenceView>,
    /// Why.
    pub reasons: Vec<SentenceView>,
}

pub(super) fn dough(plan: &Plan, job: &Job) -> DoughView {
    let d = &plan.dough;
    let c = &d.composition;
    let sugars = c.sugars().unwrap_or(0.0);
    let weights = d.mixes.weights.iter().zip(&d.bakers).map(|(w, b)| WeightView {
        ingredient: w.ingredient.key.to_string(),
        name: w.ingredient.name.to_string(),
        mass_g: w.mass.g(),
        held_back_g: w.held_back.g(),
        measure: w.measure.map(|m| m.say().text(System::Metric)),
        warning: w.warning.as_ref().map(say),
        note: w.note.clone(),
        bakers_percent: b.percent.percent(),
    });
    DoughView {
        dough_g: d.dough.g(),
        parts: d.parts.iter().map(Into::into).collect(),
        mix_limit_g: d.mix_limit.g(),
        piece_g: d.piece.g(),
        density_kg_m3: d.density.kg_m3(),
        mixes: d.mixes.count,
        mix_g: d.mixes.each.g(),
        weights: weights.collect(),
        ratio_sugar: d.ratio.sugar,
        ratio_flour: d.ratio.flour,
        school: standing(d.ratio.standing()).to_owned(),
        dough_c: d.temperature.c(),
        dough_measured: d.temperature_measured,
        method: job.input().method,
        butter_c: job.input().method.butter().c(),
        make_up: MakeUpView {
            water: c.water(),
            fat: c.fat(),
            sugars,
            starch: c.carbohydrate() - sugars,
            protein: c.protein(),
            rest: 1.0 - c.water() - c.fat() - c.carbohydrate() - c.protein(),
        },
        allergens: d.allergens.clone(),
        warnings: say_all(&d.warnings),
        reasons: say_all(&d.reasons),
    }
}
