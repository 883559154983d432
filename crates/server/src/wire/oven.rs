//! The oven as a thing, on the wire: where it is hotter, and a thermometer's test of it.

use super::{SentenceView, say, say_all};
use ready_slab_core::error::{Checks, InputErrors};
use ready_slab_core::oven::{HotSpots, OVEN_C, OvenReading, OvenTest, judge_oven};
use ready_slab_core::units::Span;
use ready_slab_words::spot_shades;
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

/// What a map of the oven says.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct HotSpotsView {
    /// How much hotter each cell is than all of them on the whole; null where nothing lay.
    pub hotter_k: Vec<Option<f64>>,
    /// From the coolest to the hottest.
    pub range_k: f64,
    /// Which side is hotter and what helps; null where it is even enough.
    pub advice: Option<SentenceView>,
    /// What the five shades are called.
    pub shades: [String; 5],
    /// And how they look on a screen.
    pub looks: [String; 5],
}

impl From<&HotSpots> for HotSpotsView {
    fn from(spots: &HotSpots) -> Self {
        Self {
            hotter_k: spots.hotter().into_iter().map(|k| k.map(|k| k.k())).collect(),
            range_k: spots.range().k(),
            advice: spots.advice().as_ref().map(say),
            shades: spot_shades(spots.test()).map(str::to_owned),
            looks: spots.test().looks(),
        }
    }
}

/// A reading of a thermometer in the oven.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OvenReadBody {
    /// Since the oven was switched on, 0 to 360.
    pub after_min: f64,
    /// What it shows, 0 to 350.
    pub shows_c: f64,
}

impl From<&OvenReading> for OvenReadBody {
    fn from(r: &OvenReading) -> Self {
        Self { after_min: r.after_min, shows_c: r.shows_c }
    }
}

/// A test of the oven at a setting.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OvenTestBody {
    /// Set to, 100 to 260.
    pub set_c: f64,
    /// 10 to 720 readings in their order.
    pub readings: Vec<OvenReadBody>,
}

impl OvenTestBody {
    /// What it says.
    pub fn judged(&self) -> Result<OvenTest, InputErrors> {
        let read = |r: &OvenReadBody| OvenReading { after_min: r.after_min, shows_c: r.shows_c };
        judge_oven(self.set_c, &self.readings.iter().map(read).collect::<Vec<_>>())
    }
}

/// What a test says of the oven.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct OvenTestView {
    /// Until it had heated up; null where it was warm to begin with.
    pub preheat_min: Option<f64>,
    /// On the whole, once it had.
    pub holds_c: f64,
    /// To either side of that.
    pub swing_k: f64,
    /// How far it fell with the door; null where it stayed shut.
    pub door_dip_k: Option<f64>,
    /// Until two thirds of that were back.
    pub recovery_min: Option<f64>,
    /// What it says, as sentences.
    pub reasons: Vec<SentenceView>,
}

impl From<&OvenTest> for OvenTestView {
    fn from(t: &OvenTest) -> Self {
        Self {
            preheat_min: t.preheat.map(Span::min),
            holds_c: t.holds.c(),
            swing_k: t.swing.k(),
            door_dip_k: t.door_dip.map(|k| k.k()),
            recovery_min: t.recovery.map(Span::min),
            reasons: say_all(&t.reasons),
        }
    }
}

/// How the stand-in thermometer reads.
#[derive(Debug, Clone, Copy, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct ThermometerQuery {
    /// The oven is set to, 140 to 220.
    pub set_c: f64,
    /// So many times as fast as our clock, 1 to 3600.
    #[serde(default = "usual_speed")]
    pub speed: f64,
}

fn usual_speed() -> f64 {
    600.0
}

impl ThermometerQuery {
    /// The same within its ranges.
    pub fn checked(self) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        checks.range("set_c", self.set_c, *OVEN_C.start(), *OVEN_C.end(), "\u{b0}C");
        checks.range("speed", self.speed, 1.0, 3600.0, "times");
        checks.finish(self)
    }
}
