//! What a batch costs, and the draft of its label.

use super::{Formula, Ingredient, Pantry};
use crate::units::{Mass, Share};
use std::sync::Arc;

/// What one line costs in a dough.
#[derive(Debug, Clone, PartialEq)]
pub struct LineCost {
    /// What it is.
    pub ingredient: Arc<Ingredient>,
    /// In the dough.
    pub mass: Mass,
    /// In the bakery's money; unknown where no price was given.
    pub cost: Option<f64>,
}

/// What a dough costs.
#[derive(Debug, Clone, PartialEq)]
pub struct Cost {
    /// By line.
    pub lines: Vec<LineCost>,
    /// Of all lines with a price.
    pub known: f64,
    /// Share of the mass that has a price.
    pub priced: Share,
}

/// What `dough` grams of the formula cost.
#[must_use]
pub fn cost_of(formula: &Formula, dough: Mass, pantry: &Pantry) -> Cost {
    let scale = dough / formula.total();
    let lines: Vec<LineCost> = formula
        .lines()
        .iter()
        .map(|l| {
            let mass = l.mass() * scale;
            LineCost { ingredient: Arc::clone(l.ingredient()), mass, cost: pantry.cost(&l.ingredient().key, mass) }
        })
        .collect();
    let priced: f64 = lines.iter().filter(|l| l.cost.is_some()).map(|l| l.mass.g()).sum();
    Cost { known: lines.iter().filter_map(|l| l.cost).sum(), priced: Share::new(priced / dough.g()), lines }
}

/// One name on a label.
#[derive(Debug, Clone, PartialEq)]
pub struct LabelItem {
    /// As it is written.
    pub name: String,
    /// Of the dough as mixed.
    pub share: Share,
    /// Allergens in it.
    pub allergens: Vec<String>,
}

/// The ingredients in descending weight, one ingredient once. A draft: local rules decide.
#[must_use]
pub fn label(formula: &Formula) -> Vec<LabelItem> {
    let total = formula.total();
    let mut items: Vec<LabelItem> = Vec::new();
    for line in formula.lines() {
        let name = line.ingredient().name.to_lowercase();
        let share = line.mass() / total;
        match items.iter_mut().find(|i| i.name == name) {
            Some(item) => item.share = Share::new(item.share.value() + share),
            None => items.push(LabelItem {
                name,
                share: Share::new(share),
                allergens: line.ingredient().allergens.iter().map(ToString::to_string).collect(),
            }),
        }
    }
    items.sort_by(|a, b| b.share.value().total_cmp(&a.share.value()));
    items
}

/// The label as one line of text, allergens in capitals.
#[must_use]
pub fn label_text(items: &[LabelItem]) -> String {
    let name = |item: &LabelItem| {
        let apart: Vec<String> =
            item.allergens.iter().filter(|a| !item.name.contains(a.as_str())).map(|a| a.to_uppercase()).collect();
        let own = item.allergens.iter().fold(item.name.clone(), |text, a| text.replace(a.as_str(), &a.to_uppercase()));
        if apart.is_empty() { own } else { format!("{own} ({})", apart.join(", ")) }
    };
    let text = items.iter().map(name).collect::<Vec<_>>().join(", ");
    let mut chars = text.chars();
    chars.next().map_or(String::new(), |first| first.to_uppercase().collect::<String>() + chars.as_str() + ".")
}

#[cfg(test)]
mod tests {
    use super::*;

    fn formula() -> Formula {
        let lines = [
            ("flour-ap", 300.0),
            ("butter", 150.0),
            ("sugar", 100.0),
            ("egg", 50.0),
            ("almond-meal", 40.0),
            ("sugar", 20.0),
        ];
        Formula::new("Test", &lines.map(Into::into), Pantry::built_in()).unwrap()
    }

    #[test]
    fn a_label_lists_by_weight_and_shouts_its_allergens() {
        let items = label(&formula());
        let names: Vec<&str> = items.iter().map(|i| i.name.as_str()).collect();
        assert_eq!(names, ["all-purpose flour", "unsalted butter", "granulated sugar", "whole egg", "almond meal"]);
        assert!((items.iter().map(|i| i.share.value()).sum::<f64>() - 1.0).abs() < 1e-12);
        assert_eq!(
            label_text(&items),
            "All-purpose flour (WHEAT), unsalted butter (MILK), granulated sugar, whole EGG, ALMOND meal."
        );
    }

    #[test]
    fn costs_add_up_and_say_how_much_of_the_dough_they_cover() {
        let prices = vec![("flour-ap".to_owned(), 1.2), ("butter".to_owned(), 9.0)];
        let pantry = Pantry::with(vec![], prices).unwrap();
        let cost = cost_of(&formula(), Mass::new_g(1320.0), &pantry);
        // Twice the formula: 600 g of flour at 1.20 a kilogram and 300 g of butter at 9.00.
        assert!((cost.known - (0.72 + 2.70)).abs() < 1e-9);
        assert!((cost.priced.value() - 450.0 / 660.0).abs() < 1e-12);
        assert_eq!(cost.lines[2].cost, None);
    }
}
