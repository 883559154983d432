//! A bar that is baked in its pan: what fits there, and how thick so much dough lies in it.

use crate::dough::{Formula, rolled_density};
use crate::error::{InputError, InputErrors};
use crate::job::settings::job::Job;
use crate::job::settings::kitchen::Kitchen;
use crate::job::settings::making::Making;
use crate::shape::{Portion, pan_area};
use crate::units::{Length, Mass};

/// What is no more than this wider than the tray lies in it.
const SLACK_MM: f64 = 0.05;

/// A bar that is spread over a tray is no larger than that, either way round.
///
/// Fails, naming the field, where it is.
pub(crate) fn fits_its_tray(job: &Job, kitchen: &Kitchen) -> Result<(), InputErrors> {
    let Making::Portioned(Portion::TrayBar { width, length, .. }) = &job.input().shape.making else { return Ok(()) };
    let (a, b) = (kitchen.trays().width(), kitchen.trays().length());
    let fits = |w: Length, l: Length| width.mm() <= w.mm() + SLACK_MM && length.mm() <= l.mm() + SLACK_MM;
    if fits(a, b) || fits(b, a) {
        return Ok(());
    }
    let field = if length.mm() > b.mm().max(a.mm()) + SLACK_MM { "making.length_mm" } else { "making.width_mm" };
    Err(InputError::refused(
        field,
        format!(
            "The pan ({:.0} \u{d7} {:.0} mm) doesn\u{2019}t fit the tray ({:.0} \u{d7} {:.0} mm). Use a smaller pan.",
            length.mm(),
            width.mm(),
            b.mm(),
            a.mm()
        ),
    )
    .into())
}

/// So much dough in the pans of a job's bar.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PanFill {
    /// As many pans as it comes nearest to filling as planned; at least one.
    pub pans: u32,
    /// How thick it lies in them.
    pub depth: Length,
}

/// How thick so much dough lies in the pans of a job; nothing for pieces that are not of a pan.
#[must_use]
pub fn pan_fill(dough: Mass, job: &Job, formula: &Formula) -> Option<PanFill> {
    let Making::Portioned(Portion::TrayBar { width, length, depth, corner, .. }) = &job.input().shape.making else {
        return None;
    };
    let density = rolled_density(&formula.composition(), job.input().dough.method);
    let one = pan_area(*width, *length, *corner).mass_at(*depth, density);
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a batch in range by a pan in range")]
    let pans = (dough / one).round().clamp(1.0, 10_000.0) as u32;
    Some(PanFill { pans, depth: *depth * (dough / one / f64::from(pans)) })
}
