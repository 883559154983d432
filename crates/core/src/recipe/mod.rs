//! Recipes as people write them, read into formulas and written back: free text, schema.org JSON-LD (also inside HTML), CSV
//! and this program's own JSON.
//!
//! Nothing is guessed in silence: every line says how it was read and how sure that is, and what is ambiguous asks.

mod amount;
mod cursor;
mod finishing;
mod formats;
mod line;
mod markup;
mod method;
mod names;
mod pages;
mod question;
mod reading;
mod reason;
mod speech;
mod split;
mod spoken;
mod tongues;
mod weigh;
mod words;
mod write;
mod yields;

pub use amount::CupSystem;
pub use formats::{FormulaFile, RecipeFormat, read_recipe};
pub use method::{Heard, ReadMethod};
pub use pages::LineInFile;
pub use question::{LineAnswer, LineDoubt, Question, SettleOption, Understood};
pub use reading::{LineKind, LineState, MOST_RECIPE_BYTES, MOST_RECIPE_LINES, ReadLine, Reading};
pub use reason::{Ask, LeftOut, ReadBy, Settle};
pub use write::{write_csv, write_json, write_json_ld, write_text};

use crate::dough::{CupWay, EggClass};

/// How a recipe's measures are taken where it does not say.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ReadSettings {
    /// How a cup of flour and other powders is filled.
    pub way: CupWay,
    /// In what cups and spoons.
    pub cups: CupSystem,
    /// Which eggs.
    pub eggs: EggClass,
}

impl Default for ReadSettings {
    /// Spooned and levelled, US cups, US large eggs: what most recipes mean.
    fn default() -> Self {
        Self { way: CupWay::Spooned, cups: CupSystem::Us, eggs: EggClass::UsLarge }
    }
}
