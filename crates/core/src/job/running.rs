//! A planned date made into the plan of a run.

use super::clock::places_of;
use super::together::wanted_before;
use super::{Kitchen, LotPlan, Making, Plan, ReadyMeans};
use crate::clock::{DayPlace, Relay, RelayTask, Step};
use crate::cold::{Sample, left_for};
use crate::run::{ColdRun, LotShape, RunLot, RunPlan, RunTask};
use crate::units::Span;

/// A lot that is to be run.
#[derive(Debug, Clone, Copy)]
pub struct RunsLot<'a> {
    /// Its number as a job.
    pub job_id: i64,
    /// The lot and its plan.
    pub lot: LotPlan<'a>,
    /// The same lot with its cut trays in the other cold place, where that can be planned.
    pub elsewhere: Option<&'a Plan>,
}

/// Cut pieces are as cold as their place by then.
const TRAYS_FOLLOWED: Span = Span::new_min(180.0);
/// A cold run is kept at no more points than this.
const MOST_POINTS: usize = 60;

/// The plan of a run over a planned date: `relay` is of these lots, `does` tells what a step is called.
#[must_use]
pub fn run_plan(kitchen: &Kitchen, lots: &[RunsLot], relay: &Relay, does: impl Fn(&RelayTask) -> String) -> RunPlan {
    let plans: Vec<LotPlan> = lots.iter().map(|l| l.lot).collect();
    let before = wanted_before(kitchen.zone(), &plans);
    let minute = |from_wanted: i64| f64::from(i32::try_from(from_wanted - relay.start_min).unwrap_or(i32::MAX));
    let run_lots = lots.iter().zip(&before).map(|(l, before)| {
        let (job, plan) = (l.lot.job, l.lot.plan);
        let cut = job.input().making == Making::Cut;
        let cold = &plan.cold;
        let rests = plan.clock.lot.rests.first();
        RunLot {
            job_id: l.job_id,
            name: job.input().name.clone(),
            wanted_min: minute(-before),
            warm: job.ready_means() == ReadyMeans::Out,
            oven_c: plan.oven.oven.c(),
            look_after_min: plan.oven.expected.told().1.min(),
            one_piece: cold.form.count <= plan.clock.lot.mixes.max(1),
            dough_cold: cold_run(&cold.answer.curve),
            tray_cold: cold
                .tray_chill
                .as_ref()
                .map(|t| cold_run(&left_for(&t.question, TRAYS_FOLLOWED)))
                .unwrap_or_default(),
            workable_min: cold.bench.filter(|_| cut).map(|b| (b.min(), cold.bench_longest.unwrap_or(b).min())),
            too_cold: rests.map(|(from, rest)| (number(*from), number(*rest))),
            other_tray: l.elsewhere.map(|other| (other.clock.lot.tray_place, number(other.clock.lot.tray_chill_min))),
        }
    });
    let tasks = relay.tasks.iter().map(|t| {
        let at = usize::try_from(t.lot).unwrap_or(0);
        let lot = lots.get(at).map(|l| &l.lot.plan.clock.lot);
        let long = number(t.end_min - t.start_min);
        let (least_min, place) = match (t.step, lot) {
            (Step::Chill | Step::Thaw, Some(l)) => (number(l.chill_min).min(long), Some(l.dough_place)),
            (Step::BulkChill, Some(l)) => (number(l.bulk_min).min(long), Some(l.dough_place)),
            (Step::TrayChill, Some(l)) => (number(l.tray_chill_min).min(long), Some(l.tray_place)),
            _ => (long, None),
        };
        let fill = lots.get(at).map(|l| &l.lot.plan.shape.trays.fill);
        let on_tray = |tray: u32| fill.and_then(|f| f.get(usize::try_from(tray).ok()?).copied());
        RunTask {
            step: t.step,
            lane: t.lane,
            lot: at,
            mix: t.mix,
            tray: t.tray,
            oven: t.oven,
            place: place.filter(|p| *p != DayPlace::Counter || t.step == Step::Thaw),
            start_min: minute(t.start_min),
            end_min: minute(t.end_min),
            least_min,
            pieces: t.tray.and_then(on_tray),
            does: does(t),
            after: vec![],
        }
    });
    let shapes: Vec<LotShape> = lots
        .iter()
        .map(|l| LotShape {
            mixes: l.lot.plan.clock.lot.mixes.max(1),
            trays: u32::try_from(l.lot.plan.clock.lot.cut_min.len()).unwrap_or(u32::MAX),
            mixed_by: l.lot.mixed_by,
        })
        .collect();
    RunPlan::new(places_of(kitchen), run_lots.collect(), tasks.collect(), &shapes)
}

fn number(minutes: i64) -> f64 {
    f64::from(i32::try_from(minutes).unwrap_or(i32::MAX))
}

fn cold_run(curve: &[Sample]) -> ColdRun {
    let every = curve.len().div_ceil(MOST_POINTS).max(1);
    let points = curve.iter().step_by(every).chain(curve.last());
    let mut mean_c: Vec<(f64, f64)> = points.map(|s| (s.after.min(), s.mean.c())).collect();
    mean_c.dedup_by(|a, b| a.0 <= b.0);
    ColdRun { mean_c }
}
