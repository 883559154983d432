//! A formula: ingredients by weight, and what it amounts to.

use super::ingredient::Role;
use super::{Composition, FatKind, Ingredient, ingredient};
use crate::error::{Checks, InputError, InputErrors};
use crate::units::{BakersPercent, Mass};

const MOST_LINES: usize = 60;
/// Largest accepted weight of one line, in grams (our own choice: beyond any small bakery's mixer).
const MOST_LINE_G: f64 = 200_000.0;

/// One line of a formula.
#[derive(Debug, Clone, PartialEq)]
pub struct FormulaLine {
    ingredient: &'static Ingredient,
    mass: Mass,
}

impl FormulaLine {
    /// What goes in.
    #[must_use]
    pub fn ingredient(&self) -> &'static Ingredient {
        self.ingredient
    }

    /// How much of it.
    #[must_use]
    pub fn mass(&self) -> Mass {
        self.mass
    }
}

/// Ingredients by weight, with flour and fat among them.
#[derive(Debug, Clone, PartialEq)]
pub struct Formula {
    name: String,
    lines: Vec<FormulaLine>,
}

/// A line as a baker's percentage.
#[derive(Debug, Clone, PartialEq)]
pub struct BakersLine {
    /// What goes in.
    pub ingredient: &'static Ingredient,
    /// Over the flour's mass.
    pub percent: BakersPercent,
}

/// Butter (all fats) : sugar : flour by weight, with the fat as 1.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Ratio {
    /// Sugar over fat.
    pub sugar: f64,
    /// Flour over fat.
    pub flour: f64,
}

impl Ratio {
    /// Flour over butter and sugar together, the measure the spread follows.
    #[must_use]
    pub fn flour_over_rest(self) -> f64 {
        self.flour / (1.0 + self.sugar)
    }

    /// The school it belongs to, in the trade's words. Common practice, no source.
    #[must_use]
    pub fn school(self) -> &'static str {
        let dryness = self.flour_over_rest();
        if self.sugar < 0.8 && self.flour < 2.0 && dryness >= 0.85 {
            "short and tender: more butter than sugar"
        } else if dryness >= 1.3 {
            "holds its shape: near 1 : 1 : 3"
        } else if dryness >= 1.1 {
            "a firm cut-out: between 1 : 1 : 3 and the sweeter doughs"
        } else if dryness >= 0.95 && self.sugar >= 1.5 {
            "sweet and crisp: near 1 : 2 : 3"
        } else if dryness >= 0.82 {
            "a soft cut-out: chill it well, it spreads some"
        } else {
            "rich and soft: better piped or pressed than cut"
        }
    }
}

impl Formula {
    /// A formula from ingredient keys and grams.
    ///
    /// Fails, naming the line, for an unknown ingredient or a weight outside 0.1 g to 200 kg, and when there is no
    /// flour or no fat, since nothing could then be rolled.
    pub fn new(name: &str, lines: &[(String, f64)]) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        checks.text("name", name, 80, "a name");
        if lines.len() > MOST_LINES {
            checks.push(InputError::new(
                "lines",
                crate::error::Problem::TooMany { count: lines.len(), max: MOST_LINES, unit: "lines" },
            ));
            return checks.finish(()).and(Err(InputError::refused("lines", "too many lines").into()));
        }
        let mut kept = Vec::with_capacity(lines.len());
        for (i, (key, grams)) in lines.iter().enumerate() {
            checks.range(&format!("lines[{i}].grams"), *grams, 0.1, MOST_LINE_G, "g");
            match ingredient(key) {
                Some(found) if grams.is_finite() => {
                    kept.push(FormulaLine { ingredient: found, mass: Mass::new_g(*grams) })
                }
                Some(_) => {}
                None => {
                    let shown: String = key.chars().filter(|c| !c.is_control()).take(40).collect();
                    checks.push(InputError::refused(
                        format!("lines[{i}].ingredient"),
                        format!("\u{201c}{shown}\u{201d} is not in the ingredient list"),
                    ));
                }
            }
        }
        let formula = checks.finish(Self { name: name.trim().to_owned(), lines: kept })?;
        if formula.role_mass(Role::Flour).g() <= 0.0 {
            return Err(InputError::refused("lines", "a dough needs flour: add a flour, oats or starch").into());
        }
        if formula.role_mass(Role::Fat).g() <= 0.0 {
            return Err(InputError::refused(
                "lines",
                "a dough that is chilled and rolled needs a fat: add butter or another",
            )
            .into());
        }
        Ok(formula)
    }

    /// Its name.
    #[must_use]
    pub fn name(&self) -> &str {
        &self.name
    }

    /// Its lines in the order written.
    #[must_use]
    pub fn lines(&self) -> &[FormulaLine] {
        &self.lines
    }

    /// The mass of all lines.
    #[must_use]
    pub fn total(&self) -> Mass {
        Mass::new_g(self.lines.iter().map(|l| l.mass.g()).sum())
    }

    fn role_mass(&self, role: Role) -> Mass {
        Mass::new_g(self.lines.iter().filter(|l| l.ingredient.role == role).map(|l| l.mass.g()).sum())
    }

    /// Every line over the flour's mass.
    #[must_use]
    pub fn bakers_percentages(&self) -> Vec<BakersLine> {
        let flour = self.role_mass(Role::Flour);
        self.lines
            .iter()
            .map(|l| BakersLine {
                ingredient: l.ingredient,
                percent: BakersPercent::new_percent(100.0 * (l.mass / flour)),
            })
            .collect()
    }

    /// Fat : sugar : flour with the fats as 1.
    #[must_use]
    pub fn ratio(&self) -> Ratio {
        let fat = self.role_mass(Role::Fat);
        Ratio { sugar: self.role_mass(Role::Sugar) / fat, flour: self.role_mass(Role::Flour) / fat }
    }

    /// Allergens of all ingredients, each once, in alphabetical order. A draft: local rules decide what a label says.
    #[must_use]
    pub fn allergens(&self) -> Vec<&'static str> {
        let mut all: Vec<_> = self.lines.iter().flat_map(|l| l.ingredient.allergens).copied().collect();
        all.sort_unstable();
        all.dedup();
        all
    }

    /// What the dough is made of.
    #[must_use]
    pub fn composition(&self) -> Composition {
        let total = self.total().g();
        let share = |of: &dyn Fn(&Ingredient) -> f64| -> f64 {
            self.lines.iter().map(|l| l.mass.g() * of(l.ingredient) / 100.0).sum::<f64>() / total
        };
        let fat = share(&|i| i.fat);
        let parts = [
            share(&|i| i.water),
            fat,
            share(&|i| i.protein),
            share(&|i| i.carbohydrate),
            share(&|i| i.ash),
            share(&|i| i.fibre),
        ];
        let whole: f64 = parts.iter().sum();
        let flour_solids = share(&|i| if i.role == Role::Flour { 100.0 - i.water } else { 0.0 });
        let fats = FatKind::ALL
            .into_iter()
            .map(|kind| (kind, share(&|i| if i.fat_kind == kind { i.fat } else { 0.0 }) / fat))
            .filter(|(_, part)| *part > 0.0)
            .collect();
        Composition {
            water: parts[0] / whole,
            fat: parts[1] / whole,
            protein: parts[2] / whole,
            carbohydrate: parts[3] / whole,
            ash: parts[4] / whole,
            fibre: parts[5] / whole,
            sugars_and_flour_solids: Some((share(&|i| i.sugars), flour_solids)),
            fats,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn formula(lines: &[(&str, f64)]) -> Result<Formula, InputErrors> {
        Formula::new("Test", &lines.iter().map(|(k, g)| ((*k).to_owned(), *g)).collect::<Vec<_>>())
    }

    #[test]
    fn percentages_are_over_all_the_flour_and_the_ratio_over_the_butter() {
        let f = formula(&[("flour-ap", 250.0), ("cornstarch", 50.0), ("butter", 100.0), ("sugar", 100.0)]).unwrap();
        let percents: Vec<f64> = f.bakers_percentages().iter().map(|l| l.percent.percent()).collect();
        assert!((percents[0] - 83.333).abs() < 1e-3 && (percents[2] - 33.333).abs() < 1e-3);
        assert_eq!((f.ratio().sugar, f.ratio().flour), (1.0, 3.0));
        assert!(f.ratio().school().contains("holds its shape"));
    }

    #[test]
    fn the_composition_is_a_whole_and_does_not_depend_on_the_batch() {
        let one =
            formula(&[("flour-ap", 170.0), ("butter", 100.0), ("sugar", 90.0), ("egg", 22.0), ("salt", 1.0)]).unwrap();
        let ten =
            formula(&[("flour-ap", 1700.0), ("butter", 1000.0), ("sugar", 900.0), ("egg", 220.0), ("salt", 10.0)])
                .unwrap();
        let c = one.composition();
        assert!((c.water + c.fat + c.protein + c.carbohydrate + c.ash + c.fibre - 1.0).abs() < 1e-9);
        assert!((c.fat - ten.composition().fat).abs() < 1e-12);
        assert!((c.fat - 0.222).abs() < 0.005, "{}", c.fat);
    }

    #[test]
    fn each_bad_line_is_named_and_the_rest_is_not_blamed() {
        let errors =
            formula(&[("flour-ap", 170.0), ("moon dust", 5.0), ("butter", -1.0), ("sugar", f64::NAN)]).unwrap_err();
        let fields: Vec<_> = errors.all().iter().map(InputError::field).collect();
        assert_eq!(fields, ["lines[1].ingredient", "lines[2].grams", "lines[3].grams"]);
        assert!(formula(&[("butter", 100.0)]).unwrap_err().to_string().contains("needs flour"));
        assert!(formula(&[("flour-ap", 100.0)]).unwrap_err().to_string().contains("needs a fat"));
        assert!(formula(&[("flour-ap", 1.0); 61]).unwrap_err().to_string().contains("61 lines"));
    }

    #[test]
    fn allergens_are_named_once() {
        let f = formula(&[("flour-ap", 100.0), ("butter", 50.0), ("milk", 5.0), ("sesame-black", 5.0)]).unwrap();
        assert_eq!(f.allergens(), ["milk", "sesame", "wheat"]);
    }
}
