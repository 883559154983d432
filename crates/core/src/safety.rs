//! Cautions that stand in several places, each said once and the same way everywhere. Local code and qualified people come first.

use crate::dough::{Formula, Kind};
use crate::units::{Span, Temperature};

/// Places at or below this count as cold (FDA Food Code 2022, 3-501.16: cold holding at 5 degC).
pub const COLD: Temperature = Temperature::new_c(5.0);
/// Out of the cold no longer than this in all (USDA Food Safety and Inspection Service, the two-hour rule, from memory).
pub const OUT_OF_THE_COLD: Span = Span::new_min(120.0);
/// In a room hotter than this half as long (the same rule: above 90 degF).
pub const HOT_ROOM: Temperature = Temperature::new_c(32.2);

/// A caution with raw dough. Local code and qualified people come first.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Caution {
    /// The two-hour rule.
    ColdRule,
    /// Not to be tasted.
    NoTasting {
        /// Whether there is egg in it beside the flour.
        egg: bool,
    },
    /// How long a shut fridge and freezer keep food cold (USDA Food Safety and Inspection Service, from memory), and the two-hour rule.
    PowerOff,
}

/// How long food may be out of the cold in a room.
#[must_use]
pub fn out_of_the_cold(room: Temperature) -> Span {
    if room > HOT_ROOM { OUT_OF_THE_COLD * 0.5 } else { OUT_OF_THE_COLD }
}

/// That raw dough is not to be tasted: flour always, egg only where the formula has any.
#[must_use]
pub fn raw_rule(formula: &Formula) -> Caution {
    Caution::NoTasting { egg: formula.kind_mass(Kind::Egg).g() > 0.0 }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::dough::{LineInput, Pantry};

    #[test]
    fn egg_is_warned_of_only_where_there_is_egg() {
        let formula = |lines: &[(&str, f64)]| {
            let lines: Vec<LineInput> = lines.iter().map(|l| (*l).into()).collect();
            Formula::new("Test", &lines, Pantry::built_in()).unwrap()
        };
        let plain = [("flour-ap", 300.0), ("butter", 200.0), ("sugar", 100.0)];
        assert_eq!(raw_rule(&formula(&plain)), Caution::NoTasting { egg: false });
        let with_egg = formula(&[plain[0], plain[1], plain[2], ("egg", 50.0)]);
        assert_eq!(raw_rule(&with_egg), Caution::NoTasting { egg: true });
    }

    #[test]
    fn two_hours_and_one_in_a_hot_room() {
        assert_eq!(out_of_the_cold(Temperature::new_c(22.0)).min(), 120.0);
        assert_eq!(out_of_the_cold(Temperature::new_c(33.0)).min(), 60.0);
    }
}
