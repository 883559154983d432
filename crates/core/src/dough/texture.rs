//! How pieces of a formula eat: one judgement for bite, doneness and keeping.

use super::Formula;
use super::ingredient::{Kind, Role};

/// How a piece eats once it has cooled. One judgement for all that depends on it: bite, doneness, keeping.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Texture {
    /// Dry and brittle.
    Crisp,
    /// Rich in fat and low in water: melts and crumbles.
    Short,
    /// Holds water and gives.
    Soft,
    /// Syrupy or brown-sugared and not baked dry: bends before it breaks.
    Chewy,
}

impl Texture {
    /// The same where its bake is ended while the middle is still soft: what would have been crisp or short stays soft.
    #[must_use]
    pub const fn baked_soft(self) -> Self {
        match self {
            Self::Chewy => Self::Chewy,
            Self::Crisp | Self::Short | Self::Soft => Self::Soft,
        }
    }
}

// Of the dough without its pieces: egg from which it stays soft; of its sugars, what draws water (syrup, honey, brown sugar) from which
// it is chewy; of its flour, fat from which it is short. Common practice, no source.
const SOFT_EGG: f64 = 0.12;
const CHEWY_SUGARS: f64 = 0.45;
const CHEWY_LEAST: f64 = 0.12;
const SHORT_FAT: f64 = 0.45;
const SHORT_SUGAR: f64 = 0.45;

/// How pieces of a formula eat, baked through.
#[must_use]
pub fn texture(formula: &Formula) -> Texture {
    let dough_g = formula.grams_of(|i| if i.kind.is_inclusion() { 0.0 } else { 100.0 });
    let flour = formula.role_mass(Role::Flour).g();
    let sugars = formula.role_mass(Role::Sugar).g();
    let drawing =
        formula.kind_mass(Kind::Syrup).g() + formula.mass_of("sugar-brown").g() + formula.mass_of("sugar-dark").g();
    let fat = formula.grams_of(|i| if i.kind.is_inclusion() { 0.0 } else { i.analysis.fat });
    if sugars > 0.0 && drawing / sugars >= CHEWY_SUGARS && drawing / dough_g >= CHEWY_LEAST {
        Texture::Chewy
    } else if (formula.kind_mass(Kind::Egg).g() + formula.kind_mass(Kind::Syrup).g()) / dough_g >= SOFT_EGG {
        Texture::Soft
    } else if fat / flour >= SHORT_FAT && sugars / flour <= SHORT_SUGAR {
        Texture::Short
    } else {
        Texture::Crisp
    }
}
