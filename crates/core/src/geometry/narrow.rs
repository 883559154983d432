//! Narrow parts of an outline: points that stand out from it and necks between wider parts. They take the heat from more sides.

use super::Outline;
use crate::units::Length;
use geo::{Area as _, BooleanOps, Buffer, Contains, Distance, Euclidean, MultiPolygon, Point, Polygon};
use serde::{Deserialize, Serialize};

/// A part is narrow where no disc of this share of the outline's rim radius fits. Our own choice: half as wide as the rest
/// or less, and a ring or a strip, which is as narrow everywhere, has none.
const NARROW: f64 = 0.45;
/// A point counts when it stands out by so many times the radius of that disc. The corner of a square does by 0.41, that of a
/// triangle by 1.0, the point of a five-pointed star by 2.2.
const STANDS_OUT: f64 = 0.9;
/// How near to the wide part a piece of edge lies on it, mm.
const TOUCHES_MM: f64 = 0.12;

/// What a narrow part is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum NarrowKind {
    /// It ends free.
    Point,
    /// It joins two wider parts.
    Neck,
}

/// Where on a piece something is, as it lies on the page.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[expect(missing_docs, reason = "each says itself")]
pub enum PlaceOnPiece {
    UpperLeft,
    LowerLeft,
    Left,
    UpperRight,
    LowerRight,
    Right,
    Top,
    Bottom,
    Middle,
}

/// A narrow part of an outline.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct NarrowPart {
    /// Point or neck.
    pub kind: NarrowKind,
    /// Where it is, from the middle of the outline's box: a point's tip, a neck's middle; y down the page.
    pub at: (f64, f64),
    /// How wide it is on the whole: its area over its length.
    pub width: Length,
    /// How far it reaches: its edge, both sides of it, halved.
    pub length: Length,
}

impl PlaceOnPiece {
    /// Of a place from the middle of an outline's box, mm.
    #[must_use]
    pub fn of(at: (f64, f64), outline: &Outline) -> Self {
        let (w, h) = outline.extent();
        let (x, y) = (at.0 / w.mm(), at.1 / h.mm());
        let near = 0.17;
        match (x < -near, x > near, y < -near, y > near) {
            (true, _, true, _) => Self::UpperLeft,
            (true, _, _, true) => Self::LowerLeft,
            (true, _, _, _) => Self::Left,
            (_, true, true, _) => Self::UpperRight,
            (_, true, _, true) => Self::LowerRight,
            (_, true, _, _) => Self::Right,
            (_, _, true, _) => Self::Top,
            (_, _, _, true) => Self::Bottom,
            _ => Self::Middle,
        }
    }
}

impl NarrowPart {
    /// Where on the piece it is.
    #[must_use]
    pub fn place(&self, outline: &Outline) -> PlaceOnPiece {
        PlaceOnPiece::of(self.at, outline)
    }
}

/// The narrow parts of an outline, the narrowest first.
#[must_use]
pub fn narrow_parts(outline: &Outline) -> Vec<NarrowPart> {
    let radius = NARROW * outline.rim_radius().mm();
    let polygon = outline.polygon();
    let wide = polygon.buffer(-radius).buffer(radius + 0.02);
    if wide.0.is_empty() {
        return vec![];
    }
    let mut found: Vec<NarrowPart> =
        polygon.difference(&wide).0.iter().filter_map(|part| narrow_part(part, &wide, radius)).collect();
    found.sort_by(|a, b| a.width.mm().total_cmp(&b.width.mm()));
    found
}

fn narrow_part(part: &Polygon<f64>, wide: &MultiPolygon<f64>, radius: f64) -> Option<NarrowPart> {
    let off = |x: f64, y: f64| {
        let point = Point::new(x, y);
        if wide.contains(&point) { 0.0 } else { Euclidean.distance(&point, wide) }
    };
    let ring = &part.exterior().0;
    // Of each bit of its edge: how long it is, and whether it lies on the wide part.
    let bits: Vec<(f64, bool, (f64, f64))> = ring
        .windows(2)
        .map(|ends| {
            let middle = (f64::midpoint(ends[0].x, ends[1].x), f64::midpoint(ends[0].y, ends[1].y));
            let long = (ends[1].x - ends[0].x).hypot(ends[1].y - ends[0].y);
            (long, off(middle.0, middle.1) < TOUCHES_MM, middle)
        })
        .collect();
    let free: f64 = bits.iter().filter(|b| !b.1).map(|b| b.0).sum();
    let (tip, reach) = ring.iter().map(|c| ((c.x, c.y), off(c.x, c.y))).max_by(|a, b| a.1.total_cmp(&b.1))?;
    if reach < STANDS_OUT * radius && free < 2.0 * radius || free < 1.0 {
        return None;
    }
    // Runs along its edge, cyclic, where it lies on the wide part: one for a point, two and more for a neck.
    let starts = (0..bits.len()).filter(|&i| bits[i].1 && !bits[(i + bits.len() - 1) % bits.len()].1);
    let joined = starts.count();
    let width = Length::new_mm(2.0 * part.unsigned_area() / free);
    let length = Length::new_mm(free / 2.0);
    if joined >= 2 {
        // A sliver along a straight edge touches it here and there: a neck is crossed from one free side to the other.
        let sides: Vec<&(f64, bool, (f64, f64))> = bits.iter().filter(|b| !b.1).collect();
        #[expect(clippy::cast_precision_loss, reason = "a few bits of an edge")]
        let count = sides.len() as f64;
        let at = sides.iter().fold((0.0, 0.0), |sum, b| (sum.0 + b.2.0 / count, sum.1 + b.2.1 / count));
        return (width.mm() > 0.5).then_some(NarrowPart { kind: NarrowKind::Neck, at, width, length });
    }
    (reach >= STANDS_OUT * radius).then_some(NarrowPart { kind: NarrowKind::Point, at: tip, width, length })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::{Builtin, BuiltinKind};
    use rstest::rstest;
    use std::f64::consts::TAU;

    fn of(points: &[(f64, f64)]) -> (Outline, Vec<NarrowPart>) {
        let outline = Outline::new(points).unwrap();
        let parts = narrow_parts(&outline);
        (outline, parts)
    }

    fn star(outer: f64, inner: f64) -> Vec<(f64, f64)> {
        let corner = |i: i32| {
            let (turn, r) = (TAU * (f64::from(i) / 10.0 - 0.25), if i % 2 == 0 { outer } else { inner });
            (r * turn.cos(), r * turn.sin())
        };
        (0..10).map(corner).collect()
    }

    #[test]
    fn a_star_has_five_points_alike_and_no_neck() {
        let (outline, parts) = of(&star(35.0, 14.0));
        assert_eq!(parts.len(), 5, "{parts:?}");
        assert!(parts.iter().all(|p| p.kind == NarrowKind::Point));
        assert!(parts[4].width.mm() - parts[0].width.mm() < 0.1 * parts[0].width.mm(), "{parts:?}");
        // The uppermost corner is one of them, and their tips are the star's own.
        assert!(parts.iter().any(|p| p.place(&outline) == PlaceOnPiece::Top));
        assert!(parts.iter().all(|p| p.at.0.hypot(p.at.1) > 30.0));
    }

    #[rstest]
    #[case(BuiltinKind::Round, 65.0)]
    #[case(BuiltinKind::Square, 50.0)]
    #[case(BuiltinKind::Oval, 70.0)]
    #[case(BuiltinKind::Oblong, 80.0)]
    #[case(BuiltinKind::Hexagon, 60.0)]
    #[case(BuiltinKind::Scalloped, 60.0)]
    #[case(BuiltinKind::Ring, 60.0)]
    fn what_is_as_wide_everywhere_has_none(#[case] kind: BuiltinKind, #[case] width: f64) {
        let outline = Builtin::new(kind, width, width * 0.4).unwrap().outline().unwrap();
        assert_eq!(narrow_parts(&outline), vec![]);
    }

    /// Two rounds of 40 mm joined by a bar 6 mm wide and 20 mm long between their rims.
    #[test]
    fn a_dumb_bell_has_a_neck_as_wide_as_its_bar() {
        let (r, half) = (20.0_f64, 3.0_f64);
        let reach = (r * r - half * half).sqrt();
        let centre = reach + 10.0;
        let from = (half / reach).atan();
        let lobe = |sign: f64| {
            (0..=60).map(move |i| {
                let turn = std::f64::consts::PI + from + (TAU - 2.0 * from) * f64::from(i) / 60.0;
                (sign * (centre + r * turn.cos()), sign * r * turn.sin())
            })
        };
        let points: Vec<(f64, f64)> = lobe(1.0).chain(lobe(-1.0)).collect();
        let (outline, parts) = of(&points);
        assert_eq!(parts.len(), 1, "{parts:?}");
        assert_eq!((parts[0].kind, parts[0].place(&outline)), (NarrowKind::Neck, PlaceOnPiece::Middle));
        assert!((parts[0].width.mm() - 6.0).abs() < 1.5, "{parts:?}");
        assert_eq!(outline.narrowest_neck().map(|n| n.mm().round()), Some(6.0));
    }

    #[test]
    fn a_lollipop_has_its_stick_for_a_point() {
        let mut points: Vec<(f64, f64)> = (0..=70)
            .map(|i| {
                let turn = 0.15 + (TAU - 0.3) * f64::from(i) / 70.0;
                (20.0 * turn.cos(), 20.0 * turn.sin())
            })
            .collect();
        points.extend([(45.0, -3.0), (45.0, 3.0)]);
        let (outline, parts) = of(&points);
        assert_eq!(parts.len(), 1, "{parts:?}");
        assert_eq!((parts[0].kind, parts[0].place(&outline)), (NarrowKind::Point, PlaceOnPiece::Right));
        assert!((parts[0].width.mm() - 6.0).abs() < 1.0, "{parts:?}");
    }
}
