//! The day's timeline, worked backwards from the wanted time.

mod planner;
mod relay;
mod relayed;
mod step;
mod zone;

pub use planner::{
    BatchId, BatchInput, Broken, Day, DayBatch, DayHeld, DayInput, DayKitchen, DayPlace, DayRule, DayTask, Forbidden,
    PlanBudget, PlannedDay, Wanted, broken_rules, plan_day,
};
pub use relay::{ChillWaits, Held, MoreChill, Relay, RelayInput, RelayLot, RelayTask};
pub use relayed::plan_relay;
pub use step::{Lane, Step};
pub use zone::Minute;
pub(crate) use zone::minute;
pub use zone::{ClockChange, MINUTE_FORMAT, Zone};
