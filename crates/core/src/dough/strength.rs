//! What lifts a dough and what holds it: its leaveners and its gluten, over the flour.

use super::Formula;
use super::ingredient::{Ingredient, Kind, Role};
use crate::units::Mass;

/// Baking powder that self-raising flour holds, of its weight. Common practice, no source.
const SELF_RAISING: f64 = 0.04;

/// Baking powder, with that in self-raising flour: what leavens does so wherever it is asked.
pub(crate) fn powder_mass(formula: &Formula) -> Mass {
    formula.mass_of("baking-powder") + formula.mass_of("flour-self-raising") * SELF_RAISING
}

/// Soda that a gram of the ingredient uses up by its acids, g. Kitchen rules and, for pure acids, stoichiometry by hand: cream of tartar 84 over
/// 188, lemon juice with 6 % of citric acid (3 times 84 over 192), buttermilk with 0.8 % of lactic acid (84 over 90) and its salts. From
/// memory.
pub(crate) fn soda_used_up(ingredient: &Ingredient) -> f64 {
    match ingredient.key.as_ref() {
        "sugar-brown" => 0.001,
        "sugar-dark" => 0.0015,
        "honey" => 0.012,
        "molasses" => 0.010,
        "golden-syrup" => 0.005,
        "cocoa" => 0.03,
        "buttermilk" | "cream-cheese" => 0.009,
        "lemon-juice" => 0.079,
        "orange-juice" => 0.011,
        "cream-of-tartar" => 0.447,
        _ => 0.0,
    }
}

/// Baking powder and soda over the flour, per cent.
pub(super) fn leavening(formula: &Formula) -> (f64, f64) {
    let flour = formula.role_mass(Role::Flour);
    let powder = powder_mass(formula) + formula.mass_of("bakers-ammonia");
    (100.0 * (powder / flour), 100.0 * (formula.mass_of("baking-soda") / flour))
}

/// Protein of wheat, rye and barley over all flour, per cent: what can toughen.
pub(super) fn gluten_percent(formula: &Formula) -> f64 {
    let grams = formula.grams_of(|i| {
        let forms =
            i.kind == Kind::Flour && i.allergens.iter().any(|a| matches!(a.as_ref(), "wheat" | "rye" | "barley"));
        if forms { i.analysis.protein } else { 0.0 }
    });
    100.0 * grams / formula.role_mass(Role::Flour).g()
}
