//! Whether it is well, on the wire.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// It is well.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct HealthView {
    /// Of the program.
    pub version: String,
}
