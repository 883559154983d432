//! Logs and patterned bars through the API.

mod bakery;

use actix_web::http::{Method, StatusCode};
use bakery::{call, demo, field_messages, get};

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
    }
    let (status, problem) = call(&store, Method::GET, "/api/jobs/1/pattern?pattern=stripes&length_mm=9", None).await;
    assert_eq!((status, field_messages(&problem)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "length_mm"));
}
