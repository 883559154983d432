//! How long what was baked keeps, by its kind. Common practice, no source; local rules on shelf life decide.

use super::Coat;
use crate::dough::{Formula, Kind};

/// Shelf and freezer of baked pieces.
#[derive(Debug, Clone, PartialEq)]
pub struct BakedKeeping {
    /// In an airtight tin in a cool room, days: the careful and the usual end.
    pub tin_days: (f64, f64),
    /// Frozen well wrapped, months; nothing where it does not freeze well.
    pub freezer_months: Option<(f64, f64)>,
    /// Whether it has to stand in the cold.
    pub in_the_cold: bool,
    /// Why, as sentences.
    pub reasons: Vec<String>,
}

/// Plain, short pieces in a tin: weeks. Rich in egg or with syrup: softer, so shorter. Much nut goes stale sooner.
const PLAIN_DAYS: (f64, f64) = (14.0, 28.0);
const SOFT_DAYS: (f64, f64) = (7.0, 14.0);
const GLAZED_DAYS: (f64, f64) = (7.0, 14.0);
const FILLED_DAYS: (f64, f64) = (1.0, 2.0);
const PLAIN_MONTHS: (f64, f64) = (2.0, 3.0);
const NUTTY_MONTHS: (f64, f64) = (1.0, 2.0);
const FILLED_MONTHS: (f64, f64) = (0.5, 1.0);
/// Of the dough: from here on it counts as rich in egg or syrup, or as nutty.
const SOFT_FROM: f64 = 0.12;
const NUTTY_FROM: f64 = 0.05;

/// How long pieces of a formula keep once they are finished.
#[must_use]
pub fn baked_keeping(formula: &Formula, coats: &[Coat]) -> BakedKeeping {
    let share = |kind: Kind| formula.kind_mass(kind) / formula.total();
    let soft = share(Kind::Egg) + share(Kind::Syrup) >= SOFT_FROM;
    let nutty = share(Kind::Nut) + share(Kind::Seed) + share(Kind::Meal) >= NUTTY_FROM;
    let mut reasons = Vec::new();
    let (mut tin, mut freezer) = (PLAIN_DAYS, PLAIN_MONTHS);
    if soft {
        tin = SOFT_DAYS;
        reasons.push("Rich in egg or syrup it stays soft, and stales in one to two weeks.".to_owned());
    } else {
        reasons.push("Plain and short it keeps crisp for weeks in an airtight tin.".to_owned());
    }
    if nutty {
        freezer = NUTTY_MONTHS;
        tin.1 = tin.1.min(21.0);
        reasons.push("The oil of nuts and seeds goes stale sooner.".to_owned());
    }
    let has = |wanted: fn(&Coat) -> bool| coats.iter().any(wanted);
    if has(|c| matches!(c, Coat::Glaze { .. } | Coat::Sugar(_) | Coat::Drizzle | Coat::Dip { .. })) {
        tin = (tin.0.min(GLAZED_DAYS.0), tin.1.min(GLAZED_DAYS.1));
        reasons.push("A coat draws moisture or blooms: one to two weeks, in one layer between papers.".to_owned());
    }
    let mut in_the_cold = false;
    if has(|c| matches!(c, Coat::Filling { .. })) {
        (tin, freezer) = (FILLED_DAYS, FILLED_MONTHS);
        in_the_cold = has(|c| matches!(c, Coat::Filling { kind: super::FillingKind::Chocolate, .. }));
        reasons.push("Filled ones go soft: two days. Fill on the day, freeze the halves plain.".to_owned());
    }
    let wet = has(|c| matches!(c, Coat::Glaze { .. } | Coat::Dip { .. } | Coat::Drizzle));
    if wet {
        reasons.push(
            "Frozen, a glaze weeps and chocolate blooms as it thaws: freeze them plain and coat them after.".to_owned(),
        );
    }
    BakedKeeping { tin_days: tin, freezer_months: (!wet).then_some(freezer), in_the_cold, reasons }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::dough::{LineInput, Pantry};
    use crate::finish::{FillingKind, SugarCoat};

    fn formula(lines: &[(&str, f64)]) -> Formula {
        let lines: Vec<LineInput> = lines.iter().map(|l| (*l).into()).collect();
        Formula::new("Test", &lines, Pantry::built_in()).unwrap()
    }

    fn short() -> Formula {
        formula(&[("butter", 200.0), ("sugar", 100.0), ("flour-ap", 300.0)])
    }

    #[test]
    fn plain_and_short_ones_keep_for_weeks_and_filled_ones_two_days() {
        // Common practice, as the trade has it: 'plain and short ones weeks, filled ones two days'.
        assert!(baked_keeping(&short(), &[]).tin_days.1 >= 21.0);
        let filled = baked_keeping(&short(), &[Coat::Filling { kind: FillingKind::Chocolate, layer_mm: 2.0 }]);
        assert_eq!((filled.tin_days.1, filled.in_the_cold), (2.0, true));
        assert!(!baked_keeping(&short(), &[Coat::Filling { kind: FillingKind::Jam, layer_mm: 2.0 }]).in_the_cold);
    }

    #[test]
    fn no_finish_makes_anything_keep_longer() {
        let plain = baked_keeping(&short(), &[]);
        for coat in [
            Coat::Sugar(SugarCoat::Coarse),
            Coat::Drizzle,
            Coat::Glaze { sugar_parts: 7.0, film_mm: 0.5, spirit: false },
            Coat::Filling { kind: FillingKind::Icing, layer_mm: 2.0 },
        ] {
            assert!(baked_keeping(&short(), &[coat]).tin_days.1 <= plain.tin_days.1);
        }
    }

    #[test]
    fn egg_nuts_and_wet_coats_shorten_it() {
        let eggy = formula(&[("butter", 100.0), ("sugar", 100.0), ("flour-ap", 200.0), ("egg", 80.0)]);
        assert_eq!(baked_keeping(&eggy, &[]).tin_days, SOFT_DAYS);
        let nutty = formula(&[("butter", 100.0), ("sugar", 80.0), ("flour-ap", 150.0), ("almond-meal", 60.0)]);
        assert_eq!(baked_keeping(&nutty, &[]).freezer_months, Some(NUTTY_MONTHS));
        assert_eq!(baked_keeping(&short(), &[Coat::Drizzle]).freezer_months, None);
    }
}
