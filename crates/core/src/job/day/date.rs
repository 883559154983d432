//! A planned date looked at: what its jobs share, and what would let it start later.

use crate::clock::{DayKitchen, Lane, PlanBudget, Relay, RelayTask, Step, plan_relay};
use crate::cold::ColdPlace;
use crate::job::answers::Plan;
use crate::job::day::clock_plan::{places_of, relay_of};
use crate::job::day::together::LotPlan;
use crate::job::day::together::{lots_of_day, wanted_before};
use crate::job::settings::kitchen::Kitchen;

/// What the jobs of a date share.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Shared {
    /// Lots, from 0, whose dough is mixed as one.
    Dough(Vec<usize>),
    /// Lots that go into the oven as one load, the first such load.
    Load(Vec<usize>),
}

/// Something that would let a date start later.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum DayHelp {
    /// One more tray.
    Tray,
    /// One more oven.
    Oven,
    /// Another pair of hands.
    Hands,
    /// One more place in the fridge.
    FridgePlace,
    /// One more place to cool.
    CoolingPlace,
    /// The dough of a lot, from 0, chills in the freezer and not in the fridge.
    InTheFreezer(usize),
}

/// A help and its gain.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct DayGain {
    /// What.
    pub help: DayHelp,
    /// The day starts so much later, min.
    pub gain_min: i64,
}

/// What two dates want at the same time.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct DayClash {
    /// Hands or ovens.
    pub lane: Lane,
    /// On the clock on which both were given.
    pub from_min: i64,
    /// On the same.
    pub to_min: i64,
}

/// When two dates, each planned by itself, want more hands or ovens together than there are. `later` is by how many minutes the second one's minute 0
/// is later than the first one's; found times are the first one's.
#[must_use]
pub fn day_clashes(kitchen: &Kitchen, first: &Relay, second: &Relay, later: i64) -> Vec<DayClash> {
    let places = places_of(kitchen);
    let mut times: Vec<i64> = first.tasks.iter().flat_map(|t| [t.start_min, t.end_min]).collect();
    times.extend(second.tasks.iter().flat_map(|t| [t.start_min + later, t.end_min + later]));
    times.sort_unstable();
    times.dedup();
    let mut found: Vec<DayClash> = vec![];
    for (lane, there) in [(Lane::Hands, places.hands), (Lane::Oven, places.ovens)] {
        for pair in times.windows(2) {
            let (a, b) = (busy(first, lane, pair[0]), busy(second, lane, pair[0] - later));
            if a == 0 || b == 0 || a + b <= number(there) {
                continue;
            }
            match found.last_mut().filter(|c| c.lane == lane && c.to_min == pair[0]) {
                Some(goes_on) => goes_on.to_min = pair[1],
                None => found.push(DayClash { lane, from_min: pair[0], to_min: pair[1] }),
            }
        }
    }
    found
}

/// How many hands, or ovens, a date has at work in a minute; heating an oven is no work of hands.
fn busy(relay: &Relay, lane: Lane, min: i64) -> usize {
    let on = relay.tasks.iter().filter(|t| t.start_min <= min && min < t.end_min);
    if lane == Lane::Hands {
        return on.filter(|t| t.step.by_hand()).count();
    }
    let mut ovens: Vec<Option<u32>> = on.filter(|t| t.step == Step::Bake).map(|t| t.oven).collect();
    ovens.sort_unstable();
    ovens.dedup();
    ovens.len()
}

/// Less is not worth the trouble, min. Our own choice.
const WORTH_MIN: i64 = 5;
/// Nobody wants more advice at once.
const MOST_HELPS: usize = 3;
/// Nobody looks for one more tray on a day of more trays than this, and each help is a plan of all of them.
const MOST_TRAYS: usize = 120;
/// Each help is one plan of the day.
const BUDGET: PlanBudget = PlanBudget { seconds: 0.015, seed: 1 };

/// What the lots of a date share.
#[must_use]
pub fn day_shares(lots: &[LotPlan], relay: &Relay) -> Vec<Shared> {
    let mut found = vec![];
    for lead in 0..lots.len() {
        let with: Vec<usize> = (0..lots.len()).filter(|l| lots[*l].mixed_by == Some(lead)).collect();
        if !with.is_empty() {
            found.push(Shared::Dough(std::iter::once(lead).chain(with).collect()));
        }
    }
    let bakes: Vec<&RelayTask> = relay.tasks.iter().filter(|t| t.step == Step::Bake).collect();
    for (at, bake) in bakes.iter().enumerate() {
        let same = |o: &&&RelayTask| (o.oven, o.start_min) == (bake.oven, bake.start_min) && o.lot != bake.lot;
        let mut lots: Vec<usize> = bakes[at..].iter().filter(same).map(|o| number(o.lot)).collect();
        if lots.is_empty() {
            continue;
        }
        lots.insert(0, number(bake.lot));
        lots.sort_unstable();
        lots.dedup();
        if !found.contains(&Shared::Load(lots.clone())) {
            found.push(Shared::Load(lots));
        }
    }
    found
}

fn number(lot: u32) -> usize {
    usize::try_from(lot).unwrap_or(usize::MAX)
}

/// What would let a date start later, the most first; `frozen` are the lots as they would be with their dough in the freezer.
#[must_use]
pub fn day_helps(kitchen: &Kitchen, lots: &[LotPlan], relay: &Relay, frozen: &[Option<Plan>]) -> Vec<DayGain> {
    if lots.iter().map(|l| l.plan.clock.lot.cut_min.len()).sum::<usize>() > MOST_TRAYS {
        return vec![];
    }
    let start = |lots: &[LotPlan], more: fn(&mut DayKitchen)| {
        let mut day = relay_of(kitchen, lots_of_day(lots, &wanted_before(kitchen.zone(), lots)));
        more(&mut day.kitchen);
        plan_relay(&day, BUDGET).start_min
    };
    type More = fn(&mut DayKitchen);
    let more: [(DayHelp, More); 5] = [
        (DayHelp::Tray, |k| k.trays += 1),
        (DayHelp::Oven, |k| k.ovens += 1),
        (DayHelp::Hands, |k| k.hands += 1),
        (DayHelp::FridgePlace, |k| k.fridge_slots += 1),
        (DayHelp::CoolingPlace, |k| k.cooling_slots += 1),
    ];
    let mut found: Vec<DayGain> =
        more.into_iter().map(|(help, more)| DayGain { help, gain_min: start(lots, more) - relay.start_min }).collect();
    for (at, frozen) in frozen.iter().enumerate() {
        let Some(plan) = frozen.as_ref().filter(|_| lots[at].plan.cold.place == ColdPlace::Fridge) else { continue };
        let mut other = lots.to_vec();
        other[at] = LotPlan { plan, ..other[at] };
        found.push(DayGain { help: DayHelp::InTheFreezer(at), gain_min: start(&other, |_| {}) - relay.start_min });
    }
    found.retain(|g| g.gain_min >= WORTH_MIN);
    found.sort_by_key(|g| std::cmp::Reverse(g.gain_min));
    found.truncate(MOST_HELPS);
    found
}
