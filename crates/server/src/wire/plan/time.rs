//! Moments of a plan on the wire.

use ready_slab_core::clock::MINUTE_FORMAT;
use ready_slab_core::job::{Job, Plan};

/// So many minutes after the wanted time, by the kitchen's clock.
pub(super) fn time(plan: &Plan, job: &Job, minutes_after: i64) -> String {
    plan.at(job, minutes_after).format(MINUTE_FORMAT).to_string()
}
