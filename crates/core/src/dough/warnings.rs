//! What will go wrong with a dough, said before it is mixed.

use super::ingredient::{Kind, Role};
use super::strength::{gluten_percent, leavening};
use super::{Formula, Reason};
use crate::units::{Mass, Share};

// What is a lot, of the flour's mass. Common practice, no source.
// A teaspoon of soda to two and a quarter cups of flour is 1.7 %, two of powder to three cups 2.6 %: both are ordinary doses.
const MUCH_POWDER_PERCENT: f64 = 3.0;
const MUCH_SODA_PERCENT: f64 = 2.0;
const MUCH_SALT_PERCENT: f64 = 2.5;
const LEAST_GLUTEN_PERCENT: f64 = 5.0;

/// Each with its figure.
pub(super) fn warnings(formula: &Formula) -> Vec<Reason> {
    let flour = formula.role_mass(Role::Flour).g();
    let of = |percent: f64| Share::new(percent / 100.0);
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
        found.push(Reason::FatBringsSalt { fat: (*fat).to_owned(), added: Mass::new_g(added) });
    }
    let salt = 100.0 * formula.grams_of(|i| i.analysis.salt) / flour;
    if salt > MUCH_SALT_PERCENT {
        found.push(Reason::Salty { salt: of(salt), from: of(MUCH_SALT_PERCENT) });
    }
    let gluten = gluten_percent(formula);
    if gluten < LEAST_GLUTEN_PERCENT {
        found.push(Reason::LittleStrength { protein: of(gluten) });
    }
    if formula.mass_of("colour-liquid").g() > 0.0 {
        found.push(Reason::LiquidColour);
    }
    let (powder, soda) = leavening(formula);
    if powder > MUCH_POWDER_PERCENT {
        found.push(Reason::MuchPowder { powder: of(powder), from: of(MUCH_POWDER_PERCENT) });
    }
    if soda > MUCH_SODA_PERCENT {
        found.push(Reason::MuchSoda { soda: of(soda), from: of(MUCH_SODA_PERCENT) });
    }
    let sugar = formula.role_mass(Role::Sugar).g();
    if sugar > flour {
        found.push(Reason::MoreSugarThanFlour { sugar: Mass::new_g(sugar), flour: Mass::new_g(flour) });
    }
    found
}
