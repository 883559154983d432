//! A job with all that it refers to, as the stations need it.

use crate::problem::ApiError;
use ready_slab_core::cold::{Finding, Learnt, Window, learn_limits};
use ready_slab_core::dough::Formula;
use ready_slab_core::error::{InputError, InputErrors};
use ready_slab_core::job::{AlsoMixed, DoughPlan, Kitchen, Plan, dough_of, plan_dough, plan_with};
use ready_slab_store::{JobId, Store, StoredCutter, StoredFormula, StoredJob, StoredTouch};

/// A job, its formula at the version it keeps and as hands have found it, its cutter, the kitchen as it is known, and the jobs
/// whose dough is mixed with it.
pub struct WholeJob {
    pub stored: StoredJob,
    pub formula: StoredFormula,
    pub cutter: StoredCutter,
    pub kitchen: Kitchen,
    /// What hands have found of the formula's dough, the newest first.
    pub touches: Vec<StoredTouch>,
    /// Working temperatures by the dough's fat alone, and how far hands have moved them; absent where no cold makes it firm.
    pub felt: Option<(Window, Learnt)>,
    with: Vec<(StoredJob, StoredCutter)>,
}

/// The formula as hands have found it.
fn as_felt(formula: Formula, touches: &[StoredTouch]) -> (Formula, Option<(Window, Learnt)>) {
    let Some(by_fat) = Window::of(&formula.composition()) else { return (formula, None) };
    let findings: Vec<Finding> = touches.iter().map(|t| t.finding).collect();
    let learnt = learn_limits(&by_fat, &findings);
    (formula.with_felt(learnt.felt()), Some((by_fat, learnt)))
}

impl WholeJob {
    /// Reads it.
    pub async fn read(store: &Store, id: JobId) -> Result<Self, ApiError> {
        let stored = store.job(id).await?;
        let mut formula = store.formula_at(stored.formula_id, stored.formula_version).await?;
        let touches = store.touches(formula.id).await?;
        let felt;
        (formula.formula, felt) = as_felt(formula.formula, &touches);
        let cutter = store.cutter(stored.cutter_id).await?;
        let mut with = Vec::new();
        for other in store.jobs().await?.into_iter().filter(|j| j.dough_with == Some(id)) {
            // Another formula, or another version of it, is another dough.
            let same = store.formula_at(other.formula_id, other.formula_version).await?;
            if same.id == formula.id && same.formula.lines() == formula.formula.lines() {
                let cutter = store.cutter(other.cutter_id).await?;
                with.push((other, cutter));
            }
        }
        Ok(Self { stored, formula, cutter, kitchen: store.kitchen_as_known().await?, touches, felt, with })
    }

    fn also(&self, kitchen: &Kitchen) -> Result<Vec<AlsoMixed>, InputErrors> {
        self.with
            .iter()
            .map(|(job, cutter)| {
                Ok(AlsoMixed {
                    name: job.job.input().name.clone(),
                    pieces: job.job.input().pieces,
                    dough: dough_of(&job.job, &self.formula.formula, &cutter.outline, kitchen)?,
                })
            })
            .collect()
    }

    /// The whole plan.
    pub fn plan(&self) -> Result<Plan, InputErrors> {
        self.plan_in(&self.kitchen)
    }

    /// The whole plan, were the kitchen another.
    pub fn plan_in(&self, kitchen: &Kitchen) -> Result<Plan, InputErrors> {
        let also = self.also(kitchen)?;
        plan_with(&self.stored.job, &self.formula.formula, &self.cutter.outline, kitchen, &also)
    }

    /// The dough station alone.
    pub fn dough(&self) -> Result<DoughPlan, InputErrors> {
        plan_dough(
            &self.stored.job,
            &self.formula.formula,
            &self.cutter.outline,
            &self.kitchen,
            &self.also(&self.kitchen)?,
        )
    }
}

/// Whether a job's dough may be mixed with that of the job it names.
pub async fn check_shared_dough(store: &Store, job: &StoredJob) -> Result<(), ApiError> {
    let Some(with) = job.dough_with else { return Ok(()) };
    let refuse = |why: &str| ApiError::from(InputError::refused("dough_with", why));
    if with == job.id {
        return Err(refuse("a job cannot be mixed with itself"));
    }
    let other = store.job(with).await?;
    if other.dough_with.is_some() {
        return Err(refuse("that job's own dough is mixed with another; choose that one"));
    }
    if other.formula_id != job.formula_id {
        return Err(refuse("only jobs of one formula can share a dough"));
    }
    if store.jobs().await?.iter().any(|j| j.dough_with == Some(job.id)) {
        return Err(refuse("other jobs are mixed with this one; take them out first"));
    }
    Ok(())
}
