//! What a lot's finish takes, how long it keeps then, and what is left of spirits.

use crate::dough::{Formula, Texture, texture};
use crate::finish::{Coat, FinishedPiece, baked_keeping, packing, spirit_left};
use crate::geometry::Outline;
use crate::job::answers::FinishPlan;
use crate::job::answers::OvenPlan;
use crate::job::settings::job::Job;
use crate::oven::BakeEnd;
use crate::units::{Area, Length, Mass, Span};

/// How its pieces eat, baked to the end that the job has.
pub(crate) fn texture_baked(job: &Job, formula: &Formula) -> Texture {
    match job.input().oven.bake_end {
        BakeEnd::Soft(_) => texture(formula).baked_soft(),
        BakeEnd::Colour(_) | BakeEnd::Dull => texture(formula),
    }
}

/// The finish of a job: its pieces as large as they are baked on the whole.
pub(crate) fn finish_plan(job: &Job, formula: &Formula, outline: &Outline, oven: &OvenPlan, dough: Mass) -> FinishPlan {
    let grown = Length::new_mm(f64::midpoint(oven.growth.0.mm(), oven.growth.1.mm()).max(0.0));
    let edge = outline.perimeter();
    let piece = FinishedPiece {
        // Steiner's formula: a rim all round, and a disc of it at the corners.
        top: Area::new_mm2(
            outline.area().mm2() + edge.mm() * grown.mm() + std::f64::consts::PI * grown.mm() * grown.mm(),
        ),
        edge: edge + grown * std::f64::consts::TAU,
        thickness: oven.forecast.as_ref().map_or(oven.thickness, |f| f.thickness),
        pieces: job.baked_pieces(),
    };
    let bake = match &oven.forecast {
        Some(f) => f.bake,
        None => Span::new_min(f64::midpoint(oven.expected.bake.0.min(), oven.expected.bake.1.min())),
    };
    let finishes = &job.input().finish.finishes;
    let coats: Vec<Coat> = finishes.iter().map(|f| f.coat).collect();
    let texture = texture_baked(job, formula);
    FinishPlan {
        piece,
        coats: finishes.iter().map(|f| f.plan(piece)).collect(),
        keeping: baked_keeping(formula, texture, &coats),
        packing: packing(texture, &coats, piece.pieces),
        spirit: spirit_left(formula, dough, bake),
    }
}
