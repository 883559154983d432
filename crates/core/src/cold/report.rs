//! The questions of the cold station answered with the solver.

use super::never::{Lies, Never};
use super::piece::{Piece, Support, Wrap};
use super::solver::{Body, Sample};
use super::thermal::{Thermal, WaterState};
use super::window::{Target, Window, Working};
use crate::dough::Composition;
use crate::error::{Checks, InputErrors};
use crate::units::{Film, Span, Temperature, TemperatureDifference};

/// How far a stated range reaches to each side, in standard deviations: nine in ten.
pub const RANGE_SDS: f64 = 1.645;
/// The film is known to 25 % (a factor of 0.8 to 1.25) before any reading: nine in ten.
pub(super) const FILM_LN_SD: f64 = 0.223 / RANGE_SDS;

/// Film on an open bench, radiation included, W/m2K. Common practice, no source.
pub(crate) const BENCH_FILM: Film = Film::new_w_m2k(9.0);
/// No question looks further ahead.
pub(super) const HORIZON: Span = Span::new_min(24.0 * 60.0);
/// Settled when within this of the air, K.
pub(super) const SETTLED_K: f64 = 0.15;

/// A cold place (or a warm one).
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Place {
    air: Temperature,
    film: Film,
    doubt: PlaceDoubt,
    lies: Lies,
}

impl Place {
    /// A place with air from -40 to 45 degC and a film of 1 to 60 W/m2K.
    pub fn new(air_c: f64, film_w_m2k: f64) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        checks.range("air_c", air_c, -40.0, 45.0, "\u{b0}C");
        checks.range("film_w_m2k", film_w_m2k, 1.0, 60.0, "W/m\u{b2}K");
        checks.finish(())?;
        Ok(Self {
            air: Temperature::new_c(air_c),
            film: Film::new_w_m2k(film_w_m2k),
            doubt: PlaceDoubt::default(),
            lies: Lies::Somewhere,
        })
    }

    /// The same place, known to be that one.
    #[must_use]
    pub fn being(self, lies: Lies) -> Self {
        Self { lies, ..self }
    }

    /// Which it is.
    #[must_use]
    pub fn lies(&self) -> Lies {
        self.lies
    }

    /// The same place, otherwise known.
    #[must_use]
    pub(super) fn doubted(self, doubt: PlaceDoubt) -> Self {
        Self { doubt, ..self }
    }

    /// How well it is known.
    #[must_use]
    pub fn doubt(&self) -> PlaceDoubt {
        self.doubt
    }

    /// Its air.
    #[must_use]
    pub fn air(&self) -> Temperature {
        self.air
    }

    /// Its film coefficient, radiation included.
    #[must_use]
    pub fn film(&self) -> Film {
        self.film
    }
}

/// How well a place is known: standard deviations of what its film and its air may be off by.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct PlaceDoubt {
    /// Of the natural logarithm of the film.
    pub ln_film_sd: f64,
    /// Of the air; zero where it is taken as said.
    pub air_sd: TemperatureDifference,
    /// Between the two, -1 to 1.
    pub correlation: f64,
}

impl Default for PlaceDoubt {
    /// The film is known to about a quarter, the air taken as said.
    fn default() -> Self {
        Self { ln_film_sd: FILM_LN_SD, air_sd: TemperatureDifference::new_k(0.0), correlation: 0.0 }
    }
}

/// Steps by which the effect of film and air on a time is found.
const FILM_LN_STEP: f64 = 0.05;
const AIR_STEP_K: f64 = 0.2;

impl PlaceDoubt {
    /// The range that holds a time nine times in ten; `at` gives it for a change of the film's logarithm and of the air, K.
    ///
    /// With the film alone in doubt its two ends are run; else the time is taken as linear in both.
    pub(super) fn range(&self, middle: Span, at: impl Fn(f64, f64) -> Option<Span>) -> Option<(Span, Span)> {
        let air_sd = self.air_sd.k();
        if air_sd <= 0.0 {
            let reach = RANGE_SDS * self.ln_film_sd;
            return at(reach, 0.0).zip(at(-reach, 0.0)).map(|(a, b)| if a < b { (a, b) } else { (b, a) });
        }
        let by_film = (at(FILM_LN_STEP, 0.0)? - middle).s() / FILM_LN_STEP;
        let by_air = (at(0.0, -AIR_STEP_K)? - middle).s() / -AIR_STEP_K;
        let variance = (by_film * self.ln_film_sd).powi(2)
            + (by_air * air_sd).powi(2)
            + 2.0 * self.correlation * by_film * self.ln_film_sd * by_air * air_sd;
        let reach = RANGE_SDS * variance.max(0.0).sqrt();
        Some((Span::new_s((middle.s() - reach).max(0.0)), Span::new_s(middle.s() + reach)))
    }
}

/// A question to the cold station.
#[derive(Debug, Clone)]
pub struct ChillQuestion {
    pub(super) composition: Composition,
    pub(super) piece: Piece,
    pub(super) wrap: Wrap,
    pub(super) support: Support,
    pub(super) start: Temperature,
    pub(super) place: Place,
    pub(super) target: Target,
    /// In the cold at least so long.
    pub(super) least: Span,
}

impl ChillQuestion {
    /// A question with its values checked: start from -30 to 45 degC, sizes as [`Piece::checked`].
    pub fn new(
        composition: Composition,
        piece: Piece,
        wrap: Wrap,
        support: Support,
        start_c: f64,
        place: Place,
        target: Target,
    ) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        checks.range("start_c", start_c, -30.0, 45.0, "\u{b0}C");
        let piece = checks.take("piece", piece.checked());
        checks.finish(())?;
        Ok(Self {
            composition,
            piece: piece.expect("checked"),
            wrap,
            support,
            start: Temperature::new_c(start_c),
            place,
            target,
            least: target.least(),
        })
    }
}

impl ChillQuestion {
    /// Working temperatures of the dough, where it has any.
    #[must_use]
    pub fn window(&self) -> Option<Window> {
        Window::of(&self.composition)
    }

    /// What the piece is wanted for.
    #[must_use]
    pub fn target(&self) -> Target {
        self.target
    }

    /// The same question from another temperature of the whole piece.
    #[must_use]
    pub(crate) const fn start(&self) -> Temperature {
        self.start
    }

    pub(crate) fn starting(self, start: Temperature) -> Self {
        Self { start, ..self }
    }

    /// The piece.
    #[must_use]
    pub fn piece(&self) -> Piece {
        self.piece
    }

    /// The same question for another purpose.
    #[must_use]
    pub(crate) fn wanted_for(self, target: Target) -> Self {
        Self { target, least: target.least(), ..self }
    }

    /// The same question of a dough that lies in the cold at least so long, however cold it is: flour that was rubbed in takes up water, gluten slackens.
    #[must_use]
    pub(crate) fn resting(self, least: Span) -> Self {
        Self { least: if least > self.least { least } else { self.least }, ..self }
    }

    /// The same question in another place.
    #[must_use]
    pub(crate) fn in_place(self, place: Place) -> Self {
        Self { place, ..self }
    }

    /// The same question for another piece of the same dough.
    pub fn of_piece(&self, piece: Piece) -> Result<Self, InputErrors> {
        Ok(Self { piece: piece.checked().map_err(|e| e.within("piece"))?, ..self.clone() })
    }
}

/// The answer.
#[derive(Debug, Clone)]
pub struct ChillAnswer {
    /// The whole run, the start first.
    pub curve: Vec<Sample>,
    /// From when it can be worked; `None` when it never can, and then `never` says why.
    pub ready_after: Option<Span>,
    /// From when it is best, where that is another time and comes within a day.
    pub best_after: Option<Span>,
    /// When a thermometer first shows it cold enough; its fat may set until later.
    pub cold_enough_after: Option<Span>,
    /// The range that holds it nine times in ten: with a film a quarter better and a fifth worse where nothing was learnt.
    pub ready_between: Option<(Span, Span)>,
    /// When it has become too cold for its purpose, within a day.
    pub past_after: Option<Span>,
    /// Why it never gets ready.
    pub never: Option<Never>,
    /// The working temperatures of this dough, where it has any.
    pub window: Option<Window>,
    /// Whether its water was taken to freeze.
    pub water: WaterState,
}

/// Of a chill, in whole minutes as a baker is told them: ready no sooner than it is, its range outward, too cold no later than it is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct ToldMinutes {
    /// Until it can be worked, at least one.
    pub ready: i64,
    /// Until it is best; where that is no other time or never comes, the same.
    pub best: i64,
    /// The sooner end of its range.
    pub earliest: i64,
    /// The later end.
    pub latest: i64,
    /// Until it is too cold, where it will be within a day.
    pub past: Option<i64>,
}

impl ToldMinutes {
    /// When it is ready.
    #[must_use]
    pub fn ready(&self) -> Span {
        Span::new_min(f64::from(i32::try_from(self.ready).unwrap_or(i32::MAX)))
    }
}

impl ChillAnswer {
    /// As a baker is told it; nothing where it is never ready.
    #[must_use]
    pub fn told(&self) -> Option<ToldMinutes> {
        let ready = self.ready_after?;
        let (earliest, latest) = self.ready_between.unwrap_or((ready, ready));
        let ready = ready.min_up().max(1);
        Some(ToldMinutes {
            ready,
            best: self.best_after.map_or(ready, |best| best.min_up().max(ready)),
            earliest: earliest.min_down().min(ready),
            latest: latest.min_up().max(ready),
            past: self.past_after.map(Span::min_down),
        })
    }
}

/// So much beyond its end a chill is drawn, so that the end is seen. Our own choice.
const BEYOND: f64 = 1.15;

/// How far a chill is drawn: beyond where it is too cold, or beyond twice what it takes to be ready; nothing of one that never is.
#[must_use]
pub fn drawn_to(ready: Option<Span>, past: Option<Span>) -> Option<Span> {
    Some(past.or(ready.map(|r| r * 2.0))? * BEYOND)
}

/// Runs the piece in its place until its purpose is met and past, or the place's temperature is reached, and twice more
/// for the band of its ready time.
///
/// By how firm the fat is: the softest point or the whole counts as ready, by the purpose ([`Target::softest_counts`]), the whole as too cold; a wanted
/// temperature is a thermometer's. At most a day is looked at.
#[must_use]
pub fn chill(question: &ChillQuestion) -> ChillAnswer {
    answer(question, true)
}

/// As [`chill`] without the band, in a third of the time: for comparing many ways.
#[must_use]
pub fn chill_briefly(question: &ChillQuestion) -> ChillAnswer {
    answer(question, false)
}

fn answer(question: &ChillQuestion, with_band: bool) -> ChillAnswer {
    let thermal = Thermal::new(&question.composition, question.start, question.place.air);
    let window = Window::of(&question.composition);
    let answer = |ready_after, past_after, curve, never| ChillAnswer {
        curve,
        ready_after,
        best_after: None,
        cold_enough_after: None,
        ready_between: None,
        past_after,
        never,
        window,
        water: thermal.water(),
    };
    let Some(limits) = limits(question, window.as_ref()) else {
        let run = run(question, &thermal, (0.0, 0.0), &|_| false);
        return answer(None, None, run, Some(Never::LiquidFat));
    };
    let least = question.least;
    let best = window.and_then(|w| w.best(question.target));
    let done = |s: &Sample| {
        limits.met(s)
            && s.after >= least
            && best.is_none_or(|best| s.softest <= best)
            && limits.past_below.is_none_or(|cold| s.felt < cold)
    };
    let curve = run(question, &thermal, (0.0, 0.0), &done);
    let no_sooner = |after: Span| if after > least { after } else { least };
    let ready_after = limits.crossing(&curve).map(no_sooner);
    // Its outside may be too cold before its middle is ready: then it is past as soon as it is ready, and has to rest.
    let past_after = limits.past_below.and_then(|cold| falls_below(&curve, cold));
    let past_after = match (past_after, ready_after) {
        (Some(past), Some(ready)) if past < ready => Some(ready),
        (past, Some(_)) => past,
        (_, None) => None,
    };
    let never = ready_after.is_none().then(|| limits.never(question, &curve));
    let mut answer = answer(ready_after, past_after, curve, never);
    answer.cold_enough_after = limits.cold_enough(&answer.curve);
    let best = best.and_then(|best| crossing(&answer.curve, |s| s.softest.c(), best.c())).map(no_sooner);
    answer.best_after = best.zip(ready_after).filter(|(best, ready)| best > ready).map(|(best, _)| best);
    if with_band && ready_after.is_some() {
        let at = |ln_film: f64, air_k: f64| {
            limits.crossing(&run(question, &thermal, (ln_film, air_k), &|s| limits.met(s))).map(no_sooner)
        };
        answer.ready_between = ready_after.and_then(|ready| question.place.doubt.range(ready, at));
    }
    answer
}

/// The question's piece left where it is for so long, whatever it is wanted for.
pub(crate) fn left_for(question: &ChillQuestion, longest: Span) -> Vec<Sample> {
    let thermal = Thermal::new(&question.composition, question.start, question.place.air);
    let alike = matches!(question.support, Support::Rack);
    let mut body = Body::new(&thermal, question.piece, question.wrap, question.start, alike);
    body.leave(question.place.air, question.place.film, question.support, longest, |_| false)
}

/// The question's piece left for so long in a place whose air changes: what the air is half way through each of its steps.
pub(crate) fn left_through(
    question: &ChillQuestion,
    step: Span,
    longest: Span,
    air_at: impl Fn(Span) -> Temperature,
) -> Vec<Sample> {
    let coldest = if air_at(Span::new_s(0.0)) < question.start { air_at(Span::new_s(0.0)) } else { question.start };
    let thermal = Thermal::new(&question.composition, question.start, coldest);
    let alike = matches!(question.support, Support::Rack);
    let mut body = Body::new(&thermal, question.piece, question.wrap, question.start, alike);
    let mut found: Vec<Sample> = Vec::new();
    let mut from = Span::new_s(0.0);
    while from < longest {
        let span = if longest - from < step { longest - from } else { step };
        let seen = body.leave(air_at(from + span * 0.5), question.place.film, question.support, span, |_| false);
        // The state at the end of a step is the first of the next.
        let skip = usize::from(!found.is_empty());
        found.extend(seen.iter().skip(skip).map(|s| Sample { after: from + s.after, ..*s }));
        from = from + span;
    }
    found
}

/// Whether a piece is as warm or cold as its place, and its fat has set as far as it will.
pub(super) fn settled(s: &Sample, air: Temperature) -> bool {
    [s.warmest, s.coldest, s.softest].iter().all(|t| (*t - air).k().abs() < SETTLED_K)
}

/// A run with the film's logarithm and the air (K) off by so much.
fn run(
    question: &ChillQuestion,
    thermal: &Thermal,
    (ln_film, air_k): (f64, f64),
    done: &dyn Fn(&Sample) -> bool,
) -> Vec<Sample> {
    let alike = matches!(question.support, Support::Rack);
    let mut body = Body::new(thermal, question.piece, question.wrap, question.start, alike);
    let film = Film::new_w_m2k(question.place.film.w_m2k() * ln_film.exp());
    let air = question.place.air + TemperatureDifference::new_k(air_k);
    body.leave(air, film, question.support, HORIZON, |s| done(s) || settled(s, air))
}

/// What of a piece counts as ready.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Counts {
    /// How firm it is on the whole.
    Whole,
    /// How firm its softest point is.
    Softest,
    /// A thermometer's reading of its warmest point.
    Thermometer,
}

/// What must hold for the purpose.
pub(super) struct Limits {
    warming: bool,
    counts: Counts,
    core: Temperature,
    past_below: Option<Temperature>,
}

fn limits(question: &ChillQuestion, window: Option<&Window>) -> Option<Limits> {
    if let Target::Core(core) = question.target {
        return Some(Limits { warming: core > question.start, counts: Counts::Thermometer, core, past_below: None });
    }
    let working = window?.working(question.target);
    let counts = if question.target.softest_counts() { Counts::Softest } else { Counts::Whole };
    Some(Limits { warming: false, counts, core: working.to, past_below: working.from })
}

impl Limits {
    fn core_of(&self, s: &Sample) -> f64 {
        match self.counts {
            _ if self.warming => -s.coldest.c(),
            Counts::Whole => s.felt.c(),
            Counts::Softest => s.softest.c(),
            Counts::Thermometer => s.warmest.c(),
        }
    }

    fn limit(&self) -> f64 {
        if self.warming { -self.core.c() } else { self.core.c() }
    }

    fn met(&self, s: &Sample) -> bool {
        self.core_of(s) <= self.limit()
    }

    fn crossing(&self, curve: &[Sample]) -> Option<Span> {
        crossing(curve, |s| self.core_of(s), self.limit())
    }

    fn cold_enough(&self, curve: &[Sample]) -> Option<Span> {
        let of = |s: &Sample| match self.counts {
            _ if self.warming => -s.coldest.c(),
            Counts::Whole => s.mean.c(),
            Counts::Softest | Counts::Thermometer => s.warmest.c(),
        };
        crossing(curve, of, self.limit())
    }

    fn never(&self, question: &ChillQuestion, curve: &[Sample]) -> Never {
        let air = question.place.air.c();
        if !self.warming && air > self.core.c() - 0.2 || self.warming && air < self.core.c() + 0.2 {
            Never::PlaceIsAt { lies: question.place.lies(), air: question.place.air, core: self.core }
        } else {
            Never::NotWithinADay { core: curve.last().map_or(question.start, |s| s.warmest) }
        }
    }
}

fn crossing(curve: &[Sample], value: impl Fn(&Sample) -> f64, limit: f64) -> Option<Span> {
    let i = curve.iter().position(|s| value(s) <= limit)?;
    if i == 0 {
        return Some(curve[0].after);
    }
    let (before, after) = (&curve[i - 1], &curve[i]);
    let along = (value(before) - limit) / (value(before) - value(after));
    Some(before.after + (after.after - before.after) * along)
}

fn falls_below(curve: &[Sample], cold: Temperature) -> Option<Span> {
    crossing(curve, |s| s.felt.c(), cold.c())
}

/// How long a piece that has a temperature all through must lie wrapped on a bench of `room` before its mean is at `until`. Zero when it
/// is not too cold; `None` when the room never gets it there.
#[must_use]
pub fn tempering_to(
    composition: &Composition,
    piece: Piece,
    from: Temperature,
    room: Temperature,
    until: Temperature,
) -> Option<Span> {
    if from >= until {
        return Some(Span::new_s(0.0));
    }
    let thermal = Thermal::new(composition, from, from);
    warming(&thermal, piece, Wrap::Wrapped, (from, from), room, until)
}

/// A piece of one dough on paper on a bench at room temperature.
#[derive(Debug, Clone)]
pub struct Bench {
    thermal: Thermal,
    piece: Piece,
    room: Temperature,
    too_warm: Temperature,
}

impl Bench {
    /// A bench of `room`, for pieces of a dough that are worked between these temperatures.
    #[must_use]
    pub fn new(composition: &Composition, piece: Piece, working: Working, room: Temperature) -> Self {
        let coldest = working.from.unwrap_or(working.to);
        Self { thermal: Thermal::new(composition, coldest, coldest), piece, room, too_warm: working.to }
    }

    /// How long the piece stays workable from a temperature and a firmness (the temperature at which its fat, once set, would be as firm):
    /// until its mean is too soft for its purpose. `None` when the room is too cool to warm it that far within a day.
    #[must_use]
    pub fn stays_workable(&self, start: Temperature, felt: Temperature) -> Option<Span> {
        warming(&self.thermal, self.piece, Wrap::Open, (start, felt), self.room, self.too_warm)
    }
}

fn warming(
    thermal: &Thermal,
    piece: Piece,
    wrap: Wrap,
    (start, felt): (Temperature, Temperature),
    room: Temperature,
    until: Temperature,
) -> Option<Span> {
    let mut body = Body::new(thermal, piece, wrap, start, false).as_firm_as_at(felt);
    let curve = body.leave(room, BENCH_FILM, Support::Bench { bench: room }, HORIZON, |s| {
        s.felt >= until || (s.felt - room).k().abs() < SETTLED_K
    });
    crossing(&curve, |s| -s.felt.c(), -until.c())
}
