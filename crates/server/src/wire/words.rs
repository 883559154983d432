//! Words of the trade on the wire, and the core's values they stand for.

use ready_slab_core::cold::Target;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How a place is used.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum UseWord {
    /// As usual.
    Usual,
    /// Crowded, or often opened.
    Busy,
}

/// What a piece is for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PurposeWord {
    /// To be rolled.
    Rolling,
    /// To be sliced.
    Slicing,
    /// Cut pieces, for the oven.
    Oven,
}

impl From<PurposeWord> for Target {
    fn from(word: PurposeWord) -> Self {
        match word {
            PurposeWord::Rolling => Self::Rolling,
            PurposeWord::Slicing => Self::Slicing,
            PurposeWord::Oven => Self::Oven,
        }
    }
}

impl From<Target> for PurposeWord {
    fn from(target: Target) -> Self {
        match target {
            Target::Slicing => Self::Slicing,
            Target::Oven => Self::Oven,
            Target::Rolling | Target::RolledLater | Target::Core(_) => Self::Rolling,
        }
    }
}
