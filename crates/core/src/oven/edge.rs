//! Colours of an edge, as bakers name them.

use serde::{Deserialize, Serialize};
/// The colour at which a bake is ended, or was.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum EdgeColour {
    /// Set, no colour.
    Pale,
    /// The edge just turns.
    JustGolden,
    /// Golden.
    Golden,
    /// Brown.
    Brown,
}

impl EdgeColour {
    /// From pale to brown.
    pub const ALL: [Self; 4] = [Self::Pale, Self::JustGolden, Self::Golden, Self::Brown];
}
