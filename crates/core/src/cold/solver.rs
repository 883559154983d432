//! Heat conduction by finite volumes, implicit in time, in enthalpy so that no heat is lost whatever the fat does.
//!
//! Each step sweeps the columns, then the layers (locally one-dimensional splitting). A sweep solves one tridiagonal
//! system for the temperature with the slope of the enthalpy curve at the old temperature, then books the heat that
//! flowed as enthalpy and reads the new temperature off the curve. Verified against the textbook one-term series and
//! an independent solver's runs (`tests/all/cold_reference.rs`).

use super::firmness::{FatCurve, Pace};
use super::grid::Grid;
use super::piece::{BENCH_CONTACT, Piece, Support, TRAY_CONTACT, Wrap};
use super::thermal::Thermal;
use crate::units::{Film, Span, Temperature};

/// Time step as a share of the piece's own time scale (heat held over heat passed per kelvin).
const STEP_SHARE: f64 = 0.006;
/// Bounds of the step, s.
const STEP_S: (f64, f64) = (0.5, 60.0);

/// What a thermometer would show at one moment.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Sample {
    /// Since the piece was put where it is.
    pub after: Span,
    /// The warmest point.
    pub warmest: Temperature,
    /// The coldest point.
    pub coldest: Temperature,
    /// The mean over the mass.
    pub mean: Temperature,
    /// The upper face.
    pub surface: Temperature,
    /// The softest point: the temperature at which it would be as firm once its fat had set. Never below the warmest while it cools.
    pub softest: Temperature,
    /// The same on the whole: by the mean solid share of its fat.
    pub felt: Temperature,
}

impl Sample {
    /// The state at a moment between two others, linear.
    pub(super) fn between(a: &Self, b: &Self, after: Span) -> Self {
        let along = if b.after > a.after { (after - a.after) / (b.after - a.after) } else { 0.0 };
        let mix = |x: Temperature, y: Temperature| Temperature::new_c(x.c() + along * (y.c() - x.c()));
        Self {
            after,
            warmest: mix(a.warmest, b.warmest),
            coldest: mix(a.coldest, b.coldest),
            mean: mix(a.mean, b.mean),
            surface: mix(a.surface, b.surface),
            softest: mix(a.softest, b.softest),
            felt: mix(a.felt, b.felt),
        }
    }

    /// The state at a moment of a run that is not empty; its first before it begins, its last after it ends.
    pub(super) fn at(curve: &[Self], after: Span) -> Self {
        match curve.iter().position(|s| s.after >= after) {
            None => curve[curve.len() - 1],
            Some(0) => curve[0],
            Some(i) => Self::between(&curve[i - 1], &curve[i], after),
        }
    }
}

/// A piece of dough with its present temperatures, ready to be put somewhere.
#[derive(Clone)]
pub struct Body<'a> {
    thermal: &'a Thermal,
    piece: Piece,
    wrap: Wrap,
    refine: usize,
    step_share: f64,
    faces_alike: bool,
    /// Column by column from the axis, layer by layer from below.
    t_c: Vec<f64>,
    /// Of the fat, solid, cell by cell.
    solid: Vec<f64>,
}

impl<'a> Body<'a> {
    /// A piece all of one temperature. A piece that will lie on a tray or bench needs `faces_alike` false.
    #[must_use]
    pub fn new(thermal: &'a Thermal, piece: Piece, wrap: Wrap, start: Temperature, faces_alike: bool) -> Self {
        Self::refined(thermal, piece, wrap, start, faces_alike, 1)
    }

    /// The same with `refine` times as many cells each way and as many more steps, for checks of convergence.
    #[must_use]
    pub fn refined(
        thermal: &'a Thermal,
        piece: Piece,
        wrap: Wrap,
        start: Temperature,
        faces_alike: bool,
        refine: usize,
    ) -> Self {
        let grid = Grid::new(piece, faces_alike, refine);
        let share = STEP_SHARE / if refine > 1 { 2.0 } else { 1.0 };
        let cells = grid.nx * grid.ny;
        let solid = vec![thermal.fat().solid(start.c()); cells];
        Self { thermal, piece, wrap, refine, step_share: share, faces_alike, t_c: vec![start.c(); cells], solid }
    }

    /// The same piece as firm as it is all through once it has set at another temperature.
    #[must_use]
    pub fn as_firm_as_at(mut self, felt: Temperature) -> Self {
        self.solid.fill(self.thermal.fat().solid(felt.c()));
        self
    }

    /// The mean over the mass.
    #[must_use]
    pub fn mean(&self) -> Temperature {
        let grid = Grid::new(self.piece, self.faces_alike, self.refine);
        Temperature::new_c(self.mean_c(&grid))
    }

    fn mean_c(&self, grid: &Grid) -> f64 {
        self.mean_of(grid, |cell| self.t_c[cell])
    }

    fn mean_of(&self, grid: &Grid, mut of: impl FnMut(usize) -> f64) -> f64 {
        let (mut sum, mut mass) = (0.0, 0.0);
        for (i, base) in grid.base_m2.iter().enumerate() {
            sum += base * (i * grid.ny..(i + 1) * grid.ny).map(&mut of).sum::<f64>();
            mass += base * f64_of(grid.ny);
        }
        sum / mass
    }

    /// The temperature at which a cell would be as firm once its fat had set.
    fn felt_c(&self, cell: usize) -> f64 {
        self.thermal.fat().as_firm_at(self.solid[cell], self.t_c[cell])
    }

    fn set(&mut self, pace: &Pace) {
        for (solid, t) in self.solid.iter_mut().zip(&self.t_c) {
            *solid = self.thermal.fat().step(*solid, *t, pace);
        }
    }

    /// Leaves the piece in `air` on `support` until `stop` says so or `longest` has passed, and returns what was seen
    /// after every step, the start included. The piece keeps its last temperatures.
    pub fn leave(
        &mut self,
        air: Temperature,
        film: Film,
        support: Support,
        longest: Span,
        mut stop: impl FnMut(&Sample) -> bool,
    ) -> Vec<Sample> {
        self.leave_watched(air, film, support, longest, |s, _| stop(s))
    }

    /// As [`leave`](Self::leave), the temperatures of all cells shown with each sample: column by column from the axis, layer by
    /// layer from below.
    pub(super) fn leave_watched(
        &mut self,
        air: Temperature,
        film: Film,
        support: Support,
        longest: Span,
        mut stop: impl FnMut(&Sample, &[f64]) -> bool,
    ) -> Vec<Sample> {
        let grid = Grid::new(self.piece, self.faces_alike, self.refine);
        let faces = Faces::new(&grid, air, film, self.wrap, support);
        let step = self.step_s(&grid, &faces);
        let mut tray_c = vec![faces.tray_start_c; grid.nx];
        let mut samples = vec![self.sample(&grid, 0.0)];
        let mut scratch = Scratch::new(grid.nx.max(grid.ny) + 1);
        let mut after = 0.0;
        let mut pace = FatCurve::pace(step);
        while after < longest.s() {
            let dt = step.min(longest.s() - after).max(1e-3);
            if grid.nx > 1 {
                self.sweep_columns(&grid, &faces, dt, &mut scratch);
            }
            if grid.ny > 1 {
                self.sweep_layers(&grid, &faces, dt, &mut tray_c, &mut scratch);
            }
            if pace.dt_s != dt {
                pace = FatCurve::pace(dt);
            }
            self.set(&pace);
            after += dt;
            let sample = self.sample(&grid, after);
            samples.push(sample);
            if stop(&sample, &self.t_c) {
                break;
            }
        }
        samples
    }

    fn step_s(&self, grid: &Grid, faces: &Faces) -> f64 {
        let (_, heat, _) = self.thermal.at(self.mean_c(grid));
        let volume: f64 = grid.base_m2.iter().sum::<f64>() * grid.dy_m * f64_of(grid.ny);
        let base: f64 = grid.base_m2.iter().sum();
        let passed = base
            * (faces.top_u + if grid.mirrored { 0.0 } else { faces.bottom_u.min(20.0) })
            * if grid.ny > 1 { 1.0 } else { 0.0 }
            + grid.wall_m[grid.nx] * grid.dy_m * f64_of(grid.ny) * faces.side_u;
        (self.step_share * self.thermal.density_kg_m3() * heat * volume / passed).clamp(STEP_S.0, STEP_S.1)
    }

    fn sample(&self, grid: &Grid, after_s: f64) -> Sample {
        let (low, high) = self.t_c.iter().fold((f64::MAX, f64::MIN), |(l, h), &t| (l.min(t), h.max(t)));
        let softest = (0..self.t_c.len()).map(|cell| self.felt_c(cell)).fold(f64::MIN, f64::max);
        let mean_c = self.mean_c(grid);
        let felt = self.thermal.fat().as_firm_at(self.mean_of(grid, |cell| self.solid[cell]), mean_c);
        let top = if grid.ny > 1 { self.t_c[grid.ny - 1] } else { self.t_c[self.t_c.len() - 1] };
        Sample {
            after: Span::new_s(after_s),
            warmest: Temperature::new_c(high),
            coldest: Temperature::new_c(low),
            mean: Temperature::new_c(mean_c),
            surface: Temperature::new_c(top),
            softest: Temperature::new_c(softest),
            felt: Temperature::new_c(felt),
        }
    }

    /// Books the heat of a sweep: `slope * (solved - old)` per kilogram, then reads the temperature off the curve.
    fn book(&mut self, cell: usize, (enthalpy, slope): (f64, f64), solved_c: f64) {
        let old = self.t_c[cell];
        self.t_c[cell] = self.thermal.temperature_c(enthalpy + slope * (solved_c - old), old);
    }

    fn sweep_columns(&mut self, grid: &Grid, faces: &Faces, dt: f64, s: &mut Scratch) {
        let rho = self.thermal.density_kg_m3();
        let n = grid.nx;
        for j in 0..grid.ny {
            for i in 0..n {
                let t = self.t_c[i * grid.ny + j];
                let (enthalpy, slope, k) = self.thermal.at(t);
                s.k[i] = k;
                s.curve[i] = (enthalpy, slope);
                s.diagonal[i] = rho * slope * grid.base_m2[i] * grid.dy_m / dt;
                s.right[i] = s.diagonal[i] * t;
            }
            for i in 1..n {
                let g = between(s.k[i - 1], s.k[i]) / grid.dx_m * grid.wall_m[i] * grid.dy_m;
                s.couple(i, g);
            }
            let rim = grid.wall_m[n] * grid.dy_m / (1.0 / faces.side_u + grid.dx_m / 2.0 / s.k[n - 1]);
            s.diagonal[n - 1] += rim;
            s.right[n - 1] += rim * faces.air_c;
            s.solve(n);
            for i in 0..n {
                self.book(i * grid.ny + j, s.curve[i], s.right[i]);
            }
        }
    }

    /// One sweep through the layers of each column; the tray below, if any, is one more unknown.
    fn sweep_layers(&mut self, grid: &Grid, faces: &Faces, dt: f64, tray_c: &mut [f64], s: &mut Scratch) {
        let rho = self.thermal.density_kg_m3();
        let n = grid.ny;
        let first = usize::from(faces.tray_heat.is_some());
        for (i, tray) in tray_c.iter_mut().enumerate() {
            // Per square metre of base.
            for j in 0..n {
                let t = self.t_c[i * n + j];
                let (enthalpy, slope, k) = self.thermal.at(t);
                s.k[j] = k;
                s.curve[j] = (enthalpy, slope);
                s.diagonal[first + j] = rho * slope * grid.dy_m / dt;
                s.right[first + j] = s.diagonal[first + j] * t;
            }
            for j in 1..n {
                s.couple(first + j, between(s.k[j - 1], s.k[j]) / grid.dy_m);
            }
            let half = grid.dy_m / 2.0;
            let top = 1.0 / (1.0 / faces.top_u + half / s.k[n - 1]);
            s.diagonal[first + n - 1] += top;
            s.right[first + n - 1] += top * faces.air_c;
            if !grid.mirrored {
                let bottom = 1.0 / (1.0 / faces.bottom_u + half / s.k[0]);
                if let Some(heat) = faces.tray_heat {
                    s.diagonal[0] = heat / dt + faces.tray_u;
                    s.right[0] = heat / dt * *tray + faces.tray_u * faces.air_c;
                    s.couple(1, bottom);
                } else {
                    s.diagonal[0] += bottom;
                    s.right[0] += bottom * faces.below_c;
                }
            }
            s.solve(first + n);
            if first == 1 {
                *tray = s.right[0];
            }
            for j in 0..n {
                self.book(i * n + j, s.curve[j], s.right[first + j]);
            }
        }
    }
}

/// What each face meets.
struct Faces {
    air_c: f64,
    top_u: f64,
    side_u: f64,
    /// Dough's lower face to whatever is below it.
    bottom_u: f64,
    below_c: f64,
    /// Tray's lower face to the air.
    tray_u: f64,
    tray_heat: Option<f64>,
    tray_start_c: f64,
}

impl Faces {
    fn new(grid: &Grid, air: Temperature, film: Film, wrap: Wrap, support: Support) -> Self {
        let through = |u: f64| 1.0 / (1.0 / u + wrap.resistance_m2k_w());
        let open = through(film.w_m2k());
        let mut faces = Self {
            air_c: air.c(),
            top_u: open,
            side_u: open,
            bottom_u: open,
            below_c: air.c(),
            tray_u: film.w_m2k(),
            tray_heat: None,
            tray_start_c: air.c(),
        };
        match support {
            Support::Rack => {}
            // A log touches what it lies on along a line only: it is taken to hang in the air.
            Support::Tray { .. } | Support::Bench { .. } if grid.ny == 1 => {}
            Support::Tray { kind, start } => {
                debug_assert!(!grid.mirrored, "a piece on a tray is not alike above and below");
                // The contact is through one paper already: it stands for the wrap on this side.
                faces.bottom_u = TRAY_CONTACT.w_m2k();
                faces.tray_heat = Some(kind.heat_j_m2k());
                faces.tray_start_c = start.c();
            }
            Support::Bench { bench } => {
                debug_assert!(!grid.mirrored, "a piece on a bench is not alike above and below");
                faces.bottom_u = BENCH_CONTACT.w_m2k();
                faces.below_c = bench.c();
            }
        }
        faces
    }
}

/// Conductivity between two cells. It changes so little from one to the next that the plain mean serves.
fn between(a: f64, b: f64) -> f64 {
    0.5 * (a + b)
}

/// One symmetric tridiagonal system, reused.
struct Scratch {
    k: Vec<f64>,
    /// Enthalpy and its slope at the old temperature.
    curve: Vec<(f64, f64)>,
    diagonal: Vec<f64>,
    /// `between[i]` couples i-1 and i (negative conductance).
    between: Vec<f64>,
    right: Vec<f64>,
}

impl Scratch {
    fn new(n: usize) -> Self {
        Self {
            k: vec![0.0; n],
            curve: vec![(0.0, 0.0); n],
            diagonal: vec![0.0; n],
            between: vec![0.0; n],
            right: vec![0.0; n],
        }
    }

    fn couple(&mut self, i: usize, conductance: f64) {
        self.diagonal[i - 1] += conductance;
        self.diagonal[i] += conductance;
        self.between[i] = -conductance;
    }

    /// Thomas algorithm; the answer stands in `right`.
    fn solve(&mut self, n: usize) {
        // `diagonal` becomes its reciprocal on the way, so that each row costs one division.
        self.diagonal[0] = 1.0 / self.diagonal[0];
        for i in 1..n {
            let factor = self.between[i] * self.diagonal[i - 1];
            self.diagonal[i] = 1.0 / (self.diagonal[i] - factor * self.between[i]);
            self.right[i] -= factor * self.right[i - 1];
        }
        self.right[n - 1] *= self.diagonal[n - 1];
        for i in (0..n - 1).rev() {
            self.right[i] = (self.right[i] - self.between[i + 1] * self.right[i + 1]) * self.diagonal[i];
        }
    }
}

#[expect(clippy::cast_precision_loss, reason = "cell counts are small")]
fn f64_of(n: usize) -> f64 {
    n as f64
}

#[cfg(test)]
mod tests {
    use super::super::TrayKind;
    use super::*;
    use crate::dough::{Composition, FatKind};
    use crate::units::Length;

    fn dough() -> Composition {
        Composition::from_analysis(0.1457, 0.2018, 0.0575, 0.5799, 0.0035, 0.0116, FatKind::Butter).unwrap()
    }

    /// Heat balance: what a closed dough gives its tray is what its enthalpy loses, with the fat setting on the way.
    #[test]
    fn the_energy_of_a_real_dough_and_its_tray_closes_within_a_thousandth() {
        let thermal = Thermal::new(&dough(), Temperature::new_c(24.0), Temperature::new_c(-18.0));
        let thickness_m = 0.006;
        let piece = Piece::Sheet { thickness: Length::new_mm(6.0) };
        for (kind, tray_c) in [(TrayKind::Aluminium, -18.0), (TrayKind::Steel, 4.0)] {
            let mut body = Body::new(&thermal, piece, Wrap::Open, Temperature::new_c(24.0), false);
            let support = Support::Tray { kind, start: Temperature::new_c(tray_c) };
            let air = Temperature::new_c(10.0);
            let samples = body.leave(air, Film::new_w_m2k(1e-6), support, Span::new_min(180.0), |_| false);
            let settled = samples.last().unwrap().mean.c();
            let given = (thermal.at(24.0).0 - thermal.at(settled).0) * thermal.density_kg_m3() * thickness_m;
            let taken = kind.heat_j_m2k() * (settled - tray_c);
            assert!((given / taken - 1.0).abs() < 0.001, "{kind:?}: {given:.1} J/m2 given, {taken:.1} taken");
        }
    }

    /// Heat balance over the faces: the enthalpy a freely cooling piece loses is what its film carries off.
    #[test]
    fn what_a_piece_loses_is_what_its_film_carries_off() {
        let thermal = Thermal::new(&dough(), Temperature::new_c(21.0), Temperature::new_c(4.0));
        let (air, film, thickness_m) = (4.0, 7.0, 0.024);
        let piece = Piece::Sheet { thickness: Length::new_mm(24.0) };
        let mut body = Body::refined(&thermal, piece, Wrap::Open, Temperature::new_c(21.0), true, 2);
        let (mut carried, mut last, mut mean_j_kg) = (0.0, 0.0, thermal.at(21.0).0);
        let start_j_kg = mean_j_kg;
        body.leave_watched(
            Temperature::new_c(air),
            Film::new_w_m2k(film),
            Support::Rack,
            Span::new_min(60.0),
            |s, cells| {
                // Backward steps: the flux of a step is that of its end. The face lies half a cell above the last node.
                let (top, half_m) = (cells[cells.len() - 1], thickness_m / f64_of(cells.len()) / 2.0);
                let u = 1.0 / (1.0 / film + half_m / thermal.at(top).2);
                carried += 2.0 * u * (top - air) * (s.after.s() - last);
                last = s.after.s();
                mean_j_kg = cells.iter().map(|&t| thermal.at(t).0).sum::<f64>() / f64_of(cells.len());
                false
            },
        );
        let lost = (start_j_kg - mean_j_kg) * thermal.density_kg_m3() * thickness_m;
        assert!((lost / carried - 1.0).abs() < 0.001, "{lost:.0} J/m2 lost, {carried:.0} carried off");
    }
}
