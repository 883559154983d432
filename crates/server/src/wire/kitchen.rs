//! The kitchen on the wire.

use ready_slab_core::job::{Equipment, KitchenInput};
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
    /// Width and length its trays are sold by, over their rims, where they are half-sheets.
    pub half_sheet_mm: Option<[f64; 2]>,
    /// The kitchen.
    #[serde(flatten)]
    pub body: KitchenInput,
}

impl KitchenView {
    /// The kitchen of a bakery.
    pub fn new(body: &KitchenInput, revision: i64, made_up: bool) -> Self {
        Self { revision, made_up, usual: usual_in(body), half_sheet_mm: body.half_sheet_mm(), body: body.clone() }
    }
}

/// The names of the fields that are as in most kitchens.
fn usual_in(body: &KitchenInput) -> Vec<String> {
    let fields =
        |k: &KitchenInput| serde_json::to_value(k).ok().and_then(|v| v.as_object().cloned()).unwrap_or_default();
    let usual = [KitchenInput::usual(), KitchenInput::usual_us()].map(|k| fields(&k));
    let is_usual = |name: &str, value: &serde_json::Value| usual.iter().any(|k| k.get(name) == Some(value));
    fields(body).into_iter().filter(|(name, value)| is_usual(name, value)).map(|(name, _)| name).collect()
}

/// What a kitchen is equipped in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct EquipBody {
    /// Its guides and trays.
    pub equipment: Equipment,
}
