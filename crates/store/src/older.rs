//! Jobs and kitchens of the days when each setting was a column of its own, made into documents: in the file, among its edits, beside bakes.

use ready_slab_core::job::Making;
use ready_slab_core::shape::{Bent, LogForm, Portion};
use ready_slab_core::units::{Length, Mass};
use serde::Deserialize;
use serde::de::DeserializeOwned;
use serde_json::{Map, Value, json};
use sqlx::sqlite::SqliteRow;
use sqlx::{Column as _, Row as _, SqliteConnection, TypeInfo as _, ValueRef as _};

type Fields = Map<String, Value>;

/// A job's document from its columns.
pub(crate) fn job(mut columns: Fields) -> Result<Value, String> {
    for key in ["id", "revision", "document"] {
        columns.remove(key);
    }
    for (then, now) in [
        ("sheet_form", "sheet"),
        ("thickness_read", "measured"),
        ("mixed_sheets", "mixed"),
        ("chill_as_disc", "dough_form"),
    ] {
        if let Some(value) = columns.remove(then) {
            columns.insert(now.to_owned(), value);
        }
    }
    yes_or_no(&mut columns, &["cut_in_place", "pricked", "whole_eggs"]);
    if let Some(Value::Number(disc)) = columns.get("dough_form") {
        let disc = disc.as_i64() != Some(0);
        columns.insert("dough_form".to_owned(), disc.into());
    }
    if let Some(Value::Bool(disc)) = columns.get("dough_form") {
        let form = if *disc { "disc" } else { "sheets" };
        columns.insert("dough_form".to_owned(), form.into());
    }
    let place = |[x, y, turn]: [f64; 3]| json!({ "x_mm": x, "y_mm": y, "turn_deg": turn });
    lists(&mut columns, "layout", place)?;
    lists(&mut columns, "tray_layout", place)?;
    lists(&mut columns, "tints", |(name, percent): (String, f64)| json!({ "name": name, "percent": percent }))?;
    lists(
        &mut columns,
        "measured",
        |(columns, rows, read): (u32, u32, Vec<Option<f64>>)| json!({ "columns": columns, "rows": rows, "read_mm": read }),
    )?;
    lists(&mut columns, "mixed", |(length, pieces): (f64, Vec<(i64, f64, f64, f64)>)| {
        let piece =
            |(job, x, y, turn): (i64, f64, f64, f64)| json!({ "job_id": job, "x_mm": x, "y_mm": y, "turn_deg": turn });
        json!({ "length_mm": length, "pieces": pieces.into_iter().map(piece).collect::<Vec<_>>() })
    })?;
    if let Some(Value::String(text)) = columns.get("making") {
        let making = serde_json::to_value(making(text)?).map_err(|e| e.to_string())?;
        columns.insert("making".to_owned(), making);
    }
    lists(&mut columns, "finishes", |one: Value| one)?;
    if let Some(Value::Array(all)) = columns.get_mut("finishes") {
        for one in all.iter_mut().filter(|one| one.is_array()) {
            *one = finish(one)?;
        }
    }
    Ok(columns.into())
}

/// A kitchen's document from its columns.
pub(crate) fn kitchen(mut columns: Fields) -> Result<Value, String> {
    for key in ["id", "document"] {
        columns.remove(key);
    }
    yes_or_no(&mut columns, &["fridge_fan", "oven_fan", "cover_pot", "small_oven"]);
    lists(&mut columns, "rods_mm", |mm: f64| mm.into())?;
    // Earlier ones have no swing.
    lists(
        &mut columns,
        "oven_readings",
        |r: Vec<f64>| json!({ "set_c": r.first(), "read_c": r.get(1), "swing_k": r.get(2).copied().unwrap_or(0.0) }),
    )?;
    if let Some(Value::String(text)) = columns.get("hot_spots") {
        let map: Option<(Value, u32, u32, Vec<Option<u8>>)> =
            serde_json::from_str(text).map_err(|e| format!("hot spots: {e}"))?;
        let map = map.map(
            |(test, columns, rows, shades)| json!({ "test": test, "columns": columns, "rows": rows, "shades": shades }),
        );
        columns.insert("hot_spots".to_owned(), map.unwrap_or_default());
    }
    Ok(columns.into())
}

/// The file has no yes and no, only 0 and 1.
fn yes_or_no(columns: &mut Fields, names: &[&str]) {
    for name in names {
        if let Some(Value::Number(number)) = columns.get(*name) {
            let yes = number.as_i64() != Some(0);
            columns.insert((*name).to_owned(), yes.into());
        }
    }
}

/// A list that was text in its column.
fn lists<T: DeserializeOwned>(columns: &mut Fields, name: &str, one: impl Fn(T) -> Value) -> Result<(), String> {
    if let Some(Value::String(text)) = columns.get(name) {
        let all: Vec<T> = serde_json::from_str(text).map_err(|e| format!("{name}: {e}"))?;
        columns.insert(name.to_owned(), all.into_iter().map(one).collect());
    }
    Ok(())
}

/// The word, and the sizes in a fixed order.
type Older = (String, Vec<f64>);

/// How pieces are made: as it travels, or a word and its sizes in millimetres, grams or numbers.
fn making(text: &str) -> Result<Making, String> {
    if !text.starts_with('[') {
        return serde_json::from_str(text).map_err(|e| format!("making: {e}"));
    }
    let (word, sizes): Older = serde_json::from_str(text).map_err(|e| format!("making: {e}"))?;
    if sizes.iter().any(|v| !v.is_finite()) {
        return Err("making: a size is not a number".to_owned());
    }
    let (mm, g) = (|i: usize| Length::new_mm(sizes[i]), |i: usize| Mass::new_g(sizes[i]));
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "clamped to the range of counts")]
    let count = |i: usize| sizes[i].clamp(0.0, 1e6) as u32;
    let portion = Making::Portioned;
    Ok(match (word.as_str(), sizes.len()) {
        ("cut", 0) => Making::Cut,
        ("round_log", 1) => Making::sliced(LogForm::Round, mm(0)),
        ("square_log", 1) => Making::sliced(LogForm::Square, mm(0)),
        ("oblong_log", 2) => Making::sliced(LogForm::Oblong { height_to_width: sizes[1] }, mm(0)),
        ("half_round_log", 1) => Making::sliced(LogForm::HalfRound, mm(0)),
        ("wedge_log", 2) => Making::sliced(LogForm::Wedge { height_to_width: sizes[1] }, mm(0)),
        ("ball", 1) => portion(Portion::Ball { mass: g(0) }),
        ("scoop", 1) => portion(Portion::Scoop { number: count(0), weighs: None }),
        // Ropes of earlier days were straight.
        ("rope", 2 | 3) => {
            let at = sizes.get(2).map_or(0, |_| count(2) as usize);
            let bent = *Bent::ALL.get(at).ok_or_else(|| format!("making: no rope is bent in way {at}"))?;
            portion(Portion::Rope { across: mm(0), length: mm(1), bent })
        }
        ("pressed", 2) => portion(Portion::Pressed { mass: g(0), thickness: mm(1) }),
        ("thumbprint", 3) => portion(Portion::Thumbprint { mass: g(0), dent: mm(1), deep: mm(2) }),
        ("figure", _) => portion(Portion::Figure { parts: (0..sizes.len()).map(g).collect() }),
        ("piped", 1) => portion(Portion::Piped { mass: g(0) }),
        ("tray_bar", 5) => {
            let (depth, corner) = (mm(2), Length::new_mm(0.0));
            portion(Portion::TrayBar { width: mm(0), length: mm(1), depth, corner, columns: count(3), rows: count(4) })
        }
        (word, sizes) => {
            return Err(format!("\u{201c}{word}\u{201d} with {sizes} sizes is no way to make pieces"));
        }
    })
}

/// Files of before kept a word and its figures in a row, one for each finish.
fn finish(one: &Value) -> Result<Value, String> {
    let (word, figures) = <(String, Vec<f64>)>::deserialize(one).map_err(|e| format!("finishes: {e}"))?;
    let names: &[&str] = match word.as_str() {
        "water_glaze" | "spirit_glaze" => &["sugar_parts", "film_mm"],
        "dip" => &["part_percent", "film_mm"],
        "royal" | "royal_fresh" | "fondant" | "buttercream" => &["film_mm"],
        "jam" | "chocolate_filling" | "icing" => &["layer_mm"],
        _ => &[],
    };
    if names.len() != figures.len() {
        return Err(format!("finishes: {word} with {} figures", figures.len()));
    }
    let mut key = Fields::from_iter([("kind".to_owned(), word.into())]);
    for (name, figure) in names.iter().zip(figures) {
        // The part of a dip was a share.
        let figure = if *name == "part_percent" { figure * 100.0 } else { figure };
        key.insert((*name).to_owned(), figure.into());
    }
    Ok(key.into())
}

/// Writes the documents of rows that have none yet, from their columns. What cannot be read stays as it is: it is told as damaged, and can be deleted.
pub(crate) async fn write_documents(conn: &mut SqliteConnection) -> Result<(), sqlx::Error> {
    for (select, update, document) in [
        (
            "SELECT * FROM job WHERE document = ''",
            "UPDATE job SET document = ? WHERE id = ?",
            job as fn(Fields) -> Result<Value, String>,
        ),
        ("SELECT * FROM kitchen WHERE document = ''", "UPDATE kitchen SET document = ? WHERE id = ?", kitchen),
    ] {
        for row in sqlx::query(select).fetch_all(&mut *conn).await? {
            let columns = fields(&row)?;
            let made = document(columns.clone()).unwrap_or_else(|_| columns.into());
            let id: i64 = row.try_get("id")?;
            sqlx::query(update).bind(made.to_string()).bind(id).execute(&mut *conn).await?;
        }
    }
    Ok(())
}

fn fields(row: &SqliteRow) -> Result<Fields, sqlx::Error> {
    let one = |at: usize| -> Result<(String, Value), sqlx::Error> {
        let raw = row.try_get_raw(at)?;
        let value = match (raw.is_null(), raw.type_info().name()) {
            (true, _) => Value::Null,
            (_, "INTEGER") => row.try_get::<i64, _>(at)?.into(),
            (_, "REAL") => row.try_get::<f64, _>(at)?.into(),
            _ => row.try_get::<String, _>(at)?.into(),
        };
        Ok((row.column(at).name().to_owned(), value))
    };
    (0..row.columns().len()).map(one).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use ready_slab_core::finish::{Coat, Finish, GlazeWay};
    use ready_slab_core::job::{Job, JobInput, Kitchen, KitchenInput};
    use ready_slab_core::units::Share;

    fn columns(all: Value) -> Fields {
        serde_json::from_value(all).unwrap()
    }

    /// As rows were written before documents came.
    fn gulls() -> Value {
        serde_json::from_str(
            r#"{
                "id": 7, "name": "Gulls", "formula_id": 1, "cutter_id": 2, "pieces": 48, "thickness_mm": 6.0, "ready_by": "2026-11-28T14:00",
                "ready_means": null, "method": "just_combined", "dough_c": null, "dough_form": "disc", "sheet_stack": 1, "dough_for": null,
                "dough_for_min": 60.0, "pieces_for": null, "pieces_for_min": 15.0, "disc_mm": 22.0, "chill_place": "fridge",
                "tray_chill_place": "freezer", "bulk_for": "no", "bulk_for_min": 60.0, "thaws": null, "cut_in_place": false, "pricked": true,
                "web_mm": 3.0, "edge_mm": 4.0, "surface": "floured_board", "rerolls": 2, "reserve_percent": 3.0, "oven_c": 175.0,
                "freeze_pieces": 0, "hold_back_percent": 0.0, "whole_eggs": true, "tints": "[[\"red\",25.0]]", "formula_version": null,
                "dough_with": null, "turning": "free", "layout": "[[10.0,20.0,90.0]]", "thickness_read": "[[2,1,[6.0,null]]]",
                "tray_layout": "[]", "lot_of": null, "making": "[\"round_log\",[48.0]]", "mixed_sheets": "[[300.0,[[7,1.0,2.0,3.0]]]]",
                "sheet_form": "oblong", "sheet_width_mm": null, "sheet_length_mm": null, "bake_end": "golden", "liner": "parchment",
                "finishes": "[[\"water_glaze\",[7.0,0.5]],{\"kind\":\"drizzle\"}]", "goes_in_c": null, "flour_rest_min": null}"#,
        )
        .unwrap()
    }

    #[test]
    fn a_job_of_columns_becomes_the_same_job() {
        let input: JobInput = serde_json::from_value(job(columns(gulls())).unwrap()).unwrap();
        assert_eq!((input.order.name.as_str(), input.order.pieces, input.cold.disc_mm), ("Gulls", 48, 22.0));
        assert_eq!(
            (input.shape.layout[0].turn_deg, input.shape.measured[0].read_mm.clone()),
            (90.0, vec![Some(6.0), None])
        );
        assert_eq!((input.shape.mixed[0].length_mm, input.shape.mixed[0].pieces[0].job_id), (300.0, 7));
        assert_eq!((input.dough.tints[0].percent, input.shape.pricked, input.dough.whole_eggs), (25.0, true, true));
        assert_eq!(input.shape.making, Making::sliced(LogForm::Round, Length::new_mm(48.0)));
        let glaze = Finish::from(Coat::usual_glaze(GlazeWay::Spread, false));
        assert_eq!(input.finish.finishes, [glaze, Finish::from(Coat::Drizzle)]);
        assert!(Job::new(input).is_ok());
    }

    #[test]
    fn an_edit_of_before_there_were_three_forms_tells_whether_it_is_a_disc() {
        for (disc, form) in [(json!(true), "disc"), (json!(0), "sheets")] {
            let mut then = columns(gulls());
            then.remove("dough_form");
            then.insert("chill_as_disc".to_owned(), disc);
            let input: JobInput = serde_json::from_value(job(then).unwrap()).unwrap();
            assert_eq!(serde_json::to_value(input.cold.dough_form).unwrap(), form);
        }
    }

    #[test]
    fn what_older_columns_hold_of_making_is_read() {
        let (mm, g) = (Length::new_mm, Mass::new_g);
        for (text, is) in [
            (r#"["cut",[]]"#, Making::Cut),
            (r#"["wedge_log",[40.0,1.5]]"#, Making::sliced(LogForm::Wedge { height_to_width: 1.5 }, mm(40.0))),
            (r#"["scoop",[40.0]]"#, Making::Portioned(Portion::Scoop { number: 40, weighs: None })),
            (
                r#"["rope",[12.0,200.0,3.0]]"#,
                Making::Portioned(Portion::Rope { across: mm(12.0), length: mm(200.0), bent: Bent::Knot }),
            ),
            (r#"["figure",[20.0,8.0]]"#, Making::Portioned(Portion::Figure { parts: vec![g(20.0), g(8.0)] })),
        ] {
            assert_eq!(making(text).unwrap(), is, "{text}");
        }
        for damaged in ["[\"ball\",[]]", "[\"cookie\",[1]]", "{}", "{\"kind\":\"cookie\"}", "[\"ball\",[null]]"] {
            assert!(making(damaged).is_err(), "{damaged}");
        }
    }

    #[test]
    fn finishes_of_older_columns_are_read() {
        let found: Finish = serde_json::from_value(finish(&json!(["dip", [0.4, 1.1]])).unwrap()).unwrap();
        assert_eq!(found, Finish::from(Coat::Dip { part: Share::new(0.4), film_mm: 1.1 }));
        assert!(finish(&json!(["jam", []])).is_err());
    }

    #[test]
    fn a_kitchen_of_columns_becomes_the_same_kitchen() {
        let then = columns(json!({
            "id": 1, "name": "Tern Street Bakehouse", "room_c": 21.0, "fridge_fan": 1, "rods_mm": "[3.0,6.0]",
            "oven_readings": "[[175.0,168.0],[190.0,180.0,6.0]]", "hot_spots": "[\"sugar\",2,1,[4,null]]", "zone": "",
        }));
        let input: KitchenInput = serde_json::from_value(kitchen(then).unwrap()).unwrap();
        assert_eq!(
            (input.house.room_c, input.cold.fridge_fan, input.trays.rods_mm.clone()),
            (21.0, true, vec![3.0, 6.0])
        );
        assert_eq!((input.oven.oven_readings[0].swing_k, input.oven.oven_readings[1].swing_k), (0.0, 6.0));
        assert_eq!(input.oven.hot_spots.as_ref().unwrap().shades, [Some(4), None]);
        assert!(Kitchen::new(input).is_ok());
        let none = kitchen(columns(json!({ "hot_spots": "null" }))).unwrap();
        assert!(none["hot_spots"].is_null());
        assert!(kitchen(columns(json!({ "hot_spots": "[" }))).is_err());
    }
}
