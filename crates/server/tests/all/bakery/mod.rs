//! A demo bakery of its own for every test, and the few requests that many of them make.

use actix_web::dev::{Service, ServiceResponse};
use actix_web::http::header::HeaderMap;
use actix_web::http::{Method, StatusCode};
use actix_web::test::{TestRequest, init_service, read_body};
use chrono::NaiveDate;
use ready_slab_server::app::application;
use ready_slab_server::bakeries::Bakeries;
use ready_slab_server::demo;
use ready_slab_server::guard::AllowedHosts;
use ready_slab_store::Store;
use serde_json::Value;
use std::cell::RefCell;
use std::rc::Rc;
use tokio::sync::mpsc::{UnboundedSender, unbounded_channel};
use tokio::sync::{OnceCell, oneshot};

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
    demo::fill(&store, "UTC", wednesday()).await.unwrap();
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

/// What one request is answered with: status, headers and body.
pub type Answer = (StatusCode, HeaderMap, Vec<u8>);

/// A program that answers while its test runs. It is put together once, and keeps what it has worked out.
#[derive(Clone)]
pub struct Program(UnboundedSender<(TestRequest, oneshot::Sender<Answer>)>);

impl Program {
    pub async fn of(bakeries: Bakeries) -> Self {
        let app = Rc::new(init_service(application(bakeries, AllowedHosts::default())).await);
        let (ask, mut asked) = unbounded_channel::<(TestRequest, oneshot::Sender<Answer>)>();
        actix_web::rt::spawn(async move {
            while let Some((request, answer)) = asked.recv().await {
                let app = app.clone();
                actix_web::rt::spawn(async move {
                    let response: ServiceResponse<_> = app.call(request.to_request()).await.unwrap();
                    let (status, headers) = (response.status(), response.headers().clone());
                    let _ = answer.send((status, headers, read_body(response).await.to_vec()));
                });
            }
        });
        Self(ask)
    }

    pub async fn ask(&self, request: TestRequest) -> Answer {
        let (answer, answered) = oneshot::channel();
        self.0.send((request, answer)).unwrap();
        answered.await.expect("the program answers, or says above why not")
    }
}

thread_local! {
    /// The program that a test's file is served by.
    static SERVED: RefCell<Option<(Store, Program)>> = const { RefCell::new(None) };
}

/// What tells one open file from another; nothing of one that was closed.
fn file(store: &Store) -> Option<String> {
    let said = format!("{store:?}");
    let path = said.split("path: ").nth(1)?.split(',').next()?;
    (!said.contains("is_closed: true")).then(|| path.to_owned())
}

/// Sends one request and returns status, content type and body.
pub async fn send(store: &Store, request: TestRequest) -> (StatusCode, String, Vec<u8>) {
    let same = |kept: &&(Store, Program)| file(&kept.0).is_some_and(|f| file(store) == Some(f));
    let kept = SERVED.with_borrow(|kept| kept.as_ref().filter(same).map(|(_, program)| program.clone()));
    let program = match kept {
        Some(program) => program,
        None => {
            let program = Program::of(Bakeries::new(store.clone(), None)).await;
            SERVED.set(Some((store.clone(), program.clone())));
            program
        }
    };
    let (status, headers, body) = program.ask(request).await;
    let kind = headers.get("content-type").map_or("", |v| v.to_str().unwrap()).to_owned();
    (status, kind, body)
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
