//! The cold, as it is decided.

use crate::cold::ColdPlace;
use crate::error::Checks;
use crate::job::settings::chill_choice::{ChillFor, DoughForm, LONGEST_CHILL_MIN, MOST_STACKED, Thaw, USUAL_CHILL_MIN};

room! {
    /// How dough and cookies chill.
    pub struct ColdInput as JobCold {
        /// In which form the dough lies in the cold before it is cut.
        #[schema(required)]
        pub dough_form: DoughForm = DoughForm::Disc,
        /// Of sheets: so many lie on each other, 1 to 6.
        pub sheet_stack: u32 = 1,
        /// Discs pressed to, 8 to 80.
        #[schema(required)]
        pub disc_mm: f64 = 22.0,
        /// How long the dough chills; until ready when null, and not at all where it is portioned.
        pub dough_for: Option<ChillFor> = None,
        /// With `at_least` and `exactly`: so long, 1 to 4,320.
        pub dough_for_min: f64 = USUAL_CHILL_MIN.0,
        /// Where the dough chills.
        #[schema(required)]
        pub chill_place: ColdPlace = ColdPlace::Fridge,
        /// How long the shaped pieces chill; until ready when null, and not at all where they are slices or come from chilled dough.
        pub pieces_for: Option<ChillFor> = None,
        /// With `at_least` and `exactly`: so long, 1 to 4,320.
        pub pieces_for_min: f64 = USUAL_CHILL_MIN.1,
        /// Where the shaped pieces chill.
        #[schema(required)]
        pub tray_chill_place: ColdPlace = ColdPlace::Fridge,
        /// Of a log that is sliced: how long its dough chills as a lump before it is formed.
        pub bulk_for: ChillFor = ChillFor::No,
        /// With `at_least` and `exactly`: so long, 1 to 4,320.
        pub bulk_for_min: f64 = USUAL_CHILL_MIN.0,
        /// Where its dough is ready in the freezer, how it thaws; null where it is mixed for the job. Portions that are formed first are always of
        /// fresh dough.
        pub thaws: Option<Thaw> = None,
        /// The dough rests at least so long for its flour, 0 to 720; as long as its method usually rests when null.
        pub flour_rest_min: Option<f64> = None,
    }
}

impl ColdInput {
    pub(crate) fn check(&self, checks: &mut Checks) {
        checks.range("disc_mm", self.disc_mm, 8.0, 80.0, "mm");
        checks.range("sheet_stack", f64::from(self.sheet_stack), 1.0, f64::from(MOST_STACKED), "sheets");
        for (field, min) in [
            ("dough_for_min", self.dough_for_min),
            ("pieces_for_min", self.pieces_for_min),
            ("bulk_for_min", self.bulk_for_min),
        ] {
            checks.range(field, min, 1.0, LONGEST_CHILL_MIN, "min");
        }
        if let Some(rest) = self.flour_rest_min {
            checks.range("flour_rest_min", rest, 0.0, 720.0, "min");
        }
    }
}
