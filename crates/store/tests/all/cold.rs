//! Pieces in the cold, their readings, what these taught and what hands found, on temporary files.

use crate::shelf::filled;
use chrono::{TimeDelta, Utc};
use ready_slab_core::cold::{Finding, Piece, PlaceKnowledge, ProbeKind, Spot, Target, Touch};
use ready_slab_core::job::{ColdPlace, Whereabouts};
use ready_slab_core::units::{Length, Span, Temperature, TemperatureDifference};
use ready_slab_store::{ChillId, FormulaId, JobId, NewChill, Store, StoredStay};

/// A noon of November, and minutes after it.
fn at(minute: u32) -> chrono::DateTime<chrono::Utc> {
    use chrono::TimeZone;
    chrono::Utc.with_ymd_and_hms(2026, 11, 28, 12, minute, 0).unwrap()
}

fn disc_in_the_fridge(job: JobId) -> NewChill {
    NewChill {
        job_id: job,
        name: "Mix 1".into(),
        place: Whereabouts::Cold(ColdPlace::Fridge),
        busy: false,
        piece: Piece::Disc { thickness: Length::new_mm(22.0), diameter: Length::new_mm(180.0) },
        purpose: Target::Rolling,
        start: Temperature::new_c(20.5),
        clock_speed: 1.0,
        put_in_at: at(20),
    }
}

#[tokio::test]
async fn a_piece_in_the_cold_and_its_readings_survive_and_a_deleted_job_finds_them_again() {
    let (dir, store, _, _, j) = filled().await;
    let new = disc_in_the_fridge(j);
    let id = store.put_in(&new).await.unwrap();
    let t = Temperature::new_c;
    store.add_readings(id, &[(at(40), t(17.0), Spot::Core), (at(30), t(19.0), Spot::Surface)], false).await.unwrap();
    store.close().await;
    let store = Store::open(&dir.path().join("bakery.db")).await.unwrap();
    assert_eq!(store.chills(j).await.unwrap()[0].kept, new);
    let shown: Vec<f64> = store.readings(id).await.unwrap().iter().map(|r| r.shows.c()).collect();
    assert_eq!(shown, [19.0, 17.0], "in the order of their time");
    store.delete_job(j, "gone").await.unwrap();
    store.undo().await.unwrap();
    assert_eq!(store.chills(j).await.unwrap().len(), 1);
    store.end_chill(id, Some(at(50))).await.unwrap();
    assert_eq!(store.chill(id).await.unwrap().ended_at, Some(at(50)));
    assert!(store.followed().await.unwrap().is_empty());
    let first = store.readings(id).await.unwrap()[0].id;
    assert_eq!(store.delete_reading(first).await.unwrap(), id);
    assert!(store.delete_reading(first).await.is_err());
    assert_eq!(store.count_readings(id).await.unwrap(), 1);
    store.forget_chill(id).await.unwrap();
    assert!(store.readings(id).await.unwrap().is_empty() && store.chill(ChillId(99)).await.is_err());
}

#[tokio::test]
async fn a_piece_is_moved_and_moved_back_and_its_stand_in_thermometer_stays_in_it() {
    let (_dir, store, _, _, j) = filled().await;
    let id = store.put_in(&disc_in_the_fridge(j)).await.unwrap();
    let out = StoredStay { place: Whereabouts::Bench, busy: false, from: at(50) };
    store.end_chill(id, Some(at(49))).await.unwrap();
    store.move_chill(id, out).await.unwrap();
    let moved = store.chill(id).await.unwrap();
    assert_eq!(moved.stays.len(), 2);
    assert_eq!((moved.stays[1], moved.ended_at), (out, None), "what is moved is followed again");
    let k = TemperatureDifference::new_k;
    let probe = ProbeKind {
        seed: u64::from(u32::MAX),
        noise: k(0.3),
        drop_out: 0.1,
        film_factor: 1.2,
        air_off: k(-0.5),
        every: Span::new_min(2.0),
    };
    store.set_probe(id, Some(&probe)).await.unwrap();
    assert_eq!(store.followed().await.unwrap()[0].probe, Some(probe));
    store.set_probe(id, None).await.unwrap();
    store.unmove_chill(id).await.unwrap();
    store.unmove_chill(id).await.unwrap();
    let back = store.chill(id).await.unwrap();
    assert_eq!((back.stays.len(), back.probe), (1, None), "the first place stays");
}

#[tokio::test]
async fn what_a_place_taught_is_kept_for_each_of_its_uses_and_can_be_reset() {
    let (_dir, store, _, _, j) = filled().await;
    let id = store.put_in(&disc_in_the_fridge(j)).await.unwrap();
    let usual = store.kitchen_as_known().await.unwrap();
    assert_eq!(usual.known(ColdPlace::Fridge), PlaceKnowledge::default());
    let k = TemperatureDifference::new_k;
    let learnt = PlaceKnowledge { ln_film: (0.2, 0.05), air: (k(1.1), k(0.4)), correlation: 0.6, air_taught: true };
    store.teach(id, &[(ColdPlace::Fridge, false, learnt)], at(55)).await.unwrap();
    store.teach(id, &[(ColdPlace::Fridge, false, learnt)], at(56)).await.unwrap();
    let kept = store.taught(ColdPlace::Fridge, false).await.unwrap().unwrap();
    assert_eq!((kept.knowledge, kept.pieces, kept.taught_at), (learnt, 2, at(56)));
    assert!(store.chill(id).await.unwrap().taught);
    let fridge = store.kitchen_as_known().await.unwrap().place(ColdPlace::Fridge);
    assert!((fridge.air().c() - 5.1).abs() < 1e-9, "{fridge:?}");
    store.set_busy(ColdPlace::Fridge, true).await.unwrap();
    let busy = store.kitchen_as_known().await.unwrap().known(ColdPlace::Fridge);
    assert_eq!(busy, PlaceKnowledge::busy(), "its own setting, untaught");
    store.set_busy(ColdPlace::Fridge, false).await.unwrap();
    store.reset_place(ColdPlace::Fridge, false).await.unwrap();
    assert_eq!(store.taught(ColdPlace::Fridge, false).await.unwrap(), None);
}

#[tokio::test]
async fn what_hands_found_is_kept_with_the_formula() {
    let (_dir, store, f, _, j) = filled().await;
    let finding = Finding { purpose: Target::Slicing, touch: Touch::Squashed, dough: Temperature::new_c(12.5) };
    let first = store.add_touch(f, j, finding, at(1)).await.unwrap();
    let later = Finding { purpose: Target::Rolling, touch: Touch::Right, dough: Temperature::new_c(14.0) };
    store.add_touch(f, j, later, at(2)).await.unwrap();
    let all = store.touches(f).await.unwrap();
    assert_eq!(all.iter().map(|t| t.finding).collect::<Vec<_>>(), [later, finding], "the newest first");
    store.delete_touch(first).await.unwrap();
    assert!(store.delete_touch(first).await.is_err());
    assert!(store.touches(FormulaId(999)).await.unwrap().is_empty());
}

#[tokio::test]
async fn readings_of_pieces_long_ended_are_thinned_and_it_is_said() {
    let (_dir, store, _, _, j) = filled().await;
    let at = |minutes: i64| {
        chrono::TimeZone::with_ymd_and_hms(&Utc, 2026, 9, 1, 8, 0, 0).unwrap() + TimeDelta::minutes(minutes)
    };
    let mut ids = vec![];
    for (ends, spot) in [(Some(200), Spot::Core), (None, Spot::Core)] {
        let id = store.put_in(&NewChill { put_in_at: at(0), ..disc_in_the_fridge(j) }).await.unwrap();
        let core: Vec<_> = (1..=180_i32)
            .map(|m| (at(m.into()), Temperature::from_c(4.0 + 17.0 * (-f64::from(m) / 35.0).exp()).unwrap(), spot))
            .collect();
        // Sent three times, since no answer came back; kept once.
        for _ in 0..3 {
            store.add_readings(id, &core, false).await.unwrap();
        }
        store.add_readings(id, &[(at(50), Temperature::from_c(5.0).unwrap(), Spot::Surface)], false).await.unwrap();
        store.end_chill(id, ends.map(at)).await.unwrap();
        ids.push(id);
    }
    // Too early; then those that have ended, once.
    assert_eq!(store.thin_readings(at(199), 0.1, 10).await.unwrap(), 0);
    let left_out = store.thin_readings(at(201), 0.1, 10).await.unwrap();
    assert!(left_out > 150, "{left_out}");
    assert_eq!(store.thin_readings(at(201), 0.1, 10).await.unwrap(), 0);
    let (ended, followed) = (store.chill(ids[0]).await.unwrap(), store.chill(ids[1]).await.unwrap());
    assert_eq!((ended.readings_taken, followed.readings_taken), (Some(181), None));
    let kept = store.readings(ids[0]).await.unwrap();
    assert_eq!(kept.len() as u64, 181 - left_out);
    // The one on the face is no part of the curve of the middle, and stays.
    assert!(kept.iter().any(|r| r.spot == Spot::Surface) && kept[0].read_at == at(1));
    assert_eq!(store.readings(ids[1]).await.unwrap().len(), 181);
}

#[tokio::test]
async fn readings_of_pieces_a_season_past_take_one_row_and_read_as_before() {
    let (dir, store, _, _, j) = filled().await;
    let at = |minutes: i64| {
        chrono::TimeZone::with_ymd_and_hms(&Utc, 2026, 3, 1, 8, 0, 0).unwrap() + TimeDelta::minutes(minutes)
    };
    let id = store.put_in(&NewChill { put_in_at: at(0), ..disc_in_the_fridge(j) }).await.unwrap();
    let shown: Vec<_> = (1..=90_i32)
        .map(|m| (at(m.into()), Temperature::from_c(4.0 + 17.0 * (-f64::from(m) / 35.1).exp()).unwrap(), Spot::Core))
        .collect();
    store.add_readings(id, &shown, false).await.unwrap();
    store.end_chill(id, Some(at(100))).await.unwrap();
    // Those that were not thinned yet stay as they are, and so do those of a piece that ended later.
    assert_eq!(store.pack_readings(at(101), 10).await.unwrap(), 0);
    store.thin_readings(at(101), 0.1, 10).await.unwrap();
    assert_eq!(store.pack_readings(at(100), 10).await.unwrap(), 0);
    let before = store.readings(id).await.unwrap();
    assert_eq!(store.pack_readings(at(101), 10).await.unwrap(), 1);
    assert_eq!(store.pack_readings(at(101), 10).await.unwrap(), 0, "they are packed");
    assert_eq!(
        (store.readings(id).await.unwrap(), store.count_readings(id).await.unwrap()),
        (before.clone(), before.len() as u64)
    );
    let file = dir.path().join("bakery.db");
    let mut conn =
        sqlx::ConnectOptions::connect(&sqlx::sqlite::SqliteConnectOptions::new().filename(file)).await.unwrap();
    let (left,): (i64,) = sqlx::query_as("SELECT COUNT(*) FROM reading").fetch_one(&mut conn).await.unwrap();
    assert_eq!(left, 0);
    // One that is taken away, and one that is sent again, find those that are packed.
    assert_eq!(store.delete_reading(before[3].id).await.unwrap(), id);
    assert_eq!(store.readings(id).await.unwrap().len(), before.len() - 1);
    store.pack_readings(at(101), 10).await.unwrap();
    let again = (before[0].read_at, before[0].shows, before[0].spot);
    store.add_readings(id, &[again], false).await.unwrap();
    assert_eq!(store.readings(id).await.unwrap().len(), before.len() - 1, "the same reading");
    // Followed again, it has them in their table; forgotten, they are gone with it.
    store.pack_readings(at(101), 10).await.unwrap();
    store.end_chill(id, None).await.unwrap();
    assert_eq!(store.readings(id).await.unwrap().len(), before.len() - 1);
    store.end_chill(id, Some(at(100))).await.unwrap();
    store.pack_readings(at(101), 10).await.unwrap();
    store.forget_chill(id).await.unwrap();
    let (left,): (i64,) = sqlx::query_as("SELECT COUNT(*) FROM packed_readings").fetch_one(&mut conn).await.unwrap();
    assert_eq!(left, 0);
}
