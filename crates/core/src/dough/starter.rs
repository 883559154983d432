//! Basic doughs to begin from, one of each school; our own formulations, by ratio.

use super::{Formula, KnownFor, LineInput, MixMethod, Pantry};

/// How the pieces of a basic dough are usually made.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[cfg_attr(feature = "wire", derive(serde::Serialize, serde::Deserialize, utoipa::ToSchema))]
#[cfg_attr(feature = "wire", serde(rename_all = "snake_case"))]
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

/// Balances of the schools by practitioners' ratios, butter : sugar : flour; settings of method, thickness and oven. Common practice, no source.
pub const STARTERS: [Starter; 7] = [
    Starter {
        key: "holds-its-shape",
        name: "Holds its shape",
        known_for: KnownFor::Shape,
        lines: &[
            ("flour-ap", 450.0),
            ("butter", 150.0),
            ("sugar", 150.0),
            ("egg", 50.0),
            ("vanilla", 5.0),
            ("salt", 3.0),
        ],
        method: MixMethod::JustCombined,
        suits: Suits::Cutter,
        thickness_mm: 6.0,
        oven_c: 175.0,
    },
    Starter {
        key: "short-and-tender",
        name: "Short and tender",
        known_for: KnownFor::ShortAndTender,
        lines: &[("flour-ap", 360.0), ("butter", 240.0), ("sugar", 120.0), ("salt", 3.0)],
        method: MixMethod::RubbedIn,
        suits: Suits::Cutter,
        thickness_mm: 8.0,
        oven_c: 165.0,
    },
    Starter {
        key: "icebox-log",
        name: "Icebox log",
        known_for: KnownFor::CleanSlices,
        lines: &[
            ("flour-ap", 360.0),
            ("butter", 200.0),
            ("sugar-powdered", 140.0),
            ("yolk", 17.0),
            ("vanilla", 4.0),
            ("salt", 3.0),
        ],
        method: MixMethod::JustCombined,
        suits: Suits::Log,
        thickness_mm: 7.0,
        oven_c: 170.0,
    },
    Starter {
        key: "sweet-and-crisp",
        name: "Sweet and crisp",
        known_for: KnownFor::SweetAndCrisp,
        lines: &[
            ("flour-ap", 450.0),
            ("butter", 150.0),
            ("sugar", 300.0),
            ("egg", 50.0),
            ("vanilla", 5.0),
            ("salt", 3.0),
        ],
        method: MixMethod::JustCombined,
        suits: Suits::Cutter,
        thickness_mm: 4.0,
        oven_c: 175.0,
    },
    Starter {
        key: "soft-and-rich",
        name: "Soft and rich",
        known_for: KnownFor::SoftAndRich,
        lines: &[
            ("flour-ap", 400.0),
            ("butter", 200.0),
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
    Starter {
        key: "sweet-and-rich",
        name: "Sweet and rich",
        known_for: KnownFor::SweetAndRich,
        lines: &[
            ("flour-ap", 300.0),
            ("butter", 200.0),
            ("sugar", 150.0),
            ("sugar-brown", 150.0),
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
    Starter {
        key: "spiced",
        name: "Spiced, for figures",
        known_for: KnownFor::Figures,
        lines: &[
            ("flour-ap", 420.0),
            ("butter", 130.0),
            ("sugar-brown", 110.0),
            ("honey", 110.0),
            ("egg", 50.0),
            ("ginger", 6.0),
            ("cinnamon", 5.0),
            ("baking-soda", 2.0),
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
    use crate::dough::{Character, Handling, SCHOOLS};
    use rstest::rstest;

    /// The ratios practitioners name; that of short dough is said sugar 1 : butter 2 : flour 3. Common practice, no source.
    #[rstest]
    #[case("holds-its-shape", 1.0, 3.0)]
    #[case("short-and-tender", 0.5, 1.5)]
    #[case("icebox-log", 0.7, 1.8)]
    #[case("sweet-and-crisp", 2.0, 3.0)]
    #[case("soft-and-rich", 1.0, 2.0)]
    #[case("sweet-and-rich", 1.5, 1.5)]
    fn each_basic_dough_has_the_ratio_of_its_school(#[case] key: &str, #[case] sugar: f64, #[case] flour: f64) {
        let ratio = Starter::of(key).expect("known").formula().ratio();
        assert!((ratio.sugar - sugar).abs() < 0.05 && (ratio.flour - flour).abs() < 0.05, "{key}: {ratio:?}");
    }

    #[test]
    fn every_school_has_one_to_begin_from() {
        for school in SCHOOLS {
            assert!(STARTERS.iter().any(|s| s.known_for == school.known_for), "{}", school.name);
        }
    }

    /// What is to be rolled and cut can be; what is to be sliced is no softer than that.
    #[test]
    fn a_dough_for_the_cutter_can_be_cut() {
        for s in STARTERS.iter().filter(|s| s.suits != Suits::Balls) {
            let handling = Character::of(&s.formula()).handling.verdict;
            assert!(handling != Handling::Pipeable, "{}: {handling:?}", s.name);
        }
    }
}
