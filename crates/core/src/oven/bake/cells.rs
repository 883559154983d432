//! The piece as the model sees it: a middle and a rim, each a column of cells from the tray upward, and a disc that grows. All state
//! lies on a square metre of piece as it was laid; `wide` is its radius over that as laid.

use super::dough::OvenDough;
use super::nature::GAS;
use super::setup::BakePiece;
use crate::air::ATMOSPHERE_PA;

/// One column's cells.
#[derive(Clone)]
pub(super) struct Column<const N: usize> {
    pub t_c: [f64; N],
    /// Water over dough as it was laid.
    pub water: [f64; N],
    pub set: [f64; N],
    /// Of the sugar.
    pub dissolved: [f64; N],
    /// Of the fat.
    pub solid_fat: [f64; N],
    /// Leavening gas that has come so far, and gas that is held, mol/kg.
    pub leavened: [f64; N],
    pub gas: [f64; N],
    /// With its pores, m3/m2.
    pub volume: [f64; N],
    // Found anew at each step.
    pub condensed: [f64; N],
    pub thick: [f64; N],
    pub conducts: [f64; N],
    pub activity: [f64; N],
    pub vapour_pa: [f64; N],
    pub heat_capacity: [f64; N],
    /// Heat into it, W/m2, and water out of it, kg/m2s, of piece as it lies.
    pub warms: [f64; N],
    pub dries: [f64; N],
    pub top_c: f64,
    /// Colour integrals of its top and, of the middle, its foot.
    pub colour_top: f64,
    pub colour_under: f64,
}

/// What each cell weighs and the room its parts take up.
pub(super) struct Fill<const N: usize> {
    /// Mass of each cell, kg/m2, and of a column.
    pub mass: [f64; N],
    pub whole: f64,
    /// Of the dough with its air, kg/m3.
    pub density: f64,
    /// Without water, and of fat alone, m3/kg of dough.
    pub dry_volume: f64,
    pub fat_volume: f64,
    /// Dry matter without fat and pieces, of the dough.
    pub holds_water: f64,
}

/// Temperature at which the air of a dough is counted, K: a cool bakehouse.
const MIXED_K: f64 = 288.0;

impl<const N: usize> Fill<N> {
    pub(super) fn new(dough: &OvenDough, height_m: f64) -> Self {
        let p = dough.parts();
        let density = dough.solid_density() * (1.0 - p.air);
        let mass = cells::<N>(height_m).map(|d| density * d);
        Self {
            mass,
            whole: density * height_m,
            density,
            dry_volume: dough.dry_volume(),
            fat_volume: dough.fat_volume(),
            holds_water: (1.0 - p.water - p.fat - p.pieces).max(1e-9),
        }
    }

    /// A column as it is laid.
    pub(super) fn column(&self, dough: &OvenDough, piece: &BakePiece, pressure_pa: f64) -> Column<N> {
        let start_c = piece.start.c();
        let p = dough.parts();
        let air = p.air / (1.0 - p.air) / dough.solid_density() * ATMOSPHERE_PA / (GAS * MIXED_K);
        let condensed = self.mass.map(|m| m * (self.dry_volume + p.water / 1000.0));
        let volume =
            std::array::from_fn(|i| condensed[i] + self.mass[i] * air * GAS * (start_c + 273.15) / pressure_pa);
        Column {
            t_c: [start_c; N],
            water: [p.water; N],
            set: [0.0; N],
            dissolved: [p.dissolved; N],
            solid_fat: [dough.solid_fat(piece.firm_as_at.c()); N],
            leavened: [0.0; N],
            gas: [air; N],
            volume,
            condensed,
            thick: [0.0; N],
            conducts: [0.0; N],
            activity: [0.0; N],
            vapour_pa: [0.0; N],
            heat_capacity: [0.0; N],
            warms: [0.0; N],
            dries: [0.0; N],
            top_c: start_c,
            colour_top: 0.0,
            colour_under: 0.0,
        }
    }
}

/// Middle and rim of a disc.
pub(super) struct Disc {
    /// Radius and width of the rim as laid, m.
    pub radius: f64,
    pub rim: f64,
    /// Shares of the area: middle, rim.
    pub shares: [f64; 2],
    /// Radius over that as laid.
    pub wide: f64,
}

/// Lengths and areas of a disc as it lies now.
pub(super) struct Spans {
    /// Width of the rim, m; its outer and inner edge over its area, the middle's edge over its own, 1/m.
    pub rim: f64,
    pub outer_edge: f64,
    pub inner_edge: f64,
    pub edge_of_middle: f64,
    /// From the middle of the rim into the middle, m.
    pub across: f64,
}

impl Disc {
    /// A rim as wide as heat reaches in from the side: a fin's length, about sqrt(k h / 2 film); 6 mm of a piece of 6 mm.
    pub(super) fn new(piece: &BakePiece) -> Self {
        let (height, radius) = (piece.thickness.mm() / 1000.0, piece.radius.mm() / 1000.0);
        let rim = (0.006 * (height / 0.006).sqrt()).clamp(0.003, 0.008).min(0.6 * radius);
        let of_rim = 1.0 - (1.0 - rim / radius).powi(2);
        Self { radius, rim, shares: [1.0 - of_rim, of_rim], wide: 1.0 }
    }

    pub(super) fn spans(&self) -> Spans {
        let (radius, rim) = (self.radius * self.wide, self.rim * self.wide);
        let inner = radius - rim;
        let area = std::f64::consts::PI * (radius * radius - inner * inner);
        Spans {
            rim,
            outer_edge: std::f64::consts::TAU * radius / area,
            inner_edge: std::f64::consts::TAU * inner / area,
            edge_of_middle: 2.0 / inner,
            across: 0.5 * rim + (inner / 3.0).min(2.0 * rim),
        }
    }

    /// Of both columns by their areas.
    pub(super) fn mean(&self, of: [f64; 2]) -> f64 {
        self.shares[0] * of[0] + self.shares[1] * of[1]
    }
}

/// Thickness of the outermost cell, m: it stands for the skin and is part of the model (docs/oven.md), not of its mesh.
const SKIN_M: f64 = 0.000_5;

/// Thicknesses of `N` cells over `height_m`: a skin at both faces, growing geometrically toward the middle. With 18 cells it is the
/// grid of ten with each inner cell halved; with 20 the skin is halved, too.
pub(super) fn cells<const N: usize>(height_m: f64) -> [f64; N] {
    if N == 18 {
        let coarse = cells::<10>(height_m);
        return std::array::from_fn(|i| if i == 0 || i == N - 1 { coarse[0] } else { 0.5 * coarse[i.div_ceil(2)] });
    }
    let half = N / 2;
    #[expect(clippy::cast_precision_loss, reason = "a few cells")]
    let n = N as f64;
    let first = (10.0 * SKIN_M / n).min(height_m / n);
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

    #[test]
    fn cells_fill_the_height_and_are_thin_at_both_faces() {
        for height in [0.002, 0.006, 0.025] {
            for found in [cells::<10>(height).to_vec(), cells::<18>(height).to_vec(), cells::<20>(height).to_vec()] {
                let last = found.len() - 1;
                assert!((found.iter().sum::<f64>() - height).abs() < 1e-12, "{found:?}");
                assert!((found[0] - found[last]).abs() < 1e-15 && found[0] <= 0.000_5 + 1e-12, "{found:?}");
            }
            assert!((cells::<18>(height)[0] - cells::<10>(height)[0]).abs() < 1e-15, "the skin is part of the model");
        }
    }
}
