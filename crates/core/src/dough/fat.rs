//! Fats: how much of each is solid at a temperature, and between which solid shares a dough made with it rolls clean.
//!
//! The one table of solid fat for all stations. Typical values, from memory; a maker's own fat may differ by a few per cent.

use serde::{Deserialize, Serialize};
/// Latent heat of melting fat, J/kg: milk fat 80-120 kJ/kg in the literature, from memory; 110 taken.
pub const LATENT_FAT_J_KG: f64 = 110_000.0;

/// Kinds of fat with a solid-fat curve of their own.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FatKind {
    /// Butter fat, also that of milk and cream.
    Butter,
    /// All-purpose shortening.
    Shortening,
    /// Stick margarine.
    Margarine,
    /// Lard.
    Lard,
    /// Coconut oil, and cocoa butter for want of its own curve.
    Coconut,
    /// Oils liquid in the fridge, also those of nuts, seeds, flour and egg.
    Liquid,
}

const T_C: [f64; 13] = [-20.0, 0.0, 5.0, 10.0, 15.0, 20.0, 25.0, 30.0, 35.0, 38.0, 40.0, 45.0, 50.0];

impl FatKind {
    /// All kinds.
    pub const ALL: [Self; 6] =
        [Self::Butter, Self::Shortening, Self::Margarine, Self::Lard, Self::Coconut, Self::Liquid];

    /// Solid per cent at the temperatures of `T_C`.
    const fn solid_percent(self) -> [f64; 13] {
        match self {
            Self::Butter => [75.0, 58.0, 52.0, 45.0, 33.0, 20.0, 11.0, 5.0, 1.0, 0.0, 0.0, 0.0, 0.0],
            Self::Shortening => [45.0, 36.0, 34.0, 31.0, 28.0, 24.0, 20.0, 15.0, 10.0, 8.0, 6.0, 2.0, 0.0],
            Self::Margarine => [48.0, 38.0, 34.0, 28.0, 22.0, 17.0, 11.0, 6.0, 2.5, 1.0, 0.0, 0.0, 0.0],
            Self::Lard => [42.0, 35.0, 32.0, 29.0, 25.0, 20.0, 14.0, 7.0, 3.0, 2.0, 1.5, 0.0, 0.0],
            Self::Coconut => [95.0, 88.0, 85.0, 80.0, 62.0, 33.0, 2.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0],
            Self::Liquid => [0.0; 13],
        }
    }

    /// Solid shares between which dough made with it rolls clean; none for a fat that is never firm.
    const fn rolls_between(self) -> Option<(f64, f64)> {
        match self {
            Self::Butter => Some((0.26, 0.46)),
            Self::Shortening => Some((0.18, 0.33)),
            Self::Margarine => Some((0.15, 0.32)),
            Self::Lard => Some((0.16, 0.31)),
            Self::Coconut => Some((0.30, 0.75)),
            Self::Liquid => None,
        }
    }
}

/// The solid share (0 to 1) of a blend of fats at `t_c`: the mass-weighted mean, linear between table points, clamped.
#[must_use]
pub fn solid_share(fats: &[(FatKind, f64)], t_c: f64) -> f64 {
    fats.iter().map(|(kind, part)| part * interpolated(&kind.solid_percent(), t_c) / 100.0).sum()
}

fn interpolated(values: &[f64; 13], t_c: f64) -> f64 {
    if t_c <= T_C[0] {
        return values[0];
    }
    match T_C.iter().position(|&t| t >= t_c) {
        None => values[12],
        Some(i) => {
            let along = (t_c - T_C[i - 1]) / (T_C[i] - T_C[i - 1]);
            values[i - 1] + along * (values[i] - values[i - 1])
        }
    }
}

/// The solid shares between which a blend rolls clean.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct RollingLimits {
    /// Softest that still rolls clean.
    pub softest: f64,
    /// Hardest that still rolls clean.
    pub hardest: f64,
}

/// Least share of all fat that must be of kinds that get firm. Common practice, no source: with more oil than that the
/// dough stays soft however cold it is.
const LEAST_FIRM: f64 = 0.4;

/// The limits of a blend, the mass-weighted mean of its fats'. `None` where most of its fat is never firm.
#[must_use]
pub fn rolling_limits(fats: &[(FatKind, f64)]) -> Option<RollingLimits> {
    let mut limits = RollingLimits { softest: 0.0, hardest: 0.0 };
    let mut firm = 0.0;
    for (kind, part) in fats {
        if let Some((low, high)) = kind.rolls_between() {
            limits.softest += part * low;
            limits.hardest += part * high;
            firm += part;
        }
    }
    (firm >= LEAST_FIRM).then_some(limits)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_curve_meets_its_table_and_falls_everywhere() {
        for kind in FatKind::ALL {
            let fats = [(kind, 1.0)];
            for (i, &t) in T_C.iter().enumerate() {
                assert!((solid_share(&fats, t) - kind.solid_percent()[i] / 100.0).abs() < 1e-12);
            }
            let mut last = solid_share(&fats, -40.0);
            for tenth in -400..600 {
                let now = solid_share(&fats, f64::from(tenth) / 10.0);
                assert!(now <= last + 1e-12, "{kind:?} rises at {tenth}");
                last = now;
            }
        }
    }

    #[test]
    fn a_blend_lies_between_its_fats() {
        let half = [(FatKind::Butter, 0.5), (FatKind::Liquid, 0.5)];
        assert!((solid_share(&half, 5.0) - 0.26).abs() < 1e-12);
        let limits = rolling_limits(&half).unwrap();
        assert!((limits.hardest - 0.23).abs() < 1e-12);
        assert_eq!(rolling_limits(&[(FatKind::Liquid, 1.0)]), None);
        assert_eq!(rolling_limits(&[(FatKind::Butter, 0.2), (FatKind::Liquid, 0.8)]), None);
    }
}
