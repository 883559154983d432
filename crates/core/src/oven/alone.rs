//! One bake by itself, without a job: the question in the trade's own terms, and all that is told of it.

use super::bake::{
    BakeEnd, BakeFit, BakeForecast, BakeKnowledge, BakePiece, DoneBy, OvenDough, OvenSetup, forecast, forecast_at,
};
use super::edge::EdgeColour;
use super::practice::{BakeSetting, Practice, bake_practice, practice_knows_little};
use super::range::{BakeRange, OvenDoubt};
use crate::dough::{Browning, Character, Formula, spread_tendency};
use crate::error::InputErrors;
use crate::units::{Span, TemperatureDifference};

/// When it is read off.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum BakeUntil {
    /// At its end.
    End(BakeEnd),
    /// After so long.
    After(Span),
}

/// One bake.
#[derive(Debug, Clone, PartialEq)]
pub struct BakeAlone {
    /// The dough.
    pub formula: Formula,
    /// Air that mixing has left, of its volume.
    pub air: f64,
    /// One piece.
    pub piece: BakePiece,
    /// The oven by its setting, and the tray.
    pub oven: OvenSetup,
    /// The oven's air over its setting, as a thermometer had it; nothing where none was read.
    pub offset: Option<TemperatureDifference>,
    /// When it is read off.
    pub until: BakeUntil,
}

/// What is told of it.
#[derive(Debug, Clone, PartialEq)]
pub struct BakeAloneAnswer {
    /// The forecast.
    pub forecast: BakeForecast,
    /// Its ranges; nothing of the time where it is not done, or was asked at a time.
    pub range: Option<BakeRange>,
    /// What common practice states.
    pub practice: Practice,
}

impl BakeAlone {
    /// The forecast, its ranges and common practice beside it.
    ///
    /// Fails, naming what and the range, beyond what the model knows.
    pub fn answer(&self) -> Result<BakeAloneAnswer, InputErrors> {
        let dough = OvenDough::of(&self.formula, self.air)?;
        let setting = BakeSetting::new(self.oven.air.c(), self.oven.fan)?;
        let fit = BakeFit { offset: self.offset.unwrap_or(TemperatureDifference::new_k(0.0)), ..BakeFit::NONE };
        let (found, end) = match self.until {
            BakeUntil::End(end) => (forecast(&dough, &self.piece, &self.oven, &fit, end)?, end),
            BakeUntil::After(after) => {
                (forecast_at(&dough, &self.piece, &self.oven, &fit, after)?, BakeEnd::Colour(EdgeColour::JustGolden))
            }
        };
        let tendency = spread_tendency(&self.formula);
        let practice = bake_practice(self.piece.thickness, setting, end, &tendency).expected.practice;
        let fast = Character::of(&self.formula).browning.verdict == Browning::Fast;
        let wide = practice_knows_little(&self.piece, setting, end, fast);
        let doubt = OvenDoubt { measured: self.offset.is_some(), swing: 0.0 };
        let range = (found.done_by != DoneBy::Never)
            .then(|| BakeRange::of(&found, &BakeKnowledge::NONE, doubt, &practice, wide));
        Ok(BakeAloneAnswer { forecast: found, range, practice })
    }
}
