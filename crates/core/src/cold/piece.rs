//! The forms in which dough is chilled, what it is wrapped in and what it lies on.

use crate::error::{Checks, InputErrors};
use crate::units::{Film, Length, Temperature};
use serde::{Deserialize, Serialize};

/// A piece of dough.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, utoipa::ToSchema)]
#[schema(as = PieceWire)]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum Piece {
    /// A sheet or cut pieces of one thickness; heat goes through the two faces.
    Sheet {
        /// 1 to 60.
        #[serde(rename = "thickness_mm")]
        thickness: Length,
    },
    /// Sheets lying on each other: one slab as thick as all of them.
    Stack {
        /// Of one sheet.
        #[serde(rename = "thickness_mm")]
        thickness: Length,
        /// 2 to 12.
        count: u32,
    },
    /// A disc pressed flat.
    Disc {
        /// 1 to 200.
        #[serde(rename = "thickness_mm")]
        thickness: Length,
        /// 10 to 600.
        #[serde(rename = "diameter_mm")]
        diameter: Length,
    },
    /// A ball as it left the bowl, taken as a cylinder as high as wide.
    Ball {
        /// 1 to 200.
        #[serde(rename = "diameter_mm")]
        diameter: Length,
    },
    /// A portion rolled round in the hands.
    Sphere {
        /// 1 to 200.
        #[serde(rename = "diameter_mm")]
        diameter: Length,
    },
    /// A round log, long against its width.
    Log {
        /// 1 to 200.
        #[serde(rename = "diameter_mm")]
        diameter: Length,
    },
    /// A bar, long against its section.
    Bar {
        /// 1 to 200.
        #[serde(rename = "width_mm")]
        width: Length,
        /// 1 to 200.
        #[serde(rename = "height_mm")]
        height: Length,
    },
}

impl Piece {
    /// Forms that go into the cold beside the plan's, as large as they usually are. Common practice, no source.
    pub const USUAL: [Self; 6] = [
        Self::Disc { thickness: Length::new_mm(22.0), diameter: Length::new_mm(180.0) },
        Self::Sheet { thickness: Length::new_mm(6.0) },
        Self::Ball { diameter: Length::new_mm(100.0) },
        Self::Sphere { diameter: Length::new_mm(35.0) },
        Self::Log { diameter: Length::new_mm(50.0) },
        Self::Bar { width: Length::new_mm(60.0), height: Length::new_mm(35.0) },
    ];

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
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
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
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
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
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, utoipa::ToSchema)]
#[schema(as = SupportBody)]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum Support {
    /// A wire shelf: the lower face meets the air too.
    Rack,
    /// A tray, its lower face in the air.
    Tray {
        /// Of what.
        #[serde(rename = "tray")]
        kind: TrayKind,
        /// Its temperature when the piece is laid on it, -40 to 45.
        #[serde(rename = "start_c")]
        start: Temperature,
    },
    /// A bench, through one paper; it stays at its temperature.
    Bench {
        /// Its temperature, -40 to 45.
        #[serde(rename = "bench_c")]
        bench: Temperature,
    },
}

impl Support {
    /// The same with its temperatures checked.
    pub fn checked(self) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        match self {
            Self::Rack => {}
            Self::Tray { start, .. } => checks.range("start_c", start.c(), -40.0, 45.0, "\u{b0}C"),
            Self::Bench { bench } => checks.range("bench_c", bench.c(), -40.0, 45.0, "\u{b0}C"),
        }
        checks.finish(self)
    }
}

/// Contact between dough and tray through paper, W/m2K. Common practice, no source.
pub(crate) const TRAY_CONTACT: Film = Film::new_w_m2k(100.0);
/// Contact between dough and bench through paper, W/m2K. Common practice, no source.
pub(crate) const BENCH_CONTACT: Film = Film::new_w_m2k(40.0);
