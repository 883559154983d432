//! The lots of one job together: one pair of hands, the same ovens and trays, and which pieces may share a tray.

use crate::clock::{PlanBudget, Relay, RelayInput, RelayLot, Zone, plan_relay};
use crate::job::answers::Plan;
use crate::job::day::clock_plan::{clock_change, lacks, relay_of};
use crate::job::reasons::reason::Reason;
use crate::job::settings::job::Job;
use crate::job::settings::kitchen::Kitchen;
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

/// A date laid out.
#[derive(Debug, Clone)]
pub struct PlannedDate {
    /// What it was laid out from.
    asked: RelayInput,
    /// The steps of all lots, counted from the last wanted time.
    pub relay: Relay,
    /// How long before the last of them each lot is wanted, min.
    pub before_min: Vec<i64>,
    /// The lots' plans, each where the others leave room for it.
    pub plans: Vec<Plan>,
}

/// Lays out the day of all lots of a date, whatever job they belong to: one relay over hands, cold places, trays and ovens. Where nothing that the day
/// rests on has changed since `before`, its steps stay as they are.
#[must_use]
pub fn plan_date(kitchen: &Kitchen, lots: &[LotPlan], before: Option<&PlannedDate>) -> PlannedDate {
    let before_min = wanted_before(kitchen.zone(), lots);
    let asked = relay_of(kitchen, lots_of_day(lots, &before_min));
    let relay = match (before.filter(|b| b.asked == asked), lots) {
        (Some(same), _) => same.relay.clone(),
        (None, []) => Relay::new(vec![], vec![]),
        // What is alone is laid out already.
        (None, [alone]) => alone.plan.clock.relay.clone(),
        (None, _) => plan_relay(&asked, PlanBudget::AT_ONCE),
    };
    let own = |at: usize| relay.of_lots(|lot| (usize::try_from(lot) == Ok(at)).then_some(0), before_min[at]);
    let placed = lots.iter().enumerate().map(|(at, lot)| match lots {
        [alone] => alone.plan.clone(),
        _ => lot.plan.placed(lot.job, kitchen, own(at)),
    });
    let plans = placed.collect();
    PlannedDate { asked, relay, before_min, plans }
}

/// Lots as they are planned together, each wanted so long before the last.
pub(crate) fn lots_of_day(lots: &[LotPlan], before: &[i64]) -> Vec<RelayLot> {
    let of = lots.iter().zip(before).map(|(l, wanted_before_min)| RelayLot {
        mixed_by: l.mixed_by,
        mixes: if l.mixed_by.is_some() { 0 } else { l.plan.clock.lot.mixes },
        wanted_before_min: *wanted_before_min,
        ..l.plan.clock.lot.clone()
    });
    of.collect()
}

/// How long before the last of them each lot is wanted, min.
#[must_use]
pub fn wanted_before(zone: Zone, lots: &[LotPlan]) -> Vec<i64> {
    let wanted = |l: &LotPlan| zone.nearest(l.job.input().order.ready_by);
    let last = lots.iter().map(wanted).max();
    lots.iter().map(|l| last.map_or(0, |last| (last - wanted(l)).num_minutes())).collect()
}

/// The lots of one job together: which of their pieces may share a tray, and what the day rests on. `relay` is theirs, of the whole date's;
/// `others` are the jobs that are planned with it.
#[must_use]
pub fn together(kitchen: &Kitchen, lots: &[LotPlan], relay: Relay, others: Vec<String>) -> Together {
    let several = lots.len() > 1;
    let classes = if several { size_classes(lots) } else { vec![] };
    let mut reasons = vec![];
    if several || !others.is_empty() {
        reasons.push(Reason::AsLateAsTheNextAllows);
    }
    if !others.is_empty() {
        reasons.push(Reason::WithTheDate { jobs: others });
    }
    reasons.extend(lacks(&relay, |lot| lots.get(lot).map(|l| l.job.input().order.name.clone())));
    let heats = lots.windows(2).filter(|w| (w[0].plan.oven.oven.c() - w[1].plan.oven.oven.c()).abs() > 0.5).count();
    if heats > 0 {
        reasons.push(Reason::HeatsSettle);
    }
    let name = |i: &usize| lots[*i].job.input().order.name.clone();
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
