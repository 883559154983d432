//! The balances that practitioners name.

use super::{Formula, LineInput, Pantry};

/// What a balance is known for.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum KnownFor {
    /// Holding its shape and its detail.
    Shape,
    /// Sweet and crisp.
    SweetAndCrisp,
    /// Soft and rich.
    SoftAndRich,
    /// Sweet and rich.
    SweetAndRich,
    /// Short and tender.
    ShortAndTender,
    /// Slicing cleanly from a cold log.
    CleanSlices,
    /// Figures that stand and keep.
    Figures,
}

/// A balance that practitioners name.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct School {
    /// Its ratio as it is said.
    pub name: &'static str,
    /// Sugar over butter.
    pub sugar: f64,
    /// Flour over butter.
    pub flour: f64,
    /// What it is known for.
    pub known_for: KnownFor,
}

/// The schools by butter : sugar : flour. Common practice, no source.
pub const SCHOOLS: [School; 4] = [
    School { name: "1 : 1 : 3", sugar: 1.0, flour: 3.0, known_for: KnownFor::Shape },
    School { name: "1 : 2 : 3", sugar: 2.0, flour: 3.0, known_for: KnownFor::SweetAndCrisp },
    School { name: "1 : 1 : 2", sugar: 1.0, flour: 2.0, known_for: KnownFor::SoftAndRich },
    School { name: "1 : 1\u{bd} : 1\u{bd}", sugar: 1.5, flour: 1.5, known_for: KnownFor::SweetAndRich },
];

impl School {
    /// The school as a plain formula of butter, sugar and flour, to stand beside another.
    #[must_use]
    pub fn formula(&self) -> Formula {
        let lines: [LineInput; 3] =
            [("flour-ap", 100.0 * self.flour).into(), ("butter", 100.0).into(), ("sugar", 100.0 * self.sugar).into()];
        Formula::new(self.name, &lines, Pantry::built_in()).expect("the schools are sound formulas")
    }
}
