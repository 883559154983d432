//! Which cutter a piece was cut with, and how it lies: its outline is turned until it falls on the cutter's.

use crate::geometry::{Outline, bounds, distance_to_ring, evenly, signed_area};
use crate::units::Length;
use geo::{Centroid as _, LineString, Polygon};

/// Points of a piece that are compared.
const COMPARED: usize = 120;
/// The grid in which a cutter's edge is looked up: so many cells each way, over so much of a shape of area 1.
const CELLS: usize = 128;
const SPAN: f64 = 4.0;
/// Points of a cutter's edge that it is compared with.
const EDGE_POINTS: usize = 180;
/// Turns tried at first, degrees; then about the best.
const TURN_DEG: f64 = 4.0;
/// A baked edge lies so near to the cutter's, of the side of a square of its area; and its area differs by so much from the one that is expected,
/// as a logarithm. Our own choice, from rounds to stars.
const NEAR: f64 = 0.03;
const AREA: f64 = 0.20;
/// What is further away was not cut with it.
const FURTHEST: f64 = 0.10;
/// Nor what is so much smaller or larger.
const AREAS: (f64, f64) = (0.55, 2.6);

/// A cutter that pieces may have been cut with.
pub(super) struct Form<'a> {
    pub(super) outline: &'a Outline,
    /// Area of the outline alone, of its holes nothing taken away.
    area_mm2: f64,
    /// How much a piece is larger than it, as it is expected: its area, of the cutter's.
    expected: f64,
    /// Distance to its edge, of the side of a square of its area.
    cells: Vec<f32>,
    /// How far its middle of mass is from the middle of its box, mm.
    centre: (f64, f64),
}

/// How a piece lies.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Lie {
    /// The cutter, by its place among those given.
    pub(super) form: usize,
    /// Turned from how it was drawn, degrees.
    pub(super) turn_deg: f64,
    /// How far its edge lies from the cutter's, of the side of a square of its area.
    pub(super) off: f64,
    /// Both, for choosing between cutters.
    worth: f64,
}

type Point = (f64, f64);

/// The middle of mass of what a ring encloses.
pub(super) fn centre(ring: &[Point]) -> Point {
    let middle = Polygon::new(LineString::from(ring.to_vec()), vec![]).centroid();
    middle.map_or((0.0, 0.0), |c| (c.x(), c.y()))
}

/// About its middle, of area 1.
fn of_area_one(ring: &[Point]) -> Vec<Point> {
    let (c, scale) = (centre(ring), signed_area(ring).abs().sqrt());
    ring.iter().map(|p| ((p.0 - c.0) / scale, (p.1 - c.1) / scale)).collect()
}

pub(super) fn turned((x, y): Point, deg: f64) -> Point {
    let (sin, cos) = deg.to_radians().sin_cos();
    (x * cos - y * sin, x * sin + y * cos)
}

impl<'a> Form<'a> {
    /// A cutter whose pieces are expected to grow by a share across.
    pub(super) fn new(outline: &'a Outline, spread: f64) -> Self {
        let (w, h) = outline.extent();
        let grown = outline.grown(Length::new_mm(0.5 * spread.max(0.0) * w.mm().max(h.mm())));
        let unit = evenly(&of_area_one(&grown), EDGE_POINTS);
        #[expect(clippy::cast_precision_loss, clippy::cast_possible_truncation, reason = "a cell")]
        let cells = (0..CELLS * CELLS)
            .map(|at| {
                let of = |i: usize| (i as f64 + 0.5) / CELLS as f64 * SPAN - SPAN / 2.0;
                distance_to_ring((of(at % CELLS), of(at / CELLS)), &unit) as f32
            })
            .collect();
        let plain = outline.points();
        let area_mm2 = signed_area(&plain).abs();
        let expected = signed_area(&grown).abs() / area_mm2;
        Self { outline, area_mm2, expected, cells, centre: centre(&plain) }
    }

    /// What a piece of it is expected to cover.
    pub(super) fn expected_mm2(&self) -> f64 {
        self.area_mm2 * self.expected
    }

    fn distance(&self, (x, y): Point) -> f64 {
        #[expect(clippy::cast_precision_loss, reason = "a grid")]
        let of = |v: f64| ((v + SPAN / 2.0) / SPAN * CELLS as f64 - 0.5).clamp(0.0, CELLS as f64 - 1.001);
        let (fx, fy) = (of(x), of(y));
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "within the grid")]
        let (i, j) = (fx as usize, fy as usize);
        let at = |di: usize, dj: usize| f64::from(self.cells[(j + dj) * CELLS + i + di]);
        let (tx, ty) = (fx.fract(), fy.fract());
        (at(0, 0) * (1.0 - tx) + at(1, 0) * tx) * (1.0 - ty) + (at(0, 1) * (1.0 - tx) + at(1, 1) * tx) * ty
    }

    /// How far points lie from its edge when they are turned back, root of the mean square.
    fn off(&self, points: &[Point], turn_deg: f64) -> f64 {
        #[expect(clippy::cast_precision_loss, reason = "about a hundred")]
        let count = points.len() as f64;
        (points.iter().map(|p| self.distance(turned(*p, -turn_deg)).powi(2)).sum::<f64>() / count).sqrt()
    }

    /// The turn at which it lies best, and how far off it is then.
    fn best_turn(&self, points: &[Point]) -> (f64, f64) {
        let best = |turns: &mut dyn Iterator<Item = f64>| {
            turns.map(|t| (t, self.off(points, t))).min_by(|a, b| a.1.total_cmp(&b.1)).unwrap_or((0.0, f64::MAX))
        };
        #[expect(clippy::cast_possible_truncation, reason = "ninety")]
        let steps = (360.0 / TURN_DEG) as i32;
        let mut found = best(&mut (0..steps).map(|k| f64::from(k) * TURN_DEG));
        for step in [1.0, 0.25, 0.1] {
            found = best(&mut (-6..=6).map(|k| found.0 + f64::from(k) * step * TURN_DEG / 6.0));
        }
        found
    }
}

/// How a piece lies by the cutter that it fits best; nothing where it fits none.
pub(super) fn lie(ring: &[Point], forms: &[Form]) -> Option<Lie> {
    let area = signed_area(ring).abs();
    let points = of_area_one(&evenly(ring, COMPARED));
    let of = |(form, f): (usize, &Form)| {
        let larger = area / f.area_mm2;
        if !(AREAS.0..AREAS.1).contains(&larger) {
            return None;
        }
        let (turn_deg, off) = f.best_turn(&points);
        let worth = (off / NEAR).powi(2) + ((larger / f.expected).ln() / AREA).powi(2);
        (off < FURTHEST).then_some(Lie { form, turn_deg, off, worth })
    };
    forms.iter().enumerate().filter_map(of).min_by(|a, b| a.worth.total_cmp(&b.worth))
}

/// A ring as its cutter was drawn: about the middle of the cutter's box, turned back.
pub(super) fn as_drawn(ring: &[Point], form: &Form, turn_deg: f64) -> Vec<Point> {
    let c = centre(ring);
    let back = |p: &Point| {
        let (x, y) = turned((p.0 - c.0, p.1 - c.1), -turn_deg);
        (x + form.centre.0, y + form.centre.1)
    };
    ring.iter().map(back).collect()
}

/// Width and height of the box around a ring.
pub(super) fn extent(ring: &[Point]) -> Point {
    let (low, high) = bounds(ring);
    (high.0 - low.0, high.1 - low.1)
}
