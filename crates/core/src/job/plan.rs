//! The plan: inputs in, one value out in which every station has answered, with its reasons.

use super::{ChillForm, ColdPlace, Job, Kitchen};
use crate::clock::{Relay, RelayInput, Step, plan_relay};
use crate::cold::{
    Bench, ChillAnswer, ChillQuestion, Piece, Support, Target, Window, Wrap, chill, chill_briefly, tempering_minutes,
};
use crate::dough::{
    BakersLine, Composition, Formula, MixPlan, Ratio, density_kg_m3, divide_into_mixes, dough_temperature,
};
use crate::error::{InputError, InputErrors};
use crate::geometry::Outline;
use crate::oven::{BakeSetting, PracticeAnswer, bake_practice};
use crate::shape::{Demand, DemandAnswer, LatticeTable, Layout, Spacing, TrayAnswer, demand_to_dough, fill_trays};
use crate::units::{Density, Length, Mass, Share, Span, Temperature};
use chrono::{NaiveDateTime, TimeDelta};

/// Temperature at which the dough's density is taken, degC: the middle of the rolling window.
const ROLLED_AT_C: f64 = 14.0;
/// To weigh one mix, min. Common practice, no source.
const WEIGH_MIN: f64 = 5.0;
/// To press one disc and wrap it, min. Common practice, no source.
const PRESS_MIN: f64 = 2.0;
/// The disc the trade presses to when its own alternatives are compared, mm. Common practice: 20-25.
const USUAL_DISC_MM: f64 = 22.0;

/// The dough station's answer.
#[derive(Debug, Clone, PartialEq)]
pub struct DoughPlan {
    /// Dough to mix, reserve included.
    pub dough: Mass,
    /// Of one piece as cut.
    pub piece: Mass,
    /// With its air.
    pub density: Density,
    /// The mixes.
    pub mixes: MixPlan,
    /// Over the flour.
    pub bakers: Vec<BakersLine>,
    /// Butter : sugar : flour.
    pub ratio: Ratio,
    /// What it is made of.
    pub composition: Composition,
    /// Out of the mixer.
    pub temperature: Temperature,
    /// Whether that was measured rather than computed.
    pub temperature_measured: bool,
    /// Names of allergens.
    pub allergens: Vec<&'static str>,
    /// Why these figures, in sentences.
    pub reasons: Vec<String>,
}

/// What goes into the cold.
#[derive(Debug, Clone, PartialEq)]
pub struct FormSize {
    /// The piece.
    pub piece: Piece,
    /// How many.
    pub count: u32,
    /// Dough in each.
    pub mass: Mass,
}

/// The same dough chilled another way.
#[derive(Debug, Clone)]
pub struct Alternative {
    /// What it would be called.
    pub name: String,
    /// The form.
    pub piece: Piece,
    /// Where.
    pub place: ColdPlace,
    /// When ready, when past, and why never.
    pub answer: ChillAnswer,
    /// Whether it is the way chosen.
    pub chosen: bool,
}

/// The cut pieces' chill before the oven.
#[derive(Debug, Clone)]
pub struct TrayChill {
    /// Where.
    pub place: ColdPlace,
    /// Taken to be as warm as this when it goes in.
    pub start: Temperature,
    /// Ready, with the band.
    pub answer: ChillAnswer,
}

/// The cold station's answer.
#[derive(Debug, Clone)]
pub struct ColdPlan {
    /// What goes in.
    pub form: FormSize,
    /// Where.
    pub place: ColdPlace,
    /// Its air.
    pub air: Temperature,
    /// The run.
    pub answer: ChillAnswer,
    /// Working temperatures of this dough.
    pub window: Window,
    /// On the bench after a night in the cold, until it rolls.
    pub tempering_after_night: Option<Span>,
    /// On the bench after the longest wait of this job's timeline; zero when none is needed.
    pub tempering: Option<Span>,
    /// The sheet on paper on the bench, from ready until too warm to roll.
    pub bench: Option<Span>,
    /// The same when it was left until the window's cold end: the longest it can be.
    pub bench_longest: Option<Span>,
    /// When it is cold enough for the sheet to stay workable through one tray's rolling and cutting, where that is later
    /// than ready; the timeline waits for it.
    pub workable_after: Option<Span>,
    /// Other ways.
    pub alternatives: Vec<Alternative>,
    /// Cut pieces on their tray.
    pub tray_chill: TrayChill,
    /// Sentences.
    pub reasons: Vec<String>,
}

/// The shape station's answer.
#[derive(Debug, Clone, PartialEq)]
pub struct ShapePlan {
    /// Rolls, scrap, reserve.
    pub demand: DemandAnswer,
    /// Width of every sheet.
    pub sheet_width: Length,
    /// Whether rods of that height are owned (else 'by eye').
    pub rods_owned: bool,
    /// The pieces on trays.
    pub trays: TrayAnswer,
    /// Sentences.
    pub reasons: Vec<String>,
}

/// The oven station's answer.
#[derive(Debug, Clone, PartialEq)]
pub struct OvenPlan {
    /// Set to.
    pub oven: Temperature,
    /// What the trade would say.
    pub practice: PracticeAnswer,
    /// The piece's longer side as cut.
    pub width: Length,
    /// Outward growth at the rim, least and most.
    pub growth: (Length, Length),
    /// The outline after the most growth.
    pub baked_outline: Vec<(f64, f64)>,
}

impl OvenPlan {
    /// The longer side after baking with the least and the most spread.
    #[must_use]
    pub fn baked_width(&self) -> (Length, Length) {
        (self.width + self.growth.0 * 2.0, self.width + self.growth.1 * 2.0)
    }

    /// Growth across the longer side, of its width as cut: what a calliper would find.
    #[must_use]
    pub fn spread_across(&self) -> (Share, Share) {
        let of = |grown: Length| Share::new(grown * 2.0 / self.width);
        (of(self.growth.0), of(self.growth.1))
    }
}

/// The clock station's answer.
#[derive(Debug, Clone, PartialEq)]
pub struct ClockPlan {
    /// The relay, minutes relative to the wanted time.
    pub relay: Relay,
    /// Minutes the first mix waits in the cold, at least.
    pub chill_min: i64,
    /// Sentences.
    pub reasons: Vec<String>,
}

/// All stations' answers.
#[derive(Debug, Clone)]
pub struct Plan {
    /// Dough.
    pub dough: DoughPlan,
    /// Cold.
    pub cold: ColdPlan,
    /// Shape.
    pub shape: ShapePlan,
    /// Oven.
    pub oven: OvenPlan,
    /// Clock.
    pub clock: ClockPlan,
}

impl Plan {
    /// The moment so many minutes after the wanted time (before it when negative).
    #[must_use]
    pub fn at(job: &Job, minutes_after: i64) -> NaiveDateTime {
        let by = TimeDelta::try_minutes(minutes_after).unwrap_or_default();
        job.input().ready_by.checked_add_signed(by).unwrap_or(job.input().ready_by)
    }

    /// When the first mix goes into the cold, minutes after the wanted time.
    #[must_use]
    pub fn chill_start_min(&self) -> i64 {
        let first = self.clock.relay.tasks.iter().find(|t| t.step == Step::Chill);
        first.map_or(0, |t| t.start_min)
    }
}

/// Plans one job of one lot.
///
/// Fails, naming the field, when the cutter is larger than the sheet or the tray, when the pieces need more mixes than a
/// job may have, when the dough holds no fat that is ever firm, or when its cold place never makes it firm.
pub fn plan(job: &Job, formula: &Formula, outline: &Outline, kitchen: &Kitchen) -> Result<Plan, InputErrors> {
    let composition = formula.composition();
    let Some(window) = Window::of(&composition) else {
        return Err(InputError::refused("formula", "all fat in this dough stays liquid: it can be neither rolled nor sliced; use a fat that is firm in the cold").into());
    };
    let density = Density::new_kg_m3(density_kg_m3(&composition, ROLLED_AT_C));
    let oven = oven_plan(job, formula, outline, kitchen)?;
    let piece = outline.area().mass_at(job.thickness(), density);
    let table = LatticeTable::for_sheet(outline, kitchen.trays().width(), kitchen.trays().length(), job.spacing())?;
    let demand = demand_to_dough(&Demand {
        table: &table,
        piece,
        pieces: job.input().pieces,
        thickness: job.thickness(),
        density,
        width: kitchen.trays().width(),
        longest: kitchen.trays().length(),
        mix_limit: kitchen.mixer_limit(),
        rules: job.rolling(),
    })?;
    let trays = fill_trays(outline, job.input().pieces, oven.growth.1, kitchen.trays())?;
    let shape = shape_plan(job, kitchen, demand, trays);
    let dough = dough_plan(job, formula, kitchen, &shape.demand, piece, density, composition);
    let mut cold = cold_plan(job, kitchen, &dough, &shape.demand, &window, density)?;
    let hands = hands_at_the_bench(job, kitchen, &shape);
    cold.workable_after = workable_after(job, kitchen, &cold, &dough.composition, hands.longest());
    cold.reasons.extend(bench_words(&cold, hands.longest()));
    let clock = clock_plan(job, kitchen, &shape, &cold, &oven, hands);
    cold.tempering = tempering_after_wait(&cold, &clock, &dough.composition, kitchen);
    Ok(Plan { dough, cold, shape, oven, clock })
}

/// Lays as many pieces of one cutter as fit on a sheet of a mass, for the compute endpoint.
pub fn compute_sheet(
    outline: &Outline,
    width: Length,
    longest: Length,
    spacing: Spacing,
    area: Option<crate::units::Area>,
) -> Result<Layout, InputErrors> {
    let table = LatticeTable::for_sheet(outline, width, longest, spacing)?;
    let length = area.map_or(longest, |a| Length::new_mm((a.mm2() / width.mm()).min(longest.mm())));
    Ok(table.layout(length))
}

fn oven_plan(job: &Job, formula: &Formula, outline: &Outline, kitchen: &Kitchen) -> Result<OvenPlan, InputErrors> {
    let setting = BakeSetting::new(job.input().oven_c, kitchen.ovens().fan)?;
    let (w, h) = outline.extent();
    let mut practice = bake_practice(job.thickness(), setting, formula.ratio());
    // The trade's spread is that of a round; it happens at the rim, so any outline grows like the disc that stands for it.
    let growth = (outline.rim_radius() * practice.spread.0.value(), outline.rim_radius() * practice.spread.1.value());
    let width = if w > h { w } else { h };
    practice.reasons.push(format!(
        "That is of a round. Growth happens at the rim: {:.1} to {:.1} mm all round this piece.",
        growth.0.mm(),
        growth.1.mm()
    ));
    Ok(OvenPlan { oven: setting.oven(), practice, width, growth, baked_outline: outline.spread_by(growth.1) })
}

fn shape_plan(job: &Job, kitchen: &Kitchen, demand: DemandAnswer, trays: TrayAnswer) -> ShapePlan {
    let mut reasons = Vec::new();
    let first = &demand.rolls[0];
    reasons.push(format!(
        "{} g rolled to {} mm covers {:.0} \u{d7} {:.0} mm.",
        grouped(first.mass.g()),
        plain(job.thickness().mm()),
        first.length.mm(),
        kitchen.trays().width().mm()
    ));
    if let Some(gap) = first.layout.least_gap {
        reasons.push(format!("The smallest gap between two cuts is {:.1} mm.", gap.mm()));
    }
    if demand.from_second_reroll > 0 {
        reasons.push(format!(
            "{} come from the second re-roll: tougher, and they may bubble.",
            pieces(demand.from_second_reroll)
        ));
    }
    let rods_owned = kitchen.has_rods(job.thickness());
    if !rods_owned {
        reasons.push(format!("No guide rods of {} mm in the kitchen: rolled by eye.", plain(job.thickness().mm())));
    }
    reasons.push(format!("{:.0} mm is kept between pieces on the tray, room for what they grow.", trays.gap.mm()));
    ShapePlan { demand, sheet_width: kitchen.trays().width(), rods_owned, trays, reasons }
}

fn dough_plan(
    job: &Job,
    formula: &Formula,
    kitchen: &Kitchen,
    demand: &DemandAnswer,
    piece: Mass,
    density: Density,
    composition: Composition,
) -> DoughPlan {
    let mixes = divide_into_mixes(formula, demand.dough, kitchen.mixer_limit());
    let measured = job.measured_dough();
    let temperature = measured.unwrap_or_else(|| dough_temperature(formula, job.input().method, kitchen.room()));
    let cut = f64::from(job.input().pieces) * piece.g();
    let mut reasons = vec![
        format!("{} of {:.1} g are {} g.", pieces(job.input().pieces), piece.g(), grouped(cut)),
        format!(
            "Scrap that no roll recovers, and what sticks to board and hands, adds {} g; the reserve {} g.",
            grouped((demand.left.g() + demand.lost.g()).max(0.0)),
            grouped(demand.reserve.g())
        ),
    ];
    if mixes.count > 1 {
        reasons.push(format!(
            "The mixer takes {} g, so it is {} equal mixes of {} g.",
            grouped(kitchen.mixer_limit().g()),
            mixes.count,
            grouped(mixes.each.g())
        ));
    }
    if mixes.weights.iter().any(|w| w.mass.g() < 1.0) {
        reasons.push("A weight under 1 g needs a scale that reads tenths.".to_owned());
    }
    DoughPlan {
        dough: demand.dough,
        piece,
        density,
        mixes,
        bakers: formula.bakers_percentages(),
        ratio: formula.ratio(),
        composition,
        temperature,
        temperature_measured: measured.is_some(),
        allergens: formula.allergens(),
        reasons,
    }
}

fn disc(mass: Mass, thickness: Length, density: Density) -> Piece {
    let area = mass.rolled_to(thickness, density).mm2();
    Piece::Disc { thickness, diameter: Length::new_mm((area * 4.0 / std::f64::consts::PI).sqrt().clamp(10.0, 600.0)) }
}

fn cold_plan(
    job: &Job,
    kitchen: &Kitchen,
    dough: &DoughPlan,
    demand: &DemandAnswer,
    window: &Window,
    density: Density,
) -> Result<ColdPlan, InputErrors> {
    let first = &demand.rolls[0];
    let piece = match job.chill_form() {
        ChillForm::Disc { thickness } => disc(first.mass, thickness, density),
        ChillForm::Sheets => Piece::Sheet { thickness: job.thickness() },
    };
    let place = job.input().chill_place;
    let ask = |piece: Piece, place: ColdPlace| -> Result<ChillQuestion, InputErrors> {
        // Discs and balls lie wrapped on the shelf; sheets between their papers on a tray that was at room temperature.
        let support = match piece {
            Piece::Sheet { .. } => Support::Tray { kind: kitchen.tray_kind(), start: kitchen.room() },
            _ => Support::Rack,
        };
        ChillQuestion::new(
            dough.composition.clone(),
            piece,
            Wrap::Wrapped,
            support,
            dough.temperature.c(),
            kitchen.place(place),
            Target::Rolling,
        )
    };
    let answer = chill(&ask(piece, place)?);
    if let Some(never) = &answer.never {
        return Err(InputError::refused("chill_place", never.clone()).into());
    }
    let mut alternatives = Vec::new();
    let usual_disc = match job.chill_form() {
        ChillForm::Disc { thickness } => thickness,
        ChillForm::Sheets => Length::new_mm(USUAL_DISC_MM),
    };
    // A ball of one mix as it left the bowl: a cylinder as high as wide.
    let ball_mm = (dough.mixes.each.g() * 1e6 / density.kg_m3() * 4.0 / std::f64::consts::PI).cbrt().clamp(10.0, 200.0);
    let ways = [
        (
            format!("Sheets, {} mm", plain(job.thickness().mm())),
            Piece::Sheet { thickness: job.thickness() },
            ColdPlace::Freezer,
        ),
        (
            format!("Sheets, {} mm", plain(job.thickness().mm())),
            Piece::Sheet { thickness: job.thickness() },
            ColdPlace::Fridge,
        ),
        (format!("Disc, {} mm", plain(usual_disc.mm())), disc(first.mass, usual_disc, density), ColdPlace::Freezer),
        (format!("Disc, {} mm", plain(usual_disc.mm())), disc(first.mass, usual_disc, density), ColdPlace::Fridge),
        ("Ball as it left the bowl".to_owned(), Piece::Ball { diameter: Length::new_mm(ball_mm) }, ColdPlace::Fridge),
    ];
    for (name, way, at) in ways {
        let chosen = way == piece && at == place;
        let answer = if chosen { answer.clone() } else { chill_briefly(&ask(way, at)?) };
        alternatives.push(Alternative { name, piece: way, place: at, answer, chosen });
    }
    let warm = window.rolls_to;
    // Cut pieces are taken to have warmed to the window's warm end, on a tray at room temperature: the slow case.
    let tray_place = job.input().tray_chill_place;
    let tray_question = ChillQuestion::new(
        dough.composition.clone(),
        Piece::Sheet { thickness: job.thickness() },
        Wrap::Open,
        Support::Tray { kind: kitchen.tray_kind(), start: kitchen.room() },
        warm.c(),
        kitchen.place(tray_place),
        Target::Oven,
    )?;
    let tray_answer = chill(&tray_question);
    if let Some(never) = &tray_answer.never {
        return Err(InputError::refused("tray_chill_place", never.clone()).into());
    }
    let air = kitchen.place(place).air();
    let ready_mean = at_ready(&answer).unwrap_or(warm);
    let bench = Bench::new(&dough.composition, window, job.thickness(), kitchen.room());
    let mut reasons = vec![format!(
        "It leaves the mixer at {:.1}\u{b0}{}.",
        dough.temperature.c(),
        if dough.temperature_measured { ", as you measured" } else { ", from the ingredients and the mixing" }
    )];
    if window.shift.k().abs() > 0.05 {
        reasons.push(format!(
            "{:.0} % fat moves the working temperatures by {}{:.1}\u{b0}.",
            100.0 * dough.composition.fat(),
            if window.shift.k() < 0.0 { "\u{2212}" } else { "+" },
            window.shift.k().abs()
        ));
    }
    reasons.push("The range is from an air film a fifth weaker or a quarter stronger than assumed.".to_owned());
    Ok(ColdPlan {
        form: FormSize { piece, count: first.sheets, mass: first.mass },
        place,
        air,
        tempering_after_night: tempering_minutes(&dough.composition, piece, air, kitchen.room()),
        tempering: None,
        window: *window,
        bench: bench.stays_workable(ready_mean),
        bench_longest: bench.stays_workable(window.rolls_from),
        workable_after: None,
        answer,
        alternatives,
        tray_chill: TrayChill { place: tray_place, start: warm, answer: tray_answer },
        reasons,
    })
}

fn at_ready(answer: &ChillAnswer) -> Option<Temperature> {
    let ready = answer.ready_after?;
    answer.curve.iter().find(|s| s.after >= ready).map(|s| s.mean)
}

fn up(span: Span) -> i64 {
    #[expect(clippy::cast_possible_truncation, reason = "spans are under a few days")]
    let minutes = (span.min() - 1e-6).ceil().max(0.0) as i64;
    minutes
}

/// Minutes of hands that forming a mix and each tray take.
struct HandsAtTheBench {
    form_min: f64,
    cut_min: Vec<i64>,
}

impl HandsAtTheBench {
    fn longest(&self) -> Span {
        let most = self.cut_min.iter().copied().max().unwrap_or(0);
        Span::new_min(f64::from(i32::try_from(most).unwrap_or(i32::MAX)))
    }
}

fn hands_at_the_bench(job: &Job, kitchen: &Kitchen, shape: &ShapePlan) -> HandsAtTheBench {
    let first = &shape.demand.rolls[0];
    let mixes = f64::from(shape.demand.mixes);
    let (roll_min, cut_s) = (kitchen.input().roll_min, kitchen.input().cut_s);
    let trays = f64::from(u32::try_from(shape.trays.fill.len()).unwrap_or(u32::MAX));
    let rerolled: u32 = shape.demand.rolls[1..].iter().map(|r| r.sheets).sum();
    // Discs are rolled when they come out; sheets were rolled before the chill. Re-rolls are always rolled then.
    let (form_min, rolled_at_cut) = match job.chill_form() {
        ChillForm::Disc { .. } => (PRESS_MIN * f64::from(first.sheets) / mixes, f64::from(first.sheets)),
        ChillForm::Sheets => (roll_min * f64::from(first.sheets) / mixes, 0.0),
    };
    let roll_per_tray = roll_min * (rolled_at_cut + f64::from(rerolled)) / trays;
    let minutes = |n: &u32| up(Span::new_min(roll_per_tray + f64::from(*n) * cut_s / 60.0)).max(1);
    HandsAtTheBench { form_min, cut_min: shape.trays.fill.iter().map(minutes).collect() }
}

/// When the dough's mean is cold enough for the sheet to stay workable for `hands`; `None` when it is so once it is ready,
/// or never gets so before it is past its window.
fn workable_after(
    job: &Job,
    kitchen: &Kitchen,
    cold: &ColdPlan,
    composition: &Composition,
    hands: Span,
) -> Option<Span> {
    let bench = Bench::new(composition, &cold.window, job.thickness(), kitchen.room());
    let stays = |start: Temperature| bench.stays_workable(start);
    if cold.bench? >= hands {
        return None;
    }
    let (mut cold_enough, mut too_warm) = (cold.window.rolls_from, cold.window.rolls_to);
    if stays(cold_enough).is_some_and(|longest| longest < hands) {
        // Not even the coldest dough that rolls lasts so long: leave it to the end of its window.
        return cold.answer.past_after;
    }
    while (too_warm - cold_enough).k() > 0.1 {
        let middle = Temperature::new_c(f64::midpoint(cold_enough.c(), too_warm.c()));
        if stays(middle).is_none_or(|m| m >= hands) { cold_enough = middle } else { too_warm = middle }
    }
    cold.answer.curve.iter().find(|s| s.mean <= cold_enough).map(|s| s.after)
}

/// Why the timeline waits longer than ready, and what to do when that is not enough.
fn bench_words(cold: &ColdPlan, hands: Span) -> Option<String> {
    let (bench, longest) = (cold.bench?, cold.bench_longest?);
    if bench >= hands {
        return None;
    }
    let waits = "Just ready, the sheet stays workable";
    Some(if longest >= hands {
        format!(
            "{waits} for {:.0} min; a tray takes {:.0} min of rolling and cutting. So the plan leaves it in the cold a while longer.",
            bench.min(),
            hands.min()
        )
    } else {
        format!(
            "{waits} for {:.0} to {:.0} min, and a tray takes {:.0}. Keep half of it in the cold meanwhile, or put the sheet back for a few minutes.",
            bench.min(),
            longest.min(),
            hands.min()
        )
    })
}

fn clock_plan(
    job: &Job,
    kitchen: &Kitchen,
    shape: &ShapePlan,
    cold: &ColdPlan,
    oven: &OvenPlan,
    hands: HandsAtTheBench,
) -> ClockPlan {
    let method = job.input().method;
    let latest = |answer: &ChillAnswer| answer.ready_between.map(|(_, late)| late).or(answer.ready_after).map_or(0, up);
    let chill_min = latest(&cold.answer).max(cold.workable_after.map_or(0, up));
    let input = RelayInput {
        mixes: shape.demand.mixes,
        mix_min: up(Span::new_min(WEIGH_MIN + method.minutes())),
        form_min: up(Span::new_min(hands.form_min)),
        chill_min,
        cut_min: hands.cut_min,
        tray_chill_min: latest(&cold.tray_chill.answer),
        bake_min: up(oven.practice.bake.1),
        cool_min: up(oven.practice.cool_on_tray),
        trays_owned: kitchen.trays().owned(),
        racks: kitchen.ovens().racks,
        ovens: kitchen.ovens().count,
        preheat_min: up(Span::new_min(kitchen.ovens().preheat_min)),
    };
    let relay = plan_relay(&input);
    let mut reasons = vec![
        "Every step is put as late as the next one and one pair of hands allow.".to_owned(),
        "Chills count at the slow end of their range, bakes at the long end.".to_owned(),
    ];
    if shape.trays.rounds > 1 {
        reasons.push(format!("{} trays go round {} times.", kitchen.trays().owned(), shape.trays.rounds));
    }
    ClockPlan { relay, chill_min, reasons }
}

/// Tempering after the longest time a mix waits in the cold in this timeline.
fn tempering_after_wait(
    cold: &ColdPlan,
    clock: &ClockPlan,
    composition: &Composition,
    kitchen: &Kitchen,
) -> Option<Span> {
    let waits = clock.relay.tasks.iter().filter(|t| t.step == Step::Chill).map(|t| t.end_min - t.start_min);
    let longest = Span::new_min(f64::from(i32::try_from(waits.max().unwrap_or(0)).unwrap_or(i32::MAX)));
    let last = cold.answer.curve.last()?;
    let mean = if longest >= last.after {
        // The run ends when the mean has left the window; what follows is colder still, at most as cold as the place.
        if cold.answer.past_after.is_some_and(|past| longest > past) { cold.air } else { last.mean }
    } else {
        cold.answer.curve.iter().find(|s| s.after >= longest)?.mean
    };
    tempering_minutes(composition, cold.form.piece, mean, kitchen.room())
}

fn pieces(n: u32) -> String {
    if n == 1 { "1 piece".to_owned() } else { format!("{n} pieces") }
}

fn plain(v: f64) -> String {
    format!("{v:.2}").trim_end_matches('0').trim_end_matches('.').to_owned()
}

fn grouped(v: f64) -> String {
    let whole = format!("{v:.0}");
    let mut out = String::new();
    for (i, c) in whole.chars().enumerate() {
        if i > 0 && (whole.len() - i).is_multiple_of(3) {
            out.push(',');
        }
        out.push(c);
    }
    out
}
