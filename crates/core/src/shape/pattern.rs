//! Patterned icebox bars of two doughs: what strips and sheets they are built of, and in what steps.

use crate::error::{Checks, InputErrors};
use crate::units::{Area, Density, Length, Mass};
use serde::{Deserialize, Serialize};
use std::f64::consts::PI;

/// A pattern with its sizes.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Pattern {
    /// Square strips in turns, so many each way.
    Checkerboard {
        /// Each way, 2 to 8.
        strips: u32,
        /// Side of one strip, 4 to 40 mm.
        strip: Length,
    },
    /// Two sheets on each other, rolled up.
    Pinwheel {
        /// Across when rolled, 20 to 150 mm.
        across: Length,
        /// Across the first tight turn, 0 to 30 mm.
        heart: Length,
        /// Thickness of the outer sheet, 1 to 20 mm.
        outer: Length,
        /// Thickness of the inner sheet, 1 to 20 mm.
        inner: Length,
    },
    /// A round core in a wrap.
    Bullseye {
        /// Core, across, 5 to 120 mm.
        core: Length,
        /// Thickness of the wrap, 1 to 30 mm.
        wrap: Length,
    },
    /// Layers in turns.
    Stripes {
        /// How many, 2 to 20.
        layers: u32,
        /// Thickness of one, 1 to 30 mm.
        layer: Length,
        /// Width of the bar, 10 to 200 mm.
        width: Length,
    },
}

/// The patterns.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PatternKind {
    /// [`Pattern::Checkerboard`].
    Checkerboard,
    /// [`Pattern::Pinwheel`].
    Pinwheel,
    /// [`Pattern::Bullseye`].
    Bullseye,
    /// [`Pattern::Stripes`].
    Stripes,
}

/// A bar of usual length. Common practice, no source: it lies across a shelf and is as long as a sheet of paper is wide.
pub const USUAL_BAR: Length = Length::new_mm(200.0);

impl Pattern {
    /// A pattern of usual size. Common practice, no source.
    #[must_use]
    pub const fn usual(kind: PatternKind) -> Self {
        const fn mm(v: f64) -> Length {
            Length::new_mm(v)
        }
        match kind {
            PatternKind::Checkerboard => Self::Checkerboard { strips: 3, strip: mm(12.0) },
            PatternKind::Pinwheel => {
                Self::Pinwheel { across: mm(50.0), heart: mm(8.0), outer: mm(4.0), inner: mm(4.0) }
            }
            PatternKind::Bullseye => Self::Bullseye { core: mm(30.0), wrap: mm(8.0) },
            PatternKind::Stripes => Self::Stripes { layers: 5, layer: mm(7.0), width: mm(60.0) },
        }
    }
}

/// Which of the two doughs.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum WhichDough {
    /// The first: corners of the board, outside of the pinwheel, core of the bullseye, lowest stripe.
    First,
    /// The other.
    Second,
}

/// What a patterned bar is built of.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum PatternPiece {
    /// Square strips.
    Strips,
    /// A sheet to be rolled up.
    Sheet,
    /// The log in the middle.
    Core,
    /// The sheet round it.
    Wrap,
    /// Flat layers.
    Layers,
}

/// Something to be rolled or cut, as long as the bar.
#[derive(Debug, Clone, PartialEq)]
pub struct PatternPart {
    /// Of which dough.
    pub dough: WhichDough,
    /// Which.
    pub what: PatternPiece,
    /// How many.
    pub count: u32,
    /// Width of one.
    pub width: Length,
    /// Thickness of one.
    pub thickness: Length,
    /// Mass of all of them.
    pub mass: Mass,
}

/// A patterned bar.
#[derive(Debug, Clone, PartialEq)]
pub struct Patterned {
    /// Width of the finished section.
    pub width: Length,
    /// Height of the finished section.
    pub height: Length,
    /// How it is built.
    pub pattern: Pattern,
    /// How long it is.
    pub length: Length,
    /// What it is built of.
    pub parts: Vec<PatternPart>,
}

impl Patterned {
    /// Mass of one dough in it.
    #[must_use]
    pub fn mass_of(&self, dough: WhichDough) -> Mass {
        self.parts.iter().filter(|p| p.dough == dough).fold(Mass::new_g(0.0), |sum, p| sum + p.mass)
    }
}

impl Pattern {
    fn checked(self) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        match self {
            Self::Checkerboard { strips, strip } => {
                checks.range("strips", f64::from(strips), 2.0, 8.0, "strips");
                checks.range("strip_mm", strip.mm(), 4.0, 40.0, "mm");
            }
            Self::Pinwheel { across, heart, outer, inner } => {
                checks.range("across_mm", across.mm(), 20.0, 150.0, "mm");
                checks.range("heart_mm", heart.mm(), 0.0, 30.0_f64.min(across.mm() / 2.0), "mm");
                checks.range("outer_mm", outer.mm(), 1.0, 20.0, "mm");
                checks.range("inner_mm", inner.mm(), 1.0, 20.0, "mm");
            }
            Self::Bullseye { core, wrap } => {
                checks.range("core_mm", core.mm(), 5.0, 120.0, "mm");
                checks.range("wrap_mm", wrap.mm(), 1.0, 30.0, "mm");
            }
            Self::Stripes { layers, layer, width } => {
                checks.range("layers", f64::from(layers), 2.0, 20.0, "layers");
                checks.range("layer_mm", layer.mm(), 1.0, 30.0, "mm");
                checks.range("width_mm", width.mm(), 10.0, 200.0, "mm");
            }
        }
        checks.finish(self)
    }
}

/// What a bar of a pattern is built of, `length` long (50 to 1000 mm), of doughs of two densities.
///
/// Fails, naming the size, where one is out of its range.
pub fn build_pattern(pattern: Pattern, length: Length, densities: [Density; 2]) -> Result<Patterned, InputErrors> {
    let pattern = pattern.checked()?;
    let mut checks = Checks::new();
    checks.range("length_mm", length.mm(), 50.0, 1000.0, "mm");
    checks.finish(())?;
    let part = |dough: WhichDough, what, count: u32, width: Length, thickness: Length, section: Area| {
        let density = match dough {
            WhichDough::First => densities[0],
            WhichDough::Second => densities[1],
        };
        PatternPart { dough, what, count, width, thickness, mass: section.mass_at(length, density) * f64::from(count) }
    };
    let flat = |dough, what, count, width: Length, thickness: Length| {
        part(dough, what, count, width, thickness, Area::new_mm2(width.mm() * thickness.mm()))
    };
    let (width, height, parts) = match pattern {
        Pattern::Checkerboard { strips, strip } => {
            let all = strips * strips;
            let side = strip * f64::from(strips);
            let first = all.div_ceil(2);
            let parts = vec![
                flat(WhichDough::First, PatternPiece::Strips, first, strip, strip),
                flat(WhichDough::Second, PatternPiece::Strips, all - first, strip, strip),
            ];
            (side, side, parts)
        }
        Pattern::Pinwheel { across, heart, outer, inner } => {
            let sheet = pinwheel_sheet(across, heart, outer + inner);
            let parts = vec![
                flat(WhichDough::First, PatternPiece::Sheet, 1, sheet, outer),
                flat(WhichDough::Second, PatternPiece::Sheet, 1, sheet, inner),
            ];
            (across, across, parts)
        }
        Pattern::Bullseye { core, wrap } => {
            let across = core + wrap * 2.0;
            // Round its middle a wrap is as long as there.
            let round = Length::new_mm(PI * (core + wrap).mm());
            let disc = Area::new_mm2(PI * core.mm().powi(2) / 4.0);
            let parts = vec![
                part(WhichDough::First, PatternPiece::Core, 1, core, core, disc),
                flat(WhichDough::Second, PatternPiece::Wrap, 1, round, wrap),
            ];
            (across, across, parts)
        }
        Pattern::Stripes { layers, layer, width } => {
            let first = layers.div_ceil(2);
            let parts = vec![
                flat(WhichDough::First, PatternPiece::Layers, first, width, layer),
                flat(WhichDough::Second, PatternPiece::Layers, layers - first, width, layer),
            ];
            (width, layer * f64::from(layers), parts)
        }
    };
    Ok(Patterned { width, height, pattern, length, parts })
}

/// Length of the sheets of a pinwheel: across = sqrt(heart^2 + 4 L (t1 + t2) / pi), solved for L.
fn pinwheel_sheet(across: Length, heart: Length, both: Length) -> Length {
    Length::new_mm(PI * (across.mm().powi(2) - heart.mm().powi(2)) / (4.0 * both.mm()))
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn mm(v: f64) -> Length {
        Length::new_mm(v)
    }

    fn built(pattern: Pattern) -> Patterned {
        build_pattern(pattern, mm(200.0), [Density::new_kg_m3(1200.0); 2]).unwrap()
    }

    /// By hand: 3 x 3 strips of 12 mm: 5 and 4 strips of 28.8 cm3, 34.56 g each.
    #[test]
    fn a_checkerboard_of_three_has_five_strips_of_one_and_four_of_the_other() {
        let board = built(Pattern::Checkerboard { strips: 3, strip: mm(12.0) });
        assert_eq!((board.width.mm(), board.parts[0].count, board.parts[1].count), (36.0, 5, 4));
        assert!((board.mass_of(WhichDough::First).g() - 172.8).abs() < 1e-6);
        assert!((board.mass_of(WhichDough::Second).g() - 138.24).abs() < 1e-6);
    }

    /// By hand: pi (50^2 - 8^2) / (4 x 8) = 239.2 mm of sheet.
    #[test]
    fn a_pinwheel_of_fifty_takes_a_sheet_of_239() {
        let wheel = built(Pattern::Pinwheel { across: mm(50.0), heart: mm(8.0), outer: mm(4.0), inner: mm(4.0) });
        assert!((wheel.parts[0].width.mm() - 239.15).abs() < 0.05, "{wheel:?}");
        // The dough that is rolled up fills the ring round the heart.
        let ring_g = PI / 4.0 * (50.0_f64.powi(2) - 8.0_f64.powi(2)) * 200.0 * 1200.0 / 1e6;
        let both = wheel.mass_of(WhichDough::First) + wheel.mass_of(WhichDough::Second);
        assert!((both.g() - ring_g).abs() < 1e-6);
    }

    /// By hand: a core of 30 in a wrap of 8 is 46 across; the wrap is pi x 38 = 119.4 mm wide and fills the ring.
    #[test]
    fn a_bullseyes_wrap_goes_once_round() {
        let eye = built(Pattern::Bullseye { core: mm(30.0), wrap: mm(8.0) });
        assert!((eye.width.mm() - 46.0).abs() < 1e-9 && (eye.parts[1].width.mm() - 119.38).abs() < 0.01);
        let ring_g = PI / 4.0 * (46.0_f64.powi(2) - 30.0_f64.powi(2)) * 200.0 * 1200.0 / 1e6;
        assert!((eye.mass_of(WhichDough::Second).g() - ring_g).abs() < 1e-6);
    }

    #[test]
    fn five_stripes_are_three_of_one_and_two_of_the_other() {
        let stripes = built(Pattern::Stripes { layers: 5, layer: mm(7.0), width: mm(60.0) });
        assert_eq!((stripes.height.mm(), stripes.parts[0].count, stripes.parts[1].count), (35.0, 3, 2));
        assert!((stripes.mass_of(WhichDough::First).g() / stripes.mass_of(WhichDough::Second).g() - 1.5).abs() < 1e-9);
    }

    #[rstest]
    #[case(Pattern::Checkerboard { strips: 1, strip: mm(12.0) }, "strips")]
    #[case(Pattern::Pinwheel { across: mm(50.0), heart: mm(40.0), outer: mm(4.0), inner: mm(4.0) }, "heart_mm")]
    #[case(Pattern::Bullseye { core: mm(1.0), wrap: mm(8.0) }, "core_mm")]
    #[case(Pattern::Stripes { layers: 40, layer: mm(7.0), width: mm(60.0) }, "layers")]
    fn a_size_out_of_range_is_named(#[case] pattern: Pattern, #[case] field: &str) {
        let errors = build_pattern(pattern, mm(200.0), [Density::new_kg_m3(1200.0); 2]).unwrap_err();
        assert_eq!(errors.all()[0].field(), field);
    }
}
