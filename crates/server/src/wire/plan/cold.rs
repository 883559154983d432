//! The cold station on the wire, and what `compute chill` shares with it.

use super::time::time;
use crate::wire::PurposeWord;
use crate::wire::{SentenceView, say, say_all, view};
use ready_slab_core::cold::ColdPlace;
use ready_slab_core::cold::{ChillAnswer, Piece, Sample, ToldMinutes, Window};
use ready_slab_core::dough::Keeping;
use ready_slab_core::job::{BulkChill, ChillFor, Job, Kitchen, OVERNIGHT, Plan, Thaw, Thawing, TrayChill};
use ready_slab_core::units::Span;
use ready_slab_words::{Name as _, does};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Most points of a curve that are sent.
const CURVE_POINTS: usize = 160;

view! {
    /// A point of a cooling curve.
    pub struct CurvePoint(s: &Sample) {
        /// Since it went in.
        after_min: f64 = s.after.min(),
        /// The warmest point.
        warmest_c: f64 = s.warmest.c(),
        /// The coldest point.
        coldest_c: f64 = s.coldest.c(),
        /// Mean over the mass.
        mean_c: f64 = s.mean.c(),
        /// Upper face.
        surface_c: f64 = s.surface.c(),
        /// The softest point: as firm as it would be at this once its fat had set.
        softest_c: f64 = s.softest.c(),
        /// The same on the whole.
        felt_c: f64 = s.felt.c(),
    }
}

pub(in crate::wire) fn curve(samples: &[Sample]) -> Vec<CurvePoint> {
    let every = samples.len().div_ceil(CURVE_POINTS).max(1);
    let last = samples.len().saturating_sub(1);
    let drawn = samples.iter().enumerate().filter(|(i, _)| i % every == 0 || *i == last);
    drawn.map(|(_, s)| s.into()).collect()
}

view! {
    /// Working temperatures.
    pub struct WindowView(w: Window) {
        /// Colder, it cracks when rolled.
        rolls_from_c: f64 = w.rolls_from.c(),
        /// Warmer, it is tacky.
        rolls_to_c: f64 = w.rolls_to.c(),
        /// Warmer, it is slack.
        tacky_to_c: f64 = w.tacky_to.c(),
        /// Slices clean at this or colder.
        slices_to_c: f64 = w.slices_to.c(),
        /// Shatters when colder.
        slices_from_c: f64 = w.slices_from.c(),
        /// Cut pieces go to the oven at this or colder.
        oven_ready_c: f64 = w.oven_ready.c(),
        /// It slices best at this or colder.
        slices_best_c: f64 = w.slices_best.c(),
    }
}

view! {
    /// When it is ready and when past.
    pub struct ReadyView(a: &ChillAnswer) {
        /// Minutes in the cold; absent when never.
        ready_after_min: Option<f64> = a.ready_after.map(Span::min),
        /// With a stronger air film.
        ready_earliest_min: Option<f64> = a.ready_between.map(|b| b.0.min()),
        /// With a weaker air film.
        ready_latest_min: Option<f64> = a.ready_between.map(|b| b.1.min()),
        /// When it has become too cold, within a day.
        past_after_min: Option<f64> = a.past_after.map(Span::min),
        /// Why it never gets ready.
        never: Option<SentenceView> = a.never.as_ref().map(say),
        /// The same in whole minutes, as it is to be told; null when never.
        told: Option<ToldView> = a.told().map(Into::into),
    }
}

view! {
    /// A chill in whole minutes: ready no sooner than it is, its range outward, too cold no later than it is.
    #[derive(Copy, Eq)]
    pub struct ToldView(t: ToldMinutes) {
        /// Until it can be worked.
        ready_min: i64 = t.ready,
        /// Until it is best; the same where that is no other time.
        best_min: i64 = t.best,
        /// The sooner end of its range.
        earliest_min: i64 = t.earliest,
        /// The later end.
        latest_min: i64 = t.latest,
        /// Until it is too cold; null where it will not be within a day.
        past_min: Option<i64> = t.past,
    }
}

view! {
    /// How long the raw dough keeps, well wrapped.
    pub struct KeepingView(k: &Keeping) {
        /// In the fridge, careful and usual end.
        fridge_days: [f64; 2] = k.fridge_days.into(),
        /// In the freezer, careful and usual end.
        freezer_months: [f64; 2] = k.freezer_months.into(),
        /// Why.
        reason: SentenceView = say(&k.reason),
    }
}

view! {
    /// Cut pieces on their tray before the oven.
    pub struct TrayChillView(t: &TrayChill) {
        /// Where.
        place: ColdPlace = t.place,
        /// Taken to be as warm as this when it goes in.
        start_c: f64 = t.start.c(),
        /// How long it stays.
        stays: ChillFor = t.stays,
        /// At least so long, whole minutes; over night the clock makes it longer.
        least_min: i64 = t.least_min,
        /// On average, as it comes out.
        out_c: f64 = t.out.mean.c(),
        /// When.
        #[serde(flatten)]
        ready: ReadyView = (&t.answer).into(),
    }
}

view! {
    /// The dough of logs as a lump, before they are formed.
    pub struct BulkChillView(b: &BulkChill) {
        /// The lump.
        piece: Piece = b.piece,
        /// Where.
        place: ColdPlace = b.place,
        /// How long it stays.
        stays: ChillFor = b.stays,
        /// At least so long, whole minutes; over night the clock makes it longer.
        least_min: i64 = b.least_min,
        /// On the bench after that, until it can be formed.
        rest_min: i64 = b.rest_min,
        /// On average, as it comes out.
        out_c: f64 = b.out.mean.c(),
        /// As the logs are when they are formed.
        formed_c: f64 = b.formed.c(),
        /// When.
        #[serde(flatten)]
        ready: ReadyView = (&b.answer).into(),
    }
}

view! {
    /// Dough out of the freezer.
    pub struct ThawView(t: &Thawing) {
        /// How.
        way: Thaw = t.way,
        /// On the bench until it can be worked: from the freezer, or after its night in the fridge.
        bench_min: f64 = t.span.min(),
        /// As warm as it is then.
        at_c: f64 = t.at.c(),
    }
}

view! {
    /// The cold station.
    pub struct ColdView(plan: &Plan, job: &Job, kitchen: &Kitchen) {
        let c = &plan.cold;

        let (start, working) = (plan.chill_start_min(), c.window.working(c.target));
        let at = |minutes: Option<i64>| minutes.map(|m| time(plan, job, start + m)).unwrap_or_default();
        let told = c.answer.told();

        /// The form.
        piece: Piece = c.form.piece,
        /// How many.
        count: u32 = c.form.count,
        /// Dough in each.
        mass_g: f64 = c.form.mass.g(),
        /// Where.
        place: ColdPlace = c.place,
        /// Its air.
        air_c: f64 = c.air.c(),
        /// How long the dough chills before it is shaped, as this job has it.
        dough_for: ChillFor = job.dough_for(),
        /// How long the shaped pieces chill, as this job has it.
        pieces_for: ChillFor = job.pieces_for(),
        /// Whether what goes into the cold first are the portions themselves.
        portions_first: bool = job.portions_first(),
        /// How long what goes in first stays.
        stays: ChillFor = c.stays,
        /// On average, as it comes out.
        out_c: f64 = c.out.mean.c(),
        /// How it feels then, in the trade's words.
        out_as: String = c.feels.name().to_owned(),
        /// When the first mix goes in, local time; where it is not chilled, when it would.
        in_at: String = time(plan, job, start),
        /// Ready then.
        ready_at: String = at(told.map(|t| t.ready)),
        /// Earliest.
        ready_earliest_at: String = at(told.map(|t| t.earliest)),
        /// Latest.
        ready_latest_at: String = at(told.map(|t| t.latest)),
        /// Too cold from then, unless it stays workable.
        past_at: Option<String> = told.and_then(|t| t.past).map(|m| time(plan, job, start + m)),
        /// The same in minutes.
        #[serde(flatten)]
        ready: ReadyView = (&c.answer).into(),
        /// The run.
        curve: Vec<CurvePoint> = curve(&c.answer.curve),
        /// Working temperatures.
        window: WindowView = c.window.into(),
        /// What it is chilled for first.
        purpose: PurposeWord = c.target.into(),
        /// Colder than this it is too cold for that; null where it cannot be.
        works_from_c: Option<f64> = working.from.map(|t| t.c()),
        /// Right for that at this or colder.
        works_to_c: f64 = working.to.c(),
        /// What it does then, in the trade's words.
        works_as: String = does(c.target).to_owned(),
        /// The longest rest on the bench that this job's timeline holds.
        tempering_min: Option<f64> = Some(plan.longest_rest().min()),
        /// What people call a night in the cold, at least and at most.
        overnight_min: [f64; 2] = [OVERNIGHT.0.min(), OVERNIGHT.1.min()],
        /// On the bench after a night in the cold.
        tempering_after_night_min: Option<f64> = c.tempering_after_night.map(Span::min),
        /// On the bench, from just ready until too warm for its purpose; absent when the room is cool enough.
        bench_min: Option<f64> = c.bench.map(Span::min),
        /// The same when it was left until the window's cold end.
        bench_longest_min: Option<f64> = c.bench_longest.map(Span::min),
        /// When the plan takes the first mix out.
        out_at: String = time(plan, job, plan.chill_end_min()),
        /// When the first mix can be worked: taken out, and rested where it is too hard.
        works_at: String = time(plan, job, plan.works_min()),
        /// It rests at least so long for its flour.
        flour_rest_min: f64 = c.flour_rest.min(),
        /// Room temperature, for the sentence.
        room_c: f64 = kitchen.room().c(),
        /// How long the raw dough keeps.
        keeping: KeepingView = (&c.keeping).into(),
        /// Cut pieces; null where pieces are sliced or portioned and go into the oven as they are.
        tray_chill: Option<TrayChillView> = c.tray_chill.as_ref().map(Into::into),
        /// The dough of logs as a lump before that; null where they are formed at once.
        bulk: Option<BulkChillView> = c.bulk.as_ref().map(Into::into),
        /// How the dough thaws; null where it is mixed for this job.
        thaw: Option<ThawView> = c.thaw.as_ref().map(Into::into),
        /// Forms that may go into the cold instead, as large as they usually are.
        usual_forms: Vec<Piece> = Piece::USUAL.to_vec(),
        /// How the water was taken.
        water: SentenceView = say(&c.answer.water),
        /// What it means that the dough stays in the cold as long as it does.
        dough_means: Vec<SentenceView> = say_all(&c.means.0),
        /// The same of the shaped pieces.
        pieces_mean: Vec<SentenceView> = say_all(&c.means.1),
        /// Why.
        reasons: Vec<SentenceView> = say_all(c.reasons.iter().filter(|r| !r.is_warning())),
        /// What to mind.
        warnings: Vec<SentenceView> = say_all(c.reasons.iter().filter(|r| r.is_warning())),
        /// What the recipe says of its chill, beside ours; null where it says nothing.
        recipe: Option<SentenceView> = c.recipe.as_ref().map(say),
    }
}
