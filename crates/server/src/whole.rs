//! A job with all that it refers to, as the stations need it.

use crate::problem::ApiError;
use chrono::{DateTime, NaiveDate, NaiveDateTime, Utc};
use ready_slab_core::clock::{Relay, RelayTask};
use ready_slab_core::cold::{Finding, LimitsLearnt, Window, learn_limits};
use ready_slab_core::dough::Formula;
use ready_slab_core::error::{InputError, InputErrors};
use ready_slab_core::job::{
    AlsoMixed, DoughPlan, Job, Kin, Kitchen, LotInput, LotPlan, MOST_LOTS, Making, OnSheets, Plan, PlannedDate,
    SharedSheets, WithOthers, check_lot, check_shared_dough, dough_of, mixed_once, piece_outline, plan_date,
    plan_dough, plan_with,
};
use ready_slab_core::oven::BakeKnowledge;
use ready_slab_store::{JobId, Store, StoredCutter, StoredFormula, StoredJob, StoredTouch};
use ready_slab_words::{piece_name, step};
use std::sync::Arc;

/// A job, its formula at the version it keeps and as hands have found it, its cutter, the kitchen as it is known, and the jobs
/// whose dough is mixed with it.
#[derive(Clone, PartialEq)]
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
    let making = &stored.job.input().shape.making;
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

/// A job of a date, and another time that it could be wanted at.
#[derive(Clone, Copy)]
pub struct MovedJob {
    pub id: JobId,
    pub ready_by: NaiveDateTime,
}

/// A job with its plan.
pub struct Planned {
    pub whole: WholeJob,
    pub plan: Plan,
}

/// A job as it was planned by itself, or why it cannot be.
type Alone = Arc<(WholeJob, Result<Plan, InputErrors>)>;

/// Everything that is wanted on one date.
pub struct WholeDate {
    /// All lots of all its jobs, each with its plan where the others leave room for it.
    pub lots: Vec<Arc<Planned>>,
    /// What cannot be planned, and why; the rest is planned without it.
    pub unplanned: Vec<(StoredJob, InputErrors)>,
    /// Their steps, by lots from 0.
    pub relay: Relay,
    /// How long before the last of them each lot is wanted, min.
    pub before_min: Vec<i64>,
    /// What it was made from: for when it is planned again.
    alone: Vec<Alone>,
    laid_out: Option<PlannedDate>,
}

impl WholeDate {
    /// Its lots as the core plans them together.
    pub fn plans(&self) -> Vec<LotPlan<'_>> {
        lot_plans(self.lots.iter().map(|lot| (&lot.whole, &lot.plan)))
    }

    /// When the last of it is wanted, from which its minutes are counted; nothing where nothing is planned.
    pub fn ends_at(&self) -> Option<DateTime<Utc>> {
        self.lots.iter().map(|l| l.whole.kitchen.zone().nearest(l.whole.stored.job.input().order.ready_by)).max()
    }

    /// The lot of a step.
    pub fn lot_of(&self, task: &RelayTask) -> Option<&Planned> {
        self.lots.get(usize::try_from(task.lot).ok()?).map(Arc::as_ref)
    }

    /// What a step is called.
    pub fn does(&self, task: &RelayTask) -> String {
        self.lot_of(task).map_or_else(String::new, |l| step(task, &l.whole.stored.job, &l.plan))
    }

    /// A job wanted on it, with its plan; why not, where it cannot be planned.
    pub fn of(&self, id: JobId) -> Option<Result<Arc<Planned>, InputErrors>> {
        if let Some(lot) = self.lots.iter().find(|l| l.whole.stored.id == id) {
            return Some(Ok(lot.clone()));
        }
        self.unplanned.iter().find(|(job, _)| job.id == id).map(|(_, why)| Err(why.clone()))
    }

    fn jobs(&self) -> impl Iterator<Item = &StoredJob> {
        self.lots.iter().map(|l| &l.whole.stored).chain(self.unplanned.iter().map(|(job, _)| job))
    }

    /// The job that one wanted on it belongs to, where that is on it too.
    pub fn lead_of(&self, id: JobId) -> Option<JobId> {
        let one = self.jobs().find(|j| j.id == id)?;
        let lead = one.lot_of().unwrap_or(one.id);
        self.jobs().any(|j| j.id == lead).then_some(lead)
    }

    /// That job with all its lots, as they were planned.
    pub fn family(&self, id: JobId) -> Option<Family> {
        let lead = self.lead_of(id)?;
        let mut all: Vec<StoredJob> =
            self.jobs().filter(|j| j.id == lead || j.lot_of() == Some(lead)).cloned().collect();
        all.sort_by_key(|j| (j.id != lead, j.id));
        Some(Family { all })
    }

    /// Plans it, as it is, or as it would be were a job wanted at another time. What has not changed since `before` is not planned again.
    pub async fn plan(
        store: &Store,
        date: NaiveDate,
        moved: Option<MovedJob>,
        before: Option<Arc<Self>>,
    ) -> Result<Self, ApiError> {
        let mut asked = store.jobs_on(date).await?;
        if let Some(moved) = moved
            && !asked.iter().any(|j| j.id == moved.id)
        {
            let on_it = asked.iter().filter(|j| j.lot_of().is_none()).map(|j| j.id.0.to_string()).collect::<Vec<_>>();
            let accepted = if on_it.is_empty() { "none".to_owned() } else { on_it.join(", ") };
            let why = format!("Job {} isn’t due that day. Due that day: {accepted}.", moved.id.0);
            return Err(InputError::refused("job", why).into());
        }
        // The lots of a job next to each other, the job itself first.
        asked.sort_by_key(|j| (j.lot_of().unwrap_or(j.id), j.lot_of().is_some(), j.id));
        let mut wholes = Vec::with_capacity(asked.len());
        for job in asked {
            let mut whole = WholeJob::read(store, job.id).await?;
            if let Some(moved) = moved.filter(|m| m.id == job.id || job.lot_of() == Some(m.id)) {
                let input = whole.stored.job.input().clone().with(|j| j.order.ready_by = moved.ready_by);
                whole.stored.job = Job::new(input)?;
            }
            wholes.push(whole);
        }
        // Each lot is planned on a thread of its own.
        let planning = wholes.into_iter().map(|whole| {
            let same = before.iter().flat_map(|b| &b.alone).find(|kept| kept.0 == whole).cloned();
            async move {
                match same {
                    Some(same) => Ok::<Alone, ApiError>(same),
                    None => {
                        let planned = actix_web::web::block(move || {
                            let plan = whole.plan();
                            (whole, plan)
                        });
                        Ok(Arc::new(planned.await?))
                    }
                }
            }
        });
        let alone = futures_util::future::try_join_all(planning).await?;
        Ok(actix_web::web::block(move || Self::laid_out(alone, before.as_deref())).await?)
    }

    fn laid_out(alone: Vec<Alone>, before: Option<&Self>) -> Self {
        let wholes: Vec<(&WholeJob, &Plan)> =
            alone.iter().filter_map(|a| a.1.as_ref().ok().map(|plan| (&a.0, plan))).collect();
        let views = lot_plans(wholes.iter().copied());
        let kept = before.and_then(|b| b.laid_out.as_ref());
        let laid_out = wholes.first().map(|(first, _)| plan_date(&first.kitchen, &views, kept));
        let (relay, before_min, plans) = laid_out.as_ref().map_or_else(
            || (Relay::new(vec![], vec![]), vec![], vec![]),
            |day| (day.relay.clone(), day.before_min.clone(), day.plans.clone()),
        );
        let lots = wholes.iter().zip(plans);
        let lots = lots.map(|((whole, _), plan)| Arc::new(Planned { whole: (*whole).clone(), plan })).collect();
        let why = |a: &Alone| Some((a.0.stored.clone(), a.1.as_ref().err()?.clone()));
        let unplanned = alone.iter().filter_map(why).collect();
        Self { lots, unplanned, relay, before_min, laid_out, alone }
    }
}

/// Lots as the core plans them together; dough that is mixed with that of a lot among them is.
pub fn lot_plans<'a>(lots: impl IntoIterator<Item = (&'a WholeJob, &'a Plan)>) -> Vec<LotPlan<'a>> {
    let all: Vec<_> = lots.into_iter().collect();
    let at = |id: JobId| all.iter().position(|(whole, _)| whole.stored.id == id);
    let one = |&(whole, plan): &(&'a WholeJob, &'a Plan)| LotPlan {
        job: &whole.stored.job,
        plan,
        mixed_by: whole.stored.dough_with().and_then(at),
    };
    all.iter().map(one).collect()
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
        let near = store.related_jobs(&[lead.id]).await?;
        let mut lots: Vec<StoredJob> = near.into_iter().filter(|j| j.lot_of() == Some(lead.id)).collect();
        lots.sort_by_key(|j| j.id);
        lots.insert(0, lead);
        Ok(Self { all: lots })
    }

    /// Adds a lot to the job, or to the job that the one named is a lot of.
    pub async fn add_lot(store: &Store, id: JobId, lot: LotInput) -> Result<JobId, ApiError> {
        let family = Self::of(store, &store.job(id).await?).await?;
        if family.all.len() >= MOST_LOTS {
            return Err(InputError::refused("lots", format!("At most {MOST_LOTS} items in a job.")).into());
        }
        // Its number comes with being kept; until then it has none of the others'.
        let lead = &family.all[0];
        let lot = lot.added_to(lead.id.0, lead.job.input())?;
        let all = mixed_once(family.jobs().into_iter().chain([(0, lot)]).collect());
        let (_, lot) = all.into_iter().next_back().ok_or(ApiError::Broken)?;
        Ok(store.add_job(&lot, &format!("item {} added", lot.input().order.name)).await?)
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
        for other in store.related_jobs(&[id]).await?.into_iter().filter(|j| j.dough_with() == Some(id)) {
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
                name: job.job.input().order.name.clone(),
                pieces: job.job.input().order.pieces,
                dough: dough_of(&job.job, &self.formula.formula, &cutter.outline, kitchen, mixed.as_ref())?,
            })
        });
        let also = also.collect::<Result<_, InputErrors>>()?;
        Ok(WithOthers { also, mixed: share(self.stored.id), learnt: self.learnt })
    }

    /// The same pieces of another job's dough.
    pub fn of_dough(self, other: &Self) -> Self {
        Self { formula: other.formula.clone(), learnt: other.learnt, ..self }
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

    /// The plan were its dough in the freezer; nothing where it is there already, or that cannot be planned.
    pub fn plan_frozen(&self) -> Option<Plan> {
        self.plan_as(self.stored.job.with_dough_frozen()?)
    }

    /// The plan were its cut trays in the other cold place; nothing where they do not chill, or that cannot be planned.
    pub fn plan_elsewhere(&self, plan: &Plan) -> Option<Plan> {
        self.plan_as(self.stored.job.with_trays_in(plan.cold.tray_chill.as_ref()?.place.other())?)
    }

    fn plan_as(&self, job: Job) -> Option<Plan> {
        let beside = self.beside(&self.kitchen).ok()?;
        plan_with(&job, &self.formula.formula, &self.cutter.outline, &self.kitchen, &beside).ok()
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

/// Of all that name a job.
async fn kin_of(store: &Store, job: &StoredJob) -> Result<Vec<Kin>, ApiError> {
    Ok(store.related_jobs(&[job.id]).await?.iter().map(StoredJob::kin).collect())
}

/// Whether a job may be a lot of the job it names.
pub async fn may_be_lot(store: &Store, job: &StoredJob) -> Result<(), ApiError> {
    let Some(lead) = job.lot_of() else { return Ok(()) };
    let lead = store.job(lead).await?.kin();
    Ok(check_lot(&job.kin(), !job.mixed().is_empty(), &lead, &kin_of(store, job).await?)?)
}

/// Whether a job's dough may be mixed with that of the job it names.
pub async fn may_share_dough(store: &Store, job: &StoredJob) -> Result<(), ApiError> {
    let Some(with) = job.dough_with() else { return Ok(()) };
    let with = store.job(with).await?.kin();
    Ok(check_shared_dough(&job.kin(), &with, &kin_of(store, job).await?)?)
}
