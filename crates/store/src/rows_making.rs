//! How a lot's pieces are made, in the file: as it travels. Older files hold a word and its sizes in millimetres, grams or numbers.

use crate::error::StoreError;
use ready_slab_core::job::Making;
use ready_slab_core::shape::{Bent, LogForm, Portion};
use ready_slab_core::units::{Length, Mass};

/// The word, and the sizes in a fixed order.
type Older = (String, Vec<f64>);

/// To the file, as it travels.
pub(crate) fn making_text(making: &Making) -> String {
    serde_json::to_string(making).expect("numbers serialise")
}

/// From the file.
pub(crate) fn making_from(id: i64, text: &str) -> Result<Making, StoreError> {
    let damaged = |why: String| StoreError::Damaged { thing: "job", id, why };
    if !text.starts_with('[') {
        return serde_json::from_str(text).map_err(|e| damaged(format!("making: {e}")));
    }
    let (word, sizes): Older = serde_json::from_str(text).map_err(|e| damaged(format!("making: {e}")))?;
    if sizes.iter().any(|v| !v.is_finite()) {
        return Err(damaged("making: a size is not a number".to_owned()));
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
            let bent = *Bent::ALL.get(at).ok_or_else(|| damaged(format!("making: no rope is bent in way {at}")))?;
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
            return Err(damaged(format!("\u{201c}{word}\u{201d} with {sizes} sizes is no way to make pieces")));
        }
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use ready_slab_core::shape::Spoon;

    #[test]
    fn every_way_of_making_comes_back_as_it_went() {
        let (mm, g) = (Length::new_mm, Mass::new_g);
        let logs = [
            LogForm::Round,
            LogForm::Square,
            LogForm::Oblong { height_to_width: 0.6 },
            LogForm::HalfRound,
            LogForm::Wedge { height_to_width: 1.5 },
        ];
        let portions = [
            Portion::Ball { mass: g(30.5) },
            Portion::Scoop { number: 40, weighs: None },
            Portion::Scoop { number: 60, weighs: Some(g(17.0)) },
            Portion::Spoon { spoon: Spoon::Teaspoon, heaped: true, weighs: None },
            Portion::Stamped { across: mm(60.0), thickness: mm(8.0), relief: mm(1.5) },
            Portion::Rope { across: mm(12.0), length: mm(90.0), bent: Bent::Straight },
            Portion::Rope { across: mm(12.0), length: mm(200.0), bent: Bent::Knot },
            Portion::Pressed { mass: g(25.0), thickness: mm(8.0) },
            Portion::Thumbprint { mass: g(25.0), dent: mm(20.0), deep: mm(8.0) },
            Portion::Figure { parts: vec![g(20.0), g(8.0)] },
            Portion::Piped { mass: g(15.0) },
            Portion::TrayBar {
                width: mm(310.0),
                length: mm(440.0),
                depth: mm(15.0),
                corner: mm(0.0),
                columns: 4,
                rows: 6,
            },
        ];
        let all =
            logs.into_iter().map(|form| Making::Sliced { form, width: mm(48.0), longest: mm(450.0), ends_kept: true });
        for making in all.chain(portions.into_iter().map(Making::Portioned)).chain([Making::Cut]) {
            assert_eq!(making_from(1, &making_text(&making)).unwrap(), making);
        }
        for damaged in ["[\"ball\",[]]", "[\"cookie\",[1]]", "{}", "{\"kind\":\"cookie\"}", "[\"ball\",[null]]"] {
            assert!(making_from(1, damaged).is_err(), "{damaged}");
        }
    }

    #[test]
    fn what_older_files_hold_is_read() {
        let (mm, g) = (Length::new_mm, Mass::new_g);
        for (text, making) in [
            (r#"["cut",[]]"#, Making::Cut),
            (r#"["round_log",[48.0]]"#, Making::sliced(LogForm::Round, mm(48.0))),
            (r#"["wedge_log",[40.0,1.5]]"#, Making::sliced(LogForm::Wedge { height_to_width: 1.5 }, mm(40.0))),
            (r#"["scoop",[40.0]]"#, Making::Portioned(Portion::Scoop { number: 40, weighs: None })),
            (
                r#"["rope",[12.0,90.0]]"#,
                Making::Portioned(Portion::Rope { across: mm(12.0), length: mm(90.0), bent: Bent::Straight }),
            ),
            (
                r#"["rope",[12.0,200.0,3.0]]"#,
                Making::Portioned(Portion::Rope { across: mm(12.0), length: mm(200.0), bent: Bent::Knot }),
            ),
            (r#"["figure",[20.0,8.0]]"#, Making::Portioned(Portion::Figure { parts: vec![g(20.0), g(8.0)] })),
        ] {
            assert_eq!(making_from(1, text).unwrap(), making, "{text}");
        }
    }
}
