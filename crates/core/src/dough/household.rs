//! What household measures weigh: cups by the way they are filled, spoons, sticks, single things; eggs by size class.

use crate::error::Checks;
use crate::units::Mass;
use serde::{Deserialize, Serialize};

/// Volume of a US cup, mL (NIST Handbook 44, Appendix C). Weights a cup are a US cup's; other cups follow by volume.
pub const US_CUP_ML: f64 = 236.588_236_5;
/// A scooped cup over a spooned one: common practice says 15-25 % more; the middle is taken.
pub const SCOOPED_OVER_SPOONED: f64 = 1.2;
/// A sifted cup over a spooned one: 115 g over 125 g for all-purpose flour (USDA FoodData Central, SR Legacy, from memory).
pub const SIFTED_OVER_SPOONED: f64 = 0.92;

/// How a cup of something dry is filled.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CupWay {
    /// Spooned in and levelled.
    Spooned,
    /// Scooped from the bag with the cup.
    Scooped,
    /// Sifted into the cup.
    Sifted,
    /// Pressed down.
    Packed,
}

impl CupWay {
    /// All ways.
    pub const ALL: [Self; 4] = [Self::Spooned, Self::Scooped, Self::Sifted, Self::Packed];
}

/// Spoons that come near a small mass.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Spoons {
    /// Less than the smallest spoon.
    Pinch,
    /// Eighths of a teaspoon.
    TeaspoonEighths(u32),
    /// Halves of a tablespoon.
    TablespoonHalves(u32),
}

/// Cups, sticks or single things that come near a mass.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Beside {
    /// Halves of one.
    EachHalves(u32),
    /// Tablespoons of sticks, eight to each.
    Sticks {
        /// In all.
        tablespoons: u32,
    },
    /// Tablespoons, sixteen to a cup.
    Cups {
        /// In all.
        tablespoons: u32,
        /// How the cup is filled, where that makes a difference.
        filled: Option<CupWay>,
    },
    /// Too little for a cup.
    Spoons(Spoons),
}

/// Up to this a mass is told in spoons.
const SPOONED: Mass = Mass::new_g(30.0);
/// A teaspoon in mL (NIST Handbook 44, Appendix C).
const TSP_ML: f64 = US_CUP_ML / 48.0;

#[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a whole number of small measures")]
fn count(n: f64) -> u32 {
    n.round().clamp(0.0, 1e6) as u32
}

/// Grams of household measures; `None` where nobody measures it so.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize, utoipa::ToSchema)]
#[schema(as = HouseholdBody)]
#[serde(deny_unknown_fields, default)]
pub struct Household {
    /// A US cup, spooned and levelled (or simply filled).
    #[serde(rename = "cup_g")]
    pub cup: Option<f64>,
    /// A US cup scooped from the bag.
    #[serde(rename = "cup_scooped_g")]
    pub cup_scooped: Option<f64>,
    /// A US cup sifted.
    #[serde(rename = "cup_sifted_g")]
    pub cup_sifted: Option<f64>,
    /// A US cup packed.
    #[serde(rename = "cup_packed_g")]
    pub cup_packed: Option<f64>,
    /// A US teaspoon.
    #[serde(rename = "tsp_g")]
    pub tsp: Option<f64>,
    /// One of it.
    #[serde(rename = "each_g")]
    pub each: Option<f64>,
    /// A stick.
    #[serde(rename = "stick_g")]
    pub stick: Option<f64>,
}

impl Household {
    /// What a volume of it weighs when filled that way. A spoon's own weight is used up to 45 mL (three tablespoons), a
    /// cup's above; either stands in for the other. `None` where neither is known.
    #[must_use]
    pub fn of_volume(&self, ml: f64, way: CupWay) -> Option<Mass> {
        let by_cup = match way {
            CupWay::Spooned => self.cup.or(self.cup_packed),
            CupWay::Scooped => self.cup_scooped.or(self.cup).or(self.cup_packed),
            CupWay::Sifted => self.cup_sifted.or(self.cup).or(self.cup_packed),
            CupWay::Packed => self.cup_packed.or(self.cup),
        }
        .map(|g| g / US_CUP_ML);
        let by_spoon = self.tsp.map(|g| g / (US_CUP_ML / 48.0));
        let per_ml = if ml <= 45.0 { by_spoon.or(by_cup) } else { by_cup.or(by_spoon) };
        per_ml.map(|g| Mass::new_g(g * ml))
    }

    /// Whether it makes a difference how the cup is filled.
    #[must_use]
    pub fn depends_on_way(&self) -> bool {
        self.cup.is_some() && (self.cup_scooped.is_some() || self.cup_sifted.is_some())
    }

    /// What comes near a mass without a scale: things one by one, sticks, cups with the spoons left over, or spoons alone. A cup whose filling
    /// matters is spooned and levelled.
    #[must_use]
    pub fn beside(&self, mass: Mass) -> Option<Beside> {
        if let Some(each) = self.each {
            return Some(Beside::EachHalves(count(mass.g() / each * 2.0))).filter(|b| *b != Beside::EachHalves(0));
        }
        if mass <= SPOONED {
            return self.spoons(mass).map(Beside::Spoons);
        }
        if let Some(stick) = self.stick {
            return Some(Beside::Sticks { tablespoons: count(mass.g() / stick * 8.0) });
        }
        let (cup, filled) = match (self.cup, self.cup_packed) {
            (Some(cup), _) => (cup, self.depends_on_way().then_some(CupWay::Spooned)),
            (None, Some(packed)) => (packed, Some(CupWay::Packed)),
            (None, None) => return None,
        };
        Some(Beside::Cups { tablespoons: count(mass.g() / cup * 16.0), filled })
    }

    /// Spoons that come near a small mass, to the eighth of a teaspoon.
    pub(super) fn spoons(&self, mass: Mass) -> Option<Spoons> {
        if mass > SPOONED {
            return None;
        }
        let one = self.of_volume(TSP_ML, CupWay::Spooned)?;
        let eighths = count(mass / one * 8.0);
        Some(match eighths {
            0 => Spoons::Pinch,
            24.. => Spoons::TablespoonHalves(count(mass / one / 3.0 * 2.0)),
            _ => Spoons::TeaspoonEighths(eighths),
        })
    }

    pub(super) fn check(&self, checks: &mut Checks) {
        for (field, value, most) in [
            ("cup_g", self.cup, 1000.0),
            ("cup_scooped_g", self.cup_scooped, 1000.0),
            ("cup_sifted_g", self.cup_sifted, 1000.0),
            ("cup_packed_g", self.cup_packed, 1000.0),
            ("tsp_g", self.tsp, 50.0),
            ("each_g", self.each, 2000.0),
            ("stick_g", self.stick, 1000.0),
        ] {
            if let Some(g) = value {
                checks.range(field, g, 0.05, most, "g");
            }
        }
    }
}

/// Size classes of hens' eggs.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum EggClass {
    /// US small.
    UsSmall,
    /// US medium.
    UsMedium,
    /// US large: what recipes mean when they say nothing.
    UsLarge,
    /// US extra large.
    UsExtraLarge,
    /// US jumbo.
    UsJumbo,
    /// EU S.
    EuSmall,
    /// EU M.
    EuMedium,
    /// EU L.
    EuLarge,
    /// EU XL.
    EuExtraLarge,
}

/// Shell over the whole egg's weight (about 12 %, common practice).
const SHELL: f64 = 0.12;
/// Yolk over the egg without its shell: 17 g of 50 (USDA FoodData Central, SR Legacy, from memory).
const YOLK: f64 = 17.0 / 50.0;
const OUNCE_G: f64 = 28.349_523_125;

impl EggClass {
    /// All classes.
    pub const ALL: [Self; 9] = [
        Self::UsSmall,
        Self::UsMedium,
        Self::UsLarge,
        Self::UsExtraLarge,
        Self::UsJumbo,
        Self::EuSmall,
        Self::EuMedium,
        Self::EuLarge,
        Self::EuExtraLarge,
    ];

    /// One egg in its shell. US classes: the least weight of a dozen (USDA AMS) over twelve; EU classes (Regulation
    /// 589/2008, from memory): the middle of M and L, and a typical one of the open classes.
    #[must_use]
    pub fn in_shell(self) -> Mass {
        let dozen = |ounces: f64| ounces * OUNCE_G / 12.0;
        Mass::new_g(match self {
            Self::UsSmall => dozen(18.0),
            Self::UsMedium => dozen(21.0),
            Self::UsLarge => dozen(24.0),
            Self::UsExtraLarge => dozen(27.0),
            Self::UsJumbo => dozen(30.0),
            Self::EuSmall => 48.0,
            Self::EuMedium => 58.0,
            Self::EuLarge => 68.0,
            Self::EuExtraLarge => 76.0,
        })
    }

    /// One egg without its shell, to the gram.
    #[must_use]
    pub fn whole(self) -> Mass {
        Mass::new_g((self.in_shell().g() * (1.0 - SHELL)).round())
    }

    /// One yolk, to the gram.
    #[must_use]
    pub fn yolk(self) -> Mass {
        Mass::new_g((self.in_shell().g() * (1.0 - SHELL) * YOLK).round())
    }

    /// One white, to the gram.
    #[must_use]
    pub fn white(self) -> Mass {
        Mass::new_g(self.whole().g() - self.yolk().g())
    }

    /// One of the egg part kept under `key`: `egg`, `yolk` or `white`.
    #[must_use]
    pub fn part(self, key: &str) -> Option<Mass> {
        match key {
            "egg" => Some(self.whole()),
            "yolk" => Some(self.yolk()),
            "white" => Some(self.white()),
            _ => None,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_large_egg_is_what_the_food_tables_say() {
        // USDA FoodData Central, SR Legacy, from memory: 50 g without shell, white 33, yolk 17.
        let large = EggClass::UsLarge;
        assert_eq!((large.whole().g(), large.yolk().g(), large.white().g()), (50.0, 17.0, 33.0));
    }

    /// Common household weights: a cup of flour 125 g, of sugar 200 g, a stick 113 g, a tablespoon a sixteenth of a cup (USDA FoodData Central,
    /// SR Legacy, from memory; NIST Handbook 44, Appendix C).
    #[test]
    fn grams_have_their_cups_sticks_and_spoons_beside_them() {
        let of = |key: &str, g: f64| {
            let pantry = crate::dough::Pantry::built_in();
            pantry.all().iter().find(|i| &*i.key == key).expect("known").household.beside(Mass::new_g(g))
        };
        let cups = |tablespoons, filled| Some(Beside::Cups { tablespoons, filled });
        assert_eq!(of("flour-ap", 250.0), cups(32, Some(CupWay::Spooned)));
        assert_eq!(of("flour-ap", 390.0), cups(50, Some(CupWay::Spooned)));
        assert_eq!(of("sugar", 200.0), cups(16, None));
        assert_eq!(of("butter", 226.8), Some(Beside::Sticks { tablespoons: 16 }));
        assert_eq!(of("egg", 50.0), Some(Beside::EachHalves(2)));
        assert!(matches!(of("salt", 3.0), Some(Beside::Spoons(Spoons::TeaspoonEighths(4)))));
    }

    #[test]
    fn classes_lie_within_their_legal_bounds() {
        // USDA AMS: least ounces a dozen 18, 21, 24, 27, 30. EU: S under 53 g, M 53-63, L 63-73, XL 73 and more.
        let ounces = |c: EggClass| c.in_shell().g() * 12.0 / OUNCE_G;
        assert!((ounces(EggClass::UsExtraLarge) - 27.0).abs() < 1e-9);
        assert!(EggClass::EuSmall.in_shell().g() < 53.0);
        assert!((53.0..63.0).contains(&EggClass::EuMedium.in_shell().g()));
        assert!((63.0..73.0).contains(&EggClass::EuLarge.in_shell().g()));
        assert!(EggClass::EuExtraLarge.in_shell().g() >= 73.0);
    }

    #[test]
    fn a_spoon_has_its_own_weight_and_stands_in_for_a_missing_cup() {
        let salt = Household { tsp: Some(6.0), ..Household::default() };
        assert!((salt.of_volume(US_CUP_ML / 48.0, CupWay::Spooned).unwrap().g() - 6.0).abs() < 1e-9);
        assert!((salt.of_volume(US_CUP_ML, CupWay::Scooped).unwrap().g() - 288.0).abs() < 1e-9);
        assert_eq!(Household::default().of_volume(10.0, CupWay::Spooned), None);
    }
}
