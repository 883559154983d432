//! The day's timeline, worked backwards from the wanted time.

mod relay;
mod zone;

pub use relay::{Lane, Relay, RelayInput, RelayLot, RelayTask, Step, plan_relay};
pub use zone::{ClockChange, MINUTE_FORMAT, Zone};
