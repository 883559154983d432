//! What must be done so that the dough is ready to roll at a wanted time.

use crate::cold::ColdPlace;
use crate::cold::{InTime, Never, Piece, disc_in_time, disc_of, in_time};
use crate::error::{Checks, InputErrors};
use crate::job::answers::Plan;
use crate::job::cold::chill_question::{USUAL_DISC_MM, chill_question, first_chill};
use crate::job::cold::chill_result::ChillChange;
use crate::job::settings::job::Job;
use crate::job::settings::kitchen::Kitchen;
use crate::job::settings::making::Making;
use crate::units::{Length, Span};

/// One way to have it ready.
#[derive(Debug, Clone, PartialEq)]
pub struct WantedWay {
    /// The form.
    pub piece: Piece,
    /// Where.
    pub place: ColdPlace,
    /// How long it takes at the slow end of its range; why it never does, otherwise.
    pub needs: Result<Span, Never>,
    /// Whether that is within the time there is.
    pub makes_it: bool,
    /// For a disc: the thickest that is ready in time.
    pub thickest: Option<Length>,
    /// What taking it changes of the job: pressed to the thickest that is ready in time where it does not make it.
    pub take: Option<ChillChange>,
}

/// Every way to have the first mix ready within the time there is: discs as pressed in this job (or as is usual) and sheets
/// rolled first, in fridge and freezer. Those that make it come first, the gentlest of them before the rest.
///
/// Fails for a time below a minute or above two days.
pub fn wanted_ways(job: &Job, kitchen: &Kitchen, plan: &Plan, within: Span) -> Result<Vec<WantedWay>, InputErrors> {
    let mut checks = Checks::new();
    checks.range("within_min", within.min(), 1.0, 2.0 * 24.0 * 60.0, "min");
    checks.finish(())?;
    let mass = plan.shape.demand.rolls[0].mass;
    let density = plan.dough.density;
    let thickness = match job.chill_form() {
        crate::job::settings::chill_choice::ChillForm::Disc { thickness } => thickness,
        _ => Length::new_mm(USUAL_DISC_MM),
    };
    let mut ways = Vec::with_capacity(4);
    for place in [ColdPlace::Fridge, ColdPlace::Freezer] {
        if job.input().shape.making != Making::Cut {
            let piece = plan.cold.form.piece;
            ways.push(way(job, piece, place, in_time(&first_chill(job, kitchen, &plan.dough, piece, place)?, within)));
            continue;
        }
        let disc = disc_of(mass, thickness, density);
        let question = chill_question(kitchen, &plan.dough, disc, place)?.resting(job.flour_rest());
        ways.push(way(job, disc, place, disc_in_time(&question, mass, density, within)));
        let sheet = Piece::Sheet { thickness: job.thickness() };
        let question = chill_question(kitchen, &plan.dough, sheet, place)?.resting(job.flour_rest());
        ways.push(way(job, sheet, place, in_time(&question, within)));
    }
    // The slower of those that make it is the gentler: it has longer until it is too cold.
    ways.sort_by(|a, b| {
        let slow = |w: &WantedWay| w.needs.as_ref().map_or(f64::MAX, |n| n.s());
        b.makes_it.cmp(&a.makes_it).then(if a.makes_it {
            slow(b).total_cmp(&slow(a))
        } else {
            slow(a).total_cmp(&slow(b))
        })
    });
    Ok(ways)
}

fn way(job: &Job, piece: Piece, place: ColdPlace, answer: Result<InTime, Never>) -> WantedWay {
    let take = job.chilled_as(piece, place);
    match answer {
        Ok(InTime { needs, makes_it, thickest }) => {
            let thinner = thickest.filter(|_| !makes_it).map(Length::mm);
            let take = take.map(|take| ChillChange { disc_mm: thinner.or(take.disc_mm), ..take });
            WantedWay { piece, place, needs: Ok(needs), makes_it, thickest, take }
        }
        Err(never) => WantedWay { piece, place, needs: Err(never), makes_it: false, thickest: None, take: None },
    }
}
