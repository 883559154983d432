//! Hands at the bench: how long rolling and cutting take, and what the dough allows meanwhile.

use crate::geometry::Outline;
use crate::job::answers::{ColdPlan, ShapePlan};
use crate::job::reasons::reason::Reason;
use crate::job::settings::chill_choice::ChillFor;
use crate::job::settings::chill_choice::ChillForm;
use crate::job::settings::job::Job;
use crate::job::settings::kitchen::Kitchen;
use crate::job::settings::making::Making;
use crate::job::shape::pricked::pricks_each;
use crate::shape::{Bent, DemandAnswer, Portion};
use crate::units::Span;

/// To press one disc and wrap it, min. Common practice, no source.
pub(crate) const PRESS_MIN: f64 = 2.0;
/// To scrape a mix together and cover it, min. Common practice, no source.
pub(crate) const BALL_MIN: f64 = 1.0;
/// To form and wrap one log, min; to slice one piece, s. Common practice, no source.
pub(crate) const LOG_MIN: f64 = 4.0;
pub(crate) const SLICE_S: f64 = 4.0;
/// To roll one portion to a ball, to level one in a scoop or pipe it, to press a ball flat, to stamp
/// one, to dent and fill one, to roll out a rope (5 more bent to a crescent, 8 to a ring, 20 knotted or twisted), to
/// make one part of a figure and set it to the next, s; to press dough into a pan, to lay the chilled portions of a tray apart, min. Common
/// practice, no source.
const BALL_S: f64 = 6.0;
const SCOOP_S: f64 = 4.0;
const PRESS_S: f64 = 3.0;
const STAMP_S: f64 = 5.0;
const DENT_S: f64 = 10.0;
const ROPE_S: f64 = 20.0;
const PART_S: f64 = 15.0;
const PAN_MIN: f64 = 5.0;
/// To pull the scraps off a sheet, min; to move one piece to its tray, to prick once with a fork, s. Common practice, no source.
const SCRAP_MIN: f64 = 1.0;
const MOVE_S: f64 = 3.0;
const PRICK_S: f64 = 0.5;
const SPACE_OUT_MIN: f64 = 1.0;

/// To shape one portion: a figure part by part, a ball before it is pressed or dented; a pan as a whole.
pub(crate) fn shaping(portion: &Portion) -> Span {
    Span::new_s(match portion {
        Portion::Figure { parts } => PART_S * f64::from(u32::try_from(parts.len()).unwrap_or(u32::MAX)),
        Portion::Rope { bent, .. } => {
            ROPE_S
                + match bent {
                    Bent::Straight => 0.0,
                    Bent::Crescent => 5.0,
                    Bent::Ring => 8.0,
                    Bent::Knot | Bent::Twist => 20.0,
                }
        }
        Portion::Thumbprint { .. } => BALL_S + DENT_S,
        Portion::Pressed { .. } => BALL_S + PRESS_S,
        Portion::Stamped { .. } => BALL_S + STAMP_S,
        Portion::Ball { .. } => BALL_S,
        Portion::Scoop { .. } | Portion::Spoon { .. } | Portion::Piped { .. } => SCOOP_S,
        Portion::TrayBar { .. } => PAN_MIN * 60.0,
    })
}

/// To move one cut piece to its tray, s; nothing where it was cut on the tray's own paper.
pub(crate) fn moves_s(job: &Job) -> f64 {
    if job.cut_in_place() { 0.0 } else { MOVE_S }
}

/// Minutes of hands that forming a mix and each tray take.
pub(crate) struct HandsAtTheBench {
    pub form_min: f64,
    pub cut_min: Vec<i64>,
}

impl HandsAtTheBench {
    pub fn longest(&self) -> Span {
        let most = self.cut_min.iter().copied().max().unwrap_or(0);
        Span::new_min(f64::from(i32::try_from(most).unwrap_or(i32::MAX)))
    }
}

pub(crate) fn hands_at_the_bench(
    job: &Job,
    outline: &Outline,
    kitchen: &Kitchen,
    shape: &ShapePlan,
) -> HandsAtTheBench {
    let mut hands = unpricked(job, kitchen, shape);
    if job.input().shape.pricked {
        let each_s = PRICK_S * f64::from(pricks_each(outline));
        for (cut, pieces) in hands.cut_min.iter_mut().zip(&shape.trays.fill) {
            *cut += Span::new_s(each_s * f64::from(*pieces)).min_up();
        }
    }
    hands
}

fn unpricked(job: &Job, kitchen: &Kitchen, shape: &ShapePlan) -> HandsAtTheBench {
    let mixes_made = f64::from(shape.demand.mixes);
    let (roll_min, cut_s) = (kitchen.input().house.roll_min, kitchen.input().house.cut_s);
    let trays = f64::from(u32::try_from(shape.trays.fill.len()).unwrap_or(u32::MAX));
    let sheets = f64::from(first_sheets(&shape.demand));
    let per_mix = sheets / mixes_made;

    let seconds_a_tray = |each_s: f64| -> Vec<i64> {
        let minutes = |n: &u32| Span::new_min(f64::from(*n) * each_s / 60.0).min_up().max(1);
        shape.trays.fill.iter().map(minutes).collect()
    };
    match &job.input().shape.making {
        Making::Cut => {}
        Making::Sliced { .. } => {
            return HandsAtTheBench { form_min: LOG_MIN * per_mix, cut_min: seconds_a_tray(SLICE_S) };
        }
        Making::Portioned(portion) if job.portions_from_cold() => {
            let form_min = BALL_MIN;
            let cut_min = if let Portion::TrayBar { .. } = portion {
                let pan = Span::new_min(PAN_MIN * sheets / trays).min_up().max(1);
                vec![pan; shape.trays.fill.len()]
            } else {
                seconds_a_tray(shaping(portion).s())
            };
            return HandsAtTheBench { form_min, cut_min };
        }
        Making::Portioned(portion @ Portion::TrayBar { .. }) => {
            let form_min = shaping(portion).min() * per_mix;
            return HandsAtTheBench { form_min, cut_min: vec![0; shape.trays.fill.len()] };
        }
        Making::Portioned(portion) => {
            // What does not chill is laid on its tray as it is made.
            let spacing = if job.first_for().0 == ChillFor::No { 0.0 } else { SPACE_OUT_MIN };
            let cut_min = vec![Span::new_min(spacing).min_up(); shape.trays.fill.len()];
            return HandsAtTheBench { form_min: shaping(portion).min() * per_mix, cut_min };
        }
    }
    let rerolled: u32 = shape.demand.rolls.iter().filter(|r| r.number > 0).map(|r| r.sheets).sum();
    // Discs are rolled when they come out; sheets were rolled before the chill. Re-rolls are always rolled then.
    let (form_min, rolled_at_cut) = match (job.dough_for(), job.chill_form()) {
        (ChillFor::No, _) => (0.0, sheets),
        (_, ChillForm::Lump | ChillForm::Log) => (BALL_MIN, sheets),
        (_, ChillForm::Disc { .. }) => (PRESS_MIN * per_mix, sheets),
        (_, ChillForm::Sheets { .. }) => (roll_min * per_mix, 0.0),
    };
    let all_sheets = sheets + f64::from(rerolled);
    let roll_per_tray = (roll_min * (rolled_at_cut + f64::from(rerolled)) + SCRAP_MIN * all_sheets) / trays;
    let piece_s = cut_s + moves_s(job);
    let minutes = |n: &u32| Span::new_min(roll_per_tray + f64::from(*n) * piece_s / 60.0).min_up().max(1);
    HandsAtTheBench { form_min, cut_min: shape.trays.fill.iter().map(minutes).collect() }
}

/// A soft sheet is slid back into the cold for so long. Common practice, no source.
const SLID_BACK: Span = Span::new_min(5.0);

/// Where a sheet does not stay workable as long as a tray takes: what one tray needs is rolled, the rest stays in the cold, and a sheet that goes soft is
/// slid back. Nobody chills dough beyond ready to buy time on the bench.
pub(crate) fn in_parts(cold: &ColdPlan, hands: Span) -> Option<Reason> {
    let bench = cold.bench?;
    (bench < hands).then_some(Reason::RollInParts { bench, hands, back: SLID_BACK })
}

/// Sheets, logs or portions of the first roll: those of several lots may differ from each other.
pub(crate) fn first_sheets(demand: &DemandAnswer) -> u32 {
    demand.rolls.iter().filter(|r| r.number == 0).map(|r| r.sheets).sum()
}
