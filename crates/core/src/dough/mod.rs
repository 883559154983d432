//! What a dough is made of: ingredients, composition and its thermal components, formula, and division into mixes.

mod component;
mod composition;
mod fat;
mod formula;
mod ingredient;
mod mixing;

pub use component::{
    AIR_SHARE, FREEZING_K_PER_MOLAL, LATENT_ICE_J_KG, conductivity_w_mk, density_kg_m3, rolled_density,
    specific_heat_j_kgk,
};
pub use composition::Composition;
pub use fat::{FatKind, LATENT_FAT_J_KG, RollingLimits, rolling_limits, solid_share};
pub use formula::{BakersLine, Formula, FormulaLine, Ratio};
pub use ingredient::{INGREDIENTS, Ingredient, Role, ingredient};
pub use mixing::{MixMethod, MixPlan, Weighed, divide_into_mixes, dough_temperature};

pub(crate) use mixing::MOST_MIXES;
