//! Ready Slab's server: routes, the embedded front end, the demo, and the command line's computations.

pub mod app;
mod embed;
mod guard;
pub mod problem;
mod routes;
pub mod seed;
pub mod wire;

pub use app::{Options, description, run};
