//! The board of levers: what each of them would change of spread, time and colour, around the bake as it is planned.

use super::{BakeQuestion, ColdPlace, Job, Kitchen, Plan};
use crate::air::standard_pressure_pa;
use crate::cold::{ChillQuestion, Piece, Support, Target, Wrap, chill_briefly};
use crate::dough::{Formula, MixMethod, Pantry, Role};
use crate::error::InputErrors;
use crate::oven::{
    ACROSS_MM, BakeForecast, COVER, OVEN_C, OvenDough, OvenSetup, START_C, THICKNESS_MM, TrayCover, TrayLiner,
    TrayMaterial, forecast_at,
};
use crate::units::{Length, Share, Span, Temperature, TemperatureDifference};

/// Where a lever is pulled.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum LeverGroup {
    /// Setting, fan, tray, liner.
    Oven,
    /// How cold the pieces go in.
    Cold,
    /// Thickness and size.
    Shape,
    /// The formula and its mixing.
    Dough,
}

/// One lever, pulled one notch.
#[derive(Debug, Clone, PartialEq)]
pub struct BakeLever {
    /// Where.
    pub group: LeverGroup,
    /// What is done, in words.
    pub name: String,
    /// The bake as it would be.
    pub question: BakeQuestion,
}

/// What a lever changes.
#[derive(Debug, Clone, PartialEq)]
pub struct LeverEffect {
    /// The bake until its own end.
    pub forecast: BakeForecast,
    /// Colour index of the rim after the time of the bake as planned.
    pub rim_at_same_time: f64,
}

/// What a lever changes beyond the forecast's own steps; nothing where it is within them.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LeverChange {
    /// Of the spread, in hundredths of the width.
    pub spread_points: Option<f64>,
    /// Of the time in the oven, in minutes.
    pub bake_min: Option<f64>,
    /// Of the rim's colour index after the time as planned.
    pub rim: Option<f64>,
}

/// Half the step moves a spread by up to 1.9 % of it and a time by 0.3 % (the forecast's own error study, docs/oven.md), most of it alike in
/// two runs: they tell nothing of each other within about that, and the least that is told is a tenth of a point and three seconds.
const SPREAD_NOISE: f64 = 0.02;
const LEAST_SPREAD_POINTS: f64 = 0.1;
const TIME_NOISE: f64 = 0.002;
const LEAST_TIME_MIN: f64 = 3.0 / 60.0;
/// No eye tells two rims apart within this of the colour index. Common practice, no source.
const RIM_NOISE: f64 = 1.5;

impl LeverEffect {
    /// Against the bake as it is planned.
    #[must_use]
    pub fn change(&self, planned: &BakeForecast) -> LeverChange {
        let beyond = |by: f64, noise: f64| (by.abs() > noise).then_some(by);
        let points = 100.0 * planned.spread.value();
        LeverChange {
            spread_points: beyond(
                100.0 * self.forecast.spread.value() - points,
                (SPREAD_NOISE * points.abs()).max(LEAST_SPREAD_POINTS),
            ),
            bake_min: beyond(
                self.forecast.bake.min() - planned.bake.min(),
                (TIME_NOISE * planned.bake.min()).max(LEAST_TIME_MIN),
            ),
            rim: beyond(self.rim_at_same_time - planned.rim_colour, RIM_NOISE),
        }
    }
}

/// A degree of dough, a notch of the oven, a millimetre: what each lever is pulled by. Common practice, no source.
const OVEN_NOTCH_K: f64 = 15.0;
const COLDER_K: f64 = 6.0;

/// How much longer a tray of cut pieces stays in the cold, and where, to go in so much colder: the lever's price. `None` for
/// pieces that are not cut, and where the place never makes them so cold.
pub fn colder_takes(job: &Job, kitchen: &Kitchen, plan: &Plan) -> Result<Option<(Span, ColdPlace)>, InputErrors> {
    let Some(tray_chill) = &plan.cold.tray_chill else { return Ok(None) };
    let chill_to = |core: Temperature| -> Result<Option<Span>, InputErrors> {
        let question = ChillQuestion::new(
            plan.dough.composition.clone(),
            Piece::Sheet { thickness: job.thickness() },
            Wrap::Open,
            Support::Tray { kind: kitchen.tray_kind(), start: kitchen.room() },
            tray_chill.start.c(),
            kitchen.place(tray_chill.place),
            Target::Core(core),
        )?;
        Ok(chill_briefly(&question).ready_after)
    };
    let now = plan.oven.question.piece.start;
    let colder = now + TemperatureDifference::new_k(-COLDER_K);
    let (Some(now), Some(then)) = (chill_to(now)?, chill_to(colder)?) else { return Ok(None) };
    Ok(Some((then - now, tray_chill.place)))
}

fn starts(question: &BakeQuestion, colder: Option<(Span, ColdPlace)>) -> Vec<(String, BakeQuestion)> {
    let at = |by: f64, name: String| {
        let start = question.piece.start + TemperatureDifference::new_k(by);
        let inside = START_C.contains(&start.c());
        inside.then(|| {
            let firm_as_at = question.piece.firm_as_at + TemperatureDifference::new_k(by);
            let piece = crate::oven::BakePiece { start, firm_as_at, ..question.piece };
            (name, BakeQuestion { piece, ..question.clone() })
        })
    };
    let waits = crate::oven::BakePiece { wait: question.piece.wait + Span::new_min(10.0), ..question.piece };
    [
        at(
            -COLDER_K,
            match colder {
                Some((takes, place)) => {
                    format!(
                        "pieces colder by \u{2212}{COLDER_K:.0}\u{b0}: {:.0} min more in the {}",
                        takes.min().ceil(),
                        place.word()
                    )
                }
                None => format!("pieces colder by \u{2212}{COLDER_K:.0}\u{b0}"),
            },
        ),
        at(COLDER_K, format!("pieces warmer by +{COLDER_K:.0}\u{b0}")),
        Some(("ten minutes on the counter".to_owned(), BakeQuestion { piece: waits, ..question.clone() })),
    ]
    .into_iter()
    .flatten()
    .collect()
}

fn ovens(question: &BakeQuestion) -> Vec<(String, BakeQuestion)> {
    let with = |name: &str, change: &dyn Fn(&mut OvenSetup)| {
        let mut oven = question.oven;
        change(&mut oven);
        (oven != question.oven).then(|| (name.to_owned(), BakeQuestion { oven, ..question.clone() }))
    };
    let hotter = TemperatureDifference::new_k(OVEN_NOTCH_K);
    let cooler = TemperatureDifference::new_k(-OVEN_NOTCH_K);
    let inside = |by: TemperatureDifference| OVEN_C.contains(&(question.oven.air + by).c());
    let fan = if question.oven.fan { "without the fan" } else { "with the fan" };
    let mut found: Vec<Option<(String, BakeQuestion)>> = vec![
        inside(hotter)
            .then(|| with(&format!("oven hotter by +{OVEN_NOTCH_K:.0}\u{b0}"), &|o| o.air = o.air + hotter))
            .flatten(),
        inside(cooler)
            .then(|| with(&format!("oven cooler by \u{2212}{OVEN_NOTCH_K:.0}\u{b0}"), &|o| o.air = o.air + cooler))
            .flatten(),
        with(fan, &|o| o.fan = !o.fan),
    ];
    for tray in TrayMaterial::ALL {
        found.push(with(tray.word(), &|o| o.tray = tray));
    }
    for liner in [TrayLiner::Parchment, TrayLiner::Bare, TrayLiner::Greased, TrayLiner::Silicone] {
        found.push(with(liner.word(), &|o| o.liner = liner));
    }
    found.push(with("a warm tray of 45\u{b0}", &|o| o.tray_start = Temperature::new_c(45.0)));
    let high = |m: f64| move |o: &mut OvenSetup| o.pressure_pa = standard_pressure_pa(m);
    found.push(with("at 1600 m above the sea", &high(1600.0)));
    if question.oven.pressure_pa < standard_pressure_pa(300.0) {
        found.push(with("at the sea", &high(0.0)));
    }
    if let TrayCover::Share(cover) = question.oven.cover {
        let half = Share::new((cover.value() * 0.5).max(*COVER.start()));
        found.push(with("trays half as full", &|o| o.cover = TrayCover::Share(half)));
    }
    found.into_iter().flatten().collect()
}

fn shapes(question: &BakeQuestion) -> Vec<(String, BakeQuestion)> {
    let high = question.piece.thickness.mm();
    let mut found = Vec::new();
    for (thickness, name) in [(high - 1.0, "a millimetre thinner"), (high + 1.0, "a millimetre thicker")] {
        if THICKNESS_MM.contains(&thickness) {
            let piece = crate::oven::BakePiece { thickness: Length::new_mm(thickness), ..question.piece };
            found.push((name.to_owned(), BakeQuestion { piece, ..question.clone() }));
        }
    }
    for (times, name) in [(0.75, "a quarter smaller"), (1.25, "a quarter larger")] {
        let radius = question.piece.radius * times;
        if ACROSS_MM.contains(&(2.0 * radius.mm())) {
            let piece = crate::oven::BakePiece { radius, ..question.piece };
            found.push((name.to_owned(), BakeQuestion { piece, ..question.clone() }));
        }
    }
    found
}

/// The formula with some of its lines by other amounts, or one in place of another.
fn doughs(
    question: &BakeQuestion,
    formula: &Formula,
    method: MixMethod,
) -> Result<Vec<(String, BakeQuestion)>, InputErrors> {
    let mut found = Vec::new();
    let air = method.air();
    let pantry = Pantry::built_in();
    let mut add = |name: &str, changed: Option<Formula>| -> Result<(), InputErrors> {
        if let Some(changed) = changed {
            let dough = OvenDough::of(&changed, air)?;
            found.push((name.to_owned(), BakeQuestion { dough, ..question.clone() }));
        }
        Ok(())
    };
    let scaled = |role: Role, times: f64| formula.scaled_role(role, times);
    add("a tenth more flour", scaled(Role::Flour, 1.1))?;
    add("a tenth less flour", scaled(Role::Flour, 0.9))?;
    add("a fifth more sugar", scaled(Role::Sugar, 1.2))?;
    add("a fifth less sugar", scaled(Role::Sugar, 0.8))?;
    add("a fifth more butter", scaled(Role::Fat, 1.2))?;
    add("half the sugar powdered", formula.partly_instead("sugar-powdered", Role::Sugar, 0.5, pantry))?;
    add("half the sugar brown", formula.partly_instead("sugar-brown", Role::Sugar, 0.5, pantry))?;
    add("a tenth of the flour as starch", formula.partly_instead("cornstarch", Role::Flour, 0.1, pantry))?;
    let leavener = |key: &str, share: f64| formula.with_added(key, formula.role_mass(Role::Flour) * share, pantry);
    add("baking powder, 1 % of the flour", leavener("baking-powder", 0.01))?;
    add("soda, half a per cent of the flour", leavener("baking-soda", 0.005))?;
    let other_air =
        if method == MixMethod::LightAndFluffy { MixMethod::JustCombined } else { MixMethod::LightAndFluffy };
    let name = if method == MixMethod::LightAndFluffy { "creamed only just" } else { "creamed light and fluffy" };
    let dough = OvenDough::of(formula, other_air.air())?;
    found.push((name.to_owned(), BakeQuestion { dough, ..question.clone() }));
    Ok(found)
}

/// Every lever of a bake, one notch each; `colder` is what [`colder_takes`] has found.
pub fn bake_levers(
    question: &BakeQuestion,
    colder: Option<(Span, ColdPlace)>,
    formula: &Formula,
    method: MixMethod,
) -> Result<Vec<BakeLever>, InputErrors> {
    let groups = [
        (LeverGroup::Cold, starts(question, colder)),
        (LeverGroup::Oven, ovens(question)),
        (LeverGroup::Shape, shapes(question)),
        (LeverGroup::Dough, doughs(question, formula, method)?),
    ];
    let of = |(group, all): (LeverGroup, Vec<(String, BakeQuestion)>)| {
        all.into_iter().map(move |(name, question)| BakeLever { group, name, question })
    };
    Ok(groups.into_iter().flat_map(of).collect())
}

impl BakeLever {
    /// What it changes, against a bake planned to take so long.
    ///
    /// Fails beyond what the model knows.
    pub fn effect(&self, planned: Span) -> Result<LeverEffect, InputErrors> {
        let q = &self.question;
        let found = q.answer()?;
        let same = forecast_at(&q.dough, &q.piece, &q.oven, &q.fit, planned)?;
        Ok(LeverEffect { forecast: found, rim_at_same_time: same.rim_colour })
    }
}
