//! Who is let in on a network: nobody without a code, each as far as its role goes, and nobody who was shut out.

use crate::bakery::{Program, demo, from_page};
use actix_web::body::MessageBody as _;
use actix_web::dev::{Service, ServiceResponse};
use actix_web::http::header::{HeaderMap, SET_COOKIE};
use actix_web::http::{Method, StatusCode};
use actix_web::test::{TestRequest, init_service};
use chrono::{SecondsFormat, TimeDelta, Utc};
use futures_util::stream::FuturesUnordered;
use futures_util::{FutureExt as _, StreamExt as _};
use ready_slab_server::access::{Access, Reached, may};
use ready_slab_server::app::application;
use ready_slab_server::bakeries::Bakeries;
use ready_slab_server::description;
use ready_slab_server::guard::AllowedHosts;
use ready_slab_server::problem::ApiError;
use ready_slab_server::wrong_codes::{WrongCodes, network_of};
use ready_slab_store::{Role, Store};
use serde_json::{Value, json};
use std::cell::RefCell;
use std::future::poll_fn;
use std::time::Duration;

/// On a network, where a wrong code keeps the next one waiting a little.
fn networked(store: &Store) -> (Access, Bakeries) {
    let reached = Reached { open: false, secure: false, address: "http://192.168.1.5:8420".to_owned() };
    let access = Access::new(store.clone(), reached, Duration::from_millis(20));
    SERVED.set(None);
    (access.clone(), Bakeries::new(store.clone(), None).guarded(access))
}

thread_local! {
    /// The program of a test.
    static SERVED: RefCell<Option<Program>> = const { RefCell::new(None) };
}

async fn ask(bakeries: &Bakeries, request: TestRequest) -> (StatusCode, HeaderMap, Value) {
    let program = match SERVED.with_borrow(Clone::clone) {
        Some(program) => program,
        None => Program::of(bakeries.clone()).await,
    };
    SERVED.set(Some(program.clone()));
    let (status, headers, body) = program.ask(request).await;
    (status, headers, serde_json::from_slice(&body).unwrap_or(Value::Null))
}

fn with(request: TestRequest, body: &Value) -> TestRequest {
    request.set_payload(body.to_string()).insert_header(("content-type", "application/json"))
}

fn as_device(cookie: &str, method: Method, path: &str) -> TestRequest {
    from_page(method, path).insert_header(("cookie", cookie.to_owned()))
}

/// Lets a device in; what it shows, and its number.
async fn let_in(access: &Access, bakeries: &Bakeries, role: Role, name: &str) -> (String, i64) {
    let code = access.make_code(role).unwrap();
    // As people type it.
    let typed = format!("{} {} {}", &code[..4], &code[4..8], &code[8..]);
    let request = with(from_page(Method::POST, "/api/pair"), &json!({ "code": typed, "name": name }));
    let (status, headers, body) = ask(bakeries, request).await;
    assert_eq!(status, StatusCode::OK, "{body}");
    let cookie = headers.get(SET_COOKIE).unwrap().to_str().unwrap().to_owned();
    assert!(cookie.contains("HttpOnly") && cookie.contains("SameSite=Strict") && cookie.contains("Path=/"), "{cookie}");
    (cookie.split(';').next().unwrap().to_owned(), body["id"].as_i64().unwrap())
}

/// Every route of the description, with numbers in the place of names.
fn routes() -> Vec<(Method, String)> {
    let api = serde_json::to_value(description()).unwrap();
    let mut all = vec![];
    for (path, item) in api["paths"].as_object().unwrap() {
        let path: Vec<&str> = path.split('/').map(|part| if part.starts_with('{') { "1" } else { part }).collect();
        for method in item.as_object().unwrap().keys() {
            if let Ok(method) = method.to_uppercase().parse::<Method>()
                && ["GET", "POST", "PUT", "PATCH", "DELETE"].contains(&method.as_str())
            {
                all.push((method, path.join("/")));
            }
        }
    }
    assert!(all.len() > 90, "{}", all.len());
    all
}

#[actix_web::test]
async fn nothing_answers_who_is_not_let_in_but_the_page_that_asks_for_a_code() {
    let (_dir, store) = demo().await;
    let (_, bakeries) = networked(&store);
    for (method, path) in routes() {
        for path in [path.clone(), format!("/demo{path}")] {
            let (status, _, body) = ask(&bakeries, from_page(method.clone(), &path)).await;
            let asks_for_code = path.ends_with("/api/pair");
            assert_eq!(status == StatusCode::UNAUTHORIZED, !asks_for_code, "{method} {path}: {status} {body}");
        }
    }
    // Nor one who shows anything, nor one who asks in odd ways.
    for (name, value) in [
        ("cookie", "ready-slab-device=0000"),
        ("authorization", "Bearer 0000"),
        ("authorization", "Basic YTpi"),
        ("x-forwarded-for", "127.0.0.1"),
    ] {
        let (status, ..) = ask(&bakeries, from_page(Method::GET, "/api/jobs").insert_header((name, value))).await;
        assert_eq!(status, StatusCode::UNAUTHORIZED, "{name}: {value}");
    }
    for path in ["/api/openapi.json", "/api", "/api/", "/api/jobs/", "//api/jobs", "/api/none", "/api/x.js"] {
        let (status, ..) = ask(&bakeries, from_page(Method::GET, path)).await;
        assert!(status == StatusCode::UNAUTHORIZED || status == StatusCode::SEE_OTHER, "{path}: {status}");
    }
    // The router reads %61 as a; so does whoever stands before it.
    for path in [
        "/%61pi/jobs",
        "/%61pi/chills/1/readings.csv",
        "/demo/%61pi/jobs/1/template.pdf",
        "/api/%6aobs",
        "/%61%70%69/openapi.json",
        "/x.y/../api/jobs",
        "/api/jobs/1/template.pdf",
    ] {
        let (status, ..) = ask(&bakeries, from_page(Method::GET, path)).await;
        assert!(status == StatusCode::UNAUTHORIZED || status == StatusCode::SEE_OTHER, "{path}: {status}");
        let foreign = from_page(Method::GET, path).insert_header(("sec-fetch-site", "cross-site"));
        let (status, ..) = ask(&bakeries, foreign).await;
        assert_ne!(status, StatusCode::OK, "{path}");
    }
    // A page leads to where a code is asked for, and back.
    let (status, headers, _) = ask(&bakeries, from_page(Method::GET, "/jobs/1/clock")).await;
    assert_eq!(
        (status, headers.get("location").unwrap().to_str().unwrap()),
        (StatusCode::SEE_OTHER, "/pair?to=%2Fjobs%2F1%2Fclock")
    );
    assert_ne!(ask(&bakeries, from_page(Method::GET, "/pair")).await.0, StatusCode::SEE_OTHER);
}

#[actix_web::test]
async fn a_code_lets_one_device_in_and_wrong_ones_end_nothing() {
    let (_dir, store) = demo().await;
    let (access, bakeries) = networked(&store);
    let (cookie, id) = let_in(&access, &bakeries, Role::Full, "Till").await;
    let (status, _, told) = ask(&bakeries, as_device(&cookie, Method::GET, "/api/access")).await;
    assert_eq!((status, &told["this"]["name"], &told["open"]), (StatusCode::OK, &json!("Till"), &json!(false)));
    // What it shows stands nowhere in the bakery.
    let shown = cookie.split('=').nth(1).unwrap();
    let kept = store.devices().await.unwrap();
    assert!(!format!("{kept:?}").contains(shown) && kept[0].id.0 == id && kept[0].seen_at.is_some());
    assert!(store.device_showing(shown).await.unwrap().is_none());
    // The code was good once.
    let code = access.make_code(Role::Full).unwrap();
    let pair = |code: String| with(from_page(Method::POST, "/api/pair"), &json!({ "code": code, "name": "Phone" }));
    for _ in 0..8 {
        let (status, _, body) = ask(&bakeries, pair(another(&code))).await;
        assert_eq!(
            (status, body["detail"].as_str()),
            (StatusCode::FORBIDDEN, Some("Wrong code. Try again.")),
            "{body}"
        );
    }
    assert_eq!(ask(&bakeries, pair(code.clone())).await.0, StatusCode::OK, "still good");
    let (status, _, body) = ask(&bakeries, pair(code)).await;
    assert_eq!(status, StatusCode::FORBIDDEN, "once");
    assert!(body["detail"].as_str().unwrap().contains("No code is active"), "{body}");
    // Nor without a name, nor with a body that is no such thing.
    let code = access.make_code(Role::Full).unwrap();
    let nameless = with(from_page(Method::POST, "/api/pair"), &json!({ "code": code, "name": "  " }));
    assert_eq!(ask(&bakeries, nameless).await.0, StatusCode::UNPROCESSABLE_ENTITY);
    let large = with(from_page(Method::POST, "/api/pair"), &json!({ "code": code, "name": "x".repeat(5_000) }));
    assert_eq!(ask(&bakeries, large).await.0, StatusCode::PAYLOAD_TOO_LARGE);
    assert_eq!(store.devices().await.unwrap().len(), 2);
    // Made on a device that is let in; dropped again.
    let made = with(as_device(&cookie, Method::POST, "/api/devices/code"), &json!({ "role": "bench" }));
    let (status, _, body) = ask(&bakeries, made).await;
    assert_eq!(
        (status, &body["good_for_s"], &body["address"]),
        (StatusCode::OK, &json!(600), &json!("http://192.168.1.5:8420/pair"))
    );
    assert!(body["picture"].as_str().unwrap().contains("<svg"));
    assert_eq!(ask(&bakeries, as_device(&cookie, Method::DELETE, "/api/devices/code")).await.0, StatusCode::NO_CONTENT);
    let late = pair(body["code"].as_str().unwrap().to_owned());
    assert_eq!(ask(&bakeries, late).await.0, StatusCode::FORBIDDEN);
}

#[actix_web::test]
async fn each_role_reaches_as_far_as_it_goes() {
    let (_dir, store) = demo().await;
    let (access, bakeries) = networked(&store);
    let (bench, _) = let_in(&access, &bakeries, Role::Bench, "Bench tablet").await;
    let (full, _) = let_in(&access, &bakeries, Role::Full, "Office").await;
    // At the bench all is read but who else is let in and the bakery as a whole, and what happens there is noted; what is planned stays.
    let refused: Vec<String> = (routes().into_iter())
        .filter(|(method, path)| !may(Role::Bench, method, path))
        .map(|(method, path)| format!("{method} {path}"))
        .collect();
    insta::assert_snapshot!(refused.join("\n"));
    for (cookie, method, path, body, wanted) in [
        (&bench, Method::GET, "/api/jobs/1", Value::Null, StatusCode::OK),
        (&bench, Method::GET, "/api/devices", Value::Null, StatusCode::FORBIDDEN),
        (&bench, Method::GET, "/api/backups/now", Value::Null, StatusCode::FORBIDDEN),
        (&bench, Method::GET, "/api/b%61ckups/now", Value::Null, StatusCode::FORBIDDEN),
        (&bench, Method::GET, "/%61pi/devices", Value::Null, StatusCode::FORBIDDEN),
        (&bench, Method::POST, "/api/%64evices/code", json!({ "role": "full" }), StatusCode::FORBIDDEN),
        (&bench, Method::PATCH, "/api/jobs/1", json!({ "pieces": 12 }), StatusCode::FORBIDDEN),
        (&bench, Method::POST, "/api/devices/code", json!({ "role": "full" }), StatusCode::FORBIDDEN),
        (&bench, Method::POST, "/api/undo", Value::Null, StatusCode::FORBIDDEN),
        (&full, Method::PATCH, "/api/jobs/1", json!({ "pieces": 12 }), StatusCode::OK),
        (&full, Method::GET, "/api/devices", Value::Null, StatusCode::OK),
    ] {
        let request = as_device(cookie, method.clone(), path);
        let request = if body.is_null() { request } else { with(request, &body) };
        let (status, _, told) = ask(&bakeries, request).await;
        assert_eq!(status, wanted, "{method} {path}: {told}");
    }
    // A thermometer writes, and can not read, not even with its token as a cookie.
    let made =
        with(as_device(&full, Method::POST, "/api/devices/thermometer"), &json!({ "name": "Probe in the fridge" }));
    let (_, _, told) = ask(&bakeries, made).await;
    let bearer = ("authorization", format!("Bearer {}", told["token"].as_str().unwrap()));
    let ago = |minutes| (Utc::now() - TimeDelta::minutes(minutes)).to_rfc3339_opts(SecondsFormat::Secs, true);
    let put_in = json!({ "name": "Disc 1", "put_in_at": ago(40) });
    let (status, _, piece) = ask(&bakeries, with(as_device(&bench, Method::POST, "/api/jobs/1/chills"), &put_in)).await;
    assert_eq!(status, StatusCode::OK, "{piece}");
    let readings = format!("/api/chills/{}/readings", piece["id"]);
    let reading = json!([{ "read_at": ago(20), "shows_c": 18.8, "spot": "core" }]);
    let write = with(from_page(Method::POST, &readings).insert_header(bearer.clone()), &reading);
    let (status, _, taken) = ask(&bakeries, write).await;
    assert_eq!((status, &taken["kept"]), (StatusCode::OK, &json!(1)), "{taken}");
    for (method, path) in routes().into_iter().filter(|(m, p)| !(*m == Method::POST && p.ends_with("/readings"))) {
        if path == "/api/pair" {
            continue;
        }
        let (status, ..) = ask(&bakeries, from_page(method.clone(), &path).insert_header(bearer.clone())).await;
        assert_eq!(status, StatusCode::FORBIDDEN, "{method} {path}");
    }
    let as_cookie = format!("ready-slab-device={}", told["token"].as_str().unwrap());
    assert_eq!(ask(&bakeries, as_device(&as_cookie, Method::POST, &readings)).await.0, StatusCode::UNAUTHORIZED);
}

#[actix_web::test]
async fn who_is_shut_out_hears_nothing_more() {
    let (dir, store) = demo().await;
    let (access, bakeries) = networked(&store);
    let (full, _) = let_in(&access, &bakeries, Role::Full, "Office").await;
    let (lost, id) = let_in(&access, &bakeries, Role::Bench, "Lost phone").await;
    let app = init_service(application(bakeries.clone(), AllowedHosts::default())).await;
    let response: ServiceResponse<_> =
        app.call(as_device(&lost, Method::GET, "/api/cold/live").to_request()).await.unwrap();
    assert_eq!(response.status(), StatusCode::OK);
    let mut heard = Box::pin(response.into_body());
    assert!(poll_fn(|cx| heard.as_mut().poll_next(cx)).await.is_some());
    let path = format!("/api/devices/{id}");
    let renamed = with(as_device(&full, Method::PATCH, &path), &json!({ "name": "Old phone" }));
    assert_eq!(ask(&bakeries, renamed).await.0, StatusCode::NO_CONTENT);
    assert_eq!(ask(&bakeries, as_device(&full, Method::DELETE, &path)).await.0, StatusCode::NO_CONTENT);
    let rest = async { while poll_fn(|cx| heard.as_mut().poll_next(cx)).await.is_some() {} };
    let ended = tokio::time::timeout(Duration::from_millis(500), rest).await;
    assert!(ended.is_ok(), "the stream goes on");
    assert_eq!(ask(&bakeries, as_device(&lost, Method::GET, "/api/jobs")).await.0, StatusCode::UNAUTHORIZED);
    assert_eq!(ask(&bakeries, as_device(&full, Method::DELETE, &path)).await.0, StatusCode::NOT_FOUND);
    // A copy of the bakery lets nobody in.
    let copy = dir.path().join("copy.db");
    store.back_up(&copy).await.unwrap();
    assert_eq!(Store::open(&copy).await.unwrap().devices().await.unwrap(), vec![]);
    assert_eq!(store.devices().await.unwrap().len(), 1);
}

#[actix_web::test]
async fn a_foreign_page_reads_nothing_however_it_writes_the_path() {
    let (_dir, store) = demo().await;
    let bakeries = Bakeries::new(store.clone(), None);
    for (path, wanted) in [
        ("/api/jobs/1/plan", StatusCode::FORBIDDEN),
        ("/%61pi/jobs/1/plan", StatusCode::FORBIDDEN),
        ("/demo/api/jobs", StatusCode::FORBIDDEN),
    ] {
        for site in ["cross-site", "same-site"] {
            let foreign = from_page(Method::GET, path).insert_header(("sec-fetch-site", site));
            assert_eq!(ask(&bakeries, foreign).await.0, wanted, "{path} {site}");
        }
    }
    for site in ["same-origin", "none"] {
        let own = from_page(Method::GET, "/api/jobs/1/plan").insert_header(("sec-fetch-site", site));
        assert_eq!(ask(&bakeries, own).await.0, StatusCode::OK);
    }
}

#[actix_web::test]
async fn at_this_machine_nobody_is_asked() {
    let (_dir, store) = demo().await;
    let bakeries = Bakeries::new(store.clone(), None);
    let (status, _, told) = ask(&bakeries, from_page(Method::GET, "/api/access")).await;
    assert_eq!((status, told), (StatusCode::OK, json!({ "open": true, "this": null, "address": null })));
    let code = with(from_page(Method::POST, "/api/devices/code"), &json!({ "role": "bench" }));
    assert_eq!(ask(&bakeries, code).await.0, StatusCode::FORBIDDEN);
}

#[actix_web::test]
async fn a_flood_of_wrong_codes_waits_and_keeps_no_honest_device_out() {
    let (_dir, store) = demo().await;
    let reached = Reached { open: false, secure: false, address: String::new() };
    let (flood, phone) = (Some("192.168.1.66".parse().unwrap()), Some("192.168.1.7".parse().unwrap()));
    // Also where the honest device stands behind the same address, or at this machine itself.
    for from in [phone, flood, None, Some("127.0.0.1".parse().unwrap())] {
        // A wrong one waits an hour: whoever waited for it would never be done.
        let access = Access::new(store.clone(), reached.clone(), Duration::from_secs(3600));
        let code = access.make_code(Role::Bench).unwrap();
        let wrong = another(&code);
        let mut guesses: FuturesUnordered<_> = (0..40).map(|_| access.pair(&wrong, "Flood", flood)).collect();
        let mut told = vec![];
        while let Some(Some(guess)) = guesses.next().now_or_never() {
            told.push(guess.map(|_| ()).unwrap_err());
        }
        assert_eq!((told.len(), guesses.len()), (24, 16), "so many of one address wait, the others are told at once");
        assert!(told.iter().all(|e| matches!(e, ApiError::TooMany(_))), "{told:?}");
        access.pair(&code, "Phone", from).await.unwrap();
        assert!(guesses.next().now_or_never().is_none(), "they wait still");
        // Who is at this machine waits for no wrong one.
        for here in [None, Some("::1".parse().unwrap())] {
            access.pair("1", "Guess", here).await.map(|_| ()).unwrap_err();
        }
        // Nobody waits for an answer any more: their places are free, what they gave is counted.
        drop(guesses);
        assert!(access.pair("1", "Flood", flood).now_or_never().is_none());
    }
    // A thousand in ten minutes, and nothing of that address is looked at any more: in IPv6 of that household.
    let access = Access::new(store.clone(), reached, Duration::ZERO);
    for host in 0..1000 {
        let from = format!("fd00:1:2:3::{host:x}").parse().ok();
        access.pair("1", "Flood", from).await.map(|_| ()).unwrap_err();
    }
    let code = access.make_code(Role::Bench).unwrap();
    for (from, taken) in [("fd00:1:2:3:ffff::6", false), ("fd00:1:2:4::6", true)] {
        assert_eq!(access.pair(&code, "Phone", from.parse().ok()).await.is_ok(), taken, "{from}");
    }
}

/// Another code than this one.
fn another(code: &str) -> String {
    format!("{:012}", (code.parse::<u64>().unwrap() + 1) % 1_000_000_000_000)
}

#[test]
fn each_wrong_code_of_an_address_is_answered_later_than_the_one_before_and_the_tenth_the_latest() {
    let wrong = WrongCodes::new(Duration::from_secs(1));
    let (one, other) = ("192.168.1.5".parse().unwrap(), "192.168.1.6".parse().unwrap());
    let waits = |from| wrong.one_more(from).unwrap().pause().as_secs();
    assert_eq!((1..=12).map(|_| waits(one)).collect::<Vec<_>>(), [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 10, 10]);
    assert_eq!(waits(other), 1, "another address begins anew");
}

#[test]
fn addresses_of_one_household_count_as_one() {
    let network = |ip: &str| network_of(ip.parse().unwrap()).to_string();
    assert_eq!(network("fd00:1:2:3:ffff::6"), "fd00:1:2:3::");
    assert_eq!(network("192.168.1.5"), "192.168.1.5");
    // As a socket of both kinds tells it (RFC 4291, 2.5.5.2).
    assert_eq!(network("::ffff:192.168.1.5"), "192.168.1.5");
}
