//! A whole job: what is wanted, the kitchen it is made in, and the plan in which all stations answer.

mod answers;
mod bench;
mod kitchen;
mod order;
mod plan;
mod wanted;

pub use answers::{
    Alternative, ClockPlan, ColdPlan, DoughPart, DoughPlan, FormSize, OvenPlan, PartUse, Plan, ShapePlan, TrayChill,
};
pub use kitchen::{ColdPlace, Kitchen, KitchenInput, OvenKit};
pub use order::{ChillForm, Job, JobInput};
pub use plan::{AlsoMixed, compute_sheet, dough_of, pieces_from, plan, plan_dough, plan_with};
pub use wanted::{WantedWay, wanted_ways};
