//! The forecast and the levers on the wire.

use super::{SentenceView, say, say_all, view};
use ready_slab_core::geometry::NarrowKind;
use ready_slab_core::job::LeverGroup;
use ready_slab_core::job::{BakeLever, Cooling, LeverEffect, OvenPlan, PartsAhead, TrayPieceTime, TrayTimes};
use ready_slab_core::oven::DoneBy;
use ready_slab_core::oven::Profile;
use ready_slab_core::oven::{
    BakeForecast, BakeKnowledge, BakeSample, SEEN_BY_ALL, look_apart, screen_colour, shade_of,
};
use ready_slab_core::units::Span;
use ready_slab_store::{Moved, StoredRecord};
use ready_slab_words::{Name, notch};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

view! {
    /// A moment of a bake.
    pub struct BakePoint(s: &BakeSample, cocoa: bool) {
        /// Since it went in.
        after_min: f64 = s.after.min(),
        /// Middle of the piece.
        core_c: f64 = s.core.c(),
        /// Surface above the rim.
        rim_c: f64 = s.top.1.c(),
        /// Of the width as cut.
        spread_percent: f64 = 100.0 * s.spread.value(),
        /// 0 raw to 100 burnt.
        rim_colour: f64 = s.colour[0],
        /// That, as a screen shows it.
        rim_screen: String = screen_colour(s.colour[0], cocoa),
    }
}

view! {
    /// What is forecast of one piece.
    pub struct BakeView(f: &BakeForecast, oven: &OvenPlan) {
        let (piece, cocoa) = (&oven.question.piece, oven.hides_colour);
        // What cocoa hides has no word of its own.
        let word = |index: f64| if cocoa { "dark" } else { shade_of(index).name() }.to_owned();

        /// In the oven.
        bake_min: f64 = f.bake.min(),
        /// What decided it.
        done_by: DoneBy = f.done_by,
        /// Of a round, across.
        spread_percent: f64 = 100.0 * f.spread.value(),
        /// Across the longer side of this piece.
        across_percent: f64 = 100.0 * oven.of_a_round() * f.spread.value(),
        /// Outward growth at the rim.
        growth_mm: f64 = f.growth(piece).mm(),
        /// Once it has cooled.
        thickness_mm: f64 = f.thickness.mm(),
        /// Once it has cooled, over all of it.
        density_kg_m3: f64 = f.density.kg_m3(),
        /// From the side.
        profile: Profile = f.profile,
        /// Colour index, 0 raw to 100 burnt.
        rim_colour: f64 = f.rim_colour,
        /// The word for it.
        rim_word: String = word(f.rim_colour),
        /// Colour index.
        middle_colour: f64 = f.middle_colour,
        /// The word for it.
        middle_word: String = word(f.middle_colour),
        /// Colour index.
        under_colour: f64 = f.under_colour,
        /// The word for it.
        under_word: String = word(f.under_colour),
        /// How far apart rim and middle look, CIEDE2000.
        rim_apart_de: f64 = look_apart(f.rim_colour, f.middle_colour),
        /// Whether anybody sees that side by side.
        rim_apart_seen: bool = !cocoa && look_apart(f.rim_colour, f.middle_colour) > SEEN_BY_ALL,
        /// The rim as a screen shows it.
        rim_screen: String = screen_colour(f.rim_colour, cocoa),
        /// The middle.
        middle_screen: String = screen_colour(f.middle_colour, cocoa),
        /// The underside.
        under_screen: String = screen_colour(f.under_colour, cocoa),
        /// Middle of the piece.
        core_c: f64 = f.core.c(),
        /// Of the mass as it went in.
        loss_percent: f64 = 100.0 * f.loss.value(),
        /// When the middle no longer shines.
        dull_after_min: Option<f64> = f.dull_after.map(Span::min),
        /// When the middle is set.
        set_after_min: Option<f64> = f.set_after.map(Span::min),
        /// When the fat has let go.
        fat_after_min: Option<f64> = f.fat_after.map(Span::min),
        /// The piece as it goes in.
        start_c: f64 = piece.start.c(),
        /// Every 10 s.
        curve: Vec<BakePoint> = f.curve.iter().step_by(DRAWN).map(|s| BakePoint::new(s, cocoa)).collect(),
    }
}

view! {
    /// What a lever would change.
    pub struct LeverView(
        number: usize,
        of: usize,
        lever: &BakeLever,
        planned: &BakeForecast,
        oven: &OvenPlan,
        effect: &Result<LeverEffect, String>,
    ) {
        let (cocoa, of_a_round) = (oven.hides_colour, oven.of_a_round());
        let told = effect.as_ref().ok();
        let change = told.map(|e| e.change(planned));
        let f = told.map(|e| &e.forecast);

        /// Where it stands among all.
        number: usize = number,
        /// How many there are.
        of: usize = of,
        /// Where it is pulled.
        group: LeverGroup = lever.group,
        /// What is done.
        name: SentenceView = notch(lever.notch).into(),
        /// In the oven until its own end; null beyond what the model knows.
        bake_min: Option<f64> = f.map(|f| f.bake.min()),
        /// Across the longer side of the piece.
        spread_percent: Option<f64> = f.map(|f| 100.0 * of_a_round * f.spread.value()),
        /// Outward growth at the rim.
        growth_mm: Option<f64> = f.map(|f| f.growth(&lever.question.piece).mm()),
        /// Once it has cooled.
        thickness_mm: Option<f64> = f.map(|f| f.thickness.mm()),
        /// Colour index of the rim after the time of the bake as planned.
        rim_at_same_time: Option<f64> = told.map(|e| e.rim_at_same_time),
        /// That, as a screen shows it.
        rim_screen: Option<String> = told.map(|e| screen_colour(e.rim_at_same_time, cocoa)),
        /// Colour index of the underside.
        under_colour: Option<f64> = f.map(|f| f.under_colour),
        /// Change of the spread across the piece, percentage points; null within the forecast's own steps.
        spread_change_percent: Option<f64> = change.and_then(|c| c.spread_points).map(|points| of_a_round * points),
        /// The same as outward growth at the edge; null within the forecast's own steps.
        growth_change_mm: Option<f64> = change
            .and_then(|c| c.spread_points)
            .and(f)
            .map(|f| f.growth(&lever.question.piece).mm() - planned.growth(&oven.question.piece).mm()),
        /// Change of the time in the oven; null within the forecast's own steps.
        bake_change_min: Option<f64> = change.and_then(|c| c.bake_min),
        /// Change of the rim's colour index after the time as planned; null where no eye tells it.
        rim_change: Option<f64> = change.and_then(|c| c.rim),
        /// Why it is not told.
        why_not: Option<String> = effect.as_ref().err().cloned(),
    }
}

/// All levers were told.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LeversDone {
    /// After so long.
    pub after_s: f64,
}

view! {
    /// How a piece cools on its tray.
    pub struct CoolingView(c: Cooling) {
        /// Until it can be lifted without bending; null when it takes more than 90 min.
        lifts_after_min: Option<f64> = c.lifts_after.map(Span::min),
        /// Until it can be iced or packed; null when it takes more than 90 min.
        packs_after_min: Option<f64> = c.packs_after.map(Span::min),
    }
}

view! {
    /// Narrow parts of a piece that bake ahead of the rest.
    pub struct PartsAheadView(p: &PartsAhead, cocoa: bool) {
        /// Points or necks.
        kind: NarrowKind = p.kind,
        /// Where each is, from the middle of the cutter's box.
        at_mm: Vec<[f64; 2]> = p.at.iter().map(|&(x, y)| [x, y]).collect(),
        /// How wide they are on the whole.
        width_mm: f64 = p.width.mm(),
        /// They have the colour so long before the rest.
        ahead_min: f64 = p.ahead.min(),
        /// Their colour when the rest is done, as a screen shows it.
        screen: String = screen_colour(p.colour, cocoa),
        /// All of it, as a sentence.
        sentence: SentenceView = say(p),
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

impl From<&TrayPieceTime> for TrayPieceView {
    fn from(p: &TrayPieceTime) -> Self {
        Self {
            thickness_mm: p.thickness.mm(),
            hotter_k: p.hotter.k(),
            done_min: p.done.min(),
            done_turned_min: p.done_turned.min(),
        }
    }
}

view! {
    /// When each piece of a full tray is done.
    pub struct TrayTimesView(t: &TrayTimes) {

        /// In the order of the tray's cuts.
        pieces: Vec<TrayPieceView> = t.pieces.iter().map(TrayPieceView::from).collect(),
        /// The first to be done as they lie.
        first_min: f64 = t.as_it_lies.0.min(),
        /// The last.
        last_min: f64 = t.as_it_lies.1.min(),
        /// The first when the tray is turned half way.
        turned_first_min: f64 = t.turned.0.min(),
        /// The last then.
        turned_last_min: f64 = t.turned.1.min(),
        /// One time will do up to here, after the first.
        one_time_to_min: f64 = t.one_time_to().min(),
        /// Whether one time will do for all as they lie.
        one_tray: bool = t.one_tray,
        /// Whether it will when the tray is turned.
        one_tray_turned: bool = t.one_tray_turned,
        /// Whether sheets were measured.
        measured: bool = t.measured,
        /// Whether the oven has a map of its places.
        mapped: bool = t.mapped,
        /// What to do.
        advice: Vec<SentenceView> = say_all(&t.advice),
    }
}

view! {
    /// What bakes teach, or have taught.
    pub struct TaughtView(k: &BakeKnowledge, measured: bool) {
        /// What it comes to, a sentence each.
        says: Vec<SentenceView> = say_all(&k.lessons(measured)),
        /// The oven's air over its setting, or over what its thermometer showed; null where the thermometer is newer.
        offset_k: Option<f64> = k.oven.map(|o| o.offset.k()),
        /// One standard deviation.
        offset_sd_k: Option<f64> = k.oven.map(|o| o.offset_sd.k()),
        /// How strongly it heats, times what the model has; null where no thermometer was read in it.
        heat: Option<f64> = k.oven.and_then(|o| o.heat).map(|h| h.heat),
        /// One standard deviation, of itself.
        heat_sd_percent: Option<f64> = k.oven.and_then(|o| o.heat).map(|h| 100.0 * h.heat_sd),
        /// Records the oven's rests on, of all formulas.
        oven_records: u32 = k.oven.map_or(0, |o| o.records),
        /// Times as far as the model has it.
        spread: f64 = k.dough.spread,
        /// One standard deviation, of itself.
        spread_sd_percent: f64 = 100.0 * k.dough.spread_sd,
        /// Times as long as the model has it.
        time: f64 = k.dough.time,
        /// Times as fast as the model has it.
        browning: f64 = k.dough.browning,
        /// What stays unsure of a time, of itself.
        time_sd_percent: f64 = 100.0 * k.dough.time_sd,
        /// Records it rests on.
        records: u32 = k.dough.records,
    }
}

view! {
    /// A forecast in short, with its range.
    pub struct BandView(oven: &OvenPlan) {
        let ((bake, _), across) = (oven.expected.told(), oven.spread_across());

        /// The one figure.
        bake_about_min: f64 = oven.expected.about().min(),
        /// At the earliest.
        bake_least_min: f64 = bake.0.min(),
        /// At the latest.
        bake_most_min: f64 = bake.1.min(),
        /// Across the longer side of the piece, at least.
        spread_least_percent: f64 = 100.0 * across.0.value(),
        /// At most.
        spread_most_percent: f64 = 100.0 * across.1.value(),
    }
}

/// Whether a bake is left out of what bakes teach.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LeftOutBody {
    /// Left out, or put back.
    pub left_out: bool,
}

/// A record that something learnt rests on.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct RestsOnView {
    /// Its number.
    pub record_id: i64,
    /// The job it was baked for.
    pub job_id: i64,
    /// By the kitchen's clock.
    pub recorded_at: String,
    /// Of the job's own dough.
    pub own: bool,
    /// It lies far from the others.
    pub counts_little: bool,
    /// Somebody has left it out: it teaches nothing.
    pub left_out: bool,
    /// What it moved when it was recorded; null where it moved nothing or nobody knew.
    pub moved: Option<MovedView>,
}

view! {
    /// What a bake moved of the minutes its job was told.
    pub struct MovedView(m: &Moved) {
        /// The one figure before it.
        about_before_min: f64 = m.before[0].min(),
        /// At the earliest, before it.
        least_before_min: f64 = m.before[1].min(),
        /// At the latest, before it.
        most_before_min: f64 = m.before[2].min(),
        /// The one figure after it.
        about_min: f64 = m.after[0].min(),
        /// At the earliest, after it.
        least_min: f64 = m.after[1].min(),
        /// At the latest, after it.
        most_min: f64 = m.after[2].min(),
    }
}

impl RestsOnView {
    /// Of a record.
    pub fn of(record: &StoredRecord, own: bool, counts_little: bool) -> Self {
        let kept = &record.kept;
        Self {
            record_id: record.id.0,
            job_id: kept.job_id.0,
            recorded_at: kept.recorded_at.clone(),
            own,
            counts_little,
            left_out: record.left_out,
            moved: record.moved.as_ref().map(Into::into),
        }
    }
}

/// What the recorded bakes of a kitchen have taught.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BakesTeachView {
    /// Bakes looked at: the newest of the kitchen.
    pub records: usize,
    /// What they have taught; null without any that the model reaches.
    pub taught: Option<TaughtView>,
    /// Those that it rests on and those left out, of all formulas, the newest first.
    pub rests_on: Vec<RestsOnView>,
    /// Numbers of records that lie far from the others and count for little.
    pub odd: Vec<i64>,
    /// How often the ranges held, and how much trays differ, a sentence each.
    pub says: Vec<SentenceView>,
    /// Numbers of records beyond what the model knows.
    pub beyond: Vec<i64>,
    /// Numbers of records that do not hold what they were baked with, made before that was kept.
    pub incomplete: Vec<i64>,
    /// The job's bake without them.
    pub before: BandView,
    /// The job's bake with them; null without any.
    pub after: Option<BandView>,
}

/// Every fifth sample is drawn.
const DRAWN: usize = 5;
