//! Rounds and strands put together to one outline.

use geo::{Area as _, BooleanOps, Buffer as _, LineString, MultiPolygon, Polygon};
use std::f64::consts::TAU;

/// Corners of each round.
const CORNERS: u32 = 96;

/// The outline of rounds that lie over one another, each by its middle and radius; of several that do not touch, the largest.
#[must_use]
pub fn union_of_rounds(rounds: &[(f64, f64, f64)]) -> Vec<(f64, f64)> {
    let polygon = |&(x, y, r): &(f64, f64, f64)| {
        let corner = |i: u32| {
            let turn = TAU * f64::from(i) / f64::from(CORNERS);
            (x + r * turn.cos(), y + r * turn.sin())
        };
        Polygon::new(LineString::from((0..CORNERS).map(corner).collect::<Vec<_>>()), vec![])
    };
    let none = MultiPolygon::new(vec![]);
    let whole = rounds.iter().map(polygon).fold(none, |sum, one| sum.union(&MultiPolygon::new(vec![one])));
    let largest = whole.0.iter().max_by(|a, b| a.unsigned_area().total_cmp(&b.unsigned_area()));
    largest.map_or_else(Vec::new, |p| corners(p.exterior()))
}

/// A strand from above.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Strand {
    /// Its outline.
    pub outer: Vec<(f64, f64)>,
    /// What it leaves open where it crosses itself.
    pub open: Vec<Vec<(f64, f64)>>,
}

/// A strand of a width along a line.
#[must_use]
pub fn strand(line: &[(f64, f64)], width: f64) -> Strand {
    let whole = LineString::from(line.to_vec()).buffer(width / 2.0);
    let largest = whole.0.iter().max_by(|a, b| a.unsigned_area().total_cmp(&b.unsigned_area()));
    largest.map_or_else(Strand::default, |p| Strand {
        outer: corners(p.exterior()),
        open: p.interiors().iter().map(corners).collect(),
    })
}

/// A closed ring without its first corner again at its end.
fn corners(ring: &LineString) -> Vec<(f64, f64)> {
    ring.0[..ring.0.len().saturating_sub(1)].iter().map(|c| (c.x, c.y)).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::f64::consts::PI;

    fn area(ring: &[(f64, f64)]) -> f64 {
        let next = ring.iter().cycle().skip(1);
        ring.iter().zip(next).map(|(a, b)| a.0 * b.1 - b.0 * a.1).sum::<f64>().abs() / 2.0
    }

    #[test]
    fn two_rounds_lose_the_lens_they_share() {
        // Two of radius 1 whose middles lie 1 apart share 2 pi / 3 - sqrt(3) / 2 (plane geometry).
        let lens = 2.0 * PI / 3.0 - 3.0_f64.sqrt() / 2.0;
        let joined = union_of_rounds(&[(0.0, 0.0, 1.0), (1.0, 0.0, 1.0)]);
        assert!((area(&joined) - (2.0 * PI - lens)).abs() < 0.01, "{}", area(&joined));
        assert!((area(&union_of_rounds(&[(0.0, 0.0, 1.0), (9.0, 0.0, 2.0)])) - 4.0 * PI).abs() < 0.02);
        assert!(union_of_rounds(&[]).is_empty());
    }

    #[test]
    fn a_straight_strand_is_an_oblong_with_round_ends() {
        // 40 by 10 and two halves of a round of 10.
        let straight = strand(&[(0.0, 0.0), (40.0, 0.0)], 10.0);
        let found = area(&straight.outer);
        assert!((found - (400.0 + 25.0 * PI)).abs() < 1.0 && straight.open.is_empty(), "{found}");
    }
}
