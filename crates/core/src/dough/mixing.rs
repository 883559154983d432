//! How a dough is mixed, what its ingredients should be when they go in, and how warm it leaves the bowl.

use super::Formula;
use super::component::specific_heat_j_kgk;
use super::ingredient::{Ingredient, Kind, Role};
use crate::units::{Temperature, TemperatureDifference};

/// How the dough is mixed.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum MixMethod {
    /// Creamed to light and fluffy.
    LightAndFluffy,
    /// Creamed just to combined; the school for cut-outs.
    JustCombined,
    /// Rubbed in or pulsed, butter cold.
    RubbedIn,
}

impl MixMethod {
    /// All methods.
    pub const ALL: [Self; 3] = [Self::LightAndFluffy, Self::JustCombined, Self::RubbedIn];

    /// The trade's word for it.
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::LightAndFluffy => "light and fluffy",
            Self::JustCombined => "just combined",
            Self::RubbedIn => "rubbed in",
        }
    }

    /// What mixing warms the dough by. Common practice, no source.
    #[must_use]
    pub const fn friction(self) -> TemperatureDifference {
        TemperatureDifference::new_k(match self {
            Self::LightAndFluffy => 2.0,
            Self::JustCombined | Self::RubbedIn => 1.0,
        })
    }

    /// What the butter should be when it goes in. Common practice: 18-20 degC creamed, 4-8 degC rubbed in.
    #[must_use]
    pub const fn butter(self) -> Temperature {
        Temperature::new_c(match self {
            Self::LightAndFluffy => 19.0,
            Self::JustCombined => 18.0,
            Self::RubbedIn => 6.0,
        })
    }

    /// Between what the butter may be. Common practice, no source.
    #[must_use]
    pub const fn butter_between(self) -> (Temperature, Temperature) {
        match self {
            Self::LightAndFluffy => (Temperature::new_c(18.0), Temperature::new_c(20.0)),
            Self::JustCombined => (Temperature::new_c(16.0), Temperature::new_c(20.0)),
            Self::RubbedIn => (Temperature::new_c(4.0), Temperature::new_c(8.0)),
        }
    }

    /// Between what the dough should leave the bowl: cold enough not to turn greasy, warm enough to have come together.
    /// Common practice, no source.
    #[must_use]
    pub const fn dough_between(self) -> (Temperature, Temperature) {
        match self {
            Self::LightAndFluffy => (Temperature::new_c(19.0), Temperature::new_c(24.0)),
            Self::JustCombined => (Temperature::new_c(18.0), Temperature::new_c(23.0)),
            Self::RubbedIn => (Temperature::new_c(12.0), Temperature::new_c(18.0)),
        }
    }

    /// Minutes at the mixer for one mix, weighing not included. Common practice, no source.
    #[must_use]
    pub const fn minutes(self) -> f64 {
        match self {
            Self::LightAndFluffy => 12.0,
            Self::JustCombined => 8.0,
            Self::RubbedIn => 10.0,
        }
    }
}

/// Ingredients that have one temperature.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Part {
    /// Butter and other fats.
    Fats,
    /// Eggs and liquids.
    Wet,
    /// All else.
    Dry,
}

impl Part {
    /// To which part an ingredient belongs.
    #[must_use]
    pub fn of(ingredient: &Ingredient) -> Self {
        match (ingredient.role(), ingredient.kind) {
            (Role::Fat, _) => Self::Fats,
            (Role::Egg, _) | (_, Kind::Liquid | Kind::Syrup | Kind::Spirit) => Self::Wet,
            _ => Self::Dry,
        }
    }

    /// The words for it.
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::Fats => "butter and other fats",
            Self::Wet => "eggs and liquids",
            Self::Dry => "flour, sugar and all else",
        }
    }
}

/// What the parts should be, and what comes of it.
#[derive(Debug, Clone, PartialEq)]
pub struct MixingTemperatures {
    /// Fats when they go in.
    pub fats: Temperature,
    /// Eggs and liquids.
    pub wet: Temperature,
    /// All else.
    pub dry: Temperature,
    /// The dough out of the bowl.
    pub dough: Temperature,
    /// Whether that is within what the method wants.
    pub reached: bool,
    /// Why, in sentences.
    pub reasons: Vec<String>,
}

/// Lowest and highest to which flour and eggs are brought in a kitchen, degC: the fridge, and a bowl of warm water.
const WARMEST_C: f64 = 30.0;

/// Heat capacity of a part of the formula, J/K at 15 degC.
fn capacity(formula: &Formula, part: Part) -> f64 {
    let lines = formula.lines().iter().filter(|l| Part::of(l.ingredient()) == part);
    lines.map(|l| l.mass().g() / 1000.0 * specific_heat_j_kgk(&l.ingredient().components(), 15.0)).sum()
}

/// The balance of heat over the parts, plus the mixing friction. The melting of fat while it warms is left out; a
/// thermometer in the dough corrects the figure.
#[must_use]
pub fn heat_balance(
    formula: &Formula,
    method: MixMethod,
    fats: Temperature,
    wet: Temperature,
    dry: Temperature,
) -> Temperature {
    let (f, w, d) = (capacity(formula, Part::Fats), capacity(formula, Part::Wet), capacity(formula, Part::Dry));
    Temperature::new_c((f * fats.c() + w * wet.c() + d * dry.c()) / (f + w + d)) + method.friction()
}

/// What butter, eggs and flour should be so that the dough leaves the bowl as the method wants it.
///
/// Butter is taken at the method's own temperature and all else at the room's. Where that misses the mark, eggs and
/// liquids are changed first, then the butter within its range, then flour and sugar, each only as far as needed.
#[must_use]
pub fn mixing_temperatures(
    formula: &Formula,
    method: MixMethod,
    room: Temperature,
    fridge: Temperature,
) -> MixingTemperatures {
    let (low, high) = method.dough_between();
    let (coldest_butter, warmest_butter) = method.butter_between();
    let at_room = |t: f64| t.min(room.c());
    let mut t = [at_room(method.butter().c()), room.c(), room.c()];
    if method == MixMethod::RubbedIn {
        t[1] = fridge.c().min(room.c());
    }
    let capacities = [Part::Fats, Part::Wet, Part::Dry].map(|p| capacity(formula, p));
    let whole: f64 = capacities.iter().sum();
    let dough =
        |t: &[f64; 3]| t.iter().zip(capacities).map(|(t, c)| t * c).sum::<f64>() / whole + method.friction().k();
    let natural = dough(&t);
    let mut reasons = vec![format!(
        "Butter at {:.0}\u{b0} and the rest at {:.0}\u{b0} would leave the bowl at {natural:.1}\u{b0}; the method wants {:.0} to {:.0}\u{b0}.",
        t[0],
        room.c(),
        low.c(),
        high.c()
    )];
    let target = natural.clamp(low.c(), high.c());
    let warm_limit = WARMEST_C.max(room.c());
    let ranges = if natural > target {
        [(1, fridge.c(), room.c()), (0, coldest_butter.c(), t[0]), (2, fridge.c(), room.c())]
    } else {
        [(1, room.c(), warm_limit), (0, t[0], warmest_butter.c()), (2, room.c(), warm_limit)]
    };
    for (i, least, most) in ranges {
        let missing = target - dough(&t);
        if missing.abs() < 1e-9 || capacities[i] <= 0.0 {
            continue;
        }
        let before = t[i];
        t[i] = (t[i] + missing * whole / capacities[i]).clamp(least.min(before), most.max(before));
        if (t[i] - before).abs() > 0.05 {
            let word = [Part::Fats, Part::Wet, Part::Dry][i].word();
            let how = if t[i] < before { "colder" } else { "warmer" };
            reasons.push(format!("So {word} go in {how}, at {:.0}\u{b0}.", t[i]));
        }
    }
    let out = dough(&t);
    let reached = (out - target).abs() < 0.05;
    if !reached {
        let over = out - target;
        let word = if over > 0.0 {
            "too warm: chill it longer before it is rolled"
        } else {
            "too cold: let it stand before it is rolled"
        };
        reasons.push(format!("Even so it leaves the bowl {:.1}\u{b0} {word}.", over.abs()));
    }
    let [fats, wet, dry] = t.map(Temperature::new_c);
    MixingTemperatures { fats, wet, dry, dough: Temperature::new_c(out), reached, reasons }
}

/// The dough's temperature out of the mixer when its ingredients are as [`mixing_temperatures`] wants them.
#[must_use]
pub fn dough_temperature(formula: &Formula, method: MixMethod, room: Temperature, fridge: Temperature) -> Temperature {
    mixing_temperatures(formula, method, room, fridge).dough
}

#[cfg(test)]
mod tests {
    use super::super::{LineInput, Pantry};
    use super::*;
    use proptest::prelude::*;

    const FRIDGE: Temperature = Temperature::new_c(4.0);

    fn of(lines: &[(&str, f64)]) -> Formula {
        let lines: Vec<LineInput> = lines.iter().map(|l| (*l).into()).collect();
        Formula::new("Test", &lines, Pantry::built_in()).unwrap()
    }

    fn formula() -> Formula {
        of(&[("flour-ap", 300.0), ("butter", 100.0), ("sugar", 100.0), ("egg", 25.0), ("salt", 1.0)])
    }

    #[test]
    fn a_hand_worked_heat_balance() {
        // Flour 300 g at 22 degC and butter 100 g at 18 degC with c = 1.75 and 2.42 kJ/kgK (Choi and Okos by hand from
        // the food-table make-up): (300*1.75*22 + 100*2.42*18) / (300*1.75 + 100*2.42) = 20.74 degC, and 1 K of friction.
        let two = of(&[("flour-ap", 300.0), ("butter", 100.0)]);
        let t = |c| Temperature::new_c(c);
        let out = heat_balance(&two, MixMethod::JustCombined, t(18.0), t(22.0), t(22.0));
        assert!((out.c() - 21.74).abs() < 0.1, "{out:?}");
    }

    #[test]
    fn in_an_ordinary_room_nothing_has_to_be_chilled() {
        let m = mixing_temperatures(&formula(), MixMethod::JustCombined, Temperature::new_c(22.0), FRIDGE);
        assert!(m.reached && (m.wet.c(), m.dry.c(), m.fats.c()) == (22.0, 22.0, 18.0), "{m:?}");
        assert_eq!(m.reasons.len(), 1);
    }

    #[test]
    fn in_a_hot_room_eggs_come_from_the_fridge_first_and_flour_last() {
        let warm = mixing_temperatures(&formula(), MixMethod::JustCombined, Temperature::new_c(25.0), FRIDGE);
        assert!(warm.reached && warm.wet.c() < 25.0 && warm.dry.c() == 25.0, "{warm:?}");
        let hot = mixing_temperatures(&formula(), MixMethod::JustCombined, Temperature::new_c(30.0), FRIDGE);
        assert!(hot.reached && hot.wet.c() == 4.0 && hot.fats.c() == 16.0, "{hot:?}");
        assert!((10.0..28.0).contains(&hot.dry.c()), "{hot:?}");
        assert!((hot.dough.c() - 23.0).abs() < 0.05, "{hot:?}");
    }

    #[test]
    fn what_cannot_be_reached_is_said() {
        let fridge = Temperature::new_c(30.0);
        let m = mixing_temperatures(&formula(), MixMethod::RubbedIn, Temperature::new_c(40.0), fridge);
        assert!(!m.reached && m.reasons.last().unwrap().contains("too warm"), "{m:?}");
    }

    #[test]
    fn rubbed_in_dough_comes_out_colder() {
        let room = Temperature::new_c(22.0);
        let creamed = dough_temperature(&formula(), MixMethod::JustCombined, room, FRIDGE);
        let rubbed = dough_temperature(&formula(), MixMethod::RubbedIn, room, FRIDGE);
        assert!(rubbed.c() < creamed.c() - 1.0);
    }

    proptest! {
        #[test]
        fn the_dough_lies_between_what_went_in_and_agrees_with_the_balance(room in 10.0f64..36.0, which in 0usize..3) {
            let method = MixMethod::ALL[which];
            let m = mixing_temperatures(&formula(), method, Temperature::new_c(room), FRIDGE);
            let balance = heat_balance(&formula(), method, m.fats, m.wet, m.dry);
            prop_assert!((balance.c() - m.dough.c()).abs() < 1e-6);
            let parts = [m.fats.c(), m.wet.c(), m.dry.c()];
            let least = parts.iter().copied().fold(f64::MAX, f64::min);
            let most = parts.iter().copied().fold(f64::MIN, f64::max);
            let still = m.dough.c() - method.friction().k();
            prop_assert!(still >= least - 1e-9 && still <= most + 1e-9);
        }
    }
}
