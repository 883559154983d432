//! What the search works with, in 32-bit numbers: cutters grown and thinned, and the ground they lie on.

#![expect(
    clippy::cast_possible_truncation,
    reason = "the collision engine reckons in 32-bit numbers; a proof in 64-bit numbers follows"
)]

use crate::geometry::{Outline, Placement};
use crate::shape::sheet::SheetForm;
use crate::shape::spacing::Turning;
use crate::units::Length;
use jagua_rs::geometry::DTransformation;
use jagua_rs::geometry::fail_fast::{SPSurrogate, SPSurrogateConfig};
use jagua_rs::geometry::geo_traits::Transformable;
use jagua_rs::geometry::primitives::{Point, SPolygon};
use jagua_rs::geometry::shape_modification::{ShapeModifyMode, simplify_shape};
use rand::RngExt as _;
use rand_pcg::Pcg64Mcg;
use std::f32::consts::TAU;

/// Discs and rods that stand for a piece; our own choice, tried on the bench set.
pub(super) const SURROGATE: SPSurrogateConfig =
    SPSurrogateConfig { n_pole_limits: [(48, 0.0), (14, 0.8), (8, 0.9)], ff_pole_area_ratio: 0.6, n_ff_piers: 0 };
/// Area an outline may gain when its points are thinned for the search, as a share. It is never made smaller.
const THINNED: f32 = 0.0008;

/// Where a piece lies in the search.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Spot {
    pub x: f32,
    pub y: f32,
    pub turn: f32,
}

impl Spot {
    pub(super) fn transformation(self) -> jagua_rs::geometry::Transformation {
        DTransformation::new(self.turn, (self.x, self.y)).compose()
    }
}

/// A cutter as it is searched with: grown by half the web, thinned, with its discs.
#[derive(Debug, Clone)]
pub(super) struct SearchShape {
    pub(super) base: SPolygon,
    pub(super) turning: Turning,
    /// The fourth root of the hull's area: big pieces in the way of each other weigh more.
    pub(super) weight: f32,
    pub(super) diameter: f32,
}

impl SearchShape {
    /// From the grown outline's corners; `None` when the engine cannot take it.
    pub fn new(grown: &[(f64, f64)], turning: Turning) -> Option<Self> {
        let mut points: Vec<Point> = grown.iter().map(|p| Point(p.0 as f32, p.1 as f32)).collect();
        points.dedup();
        if points.len() > 1 && points.first() == points.last() {
            points.pop();
        }
        let whole = SPolygon::new(points).ok()?;
        let mut base = simplify_shape(&whole, ShapeModifyMode::Inflate, THINNED);
        base.generate_surrogate(SURROGATE).ok()?;
        let weight = base.surrogate().convex_hull_area.sqrt().sqrt();
        let diameter = base.diameter();
        Some(Self { base, turning, weight, diameter })
    }

    pub fn area(&self) -> f32 {
        self.base.area()
    }

    pub(super) fn surrogate(&self) -> &SPSurrogate {
        self.base.surrogate()
    }

    pub(super) fn any_turn(&self, rng: &mut Pcg64Mcg) -> f32 {
        match self.turning {
            Turning::Free => rng.random_range(0.0..TAU),
            Turning::HalfTurn => {
                if rng.random_bool(0.5) {
                    0.0
                } else {
                    TAU / 2.0
                }
            }
            Turning::Fixed => 0.0,
        }
    }
}

/// A convex ground: its corners, walked so that the inside lies on one side.
#[derive(Debug, Clone)]
pub(super) struct Ground {
    pub(super) points: Vec<(f32, f32)>,
    /// Of each edge, the outward unit normal and its offset.
    edges: Vec<(f32, f32, f32)>,
    pub(super) low: (f32, f32),
    pub(super) high: (f32, f32),
}

impl Ground {
    pub fn new(points: &[(f64, f64)]) -> Self {
        let points: Vec<(f32, f32)> = points.iter().map(|p| (p.0 as f32, p.1 as f32)).collect();
        let n = points.len();
        let twice: f32 =
            (0..n).map(|i| points[i].0 * points[(i + 1) % n].1 - points[(i + 1) % n].0 * points[i].1).sum();
        let way = twice.signum();
        let edges = (0..n)
            .filter_map(|i| {
                let (a, b) = (points[i], points[(i + 1) % n]);
                let (dx, dy) = (b.0 - a.0, b.1 - a.1);
                let length = dx.hypot(dy);
                (length > 1e-6).then(|| {
                    let (nx, ny) = (way * dy / length, -way * dx / length);
                    (nx, ny, nx * a.0 + ny * a.1)
                })
            })
            .collect();
        let fold =
            |f: fn(f32, f32) -> f32, start: f32| points.iter().fold((start, start), |m, p| (f(m.0, p.0), f(m.1, p.1)));
        let (low, high) = (fold(f32::min, f32::MAX), fold(f32::max, f32::MIN));
        Self { points, edges, low, high }
    }

    /// Whether a placed outline lies wholly on the ground. The ground is convex, so its corners tell.
    pub fn holds(&self, points: &[(f64, f64)]) -> bool {
        points.iter().all(|p| {
            self.edges
                .iter()
                .all(|(nx, ny, offset)| f64::from(*nx) * p.0 + f64::from(*ny) * p.1 - f64::from(*offset) <= 1e-4)
        })
    }

    /// Whether a piece, with its half web, lies wholly on the ground.
    pub fn takes(&self, shape: &SearchShape, at: Spot) -> bool {
        self.depth_outside(&shape.base.transform_clone(&at.transformation())) <= 0.0
    }

    pub(super) fn depth_outside(&self, shape: &SPolygon) -> f32 {
        let hull = &shape.surrogate().convex_hull_indices;
        self.edges
            .iter()
            .map(|(nx, ny, offset)| {
                hull.iter().map(|i| shape.vertices()[*i]).map(|p| nx * p.0 + ny * p.1 - offset).fold(0.0, f32::max)
            })
            .fold(0.0, f32::max)
    }
}

/// Whether a cutter fits the sheet at all, in the middle of it, turned as it may be.
pub(super) fn fits(outline: &Outline, turning: Turning, sheet: SheetForm, edge: Length) -> bool {
    let Some(ground) = sheet.ground(edge, Length::new_mm(0.0)).map(|g| Ground::new(&g)) else {
        return false;
    };
    let (w, l) = sheet.extent();
    let turns: &[f64] = match turning {
        Turning::Free => &[0.0, 15.0, 30.0, 45.0, 60.0, 75.0, 90.0, 105.0, 120.0, 135.0, 150.0, 165.0],
        Turning::HalfTurn | Turning::Fixed => &[0.0],
    };
    turns.iter().any(|turn| {
        let at = Placement { x_mm: 0.0, y_mm: 0.0, turn_deg: *turn };
        let points = outline.placed(at);
        let middle = |f: fn(&(f64, f64)) -> f64| {
            let (low, high) = points.iter().map(f).fold((f64::MAX, f64::MIN), |(l, h), v| (l.min(v), h.max(v)));
            f64::midpoint(low, high)
        };
        let (dx, dy) = (w.mm() / 2.0 - middle(|p| p.0), l.mm() / 2.0 - middle(|p| p.1));
        ground.holds(&points.iter().map(|p| (p.0 + dx, p.1 + dy)).collect::<Vec<_>>())
    })
}
