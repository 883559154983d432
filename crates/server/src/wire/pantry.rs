//! Ingredients on the wire.

use ready_slab_core::dough::FatKind;
use ready_slab_core::dough::Kind;
use ready_slab_core::dough::{Analysis, Household, Ingredient, IngredientInput, Pantry, Role};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Grams in 100 g.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AnalysisBody {
    /// 0 to 100.
    pub water_g: f64,
    /// 0 to 100.
    #[serde(default)]
    pub alcohol_g: f64,
    /// 0 to 100.
    pub fat_g: f64,
    /// 0 to 100.
    pub protein_g: f64,
    /// Without fibre, 0 to 100.
    pub carbohydrate_g: f64,
    /// Within the carbohydrate.
    pub sugars_g: f64,
    /// Within the sugars.
    #[serde(default)]
    pub reducing_g: f64,
    /// 0 to 100.
    pub fibre_g: f64,
    /// 0 to 100.
    pub ash_g: f64,
    /// Within the ash.
    #[serde(default)]
    pub salt_g: f64,
}

/// Grams of household measures; null where nobody measures it so.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
#[derive(Default)]
pub struct HouseholdBody {
    /// A US cup, spooned and levelled.
    pub cup_g: Option<f64>,
    /// A US cup scooped from the bag.
    pub cup_scooped_g: Option<f64>,
    /// A US cup sifted.
    pub cup_sifted_g: Option<f64>,
    /// A US cup packed.
    pub cup_packed_g: Option<f64>,
    /// A US teaspoon.
    pub tsp_g: Option<f64>,
    /// One of it.
    pub each_g: Option<f64>,
    /// A stick.
    pub stick_g: Option<f64>,
}

/// An ingredient of the bakery's own.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct IngredientBody {
    /// 1 to 60 characters, without digits, commas or brackets.
    pub name: String,
    /// What it is.
    pub kind: Kind,
    /// Together 98 to 102 g.
    pub analysis: AnalysisBody,
    /// Kind of its fat.
    pub fat_kind: FatKind,
    /// What household measures weigh.
    #[serde(default)]
    pub household: HouseholdBody,
    /// At most 12.
    #[serde(default)]
    pub allergens: Vec<String>,
    /// Other names, at most 12.
    #[serde(default)]
    pub aliases: Vec<String>,
    /// Where the figures come from, at most 120 characters.
    #[serde(default)]
    pub source: String,
}

/// An ingredient that formulas can use.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct IngredientView {
    /// Its key.
    pub key: String,
    /// The ingredient.
    #[serde(flatten)]
    pub body: IngredientBody,
    /// What it counts as: flour, fat, sugar, egg or other.
    pub role: String,
    /// Whether it is the bakery's own and can be changed.
    pub own: bool,
    /// A kilogram, in the kitchen's money.
    pub price_per_kg: Option<f64>,
}

/// A price.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PriceBody {
    /// 0 to 100,000; null forgets it.
    pub price_per_kg: Option<f64>,
}

impl From<&Ingredient> for IngredientBody {
    fn from(i: &Ingredient) -> Self {
        let (a, h) = (&i.analysis, &i.household);
        Self {
            name: i.name.to_string(),
            kind: i.kind,
            analysis: AnalysisBody {
                water_g: a.water,
                alcohol_g: a.alcohol,
                fat_g: a.fat,
                protein_g: a.protein,
                carbohydrate_g: a.carbohydrate,
                sugars_g: a.sugars,
                reducing_g: a.reducing,
                fibre_g: a.fibre,
                ash_g: a.ash,
                salt_g: a.salt,
            },
            fat_kind: i.fat_kind,
            household: HouseholdBody {
                cup_g: h.cup,
                cup_scooped_g: h.cup_scooped,
                cup_sifted_g: h.cup_sifted,
                cup_packed_g: h.cup_packed,
                tsp_g: h.tsp,
                each_g: h.each,
                stick_g: h.stick,
            },
            allergens: i.allergens.iter().map(ToString::to_string).collect(),
            aliases: i.aliases.iter().map(ToString::to_string).collect(),
            source: i.source.to_string(),
        }
    }
}

impl From<IngredientBody> for IngredientInput {
    fn from(body: IngredientBody) -> Self {
        let (a, h) = (body.analysis, body.household);
        Self {
            name: body.name,
            kind: body.kind,
            analysis: Analysis {
                water: a.water_g,
                alcohol: a.alcohol_g,
                fat: a.fat_g,
                protein: a.protein_g,
                carbohydrate: a.carbohydrate_g,
                sugars: a.sugars_g,
                reducing: a.reducing_g,
                fibre: a.fibre_g,
                ash: a.ash_g,
                salt: a.salt_g,
            },
            fat_kind: body.fat_kind,
            household: Household {
                cup: h.cup_g,
                cup_scooped: h.cup_scooped_g,
                cup_sifted: h.cup_sifted_g,
                cup_packed: h.cup_packed_g,
                tsp: h.tsp_g,
                each: h.each_g,
                stick: h.stick_g,
            },
            allergens: body.allergens,
            aliases: body.aliases,
            source: body.source,
        }
    }
}

impl IngredientView {
    /// All ingredients of a pantry.
    pub fn all(pantry: &Pantry) -> Vec<Self> {
        pantry.all().iter().map(|i| Self::of(i, pantry)).collect()
    }

    /// One ingredient of a pantry.
    pub fn of(i: &Ingredient, pantry: &Pantry) -> Self {
        let role = match i.role() {
            Role::Flour => "flour",
            Role::Fat => "fat",
            Role::Sugar => "sugar",
            Role::Egg => "egg",
            Role::Other => "other",
        };
        Self {
            key: i.key.to_string(),
            body: i.into(),
            role: role.to_owned(),
            own: i.key.starts_with("own-"),
            price_per_kg: pantry.price_per_kg(&i.key),
        }
    }
}
