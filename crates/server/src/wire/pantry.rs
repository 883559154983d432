//! Ingredients on the wire.

use super::{view, word};
use ready_slab_core::dough::{Ingredient, IngredientInput, Pantry};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

view! {
    /// An ingredient that formulas can use.
    pub struct IngredientView(i: &Ingredient, pantry: &Pantry) {
        /// Its key.
        key: String = i.key.to_string(),
        /// The ingredient.
        #[serde(flatten)]
        body: IngredientInput = i.into(),
        /// What it counts as: flour, fat, sugar, egg or other.
        role: String = word(i.role()),
        /// Whether it is the bakery's own and can be changed.
        own: bool = i.key.starts_with("own-"),
        /// A kilogram, in the kitchen's money.
        price_per_kg: Option<f64> = pantry.price_per_kg(&i.key),
    }
}

/// A price.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PriceBody {
    /// 0 to 100,000; null forgets it.
    pub price_per_kg: Option<f64>,
}

impl IngredientView {
    /// All ingredients of a pantry.
    pub fn all(pantry: &Pantry) -> Vec<Self> {
        pantry.all().iter().map(|i| Self::new(i, pantry)).collect()
    }
}
