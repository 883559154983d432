//! The plan on the wire. Only names and units change here; every figure is the core's.

mod clock;
mod cold;
mod dough;
mod oven;
mod shape;

pub(super) use cold::{CurvePoint, PieceWire, ReadyView, WindowView, curve, water_words};
pub(super) use shape::{CutView, cuts};

use super::job::MINUTE_FORMAT;
use super::making::MakingBody;
use super::{CutterView, FinishView};
pub(super) use clock::ClockView;
use cold::ColdView;
use dough::DoughView;
use oven::OvenView;
use ready_slab_core::job::{Job, Kitchen, Plan};
use ready_slab_store::StoredCutter;
use serde::{Deserialize, Serialize};
use shape::ShapeView;
use utoipa::ToSchema;

/// All stations' answers.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PlanView {
    /// Wanted at, local time.
    pub ready_by: String,
    /// How its pieces are made.
    pub making: MakingBody,
    /// The cutter, or what a piece that is not cut looks like from above.
    pub cutter: CutterView,
    /// Dough.
    pub dough: DoughView,
    /// Cold.
    pub cold: ColdView,
    /// Shape.
    pub shape: ShapeView,
    /// Oven.
    pub oven: OvenView,
    /// Finish and keeping.
    pub finish: FinishView,
    /// Clock.
    pub clock: ClockView,
}

fn time(job: &Job, minutes_after: i64) -> String {
    Plan::at(job, minutes_after).format(MINUTE_FORMAT).to_string()
}

fn whole(minutes: f64) -> i64 {
    #[expect(clippy::cast_possible_truncation, reason = "minutes of a day or two")]
    let whole = minutes.round() as i64;
    whole
}

impl PlanView {
    /// The plan of a job, as sent.
    pub fn new(plan: &Plan, job: &Job, kitchen: &Kitchen, cutter: &StoredCutter) -> Self {
        Self {
            ready_by: time(job, 0),
            making: (&job.input().making).into(),
            cutter: cutter.into(),
            dough: dough::dough(plan, job),
            cold: cold::cold(plan, job, kitchen),
            shape: shape::shape(plan, job, kitchen),
            oven: oven::oven(plan),
            finish: (&plan.finish).into(),
            clock: clock::clock(plan, job),
        }
    }
}
