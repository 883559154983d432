//! The API on temporary bakeries.

use crate::bakery::{call, demo, field_messages, from_page, get, send};
use actix_web::dev::Service;
use actix_web::http::{Method, StatusCode};
use actix_web::test::{TestRequest, init_service};
use ready_slab_server::app::application;
use ready_slab_server::bakeries::Bakeries;
use ready_slab_server::demo;
use ready_slab_server::guard::AllowedHosts;
use ready_slab_store::Store;
use serde_json::{Value, json};

/// Numbers to four figures, and long lists shortened, so that the snapshot can be read.
fn readable(value: Value) -> Value {
    match value {
        Value::Number(n) if n.is_f64() => {
            let v = n.as_f64().unwrap();
            let rounded: f64 = format!("{v:.3e}").parse().unwrap();
            json!(rounded)
        }
        Value::Array(items) if items.len() > 8 && items.iter().all(|i| !i["start_min"].is_number()) => {
            let count = items.len();
            let mut kept: Vec<Value> = items.into_iter().take(2).map(readable).collect();
            kept.push(json!(format!("and so on, {count} in all")));
            Value::Array(kept)
        }
        Value::Array(items) => Value::Array(items.into_iter().map(readable).collect()),
        Value::Object(fields) => Value::Object(fields.into_iter().map(|(k, v)| (k, readable(v))).collect()),
        other => other,
    }
}

#[actix_web::test]
async fn the_demo_jobs_whole_plan() {
    let (_dir, store) = demo().await;
    insta::assert_json_snapshot!("demo_plan", readable(get(&store, "/api/jobs/1/plan").await));
}

#[actix_web::test]
async fn a_changed_thickness_moves_dough_cold_and_trays_and_undo_brings_them_back() {
    let (_dir, store) = demo().await;
    let before = get(&store, "/api/jobs/1/plan").await;
    let (status, job) = call(&store, Method::PATCH, "/api/jobs/1", Some(json!({ "thickness_mm": 10 }))).await;
    assert_eq!((status, job["thickness_mm"].as_f64()), (StatusCode::OK, Some(10.0)));
    let after = get(&store, "/api/jobs/1/plan").await;
    for path in ["/dough/dough_g", "/cold/tray_chill/ready_after_min", "/oven/bake_most_min"] {
        let (a, b) = (before.pointer(path).unwrap().as_f64().unwrap(), after.pointer(path).unwrap().as_f64().unwrap());
        assert!(b > a, "{path}: {a} to {b}");
    }
    assert_eq!(get(&store, "/api/history").await["undo"]["label"]["text"], "thickness from 6 mm to 10 mm");
    let (status, step) = call(&store, Method::POST, "/api/undo", None).await;
    assert_eq!((status, &step["edit"]["label"]["text"]), (StatusCode::OK, &json!("thickness from 6 mm to 10 mm")));
    assert_eq!(get(&store, "/api/jobs/1/plan").await, before);
    call(&store, Method::POST, "/api/redo", None).await;
    assert_eq!(get(&store, "/api/jobs/1/plan").await, after);
    // The demo itself cannot be undone away.
    call(&store, Method::POST, "/api/undo", None).await;
    assert_eq!(call(&store, Method::POST, "/api/undo", None).await.1["edit"], Value::Null);
}

#[actix_web::test]
async fn bad_values_are_named_with_their_range_and_nothing_changes() {
    let (_dir, store) = demo().await;
    let before = get(&store, "/api/jobs/1").await;
    let bad = json!({ "thickness_mm": 40, "pieces": 0, "oven_c": 400, "ready_by": "next week" });
    let (status, problem) = call(&store, Method::PATCH, "/api/jobs/1", Some(bad)).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["errors"][0]["field"], "ready_by");
    let bad = json!({ "thickness_mm": 40, "pieces": 0, "oven_c": 400 });
    let (_, problem) = call(&store, Method::PATCH, "/api/jobs/1", Some(bad)).await;
    let said = field_messages(&problem);
    assert_eq!(said.iter().map(|s| s.0.as_str()).collect::<Vec<_>>(), ["pieces", "thickness_mm", "oven_c"]);
    assert_eq!(problem["errors"][1]["accepted"], "2 to 25 mm");
    assert_eq!(get(&store, "/api/jobs/1").await, before);
    assert_eq!(get(&store, "/api/history").await["undo"], Value::Null);
}

#[actix_web::test]
async fn hostile_bodies_get_a_clear_refusal_and_never_a_panic() {
    let (_dir, store) = demo().await;
    let raw = |method: Method, path: &str, body: &str| from_page(method, path).set_payload(body.to_owned());
    let deep = format!("{{\"name\": {}", "[".repeat(100_000));
    let giant = format!("{{\"name\":\"{}\"}}", "x".repeat(3_000_000));
    for (path, body, status) in [
        ("/api/jobs/1", "{", StatusCode::BAD_REQUEST),
        ("/api/jobs/1", "", StatusCode::BAD_REQUEST),
        ("/api/jobs/1", "nonsense", StatusCode::BAD_REQUEST),
        ("/api/jobs/1", "{\"thickness_mm\": NaN}", StatusCode::BAD_REQUEST),
        ("/api/jobs/1", "{\"thickness_mm\": 1e999}", StatusCode::BAD_REQUEST),
        ("/api/jobs/1", "[1,2]", StatusCode::UNPROCESSABLE_ENTITY),
        ("/api/jobs/1", "{\"pieces\": -4}", StatusCode::UNPROCESSABLE_ENTITY),
        ("/api/jobs/1", "{\"pieces\": 4.5}", StatusCode::UNPROCESSABLE_ENTITY),
        ("/api/jobs/1", "{\"pieces\": \"many\"}", StatusCode::UNPROCESSABLE_ENTITY),
        ("/api/jobs/1", "{\"moon\": 1}", StatusCode::UNPROCESSABLE_ENTITY),
        ("/api/jobs/1", "{\"cutter_id\": 999}", StatusCode::NOT_FOUND),
        ("/api/jobs/1", &deep, StatusCode::BAD_REQUEST),
        ("/api/jobs/1", &giant, StatusCode::PAYLOAD_TOO_LARGE),
        ("/api/jobs/77", "{}", StatusCode::NOT_FOUND),
        ("/api/kitchen", "{\"fridge_c\": 40}", StatusCode::UNPROCESSABLE_ENTITY),
        ("/api/kitchen", "{\"rods_mm\": [1e308]}", StatusCode::UNPROCESSABLE_ENTITY),
    ] {
        let (got, kind, body) = send(&store, raw(Method::PATCH, path, body)).await;
        assert_eq!(got, status, "{path} {}", String::from_utf8_lossy(&body));
        assert_eq!(kind, "application/problem+json", "{path}");
        let problem: Value = serde_json::from_slice(&body).unwrap();
        assert_eq!(problem["status"], status.as_u16());
        assert!(!problem["detail"].as_str().unwrap().is_empty());
    }
    for path in ["/api/jobs/none", "/api/jobs/1e9/plan", "/api/nothing", "/api/jobs/99999999999999999999"] {
        let (status, _, _) = send(&store, from_page(Method::GET, path)).await;
        assert_eq!(status, StatusCode::NOT_FOUND, "{path}");
    }
}

#[actix_web::test]
async fn a_wrong_kind_names_its_field() {
    let (_dir, store) = demo().await;
    let body = json!({ "name": "Odd", "lines": [{ "ingredient": "flour-ap", "grams": "much" }] });
    let (status, problem) = call(&store, Method::POST, "/api/formulas", Some(body)).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["errors"][0]["field"], "lines[0].grams");
}

#[actix_web::test]
async fn cutters_come_from_svg_and_bad_files_say_why() {
    let (_dir, store) = demo().await;
    let svg = "<svg xmlns='http://www.w3.org/2000/svg' width='80mm' height='40mm' viewBox='0 0 80 40'><ellipse cx='40' cy='20' rx='30' ry='15'/></svg>";
    let (status, cutter) =
        call(&store, Method::POST, "/api/cutters", Some(json!({ "kind": "svg", "name": "Egg", "svg": svg }))).await;
    assert_eq!(status, StatusCode::OK, "{cutter}");
    assert!((cutter["width_mm"].as_f64().unwrap() - 60.0).abs() < 0.1);
    for (svg, reason) in [
        ("<svg xmlns='http://www.w3.org/2000/svg'><script>1</script></svg>", "script"),
        ("<!DOCTYPE svg [<!ENTITY a 'b'>]><svg xmlns='http://www.w3.org/2000/svg'/>", "entities"),
        ("not svg", "Can’t read this file as SVG"),
    ] {
        let (status, problem) =
            call(&store, Method::POST, "/api/cutters", Some(json!({ "kind": "svg", "name": "Bad", "svg": svg }))).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
        assert!(field_messages(&problem)[0].1.contains(reason), "{problem}");
    }
    let form = json!({ "kind": "builtin", "name": "Dot", "form": "round", "width_mm": 3 });
    let (status, problem) = call(&store, Method::POST, "/api/cutters", Some(form)).await;
    assert_eq!((status, &problem["errors"][0]["accepted"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("8 to 400 mm")));
    let (status, _, file) = send(&store, from_page(Method::GET, "/api/cutters/1/outline.svg")).await;
    assert_eq!(status, StatusCode::OK);
    assert!(String::from_utf8(file).unwrap().starts_with("<svg"));
    let (status, problem) = call(&store, Method::DELETE, "/api/cutters/1", None).await;
    assert_eq!((status, problem["title"].as_str()), (StatusCode::CONFLICT, Some("Still in use")));
}

#[actix_web::test]
async fn a_cutter_larger_than_the_tray_says_so_and_the_job_is_kept() {
    let (_dir, store) = demo().await;
    let form = json!({ "kind": "builtin", "name": "Platter", "form": "round", "width_mm": 390 });
    let (_, cutter) = call(&store, Method::POST, "/api/cutters", Some(form)).await;
    call(&store, Method::PATCH, "/api/jobs/1", Some(json!({ "cutter_id": cutter["id"] }))).await;
    let (status, problem) = call(&store, Method::GET, "/api/jobs/1/plan", None).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(problem["errors"][0]["field"], "cutter");
    assert_eq!(get(&store, "/api/jobs/1").await["pieces"], 48);
}

#[actix_web::test]
async fn records_stand_beside_what_was_expected() {
    let (_dir, store) = demo().await;
    let expected = get(&store, "/api/jobs/1/plan").await["oven"]["spread_most_percent"].clone();
    let body = json!({ "widths_mm": [99.0, 101.0], "thicknesses_mm": [6.5], "baked_min": 11, "edge_colour": "golden", "notes": "crisp" });
    let (status, record) = call(&store, Method::POST, "/api/jobs/1/records", Some(body)).await;
    assert_eq!(status, StatusCode::OK, "{record}");
    assert!((record["spread_percent"].as_f64().unwrap() - 100.0 * (100.0 / 96.0 - 1.0)).abs() < 1e-6);
    assert_eq!(record["expected_spread_most_percent"], expected);
    assert_eq!(get(&store, "/api/jobs/1/records").await.as_array().unwrap().len(), 3);
    let bad = json!({ "widths_mm": [], "edge_colour": "golden" });
    let (status, problem) = call(&store, Method::POST, "/api/jobs/1/records", Some(bad)).await;
    assert_eq!((status, &problem["errors"][0]["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("widths_mm")));
}

#[actix_web::test]
async fn a_job_leaves_as_a_file_and_comes_back_the_same_in_another_bakery() {
    let (_dir, store) = demo().await;
    let file = get(&store, "/api/jobs/1/export").await;
    let other_dir = tempfile::tempdir().unwrap();
    let other = Store::open(&other_dir.path().join("other.db")).await.unwrap();
    demo::ensure_kitchen(&other).await.unwrap();
    let (status, job) = call(&other, Method::POST, "/api/jobs/read-back", Some(file.clone())).await;
    assert_eq!(status, StatusCode::OK, "{job}");
    let id = job["id"].as_i64().unwrap();
    let mut again = get(&other, &format!("/api/jobs/{id}/export")).await;
    for (field, value) in [("formula_id", 1), ("cutter_id", 1)] {
        again["job"][field] = json!(value);
    }
    // The kitchen of the file stays where it is: the other bakery has its own.
    assert_eq!(again["kitchen"]["name"], "My kitchen");
    again["kitchen"] = file["kitchen"].clone();
    assert_eq!(again, file);
    // What differs only in a detail it should not have is refused by name, and nothing is added.
    for (pointer, value, field) in [
        ("/version", json!(2), "version"),
        ("/format", json!("other"), "format"),
        ("/job/pieces", json!(0), "job.pieces"),
        ("/formula/lines/0/grams", json!(-1), "formula.lines[0].grams"),
        ("/records/0/measured/widths_mm/0", json!(1e9), "records[0].measured.widths_mm[0]"),
    ] {
        let mut bad = file.clone();
        *bad.pointer_mut(pointer).unwrap() = value;
        let (status, problem) = call(&other, Method::POST, "/api/jobs/read-back", Some(bad)).await;
        assert_eq!((status, &problem["errors"][0]["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!(field)));
    }
    assert_eq!(get(&other, "/api/jobs").await["jobs"].as_array().unwrap().len(), 1);
    // A file of the days when dough was a disc or sheets, and little else was asked.
    let mut older = file.clone();
    let job = older["job"].as_object_mut().unwrap();
    for later in [
        "dough_form",
        "sheet_stack",
        "dough_for",
        "pieces_for",
        "bulk_for",
        "thaws",
        "pricked",
        "sheet",
        "making",
        "finishes",
    ] {
        job.remove(later);
    }
    job.insert("chill_as_disc".to_owned(), json!(false));
    let (status, job) = call(&other, Method::POST, "/api/jobs/read-back", Some(older)).await;
    assert_eq!((status, &job["dough_form"], &job["pieces"]), (StatusCode::OK, &json!("sheets"), &json!(48)), "{job}");
}

#[actix_web::test]
async fn computing_needs_no_job() {
    let (_dir, store) = demo().await;
    // Reference run of the cold station: A, 6 mm sheet, both faces open, 21 to 4 degC, h 7: core at 12 degC after 17.3 min.
    let ask = json!({
        "composition": { "water": 0.1287, "fat": 0.1666, "protein": 0.0642, "carbohydrate": 0.6223, "ash": 0.0038, "fibre": 0.0144, "fat_kind": "butter" },
        "piece": { "kind": "sheet", "thickness_mm": 6 }, "wrap": "open", "support": { "kind": "rack" }, "start_c": 21,
        "place": { "air_c": 4, "film_w_m2k": 7 }, "target": { "kind": "core", "core_c": 12 }
    });
    let (status, answer) = call(&store, Method::POST, "/api/compute/chill", Some(ask.clone())).await;
    assert_eq!(status, StatusCode::OK, "{answer}");
    assert!((answer["ready_after_min"].as_f64().unwrap() - 17.3).abs() < 0.5);
    let mut never = ask.clone();
    never["target"]["core_c"] = json!(2);
    let (_, answer) = call(&store, Method::POST, "/api/compute/chill", Some(never)).await;
    assert!(answer["never"]["text"].as_str().unwrap().contains("your place is at 4 \u{b0}C"), "{answer}");
    for (pointer, value, field) in [
        ("/piece/thickness_mm", json!(500), "piece.thickness_mm"),
        ("/start_c", json!(300), "start_c"),
        ("/place/air_c", json!(90), "place.air_c"),
        ("/composition/water", json!(0.9), "composition.total"),
    ] {
        let mut bad = ask.clone();
        *bad.pointer_mut(pointer).unwrap() = value;
        let (status, problem) = call(&store, Method::POST, "/api/compute/chill", Some(bad)).await;
        assert_eq!((status, &problem["errors"][0]["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!(field)));
    }
    let sheet = json!({ "cutter": { "kind": "builtin", "name": "Round", "form": "round", "width_mm": 65 }, "width_mm": 310, "length_mm": 440, "web_mm": 3, "edge_mm": 4 });
    let (status, answer) = call(&store, Method::POST, "/api/compute/sheet", Some(sheet)).await;
    assert_eq!(status, StatusCode::OK);
    // By hand: hexagonal rows of 4 and 4 (302 mm hold 4.4 pitches of 68), every 58.9 mm in 432 mm: 7 rows, 26 to 28 pieces.
    let pieces = answer["pieces"].as_u64().unwrap();
    assert!((26..=28).contains(&pieces), "{pieces}");
    assert!(answer["least_gap_mm"].as_f64().unwrap() >= 2.95);
}

#[actix_web::test]
async fn typed_quantities_are_read_by_the_server() {
    let (_dir, store) = demo().await;
    for (quantity, text, default, value) in [
        ("length", "1/4 in", "", 6.35),
        ("length", "1/4", "in", 6.35),
        ("temperature", "350F", "", 176.667),
        ("count", "4 dozen", "", 48.0),
    ] {
        let ask = json!({ "quantity": quantity, "text": text, "default_symbol": default });
        let (status, answer) = call(&store, Method::POST, "/api/units/parse", Some(ask)).await;
        assert_eq!(status, StatusCode::OK);
        assert!((answer["value"].as_f64().unwrap() - value).abs() < 1e-3, "{text}");
    }
    let (status, problem) =
        call(&store, Method::POST, "/api/units/parse", Some(json!({ "quantity": "length", "text": "a bit" }))).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(problem["errors"][0]["accepted"].as_str().unwrap().contains("1/4 in"));
    assert!(get(&store, "/api/units").await.as_array().unwrap().len() > 15);
}

#[actix_web::test]
async fn a_formula_is_added_changed_and_taken_back() {
    let (_dir, store) = demo().await;
    let body = json!({ "name": "Plain", "lines": [
        { "ingredient": "flour-ap", "grams": 300 }, { "ingredient": "butter", "grams": 100 }, { "ingredient": "sugar", "grams": 100 } ] });
    let (status, formula) = call(&store, Method::POST, "/api/formulas", Some(body.clone())).await;
    assert_eq!(status, StatusCode::OK);
    assert_eq!((&formula["ratio_sugar"], &formula["ratio_flour"]), (&json!(1.0), &json!(3.0)));
    assert!(formula["school"].as_str().unwrap().contains("a dry dough"));
    let path = format!("/api/formulas/{}", formula["id"]);
    let mut richer = body.clone();
    richer["lines"][1]["grams"] = json!(150);
    let (status, changed) = call(&store, Method::PUT, &path, Some(richer)).await;
    assert_eq!((status, &changed["total_g"]), (StatusCode::OK, &json!(550.0)));
    call(&store, Method::POST, "/api/undo", None).await;
    let all = get(&store, "/api/formulas").await;
    let back = all.as_array().unwrap().iter().find(|f| f["id"] == formula["id"]).unwrap();
    assert_eq!(back["total_g"], json!(500.0));
    // The same again is no edit.
    let before = get(&store, "/api/history").await;
    call(&store, Method::PUT, &path, Some(body)).await;
    assert_eq!(get(&store, "/api/history").await, before);
    let (status, _) = call(&store, Method::PUT, "/api/formulas/999", Some(json!({ "name": "x", "lines": [] }))).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
    // A formula without flour says what is missing.
    let bare = json!({ "name": "Bare", "lines": [{ "ingredient": "butter", "grams": 100 }] });
    let (status, problem) = call(&store, Method::POST, "/api/formulas", Some(bare)).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(field_messages(&problem)[0].1.contains("needs flour"));
}

#[actix_web::test]
async fn a_kitchen_without_jobs_is_equipped_in_inches_and_one_with_jobs_stays() {
    let (_dir, store) = demo().await;
    let equip = |store: Store| async move {
        let body = json!({ "equipment": "us" });
        let (status, kitchen) = call(&store, Method::POST, "/api/kitchen/equipment", Some(body)).await;
        assert_eq!(status, StatusCode::OK, "{kitchen}");
        (kitchen["rods_mm"].clone(), kitchen["half_sheet_mm"].clone())
    };
    let before = get(&store, "/api/kitchen").await;
    assert_eq!(equip(store.clone()).await, (before["rods_mm"].clone(), json!(null)));
    let dir = tempfile::tempdir().unwrap();
    let empty = Store::open(&dir.path().join("bakery.db")).await.unwrap();
    demo::ensure_kitchen(&empty).await.unwrap();
    assert_eq!(equip(empty.clone()).await, (json!([3.175, 4.7625, 6.35, 9.525, 12.7]), json!([330.2, 457.2])));
    let kitchen = get(&empty, "/api/kitchen").await;
    let usual: Vec<&str> = kitchen["usual"].as_array().unwrap().iter().filter_map(Value::as_str).collect();
    assert!(usual.contains(&"rods_mm") && usual.contains(&"tray_width_mm"), "{usual:?}");
    let (status, fault) =
        call(&empty, Method::POST, "/api/kitchen/equipment", Some(json!({ "equipment": "cups" }))).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{fault}");
}

#[actix_web::test]
async fn a_change_of_the_kitchen_moves_every_job() {
    let (_dir, store) = demo().await;
    let ready = |plan: &Value| plan["cold"]["ready_after_min"].as_f64().unwrap();
    let before = [get(&store, "/api/jobs/1/plan").await, get(&store, "/api/jobs/2/plan").await];
    let (status, kitchen) =
        call(&store, Method::PATCH, "/api/kitchen", Some(json!({ "fridge_c": 7.5, "rods_mm": [8, 3, 3] }))).await;
    assert_eq!((status, &kitchen["rods_mm"]), (StatusCode::OK, &json!([3.0, 8.0])));
    for (id, before) in (1..).zip(&before) {
        let after = get(&store, &format!("/api/jobs/{id}/plan")).await;
        assert!(ready(&after) > ready(before));
    }
    assert_eq!(get(&store, "/api/jobs/1/plan").await["shape"]["rods_owned"], json!(false));
    let label = get(&store, "/api/history").await["undo"]["label"]["text"].clone();
    assert_eq!(label, "fridge temperature, rolling guides");
    call(&store, Method::POST, "/api/undo", None).await;
    assert_eq!(get(&store, "/api/jobs/1/plan").await, before[0]);
}

#[actix_web::test]
async fn a_job_is_added_deleted_with_its_records_and_brought_back() {
    let (_dir, store) = demo().await;
    let mut body = get(&store, "/api/jobs/1").await;
    for found in ["id", "sheet_key", "revision"] {
        body.as_object_mut().unwrap().remove(found);
    }
    body["name"] = json!("Second sailing");
    body["dough_c"] = json!(20.5);
    let (status, job) = call(&store, Method::POST, "/api/jobs", Some(body)).await;
    assert_eq!((status, &job["name"]), (StatusCode::OK, &json!("Second sailing")));
    let path = format!("/api/jobs/{}", job["id"]);
    // A measured temperature is taken back by null.
    let (_, job) = call(&store, Method::PATCH, &path, Some(json!({ "dough_c": null }))).await;
    assert_eq!(job["dough_c"], Value::Null);
    let (status, _) = call(&store, Method::DELETE, "/api/jobs/1", None).await;
    assert_eq!(status, StatusCode::NO_CONTENT);
    let (status, problem) = call(&store, Method::GET, "/api/jobs/1/records", None).await;
    assert_eq!((status, &problem["detail"]), (StatusCode::NOT_FOUND, &json!("There’s no job 1.")));
    call(&store, Method::POST, "/api/undo", None).await;
    assert_eq!(get(&store, "/api/jobs/1/records").await.as_array().unwrap().len(), 2);
    let (status, _) = call(&store, Method::DELETE, "/api/records/1", None).await;
    assert_eq!(status, StatusCode::NO_CONTENT);
    assert_eq!(get(&store, "/api/jobs/1/records").await.as_array().unwrap().len(), 1);
    // A bake is a fact of the day: it is no edit, and has a way back of its own.
    let label = get(&store, "/api/history").await["undo"]["label"]["text"].clone();
    assert_eq!(label, "dough temperature from 20.5 \u{b0}C to none");
    let (status, back) = call(&store, Method::POST, "/api/records/1/put-back", None).await;
    assert_eq!((status, &back["id"]), (StatusCode::OK, &json!(1)));
    assert_eq!(get(&store, "/api/jobs/1/records").await.as_array().unwrap().len(), 2);
}

#[actix_web::test]
async fn an_empty_bakery_has_a_kitchen_and_the_demo_is_a_bakery_apart() {
    let dir = tempfile::tempdir().unwrap();
    let own = Store::open(&dir.path().join("bakery.db")).await.unwrap();
    demo::ensure_kitchen(&own).await.unwrap();
    let file = dir.path().join("bakery.demo.db");
    let app = init_service(application(Bakeries::new(own, Some(file.clone())), AllowedHosts::default())).await;
    let ask = async |method: Method, path: &str| {
        let response = app.call(from_page(method, path).to_request()).await.unwrap();
        let status = response.status();
        let body = actix_web::test::read_body(response).await;
        (status, serde_json::from_slice::<Value>(&body).unwrap_or_default())
    };
    assert_eq!(ask(Method::GET, "/api/kitchen").await.1["name"], "My kitchen");
    assert_eq!(ask(Method::GET, "/demo/api/jobs").await.0, StatusCode::NOT_FOUND);
    assert_eq!(ask(Method::GET, "/demo/jobs/1/order").await.0, StatusCode::SEE_OTHER);
    assert!(!file.exists(), "looking makes no file");
    assert_eq!(ask(Method::POST, "/api/demo").await, (StatusCode::OK, json!({ "open": true, "at": "/demo/" })));
    let jobs = ask(Method::GET, "/demo/api/jobs").await.1["jobs"].take();
    assert_eq!(jobs[0]["name"], "Regatta gulls");
    let day = chrono::NaiveDateTime::parse_from_str(jobs[0]["ready_by"].as_str().unwrap(), "%Y-%m-%dT%H:%M").unwrap();
    assert_eq!(chrono::Datelike::weekday(&day), chrono::Weekday::Sat);
    // Every demo job can be planned, and every demo cutter and formula is there; nothing of it is in the bakery itself.
    for job in jobs.as_array().unwrap() {
        assert_eq!(ask(Method::GET, &format!("/demo/api/jobs/{}/plan", job["id"])).await.0, StatusCode::OK);
    }
    assert_eq!(ask(Method::GET, "/demo/api/cutters").await.1.as_array().unwrap().len(), 7);
    assert_eq!(ask(Method::GET, "/demo/api/formulas").await.1.as_array().unwrap().len(), 5);
    assert_eq!(ask(Method::GET, "/demo/api/kitchen").await.1["made_up"], true);
    assert_eq!(ask(Method::GET, "/api/jobs").await.1, json!({ "jobs": [], "total": 0, "coming": 0, "damaged": [] }));
    for mine in ["/api/cutters", "/api/formulas"] {
        assert_eq!(ask(Method::GET, mine).await.1, json!([]), "{mine}");
    }
    // What is done there stays there; opened again it is as it was left, removed it begins anew.
    assert_eq!(ask(Method::DELETE, "/demo/api/jobs/1").await.0, StatusCode::NO_CONTENT);
    ask(Method::POST, "/api/demo").await;
    assert_eq!(ask(Method::GET, "/demo/api/jobs/1").await.0, StatusCode::NOT_FOUND);
    assert_eq!(ask(Method::DELETE, "/demo/api/demo").await.0, StatusCode::NO_CONTENT);
    assert_eq!(ask(Method::GET, "/api/demo").await.1["open"], false);
    assert_eq!(
        std::fs::read_dir(dir.path())
            .unwrap()
            .filter(|e| e.as_ref().unwrap().path().to_string_lossy().contains("demo"))
            .count(),
        0
    );
    ask(Method::POST, "/api/demo").await;
    assert_eq!(ask(Method::GET, "/demo/api/jobs/1").await.0, StatusCode::OK);
}

#[actix_web::test]
async fn every_formula_and_cutter_of_the_demo_plans_together() {
    let (_dir, store) = demo().await;
    for formula in 1..=5 {
        for cutter in 1..=7 {
            let change = json!({ "formula_id": formula, "cutter_id": cutter });
            let (status, _) = call(&store, Method::PATCH, "/api/jobs/1", Some(change)).await;
            assert_eq!(status, StatusCode::OK);
            let plan = get(&store, "/api/jobs/1/plan").await;
            let cut: u64 =
                plan["shape"]["rolls"].as_array().unwrap().iter().map(|r| r["pieces"].as_u64().unwrap()).sum();
            assert_eq!(cut, 48);
        }
    }
}

#[actix_web::test]
async fn foreign_hosts_and_origins_are_turned_away_and_headers_are_strict() {
    let (_dir, store) = demo().await;
    let status = |request: TestRequest| async { send(&store, request).await.0 };
    let named = |host: &str| TestRequest::get().uri("/api/jobs").insert_header(("host", host.to_owned()));
    assert_eq!(status(named("localhost:8420")).await, StatusCode::OK);
    assert_eq!(status(named("evil.test")).await, StatusCode::FORBIDDEN);
    assert_eq!(status(TestRequest::get().uri("/api/jobs")).await, StatusCode::FORBIDDEN);
    let changing = |origin: &str| from_page(Method::POST, "/api/undo").insert_header(("origin", origin.to_owned()));
    assert_eq!(status(changing("http://localhost:8420")).await, StatusCode::OK);
    for origin in ["http://evil.test", "null", "http://localhost:9999", ""] {
        assert_eq!(status(changing(origin)).await, StatusCode::FORBIDDEN, "{origin}");
    }
    let cross = from_page(Method::POST, "/api/undo").insert_header(("sec-fetch-site", "cross-site"));
    assert_eq!(status(cross).await, StatusCode::FORBIDDEN);
    let app = init_service(application(Bakeries::new(store.clone(), None), AllowedHosts::default())).await;
    let page = app.call(from_page(Method::GET, "/jobs/1/cold").to_request()).await.unwrap();
    let policy = page.headers().get("content-security-policy").unwrap().to_str().unwrap().to_owned();
    assert!(policy.contains("default-src 'none'") && policy.contains("script-src 'self';"), "{policy}");
    assert!(!policy.contains("unsafe"), "{policy}");
    assert_eq!(page.headers().get("x-content-type-options").unwrap(), "nosniff");
}

#[actix_web::test]
async fn a_wanted_time_is_answered_with_what_makes_it() {
    let (_dir, store) = demo().await;
    let ask = |ready: &str| format!("/api/jobs/1/cold/wanted?in_at=2026-11-28T12:20&ready_at={ready}");
    let soon = get(&store, &ask("2026-11-28T12:46")).await;
    assert_eq!(soon["within_min"], 26.0);
    let ways = soon["ways"].as_array().unwrap();
    let disc = ways.iter().find(|w| w["piece"]["kind"] == "disc" && w["place"] == "fridge").unwrap();
    assert_eq!(disc["makes_it"], false);
    let thickest = disc["thickest_mm"].as_f64().unwrap();
    assert!((14.0..22.0).contains(&thickest), "{thickest}");
    // Pressed so thin it makes it; half a millimetre more and it does not.
    for (mm, makes_it) in [(thickest, true), (thickest + 0.5, false)] {
        call(&store, Method::PATCH, "/api/jobs/1", Some(json!({ "disc_mm": mm }))).await;
        let again = get(&store, &ask("2026-11-28T12:46")).await;
        let ways = again["ways"].as_array().unwrap();
        let disc = ways.iter().find(|w| w["piece"]["kind"] == "disc" && w["place"] == "fridge").unwrap();
        assert_eq!(disc["makes_it"], makes_it, "{mm} mm");
    }
    for (ready, says) in [("2026-11-28T12:20", "Ready-by is before it goes in"), ("at noon", "Can’t read")] {
        let (status, problem) = call(&store, Method::GET, &ask(&ready.replace(' ', "%20")), None).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
        let said = field_messages(&problem);
        assert!(said[0].0 == "ready_at" && said[0].1.contains(says), "{said:?}");
    }
}

#[actix_web::test]
async fn a_new_job_is_asked_for_and_takes_anothers_settings_only_where_that_was_asked() {
    let (_dir, store) = demo().await;
    let next = get(&store, "/api/jobs").await["jobs"][0].clone();
    let other = get(&store, "/api/formulas").await.as_array().unwrap().last().unwrap().clone();
    let body = json!({ "dough": { "kind": "recipe", "formula_id": other["id"] }, "shape": { "kind": "cutter", "cutter_id": next["cutter_id"] } });
    let (status, job) = call(&store, Method::POST, "/api/jobs/new", Some(body.clone())).await;
    assert_eq!((status, &job["formula_id"], &job["pieces"]), (StatusCode::OK, &other["id"], &json!(24)), "{job}");
    assert!(job["ready_by"].as_str().unwrap().ends_with("T12:00"));
    let mut like = body.clone();
    like["like"] = next["id"].clone();
    let (_, job) = call(&store, Method::POST, "/api/jobs/new", Some(like)).await;
    assert_eq!((&job["pieces"], &job["method"]), (&next["pieces"], &next["method"]));
    let mut unknown = body;
    unknown["dough"]["formula_id"] = json!(99);
    let (status, problem) = call(&store, Method::POST, "/api/jobs/new", Some(unknown)).await;
    assert_eq!(status, StatusCode::NOT_FOUND, "{problem}");
}

#[actix_web::test]
async fn an_empty_bakery_comes_to_a_plan_with_one_request_and_loses_it_with_one_undo() {
    let dir = tempfile::tempdir().unwrap();
    let empty = Store::open(&dir.path().join("bakery.db")).await.unwrap();
    demo::ensure_kitchen(&empty).await.unwrap();
    for (shape, name) in [
        (json!({ "kind": "builtin", "form": "heart", "width_mm": 75 }), "Heart"),
        (json!({ "kind": "builtin", "form": "letter", "width_mm": 60, "letter": "r" }), "Letter R"),
        (json!({ "kind": "log" }), "Sliced log"),
        (json!({ "kind": "balls", "mass_g": 25 }), "Balls"),
    ] {
        for starter in get(&empty, "/api/starters").await.as_array().unwrap() {
            let body =
                json!({ "dough": { "kind": "starter", "starter": starter["starter"] }, "shape": shape, "pieces": 24 });
            // What was only looked at leaves nothing behind.
            let (status, plan) = call(&empty, Method::POST, "/api/jobs/new/plan", Some(body.clone())).await;
            assert_eq!(status, StatusCode::OK, "{plan}");
            assert_eq!(get(&empty, "/api/formulas").await, json!([]));
            let (status, job) = call(&empty, Method::POST, "/api/jobs/new", Some(body.clone())).await;
            assert_eq!((status, &job["name"]), (StatusCode::OK, &json!(name)), "{job}");
            let kept = get(&empty, &format!("/api/jobs/{}/plan", job["id"])).await;
            assert_eq!(kept["dough"]["dough_g"], plan["dough"]["dough_g"]);
            // A second one finds its dough and its cutter on the shelf.
            call(&empty, Method::POST, "/api/jobs/new", Some(body)).await;
            assert_eq!(get(&empty, "/api/formulas").await.as_array().unwrap().len(), 1);
            assert_eq!(get(&empty, "/api/cutters").await.as_array().unwrap().len(), 1);
            for _ in 0..2 {
                call(&empty, Method::POST, "/api/undo", None).await;
            }
            assert_eq!(
                (get(&empty, "/api/jobs").await["jobs"].clone(), get(&empty, "/api/cutters").await),
                (json!([]), json!([]))
            );
        }
    }
    let body = json!({ "dough": { "kind": "starter", "starter": "brick" }, "shape": { "kind": "balls" } });
    let (status, problem) = call(&empty, Method::POST, "/api/jobs/new", Some(body)).await;
    assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "dough.starter"));
    let body = json!({ "dough": { "kind": "starter", "starter": "spiced" }, "shape": { "kind": "builtin", "form": "heart", "width_mm": 3 }, "pieces": 0 });
    let (status, problem) = call(&empty, Method::POST, "/api/jobs/new", Some(body)).await;
    assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "shape.width_mm"));
}

#[actix_web::test]
async fn a_new_kitchen_says_which_of_its_values_are_only_usual() {
    let dir = tempfile::tempdir().unwrap();
    let empty = Store::open(&dir.path().join("bakery.db")).await.unwrap();
    demo::ensure_kitchen(&empty).await.unwrap();
    let usual = |kitchen: &Value, field: &str| kitchen["usual"].as_array().unwrap().contains(&json!(field));
    let kitchen = get(&empty, "/api/kitchen").await;
    assert!(usual(&kitchen, "fridge_c") && usual(&kitchen, "tray_width_mm"));
    assert_eq!(kitchen["hot_spots"], Value::Null, "nobody has looked for hot places there");
    let (_, kitchen) = call(&empty, Method::PATCH, "/api/kitchen", Some(json!({ "fridge_c": 6.5 }))).await;
    assert!(!usual(&kitchen, "fridge_c") && usual(&kitchen, "freezer_c"));
}

#[actix_web::test]
async fn advice_and_logs_say_what_they_were_worked_out_from() {
    let (_dir, store) = demo().await;
    let plan = get(&store, "/api/jobs/1/plan").await;
    let advice = get(&store, "/api/jobs/1/cold/advice?trouble=too_warm").await;
    assert_eq!(advice["dough_c"], plan["dough"]["dough_c"]);
    let advice = get(&store, "/api/jobs/1/cold/advice?trouble=warm_room&room_c=31").await;
    assert_eq!((&advice["room_c"], &advice["dough_c"]), (&json!(31.0), &Value::Null));
    let log = get(&store, "/api/jobs/1/log?form=round").await;
    assert_eq!(log["given"], json!(["mass_g", "width_mm", "slice_mm"]));
    let log = get(&store, "/api/jobs/1/log?form=round&mass_g=450&length_mm=200&slices=20").await;
    assert_eq!(log["given"], json!(["mass_g", "length_mm", "slices"]));
}
