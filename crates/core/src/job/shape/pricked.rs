//! Pieces pricked with a fork, so that steam gets out.

use crate::geometry::Outline;
use crate::job::reasons::piece_reason::PieceReason;
use crate::job::reasons::reason::Reason;
use crate::job::settings::job::Job;
use crate::job::settings::making::Making;
use crate::shape::Portion;
use crate::units::Length;

/// A fork goes in every 20 to 25 mm, its own width; from this thickness on a bar or piece that is not pricked may bubble. Common practice, no
/// source.
const PRICK_EVERY_MM: (f64, f64) = (20.0, 25.0);
const PRICKED_FROM: Length = Length::new_mm(10.0);

/// How often one piece is pricked: once for each square of the middle of the range.
pub(crate) fn pricks_each(outline: &Outline) -> u32 {
    let every = f64::midpoint(PRICK_EVERY_MM.0, PRICK_EVERY_MM.1);
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "of a piece that fits a tray")]
    let times = (outline.area().mm2() / (every * every)).round().clamp(1.0, 10_000.0) as u32;
    times
}

/// What is said of pricking, where there is something to say.
pub(crate) fn pricks(job: &Job, outline: &Outline) -> Option<Reason> {
    let in_pan = matches!(job.input().shape.making, Making::Portioned(Portion::TrayBar { .. }));
    let cut = job.input().shape.making == Making::Cut;
    if job.input().shape.pricked {
        return Some(Reason::Piece(PieceReason::PrickedSoOften { times: pricks_each(outline) }));
    }
    let thick = match &job.input().shape.making {
        Making::Portioned(Portion::TrayBar { depth, .. }) => *depth >= PRICKED_FROM,
        _ => cut && job.thickness() >= PRICKED_FROM,
    };
    (thick && (cut || in_pan)).then_some(Reason::Piece(PieceReason::ThickNotPricked))
}
