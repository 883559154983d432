//! Nesting on the wire.

use super::plan::CutView;
use super::words::PaperWord;
use ready_slab_core::error::{Checks, InputErrors};
use ready_slab_core::geometry::Outline;
use ready_slab_core::job::Job;
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
    /// Pieces that stay where they are.
    #[serde(default)]
    pub held: Vec<CutView>,
    /// Pieces to start from; what of them does not go with the held ones is left out. From rows when empty.
    #[serde(default)]
    pub start: Vec<CutView>,
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

fn nest_pieces(cuts: &[CutView]) -> Vec<NestPiece> {
    cuts.iter().map(|c| NestPiece { cutter: 0, at: c.placement() }).collect()
}

fn question_of(
    job: &Job,
    outline: &Outline,
    width_mm: f64,
    length_mm: f64,
    wanted: Option<u32>,
    tray: Option<&TrayGap>,
) -> Result<NestQuestion, InputErrors> {
    let sheet = SheetForm::oblong(width_mm, length_mm, 0.0)?;
    let cutter = NestCutter { outline: outline.clone(), turning: job.input().turning, wanted };
    let spacing = match tray {
        Some(tray) => Spacing::on_tray(tray.gap_mm, tray.edge_mm)?,
        None => job.spacing(),
    };
    NestQuestion::new(vec![cutter], sheet, spacing)
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
    pub fn question(&self, job: &Job, outline: &Outline) -> Result<NestQuestion, InputErrors> {
        let mut checks = Checks::new();
        checks.range("seconds", self.seconds, 0.1, MOST_SECONDS, "s");
        if let Some(pieces) = self.pieces {
            checks.range("pieces", f64::from(pieces), 1.0, 20_000.0, "pieces");
        }
        checks.finish(())?;
        question_of(job, outline, self.width_mm, self.length_mm, self.pieces, self.tray.as_ref())?
            .starting_from(nest_pieces(&self.held), nest_pieces(&self.start))
    }
}

/// A better layout.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct NestView {
    /// In the order of cutting.
    pub cuts: Vec<CutView>,
    /// Where in `cuts` the rows begin.
    pub rows: Vec<usize>,
    /// Wanted pieces that do not lie on the sheet.
    pub missing: u32,
    /// Of the sheet's length, the rim included.
    pub used_mm: f64,
    /// Cut out, of the sheet's area.
    pub cut_percent: f64,
    /// Smallest gap between two pieces, where two are near each other.
    pub least_gap_mm: Option<f64>,
    /// Smallest gap to the rim.
    pub least_rim_mm: f64,
    /// No layout can hold more.
    pub bound: usize,
    /// Found after so long.
    pub after_s: f64,
}

impl NestView {
    /// A layout found after so many seconds.
    pub fn new(nested: &Nested, question: &NestQuestion, after_s: f64) -> Self {
        Self {
            cuts: nested.pieces.iter().map(|p| CutView::from(&p.at)).collect(),
            rows: nested.rows.clone(),
            missing: nested.missing.iter().sum(),
            used_mm: nested.used.mm(),
            cut_percent: 100.0 * (nested.cut / question.sheet().area()),
            least_gap_mm: nested.least_gap.map(|g| g.mm()),
            least_rim_mm: nested.least_rim.mm(),
            bound: question.area_bound(),
            after_s,
        }
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
    /// At most 400.
    pub pieces: Vec<CutView>,
    /// For a tray: the room pieces keep; the job's web and rim when null.
    #[serde(default)]
    pub tray: Option<TrayGap>,
}

/// What one piece keeps to all around it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct GapsView {
    /// To the nearest other piece, where one is near.
    pub nearest_mm: Option<f64>,
    /// Others it lies nearer to than the web.
    pub too_near: Vec<usize>,
    /// To the rim.
    pub rim_mm: f64,
    /// Whether the rim is nearer than it may be.
    pub over_rim: bool,
}

impl From<&PieceGaps> for GapsView {
    fn from(gaps: &PieceGaps) -> Self {
        Self {
            nearest_mm: gaps.nearest.map(|(g, _)| g.mm()),
            too_near: gaps.too_near.clone(),
            rim_mm: gaps.rim.mm(),
            over_rim: gaps.over_rim,
        }
    }
}

impl MeasureBody {
    /// Every piece measured.
    pub fn answer(&self, job: &Job, outline: &Outline) -> Result<Vec<GapsView>, InputErrors> {
        let question = question_of(job, outline, self.width_mm, self.length_mm, None, self.tray.as_ref())?;
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
    /// `a4` or `letter`.
    #[param(inline)]
    #[serde(default = "usual_paper")]
    pub paper: PaperWord,
}

pub(super) const fn usual_paper() -> PaperWord {
    PaperWord::A4
}
