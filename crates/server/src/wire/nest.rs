//! Nesting on the wire.

use super::view;
use ready_slab_core::error::{Checks, InputErrors};
use ready_slab_core::geometry::PaperSize;
use ready_slab_core::geometry::{Outline, Placement};
use ready_slab_core::job::{Job, SheetChoice};
use ready_slab_core::shape::SheetKind;
use ready_slab_core::shape::{
    NestCutter, NestPiece, NestQuestion, Nested, PieceGaps, SheetForm, Spacing, measure_layout,
};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

/// Most seconds a search may take.
const MOST_SECONDS: f64 = 60.0;

/// A sheet and what is to be done with it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NestBody {
    /// Of the sheet, 40 to 1200.
    pub width_mm: f64,
    /// Of the sheet, 40 to 1200.
    pub length_mm: f64,
    /// So many pieces on as short a sheet as may be; as many pieces as fit when null.
    #[serde(default)]
    pub pieces: Option<u32>,
    /// Form of the sheet.
    #[serde(default = "oblong")]
    pub form: SheetKind,
    /// Besides the job's own pieces, then counted by `pieces`, those of other lots of the same dough.
    #[serde(default)]
    pub lots: Vec<LotWanted>,
    /// Whether small pieces may lie in the holes of large ones.
    #[serde(default)]
    pub in_holes: bool,
    /// Pieces that stay where they are.
    #[serde(default)]
    pub held: Vec<LaidPiece>,
    /// Pieces to start from; what of them does not go with the held ones is left out. From rows when empty.
    #[serde(default)]
    pub start: Vec<LaidPiece>,
    /// For a tray: the room pieces keep; the job's web and rim when null.
    #[serde(default)]
    pub tray: Option<TrayGap>,
    /// How long to search, 0.1 to 60.
    #[serde(default = "usual_seconds")]
    pub seconds: f64,
    /// Another seed searches another way; the same one walks the same way again.
    #[serde(default)]
    pub seed: u32,
}

const fn usual_seconds() -> f64 {
    2.0
}

const fn oblong() -> SheetKind {
    SheetKind::Oblong
}

/// So many pieces of another lot.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LotWanted {
    /// The lot.
    pub job_id: i64,
    /// 0 to 20,000.
    pub pieces: u32,
}

/// A piece on a sheet.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LaidPiece {
    /// Centre along the width.
    pub x_mm: f64,
    /// Centre along the length.
    pub y_mm: f64,
    /// Turn.
    pub turn_deg: f64,
    /// Whose: 0 (or absent) the job's own, 1 and more the lots' in their order.
    #[serde(default, skip_serializing_if = "is_own")]
    pub cutter: usize,
}

#[expect(clippy::trivially_copy_pass_by_ref, reason = "as serde asks")]
const fn is_own(cutter: &usize) -> bool {
    *cutter == 0
}

fn nest_pieces(pieces: &[LaidPiece]) -> Vec<NestPiece> {
    let at = |p: &LaidPiece| Placement { x_mm: p.x_mm, y_mm: p.y_mm, turn_deg: p.turn_deg };
    pieces.iter().map(|p| NestPiece { cutter: p.cutter, at: at(p) }).collect()
}

/// The job and, after it, the lots that are cut with it: each with its outline.
pub type OnSheet = Vec<(Job, Outline)>;

struct Ground<'a> {
    form: SheetKind,
    width_mm: f64,
    length_mm: f64,
    tray: Option<&'a TrayGap>,
}

fn question_of(on_sheet: &OnSheet, wanted: &[Option<u32>], ground: &Ground) -> Result<NestQuestion, InputErrors> {
    let sheet = match ground.form {
        SheetKind::Oblong => SheetForm::oblong(ground.width_mm, ground.length_mm, 0.0)?,
        SheetKind::Round => SheetForm::round(ground.width_mm)?,
        SheetKind::Oval => SheetForm::oval(ground.width_mm, ground.length_mm)?,
    };
    let cutters = on_sheet.iter().zip(wanted).map(|((job, outline), wanted)| NestCutter {
        outline: outline.clone(),
        turning: job.input().shape.turning,
        wanted: *wanted,
    });
    let spacing = match ground.tray {
        Some(tray) => Spacing::on_tray(tray.gap_mm, tray.edge_mm)?,
        None => on_sheet[0].0.spacing(),
    };
    NestQuestion::new(cutters.collect(), sheet, spacing)
}

/// The room that pieces keep on a tray.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TrayGap {
    /// Between any two, 5 to 200.
    pub gap_mm: f64,
    /// To the tray's edge, 0 to 60.
    pub edge_mm: f64,
}

impl NestBody {
    /// What is to be searched, for how long.
    pub fn question(&self, on_sheet: &OnSheet) -> Result<NestQuestion, InputErrors> {
        let mut checks = Checks::new();
        checks.range("seconds", self.seconds, 0.1, MOST_SECONDS, "s");
        if let Some(pieces) = self.pieces {
            let least = if self.lots.is_empty() { 1.0 } else { 0.0 };
            checks.range("pieces", f64::from(pieces), least, 20_000.0, "cookies");
        }
        checks.finish(())?;
        let wanted: Vec<_> = std::iter::once(self.pieces).chain(self.lots.iter().map(|l| Some(l.pieces))).collect();
        let (form, width_mm, length_mm) = (self.form, self.width_mm, self.length_mm);
        let ground = Ground { form, width_mm, length_mm, tray: self.tray.as_ref() };
        let question = question_of(on_sheet, &wanted, &ground)?;
        let question = if self.in_holes { question.using_holes() } else { question };
        question.starting_from(nest_pieces(&self.held), nest_pieces(&self.start))
    }
}

view! {
    /// A better layout.
    pub struct NestView(nested: &Nested, question: &NestQuestion, after_s: f64) {
        /// In the order of cutting.
        cuts: Vec<LaidPiece> = nested.pieces.iter().map(LaidPiece::from).collect(),
        /// Where in `cuts` the rows begin.
        rows: Vec<usize> = nested.rows.clone(),
        /// Wanted pieces of each that do not lie on the sheet: the job's own, then the lots'.
        missing: Vec<u32> = nested.missing.clone(),
        /// Of the sheet's length, the rim included.
        used_mm: f64 = nested.used.mm(),
        /// Cut out, of the sheet's area.
        cut_percent: f64 = 100.0 * (nested.cut / question.sheet().area()),
        /// Smallest gap between two pieces, where two are near each other.
        least_gap_mm: Option<f64> = nested.least_gap.map(|g| g.mm()),
        /// Smallest gap to the rim.
        least_rim_mm: f64 = nested.least_rim.mm(),
        /// No layout can hold more.
        bound: usize = question.area_bound(),
        /// Found after so long.
        after_s: f64 = after_s,
    }
}

impl From<&NestPiece> for LaidPiece {
    fn from(p: &NestPiece) -> Self {
        Self { x_mm: p.at.x_mm, y_mm: p.at.y_mm, turn_deg: p.at.turn_deg, cutter: p.cutter }
    }
}

/// The search goes on.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct NestBeat {
    /// For so long.
    pub after_s: f64,
}

/// The search has ended.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct NestDone {
    /// After so long.
    pub after_s: f64,
    /// Whether nothing more could be won (else its time was up).
    pub exhausted: bool,
}

/// Pieces as a hand has laid them.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MeasureBody {
    /// Of the sheet, 40 to 1200.
    pub width_mm: f64,
    /// Of the sheet, 40 to 1200.
    pub length_mm: f64,
    /// Form of the sheet.
    #[serde(default = "oblong")]
    pub form: SheetKind,
    /// Other lots whose pieces lie on it.
    #[serde(default)]
    pub lots: Vec<LotWanted>,
    /// At most 400.
    pub pieces: Vec<LaidPiece>,
    /// For a tray: the room pieces keep; the job's web and rim when null.
    #[serde(default)]
    pub tray: Option<TrayGap>,
}

view! {
    /// What one piece keeps to all around it.
    pub struct GapsView(gaps: &PieceGaps) {
        /// To the nearest other piece, where one is near.
        nearest_mm: Option<f64> = gaps.nearest.map(|(g, _)| g.mm()),
        /// Others it lies nearer to than the web.
        too_near: Vec<usize> = gaps.too_near.clone(),
        /// To the rim.
        rim_mm: f64 = gaps.rim.mm(),
        /// Whether the rim is nearer than it may be.
        over_rim: bool = gaps.over_rim,
    }
}

impl MeasureBody {
    /// Every piece measured.
    pub fn answer(&self, on_sheet: &OnSheet) -> Result<Vec<GapsView>, InputErrors> {
        // What is wanted does not matter to what lies there, but several cutters must say it.
        let wanted = if on_sheet.len() > 1 { Some(0) } else { None };
        let wanted = vec![wanted; on_sheet.len()];
        let (form, width_mm, length_mm) = (self.form, self.width_mm, self.length_mm);
        let question = question_of(on_sheet, &wanted, &Ground { form, width_mm, length_mm, tray: self.tray.as_ref() })?;
        let pieces = nest_pieces(&self.pieces);
        // The same door as for the search: it counts the pieces and checks that they are somewhere.
        question.clone().starting_from(vec![], pieces.clone())?;
        Ok(measure_layout(&question, &pieces).iter().map(GapsView::from).collect())
    }
}

/// Which sheet is printed on what paper.
#[derive(Debug, Clone, PartialEq, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct TemplateQuery {
    /// 0 the first roll, 1 and 2 re-rolls.
    #[serde(default)]
    pub roll: usize,
    /// From 0, a sheet that is kept for several lots, instead of a roll.
    #[serde(default)]
    pub mixed: Option<usize>,
    /// `a4` or `letter`.
    #[param(inline)]
    #[serde(default = "usual_paper")]
    pub paper: PaperSize,
}

pub(super) const fn usual_paper() -> PaperSize {
    PaperSize::A4
}

view! {
    /// Another sheet for the job, and what it would take on it.
    pub struct SheetChoiceView(c: SheetChoice) {
        /// Its form.
        sheet: SheetKind = c.sheet,
        /// As wide at most; as it is where null.
        width_mm: Option<f64> = c.width.map(|w| w.mm()),
        /// The dough of the job on such sheets.
        dough_g: f64 = c.dough.g(),
        /// That much less than as planned.
        saves_g: f64 = c.saves.g(),
        /// The same, of the dough as planned.
        saves_percent: f64 = 100.0 * c.saved.value(),
    }
}
