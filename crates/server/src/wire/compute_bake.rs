//! A single bake on the wire: `compute bake`.

use super::{SentenceView, say_all, view};
use ready_slab_core::air::standard_pressure_pa;
use ready_slab_core::dough::{FormulaInput, MixMethod, Pantry, hides_colour};
use ready_slab_core::error::{Checks, InputError, InputErrors};
use ready_slab_core::oven::{
    ACROSS_MM, BakeAlone, BakeAloneAnswer, BakeEnd, BakeForecast, BakePiece, BakeSample, BakeUntil, COVER, DoneBy,
    OVEN_C, OvenSetup, START_C, THICKNESS_MM, TRAY_C, TrayCover, TrayLiner, TrayMaterial, look_lab, shade_of,
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
    pub formula: FormulaInput,
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

view! {
    /// How a surface looks.
    pub struct LookView(index: f64, cocoa: bool) {
        // What cocoa hides has no word of its own.
        let word = if cocoa { "dark" } else { shade_of(index).name() };

        /// Colour index, 0 raw to 100 burnt.
        index: f64 = index,
        /// L*, a* and b* of the CIE.
        lab: [f64; 3] = look_lab(index, cocoa),
        /// The word for it.
        word: String = word.to_owned(),
    }
}

view! {
    /// A moment of it.
    pub struct BakeMoment(s: &BakeSample) {
        /// Since it went in.
        after_min: f64 = s.after.min(),
        /// Middle of the piece.
        core_c: f64 = s.core.c(),
        /// Surface above the rim.
        edge_c: f64 = s.top.1.c(),
        /// The tray under it.
        tray_c: f64 = s.tray.c(),
        /// Across, of the width as cut.
        spread_percent: f64 = 100.0 * s.spread.value(),
        /// Colour index of the rim.
        edge: f64 = s.colour[0],
        /// Of the underside.
        underside: f64 = s.colour[2],
        /// Set, of the middle, 0 to 1.
        set: f64 = s.set.value(),
    }
}

view! {
    /// The answer.
    pub struct BakeResult(question: &BakeAlone, told: &BakeAloneAnswer) {
        let cocoa = hides_colour(&question.formula);
        let f = &told.forecast;
        let done = f.done_by != DoneBy::Never;
        let asked_at = matches!(question.until, BakeUntil::After(_));
        let percent = |(a, b): (Share, Share)| [100.0 * a.value(), 100.0 * b.value()];
        let minutes = |(a, b): (Span, Span)| [a.min(), b.min()];

        /// In the oven; null when it is not done within 50 min, and the other figures are then those after 50.
        minutes: Option<f64> = done.then(|| f.bake.min()),
        /// Nine of ten bakes lie within, in an oven as well known as this one; null without minutes.
        minutes_band: Option<[f64; 2]> = told.range.filter(|_| !asked_at).map(|r| minutes(r.bake)),
        /// What common practice states.
        practice_minutes: [f64; 2] = minutes(told.practice.bake),
        /// `rim`, `dull`, `set`, `time` or `not done`.
        done_by: String = done_word(f).to_owned(),
        /// Growth across.
        spread_percent: f64 = 100.0 * f.spread.value(),
        /// Nine of ten bakes lie within; null when it is not done.
        spread_percent_band: Option<[f64; 2]> = told.range.map(|r| percent(r.spread)),
        /// What common practice states of such doughs, chilled and 6 mm.
        practice_spread_percent: [f64; 2] = percent(told.practice.spread),
        /// Growth all round.
        grows_mm: f64 = (question.piece.radius * f.spread.value()).mm(),
        /// Once it has cooled.
        thickness_mm: f64 = f.thickness.mm(),
        /// Once it has cooled.
        density_kg_m3: f64 = f.density.kg_m3(),
        /// Of the mass as it went in.
        loss_percent: f64 = 100.0 * f.loss.value(),
        /// Middle of the piece as it comes out.
        core_c: f64 = f.core.c(),
        /// The rim.
        edge: LookView = LookView::new(f.rim_colour, cocoa),
        /// The middle above.
        middle: LookView = LookView::new(f.middle_colour, cocoa),
        /// The middle beneath.
        underside: LookView = LookView::new(f.under_colour, cocoa),
        /// When the fat has let go.
        fat_min: Option<f64> = f.fat_after.map(Span::min),
        /// When the middle is set.
        set_min: Option<f64> = f.set_after.map(Span::min),
        /// When the middle no longer shines.
        dull_min: Option<f64> = f.dull_after.map(Span::min),
        /// What to mind.
        warnings: Vec<SentenceView> = say_all(&f.warnings),
        /// Every 10 s.
        curve: Vec<BakeMoment> = f.curve.iter().step_by(TOLD).map(Into::into).collect(),
    }
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
            checks.push(InputError::refused("end", "Give `end` or `at_min`, not both."));
        }
        if self.method.is_some() && self.air.is_some() {
            checks.push(InputError::refused("air", "Give `method` or `air`, not both."));
        }
        let formula = checks.take("formula", self.formula.formula(Pantry::built_in()));
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
        Ok(BakeResult::new(&question, &question.answer()?))
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
