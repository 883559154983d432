//! The kitchen on the wire.

use super::{EggWord, HotSpotsBody, TrayWord};
use ready_slab_core::error::InputErrors;
use ready_slab_core::job::{Kitchen, KitchenInput, OvenMeasured};
use ready_slab_core::oven::OvenSetup;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The oven's air at a setting.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OvenReadingBody {
    /// Set to, 100 to 260.
    pub set_c: f64,
    /// Read on a thermometer, within 60 of the setting.
    pub read_c: f64,
    /// How far it swings to either side, 0 to 40; 0 where that was not looked at.
    #[serde(default)]
    pub swing_k: f64,
}

/// The kitchen. A change sends only the fields that change (JSON Merge Patch, RFC 7396).
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KitchenBody {
    /// Its name, 1 to 80 characters.
    pub name: String,
    /// Room, 5 to 40.
    pub room_c: f64,
    /// Fridge air, -2 to 15.
    pub fridge_c: f64,
    /// Whether the fridge has a fan.
    pub fridge_fan: bool,
    /// Freezer air, -40 to -5.
    pub freezer_c: f64,
    /// Usable tray, 100 to 900.
    pub tray_width_mm: f64,
    /// Usable tray, 100 to 900.
    pub tray_length_mm: f64,
    /// What the trays are of.
    pub tray_kind: TrayWord,
    /// 1 to 200.
    pub trays_owned: u32,
    /// Least gap between pieces on a tray, 5 to 80.
    pub least_gap_mm: f64,
    /// Most dough in one mix, 100 to 100,000.
    pub mixer_limit_g: f64,
    /// Guide rods owned, each 1 to 40.
    pub rods_mm: Vec<f64>,
    /// 1 to 20.
    pub ovens: u32,
    /// Trays an oven takes at once, 1 to 20.
    pub racks_per_oven: u32,
    /// Fan ovens.
    pub oven_fan: bool,
    /// The oven's air on a thermometer at settings, at most 12.
    #[serde(default)]
    pub oven_readings: Vec<OvenReadingBody>,
    /// How far the oven's air falls when its door is opened, 0 to 80.
    #[serde(default = "usual_dip")]
    pub door_dip_k: f64,
    /// Until two thirds of that are back, 0.2 to 15.
    #[serde(default = "usual_recovery")]
    pub recovery_min: f64,
    /// Where the oven is hotter; null while nobody has tried.
    #[serde(default)]
    pub hot_spots: Option<HotSpotsBody>,
    /// Whether a covered pot on a burner stands in for an oven.
    #[serde(default)]
    pub cover_pot: bool,
    /// Above the sea, -400 to 4500.
    #[serde(default)]
    pub altitude_m: f64,
    /// To heat the oven, 0 to 120.
    pub preheat_min: f64,
    /// To roll one sheet, 0 to 60.
    pub roll_min: f64,
    /// To cut one piece and place it, 0 to 120.
    pub cut_s: f64,
    /// The mixer's bowl, 300 to 200,000; null while unknown.
    #[serde(default)]
    pub bowl_ml: Option<f64>,
    /// Smallest step of the scale, 0.01 to 50.
    #[serde(default = "usual_step")]
    pub scale_step_g: f64,
    /// Smallest step of the fine scale, 0.01 to 50.
    #[serde(default = "usual_fine_step")]
    pub fine_step_g: f64,
    /// Size class of the eggs.
    #[serde(default = "usual_eggs")]
    pub egg_class: EggWord,
    /// The sign of the money prices are in, 1 to 4 characters.
    #[serde(default = "usual_currency")]
    pub currency: String,
    /// Where its clocks are: a name of the IANA time zone database, such as `Europe/Lisbon`; empty is UTC.
    #[serde(default)]
    pub zone: String,
}

/// The kitchen as it stands.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct KitchenView {
    /// How often it has changed; a change names the one it was made from in `If-Match`.
    pub revision: i64,
    /// Whether the bakery is a demo, in which simulated readings may teach.
    pub made_up: bool,
    /// The kitchen.
    #[serde(flatten)]
    pub body: KitchenBody,
}

// What a kitchen in an older file has.
fn usual_step() -> f64 {
    1.0
}

fn usual_dip() -> f64 {
    OvenSetup::usual(175.0, false).door_dip.k()
}

fn usual_recovery() -> f64 {
    OvenSetup::usual(175.0, false).recovery.min()
}

fn usual_fine_step() -> f64 {
    0.1
}

fn usual_eggs() -> EggWord {
    EggWord::UsLarge
}

fn usual_currency() -> String {
    "\u{20ac}".to_owned()
}

impl From<&Kitchen> for KitchenBody {
    fn from(kitchen: &Kitchen) -> Self {
        let k = kitchen.input().clone();
        Self {
            name: k.name,
            room_c: k.room_c,
            fridge_c: k.fridge_c,
            fridge_fan: k.fridge_fan,
            freezer_c: k.freezer_c,
            tray_width_mm: k.tray_width_mm,
            tray_length_mm: k.tray_length_mm,
            tray_kind: k.tray_kind.into(),
            trays_owned: k.trays_owned,
            least_gap_mm: k.least_gap_mm,
            mixer_limit_g: k.mixer_limit_g,
            rods_mm: k.rods_mm,
            ovens: k.ovens,
            racks_per_oven: k.racks_per_oven,
            oven_fan: k.oven_fan,
            oven_readings: (k.oven_readings.iter())
                .map(|r| OvenReadingBody { set_c: r.set_c, read_c: r.read_c, swing_k: r.swing_k })
                .collect(),
            door_dip_k: k.door_dip_k,
            recovery_min: k.recovery_min,
            hot_spots: k.hot_spots.as_ref().map(HotSpotsBody::from),
            cover_pot: k.cover_pot,
            altitude_m: k.altitude_m,
            preheat_min: k.preheat_min,
            roll_min: k.roll_min,
            cut_s: k.cut_s,
            bowl_ml: k.bowl_ml,
            scale_step_g: k.scale_step_g,
            fine_step_g: k.fine_step_g,
            egg_class: k.egg_class.into(),
            currency: k.currency,
            zone: k.zone,
        }
    }
}

impl TryFrom<KitchenBody> for Kitchen {
    type Error = InputErrors;

    fn try_from(k: KitchenBody) -> Result<Self, InputErrors> {
        Self::new(KitchenInput {
            name: k.name,
            room_c: k.room_c,
            fridge_c: k.fridge_c,
            fridge_fan: k.fridge_fan,
            freezer_c: k.freezer_c,
            tray_width_mm: k.tray_width_mm,
            tray_length_mm: k.tray_length_mm,
            tray_kind: k.tray_kind.into(),
            trays_owned: k.trays_owned,
            least_gap_mm: k.least_gap_mm,
            mixer_limit_g: k.mixer_limit_g,
            rods_mm: k.rods_mm,
            ovens: k.ovens,
            racks_per_oven: k.racks_per_oven,
            oven_fan: k.oven_fan,
            oven_readings: (k.oven_readings.iter())
                .map(|r| OvenMeasured { set_c: r.set_c, read_c: r.read_c, swing_k: r.swing_k })
                .collect(),
            door_dip_k: k.door_dip_k,
            recovery_min: k.recovery_min,
            hot_spots: k.hot_spots.as_ref().map(HotSpotsBody::spots).transpose()?,
            cover_pot: k.cover_pot,
            altitude_m: k.altitude_m,
            preheat_min: k.preheat_min,
            roll_min: k.roll_min,
            cut_s: k.cut_s,
            bowl_ml: k.bowl_ml,
            scale_step_g: k.scale_step_g,
            fine_step_g: k.fine_step_g,
            egg_class: k.egg_class.into(),
            currency: k.currency,
            zone: k.zone,
        })
    }
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
