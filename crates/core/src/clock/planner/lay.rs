//! Lays a day down from a list, going back from its end: each unit as late as what is laid already leaves it.

use super::day::{Day, DayBatch, DayPlace};
use super::list::{Layout, List};
use super::places::{Back, Places};

/// A stretch of minutes counted back: it ends in time where it begins here.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub(super) struct Stretch {
    pub(super) from: Back,
    pub(super) to: Back,
}

impl Stretch {
    fn new(from: Back, length: Back) -> Self {
        Self { from, to: from + length }
    }

    pub(super) fn length(self) -> Back {
        self.to - self.from
    }
}

/// A tray as it is laid.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct LaidTray {
    pub(super) batch: usize,
    pub(super) tray: usize,
    pub(super) cut: Stretch,
    pub(super) chill: Stretch,
    /// Where it chills; nothing where it does not.
    pub(super) place: Option<DayPlace>,
    pub(super) oven: usize,
    pub(super) bake: Stretch,
    pub(super) cool: Stretch,
    pub(super) finish: Stretch,
    pub(super) dry: Stretch,
    pub(super) pack: Stretch,
}

/// Dough in the cold, and its rest after it.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct LaidChill {
    pub(super) batch: usize,
    /// The tray that is cut first after it.
    pub(super) tray: usize,
    pub(super) chill: Stretch,
    /// On the counter before it can be worked.
    pub(super) rest: Back,
}

/// Dough that is mixed and formed.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct LaidDough {
    pub(super) batch: usize,
    pub(super) form: Stretch,
    pub(super) bulk: Stretch,
    pub(super) mix: Stretch,
}

/// All that laying a tray changes, to come back to.
#[derive(Default)]
struct SoFar {
    places: [Places; 5],
    ovens: Vec<Vec<Load>>,
    reached: Vec<Reached>,
    laid: usize,
    chills: usize,
}

impl SoFar {
    fn keep(&mut self, layout: &DayLayout) {
        let all = [&layout.hands, &layout.fridge, &layout.freezer, &layout.trays, &layout.cooling];
        self.places.iter_mut().zip(all).for_each(|(mine, theirs)| mine.copy(theirs));
        self.ovens.clone_from(&layout.ovens);
        self.reached.clone_from(&layout.reached);
        (self.laid, self.chills) = (layout.laid.len(), layout.chills.len());
    }

    fn bring_back(&self, layout: &mut DayLayout) {
        let all = [&mut layout.hands, &mut layout.fridge, &mut layout.freezer, &mut layout.trays, &mut layout.cooling];
        all.into_iter().zip(&self.places).for_each(|(theirs, mine)| theirs.copy(mine));
        layout.ovens.clone_from(&self.ovens);
        layout.reached.clone_from(&self.reached);
        layout.laid.truncate(self.laid);
        layout.chills.truncate(self.chills);
    }
}

/// Trays in an oven together.
#[derive(Debug, Clone, Copy)]
struct Load {
    at: Stretch,
    heat: f64,
    trays: u32,
}

/// What of a batch is laid so far.
#[derive(Debug, Clone, Copy, Default)]
struct Reached {
    /// Trays still to lay.
    left: usize,
    /// Bake of the tray laid last.
    bake: Back,
    /// Start in time of the cut laid last.
    cut_to: Back,
    /// End in time of the last cut of this outing of the dough.
    outing_from: Back,
    /// A place that its dough will take before the cut laid last, held for it until it is known for how long.
    held: Option<Stretch>,
    /// Its dough is formed.
    formed: bool,
}

/// Ways of a unit, as bits: chills in the other place first; its dough goes back into the cold after it; goes into a load of its own; goes in when
/// the tray that is cut before it can, too.
const OTHER_PLACE: u8 = 1;
const BACK_INTO_THE_COLD: u8 = 2;
const OWN_LOAD: u8 = 4;
const WITH_THE_NEXT: u8 = 8;

/// How many minutes sooner than it could a unit bakes (or is formed), and is cut: what is as late as can be is not always best where stays in
/// the cold and windows have an end.
const SOONER_MIN: [Back; 4] = [0, 2, 5, 11];

fn bakes_sooner(ways: u8) -> Back {
    SOONER_MIN[usize::from(ways >> 4 & 3)]
}

fn cut_sooner(ways: u8) -> Back {
    if ways & 64 == 0 { 0 } else { SOONER_MIN[2] }
}

/// Takes the oven that is free first, whatever its heat.
const FIRST_OVEN: u8 = 128;

/// So many minutes it waits for the other, at most the last. Our own choice.
const WAITS: [Back; 6] = [1, 3, 5, 8, 13, 21];
const MOST_WAIT: Back = 21;

/// A day, and what of it is laid.
pub(super) struct DayLayout<'a> {
    pub(super) day: &'a Day,
    hands: Places,
    mixers: Places,
    fridge: Places,
    freezer: Places,
    counter: Places,
    trays: Places,
    cooling: Places,
    ovens: Vec<Vec<Load>>,
    reached: Vec<Reached>,
    first_unit: Vec<usize>,
    /// No plan goes back further: all one after the other, and a day.
    furthest: Back,
    pub(super) laid: Vec<LaidTray>,
    pub(super) chills: Vec<LaidChill>,
    pub(super) doughs: Vec<LaidDough>,
    /// Start of the day, counted back.
    pub(super) start: Back,
    /// Room to come back to what was laid.
    aside: (SoFar, SoFar),
}

const UNLIMITED: u32 = 1_000_000;

/// How long a day would be in which nothing happens at once.
fn all_in_a_row(day: &Day) -> Back {
    let k = &day.kitchen;
    let each = |b: &DayBatch| {
        let trays = Back::try_from(b.trays()).unwrap_or(Back::MAX / 1000);
        let hands: Back = b.cut_min.iter().chain(&b.finish_min).chain(&b.pack_min).sum();
        let rest = b.rests.iter().map(|r| r.1).max().unwrap_or(0);
        let a_tray = k.rechill_min
            + rest
            + b.tray_chill_min
            + b.bake_min
            + b.cool_min
            + b.rack_min
            + b.dry_min
            + k.temp_change_min;
        b.mix_min + b.bulk_min + b.form_min + b.chill_min + rest + hands + trays * a_tray + b.wanted_before_min
    };
    day.batches.iter().map(each).sum::<Back>() + k.preheat_min
}

impl<'a> DayLayout<'a> {
    pub(super) fn new(day: &'a Day) -> Self {
        let k = &day.kitchen;
        let mut unit = 0;
        let first_unit = (day.batches.iter())
            .map(|b| {
                let first = unit;
                unit += b.trays() + 1;
                first
            })
            .collect();
        Self {
            day,
            hands: Places::new(k.hands),
            mixers: Places::new(k.mixers),
            fridge: Places::new(k.fridge_slots),
            freezer: Places::new(k.freezer_slots),
            counter: Places::new(UNLIMITED),
            trays: Places::new(k.trays),
            cooling: Places::new(k.cooling_slots),
            ovens: vec![Vec::new(); k.ovens.try_into().unwrap_or(0)],
            reached: vec![],
            first_unit,
            furthest: all_in_a_row(day) + 24 * 60,
            laid: vec![],
            chills: vec![],
            doughs: vec![],
            start: 0,
            aside: Default::default(),
        }
    }

    /// Lists to begin with: the batches as they are given, and by what makes one worth beginning with, each way round; of each order the
    /// doughs all beforehand, or one batch after the other, or the trays of all in turn.
    pub(super) fn starts(&self) -> Vec<List> {
        let batches = &self.day.batches;
        let units: usize = batches.iter().map(|b| b.trays() + 1).sum();
        let way = if self.day.kitchen.racks_per_oven > 1 { WITH_THE_NEXT } else { 0 };
        let list = |order: Vec<u16>| List { order, ways: vec![way; units] };
        let cuts = |b: &DayBatch| b.cut_min.iter().sum::<Back>();
        let before = |b: &DayBatch| b.mix_min + b.bulk_min + b.form_min + b.chill_min;
        let after = |b: &DayBatch| b.tray_chill_min + b.bake_min + b.cool_min;
        type Key<'k> = Box<dyn Fn(&DayBatch) -> f64 + 'k>;
        let keys: [Key; 6] = [
            Box::new(|b| b.oven_c),
            Box::new(|b| f64::from(before(b))),
            Box::new(|b| f64::from(cuts(b))),
            Box::new(|b| f64::from(after(b))),
            Box::new(|b| f64::from(before(b) - after(b))),
            Box::new(|b| f64::from(b.mix_min + b.form_min + cuts(b))),
        ];
        let given: Vec<usize> = (0..batches.len()).rev().collect();
        let mut orders = vec![given.clone()];
        for key in keys {
            let mut up = given.clone();
            up.sort_by(|&a, &b| key(&batches[a]).total_cmp(&key(&batches[b])));
            let mut down = given.clone();
            down.sort_by(|&a, &b| key(&batches[b]).total_cmp(&key(&batches[a])));
            orders.extend([up, down]);
        }
        let chain = |b: usize| u16::try_from(b).unwrap_or(u16::MAX);
        let mut lists = vec![];
        for mut order in orders {
            order.sort_by_key(|&b| batches[b].wanted_before_min);
            let trays_first = (order.iter().flat_map(|&b| vec![chain(b); batches[b].trays()]))
                .chain(order.iter().map(|&b| chain(b)))
                .collect();
            let one_by_one = order.iter().flat_map(|&b| vec![chain(b); batches[b].trays() + 1]).collect();
            let most = batches.iter().map(|b| b.trays() + 1).max().unwrap_or(0);
            let in_turn = (0..most)
                .flat_map(|i| order.iter().filter(move |&&b| i <= batches[b].trays()).map(|&b| chain(b)))
                .collect();
            lists.extend([list(trays_first), list(one_by_one), list(in_turn)]);
        }
        lists
    }

    fn clear(&mut self) {
        let all = [
            &mut self.hands,
            &mut self.mixers,
            &mut self.fridge,
            &mut self.freezer,
            &mut self.counter,
            &mut self.trays,
            &mut self.cooling,
        ];
        all.into_iter().for_each(Places::clear);
        self.ovens.iter_mut().for_each(Vec::clear);
        self.laid.clear();
        self.chills.clear();
        self.doughs.clear();
        let left = |b: &DayBatch| Reached { left: b.trays(), ..Reached::default() };
        self.reached = self.day.batches.iter().map(left).collect();
    }

    fn place(&self, place: DayPlace) -> &Places {
        match place {
            DayPlace::Fridge => &self.fridge,
            DayPlace::Freezer => &self.freezer,
            DayPlace::Counter => &self.counter,
        }
    }

    fn take_place(&mut self, place: DayPlace, at: Stretch) {
        let place = match place {
            DayPlace::Fridge => &mut self.fridge,
            DayPlace::Freezer => &mut self.freezer,
            DayPlace::Counter => return,
        };
        place.take(at.from, at.to);
    }

    /// The first minute from which a tray can bake in an oven, and the load it joins.
    fn first_in_oven(&self, oven: usize, from: Back, batch: &DayBatch, own: bool) -> (Back, Option<usize>) {
        let (bake, k) = (batch.bake_min, &self.day.kitchen);
        let loads = &self.ovens[oven];
        let same = |l: &Load| l.heat.total_cmp(&batch.oven_c).is_eq();
        let mut start = from;
        'again: loop {
            for (i, load) in loads.iter().enumerate() {
                let settle = if same(load) { 0 } else { k.temp_change_min };
                if load.at.to + settle <= start {
                    continue;
                }
                if load.at.from >= start + bake + settle {
                    break;
                }
                let joins = same(load) && load.at.length() == bake && load.trays < k.racks_per_oven && !own;
                if joins && load.at.from >= start {
                    return (load.at.from, Some(i));
                }
                start = load.at.to + settle;
                continue 'again;
            }
            return (start, None);
        }
    }

    /// Whether an oven is at another heat before or after a minute.
    fn changes_heat(&self, oven: usize, at: Back, heat: f64) -> bool {
        let loads = &self.ovens[oven];
        let next = loads.partition_point(|l| l.at.from < at);
        let other = |l: &Load| l.heat.total_cmp(&heat).is_ne();
        next.checked_sub(1).is_some_and(|i| other(&loads[i])) || loads.get(next).is_some_and(other)
    }

    /// How dough comes out of the cold to be worked from `usable` on (or a little sooner, within its window) when it went in at `into`: when it
    /// comes out, and how long it rests.
    fn comes_out(
        &self,
        batch: &DayBatch,
        usable: Back,
        outing_from: Back,
        into: Back,
        least: Back,
    ) -> Option<(Back, Back)> {
        // Dough that need not chill is worked as it is; its window runs from there.
        if least == 0 && (into == usable || into - outing_from <= batch.window_min) {
            return Some((into, 0));
        }
        let place = self.place(batch.dough_place);
        let rests = std::iter::once((0, 0)).chain(batch.rests.iter().copied());
        let ends = batch.rests.iter().map(|r| r.0 - 1).chain(std::iter::once(Back::MAX));
        let mut best: Option<(Back, Back)> = None;
        for ((from, rest), until) in rests.zip(ends) {
            let mut out = (usable + rest).max(into.saturating_sub(until));
            if out < into && !place.fits(out, into) {
                out = place.last_full_end(out, into)?;
            }
            let chilled = into - out;
            let usable_at = out - rest;
            let holds = chilled >= from.max(least)
                && chilled >= 0
                && usable_at >= usable
                && usable_at - outing_from <= batch.window_min;
            if holds && best.is_none_or(|(o, r)| usable_at < o - r) {
                best = Some((out, rest));
            }
        }
        best
    }

    /// The first cut for a tray that goes into the oven at `bake_to`, and where it chills.
    fn first_cut(&self, at: usize, tray: usize, bake_to: Back, tray_from: Back, ways: u8) -> Sought {
        let batch = &self.day.batches[at];
        let reached = self.reached[at];
        let cut_min = DayBatch::of(&batch.cut_min, tray);
        let least = batch.tray_chill_min;
        let tray_until = self.trays.free_until(tray_from);
        if tray_until < bake_to + least + cut_min {
            let free = self.trays.first(tray_from + 1, bake_to + least + cut_min - tray_from);
            return free.map_or(Sought::Never, |from| Sought::Later(bake_to + from - tray_from));
        }
        // Cuts of one dough follow each other.
        let after = if reached.left == batch.trays() { Back::MIN } else { reached.cut_to };
        let longest = batch.tray_chill_max;
        if after > bake_to.saturating_add(longest) {
            return Sought::Later(after - longest);
        }
        let most = tray_until - cut_min;
        if least == 0 && after <= bake_to {
            // It goes in as it is cut.
            match self.cut_within(at, tray, (bake_to, bake_to.min(most)), cut_min, ways, None) {
                Sought::Later(_) => {}
                found => return found,
            }
        }
        let (fridge, freezer) = (DayPlace::Fridge, DayPlace::Freezer);
        let order = match batch.tray_place {
            Some(place) => [Some(place), None],
            None if ways & OTHER_PLACE == 0 => [Some(freezer), Some(fridge)],
            None => [Some(fridge), Some(freezer)],
        };
        let mut later = Back::MAX;
        for place in order.into_iter().flatten() {
            let places = self.place(place);
            let until = places.free_until(bake_to).min(bake_to.saturating_add(longest)).min(most);
            let from = (bake_to + least.max(1)).max(after);
            if from <= until {
                match self.cut_within(at, tray, (from, until), cut_min, ways, Some(place)) {
                    Sought::Later(start) => later = later.min((start - longest).max(bake_to + 1)),
                    found => return found,
                }
            }
            if let Some(free) = places.first(bake_to + 1, least.max(1)) {
                later = later.min(free);
            }
        }
        if least == 0 {
            later = later.min(bake_to + 1);
        }
        if later == Back::MAX { Sought::Never } else { Sought::Later(later) }
    }

    /// Whether the cold place of a tray holds its dough too, where that goes back into it when the tray comes.
    fn both_fit(&self, batch: &DayBatch, chill_from: Back, cut: Cut) -> bool {
        match (cut.place, cut.out) {
            (Some(place), Some((out, _))) if place == batch.dough_place && place != DayPlace::Counter => {
                let mut place = self.place(place).clone();
                place.take(chill_from, cut.from);
                place.fits(out, cut.from)
            }
            _ => true,
        }
    }

    fn cut_within(
        &self,
        at: usize,
        tray: usize,
        (from, until): (Back, Back),
        cut_min: Back,
        ways: u8,
        place: Option<DayPlace>,
    ) -> Sought {
        let batch = &self.day.batches[at];
        let reached = self.reached[at];
        let first = reached.left == batch.trays();
        let mut sooner = cut_sooner(ways);
        let rechill = self.day.kitchen.rechill_min;
        let mut start = from;
        loop {
            start = match self.hands.first(start, cut_min) {
                Some(start) if start <= until => start,
                Some(start) => return Sought::Later(start),
                None => return Sought::Never,
            };
            let end = start + cut_min;
            if sooner > 0 && start + sooner <= until {
                start += sooner;
                sooner = 0;
                continue;
            }
            if tray == 0 {
                // Its dough chills before the first of its trays.
                match self.place(batch.dough_place).first(end, batch.chill_min) {
                    Some(free) if free == end => {}
                    Some(free) => {
                        start = free - cut_min;
                        continue;
                    }
                    None => return Sought::Never,
                }
            }
            if first || (ways & BACK_INTO_THE_COLD == 0 && end - reached.outing_from <= batch.window_min) {
                return Sought::Cut(Cut { from: start, place, out: None });
            }
            if start < reached.cut_to + rechill {
                start = reached.cut_to + rechill;
                continue;
            }
            match self.comes_out(batch, reached.cut_to, reached.outing_from, start, rechill) {
                Some(out) => return Sought::Cut(Cut { from: start, place, out: Some(out) }),
                // A place that is full after the window has ended never lets it in again.
                None if self.shut(batch, reached, start) => return Sought::Never,
                None => start += 1,
            }
        }
    }

    /// Whether the place of a dough is full at a time before `into` at which it would have to be in it.
    fn shut(&self, batch: &DayBatch, reached: Reached, into: Back) -> bool {
        let rest = batch.rests.iter().map(|r| r.1).max().unwrap_or(0);
        let by = reached.outing_from + batch.window_min + rest;
        self.place(batch.dough_place).last_full_end(by.min(into), into).is_some_and(|end| end > by)
    }

    /// Lays a tray with the one that is cut before it, in one load, where that is to be and can be.
    fn lay_together(&mut self, at: usize, list: &List) -> Option<()> {
        let tray = self.reached[at].left - 1;
        let ways = list.ways[self.first_unit[at] + tray];
        if ways & WITH_THE_NEXT == 0 || tray == 0 || self.day.kitchen.racks_per_oven < 2 {
            return self.lay_tray(at, ways, bakes_sooner(ways));
        }
        let next = list.ways[self.first_unit[at] + tray - 1];
        let (mut before, mut alone) = std::mem::take(&mut self.aside);
        before.keep(self);
        let laid = self.lay_with_the_next(at, (ways, next), &before, &mut alone);
        self.aside = (before, alone);
        laid
    }

    fn lay_with_the_next(
        &mut self,
        at: usize,
        (ways, next): (u8, u8),
        before: &SoFar,
        alone: &mut SoFar,
    ) -> Option<()> {
        self.lay_tray(at, ways, 0)?;
        let bake = self.reached[at].bake;
        alone.keep(self);
        let gap = self.lay_tray(at, next, 0).map_or(Back::MAX, |()| self.reached[at].bake - bake);
        alone.bring_back(self);
        if gap == 0 || gap > MOST_WAIT {
            return Some(());
        }
        // The other could go in so much sooner than this: it waits no longer than that.
        for wait in WAITS.into_iter().filter(|w| *w <= gap) {
            before.bring_back(self);
            self.lay_tray(at, ways, wait)?;
            let bake = self.reached[at].bake;
            alone.keep(self);
            let joins = self.lay_tray(at, next, 0).is_some() && self.reached[at].bake == bake;
            alone.bring_back(self);
            if joins {
                return Some(());
            }
        }
        before.bring_back(self);
        self.lay_tray(at, ways, 0)
    }

    fn lay_tray(&mut self, at: usize, ways: u8, wait: Back) -> Option<()> {
        let batch = &self.day.batches[at];
        let tray = self.reached[at].left - 1;
        let first = self.reached[at].left == batch.trays();
        let own = ways & OWN_LOAD != 0;
        let wanted = batch.wanted_before_min;
        // What is done once they are cool, back from the wanted time.
        let (finish_min, pack_min) = (DayBatch::of(&batch.finish_min, tray), DayBatch::of(&batch.pack_min, tray));
        let pack = Stretch::new(self.hands.first(wanted, pack_min)?, pack_min);
        self.hands.take(pack.from, pack.to);
        let finish = Stretch::new(self.hands.first(pack.to + batch.dry_min, finish_min)?, finish_min);
        self.hands.take(finish.from, finish.to);
        let dry = Stretch { from: pack.to, to: if batch.dry_min > 0 { finish.from } else { pack.to } };
        let lifted = if batch.warm { wanted - batch.cool_min } else { finish.to + batch.rack_min };
        let mut start = lifted + batch.cool_min;
        if !first {
            start = start.max(self.reached[at].bake);
        }
        let mut wait = wait;
        let (oven, joined, cut) = loop {
            if start > self.furthest {
                return None;
            }
            let (_, _, oven, found, joined) = (0..self.ovens.len())
                .map(|oven| {
                    let (start, joined) = self.first_in_oven(oven, start, batch, own);
                    let other =
                        ways & FIRST_OVEN == 0 && joined.is_none() && self.changes_heat(oven, start, batch.oven_c);
                    let counted = start + if other { self.day.kitchen.temp_change_min } else { 0 };
                    (counted, joined.is_none(), oven, start, joined)
                })
                .min()?;
            start = found;
            let cools = self.cooling.first(start - batch.cool_min, batch.cool_min)? + batch.cool_min;
            if cools > start {
                start = cools;
                continue;
            }
            match self.first_cut(at, tray, start + batch.bake_min, start - batch.cool_min, ways) {
                Sought::Cut(cut) if self.both_fit(batch, start + batch.bake_min, cut) => {
                    if wait == 0 {
                        break (oven, joined, cut);
                    }
                    start += wait;
                    wait = 0;
                }
                Sought::Cut(_) => start += 1,
                Sought::Later(next) => start = (next - batch.bake_min).max(start + 1),
                Sought::Never => return None,
            }
        };
        let bake = Stretch::new(start, batch.bake_min);
        let cool = Stretch { from: start - batch.cool_min, to: start };
        let cut_at = Stretch::new(cut.from, DayBatch::of(&batch.cut_min, tray));
        let chill = Stretch { from: bake.to, to: cut_at.from };
        match joined {
            Some(load) => self.ovens[oven][load].trays += 1,
            None => {
                let load = Load { at: bake, heat: batch.oven_c, trays: 1 };
                let i = self.ovens[oven].partition_point(|l| l.at.from < bake.from);
                self.ovens[oven].insert(i, load);
            }
        }
        self.cooling.take(cool.from, cool.to);
        self.hands.take(cut_at.from, cut_at.to);
        self.trays.take(cool.from, cut_at.to);
        if let Some(place) = cut.place {
            self.take_place(place, chill);
        }
        self.give_held(at);
        let reached = &mut self.reached[at];
        if first || cut.out.is_some() {
            reached.outing_from = cut_at.from;
        }
        reached.left = tray;
        reached.bake = bake.from;
        reached.cut_to = cut_at.to;
        if tray == 0 && batch.chill_min > 0 {
            let held = Stretch::new(cut_at.to, batch.chill_min);
            reached.held = Some(held);
            self.take_place(batch.dough_place, held);
        }
        if let Some((out, rest)) = cut.out {
            let chill = Stretch { from: out, to: cut_at.from };
            self.take_place(batch.dough_place, chill);
            self.chills.push(LaidChill { batch: at, tray: tray + 1, chill, rest });
        }
        let place = cut.place.filter(|_| chill.length() > 0);
        self.laid.push(LaidTray { batch: at, tray, cut: cut_at, chill, place, oven, bake, cool, finish, dry, pack });
        Some(())
    }

    fn give_held(&mut self, at: usize) {
        let Some(held) = self.reached[at].held.take() else { return };
        match self.day.batches[at].dough_place {
            DayPlace::Fridge => self.fridge.give(held.from, held.to),
            DayPlace::Freezer => self.freezer.give(held.from, held.to),
            DayPlace::Counter => {}
        }
    }

    fn lay_dough(&mut self, at: usize) -> Option<()> {
        self.give_held(at);
        let batch = &self.day.batches[at];
        let Reached { cut_to, outing_from, .. } = self.reached[at];
        let reached = self.reached[at];
        let mut into = cut_to + batch.chill_min;
        let (out, rest) = loop {
            into = self.hands.first(into, batch.form_min)?;
            if into > self.furthest || self.shut(batch, reached, into) {
                return None;
            }
            if let Some(out) = self.comes_out(batch, cut_to, outing_from, into, batch.chill_min) {
                break out;
            }
            into += 1;
        };
        let form = Stretch::new(into, batch.form_min);
        self.hands.take(form.from, form.to);
        let chill = Stretch { from: out, to: into };
        self.take_place(batch.dough_place, chill);
        self.chills.push(LaidChill { batch: at, tray: 0, chill, rest });
        // As a lump in the cold, once it is mixed, until it is formed.
        let lump = Stretch::new(form.to, batch.bulk_min);
        self.doughs.push(LaidDough { batch: at, form, bulk: lump, mix: Stretch::new(lump.to, 0) });
        self.reached[at].formed = true;
        let lead = batch.mixed_by.unwrap_or(at);
        let held = (self.day.batches.iter().enumerate())
            .any(|(i, b)| (i == lead || b.mixed_by == Some(lead)) && !self.reached[i].formed);
        if !held {
            self.lay_mix(lead)?;
        }
        Some(())
    }

    fn lay_mix(&mut self, lead: usize) -> Option<()> {
        let minutes = self.day.batches[lead].mix_min;
        let batches = &self.day.batches;
        let shared = |b: usize| b == lead || batches[b].mixed_by == Some(lead);
        let mut start = self.doughs.iter().filter(|d| shared(d.batch)).map(|d| d.bulk.to).max()?;
        loop {
            let (hands, mixer) = (self.hands.first(start, minutes)?, self.mixers.first(start, minutes)?);
            if hands == mixer {
                start = hands;
                break;
            }
            start = hands.max(mixer);
        }
        let mix = Stretch::new(start, minutes);
        self.hands.take(mix.from, mix.to);
        self.mixers.take(mix.from, mix.to);
        for i in 0..self.doughs.len() {
            let batch = self.doughs[i].batch;
            if !shared(batch) {
                continue;
            }
            if self.doughs[i].bulk.length() > 0 {
                // A lump goes in when it comes from the bowl.
                let lump = Stretch { from: self.doughs[i].bulk.from, to: mix.from };
                let place = self.day.batches[batch].dough_place;
                if !self.place(place).fits(lump.from, lump.to) {
                    return None;
                }
                self.take_place(place, lump);
                self.doughs[i].bulk = lump;
            }
            if batch == lead {
                self.doughs[i].mix = mix;
            }
        }
        Some(())
    }

    /// Start of the day: the first thing that is done, or the heating of an oven.
    fn started(&self) -> Back {
        let heated = |loads: &Vec<Load>| loads.last().map_or(0, |l| l.at.to + self.day.kitchen.preheat_min);
        let ovens = self.ovens.iter().map(heated).max().unwrap_or(0);
        let cuts = self.laid.iter().map(|t| t.cut.to).max().unwrap_or(0);
        let chills = self.chills.iter().map(|c| c.chill.to).max().unwrap_or(0);
        let doughs = self.doughs.iter().map(|d| d.mix.to.max(d.form.to).max(d.bulk.to)).max().unwrap_or(0);
        ovens.max(cuts).max(chills).max(doughs)
    }

    /// What is better at an equal start: fewer changes of temperature, fewer outings, less waiting. Below a minute in all.
    fn worse_by(&self) -> f64 {
        let changes = |loads: &Vec<Load>| loads.windows(2).filter(|w| w[0].heat.total_cmp(&w[1].heat).is_ne()).count();
        let changes: usize = self.ovens.iter().map(changes).sum();
        let loads: usize = self.ovens.iter().map(Vec::len).sum();
        let waits: Back = (self.laid.iter().map(|t| t.chill.length() - self.day.batches[t.batch].tray_chill_min))
            .chain(self.chills.iter().map(|c| c.rest))
            .sum();
        let few = |n: usize| f64::from(u32::try_from(n).unwrap_or(u32::MAX));
        let units = few(self.laid.len() + self.doughs.len()) + 1.0;
        0.4 * few(changes) / units
            + 0.3 * few(self.chills.len()) / (2.0 * units)
            + 0.1 * few(loads) / units
            + 0.15 * (f64::from(waits) / (60.0 * units)).min(1.0)
    }
}

/// A cut as it can be laid.
#[derive(Debug, Clone, Copy)]
struct Cut {
    from: Back,
    place: Option<DayPlace>,
    /// When the dough goes back into the cold after it: when that comes out, and how long it rests.
    out: Option<(Back, Back)>,
}

/// What was found when a cut was sought.
#[derive(Debug, Clone, Copy)]
enum Sought {
    Cut(Cut),
    /// None here; there may be from this minute on.
    Later(Back),
    /// There is none.
    Never,
}

impl Layout for DayLayout<'_> {
    const WAYS: u8 = 8;
    // Tried on made-up days.
    const HEAT: (f64, f64) = (0.012, 0.002);

    fn lay(&mut self, list: &List) -> Option<f64> {
        self.clear();
        for &chain in &list.order {
            let at = usize::from(chain);
            match self.reached[at].left {
                0 => self.lay_dough(at)?,
                _ => self.lay_together(at, list)?,
            }
        }
        self.start = self.started();
        Some(f64::from(self.start) + self.worse_by())
    }
}
