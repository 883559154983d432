//! The search: lists of chains in the order in which they are laid down, bettered by annealing from a seed. It knows nothing of baking;
//! what is laid down, and how good that is, a [`Layout`] says.

use rand::{RngExt, SeedableRng};
use rand_pcg::Pcg32;

/// The order in which units are laid down: each entry names a chain, whose next unit is meant; and how each unit is laid.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub(super) struct List {
    pub(super) order: Vec<u16>,
    /// Of each unit, counted through all chains.
    pub(super) ways: Vec<u8>,
}

/// What can be laid down from a list.
pub(super) trait Layout {
    /// How many bits of a unit's way mean something.
    const WAYS: u8;
    /// Share of the cost that a change for the worse may have at the beginning and at the end of a round of cooling.
    const HEAT: (f64, f64);
    /// With time for fewer rounds than this, one that takes all of it finds more; what it is cooled from and to.
    const FEW_ROUNDS: (f64, (f64, f64));
    /// How bad the list is, in minutes (fractions break ties); nothing where it can not be laid, or where it shows before its end that it is
    /// worse than `most`.
    fn lay(&mut self, list: &List, most: f64) -> Option<f64>;
    /// The list laid last is the one that others are made from now: what they have in common with it need not be laid again.
    fn keep(&mut self) {}
    /// Tries made so far, of all lists: what a budget is held to beside the number of lists.
    fn tries(&self) -> u64 {
        0
    }
    /// Pairs of entries, the one that was laid first first, whose exchange may shorten the plan that was laid last; none where none are known.
    fn critical(&self) -> Vec<(usize, usize)> {
        vec![]
    }
    /// The list with its entries in the order in which the plan that was laid last has them.
    fn in_order(&self, _list: &mut List) {}
}

/// How long and from where to search: whichever is used up first.
#[derive(Debug, Clone, Copy)]
pub(super) struct Budget {
    /// Lists to lay.
    pub(super) lists: u32,
    /// Tries in all of them.
    pub(super) tries: u64,
    /// All chances follow from it.
    pub(super) seed: u64,
    /// No plan is shorter, min: the search ends soon after it gets there.
    pub(super) bound: f64,
}

/// The best list found and how bad it is.
#[derive(Debug, Clone)]
pub(super) struct Found {
    pub(super) list: List,
    pub(super) cost: f64,
}

/// Lists a round of cooling lays for each entry. Tried likewise.
const ROUND: usize = 160;

impl Budget {
    /// Share that is used.
    fn used(&self, lists: u32, tries: u64) -> f64 {
        let share = |n: f64, of: f64| if of > 0.0 { n / of } else { 1.0 };
        share(f64::from(lists), f64::from(self.lists)).max(share(many(tries), many(self.tries)))
    }
}

#[expect(clippy::cast_precision_loss, reason = "counts of tries, far below 2^53")]
fn many(n: u64) -> f64 {
    n as f64
}

/// Betters the best of some lists.
pub(super) fn better<L: Layout>(layout: &mut L, starts: &[List], budget: Budget) -> Option<Found> {
    let mut chance = Pcg32::seed_from_u64(budget.seed);
    let mut best: Option<Found> = None;
    for list in starts {
        let most = best.as_ref().map_or(f64::INFINITY, |b| b.cost);
        if let Some(cost) = layout.lay(list, most)
            && best.as_ref().is_none_or(|b| cost < b.cost)
        {
            best = Some(Found { list: list.clone(), cost });
        }
    }
    let length = starts.first().map_or(0, |l| l.order.len());
    if length < 2 && L::WAYS == 0 {
        return best;
    }
    let mut laid: u32 = u32::try_from(starts.len()).unwrap_or(u32::MAX);
    // As many lists as the budget is likely to have room for.
    let each = many(layout.tries()) / f64::from(laid.max(1));
    let expected = f64::from(budget.lists).min(many(budget.tries) / each.max(f64::MIN_POSITIVE));
    // Long lists are cooled once, short ones again and again.
    let rounds = expected / f64::from(u32::try_from(length * ROUND).unwrap_or(u32::MAX).max(400));
    let (round, (warm, cold)) = if rounds < L::FEW_ROUNDS.0 { (1.0, L::FEW_ROUNDS.1) } else { (1.0 / rounds, L::HEAT) };
    let mut end = 1.0;
    let mut met = false;
    let mut first = true;
    while budget.used(laid, layout.tries()) < end {
        let from = match &best {
            Some(found) => found.clone(),
            // Nothing holds yet: any list is as good.
            None => Found { list: starts.first()?.clone(), cost: f64::INFINITY },
        };
        // Every round but the first begins from a shaken list, so that it does not stay in one valley.
        let mut now = from.clone();
        if !first {
            for _ in 0..(1 + length / 12) {
                change(&mut now.list, L::WAYS, &mut chance);
            }
            match layout.lay(&now.list, f64::INFINITY) {
                Some(cost) => {
                    now.cost = cost;
                    layout.keep();
                }
                None => now = from,
            }
            laid += 1;
        }
        first = false;
        let mut hints = vec![];
        let scale = if now.cost.is_finite() { now.cost } else { 1000.0 };
        let begun = budget.used(laid, layout.tries());
        loop {
            let used = budget.used(laid, layout.tries());
            // Where no plan can be shorter, a little more is spent on what is nicer at equal length.
            if !met && best.as_ref().is_some_and(|b| b.cost.floor() <= budget.bound) {
                met = true;
                end = (used + 0.125).min(1.0);
            }
            let share = (used - begun) / round;
            if share >= 1.0 || used >= end {
                break;
            }
            let heat = scale * warm * (cold / warm).powf(share);
            let mut next = now.list.clone();
            if hints.is_empty() || chance.random_range(0..10) == 0 {
                change(&mut next, L::WAYS, &mut chance);
            } else {
                let (earlier, later) = hints[chance.random_range(0..hints.len())];
                before(&mut next.order, earlier, later);
            }
            laid += 1;
            // So much worse it may be.
            let most = now.cost - heat * chance.random::<f64>().ln();
            let Some(cost) = layout.lay(&next, most) else { continue };
            if cost <= most {
                layout.in_order(&mut next);
                layout.keep();
                hints = layout.critical();
                now = Found { list: next, cost };
                if best.as_ref().is_none_or(|b| now.cost < b.cost) {
                    best = Some(now.clone());
                }
            }
        }
    }
    best
}

/// Brings the unit of one entry before that of an earlier one, and what its chain has between them with it.
fn before(order: &mut [u16], earlier: usize, later: usize) {
    let chain = order[later];
    let mut put = earlier;
    for at in earlier..=later {
        if order[at] == chain {
            order[put..=at].rotate_right(1);
            put += 1;
        }
    }
}

/// Changes a list a little; what each chain's units follow each other by stays.
fn change(list: &mut List, ways: u8, chance: &mut Pcg32) {
    let length = list.order.len();
    if length == 0 {
        return;
    }
    if ways > 0 && chance.random_range(0..6) == 0 {
        let unit = chance.random_range(0..list.ways.len());
        list.ways[unit] ^= 1 << chance.random_range(0..ways);
        return;
    }
    if length < 2 {
        return;
    }
    let from = chance.random_range(0..length);
    match chance.random_range(0..6) {
        0 | 1 => {
            // One entry, not far.
            let far = length / 5 + 2;
            let to = (from + chance.random_range(0..=2 * far)).saturating_sub(far).min(length - 1);
            let chain = list.order.remove(from);
            list.order.insert(to, chain);
        }
        2 => {
            let to = chance.random_range(0..length);
            let chain = list.order.remove(from);
            list.order.insert(to, chain);
        }
        3 => {
            // All of a chain from one of its entries on, in a row.
            let chain = list.order[from];
            let count = list.order[from..].iter().filter(|c| **c == chain).count();
            let mut at = 0;
            list.order.retain(|c| {
                at += 1;
                at <= from || *c != chain
            });
            let to = chance.random_range(0..=list.order.len());
            list.order.splice(to..to, std::iter::repeat_n(chain, count));
        }
        4 => {
            // The last of a chain.
            let chain = list.order[from];
            let last = list.order.iter().rposition(|c| *c == chain).unwrap_or(from);
            list.order.remove(last);
            let before = list.order.iter().rposition(|c| *c == chain).map_or(0, |at| at + 1);
            list.order.insert(chance.random_range(before..=list.order.len()), chain);
        }
        _ => {
            // Neighbours of unlike chains.
            let at = from.min(length - 2);
            let other = (at + 1..length).find(|&i| list.order[i] != list.order[at]);
            if let Some(other) = other {
                list.order.swap(at, other);
            }
        }
    }
}

#[cfg(test)]
mod tests;
