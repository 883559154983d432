//! The lots of one job together, on the wire.

use super::PlanView;
use super::plan::ClockView;
use super::view;
use ready_slab_core::job::{Job, Plan, SizeClass, Together, WhenLate};
use ready_slab_store::JobId;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

view! {
    /// A lot with its own plan.
    pub struct LotView(id: JobId, job: &Job, formula: &str, mixed_by: Option<usize>, plan: PlanView) {
        let pieces = job.baked_pieces();

        /// Its number as a job.
        job_id: i64 = id.0,
        /// Its name.
        name: String = job.input().order.name.clone(),
        /// Pieces that are baked.
        pieces: u32 = pieces,
        /// Its formula’s name.
        formula: String = formula.to_owned(),
        /// The lot whose mixes hold its dough, from 0, when that is another.
        mixed_by: Option<usize> = mixed_by,
        /// Its plan by itself.
        plan: PlanView = plan,
    }
}

view! {
    /// Lots whose pieces may lie on one tray.
    pub struct SizeClassView(c: &SizeClass) {
        /// The lots, from 0, the quickest first.
        lots: Vec<usize> = c.lots.clone(),
        /// Middle of the time of the quickest.
        least_min: f64 = c.bake.0.min(),
        /// Middle of the time of the slowest.
        most_min: f64 = c.bake.1.min(),
        /// Lots whose last trays go on one.
        last_trays: Vec<usize> = c.last_trays.clone(),
    }
}

view! {
    /// All lots of a job.
    pub struct TogetherView(lots: Vec<LotView>, all: &[(&Job, &Plan)], found: &Together) {
        /// Trays all of them need.
        trays: usize = lots.iter().map(|l| l.plan.shape.trays.fill.len()).sum(),
        /// The job itself first.
        lots: Vec<LotView> = lots,
        /// Which pieces may share a tray.
        classes: Vec<SizeClassView> = found.classes.iter().map(Into::into).collect(),
        /// The day of all lots.
        clock: ClockView = ClockView::new(&found.relay, all, found.zone, &[WhenLate::Later], &found.reasons),
    }
}
