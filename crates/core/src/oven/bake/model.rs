//! The integrator: explicit steps over two columns of cells and a tray of two nodes. All state lies on a square metre of piece
//! as it was cut; `wide` is its radius over the radius as cut.
//!
//! The order of a step and the grid are those the model was calibrated with; another order or a finer grid moves its figures
//! (see `docs/oven.md`).

#![expect(clippy::needless_range_loop, reason = "a cell is looked at in several lists at once")]

use super::dough::OvenDough;
use super::physics::{GAS, SIGMA, arrhenius, cells, latent_j_kg, saturation_pa, sugar_solubility, water_activity};
use super::setup::{BakeFit, BakePiece, OvenSetup, Plate};
use crate::air::ATMOSPHERE_PA;
use crate::dough::browning_pace;
use crate::dough::stiffness::{
    FAT, FAT_APART, FLOUR, FLOUR_SWELLS, LOOSE_OTHER, LOOSE_PIECES, LOOSE_SUGAR, OTHER, PIECES, STARCH, SUGAR, WATER,
};

/// Sampled at the first step after so many seconds.
const SAMPLE_S: f64 = 2.0;
/// Film and vapour of a room while a piece waits or cools.
const ROOM_FILM: f64 = 7.0;
const ROOM_VAPOUR_PA: f64 = 1300.0;
/// The floor is hotter than the air; half of it where a fan stirs. Calibrated.
const FLOOR_K: f64 = 15.0;
/// Share of water's flow that the fat film and the crust let through. Calibrated.
const FILM_LETS: f64 = 0.15;
/// Rate of inner boiling, kg/(kg s). Assumed, numerical.
const BOILING: f64 = 4e-3;
/// Solid fat follows its curve with this lag, s. Calibrated: this is what makes chilling matter.
const MELTING_S: f64 = 33.0;
/// Gas widens a cell in this time, s. Calibrated.
const WIDENING_S: f64 = 10.0;
/// Greatest packing of the solids.
const MOST_PACKED: f64 = 0.87;

/// What is told of a moment.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub(super) struct Record {
    /// Since it went into the oven, s.
    pub after_s: f64,
    pub wide: f64,
    pub height_m: f64,
    /// As it will be once it has cooled: mean, middle, rim.
    pub height_cold_m: [f64; 3],
    /// Colour integrals: rim above, middle above, middle below.
    pub colour: [f64; 3],
    pub activity_top: f64,
    pub core_c: f64,
    pub set: [f64; 2],
    pub solid_fat: f64,
    pub top_c: [f64; 2],
    pub tray_c: f64,
    pub loss: f64,
}

/// What went in and out, to be compared with what is there.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct BakeBalance {
    /// Heat through the surfaces, less what evaporation took, J/m2.
    pub heat_in: f64,
    /// Heat that warmed the cells, J/m2.
    pub heat_kept: f64,
    /// Water through the surfaces and by boiling, kg/m2.
    pub water_out: f64,
    /// Water that is missing from the cells, kg/m2.
    pub water_gone: f64,
}

/// How long a run goes on, and in what steps.
pub(super) struct Until {
    /// In the oven and on the tray, s.
    pub most_s: f64,
    /// Out of the oven after so long, s.
    pub out_s: f64,
    /// Out of the oven, until its middle has come down to so much, degC.
    pub cooled_c: f64,
    /// Until the rim's colour integral has come so far, and the middle has some.
    pub colour: f64,
    /// Steps over the stability limit, of the squared thickness of the thinnest cell.
    pub fineness: f64,
}

impl Until {
    /// Until the rim is a third past brown, at most 45 min.
    pub const DONE: Self =
        Self { most_s: 2700.0, out_s: f64::INFINITY, cooled_c: f64::NEG_INFINITY, colour: 1.2, fineness: 0.30 };
}

/// Parts of the dough that do not change, per kilogram of it.
struct Fixed {
    dry_volume: f64,
    dry_heat: f64,
    without_fat: f64,
    sets_at_c: f64,
    browning: f64,
    drag: f64,
    stiff: f64,
    stiff_powder: f64,
    air_mol_kg: f64,
    density: f64,
    fat_volume: f64,
    swollen: f64,
}

impl Fixed {
    fn new(dough: &OvenDough, plate: &Plate, pressure_pa: f64) -> Self {
        let p = dough.parts();
        let dry_volume =
            p.fat / FAT + p.flour / FLOUR + p.starch / STARCH + p.sugar / SUGAR + p.other / OTHER + p.pieces / PIECES;
        let density = 1.0 / (dry_volume + p.water / WATER);
        let stiff_powder = 1.0 + 1.5 * p.powdered;
        Self {
            dry_volume,
            // After Choi and Okos (1986), from memory.
            dry_heat: p.fat * 1980.0
                + (p.flour + p.starch) * 1600.0
                + p.sugar * 1250.0
                + p.other * 1900.0
                + p.pieces * 1700.0,
            without_fat: 1.0 - p.water - p.fat - p.pieces,
            sets_at_c: 73.0 + 40.0 * p.sugar / (p.sugar + p.water).max(1e-9) - (p.protein_percent - 10.0),
            browning: browning_pace(p.sugar, p.reducing, p.alkali),
            // Melted fat lubricates the base.
            drag: plate.drag * (0.223 / p.fat.max(0.08)).powi(2),
            stiff: 0.93 * stiff_powder * (-0.8 * p.alkali).exp(),
            stiff_powder,
            air_mol_kg: p.air / (1.0 - p.air) / density * pressure_pa / (GAS * 288.0),
            density,
            fat_volume: p.fat / FAT,
            swollen: p.flour / FLOUR * (1.0 + FLOUR_SWELLS)
                + p.starch / STARCH * (1.0 + 2.0 * FLOUR_SWELLS)
                + p.pieces / PIECES * LOOSE_PIECES
                + p.other / OTHER * LOOSE_OTHER,
        }
    }
}

/// One column's cells, from the tray upward.
#[derive(Clone)]
struct Column<const N: usize> {
    t_c: [f64; N],
    /// Water over dough as it went in.
    water: [f64; N],
    set: [f64; N],
    dissolved: [f64; N],
    carbon_dioxide: [f64; N],
    solid_fat: [f64; N],
    /// Volume, m3/m2.
    volume: [f64; N],
    // Found anew at each step.
    condensed: [f64; N],
    thick: [f64; N],
    conducts: [f64; N],
    activity: [f64; N],
    heat_capacity: [f64; N],
    heat_flow: [f64; N],
    water_flow: [f64; N],
    top_c: f64,
    colour_top: f64,
    colour_under: f64,
}

/// Runs a bake of at most `most_s` in the oven, or until its rim is well past brown; after `out_s` it cools on its tray.
pub(super) fn run<const N: usize>(
    dough: &OvenDough,
    piece: &BakePiece,
    oven: &OvenSetup,
    fit: &BakeFit,
    until: &Until,
) -> (Vec<Record>, BakeBalance) {
    let plate = oven.plate();
    let fixed = Fixed::new(dough, &plate, oven.pressure_pa);
    let p = dough.parts();
    let (height, r0, start) = (piece.thickness.mm() / 1000.0, piece.radius.mm() / 1000.0, piece.start.c());
    // A rim as wide as heat reaches in from the side: a fin's length, about sqrt(k h / 2 film).
    let rim = (0.006 * (height / 0.006).sqrt()).clamp(0.003, 0.008).min(0.6 * r0);
    let rim_share = 1.0 - (1.0 - rim / r0).powi(2);
    let shares = [1.0 - rim_share, rim_share];
    let thickness = cells::<N>(height);
    let density = fixed.density * (1.0 - p.air);
    let mass = thickness.map(|d| density * d);
    let whole: f64 = mass.iter().sum();
    let fresh = mass.map(|m| m * (fixed.dry_volume + p.water / 1000.0));
    let with_air: [f64; N] =
        std::array::from_fn(|i| fresh[i] + mass[i] * fixed.air_mol_kg * GAS * (start + 273.15) / oven.pressure_pa);
    let column = Column {
        t_c: [start; N],
        water: [p.water; N],
        set: [0.0; N],
        dissolved: [p.dissolved; N],
        carbon_dioxide: [0.0; N],
        solid_fat: [dough.solid_fat(start); N],
        volume: with_air,
        condensed: fresh,
        thick: [0.0; N],
        conducts: [0.0; N],
        activity: [0.0; N],
        heat_capacity: [0.0; N],
        heat_flow: [0.0; N],
        water_flow: [0.0; N],
        top_c: start,
        colour_top: 0.0,
        colour_under: 0.0,
    };
    let mut columns = [column.clone(), column];
    let (mut tray_c, mut bare_c) = (oven.tray_start.c(), oven.tray_start.c());
    let mut wide: f64 = 1.0;
    // Thinner air carries less: with the square root of its density, as over a plate, still or moved (Incropera, from memory).
    let thinner = oven.pressure_pa / ATMOSPHERE_PA;
    let film = (if oven.fan { 24.0 } else { 11.5 }) * fit.heat * thinner.sqrt();
    let vapour_pa = if oven.fan { 4000.0 } else { 5000.0 };
    let floor_k = if oven.fan { FLOOR_K / 2.0 } else { FLOOR_K };
    let wait_s = piece.wait.s();
    let mut records = Vec::new();
    let mut balance = BakeBalance::default();
    let (mut now, mut next_sample) = (0.0, 0.0);
    while now < until.most_s + wait_s {
        let in_oven_s = now - wait_s;
        let baking = in_oven_s >= 0.0 && in_oven_s < until.out_s;
        let (air, base_film, vapour, radiates) = if baking {
            let dip = oven.door_dip.k() * (-in_oven_s / oven.recovery.s()).exp();
            (oven.air.c() + fit.offset.k() - dip, film, vapour_pa, fit.heat)
        } else {
            (oven.room.c(), ROOM_FILM, ROOM_VAPOUR_PA, 1.0)
        };
        let air_k = air + 273.15;
        // Properties from the state as it is.
        let mut thinnest: f64 = 1.0;
        let (mut stiffness, mut viscosity, mut mass_now) = (0.0, 0.0, 0.0);
        let mut volumes = [0.0; 2];
        let mut cold = [0.0; 2];
        let mut mean_set = [0.0; 2];
        let mut solid = 0.0;
        for (c, col) in columns.iter_mut().enumerate() {
            let before: f64 = col.volume.iter().sum();
            for i in 0..N {
                let (t, x) = (col.t_c[i], col.water[i]);
                col.condensed[i] = mass[i] * (fixed.dry_volume + x / 1000.0);
                col.volume[i] = col.volume[i].max(col.condensed[i]);
                let pores = 1.0 - col.condensed[i] / col.volume[i];
                col.thick[i] = col.volume[i] / (wide * wide);
                thinnest = thinnest.min(col.thick[i]);
                // Volume mean of the parts (after Choi and Okos), then Maxwell's pores.
                let wet = x / 1000.0;
                let water_conducts = 0.57 + 0.0018 * t - 6.7e-6 * t * t;
                let solid_conducts =
                    (wet * water_conducts + fixed.fat_volume * 0.17 + (fixed.dry_volume - fixed.fat_volume) * 0.25)
                        / (wet + fixed.dry_volume);
                col.conducts[i] = solid_conducts * 2.0 * (1.0 - pores) / (2.0 + pores);
                let melting =
                    p.fat * crate::dough::LATENT_FAT_J_KG * (dough.solid_fat(t - 1.0) - dough.solid_fat(t + 1.0)) / 2.0;
                col.heat_capacity[i] = mass[i] * (fixed.dry_heat + x * 4180.0 + melting);
                col.activity[i] = water_activity(x / fixed.without_fat.max(1e-9), t);
                // How it resists flowing.
                let loose_sugar = LOOSE_SUGAR * p.sugar * (1.0 - col.dissolved[i]) / SUGAR;
                let room = fixed.dry_volume + wet - FAT_APART * fixed.fat_volume;
                let packed = ((fixed.swollen + loose_sugar) / room).min(0.97 * MOST_PACKED);
                let s2 = col.set[i] * col.set[i];
                let yields = fixed.stiff * (packed / (MOST_PACKED - packed)).powf(0.67)
                    + 1.5e7 * (col.solid_fat[i] * fixed.fat_volume / (fixed.dry_volume + wet)).powi(3)
                    + 400.0 * s2;
                let thick = 14.0
                    * fixed.stiff_powder
                    * (30e3 / GAS * (1.0 / (t + 273.15) - 1.0 / 353.15)).exp()
                    * (1.0 - packed / MOST_PACKED).powf(-2.5 * MOST_PACKED)
                    * (1.0 + 60.0 * s2);
                volumes[c] += col.volume[i];
                mean_set[c] += col.set[i] * mass[i];
                solid += shares[c] * col.solid_fat[i] * mass[i];
                cold[c] +=
                    col.condensed[i] + (col.volume[i] - col.condensed[i]) * (col.set[i] + (1.0 - col.set[i]) * 0.45);
                // Middle and rim weigh alike: the rim is a hoop.
                let weight = 0.5 * col.volume[i] / before;
                viscosity += weight * thick;
                stiffness += weight * yields;
                mass_now += shares[c] * mass[i] * (1.0 - p.water + x);
            }
            mean_set[c] /= whole;
        }
        let volume = shares[0] * volumes[0] + shares[1] * volumes[1];
        let tall = volume / (wide * wide);
        let radius = r0 * wide;
        let drive = 0.5 * mass_now / (wide * wide) * 9.81;
        if now >= next_sample {
            let (middle, rim_cold) = (cold[0] / (wide * wide), cold[1] / (wide * wide));
            records.push(Record {
                after_s: in_oven_s,
                wide,
                height_m: tall,
                height_cold_m: [shares[0] * middle + shares[1] * rim_cold, middle, rim_cold],
                colour: [columns[1].colour_top, columns[0].colour_top, columns[0].colour_under],
                activity_top: columns[0].activity[N - 1],
                core_c: 0.5 * (columns[0].t_c[N / 2] + columns[0].t_c[N / 2 - 1]),
                set: mean_set,
                solid_fat: solid / whole,
                top_c: [columns[0].top_c, columns[1].top_c],
                tray_c,
                loss: 1.0 - mass_now / (density * height),
            });
            next_sample += SAMPLE_S;
            let cooled = in_oven_s >= until.out_s && records.last().is_some_and(|r| r.core_c <= until.cooled_c);
            if cooled || columns[1].colour_top > until.colour && columns[0].colour_top > 0.1 {
                break;
            }
        }
        let dt = (until.fineness * thinnest * thinnest / 1.5e-7).clamp(0.02, 0.5);
        // Flows, per square metre of the piece as it is now.
        let wide2 = wide * wide;
        let rim_now = rim * wide;
        let inner = radius - rim_now;
        let rim_area = std::f64::consts::PI * (radius * radius - inner * inner);
        let outer_edge = std::f64::consts::TAU * radius / rim_area;
        let inner_edge_of_rim = std::f64::consts::TAU * inner / rim_area;
        let inner_edge_of_middle = 2.0 / inner;
        let across = 0.5 * rim_now + (inner / 3.0).min(2.0 * rim_now);
        let film_now = base_film * (2.0 * radius / 0.065).powf(-0.40);
        // Lewis: water by the air's density, heat and the ratio of the two diffusivities.
        let carries = film_now / (1.0 * thinner * 1010.0 * 0.90);
        let mut into_dough = 0.0;
        for (c, col) in columns.iter_mut().enumerate() {
            col.heat_flow = [0.0; N];
            col.water_flow = [0.0; N];
            let top = N - 1;
            let surface_k = col.top_c + 273.15;
            let radiation = radiates * 0.90 * SIGMA * (air_k * air_k + surface_k * surface_k) * (air_k + surface_k);
            let evaporates = |activity: f64, surface: f64| {
                FILM_LETS * carries * (activity * saturation_pa(surface) - vapour) * 0.018
                    / (GAS * (0.5 * (surface + air) + 273.15))
            };
            let most = 0.2 * mass[top] * col.water[top] / dt / wide2;
            let vapour_out = evaporates(col.activity[top], col.top_c).min(most).max(0.0);
            let into_top = 2.0 * col.conducts[top] / col.thick[top];
            let surface = (into_top * col.t_c[top] + (film_now + radiation) * air
                - latent_j_kg(col.top_c) * vapour_out)
                / (into_top + film_now + radiation);
            col.top_c = surface;
            let top_flow = into_top * (surface - col.t_c[top]);
            col.heat_flow[top] += top_flow;
            col.water_flow[top] += vapour_out;
            let bottom = 1.0 / (col.thick[0] / (2.0 * col.conducts[0]) + 1.0 / plate.contact_w_m2k);
            let from_tray = bottom * (tray_c - col.t_c[0]);
            col.heat_flow[0] += from_tray;
            into_dough += shares[c] * from_tray;
            balance.heat_in += shares[c] * (top_flow + from_tray) * wide2 * dt;
            balance.water_out += shares[c] * vapour_out * wide2 * dt;
            let contact = col.t_c[0] + from_tray * col.thick[0] / (2.0 * col.conducts[0]);
            let browns = |t: f64, activity: f64| {
                8.3e-4 * fixed.browning * arrhenius(115e3, t, 403.15) / (1.0 + (activity / 0.45).powi(2))
            };
            col.colour_top += browns(surface, col.activity[top]) * dt;
            col.colour_under += browns(contact, col.activity[0]) * dt * 1.7;
            for i in 0..N - 1 {
                let between =
                    1.0 / (col.thick[i] / (2.0 * col.conducts[i]) + col.thick[i + 1] / (2.0 * col.conducts[i + 1]));
                let flow = between * (col.t_c[i + 1] - col.t_c[i]);
                col.heat_flow[i] += flow;
                col.heat_flow[i + 1] -= flow;
                let diffuses = 6e-10 * arrhenius(30e3, 0.5 * (col.t_c[i] + col.t_c[i + 1]), 333.15);
                let moves =
                    diffuses * density * (col.water[i + 1] - col.water[i]) / (0.5 * (col.thick[i] + col.thick[i + 1]));
                col.water_flow[i] -= moves;
                col.water_flow[i + 1] += moves;
            }
        }
        // The rim's side, and what passes between middle and rim.
        let [middle, edge] = &mut columns;
        let side_radiation = radiates * 0.90 * SIGMA * 4.0 * (0.5 * (air + edge.t_c[N / 2]) + 273.15).powi(3) * 0.8;
        for i in 0..N {
            let resists = 1.0 / (film_now + side_radiation) + 0.5 * rim_now / edge.conducts[i];
            let flow = (air - edge.t_c[i]) / resists;
            let side_c = air - flow / (film_now + side_radiation);
            let most = 0.1 * mass[i] * edge.water[i] / dt / (outer_edge * edge.thick[i] * wide2);
            let vapour_out =
                (FILM_LETS * carries * (edge.activity[i] * saturation_pa(side_c.min(105.0)) - vapour) * 0.018
                    / (GAS * (0.5 * (side_c + air) + 273.15)))
                    .min(most)
                    .max(0.0);
            let side = (flow - latent_j_kg(edge.t_c[i]) * vapour_out) * outer_edge * edge.thick[i];
            edge.heat_flow[i] += side;
            edge.water_flow[i] += vapour_out * outer_edge * edge.thick[i];
            balance.heat_in += shares[1] * side * wide2 * dt;
            balance.water_out += shares[1] * vapour_out * outer_edge * edge.thick[i] * wide2 * dt;
            let flow = 0.5 * (middle.conducts[i] + edge.conducts[i]) * (middle.t_c[i] - edge.t_c[i]) / across;
            edge.heat_flow[i] += flow * inner_edge_of_rim * edge.thick[i];
            middle.heat_flow[i] -= flow * inner_edge_of_middle * middle.thick[i];
        }
        // The cells.
        let mut gas_grows = 0.0;
        for (c, col) in columns.iter_mut().enumerate() {
            for i in 0..N {
                let t = col.t_c[i];
                let pressure = col.activity[i] * saturation_pa(t);
                let boils = if pressure > oven.pressure_pa {
                    (BOILING * (pressure / oven.pressure_pa - 1.0) * mass[i]).min(0.2 * mass[i] * col.water[i] / dt)
                } else {
                    0.0
                };
                let latent = latent_j_kg(t) * boils;
                let warms = dt * (col.heat_flow[i] * wide2 - latent) / col.heat_capacity[i];
                balance.heat_in -= shares[c] * latent * dt;
                balance.water_out += shares[c] * boils * dt;
                balance.heat_kept += shares[c] * warms * col.heat_capacity[i];
                col.t_c[i] += warms;
                let x = (col.water[i] - dt * (col.water_flow[i] * wide2 + boils) / mass[i]).max(1e-4);
                balance.water_gone += shares[c] * (col.water[i] - x) * mass[i];
                col.water[i] = x;
                let t = col.t_c[i];
                col.solid_fat[i] += (dough.solid_fat(t) - col.solid_fat[i]) * (1.0 - (-dt / MELTING_S).exp());
                let sets = (0.14 * (t - fixed.sets_at_c)).min(4.0).exp() / 30.0;
                col.set[i] = 1.0 - (1.0 - col.set[i]) * (-sets * dt).exp();
                let saturated = (sugar_solubility(t) * x / p.sugar.max(1e-6)).min(1.0);
                if saturated > col.dissolved[i] && t > 30.0 {
                    let pace = arrhenius(30e3, t, 333.15) / 150.0 * (0.000_45 / p.crystal_m).powi(2);
                    col.dissolved[i] += (saturated - col.dissolved[i]) * (1.0 - (-pace * dt).exp());
                }
                if p.carbon_dioxide_mol_kg > 0.0 {
                    let comes = 0.02 * (0.07 * (t - 60.0)).min(2.5).exp();
                    col.carbon_dioxide[i] +=
                        (p.carbon_dioxide_mol_kg - col.carbon_dioxide[i]) * (1.0 - (-comes * dt).exp());
                }
                let room = oven.pressure_pa - pressure.min(0.70 * oven.pressure_pa);
                let gas = (mass[i] * (fixed.air_mol_kg + col.carbon_dioxide[i]) * GAS * (t + 273.15) / room)
                    .min(col.condensed[i] * 0.60 / 0.40);
                let soft = 1.0 - col.set[i];
                let grows = soft * (col.condensed[i] + gas - col.volume[i]) * (1.0 - (-dt / WIDENING_S).exp());
                col.volume[i] += grows;
                if grows > 0.0 {
                    gas_grows += shares[c] * grows * soft;
                }
            }
        }
        // The tray under the piece and beside it, per square metre of piece.
        let radiation = radiates * SIGMA * 4.0 * (0.5 * (air + tray_c) + 273.15).powi(3);
        let below = base_film * 0.8 + radiation * plate.emissivity;
        let above = base_film * 0.8 + radiation * plate.liner_emissivity;
        let bare = (1.0 / oven.cover.value() - wide2).max(0.05);
        let floor = air + if baking { floor_k } else { 0.0 };
        let along =
            (4.0 * plate.along_w_k / (radius * radius) * wide2).min(0.2 * plate.heat_j_m2k * wide2.min(bare) / dt);
        let passes = along * (bare_c - tray_c);
        tray_c += dt * (wide2 * below * (floor - tray_c) - into_dough * wide2 + passes) / (plate.heat_j_m2k * wide2);
        bare_c +=
            dt * (bare * (below * (floor - bare_c) + above * (air - bare_c)) - passes) / (plate.heat_j_m2k * bare);
        // It flows as a disc pressed by its own weight: free slip across, drag along its base.
        let beyond = drive - stiffness;
        let net = 0.5 * (beyond + (beyond * beyond + 16.0).sqrt());
        let rate = fit.spread * net / (viscosity * (6.0 + fixed.drag * (radius / tall).powi(2)));
        let yielding = drive / (drive + stiffness);
        wide += wide * dt * rate + wide * yielding * fit.spread * gas_grows / volume / 3.0;
        now += dt;
    }
    (records, balance)
}

/// A run of at most so many seconds, for the balances it leaves. Grid and steps are those of every forecast.
#[must_use]
pub fn simulate(dough: &OvenDough, piece: &BakePiece, oven: &OvenSetup, fit: &BakeFit, most_s: f64) -> BakeBalance {
    run::<10>(dough, piece, oven, fit, &Until { most_s, ..Until::DONE }).1
}
