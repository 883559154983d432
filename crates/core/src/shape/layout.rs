//! Pieces of one cutter on a sheet, with the gap they keep.

use crate::geometry::{Outline, Placement, clearance_mm};
use crate::units::Length;

/// Pieces on a sheet.
#[derive(Debug, Clone, PartialEq)]
pub struct Layout {
    /// Where each lies, in the order they are cut: row by row from the top.
    pub pieces: Vec<Placement>,
    /// The sheet they need along its length.
    pub length: Length,
    /// The smallest gap between any two, by exact polygon distance; `None` with fewer than two pieces.
    pub least_gap: Option<Length>,
    /// Whether it is a layout that was nested and kept (else rows).
    pub nested: bool,
}

/// In the order of cutting: row by row from the top, left to right.
pub(super) fn in_rows(pieces: &mut [Placement]) {
    let row = |p: &Placement| (p.y_mm / 2.0).round();
    pieces.sort_by(|a, b| row(a).total_cmp(&row(b)).then(a.x_mm.total_cmp(&b.x_mm)));
}

/// The smallest gap in a layout. Pairs that lie alike to each other are measured once.
pub(super) fn least_gap(outline: &Outline, pieces: &[Placement]) -> Option<Length> {
    let (w, h) = outline.extent();
    let reach = w.mm().hypot(h.mm());
    let mut seen: Vec<(Placement, f64, f64)> = Vec::new();
    let mut least: Option<f64> = None;
    for (i, a) in pieces.iter().enumerate() {
        for b in &pieces[i + 1..] {
            let (dx, dy) = (b.x_mm - a.x_mm, b.y_mm - a.y_mm);
            if dx.hypot(dy) > reach + least.unwrap_or(f64::INFINITY) {
                continue;
            }
            let alike = |s: &(Placement, f64, f64)| {
                s.0.turn_deg == a.turn_deg
                    && s.0.x_mm == b.turn_deg
                    && (s.1 - dx).abs() < 1e-6
                    && (s.2 - dy).abs() < 1e-6
            };
            if seen.iter().any(alike) {
                continue;
            }
            seen.push((Placement { x_mm: b.turn_deg, y_mm: 0.0, turn_deg: a.turn_deg }, dx, dy));
            let gap = clearance_mm(&outline.placed(*a), &outline.placed(*b));
            least = Some(least.map_or(gap, |l: f64| l.min(gap)));
        }
    }
    least.map(Length::new_mm)
}

/// Sorts pieces as they are cut and tells where the rows begin. A row is the topmost piece left and all whose middle lies
/// at most a third of its lesser side below.
pub(super) fn in_cutting_order<'a, P>(pieces: &mut [P], lies: impl Fn(&P) -> (Placement, &'a Outline)) -> Vec<usize> {
    let mut rows = Vec::new();
    let at = |p: &P| lies(p).0;
    pieces.sort_by(|a, b| at(a).y_mm.total_cmp(&at(b).y_mm).then(at(a).x_mm.total_cmp(&at(b).x_mm)));
    let mut from = 0;
    while from < pieces.len() {
        let (first, outline) = lies(&pieces[from]);
        let (w, h) = outline.extent();
        let below = first.y_mm + w.mm().min(h.mm()) / 3.0;
        let to = from + pieces[from..].partition_point(|p| at(p).y_mm <= below);
        pieces[from..to].sort_by(|a, b| at(a).x_mm.total_cmp(&at(b).x_mm));
        rows.push(from);
        from = to;
    }
    rows
}
