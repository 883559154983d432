//! The kitchen on the wire.

use ready_slab_core::job::KitchenInput;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The kitchen as it stands.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct KitchenView {
    /// How often it has changed; a change names the one it was made from in `If-Match`.
    pub revision: i64,
    /// Whether the bakery is a demo, in which simulated readings may teach.
    pub made_up: bool,
    /// The kitchen.
    #[serde(flatten)]
    pub body: KitchenInput,
}
