//! The clock station on the wire.

use crate::wire::{MINUTE_FORMAT, SentenceView, say_all, view};
use ready_slab_core::clock::{Lane, Relay, RelayTask, Step, Zone};
use ready_slab_core::job::{Job, Plan, Reason, WhenLate};
use ready_slab_words::{step, when_late, why};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A moment so long after a job is wanted, by the clocks of the kitchen.
fn shown(job: &Job, zone: Zone, minutes: i64) -> String {
    zone.after(job.input().order.ready_by, minutes).format(MINUTE_FORMAT).to_string()
}

view! {
    /// One bar of the timeline.
    pub struct TaskView(t: &RelayTask, job: &Job, zone: Zone, does: String) {
        /// What.
        step: Step = t.step,
        /// What is done, in words.
        does: String = does,
        /// Where.
        lane: Lane = t.lane,
        /// The lot, from 0.
        lot: u32 = t.lot,
        /// From 1, for the steps up to the dough chill.
        mix: Option<u32> = t.mix.map(|n| n + 1),
        /// From 1, from the cut on.
        tray: Option<u32> = t.tray.map(|n| n + 1),
        /// From 1.
        oven: Option<u32> = t.oven.map(|n| n + 1),
        /// Local time.
        start_at: String = shown(job, zone, t.start_min),
        /// Local time.
        end_at: String = shown(job, zone, t.end_min),
        /// After the wanted time (negative: before).
        start_min: i64 = t.start_min,
        /// After the wanted time.
        end_min: i64 = t.end_min,
        /// Why it lies there; null where only the step after it holds it.
        why: Option<SentenceView> = why(&t.why).map(Into::into),
    }
}

view! {
    /// The clock station.
    pub struct ClockView(relay: &Relay, lots: &[(&Job, &Plan)], zone: Zone, late: &[WhenLate], reasons: &[Reason]) {
        let job = lots[0].0;
        // A relay has tasks of the lots it was laid out for and of no other.
        let does = |t: &RelayTask| lots.get(t.lot as usize).map_or_else(String::new, |(job, plan)| step(t, job, plan));

        /// Start, local time.
        start_at: String = shown(job, zone, relay.start_min),
        /// From start to the wanted time.
        total_min: i64 = -relay.start_min,
        /// Of hands.
        hands_min: i64 = relay.hands_min,
        /// All tasks by start.
        tasks: Vec<TaskView> = relay.tasks.iter().map(|t| TaskView::new(t, job, zone, does(t))).collect(),
        /// What can still be done when the start has passed; empty among other lots.
        when_late: SentenceView = when_late(late).into(),
        /// Why.
        reasons: Vec<SentenceView> = say_all(reasons.iter().filter(|r| !r.is_warning())),
        /// What to mind.
        warnings: Vec<SentenceView> = say_all(reasons.iter().filter(|r| r.is_warning())),
    }
}
