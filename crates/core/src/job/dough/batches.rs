//! The dough station of a plan: what so many pieces take, what else is mixed with it, and what is weighed.

use crate::dough::{Character, Formula, WeighRules, divide_into_mixes, mixing_temperatures, rolled_density};
use crate::error::InputErrors;
use crate::geometry::Outline;
use crate::job::answers::{DoughPart, DoughPlan, PartUse};
use crate::job::reasons::reason::Reason;
use crate::job::settings::job::Job;
use crate::job::settings::kitchen::Kitchen;
use crate::job::shape::pieces::{PieceSize, Source, piece_size};
use crate::shape::{DemandAnswer, MixedFault, MixedShare};
use crate::units::{Density, Mass};

/// Another job's dough that is mixed together with this one's.
#[derive(Debug, Clone, PartialEq)]
pub struct AlsoMixed {
    /// The job.
    pub name: String,
    /// Its pieces.
    pub pieces: u32,
    /// Its dough.
    pub dough: Mass,
}

/// What so many pieces of a job take in dough: their size, and what they come from.
pub(crate) struct Takes<'a> {
    job: &'a Job,
    kitchen: &'a Kitchen,
    pub density: Density,
    pub size: PieceSize,
    pub source: Source,
}

impl<'a> Takes<'a> {
    /// Fails when the cutter is larger than the sheet.
    pub fn of(
        job: &'a Job,
        formula: &Formula,
        outline: &Outline,
        kitchen: &'a Kitchen,
        mixed: Option<&Result<MixedShare, MixedFault>>,
    ) -> Result<Self, InputErrors> {
        let density = rolled_density(&formula.composition(), job.input().dough.method);
        let size = piece_size(job, outline, density)?;
        let source = Source::of(job, outline, kitchen, density, mixed)?;
        Ok(Self { job, kitchen, density, size, source })
    }

    /// For a count of pieces.
    pub fn pieces(&self, pieces: u32) -> Result<DemandAnswer, InputErrors> {
        self.source.demand(self.job, self.kitchen, self.size.mass, self.density, pieces)
    }

    /// For those that are baked.
    pub fn baked(&self) -> Result<DemandAnswer, InputErrors> {
        self.pieces(self.job.baked_pieces())
    }

    /// For those that are kept as dough; nothing where none are.
    pub fn frozen(&self) -> Result<Option<Mass>, InputErrors> {
        Ok(match self.job.input().order.freeze_pieces {
            0 => None,
            pieces => Some(self.pieces(pieces)?.dough),
        })
    }
}

/// The dough that a job takes in all, for the baked and the frozen pieces: what another job must mix for it.
pub fn dough_of(
    job: &Job,
    formula: &Formula,
    outline: &Outline,
    kitchen: &Kitchen,
    mixed: Option<&Result<MixedShare, MixedFault>>,
) -> Result<Mass, InputErrors> {
    let takes = Takes::of(job, formula, outline, kitchen, mixed)?;
    Ok(takes.baked()?.dough + takes.frozen()?.unwrap_or(Mass::new_g(0.0)))
}

/// The most pieces of a job's make that so much dough yields; zero when it is not enough for one.
pub fn pieces_from(
    dough: Mass,
    job: &Job,
    formula: &Formula,
    outline: &Outline,
    kitchen: &Kitchen,
) -> Result<u32, InputErrors> {
    let takes = Takes::of(job, formula, outline, kitchen, None)?;
    let enough = |pieces: u32| takes.pieces(pieces).is_ok_and(|d| d.dough <= dough);
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "clamped to the range of counts")]
    let (mut low, mut high) = (0_u32, (dough / takes.size.mass).clamp(0.0, 20_000.0) as u32 + 1);
    // More pieces never need less dough, so the greatest count is found by halving.
    while high - low > 1 {
        let middle = u32::midpoint(low, high);
        if enough(middle) { low = middle } else { high = middle }
    }
    Ok(low)
}

fn parts_of(job: &Job, demand: &DemandAnswer, frozen: Option<Mass>, also: &[AlsoMixed]) -> Vec<DoughPart> {
    let mut parts = vec![DoughPart {
        part_use: PartUse::Bake,
        name: job.input().order.name.clone(),
        pieces: job.baked_pieces(),
        dough: demand.dough,
    }];
    if let Some(dough) = frozen {
        parts.push(DoughPart {
            part_use: PartUse::Freeze,
            name: String::new(),
            pieces: job.input().order.freeze_pieces,
            dough,
        });
    }
    parts.extend(also.iter().map(|a| DoughPart {
        part_use: PartUse::OtherJob,
        name: a.name.clone(),
        pieces: a.pieces,
        dough: a.dough,
    }));
    parts
}

/// The dough station's answer for the pieces that so much dough was found to be needed for.
pub(crate) fn dough_plan(
    job: &Job,
    formula: &Formula,
    kitchen: &Kitchen,
    takes: &Takes,
    demand: &DemandAnswer,
    also: &[AlsoMixed],
) -> Result<DoughPlan, InputErrors> {
    let input = job.input();
    let (piece, density) = (takes.size.mass, takes.density);
    let parts = parts_of(job, demand, takes.frozen()?, also);
    let dough = Mass::new_g(parts.iter().map(|p| p.dough.g()).sum());
    let whole_eggs = input.dough.whole_eggs.then_some(kitchen.input().mixing.egg_class);
    let rules = WeighRules::new(
        kitchen.input().mixing.scale_step_g,
        kitchen.input().mixing.fine_step_g,
        input.dough.hold_back_percent,
        whole_eggs,
    )?;
    let (mix_limit, _) = kitchen.mixer().most(density);
    crate::dough::within_mixes(dough, mix_limit)?;
    let mixes = divide_into_mixes(formula, dough, kitchen.mixer(), density, &rules);
    let measured = job.measured_dough();
    let temperature = measured.unwrap_or_else(|| {
        mixing_temperatures(&mixes.formula, input.dough.method, kitchen.room(), kitchen.fridge_air()).dough
    });
    let cut = f64::from(job.baked_pieces()) * piece.g();
    let mut reasons = vec![
        Reason::PiecesWeigh { pieces: job.baked_pieces(), each: piece, all: Mass::new_g(cut) },
        Reason::ScrapAdds { scrap: Mass::new_g((demand.left.g() + demand.lost.g()).max(0.0)), reserve: demand.reserve },
    ];
    for part in &parts[1..] {
        reasons.push(match part.part_use {
            PartUse::Freeze => Reason::ForTheFreezer { dough: part.dough, pieces: part.pieces },
            PartUse::Bake | PartUse::OtherJob => Reason::MixedForAnother { dough: part.dough, job: part.name.clone() },
        });
    }
    reasons.extend(mixes.reasons.iter().cloned().map(Reason::Dough));
    let mut warnings = mixes.warnings.clone();
    let character = Character::of(&mixes.formula);
    warnings.extend(character.warnings);
    Ok(DoughPlan {
        dough,
        parts,
        piece,
        density,
        bakers: mixes.formula.bakers_percentages(),
        ratio: formula.ratio(),
        standing: character.standing,
        composition: formula.composition(),
        temperature,
        temperature_measured: measured.is_some(),
        allergens: formula.allergens(),
        mix_limit,
        warnings,
        reasons,
        mixes,
    })
}
