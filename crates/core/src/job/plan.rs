//! The plan: inputs in, one value out in which every station has answered, with its reasons.

use super::answers::{
    ClockPlan, ColdPlan, DoughPart, DoughPlan, FormSize, OvenPlan, PartUse, Plan, ShapePlan, TrayChill,
};
use super::bake::bake_question;
use super::bench::{HandsAtTheBench, bench_words, first_sheets, hands_at_the_bench, longest_rest, up, workable_after};
use super::chill::first_chill;
use super::figures::{counted, grouped, pieces, plain};
use super::finishing::finish_plan;
use super::oven::{lay_out, oven_plan};
use super::pan::fits_its_tray;
use super::pieces::{Source, chilled_form, largest_sheet};
use super::{ChillForm, Job, Kitchen, Making, piece_size};
use crate::clock::{Relay, RelayInput, RelayLot, Zone, plan_relay};
use crate::cold::{
    Bench, ChillAnswer, ChillQuestion, Piece, Sample, Support, Target, Window, Wrap, chill, disc_of, tempering_to,
};
use crate::dough::{
    Character, Composition, Formula, Keeping, WeighRules, divide_into_mixes, keeping, mixing_temperatures,
    rolled_density,
};
use crate::error::{InputError, InputErrors};
use crate::geometry::Outline;
use crate::oven::BakeKnowledge;
use crate::safety::{COLD_RULE, raw_rule};
use crate::shape::{
    DemandAnswer, LOG_TRIM, LatticeTable, Layout, MixedShare, Portion, SheetForm, SheetKind, Spacing, TrayAnswer,
};
use crate::units::{Density, Length, Mass, Span, Temperature};
use chrono::TimeDelta;

/// To weigh one mix, min. Common practice, no source.
const WEIGH_MIN: f64 = 5.0;

/// Another job's dough that is mixed together with this one's.
#[derive(Debug, Clone, PartialEq)]
pub struct AlsoMixed {
    /// The job.
    pub name: String,
    /// Its pieces.
    pub pieces: u32,
    /// Its dough.
    pub dough: Mass,
}

/// What a lot has to do with other lots.
#[derive(Debug, Clone, Default)]
pub struct Beside {
    /// Others whose dough is mixed with this one's.
    pub also: Vec<AlsoMixed>,
    /// What recorded bakes of its formula have taught.
    pub learnt: Option<BakeKnowledge>,
    /// Its share of sheets that are cut together with others, or why they cannot be used.
    pub mixed: Option<Result<MixedShare, String>>,
}

/// Plans one job whose dough is mixed by itself: [`plan_with`] without others.
pub fn plan(job: &Job, formula: &Formula, outline: &Outline, kitchen: &Kitchen) -> Result<Plan, InputErrors> {
    plan_with(job, formula, outline, kitchen, &Beside::default())
}

/// Plans one job of one lot.
///
/// Fails, naming the field, when the cutter is larger than the sheet or the tray, when the pieces need more mixes than a
/// job may have, when the dough holds no fat that is ever firm, or when its cold place never makes it firm.
pub fn plan_with(
    job: &Job,
    formula: &Formula,
    outline: &Outline,
    kitchen: &Kitchen,
    beside: &Beside,
) -> Result<Plan, InputErrors> {
    let composition = formula.composition();
    let Some(window) = Window::of(&composition) else {
        return Err(InputError::refused("formula", "most of the fat in this dough stays liquid: it can be neither rolled nor sliced; use a fat that is firm in the cold").into());
    };
    fits_its_tray(job, kitchen)?;
    let density = rolled_density(&composition, job.input().method);
    let size = piece_size(job, outline, density)?;
    let source = Source::of(job, outline, kitchen, density, beside.mixed.as_ref())?;
    let needs = |pieces: u32| source.demand(job, kitchen, size.mass, density, pieces);
    let demand = needs(job.baked_pieces())?;
    let frozen = frozen_dough(job, needs)?;
    let parts = parts_of(job, &demand, frozen, &beside.also);
    let dough = dough_plan(job, formula, kitchen, &demand, parts, size.mass, density, composition)?;
    let mut cold = cold_plan(job, kitchen, &dough, &demand, &window, keeping(formula))?;
    let learnt = beside.learnt.as_ref();
    let mut question = bake_question(job, formula, outline, size.thickness, kitchen, goes_in_at(job, &cold), learnt)?;
    let trays = lay_out(job, formula, outline, kitchen, &mut question, learnt)?;
    let oven = oven_plan(job, formula, outline, kitchen, &question, learnt)?;
    let mut shape = shape_plan(job, kitchen, demand, trays);
    shape.reasons.extend(source.fault().map(str::to_owned));
    let hands = hands_at_the_bench(job, kitchen, &shape);
    if job.input().making == Making::Cut {
        cold.workable_after = workable_after(job, kitchen, &cold, &dough.composition, hands.longest());
        cold.reasons.extend(bench_words(&cold, hands.longest()));
    }
    let clock = clock_plan(job, kitchen, &dough, &shape, &cold, &oven, hands);
    cold.tempering = Some(longest_rest(&clock));
    let finish = finish_plan(job, formula, outline, &oven, dough.piece);
    let cautions = vec![COLD_RULE.to_owned(), raw_rule(formula)];
    Ok(Plan { dough, cold, shape, oven, finish, clock, cautions })
}

/// The dough station alone: what is weighed and mixed, without the cold, the trays and the clock.
///
/// Fails as [`plan_with`] does where sheet or mixes are at fault.
pub fn plan_dough(
    job: &Job,
    formula: &Formula,
    outline: &Outline,
    kitchen: &Kitchen,
    beside: &Beside,
) -> Result<DoughPlan, InputErrors> {
    let composition = formula.composition();
    let density = rolled_density(&composition, job.input().method);
    let piece = piece_size(job, outline, density)?.mass;
    let source = Source::of(job, outline, kitchen, density, beside.mixed.as_ref())?;
    let needs = |pieces: u32| source.demand(job, kitchen, piece, density, pieces);
    let demand = needs(job.baked_pieces())?;
    let frozen = frozen_dough(job, needs)?;
    let parts = parts_of(job, &demand, frozen, &beside.also);
    dough_plan(job, formula, kitchen, &demand, parts, piece, density, composition)
}

fn frozen_dough(
    job: &Job,
    needs: impl Fn(u32) -> Result<DemandAnswer, InputErrors>,
) -> Result<Option<Mass>, InputErrors> {
    Ok(match job.input().freeze_pieces {
        0 => None,
        pieces => Some(needs(pieces)?.dough),
    })
}

/// The dough that a job takes in all, for the baked and the frozen pieces: what another job must mix for it.
pub fn dough_of(
    job: &Job,
    formula: &Formula,
    outline: &Outline,
    kitchen: &Kitchen,
    mixed: Option<&Result<MixedShare, String>>,
) -> Result<Mass, InputErrors> {
    let density = rolled_density(&formula.composition(), job.input().method);
    let piece = piece_size(job, outline, density)?.mass;
    let source = Source::of(job, outline, kitchen, density, mixed)?;
    let needs = |pieces: u32| source.demand(job, kitchen, piece, density, pieces);
    let frozen = frozen_dough(job, needs)?.unwrap_or(Mass::new_g(0.0));
    Ok(needs(job.baked_pieces())?.dough + frozen)
}

/// The most pieces of a job's make that so much dough yields; zero when it is not enough for one.
pub fn pieces_from(
    dough: Mass,
    job: &Job,
    formula: &Formula,
    outline: &Outline,
    kitchen: &Kitchen,
) -> Result<u32, InputErrors> {
    let density = rolled_density(&formula.composition(), job.input().method);
    let piece = piece_size(job, outline, density)?.mass;
    let source = Source::of(job, outline, kitchen, density, None)?;
    let enough = |pieces: u32| source.demand(job, kitchen, piece, density, pieces).is_ok_and(|d| d.dough <= dough);
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "clamped to the range of counts")]
    let (mut low, mut high) = (0_u32, (dough / piece).clamp(0.0, 20_000.0) as u32 + 1);
    // More pieces never need less dough, so the greatest count is found by halving.
    while high - low > 1 {
        let middle = u32::midpoint(low, high);
        if enough(middle) { low = middle } else { high = middle }
    }
    Ok(low)
}

fn parts_of(job: &Job, demand: &DemandAnswer, frozen: Option<Mass>, also: &[AlsoMixed]) -> Vec<DoughPart> {
    let mut parts = vec![DoughPart {
        part_use: PartUse::Bake,
        name: job.input().name.clone(),
        pieces: job.baked_pieces(),
        dough: demand.dough,
    }];
    if let Some(dough) = frozen {
        parts.push(DoughPart {
            part_use: PartUse::Freeze,
            name: "for the freezer".to_owned(),
            pieces: job.input().freeze_pieces,
            dough,
        });
    }
    parts.extend(also.iter().map(|a| DoughPart {
        part_use: PartUse::OtherJob,
        name: a.name.clone(),
        pieces: a.pieces,
        dough: a.dough,
    }));
    parts
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

/// How cold pieces are when they go into the oven, and as firm as at what: as measured, else cut ones after their tray chill and others as
/// they leave the cold.
fn goes_in_at(job: &Job, cold: &ColdPlan) -> (Temperature, Temperature) {
    if let Some(measured) = job.measured_pieces() {
        return (measured, measured);
    }
    let last = cold.tray_chill.as_ref().map_or(&cold.answer, |t| &t.answer);
    at_ready(last).map_or((cold.air, cold.air), |s| (s.mean, s.felt))
}

fn shape_plan(job: &Job, kitchen: &Kitchen, demand: DemandAnswer, trays: TrayAnswer) -> ShapePlan {
    let mut reasons = Vec::new();
    let first = &demand.rolls[0];
    let cut = job.input().making == Making::Cut;
    reasons.push(match &job.input().making {
        Making::Cut => {
            let (width, length) = first.form.extent();
            format!(
                "{} g rolled to {} mm covers {}.",
                grouped(first.mass.g()),
                plain(job.thickness().mm()),
                match first.form {
                    SheetForm::Oblong { .. } => format!("{:.0} \u{d7} {:.0} mm", length.mm(), width.mm()),
                    SheetForm::Round { .. } => format!("a round of {:.0} mm", width.mm()),
                    SheetForm::Oval { .. } => format!("an oval of {:.0} \u{d7} {:.0} mm", length.mm(), width.mm()),
                }
            )
        }
        Making::Sliced { .. } => format!(
            "{} of {} g, {:.0} mm long: {} of {} mm, and {:.0} mm trimmed from each end.",
            counted(first.sheets, "log"),
            grouped(first.mass.g()),
            first.form.extent().1.mm(),
            counted(first.pieces.div_ceil(first.sheets.max(1)), "slice"),
            plain(job.thickness().mm()),
            LOG_TRIM.mm()
        ),
        Making::Portioned(Portion::TrayBar { .. }) => {
            format!(
                "{} of {} g, spread over the whole tray and cut after baking.",
                counted(first.sheets, "tray"),
                grouped(first.mass.g())
            )
        }
        Making::Portioned(_) => format!("{} of {:.1} g each.", counted(first.pieces, "portion"), first.mass.g()),
    });
    if let Some(gap) = first.layout.least_gap {
        reasons.push(format!("The smallest gap between two cuts is {:.1} mm.", gap.mm()));
    }
    if demand.from_second_reroll > 0 {
        reasons.push(format!(
            "{} come from the second re-roll: tougher, and they may bubble.",
            pieces(demand.from_second_reroll)
        ));
    }
    let allowed = largest_sheet(job, kitchen).extent();
    let (tray_width, tray_length) = (kitchen.trays().width(), kitchen.trays().length());
    if cut && (allowed.0 < tray_width || allowed.1 < tray_length) && job.input().sheet == SheetKind::Oblong {
        reasons.push(format!(
            "A sheet is kept to {:.0} \u{d7} {:.0} mm, as you set it; the tray would take {:.0} \u{d7} {:.0}.",
            allowed.1.mm(),
            allowed.0.mm(),
            tray_length.mm(),
            tray_width.mm()
        ));
    }
    let rods_owned = !cut || kitchen.has_rods(job.thickness());
    if !rods_owned {
        reasons.push(format!("No guide rods of {} mm in the kitchen: rolled by eye.", plain(job.thickness().mm())));
    }
    if let Some(fault) = &trays.fault {
        reasons.push(format!(
            "The tray you laid is not used: {fault}, now that they need {:.0} mm. Lay it again.",
            trays.gap.mm()
        ));
    }
    reasons.push(format!("{:.0} mm is kept between pieces on the tray, room for what they grow.", trays.gap.mm()));
    ShapePlan { demand, rods_owned, trays, reasons }
}

#[expect(clippy::too_many_arguments, reason = "what the stations before have found, each once")]
fn dough_plan(
    job: &Job,
    formula: &Formula,
    kitchen: &Kitchen,
    demand: &DemandAnswer,
    parts: Vec<DoughPart>,
    piece: Mass,
    density: Density,
    composition: Composition,
) -> Result<DoughPlan, InputErrors> {
    let input = job.input();
    let dough = Mass::new_g(parts.iter().map(|p| p.dough.g()).sum());
    let whole_eggs = input.whole_eggs.then_some(kitchen.input().egg_class);
    let rules = WeighRules::new(
        kitchen.input().scale_step_g,
        kitchen.input().fine_step_g,
        input.hold_back_percent,
        whole_eggs,
    )?;
    let (mix_limit, _) = kitchen.mixer().most(density);
    if dough / mix_limit > f64::from(crate::dough::MOST_MIXES) {
        return Err(InputError::refused(
            "pieces",
            format!("{:.0} kg of dough are more than {} mixes", dough.g() / 1000.0, crate::dough::MOST_MIXES),
        )
        .into());
    }
    let mixes = divide_into_mixes(formula, dough, kitchen.mixer(), density, &rules);
    let measured = job.measured_dough();
    let temperature = measured.unwrap_or_else(|| {
        mixing_temperatures(&mixes.formula, input.method, kitchen.room(), kitchen.fridge_air()).dough
    });
    let cut = f64::from(job.baked_pieces()) * piece.g();
    let mut reasons = vec![
        format!("{} of {:.1} g are {} g.", pieces(job.baked_pieces()), piece.g(), grouped(cut)),
        format!(
            "Scrap that no roll recovers, and what sticks to board and hands, adds {} g; the reserve {} g.",
            grouped((demand.left.g() + demand.lost.g()).max(0.0)),
            grouped(demand.reserve.g())
        ),
    ];
    for part in &parts[1..] {
        reasons.push(match part.part_use {
            PartUse::Freeze => format!(
                "{} g more for the {} kept as dough: press it to a disc, wrap it well, write the date on it; one to three months in the freezer, a night in the fridge to thaw.",
                grouped(part.dough.g()),
                pieces(part.pieces)
            ),
            PartUse::Bake | PartUse::OtherJob => {
                format!("{} g more for {}, mixed together with it.", grouped(part.dough.g()), part.name)
            }
        });
    }
    reasons.extend(mixes.reasons.iter().cloned());
    let mut warnings = mixes.warnings.clone();
    warnings.extend(Character::of(&mixes.formula).warnings);
    Ok(DoughPlan {
        dough,
        parts,
        piece,
        density,
        bakers: mixes.formula.bakers_percentages(),
        ratio: formula.ratio(),
        composition,
        temperature,
        temperature_measured: measured.is_some(),
        allergens: formula.allergens(),
        mix_limit,
        warnings,
        reasons,
        mixes,
    })
}

fn cold_plan(
    job: &Job,
    kitchen: &Kitchen,
    dough: &DoughPlan,
    demand: &DemandAnswer,
    window: &Window,
    keeping: Keeping,
) -> Result<ColdPlan, InputErrors> {
    let density = dough.density;
    let first = &demand.rolls[0];
    let piece = match (chilled_form(&job.input().making, density)?, job.chill_form()) {
        (Some(piece), _) => piece,
        (None, ChillForm::Disc { thickness }) => disc_of(first.mass, thickness, density),
        (None, ChillForm::Sheets) => Piece::Sheet { thickness: job.thickness() },
    };
    let place = job.input().chill_place;
    let question = first_chill(job, kitchen, dough, piece, place)?;
    let target = question.target();
    let answer = chill(&question);
    if let Some(never) = &answer.never {
        return Err(InputError::refused("chill_place", never.clone()).into());
    }
    let warm = window.rolls_to;
    // Cut pieces are taken to have warmed to the window's warm end, on a tray at room temperature: the slow case.
    let tray_place = job.input().tray_chill_place;
    // Only what is cut goes cold a second time: slices come from a firm log, and portions have been chilled as they are.
    let tray_chill = if job.input().making == Making::Cut {
        let question = ChillQuestion::new(
            dough.composition.clone(),
            Piece::Sheet { thickness: job.thickness() },
            Wrap::Open,
            Support::Tray { kind: kitchen.tray_kind(), start: kitchen.room() },
            warm.c(),
            kitchen.place(tray_place),
            Target::Oven,
        )?;
        let answer = chill(&question);
        if let Some(never) = &answer.never {
            return Err(InputError::refused("tray_chill_place", never.clone()).into());
        }
        Some(TrayChill { place: tray_place, start: warm, answer })
    } else {
        None
    };
    let air = kitchen.place(place).air();
    let (ready_mean, ready_felt) = at_ready(&answer).map_or((warm, warm), |s| (s.mean, s.felt));
    let working = window.working(target);
    // What is cut is rolled to a sheet first; logs and portions lie on the bench as they are.
    let on_the_bench =
        if job.input().making == Making::Cut { Piece::Sheet { thickness: job.thickness() } } else { piece };
    let bench = Bench::new(&dough.composition, on_the_bench, working, kitchen.room());
    let coldest = working.from.map_or(air, |from| if from > air { from } else { air });
    let after_night = match working.from {
        Some(from) => tempering_to(&dough.composition, piece, air, kitchen.room(), from),
        None => Some(Span::new_s(0.0)),
    };
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
    let rests = job.flour_rest();
    if rests.min() > 0.0 {
        reasons.push(format!(
            "It rests {:.0} min at least for its flour: water spreads evenly, and the sheet cracks less.",
            rests.min()
        ));
    }
    reasons.extend(setting_words("It", &answer));
    if let Some(chill) = &tray_chill {
        reasons.extend(setting_words("The cut piece", &chill.answer));
    }
    reasons.push(if kitchen.known(place).air_taught {
        format!("The range is what readings have left open of this {}.", place.word())
    } else {
        "The range is from an air film a fifth weaker or a quarter stronger than assumed.".to_owned()
    });
    Ok(ColdPlan {
        form: FormSize { piece, count: first_sheets(demand), mass: first.mass },
        place,
        air,
        target,
        tempering_after_night: after_night,
        tempering: None,
        window: *window,
        bench: bench.stays_workable(ready_mean, ready_felt),
        bench_longest: bench.stays_workable(coldest, coldest),
        workable_after: None,
        answer,
        tray_chill,
        flour_rest: rests,
        keeping,
        reasons,
    })
}

/// What of a chill is the fat's own time.
fn setting_words(what: &str, answer: &ChillAnswer) -> Option<String> {
    let (cold, ready) = (answer.cold_enough_after?, answer.ready_after?);
    ((ready - cold).min() >= 1.0).then(|| {
        format!(
            "{what} is cold enough after {:.0} min; its butter goes on setting for {:.0} min more.",
            cold.min(),
            (ready - cold).min()
        )
    })
}

fn at_ready(answer: &ChillAnswer) -> Option<Sample> {
    let ready = answer.ready_after?;
    answer.curve.iter().find(|s| s.after >= ready).copied()
}

/// Minutes after which a chill counts as done: the slow end of its range.
fn slow_end(answer: &ChillAnswer) -> i64 {
    answer.ready_between.map(|(_, late)| late).or(answer.ready_after).map_or(0, up)
}

/// Why dough is in the cold for as long as it is at least: what of it is the chill, its range, and the wait for a sheet that lasts.
fn chill_words(cold: &ColdPlan, chill_min: i64, flour_rest_min: i64) -> String {
    let (ready, slow) = (cold.answer.ready_after.map_or(0, up), slow_end(&cold.answer));
    let mut parts = vec![format!("ready after {ready} min")];
    if slow > ready {
        parts.push(format!("{} min more at the slow end of its range", slow - ready));
    }
    if chill_min > slow && chill_min == flour_rest_min {
        parts.push(format!("{} min more for its flour, which rests {flour_rest_min} min at least", chill_min - slow));
    } else if chill_min > slow {
        parts
            .push(format!("{} min more so that the sheet stays workable while it is rolled and cut", chill_min - slow));
    }
    if parts.len() == 1 { String::new() } else { parts.join(", ") }
}

/// How long the first mix must rest on the bench, by how long it was in the cold: nothing until it is past its window, then up to what
/// it needs once it is as cold as its place.
fn rests_after(kitchen: &Kitchen, dough: &DoughPlan, cold: &ColdPlan) -> Vec<(i64, i64)> {
    let (Some(past), Some(from)) = (cold.answer.past_after, cold.window.working(cold.target).from) else {
        return vec![];
    };
    let rest =
        |mean: Temperature| tempering_to(&dough.composition, cold.form.piece, mean, kitchen.room(), from).map_or(0, up);
    let Some(at_past) = cold.answer.curve.iter().find(|s| s.after >= past).map(|s| s.mean - cold.air) else {
        return vec![];
    };
    // From then on the mean comes down to the place's air as an exponential, its slowest mode; its time scale is that of the way from
    // ready to past. An approximation of the run that goes on; `cold::live` is what a followed piece is told by.
    let ready = cold.answer.ready_after.unwrap_or(past);
    let at_ready = at_ready(&cold.answer).map_or(at_past, |s| s.mean - cold.air);
    let falls = (at_ready.k() / at_past.k()).ln();
    let scale_min = if falls > 0.05 { ((past - ready).min() / falls).max(5.0) } else { past.min().max(5.0) };
    let mut found: Vec<(i64, i64)> = Vec::new();
    for scales in [0.0, 0.25, 0.5, 1.0, 2.0, 4.0] {
        let mean = cold.air + at_past * f64::exp(-scales);
        let minutes = rest(mean).max(1);
        if minutes > found.last().map_or(0, |f| f.1) {
            found.push((up(Span::new_min(past.min() + scales * scale_min)), minutes));
        }
    }
    found
}

fn clock_plan(
    job: &Job,
    kitchen: &Kitchen,
    dough: &DoughPlan,
    shape: &ShapePlan,
    cold: &ColdPlan,
    oven: &OvenPlan,
    hands: HandsAtTheBench,
) -> ClockPlan {
    let method = job.input().method;
    let chill_min = slow_end(&cold.answer).max(cold.workable_after.map_or(0, up)).max(up(job.flour_rest()));
    let lot = RelayLot {
        mixes: shape.demand.mixes,
        mixed_by: None,
        // Where other dough is mixed with this one, its mixes are made before and after, and count here.
        mix_min: up(Span::new_min(
            (WEIGH_MIN + method.minutes()) * (f64::from(dough.mixes.count) / f64::from(shape.demand.mixes)).max(1.0),
        )),
        form_min: up(Span::new_min(hands.form_min)),
        chill_min,
        cut_min: hands.cut_min,
        // Slices come from a firm log and portions have been chilled as they are: both go straight into the oven.
        tray_chill_min: cold.tray_chill.as_ref().map_or(0, |t| slow_end(&t.answer)),
        bake_min: up(oven.expected.bake.1),
        oven_c: oven.oven.c(),
        cool_min: up(oven.cooling.on_tray()),
        rack_min: up(oven.cooling.on_rack()),
        rests: rests_after(kitchen, dough, cold),
        chill_why: chill_words(cold, chill_min, up(job.flour_rest())),
    };
    let relay = plan_relay(&relay_of(kitchen, vec![lot.clone()]));
    let mut reasons = vec![
        "Counted back from the wanted time in one fixed order: each step as late as the step after it, one pair of hands, trays and ovens allow. Another order may start later.".to_owned(),
        "Done is when the last piece has cooled enough to be packed, iced or filled.".to_owned(),
        "Chills count at the slow end of their range, bakes at the long end.".to_owned(),
    ];
    if shape.trays.rounds > 1 {
        reasons.push(format!("{} trays go round {} times.", kitchen.trays().owned(), shape.trays.rounds));
    }
    reasons.extend(clock_change_words(job, kitchen.zone(), &relay));
    ClockPlan { relay, chill_min, lot, zone: kitchen.zone(), reasons }
}

/// What a change of the clocks between the start and the wanted time does to the hours that are read off the wall.
pub(super) fn clock_change_words(job: &Job, zone: Zone, relay: &Relay) -> Option<String> {
    let wanted = zone.nearest(job.input().ready_by);
    let change = zone.change_between(wanted + TimeDelta::minutes(relay.start_min), wanted)?;
    let (from, to) = (change.from.format("%-H:%M"), change.to.format("%-H:%M"));
    // Real minutes are counted back from the wanted time: an hour that was left out is missing on the wall, too.
    let by_the_wall = if change.to > change.from { "an hour earlier" } else { "an hour later" };
    Some(format!(
        "The clocks go from {from} to {to} on {}: all spans are real minutes, so what comes before starts {by_the_wall} by the wall than it would on another day.",
        change.from.format("%-d %B")
    ))
}

/// Lots with the trays, ovens and hands of a kitchen.
pub(super) fn relay_of(kitchen: &Kitchen, lots: Vec<RelayLot>) -> RelayInput {
    RelayInput {
        lots,
        trays_owned: kitchen.trays().owned(),
        racks: kitchen.ovens().racks,
        ovens: kitchen.ovens().count,
        preheat_min: up(Span::new_min(kitchen.ovens().preheat_min)),
    }
}
