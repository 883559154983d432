//! A planned date made into the plan of a run.

use crate::clock::{DayPlace, Relay, RelayTask, Step};
use crate::job::answers::Plan;
use crate::job::day::clock_plan::places_of;
use crate::job::day::forecast_as_it_went::{bakes, cold_run, dough_from, keeps_min, on_the_counter, tray_run};
use crate::job::day::together::LotPlan;
use crate::job::day::together::wanted_before;
use crate::job::settings::chill_choice::ChillFor;
use crate::job::settings::kitchen::Kitchen;
use crate::job::settings::making::Making;
use crate::job::settings::ready_means::ReadyMeans;
use crate::run::{Elsewhere, RunLot, RunPlan, RunTask};
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
    /// The same lot with its dough in the freezer, where it lies in the fridge and that can be planned.
    pub frozen: Option<&'a Plan>,
    /// What is to be seen on a tray that is done, in words.
    pub look_for: &'a str,
}

/// The plan of a run over a planned date: `relay` is of these lots, `does` tells what a step is called.
#[must_use]
pub fn run_plan(kitchen: &Kitchen, lots: &[RunsLot], relay: &Relay, does: impl Fn(&RelayTask) -> String) -> RunPlan {
    let plans: Vec<LotPlan> = lots.iter().map(|l| l.lot).collect();
    let before = wanted_before(kitchen.zone(), &plans);
    let minute = |from_wanted: i64| f64::from(i32::try_from(from_wanted - relay.start_min).unwrap_or(i32::MAX));
    let run_lots = lots.iter().zip(&before).map(|(l, before)| {
        let (job, plan) = (l.lot.job, l.lot.plan);
        let cut = job.input().shape.making == Making::Cut;
        let cold = &plan.cold;
        let rests = plan.clock.lot.rests.first();
        RunLot {
            job_id: l.job_id,
            name: job.input().order.name.clone(),
            mixed_by: l.lot.mixed_by,
            wanted_min: minute(-before),
            warm: job.ready_means() == ReadyMeans::Out,
            oven_c: plan.oven.oven.c(),
            look_for: l.look_for.to_owned(),
            about_min: plan.oven.expected.about().min(),
            look_after_min: plan.oven.expected.told().1.min(),
            one_piece: cold.form.count <= plan.clock.lot.mixes.max(1),
            dough_cold: cold_run(&cold.answer.curve),
            dough_from: dough_from(job, cold),
            dough_waits_min: waits_min(job.first_for(), cold.flour_rest),
            tray_waits_min: waits_min(job.second_for(), Span::new_s(0.0)),
            keeps_min: keeps_min(cold),
            tray_cold: cold.tray_chill.as_ref().map(tray_run).unwrap_or_default(),
            tray_elsewhere: l.elsewhere.and_then(tray_elsewhere),
            dough_elsewhere: l.frozen.and_then(dough_elsewhere),
            tray_counter: on_the_counter(job, kitchen, plan).unwrap_or_default(),
            goes_in_c: plan.oven.forecast.as_ref().map(|_| plan.oven.question.piece.start.c()),
            bakes: bakes(&plan.oven),
            workable_min: cold.bench.filter(|_| cut).map(|b| (b.min(), cold.bench_longest.unwrap_or(b).min())),
            too_cold: rests.map(|(from, rest)| (number(*from), number(*rest))),
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
            dough: t.dough,
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
    RunPlan::new(places_of(kitchen), run_lots.collect(), tasks.collect())
}

/// Its cut trays as this plan chills them.
fn tray_elsewhere(plan: &Plan) -> Option<Elsewhere> {
    let (lot, run) = (&plan.clock.lot, tray_run(plan.cold.tray_chill.as_ref()?));
    Some(Elsewhere { place: lot.tray_place, least_min: number(lot.tray_chill_min), run })
}

/// Its dough as this plan chills it; nothing where that is frozen and has to thaw.
fn dough_elsewhere(plan: &Plan) -> Option<Elsewhere> {
    let (lot, run) = (&plan.clock.lot, cold_run(&plan.cold.answer.curve));
    plan.cold.thaw.is_none().then(|| Elsewhere { place: lot.dough_place, least_min: number(lot.chill_min), run })
}

/// At least so long where it stays until it is ready; nothing where it stays as long as somebody said.
fn waits_min((stays, least): (ChillFor, Span), rest: Span) -> Option<f64> {
    let asked = if stays == ChillFor::AtLeast { least.min() } else { 0.0 };
    stays.waits_for_ready().then(|| asked.max(rest.min()))
}

fn number(minutes: i64) -> f64 {
    f64::from(i32::try_from(minutes).unwrap_or(i32::MAX))
}
