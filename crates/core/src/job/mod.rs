//! A whole job: what is wanted, the kitchen it is made in, and the plan in which all stations answer.

mod answers;
mod cold;
mod day;
mod dough;
mod finish;
mod order;
mod oven;
mod plan;
mod reasons;
mod settings;
mod shape;

pub use crate::cold::ColdPlace;
pub use answers::{
    BulkChill, ClockPlan, ColdPlan, DoughPart, DoughPlan, FinishPlan, FormSize, OvenPlan, PartUse, Plan, ShapePlan,
    Thawing, TrayChill, WhenLate,
};
pub use cold::advice::{
    Advice, AdviceCaution, Because, BenchWork, Enough, Headline, Measure, PowerState, Remedy, Trouble, TroubleInput,
    TroubleKind, When, advise,
};
pub use cold::chill_question::question_of;
pub use cold::chill_result::ChillChange;
pub use cold::follow::{
    Followed, GoesIn, LaidAt, ReadSoFar, ReadingNote, StayRead, WentIn, Whereabouts, follow, judged_as, kept_too_long,
    lessons, notes_on_readings, usual_purpose,
};
pub use cold::other_ways_to_chill::{Spell, Way, WayKind, WaySizes, one_way, question_of_way, ways};
pub use cold::portion_chill::chill_portion;
pub use cold::ready_at_a_time::{WantedWay, wanted_ways};
pub use day::date::{DayClash, DayGain, DayHelp, Shared, day_clashes, day_helps, day_shares};
pub use day::run_plan::{RunsLot, run_plan};
pub use day::together::{LotPlan, PlannedDate, SizeClass, Together, plan_date, together, wanted_before};
pub use dough::batches::{AlsoMixed, dough_of, pieces_from};
pub use order::family::{
    Kin, Left, LotInput, MOST_LOTS, OnSheets, SharedSheets, changed_with, check_lot, check_shared_dough, goes_along,
    keep_version_with, left_of, mixed_once, mixed_with, sheet_key,
};
pub use order::new_job::Asked;
pub use oven::as_baked::{AsBaked, Conditions};
pub use oven::bake::{BakeQuestion, Cooling, bake_seen, cooling};
pub use oven::levers::{BakeLever, LeverChange, LeverEffect, LeverGroup, Notch, bake_levers, colder_takes};
pub use oven::oven_plan::question_as_baked;
pub use oven::parts_that_brown_first::parts_ahead;
pub use oven::photo::OnPhoto;
pub use oven::tray_times::{TrayPieceTime, TrayTimes, tray_times};
pub use oven::uneven_sheet::{EvenBake, even_bake, even_sheet};
pub use plan::{WithOthers, compute_sheet, plan, plan_dough, plan_with};
pub use reasons::part_ahead::PartsAhead;
pub use reasons::piece_reason::PieceReason;
pub use reasons::reason::{Otherwise, PotCaution, Reason, Setting};
pub use settings::chill_choice::{ChillFor, ChillForm, DoughForm, OVERNIGHT, Thaw, USUAL_CHILL_MIN};
pub use settings::cold::ColdInput;
pub use settings::dough::DoughInput;
pub use settings::finish::FinishInput;
pub use settings::job::{Job, JobInput, usually_wanted};
pub use settings::kept_sheet::{KeptPiece, KeptSheet};
pub use settings::kitchen::{
    ColdPlacesInput, Equipment, HouseInput, Kitchen, KitchenInput, MixingInput, OvenKit, OvenMeasured, OvensInput,
    TraysInput,
};
pub use settings::making::Making;
pub use settings::order::OrderInput;
pub use settings::oven::OvenInput;
pub use settings::ready_means::ReadyMeans;
pub use settings::shape::ShapeInput;
pub use shape::marbled::{GRAIN, Marbled, marbled};
pub use shape::other_sheets::{SheetChoice, sheet_choices};
pub use shape::pan::{PanFill, pan_fill};
pub use shape::pieces::{PieceSize, largest_sheet, piece_outline, piece_size, portion_outline};
