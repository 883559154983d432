//! The day's timeline, worked backwards from the wanted time.

mod relay;
mod zone;

pub use relay::{ChillWaits, Held, Lane, MoreChill, Relay, RelayInput, RelayLot, RelayTask, Step, plan_relay};
pub use zone::{ClockChange, MINUTE_FORMAT, Zone};
