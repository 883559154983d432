//! The plan on the wire. Only names and units change here; every figure is the core's.

mod clock;
mod cold;
mod dough;
mod oven;
mod shape;
mod time;

pub(super) use cold::{CurvePoint, PieceWire, ReadyView, WindowView, curve};
pub(super) use shape::{CutView, cuts};

use super::making::MakingBody;
use super::{CutterView, FinishView, SentenceView, say_all};
pub(super) use clock::ClockView;
use cold::ColdView;
use dough::DoughView;
use oven::OvenView;
use ready_slab_core::job::{Job, Kitchen, Plan};
use ready_slab_store::StoredCutter;
use serde::{Deserialize, Serialize};
use shape::ShapeView;
use time::time;
use utoipa::ToSchema;

/// All stations' answers.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PlanView {
    /// Wanted at, by the kitchen's clock.
    pub ready_by: String,
    /// The same moment, UTC.
    pub ready_utc: String,
    /// The kitchen's time zone, by its IANA name.
    pub zone: String,
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
    /// What to mind with raw dough, each said once.
    pub cautions: Vec<SentenceView>,
}

/// A moment, UTC, to the minute.
const UTC_FORMAT: &str = "%Y-%m-%dT%H:%M:00Z";

impl PlanView {
    /// The plan of a job, as sent.
    pub fn new(plan: &Plan, job: &Job, kitchen: &Kitchen, cutter: &StoredCutter) -> Self {
        Self {
            ready_by: time(plan, job, 0),
            ready_utc: plan.clock.zone.nearest(job.input().ready_by).format(UTC_FORMAT).to_string(),
            zone: plan.clock.zone.name().to_owned(),
            making: (&job.input().making).into(),
            cutter: cutter.into(),
            dough: dough::dough(plan, job),
            cold: cold::cold(plan, job, kitchen),
            shape: shape::shape(plan, job, kitchen),
            oven: oven::oven(plan),
            finish: (&plan.finish).into(),
            clock: clock::clock(plan, job),
            cautions: say_all(&plan.cautions),
        }
    }
}
