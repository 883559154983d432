//! What of a day is laid, and what is taken by it.

use super::day::{Day, DayBatch, DayPlace};
use super::places::{Back, Places};
use std::cell::Cell;

/// A stretch of minutes counted back: it ends in time where it begins here.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub(super) struct Stretch {
    pub(super) from: Back,
    pub(super) to: Back,
}

impl Stretch {
    pub(super) fn new(from: Back, length: Back) -> Self {
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

/// Trays in an oven together.
#[derive(Debug, Clone, Copy)]
pub(super) struct Load {
    pub(super) at: Stretch,
    pub(super) heat: f64,
    pub(super) trays: u32,
}

/// What of a batch is laid so far.
#[derive(Debug, Clone, Copy, Default)]
pub(super) struct Reached {
    /// Trays still to lay.
    pub(super) left: usize,
    /// Bake of the tray laid last.
    pub(super) bake: Back,
    /// Start in time of the cut laid last.
    pub(super) cut_to: Back,
    /// End in time of the last cut of this outing of the dough.
    pub(super) outing_from: Back,
    /// A place that its dough will take before the cut laid last, held for it until it is known for how long.
    pub(super) held: Option<Stretch>,
    /// Its dough is formed.
    pub(super) formed: bool,
}

/// Ways of a unit, as bits: chills in the other place first; its dough goes back into the cold after it; goes into a load of its own; goes in when
/// the tray that is cut before it can, too.
pub(super) const OTHER_PLACE: u8 = 1;
pub(super) const BACK_INTO_THE_COLD: u8 = 2;
pub(super) const OWN_LOAD: u8 = 4;
pub(super) const WITH_THE_NEXT: u8 = 8;

/// How many minutes sooner than it could a unit bakes (or is formed), and is cut: what is as late as can be is not always best where stays in
/// the cold and windows have an end.
const SOONER_MIN: [Back; 4] = [0, 2, 5, 11];

pub(super) fn bakes_sooner(ways: u8) -> Back {
    SOONER_MIN[usize::from(ways >> 4 & 3)]
}

pub(super) fn cut_sooner(ways: u8) -> Back {
    if ways & 64 == 0 { 0 } else { SOONER_MIN[2] }
}

/// Takes the oven that is free first, whatever its heat.
pub(super) const FIRST_OVEN: u8 = 128;

/// So many minutes it waits for the other, at most the last. Our own choice.
pub(super) const WAITS: [Back; 6] = [1, 3, 5, 8, 13, 21];
pub(super) const MOST_WAIT: Back = 21;

/// A day, and what of it is laid.
pub(super) struct DayLayout<'a> {
    pub(super) day: &'a Day,
    pub(super) hands: Places,
    pub(super) mixers: Places,
    pub(super) fridge: Places,
    pub(super) freezer: Places,
    pub(super) counter: Places,
    pub(super) trays: Places,
    pub(super) cooling: Places,
    pub(super) ovens: Vec<Vec<Load>>,
    pub(super) reached: Vec<Reached>,
    pub(super) first_unit: Vec<usize>,
    /// No plan goes back further: all one after the other, and a day.
    pub(super) furthest: Back,
    pub(super) laid: Vec<LaidTray>,
    pub(super) chills: Vec<LaidChill>,
    pub(super) doughs: Vec<LaidDough>,
    /// Start of the day, counted back.
    pub(super) start: Back,
    /// Room to come back to what was laid.
    pub(super) aside: (SoFar, SoFar),
    /// Places tried, of all lists and of this one.
    pub(super) tried: (Cell<u64>, Cell<u32>),
    /// The day does not start later than this, counted back, however the rest is laid.
    pub(super) least: Back,
}

const UNLIMITED: u32 = 1_000_000;

/// One list is given up after so many places tried. Our own choice: days of common practice take some hundreds.
const MOST_TRIES: u32 = 200_000;

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
            tried: Default::default(),
            least: 0,
        }
    }

    /// Counts a place that is tried; false when this list is given up.
    pub(super) fn tries_on(&self) -> bool {
        let (all, this) = &self.tried;
        all.set(all.get() + 1);
        this.set(this.get() + 1);
        this.get() < MOST_TRIES
    }

    pub(super) fn clear(&mut self) {
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
        self.tried.1.set(0);
        self.least = 0;
        self.laid.clear();
        self.chills.clear();
        self.doughs.clear();
        let left = |b: &DayBatch| Reached { left: b.trays(), ..Reached::default() };
        self.reached = self.day.batches.iter().map(left).collect();
    }

    pub(super) fn place(&self, place: DayPlace) -> &Places {
        match place {
            DayPlace::Fridge => &self.fridge,
            DayPlace::Freezer => &self.freezer,
            DayPlace::Counter => &self.counter,
        }
    }

    pub(super) fn take_place(&mut self, place: DayPlace, at: Stretch) {
        let place = match place {
            DayPlace::Fridge => &mut self.fridge,
            DayPlace::Freezer => &mut self.freezer,
            DayPlace::Counter => return,
        };
        place.take(at.from, at.to);
    }

    /// The first minute from which a tray can bake in an oven, and the load it joins.
    pub(super) fn first_in_oven(&self, oven: usize, from: Back, batch: &DayBatch, own: bool) -> (Back, Option<usize>) {
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
    pub(super) fn changes_heat(&self, oven: usize, at: Back, heat: f64) -> bool {
        let loads = &self.ovens[oven];
        let next = loads.partition_point(|l| l.at.from < at);
        let other = |l: &Load| l.heat.total_cmp(&heat).is_ne();
        next.checked_sub(1).is_some_and(|i| other(&loads[i])) || loads.get(next).is_some_and(other)
    }

    pub(super) fn give_held(&mut self, at: usize) {
        let Some(held) = self.reached[at].held.take() else { return };
        match self.day.batches[at].dough_place {
            DayPlace::Fridge => self.fridge.give(held.from, held.to),
            DayPlace::Freezer => self.freezer.give(held.from, held.to),
            DayPlace::Counter => {}
        }
    }

    /// Start of the day: the first thing that is done, or the heating of an oven.
    pub(super) fn started(&self) -> Back {
        let heated = |loads: &Vec<Load>| loads.last().map_or(0, |l| l.at.to + self.day.kitchen.preheat_min);
        let ovens = self.ovens.iter().map(heated).max().unwrap_or(0);
        let cuts = self.laid.iter().map(|t| t.cut.to).max().unwrap_or(0);
        let chills = self.chills.iter().map(|c| c.chill.to).max().unwrap_or(0);
        let doughs = self.doughs.iter().map(|d| d.mix.to.max(d.form.to).max(d.bulk.to)).max().unwrap_or(0);
        ovens.max(cuts).max(chills).max(doughs)
    }

    /// Where the day starts at the latest for a batch of which something is laid: what is still to be done of it comes before that.
    pub(super) fn still(&self, at: usize) -> Back {
        let (batch, reached) = (&self.day.batches[at], self.reached[at]);
        if reached.formed {
            return self.doughs.last().map_or(0, |d| d.mix.to.max(d.bulk.to));
        }
        let mix = if batch.mixed_by.is_none() { batch.mix_min } else { 0 };
        let cuts: Back = (0..reached.left).map(|tray| DayBatch::of(&batch.cut_min, tray)).sum();
        reached.cut_to + cuts + batch.chill_min + batch.form_min + batch.bulk_min + mix
    }

    /// What is better at an equal start: fewer changes of temperature, fewer outings, less waiting. Below a minute in all.
    pub(super) fn worse_by(&self) -> f64 {
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

/// All that laying a tray changes, to come back to.
#[derive(Default)]
pub(super) struct SoFar {
    places: [Places; 5],
    ovens: Vec<Vec<Load>>,
    reached: Vec<Reached>,
    laid: usize,
    chills: usize,
}

impl SoFar {
    pub(super) fn keep(&mut self, layout: &DayLayout) {
        let all = [&layout.hands, &layout.fridge, &layout.freezer, &layout.trays, &layout.cooling];
        self.places.iter_mut().zip(all).for_each(|(mine, theirs)| mine.copy(theirs));
        self.ovens.clone_from(&layout.ovens);
        self.reached.clone_from(&layout.reached);
        (self.laid, self.chills) = (layout.laid.len(), layout.chills.len());
    }

    pub(super) fn bring_back(&self, layout: &mut DayLayout) {
        let all = [&mut layout.hands, &mut layout.fridge, &mut layout.freezer, &mut layout.trays, &mut layout.cooling];
        all.into_iter().zip(&self.places).for_each(|(theirs, mine)| theirs.copy(mine));
        layout.ovens.clone_from(&self.ovens);
        layout.reached.clone_from(&self.reached);
        layout.laid.truncate(self.laid);
        layout.chills.truncate(self.chills);
    }
}
