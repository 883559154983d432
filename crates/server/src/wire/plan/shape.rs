//! The shape station on the wire, and what `compute sheet` shares with it.

use crate::wire::{SentenceView, say_all};
use ready_slab_core::geometry::Placement;
use ready_slab_core::job::{Job, Kitchen, Plan, largest_sheet};
use ready_slab_core::shape::SheetKind;
use ready_slab_core::shape::{Layout, SheetForm, tray_sources};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Where a piece lies.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CutView {
    /// Centre along the width.
    pub x_mm: f64,
    /// Centre along the length.
    pub y_mm: f64,
    /// Turn.
    pub turn_deg: f64,
}

impl From<&Placement> for CutView {
    fn from(p: &Placement) -> Self {
        Self { x_mm: p.x_mm, y_mm: p.y_mm, turn_deg: p.turn_deg }
    }
}

impl CutView {
    /// The core's value.
    pub fn placement(&self) -> Placement {
        Placement { x_mm: self.x_mm, y_mm: self.y_mm, turn_deg: self.turn_deg }
    }
}

pub(in crate::wire) fn cuts(layout: &Layout) -> Vec<CutView> {
    layout.pieces.iter().map(CutView::from).collect()
}

/// First roll or re-roll.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct RollView {
    /// 0 the first, 1 and 2 re-rolls.
    pub number: u32,
    /// Equal sheets, or logs, portions or trays of a lot that is not cut.
    pub sheets: u32,
    /// Form of each.
    pub form: SheetKind,
    /// Of each.
    pub width_mm: f64,
    /// Of each.
    pub length_mm: f64,
    /// Dough in each.
    pub mass_g: f64,
    /// Cut in this roll from all sheets.
    pub pieces: u32,
    /// Their mass.
    pub cut_g: f64,
    /// Smallest gap on the sheet, measured on the final layout.
    pub least_gap_mm: Option<f64>,
    /// On one sheet, in the order of cutting.
    pub cuts: Vec<CutView>,
    /// Whether they lie as nested and kept (else in rows).
    pub nested: bool,
}

fn sheet_word(form: &SheetForm) -> SheetKind {
    match form {
        SheetForm::Oblong { .. } => SheetKind::Oblong,
        SheetForm::Round { .. } => SheetKind::Round,
        SheetForm::Oval { .. } => SheetKind::Oval,
    }
}

/// Pieces of a tray that come from one roll.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SourceView {
    /// 0 the first, 1 and 2 re-rolls.
    pub roll: u32,
    /// How many.
    pub pieces: u32,
}

/// Pieces on trays.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TraysView {
    /// Usable.
    pub width_mm: f64,
    /// Usable.
    pub length_mm: f64,
    /// Kept between pieces as cut.
    pub gap_mm: f64,
    /// Kept to the tray's edge.
    pub edge_mm: f64,
    /// Pieces on each tray in order.
    pub fill: Vec<u32>,
    /// From which rolls the pieces of each tray come.
    pub sources: Vec<Vec<SourceView>>,
    /// Whether they lie as a hand has laid them (else in rows).
    pub nested: bool,
    /// How often the trays owned go round.
    pub rounds: u32,
    /// On a full tray.
    pub cuts: Vec<CutView>,
}

/// The shape station.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ShapeView {
    /// Rolled or sliced to.
    pub thickness_mm: f64,
    /// The largest sheet a lot is rolled to.
    pub largest_mm: [f64; 2],
    /// First roll and re-rolls.
    pub rolls: Vec<RollView>,
    /// To hand-shape or set aside.
    pub left_g: f64,
    /// To board and hands.
    pub lost_g: f64,
    /// Kept back unrolled.
    pub reserve_g: f64,
    /// Taken up by the dough rolled last.
    pub flour_taken_up_percent: f64,
    /// Tougher pieces.
    pub from_second_reroll: u32,
    /// Rods of that height are owned.
    pub rods_owned: bool,
    /// On trays.
    pub trays: TraysView,
    /// Why.
    pub reasons: Vec<SentenceView>,
}

pub(super) fn shape(plan: &Plan, job: &Job, kitchen: &Kitchen) -> ShapeView {
    let s = &plan.shape;
    let largest = largest_sheet(job, kitchen).extent();
    let rolls = s.demand.rolls.iter().map(|r| RollView {
        number: r.number,
        sheets: r.sheets,
        form: sheet_word(&r.form),
        width_mm: r.form.extent().0.mm(),
        length_mm: r.form.extent().1.mm(),
        mass_g: r.mass.g(),
        pieces: r.pieces,
        cut_g: f64::from(r.pieces) * plan.dough.piece.g(),
        least_gap_mm: r.layout.least_gap.map(|g| g.mm()),
        cuts: cuts(&r.layout),
        nested: r.layout.nested,
    });
    ShapeView {
        thickness_mm: job.thickness().mm(),
        largest_mm: [largest.0.mm(), largest.1.mm()],
        rolls: rolls.collect(),
        left_g: s.demand.left.g(),
        lost_g: s.demand.lost.g(),
        reserve_g: s.demand.reserve.g(),
        flour_taken_up_percent: 100.0 * s.demand.flour_taken_up.value(),
        from_second_reroll: s.demand.from_second_reroll,
        rods_owned: s.rods_owned,
        trays: TraysView {
            width_mm: kitchen.trays().width().mm(),
            length_mm: kitchen.trays().length().mm(),
            gap_mm: s.trays.gap.mm(),
            edge_mm: s.trays.edge.mm(),
            sources: tray_sources(&s.demand.rolls, &s.trays.fill)
                .into_iter()
                .map(|from| from.into_iter().map(|(roll, pieces)| SourceView { roll, pieces }).collect())
                .collect(),
            nested: s.trays.layout.nested,
            fill: s.trays.fill.clone(),
            rounds: s.trays.rounds,
            cuts: cuts(&s.trays.layout),
        },
        reasons: say_all(&s.reasons),
    }
}
