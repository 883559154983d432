//! Evenness over time on the wire.

use super::sentence::{SentenceView, say, say_all};
use chrono::{Datelike as _, NaiveDateTime};
use ready_slab_core::clock::MINUTE_FORMAT;
use ready_slab_core::error::{Checks, InputErrors};
use ready_slab_core::ledger::{EvenMeasure, LEAST_TRAYS, MeasuredTray, NoChance, Point, control_charts, evenness};
use ready_slab_core::units::Length;
use ready_slab_store::StoredRecord;
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

const fn width() -> EvenMeasure {
    EvenMeasure::Width
}

/// What is to be looked at, and against what.
#[derive(Debug, Clone, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct BakesEvenQuery {
    /// Widths when absent.
    #[serde(default = "width")]
    #[param(inline)]
    measure: EvenMeasure,
    /// To either side, 0.05 to 50; 1 mm of widths and 0.5 mm of thicknesses when absent.
    tolerance_mm: Option<f64>,
    /// What is wanted, 0.5 to 600; the mean of what came out when absent.
    wanted_mm: Option<f64>,
}

/// A point of a chart.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PointView {
    /// The value.
    pub value_mm: f64,
    /// Chance keeps it over this.
    pub low_mm: f64,
    /// And under this.
    pub high_mm: f64,
    /// What is no chance about it; null where nothing.
    pub says: Option<SentenceView>,
}

impl PointView {
    fn new(p: &Point, of: impl Fn(ready_slab_core::ledger::Signal) -> NoChance) -> Self {
        let says = p.signal.map(|s| say(&of(s)));
        Self { value_mm: p.value.mm(), low_mm: p.low.mm(), high_mm: p.high.mm(), says }
    }
}

/// A tray of the charts.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TrayPointView {
    /// Its record.
    pub record_id: i64,
    /// By the kitchen's clock.
    pub recorded_at: String,
    /// Pieces measured.
    pub pieces: usize,
    /// Its mean.
    pub mean: PointView,
    /// Its largest less its smallest.
    pub range: PointView,
}

/// The charts.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ChartsView {
    /// Trays, the oldest first.
    pub trays: Vec<TrayPointView>,
    /// Mean of all pieces.
    pub mean_mm: f64,
    /// One standard deviation of a piece within its tray, by the ranges.
    pub sd_within_mm: f64,
    /// Of all that varies: within trays.
    pub within_percent: f64,
    /// Between trays of a day.
    pub trays_percent: f64,
    /// Between days.
    pub days_percent: f64,
    /// What is wanted.
    pub wanted_mm: f64,
    /// Cp: tolerance over six deviations within a tray.
    pub could: f64,
    /// Ppk: to the nearer limit, over three deviations of all.
    pub does: f64,
    /// Pieces beyond the tolerance.
    pub beyond_percent: f64,
    /// What it comes to, a sentence each.
    pub says: Vec<SentenceView>,
}

/// Evenness of a cutter's pieces of one dough over time.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BakesEvenView {
    /// What is looked at.
    pub measure: EvenMeasure,
    /// To either side.
    pub tolerance_mm: f64,
    /// Trays with two pieces and more that were measured.
    pub measured: usize,
    /// Trays that are needed.
    pub needed: usize,
    /// Null with too few trays, or where all pieces are alike.
    pub charts: Option<ChartsView>,
}

/// The records that hold more than one piece of a measure, and these as trays.
pub fn measured_trays(records: &[StoredRecord], measure: EvenMeasure) -> (Vec<&StoredRecord>, Vec<MeasuredTray>) {
    let pieces = |r: &StoredRecord| match measure {
        EvenMeasure::Width => r.kept.record.widths().to_vec(),
        EvenMeasure::Thickness => r.kept.record.thicknesses().to_vec(),
    };
    let day = |r: &StoredRecord| {
        NaiveDateTime::parse_from_str(&r.kept.recorded_at, MINUTE_FORMAT).map_or(0, |t| t.date().num_days_from_ce())
    };
    let told: Vec<&StoredRecord> = records.iter().filter(|r| pieces(r).len() > 1).collect();
    let trays = told.iter().map(|r| MeasuredTray { day: day(r).into(), pieces: pieces(r) }).collect();
    (told, trays)
}

impl BakesEvenQuery {
    /// Of records of one cutter and dough, the oldest first.
    pub fn of(&self, records: &[StoredRecord]) -> Result<BakesEvenView, InputErrors> {
        let tolerance = self.tolerance_mm.unwrap_or_else(|| self.measure.usual_tolerance().mm());
        let mut checks = Checks::new();
        checks.range("tolerance_mm", tolerance, 0.05, 50.0, "mm");
        if let Some(wanted) = self.wanted_mm {
            checks.range("wanted_mm", wanted, 0.5, 600.0, "mm");
        }
        checks.finish(())?;
        let (told, trays) = measured_trays(records, self.measure);
        let tolerance = Length::new_mm(tolerance);
        let charts = control_charts(&trays).map(|c| {
            let wanted = self.wanted_mm.map_or(c.mean, Length::new_mm);
            let capable = c.capability(wanted, tolerance);
            let says = say_all(&evenness(self.measure, &c.varies, &capable, tolerance));
            let trays = told.iter().zip(&trays).zip(c.means.iter().zip(&c.ranges));
            ChartsView {
                trays: trays
                    .map(|((record, tray), (mean, range))| TrayPointView {
                        record_id: record.id.0,
                        recorded_at: record.kept.recorded_at.clone(),
                        pieces: tray.pieces.len(),
                        mean: PointView::new(mean, |s| NoChance::Mean(self.measure, s)),
                        range: PointView::new(range, NoChance::Range),
                    })
                    .collect(),
                mean_mm: c.mean.mm(),
                sd_within_mm: c.sd_within.mm(),
                within_percent: 100.0 * c.varies.within.value(),
                trays_percent: 100.0 * c.varies.trays.value(),
                days_percent: 100.0 * c.varies.days.value(),
                wanted_mm: wanted.mm(),
                could: capable.could,
                does: capable.does,
                beyond_percent: 100.0 * capable.beyond.value(),
                says,
            }
        });
        Ok(BakesEvenView {
            measure: self.measure,
            tolerance_mm: tolerance.mm(),
            measured: trays.len(),
            needed: LEAST_TRAYS,
            charts,
        })
    }
}
