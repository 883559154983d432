//! One plan for all who ask: no two answers about one job disagree in a figure that both tell, also where it shares its date.

use crate::bakery::{call, demo, from_page, get, send};
use actix_web::http::{Method, StatusCode};
use chrono::{NaiveDate, NaiveDateTime, TimeDelta};
use proptest::prelude::*;
use proptest::strategy::ValueTree as _;
use proptest::test_runner::{Config, TestRunner};
use ready_slab_store::Store;
use serde_json::{Value, json};

/// A job that comes onto a date beside others.
#[derive(Debug, Clone)]
struct Beside {
    pieces: u32,
    thickness_mm: f64,
    form: &'static str,
    place: &'static str,
    trays_in: &'static str,
    stays: &'static str,
    sooner_min: i64,
}

fn beside() -> impl Strategy<Value = Beside> {
    (
        6_u32..90,
        3.0..9.0_f64,
        prop_oneof![Just("disc"), Just("sheets"), Just("lump")],
        prop_oneof![Just("fridge"), Just("freezer")],
        prop_oneof![Just("fridge"), Just("freezer")],
        prop_oneof![Just("ready"), Just("overnight"), Just("best")],
        0_i64..200,
    )
        .prop_map(|(pieces, thickness_mm, form, place, trays_in, stays, sooner_min)| Beside {
            pieces,
            thickness_mm: (thickness_mm * 2.0).round() / 2.0,
            form,
            place,
            trays_in,
            stays,
            sooner_min,
        })
}

fn list(of: &Value) -> &[Value] {
    of.as_array().map_or(&[], Vec::as_slice)
}

fn min(task: &Value, field: &str) -> i64 {
    let at = NaiveDateTime::parse_from_str(task[field].as_str().unwrap(), "%Y-%m-%dT%H:%M").unwrap();
    at.and_utc().timestamp() / 60
}

/// Begin, end and name of each step, whoever tells them.
fn steps<'a>(tasks: impl Iterator<Item = &'a Value>) -> Vec<(String, String, String)> {
    let text = |t: &Value, field: &str| t[field].as_str().unwrap_or_default().to_owned();
    let mut all: Vec<_> = tasks.map(|t| (text(t, "start_at"), text(t, "end_at"), text(t, "does"))).collect();
    all.sort();
    all
}

async fn a_job(store: &Store, of: &Beside, on: NaiveDate) -> Option<i64> {
    let ready_by = on.and_hms_opt(15, 0, 0).unwrap() - TimeDelta::minutes(of.sooner_min);
    let body = json!({
        "name": format!("{} of {} mm", of.pieces, of.thickness_mm), "formula_id": 1, "cutter_id": 1, "pieces": of.pieces,
        "thickness_mm": of.thickness_mm, "ready_by": ready_by.format("%Y-%m-%dT%H:%M").to_string(), "method": "just_combined",
        "dough_form": of.form, "disc_mm": 22.0, "chill_place": of.place, "tray_chill_place": of.trays_in, "dough_for": of.stays,
        "web_mm": 3.0, "edge_mm": 4.0, "surface": "floured_board", "rerolls": 2, "reserve_percent": 3.0, "oven_c": 175.0,
    });
    let (status, answer) = call(store, Method::POST, "/api/jobs", Some(body)).await;
    assert_eq!(status, StatusCode::OK, "{answer}");
    let id = answer["id"].as_i64().unwrap();
    // One that cannot be planned has no plan to agree with.
    (call(store, Method::GET, &format!("/api/jobs/{id}/plan"), None).await.0 == StatusCode::OK).then_some(id)
}

async fn agrees(store: &Store, id: i64, day: &Value) {
    let path = |what: &str| format!("/api/jobs/{id}/{what}");
    let plan = get(store, &path("plan")).await;
    let told = |what: &str| format!("job {id}, {what}: {}", plan["clock"]);
    // The same plan whoever asks for it.
    let together = get(store, &path("together")).await;
    let own = list(&together["lots"]).iter().find(|l| l["job_id"] == id).expect("it is among its own lots");
    assert_eq!(own["plan"], plan, "the plan by itself and among its lots");
    // Its steps are those of its date.
    let of_job = list(&day["jobs"]).iter().find(|j| j["job_id"] == id).expect("it is on its date");
    let lots = list(&of_job["lots"]);
    let on_the_day = steps(list(&day["tasks"]).iter().filter(|t| lots.contains(&t["lot"])));
    assert_eq!(steps(list(&plan["clock"]["tasks"]).iter()), on_the_day, "{}", told("steps"));
    assert_eq!(plan["clock"]["start_at"], of_job["start_at"], "{}", told("start"));
    // The rest told at Cold is the longest in the timeline beside it.
    let rests = list(&plan["clock"]["tasks"]).iter().filter(|t| t["step"] == "rest");
    let longest = rests.map(|t| min(t, "end_at") - min(t, "start_at")).max().unwrap_or(0);
    #[expect(clippy::cast_precision_loss, reason = "hours at most")]
    let longest = longest as f64;
    assert!((plan["cold"]["tempering_min"].as_f64().unwrap() - longest).abs() < 1e-9, "{}", told("rest"));
    // What is short is said once more among the reasons of a job alone; a job beside others says no more than its date does.
    let short =
        list(&plan["clock"]["reasons"]).iter().filter(|r| r["text"].as_str().unwrap().contains("too few")).count();
    assert!(short == 0 || !list(&day["lacks"]).is_empty(), "{}", told("lacks"));
    // The calendar has the same steps at the same moments.
    let (status, _, file) = send(store, from_page(Method::GET, &path("calendar"))).await;
    assert_eq!(status, StatusCode::OK);
    let file = String::from_utf8(file).unwrap();
    let mut begins: Vec<String> =
        file.lines().filter_map(|l| l.strip_prefix("DTSTART:")).map(|l| l.trim_end().to_owned()).collect();
    begins.sort();
    let mut planned: Vec<String> = list(&plan["clock"]["tasks"])
        .iter()
        .map(|t| t["start_at"].as_str().unwrap().replace(['-', ':'], "") + "00Z")
        .collect();
    planned.sort();
    assert_eq!(begins, planned, "{}", told("calendar"));
    // Other stations' pages tell the plan's own figures.
    let mixing = get(store, &path("mixing")).await;
    assert_eq!(mixing["mixes"], plan["dough"]["mixes"], "mixes of the mixing sheet");
    assert_eq!(mixing["mix_g"], plan["dough"]["mix_g"], "the dough of a mix");
    let ways = get(store, &path("cold/ways")).await;
    let now = list(&ways).iter().find(|w| w["chosen"] == true).expect("the plan's own way is among them");
    for figure in ["ready_after_min", "past_after_min", "told"] {
        assert_eq!(now[figure], plan["cold"][figure], "the way that is chosen: {figure}");
    }
    let tray = get(store, &path("tray-times")).await;
    let full = list(&plan["shape"]["trays"]["fill"]).iter().filter_map(Value::as_u64).max();
    assert_eq!(u64::try_from(list(&tray["pieces"]).len()).ok(), full, "pieces of a full tray");
}

/// Dates of two to four jobs, of whatever they are made.
#[actix_web::test]
async fn no_two_answers_about_one_job_disagree() {
    let mut runner = TestRunner::new(Config { cases: 1, ..Config::default() });
    let (_dir, store) = demo().await;
    for case in 0..6 {
        let on = NaiveDate::from_ymd_opt(2027, 1, 9).unwrap() + chrono::Days::new(2 * case);
        let wanted = proptest::collection::vec(beside(), 2..=4).new_tree(&mut runner).unwrap().current();
        let mut jobs = vec![];
        for of in &wanted {
            jobs.extend(a_job(&store, of, on).await);
        }
        let day = get(&store, &format!("/api/days/{on}")).await;
        for id in jobs {
            agrees(&store, id, &day).await;
        }
    }
}

#[actix_web::test]
async fn a_job_that_is_moved_while_it_is_read_is_told_as_it_is_before_or_after() {
    let (_dir, store) = demo().await;
    let days = ["2026-11-28", "2026-12-12"];
    let of = Beside {
        pieces: 24,
        thickness_mm: 6.0,
        form: "disc",
        place: "fridge",
        trays_in: "fridge",
        stays: "ready",
        sooner_min: 0,
    };
    let other = a_job(&store, &of, NaiveDate::from_ymd_opt(2026, 12, 19).unwrap()).await.unwrap();
    let change = |id: i64, body: Value| {
        let store = store.clone();
        async move {
            let (status, answer) = call(&store, Method::PATCH, &format!("/api/jobs/{id}"), Some(body)).await;
            assert_eq!(status, StatusCode::OK, "{answer}");
        }
    };
    for (i, what) in ["together", "plan"].repeat(8).into_iter().enumerate() {
        // Another date is being planned, for which the reader has to wait once it has read the job; that is when it is moved.
        change(other, json!({ "pieces": 30 + i })).await;
        let (busy, path) = (format!("/api/jobs/{other}/plan"), format!("/api/jobs/1/{what}"));
        let planning = call(&store, Method::GET, &busy, None);
        let reading = call(&store, Method::GET, &path, None);
        let moving = change(1, json!({ "ready_by": format!("{}T14:00", days[(i + 1) % 2]) }));
        let (_, (status, answer), ()) = tokio::join!(planning, reading, moving);
        assert_eq!(status, StatusCode::OK, "{what}: {answer}");
        assert!(days.iter().any(|day| answer.to_string().contains(day)), "{what}: {answer}");
    }
}
