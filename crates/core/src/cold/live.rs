//! A piece that lies in the cold (or on the bench) now: what the readings say of its places, how it is, when it is ready and for
//! how long.

use super::fit::{Fit, PieceInPlace, PlaceKnowledge, Reading, Spot, check_readings, shown};
use super::never::Never;
use super::piece::{Piece, Support, Wrap};
use super::report::{HORIZON, Place, settled};
use super::solver::{Body, Sample};
use super::thermal::{Thermal, WaterState};
use super::window::{Feeling, Side, Target, Window};
use crate::dough::Composition;
use crate::error::{Checks, InputError, InputErrors};
use crate::safety::COLD;
use crate::units::{Film, Span, Temperature, TemperatureDifference};

/// The most places of one piece in turn.
pub const MOST_STAYS: usize = 40;

/// A time in one place, from a moment on until the next stay begins.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LiveStay {
    /// Since the piece was first put somewhere.
    pub from: Span,
    /// Where, as it is set.
    pub place: Place,
    /// On what.
    pub support: Support,
    /// What was known of the place before.
    pub before: PlaceKnowledge,
}

/// A piece that is followed, with where it has been.
#[derive(Debug, Clone, PartialEq)]
pub struct Tracked {
    composition: Composition,
    piece: Piece,
    wrap: Wrap,
    start: Temperature,
    target: Target,
    /// In the cold at least so long.
    least: Span,
    stays: Vec<LiveStay>,
}

/// A followed piece as its readings tell it.
#[derive(Debug, Clone)]
pub struct Live {
    /// Stay by stay, what its readings taught of its place.
    pub fits: Vec<Fit>,
    /// Readings that were set aside, by their position among all.
    pub set_aside: Vec<usize>,
    /// The whole run, from when it was first put somewhere, as far ahead as it changes.
    pub curve: Vec<Sample>,
    /// Since when, or when, it is ready; `None` when it is not going to be where it lies, and then `never` says why.
    pub ready_after: Option<Span>,
    /// The range that holds that nine times in ten; absent when it was ready before it came to where it lies.
    pub ready_between: Option<(Span, Span)>,
    /// When it is no longer ready, after it was.
    pub past_after: Option<Span>,
    /// Why it does not get ready where it lies.
    pub never: Option<Never>,
    /// Working temperatures, where the dough has any.
    pub window: Option<Window>,
    /// Whether its water was taken to freeze.
    pub water: WaterState,
    /// Where it lies, as it is now thought to be.
    pub place: Place,
    target: Target,
    least: Span,
    spells: Vec<StaySpell>,
}

/// What must be known of a stay to tell how the piece is during it.
#[derive(Debug, Clone, Copy)]
struct StaySpell {
    from: Span,
    warming: bool,
    cold: bool,
}

impl Tracked {
    /// A piece with its values checked: start from -30 to 45 degC, sizes as [`Piece::checked`], one to 40 stays, the first
    /// from the beginning and each later than the one before. It may lie for months: once it is as cold as its place, nothing more
    /// is computed.
    pub fn new(
        composition: Composition,
        piece: Piece,
        wrap: Wrap,
        start_c: f64,
        target: Target,
        stays: Vec<LiveStay>,
    ) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        let piece = checks.take("piece", piece.checked());
        checks.range("start_c", start_c, -30.0, 45.0, "\u{b0}C");
        checks.limit("stays", stays.len(), MOST_STAYS, "moves");
        if stays.first().is_none_or(|s| s.from.s() != 0.0) {
            checks.push(InputError::refused("stays", "Start with the place it was first put in (from 0 s)."));
        }
        for (i, pair) in stays.windows(2).enumerate() {
            if pair[1].from <= pair[0].from {
                checks.push(InputError::refused(
                    format!("stays[{}]", i + 1),
                    "This move is earlier than the one before it. Put them in order.",
                ));
            }
        }
        checks.finish(())?;
        let piece = piece.expect("checked");
        Ok(Self { composition, piece, wrap, start: Temperature::new_c(start_c), target, least: target.least(), stays })
    }

    /// The same, of a dough that lies at least so long, as [`super::report`]'s question.
    #[must_use]
    pub(crate) fn resting(self, least: Span) -> Self {
        Self { least: if least > self.least { least } else { self.least }, ..self }
    }

    /// What it is made of.
    #[must_use]
    pub fn composition(&self) -> &Composition {
        &self.composition
    }

    /// Where it lay.
    #[must_use]
    pub fn stays(&self) -> &[LiveStay] {
        &self.stays
    }

    /// What is round it.
    #[must_use]
    pub fn wrap(&self) -> Wrap {
        self.wrap
    }

    /// The same piece in places that are really so much off from how they are set.
    pub(super) fn really(&self, off: &PlaceKnowledge) -> Result<Self, InputErrors> {
        let stays = self
            .stays
            .iter()
            .map(|s| LiveStay { place: off.apply(&s.place), before: PlaceKnowledge::default(), ..*s })
            .collect();
        Self::new(self.composition.clone(), self.piece, self.wrap, self.start.c(), self.target, stays)
    }

    /// What the readings say, each stay's for its place, in the order of the stays.
    ///
    /// Fails for readings before the beginning and for values no dough has; readings may come in any order.
    pub fn live(&self, readings: &[Reading]) -> Result<Live, InputErrors> {
        check_readings(readings)?;
        let coldest = self.stays.iter().map(|s| s.place.air().c()).fold(self.start.c(), f64::min);
        let thermal = Thermal::new(&self.composition, self.start, Temperature::new_c(coldest));
        let window = Window::of(&self.composition);
        let alike = self.stays.iter().all(|s| matches!(s.support, Support::Rack));
        let mut body = Body::new(&thermal, self.piece, self.wrap, self.start, alike);
        let mut live = Live {
            least: self.least,
            fits: Vec::new(),
            set_aside: Vec::new(),
            curve: Vec::new(),
            ready_after: None,
            ready_between: None,
            past_after: None,
            never: None,
            window,
            water: thermal.water(),
            place: self.stays[0].place,
            target: self.target,
            spells: Vec::new(),
        };
        for (i, stay) in self.stays.iter().enumerate() {
            let until = self.stays.get(i + 1).map(|next| next.from);
            let here: Vec<usize> = (0..readings.len())
                .filter(|&r| {
                    let after = readings[r].after;
                    after >= stay.from && until.is_none_or(|u| after < u)
                })
                .collect();
            let of_stay: Vec<Reading> =
                here.iter().map(|&r| Reading { after: readings[r].after - stay.from, ..readings[r] }).collect();
            let fit =
                PieceInPlace { body: &body, place: &stay.place, support: stay.support }.fit(&of_stay, &stay.before);
            live.set_aside.extend(fit.set_aside.iter().map(|&k| here[k]));
            let place = fit.place.apply(&stay.place);
            live.place = place;
            live.fits.push(fit);
            let warming = place.air() > body.mean();
            live.spells.push(StaySpell { from: stay.from, warming, cold: place.air() <= COLD });
            let begins = body.clone();
            let seen = match until {
                Some(until) => stay_until(&mut body, &place, stay.support, until - stay.from),
                None => body.leave(place.air(), place.film(), stay.support, HORIZON, settled_at(place.air())),
            };
            // The state at the end of the stay before is the first of this one.
            let skip = usize::from(!live.curve.is_empty());
            let first = live.curve.len() - skip;
            live.curve.extend(seen.iter().skip(skip).map(|s| Sample { after: stay.from + s.after, ..*s }));
            if until.is_none() {
                live.tell(first);
                live.range(first, &begins, stay);
            }
        }
        live.set_aside.sort_unstable();
        Ok(live)
    }
}

/// A stay that has ended: computed until the piece is as cold as the place, and held from then on.
fn stay_until(body: &mut Body, place: &Place, support: Support, longest: Span) -> Vec<Sample> {
    let mut seen = body.leave(place.air(), place.film(), support, longest, settled_at(place.air()));
    if let Some(last) = seen.last().copied()
        && last.after < longest
    {
        seen.push(Sample { after: longest, ..last });
    }
    seen
}

fn settled_at(air: Temperature) -> impl Fn(&Sample) -> bool {
    move |s: &Sample| settled(s, air)
}

impl Live {
    /// What a thermometer should show everywhere at a moment.
    #[must_use]
    pub fn at(&self, after: Span) -> Sample {
        Sample::at(&self.curve, after)
    }

    /// What a thermometer held at a spot should show at a moment.
    #[must_use]
    pub fn shows(&self, after: Span, spot: Spot) -> Temperature {
        shown(&self.at(after), spot, self.spell(after).warming)
    }

    /// How it is for its purpose at a moment, and how it feels; `None` where the dough has no window.
    #[must_use]
    pub fn feels(&self, after: Span) -> Option<(Side, Feeling)> {
        self.felt(&self.at(after), self.spell(after).warming)
    }

    /// Time spent in places warmer than 5 degC while warmer than that itself, up to a moment.
    #[must_use]
    pub fn out_of_the_cold(&self, until: Span) -> Span {
        let out = |pair: &[Sample]| {
            let (a, b) = (&pair[0], &pair[1]);
            let counts = !self.spell(a.after).cold && b.warmest > COLD && a.after < until;
            if counts { (b.after.s().min(until.s()) - a.after.s()).max(0.0) } else { 0.0 }
        };
        let run: f64 = self.curve.windows(2).map(out).sum();
        // Past the end of the curve nothing changes any more.
        let end = self.curve[self.curve.len() - 1];
        let rest = if !self.spell(until).cold && end.warmest > COLD { (until - end.after).s().max(0.0) } else { 0.0 };
        Span::new_s(run + rest)
    }

    /// Which stay a moment belongs to, by its position.
    #[must_use]
    pub fn stay_at(&self, after: Span) -> usize {
        self.spells.iter().rposition(|s| s.from <= after).unwrap_or(0)
    }

    fn spell(&self, after: Span) -> StaySpell {
        self.spells[self.stay_at(after)]
    }

    /// As [`Window::feels_at`], and not before it has lain as long as it must.
    fn felt(&self, s: &Sample, warming: bool) -> Option<(Side, Feeling)> {
        let felt = self.window?.feels_at(self.target, s, warming);
        // Its flour, or its core, takes longer than a thermometer tells.
        let sets = felt.0 == Side::Ready && s.after < self.least;
        Some(if sets { (Side::TooWarm, Feeling::StillSetting) } else { felt })
    }

    fn ready(&self, s: &Sample, warming: bool) -> bool {
        match self.target {
            Target::Core(wanted) => {
                if warming {
                    s.coldest >= wanted
                } else {
                    s.warmest <= wanted
                }
            }
            Target::Rolling | Target::RolledLater | Target::Slicing | Target::Oven => {
                self.felt(s, warming).is_some_and(|(side, _)| side == Side::Ready)
            }
        }
    }

    /// When readiness changes between two samples, to a hundredth of their distance.
    fn change(&self, a: &Sample, b: &Sample, warming: bool) -> Span {
        let from = self.ready(a, warming);
        let (mut low, mut high) = (a.after, b.after);
        for _ in 0..7 {
            let middle = (low + high) * 0.5;
            if self.ready(&Sample::between(a, b, middle), warming) == from { low = middle } else { high = middle }
        }
        high
    }

    /// The first moment from `first` on at which it is ready (or no longer), in the stay that goes on.
    fn first_when(&self, curve: &[Sample], first: usize, ready: bool) -> Option<(usize, Span)> {
        let warming = self.spells[self.spells.len() - 1].warming;
        let i = (first..curve.len()).find(|&i| self.ready(&curve[i], warming) == ready)?;
        Some((i, if i == first { curve[i].after } else { self.change(&curve[i - 1], &curve[i], warming) }))
    }

    /// Reads off the curve when it is ready and past, the last stay beginning at `first`.
    fn tell(&mut self, first: usize) {
        if self.window.is_none() && !matches!(self.target, Target::Core(_)) {
            self.never = Some(Never::LiquidFat);
            return;
        }
        let Some((at, moment)) = self.first_when(&self.curve, first, true) else {
            self.never = Some(self.why_never(first));
            return;
        };
        self.ready_after = Some(moment);
        if at == first {
            // Ready already when it came here: since when?
            let mut i = first;
            while i > 0 && self.ready(&self.curve[i - 1], self.spell(self.curve[i - 1].after).warming) {
                i -= 1;
            }
            let since =
                |i: usize| self.change(&self.curve[i - 1], &self.curve[i], self.spell(self.curve[i].after).warming);
            self.ready_after = Some(if i == 0 { self.curve[0].after } else { since(i) });
        }
        self.past_after = self.first_when(&self.curve, at, false).map(|(_, moment)| moment);
    }

    fn why_never(&self, first: usize) -> Never {
        let spell = self.spells[self.spells.len() - 1];
        let (begins, end) = (&self.curve[first], &self.curve[self.curve.len() - 1]);
        let air = self.place.air();
        let gets_too_cold =
            || self.curve[first..].iter().any(|s| self.felt(s, false).is_some_and(|(side, _)| side == Side::TooCold));
        match self.felt(begins, spell.warming) {
            Some((Side::TooCold, _)) if !spell.warming => Never::TooColdAlready { mean: begins.mean },
            Some((Side::TooCold, _)) => Never::TooCoolToSoften { air },
            Some((Side::TooWarm, _)) if spell.warming => Never::GettingWarmer { mean: begins.mean },
            _ if !spell.warming && gets_too_cold() => Never::RimFirst,
            _ => match (self.target, self.window) {
                (Target::Core(core), _) => Never::PlaceIsAt { lies: self.place.lies(), air, core },
                (target, Some(window)) => {
                    let core = window.working(target).to;
                    if air.c() > core.c() - 0.2 {
                        Never::PlaceIsAt { lies: self.place.lies(), air, core }
                    } else {
                        Never::NotWithinADay { core: end.warmest }
                    }
                }
                (_, None) => Never::LiquidFat,
            },
        }
    }

    /// The range of the ready time, where it gets ready where it lies.
    fn range(&mut self, first: usize, begins: &Body<'_>, stay: &LiveStay) {
        let Some(ready) = self.ready_after else { return };
        if ready <= stay.from && first > 0 || self.ready(&self.curve[first], self.spells[self.spells.len() - 1].warming)
        {
            return;
        }
        let place = self.place;
        let at = |ln_film: f64, air_k: f64| -> Option<Span> {
            let film = Film::new_w_m2k(place.film().w_m2k() * ln_film.exp());
            let air = place.air() + TemperatureDifference::new_k(air_k);
            let mut body = begins.clone();
            let warming = self.spells[self.spells.len() - 1].warming;
            let settled = settled_at(air);
            let curve = body.leave(air, film, stay.support, HORIZON, |s| self.ready(s, warming) || settled(s));
            self.first_when(&curve, 0, true).map(|(_, moment)| stay.from + moment)
        };
        self.ready_between = place.doubt().range(ready, at);
    }
}

#[cfg(test)]
mod tests {
    use super::super::{Piece, Spot, TrayKind, Wrap};
    use super::*;
    use crate::dough::{Composition, FatKind};
    use crate::units::Length;

    fn dough() -> Composition {
        Composition::from_analysis(0.1457, 0.2018, 0.0575, 0.5799, 0.0035, 0.0116, FatKind::Butter).unwrap()
    }

    fn stay(from_min: f64, air_c: f64, film: f64, support: Support) -> LiveStay {
        let place = Place::new(air_c, film).unwrap();
        LiveStay { from: Span::new_min(from_min), place, support, before: PlaceKnowledge::default() }
    }

    fn bench(from_min: f64, room_c: f64) -> LiveStay {
        stay(from_min, room_c, 9.0, Support::Bench { bench: Temperature::new_c(room_c) })
    }

    fn fridge(from_min: f64) -> LiveStay {
        stay(from_min, 4.0, 7.0, Support::Rack)
    }

    fn tracked(stays: Vec<LiveStay>) -> Tracked {
        let piece = Piece::Disc { thickness: Length::new_mm(22.0), diameter: Length::new_mm(180.0) };
        Tracked::new(dough(), piece, Wrap::Wrapped, 20.5, Target::Rolling, stays).unwrap()
    }

    fn reading(minutes: f64, shows: f64) -> Reading {
        Reading { after: Span::new_min(minutes), shows: Temperature::new_c(shows), spot: Spot::Core }
    }

    fn in_the_fridge(readings: &[Reading]) -> Live {
        tracked(vec![fridge(0.0)]).live(readings).unwrap()
    }

    fn word(l: &Live, minutes: f64) -> Feeling {
        l.feels(Span::new_min(minutes)).unwrap().1
    }

    #[test]
    fn without_readings_it_is_what_the_plan_says() {
        let l = in_the_fridge(&[]);
        assert_eq!(word(&l, 0.0), Feeling::Tacky);
        let ready = l.ready_after.unwrap();
        let (early, late) = l.ready_between.unwrap();
        assert!(early < ready && ready < late && l.past_after.unwrap() > late);
        // B disc 22 x 180 mm in film, 20.5 to 4, h 7: the core is at 16 after 36 min and at 12 after 76 (reference runs).
        let core = |m| l.at(Span::new_min(m)).warmest.c();
        assert!((core(36.0) - 16.0).abs() < 0.3 && (core(76.0) - 12.0).abs() < 0.3);
        assert_eq!((word(&l, 50.0), word(&l, 300.0)), (Feeling::RollsClean, Feeling::Cracks));
    }

    #[test]
    fn every_reading_narrows_the_range_and_moves_the_ready_time() {
        let all =
            [reading(6.0, 20.3), reading(12.0, 19.2), reading(18.0, 17.95), reading(24.0, 16.75), reading(30.0, 15.7)];
        let plain = in_the_fridge(&[]);
        let wide = |l: &Live| l.ready_between.map(|(a, b)| (b - a).s()).unwrap() / l.ready_after.unwrap().s();
        let mut last = wide(&plain);
        for n in 1..=all.len() {
            let l = in_the_fridge(&all[..n]);
            assert!(wide(&l) < last, "{n} readings: {} after {last}", wide(&l));
            last = wide(&l);
        }
        // Colder than expected at each reading: the fridge is stronger than assumed.
        assert!(in_the_fridge(&all).ready_after.unwrap() < plain.ready_after.unwrap());
    }

    #[test]
    fn a_reading_in_fahrenheit_does_not_turn_the_fridge_into_an_oven() {
        let sound = [reading(10.0, 20.1), reading(20.0, 18.4), reading(30.0, 16.8)];
        let with = [sound[0], sound[1], reading(25.0, 44.0), sound[2]];
        let (a, b) = (in_the_fridge(&sound), in_the_fridge(&with));
        assert_eq!(b.set_aside, [2]);
        assert!((a.ready_after.unwrap().min() - b.ready_after.unwrap().min()).abs() < 1.5);
    }

    #[test]
    fn taken_out_ready_it_stays_ready_on_the_bench_for_a_while_and_is_then_too_warm() {
        let l = tracked(vec![fridge(0.0), bench(60.0, 23.0)]).live(&[]).unwrap();
        let ready = l.ready_after.unwrap();
        assert!(
            (ready.min() - in_the_fridge(&[]).ready_after.unwrap().min()).abs() < 0.5,
            "ready since it was in the fridge"
        );
        let past = l.past_after.unwrap().min();
        assert!(past > 62.0 && past < 110.0, "{past}");
        assert_eq!((word(&l, 61.0), word(&l, past + 1.0)), (Feeling::RollsClean, Feeling::Tacky));
        assert!(l.ready_between.is_none() && l.never.is_none());
        assert!((l.out_of_the_cold(Span::new_min(90.0)).min() - 30.0).abs() < 0.1);
    }

    #[test]
    fn taken_out_too_cold_it_softens_on_the_bench() {
        let l = tracked(vec![fridge(0.0), bench(600.0, 22.0)]).live(&[]).unwrap();
        let ready = l.ready_after.unwrap().min();
        assert!(ready > 602.0 && ready < 640.0, "{ready}");
        assert_eq!((word(&l, 601.0), word(&l, ready + 1.0)), (Feeling::Cracks, Feeling::RollsClean));
        assert!(l.past_after.unwrap().min() > ready);
        assert!(l.ready_between.is_some_and(|(a, b)| a.min() < ready && ready < b.min()));
    }

    #[test]
    fn each_stay_learns_of_its_own_place_from_its_own_readings() {
        let stays = vec![fridge(0.0), stay(30.0, -18.0, 8.0, Support::Rack)];
        let plain = tracked(stays.clone()).live(&[]).unwrap();
        let seen: Vec<Reading> =
            [10.0, 15.0, 20.0, 25.0].map(|m| reading(m, plain.at(Span::new_min(m)).warmest.c() - 0.8)).to_vec();
        let l = tracked(stays).live(&seen).unwrap();
        assert!(l.fits[0].place.film_factor().1 > 1.0 && l.fits[1].place == PlaceKnowledge::default());
        assert_eq!((l.stay_at(Span::new_min(29.0)), l.stay_at(Span::new_min(30.0))), (0, 1));
    }

    #[test]
    fn what_never_gets_ready_says_why() {
        let warm = tracked(vec![stay(0.0, 19.0, 7.0, Support::Rack)]).live(&[]).unwrap();
        assert!(matches!(warm.never.unwrap(), Never::PlaceIsAt { air, .. } if air.c() == 19.0));
        let cold = tracked(vec![fridge(0.0), stay(700.0, -18.0, 8.0, Support::Rack)]).live(&[]).unwrap();
        assert!(matches!(cold.never.unwrap(), Never::TooColdAlready { .. }));
        let out = tracked(vec![bench(0.0, 24.0)]).live(&[]).unwrap();
        assert!(matches!(out.never.unwrap(), Never::GettingWarmer { .. }));
    }

    #[test]
    fn cut_pieces_get_firm_on_their_tray_and_stay_so() {
        let tray = Support::Tray { kind: TrayKind::Aluminium, start: Temperature::new_c(21.0) };
        let piece = Piece::Sheet { thickness: Length::new_mm(6.0) };
        let l =
            Tracked::new(dough(), piece, Wrap::Open, 18.0, Target::Oven, vec![stay(0.0, -18.0, 8.0, tray)]).unwrap();
        let l = l.live(&[]).unwrap();
        let ready = l.ready_after.unwrap().min();
        // Common practice: 5 to 10 min in the freezer.
        assert!(ready > 2.0 && ready < 10.0 && l.past_after.is_none(), "{ready}");
        assert_eq!((word(&l, 0.5), word(&l, 30.0)), (Feeling::Soft, Feeling::Firm));
    }

    #[test]
    fn stays_out_of_order_are_named() {
        let piece = Piece::Ball { diameter: Length::new_mm(100.0) };
        let new = |stays| Tracked::new(dough(), piece, Wrap::Open, 20.0, Target::Rolling, stays);
        let errors = new(vec![fridge(0.0), bench(30.0, 22.0), fridge(20.0)]).unwrap_err();
        assert_eq!(errors.all()[0].field(), "stays[2]");
        assert!(new(vec![]).is_err() && new(vec![fridge(5.0)]).is_err());
    }

    #[test]
    fn one_stay_in_two_parts_is_the_same_stay() {
        let (whole, parts) = (tracked(vec![fridge(0.0)]), tracked(vec![fridge(0.0), fridge(33.0)]));
        let (whole, parts) = (whole.live(&[]).unwrap(), parts.live(&[]).unwrap());
        for minutes in [10.0, 33.0, 50.0, 80.0] {
            let (a, b) = (whole.at(Span::new_min(minutes)), parts.at(Span::new_min(minutes)));
            assert!((a.warmest.c() - b.warmest.c()).abs() < 0.05, "{minutes}: {a:?} {b:?}");
        }
    }

    #[test]
    fn bench_fridge_bench_freezer_goes_the_way_bakers_know() {
        // 10 min on the bench, 40 in the fridge, 5 on the bench, then the freezer.
        let freezer = stay(55.0, -18.0, 8.0, Support::Rack);
        let bench = |from| stay(from, 22.0, 9.0, Support::Rack);
        let l = tracked(vec![bench(0.0), fridge(10.0), bench(50.0), freezer]).live(&[]).unwrap();
        let at = |minutes| l.at(Span::new_min(minutes));
        assert!(at(10.0).mean.c() > 20.4, "the bench is as warm as the dough");
        assert!(at(50.0).mean.c() < at(10.0).mean.c() - 5.0);
        assert!(at(55.0).surface.c() > at(50.0).surface.c(), "on the bench the skin warms");
        assert!(at(63.0).surface.c() < at(55.0).surface.c() - 2.0, "the freezer takes the skin first");
        let out = l.out_of_the_cold(Span::new_min(63.0));
        assert!((out.min() - 15.0).abs() < 1.0 && out < crate::safety::OUT_OF_THE_COLD, "{out:?}");
        assert!(l.curve.windows(2).all(|w| w[0].after <= w[1].after));
    }
}
