//! How fast a dough browns: by its sugars, what of them browns early, egg's protein, and soda.

use super::Formula;
use super::ingredient::{Ingredient, Kind, Role};
use super::judgement::Judgement;
use super::reason::{Browning, Reason};
use super::strength::soda_used_up;
use crate::units::Share;

/// What a dough without sugar browns by, and what sugar adds at its usual share of the dough, with an exponent, no further than so many
/// times that. Calibrated.
const PLAIN: f64 = 0.35;
const SWEET: (f64, f64, f64) = (0.22, 0.598_4, 1.6);
/// Reducing sugar, soda left over (% of the flour) and egg's protein: the most each can add, and its scale. The most calibrated, the scales
/// assumed.
const REDUCING: (f64, f64) = (1.41, 0.04);
const SODA: (f64, f64) = (0.465_5, 0.9);
const EGG: (f64, f64) = (2.379, 0.005);
/// The pace of a plain cut-out with a little egg, that is told as usual: butter 100, sugar 90, flour 170, egg 22.
const USUAL: f64 = 2.95;

/// From this share of the dough on cocoa hides the colour. Common practice, no source.
pub(crate) const COCOA_HIDES: f64 = 0.01;

/// Whether the cocoa of a dough hides its colour, so that its middle and a finger tell when it is done.
#[must_use]
pub fn hides_colour(formula: &Formula) -> bool {
    formula.kind_mass(Kind::Cocoa) / formula.total() > COCOA_HIDES
}

/// How fast a dough browns: by its sugar, what of it browns early and egg's protein, all of its mass, and by what soda its acids leave,
/// per cent of the flour.
pub(crate) fn browning_pace(sugar: f64, reducing: f64, soda_percent: f64, egg_protein: f64) -> f64 {
    let adds = |(most, scale): (f64, f64), of: f64| 1.0 + most * (1.0 - (-of / scale).exp());
    (PLAIN + (1.0 - PLAIN) * (sugar / SWEET.0).min(SWEET.2).powf(SWEET.1))
        * adds(REDUCING, reducing)
        * adds(SODA, soda_percent)
        * adds(EGG, egg_protein)
}

/// How fast a formula browns, and why.
pub(super) fn browning(formula: &Formula) -> Judgement<Browning> {
    // Pieces brown by themselves: the dough between them is judged.
    let dough_g = formula.grams_of(|i| if i.kind.is_inclusion() { 0.0 } else { 100.0 });
    let of_dough = |part: &dyn Fn(&Ingredient) -> f64| {
        formula.grams_of(|i| if i.kind.is_inclusion() { 0.0 } else { part(i) }) / dough_g
    };
    let (reducing, sugar) = (of_dough(&|i| i.analysis.reducing), of_dough(&|i| i.analysis.sugars));
    let egg = of_dough(&|i| if i.kind == Kind::Egg { i.analysis.protein } else { 0.0 });
    let used_up = formula.grams_of(|i| 100.0 * soda_used_up(i));
    let soda_g = (formula.mass_of("baking-soda").g() - used_up).max(0.0);
    let soda = 100.0 * soda_g / formula.role_mass(Role::Flour).g().max(1e-9);
    let pace = browning_pace(sugar, reducing, soda, egg) / USUAL;
    let verdict = match pace {
        p if p < 0.75 => Browning::StaysPale,
        p if p < 1.35 => Browning::Golden,
        p if p < 2.0 => Browning::Early,
        _ => Browning::Fast,
    };
    let mut reasons = vec![Reason::Sugars { share: Share::new(sugar) }];
    if egg < 0.001 {
        reasons.push(Reason::LateWithoutEgg);
    }
    if reducing > 0.003 {
        reasons.push(Reason::BrownsEarly {
            share: Share::new(reducing),
            pace: 1.0 + REDUCING.0 * (1.0 - (-reducing / REDUCING.1).exp()),
        });
    }
    if soda > 0.05 {
        reasons.push(Reason::SodaBrowns);
    }
    if hides_colour(formula) {
        reasons.push(Reason::CocoaHides);
    }
    Judgement { verdict, level: (pace.ln() / 3.0_f64.ln() * 0.5 + 0.4).clamp(0.0, 1.0), reasons }
}
