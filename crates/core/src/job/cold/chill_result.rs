//! What of a job chills in which form and for how long.

use crate::cold::ColdPlace;
use crate::cold::Piece;
use crate::job::settings::chill_choice::{ChillFor, ChillForm, DoughForm, MOST_STACKED, Thaw};
use crate::job::settings::job::Job;
use crate::job::settings::making::Making;
use crate::units::{Length, Span};
use serde::{Deserialize, Serialize};

/// What of a job changes when it is chilled another way: the fields of it, those that stay left out.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize, utoipa::ToSchema)]
#[expect(missing_docs, reason = "each is the job's field of its name")]
pub struct ChillChange {
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub dough_form: Option<DoughForm>,
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub disc_mm: Option<f64>,
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub sheet_stack: Option<u32>,
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub chill_place: Option<ColdPlace>,
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub tray_chill_place: Option<ColdPlace>,
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub dough_for: Option<ChillFor>,
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub pieces_for: Option<ChillFor>,
    /// Nothing: what is chilled is fresh.
    pub thaws: Option<Thaw>,
}

impl Job {
    /// The same job with its dough in the freezer; nothing of one whose dough is there already.
    #[must_use]
    pub fn with_dough_frozen(&self) -> Option<Self> {
        let input = self.input();
        let fridge = input.cold.chill_place == ColdPlace::Fridge;
        fridge.then(|| Self::new(input.clone().with(|j| j.cold.chill_place = ColdPlace::Freezer)).ok()).flatten()
    }

    /// The same job with its cut trays in a cold place.
    #[must_use]
    pub fn with_trays_in(&self, place: ColdPlace) -> Option<Self> {
        Self::new(self.input().clone().with(|j| j.cold.tray_chill_place = place)).ok()
    }

    /// How its dough thaws, where that is in the freezer.
    #[must_use]
    pub fn thaws(&self) -> Option<Thaw> {
        self.input().cold.thaws.filter(|_| {
            !matches!(self.input().shape.making, Making::Portioned(_)) || self.asked_dough_for() != ChillFor::No
        })
    }

    /// Where its dough chills before it is shaped; thawing, in the fridge.
    #[must_use]
    pub fn dough_place(&self) -> ColdPlace {
        if self.thaws().is_some() { ColdPlace::Fridge } else { self.input().cold.chill_place }
    }

    /// How long the dough of its logs chills as a lump before they are formed, and so long where that is said.
    #[must_use]
    pub fn bulk_for(&self) -> (ChillFor, Span) {
        let input = self.input();
        let logs = matches!(input.shape.making, Making::Sliced { .. }) && self.thaws().is_none();
        (if logs { input.cold.bulk_for } else { ChillFor::No }, Span::new_min(input.cold.bulk_for_min))
    }

    /// How the dough chills.
    #[must_use]
    pub fn chill_form(&self) -> ChillForm {
        let input = self.input();
        match (&input.shape.making, input.cold.dough_form) {
            (Making::Sliced { .. }, _) => ChillForm::Log,
            (Making::Portioned(_), _) | (Making::Cut, DoughForm::Lump) => ChillForm::Lump,
            (Making::Cut, DoughForm::Disc) => ChillForm::Disc { thickness: Length::new_mm(input.cold.disc_mm) },
            (Making::Cut, DoughForm::Sheets) => ChillForm::Sheets { stack: input.cold.sheet_stack },
        }
    }

    /// How long the dough chills before it is shaped: until it is ready where nobody says otherwise; dough that is portioned, not at all.
    #[must_use]
    pub fn dough_for(&self) -> ChillFor {
        match self.thaws() {
            // It is as cold as the fridge by the morning, or has come to the bench's temperature.
            Some(Thaw::Fridge) => ChillFor::Overnight,
            Some(Thaw::Bench) => ChillFor::No,
            None => self.asked_dough_for(),
        }
    }

    fn asked_dough_for(&self) -> ChillFor {
        let usual =
            if matches!(self.input().shape.making, Making::Portioned(_)) { ChillFor::No } else { ChillFor::Ready };
        self.input().cold.dough_for.unwrap_or(usual)
    }

    /// How long the shaped pieces chill: until they are ready where nobody says otherwise; slices of a firm log and portions of a
    /// chilled dough, not at all.
    #[must_use]
    pub fn pieces_for(&self) -> ChillFor {
        let firm = match self.input().shape.making {
            Making::Cut => false,
            Making::Sliced { .. } => self.dough_for() != ChillFor::No,
            Making::Portioned(_) => self.portions_from_cold(),
        };
        self.input().cold.pieces_for.unwrap_or(if firm { ChillFor::No } else { ChillFor::Ready })
    }

    /// Whether it is portioned of dough that was chilled as a whole; otherwise the portions are what goes into the cold first.
    #[must_use]
    pub fn portions_from_cold(&self) -> bool {
        matches!(self.input().shape.making, Making::Portioned(_)) && self.dough_for() != ChillFor::No
    }

    /// Whether the portions themselves are what goes into the cold first.
    #[must_use]
    pub fn portions_first(&self) -> bool {
        matches!(self.input().shape.making, Making::Portioned(_)) && self.dough_for() == ChillFor::No
    }

    /// What goes into the cold first, so long.
    #[must_use]
    pub fn first_for(&self) -> (ChillFor, Span) {
        if self.portions_first() {
            self.second()
        } else {
            (self.dough_for(), Span::new_min(self.input().cold.dough_for_min))
        }
    }

    /// The shaped pieces after that, so long.
    #[must_use]
    pub fn second_for(&self) -> (ChillFor, Span) {
        if self.portions_first() { (ChillFor::No, Span::new_s(0.0)) } else { self.second() }
    }

    fn second(&self) -> (ChillFor, Span) {
        (self.pieces_for(), Span::new_min(self.input().cold.pieces_for_min))
    }

    /// What has to change for the job to chill this piece first, there; nothing where it would have to be made another way.
    #[must_use]
    pub fn chilled_as(&self, piece: Piece, place: ColdPlace) -> Option<ChillChange> {
        let no = self.first_for().0 == ChillFor::No;
        // What was not chilled at all is from now on, until it is ready.
        let stays = no.then_some(ChillFor::Ready);
        if self.portions_first() {
            return Some(ChillChange { tray_chill_place: Some(place), pieces_for: stays, ..ChillChange::default() });
        }
        let there = ChillChange { chill_place: Some(place), dough_for: stays, ..ChillChange::default() };
        let cut = self.input().shape.making == Making::Cut;
        let form = |dough_form| ChillChange { dough_form: Some(dough_form), ..there };
        let sheets = |stack| ChillChange { sheet_stack: Some(stack), ..form(DoughForm::Sheets) };
        match piece {
            _ if !cut => Some(there),
            Piece::Ball { .. } => Some(form(DoughForm::Lump)),
            Piece::Disc { thickness, .. } => {
                Some(ChillChange { disc_mm: Some(thickness.mm()), ..form(DoughForm::Disc) })
            }
            Piece::Sheet { .. } => Some(sheets(1)),
            Piece::Stack { count, .. } => (count <= MOST_STACKED).then(|| sheets(count)),
            Piece::Log { .. } | Piece::Bar { .. } | Piece::Sphere { .. } => None,
        }
    }
}
