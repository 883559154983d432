//! The colours of a piece's top: its middle, its edge, and what is darker than the rest.

use super::light::lab;
use super::pieces::{Patch, Stands, median_colour};
use super::sheet::{PX_PER_MM, Sheet};

/// The edge of a piece is so far inside its rim, mm: the rim itself is shaded.
const EDGE_MM: (f64, f64) = (1.0, 2.6);
/// Its middle is what lies deeper than this, of its deepest.
const MIDDLE: f64 = 0.55;
/// A place is dark that is so much darker than what it belongs to, L*; and so large, mm2.
const DARKER_L: f64 = 14.0;
const DARK_MM2: f64 = 2.5;

/// The colours of a top, L*, a* and b*.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Look {
    pub(super) middle: [f64; 3],
    pub(super) edge: [f64; 3],
    /// Middles of dark places, mm on the sheet as the foot lies, and whether they lie at the edge.
    pub(super) dark: Vec<((f64, f64), bool)>,
}

/// How the top of a piece looks whose foot is known; nothing where it is too narrow for an edge and a middle.
pub(super) fn look(sheet: &Sheet, foot: &Patch, stands: &Stands) -> Option<Look> {
    let depths = foot.depths();
    let deepest = depths.iter().copied().fold(0.0, f64::max);
    let edge_to = EDGE_MM.1.min(MIDDLE * deepest);
    let top = |at: usize| {
        let (x, y) = stands.rim(foot.mm(at));
        sheet.at(x, y)
    };
    let of = |from: f64, to: f64| -> Vec<[f32; 3]> {
        (0..depths.len()).filter(|at| depths[*at] >= from && depths[*at] < to).map(top).collect()
    };
    let (edge, middle) = (of(EDGE_MM.0, edge_to), of(MIDDLE * deepest, f64::INFINITY));
    if edge.is_empty() || middle.is_empty() {
        return None;
    }
    let (edge, middle) = (lab(median_colour(&edge)), lab(median_colour(&middle)));
    // Between the two a place is to be as light as the way from one to the other has it.
    let expected = |depth: f64| {
        let t = ((depth - edge_to) / (MIDDLE * deepest - edge_to).max(0.1)).clamp(0.0, 1.0);
        edge[0] + t * (middle[0] - edge[0])
    };
    let is_dark = |at: usize| {
        depths[at] >= EDGE_MM.0 && lab(top(at))[0] < expected(depths[at]).min(edge[0].max(middle[0])) - DARKER_L
    };
    let dark = (0..depths.len()).map(is_dark).collect();
    let spots = foot.only(dark).into_iter().filter(|spot| spot.mm2() >= DARK_MM2);
    let dark = spots
        .map(|spot| {
            let all: Vec<usize> = spot.pixels().collect();
            #[expect(clippy::cast_precision_loss, reason = "a few hundred")]
            let count = all.len() as f64;
            let sum = all.iter().fold((0.0, 0.0, 0.0), |s, at| {
                let (x, y) = foot.mm(*at);
                (s.0 + x, s.1 + y, s.2 + depths[*at])
            });
            ((sum.0 / count, sum.1 / count), sum.2 / count < EDGE_MM.1 + 1.0 / PX_PER_MM)
        })
        .collect();
    Some(Look { middle, edge, dark })
}
