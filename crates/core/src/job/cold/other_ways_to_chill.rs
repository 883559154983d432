//! The same dough chilled another way: ball, disc, sheets, stack, log or bar, in fridge or freezer.

use crate::cold::ColdPlace;
use crate::cold::{
    ChillAnswer, ChillQuestion, Feeling, Piece, Sample, Side, Target, chill_briefly, disc_of, tempering_to,
};
use crate::error::{Checks, InputErrors};
use crate::job::answers::Plan;
use crate::job::cold::chill_question::{USUAL_DISC_MM, first_chill, lump_of};
use crate::job::cold::chill_result::ChillChange;
use crate::job::day::bench::{BALL_MIN, LOG_MIN, PRESS_MIN, SLICE_S, first_sheets, shaping};
use crate::job::settings::chill_choice::ChillFor;
use crate::job::settings::chill_choice::ChillForm;
use crate::job::settings::job::Job;
use crate::job::settings::kitchen::Kitchen;
use crate::job::settings::making::Making;
use crate::shape::USUAL_LONGEST_LOG;
use crate::units::{Area, Length, Span};

/// To form and wrap one bar. Common practice, no source.
const BAR_MIN: f64 = 5.0;

/// Sizes of the ways, where they can be chosen.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct WaySizes {
    /// Disc; as pressed in the job (or as usual) when absent.
    pub disc: Option<Length>,
    /// Sheets lying on each other; those of the first roll when absent.
    pub stack: Option<u32>,
    /// Log, across.
    pub log: Length,
    /// Bar, width and height.
    pub bar: (Length, Length),
}

impl Default for WaySizes {
    /// A 50 mm log and a 60 x 35 mm bar, as is usual.
    fn default() -> Self {
        Self { disc: None, stack: None, log: Length::new_mm(50.0), bar: (Length::new_mm(60.0), Length::new_mm(35.0)) }
    }
}

/// A form in which dough is chilled.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum WayKind {
    /// All of a mix as it left the bowl.
    Ball,
    /// Pressed flat.
    Disc,
    /// Rolled first.
    Sheets,
    /// Rolled sheets on each other.
    Stack,
    /// A round log.
    Log,
    /// A bar formed in a frame.
    Bar,
    /// Portions as they are.
    Portions,
}

impl WayKind {
    /// As it stands in the key of a way.
    const fn key(self) -> &'static str {
        match self {
            Self::Ball => "ball",
            Self::Disc => "disc",
            Self::Sheets => "sheets",
            Self::Stack => "stack",
            Self::Log => "log",
            Self::Bar => "bar",
            Self::Portions => "portion",
        }
    }
}

/// A time during which the piece is of one kind.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Spell {
    /// Which side of ready.
    pub side: Side,
    /// How it feels.
    pub feels: Feeling,
    /// Since it went in.
    pub from: Span,
    /// Until then; as long as it lies there when absent.
    pub to: Option<Span>,
}

/// One way to chill the dough of one first roll.
#[derive(Debug, Clone)]
pub struct Way {
    /// `disc-fridge` and the like.
    pub key: String,
    /// In which form.
    pub kind: WayKind,
    /// The form.
    pub piece: Piece,
    /// How many of them.
    pub count: u32,
    /// Where.
    pub place: ColdPlace,
    /// To be rolled or sliced.
    pub target: Target,
    /// When ready, when past, why never.
    pub answer: ChillAnswer,
    /// How it feels meanwhile, one spell after the other.
    pub spells: Vec<Spell>,
    /// After a night in there, on the bench until it can be worked; `None` when the room never gets it there.
    pub after_night: Option<Span>,
    /// Minutes of hands before the cold and after it.
    pub hands: (Span, Span),
    /// Whether it is the way of the plan.
    pub chosen: bool,
    /// What taking it changes of the job; nothing where that would be made another way.
    pub take: Option<ChillChange>,
}

/// All ways for the dough of a plan's first roll, the quickest first.
///
/// Fails, naming the size, for a disc outside 8 to 80 mm, 2 to 12 sheets, a log or bar outside 15 to 120 mm.
pub fn ways(job: &Job, kitchen: &Kitchen, plan: &Plan, sizes: &WaySizes) -> Result<Vec<Way>, InputErrors> {
    let mut found = built(job, kitchen, plan, sizes, |_, _| true)?;
    let when = |w: &Way| w.answer.ready_after.map_or(f64::MAX, Span::s);
    found.sort_by(|a, b| when(a).total_cmp(&when(b)));
    Ok(found)
}

/// One of [`ways`] by its key, or the plan's own without one; `None` where there is none such.
///
/// Fails as [`ways`] does.
pub fn one_way(
    job: &Job,
    kitchen: &Kitchen,
    plan: &Plan,
    sizes: &WaySizes,
    key: Option<&str>,
) -> Result<Option<Way>, InputErrors> {
    let wanted = |k: &str, chosen: bool| key.map_or(chosen, |key| key == k);
    Ok(built(job, kitchen, plan, sizes, wanted)?.pop())
}

/// The ways whose key and being the plan's are `wanted`.
fn built(
    job: &Job,
    kitchen: &Kitchen,
    plan: &Plan,
    sizes: &WaySizes,
    wanted: impl Fn(&str, bool) -> bool,
) -> Result<Vec<Way>, InputErrors> {
    let mut checks = Checks::new();
    if let Some(disc) = sizes.disc {
        checks.range("disc_mm", disc.mm(), 8.0, 80.0, "mm");
    }
    if let Some(count) = sizes.stack {
        checks.range("stack", f64::from(count), 2.0, 12.0, "sheets");
    }
    checks.range("log_mm", sizes.log.mm(), 15.0, 120.0, "mm");
    checks.range("bar_width_mm", sizes.bar.0.mm(), 15.0, 120.0, "mm");
    checks.range("bar_height_mm", sizes.bar.1.mm(), 15.0, 120.0, "mm");
    checks.finish(())?;
    let mut found = Vec::with_capacity(12);
    for form in forms(job, kitchen, plan, sizes) {
        for place in [ColdPlace::Fridge, ColdPlace::Freezer] {
            let key = format!("{}-{}", form.kind.key(), place.key());
            let planned = form.piece == plan.cold.form.piece && place == plan.cold.place;
            if !wanted(&key, planned) {
                continue;
            }
            let question = first_chill(job, kitchen, &plan.dough, form.piece, place)?;
            let answer = if planned { plan.cold.answer.clone() } else { chill_briefly(&question) };
            found.push(Way {
                key,
                kind: form.kind,
                piece: form.piece,
                count: form.count,
                place,
                target: question.target(),
                spells: spells(&question, &answer),
                after_night: after_night(&question, kitchen, plan, form.piece, place),
                hands: form.hands,
                answer,
                // The form that a job has which is not chilled at all is one to be taken yet.
                chosen: planned && plan.cold.stays != ChillFor::No,
                take: job.chilled_as(form.piece, place),
            });
        }
    }
    Ok(found)
}

struct Form {
    kind: WayKind,
    piece: Piece,
    count: u32,
    hands: (Span, Span),
}

fn forms(job: &Job, kitchen: &Kitchen, plan: &Plan, sizes: &WaySizes) -> Vec<Form> {
    let (mass, density) = (plan.shape.demand.rolls[0].mass, plan.dough.density);
    let thickness = job.thickness();
    let sheets = first_sheets(&plan.shape.demand);
    let each = f64::from(sheets);
    let roll = kitchen.input().house.roll_min;
    let slicing = f64::from(job.baked_pieces()) * SLICE_S / 60.0;
    let disc = sizes.disc.unwrap_or(match job.chill_form() {
        ChillForm::Disc { thickness } => thickness,
        _ => Length::new_mm(USUAL_DISC_MM),
    });
    let stacked = sizes.stack.unwrap_or(match plan.cold.form.piece {
        Piece::Stack { count, .. } => count,
        _ => sheets.clamp(2, 12),
    });
    let whole = mass * each;
    let lengths = |section: Area| -> u32 {
        let length = whole.g() * 1e6 / density.kg_m3() / section.mm2();
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a few logs")]
        let count = (length / USUAL_LONGEST_LOG.mm()).ceil().clamp(1.0, 1000.0) as u32;
        count
    };
    let log_area = Area::new_mm2(std::f64::consts::PI / 4.0 * sizes.log.mm().powi(2));
    let (width, height) = sizes.bar;
    let (logs, bars) = (lengths(log_area), lengths(Area::new_mm2(width.mm() * height.mm())));
    let min = |before: f64, after: f64| (Span::new_min(before), Span::new_min(after));
    let form = |kind: WayKind, piece: Piece, count: u32, hands: (Span, Span)| Form { kind, piece, count, hands };
    if job.input().shape.making != Making::Cut {
        // A log or a portion is what it is; only its place can be another.
        let kind = match (&job.input().shape.making, plan.cold.form.piece) {
            (Making::Sliced { .. }, Piece::Log { .. }) => WayKind::Log,
            (_, Piece::Bar { .. }) => WayKind::Bar,
            (_, Piece::Ball { .. }) => WayKind::Ball,
            _ => WayKind::Portions,
        };
        let hands = match &job.input().shape.making {
            Making::Portioned(portion) if job.portions_from_cold() => {
                min(BALL_MIN * each, shaping(portion).min() * f64::from(job.baked_pieces()))
            }
            Making::Portioned(portion) => min(shaping(portion).min() * each, 0.0),
            Making::Sliced { .. } | Making::Cut => min(LOG_MIN * each, slicing),
        };
        return vec![form(kind, plan.cold.form.piece, plan.cold.form.count, hands)];
    }
    let mixes = plan.dough.mixes.count;
    vec![
        form(
            WayKind::Ball,
            lump_of(plan.dough.mixes.each, density),
            mixes,
            min(BALL_MIN * f64::from(mixes), roll * each),
        ),
        form(WayKind::Disc, disc_of(mass, disc, density), sheets, min(PRESS_MIN * each, roll * each)),
        form(WayKind::Sheets, Piece::Sheet { thickness }, sheets, min(roll * each, 0.0)),
        form(
            WayKind::Stack,
            Piece::Stack { thickness, count: stacked },
            sheets.div_ceil(stacked),
            min(roll * each.max(f64::from(stacked)), 0.0),
        ),
        form(WayKind::Log, Piece::Log { diameter: sizes.log }, logs, min(LOG_MIN * f64::from(logs), slicing)),
        form(WayKind::Bar, Piece::Bar { width, height }, bars, min(BAR_MIN * f64::from(bars), slicing)),
    ]
}

fn spells(question: &ChillQuestion, answer: &ChillAnswer) -> Vec<Spell> {
    let Some(window) = question.window() else { return vec![] };
    let feels = |s: &Sample| window.feels_at(question.target(), s, false);
    let mut found: Vec<Spell> = Vec::new();
    for sample in &answer.curve {
        let (side, felt) = feels(sample);
        if let Some(last) = found.last_mut() {
            if last.feels == felt {
                continue;
            }
            last.to = Some(sample.after);
        }
        found.push(Spell { side, feels: felt, from: sample.after, to: None });
    }
    // The crossings that were worked out between two steps of the run are told as they are told elsewhere.
    let cold_from = match (answer.ready_after, answer.past_after) {
        // Its rim was too hard before its middle was firm: it is never ready all through.
        (Some(ready), Some(past)) if past < ready => Some(ready),
        (_, past) => past,
    };
    for (moment, side) in [(answer.ready_after, Side::Ready), (cold_from, Side::TooCold)] {
        if let Some(i) = found.iter().position(|s| s.side == side)
            && let Some(moment) = moment
            && i > 0
        {
            found[i].from = moment;
            found[i - 1].to = Some(moment);
        }
    }
    found
}

/// On the bench after a night, when the piece has taken the temperature of its place.
fn after_night(
    question: &ChillQuestion,
    kitchen: &Kitchen,
    plan: &Plan,
    piece: Piece,
    place: ColdPlace,
) -> Option<Span> {
    let window = question.window()?;
    let until = match question.target() {
        Target::Slicing => window.slices_from,
        Target::Rolling | Target::RolledLater => window.rolls_from,
        Target::Oven | Target::Core(_) => return Some(Span::new_s(0.0)),
    };
    tempering_to(&plan.dough.composition, piece, kitchen.place(place).air(), kitchen.room(), until)
}

/// The question behind one of the ways, for a closer look at it.
pub fn question_of_way(job: &Job, kitchen: &Kitchen, plan: &Plan, way: &Way) -> Result<ChillQuestion, InputErrors> {
    first_chill(job, kitchen, &plan.dough, way.piece, way.place)
}
