//! The lots of one job together, on the wire.

use super::PlanView;
use super::plan::ClockView;
use ready_slab_core::job::{Job, Together};
use ready_slab_store::JobId;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A lot with its own plan.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LotView {
    /// Its number as a job.
    pub job_id: i64,
    /// Its name.
    pub name: String,
    /// Pieces that are baked.
    pub pieces: u32,
    /// Its formula’s name.
    pub formula: String,
    /// The lot whose mixes hold its dough, from 0, when that is another.
    pub mixed_by: Option<usize>,
    /// Its plan by itself.
    pub plan: PlanView,
}

/// Lots whose pieces may lie on one tray.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SizeClassView {
    /// The lots, from 0, the quickest first.
    pub lots: Vec<usize>,
    /// Middle of the time of the quickest.
    pub least_min: f64,
    /// Middle of the time of the slowest.
    pub most_min: f64,
    /// Lots whose last trays go on one.
    pub last_trays: Vec<usize>,
}

/// All lots of a job.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TogetherView {
    /// The job itself first.
    pub lots: Vec<LotView>,
    /// Trays all of them need.
    pub trays: usize,
    /// Which pieces may share a tray.
    pub classes: Vec<SizeClassView>,
    /// The day of all lots.
    pub clock: ClockView,
}

impl TogetherView {
    /// What was found for the lots of `job`.
    pub fn new(lots: Vec<LotView>, job: &Job, found: &Together) -> Self {
        let class = |c: &ready_slab_core::job::SizeClass| SizeClassView {
            lots: c.lots.clone(),
            least_min: c.bake.0.min(),
            most_min: c.bake.1.min(),
            last_trays: c.last_trays.clone(),
        };
        Self {
            trays: lots.iter().map(|l| l.plan.shape.trays.fill.len()).sum(),
            lots,
            classes: found.classes.iter().map(class).collect(),
            clock: ClockView::new(&found.relay, job, found.zone, &found.reasons),
        }
    }
}

impl LotView {
    /// A lot.
    pub fn new(id: JobId, job: &Job, formula: &str, mixed_by: Option<usize>, plan: PlanView) -> Self {
        let pieces = job.baked_pieces();
        Self { job_id: id.0, name: job.input().name.clone(), pieces, formula: formula.to_owned(), mixed_by, plan }
    }
}
