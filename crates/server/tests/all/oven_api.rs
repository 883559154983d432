//! The oven station through the API.

use crate::bakery::{call, demo, field_messages, from_page, get, send};
use actix_web::http::{Method, StatusCode};
use serde_json::{Value, json};

/// The demo's made-up records are of the model's own world: neither screen contradicts the other.
#[actix_web::test]
async fn the_demos_records_lie_within_what_is_forecast() {
    let (_dir, store) = demo().await;
    let records = get(&store, "/api/jobs/1/records").await;
    let records = records.as_array().unwrap();
    assert_eq!(records.len(), 2);
    let plan = get(&store, "/api/jobs/1/plan").await;
    let of = |field: &str| plan["oven"][field].as_f64().unwrap();
    for r in records {
        let spread = r["spread_percent"].as_f64().unwrap();
        assert!(spread >= of("spread_least_percent") && spread <= of("spread_most_percent"), "{r}");
        let min = r["baked_min"].as_f64().unwrap();
        assert!(min >= of("bake_least_min") && min <= of("bake_most_min") * 1.15, "{r}");
        assert!(r["notes"].as_str().unwrap().starts_with("Made up."), "{r}");
        let high = r["mean_thickness_mm"].as_f64().unwrap();
        assert!((high / plan["oven"]["forecast"]["thickness_mm"].as_f64().unwrap() - 1.0).abs() < 0.06, "{r}");
    }
}

/// Every forecast stands beside practice; its first look is no later than practice's early end.
#[actix_web::test]
async fn a_plan_tells_practice_beside_its_forecast() {
    let (_dir, store) = demo().await;
    for job in 1..=4 {
        let plan = get(&store, &format!("/api/jobs/{job}/plan")).await;
        let of = |field: &str| plan["oven"][field].as_f64().unwrap();
        assert!(
            of("bake_least_min") <= of("practice_bake_most_min")
                && of("bake_most_min") >= of("practice_bake_least_min")
        );
        assert!(of("look_after_min") <= of("practice_bake_least_min") + 1e-9);
        assert!(of("round_spread_least_percent") <= of("practice_spread_most_percent"));
        assert!(of("round_spread_most_percent") >= of("practice_spread_least_percent"));
    }
}

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
async fn recorded_bakes_teach_by_themselves_and_one_press_leaves_a_bake_out() {
    let (_dir, store) = demo().await;
    let forecast = || async { get(&store, "/api/jobs/1/plan").await["oven"]["forecast"]["bake_min"].as_f64().unwrap() };
    let plain = forecast().await;
    // The demo has two bakes, both longer than the forecast; whoever looks finds them learnt from.
    let teach = get(&store, "/api/jobs/1/bakes-teach").await;
    assert_eq!((&teach["records"], &teach["taught"]["records"]), (&json!(2), &json!(2)));
    assert!(teach["taught"]["offset_k"].as_f64().unwrap() < 0.0, "a cool oven: {teach}");
    let wide = |b: &Value| b["bake_most_min"].as_f64().unwrap() - b["bake_least_min"].as_f64().unwrap();
    let share = |b: &Value| wide(b) / b["bake_most_min"].as_f64().unwrap();
    assert!(share(&teach["after"]) < share(&teach["before"]), "{teach}");
    assert!(forecast().await > plain);
    // The oven is one for all: a job of another formula learns of it, too, but nothing of its own spread.
    let other = get(&store, "/api/jobs/2/plan").await["oven"]["reasons"].to_string();
    assert!(other.contains("of yours: the oven runs") && !other.contains("against the forecast alone"), "{other}");
    assert!(
        get(&store, "/api/jobs/3/plan").await["oven"]["reasons"].to_string().contains("against the forecast alone")
    );
    // A newer reading on a thermometer counts in place of what bakes taught of the oven.
    let read = json!({ "oven_readings": [{ "set_c": 175.0, "read_c": 175.0 }] });
    call(&store, Method::PATCH, "/api/kitchen", Some(read)).await;
    let newer = get(&store, "/api/jobs/2/plan").await["oven"]["reasons"].to_string();
    assert!(!newer.contains("of yours: the oven runs"), "{newer}");
    assert_eq!(get(&store, "/api/jobs/1/bakes-teach").await["taught"]["offset_k"], Value::Null);
    call(&store, Method::PATCH, "/api/kitchen", Some(json!({ "oven_readings": [] }))).await;
    // Left out, one by one, they teach nothing; put back, the same as before.
    let leave = |id: Value, left_out: bool| {
        let store = store.clone();
        async move {
            let body = json!({ "left_out": left_out });
            let (status, kept) = call(&store, Method::PUT, &format!("/api/records/{id}/left-out"), Some(body)).await;
            assert_eq!((status, &kept["left_out"]), (StatusCode::OK, &json!(left_out)), "{kept}");
        }
    };
    let with_both = forecast().await;
    let ids: Vec<Value> = teach["rests_on"].as_array().unwrap().iter().map(|r| r["record_id"].clone()).collect();
    leave(ids[0].clone(), true).await;
    let with_one = get(&store, "/api/jobs/1/bakes-teach").await;
    assert_eq!((&with_one["taught"]["records"], &with_one["rests_on"][0]["left_out"]), (&json!(1), &json!(true)));
    leave(ids[1].clone(), true).await;
    assert!((forecast().await - plain).abs() < 1e-9);
    leave(ids[1].clone(), false).await;
    leave(ids[0].clone(), false).await;
    assert!((forecast().await - with_both).abs() < 1e-9);
    // A bake struck out teaches nothing either.
    for record in get(&store, "/api/jobs/1/records").await.as_array().unwrap() {
        call(&store, Method::DELETE, &format!("/api/records/{}", record["id"]), None).await;
    }
    assert!((forecast().await - plain).abs() < 1e-9);
    assert_eq!(get(&store, "/api/jobs/2/bakes-teach").await["taught"], Value::Null);
    assert_eq!(
        call(&store, Method::PUT, "/api/records/99/left-out", Some(json!({ "left_out": true }))).await.0,
        StatusCode::NOT_FOUND
    );
}

/// 'Each bake says what it moved': the one figure and its range before and after.
#[actix_web::test]
async fn a_bake_says_what_it_moved() {
    let (_dir, store) = demo().await;
    get(&store, "/api/jobs/1/bakes-teach").await;
    let plan = get(&store, "/api/jobs/2/plan").await;
    let about = plan["oven"]["bake_about_min"].as_f64().unwrap();
    let body = json!({ "widths_mm": [66.0, 66.4, 66.2], "baked_min": about + 4.0, "edge_colour": "just_golden" });
    let (status, kept) = call(&store, Method::POST, "/api/jobs/2/records", Some(body)).await;
    assert_eq!(status, StatusCode::OK, "{kept}");
    let moved = &kept["moved"];
    assert_eq!(moved["about_before_min"].as_f64(), Some(about), "{kept}");
    let after = get(&store, "/api/jobs/2/plan").await;
    assert_eq!(moved["about_min"], after["oven"]["bake_about_min"]);
    assert!(moved["about_min"].as_f64().unwrap() > about, "a slower bake: {moved}");
    let width = |a: &str, b: &str| moved[b].as_f64().unwrap() / moved[a].as_f64().unwrap();
    assert!(width("least_min", "most_min") < width("least_before_min", "most_before_min"), "{moved}");
}

#[actix_web::test]
async fn points_of_a_piece_are_named_as_baking_ahead_where_there_are_any() {
    let (_dir, store) = demo().await;
    // A gull's two wing tips; a fish's two tail corners; a slice of a round log has none.
    let parts = get(&store, "/api/jobs/1/parts-ahead").await;
    assert_eq!((&parts[0]["kind"], parts[0]["at_mm"].as_array().map(Vec::len)), (&json!("point"), Some(2)));
    assert!(parts[0]["ahead_min"].as_f64().unwrap() > 0.2 && parts[0]["width_mm"].as_f64().unwrap() < 12.0, "{parts}");
    assert_eq!(get(&store, "/api/jobs/6/parts-ahead").await, json!([]));
}

#[actix_web::test]
async fn a_tray_tells_its_pieces_by_their_place_and_by_their_sheet() {
    let (_dir, store) = demo().await;
    let num = |v: &Value| v.as_f64().unwrap();
    // The demo's oven is hotter on its right: turning the tray brings its pieces nearer to each other.
    let plain = get(&store, "/api/jobs/1/tray-times").await;
    assert_eq!((&plain["mapped"], &plain["measured"]), (&json!(true), &json!(false)));
    let wide = |t: &Value| num(&t["last_min"]) - num(&t["first_min"]);
    assert!(num(&plain["turned_last_min"]) - num(&plain["turned_first_min"]) < wide(&plain), "{plain}");
    assert!(plain["advice"].to_string().contains("The right side is hotter"), "{}", plain["advice"]);
    // The same sentence stands on the bake sheet.
    assert!(
        get(&store, "/api/jobs/1/plan").await["oven"]["turn"]["text"].as_str().unwrap().starts_with("The right side")
    );
    call(&store, Method::PATCH, "/api/kitchen", Some(json!({ "hot_spots": null }))).await;
    let even = get(&store, "/api/jobs/1/tray-times").await;
    assert!(wide(&even) < 1e-6 && even["one_tray"] == true && even["mapped"] == false, "{even}");
    // A sheet that is thin at one end is done there first, too far apart for one time.
    let read = json!({ "measured": [{ "columns": 1, "rows": 2, "read_mm": [5.0, 7.4] }] });
    call(&store, Method::PATCH, "/api/jobs/1", Some(read)).await;
    let sheet = get(&store, "/api/jobs/1/tray-times").await;
    assert_eq!((&sheet["one_tray"], &sheet["measured"]), (&json!(false), &json!(true)));
    assert!(sheet["advice"].to_string().contains("come from the thin part of the sheet"), "{}", sheet["advice"]);
    let pieces = sheet["pieces"].as_array().unwrap();
    let thin = pieces.iter().min_by(|a, b| num(&a["thickness_mm"]).total_cmp(&num(&b["thickness_mm"]))).unwrap();
    assert!((num(&thin["done_min"]) - num(&sheet["first_min"])).abs() < 1e-9);
}

#[actix_web::test]
async fn a_map_of_hot_spots_is_judged_kept_and_refused_by_its_field() {
    let (_dir, store) = demo().await;
    let ask = |body: Value| call(&store, Method::POST, "/api/compute/hot-spots", Some(body));
    let (status, found) = ask(json!({ "test": "sugar", "columns": 2, "rows": 1, "shades": [2, 4] })).await;
    assert_eq!(status, StatusCode::OK);
    assert!(
        found["hotter_k"][0].as_f64().unwrap() < 0.0 && found["advice"]["text"].as_str().unwrap().contains("right")
    );
    let (status, problem) = ask(json!({ "test": "bread", "columns": 2, "rows": 1, "shades": [2, 9] })).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(field_messages(&problem)[0].0, "hot_spots.shades[1]");
    let kept =
        json!({ "hot_spots": { "test": "bread", "columns": 1, "rows": 1, "shades": [null] }, "altitude_m": 1600.0 });
    let (status, kitchen) = call(&store, Method::PATCH, "/api/kitchen", Some(kept)).await;
    assert_eq!((status, &kitchen["hot_spots"]["shades"]), (StatusCode::OK, &json!([null])));
    assert!(get(&store, "/api/jobs/1/plan").await["oven"]["reasons"].to_string().contains("At 1,600 m"));
    let (status, problem) = call(&store, Method::PATCH, "/api/kitchen", Some(json!({ "altitude_m": 9000.0 }))).await;
    assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "altitude_m"));
}

#[actix_web::test]
async fn the_stand_in_thermometer_reads_an_oven_that_runs_cool() {
    let (_dir, store) = demo().await;
    let path = "/api/kitchen/oven-thermometer?set_c=175&speed=3600";
    let (status, kind, body) = send(&store, from_page(Method::GET, path)).await;
    assert_eq!((status, kind.as_str()), (StatusCode::OK, "text/event-stream"));
    let body = String::from_utf8(body.to_vec()).unwrap();
    let events = |name: &str| -> Vec<Value> {
        let head = format!("event: {name}\ndata: ");
        body.split("\n\n").filter_map(|e| e.strip_prefix(&head)).map(|d| serde_json::from_str(d).unwrap()).collect()
    };
    let (readings, found) = (events("reading"), events("found"));
    assert_eq!(found.len(), 1);
    // What the stream ends with is what its own readings say when they are sent in.
    let sent = json!({ "set_c": 175.0, "readings": readings });
    let (status, judged) = call(&store, Method::POST, "/api/compute/oven-test", Some(sent)).await;
    assert_eq!((status, &judged), (StatusCode::OK, &found[0]));
    assert!((judged["holds_c"].as_f64().unwrap() - 166.0).abs() < 3.0, "{judged}");
    let (status, problem) = call(&store, Method::GET, "/api/kitchen/oven-thermometer?set_c=60", None).await;
    assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "set_c"));
    let short = json!({ "set_c": 175.0, "readings": [{ "after_min": 0.0, "shows_c": 20.0 }] });
    let (status, problem) = call(&store, Method::POST, "/api/compute/oven-test", Some(short)).await;
    assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "readings"));
}

#[actix_web::test]
async fn a_covered_pot_is_planned_by_common_practice_and_cautioned() {
    let (_dir, store) = demo().await;
    let middle = |plan: &Value| {
        let min = |field: &str| plan["oven"][field].as_f64().unwrap();
        f64::midpoint(min("bake_least_min"), min("bake_most_min"))
    };
    let oven = get(&store, "/api/jobs/1/plan").await;
    call(&store, Method::PATCH, "/api/kitchen", Some(json!({ "cover_pot": true, "ovens": 2 }))).await;
    let pot = get(&store, "/api/jobs/1/plan").await;
    assert_eq!((&pot["oven"]["forecast"], &pot["oven"]["basis"]), (&Value::Null, &json!("usual")));
    // Common practice, no source: about twice the time.
    assert!((1.5..3.0).contains(&(middle(&pot) / middle(&oven))), "{} {}", middle(&pot), middle(&oven));
    let said = pot["oven"]["warnings"].to_string();
    // The list that is read before a pot is chosen is the one that the plan carries.
    for caution in get(&store, "/api/kitchen/pot-cautions").await.as_array().unwrap() {
        assert!(pot["oven"]["warnings"].as_array().unwrap().contains(caution), "{caution}");
    }
    for word in ["never on the pot’s bottom", "Never leave it unattended", "nothing sealed", "No pot holds"] {
        assert!(said.contains(word), "{word}: {said}");
    }
    assert_eq!(pot["oven"]["turn"], Value::Null);
    let (status, problem) = call(&store, Method::GET, "/api/jobs/1/tray-times", None).await;
    assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "bake"));
}

#[actix_web::test]
async fn finishes_are_worked_out_for_the_lot_and_shorten_what_it_keeps() {
    let (_dir, store) = demo().await;
    let plain = get(&store, "/api/jobs/1/plan").await["finish"].clone();
    assert_eq!(plain["coats"], json!([]));
    let finishes = json!({ "finishes": [{ "kind": "water_glaze" }, { "kind": "jam", "layer_mm": 3.0 }] });
    let (status, job) = call(&store, Method::PATCH, "/api/jobs/1", Some(finishes)).await;
    // Figures that were left out are the usual ones.
    assert_eq!((status, &job["finishes"][0]["sugar_parts"]), (StatusCode::OK, &json!(7.0)));
    let plan = get(&store, "/api/jobs/1/plan").await;
    let finish = &plan["finish"];
    let num = |v: &Value| v.as_f64().unwrap();
    let (glaze, jam) = (&finish["coats"][0], &finish["coats"][1]);
    assert_eq!((&glaze["count"], &jam["count"]), (&json!(48), &json!(24)));
    let parts: f64 = glaze["parts"].as_array().unwrap().iter().map(|p| num(&p["mass_g"])).sum();
    assert!((parts - num(&glaze["total_g"])).abs() < 1e-6 && num(&glaze["total_g"]) > 48.0 * num(&glaze["each_g"]));
    assert!(num(&finish["tin_most_days"]) < num(&plain["tin_most_days"]));
    // A piece baked wider takes more.
    call(&store, Method::PATCH, "/api/jobs/1", Some(json!({ "liner": "greased" }))).await;
    let wider = get(&store, "/api/jobs/1/plan").await["finish"]["top_cm2"].as_f64().unwrap();
    assert!(wider > num(&finish["top_cm2"]));
    let bad = json!({ "finishes": [{ "kind": "dip", "part_percent": 0.0 }] });
    let (status, problem) = call(&store, Method::PATCH, "/api/jobs/1", Some(bad)).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(field_messages(&problem)[0].0, "finishes[0].part_percent");
    // Icing by its use and in its colours, on a part of them; sugar has no colour.
    let red = json!([{ "name": "red", "percent": 30.0 }]);
    let iced = json!({ "finishes": [{ "kind": "royal", "pieces": 20, "colours": red }] });
    let (status, job) = call(&store, Method::PATCH, "/api/jobs/1", Some(iced)).await;
    assert_eq!((status, &job["finishes"][0]["pieces"]), (StatusCode::OK, &json!(20)));
    let finish = get(&store, "/api/jobs/1/plan").await["finish"].clone();
    let royal = &finish["coats"][0];
    let used: f64 = royal["uses"].as_array().unwrap().iter().map(|u| num(&u["mass_g"])).sum();
    assert!((used - num(&royal["total_g"])).abs() < 1e-6 && royal["count"] == json!(20));
    assert!((num(&royal["colours"][0]["mass_g"]) - 0.3 * used).abs() < 1e-6);
    assert_eq!((&finish["packing"]["on_each_other"], &finish["packing"]["papers"]), (&json!(4), &json!(36)));
    let bad = json!({ "finishes": [{ "kind": "drizzle", "colours": red }] });
    let (_, problem) = call(&store, Method::PATCH, "/api/jobs/1", Some(bad)).await;
    assert_eq!(field_messages(&problem)[0].0, "finishes[0].colours");
    let many = json!({ "finishes": vec![json!({ "kind": "drizzle" }); 5] });
    let (_, problem) = call(&store, Method::PATCH, "/api/jobs/1", Some(many)).await;
    assert_eq!(field_messages(&problem)[0].0, "finishes");
    // A spoon of vanilla extract is no spirit; a glass of rum is one, and does not bake off completely.
    assert_eq!(get(&store, "/api/jobs/6/plan").await["finish"]["spirit"], Value::Null);
    let formula = get(&store, "/api/jobs/1").await["formula_id"].clone();
    let all = get(&store, "/api/formulas").await;
    let of = all.as_array().unwrap().iter().find(|f| f["id"] == formula).unwrap();
    let mut body = json!({ "name": of["name"], "lines": of["lines"] });
    body["lines"].as_array_mut().unwrap().push(json!({ "ingredient": "rum", "grams": 20.0 }));
    let (status, said) = call(&store, Method::PUT, &format!("/api/formulas/{formula}"), Some(body)).await;
    assert_eq!(status, StatusCode::OK, "{said}");
    let spirit = get(&store, "/api/jobs/1/plan").await["finish"]["spirit"].clone();
    assert!(num(&spirit["left_least_g"]) < num(&spirit["mixed_g"]) && num(&spirit["left_least_g"]) > 0.0, "{spirit}");
}
