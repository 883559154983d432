//! The demo bakery, inside the program. All of it is made up.

use crate::problem::{ApiError, parse};
use crate::whole::Family;
use crate::wire::{NewCutter, RecordBody};
use chrono::{DateTime, Datelike, Days, NaiveDateTime, NaiveTime, Utc, Weekday};
use ready_slab_core::clock::MINUTE_FORMAT;
use ready_slab_core::dough::{FormulaInput, Pantry};
use ready_slab_core::error::InputError;
use ready_slab_core::geometry::BuiltinKind;
use ready_slab_core::job::{Conditions, Job, JobInput, Kitchen, KitchenInput, LotInput, plan};
use ready_slab_core::ledger::BakeRecord;
use ready_slab_core::oven::EdgeColour;
use ready_slab_store::{CutterId, FormulaId, JobId, NewRecord, Store};
use rust_embed::RustEmbed;
use serde::Deserialize;

#[derive(RustEmbed)]
#[folder = "../../demo"]
struct Demo;

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Bakery {
    kitchen: KitchenInput,
    prices_per_kg: std::collections::BTreeMap<String, f64>,
    formulas: Vec<FormulaInput>,
    cutters: Vec<DemoCutter>,
    jobs: Vec<DemoJob>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct DemoCutter {
    name: String,
    file: Option<String>,
    form: Option<BuiltinKind>,
    width_mm: f64,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct DemoJob {
    formula: String,
    cutter: String,
    /// Wanted on the next Saturday, or so many days after it, at this time.
    days_after_saturday: u64,
    at: String,
    job: serde_json::Map<String, serde_json::Value>,
    records: Vec<DemoRecord>,
    #[serde(default)]
    lots: Vec<DemoLot>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct DemoLot {
    formula: String,
    cutter: String,
    lot: LotInput,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct DemoRecord {
    days_ago: u64,
    widths_mm: Vec<f64>,
    thicknesses_mm: Vec<f64>,
    baked_min: f64,
    edge_colour: EdgeColour,
    notes: String,
}

fn bakery() -> Result<Bakery, ApiError> {
    let file = Demo::get("bakery.json").ok_or_else(|| ApiError::NoSuchPath("demo/bakery.json".to_owned()))?;
    parse(&file.data)
}

/// The Saturday after `today` at midnight; a Saturday itself counts as the next one.
fn next_saturday(today: NaiveDateTime) -> chrono::NaiveDate {
    let ahead = (Weekday::Sat.num_days_from_monday() + 7 - today.weekday().num_days_from_monday()) % 7;
    let ahead = if ahead == 0 { 7 } else { ahead };
    today.date().checked_add_days(Days::new(u64::from(ahead))).unwrap_or(today.date())
}

/// Gives an empty bakery a kitchen to start from, so that every page has something true to show.
pub async fn ensure_kitchen(store: &Store) -> Result<(), ApiError> {
    let w = store.begin(None).await?;
    if w.is_empty().await? {
        let kitchen = Kitchen::new(KitchenInput::usual())?;
        w.save_kitchen(&kitchen, "kitchen").await?;
        w.forget_history().await?;
    }
    w.commit().await?;
    Ok(())
}

/// Fills an empty bakery with the demo; leaves one that holds a job alone.
pub async fn fill(store: &Store, zone: &str, now: DateTime<Utc>) -> Result<(), ApiError> {
    // All or nothing: a start that is cut off leaves the bakery empty, and the next one fills it.
    let w = store.begin(None).await?;
    if w.is_empty().await? {
        let kitchen = Kitchen::new(bakery()?.kitchen.with(|k| k.house.zone = zone.to_owned()))?;
        w.save_kitchen(&kitchen, "kitchen").await?;
        w.set_made_up().await?;
        add_demo(&w, kitchen.zone().shown(now)).await?;
        w.forget_history().await?;
    }
    w.commit().await?;
    Ok(())
}

/// Adds the demo's formulas, cutters and jobs and returns the first job.
async fn add_demo(store: &Store, now: NaiveDateTime) -> Result<JobId, ApiError> {
    let demo = bakery()?;
    for (key, price) in &demo.prices_per_kg {
        store.save_price(key, Some(*price), &format!("price of {key}")).await?;
    }
    let mut formulas: Vec<(String, FormulaId)> = Vec::new();
    for body in demo.formulas {
        let formula = body.formula(Pantry::built_in())?;
        let id = store.add_formula(&formula, &format!("new recipe {}", formula.name())).await?;
        formulas.push((formula.name().to_owned(), id));
    }
    let mut cutters: Vec<(String, CutterId)> = Vec::new();
    for cutter in demo.cutters {
        let new = match (cutter.file, cutter.form) {
            (Some(file), _) => {
                let svg = Demo::get(&file).ok_or_else(|| ApiError::NoSuchPath(file.clone()))?;
                NewCutter::Svg {
                    name: cutter.name.clone(),
                    svg: String::from_utf8_lossy(&svg.data).into_owned(),
                    width_mm: Some(cutter.width_mm),
                }
            }
            (None, Some(form)) => NewCutter::Builtin {
                name: cutter.name.clone(),
                form,
                width_mm: cutter.width_mm,
                height_mm: None,
                letter: None,
            },
            (None, None) => return Err(InputError::refused("cutters", "a demo cutter needs a file or a form").into()),
        };
        let (name, origin, outline) = new.build()?;
        let id = store.add_cutter(&name, &origin, &outline, &format!("new cutter {name}")).await?;
        cutters.push((cutter.name, id));
    }
    let mut first = None;
    for job in demo.jobs {
        let id = add_job(store, job, &formulas, &cutters, now).await?;
        first.get_or_insert(id);
    }
    first.ok_or(ApiError::Broken)
}

async fn add_job(
    store: &Store,
    demo: DemoJob,
    formulas: &[(String, FormulaId)],
    cutters: &[(String, CutterId)],
    now: NaiveDateTime,
) -> Result<JobId, ApiError> {
    let missing = |what: &str| {
        ApiError::from(InputError::refused(what.to_owned(), format!("the demo has no {what} of that name")))
    };
    let formula = formulas.iter().find(|f| f.0 == demo.formula).ok_or_else(|| missing("formula"))?.1;
    let cutter = cutters.iter().find(|c| c.0 == demo.cutter).ok_or_else(|| missing("cutter"))?.1;
    let day = next_saturday(now).checked_add_days(Days::new(demo.days_after_saturday)).unwrap_or(now.date());
    let time = NaiveTime::parse_from_str(&demo.at, "%H:%M").map_err(|_| missing("time"))?;
    let mut fields = demo.job;
    fields.insert("formula_id".to_owned(), formula.0.into());
    fields.insert("cutter_id".to_owned(), cutter.0.into());
    fields.insert("ready_by".to_owned(), day.and_time(time).format(MINUTE_FORMAT).to_string().into());
    let input: JobInput = crate::problem::parse_value(fields.into())?;
    let own = Job::new(input)?;
    let id = store.add_job(&own, &format!("new job {}", own.input().order.name)).await?;
    for lot in demo.lots {
        let formula = formulas.iter().find(|f| f.0 == lot.formula).ok_or_else(|| missing("formula"))?.1;
        let cutter = cutters.iter().find(|c| c.0 == lot.cutter).ok_or_else(|| missing("cutter"))?.1;
        let lot = LotInput { formula_id: Some(formula.0), cutter_id: Some(cutter.0), ..lot.lot };
        Family::add_lot(store, id, lot).await?;
    }
    if demo.records.is_empty() {
        return Ok(id);
    }
    let (outline, dough) = (store.cutter(cutter).await?.outline, store.formula(formula).await?.formula);
    let kitchen = store.kitchen().await?;
    let expected = plan(&own, &dough, &outline, &kitchen)?;
    for record in demo.records {
        let RecordBody { widths_mm, thicknesses_mm, baked_min, edge_colour, notes, conditions, of_tray: _ } =
            RecordBody {
                widths_mm: record.widths_mm,
                thicknesses_mm: record.thicknesses_mm,
                baked_min: Some(record.baked_min),
                edge_colour: record.edge_colour,
                notes: record.notes,
                conditions: Conditions::default(),
                of_tray: None,
            };
        let start = expected.oven.question.piece.start;
        let at = now.checked_sub_days(Days::new(record.days_ago)).unwrap_or(now).date().and_time(time);
        let new = NewRecord {
            job_id: id,
            recorded_at: at.format(MINUTE_FORMAT).to_string(),
            formula_id: Some(formula),
            formula_version: None,
            as_baked: Some(conditions.as_baked(&own, &dough, &outline, &kitchen, start)?),
            record: BakeRecord::new(
                expected.oven.width,
                expected.oven.thickness,
                &widths_mm,
                &thicknesses_mm,
                baked_min,
                edge_colour,
                &notes,
            )?,
            expected_bake: expected.oven.expected.bake,
            expected_spread: expected.oven.spread_across(),
            of_run: None,
        };
        store.add_record(&new, false).await?;
    }
    Ok(id)
}
