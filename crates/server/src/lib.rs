//! Ready Slab's server: routes, the embedded front end, the demo, and the command line's computations.

pub mod access;
pub mod app;
pub mod bakeries;
pub mod board;
mod days;
pub mod demo;
mod description;
pub mod device;
pub mod embed;
mod front;
pub mod guard;
pub mod heavy;
mod learning;
mod paths;
pub mod problem;
pub mod revise;
mod routes;
pub mod searches;
mod template;
mod whole;
pub mod wire;
pub mod wrong_codes;

pub use app::{Options, run};
pub use description::description;
