//! Bake records on the wire.

use ready_slab_core::cold::TrayKind;
use ready_slab_core::dough::Formula;
use ready_slab_core::error::InputErrors;
use ready_slab_core::geometry::Outline;
use ready_slab_core::job::{Job, JobInput, Kitchen, KitchenInput};
use ready_slab_core::ledger::AgainstExpected;
use ready_slab_core::oven::{BakeEnd, EdgeColour, TrayLiner};
use ready_slab_core::units::Temperature;
use ready_slab_store::{AsBaked, StoredRecord};
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
    pub edge_colour: EdgeColour,
    /// At most 2,000 characters.
    #[serde(default)]
    pub notes: String,
    /// What it was baked with, where that was not as planned.
    #[serde(default)]
    pub conditions: ConditionsBody,
}

/// What a bake was baked with. Null is as the plan has it; of a record made before this was kept, it is not known.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct ConditionsBody {
    /// Oven set to, 140 to 220.
    pub oven_c: Option<f64>,
    /// With a fan.
    pub oven_fan: Option<bool>,
    /// The tray.
    pub tray_kind: Option<TrayKind>,
    /// What lay under the pieces.
    pub liner: Option<TrayLiner>,
    /// What ended it.
    pub bake_end: Option<BakeEnd>,
    /// The pieces as they went in, -25 to 35.
    pub start_c: Option<f64>,
}

impl ConditionsBody {
    /// What a bake was baked with: as planned, but for what is said here.
    pub fn as_baked(
        &self,
        job: &Job,
        formula: &Formula,
        outline: &Outline,
        kitchen: &Kitchen,
        planned: Temperature,
    ) -> Result<AsBaked, InputErrors> {
        let (j, k) = (job.input(), kitchen.input());
        let mut checks = ready_slab_core::error::Checks::new();
        if let Some(c) = self.start_c {
            checks.range("start_c", c, -25.0, 35.0, "\u{b0}C");
        }
        checks.finish(()).map_err(|e| e.within("conditions"))?;
        let job = Job::new(JobInput {
            oven_c: self.oven_c.unwrap_or(j.oven_c),
            liner: self.liner.map_or(j.liner, Into::into),
            bake_end: self.bake_end.map_or(j.bake_end, Into::into),
            ..j.clone()
        });
        let kitchen = Kitchen::new(KitchenInput {
            oven_fan: self.oven_fan.unwrap_or(k.oven_fan),
            tray_kind: self.tray_kind.map_or(k.tray_kind, Into::into),
            ..k.clone()
        })?;
        Ok(AsBaked {
            job: job.map_err(|e| e.within("conditions"))?,
            formula: formula.clone(),
            outline: outline.clone(),
            kitchen,
            start: self.start_c.map_or(planned, Temperature::new_c),
        })
    }

    fn of(baked: &AsBaked) -> Self {
        let (j, k) = (baked.job.input(), baked.kitchen.input());
        Self {
            oven_c: Some(j.oven_c),
            oven_fan: Some(k.oven_fan),
            tray_kind: Some(k.tray_kind),
            liner: Some(j.liner),
            bake_end: Some(j.bake_end),
            start_c: Some(baked.start.c()),
        }
    }
}

/// A kept record, with what was expected.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct RecordView {
    /// Its number.
    pub id: i64,
    /// By the kitchen's clock.
    pub recorded_at: String,
    /// The version of the formula that was baked.
    pub formula_version: Option<u32>,
    /// Whether it holds what it was baked with; without that it teaches nothing.
    pub complete: bool,
    /// The kitchen it was baked in.
    pub kitchen: Option<String>,
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
    /// The same against what was expected then.
    pub spread_against: AgainstExpected,
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
            formula_version: kept.formula_version,
            complete: kept.as_baked.is_some(),
            kitchen: kept.as_baked.as_ref().map(|b| b.kitchen.input().name.clone()),
            cut_width_mm: record.cut_width().mm(),
            cut_thickness_mm: record.cut_thickness().mm(),
            body: RecordBody {
                widths_mm: record.widths().iter().map(|l| l.mm()).collect(),
                thicknesses_mm: record.thicknesses().iter().map(|l| l.mm()).collect(),
                baked_min: record.baked().map(|s| s.min()),
                edge_colour: record.edge(),
                notes: record.notes().to_owned(),
                conditions: kept.as_baked.as_ref().map(ConditionsBody::of).unwrap_or_default(),
            },
            mean_width_mm: found.mean_width.mm(),
            mean_thickness_mm: found.mean_thickness.map(|l| l.mm()),
            spread_percent: 100.0 * found.spread.value(),
            spread_against: found.spread_against(kept.expected_spread),
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
