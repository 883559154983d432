//! One ingredient: its make-up, what a cup or a spoon of it weighs, and what it counts as.

use super::FatKind;
use super::household::Household;
use crate::error::{Checks, InputError, InputErrors};
use serde::{Deserialize, Serialize};
use std::borrow::Cow;

type Text = Cow<'static, str>;

/// What an ingredient is, as a baker sorts the shelf.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Kind {
    /// Flours and rolled grains.
    Flour,
    /// Starches.
    Starch,
    /// Butter and other fats.
    Fat,
    /// Dry sugars.
    Sugar,
    /// Syrups and honey.
    Syrup,
    /// Eggs and their parts.
    Egg,
    /// Milk, cream, water, juice.
    Liquid,
    /// Baking powder, soda and the like.
    Leavener,
    /// Salt.
    Salt,
    /// Cocoa.
    Cocoa,
    /// Ground nuts and seeds, and dry powders that go in with the flour.
    Meal,
    /// Chocolate in pieces.
    Chocolate,
    /// Nuts in pieces.
    Nut,
    /// Seeds.
    Seed,
    /// Dried or candied fruit.
    Fruit,
    /// Extracts, zest, herbs and spices.
    Flavour,
    /// Spirits.
    Spirit,
    /// Food colours.
    Colour,
}

impl Kind {
    /// All kinds in the order of a shelf.
    pub const ALL: [Self; 18] = [
        Self::Flour,
        Self::Starch,
        Self::Fat,
        Self::Sugar,
        Self::Syrup,
        Self::Egg,
        Self::Liquid,
        Self::Leavener,
        Self::Salt,
        Self::Cocoa,
        Self::Meal,
        Self::Chocolate,
        Self::Nut,
        Self::Seed,
        Self::Fruit,
        Self::Flavour,
        Self::Spirit,
        Self::Colour,
    ];

    /// What it counts as in butter : sugar : flour.
    #[must_use]
    pub const fn role(self) -> Role {
        match self {
            Self::Flour | Self::Starch => Role::Flour,
            Self::Fat => Role::Fat,
            Self::Sugar | Self::Syrup => Role::Sugar,
            Self::Egg => Role::Egg,
            Self::Liquid
            | Self::Leavener
            | Self::Salt
            | Self::Cocoa
            | Self::Meal
            | Self::Chocolate
            | Self::Nut
            | Self::Seed
            | Self::Fruit
            | Self::Flavour
            | Self::Spirit
            | Self::Colour => Role::Other,
        }
    }

    /// Pieces that are folded in last.
    #[must_use]
    pub const fn is_inclusion(self) -> bool {
        matches!(self, Self::Chocolate | Self::Nut | Self::Seed | Self::Fruit)
    }

    /// Dry powder that is weighed and sifted with the flour.
    #[must_use]
    pub const fn goes_with_flour(self) -> bool {
        matches!(self, Self::Flour | Self::Starch | Self::Cocoa | Self::Meal | Self::Leavener)
    }
}

/// What an ingredient counts as in butter : sugar : flour.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[serde(rename_all = "snake_case")]
pub enum Role {
    /// Flours and starches; the hundred of baker's percentages.
    Flour,
    /// Butter and other fats.
    Fat,
    /// Sugars and syrups.
    Sugar,
    /// Eggs.
    Egg,
    /// Everything else.
    Other,
}

/// Grams per 100 g. Together 100 within 2; sugars are part of the carbohydrate, reducing sugars of the sugars, salt of
/// the ash.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize, utoipa::ToSchema)]
#[schema(as = AnalysisBody)]
#[serde(deny_unknown_fields)]
pub struct Analysis {
    /// 0 to 100.
    #[serde(rename = "water_g")]
    pub water: f64,
    /// Of spirits and extracts, 0 to 100.
    #[serde(rename = "alcohol_g", default)]
    pub alcohol: f64,
    /// 0 to 100.
    #[serde(rename = "fat_g")]
    pub fat: f64,
    /// 0 to 100.
    #[serde(rename = "protein_g")]
    pub protein: f64,
    /// Without fibre, 0 to 100.
    #[serde(rename = "carbohydrate_g")]
    pub carbohydrate: f64,
    /// Within the carbohydrate.
    #[serde(rename = "sugars_g")]
    pub sugars: f64,
    /// Glucose, fructose, lactose, maltose within the sugars: they brown.
    #[serde(rename = "reducing_g", default)]
    pub reducing: f64,
    /// 0 to 100.
    #[serde(rename = "fibre_g")]
    pub fibre: f64,
    /// 0 to 100.
    #[serde(rename = "ash_g")]
    pub ash: f64,
    /// Table salt within the ash.
    #[serde(rename = "salt_g", default)]
    pub salt: f64,
}

impl Analysis {
    /// All parts together.
    #[must_use]
    pub fn total(&self) -> f64 {
        self.water + self.alcohol + self.fat + self.protein + self.carbohydrate + self.fibre + self.ash
    }

    /// Carbohydrate that is neither sugar nor fibre.
    #[must_use]
    pub fn starch(&self) -> f64 {
        self.carbohydrate - self.sugars
    }
}

/// One ingredient.
#[derive(Debug, Clone, PartialEq)]
pub struct Ingredient {
    /// The key it is kept under.
    pub key: Text,
    /// The name shown, and read in recipes.
    pub name: Text,
    /// What it is.
    pub kind: Kind,
    /// Its make-up.
    pub analysis: Analysis,
    /// Kind of its fat.
    pub fat_kind: FatKind,
    /// What household measures of it weigh.
    pub household: Household,
    /// Allergens to name on a label (local rules decide).
    pub allergens: Vec<Text>,
    /// Other names under which recipes know it.
    pub aliases: Vec<Text>,
    /// Where the figures come from.
    pub source: Text,
}

/// An ingredient of the bakery's own; the only door to it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, utoipa::ToSchema)]
#[schema(as = IngredientBody)]
#[serde(deny_unknown_fields)]
pub struct IngredientInput {
    /// 1 to 60 characters, without digits, commas or brackets.
    pub name: String,
    /// What it is.
    pub kind: Kind,
    /// Together 98 to 102 g.
    pub analysis: Analysis,
    /// Kind of its fat.
    pub fat_kind: FatKind,
    /// What household measures weigh.
    #[serde(default)]
    pub household: Household,
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

impl From<&Ingredient> for IngredientInput {
    fn from(i: &Ingredient) -> Self {
        Self {
            name: i.name.to_string(),
            kind: i.kind,
            analysis: i.analysis,
            fat_kind: i.fat_kind,
            household: i.household,
            allergens: i.allergens.iter().map(ToString::to_string).collect(),
            aliases: i.aliases.iter().map(ToString::to_string).collect(),
            source: i.source.to_string(),
        }
    }
}

impl Ingredient {
    /// What it counts as.
    #[must_use]
    pub fn role(&self) -> Role {
        self.kind.role()
    }

    /// An ingredient of one's own under `key`. Reports all faults at once.
    pub fn own(key: String, input: IngredientInput) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        checks.text("name", &input.name, 60, "a name");
        if input.name.chars().any(|c| c.is_ascii_digit() || "(),;/+".contains(c)) {
            checks.push(InputError::refused(
                "name",
                "Use a name without digits, commas or parentheses, so recipes can be read.",
            ));
        }
        let a = &input.analysis;
        for (field, value, most) in [
            ("water", a.water, 100.0),
            ("alcohol", a.alcohol, 100.0),
            ("fat", a.fat, 100.0),
            ("protein", a.protein, 100.0),
            ("carbohydrate", a.carbohydrate, 100.0),
            ("sugars", a.sugars, a.carbohydrate.clamp(0.0, 100.0)),
            ("reducing", a.reducing, a.sugars.clamp(0.0, 100.0)),
            ("fibre", a.fibre, 100.0),
            ("ash", a.ash, 100.0),
            ("salt", a.salt, a.ash.clamp(0.0, 100.0)),
        ] {
            checks.range(&format!("{field}_g"), value, 0.0, most, "g per 100 g");
        }
        checks.range("total_g", a.total(), 98.0, 102.0, "g per 100 g");
        input.household.check(&mut checks);
        checks.limit("allergens", input.allergens.len(), 12, "allergens");
        checks.limit("aliases", input.aliases.len(), 12, "names");
        for (list, name) in [(&input.allergens, "allergens"), (&input.aliases, "aliases")] {
            for (i, text) in list.iter().enumerate() {
                checks.text(&format!("{name}[{i}]"), text, 40, "a word");
            }
        }
        if input.source.chars().count() > 120 {
            checks.text("source", &input.source, 120, "a source");
        }
        checks.finish(())?;
        let tidy = |text: String| Cow::Owned(text.split_whitespace().collect::<Vec<_>>().join(" "));
        Ok(Self {
            key: Cow::Owned(key),
            name: tidy(input.name),
            kind: input.kind,
            analysis: input.analysis,
            fat_kind: input.fat_kind,
            household: input.household,
            allergens: input.allergens.into_iter().map(|a| tidy(a.to_lowercase())).collect(),
            aliases: input.aliases.into_iter().map(|a| tidy(a.to_lowercase())).collect(),
            source: tidy(input.source),
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn input() -> IngredientInput {
        IngredientInput {
            name: "Kelp salt".to_owned(),
            kind: Kind::Salt,
            analysis: Analysis { water: 3.0, carbohydrate: 4.0, ash: 93.0, salt: 88.0, ..Analysis::default() },
            fat_kind: FatKind::Liquid,
            household: Household { tsp: Some(5.0), ..Household::default() },
            allergens: vec![],
            aliases: vec!["Seaweed salt".to_owned()],
            source: "the bag".to_owned(),
        }
    }

    #[test]
    fn an_own_ingredient_is_kept_as_written_and_counts_by_its_kind() {
        let own = Ingredient::own("own-1".to_owned(), input()).unwrap();
        assert_eq!((own.role(), own.aliases[0].as_ref()), (Role::Other, "seaweed salt"));
    }

    #[test]
    fn parts_that_do_not_add_up_or_outgrow_their_whole_are_named() {
        let mut bad = input();
        bad.analysis.salt = 95.0;
        bad.analysis.water = 30.0;
        bad.name = "Salt, kelp".to_owned();
        bad.household.tsp = Some(-1.0);
        let errors = Ingredient::own("own-1".to_owned(), bad).unwrap_err();
        let fields: Vec<_> = errors.all().iter().map(InputError::field).collect();
        assert_eq!(fields, ["name", "salt_g", "total_g", "tsp_g"]);
    }
}
