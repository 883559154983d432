//! A small bakery on a temporary file.

#![allow(dead_code, reason = "each test file uses its own part of it")]

use chrono::NaiveDate;
use ready_slab_core::cold::TrayKind;
use ready_slab_core::dough::{EggClass, Formula, MixMethod, Pantry, TintInput};
use ready_slab_core::finish::{Coat, Finish};
use ready_slab_core::geometry::{Builtin, BuiltinKind, Outline, Placement};
use ready_slab_core::job::{
    ChillFor, ColdPlace, DoughForm, Job, JobInput, Kitchen, KitchenInput, Making, OvenMeasured, ReadyMeans, Thaw,
};
use ready_slab_core::ledger::BakeRecord;
use ready_slab_core::oven::{BakeEnd, EdgeColour, HotSpotsInput, SpotTest, TrayLiner};
use ready_slab_core::shape::{BenchSurface, LogForm, ReadingsInput, SheetKind, Turning};
use ready_slab_core::units::{Length, Share, Span, Temperature};
use ready_slab_store::{
    AsBaked, CutterId, FormulaId, JobId, JobsWanted, NewRecord, RunId, Store, StoreError, StoredJob,
};

pub fn kitchen(room_c: f64) -> Kitchen {
    Kitchen::new(KitchenInput::usual().with(|k| {
        k.house.name = "Tern Street Bakehouse".into();
        k.house.room_c = room_c;
        k.cold.fridge_c = 4.0;
        k.cold.fridge_fan = false;
        k.cold.freezer_c = -18.0;
        k.trays.tray_width_mm = 310.0;
        k.trays.tray_length_mm = 440.0;
        k.trays.tray_kind = TrayKind::Steel;
        k.trays.trays_owned = 4;
        k.trays.least_gap_mm = 25.0;
        k.mixing.mixer_limit_g = 1200.0;
        k.mixing.bowl_ml = Some(4500.0);
        k.mixing.scale_step_g = 2.0;
        k.mixing.fine_step_g = 0.1;
        k.mixing.egg_class = EggClass::EuLarge;
        k.house.currency = "\u{20ac}".into();
        k.trays.rods_mm = vec![3.0, 6.0];
        k.oven.ovens = 1;
        k.oven.racks_per_oven = 2;
        k.house.hands = 2;
        k.mixing.mixers = 3;
        k.cold.fridge_places = 6;
        k.cold.freezer_places = 4;
        k.trays.cooling_places = 8;
        k.oven.oven_fan = true;
        k.oven.oven_readings = vec![OvenMeasured { set_c: 175.0, read_c: 166.5, swing_k: 4.0 }];
        k.oven.door_dip_k = 12.0;
        k.oven.recovery_min = 2.0;
        k.oven.hot_spots =
            Some(HotSpotsInput { test: SpotTest::Bread, columns: 2, rows: 1, shades: vec![Some(2), None] });
        k.oven.cover_pot = false;
        k.oven.small_oven = true;
        k.house.altitude_m = 340.0;
        k.oven.preheat_min = 20.0;
        k.house.roll_min = 4.0;
        k.house.cut_s = 6.0;
        k.house.zone = "Pacific/Chatham".into();
    }))
    .unwrap()
}

pub fn formula(name: &str) -> Formula {
    let lines = [("flour-ap", 300.0), ("butter", 100.0), ("sugar", 100.0)];
    Formula::new(name, &lines.map(Into::into), Pantry::built_in()).unwrap()
}

pub fn outline() -> Outline {
    Builtin::new(BuiltinKind::Petal, 65.0, 0.0).unwrap().outline().unwrap()
}

pub fn job(pieces: u32, formula: FormulaId, cutter: CutterId) -> Job {
    Job::new(JobInput::default().with(|j| {
        j.order.name = "Regatta".into();
        j.order.formula_id = formula.0;
        j.order.cutter_id = cutter.0;
        j.order.pieces = pieces;
        j.shape.thickness_mm = 6.0;
        j.order.ready_by = NaiveDate::from_ymd_opt(2026, 11, 28).unwrap().and_hms_opt(14, 0, 0).unwrap();
        j.order.ready_means = Some(ReadyMeans::Packed);
        j.dough.method = MixMethod::RubbedIn;
        j.dough.dough_c = Some(19.5);
        j.cold.dough_form = DoughForm::Sheets;
        j.cold.sheet_stack = 2;
        j.cold.dough_for = Some(ChillFor::AtLeast);
        j.cold.dough_for_min = 45.0;
        j.cold.pieces_for = Some(ChillFor::Exactly);
        j.cold.pieces_for_min = 12.0;
        j.cold.disc_mm = 22.0;
        j.cold.chill_place = ColdPlace::Fridge;
        j.cold.tray_chill_place = ColdPlace::Freezer;
        j.cold.bulk_for = ChillFor::Overnight;
        j.cold.bulk_for_min = 90.0;
        j.cold.thaws = Some(Thaw::Bench);
        j.shape.cut_in_place = true;
        j.shape.pricked = true;
        j.shape.web_mm = 3.0;
        j.shape.edge_mm = 4.0;
        j.shape.surface = BenchSurface::BetweenPapers;
        j.shape.rerolls = 1;
        j.shape.reserve_percent = 3.0;
        j.oven.oven_c = 175.0;
        j.order.freeze_pieces = 1;
        j.dough.hold_back_percent = 12.0;
        j.dough.whole_eggs = true;
        j.dough.tints = vec![TintInput { name: "red".into(), percent: 20.0 }];
        j.shape.turning = Turning::HalfTurn;
        j.shape.tray_layout = vec![Placement { x_mm: 60.0, y_mm: 70.0, turn_deg: 90.0 }];
        j.shape.measured = vec![ReadingsInput { columns: 2, rows: 1, read_mm: vec![Some(5.8), None] }];
        j.shape.layout = vec![Placement { x_mm: 40.0, y_mm: 50.5, turn_deg: 180.0 }];
        j.shape.making = Making::sliced(LogForm::HalfRound, Length::new_mm(50.0));
        j.shape.sheet = SheetKind::Oval;
        j.oven.bake_end = BakeEnd::Soft(EdgeColour::Golden);
        j.oven.liner = TrayLiner::Silicone;
        j.oven.goes_in_c = Some(9.5);
        j.cold.flour_rest_min = Some(35.0);
        j.finish.finishes = vec![
            Coat::Drizzle.into(),
            Finish { pieces: Some(20), ..Coat::Dip { part: Share::new(0.5), film_mm: 1.0 }.into() },
            Finish {
                colours: vec![TintInput { name: "red".into(), percent: 30.0 }],
                ..Coat::usual_royal(false).into()
            },
        ];
        j.shape.sheet_width_mm = Some(280.0);
        j.shape.sheet_length_mm = None;
        j.order.formula_version = None;
        j.order.dough_with = None;
        j.order.lot_of = None;
        j.shape.mixed = vec![];
    }))
    .unwrap()
}

pub async fn filled() -> (tempfile::TempDir, Store, FormulaId, CutterId, JobId) {
    let dir = tempfile::tempdir().unwrap();
    let store = Store::open(&dir.path().join("bakery.db")).await.unwrap();
    store.save_kitchen(&kitchen(22.0), "kitchen").await.unwrap();
    let f = store.add_formula(&formula("Plain"), "formula").await.unwrap();
    let c = store.add_cutter("Petal", "petal", &outline(), "cutter").await.unwrap();
    let j = store.add_job(&job(48, f, c), "job").await.unwrap();
    (dir, store, f, c, j)
}

pub fn record(job_id: JobId) -> NewRecord {
    let measured = BakeRecord::new(
        Length::new_mm(65.0),
        Length::new_mm(6.0),
        &[68.0, 69.0],
        &[6.4],
        Some(11.0),
        EdgeColour::Golden,
        "left tray first",
    );
    NewRecord {
        job_id,
        recorded_at: "2026-11-28T13:10".into(),
        record: measured.unwrap(),
        formula_id: None,
        formula_version: None,
        as_baked: Some(AsBaked {
            job: job(48, FormulaId(0), CutterId(0)),
            formula: formula("Plain"),
            outline: outline(),
            kitchen: kitchen(22.0),
            start: Temperature::new_c(9.5),
        }),
        expected_bake: (Span::new_min(8.0), Span::new_min(14.0)),
        expected_spread: (Share::new(0.02), Share::new(0.06)),
        of_run: Some((RunId(7), 2)),
    }
}

/// What a record says of its bake; its outline is kept to a thousandth of a millimetre and is left out here.
pub fn baked(record: &NewRecord) -> (Job, Formula, Kitchen, Temperature) {
    let b = record.as_baked.clone().unwrap();
    assert!((b.outline.area().mm2() - outline().area().mm2()).abs() < 0.1);
    (b.job, b.formula, b.kitchen, b.start)
}

/// All jobs that read as sound values.
pub async fn jobs(store: &Store) -> Result<Vec<StoredJob>, StoreError> {
    let all = JobsWanted { today: NaiveDate::MIN, named: String::new(), from: 0, most: 1000 };
    Ok(store.job_page(&all).await?.jobs)
}
