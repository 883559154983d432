//! A run on the wire. Times are local times of the kitchen, to the second; minutes are those of the run.

use super::{SentenceView, elapsed, view};
use crate::board::LivePiece;
use chrono::{DateTime, NaiveDateTime, SecondsFormat, TimeDelta, Utc};
use ready_slab_core::clock::{DayPlace, Lane, Step, Zone};
use ready_slab_core::cold::Target;
use ready_slab_core::error::{Checks, InputError, InputErrors};
use ready_slab_core::run::{
    Baked, Bar, BarState, CatchUp, Followed, HandCard, Happened, LotNow, Moment, PALE_MIN, RunEvent, RunPlan, RunState,
    SLOW_MIN, SOFT_MIN, Shift, Timer, TimerState, baked, effective, may_be_noted, none_ahead, not_before_noted, state,
};
use ready_slab_store::StoredRun;
use ready_slab_words::bench;
use serde::{Deserialize, Serialize};
use std::sync::Arc;
use utoipa::ToSchema;

const SECOND_FORMAT: &str = "%Y-%m-%dT%H:%M:%S";
/// Most events in one request: a day of 40 trays has some hundreds.
const MOST_EVENTS: usize = 200;
/// What was noted last is sent with a run.
const EVENTS_SENT: usize = 40;

/// A run is to begin.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewRunBody {
    /// The date whose jobs are run, `2026-12-05`.
    pub date: String,
    /// Whether it is only tried: at 60 times the speed, from the first step on, with simulated thermometers.
    #[serde(default)]
    pub rehearsal: bool,
}

/// Something happened.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct EventBody {
    /// A name of the press, 1 to 60 characters: sent again, it counts once.
    pub press: String,
    /// What.
    pub what: Happened,
    /// When, minutes of the run, from a day before it was begun; now when null, and where it would lie ahead.
    #[serde(default)]
    pub at_min: Option<f64>,
}

impl EventBody {
    /// Events of a request, checked against the plan that they are about.
    ///
    /// Those in `known` were taken before and pass by. Of a day that has ended, what was before its end is taken.
    pub fn list(
        bodies: Vec<Self>,
        plan: &RunPlan,
        when: When,
        known: &[String],
    ) -> Result<Vec<(String, f64, Happened)>, InputErrors> {
        let mut checks = Checks::new();
        checks.limit("events", bodies.len(), MOST_EVENTS, "events at once");
        let (may_be, now) = (may_be_noted(when.began_min, when.now_min), when.now_min);
        let tasks = f64::from(u32::try_from(plan.tasks.len()).unwrap_or(u32::MAX)) - 1.0;
        for (i, e) in bodies.iter().enumerate().take(MOST_EVENTS).filter(|(_, e)| !known.contains(&e.press)) {
            let at = |field: &str| format!("events[{i}].{field}");
            checks.text(&at("press"), &e.press, 60, "an ID for this press");
            if when.ended && e.at_min.is_none_or(|min| min > now + AFTER_ITS_END_MIN) {
                checks.push(InputError::refused(at("at_min"), "This day had ended by then."));
            } else if let Some(min) = e.at_min {
                // A clock that was set back in between makes what was pressed before lie ahead: it is taken as now.
                checks.range(&at("at_min"), min, *may_be.start(), *may_be.end(), "min of the run");
            }
            if let Some(task) = e.what.task() {
                let task = f64::from(u32::try_from(task).unwrap_or(u32::MAX));
                checks.range(&at("what.task"), task, 0.0, tasks, "a step of the run");
            }
            match e.what {
                Happened::MoreTime { min, .. } => checks.range(&at("what.min"), min, 0.5, 120.0, "min"),
                Happened::TooSoft { min, .. } => checks.range(&at("what.min"), min, 1.0, 240.0, "min"),
                Happened::PowerWent { min } => checks.range(&at("what.min"), min, 1.0, 600.0, "min"),
                Happened::Measured { c, .. } => checks.range(&at("what.c"), c, -5.0, 35.0, "\u{b0}C"),
                Happened::Counted { pieces, .. } => {
                    checks.range(&at("what.pieces"), f64::from(pieces), 0.0, 10_000.0, "cookies")
                }
                Happened::Moved { at_min, .. } => {
                    checks.range(&at("what.at_min"), at_min, *may_be.start(), *may_be.end(), "min of the run")
                }
                _ => {}
            }
        }
        let fresh = bodies.into_iter().filter(|e| !known.contains(&e.press));
        let all = fresh.map(|e| (e.press, e.at_min.map_or(now, |at| at.min(now)), e.what)).collect();
        checks.finish(all)
    }
}

/// When presses may have been.
#[derive(Debug, Clone, Copy)]
pub struct When {
    /// When the run was begun, minutes of it.
    pub began_min: f64,
    /// The minute of the run, or of its end.
    pub now_min: f64,
    /// It has ended.
    pub ended: bool,
}

/// What was pressed as the day was ended, on another device, counts as before its end; min. Our own choice.
const AFTER_ITS_END_MIN: f64 = 1.0;

/// The clock of a run.
#[derive(Debug, Clone, Copy)]
pub struct RunClock {
    zero_at: DateTime<Utc>,
    began_at: DateTime<Utc>,
    began_min: f64,
    speed: f64,
    zone: Zone,
}

impl RunClock {
    /// Of a run, by the kitchen's clocks.
    pub fn of(stored: &StoredRun, zone: Zone) -> Self {
        let r = &stored.run;
        Self { zero_at: r.zero_at, began_at: r.began_at, began_min: r.began_min, speed: r.speed, zone }
    }

    /// The minute of the run at a moment; the first one of what was before it began.
    pub fn minute(&self, at: DateTime<Utc>) -> f64 {
        self.minute_of(at.max(self.began_at))
    }

    /// The minute of the run now, or when it ended; never before what was noted.
    pub fn now(&self, stored: &StoredRun, events: &[RunEvent], at: DateTime<Utc>) -> f64 {
        not_before_noted(self.minute(stored.ended_at.unwrap_or(at)), events)
    }

    /// The same of a moment that may lie before it began.
    fn minute_of(&self, at: DateTime<Utc>) -> f64 {
        #[expect(clippy::cast_precision_loss, reason = "days at most")]
        let ms = (at - self.began_at).num_milliseconds() as f64;
        self.began_min + ms / 60_000.0 * self.speed
    }

    /// What the clocks show at a minute of it.
    fn shown(&self, min: f64) -> String {
        #[expect(clippy::cast_possible_truncation, reason = "days at most")]
        let ms = (min.clamp(-1e6, 1e6) * 60_000.0).round() as i64;
        let at: NaiveDateTime = self.zone.shown(self.zero_at + TimeDelta::milliseconds(ms));
        at.format(SECOND_FORMAT).to_string()
    }
}

view! {
    /// What the dough allows while it is worked.
    pub struct StripView(out: f64, from: f64, to: f64) {
        /// Out of the cold, minutes of the run.
        out_min: f64 = out,
        /// Workable from here on.
        from_min: f64 = from,
        /// Too soft from here on.
        to_min: f64 = to,
    }
}

view! {
    /// Work for the hands.
    pub struct HandView(card: &HandCard, plan: &RunPlan, clock: &RunClock) {
        let t = &plan.tasks[card.task];

        /// The step.
        task: usize = card.task,
        /// What is done.
        does: String = t.does.clone(),
        /// Whose it is.
        lot: String = plan.lots[t.lot].name.clone(),
        /// What.
        step: Step = t.step,
        /// When it begins, or has begun.
        start_at: String = clock.shown(card.start_min),
        /// Minutes of the run.
        start_min: f64 = card.start_min,
        /// Minutes of the run.
        end_min: f64 = card.end_min,
        /// It can be done now.
        now: bool = card.now,
        /// What the one big button says.
        button: String = bench::done_button(plan, card.task),
        /// Dough that got too soft goes back for so long.
        soft_min: f64 = SOFT_MIN,
        /// It takes so much longer, by one press.
        slow_min: f64 = SLOW_MIN,
        /// What the dough allows.
        strip: Option<StripView> = card.strip.map(|s| StripView::new(s.out_min, s.from_min, s.to_min)),
    }
}

view! {
    /// What has its time.
    pub struct TimerView(timer: &Timer, plan: &RunPlan, clock: &RunClock) {
        let (due, by) = bench::timer_times(plan, timer);
        let first = timer.tasks[0];
        let bakes = |t: &usize| plan.tasks.iter().position(|o| o.step == Step::Bake && o.after.contains(t));

        /// The steps.
        tasks: Vec<usize> = timer.tasks.clone(),
        /// What it is.
        step: Step = plan.tasks[first].step,
        /// Where, and what.
        title: String = bench::timer_title(plan, timer),
        /// How urgent.
        state: TimerState = timer.state,
        /// How it stands; null while it only counts down.
        headline: Option<String> = bench::timer_headline(plan, timer).map(str::to_owned),
        /// What to look for.
        note: Option<SentenceView> = bench::timer_note(plan, timer).map(Into::into),
        /// It went in.
        since_at: String = clock.shown(timer.since_min),
        /// Minutes of the run.
        since_min: f64 = timer.since_min,
        /// Minutes of the run.
        due_min: f64 = timer.due_min,
        /// What `due_at` is.
        due_word: String = due.to_owned(),
        /// When it is due.
        due_at: String = clock.shown(timer.due_min),
        /// Minutes of the run; null where it keeps.
        by_min: Option<f64> = timer.by_min,
        /// What `by_at` is.
        by_word: String = by.to_owned(),
        /// By when; null where it keeps.
        by_at: Option<String> = timer.by_min.map(|by| clock.shown(by)),
        /// What is pale goes on for so long, by one press.
        pale_min: f64 = PALE_MIN,
        /// It ends without anybody.
        by_itself: bool = !timer.to_begin && plan.tasks[first].ends_by_itself(),
        /// It has not been begun.
        to_begin: bool = timer.to_begin,
        /// What the button for it says.
        button: String = bench::done_button(plan, first),
        /// The steps that the button begins, where it begins others: a tray goes into the oven.
        begins: Vec<usize> = if plan.tasks[first].step == Step::TrayChill { timer.tasks.iter().filter_map(bakes).collect() } else { vec![] },
    }
}

view! {
    /// A step on the tape.
    pub struct BarView(bar: &Bar, plan: &RunPlan) {
        let t = &plan.tasks[bar.task];

        /// Which.
        task: usize = bar.task,
        /// What.
        step: Step = t.step,
        /// Where.
        lane: Lane = t.lane,
        /// Whose, from 0.
        lot: usize = t.lot,
        /// From 1.
        tray: Option<u32> = t.tray.map(|t| t + 1),
        /// From 1.
        oven: Option<u32> = t.oven.map(|o| o + 1),
        /// What is done.
        does: String = t.does.clone(),
        /// How it stands.
        state: BarState = bar.state,
        /// Minutes of the run.
        start_min: f64 = bar.start_min,
        /// Minutes of the run.
        end_min: f64 = bar.end_min,
    }
}

view! {
    /// How a lot stands.
    pub struct RunLotView(lot: &LotNow, name: &str, job_id: i64, wanted: f64, clock: &RunClock) {
        /// Its job.
        job_id: i64 = job_id,
        /// Its name.
        name: String = name.to_owned(),
        /// When it is wanted.
        wanted_at: String = clock.shown(wanted),
        /// When it is ready as things stand; null where none of it is left.
        ready_at: Option<String> = lot.ready_min.map(|min| clock.shown(min)),
        /// Later than wanted by so much; not positive while it is in time.
        late_min: f64 = lot.late_min,
        /// All of it is done.
        done: bool = lot.done,
    }
}

/// What would help a run that is late.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CatchUpView {
    /// What, and by how much.
    pub says: SentenceView,
    /// What one press notes; null where no press does it.
    pub press: Option<Happened>,
}

view! {
    /// Something that was noted.
    pub struct EventView(e: &RunEvent, plan: &RunPlan, clock: &RunClock) {
        /// Its number.
        id: i64 = e.id,
        /// When.
        at: String = clock.shown(e.at_min),
        /// Minutes of the run.
        at_min: f64 = e.at_min,
        /// What.
        says: SentenceView = bench::happened(plan, &e.what).into(),
    }
}

view! {
    /// A tray that came out.
    pub struct BakedView(b: &Baked, plan: &RunPlan, clock: &RunClock) {
        let t = &plan.tasks[b.task];

        /// Its bake.
        task: usize = b.task,
        /// Its job.
        job_id: i64 = plan.lots[t.lot].job_id,
        /// Its lot.
        lot: String = plan.lots[t.lot].name.clone(),
        /// From 1.
        tray: u32 = t.tray.map_or(1, |t| t + 1),
        /// When it came out.
        out_at: String = clock.shown(b.out_min),
        /// In the oven.
        baked_min: f64 = b.baked_min,
        /// The pieces as they went in; null where that is not known.
        start_c: Option<f64> = b.start_c,
        /// Its cut, to say how many pieces came of it.
        cut: Option<usize> = b.cut,
        /// Pieces on it.
        pieces: Option<u32> = b.pieces,
        /// Where it chilled, where that is not as planned.
        place: Option<DayPlace> = b.place,
        /// What it means that it went in otherwise than planned; null where it did as planned.
        went_in: Option<SentenceView> = b.went_in.as_ref().and_then(bench::went_in).map(Into::into),
    }
}

/// What the last press changed of the plan.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ChangedView {
    /// The press.
    pub because: SentenceView,
    /// Lots that are ready at another time for it.
    pub lots: Vec<ShiftView>,
    /// Work for the hands that is at another time, the next first.
    pub work: Vec<ShiftView>,
    /// When it was pressed, minutes of the run.
    pub at_min: f64,
}

view! {
    /// Something that is at another time than before.
    pub struct ShiftView(shift: &Shift, name: &str, clock: &RunClock) {
        /// What.
        name: String = name.to_owned(),
        /// Before.
        from_at: String = clock.shown(shift.from_min),
        /// Now.
        to_at: String = clock.shown(shift.to_min),
        /// Later by so much; negative where it is sooner.
        by_min: f64 = shift.to_min - shift.from_min,
    }
}

/// A run as it stands.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct RunView {
    /// Its number.
    pub id: i64,
    /// Its name.
    pub name: String,
    /// The date it is wanted on.
    pub date: String,
    /// Whether it is only tried.
    pub rehearsal: bool,
    /// How much faster than ours its clock runs.
    pub speed: f64,
    /// It has ended.
    pub ended: bool,
    /// The minute of the run.
    pub now_min: f64,
    /// What the clocks show then.
    pub now_at: String,
    /// What they show at minute 0.
    pub zero_at: String,
    /// The moment it was begun at, UTC: tells it from another run of the same number.
    pub began: String,
    /// Work for the hands, the first first.
    pub hands: Vec<HandView>,
    /// What has its time, the most urgent first.
    pub timers: Vec<TimerView>,
    /// The day.
    pub bars: Vec<BarView>,
    /// Each lot.
    pub lots: Vec<RunLotView>,
    /// What would help.
    pub catch_up: Option<CatchUpView>,
    /// What the last press changed.
    pub changed: Option<ChangedView>,
    /// What holds it up most, where it is late.
    pub held_up: Option<SentenceView>,
    /// What was noted and holds, the newest first.
    pub events: Vec<EventView>,
    /// Trays that came out, the newest first.
    pub baked: Vec<BakedView>,
    /// Trays that are free.
    pub trays_free: u32,
    /// Everything is done.
    pub finished: bool,
}

/// Pieces in the cold as a run takes them: a rehearsal has nothing to do with what really lies there.
fn followed(pieces: &[Arc<LivePiece>], clock: &RunClock, at: DateTime<Utc>) -> Vec<Followed> {
    if clock.speed > 1.0 {
        return vec![];
    }
    let read = pieces.iter().filter(|p| !p.readings.is_empty());
    let one = |p: &Arc<LivePiece>| {
        let kept = &p.stored.kept;
        let put_in_min = clock.minute_of(kept.put_in_at);
        Followed {
            job_id: kept.job_id.0,
            cut: kept.purpose == Target::Oven,
            put_in_min,
            ready_min: p.live.ready_after.map(|after| put_in_min + after.min() / kept.clock_speed),
            shows_c: p.live.at(elapsed(&p.stored, at)).mean.c(),
        }
    };
    read.map(one).collect()
}

impl RunView {
    /// A run at a moment, with what lies in the cold then.
    pub fn new(
        stored: &StoredRun,
        events: &[RunEvent],
        pieces: &[Arc<LivePiece>],
        zone: Zone,
        at: DateTime<Utc>,
    ) -> Self {
        let (plan, clock) = (&stored.run.plan, RunClock::of(stored, zone));
        let now = clock.now(stored, events, at);
        let events = &none_ahead(events, now);
        let in_the_cold = followed(pieces, &clock, at);
        let moment = Moment { began_min: stored.run.began_min, now_min: now };
        let s: RunState = state(plan, events, &in_the_cold, moment);
        let lots = s.lots.iter().zip(&plan.lots);
        let catch_up = s.catch_up.map(|saves| CatchUpView {
            says: bench::catch_up(plan, &saves).into(),
            press: match saves.what {
                CatchUp::Elsewhere { task, place } => Some(Happened::Elsewhere { task, place }),
                CatchUp::MoreHands => None,
            },
        });
        let changed = s.changed.as_ref().and_then(|c| {
            let because = events.iter().find(|e| e.id == c.event)?;
            Some(ChangedView {
                because: bench::happened(plan, &because.what).into(),
                lots: c.lots.iter().map(|s| ShiftView::new(s, &plan.lots[s.of].name, &clock)).collect(),
                work: c.work.iter().map(|s| ShiftView::new(s, &plan.tasks[s.of].does, &clock)).collect(),
                at_min: because.at_min,
            })
        });
        let noted = effective(events);
        Self {
            id: stored.id.0,
            name: stored.run.name.clone(),
            date: stored.run.day.to_string(),
            rehearsal: stored.run.speed > 1.0,
            speed: stored.run.speed,
            ended: stored.ended_at.is_some(),
            now_min: now,
            now_at: clock.shown(now),
            zero_at: clock.shown(0.0),
            began: stored.run.began_at.to_rfc3339_opts(SecondsFormat::Millis, true),
            hands: s.hands.iter().map(|h| HandView::new(h, plan, &clock)).collect(),
            timers: s.timers.iter().map(|t| TimerView::new(t, plan, &clock)).collect(),
            bars: s.bars.iter().map(|b| BarView::new(b, plan)).collect(),
            lots: lots.map(|(now, lot)| RunLotView::new(now, &lot.name, lot.job_id, lot.wanted_min, &clock)).collect(),
            catch_up,
            changed,
            held_up: s.held_up.as_ref().map(|h| bench::held_up(plan, h).into()),
            events: noted.iter().rev().take(EVENTS_SENT).map(|e| EventView::new(e, plan, &clock)).collect(),
            baked: baked(plan, events, now).iter().rev().map(|b| BakedView::new(b, plan, &clock)).collect(),
            trays_free: s.trays_free,
            finished: s.finished,
        }
    }
}
