//! A day's work as the planner takes it: a kitchen's places and batches of pieces. All spans in whole minutes.

use serde::{Deserialize, Serialize};

/// What the kitchen has; counts and whole minutes.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, utoipa::ToSchema)]
#[schema(as = ScheduleKitchen)]
#[serde(deny_unknown_fields)]
pub struct DayKitchen {
    /// Pairs of hands, 0 to 1,000.
    pub hands: u32,
    /// 0 to 1,000.
    pub mixers: u32,
    /// Places in the fridge, each for a tray or the dough of a batch; 0 to 1,000.
    pub fridge_slots: u32,
    /// Places in the freezer, for trays; 0 to 1,000.
    pub freezer_slots: u32,
    /// 0 to 1,000.
    pub trays: u32,
    /// 0 to 1,000.
    pub ovens: u32,
    /// Trays an oven takes at once, 0 to 1,000.
    pub racks_per_oven: u32,
    /// Before an oven's first load, 0 to 2,880.
    pub preheat_min: i32,
    /// Between loads at different temperatures, 0 to 2,880.
    pub temp_change_min: i32,
    /// Dough that goes back into the cold stays at least so long, 0 to 2,880.
    pub rechill_min: i32,
    /// Trays that can stand to cool, 0 to 1,000.
    pub cooling_slots: u32,
}

/// Where dough or a tray chills.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum DayPlace {
    /// The fridge.
    Fridge,
    /// The freezer.
    Freezer,
    /// Neither: the counter.
    Counter,
}

/// Trays of one kind from one mix.
#[derive(Debug, Clone, PartialEq)]
pub struct DayBatch {
    /// Weighing and mixing: a mixer and hands; 0 where its dough is there, or another batch mixes it.
    pub mix_min: i32,
    /// The batch, from 0, whose mix holds its dough, where that is another.
    pub mixed_by: Option<usize>,
    /// The dough as a lump in the cold, with its rest, before it is formed; 0 where it is formed at once.
    pub bulk_min: i32,
    /// Pressing, rolling between papers, forming: hands.
    pub form_min: i32,
    /// Where the dough chills, or thaws.
    pub dough_place: DayPlace,
    /// In the cold at least.
    pub chill_min: i32,
    /// How long dough that was in the cold from so many minutes on rests on the counter before it can be worked, in order of the first.
    pub rests: Vec<(i32, i32)>,
    /// Rolling and cutting, a tray each: hands.
    pub cut_min: Vec<i32>,
    /// How long the dough can be worked once it is out.
    pub window_min: i32,
    /// Where its cut trays chill; in either cold place when nothing is said.
    pub tray_place: Option<DayPlace>,
    /// A cut tray in the cold at least.
    pub tray_chill_min: i32,
    /// And at most.
    pub tray_chill_max: i32,
    /// The oven set to, degC. Trays go in together only where this and the time are the same.
    pub oven_c: f64,
    /// In the oven.
    pub bake_min: i32,
    /// On the tray after it, which is free then.
    pub cool_min: i32,
    /// On a rack after that, until they can be worked.
    pub rack_min: i32,
    /// Icing, glazing, filling, a tray each: hands; nothing where they stay plain.
    pub finish_min: Vec<i32>,
    /// Until what was put on is dry.
    pub dry_min: i32,
    /// Packing, a tray each: hands.
    pub pack_min: Vec<i32>,
    /// Wanted so long before the last of the day.
    pub wanted_before_min: i32,
    /// Whether it is wanted straight from the oven: it cools after the wanted time.
    pub warm: bool,
}

impl DayBatch {
    /// Trays that are cut in so many minutes each from dough that chills in the fridge, all else without length, or for as long as it likes;
    /// nothing is done to them once they have cooled.
    #[must_use]
    pub fn plain(cut_min: Vec<i32>, oven_c: f64, bake_min: i32) -> Self {
        Self {
            mix_min: 0,
            mixed_by: None,
            bulk_min: 0,
            form_min: 0,
            dough_place: DayPlace::Fridge,
            chill_min: 0,
            rests: vec![],
            cut_min,
            window_min: i32::MAX / 4,
            tray_place: None,
            tray_chill_min: 0,
            tray_chill_max: i32::MAX / 4,
            oven_c,
            bake_min,
            cool_min: 0,
            rack_min: 0,
            finish_min: vec![],
            dry_min: 0,
            pack_min: vec![],
            wanted_before_min: 0,
            warm: false,
        }
    }

    /// Trays.
    #[must_use]
    pub fn trays(&self) -> usize {
        self.cut_min.len()
    }

    /// Rest on the counter after so long in the cold.
    #[must_use]
    pub fn rest_after(&self, chilled_min: i32) -> i32 {
        self.rests.iter().rev().find(|(from, _)| chilled_min >= *from).map_or(0, |(_, rest)| *rest)
    }

    pub(super) fn of(minutes: &[i32], tray: usize) -> i32 {
        minutes.get(tray).copied().unwrap_or(0)
    }
}

/// A day.
#[derive(Debug, Clone, PartialEq)]
pub struct Day {
    /// The kitchen.
    pub kitchen: DayKitchen,
    /// The batches, in the order in which they are baked unless another is better.
    pub batches: Vec<DayBatch>,
}
