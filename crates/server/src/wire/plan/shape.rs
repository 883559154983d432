//! The shape station on the wire, and what `compute sheet` shares with it.

use crate::wire::{SentenceView, say_all, view};
use ready_slab_core::geometry::Placement;
use ready_slab_core::job::{Job, Kitchen, Plan, ShapePlan, largest_sheet};
use ready_slab_core::shape::{Roll, SheetKind, tray_sources};
use ready_slab_core::units::{Length, Mass};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

view! {
    /// First roll or re-roll.
    pub struct RollView(r: &Roll, piece: Mass) {
        let (width, length) = r.form.extent();

        /// 0 the first, 1 and 2 re-rolls.
        number: u32 = r.number,
        /// Equal sheets, or logs, portions or trays of a lot that is not cut.
        sheets: u32 = r.sheets,
        /// Form of each.
        form: SheetKind = r.form.kind(),
        /// Of each.
        width_mm: f64 = width.mm(),
        /// Of each.
        length_mm: f64 = length.mm(),
        /// Dough in each.
        mass_g: f64 = r.mass.g(),
        /// Cut in this roll from all sheets.
        pieces: u32 = r.pieces,
        /// Their mass.
        cut_g: f64 = f64::from(r.pieces) * piece.g(),
        /// Smallest gap on the sheet, measured on the final layout.
        least_gap_mm: Option<f64> = r.layout.least_gap.map(Length::mm),
        /// On one sheet, in the order of cutting.
        cuts: Vec<Placement> = r.layout.pieces.clone(),
        /// Whether they lie as nested and kept (else in rows).
        nested: bool = r.layout.nested,
    }
}

view! {
    /// Pieces of a tray that come from one roll.
    pub struct SourceView(from: (u32, u32)) {
        /// 0 the first, 1 and 2 re-rolls.
        roll: u32 = from.0,
        /// How many.
        pieces: u32 = from.1,
    }
}

view! {
    /// Pieces on trays.
    pub struct TraysView(s: &ShapePlan, kitchen: &Kitchen) {
        let sources = tray_sources(&s.demand.rolls, &s.trays.fill);

        /// Usable.
        width_mm: f64 = kitchen.trays().width().mm(),
        /// Usable.
        length_mm: f64 = kitchen.trays().length().mm(),
        /// Kept between pieces as cut.
        gap_mm: f64 = s.trays.gap.mm(),
        /// Kept to the tray's edge.
        edge_mm: f64 = s.trays.edge.mm(),
        /// Pieces on each tray in order.
        fill: Vec<u32> = s.trays.fill.clone(),
        /// From which rolls the pieces of each tray come.
        sources: Vec<Vec<SourceView>> =
            sources.into_iter().map(|tray| tray.into_iter().map(Into::into).collect()).collect(),
        /// Whether they lie as a hand has laid them (else in rows).
        nested: bool = s.trays.layout.nested,
        /// How often the trays owned go round.
        rounds: u32 = s.trays.rounds,
        /// On a full tray.
        cuts: Vec<Placement> = s.trays.layout.pieces.clone(),
    }
}

view! {
    /// The shape station.
    pub struct ShapeView(plan: &Plan, job: &Job, kitchen: &Kitchen) {
        let s = &plan.shape;
        let largest = largest_sheet(job, kitchen).extent();

        /// Rolled or sliced to.
        thickness_mm: f64 = job.thickness().mm(),
        /// The largest sheet a lot is rolled to.
        largest_mm: [f64; 2] = [largest.0.mm(), largest.1.mm()],
        /// First roll and re-rolls.
        rolls: Vec<RollView> = s.demand.rolls.iter().map(|r| RollView::new(r, plan.dough.piece)).collect(),
        /// To hand-shape or set aside.
        left_g: f64 = s.demand.left.g(),
        /// To board and hands.
        lost_g: f64 = s.demand.lost.g(),
        /// Kept back unrolled.
        reserve_g: f64 = s.demand.reserve.g(),
        /// Taken up by the dough rolled last.
        flour_taken_up_percent: f64 = 100.0 * s.demand.flour_taken_up.value(),
        /// Tougher pieces.
        from_second_reroll: u32 = s.demand.from_second_reroll,
        /// Rods of that height are owned.
        rods_owned: bool = s.rods_owned,
        /// On trays.
        trays: TraysView = TraysView::new(s, kitchen),
        /// Why.
        reasons: Vec<SentenceView> = say_all(s.reasons.iter().filter(|r| !r.is_warning())),
        /// What to mind.
        warnings: Vec<SentenceView> = say_all(s.reasons.iter().filter(|r| r.is_warning())),
    }
}
