//! The plan on the wire. Only names and units change here; every figure is the core's.

mod clock;
mod cold;
mod dough;
mod oven;
mod shape;
mod time;

pub(super) use cold::{CurvePoint, ReadyView, WindowView, curve};

use super::{CutterView, FinishView, SentenceView, say_all};
use crate::wire::view;
pub(super) use clock::{ClockView, TaskView};
use cold::ColdView;
use dough::DoughView;
use oven::OvenView;
use ready_slab_core::job::{Job, Kitchen, Making, Plan, ReadyMeans};
use ready_slab_store::StoredCutter;
use serde::{Deserialize, Serialize};
use shape::ShapeView;
use time::time;
use utoipa::ToSchema;

view! {
    /// All stations' answers.
    pub struct PlanView(plan: &Plan, job: &Job, kitchen: &Kitchen, cutter: &StoredCutter) {
        /// Wanted at, by the kitchen's clock.
        ready_by: String = time(plan, job, 0),
        /// What is done by then, as this job has it.
        ready_means: ReadyMeans = job.ready_means(),
        /// The same moment, UTC.
        ready_utc: String = plan.clock.zone.nearest(job.input().order.ready_by).format(UTC_FORMAT).to_string(),
        /// The kitchen's time zone, by its IANA name.
        zone: String = plan.clock.zone.name().to_owned(),
        /// How its pieces are made.
        making: Making = job.input().shape.making.clone(),
        /// Whether its sheets are cut on the paper of their tray.
        cut_in_place: bool = job.cut_in_place(),
        /// Whether its pieces are pricked.
        pricked: bool = job.input().shape.pricked,
        /// The cutter, or what a piece that is not cut looks like from above.
        cutter: CutterView = cutter.into(),
        /// Dough.
        dough: DoughView = DoughView::new(plan, job),
        /// Cold.
        cold: ColdView = ColdView::new(plan, job, kitchen),
        /// Shape.
        shape: ShapeView = ShapeView::new(plan, job, kitchen),
        /// Oven.
        oven: OvenView = plan.into(),
        /// Finish and keeping.
        finish: FinishView = (&plan.finish).into(),
        /// Clock.
        clock: ClockView = ClockView::new(&plan.clock.relay, &[(job, plan)], plan.clock.zone, &plan.clock.when_late, &plan.clock.reasons),
        /// What to mind with raw dough, each said once.
        cautions: Vec<SentenceView> = say_all(&plan.cautions),
    }
}

/// A moment, UTC, to the minute.
const UTC_FORMAT: &str = "%Y-%m-%dT%H:%M:00Z";
