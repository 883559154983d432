//! How a dough gives way: its yield and viscosity, and how far it spreads by the gas that pushes it apart and by its own weight.

use super::cells::{Column, Fill};
use super::dough::OvenDough;
use super::setup::Plate;
use super::water::arrhenius;
use crate::dough::stiffness::{
    FLOUR, FLOUR_SWELLS, LOOSE_OTHER, LOOSE_PIECES, LOOSE_SUGAR, OTHER, PIECES, STARCH, SUGAR, WATER,
};

/// Egg's protein swells by this share of its volume; closest packing of the solids (assumed); share of the fat that lies between them
/// and thins. Calibrated.
const EGG_SWELLS: f64 = 0.683_2;
const MOST_PACKED: f64 = 0.87;
const FAT_THINS: f64 = 0.057_84;
/// Yield of packed solids, Pa, and its exponent; of the fat's network if all fat were solid, Pa, and its exponent; of set dough, Pa.
/// Calibrated.
const PACKED_PA: (f64, f64) = (5.93, 1.408);
const FAT_PA: (f64, f64) = (4.243e4, 2.725);
const SET_PA: f64 = 77.67;
/// Soda takes away this much of the yield at most, by what of it flour has not buffered, and its scale, both % of flour; powdered sugar
/// and a point of the flour's protein add to it. Calibrated.
const SODA_LOOSENS: (f64, f64, f64) = (0.831_7, 0.387_1, 0.354);
const POWDER_STIFFENS: f64 = 2.0;
const PROTEIN_STIFFENS: f64 = 0.141_9;
/// Viscosity at 80 degC, Pa s, its activation, J/mol (calibrated), and how much setting thickens it (assumed).
const VISCOSITY: (f64, f64) = (104.3, 2.526e4);
const SET_THICKENS: f64 = 59.03;
/// How soft the yield is, Pa; the yield that halves what gas pushes sideways, Pa; how strongly it does. Calibrated: the last makes up for
/// the two shares of soft dough it is multiplied with and is no measured constant.
const SOFT_PA: f64 = 45.66;
const HALVES_PA: f64 = 31.88;
const SIDEWAYS: f64 = 4.29;
/// Melted fat lubricates the base: factor on the liner's drag, fat of the dough it is told at, exponent. Calibrated.
const DRAG: (f64, f64, f64) = (0.364_2, 0.223, 1.552);
/// Gas that unset dough keeps as it cools. Assumed.
const KEEPS: f64 = 0.45;
/// Middle and rim weigh alike in what holds it together: the rim is a hoop. Assumed.
const HOOP: f64 = 0.5;
/// Nothing moves once both columns have set so far.
const STANDS: f64 = 0.99;

/// What a dough resists by; all but solid fat, water and setting stays as it is.
pub(super) struct Flow {
    swollen: f64,
    sugar: f64,
    packed_pa: f64,
    drag: f64,
}

/// How a piece lies at a moment.
#[derive(Clone, Copy)]
pub(super) struct Lies {
    /// Radius over height.
    pub slender: f64,
    /// Mean pressure of its own weight, Pa.
    pub weighs_pa: f64,
    /// How far middle and rim have set.
    pub set: [f64; 2],
}

/// Means over the piece at a moment.
#[derive(Clone, Copy, Default)]
pub(super) struct Resists {
    /// Yield with what has set, and without, Pa; viscosity, Pa s.
    pub yields: f64,
    pub yields_soft: f64,
    pub viscosity: f64,
}

impl Flow {
    pub(super) fn new(dough: &OvenDough, plate: &Plate) -> Self {
        let p = dough.parts();
        let loosened = 1.0 - (-(p.soda_percent - SODA_LOOSENS.1).max(0.0) / SODA_LOOSENS.2).exp();
        Self {
            swollen: swollen(dough),
            sugar: p.sugar,
            packed_pa: PACKED_PA.0
                * (1.0 - SODA_LOOSENS.0 * loosened)
                * (1.0 + POWDER_STIFFENS * p.powdered)
                * (1.0 + PROTEIN_STIFFENS * (p.protein_percent - 10.0)).max(0.2),
            drag: DRAG.0 * plate.drag * (DRAG.1 / p.fat.max(0.08)).powf(DRAG.2),
        }
    }

    /// Solids over the room between them.
    fn packing<const N: usize>(&self, fill: &Fill<N>, water: f64, dissolved: f64) -> f64 {
        let loose = LOOSE_SUGAR * self.sugar * (1.0 - dissolved) / SUGAR;
        let room = fill.dry_volume + water / 1000.0 - (1.0 - FAT_THINS) * fill.fat_volume;
        ((self.swollen + loose) / room).min(0.97 * MOST_PACKED)
    }

    /// Of both columns, each cell by its volume.
    pub(super) fn resists<const N: usize>(&self, fill: &Fill<N>, columns: &[Column<N>; 2]) -> Resists {
        let mut found = Resists::default();
        for (col, weight) in columns.iter().zip([1.0 - HOOP, HOOP]) {
            let all: f64 = col.volume.iter().sum();
            for i in 0..N {
                let weight = weight * col.volume[i] / all;
                let packed = self.packing(fill, col.water[i], col.dissolved[i]);
                let soft = self.packed_pa * (packed / (MOST_PACKED - packed)).powf(PACKED_PA.1)
                    + FAT_PA.0 * col.solid_fat[i].max(0.0).powf(FAT_PA.1);
                let set2 = col.set[i] * col.set[i];
                found.yields_soft += weight * soft;
                found.yields += weight * (soft + SET_PA * set2);
                found.viscosity += weight
                    * VISCOSITY.0
                    * arrhenius(-VISCOSITY.1, col.t_c[i], 353.15)
                    * (1.0 - packed / MOST_PACKED).powf(-2.5 * MOST_PACKED)
                    * (1.0 + SET_THICKENS * set2);
            }
        }
        found
    }

    /// By how much of itself the radius grows in a step, whose cells swelled by so much of their volume while they were soft. It flows as a disc
    /// pressed by its own weight: free slip across, drag along its base.
    pub(super) fn widens(&self, resists: &Resists, lies: Lies, swells: f64, dt: f64) -> f64 {
        let beyond = lies.weighs_pa - resists.yields;
        let net = 0.5 * (beyond + beyond.hypot(SOFT_PA));
        let drag = self.drag * lies.slender.powi(2);
        let soft = 1.0 - (1.0 - HOOP) * lies.set[0] - HOOP * lies.set[1];
        let by_weight = net / (resists.viscosity * (6.0 + drag)) * dt;
        let by_gas =
            SIDEWAYS * 6.0 / (6.0 + drag) * HALVES_PA / (HALVES_PA + resists.yields_soft) * soft * swells / 3.0;
        by_weight + by_gas
    }
}

/// Solids over the room between them as it is laid.
pub(super) fn packed_as_laid(dough: &OvenDough) -> f64 {
    let p = dough.parts();
    let loose = LOOSE_SUGAR * p.sugar * (1.0 - p.dissolved) / SUGAR;
    let room = dough.dry_volume() + p.water / WATER - (1.0 - FAT_THINS) * dough.fat_volume();
    (swollen(dough) + loose) / room
}

/// Room that the solids take up once swollen, m3 for each kilogram of dough.
fn swollen(dough: &OvenDough) -> f64 {
    let p = dough.parts();
    p.flour / FLOUR * (1.0 + FLOUR_SWELLS)
        + p.starch / STARCH * (1.0 + 2.0 * FLOUR_SWELLS)
        + p.pieces / PIECES * LOOSE_PIECES
        + (p.other - p.egg_protein) / OTHER * LOOSE_OTHER
        + p.egg_protein / OTHER * (1.0 + EGG_SWELLS)
}

/// Whether it still moves.
pub(super) fn moves(set: [f64; 2]) -> bool {
    set.iter().any(|s| *s < STANDS)
}

/// A column's height once it has cooled, over a square metre as laid: what has set keeps its pores.
pub(super) fn cooled<const N: usize>(col: &Column<N>) -> f64 {
    (0..N)
        .map(|i| col.condensed[i] + (col.volume[i] - col.condensed[i]) * (col.set[i] + (1.0 - col.set[i]) * KEEPS))
        .sum()
}
