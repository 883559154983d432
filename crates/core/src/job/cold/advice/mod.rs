//! What to do when it goes wrong, with numbers.

mod power;
mod reason;

use crate::cold::ColdPlace;
use crate::cold::{
    BENCH_FILM, ChillAnswer, ChillQuestion, Piece, Place, Support, Target, Working, Wrap, chill_briefly, disc_of,
    left_for, tempering_to,
};
use crate::error::{Checks, InputError, InputErrors, Problem};
use crate::job::answers::Plan;
use crate::job::cold::chill_question::first_chill;
use crate::job::day::bench::{SLICE_S, moves_s};
use crate::job::settings::job::Job;
use crate::job::settings::kitchen::Kitchen;
use crate::job::settings::making::Making;
use crate::safety::Caution;
use crate::units::{Length, Span, Temperature};
pub use reason::{Because, BenchWork, Enough, Headline, Measure, PowerState, When};

/// A cool box with ice packs, and a cool cellar. Common practice, no source.
const COOL_BOX: (f64, f64) = (6.0, 7.0);
const CELLAR_C: f64 = 12.0;

/// To take a chilled portion from its box and lay it on the tray, s. Common practice, no source.
const SPREAD_OUT_S: f64 = 2.0;
/// Nobody cuts longer at one sheet.
const ON_THE_BENCH: Span = Span::new_min(180.0);

/// What went wrong.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Trouble {
    /// The dough is too warm to roll now.
    TooWarm {
        /// Its core.
        core: Temperature,
    },
    /// The dough is too hard.
    TooHard {
        /// All through.
        dough: Temperature,
    },
    /// The room is warm.
    WarmRoom {
        /// Its air and bench.
        room: Temperature,
    },
    /// The fridge is full.
    NoSpace,
    /// The power is off.
    PowerOut {
        /// For how long by now.
        ago: Span,
        /// The dough when it went.
        dough: Temperature,
    },
}

impl Trouble {
    /// The dough, the room and the time since the power went, as far as they belong to it.
    #[must_use]
    pub fn figures(self) -> (Option<Temperature>, Option<Temperature>, Option<Span>) {
        match self {
            Self::TooWarm { core: dough } | Self::TooHard { dough } => (Some(dough), None, None),
            Self::WarmRoom { room } => (None, Some(room), None),
            Self::NoSpace => (None, None, None),
            Self::PowerOut { ago, dough } => (Some(dough), None, Some(ago)),
        }
    }
}

/// Which trouble.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[schema(as = TroubleWord)]
#[serde(rename_all = "snake_case")]
pub enum TroubleKind {
    /// The dough is too warm to roll now.
    TooWarm,
    /// The dough is too hard.
    TooHard,
    /// The room is warm.
    WarmRoom,
    /// The fridge is full.
    NoSpace,
    /// The power is off.
    PowerOut,
}

/// A trouble with its figures; what is not said is as the plan and the kitchen have it.
#[derive(Debug, Clone, serde::Serialize, serde::Deserialize, utoipa::IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct TroubleInput {
    /// Which.
    #[param(inline)]
    pub trouble: TroubleKind,
    /// The dough, -30 to 45; for `too_warm`, `too_hard` and `power_out` (when it went).
    pub dough_c: Option<f64>,
    /// The room, 5 to 40; for `warm_room`.
    pub room_c: Option<f64>,
    /// Minutes since the power went, 0 to 4320; for `power_out`.
    pub ago_min: Option<f64>,
}

/// A warm room, where nobody says how warm. Our own choice.
const WARM_ROOM: Temperature = Temperature::new_c(29.0);
/// The power is off so long, where nobody says. Our own choice.
const USUALLY_OFF: Span = Span::new_min(60.0);
/// After three days nothing in a fridge is worth asking about. Our own choice.
const LONGEST_OFF: Span = Span::new_min(3.0 * 24.0 * 60.0);

impl TroubleInput {
    /// The trouble of the dough of a plan.
    pub fn trouble(&self, kitchen: &Kitchen, plan: &Plan) -> Result<Trouble, InputErrors> {
        let celsius = |field: &str, given: Option<f64>, otherwise: Temperature| match given {
            None => Ok(otherwise),
            Some(c) => Temperature::from_c(c).map_err(|_| InputError::new(field, Problem::NotFinite)),
        };
        let fridge = kitchen.place(plan.cold.place).air();
        Ok(match self.trouble {
            TroubleKind::TooWarm => {
                Trouble::TooWarm { core: celsius("dough_c", self.dough_c, plan.dough.temperature)? }
            }
            TroubleKind::TooHard => Trouble::TooHard { dough: celsius("dough_c", self.dough_c, fridge)? },
            TroubleKind::WarmRoom => Trouble::WarmRoom { room: celsius("room_c", self.room_c, WARM_ROOM)? },
            TroubleKind::NoSpace => Trouble::NoSpace,
            TroubleKind::PowerOut => {
                let mut checks = Checks::new();
                let ago = self.ago_min.unwrap_or(USUALLY_OFF.min());
                checks.range("ago_min", ago, 0.0, LONGEST_OFF.min(), "min");
                checks.finish(())?;
                Trouble::PowerOut { ago: Span::new_min(ago), dough: celsius("dough_c", self.dough_c, fridge)? }
            }
        })
    }
}

/// One thing that can be done.
#[derive(Debug, Clone, PartialEq)]
pub struct Remedy {
    /// What.
    pub what: Measure,
    /// How long it takes, where that is the question.
    pub takes: Option<Span>,
    /// Why, and what to mind.
    pub why: Vec<Because>,
}

/// Where somebody or the dough could come to harm.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum AdviceCaution {
    /// Its fat has run above that.
    FatHasRun(Temperature),
    /// Of raw dough.
    Raw(Caution),
}

/// What to do.
#[derive(Debug, Clone, PartialEq)]
pub struct Advice {
    /// How it stands.
    pub headline: Headline,
    /// What can be done, the quickest first.
    pub remedies: Vec<Remedy>,
    /// Where somebody could be hurt.
    pub caution: Option<AdviceCaution>,
}

/// Advice for a trouble of a job; `replan` plans the job in another kitchen.
///
/// Fails, naming the value, for a dough outside -30 to 45 degC, a room outside 5 to 40 degC, and an outage of more than
/// three days.
pub fn advise(
    job: &Job,
    kitchen: &Kitchen,
    plan: &Plan,
    trouble: Trouble,
    replan: &dyn Fn(&Kitchen) -> Result<Plan, InputErrors>,
) -> Result<Advice, InputErrors> {
    let mut checks = Checks::new();
    match trouble {
        Trouble::TooWarm { core: dough } | Trouble::TooHard { dough } => {
            checks.range("dough_c", dough.c(), -30.0, 45.0, "\u{b0}C");
        }
        Trouble::WarmRoom { room } => checks.range("room_c", room.c(), 5.0, 40.0, "\u{b0}C"),
        Trouble::NoSpace => {}
        Trouble::PowerOut { ago, dough } => {
            checks.range("ago_min", ago.min(), 0.0, 3.0 * 24.0 * 60.0, "min");
            checks.range("dough_c", dough.c(), -30.0, 45.0, "\u{b0}C");
        }
    }
    checks.finish(())?;
    let case = Case { job, kitchen, plan };
    let mut advice = match trouble {
        Trouble::TooWarm { core } => case.too_warm(core)?,
        Trouble::TooHard { dough } => case.too_hard(dough),
        Trouble::WarmRoom { room } => case.warm_room(room, replan)?,
        Trouble::NoSpace => case.no_space()?,
        Trouble::PowerOut { ago, dough } => case.power_out(ago, dough)?,
    };
    advice.remedies.sort_by(|a, b| {
        let time = |r: &Remedy| r.takes.map_or(f64::MAX, Span::s);
        time(a).total_cmp(&time(b))
    });
    Ok(advice)
}

/// A job in trouble.
struct Case<'a> {
    job: &'a Job,
    kitchen: &'a Kitchen,
    plan: &'a Plan,
}

impl Case<'_> {
    fn ask(&self, piece: Piece, place: ColdPlace, start: Temperature) -> Result<ChillAnswer, InputErrors> {
        let question = first_chill(self.job, self.kitchen, &self.plan.dough, piece, place)?;
        Ok(chill_briefly(&question.starting(start)))
    }

    /// A remedy from a run, unless it never gets there.
    fn cold(&self, what: Measure, answer: &ChillAnswer, why: Because) -> Option<Remedy> {
        let takes = Some(answer.ready_after?);
        Some(Remedy {
            what,
            takes,
            why: [why].into_iter().chain(answer.past_after.map(Because::TooColdFrom)).collect(),
        })
    }

    /// Between which temperatures the job's dough is right for what it is chilled for.
    fn working(&self) -> Working {
        self.plan.cold.window.working(self.plan.cold.target)
    }

    fn too_warm(&self, core: Temperature) -> Result<Advice, InputErrors> {
        let (window, working) = (self.plan.cold.window, self.working());
        let (target, to) = (self.plan.cold.target, working.to);
        if core <= to {
            let headline = Headline::NotTooWarm { core, target, to };
            return Ok(Advice { headline, remedies: vec![], caution: None });
        }
        let headline = Headline::TooWarm { by: core - to, core, target, to };
        let piece = self.plan.cold.form.piece;
        let sheet = Piece::Sheet { thickness: self.job.thickness() };
        let mut remedies = Vec::new();
        let fridge = self.ask(piece, ColdPlace::Fridge, core)?;
        remedies.extend(self.cold(Measure::AsItIs(ColdPlace::Fridge), &fridge, Because::NothingMeanwhile));
        let freezer = self.ask(piece, ColdPlace::Freezer, core)?;
        remedies.extend(self.cold(Measure::AsItIs(ColdPlace::Freezer), &freezer, Because::QuicklyTooMuch));
        if let Piece::Disc { thickness, .. } = piece {
            let flat = Length::new_mm((thickness.mm() / 2.0).max(8.0));
            let answer =
                self.ask(disc_of(self.plan.cold.form.mass, flat, self.plan.dough.density), ColdPlace::Fridge, core)?;
            remedies.extend(self.cold(Measure::Pressed { to: flat }, &answer, Because::HalfAsThick));
        }
        if self.job.input().shape.making == Making::Cut && !matches!(piece, Piece::Sheet { .. }) {
            let answer = self.ask(sheet, ColdPlace::Freezer, core)?;
            let what = Measure::RolledBetweenPapers { to: self.job.thickness() };
            remedies.extend(self.cold(what, &answer, Because::SoftRollsBetweenPapers));
        }
        if self.job.input().shape.making == Making::Cut {
            remedies.extend(self.on_a_frozen_tray(sheet, core)?);
        }
        let caution = (core > window.tacky_to).then_some(AdviceCaution::FatHasRun(window.tacky_to));
        Ok(Advice { headline, remedies, caution })
    }

    /// A rolled sheet slid onto a tray from the freezer, on the bench.
    fn on_a_frozen_tray(&self, sheet: Piece, core: Temperature) -> Result<Option<Remedy>, InputErrors> {
        let (kitchen, window) = (self.kitchen, self.plan.cold.window);
        let tray = Support::Tray { kind: kitchen.tray_kind(), start: kitchen.place(ColdPlace::Freezer).air() };
        let room = Place::new(kitchen.room().c(), BENCH_FILM.w_m2k())?;
        let question = ChillQuestion::new(
            self.plan.dough.composition.clone(),
            sheet,
            Wrap::Open,
            tray,
            core.c(),
            room,
            Target::Rolling,
        )?;
        let curve = left_for(&question, ON_THE_BENCH);
        let rolls = |s: &crate::cold::Sample| s.felt <= window.rolls_to;
        let Some(ready) = curve.iter().find(|s| rolls(s)) else {
            let firmest = curve.iter().map(|s| s.felt.c()).fold(f64::MAX, f64::min);
            return Ok(Some(Remedy {
                what: Measure::OnAFrozenTray,
                takes: None,
                why: vec![Because::NotFirmEnough { firmest: Temperature::new_c(firmest) }],
            }));
        };
        let until = curve.iter().skip_while(|s| s.after <= ready.after).find(|s| !rolls(s)).map(|s| s.after);
        Ok(Some(Remedy {
            what: Measure::OnAFrozenTray,
            takes: Some(ready.after),
            why: vec![until.map_or(Because::CutThere, Because::CutThereUntil)],
        }))
    }

    fn too_hard(&self, dough: Temperature) -> Advice {
        let room = self.kitchen.room();
        let (working, target) = (self.working(), self.plan.cold.target);
        let Some(from) = working.from.filter(|from| dough < *from) else {
            let headline = match working.from {
                Some(from) => Headline::NotTooCold { dough, target, from },
                None => Headline::AsFirmAsItMay { dough },
            };
            return Advice { headline, remedies: vec![], caution: None };
        };
        let headline = Headline::TooCold { by: from - dough, dough, target, from };
        let composition = &self.plan.dough.composition;
        let temper = |piece: Piece| tempering_to(composition, piece, dough, room, from);
        let mut remedies = Vec::new();
        let piece = self.plan.cold.form.piece;
        if let Some(takes) = temper(piece) {
            remedies.push(Remedy {
                what: Measure::RestOnTheBench { room },
                takes: Some(takes),
                why: vec![Because::TurnItOnce(target)],
            });
        }
        if let Piece::Disc { thickness, .. } = piece {
            let slab = Piece::Sheet { thickness: Length::new_mm((thickness.mm() / 2.0).max(6.0)) };
            if let Some(takes) = temper(slab) {
                remedies.push(Remedy {
                    what: Measure::SplitInTwo { room },
                    takes: Some(takes),
                    why: vec![Because::HalvesInTurn],
                });
            }
        }
        if remedies.is_empty() {
            remedies.push(Remedy { what: Measure::WarmerSpot, takes: None, why: vec![Because::RoomIsColder { room }] });
        }
        remedies.push(Remedy { what: Measure::NoOvenNoMicrowave, takes: None, why: vec![Because::RimMelts] });
        Advice { headline, remedies, caution: None }
    }

    fn warm_room(
        &self,
        room: Temperature,
        replan: &dyn Fn(&Kitchen) -> Result<Plan, InputErrors>,
    ) -> Result<Advice, InputErrors> {
        let kitchen = self.kitchen.at_room(room)?;
        let plan = replan(&kitchen)?;
        let working = plan.cold.window.working(plan.cold.target);
        let cut = self.job.input().shape.making == Making::Cut;
        let (just, cold_end) = (plan.cold.bench, plan.cold.bench_longest);
        // What hands get done in a time: a sheet is rolled first, a log is sliced as it is, portions are laid out.
        let (before_s, each_s) = match self.job.input().shape.making {
            Making::Cut => {
                (kitchen.input().house.roll_min * 60.0, (kitchen.input().house.cut_s + moves_s(self.job)).max(0.5))
            }
            Making::Sliced { .. } => (0.0, SLICE_S),
            Making::Portioned(_) => (0.0, SPREAD_OUT_S),
        };
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "minutes of work")]
        let pieces = |span: Span| ((span.s() - before_s).max(0.0) / each_s).floor() as u32;
        let work = match self.job.input().shape.making {
            Making::Cut => BenchWork::Sheet(self.job.thickness()),
            Making::Sliced { .. } => BenchWork::Slicing,
            Making::Portioned(_) => BenchWork::LayingOut,
        };
        let headline = match (just, cold_end) {
            (Some(just_ready), Some(coldest)) => Headline::Lasts { room, work, just_ready, coldest },
            _ => Headline::LastsAlways { room, work },
        };
        let mut remedies = vec![Remedy {
            what: Measure::LeavesTheBowl { at: plan.dough.temperature, ready: plan.cold.answer.ready_after },
            takes: None,
            why: vec![Because::AsTheKitchenIsSet {
                dough: self.plan.dough.temperature,
                ready: self.plan.cold.answer.ready_after,
            }],
        }];
        if let Some(cold) = cold_end {
            let done = pieces(cold);
            let enough = match (done, &self.job.input().shape.making) {
                (0, _) => Enough::None,
                (n, Making::Cut) => Enough::Cut(n),
                (n, Making::Sliced { .. }) => Enough::Sliced(n),
                (n, Making::Portioned(_)) => Enough::LaidOut(n),
            };
            let until = plan.cold.answer.past_after.filter(|_| cut);
            remedies.push(Remedy {
                what: Measure::LeaveInTheCold { place: plan.cold.place, until },
                takes: None,
                why: vec![Because::LastsOnTheBench { span: cold, enough }],
            });
        }
        if cut {
            remedies.extend(self.against_the_clock(&kitchen, &plan, working, cold_end)?);
        }
        Ok(Advice { headline, remedies, caution: Some(AdviceCaution::Raw(Caution::ColdRule)) })
    }

    /// A bench kept cold, and work done before the chill.
    fn against_the_clock(
        &self,
        kitchen: &Kitchen,
        plan: &Plan,
        working: Working,
        cold_end: Option<Span>,
    ) -> Result<[Remedy; 2], InputErrors> {
        let tray = Support::Tray { kind: kitchen.tray_kind(), start: kitchen.place(ColdPlace::Freezer).air() };
        let question = ChillQuestion::new(
            plan.dough.composition.clone(),
            Piece::Sheet { thickness: self.job.thickness() },
            Wrap::Open,
            tray,
            working.from.unwrap_or(working.to).c(),
            Place::new(kitchen.room().c(), BENCH_FILM.w_m2k())?,
            Target::Rolling,
        )?;
        let lasts = left_for(&question, ON_THE_BENCH).iter().find(|s| s.felt > working.to).map(|s| s.after);
        let frozen = Remedy {
            what: Measure::CutOnAFrozenTray,
            takes: None,
            why: vec![match lasts {
                Some(span) => Because::SheetLasts { span, else_only: cold_end },
                None => Because::LastsAsLongAsNeeded,
            }],
        };
        let first = Remedy { what: Measure::RollBeforeTheChill, takes: None, why: vec![Because::OnlyCuttingHurries] };
        Ok([frozen, first])
    }

    fn no_space(&self) -> Result<Advice, InputErrors> {
        let (kitchen, plan) = (self.kitchen, self.plan);
        let start = plan.dough.temperature;
        let thickness = self.job.thickness();
        let piece = plan.cold.form.piece;
        let sheets = plan.cold.form.count;
        let mut remedies = Vec::new();
        if self.job.input().shape.making == Making::Cut {
            let one = self.ask(Piece::Sheet { thickness }, ColdPlace::Fridge, start)?;
            if let Some(ready) = one.ready_after {
                remedies.push(Remedy {
                    what: Measure::TakeTurns { sheets },
                    takes: Some(ready * f64::from(sheets)),
                    why: vec![Because::EachSheetNeeds(ready)],
                });
            }
            let stacked = sheets.clamp(2, 12);
            let stack = self.ask(Piece::Stack { thickness, count: stacked }, ColdPlace::Fridge, start)?;
            let what = Measure::Stacked { sheets: stacked, high: thickness * f64::from(stacked) };
            remedies.extend(self.cold(what, &stack, Because::InnerOnesLast));
        }
        let freezer = self.ask(piece, ColdPlace::Freezer, start)?;
        remedies.extend(self.cold(Measure::FreezerInstead, &freezer, Because::SetAClock));
        for (what, air, why) in [
            (Measure::CoolBox, COOL_BOX.0, Because::BoxAt { at: Temperature::new_c(COOL_BOX.0) }),
            (Measure::Cellar { at: Temperature::new_c(CELLAR_C) }, CELLAR_C, Because::NoColdPlace),
        ] {
            let question = first_chill(self.job, kitchen, &plan.dough, piece, ColdPlace::Fridge)?
                .in_place(Place::new(air, COOL_BOX.1)?);
            remedies.extend(self.cold(what, &chill_briefly(&question), why));
        }
        let working = self.working();
        let (pieces, mass) = (sheets, plan.cold.form.mass);
        let headline = if start > working.to {
            Headline::MustGetTo { pieces, mass, from: start, to: working.to }
        } else {
            Headline::NoColdNeeded { at: start, target: plan.cold.target }
        };
        Ok(Advice { headline, remedies, caution: Some(AdviceCaution::Raw(Caution::ColdRule)) })
    }
}
