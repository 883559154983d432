//! The day of one job among whatever else is wanted on its date.

use crate::board::Board;
use crate::problem::ApiError;
use crate::whole::{Family, WholeDate, WholeJob, lot_plans};
use ready_slab_core::error::InputErrors;
use ready_slab_core::job::{Plan, Together, together};
use ready_slab_store::JobId;
use std::sync::Arc;

/// The day of all lots of a job.
pub struct Day {
    /// Where they are among the lots of the date.
    lots: Vec<usize>,
    /// Their plans, their steps where the others leave room for them.
    plans: Vec<Plan>,
    /// What they have to do with each other.
    pub together: Together,
    date: Arc<WholeDate>,
}

impl Day {
    /// All lots planned together with whatever else is wanted on that date; why not, where one of them cannot be planned.
    pub async fn of(board: &Board, family: &Family) -> Result<Result<Self, InputErrors>, ApiError> {
        let date = board.date(family.all[0].job.input().ready_by.date()).await?;
        let own = |id: JobId| family.all.iter().position(|j| j.id == id);
        if let Some((_, faults)) = date.unplanned.iter().find(|(job, _)| own(job.id).is_some()) {
            return Ok(Err(faults.clone()));
        }
        let number = |lot: u32| {
            let (whole, _) = date.lots.get(usize::try_from(lot).ok()?)?;
            own(whole.stored.id).and_then(|n| u32::try_from(n).ok())
        };
        let mut lots: Vec<usize> =
            (0..date.lots.len()).filter(|at| own(date.lots[*at].0.stored.id).is_some()).collect();
        lots.sort_by_key(|at| own(date.lots[*at].0.stored.id));
        let Some(&first) = lots.first() else { return Err(ApiError::Broken) };
        let relay = date.relay.of_lots(number, date.before_min[first]);
        let others = date.lots.iter().filter(|(w, _)| own(w.stored.id).is_none() && w.stored.lot_of().is_none());
        let others = others.map(|(whole, _)| whole.stored.job.input().name.clone()).collect();
        let plans: Vec<Plan> = (lots.iter().enumerate())
            .map(|(i, &at)| {
                let mut plan = date.lots[at].1.clone();
                plan.clock.relay = relay.of_lot(i);
                plan
            })
            .collect();
        let views = lot_plans(lots.iter().map(|at| &date.lots[*at].0).zip(&plans));
        let together = together(&date.lots[first].0.kitchen, &views, relay, others);
        Ok(Ok(Self { lots, plans, together, date }))
    }

    /// Each lot with its plan.
    pub fn lots(&self) -> impl Iterator<Item = (&WholeJob, &Plan)> {
        self.lots.iter().map(|at| &self.date.lots[*at].0).zip(&self.plans)
    }
}
