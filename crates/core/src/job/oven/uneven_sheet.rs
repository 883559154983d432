//! What an uneven sheet does to the bake.

use crate::dough::{Formula, spread_tendency};
use crate::error::InputErrors;
use crate::job::oven::bake::BakeQuestion;
use crate::job::reasons::reason::Reason;
use crate::job::settings::job::Job;
use crate::job::settings::kitchen::Kitchen;
use crate::oven::{BakePiece, BakeSetting, bake_practice};
use crate::shape::{Evenness, ONE_CLASS, judge_evenness};
use crate::units::{Length, Span};

/// What an uneven sheet does to the bake.
#[derive(Debug, Clone, PartialEq)]
pub struct EvenBake {
    /// Time of the thinnest pieces.
    pub thin: Span,
    /// Time of the thickest pieces.
    pub thick: Span,
    /// Whether they may lie on one tray.
    pub one_tray: bool,
    /// What to do.
    pub advice: Vec<Reason>,
}

/// How even a sheet of the job is, by what was read on it; `None` when nothing was. Readings are kept in shares of the sheet; its
/// proportions are those of a full tray.
#[must_use]
pub fn even_sheet(job: &Job, kitchen: &Kitchen, sheet: usize) -> Option<Evenness> {
    let trays = kitchen.trays();
    judge_evenness(job.measured().get(sheet)?, job.thickness(), trays.width(), trays.length())
}

/// Bake times of the thinnest and the thickest pieces of a sheet, and what to do about it.
pub fn even_bake(
    job: &Job,
    formula: &Formula,
    kitchen: &Kitchen,
    question: &BakeQuestion,
    even: &Evenness,
) -> Result<EvenBake, InputErrors> {
    let time = |thickness: Length| -> Result<Span, InputErrors> {
        let piece = BakePiece { thickness, ..question.piece };
        match (BakeQuestion { piece, ..question.clone() }).answer() {
            Ok(found) => Ok(found.bake),
            // Beyond what the forecast knows: the middle of common practice.
            Err(_) => {
                let setting = BakeSetting::new(job.input().oven.oven_c, kitchen.ovens().fan)?;
                Ok(bake_practice(thickness, setting, question.end, &spread_tendency(formula)).expected.middle)
            }
        }
    };
    let (thin, thick) = (time(even.least)?, time(even.most)?);
    let one_tray = thick.min() <= thin.min() * (1.0 + ONE_CLASS.value());
    let by = if thick > thin { thick - thin } else { Span::new_s(0.0) };
    let mut advice = vec![if one_tray { Reason::ThinFirstOneTray { by } } else { Reason::ThinFirstApart { by } }];
    let wanted = job.thickness().mm();
    let off = even.mean.mm() - wanted;
    if off.abs() > 0.04 * wanted {
        advice.push(Reason::SheetOff { thicker: off > 0.0, by: Length::new_mm(off.abs()) });
    }
    Ok(EvenBake { thin, thick, one_tray, advice })
}
