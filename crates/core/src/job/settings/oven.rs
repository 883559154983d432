//! The bake, as it is decided.

use crate::error::Checks;
use crate::oven::{BakeEnd, BakeSetting, EdgeColour, START_C, TrayLiner};

room! {
    /// How they bake.
    pub struct OvenInput as JobOven {
        /// Oven set to, 100 to 260; outside 140 to 220 common practice stands in for the forecast.
        #[schema(required)]
        pub oven_c: f64 = 175.0,
        /// What ends its bake.
        pub bake_end: BakeEnd = BakeEnd::Colour(EdgeColour::JustGolden),
        /// What lies between tray and piece.
        pub liner: TrayLiner = TrayLiner::Parchment,
        /// The pieces as they go into the oven as measured, -20 to 28; as their chill leaves them when null.
        pub goes_in_c: Option<f64> = None,
    }
}

impl OvenInput {
    pub(crate) fn check(&self, checks: &mut Checks) {
        // The fan is the kitchen's; the range of the setting is the same with or without.
        checks.keep(BakeSetting::new(self.oven_c, false));
        if let Some(goes_in_c) = self.goes_in_c {
            checks.range("goes_in_c", goes_in_c, *START_C.start(), *START_C.end(), "\u{b0}C");
        }
    }
}
