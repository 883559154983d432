//! What a sheet of dough looks like from above: an oblong with rounded corners, a round or an oval.

use crate::error::{Checks, InputErrors};
use crate::geometry::offset_ring;
use crate::units::{Area, Length};
use serde::{Deserialize, Serialize};
use std::f64::consts::{PI, TAU};

/// Sheets no smaller and no larger than this each way, mm. Common practice: a tart's base to a long bench.
pub const SHEET_MM: (f64, f64) = (40.0, 1200.0);

/// The forms a sheet is rolled to.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SheetKind {
    /// An oblong.
    #[default]
    Oblong,
    /// A round.
    Round,
    /// An oval.
    Oval,
}

/// The form of a sheet, with its box's upper left corner at 0, 0.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum SheetForm {
    /// An oblong with rounded corners.
    Oblong {
        /// Across.
        width: Length,
        /// Along.
        length: Length,
        /// Radius of its corners.
        corner: Length,
    },
    /// A round.
    Round {
        /// Across.
        diameter: Length,
    },
    /// An oval.
    Oval {
        /// Across.
        width: Length,
        /// Along.
        length: Length,
    },
}

impl SheetForm {
    /// Its kind.
    #[must_use]
    pub const fn kind(&self) -> SheetKind {
        match self {
            Self::Oblong { .. } => SheetKind::Oblong,
            Self::Round { .. } => SheetKind::Round,
            Self::Oval { .. } => SheetKind::Oval,
        }
    }

    /// An oblong.
    pub fn oblong(width_mm: f64, length_mm: f64, corner_mm: f64) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        checks.range("width_mm", width_mm, SHEET_MM.0, SHEET_MM.1, "mm");
        checks.range("length_mm", length_mm, SHEET_MM.0, SHEET_MM.1, "mm");
        checks.range("corner_mm", corner_mm, 0.0, (width_mm.min(length_mm) / 2.0).clamp(0.0, SHEET_MM.1), "mm");
        checks.finish(())?;
        Ok(Self::Oblong {
            width: Length::new_mm(width_mm),
            length: Length::new_mm(length_mm),
            corner: Length::new_mm(corner_mm),
        })
    }

    /// A round.
    pub fn round(diameter_mm: f64) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        checks.range("width_mm", diameter_mm, SHEET_MM.0, SHEET_MM.1, "mm");
        checks.finish(())?;
        Ok(Self::Round { diameter: Length::new_mm(diameter_mm) })
    }

    /// An oval.
    pub fn oval(width_mm: f64, length_mm: f64) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        checks.range("width_mm", width_mm, SHEET_MM.0, SHEET_MM.1, "mm");
        checks.range("length_mm", length_mm, SHEET_MM.0, SHEET_MM.1, "mm");
        checks.finish(())?;
        Ok(Self::Oval { width: Length::new_mm(width_mm), length: Length::new_mm(length_mm) })
    }

    /// Across and along.
    #[must_use]
    pub fn extent(&self) -> (Length, Length) {
        match *self {
            Self::Oblong { width, length, .. } | Self::Oval { width, length } => (width, length),
            Self::Round { diameter } => (diameter, diameter),
        }
    }

    /// Its area.
    #[must_use]
    pub fn area(&self) -> Area {
        let (w, l) = (self.extent().0.mm(), self.extent().1.mm());
        Area::new_mm2(match *self {
            Self::Oblong { corner, .. } => w * l - (4.0 - PI) * corner.mm() * corner.mm(),
            Self::Round { .. } | Self::Oval { .. } => PI / 4.0 * w * l,
        })
    }

    /// The same form with the same width (a round: whole) made to have this area; `None` where that is beyond `longest`.
    #[must_use]
    pub fn with_area(&self, area: Area, longest: Length) -> Option<Self> {
        let (w, _) = self.extent();
        let form = match *self {
            Self::Oblong { corner, .. } => {
                let length = (area.mm2() + (4.0 - PI) * corner.mm() * corner.mm()) / w.mm();
                let corner = corner.mm().min(length.min(w.mm()) / 2.0);
                Self::Oblong { width: w, length: Length::new_mm(length), corner: Length::new_mm(corner) }
            }
            Self::Round { .. } => Self::Round { diameter: Length::new_mm((4.0 * area.mm2() / PI).sqrt()) },
            Self::Oval { .. } => Self::Oval { width: w, length: Length::new_mm(4.0 * area.mm2() / PI / w.mm()) },
        };
        (form.extent().1 <= longest).then_some(form)
    }

    /// The rim as corners, each within 0.02 mm of the true rim and inside it.
    #[must_use]
    pub fn rim(&self) -> Vec<(f64, f64)> {
        let (w, l) = (self.extent().0.mm(), self.extent().1.mm());
        match *self {
            Self::Oblong { corner, .. } => {
                let r = corner.mm();
                if r <= 0.0 {
                    return vec![(0.0, 0.0), (w, 0.0), (w, l), (0.0, l)];
                }
                let steps = steps_around(r) / 4;
                let centres = [(w - r, r, -0.25), (w - r, l - r, 0.0), (r, l - r, 0.25), (r, r, 0.5)];
                centres
                    .iter()
                    .flat_map(|(cx, cy, from)| {
                        (0..=steps).map(move |i| {
                            let t = TAU * (from + 0.25 * f64::from(i) / f64::from(steps));
                            (cx + r * t.cos(), cy + r * t.sin())
                        })
                    })
                    .collect()
            }
            Self::Round { .. } | Self::Oval { .. } => {
                let steps = steps_around(w.max(l) / 2.0);
                (0..steps)
                    .map(|i| {
                        let t = TAU * f64::from(i) / f64::from(steps);
                        (w / 2.0 * (1.0 + t.cos()), l / 2.0 * (1.0 + t.sin()))
                    })
                    .collect()
            }
        }
    }

    /// The rim moved inward by `edge` and outward again by `half_web`: a piece grown by half the web lies within it just
    /// when the piece keeps `edge` to the rim. `None` when nothing is left.
    pub(super) fn ground(&self, edge: Length, half_web: Length) -> Option<Vec<(f64, f64)>> {
        if let Self::Oblong { width, length, corner } = *self
            && corner <= edge
        {
            // Exact where a grid just fits: the corners the buffer would round are never reached by a rounded piece.
            let d = edge.mm() - half_web.mm();
            let (w, l) = (width.mm() - d, length.mm() - d);
            return (w > d && l > d).then(|| vec![(d, d), (w, d), (w, l), (d, l)]);
        }
        offset_ring(&offset_ring(&self.rim(), -edge.mm())?, half_web.mm())
    }
}

/// Chords around a circle so that each is within 0.02 mm: sagitta s on radius r takes pi / acos(1 - s/r) chords.
fn steps_around(radius_mm: f64) -> u32 {
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "between 32 and 720")]
    let steps = (PI / (1.0 - 0.02 / radius_mm).acos()).ceil().clamp(32.0, 720.0) as u32;
    steps.next_multiple_of(4)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn shoelace(points: &[(f64, f64)]) -> f64 {
        let n = points.len();
        (0..n).map(|i| points[i].0 * points[(i + 1) % n].1 - points[(i + 1) % n].0 * points[i].1).sum::<f64>().abs()
            / 2.0
    }

    #[test]
    fn areas_are_those_of_the_geometry_books_and_the_rim_agrees() {
        // Circle pi d^2 / 4, ellipse pi a b / 4, rounded oblong w l - (4 - pi) r^2: any geometry table.
        for form in [
            SheetForm::oblong(310.0, 440.0, 25.0).unwrap(),
            SheetForm::oblong(310.0, 440.0, 0.0).unwrap(),
            SheetForm::round(419.0).unwrap(),
            SheetForm::oval(280.0, 410.0).unwrap(),
        ] {
            let drawn = shoelace(&form.rim());
            assert!((drawn / form.area().mm2() - 1.0).abs() < 5e-4 && drawn <= form.area().mm2() + 1e-6, "{form:?}");
        }
    }

    #[test]
    fn a_thousand_grams_at_six_millimetres_make_a_round_of_419() {
        // The trade's worked example: 1,000 g at 6 mm and 1.21 g/cm3 are 1,377 cm2, as a round 419 mm across.
        let area =
            crate::units::Mass::new_g(1000.0).rolled_to(Length::new_mm(6.0), crate::units::Density::new_kg_m3(1210.0));
        assert!((area.mm2() / 100.0 - 1377.4).abs() < 0.1);
        let round = SheetForm::round(100.0).unwrap().with_area(area, Length::new_mm(1200.0)).unwrap();
        assert!((round.extent().0.mm() - 418.8).abs() < 0.1);
    }

    #[test]
    fn sizes_no_sheet_has_are_refused_by_name() {
        let said = SheetForm::oblong(310.0, f64::NAN, 700.0).unwrap_err().to_string();
        assert!(said.contains("length_mm"), "{said}");
        assert!(SheetForm::round(5000.0).is_err());
    }

    #[test]
    fn a_form_given_an_area_has_it() {
        for form in [
            SheetForm::oblong(310.0, 440.0, 25.0).unwrap(),
            SheetForm::round(300.0).unwrap(),
            SheetForm::oval(280.0, 410.0).unwrap(),
        ] {
            let made = form.with_area(Area::new_mm2(90_000.0), Length::new_mm(1000.0)).unwrap();
            assert!((made.area().mm2() - 90_000.0).abs() < 1e-6);
            assert!(form.with_area(Area::new_mm2(90_000.0), Length::new_mm(100.0)).is_none());
        }
    }
}
