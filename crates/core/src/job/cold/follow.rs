//! Pieces of a job followed through the kitchen's places.

use crate::cold::ColdPlace;
use crate::cold::{BENCH_FILM, Lies, LiveStay, Piece, Place, PlaceKnowledge, Support, Target, Tracked, Wrap};
use crate::dough::{Composition, Keeping};
use crate::error::InputErrors;
use crate::job::answers::Plan;
use crate::job::reasons::reason::Reason;
use crate::job::settings::job::Job;
use crate::job::settings::kitchen::Kitchen;
use crate::job::settings::making::Making;
use crate::units::{Span, Temperature};
use serde::{Deserialize, Serialize};

/// Where a piece lies.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum WhereKey {
    /// In the fridge.
    Fridge,
    /// In the freezer.
    Freezer,
    /// Out, on the bench.
    Bench,
}

/// Where a piece lies.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(from = "WhereKey", into = "WhereKey")]
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

impl utoipa::PartialSchema for Whereabouts {
    fn schema() -> utoipa::openapi::RefOr<utoipa::openapi::schema::Schema> {
        WhereKey::schema()
    }
}

impl utoipa::ToSchema for Whereabouts {
    fn name() -> std::borrow::Cow<'static, str> {
        "Whereabouts".into()
    }
}

/// A piece was put somewhere.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LaidAt {
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
    /// It lies at least so long for its flour, where it is to be rolled, sliced or scooped.
    pub flour_rests: Span,
    /// Where it was put, in order.
    pub puts: Vec<LaidAt>,
}

/// What a piece of a job is chilled for where nobody says: portions for the oven as they are, logs and bars to be sliced, all else
/// to be rolled. The plan chills them for the same.
#[must_use]
pub fn usual_purpose(making: &Making, piece: Piece) -> Target {
    match (making, piece) {
        // What lies there as it left the bowl is to be portioned yet.
        (Making::Portioned(_), Piece::Ball { .. }) => Target::Rolling,
        (Making::Portioned(_), _) => Target::Oven,
        (_, Piece::Log { .. } | Piece::Bar { .. }) => Target::Slicing,
        (Making::Cut, Piece::Ball { .. }) => Target::RolledLater,
        _ => Target::Rolling,
    }
}

/// What a piece is judged by: of what was put in to be rolled, a lump of dough that is cut is divided and rolled later.
#[must_use]
pub fn judged_as(making: &Making, piece: Piece, purpose: Target) -> Target {
    let lump = matches!((making, piece), (Making::Cut, Piece::Ball { .. }));
    if lump && purpose == Target::Rolling { Target::RolledLater } else { purpose }
}

/// A piece that goes into the cold, as far as anything is said of it.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct GoesIn {
    /// What it is for.
    pub purpose: Option<Target>,
    /// Its form.
    pub piece: Option<Piece>,
    /// Where.
    pub place: Option<Whereabouts>,
    /// All of it.
    pub start: Option<Temperature>,
}

/// A piece as it goes into the cold.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct WentIn {
    /// What it is for.
    pub purpose: Target,
    /// Its form.
    pub piece: Piece,
    /// Where.
    pub place: Whereabouts,
    /// All of it.
    pub start: Temperature,
}

impl GoesIn {
    /// What is not said is as the job's plan has it: for the oven, cut pieces on their tray as the plan chills them then.
    #[must_use]
    pub fn as_planned(self, job: &Job, plan: &Plan) -> WentIn {
        let form = plan.cold.form.piece;
        let purpose =
            self.purpose.unwrap_or_else(|| usual_purpose(&job.input().shape.making, self.piece.unwrap_or(form)));
        let tray = plan.cold.tray_chill.as_ref().filter(|_| matches!(purpose, Target::Oven));
        let usual = match tray {
            Some(tray) => (tray.question.piece(), tray.start, tray.place),
            None => (form, plan.dough.temperature, plan.cold.place),
        };
        WentIn {
            purpose,
            piece: self.piece.unwrap_or(usual.0),
            place: self.place.unwrap_or(Whereabouts::Cold(usual.2)),
            start: self.start.unwrap_or(usual.1),
        }
    }
}

/// A stay of a piece that was read, and what its readings say.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct StayRead {
    /// Where.
    pub place: Whereabouts,
    /// Whether it was crowded or often opened.
    pub busy: bool,
    /// What is thought of the place by its readings.
    pub found: PlaceKnowledge,
    /// How many of them count.
    pub readings: usize,
}

/// What a piece teaches of the cold places, each in each of its uses: of several stays in one, the first with most readings, as it
/// counts on another day. A stay that nobody read teaches nothing.
#[must_use]
pub fn lessons(stays: &[StayRead]) -> Vec<(ColdPlace, bool, PlaceKnowledge)> {
    let mut best: Vec<(ColdPlace, &StayRead)> = Vec::new();
    for stay in stays.iter().filter(|s| s.readings > 0) {
        let Whereabouts::Cold(place) = stay.place else { continue };
        match best.iter_mut().find(|b| b.0 == place && b.1.busy == stay.busy) {
            Some(other) if other.1.readings < stay.readings => other.1 = stay,
            Some(_) => {}
            None => best.push((place, stay)),
        }
    }
    best.into_iter().map(|(place, stay)| (place, stay.busy, stay.found.another_day())).collect()
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
    let tracked =
        Tracked::new(followed.composition.clone(), followed.piece, wrap, followed.start.c(), followed.target, stays)?;
    Ok(tracked.resting(followed.flour_rests))
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
    fn of_several_stays_in_one_place_the_most_read_teaches() {
        let (fridge, freezer) = (Whereabouts::Cold(ColdPlace::Fridge), Whereabouts::Cold(ColdPlace::Freezer));
        let stay = |place, busy, ln_film: f64, readings| {
            let found = PlaceKnowledge { ln_film: (ln_film, 0.05), ..PlaceKnowledge::default() };
            StayRead { place, busy, found, readings }
        };
        let stays = [
            stay(fridge, false, 0.1, 0),
            stay(fridge, false, 0.2, 4),
            stay(Whereabouts::Bench, false, 0.3, 90),
            stay(fridge, false, 0.4, 9),
            stay(fridge, true, 0.5, 1),
            stay(freezer, false, 0.6, 0),
            stay(fridge, false, 0.7, 9),
        ];
        let learnt = lessons(&stays);
        let told: Vec<_> = learnt.iter().map(|(place, busy, k)| (*place, *busy, k.ln_film.0)).collect();
        assert_eq!(told, [(ColdPlace::Fridge, false, 0.4), (ColdPlace::Fridge, true, 0.5)]);
        // Another day is less sure.
        assert!(learnt[0].2.ln_film.1 > 0.05);
    }

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
