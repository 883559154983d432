//! Lays a day down from a list, going back from its end: each unit as late as what is laid already leaves it.

use super::cut::Sought;
use super::day::DayBatch;
use super::laid::{
    DayLayout, FIRST_OVEN, LaidChill, LaidDough, LaidTray, Load, MOST_WAIT, OWN_LOAD, Reached, SoFar, Stretch, WAITS,
    WITH_THE_NEXT, bakes_sooner,
};
use super::list::List;
use super::places::Back;

impl DayLayout<'_> {
    /// Lays the next unit of a batch: the last of its trays that is not laid yet, and after them its dough.
    pub(super) fn lay_next(&mut self, at: usize, list: &List) -> Option<()> {
        match self.reached[at].left {
            0 => self.lay_dough(at),
            _ => self.lay_together(at, list),
        }
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
            if start > self.furthest || !self.tries_on() {
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

    fn lay_dough(&mut self, at: usize) -> Option<()> {
        self.give_held(at);
        let batch = &self.day.batches[at];
        let Reached { cut_to, outing_from, .. } = self.reached[at];
        let mut into = cut_to + batch.chill_min;
        let (out, rest) = loop {
            into = self.hands.first(into, batch.form_min)?;
            if into > self.furthest || !self.tries_on() {
                return None;
            }
            match self.comes_out(batch, cut_to, outing_from, into, batch.chill_min) {
                Ok(out) => break out,
                Err(next) => into = next?,
            }
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
}
