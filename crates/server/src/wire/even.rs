//! The evenness of a sheet on the wire.

use super::{SentenceView, say_all};
use ready_slab_core::error::InputErrors;
use ready_slab_core::job::EvenBake;
use ready_slab_core::shape::{Evenness, SheetReadings, SpotIs};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

/// Thickness read on one sheet, at the middles of the cells of a grid.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ReadingsBody {
    /// Across the sheet, 1 to 8.
    pub columns: u32,
    /// Along the sheet, 1 to 8.
    pub rows: u32,
    /// Row by row, 0.5 to 40, null where nothing was read.
    pub read_mm: Vec<Option<f64>>,
}

impl From<&SheetReadings> for ReadingsBody {
    fn from(read: &SheetReadings) -> Self {
        Self {
            columns: read.columns(),
            rows: read.rows(),
            read_mm: read.read().iter().map(|r| r.map(|l| l.mm())).collect(),
        }
    }
}

impl ReadingsBody {
    /// The readings, checked.
    pub fn readings(&self) -> Result<SheetReadings, InputErrors> {
        SheetReadings::new(self.columns, self.rows, &self.read_mm)
    }
}

/// Which sheet.
#[derive(Debug, Clone, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct EvenQuery {
    /// Counted from 0, in the order of cutting.
    #[serde(default)]
    pub sheet: usize,
}

/// How even a sheet is.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct EvenView {
    /// Of all readings.
    pub mean_mm: f64,
    /// The thinnest.
    pub least_mm: f64,
    /// The thickest.
    pub most_mm: f64,
    /// What each reading is, row by row; null where nothing was read.
    pub spots: Vec<Option<SpotIs>>,
    /// The map between them, row by row, as many cells each way as `map_cells`.
    pub map_mm: Vec<f64>,
    /// Each way.
    pub map_cells: u32,
    /// Middle of the bake time of the thinnest pieces.
    pub thin_min: f64,
    /// Middle of the bake time of the thickest pieces.
    pub thick_min: f64,
    /// Whether they may lie on one tray.
    pub one_tray: bool,
    /// What to do, as sentences.
    pub advice: Vec<SentenceView>,
}

impl EvenView {
    /// As judged.
    pub fn new(even: &Evenness, bake: EvenBake) -> Self {
        Self {
            mean_mm: even.mean.mm(),
            least_mm: even.least.mm(),
            most_mm: even.most.mm(),
            spots: even.spots.iter().map(|s| s.map(Into::into)).collect(),
            map_mm: even.map.iter().map(|m| m.mm()).collect(),
            map_cells: even.map_cells,
            thin_min: bake.thin.min(),
            thick_min: bake.thick.min(),
            one_tray: bake.one_tray,
            advice: say_all(&bake.advice),
        }
    }
}
