//! The cold station of a plan: how long the dough and the cut pieces chill, and what of it is whose time.

use super::answers::{ColdPlan, DoughPlan, FormSize, TrayChill};
use super::bench::first_sheets;
use super::chill::first_chill;
use super::pieces::chilled_form;
use super::{ChillForm, Job, Kitchen, Making, Reason, Setting};
use crate::clock::{ChillWaits, MoreChill};
use crate::cold::{
    Bench, ChillAnswer, ChillQuestion, Piece, Sample, Support, Target, Window, Wrap, chill, disc_of, tempering_to,
};
use crate::dough::Keeping;
use crate::error::{InputError, InputErrors, Problem};
use crate::shape::DemandAnswer;
use crate::units::{Share, Span, Temperature};

/// What people call overnight, at least and at most. Common usage, no source.
pub const OVERNIGHT: (Span, Span) = (Span::new_min(8.0 * 60.0), Span::new_min(14.0 * 60.0));

pub(super) fn cold_plan(
    job: &Job,
    kitchen: &Kitchen,
    dough: &DoughPlan,
    demand: &DemandAnswer,
    window: &Window,
    keeping: Keeping,
) -> Result<ColdPlan, InputErrors> {
    let density = dough.density;
    let first = &demand.rolls[0];
    let piece = match (chilled_form(&job.input().making, density)?, job.chill_form()) {
        (Some(piece), _) => piece,
        (None, ChillForm::Disc { thickness }) => disc_of(first.mass, thickness, density),
        (None, ChillForm::Sheets) => Piece::Sheet { thickness: job.thickness() },
    };
    let place = job.input().chill_place;
    let question = first_chill(job, kitchen, dough, piece, place)?;
    let target = question.target();
    let answer = chill(&question);
    if let Some(never) = &answer.never {
        return Err(InputError::new("chill_place", Problem::NeverReady(*never)).into());
    }
    let warm = window.rolls_to;
    // Cut pieces are taken to have warmed to the window's warm end, on a tray at room temperature: the slow case.
    let tray_place = job.input().tray_chill_place;
    // Only what is cut goes cold a second time: slices come from a firm log, and portions have been chilled as they are.
    let tray_chill = if job.input().making == Making::Cut {
        let question = ChillQuestion::new(
            dough.composition.clone(),
            Piece::Sheet { thickness: job.thickness() },
            Wrap::Open,
            Support::Tray { kind: kitchen.tray_kind(), start: kitchen.room() },
            warm.c(),
            kitchen.place(tray_place),
            Target::Oven,
        )?;
        let answer = chill(&question);
        if let Some(never) = &answer.never {
            return Err(InputError::new("tray_chill_place", Problem::NeverReady(*never)).into());
        }
        Some(TrayChill { place: tray_place, start: warm, answer })
    } else {
        None
    };
    let air = kitchen.place(place).air();
    let (ready_mean, ready_felt) = at_ready(&answer).map_or((warm, warm), |s| (s.mean, s.felt));
    let working = window.working(target);
    // What is cut is rolled to a sheet first; logs and portions lie on the bench as they are.
    let on_the_bench =
        if job.input().making == Making::Cut { Piece::Sheet { thickness: job.thickness() } } else { piece };
    let bench = Bench::new(&dough.composition, on_the_bench, working, kitchen.room());
    let coldest = working.from.map_or(air, |from| if from > air { from } else { air });
    let after_night = match working.from {
        Some(from) => tempering_to(&dough.composition, piece, air, kitchen.room(), from),
        None => Some(Span::new_s(0.0)),
    };
    let mut reasons = vec![Reason::LeavesTheMixer { at: dough.temperature, measured: dough.temperature_measured }];
    if window.shift.k().abs() > 0.05 {
        reasons.push(Reason::FatMovesTheWindow { fat: Share::new(dough.composition.fat()), by: window.shift });
    }
    let rests = job.flour_rest();
    if rests.min() > 0.0 {
        reasons.push(Reason::RestsForItsFlour { at_least: rests });
    }
    reasons.extend(still_sets(Setting::Dough, &answer));
    reasons.extend(tray_chill.as_ref().and_then(|chill| still_sets(Setting::CutPiece, &chill.answer)));
    reasons.push(if kitchen.known(place).air_taught {
        Reason::RangeOfReadings { place }
    } else {
        Reason::RangeOfTheFilm
    });
    Ok(ColdPlan {
        form: FormSize { piece, count: first_sheets(demand), mass: first.mass },
        place,
        air,
        target,
        tempering_after_night: after_night,
        tempering: None,
        window: *window,
        bench: bench.stays_workable(ready_mean, ready_felt),
        bench_longest: bench.stays_workable(coldest, coldest),
        workable_after: None,
        answer,
        tray_chill,
        flour_rest: rests,
        keeping,
        reasons,
    })
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
pub(super) fn slow_end(answer: &ChillAnswer) -> i64 {
    answer.told().map_or(0, |t| t.latest)
}

/// Why dough is in the cold for as long as it is at least: what of it is the chill, its range, and the wait for a sheet that lasts.
pub(super) fn chill_waits(cold: &ColdPlan, chill_min: i64, flour_rest_min: i64) -> Option<ChillWaits> {
    let (ready_min, slow) = cold.answer.told().map_or((0, 0), |t| (t.ready, t.latest));
    let more = chill_min - slow;
    let waits = ChillWaits {
        ready_min,
        slow_min: slow - ready_min,
        more: match more {
            1.. if chill_min == flour_rest_min => Some((more, MoreChill::Flour { at_least_min: flour_rest_min })),
            1.. => Some((more, MoreChill::Bench)),
            _ => None,
        },
    };
    (waits.slow_min > 0 || waits.more.is_some()).then_some(waits)
}

/// How long the first mix must rest on the bench, by how long it was in the cold: nothing until it is past its window, then up to what
/// it needs once it is as cold as its place.
pub(super) fn rests_after(kitchen: &Kitchen, dough: &DoughPlan, cold: &ColdPlan) -> Vec<(i64, i64)> {
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

/// How cold pieces are when they go into the oven, and as firm as at what: as measured, else cut ones after their tray chill and others as
/// they leave the cold.
pub(super) fn goes_in_at(job: &Job, cold: &ColdPlan) -> (Temperature, Temperature) {
    if let Some(measured) = job.measured_pieces() {
        return (measured, measured);
    }
    let last = cold.tray_chill.as_ref().map_or(&cold.answer, |t| &t.answer);
    at_ready(last).map_or((cold.air, cold.air), |s| (s.mean, s.felt))
}
