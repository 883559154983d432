//! Paper, whose size is a standard: to print on, and to measure by.

use crate::units::Length;
#[cfg(feature = "wire")]
use serde::{Deserialize, Serialize};

/// Paper as it is sold for household printers.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[cfg_attr(feature = "wire", derive(Serialize, Deserialize, utoipa::ToSchema), serde(rename_all = "snake_case"))]
pub enum PaperSize {
    /// ISO 216: 210 by 297 mm.
    A4,
    /// ANSI/ASME Y14.1, size A: 8 1/2 by 11 in.
    Letter,
}

impl PaperSize {
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
