//! The day of one job among whatever else is wanted on its date.

use crate::board::Board;
use crate::problem::ApiError;
use crate::whole::{Family, Planned, lot_plans};
use ready_slab_core::error::InputErrors;
use ready_slab_core::job::{Together, together};
use ready_slab_store::JobId;
use std::sync::Arc;

/// The day of all lots of a job.
pub struct Day {
    /// The job and its lots as they were planned.
    pub family: Family,
    /// The lots with their plans, the job itself first.
    pub lots: Vec<Arc<Planned>>,
    /// What they have to do with each other.
    pub together: Together,
}

impl Day {
    /// A job's lots planned together with whatever else is wanted on that date; why not, where one of them cannot be planned.
    pub async fn of(board: &Board, id: JobId) -> Result<Result<Self, InputErrors>, ApiError> {
        let date = board.date_of(id).await?;
        let family = date.family(id).ok_or(ApiError::Broken)?;
        let own = |id: JobId| family.all.iter().position(|j| j.id == id);
        if let Some((job, faults)) = date.unplanned.iter().find(|(job, _)| own(job.id).is_some()) {
            return Ok(Err(faults.clone().within(&format!("item {}", job.job.input().order.name))));
        }
        let number = |lot: u32| {
            let lot = date.lots.get(usize::try_from(lot).ok()?)?;
            own(lot.whole.stored.id).and_then(|n| u32::try_from(n).ok())
        };
        let mut at: Vec<usize> =
            (0..date.lots.len()).filter(|at| own(date.lots[*at].whole.stored.id).is_some()).collect();
        at.sort_by_key(|at| own(date.lots[*at].whole.stored.id));
        let Some(&first) = at.first() else { return Err(ApiError::Broken) };
        let relay = date.relay.of_lots(number, date.before_min[first]);
        let others = date.lots.iter().map(|l| &l.whole.stored).filter(|j| own(j.id).is_none() && j.lot_of().is_none());
        let others = others.map(|j| j.job.input().order.name.clone()).collect();
        let lots: Vec<Arc<Planned>> = at.iter().map(|at| date.lots[*at].clone()).collect();
        let views = lot_plans(lots.iter().map(|l| (&l.whole, &l.plan)));
        let together = together(&lots[0].whole.kitchen, &views, relay, others);
        Ok(Ok(Self { family, lots, together }))
    }
}
