//! The tables: rows read by key, written, and taken away, within a transaction.

use crate::error::StoreError;
use crate::row::{Key, Row, Thing};
use crate::rows_dough::{FormulaRow, LineRow};
use sqlx::SqliteConnection;

/// Jobs with how often each has changed.
macro_rules! job_rows {
    () => {
        "SELECT job.*, (SELECT COALESCE(MAX(number), 0) FROM revision WHERE thing = 'job' AND thing_id = job.id) AS revision \
         FROM job"
    };
}

pub(crate) use job_rows;

pub(crate) async fn read(tx: &mut SqliteConnection, key: Key) -> Result<Option<Row>, StoreError> {
    Ok(match key.thing {
        Thing::Kitchen => sqlx::query_as("SELECT * FROM kitchen WHERE id = ?")
            .bind(key.id)
            .fetch_optional(&mut *tx)
            .await?
            .map(|k| Row::Kitchen(Box::new(k))),
        Thing::Formula => {
            let name: Option<(String,)> =
                sqlx::query_as("SELECT name FROM formula WHERE id = ?").bind(key.id).fetch_optional(&mut *tx).await?;
            match name {
                None => None,
                Some((name,)) => {
                    Some(Row::Formula(FormulaRow { id: key.id, name, lines: read_lines(tx, key.id).await? }))
                }
            }
        }
        Thing::Cutter => sqlx::query_as("SELECT * FROM cutter WHERE id = ?")
            .bind(key.id)
            .fetch_optional(&mut *tx)
            .await?
            .map(Row::Cutter),
        Thing::Job => sqlx::query_as(concat!(job_rows!(), " WHERE id = ?"))
            .bind(key.id)
            .fetch_optional(&mut *tx)
            .await?
            .map(|row| Row::Job(Box::new(row))),
        Thing::Version => sqlx::query_as("SELECT * FROM formula_version WHERE id = ?")
            .bind(key.id)
            .fetch_optional(&mut *tx)
            .await?
            .map(Row::Version),
        Thing::Pantry => sqlx::query_as("SELECT * FROM pantry WHERE id = ?")
            .bind(key.id)
            .fetch_optional(&mut *tx)
            .await?
            .map(Row::Pantry),
    })
}

async fn read_lines(tx: &mut SqliteConnection, formula: i64) -> Result<Vec<LineRow>, StoreError> {
    Ok(sqlx::query_as("SELECT ingredient, grams, note FROM formula_line WHERE formula_id = ? ORDER BY position")
        .bind(formula)
        .fetch_all(&mut *tx)
        .await?)
}

pub(crate) async fn write(tx: &mut SqliteConnection, row: &Row) -> Result<(), StoreError> {
    match row {
        Row::Kitchen(k) => {
            sqlx::query(
                "INSERT INTO kitchen (id, name, room_c, fridge_c, fridge_fan, freezer_c, tray_width_mm, tray_length_mm, \
                 tray_kind, trays_owned, least_gap_mm, mixer_limit_g, rods_mm, ovens, racks_per_oven, oven_fan, \
                 preheat_min, roll_min, cut_s, bowl_ml, scale_step_g, fine_step_g, egg_class, currency, oven_readings, \
                 door_dip_k, recovery_min, hot_spots, cover_pot, altitude_m, zone) \
                 VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) \
                 ON CONFLICT (id) DO UPDATE SET name = excluded.name, room_c = excluded.room_c, \
                 fridge_c = excluded.fridge_c, fridge_fan = excluded.fridge_fan, freezer_c = excluded.freezer_c, \
                 tray_width_mm = excluded.tray_width_mm, tray_length_mm = excluded.tray_length_mm, \
                 tray_kind = excluded.tray_kind, trays_owned = excluded.trays_owned, \
                 least_gap_mm = excluded.least_gap_mm, mixer_limit_g = excluded.mixer_limit_g, \
                 rods_mm = excluded.rods_mm, ovens = excluded.ovens, racks_per_oven = excluded.racks_per_oven, \
                 oven_fan = excluded.oven_fan, preheat_min = excluded.preheat_min, roll_min = excluded.roll_min, \
                 cut_s = excluded.cut_s, bowl_ml = excluded.bowl_ml, \
                 scale_step_g = excluded.scale_step_g, fine_step_g = excluded.fine_step_g, \
                 egg_class = excluded.egg_class, currency = excluded.currency, \
                 oven_readings = excluded.oven_readings, door_dip_k = excluded.door_dip_k, \
                 recovery_min = excluded.recovery_min, hot_spots = excluded.hot_spots, \
                 cover_pot = excluded.cover_pot, altitude_m = excluded.altitude_m, \
                 zone = CASE excluded.zone WHEN '' THEN kitchen.zone ELSE excluded.zone END",
            )
            .bind(k.id)
            .bind(&k.name)
            .bind(k.room_c)
            .bind(k.fridge_c)
            .bind(k.fridge_fan)
            .bind(k.freezer_c)
            .bind(k.tray_width_mm)
            .bind(k.tray_length_mm)
            .bind(&k.tray_kind)
            .bind(k.trays_owned)
            .bind(k.least_gap_mm)
            .bind(k.mixer_limit_g)
            .bind(&k.rods_mm)
            .bind(k.ovens)
            .bind(k.racks_per_oven)
            .bind(k.oven_fan)
            .bind(k.preheat_min)
            .bind(k.roll_min)
            .bind(k.cut_s)
            .bind(k.bowl_ml)
            .bind(k.scale_step_g)
            .bind(k.fine_step_g)
            .bind(&k.egg_class)
            .bind(&k.currency)
            .bind(&k.oven_readings)
            .bind(k.door_dip_k)
            .bind(k.recovery_min)
            .bind(&k.hot_spots)
            .bind(k.cover_pot)
            .bind(k.altitude_m)
            .bind(&k.zone)
            .execute(&mut *tx)
            .await?;
        }
        Row::Formula(f) => {
            sqlx::query(
                "INSERT INTO formula (id, name) VALUES (?, ?) ON CONFLICT (id) DO UPDATE SET name = excluded.name",
            )
            .bind(f.id)
            .bind(&f.name)
            .execute(&mut *tx)
            .await?;
            sqlx::query("DELETE FROM formula_line WHERE formula_id = ?").bind(f.id).execute(&mut *tx).await?;
            for (position, line) in (0_i64..).zip(&f.lines) {
                sqlx::query(
                    "INSERT INTO formula_line (formula_id, position, ingredient, grams, note) VALUES (?, ?, ?, ?, ?)",
                )
                .bind(f.id)
                .bind(position)
                .bind(&line.ingredient)
                .bind(line.grams)
                .bind(&line.note)
                .execute(&mut *tx)
                .await?;
            }
        }
        Row::Cutter(c) => {
            sqlx::query(
                "INSERT INTO cutter (id, name, origin, points_mm, neck_mm, holes_mm) VALUES (?, ?, ?, ?, ?, ?) \
                 ON CONFLICT (id) DO UPDATE SET name = excluded.name, origin = excluded.origin, \
                 points_mm = excluded.points_mm, neck_mm = excluded.neck_mm, holes_mm = excluded.holes_mm",
            )
            .bind(c.id)
            .bind(&c.name)
            .bind(&c.origin)
            .bind(&c.points_mm)
            .bind(c.neck_mm)
            .bind(&c.holes_mm)
            .execute(&mut *tx)
            .await?;
        }
        Row::Job(j) => {
            sqlx::query(
                "INSERT INTO job (id, name, formula_id, cutter_id, pieces, thickness_mm, ready_by, method, dough_c, \
                 chill_as_disc, disc_mm, chill_place, tray_chill_place, web_mm, edge_mm, surface, rerolls, \
                 reserve_percent, oven_c, freeze_pieces, hold_back_percent, whole_eggs, tints, formula_version, dough_with, \
                 turning, layout, thickness_read, tray_layout, lot_of, making, mixed_sheets, sheet_form, sheet_width_mm, \
                 sheet_length_mm, bake_end, liner, finishes, goes_in_c, flour_rest_min) \
                 VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) \
                 ON CONFLICT (id) DO UPDATE SET name = excluded.name, formula_id = excluded.formula_id, \
                 cutter_id = excluded.cutter_id, pieces = excluded.pieces, thickness_mm = excluded.thickness_mm, \
                 ready_by = excluded.ready_by, method = excluded.method, dough_c = excluded.dough_c, \
                 chill_as_disc = excluded.chill_as_disc, disc_mm = excluded.disc_mm, \
                 chill_place = excluded.chill_place, tray_chill_place = excluded.tray_chill_place, \
                 web_mm = excluded.web_mm, edge_mm = excluded.edge_mm, surface = excluded.surface, \
                 rerolls = excluded.rerolls, reserve_percent = excluded.reserve_percent, oven_c = excluded.oven_c, \
                 freeze_pieces = excluded.freeze_pieces, hold_back_percent = excluded.hold_back_percent, \
                 whole_eggs = excluded.whole_eggs, tints = excluded.tints, \
                 formula_version = excluded.formula_version, dough_with = excluded.dough_with, \
                 turning = excluded.turning, layout = excluded.layout, thickness_read = excluded.thickness_read, \
                 tray_layout = excluded.tray_layout, lot_of = excluded.lot_of, making = excluded.making, \
                 mixed_sheets = excluded.mixed_sheets, sheet_form = excluded.sheet_form, \
                 sheet_width_mm = excluded.sheet_width_mm, sheet_length_mm = excluded.sheet_length_mm, \
                 bake_end = excluded.bake_end, liner = excluded.liner, \
                 finishes = excluded.finishes, goes_in_c = excluded.goes_in_c, \
                 flour_rest_min = excluded.flour_rest_min",
            )
            .bind(j.id)
            .bind(&j.name)
            .bind(j.formula_id)
            .bind(j.cutter_id)
            .bind(j.pieces)
            .bind(j.thickness_mm)
            .bind(&j.ready_by)
            .bind(&j.method)
            .bind(j.dough_c)
            .bind(j.chill_as_disc)
            .bind(j.disc_mm)
            .bind(&j.chill_place)
            .bind(&j.tray_chill_place)
            .bind(j.web_mm)
            .bind(j.edge_mm)
            .bind(&j.surface)
            .bind(j.rerolls)
            .bind(j.reserve_percent)
            .bind(j.oven_c)
            .bind(j.freeze_pieces)
            .bind(j.hold_back_percent)
            .bind(j.whole_eggs)
            .bind(&j.tints)
            .bind(j.formula_version)
            .bind(j.dough_with)
            .bind(&j.turning)
            .bind(&j.layout)
            .bind(&j.thickness_read)
            .bind(&j.tray_layout)
            .bind(j.lot_of)
            .bind(&j.making)
            .bind(&j.mixed_sheets)
            .bind(&j.sheet_form)
            .bind(j.sheet_width_mm)
            .bind(j.sheet_length_mm)
            .bind(&j.bake_end)
            .bind(&j.liner)
            .bind(&j.finishes)
            .bind(j.goes_in_c)
            .bind(j.flour_rest_min)
            .execute(&mut *tx)
            .await?;
        }
        Row::Version(v) => {
            sqlx::query(
                "INSERT INTO formula_version (id, formula_id, number, saved_at, name, lines) VALUES (?, ?, ?, ?, ?, ?)",
            )
            .bind(v.id)
            .bind(v.formula_id)
            .bind(v.number)
            .bind(&v.saved_at)
            .bind(&v.name)
            .bind(&v.lines)
            .execute(&mut *tx)
            .await?;
        }
        Row::Pantry(p) => {
            sqlx::query(
                "INSERT INTO pantry (id, key, entry, price_per_kg) VALUES (?, ?, ?, ?) ON CONFLICT (id) DO UPDATE SET \
                 key = excluded.key, entry = excluded.entry, price_per_kg = excluded.price_per_kg",
            )
            .bind(p.id)
            .bind(&p.key)
            .bind(&p.entry)
            .bind(p.price_per_kg)
            .execute(&mut *tx)
            .await?;
        }
    }
    Ok(())
}

pub(crate) async fn delete(tx: &mut SqliteConnection, key: Key) -> Result<(), StoreError> {
    let query = match key.thing {
        Thing::Kitchen => sqlx::query("DELETE FROM kitchen WHERE id = ?"),
        Thing::Formula => sqlx::query("DELETE FROM formula WHERE id = ?"),
        Thing::Cutter => sqlx::query("DELETE FROM cutter WHERE id = ?"),
        Thing::Job => sqlx::query("DELETE FROM job WHERE id = ?"),
        Thing::Version => sqlx::query("DELETE FROM formula_version WHERE id = ?"),
        Thing::Pantry => sqlx::query("DELETE FROM pantry WHERE id = ?"),
    };
    query.bind(key.id).execute(&mut *tx).await?;
    Ok(())
}
