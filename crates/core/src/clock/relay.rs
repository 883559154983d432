//! A simple relay: while one tray chills the next is cut and one bakes. Whole minutes, counted back from the wanted time.
//!
//! Every step is put as late as its successor and the one pair of hands allow, so the plan starts as late as this greedy
//! order can; it does not search for a better order (a later planner may).

#[cfg(feature = "wire")]
use serde::{Deserialize, Serialize};
impl Relay {
    /// The steps of one lot, from 0, as if it were alone; it counts as the first.
    #[must_use]
    pub fn of_lot(&self, lot: usize) -> Self {
        let own = self.tasks.iter().filter(|t| as_usize(t.lot) == lot);
        let tasks: Vec<RelayTask> = own.map(|t| RelayTask { lot: 0, ..t.clone() }).collect();
        let start_min = tasks.first().map_or(0, |t| t.start_min);
        let hands_min = tasks.iter().filter(|t| t.lane == Lane::Hands).map(|t| t.end_min - t.start_min).sum();
        Self { tasks, start_min, hands_min }
    }
}

/// One lot: pieces of one kind, of one dough.
#[derive(Debug, Clone, PartialEq)]
pub struct RelayLot {
    /// Mixes, in order; none when another lot's mixes hold its dough.
    pub mixes: u32,
    /// The lot whose mixes hold its dough, from 0, when that is another.
    pub mixed_by: Option<usize>,
    /// Weighing and mixing one.
    pub mix_min: i64,
    /// Pressing its discs, rolling its sheets between papers, forming its logs or portions.
    pub form_min: i64,
    /// Of logs, the dough in the cold as a lump before they are formed, with its rest on the bench; 0 where they are formed at once.
    pub bulk_min: i64,
    /// Where the dough thaws that is in the freezer already and not mixed; nothing where it is fresh.
    pub thaws: Option<Lane>,
    /// In the cold until it can be worked.
    pub chill_min: i64,
    /// Hands a tray: rolling and cutting, or cutting alone.
    pub cut_min: Vec<i64>,
    /// Cut pieces in the cold before the oven.
    pub tray_chill_min: i64,
    /// In the oven, the longer end of the range.
    pub bake_min: i64,
    /// The oven set to, degC.
    pub oven_c: f64,
    /// On the tray afterwards, until they can be lifted and the tray is free.
    pub cool_min: i64,
    /// On a rack after that, until they can be packed, iced or filled.
    pub rack_min: i64,
    /// Hands a tray once it is cool: icing, glazing, filling; nothing where they stay plain, or where that is no part of what is wanted.
    pub finish_min: Vec<i64>,
    /// Until what was put on is dry.
    pub dry_min: i64,
    /// Hands a tray to pack it; nothing where that is no part of what is wanted.
    pub pack_min: Vec<i64>,
    /// Whether it is wanted straight from the oven: it cools after the wanted time.
    pub warm: bool,
    /// How long the dough rests on the bench when it comes out of the cold, by how long it was in: from so many minutes on, so many
    /// minutes; in order. Nothing where it is never too cold.
    pub rests: Vec<(i64, i64)>,
    /// Why the dough is in the cold for as long as it is at least, where that is longer than until it is ready.
    pub chill_why: Option<ChillWaits>,
}

impl RelayLot {
    /// Rest on the bench after so long in the cold.
    #[must_use]
    pub fn rest_after(&self, chilled_min: i64) -> i64 {
        self.rests.iter().rev().find(|(from, _)| chilled_min >= *from).map_or(0, |(_, rest)| *rest)
    }
}

/// What the relay is planned from. All spans in whole minutes.
#[derive(Debug, Clone, PartialEq)]
pub struct RelayInput {
    /// The lots in the order in which they are baked.
    pub lots: Vec<RelayLot>,
    /// Trays owned.
    pub trays_owned: u32,
    /// Trays that go into an oven together.
    pub racks: u32,
    /// Ovens.
    pub ovens: u32,
    /// Heating the oven.
    pub preheat_min: i64,
}

/// For an oven to settle at another temperature between two loads, min. Common practice, no source.
const OTHER_HEAT_MIN: i64 = 10;

/// Who or what a task occupies.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[cfg_attr(feature = "wire", derive(Serialize, Deserialize, utoipa::ToSchema), serde(rename_all = "snake_case"))]
pub enum Lane {
    /// The one pair of hands.
    Hands,
    /// A cold place.
    Cold,
    /// An oven.
    Oven,
    /// A rack or counter to cool on.
    Cooling,
}

/// What is done.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[cfg_attr(feature = "wire", derive(Serialize, Deserialize, utoipa::ToSchema), serde(rename_all = "snake_case"))]
pub enum Step {
    /// Weigh and mix.
    Mix,
    /// Press or roll for the cold.
    Form,
    /// Dough chill as a lump, before logs are formed of it.
    BulkChill,
    /// Dough chill.
    Chill,
    /// Dough from the freezer thaws.
    Thaw,
    /// Dough that got too cold rests on the bench.
    Rest,
    /// Roll and cut.
    Cut,
    /// Tray chill.
    TrayChill,
    /// Heat the oven.
    Preheat,
    /// Bake.
    Bake,
    /// Cool on the tray.
    Cool,
    /// Cool on the rack.
    CoolOnRack,
    /// Ice, glaze, dip, fill.
    Finish,
    /// What was put on dries.
    Dry,
    /// Pack.
    Pack,
}

impl Step {
    /// Whether it takes a pair of hands all the while.
    #[must_use]
    pub fn by_hand(self) -> bool {
        matches!(self, Self::Mix | Self::Form | Self::Cut | Self::Finish | Self::Pack)
    }

    /// Whether somebody has to be there when it begins; else it goes on by itself from the step before.
    #[must_use]
    pub fn begins_by_hand(self) -> bool {
        !matches!(self, Self::CoolOnRack | Self::Dry)
    }
}

/// One bar of the timeline.
#[derive(Debug, Clone, PartialEq)]
pub struct RelayTask {
    /// What is done.
    pub step: Step,
    /// What it occupies.
    pub lane: Lane,
    /// The lot (from 0).
    pub lot: u32,
    /// The mix (from 0), for the steps up to the dough chill.
    pub mix: Option<u32>,
    /// The tray (from 0), from the cut on.
    pub tray: Option<u32>,
    /// The oven (from 0), for preheating and baking.
    pub oven: Option<u32>,
    /// Minutes after the wanted time: negative.
    pub start_min: i64,
    /// End of the half-open interval.
    pub end_min: i64,
    /// Why it lies there, where something other than its successor holds it.
    pub why: Vec<Held>,
}

/// What makes a chill longer than the slow end of its range.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum MoreChill {
    /// Its flour rests at least so long.
    Flour {
        /// In the cold in all.
        at_least_min: i64,
    },
    /// The sheet is to stay workable while it is rolled and cut.
    Bench,
    /// The baker wants it in there so long.
    Asked {
        /// In the cold in all.
        at_least_min: i64,
    },
    /// It stays overnight.
    Overnight,
}

/// What of a chill is what.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct ChillWaits {
    /// Until it is ready.
    pub ready_min: i64,
    /// More at the slow end of its range.
    pub slow_min: i64,
    /// More beyond that, and what for.
    pub more: Option<(i64, MoreChill)>,
}

/// What holds a step where it lies.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Held {
    /// The next tray wants another heat.
    AnotherHeat,
    /// The next tray wants the oven.
    OvenWanted,
    /// Its tray has to be free again.
    TrayWanted,
    /// On its tray so much longer than it must: the hands are at the next.
    HandsAtTheNext {
        /// Longer.
        longer_min: i64,
    },
    /// The chill itself.
    Chill(ChillWaits),
    /// In the cold so much longer than it must: the hands are busy, or the next tray is not due.
    HandsBusy {
        /// Longer.
        longer_min: i64,
    },
    /// It has got too cold and rests until it can be worked.
    TooCold,
}

impl RelayTask {
    /// A step of a mix of a lot.
    fn of_mix(step: Step, lane: Lane, (lot, mix): (usize, usize), start_min: i64, end_min: i64) -> Self {
        let (lot, mix) = (as_u32(lot), Some(as_u32(mix)));
        Self { step, lane, lot, mix, tray: None, oven: None, start_min, end_min, why: vec![] }
    }

    /// A step of a tray of a lot, outside the oven.
    fn of_tray(step: Step, lane: Lane, (lot, tray): (usize, usize), start_min: i64, end_min: i64) -> Self {
        let (lot, tray) = (as_u32(lot), Some(as_u32(tray)));
        Self { step, lane, lot, mix: None, tray, oven: None, start_min, end_min, why: vec![] }
    }
}

/// The whole relay.
#[derive(Debug, Clone, PartialEq)]
pub struct Relay {
    /// All tasks by start.
    pub tasks: Vec<RelayTask>,
    /// Start of the first, minutes after the wanted time (negative).
    pub start_min: i64,
    /// Minutes of hands.
    pub hands_min: i64,
}

/// A tray of a lot.
struct TrayOf {
    lot: usize,
    /// Within its lot.
    number: usize,
}

/// Lays the relay out so that the last tray can be packed at minute 0. A load holds trays of one lot.
#[must_use]
pub fn plan_relay(input: &RelayInput) -> Relay {
    let racks = as_usize(input.racks.min(input.trays_owned).max(1));
    let owned = as_usize(input.trays_owned);
    let all: Vec<TrayOf> = (input.lots.iter().enumerate())
        .flat_map(|(lot, l)| (0..l.cut_min.len()).map(move |number| TrayOf { lot, number }))
        .collect();
    let mut tasks = Vec::new();
    let mut hands = Busy::default();
    // For each oven, the start of the load that follows and its heat.
    let mut oven_free = vec![(i64::MAX, f64::NAN); as_usize(input.ovens).max(1)];
    let mut cut_start = vec![0_i64; all.len()];
    let mut loads: Vec<Vec<usize>> = Vec::new();
    for (at, tray) in all.iter().enumerate() {
        match loads.last_mut() {
            Some(load) if load.len() < racks && all[load[0]].lot == tray.lot => load.push(at),
            _ => loads.push(vec![at]),
        }
    }
    for load in loads.iter().rev() {
        let lot_at = all[load[0]].lot;
        let lot = &input.lots[lot_at];
        let oven = (0..oven_free.len()).max_by_key(|&o| (oven_free[o].0, std::cmp::Reverse(o))).unwrap_or(0);
        let (next_start, next_c) = oven_free[oven];
        // Any other heat takes a while; the first load behind which nothing comes waits for none.
        let settle = if next_start < i64::MAX && (next_c - lot.oven_c).abs() > 0.5 { OTHER_HEAT_MIN } else { 0 };
        // A tray must have cooled before the tray that takes it over is cut.
        let reuse = load.iter().filter(|&&t| t + owned < all.len()).map(|&t| cut_start[t + owned]).min();
        // What is done to its pieces once they are cool, the last tray last: packed, dry before that, finished before that.
        let mut cool_by = 0;
        for &tray in load.iter().rev() {
            let mut step = |step, lane, start: i64, end: i64| {
                if end > start {
                    tasks.push(RelayTask::of_tray(step, lane, (lot_at, all[tray].number), start, end));
                }
            };
            let of = |minutes: &[i64]| minutes.get(all[tray].number).copied().unwrap_or(0);
            let (finish_min, pack_min) = (of(&lot.finish_min), of(&lot.pack_min));
            let packed = hands.latest(0, pack_min);
            let dry = packed - pack_min;
            let finished = hands.latest(dry - lot.dry_min, finish_min);
            step(Step::Pack, Lane::Hands, dry, packed);
            step(Step::Dry, Lane::Cooling, finished, dry);
            step(Step::Finish, Lane::Hands, finished - finish_min, finished);
            cool_by = cool_by.min(finished - finish_min);
        }
        let lifted_by = if lot.warm { lot.cool_min } else { cool_by - lot.rack_min };
        let free_by = reuse.unwrap_or(lifted_by).min(lifted_by);
        let bake_end = (free_by - lot.cool_min).min(next_start.saturating_sub(settle));
        let bake_start = bake_end - lot.bake_min;
        let why = if next_start.saturating_sub(settle) < free_by - lot.cool_min {
            Some(if settle > 0 { Held::AnotherHeat } else { Held::OvenWanted })
        } else {
            reuse.is_some_and(|r| r < lifted_by).then_some(Held::TrayWanted)
        };
        oven_free[oven] = (bake_start, lot.oven_c);
        for &tray in load.iter().rev() {
            let task = |step, lane, start: i64, end: i64, why: Option<Held>| RelayTask {
                oven: matches!(lane, Lane::Oven).then_some(as_u32(oven)),
                why: why.into_iter().collect(),
                ..RelayTask::of_tray(step, lane, (lot_at, all[tray].number), start, end)
            };
            let cut_min = lot.cut_min[all[tray].number];
            let cut_end = hands.latest(bake_start - lot.tray_chill_min, cut_min);
            let held = bake_start - lot.tray_chill_min - cut_end;
            cut_start[tray] = cut_end - cut_min;
            if cut_min > 0 {
                tasks.push(task(Step::Cut, Lane::Hands, cut_start[tray], cut_end, None));
            }
            let waits = (held > 0).then_some(Held::HandsAtTheNext { longer_min: held });
            if bake_start > cut_end {
                tasks.push(task(Step::TrayChill, Lane::Cold, cut_end, bake_start, waits));
            }
            tasks.push(task(Step::Bake, Lane::Oven, bake_start, bake_end, why));
            tasks.push(task(Step::Cool, Lane::Cooling, bake_end, bake_end + lot.cool_min, None));
            if lot.rack_min > 0 {
                let lifted = bake_end + lot.cool_min;
                tasks.push(task(Step::CoolOnRack, Lane::Cooling, lifted, lifted + lot.rack_min, None));
            }
        }
    }
    for (oven, (first_bake, _)) in oven_free.iter().enumerate().filter(|(_, (start, _))| *start < i64::MAX) {
        let heated_for = tasks
            .iter()
            .filter(|t| t.step == Step::Bake && t.start_min == *first_bake && t.oven == Some(as_u32(oven)))
            .map(|t| t.lot);
        tasks.push(RelayTask {
            step: Step::Preheat,
            lane: Lane::Oven,
            lot: heated_for.min().unwrap_or(0),
            mix: None,
            tray: None,
            oven: Some(as_u32(oven)),
            start_min: first_bake - input.preheat_min,
            end_min: *first_bake,
            why: vec![],
        });
    }
    let first_cut = |lot: usize, from: usize| {
        all.iter().zip(&cut_start).find(|(t, _)| t.lot == lot && t.number >= from).map_or(0, |(_, start)| *start)
    };
    // The later a lot is wanted, the sooner its mixes are booked, going back in time.
    let mut order: Vec<usize> = (0..input.lots.len()).collect();
    order.sort_by_key(|&lot| std::cmp::Reverse(first_cut(lot, 0) - input.lots[lot].chill_min));
    // Dough that another lot mixes is formed and chilled for itself; it holds the mix to its own time.
    let mut formed_by: Vec<(usize, i64)> = Vec::new();
    for &lot_at in order.iter().filter(|&&lot| input.lots[lot].mixed_by.is_some()) {
        let lot = &input.lots[lot_at];
        let wanted = first_cut(lot_at, 0);
        let formed = hands.latest(wanted - lot.chill_min, lot.form_min);
        tasks.extend(form_and_chill(lot_at, lot, 0, formed, wanted));
        let form_start = formed - lot.form_min;
        tasks.extend(lump_chill(lot_at, lot, 0, form_start - lot.bulk_min, form_start));
        formed_by.push((lot.mixed_by.unwrap_or(lot_at), form_start - lot.bulk_min));
    }
    for &lot_at in order.iter().filter(|&&lot| input.lots[lot].mixed_by.is_none()) {
        let lot = &input.lots[lot_at];
        let trays = lot.cut_min.len();
        // A mix is wanted when the first tray that uses it is cut; a tray may use the end of one and the start of the next.
        let mixes = as_usize(lot.mixes).max(1);
        for mix in (0..mixes).rev() {
            let wanted = first_cut(lot_at, (mix * trays / mixes).min(trays.saturating_sub(1)));
            let others = formed_by.iter().filter(|(by, _)| *by == lot_at && mix == 0).map(|(_, start)| *start).min();
            // Others form of the same mix: it is there before the first of them.
            let by = (wanted - lot.chill_min).min(others.map_or(i64::MAX, |start| start + lot.bulk_min + lot.form_min));
            // Nothing lies between the bowl and the bench unless the lump chills.
            let at_once = if lot.bulk_min > 0 { 0 } else { lot.mix_min };
            let formed = hands.latest(by, at_once + lot.form_min);
            tasks.extend(form_and_chill(lot_at, lot, mix, formed, wanted));
            let form_start = formed - lot.form_min;
            let mixed =
                if lot.bulk_min > 0 { hands.latest(form_start - lot.bulk_min, lot.mix_min) } else { form_start };
            tasks.extend(lump_chill(lot_at, lot, mix, mixed, form_start));
            if lot.mix_min > 0 {
                tasks.push(RelayTask::of_mix(Step::Mix, Lane::Hands, (lot_at, mix), mixed - lot.mix_min, mixed));
            }
        }
    }
    tasks.sort_by_key(|t| (t.start_min, t.end_min));
    let start_min = tasks.first().map_or(0, |t| t.start_min);
    let hands_min = tasks.iter().filter(|t| t.lane == Lane::Hands).map(|t| t.end_min - t.start_min).sum();
    Relay { tasks, start_min, hands_min }
}

/// The dough of logs in the cold as a lump; nothing where they are formed at once.
fn lump_chill(lot_at: usize, lot: &RelayLot, mix: usize, start_min: i64, end_min: i64) -> Option<RelayTask> {
    (lot.bulk_min > 0).then(|| RelayTask::of_mix(Step::BulkChill, Lane::Cold, (lot_at, mix), start_min, end_min))
}

/// Forming a mix by `formed`, its time in the cold, and the rest that it needs when that was too long, until it is `wanted`.
fn form_and_chill(lot_at: usize, lot: &RelayLot, mix: usize, formed: i64, wanted: i64) -> Vec<RelayTask> {
    let task = |step, lane, start: i64, end: i64, why: Vec<Held>| RelayTask {
        why,
        ..RelayTask::of_mix(step, lane, (lot_at, mix), start, end)
    };
    let waits = wanted - lot.chill_min - formed;
    let mut why: Vec<Held> = lot.chill_why.map(Held::Chill).into_iter().collect();
    if waits > 0 {
        why.push(Held::HandsBusy { longer_min: waits });
    }
    // It comes out earlier by its rest, and the shorter it was in, the less rest it needs: the shortest that is enough.
    let span = wanted - formed;
    let rest = (0..span).find(|&rest| rest >= lot.rest_after(span - rest)).unwrap_or(0);
    let mut found = Vec::with_capacity(3);
    if lot.form_min > 0 {
        found.push(task(Step::Form, Lane::Hands, formed - lot.form_min, formed, vec![]));
    }
    // Dough that is not chilled at all lies there only while the hands are busy.
    if wanted - rest > formed {
        let (step, lane) = match lot.thaws {
            Some(lane) => (Step::Thaw, lane),
            None => (Step::Chill, Lane::Cold),
        };
        found.push(task(step, lane, formed, wanted - rest, why));
    }
    if rest > 0 {
        found.push(task(Step::Rest, Lane::Cooling, wanted - rest, wanted, vec![Held::TooCold]));
    }
    found
}

/// Busy half-open intervals, sorted by start, not overlapping.
#[derive(Default)]
struct Busy(Vec<(i64, i64)>);

impl Busy {
    /// Books the latest free interval of `length` that ends by `by` and returns its end.
    fn latest(&mut self, by: i64, length: i64) -> i64 {
        let mut end = by;
        for &(start, stop) in self.0.iter().rev() {
            if stop <= end - length {
                break;
            }
            if start < end {
                end = end.min(start);
            }
        }
        let at = self.0.partition_point(|b| b.0 < end - length);
        if length > 0 {
            self.0.insert(at, (end - length, end));
        }
        end
    }
}

fn as_usize(n: u32) -> usize {
    usize::try_from(n).unwrap_or(usize::MAX)
}

fn as_u32(n: usize) -> u32 {
    u32::try_from(n).unwrap_or(u32::MAX)
}

#[cfg(test)]
mod tests;
