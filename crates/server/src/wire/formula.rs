//! Formulas and ingredients on the wire.

use ready_slab_core::dough::{Formula, Ingredient, Role};
use ready_slab_core::error::InputErrors;
use ready_slab_store::StoredFormula;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One line of a formula.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LineBody {
    /// Key of an ingredient.
    pub ingredient: String,
    /// 0.1 to 200,000.
    pub grams: f64,
}

/// A formula.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FormulaBody {
    /// Its name, 1 to 80 characters.
    pub name: String,
    /// At most 60, with flour and a fat among them.
    pub lines: Vec<LineBody>,
}

impl From<&Formula> for FormulaBody {
    fn from(formula: &Formula) -> Self {
        let line = |l: &ready_slab_core::dough::FormulaLine| LineBody {
            ingredient: l.ingredient().key.to_owned(),
            grams: l.mass().g(),
        };
        Self { name: formula.name().to_owned(), lines: formula.lines().iter().map(line).collect() }
    }
}

impl TryFrom<FormulaBody> for Formula {
    type Error = InputErrors;

    fn try_from(body: FormulaBody) -> Result<Self, InputErrors> {
        let lines: Vec<(String, f64)> = body.lines.into_iter().map(|l| (l.ingredient, l.grams)).collect();
        Self::new(&body.name, &lines)
    }
}

/// A formula on the shelf.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct FormulaView {
    /// Its number.
    pub id: i64,
    /// The formula.
    #[serde(flatten)]
    pub body: FormulaBody,
    /// All lines together.
    pub total_g: f64,
    /// Sugar over fat.
    pub ratio_sugar: f64,
    /// Flour over fat.
    pub ratio_flour: f64,
    /// The school it belongs to, in words.
    pub school: String,
}

impl From<&StoredFormula> for FormulaView {
    fn from(stored: &StoredFormula) -> Self {
        let ratio = stored.formula.ratio();
        Self {
            id: stored.id.0,
            body: (&stored.formula).into(),
            total_g: stored.formula.total().g(),
            ratio_sugar: ratio.sugar,
            ratio_flour: ratio.flour,
            school: ratio.school().to_owned(),
        }
    }
}

/// An ingredient that formulas can use.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct IngredientView {
    /// Its key.
    pub key: String,
    /// Its name.
    pub name: String,
    /// What it counts as: flour, fat, sugar, egg or other.
    pub role: String,
    /// Allergens to name.
    pub allergens: Vec<String>,
}

impl From<&Ingredient> for IngredientView {
    fn from(i: &Ingredient) -> Self {
        let role = match i.role {
            Role::Flour => "flour",
            Role::Fat => "fat",
            Role::Sugar => "sugar",
            Role::Egg => "egg",
            Role::Other => "other",
        };
        Self {
            key: i.key.to_owned(),
            name: i.name.to_owned(),
            role: role.to_owned(),
            allergens: i.allergens.iter().map(|a| (*a).to_owned()).collect(),
        }
    }
}
