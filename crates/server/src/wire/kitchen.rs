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

/// A field in words, for the label of an edit.
pub fn kitchen_word(field: &str) -> &'static str {
    match field {
        "name" => "kitchen's name",
        "room_c" => "room temperature",
        "fridge_c" => "fridge temperature",
        "fridge_fan" => "fridge fan",
        "freezer_c" => "freezer temperature",
        "tray_width_mm" | "tray_length_mm" => "tray size",
        "tray_kind" => "trays",
        "trays_owned" => "number of trays",
        "least_gap_mm" => "least gap on the tray",
        "mixer_limit_g" => "mixer's limit",
        "rods_mm" => "guide rods",
        "ovens" => "number of ovens",
        "racks_per_oven" => "racks in the oven",
        "oven_fan" => "oven fan",
        "oven_readings" => "readings of the oven",
        "door_dip_k" => "fall of the oven with its door",
        "recovery_min" => "recovery of the oven",
        "hot_spots" => "hot spots of the oven",
        "cover_pot" => "oven or covered pot",
        "altitude_m" => "altitude",
        "preheat_min" => "time to heat the oven",
        "roll_min" => "time to roll a sheet",
        "cut_s" => "time to cut a piece",
        "bowl_ml" => "mixer's bowl",
        "scale_step_g" => "step of the scale",
        "fine_step_g" => "step of the fine scale",
        "egg_class" => "size of the eggs",
        "currency" => "money",
        "zone" => "time zone",
        _ => "kitchen",
    }
}
