//! The clock station on the wire.

use crate::wire::{MINUTE_FORMAT, SentenceView, say_all};
use ready_slab_core::clock::{Lane, Relay, RelayTask, Step, Zone};
use ready_slab_core::job::{Job, Plan, Reason};
use ready_slab_words::why;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One bar of the timeline.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TaskView {
    /// What.
    pub step: Step,
    /// Where.
    pub lane: Lane,
    /// The lot, from 0.
    pub lot: u32,
    /// From 1, for the steps up to the dough chill.
    pub mix: Option<u32>,
    /// From 1, from the cut on.
    pub tray: Option<u32>,
    /// From 1.
    pub oven: Option<u32>,
    /// Local time.
    pub start_at: String,
    /// Local time.
    pub end_at: String,
    /// After the wanted time (negative: before).
    pub start_min: i64,
    /// After the wanted time.
    pub end_min: i64,
    /// Why it lies there; null where only the step after it holds it.
    pub why: Option<SentenceView>,
}

/// The clock station.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ClockView {
    /// Start, local time.
    pub start_at: String,
    /// From start to the wanted time.
    pub total_min: i64,
    /// Of hands.
    pub hands_min: i64,
    /// All tasks by start.
    pub tasks: Vec<TaskView>,
    /// Why.
    pub reasons: Vec<SentenceView>,
}

pub(super) fn clock(plan: &Plan, job: &Job) -> ClockView {
    ClockView::new(&plan.clock.relay, job, plan.clock.zone, &plan.clock.reasons)
}

impl ClockView {
    /// A relay as it is sent; `job` says when it is wanted, by the clocks of `zone`.
    pub(in crate::wire) fn new(relay: &Relay, job: &Job, zone: Zone, reasons: &[Reason]) -> Self {
        let time = |minutes: i64| zone.after(job.input().ready_by, minutes).format(MINUTE_FORMAT).to_string();
        let task = |t: &RelayTask| TaskView {
            step: t.step,
            lane: t.lane,
            lot: t.lot,
            mix: t.mix.map(|n| n + 1),
            tray: t.tray.map(|n| n + 1),
            oven: t.oven.map(|n| n + 1),
            start_at: time(t.start_min),
            end_at: time(t.end_min),
            start_min: t.start_min,
            end_min: t.end_min,
            why: why(&t.why).map(Into::into),
        };
        ClockView {
            start_at: time(relay.start_min),
            total_min: -relay.start_min,
            hands_min: relay.hands_min,
            tasks: relay.tasks.iter().map(task).collect(),
            reasons: say_all(reasons),
        }
    }
}
