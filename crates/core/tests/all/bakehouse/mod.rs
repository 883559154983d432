//! The demo kitchen, a job, a dough and a cutter, as many tests need them.

use chrono::NaiveDate;
use ready_slab_core::dough::{Formula, Pantry};
use ready_slab_core::error::InputErrors;
use ready_slab_core::geometry::{Builtin, BuiltinKind, Outline};
use ready_slab_core::job::{ColdPlace, Job, JobInput, Kitchen, KitchenInput, Plan, plan};

pub fn kitchen_input() -> KitchenInput {
    KitchenInput::usual().with(|k| {
        k.house.name = "Tern Street Bakehouse".into();
        k.house.zone = "Europe/Lisbon".into();
        k.mixing.bowl_ml = Some(4500.0);
        k.trays.trays_owned = 4;
        k.trays.rods_mm = vec![3.0, 6.0, 8.0];
    })
}

pub fn job_input() -> JobInput {
    let ready_by = NaiveDate::from_ymd_opt(2026, 11, 28).unwrap().and_hms_opt(14, 0, 0).unwrap();
    JobInput::usual("Regatta", 1, 1, ready_by).with(|j| {
        j.order.pieces = 48;
        j.cold.tray_chill_place = ColdPlace::Freezer;
    })
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
