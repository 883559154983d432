//! Trying on purpose: ways of one change side by side. How many pieces it takes to see a difference, how they lie on their trays so that the oven's hot
//! side does not decide, and what came out.

mod layout;
mod outcome;

pub use layout::lay_trial;
pub use outcome::{TrialOutcome, TrialVerdict, WayOutcome, trial_outcome};

use super::control::below;
use super::evenness::EvenMeasure;
use crate::error::{Checks, InputError, InputErrors};
use crate::units::{Length, Share};
use statrs::distribution::{ContinuousCDF, StudentsT};
use std::ops::RangeInclusive;

/// Ways of a trial.
pub const WAYS: RangeInclusive<usize> = 2..=4;
/// More pieces of each way nobody measures. Our own choice.
pub const MOST_OF_A_WAY: u32 = 120;
/// A difference that is there is to be seen so often, and one that is not so seldom. The usual ones.
pub const SEEN: f64 = 0.9;
pub const SEEN_WRONGLY: f64 = 0.05;
/// What a trial has to go by: where pieces lie on the job's tray, and what they differ by.
#[derive(Debug, Clone, PartialEq)]
pub struct TrialGround {
    /// Middles of its places, from its corner, mm.
    pub places: Vec<(f64, f64)>,
    /// The tray, across and along, mm.
    pub tray_mm: (f64, f64),
    /// Pieces of one tray: one standard deviation.
    pub sd: Length,
    /// Whether this kitchen's own trays tell that.
    pub own: bool,
}

impl TrialGround {
    /// A trial of so many ways on it.
    #[must_use]
    pub fn asked(&self, ways: usize, difference: Length) -> TrialAsked {
        TrialAsked { ways, difference, sd: self.sd, per_tray: u32::try_from(self.places.len()).unwrap_or(u32::MAX) }
    }
}

/// What pieces of one tray differ by where nobody has measured it, of their width and of their thickness: one standard deviation. Common practice, no
/// source: callipers on hand-rolled pieces between rods.
const USUAL_WITHIN: (f64, f64) = (0.006, 0.035);

/// What a trial is to show.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct TrialAsked {
    /// The first is as always.
    pub ways: usize,
    /// To be seen nine times in ten.
    pub difference: Length,
    /// Pieces of one tray and one way: one standard deviation.
    pub sd: Length,
    /// Pieces on a full tray.
    pub per_tray: u32,
}

/// How large it is.
#[derive(Debug, Clone, PartialEq)]
pub struct TrialSize {
    /// Pieces of each way, all trays together.
    pub per_way: u32,
    /// Of each way on each tray.
    pub on_trays: Vec<u32>,
    /// How often the difference is seen.
    pub seen: Share,
}

/// What pieces of one tray differ by where this kitchen's own charts do not tell it: one standard deviation.
#[must_use]
pub fn usual_within(measure: EvenMeasure, width: Length, thickness: Length) -> Length {
    match measure {
        EvenMeasure::Width => width * USUAL_WITHIN.0,
        EvenMeasure::Thickness => thickness * USUAL_WITHIN.1,
    }
}

fn real(n: u32) -> f64 {
    f64::from(n)
}

/// The two-sided point of Student's t for one of so many comparisons with the first way (Bonferroni).
pub(crate) fn t_point(free: f64, comparisons: usize) -> f64 {
    let wrong = SEEN_WRONGLY / real(u32::try_from(comparisons.max(1)).unwrap_or(1));
    StudentsT::new(0.0, 1.0, free).map_or(f64::INFINITY, |t| t.inverse_cdf(1.0 - 0.5 * wrong))
}

/// How often a t test of two sides finds a difference of `shift` standard errors: noncentral t, integrated over the deviation that is found.
fn found(free: f64, shift: f64, point: f64) -> f64 {
    const STEPS: u32 = 400;
    // The deviation found over the true one lies within this, for all that counts.
    let wide = 8.0 / (2.0 * free).sqrt();
    let (from, to) = ((1.0 - wide).max(1e-9), 1.0 + wide);
    let ln_scale = std::f64::consts::LN_2 + 0.5 * free * (0.5 * free).ln() - libm::lgamma(0.5 * free);
    let step = (to - from) / real(STEPS);
    let at = |i: u32| {
        let s = from + real(i) * step;
        let density = (ln_scale + (free - 1.0) * s.ln() - 0.5 * free * s * s).exp();
        density * (1.0 - below(point * s - shift) + below(-point * s - shift))
    };
    // Simpson's rule.
    let inner: f64 = (1..STEPS).map(|i| if i % 2 == 1 { 4.0 * at(i) } else { 2.0 * at(i) }).sum();
    (at(0) + inner + at(STEPS)) * step / 3.0
}

/// How often a difference is seen with so many pieces of each way on so many trays, each tray a block.
pub(crate) fn seen_with(asked: &TrialAsked, per_way: u32, trays: u32) -> f64 {
    let ways = u32::try_from(asked.ways).unwrap_or(2);
    let free = real(per_way * ways) - real(trays) - real(ways) + 1.0;
    if free < 1.0 {
        return 0.0;
    }
    let error = asked.sd.mm() * (2.0 / real(per_way)).sqrt();
    found(free, asked.difference.mm() / error, t_point(free, asked.ways - 1))
}

impl TrialAsked {
    fn checked(&self) -> Result<(), InputErrors> {
        let mut checks = Checks::new();
        let (least, most) =
            (real(u32::try_from(*WAYS.start()).unwrap_or(2)), real(u32::try_from(*WAYS.end()).unwrap_or(4)));
        let ways = u32::try_from(self.ways).unwrap_or(u32::MAX);
        checks.range("ways", real(ways), least, most, "versions");
        checks.range("difference_mm", self.difference.mm(), 0.1, 50.0, "mm");
        checks.range("sd_mm", self.sd.mm(), 0.01, 20.0, "mm");
        checks.range("per_tray", real(self.per_tray), real(ways), 400.0, "cookies");
        checks.finish(())
    }

    /// How many pieces it takes, over as few trays as hold them; each tray holds as many of each way.
    ///
    /// Fails where it would take more than anybody bakes for it, and says what could be seen.
    pub fn size(&self) -> Result<TrialSize, InputErrors> {
        self.checked()?;
        let ways = u32::try_from(self.ways).unwrap_or(2);
        let of_a_tray = self.per_tray / ways;
        let trays = |per_way: u32| per_way.div_ceil(of_a_tray);
        let enough = (2..=MOST_OF_A_WAY).find(|n| seen_with(self, *n, trays(*n)) >= SEEN);
        let Some(per_way) = enough else {
            let sees = |tenths: &u32| {
                let wider = Self { difference: Length::new_mm(real(*tenths) / 10.0), ..*self };
                seen_with(&wider, MOST_OF_A_WAY, trays(MOST_OF_A_WAY)) >= SEEN
            };
            let least = (1..=500).find(sees).unwrap_or(500);
            let why = format!(
                "Your cookies vary by {:.1} mm on a tray, so {MOST_OF_A_WAY} of each version aren\u{2019}t enough. Look for {:.1} mm or more.",
                self.sd.mm(),
                real(least) / 10.0
            );
            return Err(InputError::refused("difference_mm", why).into());
        };
        let n = trays(per_way);
        let on_trays = (0..n).map(|i| per_way / n + u32::from(i < per_way % n)).collect();
        Ok(TrialSize { per_way, on_trays, seen: Share::new(seen_with(self, per_way, n)) })
    }
}

#[cfg(test)]
mod tests;
