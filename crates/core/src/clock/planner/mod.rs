//! The day planned over hands, mixers, cold places, trays, ovens and cooling places: laid backwards from the wanted times, each step as late as
//! it can be, in an order that a search betters.

mod asked;
mod bound;
mod check;
mod cut;
mod day;
mod forbid;
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
    pub const AT_ONCE: Self = Self { seconds: 0.05, seed: 1 };
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

/// How many units are laid in a second, of a short list; the longer it is, the more each of them takes. Measured with the example `day`.
const UNITS_A_SECOND: f64 = 900_000.0;
const TWICE_AS_LONG_UNITS: f64 = 30.0;

/// Most tries for each unit that is to be laid, on the mean: several times what days of common practice take.
const TRIES_A_UNIT: u64 = 100;

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
    let units = u32::try_from(starts[0].order.len().max(1)).unwrap_or(u32::MAX);
    let lists = lists_within(budget.seconds, units);
    let search = |seed: u64| {
        let mut layout = DayLayout::new(day);
        better(
            &mut layout,
            &starts,
            Budget {
                lists,
                tries: TRIES_A_UNIT * u64::from(lists) * u64::from(units),
                seed,
                bound: f64::from(bound_min),
            },
        )
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
    let mut layout = DayLayout::new(day);
    list::Layout::lay(&mut layout, &best.list)?;
    Some(PlannedDay { tasks: tasks::of(&layout), makespan_min: layout.start, bound_min })
}

/// How many lists are laid in so long: laying one takes the more the more units it has.
#[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "bounded before")]
fn lists_within(seconds: f64, units: u32) -> u32 {
    let units = f64::from(units);
    (seconds * UNITS_A_SECOND / units / (1.0 + units / TWICE_AS_LONG_UNITS)).clamp(20.0, 50_000_000.0) as u32
}

#[cfg(test)]
mod tests;
