//! A resource of so many places over the minutes.

/// Minutes counted back from the end of the day: what is later in the day has a smaller one.
pub(super) type Back = i32;

/// How many places are taken from which minute on.
#[derive(Debug, Clone, Default)]
pub(super) struct Places {
    places: u32,
    /// From this minute on so many are taken, in order; none before the first.
    steps: Vec<(Back, u32)>,
}

impl Places {
    pub(super) fn new(places: u32) -> Self {
        Self { places, steps: Vec::with_capacity(64) }
    }

    /// Becomes as another one is, in the room it has.
    pub(super) fn copy(&mut self, other: &Self) {
        self.places = other.places;
        self.steps.clone_from(&other.steps);
    }

    pub(super) fn clear(&mut self) {
        self.steps.clear();
    }

    fn taken_from(&self, at: usize) -> u32 {
        at.checked_sub(1).map_or(0, |i| self.steps[i].1)
    }

    /// The first stretch from `from` on and before `to` in which no place is left.
    fn full_within(&self, from: Back, to: Back) -> Option<(Back, Back)> {
        if self.places == 0 {
            return (to > from).then_some((from, Back::MAX));
        }
        let mut at = self.steps.partition_point(|s| s.0 <= from);
        let mut start = from;
        loop {
            if start >= to {
                return None;
            }
            if self.taken_from(at) >= self.places {
                let mut end = at;
                while end < self.steps.len() && self.steps[end].1 >= self.places {
                    end += 1;
                }
                return Some((start, self.steps.get(end).map_or(Back::MAX, |s| s.0)));
            }
            start = self.steps.get(at)?.0;
            at += 1;
        }
    }

    /// Whether a place is left all the while.
    pub(super) fn fits(&self, from: Back, to: Back) -> bool {
        from >= to || self.full_within(from, to).is_none()
    }

    /// The first minute from `from` on at which a place is left for so long; nothing where there never is.
    pub(super) fn first(&self, from: Back, length: Back) -> Option<Back> {
        let mut start = from;
        if length <= 0 {
            return Some(start);
        }
        while let Some((_, end)) = self.full_within(start, start.saturating_add(length)) {
            if end == Back::MAX {
                return None;
            }
            start = end;
        }
        Some(start)
    }

    /// How far from `from` on a place is left without a break.
    pub(super) fn free_until(&self, from: Back) -> Back {
        self.full_within(from, Back::MAX).map_or(Back::MAX, |(start, _)| start)
    }

    /// The end of the last full stretch before `to`, from `from` on.
    pub(super) fn last_full_end(&self, from: Back, to: Back) -> Option<Back> {
        let mut found = None;
        let mut start = from;
        while let Some((_, end)) = self.full_within(start, to) {
            found = Some(end);
            if end >= to {
                break;
            }
            start = end;
        }
        found
    }

    fn cut_at(&mut self, at: Back) -> usize {
        let i = self.steps.partition_point(|s| s.0 < at);
        if self.steps.get(i).is_none_or(|s| s.0 != at) {
            let taken = self.taken_from(i);
            self.steps.insert(i, (at, taken));
        }
        i
    }

    fn change(&mut self, from: Back, to: Back, by: impl Fn(u32) -> u32) {
        if from >= to {
            return;
        }
        let start = self.cut_at(from);
        let end = self.cut_at(to);
        self.steps[start..end].iter_mut().for_each(|s| s.1 = by(s.1));
        // What changes nothing any more is no step.
        for i in [end, start] {
            if self.steps[i].1 == self.taken_from(i) {
                self.steps.remove(i);
            }
        }
    }

    /// Takes a place.
    pub(super) fn take(&mut self, from: Back, to: Back) {
        self.change(from, to, |taken| taken + 1);
    }

    /// Gives a place back.
    pub(super) fn give(&mut self, from: Back, to: Back) {
        self.change(from, to, |taken| taken.saturating_sub(1));
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_place_is_found_between_what_is_taken() {
        let mut hands = Places::new(1);
        hands.take(10, 20);
        hands.take(25, 40);
        assert_eq!(hands.first(0, 10), Some(0));
        assert_eq!(hands.first(0, 11), Some(40));
        assert_eq!(hands.first(12, 5), Some(20));
        assert_eq!(hands.free_until(20), 25);
        assert_eq!(hands.free_until(30), 30);
        assert_eq!(hands.last_full_end(0, 30), Some(40));
        assert_eq!(hands.last_full_end(0, 22), Some(20));
        assert!(hands.fits(20, 25) && !hands.fits(19, 21) && hands.fits(15, 15));
    }

    #[test]
    fn two_places_hold_two_and_none_holds_nothing() {
        let mut fridge = Places::new(2);
        fridge.take(0, 30);
        assert!(fridge.fits(0, 30));
        fridge.take(10, 20);
        assert!(!fridge.fits(5, 11));
        assert_eq!(fridge.first(5, 10), Some(20));
        fridge.give(10, 20);
        assert_eq!(fridge.first(5, 10), Some(5));
        assert_eq!(Places::new(0).first(5, 1), None);
        assert_eq!(Places::new(0).first(5, 0), Some(5));
    }
}
