//! The dough, as it is decided.

use crate::dough::{MixMethod, Tint, TintInput};
use crate::error::Checks;

room! {
    /// How its dough is weighed and mixed.
    pub struct DoughInput as JobDough {
        /// How the dough is mixed.
        #[schema(required)]
        pub method: MixMethod = MixMethod::JustCombined,
        /// Dough out of the mixer as measured, -5 to 35; computed when null.
        pub dough_c: Option<f64> = None,
        /// Flour kept aside to be added by feel, 0 to 20.
        pub hold_back_percent: f64 = 0.0,
        /// Whether eggs are used whole.
        pub whole_eggs: bool = false,
        /// Portions that are coloured, at most 8, together at most 100 %.
        pub tints: Vec<TintInput> = vec![],
    }
}

impl DoughInput {
    pub(crate) fn checked(&self, checks: &mut Checks) -> Option<Vec<Tint>> {
        if let Some(dough_c) = self.dough_c {
            checks.range("dough_c", dough_c, -5.0, 35.0, "\u{b0}C");
        }
        checks.range("hold_back_percent", self.hold_back_percent, 0.0, 20.0, "% of the flour");
        checks.keep(Tint::list(&self.tints))
    }
}
