//! A job with all that it refers to, as the stations need it.

use crate::problem::ApiError;
use crate::wire::LotBody;
use ready_slab_core::cold::{Finding, Learnt, Window, learn_limits};
use ready_slab_core::dough::Formula;
use ready_slab_core::error::{InputError, InputErrors};
use ready_slab_core::job::{
    AlsoMixed, Beside, DoughPlan, Kitchen, LotPlan, Making, Plan, Together, dough_of, largest_sheet, piece_outline,
    plan_dough, plan_together, plan_with,
};
use ready_slab_core::oven::BakeKnowledge;
use ready_slab_core::shape::{MixedFault, MixedShare, MixedSheet, NestCutter, NestPiece, share_of_mixed};
use ready_slab_store::{JobId, Store, StoredCutter, StoredFormula, StoredJob, StoredMixedSheet, StoredTouch};
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
    pub felt: Option<(Window, Learnt)>,
    with: Vec<(StoredJob, StoredCutter)>,
    mixed: Option<MixedSheets>,
    /// What accepted bakes of its formula have taught.
    pub learnt: Option<BakeKnowledge>,
}

/// The cutter of a lot that is cut; for one that is sliced or portioned, what its pieces look like from above.
fn made(stored: &StoredJob, formula: &Formula, cutter: StoredCutter) -> Result<StoredCutter, InputErrors> {
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

/// The sheets that several lots of one job are cut from, and those lots.
struct MixedSheets {
    lots: Vec<(StoredJob, StoredCutter)>,
    sheets: Vec<StoredMixedSheet>,
    /// Why they are not one dough of one thickness any longer.
    fault: Option<MixedFault>,
}

impl MixedSheets {
    /// The share of one of them; `None` for a job whose pieces do not lie there.
    fn share(&self, id: JobId, kitchen: &Kitchen) -> Option<Result<MixedShare, MixedFault>> {
        let lot = self.lots.iter().position(|(job, _)| job.id == id)?;
        if let Some(fault) = &self.fault {
            return Some(Err(fault.clone()));
        }
        let lead = &self.lots[0].0.job;
        let cutters: Vec<NestCutter> = (self.lots.iter())
            .map(|(job, cutter)| NestCutter {
                outline: cutter.outline.clone(),
                turning: job.job.input().turning,
                wanted: Some(job.job.baked_pieces()),
            })
            .collect();
        let number = |id: JobId| self.lots.iter().position(|(job, _)| job.id == id);
        let sheets: Option<Vec<MixedSheet>> = (self.sheets.iter())
            .map(|sheet| {
                let pieces = sheet.pieces.iter().map(|(id, at)| Some(NestPiece { cutter: number(*id)?, at: *at }));
                Some(MixedSheet { length: sheet.length, pieces: pieces.collect::<Option<_>>()? })
            })
            .collect();
        let Some(sheets) = sheets else { return Some(Err(MixedFault::LotGone)) };
        Some(share_of_mixed(&cutters, largest_sheet(lead, kitchen).extent(), lead.spacing(), &sheets, lot))
    }
}

/// What sheets a job's pieces may be cut from: jobs of one key may share them; nothing where none are cut.
pub fn sheet_key(job: &StoredJob) -> Option<String> {
    let version = job.formula_version.map_or_else(|| "newest".to_owned(), |v| v.to_string());
    let thickness = job.job.sheet_thickness()?;
    Some(format!("formula {}, {version}, {:.3} mm", job.formula_id.0, thickness.mm()))
}

/// The day of all lots of a job.
pub struct Day {
    /// Each with its plan, its steps where the others leave room for them.
    pub lots: Vec<(WholeJob, Plan)>,
    /// What they have to do with each other.
    pub together: Together,
}

/// Our own choice: more than a bench keeps apart in a day.
const MOST_LOTS: usize = 12;

/// A job and its lots.
pub struct Family {
    /// The job itself first, then its lots in the order in which they were added.
    pub all: Vec<StoredJob>,
}

impl Family {
    /// The job that `one` belongs to, with all its lots.
    pub async fn of(store: &Store, one: &StoredJob) -> Result<Self, ApiError> {
        let lead = match one.lot_of {
            Some(lead) => store.job(lead).await?,
            None => one.clone(),
        };
        let mut lots: Vec<StoredJob> = store.jobs().await?.into_iter().filter(|j| j.lot_of == Some(lead.id)).collect();
        lots.sort_by_key(|j| j.id);
        lots.insert(0, lead);
        Ok(Self { all: lots })
    }

    /// Adds a lot to the job, or to the job that the one named is a lot of.
    pub async fn add_lot(store: &Store, id: JobId, body: &LotBody) -> Result<JobId, ApiError> {
        let mut family = Self::of(store, &store.job(id).await?).await?;
        if family.all.len() >= MOST_LOTS {
            return Err(InputError::refused("lots", format!("a job has at most {MOST_LOTS} lots")).into());
        }
        // Its number comes with being kept; until then it has none of the others'.
        family.all.push(body.of(&family.all[0])?);
        family.relink();
        let new = family.all.pop().ok_or(ApiError::Broken)?;
        Ok(store.add_lot(&new, &format!("lot {} added", new.job.input().name)).await?)
    }

    /// The lot, from 0, whose mixes hold a lot's dough, when that is another.
    pub fn mixed_by(&self, lot: usize) -> Option<usize> {
        let with = self.all[lot].dough_with?;
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
                let plan = whole.plan().map_err(|e| e.within(&format!("lot {}", whole.stored.job.input().name)))?;
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

    /// Every lot of one formula at one version is mixed with the first of them.
    pub fn relink(&mut self) {
        for lot in 1..self.all.len() {
            let own = &self.all[lot];
            let first = self.all[..lot]
                .iter()
                .find(|j| j.formula_id == own.formula_id && j.formula_version == own.formula_version)
                .map(|j| j.id);
            // A dough shared with a job outside stays shared.
            let outside = own.dough_with.filter(|with| self.all.iter().all(|j| j.id != *with));
            self.all[lot].dough_with = first.or(outside);
        }
    }

    async fn mixed(&self, store: &Store) -> Result<Option<MixedSheets>, ApiError> {
        let lead = &self.all[0];
        if lead.mixed.is_empty() {
            return Ok(None);
        }
        let on_them = |j: &&StoredJob| lead.mixed.iter().any(|s| s.pieces.iter().any(|(id, _)| *id == j.id));
        let mut lots = Vec::new();
        for job in self.all.iter().filter(on_them) {
            lots.push((job.clone(), store.cutter(job.cutter_id).await?));
        }
        let Some((first, _)) = lots.first() else { return Ok(None) };
        let alike = |j: &StoredJob| sheet_key(j).is_some() && sheet_key(j) == sheet_key(first);
        let fault = lots.iter().find(|(j, _)| !alike(j)).map(|(j, _)| MixedFault::NotAlike(j.job.input().name.clone()));
        Ok(Some(MixedSheets { lots, sheets: lead.mixed.clone(), fault }))
    }
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
        let cutter = made(&stored, &formula.formula, store.cutter(stored.cutter_id).await?)?;
        let family = Family::of(store, &stored).await?;
        let mixed = family.mixed(store).await?;
        let learnt = store.taught_by_bakes(formula.id).await?;
        let mut with = Vec::new();
        for other in store.jobs().await?.into_iter().filter(|j| j.dough_with == Some(id)) {
            // Another formula, or another version of it, is another dough.
            let same = store.formula_at(other.formula_id, other.formula_version).await?;
            if same.id == formula.id && same.formula.lines() == formula.formula.lines() {
                let cutter = made(&other, &same.formula, store.cutter(other.cutter_id).await?)?;
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

    fn beside(&self, kitchen: &Kitchen) -> Result<Beside, InputErrors> {
        let share = |id: JobId| self.mixed.as_ref().and_then(|m| m.share(id, kitchen));
        let also = self.with.iter().map(|(job, cutter)| {
            let mixed = share(job.id);
            Ok(AlsoMixed {
                name: job.job.input().name.clone(),
                pieces: job.job.input().pieces,
                dough: dough_of(&job.job, &self.formula.formula, &cutter.outline, kitchen, mixed.as_ref())?,
            })
        });
        let also = also.collect::<Result<_, InputErrors>>()?;
        Ok(Beside { also, mixed: share(self.stored.id), learnt: self.learnt })
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

/// Whether a job may be a lot of the job it names, and keep what only a job itself keeps.
pub async fn check_lot(store: &Store, job: &StoredJob) -> Result<(), ApiError> {
    let refuse = |field: &str, why: &str| ApiError::from(InputError::refused(field, why));
    let Some(lead) = job.lot_of else { return Ok(()) };
    if !job.mixed.is_empty() {
        return Err(refuse("mixed", "the job itself keeps sheets for several lots, not one of its lots"));
    }
    if lead == job.id {
        return Err(refuse("lot_of", "a job is no lot of itself"));
    }
    if store.job(lead).await?.lot_of.is_some() {
        return Err(refuse("lot_of", "that is a lot itself; choose its job"));
    }
    if store.jobs().await?.iter().any(|j| j.lot_of == Some(job.id)) {
        return Err(refuse("lot_of", "this job has lots of its own; take them out first"));
    }
    Ok(())
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
