//! Where the model knows something, and where it only guesses.

use super::dough::OvenDough;
use super::setup::{BakePiece, OvenSetup};
use crate::error::{Checks, InputError, InputErrors};

/// Radius of the smallest disc the model knows, mm.
pub const LEAST_RADIUS_MM: f64 = 7.5;

/// What to mind about a forecast.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct BakeWarning(pub String);

/// What the model knows too little of, as sentences.
///
/// Fails, naming what and the range, for a piece under 2 or over 25 mm high, under 15 or over 200 mm across, an oven under
/// 140 or over 220 degC, a dough of under 10 or over 38 % fat, over 25 % water, without flour, or not between -20 and 28 degC.
pub fn check_bake(dough: &OvenDough, piece: &BakePiece, oven: &OvenSetup) -> Result<Vec<BakeWarning>, InputErrors> {
    let p = dough.parts();
    let mut checks = Checks::new();
    let high = piece.thickness.mm();
    checks.range("thickness_mm", high, 2.0, 25.0, "mm");
    checks.range("across_mm", 2.0 * piece.radius.mm(), 2.0 * LEAST_RADIUS_MM, 200.0, "mm");
    checks.range("oven_c", oven.air.c(), 140.0, 220.0, "\u{b0}C");
    checks.range("dough_c", piece.start.c(), -20.0, 28.0, "\u{b0}C");
    checks.range("fat_percent", 100.0 * p.fat, 10.0, 38.0, "% of the dough");
    checks.range("water_percent", 100.0 * p.water, 0.0, 25.0, "% of the dough");
    checks.range("wait_min", piece.wait.min(), 0.0, 120.0, "min");
    checks.range("cover_percent", 100.0 * oven.cover.value(), 5.0, 90.0, "% of the tray");
    if p.flour + p.starch < 0.02 {
        checks.push(InputError::refused("flour", "there is no flour in it: nothing would set"));
    }
    checks.finish(())?;
    let mut found = Vec::new();
    let mut warn = |text: &str| found.push(BakeWarning(text.to_owned()));
    if high > 9.0 {
        warn("Above 9 mm a dough that spreads is forecast to spread too far: take the lower end.");
    }
    if high <= 3.0 {
        warn("So thin a piece goes from golden to brown within a minute: stand by it.");
    }
    if p.carbon_dioxide_mol_kg > 0.02 && p.sugar > 0.25 {
        warn("Leavened, sweet doughs spread further than this forecast.");
    }
    if p.powdered > 0.0 {
        warn("Books and bakers disagree on how powdered sugar spreads.");
    }
    if p.pieces > 0.20 {
        warn("More than a fifth of it are pieces, which the forecast knows little of.");
    }
    if oven.cover.value() > 0.6 {
        warn("On so full a tray the undersides stay pale, more than any forecast tells exactly.");
    }
    Ok(found)
}
