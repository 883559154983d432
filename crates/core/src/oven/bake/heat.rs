//! Heat in the dough: what warms it, what it conducts, what passes through its top, its foot and its side.

use super::cells::{Column, Disc, Fill};
use super::dough::OvenDough;
use super::nature::SIGMA;
use super::tray::Around;
use super::water::{Film, latent_j_kg};
use crate::dough::LATENT_FAT_J_KG;

/// Emissivity of dough: baked goods, from memory. Share of the radiation that its side sees: assumed.
const EMISSIVITY: f64 = 0.90;
const SIDE_SEES: f64 = 0.8;
/// Conductivities of fat and of the other solids, W/mK, after Choi and Okos (1986), from memory.
const FAT_W_MK: f64 = 0.17;
const SOLIDS_W_MK: f64 = 0.25;
/// Of still air in a pore, and of the vapour that evaporates on its hot side and condenses on its cold one when its pressure is that of the
/// air, W/mK. Assumed; pores never conduct better than the dough round them.
const PORE_W_MK: f64 = 0.03;
const PORE_VAPOUR_W_MK: f64 = 0.05;
/// Melting heat of ice, J/kg (handbook).
const ICE_J_KG: f64 = 334_000.0;
/// Contact lost by a dry foot, which parts from the tray. Calibrated.
const DRY_FOOT_LOSES: f64 = 0.749_3;

/// What a kilogram of dough takes to warm.
pub(super) struct Warming<'a> {
    dough: &'a OvenDough,
    dry_j_kgk: f64,
    fat: f64,
    freezes: Freezing,
}

/// Water that freezes and where it begins to: sugar dissolved in it holds it liquid.
#[derive(Clone, Copy)]
struct Freezing {
    free: f64,
    at_c: f64,
}

/// Of flour and starch, water that does not freeze; molal freezing point of water, K kg/mol, sucrose g/mol, and the range that counts.
/// From memory of frozen doughs.
const UNFROZEN: f64 = 0.25;
const CRYOSCOPIC: f64 = 1.86;
const SUCROSE_G_MOL: f64 = 342.0;
const FREEZES_C: (f64, f64) = (0.5, 14.0);

impl<'a> Warming<'a> {
    pub(super) fn new(dough: &'a OvenDough) -> Self {
        let p = dough.parts();
        let free = (p.water - UNFROZEN * (p.flour + p.starch)).max(0.0);
        let molal = 1000.0 * p.dissolved * p.sugar / SUCROSE_G_MOL / free.max(1e-3);
        Self {
            dough,
            // After Choi and Okos (1986), from memory.
            dry_j_kgk: p.fat * 1980.0
                + (p.flour + p.starch) * 1600.0
                + p.sugar * 1250.0
                + p.other * 1900.0
                + p.pieces * 1700.0,
            fat: p.fat,
            freezes: Freezing { free, at_c: -(FREEZES_C.0 + CRYOSCOPIC * molal).min(FREEZES_C.1) },
        }
    }

    /// J/K for each kilogram of dough as laid.
    pub(super) fn capacity(&self, t_c: f64, water: f64) -> f64 {
        let mut found = self.dry_j_kgk + water * 4180.0;
        if t_c < 51.0 {
            found +=
                self.fat * LATENT_FAT_J_KG * (self.dough.solid_fat(t_c - 1.0) - self.dough.solid_fat(t_c + 1.0)) / 2.0;
            // Ice is 1 - freezing point / temperature of the free water; its melting as an apparent heat.
            if t_c < self.freezes.at_c {
                found += ICE_J_KG * self.freezes.free * -self.freezes.at_c / (t_c * t_c);
            }
        }
        found
    }
}

/// Volume mean of the parts (after Choi and Okos), then Maxwell's pores with vapour in them.
pub(super) fn conducts<const N: usize>(fill: &Fill<N>, t_c: f64, water: f64, pores: f64, vapour: f64) -> f64 {
    let wet = water / 1000.0;
    let water_w_mk = 0.57 + 0.0018 * t_c - 6.7e-6 * t_c * t_c;
    let solid = (wet * water_w_mk + fill.fat_volume * FAT_W_MK + (fill.dry_volume - fill.fat_volume) * SOLIDS_W_MK)
        / (wet + fill.dry_volume);
    let pore = (PORE_W_MK + PORE_VAPOUR_W_MK * vapour).min(solid);
    solid * (2.0 * solid + pore - 2.0 * pores * (solid - pore)) / (2.0 * solid + pore + pores * (solid - pore))
}

/// Radiation between a surface and what is round it, W/m2K.
pub(super) fn radiates_w_m2k(surface_c: f64, around_c: f64) -> f64 {
    let (around_k, surface_k) = (around_c + 273.15, surface_c + 273.15);
    EMISSIVITY * SIGMA * (around_k * around_k + surface_k * surface_k) * (around_k + surface_k)
}

/// What passed through a face of a column, of piece as it lies.
#[derive(Clone, Copy, Default)]
pub(super) struct Passed {
    /// W/m2.
    pub heat: f64,
    /// kg/m2s.
    pub water: f64,
    /// Temperature of the face, degC.
    pub face_c: f64,
}

/// What a piece's free faces meet within a step.
pub(super) struct Outside<'a> {
    pub around: &'a Around,
    /// Heat through the film, W/m2K, and water with it.
    pub film_w_m2k: f64,
    pub film: Film,
    /// The step, s.
    pub dt: f64,
}

/// Through the top of a column, by air, radiation and evaporation: a surface without heat of its own.
pub(super) fn through_top<const N: usize>(
    col: &mut Column<N>,
    fill: &Fill<N>,
    disc: &Disc,
    outside: &Outside<'_>,
) -> Passed {
    let (top, air_c) = (N - 1, outside.around.air_c);
    let radiation = outside.around.radiates * radiates_w_m2k(col.top_c, air_c);
    let holds = fill.mass[top] * col.water[top] / disc.wide.powi(2);
    let water = outside.film.off_top(col.activity[top], col.top_c, holds, outside.dt);
    let inward = 2.0 * col.conducts[top] / col.thick[top];
    let outward = outside.film_w_m2k + radiation;
    let face_c = (inward * col.t_c[top] + outward * air_c - latent_j_kg(col.top_c) * water) / (inward + outward);
    let heat = inward * (face_c - col.t_c[top]);
    col.top_c = face_c;
    col.warms[top] += heat;
    col.dries[top] += water;
    Passed { heat, water, face_c }
}

/// From the tray into the foot of a column: the drier the foot, the less of it touches.
pub(super) fn through_foot<const N: usize>(
    col: &mut Column<N>,
    tray_c: f64,
    contact_w_m2k: f64,
    water_as_laid: f64,
) -> Passed {
    let contact = contact_w_m2k * (1.0 - DRY_FOOT_LOSES * (1.0 - col.water[0] / water_as_laid));
    let half = col.thick[0] / (2.0 * col.conducts[0]);
    let heat = (tray_c - col.t_c[0]) / (half + 1.0 / contact);
    col.warms[0] += heat;
    Passed { heat, water: 0.0, face_c: col.t_c[0] + heat * half }
}

/// Between the cells of a column.
pub(super) fn within<const N: usize>(col: &mut Column<N>) {
    for i in 0..N - 1 {
        let resists = col.thick[i] / (2.0 * col.conducts[i]) + col.thick[i + 1] / (2.0 * col.conducts[i + 1]);
        let up = (col.t_c[i + 1] - col.t_c[i]) / resists;
        col.warms[i] += up;
        col.warms[i + 1] -= up;
    }
}

/// Through the rim's side, and between rim and middle; what passed through the side, on a square metre of rim.
pub(super) fn sideways<const N: usize>(
    columns: &mut [Column<N>; 2],
    fill: &Fill<N>,
    disc: &Disc,
    outside: &Outside<'_>,
) -> Passed {
    let [middle, rim] = columns;
    let (spans, wide2, air_c) = (disc.spans(), disc.wide.powi(2), outside.around.air_c);
    let mean_k = 0.5 * (air_c + rim.t_c[N / 2]) + 273.15;
    let outward = outside.film_w_m2k + outside.around.radiates * EMISSIVITY * SIGMA * 4.0 * mean_k.powi(3) * SIDE_SEES;
    let mut all = Passed::default();
    for i in 0..N {
        let side = spans.outer_edge * rim.thick[i];
        let inward = (air_c - rim.t_c[i]) / (1.0 / outward + 0.5 * spans.rim / rim.conducts[i]);
        let face_c = air_c - inward / outward;
        let holds = fill.mass[i] * rim.water[i] / (side * wide2);
        let water = outside.film.off_side(rim.activity[i], face_c, holds, outside.dt);
        let heat = inward - latent_j_kg(rim.t_c[i]) * water;
        rim.warms[i] += heat * side;
        rim.dries[i] += water * side;
        all.heat += heat * side;
        all.water += water * side;
        let into_rim = 0.5 * (middle.conducts[i] + rim.conducts[i]) * (middle.t_c[i] - rim.t_c[i]) / spans.across;
        rim.warms[i] += into_rim * spans.inner_edge * rim.thick[i];
        middle.warms[i] -= into_rim * spans.edge_of_middle * middle.thick[i];
    }
    all
}
