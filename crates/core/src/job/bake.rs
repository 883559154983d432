//! A job's bake: the question to the model, its answer with honest bands, and what each lever would change.

use super::{Job, Kitchen, Making};
use crate::cold::TrayKind;
use crate::dough::{Formula, spread_tendency};
use crate::error::InputErrors;
use crate::geometry::Outline;
use crate::ledger::BakeRecord;
use crate::oven::{
    BakeEnd, BakeFit, BakeForecast, BakeKnowledge, BakePiece, BakeSeen, BakeSetting, Expected, OvenDough, OvenSetup,
    Profile, TrayMaterial, air_of, bake_practice, check_bake, cools_after, forecast,
};
use crate::shape::Portion;
use crate::units::{Length, Share, Span, Temperature, TemperatureDifference};

/// How far off a time may be: an oven that nobody has measured (15 degC either way make about a fifth), one that was
/// measured against a thermometer, and, of the spread, a formula that was never baked. One standard deviation of what the
/// fit starts from (docs/oven.md).
const TIME_UNMEASURED: f64 = 0.18;
const TIME_MEASURED: f64 = 0.10;
const SPREAD_UNBAKED: f64 = 0.40;
/// Of the time, for each degree by which the oven's air is unsure; and what stays unsure when all else is known, of time and
/// spread. The first is the model's own answer at 175 degC, the others our own choice.
const TIME_PER_K: f64 = 0.012;
const TIME_ITSELF: f64 = 0.04;
const SPREAD_ITSELF: f64 = 0.10;
/// Spread is never told closer than this, of the width.
const SPREAD_LEAST: f64 = 0.015;
/// Look so long before the forecast, at least and at most.
const LOOK_EARLY: (Span, Span) = (Span::new_min(2.0), Span::new_min(4.0));
/// What the tray is covered with is reckoned with this gap beside each piece, mm.
const USUAL_GAP_MM: f64 = 25.0;

/// All that a forecast asks.
#[derive(Debug, Clone, PartialEq)]
pub struct BakeQuestion {
    /// The dough.
    pub dough: OvenDough,
    /// One piece.
    pub piece: BakePiece,
    /// Oven and tray.
    pub oven: OvenSetup,
    /// What has been learnt.
    pub fit: BakeFit,
    /// What ends it.
    pub end: BakeEnd,
}

impl BakeQuestion {
    /// The forecast.
    ///
    /// Fails, naming what and the range, beyond what the model knows.
    pub fn answer(&self) -> Result<BakeForecast, InputErrors> {
        forecast(&self.dough, &self.piece, &self.oven, &self.fit, self.end)
    }
}

/// The question of a job's piece, that goes in at `start`, with what recorded bakes have taught.
pub fn bake_question(
    job: &Job,
    formula: &Formula,
    outline: &Outline,
    thickness: Length,
    kitchen: &Kitchen,
    start: Temperature,
    learnt: Option<&BakeKnowledge>,
) -> Result<BakeQuestion, InputErrors> {
    let input = job.input();
    let setting = BakeSetting::new(input.oven_c, kitchen.ovens().fan)?;
    let (w, h) = outline.extent();
    // Squares of a tray-wide bar bake as one slab.
    let (radius, cover) = match &input.making {
        Making::Portioned(Portion::TrayBar { .. }) => (Length::new_mm(100.0), 0.9),
        Making::Cut | Making::Sliced { .. } | Making::Portioned(_) => {
            let room = (w.mm() + USUAL_GAP_MM) * (h.mm() + USUAL_GAP_MM);
            (outline.rim_radius(), (outline.area().mm2() / room).clamp(0.05, 0.9))
        }
    };
    let mut oven = OvenSetup::usual(setting.oven().c(), kitchen.ovens().fan);
    oven.tray = match kitchen.tray_kind() {
        TrayKind::Aluminium => TrayMaterial::Light,
        TrayKind::Steel => TrayMaterial::Dark,
    };
    oven.liner = input.liner;
    oven.cover = Share::new(cover);
    oven.tray_start = kitchen.room();
    Ok(BakeQuestion {
        dough: OvenDough::of(formula, air_of(input.method))?,
        piece: BakePiece { thickness, radius, start, wait: Span::new_s(0.0) },
        oven,
        fit: learnt
            .map_or(BakeFit { offset: kitchen.oven_offset(setting.oven()), ..BakeFit::NONE }, BakeKnowledge::fit),
        end: input.bake_end,
    })
}

/// What is expected of a bake: the forecast with its bands; where the model refuses, the ranges of common practice.
pub(super) fn expect_bake(
    job: &Job,
    formula: &Formula,
    kitchen: &Kitchen,
    question: &BakeQuestion,
    learnt: Option<&BakeKnowledge>,
) -> Result<(Expected, Option<BakeForecast>), InputErrors> {
    let setting = BakeSetting::new(job.input().oven_c, kitchen.ovens().fan)?;
    let mut practice = bake_practice(question.piece.thickness, setting, &spread_tendency(formula));
    match question.answer() {
        Ok(found) => Ok((banded(&found, kitchen, &practice, learnt), Some(found))),
        Err(refused) => {
            let why = refused.all().iter().map(ToString::to_string).collect::<Vec<_>>().join("; ");
            practice
                .warnings
                .insert(0, format!("Beyond what the forecast knows ({why}): these are ranges of common practice."));
            Ok((practice, None))
        }
    }
}

fn banded(found: &BakeForecast, kitchen: &Kitchen, practice: &Expected, learnt: Option<&BakeKnowledge>) -> Expected {
    let measured = !kitchen.input().oven_readings.is_empty();
    let band = match learnt {
        Some(k) => (TIME_PER_K * k.offset_sd.k()).hypot(TIME_ITSELF),
        None if measured => TIME_MEASURED,
        None => TIME_UNMEASURED,
    };
    let spread_band = learnt.map_or(SPREAD_UNBAKED, |k| k.spread_sd.hypot(SPREAD_ITSELF));
    let time = found.bake;
    let early = Span::new_s((time * band).s().clamp(LOOK_EARLY.0.s(), LOOK_EARLY.1.s()));
    let spread = found.spread.value();
    let off = (spread.abs() * spread_band).max(SPREAD_LEAST);
    let mut reasons = vec![
        format!(
            "{:.1} min until {}.",
            time.min(),
            match found.done_by {
                crate::oven::DoneBy::Rim => "the rim has its colour",
                crate::oven::DoneBy::Dull => "the middle no longer shines, which here comes last",
                crate::oven::DoneBy::Set => "the middle is set, which here comes last",
                crate::oven::DoneBy::Time | crate::oven::DoneBy::Never => "the forecast ends: it is not done by then",
            }
        ),
        if let Some(k) = learnt {
            format!(
                "{} of your bakes have taught it: the oven is {}{:.0}\u{b0} off (\u{b1} {:.0}), this dough spreads {:.2} times as far.",
                k.records,
                if k.offset.k() < 0.0 { "\u{2212}" } else { "+" },
                k.offset.k().abs(),
                k.offset_sd.k(),
                k.spread
            )
        } else if measured {
            "The range is of an oven measured against a thermometer.".to_owned()
        } else {
            "The range is wide: nobody has measured this oven, and 15\u{b0} make a fifth of the time.".to_owned()
        },
    ];
    if let (Some(fat), Some(set)) = (found.fat_after, found.set_after) {
        reasons.push(format!(
            "The fat lets go after {:.1} min, the dough is set after {:.1}: in between it flows.",
            fat.min(),
            set.min()
        ));
    }
    reasons.push(
        match found.profile {
            Profile::Domed => "It comes out domed.",
            Profile::Flat => "It comes out flat.",
            Profile::Sunken => "Its rim stands a little higher than its middle.",
        }
        .to_owned(),
    );
    Expected {
        bake: (time * (1.0 - band), time * (1.0 + band)),
        look_after: Span::new_s((time - early).s().max(60.0)),
        spread: (Share::new(spread - off), Share::new(spread + off)),
        cool_on_tray: practice.cool_on_tray,
        reasons,
        warnings: found.warnings.iter().map(|w| w.0.clone()).collect(),
    }
}

/// Cool enough to be lifted, and above the room's air when it may be iced or packed: fat sets between them. Common practice, no
/// source.
const LIFTS_AT: Temperature = Temperature::new_c(45.0);
const PACKS_ABOVE_ROOM: TemperatureDifference = TemperatureDifference::new_k(2.0);

/// How a piece cools on its tray after its bake.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Cooling {
    /// Until it can be lifted without bending.
    pub lifts_after: Option<Span>,
    /// Until it can be iced or packed.
    pub packs_after: Option<Span>,
}

/// How a piece cools on its tray in a room at 22 degC, taken out after `bake`; nothing where it takes longer than 90 min.
///
/// Fails beyond what the model knows.
pub fn cooling(question: &BakeQuestion, bake: Span) -> Result<Cooling, InputErrors> {
    let q = question;
    let until = |to: Temperature| cools_after(&q.dough, &q.piece, &q.oven, &q.fit, bake, to);
    Ok(Cooling { lifts_after: until(LIFTS_AT)?, packs_after: until(Temperature::new_c(22.0) + PACKS_ABOVE_ROOM)? })
}

/// A recorded bake as the fit takes it, by the question of its job; `None` beyond what the model knows, or of a piece whose spread
/// cannot be told.
#[must_use]
pub fn bake_seen(
    kitchen: &Kitchen,
    outline: &Outline,
    question: &BakeQuestion,
    record: &BakeRecord,
) -> Option<BakeSeen> {
    let findings = record.findings();
    // The calliper's growth across is twice the growth at the rim; the model tells that of the disc that stands for the piece.
    let growth = (findings.mean_width - record.cut_width()) * 0.5;
    let piece = BakePiece { thickness: record.cut_thickness(), ..question.piece };
    check_bake(&question.dough, &piece, &question.oven).ok()?;
    let measured = !kitchen.input().oven_readings.is_empty();
    Some(BakeSeen {
        dough: question.dough.clone(),
        piece,
        oven: question.oven,
        measured: measured.then(|| kitchen.oven_offset(question.oven.air)),
        colour: record.edge(),
        bake: record.baked(),
        spread: Share::new((growth / outline.rim_radius()).max(-0.5)),
    })
}
