//! The oven station's answer: what is expected of a job's bake, how far its piece grows, and what to do at the oven.

use crate::dough::{Formula, Kind, Texture, hides_colour};
use crate::error::InputErrors;
use crate::geometry::Outline;
use crate::job::answers::OvenPlan;
use crate::job::finish::finish_plan::texture_baked;
use crate::job::oven::bake::BakeQuestion;
use crate::job::oven::bake::{BakeExpected, Cooling, bake_question, cooling, cover_of, expect_bake, most_spread};
use crate::job::reasons::piece_reason::PieceReason;
use crate::job::reasons::reason::Reason;
use crate::job::settings::job::Job;
use crate::job::settings::kitchen::Kitchen;
use crate::job::settings::making::Making;
use crate::oven::{BakeEnd, BakeKnowledge, BakeSetting, HotSpots};
use crate::shape::{Bent, DemandAnswer, Portion, TrayAnswer, fill_trays, trays_in_place, trays_of_squares};
use crate::units::{Length, Share, Temperature};

/// A job's pieces on their trays. How far apart they lie follows from how far they grow on a full one; how full that is, and so the question, from
/// how they lie.
pub(crate) fn lay_out(
    job: &Job,
    formula: &Formula,
    outline: &Outline,
    kitchen: &Kitchen,
    question: &mut BakeQuestion,
    (demand, learnt): (Option<&DemandAnswer>, Option<&BakeKnowledge>),
) -> Result<TrayAnswer, InputErrors> {
    if let Making::Portioned(Portion::TrayBar { width, length, columns, rows, .. }) = &job.input().shape.making {
        let squares = (*columns, *rows);
        return Ok(trays_of_squares(outline, job.baked_pieces(), (*width, *length), squares, kitchen.trays()));
    }
    let grows = outline.rim_radius() * most_spread(job, formula, kitchen, question, learnt)?.value();
    let trays = match demand.filter(|_| job.cut_in_place()) {
        Some(demand) => trays_in_place(&demand.rolls, grows, kitchen.trays()),
        None => fill_trays(outline, job.baked_pieces(), grows, kitchen.trays(), &job.input().shape.tray_layout)?,
    };
    question.oven.cover = cover_of(outline, trays.fill.first().copied().unwrap_or(1), kitchen);
    Ok(trays)
}

/// The question of a job's piece as it was baked: from a temperature as measured, on a tray as full as the job's are.
///
/// Fails where a piece is larger than its tray.
pub fn question_as_baked(
    job: &Job,
    formula: &Formula,
    outline: &Outline,
    thickness: Length,
    kitchen: &Kitchen,
    start: Temperature,
) -> Result<BakeQuestion, InputErrors> {
    let mut question = bake_question(job, formula, outline, thickness, kitchen, (start, start), None)?;
    lay_out(job, formula, outline, kitchen, &mut question, (None, None))?;
    Ok(question)
}

pub(crate) fn oven_plan(
    job: &Job,
    formula: &Formula,
    outline: &Outline,
    kitchen: &Kitchen,
    question: &BakeQuestion,
    learnt: Option<&BakeKnowledge>,
) -> Result<OvenPlan, InputErrors> {
    let setting = BakeSetting::new(job.input().oven.oven_c, kitchen.ovens().fan)?;
    let (w, h) = outline.extent();
    let BakeExpected { mut expected, mut reasons, mut warnings, forecast } =
        expect_bake(job, formula, kitchen, question, learnt)?;
    // Spread is that of a round; it happens at the rim, so any outline grows like the disc that stands for it.
    let in_pan = matches!(job.input().shape.making, Making::Portioned(Portion::TrayBar { .. }));
    if in_pan {
        // The walls of the pan hold it.
        expected.spread = (Share::new(0.0), Share::new(0.0));
    }
    let growth = (outline.rim_radius() * expected.spread.0.value(), outline.rim_radius() * expected.spread.1.value());
    let hides_colour = hides_colour(formula);
    let cooling = match &forecast {
        Some(f) => cooling(question, f),
        None => Cooling::usual(&expected),
    };
    expected.cool_on_tray = cooling.on_tray();
    let width = if w > h { w } else { h };
    warnings.extend(not_alike_all_over(job, formula, expected.spread.1));
    if kitchen.small_oven() {
        warnings.push(Reason::SmallOven);
    }
    if in_pan {
        let short = matches!(texture_baked(job, formula), Texture::Crisp | Texture::Short);
        let cut = if short { Reason::Piece(PieceReason::CutWarm) } else { Reason::Piece(PieceReason::CutCold) };
        reasons.extend([Reason::Piece(PieceReason::FillsItsPan), Reason::Piece(PieceReason::PanEdgesAhead), cut]);
    } else {
        reasons.push(Reason::GrowsAtTheRim { by: growth });
    }
    Ok(OvenPlan {
        baked_holes: outline.holes_after_spread(growth.1),
        look_for: if hides_colour { BakeEnd::Dull } else { question.end }.look_for(forecast.as_ref()),
        hides_colour,
        cooling,
        turn: turns(kitchen),
        comes_back: kitchen.door().1 * 2.0,
        cover_pot: kitchen.cover_pot(),
        recipe: None,
        oven: setting.oven(),
        question: question.clone(),
        expected,
        reasons,
        warnings,
        forecast,
        width,
        thickness: question.piece.thickness,
        growth,
        baked_outline: outline.spread_by(growth.1),
    })
}

/// A relief shows while a piece spreads by less than this. Common practice, no source.
const RELIEF_HOLDS: Share = Share::new(0.08);
/// A part so much smaller than the largest bakes ahead of it, by their masses. Our own choice.
const SMALL_PART: f64 = 0.5;

/// What to mind of a piece that is thicker or thinner in places, or has a relief.
fn not_alike_all_over(job: &Job, formula: &Formula, spread: Share) -> Vec<Reason> {
    let Making::Portioned(portion) = &job.input().shape.making else { return vec![] };
    match portion {
        Portion::Rope { bent: Bent::Knot | Bent::Twist, .. } => vec![Reason::Piece(PieceReason::CrossingsBakeLast)],
        Portion::Rope { bent: Bent::Crescent, .. } => vec![Reason::Piece(PieceReason::ThinEndsAhead)],
        Portion::Figure { parts } => {
            let largest = parts.iter().map(|p| p.g()).fold(0.0, f64::max);
            let small = parts.iter().any(|p| p.g() < SMALL_PART * largest);
            small.then_some(Reason::Piece(PieceReason::SmallPartsAhead)).into_iter().collect()
        }
        Portion::Stamped { .. } => {
            let most = RELIEF_HOLDS;
            let relief = if spread < most {
                Reason::Piece(PieceReason::ReliefHolds { spread, most })
            } else {
                Reason::Piece(PieceReason::ReliefFades { spread, most })
            };
            let lifted = formula.kind_mass(Kind::Leavener).g() > 0.0;
            std::iter::once(relief).chain(lifted.then_some(Reason::Piece(PieceReason::PowderLiftsTheRelief))).collect()
        }
        _ => vec![],
    }
}

/// What to turn or swap half way; nothing in an oven that is even, or that nobody has tried.
fn turns(kitchen: &Kitchen) -> Vec<Reason> {
    let side = kitchen.hot_spots().and_then(HotSpots::advice).map(Reason::Oven);
    // Common practice, no source.
    let shelves = (kitchen.ovens().racks > 1).then_some(Reason::SwapShelves);
    side.into_iter().chain(shelves).collect()
}
