//! A planned day on the wire: `compute schedule`. The question is the core's own.

use ready_slab_core::clock::{BatchId, DayInput, DayPlace, DayRule, DayTask, PlanBudget, PlannedDay, Step, plan_day};
use ready_slab_core::error::InputErrors;
use ready_slab_words::{System, day_forbidden, day_why};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

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
    pub place: Option<DayPlace>,
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

impl ScheduleResult {
    /// The answer to a question.
    ///
    /// Fails where a field is out of range.
    pub fn of(asked: &DayInput) -> Result<Self, InputErrors> {
        let day = asked.day()?;
        let id = |at: usize| asked.batches[at].id.clone();
        let name = |at: usize| asked.batches[at].id.to_string();
        Ok(match plan_day(&day, PlanBudget { seconds: asked.seconds, seed: 1 }) {
            Ok(plan) => Self::planned(asked, &plan),
            Err(forbidden) => Self {
                makespan_min: None,
                latest_start_min: None,
                bound_min: None,
                proved: false,
                tasks: vec![],
                forbidden: (forbidden.iter())
                    .map(|f| ScheduleForbidden {
                        rule: f.rule,
                        batch: f.batch.map(id),
                        needs: f.needs,
                        has: f.has,
                        why: day_forbidden(f, name).text(System::Metric),
                    })
                    .collect(),
            },
        })
    }

    fn planned(asked: &DayInput, plan: &PlannedDay) -> Self {
        Self {
            makespan_min: Some(plan.makespan_min),
            latest_start_min: asked.finish_by_min.map(|by| by - f64::from(plan.makespan_min)),
            bound_min: Some(plan.bound_min),
            proved: plan.proved(),
            tasks: plan.tasks.iter().filter_map(|t| ScheduleTask::of(asked, t)).collect(),
            forbidden: vec![],
        }
    }
}

impl ScheduleTask {
    fn of(asked: &DayInput, t: &DayTask) -> Option<Self> {
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
        Some(Self {
            batch: asked.batches[t.batch].id.clone(),
            tray: t.tray,
            step,
            start_min: t.start_min,
            end_min: t.end_min,
            place: t.place,
            oven: t.oven,
            why: day_why(&t.why, |at| asked.batches[at].id.to_string()).text(System::Metric),
        })
    }
}
