//! Which ingredient a name means: the longest of its known names within the words of the line.

use super::words::{describes, tokens};
use crate::dough::{Ingredient, Kind, Pantry};
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
        // Nor are ground nuts the chopped ones.
        let nut = ingredient.kind == Kind::Nut;
        let strange: Vec<String> = left
            .iter()
            .filter(|w| !describes(w) || ground && *w == "fresh" || nut && *w == "ground")
            .cloned()
            .collect();
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

    /// The ingredient that is called just so.
    pub fn exactly(&self, name: &[String]) -> Option<Arc<Ingredient>> {
        self.entries.iter().find(|e| e.0 == name).map(|e| Arc::clone(&e.1))
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

    /// What an unknown name most likely is, for a question: first what is used alike, then what is spelled alike; at most `most`.
    pub fn like(&self, name: &[String], most: usize) -> Vec<Arc<Ingredient>> {
        let mut found: Vec<Arc<Ingredient>> = Vec::new();
        let mut take = |ingredient: &Arc<Ingredient>| {
            if found.len() < most && found.iter().all(|f| f.key != ingredient.key) {
                found.push(Arc::clone(ingredient));
            }
        };
        let mut scored: Vec<(f64, &Arc<Ingredient>)> = Vec::new();
        for (words, ingredient) in &self.entries {
            let near = name.iter().flat_map(|a| words.iter().map(move |b| spelled_alike(a, b))).fold(0.0, f64::max);
            if near >= SPELLED_ALIKE {
                match scored.iter_mut().find(|s| s.1.key == ingredient.key) {
                    Some(known) => known.0 = known.0.max(near),
                    None => scored.push((near, ingredient)),
                }
            }
        }
        scored.sort_by(|a, b| b.0.total_cmp(&a.0));
        // A slip of the pen is the best guess there is.
        scored.iter().filter(|s| s.0 >= SLIP).for_each(|s| take(s.1));
        let used = USED_AS.iter().find(|(words, _)| name.iter().any(|n| words.contains(&n.as_str())));
        for key in used.iter().flat_map(|(_, keys)| keys.iter()) {
            self.entries.iter().filter(|e| e.1.key == *key).for_each(|e| take(&e.1));
        }
        scored.iter().for_each(|s| take(s.1));
        found
    }
}

/// One spelling beside another: 1 the same. The first letter must be the same, since people rarely miss that.
fn spelled_alike(a: &str, b: &str) -> f64 {
    if a.chars().next() != b.chars().next() || a.len() < 3 || b.len() < 3 {
        return 0.0;
    }
    strsim::normalized_damerau_levenshtein(a, b)
}

/// From here on a spelling is like another, and so like that it is a slip. Our own choice.
const SPELLED_ALIKE: f64 = 0.6;
const SLIP: f64 = 0.8;

/// Foods that are not in the pantry, and what of the pantry is used as they are. From memory.
const USED_AS: [(&[&str], &[&str]); 9] = [
    (
        &[
            "cherry",
            "apricot",
            "date",
            "fig",
            "prune",
            "plum",
            "apple",
            "berry",
            "blueberry",
            "strawberry",
            "raspberry",
            "mango",
            "pineapple",
            "fruit",
        ],
        &["candied-cherry", "dried-cherry", "raisin", "cranberry"],
    ),
    (
        &["cashew", "macadamia", "peanut", "chestnut", "brazil", "nut", "pine"],
        &["hazelnut", "almond", "walnut", "pecan"],
    ),
    (
        &[
            "clove", "anise", "fennel", "cumin", "turmeric", "saffron", "mace", "pepper", "rosemary", "lavender",
            "spice", "herb",
        ],
        &["mixed-spice", "cinnamon", "thyme"],
    ),
    (
        &["muscovado", "demerara", "turbinado", "jaggery", "panela", "sucanat", "coconut"],
        &["sugar-brown", "sugar-dark", "sugar-raw"],
    ),
    (&["agave", "syrup", "nectar", "molasse", "treacle"], &["golden-syrup", "honey", "maple-syrup", "molasses"]),
    (&["dripping", "suet", "tallow", "spread", "crisco"], &["lard", "shortening", "margarine"]),
    (
        &["barley", "millet", "teff", "sorghum", "khorasan", "einkorn", "emmer", "flour"],
        &["flour-ap", "flour-wholewheat", "flour-spelt"],
    ),
    (&["gin", "tequila", "liqueur", "amaretto", "sherry", "wine", "arrack", "schnapps"], &["brandy", "rum", "vodka"]),
    (&["yogurt", "yoghurt", "kefir", "quark", "skyr", "curd"], &["buttermilk", "cream", "cream-cheese"]),
];
