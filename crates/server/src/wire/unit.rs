//! Units on the wire: the table that the browser converts by, and reading of what people type.

use super::view;
use ready_slab_core::error::InputErrors;
use ready_slab_core::units::{Quantity, UNITS, Unit, parse_quantity};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

view! {
    /// One unit: `base = value * factor + offset`.
    pub struct UnitView(u: &Unit) {
        /// Shown and accepted.
        symbol: String = u.symbol.to_owned(),
        /// What it measures.
        quantity: Quantity = u.quantity,
        /// Into the base unit.
        factor: f64 = u.factor,
        /// Into the base unit.
        offset: f64 = u.offset,
        /// Where the factor comes from.
        source: String = u.source.to_owned(),
    }
}

impl UnitView {
    /// The core's table.
    pub fn all() -> Vec<Self> {
        UNITS.iter().map(Into::into).collect()
    }
}

/// A text to be read.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ParseRequest {
    /// As what.
    pub quantity: Quantity,
    /// As typed.
    pub text: String,
    /// Symbol of the unit that a bare number has; the base unit when empty.
    #[serde(default)]
    pub default_symbol: String,
}

view! {
    /// The value read.
    pub struct ParseResult(value: f64) {
        /// In the base unit.
        value: f64 = value,
    }
}

impl ParseRequest {
    /// Reads the text.
    pub fn read(&self) -> Result<ParseResult, InputErrors> {
        let default = if self.default_symbol.is_empty() { self.quantity.base() } else { &self.default_symbol };
        Ok(parse_quantity("text", self.quantity, &self.text, default)?.into())
    }
}
