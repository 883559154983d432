//! A day as it is worked: the plan as it stood, what has happened since, and what follows from both at a moment. All of it is a pure function of the
//! plan, the events and the minute.

mod ahead;
mod baking;
mod changed;
mod event;
mod fact;
mod facts;
mod followed;
mod plan;
mod room;
mod state;

pub use ahead::{CatchUp, Moment, Saves};
pub use baking::WentIn;
pub use changed::{Changed, HeldUp, Shift};
pub use event::{Happened, RunEvent, effective, may_be_noted, none_ahead, not_before_noted};
pub use followed::Followed;
pub use plan::{BakeAt, ColdFrom, ColdRun, Elsewhere, RunLot, RunPlan, RunTask};
pub use state::{
    Baked, Bar, BarState, HandCard, LotNow, PALE_MIN, RunState, SLOW_MIN, SOFT_MIN, Strip, Timer, TimerState, baked,
    state,
};

#[cfg(test)]
mod tests;
