//! Enthalpy, conductivity and density of one dough over temperature, tabulated once for the solver.

use super::firmness::FatCurve;
use crate::dough::{
    Composition, FREEZING_K_PER_MOLAL, LATENT_FAT_J_KG, LATENT_ICE_J_KG, conductivity_w_mk, density_kg_m3, solid_share,
    specific_heat_j_kgk,
};
use crate::units::{Density, Temperature};

const LOW_C: f64 = -45.0;
const STEP_C: f64 = 0.1;
const STEPS: usize = 1100;
/// Water bound by flour, kg per kg of dry flour solids. Common practice among cereal chemists, from memory.
const BOUND_WATER: f64 = 0.3;
/// Molar mass of sucrose, kg/mol.
const SUCROSE_KG_MOL: f64 = 0.342;

/// Whether the dough's water freezes in the place it goes to.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum WaterState {
    /// Dissolved sugar keeps it liquid: the freezing point lies below the place.
    Unfrozen {
        /// The freezing point, where the make-up tells it.
        freezing: Option<Temperature>,
    },
    /// It freezes; the latent heat is counted over the freezing range.
    Freezes {
        /// Where it begins.
        freezing: Temperature,
    },
}

/// One row of the table, what the solver reads together lying together.
#[derive(Debug, Clone, Copy)]
struct Row {
    enthalpy_j_kg: f64,
    /// To the next row.
    slope_j_kgk: f64,
    kelvin_per_j_kg: f64,
    conductivity_w_mk: f64,
}

fn table(enthalpy_j_kg: &[f64], conductivity_w_mk: &[f64]) -> Vec<Row> {
    let row = |i: usize| {
        let slope_j_kgk = (enthalpy_j_kg[i + 1] - enthalpy_j_kg[i]) / STEP_C;
        Row {
            enthalpy_j_kg: enthalpy_j_kg[i],
            slope_j_kgk,
            kelvin_per_j_kg: 1.0 / slope_j_kgk,
            conductivity_w_mk: conductivity_w_mk[i],
        }
    };
    (0..STEPS).map(row).collect()
}

/// Tabulated properties of one dough.
#[derive(Debug, Clone)]
pub struct Thermal {
    rows: Vec<Row>,
    density_kg_m3: f64,
    water: WaterState,
    fat: FatCurve,
}

impl Thermal {
    /// The properties of `composition` for air as cold as `coldest`; density at `start`.
    #[must_use]
    pub fn new(composition: &Composition, start: Temperature, coldest: Temperature) -> Self {
        let water = water_state(composition, coldest);
        let x = composition.components();
        let mut enthalpy = Vec::with_capacity(STEPS + 1);
        let mut conductivity = Vec::with_capacity(STEPS + 1);
        let mut sum = 0.0;
        let heat = |t: f64| {
            // The fat melts by the slope of its solid curve, central difference over +-1 K.
            let melting = (solid_share(&composition.fats, t - 1.0) - solid_share(&composition.fats, t + 1.0)) / 2.0;
            specific_heat_j_kgk(&x, t) + composition.fat * LATENT_FAT_J_KG * melting
        };
        for i in 0..=STEPS {
            let t = at(i);
            if i > 0 {
                sum += heat(t - STEP_C / 2.0) * STEP_C;
                if let WaterState::Freezes { freezing } = water {
                    sum += LATENT_ICE_J_KG
                        * (ice_share(composition, freezing, t - STEP_C) - ice_share(composition, freezing, t));
                }
            }
            enthalpy.push(sum);
            conductivity.push(conductivity_w_mk(composition, t));
        }
        Self {
            rows: table(&enthalpy, &conductivity),
            density_kg_m3: density_kg_m3(composition, start.c()),
            water,
            fat: FatCurve::new(&composition.fats),
        }
    }

    /// Properties that do not change with temperature, for checks against textbook solutions.
    #[must_use]
    pub fn constant(density: Density, specific_heat_j_kgk: f64, conductivity_w_mk: f64) -> Self {
        let enthalpy: Vec<f64> = (0..=STEPS).map(|i| specific_heat_j_kgk * (at(i) - LOW_C)).collect();
        Self {
            rows: table(&enthalpy, &vec![conductivity_w_mk; STEPS + 1]),
            density_kg_m3: density.kg_m3(),
            water: WaterState::Unfrozen { freezing: None },
            fat: FatCurve::new(&[]),
        }
    }

    /// Whether water was taken to freeze.
    #[must_use]
    pub fn water(&self) -> WaterState {
        self.water
    }

    pub(crate) fn fat(&self) -> &FatCurve {
        &self.fat
    }

    pub(crate) fn density_kg_m3(&self) -> f64 {
        self.density_kg_m3
    }

    /// Enthalpy in J/kg, its slope in J/kgK, and the conductivity in W/mK at `t_c`.
    pub(crate) fn at(&self, t_c: f64) -> (f64, f64, f64) {
        let i = place(t_c);
        let row = &self.rows[i];
        (row.enthalpy_j_kg + row.slope_j_kgk * (t_c - at(i)), row.slope_j_kgk, row.conductivity_w_mk)
    }

    /// The temperature at which the dough holds `enthalpy`, searched from `near_c`.
    pub(crate) fn temperature_c(&self, enthalpy: f64, near_c: f64) -> f64 {
        let mut i = place(near_c);
        while i > 0 && self.rows[i].enthalpy_j_kg > enthalpy {
            i -= 1;
        }
        while i + 1 < self.rows.len() && self.rows[i + 1].enthalpy_j_kg < enthalpy {
            i += 1;
        }
        let row = &self.rows[i];
        at(i) + row.kelvin_per_j_kg * (enthalpy - row.enthalpy_j_kg)
    }
}

#[expect(clippy::cast_precision_loss, reason = "a table index")]
fn at(i: usize) -> f64 {
    LOW_C + STEP_C * i as f64
}

#[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "clamped to the table")]
fn place(t_c: f64) -> usize {
    // Truncation is the floor here, since negative positions are clamped to the first row.
    let steps = ((t_c - LOW_C) * (1.0 / STEP_C)).max(0.0);
    (steps as usize).min(STEPS - 1)
}

fn free_water(composition: &Composition, flour_solids: f64) -> f64 {
    (composition.water - BOUND_WATER * flour_solids).max(0.0)
}

fn water_state(composition: &Composition, coldest: Temperature) -> WaterState {
    let Some((sugars, flour_solids)) = composition.sugars_and_flour_solids else {
        return WaterState::Unfrozen { freezing: None };
    };
    let free = free_water(composition, flour_solids);
    if free <= 1e-6 {
        return WaterState::Unfrozen { freezing: None };
    }
    // Below -60 degC it no longer matters how far: every freezer is warmer.
    let freezing = (-FREEZING_K_PER_MOLAL * sugars / SUCROSE_KG_MOL / free).max(-60.0);
    let freezing = Temperature::new_c(freezing);
    if freezing < coldest {
        WaterState::Unfrozen { freezing: Some(freezing) }
    } else {
        WaterState::Freezes { freezing }
    }
}

/// Ice as a share of the dough: what must freeze out for the rest to be as concentrated as `t_c` asks.
fn ice_share(composition: &Composition, freezing: Temperature, t_c: f64) -> f64 {
    let flour_solids = composition.sugars_and_flour_solids.map_or(0.0, |(_, flour)| flour);
    let begins = freezing.c().min(-0.05);
    if t_c >= begins { 0.0 } else { free_water(composition, flour_solids) * (1.0 - begins / t_c) }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::dough::Formula;

    fn dough(sugar: f64, water: f64) -> Composition {
        let lines = [("flour-ap", 300.0), ("butter", 100.0), ("sugar", sugar), ("water", water)];
        Formula::new("Test", &lines.map(Into::into), crate::dough::Pantry::built_in()).unwrap().composition()
    }

    #[test]
    fn enthalpy_and_temperature_are_inverse() {
        let thermal = Thermal::new(&dough(100.0, 25.0), Temperature::new_c(21.0), Temperature::new_c(-18.0));
        for t in [-30.0, -18.0, 0.0, 3.3, 17.7, 25.0, 44.0] {
            let (h, slope, _) = thermal.at(t);
            assert!((thermal.temperature_c(h, 10.0) - t).abs() < 1e-9);
            assert!(slope > 1000.0);
        }
    }

    #[test]
    fn sugar_keeps_a_sweet_dough_from_freezing_and_a_plain_wet_one_freezes() {
        let freezer = Temperature::new_c(-18.0);
        assert!(matches!(water_state(&dough(100.0, 0.1), freezer), WaterState::Unfrozen { .. }));
        let wet = dough(5.0, 150.0);
        let WaterState::Freezes { freezing } = water_state(&wet, freezer) else { panic!("it freezes") };
        assert!(freezing.c() < 0.0 && freezing.c() > -2.0);
        let frozen = Thermal::new(&wet, Temperature::new_c(21.0), freezer);
        let unfrozen = Thermal::new(&wet, Temperature::new_c(21.0), Temperature::new_c(4.0));
        let taken = |t: &Thermal| t.at(5.0).0 - t.at(-18.0).0;
        // The latent heat of what freezes out, within the share of free water.
        let latent = taken(&frozen) - taken(&unfrozen);
        assert!(latent > 0.0 && latent < LATENT_ICE_J_KG * wet.water(), "{latent}");
    }
}
