//! Rows of the tables and their way to core values and back. The same structs, as JSON, are the before and after of edits.

use crate::error::StoreError;
use crate::from_row::row;
use crate::things::{CutterId, StoredCutter};
use ready_slab_core::geometry::Outline;
use ready_slab_core::units::Length;
use serde::de::DeserializeOwned;
use serde::{Deserialize, Serialize};

/// The word of a core enum in the file: the one of its JSON.
pub(crate) fn word<T: Serialize>(value: T) -> String {
    match serde_json::to_value(value) {
        Ok(serde_json::Value::String(word)) => word,
        other => unreachable!("an enum of plain variants is one word: {other:?}"),
    }
}

/// The variant that a word stands for.
pub(crate) fn from_word<T: DeserializeOwned>(thing: &'static str, id: i64, word: &str) -> Result<T, StoreError> {
    serde_json::from_value(word.into()).map_err(|_| StoreError::Damaged {
        thing,
        id,
        why: format!("\u{201c}{word}\u{201d} is not a known word"),
    })
}

pub(crate) fn list<T: for<'a> Deserialize<'a>>(thing: &'static str, id: i64, text: &str) -> Result<Vec<T>, StoreError> {
    serde_json::from_str(text).map_err(|e| StoreError::Damaged { thing, id, why: e.to_string() })
}

pub(crate) fn text<T: Serialize>(values: &[T]) -> String {
    serde_json::to_string(values).expect("numbers serialise")
}

fn no_holes() -> String {
    "[]".to_owned()
}

row! {
    #[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
    pub(crate) struct CutterRow {
        pub id: i64,
        pub name: String,
        pub origin: String,
        pub points_mm: String,
        #[serde(default = "no_holes")]
        pub holes_mm: String,
        pub neck_mm: Option<f64>,
    }
}

impl CutterRow {
    pub fn of(id: i64, name: &str, origin: &str, outline: &Outline) -> Self {
        Self::with_neck(id, name, origin, outline, outline.narrowest_neck().map(|l| l.mm()))
    }

    fn with_neck(id: i64, name: &str, origin: &str, outline: &Outline, neck_mm: Option<f64>) -> Self {
        // A thousandth of a millimetre is finer than any tin.
        let exact = |v: f64| (v * 1000.0).round() / 1000.0;
        let ring =
            |points: Vec<(f64, f64)>| -> Vec<[f64; 2]> { points.iter().map(|p| [exact(p.0), exact(p.1)]).collect() };
        Self {
            id,
            name: name.trim().to_owned(),
            origin: origin.to_owned(),
            points_mm: text(&ring(outline.points())),
            holes_mm: text(&outline.holes().into_iter().map(ring).collect::<Vec<_>>()),
            neck_mm,
        }
    }

    /// Whether it is the same tin, whatever its number.
    pub fn alike(&self, other: &Self) -> bool {
        (&self.name, &self.origin, &self.points_mm, &self.holes_mm)
            == (&other.name, &other.origin, &other.points_mm, &other.holes_mm)
    }

    /// An outline that is kept beside a bake: nobody asks for its neck.
    pub fn beside(name: &str, origin: &str, outline: &Outline) -> Self {
        Self::with_neck(0, name, origin, outline, None)
    }

    pub fn into_core(self) -> Result<StoredCutter, StoreError> {
        let points: Vec<(f64, f64)> = list("cutter", self.id, &self.points_mm)?;
        let holes: Vec<Vec<(f64, f64)>> = list("cutter", self.id, &self.holes_mm)?;
        let outline =
            Outline::with_holes(&points, &holes).map_err(|e| StoreError::damaged("cutter", self.id, &e.into()))?;
        Ok(StoredCutter {
            id: CutterId(self.id),
            name: self.name,
            origin: self.origin,
            outline,
            neck: self.neck_mm.and_then(|v| Length::from_mm(v).ok()),
        })
    }
}
