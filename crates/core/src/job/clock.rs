//! The clock station of a plan: its steps counted back from the wanted time.

use super::answers::{ClockPlan, ColdPlan, DoughPlan, OvenPlan, ShapePlan, WhenLate};
use super::bench::HandsAtTheBench;
use super::chilling::EVENING_MIN;
use super::cold::{chill_waits, least_min, rests_after, slow_end};
use super::{ChillFor, ColdPlace, DoughForm, Job, Kitchen, Making, Reason};
use crate::clock::{Relay, RelayInput, RelayLot, Step, Zone, plan_relay};
use crate::units::Span;
use chrono::{TimeDelta, Timelike};

/// To weigh one mix, min. Common practice, no source.
const WEIGH_MIN: f64 = 5.0;

/// What a job leaves to be done when its start has passed, the surest first.
fn when_late(job: &Job) -> Vec<WhenLate> {
    let j = job.input();
    let cut = j.making == Making::Cut;
    let all = [
        (true, WhenLate::Later),
        (j.chill_place == ColdPlace::Fridge, WhenLate::InTheFreezer),
        (cut && j.dough_form != DoughForm::Sheets && job.dough_for() != ChillFor::No, WhenLate::AsSheets),
    ];
    all.into_iter().filter(|(open, _)| *open).map(|(_, what)| what).collect()
}

pub(super) fn clock_plan(
    job: &Job,
    kitchen: &Kitchen,
    dough: &DoughPlan,
    shape: &ShapePlan,
    cold: &ColdPlan,
    oven: &OvenPlan,
    hands: HandsAtTheBench,
) -> ClockPlan {
    let method = job.input().method;
    let (stays, least) = job.first_for();
    let flour_min = cold.flour_rest.min_up();
    let least = least_min(&cold.answer, stays, least);
    let chill_min = match stays {
        ChillFor::No | ChillFor::Exactly => least,
        ChillFor::Overnight => least.max(flour_min).max(slow_end(&cold.answer)),
        ChillFor::Ready | ChillFor::AtLeast => least.max(cold.workable_after.map_or(0, Span::min_up)).max(flour_min),
    };
    let tray_chill_min = cold.tray_chill.as_ref().map_or(0, |t| t.least_min);
    let mut lot = RelayLot {
        mixes: shape.demand.mixes,
        mixed_by: None,
        // Where other dough is mixed with this one, its mixes are made before and after, and count here.
        mix_min: Span::new_min(
            (WEIGH_MIN + method.minutes()) * (f64::from(dough.mixes.count) / f64::from(shape.demand.mixes)).max(1.0),
        )
        .min_up(),
        form_min: Span::new_min(hands.form_min).min_up(),
        chill_min,
        cut_min: hands.cut_min,
        tray_chill_min,
        bake_min: oven.expected.bake.1.min_up(),
        oven_c: oven.oven.c(),
        cool_min: oven.cooling.on_tray().min_up(),
        rack_min: oven.cooling.on_rack().min_up(),
        rests: rests_after(kitchen, dough, cold),
        chill_why: chill_waits(cold, chill_min, flour_min),
    };
    let mut relay = plan_relay(&relay_of(kitchen, vec![lot.clone()]));
    for (step, stays) in [(Step::TrayChill, cold.tray_chill.as_ref().map(|t| t.stays)), (Step::Chill, Some(stays))] {
        if stays != Some(ChillFor::Overnight) {
            continue;
        }
        let sooner = until_the_evening(job, kitchen.zone(), &relay, step);
        match step {
            Step::TrayChill => lot.tray_chill_min += sooner,
            _ => {
                lot.chill_min += sooner;
                lot.chill_why = chill_waits(cold, lot.chill_min, flour_min);
            }
        }
        if sooner > 0 {
            relay = plan_relay(&relay_of(kitchen, vec![lot.clone()]));
        }
    }
    let chill_min = lot.chill_min;
    let mut reasons = vec![Reason::CountedBack, Reason::DoneWhenPacked, Reason::SlowAndLongEnds];
    if shape.trays.rounds > 1 {
        reasons.push(Reason::TraysGoRound { trays: kitchen.trays().owned(), times: shape.trays.rounds });
    }
    reasons.extend(clock_change(job, kitchen.zone(), &relay));
    ClockPlan { relay, chill_min, lot, zone: kitchen.zone(), when_late: when_late(job), reasons }
}

/// How much sooner what stays over night has to go in, so that the last of it does in the evening.
fn until_the_evening(job: &Job, zone: Zone, relay: &Relay, step: Step) -> i64 {
    let last = relay.tasks.iter().filter(|t| t.step == step).map(|t| t.start_min).max();
    let Some(last) = last else { return 0 };
    let at = zone.after(job.input().ready_by, last);
    let of_day = i64::from(at.hour()) * 60 + i64::from(at.minute());
    let (from, to) = EVENING_MIN;
    match of_day {
        m if m > to => m - to,
        m if m < from => m + 24 * 60 - to,
        _ => 0,
    }
}

/// What a change of the clocks between the start and the wanted time does to the hours that are read off the wall.
pub(super) fn clock_change(job: &Job, zone: Zone, relay: &Relay) -> Option<Reason> {
    let wanted = zone.nearest(job.input().ready_by);
    let change = zone.change_between(wanted + TimeDelta::minutes(relay.start_min), wanted)?;
    Some(Reason::ClocksChange { from: change.from, to: change.to })
}

/// Lots with the trays, ovens and hands of a kitchen.
pub(super) fn relay_of(kitchen: &Kitchen, lots: Vec<RelayLot>) -> RelayInput {
    RelayInput {
        lots,
        trays_owned: kitchen.trays().owned(),
        racks: kitchen.ovens().racks,
        ovens: kitchen.ovens().count,
        preheat_min: Span::new_min(kitchen.ovens().preheat_min).min_up(),
    }
}
