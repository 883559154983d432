//! How long what was baked keeps, by its kind. Common practice, no source; local rules on shelf life decide.

use super::{Coat, Reason, SugarCoat};
use crate::dough::{Formula, Texture, is_nutty};

/// Shelf and freezer of baked pieces.
#[derive(Debug, Clone, PartialEq)]
pub struct BakedKeeping {
    /// In an airtight tin in a cool room, days: the careful and the usual end.
    pub tin_days: (f64, f64),
    /// Frozen well wrapped, months; nothing where it does not freeze well.
    pub freezer_months: Option<(f64, f64)>,
    /// Whether it has to stand in the cold.
    pub in_the_cold: bool,
    /// Why.
    pub reasons: Vec<Reason>,
}

/// Plain, short pieces in a tin: weeks. Rich in egg or with syrup: softer, so shorter. Much nut goes stale sooner.
const PLAIN_DAYS: (f64, f64) = (14.0, 28.0);
const SOFT_DAYS: (f64, f64) = (7.0, 14.0);
const GLAZED_DAYS: (f64, f64) = (7.0, 14.0);
const CHOCOLATE_DAYS: (f64, f64) = (14.0, 21.0);
const DUSTED_DAYS: (f64, f64) = (14.0, 21.0);
const JAM_DAYS: (f64, f64) = (5.0, 7.0);
const ICED_DAYS: (f64, f64) = (14.0, 21.0);
const CREAM_DAYS: (f64, f64) = (2.0, 3.0);
const FILLED_DAYS: (f64, f64) = (1.0, 2.0);
const PLAIN_MONTHS: (f64, f64) = (2.0, 3.0);
const NUTTY_MONTHS: (f64, f64) = (1.0, 2.0);
const FILLED_MONTHS: (f64, f64) = (0.5, 1.0);

/// How long pieces of a formula that eat so keep once they are finished.
#[must_use]
pub fn baked_keeping(formula: &Formula, texture: Texture, coats: &[Coat]) -> BakedKeeping {
    let nutty = is_nutty(formula);
    let mut reasons = vec![Reason::Eats { texture }];
    let (mut tin, mut freezer) = (PLAIN_DAYS, PLAIN_MONTHS);
    if matches!(texture, Texture::Soft | Texture::Chewy) {
        tin = SOFT_DAYS;
    }
    if nutty {
        freezer = NUTTY_MONTHS;
        tin.1 = tin.1.min(21.0);
        reasons.push(Reason::NutsGoStale);
    }
    let has = |wanted: fn(&Coat) -> bool| coats.iter().any(wanted);
    if has(|c| matches!(c, Coat::Royal { .. } | Coat::Fondant { .. })) {
        tin = (tin.0.min(ICED_DAYS.0), tin.1.min(ICED_DAYS.1));
        reasons.push(Reason::IcedInLayers);
    }
    if has(|c| matches!(c, Coat::Buttercream { .. })) {
        tin = (tin.0.min(CREAM_DAYS.0), tin.1.min(CREAM_DAYS.1));
        reasons.push(Reason::CreamedGoSoft);
    }
    if has(|c| matches!(c, Coat::Glaze { .. })) {
        tin = (tin.0.min(GLAZED_DAYS.0), tin.1.min(GLAZED_DAYS.1));
        reasons.push(Reason::CoatDrawsMoisture);
    }
    if has(|c| matches!(c, Coat::Drizzle | Coat::Dip { .. })) {
        tin = (tin.0.min(CHOCOLATE_DAYS.0), tin.1.min(CHOCOLATE_DAYS.1));
        reasons.push(Reason::ChocolateBlooms);
    }
    if has(|c| matches!(c, Coat::Sugar(SugarCoat::Powdered))) {
        tin = (tin.0.min(DUSTED_DAYS.0), tin.1.min(DUSTED_DAYS.1));
        reasons.push(Reason::DustedInLayers);
    }
    if has(|c| matches!(c, Coat::JamBaked { .. })) {
        tin = (tin.0.min(JAM_DAYS.0), tin.1.min(JAM_DAYS.1));
        reasons.push(Reason::JamGoesSticky);
    }
    let mut in_the_cold = false;
    if has(|c| matches!(c, Coat::Filling { .. })) {
        (tin, freezer) = (FILLED_DAYS, FILLED_MONTHS);
        in_the_cold = has(|c| matches!(c, Coat::Filling { kind: super::FillingKind::Chocolate, .. }));
        reasons.push(Reason::FilledGoSoft);
    }
    let wet = has(|c| {
        matches!(c, Coat::Glaze { .. } | Coat::Dip { .. } | Coat::Drizzle | Coat::Royal { .. } | Coat::Fondant { .. })
    });
    if wet {
        reasons.push(Reason::FreezePlain);
    }
    BakedKeeping { tin_days: tin, freezer_months: (!wet).then_some(freezer), in_the_cold, reasons }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::dough;
    use crate::dough::{LineInput, Pantry, texture};
    use crate::finish::{FillingKind, GlazeWay};

    fn formula(lines: &[(&str, f64)]) -> Formula {
        let lines: Vec<LineInput> = lines.iter().map(|l| (*l).into()).collect();
        Formula::new("Test", &lines, Pantry::built_in()).unwrap()
    }

    fn short() -> Formula {
        formula(&[("butter", 200.0), ("sugar", 100.0), ("flour-ap", 300.0)])
    }

    fn keeps(formula: &Formula, coats: &[Coat]) -> BakedKeeping {
        baked_keeping(formula, texture(formula), coats)
    }

    #[test]
    fn plain_and_short_ones_keep_for_weeks_and_filled_ones_two_days() {
        // Common practice, as the trade has it: 'plain and short ones weeks, filled ones two days'.
        assert!(keeps(&short(), &[]).tin_days.1 >= 21.0);
        let filled = keeps(&short(), &[Coat::Filling { kind: FillingKind::Chocolate, layer_mm: 2.0 }]);
        assert_eq!((filled.tin_days.1, filled.in_the_cold), (2.0, true));
        assert!(!keeps(&short(), &[Coat::Filling { kind: FillingKind::Jam, layer_mm: 2.0 }]).in_the_cold);
    }

    /// Weeks of a chocolate coat and of powdered sugar, days of jam, as the trade has them: common practice, no source.
    #[test]
    fn each_coat_keeps_as_practice_says() {
        for (coat, days) in [
            (Coat::Drizzle, (14.0, 21.0)),
            (Coat::Sugar(SugarCoat::Powdered), (14.0, 21.0)),
            (Coat::usual_royal(false), (14.0, 21.0)),
            (Coat::usual_glaze(GlazeWay::Spread, false), (7.0, 14.0)),
            (Coat::usual_jam_baked(), (5.0, 7.0)),
            (Coat::usual_buttercream(), (2.0, 3.0)),
        ] {
            assert_eq!(keeps(&short(), &[coat]).tin_days, days, "{coat:?}");
        }
        // Coarse sugar keeps 'as plain'.
        assert_eq!(keeps(&short(), &[Coat::Sugar(SugarCoat::Coarse)]).tin_days, keeps(&short(), &[]).tin_days);
    }

    #[test]
    fn no_finish_makes_anything_keep_longer() {
        // Soft ones keep shorter by themselves: a coat's own days must not lengthen theirs.
        let soft = formula(&[("butter", 100.0), ("sugar", 100.0), ("flour-ap", 200.0), ("egg", 80.0)]);
        assert_eq!(keeps(&soft, &[]).tin_days, SOFT_DAYS);
        let nutty = formula(&[("butter", 100.0), ("sugar", 80.0), ("flour-ap", 150.0), ("almond-meal", 60.0)]);
        for dough in [short(), soft, nutty] {
            let plain = keeps(&dough, &[]);
            for coat in [
                Coat::Sugar(SugarCoat::Coarse),
                Coat::Drizzle,
                Coat::usual_glaze(GlazeWay::Spread, false),
                Coat::usual_royal(false),
                Coat::usual_buttercream(),
                Coat::Filling { kind: FillingKind::Icing, layer_mm: 2.0 },
            ] {
                let coated = keeps(&dough, &[coat]);
                assert!(coated.tin_days.0 <= plain.tin_days.0 && coated.tin_days.1 <= plain.tin_days.1, "{coat:?}");
                let months = |k: &BakedKeeping| k.freezer_months.map_or(0.0, |m| m.1);
                assert!(months(&coated) <= months(&plain), "{coat:?}");
            }
            // A moist filling softens what it lies on: common practice, no source.
            let filled = keeps(&dough, &[Coat::Filling { kind: FillingKind::Jam, layer_mm: 2.0 }]);
            assert!(filled.tin_days.1 < plain.tin_days.1, "{filled:?} against {plain:?}");
        }
    }

    #[test]
    fn what_is_said_to_be_soft_is_nowhere_said_to_keep_crisp() {
        let soft = formula(&[("butter", 100.0), ("sugar", 100.0), ("flour-ap", 200.0), ("egg", 80.0)]);
        let honeyed = formula(&[("butter", 100.0), ("sugar", 30.0), ("honey", 90.0), ("flour-ap", 250.0)]);
        for dough in [soft, honeyed] {
            let keeps = keeps(&dough, &[]).reasons;
            assert!(matches!(keeps[0], Reason::Eats { texture: Texture::Soft | Texture::Chewy }), "{keeps:?}");
            let bite = crate::dough::Character::of(&dough).tenderness;
            let crisp = |r: &dough::Reason| {
                matches!(r, dough::Reason::CrispBySugar { .. } | dough::Reason::Eats { texture: Texture::Crisp })
            };
            assert!(!bite.reasons.iter().any(crisp), "{bite:?}");
        }
        let through = keeps(&short(), &[]).reasons;
        let ended_soft = baked_keeping(&short(), texture(&short()).baked_soft(), &[]);
        assert!(through[0] == (Reason::Eats { texture: Texture::Short }) && ended_soft.tin_days == SOFT_DAYS);
    }

    #[test]
    fn egg_nuts_and_wet_coats_shorten_it() {
        let eggy = formula(&[("butter", 100.0), ("sugar", 100.0), ("flour-ap", 200.0), ("egg", 80.0)]);
        assert_eq!(keeps(&eggy, &[]).tin_days, SOFT_DAYS);
        let nutty = formula(&[("butter", 100.0), ("sugar", 80.0), ("flour-ap", 150.0), ("almond-meal", 60.0)]);
        assert_eq!(keeps(&nutty, &[]).freezer_months, Some(NUTTY_MONTHS));
        assert_eq!(keeps(&short(), &[Coat::Drizzle]).freezer_months, None);
    }
}
