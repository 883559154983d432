//! The clock station of a plan: its steps counted back from the wanted time.

use super::answers::{ClockPlan, ColdPlan, DoughPlan, OvenPlan, ShapePlan};
use super::bench::HandsAtTheBench;
use super::cold::{chill_words, rests_after, slow_end};
use super::{Job, Kitchen};
use crate::clock::{Relay, RelayInput, RelayLot, Zone, plan_relay};
use crate::units::Span;
use chrono::TimeDelta;

/// To weigh one mix, min. Common practice, no source.
const WEIGH_MIN: f64 = 5.0;

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
    let chill_min =
        slow_end(&cold.answer).max(cold.workable_after.map_or(0, Span::min_up)).max(job.flour_rest().min_up());
    let lot = RelayLot {
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
        // Slices come from a firm log and portions have been chilled as they are: both go straight into the oven.
        tray_chill_min: cold.tray_chill.as_ref().map_or(0, |t| slow_end(&t.answer)),
        bake_min: oven.expected.bake.1.min_up(),
        oven_c: oven.oven.c(),
        cool_min: oven.cooling.on_tray().min_up(),
        rack_min: oven.cooling.on_rack().min_up(),
        rests: rests_after(kitchen, dough, cold),
        chill_why: chill_words(cold, chill_min, job.flour_rest().min_up()),
    };
    let relay = plan_relay(&relay_of(kitchen, vec![lot.clone()]));
    let mut reasons = vec![
        "Counted back from the wanted time in one fixed order: each step as late as the step after it, one pair of hands, trays and ovens allow. Another order may start later.".to_owned(),
        "Done is when the last piece has cooled enough to be packed, iced or filled.".to_owned(),
        "Chills count at the slow end of their range, bakes at the long end.".to_owned(),
    ];
    if shape.trays.rounds > 1 {
        reasons.push(format!("{} trays go round {} times.", kitchen.trays().owned(), shape.trays.rounds));
    }
    reasons.extend(clock_change_words(job, kitchen.zone(), &relay));
    ClockPlan { relay, chill_min, lot, zone: kitchen.zone(), reasons }
}

/// What a change of the clocks between the start and the wanted time does to the hours that are read off the wall.
pub(super) fn clock_change_words(job: &Job, zone: Zone, relay: &Relay) -> Option<String> {
    let wanted = zone.nearest(job.input().ready_by);
    let change = zone.change_between(wanted + TimeDelta::minutes(relay.start_min), wanted)?;
    let (from, to) = (change.from.format("%-H:%M"), change.to.format("%-H:%M"));
    // Real minutes are counted back from the wanted time: an hour that was left out is missing on the wall, too.
    let by_the_wall = if change.to > change.from { "an hour earlier" } else { "an hour later" };
    Some(format!(
        "The clocks go from {from} to {to} on {}: all spans are real minutes, so what comes before starts {by_the_wall} by the wall than it would on another day.",
        change.from.format("%-d %B")
    ))
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
