//! The oven station through the API.

mod bakery;

use actix_web::http::{Method, StatusCode};
use bakery::{call, demo, field_messages, from_page, get, send};
use serde_json::{Value, json};

#[actix_web::test]
async fn a_plan_forecasts_and_follows_its_end_its_liner_and_the_oven_as_measured() {
    let (_dir, store) = demo().await;
    let oven = |plan: Value| plan["oven"].clone();
    let before = oven(get(&store, "/api/jobs/1/plan").await);
    assert_eq!(before["basis"], "forecast");
    let min = |o: &Value| o["forecast"]["bake_min"].as_f64().unwrap();
    let spread = |o: &Value| o["forecast"]["spread_percent"].as_f64().unwrap();
    assert!(
        (before["bake_least_min"].as_f64().unwrap()..before["bake_most_min"].as_f64().unwrap()).contains(&min(&before))
    );
    call(&store, Method::PATCH, "/api/jobs/1", Some(json!({ "bake_end": "brown", "liner": "greased" }))).await;
    let after = oven(get(&store, "/api/jobs/1/plan").await);
    assert!(min(&after) > min(&before) && spread(&after) > spread(&before));
    let kitchen = json!({ "oven_readings": [{ "set_c": 175.0, "read_c": 160.0 }] });
    let (status, _) = call(&store, Method::PATCH, "/api/kitchen", Some(kitchen)).await;
    assert_eq!(status, StatusCode::OK);
    assert!(min(&oven(get(&store, "/api/jobs/1/plan").await)) > min(&after));
    let wild = json!({ "oven_readings": [{ "set_c": 175.0, "read_c": 400.0 }] });
    let (status, problem) = call(&store, Method::PATCH, "/api/kitchen", Some(wild)).await;
    assert_eq!(
        (status, field_messages(&problem)[0].0.as_str()),
        (StatusCode::UNPROCESSABLE_ENTITY, "oven_readings[0].read_c")
    );
}

#[actix_web::test]
async fn a_piece_can_be_lifted_before_it_can_be_packed() {
    let (_dir, store) = demo().await;
    let found = get(&store, "/api/jobs/1/cooling").await;
    let min = |field: &str| found[field].as_f64().unwrap();
    // Common practice, no source: 4 to 15 min until it lifts, an hour or so until it is cool all through.
    assert!((4.0..15.0).contains(&min("lifts_after_min")), "{found}");
    assert!((15.0..90.0).contains(&min("packs_after_min")), "{found}");
}

#[actix_web::test]
async fn the_board_tells_every_lever_and_ends() {
    let (_dir, store) = demo().await;
    let (status, kind, body) = send(&store, from_page(Method::GET, "/api/jobs/1/levers")).await;
    assert_eq!((status, kind.as_str()), (StatusCode::OK, "text/event-stream"));
    let body = String::from_utf8(body.to_vec()).unwrap();
    let levers: Vec<Value> = body
        .split("\n\n")
        .filter_map(|e| e.strip_prefix("event: lever\ndata: "))
        .map(|data| serde_json::from_str(data).unwrap())
        .collect();
    assert_eq!(Some(levers.len() as u64), levers[0]["of"].as_u64());
    let mut numbers: Vec<u64> = levers.iter().map(|l| l["number"].as_u64().unwrap()).collect();
    numbers.sort_unstable();
    assert_eq!(numbers, (0..levers.len() as u64).collect::<Vec<_>>());
    assert!(body.trim_end().rsplit("\n\n").next().unwrap().starts_with("event: done"));
    assert!(levers.iter().all(|l| l["why_not"].is_null() == l["bake_min"].is_number()));
    // Beyond the forecast there is nothing to compare.
    call(&store, Method::PATCH, "/api/jobs/1", Some(json!({ "making": { "kind": "ball", "mass_g": 400.0 } }))).await;
    let (status, problem) = call(&store, Method::GET, "/api/jobs/1/levers", None).await;
    assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "bake"));
}

#[actix_web::test]
async fn recorded_bakes_teach_once_they_are_taken_over_and_are_forgotten_again() {
    let (_dir, store) = demo().await;
    let forecast = || async { get(&store, "/api/jobs/1/plan").await["oven"]["forecast"]["bake_min"].as_f64().unwrap() };
    let plain = forecast().await;
    // The demo has two bakes, both longer than the forecast.
    let teach = get(&store, "/api/jobs/1/bakes-teach").await;
    assert_eq!((&teach["records"], &teach["taken"]), (&json!(2), &Value::Null));
    let would = &teach["would"];
    assert!(would["offset_k"].as_f64().unwrap() < 0.0, "a cool oven: {would}");
    let wide = |b: &Value| b["bake_most_min"].as_f64().unwrap() - b["bake_least_min"].as_f64().unwrap();
    let share = |b: &Value| wide(b) / b["bake_most_min"].as_f64().unwrap();
    assert!(share(&teach["after"]) < share(&teach["before"]), "{teach}");
    assert!((forecast().await - plain).abs() < 1e-9, "nothing counts before it is taken over");
    let (status, taken) = call(&store, Method::POST, "/api/jobs/1/bakes-teach", None).await;
    assert_eq!((status, &taken["records"]), (StatusCode::OK, &json!(2)));
    assert!(forecast().await > plain);
    // Another job of the same formula learns with it; one of another formula does not.
    assert!(get(&store, "/api/jobs/3/plan").await["oven"]["reasons"].to_string().contains("of your bakes have taught"));
    assert!(
        !get(&store, "/api/jobs/2/plan").await["oven"]["reasons"].to_string().contains("of your bakes have taught")
    );
    call(&store, Method::DELETE, "/api/jobs/1/bakes-teach", None).await;
    assert!((forecast().await - plain).abs() < 1e-9);
    let (status, problem) = call(&store, Method::POST, "/api/jobs/2/bakes-teach", None).await;
    assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "records"));
}
