//! The ingredients known by name, with their make-up.
//!
//! Grams per 100 g after USDA FoodData Central, SR Legacy, from memory; rounded. Where an entry is a mean of ours it says so.

use super::FatKind;

/// One ingredient: grams per 100 g.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Ingredient {
    /// The key it is kept under.
    pub key: &'static str,
    /// The name shown.
    pub name: &'static str,
    /// Water.
    pub water: f64,
    /// Fat.
    pub fat: f64,
    /// Protein.
    pub protein: f64,
    /// Carbohydrate without fibre.
    pub carbohydrate: f64,
    /// Sugars within the carbohydrate.
    pub sugars: f64,
    /// Fibre.
    pub fibre: f64,
    /// Ash.
    pub ash: f64,
    /// Kind of its fat.
    pub fat_kind: FatKind,
    /// What it counts as when people argue by ratio.
    pub role: Role,
    /// Allergens to name on a label (local rules decide).
    pub allergens: &'static [&'static str],
}

/// What an ingredient counts as in butter : sugar : flour.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
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

macro_rules! ingredients {
    ($($key:literal, $name:literal: $water:literal $fat:literal $protein:literal $carb:literal $sugars:literal $fibre:literal $ash:literal, $kind:ident, $role:ident, [$($allergen:literal),*];)*) => {
        &[$(Ingredient {
            key: $key, name: $name, water: $water, fat: $fat, protein: $protein, carbohydrate: $carb, sugars: $sugars,
            fibre: $fibre, ash: $ash, fat_kind: FatKind::$kind, role: Role::$role, allergens: &[$($allergen),*],
        }),*]
    };
}

/// All ingredients: water, fat, protein, carbohydrate (without fibre), of it sugars, fibre, ash.
pub const INGREDIENTS: &[Ingredient] = ingredients! {
    "flour-ap", "All-purpose flour": 11.9 1.0 10.3 73.6 0.3 2.7 0.5, Liquid, Flour, ["wheat"];
    "flour-pastry", "Pastry flour": 11.9 0.9 8.8 75.9 0.3 2.0 0.5, Liquid, Flour, ["wheat"];
    "flour-wholewheat", "Whole wheat flour": 10.7 2.5 13.2 61.3 0.4 10.7 1.6, Liquid, Flour, ["wheat"];
    "flour-rye", "Medium rye flour": 9.8 1.5 10.9 63.9 0.8 12.3 1.6, Liquid, Flour, ["rye"];
    "oats", "Rolled oats": 10.8 6.5 13.2 57.6 1.0 10.1 1.8, Liquid, Flour, ["oats"];
    "cornstarch", "Cornstarch": 8.3 0.1 0.3 90.3 0.0 0.9 0.1, Liquid, Flour, [];
    "butter", "Butter, unsalted": 17.9 81.1 0.9 0.1 0.1 0.0 0.0, Butter, Fat, ["milk"];
    "butter-salted", "Butter, salted": 16.2 81.1 0.9 0.1 0.1 0.0 1.7, Butter, Fat, ["milk"];
    "shortening", "Shortening": 0.0 100.0 0.0 0.0 0.0 0.0 0.0, Shortening, Fat, [];
    "margarine", "Stick margarine, 80 %": 16.5 80.7 0.2 0.7 0.0 0.0 1.9, Margarine, Fat, ["soy"];
    "lard", "Lard": 0.0 100.0 0.0 0.0 0.0 0.0 0.0, Lard, Fat, [];
    "coconut-oil", "Coconut oil": 0.0 100.0 0.0 0.0 0.0 0.0 0.0, Coconut, Fat, [];
    "oil", "Vegetable oil": 0.0 100.0 0.0 0.0 0.0 0.0 0.0, Liquid, Fat, [];
    "sugar", "Granulated sugar": 0.0 0.0 0.0 100.0 100.0 0.0 0.0, Liquid, Sugar, [];
    "sugar-caster", "Caster sugar": 0.0 0.0 0.0 100.0 100.0 0.0 0.0, Liquid, Sugar, [];
    "sugar-powdered", "Powdered sugar": 0.2 0.0 0.0 99.8 97.0 0.0 0.0, Liquid, Sugar, [];
    "sugar-brown", "Brown sugar": 1.3 0.0 0.1 98.1 97.0 0.0 0.5, Liquid, Sugar, [];
    "honey", "Honey": 17.1 0.0 0.3 82.2 82.1 0.2 0.2, Liquid, Sugar, [];
    "malt-powder", "Malted milk powder": 3.0 8.0 11.0 74.0 50.0 1.0 3.0, Butter, Other, ["barley", "wheat", "milk"];
    "egg", "Whole egg": 76.2 9.5 12.6 0.7 0.4 0.0 1.0, Liquid, Egg, ["egg"];
    "yolk", "Egg yolk": 52.3 26.5 15.9 3.6 0.6 0.0 1.7, Liquid, Egg, ["egg"];
    "white", "Egg white": 87.6 0.2 10.9 0.7 0.7 0.0 0.6, Liquid, Egg, ["egg"];
    "milk", "Whole milk": 88.1 3.3 3.2 4.7 4.7 0.0 0.7, Butter, Other, ["milk"];
    "cream", "Heavy cream": 57.7 37.0 2.0 2.8 2.8 0.0 0.5, Butter, Other, ["milk"];
    "water", "Water": 100.0 0.0 0.0 0.0 0.0 0.0 0.0, Liquid, Other, [];
    "cocoa", "Cocoa, unsweetened": 3.0 13.7 19.6 24.7 1.8 33.2 5.8, Coconut, Other, [];
    "chocolate", "Dark chocolate, chopped": 1.4 42.6 7.8 34.9 24.0 10.9 2.4, Coconut, Other, ["soy"];
    "almond-meal", "Almond meal": 4.4 49.9 21.2 9.1 4.4 12.5 2.9, Liquid, Other, ["almond"];
    "walnut", "Walnuts, chopped": 4.1 65.2 15.2 7.0 2.6 6.7 1.8, Liquid, Other, ["walnut"];
    "sesame-black", "Black sesame, ground": 4.7 49.7 17.7 11.6 0.3 11.8 4.5, Liquid, Other, ["sesame"];
    "caraway", "Caraway seed": 9.9 14.6 19.8 11.9 0.6 38.0 5.8, Liquid, Other, [];
    "lemon-zest", "Lemon zest": 81.6 0.3 1.5 5.4 4.2 10.6 0.6, Liquid, Other, [];
    "lemon-juice", "Lemon juice": 92.3 0.2 0.4 6.6 2.5 0.3 0.2, Liquid, Other, [];
    "thyme", "Fresh thyme leaves": 65.1 1.7 5.6 10.4 0.0 14.0 3.2, Liquid, Other, [];
    "vanilla", "Vanilla extract": 87.1 0.1 0.1 12.7 12.7 0.0 0.0, Liquid, Other, [];
    "baking-powder", "Baking powder": 5.0 0.0 0.0 28.0 0.0 0.0 67.0, Liquid, Other, [];
    "baking-soda", "Baking soda": 0.2 0.0 0.0 0.0 0.0 0.0 99.8, Liquid, Other, [];
    "salt", "Fine salt": 0.2 0.0 0.0 0.0 0.0 0.0 99.8, Liquid, Other, [];
};

/// The ingredient kept under `key`.
#[must_use]
pub fn ingredient(key: &str) -> Option<&'static Ingredient> {
    INGREDIENTS.iter().find(|i| i.key == key)
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::collections::HashSet;

    #[test]
    fn every_ingredient_adds_up_and_has_a_key_of_its_own() {
        let mut keys = HashSet::new();
        for i in INGREDIENTS {
            let total = i.water + i.fat + i.protein + i.carbohydrate + i.fibre + i.ash;
            assert!((total - 100.0).abs() <= 0.5, "{}: {total}", i.key);
            assert!(i.sugars <= i.carbohydrate, "{}", i.key);
            assert!(keys.insert(i.key), "{} twice", i.key);
        }
    }

    #[test]
    fn food_tables_agree_on_the_main_ones() {
        // USDA FoodData Central, SR Legacy, from memory.
        let butter = ingredient("butter").unwrap();
        assert!((16.2..=17.9).contains(&butter.water) && butter.fat == 81.1);
        let flour = ingredient("flour-ap").unwrap();
        assert_eq!((flour.water, flour.protein, flour.fat), (11.9, 10.3, 1.0));
        assert!((flour.carbohydrate + flour.fibre - 76.3).abs() < 0.1);
        let egg = ingredient("egg").unwrap();
        assert_eq!((egg.water, egg.protein, egg.fat), (76.2, 12.6, 9.5));
        assert_eq!(ingredient("honey").unwrap().water, 17.1);
        assert_eq!(ingredient("cocoa").unwrap().fat, 13.7);
    }
}
