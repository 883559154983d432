//! How closely the solids of a dough are packed in its liquid: what makes it firm or soft at one and the same temperature,
//! and by what flour and water are weighed against each other when a formula is rebalanced.

use super::Formula;
use super::ingredient::{Ingredient, Kind, Role};

// Densities of the parts, kg/m3 (handbook values, from memory).
pub(crate) const FAT: f64 = 910.0;
pub(crate) const FLOUR: f64 = 1450.0;
pub(crate) const STARCH: f64 = 1500.0;
pub(crate) const SUGAR: f64 = 1590.0;
pub(crate) const OTHER: f64 = 1350.0;
pub(crate) const PIECES: f64 = 1250.0;
pub(crate) const WATER: f64 = 1000.0;
/// Flour swells by this share of its volume as it takes up water; starch by twice as much. Calibrated to common practice.
pub(crate) const FLOUR_SWELLS: f64 = 0.3895;
/// Undissolved sugar counts half: it lies loose between the rest. Calibrated to common practice.
pub(crate) const LOOSE_SUGAR: f64 = 0.5;
pub(crate) const LOOSE_PIECES: f64 = 0.6;
pub(crate) const LOOSE_OTHER: f64 = 0.5;
/// Share of the fat that lies between the solids and counts to their room. Calibrated to common practice.
pub(crate) const FAT_APART: f64 = 0.87;
/// Sugar that water can hold at room temperature, kg per kg (sucrose: about 1.9, handbook value, from memory).
pub(crate) const SATURATED: f64 = 1.9;

/// Grams of flour whose thickening one gram of the ingredient has, whatever the fat and sugar do. A gram of water thins
/// by what a gram of flour thickens (common practice, no source: a spoon of milk to a spoon and a half of flour); starch
/// and cocoa bind more than flour.
pub(super) fn flour_worth(ingredient: &Ingredient) -> f64 {
    let a = &ingredient.analysis;
    match ingredient.kind {
        Kind::Flour => 1.0,
        Kind::Starch => (1.0 + 2.0 * FLOUR_SWELLS) / STARCH / ((1.0 + FLOUR_SWELLS) / FLOUR),
        Kind::Cocoa | Kind::Meal => binding_dry(ingredient) / 0.87 - a.water / 100.0,
        Kind::Chocolate | Kind::Nut | Kind::Seed | Kind::Fruit => 0.0,
        Kind::Fat
        | Kind::Sugar
        | Kind::Syrup
        | Kind::Egg
        | Kind::Liquid
        | Kind::Leavener
        | Kind::Salt
        | Kind::Flavour
        | Kind::Spirit
        | Kind::Colour => -(a.water + a.alcohol) / 100.0,
    }
}

/// Share of a cocoa's or meal's mass that takes up water as flour does.
fn binding_dry(ingredient: &Ingredient) -> f64 {
    let a = &ingredient.analysis;
    (a.protein + a.starch() + a.fibre + a.ash) / 100.0
}

/// Share of a sugar that is dissolved as soon as it is mixed, water allowing. By crystal; calibrated to common practice.
pub(crate) fn dissolves(ingredient: &Ingredient) -> f64 {
    match (ingredient.kind, ingredient.key.as_ref()) {
        (Kind::Sugar, "sugar-powdered") => 0.60,
        (Kind::Sugar, "sugar-raw") => 0.05,
        (Kind::Sugar, "sugar-caster" | "sugar-brown" | "sugar-dark") => 0.25,
        (Kind::Sugar, "dextrose") => 1.0,
        (Kind::Sugar, _) => 0.15,
        _ => 1.0,
    }
}

/// Cocoa swells so many times as much as flour: a third of it is fibre, which holds far more water. From memory.
const COCOA_SWELLS: f64 = 3.0;

/// Share of the room between the fat that swollen solids fill: near 0.9 crumbles, 0.6 can be piped.
#[must_use]
pub fn packing(formula: &Formula) -> f64 {
    let (mut solid, mut all, mut fat, mut water, mut sugar, mut dissolved) = (0.0, 0.0, 0.0, 0.0, 0.0, 0.0);
    for line in formula.lines() {
        let (i, g) = (line.ingredient(), line.mass().g());
        let a = &i.analysis;
        // Nuts, chips and fruit lie in the dough; how it handles is the dough's between them.
        if i.kind.is_inclusion() {
            continue;
        }
        fat += g * a.fat / 100.0;
        water += g * (a.water + a.alcohol) / 100.0;
        let sugars = g * a.sugars / 100.0;
        sugar += sugars;
        dissolved += sugars * dissolves(i);
        let dry = g * (a.protein + a.starch() + a.fibre + a.ash) / 100.0;
        match (i.kind, i.role()) {
            (Kind::Starch, _) => {
                solid += dry / STARCH * (1.0 + 2.0 * FLOUR_SWELLS);
                all += dry / STARCH;
            }
            (Kind::Cocoa | Kind::Meal, _) | (_, Role::Flour) => {
                let swells = if i.kind == Kind::Cocoa { COCOA_SWELLS } else { 1.0 };
                solid += dry / FLOUR * (1.0 + swells * FLOUR_SWELLS);
                all += dry / FLOUR;
            }
            _ => {
                solid += LOOSE_OTHER * dry / OTHER;
                all += dry / OTHER;
            }
        }
    }
    let undissolved = sugar - dissolved.min(SATURATED * water);
    solid += LOOSE_SUGAR * undissolved / SUGAR;
    all += sugar / SUGAR + fat / FAT + water / WATER;
    solid / (all - FAT_APART * fat / FAT)
}

#[cfg(test)]
mod tests {
    use super::super::{LineInput, Pantry};
    use super::*;

    fn packed(lines: &[(&str, f64)]) -> f64 {
        let lines: Vec<LineInput> = lines.iter().map(|l| (*l).into()).collect();
        packing(&Formula::new("Test", &lines, Pantry::built_in()).unwrap())
    }

    #[test]
    fn schools_come_in_the_order_in_which_hands_find_them() {
        // Facts of the trade: 1:1:3 is the firmest, 1:2:3 rolls, a whole egg softens it, 1:1:2 with fat plus sugar equal to
        // flour and an egg is piped when it holds more butter still.
        let holds = packed(&[("flour-ap", 300.0), ("butter", 100.0), ("sugar", 100.0)]);
        let sweet = packed(&[("flour-ap", 300.0), ("butter", 100.0), ("sugar", 200.0)]);
        let sweet_egg = packed(&[("flour-ap", 300.0), ("butter", 100.0), ("sugar", 200.0), ("egg", 50.0)]);
        let piped = packed(&[("flour-ap", 250.0), ("butter", 225.0), ("sugar-powdered", 110.0), ("egg", 50.0)]);
        assert!(holds > sweet && sweet > sweet_egg && sweet_egg > piped, "{holds} {sweet} {sweet_egg} {piped}");
        assert!((0.85..0.95).contains(&holds) && (0.55..0.66).contains(&piped), "{holds} {piped}");
    }

    #[test]
    fn flour_firms_and_egg_softens() {
        let plain = packed(&[("flour-ap", 300.0), ("butter", 150.0), ("sugar", 120.0), ("egg", 50.0)]);
        assert!(packed(&[("flour-ap", 330.0), ("butter", 150.0), ("sugar", 120.0), ("egg", 50.0)]) > plain);
        assert!(packed(&[("flour-ap", 300.0), ("butter", 150.0), ("sugar", 120.0), ("egg", 65.0)]) < plain);
    }
}
