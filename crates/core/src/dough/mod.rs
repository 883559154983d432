//! What a dough is made of and what it is: ingredients, formula, character, levers, scaling, mixing and the label.

mod bowl;
mod browning;
mod character;
mod component;
mod composition;
mod fat;
mod formula;
mod household;
mod ingredient;
mod judgement;
mod keeping;
mod label;
mod levers;
mod method;
mod mixing;
mod pantry;
mod part;
mod reason;
mod rebalance;
mod says;
mod scale;
mod school;
mod sheet;
mod standing;
mod starter;
pub(crate) mod stiffness;
mod strength;
mod texture;
mod warnings;

pub use bowl::{
    Added, BowlNote, BowlQuestion, Correction, Feel, MixesLearnt, NotedMix, Squeeze, correct, flour_of_a_mix, learn,
    noted_mixes,
};
pub use browning::hides_colour;
pub use character::{Balance, Character, SpreadTendency, nearest_to, spread_tendency};
pub use component::{
    AIR_SHARE, FREEZING_K_PER_MOLAL, LATENT_ICE_J_KG, conductivity_w_mk, density_kg_m3, rolled_density,
    specific_heat_j_kgk,
};
pub use composition::{Composition, Felt};
pub use fat::{FatKind, LATENT_FAT_J_KG, RollingLimits, rolling_limits, solid_share};
pub use formula::{BakersLine, Formula, FormulaInput, FormulaLine, LineInput, Ratio};
pub use household::{
    Beside, CupWay, EggClass, Household, SCOOPED_OVER_SPOONED, SIFTED_OVER_SPOONED, Spoons, US_CUP_ML,
};
pub use ingredient::{Analysis, Ingredient, IngredientInput, Kind, Role};
pub use judgement::Judgement;
pub use keeping::{Keeping, is_nutty, keeping};
pub use label::{Cost, LabelItem, LineCost, cost_of, label, label_text};
pub use levers::{Lever, LineChange, Pulled, difference};
pub use method::MixMethod;
pub use mixing::{MixingTemperatures, dough_temperature, heat_balance, mixing_temperatures};
pub use pantry::Pantry;
pub use part::Part;
pub use reason::{BalancePart, Bite, Browning, Difference, Handling, Reason, SpreadCause};
pub use says::RecipeSays;
pub use scale::{MixPlan, MixerLimits, OnHand, SizeBy, Sized, WeighRules, Weighed, divide_into_mixes, size_dough};
pub use school::{KnownFor, SCHOOLS, SaidBy, School, Standing};
pub(crate) use sheet::paste_of;
pub use sheet::{
    BowlCaution, MixStep, MixWork, MixingSheet, SiftWhy, Take, Tint, TintInput, TintPortion, mixing_sheet,
};
pub use standing::DRYNESS;
pub use starter::{STARTERS, Starter, Suits};
pub use stiffness::packing;
pub use texture::{Texture, texture};

pub(crate) use browning::{COCOA_HIDES, browning_pace};
pub(crate) use character::between;
pub(crate) use scale::{mixes_of, within_mixes};
pub(crate) use strength::{powder_mass, soda_used_up};
