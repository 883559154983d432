//! What will go wrong with a dough, said before it is mixed.

use super::Formula;
use super::ingredient::{Kind, Role};
use super::strength::{gluten_percent, leavening};

// What is a lot, of the flour's mass. Common practice, no source.
// A teaspoon of soda to two and a quarter cups of flour is 1.7 %, two of powder to three cups 2.6 %: both are ordinary doses.
const MUCH_POWDER_PERCENT: f64 = 3.0;
const MUCH_SODA_PERCENT: f64 = 2.0;
const MUCH_SALT_PERCENT: f64 = 2.5;
const LEAST_GLUTEN_PERCENT: f64 = 5.0;

/// Sentences, each with its figure and what helps.
pub(super) fn warnings(formula: &Formula) -> Vec<String> {
    let flour = formula.role_mass(Role::Flour).g();
    let mut found = Vec::new();
    let salted: Vec<&str> = formula
        .lines()
        .iter()
        .filter(|l| l.ingredient().kind == Kind::Fat && l.ingredient().analysis.salt > 0.5)
        .map(|l| l.ingredient().name.as_ref())
        .collect();
    let added = formula.kind_mass(Kind::Salt).g();
    if let Some(fat) = salted.first()
        && added > 0.0
    {
        found.push(format!("{fat} brings its own salt, and {added:.1} g is added: leave the added salt out."));
    }
    let salt = 100.0 * formula.grams_of(|i| i.analysis.salt) / flour;
    if salt > MUCH_SALT_PERCENT {
        found.push(format!("Salt is {salt:.1} % of the flour; over {MUCH_SALT_PERCENT:.1} % it tastes of salt."));
    }
    let gluten = gluten_percent(formula);
    if gluten < LEAST_GLUTEN_PERCENT {
        found.push(format!(
            "The flour has little strength ({gluten:.1} % of binding protein): it tears as it is rolled; roll it thicker, between papers, with an egg to bind it."
        ));
    }
    if formula.mass_of("colour-liquid").g() > 0.0 {
        found.push("Liquid colour softens the dough and stays faint: use paste.".to_owned());
    }
    let (powder, soda) = leavening(formula);
    if powder > MUCH_POWDER_PERCENT {
        found.push(format!(
            "Baking powder is {powder:.1} % of the flour; over {MUCH_POWDER_PERCENT:.0} % edges dome and blur."
        ));
    }
    if soda > MUCH_SODA_PERCENT {
        found.push(format!(
            "Baking soda is {soda:.1} % of the flour; over {MUCH_SODA_PERCENT:.1} % it tastes of soap and browns fast."
        ));
    }
    let sugar = formula.role_mass(Role::Sugar).g();
    if sugar > flour {
        found.push(format!("There is more sugar than flour ({sugar:.0} g against {flour:.0} g): it runs in the oven and will not hold a cut edge."));
    }
    found
}
