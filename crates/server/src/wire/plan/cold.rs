//! The cold station on the wire, and what `compute chill` shares with it.

use super::time::time;
use crate::wire::PurposeWord;
use crate::wire::{SentenceView, say, say_all};
use ready_slab_core::cold::ColdPlace;
use ready_slab_core::cold::{ChillAnswer, Piece, Sample, ToldMinutes, Window};
use ready_slab_core::error::{InputError, InputErrors, Problem};
use ready_slab_core::job::{Job, Kitchen, OVERNIGHT, Plan};
use ready_slab_core::units::{Length, Span};
use ready_slab_words::does;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Most points of a curve that are sent.
const CURVE_POINTS: usize = 160;

/// A piece in the cold.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum PieceWire {
    /// A sheet or cut pieces of one thickness.
    Sheet {
        /// 1 to 60.
        thickness_mm: f64,
    },
    /// Sheets on each other.
    Stack {
        /// Of one sheet.
        thickness_mm: f64,
        /// 2 to 12.
        count: u32,
    },
    /// A disc.
    Disc {
        /// 1 to 200.
        thickness_mm: f64,
        /// 10 to 600.
        diameter_mm: f64,
    },
    /// A ball, as a cylinder as high as wide.
    Ball {
        /// 1 to 200.
        diameter_mm: f64,
    },
    /// A portion rolled round in the hands.
    Sphere {
        /// 1 to 200.
        diameter_mm: f64,
    },
    /// A round log.
    Log {
        /// 1 to 200.
        diameter_mm: f64,
    },
    /// A bar.
    Bar {
        /// 1 to 200.
        width_mm: f64,
        /// 1 to 200.
        height_mm: f64,
    },
}

impl PieceWire {
    /// The piece, its sizes checked.
    pub fn piece(self) -> Result<Piece, InputErrors> {
        let mm = |field: &str, v: f64| -> Result<Length, InputErrors> {
            Length::from_mm(v).map_err(|_| InputError::new(field, Problem::NotFinite).into())
        };
        match self {
            Self::Sheet { thickness_mm } => Piece::Sheet { thickness: mm("thickness_mm", thickness_mm)? },
            Self::Stack { thickness_mm, count } => Piece::Stack { thickness: mm("thickness_mm", thickness_mm)?, count },
            Self::Disc { thickness_mm, diameter_mm } => {
                Piece::Disc { thickness: mm("thickness_mm", thickness_mm)?, diameter: mm("diameter_mm", diameter_mm)? }
            }
            Self::Ball { diameter_mm } => Piece::Ball { diameter: mm("diameter_mm", diameter_mm)? },
            Self::Sphere { diameter_mm } => Piece::Sphere { diameter: mm("diameter_mm", diameter_mm)? },
            Self::Log { diameter_mm } => Piece::Log { diameter: mm("diameter_mm", diameter_mm)? },
            Self::Bar { width_mm, height_mm } => {
                Piece::Bar { width: mm("width_mm", width_mm)?, height: mm("height_mm", height_mm)? }
            }
        }
        .checked()
    }
}

impl From<Piece> for PieceWire {
    fn from(piece: Piece) -> Self {
        match piece {
            Piece::Sheet { thickness } => Self::Sheet { thickness_mm: thickness.mm() },
            Piece::Stack { thickness, count } => Self::Stack { thickness_mm: thickness.mm(), count },
            Piece::Disc { thickness, diameter } => {
                Self::Disc { thickness_mm: thickness.mm(), diameter_mm: diameter.mm() }
            }
            Piece::Ball { diameter } => Self::Ball { diameter_mm: diameter.mm() },
            Piece::Sphere { diameter } => Self::Sphere { diameter_mm: diameter.mm() },
            Piece::Log { diameter } => Self::Log { diameter_mm: diameter.mm() },
            Piece::Bar { width, height } => Self::Bar { width_mm: width.mm(), height_mm: height.mm() },
        }
    }
}

/// A point of a cooling curve.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CurvePoint {
    /// Since it went in.
    pub after_min: f64,
    /// The warmest point.
    pub warmest_c: f64,
    /// The coldest point.
    pub coldest_c: f64,
    /// Mean over the mass.
    pub mean_c: f64,
    /// Upper face.
    pub surface_c: f64,
    /// The softest point: as firm as it would be at this once its fat had set.
    pub softest_c: f64,
}

pub(in crate::wire) fn curve(samples: &[Sample]) -> Vec<CurvePoint> {
    let every = samples.len().div_ceil(CURVE_POINTS).max(1);
    let last = samples.len().saturating_sub(1);
    samples
        .iter()
        .enumerate()
        .filter(|(i, _)| i % every == 0 || *i == last)
        .map(|(_, s)| CurvePoint {
            after_min: s.after.min(),
            warmest_c: s.warmest.c(),
            coldest_c: s.coldest.c(),
            mean_c: s.mean.c(),
            surface_c: s.surface.c(),
            softest_c: s.softest.c(),
        })
        .collect()
}

/// Working temperatures.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct WindowView {
    /// Colder, it cracks when rolled.
    pub rolls_from_c: f64,
    /// Warmer, it is tacky.
    pub rolls_to_c: f64,
    /// Warmer, it is slack.
    pub tacky_to_c: f64,
    /// Slices clean at this or colder.
    pub slices_to_c: f64,
    /// Shatters when colder.
    pub slices_from_c: f64,
    /// Cut pieces go to the oven at this or colder.
    pub oven_ready_c: f64,
    /// How far the fat content moved them.
    pub shift_k: f64,
}

impl From<Window> for WindowView {
    fn from(w: Window) -> Self {
        Self {
            rolls_from_c: w.rolls_from.c(),
            rolls_to_c: w.rolls_to.c(),
            tacky_to_c: w.tacky_to.c(),
            slices_to_c: w.slices_to.c(),
            slices_from_c: w.slices_from.c(),
            oven_ready_c: w.oven_ready.c(),
            shift_k: w.shift.k(),
        }
    }
}

/// When it is ready and when past.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ReadyView {
    /// Minutes in the cold; absent when never.
    pub ready_after_min: Option<f64>,
    /// With a stronger air film.
    pub ready_earliest_min: Option<f64>,
    /// With a weaker air film.
    pub ready_latest_min: Option<f64>,
    /// When it has become too cold, within a day.
    pub past_after_min: Option<f64>,
    /// Why it never gets ready.
    pub never: Option<SentenceView>,
    /// The same in whole minutes, as it is to be told; null when never.
    pub told: Option<ToldView>,
}

/// A chill in whole minutes: ready no sooner than it is, its range outward, too cold no later than it is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct ToldView {
    /// Until it is ready.
    pub ready_min: i64,
    /// The sooner end of its range.
    pub earliest_min: i64,
    /// The later end.
    pub latest_min: i64,
    /// Until it is too cold; null where it will not be within a day.
    pub past_min: Option<i64>,
}

impl From<ToldMinutes> for ToldView {
    fn from(t: ToldMinutes) -> Self {
        Self { ready_min: t.ready, earliest_min: t.earliest, latest_min: t.latest, past_min: t.past }
    }
}

impl From<&ChillAnswer> for ReadyView {
    fn from(a: &ChillAnswer) -> Self {
        Self {
            ready_after_min: a.ready_after.map(Span::min),
            ready_earliest_min: a.ready_between.map(|b| b.0.min()),
            ready_latest_min: a.ready_between.map(|b| b.1.min()),
            past_after_min: a.past_after.map(Span::min),
            never: a.never.as_ref().map(say),
            told: a.told().map(Into::into),
        }
    }
}

/// How long the raw dough keeps, well wrapped.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct KeepingView {
    /// In the fridge, careful and usual end.
    pub fridge_days: [f64; 2],
    /// In the freezer, careful and usual end.
    pub freezer_months: [f64; 2],
    /// Why.
    pub reason: SentenceView,
}

/// Cut pieces on their tray before the oven.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TrayChillView {
    /// Where.
    pub place: ColdPlace,
    /// Taken to be as warm as this when it goes in.
    pub start_c: f64,
    /// When.
    #[serde(flatten)]
    pub ready: ReadyView,
}

/// The cold station.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ColdView {
    /// The form.
    pub piece: PieceWire,
    /// How many.
    pub count: u32,
    /// Dough in each.
    pub mass_g: f64,
    /// Where.
    pub place: ColdPlace,
    /// Its air.
    pub air_c: f64,
    /// When the first mix goes in, local time.
    pub in_at: String,
    /// Ready then.
    pub ready_at: String,
    /// Earliest.
    pub ready_earliest_at: String,
    /// Latest.
    pub ready_latest_at: String,
    /// Too cold from then, unless it stays workable.
    pub past_at: Option<String>,
    /// The same in minutes.
    #[serde(flatten)]
    pub ready: ReadyView,
    /// The run.
    pub curve: Vec<CurvePoint>,
    /// Working temperatures.
    pub window: WindowView,
    /// What it is chilled for first.
    pub purpose: PurposeWord,
    /// Colder than this it is too cold for that; null where it cannot be.
    pub works_from_c: Option<f64>,
    /// Right for that at this or colder.
    pub works_to_c: f64,
    /// What it does then, in the trade's words.
    pub works_as: String,
    /// The longest rest on the bench that this job's timeline holds.
    pub tempering_min: Option<f64>,
    /// What people call a night in the cold, at least and at most.
    pub overnight_min: [f64; 2],
    /// On the bench after a night in the cold.
    pub tempering_after_night_min: Option<f64>,
    /// On the bench, from just ready until too warm for its purpose; absent when the room is cool enough.
    pub bench_min: Option<f64>,
    /// The same when it was left until the window's cold end.
    pub bench_longest_min: Option<f64>,
    /// When the plan takes the first mix out.
    pub out_at: String,
    /// It rests at least so long for its flour.
    pub flour_rest_min: f64,
    /// Room temperature, for the sentence.
    pub room_c: f64,
    /// How long the raw dough keeps.
    pub keeping: KeepingView,
    /// Cut pieces; null where pieces are sliced or portioned and go into the oven as they are.
    pub tray_chill: Option<TrayChillView>,
    /// How the water was taken.
    pub water: SentenceView,
    /// Why.
    pub reasons: Vec<SentenceView>,
}

pub(super) fn cold(plan: &Plan, job: &Job, kitchen: &Kitchen) -> ColdView {
    let c = &plan.cold;
    let ready: ReadyView = (&c.answer).into();
    let (start, working) = (plan.chill_start_min(), c.window.working(c.target));
    let at = |minutes: Option<i64>| minutes.map(|m| time(plan, job, start + m)).unwrap_or_default();
    let told = c.answer.told();
    ColdView {
        piece: c.form.piece.into(),
        count: c.form.count,
        mass_g: c.form.mass.g(),
        place: c.place,
        air_c: c.air.c(),
        in_at: time(plan, job, start),
        ready_earliest_at: at(told.map(|t| t.earliest)),
        ready_latest_at: at(told.map(|t| t.latest)),
        ready_at: at(told.map(|t| t.ready)),
        past_at: told.and_then(|t| t.past).map(|m| time(plan, job, start + m)),
        ready,
        curve: curve(&c.answer.curve),
        window: c.window.into(),
        purpose: c.target.into(),
        works_from_c: working.from.map(|t| t.c()),
        works_to_c: working.to.c(),
        works_as: does(c.target).to_owned(),
        flour_rest_min: c.flour_rest.min(),
        tempering_min: c.tempering.map(Span::min),
        overnight_min: [OVERNIGHT.0.min(), OVERNIGHT.1.min()],
        tempering_after_night_min: c.tempering_after_night.map(Span::min),
        bench_min: c.bench.map(Span::min),
        bench_longest_min: c.bench_longest.map(Span::min),
        out_at: time(plan, job, plan.chill_end_min()),
        room_c: kitchen.room().c(),
        keeping: KeepingView {
            fridge_days: c.keeping.fridge_days.into(),
            freezer_months: c.keeping.freezer_months.into(),
            reason: say(&c.keeping.reason),
        },
        tray_chill: c.tray_chill.as_ref().map(|t| TrayChillView {
            place: t.place,
            start_c: t.start.c(),
            ready: (&t.answer).into(),
        }),
        water: say(&c.answer.water),
        reasons: say_all(&c.reasons),
    }
}
