//! The rules of the trade for cold, stiff butter doughs that are rolled and cut.
//!
//! Everything here is a pure function of its inputs: no files, no clock, no randomness. Input enters through fallible
//! constructors that name the field at fault; after that a value is sound. The modules are the stations of the work, and
//! [`job::plan`] lets all of them answer for one job.
//!
//! ```
//! use ready_slab_core::dough::{Formula, Pantry};
//! use ready_slab_core::geometry::{Builtin, BuiltinKind};
//! use ready_slab_core::job::{ColdPlace, Job, JobInput, Kitchen, KitchenInput, plan};
//!
//! // A dough by weight: one of butter, one of sugar, three of flour.
//! let lines = [("flour-ap", 300.0), ("butter", 100.0), ("sugar", 100.0), ("egg", 25.0), ("salt", 1.0)];
//! let formula = Formula::new("Plain", &lines.map(Into::into), Pantry::built_in())?;
//!
//! // A 65 mm round, and the kitchen it is cut in.
//! let cutter = Builtin::new(BuiltinKind::Round, 65.0, 0.0)?.outline()?;
//! let kitchen = Kitchen::new(KitchenInput::usual().with(|k| k.house.name = "Tern Street Bakehouse".into()))?;
//!
//! // Forty-eight of them, 6 mm, for Saturday at two.
//! let ready_by = chrono::NaiveDate::from_ymd_opt(2026, 11, 28).unwrap().and_hms_opt(14, 0, 0).unwrap();
//! let job = Job::new(JobInput::usual("Regatta", 1, 1, ready_by).with(|j| {
//!     j.order.pieces = 48;
//!     j.cold.tray_chill_place = ColdPlace::Freezer;
//! }))?;
//!
//! let plan = plan(&job, &formula, &cutter, &kitchen)?;
//! assert!(plan.dough.dough.g() > 48.0 * plan.dough.piece.g());
//! assert!(plan.cold.answer.ready_after.is_some());
//! assert!(plan.clock.relay.start_min < 0);
//! # Ok::<(), Box<dyn std::error::Error>>(())
//! ```

pub mod air;
pub mod clock;
pub mod cold;
pub mod dough;
pub mod error;
pub mod finish;
pub mod geometry;
pub mod job;
pub mod ledger;
pub mod oven;
pub mod recipe;
pub mod run;
pub mod safety;
pub mod shape;
pub mod units;
