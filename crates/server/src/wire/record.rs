//! Bake records on the wire.

use super::EdgeWord;
use ready_slab_store::StoredRecord;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What came out of the oven.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RecordBody {
    /// Widths after baking, 1 to 60 pieces, measured where the cutter is widest.
    pub widths_mm: Vec<f64>,
    /// Thicknesses after baking; may be empty.
    #[serde(default)]
    pub thicknesses_mm: Vec<f64>,
    /// Time in the oven, 1 to 120; null when not noted.
    #[serde(default)]
    pub baked_min: Option<f64>,
    /// Colour of the edge.
    pub edge_colour: EdgeWord,
    /// At most 2,000 characters.
    #[serde(default)]
    pub notes: String,
}

/// A kept record, with what was expected.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct RecordView {
    /// Its number.
    pub id: i64,
    /// Local time.
    pub recorded_at: String,
    /// As cut.
    pub cut_width_mm: f64,
    /// As cut.
    pub cut_thickness_mm: f64,
    /// What was measured.
    #[serde(flatten)]
    pub body: RecordBody,
    /// Mean of the widths.
    pub mean_width_mm: f64,
    /// Mean of the thicknesses, where measured.
    pub mean_thickness_mm: Option<f64>,
    /// Growth across, of the mean width.
    pub spread_percent: f64,
    /// Growth across of each piece.
    pub spreads_percent: Vec<f64>,
    /// Width over thickness after baking.
    pub spread_factor: Option<f64>,
    /// Widest less narrowest.
    pub width_range_mm: f64,
    /// Expected then.
    pub expected_bake_least_min: f64,
    /// Expected then.
    pub expected_bake_most_min: f64,
    /// Expected then.
    pub expected_spread_least_percent: f64,
    /// Expected then.
    pub expected_spread_most_percent: f64,
}

impl From<&StoredRecord> for RecordView {
    fn from(stored: &StoredRecord) -> Self {
        let kept = &stored.kept;
        let record = &kept.record;
        let found = record.findings();
        Self {
            id: stored.id.0,
            recorded_at: kept.recorded_at.clone(),
            cut_width_mm: record.cut_width().mm(),
            cut_thickness_mm: record.cut_thickness().mm(),
            body: RecordBody {
                widths_mm: record.widths().iter().map(|l| l.mm()).collect(),
                thicknesses_mm: record.thicknesses().iter().map(|l| l.mm()).collect(),
                baked_min: record.baked().map(|s| s.min()),
                edge_colour: record.edge().into(),
                notes: record.notes().to_owned(),
            },
            mean_width_mm: found.mean_width.mm(),
            mean_thickness_mm: found.mean_thickness.map(|l| l.mm()),
            spread_percent: 100.0 * found.spread.value(),
            spreads_percent: found.spreads.iter().map(|s| 100.0 * s.value()).collect(),
            spread_factor: found.spread_factor,
            width_range_mm: found.width_range.mm(),
            expected_bake_least_min: kept.expected_bake.0.min(),
            expected_bake_most_min: kept.expected_bake.1.min(),
            expected_spread_least_percent: 100.0 * kept.expected_spread.0.value(),
            expected_spread_most_percent: 100.0 * kept.expected_spread.1.value(),
        }
    }
}
