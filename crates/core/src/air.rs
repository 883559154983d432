//! The air that a kitchen stands in, and where water boils under it.

/// Standard atmosphere, Pa (ICAO).
pub const ATMOSPHERE_PA: f64 = 101_325.0;

/// Pressure of the air at an altitude, Pa: the ICAO standard atmosphere below 11 km.
#[must_use]
pub fn standard_pressure_pa(altitude_m: f64) -> f64 {
    ATMOSPHERE_PA * (1.0 - 0.0065 * altitude_m / 288.15).powf(9.80665 * 0.028_964_4 / (8.314_32 * 0.0065))
}

/// Where water boils under a pressure, degC (Antoine equation for water, 1-100 degC, constants from memory).
#[must_use]
pub fn boiling_c(pa: f64) -> f64 {
    let mmhg = pa / 133.322;
    1730.63 / (8.071_31 - mmhg.log10()) - 233.426
}

#[cfg(test)]
mod tests {
    use super::{boiling_c, standard_pressure_pa};

    /// Table of the ICAO standard atmosphere, and of water at its boiling point (steam tables): from memory.
    #[test]
    fn the_air_thins_and_water_boils_sooner() {
        for (m, kpa) in [(0.0, 101.325), (1000.0, 89.87), (1600.0, 83.5), (3000.0, 70.11)] {
            assert!((standard_pressure_pa(m) / 1000.0 - kpa).abs() < 0.1, "{m}");
        }
        assert!((boiling_c(83_500.0) - 94.7).abs() < 0.1 && (boiling_c(101_325.0) - 100.0).abs() < 0.05);
    }
}
