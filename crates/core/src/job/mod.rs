//! A whole job: what is wanted, the kitchen it is made in, and the plan in which all stations answer.

mod kitchen;
mod order;
mod plan;

pub use kitchen::{ColdPlace, Kitchen, KitchenInput, OvenKit};
pub use order::{ChillForm, Job, JobInput};
pub use plan::{
    Alternative, ClockPlan, ColdPlan, DoughPlan, FormSize, OvenPlan, Plan, ShapePlan, TrayChill, compute_sheet, plan,
};
