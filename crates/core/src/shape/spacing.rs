//! What is kept free between pieces and to the rim, and how pieces may be turned.

use crate::error::{Checks, InputErrors};
use crate::geometry::Outline;
use crate::units::Length;
use serde::{Deserialize, Serialize};

/// Webs that layouts are made with. A web between two steps is held at the next larger one, and layouts of every larger
/// step are tried as well, so that a finer web never fits fewer pieces.
pub const WEB_STEPS_MM: [f64; 10] = [0.5, 1.0, 1.5, 2.0, 3.0, 4.0, 5.0, 6.0, 8.0, 10.0];

/// How a cutter may be turned on the sheet. It is never turned over: a floured or textured face would come to lie below.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Turning {
    /// Any way.
    Free,
    /// As drawn or half round.
    HalfTurn,
    /// As drawn.
    Fixed,
}

/// A piece turned by no more than this lies as drawn, degrees: what a hand that turned it and turned it back leaves.
const TURNED_DEG: f64 = 0.5;

impl Turning {
    /// Whether a piece may lie turned by so much.
    #[must_use]
    pub fn allows(self, turn_deg: f64) -> bool {
        let off = |period: f64| {
            let rest = turn_deg.rem_euclid(period);
            rest.min(period - rest) <= TURNED_DEG
        };
        match self {
            Self::Free => true,
            Self::HalfTurn => off(180.0),
            Self::Fixed => off(360.0),
        }
    }
}

/// What is kept free.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Spacing {
    web: Length,
    edge: Length,
}

impl Spacing {
    /// Cut on the paper of the tray, the scraps lifted away: 15 to 25 mm apart, 10 mm to the edge. Common practice, no source.
    pub const IN_PLACE: Self = Self { web: Length::new_mm(20.0), edge: Length::new_mm(10.0) };

    /// `web_mm` between any two pieces (0.5 to 10), `edge_mm` to the rim (0 to 30).
    pub fn new(web_mm: f64, edge_mm: f64) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        checks.range("web_mm", web_mm, WEB_STEPS_MM[0], WEB_STEPS_MM[9], "mm");
        checks.range("edge_mm", edge_mm, 0.0, 30.0, "mm");
        checks.finish(())?;
        Ok(Self { web: Length::new_mm(web_mm), edge: Length::new_mm(edge_mm) })
    }

    /// For pieces on a tray: `gap_mm` between any two (5 to 200: the kitchen's least gap, or what two neighbours grow), `edge_mm` to the tray's edge (0 to 60).
    pub fn on_tray(gap_mm: f64, edge_mm: f64) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        checks.range("gap_mm", gap_mm, 5.0, 200.0, "mm");
        checks.range("edge_mm", edge_mm, 0.0, 60.0, "mm");
        checks.finish(())?;
        Ok(Self { web: Length::new_mm(gap_mm), edge: Length::new_mm(edge_mm) })
    }

    /// Least gap between two pieces.
    #[must_use]
    pub fn web(&self) -> Length {
        self.web
    }

    /// Least gap to the rim.
    #[must_use]
    pub fn edge(&self) -> Length {
        self.edge
    }
}

/// Why a cutter cannot be laid on a sheet.
pub(super) fn larger_than_sheet(outline: &Outline, sheet: (Length, Length), edge: Length) -> String {
    let (w, h) = outline.extent();
    format!(
        "The cutter ({:.0} \u{d7} {:.0} mm) doesn\u{2019}t fit the sheet ({:.0} \u{d7} {:.0} mm, less a {:.0} mm margin). Use a bigger sheet.",
        w.mm(),
        h.mm(),
        sheet.0.mm(),
        sheet.1.mm(),
        edge.mm()
    )
}
