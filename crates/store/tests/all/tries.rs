//! What is tried on purpose, on temporary files.

use crate::shelf::filled;
use chrono::Utc;
use ready_slab_core::ledger::{
    Cause, CauseTest, EvenMeasure, Seen, Tell, TestPlanned, Trial, TrialGround, TryNoted, Trying, WithCause,
};
use ready_slab_core::units::{Length, Share};
use ready_slab_store::{NewTry, Store, StoreError};

fn trial() -> Trying {
    let places: Vec<(f64, f64)> =
        (0..12).map(|i| (40.5 + 75.0 * f64::from(i % 4), 40.0 + 75.0 * f64::from(i / 4))).collect();
    let ground = TrialGround { places, tray_mm: (310.0, 440.0), sd: Length::new_mm(0.25), own: true };
    let ways = ["as usual".to_owned(), "half powdered".to_owned()];
    Trying::Trial(Trial::new("Sugar", &ways, (EvenMeasure::Width, Length::new_mm(1.0)), ground, 7).unwrap())
}

fn test_of_a_cause() -> Trying {
    let expects = vec![
        WithCause { cause: Cause::OvenCool, share: Share::new(0.41), wider: Some(Length::new_mm(-0.31)) },
        WithCause { cause: Cause::FlourShort, share: Share::new(0.3), wider: None },
    ];
    let test = CauseTest {
        of: Cause::OvenCool,
        from: Some(Cause::FlourShort),
        tell: Tell::Beside,
        expects,
        pieces: 5,
        sd: Length::new_mm(0.3),
    };
    Trying::Test(TestPlanned { record: 3, seen: vec![Seen::SpreadTooFar, Seen::Pale], test })
}

#[tokio::test]
async fn what_is_tried_comes_back_as_it_was_with_what_was_noted_of_it() {
    let (dir, store, f, _, j) = filled().await;
    let at = chrono::TimeZone::with_ymd_and_hms(&Utc, 2026, 11, 29, 12, 0, 0).unwrap();
    let new = |trying| NewTry { job_id: j, formula_id: f, planned_at: at, trying };
    let (first, second) = (new(trial()), new(test_of_a_cause()));
    let one = store.add_try(&first).await.unwrap();
    let two = store.add_try(&second).await.unwrap();
    let all = store.tries(f, 10).await.unwrap();
    assert_eq!(all.iter().map(|t| t.kept.clone()).collect::<Vec<_>>(), [second, first.clone()], "the newest first");
    let noted = TryNoted::Trial { trays_mm: vec![vec![vec![66.25, 66.3], vec![65.1, 65.2]]] };
    store.note_try(one, Some(&noted), at).await.unwrap();
    // From a reopened file, too, and from an archive of it.
    store.close().await;
    let file = dir.path().join("bakery.db");
    let archive = dir.path().join("bakery.zip");
    ready_slab_store::export_file(&file, &archive, at).await.unwrap();
    let other = dir.path().join("other.db");
    ready_slab_store::import(&archive, &other, at).await.unwrap();
    for file in [&file, &other] {
        let store = Store::open(file).await.unwrap();
        let kept = store.one_try(one).await.unwrap();
        assert_eq!((&kept.kept, kept.noted.as_ref(), kept.noted_at), (&first, Some(&noted), Some(at)));
        store.close().await;
    }
    let store = Store::open(&file).await.unwrap();
    store.note_try(one, None, at).await.unwrap();
    assert_eq!(store.one_try(one).await.unwrap().noted, None);
    store.delete_try(two).await.unwrap();
    assert!(matches!(store.delete_try(two).await, Err(StoreError::NotFound { thing: "try", .. })));
    // One that does not hold together is told, not shown.
    let options = sqlx::sqlite::SqliteConnectOptions::new().filename(&file);
    let mut conn = sqlx::ConnectOptions::connect(&options).await.unwrap();
    sqlx::query("UPDATE try SET trying = replace(trying, '[null', '[9')").execute(&mut conn).await.unwrap();
    sqlx::query("UPDATE try SET trying = replace(trying, '\"trays\":[[', '\"trays\":[[5,')")
        .execute(&mut conn)
        .await
        .unwrap();
    assert!(matches!(store.one_try(one).await, Err(StoreError::Damaged { thing: "try", .. })));
    assert!(store.check().await.unwrap().faults[0].contains("try"));
}
