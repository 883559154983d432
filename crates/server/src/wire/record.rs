//! Bake records on the wire.

use super::{MovedView, view};
use ready_slab_core::job::Conditions;
use ready_slab_core::ledger::AgainstExpected;
use ready_slab_core::oven::EdgeColour;
use ready_slab_store::StoredRecord;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A tray of a run.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TrayOfRun {
    /// The run.
    pub run_id: i64,
    /// Which of its job's trays, from 1.
    pub tray: u32,
}

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
    pub edge_colour: EdgeColour,
    /// At most 2,000 characters.
    #[serde(default)]
    pub notes: String,
    /// What it was baked with, where that was not as planned.
    #[serde(default)]
    pub conditions: Conditions,
    /// The tray of a run that it was; null of a bake without one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub of_tray: Option<TrayOfRun>,
}

view! {
    /// A kept record, with what was expected.
    pub struct RecordView(stored: &StoredRecord) {
        let kept = &stored.kept;
        let record = &kept.record;
        let found = record.findings();

        /// Its number.
        id: i64 = stored.id.0,
        /// By the kitchen's clock.
        recorded_at: String = kept.recorded_at.clone(),
        /// The version of the formula that was baked.
        formula_version: Option<u32> = kept.formula_version,
        /// Whether it holds what it was baked with; without that it teaches nothing.
        complete: bool = kept.as_baked.is_some(),
        /// Whether the photo that it was measured by is kept.
        has_photo: bool = stored.has_photo,
        /// Whether it is left out of what bakes teach.
        left_out: bool = stored.left_out,
        /// What it moved when it was recorded; null where it moved nothing.
        moved: Option<MovedView> = stored.moved.as_ref().map(Into::into),
        /// The kitchen it was baked in.
        kitchen: Option<String> = kept.as_baked.as_ref().map(|b| b.kitchen.input().house.name.clone()),
        /// As cut.
        cut_width_mm: f64 = record.cut_width().mm(),
        /// As cut.
        cut_thickness_mm: f64 = record.cut_thickness().mm(),
        /// What was measured.
        #[serde(flatten)]
        body: RecordBody = RecordBody {
            widths_mm: record.widths().iter().map(|l| l.mm()).collect(),
            thicknesses_mm: record.thicknesses().iter().map(|l| l.mm()).collect(),
            baked_min: record.baked().map(|s| s.min()),
            edge_colour: record.edge(),
            notes: record.notes().to_owned(),
            conditions: kept.as_baked.as_ref().map(Conditions::of).unwrap_or_default(),
            of_tray: kept.of_run.map(|(run, tray)| TrayOfRun { run_id: run.0, tray }),
        },
        /// Mean of the widths.
        mean_width_mm: f64 = found.mean_width.mm(),
        /// Mean of the thicknesses, where measured.
        mean_thickness_mm: Option<f64> = found.mean_thickness.map(|l| l.mm()),
        /// Growth across, of the mean width.
        spread_percent: f64 = 100.0 * found.spread.value(),
        /// The same against what was expected then.
        spread_against: AgainstExpected = found.spread_against(kept.expected_spread),
        /// The minutes against what was expected then; null where they were not noted.
        baked_against: Option<AgainstExpected> = record.baked().map(|b| AgainstExpected::of(b, kept.expected_bake)),
        /// Growth across of each piece.
        spreads_percent: Vec<f64> = found.spreads.iter().map(|s| 100.0 * s.value()).collect(),
        /// Width over thickness after baking.
        spread_factor: Option<f64> = found.spread_factor,
        /// Widest less narrowest.
        width_range_mm: f64 = found.width_range.mm(),
        /// Expected then.
        expected_bake_least_min: f64 = kept.expected_bake.0.min(),
        /// Expected then.
        expected_bake_most_min: f64 = kept.expected_bake.1.min(),
        /// Expected then.
        expected_spread_least_percent: f64 = 100.0 * kept.expected_spread.0.value(),
        /// Expected then.
        expected_spread_most_percent: f64 = 100.0 * kept.expected_spread.1.value(),
    }
}
