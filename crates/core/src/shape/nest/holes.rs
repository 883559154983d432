//! Small pieces in the holes of large ones: found once for each cutter with holes, then carried along wherever it is laid.

use super::nested::Nested;
use super::question::{NestCutter, NestPiece, NestQuestion};
use crate::geometry::{Placement, clearance_mm, edge_distance, ring_holds};
use crate::shape::spacing::Turning;
use std::f64::consts::TAU;

/// Places tried each way across a hole, and turns of a cutter that may be turned at will.
const PLACES: u32 = 14;
const TURNS: u32 = 12;

/// For each cutter, what lies in its holes, about its own centre as it is drawn.
#[derive(Debug, Clone)]
pub(super) struct InHoles {
    /// All that is wanted.
    whole: NestQuestion,
    carried: Vec<Vec<NestPiece>>,
}

impl InHoles {
    /// What goes into the holes of the cutters of a question; `None` where nothing does.
    pub fn find(question: &NestQuestion) -> Option<Self> {
        let mut left: Vec<u32> = question.cutters.iter().map(|c| c.wanted.unwrap_or(0)).collect();
        let carried: Vec<Vec<NestPiece>> = (0..question.cutters.len())
            .map(|at| {
                let rings = question.cutters[at].wanted.unwrap_or(0);
                if rings == 0 {
                    return vec![];
                }
                let found = carried_by(question, at, &left);
                for piece in &found {
                    left[piece.cutter] = left[piece.cutter].saturating_sub(rings);
                }
                found
            })
            .collect();
        carried.iter().any(|c| !c.is_empty()).then(|| Self { whole: question.clone(), carried })
    }

    /// The question without what lies in holes.
    pub fn without(&self) -> NestQuestion {
        let mut question = self.whole.clone();
        for (at, carried) in self.carried.iter().enumerate() {
            let rings = self.whole.cutters[at].wanted.unwrap_or(0);
            for piece in carried {
                let cutter = &mut question.cutters[piece.cutter];
                cutter.wanted = cutter.wanted.map(|n| n.saturating_sub(rings));
            }
        }
        question
    }

    /// A layout with its holes filled, proved anew; as it is where that fails.
    pub fn filled(&self, nested: &Nested) -> Nested {
        let mut pieces = nested.pieces.clone();
        let mut left: Vec<u32> = self.whole.cutters.iter().map(|c| c.wanted.unwrap_or(0)).collect();
        for piece in &pieces {
            left[piece.cutter] = left[piece.cutter].saturating_sub(1);
        }
        for ring in &nested.pieces {
            for inner in &self.carried[ring.cutter] {
                if left[inner.cutter] > 0 {
                    left[inner.cutter] -= 1;
                    pieces.push(NestPiece { cutter: inner.cutter, at: along(ring.at, inner.at) });
                }
            }
        }
        Nested::proved(&self.whole, pieces).unwrap_or_else(|| nested.clone())
    }
}

/// Whether a piece lies in a hole of one of these.
pub(super) fn lies_in_a_hole(question: &NestQuestion, piece: &NestPiece, among: &[NestPiece]) -> bool {
    let corner = question.cutters[piece.cutter].outline.placed(piece.at)[0];
    among.iter().any(|other| {
        question.cutters[other.cutter].outline.holes_placed(other.at).iter().any(|hole| ring_holds(hole, corner))
    })
}

/// A placement within a piece, where the piece lies.
fn along(outer: Placement, inner: Placement) -> Placement {
    let (sin, cos) = outer.turn_deg.to_radians().sin_cos();
    Placement {
        x_mm: outer.x_mm + inner.x_mm * cos - inner.y_mm * sin,
        y_mm: outer.y_mm + inner.x_mm * sin + inner.y_mm * cos,
        turn_deg: (outer.turn_deg + inner.turn_deg).rem_euclid(360.0),
    }
}

/// Pieces of the other cutters in one cutter's holes, the largest first, as many of each as are left for every one of it.
fn carried_by(question: &NestQuestion, at: usize, left: &[u32]) -> Vec<NestPiece> {
    let (cutter, web) = (&question.cutters[at], question.spacing.web().mm());
    let rings = cutter.wanted.unwrap_or(0).max(1);
    let mut left: Vec<u32> = left.iter().map(|n| n / rings).collect();
    left[at] = 0;
    let mut order: Vec<usize> = (0..question.cutters.len()).filter(|&i| left[i] > 0).collect();
    let area = |i: usize| question.cutters[i].outline.area().mm2();
    order.sort_by(|a, b| area(*b).total_cmp(&area(*a)));
    let mut found = Vec::new();
    for hole in cutter.outline.holes() {
        let mut in_it: Vec<Vec<(f64, f64)>> = Vec::new();
        for &small in &order {
            // A piece that may not be turned keeps its direction only where its ring keeps it too.
            let free =
                question.cutters[small].turning == Turning::Free || cutter.turning == question.cutters[small].turning;
            while free && left[small] > 0 {
                let Some((placement, points)) = place_in(&hole, &in_it, &question.cutters[small], web) else { break };
                found.push(NestPiece { cutter: small, at: placement });
                in_it.push(points);
                left[small] -= 1;
            }
        }
    }
    found
}

type Laid = (Placement, Vec<(f64, f64)>);

/// A place for a piece in a hole beside what lies there already.
fn place_in(hole: &[(f64, f64)], beside: &[Vec<(f64, f64)>], cutter: &NestCutter, web: f64) -> Option<Laid> {
    let span = |f: fn(&(f64, f64)) -> f64| {
        hole.iter().map(f).fold((f64::MAX, f64::MIN), |(low, high), v| (low.min(v), high.max(v)))
    };
    let ((left, right), (top, bottom)) = (span(|p| p.0), span(|p| p.1));
    let (w, h) = cutter.outline.extent();
    if w.mm().min(h.mm()) + 2.0 * web > (right - left).min(bottom - top) {
        return None;
    }
    let turns = if cutter.turning == Turning::Free { TURNS } else { 1 };
    let step = |from: f64, to: f64, i: u32| from + (to - from) * f64::from(i) / f64::from(PLACES);
    // The middle first: one piece alone lies best there.
    let middle = (f64::midpoint(left, right), f64::midpoint(top, bottom));
    let grid = (1..PLACES).flat_map(|i| (1..PLACES).map(move |j| (step(left, right, i), step(top, bottom, j))));
    let places: Vec<(f64, f64)> =
        if beside.is_empty() { std::iter::once(middle).chain(grid).collect() } else { grid.collect() };
    for (x_mm, y_mm) in places {
        for turn in 0..turns {
            let turn_deg = (TAU / f64::from(turns) * f64::from(turn)).to_degrees();
            let at = Placement { x_mm, y_mm, turn_deg };
            let points = cutter.outline.placed(at);
            let fits = points.iter().step_by(4).all(|p| ring_holds(hole, *p))
                && edge_distance(hole, &points) >= web
                && beside.iter().all(|other| clearance_mm(other, &points) >= web);
            if fits {
                return Some((at, points));
            }
        }
    }
    None
}

#[cfg(test)]
mod tests {
    use super::super::{Nester, PieceGaps, measure_layout};
    use super::*;
    use crate::geometry::{Builtin, BuiltinKind, Outline};
    use crate::shape::{SheetForm, Spacing};

    fn cutter(kind: BuiltinKind, across: f64, hole: f64, wanted: u32) -> NestCutter {
        let outline: Outline = Builtin::new(kind, across, hole).unwrap().outline().unwrap();
        NestCutter { outline, turning: Turning::Free, wanted: Some(wanted) }
    }

    fn question(cutters: Vec<NestCutter>) -> NestQuestion {
        NestQuestion::new(cutters, SheetForm::oblong(310.0, 440.0, 0.0).unwrap(), Spacing::new(3.0, 4.0).unwrap())
            .unwrap()
    }

    #[test]
    fn rounds_lie_in_rings_and_every_gap_is_kept() {
        // A hole of 50 takes one round of 40 with 5 mm around it.
        let asked = question(vec![cutter(BuiltinKind::Ring, 80.0, 50.0, 6), cutter(BuiltinKind::Round, 40.0, 0.0, 6)]);
        let with = asked.clone().using_holes();
        let nester = Nester::new(with.clone(), 1).unwrap();
        let best = nester.best();
        assert_eq!((best.counts.clone(), best.missing.clone()), (vec![6, 6], vec![0, 0]));
        assert!(measure_layout(&with, &best.pieces).iter().all(PieceGaps::is_sound));
        let inside = best.pieces.iter().filter(|p| p.cutter == 1 && lies_in_a_hole(&with, p, &best.pieces)).count();
        assert_eq!(inside, 6);
        // WithOthers the rings they take more of the sheet.
        assert!(Nester::new(asked, 1).unwrap().best().used.mm() > best.used.mm() + 20.0);
    }

    #[test]
    fn a_search_goes_on_from_a_layout_with_filled_holes() {
        let asked = question(vec![cutter(BuiltinKind::Ring, 80.0, 50.0, 7), cutter(BuiltinKind::Round, 40.0, 0.0, 9)])
            .using_holes();
        let first = Nester::new(asked.clone(), 1).unwrap().best().clone();
        let mut nester = Nester::new(asked.clone().starting_from(vec![], first.pieces.clone()).unwrap(), 2).unwrap();
        nester.improve(&|looked| looked > 60_000, &mut |better| {
            assert!(measure_layout(&asked, &better.pieces).iter().all(PieceGaps::is_sound));
        });
        assert_eq!(nester.best().counts, vec![7, 9]);
        assert!(nester.best().used.mm() <= first.used.mm() + 0.01);
    }

    #[test]
    fn what_is_too_large_for_a_hole_lies_beside_it() {
        let asked = question(vec![cutter(BuiltinKind::Ring, 80.0, 30.0, 2), cutter(BuiltinKind::Round, 40.0, 0.0, 2)]);
        assert!(InHoles::find(&asked).is_none());
    }
}
