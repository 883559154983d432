//! How a run stands at a moment: what the hands do, what has its time, what comes, and how late it is.

use super::ahead::{Lies, Moment, Saves, ahead, catch_up, lateness, ready};
use super::baking::{WentIn, went_in, went_in_c};
use super::changed::{Changed, HeldUp, changed, held_up};
use super::event::{RunEvent, effective};
use super::fact::{Fact, least_of};
use super::facts::facts;
use super::followed::{Followed, follow};
use super::plan::{RunPlan, RunTask};
use crate::clock::{DayPlace, Step};
use serde::{Deserialize, Serialize};

/// What the dough allows while it is worked, minutes of the run.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Strip {
    /// It came, or comes, out of the cold.
    pub out_min: f64,
    /// From here on it can be worked.
    pub from_min: f64,
    /// From here on it is too soft.
    pub to_min: f64,
}

/// Work for the hands.
#[derive(Debug, Clone, PartialEq)]
pub struct HandCard {
    /// The step.
    pub task: usize,
    /// When it begins, or has begun.
    pub start_min: f64,
    /// When it is to be done.
    pub end_min: f64,
    /// It can be done now; else its time has not come.
    pub now: bool,
    /// How long the dough can be worked; nothing where that is no matter.
    pub strip: Option<Strip>,
}

/// How urgent what has its time is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TimerState {
    /// Its latest time is over.
    Over,
    /// Somebody has to come now.
    Due,
    /// It is so far, and may lie yet.
    Ready,
    /// It takes its time.
    Counting,
}

/// What has its time: in the oven, in the cold, cooling.
#[derive(Debug, Clone, PartialEq)]
pub struct Timer {
    /// The steps, of a load all its trays.
    pub tasks: Vec<usize>,
    /// How urgent.
    pub state: TimerState,
    /// It went in, or is to; minutes of the run.
    pub since_min: f64,
    /// When somebody has to look, or come, or it is ready.
    pub due_min: f64,
    /// By when, at the latest; nothing where it keeps.
    pub by_min: Option<f64>,
    /// Its mean, as the model has it or a thermometer tells, degC; nothing where that is not known.
    pub shows_c: Option<f64>,
    /// A thermometer tells it.
    pub measured: bool,
    /// It has not been begun: the oven to be heated, dough to be taken out to thaw.
    pub to_begin: bool,
    /// How it went into the oven.
    pub went_in: Option<WentIn>,
}

/// How a step stands on the tape.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BarState {
    /// Done.
    Done,
    /// Going on.
    On,
    /// To come.
    ToCome,
}

/// A step on the tape.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Bar {
    /// Which.
    pub task: usize,
    /// How it stands.
    pub state: BarState,
    /// Minutes of the run.
    pub start_min: f64,
    /// Minutes of the run.
    pub end_min: f64,
}

/// How a lot stands.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LotNow {
    /// When it is ready, as things stand; nothing where all its trays were dropped.
    pub ready_min: Option<f64>,
    /// Later than wanted by so much; not positive while it is in time.
    pub late_min: f64,
    /// All of it is done.
    pub done: bool,
}

/// A run at a moment.
#[derive(Debug, Clone, PartialEq)]
pub struct RunState {
    /// The moment, minutes of the run.
    pub now_min: f64,
    /// What the hands do, the first first.
    pub hands: Vec<HandCard>,
    /// What has its time, the most urgent first.
    pub timers: Vec<Timer>,
    /// The day.
    pub bars: Vec<Bar>,
    /// Each lot.
    pub lots: Vec<LotNow>,
    /// What would help, where it is late.
    pub catch_up: Option<Saves>,
    /// What the last press changed.
    pub changed: Option<Changed>,
    /// What holds it up most, where it is late.
    pub held_up: Option<HeldUp>,
    /// Trays that are free.
    pub trays_free: u32,
    /// Everything is done.
    pub finished: bool,
}

/// Dough that got too soft goes back into the cold for so long by one press, min. Common practice, no source.
pub const SOFT_MIN: f64 = 15.0;
/// A step by hand takes so much longer by one press, min. Our own choice.
pub const SLOW_MIN: f64 = 5.0;
/// A pale tray goes on for so long by one press, min. Common practice, no source.
pub const PALE_MIN: f64 = 1.0;

/// Work whose time comes within so many minutes can be begun.
const SOON_MIN: f64 = 0.5;
/// Nobody is told of more work ahead than this.
const HAND_CARDS: usize = 4;

/// How a run stands: a pure function of its plan, of what was noted, of what thermometers in the cold tell, and of the minute.
#[must_use]
pub fn state(plan: &RunPlan, noted: &[RunEvent], followed: &[Followed], moment: Moment) -> RunState {
    let now = moment.now_min;
    let mut facts = facts(plan, &effective(noted), now);
    follow(plan, &mut facts, followed);
    let at = ahead(plan, &facts, moment, plan.kitchen.hands);
    let late = lateness(plan, &at);
    let view = View { plan, facts: &facts, at: &at, now };
    let lots = ready(plan, &at).into_iter().enumerate().map(|(i, ready)| {
        let own = |t: &usize| plan.tasks[*t].lot == i && plan.tasks[*t].step != Step::Preheat;
        LotNow {
            ready_min: ready,
            late_min: ready.map_or(0.0, |ready| ready - plan.lots[i].wanted_min),
            done: (0..facts.len()).filter(own).all(|t| facts[t].done.is_some() || facts[t].gone),
        }
    });
    let in_use = plan.tasks.iter().enumerate().filter(|(i, t)| {
        let cool = plan.tasks.iter().position(|o| o.step == Step::Cool && o.lot == t.lot && o.tray == t.tray);
        t.step == Step::Cut
            && facts[*i].started.is_some()
            && !cool.is_some_and(|cool| facts[cool].done.is_some() || facts[cool].gone)
            && !facts[*i].gone
    });
    let in_use = u32::try_from(in_use.count()).unwrap_or(u32::MAX);
    RunState {
        now_min: now,
        hands: view.hands(),
        timers: view.timers(),
        bars: view.bars(),
        lots: lots.collect(),
        catch_up: catch_up(plan, &facts, moment, late),
        changed: changed(plan, noted, moment.began_min),
        held_up: held_up(plan, &facts, &at).filter(|_| late >= 1.0),
        trays_free: plan.kitchen.trays.saturating_sub(in_use),
        finished: facts.iter().all(|f| f.done.is_some() || f.gone),
    }
}

struct View<'a> {
    plan: &'a RunPlan,
    facts: &'a [Fact],
    at: &'a [Option<Lies>],
    now: f64,
}

impl View<'_> {
    fn open(&self, task: usize) -> bool {
        self.facts[task].done.is_none() && !self.facts[task].gone
    }

    fn done_before(&self, task: usize) -> bool {
        let ready = |b: &usize| {
            !self.open(*b)
                || (self.plan.tasks[*b].waits()
                    && self.facts[*b]
                        .started
                        .is_some_and(|from| from + least_of(self.plan, self.facts, *b) <= self.now))
        };
        self.plan.tasks[task].after.iter().all(ready)
    }

    fn hands(&self) -> Vec<HandCard> {
        let mut cards: Vec<HandCard> = (0..self.plan.tasks.len())
            .filter(|t| self.plan.tasks[*t].step.by_hand() && self.open(*t))
            .filter_map(|task| {
                let lies = self.at[task]?;
                let now = self.done_before(task) && lies.start <= self.now + SOON_MIN;
                Some(HandCard {
                    task,
                    start_min: lies.start,
                    end_min: lies.end,
                    now,
                    strip: self.strip(task, lies.start),
                })
            })
            .collect();
        cards.sort_by(|a, b| b.now.cmp(&a.now).then(a.start_min.total_cmp(&b.start_min)).then(a.task.cmp(&b.task)));
        cards.truncate(HAND_CARDS);
        cards
    }

    fn strip(&self, task: usize, start: f64) -> Option<Strip> {
        let t = &self.plan.tasks[task];
        let lot = &self.plan.lots[t.lot];
        let (just_ready, coldest) = lot.workable_min.filter(|_| t.step == Step::Cut)?;
        let dough = *t.after.first()?;
        let from_cold = |i: usize| matches!(self.plan.tasks[i].step, Step::Chill | Step::Thaw);
        let chill =
            if from_cold(dough) { dough } else { *self.plan.tasks[dough].after.first().filter(|i| from_cold(**i))? };
        // Each tray's dough comes out when it is its turn.
        let out = self.facts[chill]
            .done
            .filter(|_| self.first_of(chill) == Some(task))
            .unwrap_or(start)
            .max(self.facts[task].not_before);
        let went_in = self.facts[chill].started.or(self.at[chill].map(|l| l.start))?;
        let lay = (out - went_in).max(0.0);
        let rest = lot.too_cold.filter(|(from, _)| lay >= *from).map_or(0.0, |(_, rest)| rest);
        // Between just ready and as cold as it may be, by how long it lay.
        let least = least_of(self.plan, self.facts, chill);
        let full = lot.too_cold.map_or(least + 30.0, |(from, _)| from).max(least + 1.0);
        let share = ((lay - least) / (full - least)).clamp(0.0, 1.0);
        let from_min = out + rest;
        Some(Strip { out_min: out, from_min, to_min: from_min + just_ready + (coldest - just_ready).max(0.0) * share })
    }

    fn first_of(&self, chill: usize) -> Option<usize> {
        let cut = |i: &usize| {
            let t = &self.plan.tasks[*i];
            t.step == Step::Cut && t.after.iter().any(|b| *b == chill || self.plan.tasks[*b].after.contains(&chill))
        };
        (0..self.plan.tasks.len()).find(cut)
    }

    fn timers(&self) -> Vec<Timer> {
        let mut found: Vec<Timer> = vec![];
        for task in 0..self.plan.tasks.len() {
            let t = &self.plan.tasks[task];
            if !self.open(task) || t.step.by_hand() || found.iter().any(|f| f.tasks.contains(&task)) {
                continue;
            }
            let timer = match self.facts[task].started {
                Some(since) => Some(self.running(task, t, since)),
                None if t.after.is_empty() => self.to_begin(task),
                None => None,
            };
            found.extend(timer);
        }
        // What ends by itself needs nobody: it comes last.
        let needs_nobody = |t: &Timer| !t.to_begin && self.plan.tasks[t.tasks[0]].ends_by_itself();
        found.sort_by(|a, b| {
            let order = (a.state, needs_nobody(a)).cmp(&(b.state, needs_nobody(b)));
            order.then(a.due_min.total_cmp(&b.due_min))
        });
        found
    }

    /// What nothing comes before: the oven to be heated, dough to be taken out to thaw.
    fn to_begin(&self, task: usize) -> Option<Timer> {
        let lies = self.at[task]?;
        let due = lies.start.min(self.plan.tasks[task].start_min);
        let state = if self.now >= due { TimerState::Due } else { TimerState::Counting };
        Some(Timer {
            tasks: vec![task],
            state,
            since_min: self.now.min(due),
            due_min: due,
            by_min: None,
            shows_c: None,
            measured: false,
            to_begin: true,
            went_in: None,
        })
    }

    fn running(&self, task: usize, t: &RunTask, since: f64) -> Timer {
        let lot = &self.plan.lots[t.lot];
        let least = least_of(self.plan, self.facts, task);
        let timer = |tasks, due: f64, by: Option<f64>, state, shows_c| Timer {
            tasks,
            state,
            since_min: since,
            due_min: due,
            by_min: by,
            shows_c,
            measured: false,
            to_begin: false,
            went_in: None,
        };
        match t.step {
            Step::Bake => {
                let together = |o: &usize| self.open(*o) && self.facts[*o].started == Some(since);
                let sooner = self.facts[task].ahead_min;
                let look = since + (lot.look_after_min - sooner).clamp(0.0, least) + self.facts[task].more_min;
                let by = since + least;
                let state = if self.now >= by {
                    TimerState::Over
                } else if self.now >= look {
                    TimerState::Due
                } else {
                    TimerState::Counting
                };
                let load = self.plan.load_of(task).into_iter().filter(together).collect();
                Timer {
                    went_in: went_in(self.plan, self.facts, task, since),
                    ..timer(load, look, Some(by), state, None)
                }
            }
            Step::Chill | Step::TrayChill | Step::BulkChill | Step::Thaw => {
                let ready = since + least;
                let wanted = self.at[task].map_or(ready, |l| l.end).max(ready);
                let state = if self.now < ready {
                    TimerState::Counting
                } else if wanted <= self.now + SOON_MIN && self.taken_now(task) {
                    TimerState::Due
                } else {
                    TimerState::Ready
                };
                let fact = &self.facts[task];
                let by_model = match t.step {
                    Step::Chill => match lot.dough_elsewhere.as_ref().filter(|e| fact.place == Some(e.place)) {
                        Some(other) => lot.dough_cold.moved(fact.moved_after, &other.run, self.now - since),
                        None => lot.dough_at(fact.start_c, self.now - since),
                    },
                    Step::TrayChill => went_in_c(self.plan, self.facts, task, self.now),
                    _ => None,
                };
                let shows = fact.read.map(|r| r.shows_c).or(by_model);
                let dough = matches!(t.step, Step::Chill | Step::BulkChill);
                // When it gets too cold elsewhere is not known.
                let here = t.step == Step::Chill && fact.place.is_none();
                let too_cold = lot.too_cold.filter(|_| here).map(|(from, _)| from - fact.ahead_min);
                let by = too_cold.or(lot.keeps_min.filter(|_| dough)).map(|after| since + after);
                Timer { measured: fact.read.is_some(), ..timer(vec![task], ready, by, state, shows) }
            }
            _ => timer(vec![task], since + least, None, TimerState::Counting, None),
        }
    }

    /// Whether what takes it can be done now: the oven is free for a tray, hands for dough.
    fn taken_now(&self, task: usize) -> bool {
        let next = (0..self.plan.tasks.len()).filter(|o| self.plan.tasks[*o].after.contains(&task) && self.open(*o));
        next.filter_map(|o| self.at[o]).any(|lies| lies.start <= self.now + SOON_MIN)
    }

    fn bars(&self) -> Vec<Bar> {
        let bar = |(task, lies): (usize, &Option<Lies>)| {
            let lies = (*lies)?;
            let fact = &self.facts[task];
            let state = match (fact.done, fact.started) {
                (Some(_), _) => BarState::Done,
                (None, Some(_)) => BarState::On,
                (None, None) if fact.gone => return None,
                // Work that can be done now is being done.
                (None, None) if self.plan.tasks[task].step.by_hand() && lies.start <= self.now => BarState::On,
                (None, None) => BarState::ToCome,
            };
            Some(Bar { task, state, start_min: lies.start, end_min: lies.end })
        };
        self.at.iter().enumerate().filter_map(bar).collect()
    }
}

/// How a tray was baked, for its record.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Baked {
    /// The bake.
    pub task: usize,
    /// When it came out, minutes of the run.
    pub out_min: f64,
    /// In the oven.
    pub baked_min: f64,
    /// The pieces as they went in, by the model and how long they were in the cold, degC.
    pub start_c: Option<f64>,
    /// How that is beside the plan; nothing where nothing is forecast.
    pub went_in: Option<WentIn>,
    /// Its cut; nothing where it had none.
    pub cut: Option<usize>,
    /// Pieces on it.
    pub pieces: Option<u32>,
    /// Where it chilled, other than planned.
    pub place: Option<DayPlace>,
}

/// The trays that have come out so far, in order.
#[must_use]
pub fn baked(plan: &RunPlan, events: &[RunEvent], now: f64) -> Vec<Baked> {
    let facts = facts(plan, &effective(events), now);
    let mut found: Vec<Baked> = (plan.tasks.iter().enumerate())
        .filter(|(i, t)| t.step == Step::Bake && !facts[*i].gone)
        .filter_map(|(task, t)| {
            let (from, out) = (facts[task].started?, facts[task].done?);
            let on = |step: Step| plan.tasks.iter().position(|o| o.step == step && o.lot == t.lot && o.tray == t.tray);
            let chill = on(Step::TrayChill);
            Some(Baked {
                task,
                out_min: out,
                baked_min: out - from,
                start_c: went_in_c(plan, &facts, task, from),
                went_in: went_in(plan, &facts, task, from),
                cut: on(Step::Cut),
                pieces: on(Step::Cut).and_then(|c| facts[c].pieces).or(t.pieces),
                place: chill.and_then(|c| facts[c].place),
            })
        })
        .collect();
    found.sort_by(|a, b| a.out_min.total_cmp(&b.out_min));
    found
}
