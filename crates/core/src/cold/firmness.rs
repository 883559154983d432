//! Fat sets later than it cools: how much of it is solid, and at what temperature it would be as firm once it had set.
//!
//! Thin dough is as cold as its place within minutes and still soft. The temperature field is that of fat in equilibrium (the reference
//! runs hold); only what is told of firmness lags behind it.

use crate::dough::{FatKind, solid_share};

/// Minutes in which all but a third of what is still to set has set, by temperature, straight between. Half of what isothermal
/// crystallisation of milk fat takes (from memory): butter in a dough is full of crystals and sets on them, and thin pieces feel firm soon. Our choice.
const SETS_MIN: [(f64, f64); 7] =
    [(-5.0, 0.6), (0.0, 0.75), (5.0, 1.25), (10.0, 2.0), (15.0, 4.0), (20.0, 7.5), (25.0, 15.0)];
/// Fat melts in this time, s. From memory; short beside all that is told.
const MELTS_S: f64 = 33.0;
/// Shares nearer to each other than this are one.
const SAME: f64 = 1e-4;

const LOW_C: f64 = -45.0;
const STEP_C: f64 = 0.1;
const STEPS: usize = 1100;

/// Solid share of a dough's fat by temperature, and the temperature by solid share, tabulated once.
#[derive(Debug, Clone)]
pub(crate) struct FatCurve {
    solid: Vec<f64>,
    /// Temperatures at even steps of the solid share, from none to the most there is.
    t_c: Vec<f64>,
    most: f64,
}

/// Steps of the way back from solid share to temperature.
const BACK: usize = 2000;

impl FatCurve {
    pub(crate) fn new(fats: &[(FatKind, f64)]) -> Self {
        let solid: Vec<f64> = (0..=STEPS).map(|i| solid_share(fats, at(i))).collect();
        let most = solid[0];
        // It falls from cold to warm: the first that is not above.
        let back = |share: f64| {
            let i = solid.partition_point(|s| *s > share).clamp(1, STEPS);
            let (above, below) = (solid[i - 1], solid[i]);
            at(i - 1) + STEP_C * ((above - share) / (above - below).max(1e-12)).clamp(0.0, 1.0)
        };
        #[expect(clippy::cast_precision_loss, reason = "a table index")]
        let t_c = (0..=BACK).map(|i| back(most * i as f64 / BACK as f64)).collect();
        Self { solid, t_c, most }
    }

    /// Solid share at equilibrium.
    pub(crate) fn solid(&self, t_c: f64) -> f64 {
        let i = place(t_c);
        self.solid[i] + (t_c - at(i)).clamp(0.0, STEP_C) / STEP_C * (self.solid[i + 1] - self.solid[i])
    }

    /// The temperature at which a dough at `t_c`, of whose fat so much is solid, would be as firm at equilibrium.
    pub(crate) fn as_firm_at(&self, solid: f64, t_c: f64) -> f64 {
        if self.most <= 0.0 || (solid - self.solid(t_c)).abs() < SAME {
            return t_c;
        }
        #[expect(clippy::cast_precision_loss, reason = "a table index")]
        let along = (solid / self.most).clamp(0.0, 1.0) * BACK as f64;
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "clamped to the table")]
        let i = (along as usize).min(BACK - 1);
        self.t_c[i]
            + (along - along.floor().min(f64::from(u32::try_from(BACK - 1).unwrap_or(0))))
                * (self.t_c[i + 1] - self.t_c[i])
    }

    /// What a step of so long leaves of the way to equilibrium.
    pub(crate) fn pace(dt_s: f64) -> Pace {
        let sets = (0..=STEPS).map(|i| (-dt_s / (60.0 * sets_min(at(i)))).exp()).collect();
        Pace { sets, melts: (-dt_s / MELTS_S).exp(), dt_s }
    }

    /// Solid share a step on, at a temperature.
    pub(crate) fn step(&self, solid: f64, t_c: f64, pace: &Pace) -> f64 {
        let wanted = self.solid(t_c);
        wanted + (solid - wanted) * if wanted > solid { pace.sets[place(t_c)] } else { pace.melts }
    }
}

/// What a step of so long leaves of the way to equilibrium, by temperature.
pub(crate) struct Pace {
    sets: Vec<f64>,
    melts: f64,
    pub dt_s: f64,
}

#[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "clamped to the table")]
fn place(t_c: f64) -> usize {
    (((t_c - LOW_C) * (1.0 / STEP_C)).max(0.0) as usize).min(STEPS - 1)
}

#[expect(clippy::cast_precision_loss, reason = "a table index")]
fn at(i: usize) -> f64 {
    LOW_C + STEP_C * i as f64
}

fn sets_min(t_c: f64) -> f64 {
    crate::geometry::straight_between(&SETS_MIN, t_c).unwrap_or(SETS_MIN[0].1)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_has_set_wholly_is_as_firm_as_it_is_cold() {
        let butter = FatCurve::new(&[(FatKind::Butter, 1.0)]);
        for t in [-18.0, 4.0, 12.34, 20.0] {
            assert!((butter.as_firm_at(butter.solid(t), t) - t).abs() < 1e-9);
            // And seen from another temperature it is the same.
            assert!((butter.as_firm_at(butter.solid(t), 30.0) - t).abs() < 0.02, "{t}");
        }
        let oil = FatCurve::new(&[(FatKind::Liquid, 1.0)]);
        assert_eq!(oil.as_firm_at(0.0, 7.0), 7.0);
    }

    #[test]
    fn it_sets_slowly_and_melts_at_once() {
        let butter = FatCurve::new(&[(FatKind::Butter, 1.0)]);
        let soft = butter.solid(20.0);
        let pace = FatCurve::pace(75.0);
        let after = butter.step(soft, 5.0, &pace);
        // One time scale at 5 degC: 63 % of the way.
        assert!(((after - soft) / (butter.solid(5.0) - soft) - 0.632).abs() < 0.001);
        let hard = butter.solid(5.0);
        assert!(butter.step(hard, 20.0, &FatCurve::pace(150.0)) < butter.solid(20.0) + 0.02);
    }
}
