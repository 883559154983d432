//! What of a job chills in which form and for how long.

use super::chilling::{ChillFor, ChillForm, DoughForm};
use super::{Job, Making};
use crate::units::{Length, Span};

impl Job {
    /// How the dough chills.
    #[must_use]
    pub fn chill_form(&self) -> ChillForm {
        let input = self.input();
        match (&input.making, input.dough_form) {
            (Making::Sliced { .. }, _) => ChillForm::Log,
            (Making::Portioned(_), _) | (Making::Cut, DoughForm::Lump) => ChillForm::Lump,
            (Making::Cut, DoughForm::Disc) => ChillForm::Disc { thickness: Length::new_mm(input.disc_mm) },
            (Making::Cut, DoughForm::Sheets) => ChillForm::Sheets { stack: input.sheet_stack },
        }
    }

    /// How long the dough chills before it is shaped: until it is ready where nobody says otherwise; dough that is portioned, not at all.
    #[must_use]
    pub fn dough_for(&self) -> ChillFor {
        let usual = if matches!(self.input().making, Making::Portioned(_)) { ChillFor::No } else { ChillFor::Ready };
        self.input().dough_for.unwrap_or(usual)
    }

    /// How long the shaped pieces chill: until they are ready where nobody says otherwise; slices of a firm log and portions of a
    /// chilled dough, not at all.
    #[must_use]
    pub fn pieces_for(&self) -> ChillFor {
        let firm = match self.input().making {
            Making::Cut => false,
            Making::Sliced { .. } => self.dough_for() != ChillFor::No,
            Making::Portioned(_) => self.portions_from_cold(),
        };
        self.input().pieces_for.unwrap_or(if firm { ChillFor::No } else { ChillFor::Ready })
    }

    /// Whether it is portioned of dough that was chilled as a whole; otherwise the portions are what goes into the cold first.
    #[must_use]
    pub fn portions_from_cold(&self) -> bool {
        matches!(self.input().making, Making::Portioned(_)) && self.dough_for() != ChillFor::No
    }

    /// Whether the portions themselves are what goes into the cold first.
    #[must_use]
    pub fn portions_first(&self) -> bool {
        matches!(self.input().making, Making::Portioned(_)) && self.dough_for() == ChillFor::No
    }

    /// What goes into the cold first, so long.
    #[must_use]
    pub fn first_for(&self) -> (ChillFor, Span) {
        if self.portions_first() {
            self.second()
        } else {
            (self.dough_for(), Span::new_min(self.input().dough_for_min))
        }
    }

    /// The shaped pieces after that, so long.
    #[must_use]
    pub fn second_for(&self) -> (ChillFor, Span) {
        if self.portions_first() { (ChillFor::No, Span::new_s(0.0)) } else { self.second() }
    }

    fn second(&self) -> (ChillFor, Span) {
        (self.pieces_for(), Span::new_min(self.input().pieces_for_min))
    }
}
