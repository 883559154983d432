//! Pores: air, leavening gas and steam in each cell, at a pressure of their own. What is over the air's widens the cell, leaks, and is
//! frozen in as it sets.

use super::cells::{Column, Fill};
use super::dough::OvenDough;
use super::nature::GAS;
use crate::air::ATMOSPHERE_PA;

/// Leaveners give their gas at this rate at 60 degC, 1/s, so much faster for each degree, no further than e to so many. Assumed.
const COMES: (f64, f64, f64) = (0.02, 0.07, 2.5);
/// Of the gas made, held in the dough. Calibrated.
const HELD: f64 = 0.315_6;
/// Pores widen in this time, s, and close so much more slowly. Calibrated.
const WIDENS_S: f64 = 0.966_4;
const CLOSES: f64 = 0.147_8;
/// Gas leaks from a piece of 6 mm, 1/s. Calibrated; thicker pieces hold it longer, with the square of their height.
const LEAKS: (f64, f64) = (0.675_4, 0.006);
/// Most gas in a cell, of its volume. Assumed.
const MOST_GAS: f64 = 0.78;
/// A cell grows no further in one step; pores never close entirely: numerical.
const MOST_A_STEP: f64 = 0.3;
const LEAST_PORES: f64 = 5e-4;
/// What has set so far holds its pores as they are.
const HOLDS: f64 = 0.9995;

/// Pores of a dough in the air it bakes in.
pub(super) struct Pores {
    leavening: f64,
    pressure_pa: f64,
    /// Once because pascals drive, not ratios; once because thin air lets steam out.
    thin: f64,
    leaks: f64,
}

impl Pores {
    pub(super) fn new(dough: &OvenDough, height_m: f64, pressure_pa: f64) -> Self {
        Self {
            leavening: dough.parts().gas_mol_kg,
            pressure_pa,
            thin: (pressure_pa / ATMOSPHERE_PA).powi(2),
            leaks: LEAKS.0 * (LEAKS.1 / height_m).powi(2),
        }
    }

    /// A cell a step on; by how much it grew while it was soft, m3/m2.
    pub(super) fn step<const N: usize>(&self, col: &mut Column<N>, fill: &Fill<N>, i: usize, dt: f64) -> f64 {
        let t = col.t_c[i];
        if self.leavening > 0.0 && col.set[i] < 0.9999 {
            let rate = COMES.0 * (COMES.1 * (t - 60.0)).min(COMES.2).exp();
            let comes = (self.leavening - col.leavened[i]) * (1.0 - (-rate * dt).exp());
            col.leavened[i] += comes;
            col.gas[i] += comes * HELD;
        }
        if col.set[i] >= HOLDS {
            return 0.0;
        }
        let (mass, soft) = (fill.mass[i], 1.0 - col.set[i]);
        let condensed = mass * (fill.dry_volume + col.water[i] / 1000.0);
        let room = (col.volume[i] - condensed).max(LEAST_PORES * condensed);
        let share = room / col.volume[i];
        let gas_pa = mass * col.gas[i] * GAS * (t + 273.15) / room;
        let over = ((gas_pa + col.vapour_pa[i]) / self.pressure_pa - 1.0) * self.thin;
        let gives =
            soft * col.volume[i] / WIDENS_S * if over > 0.0 { (1.0 - share / MOST_GAS).max(0.0) } else { CLOSES };
        // The overpressure at the end of the step: what widens takes it down at once.
        let over = over / (1.0 + dt * gives * self.thin * gas_pa / (self.pressure_pa * room));
        if over > 0.0 {
            col.gas[i] *= (-dt * self.leaks * over * share / self.thin).exp();
        }
        let grows = (dt * gives * over).min(MOST_A_STEP * col.volume[i]);
        col.volume[i] += grows;
        soft * grows.max(0.0)
    }
}
