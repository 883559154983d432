//! Rebalancing: the grams of a few lines are solved for, so that what must stay in the dough stays.

use super::Formula;
use super::ingredient::{Ingredient, Kind};
use super::stiffness::flour_worth;
use crate::error::InputErrors;
use std::sync::Arc;

/// What lines are compared by when one is exchanged for another.
pub(super) type Part = fn(&Ingredient) -> f64;
pub(super) const FAT: Part = |i| i.analysis.fat / 100.0;
// The trace of water in salt is left out: it would stand in the way of taking back what salt was added.
pub(super) const WATER: Part =
    |i| if i.kind == Kind::Salt { 0.0 } else { (i.analysis.water + i.analysis.alcohol) / 100.0 };
pub(super) const SALT: Part = |i| i.analysis.salt / 100.0;
pub(super) const SUGARS: Part = |i| i.analysis.sugars / 100.0;
pub(super) const FIRMNESS: Part = flour_worth;

/// Which lines may give and take, and what must stay.
pub(super) struct Rebalance {
    /// Grams of every line, new ones after the formula's own.
    pub grams: Vec<f64>,
    pub lines: Vec<Arc<Ingredient>>,
    pub own: usize,
}

impl Rebalance {
    pub fn of(formula: &Formula) -> Self {
        Self {
            grams: formula.lines().iter().map(|l| l.mass().g()).collect(),
            lines: formula.lines().iter().map(|l| Arc::clone(l.ingredient())).collect(),
            own: formula.lines().len(),
        }
    }

    /// The line of an ingredient, added with nothing in it where there is none.
    pub fn line(&mut self, ingredient: &Arc<Ingredient>) -> usize {
        self.lines.iter().position(|i| i.key == ingredient.key).unwrap_or_else(|| {
            self.lines.push(Arc::clone(ingredient));
            self.grams.push(0.0);
            self.lines.len() - 1
        })
    }

    pub fn amount(&self, part: Part) -> f64 {
        self.grams.iter().zip(&self.lines).map(|(g, i)| g * part(i)).sum()
    }

    /// Changes the grams of `free` so that each part has its wanted amount again. `false`, and nothing changed, when no
    /// such grams exist or one would be negative.
    pub fn solve(&mut self, free: &[usize], wanted: &[(Part, f64)]) -> bool {
        debug_assert_eq!(free.len(), wanted.len());
        let n = free.len();
        let mut system: Vec<Vec<f64>> = wanted
            .iter()
            .map(|(part, amount)| {
                let mut row: Vec<f64> = free.iter().map(|&l| part(&self.lines[l])).collect();
                row.push(amount - self.amount(*part));
                row
            })
            .collect();
        for column in 0..n {
            let Some(pivot) = (column..n).max_by(|&a, &b| system[a][column].abs().total_cmp(&system[b][column].abs()))
            else {
                return false;
            };
            if system[pivot][column].abs() < 1e-9 {
                return false;
            }
            system.swap(column, pivot);
            let own = system[column].clone();
            for (r, row) in system.iter_mut().enumerate() {
                if r != column {
                    let by = row[column] / own[column];
                    row.iter_mut().zip(&own).for_each(|(x, p)| *x -= by * p);
                }
            }
        }
        let changes: Vec<f64> = (0..n).map(|i| system[i][n] / system[i][i]).collect();
        if free.iter().zip(&changes).any(|(&l, change)| self.grams[l] + change < -1e-6) {
            return false;
        }
        for (&l, change) in free.iter().zip(&changes) {
            self.grams[l] = (self.grams[l] + change).max(0.0);
        }
        true
    }

    pub fn finish(self, formula: &Formula) -> Result<Formula, InputErrors> {
        let further: Vec<(Arc<Ingredient>, f64)> =
            self.lines[self.own..].iter().cloned().zip(self.grams[self.own..].iter().copied()).collect();
        formula.reweighed(&self.grams[..self.own], &further)
    }
}
