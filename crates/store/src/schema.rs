//! How the file came to be as it is: each step once, in order, never changed afterwards.

use crate::error::StoreError;
use crate::older;
use sqlx::migrate::{Migration, MigrationType, Migrator};
use sqlx::{SqlSafeStr as _, SqliteConnection};
use std::borrow::Cow;

type Step = (i64, &'static str, &'static str);

const fn step(number: i64, name: &'static str, sql: &'static str) -> Step {
    (number, name, sql)
}

const STEPS: [Step; 31] = [
    step(1, "bakery", include_str!("../migrations/0001_bakery.sql")),
    step(2, "order and dough", include_str!("../migrations/0002_order_and_dough.sql")),
    step(3, "in the cold", include_str!("../migrations/0003_in_the_cold.sql")),
    step(4, "nested", include_str!("../migrations/0004_nested.sql")),
    step(5, "thickness", include_str!("../migrations/0005_thickness.sql")),
    step(6, "lots", include_str!("../migrations/0006_lots.sql")),
    step(7, "holes", include_str!("../migrations/0007_holes.sql")),
    step(8, "bake", include_str!("../migrations/0008_bake.sql")),
    step(9, "bakes teach", include_str!("../migrations/0009_bakes_teach.sql")),
    step(10, "oven and finish", include_str!("../migrations/0010_oven_and_finish.sql")),
    step(11, "heat", include_str!("../migrations/0011_heat.sql")),
    step(12, "trust", include_str!("../migrations/0012_trust.sql")),
    step(13, "bake model", include_str!("../migrations/0013_bake_model.sql")),
    step(14, "chilling", include_str!("../migrations/0014_chilling.sql")),
    step(15, "ovens", include_str!("../migrations/0015_ovens.sql")),
    step(16, "finished", include_str!("../migrations/0016_finished.sql")),
    step(17, "as bakers do", include_str!("../migrations/0017_as_bakers_do.sql")),
    step(18, "hands and places", include_str!("../migrations/0018_hands_and_places.sql")),
    step(19, "runs", include_str!("../migrations/0019_runs.sql")),
    step(20, "devices", include_str!("../migrations/0020_devices.sql")),
    step(21, "found quickly", include_str!("../migrations/0021_found_quickly.sql")),
    step(22, "thinned", include_str!("../migrations/0022_thinned.sql")),
    step(23, "record photo", include_str!("../migrations/0023_record_photo.sql")),
    step(24, "packed", include_str!("../migrations/0024_packed.sql")),
    step(25, "tries", include_str!("../migrations/0025_tries.sql")),
    step(26, "tray of a run", include_str!("../migrations/0026_tray_of_a_run.sql")),
    step(27, "spread against", include_str!("../migrations/0027_spread_against.sql")),
    step(28, "book by name", include_str!("../migrations/0028_book_by_name.sql")),
    step(29, "learns by itself", include_str!("../migrations/0029_learns_by_itself.sql")),
    step(30, "documents", include_str!("../migrations/0030_documents.sql")),
    step(31, "only documents", include_str!("../migrations/0031_only_documents.sql")),
];

/// After this step the documents of jobs and kitchens are written from their columns; the next ones take the columns away.
const DOCUMENTS: i64 = 30;

fn steps(to: i64) -> Migrator {
    let all = STEPS.iter().filter(|(number, ..)| *number <= to).map(|(number, name, sql)| {
        Migration::new(*number, Cow::Borrowed(name), MigrationType::Simple, sql.into_sql_str(), false)
    });
    Migrator::with_migrations(all.collect())
}

/// Whether there is such a step.
pub(crate) fn is_step(number: i64) -> bool {
    STEPS.iter().any(|(known, ..)| *known == number)
}

/// The newest step.
pub(crate) fn newest() -> i64 {
    STEPS[STEPS.len() - 1].0
}

/// Brings a file to a step, from whichever it is at.
pub(crate) async fn bring_to(conn: &mut SqliteConnection, step: i64) -> Result<(), StoreError> {
    let at: Result<(i64,), sqlx::Error> =
        sqlx::query_as("SELECT COALESCE(MAX(version), 0) FROM _sqlx_migrations").fetch_one(&mut *conn).await;
    // A file without that table begins.
    if step > DOCUMENTS && at.map_or(0, |(at,)| at) <= DOCUMENTS {
        steps(DOCUMENTS).run(&mut *conn).await?;
        older::write_documents(conn).await?;
    }
    steps(step).run(conn).await?;
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::{STEPS, bring_to, newest};
    use crate::document::{JobRow, KitchenRow};
    use ready_slab_core::job::Making;
    use sqlx::ConnectOptions as _;
    use sqlx::sqlite::SqliteConnectOptions;

    #[test]
    fn every_file_of_the_folder_is_a_step_under_its_own_number_and_name() {
        let folder = std::fs::read_dir(concat!(env!("CARGO_MANIFEST_DIR"), "/migrations")).unwrap();
        let mut files: Vec<String> = folder.map(|f| f.unwrap().file_name().into_string().unwrap()).collect();
        files.sort();
        let named = STEPS.map(|(number, name, _)| format!("{number:04}_{}.sql", name.replace(' ', "_")));
        assert_eq!(files, named);
    }

    #[tokio::test]
    async fn a_file_of_the_days_of_columns_keeps_its_jobs_and_its_kitchen() {
        let mut conn = SqliteConnectOptions::new().in_memory(true).foreign_keys(true).connect().await.unwrap();
        bring_to(&mut conn, 29).await.unwrap();
        let before = "
            INSERT INTO formula (id, name) VALUES (1, 'Butter dough');
            INSERT INTO cutter (id, name, origin, points_mm) VALUES (1, 'Gull', 'svg', '[[0,0],[60,0],[30,40]]');
            INSERT INTO kitchen (id, name, room_c, fridge_c, fridge_fan, freezer_c, tray_width_mm, tray_length_mm, tray_kind, trays_owned, least_gap_mm,
                mixer_limit_g, rods_mm, ovens, racks_per_oven, oven_fan, preheat_min, roll_min, cut_s, zone)
            VALUES (1, 'Tern Street Bakehouse', 21.5, 4, 1, -18, 310, 440, 'steel', 5, 25, 1200, '[3.0,6.0]', 1, 2, 0, 20, 4, 6, 'Europe/Lisbon');
            INSERT INTO job (id, name, formula_id, cutter_id, pieces, thickness_mm, ready_by, method, disc_mm, chill_place, tray_chill_place, web_mm,
                edge_mm, surface, rerolls, reserve_percent, oven_c, making, finishes, pricked)
            VALUES (1, 'Gulls', 1, 1, 48, 6, '2026-11-28T14:00', 'just_combined', 22, 'fridge', 'freezer', 3, 4, 'floured_board', 2, 3, 175,
                '[\"cut\",[]]', '[[\"drizzle\",[]]]', 1);
            INSERT INTO job (id, name, formula_id, cutter_id, pieces, thickness_mm, ready_by, method, disc_mm, chill_place, tray_chill_place, web_mm,
                edge_mm, surface, rerolls, reserve_percent, oven_c, lot_of)
            VALUES (2, 'Rounds', 1, 1, 24, -6, '2026-11-28T14:00', 'just_combined', 22, 'fridge', 'fridge', 3, 4, 'floured_board', 2, 3, 175, 1);
        ";
        sqlx::raw_sql(before).execute(&mut conn).await.unwrap();
        bring_to(&mut conn, newest()).await.unwrap();
        let rows: Vec<JobRow> =
            sqlx::query_as("SELECT *, 0 AS revision FROM job ORDER BY id").fetch_all(&mut conn).await.unwrap();
        let gulls = rows[0].clone().into_core().unwrap();
        let job = gulls.job.input();
        assert_eq!(
            (job.order.pieces, job.shape.thickness_mm, job.oven.oven_c, job.shape.pricked),
            (48, 6.0, 175.0, true)
        );
        assert_eq!((&job.shape.making, job.finish.finishes.len()), (&Making::Cut, 1));
        // What never was sound is told as such, and its key stays.
        assert!(rows[1].clone().into_core().unwrap_err().to_string().contains("thickness_mm"));
        assert_eq!(rows[1].lot_of, Some(1));
        let kitchen: KitchenRow = sqlx::query_as("SELECT * FROM kitchen").fetch_one(&mut conn).await.unwrap();
        let kitchen = kitchen.into_core().unwrap();
        assert_eq!(
            (kitchen.input().house.room_c, kitchen.input().cold.fridge_fan, kitchen.trays().owned()),
            (21.5, true, 5)
        );
        assert_eq!(kitchen.input().house.zone, "Europe/Lisbon");
    }
}
