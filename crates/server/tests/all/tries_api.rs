//! Why a bake came out so, what is tried on purpose, and the whole book of bakes over the API.

use crate::bakery::{call, demo, field_messages, from_page, get, send};
use actix_web::http::{Method, StatusCode};
use ready_slab_store::Store;
use serde_json::{Value, json};

async fn far_spread(store: &Store) -> i64 {
    let record = json!({ "widths_mm": [100.2, 100.8, 99.9], "edge_colour": "pale", "baked_min": 11, "notes": "Later trays worse." });
    let (status, made) = call(store, Method::POST, "/api/jobs/1/records", Some(record)).await;
    assert_eq!(status, StatusCode::OK, "{made}");
    made["id"].as_i64().unwrap()
}

#[actix_web::test]
async fn a_cause_is_found_by_answers_its_test_is_put_into_the_next_bake_and_reads_itself_out() {
    let (_dir, store) = demo().await;
    assert_eq!(get(&store, "/api/causes").await.as_array().unwrap().len(), 21);
    let record = far_spread(&store).await;
    let weighed = get(&store, &format!("/api/records/{record}/causes?seen=spread_too_far")).await;
    let suspects = weighed["suspects"].as_array().unwrap();
    assert_eq!(suspects.len(), 9);
    let share = |found: &Value, cause: &str| {
        let all = found["suspects"].as_array().unwrap();
        all.iter().find(|s| s["cause"] == cause).unwrap()["share_percent"].as_f64().unwrap()
    };
    let whole: f64 = suspects.iter().map(|s| s["share_percent"].as_f64().unwrap()).sum::<f64>()
        + weighed["another_percent"].as_f64().unwrap();
    assert!((whole - 100.0).abs() < 1e-6);
    // What came out is told as the record has it.
    let records = get(&store, "/api/jobs/1/records").await;
    let own = records.as_array().unwrap().iter().find(|r| r["id"] == record).unwrap().clone();
    let (told, kept) = (weighed["came_out_percent"].as_f64().unwrap(), own["spread_percent"].as_f64().unwrap());
    assert!((told - kept).abs() < 0.01, "{told} {kept}");
    let answered =
        get(&store, &format!("/api/records/{record}/causes?seen=spread_too_far&so=warm_pieces&not=oven_cool")).await;
    assert!(share(&answered, "warm_pieces") > share(&weighed, "warm_pieces"));
    assert!(share(&answered, "oven_cool") < share(&weighed, "oven_cool"));
    // What cannot be asked is told by field.
    for (query, field) in [
        ("seen=", "seen"),
        ("seen=lumpy", "seen"),
        ("seen=pale&so=gremlins", "so"),
        ("seen=pale,tough,greasy,cracks,sticks", "seen"),
    ] {
        let (status, problem) = call(&store, Method::GET, &format!("/api/records/{record}/causes?{query}"), None).await;
        assert_eq!(
            (status, field_messages(&problem)[0].0.as_str()),
            (StatusCode::UNPROCESSABLE_ENTITY, field),
            "{query}"
        );
    }
    assert_eq!(call(&store, Method::GET, "/api/records/999/causes?seen=pale", None).await.0, StatusCode::NOT_FOUND);
    // Cracks are told apart by hand.
    let body = json!({ "seen": "cracks", "so": "", "not": "" });
    let (_, put) = call(&store, Method::POST, &format!("/api/records/{record}/test"), Some(body)).await;
    assert_eq!(
        (&put["test"]["by_hand"], &put["noted"], &put["record_id"]),
        (&json!(true), &Value::Null, &json!(record))
    );
    assert_eq!(get(&store, "/api/jobs/1/tries").await[0], put);
    let noted = format!("/api/tries/{}/noted", put["id"]);
    let (status, problem) = call(&store, Method::POST, &noted, Some(json!({ "kind": "trial", "trays_mm": [] }))).await;
    assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "kind"));
    let (_, read) = call(&store, Method::POST, &noted, Some(json!({ "kind": "helped", "helped": true }))).await;
    assert!(read["says"][0]["text"].as_str().unwrap().starts_with("Most likely now: too cold to work"), "{read}");
    let (_, no) = call(&store, Method::POST, &noted, Some(json!({ "kind": "helped", "helped": false }))).await;
    assert!(no["says"][0]["text"].as_str().unwrap().contains("too much flour"), "{no}");
    let (_, open) = call(&store, Method::DELETE, &noted, None).await;
    assert_eq!((&open["noted"], &open["says"]), (&Value::Null, &json!([])));
    let one = format!("/api/tries/{}", put["id"]);
    assert_eq!(call(&store, Method::DELETE, &one, None).await.0, StatusCode::NO_CONTENT);
    assert_eq!(call(&store, Method::DELETE, &one, None).await.0, StatusCode::NOT_FOUND);
}

#[actix_web::test]
async fn a_trial_is_sized_by_this_kitchen_laid_out_on_the_jobs_tray_and_read_out() {
    let (_dir, store) = demo().await;
    let size = |mm: &str| format!("/api/jobs/1/trial-size?ways=2&measure=width&difference_mm={mm}");
    let usual = get(&store, &size("1")).await;
    assert_eq!(usual["sd_own"], false);
    // A third tray makes three: their own deviation counts.
    far_spread(&store).await;
    let own = get(&store, &size("1")).await;
    assert_eq!(own["sd_own"], true);
    assert!(own["sd_mm"].as_f64().unwrap() < usual["sd_mm"].as_f64().unwrap());
    assert!(own["seen_percent"].as_f64().unwrap() >= 90.0);
    let (status, problem) = call(&store, Method::GET, &size("0.01"), None).await;
    assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "difference_mm"));
    let asked =
        |name: &str, ways: &[&str]| json!({ "name": name, "ways": ways, "measure": "width", "difference_mm": 1.0 });
    let post = async |body: Value| call(&store, Method::POST, "/api/jobs/1/tries", Some(body)).await;
    for (body, field) in
        [(asked("", &["a", "b"]), "name"), (asked("Sugar", &["a", " "]), "ways[1]"), (asked("Sugar", &["a"]), "ways")]
    {
        let (status, problem) = post(body).await;
        assert_eq!(
            (status, field_messages(&problem)[0].0.as_str()),
            (StatusCode::UNPROCESSABLE_ENTITY, field),
            "{problem}"
        );
    }
    let (_, made) = post(asked("Powdered sugar", &["as usual", "half powdered"])).await;
    let trial = &made["trial"];
    let (per_way, places) = (own["per_way"].as_u64().unwrap(), trial["places_mm"].as_array().unwrap().len());
    assert_eq!(trial["per_way"].as_u64().unwrap(), per_way);
    let full = get(&store, "/api/jobs/1/plan").await["shape"]["trays"]["pieces"].as_array().map_or(places, Vec::len);
    assert_eq!(places, full);
    let laid = trial["trays"][0].as_array().unwrap();
    assert_eq!((laid.len(), laid.iter().filter(|w| **w == 1).count() as u64), (places, per_way));
    let noted = format!("/api/tries/{}/noted", made["id"]);
    let measured = json!({ "kind": "trial", "trays_mm": [[[97.0, 97.3, 96.8, 97.1], [96.0, 96.2, 95.9, 96.3]]] });
    let (_, read) = call(&store, Method::POST, &noted, Some(measured)).await;
    assert!((read["ways"][1]["more_mm"].as_f64().unwrap() + 0.95).abs() < 1e-9, "{read}");
    assert!(read["says"][0]["text"].as_str().unwrap().contains("narrower than as usual"), "{read}");
    let (status, problem) =
        call(&store, Method::POST, &noted, Some(json!({ "kind": "trial", "trays_mm": [[[97.0, 900.0], [96.0]]] })))
            .await;
    assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "trays[0][0][1]"));
    let (_, kind, csv) = send(&store, from_page(Method::GET, &format!("{noted}.csv"))).await;
    let csv = String::from_utf8(csv).unwrap();
    assert!(kind.starts_with("text/csv") && csv.starts_with("tray,way,piece,width_mm\r\n1,as usual,1,97\r\n"), "{csv}");
    assert_eq!(csv.lines().count(), 9);
    // What was refused has changed nothing.
    assert_eq!(get(&store, "/api/jobs/1/tries").await[0], read);
}

#[actix_web::test]
async fn the_book_is_looked_through_and_two_bakes_are_set_side_by_side() {
    let (_dir, store) = demo().await;
    let far = far_spread(&store).await;
    let of = async |query: &str| get(&store, &format!("/api/book?{query}")).await;
    let all = of("").await;
    assert_eq!((all["total"].as_u64(), &all["records"][0]["id"]), (Some(3), &json!(far)));
    assert_eq!(
        (&all["records"][0]["job"], &all["records"][0]["formula"]),
        (&json!("Regatta gulls"), &json!("Lemon-thyme"))
    );
    for (query, count) in [
        ("named=worse", 1),
        ("named=lemon", 3),
        ("named=100%25", 0),
        ("edge=pale", 1),
        ("spread=more", 1),
        ("spread=within", 2),
        ("from_day=2026-11-22&to_day=2026-11-26", 1),
        ("from=2", 3),
    ] {
        assert_eq!(of(query).await["total"], count, "{query}");
    }
    assert_eq!(of("from=2").await["records"].as_array().unwrap().len(), 1);
    let (status, problem) = call(&store, Method::GET, "/api/book?from_day=yesterday", None).await;
    assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "from_day"));
    let beside = get(&store, &format!("/api/book/beside?one=1&other={far}")).await;
    let more = beside["other"]["spread_percent"].as_f64().unwrap() - beside["one"]["spread_percent"].as_f64().unwrap();
    assert!((beside["spread_percent"].as_f64().unwrap() - more).abs() < 1e-6, "{beside}");
    assert_eq!(beside["differs"][0]["what"], "end");
    // A job that is gone leaves its bakes in the book.
    call(&store, Method::DELETE, "/api/jobs/1", None).await;
    let left = of("named=worse").await;
    assert_eq!((left["total"].as_u64(), &left["records"][0]["job"]), (Some(1), &Value::Null));
}

async fn text(store: &Store, path: &str, body: &str) -> (StatusCode, Value) {
    let request =
        from_page(Method::POST, path).insert_header(("content-type", "text/csv")).set_payload(body.to_owned());
    let (status, _, body) = send(store, request).await;
    (status, serde_json::from_slice(&body).unwrap_or(Value::Null))
}

#[actix_web::test]
async fn bakes_go_out_as_a_table_and_as_a_list_and_come_back_alike() {
    let (_dir, store) = demo().await;
    let formula = json!({ "widths_mm": [97.0], "edge_colour": "golden", "notes": "=SUM(A1)" });
    call(&store, Method::POST, "/api/jobs/1/records", Some(formula)).await;
    let (_, _, csv) = send(&store, from_page(Method::GET, "/api/book.csv")).await;
    let csv = String::from_utf8(csv).unwrap();
    assert!(
        csv.contains("'=SUM(A1)") && csv.starts_with("recorded_at,job,"),
        "nothing that a spreadsheet would compute: {csv}"
    );
    let (_, _, list) = send(&store, from_page(Method::GET, "/api/book.json")).await;
    let list = String::from_utf8(list).unwrap();
    for (format, file) in [("csv", &csv), ("json", &list)] {
        let before = get(&store, "/api/book").await;
        let (status, read) = text(&store, &format!("/api/jobs/1/records/read?format={format}"), file).await;
        assert_eq!((status, &read["added"]), (StatusCode::OK, &json!(3)), "{format}: {read}");
        let after = get(&store, "/api/book").await;
        assert_eq!(after["total"].as_u64().unwrap(), before["total"].as_u64().unwrap() + 3);
        // Each stands there twice now, but for its number.
        let told = |r: &Value| {
            let mut r = r.clone();
            for own in ["id", "has_photo", "moved", "left_out"] {
                r.as_object_mut().unwrap().remove(own);
            }
            // A per cent is kept as a share: its last digit may differ.
            for share in ["expected_spread_least_percent", "expected_spread_most_percent"] {
                r[share] = json!((r[share].as_f64().unwrap() * 1e9).round());
            }
            r.to_string()
        };
        let all: Vec<String> = after["records"].as_array().unwrap().iter().map(told).collect();
        for one in before["records"].as_array().unwrap() {
            let alike = all.iter().filter(|a| **a == told(one)).count();
            assert!(alike >= 2, "{format}: {one}");
        }
    }
    // What is wrong is told by line, and nothing of the file is kept.
    let total = get(&store, "/api/book").await["total"].clone();
    for (file, place) in [
        ("widths_mm\n97", "file"),
        ("widths_mm,edge_colour\n97,golden\nwide,golden", "line 3, widths_mm"),
        ("widths_mm,edge_colour\n97,blue", "line 2, edge_colour"),
        ("widths_mm,edge_colour,baked_min\n97,golden,11\n97,golden,500", "[1].baked_min"),
        ("widths_mm,edge_colour", "file"),
        ("widths_mm,edge_colour,recorded_at\n97,golden,noon", "[0].recorded_at"),
    ] {
        let (status, problem) = text(&store, "/api/jobs/1/records/read?format=csv", file).await;
        assert_eq!(
            (status, field_messages(&problem)[0].0.as_str()),
            (StatusCode::UNPROCESSABLE_ENTITY, place),
            "{problem}"
        );
    }
    assert_eq!(get(&store, "/api/book").await["total"], total);
    // A table of one's own, with a comma as the point.
    let own = "Edge_Colour;Widths_mm;Baked_min\nJust golden;97,5 98;11,5\n";
    assert_eq!(text(&store, "/api/jobs/1/records/read?format=csv", own).await.1["added"], 1);
    let newest = get(&store, "/api/book").await["records"][0].clone();
    assert_eq!((&newest["widths_mm"], &newest["baked_min"]), (&json!([97.5, 98.0]), &json!(11.5)));
}

#[actix_web::test]
async fn what_a_calliper_wrote_is_read_in_its_own_unit() {
    let (_dir, store) = demo().await;
    for (file, widths, thick) in [
        ("68.2\n68.9\n", json!([68.2, 68.9]), json!([])),
        ("width;thickness\n68,2;7,1\n68,9;7,0\n", json!([68.2, 68.9]), json!([7.1, 7.0])),
        ("No,Width (in),Note\n1,2.5,first\n", json!([63.5]), json!([])),
        ("68.2 mm,7.1 mm\n", json!([68.2]), json!([7.1])),
    ] {
        let (status, read) = text(&store, "/api/callipers", file).await;
        assert_eq!((status, &read["widths_mm"], &read["thicknesses_mm"]), (StatusCode::OK, &widths, &thick), "{file}");
    }
    for (file, place) in [("", "file"), ("68.2\nwide\n", "line 2")] {
        let (status, problem) = text(&store, "/api/callipers", file).await;
        assert_eq!(
            (status, field_messages(&problem)[0].0.as_str()),
            (StatusCode::UNPROCESSABLE_ENTITY, place),
            "{file}"
        );
    }
}

#[actix_web::test]
async fn the_ticket_says_what_is_most_worth_measuring_next() {
    let (_dir, store) = demo().await;
    let says = async |job: i64| {
        get(&store, &format!("/api/jobs/{job}/worth-measuring")).await["text"].as_str().unwrap().to_owned()
    };
    get(&store, "/api/jobs/1/bakes-teach").await;
    assert!(!says(1).await.contains("learnt"), "{}", says(1).await);
    assert!(says(2).await.starts_with("Measure some cookies of one tray"), "{}", says(2).await);
}
