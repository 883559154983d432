//! The integrator: explicit steps over middle, rim and tray. The order of a step and the grid are those the model was calibrated
//! with (docs/oven.md).

use super::cells::{Column, Disc, Fill};
use super::colour::Browning;
use super::dough::OvenDough;
use super::flow::{Flow, Lies, Resists, cooled, moves as still_moves};
use super::gas::Pores;
use super::heat::{Outside, Warming, conducts, sideways, through_foot, through_top, within};
use super::setting::Setting;
use super::setup::{BakeFit, BakePiece, OvenSetup, Plate};
use super::tray::{Around, TrayHeat};
use super::water::{Film, boils, dried, latent_j_kg, moves, saturation_pa, water_activity};

/// Sampled at the first step after so many seconds.
const SAMPLE_S: f64 = 2.0;
/// Laying out and carrying, on the tray before the oven, s. Common practice; what a piece waits comes on top.
const LAYING_S: f64 = 60.0;
const GRAVITY: f64 = 9.81;
/// Diffusivity that bounds a step, m2/s, and the least step, s: numerical.
const STEADY_M2_S: f64 = 1.5e-7;
const LEAST_STEP_S: f64 = 0.02;
/// The middle is dull when its surface's water activity has stayed so low for so long, s. Assumed.
pub(super) const DULL: (f64, f64) = (0.28, 60.0);
/// It is set when so much of the middle is. Calibrated to common practice.
pub(super) const SET: f64 = 0.80;

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
    pub mean_c: f64,
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
#[derive(Clone, Copy)]
pub(super) struct Until {
    /// In the oven and on the tray, s.
    pub most_s: f64,
    /// Out of the oven after so long, s.
    pub out_s: f64,
    /// Out of the oven, until its middle has come down to so much, degC.
    pub cooled_c: f64,
    /// Until the rim's colour integral has come so far, the middle is dull and set.
    pub colour: f64,
    /// Then so much longer, of the time it took.
    pub past: f64,
    /// Or until nothing moves any more.
    pub still: bool,
    /// Steps over the stability limit, of the squared thickness of the thinnest cell, and at most, s.
    pub fineness: f64,
    pub most_step_s: f64,
}

impl Until {
    /// To the end of its 50 min.
    pub const LAST: Self = Self {
        most_s: 3000.0,
        out_s: f64::INFINITY,
        cooled_c: f64::NEG_INFINITY,
        colour: f64::INFINITY,
        past: 0.0,
        still: false,
        fineness: 0.40,
        most_step_s: 0.6,
    };
}

/// A bake under way.
struct Bake<'a, const N: usize> {
    dough: &'a OvenDough,
    oven: &'a OvenSetup,
    fit: &'a BakeFit,
    plate: Plate,
    fill: Fill<N>,
    disc: Disc,
    columns: [Column<N>; 2],
    tray: TrayHeat,
    warming: Warming<'a>,
    setting: Setting<'a>,
    pores: Pores,
    flow: Flow,
    browning: Browning,
    balance: BakeBalance,
    /// Since it was laid, and before it goes in, s.
    now: f64,
    waits_s: f64,
}

/// What a step begins with.
struct Moment {
    around: Around,
    thinnest: f64,
    volume: f64,
    height: f64,
    mass: f64,
    cold: [f64; 2],
    set: [f64; 2],
    resists: Option<Resists>,
}

impl<'a, const N: usize> Bake<'a, N> {
    fn new(dough: &'a OvenDough, piece: &BakePiece, oven: &'a OvenSetup, fit: &'a BakeFit) -> Self {
        let (height, plate) = (piece.thickness.mm() / 1000.0, oven.plate());
        let fill = Fill::new(dough, height);
        let column = fill.column(dough, piece, oven.pressure_pa);
        Self {
            dough,
            oven,
            fit,
            flow: Flow::new(dough, &plate),
            plate,
            fill,
            disc: Disc::new(piece),
            columns: [column.clone(), column],
            tray: TrayHeat::new(oven.tray_start.c()),
            warming: Warming::new(dough),
            setting: Setting::new(dough),
            pores: Pores::new(dough, height, oven.pressure_pa),
            browning: Browning::new(dough, fit.browning),
            balance: BakeBalance::default(),
            now: 0.0,
            waits_s: piece.wait.s() + LAYING_S,
        }
    }

    fn in_oven_s(&self) -> f64 {
        self.now - self.waits_s
    }

    /// Properties from the state as it is; `out_s` after it went in it is out again.
    fn look(&mut self, out_s: f64) -> Moment {
        let after = self.in_oven_s();
        let around = if after >= 0.0 && after < out_s {
            Around::oven(self.oven, self.fit, &self.disc, after)
        } else {
            Around::room(self.oven, &self.disc)
        };
        let (fill, wide2) = (&self.fill, self.disc.wide * self.disc.wide);
        let water_as_laid = self.dough.parts().water;
        let mut thinnest: f64 = 1.0;
        let (mut volumes, mut masses, mut set) = ([0.0; 2], [0.0; 2], [0.0; 2]);
        for (c, col) in self.columns.iter_mut().enumerate() {
            for i in 0..N {
                let (t, water) = (col.t_c[i], col.water[i]);
                col.condensed[i] = fill.mass[i] * (fill.dry_volume + water / 1000.0);
                // A hair of pores always stays: numerical.
                col.volume[i] = col.volume[i].max(1.0005 * col.condensed[i]);
                let pores = 1.0 - col.condensed[i] / col.volume[i];
                col.thick[i] = col.volume[i] / wide2;
                thinnest = thinnest.min(col.thick[i]);
                col.activity[i] = water_activity(water / fill.holds_water, t);
                col.vapour_pa[i] = col.activity[i] * saturation_pa(t);
                col.conducts[i] = conducts(fill, t, water, pores, col.vapour_pa[i] / self.oven.pressure_pa);
                col.heat_capacity[i] = fill.mass[i] * self.warming.capacity(t, water);
                volumes[c] += col.volume[i];
                masses[c] += fill.mass[i] * (1.0 - water_as_laid + water);
                set[c] += col.set[i] * fill.mass[i] / fill.whole;
            }
        }
        let volume = self.disc.mean(volumes);
        Moment {
            around,
            thinnest,
            volume,
            height: volume / wide2,
            mass: self.disc.mean(masses),
            cold: [cooled(&self.columns[0]), cooled(&self.columns[1])],
            set,
            resists: still_moves(set).then(|| self.flow.resists(fill, &self.columns)),
        }
    }

    fn record(&self, m: &Moment) -> Record {
        let wide2 = self.disc.wide * self.disc.wide;
        let [middle, rim] = &self.columns;
        let weighted = |of: &[f64; N]| of.iter().zip(&self.fill.mass).map(|(v, m)| v * m).sum::<f64>();
        Record {
            after_s: self.in_oven_s(),
            wide: self.disc.wide,
            height_m: m.height,
            height_cold_m: [self.disc.mean(m.cold) / wide2, m.cold[0] / wide2, m.cold[1] / wide2],
            colour: [rim.colour_top, middle.colour_top, middle.colour_under],
            activity_top: middle.activity[N - 1],
            mean_c: self.disc.mean([weighted(&middle.t_c), weighted(&rim.t_c)]) / self.fill.whole,
            core_c: 0.5 * (middle.t_c[N / 2] + middle.t_c[N / 2 - 1]),
            set: m.set,
            solid_fat: self.disc.mean([weighted(&middle.solid_fat), weighted(&rim.solid_fat)]) / self.fill.whole,
            top_c: [middle.top_c, rim.top_c],
            tray_c: self.tray.under_c,
            loss: 1.0 - m.mass / self.fill.whole,
        }
    }

    /// Heat and water through every face and within; what the tray gives, W/m2 of piece.
    fn exchange(&mut self, m: &Moment, dt: f64) -> f64 {
        let film_w_m2k = m.around.on_piece(self.disc.radius * self.disc.wide);
        let film = Film::new(film_w_m2k, m.around.air_c, m.around.vapour_pa);
        let outside = Outside { around: &m.around, film_w_m2k, film, dt };
        let wide2 = self.disc.wide * self.disc.wide;
        let mut from_tray = 0.0;
        for (c, col) in self.columns.iter_mut().enumerate() {
            (col.warms, col.dries) = ([0.0; N], [0.0; N]);
            let top = through_top(col, &self.fill, &self.disc, &outside);
            let foot = through_foot(col, self.tray.under_c, self.plate.contact_w_m2k, self.dough.parts().water);
            col.colour_top += self.browning.top(top.face_c, col.activity[N - 1]) * dt;
            if c == 0 {
                col.colour_under += self.browning.under(foot.face_c, col.activity[0]) * dt;
            }
            within(col);
            moves(col, self.fill.density);
            from_tray += self.disc.shares[c] * foot.heat;
            self.balance.heat_in += self.disc.shares[c] * (top.heat + foot.heat) * wide2 * dt;
            self.balance.water_out += self.disc.shares[c] * top.water * wide2 * dt;
        }
        let side = sideways(&mut self.columns, &self.fill, &self.disc, &outside);
        self.balance.heat_in += self.disc.shares[1] * side.heat * wide2 * dt;
        self.balance.water_out += self.disc.shares[1] * side.water * wide2 * dt;
        from_tray
    }

    /// What each cell becomes; by how much they grew while soft, m3/m2.
    fn change(&mut self, dt: f64) -> f64 {
        let wide2 = self.disc.wide * self.disc.wide;
        let mut grown = [0.0; 2];
        for (c, col) in self.columns.iter_mut().enumerate() {
            let share = self.disc.shares[c];
            for i in 0..N {
                let (mass, t) = (self.fill.mass[i], col.t_c[i]);
                let boiled = boils(col.vapour_pa[i], self.oven.pressure_pa, mass, col.water[i], dt);
                let latent = latent_j_kg(t) * boiled;
                let warms = dt * (col.warms[i] * wide2 - latent) / col.heat_capacity[i];
                let water = dried(col.water[i], dt * (col.dries[i] * wide2 + boiled), mass);
                self.balance.heat_in -= share * latent * dt;
                self.balance.heat_kept += share * warms * col.heat_capacity[i];
                self.balance.water_out += share * boiled * dt;
                self.balance.water_gone += share * (col.water[i] - water) * mass;
                col.t_c[i] = t + warms;
                col.water[i] = water;
                self.setting.step(col, i, dt);
                grown[c] += self.pores.step(col, &self.fill, i, dt);
            }
        }
        self.disc.mean(grown)
    }

    fn step(&mut self, m: &Moment, dt: f64) {
        let from_tray = self.exchange(m, dt);
        let grown = self.change(dt);
        self.tray.step(&self.plate, &m.around, &self.disc, from_tray, dt);
        if let Some(resists) = &m.resists {
            let lies = Lies {
                slender: self.disc.radius * self.disc.wide / m.height,
                weighs_pa: 0.5 * m.mass / (self.disc.wide * self.disc.wide) * GRAVITY,
                set: m.set,
            };
            let widens = self.flow.widens(resists, lies, grown / m.volume, dt);
            self.disc.wide *= 1.0 + self.fit.spread * widens;
        }
        self.now += dt;
    }
}

/// Runs a bake; after `out_s` it cools on its tray.
pub(super) fn run<const N: usize>(
    dough: &OvenDough,
    piece: &BakePiece,
    oven: &OvenSetup,
    fit: &BakeFit,
    until: &Until,
) -> (Vec<Record>, BakeBalance) {
    let mut bake = Bake::<N>::new(dough, piece, oven, fit);
    let mut records: Vec<Record> = Vec::new();
    let (mut next_sample, mut dull_s, mut stop_s) = (0.0, f64::INFINITY, f64::INFINITY);
    while bake.in_oven_s() < until.most_s {
        let moment = bake.look(until.out_s);
        if bake.now >= next_sample {
            let r = bake.record(&moment);
            records.push(r);
            next_sample += SAMPLE_S;
            if r.activity_top < DULL.0 {
                dull_s = r.after_s.min(dull_s);
            }
            if r.colour[0] > until.colour && r.set[0] > SET && r.after_s > dull_s + DULL.1 + SAMPLE_S {
                stop_s = stop_s.min(r.after_s * (1.0 + until.past));
            }
            if r.after_s >= stop_s
                || until.still && moment.resists.is_none()
                || r.after_s >= until.out_s && r.core_c <= until.cooled_c
            {
                break;
            }
        }
        let dt = (until.fineness * moment.thinnest * moment.thinnest / STEADY_M2_S).min(until.most_step_s);
        bake.step(&moment, dt.max(LEAST_STEP_S));
    }
    (records, bake.balance)
}

/// A run of at most so many seconds, for the balances it leaves. Grid and steps are those of every forecast.
#[must_use]
pub fn simulate(dough: &OvenDough, piece: &BakePiece, oven: &OvenSetup, fit: &BakeFit, most_s: f64) -> BakeBalance {
    run::<10>(dough, piece, oven, fit, &Until { most_s, ..Until::LAST }).1
}
