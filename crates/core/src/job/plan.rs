//! The plan: inputs in, one value out in which every station has answered, with its reasons.

use crate::cold::Window;
use crate::dough::{Formula, keeping};
use crate::error::{InputError, InputErrors};
use crate::geometry::Outline;
use crate::job::answers::{DoughPlan, Plan, ShapePlan};
use crate::job::cold::cold_plan::{cold_plan, goes_in_at};
use crate::job::day::bench::{hands_at_the_bench, in_parts};
use crate::job::day::clock_plan::clock_plan;
use crate::job::dough::batches::{AlsoMixed, Takes, dough_plan};
use crate::job::finish::finish_plan::finish_plan;
use crate::job::oven::bake::bake_question;
use crate::job::oven::oven_plan::{lay_out, oven_plan};
use crate::job::oven::recipe_said::{recipe_bakes, recipe_chills};
use crate::job::reasons::piece_reason::PieceReason;
use crate::job::reasons::reason::Reason;
use crate::job::settings::job::Job;
use crate::job::settings::kitchen::Kitchen;
use crate::job::settings::making::Making;
use crate::job::shape::pan::fits_its_tray;
use crate::job::shape::pieces::largest_sheet;
use crate::job::shape::pricked::pricks;
use crate::oven::BakeKnowledge;
use crate::safety::{Caution, raw_rule};
use crate::shape::{
    DemandAnswer, LatticeTable, Layout, MixedFault, MixedShare, Portion, SheetKind, Spacing, TrayAnswer,
};
use crate::units::Length;

/// What a lot has to do with other lots.
#[derive(Debug, Clone, Default)]
pub struct WithOthers {
    /// Others whose dough is mixed with this one's.
    pub also: Vec<AlsoMixed>,
    /// What recorded bakes of its formula have taught.
    pub learnt: Option<BakeKnowledge>,
    /// Its share of sheets that are cut together with others, or why they cannot be used.
    pub mixed: Option<Result<MixedShare, MixedFault>>,
}

/// Plans one job whose dough is mixed by itself: [`plan_with`] without others.
pub fn plan(job: &Job, formula: &Formula, outline: &Outline, kitchen: &Kitchen) -> Result<Plan, InputErrors> {
    plan_with(job, formula, outline, kitchen, &WithOthers::default())
}

/// Plans one job of one lot.
///
/// Fails, naming the field, when the cutter is larger than the sheet or the tray, when the pieces need more mixes than a
/// job may have, when the dough holds no fat that is ever firm, or when its cold place never makes it firm.
pub fn plan_with(
    job: &Job,
    formula: &Formula,
    outline: &Outline,
    kitchen: &Kitchen,
    beside: &WithOthers,
) -> Result<Plan, InputErrors> {
    let composition = formula.composition();
    let Some(window) = Window::of(&composition) else {
        return Err(InputError::refused(
            "formula",
            "Most of this dough’s fat stays liquid, so you can’t roll or slice it. Use a fat that sets when cold.",
        )
        .into());
    };
    fits_its_tray(job, kitchen)?;
    let takes = Takes::of(job, formula, outline, kitchen, beside.mixed.as_ref())?;
    let demand = takes.baked()?;
    let dough = dough_plan(job, formula, kitchen, &takes, &demand, &beside.also)?;
    let mut cold = cold_plan(job, kitchen, &dough, &demand, &window, keeping(formula))?;
    let learnt = beside.learnt.as_ref();
    let mut question =
        bake_question(job, formula, outline, takes.size.thickness, kitchen, goes_in_at(job, kitchen, &cold), learnt)?;
    let trays = lay_out(job, formula, outline, kitchen, &mut question, (Some(&demand), learnt))?;
    let mut oven = oven_plan(job, formula, outline, kitchen, &question, learnt)?;
    if let Some(says) = formula.says() {
        (cold.recipe, oven.recipe) = (recipe_chills(says, &cold), recipe_bakes(says, job, &oven));
    }
    let mut shape = shape_plan(job, kitchen, demand, trays);
    shape.reasons.extend(pricks(job, outline));
    shape.reasons.extend(takes.source.fault().cloned());
    let hands = hands_at_the_bench(job, outline, kitchen, &shape);
    if job.input().shape.making == Making::Cut && cold.stays.waits_for_ready() {
        cold.reasons.extend(in_parts(&cold, hands.longest()));
    }
    let clock = clock_plan(job, kitchen, &dough, &shape, &cold, &oven, hands);
    let finish = finish_plan(job, formula, outline, &oven, dough.piece);
    let cautions = vec![Caution::ColdRule, raw_rule(formula)];
    Ok(Plan { dough, cold, shape, oven, finish, clock, cautions })
}

/// The dough station alone: what is weighed and mixed, without the cold, the trays and the clock.
///
/// Fails as [`plan_with`] does where sheet or mixes are at fault.
pub fn plan_dough(
    job: &Job,
    formula: &Formula,
    outline: &Outline,
    kitchen: &Kitchen,
    beside: &WithOthers,
) -> Result<DoughPlan, InputErrors> {
    let takes = Takes::of(job, formula, outline, kitchen, beside.mixed.as_ref())?;
    let demand = takes.baked()?;
    dough_plan(job, formula, kitchen, &takes, &demand, &beside.also)
}

/// Lays as many pieces of one cutter as fit on a sheet of a mass, for the compute endpoint.
pub fn compute_sheet(
    outline: &Outline,
    width: Length,
    longest: Length,
    spacing: Spacing,
    area: Option<crate::units::Area>,
) -> Result<Layout, InputErrors> {
    let table = LatticeTable::for_sheet(outline, width, longest, spacing)?;
    let length = area.map_or(longest, |a| Length::new_mm((a.mm2() / width.mm()).min(longest.mm())));
    Ok(table.layout(length))
}

/// Of what is kept free beyond the growth so much may be missing, mm: it is a comfort, the growth is not. Our own choice.
const IN_PLACE_SPARES_MM: f64 = 5.0;

fn shape_plan(job: &Job, kitchen: &Kitchen, demand: DemandAnswer, trays: TrayAnswer) -> ShapePlan {
    let mut reasons = Vec::new();
    let first = &demand.rolls[0];
    let cut = job.input().shape.making == Making::Cut;
    reasons.push(match &job.input().shape.making {
        Making::Cut => Reason::RolledTo { mass: first.mass, thickness: job.thickness(), form: first.form },
        Making::Sliced { .. } => Reason::Logs {
            logs: first.sheets,
            mass: first.mass,
            length: first.form.extent().1,
            slices: first.pieces.div_ceil(first.sheets.max(1)),
            slice: job.thickness(),
            trim: job.input().shape.making.trim(),
        },
        Making::Portioned(Portion::TrayBar { .. }) => Reason::Trays { trays: first.sheets, mass: first.mass },
        Making::Portioned(_) => Reason::Portions { portions: first.pieces, mass: first.mass },
    });
    reasons.extend(first.layout.least_gap.map(|gap| Reason::SmallestGap { gap }));
    if demand.from_second_reroll > 0 {
        reasons.push(Reason::FromSecondReroll { pieces: demand.from_second_reroll });
    }
    let allowed = largest_sheet(job, kitchen).extent();
    let (tray_width, tray_length) = (kitchen.trays().width(), kitchen.trays().length());
    if cut && (allowed.0 < tray_width || allowed.1 < tray_length) && job.input().shape.sheet == SheetKind::Oblong {
        reasons.push(Reason::SheetKeptTo { sheet: (allowed.1, allowed.0), tray: (tray_length, tray_width) });
    }
    let rods_owned = !cut || kitchen.has_rods(job.thickness());
    if !rods_owned {
        reasons.push(Reason::NoRods { thickness: job.thickness() });
    }
    if let Some(fault) = trays.fault {
        reasons.push(Reason::TrayNotUsed { fault, gap: trays.gap });
    }
    if job.cut_in_place() {
        let (gap, needed) = (trays.gap, trays.needs);
        reasons.push(Reason::Piece(PieceReason::CutInPlace { gap }));
        if needed.mm() > gap.mm() + IN_PLACE_SPARES_MM {
            reasons.push(Reason::Piece(PieceReason::InPlaceTooNear { gap, needed }));
        }
    } else {
        reasons.push(Reason::GapOnTheTray { gap: trays.gap, by_growth: trays.gap > kitchen.trays().least_gap() });
    }
    ShapePlan { demand, rods_owned, trays, reasons }
}
