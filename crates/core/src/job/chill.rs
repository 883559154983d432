//! What is put into the cold first, and what it is asked there.

use super::portioned::portion_question;
use super::{ColdPlace, DoughPlan, Job, Kitchen, Making};
use crate::cold::{ChillQuestion, Piece, Support, Target, Wrap};
use crate::dough::Composition;
use crate::error::InputErrors;
use crate::units::Temperature;

/// A disc is pressed to this where nobody says otherwise, mm. Common practice, no source.
pub(super) const USUAL_DISC_MM: f64 = 22.0;

/// The first chill of a job's dough: to be rolled or sliced, or, of portions, until they are firm for the oven.
pub(super) fn first_chill(
    job: &Job,
    kitchen: &Kitchen,
    dough: &DoughPlan,
    piece: Piece,
    place: ColdPlace,
) -> Result<ChillQuestion, InputErrors> {
    match job.input().making {
        Making::Portioned(_) => portion_question(kitchen, dough, piece, place),
        Making::Cut | Making::Sliced { .. } => chill_question(kitchen, dough, piece, place),
    }
}

/// The dough out of the bowl, as it is put into the cold to be rolled: [`question_of`] a plan's dough.
pub(super) fn chill_question(
    kitchen: &Kitchen,
    dough: &DoughPlan,
    piece: Piece,
    place: ColdPlace,
) -> Result<ChillQuestion, InputErrors> {
    question_of(kitchen, &dough.composition, piece, dough.temperature, place)
}

/// A piece of a dough put into one of the kitchen's cold places, to be rolled, or sliced if it is a log or a bar.
///
/// Discs and balls lie wrapped on the shelf; sheets between their papers on a tray that was at room temperature.
pub fn question_of(
    kitchen: &Kitchen,
    composition: &Composition,
    piece: Piece,
    start: Temperature,
    place: ColdPlace,
) -> Result<ChillQuestion, InputErrors> {
    let support = match piece {
        Piece::Sheet { .. } => Support::Tray { kind: kitchen.tray_kind(), start: kitchen.room() },
        _ => Support::Rack,
    };
    let target = match piece {
        Piece::Log { .. } | Piece::Bar { .. } => Target::Slicing,
        _ => Target::Rolling,
    };
    ChillQuestion::new(composition.clone(), piece, Wrap::Wrapped, support, start.c(), kitchen.place(place), target)
}
