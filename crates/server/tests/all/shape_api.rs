//! Logs and patterned bars through the API.

use crate::bakery::{call, demo, field_messages, from_page, get, send};
use actix_web::http::{Method, StatusCode};
use ready_slab_store::Store;
use serde_json::{Value, json};

#[actix_web::test]
async fn a_log_is_solved_for_what_is_not_given_and_divided_by_the_shelf() {
    let (_dir, store) = demo().await;
    let log = get(&store, "/api/jobs/1/log?form=round&mass_g=450&width_mm=48&slice_mm=6").await;
    let slices = log["slices"].as_u64().unwrap();
    assert_eq!(log["cuts_mm"].as_array().unwrap().len() as u64, slices + 1);
    assert_eq!((log["logs"].as_u64(), log["turn_every_min"].as_f64()), (Some(1), Some(15.0)));
    // The same log, asked from its length.
    let length = log["length_mm"].as_f64().unwrap();
    let again = get(&store, &format!("/api/jobs/1/log?form=round&length_mm={length}&width_mm=48&slice_mm=6")).await;
    assert!((again["mass_g"].as_f64().unwrap() - 450.0).abs() < 1e-6);
    let long = get(&store, "/api/jobs/1/log?form=oblong&height_to_width=0.5&mass_g=3000&width_mm=60&slice_mm=6").await;
    assert!(long["logs"].as_u64().unwrap() > 1);
    assert!((long["log_g"].as_f64().unwrap() * long["logs"].as_f64().unwrap() - 3000.0).abs() < 1e-6);
    for (query, field) in [
        ("form=round&mass_g=450&width_mm=48", "given"),
        ("form=round&mass_g=450&width_mm=3&slice_mm=6", "width_mm"),
        ("form=wedge&height_to_width=99&mass_g=450&width_mm=48&slice_mm=6", "height_to_width"),
    ] {
        let (status, problem) = call(&store, Method::GET, &format!("/api/jobs/1/log?{query}"), None).await;
        assert_eq!(
            (status, field_messages(&problem)[0].0.as_str()),
            (StatusCode::UNPROCESSABLE_ENTITY, field),
            "{query}"
        );
    }
    assert!(call(&store, Method::GET, "/api/jobs/1/log?form=star", None).await.0.is_client_error());
}

#[actix_web::test]
async fn a_patterned_bar_names_its_parts_and_steps() {
    let (_dir, store) = demo().await;
    for pattern in ["checkerboard", "pinwheel", "bullseye", "stripes"] {
        let bar = get(&store, &format!("/api/jobs/1/pattern?pattern={pattern}&length_mm=200")).await;
        let parts = bar["parts"].as_array().unwrap();
        assert_eq!((parts.len(), &parts[0]["dough"], &parts[1]["dough"]), (2, &"first".into(), &"second".into()));
        assert!(bar["steps"].as_array().unwrap().len() >= 3, "{pattern}");
        // What is not said is as usual, and told.
        let plain = get(&store, &format!("/api/jobs/1/pattern?pattern={pattern}")).await;
        assert_eq!(plain, bar);
        assert_eq!(plain["sizes"]["length_mm"], 200.0);
    }
    let (status, problem) = call(&store, Method::GET, "/api/jobs/1/pattern?pattern=stripes&length_mm=9", None).await;
    assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "length_mm"));
}

/// What a stream of server-sent events said, in order.
fn events(body: &[u8]) -> Vec<(String, Value)> {
    String::from_utf8(body.to_vec())
        .unwrap()
        .split("\n\n")
        .filter(|e| !e.is_empty())
        .map(|e| {
            let (name, data) = e.split_once('\n').unwrap();
            let data = serde_json::from_str(data.strip_prefix("data: ").unwrap()).unwrap();
            (name.strip_prefix("event: ").unwrap().to_owned(), data)
        })
        .collect()
}

async fn nest(store: &Store, job: i64, body: Value) -> Vec<(String, Value)> {
    let request = from_page(Method::POST, &format!("/api/jobs/{job}/nest"))
        .set_payload(body.to_string())
        .insert_header(("content-type", "application/json"));
    let (status, kind, body) = send(store, request).await;
    assert_eq!((status, kind.as_str()), (StatusCode::OK, "text/event-stream"));
    events(&body)
}

#[actix_web::test]
async fn a_sheet_is_nested_live_kept_and_the_dough_follows() {
    let (_dir, store) = demo().await;
    let plan = get(&store, "/api/jobs/3/plan").await;
    let roll = &plan["shape"]["rolls"][0];
    let (width, length) = (roll["width_mm"].as_f64().unwrap(), roll["length_mm"].as_f64().unwrap());
    let rows = roll["cuts"].as_array().unwrap().len();
    let body = json!({ "width_mm": width, "length_mm": length, "pieces": rows, "seconds": 5, "seed": 1 });
    let said = nest(&store, 3, body).await;
    assert_eq!((said[0].0.as_str(), said.last().unwrap().0.as_str()), ("layout", "done"));
    let layouts: Vec<&Value> = said.iter().filter(|(n, _)| n == "layout").map(|(_, d)| d).collect();
    let used = |v: &Value| v["used_mm"].as_f64().unwrap();
    let last = layouts.last().unwrap();
    assert!(layouts.windows(2).all(|w| used(w[1]) < used(w[0])), "each is better than the one before");
    assert!(last["least_gap_mm"].as_f64().unwrap() >= 2.95 && last["cuts"].as_array().unwrap().len() == rows);
    assert_eq!(plan["shape"]["rolls"][0]["nested"], false);
    // Kept, the plan goes by it and needs no more dough; undone, it is as it was.
    let kept = call(&store, Method::PATCH, "/api/jobs/3", Some(json!({ "layout": last["cuts"] }))).await;
    assert_eq!(kept.0, StatusCode::OK, "{}", kept.1);
    let after = get(&store, "/api/jobs/3/plan").await;
    let dough = |p: &Value| p["dough"]["dough_g"].as_f64().unwrap();
    assert!(dough(&after) <= dough(&plan));
    let nested = after["shape"]["rolls"].as_array().unwrap().iter().any(|r| r["nested"] == true);
    assert!(nested || used(last) >= length - 1e-6, "{}", after["shape"]["rolls"]);
    call(&store, Method::POST, "/api/undo", None).await;
    assert_eq!(get(&store, "/api/jobs/3/plan").await, plan);
}

#[actix_web::test]
async fn a_layout_that_no_longer_fits_is_named_and_rows_are_used() {
    let (_dir, store) = demo().await;
    let layout =
        json!([{ "x_mm": 60.0, "y_mm": 60.0, "turn_deg": 0.0 }, { "x_mm": 61.0, "y_mm": 60.0, "turn_deg": 0.0 }]);
    call(&store, Method::PATCH, "/api/jobs/1", Some(json!({ "layout": layout }))).await;
    let plan = get(&store, "/api/jobs/1/plan").await;
    let reasons = plan["shape"]["warnings"].to_string();
    assert!(reasons.contains("can’t be used") && reasons.contains("2 cookies are closer than the gap"), "{reasons}");
    assert_eq!(plan["shape"]["rolls"][0]["nested"], false);
    let far = json!({ "layout": [{ "x_mm": 1e9, "y_mm": 0.0, "turn_deg": 0.0 }] });
    let (status, problem) = call(&store, Method::PATCH, "/api/jobs/1", Some(far)).await;
    assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "layout[0]"));
}

#[actix_web::test]
async fn held_pieces_stay_and_a_hand_s_pieces_are_measured() {
    let (_dir, store) = demo().await;
    let held = json!({ "x_mm": 150.0, "y_mm": 130.0, "turn_deg": 33.0 });
    let body = json!({ "width_mm": 310, "length_mm": 300, "held": [held], "seconds": 0.4 });
    for (name, layout) in nest(&store, 3, body).await {
        if name == "layout" {
            assert!(layout["cuts"].as_array().unwrap().contains(&held));
        }
    }
    let pieces = json!([held, { "x_mm": 155.0, "y_mm": 130.0, "turn_deg": 33.0 }, { "x_mm": 2.0, "y_mm": 250.0, "turn_deg": 0.0 }]);
    let body = json!({ "width_mm": 310, "length_mm": 300, "pieces": pieces });
    let (_, gaps) = call(&store, Method::POST, "/api/jobs/3/nest/measure", Some(body)).await;
    assert_eq!((&gaps[0]["too_near"], &gaps[0]["over_rim"]), (&json!([1]), &json!(false)));
    assert_eq!(gaps[2]["over_rim"], true);
}

#[actix_web::test]
async fn what_cannot_be_nested_is_refused_with_what_would_be_accepted() {
    let (_dir, store) = demo().await;
    for (body, field) in [
        (json!({ "width_mm": 50, "length_mm": 50 }), "cutters[0]"),
        (json!({ "width_mm": 5, "length_mm": 300 }), "width_mm"),
        (json!({ "width_mm": 310, "length_mm": 300, "seconds": 1e9 }), "seconds"),
        (json!({ "width_mm": 310, "length_mm": 300, "pieces": 0 }), "pieces"),
        (json!({ "width_mm": 310, "length_mm": 300, "web_mm": 0 }), "web_mm"),
        (json!({ "width_mm": 310, "length_mm": 300, "held": [{ "x_mm": 0, "y_mm": 0, "turn_deg": 0 }] }), "held[0]"),
        (
            json!({ "width_mm": 310, "length_mm": 300, "held": [{ "x_mm": 0, "y_mm": 0, "turn_deg": 0 }, { "x_mm": 0, "y_mm": 0, "turn_deg": "a" }] }),
            "held[1].turn_deg",
        ),
    ] {
        let (status, problem) = call(&store, Method::POST, "/api/jobs/1/nest", Some(body.clone())).await;
        assert_eq!(
            (status, field_messages(&problem)[0].0.as_str()),
            (StatusCode::UNPROCESSABLE_ENTITY, field),
            "{body}"
        );
    }
    let (status, problem) = call(&store, Method::PATCH, "/api/jobs/1", Some(json!({ "web_mm": 0 }))).await;
    assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "web_mm"));
    // Ten thousand pieces are laid in rows as far as they go, and the rest is counted.
    let said = nest(&store, 1, json!({ "width_mm": 310, "length_mm": 440, "pieces": 10_000, "seconds": 0.2 })).await;
    let cuts = said[0].1["cuts"].as_array().unwrap().len() as u64;
    assert_eq!(cuts + said[0].1["missing"][0].as_u64().unwrap(), 10_000);
}

/// Numbers of a PDF that is not packed, as a reader would measure them.
mod measured {
    use regex_lite::Regex;

    pub fn page_boxes_mm(pdf: &str) -> Vec<(f64, f64)> {
        let found = Regex::new(r"/MediaBox \[0 0 ([\d.]+) ([\d.]+)\]").unwrap();
        found.captures_iter(pdf).map(|c| (mm(&c[1]), mm(&c[2]))).collect()
    }

    fn mm(points: &str) -> f64 {
        points.parse::<f64>().unwrap() * 25.4 / 72.0
    }

    /// Lengths of the level lines of a page.
    pub fn level_lines_mm(page: &str) -> Vec<f64> {
        let found = Regex::new(r"([\d.]+) ([\d.]+) m\n([\d.]+) ([\d.]+) l\nS").unwrap();
        found.captures_iter(page).filter(|c| c[2] == c[4]).map(|c| (mm(&c[3]) - mm(&c[1])).abs()).collect()
    }

    /// How far the corners of the closed outlines spread over a page.
    pub fn outline_extents_mm(page: &str) -> Vec<(f64, f64)> {
        let corner = Regex::new(r"(-?[\d.]+) (-?[\d.]+) [ml]\n").unwrap();
        page.split("\ns\n")
            .filter_map(|part| part.rfind(" m\n").map(|m| &part[part[..m].rfind('\n').map_or(0, |n| n + 1)..]))
            .filter(|path| path.matches(" l").count() > 4)
            .map(|path| {
                let path = format!("{path}\n");
                let corners: Vec<(f64, f64)> = corner.captures_iter(&path).map(|c| (mm(&c[1]), mm(&c[2]))).collect();
                let spread = |f: fn(&(f64, f64)) -> f64| {
                    let (low, high) =
                        corners.iter().map(f).fold((f64::MAX, f64::MIN), |(l, h), v| (l.min(v), h.max(v)));
                    high - low
                };
                (spread(|p| p.0), spread(|p| p.1))
            })
            .collect()
    }
}

#[actix_web::test]
async fn the_printed_template_has_true_size_pages_and_a_line_of_a_hundred_millimetres_on_each() {
    let (_dir, store) = demo().await;
    // ISO 216 and ANSI size A, to a tenth of a millimetre.
    for (paper, width, height) in [("a4", 210.0, 297.0), ("letter", 215.9, 279.4)] {
        let request = from_page(Method::GET, &format!("/api/jobs/1/template.pdf?paper={paper}"));
        let (status, kind, body) = send(&store, request).await;
        assert_eq!((status, kind.as_str()), (StatusCode::OK, "application/pdf"));
        let pdf: String = body.iter().map(|b| char::from(*b)).collect();
        let boxes = measured::page_boxes_mm(&pdf);
        assert_eq!(boxes.len(), 4, "a sheet of 310 mm by about 306 takes two pages each way");
        assert!(boxes.iter().all(|b| (b.0 - width).abs() < 0.1 && (b.1 - height).abs() < 0.1), "{boxes:?}");
        for page in pdf.split("endstream").take(4) {
            let lines = measured::level_lines_mm(page);
            assert!(lines.iter().any(|l| (l - 100.0).abs() < 0.05), "{lines:?}");
        }
        // A gull lying as drawn or turned by quarters is as wide as its cutter, in the file.
        let cutter = get(&store, "/api/jobs/1/plan").await["cutter"].clone();
        let (w, h) = (cutter["width_mm"].as_f64().unwrap(), cutter["height_mm"].as_f64().unwrap());
        let drawn = measured::outline_extents_mm(&pdf);
        assert!(drawn.len() >= 30);
        assert!(
            drawn.iter().all(|d| ((d.0 - w).abs() < 0.1 && (d.1 - h).abs() < 0.1)
                || ((d.0 - h).abs() < 0.1 && (d.1 - w).abs() < 0.1)),
            "{w} x {h}: {drawn:?}"
        );
    }
    let (status, kind, body) = send(&store, from_page(Method::GET, "/api/jobs/1/template.svg")).await;
    let svg = String::from_utf8(body).unwrap();
    assert_eq!((status, kind.as_str()), (StatusCode::OK, "image/svg+xml"));
    assert!(svg.contains("width=\"310.00mm\"") && svg.matches("<path").count() >= 30);
    let (status, problem) = call(&store, Method::GET, "/api/jobs/1/template.pdf?roll=9", None).await;
    assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "roll"));
}

#[actix_web::test]
async fn the_ruler_strip_of_a_log_is_printed_with_its_cuts_where_they_are() {
    let (_dir, store) = demo().await;
    let log = "form=round&mass_g=450&width_mm=48&slice_mm=6";
    let (status, _, body) = send(&store, from_page(Method::GET, &format!("/api/jobs/1/log/strip.pdf?{log}"))).await;
    assert_eq!(status, StatusCode::OK);
    let pdf: String = body.iter().map(|b| char::from(*b)).collect();
    let lines = measured::level_lines_mm(&pdf);
    let cuts = get(&store, &format!("/api/jobs/1/log?{log}")).await["cuts_mm"].as_array().unwrap().len();
    assert_eq!(lines.iter().filter(|l| (**l - 8.0).abs() < 0.05 || (**l - 14.0).abs() < 0.05).count(), cuts);
}

#[actix_web::test]
async fn portions_tell_how_many_how_large_and_when_they_are_firm() {
    let (_dir, store) = demo().await;
    for kind in ["ball", "scoop", "spoon", "rope", "pressed", "stamped", "thumbprint", "figure", "piped", "tray_bar"] {
        let found = get(&store, &format!("/api/jobs/1/portion?kind={kind}&batch_g=1000")).await;
        let (mass, pieces) = (found["mass_g"].as_f64().unwrap(), found["pieces"].as_f64().unwrap());
        assert!((mass * pieces + found["rest_g"].as_f64().unwrap() - 1000.0).abs() < 1e-6, "{kind}");
        let firm = |i: usize| found["firm"][i]["most_min"].as_f64().unwrap();
        assert!(firm(1) < firm(0), "{kind}: the freezer is quicker than the fridge");
    }
    // A thicker ball takes longer than a thinner one.
    let firm = async |g: u32| {
        get(&store, &format!("/api/jobs/1/portion?kind=ball&mass_g={g}")).await["firm"][0]["most_min"].as_f64().unwrap()
    };
    assert!(firm(60).await > firm(15).await);
    for (query, field) in
        [("kind=ball&mass_g=0.1", "mass_g"), ("kind=figure&parts=20,x", "parts"), ("kind=scoop&scoop=1", "scoop")]
    {
        let (status, problem) = call(&store, Method::GET, &format!("/api/jobs/1/portion?{query}"), None).await;
        assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, field));
    }
}

#[actix_web::test]
async fn a_bar_is_settled_by_its_height_and_its_ends_may_be_kept() {
    let (_dir, store) = demo().await;
    let bar = get(&store, "/api/jobs/1/log?form=oblong&mass_g=600&length_mm=250&width_mm=60").await;
    let ratio = bar["height_to_width"].as_f64().unwrap();
    assert!((bar["height_mm"].as_f64().unwrap() / 60.0 - ratio).abs() < 1e-9 && ratio < 0.7, "{bar}");
    // The slice is the job's where nothing is said of it.
    assert_eq!(bar["slice_mm"], 6.0);
    let of = async |more: &str| {
        get(&store, &format!("/api/jobs/1/log?form=round&length_mm=480&width_mm=45&slice_mm=6{more}")).await
    };
    let (trimmed, kept) = (of("").await, of("&ends_kept=true&longest_mm=500").await);
    assert_eq!((&trimmed["slices"], &kept["slices"], &kept["trim_mm"]), (&json!(78), &json!(80), &json!(0.0)));
    assert_eq!((&trimmed["logs"], &kept["logs"]), (&json!(2), &json!(1)));
    let (status, problem) = call(&store, Method::GET, "/api/jobs/1/log?form=round&longest_mm=900", None).await;
    assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "longest_mm"));
}

#[actix_web::test]
async fn scraps_of_two_jobs_are_marbled_and_both_are_on_the_label() {
    let (_dir, store) = demo().await;
    let found = get(&store, "/api/jobs/1/marbled?with=2&own_g=300&other_g=200").await;
    assert!((found["other_percent"].as_f64().unwrap() - 40.0).abs() < 1e-9);
    assert!(found["pieces"].as_u64().unwrap() > 3 && found["cuts"].as_array().unwrap().len() > 3, "{found}");
    let of = async |id: u32| get(&store, &format!("/api/jobs/{id}/plan")).await["dough"]["allergens"].clone();
    for named in of(1).await.as_array().unwrap().iter().chain(of(2).await.as_array().unwrap()) {
        assert!(found["allergens"].as_array().unwrap().contains(named), "{named}");
    }
    // Without masses it is what cutting leaves.
    let left = get(&store, "/api/jobs/1/plan").await["shape"]["left_g"].clone();
    let (status, usual) = call(&store, Method::GET, "/api/jobs/1/marbled?with=2", None).await;
    assert!(status == StatusCode::UNPROCESSABLE_ENTITY || usual["own_g"] == left, "{usual}");
    let (status, problem) = call(&store, Method::GET, "/api/jobs/1/marbled?with=2&own_g=1", None).await;
    assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "own_g"));
    assert_eq!(call(&store, Method::GET, "/api/jobs/1/marbled?with=999", None).await.0, StatusCode::NOT_FOUND);
}

#[actix_web::test]
async fn an_uneven_sheet_is_mapped_and_its_pieces_are_sent_to_two_trays() {
    let (_dir, store) = demo().await;
    assert_eq!(get(&store, "/api/jobs/1/evenness").await, Value::Null);
    let sheet = |read: Value| json!({ "measured": [{ "columns": 2, "rows": 2, "read_mm": read }] });
    let put = async |body: Value| call(&store, Method::PATCH, "/api/jobs/1", Some(body)).await;
    assert_eq!(put(sheet(json!([6.0, null, 4.2, 7.9]))).await.0, StatusCode::OK);
    let even = get(&store, "/api/jobs/1/evenness").await;
    assert_eq!(even["spots"], json!(["even", null, "thin", "thick"]));
    assert_eq!((even["least_mm"].as_f64(), even["most_mm"].as_f64()), (Some(4.2), Some(7.9)));
    let cells = even["map_cells"].as_u64().unwrap();
    assert_eq!(even["map_mm"].as_array().unwrap().len() as u64, cells * cells);
    assert!(even["thin_min"].as_f64() < even["thick_min"].as_f64());
    assert_eq!(even["one_tray"], false);
    // Within a tenth of a millimetre one tray will do.
    put(sheet(json!([6.0, 6.0, 5.9, 6.1]))).await;
    assert_eq!(get(&store, "/api/jobs/1/evenness").await["one_tray"], true);
    let (status, problem) = put(sheet(json!([6.0, 6.0, 5.9, 600]))).await;
    assert_eq!(
        (status, field_messages(&problem)[0].0.as_str()),
        (StatusCode::UNPROCESSABLE_ENTITY, "measured[0].read_mm[3]")
    );
    call(&store, Method::POST, "/api/undo", None).await;
    assert_eq!(get(&store, "/api/jobs/1/evenness").await["most_mm"], 7.9);
}

#[actix_web::test]
async fn a_tray_laid_by_hand_is_kept_and_measured_with_the_room_pieces_need() {
    let (_dir, store) = demo().await;
    let trays = get(&store, "/api/jobs/1/plan").await["shape"]["trays"].clone();
    let (gap, cuts) = (trays["gap_mm"].as_f64().unwrap(), trays["cuts"].as_array().unwrap().clone());
    assert_eq!(trays["nested"], false);
    let total: u64 = trays["sources"]
        .as_array()
        .unwrap()
        .iter()
        .flat_map(|s| s.as_array().unwrap())
        .map(|s| s["pieces"].as_u64().unwrap())
        .sum();
    assert_eq!(total, 48);
    let body = json!({
        "width_mm": trays["width_mm"], "length_mm": trays["length_mm"], "pieces": cuts,
        "tray": { "gap_mm": gap, "edge_mm": trays["edge_mm"] },
    });
    let (_, gaps) = call(&store, Method::POST, "/api/jobs/1/nest/measure", Some(body.clone())).await;
    assert!(gaps.as_array().unwrap().iter().all(|g| g["too_near"] == json!([]) && g["over_rim"] == false), "{gaps}");
    call(&store, Method::PATCH, "/api/jobs/1", Some(json!({ "tray_layout": cuts[1..] }))).await;
    let kept = get(&store, "/api/jobs/1/plan").await["shape"]["trays"].clone();
    assert_eq!((&kept["nested"], kept["cuts"].as_array().unwrap().len()), (&json!(true), cuts.len() - 1));
    let mut narrow = body;
    narrow["tray"]["gap_mm"] = json!(2);
    let (status, problem) = call(&store, Method::POST, "/api/jobs/1/nest/measure", Some(narrow)).await;
    assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "gap_mm"));
}
