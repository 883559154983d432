//! What hands found of a dough at a temperature moves its working temperatures.

use super::window::Target;
use super::window::Window;
use crate::dough::Felt;
use crate::error::{Checks, InputError, InputErrors};
use crate::units::{Temperature, TemperatureDifference};
use serde::{Deserialize, Serialize};

/// How far a limit of a dough may lie from what its fat says before anybody touched it, K (standard deviation). Common
/// practice, no source.
const PRIOR_K: f64 = 1.2;
/// How sharply a hand tells: about this many K from the limit it is wrong one time in four. Common practice, no source.
const SHARPNESS_K: f64 = 0.7;
/// A limit is never moved further than this, K.
const FURTHEST_K: f64 = 5.0;
const STEPS: i32 = 200;

/// What a hand found.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Touch {
    /// It cracked at the rim when rolled.
    Cracked,
    /// It rolled or sliced as it should.
    Right,
    /// It stuck to pin or bench.
    Stuck,
    /// The knife squashed it.
    Squashed,
}

/// One finding: what was done, how it went, at what temperature of the dough.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Finding {
    /// Rolling or slicing.
    pub purpose: Target,
    /// How it went.
    pub touch: Touch,
    /// The dough then.
    pub dough: Temperature,
}

impl Finding {
    /// Fails on a temperature no dough has, on what hands do not feel, and on how it cannot go.
    pub fn new(purpose: Target, touch: Touch, dough_c: f64) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        checks.range("dough_c", dough_c, -20.0, 40.0, "\u{b0}C");
        if purpose == Target::Oven {
            checks.push(InputError::refused("purpose", "Note how it felt for rolling or slicing only."));
        }
        let fits = match touch {
            Touch::Squashed => purpose == Target::Slicing,
            Touch::Cracked | Touch::Stuck => purpose == Target::Rolling,
            Touch::Right => true,
        };
        if !fits {
            checks.push(InputError::refused(
                "touch",
                "Rolled dough can crack, stick or be right. Sliced dough can squash or be right.",
            ));
        }
        checks.finish(Self { purpose, touch, dough: Temperature::new_c(dough_c) })
    }
}

/// A limit as hands have moved it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct MovedLimit {
    /// By how much.
    pub by: TemperatureDifference,
    /// How surely (standard deviation).
    pub sd: TemperatureDifference,
    /// From how many findings.
    pub findings: usize,
}

/// What findings say of the three limits.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LimitsLearnt {
    /// Cold end of rolling.
    pub rolls_from: MovedLimit,
    /// Warm end of rolling.
    pub rolls_to: MovedLimit,
    /// Warm end of slicing.
    pub slices_to: MovedLimit,
}

impl LimitsLearnt {
    /// As the dough carries it.
    #[must_use]
    pub fn felt(&self) -> Felt {
        Felt { rolls_from: self.rolls_from.by, rolls_to: self.rolls_to.by, slices_to: self.slices_to.by }
    }
}

/// Learns from findings of a dough whose untouched window is `window`: each limit by itself, with its prior.
///
/// What cracked lay below the cold end, what stuck above the warm end, what went right between; each with the doubt of a
/// hand and a thermometer. A finding far from a limit says nothing new of it.
#[must_use]
pub fn learn_limits(window: &Window, findings: &[Finding]) -> LimitsLearnt {
    let rolling = |f: &&Finding| matches!(f.purpose, Target::Rolling);
    let slicing = |f: &&Finding| matches!(f.purpose, Target::Slicing);
    // `true`: the limit lies above the dough's temperature.
    let of = |which: &dyn Fn(&Finding) -> Option<bool>, keep: &dyn Fn(&&Finding) -> bool| -> Vec<(f64, bool)> {
        findings.iter().filter(keep).filter_map(|f| Some((f.dough.c(), which(f)?))).collect()
    };
    let cold_end = of(
        &|f| match f.touch {
            Touch::Cracked => Some(true),
            Touch::Right | Touch::Stuck => Some(false),
            Touch::Squashed => None,
        },
        &rolling,
    );
    let warm_end = |f: &Finding| match f.touch {
        Touch::Stuck | Touch::Squashed => Some(false),
        Touch::Right => Some(true),
        Touch::Cracked => None,
    };
    LimitsLearnt {
        rolls_from: moved(window.rolls_from, &cold_end),
        rolls_to: moved(window.rolls_to, &of(&warm_end, &rolling)),
        slices_to: moved(window.slices_to, &of(&warm_end, &slicing)),
    }
}

/// The mean and spread of a limit's shift after findings, summed over a fine row of shifts (Bayes's rule).
fn moved(limit: Temperature, findings: &[(f64, bool)]) -> MovedLimit {
    let (mut whole, mut first, mut second) = (0.0, 0.0, 0.0);
    for i in -STEPS..=STEPS {
        let shift = FURTHEST_K * f64::from(i) / f64::from(STEPS);
        let mut weight = (-0.5 * (shift / PRIOR_K).powi(2)).exp();
        for &(dough, above) in findings {
            let over = (limit.c() + shift - dough) / SHARPNESS_K;
            weight *= 1.0 / (1.0 + (if above { -over } else { over }).exp());
        }
        whole += weight;
        first += weight * shift;
        second += weight * shift * shift;
    }
    let none = TemperatureDifference::new_k(0.0);
    if findings.is_empty() || whole <= 0.0 {
        return MovedLimit { by: none, sd: TemperatureDifference::new_k(PRIOR_K), findings: findings.len() };
    }
    let mean = first / whole;
    let sd = (second / whole - mean * mean).max(0.0).sqrt();
    MovedLimit {
        by: TemperatureDifference::new_k(mean),
        sd: TemperatureDifference::new_k(sd),
        findings: findings.len(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::dough::{Composition, FatKind};

    fn dough() -> Composition {
        Composition::from_analysis(0.14, 0.23, 0.06, 0.57, 0.0, 0.0, FatKind::Butter).unwrap()
    }

    fn window() -> Window {
        Window::of(&dough()).unwrap()
    }

    fn rolled(touch: Touch, dough_c: f64) -> Finding {
        Finding { purpose: Target::Rolling, touch, dough: Temperature::new_c(dough_c) }
    }

    #[test]
    fn nothing_touched_moves_nothing() {
        let learnt = learn_limits(&window(), &[]);
        assert_eq!(learnt.felt(), Felt::default());
        assert_eq!(Window::of(&dough().with_felt(learnt.felt())), Window::of(&dough()));
    }

    #[test]
    fn what_stuck_inside_the_window_lowers_its_warm_end_and_what_cracked_raises_its_cold_end() {
        // The untouched window is 9.3 to 17.7.
        let learnt = learn_limits(&window(), &[rolled(Touch::Stuck, 16.5), rolled(Touch::Cracked, 10.5)]);
        assert!(learnt.rolls_to.by.k() < -0.5 && learnt.rolls_from.by.k() > 0.5, "{learnt:?}");
        let after = Window::of(&dough().with_felt(learnt.felt())).unwrap();
        assert!(after.rolls_to < window().rolls_to && after.rolls_from > window().rolls_from);
        assert_eq!(after.slices_to, window().slices_to);
        assert_eq!(after.oven_ready, window().oven_ready);
    }

    #[test]
    fn right_outside_the_window_widens_it_and_right_inside_changes_little() {
        let warm = learn_limits(&window(), &[rolled(Touch::Right, 19.0)]);
        assert!(warm.rolls_to.by.k() > 0.5, "{warm:?}");
        let middle = learn_limits(&window(), &[rolled(Touch::Right, 13.5)]);
        assert!(middle.rolls_to.by.k().abs() < 0.1 && middle.rolls_from.by.k().abs() < 0.1, "{middle:?}");
    }

    #[test]
    fn more_of_the_same_moves_further_and_surer_but_never_beyond_five_degrees() {
        let (mut last, mut sd) = (0.0, f64::MAX);
        for n in 1..=30 {
            let l = learn_limits(&window(), &vec![rolled(Touch::Stuck, 12.0); n]).rolls_to;
            assert!(l.by.k() < last && l.by.k() >= -5.0);
            (last, sd) = (l.by.k(), sd.min(l.sd.k()));
        }
        assert!(last < -3.0 && sd < 1.0, "{last} {sd}");
    }

    #[test]
    fn the_knife_moves_slicing_alone_and_the_ends_never_cross() {
        let squashed = Finding { purpose: Target::Slicing, touch: Touch::Squashed, dough: Temperature::new_c(10.0) };
        let l = learn_limits(&window(), &[squashed]);
        assert!(l.slices_to.by.k() < -0.5 && l.rolls_to.by.k() == 0.0, "{l:?}");
        let mut wild = vec![rolled(Touch::Stuck, 6.0); 20];
        wild.extend(vec![rolled(Touch::Cracked, 20.0); 20]);
        let after = Window::of(&dough().with_felt(learn_limits(&window(), &wild).felt())).unwrap();
        assert!(after.rolls_to > after.rolls_from && after.tacky_to >= after.rolls_to);
    }
}
