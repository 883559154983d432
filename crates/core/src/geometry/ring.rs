//! Closed rings of points, mm: their edges, distances and crossings.

use geo::{Area as _, Buffer, Contains, Coord, LineString, Point, Polygon, Simplify};

/// The most corners a ring may have once curves are flattened. Our own choice.
pub(crate) const MOST_POINTS: usize = 5_000;

pub(super) fn ring_about(points: &[(f64, f64)], centre: (f64, f64)) -> LineString<f64> {
    LineString::new(points.iter().map(|p| Coord { x: p.0 - centre.0, y: p.1 - centre.1 }).collect())
}

/// A closed ring moved outward (inward for less than nothing) by `by_mm` on all sides, round at the corners; the largest
/// part where it falls apart, `None` where nothing is left.
pub(crate) fn offset_ring(points: &[(f64, f64)], by_mm: f64) -> Option<Vec<(f64, f64)>> {
    if by_mm == 0.0 {
        return Some(points.to_vec());
    }
    let ring = Polygon::new(LineString::from(points.to_vec()), vec![]);
    let largest = ring.buffer(by_mm).0.into_iter().max_by(|a, b| a.unsigned_area().total_cmp(&b.unsigned_area()))?;
    let mut points: Vec<(f64, f64)> = largest.simplify(0.001).exterior().0.iter().map(|c| (c.x, c.y)).collect();
    points.pop();
    (points.len() >= 3).then_some(points)
}

/// The exact distance between two closed polygons, 0 when they touch or overlap. This is the proof of a layout: it
/// shares nothing with the profiles that search for one.
#[must_use]
pub fn clearance_mm(a: &[(f64, f64)], b: &[(f64, f64)]) -> f64 {
    let polygon = |points: &[(f64, f64)]| Polygon::new(LineString::from(points.to_vec()), vec![]);
    let inside = |outer: &[(f64, f64)], inner: (f64, f64)| polygon(outer).contains(&Point::new(inner.0, inner.1));
    if inside(a, b[0]) || inside(b, a[0]) {
        return 0.0;
    }
    edge_distance(a, b)
}

/// The exact distance between the edges of two closed rings, wherever they lie.
pub(crate) fn edge_distance(a: &[(f64, f64)], b: &[(f64, f64)]) -> f64 {
    let mut least = f64::INFINITY;
    let (low, high) = bounds(b);
    for (p, q) in edges(a) {
        if box_distance(p, q, low, high) >= least {
            continue;
        }
        for (r, s) in edges(b) {
            if box_distance(p, q, (r.0.min(s.0), r.1.min(s.1)), (r.0.max(s.0), r.1.max(s.1))) < least {
                least = least.min(segment_distance(p, q, r, s));
            }
        }
    }
    least
}

/// The exact distance from a point to a closed ring's edges.
pub(crate) fn distance_to_ring(point: (f64, f64), ring: &[(f64, f64)]) -> f64 {
    edges(ring).map(|(a, b)| point_segment(point, a, b)).fold(f64::INFINITY, f64::min)
}

/// Whether a point lies inside a closed ring.
pub(crate) fn ring_holds(ring: &[(f64, f64)], point: (f64, f64)) -> bool {
    Polygon::new(LineString::from(ring.to_vec()), vec![]).contains(&Point::new(point.0, point.1))
}

/// Distance between the box of segment `p q` and the box from `low` to `high`: a floor for any distance between them.
fn box_distance(p: (f64, f64), q: (f64, f64), low: (f64, f64), high: (f64, f64)) -> f64 {
    let gap = |a: f64, b: f64, low: f64, high: f64| (low - a.max(b)).max(a.min(b) - high).max(0.0);
    gap(p.0, q.0, low.0, high.0).max(gap(p.1, q.1, low.1, high.1))
}

fn edges(points: &[(f64, f64)]) -> impl Iterator<Item = ((f64, f64), (f64, f64))> + '_ {
    points.iter().enumerate().map(|(i, &p)| (p, points[(i + 1) % points.len()]))
}

fn cross(o: (f64, f64), a: (f64, f64), b: (f64, f64)) -> f64 {
    (a.0 - o.0) * (b.1 - o.1) - (a.1 - o.1) * (b.0 - o.0)
}

fn segments_cross(p: (f64, f64), q: (f64, f64), r: (f64, f64), s: (f64, f64)) -> bool {
    let (d1, d2) = (cross(p, q, r), cross(p, q, s));
    let (d3, d4) = (cross(r, s, p), cross(r, s, q));
    (d1 > 0.0) != (d2 > 0.0) && (d3 > 0.0) != (d4 > 0.0) && d1 != d2 && d3 != d4
}

fn segment_distance(p: (f64, f64), q: (f64, f64), r: (f64, f64), s: (f64, f64)) -> f64 {
    if segments_cross(p, q, r, s) {
        return 0.0;
    }
    point_segment(p, r, s).min(point_segment(q, r, s)).min(point_segment(r, p, q)).min(point_segment(s, p, q))
}

fn point_segment(p: (f64, f64), a: (f64, f64), b: (f64, f64)) -> f64 {
    let (dx, dy) = (b.0 - a.0, b.1 - a.1);
    let length2 = dx * dx + dy * dy;
    let t = if length2 > 0.0 { (((p.0 - a.0) * dx + (p.1 - a.1) * dy) / length2).clamp(0.0, 1.0) } else { 0.0 };
    (p.0 - a.0 - t * dx).hypot(p.1 - a.1 - t * dy)
}

pub(crate) fn bounds(points: &[(f64, f64)]) -> ((f64, f64), (f64, f64)) {
    points.iter().fold(((f64::MAX, f64::MAX), (f64::MIN, f64::MIN)), |(low, high), p| {
        ((low.0.min(p.0), low.1.min(p.1)), (high.0.max(p.0), high.1.max(p.1)))
    })
}

/// Where a ring crosses itself: two of its edges, by the numbers of the corners they begin at.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Crossing {
    pub(super) at: (f64, f64),
    /// The earlier edge, and the later one.
    edges: (usize, usize),
}

/// A loop or a spike no larger than this is the noise of a trace, not a form, mm. Our own choice: a tenth of the finest a tin is bent.
const NOISE_MM: f64 = 0.1;

/// A ring without the loops and spikes by which it crosses itself, where they are no larger than a trace's noise.
///
/// Answers the first crossing that is larger.
pub(super) fn without_noise(points: &[(f64, f64)]) -> Result<Vec<(f64, f64)>, Crossing> {
    let mut ring = points.to_vec();
    // Each mending takes a corner away at least.
    while let Some(crossing) = first_crossing(&ring) {
        let ((i, j), n) = (crossing.edges, ring.len());
        let ((p, q), (r, s)) = ((ring[i], ring[(i + 1) % n]), (ring[j], ring[(j + 1) % n]));
        let (inner, outer): (Vec<usize>, Vec<usize>) = if j == i + 1 || (i == 0 && j == n - 1) {
            // A spike: its tip alone.
            (vec![if j == i + 1 { j } else { i }], vec![])
        } else {
            ((i + 1..=j).collect(), (j + 1..n).chain(0..=i).collect())
        };
        let meet = if outer.is_empty() { crossing.at } else { meeting(p, q, r, s) };
        let size =
            |of: &[usize]| of.iter().map(|&k| (ring[k].0 - meet.0).hypot(ring[k].1 - meet.1)).fold(0.0, f64::max);
        let spike = outer.is_empty();
        let tip = |k: usize| {
            let (a, b, c) = (ring[(k + n - 1) % n], ring[k], ring[(k + 1) % n]);
            (a.0 - b.0).hypot(a.1 - b.1).min((c.0 - b.0).hypot(c.1 - b.1))
        };
        let small = if spike { tip(inner[0]) } else { size(&inner) } < NOISE_MM;
        let away = if small {
            inner
        } else if !spike && size(&outer) < NOISE_MM {
            outer
        } else {
            return Err(crossing);
        };
        let first = away[0];
        let mut kept: Vec<(f64, f64)> = Vec::with_capacity(n);
        for (k, &corner) in ring.iter().enumerate() {
            if !away.contains(&k) {
                kept.push(corner);
            } else if !spike && k == first {
                kept.push(meet);
            }
        }
        kept.dedup_by(|a, b| (a.0 - b.0).hypot(a.1 - b.1) < 1e-6);
        if kept.len() < 3 || kept.len() >= n {
            return Err(crossing);
        }
        ring = kept;
    }
    Ok(ring)
}

/// Where two segments that touch or cross meet; the end of one where they lie along each other.
fn meeting(p: (f64, f64), q: (f64, f64), r: (f64, f64), s: (f64, f64)) -> (f64, f64) {
    let (along, other) = ((q.0 - p.0, q.1 - p.1), (s.0 - r.0, s.1 - r.1));
    let det = along.0 * other.1 - along.1 * other.0;
    if det.abs() < 1e-15 {
        return r;
    }
    let t = (((r.0 - p.0) * other.1 - (r.1 - p.1) * other.0) / det).clamp(0.0, 1.0);
    (p.0 + t * along.0, p.1 + t * along.1)
}

/// Where two edges that are not neighbours touch or cross first, sweeping along x.
fn first_crossing(points: &[(f64, f64)]) -> Option<Crossing> {
    let n = points.len();
    let all: Vec<_> = edges(points).collect();
    let mut order: Vec<usize> = (0..n).collect();
    let left = |i: usize| all[i].0.0.min(all[i].1.0);
    order.sort_by(|&a, &b| left(a).total_cmp(&left(b)));
    for (k, &i) in order.iter().enumerate() {
        let right = all[i].0.0.max(all[i].1.0);
        for &j in &order[k + 1..] {
            if left(j) > right {
                break;
            }
            let (p, q) = all[i];
            let (r, s) = all[j];
            let neighbours = (i + 1) % n == j || (j + 1) % n == i;
            if neighbours {
                // Neighbours share a corner; they fault only when one folds back along the other.
                let (a, b, c) = if (i + 1) % n == j { (p, q, s) } else { (r, s, q) };
                let folded =
                    cross(a, b, c).abs() < 1e-12 && (a.0 - b.0) * (c.0 - b.0) + (a.1 - b.1) * (c.1 - b.1) > 0.0;
                if folded && n > 3 {
                    return Some(Crossing { at: b, edges: (i.min(j), i.max(j)) });
                }
            } else if p.1.min(q.1) <= r.1.max(s.1)
                && r.1.min(s.1) <= p.1.max(q.1)
                && segment_distance(p, q, r, s) == 0.0
            {
                return Some(Crossing { at: p, edges: (i.min(j), i.max(j)) });
            }
        }
    }
    None
}

/// Its area; less than nothing where it goes round the other way.
pub(crate) fn signed_area(ring: &[(f64, f64)]) -> f64 {
    let n = ring.len();
    (0..n).map(|i| ring[i].0 * ring[(i + 1) % n].1 - ring[(i + 1) % n].0 * ring[i].1).sum::<f64>() / 2.0
}

/// Once round it.
pub(crate) fn length(ring: &[(f64, f64)]) -> f64 {
    let n = ring.len();
    (0..n).map(|i| (ring[(i + 1) % n].0 - ring[i].0).hypot(ring[(i + 1) % n].1 - ring[i].1)).sum()
}

/// So many points along a ring, equally far apart.
pub(crate) fn evenly(ring: &[(f64, f64)], count: usize) -> Vec<(f64, f64)> {
    let whole = length(ring);
    let mut even = Vec::with_capacity(count);
    let (mut edge, mut done) = (0, 0.0);
    for i in 0..count {
        #[expect(clippy::cast_precision_loss, reason = "a few thousand points")]
        let at = whole * i as f64 / count as f64;
        loop {
            let (a, b) = (ring[edge % ring.len()], ring[(edge + 1) % ring.len()]);
            let long = (b.0 - a.0).hypot(b.1 - a.1);
            if done + long >= at || edge >= ring.len() {
                let t = if long > 0.0 { ((at - done) / long).clamp(0.0, 1.0) } else { 0.0 };
                even.push((a.0 + t * (b.0 - a.0), a.1 + t * (b.1 - a.1)));
                break;
            }
            done += long;
            edge += 1;
        }
    }
    even
}

/// Points every fifth of a millimetre along the ring, each the mean of its neighbours with weights that fall off as a bell.
pub(crate) fn smoothed(ring: &[(f64, f64)]) -> Vec<(f64, f64)> {
    const STEP_MM: f64 = 0.2;
    /// Width of the bell, mm.
    const SMOOTHED_MM: f64 = 0.5;
    let whole = length(ring);
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a few thousand points")]
    let count = (whole / STEP_MM).round().max(12.0) as usize;
    let even = evenly(ring, count);
    let reach: i32 = 8;
    let weights: Vec<f64> =
        (-reach..=reach).map(|k| (-0.5 * (f64::from(k) * STEP_MM / SMOOTHED_MM).powi(2)).exp()).collect();
    let sum: f64 = weights.iter().sum();
    (0..count)
        .map(|i| {
            let mut mean = (0.0, 0.0);
            for (k, weight) in weights.iter().enumerate() {
                let p = even[(i + count + k - reach.unsigned_abs() as usize) % count];
                mean = (mean.0 + p.0 * weight / sum, mean.1 + p.1 * weight / sum);
            }
            mean
        })
        .collect()
}
