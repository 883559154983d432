//! A planned day on the wire: `compute schedule`.

use ready_slab_core::clock::{
    Day, DayBatch, DayKitchen, DayPlace, DayRule, DayTask, Forbidden, PlanBudget, PlannedDay, Step, plan_day,
};
use ready_slab_core::error::{Checks, InputError, InputErrors};
use ready_slab_words::{System, day_forbidden, day_why};
use serde::{Deserialize, Serialize};
use std::collections::BTreeSet;
use utoipa::ToSchema;

/// Most of anything a kitchen has; most batches; most trays of a day; most minutes of one step or stay.
const MOST_PLACES: f64 = 1000.0;
const MOST_BATCHES: usize = 60;
const MOST_TRAYS: u32 = 200;
const MOST_MIN: f64 = 2_880.0;
/// And most of what something may take at most.
const MOST_UNTIL_MIN: f64 = 100_000.0;

/// What the kitchen has; counts and whole minutes.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ScheduleKitchen {
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
    /// Dough that goes back into the fridge stays at least so long, 0 to 2,880.
    pub rechill_min: i32,
    /// Trays that can stand to cool, 0 to 1,000.
    pub cooling_slots: u32,
}

/// What a batch is called.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
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
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ScheduleBatch {
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
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ScheduleRequest {
    /// The kitchen.
    pub kitchen: ScheduleKitchen,
    /// The batches, 1 to 60.
    pub batches: Vec<ScheduleBatch>,
    /// When all is to have cooled, in minutes of any clock; null when only the length is asked for.
    #[serde(default)]
    pub finish_by_min: Option<f64>,
    /// What may be spent on it, about so long on two quiet cores; 0 to 30. The same always finds the same.
    #[serde(default = "a_second")]
    pub seconds: f64,
}

/// What is done.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ScheduleStep {
    /// Weigh and mix.
    Mix,
    /// Press, roll between papers, shape.
    Form,
    /// The dough in the fridge.
    DoughChill,
    /// Roll and cut a tray.
    RollCut,
    /// A cut tray in the cold.
    TrayChill,
    /// In the oven.
    Bake,
    /// On its tray.
    Cool,
}

/// A cold place.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SchedulePlace {
    /// The fridge.
    Fridge,
    /// The freezer.
    Freezer,
}

/// A task; it takes the minutes from its start up to its end.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ScheduleTask {
    /// The batch.
    pub batch: BatchId,
    /// The tray of it, from 0; of a chill of the dough the tray that is cut first after it; null for mixing and forming.
    pub tray: Option<usize>,
    /// What is done.
    pub step: ScheduleStep,
    /// From the start of the day.
    pub start_min: i32,
    /// It ends there.
    pub end_min: i32,
    /// Where it chills; null for other steps.
    pub place: Option<SchedulePlace>,
    /// The oven, from 0; null for other steps.
    pub oven: Option<usize>,
    /// What holds it there.
    pub why: String,
}

/// A rule that forbids the day.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ScheduleForbidden {
    /// The rule.
    pub rule: DayRule,
    /// The batch it forbids; null when it is all together.
    pub batch: Option<BatchId>,
    /// Places or minutes that would do; null when that is not known.
    pub needs: Option<i32>,
    /// What there is.
    pub has: i32,
    /// The same in words.
    pub why: String,
}

/// A planned day; where a rule forbids it, that is told and the rest is empty.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ScheduleResult {
    /// From the start of the day to the end of the last cooling.
    pub makespan_min: Option<i32>,
    /// When to start to be ready by `finish_by_min`.
    pub latest_start_min: Option<f64>,
    /// No plan is shorter.
    pub bound_min: Option<i32>,
    /// Whether this one is shown to be as short as any.
    pub proved: bool,
    /// All tasks by start; those without length too.
    pub tasks: Vec<ScheduleTask>,
    /// Rules that forbid the day.
    pub forbidden: Vec<ScheduleForbidden>,
}

impl ScheduleRequest {
    fn day(&self) -> Result<Day, InputErrors> {
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
            checks.push(InputError::refused("batches", "needs at least one batch"));
        }
        checks.limit("batches", self.batches.len(), MOST_BATCHES, "batches");
        let mut ids = BTreeSet::new();
        for (i, b) in self.batches.iter().take(MOST_BATCHES).enumerate() {
            let at = |field: &str| format!("batches[{i}].{field}");
            if let BatchId::Name(name) = &b.id {
                checks.text(&at("id"), name, 80, "a name or a number");
            }
            if !ids.insert(&b.id) {
                checks.push(InputError::refused(at("id"), "is the name of another batch; each has its own"));
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
            checks.push(InputError::refused("batches", format!("{all} trays; at most {MOST_TRAYS} in a day")));
        }
        checks.finish(())?;
        let kitchen = DayKitchen {
            hands: k.hands,
            mixers: k.mixers,
            fridge_slots: k.fridge_slots,
            freezer_slots: k.freezer_slots,
            trays: k.trays,
            ovens: k.ovens,
            racks_per_oven: k.racks_per_oven,
            preheat_min: k.preheat_min,
            temp_change_min: k.temp_change_min,
            rechill_min: k.rechill_min,
            cooling_slots: k.cooling_slots,
        };
        Ok(Day { kitchen, batches: self.batches.iter().map(ScheduleBatch::batch).collect() })
    }

    /// The answer.
    ///
    /// Fails where a field is out of range.
    pub fn answer(&self) -> Result<ScheduleResult, InputErrors> {
        let day = self.day()?;
        let name = |at: usize| self.batches[at].id.to_string();
        Ok(match plan_day(&day, PlanBudget { seconds: self.seconds, seed: 1 }) {
            Ok(plan) => self.planned(&day, &plan),
            Err(forbidden) => {
                let forbidden = forbidden.iter().map(|f: &Forbidden| ScheduleForbidden {
                    rule: f.rule,
                    batch: f.batch.map(|at| self.batches[at].id.clone()),
                    needs: f.needs,
                    has: f.has,
                    why: day_forbidden(f, name).text(System::Metric),
                });
                ScheduleResult {
                    makespan_min: None,
                    latest_start_min: None,
                    bound_min: None,
                    proved: false,
                    tasks: vec![],
                    forbidden: forbidden.collect(),
                }
            }
        })
    }

    fn planned(&self, day: &Day, plan: &PlannedDay) -> ScheduleResult {
        ScheduleResult {
            makespan_min: Some(plan.makespan_min),
            latest_start_min: self.finish_by_min.map(|by| by - f64::from(plan.makespan_min)),
            bound_min: Some(plan.bound_min),
            proved: plan.proved(),
            tasks: plan.tasks.iter().filter_map(|t| self.task(day, t)).collect(),
            forbidden: vec![],
        }
    }

    fn task(&self, day: &Day, t: &DayTask) -> Option<ScheduleTask> {
        let step = match t.step {
            Step::Mix => ScheduleStep::Mix,
            Step::Form => ScheduleStep::Form,
            Step::Chill => ScheduleStep::DoughChill,
            Step::Cut => ScheduleStep::RollCut,
            Step::TrayChill => ScheduleStep::TrayChill,
            Step::Bake => ScheduleStep::Bake,
            Step::Cool => ScheduleStep::Cool,
            // Heating and resting are times of the kitchen and the batch, and no tasks of their own here.
            _ => return None,
        };
        // A stay without length uses no place; it is told the one it would use.
        let unused = if day.kitchen.freezer_slots > 0 { SchedulePlace::Freezer } else { SchedulePlace::Fridge };
        let place = match (t.step, t.place) {
            (_, Some(DayPlace::Fridge)) => Some(SchedulePlace::Fridge),
            (_, Some(DayPlace::Freezer)) => Some(SchedulePlace::Freezer),
            (Step::TrayChill, _) => Some(unused),
            _ => None,
        };
        Some(ScheduleTask {
            batch: self.batches[t.batch].id.clone(),
            tray: t.tray,
            step,
            start_min: t.start_min,
            end_min: t.end_min,
            place,
            oven: t.oven,
            why: day_why(&t.why, |at| self.batches[at].id.to_string()).text(System::Metric),
        })
    }
}

impl ScheduleBatch {
    fn batch(&self) -> DayBatch {
        DayBatch {
            mix_min: self.mix_min,
            mixed_by: None,
            bulk_min: 0,
            form_min: self.form_min,
            dough_place: DayPlace::Fridge,
            chill_min: self.chill_min,
            rests: vec![(self.chill_max + 1, self.temper_min)],
            cut_min: vec![self.roll_cut_min; usize::try_from(self.n_trays).unwrap_or(0)],
            window_min: self.work_window_min,
            tray_place: None,
            tray_chill_min: self.tray_chill_min,
            tray_chill_max: self.tray_chill_max,
            oven_c: self.bake_temp_c,
            bake_min: self.bake_min,
            cool_min: self.cool_on_tray_min,
            rack_min: 0,
            finish_min: vec![],
            dry_min: 0,
            pack_min: vec![],
            wanted_before_min: 0,
            warm: false,
        }
    }
}
