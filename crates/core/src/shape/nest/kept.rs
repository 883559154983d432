//! Layouts that a baker kept: whether they still hold.

use super::proof::measure_layout;
use super::question::{NestCutter, NestPiece, NestQuestion};
use crate::geometry::{Outline, Placement};
use crate::shape::layout::{Layout, least_gap};
use crate::shape::sheet::SheetForm;
use crate::shape::spacing::{Spacing, Turning};
use crate::units::Length;

/// Why a layout that a baker kept is not used.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum KeptFault {
    /// Pieces are turned otherwise than the cutter may lie; whether it must lie as drawn.
    Turned {
        /// How many.
        pieces: usize,
        /// As drawn only, not half round either.
        as_drawn: bool,
    },
    /// The cutter is larger than the sheet.
    LargerThanSheet,
    /// So many pieces reach into the rim.
    IntoTheRim(usize),
    /// So many lie nearer than the web.
    TooNear(usize),
}

/// Why a kept layout cannot be used on a sheet any longer; `None` when it can.
pub(in crate::shape) fn kept_layout_fault(
    outline: &Outline,
    width: Length,
    longest: Length,
    spacing: Spacing,
    turning: Turning,
    pieces: &[Placement],
) -> Option<KeptFault> {
    if let Some(turned) = pieces.iter().filter(|p| !turning.allows(p.turn_deg)).count().checked_sub(1) {
        return Some(KeptFault::Turned { pieces: turned + 1, as_drawn: turning == Turning::Fixed });
    }
    let sheet = SheetForm::Oblong { width, length: longest, corner: Length::new_mm(0.0) };
    let cutter = NestCutter { outline: outline.clone(), turning: Turning::Free, wanted: None };
    let Ok(question) = NestQuestion::new(vec![cutter], sheet, spacing) else {
        return Some(KeptFault::LargerThanSheet);
    };
    let pieces: Vec<NestPiece> = pieces.iter().map(|at| NestPiece { cutter: 0, at: *at }).collect();
    let gaps = measure_layout(&question, &pieces);
    let near = gaps.iter().filter(|g| !g.too_near.is_empty()).count();
    let over = gaps.iter().filter(|g| g.over_rim).count();
    match (near, over) {
        (0, 0) => None,
        (0, over) => Some(KeptFault::IntoTheRim(over)),
        (near, _) => Some(KeptFault::TooNear(near)),
    }
}

/// A layout laid by hand on a tray, as long as it holds; why it does not, otherwise.
pub(in crate::shape) fn kept_on_tray(
    outline: &Outline,
    width: Length,
    length: Length,
    spacing: Spacing,
    pieces: &[Placement],
) -> Result<Layout, KeptFault> {
    // On a tray a piece may lie as it likes: it is the sheet's floured or textured face that is not to be turned.
    if let Some(fault) = kept_layout_fault(outline, width, length, spacing, Turning::Free, pieces) {
        return Err(fault);
    }
    Ok(Layout { pieces: pieces.to_vec(), length, least_gap: least_gap(outline, pieces), nested: true })
}
