//! Sheets that a job keeps for several lots.

use crate::error::{Checks, InputError};
use crate::geometry::Placement;
use crate::shape::{MOST_MIXED_SHEETS, MOST_SEARCHED, SHEET_MM};
use serde::{Deserialize, Serialize};

/// A sheet from which the pieces of several lots are cut.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, utoipa::ToSchema)]
#[schema(as = MixedSheetBody)]
#[serde(deny_unknown_fields)]
pub struct KeptSheet {
    /// Its length; it is as wide as the lots' largest sheet.
    pub length_mm: f64,
    /// In the order of cutting.
    pub pieces: Vec<KeptPiece>,
}

/// Whose piece lies where.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, utoipa::ToSchema)]
#[schema(as = MixedPieceBody)]
#[serde(deny_unknown_fields)]
pub struct KeptPiece {
    /// The lot.
    pub job_id: i64,
    /// Centre along the width.
    pub x_mm: f64,
    /// Centre along the length.
    pub y_mm: f64,
    /// Turn.
    pub turn_deg: f64,
}

impl KeptPiece {
    /// Where it lies.
    #[must_use]
    pub fn at(&self) -> Placement {
        Placement { x_mm: self.x_mm, y_mm: self.y_mm, turn_deg: self.turn_deg }
    }
}

/// Whether sheets that are to be kept for several lots can be: how many, how long, and all pieces somewhere on them.
pub(crate) fn check_kept(checks: &mut Checks, sheets: &[KeptSheet]) {
    checks.limit("mixed", sheets.len(), MOST_MIXED_SHEETS, "sheets");
    for (i, sheet) in sheets.iter().enumerate() {
        checks.range(&format!("mixed[{i}].length_mm"), sheet.length_mm, SHEET_MM.0, SHEET_MM.1, "mm");
        checks.limit(&format!("mixed[{i}].pieces"), sheet.pieces.len(), MOST_SEARCHED, "cookies");
        if let Some(at) = sheet.pieces.iter().position(|p| !on_a_sheet(&p.at())) {
            checks.push(InputError::refused(format!("mixed[{i}].pieces[{at}]"), "This position isn’t on the sheet."));
        }
    }
}

/// Whether a piece lies anywhere on the largest sheet.
pub(crate) fn on_a_sheet(p: &Placement) -> bool {
    [p.x_mm, p.y_mm].iter().all(|v| (0.0..=SHEET_MM.1).contains(v)) && (-720.0..=720.0).contains(&p.turn_deg)
}
