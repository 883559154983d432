//! The oven as a thing, on the wire: where it is hotter, and a thermometer's test of it.

use super::{SentenceView, say, say_all, view};
use ready_slab_core::error::{Checks, InputErrors};
use ready_slab_core::oven::{HotSpots, OvenReading, OvenTest, SETTING_C, judge_oven};
use ready_slab_core::units::Span;
use ready_slab_words::spot_shades;
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

view! {
    /// What a map of the oven says.
    pub struct HotSpotsView(spots: &HotSpots) {
        /// How much hotter each cell is than all of them on the whole; null where nothing lay.
        hotter_k: Vec<Option<f64>> = spots.hotter().into_iter().map(|k| k.map(|k| k.k())).collect(),
        /// From the coolest to the hottest.
        range_k: f64 = spots.range().k(),
        /// Which side is hotter and what helps; null where it is even enough.
        advice: Option<SentenceView> = spots.advice().as_ref().map(say),
        /// What the five shades are called.
        shades: [String; 5] = spot_shades(spots.test()).map(str::to_owned),
        /// And how they look on a screen.
        looks: [String; 5] = spots.test().looks(),
    }
}

/// A test of the oven at a setting.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OvenTestBody {
    /// Set to, 100 to 260.
    pub set_c: f64,
    /// 10 to 720 readings in their order.
    pub readings: Vec<OvenReading>,
}

impl OvenTestBody {
    /// What it says.
    pub fn judged(&self) -> Result<OvenTest, InputErrors> {
        judge_oven(self.set_c, &self.readings)
    }
}

view! {
    /// What a test says of the oven.
    pub struct OvenTestView(t: &OvenTest) {
        /// Until it had heated up; null where it was warm to begin with.
        preheat_min: Option<f64> = t.preheat.map(Span::min),
        /// On the whole, once it had.
        holds_c: f64 = t.holds.c(),
        /// To either side of that.
        swing_k: f64 = t.swing.k(),
        /// How far it fell with the door; null where it stayed shut.
        door_dip_k: Option<f64> = t.door_dip.map(|k| k.k()),
        /// Until two thirds of that were back.
        recovery_min: Option<f64> = t.recovery.map(Span::min),
        /// What it says, as sentences.
        reasons: Vec<SentenceView> = say_all(&t.reasons),
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
        checks.range("set_c", self.set_c, *SETTING_C.start(), *SETTING_C.end(), "\u{b0}C");
        checks.range("speed", self.speed, 1.0, 3600.0, "times");
        checks.finish(self)
    }
}
