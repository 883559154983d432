//! A recipe as its file holds it, before it is understood.

use super::speech::Told;
use crate::dough::RecipeSays;
use serde::{Deserialize, Serialize};

/// A line of it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct LineInFile {
    /// Key of the ingredient.
    pub ingredient: String,
    /// Its name: by it a bakery's own ingredient is found elsewhere.
    pub name: String,
    /// Grams.
    pub grams: f64,
    /// What is done to it first.
    #[serde(default)]
    pub note: String,
}

/// A line as its format gives it.
#[derive(Debug, Clone, PartialEq)]
pub(super) enum Source {
    /// Words to be read.
    Text(String),
    /// A part of a recipe that was told.
    Told(Told),
    /// Name and grams apart.
    Exact(LineInFile),
}

/// A recipe before its lines are understood: what every format is brought to.
#[derive(Debug, Clone, PartialEq, Default)]
pub(super) struct Pages {
    pub title: Option<String>,
    /// Lines of ingredients with their number in the source.
    pub lines: Vec<(usize, Source)>,
    /// Whether the format itself says that all lines are ingredients.
    pub only_ingredients: bool,
    pub yields: Option<String>,
    pub steps: Vec<String>,
    /// What its file says of method, chill and bake.
    pub says: Option<RecipeSays>,
}
