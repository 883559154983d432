//! Turns for what takes long: so many at a time, in order, and nobody waits for ever.

use crate::bakery::{demo, from_page, send};
use actix_web::ResponseError as _;
use actix_web::dev::Service as _;
use actix_web::http::header::RETRY_AFTER;
use actix_web::http::{Method, StatusCode};
use actix_web::test::init_service;
use ready_slab_server::app::application;
use ready_slab_server::bakeries::Bakeries;
use ready_slab_server::guard::AllowedHosts;
use ready_slab_server::heavy::Heavy;
use std::sync::{Arc, Mutex, mpsc};
use std::time::Duration;

#[actix_web::test]
async fn whoever_comes_first_has_his_turn_first_and_who_goes_away_takes_none() {
    let heavy = Heavy::new(3);
    let held = [heavy.turn().await.unwrap(), heavy.turn().await.unwrap(), heavy.turn().await.unwrap()];
    let order = Arc::new(Mutex::new(vec![]));
    let mut waiting = vec![];
    for number in 0..12 {
        let (heavy, order) = (heavy.clone(), order.clone());
        waiting.push(actix_web::rt::spawn(async move {
            let turn = heavy.turn().await.unwrap();
            order.lock().unwrap().push(number);
            drop(turn);
        }));
        tokio::task::yield_now().await;
    }
    // One more is told at once, and when to come again.
    let refused = heavy.turn().await.unwrap_err();
    let answer = refused.error_response();
    assert_eq!((answer.status().as_u16(), answer.headers().get(RETRY_AFTER).unwrap().to_str().unwrap()), (503, "2"));
    // Two of them go away.
    waiting.remove(5).abort();
    waiting.remove(2).abort();
    tokio::task::yield_now().await;
    drop(held);
    for one in waiting {
        one.await.unwrap();
    }
    assert_eq!(*order.lock().unwrap(), [0, 1, 3, 4, 6, 7, 8, 9, 10, 11]);
    let _all = [heavy.turn().await.unwrap(), heavy.turn().await.unwrap(), heavy.turn().await.unwrap()];
}

#[actix_web::test]
async fn a_turn_lasts_as_long_as_its_work_also_where_nobody_waits_for_it() {
    let heavy = Heavy::new(3);
    let (go_on, told) = mpsc::channel::<()>();
    let begun = heavy.clone();
    let first = actix_web::rt::spawn(async move { begun.run(move || told.recv().is_ok()).await });
    tokio::time::sleep(Duration::from_millis(50)).await;
    first.abort();
    tokio::time::sleep(Duration::from_millis(20)).await;
    let _others = [heavy.turn().await.unwrap(), heavy.turn().await.unwrap()];
    let third = tokio::time::timeout(Duration::from_millis(100), heavy.turn()).await;
    assert!(third.is_err(), "the thread still computes");
    go_on.send(()).unwrap();
    assert!(tokio::time::timeout(Duration::from_secs(2), heavy.turn()).await.unwrap().is_ok());
}

#[actix_web::test]
async fn work_that_breaks_off_gives_its_turn_back_and_says_so() {
    let heavy = Heavy::new(3);
    for _ in 0..4 {
        let broken = heavy.run(|| -> i32 { std::panic::resume_unwind(Box::new("bug")) }).await;
        assert!(broken.is_err());
    }
    assert_eq!(heavy.run(|| 7).await.unwrap(), 7);
}

#[cfg(target_os = "linux")]
#[actix_web::test]
async fn it_stands_back_and_others_do_not() {
    // stat(5): the 19th field is the niceness of the thread.
    let nice = || {
        let stat = std::fs::read_to_string("/proc/thread-self/stat").unwrap();
        stat.rsplit(')').next().unwrap().split_whitespace().nth(16).unwrap().parse::<i32>().unwrap()
    };
    let before = nice();
    let heavy = Heavy::new(3);
    assert_eq!(heavy.run(nice).await.unwrap(), 5);
    assert_eq!(nice(), before);
}

/// The archive goes out as it is packed; its turn ends with it, and with whoever reads it.
#[actix_web::test]
async fn an_archive_is_whole_and_one_that_nobody_reads_gives_its_turn_back() {
    let (_dir, store) = demo().await;
    let (status, kind, zip) = send(&store, from_page(Method::GET, "/api/backups/archive")).await;
    assert_eq!((status, kind.as_str()), (StatusCode::OK, "application/zip"));
    // A ZIP begins with a file's header and ends with the end of its directory (APPNOTE.TXT, 4.3).
    assert!(zip.starts_with(b"PK\x03\x04") && zip.windows(4).rev().take(70).any(|w| w == b"PK\x05\x06"));
    let bakeries = Bakeries::new(store.clone(), None);
    let heavy = bakeries.heavy();
    let app = init_service(application(bakeries, AllowedHosts::default())).await;
    for _ in 0..12 {
        let response = app.call(from_page(Method::GET, "/api/backups/archive").to_request()).await.unwrap();
        assert_eq!(response.status(), StatusCode::OK);
        drop(response);
    }
    // Nobody has read any of them: every turn is free again, at the latest when the next piece finds no reader.
    let turns = [heavy.turn(), heavy.turn()];
    assert!(futures_util::future::join_all(turns).await.iter().all(Result::is_ok));
}
