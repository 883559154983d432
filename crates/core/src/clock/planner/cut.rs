//! Where a cut can lie: within the window of its dough, with a place in the cold after it.

use super::day::{DayBatch, DayPlace};
use super::laid::{BACK_INTO_THE_COLD, DayLayout, OTHER_PLACE, cut_sooner};
use super::places::Back;

/// A cut as it can be laid.
#[derive(Debug, Clone, Copy)]
pub(super) struct Cut {
    pub(super) from: Back,
    pub(super) place: Option<DayPlace>,
    /// When the dough goes back into the cold after it: when that comes out, and how long it rests.
    pub(super) out: Option<(Back, Back)>,
}

/// What was found when a cut was sought.
#[derive(Debug, Clone, Copy)]
pub(super) enum Sought {
    Cut(Cut),
    /// None here; there may be from this minute on.
    Later(Back),
    /// There is none.
    Never,
}

impl DayLayout<'_> {
    /// How dough comes out of the cold to be worked from `usable` on (or a little sooner, within its window) when it went in at `into`: when it
    /// comes out, and how long it rests. Where it can not, the first minute it may have gone in for it to be possible; nothing where none is.
    pub(super) fn comes_out(
        &self,
        batch: &DayBatch,
        usable: Back,
        outing_from: Back,
        into: Back,
        least: Back,
    ) -> Result<(Back, Back), Option<Back>> {
        // Dough that need not chill is worked as it is; its window runs from there.
        if least == 0 && (into == usable || into - outing_from <= batch.window_min) {
            return Ok((into, 0));
        }
        let place = self.place(batch.dough_place);
        let rests = std::iter::once((0, 0)).chain(batch.rests.iter().copied());
        let ends = batch.rests.iter().map(|r| r.0 - 1).chain(std::iter::once(Back::MAX));
        let mut best: Option<(Back, Back)> = None;
        let mut sooner: Option<Back> = None;
        for ((from, rest), until) in rests.zip(ends) {
            let mut out = (usable + rest).max(into.saturating_sub(until));
            if out < into && !place.fits(out, into) {
                out = place.last_full_end(out, into).unwrap_or(out);
            }
            let usable_at = out - rest;
            // The sooner it goes in, the sooner it comes out, if at all: what is past the window stays past it.
            if out == Back::MAX || usable_at - outing_from > batch.window_min {
                continue;
            }
            let goes_in = out + from.max(least).max(0);
            if into < goes_in {
                sooner = Some(sooner.map_or(goes_in, |s| s.min(goes_in)));
            } else if best.is_none_or(|(o, r)| usable_at < o - r) {
                best = Some((out, rest));
            }
        }
        best.ok_or(sooner)
    }

    /// The first cut for a tray that goes into the oven at `bake_to`, and where it chills.
    pub(super) fn first_cut(&self, at: usize, tray: usize, bake_to: Back, tray_from: Back, ways: u8) -> Sought {
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
    pub(super) fn both_fit(&self, batch: &DayBatch, chill_from: Back, cut: Cut) -> bool {
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
            if !self.tries_on() {
                return Sought::Never;
            }
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
                Ok(out) => return Sought::Cut(Cut { from: start, place, out: Some(out) }),
                Err(Some(next)) => start = next,
                // A place that is full after the window has ended never lets it in again.
                Err(None) => return Sought::Never,
            }
        }
    }
}
