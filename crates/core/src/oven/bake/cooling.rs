//! Out of the oven, on its tray in a room: the piece and the metal under and beside it, each of one temperature.
//!
//! An approximation: a piece of 6 mm is warm all through alike. That its middle stays warmer is told from the heat that leaves it, as of a
//! slab that cools evenly. The full run gone on with is the proof (its test).

use super::cells::Disc;
use super::dough::OvenDough;
use super::heat::{Warming, radiates_w_m2k};
use super::run::Record;
use super::setup::{BakePiece, OvenSetup};
use super::tray::{Around, TrayHeat};
use crate::units::{Span, Temperature};

/// The longest that a piece is followed as it cools, s.
const LONGEST_S: f64 = 5400.0;
const STEP_S: f64 = 2.0;
/// Contact that a baked foot keeps, and what a baked dough conducts, W/mK. Assumed.
const CONTACT_KEPT: f64 = 0.5;
const CONDUCTS_W_MK: f64 = 0.17;

/// How warm a piece and its tray are as they come out.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub(super) struct Hot {
    pub mean_c: f64,
    pub tray_c: f64,
    pub wide: f64,
    pub height_m: f64,
    /// Of the mass as laid.
    pub loss: f64,
}

impl From<&Record> for Hot {
    fn from(r: &Record) -> Self {
        Self { mean_c: r.mean_c, tray_c: r.tray_c, wide: r.wide, height_m: r.height_m, loss: r.loss }
    }
}

/// On its tray, until its middle has come down to each of `to`, the warmest first: how long, `None` when not within 90 min.
pub(super) fn cools(
    dough: &OvenDough,
    piece: &BakePiece,
    oven: &OvenSetup,
    hot: &Hot,
    to: [Temperature; 2],
) -> [Option<Span>; 2] {
    let mut disc = Disc::new(piece);
    disc.wide = hot.wide;
    let (plate, around) = (oven.plate(), Around::room(oven, &disc));
    let warming = Warming::new(dough);
    let water = (dough.parts().water - hot.loss).max(0.0);
    // On a square metre of piece as it lies.
    let mass = dough.solid_density() * (1.0 - dough.parts().air) * piece.thickness.mm() / 1000.0 / hot.wide.powi(2);
    let faces = 1.0 + 2.0 * hot.height_m / (disc.radius * hot.wide);
    let half = 0.5 * hot.height_m;
    let into_tray = 1.0 / (half / CONDUCTS_W_MK + 1.0 / (CONTACT_KEPT * plate.contact_w_m2k));
    let film = around.on_piece(disc.radius * hot.wide);
    let (mut piece_c, mut tray, mut after) = (hot.mean_c, TrayHeat::new(hot.tray_c), 0.0);
    let mut found = [None; 2];
    while after < LONGEST_S {
        let outward = 1.0 / (1.0 / (film + radiates_w_m2k(piece_c, around.air_c)) + half / (2.0 * CONDUCTS_W_MK));
        let off = faces * outward * (piece_c - around.air_c);
        let down = into_tray * (piece_c - tray.under_c);
        // Of a slab that cools evenly the middle is warmer than the whole by this.
        let core_c = piece_c + 0.5 * (off + down) * half / (6.0 * CONDUCTS_W_MK);
        for (found, to) in found.iter_mut().zip(to) {
            if core_c <= to.c() {
                found.get_or_insert(Span::new_s(after));
            }
        }
        if found[1].is_some() {
            break;
        }
        piece_c -= STEP_S * (off + down) / (mass * warming.capacity(piece_c, water));
        tray.step(&plate, &around, &disc, -down, STEP_S);
        after += STEP_S;
    }
    found
}
