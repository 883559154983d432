//! What 'ready by' means.

use serde::{Deserialize, Serialize};

/// What is to be done by the wanted time.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ReadyMeans {
    /// The last tray is out of the oven.
    Out,
    /// All pieces are cool.
    Cool,
    /// All are finished and dry to the touch: they can be moved and served, not stacked.
    TouchDry,
    /// All are finished and dry through.
    Finished,
    /// All are packed.
    Packed,
}
