//! What is put into the cold first, and what it is asked there.

use crate::cold::ColdPlace;
use crate::cold::{ChillQuestion, Piece, Support, Target, Wrap};
use crate::dough::Composition;
use crate::error::InputErrors;
use crate::job::answers::DoughPlan;
use crate::job::cold::portion_chill::portion_question;
use crate::job::settings::job::Job;
use crate::job::settings::kitchen::Kitchen;
use crate::job::settings::making::Making;
use crate::units::{Density, Length, Mass, Temperature};
use std::f64::consts::PI;

/// A disc is pressed to this where nobody says otherwise, mm. Common practice, no source.
pub(crate) const USUAL_DISC_MM: f64 = 22.0;

/// All of a mix as it left the bowl: a cylinder as high as wide.
pub(crate) fn lump_of(mass: Mass, density: Density) -> Piece {
    let across = (mass.g() * 1e6 / density.kg_m3() * 4.0 / PI).cbrt();
    Piece::Ball { diameter: Length::new_mm(across.clamp(10.0, 200.0)) }
}

/// The first chill of a job's dough: to be rolled or sliced, or, of portions, until they are firm for the oven.
pub(crate) fn first_chill(
    job: &Job,
    kitchen: &Kitchen,
    dough: &DoughPlan,
    piece: Piece,
    place: ColdPlace,
) -> Result<ChillQuestion, InputErrors> {
    if job.portions_first() {
        return Ok(portion_question(kitchen, dough, piece, place)?.resting(job.flour_rest()));
    }
    let question = chill_question(kitchen, dough, piece, place)?;
    // What is portioned, or formed to logs, is scooped out of its bowl.
    let scooped = matches!(piece, Piece::Ball { .. }) && job.input().shape.making != Making::Cut;
    let question = if scooped { question.wanted_for(Target::Rolling) } else { question };
    Ok(question.resting(job.flour_rest()))
}

/// The dough out of the bowl, as it is put into the cold to be rolled: [`question_of`] a plan's dough.
pub(crate) fn chill_question(
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
        Piece::Sheet { .. } | Piece::Stack { .. } => Support::Tray { kind: kitchen.tray_kind(), start: kitchen.room() },
        _ => Support::Rack,
    };
    let target = match piece {
        Piece::Log { .. } | Piece::Bar { .. } => Target::Slicing,
        Piece::Ball { .. } => Target::RolledLater,
        _ => Target::Rolling,
    };
    ChillQuestion::new(composition.clone(), piece, Wrap::Wrapped, support, start.c(), kitchen.place(place), target)
}
