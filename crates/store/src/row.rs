//! Rows that an edit can touch, and where each stands.

use crate::document::{JobRow, KitchenRow};
use crate::error::StoreError;
use crate::rows::CutterRow;
use crate::rows_dough::{FormulaRow, PantryRow, VersionRow};
use serde::{Deserialize, Serialize};

/// Any row that an edit can touch. Facts of the day (pieces in the cold, readings, bakes, notes at the bowl) are none of them.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub(crate) enum Row {
    Kitchen(Box<KitchenRow>),
    Formula(FormulaRow),
    Cutter(CutterRow),
    Job(Box<JobRow>),
    Version(VersionRow),
    Pantry(PantryRow),
}

/// Which table, which number.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct Key {
    pub thing: Thing,
    pub id: i64,
}

#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Thing {
    Kitchen,
    Formula,
    Cutter,
    Job,
    Version,
    Pantry,
}

impl Thing {
    pub const fn word(self) -> &'static str {
        match self {
            Self::Kitchen => "kitchen",
            Self::Formula => "formula",
            Self::Cutter => "cutter",
            Self::Job => "job",
            Self::Version => "recipe version",
            Self::Pantry => "ingredient",
        }
    }

    pub(crate) fn from_word(word: &str) -> Result<Self, StoreError> {
        [Self::Kitchen, Self::Formula, Self::Cutter, Self::Job, Self::Version, Self::Pantry]
            .into_iter()
            .find(|t| t.word() == word)
            .ok_or_else(|| StoreError::Damaged { thing: "edit", id: 0, why: format!("unknown thing {word}") })
    }
}

impl Row {
    pub fn key(&self) -> Key {
        let (thing, id) = match self {
            Self::Kitchen(r) => (Thing::Kitchen, r.id),
            Self::Formula(r) => (Thing::Formula, r.id),
            Self::Cutter(r) => (Thing::Cutter, r.id),
            Self::Job(r) => (Thing::Job, r.id),
            Self::Version(r) => (Thing::Version, r.id),
            Self::Pantry(r) => (Thing::Pantry, r.id),
        };
        Key { thing, id }
    }
}
