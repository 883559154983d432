//! Basic doughs to begin from, one of each school; our own formulations, by ratio.

use super::{Formula, KnownFor, LineInput, MixMethod, Pantry};

/// How the pieces of a basic dough are usually made.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Suits {
    /// Rolled and cut.
    Cutter,
    /// Formed to a log and sliced.
    Log,
    /// Rolled to balls.
    Balls,
}

/// A basic dough.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Starter {
    /// Word it is asked for by.
    pub key: &'static str,
    /// What it is called.
    pub name: &'static str,
    /// What it is known for.
    pub known_for: KnownFor,
    /// What it is of, g; a small batch.
    lines: &'static [(&'static str, f64)],
    /// How it is usually mixed.
    pub method: MixMethod,
    /// How its pieces are usually made.
    pub suits: Suits,
    /// How thick they usually are, mm; of balls it says nothing.
    pub thickness_mm: f64,
    /// The oven's usual setting, °C.
    pub oven_c: f64,
}

/// Doughs as bakers make them, by cups turned to grams (butter 227, sugar 200, flour 125 g a cup); settings of method, thickness
/// and oven. Common practice, no source.
pub const STARTERS: [Starter; 7] = [
    // 3 cups of flour, 1 of butter, 1 of sugar, an egg: 1 : 1 : 3 by cups.
    Starter {
        key: "holds-its-shape",
        name: "Classic cut-out",
        known_for: KnownFor::Shape,
        lines: &[
            ("flour-ap", 375.0),
            ("butter", 227.0),
            ("sugar", 200.0),
            ("egg", 50.0),
            ("vanilla", 5.0),
            ("salt", 3.0),
        ],
        method: MixMethod::JustCombined,
        suits: Suits::Cutter,
        thickness_mm: 6.0,
        oven_c: 175.0,
    },
    // Sugar 1, butter 2, flour 3, by weight.
    Starter {
        key: "short-and-tender",
        name: "Short and tender",
        known_for: KnownFor::ShortAndTender,
        lines: &[("flour-ap", 340.0), ("butter", 227.0), ("sugar", 113.0), ("salt", 3.0)],
        method: MixMethod::RubbedIn,
        suits: Suits::Cutter,
        thickness_mm: 8.0,
        oven_c: 165.0,
    },
    // 2½ cups of flour, 1 of butter, ⅔ of sugar, two yolks.
    Starter {
        key: "icebox-log",
        name: "Icebox log",
        known_for: KnownFor::CleanSlices,
        lines: &[
            ("flour-ap", 312.0),
            ("butter", 227.0),
            ("sugar", 130.0),
            ("yolk", 36.0),
            ("vanilla", 5.0),
            ("salt", 3.0),
        ],
        method: MixMethod::JustCombined,
        suits: Suits::Log,
        thickness_mm: 7.0,
        oven_c: 170.0,
    },
    // Near 1 : 2 : 3 by cups: 3¼ cups of flour and 1⅔ of sugar, so that it can still be cut.
    Starter {
        key: "sweet-and-crisp",
        name: "Sweet and crisp",
        known_for: KnownFor::SweetAndCrisp,
        lines: &[
            ("flour-ap", 406.0),
            ("butter", 227.0),
            ("sugar", 333.0),
            ("egg", 50.0),
            ("vanilla", 5.0),
            ("salt", 3.0),
        ],
        method: MixMethod::JustCombined,
        suits: Suits::Cutter,
        thickness_mm: 4.0,
        oven_c: 175.0,
    },
    // Near 1 : 1 : 2 by cups: 2¼ cups of flour.
    Starter {
        key: "soft-and-rich",
        name: "Soft and rich",
        known_for: KnownFor::SoftAndRich,
        lines: &[
            ("flour-ap", 280.0),
            ("butter", 227.0),
            ("sugar", 200.0),
            ("egg", 50.0),
            ("vanilla", 5.0),
            ("salt", 3.0),
        ],
        method: MixMethod::LightAndFluffy,
        suits: Suits::Balls,
        thickness_mm: 6.0,
        oven_c: 175.0,
    },
    // 1 : 1.3 : 1.5 by weight: half of its sugar brown, half a teaspoon of soda.
    Starter {
        key: "sweet-and-rich",
        name: "Sweet and rich",
        known_for: KnownFor::SweetAndRich,
        lines: &[
            ("flour-ap", 340.0),
            ("butter", 227.0),
            ("sugar", 150.0),
            ("sugar-brown", 145.0),
            ("egg", 50.0),
            ("baking-soda", 3.0),
            ("vanilla", 5.0),
            ("salt", 4.0),
        ],
        method: MixMethod::LightAndFluffy,
        suits: Suits::Balls,
        thickness_mm: 8.0,
        oven_c: 175.0,
    },
    // 3⅓ cups of flour, a little over ¾ of butter, ½ of brown sugar, a third of honey, an egg; no soda, so that its edges stay.
    Starter {
        key: "spiced",
        name: "Spiced, for figures",
        known_for: KnownFor::Figures,
        lines: &[
            ("flour-ap", 417.0),
            ("butter", 185.0),
            ("sugar-brown", 110.0),
            ("honey", 100.0),
            ("egg", 50.0),
            ("ginger", 6.0),
            ("cinnamon", 5.0),
            ("salt", 3.0),
        ],
        method: MixMethod::JustCombined,
        suits: Suits::Cutter,
        thickness_mm: 5.0,
        oven_c: 175.0,
    },
];

impl Starter {
    /// The one of a key.
    #[must_use]
    pub fn of(key: &str) -> Option<&'static Self> {
        STARTERS.iter().find(|s| s.key == key)
    }

    /// It as a formula.
    #[must_use]
    pub fn formula(&self) -> Formula {
        let lines: Vec<LineInput> = self.lines.iter().map(|&line| line.into()).collect();
        Formula::new(self.name, &lines, Pantry::built_in()).expect("the basic doughs are sound formulas")
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::dough::SCHOOLS;
    use rstest::rstest;

    /// Each beside the balance it is named after, in cups of butter, sugar and flour, or by weight; common practice, no source.
    #[rstest]
    #[case("holds-its-shape", 0.88, 1.65)]
    #[case("short-and-tender", 0.5, 1.5)]
    #[case("icebox-log", 0.57, 1.37)]
    #[case("sweet-and-crisp", 1.47, 1.79)]
    #[case("soft-and-rich", 0.88, 1.23)]
    #[case("sweet-and-rich", 1.3, 1.5)]
    #[case("spiced", 1.14, 2.25)]
    fn each_basic_dough_is_one_that_bakers_make(#[case] key: &str, #[case] sugar: f64, #[case] flour: f64) {
        let ratio = Starter::of(key).expect("known").formula().ratio();
        assert!((ratio.sugar - sugar).abs() < 0.01 && (ratio.flour - flour).abs() < 0.01, "{key}: {ratio:?}");
        // What people really roll by weight: flour 0.9 to 2.6, sugar 0.1 to 2.1 to one of butter.
        assert!((0.9..2.6).contains(&ratio.flour) && (0.1..2.1).contains(&ratio.sugar));
    }

    #[test]
    fn every_school_has_one_to_begin_from() {
        for school in SCHOOLS {
            assert!(STARTERS.iter().any(|s| s.known_for == school.known_for), "{}", school.name);
        }
    }
}
