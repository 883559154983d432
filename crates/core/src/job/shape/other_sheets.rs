//! Other sheets than the job's own, by the dough they would need.

use crate::dough::Formula;
use crate::error::InputErrors;
use crate::geometry::Outline;
use crate::job::dough::batches::dough_of;
use crate::job::settings::job::Job;
use crate::job::settings::kitchen::Kitchen;
use crate::job::settings::making::Making;
use crate::shape::SheetKind;
use crate::units::{Length, Mass, Share};

/// A form of sheet, and what the job would take on it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SheetChoice {
    /// Its form.
    pub sheet: SheetKind,
    /// As wide at most; as the tray or the baker has it where absent.
    pub width: Option<Length>,
    /// The dough of the job on such sheets, in all.
    pub dough: Mass,
    /// That much less than on its own.
    pub saves: Mass,
    /// The same, of its own.
    pub saved: Share,
}

/// Widths are tried in steps of this. A rolling pin is not truer. Common practice, no source.
const STEP_MM: f64 = 10.0;
/// No sheet is rolled narrower than this share of the widest.
const NARROWEST: f64 = 0.5;
/// Less than this saved is not worth another sheet. Common practice, no source.
const WORTH: f64 = 0.01;

/// The best other sheet of each form that needs at least a hundredth less dough, the best first; none for pieces that are not cut from
/// sheets, or that lie as somebody has kept them.
pub fn sheet_choices(
    job: &Job,
    formula: &Formula,
    outline: &Outline,
    kitchen: &Kitchen,
) -> Result<Vec<SheetChoice>, InputErrors> {
    let input = job.input();
    if input.shape.making != Making::Cut || !input.shape.layout.is_empty() {
        return Ok(vec![]);
    }
    let own = dough_of(job, formula, outline, kitchen, None)?;
    let widest = kitchen.trays().width().mm();
    let widths = std::iter::successors(Some((widest / STEP_MM).floor() * STEP_MM), |w| Some(w - STEP_MM))
        .take_while(|w| *w >= NARROWEST * widest);
    let wanted = [(SheetKind::Round, None), (SheetKind::Oval, None)]
        .into_iter()
        .chain(widths.map(|w| (SheetKind::Oblong, Some(w))))
        .filter(|(sheet, width)| *sheet != input.shape.sheet || width.is_some());
    let mut best: Vec<SheetChoice> = Vec::new();
    for (sheet, width) in wanted {
        let mut other = input.clone();
        other.shape.sheet = sheet;
        other.shape.sheet_width_mm = width.or(input.shape.sheet_width_mm);
        // A sheet on which the cutter does not lie is none to choose.
        let Ok(dough) = Job::new(other).and_then(|other| dough_of(&other, formula, outline, kitchen, None)) else {
            continue;
        };
        let saves = own - dough;
        let choice =
            SheetChoice { sheet, width: width.map(Length::new_mm), dough, saves, saved: Share::new(saves / own) };
        if choice.saved.value() < WORTH {
            continue;
        }
        match best.iter_mut().find(|b| b.sheet == sheet) {
            Some(known) if known.dough.g() <= dough.g() + 1e-9 => {}
            Some(known) => *known = choice,
            None => best.push(choice),
        }
    }
    best.sort_by(|a, b| a.dough.g().total_cmp(&b.dough.g()));
    Ok(best)
}
