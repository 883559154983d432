//! The proof of a layout: exact polygon distances between the outlines themselves, and to the rim, in 64-bit numbers. It
//! shares nothing with the search.

use super::question::{NestPiece, NestQuestion};
use crate::geometry::{clearance_mm, distance_to_ring, edge_distance, ring_holds};
use crate::units::Length;
use geo::{Coord, Rect};

/// What one piece keeps to all around it.
#[derive(Debug, Clone, PartialEq)]
pub struct PieceGaps {
    /// To the nearest other piece: how far, and which; `None` when none is nearer than three webs.
    pub nearest: Option<(Length, usize)>,
    /// Others it lies nearer to than the web.
    pub too_near: Vec<usize>,
    /// To the rim; 0 when it reaches over it.
    pub rim: Length,
    /// Whether the rim is nearer than the edge.
    pub over_rim: bool,
}

impl PieceGaps {
    /// Whether web and edge are kept.
    #[must_use]
    pub fn is_sound(&self) -> bool {
        self.too_near.is_empty() && !self.over_rim
    }
}

/// Gaps are measured to this much, mm; 0.05 is what a bench can hold.
const FINE_MM: f64 = 1e-3;

/// A closed ring in place.
type Ring = Vec<(f64, f64)>;

/// An outline in place, with the box around it.
struct Placed {
    around: Rect<f64>,
    points: Ring,
    holes: Vec<Ring>,
}

impl Placed {
    fn new(question: &NestQuestion, piece: &NestPiece) -> Self {
        let outline = &question.cutters[piece.cutter].outline;
        let points = outline.placed(piece.at);
        Self { around: box_of(&points), points, holes: outline.holes_placed(piece.at) }
    }

    /// The exact gap between two pieces, of which one may lie in a hole of the other.
    fn gap(&self, other: &Self) -> f64 {
        for (outer, inner) in [(self, other), (other, self)] {
            if let Some(hole) = outer.holes.iter().find(|hole| ring_holds(hole, inner.points[0])) {
                return edge_distance(hole, &inner.points);
            }
        }
        clearance_mm(&self.points, &other.points)
    }
}

/// Pieces laid so far.
pub(super) struct Laid {
    rim: Vec<(f64, f64)>,
    placed: Vec<Placed>,
}

impl Laid {
    pub fn new(question: &NestQuestion) -> Self {
        Self { rim: question.sheet.rim(), placed: Vec::new() }
    }

    /// The distance to the rim, and whether it is less than the edge.
    fn to_rim(&self, edge: f64, points: &[(f64, f64)]) -> (f64, bool) {
        let near = points.iter().map(|p| distance_to_ring(*p, &self.rim)).fold(f64::INFINITY, f64::min);
        let out = outside(points, &self.rim);
        (if out { 0.0 } else { near }, out || near < edge - FINE_MM)
    }

    /// Lays a piece when web and edge allow it.
    pub fn try_add(&mut self, question: &NestQuestion, piece: NestPiece) -> bool {
        let own = Placed::new(question, &piece);
        let web = question.spacing.web().mm();
        let near = |other: &&Placed| apart(&own.around, &other.around) < web;
        let sound = !self.to_rim(question.spacing.edge().mm(), &own.points).1
            && !self.placed.iter().filter(near).any(|other| own.gap(other) < web - FINE_MM);
        if sound {
            self.placed.push(own);
        }
        sound
    }
}

/// Measures every piece of a layout against every other and against the rim.
#[must_use]
pub fn measure_layout(question: &NestQuestion, pieces: &[NestPiece]) -> Vec<PieceGaps> {
    let mut laid = Laid::new(question);
    laid.placed = pieces.iter().map(|p| Placed::new(question, p)).collect();
    let (web, edge) = (question.spacing.web().mm(), question.spacing.edge().mm());
    let reach = 3.0 * web;
    let mut gaps: Vec<PieceGaps> = laid
        .placed
        .iter()
        .map(|placed| {
            let (rim, over_rim) = laid.to_rim(edge, &placed.points);
            PieceGaps { nearest: None, too_near: vec![], rim: Length::new_mm(rim), over_rim }
        })
        .collect();
    for a in 0..pieces.len() {
        for b in a + 1..pieces.len() {
            let (one, two) = (&laid.placed[a], &laid.placed[b]);
            if apart(&one.around, &two.around) > reach {
                continue;
            }
            let gap = one.gap(two);
            for (own, other) in [(a, b), (b, a)] {
                let g = &mut gaps[own];
                if gap <= reach && g.nearest.is_none_or(|(n, _)| gap < n.mm()) {
                    g.nearest = Some((Length::new_mm(gap), other));
                }
                if gap < web - FINE_MM {
                    g.too_near.push(other);
                }
            }
        }
    }
    gaps
}

/// Whether any corner lies beyond the rim, by more than [`FINE_MM`].
fn outside(points: &[(f64, f64)], rim: &[(f64, f64)]) -> bool {
    points.iter().any(|p| !ring_holds(rim, *p) && distance_to_ring(*p, rim) > FINE_MM)
}

fn box_of(points: &[(f64, f64)]) -> Rect<f64> {
    let fold = |f: fn(f64, f64) -> f64, s: f64| points.iter().fold((s, s), |m, p| (f(m.0, p.0), f(m.1, p.1)));
    let (low, high) = (fold(f64::min, f64::MAX), fold(f64::max, f64::MIN));
    Rect::new(Coord { x: low.0, y: low.1 }, Coord { x: high.0, y: high.1 })
}

fn apart(a: &Rect<f64>, b: &Rect<f64>) -> f64 {
    let gap = |a: (f64, f64), b: (f64, f64)| (b.0 - a.1).max(a.0 - b.1).max(0.0);
    gap((a.min().x, a.max().x), (b.min().x, b.max().x)).max(gap((a.min().y, a.max().y), (b.min().y, b.max().y)))
}
