//! The plan on the wire. Only names and units change here; every figure is the core's.

use super::job::MINUTE_FORMAT;
use super::{CutterView, MethodWord, PlaceWord};
use ready_slab_core::clock::{Lane, RelayTask, Step};
use ready_slab_core::cold::{ChillAnswer, Piece, Sample, WaterState, Window};
use ready_slab_core::geometry::Placement;
use ready_slab_core::job::{Job, Kitchen, Plan};
use ready_slab_core::shape::Layout;
use ready_slab_core::units::Span;
use ready_slab_store::StoredCutter;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Most points of a curve that are sent.
const CURVE_POINTS: usize = 160;

/// All stations' answers.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PlanView {
    /// Wanted at, local time.
    pub ready_by: String,
    /// The cutter.
    pub cutter: CutterView,
    /// Dough.
    pub dough: DoughView,
    /// Cold.
    pub cold: ColdView,
    /// Shape.
    pub shape: ShapeView,
    /// Oven.
    pub oven: OvenView,
    /// Clock.
    pub clock: ClockView,
}

/// A weight and its baker's percentage.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct WeightView {
    /// Key.
    pub ingredient: String,
    /// Name.
    pub name: String,
    /// For one mix.
    pub mass_g: f64,
    /// Over the flour.
    pub bakers_percent: f64,
}

/// Mass fractions.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct MakeUpView {
    /// Of the dough.
    pub water: f64,
    /// Of the dough.
    pub fat: f64,
    /// Of the dough.
    pub sugars: f64,
    /// Carbohydrate that is neither sugar nor fibre.
    pub starch: f64,
    /// Of the dough.
    pub protein: f64,
    /// Fibre and ash.
    pub rest: f64,
}

/// The dough station.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct DoughView {
    /// To mix, reserve included.
    pub dough_g: f64,
    /// One piece as cut.
    pub piece_g: f64,
    /// With its air.
    pub density_kg_m3: f64,
    /// How many equal mixes.
    pub mixes: u32,
    /// Dough in each.
    pub mix_g: f64,
    /// To weigh for one mix.
    pub weights: Vec<WeightView>,
    /// Sugar over fat.
    pub ratio_sugar: f64,
    /// Flour over fat.
    pub ratio_flour: f64,
    /// The school, in words.
    pub school: String,
    /// Out of the mixer.
    pub dough_c: f64,
    /// Measured rather than computed.
    pub dough_measured: bool,
    /// How it is mixed.
    pub method: MethodWord,
    /// What the fats should be when they go in.
    pub butter_c: f64,
    /// What it is made of.
    pub make_up: MakeUpView,
    /// To name on a label; local rules decide.
    pub allergens: Vec<String>,
    /// Why.
    pub reasons: Vec<String>,
}

/// A piece in the cold.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum PieceWire {
    /// A sheet or cut pieces of one thickness.
    Sheet {
        /// 1 to 60.
        thickness_mm: f64,
    },
    /// Sheets on each other.
    Stack {
        /// Of one sheet.
        thickness_mm: f64,
        /// 2 to 12.
        count: u32,
    },
    /// A disc.
    Disc {
        /// 1 to 200.
        thickness_mm: f64,
        /// 10 to 600.
        diameter_mm: f64,
    },
    /// A ball, as a cylinder as high as wide.
    Ball {
        /// 1 to 200.
        diameter_mm: f64,
    },
    /// A round log.
    Log {
        /// 1 to 200.
        diameter_mm: f64,
    },
    /// A bar.
    Bar {
        /// 1 to 200.
        width_mm: f64,
        /// 1 to 200.
        height_mm: f64,
    },
}

impl From<Piece> for PieceWire {
    fn from(piece: Piece) -> Self {
        match piece {
            Piece::Sheet { thickness } => Self::Sheet { thickness_mm: thickness.mm() },
            Piece::Stack { thickness, count } => Self::Stack { thickness_mm: thickness.mm(), count },
            Piece::Disc { thickness, diameter } => {
                Self::Disc { thickness_mm: thickness.mm(), diameter_mm: diameter.mm() }
            }
            Piece::Ball { diameter } => Self::Ball { diameter_mm: diameter.mm() },
            Piece::Log { diameter } => Self::Log { diameter_mm: diameter.mm() },
            Piece::Bar { width, height } => Self::Bar { width_mm: width.mm(), height_mm: height.mm() },
        }
    }
}

/// A point of a cooling curve.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CurvePoint {
    /// Since it went in.
    pub after_min: f64,
    /// The warmest point.
    pub warmest_c: f64,
    /// The coldest point.
    pub coldest_c: f64,
    /// Mean over the mass.
    pub mean_c: f64,
    /// Upper face.
    pub surface_c: f64,
}

pub(super) fn curve(samples: &[Sample]) -> Vec<CurvePoint> {
    let every = samples.len().div_ceil(CURVE_POINTS).max(1);
    let last = samples.len().saturating_sub(1);
    samples
        .iter()
        .enumerate()
        .filter(|(i, _)| i % every == 0 || *i == last)
        .map(|(_, s)| CurvePoint {
            after_min: s.after.min(),
            warmest_c: s.warmest.c(),
            coldest_c: s.coldest.c(),
            mean_c: s.mean.c(),
            surface_c: s.surface.c(),
        })
        .collect()
}

/// Working temperatures.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct WindowView {
    /// Colder, it cracks when rolled.
    pub rolls_from_c: f64,
    /// Warmer, it is tacky.
    pub rolls_to_c: f64,
    /// Warmer, it is slack.
    pub tacky_to_c: f64,
    /// Slices clean at this or colder.
    pub slices_to_c: f64,
    /// Shatters when colder.
    pub slices_from_c: f64,
    /// Cut pieces go to the oven at this or colder.
    pub oven_ready_c: f64,
    /// How far the fat content moved them.
    pub shift_k: f64,
}

impl From<Window> for WindowView {
    fn from(w: Window) -> Self {
        Self {
            rolls_from_c: w.rolls_from.c(),
            rolls_to_c: w.rolls_to.c(),
            tacky_to_c: w.tacky_to.c(),
            slices_to_c: w.slices_to.c(),
            slices_from_c: w.slices_from.c(),
            oven_ready_c: w.oven_ready.c(),
            shift_k: w.shift.k(),
        }
    }
}

/// When it is ready and when past.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ReadyView {
    /// Minutes in the cold; absent when never.
    pub ready_after_min: Option<f64>,
    /// With a stronger air film.
    pub ready_earliest_min: Option<f64>,
    /// With a weaker air film.
    pub ready_latest_min: Option<f64>,
    /// When it has become too cold, within a day.
    pub past_after_min: Option<f64>,
    /// Why it never gets ready.
    pub never: Option<String>,
}

impl From<&ChillAnswer> for ReadyView {
    fn from(a: &ChillAnswer) -> Self {
        Self {
            ready_after_min: a.ready_after.map(Span::min),
            ready_earliest_min: a.ready_between.map(|b| b.0.min()),
            ready_latest_min: a.ready_between.map(|b| b.1.min()),
            past_after_min: a.past_after.map(Span::min),
            never: a.never.clone(),
        }
    }
}

/// How the water was taken, as a sentence.
pub(super) fn water_words(water: WaterState) -> String {
    match water {
        WaterState::Unfrozen { freezing: Some(f) } if f.c() <= -59.9 => {
            "The water stays liquid: so much sugar is dissolved in it that no freezer freezes it.".to_owned()
        }
        WaterState::Unfrozen { freezing: Some(f) } => {
            format!("The water stays liquid: with its sugar it would freeze at \u{2212}{:.0}\u{b0}.", -f.c())
        }
        WaterState::Unfrozen { freezing: None } => "The water is taken to stay liquid.".to_owned(),
        WaterState::Freezes { freezing } => {
            format!(
                "Its water begins to freeze at \u{2212}{:.1}\u{b0}; the heat of freezing is counted.",
                -freezing.c()
            )
        }
    }
}

/// Another way to chill the same dough.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct AlternativeView {
    /// What it is called.
    pub name: String,
    /// The form.
    pub piece: PieceWire,
    /// Where.
    pub place: PlaceWord,
    /// When.
    #[serde(flatten)]
    pub ready: ReadyView,
    /// The way chosen.
    pub chosen: bool,
}

/// Cut pieces on their tray before the oven.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TrayChillView {
    /// Where.
    pub place: PlaceWord,
    /// Taken to be as warm as this when it goes in.
    pub start_c: f64,
    /// When.
    #[serde(flatten)]
    pub ready: ReadyView,
}

/// The cold station.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ColdView {
    /// The form.
    pub piece: PieceWire,
    /// How many.
    pub count: u32,
    /// Dough in each.
    pub mass_g: f64,
    /// Where.
    pub place: PlaceWord,
    /// Its air.
    pub air_c: f64,
    /// When the first mix goes in, local time.
    pub in_at: String,
    /// Ready then.
    pub ready_at: String,
    /// Earliest.
    pub ready_earliest_at: String,
    /// Latest.
    pub ready_latest_at: String,
    /// Too cold from then, unless it stays workable.
    pub past_at: Option<String>,
    /// The same in minutes.
    #[serde(flatten)]
    pub ready: ReadyView,
    /// The run.
    pub curve: Vec<CurvePoint>,
    /// Working temperatures.
    pub window: WindowView,
    /// On the bench after the longest wait of this job; absent when the room never warms it that far.
    pub tempering_min: Option<f64>,
    /// On the bench after a night in the cold.
    pub tempering_after_night_min: Option<f64>,
    /// Sheet on paper on the bench until it is too warm; absent when the room is cool enough.
    pub bench_min: Option<f64>,
    /// The same when it was left until the window's cold end.
    pub bench_longest_min: Option<f64>,
    /// When the plan takes it out: cold enough to stay workable through a tray's rolling and cutting.
    pub out_at: String,
    /// Room temperature, for the sentence.
    pub room_c: f64,
    /// Other ways.
    pub alternatives: Vec<AlternativeView>,
    /// Cut pieces.
    pub tray_chill: TrayChillView,
    /// How the water was taken.
    pub water: String,
    /// Why.
    pub reasons: Vec<String>,
}

/// Where a piece lies.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CutView {
    /// Centre along the width.
    pub x_mm: f64,
    /// Centre along the length.
    pub y_mm: f64,
    /// Turn.
    pub turn_deg: f64,
}

pub(super) fn cuts(layout: &Layout) -> Vec<CutView> {
    let cut = |p: &Placement| CutView { x_mm: p.x_mm, y_mm: p.y_mm, turn_deg: p.turn_deg };
    layout.pieces.iter().map(cut).collect()
}

/// First roll or re-roll.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct RollView {
    /// 0 the first, 1 and 2 re-rolls.
    pub number: u32,
    /// Equal sheets.
    pub sheets: u32,
    /// Of each.
    pub width_mm: f64,
    /// Of each.
    pub length_mm: f64,
    /// Dough in each.
    pub mass_g: f64,
    /// Cut in this roll from all sheets.
    pub pieces: u32,
    /// Their mass.
    pub cut_g: f64,
    /// Smallest gap on the sheet, measured on the final layout.
    pub least_gap_mm: Option<f64>,
    /// On one sheet, in the order of cutting.
    pub cuts: Vec<CutView>,
}

/// Pieces on trays.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TraysView {
    /// Usable.
    pub width_mm: f64,
    /// Usable.
    pub length_mm: f64,
    /// Kept between pieces as cut.
    pub gap_mm: f64,
    /// Pieces on each tray in order.
    pub fill: Vec<u32>,
    /// How often the trays owned go round.
    pub rounds: u32,
    /// On a full tray.
    pub cuts: Vec<CutView>,
}

/// The shape station.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ShapeView {
    /// Rolled to.
    pub thickness_mm: f64,
    /// First roll and re-rolls.
    pub rolls: Vec<RollView>,
    /// To hand-shape or set aside.
    pub left_g: f64,
    /// To board and hands.
    pub lost_g: f64,
    /// Kept back unrolled.
    pub reserve_g: f64,
    /// Taken up by the dough rolled last.
    pub flour_taken_up_percent: f64,
    /// Tougher pieces.
    pub from_second_reroll: u32,
    /// Rods of that height are owned.
    pub rods_owned: bool,
    /// On trays.
    pub trays: TraysView,
    /// Why.
    pub reasons: Vec<String>,
}

/// The oven station.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct OvenView {
    /// Set to.
    pub oven_c: f64,
    /// Least time.
    pub bake_least_min: f64,
    /// Most time.
    pub bake_most_min: f64,
    /// Look first.
    pub look_after_min: f64,
    /// Least growth across the longer side.
    pub spread_least_percent: f64,
    /// Most growth across the longer side.
    pub spread_most_percent: f64,
    /// Least spread of a round of this dough.
    pub round_spread_least_percent: f64,
    /// Most spread of a round of this dough.
    pub round_spread_most_percent: f64,
    /// Least growth at the rim.
    pub growth_least_mm: f64,
    /// Most growth at the rim.
    pub growth_most_mm: f64,
    /// The outline after the most growth, about the cutter's centre.
    pub baked_outline_mm: Vec<[f64; 2]>,
    /// Longer side as cut.
    pub cut_width_mm: f64,
    /// With the least spread.
    pub baked_width_least_mm: f64,
    /// With the most spread.
    pub baked_width_most_mm: f64,
    /// On the tray before the rack.
    pub cool_on_tray_min: f64,
    /// What these figures are.
    pub basis: String,
    /// Why.
    pub reasons: Vec<String>,
    /// What to mind.
    pub warnings: Vec<String>,
}

/// What is done.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum StepWord {
    Mix,
    Form,
    Chill,
    Cut,
    TrayChill,
    Preheat,
    Bake,
    Cool,
}

/// What it occupies.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LaneWord {
    Hands,
    Cold,
    Oven,
    Cooling,
}

/// One bar of the timeline.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TaskView {
    /// What.
    pub step: StepWord,
    /// Where.
    pub lane: LaneWord,
    /// From 1, for the steps up to the dough chill.
    pub mix: Option<u32>,
    /// From 1, from the cut on.
    pub tray: Option<u32>,
    /// From 1.
    pub oven: Option<u32>,
    /// Local time.
    pub start_at: String,
    /// Local time.
    pub end_at: String,
    /// After the wanted time (negative: before).
    pub start_min: i64,
    /// After the wanted time.
    pub end_min: i64,
    /// Why it lies there; may be empty.
    pub why: String,
}

/// The clock station.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct ClockView {
    /// Start, local time.
    pub start_at: String,
    /// From start to the wanted time.
    pub total_min: i64,
    /// Of hands.
    pub hands_min: i64,
    /// All tasks by start.
    pub tasks: Vec<TaskView>,
    /// Why.
    pub reasons: Vec<String>,
}

fn time(job: &Job, minutes_after: i64) -> String {
    Plan::at(job, minutes_after).format(MINUTE_FORMAT).to_string()
}

fn whole(minutes: f64) -> i64 {
    #[expect(clippy::cast_possible_truncation, reason = "minutes of a day or two")]
    let whole = minutes.round() as i64;
    whole
}

impl PlanView {
    /// The plan of a job, as sent.
    pub fn new(plan: &Plan, job: &Job, kitchen: &Kitchen, cutter: &StoredCutter) -> Self {
        Self {
            ready_by: time(job, 0),
            cutter: cutter.into(),
            dough: dough(plan, job),
            cold: cold(plan, job, kitchen),
            shape: shape(plan, job, kitchen),
            oven: oven(plan),
            clock: clock(plan, job),
        }
    }
}

fn dough(plan: &Plan, job: &Job) -> DoughView {
    let d = &plan.dough;
    let c = &d.composition;
    let sugars = c.sugars().unwrap_or(0.0);
    let weights = d.mixes.weights.iter().zip(&d.bakers).map(|(w, b)| WeightView {
        ingredient: w.ingredient.key.to_owned(),
        name: w.ingredient.name.to_owned(),
        mass_g: w.mass.g(),
        bakers_percent: b.percent.percent(),
    });
    DoughView {
        dough_g: d.dough.g(),
        piece_g: d.piece.g(),
        density_kg_m3: d.density.kg_m3(),
        mixes: d.mixes.count,
        mix_g: d.mixes.each.g(),
        weights: weights.collect(),
        ratio_sugar: d.ratio.sugar,
        ratio_flour: d.ratio.flour,
        school: d.ratio.school().to_owned(),
        dough_c: d.temperature.c(),
        dough_measured: d.temperature_measured,
        method: job.input().method.into(),
        butter_c: job.input().method.butter().c(),
        make_up: MakeUpView {
            water: c.water(),
            fat: c.fat(),
            sugars,
            starch: c.carbohydrate() - sugars,
            protein: c.protein(),
            rest: 1.0 - c.water() - c.fat() - c.carbohydrate() - c.protein(),
        },
        allergens: d.allergens.iter().map(|a| (*a).to_owned()).collect(),
        reasons: d.reasons.clone(),
    }
}

fn cold(plan: &Plan, job: &Job, kitchen: &Kitchen) -> ColdView {
    let c = &plan.cold;
    let ready: ReadyView = (&c.answer).into();
    let start = plan.chill_start_min();
    let at = |minutes: Option<f64>| minutes.map(|m| time(job, start + whole(m)));
    let ready_at = at(ready.ready_after_min).unwrap_or_default();
    ColdView {
        piece: c.form.piece.into(),
        count: c.form.count,
        mass_g: c.form.mass.g(),
        place: c.place.into(),
        air_c: c.air.c(),
        in_at: time(job, start),
        ready_earliest_at: at(ready.ready_earliest_min).unwrap_or_else(|| ready_at.clone()),
        ready_latest_at: at(ready.ready_latest_min).unwrap_or_else(|| ready_at.clone()),
        ready_at,
        past_at: at(ready.past_after_min),
        ready,
        curve: curve(&c.answer.curve),
        window: c.window.into(),
        tempering_min: c.tempering.map(Span::min),
        tempering_after_night_min: c.tempering_after_night.map(Span::min),
        bench_min: c.bench.map(Span::min),
        bench_longest_min: c.bench_longest.map(Span::min),
        out_at: time(job, start + plan.clock.chill_min),
        room_c: kitchen.room().c(),
        alternatives: c
            .alternatives
            .iter()
            .map(|a| AlternativeView {
                name: a.name.clone(),
                piece: a.piece.into(),
                place: a.place.into(),
                ready: (&a.answer).into(),
                chosen: a.chosen,
            })
            .collect(),
        tray_chill: TrayChillView {
            place: c.tray_chill.place.into(),
            start_c: c.tray_chill.start.c(),
            ready: (&c.tray_chill.answer).into(),
        },
        water: water_words(c.answer.water),
        reasons: c.reasons.clone(),
    }
}

fn shape(plan: &Plan, job: &Job, kitchen: &Kitchen) -> ShapeView {
    let s = &plan.shape;
    let rolls = s.demand.rolls.iter().map(|r| RollView {
        number: r.number,
        sheets: r.sheets,
        width_mm: s.sheet_width.mm(),
        length_mm: r.length.mm(),
        mass_g: r.mass.g(),
        pieces: r.pieces,
        cut_g: f64::from(r.pieces) * plan.dough.piece.g(),
        least_gap_mm: r.layout.least_gap.map(|g| g.mm()),
        cuts: cuts(&r.layout),
    });
    ShapeView {
        thickness_mm: job.thickness().mm(),
        rolls: rolls.collect(),
        left_g: s.demand.left.g(),
        lost_g: s.demand.lost.g(),
        reserve_g: s.demand.reserve.g(),
        flour_taken_up_percent: 100.0 * s.demand.flour_taken_up.value(),
        from_second_reroll: s.demand.from_second_reroll,
        rods_owned: s.rods_owned,
        trays: TraysView {
            width_mm: kitchen.trays().width().mm(),
            length_mm: kitchen.trays().length().mm(),
            gap_mm: s.trays.gap.mm(),
            fill: s.trays.fill.clone(),
            rounds: s.trays.rounds,
            cuts: cuts(&s.trays.layout),
        },
        reasons: s.reasons.clone(),
    }
}

fn oven(plan: &Plan) -> OvenView {
    let o = &plan.oven;
    let p = &o.practice;
    OvenView {
        oven_c: o.oven.c(),
        bake_least_min: p.bake.0.min(),
        bake_most_min: p.bake.1.min(),
        look_after_min: p.look_after.min(),
        spread_least_percent: 100.0 * o.spread_across().0.value(),
        spread_most_percent: 100.0 * o.spread_across().1.value(),
        round_spread_least_percent: 100.0 * p.spread.0.value(),
        round_spread_most_percent: 100.0 * p.spread.1.value(),
        growth_least_mm: o.growth.0.mm(),
        growth_most_mm: o.growth.1.mm(),
        baked_outline_mm: o.baked_outline.iter().map(|p| [p.0, p.1]).collect(),
        cut_width_mm: o.width.mm(),
        baked_width_least_mm: o.baked_width().0.mm(),
        baked_width_most_mm: o.baked_width().1.mm(),
        cool_on_tray_min: p.cool_on_tray.min(),
        basis: "common practice".to_owned(),
        reasons: p.reasons.clone(),
        warnings: p.warnings.clone(),
    }
}

fn clock(plan: &Plan, job: &Job) -> ClockView {
    let c = &plan.clock;
    let task = |t: &RelayTask| TaskView {
        step: match t.step {
            Step::Mix => StepWord::Mix,
            Step::Form => StepWord::Form,
            Step::Chill => StepWord::Chill,
            Step::Cut => StepWord::Cut,
            Step::TrayChill => StepWord::TrayChill,
            Step::Preheat => StepWord::Preheat,
            Step::Bake => StepWord::Bake,
            Step::Cool => StepWord::Cool,
        },
        lane: match t.lane {
            Lane::Hands => LaneWord::Hands,
            Lane::Cold => LaneWord::Cold,
            Lane::Oven => LaneWord::Oven,
            Lane::Cooling => LaneWord::Cooling,
        },
        mix: t.mix.map(|n| n + 1),
        tray: t.tray.map(|n| n + 1),
        oven: t.oven.map(|n| n + 1),
        start_at: time(job, t.start_min),
        end_at: time(job, t.end_min),
        start_min: t.start_min,
        end_min: t.end_min,
        why: t.why.clone(),
    };
    ClockView {
        start_at: time(job, c.relay.start_min),
        total_min: -c.relay.start_min,
        hands_min: c.relay.hands_min,
        tasks: c.relay.tasks.iter().map(task).collect(),
        reasons: c.reasons.clone(),
    }
}
