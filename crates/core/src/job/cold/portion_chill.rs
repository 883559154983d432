//! Portions of a job's dough in the cold before they are baked.

use crate::cold::ColdPlace;
use crate::cold::{ChillAnswer, ChillQuestion, Piece, Support, Target, Wrap, chill};
use crate::error::InputErrors;
use crate::job::answers::DoughPlan;
use crate::job::settings::kitchen::Kitchen;

/// How long portions take in one of the kitchen's cold places until they are firm for the oven: open, on a tray that was at
/// room temperature where they lie flat, else with air all round.
pub fn chill_portion(
    kitchen: &Kitchen,
    dough: &DoughPlan,
    piece: Piece,
    place: ColdPlace,
) -> Result<ChillAnswer, InputErrors> {
    Ok(chill(&portion_question(kitchen, dough, piece, place)?))
}

pub(crate) fn portion_question(
    kitchen: &Kitchen,
    dough: &DoughPlan,
    piece: Piece,
    place: ColdPlace,
) -> Result<ChillQuestion, InputErrors> {
    let support = match piece {
        Piece::Sheet { .. } => Support::Tray { kind: kitchen.tray_kind(), start: kitchen.room() },
        _ => Support::Rack,
    };
    let start = dough.temperature.c();
    ChillQuestion::new(dough.composition.clone(), piece, Wrap::Open, support, start, kitchen.place(place), Target::Oven)
}
