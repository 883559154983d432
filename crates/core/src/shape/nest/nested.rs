//! Pieces on a sheet as they were found, measured.

use super::proof::{PieceGaps, measure_layout};
use super::question::{NestPiece, NestQuestion};
use crate::shape::layout::in_cutting_order;
use crate::units::{Area, Length};

/// Pieces on a sheet, measured.
#[derive(Debug, Clone, PartialEq)]
pub struct Nested {
    /// Every piece, in the order of cutting: by rows from the top, each from the left.
    pub pieces: Vec<NestPiece>,
    /// Where the rows begin in `pieces`.
    pub rows: Vec<usize>,
    /// How many of each cutter.
    pub counts: Vec<u32>,
    /// How many of each that are wanted do not lie on it.
    pub missing: Vec<u32>,
    /// The area cut out.
    pub cut: Area,
    /// How much of the sheet's length is used, the edge included.
    pub used: Length,
    /// The smallest gap between two pieces, where two are near each other.
    pub least_gap: Option<Length>,
    /// The smallest gap to the rim.
    pub least_rim: Length,
}

impl Nested {
    /// Measured; `None` when web or edge is not kept.
    pub(super) fn proved(question: &NestQuestion, mut pieces: Vec<NestPiece>) -> Option<Self> {
        let rows = in_cutting_order(&mut pieces, |p| (p.at, &question.cutters[p.cutter].outline));
        let gaps = measure_layout(question, &pieces);
        if !gaps.iter().all(PieceGaps::is_sound) {
            return None;
        }
        let mut counts = vec![0u32; question.cutters.len()];
        for piece in &pieces {
            counts[piece.cutter] += 1;
        }
        let missing =
            question.cutters.iter().zip(&counts).map(|(c, n)| c.wanted.unwrap_or(0).saturating_sub(*n)).collect();
        let cut = question.cutters.iter().zip(&counts).map(|(c, n)| c.outline.area().mm2() * f64::from(*n)).sum();
        let lowest = pieces
            .iter()
            .flat_map(|p| question.cutters[p.cutter].outline.placed(p.at))
            .map(|p| p.1)
            .fold(0.0, f64::max);
        Some(Self {
            least_gap: gaps
                .iter()
                .filter_map(|g| g.nearest.map(|(gap, _)| gap))
                .min_by(|a, b| a.mm().total_cmp(&b.mm())),
            least_rim: gaps.iter().map(|g| g.rim).fold(question.sheet.extent().0, |a, b| if b < a { b } else { a }),
            used: Length::new_mm(if pieces.is_empty() { 0.0 } else { lowest + question.spacing.edge().mm() }),
            cut: Area::new_mm2(cut),
            pieces,
            rows,
            counts,
            missing,
        })
    }

    /// Better: more area cut, or, with the same pieces, less of the sheet's length used.
    #[must_use]
    pub fn beats(&self, other: &Self) -> bool {
        if (self.cut.mm2() - other.cut.mm2()).abs() > 1e-6 {
            return self.cut > other.cut;
        }
        self.used.mm() < other.used.mm() - 0.01
    }
}
