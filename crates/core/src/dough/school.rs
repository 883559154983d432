//! The balances that practitioners name, and where a dough stands among them.

use super::{Formula, LineInput, Pantry, Ratio};

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

/// By what measure a ratio is said.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum SaidBy {
    /// Cups of each.
    Cups,
    /// Weights of each.
    Weight,
}

/// A balance that practitioners name.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct School {
    /// Its ratio as it is said, butter first.
    pub name: &'static str,
    /// By what it is said.
    pub said_by: SaidBy,
    /// Sugar over butter, by weight.
    pub sugar: f64,
    /// Flour over butter, by weight.
    pub flour: f64,
    /// What it is known for.
    pub known_for: KnownFor,
}

/// Grams of a cup of butter, of sugar, and of flour spooned in and levelled. Common practice, no source.
pub const CUP_G: [f64; 3] = [227.0, 200.0, 125.0];

/// A ratio said in cups of butter, sugar and flour.
const fn by_cups(name: &'static str, [butter, sugar, flour]: [f64; 3], known_for: KnownFor) -> School {
    let fat = butter * CUP_G[0];
    School { name, said_by: SaidBy::Cups, sugar: sugar * CUP_G[1] / fat, flour: flour * CUP_G[2] / fat, known_for }
}

/// A ratio said by weight.
const fn by_weight(name: &'static str, sugar: f64, flour: f64, known_for: KnownFor) -> School {
    School { name, said_by: SaidBy::Weight, sugar, flour, known_for }
}

/// The schools by butter : sugar : flour. Bakers say ratios by cups; short dough alone, and what has no name in cups, by weight. Common practice, no
/// source.
pub const SCHOOLS: [School; 5] = [
    by_cups("1 : 1 : 3", [1.0, 1.0, 3.0], KnownFor::Shape),
    by_cups("1 : 2 : 3", [1.0, 2.0, 3.0], KnownFor::SweetAndCrisp),
    by_cups("1 : 1 : 2", [1.0, 1.0, 2.0], KnownFor::SoftAndRich),
    by_weight("1 : \u{bd} : 1\u{bd}", 0.5, 1.5, KnownFor::ShortAndTender),
    by_weight("1 : 1.3 : 1.5", 1.3, 1.5, KnownFor::SweetAndRich),
];

impl School {
    /// The school as a plain formula of butter, sugar and flour, to stand beside another.
    #[must_use]
    pub fn formula(&self) -> Formula {
        let lines: [LineInput; 3] =
            [("flour-ap", 100.0 * self.flour).into(), ("butter", 100.0).into(), ("sugar", 100.0 * self.sugar).into()];
        Formula::new(self.name, &lines, Pantry::built_in()).expect("the schools are sound formulas")
    }

    /// Its balance.
    #[must_use]
    pub const fn ratio(&self) -> Ratio {
        Ratio { sugar: self.sugar, flour: self.flour }
    }
}

/// Where a dough stands among those that practitioners know.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Standing {
    /// Much more butter than sugar.
    ShortAndTender,
    /// Much flour.
    Dry,
    /// Near 1 : 1 : 3 by cups.
    CutOut,
    /// Sweeter or richer than that, and still rolled.
    SoftCutOut,
    /// Near 1 : 2 : 3 by cups.
    SweetAndCrisp,
    /// Little flour to much butter and sugar.
    SweetAndRich,
    /// Too soft to be rolled as it is.
    Piped,
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    /// Weights that practitioners' cups come to: common practice, no source.
    #[rstest]
    #[case("1 : 1 : 3", 0.88, 1.65)]
    #[case("1 : 2 : 3", 1.76, 1.65)]
    #[case("1 : 1 : 2", 0.88, 1.10)]
    fn ratios_said_in_cups_are_kept_by_weight(#[case] name: &str, #[case] sugar: f64, #[case] flour: f64) {
        let school = SCHOOLS.iter().find(|s| s.name == name).unwrap();
        assert!((school.sugar - sugar).abs() < 0.006 && (school.flour - flour).abs() < 0.006, "{school:?}");
    }
}
