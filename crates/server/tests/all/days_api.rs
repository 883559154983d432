//! Days and runs through the API.

use crate::bakery::{call, demo, field_messages, from_page, get, send, wednesday};
use actix_web::http::{Method, StatusCode};
use chrono::{NaiveDateTime, TimeDelta, Utc};
use ready_slab_server::demo;
use ready_slab_store::Store;
use serde_json::{Value, json};

/// The demo's Saturday, with three jobs on it.
const SATURDAY: &str = "2026-11-28";
const GULLS: i64 = 1;

fn list(of: &Value) -> &Vec<Value> {
    of.as_array().unwrap()
}

fn steps(tasks: &Value, lot: u64) -> Vec<(String, String, String)> {
    let text = |t: &Value, field: &str| t[field].as_str().unwrap().to_owned();
    let mut all: Vec<_> = (list(tasks).iter().filter(|t| t["lot"] == lot))
        .map(|t| (text(t, "start_at"), text(t, "end_at"), text(t, "does")))
        .collect();
    all.sort();
    all
}

#[actix_web::test]
async fn what_is_planned_for_a_day_is_what_the_clock_of_each_job_shows() {
    let (_dir, store) = demo().await;
    let dates = get(&store, "/api/days").await;
    assert_eq!((&dates[0]["date"], list(&dates[0]["jobs"]).len()), (&json!(SATURDAY), 3));
    let day = get(&store, &format!("/api/days/{SATURDAY}")).await;
    assert_eq!(day["lacks"], json!([]));
    for job in list(&day["jobs"]) {
        let own = get(&store, &format!("/api/jobs/{}/plan", job["job_id"])).await;
        let lot = job["lots"][0].as_u64().unwrap();
        assert_eq!(steps(&own["clock"]["tasks"], 0), steps(&day["tasks"], lot), "{}", job["name"]);
        assert_eq!((&own["clock"]["start_at"], &own["ready_by"]), (&job["start_at"], &job["ready_by"]));
        let together = get(&store, &format!("/api/jobs/{}/together", job["job_id"])).await;
        assert_eq!(steps(&together["clock"]["tasks"], 0), steps(&day["tasks"], lot));
        let says = list(&together["clock"]["reasons"]);
        assert!(says.iter().any(|r| r["text"].as_str().unwrap().starts_with("Planned with ")), "{says:?}");
    }
    // One pair of hands, one oven: nothing lies over another.
    for lane in ["hands", "oven"] {
        let on: Vec<&Value> = list(&day["tasks"]).iter().filter(|t| t["lane"] == lane).collect();
        for (i, a) in on.iter().enumerate() {
            for b in &on[..i] {
                let apart = a["start_min"].as_i64() >= b["end_min"].as_i64()
                    || b["start_min"].as_i64() >= a["end_min"].as_i64();
                assert!(apart, "{lane}: {a} {b}");
            }
        }
    }
}

#[actix_web::test]
async fn a_day_goes_into_one_calendar_with_the_names_its_jobs_have_in_theirs() {
    let (_dir, store) = demo().await;
    let day = get(&store, &format!("/api/days/{SATURDAY}")).await;
    let file = async |path: String| {
        let (status, kind, body) = send(&store, from_page(Method::GET, &path)).await;
        assert_eq!((status, kind.as_str()), (StatusCode::OK, "text/calendar; charset=utf-8"), "{path}");
        // Long lines are folded (RFC 5545, 3.1).
        String::from_utf8(body).unwrap().replace("\r\n ", "")
    };
    let names = |text: &str| -> Vec<String> {
        text.lines().filter(|l| l.starts_with("UID:job")).map(|l| l.trim_end().to_owned()).collect()
    };
    let whole = file(format!("/api/days/{SATURDAY}/calendar")).await;
    assert_eq!(whole.matches("BEGIN:VEVENT").count(), list(&day["tasks"]).len());
    assert!(whole.contains(&format!("Baking\\, {SATURDAY}")), "it has a name");
    // The first step of the day is in it at its time.
    let begins = day["start_at"].as_str().unwrap().replace(['-', ':'], "");
    assert!(whole.contains(&format!("DTSTART:{begins}00Z")));
    let own = names(&file(format!("/api/jobs/{GULLS}/calendar")).await);
    let all = names(&whole);
    assert!(!own.is_empty() && own.iter().all(|uid| all.contains(uid)), "{own:?}");
    let unique: std::collections::BTreeSet<_> = all.iter().collect();
    assert_eq!(unique.len(), all.len());
    assert!(file("/api/days/2030-01-01/calendar".to_owned()).await.contains("VCALENDAR"));
}

#[actix_web::test]
async fn a_day_that_does_not_go_says_what_is_short_and_is_shown_as_it_would_be_with_it() {
    let (_dir, store) = demo().await;
    call(&store, Method::PATCH, "/api/kitchen", Some(json!({ "fridge_places": 0 }))).await;
    let day = get(&store, &format!("/api/days/{SATURDAY}")).await;
    let lacks = list(&day["lacks"]);
    assert!(
        lacks.iter().any(|l| l["text"].as_str().unwrap().contains("needs 1 fridge space, you have none")),
        "{lacks:?}"
    );
    assert!(list(&day["tasks"]).iter().any(|t| t["step"] == "chill"));
    let clock = get(&store, &format!("/api/jobs/{GULLS}/plan")).await;
    let reasons = list(&clock["clock"]["warnings"]);
    assert!(reasons.iter().any(|r| r["text"].as_str().unwrap().contains("fridge space")), "{reasons:?}");
    let (status, problem) = call(&store, Method::PATCH, "/api/kitchen", Some(json!({ "hands": 0 }))).await;
    assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "hands"));
}

#[actix_web::test]
async fn a_job_that_cannot_be_planned_does_not_take_its_day_with_it() {
    let (_dir, store) = demo().await;
    // A cutter that is larger than every tray.
    let platter = json!({ "kind": "builtin", "name": "Platter", "form": "round", "width_mm": 390 });
    let (_, cutter) = call(&store, Method::POST, "/api/cutters", Some(platter)).await;
    call(&store, Method::PATCH, "/api/jobs/3", Some(json!({ "cutter_id": cutter["id"] }))).await;
    let day = get(&store, &format!("/api/days/{SATURDAY}")).await;
    let not = list(&day["not_planned"]);
    let names: Vec<&Value> = not.iter().map(|j| &j["name"]).collect();
    assert_eq!((names, list(&day["jobs"]).len()), (vec![&json!("Awards-night boats")], 2));
    assert!(not.iter().all(|j| !list(&j["why"]).is_empty()));
    let (status, problem) = call(&store, Method::GET, "/api/days/tomorrow", None).await;
    assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "date"));
    // A day on which nothing is wanted is empty, and nothing of it can be begun.
    assert_eq!(get(&store, "/api/days/2030-01-01").await["tasks"], json!([]));
    let (status, _) = call(&store, Method::POST, "/api/runs", Some(json!({ "date": "2030-01-01" }))).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
}

/// The gulls alone, wanted so that they are begun now; and their run.
async fn begun(store: &Store) -> Value {
    for other in [2, 3, 4] {
        call(store, Method::DELETE, &format!("/api/jobs/{other}"), None).await;
    }
    let plan = get(store, &format!("/api/jobs/{GULLS}/plan")).await;
    let long = plan["clock"]["total_min"].as_i64().unwrap();
    let ready = Utc::now().naive_utc() + TimeDelta::minutes(long - 60);
    let ready_by = ready.format("%Y-%m-%dT%H:%M").to_string();
    call(store, Method::PATCH, &format!("/api/jobs/{GULLS}"), Some(json!({ "ready_by": ready_by }))).await;
    let (status, run) = call(store, Method::POST, "/api/runs", Some(json!({ "date": ready_by[..10] }))).await;
    assert_eq!(status, StatusCode::OK, "{run}");
    run
}

async fn note(store: &Store, run: &Value, events: Value) -> (StatusCode, Value) {
    call(store, Method::POST, &format!("/api/runs/{}/events", run["id"]), Some(events)).await
}

fn task(run: &Value, step: &str, tray: Option<u64>) -> u64 {
    let of = |b: &&Value| b["step"] == step && b["tray"].as_u64() == tray;
    list(&run["bars"]).iter().find(of).unwrap_or_else(|| panic!("{step} {tray:?}"))["task"].as_u64().unwrap()
}

#[actix_web::test]
async fn a_day_is_run_and_planned_anew_from_what_happened() {
    let (dir, store) = demo().await;
    let run = begun(&store).await;
    // Begun an hour after its plan: everything is an hour late, and it says so.
    let now = run["now_min"].as_f64().unwrap();
    assert!((59.0..62.5).contains(&now), "{now}");
    assert!((run["lots"][0]["late_min"].as_f64().unwrap() - now).abs() < 0.6, "{}", run["lots"]);
    let (mix, form, chill) = (task(&run, "mix", None), task(&run, "form", None), task(&run, "chill", None));
    let done = |press: &str, task: u64, at: f64| json!({ "press": press, "what": { "kind": "done", "task": task }, "at_min": at });
    let (_, after) = note(&store, &run, json!([done("a", mix, 13.0), done("b", form, 15.0)])).await;
    // In the cold since minute 15: its timer runs since then.
    let timer = list(&after["timers"]).iter().find(|t| t["tasks"] == json!([chill])).unwrap();
    assert_eq!((timer["since_min"].as_f64(), timer["button"].as_str()), (Some(15.0), Some("Out of the cold")));
    assert!(timer["note"]["text"].as_str().unwrap().contains("(forecast)"));
    // The same press again, from another device, counts once.
    let (_, twice) = note(&store, &run, json!([done("b", form, 30.0)])).await;
    assert_eq!(list(&twice["events"]).len(), 2);
    // Two people begin the day: it is one.
    let (_, same) = call(&store, Method::POST, "/api/runs", Some(json!({ "date": run["date"] }))).await;
    assert_eq!(same["id"], run["id"]);
    assert_eq!(get(&store, &format!("/api/days/{}", run["date"].as_str().unwrap())).await["run_id"], run["id"]);
    // The job is changed and deleted meanwhile: the day goes on as it was begun.
    call(&store, Method::PATCH, &format!("/api/jobs/{GULLS}"), Some(json!({ "pieces": 5 }))).await;
    call(&store, Method::DELETE, &format!("/api/jobs/{GULLS}"), None).await;
    // A mistaken press is taken back.
    let form_event = list(&twice["events"])[0]["id"].as_i64().unwrap();
    let back = json!([{ "press": "c", "what": { "kind": "taken_back", "event": form_event } }]);
    let (_, without) = note(&store, &run, back).await;
    assert_eq!(without["hands"][0]["step"], "form");
    // The program is killed: nothing is lost.
    store.close().await;
    let store = Store::open(&dir.path().join("bakery.db")).await.unwrap();
    let again = get(&store, &format!("/api/runs/{}", run["id"])).await;
    assert_eq!((&again["events"], &again["hands"][0]["step"]), (&without["events"], &json!("form")));
    let (_, ended) = call(&store, Method::POST, &format!("/api/runs/{}/end", run["id"]), None).await;
    assert_eq!(ended["ended"], true);
    assert_eq!(get(&store, "/api/runs").await, json!([]));
    // A phone that was away sends what it has: what was taken before passes by, what was before the end is taken, what came after it is refused by its place.
    let late = json!([done("b", form, 15.0), done("y", form, 16.0), done("z", mix, now + 600.0)]);
    let (status, problem) = note(&store, &run, late).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    let told = field_messages(&problem);
    assert_eq!(told.iter().map(|f| f.0.as_str()).collect::<Vec<_>>(), ["events[2].at_min"], "{problem}");
    let (status, after) = note(&store, &run, json!([done("b", form, 15.0), done("y", form, 16.0)])).await;
    assert_eq!((status, list(&after["events"]).len()), (StatusCode::OK, 2), "{}", after["events"]);
}

#[actix_web::test]
async fn a_day_that_is_begun_weeks_ahead_takes_its_presses() {
    let (_dir, store) = demo().await;
    let ready_by = (Utc::now() + TimeDelta::days(40)).format("%Y-%m-%dT14:00").to_string();
    call(&store, Method::PATCH, &format!("/api/jobs/{GULLS}"), Some(json!({ "ready_by": ready_by }))).await;
    let (_, run) = call(&store, Method::POST, "/api/runs", Some(json!({ "date": ready_by[..10] }))).await;
    let now = run["now_min"].as_f64().unwrap();
    assert!(now < -50_000.0, "{now}");
    for (press, at) in [("a", json!(now)), ("b", Value::Null)] {
        let event =
            json!([{ "press": press, "what": { "kind": "done", "task": task(&run, "mix", None) }, "at_min": at }]);
        let (status, told) = note(&store, &run, event).await;
        assert_eq!(status, StatusCode::OK, "{told}");
    }
}

#[actix_web::test]
async fn what_was_pressed_before_the_clock_was_set_back_is_taken_and_stands() {
    let (_dir, store) = demo().await;
    let run = begun(&store).await;
    let now = run["now_min"].as_f64().unwrap();
    // The phone pressed by a clock that was an hour ahead, which was put right since.
    let mix =
        json!([{ "press": "a", "what": { "kind": "done", "task": task(&run, "mix", None) }, "at_min": now + 60.0 }]);
    let (status, after) = note(&store, &run, mix).await;
    assert_eq!(status, StatusCode::OK, "{after}");
    assert!((list(&after["events"])[0]["at_min"].as_f64().unwrap() - now).abs() < 1.0, "as now: {}", after["events"]);
    assert_eq!(after["hands"][0]["step"], "form");
}

#[actix_web::test]
async fn a_tray_out_of_the_oven_tells_how_it_was_baked() {
    let (_dir, store) = demo().await;
    let run = begun(&store).await;
    let (cut, bake) = (task(&run, "cut", Some(1)), task(&run, "bake", Some(1)));
    let at = |press: &str, kind: &str, task: u64, at: f64| json!({ "press": press, "what": { "kind": kind, "task": task }, "at_min": at });
    let (_, out) = note(
        &store,
        &run,
        json!([at("a", "done", cut, 20.0), at("b", "started", bake, 40.0), at("c", "done", bake, 53.5)]),
    )
    .await;
    let tray = &out["baked"][0];
    assert_eq!(
        (tray["tray"].as_u64(), tray["baked_min"].as_f64(), tray["job_id"].as_i64()),
        (Some(1), Some(13.5), Some(GULLS))
    );
    // Twenty minutes in the freezer, which is at -18: colder than the room, warmer than the freezer.
    let start = tray["start_c"].as_f64().unwrap();
    assert!((-18.0..10.0).contains(&start), "{start}");
    // What was never pressed was done before: the tray is out, so the dough was mixed.
    assert!(list(&out["bars"]).iter().any(|b| b["step"] == "mix" && b["state"] == "done"));
}

#[actix_web::test]
async fn what_a_press_changed_and_what_holds_the_day_up_is_told() {
    let (_dir, store) = demo().await;
    let run = begun(&store).await;
    assert_eq!((&run["changed"], &run["held_up"]), (&Value::Null, &Value::Null));
    let (mix, cut) = (task(&run, "mix", None), task(&run, "cut", Some(1)));
    let (status, slow) =
        note(&store, &run, json!([{ "press": "a", "what": { "kind": "more_time", "task": mix, "min": 45.0 } }])).await;
    assert_eq!(status, StatusCode::OK);
    let changed = &slow["changed"];
    assert!(changed["because"]["text"].as_str().unwrap().contains("45 min longer"), "{changed}");
    let lots = list(&changed["lots"]);
    assert!(lots.iter().any(|l| l["by_min"].as_f64().unwrap() > 1.0 && l["from_at"] != l["to_at"]), "{changed}");
    // Taken back, the day is as it was, and that is told too.
    let (_, back) = note(&store, &run, json!([{ "press": "b", "what": { "kind": "taken_back", "event": 1 } }])).await;
    assert!(list(&back["changed"]["lots"]).iter().all(|l| l["by_min"].as_f64().unwrap() < 0.0), "{}", back["changed"]);
    assert_eq!(back["held_up"], Value::Null);
    let (_, nothing) =
        note(&store, &run, json!([{ "press": "c", "what": { "kind": "counted", "task": cut, "pieces": 3 } }])).await;
    assert_eq!(nothing["changed"], Value::Null, "a count moves nothing");
}

#[actix_web::test]
async fn a_thermometer_in_the_dough_is_told_at_the_bench_and_what_follows_from_it() {
    let (_dir, store) = demo().await;
    let run = begun(&store).await;
    let now = run["now_min"].as_f64().unwrap();
    let form = task(&run, "form", None);
    let done = json!([{ "press": "a", "what": { "kind": "done", "task": form }, "at_min": now - 14.0 }]);
    let (_, before) = note(&store, &run, done).await;
    let ago = |minutes: i64| (Utc::now() - TimeDelta::minutes(minutes)).format("%Y-%m-%dT%H:%M:%SZ").to_string();
    let path = format!("/api/jobs/{GULLS}/chills");
    let (status, piece) =
        call(&store, Method::POST, &path, Some(json!({ "name": "Disc", "put_in_at": ago(14) }))).await;
    assert_eq!(status, StatusCode::OK, "{piece}");
    let timer = |run: &Value| list(&run["timers"]).iter().find(|t| t["step"] == "chill").unwrap().clone();
    let at = format!("/api/runs/{}", run["id"]);
    // Without a reading it knows no more than the plan.
    assert!(timer(&get(&store, &at).await)["note"]["text"].as_str().unwrap().contains("(forecast)"));
    let readings = format!("/api/chills/{}/readings", piece["id"]);
    let warm = json!([{ "shows_c": 17.6, "spot": "core", "read_at": ago(4) }, { "shows_c": 16.8, "spot": "core", "read_at": ago(1) }]);
    call(&store, Method::POST, &readings, Some(warm)).await;
    let after = get(&store, &at).await;
    assert!(timer(&after)["note"]["text"].as_str().unwrap().contains("on the thermometer"), "{}", timer(&after));
    // It stays until the piece is ready by its readings, and longer only so that it stays workable; the day moves with it.
    let due = |run: &Value| timer(run)["due_min"].as_f64().unwrap();
    let live = get(&store, &format!("/api/chills/{}", piece["id"])).await;
    let ready = now - 14.0 + live["ready_after_min"].as_f64().unwrap();
    assert!((-0.5..45.0).contains(&(due(&after) - ready)), "{} {ready}", due(&after));
    let late = |run: &Value| run["lots"][0]["late_min"].as_f64().unwrap();
    assert!((due(&after) - due(&before)).abs() > 1.0, "the plan waits for the slow end of its range");
    assert!((late(&after) - late(&before)) * (due(&after) - due(&before)) > 0.0, "{} {}", late(&before), late(&after));
}

#[actix_web::test]
async fn two_dates_that_want_the_same_hands_say_so() {
    let (_dir, store) = demo().await;
    let day = get(&store, &format!("/api/days/{SATURDAY}")).await;
    assert_eq!(day["clashes"], json!([]));
    let jobs: Vec<i64> = list(&day["jobs"]).iter().map(|j| j["job_id"].as_i64().unwrap()).collect();
    for (job, ready_by) in [(jobs[0], "2026-11-28T23:45"), (jobs[1], "2026-11-29T00:05")] {
        let path = format!("/api/jobs/{job}");
        let (status, answer) = call(&store, Method::PATCH, &path, Some(json!({ "ready_by": ready_by }))).await;
        assert_eq!(status, StatusCode::OK, "{answer}");
    }
    let (saturday, sunday) = (get(&store, "/api/days/2026-11-28").await, get(&store, "/api/days/2026-11-29").await);
    let of = |day: &Value, other: &str| -> Vec<(String, String)> {
        let text = |v: &Value| v.as_str().unwrap().to_owned();
        list(&day["clashes"])
            .iter()
            .filter(|c| c["date"] == other)
            .map(|c| (text(&c["lane"]), text(&c["from_at"])))
            .collect()
    };
    let (there, back) = (of(&saturday, "2026-11-29"), of(&sunday, "2026-11-28"));
    assert!(there.iter().any(|(lane, _)| lane == "hands"), "{there:?}");
    assert_eq!(there, back, "both say the same");
}

#[actix_web::test]
async fn what_cannot_have_happened_is_refused_and_nothing_of_it_is_noted() {
    let (_dir, store) = demo().await;
    let run = begun(&store).await;
    let events = json!([
        { "press": "a", "what": { "kind": "done", "task": 0 } },
        { "press": "", "what": { "kind": "done", "task": 9999 } },
        { "press": "b", "what": { "kind": "more_time", "task": 0, "min": 0.0 } },
        { "press": "c", "what": { "kind": "done", "task": 0 }, "at_min": 99999.0 },
        { "press": "d", "what": { "kind": "measured", "task": 0, "c": 90.0 } },
    ]);
    let (status, problem) = note(&store, &run, events).await;
    let fields: Vec<String> = field_messages(&problem).into_iter().map(|f| f.0).collect();
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(
        fields,
        ["events[1].press", "events[1].what.task", "events[2].what.min", "events[3].at_min", "events[4].what.c"]
    );
    assert_eq!(get(&store, &format!("/api/runs/{}", run["id"])).await["events"], json!([]));
    let (status, _) = note(&store, &json!({ "id": 99 }), json!([])).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
}

#[actix_web::test]
async fn a_rehearsal_runs_sixty_times_as_fast_beside_the_day() {
    let (_dir, store) = demo().await;
    let (_, tried) =
        call(&store, Method::POST, "/api/runs", Some(json!({ "date": SATURDAY, "rehearsal": true }))).await;
    assert_eq!((tried["speed"].as_f64(), tried["rehearsal"].as_bool()), (Some(60.0), Some(true)));
    let from = tried["now_min"].as_f64().unwrap();
    assert!((-1.0..3.0).contains(&from), "it begins before the first step: {from}");
    tokio::time::sleep(std::time::Duration::from_millis(300)).await;
    let later = get(&store, &format!("/api/runs/{}", tried["id"])).await["now_min"].as_f64().unwrap();
    assert!(later - from >= 0.3, "three tenths of a second are 18 s of it: {from} {later}");
    assert_eq!(get(&store, &format!("/api/days/{SATURDAY}")).await["run_id"], Value::Null, "it is not the day");
}

#[actix_web::test]
async fn a_run_over_midnight_and_a_change_of_the_clocks_counts_real_minutes() {
    let dir = tempfile::tempdir().unwrap();
    let store = Store::open(&dir.path().join("bakery.db")).await.unwrap();
    demo::fill(&store, "Europe/Lisbon", wednesday()).await.unwrap();
    for other in [2, 3, 4] {
        call(&store, Method::DELETE, &format!("/api/jobs/{other}"), None).await;
    }
    // The clocks go from 2:00 to 1:00 that night (IANA time zone database).
    call(
        &store,
        Method::PATCH,
        &format!("/api/jobs/{GULLS}"),
        Some(json!({ "ready_by": "2026-10-25T02:10", "pieces": 150 })),
    )
    .await;
    let day = get(&store, "/api/days/2026-10-25").await;
    let (_, run) =
        call(&store, Method::POST, "/api/runs", Some(json!({ "date": "2026-10-25", "rehearsal": true }))).await;
    assert_eq!(run["lots"][0]["wanted_at"], "2026-10-25T02:10:00");
    let moment = |text: &Value| NaiveDateTime::parse_from_str(text.as_str().unwrap(), "%Y-%m-%dT%H:%M:%S").unwrap();
    let ready = list(&run["bars"]).iter().map(|b| b["end_min"].as_f64().unwrap()).fold(0.0, f64::max);
    let wall = (moment(&run["lots"][0]["ready_at"]) - moment(&run["zero_at"])).num_seconds();
    #[expect(clippy::cast_precision_loss, reason = "hours")]
    let wall_min = wall as f64 / 60.0;
    // An hour is shown twice: by the wall it takes an hour less.
    assert!((ready - 60.0 - wall_min).abs() < 0.1, "{ready} real minutes, {wall_min} by the wall");
    assert!(day["start_at"].as_str().unwrap().starts_with("2026-10-24T"), "{}", day["start_at"]);
}

#[actix_web::test]
async fn the_code_of_a_run_holds_its_address() {
    let (_dir, store) = demo().await;
    let run = begun(&store).await;
    let request = from_page(Method::GET, &format!("/api/runs/{}/code.svg", run["id"]));
    let (status, kind, body) = send(&store, request).await;
    assert_eq!((status, kind.as_str()), (StatusCode::OK, "image/svg+xml"));
    assert!(String::from_utf8(body).unwrap().contains("<svg"));
}

#[actix_web::test]
async fn a_day_is_tried_with_a_job_wanted_at_another_time_and_nothing_is_saved() {
    let (_dir, store) = demo().await;
    let as_is = get(&store, &format!("/api/days/{SATURDAY}")).await;
    let later = format!("/api/days/{SATURDAY}?job=1&ready_by={SATURDAY}T16:00");
    let tried = get(&store, &later).await;
    let gulls = |day: &Value| list(&day["jobs"]).iter().find(|j| j["job_id"] == 1).unwrap().clone();
    assert_eq!(gulls(&tried)["ready_by"], json!(format!("{SATURDAY}T16:00")));
    assert!(gulls(&tried)["start_at"].as_str() > gulls(&as_is)["start_at"].as_str());
    assert_eq!(get(&store, &format!("/api/days/{SATURDAY}")).await, as_is);
    // It is the day that is laid out when the job is moved.
    call(&store, Method::PATCH, "/api/jobs/1", Some(json!({ "ready_by": format!("{SATURDAY}T16:00") }))).await;
    assert_eq!(get(&store, &format!("/api/days/{SATURDAY}")).await["tasks"], tried["tasks"]);
    for (query, field) in [
        ("job=1", "ready_by"),
        ("ready_by=2026-11-28T10:00", "job"),
        ("job=99&ready_by=2026-11-28T10:00", "job"),
        ("job=1&ready_by=noon", "ready_by"),
    ] {
        let (status, problem) = call(&store, Method::GET, &format!("/api/days/{SATURDAY}?{query}"), None).await;
        assert_eq!(
            (status, field_messages(&problem)[0].0.as_str()),
            (StatusCode::UNPROCESSABLE_ENTITY, field),
            "{query}"
        );
    }
}
