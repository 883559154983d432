//! Paper, whose size is a standard: to print on, and to measure by.

use crate::units::Length;
use serde::{Deserialize, Serialize};

/// Paper as it is sold for household printers.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PaperSize {
    /// ISO 216: 210 by 297 mm.
    A4,
    /// ANSI/ASME Y14.1, size A: 8 1/2 by 11 in.
    Letter,
}

impl PaperSize {
    /// Its first and second side as it lies, mm: the longer is the one that looks longer. `corners` go round it.
    #[must_use]
    pub(crate) fn lies(self, corners: &[(f64, f64); 4]) -> (f64, f64) {
        let side = |a: usize, b: usize| (corners[a].0 - corners[b].0).hypot(corners[a].1 - corners[b].1);
        let (short, long) = self.extent();
        if side(0, 1) + side(2, 3) < side(1, 2) + side(3, 0) {
            (short.mm(), long.mm())
        } else {
            (long.mm(), short.mm())
        }
    }

    /// The other one.
    #[must_use]
    pub const fn other(self) -> Self {
        match self {
            Self::A4 => Self::Letter,
            Self::Letter => Self::A4,
        }
    }

    /// Across and along, upright.
    #[must_use]
    pub const fn extent(self) -> (Length, Length) {
        match self {
            Self::A4 => (Length::new_mm(210.0), Length::new_mm(297.0)),
            Self::Letter => (Length::new_mm(215.9), Length::new_mm(279.4)),
        }
    }
}
