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
    /// Fields that still are as in most kitchens, where nobody has said or measured anything else.
    pub usual: Vec<String>,
    /// The kitchen.
    #[serde(flatten)]
    pub body: KitchenInput,
}

impl KitchenView {
    /// The kitchen of a bakery.
    pub fn new(body: &KitchenInput, revision: i64, made_up: bool) -> Self {
        Self { revision, made_up, usual: usual_in(body), body: body.clone() }
    }
}

/// The names of the fields that are as in most kitchens.
fn usual_in(body: &KitchenInput) -> Vec<String> {
    let fields =
        |k: &KitchenInput| serde_json::to_value(k).ok().and_then(|v| v.as_object().cloned()).unwrap_or_default();
    let usual = fields(&KitchenInput::usual());
    fields(body).into_iter().filter(|(name, value)| usual.get(name) == Some(value)).map(|(name, _)| name).collect()
}
