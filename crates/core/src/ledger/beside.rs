//! Two bakes side by side: what of their conditions differs, what came out, and what the forecast says the differences explain.

use super::{BakeRecord, BakedSo};
use crate::error::InputErrors;
use crate::oven::{BakeForecast, BakeKnowledge, BakeSeen, forecast};
use crate::units::{Share, Span};
use serde::{Deserialize, Serialize};

/// A condition of a bake.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Condition {
    /// What the dough is made of and how it was mixed.
    Dough,
    /// How thick the pieces were cut.
    Thickness,
    /// Their size and form.
    Size,
    /// How cold they went in.
    Start,
    /// The oven's air.
    Oven,
    /// Its fan.
    Fan,
    /// The tray, what lies under the pieces, and how full it is.
    Tray,
    /// What ended it.
    End,
}

impl Condition {
    /// All of them.
    pub const ALL: [Self; 8] =
        [Self::Dough, Self::Thickness, Self::Size, Self::Start, Self::Oven, Self::Fan, Self::Tray, Self::End];

    /// One bake with this condition of another.
    fn taken(self, one: &BakeSeen, other: &BakeSeen) -> BakeSeen {
        let mut it = one.clone();
        match self {
            Self::Dough => it.dough = other.dough.clone(),
            Self::Thickness => it.piece.thickness = other.piece.thickness,
            Self::Size => it.piece.radius = other.piece.radius,
            Self::Start => {
                it.piece.start = other.piece.start;
                it.piece.firm_as_at = other.piece.firm_as_at;
                it.piece.wait = other.piece.wait;
            }
            Self::Oven => {
                it.oven.air = other.oven.air;
                it.measured = other.measured;
            }
            Self::Fan => it.oven.fan = other.oven.fan,
            Self::Tray => {
                it.oven.tray = other.oven.tray;
                it.oven.liner = other.oven.liner;
                it.oven.cover = other.oven.cover;
            }
            Self::End => it.end = other.end,
        }
        it
    }
}

/// A condition that differs, and what the forecast says that alone makes of the first bake.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Differs {
    /// Which.
    pub what: Condition,
    /// More spread across the piece.
    pub spread: Share,
    /// Longer in the oven.
    pub time: Span,
}

/// Two bakes side by side: each figure is of the second, less that of the first.
#[derive(Debug, Clone, PartialEq)]
pub struct Beside {
    /// What differs, what makes most of the spread first; nothing where a bake is not known well enough.
    pub differs: Option<Vec<Differs>>,
    /// As it came out, across the piece.
    pub spread: Share,
    /// Longer in the oven, where both were noted.
    pub time: Option<Span>,
    /// What the forecast says all differences together make.
    pub explained: Option<(Share, Span)>,
}

/// Sets two bakes side by side.
pub fn beside(
    one: (Option<&BakedSo>, &BakeRecord),
    other: (Option<&BakedSo>, &BakeRecord),
    learnt: Option<&BakeKnowledge>,
) -> Result<Beside, InputErrors> {
    let seen = |baked: Option<&BakedSo>| baked.and_then(|b| b.seen.clone());
    let time = one.1.baked().zip(other.1.baked()).map(|(a, b)| b - a);
    let across = other.1.findings().spread.value() - one.1.findings().spread.value();
    let (Some(a), Some(b)) = (seen(one.0), seen(other.0)) else {
        return Ok(Beside { differs: None, spread: Share::new(across), time, explained: None });
    };
    let knowledge = learnt.copied().unwrap_or(BakeKnowledge::NONE);
    let told = |s: &BakeSeen| -> Result<BakeForecast, InputErrors> {
        forecast(&s.dough, &s.piece, &s.oven, &knowledge.fit(s.measured.unwrap_or_default()), s.end)
    };
    let (first, second) = (told(&a)?, told(&b)?);
    // As a calliper has it, across the piece.
    let round = one.0.map_or(1.0, |b| b.across);
    let less = |f: &BakeForecast| (Share::new(round * (f.spread.value() - first.spread.value())), f.bake - first.bake);
    let mut differs = vec![];
    for what in Condition::ALL {
        let changed = what.taken(&a, &b);
        if changed != a {
            let (spread, time) = less(&told(&changed)?);
            differs.push(Differs { what, spread, time });
        }
    }
    differs.sort_by(|a, b| b.spread.value().abs().total_cmp(&a.spread.value().abs()));
    let spread = Share::new(across);
    Ok(Beside { differs: Some(differs), spread, time, explained: Some(less(&second)) })
}
