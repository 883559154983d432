//! Portions: pieces made by hand, scoop, rope, press or in the tray, each with its mass, its size and the form in which it chills.

use crate::cold::Piece;
use crate::error::{Checks, InputErrors};
use crate::units::{Area, Density, Length, Mass};
use serde::{Deserialize, Serialize};
use std::f64::consts::PI;

/// A scoop's number is how many of it fill a US quart: 57.75 cubic inches by definition (NIST Handbook 44, Appendix C).
const QUART_ML: f64 = 946.353;
/// Dough lies with gaps in scoops and spoons: so much of its density is there, 0.9 to 0.95. Common practice, no source.
const PACKS: f64 = 0.925;
/// Jam, jelly and the like, g/mL: water with two thirds of sugar. Handbook value of such a syrup, from memory.
const FILLING_G_ML: f64 = 1.33;

/// How a portion is made, with its sizes.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum Portion {
    /// Rolled to a ball of a mass, 2 to 500 g.
    Ball {
        /// 2 to 500; the usual one when left out.
        #[serde(rename = "mass_g", default = "usual_ball")]
        mass: Mass,
    },
    /// Levelled in a scoop, number 4 to 120.
    Scoop {
        /// How many of it fill a US quart, 4 to 120.
        #[serde(rename = "scoop")]
        number: u32,
        /// What one weighs where it was put on the scale, 2 to 500; by its volume when left out.
        #[serde(rename = "mass_g", default, skip_serializing_if = "Option::is_none")]
        weighs: Option<Mass>,
    },
    /// Taken with a household spoon.
    Spoon {
        /// Which.
        spoon: Spoon,
        /// Heaped rather than level.
        #[serde(default)]
        heaped: bool,
        /// What one weighs where it was put on the scale, 2 to 500; by its volume when left out.
        #[serde(rename = "mass_g", default, skip_serializing_if = "Option::is_none")]
        weighs: Option<Mass>,
    },
    /// A ball pressed with a stamp of its own diameter.
    Stamped {
        /// Of the stamp, 20 to 150.
        #[serde(rename = "across_mm")]
        across: Length,
        /// As high as its raised parts stay, 4 to 20.
        #[serde(rename = "thickness_mm")]
        thickness: Length,
        /// As deep as the stamp goes in, 0.5 to 6.
        #[serde(rename = "deep_mm")]
        relief: Length,
    },
    /// Rolled to a rope: crescents, rings, knots.
    Rope {
        /// 4 to 60.
        #[serde(rename = "across_mm")]
        across: Length,
        /// 20 to 600.
        #[serde(rename = "length_mm")]
        length: Length,
        /// What it is bent to; left straight when left out.
        #[serde(default)]
        bent: Bent,
    },
    /// A ball pressed or stamped flat.
    Pressed {
        /// 2 to 500.
        #[serde(rename = "mass_g")]
        mass: Mass,
        /// 2 to 40.
        #[serde(rename = "thickness_mm")]
        thickness: Length,
    },
    /// A ball with a dent for a filling.
    Thumbprint {
        /// 2 to 500.
        #[serde(rename = "mass_g")]
        mass: Mass,
        /// 4 to 60.
        #[serde(rename = "dent_mm")]
        dent: Length,
        /// 1 to 30.
        #[serde(rename = "deep_mm")]
        deep: Length,
    },
    /// Put together of balls of these masses, 2 to 12 parts.
    Figure {
        /// 2 to 12 parts of 0.5 to 300.
        #[serde(rename = "parts_g")]
        parts: Vec<Mass>,
    },
    /// Piped, 2 to 200 g.
    Piped {
        /// 2 to 200.
        #[serde(rename = "mass_g")]
        mass: Mass,
    },
    /// Spread over a tray and cut after baking.
    TrayBar {
        /// 100 to 900.
        #[serde(rename = "width_mm")]
        width: Length,
        /// 100 to 900.
        #[serde(rename = "length_mm")]
        length: Length,
        /// 4 to 60.
        #[serde(rename = "thickness_mm")]
        depth: Length,
        /// Radius of the pan's corners, 0 to half its shorter side; square when left out.
        #[serde(rename = "corner_mm", default)]
        corner: Length,
        /// 1 to 30.
        columns: u32,
        /// 1 to 30.
        rows: u32,
    },
}

/// A household spoon.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Spoon {
    /// 4.9 mL level.
    Teaspoon,
    /// 14.8 mL level.
    Tablespoon,
}

impl Spoon {
    /// What it holds. Level: a teaspoon is a third of a tablespoon, that half a US fluid ounce (NIST Handbook 44, Appendix C). Heaped 1.8 and 1.6
    /// times as much: common practice, no source.
    fn ml(self, heaped: bool) -> f64 {
        let (level, times) = match self {
            Self::Teaspoon => (QUART_ML / 192.0, 1.8),
            Self::Tablespoon => (QUART_ML / 64.0, 1.6),
        };
        if heaped { level * times } else { level }
    }
}

/// What a rope is bent to.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Bent {
    /// Left straight.
    #[default]
    Straight,
    /// A crescent with tapered ends.
    Crescent,
    /// A ring, its ends pressed together.
    Ring,
    /// A knot whose strands cross, such as a pretzel.
    Knot,
    /// Folded in two and twisted.
    Twist,
}

impl Bent {
    /// All, in the order in which they are offered.
    pub const ALL: [Self; 5] = [Self::Straight, Self::Crescent, Self::Ring, Self::Knot, Self::Twist];

    /// A rope that is bent so is usually as long as this. Common practice, no source.
    #[must_use]
    pub const fn usual_length(self) -> Length {
        Length::new_mm(match self {
            Self::Straight => 90.0,
            Self::Crescent => 100.0,
            Self::Ring => 120.0,
            Self::Knot => 240.0,
            Self::Twist => 200.0,
        })
    }

    /// The shortest rope of a thickness that can be bent so; shorter ones have no hole, or nothing to cross. Our own choice.
    #[must_use]
    pub fn shortest(self, across: Length) -> Length {
        across
            * match self {
                Self::Straight => 1.0,
                Self::Crescent => 3.0,
                Self::Ring => 5.0,
                Self::Knot | Self::Twist => 8.0,
            }
    }
}

const fn usual_ball() -> Mass {
    Portion::USUAL_BALL
}

/// The ways to portion.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PortionKind {
    /// [`Portion::Ball`].
    Ball,
    /// [`Portion::Scoop`].
    Scoop,
    /// [`Portion::Spoon`].
    Spoon,
    /// [`Portion::Stamped`].
    Stamped,
    /// [`Portion::Rope`].
    Rope,
    /// [`Portion::Pressed`].
    Pressed,
    /// [`Portion::Thumbprint`].
    Thumbprint,
    /// [`Portion::Figure`].
    Figure,
    /// [`Portion::Piped`].
    Piped,
    /// [`Portion::TrayBar`].
    TrayBar,
}

/// A portion with what follows from it.
#[derive(Debug, Clone, PartialEq)]
pub struct Portioned {
    /// Of one.
    pub mass: Mass,
    /// How many a batch gives.
    pub pieces: u32,
    /// What is left of the batch.
    pub rest: Mass,
    /// Across as it goes into the oven (the longer side where it has two).
    pub across: Length,
    /// High as it goes into the oven.
    pub high: Length,
    /// Of a bar over a tray, the dough that fills the whole tray.
    pub tray: Option<Mass>,
    /// Filling in its dent.
    pub filling: Option<Mass>,
    /// Of a figure, across of each part rolled to a ball; empty otherwise.
    pub parts: Vec<Length>,
    /// The form in which it chills: the thickest part decides.
    pub chills_as: Piece,
}

impl Portion {
    /// A ball that nobody has sized yet. Common practice, no source.
    pub const USUAL_BALL: Mass = Mass::new_g(30.0);

    /// A portion of usual size; a bar over a tray of width and length. Common practice, no source.
    #[must_use]
    pub fn usual(kind: PortionKind, tray: (Length, Length)) -> Self {
        let (g, mm) = (Mass::new_g, Length::new_mm);
        match kind {
            PortionKind::Ball => Self::Ball { mass: Self::USUAL_BALL },
            PortionKind::Scoop => Self::Scoop { number: 40, weighs: None },
            PortionKind::Spoon => Self::Spoon { spoon: Spoon::Tablespoon, heaped: false, weighs: None },
            PortionKind::Stamped => Self::Stamped { across: mm(60.0), thickness: mm(8.0), relief: mm(1.5) },
            PortionKind::Rope => {
                Self::Rope { across: mm(12.0), length: Bent::Straight.usual_length(), bent: Bent::Straight }
            }
            PortionKind::Pressed => Self::Pressed { mass: g(25.0), thickness: mm(8.0) },
            PortionKind::Thumbprint => Self::Thumbprint { mass: g(25.0), dent: mm(20.0), deep: mm(8.0) },
            PortionKind::Figure => Self::Figure { parts: vec![g(20.0), g(8.0), g(2.0), g(2.0)] },
            PortionKind::Piped => Self::Piped { mass: g(15.0) },
            PortionKind::TrayBar => {
                Self::TrayBar { width: tray.0, length: tray.1, depth: mm(15.0), corner: mm(0.0), columns: 4, rows: 6 }
            }
        }
    }

    /// The same with its sizes checked, each within the range its variant states.
    pub fn checked(self) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        let mass = |checks: &mut Checks, m: Mass, most: f64| checks.range("mass_g", m.g(), 2.0, most, "g");
        match &self {
            Self::Ball { mass: m } => mass(&mut checks, *m, 500.0),
            Self::Piped { mass: m } => mass(&mut checks, *m, 200.0),
            Self::Scoop { number, weighs } => {
                checks.range("scoop", f64::from(*number), 4.0, 120.0, "to the quart");
                weighs.iter().for_each(|m| mass(&mut checks, *m, 500.0));
            }
            Self::Spoon { weighs, .. } => weighs.iter().for_each(|m| mass(&mut checks, *m, 500.0)),
            Self::Stamped { across, thickness, relief } => {
                checks.range("across_mm", across.mm(), 20.0, 150.0, "mm");
                checks.range("thickness_mm", thickness.mm(), 4.0, 20.0, "mm");
                checks.range("deep_mm", relief.mm(), 0.5, (thickness.mm() / 2.0).clamp(0.5, 6.0), "mm");
            }
            Self::Rope { across, length, bent } => {
                checks.range("across_mm", across.mm(), 4.0, 60.0, "mm");
                let least = bent.shortest(*across).mm().clamp(20.0, 600.0);
                checks.range("length_mm", length.mm(), least, 600.0, "mm");
            }
            Self::Pressed { mass: m, thickness } => {
                mass(&mut checks, *m, 500.0);
                checks.range("thickness_mm", thickness.mm(), 2.0, 40.0, "mm");
            }
            Self::Thumbprint { mass: m, dent, deep } => {
                mass(&mut checks, *m, 500.0);
                checks.range("dent_mm", dent.mm(), 4.0, 60.0, "mm");
                checks.range("deep_mm", deep.mm(), 1.0, 30.0, "mm");
            }
            Self::Figure { parts } => {
                checks.range("parts", f64::from(u32::try_from(parts.len()).unwrap_or(u32::MAX)), 2.0, 12.0, "parts");
                for (i, part) in parts.iter().enumerate() {
                    checks.range(&format!("parts[{i}]"), part.g(), 0.5, 300.0, "g");
                }
            }
            Self::TrayBar { width, length, depth, corner, columns, rows } => {
                checks.range("width_mm", width.mm(), 100.0, 900.0, "mm");
                checks.range("length_mm", length.mm(), 100.0, 900.0, "mm");
                checks.range("depth_mm", depth.mm(), 4.0, 60.0, "mm");
                let most = (width.mm().min(length.mm()) / 2.0).clamp(0.0, 450.0);
                checks.range("corner_mm", corner.mm(), 0.0, if most.is_finite() { most } else { 450.0 }, "mm");
                checks.range("columns", f64::from(*columns), 1.0, 30.0, "columns");
                checks.range("rows", f64::from(*rows), 1.0, 30.0, "rows");
            }
        }
        checks.finish(self)
    }
}

/// The larger side of a bent rope's footprint and the other. Common practice, no source: a crescent on a radius of a 2.2nd of its length, a ring
/// as its length closes, a knot 0.42 by 0.32 of it, a twist just under half of it and two strands wide.
#[must_use]
pub fn bent_extent(bent: Bent, across: Length, length: Length) -> (Length, Length) {
    let (d, l) = (across.mm(), length.mm());
    let (a, b) = match bent {
        Bent::Straight => (l, d),
        Bent::Crescent => {
            let (radius, half) = (l / CRESCENT_RADIUS, CRESCENT_RADIUS / 2.0);
            (2.0 * (radius + d / 2.0) * half.sin(), radius + d / 2.0 - (radius - d / 2.0) * half.cos())
        }
        Bent::Ring => (l / PI + d, l / PI + d),
        Bent::Knot => (0.42 * l, 0.32 * l),
        Bent::Twist => (0.45 * l, 1.8 * d),
    };
    (Length::new_mm(a), Length::new_mm(b))
}

/// A crescent's length over its radius. Common practice, no source.
pub(crate) const CRESCENT_RADIUS: f64 = 2.2;

/// What a pan with rounded corners holds at each height: of each corner its square less a quarter of a circle is missing.
#[must_use]
pub fn pan_area(width: Length, length: Length, corner: Length) -> Area {
    Area::new_mm2(width.mm() * length.mm() - (4.0 - PI) * corner.mm().powi(2))
}

/// Of a stamp's face, the part that sinks into the dough. Our own choice.
const STAMPED_IN: f64 = 0.5;

/// Dough in a scoop or spoon of a volume.
fn packed(ml: f64, density: Density) -> Mass {
    Mass::new_g(ml * PACKS * density.kg_m3() / 1000.0)
}

/// Across of a ball.
fn ball(mass: Mass, density: Density) -> Length {
    Length::new_mm((6.0 * mass.g() * 1e6 / density.kg_m3() / PI).cbrt())
}

/// What a batch gives in portions.
///
/// Fails, naming the size, where one is out of its range.
pub fn portion_out(portion: Portion, batch: Mass, density: Density) -> Result<Portioned, InputErrors> {
    let portion = portion.checked()?;
    let mut checks = Checks::new();
    checks.range("batch_g", batch.g(), 10.0, 200_000.0, "g");
    checks.finish(())?;
    let round = |mass: Mass| {
        let across = ball(mass, density);
        (mass, across, across, None, Piece::Sphere { diameter: across })
    };
    let cells = match &portion {
        Portion::TrayBar { columns, rows, .. } => Some(f64::from(columns * rows)),
        _ => None,
    };
    let parts = match &portion {
        Portion::Figure { parts } => parts.iter().map(|&p| ball(p, density)).collect(),
        _ => vec![],
    };
    let (mass, across, high, filling, chills_as) = match portion {
        Portion::Ball { mass } | Portion::Piped { mass } => round(mass),
        Portion::Scoop { number, weighs } => {
            round(weighs.unwrap_or_else(|| packed(QUART_ML / f64::from(number), density)))
        }
        Portion::Spoon { spoon, heaped, weighs } => round(weighs.unwrap_or_else(|| packed(spoon.ml(heaped), density))),
        Portion::Stamped { across, thickness, relief } => {
            // Half of its face is sunk by the stamp.
            let high = thickness - relief * STAMPED_IN;
            let face = Area::new_mm2(PI / 4.0 * across.mm().powi(2));
            (face.mass_at(high, density), across, thickness, None, Piece::Sheet { thickness })
        }
        Portion::Rope { across, length, bent } => {
            let section = Area::new_mm2(PI / 4.0 * across.mm().powi(2));
            let footprint = bent_extent(bent, across, length).0;
            (section.mass_at(length, density), footprint, across, None, Piece::Log { diameter: across })
        }
        Portion::Pressed { mass, thickness } => {
            let across = Length::new_mm((mass.rolled_to(thickness, density).mm2() * 4.0 / PI).sqrt());
            (mass, across, thickness, None, Piece::Sheet { thickness })
        }
        Portion::Thumbprint { mass, dent, deep } => {
            let (mass, across, high, _, piece) = round(mass);
            if deep.mm() > high.mm() * 0.8 || dent.mm() > across.mm() {
                let mut checks = Checks::new();
                checks.range("deep_mm", deep.mm(), 1.0, high.mm() * 0.8, "mm");
                checks.range("dent_mm", dent.mm(), 4.0, across.mm(), "mm");
                checks.finish(())?;
            }
            // The dent is a cap: pi h (3 r^2 + h^2) / 6.
            let (r, h) = (dent.mm() / 2.0, deep.mm());
            let ml = PI * h * (3.0 * r * r + h * h) / 6000.0;
            (mass, across, high, Some(Mass::new_g(ml * FILLING_G_ML)), piece)
        }
        Portion::Figure { parts } => {
            let mass = parts.iter().fold(Mass::new_g(0.0), |sum, &p| sum + p);
            let thickest =
                parts.iter().map(|&p| ball(p, density)).fold(Length::new_mm(0.0), |a, b| if b > a { b } else { a });
            let beside = parts.iter().fold(Length::new_mm(0.0), |sum, &p| sum + ball(p, density));
            (mass, beside, thickest, None, Piece::Sphere { diameter: thickest })
        }
        Portion::TrayBar { width, length, depth, corner, columns, rows } => {
            let cell = Area::new_mm2(pan_area(width, length, corner).mm2() / f64::from(columns * rows));
            let (a, b) = (width * (1.0 / f64::from(columns)), length * (1.0 / f64::from(rows)));
            (cell.mass_at(depth, density), if a > b { a } else { b }, depth, None, Piece::Sheet { thickness: depth })
        }
    };
    #[expect(
        clippy::cast_possible_truncation,
        clippy::cast_sign_loss,
        reason = "a batch in range by a portion in range"
    )]
    let pieces = (batch / mass + 1e-9).floor() as u32;
    Ok(Portioned {
        mass,
        pieces,
        rest: batch - mass * f64::from(pieces),
        across,
        high,
        tray: cells.map(|n| mass * n),
        filling,
        parts,
        chills_as: chills_as.checked()?,
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;
    use rstest::rstest;

    fn g(v: f64) -> Mass {
        Mass::new_g(v)
    }

    fn mm(v: f64) -> Length {
        Length::new_mm(v)
    }

    fn out(portion: Portion) -> Portioned {
        portion_out(portion, g(1000.0), Density::new_kg_m3(1210.0)).unwrap()
    }

    #[test]
    fn a_kilo_gives_thirty_three_balls_of_thirty_grams() {
        // By hand: 30 / 1.21 = 24.79 mL, (6 x 24.79 / pi)^(1/3) = 3.617 cm.
        let balls = out(Portion::Ball { mass: g(30.0) });
        assert_eq!((balls.pieces, balls.chills_as), (33, Piece::Sphere { diameter: balls.across }));
        assert!((balls.across.mm() - 36.17).abs() < 0.02 && (balls.rest.g() - 10.0).abs() < 1e-6);
    }

    /// A number 40 scoop holds 23.7 mL, a number 16 a quarter of a cup (59.1 mL); trade tables agree.
    #[rstest]
    #[case(40, 23.66)]
    #[case(16, 59.15)]
    fn a_scoops_number_is_how_many_fill_a_quart(#[case] number: u32, #[case] ml: f64) {
        assert!((out(Portion::Scoop { number, weighs: None }).mass.g() / 1.21 / PACKS - ml).abs() < 0.01);
    }

    /// Level 14.8 and 4.9 mL (NIST Handbook 44); heaped 1.6 and 1.8 times as much, dough packs at 0.9 to 0.95: common practice, no source.
    #[rstest]
    #[case(Spoon::Tablespoon, false, 14.8)]
    #[case(Spoon::Tablespoon, true, 14.8 * 1.6)]
    #[case(Spoon::Teaspoon, false, 4.93)]
    #[case(Spoon::Teaspoon, true, 4.93 * 1.8)]
    fn a_spoon_holds_what_spoons_hold_and_the_scale_goes_before(
        #[case] spoon: Spoon,
        #[case] heaped: bool,
        #[case] ml: f64,
    ) {
        let by_volume = out(Portion::Spoon { spoon, heaped, weighs: None }).mass.g();
        assert!((0.9..=0.95).contains(&(by_volume / 1.21 / ml)), "{by_volume}");
        assert_eq!(out(Portion::Spoon { spoon, heaped, weighs: Some(g(17.0)) }).mass, g(17.0));
        assert_eq!(out(Portion::Scoop { number: 40, weighs: Some(g(26.0)) }).mass, g(26.0));
    }

    #[test]
    fn a_stamped_piece_is_as_wide_as_its_stamp() {
        // By hand: 60 mm across at 8 mm with half its face 1.5 mm deep: 2827 mm2 x 7.25 mm x 1.21 = 24.8 g.
        let stamped = out(Portion::usual(PortionKind::Stamped, (mm(310.0), mm(440.0))));
        assert!((stamped.mass.g() - 24.80).abs() < 0.02 && stamped.across == mm(60.0), "{stamped:?}");
        // 'Ball pressed to 7-9 mm': common practice, no source.
        assert!((7.0..=9.0).contains(&stamped.high.mm()));
    }

    #[test]
    fn ropes_discs_and_trays_weigh_what_they_hold() {
        // By hand: a rope 12 mm by 90 mm is 10.18 mL; 25 g at 8 mm cover 2583 mm2, 57.3 mm across; 440 x 310 x 15 mm are 2046 mL.
        assert!(
            (out(Portion::Rope { across: mm(12.0), length: mm(90.0), bent: Bent::Straight }).mass.g() - 12.32).abs()
                < 0.01
        );
        let pressed = out(Portion::Pressed { mass: g(25.0), thickness: mm(8.0) });
        assert!((pressed.across.mm() - 57.34).abs() < 0.02 && pressed.high == mm(8.0));
        let bar = out(Portion::TrayBar {
            width: mm(310.0),
            length: mm(440.0),
            depth: mm(15.0),
            corner: mm(0.0),
            columns: 4,
            rows: 6,
        });
        assert!((bar.tray.unwrap().g() - 2475.7).abs() < 0.1 && (bar.across.mm() - 77.5).abs() < 1e-9);
        assert_eq!(bar.chills_as, Piece::Sheet { thickness: mm(15.0) });
        // By hand: corners of 40 mm take (4 - pi) 1600 mm2 off: 20.6 mL, 24.9 g.
        let corner = mm(40.0);
        let round =
            out(Portion::TrayBar { width: mm(310.0), length: mm(440.0), depth: mm(15.0), corner, columns: 4, rows: 6 });
        assert!((bar.tray.unwrap().g() - round.tray.unwrap().g() - 24.93).abs() < 0.02);
    }

    #[test]
    fn a_thumbprint_holds_its_cap_and_a_figure_is_as_thick_as_its_thickest_part() {
        // By hand: a cap 20 mm across and 8 mm deep is pi 8 (3 x 100 + 64) / 6 = 1525 mm3, 2.03 g of jam.
        let print = out(Portion::Thumbprint { mass: g(25.0), dent: mm(20.0), deep: mm(8.0) });
        assert!((print.filling.unwrap().g() - 2.03).abs() < 0.01);
        let figure = out(Portion::Figure { parts: vec![g(20.0), g(8.0), g(2.0), g(2.0)] });
        assert!((figure.mass.g() - 32.0).abs() < 1e-9 && figure.high == out(Portion::Ball { mass: g(20.0) }).high);
    }

    #[rstest]
    #[case(Portion::Ball { mass: g(0.1) }, "mass_g")]
    #[case(Portion::Scoop { number: 1, weighs: None }, "scoop")]
    #[case(Portion::Spoon { spoon: Spoon::Teaspoon, heaped: true, weighs: Some(g(900.0)) }, "mass_g")]
    #[case(Portion::Stamped { across: mm(60.0), thickness: mm(8.0), relief: mm(5.0) }, "deep_mm")]
    #[case(Portion::Rope { across: mm(12.0), length: mm(5.0), bent: Bent::Straight }, "length_mm")]
    #[case(Portion::Rope { across: mm(12.0), length: mm(40.0), bent: Bent::Ring }, "length_mm")]
    #[case(Portion::Thumbprint { mass: g(10.0), dent: mm(20.0), deep: mm(28.0) }, "deep_mm")]
    #[case(Portion::Figure { parts: vec![g(10.0)] }, "parts")]
    #[case(Portion::TrayBar { width: mm(310.0), length: mm(440.0), depth: mm(1.0), corner: mm(0.0), columns: 4, rows: 6 }, "depth_mm")]
    fn a_size_out_of_range_is_named(#[case] portion: Portion, #[case] field: &str) {
        let errors = portion_out(portion, g(1000.0), Density::new_kg_m3(1210.0)).unwrap_err();
        assert_eq!(errors.all()[0].field(), field);
    }

    proptest! {
        #[test]
        fn nothing_of_a_batch_is_lost(batch in 50.0f64..5000.0, mass in 5.0f64..100.0) {
            let found = portion_out(Portion::Ball { mass: g(mass) }, g(batch), Density::new_kg_m3(1200.0)).unwrap();
            prop_assert!((found.mass.g() * f64::from(found.pieces) + found.rest.g() - batch).abs() < 1e-6);
            prop_assert!(found.rest.g() < mass && found.rest.g() > -1e-5);
        }
    }
}
