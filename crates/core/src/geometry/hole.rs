//! A cutter's holes: rings that it leaves open.

use super::ring::{MOST_POINTS, bounds, edge_distance, ring_about, ring_holds, without_noise};
use crate::error::InputError;
use geo::{Area as _, LineString, Polygon};

/// Holes of a cutter, their least size, and the least wall beside one. Common practice, no source: tin is bent no finer.
pub(super) const MOST_HOLES: usize = 12;
const LEAST_HOLE_MM: f64 = 3.0;
const LEAST_WALL_MM: f64 = 1.0;

/// A hole of an outline with those before it, going round against the outline.
pub(super) fn hole_ring(
    polygon: &Polygon<f64>,
    hole: &[(f64, f64)],
    centre: (f64, f64),
    number: usize,
) -> Result<LineString<f64>, InputError> {
    let refuse = |why: &str| Err(InputError::refused("outline", format!("Hole {number} {why}")));
    let mut kept: Vec<(f64, f64)> = hole.to_vec();
    kept.dedup_by(|a, b| (a.0 - b.0).hypot(a.1 - b.1) < 1e-6);
    if kept.len() > 1 && (kept[0].0 - kept[kept.len() - 1].0).hypot(kept[0].1 - kept[kept.len() - 1].1) < 1e-6 {
        kept.pop();
    }
    if kept.len() < 3 || kept.len() > MOST_POINTS || kept.iter().any(|p| !p.0.is_finite() || !p.1.is_finite()) {
        return refuse("isn’t a closed shape. Close it.");
    }
    let (low, high) = bounds(&kept);
    if (high.0 - low.0).min(high.1 - low.1) < LEAST_HOLE_MM {
        return refuse("is under 3 mm. Make it bigger.");
    }
    let Ok(kept) = without_noise(&kept) else { return refuse("crosses itself. Redraw it.") };
    let corners: Vec<(f64, f64)> = kept.iter().map(|p| (p.0 - centre.0, p.1 - centre.1)).collect();
    let rings = std::iter::once(polygon.exterior()).chain(polygon.interiors());
    for (i, ring) in rings.enumerate() {
        let other: Vec<(f64, f64)> = ring.0[..ring.0.len() - 1].iter().map(|c| (c.x, c.y)).collect();
        let inside = ring_holds(&other, corners[0]);
        let apart = edge_distance(&other, &corners);
        // Within the outline, and beside every other hole.
        if inside != (i == 0) || (i > 0 && ring_holds(&corners, other[0])) {
            return refuse(if i == 0 { "is outside the outline." } else { "overlaps another hole." });
        }
        if apart < LEAST_WALL_MM {
            return refuse("is within 1 mm of the outline or another hole. Move it.");
        }
    }
    let mut ring = ring_about(&kept, centre);
    ring.close();
    if Polygon::new(ring.clone(), vec![]).signed_area() > 0.0 {
        ring.0.reverse();
    }
    Ok(ring)
}
