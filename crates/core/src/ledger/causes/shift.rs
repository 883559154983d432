//! What a cause does to the model's question, and what that makes of the forecast.

use super::table::Cause;
use crate::error::InputErrors;
use crate::oven::{
    BakeFit, BakeForecast, BakeSeen, EdgeColour, OvenDough, TrayLiner, TrayMaterial, forecast, forecast_at, rim_index,
};
use crate::units::{Share, Temperature, TemperatureDifference};

/// A change of the bake.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) enum Shift {
    /// Pieces so much warmer than noted, K.
    Warmer(f64),
    /// So many times the flour.
    Flour(f64),
    /// The oven's air so much hotter, K.
    Oven(f64),
    /// So much more air, of the volume.
    Air(f64),
    /// So many times the sugar.
    Sugar(f64),
    /// So much more gas, mol/kg.
    Gas(f64),
    /// Something slippery under the pieces.
    Slippery,
    /// So many times as thick.
    Thick(f64),
    /// What the model has no word for spreads so many times as far.
    Spreads(f64),
    /// A dark tray.
    Dark,
    /// Browns so many times as fast.
    Browns(f64),
}

impl Cause {
    /// What it may do, a little and a lot; nothing where the model says nothing of it. How much: common practice, no source.
    pub(super) fn shifts(self) -> &'static [Shift] {
        match self {
            Self::WarmPieces => &[Shift::Warmer(5.0), Shift::Warmer(9.0), Shift::Warmer(13.0)],
            Self::ColdPieces => &[Shift::Warmer(-8.0), Shift::Warmer(-16.0)],
            // A cup of 120 g where 150 was meant, and half of that.
            Self::FlourShort => &[Shift::Flour(0.93), Shift::Flour(0.87), Shift::Flour(0.80)],
            Self::FlourHeavy => &[Shift::Flour(1.08), Shift::Flour(1.16), Shift::Flour(1.25)],
            Self::OvenCool => &[Shift::Oven(-12.0), Shift::Oven(-22.0), Shift::Oven(-32.0)],
            Self::OvenHot => &[Shift::Oven(12.0), Shift::Oven(22.0), Shift::Oven(32.0)],
            Self::MuchAir => &[Shift::Air(0.03), Shift::Air(0.06), Shift::Air(0.10)],
            Self::MuchSugar => &[Shift::Sugar(1.10), Shift::Sugar(1.20)],
            Self::Leavener => &[Shift::Gas(0.02), Shift::Gas(0.05)],
            Self::SlipperyTray => &[Shift::Slippery],
            Self::SheetThin => &[Shift::Thick(0.9), Shift::Thick(0.8)],
            Self::SheetThick => &[Shift::Thick(1.1), Shift::Thick(1.2)],
            Self::SoftFat => &[Shift::Spreads(1.3), Shift::Spreads(1.8)],
            Self::DarkTray => &[Shift::Dark],
            Self::LittleToBrown => &[Shift::Browns(0.7), Shift::Browns(0.5)],
            Self::FullTray => &[Shift::Oven(-8.0), Shift::Oven(-16.0)],
            _ => &[],
        }
    }
}

/// Shares with one of them so many times as large, together as before.
fn scaled(
    dough: &OvenDough,
    times: f64,
    of: fn(&mut crate::oven::OvenDoughParts) -> &mut f64,
) -> Result<OvenDough, InputErrors> {
    dough.with(|p| {
        *of(p) *= times;
        let all = p.water + p.fat + p.flour + p.starch + p.sugar + p.other + p.pieces;
        for share in [&mut p.water, &mut p.fat, &mut p.flour, &mut p.starch, &mut p.sugar, &mut p.other, &mut p.pieces]
        {
            *share /= all;
        }
        p.reducing /= all;
        p.egg_protein /= all;
        p.gas_mol_kg /= all;
    })
}

/// A bake as the model takes it.
#[derive(Debug, Clone)]
pub(super) struct Asked {
    pub seen: BakeSeen,
    pub fit: BakeFit,
}

/// What the model says of a bake.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Told {
    pub spread: f64,
    /// Colour index of the rim after the minutes that were noted.
    pub rim: Option<f64>,
}

impl Asked {
    pub(super) fn with(&self, shift: Shift) -> Result<Self, InputErrors> {
        let mut it = self.clone();
        let BakeSeen { dough, piece, oven, .. } = &mut it.seen;
        let warmer = |t: Temperature, k: f64| Temperature::new_c((t.c() + k).clamp(-20.0, 30.0));
        match shift {
            Shift::Warmer(k) => {
                piece.start = warmer(piece.start, k);
                piece.firm_as_at = warmer(piece.firm_as_at, k);
            }
            Shift::Flour(times) => *dough = scaled(dough, times, |p| &mut p.flour)?,
            Shift::Sugar(times) => *dough = scaled(dough, times, |p| &mut p.sugar)?,
            Shift::Air(more) => *dough = dough.with(|p| p.air = (p.air + more).min(0.35))?,
            Shift::Gas(more) => *dough = dough.with(|p| p.gas_mol_kg += more)?,
            Shift::Oven(k) => it.fit.offset = TemperatureDifference::new_k(it.fit.offset.k() + k),
            Shift::Slippery => oven.liner = TrayLiner::Greased,
            Shift::Thick(times) => piece.thickness = piece.thickness * times,
            Shift::Spreads(times) => it.fit.spread *= times,
            Shift::Dark => oven.tray = TrayMaterial::Dark,
            Shift::Browns(times) => it.fit.browning *= times,
        }
        Ok(it)
    }

    /// Spread and colour after the minutes that were noted; the spread alone, as it is when it is done, where none were.
    pub(super) fn told(&self) -> Result<Told, InputErrors> {
        let BakeSeen { dough, piece, oven, bake, end, .. } = &self.seen;
        let found: BakeForecast = match bake {
            Some(after) => forecast_at(dough, piece, oven, &self.fit, *after)?,
            None => forecast(dough, piece, oven, &self.fit, *end)?,
        };
        Ok(Told { spread: found.spread.value(), rim: bake.map(|_| found.rim_colour) })
    }
}

/// What came out, and how sure that is.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Out {
    pub spread: Share,
    pub rim: Option<EdgeColour>,
    /// What a width may be off by, as spread of a round.
    pub width_sd: f64,
    /// What is unsure of the recipe's spread, of itself.
    pub spread_sd: f64,
}

/// A rim that is called golden by one is called brown by another: one standard deviation of its index. Our own choice: half way from just golden to golden.
const RIM_SD: f64 = 8.0;
/// What the forecast's own spread may be off by, of the width, however little spreads. Our own choice: rows of practice lie about so far from it
/// (docs/oven-rows.md).
const FORECAST_SD: f64 = 0.010;
/// Of a forecast of hardly any spread, what is unsure of itself is taken of this. Our own choice.
const LEAST_SPREAD: f64 = 0.01;
/// An odd one is no proof: Student's t with so many degrees of freedom.
const TAILS: f64 = 4.0;

fn near(by: f64, sd: f64) -> f64 {
    (1.0 + (by / sd).powi(2) / TAILS).powf(-0.5 * (TAILS + 1.0)) / sd
}

impl Out {
    /// How likely the spread is, and the colour, where the model tells that.
    pub(super) fn likely(&self, told: &Told) -> [f64; 2] {
        let sd = FORECAST_SD.hypot(self.width_sd).hypot(self.spread_sd * told.spread.max(LEAST_SPREAD));
        let rim = match (self.rim, told.rim) {
            (Some(seen), Some(told)) => near(rim_index(seen) - told, RIM_SD) * RIM_SD,
            _ => 1.0,
        };
        [near(self.spread.value() - told.spread, sd), rim]
    }
}
