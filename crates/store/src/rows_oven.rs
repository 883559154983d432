//! The oven's readings and its map, and the finishes of a job, in the file.

use crate::error::StoreError;
use ready_slab_core::finish::Finish;
use ready_slab_core::job::OvenMeasured;
use ready_slab_core::oven::{HotSpotsInput, SpotTest};
use serde::{Deserialize, Serialize};

/// What was laid out, columns, rows, shades.
#[derive(Serialize, Deserialize)]
struct SpotsInFile(SpotTest, u32, u32, Vec<Option<u8>>);

/// Set, read, swing; older files have no swing.
pub(crate) fn readings_text(readings: &[OvenMeasured]) -> String {
    let all: Vec<[f64; 3]> = readings.iter().map(|r| [r.set_c, r.read_c, r.swing_k]).collect();
    serde_json::to_string(&all).expect("numbers serialise")
}

pub(crate) fn readings_from(id: i64, text: &str) -> Result<Vec<OvenMeasured>, StoreError> {
    let damaged = |why: String| StoreError::Damaged { thing: "kitchen", id, why };
    let all: Vec<Vec<f64>> = serde_json::from_str(text).map_err(|e| damaged(format!("readings of the oven: {e}")))?;
    all.into_iter()
        .map(|r| match r[..] {
            [set_c, read_c] => Ok(OvenMeasured { set_c, read_c, swing_k: 0.0 }),
            [set_c, read_c, swing_k] => Ok(OvenMeasured { set_c, read_c, swing_k }),
            _ => Err(damaged("a reading of the oven is not of two or three figures".to_owned())),
        })
        .collect()
}

pub(crate) fn spots_text(spots: Option<&HotSpotsInput>) -> String {
    let in_file = spots.map(|s| SpotsInFile(s.test, s.columns, s.rows, s.shades.clone()));
    serde_json::to_string(&in_file).expect("numbers serialise")
}

pub(crate) fn spots_from(id: i64, text: &str) -> Result<Option<HotSpotsInput>, StoreError> {
    let damaged = |why: String| StoreError::Damaged { thing: "kitchen", id, why };
    let in_file: Option<SpotsInFile> = serde_json::from_str(text).map_err(|e| damaged(format!("hot spots: {e}")))?;
    let spots = in_file.map(|SpotsInFile(test, columns, rows, shades)| HotSpotsInput { test, columns, rows, shades });
    if let Some(map) = &spots {
        map.checked().map_err(|e| damaged(format!("hot spots: {e}")))?;
    }
    Ok(spots)
}

/// As they travel, in words and figures.
pub(crate) fn finishes_text(finishes: &[Finish]) -> String {
    serde_json::to_string(finishes).expect("numbers serialise")
}

/// Files of before kept a word and its figures in a row, one for each finish.
pub(crate) fn finishes_from(id: i64, text: &str) -> Result<Vec<Finish>, StoreError> {
    let damaged = |why: String| StoreError::Damaged { thing: "job", id, why };
    let all: Vec<serde_json::Value> = serde_json::from_str(text).map_err(|e| damaged(format!("finishes: {e}")))?;
    all.into_iter()
        .map(|one| {
            let key = if one.is_array() { older_finish(&one) } else { Ok(one) };
            let finish: Finish = key.and_then(serde_json::from_value).map_err(|e| damaged(format!("finishes: {e}")))?;
            finish.checked().map_err(|e| damaged(format!("finishes: {e}")))?;
            Ok(finish)
        })
        .collect()
}

fn older_finish(one: &serde_json::Value) -> Result<serde_json::Value, serde_json::Error> {
    let (word, figures): (String, Vec<f64>) = serde_json::from_value(one.clone())?;
    let names: &[&str] = match word.as_str() {
        "water_glaze" | "spirit_glaze" => &["sugar_parts", "film_mm"],
        "dip" => &["part_percent", "film_mm"],
        "royal" | "royal_fresh" | "fondant" | "buttercream" => &["film_mm"],
        "jam" | "chocolate_filling" | "icing" => &["layer_mm"],
        _ => &[],
    };
    if names.len() != figures.len() {
        return Err(serde::de::Error::custom(format!("{word} with {} figures", figures.len())));
    }
    let mut key = serde_json::Map::from_iter([("kind".to_owned(), word.into())]);
    for (name, figure) in names.iter().zip(figures) {
        // The part of a dip was a share.
        let figure = if *name == "part_percent" { figure * 100.0 } else { figure };
        key.insert((*name).to_owned(), figure.into());
    }
    Ok(key.into())
}

#[cfg(test)]
mod tests {
    use super::*;
    use ready_slab_core::dough::TintInput;
    use ready_slab_core::finish::{Coat, FillingKind, GlazeWay, SugarCoat};
    use ready_slab_core::units::Share;

    #[test]
    fn all_finishes_come_back_as_they_were() {
        let mut all: Vec<Finish> = [
            Coat::Sugar(SugarCoat::Coarse),
            Coat::Sugar(SugarCoat::CoarseAfter),
            Coat::Sugar(SugarCoat::Powdered),
            Coat::Glaze { way: GlazeWay::Spread, sugar_parts: 6.5, film_mm: 0.4, spirit: true },
            Coat::usual_glaze(GlazeWay::Spread, false),
            Coat::usual_glaze(GlazeWay::Drizzled, false),
            Coat::usual_glaze(GlazeWay::Dipped, false),
            Coat::Dip { part: Share::new(0.4), film_mm: 1.1 },
            Coat::Drizzle,
            Coat::Royal { film_mm: 1.5, fresh_white: false },
            Coat::Royal { film_mm: 2.0, fresh_white: true },
            Coat::Fondant { film_mm: 2.5 },
            Coat::Buttercream { film_mm: 4.0 },
            Coat::Filling { kind: FillingKind::Jam, layer_mm: 2.0 },
            Coat::Filling { kind: FillingKind::Chocolate, layer_mm: 3.0 },
            Coat::Filling { kind: FillingKind::Icing, layer_mm: 1.5 },
            Coat::JamBaked { each_g: 1.5 },
        ]
        .map(Finish::from)
        .to_vec();
        all[9].pieces = Some(24);
        all[9].colours = vec![TintInput { name: "red".into(), percent: 25.0 }];
        assert_eq!(finishes_from(1, &finishes_text(&all)).unwrap(), all);
        assert!(finishes_from(1, r#"[["jam",[]]]"#).is_err() && finishes_from(1, "{").is_err());
        assert!(finishes_from(1, r#"[{"kind":"royal","film_mm":99}]"#).is_err());
    }

    #[test]
    fn finishes_of_older_files_are_read() {
        let all = finishes_from(1, r#"[["water_glaze",[7.0,0.5]],["dip",[0.4,1.1]],["drizzle",[]]]"#).unwrap();
        let dip = Coat::Dip { part: Share::new(0.4), film_mm: 1.1 };
        assert_eq!(all, [Coat::usual_glaze(GlazeWay::Spread, false), dip, Coat::Drizzle].map(Finish::from));
    }

    #[test]
    fn readings_of_older_files_have_no_swing() {
        let all = readings_from(1, "[[175.0,168.0],[190.0,180.0,6.0]]").unwrap();
        assert_eq!((all[0].swing_k, all[1].swing_k), (0.0, 6.0));
        assert_eq!(readings_from(1, &readings_text(&all)).unwrap(), all);
        assert!(readings_from(1, "[[175.0]]").is_err());
    }

    #[test]
    fn a_map_of_the_oven_comes_back_and_a_damaged_one_is_told() {
        let spots = HotSpotsInput { test: SpotTest::Sugar, columns: 2, rows: 1, shades: vec![Some(4), None] };
        assert_eq!(spots_from(1, &spots_text(Some(&spots))).unwrap(), Some(spots));
        assert_eq!(spots_from(1, "null").unwrap(), None);
        assert!(spots_from(1, r#"["butter",1,1,[3]]"#).is_err() && spots_from(1, r#"["bread",2,1,[3]]"#).is_err());
    }
}
