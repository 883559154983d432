//! Jobs of several lots through the API.

use crate::bakery::{call, demo, field_messages, from_page, get, send};
use actix_web::http::{Method, StatusCode};
use serde_json::{Value, json};

/// The demo's job of four lots: fish and buoys of one dough, slices and balls of two others.
const BOXES: i64 = 4;

fn named(of: &Value) -> Vec<&str> {
    of["lots"].as_array().unwrap().iter().map(|l| l["name"].as_str().unwrap()).collect()
}

#[actix_web::test]
async fn all_lots_share_a_day_and_like_pieces_of_one_dough_a_tray() {
    let (_dir, store) = demo().await;
    let all = get(&store, &format!("/api/jobs/{BOXES}/together")).await;
    assert_eq!(named(&all), ["Boxes: fish", "Boxes: buoys", "Boxes: cocoa slices", "Boxes: oat balls"]);
    let mixed: Vec<_> = all["lots"].as_array().unwrap().iter().map(|l| l["mixed_by"].as_u64()).collect();
    assert_eq!(mixed, [None, Some(0), None, None], "the buoys are of the fishes' dough");
    // What the first mixes holds both.
    let parts = all["lots"][0]["plan"]["dough"]["parts"].as_array().unwrap();
    assert!(parts.iter().any(|p| p["name"] == "Boxes: buoys" && p["part_use"] == "other_job"));
    let tasks = all["clock"]["tasks"].as_array().unwrap();
    let overlap = |a: &Value, b: &Value| {
        a["start_min"].as_i64() < b["end_min"].as_i64() && b["start_min"].as_i64() < a["end_min"].as_i64()
    };
    let hands: Vec<_> = tasks.iter().filter(|t| t["lane"] == "hands").collect();
    assert!((0..hands.len()).all(|i| (0..i).all(|j| !overlap(hands[i], hands[j]))), "one pair of hands for all lots");
    assert!((0..4).all(|lot| tasks.iter().any(|t| t["lot"] == lot && t["step"] == "bake")));
    let classes: Vec<_> = all["classes"].as_array().unwrap().iter().map(|c| c["lots"].clone()).collect();
    assert!(classes.contains(&json!([0, 1])), "{classes:?}");
    assert!(classes.iter().all(|c| c.as_array().unwrap().len() <= 2), "no two doughs on a tray: {classes:?}");
    // From any of its lots it is the same day.
    assert_eq!(get(&store, &format!("/api/jobs/{}/together", BOXES + 2)).await["clock"], all["clock"]);
}

#[actix_web::test]
async fn slices_and_balls_are_planned_with_their_own_form() {
    let (_dir, store) = demo().await;
    let slices = get(&store, &format!("/api/jobs/{}/plan", BOXES + 2)).await;
    assert_eq!((&slices["cutter"]["name"], &slices["cold"]["piece"]["kind"]), (&json!("round slice"), &json!("log")));
    assert!((slices["cutter"]["width_mm"].as_f64().unwrap() - 45.0).abs() < 0.1);
    let balls = get(&store, &format!("/api/jobs/{}/plan", BOXES + 3)).await;
    assert_eq!((&balls["cold"]["piece"]["kind"], balls["dough"]["piece_g"].as_f64()), (&json!("sphere"), Some(18.0)));
    // Another way to make them is one change, undone as one.
    let patch = json!({ "making": { "kind": "tray_bar", "width_mm": 300.0, "length_mm": 400.0, "thickness_mm": 15.0, "corner_mm": 20.0, "columns": 4, "rows": 6 } });
    let (status, changed) = call(&store, Method::PATCH, &format!("/api/jobs/{}", BOXES + 3), Some(patch.clone())).await;
    assert_eq!((status, &changed["making"]), (StatusCode::OK, &patch["making"]));
    let bars = get(&store, &format!("/api/jobs/{}/plan", BOXES + 3)).await;
    assert_eq!(bars["shape"]["trays"]["fill"], json!([24]));
    call(&store, Method::POST, "/api/undo", None).await;
    assert_eq!(get(&store, &format!("/api/jobs/{}", BOXES + 3)).await["making"]["kind"], "ball");
    let thin = json!({ "making": { "kind": "sliced", "form": "round", "width_mm": 5.0 } });
    let (status, problem) = call(&store, Method::PATCH, &format!("/api/jobs/{}", BOXES + 2), Some(thin)).await;
    assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "making.width_mm"));
}

#[actix_web::test]
async fn lots_come_and_go_and_keep_one_time() {
    let (_dir, store) = demo().await;
    let body = json!({ "name": "Anchors", "pieces": 12 });
    let (status, lot) = call(&store, Method::POST, "/api/jobs/1/lots", Some(body)).await;
    assert_eq!((status, &lot["lot_of"], &lot["dough_with"]), (StatusCode::OK, &json!(1), &json!(1)));
    let id = lot["id"].as_i64().unwrap();
    call(&store, Method::PATCH, "/api/jobs/1", Some(json!({ "ready_by": "2026-12-05T09:00" }))).await;
    assert_eq!(get(&store, &format!("/api/jobs/{id}")).await["ready_by"], "2026-12-05T09:00");
    // Of another formula it is mixed by itself; of the first one again it is mixed with it.
    let formula = |n: i64| Some(json!({ "formula_id": n }));
    let (_, other) = call(&store, Method::PATCH, &format!("/api/jobs/{id}"), formula(2)).await;
    assert_eq!(other["dough_with"], Value::Null);
    let (_, back) = call(&store, Method::PATCH, &format!("/api/jobs/{id}"), formula(1)).await;
    assert_eq!(back["dough_with"], 1);
    for (job, patch, field) in [
        (1, json!({ "lot_of": 1 }), "lot_of"),
        (1, json!({ "lot_of": 2 }), "lot_of"),
        (2, json!({ "lot_of": id }), "lot_of"),
    ] {
        let (status, problem) = call(&store, Method::PATCH, &format!("/api/jobs/{job}"), Some(patch)).await;
        assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, field));
    }
    call(&store, Method::DELETE, "/api/jobs/1", None).await;
    // A job goes with its lots, and comes back with them.
    let lot = format!("/api/jobs/{id}");
    assert_eq!(call(&store, Method::GET, &lot, None).await.0, StatusCode::NOT_FOUND);
    call(&store, Method::POST, "/api/undo", None).await;
    assert_eq!(get(&store, &lot).await["lot_of"], 1);
}

#[actix_web::test]
async fn lots_of_one_dough_are_cut_from_one_sheet_and_share_its_dough() {
    let (_dir, store) = demo().await;
    let plan = |id: i64| {
        let store = store.clone();
        async move { get(&store, &format!("/api/jobs/{id}/plan")).await }
    };

    let before = plan(BOXES).await;
    let largest = |i: usize| before["shape"]["largest_mm"][i].as_f64().unwrap();
    let (width, length) = (largest(0), largest(1));
    // Sheet after sheet, as the page does it, until nothing is missing.
    let (mut fish, mut buoys, mut sheets) = (18, 18, Vec::new());
    while fish + buoys > 0 {
        let body = json!({ "width_mm": width, "length_mm": length, "pieces": fish, "lots": [{ "job_id": BOXES + 1, "pieces": buoys }], "seconds": 0.4 });
        let request = from_page(Method::POST, &format!("/api/jobs/{BOXES}/nest"))
            .set_payload(body.to_string())
            .insert_header(("content-type", "application/json"));
        let (status, _, heard) = send(&store, request).await;
        assert_eq!(status, StatusCode::OK);
        let heard = String::from_utf8(heard.to_vec()).unwrap();
        let last = heard.split("\n\n").filter_map(|e| e.strip_prefix("event: layout\ndata: ")).last().unwrap();
        let found: Value = serde_json::from_str(last).unwrap();
        let cuts = found["cuts"].as_array().unwrap();
        let count = |n: u64| cuts.iter().filter(|c| c["cutter"].as_u64().unwrap_or(0) == n).count();
        (fish, buoys) = (fish - count(0), buoys - count(1));
        assert_eq!(found["missing"], json!([fish, buoys]));
        assert!(!cuts.is_empty() && sheets.len() < 5);
        let pieces: Vec<_> = cuts
            .iter()
            .map(|c| json!({ "job_id": BOXES + i64::from(c["cutter"] == 1), "x_mm": c["x_mm"], "y_mm": c["y_mm"], "turn_deg": c["turn_deg"] }))
            .collect();
        sheets.push(json!({ "length_mm": found["used_mm"], "pieces": pieces }));
    }
    let area: f64 = sheets.iter().map(|s| s["length_mm"].as_f64().unwrap() * width).sum();
    let (status, _) =
        call(&store, Method::PATCH, &format!("/api/jobs/{BOXES}"), Some(json!({ "mixed": sheets }))).await;
    assert_eq!(status, StatusCode::OK);
    let (a, b) = (plan(BOXES).await, plan(BOXES + 1).await);
    let part = |p: &Value| p["dough"]["parts"][0]["dough_g"].as_f64().unwrap();
    let density = a["dough"]["density_kg_m3"].as_f64().unwrap();
    // All sheets at 6 mm, and 3 % kept back, to the gram of each lot.
    let whole = area * 6.0 * density / 1e6 * 1.03;
    assert!((part(&a) + part(&b) - whole).abs() < 2.0, "{} + {} against {whole}", part(&a), part(&b));
    assert_eq!(a["shape"]["rolls"].as_array().unwrap().iter().map(|r| r["pieces"].as_u64().unwrap()).sum::<u64>(), 18);
    let pdf = from_page(Method::GET, &format!("/api/jobs/{BOXES}/template.pdf?mixed=0"));
    let (status, kind, body) = send(&store, pdf).await;
    assert_eq!((status, kind.as_str(), &body[..5]), (StatusCode::OK, "application/pdf", &b"%PDF-"[..]));
    // One piece more is wanted: the sheets no longer do, and every lot says so.
    call(&store, Method::PATCH, &format!("/api/jobs/{}", BOXES + 1), Some(json!({ "pieces": 19 }))).await;
    for id in [BOXES, BOXES + 1] {
        let said = plan(id).await["shape"]["warnings"].to_string();
        assert!(said.contains("can’t be used") && said.contains("an item needs 19"), "{said}");
    }
    let thick = Some(json!({ "thickness_mm": 8.0 }));
    call(&store, Method::PATCH, &format!("/api/jobs/{}", BOXES + 1), thick).await;
    assert!(plan(BOXES).await["shape"]["warnings"].to_string().contains("same dough and thickness"));
    let lots = json!([{ "job_id": BOXES + 2, "pieces": 3 }]);
    let body = Some(json!({ "width_mm": 300.0, "length_mm": 400.0, "pieces": 3, "lots": lots }));
    let (status, problem) = call(&store, Method::POST, &format!("/api/jobs/{BOXES}/nest"), body).await;
    assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "lots[0]"));
}

#[actix_web::test]
async fn round_sheets_are_planned_nested_and_printed() {
    let (_dir, store) = demo().await;
    call(&store, Method::PATCH, "/api/jobs/1", Some(json!({ "sheet": "round", "sheet_width_mm": 280.0 }))).await;
    let plan = get(&store, "/api/jobs/1/plan").await;
    let roll = &plan["shape"]["rolls"][0];
    assert_eq!((&roll["form"], &roll["width_mm"]), (&json!("round"), &roll["length_mm"]));
    assert!(roll["width_mm"].as_f64().unwrap() <= 280.0);
    let body = json!({ "form": "round", "width_mm": 280.0, "length_mm": 280.0, "seconds": 0.2 });
    let request = from_page(Method::POST, "/api/jobs/1/nest")
        .set_payload(body.to_string())
        .insert_header(("content-type", "application/json"));
    assert_eq!(send(&store, request).await.0, StatusCode::OK);
    let svg = send(&store, from_page(Method::GET, "/api/jobs/1/template.svg")).await;
    assert_eq!(svg.0, StatusCode::OK);
    assert!(!String::from_utf8(svg.2.to_vec()).unwrap().contains("<rect"), "its rim is round");
}

#[actix_web::test]
async fn the_steps_of_all_lots_go_into_a_calendar_in_the_kitchens_time() {
    let (_dir, store) = demo().await;
    let (status, _) = call(&store, Method::PATCH, "/api/kitchen", Some(json!({ "zone": "America/New_York" }))).await;
    assert_eq!(status, StatusCode::OK);
    let all = get(&store, &format!("/api/jobs/{BOXES}/together")).await;
    let tasks = all["clock"]["tasks"].as_array().unwrap();
    let asked = from_page(Method::GET, &format!("/api/jobs/{BOXES}/calendar"));
    let (status, _, body) = send(&store, asked).await;
    assert_eq!(status, StatusCode::OK);
    // Long lines are folded (RFC 5545, 3.1): taken together again before they are read.
    let file = String::from_utf8(body).unwrap().replace("\r\n ", "");
    assert!(file.starts_with("BEGIN:VCALENDAR\r\n") && file.ends_with("END:VCALENDAR\r\n"));
    let once = |line: &str| assert_eq!(file.matches(&format!("\r\n{line}")).count(), 1, "{line} in {file}");
    once("VERSION:2.0");
    once("PRODID:");
    let events: Vec<&str> = file.split("BEGIN:VEVENT").skip(1).collect();
    assert_eq!(events.len(), tasks.len());
    for (event, task) in events.iter().zip(tasks) {
        let lot = usize::try_from(task["lot"].as_u64().unwrap()).unwrap();
        let said = format!("{} \u{b7} {}", task["does"].as_str().unwrap(), named(&all)[lot]);
        assert!(
            event.contains(&format!("SUMMARY:{}", said.replace(',', "\\,").replace(';', "\\;"))),
            "{said} in {event}"
        );
        // Five hours behind UTC in winter.
        let shown =
            chrono::NaiveDateTime::parse_from_str(task["start_at"].as_str().unwrap(), "%Y-%m-%dT%H:%M").unwrap();
        let utc = (shown + chrono::TimeDelta::hours(5)).format("DTSTART:%Y%m%dT%H%M00Z").to_string();
        assert!(event.contains(&utc), "{utc} in {event}");
    }
    let (status, _, _) = send(&store, from_page(Method::GET, "/api/jobs/999/calendar")).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
}
