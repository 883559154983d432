//! The cold station and the followed pieces through the API, on temporary bakeries.

use crate::bakery::{call, demo, field_messages, from_page, get, send};
use actix_web::body::MessageBody;
use actix_web::dev::Service;
use actix_web::http::{Method, StatusCode};
use actix_web::test::init_service;
use chrono::{SecondsFormat, TimeDelta, Utc};
use ready_slab_server::app::application;
use ready_slab_server::bakeries::Bakeries;
use ready_slab_server::guard::AllowedHosts;
use ready_slab_store::Store;
use serde_json::{Value, json};

fn ago(minutes: i64) -> String {
    (Utc::now() - TimeDelta::minutes(minutes)).to_rfc3339_opts(SecondsFormat::Millis, true)
}

async fn post(store: &Store, path: &str, body: Value) -> (StatusCode, Value) {
    call(store, Method::POST, path, Some(body)).await
}

/// A disc in the fridge for 40 minutes.
async fn put_in(store: &Store, more: Value) -> i64 {
    let mut body = json!({ "name": "Disc 1", "put_in_at": ago(40) });
    body.as_object_mut().unwrap().extend(more.as_object().unwrap().clone());
    let (status, piece) = post(store, "/api/jobs/1/chills", body).await;
    assert_eq!(status, StatusCode::OK, "{piece}");
    piece["id"].as_i64().unwrap()
}

fn of(value: &Value, path: &str) -> f64 {
    value.pointer(path).and_then(Value::as_f64).unwrap_or_else(|| panic!("{path} in {value}"))
}

#[actix_web::test]
async fn a_piece_is_put_in_as_planned_and_every_reading_narrows_its_range() {
    let (_dir, store) = demo().await;
    let plan = get(&store, "/api/jobs/1/plan").await;
    let id = put_in(&store, json!({})).await;
    let path = format!("/api/chills/{id}");
    let plain = get(&store, &path).await;
    assert_eq!(plain["piece"], plan["cold"]["piece"]);
    assert_eq!((plain["stays"][0]["place"].as_str(), plain["purpose"].as_str()), (Some("fridge"), Some("rolling")));
    assert!((of(&plain, "/ready_after_min") - of(&plan, "/cold/ready_after_min")).abs() < 0.2);
    assert!((of(&plain, "/now/elapsed_min") - 40.0).abs() < 0.2);
    assert_eq!(plain["now"]["word"], "rolls clean");
    // Of the time it takes: what is found to cool more slowly is told later, and as sure of itself.
    let width = |v: &Value| (of(v, "/ready_latest_min") - of(v, "/ready_earliest_min")) / of(v, "/ready_after_min");
    // Readings of any device, out of order.
    for (minutes, shows) in [(25, 20.3), (35, 21.6), (15, 18.8)] {
        let (before, body) =
            (get(&store, &path).await, json!([{ "shows_c": shows, "spot": "core", "read_at": ago(minutes) }]));
        let (status, taken) = post(&store, &format!("{path}/readings"), body).await;
        assert_eq!((status, taken["kept"].as_i64()), (StatusCode::OK, Some(1)));
        let after = get(&store, &path).await;
        // One right after it went in says next to nothing.
        let least = if minutes > 30 { 1.01 } else { 1.0 };
        assert!(
            width(&after) < least * width(&before),
            "after {minutes} minutes ago: {} to {}",
            width(&before),
            width(&after)
        );
    }
    let read = get(&store, &path).await;
    let order: Vec<f64> = read["readings"].as_array().unwrap().iter().map(|r| of(r, "/after_min")).collect();
    assert!(order.is_sorted() && order.len() == 3);
    assert!(of(&read, "/ready_after_min") > of(&plain, "/ready_after_min"), "it cooled more slowly than planned");
    // One that fits nothing is set aside and said so; it can be taken away.
    let odd = json!([{ "shows_c": 36.0, "spot": "core", "read_at": ago(20) }]);
    post(&store, &format!("{path}/readings"), odd).await;
    let with = get(&store, &path).await;
    let aside: Vec<&Value> = with["readings"].as_array().unwrap().iter().filter(|r| r["set_aside"] == true).collect();
    assert_eq!(aside.len(), 1);
    assert!(with["said"].to_string().contains("36 \u{b0}C doesn’t fit the other readings"));
    assert!((of(&with, "/ready_after_min") - of(&read, "/ready_after_min")).abs() < 1.0);
    let (status, _, table) = send(&store, from_page(Method::GET, &format!("{path}/readings.csv"))).await;
    let table = String::from_utf8(table).unwrap();
    assert_eq!((status, table.lines().count(), table.matches(",true").count()), (StatusCode::OK, 5, 1));
    let gone = format!("/api/readings/{}", aside[0]["id"]);
    assert_eq!(call(&store, Method::DELETE, &gone, None).await.0, StatusCode::NO_CONTENT);
    assert_eq!(call(&store, Method::DELETE, &gone, None).await.0, StatusCode::NOT_FOUND);
    assert_eq!(of(&get(&store, &path).await, "/readings_total"), 3.0);
}

#[actix_web::test]
async fn bad_readings_are_refused_with_the_reason_and_none_of_the_request_is_kept() {
    let (_dir, store) = demo().await;
    let id = put_in(&store, json!({})).await;
    let path = format!("/api/chills/{id}/readings");
    let good = json!({ "shows_c": 18.0, "spot": "core" });
    let later = (Utc::now() + TimeDelta::minutes(10)).to_rfc3339();
    for (bad, said) in [
        (json!({ "shows_c": 68.0, "spot": "core" }), "If that’s Fahrenheit, send 20.0 \u{b0}C"),
        (json!({ "shows_c": 300.0, "spot": "core" }), "Use \u{2212}40 to 45 \u{b0}C"),
        (json!({ "shows_c": 18.0, "spot": "core", "read_at": later }), "in the future"),
        (json!({ "shows_c": 18.0, "spot": "core", "read_at": ago(50) }), "before the dough went in"),
        (json!({ "shows_c": 18.0, "spot": "core", "read_at": "yesterday" }), "2026-11-28T12:40:00Z"),
    ] {
        let (status, problem) = post(&store, &path, json!([good, bad])).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{bad}");
        let (field, message) = field_messages(&problem).remove(0);
        assert!(field.starts_with("readings[1].") && message.contains(said), "{bad}: {field} {message}");
    }
    let many = Value::Array(vec![good.clone(); 1001]);
    assert_eq!(post(&store, &path, many).await.0, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(of(&get(&store, &format!("/api/chills/{id}")).await, "/readings_total"), 0.0);
    // A thousand at once are taken, and the piece still answers.
    let thousand: Vec<Value> =
        (0..1000).map(|i| json!({ "shows_c": 21.0 - f64::from(i) * 0.003, "spot": "core", "read_at": ago(35 - i64::from(i) / 30) })).collect();
    let (status, taken) = post(&store, &path, Value::Array(thousand)).await;
    assert_eq!((status, taken["total"].as_i64()), (StatusCode::OK, Some(1000)));
    let piece = get(&store, &format!("/api/chills/{id}")).await;
    assert_eq!((of(&piece, "/readings_total"), piece["readings"].as_array().unwrap().len()), (1000.0, 400));
    assert_eq!(post(&store, "/api/chills/99/readings", json!([good])).await.0, StatusCode::NOT_FOUND);
}

#[actix_web::test]
async fn a_piece_that_lies_longer_than_its_dough_keeps_says_so() {
    let (_dir, store) = demo().await;
    // The gulls' dough holds raw egg: common practice gives it two to three days in a fridge.
    let fresh = put_in(&store, json!({})).await;
    let old = put_in(&store, json!({ "name": "Forgotten disc", "put_in_at": ago(4 * 24 * 60) })).await;
    let said = |piece: &Value| piece["now"]["too_long"]["text"].clone();
    assert_eq!(said(&get(&store, &format!("/api/chills/{fresh}")).await), Value::Null);
    let told = said(&get(&store, &format!("/api/chills/{old}")).await);
    assert_eq!(told, "4 days in the fridge: longer than the 2 to 3 days this dough keeps.");
}

#[actix_web::test]
async fn bad_pieces_are_refused() {
    let (_dir, store) = demo().await;
    let later = (Utc::now() + TimeDelta::minutes(10)).to_rfc3339();
    for (bad, field) in [
        (json!({ "name": " " }), "name"),
        (json!({ "name": "a", "start_c": 68 }), "start_c"),
        (json!({ "name": "a", "clock_speed": 0.5 }), "clock_speed"),
        (json!({ "name": "a", "put_in_at": later }), "put_in_at"),
        (json!({ "name": "a", "put_in_at": "2026-11-28T12:00" }), "put_in_at"),
        (json!({ "name": "a", "put_in_at": ago(410 * 24 * 60) }), "put_in_at"),
        (json!({ "name": "a", "piece": { "kind": "disc", "thickness_mm": 999, "diameter_mm": 180 } }), "piece"),
        (json!({ "name": "a", "place": "cellar" }), "place"),
    ] {
        let (status, problem) = post(&store, "/api/jobs/1/chills", bad.clone()).await;
        assert!(status.is_client_error(), "{bad}");
        assert!(field_messages(&problem)[0].0.starts_with(field), "{bad}: {problem}");
    }
    assert_eq!(get(&store, "/api/jobs/1/chills").await, json!([]));
    // A fridge at 40 degC is no fridge.
    let (status, problem) = call(&store, Method::PATCH, "/api/kitchen", Some(json!({ "fridge_c": 40 }))).await;
    assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "fridge_c"));
}

#[actix_web::test]
async fn a_target_below_the_air_is_never_reached_and_says_why() {
    let (_dir, store) = demo().await;
    let id = put_in(&store, json!({ "place": "bench" })).await;
    let piece = get(&store, &format!("/api/chills/{id}")).await;
    assert!(
        piece["never"]["text"].as_str().unwrap().contains("put it back in the fridge or freezer"),
        "{}",
        piece["never"]
    );
    call(&store, Method::PATCH, "/api/kitchen", Some(json!({ "fridge_c": 8 }))).await;
    let id = put_in(
        &store,
        json!({ "piece": { "kind": "sheet", "thickness_mm": 6 }, "purpose": "oven", "place": "fridge" }),
    )
    .await;
    let piece = get(&store, &format!("/api/chills/{id}")).await;
    let never = piece["never"]["text"].as_str().map(str::to_owned);
    let limit = of(&piece, "/window/oven_ready_c");
    assert_eq!(never.is_some(), limit < 8.2, "limit {limit}, said {never:?}");
}

#[actix_web::test]
async fn pieces_move_end_and_every_step_has_its_way_back() {
    let (_dir, store) = demo().await;
    let id = put_in(&store, json!({})).await;
    let path = format!("/api/chills/{id}");
    let (status, moved) = post(&store, &format!("{path}/move"), json!({ "place": "bench" })).await;
    assert_eq!((status, moved["stays"].as_array().unwrap().len()), (StatusCode::OK, 2));
    assert!(of(&moved, "/now/out_of_cold_min") < 0.1);
    let (status, problem) = post(&store, &format!("{path}/move"), json!({ "place": "bench" })).await;
    assert_eq!(
        (status, field_messages(&problem)[0].1.as_str()),
        (StatusCode::UNPROCESSABLE_ENTITY, "It’s already there.")
    );
    let (_, back) = call(&store, Method::POST, &format!("{path}/unmove"), None).await;
    assert_eq!(back["stays"].as_array().unwrap().len(), 1);
    let (_, ended) = call(&store, Method::POST, &format!("{path}/end"), None).await;
    assert!(ended["ended_at"].is_string());
    let (status, _) = call(&store, Method::PUT, &format!("{path}/probe"), Some(json!({}))).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    let (_, open) = call(&store, Method::POST, &format!("{path}/reopen"), None).await;
    assert_eq!(open["ended_at"], Value::Null);
    assert_eq!(call(&store, Method::DELETE, &path, None).await.0, StatusCode::NO_CONTENT);
    assert_eq!(call(&store, Method::GET, &path, None).await.0, StatusCode::NOT_FOUND);
}

/// A piece that was read teaches as soon as it is taken out; one press leaves it out, another puts it back.
#[actix_web::test]
async fn a_piece_teaches_its_place_by_itself_and_can_be_left_out() {
    let (_dir, store) = demo().await;
    let before = get(&store, "/api/places").await;
    let read_piece = || async {
        let id = put_in(&store, json!({})).await;
        let readings: Vec<Value> = [(32, 21.5), (24, 20.2), (16, 18.9), (8, 17.8)]
            .map(|(m, c)| json!({ "shows_c": c, "spot": "core", "read_at": ago(m) }))
            .to_vec();
        post(&store, &format!("/api/chills/{id}/readings"), Value::Array(readings)).await;
        format!("/api/chills/{id}")
    };
    let path = read_piece().await;
    let (_, ended) = call(&store, Method::POST, &format!("{path}/end"), None).await;
    assert_eq!((&ended["taught"], &ended["left_out"]), (&json!(true), &json!(false)), "{ended}");
    let one = get(&store, "/api/places").await;
    assert_eq!(one[0]["pieces"], 1);
    let second = read_piece().await;
    call(&store, Method::POST, &format!("{second}/end"), None).await;
    let both = get(&store, "/api/places").await;
    assert_eq!(both[0]["pieces"], 2);
    // Without the second it is as it was after the first.
    let (status, out) = call(&store, Method::DELETE, &format!("{second}/teach"), None).await;
    assert_eq!((status, &out["taught"], &out["left_out"]), (StatusCode::OK, &json!(false), &json!(true)));
    let again = get(&store, "/api/places").await;
    assert_eq!(again[0]["pieces"], 1);
    for i in 0..3 {
        let at = format!("/0/film_factor/{i}");
        assert!((of(&again, &at) - of(&one, &at)).abs() < 1e-6, "{again} {one}");
    }
    assert_eq!(call(&store, Method::POST, &format!("{second}/teach"), None).await.1["taught"], true);
    assert_eq!(get(&store, "/api/places").await[0]["pieces"], 2);
    // Followed again it teaches nothing until it is taken out.
    call(&store, Method::POST, &format!("{second}/reopen"), None).await;
    call(&store, Method::DELETE, &format!("{path}/teach"), None).await;
    assert_eq!(get(&store, "/api/places").await[0], before[0]);
}

#[actix_web::test]
async fn accepted_readings_teach_the_place_in_its_use_and_can_be_forgotten() {
    let (_dir, store) = demo().await;
    let plan = get(&store, "/api/jobs/1/plan").await;
    let id = put_in(&store, json!({})).await;
    let path = format!("/api/chills/{id}");
    let (status, problem) = call(&store, Method::POST, &format!("{path}/teach"), None).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
    let readings: Vec<Value> = [(32, 21.5), (24, 20.2), (16, 18.9), (8, 17.8)]
        .map(|(m, c)| json!({ "shows_c": c, "spot": "core", "read_at": ago(m) }))
        .to_vec();
    post(&store, &format!("{path}/readings"), Value::Array(readings)).await;
    let before = get(&store, "/api/places").await;
    let (status, taught) = call(&store, Method::POST, &format!("{path}/teach"), None).await;
    assert_eq!((status, taught["taught"].as_bool()), (StatusCode::OK, Some(true)));
    assert_eq!(call(&store, Method::POST, &format!("{path}/teach"), None).await.0, StatusCode::UNPROCESSABLE_ENTITY);
    let after = get(&store, "/api/places").await;
    let spread = |v: &Value, i: usize| of(v, &format!("/{i}/film_factor/2")) / of(v, &format!("/{i}/film_factor/0"));
    assert_eq!((after[0]["place"].as_str(), after[0]["pieces"].as_i64()), (Some("fridge"), Some(1)));
    assert!(spread(&after, 0) < spread(&before, 0) && of(&after, "/0/film_factor/1") < 1.0);
    assert_eq!((&after[1], &after[2]), (&before[1], &before[2]), "the busy fridge and the freezer are as before");
    let slower = get(&store, "/api/jobs/1/plan").await;
    assert!(of(&slower, "/cold/ready_after_min") > of(&plan, "/cold/ready_after_min") + 1.0);
    // Crowded it is another place, which nothing has taught.
    let (_, places) = call(&store, Method::PUT, "/api/places/fridge/use", Some(json!({ "busy": true }))).await;
    assert_eq!((places[0]["present"].as_bool(), places[1]["present"].as_bool()), (Some(false), Some(true)));
    let crowded = get(&store, "/api/jobs/1/plan").await;
    assert!(of(&crowded, "/cold/ready_after_min") > of(&plan, "/cold/ready_after_min"));
    call(&store, Method::PUT, "/api/places/fridge/use", Some(json!({ "busy": false }))).await;
    let (_, reset) = call(&store, Method::DELETE, "/api/places/fridge/usual", None).await;
    assert_eq!(reset, before);
    assert_eq!(get(&store, "/api/jobs/1/plan").await, plan);
    assert_eq!(call(&store, Method::DELETE, "/api/places/cellar/usual", None).await.0, StatusCode::NOT_FOUND);
}

#[actix_web::test]
async fn what_hands_find_moves_the_formulas_window() {
    let (_dir, store) = demo().await;
    let plan = get(&store, "/api/jobs/1/plan").await;
    let stuck = json!({ "purpose": "rolling", "touch": "stuck", "dough_c": 17.5 });
    let mut last = of(&plan, "/cold/window/rolls_to_c");
    for _ in 0..2 {
        let (status, touches) = post(&store, "/api/jobs/1/touches", stuck.clone()).await;
        assert_eq!(status, StatusCode::OK);
        let now = touches["limits"].as_array().unwrap().iter().find(|l| l["name"] == "rolls clean to").unwrap().clone();
        assert!(of(&now, "/now_c") < last);
        last = of(&now, "/now_c");
        assert_eq!(of(&get(&store, "/api/jobs/1/plan").await, "/cold/window/rolls_to_c"), last);
    }
    let found = get(&store, "/api/jobs/1/touches").await;
    for touch in found["touches"].as_array().unwrap() {
        call(&store, Method::DELETE, &format!("/api/touches/{}", touch["id"]), None).await;
    }
    assert_eq!(get(&store, "/api/jobs/1/plan").await, plan);
    for (bad, field) in [
        (json!({ "purpose": "rolling", "touch": "squashed", "dough_c": 17.5 }), "touch"),
        (json!({ "purpose": "oven", "touch": "right", "dough_c": 17.5 }), "purpose"),
        (json!({ "purpose": "rolling", "touch": "stuck", "dough_c": 66 }), "dough_c"),
    ] {
        let (_, problem) = post(&store, "/api/jobs/1/touches", bad).await;
        assert_eq!(field_messages(&problem)[0].0, field);
    }
}

#[actix_web::test]
async fn other_ways_a_section_of_each_and_advice_for_every_trouble() {
    let (_dir, store) = demo().await;
    let ways = get(&store, "/api/jobs/1/cold/ways").await;
    let ways = ways.as_array().unwrap();
    assert_eq!((ways.len(), ways.iter().filter(|w| w["chosen"] == true).count()), (12, 1));
    for way in ways {
        let key = way["key"].as_str().unwrap();
        let section = get(&store, &format!("/api/jobs/1/cold/section?way={key}")).await;
        let frames = section["frames"].as_array().unwrap();
        assert!(frames.len() >= 30, "{key}: {}", frames.len());
        assert_eq!(frames[0]["after_min"].as_f64(), Some(0.0), "{key}");
    }
    // The size of a way is a lever: thinner is sooner.
    let disc =
        |v: &Value| of(v.as_array().unwrap().iter().find(|w| w["key"] == "disc-fridge").unwrap(), "/ready_after_min");
    let thin = get(&store, "/api/jobs/1/cold/ways?disc_mm=12").await;
    let thick = get(&store, "/api/jobs/1/cold/ways?disc_mm=40").await;
    assert!(disc(&thin) < disc(&Value::Array(ways.clone())) && disc(&Value::Array(ways.clone())) < disc(&thick));
    for (query, field) in
        [("ways?disc_mm=400", "disc_mm"), ("section?way=cube", "way"), ("advice?trouble=warm_room&room_c=70", "room_c")]
    {
        let (status, problem) = call(&store, Method::GET, &format!("/api/jobs/1/cold/{query}"), None).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{query}");
        assert_eq!(field_messages(&problem)[0].0, field);
    }
    for (trouble, caution) in [
        ("too_warm&dough_c=22", false),
        ("too_hard&dough_c=4", false),
        ("warm_room&room_c=29", false),
        ("no_space", true),
        ("power_out&ago_min=90&dough_c=4", true),
    ] {
        let advice = get(&store, &format!("/api/jobs/1/cold/advice?trouble={trouble}")).await;
        let remedies = advice["remedies"].as_array().unwrap();
        assert!(!remedies.is_empty() && !advice["headline"]["text"].as_str().unwrap().is_empty(), "{trouble}");
        // Every piece of advice carries a figure.
        assert!(advice.to_string().bytes().any(|b| b.is_ascii_digit()), "{trouble}");
        if caution {
            assert!(advice["caution"]["text"].is_string(), "{trouble}");
        }
    }
}

#[actix_web::test]
async fn the_stand_in_reads_by_itself_and_stops_with_the_piece() {
    let (_dir, store) = demo().await;
    let bakeries = Bakeries::new(store.clone(), None);
    let app = init_service(application(bakeries, AllowedHosts::default())).await;
    let id = put_in(&store, json!({ "put_in_at": null, "clock_speed": 600 })).await;
    let body =
        json!({ "every_s": 60, "noise_k": 0.2, "drop_out": 0.0, "seed": 7, "film_factor": 1.2, "air_off_k": 0.5 });
    let request = from_page(Method::PUT, &format!("/api/chills/{id}/probe")).set_payload(body.to_string()).to_request();
    assert_eq!(app.call(request).await.unwrap().status(), StatusCode::OK);
    let path = format!("/api/chills/{id}");
    let mut piece = Value::Null;
    for _ in 0..100 {
        tokio::time::sleep(std::time::Duration::from_millis(100)).await;
        piece = get(&store, &path).await;
        if of(&piece, "/readings_total") >= 5.0 {
            break;
        }
    }
    assert!(of(&piece, "/readings_total") >= 5.0, "{piece}");
    assert_eq!(piece["probe"]["seed"], 7);
    call(&store, Method::POST, &format!("{path}/end"), None).await;
    tokio::time::sleep(std::time::Duration::from_millis(400)).await;
    let ended = of(&get(&store, &path).await, "/readings_total");
    tokio::time::sleep(std::time::Duration::from_millis(500)).await;
    assert_eq!(of(&get(&store, &path).await, "/readings_total"), ended);
    // The physics of the piece, as a device takes it.
    let physics = get(&store, &format!("{path}/physics")).await;
    assert_eq!((physics["ended"].as_bool(), physics["stays"].as_array().unwrap().len()), (Some(true), 1));
    for (bad, field) in [(json!({ "every_s": 1 }), "every_s"), (json!({ "film_factor": 9 }), "film_factor")] {
        let (_, problem) = call(&store, Method::PUT, &format!("{path}/probe"), Some(bad)).await;
        assert_eq!(field_messages(&problem)[0].0, field);
    }
}

#[actix_web::test]
async fn the_stream_tells_all_pieces_at_once_and_after_a_change() {
    let (_dir, store) = demo().await;
    let bakeries = Bakeries::new(store.clone(), None);
    let board = bakeries.own().board.clone();
    let app = init_service(application(bakeries, AllowedHosts::default())).await;
    let response = app.call(from_page(Method::GET, "/api/cold/live").to_request()).await.unwrap();
    assert_eq!(response.headers().get("content-type").unwrap(), "text/event-stream");
    let mut body = Box::pin(response.into_body());
    let mut next = async || {
        let chunk = std::future::poll_fn(|cx| body.as_mut().poll_next(cx)).await;
        chunk.map(|c| String::from_utf8(c.ok().unwrap().to_vec()).unwrap())
    };
    assert_eq!(next().await.unwrap(), "retry: 1000\n\nevent: pieces\ndata: []\n\n");
    put_in(&store, json!({})).await;
    board.touch();
    let told = next().await.unwrap();
    assert!(told.starts_with("event: pieces\n") && told.contains("Disc 1"), "{told}");
    let now = next().await.unwrap();
    let data: Value = serde_json::from_str(now.strip_prefix("event: now\ndata: ").unwrap()).unwrap();
    assert_eq!(data[0]["word"], "rolls clean");
    board.close();
    assert_eq!(next().await, None);
}
