//! The demo kitchen, a job, a dough and a cutter, as many tests need them.

use chrono::NaiveDate;
use ready_slab_core::cold::TrayKind;
use ready_slab_core::dough::{EggClass, Formula, Pantry};
use ready_slab_core::error::InputErrors;
use ready_slab_core::geometry::{Builtin, BuiltinKind, Outline};
use ready_slab_core::job::{ColdPlace, Job, JobInput, Kitchen, KitchenInput, Plan, plan};

pub fn kitchen_input() -> KitchenInput {
    KitchenInput {
        name: "Tern Street Bakehouse".into(),
        room_c: 22.0,
        fridge_c: 4.0,
        fridge_fan: false,
        freezer_c: -18.0,
        tray_width_mm: 310.0,
        tray_length_mm: 440.0,
        tray_kind: TrayKind::Aluminium,
        trays_owned: 4,
        least_gap_mm: 25.0,
        mixer_limit_g: 1200.0,
        bowl_ml: Some(4500.0),
        scale_step_g: 1.0,
        fine_step_g: 0.1,
        egg_class: EggClass::UsLarge,
        currency: "\u{20ac}".to_owned(),
        rods_mm: vec![3.0, 6.0, 8.0],
        ovens: 1,
        racks_per_oven: 1,
        hands: 1,
        mixers: 1,
        fridge_places: 6,
        freezer_places: 4,
        cooling_places: 8,
        oven_fan: false,
        preheat_min: 20.0,
        oven_readings: vec![],
        door_dip_k: 15.0,
        recovery_min: 1.5,
        hot_spots: None,
        cover_pot: false,
        small_oven: false,
        altitude_m: 0.0,
        roll_min: 4.0,
        cut_s: 6.0,
        zone: "Europe/Lisbon".into(),
    }
}

pub fn job_input() -> JobInput {
    let ready_by = NaiveDate::from_ymd_opt(2026, 11, 28).unwrap().and_hms_opt(14, 0, 0).unwrap();
    JobInput { pieces: 48, tray_chill_place: ColdPlace::Freezer, ..JobInput::usual("Regatta", 1, 1, ready_by) }
}

pub fn formula(lines: &[(&str, f64)]) -> Formula {
    Formula::new("Dough", &lines.iter().map(|l| (*l).into()).collect::<Vec<_>>(), Pantry::built_in()).unwrap()
}

pub fn lemon_thyme() -> Formula {
    formula(&[("flour-ap", 430.0), ("cornstarch", 30.0), ("butter", 225.0), ("sugar-caster", 190.0), ("egg", 50.0)])
}

pub fn round(across: f64) -> Outline {
    Builtin::new(BuiltinKind::Round, across, 0.0).unwrap().outline().unwrap()
}

pub fn planned(job: JobInput, kitchen: KitchenInput, formula: &Formula, cutter: &Outline) -> Result<Plan, InputErrors> {
    plan(&Job::new(job)?, formula, cutter, &Kitchen::new(kitchen)?)
}

pub fn usual(job: JobInput) -> Plan {
    planned(job, kitchen_input(), &lemon_thyme(), &round(65.0)).unwrap()
}
