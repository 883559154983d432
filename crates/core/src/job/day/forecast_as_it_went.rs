//! What the models say of a job for what may really happen: dough that is warmer, trays that lay longer.

use crate::cold::ColdPlace;
use crate::cold::{
    BENCH_FILM, ChillAnswer, ChillQuestion, Piece, Place, Sample, Support, Target, Wrap, chill, left_for,
};
use crate::job::answers::OvenPlan;
use crate::job::answers::Plan;
use crate::job::answers::{ColdPlan, TrayChill};
use crate::job::cold::cold_plan::least_min;
use crate::job::settings::chill_choice::ChillFor;
use crate::job::settings::job::Job;
use crate::job::settings::kitchen::Kitchen;
use crate::oven::{BakeForecast, DoneBy};
use crate::run::{BakeAt, ColdFrom, ColdRun};
use crate::units::{Span, TemperatureDifference};

/// Cut pieces are as cold as their place by then.
const TRAYS_FOLLOWED: Span = Span::new_min(180.0);
/// A cold run is kept at no more points than this.
const MOST_POINTS: usize = 60;

/// Dough is asked anew from temperatures so far from the planned one, K: what a bowl is warmer or colder by on a bad day. Our own choice.
const OTHER_STARTS_K: [f64; 4] = [-6.0, -3.0, 3.0, 6.0];

/// The dough in the cold from the planned temperature and others, each solved by itself.
pub(crate) fn dough_from(job: &Job, cold: &ColdPlan) -> Vec<ColdFrom> {
    let (stays, least) = job.first_for();
    if stays == ChillFor::No || cold.thaw.is_some() {
        return vec![];
    }
    let one = |start_c: f64, answer: &ChillAnswer| {
        let known = answer.ready_after.is_some() || !stays.waits_for_ready();
        let least_min = f64::from(i32::try_from(least_min(answer, stays, least)).unwrap_or(i32::MAX));
        known.then(|| ColdFrom { start_c, least_min, run: cold_run(&answer.curve) })
    };
    let planned = cold.question.start();
    let others = OTHER_STARTS_K.into_iter().filter_map(|by| {
        let start = planned + TemperatureDifference::new_k(by);
        one(start.c(), &chill(&cold.question.clone().starting(start)))
    });
    let mut found: Vec<ColdFrom> = one(planned.c(), &cold.answer).into_iter().chain(others).collect();
    found.sort_by(|a, b| a.start_c.total_cmp(&b.start_c));
    found
}

/// How long the dough keeps where it lies, by the shorter of common practice's times.
pub(crate) fn keeps_min(cold: &ColdPlan) -> Option<f64> {
    let days = match cold.place {
        ColdPlace::Fridge => cold.keeping.fridge_days.0,
        ColdPlace::Freezer => return None,
    };
    Some(days * 24.0 * 60.0)
}

pub(crate) fn tray_run(tray: &TrayChill) -> ColdRun {
    cold_run(&left_for(&tray.question, TRAYS_FOLLOWED))
}

/// Pieces that do not chill wait on their tray in the room.
pub(crate) fn on_the_counter(job: &Job, kitchen: &Kitchen, plan: &Plan) -> Option<ColdRun> {
    if plan.cold.tray_chill.is_some() {
        return None;
    }
    let question = ChillQuestion::new(
        plan.dough.composition.clone(),
        Piece::Sheet { thickness: job.thickness() },
        Wrap::Open,
        Support::Tray { kind: kitchen.tray_kind(), start: kitchen.room() },
        plan.oven.question.piece.start.c(),
        Place::new(kitchen.room().c(), BENCH_FILM.w_m2k()).ok()?,
        Target::Oven,
    );
    Some(cold_run(&left_for(&question.ok()?, TRAYS_FOLLOWED)))
}

/// A tray is asked anew from temperatures so far from the planned one, K: from the freezer's to a warm counter's. Our own choice.
const OTHER_TRAYS_K: [f64; 4] = [-12.0, -6.0, 6.0, 12.0];

/// A tray's bake from the planned temperature and others, each solved by itself; nothing where nothing is forecast.
pub(crate) fn bakes(oven: &OvenPlan) -> Vec<BakeAt> {
    let Some(planned) = &oven.forecast else { return vec![] };
    // Of what lies in a pan nothing grows.
    let most = oven.expected.spread.1.value();
    let across = if most > 0.0 { oven.spread_across().1.value() / most } else { 0.0 };
    let one = |start_c: f64, found: &BakeForecast| {
        let spread = across * found.spread.value();
        (found.done_by != DoneBy::Never).then(|| BakeAt { start_c, bake_min: found.bake.min(), spread })
    };
    let others = OTHER_TRAYS_K.into_iter().filter_map(|by| {
        let (by, mut question) = (TemperatureDifference::new_k(by), oven.question.clone());
        question.piece.start = question.piece.start + by;
        question.piece.firm_as_at = question.piece.firm_as_at + by;
        one(question.piece.start.c(), &question.answer().ok()?)
    });
    let planned = one(oven.question.piece.start.c(), planned);
    let mut found: Vec<BakeAt> = planned.into_iter().chain(others).collect();
    found.sort_by(|a, b| a.start_c.total_cmp(&b.start_c));
    found
}

pub(crate) fn cold_run(curve: &[Sample]) -> ColdRun {
    let every = curve.len().div_ceil(MOST_POINTS).max(1);
    let points = curve.iter().step_by(every).chain(curve.last());
    let mut mean_c: Vec<(f64, f64)> = points.map(|s| (s.after.min(), s.mean.c())).collect();
    mean_c.dedup_by(|a, b| a.0 <= b.0);
    ColdRun { mean_c }
}
