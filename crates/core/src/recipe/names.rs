//! Which ingredient a name means: the longest of its known names within the words of the line.

use super::words::{describes, tokens};
use crate::dough::{Ingredient, Pantry};
use std::collections::HashSet;
use std::sync::Arc;

/// The words of one name and what it names.
type Entry = (Vec<String>, Arc<Ingredient>);

/// All names of a pantry, ready to be looked for.
pub(super) struct Names {
    entries: Vec<Entry>,
}

/// What was found for the words of a line.
pub(super) struct Found {
    pub ingredient: Arc<Ingredient>,
    /// Words of the name that neither belong to it nor only describe.
    pub strange: Vec<String>,
    /// Whether the words are just a name of it, give or take describing ones.
    pub whole: bool,
    /// Other ingredients whose name is wholly among the words that are left.
    pub also: Vec<Arc<Ingredient>>,
}

impl Names {
    pub fn of(pantry: &Pantry) -> Self {
        let mut entries = Vec::with_capacity(pantry.all().len() * 5);
        for ingredient in pantry.all() {
            for name in std::iter::once(&ingredient.name).chain(&ingredient.aliases) {
                let words = tokens(name);
                if !words.is_empty() {
                    entries.push((words, Arc::clone(ingredient)));
                }
            }
        }
        Self { entries }
    }

    /// The ingredient whose longest name is within `name` (with `beside`, words after a comma, to help), or `None`.
    pub fn find(&self, name: &[String], beside: &[String]) -> Option<Found> {
        let best = self.longest(name, beside)?;
        let (words, ingredient) = (&best.0, &best.1);
        let left: Vec<String> = name.iter().filter(|w| !words.contains(w)).cloned().collect();
        // A ground spice is not the fresh root of its name.
        let ground = ingredient.name.starts_with("Ground ");
        let strange: Vec<String> = left.iter().filter(|w| !describes(w) || ground && *w == "fresh").cloned().collect();
        let mut also = Vec::new();
        if !strange.is_empty()
            && let Some(other) = self
                .entries
                .iter()
                .filter(|e| e.1.key != ingredient.key)
                .find(|e| e.0.iter().all(|w| name.contains(w)) && e.0.iter().any(|w| strange.contains(w)))
        {
            also.push(Arc::clone(&other.1));
        }
        Some(Found { ingredient: Arc::clone(ingredient), whole: strange.is_empty(), strange, also })
    }

    fn longest(&self, name: &[String], beside: &[String]) -> Option<&Entry> {
        let own: HashSet<&str> = name.iter().map(String::as_str).collect();
        let all: HashSet<&str> = own.iter().copied().chain(beside.iter().map(String::as_str)).collect();
        let mut best: Option<(usize, &Entry)> = None;
        for entry in &self.entries {
            let within = entry.0.iter().all(|w| all.contains(w.as_str()));
            if !within || !entry.0.iter().any(|w| own.contains(w.as_str())) {
                continue;
            }
            // A longer name says more; words before the comma count more than those after it; the first entry wins a tie.
            let score = entry.0.iter().map(|w| if own.contains(w.as_str()) { 3 } else { 2 }).sum();
            if best.as_ref().is_none_or(|b| score > b.0) {
                best = Some((score, entry));
            }
        }
        best.map(|b| b.1)
    }

    /// Names most like an unknown one, for a question; at most `most`.
    pub fn like(&self, name: &[String], most: usize) -> Vec<Arc<Ingredient>> {
        let mut scored: Vec<(f64, &Arc<Ingredient>)> = Vec::new();
        for (words, ingredient) in &self.entries {
            let near =
                name.iter().flat_map(|a| words.iter().map(move |b| strsim::jaro_winkler(a, b))).fold(0.0, f64::max);
            if near >= 0.84 {
                match scored.iter_mut().find(|s| s.1.key == ingredient.key) {
                    Some(known) => known.0 = known.0.max(near),
                    None => scored.push((near, ingredient)),
                }
            }
        }
        scored.sort_by(|a, b| b.0.total_cmp(&a.0));
        scored.into_iter().take(most).map(|s| Arc::clone(s.1)).collect()
    }
}
