//! Levers: one change to a formula, and what has to change with it so that water, fat and firmness stay.
//!
//! Every rebalancing solves a small system of linear equations in a few lines' grams, so that pulling a lever back returns
//! the grams it started from.

use super::ingredient::{Ingredient, Kind, Role};
use super::rebalance::{FAT, FIRMNESS, Part, Rebalance, SALT, SUGARS, WATER};
use super::{EggClass, Formula, Pantry, Reason};
use crate::air::{boiling_c, standard_pressure_pa};
use crate::error::{Checks, InputError, InputErrors};
use crate::units::{Mass, Share, Temperature};
use serde::{Deserialize, Serialize};
use std::sync::Arc;

/// One change to a formula.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
#[schema(as = LeverBody)]
pub enum Lever {
    /// A share of one ingredient is exchanged for another of its role, or flour for cocoa or a meal.
    Swap {
        /// Key of what goes out.
        from: String,
        /// Key of what comes in.
        to: String,
        /// How much of it, 0 to 100.
        share_percent: f64,
    },
    /// Eggs to this mass in all; butter and flour follow.
    Eggs {
        /// Grams.
        grams: f64,
    },
    /// So many whole eggs of a size class, in place of all egg; butter and flour follow.
    EggCount {
        /// 0.25 to 200.
        count: f64,
        /// Their size.
        egg_class: EggClass,
    },
    /// Fats times this; nothing else changes.
    Rich {
        /// 0.5 to 2.
        factor: f64,
    },
    /// A kitchen so high above the sea.
    Altitude {
        /// Metres, 0 to 4,000.
        metres: f64,
    },
    /// Flour that has lain in air of this humidity.
    DampAir {
        /// Relative humidity, 20 to 90 %.
        humidity_percent: f64,
    },
    /// What the bowl asked for before: flour and liquid to these shares more or less.
    FromTheBowl {
        /// Per cent of the flour, -10 to 10.
        flour_percent: f64,
        /// Grams of water to 100 g of flour, -10 to 10.
        water_percent: f64,
    },
}

/// A line before and after.
#[derive(Debug, Clone, PartialEq)]
pub struct LineChange {
    /// What it is.
    pub ingredient: Arc<Ingredient>,
    /// Before; zero when it is new.
    pub before: Mass,
    /// After; zero when it goes.
    pub after: Mass,
}

/// A formula with a lever pulled.
#[derive(Debug, Clone, PartialEq)]
pub struct Pulled {
    /// The formula after.
    pub formula: Formula,
    /// Lines that changed.
    pub changes: Vec<LineChange>,
    /// Why they changed.
    pub reasons: Vec<Reason>,
}

/// Above this height the trade changes formulas. Common practice, no source.
const HIGH_M: f64 = 900.0;
// For each 1,000 m above that: less leavener, less sugar, more liquid and flour. Common practice, no source.
const LEAVENER_A_KM: f64 = -0.15;
const SUGAR_A_KM: f64 = -0.03;
const LIQUID_OF_FLOUR_A_KM: f64 = 0.02;
const FLOUR_A_KM: f64 = 0.02;
/// Water of flour in equilibrium with air: 11.9 % at 55 % humidity, about 0.085 points for each point of it between 30 and
/// 80 %. Typical sorption of wheat flour, from memory.
const MOISTURE_PER_POINT: f64 = 0.085;
const USUAL_HUMIDITY: f64 = 55.0;

impl Lever {
    /// The formula with the lever pulled. The formula given stays as it is.
    ///
    /// Fails, naming the field, when the lever is out of range, the formula has nothing to change, or the rest could not
    /// make up for it.
    pub fn pull(&self, formula: &Formula, pantry: &Pantry) -> Result<Pulled, InputErrors> {
        let (after, reasons) = match self {
            Self::Swap { from, to, share_percent } => swap(formula, pantry, from, to, *share_percent)?,
            Self::Eggs { grams } => eggs(formula, "grams", *grams)?,
            Self::EggCount { count, egg_class } => {
                let mut checks = Checks::new();
                checks.range("count", *count, 0.25, 200.0, "eggs");
                checks.finish(())?;
                eggs(formula, "count", count * egg_class.whole().g())?
            }
            Self::Rich { factor } => rich(formula, *factor)?,
            Self::Altitude { metres } => altitude(formula, pantry, *metres)?,
            Self::DampAir { humidity_percent } => damp_air(formula, *humidity_percent)?,
            Self::FromTheBowl { flour_percent, water_percent } => {
                from_the_bowl(formula, pantry, *flour_percent, *water_percent)?
            }
        };
        Ok(Pulled { changes: difference(formula, &after), formula: after, reasons })
    }
}

/// Lines that differ between two formulas, by ingredient, in the order of the later one, those that went last.
#[must_use]
pub fn difference(before: &Formula, after: &Formula) -> Vec<LineChange> {
    let mut seen: Vec<Arc<Ingredient>> = Vec::new();
    let all = after.lines().iter().chain(before.lines());
    for line in all {
        if !seen.iter().any(|i| i.key == line.ingredient().key) {
            seen.push(Arc::clone(line.ingredient()));
        }
    }
    seen.into_iter()
        .map(|ingredient| LineChange {
            before: before.mass_of(&ingredient.key),
            after: after.mass_of(&ingredient.key),
            ingredient,
        })
        .filter(|c| (c.before.g() - c.after.g()).abs() > 0.005)
        .collect()
}

fn wanted(pantry: &Pantry, field: &str, key: &str) -> Result<Arc<Ingredient>, InputErrors> {
    pantry.get(key).cloned().ok_or_else(|| {
        let shown: String = key.chars().filter(|c| !c.is_control()).take(40).collect();
        InputError::refused(
            field,
            format!("\u{201c}{shown}\u{201d} isn\u{2019}t in your pantry. Add it, or pick another ingredient."),
        )
        .into()
    })
}

fn swap(
    formula: &Formula,
    pantry: &Pantry,
    from: &str,
    to: &str,
    share_percent: f64,
) -> Result<(Formula, Vec<Reason>), InputErrors> {
    let mut checks = Checks::new();
    checks.range("share_percent", share_percent, 0.0, 100.0, "% of that ingredient");
    checks.finish(())?;
    let share = share_percent / 100.0;
    let to = wanted(pantry, "to", to)?;
    let Some(out) = formula.lines().iter().position(|l| l.ingredient().key == from) else {
        return Err(InputError::refused("from", "The recipe has none of that. Pick an ingredient that’s in it.").into());
    };
    let from = Arc::clone(formula.lines()[out].ingredient());
    let alike = from.role() == to.role() && from.role() != Role::Other || from.kind == to.kind;
    let for_flour = |i: &Ingredient| i.role() == Role::Flour || matches!(i.kind, Kind::Cocoa | Kind::Meal);
    if from.key == to.key || !(alike || for_flour(&from) && for_flour(&to)) {
        return Err(InputError::refused(
            "to",
            format!("{} can’t replace {}. Pick something of the same kind.", to.name, from.name.to_lowercase()),
        )
        .into());
    }
    let moved = formula.lines()[out].mass().g() * share;
    let names = (from.name.to_lowercase(), to.name.to_lowercase());
    // A whole exchange takes the line over, so that the order of the formula stays.
    let whole = share >= 1.0 - 1e-12 && !formula.lines().iter().any(|l| l.ingredient().key == to.key);
    let base = if whole { formula.exchanged(out, &to) } else { formula.clone() };
    let before = Rebalance::of(formula);
    let mut b = Rebalance::of(&base);
    let into = b.line(&to);
    if whole {
        b.grams[into] = 0.0;
    } else {
        b.grams[out] -= moved;
    }
    let keep = |part: Part| (part, before.amount(part));
    let stuck = || {
        InputErrors::from(InputError::refused(
            "to",
            format!("Too much {}: the rest of the recipe can’t make up for it. Swap less.", to.name.to_lowercase()),
        ))
    };
    let mut reasons = Vec::new();
    match from.role() {
        Role::Fat => {
            // Fat stays; so does water, where there is water to give or take; so does salt, where it is added or brought.
            let water = b.line(&wanted(pantry, "to", "water")?);
            let salt = b.line(&wanted(pantry, "to", "salt")?);
            if b.solve(&[into, water, salt], &[keep(FAT), keep(WATER), keep(SALT)]) {
                reasons.push(Reason::FatWaterSaltStay);
            } else if without_salt(&mut b, salt).solve(&[into, water], &[keep(FAT), keep(WATER)]) {
                reasons.push(Reason::FatWaterStayLessSalt);
            } else {
                let flour = main_flour(&b)?;
                if !b.solve(&[into, flour], &[keep(FAT), keep(FIRMNESS)]) {
                    return Err(stuck());
                }
                reasons.push(Reason::FatStaysFlourDrinks);
            }
        }
        Role::Sugar => {
            let flour = main_flour(&b)?;
            if !b.solve(&[into, flour], &[keep(SUGARS), keep(FIRMNESS)]) {
                return Err(stuck());
            }
            reasons.push(Reason::SameSugars);
        }
        Role::Egg => {
            let fat = main_fat(&b)?;
            if !b.solve(&[into, fat], &[keep(WATER), keep(FAT)]) {
                return Err(stuck());
            }
            reasons.push(Reason::WaterFatStay);
        }
        Role::Flour | Role::Other if for_flour(&from) => {
            let fat = main_fat(&b)?;
            if !b.solve(&[into, fat], &[keep(FIRMNESS), keep(FAT)]) {
                return Err(stuck());
            }
            reasons.push(Reason::BindsAsMuch);
        }
        Role::Flour | Role::Other => {
            b.grams[into] += moved;
            reasons.push(Reason::GramForGram { from: names.0.clone(), to: to.name.to_string() });
        }
    }
    reasons.insert(0, Reason::Becomes { share: Share::new(share), from: names.0, to: names.1 });
    Ok((b.finish(&base)?, reasons))
}

fn without_salt(b: &mut Rebalance, line: usize) -> &mut Rebalance {
    b.grams[line] = 0.0;
    b
}

fn main_of(b: &Rebalance, role: Role, word: &'static str) -> Result<usize, InputErrors> {
    (0..b.own)
        .filter(|&i| b.lines[i].role() == role && b.grams[i] > 0.0)
        .max_by(|&x, &y| b.grams[x].total_cmp(&b.grams[y]))
        .ok_or_else(|| {
            InputError::refused("from", format!("Not enough {word} left to make up for it. Change less.")).into()
        })
}

fn main_flour(b: &Rebalance) -> Result<usize, InputErrors> {
    main_of(b, Role::Flour, "flour")
}

fn main_fat(b: &Rebalance) -> Result<usize, InputErrors> {
    main_of(b, Role::Fat, "fat")
}

/// Eggs to `grams` in all; a fault names `field`, which said so.
fn eggs(formula: &Formula, field: &str, grams: f64) -> Result<(Formula, Vec<Reason>), InputErrors> {
    let mut checks = Checks::new();
    let total = formula.role_mass(Role::Egg).g();
    checks.range(field, grams, 0.0, formula.total().g() / 2.0, "g");
    if total <= 0.0 {
        checks.push(InputError::refused(field, "This recipe has no egg. Add one first."));
    }
    checks.finish(())?;
    let mut b = Rebalance::of(formula);
    let kept = [(FAT, b.amount(FAT)), (FIRMNESS, b.amount(FIRMNESS))];
    let (fat, flour) = (main_fat(&b)?, main_flour(&b)?);
    for (g, i) in b.grams.iter_mut().zip(&b.lines) {
        if i.role() == Role::Egg {
            *g *= grams / total;
        }
    }
    if !b.solve(&[fat, flour], &kept) {
        return Err(InputError::refused(
            field,
            "Too little butter or flour to make up for that much egg. Use less egg.",
        )
        .into());
    }
    let reasons =
        vec![Reason::EggInstead { mass: Mass::new_g(grams), before: Mass::new_g(total) }, Reason::ButterGivesWay];
    if grams == 0.0 {
        // The line would vanish and with it the way back.
        return Err(InputError::refused("grams", "Use more than 0 g, or remove the egg from the recipe.").into());
    }
    Ok((b.finish(formula)?, reasons))
}

fn rich(formula: &Formula, factor: f64) -> Result<(Formula, Vec<Reason>), InputErrors> {
    let mut checks = Checks::new();
    checks.range("factor", factor, 0.5, 2.0, "times");
    checks.finish(())?;
    let mut b = Rebalance::of(formula);
    for (g, i) in b.grams.iter_mut().zip(&b.lines) {
        if i.role() == Role::Fat {
            *g *= factor;
        }
    }
    let reasons = vec![Reason::FatChanged { by: Share::new(factor - 1.0) }];
    Ok((b.finish(formula)?, reasons))
}

fn altitude(formula: &Formula, pantry: &Pantry, metres: f64) -> Result<(Formula, Vec<Reason>), InputErrors> {
    let mut checks = Checks::new();
    checks.range("metres", metres, 0.0, 4000.0, "m");
    checks.finish(())?;
    let km = ((metres - HIGH_M) / 1000.0).max(0.0);
    let pa = standard_pressure_pa(metres);
    let kpa = pa / 1000.0;
    let mut reasons = vec![Reason::AirAt { metres, kpa, boils: Temperature::new_c(boiling_c(pa)) }];
    if km == 0.0 {
        reasons.push(Reason::TooLowToChange { metres: HIGH_M });
        return Ok((formula.clone(), reasons));
    }
    let mut b = Rebalance::of(formula);
    let flour = formula.role_mass(Role::Flour).g();
    for (g, i) in b.grams.iter_mut().zip(&b.lines) {
        *g *= match (i.kind, i.role()) {
            (Kind::Leavener, _) => (1.0 + LEAVENER_A_KM * km).max(0.3),
            (_, Role::Sugar) => 1.0 + SUGAR_A_KM * km,
            (_, Role::Flour) => 1.0 + FLOUR_A_KM * km,
            _ => 1.0,
        };
    }
    let water = b.line(&wanted(pantry, "metres", "water")?);
    b.grams[water] += flour * LIQUID_OF_FLOUR_A_KM * km;
    reasons.push(Reason::HighUp);
    Ok((b.finish(formula)?, reasons))
}

fn damp_air(formula: &Formula, humidity: f64) -> Result<(Formula, Vec<Reason>), InputErrors> {
    let mut checks = Checks::new();
    checks.range("humidity_percent", humidity, 20.0, 90.0, "%");
    checks.finish(())?;
    let moister = MOISTURE_PER_POINT * (humidity.clamp(30.0, 80.0) - USUAL_HUMIDITY) / 100.0;
    let mut b = Rebalance::of(formula);
    for (g, i) in b.grams.iter_mut().zip(&b.lines) {
        if i.kind == Kind::Flour {
            let dry = 1.0 - i.analysis.water / 100.0;
            // The same dry flour, and as much again as its further water would thin.
            *g *= dry / (dry - moister) + moister;
        }
    }
    let reasons = vec![
        Reason::FlourHolds { humidity: Share::new(humidity / 100.0), more_water: Share::new(moister) },
        Reason::DampFlourWeighed,
    ];
    Ok((b.finish(formula)?, reasons))
}

fn from_the_bowl(
    formula: &Formula,
    pantry: &Pantry,
    flour_percent: f64,
    water_percent: f64,
) -> Result<(Formula, Vec<Reason>), InputErrors> {
    let mut checks = Checks::new();
    checks.range("flour_percent", flour_percent, -10.0, 10.0, "% of the flour");
    checks.range("water_percent", water_percent, -10.0, 10.0, "% of the flour");
    checks.finish(())?;
    let mut b = Rebalance::of(formula);
    let flour = formula.role_mass(Role::Flour).g();
    let main = main_flour(&b)?;
    b.grams[main] += flour * flour_percent / 100.0;
    if water_percent != 0.0 {
        let water = b.line(&wanted(pantry, "water_percent", "water")?);
        b.grams[water] = (b.grams[water] + flour * water_percent / 100.0).max(0.0);
    }
    if b.grams[main] <= 0.0 {
        return Err(InputError::refused("flour_percent", "That leaves no flour. Take away less.").into());
    }
    let reasons = vec![Reason::AsTheBowlAsked];
    Ok((b.finish(formula)?, reasons))
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;
    use rstest::rstest;

    fn formula() -> Formula {
        let lines = [
            ("flour-ap", 430.0),
            ("cornstarch", 30.0),
            ("butter", 225.0),
            ("sugar", 190.0),
            ("egg", 50.0),
            ("salt", 4.0),
        ];
        Formula::new("Lemon", &lines.map(Into::into), Pantry::built_in()).unwrap()
    }

    fn swap_of(from: &str, to: &str, share: f64) -> Lever {
        Lever::Swap { from: from.to_owned(), to: to.to_owned(), share_percent: 100.0 * share }
    }

    fn pull(lever: &Lever) -> Formula {
        lever.pull(&formula(), Pantry::built_in()).unwrap().formula
    }

    fn fat(f: &Formula) -> f64 {
        f.grams_of(|i| i.analysis.fat)
    }

    fn water(f: &Formula) -> f64 {
        f.grams_of(|i| i.analysis.water)
    }

    #[test]
    fn shortening_for_butter_by_hand() {
        // 225 g of butter hold 182.5 g of fat and 38.9 g of water: so much shortening, and the water apart.
        let f = pull(&swap_of("butter", "shortening", 1.0));
        assert!((f.mass_of("shortening").g() - 182.475).abs() < 0.01, "{:?}", f.mass_of("shortening"));
        assert!((f.mass_of("water").g() - 38.925).abs() < 0.01, "{:?}", f.mass_of("water"));
        assert_eq!(f.lines()[2].ingredient().key, "shortening");
    }

    #[test]
    fn salted_butter_brings_the_salt() {
        // 225 g of salted butter hold 3.6 g of salt, more than the 2 g added: all of it goes, and it is said.
        let lines = [("flour-ap", 460.0), ("butter", 225.0), ("sugar", 190.0), ("salt", 2.0)];
        let bland = Formula::new("Bland", &lines.map(Into::into), Pantry::built_in()).unwrap();
        let pulled = swap_of("butter", "butter-salted", 1.0).pull(&bland, Pantry::built_in()).unwrap();
        assert!(pulled.reasons.contains(&Reason::FatWaterStayLessSalt), "{:?}", pulled.reasons);
        assert_eq!(pulled.formula.mass_of("salt").g(), 0.0);
        // With 6 g added there is salt to take away: 6 - 3.6.
        let lines = [("flour-ap", 460.0), ("butter", 225.0), ("sugar", 190.0), ("salt", 6.0)];
        let salty = Formula::new("Salty", &lines.map(Into::into), Pantry::built_in()).unwrap();
        let f = swap_of("butter", "butter-salted", 1.0).pull(&salty, Pantry::built_in()).unwrap().formula;
        assert!((f.mass_of("salt").g() - 2.4).abs() < 0.02, "{:?}", f.mass_of("salt"));
    }

    #[test]
    fn cocoa_takes_its_fat_from_the_butter() {
        let f = pull(&swap_of("flour-ap", "cocoa", 0.15));
        assert!((fat(&f) - fat(&formula())).abs() < 1e-6);
        assert!(f.mass_of("butter") < formula().mass_of("butter"));
        assert!((30.0..80.0).contains(&f.mass_of("cocoa").g()), "{:?}", f.mass_of("cocoa"));
    }

    #[test]
    fn more_egg_is_met_by_flour_and_less_butter() {
        let f = pull(&Lever::Eggs { grams: 60.0 });
        assert!((fat(&f) - fat(&formula())).abs() < 1e-6);
        assert!(f.mass_of("flour-ap") > formula().mass_of("flour-ap"));
    }

    #[test]
    fn high_up_water_boils_where_the_tables_say() {
        // ICAO standard atmosphere and Antoine equation: 1,600 m is about 83.5 kPa, water boils near 94.7 degC.
        let high = pull(&Lever::Altitude { metres: 1900.0 });
        assert!((high.mass_of("sugar").g() - 190.0 * 0.97).abs() < 1e-9);
        assert_eq!(pull(&Lever::Altitude { metres: 500.0 }), formula());
    }

    #[test]
    fn damp_flour_is_weighed_heavier() {
        // At 75 % humidity flour holds 13.6 % water: 430 g of table flour are 438.5 g, and 7.3 g for the water they bring.
        let f = pull(&Lever::DampAir { humidity_percent: 75.0 });
        assert!((f.mass_of("flour-ap").g() - 445.8).abs() < 0.3, "{:?}", f.mass_of("flour-ap"));
        assert!((f.mass_of("cornstarch").g() - 30.0).abs() < 1e-9);
        assert!(pull(&Lever::DampAir { humidity_percent: 35.0 }).mass_of("flour-ap").g() < 430.0);
    }

    #[rstest]
    #[case("butter", "shortening")]
    #[case("butter", "butter-salted")]
    #[case("butter", "margarine")]
    #[case("butter", "butter-rich")]
    #[case("butter", "coconut-oil")]
    #[case("sugar", "sugar-powdered")]
    #[case("sugar", "honey")]
    #[case("flour-ap", "cocoa")]
    #[case("flour-ap", "flour-wholewheat")]
    #[case("flour-ap", "cornstarch")]
    #[case("cornstarch", "flour-ap")]
    #[case("egg", "yolk")]
    fn there_and_back_returns_the_grams(#[case] from: &str, #[case] to: &str) {
        let there = pull(&swap_of(from, to, 1.0));
        // What stood beside the new ingredient already cannot be told apart from what came in.
        let before = formula().mass_of(to).g();
        let back =
            swap_of(to, from, 1.0 - before / there.mass_of(to).g()).pull(&there, Pantry::built_in()).unwrap().formula;
        for line in formula().lines() {
            let key = &line.ingredient().key;
            assert!(
                (back.mass_of(key).g() - formula().mass_of(key).g()).abs() < 0.01,
                "{key}: {:?}",
                back.mass_of(key)
            );
        }
        assert_eq!(back.mass_of("water").g(), 0.0);
    }

    #[rstest]
    #[case(swap_of("butter", "sugar", 1.0), "to")]
    #[case(swap_of("lard", "butter", 1.0), "from")]
    #[case(swap_of("butter", "moon", 1.0), "to")]
    #[case(swap_of("butter", "lard", 1.5), "share_percent")]
    #[case(Lever::EggCount { count: 0.0, egg_class: EggClass::UsLarge }, "count")]
    #[case(Lever::EggCount { count: 190.0, egg_class: EggClass::EuLarge }, "count")]
    #[case(Lever::Rich { factor: 9.0 }, "factor")]
    #[case(Lever::Altitude { metres: f64::NAN }, "metres")]
    #[case(Lever::Eggs { grams: -1.0 }, "grams")]
    #[case(Lever::DampAir { humidity_percent: 100.0 }, "humidity_percent")]
    fn a_lever_that_cannot_be_pulled_says_which_part(#[case] lever: Lever, #[case] field: &str) {
        let errors = lever.pull(&formula(), Pantry::built_in()).unwrap_err();
        assert_eq!(errors.all()[0].field(), field);
    }

    proptest! {
        #[test]
        fn any_part_of_a_swap_keeps_fat_and_water(share in 0.02f64..1.0) {
            let f = pull(&swap_of("butter", "shortening", share));
            // A rest of a few thousandths of a gram is no line of its own and goes away.
            prop_assert!((fat(&f) - fat(&formula())).abs() < 0.01);
            prop_assert!((water(&f) - water(&formula())).abs() < 0.02);
        }

        #[test]
        fn richer_and_back_returns_the_grams(factor in 0.6f64..1.6) {
            let there = pull(&Lever::Rich { factor });
            let back = Lever::Rich { factor: 1.0 / factor }.pull(&there, Pantry::built_in()).unwrap().formula;
            prop_assert!((back.mass_of("butter").g() - 225.0).abs() < 1e-9);
        }
    }
}
