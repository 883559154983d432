//! What a trial of a job has to go by.

use crate::job::answers::Plan;
use crate::job::settings::kitchen::Kitchen;
use crate::ledger::{EvenMeasure, MeasuredTray, TrialGround, control_charts, usual_within};

impl Plan {
    /// Where pieces lie on the job's full tray, and what pieces of one tray differ by: this kitchen's own where trays that were cut alike tell it, else
    /// what is usual.
    #[must_use]
    pub fn trial_ground(&self, kitchen: &Kitchen, measure: EvenMeasure, trays: &[MeasuredTray]) -> TrialGround {
        let own = control_charts(trays).map(|c| c.sd_within);
        let (a, b) = (kitchen.input().trays.tray_width_mm, kitchen.input().trays.tray_length_mm);
        TrialGround {
            places: self.shape.trays.layout.pieces.iter().map(|p| (p.x_mm, p.y_mm)).collect(),
            // Laid across its shorter side, as its layout is.
            tray_mm: (a.min(b), a.max(b)),
            sd: own.unwrap_or_else(|| usual_within(measure, self.oven.width, self.oven.thickness)),
            own: own.is_some(),
        }
    }
}
