//! A finish as it is chosen for a lot: what, on how many of the pieces, and in which colours.

use super::colour::ColourPart;
use super::{Coat, CoatPlan, FinishedPiece, coat_plan};
use crate::dough::{Tint, TintInput, paste_of};
use crate::error::{Checks, InputError, InputErrors};

/// What goes onto or between pieces.
#[derive(Debug, Clone, PartialEq, serde::Serialize, serde::Deserialize)]
#[serde(from = "super::coat_key::FinishKey", into = "super::coat_key::FinishKey")]
pub struct Finish {
    /// What.
    pub coat: Coat,
    /// On so many of the pieces, 1 to 100,000; on all when absent or more than there are.
    pub pieces: Option<u32>,
    /// Portions of it that are coloured; what is left over stays as it is.
    pub colours: Vec<TintInput>,
}

impl From<Coat> for Finish {
    fn from(coat: Coat) -> Self {
        Self { coat, pieces: None, colours: vec![] }
    }
}

impl Finish {
    /// Checks its figures and colours.
    pub fn checked(&self) -> Result<(), InputErrors> {
        let mut checks = Checks::new();
        if let Err(faults) = self.coat.checked() {
            faults.all().iter().cloned().for_each(|e| checks.push(e));
        }
        if let Some(pieces) = self.pieces {
            checks.range("pieces", f64::from(pieces), 1.0, 100_000.0, "cookies");
        }
        if !self.colours.is_empty() && !self.coat.takes_colour() {
            checks.push(InputError::refused("colours", "You can color icing, glaze, fondant and buttercream only."));
        }
        if let Err(faults) = self.tints() {
            faults.all().iter().cloned().for_each(|e| checks.push(e));
        }
        checks.finish(())
    }

    fn tints(&self) -> Result<Vec<Tint>, InputErrors> {
        Tint::list_of(&self.colours, "colours", ["% of it", "% of it together"])
    }

    /// What it takes for a lot.
    #[must_use]
    pub fn plan(&self, piece: FinishedPiece) -> CoatPlan {
        let pieces = self.pieces.map_or(piece.pieces, |some| some.min(piece.pieces));
        let mut plan = coat_plan(self.coat, FinishedPiece { pieces, ..piece });
        plan.colours = self
            .tints()
            .unwrap_or_default()
            .iter()
            .map(|t| {
                let mass = plan.total * t.share().value();
                ColourPart { name: t.name().to_owned(), mass, paste: paste_of(t.name(), mass) }
            })
            .collect();
        plan
    }

    /// Of all the pieces, the part that it goes on.
    #[must_use]
    pub fn part_of(&self, pieces: u32) -> f64 {
        self.pieces.map_or(1.0, |some| f64::from(some.min(pieces)) / f64::from(pieces.max(1)))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::units::{Area, Length};

    fn piece() -> FinishedPiece {
        FinishedPiece {
            top: Area::new_mm2(3848.0),
            edge: Length::new_mm(220.0),
            thickness: Length::new_mm(5.0),
            pieces: 48,
        }
    }

    fn colour(name: &str, percent: f64) -> TintInput {
        TintInput { name: name.into(), percent }
    }

    #[test]
    fn on_a_part_of_the_pieces_it_takes_that_part_and_colours_are_shares_of_it() {
        let all = Finish::from(Coat::usual_royal(false)).plan(piece());
        let half = Finish {
            coat: Coat::usual_royal(false),
            pieces: Some(24),
            colours: vec![colour("red", 30.0), colour("pale blue", 20.0)],
        };
        let plan = half.plan(piece());
        assert!((plan.total.g() * 2.0 - all.total.g()).abs() < 1e-6 && plan.count == 24);
        assert!((plan.colours[0].mass / plan.total - 0.3).abs() < 1e-9);
        // Red wants several times the paste of a pale shade: 0.8 to 1.2 % against 0.1 to 0.2, common practice, no source.
        let paste = |i: usize| plan.colours[i].paste.g() / plan.colours[i].mass.g();
        assert!((0.007..0.013).contains(&paste(0)) && paste(1) < 0.0035, "{:?}", plan.colours);
        assert!((half.part_of(48) - 0.5).abs() < 1e-9);
        // More than there are is all of them.
        assert_eq!(Finish { pieces: Some(500), ..Coat::Drizzle.into() }.plan(piece()).count, 48);
    }

    #[test]
    fn colours_of_sugar_and_more_than_all_of_an_icing_are_refused_by_name() {
        let said = |f: Finish| f.checked().unwrap_err().to_string();
        let sugar = Finish { colours: vec![colour("red", 10.0)], ..Coat::Drizzle.into() };
        assert!(said(sugar).contains("color icing"));
        let much = vec![colour("red", 70.0), colour("blue", 40.0)];
        assert!(said(Finish { colours: much, ..Coat::usual_fondant().into() }).contains("110"));
        assert!(said(Finish { pieces: Some(0), ..Coat::Drizzle.into() }).contains("pieces"));
    }
}
