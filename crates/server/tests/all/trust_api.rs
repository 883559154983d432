//! Edits from several hands, facts of the day and the kitchen's clock, over HTTP.

use crate::bakery::{call, demo, field_messages, from_page, get, send};
use actix_web::dev::Service;
use actix_web::http::{Method, StatusCode};
use actix_web::test::{TestRequest, init_service, read_body};
use ready_slab_server::app::application;
use ready_slab_server::bakeries::Bakeries;
use ready_slab_server::guard::AllowedHosts;
use ready_slab_store::Store;
use serde_json::{Value, json};

async fn change(store: &Store, path: &str, revision: Option<i64>, patch: Value) -> (StatusCode, Value) {
    let request = from_page(Method::PATCH, path).set_payload(patch.to_string());
    let request = match revision {
        Some(revision) => request.insert_header(("if-match", format!("\"{revision}\""))),
        None => request,
    };
    let (status, _, body) = send(store, request).await;
    (status, serde_json::from_slice(&body).unwrap())
}

#[actix_web::test]
async fn two_who_change_different_fields_both_keep_theirs() {
    let (_dir, store) = demo().await;
    let revision = get(&store, "/api/jobs/1").await["revision"].as_i64();
    let (first, _) = change(&store, "/api/jobs/1", revision, json!({"pieces": 60})).await;
    let (second, job) = change(&store, "/api/jobs/1", revision, json!({"thickness_mm": 8.0})).await;
    assert_eq!((first, second), (StatusCode::OK, StatusCode::OK));
    assert_eq!((job["pieces"].as_i64(), job["thickness_mm"].as_f64()), (Some(60), Some(8.0)));
    let kitchen = get(&store, "/api/kitchen").await["revision"].as_i64();
    change(&store, "/api/kitchen", kitchen, json!({"room_c": 25.0})).await;
    let (status, body) = change(&store, "/api/kitchen", kitchen, json!({"fridge_c": 3.0})).await;
    assert_eq!((status, body["room_c"].as_f64(), body["fridge_c"].as_f64()), (StatusCode::OK, Some(25.0), Some(3.0)));
}

#[actix_web::test]
async fn the_later_of_two_who_change_one_field_is_told_what_the_other_did() {
    let (_dir, store) = demo().await;
    let before = get(&store, "/api/jobs/1").await;
    let revision = before["revision"].as_i64();
    change(&store, "/api/jobs/1", revision, json!({"pieces": 60, "name": "Regatta, all of it"})).await;
    let (status, said) = change(&store, "/api/jobs/1", revision, json!({"pieces": 72})).await;
    assert_eq!(status, StatusCode::PRECONDITION_FAILED);
    assert_eq!((said["errors"][0]["field"].as_str(), said["current"]["pieces"].as_i64()), (Some("pieces"), Some(60)));
    let message = said["errors"][0]["message"].as_str().unwrap();
    assert_eq!(message, format!("Now 60; it was {} when you changed it.", before["pieces"]));
    // Nothing of a refused change is kept, and with the revision that was told it goes through.
    assert_eq!(get(&store, "/api/jobs/1").await["pieces"], 60);
    let (status, job) = change(&store, "/api/jobs/1", said["revision"].as_i64(), json!({"pieces": 72})).await;
    assert_eq!((status, job["pieces"].as_i64()), (StatusCode::OK, Some(72)));
    let (status, _) = change(&store, "/api/jobs/1", Some(-4), json!({"pieces": 12})).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
}

#[actix_web::test]
async fn a_formula_changed_on_two_devices_is_asked_about_and_the_answer_carries_its_tag() {
    let (_dir, store) = demo().await;
    let before = get(&store, "/api/formulas").await[0].clone();
    let path = format!("/api/formulas/{}", before["id"]);
    let put = async |name: &str, grams: f64| {
        let mut lines = before["lines"].clone();
        lines[0]["grams"] = json!(grams);
        let body = json!({"name": name, "lines": lines});
        let request = from_page(Method::PUT, &path)
            .set_payload(body.to_string())
            .insert_header(("if-match", format!("\"{}\"", before["revision"])));
        let (status, _, body) = send(&store, request).await;
        (status, serde_json::from_slice::<Value>(&body).unwrap())
    };
    let grams = before["lines"][0]["grams"].as_f64().unwrap();
    let name = before["name"].as_str().unwrap();
    assert_eq!(put(name, grams + 10.0).await.0, StatusCode::OK);
    // Only the name is changed here: the lines that the other changed stay as they are now.
    let (status, both) = put("Renamed", grams).await;
    assert_eq!((status, both["lines"][0]["grams"].as_f64()), (StatusCode::OK, Some(grams + 10.0)), "{both}");
    assert_eq!(put(name, grams + 20.0).await.0, StatusCode::PRECONDITION_FAILED);
}

#[actix_web::test]
async fn of_twenty_who_write_twenty_fields_ten_times_nothing_is_lost() {
    let (_dir, store) = demo().await;
    let app = init_service(application(Bakeries::new(store.clone(), None), AllowedHosts::default())).await;
    let fields = [
        ("/api/jobs/1", "pieces", 30.0),
        ("/api/jobs/1", "thickness_mm", 4.0),
        ("/api/jobs/1", "web_mm", 2.0),
        ("/api/jobs/1", "edge_mm", 3.0),
        ("/api/jobs/1", "reserve_percent", 1.0),
        ("/api/jobs/1", "oven_c", 160.0),
        ("/api/jobs/1", "disc_mm", 20.0),
        ("/api/jobs/1", "hold_back_percent", 1.0),
        ("/api/jobs/1", "dough_c", 15.0),
        ("/api/jobs/1", "goes_in_c", 4.0),
        ("/api/kitchen", "room_c", 15.0),
        ("/api/kitchen", "fridge_c", 1.0),
        ("/api/kitchen", "freezer_c", -30.0),
        ("/api/kitchen", "preheat_min", 10.0),
        ("/api/kitchen", "roll_min", 1.0),
        ("/api/kitchen", "cut_s", 2.0),
        ("/api/kitchen", "altitude_m", 10.0),
        ("/api/kitchen", "mixer_limit_g", 900.0),
        ("/api/kitchen", "door_dip_k", 5.0),
        ("/api/kitchen", "scale_step_g", 1.0),
    ];
    // Each writer starts from the state that all of them saw first and never reads again.
    let (job, kitchen) = (get(&store, "/api/jobs/1").await, get(&store, "/api/kitchen").await);
    let writers = fields.iter().map(|&(path, field, first)| {
        let (app, job, kitchen) = (&app, &job, &kitchen);
        async move {
            let mut revision = if path.contains("jobs") { job } else { kitchen }["revision"].as_i64().unwrap();
            let mut answered = 0;
            for step in 1..=10 {
                let wanted = first + f64::from(step) * 0.5;
                let wanted = if field == "pieces" { json!(30 + step) } else { json!(wanted) };
                let request = TestRequest::patch()
                    .uri(path)
                    .insert_header(("host", "localhost"))
                    .insert_header(("if-match", format!("\"{revision}\"")))
                    .set_payload(json!({ field: wanted }).to_string());
                let response = app.call(request.to_request()).await.unwrap();
                assert_eq!(response.status(), StatusCode::OK, "{field} {step}");
                let body: Value = serde_json::from_slice(&read_body(response).await).unwrap();
                assert_eq!(body[field], wanted, "{field} is in the answer as it was written");
                revision = body["revision"].as_i64().unwrap();
                answered += 1;
            }
            answered
        }
    });
    let answered: Vec<i32> = futures_util::future::join_all(writers).await;
    assert_eq!(answered.iter().sum::<i32>(), 200);
    let (job, kitchen) = (get(&store, "/api/jobs/1").await, get(&store, "/api/kitchen").await);
    for (path, field, first) in fields {
        let kept = if path.contains("jobs") { &job } else { &kitchen };
        let last = if field == "pieces" { 40.0 } else { first + 5.0 };
        assert_eq!(kept[field].as_f64(), Some(last), "{field}");
    }
}

#[actix_web::test]
async fn a_job_that_is_deleted_while_others_write_stays_deleted() {
    let (_dir, store) = demo().await;
    let app = init_service(application(Bakeries::new(store.clone(), None), AllowedHosts::default())).await;
    let id =
        call(&store, Method::POST, "/api/jobs/1/lots", Some(json!({"name": "More gulls", "pieces": 4}))).await.1["id"]
            .clone();
    let path = format!("/api/jobs/{id}");
    let call = |method: Method, body: Value| {
        let request = TestRequest::default()
            .method(method)
            .uri(&path)
            .insert_header(("host", "localhost"))
            .set_payload(body.to_string())
            .to_request();
        let answer = app.call(request);
        async move { answer.await.unwrap().status() }
    };
    let writers = (1..20).map(|n| call(Method::PATCH, json!({"pieces": n})));
    let (gone, _) =
        futures_util::future::join(call(Method::DELETE, json!(null)), futures_util::future::join_all(writers)).await;
    assert_eq!(gone, StatusCode::NO_CONTENT);
    assert_eq!(call(Method::GET, json!(null)).await, StatusCode::NOT_FOUND);
}

fn bake(minutes: f64) -> Value {
    json!({"widths_mm": [66.0, 66.5], "baked_min": minutes, "edge_colour": "just_golden",
           "conditions": {"oven_c": 165.0, "oven_fan": false, "tray_kind": "steel", "liner": "foil", "start_c": 8.0}})
}

#[actix_web::test]
async fn a_bake_is_learnt_from_as_it_was_baked_whatever_is_changed_afterwards() {
    let (_dir, store) = demo().await;
    // A job of its own, since the demo's first has bakes already.
    let (status, kept) = call(&store, Method::POST, "/api/jobs/2/records", Some(bake(13.0))).await;
    assert_eq!(status, StatusCode::OK, "{kept}");
    assert_eq!((kept["complete"].as_bool(), kept["conditions"]["liner"].as_str()), (Some(true), Some("foil")));
    assert_eq!(
        (kept["conditions"]["oven_c"].as_f64(), kept["conditions"]["start_c"].as_f64()),
        (Some(165.0), Some(8.0))
    );
    let taught = get(&store, "/api/jobs/2/bakes-teach").await["taught"].clone();
    // Another heat, another tray, another dough tomorrow: what the bake of today taught is the same.
    change(
        &store,
        "/api/jobs/2",
        None,
        json!({"oven_c": 200.0, "liner": "bare", "bake_end": "brown", "thickness_mm": 9.0}),
    )
    .await;
    change(&store, "/api/kitchen", None, json!({"oven_fan": true, "tray_kind": "aluminium", "altitude_m": 900.0}))
        .await;
    // Learnt anew, it teaches the same.
    for left_out in [true, false] {
        let body = json!({ "left_out": left_out });
        call(&store, Method::PUT, &format!("/api/records/{}/left-out", kept["id"]), Some(body)).await;
    }
    assert_eq!(get(&store, "/api/jobs/2/bakes-teach").await["taught"], taught);
    // And it still teaches when its job is gone: another job of its formula learns it.
    let other = get(&store, "/api/jobs/2").await;
    let mut again: serde_json::Map<String, Value> = other.as_object().unwrap().clone();
    for field in ["id", "revision", "sheet_key"] {
        again.remove(field);
    }
    again.insert("name".into(), json!("Once more"));
    again.insert("formula_version".into(), Value::Null);
    let id = call(&store, Method::POST, "/api/jobs", Some(Value::Object(again))).await.1["id"].clone();
    call(&store, Method::DELETE, "/api/jobs/2", None).await;
    assert_eq!(get(&store, &format!("/api/jobs/{id}/bakes-teach")).await["taught"], taught);
}

#[actix_web::test]
async fn conditions_that_no_oven_has_are_refused_by_their_field() {
    let (_dir, store) = demo().await;
    let mut hot = bake(10.0);
    hot["conditions"]["oven_c"] = json!(375.0);
    let (status, said) = call(&store, Method::POST, "/api/jobs/1/records", Some(hot)).await;
    assert_eq!((status, field_messages(&said)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "conditions.oven_c"));
}

#[actix_web::test]
async fn a_job_read_back_is_one_edit_and_a_second_ingredient_of_one_name_is_not_doubled() {
    let (_dir, store) = demo().await;
    let mut file = get(&store, "/api/jobs/1/export").await;
    let body = json!({"name": "Kelp butter", "kind": "fat", "fat_kind": "butter", "source": "the wrapper",
        "analysis": {"water_g": 15, "fat_g": 84, "protein_g": 1, "carbohydrate_g": 0, "sugars_g": 0, "fibre_g": 0, "ash_g": 0}});
    file["ingredients"] = json!([{"key": "own-91", "ingredient": body}, {"key": "own-92", "ingredient": body}]);
    let lines = file["formula"]["lines"].as_array_mut().unwrap();
    lines.push(json!({"ingredient": "own-91", "grams": 3.0}));
    lines.push(json!({"ingredient": "own-92", "grams": 2.0}));
    let jobs = get(&store, "/api/jobs").await["jobs"].as_array().unwrap().len();
    let (status, read) = call(&store, Method::POST, "/api/jobs/read-back", Some(file)).await;
    assert_eq!(status, StatusCode::OK, "{read}");
    let own = async || {
        let all = get(&store, "/api/ingredients").await;
        all.as_array().unwrap().iter().filter(|i| i["name"] == "Kelp butter").count()
    };
    assert_eq!(own().await, 1);
    let (_, undone) = call(&store, Method::POST, "/api/undo", None).await;
    assert!(undone["edit"]["label"]["text"].as_str().is_some_and(|l| l.ends_with("imported")), "{undone}");
    assert_eq!(
        (own().await, get(&store, "/api/jobs").await["jobs"].as_array().unwrap().len()),
        (0, jobs),
        "one undo takes all of it back"
    );
}

#[actix_web::test]
async fn times_follow_the_kitchens_zone_across_the_change_of_the_clocks() {
    let (_dir, store) = demo().await;
    change(&store, "/api/kitchen", None, json!({"zone": "America/New_York"})).await;
    // 1 November 2026: 2:00 comes back as 1:00 (IANA). A job wanted at 2:30 that day began an hour later by the wall.
    change(&store, "/api/jobs/1", None, json!({"ready_by": "2026-11-02T02:30"})).await;
    let usual = get(&store, "/api/jobs/1/plan").await;
    change(&store, "/api/jobs/1", None, json!({"ready_by": "2026-11-01T02:30"})).await;
    let across = get(&store, "/api/jobs/1/plan").await;
    assert_eq!(usual["clock"]["total_min"], across["clock"]["total_min"], "real minutes");
    assert!(usual["clock"]["total_min"].as_i64().unwrap() > 90, "the start lies before the change");
    let hour = |plan: &Value| {
        let text = plan["clock"]["start_at"].as_str().unwrap();
        let time = chrono::NaiveDateTime::parse_from_str(text, "%Y-%m-%dT%H:%M").unwrap();
        time.time()
    };
    assert_eq!((hour(&across) - hour(&usual)).num_minutes().rem_euclid(1440), 60);
    assert!(
        across["clock"]["warnings"].to_string().contains("clocks change on November 1, 2:00 to 1:00"),
        "{}",
        across["clock"]["warnings"]
    );
    assert_eq!(
        (across["zone"].as_str(), across["ready_utc"].as_str()),
        (Some("America/New_York"), Some("2026-11-01T07:30:00Z"))
    );
    let (status, said) = change(&store, "/api/jobs/1", None, json!({"ready_by": "2027-03-14T02:30"})).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(said["errors"][0]["message"].as_str().unwrap().contains("There is no 2:30 on March 14, 2027"), "{said}");
    let (status, _) = change(&store, "/api/kitchen", None, json!({"zone": "Harbour/Tern_Street"})).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
}

#[actix_web::test]
async fn labels_of_edits_keep_the_letters_people_wrote() {
    let (_dir, store) = demo().await;
    change(&store, "/api/jobs/1", None, json!({"name": "Tea Tray for Tern_Street"})).await;
    let label = get(&store, "/api/history").await["undo"]["label"]["text"].clone();
    assert!(label.as_str().unwrap().ends_with("\u{201c}Tea Tray for Tern_Street\u{201d}"), "{label}");
    change(&store, "/api/jobs/1", None, json!({"ready_by": "2026-12-05T14:00"})).await;
    let label = get(&store, "/api/history").await["undo"]["label"]["text"].clone();
    assert!(label.as_str().unwrap().ends_with("to Sat, Dec 5, 14:00"), "{label}");
}

#[actix_web::test]
async fn readings_of_a_stand_in_teach_no_real_fridge() {
    let dir = tempfile::tempdir().unwrap();
    let store = Store::open(&dir.path().join("bakery.db")).await.unwrap();
    ready_slab_server::demo::ensure_kitchen(&store).await.unwrap();
    let body = json!({"dough": {"kind": "starter", "starter": "holds-its-shape"}, "shape": {"kind": "builtin", "form": "round", "width_mm": 60}});
    let job = call(&store, Method::POST, "/api/jobs/new", Some(body)).await.1["id"].clone();
    let piece = call(&store, Method::POST, &format!("/api/jobs/{job}/chills"), Some(json!({"name": "Mix 1"}))).await.1
        ["id"]
        .clone();
    let reading = |simulated: bool| json!([{"shows_c": 19.0, "spot": "core", "simulated": simulated}]);
    let path = format!("/api/chills/{piece}/readings");
    call(&store, Method::POST, &path, Some(reading(true))).await;
    let (status, said) = call(&store, Method::POST, &format!("/api/chills/{piece}/teach"), None).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert!(said["errors"][0]["message"].as_str().unwrap().contains("simulated thermometer"), "{said}");
    let kept = get(&store, &format!("/api/chills/{piece}")).await["readings"][0].clone();
    assert_eq!(kept["simulated"], true, "{kept}");
    call(&store, Method::DELETE, &format!("/api/readings/{}", kept["id"]), None).await;
    call(&store, Method::POST, &path, Some(reading(false))).await;
    let (status, said) = call(&store, Method::POST, &format!("/api/chills/{piece}/teach"), None).await;
    assert_eq!(status, StatusCode::OK, "{said}");
}

#[actix_web::test]
async fn portions_put_into_the_cold_are_followed_for_what_the_plan_chills_them() {
    let (_dir, store) = demo().await;
    for (making, purpose) in [
        (json!({"kind": "ball", "mass_g": 20.0}), "oven"),
        (json!({"kind": "rope", "across_mm": 12.0, "length_mm": 90.0}), "oven"),
        (json!({"kind": "sliced", "form": "round", "width_mm": 50.0}), "slicing"),
        (json!({"kind": "cut"}), "rolling"),
    ] {
        let (status, said) = change(&store, "/api/jobs/1", None, json!({"making": making})).await;
        assert_eq!(status, StatusCode::OK, "{making}: {said}");
        let (status, piece) = call(&store, Method::POST, "/api/jobs/1/chills", Some(json!({"name": "1"}))).await;
        assert_eq!((status, piece["purpose"].as_str()), (StatusCode::OK, Some(purpose)), "{making}: {piece}");
    }
}

#[actix_web::test]
async fn dough_that_has_lain_in_the_freezer_for_months_does_not_stop_the_board() {
    let (_dir, store) = demo().await;
    let long_ago = (chrono::Utc::now() - chrono::Days::new(90)).format("%Y-%m-%dT%H:%M:%SZ").to_string();
    let body = json!({"name": "Frozen log", "place": "freezer", "put_in_at": long_ago});
    let (status, piece) = call(&store, Method::POST, "/api/jobs/1/chills", Some(body)).await;
    assert_eq!(status, StatusCode::OK, "{piece}");
    let path = format!("/api/chills/{}/move", piece["id"]);
    let (status, moved) = call(&store, Method::POST, &path, Some(json!({"place": "bench"}))).await;
    assert_eq!(status, StatusCode::OK, "{moved}");
    assert!(
        moved["now"]["core_c"].as_f64().unwrap() < -17.0,
        "as cold as the freezer when it came out: {}",
        moved["now"]
    );
    let (status, fresh) = call(&store, Method::POST, "/api/jobs/1/chills", Some(json!({"name": "Today"}))).await;
    assert_eq!(status, StatusCode::OK, "{fresh}");
    assert_eq!(get(&store, "/api/jobs/1/chills").await.as_array().unwrap().len(), 2);
}
