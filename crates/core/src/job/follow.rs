//! Pieces of a job followed through the kitchen's places.

use super::{ColdPlace, Kitchen};
use crate::cold::{BENCH_FILM, LiveStay, Piece, Place, PlaceKnowledge, Support, Target, Tracked, Wrap};
use crate::dough::Composition;
use crate::error::InputErrors;
use crate::units::{Span, Temperature};

/// Where a piece lies.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Whereabouts {
    /// In one of the cold places.
    Cold(ColdPlace),
    /// Out, on the bench.
    Bench,
}

impl Whereabouts {
    /// The word for it.
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::Cold(place) => place.word(),
            Self::Bench => "bench",
        }
    }
}

/// A piece was put somewhere.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Put {
    /// Where.
    pub place: Whereabouts,
    /// Since it was first put anywhere.
    pub from: Span,
    /// What was known of the place then.
    pub before: PlaceKnowledge,
}

/// A piece of a job's dough.
#[derive(Debug, Clone, PartialEq)]
pub struct Followed {
    /// What it is made of.
    pub composition: Composition,
    /// Its form.
    pub piece: Piece,
    /// What it is for. Cut pieces for the oven lie open on their tray; all else is wrapped.
    pub target: Target,
    /// All of it when it was first put anywhere.
    pub start: Temperature,
    /// Where it was put, in order.
    pub puts: Vec<Put>,
}

/// The piece with its places as this kitchen has them.
///
/// Fails as [`Tracked::new`] does.
pub fn follow(kitchen: &Kitchen, followed: &Followed) -> Result<Tracked, InputErrors> {
    let sheet = matches!(followed.piece, Piece::Sheet { .. });
    let stays = followed
        .puts
        .iter()
        .map(|put| {
            let (place, support) = match put.place {
                Whereabouts::Cold(cold) => {
                    let tray = Support::Tray { kind: kitchen.tray_kind(), start: kitchen.room() };
                    (kitchen.set_place(cold), if sheet { tray } else { Support::Rack })
                }
                Whereabouts::Bench => (
                    Place::new(kitchen.room().c(), BENCH_FILM.w_m2k())?.called("bench"),
                    Support::Bench { bench: kitchen.room() },
                ),
            };
            Ok(LiveStay { from: put.from, place, support, before: put.before })
        })
        .collect::<Result<Vec<_>, InputErrors>>()?;
    let wrap = if matches!(followed.target, Target::Oven) { Wrap::Open } else { Wrap::Wrapped };
    Tracked::new(followed.composition.clone(), followed.piece, wrap, followed.start.c(), followed.target, stays)
}
