//! The forecast and the levers on the wire.

use super::{SentenceView, say, say_all};
use ready_slab_core::geometry::NarrowKind;
use ready_slab_core::job::LeverGroup;
use ready_slab_core::job::{BakeLever, Cooling, LeverEffect, OvenPlan, PartsAhead, TrayPieceTime, TrayTimes};
use ready_slab_core::oven::DoneBy;
use ready_slab_core::oven::Profile;
use ready_slab_core::oven::{
    BakeForecast, BakeKnowledge, BakeSample, SEEN_BY_ALL, look_apart, screen_colour, shade_of,
};
use ready_slab_core::units::Span;
use ready_slab_words::{Name, notch};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A moment of a bake.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BakePoint {
    /// Since it went in.
    pub after_min: f64,
    /// Middle of the piece.
    pub core_c: f64,
    /// Surface above the rim.
    pub rim_c: f64,
    /// Of the width as cut.
    pub spread_percent: f64,
    /// 0 raw to 100 burnt.
    pub rim_colour: f64,
    /// That, as a screen shows it.
    pub rim_screen: String,
}

/// What is forecast of one piece.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BakeView {
    /// In the oven.
    pub bake_min: f64,
    /// What decided it.
    pub done_by: DoneBy,
    /// Of a round, across.
    pub spread_percent: f64,
    /// Across the longer side of this piece.
    pub across_percent: f64,
    /// Outward growth at the rim.
    pub growth_mm: f64,
    /// Once it has cooled.
    pub thickness_mm: f64,
    /// Once it has cooled, over all of it.
    pub density_kg_m3: f64,
    /// From the side.
    pub profile: Profile,
    /// Colour index, 0 raw to 100 burnt.
    pub rim_colour: f64,
    /// The word for it.
    pub rim_word: String,
    /// Colour index.
    pub middle_colour: f64,
    /// The word for it.
    pub middle_word: String,
    /// Colour index.
    pub under_colour: f64,
    /// The word for it.
    pub under_word: String,
    /// How far apart rim and middle look, CIEDE2000.
    pub rim_apart_de: f64,
    /// Whether anybody sees that side by side.
    pub rim_apart_seen: bool,
    /// The rim as a screen shows it.
    pub rim_screen: String,
    /// The middle.
    pub middle_screen: String,
    /// The underside.
    pub under_screen: String,
    /// Middle of the piece.
    pub core_c: f64,
    /// Of the mass as it went in.
    pub loss_percent: f64,
    /// When the middle no longer shines.
    pub dull_after_min: Option<f64>,
    /// When the middle is set.
    pub set_after_min: Option<f64>,
    /// When the fat has let go.
    pub fat_after_min: Option<f64>,
    /// The piece as it goes in.
    pub start_c: f64,
    /// Every 10 s.
    pub curve: Vec<BakePoint>,
}

/// What a lever would change.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LeverView {
    /// Where it stands among all.
    pub number: usize,
    /// How many there are.
    pub of: usize,
    /// Where it is pulled.
    pub group: LeverGroup,
    /// What is done.
    pub name: SentenceView,
    /// In the oven until its own end; null beyond what the model knows.
    pub bake_min: Option<f64>,
    /// Across the longer side of the piece.
    pub spread_percent: Option<f64>,
    /// Outward growth at the rim.
    pub growth_mm: Option<f64>,
    /// Once it has cooled.
    pub thickness_mm: Option<f64>,
    /// Colour index of the rim after the time of the bake as planned.
    pub rim_at_same_time: Option<f64>,
    /// That, as a screen shows it.
    pub rim_screen: Option<String>,
    /// Colour index of the underside.
    pub under_colour: Option<f64>,
    /// Change of the spread across the piece, percentage points; null within the forecast's own steps.
    pub spread_change_percent: Option<f64>,
    /// Change of the time in the oven; null within the forecast's own steps.
    pub bake_change_min: Option<f64>,
    /// Change of the rim's colour index after the time as planned; null where no eye tells it.
    pub rim_change: Option<f64>,
    /// Why it is not told.
    pub why_not: Option<String>,
}

/// All levers were told.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LeversDone {
    /// After so long.
    pub after_s: f64,
}

/// How a piece cools on its tray.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CoolingView {
    /// Until it can be lifted without bending; null when it takes more than 90 min.
    pub lifts_after_min: Option<f64>,
    /// Until it can be iced or packed; null when it takes more than 90 min.
    pub packs_after_min: Option<f64>,
}

impl From<Cooling> for CoolingView {
    fn from(c: Cooling) -> Self {
        Self { lifts_after_min: c.lifts_after.map(Span::min), packs_after_min: c.packs_after.map(Span::min) }
    }
}

/// Narrow parts of a piece that bake ahead of the rest.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PartsAheadView {
    /// Points or necks.
    pub kind: NarrowKind,
    /// Where each is, from the middle of the cutter's box.
    pub at_mm: Vec<[f64; 2]>,
    /// How wide they are on the whole.
    pub width_mm: f64,
    /// They have the colour so long before the rest.
    pub ahead_min: f64,
    /// Their colour when the rest is done, as a screen shows it.
    pub screen: String,
    /// All of it, as a sentence.
    pub sentence: SentenceView,
}

impl PartsAheadView {
    /// Parts of a piece, of a dough whose cocoa hides its colour or not.
    pub fn new(p: &PartsAhead, cocoa: bool) -> Self {
        Self {
            kind: p.kind,
            at_mm: p.at.iter().map(|&(x, y)| [x, y]).collect(),
            width_mm: p.width.mm(),
            ahead_min: p.ahead.min(),
            screen: screen_colour(p.colour, cocoa),
            sentence: say(p),
        }
    }
}

/// A piece on its tray.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TrayPieceView {
    /// How thick the sheet was where it was cut.
    pub thickness_mm: f64,
    /// How much hotter its place is than the oven on the whole.
    pub hotter_k: f64,
    /// Done after, as it lies.
    pub done_min: f64,
    /// Done after, when the tray is turned half way.
    pub done_turned_min: f64,
}

/// When each piece of a full tray is done.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TrayTimesView {
    /// In the order of the tray's cuts.
    pub pieces: Vec<TrayPieceView>,
    /// The first to be done as they lie.
    pub first_min: f64,
    /// The last.
    pub last_min: f64,
    /// The first when the tray is turned half way.
    pub turned_first_min: f64,
    /// The last then.
    pub turned_last_min: f64,
    /// One time will do up to here, after the first.
    pub one_time_to_min: f64,
    /// Whether one time will do for all as they lie.
    pub one_tray: bool,
    /// Whether it will when the tray is turned.
    pub one_tray_turned: bool,
    /// Whether sheets were measured.
    pub measured: bool,
    /// Whether the oven has a map of its places.
    pub mapped: bool,
    /// What to do.
    pub advice: Vec<SentenceView>,
}

impl From<&TrayTimes> for TrayTimesView {
    fn from(t: &TrayTimes) -> Self {
        let piece = |p: &TrayPieceTime| TrayPieceView {
            thickness_mm: p.thickness.mm(),
            hotter_k: p.hotter.k(),
            done_min: p.done.min(),
            done_turned_min: p.done_turned.min(),
        };
        Self {
            pieces: t.pieces.iter().map(piece).collect(),
            first_min: t.as_it_lies.0.min(),
            last_min: t.as_it_lies.1.min(),
            turned_first_min: t.turned.0.min(),
            turned_last_min: t.turned.1.min(),
            one_time_to_min: t.one_time_to().min(),
            one_tray: t.one_tray,
            one_tray_turned: t.one_tray_turned,
            measured: t.measured,
            mapped: t.mapped,
            advice: say_all(&t.advice),
        }
    }
}

/// What bakes teach, or have taught.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TaughtView {
    /// The oven's air over its setting, or over what its thermometer showed; null where the thermometer is newer.
    pub offset_k: Option<f64>,
    /// One standard deviation.
    pub offset_sd_k: Option<f64>,
    /// How strongly it heats, times what the model has; null where no thermometer was read in it.
    pub heat: Option<f64>,
    /// One standard deviation, of itself.
    pub heat_sd_percent: Option<f64>,
    /// Records the oven's rests on, of all formulas.
    pub oven_records: u32,
    /// Times as far as the model has it.
    pub spread: f64,
    /// One standard deviation, of itself.
    pub spread_sd_percent: f64,
    /// Times as long as the model has it.
    pub time: f64,
    /// Times as fast as the model has it.
    pub browning: f64,
    /// What stays unsure of a time, of itself.
    pub time_sd_percent: f64,
    /// Records it rests on.
    pub records: u32,
}

impl From<&BakeKnowledge> for TaughtView {
    fn from(k: &BakeKnowledge) -> Self {
        Self {
            offset_k: k.oven.map(|o| o.offset.k()),
            offset_sd_k: k.oven.map(|o| o.offset_sd.k()),
            heat: k.oven.and_then(|o| o.heat).map(|h| h.heat),
            heat_sd_percent: k.oven.and_then(|o| o.heat).map(|h| 100.0 * h.heat_sd),
            oven_records: k.oven.map_or(0, |o| o.records),
            spread: k.dough.spread,
            spread_sd_percent: 100.0 * k.dough.spread_sd,
            time: k.dough.time,
            browning: k.dough.browning,
            time_sd_percent: 100.0 * k.dough.time_sd,
            records: k.dough.records,
        }
    }
}

/// A forecast in short, with its range.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BandView {
    /// At the earliest.
    pub bake_least_min: f64,
    /// At the latest.
    pub bake_most_min: f64,
    /// Across the longer side of the piece, at least.
    pub spread_least_percent: f64,
    /// At most.
    pub spread_most_percent: f64,
}

impl From<&OvenPlan> for BandView {
    fn from(oven: &OvenPlan) -> Self {
        let ((bake, _), across) = (oven.expected.told(), oven.spread_across());
        Self {
            bake_least_min: bake.0.min(),
            bake_most_min: bake.1.min(),
            spread_least_percent: 100.0 * across.0.value(),
            spread_most_percent: 100.0 * across.1.value(),
        }
    }
}

/// What the recorded bakes of a formula would teach.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BakesTeachView {
    /// Bakes looked at: the newest of the kitchen.
    pub records: usize,
    /// What they would teach; null without any that the model reaches.
    pub would: Option<TaughtView>,
    /// Numbers of records that do not fit with the others.
    pub set_aside: Vec<i64>,
    /// Numbers of records beyond what the model knows.
    pub beyond: Vec<i64>,
    /// Numbers of records that do not hold what they were baked with, made before that was kept.
    pub incomplete: Vec<i64>,
    /// The job's bake without them.
    pub before: BandView,
    /// The job's bake with them; null without any.
    pub after: Option<BandView>,
    /// What is taken over already; null while nothing is.
    pub taken: Option<TaughtView>,
}

/// Every fifth sample is drawn.
const DRAWN: usize = 5;

impl BakeView {
    /// A forecast of a piece.
    pub fn new(f: &BakeForecast, oven: &OvenPlan) -> Self {
        let (piece, cocoa) = (&oven.question.piece, oven.hides_colour);
        // What cocoa hides has no word of its own.
        let word = |index: f64| if cocoa { "dark" } else { shade_of(index).name() }.to_owned();
        let point = |s: &BakeSample| BakePoint {
            after_min: s.after.min(),
            core_c: s.core.c(),
            rim_c: s.top.1.c(),
            spread_percent: 100.0 * s.spread.value(),
            rim_colour: s.colour[0],
            rim_screen: screen_colour(s.colour[0], cocoa),
        };
        Self {
            bake_min: f.bake.min(),
            done_by: f.done_by,
            spread_percent: 100.0 * f.spread.value(),
            across_percent: 100.0 * oven.of_a_round() * f.spread.value(),
            growth_mm: f.growth(piece).mm(),
            thickness_mm: f.thickness.mm(),
            density_kg_m3: f.density.kg_m3(),
            profile: f.profile,
            rim_colour: f.rim_colour,
            rim_word: word(f.rim_colour),
            middle_colour: f.middle_colour,
            middle_word: word(f.middle_colour),
            under_colour: f.under_colour,
            under_word: word(f.under_colour),
            rim_apart_de: look_apart(f.rim_colour, f.middle_colour),
            rim_apart_seen: !cocoa && look_apart(f.rim_colour, f.middle_colour) > SEEN_BY_ALL,
            rim_screen: screen_colour(f.rim_colour, cocoa),
            middle_screen: screen_colour(f.middle_colour, cocoa),
            under_screen: screen_colour(f.under_colour, cocoa),
            core_c: f.core.c(),
            loss_percent: 100.0 * f.loss.value(),
            dull_after_min: f.dull_after.map(Span::min),
            set_after_min: f.set_after.map(Span::min),
            fat_after_min: f.fat_after.map(Span::min),
            start_c: piece.start.c(),
            curve: f.curve.iter().step_by(DRAWN).map(point).collect(),
        }
    }
}

impl LeverView {
    /// A lever with what it changes, or why that is not told.
    pub fn new(
        number: usize,
        of: usize,
        lever: &BakeLever,
        (planned, oven): (&BakeForecast, &OvenPlan),
        effect: Result<LeverEffect, String>,
    ) -> Self {
        let (cocoa, of_a_round) = (oven.hides_colour, oven.of_a_round());
        let change = effect.as_ref().ok().map(|e| e.change(planned));
        let (effect, why_not) = match effect {
            Ok(effect) => (Some(effect), None),
            Err(why) => (None, Some(why)),
        };
        let f = effect.as_ref().map(|e| &e.forecast);
        Self {
            number,
            of,
            group: lever.group,
            name: notch(lever.notch).into(),
            bake_min: f.map(|f| f.bake.min()),
            spread_percent: f.map(|f| 100.0 * of_a_round * f.spread.value()),
            growth_mm: f.map(|f| f.growth(&lever.question.piece).mm()),
            thickness_mm: f.map(|f| f.thickness.mm()),
            rim_at_same_time: effect.as_ref().map(|e| e.rim_at_same_time),
            rim_screen: effect.as_ref().map(|e| screen_colour(e.rim_at_same_time, cocoa)),
            under_colour: f.map(|f| f.under_colour),
            spread_change_percent: change.and_then(|c| c.spread_points).map(|points| of_a_round * points),
            bake_change_min: change.and_then(|c| c.bake_min),
            rim_change: change.and_then(|c| c.rim),
            why_not,
        }
    }
}
