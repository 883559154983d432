//! A job's day as an iCalendar file (RFC 5545): each step an event, with an alarm where somebody has to be there.

use chrono::{DateTime, NaiveDateTime, TimeDelta, Utc};
use icalendar::{Alarm, Calendar, Component, Event, EventLike, Property};
use ready_slab_core::clock::{Relay, RelayTask, Step, Zone};
use ready_slab_core::job::{Job, Plan};
use ready_slab_words::{System, step, why};

/// Before the day begins it is told once, so long ahead.
const AHEAD_MIN: i64 = 15;

/// What the file is made of.
pub struct DayFile<'a> {
    /// What it is called.
    pub name: &'a str,
    /// The jobs baked together, each with its number.
    pub lots: &'a [(i64, &'a Job, &'a Plan)],
    /// Their steps.
    pub relay: &'a Relay,
    /// When the last of them is wanted, from which the steps are counted.
    pub wanted: NaiveDateTime,
    /// Where the kitchen's clocks are.
    pub zone: Zone,
    /// When it is made.
    pub now: DateTime<Utc>,
}

impl DayFile<'_> {
    /// The file.
    #[must_use]
    pub fn text(&self) -> String {
        let wanted = self.zone.nearest(self.wanted);
        let mut file = Calendar::empty();
        file.append_property(Property::new("VERSION", "2.0"))
            .append_property(Property::new("PRODID", "-//Ready Slab//Schedule//EN"))
            .append_property(Property::new("CALSCALE", "GREGORIAN"))
            .name(self.name);
        for (at, task) in self.relay.tasks.iter().enumerate() {
            if let Some(event) = self.event(task, wanted, at == 0) {
                file.push(event);
            }
        }
        file.done().to_string()
    }

    fn event(&self, task: &RelayTask, wanted: DateTime<Utc>, first: bool) -> Option<Event> {
        let (id, job, plan) = self.lots.get(usize::try_from(task.lot).ok()?)?;
        let moment = |minutes: i64| wanted + TimeDelta::minutes(minutes);
        let does = step(task, job, plan);
        let summary = format!("{does} \u{b7} {}", job.input().order.name);
        let number = |n: Option<u32>| n.map_or_else(String::new, |n| format!("-{n}"));
        let uid = format!(
            "job{id}-{:?}{}{}{}@ready-slab",
            task.step,
            number(task.mix),
            number(task.tray),
            number(task.oven.filter(|_| task.step == Step::Preheat))
        )
        .to_lowercase();
        // The same alarms each time it is made, so that a calendar that reads it again rings once.
        let alarm = |event: &mut Event, says: &str, minutes: i64| {
            event.alarm(Alarm::display(says, TimeDelta::minutes(minutes)).uid(&format!("{minutes}-{uid}")).done());
        };
        let mut event = Event::with_uid(&uid);
        event.summary(&summary).timestamp(self.now).starts(moment(task.start_min)).ends(moment(task.end_min));
        if let Some(why) = why(&task.why) {
            event.description(&why.capital().text(System::Metric));
        }
        // Nobody is kept from anything else while it lies in the cold or the oven.
        event.add_property("TRANSP", if task.step.by_hand() { "OPAQUE" } else { "TRANSPARENT" });
        if first {
            alarm(&mut event, &format!("In {AHEAD_MIN} min: {does}"), -AHEAD_MIN);
        }
        if task.step.begins_by_hand() {
            alarm(&mut event, &does, 0);
        }
        if task.step == Step::Bake {
            let look = plan.oven.expected.told().1.min_up().min(task.end_min - task.start_min);
            alarm(&mut event, &format!("Check tray {}", task.tray.map_or(1, |t| t + 1)), look);
        }
        Some(event.done())
    }
}
