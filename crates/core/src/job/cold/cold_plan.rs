//! The cold station of a plan: how long the dough and the cut pieces chill, and what of it is whose time.

use crate::clock::{ChillWaits, MoreChill};
use crate::cold::ColdPlace;
use crate::cold::{
    Bench, ChillAnswer, ChillQuestion, Feeling, Piece, Sample, Support, Target, Window, Working, Wrap, chill, disc_of,
    left_for, tempering_to,
};
use crate::dough::Keeping;
use crate::error::{InputError, InputErrors, Problem};
use crate::job::answers::{BulkChill, ColdPlan, DoughPlan, FormSize, Thawing, TrayChill};
use crate::job::cold::chill_question::{first_chill, lump_of};
use crate::job::day::bench::first_sheets;
use crate::job::reasons::reason::Reason;
use crate::job::reasons::reason::Setting;
use crate::job::settings::chill_choice::ChillFor;
use crate::job::settings::chill_choice::ChillForm;
use crate::job::settings::chill_choice::OVERNIGHT;
use crate::job::settings::chill_choice::Thaw;
use crate::job::settings::job::Job;
use crate::job::settings::kitchen::Kitchen;
use crate::job::settings::making::Making;
use crate::job::shape::pieces::chilled_form;
use crate::shape::DemandAnswer;
use crate::units::{Span, Temperature, TemperatureDifference};

pub(crate) fn cold_plan(
    job: &Job,
    kitchen: &Kitchen,
    dough: &DoughPlan,
    demand: &DemandAnswer,
    window: &Window,
    keeping: Keeping,
) -> Result<ColdPlan, InputErrors> {
    let form = first_form(job, dough, demand)?;
    let piece = form.piece;
    let place = if job.portions_first() { job.input().cold.tray_chill_place } else { job.dough_place() };
    let bulk = bulk_chill(job, kitchen, dough, window)?;
    let mut question = first_chill(job, kitchen, dough, piece, place)?;
    if let Some(bulk) = &bulk {
        question = question.starting(bulk.formed);
    }
    let target = question.target();
    let answer = chill(&question);
    let (stays, least) = job.first_for();
    must_get_ready(&answer, stays, if job.portions_first() { "tray_chill_place" } else { "chill_place" })?;
    let mut out = comes_out(&question, &answer, stays, least);
    let thaw = job.thaws().map(|way| thaw(way, kitchen, dough, piece, window.working(target).from)).transpose()?;
    if let Some(Thawing { way: Thaw::Bench, at, span }) = thaw {
        out = Sample { mean: at, felt: at, after: span, ..out };
    }
    let feels = window.feels_at(target, &out, false).1;
    let worked = as_worked(job, kitchen, window, &out);
    let tray_chill = tray_chill(job, kitchen, dough, piece, (&out, worked))?;
    let air = kitchen.place(place).air();
    let working = window.working(target);
    // What is cut is rolled to a sheet first; logs and portions lie on the bench as they are.
    let on_the_bench =
        if job.input().shape.making == Making::Cut { Piece::Sheet { thickness: job.thickness() } } else { piece };
    let rolled = matches!(target, Target::Rolling | Target::RolledLater);
    let on_it = if rolled { Working { to: window.bench_to(), ..working } } else { working };
    let bench = Bench::new(&dough.composition, on_the_bench, on_it, kitchen.room());
    let coldest = working.from.map_or(air, |from| if from > air { from } else { air });
    let after_night = match working.from {
        Some(from) => tempering_to(&dough.composition, piece, air, kitchen.room(), from),
        None => Some(Span::new_s(0.0)),
    };
    let mixed = Reason::LeavesTheMixer { at: dough.temperature, measured: dough.temperature_measured };
    let mut reasons: Vec<Reason> = thaw.is_none().then_some(mixed).into_iter().collect();
    reasons.extend(can_and_best(&answer).filter(|_| stays.waits_for_ready() && thaw.is_none()));
    // What was frozen has rested.
    let rests = if stays == ChillFor::No || thaw.is_some() { Span::new_s(0.0) } else { job.flour_rest() };
    if rests.min() > 0.0 {
        reasons.push(Reason::RestsForItsFlour { at_least: rests });
    }
    let setting = |what, answer| {
        if job.portions_first() { still_sets(Setting::CutPiece, answer) } else { still_sets(what, answer) }
    };
    reasons.extend(setting(Setting::Dough, &answer).filter(|_| stays.waits_for_ready()));
    let tray_sets = tray_chill.as_ref().filter(|t| t.stays.waits_for_ready());
    reasons.extend(tray_sets.and_then(|t| still_sets(Setting::CutPiece, &t.answer)));
    let mut means = what_it_means(job, window, (stays, &answer, &out, feels), (tray_chill.as_ref(), worked));
    if let Some(thaw) = thaw {
        means.0 = vec![Reason::ThawsOnly { way: thaw.way, span: thaw.span }, Reason::NeverTwice];
    }
    means.0.extend(bulk.as_ref().map(|b| Reason::BulkFirst { formed: b.formed }));
    reasons.push(if kitchen.known(place).air_taught {
        Reason::RangeOfReadings { place }
    } else {
        Reason::RangeOfTheFilm
    });
    Ok(ColdPlan {
        form,
        place,
        air,
        stays,
        out,
        feels,
        target,
        question,
        tempering_after_night: after_night,
        window: *window,
        bench: {
            // What is too cold rests first, until it can be worked.
            let rested = |t: Temperature| working.from.map_or(t, |from| if t < from { from } else { t });
            bench.stays_workable(rested(out.mean), rested(out.felt))
        },
        bench_longest: bench.stays_workable(coldest, coldest),
        answer,
        tray_chill,
        bulk,
        thaw,
        flour_rest: rests,
        recipe: None,
        keeping,
        means,
        reasons,
    })
}

/// Hands warm dough by so much while they form it, K. Common practice, no source.
const FORMING_WARMS: TemperatureDifference = TemperatureDifference::new_k(2.0);

/// The dough of logs in the cold as a lump, before they are formed; nothing where they are formed at once.
fn bulk_chill(
    job: &Job,
    kitchen: &Kitchen,
    dough: &DoughPlan,
    window: &Window,
) -> Result<Option<BulkChill>, InputErrors> {
    let (stays, least) = job.bulk_for();
    if stays == ChillFor::No {
        return Ok(None);
    }
    let place = job.dough_place();
    let piece = lump_of(dough.mixes.each, dough.density);
    let question = first_chill(job, kitchen, dough, piece, place)?;
    let answer = chill(&question);
    must_get_ready(&answer, stays, "chill_place")?;
    let out = comes_out(&question, &answer, stays, least);
    // Too hard to be formed, it waits until it can be.
    let rest = tempering_to(&dough.composition, piece, out.mean, kitchen.room(), window.rolls_from);
    let workable = if out.mean < window.rolls_from { window.rolls_from } else { out.mean };
    let (warmed, room) = (workable + FORMING_WARMS, kitchen.room());
    let formed = if warmed > room && room > workable { room } else { warmed };
    let least_min = least_min(&answer, stays, least);
    Ok(Some(BulkChill { piece, place, stays, least_min, rest_min: rest.map_or(0, Span::min_up), out, formed, answer }))
}

/// Dough out of the freezer until it can be worked.
fn thaw(
    way: Thaw,
    kitchen: &Kitchen,
    dough: &DoughPlan,
    piece: Piece,
    until: Option<Temperature>,
) -> Result<Thawing, InputErrors> {
    let at = until.unwrap_or(dough.temperature);
    let from = match way {
        Thaw::Bench => kitchen.place(ColdPlace::Freezer).air(),
        Thaw::Fridge => kitchen.place(ColdPlace::Fridge).air(),
    };
    let rest = tempering_to(&dough.composition, piece, from, kitchen.room(), at).ok_or_else(|| {
        InputError::refused(
            "thaws",
            "Your room is too cold to bring this dough to working temperature. Thaw it in the fridge and work it there.",
        )
    })?;
    Ok(Thawing { way, at, span: rest })
}

/// What goes into the cold first: the lump, disc, sheets or log that the dough is formed to, or the portions.
fn first_form(job: &Job, dough: &DoughPlan, demand: &DemandAnswer) -> Result<FormSize, InputErrors> {
    let (first, density, sheets) = (&demand.rolls[0], dough.density, first_sheets(demand));
    let whole = |piece, count, mass| FormSize { piece, count, mass };
    if job.portions_first() {
        let piece = chilled_form(&job.input().shape.making, density)?;
        return Ok(whole(piece.unwrap_or(Piece::Sheet { thickness: job.thickness() }), sheets, first.mass));
    }
    Ok(match job.chill_form() {
        ChillForm::Lump => {
            let mass = dough.mixes.each;
            whole(lump_of(mass, density), dough.mixes.count, mass)
        }
        ChillForm::Disc { thickness } => whole(disc_of(first.mass, thickness, density), sheets, first.mass),
        ChillForm::Sheets { stack } => {
            // No more lie on each other than there are.
            let count = stack.min(sheets.max(1));
            let piece = if count > 1 {
                Piece::Stack { thickness: job.thickness(), count }
            } else {
                Piece::Sheet { thickness: job.thickness() }
            };
            whole(piece, sheets.div_ceil(count), first.mass * f64::from(count))
        }
        ChillForm::Log => {
            let piece = chilled_form(&job.input().shape.making, density)?;
            whole(piece.unwrap_or(Piece::Sheet { thickness: job.thickness() }), sheets, first.mass)
        }
    })
}

/// A plan that waits until it is ready needs a place where it gets so.
fn must_get_ready(answer: &ChillAnswer, stays: ChillFor, field: &str) -> Result<(), InputErrors> {
    match answer.never {
        Some(never) if stays.waits_for_ready() => Err(InputError::new(field, Problem::NeverReady(never)).into()),
        _ => Ok(()),
    }
}

/// The shaped pieces on their tray before the oven; nothing where they go in as they are.
fn tray_chill(
    job: &Job,
    kitchen: &Kitchen,
    dough: &DoughPlan,
    first: Piece,
    (dough_out, worked): (&Sample, Temperature),
) -> Result<Option<TrayChill>, InputErrors> {
    let (stays, least) = job.second_for();
    if stays == ChillFor::No {
        return Ok(None);
    }
    let place = job.input().cold.tray_chill_place;
    // Cut pieces have warmed while they were rolled and cut. Slices have not.
    let start = if matches!(first, Piece::Log { .. } | Piece::Bar { .. }) && job.dough_for() != ChillFor::No {
        dough_out.mean
    } else {
        worked
    };
    let question = match chilled_form(&job.input().shape.making, dough.density)? {
        Some(portion) if job.portions_from_cold() => {
            crate::job::cold::portion_chill::portion_question(kitchen, dough, portion, place)?.starting(start)
        }
        _ => ChillQuestion::new(
            dough.composition.clone(),
            Piece::Sheet { thickness: job.thickness() },
            Wrap::Open,
            Support::Tray { kind: kitchen.tray_kind(), start: kitchen.room() },
            start.c(),
            kitchen.place(place),
            Target::Oven,
        )?,
    };
    let answer = chill(&question);
    must_get_ready(&answer, stays, "tray_chill_place")?;
    let out = comes_out(&question, &answer, stays, least);
    Ok(Some(TrayChill { place, start, stays, least_min: least_min(&answer, stays, least), out, answer, question }))
}

/// As warm as dough is once it is rolled and cut: half way from the window's warm end to the room, since a thin sheet takes on half the difference to the
/// bench meanwhile; as it was, where it was not chilled or is warmer.
fn as_worked(job: &Job, kitchen: &Kitchen, window: &Window, out: &Sample) -> Temperature {
    let warm = Temperature::new_c(f64::midpoint(window.rolls_to.c(), kitchen.room().c()));
    if job.first_for().0 == ChillFor::No || out.mean > warm { out.mean } else { warm }
}

/// From when it can be worked, how warm its middle is then, and from when it is best.
fn can_and_best(answer: &ChillAnswer) -> Option<Reason> {
    let told = answer.told()?;
    let minutes = |m: i64| Span::new_min(f64::from(i32::try_from(m).unwrap_or(i32::MAX)));
    let middle = at_ready(answer)?.warmest;
    Some(Reason::CanBeWorked { from: told.ready(), middle, best: (told.best > told.ready).then(|| minutes(told.best)) })
}

/// At least so long in the cold, min.
pub(crate) fn least_min(answer: &ChillAnswer, stays: ChillFor, least: Span) -> i64 {
    match stays {
        ChillFor::No => 0,
        ChillFor::Ready => slow_end(answer),
        ChillFor::Best => slow_end(answer).max(answer.told().map_or(0, |t| t.best)),
        ChillFor::AtLeast => slow_end(answer).max(least.min_up()),
        ChillFor::Exactly => least.min_up().max(1),
        ChillFor::Overnight => OVERNIGHT.0.min_up(),
    }
}

/// A piece as it comes out.
fn comes_out(question: &ChillQuestion, answer: &ChillAnswer, stays: ChillFor, least: Span) -> Sample {
    let minutes = |m: i64| Span::new_min(f64::from(i32::try_from(m).unwrap_or(i32::MAX)));
    let until = match stays {
        ChillFor::No => Span::new_s(0.0),
        ChillFor::Ready => match at_ready(answer) {
            Some(sample) => return sample,
            None => Span::new_s(0.0),
        },
        ChillFor::Best => match answer.best_after {
            Some(best) => best,
            None => match at_ready(answer) {
                Some(sample) => return sample,
                None => Span::new_s(0.0),
            },
        },
        ChillFor::AtLeast => match at_ready(answer) {
            Some(sample) if sample.after >= least => return sample,
            _ => least,
        },
        ChillFor::Exactly | ChillFor::Overnight => minutes(least_min(answer, stays, least)),
    };
    // What was in there for a day is as cold as its place.
    let day = Span::new_min(24.0 * 60.0);
    let run = left_for(question, if until < day { until } else { day });
    run.last().copied().unwrap_or_else(|| answer.curve[0])
}

/// What it means that the dough, and that the pieces, stay in the cold as long as they do.
fn what_it_means(
    job: &Job,
    window: &Window,
    (stays, answer, out, feels): (ChillFor, &ChillAnswer, &Sample, Feeling),
    (tray, worked): (Option<&TrayChill>, Temperature),
) -> (Vec<Reason>, Vec<Reason>) {
    if job.portions_first() {
        return (vec![], means(Setting::CutPiece, stays, answer, out, feels).into_iter().collect());
    }
    let mut dough: Vec<Reason> = means(Setting::Dough, stays, answer, out, feels).into_iter().collect();
    if stays == ChillFor::No && job.flour_rest().min() > 0.0 {
        dough.push(Reason::FlourNotRested { usually: job.flour_rest() });
    }
    let pieces = match tray {
        Some(tray) => {
            let feels = window.feels_at(Target::Oven, &tray.out, false).1;
            means(Setting::CutPiece, tray.stays, &tray.answer, &tray.out, feels)
        }
        None if job.input().shape.making == Making::Cut => Some(Reason::PiecesNotChilled { at: worked }),
        None => None,
    };
    (dough, pieces.into_iter().collect())
}

fn means(what: Setting, stays: ChillFor, answer: &ChillAnswer, out: &Sample, feels: Feeling) -> Option<Reason> {
    match stays {
        ChillFor::No => Some(Reason::NotChilled { what, at: out.mean, feels }),
        ChillFor::Ready | ChillFor::Best | ChillFor::AtLeast => None,
        ChillFor::Exactly => Some(Reason::ChilledFor {
            what,
            span: out.after,
            at: out.mean,
            feels,
            ready: answer.told().map(|t| t.ready()),
        }),
        ChillFor::Overnight => Some(Reason::ChilledOvernight { what }),
    }
}

/// What of a chill is the fat's own time.
fn still_sets(what: Setting, answer: &ChillAnswer) -> Option<Reason> {
    let (cold, ready) = (answer.cold_enough_after?.whole_up(), answer.told()?.ready());
    (ready > cold).then(|| Reason::StillSets { what, cold_enough: cold, more: ready - cold })
}

fn at_ready(answer: &ChillAnswer) -> Option<Sample> {
    let ready = answer.ready_after?;
    answer.curve.iter().find(|s| s.after >= ready).copied()
}

/// Minutes after which a chill counts as done: the slow end of its range.
pub(crate) fn slow_end(answer: &ChillAnswer) -> i64 {
    answer.told().map_or(0, |t| t.latest)
}

/// Why dough is in the cold for as long as it is at least: what of it is the chill, its range, and what it waits for beyond that.
pub(crate) fn chill_waits(cold: &ColdPlan, chill_min: i64, flour_rest_min: i64) -> Option<ChillWaits> {
    if cold.thaw.is_some() || matches!(cold.stays, ChillFor::No | ChillFor::Exactly) {
        return None;
    }
    let (ready_min, slow) = cold.answer.told().map_or((0, 0), |t| (t.ready, t.latest));
    let more = chill_min - slow;
    let waits = ChillWaits {
        ready_min,
        slow_min: slow - ready_min,
        more: match (more, cold.stays) {
            (..1, _) => None,
            (_, ChillFor::Overnight) => Some((more, MoreChill::Overnight)),
            (_, _) if chill_min == flour_rest_min => Some((more, MoreChill::Flour { at_least_min: flour_rest_min })),
            (_, _) => Some((more, MoreChill::Asked { at_least_min: chill_min })),
        },
    };
    (waits.slow_min > 0 || waits.more.is_some()).then_some(waits)
}

/// How long the first mix must rest on the bench, by how long it was in the cold: nothing until it is past its window, then up to what
/// it needs once it is as cold as its place.
pub(crate) fn rests_after(kitchen: &Kitchen, dough: &DoughPlan, cold: &ColdPlan) -> Vec<(i64, i64)> {
    let (Some(past), Some(from)) = (cold.answer.past_after, cold.window.working(cold.target).from) else {
        return vec![];
    };
    let rest = |mean: Temperature| {
        tempering_to(&dough.composition, cold.form.piece, mean, kitchen.room(), from).map_or(0, Span::min_up)
    };
    let Some(at_past) = cold.answer.curve.iter().find(|s| s.after >= past).map(|s| s.mean - cold.air) else {
        return vec![];
    };
    // From then on the mean comes down to the place's air as an exponential, its slowest mode; its time scale is that of the way from
    // ready to past. An approximation of the run that goes on; `cold::live` is what a followed piece is told by.
    let ready = cold.answer.ready_after.unwrap_or(past);
    let at_ready = at_ready(&cold.answer).map_or(at_past, |s| s.mean - cold.air);
    let falls = (at_ready.k() / at_past.k()).ln();
    let scale_min = if falls > 0.05 { ((past - ready).min() / falls).max(5.0) } else { past.min().max(5.0) };
    let mut found: Vec<(i64, i64)> = Vec::new();
    for scales in [0.0, 0.25, 0.5, 1.0, 2.0, 4.0] {
        let mean = cold.air + at_past * f64::exp(-scales);
        let minutes = rest(mean).max(1);
        if minutes > found.last().map_or(0, |f| f.1) {
            found.push((Span::new_min(past.min() + scales * scale_min).min_up(), minutes));
        }
    }
    found
}

/// How cold pieces are when they go into the oven, and as firm as at what: as measured, else as their chill on the tray leaves them;
/// without one, cut pieces as they were worked and others as they leave the cold.
pub(crate) fn goes_in_at(job: &Job, kitchen: &Kitchen, cold: &ColdPlan) -> (Temperature, Temperature) {
    if let Some(measured) = job.measured_pieces() {
        return (measured, measured);
    }
    match &cold.tray_chill {
        Some(tray) => (tray.out.mean, tray.out.felt),
        None if job.input().shape.making == Making::Cut => {
            let worked = as_worked(job, kitchen, &cold.window, &cold.out);
            (worked, worked)
        }
        None => (cold.out.mean, cold.out.felt),
    }
}
