//! One closed outline: measured, turned, grown, and held apart from another.

use super::hole::{MOST_HOLES, hole_ring};
use super::neck;
use super::ring::{MOST_POINTS, bounds, offset_ring, ring_about, without_noise};
use crate::error::InputError;
use crate::units::{Area, Length};
use geo::{Area as _, BoundingRect, Buffer, Contains, LineString, MultiPolygon, Point, Polygon, Simplify};
use serde::{Deserialize, Serialize};

/// Smallest and largest extent of a cutter. Common practice: under 8 mm nothing can be cut, over 400 mm it fits no sheet.
pub(crate) const EXTENT_MM: (f64, f64) = (8.0, 400.0);

/// A simple closed outline, centred on the middle of its box, y down the page as in SVG.
#[derive(Debug, Clone, PartialEq)]
pub struct Outline {
    polygon: Polygon<f64>,
}

/// Where an outline lies: its centre, and how far it is turned. It is never mirrored.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, utoipa::ToSchema)]
#[schema(as = CutView)]
#[serde(deny_unknown_fields)]
pub struct Placement {
    /// Centre along the sheet's width.
    pub x_mm: f64,
    /// Centre along the sheet's length.
    pub y_mm: f64,
    /// Turn in degrees.
    pub turn_deg: f64,
}

impl Outline {
    /// An outline through `points`, closed by itself.
    ///
    /// Fails when there are too few or too many points, when one is not finite, when it has no area, crosses itself,
    /// or is smaller or larger than a cutter can be.
    pub fn new(points: &[(f64, f64)]) -> Result<Self, InputError> {
        Self::with_holes(points, &[])
    }

    /// An outline with holes that the cutter leaves open; they are given in the same frame as the outline.
    ///
    /// Fails as [`Outline::new`] does, and when there are more than 12 holes, when one has no area, crosses itself, is
    /// smaller than 3 mm, or comes nearer than 1 mm to the outline or to another.
    pub fn with_holes(points: &[(f64, f64)], holes: &[Vec<(f64, f64)>]) -> Result<Self, InputError> {
        let field = "outline";
        if holes.len() > MOST_HOLES {
            return Err(InputError::refused(field, format!("At most {MOST_HOLES} holes. This has {}.", holes.len())));
        }
        let mut kept: Vec<(f64, f64)> = Vec::with_capacity(points.len());
        for (i, &(x, y)) in points.iter().enumerate() {
            if !x.is_finite() || !y.is_finite() {
                return Err(InputError::refused(field, format!("Point {} of the outline isn’t a number.", i + 1)));
            }
            let same = |p: &(f64, f64)| (p.0 - x).hypot(p.1 - y) < 1e-6;
            if !kept.last().is_some_and(same) {
                kept.push((x, y));
            }
        }
        if kept.len() > 1 && (kept[0].0 - kept[kept.len() - 1].0).hypot(kept[0].1 - kept[kept.len() - 1].1) < 1e-6 {
            kept.pop();
        }
        if kept.len() < 3 {
            return Err(InputError::refused(field, "The outline has no area. Give it at least 3 separate points."));
        }
        if kept.len() > MOST_POINTS {
            return Err(InputError::refused(
                field,
                format!("The outline is too detailed: {} points, {MOST_POINTS} at most. Simplify it.", kept.len()),
            ));
        }
        let (low, high) = bounds(&kept);
        let (width, height) = (high.0 - low.0, high.1 - low.1);
        if width.max(height) > EXTENT_MM.1 || width.min(height) < EXTENT_MM.0 {
            return Err(InputError::refused(
                field,
                format!(
                    "Cutters are {} to {} mm each way. This outline is {width:.1} \u{d7} {height:.1} mm.",
                    EXTENT_MM.0, EXTENT_MM.1
                ),
            ));
        }
        let kept = without_noise(&kept).map_err(|crossing| {
            let (x, y) = (crossing.at.0 - low.0, crossing.at.1 - low.1);
            let said =
                format!("The outline crosses itself {x:.1} mm from the left and {y:.1} mm from the top. Fix it there.");
            InputError::refused(field, said)
        })?;
        let centre = ((low.0 + high.0) / 2.0, (low.1 + high.1) / 2.0);
        let mut polygon = Polygon::new(ring_about(&kept, centre), vec![]);
        if polygon.unsigned_area() < EXTENT_MM.0 * EXTENT_MM.0 / 4.0 {
            return Err(InputError::refused(field, "The outline encloses almost nothing. Redraw it."));
        }
        if polygon.signed_area() < 0.0 {
            polygon.exterior_mut(|ring| ring.0.reverse());
        }
        for (i, hole) in holes.iter().enumerate() {
            polygon.interiors_push(hole_ring(&polygon, hole, centre, i + 1)?);
        }
        Ok(Self { polygon })
    }

    pub(super) fn polygon(&self) -> &Polygon<f64> {
        &self.polygon
    }

    /// The corners, without repeating the first.
    #[must_use]
    pub fn points(&self) -> Vec<(f64, f64)> {
        let ring = &self.polygon.exterior().0;
        ring[..ring.len() - 1].iter().map(|c| (c.x, c.y)).collect()
    }

    /// The corners of each hole, as [`Outline::points`].
    #[must_use]
    pub fn holes(&self) -> Vec<Vec<(f64, f64)>> {
        let corners = |ring: &LineString<f64>| ring.0[..ring.0.len() - 1].iter().map(|c| (c.x, c.y)).collect();
        self.polygon.interiors().iter().map(corners).collect()
    }

    /// The area inside, without the holes.
    #[must_use]
    pub fn area(&self) -> Area {
        Area::new_mm2(self.polygon.unsigned_area())
    }

    /// The length of the cutting edge, that of the holes with it.
    #[must_use]
    pub fn perimeter(&self) -> Length {
        let rings = std::iter::once(self.polygon.exterior()).chain(self.polygon.interiors());
        Length::new_mm(rings.flat_map(LineString::lines).map(|l| l.delta().x.hypot(l.delta().y)).sum())
    }

    /// Width (x) and height (y) of the box around it.
    #[must_use]
    pub fn extent(&self) -> (Length, Length) {
        let rect = self.polygon.bounding_rect().expect("an outline has points");
        (Length::new_mm(rect.width()), Length::new_mm(rect.height()))
    }

    /// Radius of the disc that stands for this outline where heat and spread enter at the rim: twice the area over the
    /// perimeter. Of a round it is the radius.
    #[must_use]
    pub fn rim_radius(&self) -> Length {
        Length::new_mm(2.0 * self.area().mm2() / self.perimeter().mm())
    }

    /// The outline after it has grown by `margin` on all sides, as points about the same centre.
    #[must_use]
    pub fn spread_by(&self, margin: Length) -> Vec<(f64, f64)> {
        self.grown(margin)
    }

    /// What is left of each hole after the outline has grown by `margin`; nothing of one that has closed.
    #[must_use]
    pub fn holes_after_spread(&self, margin: Length) -> Vec<Vec<(f64, f64)>> {
        self.holes().iter().filter_map(|hole| offset_ring(hole, -margin.mm())).collect()
    }

    /// The narrowest neck: the width at which the outline falls in two when it is shrunk evenly from all sides.
    /// `None` when it shrinks away without parting. Points and tips are no necks; the wall beside a hole is one. Found to
    /// 0.1 mm.
    #[must_use]
    pub fn narrowest_neck(&self) -> Option<Length> {
        neck::narrowest_neck(&self.polygon).map(Length::new_mm)
    }

    /// The same outline scaled so that its box is `width` wide.
    pub fn scaled_to_width(&self, width: Length) -> Result<Self, InputError> {
        let factor = width / self.extent().0;
        self.mapped(|p| (p.0 * factor, p.1 * factor))
    }

    /// The same outline turned over: the other of a pair.
    pub fn mirrored(&self) -> Result<Self, InputError> {
        self.mapped(|p| (-p.0, p.1))
    }

    fn mapped(&self, to: impl Fn((f64, f64)) -> (f64, f64) + Copy) -> Result<Self, InputError> {
        let ring = |points: Vec<(f64, f64)>| points.into_iter().map(to).collect::<Vec<_>>();
        Self::with_holes(&ring(self.points()), &self.holes().into_iter().map(ring).collect::<Vec<_>>())
    }

    /// The corners turned by `turn_deg` about the centre of the box and moved to the placement.
    #[must_use]
    pub fn placed(&self, at: Placement) -> Vec<(f64, f64)> {
        put(&self.points(), at)
    }

    /// The corners of each hole, turned and moved as [`Outline::placed`].
    #[must_use]
    pub fn holes_placed(&self, at: Placement) -> Vec<Vec<(f64, f64)>> {
        self.holes().iter().map(|hole| put(hole, at)).collect()
    }

    /// The outline grown by `margin` on all sides, round at the corners; a little (0.01 mm) too much rather than too little.
    #[must_use]
    pub(crate) fn grown(&self, margin: Length) -> Vec<(f64, f64)> {
        if margin.mm() <= 0.0 {
            return self.points();
        }
        let grown: MultiPolygon<f64> = self.polygon.buffer(margin.mm() + 0.01);
        let outer = grown.0.into_iter().max_by(|a, b| a.unsigned_area().total_cmp(&b.unsigned_area()));
        let ring = outer.expect("growing keeps the outline").simplify(0.005);
        ring.exterior().0.iter().map(|c| (c.x, c.y)).collect()
    }

    /// Whether a point lies inside.
    #[must_use]
    pub fn holds(&self, x_mm: f64, y_mm: f64) -> bool {
        self.polygon.contains(&Point::new(x_mm, y_mm))
    }
}

fn put(points: &[(f64, f64)], at: Placement) -> Vec<(f64, f64)> {
    let (sin, cos) = exact_sin_cos(at.turn_deg);
    points.iter().map(|&(x, y)| (at.x_mm + x * cos - y * sin, at.y_mm + x * sin + y * cos)).collect()
}

/// A neck narrower than this bakes dark and breaks. Common practice, no source.
const THIN_NECK_MM: f64 = 8.0;

/// A narrowest neck that is to be minded.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ThinNeck {
    /// How wide it is.
    pub neck: Length,
    /// Under what it is thin.
    pub under: Length,
}

/// What to mind about a narrowest neck.
#[must_use]
pub fn neck_warning(neck: Length) -> Option<ThinNeck> {
    (neck.mm() < THIN_NECK_MM).then_some(ThinNeck { neck, under: Length::new_mm(THIN_NECK_MM) })
}

/// Sine and cosine that are exact at quarter turns, so that a turned cutter stays true.
fn exact_sin_cos(turn_deg: f64) -> (f64, f64) {
    let turn = turn_deg.rem_euclid(360.0);
    if turn == 0.0 {
        (0.0, 1.0)
    } else if turn == 90.0 {
        (1.0, 0.0)
    } else if turn == 180.0 {
        (0.0, -1.0)
    } else if turn == 270.0 {
        (-1.0, 0.0)
    } else {
        turn.to_radians().sin_cos()
    }
}

#[cfg(test)]
mod tests {
    use super::super::ring::clearance_mm;
    use super::*;

    fn square(side: f64) -> Vec<(f64, f64)> {
        vec![(0.0, 0.0), (side, 0.0), (side, side), (0.0, side)]
    }

    #[test]
    fn a_square_is_measured_and_centred() {
        let outline = Outline::new(&square(20.0)).unwrap();
        assert_eq!(outline.area().mm2(), 400.0);
        assert_eq!(outline.perimeter().mm(), 80.0);
        assert!(outline.holds(0.0, 0.0));
        assert_eq!(outline.narrowest_neck(), None);
    }

    #[test]
    fn measures_do_not_change_when_it_is_moved_or_walked_the_other_way() {
        let shape = [(0.0, 0.0), (30.0, 4.0), (26.0, 22.0), (10.0, 30.0), (-4.0, 16.0)];
        let moved: Vec<_> = shape.iter().rev().map(|p| (p.0 + 113.0, p.1 - 47.0)).collect();
        let (a, b) = (Outline::new(&shape).unwrap(), Outline::new(&moved).unwrap());
        assert!((a.area().mm2() - b.area().mm2()).abs() < 1e-9);
        assert!((a.perimeter().mm() - b.perimeter().mm()).abs() < 1e-9);
    }

    fn ring(across: f64, hole: f64) -> Result<Outline, InputError> {
        let around = |d: f64| -> Vec<(f64, f64)> {
            let turn = |i: u32| std::f64::consts::TAU * f64::from(i) / 120.0;
            (0..120).map(|i| (50.0 + d / 2.0 * turn(i).cos(), 50.0 + d / 2.0 * turn(i).sin())).collect()
        };
        Outline::with_holes(&around(across), &[around(hole)])
    }

    /// By hand: pi/4 (60^2 - 30^2) = 2120.6 mm2, pi (60 + 30) = 282.7 mm round, a wall of 15 mm.
    #[test]
    fn a_ring_has_the_area_the_edge_and_the_wall_it_was_drawn_with() {
        let ring = ring(60.0, 30.0).unwrap();
        assert!((ring.area().mm2() - 2120.6).abs() < 2.0 && (ring.perimeter().mm() - 282.7).abs() < 0.2);
        assert!((ring.narrowest_neck().unwrap().mm() - 15.0).abs() < 0.2);
        // It grows at both its edges as a wall of 15 mm does: twice the area over the edge.
        assert!((ring.rim_radius().mm() - 15.0).abs() < 0.05);
        let left = ring.holes_after_spread(Length::new_mm(4.0));
        let (low, high) = bounds(&left[0]);
        assert!((high.0 - low.0 - 22.0).abs() < 0.1);
        assert!(ring.holes_after_spread(Length::new_mm(16.0)).is_empty());
        let (turned, twice) = (ring.mirrored().unwrap(), ring.scaled_to_width(Length::new_mm(120.0)).unwrap());
        assert!((turned.area().mm2() - ring.area().mm2()).abs() < 1e-6);
        assert!((twice.area().mm2() - 4.0 * ring.area().mm2()).abs() < 1e-6);
    }

    #[test]
    fn holes_no_cutter_has_are_refused() {
        let outer = square(40.0);
        let at = |x: f64, y: f64, side: f64| -> Vec<(f64, f64)> {
            square(side).iter().map(|p| (p.0 + x, p.1 + y)).collect()
        };
        let refused = |holes: &[Vec<(f64, f64)>]| Outline::with_holes(&outer, holes).unwrap_err().to_string();
        assert!(refused(&[at(60.0, 0.0, 8.0)]).contains("outside"));
        assert!(refused(&[at(0.5, 4.0, 8.0)]).contains("within 1 mm"));
        assert!(refused(&[at(4.0, 4.0, 2.0)]).contains("under 3 mm"));
        assert!(refused(&[at(4.0, 4.0, 10.0), at(6.0, 6.0, 4.0)]).contains("overlaps another hole"));
        assert!(refused(&[vec![(5.0, 5.0), (15.0, 15.0), (15.0, 5.0), (5.0, 15.0)]]).contains("crosses itself"));
        assert!(refused(&[vec![(f64::NAN, 5.0), (9.0, 5.0), (5.0, 9.0)]]).contains("closed shape"));
        assert!(refused(&vec![at(4.0, 4.0, 4.0); 13]).contains("At most 12 holes. This has 13."));
    }

    #[test]
    fn a_mirrored_outline_is_as_large_and_mirrored_twice_it_is_itself() {
        let hook =
            Outline::new(&[(0.0, 0.0), (30.0, 0.0), (30.0, 10.0), (10.0, 10.0), (10.0, 40.0), (0.0, 40.0)]).unwrap();
        let other = hook.mirrored().unwrap();
        assert_eq!((other.area(), other.extent()), (hook.area(), hook.extent()));
        assert!(hook.holds(-10.0, 10.0) && !other.holds(-10.0, 10.0) && other.holds(10.0, 10.0));
        assert!(other.mirrored().unwrap().holds(-10.0, 10.0));
    }

    #[test]
    fn a_round_stands_for_itself_and_a_gull_for_a_smaller_disc() {
        let round: Vec<_> = (0..180)
            .map(|i| {
                let a = f64::from(i).to_radians() * 2.0;
                (32.5 * a.cos(), 32.5 * a.sin())
            })
            .collect();
        assert!((Outline::new(&round).unwrap().rim_radius().mm() - 32.5).abs() < 0.02);
        let bar = Outline::new(&[(0.0, 0.0), (90.0, 0.0), (90.0, 20.0), (0.0, 20.0)]).unwrap();
        assert!((bar.rim_radius().mm() - 2.0 * 1800.0 / 220.0).abs() < 1e-9);
        let grown = bar.spread_by(Length::new_mm(2.0));
        let widest = grown.iter().map(|p| p.0).fold(f64::MIN, f64::max);
        assert!((widest - 47.0).abs() < 0.05);
    }

    #[test]
    fn a_dumbbell_has_the_neck_it_was_drawn_with() {
        let dumbbell = [
            (0.0, 0.0),
            (20.0, 0.0),
            (20.0, 7.0),
            (40.0, 7.0),
            (40.0, 0.0),
            (60.0, 0.0),
            (60.0, 20.0),
            (40.0, 20.0),
            (40.0, 13.0),
            (20.0, 13.0),
            (20.0, 20.0),
            (0.0, 20.0),
        ];
        let neck = Outline::new(&dumbbell).unwrap().narrowest_neck().unwrap();
        assert!((neck.mm() - 6.0).abs() < 0.2, "{neck:?}");
    }

    /// A star of 48 points with a loop and a spike of the size of a trace's noise; ten times as large they are refused.
    #[test]
    fn crossings_smaller_than_the_noise_of_a_trace_are_mended() {
        let star = |noise: f64| -> Vec<(f64, f64)> {
            let mut points = vec![];
            for i in 0..48 {
                let a = f64::from(i).to_radians() * 7.5;
                let r = if i % 2 == 0 { 30.0 } else { 25.0 };
                let (x, y) = (r * a.cos(), r * a.sin());
                points.push((x, y));
                match i {
                    // A loop: past the corner, across and back.
                    10 => points.extend([(x + noise, y), (x + noise, y + noise), (x + noise / 2.0, y - noise)]),
                    // A spike: out and back along itself.
                    20 => points.extend([(x, y + noise), (x, y)]),
                    _ => {}
                }
            }
            points
        };
        let (clean, mended) = (Outline::new(&star(0.0)).unwrap(), Outline::new(&star(0.04)).unwrap());
        assert!(
            (clean.area().mm2() - mended.area().mm2()).abs() < 0.2,
            "{} {}",
            clean.area().mm2(),
            mended.area().mm2()
        );
        assert!(Outline::new(&star(1.0)).unwrap_err().to_string().contains("crosses itself"));
    }

    #[test]
    fn each_bad_outline_is_refused_with_its_own_reason() {
        let said = |points: &[(f64, f64)]| Outline::new(points).unwrap_err().to_string();
        assert!(said(&[(0.0, 0.0), (30.0, 30.0), (30.0, 0.0), (0.0, 30.0)]).contains("crosses itself"));
        assert!(said(&square(7.0)).contains("8 to 400 mm"));
        assert!(said(&square(401.0)).contains("8 to 400 mm"));
        assert!(said(&[(0.0, 0.0), (0.0, 0.0), (9.0, 9.0)]).contains("no area"));
        assert!(said(&[(0.0, f64::NAN), (20.0, 0.0), (20.0, 20.0)]).contains("number"));
        let many: Vec<_> = (0..6000)
            .map(|i| {
                let a = f64::from(i) / 6000.0 * std::f64::consts::TAU;
                (50.0 * a.cos(), 50.0 * a.sin())
            })
            .collect();
        assert!(said(&many).contains("5000 at most"));
    }

    #[test]
    fn clearance_is_the_exact_gap_and_nothing_when_they_overlap() {
        let a = square(10.0);
        let shifted = |dx: f64, dy: f64| square(10.0).iter().map(|p| (p.0 + dx, p.1 + dy)).collect::<Vec<_>>();
        assert!((clearance_mm(&a, &shifted(13.0, 0.0)) - 3.0).abs() < 1e-12);
        assert!((clearance_mm(&a, &shifted(13.0, 14.0)) - 5.0).abs() < 1e-12);
        assert_eq!(clearance_mm(&a, &shifted(9.0, 3.0)), 0.0);
        let inner: Vec<_> = square(4.0).iter().map(|p| (p.0 + 3.0, p.1 + 3.0)).collect();
        assert_eq!(clearance_mm(&a, &inner), 0.0);
    }
}
