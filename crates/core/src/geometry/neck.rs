//! The narrowest neck of an outline. A disc that is rolled through its inside passes wherever the edge is further off than its radius: the neck is where the
//! largest disc that comes from one large part into another just passes. The distances are taken at the points of a grid, exactly, and the neck is then
//! looked at closely; so it takes about as long for an intricate outline as for a plain one.

use super::ring::edge_distance;
use geo::{Area as _, BoundingRect, LineString, Polygon};

/// A part counts when it holds so much of the area: crumbs at a corner are no parts. Our own choice.
const PART: f64 = 0.005;
/// Points of the grid along the longer side at least, and along the shorter one.
const ALONG: f64 = 256.0;
const ACROSS: f64 = 48.0;
/// Most points of a grid. One whose necks are narrower than its distances is made finer up to there.
const MOST_CELLS: f64 = 1.5e6;
/// A part is wider than the neck by so many distances of the grid's points, or the grid itself has made it up.
const WIDER: f64 = 0.75;
const NONE: u32 = u32::MAX;

type Point = (f64, f64);

#[derive(Clone, Copy)]
struct Edge {
    a: Point,
    b: Point,
}

impl Edge {
    fn nearest(self, (x, y): Point) -> Point {
        let (dx, dy) = (self.b.0 - self.a.0, self.b.1 - self.a.1);
        let long2 = dx * dx + dy * dy;
        let t = if long2 > 0.0 { ((x - self.a.0) * dx + (y - self.a.1) * dy) / long2 } else { 0.0 };
        let t = t.clamp(0.0, 1.0);
        (self.a.0 + t * dx, self.a.1 + t * dy)
    }

    fn distance(self, at: Point) -> f64 {
        let (x, y) = self.nearest(at);
        (at.0 - x).hypot(at.1 - y)
    }
}

/// A neck as the grid shows it: where, and how far the edge is from there.
struct Found {
    at: Point,
    radius: f64,
}

/// What a grid shows.
enum Seen {
    Neck(Found),
    NoNeck,
    /// Parts that do not join at all: their neck passes between the points.
    TooCoarse,
}

/// The width of the narrowest neck, mm; none where there is none.
pub(super) fn narrowest_neck(polygon: &Polygon<f64>) -> Option<f64> {
    let wall = narrowest_wall(polygon);
    let neck = narrowest_passage(polygon);
    wall.into_iter().chain(neck).min_by(f64::total_cmp)
}

fn corners(ring: &LineString<f64>) -> Vec<Point> {
    ring.0[..ring.0.len() - 1].iter().map(|c| (c.x, c.y)).collect()
}

/// The wall beside a hole: to the rim, or to another hole.
fn narrowest_wall(polygon: &Polygon<f64>) -> Option<f64> {
    let rings: Vec<Vec<Point>> = std::iter::once(polygon.exterior()).chain(polygon.interiors()).map(corners).collect();
    let pairs = (0..rings.len()).flat_map(|i| (i + 1..rings.len()).map(move |j| (i, j)));
    pairs.map(|(i, j)| edge_distance(&rings[i], &rings[j])).min_by(f64::total_cmp)
}

fn narrowest_passage(polygon: &Polygon<f64>) -> Option<f64> {
    let edges: Vec<Edge> = std::iter::once(polygon.exterior())
        .chain(polygon.interiors())
        .flat_map(LineString::lines)
        .map(|l| Edge { a: (l.start.x, l.start.y), b: (l.end.x, l.end.y) })
        .collect();
    let rect = polygon.bounding_rect()?;
    let (wide, high) = (rect.width(), rect.height());
    let mut step = (wide.max(high) / ALONG).min(wide.min(high) / ACROSS);
    loop {
        let grid = Grid::new((rect.min().x, rect.min().y), (wide, high), step, &edges);
        match grid.neck(polygon.unsigned_area() * PART) {
            Seen::Neck(found) => return Some(2.0 * closely(&edges, &found, step)),
            Seen::NoNeck => return None,
            // Narrower than can be seen.
            Seen::TooCoarse if wide * high / (step * step) * 4.0 > MOST_CELLS => return Some(step),
            Seen::TooCoarse => step /= 2.0,
        }
    }
}

/// Points inside an outline at a distance from one another, row by row, and the edge that is nearest to each.
struct Grid {
    step: f64,
    first: Point,
    columns: usize,
    rows: usize,
    /// How far from the edge; less than nothing outside.
    off: Vec<f64>,
}

impl Grid {
    fn new(low: Point, (wide, high): Point, step: f64, edges: &[Edge]) -> Self {
        // A row outside all around, so that every point inside has eight neighbours.
        let (columns, rows) = (count(wide / step) + 3, count(high / step) + 3);
        let first = (low.0 - step, low.1 - step);
        let mut grid = Self { step, first, columns, rows, off: vec![-1.0; columns * rows] };
        grid.fill(edges);
        grid.measure(edges);
        grid
    }

    fn at(&self, cell: usize) -> Point {
        let (row, column) = (cell / self.columns, cell % self.columns);
        (self.first.0 + real(column) * self.step, self.first.1 + real(row) * self.step)
    }

    /// Finds which points are inside: row by row between the edges they cross.
    fn fill(&mut self, edges: &[Edge]) {
        let mut crossed: Vec<Vec<f64>> = vec![vec![]; self.rows];
        for e in edges {
            let (low, high) = if e.a.1 < e.b.1 { (e.a, e.b) } else { (e.b, e.a) };
            let row_of = |y: f64| count(((y - self.first.1) / self.step).ceil());
            for (row, xs) in crossed.iter_mut().enumerate().take(row_of(high.1).min(self.rows)).skip(row_of(low.1)) {
                let y = self.first.1 + real(row) * self.step;
                xs.push(low.0 + (y - low.1) / (high.1 - low.1) * (high.0 - low.0));
            }
        }
        for (row, xs) in crossed.iter_mut().enumerate() {
            xs.sort_by(f64::total_cmp);
            for between in xs.chunks_exact(2) {
                let column_of = |x: f64| count(((x - self.first.0) / self.step).ceil()).min(self.columns);
                let (from, to) = (column_of(between[0]), column_of(between[1]));
                self.off[row * self.columns + from..row * self.columns + to].fill(f64::INFINITY);
            }
        }
    }

    /// Finds how far each point inside is from the edge: the way to the nearest edge runs inside, so neighbours tell each other of theirs (P.-E. Danielsson,
    /// 'Euclidean distance mapping', 1980).
    fn measure(&mut self, edges: &[Edge]) {
        let mut nearest = vec![NONE; self.off.len()];
        for (i, e) in edges.iter().enumerate() {
            let long = (e.b.0 - e.a.0).hypot(e.b.1 - e.a.1);
            let steps = count((2.0 * long / self.step).ceil()).max(1);
            for k in 0..=steps {
                let t = real(k) / real(steps);
                let at = (e.a.0 + t * (e.b.0 - e.a.0), e.a.1 + t * (e.b.1 - e.a.1));
                let column = count(((at.0 - self.first.0) / self.step).round());
                let row = count(((at.1 - self.first.1) / self.step).round());
                for r in row.saturating_sub(1)..=(row + 1).min(self.rows - 1) {
                    for c in column.saturating_sub(1)..=(column + 1).min(self.columns - 1) {
                        self.hear(r * self.columns + c, i, edges, &mut nearest);
                    }
                }
            }
        }
        let w = self.columns;
        let inside = w + 1..self.off.len() - w - 1;
        for _ in 0..2 {
            for cell in inside.clone() {
                for other in [cell - 1, cell - w - 1, cell - w, cell - w + 1] {
                    self.hear_of(cell, other, edges, &mut nearest);
                }
            }
            for cell in inside.clone().rev() {
                for other in [cell + 1, cell + w - 1, cell + w, cell + w + 1] {
                    self.hear_of(cell, other, edges, &mut nearest);
                }
            }
        }
    }

    fn hear_of(&mut self, cell: usize, other: usize, edges: &[Edge], nearest: &mut [u32]) {
        if self.off[cell] > 0.0 && nearest[other] != NONE && nearest[other] != nearest[cell] {
            self.hear(cell, index(nearest[other]), edges, nearest);
        }
    }

    fn hear(&mut self, cell: usize, edge: usize, edges: &[Edge], nearest: &mut [u32]) {
        if self.off[cell] < 0.0 {
            return;
        }
        let off = edges[edge].distance(self.at(cell));
        if off < self.off[cell] {
            self.off[cell] = off;
            nearest[cell] = u32::try_from(edge).unwrap_or(NONE);
        }
    }

    /// Takes the points from the innermost outwards; where one joins two large parts is a neck, and the last such the narrowest.
    fn neck(&self, part_mm2: f64) -> Seen {
        let mut order: Vec<usize> = (0..self.off.len()).filter(|&c| self.off[c] >= 0.0).collect();
        order.sort_by(|&a, &b| self.off[b].total_cmp(&self.off[a]));
        let mut parts = Parts { above: vec![NONE; self.off.len()], cells: vec![0; self.off.len()] };
        let mut peak = vec![0.0_f64; self.off.len()];
        let large = |cells: u32| f64::from(cells) * self.step * self.step > part_mm2;
        let w = self.columns;
        let mut found = None;
        for &cell in &order {
            let off = self.off[cell];
            parts.begin(cell);
            peak[cell] = off;
            for other in
                [cell - w - 1, cell - w, cell - w + 1, cell - 1, cell + 1, cell + w - 1, cell + w, cell + w + 1]
            {
                if parts.above[other] == NONE {
                    continue;
                }
                let (mine, theirs) = (parts.root(cell), parts.root(other));
                if mine == theirs {
                    continue;
                }
                let stands_out = |root: usize| large(parts.cells[root]) && peak[root] - off > WIDER * self.step;
                if stands_out(mine) && stands_out(theirs) {
                    found = Some(Found { at: self.at(cell), radius: off });
                }
                let highest = peak[mine].max(peak[theirs]);
                let root = parts.join(mine, theirs);
                peak[root] = highest;
            }
        }
        let apart = order.iter().filter(|&&c| parts.root(c) == c && large(parts.cells[c])).count();
        match found {
            _ if apart > 1 => Seen::TooCoarse,
            Some(found) => Seen::Neck(found),
            None => Seen::NoNeck,
        }
    }
}

/// Parts of the grid that were joined so far.
struct Parts {
    above: Vec<u32>,
    cells: Vec<u32>,
}

impl Parts {
    fn begin(&mut self, cell: usize) {
        self.above[cell] = u32::try_from(cell).unwrap_or(NONE);
        self.cells[cell] = 1;
    }

    fn root(&mut self, mut cell: usize) -> usize {
        while index(self.above[cell]) != cell {
            let above = index(self.above[cell]);
            self.above[cell] = self.above[above];
            cell = above;
        }
        cell
    }

    fn join(&mut self, a: usize, b: usize) -> usize {
        let (large, small) = if self.cells[a] >= self.cells[b] { (a, b) } else { (b, a) };
        self.above[small] = u32::try_from(large).unwrap_or(NONE);
        self.cells[large] += self.cells[small];
        large
    }
}

/// Looks closely at a neck: along it, where the disc that just fits across it is smallest. Half its width.
fn closely(edges: &[Edge], found: &Found, step: f64) -> f64 {
    let near: Vec<Edge> = edges.iter().filter(|e| e.distance(found.at) < found.radius + 6.0 * step).copied().collect();
    let off = |at: Point| near.iter().map(|e| e.distance(at)).fold(f64::INFINITY, f64::min);
    let Some(edge) = near.iter().min_by(|a, b| a.distance(found.at).total_cmp(&b.distance(found.at))) else {
        return found.radius;
    };
    let foot = edge.nearest(found.at);
    let long = (found.at.0 - foot.0).hypot(found.at.1 - foot.1).max(f64::MIN_POSITIVE);
    let across = ((found.at.0 - foot.0) / long, (found.at.1 - foot.1) / long);
    let fits = |along: f64| {
        let at = |a: f64| (found.at.0 - along * across.1 + a * across.0, found.at.1 + along * across.0 + a * across.1);
        -least(|a| -off(at(a)), -1.5 * step, 1.5 * step)
    };
    // The least of some, then closely about it.
    let tries: Vec<f64> = (-8..=8).map(|i| f64::from(i) * 0.25 * step).collect();
    let best = tries.into_iter().min_by(|a, b| fits(*a).total_cmp(&fits(*b))).unwrap_or(0.0);
    let radius = least(fits, best - 0.25 * step, best + 0.25 * step);
    // No further off than the grid can be.
    radius.clamp(found.radius - 0.75 * step, found.radius + 0.75 * step).max(0.0)
}

/// The least value of a function with one valley between two places (golden section, J. Kiefer, 1953).
fn least(f: impl Fn(f64) -> f64, mut low: f64, mut high: f64) -> f64 {
    const GOLDEN: f64 = 0.618_033_988_749_894_9;
    let (mut a, mut b) = (high - GOLDEN * (high - low), low + GOLDEN * (high - low));
    let (mut fa, mut fb) = (f(a), f(b));
    for _ in 0..16 {
        if fa < fb {
            (high, b, fb) = (b, a, fa);
            a = high - GOLDEN * (high - low);
            fa = f(a);
        } else {
            (low, a, fa) = (a, b, fb);
            b = low + GOLDEN * (high - low);
            fb = f(b);
        }
    }
    fa.min(fb)
}

#[expect(clippy::cast_precision_loss, reason = "rows and columns of a grid, far below 2^53")]
fn real(n: usize) -> f64 {
    n as f64
}

/// Whole steps; none of a negative number.
#[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "bounded by the grid's size")]
fn count(steps: f64) -> usize {
    steps.max(0.0) as usize
}

fn index(cell: u32) -> usize {
    usize::try_from(cell).unwrap_or(usize::MAX)
}

#[cfg(test)]
mod tests {
    use super::super::{Builtin, BuiltinKind, Outline};
    use super::*;
    use crate::units::Length;
    use geo::Buffer as _;
    use proptest::prelude::*;
    use rstest::rstest;
    use std::f64::consts::TAU;

    /// The same, with another tool: the outline is shrunk evenly until it falls in two (geo's buffer).
    fn by_shrinking(polygon: &Polygon<f64>) -> Option<f64> {
        let part = polygon.unsigned_area() * PART;
        let parts = |inset: f64| polygon.buffer(-inset).0.iter().filter(|p| p.unsigned_area() > part).count();
        let rect = polygon.bounding_rect().unwrap();
        let most = rect.width().min(rect.height()) / 2.0;
        let mut inset = 0.0;
        while inset < most {
            inset += most / 200.0;
            match parts(inset) {
                0 => return None,
                1 => {}
                _ => return Some(2.0 * inset),
            }
        }
        None
    }

    fn neck(points: &[Point]) -> Option<f64> {
        narrowest_neck(Outline::new(points).unwrap().polygon())
    }

    /// Two rooms and a way between them, so wide, turned.
    fn rooms(way: f64, turn_deg: f64) -> Vec<Point> {
        let (y0, y1) = (10.0 - way / 2.0, 10.0 + way / 2.0);
        let plain = [
            (0.0, 0.0),
            (20.0, 0.0),
            (20.0, y0),
            (40.0, y0),
            (40.0, 0.0),
            (60.0, 0.0),
            (60.0, 20.0),
            (40.0, 20.0),
            (40.0, y1),
            (20.0, y1),
            (20.0, 20.0),
            (0.0, 20.0),
        ];
        let (sin, cos) = turn_deg.to_radians().sin_cos();
        plain.iter().map(|(x, y)| (x * cos - y * sin, x * sin + y * cos)).collect()
    }

    #[rstest]
    #[case(0.3)]
    #[case(1.0)]
    #[case(3.3)]
    #[case(6.0)]
    #[case(12.0)]
    #[case(17.0)]
    fn a_way_between_two_rooms_is_as_wide_as_it_was_drawn(#[case] way: f64) {
        for turn in [0.0, 0.5, 17.0, 45.0, 90.0, 133.3] {
            let found = neck(&rooms(way, turn)).unwrap();
            assert!((found - way).abs() < 0.1, "{way} at {turn}: {found}");
        }
    }

    #[test]
    fn forms_that_shrink_to_one_place_have_none() {
        let round: Vec<Point> =
            (0..180).map(|i| f64::from(i) / 180.0 * TAU).map(|a| (40.0 * a.cos(), 40.0 * a.sin())).collect();
        assert_eq!(neck(&round), None);
        for turn in [0.0_f64, 0.5, 3.0, 30.0] {
            let (sin, cos) = turn.to_radians().sin_cos();
            let bar = [(0.0, 0.0), (90.0, 0.0), (90.0, 20.0), (0.0, 20.0)];
            assert_eq!(neck(&bar.map(|(x, y)| (x * cos - y * sin, x * sin + y * cos))), None, "{turn}");
        }
    }

    #[test]
    fn the_built_in_forms_have_the_necks_that_shrinking_finds() {
        for kind in BuiltinKind::ALL {
            let Ok(outline) = Builtin::usual(kind).unwrap().outline() else { continue };
            if !outline.holes().is_empty() {
                continue;
            }
            let (grid, shrunk) = (narrowest_neck(outline.polygon()), by_shrinking(outline.polygon()));
            match (grid, shrunk) {
                (Some(a), Some(b)) => assert!((a - b).abs() < 0.4, "{kind:?}: {a} {b}"),
                (a, b) => assert!(a.is_none() && b.is_none(), "{kind:?}: {a:?} {b:?}"),
            }
        }
    }

    #[test]
    fn the_wall_beside_a_hole_is_a_neck() {
        let round = |r: f64, x: f64| -> Vec<Point> {
            (0..120).map(|i| f64::from(i) / 120.0 * TAU).map(|a| (x + r * a.cos(), r * a.sin())).collect()
        };
        let ring = Outline::with_holes(&round(30.0, 0.0), &[round(10.0, 4.0)]).unwrap();
        let found = narrowest_neck(ring.polygon()).unwrap();
        // 30 less 4 less 10, of rounds with 120 corners.
        assert!((found - 16.0).abs() < 0.05, "{found}");
    }

    proptest! {
        #[test]
        fn two_rounds_with_a_way_between_them(r1 in 9.0..30.0_f64, r2 in 9.0..30.0_f64, share in 0.1..0.8_f64, turn in 0.0..360.0_f64) {
            let way = share * 2.0 * r1.min(r2);
            let apart = r1 + r2 + 15.0;
            let (h1, h2) = ((way / 2.0 / r1).asin(), (way / 2.0 / r2).asin());
            let arc = |x: f64, r: f64, from: f64, to: f64| (0..=60).map(move |i| {
                let a = from + (to - from) * f64::from(i) / 60.0;
                (x + r * a.cos(), r * a.sin())
            });
            let (sin, cos) = turn.to_radians().sin_cos();
            let plain = arc(0.0, r1, h1, TAU - h1).chain(arc(apart, r2, -TAU / 2.0 + h2, TAU / 2.0 - h2));
            let points: Vec<Point> = plain.map(|(x, y)| (x * cos - y * sin, x * sin + y * cos)).collect();
            let found = neck(&points).expect("a way");
            prop_assert!((found - way).abs() < 0.1, "{found} of {way}");
        }
    }

    #[test]
    fn an_outline_of_five_thousand_points_is_measured_too() {
        let star: Vec<Point> = (0..5000)
            .map(|i| {
                let (a, r) = (TAU * f64::from(i) / 5000.0, if i % 2 == 0 { 45.0 } else { 41.0 });
                (r * a.cos(), r * a.sin())
            })
            .collect();
        assert_eq!(neck(&star), None);
        assert_eq!(Outline::new(&star).unwrap().narrowest_neck().map(Length::mm), None);
    }
}
