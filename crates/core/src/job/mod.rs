//! A whole job: what is wanted, the kitchen it is made in, and the plan in which all stations answer.

mod advice;
mod ahead;
mod answers;
mod as_baked;
mod asked_anew;
mod bake;
mod begun;
mod bench;
mod causes;
mod chill;
mod chilled;
mod chilling;
mod clock;
mod cold;
mod day;
mod even;
mod family;
mod finishing;
mod follow;
mod kept_sheet;
mod kitchen;
mod levers;
mod making;
mod marbled;
mod means;
mod order;
mod oven;
mod pan;
mod parts;
mod photo;
mod piece_reason;
mod pieces;
mod plan;
mod portioned;
mod pricked;
mod reason;
mod recipe_said;
mod running;
mod sheets;
mod together;
mod tray_times;
mod trial;
mod wanted;
mod ways;
mod weighed;

pub use crate::cold::ColdPlace;
pub use advice::{
    Advice, AdviceCaution, Because, BenchWork, Enough, Headline, Measure, PowerState, Remedy, Trouble, TroubleInput,
    TroubleKind, When, advise,
};
pub use ahead::PartsAhead;
pub use answers::{
    BulkChill, ClockPlan, ColdPlan, DoughPart, DoughPlan, FinishPlan, FormSize, OvenPlan, PartUse, Plan, ShapePlan,
    Thawing, TrayChill, WhenLate,
};
pub use as_baked::{AsBaked, Conditions};
pub use bake::{BakeQuestion, Cooling, bake_seen, cooling};
pub use begun::Asked;
pub use chill::question_of;
pub use chilled::ChillChange;
#[cfg(feature = "wire")]
pub use chilling::kept_dough_form;
pub use chilling::{ChillFor, ChillForm, DoughForm, OVERNIGHT, Thaw, USUAL_CHILL_MIN};
pub use day::{DayClash, DayGain, DayHelp, Shared, day_clashes, day_helps, day_shares};
pub use even::{EvenBake, even_bake, even_sheet};
pub use family::{
    Kin, Left, LotInput, MOST_LOTS, OnSheets, SharedSheets, changed_with, check_lot, check_shared_dough, goes_along,
    keep_version_with, left_of, mixed_once, mixed_with, sheet_key,
};
pub use follow::{
    Followed, GoesIn, LaidAt, ReadSoFar, ReadingNote, StayRead, WentIn, Whereabouts, follow, judged_as, kept_too_long,
    lessons, notes_on_readings, usual_purpose,
};
pub use kept_sheet::{KeptPiece, KeptSheet};
pub use kitchen::{Kitchen, KitchenInput, OvenKit, OvenMeasured};
pub use levers::{BakeLever, LeverChange, LeverEffect, LeverGroup, Notch, bake_levers, colder_takes};
pub use making::Making;
pub use marbled::{GRAIN, Marbled, marbled};
pub use means::ReadyMeans;
pub use order::{Job, JobInput, usually_wanted};
pub use oven::question_as_baked;
pub use pan::{PanFill, pan_fill};
pub use parts::parts_ahead;
pub use photo::OnPhoto;
pub use piece_reason::PieceReason;
pub use pieces::{PieceSize, largest_sheet, piece_outline, piece_size, portion_outline};
pub use plan::{WithOthers, compute_sheet, plan, plan_dough, plan_with};
pub use portioned::chill_portion;
pub use reason::{Otherwise, PotCaution, Reason, Setting};
pub use running::{RunsLot, run_plan};
pub use sheets::{SheetChoice, sheet_choices};
pub use together::{LotPlan, SizeClass, Together, plan_date, together, wanted_before};
pub use tray_times::{TrayPieceTime, TrayTimes, tray_times};
pub use wanted::{WantedWay, wanted_ways};
pub use ways::{Spell, Way, WayKind, WaySizes, one_way, question_of_way, ways};
pub use weighed::{AlsoMixed, dough_of, pieces_from};
