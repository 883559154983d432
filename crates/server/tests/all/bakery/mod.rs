//! A demo bakery of its own for every test, and the few requests that many of them make.

use actix_web::dev::{Service, ServiceResponse};
use actix_web::http::{Method, StatusCode};
use actix_web::test::{TestRequest, init_service, read_body};
use chrono::NaiveDate;
use ready_slab_server::app::application;
use ready_slab_server::bakeries::Bakeries;
use ready_slab_server::guard::AllowedHosts;
use ready_slab_server::seed;
use ready_slab_store::Store;
use serde_json::Value;
use tokio::sync::OnceCell;

/// A Wednesday, so that the demo's Saturday is fixed.
pub fn wednesday() -> chrono::DateTime<chrono::Utc> {
    NaiveDate::from_ymd_opt(2026, 11, 25).unwrap().and_hms_opt(9, 0, 0).unwrap().and_utc()
}

/// The demo is made once; each test has a file of its own like it.
static SEEDED: OnceCell<Vec<u8>> = OnceCell::const_new();

async fn seeded() -> Vec<u8> {
    let dir = tempfile::tempdir().unwrap();
    let file = dir.path().join("bakery.db");
    let store = Store::open(&file).await.unwrap();
    seed::seed(&store, "UTC", wednesday()).await.unwrap();
    store.close().await;
    std::fs::read(&file).unwrap()
}

pub async fn demo() -> (tempfile::TempDir, Store) {
    let dir = tempfile::tempdir().unwrap();
    let file = dir.path().join("bakery.db");
    std::fs::write(&file, SEEDED.get_or_init(seeded).await).unwrap();
    let store = Store::open(&file).await.unwrap();
    (dir, store)
}

/// Sends one request and returns status, content type and body.
pub async fn send(store: &Store, request: TestRequest) -> (StatusCode, String, Vec<u8>) {
    let app = init_service(application(Bakeries::new(store.clone(), None), AllowedHosts::default())).await;
    let response: ServiceResponse<_> = app.call(request.to_request()).await.unwrap();
    let status = response.status();
    let kind = response.headers().get("content-type").map_or("", |v| v.to_str().unwrap()).to_owned();
    (status, kind, read_body(response).await.to_vec())
}

pub fn from_page(method: Method, path: &str) -> TestRequest {
    TestRequest::default().method(method).uri(path).insert_header(("host", "localhost:8420"))
}

pub async fn call(store: &Store, method: Method, path: &str, body: Option<Value>) -> (StatusCode, Value) {
    let request = from_page(method, path);
    let request = match body {
        Some(body) => request.set_payload(body.to_string()).insert_header(("content-type", "application/json")),
        None => request,
    };
    let (status, _, body) = send(store, request).await;
    (status, serde_json::from_slice(&body).unwrap_or(Value::Null))
}

pub async fn get(store: &Store, path: &str) -> Value {
    let (status, body) = call(store, Method::GET, path, None).await;
    assert_eq!(status, StatusCode::OK, "{path}: {body}");
    body
}

pub fn field_messages(problem: &Value) -> Vec<(String, String)> {
    let one = |e: &Value| (e["field"].as_str().unwrap().to_owned(), e["message"].as_str().unwrap().to_owned());
    problem["errors"].as_array().unwrap().iter().map(one).collect()
}
