//! How a lot's pieces are made, in the file: a word and its sizes in millimetres, grams or numbers.

use crate::error::StoreError;
use ready_slab_core::job::Making;
use ready_slab_core::shape::{Bent, LogForm, Portion};
use ready_slab_core::units::{Length, Mass};

/// The word, and the sizes in the order of the core's fields.
type InFile = (String, Vec<f64>);

/// To the file.
pub(crate) fn making_text(making: &Making) -> String {
    let mm = |l: &Length| l.mm();
    let (word, sizes): (&str, Vec<f64>) = match making {
        Making::Cut => ("cut", vec![]),
        Making::Sliced { form, width } => match form {
            LogForm::Round => ("round_log", vec![width.mm()]),
            LogForm::Square => ("square_log", vec![width.mm()]),
            LogForm::Oblong { height_to_width } => ("oblong_log", vec![width.mm(), *height_to_width]),
            LogForm::HalfRound => ("half_round_log", vec![width.mm()]),
            LogForm::Wedge { height_to_width } => ("wedge_log", vec![width.mm(), *height_to_width]),
        },
        Making::Portioned(portion) => match portion {
            Portion::Ball { mass } => ("ball", vec![mass.g()]),
            Portion::Scoop { number } => ("scoop", vec![f64::from(*number)]),
            Portion::Rope { across, length, bent } => {
                let at = Bent::ALL.iter().position(|b| b == bent).unwrap_or(0);
                ("rope", vec![mm(across), mm(length), f64::from(u32::try_from(at).unwrap_or(0))])
            }
            Portion::Pressed { mass, thickness } => ("pressed", vec![mass.g(), mm(thickness)]),
            Portion::Thumbprint { mass, dent, deep } => ("thumbprint", vec![mass.g(), mm(dent), mm(deep)]),
            Portion::Figure { parts } => ("figure", parts.iter().map(|p| p.g()).collect()),
            Portion::Piped { mass } => ("piped", vec![mass.g()]),
            Portion::TrayBar { width, length, depth, columns, rows } => {
                ("tray_bar", vec![mm(width), mm(length), mm(depth), f64::from(*columns), f64::from(*rows)])
            }
        },
    };
    serde_json::to_string(&(word, sizes)).expect("numbers serialise")
}

/// From the file.
pub(crate) fn making_from(id: i64, text: &str) -> Result<Making, StoreError> {
    let damaged = |why: String| StoreError::Damaged { thing: "job", id, why };
    let (word, sizes): InFile = serde_json::from_str(text).map_err(|e| damaged(format!("making: {e}")))?;
    if sizes.iter().any(|v| !v.is_finite()) {
        return Err(damaged("making: a size is not a number".to_owned()));
    }
    let (mm, g) = (|i: usize| Length::new_mm(sizes[i]), |i: usize| Mass::new_g(sizes[i]));
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "clamped to the range of counts")]
    let count = |i: usize| sizes[i].clamp(0.0, 1e6) as u32;
    let portion = Making::Portioned;
    Ok(match (word.as_str(), sizes.len()) {
        ("cut", 0) => Making::Cut,
        ("round_log", 1) => Making::Sliced { form: LogForm::Round, width: mm(0) },
        ("square_log", 1) => Making::Sliced { form: LogForm::Square, width: mm(0) },
        ("oblong_log", 2) => Making::Sliced { form: LogForm::Oblong { height_to_width: sizes[1] }, width: mm(0) },
        ("half_round_log", 1) => Making::Sliced { form: LogForm::HalfRound, width: mm(0) },
        ("wedge_log", 2) => Making::Sliced { form: LogForm::Wedge { height_to_width: sizes[1] }, width: mm(0) },
        ("ball", 1) => portion(Portion::Ball { mass: g(0) }),
        ("scoop", 1) => portion(Portion::Scoop { number: count(0) }),
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
            portion(Portion::TrayBar { width: mm(0), length: mm(1), depth: mm(2), columns: count(3), rows: count(4) })
        }
        (word, sizes) => {
            return Err(damaged(format!("\u{201c}{word}\u{201d} with {sizes} sizes is no way to make pieces")));
        }
    })
}

#[cfg(test)]
mod tests {
    use super::*;

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
            Portion::Scoop { number: 40 },
            Portion::Rope { across: mm(12.0), length: mm(90.0), bent: Bent::Straight },
            Portion::Rope { across: mm(12.0), length: mm(200.0), bent: Bent::Knot },
            Portion::Pressed { mass: g(25.0), thickness: mm(8.0) },
            Portion::Thumbprint { mass: g(25.0), dent: mm(20.0), deep: mm(8.0) },
            Portion::Figure { parts: vec![g(20.0), g(8.0)] },
            Portion::Piped { mass: g(15.0) },
            Portion::TrayBar { width: mm(310.0), length: mm(440.0), depth: mm(15.0), columns: 4, rows: 6 },
        ];
        let all = logs.into_iter().map(|form| Making::Sliced { form, width: mm(48.0) });
        for making in all.chain(portions.into_iter().map(Making::Portioned)).chain([Making::Cut]) {
            assert_eq!(making_from(1, &making_text(&making)).unwrap(), making);
        }
        for damaged in ["[\"ball\",[]]", "[\"cookie\",[1]]", "{}", "[\"ball\",[null]]"] {
            assert!(making_from(1, damaged).is_err(), "{damaged}");
        }
    }
}
