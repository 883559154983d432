//! One shape for every fault of every route: the API's own description is walked, and each answer is checked against it.

use crate::bakery::{call, demo, field_messages, from_page, get, send};
use actix_web::http::{Method, StatusCode};
use ready_slab_server::description;
use serde_json::{Value, json};

/// A path of the description with its parameters filled in.
fn filled(path: &str, id: &str) -> String {
    let mut out = String::new();
    let mut rest = path;
    while let Some(at) = rest.find('{') {
        let end = rest.find('}').unwrap();
        out.push_str(&rest[..at]);
        out.push_str(match &rest[at + 1..end] {
            "format" => "text",
            "place" => "fridge",
            "use" => "usual",
            "key" => "own-999999",
            _ => id,
        });
        rest = &rest[end + 1..];
    }
    out + rest
}

fn check_problem(what: &str, status: StatusCode, kind: &str, body: &[u8]) -> Value {
    assert_eq!(kind, "application/problem+json", "{what}: {status} {}", String::from_utf8_lossy(body));
    let problem: Value = serde_json::from_slice(body).unwrap_or_else(|e| panic!("{what}: {e}"));
    assert_eq!(problem["status"], u64::from(status.as_u16()), "{what}");
    for field in ["title", "detail"] {
        assert!(problem[field].as_str().is_some_and(|t| !t.is_empty()), "{what}: {problem}");
    }
    for fault in problem["errors"].as_array().unwrap() {
        for raw in [
            "unknown variant",
            "unknown field",
            "missing field",
            "expected",
            "invalid type",
            "deserialize",
            "struct ",
            "`",
        ] {
            let message = fault["message"].as_str().unwrap();
            assert!(!message.contains(raw), "{what}: {message}");
        }
    }
    problem
}

#[actix_web::test]
async fn every_route_answers_its_faults_in_one_shape_and_as_described() {
    let (_dir, store) = demo().await;
    let api = serde_json::to_value(description()).unwrap();
    let mut asked = 0;
    for (path, item) in api["paths"].as_object().unwrap() {
        for method in [Method::GET, Method::POST, Method::PUT, Method::PATCH, Method::DELETE] {
            let operation = &item[method.as_str().to_lowercase()];
            let what = format!("{method} {path}");
            let known = operation["responses"].as_object();
            let url = filled(path, "999999");
            let Some(known) = known else {
                // `cutters/look` is also the path of a cutter called so.
                let other = api["paths"].as_object().unwrap().iter().any(|(p, i)| {
                    let fits = p != path
                        && p.split('/').count() == url.split('/').count()
                        && p.split('/').zip(url.split('/')).all(|(a, b)| a.starts_with('{') || a == b);
                    fits && i[method.as_str().to_lowercase()].is_object()
                });
                if other {
                    continue;
                }
                // A method that the path does not know.
                let (status, kind, body) = send(&store, from_page(method.clone(), &url)).await;
                assert_eq!(status, StatusCode::METHOD_NOT_ALLOWED, "{what}");
                check_problem(&what, status, &kind, &body);
                asked += 1;
                continue;
            };
            // Streams answer for ever; they are asked elsewhere.
            if path.ends_with("/live") || path.ends_with("/thermometer") {
                continue;
            }
            let takes_json = operation["requestBody"].is_object();
            let mut requests = vec![];
            if takes_json {
                for bad in ["{", "[1", "nonsense", "", "{\"nonsense\": 1}", "[{}]", "3"] {
                    requests.push(
                        from_page(method.clone(), &url)
                            .set_payload(bad)
                            .insert_header(("content-type", "application/json")),
                    );
                }
            } else if path.contains("{id}") {
                requests.push(from_page(method.clone(), &url));
                requests.push(from_page(method.clone(), &filled(path, "abc")));
            }
            if operation["parameters"].as_array().is_some_and(|p| p.iter().any(|p| p["in"] == "query")) {
                requests.push(from_page(
                    method.clone(),
                    &format!("{}?nonsense=%FF&in_at=x&trouble=flood&version=x&paper=x&disc_mm=x", filled(path, "1")),
                ));
            }
            for request in requests {
                let (status, kind, body) = send(&store, request).await;
                assert_ne!(status, StatusCode::INTERNAL_SERVER_ERROR, "{what}: {}", String::from_utf8_lossy(&body));
                if status.is_client_error() {
                    check_problem(&what, status, &kind, &body);
                    asked += 1;
                } else {
                    assert!(known.contains_key(status.as_str()), "{what}: {status} is not described");
                }
            }
        }
    }
    assert!(asked > 200, "{asked} faults were asked for");
}

#[actix_web::test]
async fn paths_that_are_none_and_heads_and_pages_answer_as_they_should() {
    let (_dir, store) = demo().await;
    for (method, path, wanted) in [
        (Method::GET, "/api/nothing", StatusCode::NOT_FOUND),
        (Method::GET, "/api/jobs/abc", StatusCode::NOT_FOUND),
        (Method::GET, "/nothing.css", StatusCode::NOT_FOUND),
        (Method::POST, "/jobs/1", StatusCode::METHOD_NOT_ALLOWED),
        (Method::DELETE, "/api/kitchen", StatusCode::METHOD_NOT_ALLOWED),
    ] {
        let (status, kind, body) = send(&store, from_page(method, path)).await;
        assert_eq!(status, wanted, "{path}");
        check_problem(path, status, &kind, &body);
    }
    let (status, _, _) = send(&store, from_page(Method::HEAD, "/api/kitchen")).await;
    assert_eq!(status, StatusCode::OK);
}

#[actix_web::test]
async fn a_fault_says_the_field_what_was_given_and_what_is_accepted() {
    let (_dir, store) = demo().await;
    let patch = async |body: Value| call(&store, Method::PATCH, "/api/jobs/1", Some(body)).await.1["errors"][0].clone();
    let hot = patch(json!({"oven_c": 375.0})).await;
    assert_eq!(
        (hot["field"].as_str(), hot["given"].as_str(), hot["accepted"].as_str()),
        (Some("oven_c"), Some("375 \u{b0}C"), Some("100 to 260 \u{b0}C"))
    );
    assert!(hot["message"].as_str().unwrap().contains("Did you mean 375\u{b0}F?"), "{hot}");
    assert_eq!(
        patch(json!({"making": {"kind": "thumbprint", "mass_g": 20.0, "dent_mm": 20.0}})).await["field"],
        "making.deep_mm"
    );
    assert_eq!(patch(json!({"liner": "none"})).await["field"], "liner");
    assert!(
        patch(json!({"peices": 3})).await["message"].as_str().unwrap().contains("Did you mean \u{201c}pieces\u{201d}?")
    );
    let (status, said) = call(&store, Method::GET, "/api/jobs/1/cold/wanted?in_at=now", None).await;
    assert_eq!((status, field_messages(&said)[0].0.as_str()), (StatusCode::UNPROCESSABLE_ENTITY, "ready_at"));
    assert_eq!(get(&store, "/api/jobs/1").await["liner"], "parchment", "nothing was kept");
}
