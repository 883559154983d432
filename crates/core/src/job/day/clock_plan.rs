//! The clock station of a plan: its steps counted back from the wanted time.

use crate::clock::{DayKitchen, DayPlace, PlanBudget, Relay, RelayInput, RelayLot, Step, Zone, plan_relay};
use crate::cold::ColdPlace;
use crate::finish::{CoatWork, Finish};
use crate::job::answers::{ClockPlan, ColdPlan, DoughPlan, OvenPlan, Plan, ShapePlan, Thawing, WhenLate};
use crate::job::cold::cold_plan::{chill_waits, least_min, rests_after, slow_end};
use crate::job::day::bench::HandsAtTheBench;
use crate::job::reasons::reason::Reason;
use crate::job::settings::chill_choice::ChillFor;
use crate::job::settings::chill_choice::DoughForm;
use crate::job::settings::chill_choice::EVENING_MIN;
use crate::job::settings::chill_choice::Thaw;
use crate::job::settings::job::Job;
use crate::job::settings::kitchen::Kitchen;
use crate::job::settings::making::Making;
use crate::job::settings::ready_means::ReadyMeans;
use crate::units::Span;
use chrono::{TimeDelta, Timelike};

/// To weigh one mix, min. Common practice, no source.
const WEIGH_MIN: f64 = 5.0;
/// To pack one piece, s. Common practice, no source.
const PACK_S: f64 = 5.0;
/// What dries so long, min, does so through the night; nobody ices between these minutes of the day. Our own choice.
const LONG_DRY_MIN: i64 = 4 * 60;
const NIGHT_MIN: (i64, i64) = (22 * 60, 7 * 60);

/// For an oven to settle at another temperature between two loads, min. Common practice, no source.
const OTHER_HEAT_MIN: i32 = 10;
/// A lot by itself is small, and is planned again for every change that is tried.
const ONE_LOT: PlanBudget = PlanBudget { seconds: 0.004, seed: 1 };

/// What a job leaves to be done when its start has passed, the surest first.
fn when_late(job: &Job) -> Vec<WhenLate> {
    let j = job.input();
    let cut = j.shape.making == Making::Cut;
    let all = [
        (true, WhenLate::Later),
        (job.thaws() == Some(Thaw::Fridge), WhenLate::ThawOnTheBench),
        (job.thaws().is_none() && j.cold.chill_place == ColdPlace::Fridge, WhenLate::InTheFreezer),
        (
            job.ready_means() >= ReadyMeans::Finished
                && j.finish.finishes.iter().any(|f| f.coat.work().dries.min_up() >= LONG_DRY_MIN),
            WhenLate::QuickerFinish,
        ),
        (
            cut && job.thaws().is_none() && j.cold.dough_form != DoughForm::Sheets && job.dough_for() != ChillFor::No,
            WhenLate::AsSheets,
        ),
    ];
    all.into_iter().filter(|(open, _)| *open).map(|(_, what)| what).collect()
}

pub(crate) fn clock_plan(
    job: &Job,
    kitchen: &Kitchen,
    dough: &DoughPlan,
    shape: &ShapePlan,
    cold: &ColdPlan,
    oven: &OvenPlan,
    hands: HandsAtTheBench,
) -> ClockPlan {
    let method = job.input().dough.method;
    let (stays, least) = job.first_for();
    let flour_min = cold.flour_rest.min_up();
    let least = least_min(&cold.answer, stays, least);
    let thawed = cold.thaw.is_some();
    let chill_min = match stays {
        _ if cold.thaw.is_some_and(|t| t.way == Thaw::Bench) => cold.thaw.map_or(0, |t| t.span.min_up()),
        ChillFor::No | ChillFor::Exactly => least,
        ChillFor::Overnight => least.max(flour_min).max(slow_end(&cold.answer)),
        // Nobody chills dough beyond ready to buy time on the bench: what one tray needs is rolled, the rest stays in the cold.
        ChillFor::Ready | ChillFor::Best | ChillFor::AtLeast => least.max(flour_min),
    };
    let tray_chill_min = cold.tray_chill.as_ref().map_or(0, |t| t.least_min);
    let mut lot = RelayLot {
        mixes: shape.demand.mixes,
        mixed_by: None,
        // Where other dough is mixed with this one, its mixes are made before and after, and count here.
        mix_min: Span::new_min(
            if thawed { 0.0 } else { WEIGH_MIN + method.minutes() }
                * (f64::from(dough.mixes.count) / f64::from(shape.demand.mixes)).max(1.0),
        )
        .min_up(),
        form_min: if thawed { 0 } else { Span::new_min(hands.form_min).min_up() },
        bulk_min: cold.bulk.as_ref().map_or(0, |b| b.least_min + b.rest_min),
        thaws: thawed,
        dough_place: match cold.thaw {
            Some(Thawing { way: Thaw::Bench, .. }) => DayPlace::Counter,
            Some(_) => DayPlace::Fridge,
            None => place_of(cold.place),
        },
        chill_min,
        cut_min: hands.cut_min,
        tray_place: place_of(cold.tray_chill.as_ref().map_or(cold.place, |t| t.place)),
        tray_chill_min,
        bake_min: oven.expected.bake.1.min_up(),
        oven_c: oven.oven.c(),
        cool_min: oven.cooling.on_tray().min_up(),
        rack_min: oven.cooling.on_rack().min_up(),
        finish_min: vec![],
        dry_min: 0,
        pack_min: vec![],
        wanted_before_min: 0,
        warm: job.ready_means() == ReadyMeans::Out,
        rests: match cold.thaw {
            Some(Thawing { way: Thaw::Bench, .. }) => vec![],
            _ => rests_after(kitchen, dough, cold),
        },
        chill_why: chill_waits(cold, chill_min, flour_min),
    };
    after_the_bake(job, shape, &mut lot);
    let alone = |lot: &RelayLot| plan_relay(&relay_of(kitchen, vec![lot.clone()]), ONE_LOT);
    let mut relay = alone(&lot);
    // Nobody ices at night: what dries for hours is put on the evening before.
    let icing = relay.tasks.iter().filter(|t| t.step == Step::Finish).map(|t| t.end_min).max();
    let sooner = icing.map_or(0, |end| out_of_the_night(job, kitchen.zone(), end));
    if lot.dry_min >= LONG_DRY_MIN && sooner > 0 {
        lot.dry_min += sooner;
        relay = alone(&lot);
    }
    let chill = if thawed { Step::Thaw } else { Step::Chill };
    let bulk = cold.bulk.as_ref().map(|b| b.stays);
    for (step, stays) in
        [(Step::TrayChill, cold.tray_chill.as_ref().map(|t| t.stays)), (chill, Some(stays)), (Step::BulkChill, bulk)]
    {
        if stays != Some(ChillFor::Overnight) {
            continue;
        }
        let sooner = until_the_evening(job, kitchen.zone(), &relay, step);
        match step {
            Step::TrayChill => lot.tray_chill_min += sooner,
            Step::BulkChill => lot.bulk_min += sooner,
            _ => {
                lot.chill_min += sooner;
                lot.chill_why = chill_waits(cold, lot.chill_min, flour_min);
            }
        }
        if sooner > 0 {
            relay = alone(&lot);
        }
    }
    let chill_min = lot.chill_min;
    let reasons = clock_reasons(job, kitchen, shape.trays.rounds, &relay);
    ClockPlan { relay, chill_min, lot, zone: kitchen.zone(), when_late: when_late(job), reasons }
}

impl Plan {
    /// The same job where its day has room for it: the steps, and all that follows from them.
    pub(crate) fn placed(&self, job: &Job, kitchen: &Kitchen, relay: Relay) -> Self {
        let reasons = clock_reasons(job, kitchen, self.shape.trays.rounds, &relay);
        Self { clock: ClockPlan { relay, reasons, ..self.clock.clone() }, ..self.clone() }
    }
}

/// Why the steps of a job lie where they do.
fn clock_reasons(job: &Job, kitchen: &Kitchen, rounds: u32, relay: &Relay) -> Vec<Reason> {
    let mut reasons = vec![Reason::CountedBack, Reason::DoneWhen { means: job.ready_means() }, Reason::SlowAndLongEnds];
    if rounds > 1 {
        reasons.push(Reason::TraysGoRound { trays: kitchen.trays().owned(), times: rounds });
    }
    reasons.extend(lacks(relay, |_| Some(job.input().order.name.clone())));
    reasons.extend(clock_change(job, kitchen.zone(), relay));
    reasons
}

/// Hands and drying after the bake, as far as they are part of what is wanted.
fn after_the_bake(job: &Job, shape: &ShapePlan, lot: &mut RelayLot) {
    // What goes on a part of the pieces is spread over the trays as they are.
    let works = || {
        let share = |f: &Finish| f.part_of(job.baked_pieces());
        job.input().finish.finishes.iter().map(move |f| (f.coat.work(), share(f)))
    };
    let by_tray = |each_s: f64| -> Vec<i64> {
        shape.trays.fill.iter().map(|pieces| Span::new_s(each_s * f64::from(*pieces)).min_up()).collect()
    };
    let seconds = |before: bool| -> f64 {
        works().filter(|(w, _)| w.before_the_bake == before).map(|(w, share)| w.hands.s() * share).sum()
    };
    let before_s = seconds(true);
    for (cut, more) in lot.cut_min.iter_mut().zip(by_tray(before_s)) {
        *cut += more;
    }
    if job.ready_means() >= ReadyMeans::TouchDry {
        lot.finish_min = by_tray(seconds(false));
        let dry = |(w, _): (CoatWork, f64)| if job.ready_means() == ReadyMeans::TouchDry { w.touch } else { w.dries };
        lot.dry_min = works().map(dry).map(Span::min_up).max().unwrap_or(0);
    }
    if job.ready_means() == ReadyMeans::Packed {
        lot.pack_min = by_tray(PACK_S);
    }
}

/// How much sooner what ends in the night has to end, so that it does so before it.
fn out_of_the_night(job: &Job, zone: Zone, end_min: i64) -> i64 {
    let of_day = minute_of_day(zone, job, end_min);
    let (bed, up) = NIGHT_MIN;
    if of_day > bed {
        of_day - bed
    } else if of_day < up {
        of_day + 24 * 60 - bed
    } else {
        0
    }
}

fn minute_of_day(zone: Zone, job: &Job, minutes: i64) -> i64 {
    let at = zone.after(job.input().order.ready_by, minutes);
    i64::from(at.hour()) * 60 + i64::from(at.minute())
}

/// How much sooner what stays over night has to go in, so that the last of it does in the evening.
fn until_the_evening(job: &Job, zone: Zone, relay: &Relay, step: Step) -> i64 {
    let last = relay.tasks.iter().filter(|t| t.step == step).map(|t| t.start_min).max();
    let Some(last) = last else { return 0 };
    let (from, to) = EVENING_MIN;
    match minute_of_day(zone, job, last) {
        m if m > to => m - to,
        m if m < from => m + 24 * 60 - to,
        _ => 0,
    }
}

/// What a change of the clocks between the start and the wanted time does to the hours that are read off the wall.
pub(crate) fn clock_change(job: &Job, zone: Zone, relay: &Relay) -> Option<Reason> {
    let wanted = zone.nearest(job.input().order.ready_by);
    let change = zone.change_between(wanted + TimeDelta::minutes(relay.start_min), wanted)?;
    Some(Reason::ClocksChange { from: change.from, to: change.to })
}

/// Lots with the trays, ovens and hands of a kitchen.
pub(crate) fn relay_of(kitchen: &Kitchen, lots: Vec<RelayLot>) -> RelayInput {
    RelayInput { lots, kitchen: places_of(kitchen) }
}

/// What a kitchen has to plan a day over.
pub(crate) fn places_of(kitchen: &Kitchen) -> DayKitchen {
    let k = kitchen.input();
    let ovens = kitchen.ovens();
    DayKitchen {
        hands: k.house.hands,
        mixers: k.mixing.mixers,
        fridge_slots: k.cold.fridge_places,
        freezer_slots: k.cold.freezer_places,
        trays: kitchen.trays().owned(),
        ovens: ovens.count,
        racks_per_oven: ovens.racks,
        preheat_min: i32::try_from(Span::new_min(ovens.preheat_min).min_up()).unwrap_or(0),
        temp_change_min: OTHER_HEAT_MIN,
        rechill_min: 0,
        cooling_slots: k.trays.cooling_places,
    }
}

fn place_of(place: ColdPlace) -> DayPlace {
    match place {
        ColdPlace::Fridge => DayPlace::Fridge,
        ColdPlace::Freezer => DayPlace::Freezer,
    }
}

/// What the kitchen has too little of, by the names of lots.
pub(crate) fn lacks(relay: &Relay, name: impl Fn(usize) -> Option<String>) -> Vec<Reason> {
    relay.lacks.iter().map(|short| Reason::KitchenLacks { short: *short, lot: short.batch.and_then(&name) }).collect()
}
