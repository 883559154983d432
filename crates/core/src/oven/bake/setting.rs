//! Starch and egg set, sugar dissolves, fat melts: what each cell becomes as it warms. Temperatures in degC, times in seconds.

use super::cells::Column;
use super::dough::OvenDough;
use super::water::arrhenius;

/// Where a dough without sugar or egg, of flour of 10 % protein, sets; by how much sugar raises that, and a point of the flour's
/// protein and one of egg's in the dough lower it, degC. Calibrated; that sugar raises it is known from literature, from memory.
const SETS_C: f64 = 69.7;
const SUGAR_RAISES: f64 = 36.63;
const FLOUR_LOWERS: f64 = 1.0;
const EGG_LOWERS: f64 = 0.588_1;
/// Rate there, 1/s (assumed), and its growth for each degree (calibrated), no further than e to the fourth.
const SETS_A_SECOND: f64 = 1.0 / 30.0;
const SETS_FASTER: (f64, f64) = (0.14, 4.0);
/// Nothing more is told of what has set so far.
const WHOLLY_SET: f64 = 0.9999;
/// Sugar of crystals of 0.45 mm dissolves so fast at 60 degC, 1/s (calibrated), its activation, J/mol (assumed), and from where on.
const DISSOLVES: f64 = 0.006_667;
const DISSOLVES_J_MOL: f64 = 3e4;
const DISSOLVES_FROM_C: f64 = 30.0;
const CRYSTAL_M: f64 = 0.000_45;
/// Solid fat follows its curve with this lag, s. Calibrated: this is what makes chilling matter.
const MELTING_S: f64 = 57.04;
/// No fat of the table is solid above this.
const LIQUID_C: f64 = 50.0;

/// Sucrose that a kilogram of water holds, kg. Handbook fit, from memory.
fn sugar_solubility(t_c: f64) -> f64 {
    1.79 + 0.0085 * t_c + 0.000_22 * t_c * t_c
}

/// What a dough sets and dissolves by.
pub(super) struct Setting<'a> {
    dough: &'a OvenDough,
    sets_at_c: f64,
    crystal: f64,
}

impl<'a> Setting<'a> {
    pub(super) fn new(dough: &'a OvenDough) -> Self {
        let p = dough.parts();
        let sweet = p.sugar / (p.sugar + p.water).max(1e-9);
        Self {
            dough,
            sets_at_c: SETS_C + SUGAR_RAISES * sweet
                - FLOUR_LOWERS * (p.protein_percent - 10.0)
                - EGG_LOWERS * 100.0 * p.egg_protein,
            crystal: (CRYSTAL_M / p.crystal_m).powi(2),
        }
    }

    /// A cell a step on, at its new temperature.
    pub(super) fn step<const N: usize>(&self, col: &mut Column<N>, i: usize, dt: f64) {
        let t = col.t_c[i];
        if col.solid_fat[i] > 1e-6 || t < LIQUID_C {
            col.solid_fat[i] += (self.dough.solid_fat(t) - col.solid_fat[i]) * (1.0 - (-dt / MELTING_S).exp());
        }
        if col.set[i] < WHOLLY_SET {
            let faster = (SETS_FASTER.0 * (t - self.sets_at_c)).min(SETS_FASTER.1).exp();
            col.set[i] = 1.0 - (1.0 - col.set[i]) * (-SETS_A_SECOND * faster * dt).exp();
        }
        if t > DISSOLVES_FROM_C && col.dissolved[i] < 1.0 {
            let holds = (sugar_solubility(t) * col.water[i] / self.dough.parts().sugar.max(1e-6)).min(1.0);
            if holds > col.dissolved[i] {
                let pace = DISSOLVES * arrhenius(DISSOLVES_J_MOL, t, 333.15) * self.crystal;
                col.dissolved[i] += (holds - col.dissolved[i]) * (1.0 - (-pace * dt).exp());
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Sucrose in 100 g of water: 204 g at 20, 287 at 60 degC (handbook, from memory).
    #[test]
    fn hot_water_holds_more_sugar() {
        assert!(
            (sugar_solubility(20.0) / 2.04 - 1.0).abs() < 0.02 && (sugar_solubility(60.0) / 2.87 - 1.0).abs() < 0.1
        );
    }
}
