//! The lots of one job together: one pair of hands, the same ovens and trays, and which pieces may share a tray.

use super::clock::{clock_change, relay_of};
use super::{Job, Kitchen, Plan, Reason};
use crate::clock::{Relay, RelayLot, Zone, plan_relay};
use crate::shape::ONE_CLASS;
use crate::units::Span;

/// A lot with its own plan.
#[derive(Debug, Clone, Copy)]
pub struct LotPlan<'a> {
    /// The lot.
    pub job: &'a Job,
    /// Its plan by itself.
    pub plan: &'a Plan,
    /// The lot, from 0, whose mixes hold its dough, when that is another.
    pub mixed_by: Option<usize>,
}

/// Lots whose pieces may lie on one tray: of one dough, in one heat, done within 12 % of each other.
#[derive(Debug, Clone, PartialEq)]
pub struct SizeClass {
    /// The lots, from 0, the quickest first.
    pub lots: Vec<usize>,
    /// Middle of the time of the quickest and of the slowest.
    pub bake: (Span, Span),
    /// Lots whose last trays are so little filled that they go on one.
    pub last_trays: Vec<usize>,
}

/// All lots of a job.
#[derive(Debug, Clone, PartialEq)]
pub struct Together {
    /// The day.
    pub relay: Relay,
    /// Which pieces may share a tray.
    pub classes: Vec<SizeClass>,
    /// Where its clocks are.
    pub zone: Zone,
    /// Why.
    pub reasons: Vec<Reason>,
}

/// Lays out the day of several lots, baked in the order given, and sorts them into size classes.
#[must_use]
pub fn plan_together(kitchen: &Kitchen, lots: &[LotPlan]) -> Together {
    let relay_lots = lots.iter().map(|l| RelayLot {
        mixed_by: l.mixed_by,
        mixes: if l.mixed_by.is_some() { 0 } else { l.plan.clock.lot.mixes },
        ..l.plan.clock.lot.clone()
    });
    let relay = plan_relay(&relay_of(kitchen, relay_lots.collect()));
    let classes = size_classes(lots);
    let mut reasons = vec![Reason::AsLateAsTheNextAllows];
    let heats = lots.windows(2).filter(|w| (w[0].plan.oven.oven.c() - w[1].plan.oven.oven.c()).abs() > 0.5).count();
    if heats > 0 {
        reasons.push(Reason::HeatsSettle);
    }
    let name = |i: &usize| lots[*i].job.input().name.clone();
    for class in &classes {
        if class.lots.len() > 1 {
            let lots = class.lots.iter().map(name).collect();
            reasons.push(Reason::MayShareATray { lots, bake: class.bake, within: ONE_CLASS });
        }
        if class.last_trays.len() > 1 {
            reasons.push(Reason::LastTraysTogether { lots: class.last_trays.iter().map(name).collect() });
        }
    }
    reasons.extend(lots.first().and_then(|l| clock_change(l.job, kitchen.zone(), &relay)));
    Together { relay, classes, zone: kitchen.zone(), reasons }
}

fn middle(lot: &LotPlan) -> f64 {
    let (least, most) = lot.plan.oven.expected.bake;
    f64::midpoint(least.min(), most.min())
}

fn size_classes(lots: &[LotPlan]) -> Vec<SizeClass> {
    let mut order: Vec<usize> = (0..lots.len()).collect();
    order.sort_by(|a, b| middle(&lots[*a]).total_cmp(&middle(&lots[*b])));
    let dough = |i: usize| lots[i].mixed_by.unwrap_or(i);
    let alike = |a: usize, b: usize| {
        dough(a) == dough(b)
            && (lots[a].plan.oven.oven.c() - lots[b].plan.oven.oven.c()).abs() < 0.5
            && middle(&lots[b]) <= middle(&lots[a]) * (1.0 + ONE_CLASS.value())
    };
    let mut classes: Vec<Vec<usize>> = Vec::new();
    for lot in order {
        // The first of a class is its quickest.
        match classes.iter_mut().find(|c| alike(c[0], lot)) {
            Some(class) => class.push(lot),
            None => classes.push(vec![lot]),
        }
    }
    classes.sort_by_key(|c| c.iter().copied().min());
    let span = |i: &usize| Span::new_min(middle(&lots[*i]));
    classes
        .into_iter()
        .map(|c| SizeClass { bake: (span(&c[0]), span(&c[c.len() - 1])), last_trays: last_trays(lots, &c), lots: c })
        .collect()
}

/// The lots of a class whose last trays go on one, as many as fill it.
fn last_trays(lots: &[LotPlan], class: &[usize]) -> Vec<usize> {
    let filled = |i: usize| {
        let trays = &lots[i].plan.shape.trays;
        f64::from(trays.fill.last().copied().unwrap_or(0))
            / f64::from(u32::try_from(trays.layout.pieces.len()).unwrap_or(1).max(1))
    };
    let mut by_fill: Vec<(usize, f64)> = class.iter().map(|&i| (i, filled(i))).filter(|(_, f)| *f < 1.0).collect();
    by_fill.sort_by(|a, b| a.1.total_cmp(&b.1));
    let mut sum = 0.0;
    let together: Vec<usize> = by_fill
        .into_iter()
        .take_while(|(_, f)| {
            sum += f;
            sum <= 1.0
        })
        .map(|(i, _)| i)
        .collect();
    if together.len() > 1 { together } else { vec![] }
}
