//! A job among the others: its lots, the dough it shares with them, and the sheets that several are cut from.

use crate::error::{InputError, InputErrors};
use crate::geometry::Outline;
use crate::job::settings::job::Job;
use crate::job::settings::job::JobInput;
use crate::job::settings::kept_sheet::KeptSheet;
use crate::job::settings::kitchen::Kitchen;
use crate::job::settings::making::Making;
use crate::job::shape::pieces::largest_sheet;
use crate::shape::{MixedFault, MixedShare, MixedSheet, NestCutter, NestPiece, share_of_mixed};
use crate::units::Length;
use serde::{Deserialize, Serialize};

/// Our own choice: more than a bench keeps apart in a day.
pub const MOST_LOTS: usize = 12;

/// What a job has to do with others. Jobs and formulas go by the numbers they are kept under.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Kin {
    /// The job.
    pub job: i64,
    /// Its formula.
    pub formula: i64,
    /// The version of the formula it keeps; the newest while absent.
    pub version: Option<u32>,
    /// The job of which it is a lot.
    pub lot_of: Option<i64>,
    /// The job whose mixes also hold this one's dough.
    pub dough_with: Option<i64>,
}

impl Kin {
    /// What a job that is kept under a number has to do with others.
    #[must_use]
    pub fn of(job: i64, input: &JobInput) -> Self {
        let (formula, version) = (input.order.formula_id, input.order.formula_version);
        Self { job, formula, version, lot_of: input.order.lot_of, dough_with: input.order.dough_with }
    }

    fn same_dough(&self, other: &Self) -> bool {
        (self.formula, self.version) == (other.formula, other.version)
    }
}

/// With which job each of a family is mixed: every lot of one formula at one version with the first of them. A dough shared with a
/// job outside stays shared, and so does that of the job itself, the first.
#[must_use]
pub fn mixed_with(family: &[Kin]) -> Vec<Option<i64>> {
    (family.iter().enumerate())
        .map(|(i, own)| {
            if i == 0 {
                return own.dough_with;
            }
            let first = family[..i].iter().find(|other| other.same_dough(own)).map(|other| other.job);
            first.or_else(|| own.dough_with.filter(|with| family.iter().all(|other| other.job != *with)))
        })
        .collect()
}

/// The jobs of a family, the job itself first and then its lots, that change when one of them becomes `new`, or when that one joins
/// them: itself, all others when it is wanted at another time, and those whose dough is mixed elsewhere from then on. One that joins
/// is wanted when they are.
pub fn changed_with(family: &[(i64, Job)], number: i64, new: &Job) -> Result<Vec<(i64, Job)>, InputErrors> {
    if family.iter().all(|(job, _)| *job == number) {
        return Ok(vec![(number, new.clone())]);
    }
    let wanted = |job: &Job, ready_by| Job::new(job.input().clone().with(|j| j.order.ready_by = ready_by));
    let dough = |job: &Job| (job.input().order.formula_id, job.input().order.formula_version, job.input().order.lot_of);
    let mut all = family.to_vec();
    let mixed_elsewhere = match all.iter_mut().find(|(job, _)| *job == number) {
        Some((_, own)) => {
            let before = std::mem::replace(own, new.clone());
            let ready_by = new.input().order.ready_by;
            if before.input().order.ready_by != ready_by {
                for (_, job) in &mut all {
                    *job = wanted(job, ready_by)?;
                }
            }
            dough(&before) != dough(new)
        }
        None => {
            all.push((number, wanted(new, family[0].1.input().order.ready_by)?));
            true
        }
    };
    let all = if mixed_elsewhere { mixed_once(all) } else { all };
    let changed = |(job, now): &(i64, Job)| *job == number || !family.iter().any(|(j, was)| j == job && was == now);
    Ok(all.into_iter().filter(changed).collect())
}

/// A family in which every dough is mixed once.
#[must_use]
pub fn mixed_once(family: Vec<(i64, Job)>) -> Vec<(i64, Job)> {
    let with = mixed_with(&family.iter().map(|(number, job)| Kin::of(*number, job.input())).collect::<Vec<_>>());
    family.into_iter().zip(with).map(|((number, job), with)| (number, job.mixed_with(with))).collect()
}

/// The jobs that keep a version of their formula once `own`, of `all`, was baked with it: that one, who shares its mixes, and lots of
/// one dough that are planned as one day. One bowl, one version. A job that keeps a version already stays with it.
#[must_use]
pub fn keep_version_with(own: &Kin, all: &[Kin]) -> Vec<i64> {
    if own.version.is_some() {
        return vec![];
    }
    let bowl = |j: &Kin| j.dough_with.unwrap_or(j.job);
    let lead = |j: &Kin| j.lot_of.unwrap_or(j.job);
    let with = |j: &&Kin| j.job == own.job || bowl(j) == bowl(own) || lead(j) == lead(own);
    all.iter().filter(|j| j.same_dough(own)).filter(with).map(|j| j.job).collect()
}

/// Whether a job may be a lot of the job it names, `lead`, and keep what only a job itself keeps.
///
/// Fails, naming the field, when it keeps sheets for several lots, names itself or another lot, or has lots of its own.
pub fn check_lot(own: &Kin, keeps_sheets: bool, lead: &Kin, all: &[Kin]) -> Result<(), InputErrors> {
    let refuse = |field: &str, why: &str| Err(InputError::refused(field, why).into());
    if keeps_sheets {
        return refuse("mixed", "Save shared sheets with the job, not with one of its items.");
    }
    if lead.job == own.job {
        return refuse("lot_of", "A job can’t be its own item.");
    }
    if lead.lot_of.is_some() {
        return refuse("lot_of", "That’s an item of another job. Choose that job.");
    }
    if all.iter().any(|j| j.lot_of == Some(own.job)) {
        return refuse("lot_of", "This job has items. Remove them first.");
    }
    Ok(())
}

/// Whether a job's dough may be mixed with that of the job it names, `with`.
///
/// Fails, naming the field, when it names itself, one that is mixed with another or is of another formula, or when others are mixed
/// with it.
pub fn check_shared_dough(own: &Kin, with: &Kin, all: &[Kin]) -> Result<(), InputErrors> {
    let refuse = |why: &str| Err(InputError::refused("dough_with", why).into());
    if with.job == own.job {
        return refuse("A job can’t share dough with itself. Choose another job.");
    }
    if with.dough_with.is_some() {
        return refuse("That job already shares another job’s dough. Choose that other job.");
    }
    if with.formula != own.formula {
        return refuse("Only jobs with the same recipe can share dough.");
    }
    if all.iter().any(|j| j.dough_with == Some(own.job)) {
        return refuse("Other jobs share this job’s dough. Remove them first.");
    }
    Ok(())
}

/// Another lot of a job: what differs from the job itself.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, utoipa::ToSchema)]
#[schema(as = LotBody)]
#[serde(deny_unknown_fields)]
pub struct LotInput {
    /// Its name, 1 to 80 characters.
    pub name: String,
    /// Number of its formula; the job's own when null.
    #[serde(default)]
    pub formula_id: Option<i64>,
    /// Number of its cutter; the job's own when null.
    #[serde(default)]
    pub cutter_id: Option<i64>,
    /// 1 to 20,000.
    pub pieces: u32,
    /// Thickness of sheet or slice, 2 to 25; the job's own when null.
    #[serde(default)]
    pub thickness_mm: Option<f64>,
    /// How its pieces are made.
    #[serde(default)]
    pub making: Making,
}

impl LotInput {
    /// The lot as it is added to the job kept under a number. What was laid out, coloured or measured of the other's pieces says
    /// nothing of these.
    pub fn added_to(self, number: i64, job: &JobInput) -> Result<Job, InputErrors> {
        Job::new(job.clone().with(|j| {
            j.order.name = self.name;
            j.order.formula_id = self.formula_id.unwrap_or(job.order.formula_id);
            j.order.cutter_id = self.cutter_id.unwrap_or(job.order.cutter_id);
            j.order.pieces = self.pieces;
            j.shape.thickness_mm = self.thickness_mm.unwrap_or(job.shape.thickness_mm);
            j.shape.making = self.making;
            j.order.freeze_pieces = 0;
            j.dough.dough_c = None;
            j.dough.tints = vec![];
            j.shape.layout = vec![];
            j.shape.tray_layout = vec![];
            j.shape.measured = vec![];
            j.order.formula_version = None;
            j.order.dough_with = None;
            j.order.lot_of = Some(number);
            j.shape.mixed = vec![];
            j.oven.goes_in_c = None;
        }))
    }
}

/// What becomes of a job when others are taken away.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Left {
    /// With whom it is mixed from now on: nobody, when that one is gone.
    pub dough_with: Option<i64>,
    /// Whether the sheets it keeps for several lots still hold: not with one of them gone.
    pub keeps_sheets: bool,
}

/// The jobs that go when `job` does: its lots with it, before it.
#[must_use]
pub fn goes_along(job: i64, all: &[Kin]) -> Vec<i64> {
    all.iter().filter(|j| j.lot_of == Some(job)).map(|j| j.job).rev().chain([job]).collect()
}

/// What is left of a job when those in `gone` are; `on_sheets` are the jobs whose pieces lie on the sheets it keeps.
#[must_use]
pub fn left_of(own: &Kin, mut on_sheets: impl Iterator<Item = i64>, gone: &[i64]) -> Left {
    Left {
        dough_with: own.dough_with.filter(|with| !gone.contains(with)),
        keeps_sheets: !on_sheets.any(|job| gone.contains(&job)),
    }
}

/// What sheets a job's pieces may be cut from: jobs of one key may share them; nothing where none are cut.
#[must_use]
pub fn sheet_key(kin: &Kin, job: &Job) -> Option<String> {
    let version = kin.version.map_or_else(|| "newest".to_owned(), |v| v.to_string());
    Some(format!("formula {}, {version}, {:.3} mm", kin.formula, job.sheet_thickness()?.mm()))
}

/// A job whose pieces lie on sheets kept for several.
#[derive(Debug, Clone, PartialEq)]
pub struct OnSheets {
    /// Which.
    pub kin: Kin,
    /// The job.
    pub job: Job,
    /// Its cutter.
    pub outline: Outline,
}

/// The sheets that several lots of one job are cut from, and those lots.
#[derive(Debug, Clone, PartialEq)]
pub struct SharedSheets {
    /// In the order in which they were added, the job itself first where it is one of them.
    pub lots: Vec<OnSheets>,
    /// The sheets.
    pub sheets: Vec<KeptSheet>,
}

impl SharedSheets {
    /// The share of one of them; `None` for a job whose pieces do not lie there.
    ///
    /// Fails with the reason when they are not one dough of one thickness any longer, a lot is gone, or as
    /// [`share_of_mixed`] does.
    #[must_use]
    pub fn share(&self, job: i64, kitchen: &Kitchen) -> Option<Result<MixedShare, MixedFault>> {
        let number = |job: i64| self.lots.iter().position(|lot| lot.kin.job == job);
        let own = number(job)?;
        let key = |lot: &OnSheets| sheet_key(&lot.kin, &lot.job);
        let first = &self.lots[0];
        if let Some(other) = self.lots.iter().find(|lot| key(lot).is_none() || key(lot) != key(first)) {
            return Some(Err(MixedFault::NotAlike(other.job.input().order.name.clone())));
        }
        let cutters: Vec<NestCutter> = (self.lots.iter())
            .map(|lot| NestCutter {
                outline: lot.outline.clone(),
                turning: lot.job.input().shape.turning,
                wanted: Some(lot.job.baked_pieces()),
            })
            .collect();
        let sheets: Option<Vec<MixedSheet>> = (self.sheets.iter())
            .map(|sheet| {
                let pieces = sheet.pieces.iter().map(|p| Some(NestPiece { cutter: number(p.job_id)?, at: p.at() }));
                Some(MixedSheet { length: Length::new_mm(sheet.length_mm), pieces: pieces.collect::<Option<_>>()? })
            })
            .collect();
        let Some(sheets) = sheets else { return Some(Err(MixedFault::LotGone)) };
        let extent = largest_sheet(&first.job, kitchen).extent();
        Some(share_of_mixed(&cutters, extent, first.job.spacing(), &sheets, own))
    }
}
