//! The day planned over hands, mixers, cold places, trays, ovens and cooling places: laid backwards from the wanted times, each step as late as
//! it can be, in an order that a search betters.

mod asked;
mod bound;
mod check;
mod cut;
mod day;
mod forbid;
mod kept;
mod laid;
mod lay;
mod list;
mod places;
mod starts;
mod tasks;

pub use asked::{BatchId, BatchInput, DayInput};
pub use check::{Broken, broken_rules};
pub use day::{Day, DayBatch, DayKitchen, DayPlace};
pub use forbid::{DayRule, Forbidden};
pub use tasks::{DayHeld, DayTask, Wanted};

use kept::DaySearch;
use laid::DayLayout;
use list::{Budget, Found, better};

/// How much is spent on a plan.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PlanBudget {
    /// About so long on two quiet cores of our own; the same budget always finds the same plan.
    pub seconds: f64,
    /// All chances follow from it.
    pub seed: u64,
}

impl PlanBudget {
    /// What the plan of a screen is given: common practice of answering at once.
    pub const AT_ONCE: Self = Self { seconds: 0.03, seed: 1 };
}

/// A day as it was planned.
#[derive(Debug, Clone, PartialEq)]
pub struct PlannedDay {
    /// All tasks by start, minutes from the start of the day.
    pub tasks: Vec<DayTask>,
    /// From the start of the day to the last wanted time, min.
    pub makespan_min: i32,
    /// No plan is shorter, min.
    pub bound_min: i32,
}

impl PlannedDay {
    /// Whether no plan can be shorter.
    #[must_use]
    pub fn proved(&self) -> bool {
        self.makespan_min <= self.bound_min
    }
}

/// So many places are tried in a second by one search, while two go on side by side. Measured with the example `day`.
const TRIES_A_SECOND: f64 = 2_500_000.0;

/// Few tries are not worth beginning with.
const LEAST_TRIES: f64 = 1_000.0;

/// Plans a day.
///
/// Fails with the rules that forbid it.
pub fn plan_day(day: &Day, budget: PlanBudget) -> Result<PlannedDay, Vec<Forbidden>> {
    let forbidden = forbid::by_itself(day);
    if !forbidden.is_empty() {
        return Err(forbidden);
    }
    let bound_min = bound::bound(day);
    laid(day, budget, bound_min).ok_or_else(|| forbid::by_search(day, budget))
}

/// So many searches go on side by side, each from a seed of its own: one may end in a valley that another does not. Two cores are common.
const SEARCHES: u64 = 2;

fn laid(day: &Day, budget: PlanBudget, bound_min: i32) -> Option<PlannedDay> {
    let starts = DayLayout::new(day).starts();
    let tries = tries_within(budget.seconds);
    let search = |seed: u64| {
        let mut layout = DaySearch::new(day);
        better(&mut layout, &starts, Budget { lists: u32::MAX, tries, seed, bound: f64::from(bound_min) })
    };
    let seeds = (0..SEARCHES).map(|i| budget.seed.wrapping_mul(SEARCHES).wrapping_add(i));
    let found: Vec<Option<Found>> = std::thread::scope(|scope| {
        let running: Vec<_> = seeds
            .map(|seed| {
                scope.spawn({
                    let search = &search;
                    move || search(seed)
                })
            })
            .collect();
        running.into_iter().map(|r| r.join().unwrap_or(None)).collect()
    });
    // The first of equals, so that it is the same each time.
    let best = found.into_iter().flatten().min_by(|a, b| a.cost.total_cmp(&b.cost))?;
    let mut search = DaySearch::new(day);
    list::Layout::lay(&mut search, &best.list, f64::INFINITY)?;
    let layout = search.layout;
    Some(PlannedDay { tasks: tasks::of(&layout), makespan_min: layout.start, bound_min })
}

#[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "bounded before")]
fn tries_within(seconds: f64) -> u64 {
    (seconds * TRIES_A_SECOND).clamp(LEAST_TRIES, 1e12) as u64
}

#[cfg(test)]
mod tests;
