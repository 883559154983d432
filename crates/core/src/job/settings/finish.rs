//! The finish, as it is decided.

use crate::error::Checks;
use crate::finish::{Finish, MOST_COATS};

room! {
    /// What goes onto or between them.
    pub struct FinishInput as JobFinish {
        /// What goes onto or between the pieces, at most 4.
        pub finishes: Vec<Finish> = vec![],
    }
}

impl FinishInput {
    pub(crate) fn check(&self, checks: &mut Checks) {
        checks.limit("finishes", self.finishes.len(), MOST_COATS, "finishes");
        for (i, finish) in self.finishes.iter().enumerate() {
            checks.take(&format!("finishes[{i}]"), finish.checked());
        }
    }
}
