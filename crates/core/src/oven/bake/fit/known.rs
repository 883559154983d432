//! A bake as it was recorded, and what bakes have taught of an oven and of formulas.

use super::super::dough::OvenDough;
use super::super::end::BakeEnd;
use super::super::setup::{BakeFit, BakePiece, OvenSetup};
use crate::units::{Share, Span, TemperatureDifference};

/// What a time that a baker notes may be off by, of itself, and a width measured with a calliper on a few pieces, of itself. Common
/// practice, no source.
pub(crate) const TIME_NOISE: f64 = 0.05;
pub(crate) const WIDTH_NOISE: f64 = 0.006;
/// And what one tray spreads more than another, of its spread. Common practice, no source.
pub(crate) const SPREAD_NOISE: f64 = 0.10;
/// A range is told as so many deviations either way: nine of ten bakes lie within. Of a normal distribution.
pub(crate) const NINE_OF_TEN: f64 = 1.645;
/// What is unsure of the log of a formula's spread over the forecast's, before any bake. By how far rows of practice lie from it (docs/oven.md).
pub(super) const SPREAD_SD: f64 = 0.50;

/// A bake as it was recorded.
#[derive(Debug, Clone, PartialEq)]
pub struct BakeSeen {
    /// Its formula, counted from 0: bakes of one formula spread alike.
    pub formula: usize,
    /// The dough.
    pub dough: OvenDough,
    /// One piece.
    pub piece: BakePiece,
    /// Oven and tray.
    pub oven: OvenSetup,
    /// The oven's offset as a thermometer had it; nothing where none was read.
    pub measured: Option<TemperatureDifference>,
    /// What ended it.
    pub end: BakeEnd,
    /// In the oven, where noted.
    pub bake: Option<Span>,
    /// Of a round, across.
    pub spread: Share,
}

impl BakeSeen {
    /// Whether another was baked of the same dough, in the same way and to the same end.
    pub(super) fn baked_like(&self, other: &Self) -> bool {
        (self.formula, self.piece, self.oven, self.measured, self.end)
            == (other.formula, other.piece, other.oven, other.measured, other.end)
            && self.dough == other.dough
    }
}

/// What bakes have taught of the oven.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OvenKnowledge {
    /// The oven's air over its setting, or over what a thermometer showed at it.
    pub offset: TemperatureDifference,
    /// One standard deviation of it.
    pub offset_sd: TemperatureDifference,
    /// How strongly it heats; nothing where no thermometer was read in it.
    pub heat: Option<HeatKnowledge>,
    /// Records it rests on, of all formulas.
    pub records: u32,
}

/// How strongly an oven heats by its air and its walls.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct HeatKnowledge {
    /// Times what the model has.
    pub heat: f64,
    /// One standard deviation of its logarithm.
    pub heat_sd: f64,
    /// Correlation of that with the offset: they trade off, so it is near -1.
    pub with_offset: f64,
}

/// Of the time, for each degree by which the oven's air is unsure, for the log of its heat and for that of the browning: the model's own
/// answers at 175 degC.
pub const TIME_PER_K: f64 = 0.014;
pub(super) const TIME_PER_HEAT: f64 = 0.8;
pub(super) const TIME_PER_BROWNING: f64 = 0.25;

impl OvenKnowledge {
    /// What stays unsure of a time, of itself, as far as the oven goes: one standard deviation.
    #[must_use]
    pub fn time_sd(&self) -> f64 {
        let of_offset = TIME_PER_K * self.offset_sd.k();
        let Some(h) = self.heat else { return of_offset };
        let of_heat = TIME_PER_HEAT * h.heat_sd;
        (of_offset * of_offset + of_heat * of_heat + 2.0 * h.with_offset * of_offset * of_heat).max(0.0).sqrt()
    }
}

/// What bakes have taught of a formula.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct DoughKnowledge {
    /// Times the spread.
    pub spread: f64,
    /// One standard deviation of its logarithm.
    pub spread_sd: f64,
    /// Times the time.
    pub time: f64,
    /// Times the browning.
    pub browning: f64,
    /// What stays unsure of a time of this formula in this oven, of itself: one standard deviation, the oven's among it.
    pub time_sd: f64,
    /// Records it rests on.
    pub records: u32,
}

impl DoughKnowledge {
    /// Before any bake; its time in an oven of which nothing is unsure.
    pub const NONE: Self =
        Self { spread: 1.0, spread_sd: SPREAD_SD, time: 1.0, browning: 1.0, time_sd: 0.118, records: 0 };
}

/// What bakes have taught of the oven and of a formula; nothing of the oven where a thermometer was read in it since.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct BakeKnowledge {
    /// Of the oven.
    pub oven: Option<OvenKnowledge>,
    /// Of the formula.
    pub dough: DoughKnowledge,
}

impl BakeKnowledge {
    /// Before any bake.
    pub const NONE: Self = Self { oven: None, dough: DoughKnowledge::NONE };

    /// What still counts of what bakes taught; `None` when that is nothing. The oven was taught beside the readings of a thermometer that
    /// stood then: when others stand now, they are newer and count instead of it.
    pub fn standing<R: PartialEq>(
        oven: Option<(OvenKnowledge, &[R])>,
        readings_now: &[R],
        dough: Option<DoughKnowledge>,
    ) -> Option<Self> {
        let oven = oven.filter(|(_, beside)| *beside == readings_now).map(|(oven, _)| oven);
        if oven.is_none() && dough.is_none() {
            return None;
        }
        Some(Self { oven, dough: dough.unwrap_or(DoughKnowledge::NONE) })
    }

    /// As the model takes it; `measured` is the oven's offset by a thermometer.
    #[must_use]
    pub fn fit(&self, measured: TemperatureDifference) -> BakeFit {
        let offset = self.oven.map_or(measured, |o| TemperatureDifference::new_k(measured.k() + o.offset.k()));
        let heat = self.oven.and_then(|o| o.heat).map_or(1.0, |h| h.heat);
        BakeFit { offset, heat, spread: self.dough.spread, time: self.dough.time, browning: self.dough.browning }
    }

    /// What stays unsure of a time, of itself: one standard deviation; `oven_sd` where nothing was taught of the oven.
    #[must_use]
    pub fn time_sd(&self, oven_sd: f64) -> f64 {
        match (self.oven, self.dough.records) {
            (Some(_), 1..) => self.dough.time_sd,
            (Some(oven), 0) => oven.time_sd().hypot(self.dough.time_sd),
            (None, _) => oven_sd.hypot(self.dough.time_sd.min(DoughKnowledge::NONE.time_sd)),
        }
    }
}

/// How often the ranges held: each record against the range that all others tell.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub struct RangesHeld {
    /// Records whose time was noted, and those within.
    pub times: (u32, u32),
    /// Records, and those whose spread was within.
    pub spreads: (u32, u32),
}

/// What was found of some records.
#[derive(Debug, Clone, PartialEq)]
pub struct BakesFitted {
    /// Of the oven.
    pub oven: OvenKnowledge,
    /// Of each formula, as they were counted.
    pub doughs: Vec<DoughKnowledge>,
    /// What all formulas of this baker share: what is known of one that was never baked.
    pub hand: DoughKnowledge,
    /// Records that lie far from the others and count for little, by their place among those given.
    pub odd: Vec<usize>,
    /// How often the ranges held.
    pub held: RangesHeld,
    /// How much trays differ from each other, of what is usual: times and spreads.
    pub differ: (f64, f64),
}

impl BakesFitted {
    /// Of the oven and one formula.
    #[must_use]
    pub fn of(&self, formula: usize) -> BakeKnowledge {
        let dough = self.doughs.get(formula).filter(|d| d.records > 0).copied().unwrap_or(self.hand);
        BakeKnowledge { oven: Some(self.oven), dough }
    }
}
