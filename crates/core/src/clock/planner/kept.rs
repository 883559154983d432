//! What was laid from a list, kept at some of its entries: another list that begins alike is laid from there on.

use super::day::Day;
use super::laid::{DayLayout, LaidChill, LaidDough, LaidTray, SoFar, WITH_THE_NEXT};
use super::list::{Layout, List};
use super::places::{Back, Places};

/// It is kept after each so many entries. Tried on made-up days.
const EACH: usize = 3;

/// All that was laid up to an entry.
#[derive(Default)]
struct Mark {
    so_far: SoFar,
    mixers: Places,
    laid: Vec<LaidTray>,
    chills: Vec<LaidChill>,
    doughs: Vec<LaidDough>,
    tried: u32,
    least: Back,
}

/// The marks of the list that others are made from, and of the one that is tried.
#[derive(Default)]
struct Kept {
    list: List,
    marks: Vec<Mark>,
    tried: List,
    tried_marks: Vec<Mark>,
    /// So many marks the one that is tried has in common with it.
    common: usize,
    seen: Vec<usize>,
}

impl Kept {
    /// The list tried last becomes the one that others are made from.
    fn keep(&mut self) {
        let all = self.tried.order.len() / EACH;
        for at in self.common..all {
            std::mem::swap(&mut self.marks[at], &mut self.tried_marks[at]);
        }
        std::mem::swap(&mut self.list, &mut self.tried);
    }

    /// How many entries of a list are laid as those of the one that is kept.
    fn alike(&mut self, list: &List, layout: &DayLayout) -> usize {
        self.seen.clear();
        self.seen.resize(layout.day.batches.len(), 0);
        let (old, new) = (&self.list, list);
        for (i, (a, b)) in old.order.iter().zip(&new.order).enumerate() {
            let at = usize::from(*b);
            let trays = layout.day.batches[at].trays();
            let seen = &mut self.seen[at];
            if a != b {
                return i;
            }
            if *seen < trays {
                let unit = layout.first_unit[at] + trays - 1 - *seen;
                let looks_on = new.ways[unit] & WITH_THE_NEXT != 0 && *seen + 1 < trays;
                if old.ways[unit] != new.ways[unit] || (looks_on && old.ways[unit - 1] != new.ways[unit - 1]) {
                    return i;
                }
            }
            *seen += 1;
        }
        old.order.len().min(new.order.len())
    }
}

/// A day that is laid again and again.
pub(super) struct DaySearch<'a> {
    pub(super) layout: DayLayout<'a>,
    kept: Kept,
}

impl<'a> DaySearch<'a> {
    pub(super) fn new(day: &'a Day) -> Self {
        Self { layout: DayLayout::new(day), kept: Kept::default() }
    }

    /// Goes back to the last mark that a list has in common with the one that is kept, or to nothing laid: from which entry on it is to be laid.
    fn go_back_to_what_is_kept(&mut self, list: &List) -> usize {
        let (layout, kept) = (&mut self.layout, &mut self.kept);
        kept.common = kept.alike(list, layout) / EACH;
        kept.tried.clone_from(list);
        let marks = list.order.len() / EACH;
        kept.marks.resize_with(marks, Mark::default);
        kept.tried_marks.resize_with(marks, Mark::default);
        match kept.common.checked_sub(1) {
            Some(at) => {
                let mark = &kept.marks[at];
                mark.so_far.bring_back(layout);
                layout.mixers.copy(&mark.mixers);
                layout.laid.clone_from(&mark.laid);
                layout.chills.clone_from(&mark.chills);
                layout.doughs.clone_from(&mark.doughs);
                layout.tried.1.set(mark.tried);
                layout.least = mark.least;
            }
            None => layout.clear(),
        }
        kept.common * EACH
    }

    /// Marks what is laid after so many entries.
    fn mark(&mut self, entries: usize) {
        if !entries.is_multiple_of(EACH) {
            return;
        }
        let (layout, mark) = (&self.layout, &mut self.kept.tried_marks[entries / EACH - 1]);
        mark.so_far.keep(layout);
        mark.mixers.copy(&layout.mixers);
        mark.laid.clone_from(&layout.laid);
        mark.chills.clone_from(&layout.chills);
        mark.doughs.clone_from(&layout.doughs);
        mark.tried = layout.tried.1.get();
        mark.least = layout.least;
    }
}

impl Layout for DaySearch<'_> {
    const WAYS: u8 = 8;
    // Tried on made-up days.
    const HEAT: (f64, f64) = (0.012, 0.002);
    const FEW_ROUNDS: (f64, (f64, f64)) = (40.0, (0.006, 0.000_3));

    fn tries(&self) -> u64 {
        self.layout.tried.0.get()
    }

    fn lay(&mut self, list: &List, most: f64) -> Option<f64> {
        let from = self.go_back_to_what_is_kept(list);
        for (i, &chain) in list.order.iter().enumerate().skip(from) {
            let at = usize::from(chain);
            let layout = &mut self.layout;
            layout.lay_next(at, list)?;
            layout.least = layout.least.max(layout.still(at));
            if f64::from(layout.least) > most {
                return None;
            }
            self.mark(i + 1);
        }
        self.layout.start = self.layout.started();
        Some(f64::from(self.layout.start) + self.layout.worse_by())
    }

    fn keep(&mut self) {
        self.kept.keep();
    }
}
