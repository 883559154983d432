//! Thermal properties of a food's components after Choi and Okos (1986), as tabulated in the ASHRAE Handbook,
//! Refrigeration, "Thermal Properties of Foods". Coefficients from memory; valid from -40 to 150 degC.

use super::Composition;
use super::ingredient::Ingredient;
use super::method::MixMethod;
use crate::units::Density;

/// Share of the dough's volume that is air where nobody says how it was mixed.
pub const AIR_SHARE: f64 = MixMethod::JustCombined.air();
/// Latent heat of ice, J/kg (handbook value, from memory).
pub const LATENT_ICE_J_KG: f64 = 334_000.0;
/// Freezing-point depression of water, K per mol of solute per kg (textbook value, from memory).
pub const FREEZING_K_PER_MOLAL: f64 = 1.86;

/// Mass fractions in the order of the tables below: protein, fat, carbohydrate, fibre, ash, water.
pub(crate) type Components = [f64; 6];

/// Each row `[a, b, c]` is `a + b T + c T^2`, T in degC.
type Table = [[f64; 3]; 5];

const DENSITY_KG_M3: Table = [
    [1329.9, -0.5184, 0.0],
    [925.59, -0.41757, 0.0],
    [1599.1, -0.31046, 0.0],
    [1311.5, -0.36589, 0.0],
    [2423.8, -0.28063, 0.0],
];
const WATER_DENSITY: [f64; 3] = [997.18, 3.1439e-3, -3.7574e-3];

const CONDUCTIVITY_W_MK: Table = [
    [0.178_81, 1.1958e-3, -2.7178e-6],
    [0.180_71, -2.7604e-4, -1.7749e-7],
    [0.201_41, 1.3874e-3, -4.3312e-6],
    [0.183_31, 1.2497e-3, -3.1683e-6],
    [0.329_62, 1.4011e-3, -2.9069e-6],
];
const WATER_CONDUCTIVITY: [f64; 3] = [0.571_09, 1.7625e-3, -6.7036e-6];

const SPECIFIC_HEAT_KJ_KGK: Table = [
    [2.0082, 1.2089e-3, -1.3129e-6],
    [1.9842, 1.4733e-3, -4.8008e-6],
    [1.5488, 1.9625e-3, -5.9399e-6],
    [1.8459, 1.8306e-3, -4.6509e-6],
    [1.0926, 1.8896e-3, -3.6817e-6],
];
const WATER_SPECIFIC_HEAT_ABOVE_0: [f64; 3] = [4.1762, -9.0864e-5, 5.4731e-6];
const WATER_SPECIFIC_HEAT_BELOW_0: [f64; 3] = [4.0817, -5.3062e-3, 9.9516e-4];

fn at(row: [f64; 3], t_c: f64) -> f64 {
    row[0] + row[1] * t_c + row[2] * t_c * t_c
}

fn with_water(table: &Table, water: [f64; 3], t_c: f64) -> [f64; 6] {
    let v = |i: usize| at(table[i], t_c);
    [v(0), v(1), v(2), v(3), v(4), at(water, t_c)]
}

impl Composition {
    pub(crate) fn components(&self) -> Components {
        [self.protein, self.fat, self.carbohydrate, self.fibre, self.ash, self.water]
    }
}

impl Ingredient {
    pub(crate) fn components(&self) -> Components {
        let a = &self.analysis;
        // Alcohol counts as water: there is little of it, and the tables have none.
        [a.protein, a.fat, a.carbohydrate, a.fibre, a.ash, a.water + a.alcohol].map(|g| g / 100.0)
    }
}

/// Density without air, kg/m3, at `t_c`.
pub(crate) fn solid_density_kg_m3(x: &Components, t_c: f64) -> f64 {
    let rho = with_water(&DENSITY_KG_M3, WATER_DENSITY, t_c);
    1.0 / x.iter().zip(rho).map(|(x, rho)| x / rho).sum::<f64>()
}

/// Density of the dough with its air ([`AIR_SHARE`]), kg/m3, at `t_c`.
#[must_use]
pub fn density_kg_m3(composition: &Composition, t_c: f64) -> f64 {
    solid_density_kg_m3(&composition.components(), t_c) * (1.0 - AIR_SHARE)
}

/// Temperature at which a rolled dough's density is taken, degC: the middle of butter's rolling window.
const ROLLED_AT_C: f64 = 14.0;

/// Density of the dough as it is rolled and cut, with the air that its mixing has left.
#[must_use]
pub fn rolled_density(composition: &Composition, method: MixMethod) -> Density {
    Density::new_kg_m3(solid_density_kg_m3(&composition.components(), ROLLED_AT_C) * (1.0 - method.air()))
}

/// Conductivity of the dough with its air, W/mK: the geometric mean of the parallel and the series model over volume
/// shares, times one less the air.
#[must_use]
pub fn conductivity_w_mk(composition: &Composition, t_c: f64) -> f64 {
    let x = composition.components();
    let rho = with_water(&DENSITY_KG_M3, WATER_DENSITY, t_c);
    let k = with_water(&CONDUCTIVITY_W_MK, WATER_CONDUCTIVITY, t_c);
    let volume: f64 = x.iter().zip(rho).map(|(x, rho)| x / rho).sum();
    let (mut parallel, mut series) = (0.0, 0.0);
    for i in 0..x.len() {
        let share = x[i] / rho[i] / volume;
        parallel += share * k[i];
        series += share / k[i];
    }
    (parallel / series).sqrt() * (1.0 - AIR_SHARE)
}

/// Specific heat of the components without melting or freezing, J/kgK, water unfrozen.
#[must_use]
pub fn specific_heat_j_kgk(x: &[f64; 6], t_c: f64) -> f64 {
    let water = if t_c < 0.0 { WATER_SPECIFIC_HEAT_BELOW_0 } else { WATER_SPECIFIC_HEAT_ABOVE_0 };
    let c = with_water(&SPECIFIC_HEAT_KJ_KGK, water, t_c);
    1000.0 * x.iter().zip(c).map(|(x, c)| x * c).sum::<f64>()
}

#[cfg(test)]
mod tests {
    use super::*;

    const WATER: Components = [0.0, 0.0, 0.0, 0.0, 0.0, 1.0];

    #[test]
    fn water_at_20_degrees_is_water() {
        // Handbook values: 998 kg/m3, 0.60 W/mK, 4.18 kJ/kgK.
        assert!((solid_density_kg_m3(&WATER, 20.0) / 998.0 - 1.0).abs() < 0.003);
        assert!((at(WATER_CONDUCTIVITY, 20.0) / 0.60 - 1.0).abs() < 0.01);
        assert!((specific_heat_j_kgk(&WATER, 20.0) / 4180.0 - 1.0).abs() < 0.002);
    }

    #[test]
    fn a_cookie_dough_lies_where_the_trade_says() {
        // Common practice: 1.19 to 1.23 g/cm3 with 5 % air, give or take a leaner or richer dough.
        let b =
            Composition::from_analysis(0.1457, 0.2018, 0.0575, 0.5799, 0.0035, 0.0116, super::super::FatKind::Butter)
                .unwrap();
        let density = density_kg_m3(&b, 20.0);
        assert!((1190.0..1240.0).contains(&density), "{density}");
        let k = conductivity_w_mk(&b, 10.0);
        assert!((0.2..0.3).contains(&k), "{k}");
    }
}
