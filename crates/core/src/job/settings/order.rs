//! What is asked for, as it is decided.

use crate::error::Checks;
use crate::job::settings::ready_means::ReadyMeans;
use chrono::NaiveDateTime;

room! {
    /// What is asked for, and what it has to do with other jobs.
    pub struct OrderInput as JobOrder {
        /// Its name, 1 to 80 characters.
        #[schema(required)]
        pub name: String = String::new(),
        /// Number of its formula.
        #[schema(required)]
        pub formula_id: i64 = 0,
        /// The version of the formula it keeps; null while it follows the newest.
        pub formula_version: Option<u32> = None,
        /// Number of its cutter.
        #[schema(required)]
        pub cutter_id: i64 = 0,
        /// 1 to 20,000.
        #[schema(required)]
        pub pieces: u32 = 24,
        /// Of the pieces, kept as dough in the freezer; at least one is baked.
        pub freeze_pieces: u32 = 0,
        /// Wanted at, local time, `2026-11-28T14:00`.
        #[serde(with = "crate::clock::minute")]
        #[schema(value_type = String, required, default = "2026-11-28T14:00")]
        pub ready_by: NaiveDateTime = NaiveDateTime::default(),
        /// What is done by then; null: all finished and dry where something goes on after the bake, else all cool.
        pub ready_means: Option<ReadyMeans> = None,
        /// The job whose mixes also hold this one's dough.
        pub dough_with: Option<i64> = None,
        /// The job of which it is a lot.
        pub lot_of: Option<i64> = None,
    }
}

impl OrderInput {
    pub(crate) fn check(&self, checks: &mut Checks) {
        checks.text("name", &self.name, 80, "a name");
        checks.range("pieces", f64::from(self.pieces), 1.0, 20_000.0, "cookies");
        if let Some(most) = self.pieces.checked_sub(1) {
            let unit = "cookies";
            checks.range("freeze_pieces", f64::from(self.freeze_pieces), 0.0, f64::from(most), unit);
        }
    }
}
