//! The description of the API: whole, and as it is kept.

use ready_slab_server::description;
use serde_json::Value;

#[test]
fn the_description_names_every_answer_and_has_no_path_twice() {
    let own: Value = serde_json::from_str(&description().to_json().unwrap()).unwrap();
    let mut ids = std::collections::HashSet::new();
    for (path, methods) in own["paths"].as_object().unwrap() {
        assert!(path.starts_with("/api/"), "{path}");
        for (method, operation) in methods.as_object().unwrap() {
            assert!(ids.insert(operation["operationId"].as_str().unwrap().to_owned()), "{method} {path}");
            let responses = operation["responses"].as_object().unwrap();
            assert!(responses.keys().any(|s| s.starts_with('2')), "{method} {path}");
            assert!(operation["summary"].as_str().is_some_and(|s| !s.is_empty()), "{method} {path} says what it does");
            if path.contains("{id}") {
                assert!(operation["parameters"].as_array().is_some_and(|p| p[0]["name"] == "id"), "{method} {path}");
            }
        }
    }
    assert!(ids.len() >= 25);
}

#[test]
fn the_kept_description_is_the_programs_own() {
    let kept: Value = serde_json::from_str(include_str!("../../../../docs/openapi.json")).unwrap();
    let own: Value = serde_json::from_str(&description().to_json().unwrap()).unwrap();
    assert!(kept == own, "docs/openapi.json is out of date: run `make api`");
    assert_eq!(own["openapi"], "3.1.0");
}
