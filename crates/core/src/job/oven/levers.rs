//! The board of levers: what each of them would change of spread, time and colour, around the bake as it is planned.

use crate::air::standard_pressure_pa;
use crate::cold::ColdPlace;
use crate::cold::{Target, chill_briefly};
use crate::dough::{Formula, MixMethod, Pantry, Role};
use crate::error::InputErrors;
use crate::job::answers::Plan;
use crate::job::oven::bake::BakeQuestion;
use crate::oven::{
    ACROSS_MM, BakeForecast, COVER, OVEN_C, OvenDough, OvenSetup, START_C, THICKNESS_MM, TrayCover, TrayLiner,
    TrayMaterial, forecast_at,
};
use crate::units::{Length, Share, Span, Temperature, TemperatureDifference};
use serde::{Deserialize, Serialize};

/// Where a lever is pulled.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
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

/// What is done to a bake.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Notch {
    /// Pieces colder; so much longer in that place, where it is known.
    Colder(TemperatureDifference, Option<(Span, ColdPlace)>),
    /// Pieces warmer.
    Warmer(TemperatureDifference),
    /// So long on the counter first.
    OnTheCounter(Span),
    /// The oven hotter.
    Hotter(TemperatureDifference),
    /// The oven cooler.
    Cooler(TemperatureDifference),
    /// With its fan, or without.
    Fan(bool),
    /// On another tray.
    Tray(TrayMaterial),
    /// On another liner.
    Liner(TrayLiner),
    /// On a tray as warm as this.
    WarmTray(Temperature),
    /// So many metres above the sea.
    Altitude(f64),
    /// At the sea.
    AtTheSea,
    /// Trays half as full.
    HalfAsFull,
    /// So much thinner.
    Thinner(Length),
    /// So much thicker.
    Thicker(Length),
    /// A quarter smaller across.
    Smaller,
    /// A quarter larger across.
    Larger,
    /// A tenth more flour.
    MoreFlour,
    /// A tenth less flour.
    LessFlour,
    /// A fifth more sugar.
    MoreSugar,
    /// A fifth less sugar.
    LessSugar,
    /// A fifth more butter.
    MoreButter,
    /// Half the sugar powdered.
    HalfPowdered,
    /// Half the sugar brown.
    HalfBrown,
    /// A tenth of the flour as starch.
    SomeStarch,
    /// Baking powder, 1 % of the flour.
    BakingPowder,
    /// Soda, half a per cent of the flour.
    Soda,
    /// Creamed only just.
    JustCreamed,
    /// Creamed light and fluffy.
    CreamedLight,
}

/// One lever, pulled one notch.
#[derive(Debug, Clone, PartialEq)]
pub struct BakeLever {
    /// Where.
    pub group: LeverGroup,
    /// What is done.
    pub notch: Notch,
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
const ON_THE_COUNTER: Span = Span::new_min(10.0);
const WARM_TRAY: Temperature = Temperature::new_c(45.0);
const HIGH_M: f64 = 1600.0;
const HEIGHT_NOTCH: Length = Length::new_mm(1.0);

/// How much longer a tray of shaped pieces stays in the cold, and where, to go in so much colder: the lever's price. `None` for
/// pieces that are not chilled on their tray, and where the place never makes them so cold.
#[must_use]
pub fn colder_takes(plan: &Plan) -> Option<(Span, ColdPlace)> {
    let tray_chill = plan.cold.tray_chill.as_ref()?;
    let chill_to =
        |core: Temperature| chill_briefly(&tray_chill.question.clone().wanted_for(Target::Core(core))).ready_after;
    let now = plan.oven.question.piece.start;
    let colder = now + TemperatureDifference::new_k(-COLDER_K);
    Some((chill_to(colder)? - chill_to(now)?, tray_chill.place))
}

fn starts(question: &BakeQuestion, colder: Option<(Span, ColdPlace)>) -> Vec<(Notch, BakeQuestion)> {
    let by = TemperatureDifference::new_k(COLDER_K);
    let at = |by: f64, notch: Notch| {
        let start = question.piece.start + TemperatureDifference::new_k(by);
        let inside = START_C.contains(&start.c());
        inside.then(|| {
            let firm_as_at = question.piece.firm_as_at + TemperatureDifference::new_k(by);
            let piece = crate::oven::BakePiece { start, firm_as_at, ..question.piece };
            (notch, BakeQuestion { piece, ..question.clone() })
        })
    };
    let waits = crate::oven::BakePiece { wait: question.piece.wait + ON_THE_COUNTER, ..question.piece };
    [
        at(-COLDER_K, Notch::Colder(by, colder)),
        at(COLDER_K, Notch::Warmer(by)),
        Some((Notch::OnTheCounter(ON_THE_COUNTER), BakeQuestion { piece: waits, ..question.clone() })),
    ]
    .into_iter()
    .flatten()
    .collect()
}

fn ovens(question: &BakeQuestion) -> Vec<(Notch, BakeQuestion)> {
    let with = |notch: Notch, change: &dyn Fn(&mut OvenSetup)| {
        let mut oven = question.oven;
        change(&mut oven);
        (oven != question.oven).then(|| (notch, BakeQuestion { oven, ..question.clone() }))
    };
    let by = TemperatureDifference::new_k(OVEN_NOTCH_K);
    let cooler = TemperatureDifference::new_k(-OVEN_NOTCH_K);
    let inside = |by: TemperatureDifference| OVEN_C.contains(&(question.oven.air + by).c());
    let mut found: Vec<Option<(Notch, BakeQuestion)>> = vec![
        inside(by).then(|| with(Notch::Hotter(by), &|o| o.air = o.air + by)).flatten(),
        inside(cooler).then(|| with(Notch::Cooler(by), &|o| o.air = o.air + cooler)).flatten(),
        with(Notch::Fan(!question.oven.fan), &|o| o.fan = !o.fan),
    ];
    for tray in TrayMaterial::ALL {
        found.push(with(Notch::Tray(tray), &|o| o.tray = tray));
    }
    for liner in [TrayLiner::Parchment, TrayLiner::Bare, TrayLiner::Greased, TrayLiner::Silicone] {
        found.push(with(Notch::Liner(liner), &|o| o.liner = liner));
    }
    found.push(with(Notch::WarmTray(WARM_TRAY), &|o| o.tray_start = WARM_TRAY));
    let high = |m: f64| move |o: &mut OvenSetup| o.pressure_pa = standard_pressure_pa(m);
    found.push(with(Notch::Altitude(HIGH_M), &high(HIGH_M)));
    if question.oven.pressure_pa < standard_pressure_pa(300.0) {
        found.push(with(Notch::AtTheSea, &high(0.0)));
    }
    if let TrayCover::Share(cover) = question.oven.cover {
        let half = Share::new((cover.value() * 0.5).max(*COVER.start()));
        found.push(with(Notch::HalfAsFull, &|o| o.cover = TrayCover::Share(half)));
    }
    found.into_iter().flatten().collect()
}

fn shapes(question: &BakeQuestion) -> Vec<(Notch, BakeQuestion)> {
    let high = question.piece.thickness.mm();
    let mut found = Vec::new();
    for (thickness, notch) in [
        (high - HEIGHT_NOTCH.mm(), Notch::Thinner(HEIGHT_NOTCH)),
        (high + HEIGHT_NOTCH.mm(), Notch::Thicker(HEIGHT_NOTCH)),
    ] {
        if THICKNESS_MM.contains(&thickness) {
            let piece = crate::oven::BakePiece { thickness: Length::new_mm(thickness), ..question.piece };
            found.push((notch, BakeQuestion { piece, ..question.clone() }));
        }
    }
    for (times, notch) in [(0.75, Notch::Smaller), (1.25, Notch::Larger)] {
        let radius = question.piece.radius * times;
        if ACROSS_MM.contains(&(2.0 * radius.mm())) {
            let piece = crate::oven::BakePiece { radius, ..question.piece };
            found.push((notch, BakeQuestion { piece, ..question.clone() }));
        }
    }
    found
}

/// The formula with some of its lines by other amounts, or one in place of another.
fn doughs(
    question: &BakeQuestion,
    formula: &Formula,
    method: MixMethod,
) -> Result<Vec<(Notch, BakeQuestion)>, InputErrors> {
    let mut found = Vec::new();
    let air = method.air();
    let pantry = Pantry::built_in();
    let mut add = |notch: Notch, changed: Option<Formula>| -> Result<(), InputErrors> {
        if let Some(changed) = changed {
            let dough = OvenDough::of(&changed, air)?;
            found.push((notch, BakeQuestion { dough, ..question.clone() }));
        }
        Ok(())
    };
    let scaled = |role: Role, times: f64| formula.scaled_role(role, times);
    add(Notch::MoreFlour, scaled(Role::Flour, 1.1))?;
    add(Notch::LessFlour, scaled(Role::Flour, 0.9))?;
    add(Notch::MoreSugar, scaled(Role::Sugar, 1.2))?;
    add(Notch::LessSugar, scaled(Role::Sugar, 0.8))?;
    add(Notch::MoreButter, scaled(Role::Fat, 1.2))?;
    add(Notch::HalfPowdered, formula.partly_instead("sugar-powdered", Role::Sugar, 0.5, pantry))?;
    add(Notch::HalfBrown, formula.partly_instead("sugar-brown", Role::Sugar, 0.5, pantry))?;
    add(Notch::SomeStarch, formula.partly_instead("cornstarch", Role::Flour, 0.1, pantry))?;
    let leavener = |key: &str, share: f64| formula.with_added(key, formula.role_mass(Role::Flour) * share, pantry);
    add(Notch::BakingPowder, leavener("baking-powder", 0.01))?;
    add(Notch::Soda, leavener("baking-soda", 0.005))?;
    let other_air =
        if method == MixMethod::LightAndFluffy { MixMethod::JustCombined } else { MixMethod::LightAndFluffy };
    let notch = if method == MixMethod::LightAndFluffy { Notch::JustCreamed } else { Notch::CreamedLight };
    let dough = OvenDough::of(formula, other_air.air())?;
    found.push((notch, BakeQuestion { dough, ..question.clone() }));
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
    let of = |(group, all): (LeverGroup, Vec<(Notch, BakeQuestion)>)| {
        all.into_iter().map(move |(notch, question)| BakeLever { group, notch, question })
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
