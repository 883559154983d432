//! A whole job: what is wanted, the kitchen it is made in, and the plan in which all stations answer.

mod advice;
mod answers;
mod bake;
mod bench;
mod board;
mod even;
mod finishing;
mod follow;
mod kitchen;
mod making;
mod order;
mod oven;
mod parts;
mod plan;
mod portioned;
mod together;
mod tray_times;
mod wanted;
mod ways;

pub use advice::{Advice, Remedy, Trouble, advise};
pub use answers::{ClockPlan, ColdPlan, DoughPart, DoughPlan, FormSize, OvenPlan, PartUse, Plan, ShapePlan, TrayChill};
pub use bake::{BakeQuestion, Cooling, POT_CAUTIONS, bake_question, bake_seen, cooling};
pub use board::{BakeLever, LeverEffect, LeverGroup, bake_levers, colder_takes};
pub use even::{EvenBake, even_bake};
pub use finishing::FinishPlan;
pub use follow::{Followed, Put, Whereabouts, follow, kept_too_long};
pub use kitchen::{ColdPlace, Kitchen, KitchenInput, OvenKit, OvenMeasured};
pub use making::{Making, PieceSize, largest_sheet, piece_outline, piece_size};
pub use order::{ChillForm, Job, JobInput};
pub use parts::{PartsAhead, parts_ahead};
pub use plan::{AlsoMixed, Beside, compute_sheet, dough_of, pieces_from, plan, plan_dough, plan_with, question_of};
pub use portioned::chill_portion;
pub use together::{LotPlan, SizeClass, Together, plan_together};
pub use tray_times::{TrayPieceTime, TrayTimes, tray_times};
pub use wanted::{WantedWay, wanted_ways};
pub use ways::{Spell, Way, WaySizes, one_way, question_of_way, ways};
