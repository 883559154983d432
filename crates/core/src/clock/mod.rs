//! The day's timeline, worked backwards from the wanted time.

mod relay;

pub use relay::{Lane, Relay, RelayInput, RelayLot, RelayTask, Step, plan_relay};
