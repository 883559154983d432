//! Photos of baked pieces over the API: measured, kept with their record, removed; and how even pieces are over time.

use crate::bakery::{call, demo, field_messages, from_page, get, send};
use actix_web::http::{Method, StatusCode};
use serde_json::{Value, json};

async fn post(store: &ready_slab_store::Store, path: &str, file: &[u8]) -> (StatusCode, Value) {
    let request =
        from_page(Method::POST, path).insert_header(("content-type", "image/jpeg")).set_payload(file.to_vec());
    let (status, _, body) = send(store, request).await;
    (status, serde_json::from_slice(&body).unwrap_or(Value::Null))
}

#[actix_web::test]
async fn a_photo_is_measured_and_kept_with_its_record_until_it_is_removed() {
    let (_dir, store) = demo().await;
    let (status, kind, photo) = send(&store, from_page(Method::GET, "/api/jobs/1/photo/made-up?paper=a4&seed=3")).await;
    assert_eq!((status, kind.as_str()), (StatusCode::OK, "image/jpeg"));
    let (status, found) = post(&store, "/api/jobs/1/photo?paper=a4", &photo).await;
    assert_eq!(status, StatusCode::OK, "{found}");
    let pieces = found["pieces"].as_array().unwrap();
    assert_eq!((pieces.len(), &found["cutters"]), (4, &json!(["Gull"])));
    // They are made up about as they are expected, and measured so: a photo contradicts no other screen.
    let oven = get(&store, "/api/jobs/1/plan").await["oven"].clone();
    let (least, most) = (oven["spread_least_percent"].as_f64().unwrap(), oven["spread_most_percent"].as_f64().unwrap());
    for piece in pieces {
        let spread = piece["spread_percent"].as_f64().unwrap();
        assert!((least - 0.9..most + 0.9).contains(&spread), "{spread} of {least} to {most}");
        assert_eq!(piece["cutter"], 0);
    }
    assert_eq!(get(&store, "/api/jobs/1/records").await[0]["has_photo"], false);
    let widths: Vec<&Value> = pieces.iter().map(|p| &p["width_mm"]).collect();
    let record = json!({ "widths_mm": widths, "edge_colour": found["edge_colour"], "baked_min": 12 });
    let (_, record) = call(&store, Method::POST, "/api/jobs/1/records", Some(record)).await;
    let of = format!("/api/records/{}/photo", record["id"]);
    // What the bake taught changes what size is looked for, by a hair.
    let (_, found) = post(&store, "/api/jobs/1/photo?paper=a4", &photo).await;
    assert_eq!(call(&store, Method::GET, &of, None).await.0, StatusCode::NOT_FOUND);
    let (status, kept) = post(&store, &format!("{of}?paper=a4"), &photo).await;
    assert_eq!((status, &kept["pieces"]), (StatusCode::OK, &found["pieces"]));
    assert_eq!(get(&store, &of).await, kept);
    assert_eq!(get(&store, "/api/jobs/1/records").await[0]["has_photo"], true);
    let (_, kind, file) = send(&store, from_page(Method::GET, &format!("{of}.jpg"))).await;
    assert_eq!((kind.as_str(), &file[..2]), ("image/jpeg", &[0xff, 0xd8][..]));
    // It comes back with the record that was struck out, and goes alone.
    call(&store, Method::DELETE, &format!("/api/records/{}", record["id"]), None).await;
    assert_eq!(get(&store, &of).await, kept);
    assert_eq!(call(&store, Method::DELETE, &of, None).await.0, StatusCode::NO_CONTENT);
    assert_eq!(call(&store, Method::DELETE, &of, None).await.0, StatusCode::NOT_FOUND);
}

#[actix_web::test]
async fn what_is_asked_wrongly_of_a_photo_is_told_by_field() {
    let (_dir, store) = demo().await;
    for (query, field) in [
        ("paper=a4", "photo"),
        ("paper=a5", "paper"),
        ("paper=a4&corners=1,2,3", "corners"),
        ("paper=a4&corners=0,0,1,1,0,1,1,0", "corners"),
        ("paper=a4&pointed_mm=1,2,3", "pointed_mm"),
        ("paper=a4&pointed_mm=here", "pointed_mm"),
        ("paper=a4&thickness_mm=99", "thickness_mm"),
    ] {
        let (status, problem) = post(&store, &format!("/api/jobs/1/photo?{query}"), b"no picture").await;
        let faults = field_messages(&problem);
        assert_eq!((status, faults[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, field), "{query}: {problem}");
    }
    assert_eq!(post(&store, "/api/jobs/99/photo?paper=a4", b"").await.0, StatusCode::NOT_FOUND);
    assert_eq!(post(&store, "/api/records/99/photo?paper=a4", b"").await.0, StatusCode::NOT_FOUND);
}

#[actix_web::test]
async fn trays_of_one_dough_are_charted_and_a_shift_is_told() {
    let (_dir, store) = demo().await;
    let few = get(&store, "/api/jobs/1/bakes-even").await;
    assert_eq!((&few["charts"], &few["measured"], &few["needed"]), (&Value::Null, &json!(2), &json!(3)));
    for tray in 0..10 {
        let shift = if tray < 8 { 0.0 } else { 1.5 };
        let widths: Vec<f64> = (0..6).map(|i| 96.6 + shift + 0.1 * f64::from(i)).collect();
        let record = json!({ "widths_mm": widths, "edge_colour": "golden" });
        call(&store, Method::POST, "/api/jobs/1/records", Some(record)).await;
    }
    let even = get(&store, "/api/jobs/1/bakes-even?tolerance_mm=0.5").await;
    let trays = even["charts"]["trays"].as_array().unwrap();
    assert_eq!((trays.len(), trays[0]["recorded_at"].as_str() < trays[11]["recorded_at"].as_str()), (12, true));
    assert_eq!(trays[11]["mean"]["says"]["text"], "wider than usual");
    assert_eq!(trays[3]["range"]["says"], Value::Null);
    let percent = |of: &str| even["charts"][of].as_f64().unwrap();
    let all = percent("within_percent") + percent("trays_percent") + percent("days_percent");
    assert!((all - 100.0).abs() < 1e-6 && percent("beyond_percent") > 10.0, "{even}");
    // Against what is wanted, not what came out.
    let wanted = get(&store, "/api/jobs/1/bakes-even?tolerance_mm=0.5&wanted_mm=99").await;
    assert!(wanted["charts"]["beyond_percent"].as_f64().unwrap() > percent("beyond_percent"));
    let thin = get(&store, "/api/jobs/1/bakes-even?measure=thickness").await;
    assert_eq!((&thin["charts"], &thin["tolerance_mm"]), (&Value::Null, &json!(0.5)));
    for (query, field) in
        [("tolerance_mm=0", "tolerance_mm"), ("wanted_mm=1000", "wanted_mm"), ("measure=mass", "measure")]
    {
        let (status, problem) = call(&store, Method::GET, &format!("/api/jobs/1/bakes-even?{query}"), None).await;
        assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, field));
    }
}
