//! Pieces of a job followed through the kitchen's places.

use super::{ColdPlace, Kitchen, Making};
use crate::cold::{BENCH_FILM, LiveStay, Piece, Place, PlaceKnowledge, Support, Target, Tracked, Wrap};
use crate::dough::{Composition, Keeping};
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

/// What a piece of a job is chilled for where nobody says: portions for the oven as they are, logs and bars to be sliced, all else
/// to be rolled. The plan chills them for the same.
#[must_use]
pub fn usual_purpose(making: &Making, piece: Piece) -> Target {
    match (making, piece) {
        (Making::Portioned(_), _) => Target::Oven,
        (_, Piece::Log { .. } | Piece::Bar { .. }) => Target::Slicing,
        _ => Target::Rolling,
    }
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

const DAY_MIN: f64 = 24.0 * 60.0;
/// A month of the freezer, days.
const MONTH_DAYS: f64 = 30.0;

/// Whether a piece of dough has lain longer than it keeps, as a sentence: `stays` are where it was put and when, `now` since it was first put
/// anywhere. Days in the fridge and months in the freezer are each counted by themselves.
#[must_use]
pub fn kept_too_long(keeping: &Keeping, stays: &[(Whereabouts, Span)], now: Span) -> Option<String> {
    let days_in = |wanted: ColdPlace| -> f64 {
        let end = |i: usize| stays.get(i + 1).map_or(now, |s| s.1);
        let of = |(i, (place, from)): (usize, &(Whereabouts, Span))| {
            if *place == Whereabouts::Cold(wanted) { (end(i) - *from).min().max(0.0) / DAY_MIN } else { 0.0 }
        };
        stays.iter().enumerate().map(of).sum()
    };
    let (fridge, freezer) = (days_in(ColdPlace::Fridge), days_in(ColdPlace::Freezer) / MONTH_DAYS);
    let (lain, keeps, place) = if fridge > keeping.fridge_days.1 {
        (
            format!("{fridge:.0} days"),
            format!("{:.0} to {:.0} days", keeping.fridge_days.0, keeping.fridge_days.1),
            "fridge",
        )
    } else if freezer > keeping.freezer_months.1 {
        let (least, most) = keeping.freezer_months;
        (format!("{freezer:.0} months"), format!("{least:.0} to {most:.0} months"), "freezer")
    } else {
        return None;
    };
    Some(format!("It has lain {lain} in the {place}; this dough keeps {keeps} there. Your local food code decides."))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn fridge_and_freezer_are_counted_by_themselves() {
        let keeping = Keeping { fridge_days: (2.0, 3.0), freezer_months: (1.0, 3.0), reason: String::new() };
        let days = |d: f64| Span::new_min(d * DAY_MIN);
        let (fridge, freezer) = (Whereabouts::Cold(ColdPlace::Fridge), Whereabouts::Cold(ColdPlace::Freezer));
        let stays = [(fridge, days(0.0)), (freezer, days(1.0)), (Whereabouts::Bench, days(40.0)), (fridge, days(40.1))];
        assert_eq!(kept_too_long(&keeping, &stays, days(41.0)), None);
        let late = kept_too_long(&keeping, &stays, days(43.2)).unwrap();
        assert!(late.starts_with("It has lain 4 days in the fridge; this dough keeps 2 to 3 days there."), "{late}");
        assert!(
            kept_too_long(&keeping, &[(freezer, days(0.0))], days(100.0)).unwrap().contains("3 months in the freezer")
        );
        assert_eq!(kept_too_long(&keeping, &[(freezer, days(0.0))], days(80.0)), None);
    }
}
