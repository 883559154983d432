//! A job's bake: the question to the model, its answer with honest bands, and what each lever would change.

use crate::cold::TrayKind;
use crate::dough::{Bite, Browning, Character, Formula, Texture, spread_tendency, texture};
use crate::error::InputErrors;
use crate::geometry::Outline;
use crate::job::reasons::reason::PotCaution;
use crate::job::reasons::reason::Reason;
use crate::job::settings::job::Job;
use crate::job::settings::kitchen::Kitchen;
use crate::job::settings::making::Making;
use crate::ledger::BakeRecord;
use crate::oven;
use crate::oven::{
    BakeEnd, BakeFit, BakeForecast, BakeKnowledge, BakePiece, BakeRange, BakeSeen, BakeSetting, COVER, DoneBy,
    Expected, OvenDoubt, OvenDough, OvenSetup, Practice, Stated, TIME_PER_K, TrayCover, TrayMaterial, bake_practice,
    check_bake, cools_after, forecast, practice_knows_little, spread_range, spread_until_set,
};
use crate::shape::Portion;
use crate::units::{Length, Share, Span, Temperature, TemperatureDifference};

/// Of a thermostat's swing, what is left in the mean over a bake: of a sine two thirds as long as the bake, its mean over the bake is at most
/// 1 / (1.5 pi), on the whole 0.7 of that.
const SWING_LEFT: f64 = 0.15;
/// A covered pot on a burner takes about twice as long; it is told from 1.6 times the least to 2.2 times the most. Common practice, no
/// source.
const POT_TIMES: (f64, f64) = (1.6, 2.2);
/// No pot holds a larger tray, mm. Common practice, no source.
const POT_TRAY_MM: f64 = 320.0;
/// What an oven that nobody has measured may be off by. Common practice, no source.
const UNMEASURED: TemperatureDifference = TemperatureDifference::new_k(15.0);
/// In the middle twice as long.
const POT_MIDDLE: f64 = 2.0;
/// Look so long before its least time.
const LOOK_EARLY_IN_A_POT: Span = Span::new_min(4.0);
/// A tray-wide bar covers as much of its tray as the model knows.
const BAR_COVER: Share = Share::new(*COVER.end());
/// Before the pieces are laid out, a tray is taken as full as one gets: what spreads most.
const FULL: Share = Share::new(0.6);

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
    /// Whether its pieces are soft, or short and break warm.
    pub tender: bool,
    /// Whether it browns early or fast, so that common practice knows less of its time.
    pub browns_fast: bool,
}

impl BakeQuestion {
    /// The forecast.
    ///
    /// Fails, naming what and the range, beyond what the model knows.
    pub fn answer(&self) -> Result<BakeForecast, InputErrors> {
        forecast(&self.dough, &self.piece, &self.oven, &self.fit, self.end)
    }
}

/// The question of a job's piece, that goes in at a temperature and as firm as at another, with what recorded bakes have taught.
pub(crate) fn bake_question(
    job: &Job,
    formula: &Formula,
    outline: &Outline,
    thickness: Length,
    kitchen: &Kitchen,
    (start, firm_as_at): (Temperature, Temperature),
    learnt: Option<&BakeKnowledge>,
) -> Result<BakeQuestion, InputErrors> {
    let input = job.input();
    let browning = Character::of(formula).browning.verdict;
    let setting = BakeSetting::new(input.oven.oven_c, kitchen.ovens().fan)?;
    // Squares of a tray-wide bar bake as one slab.
    let (radius, cover) = match &input.shape.making {
        Making::Portioned(Portion::TrayBar { .. }) => (Length::new_mm(100.0), BAR_COVER),
        Making::Cut | Making::Sliced { .. } | Making::Portioned(_) => (outline.rim_radius(), FULL),
    };
    let mut oven = OvenSetup::usual(setting.oven().c(), kitchen.ovens().fan);
    oven.tray = match kitchen.tray_kind() {
        TrayKind::Aluminium => TrayMaterial::Light,
        TrayKind::Steel => TrayMaterial::Dark,
    };
    oven.liner = input.oven.liner;
    oven.cover = TrayCover::Share(cover);
    (oven.tray_start, oven.room) = (kitchen.room(), kitchen.room());
    (oven.door_dip, oven.recovery) = kitchen.door();
    oven.pressure_pa = kitchen.pressure_pa();
    Ok(BakeQuestion {
        dough: OvenDough::of(formula, input.dough.method.air())?,
        piece: BakePiece { thickness, radius, start, firm_as_at, wait: Span::new_s(0.0) },
        oven,
        fit: match learnt {
            Some(k) => k.fit(kitchen.oven_offset(setting.oven())),
            None => BakeFit { offset: kitchen.oven_offset(setting.oven()), ..BakeFit::NONE },
        },
        end: input.oven.bake_end.as_it_shows(browning == Browning::StaysPale),
        tender: breaks_warm(formula),
        browns_fast: browning == Browning::Fast,
    })
}

/// How full a tray is, of so many pieces: the share of it under them as they are laid.
pub(crate) fn cover_of(outline: &Outline, pieces: u32, kitchen: &Kitchen) -> TrayCover {
    let tray = kitchen.trays().width().mm() * kitchen.trays().length().mm();
    let share = f64::from(pieces) * outline.area().mm2() / tray;
    TrayCover::Share(Share::new(share.clamp(*COVER.start(), *COVER.end())))
}

/// What is expected of a bake, and why.
pub(crate) struct BakeExpected {
    pub expected: Expected,
    pub reasons: Vec<Reason>,
    pub warnings: Vec<Reason>,
    /// None where the model refuses, or it is never done.
    pub forecast: Option<BakeForecast>,
}

impl BakeExpected {
    /// As common practice has it, with a warning of the forecast before its own.
    fn practice(stated: Stated, warning: Option<Reason>) -> Self {
        let warnings = warning.into_iter().chain(stated.warnings.into_iter().map(Reason::Oven));
        Self {
            expected: stated.expected,
            reasons: stated.reasons.into_iter().map(Reason::Oven).collect(),
            warnings: warnings.collect(),
            forecast: None,
        }
    }
}

/// Whether a piece must cool longer before it is lifted: it is soft, or very short.
fn breaks_warm(formula: &Formula) -> bool {
    texture(formula) == Texture::Soft
        || texture(formula) == Texture::Chewy
        || Character::of(formula).tenderness.verdict == Bite::VeryShort
}

/// What is expected of a bake: the forecast with its bands; where the model refuses or it is never done, the ranges of common practice.
pub(crate) fn expect_bake(
    job: &Job,
    formula: &Formula,
    kitchen: &Kitchen,
    question: &BakeQuestion,
    learnt: Option<&BakeKnowledge>,
) -> Result<BakeExpected, InputErrors> {
    let setting = BakeSetting::new(job.input().oven.oven_c, kitchen.ovens().fan)?;
    let practice = bake_practice(question.piece.thickness, setting, question.end, &spread_tendency(formula));
    let bars = matches!(job.input().shape.making, Making::Portioned(Portion::TrayBar { .. }));
    let wide = practice_knows_little(&question.piece, setting, question.end, question.browns_fast || bars);
    if kitchen.cover_pot() {
        return Ok(in_a_cover_pot(practice, kitchen));
    }
    Ok(match question.answer() {
        Ok(found) if found.done_by == DoneBy::Never => {
            BakeExpected::practice(practice, Some(Reason::NotDoneWithin { span: found.bake }))
        }
        Ok(found) => {
            let mut expected = banded(found, question, kitchen, (&practice.expected, wide), learnt);
            if matches!(job.input().shape.making, Making::Portioned(Portion::TrayBar { .. })) {
                expected.warnings.push(Reason::WideBar { across: question.piece.radius * 2.0 });
            }
            expected
        }
        Err(why) => BakeExpected::practice(practice, Some(Reason::BeyondTheForecast { why })),
    })
}

fn banded(
    found: BakeForecast,
    question: &BakeQuestion,
    kitchen: &Kitchen,
    (practice, wide): (&Expected, bool),
    learnt: Option<&BakeKnowledge>,
) -> BakeExpected {
    let measured = !kitchen.input().oven.oven_readings.is_empty();
    let swing = kitchen.oven_swing(question.oven.air);
    let oven = learnt.and_then(|k| k.oven);
    let known = learnt.copied().unwrap_or(BakeKnowledge::NONE);
    let doubt = OvenDoubt { measured, swing: TIME_PER_K * swing.k() * SWING_LEFT };
    let range = BakeRange::of(&found, &known, doubt, &practice.practice, wide);
    let (time, dough) = (found.bake, known.dough);
    let mut reasons = vec![
        Reason::DoneAfter { span: time, by: found.done_by },
        match oven {
            Some(o) => Reason::OvenTaught { bakes: o.records, off: o.offset, sd: o.offset_sd, measured },
            None if measured => Reason::OvenMeasured,
            None => Reason::OvenUnmeasured { doubt: UNMEASURED },
        },
    ];
    reasons.extend(oven.and_then(|o| o.heat).map(|h| Reason::HeatsTimes { times: h.heat }));
    if dough.records > 0 {
        reasons.push(Reason::DoughTaught {
            bakes: dough.records,
            spread: dough.spread,
            time: dough.time,
            browning: dough.browning,
        });
    }
    let stated = practice.practice.bake;
    reasons.push(Reason::ModelAndPractice { model: time, practice: stated, told: range.middle });
    if range.spread_widened {
        reasons.push(Reason::SpreadWidened { practice: practice.spread });
    }
    if swing.k() > 0.0 {
        reasons.push(Reason::ThermostatSwings { by: swing });
    }
    if kitchen.input().house.altitude_m.abs() >= 300.0 {
        reasons.push(Reason::AirAt { metres: kitchen.input().house.altitude_m, kpa: kitchen.pressure_pa() / 1000.0 });
    }
    if let TrayCover::Share(share) = question.oven.cover {
        reasons.push(Reason::TrayCovered { share });
    }
    if let (Some(fat), Some(set)) = (found.fat_after, found.set_after) {
        reasons.push(Reason::FlowsBetween { fat, set });
    }
    reasons.push(Reason::ComesOut {
        cut: question.piece.thickness,
        high: found.thickness,
        density: found.density,
        profile: found.profile,
    });
    let look = range.bake.0.s().min(stated.0.s());
    BakeExpected {
        expected: Expected {
            bake: range.bake,
            middle: range.middle,
            look_after: Span::new_s(look.max(60.0)),
            spread: range.spread,
            cool_on_tray: practice.cool_on_tray,
            practice: practice.practice,
        },
        reasons,
        warnings: found.warnings.iter().map(|w| Reason::Oven(oven::Reason::Warning(*w))).collect(),
        forecast: Some(found),
    }
}

/// Of a covered pot nothing is forecast: it has neither a setting nor an air that was measured.
fn in_a_cover_pot(practice: Stated, kitchen: &Kitchen) -> BakeExpected {
    let stated = practice.expected;
    let bake = (stated.practice.bake.0 * POT_TIMES.0, stated.practice.bake.1 * POT_TIMES.1);
    let mut warnings: Vec<Reason> = PotCaution::ALL.map(Reason::Pot).to_vec();
    let trays = kitchen.trays();
    if trays.length().mm() > POT_TRAY_MM {
        warnings.push(Reason::PotTray { tray: (trays.width(), trays.length()) });
    }
    warnings.extend(practice.warnings.into_iter().map(Reason::Oven));
    BakeExpected {
        expected: Expected {
            look_after: Span::new_s((bake.0 - LOOK_EARLY_IN_A_POT).s().max(60.0)),
            bake,
            middle: stated.middle * POT_MIDDLE,
            practice: Practice { bake, ..stated.practice },
            ..stated
        },
        reasons: vec![Reason::PotIsNotForecast, Reason::PotStaysPale],
        warnings,
        forecast: None,
    }
}

/// Cool enough to be lifted: a baked piece stiffens in its first minutes as its sugar thickens. What is soft, or is short and breaks warm, cools longer. And
/// above the room's air when it may be iced or packed. Common practice, no source.
const LIFTS_AT: Temperature = Temperature::new_c(75.0);
const TENDER_LIFTS_AT: Temperature = Temperature::new_c(70.0);
const PACKS_ABOVE_ROOM: TemperatureDifference = TemperatureDifference::new_k(2.0);

/// How a piece cools on its tray after its bake.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Cooling {
    /// Until it can be lifted without bending.
    pub lifts_after: Option<Span>,
    /// Until it can be iced or packed.
    pub packs_after: Option<Span>,
}

/// The longest that a piece is followed as it cools; what takes longer is planned as that.
const COOLS_AT_MOST: Span = Span::new_min(90.0);
/// Until it may be iced or packed where nothing is forecast: 30 to 60 min on the rack, common practice.
const USUALLY_PACKS: Span = Span::new_min(60.0);

impl Cooling {
    /// As common practice has it, where nothing is forecast.
    pub(crate) fn usual(expected: &Expected) -> Self {
        Self { lifts_after: Some(expected.cool_on_tray), packs_after: Some(USUALLY_PACKS) }
    }

    /// On the tray until it can be lifted.
    #[must_use]
    pub fn on_tray(&self) -> Span {
        self.lifts_after.unwrap_or(COOLS_AT_MOST)
    }

    /// From then on, until it can be iced, filled or packed.
    #[must_use]
    pub fn on_rack(&self) -> Span {
        let whole = self.packs_after.unwrap_or(COOLS_AT_MOST);
        if whole > self.on_tray() { whole - self.on_tray() } else { Span::new_s(0.0) }
    }
}

/// How a piece cools on its tray in its kitchen's room after a forecast bake; nothing where it takes longer than 90 min.
#[must_use]
pub fn cooling(question: &BakeQuestion, found: &BakeForecast) -> Cooling {
    let q = question;
    let lifts_at = if q.tender || matches!(q.end, BakeEnd::Soft(_)) { TENDER_LIFTS_AT } else { LIFTS_AT };
    let to = [lifts_at, q.oven.room + PACKS_ABOVE_ROOM];
    // In whole minutes, no fewer: every station tells the same.
    let whole = |after: Option<Span>| after.map(Span::whole_up);
    let [lifts_after, packs_after] = cools_after(&q.dough, &q.piece, &q.oven, found, to).map(whole);
    Cooling { lifts_after, packs_after }
}

/// How far a round of the dough grows at most, of its width as cut: what trays are laid out for.
pub(crate) fn most_spread(
    job: &Job,
    formula: &Formula,
    kitchen: &Kitchen,
    question: &BakeQuestion,
    learnt: Option<&BakeKnowledge>,
) -> Result<Share, InputErrors> {
    let setting = BakeSetting::new(job.input().oven.oven_c, kitchen.ovens().fan)?;
    let practice =
        bake_practice(question.piece.thickness, setting, question.end, &spread_tendency(formula)).expected.practice;
    let found = spread_until_set(&question.dough, &question.piece, &question.oven, &question.fit);
    Ok(match found {
        Ok((spread, warnings)) if !kitchen.cover_pot() => {
            spread_range(spread, &warnings, &learnt.copied().unwrap_or(BakeKnowledge::NONE), &practice).1
        }
        Ok(_) | Err(_) => practice.spread.1,
    })
}

/// A recorded bake as the fit takes it, by the number of its formula and the question of its job; `None` beyond what the model knows, or of a piece whose spread
/// cannot be told.
#[must_use]
pub fn bake_seen(
    formula: usize,
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
    let measured = !kitchen.input().oven.oven_readings.is_empty();
    Some(BakeSeen {
        formula,
        dough: question.dough.clone(),
        piece,
        oven: question.oven,
        measured: measured.then(|| kitchen.oven_offset(question.oven.air)),
        end: question.end.to(record.edge()),
        bake: record.baked(),
        spread: Share::new((growth / outline.rim_radius()).max(-0.5)),
    })
}
