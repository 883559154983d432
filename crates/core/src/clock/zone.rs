//! Wall clocks and real minutes: one time zone, the kitchen's, for everything that is said in hours of the day.

use crate::error::{InputError, InputErrors};
use chrono::{DateTime, MappedLocalTime, NaiveDateTime, TimeDelta, TimeZone, Utc};
use chrono_tz::{OffsetComponents, OffsetName, Tz};

/// How times of a kitchen's clock are written: ISO 8601 to the minute, without zone.
pub const MINUTE_FORMAT: &str = "%Y-%m-%dT%H:%M";

/// A time as [`MINUTE_FORMAT`] writes it, in JSON.
pub(crate) mod minute {
    use super::{MINUTE_FORMAT, NaiveDateTime};
    use crate::error::Problem;
    use serde::de::{Deserialize, Deserializer, Error};
    use serde::ser::Serializer;

    pub fn serialize<S: Serializer>(time: &NaiveDateTime, serializer: S) -> Result<S::Ok, S::Error> {
        serializer.collect_str(&time.format(MINUTE_FORMAT))
    }

    pub fn deserialize<'de, D: Deserializer<'de>>(deserializer: D) -> Result<NaiveDateTime, D::Error> {
        let text = String::deserialize(deserializer)?;
        NaiveDateTime::parse_from_str(&text, MINUTE_FORMAT).map_err(|_| {
            let said: String = text.chars().filter(|c| !c.is_control()).take(40).collect();
            let accepted = "a date and time such as 2026-11-28T14:00";
            Error::custom(Problem::Unreadable { text: said, accepted })
        })
    }
}

/// A moment by the kitchen's clock as it travels, `2026-11-28T14:00`.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize)]
#[serde(transparent)]
pub struct Minute(#[serde(with = "minute")] pub NaiveDateTime);

/// A time zone by its name in the IANA database (the database comes with the chrono-tz crate).
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Zone(Tz);

/// What a change of the clocks does within a span of time.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct ClockChange {
    /// What the clock showed when it was changed.
    pub from: NaiveDateTime,
    /// What it showed then.
    pub to: NaiveDateTime,
}

impl Zone {
    /// Coordinated universal time, as long as nobody has said where the kitchen is.
    pub const UTC: Self = Self(Tz::UTC);

    /// The zone of a name such as `Europe/Lisbon`; nothing said is UTC.
    ///
    /// Fails on a name that the database does not know.
    pub fn named(name: &str) -> Result<Self, InputErrors> {
        if name.is_empty() {
            return Ok(Self::UTC);
        }
        name.parse().map(Self).map_err(|_| {
            let why = format!(
                "Don\u{2019}t know the time zone {name:?}. Pick one such as America/New_York or Europe/Lisbon."
            );
            InputError::refused("zone", why).into()
        })
    }

    /// Its name.
    #[must_use]
    pub fn name(self) -> &'static str {
        self.0.name()
    }

    /// All names there are, in order, for a list to choose from.
    pub fn all() -> impl Iterator<Item = &'static str> {
        chrono_tz::TZ_VARIANTS.iter().map(|tz| tz.name())
    }

    /// The moment at which the clock shows a time. Where the clock shows it twice, the first of the two.
    ///
    /// Fails, naming the field and what the clock does then, on a time that it never shows.
    pub fn moment(self, field: &'static str, shown: NaiveDateTime) -> Result<DateTime<Utc>, InputErrors> {
        match self.0.from_local_datetime(&shown) {
            MappedLocalTime::Single(at) | MappedLocalTime::Ambiguous(at, _) => Ok(at.to_utc()),
            MappedLocalTime::None => {
                let change = self.change_between(
                    self.nearest(shown) - TimeDelta::hours(26),
                    self.nearest(shown) + TimeDelta::hours(26),
                );
                let clocks = change.map_or(String::new(), |c| {
                    format!(": the clocks jump from {} to {}", c.from.format("%-H:%M"), c.to.format("%-H:%M"))
                });
                let why = format!(
                    "There is no {} on {}{clocks}. Choose another time.",
                    shown.format("%-H:%M"),
                    shown.format("%B %-d, %Y")
                );
                Err(InputError::refused(field, why).into())
            }
        }
    }

    /// As [`Zone::moment`]; a time that the clock never shows is read as if the clocks had not been changed yet.
    #[must_use]
    pub fn nearest(self, shown: NaiveDateTime) -> DateTime<Utc> {
        match self.0.from_local_datetime(&shown) {
            MappedLocalTime::Single(at) | MappedLocalTime::Ambiguous(at, _) => at.to_utc(),
            MappedLocalTime::None => {
                let before = self.0.offset_from_utc_datetime(&(shown - TimeDelta::hours(26)));
                (shown - (before.base_utc_offset() + before.dst_offset())).and_utc()
            }
        }
    }

    /// What the clock shows at a moment.
    #[must_use]
    pub fn shown(self, at: DateTime<Utc>) -> NaiveDateTime {
        at.with_timezone(&self.0).naive_local()
    }

    /// What the clock shows so many real minutes after it shows `shown`.
    #[must_use]
    pub fn after(self, shown: NaiveDateTime, minutes: i64) -> NaiveDateTime {
        self.shown(self.nearest(shown) + TimeDelta::minutes(minutes))
    }

    /// The short name that the zone goes by at a moment, such as `CET`; digits where it has none.
    #[must_use]
    pub fn abbreviation(self, at: DateTime<Utc>) -> String {
        let offset = self.0.offset_from_utc_datetime(&at.naive_utc());
        offset.abbreviation().unwrap_or("").to_owned()
    }

    /// The first change of the clocks between two moments.
    #[must_use]
    pub fn change_between(self, from: DateTime<Utc>, to: DateTime<Utc>) -> Option<ClockChange> {
        let offset = |at: DateTime<Utc>| {
            let o = self.0.offset_from_utc_datetime(&at.naive_utc());
            o.base_utc_offset() + o.dst_offset()
        };
        // No zone changes twice within a day, so a step of a day misses none; then it is halved down to the minute.
        let mut low = from;
        while low < to {
            let high = (low + TimeDelta::days(1)).min(to);
            if offset(low) == offset(high) {
                low = high;
                continue;
            }
            let (mut before, mut after) = (low, high);
            while after - before > TimeDelta::seconds(1) {
                let middle = before + (after - before) / 2;
                if offset(middle) == offset(before) { before = middle } else { after = middle }
            }
            let at = round_to_minute(after);
            return Some(ClockChange { from: (at + offset(before)).naive_utc(), to: (at + offset(after)).naive_utc() });
        }
        None
    }
}

fn round_to_minute(at: DateTime<Utc>) -> DateTime<Utc> {
    let at = at - TimeDelta::nanoseconds(i64::from(at.timestamp_subsec_nanos()));
    let off = at.timestamp().rem_euclid(60);
    at + TimeDelta::seconds(if off >= 30 { 60 - off } else { -off })
}

#[cfg(test)]
mod tests {
    use super::*;
    use chrono::NaiveDate;

    fn at(y: i32, m: u32, d: u32, h: u32, min: u32) -> NaiveDateTime {
        NaiveDate::from_ymd_opt(y, m, d).unwrap().and_hms_opt(h, min, 0).unwrap()
    }

    fn zone(name: &str) -> Zone {
        Zone::named(name).unwrap()
    }

    // When the clocks change in 2026, from the IANA time zone database: New York 8 March 2:00 to 3:00 and 1 November 2:00 to 1:00; the
    // Chatham Islands 5 April 3:45 to 2:45 and 27 September 2:45 to 3:45.

    #[test]
    fn minutes_before_a_time_are_real_ones_across_both_changes_of_new_york() {
        let ny = zone("America/New_York");
        assert_eq!(ny.after(at(2026, 3, 8, 4, 0), -105), at(2026, 3, 8, 1, 15));
        assert_eq!(ny.after(at(2026, 11, 1, 4, 0), -165), at(2026, 11, 1, 1, 15));
        // Half past one comes twice; the first is meant, so three o'clock is 150 minutes later, not 90.
        assert_eq!(ny.after(at(2026, 11, 1, 1, 30), 150), at(2026, 11, 1, 3, 0));
        assert_eq!(ny.after(at(2026, 11, 1, 3, 0), -150), at(2026, 11, 1, 1, 30));
    }

    #[test]
    fn the_chatham_islands_change_at_a_quarter_to() {
        let chatham = zone("Pacific/Chatham");
        assert_eq!(chatham.after(at(2026, 9, 27, 4, 0), -30), at(2026, 9, 27, 2, 30));
        assert_eq!(chatham.after(at(2026, 4, 5, 5, 0), -180), at(2026, 4, 5, 3, 0));
        let change = chatham.change_between(at(2026, 9, 26, 0, 0).and_utc(), at(2026, 9, 28, 0, 0).and_utc()).unwrap();
        assert_eq!((change.from, change.to), (at(2026, 9, 27, 2, 45), at(2026, 9, 27, 3, 45)));
    }

    #[test]
    fn a_time_that_no_clock_shows_is_refused_and_says_what_the_clocks_do() {
        let said = |z: &str, t| zone(z).moment("ready_by", t).unwrap_err().to_string();
        let ny = said("America/New_York", at(2026, 3, 8, 2, 30));
        assert!(ny.contains("There is no 2:30 on March 8, 2026") && ny.contains("from 2:00 to 3:00"), "{ny}");
        let chatham = said("Pacific/Chatham", at(2026, 9, 27, 3, 0));
        assert!(chatham.contains("from 2:45 to 3:45"), "{chatham}");
        assert!(Zone::UTC.moment("ready_by", at(2026, 3, 8, 2, 30)).is_ok());
    }

    #[test]
    fn utc_never_changes_and_an_unknown_place_is_refused() {
        assert_eq!(Zone::UTC.change_between(at(2020, 1, 1, 0, 0).and_utc(), at(2030, 1, 1, 0, 0).and_utc()), None);
        assert!(Zone::named("Harbour/Tern_Street").is_err());
        assert_eq!(Zone::named("").unwrap(), Zone::UTC);
        assert!(Zone::all().any(|n| n == "Pacific/Chatham"));
    }
}
