//! Units on the wire: the table that the browser converts by, and reading of what people type.

use ready_slab_core::error::InputErrors;
use ready_slab_core::units::{Quantity, UNITS, parse_count, parse_quantity};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A quantity that can be typed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum QuantityWord {
    /// Base unit mm.
    Length,
    /// Base unit g.
    Mass,
    /// Base unit mL.
    Volume,
    /// Base unit degC.
    Temperature,
    /// Base unit min.
    Duration,
    /// Base unit %.
    Percent,
    /// Pieces.
    Count,
}

/// One unit: `base = value * factor + offset`.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct UnitView {
    /// Shown and accepted.
    pub symbol: String,
    /// What it measures.
    pub quantity: QuantityWord,
    /// Into the base unit.
    pub factor: f64,
    /// Into the base unit.
    pub offset: f64,
    /// Where the factor comes from.
    pub source: String,
}

impl UnitView {
    /// The core's table.
    pub fn all() -> Vec<Self> {
        UNITS
            .iter()
            .map(|u| Self {
                symbol: u.symbol.to_owned(),
                quantity: match u.quantity {
                    Quantity::Length => QuantityWord::Length,
                    Quantity::Mass => QuantityWord::Mass,
                    Quantity::Volume => QuantityWord::Volume,
                    Quantity::Temperature => QuantityWord::Temperature,
                    Quantity::Duration => QuantityWord::Duration,
                    Quantity::Percent => QuantityWord::Percent,
                },
                factor: u.factor,
                offset: u.offset,
                source: u.source.to_owned(),
            })
            .collect()
    }
}

/// A text to be read.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ParseRequest {
    /// As what.
    pub quantity: QuantityWord,
    /// As typed.
    pub text: String,
    /// Symbol of the unit that a bare number has; the base unit when empty.
    #[serde(default)]
    pub default_symbol: String,
}

/// The value read.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ParseResult {
    /// In the base unit.
    pub value: f64,
}

impl ParseRequest {
    /// Reads the text.
    pub fn read(&self) -> Result<ParseResult, InputErrors> {
        let (quantity, base) = match self.quantity {
            QuantityWord::Count => {
                return Ok(ParseResult { value: f64::from(parse_count("text", &self.text)?) });
            }
            QuantityWord::Length => (Quantity::Length, "mm"),
            QuantityWord::Mass => (Quantity::Mass, "g"),
            QuantityWord::Volume => (Quantity::Volume, "mL"),
            QuantityWord::Temperature => (Quantity::Temperature, "\u{b0}C"),
            QuantityWord::Duration => (Quantity::Duration, "min"),
            QuantityWord::Percent => (Quantity::Percent, "%"),
        };
        let default = if self.default_symbol.is_empty() { base } else { &self.default_symbol };
        Ok(ParseResult { value: parse_quantity("text", quantity, &self.text, default)? })
    }
}
