//! Parts of a formula that go into the bowl at one temperature.

use super::ingredient::{Ingredient, Kind, Role};

/// Ingredients that have one temperature.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Part {
    /// Butter and other fats.
    Fats,
    /// Eggs and liquids.
    Wet,
    /// All else.
    Dry,
}

impl Part {
    /// To which part an ingredient belongs.
    #[must_use]
    pub fn of(ingredient: &Ingredient) -> Self {
        match (ingredient.role(), ingredient.kind) {
            (Role::Fat, _) => Self::Fats,
            (Role::Egg, _) | (_, Kind::Liquid | Kind::Syrup | Kind::Spirit) => Self::Wet,
            _ => Self::Dry,
        }
    }
}
