//! Pieces that are followed, on the wire. Times are UTC, ISO 8601, since devices of any zone write them; a piece whose clock runs
//! faster tells its own minutes.

use super::PurposeWord;
use super::plan::{CurvePoint, WindowView, curve};
use super::{SentenceView, say, say_all, view};
use chrono::{DateTime, TimeDelta, Utc};
use ready_slab_core::cold::{
    Fit, LONGEST_READ, Live, LiveStay, Piece, ProbeInput, RANGE_SDS, Reading, Sample, Side, Spot, Tracked, drawn_to,
};
use ready_slab_core::dough::Keeping;
use ready_slab_core::error::{Checks, InputError, InputErrors, Problem};
use ready_slab_core::job::{GoesIn, ReadSoFar, Whereabouts, kept_too_long, notes_on_readings};
use ready_slab_core::safety::Caution;
use ready_slab_core::units::{Span, Temperature};
use ready_slab_store::{StoredChill, StoredReading, StoredStay};
use ready_slab_words::Name;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A device's clock may run ahead of ours by so much.
const AHEAD: TimeDelta = TimeDelta::minutes(2);
/// No dough keeps longer.
const LONGEST_IN: TimeDelta = TimeDelta::days(400);
/// Most readings in one request.
const MOST_AT_ONCE: usize = 1000;
/// Fastest clock of a piece that only stands in for one.
const FASTEST: f64 = 600.0;
/// Of the readings of one piece, the newest that are sent with it.
const READINGS_SENT: usize = 400;

/// A piece is put in. What is not said is as the plan has it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PutInBody {
    /// What it is called, 1 to 40 characters.
    pub name: String,
    /// What it is for; when null, the oven for portions, slicing for logs and bars, rolling for all else.
    #[serde(default)]
    pub purpose: Option<PurposeWord>,
    /// Its form; the plan's when null.
    #[serde(default)]
    pub piece: Option<Piece>,
    /// Where; the plan's place when null.
    #[serde(default)]
    pub place: Option<Whereabouts>,
    /// All of it when it goes in, -5 to 35; the plan's dough temperature when null.
    #[serde(default)]
    pub start_c: Option<f64>,
    /// When, ISO 8601 with its zone, `2026-11-28T12:20:00Z`, not in the future; now when null.
    #[serde(default)]
    pub put_in_at: Option<String>,
    /// How much faster than ours its clock runs, 1 to 600: above 1 for a piece that only stands in for one.
    #[serde(default)]
    pub clock_speed: Option<f64>,
}

/// A piece is moved.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MoveBody {
    /// Where to.
    pub place: Whereabouts,
}

/// A reading of any device.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ReadingBody {
    /// -40 to 45.
    pub shows_c: f64,
    /// Where.
    pub spot: Spot,
    /// When, ISO 8601 with its zone, `2026-11-28T12:40:00Z`; now when null.
    #[serde(default)]
    pub read_at: Option<String>,
    /// Whether a stand-in shows it; such readings teach nothing of a real kitchen.
    #[serde(default)]
    pub simulated: bool,
}

/// Readings were taken.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ReadingsTaken {
    /// How many of this request; all of it.
    pub kept: u64,
    /// How many the piece has.
    pub total: u64,
}

view! {
    /// A kept reading.
    pub struct KeptReading(chill: &StoredChill, r: &StoredReading, set_aside: bool) {
        /// Its number.
        id: i64 = r.id,
        /// When, UTC.
        read_at: String = written(r.read_at),
        /// Minutes after it went in, by the piece's clock.
        after_min: f64 = elapsed(chill, r.read_at).min(),
        /// What it showed.
        shows_c: f64 = r.shows.c(),
        /// Where.
        spot: Spot = r.spot,
        /// It does not fit the others and is not counted.
        set_aside: bool = set_aside,
        /// A stand-in showed it.
        simulated: bool = r.simulated,
    }
}

view! {
    /// A stay in one place.
    pub struct StayView(stay: &StoredStay, set: &LiveStay, fit: &Fit, readings: usize) {
        let (low, middle, high) = fit.place.film_factor();

        /// Where.
        place: Whereabouts = stay.place,
        /// Whether it was crowded or often opened.
        busy: bool = stay.busy,
        /// Since when, minutes of the piece's clock.
        from_min: f64 = set.from.min(),
        /// The air as it is now thought to be, and nine times in ten within so much of it.
        air_c: f64 = set.place.air().c() + fit.place.air.0.k(),
        /// Half the range of the air.
        air_within_k: f64 = fit.place.air.1.k() * RANGE_SDS,
        /// What multiplies the film that was assumed: lower end, middle, upper end.
        film_factor: [f64; 3] = [low, middle, high],
        /// How many of its readings count.
        readings: usize = readings - fit.set_aside.len(),
    }
}

/// The stays of a piece, in order.
fn stays_of(stored: &StoredChill, readings: &[StoredReading], live: &Live, tracked: &Tracked) -> Vec<StayView> {
    let at = |i: usize| stored.stays.get(i).map(|s| elapsed(stored, s.from));
    let all = stored.stays.iter().zip(tracked.stays()).zip(&live.fits).enumerate();
    all.map(|(i, ((stay, set), fit))| {
        let mine = readings.iter().filter(|r| {
            let after = elapsed(stored, r.read_at);
            after >= set.from && at(i + 1).is_none_or(|next| after < next)
        });
        StayView::new(stay, set, fit, mine.count())
    })
    .collect()
}

view! {
    /// How a followed piece is at one moment.
    pub struct NowView(chill: &StoredChill, live: &Live, keeping: &Keeping, at: DateTime<Utc>) {
        let spent = elapsed(chill, at);
        let stays = chill.stays.iter().map(|s| (s.place, elapsed(chill, s.from))).collect::<Vec<_>>();
        let feels = live.feels(spent);

        /// Whose.
        id: i64 = chill.id.0,
        /// The moment, UTC.
        now_at: String = written(at),
        /// Minutes since it was first put somewhere, by its own clock.
        elapsed_min: f64 = spent.min(),
        /// The warmest point (when it warms up, the coldest).
        core_c: f64 = live.shows(spent, Spot::Core).c(),
        /// The mean.
        mean_c: f64 = live.at(spent).mean.c(),
        /// Which side of ready; null where the dough has no window.
        side: Option<Side> = feels.map(|(side, _)| side),
        /// The trade's word for it.
        word: Option<String> = feels.map(|(_, feeling)| feeling.name().to_owned()),
        /// Minutes until it is ready by its clock; negative since it is.
        left_min: Option<f64> = live.ready_after.map(|r| (r - spent).min()),
        /// Minutes out of the cold so far.
        out_of_cold_min: f64 = live.out_of_the_cold(spent).min(),
        /// What is allowed of that, in words.
        cold_rule: SentenceView = say(&Caution::ColdRule),
        /// That it lies longer than its dough keeps; null while it does not.
        too_long: Option<SentenceView> = kept_too_long(keeping, &stays, spent).as_ref().map(say),
    }
}

/// The run as far ahead as matters.
fn run_shown(live: &Live, spent_min: f64) -> Vec<CurvePoint> {
    let ahead = live.past_after.or(live.ready_after.map(|r| r * 2.0)).map_or(60.0, Span::min);
    let shown = Span::new_min(ahead.max(spent_min) * 1.2 + 5.0);
    let samples: Vec<Sample> = live.curve.iter().take_while(|s| s.after <= shown).copied().collect();
    curve(&samples)
}

/// What the readings say of the place where a piece lies, and of those that do not fit.
fn said_of(here: Option<&StayView>, readings: &[StoredReading], live: &Live) -> Vec<SentenceView> {
    let here = here.map(|here| ReadSoFar {
        place: here.place,
        readings: here.readings,
        takes_heat: here.film_factor[1],
        air: Temperature::new_c(here.air_c),
    });
    let aside: Vec<Temperature> = live.set_aside.iter().map(|&i| readings[i].shows).collect();
    say_all(&notes_on_readings(here, &aside))
}

view! {
    /// A followed piece, as it is at a moment, or was when it ended.
    pub struct LiveView(
        stored: &StoredChill,
        job_name: &str,
        readings: &[StoredReading],
        live: &Live,
        keeping: &Keeping,
        tracked: &Tracked,
        now: DateTime<Utc>,
    ) {
        let state = NowView::new(stored, live, keeping, stored.ended_at.unwrap_or(now));
        let stays = stays_of(stored, readings, live, tracked);
        let kept = &stored.kept;
        let newest = readings.iter().enumerate().skip(readings.len().saturating_sub(READINGS_SENT));
        let is_aside = |i: usize| live.set_aside.binary_search(&i).is_ok();

        /// Its number.
        id: i64 = stored.id.0,
        /// The job it belongs to.
        job_id: i64 = kept.job_id.0,
        /// That job's name.
        job_name: String = job_name.to_owned(),
        /// What it is called.
        name: String = kept.name.clone(),
        /// Its form.
        piece: Piece = kept.piece,
        /// What it is for.
        purpose: PurposeWord = kept.purpose.into(),
        /// All of it when it went in.
        start_c: f64 = kept.start.c(),
        /// How much faster than ours its clock runs.
        clock_speed: f64 = kept.clock_speed,
        /// When it went in, UTC.
        put_in_at: String = written(kept.put_in_at),
        /// When it was used or put away, UTC.
        ended_at: Option<String> = stored.ended_at.map(written),
        /// Whether its readings were accepted for its places.
        taught: bool = stored.taught,
        /// Whether it is left out of what readings teach.
        left_out: bool = stored.left_out,
        /// The stand-in thermometer in it.
        probe: Option<ProbeInput> = stored.probe.map(Into::into),
        /// What the readings say, in sentences.
        said: Vec<SentenceView> = said_of(stays.last(), readings, live),
        /// Where it lay, in order; the last is where it lies.
        stays: Vec<StayView> = stays,
        /// The run as it is now thought to be, as far ahead as matters.
        curve: Vec<CurvePoint> = run_shown(live, state.elapsed_min),
        /// As it is.
        now: NowView = state,
        /// Since when, or when, it is ready, minutes of its clock.
        ready_after_min: Option<f64> = live.ready_after.map(Span::min),
        /// Nine times in ten not before.
        ready_earliest_min: Option<f64> = live.ready_between.map(|(early, _)| early.min()),
        /// Nine times in ten not after.
        ready_latest_min: Option<f64> = live.ready_between.map(|(_, late)| late.min()),
        /// When it is no longer.
        past_after_min: Option<f64> = live.past_after.map(Span::min),
        /// So far it is drawn, minutes of its clock; null where it never gets ready.
        drawn_to_min: Option<f64> = drawn_to(live.ready_after, live.past_after).map(Span::min),
        /// Why it does not get ready where it lies.
        never: Option<SentenceView> = live.never.as_ref().map(say),
        /// Working temperatures.
        window: Option<WindowView> = live.window.map(Into::into),
        /// The newest of what was read of it.
        readings: Vec<KeptReading> = newest.map(|(i, r)| KeptReading::new(stored, r, is_aside(i))).collect(),
        /// How many there are in all.
        readings_total: usize = readings.len(),
        /// How many there were before those were left out, a month after its end, that are not needed to draw it again; null while all are kept.
        readings_taken: Option<u64> = stored.readings_taken,
    }
}

/// A moment as devices write it, in any zone.
pub fn moment(field: &str, text: &str) -> Result<DateTime<Utc>, InputErrors> {
    DateTime::parse_from_rfc3339(text).map(|t| t.to_utc()).map_err(|_| {
        let text = text.chars().filter(|c| !c.is_control()).take(40).collect();
        let accepted = "a time with its zone, such as 2026-11-28T12:40:00Z";
        InputError::new(field, Problem::Unreadable { text, accepted }).into()
    })
}

/// As [`moment`] writes it.
pub fn written(at: DateTime<Utc>) -> String {
    at.format("%Y-%m-%dT%H:%M:%S%.3fZ").to_string()
}

/// Time by a piece's clock from when it went in to a moment; zero before.
pub fn elapsed(chill: &StoredChill, to: DateTime<Utc>) -> Span {
    #[expect(clippy::cast_precision_loss, reason = "days at most")]
    let ms = to.signed_duration_since(chill.kept.put_in_at).num_milliseconds().max(0) as f64;
    Span::new_s(ms / 1000.0 * chill.kept.clock_speed)
}

impl PutInBody {
    /// What is said of it.
    pub fn goes_in(&self) -> Result<GoesIn, InputErrors> {
        Ok(GoesIn {
            purpose: self.purpose.map(Into::into),
            piece: self.piece.map(|p| p.checked().map_err(|e| e.within("piece"))).transpose()?,
            place: self.place,
            start: self.start_c.map(Temperature::new_c),
        })
    }

    /// When it went in and how fast its clock runs, all checked.
    pub fn checked(&self, now: DateTime<Utc>) -> Result<(DateTime<Utc>, f64), InputErrors> {
        let mut checks = Checks::new();
        checks.text("name", &self.name, 40, "a name");
        if let Some(c) = self.start_c {
            checks.range("start_c", c, -5.0, 35.0, "\u{b0}C");
        }
        let speed = self.clock_speed.unwrap_or(1.0);
        checks.range("clock_speed", speed, 1.0, FASTEST, "times");
        let at = match &self.put_in_at {
            None => now,
            Some(text) => moment("put_in_at", text)?,
        };
        if at > now + AHEAD {
            checks.push(InputError::refused("put_in_at", "That’s in the future. Use the time it went in."));
        }
        if now - at > LONGEST_IN {
            checks.push(InputError::refused(
                "put_in_at",
                "That’s over 400 days ago, longer than any dough keeps. Check the date.",
            ));
        }
        checks.finish((at, speed))
    }
}

impl ReadingBody {
    /// Readings of a piece, checked: not before it went in, not in the future, within 400 days of its clock, in Celsius.
    pub fn list(
        bodies: &[Self],
        chill: &StoredChill,
        now: DateTime<Utc>,
    ) -> Result<Vec<(DateTime<Utc>, Temperature, Spot)>, InputErrors> {
        // Our own clock may have been set back since: what is read now is after all that was noted, whatever it shows.
        let latest = chill.latest();
        let set_back = now < latest;
        let now = now.max(latest);
        let mut checks = Checks::new();
        checks.limit("readings", bodies.len(), MOST_AT_ONCE, "readings at a time");
        let mut found = Vec::with_capacity(bodies.len());
        for (i, r) in bodies.iter().take(MOST_AT_ONCE).enumerate() {
            let shows = format!("readings[{i}].shows_c");
            if (45.0..=113.0).contains(&r.shows_c) && r.shows_c > 45.0 {
                // What would be a kitchen's temperature in Fahrenheit most likely is one.
                checks.push(InputError::refused(
                    shows,
                    format!(
                        "Use \u{2212}40 to 45 \u{b0}C. You sent {:.1}. If that\u{2019}s Fahrenheit, send {:.1} \u{b0}C.",
                        r.shows_c,
                        (r.shows_c - 32.0) / 1.8
                    ),
                ));
            } else {
                checks.range(&shows, r.shows_c, -40.0, 45.0, "\u{b0}C");
            }
            let field = format!("readings[{i}].read_at");
            let at = match r.read_at.as_deref().map(|t| moment(&field, t)) {
                None => now,
                Some(Ok(at)) if set_back => at.max(latest),
                Some(Ok(at)) => at,
                Some(Err(errors)) => {
                    errors.all().iter().cloned().for_each(|e| checks.push(e));
                    continue;
                }
            };
            if at > now + AHEAD {
                checks.push(InputError::refused(field, "That’s in the future. Use the time it went in."));
            } else if at < chill.kept.put_in_at {
                checks.push(InputError::refused(field, "This reading is from before the dough went in."));
            } else if elapsed(chill, at) > LONGEST_READ {
                checks.push(InputError::refused(field, "The dough would have been in over 400 days. Take it out."));
            } else if let Ok(shows) = Temperature::from_c(r.shows_c) {
                found.push((at, shows, r.spot));
            }
        }
        checks.finish(found)
    }
}

/// Kept readings as the core takes them.
pub fn as_read(chill: &StoredChill, readings: &[StoredReading]) -> Vec<Reading> {
    readings.iter().map(|r| Reading { after: elapsed(chill, r.read_at), shows: r.shows, spot: r.spot }).collect()
}
