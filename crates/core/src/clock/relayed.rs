//! The relay of some lots, planned as a day: one batch for each mix.

use super::planner::{Day, DayBatch, DayHeld, DayRule, DayTask, Forbidden, PlanBudget, PlannedDay, plan_day};
use super::relay::{Held, Relay, RelayInput, RelayLot, RelayTask};
use super::step::{Lane, Step};
use std::ops::Range;

/// Nothing of a plan is longer, min.
const ENDLESS: i32 = i32::MAX / 4;
/// So many places are as many as anybody could want.
const PLENTY: u32 = 1_000;
/// So often what is short is taken to be there, until the day goes.
const MOST_LACKS: usize = 12;

/// The mixes of a lot that are planned as one batch, and the trays that are cut of them.
struct BatchOf {
    lot: usize,
    mixes: Range<usize>,
    trays: Range<usize>,
}

/// Lays the relay out so that all is ready when it is wanted, as late as a search within the budget finds. Where the kitchen has too little of
/// something, the relay says so, and is as it would be if there were enough.
#[must_use]
pub fn plan_relay(input: &RelayInput, budget: PlanBudget) -> Relay {
    let batches = batches_of(&input.lots);
    let lead_of = |lot: usize| batches.iter().position(|b| b.lot == lot);
    let day = Day {
        kitchen: input.kitchen.clone(),
        batches: batches.iter().map(|b| batch(&input.lots[b.lot], b, lead_of)).collect(),
    };
    let (planned, short) = planned(day, budget);
    let end = i64::from(planned.makespan_min);
    let batches = numbered(batches, &planned);
    let tasks = planned.tasks.iter().flat_map(|task| {
        let of = &batches[task.batch];
        relayed(task, &input.lots[of.lot], of, end)
    });
    let mut lacks: Vec<Forbidden> =
        short.into_iter().map(|f| Forbidden { batch: f.batch.map(|b| batches[b].lot), ..f }).collect();
    // Two mixes of one lot lack the same.
    lacks.dedup();
    Relay::new(tasks.collect(), lacks)
}

fn batches_of(lots: &[RelayLot]) -> Vec<BatchOf> {
    let mut all: Vec<BatchOf> = vec![];
    for (lot, l) in lots.iter().enumerate() {
        let (trays, mixes) = (l.cut_min.len(), as_usize(l.mixes).max(1));
        // A mix is wanted when the first tray that uses it is cut; a tray may use the end of one and the start of the next.
        let first_tray = |mix: usize| mix * trays / mixes;
        let mut from = 0;
        for mix in 0..mixes {
            if first_tray(mix + 1) > first_tray(from) {
                all.push(BatchOf { lot, mixes: from..mix + 1, trays: first_tray(from)..first_tray(mix + 1) });
                from = mix + 1;
            }
        }
    }
    all
}

/// Mixes of one lot are alike: the one that is worked first is the first, and its trays are.
fn numbered(batches: Vec<BatchOf>, planned: &PlannedDay) -> Vec<BatchOf> {
    let first = |batch: usize| {
        planned.tasks.iter().find(|t| t.batch == batch && t.step == Step::Cut).map_or(i32::MAX, |t| t.start_min)
    };
    let mut order: Vec<usize> = (0..batches.len()).collect();
    order.sort_by_key(|&b| (batches[b].lot, first(b)));
    let mut found: Vec<(usize, BatchOf)> = vec![];
    let (mut lot, mut mixes, mut trays) = (usize::MAX, 0, 0);
    for at in order {
        let of = &batches[at];
        if of.lot != lot {
            (lot, mixes, trays) = (of.lot, 0, 0);
        }
        let next = (mixes + of.mixes.len(), trays + of.trays.len());
        found.push((at, BatchOf { lot, mixes: mixes..next.0, trays: trays..next.1 }));
        (mixes, trays) = next;
    }
    found.sort_by_key(|(at, _)| *at);
    found.into_iter().map(|(_, of)| of).collect()
}

fn batch(lot: &RelayLot, of: &BatchOf, lead_of: impl Fn(usize) -> Option<usize>) -> DayBatch {
    let mixes = i64::try_from(of.mixes.len()).unwrap_or(1);
    // Mixes are alike until it is known which of them is worked first: each of their trays gets the time of the fullest.
    let several = of.trays.len() < lot.cut_min.len();
    let trays = |minutes: &[i64]| {
        let most = minutes.iter().copied().max().unwrap_or(0);
        let own = minutes.get(of.trays.clone()).unwrap_or(&[]);
        own.iter().map(|own| short(if several { most } else { *own })).collect()
    };
    DayBatch {
        mix_min: short(lot.mix_min * mixes),
        mixed_by: lot.mixed_by.and_then(lead_of),
        bulk_min: short(lot.bulk_min),
        form_min: short(lot.form_min * mixes),
        dough_place: lot.dough_place,
        chill_min: short(lot.chill_min),
        rests: lot.rests.iter().map(|&(from, rest)| (short(from), short(rest))).collect(),
        // Each disc, sheet or log waits in the cold for its turn, so that its time on the bench is its own: the cold station sees to that.
        window_min: ENDLESS,
        cut_min: trays(&lot.cut_min),
        tray_place: Some(lot.tray_place),
        tray_chill_min: short(lot.tray_chill_min),
        tray_chill_max: ENDLESS,
        oven_c: lot.oven_c.round(),
        bake_min: short(lot.bake_min),
        cool_min: short(lot.cool_min),
        rack_min: short(lot.rack_min),
        finish_min: trays(&lot.finish_min),
        dry_min: short(lot.dry_min),
        pack_min: trays(&lot.pack_min),
        wanted_before_min: short(lot.wanted_before_min),
        warm: lot.warm,
    }
}

/// Plans the day, or the nearest to it that goes, and what is short for it.
fn planned(mut day: Day, budget: PlanBudget) -> (PlannedDay, Vec<Forbidden>) {
    let mut lacks: Vec<Forbidden> = vec![];
    for _ in 0..MOST_LACKS {
        match plan_day(&day, budget) {
            Ok(planned) => return (planned, lacks),
            Err(short) => {
                short.iter().for_each(|f| give(&mut day, f));
                lacks.extend(short);
            }
        }
    }
    let all = [DayRule::Together, DayRule::Hands, DayRule::Trays, DayRule::Ovens];
    all.into_iter().for_each(|rule| give(&mut day, &Forbidden { rule, batch: None, needs: None, has: 0 }));
    let planned = plan_day(&day, budget).unwrap_or(PlannedDay { tasks: vec![], makespan_min: 0, bound_min: 0 });
    (planned, lacks)
}

/// Takes what is short to be there.
fn give(day: &mut Day, short: &Forbidden) {
    let enough = short.needs.and_then(|n| u32::try_from(n).ok()).unwrap_or(PLENTY);
    let k = &mut day.kitchen;
    match short.rule {
        DayRule::Hands => k.hands = k.hands.max(enough),
        DayRule::Mixers => k.mixers = k.mixers.max(enough),
        DayRule::FridgeSlots => k.fridge_slots = k.fridge_slots.max(enough),
        DayRule::FreezerSlots => k.freezer_slots = k.freezer_slots.max(enough),
        DayRule::Trays => k.trays = k.trays.max(enough),
        DayRule::Ovens => (k.ovens, k.racks_per_oven) = (k.ovens.max(1), k.racks_per_oven.max(1)),
        DayRule::CoolingSlots => k.cooling_slots = k.cooling_slots.max(enough),
        DayRule::WorkWindow => day.batches.iter_mut().for_each(|b| b.window_min = ENDLESS),
        DayRule::TrayChill => day.batches.iter_mut().for_each(|b| b.tray_chill_max = ENDLESS),
        DayRule::Together => {
            for places in [&mut k.fridge_slots, &mut k.freezer_slots, &mut k.cooling_slots] {
                *places = PLENTY;
            }
        }
    }
}

/// A task of a planned day as steps of its lot, counted from the last wanted time.
fn relayed(task: &DayTask, lot: &RelayLot, of: &BatchOf, end: i64) -> Vec<RelayTask> {
    let at = |minute: i32| i64::from(minute) - end;
    let (start_min, end_min) = (at(task.start_min), at(task.end_min));
    if end_min <= start_min {
        return vec![];
    }
    let step = match task.step {
        Step::Chill if lot.thaws => Step::Thaw,
        step => step,
    };
    let one = RelayTask {
        step,
        lane: lane_of(step, lot),
        lot: as_u32(of.lot),
        mix: None,
        tray: None,
        dough: as_u32(of.mixes.end.saturating_sub(1)),
        oven: task.oven.map(as_u32),
        start_min,
        end_min,
        why: why(task, step, lot, end_min - start_min),
    };
    match step {
        Step::Preheat => vec![one],
        Step::Mix | Step::Form => {
            // One after the other.
            let each = (end_min - start_min) / i64::try_from(of.mixes.len()).unwrap_or(1).max(1);
            let nth = |i: usize| start_min + each * i64::try_from(i).unwrap_or(0);
            let parts = of.mixes.clone().enumerate().map(|(i, mix)| {
                let end_min = if mix + 1 == of.mixes.end { end_min } else { nth(i + 1) };
                RelayTask { mix: Some(as_u32(mix)), dough: as_u32(mix), start_min: nth(i), end_min, ..one.clone() }
            });
            parts.filter(|t| t.end_min > t.start_min).collect()
        }
        Step::BulkChill | Step::Chill | Step::Thaw | Step::Rest => of
            .mixes
            .clone()
            .map(|mix| RelayTask { mix: Some(as_u32(mix)), dough: as_u32(mix), ..one.clone() })
            .collect(),
        _ => {
            let tray = task.tray.map(|t| of.trays.start + t);
            // Every tray was given the time of the fullest; its own work begins later. The first takes the dough from the cold.
            let takes = |minutes: &[i64]| tray.and_then(|t| minutes.get(t)).copied().unwrap_or(end_min - start_min);
            let start_min = match step {
                Step::Cut if task.tray != Some(0) => end_min - takes(&lot.cut_min),
                Step::Pack => end_min - takes(&lot.pack_min),
                _ => start_min,
            };
            vec![RelayTask { tray: tray.map(as_u32), start_min: start_min.max(one.start_min), ..one }]
        }
    }
}

fn lane_of(step: Step, lot: &RelayLot) -> Lane {
    use super::planner::DayPlace::Counter;
    match step {
        step if step.by_hand() => Lane::Hands,
        Step::Preheat | Step::Bake => Lane::Oven,
        Step::Chill | Step::Thaw | Step::BulkChill if lot.dough_place != Counter => Lane::Cold,
        Step::TrayChill if lot.tray_place != Counter => Lane::Cold,
        _ => Lane::Cooling,
    }
}

fn why(task: &DayTask, step: Step, lot: &RelayLot, lasts: i64) -> Vec<Held> {
    let chill = (step == Step::Chill || step == Step::Thaw).then_some(lot.chill_why).flatten().map(Held::Chill);
    let held = task.why.iter().filter_map(|held| {
        Some(match held {
            DayHeld::Oven(_) => Held::OvenWanted,
            DayHeld::AnotherHeat(_) => Held::AnotherHeat,
            DayHeld::CoolingPlace(_) => Held::CoolingPlaceWanted,
            DayHeld::Tray(_) => Held::TrayWanted,
            DayHeld::TooCold => Held::TooCold,
            DayHeld::Longer(longer) if step == Step::TrayChill => {
                Held::LongerOnItsTray { longer_min: i64::from(*longer) }
            }
            DayHeld::Longer(longer) => Held::HandsBusy { longer_min: i64::from(*longer).min(lasts) },
            DayHeld::WantedThen | DayHeld::Hands(_) | DayHeld::WindowEnds => return None,
        })
    });
    chill.into_iter().chain(held).collect()
}

fn short(minutes: i64) -> i32 {
    i32::try_from(minutes).unwrap_or(ENDLESS).min(ENDLESS)
}

fn as_usize(n: u32) -> usize {
    usize::try_from(n).unwrap_or(usize::MAX)
}

fn as_u32(n: usize) -> u32 {
    u32::try_from(n).unwrap_or(u32::MAX)
}

#[cfg(test)]
mod tests;
