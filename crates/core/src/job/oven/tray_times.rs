//! When each piece of one tray is done: by its place in the oven, by how thick the sheet was where it was cut, and by its size.

use crate::error::{InputError, InputErrors};
use crate::geometry::{Placement, straight_between};
use crate::job::answers::Plan;
use crate::job::oven::bake::BakeQuestion;
use crate::job::reasons::reason::Reason;
use crate::job::settings::job::Job;
use crate::job::settings::kitchen::Kitchen;
use crate::oven::{BakePiece, HotSpots, browns_faster};
use crate::shape::{ONE_CLASS, judge_evenness};
use crate::units::{Length, Span, TemperatureDifference};

/// One piece on its tray.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct TrayPieceTime {
    /// Where it lies.
    pub at: Placement,
    /// How thick the sheet was where it was cut.
    pub thickness: Length,
    /// How much hotter surfaces at its place are than in the oven on the whole.
    pub hotter: TemperatureDifference,
    /// Done after, as it lies.
    pub done: Span,
    /// Done after, when the tray is turned end for end half way.
    pub done_turned: Span,
}

/// A full tray of a lot.
#[derive(Debug, Clone, PartialEq)]
pub struct TrayTimes {
    /// Its pieces.
    pub pieces: Vec<TrayPieceTime>,
    /// The first and the last to be done.
    pub as_it_lies: (Span, Span),
    /// The same when the tray is turned half way.
    pub turned: (Span, Span),
    /// Whether one time will do for all as they lie: the last at most 12 % after the first.
    pub one_tray: bool,
    /// Whether it will when the tray is turned.
    pub one_tray_turned: bool,
    /// Whether sheets were measured; else all are as thick as wanted.
    pub measured: bool,
    /// Whether the oven has a map of its places.
    pub mapped: bool,
    /// What to do.
    pub advice: Vec<Reason>,
}

impl TrayTimes {
    /// One time will do for those that are done by then.
    #[must_use]
    pub fn one_time_to(&self) -> Span {
        self.as_it_lies.0 * (1.0 + ONE_CLASS.value())
    }
}

/// Times of the thinnest, the usual and the thickest piece, and of the usual one in the coolest and the hottest place; straight between
/// them in their logarithms.
struct Times {
    by_thickness: Vec<(f64, f64)>,
    by_place: Vec<(f64, f64)>,
}

impl Times {
    fn of(
        question: &BakeQuestion,
        thin: Length,
        thick: Length,
        (coolest_k, hottest_k): (f64, f64),
        told: Span,
    ) -> Result<Self, InputErrors> {
        let usual = question.answer()?.bake.min().ln();
        let at_thickness = |thickness: Length| -> Result<(f64, f64), InputErrors> {
            let piece = BakePiece { thickness, ..question.piece };
            let found = BakeQuestion { piece, ..question.clone() }.answer()?;
            Ok((thickness.mm(), found.bake.min().ln() - usual))
        };
        let at_place = |by_k: f64| -> Result<(f64, f64), InputErrors> {
            // The map tells surfaces, not the air: what is hotter there browns so much faster.
            let mut there = question.clone();
            there.fit.browning *= browns_faster(TemperatureDifference::new_k(by_k));
            Ok((by_k, there.answer()?.bake.min().ln() - usual))
        };
        let wanted = question.piece.thickness;
        let mut by_thickness = vec![(wanted.mm(), 0.0)];
        if thin < wanted {
            by_thickness.insert(0, at_thickness(thin)?);
        }
        if thick > wanted {
            by_thickness.push(at_thickness(thick)?);
        }
        let mut by_place = vec![(0.0, 0.0)];
        if coolest_k < -0.05 {
            by_place.insert(0, at_place(coolest_k)?);
        }
        if hottest_k > 0.05 {
            by_place.push(at_place(hottest_k)?);
        }
        // How much sooner or later is the model's; around when, the one figure that every screen tells.
        by_place.iter_mut().for_each(|p| p.1 += told.min().ln());
        Ok(Self { by_thickness, by_place })
    }

    fn at(&self, thickness: Length, hotter_k: f64) -> f64 {
        // Neither is ever empty: the piece as it is wanted and the oven on the whole are among them.
        let by = |rows: &[(f64, f64)], at: f64| straight_between(rows, at).unwrap_or(0.0);
        (by(&self.by_thickness, thickness.mm()) + by(&self.by_place, hotter_k)).exp()
    }
}

/// How thick each piece of the first measured sheet is, in the order in which they are cut; empty while nothing was read.
fn thicknesses(job: &Job, plan: &Plan) -> Vec<Length> {
    let Some(roll) = plan.shape.demand.rolls.first() else { return vec![] };
    let (width, length) = roll.form.extent();
    let judged = job.measured().iter().find_map(|read| judge_evenness(read, job.thickness(), width, length));
    let Some(even) = judged else { return vec![] };
    roll.layout.pieces.iter().map(|p| even.at(p.x_mm / width.mm(), p.y_mm / length.mm())).collect()
}

/// When each piece of a job's first tray is done.
///
/// Fails beyond what the model knows.
pub fn tray_times(job: &Job, kitchen: &Kitchen, plan: &Plan) -> Result<TrayTimes, InputErrors> {
    let question = &plan.oven.question;
    if plan.oven.forecast.is_none() {
        return Err(InputError::refused("bake", "No forecast for this bake. The Oven station says why.").into());
    }
    let trays = &plan.shape.trays;
    let count = trays.fill.first().map_or(0, |n| *n as usize).min(trays.layout.pieces.len());
    let placed = &trays.layout.pieces[..count];
    let thick = thicknesses(job, plan);
    let wanted = question.piece.thickness;
    let (thin_most, thick_most) =
        thick.iter().fold((wanted, wanted), |(a, b), t| (if *t < a { *t } else { a }, if *t > b { *t } else { b }));
    // The tray's long side lies across the oven, as it is drawn.
    let (tray_width, tray_length) = (kitchen.trays().width(), kitchen.trays().length());
    let spots = kitchen.hot_spots();
    let hotter = |across: f64, down: f64| spots.map_or(0.0, |s| s.hotter_at(across, down).k());
    let place = |at: &Placement| (at.y_mm / tray_length.mm(), 1.0 - at.x_mm / tray_width.mm());
    let each: Vec<(Placement, f64, f64)> = placed
        .iter()
        .map(|at| {
            let (across, down) = place(at);
            (*at, hotter(across, down), hotter(1.0 - across, 1.0 - down))
        })
        .collect();
    let coolest = each.iter().map(|e| e.1).fold(0.0, f64::min);
    let hottest = each.iter().map(|e| e.1).fold(0.0, f64::max);
    let times = Times::of(question, thin_most, thick_most, (coolest, hottest), plan.oven.expected.middle)?;
    let pieces: Vec<TrayPieceTime> = each
        .iter()
        .enumerate()
        .map(|(i, (at, here, there))| {
            // They are laid in the order in which they are cut.
            let thickness = if thick.is_empty() { wanted } else { thick[i % thick.len()] };
            TrayPieceTime {
                at: *at,
                thickness,
                hotter: TemperatureDifference::new_k(*here),
                done: Span::new_min(times.at(thickness, *here)),
                done_turned: Span::new_min(times.at(thickness, f64::midpoint(*here, *there))),
            }
        })
        .collect();
    let range = |of: fn(&TrayPieceTime) -> Span| {
        let all = pieces.iter().map(|p| of(p).s());
        (Span::new_s(all.clone().fold(f64::INFINITY, f64::min)), Span::new_s(all.fold(0.0, f64::max)))
    };
    let (as_it_lies, turned) = (range(|p| p.done), range(|p| p.done_turned));
    let will_do = |(first, last): (Span, Span)| last.s() <= first.s() * (1.0 + ONE_CLASS.value());
    let mut found = TrayTimes {
        one_tray: will_do(as_it_lies),
        one_tray_turned: will_do(turned),
        pieces,
        as_it_lies,
        turned,
        measured: !thick.is_empty(),
        mapped: spots.is_some(),
        advice: vec![],
    };
    found.advice = advice(&found, spots);
    Ok(found)
}

fn advice(found: &TrayTimes, spots: Option<&HotSpots>) -> Vec<Reason> {
    let mut said = vec![if found.one_tray {
        Reason::OneTimeWillDo { done: found.as_it_lies }
    } else {
        Reason::DoneApart { done: found.as_it_lies, more_than: ONE_CLASS }
    }];
    if let Some(side) = spots.and_then(HotSpots::advice) {
        said.push(Reason::Oven(side));
        let gains = (found.as_it_lies.1 - found.as_it_lies.0).s() - (found.turned.1 - found.turned.0).s();
        if gains > 6.0 {
            said.push(Reason::TurnedDone { done: found.turned });
        }
    }
    if !found.one_tray_turned && found.measured {
        let mean = found.pieces.iter().map(|p| p.done_turned.s()).sum::<f64>() / count(found.pieces.len());
        let thin = found.pieces.iter().filter(|p| p.done_turned.s() < mean).count();
        said.push(Reason::SortByThickness { thin, of: found.pieces.len() });
    }
    said
}

fn count(n: usize) -> f64 {
    f64::from(u32::try_from(n.max(1)).unwrap_or(u32::MAX))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn thickness_and_place_add_up_in_logarithms() {
        let times = Times {
            by_thickness: vec![(5.0, -0.1), (6.0, 0.0)],
            by_place: vec![(0.0, 10.0_f64.ln()), (8.0, 9.0_f64.ln())],
        };
        assert!((times.at(Length::new_mm(6.0), 0.0) - 10.0).abs() < 1e-9);
        assert!((times.at(Length::new_mm(5.0), 8.0) - 9.0 * (-0.1_f64).exp()).abs() < 1e-9);
    }
}
