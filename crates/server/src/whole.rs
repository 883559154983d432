//! A job with all that it refers to, as the stations need it.

use crate::problem::ApiError;
use ready_slab_core::cold::{Finding, LimitsLearnt, Window, learn_limits};
use ready_slab_core::dough::Formula;
use ready_slab_core::error::{InputError, InputErrors};
use ready_slab_core::job::{
    AlsoMixed, DoughPlan, Job, Kin, Kitchen, LotInput, LotPlan, MOST_LOTS, Making, OnSheets, Plan, SharedSheets,
    Together, WithOthers, check_lot, check_shared_dough, dough_of, mixed_once, piece_outline, plan_dough,
    plan_together, plan_with,
};
use ready_slab_core::oven::BakeKnowledge;
use ready_slab_store::{JobId, Store, StoredCutter, StoredFormula, StoredJob, StoredTouch};
use ready_slab_words::piece_name;

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
    pub felt: Option<(Window, LimitsLearnt)>,
    with: Vec<(StoredJob, StoredCutter)>,
    mixed: Option<SharedSheets>,
    /// What accepted bakes of its formula have taught.
    pub learnt: Option<BakeKnowledge>,
}

/// The cutter of a lot that is cut; for one that is sliced or portioned, what its pieces look like from above.
fn seen_from_above(stored: &StoredJob, formula: &Formula, cutter: StoredCutter) -> Result<StoredCutter, InputErrors> {
    let making = &stored.job.input().making;
    if *making == Making::Cut {
        return Ok(cutter);
    }
    Ok(StoredCutter {
        name: piece_name(making, &cutter.name),
        origin: "made".to_owned(),
        outline: piece_outline(&stored.job, formula, &cutter.outline)?,
        neck: None,
        id: cutter.id,
    })
}

/// The day of all lots of a job.
pub struct Day {
    /// Each with its plan, its steps where the others leave room for them.
    pub lots: Vec<(WholeJob, Plan)>,
    /// What they have to do with each other.
    pub together: Together,
}

/// A job and its lots.
pub struct Family {
    /// The job itself first, then its lots in the order in which they were added.
    pub all: Vec<StoredJob>,
}

impl Family {
    /// The job that `one` belongs to, with all its lots.
    pub async fn of(store: &Store, one: &StoredJob) -> Result<Self, ApiError> {
        let lead = match one.lot_of() {
            Some(lead) => store.job(lead).await?,
            None => one.clone(),
        };
        let mut lots: Vec<StoredJob> =
            store.jobs().await?.into_iter().filter(|j| j.lot_of() == Some(lead.id)).collect();
        lots.sort_by_key(|j| j.id);
        lots.insert(0, lead);
        Ok(Self { all: lots })
    }

    /// Adds a lot to the job, or to the job that the one named is a lot of.
    pub async fn add_lot(store: &Store, id: JobId, lot: LotInput) -> Result<JobId, ApiError> {
        let family = Self::of(store, &store.job(id).await?).await?;
        if family.all.len() >= MOST_LOTS {
            return Err(InputError::refused("lots", format!("a job has at most {MOST_LOTS} batches")).into());
        }
        // Its number comes with being kept; until then it has none of the others'.
        let lead = &family.all[0];
        let lot = lot.added_to(lead.id.0, lead.job.input())?;
        let all = mixed_once(family.jobs().into_iter().chain([(0, lot)]).collect());
        let (_, lot) = all.into_iter().next_back().ok_or(ApiError::Broken)?;
        Ok(store.add_job(&lot, &format!("batch {} added", lot.input().name)).await?)
    }

    /// All of them under their numbers.
    pub fn jobs(&self) -> Vec<(i64, Job)> {
        self.all.iter().map(|j| (j.id.0, j.job.clone())).collect()
    }

    /// The lot, from 0, whose mixes hold a lot's dough, when that is another.
    pub fn mixed_by(&self, lot: usize) -> Option<usize> {
        let with = self.all[lot].dough_with()?;
        self.all.iter().position(|j| j.id == with)
    }

    /// All lots planned together; why not, where one of them cannot be planned.
    pub async fn day(&self, store: &Store) -> Result<Result<Day, InputErrors>, ApiError> {
        let mut all = Vec::with_capacity(self.all.len());
        for lot in &self.all {
            all.push(WholeJob::read(store, lot.id).await?);
        }
        let mixed_by: Vec<_> = (0..all.len()).map(|i| self.mixed_by(i)).collect();
        // Each lot is planned on a thread of its own.
        let planning = all.into_iter().map(|whole| {
            actix_web::web::block(move || {
                let plan = whole.plan().map_err(|e| e.within(&format!("batch {}", whole.stored.job.input().name)))?;
                Ok::<_, InputErrors>((whole, plan))
            })
        });
        let planned = futures_util::future::try_join_all(planning).await?;
        let mut lots = match planned.into_iter().collect::<Result<Vec<_>, InputErrors>>() {
            Ok(lots) => lots,
            Err(faults) => return Ok(Err(faults)),
        };
        let views: Vec<LotPlan> = (lots.iter().zip(mixed_by))
            .map(|((whole, plan), mixed_by)| LotPlan { job: &whole.stored.job, plan, mixed_by })
            .collect();
        let together = plan_together(&lots[0].0.kitchen, &views);
        for (i, (_, plan)) in lots.iter_mut().enumerate() {
            plan.clock.relay = together.relay.of_lot(i);
        }
        Ok(Ok(Day { lots, together }))
    }

    async fn mixed(&self, store: &Store) -> Result<Option<SharedSheets>, ApiError> {
        let lead = &self.all[0];
        if lead.mixed().is_empty() {
            return Ok(None);
        }
        let on_them = |j: &&StoredJob| lead.mixed().iter().any(|s| s.pieces.iter().any(|p| p.job_id == j.id.0));
        let mut lots = Vec::new();
        for job in self.all.iter().filter(on_them) {
            let outline = store.cutter(job.cutter_id()).await?.outline;
            lots.push(OnSheets { kin: job.kin(), job: job.job.clone(), outline });
        }
        Ok(Some(SharedSheets { lots, sheets: lead.mixed().to_vec() }))
    }
}

/// The formula as hands have found it.
fn as_felt(formula: Formula, touches: &[StoredTouch]) -> (Formula, Option<(Window, LimitsLearnt)>) {
    let Some(by_fat) = Window::of(&formula.composition()) else { return (formula, None) };
    let findings: Vec<Finding> = touches.iter().map(|t| t.finding).collect();
    let learnt = learn_limits(&by_fat, &findings);
    (formula.with_felt(learnt.felt()), Some((by_fat, learnt)))
}

impl WholeJob {
    /// Reads it.
    pub async fn read(store: &Store, id: JobId) -> Result<Self, ApiError> {
        let stored = store.job(id).await?;
        let mut formula = store.formula_at(stored.formula_id(), stored.formula_version()).await?;
        let touches = store.touches(formula.id).await?;
        let felt;
        (formula.formula, felt) = as_felt(formula.formula, &touches);
        let cutter = seen_from_above(&stored, &formula.formula, store.cutter(stored.cutter_id()).await?)?;
        let family = Family::of(store, &stored).await?;
        let mixed = family.mixed(store).await?;
        let learnt = store.taught_by_bakes(formula.id).await?;
        let mut with = Vec::new();
        for other in store.jobs().await?.into_iter().filter(|j| j.dough_with() == Some(id)) {
            // Another formula, or another version of it, is another dough.
            let same = store.formula_at(other.formula_id(), other.formula_version()).await?;
            if same.id == formula.id && same.formula.lines() == formula.formula.lines() {
                let cutter = seen_from_above(&other, &same.formula, store.cutter(other.cutter_id()).await?)?;
                with.push((other, cutter));
            }
        }
        Ok(Self {
            stored,
            formula,
            cutter,
            kitchen: store.kitchen_as_known().await?,
            touches,
            felt,
            with,
            mixed,
            learnt,
        })
    }

    fn beside(&self, kitchen: &Kitchen) -> Result<WithOthers, InputErrors> {
        let share = |id: JobId| self.mixed.as_ref().and_then(|m| m.share(id.0, kitchen));
        let also = self.with.iter().map(|(job, cutter)| {
            let mixed = share(job.id);
            Ok(AlsoMixed {
                name: job.job.input().name.clone(),
                pieces: job.job.input().pieces,
                dough: dough_of(&job.job, &self.formula.formula, &cutter.outline, kitchen, mixed.as_ref())?,
            })
        });
        let also = also.collect::<Result<_, InputErrors>>()?;
        Ok(WithOthers { also, mixed: share(self.stored.id), learnt: self.learnt })
    }

    /// The whole plan.
    pub fn plan(&self) -> Result<Plan, InputErrors> {
        self.plan_in(&self.kitchen)
    }

    /// The whole plan, were the kitchen another.
    pub fn plan_in(&self, kitchen: &Kitchen) -> Result<Plan, InputErrors> {
        let beside = self.beside(kitchen)?;
        plan_with(&self.stored.job, &self.formula.formula, &self.cutter.outline, kitchen, &beside)
    }

    /// The dough station alone.
    pub fn dough(&self) -> Result<DoughPlan, InputErrors> {
        plan_dough(
            &self.stored.job,
            &self.formula.formula,
            &self.cutter.outline,
            &self.kitchen,
            &self.beside(&self.kitchen)?,
        )
    }
}

async fn all_kin(store: &Store) -> Result<Vec<Kin>, ApiError> {
    Ok(store.jobs().await?.iter().map(StoredJob::kin).collect())
}

/// Whether a job may be a lot of the job it names.
pub async fn may_be_lot(store: &Store, job: &StoredJob) -> Result<(), ApiError> {
    let Some(lead) = job.lot_of() else { return Ok(()) };
    let lead = store.job(lead).await?.kin();
    Ok(check_lot(&job.kin(), !job.mixed().is_empty(), &lead, &all_kin(store).await?)?)
}

/// Whether a job's dough may be mixed with that of the job it names.
pub async fn may_share_dough(store: &Store, job: &StoredJob) -> Result<(), ApiError> {
    let Some(with) = job.dough_with() else { return Ok(()) };
    let with = store.job(with).await?.kin();
    Ok(check_shared_dough(&job.kin(), &with, &all_kin(store).await?)?)
}
