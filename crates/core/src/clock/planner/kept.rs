//! What was laid from a list, kept at some of its entries: another list that begins alike is laid from there on.

use super::laid::{DayLayout, LaidChill, LaidDough, LaidTray, SoFar, WITH_THE_NEXT};
use super::list::List;
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
pub(super) struct Kept {
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
    pub(super) fn keep(&mut self) {
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

impl DayLayout<'_> {
    /// Goes back to the last mark that a list has in common with the one that is kept, or to nothing laid: from which entry on it is to be laid.
    pub(super) fn go_back_to_what_is_kept(&mut self, list: &List) -> usize {
        let mut kept = std::mem::take(&mut self.kept);
        kept.common = kept.alike(list, self) / EACH;
        kept.tried.clone_from(list);
        let marks = list.order.len() / EACH;
        kept.marks.resize_with(marks, Mark::default);
        kept.tried_marks.resize_with(marks, Mark::default);
        match kept.common.checked_sub(1) {
            Some(at) => {
                let mark = &kept.marks[at];
                mark.so_far.bring_back(self);
                self.mixers.copy(&mark.mixers);
                self.laid.clone_from(&mark.laid);
                self.chills.clone_from(&mark.chills);
                self.doughs.clone_from(&mark.doughs);
                self.tried.1.set(mark.tried);
                self.least = mark.least;
            }
            None => self.clear(),
        }
        let from = kept.common * EACH;
        self.kept = kept;
        from
    }

    /// Marks what is laid after so many entries.
    pub(super) fn mark(&mut self, entries: usize) {
        if !entries.is_multiple_of(EACH) {
            return;
        }
        let mut mark = std::mem::take(&mut self.kept.tried_marks[entries / EACH - 1]);
        mark.so_far.keep(self);
        mark.mixers.copy(&self.mixers);
        mark.laid.clone_from(&self.laid);
        mark.chills.clone_from(&self.chills);
        mark.doughs.clone_from(&self.doughs);
        mark.tried = self.tried.1.get();
        mark.least = self.least;
        self.kept.tried_marks[entries / EACH - 1] = mark;
    }
}
