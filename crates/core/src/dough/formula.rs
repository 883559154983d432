//! A formula: ingredients by weight, and what it amounts to.

use super::ingredient::Role;
use super::{Composition, FatKind, Felt, Ingredient, Kind, Pantry, RecipeSays};
use crate::error::{Checks, InputError, InputErrors};
use crate::units::{BakersPercent, Mass};
use serde::{Deserialize, Serialize};
use std::collections::BTreeSet;
use std::sync::Arc;

const MOST_LINES: usize = 60;
/// Least and largest accepted weight of one line, in grams (our own choice: a pinch of spice, and beyond any small
/// bakery's mixer).
const LEAST_LINE_G: f64 = 0.01;
const MOST_LINE_G: f64 = 200_000.0;
const LONGEST_NOTE: usize = 80;

/// One line of a formula.
#[derive(Debug, Clone, PartialEq)]
pub struct FormulaLine {
    ingredient: Arc<Ingredient>,
    mass: Mass,
    note: String,
}

impl FormulaLine {
    /// What goes in.
    #[must_use]
    pub fn ingredient(&self) -> &Arc<Ingredient> {
        &self.ingredient
    }

    /// How much of it.
    #[must_use]
    pub fn mass(&self) -> Mass {
        self.mass
    }

    /// What is done to it first (`toasted, cooled`); often empty.
    #[must_use]
    pub fn note(&self) -> &str {
        &self.note
    }
}

/// One line of a formula, as it comes from outside.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, utoipa::ToSchema)]
#[schema(as = LineBody)]
#[serde(deny_unknown_fields)]
pub struct LineInput {
    /// Key of an ingredient.
    pub ingredient: String,
    /// 0.01 to 200,000.
    pub grams: f64,
    /// What is done to it first, at most 80 characters.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
}

/// A formula as it comes from outside; the only door to [`Formula`].
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, utoipa::ToSchema)]
#[schema(as = FormulaBody)]
#[serde(deny_unknown_fields)]
pub struct FormulaInput {
    /// Its name, 1 to 80 characters.
    pub name: String,
    /// At most 60, with flour and a fat among them.
    pub lines: Vec<LineInput>,
    /// What its recipe says of method, chill and bake; nothing where it says nothing.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub says: Option<RecipeSays>,
}

impl FormulaInput {
    /// The formula of ingredients in a pantry, checked.
    pub fn formula(&self, pantry: &Pantry) -> Result<Formula, InputErrors> {
        let formula = Formula::new(&self.name, &self.lines, pantry)?;
        let says = self.says.filter(|s| !s.is_silent()).map(RecipeSays::checked).transpose()?;
        Ok(formula.with_says(says))
    }
}

impl From<&Formula> for FormulaInput {
    fn from(formula: &Formula) -> Self {
        let line = |l: &FormulaLine| LineInput {
            ingredient: l.ingredient.key.to_string(),
            grams: l.mass.g(),
            note: l.note.clone(),
        };
        Self {
            name: formula.name().to_owned(),
            lines: formula.lines().iter().map(line).collect(),
            says: formula.says().copied(),
        }
    }
}

impl From<(&str, f64)> for LineInput {
    fn from((ingredient, grams): (&str, f64)) -> Self {
        Self { ingredient: ingredient.to_owned(), grams, note: String::new() }
    }
}

/// Ingredients by weight, with flour and fat among them.
#[derive(Debug, Clone, PartialEq)]
pub struct Formula {
    name: String,
    lines: Vec<FormulaLine>,
    /// What hands have found of its dough.
    felt: Felt,
    /// What its recipe says of method, chill and bake.
    says: Option<RecipeSays>,
}

/// A line as a baker's percentage.
#[derive(Debug, Clone, PartialEq)]
pub struct BakersLine {
    /// What goes in.
    pub ingredient: Arc<Ingredient>,
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
}

impl Formula {
    /// A formula of ingredients in the pantry.
    ///
    /// Fails, naming the line, for an unknown ingredient or a weight outside 0.01 g to 200 kg, and when there is no
    /// flour or no fat, since nothing could then be rolled.
    pub fn new(name: &str, lines: &[LineInput], pantry: &Pantry) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        checks.text("name", name, 80, "a name");
        checks.limit("lines", lines.len(), MOST_LINES, "lines");
        if lines.len() > MOST_LINES {
            return checks.finish(()).and(Err(InputError::refused("lines", "too many lines").into()));
        }
        let mut kept = Vec::with_capacity(lines.len());
        for (i, line) in lines.iter().enumerate() {
            checks.range(&format!("lines[{i}].grams"), line.grams, LEAST_LINE_G, MOST_LINE_G, "g");
            if line.note.chars().count() > LONGEST_NOTE {
                checks.text(&format!("lines[{i}].note"), &line.note, LONGEST_NOTE, "a note");
            }
            match pantry.get(&line.ingredient) {
                Some(found) if line.grams.is_finite() => kept.push(FormulaLine {
                    ingredient: Arc::clone(found),
                    mass: Mass::new_g(line.grams),
                    note: line.note.trim().to_owned(),
                }),
                Some(_) => {}
                None => {
                    let shown: String = line.ingredient.chars().filter(|c| !c.is_control()).take(40).collect();
                    checks.push(InputError::refused(
                        format!("lines[{i}].ingredient"),
                        format!(
                            "\u{201c}{shown}\u{201d} isn\u{2019}t in your pantry. Add it, or pick another ingredient."
                        ),
                    ));
                }
            }
        }
        checks.finish(())?;
        Self::of_lines(name, kept)
    }

    /// A formula of lines whose weights were computed; zero and negative ones are dropped.
    pub(crate) fn of_lines(name: &str, lines: Vec<FormulaLine>) -> Result<Self, InputErrors> {
        let lines = lines.into_iter().filter(|l| l.mass.g() > LEAST_LINE_G / 2.0).collect();
        let formula = Self { name: name.trim().to_owned(), lines, felt: Felt::default(), says: None };
        if formula.role_mass(Role::Flour).g() <= 0.0 {
            return Err(InputError::refused("lines", "Dough needs flour. Add a flour, oats or starch.").into());
        }
        if formula.role_mass(Role::Fat).g() <= 0.0 {
            return Err(InputError::refused("lines", "Chilled dough needs a fat. Add butter or another fat.").into());
        }
        Ok(formula)
    }

    /// The same lines with other weights, in their order, and further ones after them.
    pub(crate) fn reweighed(&self, grams: &[f64], further: &[(Arc<Ingredient>, f64)]) -> Result<Self, InputErrors> {
        let own = self.lines.iter().zip(grams).map(|(l, g)| FormulaLine { mass: Mass::new_g(*g), ..l.clone() });
        let says = self.says;
        let new = further.iter().map(|(ingredient, g)| FormulaLine {
            ingredient: Arc::clone(ingredient),
            mass: Mass::new_g(*g),
            note: String::new(),
        });
        Ok(Self::of_lines(&self.name, own.chain(new).collect())?.with_says(says))
    }

    /// The same with one line's ingredient exchanged.
    pub(crate) fn exchanged(&self, line: usize, to: &Arc<Ingredient>) -> Self {
        let mut changed = self.clone();
        changed.lines[line].ingredient = Arc::clone(to);
        changed
    }

    /// The same formula with what hands have found of its dough.
    #[must_use]
    pub fn with_felt(self, felt: Felt) -> Self {
        Self { felt, ..self }
    }

    /// The same with what its recipe says.
    #[must_use]
    pub fn with_says(self, says: Option<RecipeSays>) -> Self {
        Self { says, ..self }
    }

    /// What its recipe says of method, chill and bake.
    #[must_use]
    pub fn says(&self) -> Option<&RecipeSays> {
        self.says.as_ref()
    }

    /// The same with all of one role so many times as much; `None` where there is none of it.
    #[must_use]
    pub fn scaled_role(&self, role: Role, times: f64) -> Option<Self> {
        if self.role_mass(role).g() <= 0.0 {
            return None;
        }
        let mut changed = self.clone();
        for line in changed.lines.iter_mut().filter(|l| l.ingredient.role() == role) {
            line.mass = line.mass * times;
        }
        Some(changed)
    }

    /// The same with a share of all of one role replaced by another ingredient; `None` where nothing can be replaced.
    #[must_use]
    pub fn partly_instead(&self, key: &str, role: Role, share: f64, pantry: &Pantry) -> Option<Self> {
        let mut changed = self.clone();
        let mut taken = Mass::new_g(0.0);
        for line in changed.lines.iter_mut().filter(|l| l.ingredient.role() == role && l.ingredient.key != key) {
            let part = line.mass * share;
            taken = taken + part;
            line.mass = line.mass - part;
        }
        if taken.g() <= 0.0 { None } else { changed.with_added(key, taken, pantry) }
    }

    /// The same with more of an ingredient; `None` for one that is not in the pantry.
    #[must_use]
    pub fn with_added(&self, key: &str, mass: Mass, pantry: &Pantry) -> Option<Self> {
        let mut changed = self.clone();
        match changed.lines.iter_mut().find(|l| l.ingredient.key == key) {
            Some(line) => line.mass = line.mass + mass,
            None => {
                let ingredient = pantry.get(key)?.clone();
                changed.lines.push(FormulaLine { ingredient, mass, note: String::new() });
            }
        }
        Some(changed)
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

    /// Mass of everything that counts as `role`.
    #[must_use]
    pub fn role_mass(&self, role: Role) -> Mass {
        Mass::new_g(self.lines.iter().filter(|l| l.ingredient.role() == role).map(|l| l.mass.g()).sum())
    }

    /// Mass of everything of one kind.
    #[must_use]
    pub fn kind_mass(&self, kind: Kind) -> Mass {
        Mass::new_g(self.lines.iter().filter(|l| l.ingredient.kind == kind).map(|l| l.mass.g()).sum())
    }

    /// Mass of the ingredient kept under `key`.
    #[must_use]
    pub fn mass_of(&self, key: &str) -> Mass {
        Mass::new_g(self.lines.iter().filter(|l| l.ingredient.key == key).map(|l| l.mass.g()).sum())
    }

    /// The heaviest line of a role.
    pub(crate) fn main_line(&self, role: Role) -> Option<usize> {
        let of_role = (0..self.lines.len()).filter(|&i| self.lines[i].ingredient.role() == role);
        of_role.max_by(|&a, &b| self.lines[a].mass.g().total_cmp(&self.lines[b].mass.g()))
    }

    /// Grams of a part of the analysis in all lines together.
    pub(crate) fn grams_of(&self, part: impl Fn(&Ingredient) -> f64) -> f64 {
        self.lines.iter().map(|l| l.mass.g() * part(&l.ingredient) / 100.0).sum()
    }

    /// Every line over the flour's mass.
    #[must_use]
    pub fn bakers_percentages(&self) -> Vec<BakersLine> {
        let flour = self.role_mass(Role::Flour);
        self.lines
            .iter()
            .map(|l| BakersLine {
                ingredient: Arc::clone(&l.ingredient),
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

    /// The same with all that thickens as flour does counted as flour: cocoa, starch, ground nuts. By it doughs are compared with those that practitioners
    /// name.
    #[must_use]
    pub fn ratio_with_dry(&self) -> Ratio {
        let dry = self.lines.iter().filter(|l| {
            l.ingredient.role() == Role::Flour || matches!(l.ingredient.kind, Kind::Cocoa | Kind::Starch | Kind::Meal)
        });
        let dry = Mass::new_g(dry.map(|l| l.mass.g()).sum());
        Ratio { flour: dry / self.role_mass(Role::Fat), ..self.ratio() }
    }

    /// Allergens of all ingredients, each once, in alphabetical order. A draft: local rules decide what a label says.
    #[must_use]
    pub fn allergens(&self) -> Vec<String> {
        let all: BTreeSet<_> = self.lines.iter().flat_map(|l| &l.ingredient.allergens).collect();
        all.into_iter().map(ToString::to_string).collect()
    }

    /// What the dough is made of.
    #[must_use]
    pub fn composition(&self) -> Composition {
        let total = self.total().g();
        let share = |of: &dyn Fn(&Ingredient) -> f64| -> f64 { self.grams_of(of) / total };
        let fat = share(&|i| i.analysis.fat);
        let parts = [
            share(&|i| i.analysis.water + i.analysis.alcohol),
            fat,
            share(&|i| i.analysis.protein),
            share(&|i| i.analysis.carbohydrate),
            share(&|i| i.analysis.ash),
            share(&|i| i.analysis.fibre),
        ];
        let whole: f64 = parts.iter().sum();
        let flour_solids = share(&|i| if i.role() == Role::Flour { 100.0 - i.analysis.water } else { 0.0 });
        let fats = FatKind::ALL
            .into_iter()
            .map(|kind| (kind, share(&|i| if i.fat_kind == kind { i.analysis.fat } else { 0.0 }) / fat))
            .filter(|(_, part)| *part > 0.0)
            .collect();
        Composition {
            water: parts[0] / whole,
            fat: parts[1] / whole,
            protein: parts[2] / whole,
            carbohydrate: parts[3] / whole,
            ash: parts[4] / whole,
            fibre: parts[5] / whole,
            sugars_and_flour_solids: Some((share(&|i| i.analysis.sugars), flour_solids)),
            fats,
            felt: self.felt,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn formula(lines: &[(&str, f64)]) -> Result<Formula, InputErrors> {
        let lines: Vec<LineInput> = lines.iter().map(|l| (*l).into()).collect();
        Formula::new("Test", &lines, Pantry::built_in())
    }

    #[test]
    fn percentages_are_over_all_the_flour_and_the_ratio_over_the_butter() {
        let f = formula(&[("flour-ap", 250.0), ("cornstarch", 50.0), ("butter", 100.0), ("sugar", 100.0)]).unwrap();
        let percents: Vec<f64> = f.bakers_percentages().iter().map(|l| l.percent.percent()).collect();
        assert!((percents[0] - 83.333).abs() < 1e-3 && (percents[2] - 33.333).abs() < 1e-3);
        assert_eq!((f.ratio().sugar, f.ratio().flour), (1.0, 3.0));
        let cocoa = formula(&[("flour-ap", 250.0), ("cocoa", 50.0), ("butter", 100.0), ("sugar", 100.0)]).unwrap();
        assert_eq!((cocoa.ratio().flour, cocoa.ratio_with_dry().flour), (2.5, 3.0));
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
        assert!(formula(&[("flour-ap", 1.0); 61]).unwrap_err().to_string().contains("You have 61"));
    }

    #[test]
    fn allergens_are_named_once() {
        let f = formula(&[("flour-ap", 100.0), ("butter", 50.0), ("milk", 5.0), ("sesame-black", 5.0)]).unwrap();
        assert_eq!(f.allergens(), ["milk", "sesame", "wheat"]);
    }
}
