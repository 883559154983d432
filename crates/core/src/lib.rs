//! The rules of the trade for cold, stiff butter doughs that are rolled and cut.
//!
//! Everything here is a pure function of its inputs: no files, no clock, no randomness. Input enters through fallible
//! constructors that name the field at fault; after that a value is sound. The modules are the stations of the work, and
//! [`job::plan`] lets all of them answer for one job.
//!
//! ```
//! use ready_slab_core::cold::TrayKind;
//! use ready_slab_core::dough::{EggClass, Formula, Pantry};
//! use ready_slab_core::geometry::{Builtin, BuiltinKind};
//! use ready_slab_core::job::{ColdPlace, Job, JobInput, Kitchen, KitchenInput, plan};
//!
//! // A dough by weight: one of butter, one of sugar, three of flour.
//! let lines = [("flour-ap", 300.0), ("butter", 100.0), ("sugar", 100.0), ("egg", 25.0), ("salt", 1.0)];
//! let formula = Formula::new("Plain", &lines.map(Into::into), Pantry::built_in())?;
//!
//! // A 65 mm round, and the kitchen it is cut in.
//! let cutter = Builtin::new(BuiltinKind::Round, 65.0, 0.0)?.outline()?;
//! let kitchen = Kitchen::new(KitchenInput {
//!     name: "Tern Street Bakehouse".into(),
//!     room_c: 22.0, fridge_c: 4.0, fridge_fan: false, freezer_c: -18.0,
//!     tray_width_mm: 310.0, tray_length_mm: 440.0, tray_kind: TrayKind::Aluminium, trays_owned: 4, least_gap_mm: 25.0,
//!     mixer_limit_g: 1200.0, bowl_ml: Some(4500.0), scale_step_g: 1.0, fine_step_g: 0.1,
//!     egg_class: EggClass::UsLarge, currency: "€".into(), rods_mm: vec![3.0, 6.0], ovens: 1, racks_per_oven: 1, hands: 1, mixers: 1, fridge_places: 6, freezer_places: 4, cooling_places: 8, oven_fan: false, preheat_min: 20.0, oven_readings: vec![], door_dip_k: 15.0, recovery_min: 1.5, hot_spots: None, cover_pot: false, small_oven: false, altitude_m: 0.0,
//!     roll_min: 4.0, cut_s: 6.0, zone: "Europe/Lisbon".into(),
//! })?;
//!
//! // Forty-eight of them, 6 mm, for Saturday at two.
//! let ready_by = chrono::NaiveDate::from_ymd_opt(2026, 11, 28).unwrap().and_hms_opt(14, 0, 0).unwrap();
//! let job = Job::new(JobInput {
//!     pieces: 48, tray_chill_place: ColdPlace::Freezer, ..JobInput::usual("Regatta", 1, 1, ready_by)
//! })?;
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
