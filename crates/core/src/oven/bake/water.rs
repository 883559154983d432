//! Properties and tables of the bake model. Temperatures in degC, everything else in SI units.

/// Universal gas constant, J/mol K.
pub(super) const GAS: f64 = 8.314;
/// Stefan and Boltzmann's constant, W/m2K4.
pub(super) const SIGMA: f64 = 5.670e-8;
/// Saturation pressure of water, Pa: Magnus form after Alduchov and Eskridge (1996), from memory; also used above 100 degC,
/// where it is a few per cent off.
pub(super) fn saturation_pa(t_c: f64) -> f64 {
    610.94 * (17.625 * t_c / (t_c + 243.04)).exp()
}

/// Latent heat of water, J/kg. Linear fit of the steam tables, from memory.
pub(super) fn latent_j_kg(t_c: f64) -> f64 {
    2.50e6 - 2400.0 * t_c
}

/// Water activity by water over the dry matter without fat: Oswin's form. Calibrated: 0.75 in dough, 0.2 to 0.3 at 4 to 5 %.
pub(super) fn water_activity(water_on_dry: f64, t_c: f64) -> f64 {
    if water_on_dry < 1e-6 {
        return 0.0;
    }
    let a = 0.13 * (-0.006 * (t_c - 25.0)).exp();
    1.0 / (1.0 + (a / water_on_dry).powf(1.6))
}

/// Sucrose that a kilogram of water holds, kg. Handbook fit, from memory.
pub(super) fn sugar_solubility(t_c: f64) -> f64 {
    1.79 + 0.0085 * t_c + 0.000_22 * t_c * t_c
}

/// A rate at `t_c` over that at `reference_k`, for an activation energy in J/mol.
pub(super) fn arrhenius(energy_j_mol: f64, t_c: f64, reference_k: f64) -> f64 {
    (-energy_j_mol / GAS * (1.0 / (t_c + 273.15) - 1.0 / reference_k)).exp()
}

/// Thicknesses of `N` cells over `height_m`: thin at both faces, growing geometrically toward the middle.
pub(super) fn cells<const N: usize>(height_m: f64) -> [f64; N] {
    let half = N / 2;
    #[expect(clippy::cast_precision_loss, reason = "a few cells")]
    let first = (0.000_5_f64).min(height_m / N as f64);
    let sum_of = |ratio: f64| {
        let (mut sum, mut cell) = (0.0, first);
        for _ in 0..half {
            sum += cell;
            cell *= ratio;
        }
        sum
    };
    let (mut low, mut high) = (1.0, 6.0);
    for _ in 0..60 {
        let middle = 0.5 * (low + high);
        if sum_of(middle) < 0.5 * height_m { low = middle } else { high = middle }
    }
    let scale = 0.5 * height_m / sum_of(low);
    let mut found = [0.0; N];
    let mut cell = first;
    for j in 0..half {
        found[j] = cell * scale;
        found[N - 1 - j] = found[j];
        cell *= low;
    }
    found
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::air::{ATMOSPHERE_PA, boiling_c, standard_pressure_pa};

    #[test]
    fn cells_fill_the_height_and_are_thin_at_both_faces() {
        for height in [0.002, 0.006, 0.025] {
            let found = cells::<10>(height);
            assert!((found.iter().sum::<f64>() - height).abs() < 1e-12);
            assert!(found[0] <= found[4] + 1e-15 && (found[0] - found[9]).abs() < 1e-15);
        }
    }

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
}
