//! Pieces of a job followed through the kitchen's places.

use super::{ColdPlace, Kitchen, Making, Reason};
use crate::cold::{BENCH_FILM, Lies, LiveStay, Piece, Place, PlaceKnowledge, Support, Target, Tracked, Wrap};
use crate::dough::{Composition, Keeping};
use crate::error::InputErrors;
use crate::units::{Span, Temperature};
#[cfg(feature = "wire")]
use serde::{Deserialize, Serialize};

/// Where a piece lies.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[cfg_attr(feature = "wire", derive(Serialize, Deserialize, utoipa::ToSchema), serde(rename_all = "snake_case"))]
pub enum WhereKey {
    /// In the fridge.
    Fridge,
    /// In the freezer.
    Freezer,
    /// Out, on the bench.
    Bench,
}

/// Where a piece lies.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[cfg_attr(feature = "wire", derive(Serialize, Deserialize), serde(from = "WhereKey", into = "WhereKey"))]
pub enum Whereabouts {
    /// In one of the cold places.
    Cold(ColdPlace),
    /// Out, on the bench.
    Bench,
}

impl From<WhereKey> for Whereabouts {
    fn from(key: WhereKey) -> Self {
        match key {
            WhereKey::Fridge => Self::Cold(ColdPlace::Fridge),
            WhereKey::Freezer => Self::Cold(ColdPlace::Freezer),
            WhereKey::Bench => Self::Bench,
        }
    }
}

impl From<Whereabouts> for WhereKey {
    fn from(place: Whereabouts) -> Self {
        match place {
            Whereabouts::Cold(ColdPlace::Fridge) => Self::Fridge,
            Whereabouts::Cold(ColdPlace::Freezer) => Self::Freezer,
            Whereabouts::Bench => Self::Bench,
        }
    }
}

#[cfg(feature = "wire")]
impl utoipa::PartialSchema for Whereabouts {
    fn schema() -> utoipa::openapi::RefOr<utoipa::openapi::schema::Schema> {
        WhereKey::schema()
    }
}

#[cfg(feature = "wire")]
impl utoipa::ToSchema for Whereabouts {
    fn name() -> std::borrow::Cow<'static, str> {
        "Whereabouts".into()
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
                    Place::new(kitchen.room().c(), BENCH_FILM.w_m2k())?.being(Lies::OnTheBench),
                    Support::Bench { bench: kitchen.room() },
                ),
            };
            Ok(LiveStay { from: put.from, place, support, before: put.before })
        })
        .collect::<Result<Vec<_>, InputErrors>>()?;
    let wrap = if matches!(followed.target, Target::Oven) { Wrap::Open } else { Wrap::Wrapped };
    Tracked::new(followed.composition.clone(), followed.piece, wrap, followed.start.c(), followed.target, stays)
}

/// What has been read of a piece where it lies now.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ReadSoFar {
    /// Where it lies.
    pub place: Whereabouts,
    /// Readings that fit.
    pub readings: usize,
    /// The place takes heat so many times as well as was assumed.
    pub takes_heat: f64,
    /// Its air, as the readings have it.
    pub air: Temperature,
}

/// What readings of a piece come to.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum ReadingNote {
    /// Nobody has read it here.
    NoneHere,
    /// They have told so much of the place.
    SoFar(ReadSoFar),
    /// One does not fit the others.
    DoesNotFit {
        /// What it showed.
        shows: Temperature,
    },
    /// So many are set aside in all.
    SetAsideInAll(usize),
}

/// Readings set aside that are each named.
const MOST_NAMED: usize = 3;

/// What the readings of a piece come to, where it lies and of those set aside, the newest first.
#[must_use]
pub fn notes_on_readings(here: Option<ReadSoFar>, set_aside: &[Temperature]) -> Vec<ReadingNote> {
    let place = here.map(|h| if h.readings == 0 { ReadingNote::NoneHere } else { ReadingNote::SoFar(h) });
    let named = set_aside.iter().rev().take(MOST_NAMED).map(|shows| ReadingNote::DoesNotFit { shows: *shows });
    let all = (set_aside.len() > MOST_NAMED).then_some(ReadingNote::SetAsideInAll(set_aside.len()));
    place.into_iter().chain(named).chain(all).collect()
}

const DAY_MIN: f64 = 24.0 * 60.0;
/// A month of the freezer, days.
const MONTH_DAYS: f64 = 30.0;

/// Whether a piece of dough has lain longer than it keeps: `stays` are where it was put and when, `now` since it was first put
/// anywhere. Days in the fridge and months in the freezer are each counted by themselves.
#[must_use]
pub fn kept_too_long(keeping: &Keeping, stays: &[(Whereabouts, Span)], now: Span) -> Option<Reason> {
    let days_in = |wanted: ColdPlace| -> f64 {
        let end = |i: usize| stays.get(i + 1).map_or(now, |s| s.1);
        let of = |(i, (place, from)): (usize, &(Whereabouts, Span))| {
            if *place == Whereabouts::Cold(wanted) { (end(i) - *from).min().max(0.0) / DAY_MIN } else { 0.0 }
        };
        stays.iter().enumerate().map(of).sum()
    };
    let (fridge, freezer) = (days_in(ColdPlace::Fridge), days_in(ColdPlace::Freezer) / MONTH_DAYS);
    // Days of the fridge, months of the freezer.
    if fridge > keeping.fridge_days.1 {
        Some(Reason::LainTooLong { place: ColdPlace::Fridge, lain: fridge, keeps: keeping.fridge_days })
    } else if freezer > keeping.freezer_months.1 {
        Some(Reason::LainTooLong { place: ColdPlace::Freezer, lain: freezer, keeps: keeping.freezer_months })
    } else {
        None
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn fridge_and_freezer_are_counted_by_themselves() {
        let keeping = Keeping {
            fridge_days: (2.0, 3.0),
            freezer_months: (1.0, 3.0),
            reason: crate::dough::Reason::Keeps { egg: true, fresh: false, nuts: false },
        };
        let days = |d: f64| Span::new_min(d * DAY_MIN);
        let (fridge, freezer) = (Whereabouts::Cold(ColdPlace::Fridge), Whereabouts::Cold(ColdPlace::Freezer));
        let stays = [(fridge, days(0.0)), (freezer, days(1.0)), (Whereabouts::Bench, days(40.0)), (fridge, days(40.1))];
        assert_eq!(kept_too_long(&keeping, &stays, days(41.0)), None);
        let late = kept_too_long(&keeping, &stays, days(43.2)).unwrap();
        let Reason::LainTooLong { place: ColdPlace::Fridge, lain, keeps: (2.0, 3.0) } = late else {
            panic!("{late:?}")
        };
        assert!((lain - 4.1).abs() < 0.01, "{lain}");
        let late = kept_too_long(&keeping, &[(freezer, days(0.0))], days(100.0));
        assert!(matches!(late, Some(Reason::LainTooLong { place: ColdPlace::Freezer, lain, .. }) if lain > 3.0));
        assert_eq!(kept_too_long(&keeping, &[(freezer, days(0.0))], days(80.0)), None);
    }
}
