//! A day as it is asked for: the planner's JSON, and its ranges.

use super::day::{Day, DayBatch, DayKitchen};
use crate::error::{Checks, InputError, InputErrors};
use serde::{Deserialize, Serialize};
use std::collections::BTreeSet;

/// Most of anything a kitchen has; most batches; most trays of a day; most minutes of one step or stay.
const MOST_PLACES: f64 = 1000.0;
const MOST_BATCHES: usize = 60;
const MOST_TRAYS: u32 = 200;
const MOST_MIN: f64 = 2_880.0;
/// And most of what something may take at most.
const MOST_UNTIL_MIN: f64 = 100_000.0;

/// What a batch is called.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(untagged)]
pub enum BatchId {
    /// By a number.
    Number(i64),
    /// By a name, 1 to 80 characters.
    Name(String),
}

impl std::fmt::Display for BatchId {
    fn fmt(&self, f: &mut std::fmt::Formatter) -> std::fmt::Result {
        match self {
            Self::Number(n) => write!(f, "batch {n}"),
            Self::Name(name) => f.write_str(name),
        }
    }
}

/// Trays of one kind from one mix; whole minutes, 0 to 2,880 each.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, utoipa::ToSchema)]
#[schema(as = ScheduleBatch)]
#[serde(deny_unknown_fields)]
pub struct BatchInput {
    /// What it is called; each once.
    pub id: BatchId,
    /// Trays, 1 to 200; as many of all batches together.
    pub n_trays: u32,
    /// A mixer and hands.
    pub mix_min: i32,
    /// Hands.
    pub form_min: i32,
    /// In the fridge at least.
    pub chill_min: i32,
    /// Longer, and it is too hard; 0 to 100,000.
    pub chill_max: i32,
    /// Dough that is too hard can be worked so long after it comes out.
    pub temper_min: i32,
    /// Hands, each tray.
    pub roll_cut_min: i32,
    /// How long it can be worked once it is out, 0 to 100,000.
    pub work_window_min: i32,
    /// A cut tray in the cold at least.
    pub tray_chill_min: i32,
    /// And at most, 0 to 100,000.
    pub tray_chill_max: i32,
    /// 0 to 400.
    pub bake_temp_c: f64,
    /// In the oven, at least 1.
    pub bake_min: i32,
    /// On its tray afterwards.
    pub cool_on_tray_min: i32,
}

const fn a_second() -> f64 {
    1.0
}

/// A day to plan.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, utoipa::ToSchema)]
#[schema(as = ScheduleRequest)]
#[serde(deny_unknown_fields)]
pub struct DayInput {
    /// The kitchen.
    pub kitchen: DayKitchen,
    /// The batches, 1 to 60.
    pub batches: Vec<BatchInput>,
    /// When all is to have cooled, in minutes of any clock; null when only the length is asked for.
    #[serde(default)]
    pub finish_by_min: Option<f64>,
    /// What may be spent on it, about so long on two quiet cores; 0 to 30. The same always finds the same.
    #[serde(default = "a_second")]
    pub seconds: f64,
}

impl DayInput {
    /// The day.
    ///
    /// Fails, naming each field, where one is out of range.
    pub fn day(&self) -> Result<Day, InputErrors> {
        let mut checks = Checks::new();
        let k = &self.kitchen;
        let places = [
            ("hands", k.hands),
            ("mixers", k.mixers),
            ("fridge_slots", k.fridge_slots),
            ("freezer_slots", k.freezer_slots),
            ("trays", k.trays),
            ("ovens", k.ovens),
            ("racks_per_oven", k.racks_per_oven),
            ("cooling_slots", k.cooling_slots),
        ];
        for (field, count) in places {
            checks.range(&format!("kitchen.{field}"), f64::from(count), 0.0, MOST_PLACES, "");
        }
        let minutes =
            [("preheat_min", k.preheat_min), ("temp_change_min", k.temp_change_min), ("rechill_min", k.rechill_min)];
        for (field, minutes) in minutes {
            checks.range(&format!("kitchen.{field}"), f64::from(minutes), 0.0, MOST_MIN, "min");
        }
        checks.range("seconds", self.seconds, 0.0, 30.0, "s");
        if let Some(by) = self.finish_by_min {
            checks.range("finish_by_min", by, -1e9, 1e9, "min");
        }
        if self.batches.is_empty() {
            checks.push(InputError::refused("batches", "Give at least one batch."));
        }
        checks.limit("batches", self.batches.len(), MOST_BATCHES, "batches");
        let mut ids = BTreeSet::new();
        for (i, b) in self.batches.iter().take(MOST_BATCHES).enumerate() {
            let at = |field: &str| format!("batches[{i}].{field}");
            if let BatchId::Name(name) = &b.id {
                checks.text(&at("id"), name, 80, "a name or a number");
            }
            if !ids.insert(&b.id) {
                checks.push(InputError::refused(at("id"), "Another batch has this name. Give each its own."));
            }
            checks.range(&at("n_trays"), f64::from(b.n_trays), 1.0, f64::from(MOST_TRAYS), "");
            let minutes = [
                ("mix_min", b.mix_min, 0.0),
                ("form_min", b.form_min, 0.0),
                ("chill_min", b.chill_min, 0.0),
                ("temper_min", b.temper_min, 0.0),
                ("roll_cut_min", b.roll_cut_min, 0.0),
                ("tray_chill_min", b.tray_chill_min, 0.0),
                ("bake_min", b.bake_min, 1.0),
                ("cool_on_tray_min", b.cool_on_tray_min, 0.0),
            ];
            for (field, minutes, least) in minutes {
                checks.range(&at(field), f64::from(minutes), least, MOST_MIN, "min");
            }
            let until = [
                ("chill_max", b.chill_max),
                ("work_window_min", b.work_window_min),
                ("tray_chill_max", b.tray_chill_max),
            ];
            for (field, minutes) in until {
                checks.range(&at(field), f64::from(minutes), 0.0, MOST_UNTIL_MIN, "min");
            }
            checks.range(&at("bake_temp_c"), b.bake_temp_c, 0.0, 400.0, "\u{b0}C");
        }
        let all: u64 = self.batches.iter().map(|b| u64::from(b.n_trays)).sum();
        if all > u64::from(MOST_TRAYS) {
            checks
                .push(InputError::refused("batches", format!("At most {MOST_TRAYS} trays in a day. You have {all}.")));
        }
        checks.finish(())?;
        Ok(Day { kitchen: self.kitchen.clone(), batches: self.batches.iter().map(BatchInput::batch).collect() })
    }
}

impl BatchInput {
    fn batch(&self) -> DayBatch {
        let cuts = vec![self.roll_cut_min; usize::try_from(self.n_trays).unwrap_or(0)];
        DayBatch {
            mix_min: self.mix_min,
            form_min: self.form_min,
            chill_min: self.chill_min,
            // Dough that was in there for longer is too hard.
            rests: vec![(self.chill_max + 1, self.temper_min)],
            window_min: self.work_window_min,
            tray_chill_min: self.tray_chill_min,
            tray_chill_max: self.tray_chill_max,
            cool_min: self.cool_on_tray_min,
            ..DayBatch::plain(cuts, self.bake_temp_c, self.bake_min)
        }
    }
}
