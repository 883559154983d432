//! The finite-volume grid of a piece: columns along x (or the radius) by layers along y.

use super::Piece;

/// Cells per direction; chosen so that halving them moves no reference run by 0.5 %.
const LAYERS: usize = 16;
const COLUMNS: usize = 10;

pub(crate) struct Grid {
    /// Columns and layers.
    pub nx: usize,
    pub ny: usize,
    pub dx_m: f64,
    pub dy_m: f64,
    /// Base area of a column, m2 (per metre of length for sections).
    pub base_m2: Vec<f64>,
    /// Wall between column i-1 and i per metre of height; `wall_m[0]` is the axis or symmetry plane.
    pub wall_m: Vec<f64>,
    /// Whether the lower face is a plane of symmetry (the upper half alone is solved).
    pub mirrored: bool,
}

impl Grid {
    /// The grid of a piece whose faces are alike (`faces_alike`) or not; `refine` multiplies the cells.
    pub fn new(piece: Piece, faces_alike: bool, refine: usize) -> Self {
        let m = |l: crate::units::Length| l.mm() / 1000.0;
        match piece {
            Piece::Sheet { thickness } => Self::slab(m(thickness), refine),
            Piece::Stack { thickness, count } => Self::slab(m(thickness) * f64::from(count), refine),
            Piece::Disc { thickness, diameter } => Self::round(m(diameter) / 2.0, m(thickness), faces_alike, refine),
            Piece::Ball { diameter } => Self::round(m(diameter) / 2.0, m(diameter), faces_alike, refine),
            Piece::Log { diameter } => Self::one_layer(Self::rings(m(diameter) / 2.0, LAYERS * refine)),
            Piece::Sphere { diameter } => Self::one_layer(Self::shells(m(diameter) / 2.0, LAYERS * refine)),
            Piece::Bar { width, height } => {
                let nx = COLUMNS * refine;
                let dx = m(width) / 2.0 / count(nx);
                let (ny, dy, mirrored) = layers(m(height), faces_alike, refine);
                Self { nx, ny, dx_m: dx, dy_m: dy, base_m2: vec![dx; nx], wall_m: vec![1.0; nx + 1], mirrored }
            }
        }
    }

    fn slab(thickness: f64, refine: usize) -> Self {
        let ny = LAYERS * refine;
        Self {
            nx: 1,
            ny,
            dx_m: 1.0,
            dy_m: thickness / count(ny),
            base_m2: vec![1.0],
            wall_m: vec![0.0; 2],
            mirrored: false,
        }
    }

    fn round(radius: f64, thickness: f64, faces_alike: bool, refine: usize) -> Self {
        let mut grid = Self::rings(radius, COLUMNS * refine);
        (grid.ny, grid.dy_m, grid.mirrored) = layers(thickness, faces_alike, refine);
        grid
    }

    /// Rings or shells alone: no heat goes up or down.
    fn one_layer(grid: Self) -> Self {
        Self { ny: 1, dy_m: 1.0, mirrored: true, ..grid }
    }

    /// Shells of a sphere: the `base` of each is its volume, the `wall` its inner face, both per metre of a height of one.
    fn shells(radius: f64, n: usize) -> Self {
        const FULL: f64 = 4.0 * std::f64::consts::PI;
        let rings = Self::rings(radius, n);
        let edge = |i: usize| rings.dx_m * count(i);
        Self {
            base_m2: (0..n).map(|i| FULL / 3.0 * (edge(i + 1).powi(3) - edge(i).powi(3))).collect(),
            wall_m: (0..=n).map(|i| FULL * edge(i).powi(2)).collect(),
            ..rings
        }
    }

    fn rings(radius: f64, n: usize) -> Self {
        let dx = radius / count(n);
        let edge = |i: usize| dx * count(i);
        Self {
            nx: n,
            ny: 0,
            dx_m: dx,
            dy_m: 0.0,
            base_m2: (0..n).map(|i| std::f64::consts::PI * (edge(i + 1).powi(2) - edge(i).powi(2))).collect(),
            wall_m: (0..=n).map(|i| std::f64::consts::TAU * edge(i)).collect(),
            mirrored: false,
        }
    }
}

fn layers(height: f64, faces_alike: bool, refine: usize) -> (usize, f64, bool) {
    if faces_alike {
        let n = LAYERS / 2 * refine;
        (n, height / 2.0 / count(n), true)
    } else {
        let n = LAYERS * refine;
        (n, height / count(n), false)
    }
}

#[expect(clippy::cast_precision_loss, reason = "cell counts are small")]
fn count(n: usize) -> f64 {
    n as f64
}
