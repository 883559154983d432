//! The oven's readings and its map, and the finishes of a job, in the file.

use crate::error::StoreError;
use ready_slab_core::finish::{Coat, FillingKind, SugarCoat};
use ready_slab_core::job::OvenMeasured;
use ready_slab_core::oven::{HotSpotsInput, SpotTest};
use ready_slab_core::units::Share;
use serde::{Deserialize, Serialize};

/// What was laid out, columns, rows, shades.
#[derive(Serialize, Deserialize)]
struct SpotsInFile(SpotTest, u32, u32, Vec<Option<u8>>);

/// A word, and its figures in the order of the core's fields.
type CoatInFile = (String, Vec<f64>);

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

pub(crate) fn finishes_text(coats: &[Coat]) -> String {
    let one = |coat: &Coat| -> CoatInFile {
        let (word, figures) = match *coat {
            Coat::Sugar(SugarCoat::Coarse) => ("coarse_sugar", vec![]),
            Coat::Sugar(SugarCoat::Powdered) => ("powdered_sugar", vec![]),
            Coat::Glaze { sugar_parts, film_mm, spirit: false } => ("water_glaze", vec![sugar_parts, film_mm]),
            Coat::Glaze { sugar_parts, film_mm, spirit: true } => ("spirit_glaze", vec![sugar_parts, film_mm]),
            Coat::Dip { part, film_mm } => ("dip", vec![part.value(), film_mm]),
            Coat::Drizzle => ("drizzle", vec![]),
            Coat::Royal { film_mm, fresh_white: false } => ("royal", vec![film_mm]),
            Coat::Royal { film_mm, fresh_white: true } => ("royal_fresh", vec![film_mm]),
            Coat::Fondant { film_mm } => ("fondant", vec![film_mm]),
            Coat::Buttercream { film_mm } => ("buttercream", vec![film_mm]),
            Coat::Filling { kind: FillingKind::Jam, layer_mm } => ("jam", vec![layer_mm]),
            Coat::Filling { kind: FillingKind::Chocolate, layer_mm } => ("chocolate_filling", vec![layer_mm]),
            Coat::Filling { kind: FillingKind::Icing, layer_mm } => ("icing", vec![layer_mm]),
        };
        (word.to_owned(), figures)
    };
    serde_json::to_string(&coats.iter().map(one).collect::<Vec<_>>()).expect("numbers serialise")
}

pub(crate) fn finishes_from(id: i64, text: &str) -> Result<Vec<Coat>, StoreError> {
    let damaged = |why: String| StoreError::Damaged { thing: "job", id, why };
    let all: Vec<CoatInFile> = serde_json::from_str(text).map_err(|e| damaged(format!("finishes: {e}")))?;
    all.into_iter()
        .map(|(word, figures)| {
            let filling = |kind| Coat::Filling { kind, layer_mm: figures[0] };
            let glaze = |spirit| Coat::Glaze { sugar_parts: figures[0], film_mm: figures[1], spirit };
            Ok(match (word.as_str(), figures.len()) {
                ("coarse_sugar", 0) => Coat::Sugar(SugarCoat::Coarse),
                ("powdered_sugar", 0) => Coat::Sugar(SugarCoat::Powdered),
                ("water_glaze", 2) => glaze(false),
                ("spirit_glaze", 2) => glaze(true),
                ("dip", 2) if figures[0].is_finite() => Coat::Dip { part: Share::new(figures[0]), film_mm: figures[1] },
                ("drizzle", 0) => Coat::Drizzle,
                ("royal", 1) => Coat::Royal { film_mm: figures[0], fresh_white: false },
                ("royal_fresh", 1) => Coat::Royal { film_mm: figures[0], fresh_white: true },
                ("fondant", 1) => Coat::Fondant { film_mm: figures[0] },
                ("buttercream", 1) => Coat::Buttercream { film_mm: figures[0] },
                ("jam", 1) => filling(FillingKind::Jam),
                ("chocolate_filling", 1) => filling(FillingKind::Chocolate),
                ("icing", 1) => filling(FillingKind::Icing),
                _ => return Err(damaged(format!("finishes: {word} with {} figures", figures.len()))),
            })
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn all_finishes_come_back_as_they_were() {
        let all = vec![
            Coat::Sugar(SugarCoat::Coarse),
            Coat::Sugar(SugarCoat::Powdered),
            Coat::Glaze { sugar_parts: 7.0, film_mm: 0.5, spirit: false },
            Coat::Glaze { sugar_parts: 6.5, film_mm: 0.4, spirit: true },
            Coat::Dip { part: Share::new(0.4), film_mm: 1.1 },
            Coat::Drizzle,
            Coat::Royal { film_mm: 1.5, fresh_white: false },
            Coat::Royal { film_mm: 2.0, fresh_white: true },
            Coat::Fondant { film_mm: 2.5 },
            Coat::Buttercream { film_mm: 4.0 },
            Coat::Filling { kind: FillingKind::Jam, layer_mm: 2.0 },
            Coat::Filling { kind: FillingKind::Chocolate, layer_mm: 3.0 },
            Coat::Filling { kind: FillingKind::Icing, layer_mm: 1.5 },
        ];
        assert_eq!(finishes_from(1, &finishes_text(&all)).unwrap(), all);
        assert!(finishes_from(1, r#"[["jam",[]]]"#).is_err() && finishes_from(1, "{").is_err());
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
