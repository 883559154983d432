//! How long a raw dough keeps in the fridge and in the freezer.

use super::ingredient::Kind;
use super::{Formula, Reason};

/// Days in the fridge and months in the freezer, from the careful to the usual end.
#[derive(Debug, Clone, PartialEq)]
pub struct Keeping {
    /// At 4 degC, well wrapped, days.
    pub fridge_days: (f64, f64),
    /// At -18 degC, well wrapped, months.
    pub freezer_months: (f64, f64),
    /// Why.
    pub reason: Reason,
}

/// Fridge and freezer of any such dough: 2 to 5 days, 1 to 3 months. Common practice, no source; the FoodKeeper of the USDA
/// says two to four days and two months for cookie dough (from memory). Local code decides.
const ANY: ((f64, f64), (f64, f64)) = ((2.0, 5.0), (1.0, 3.0));
/// With raw egg, days. Common practice, no source.
const WITH_EGG_DAYS: (f64, f64) = (2.0, 3.0);
/// With fresh milk or fruit and no egg, days. Common practice, no source.
const WITH_FRESH_DAYS: (f64, f64) = (2.0, 4.0);
/// With much nut or seed, whose oil goes stale, months. Common practice, no source.
const WITH_NUTS_MONTHS: (f64, f64) = (1.0, 2.0);
/// From this share of the dough on nuts and seeds count.
const MUCH_NUT: f64 = 0.05;

/// Whether the oil of its nuts and seeds makes it go stale sooner, raw and baked.
#[must_use]
pub fn is_nutty(formula: &Formula) -> bool {
    let share = |kind: Kind| formula.kind_mass(kind) / formula.total();
    share(Kind::Nut) + share(Kind::Seed) + share(Kind::Meal) >= MUCH_NUT
}

/// How long this dough keeps raw.
#[must_use]
pub fn keeping(formula: &Formula) -> Keeping {
    let share = |kind: Kind| formula.kind_mass(kind) / formula.total();
    let egg = share(Kind::Egg) > 0.0;
    let fresh = share(Kind::Liquid) > 0.01 || share(Kind::Fruit) > 0.02;
    let nuts = is_nutty(formula);
    let fridge_days = if egg {
        WITH_EGG_DAYS
    } else if fresh {
        WITH_FRESH_DAYS
    } else {
        ANY.0
    };
    let freezer_months = if nuts { WITH_NUTS_MONTHS } else { ANY.1 };
    Keeping { fridge_days, freezer_months, reason: Reason::Keeps { egg, fresh, nuts } }
}

#[cfg(test)]
mod tests {
    use super::super::Pantry;
    use super::*;

    fn keeps(lines: &[(&str, f64)]) -> Keeping {
        let lines: Vec<_> = lines.iter().map(|&l| l.into()).collect();
        keeping(&Formula::new("Test", &lines, Pantry::built_in()).unwrap())
    }

    #[test]
    fn egg_shortens_the_fridge_and_nuts_the_freezer_within_what_the_trade_says() {
        let plain = keeps(&[("flour-ap", 300.0), ("butter", 200.0), ("sugar", 100.0)]);
        let egg = keeps(&[("flour-ap", 300.0), ("butter", 200.0), ("sugar", 100.0), ("egg", 50.0)]);
        let nuts = keeps(&[("flour-ap", 300.0), ("butter", 200.0), ("sugar", 100.0), ("sesame-black", 60.0)]);
        assert_eq!((plain.fridge_days, plain.freezer_months), ((2.0, 5.0), (1.0, 3.0)));
        assert!(egg.fridge_days.1 < plain.fridge_days.1 && egg.freezer_months == plain.freezer_months);
        assert!(nuts.freezer_months.1 < plain.freezer_months.1 && nuts.fridge_days == plain.fridge_days);
        assert_eq!(egg.reason, Reason::Keeps { egg: true, fresh: false, nuts: false });
    }
}
