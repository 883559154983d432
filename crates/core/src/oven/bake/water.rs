//! Water in the dough: how hard it holds it, how it moves within, boils, and leaves by the surface. Temperatures in degC, everything
//! else in SI units.

use super::cells::Column;
use super::nature::GAS;
use crate::air::ATMOSPHERE_PA;

/// Density of the oven's air, kg/m3, its heat, J/kg K, and Lewis' number to the power of two thirds: of hot moist air, from memory.
const AIR_KG_M3: f64 = 1.0;
const AIR_J_KGK: f64 = 1010.0;
const LEWIS: f64 = 0.90;
/// Molar mass of water, kg/mol.
const WATER_KG_MOL: f64 = 0.018;
/// Share of the free evaporation that the fat film and the crust let through. Calibrated.
const LETS_THROUGH: f64 = 0.096_17;
/// Inner boiling, 1/s for each relative overpressure. Calibrated.
const BOILING: f64 = 0.003_239;
/// Water's diffusion in dough at 60 degC, m2/s (literature, from memory), and its activation, J/mol (assumed).
const DIFFUSES: f64 = 6e-10;
const DIFFUSES_J_MOL: f64 = 3e4;
/// Oswin's form of the sorption isotherm: water over dry matter at an activity of one half and 25 degC, its exponent (both calibrated), and by
/// how much a degree lowers the first (assumed).
const OSWIN: (f64, f64, f64) = (0.13, 1.6, 0.006);
/// No cell gives more than this share of its water in one step: numerical.
const MOST_A_STEP: (f64, f64) = (0.2, 0.1);
/// The side's skin is taken no hotter than this for its vapour, degC: numerical.
const SIDE_AT_MOST_C: f64 = 105.0;
/// No cell dries further, of the dough's mass: numerical.
const DRIEST: f64 = 1e-4;

/// Saturation pressure of water, Pa: Magnus form after Alduchov and Eskridge (1996), from memory; also used above 100 degC,
/// where it is a few per cent off.
pub(super) fn saturation_pa(t_c: f64) -> f64 {
    610.94 * (17.625 * t_c / (t_c + 243.04)).exp()
}

/// Latent heat of water, J/kg. Linear fit of the steam tables, from memory.
pub(super) fn latent_j_kg(t_c: f64) -> f64 {
    2.50e6 - 2400.0 * t_c
}

/// A rate at `t_c` over that at `reference_k`, for an activation energy in J/mol.
pub(super) fn arrhenius(energy_j_mol: f64, t_c: f64, reference_k: f64) -> f64 {
    (-energy_j_mol / GAS * (1.0 / (t_c + 273.15) - 1.0 / reference_k)).exp()
}

/// Water activity by water over the dry matter without fat and pieces: Oswin's form.
pub(super) fn water_activity(water_on_dry: f64, t_c: f64) -> f64 {
    if water_on_dry < 1e-6 {
        return 0.0;
    }
    let (half, exponent, falls) = OSWIN;
    1.0 / (1.0 + (exponent * (half.ln() - falls * (t_c - 25.0) - water_on_dry.ln())).exp())
}

/// A surface as water leaves it.
#[derive(Clone, Copy)]
pub(super) struct Film {
    /// Water through it by a pascal times kelvin, kg/m2s.
    carries: f64,
    /// Vapour around it, Pa.
    vapour_pa: f64,
    air_c: f64,
}

impl Film {
    /// Of a heat transfer film: water follows heat (Lewis).
    pub(super) fn new(film_w_m2k: f64, air_c: f64, vapour_pa: f64) -> Self {
        let carries = LETS_THROUGH * film_w_m2k / (AIR_KG_M3 * AIR_J_KGK * LEWIS) * WATER_KG_MOL / GAS;
        Self { carries, vapour_pa, air_c }
    }

    fn leaves(&self, activity: f64, surface_c: f64, vapour_at_c: f64) -> f64 {
        self.carries * (activity * saturation_pa(vapour_at_c) - self.vapour_pa)
            / (0.5 * (surface_c + self.air_c) + 273.15)
    }

    /// From the top of a cell that holds `water_kg_m2`, within a step, kg/m2s.
    pub(super) fn off_top(&self, activity: f64, surface_c: f64, water_kg_m2: f64, dt: f64) -> f64 {
        self.leaves(activity, surface_c, surface_c).min(MOST_A_STEP.0 * water_kg_m2 / dt).max(0.0)
    }

    /// From the side of a cell that holds `water_kg_m2` on each square metre of side.
    pub(super) fn off_side(&self, activity: f64, surface_c: f64, water_kg_m2: f64, dt: f64) -> f64 {
        let vapour_at_c = surface_c.min(SIDE_AT_MOST_C);
        self.leaves(activity, surface_c, vapour_at_c).min(MOST_A_STEP.1 * water_kg_m2 / dt).max(0.0)
    }
}

/// Vapour in the air of an oven, Pa: assumed; a fan drives some of it out. And in that of a room.
pub(super) fn oven_vapour_pa(fan: bool) -> f64 {
    if fan { 4000.0 } else { 5000.0 }
}
pub(super) const ROOM_VAPOUR_PA: f64 = 1300.0;

/// Thinner air carries less: with the square root of its density, as over a plate, still or moved (Incropera, from memory).
pub(super) fn thinner_air(pressure_pa: f64) -> f64 {
    (pressure_pa / ATMOSPHERE_PA).sqrt()
}

/// Water that moves between the cells of a column, added to what dries each.
pub(super) fn moves<const N: usize>(col: &mut Column<N>, density: f64) {
    for i in 0..N - 1 {
        let at_c = 0.5 * (col.t_c[i] + col.t_c[i + 1]);
        let apart = 0.5 * (col.thick[i] + col.thick[i + 1]);
        let up =
            DIFFUSES * arrhenius(DIFFUSES_J_MOL, at_c, 333.15) * density * (col.water[i + 1] - col.water[i]) / apart;
        col.dries[i] -= up;
        col.dries[i + 1] += up;
    }
}

/// Water that boils within a cell of so much mass, kg/m2s.
pub(super) fn boils(vapour_pa: f64, air_pa: f64, mass: f64, water: f64, dt: f64) -> f64 {
    if vapour_pa <= air_pa {
        return 0.0;
    }
    (BOILING * (vapour_pa / air_pa - 1.0) * mass).min(MOST_A_STEP.0 * mass * water / dt)
}

/// What is left of a cell's water.
pub(super) fn dried(water: f64, leaves_kg_m2: f64, mass: f64) -> f64 {
    (water - leaves_kg_m2 / mass).max(DRIEST)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::air::{boiling_c, standard_pressure_pa};

    /// Antoine's equation for water, 1 to 100 degC (from memory): at the air of 1600 m it boils near 94.7 degC.
    #[test]
    fn water_boils_sooner_high_up() {
        let boils = (0..1200).map(|t| f64::from(t) / 10.0).find(|t| saturation_pa(*t) >= standard_pressure_pa(1600.0));
        assert!((boils.unwrap() - 94.7).abs() < 0.8, "{boils:?}");
        assert!((boiling_c(standard_pressure_pa(1600.0)) - 94.7).abs() < 0.3);
    }

    /// Steam tables: 2.339 kPa at 20, 101.3 at 100 degC; 2257 kJ/kg at 100 degC.
    #[test]
    fn water_boils_at_a_hundred_degrees() {
        assert!((saturation_pa(20.0) / 2339.0 - 1.0).abs() < 0.005);
        assert!((saturation_pa(100.0) / ATMOSPHERE_PA - 1.0).abs() < 0.03);
        assert!((latent_j_kg(100.0) / 2.257e6 - 1.0).abs() < 0.01);
    }

    /// Flour at 25 degC and an activity of 0.5 holds 9 to 13 g of water on 100 g dry (Brunauer type II isotherms of wheat flour, from memory).
    #[test]
    fn flour_holds_its_water_as_the_isotherms_say() {
        assert!((0.35..0.65).contains(&water_activity(0.11, 25.0)));
        assert!(water_activity(0.11, 60.0) > water_activity(0.11, 25.0));
        assert_eq!(water_activity(0.0, 25.0), 0.0);
    }
}
