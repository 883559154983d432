//! Sheets and cutters: how the pieces lie, what a mass of dough yields, and how they fill the trays.

mod demand;
mod lattice;
mod profile;
mod tray;

pub use demand::{BenchSurface, Demand, DemandAnswer, Roll, RollingRules, demand_to_dough};
pub use lattice::{LatticeTable, Layout, Spacing, WEB_STEPS_MM};
pub use tray::{TrayAnswer, TrayRules, fill_trays};
