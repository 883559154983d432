//! The forms in which dough is chilled, what it is wrapped in and what it lies on.

use crate::error::{Checks, InputErrors};
use crate::units::{Film, Length, Temperature};
#[cfg(feature = "wire")]
use serde::{Deserialize, Serialize};

/// A piece of dough.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Piece {
    /// A sheet or cut pieces of one thickness; heat goes through the two faces.
    Sheet {
        /// Its thickness.
        thickness: Length,
    },
    /// Sheets lying on each other: one slab as thick as all of them.
    Stack {
        /// Of one sheet.
        thickness: Length,
        /// How many.
        count: u32,
    },
    /// A disc pressed flat.
    Disc {
        /// Its thickness.
        thickness: Length,
        /// Across.
        diameter: Length,
    },
    /// A ball as it left the bowl, taken as a cylinder as high as wide.
    Ball {
        /// Across.
        diameter: Length,
    },
    /// A portion rolled round in the hands.
    Sphere {
        /// Across.
        diameter: Length,
    },
    /// A round log, long against its width.
    Log {
        /// Across.
        diameter: Length,
    },
    /// A bar, long against its section.
    Bar {
        /// Width of the section.
        width: Length,
        /// Height of the section.
        height: Length,
    },
}

impl Piece {
    /// The piece with its sizes checked: 1 to 200 mm thick or across a log, up to 600 mm across a disc, 2 to 12 sheets.
    pub fn checked(self) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        let thick = |checks: &mut Checks, field: &str, l: Length| checks.range(field, l.mm(), 1.0, 200.0, "mm");
        match self {
            Self::Sheet { thickness } => checks.range("thickness_mm", thickness.mm(), 1.0, 60.0, "mm"),
            Self::Stack { thickness, count } => {
                checks.range("thickness_mm", thickness.mm(), 1.0, 60.0, "mm");
                checks.range("count", f64::from(count), 2.0, 12.0, "sheets");
            }
            Self::Disc { thickness, diameter } => {
                thick(&mut checks, "thickness_mm", thickness);
                checks.range("diameter_mm", diameter.mm(), 10.0, 600.0, "mm");
            }
            Self::Ball { diameter } | Self::Sphere { diameter } | Self::Log { diameter } => {
                thick(&mut checks, "diameter_mm", diameter)
            }
            Self::Bar { width, height } => {
                thick(&mut checks, "width_mm", width);
                thick(&mut checks, "height_mm", height);
            }
        }
        checks.finish(self)
    }
}

/// What is round the piece.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[cfg_attr(feature = "wire", derive(Serialize, Deserialize, utoipa::ToSchema), serde(rename_all = "snake_case"))]
pub enum Wrap {
    /// Nothing.
    Open,
    /// One film or paper.
    Wrapped,
}

impl Wrap {
    /// Its thermal resistance in m2K/W. Common practice, no source.
    #[must_use]
    pub const fn resistance_m2k_w(self) -> f64 {
        match self {
            Self::Open => 0.0,
            Self::Wrapped => 0.012,
        }
    }
}

/// Trays that lie under a sheet.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[cfg_attr(feature = "wire", derive(Serialize, Deserialize, utoipa::ToSchema), serde(rename_all = "snake_case"))]
pub enum TrayKind {
    /// Aluminium, light.
    Aluminium,
    /// Steel, dark.
    Steel,
}

impl TrayKind {
    /// Heat held per area and kelvin, J/m2K: handbook density times specific heat, of aluminium 1 mm and of steel 0.77 mm thick. Chill
    /// and bake go by the same trays.
    #[must_use]
    pub const fn heat_j_m2k(self) -> f64 {
        match self {
            Self::Aluminium => 2500.0,
            Self::Steel => 3000.0,
        }
    }
}

/// What the piece lies on.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Support {
    /// A wire shelf: the lower face meets the air too.
    Rack,
    /// A tray, its lower face in the air.
    Tray {
        /// What it is made of.
        kind: TrayKind,
        /// Its temperature when the piece is laid on it.
        start: Temperature,
    },
    /// A bench through one paper, the bench staying at its temperature.
    Bench {
        /// The bench's temperature.
        bench: Temperature,
    },
}

/// Contact between dough and tray through paper, W/m2K. Common practice, no source.
pub(crate) const TRAY_CONTACT: Film = Film::new_w_m2k(100.0);
/// Contact between dough and bench through paper, W/m2K. Common practice, no source.
pub(crate) const BENCH_CONTACT: Film = Film::new_w_m2k(40.0);
