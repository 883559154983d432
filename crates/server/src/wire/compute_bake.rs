//! A single bake on the wire: `compute bake`.

use super::FormulaBody;
use super::{SentenceView, say_all};
use ready_slab_core::air::standard_pressure_pa;
use ready_slab_core::dough::{MixMethod, Pantry, hides_colour};
use ready_slab_core::error::{Checks, InputError, InputErrors};
use ready_slab_core::oven::BakeEnd;
use ready_slab_core::oven::TrayLiner;
use ready_slab_core::oven::TrayMaterial;
use ready_slab_core::oven::{
    ACROSS_MM, BakeAlone, BakeForecast, BakePiece, BakeSample, BakeUntil, COVER, DoneBy, OVEN_C, OvenSetup, START_C,
    THICKNESS_MM, TRAY_C, TrayCover, look_lab, shade_of,
};
use ready_slab_core::units::{Length, Share, Span, Temperature, TemperatureDifference};
use ready_slab_words::Name;
use serde::{Deserialize, Serialize};
use std::ops::RangeInclusive;
use utoipa::ToSchema;

/// A piece as it goes in.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BakedPieceBody {
    /// 2 to 25.
    pub thickness_mm: f64,
    /// Of a round; of any other outline four times its area over its edge. 15 to 200.
    pub diameter_mm: f64,
    /// On its tray before the oven, beyond a minute of laying out: 0 to 120.
    #[serde(default)]
    pub wait_min: f64,
}

/// The oven and the tray.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OvenBody {
    /// 140 to 220.
    pub set_c: f64,
    /// Whether its fan runs.
    #[serde(default)]
    pub fan: bool,
    /// Its air over its setting as a thermometer had it, -60 to 60; null or absent where none was read.
    #[serde(default)]
    pub offset_c: Option<f64>,
    /// What the tray is of.
    #[serde(default = "light")]
    pub tray: TrayMaterial,
    /// What lies on it.
    #[serde(default = "parchment")]
    pub liner: TrayLiner,
    /// Share of the tray under the pieces as laid, 0.05 to 0.9; null or absent: laid out with 25 mm between the baked pieces.
    #[serde(default)]
    pub cover: Option<f64>,
    /// -400 to 3,000.
    #[serde(default)]
    pub altitude_m: f64,
    /// The tray as the pieces are laid on it, -40 to 100; 22 when null or absent.
    #[serde(default)]
    pub tray_c: Option<f64>,
}

const fn light() -> TrayMaterial {
    TrayMaterial::Light
}

const fn parchment() -> TrayLiner {
    TrayLiner::Parchment
}

/// A question to the oven station: either `end` or `at_min`, and either `method` or `air`.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BakeRequest {
    /// Ingredients by weight.
    pub formula: FormulaBody,
    /// How it was mixed; light and fluffy when neither is told.
    #[serde(default)]
    pub method: Option<MixMethod>,
    /// Air of the dough's volume after mixing, 0 to 0.4.
    #[serde(default)]
    pub air: Option<f64>,
    /// One piece.
    pub piece: BakedPieceBody,
    /// All of it when it goes in, -20 to 28.
    pub start_c: f64,
    /// The oven.
    pub oven: OvenBody,
    /// What ends it.
    #[serde(default)]
    pub end: Option<BakeEnd>,
    /// Or it is read off after so long, 0.5 to 50.
    #[serde(default)]
    pub at_min: Option<f64>,
}

/// How a surface looks.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LookView {
    /// Colour index, 0 raw to 100 burnt.
    pub index: f64,
    /// L*, a* and b* of the CIE.
    pub lab: [f64; 3],
    /// The word for it.
    pub word: String,
}

/// A moment of it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BakeMoment {
    /// Since it went in.
    pub after_min: f64,
    /// Middle of the piece.
    pub core_c: f64,
    /// Surface above the rim.
    pub edge_c: f64,
    /// The tray under it.
    pub tray_c: f64,
    /// Across, of the width as cut.
    pub spread_percent: f64,
    /// Colour index of the rim.
    pub edge: f64,
    /// Of the underside.
    pub underside: f64,
    /// Set, of the middle, 0 to 1.
    pub set: f64,
}

/// The answer.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct BakeResult {
    /// In the oven; null when it is not done within 50 min, and the other figures are then those after 50.
    pub minutes: Option<f64>,
    /// Nine of ten bakes lie within, in an oven as well known as this one; null without minutes.
    pub minutes_band: Option<[f64; 2]>,
    /// What common practice states.
    pub practice_minutes: [f64; 2],
    /// `rim`, `dull`, `set`, `time` or `not done`.
    pub done_by: String,
    /// Growth across.
    pub spread_percent: f64,
    /// Nine of ten bakes lie within; null when it is not done.
    pub spread_percent_band: Option<[f64; 2]>,
    /// What common practice states of such doughs, chilled and 6 mm.
    pub practice_spread_percent: [f64; 2],
    /// Growth all round.
    pub grows_mm: f64,
    /// Once it has cooled.
    pub thickness_mm: f64,
    /// Once it has cooled.
    pub density_kg_m3: f64,
    /// Of the mass as it went in.
    pub loss_percent: f64,
    /// Middle of the piece as it comes out.
    pub core_c: f64,
    /// The rim.
    pub edge: LookView,
    /// The middle above.
    pub middle: LookView,
    /// The middle beneath.
    pub underside: LookView,
    /// When the fat has let go.
    pub fat_min: Option<f64>,
    /// When the middle is set.
    pub set_min: Option<f64>,
    /// When the middle no longer shines.
    pub dull_min: Option<f64>,
    /// What to mind.
    pub warnings: Vec<SentenceView>,
    /// Every 10 s.
    pub curve: Vec<BakeMoment>,
}

/// Every fifth sample is told.
const TOLD: usize = 5;

impl BakeRequest {
    fn question(&self) -> Result<BakeAlone, InputErrors> {
        let mut checks = Checks::new();
        let (p, o) = (&self.piece, &self.oven);
        let mut within = |field: &str, value: f64, range: &RangeInclusive<f64>, unit: &'static str| {
            checks.range(field, value, *range.start(), *range.end(), unit);
        };
        within("piece.thickness_mm", p.thickness_mm, &THICKNESS_MM, "mm");
        within("piece.diameter_mm", p.diameter_mm, &ACROSS_MM, "mm");
        within("piece.wait_min", p.wait_min, &(0.0..=120.0), "min");
        within("start_c", self.start_c, &START_C, "\u{b0}C");
        within("oven.set_c", o.set_c, &OVEN_C, "\u{b0}C");
        within("oven.altitude_m", o.altitude_m, &(-400.0..=3000.0), "m");
        within("oven.offset_c", o.offset_c.unwrap_or(0.0), &(-60.0..=60.0), "K");
        within("oven.cover", o.cover.unwrap_or(*COVER.start()), &COVER, "of the tray");
        within("oven.tray_c", o.tray_c.unwrap_or(0.0), &TRAY_C, "\u{b0}C");
        within("air", self.air.unwrap_or(0.0), &(0.0..=0.4), "of the volume");
        within("at_min", self.at_min.unwrap_or(1.0), &(0.5..=50.0), "min");
        if self.end.is_some() == self.at_min.is_some() {
            checks.push(InputError::refused("end", "give either `end` or `at_min`"));
        }
        if self.method.is_some() && self.air.is_some() {
            checks.push(InputError::refused("air", "give either `method` or `air`"));
        }
        let formula = checks.take("formula", self.formula.clone().formula(Pantry::built_in()));
        checks.finish(())?;
        let mut oven = OvenSetup::usual(o.set_c, o.fan);
        (oven.tray, oven.liner) = (o.tray, o.liner);
        oven.pressure_pa = standard_pressure_pa(o.altitude_m);
        if let Some(cover) = o.cover {
            oven.cover = TrayCover::Share(Share::new(cover));
        }
        if let Some(tray) = o.tray_c {
            oven.tray_start = Temperature::new_c(tray);
        }
        let method = self.method.unwrap_or(MixMethod::LightAndFluffy);
        Ok(BakeAlone {
            formula: formula.expect("what could not be taken was refused"),
            air: self.air.unwrap_or_else(|| method.air()),
            piece: BakePiece {
                thickness: Length::new_mm(p.thickness_mm),
                radius: Length::new_mm(p.diameter_mm / 2.0),
                start: Temperature::new_c(self.start_c),
                firm_as_at: Temperature::new_c(self.start_c),
                wait: Span::new_min(p.wait_min),
            },
            oven,
            offset: o.offset_c.map(TemperatureDifference::new_k),
            until: match (self.end, self.at_min) {
                (Some(end), _) => BakeUntil::End(end),
                (None, at) => BakeUntil::After(Span::new_min(at.unwrap_or_default())),
            },
        })
    }

    /// Answers the question.
    pub fn answer(&self) -> Result<BakeResult, InputErrors> {
        let question = self.question()?;
        let told = question.answer()?;
        let cocoa = hides_colour(&question.formula);
        let f = &told.forecast;
        let done = f.done_by != DoneBy::Never;
        let percent = |(a, b): (Share, Share)| [100.0 * a.value(), 100.0 * b.value()];
        let minutes = |(a, b): (Span, Span)| [a.min(), b.min()];
        Ok(BakeResult {
            minutes: done.then(|| f.bake.min()),
            minutes_band: told.range.filter(|_| self.at_min.is_none()).map(|r| minutes(r.bake)),
            practice_minutes: minutes(told.practice.bake),
            done_by: done_word(f).to_owned(),
            spread_percent: 100.0 * f.spread.value(),
            spread_percent_band: told.range.map(|r| percent(r.spread)),
            practice_spread_percent: percent(told.practice.spread),
            grows_mm: (question.piece.radius * f.spread.value()).mm(),
            thickness_mm: f.thickness.mm(),
            density_kg_m3: f.density.kg_m3(),
            loss_percent: 100.0 * f.loss.value(),
            core_c: f.core.c(),
            edge: look(f.rim_colour, cocoa),
            middle: look(f.middle_colour, cocoa),
            underside: look(f.under_colour, cocoa),
            fat_min: f.fat_after.map(Span::min),
            set_min: f.set_after.map(Span::min),
            dull_min: f.dull_after.map(Span::min),
            warnings: say_all(&f.warnings),
            curve: f.curve.iter().step_by(TOLD).map(moment).collect(),
        })
    }
}

const fn done_word(f: &BakeForecast) -> &'static str {
    match f.done_by {
        DoneBy::Rim => "rim",
        DoneBy::Dull => "dull",
        DoneBy::Set => "set",
        DoneBy::Time => "time",
        DoneBy::Never => "not done",
    }
}

fn look(index: f64, cocoa: bool) -> LookView {
    // What cocoa hides has no word of its own.
    let word = if cocoa { "dark" } else { shade_of(index).name() };
    LookView { index, lab: look_lab(index, cocoa), word: word.to_owned() }
}

fn moment(s: &BakeSample) -> BakeMoment {
    BakeMoment {
        after_min: s.after.min(),
        core_c: s.core.c(),
        edge_c: s.top.1.c(),
        tray_c: s.tray.c(),
        spread_percent: 100.0 * s.spread.value(),
        edge: s.colour[0],
        underside: s.colour[2],
        set: s.set.value(),
    }
}
