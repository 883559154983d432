//! Mixes of equal size within the mixer's limit, weights to the gram, and the dough's temperature out of the mixer.

use super::component::specific_heat_j_kgk;
use super::ingredient::Role;
use super::{Formula, Ingredient};
use crate::units::{Mass, Temperature, TemperatureDifference};

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

/// The dough's temperature out of the mixer: the balance of heat over the ingredients, fats at the method's
/// temperature and all else at the room's, plus the mixing friction.
///
/// The melting of fat while it warms is left out; a thermometer in the dough corrects the figure.
#[must_use]
pub fn dough_temperature(formula: &Formula, method: MixMethod, room: Temperature) -> Temperature {
    let (mut heat, mut capacity) = (0.0, 0.0);
    for line in formula.lines() {
        let t = if line.ingredient().role == Role::Fat { method.butter().c().min(room.c()) } else { room.c() };
        let c = line.mass().g() * specific_heat_j_kgk(&line.ingredient().components(), t);
        heat += c * t;
        capacity += c;
    }
    Temperature::new_c(heat / capacity) + method.friction()
}

/// A weight to read off the scale.
#[derive(Debug, Clone, PartialEq)]
pub struct Weighed {
    /// What is weighed.
    pub ingredient: &'static Ingredient,
    /// Rounded to the gram, or to a tenth below 10 g.
    pub mass: Mass,
}

/// The mixes of a job.
#[derive(Debug, Clone, PartialEq)]
pub struct MixPlan {
    /// How many equal mixes.
    pub count: u32,
    /// Dough in each.
    pub each: Mass,
    /// What to weigh for one mix.
    pub weights: Vec<Weighed>,
}

/// The most mixes one job may take (our own choice; above it the job is refused upstream).
pub(crate) const MOST_MIXES: u32 = 500;

/// Divides `dough` into the fewest equal mixes within `limit`.
#[must_use]
pub fn divide_into_mixes(formula: &Formula, dough: Mass, limit: Mass) -> MixPlan {
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "clamped to 1 and the most mixes")]
    let count = (dough / limit).ceil().clamp(1.0, f64::from(MOST_MIXES)) as u32;
    let each = Mass::new_g(dough.g() / f64::from(count));
    let scale = each / formula.total();
    let weights = formula
        .lines()
        .iter()
        .map(|l| Weighed { ingredient: l.ingredient(), mass: readable(l.mass() * scale) })
        .collect();
    MixPlan { count, each, weights }
}

fn readable(mass: Mass) -> Mass {
    if mass.g() < 10.0 { Mass::new_g((mass.g() * 10.0).round() / 10.0) } else { Mass::new_g(mass.g().round()) }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn formula() -> Formula {
        let lines = [("flour-ap", 300.0), ("butter", 100.0), ("sugar", 100.0), ("egg", 25.0), ("salt", 1.0)];
        Formula::new("Test", &lines.map(|(k, g)| (k.to_owned(), g))).unwrap()
    }

    #[test]
    fn mixes_are_equal_within_the_limit_and_the_fewest() {
        let plan = divide_into_mixes(&formula(), Mass::new_g(2310.0), Mass::new_g(1200.0));
        assert_eq!(plan.count, 2);
        assert_eq!(plan.each.g(), 1155.0);
        let weighed: f64 = plan.weights.iter().map(|w| w.mass.g()).sum();
        assert!((weighed - 1155.0).abs() < 3.0, "{weighed}");
        assert_eq!(plan.weights[4].mass.g(), 2.2);
    }

    #[test]
    fn a_hand_worked_heat_balance() {
        // Flour 300 g at 22 degC and butter 100 g at 18 degC with c = 1.75 and 2.42 kJ/kgK (Choi and Okos by hand from
        // the food-table make-up): (300*1.75*22 + 100*2.42*18) / (300*1.75 + 100*2.42) = 20.74 degC, and 1 K of friction.
        let two = Formula::new("Two", &[("flour-ap".to_owned(), 300.0), ("butter".to_owned(), 100.0)]).unwrap();
        let out = dough_temperature(&two, MixMethod::JustCombined, Temperature::new_c(22.0));
        assert!((out.c() - 21.74).abs() < 0.1, "{out:?}");
    }

    #[test]
    fn rubbed_in_dough_comes_out_colder() {
        let room = Temperature::new_c(22.0);
        let creamed = dough_temperature(&formula(), MixMethod::JustCombined, room);
        let rubbed = dough_temperature(&formula(), MixMethod::RubbedIn, room);
        assert!(rubbed.c() < creamed.c() - 1.0);
    }
}
