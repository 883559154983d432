//! Oven and tray: the air round a piece, the film on it, and the metal under the piece and beside it.

use super::cells::Disc;
use super::nature::SIGMA;
use super::setup::{BakeFit, OvenSetup, Plate, TrayCover};
use super::water::{ROOM_VAPOUR_PA, oven_vapour_pa, thinner_air};

/// Film in still air and with a fan, W/m2K. Calibrated.
const FILM: (f64, f64) = (11.5, 23.92);
/// How the film falls with the size of a piece, over 65 mm, and with how full the tray is, over 40 %. Calibrated.
const BY_SIZE: (f64, f64) = (0.065, -0.398_5);
const BY_COVER: (f64, f64) = (0.40, -0.109_9);
/// By how much more the air falls as a fuller tray comes in. Calibrated.
const LOAD: f64 = 0.799_4;
/// The tray's film over that of the pieces. Assumed.
const TRAY_FILM: f64 = 0.8;
/// Top of the bare tray: its film over the rest. Calibrated.
const BED: f64 = 1.441;
/// The floor is hotter than the air, K; half of it where a fan stirs. Calibrated.
const FLOOR_K: f64 = 1.061 * 15.0;
/// Bare tray that counts, in areas of a piece, and the least there is: calibrated, numerical.
const REACH: f64 = 2.532;
const LEAST_BARE: f64 = 0.05;
/// Film of a room while a piece waits or cools.
const ROOM_FILM: f64 = 7.0;

/// What is round a piece at a moment.
pub(super) struct Around {
    pub air_c: f64,
    /// Film before the size of a piece, W/m2K.
    pub film_w_m2k: f64,
    pub vapour_pa: f64,
    /// Times the radiation of a black body.
    pub radiates: f64,
    /// The floor over the air, K.
    pub floor_k: f64,
    /// Share of the tray under the pieces as they were laid.
    pub cover: f64,
}

impl Around {
    /// In the oven, so long after it went in.
    pub(super) fn oven(oven: &OvenSetup, fit: &BakeFit, disc: &Disc, after_s: f64) -> Self {
        let cover = cover(oven.cover, disc);
        let full = cover / BY_COVER.0;
        let dip = oven.door_dip.k() * (1.0 + LOAD * (full - 1.0)) * (-after_s / oven.recovery.s()).exp();
        let film = if oven.fan { FILM.1 } else { FILM.0 };
        Self {
            air_c: oven.air.c() + fit.offset.k() - dip,
            film_w_m2k: film * fit.heat * thinner_air(oven.pressure_pa) * full.powf(BY_COVER.1),
            vapour_pa: oven_vapour_pa(oven.fan),
            radiates: fit.heat,
            floor_k: if oven.fan { FLOOR_K / 2.0 } else { FLOOR_K },
            cover,
        }
    }

    /// In the room, while it waits or cools.
    pub(super) fn room(oven: &OvenSetup, disc: &Disc) -> Self {
        Self {
            air_c: oven.room.c(),
            film_w_m2k: ROOM_FILM,
            vapour_pa: ROOM_VAPOUR_PA,
            radiates: 1.0,
            floor_k: 0.0,
            cover: cover(oven.cover, disc),
        }
    }

    /// The film on a piece that lies so wide, W/m2K.
    pub(super) fn on_piece(&self, radius_m: f64) -> f64 {
        self.film_w_m2k * (2.0 * radius_m / BY_SIZE.0).powf(BY_SIZE.1)
    }
}

/// Share of the tray under the pieces as laid. A tray is laid out for the size they have in the end.
fn cover(cover: TrayCover, disc: &Disc) -> f64 {
    match cover {
        TrayCover::Share(share) => share.value(),
        TrayCover::Gap(gap) => {
            let across_mm = 2000.0 * disc.radius;
            std::f64::consts::FRAC_PI_4 * (across_mm / (across_mm * disc.wide + gap.mm())).powi(2)
        }
    }
}

/// The metal under the piece and beside it, degC.
pub(super) struct TrayHeat {
    pub under_c: f64,
    beside_c: f64,
}

impl TrayHeat {
    pub(super) fn new(start_c: f64) -> Self {
        Self { under_c: start_c, beside_c: start_c }
    }

    /// A step on; `into_piece` is what the piece takes, W/m2 of piece as it lies.
    pub(super) fn step(&mut self, plate: &Plate, around: &Around, disc: &Disc, into_piece: f64, dt: f64) {
        let wide2 = disc.wide * disc.wide;
        let mean_k = 0.5 * (around.air_c + self.under_c) + 273.15;
        let radiation = around.radiates * SIGMA * 4.0 * mean_k.powi(3);
        let film = around.film_w_m2k * TRAY_FILM;
        let below = film + radiation * plate.emissivity;
        let above = BED * (film + radiation * plate.liner_emissivity);
        // Heat of bare tray far away does not get here.
        let bare = (1.0 / around.cover - wide2).max(LEAST_BARE);
        let bare = bare / (1.0 + bare / REACH);
        let floor_c = around.air_c + around.floor_k;
        // Its share of the area, at 4 times the conductance over the square of the radius: a ring beside a disc.
        let along = (4.0 * plate.along_w_k / (disc.radius * disc.wide).powi(2) * wide2)
            .min(0.2 * plate.heat_j_m2k * wide2.min(bare) / dt);
        let passes = along * (self.beside_c - self.under_c);
        self.under_c +=
            dt * (wide2 * below * (floor_c - self.under_c) - into_piece * wide2 + passes) / (plate.heat_j_m2k * wide2);
        let free = bare * (below * (floor_c - self.beside_c) + above * (around.air_c - self.beside_c));
        self.beside_c += dt * (free - passes) / (plate.heat_j_m2k * bare);
    }
}
