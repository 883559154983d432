//! The plan: inputs in, one value out in which every station has answered, with its reasons.

use super::answers::{
    ClockPlan, ColdPlan, DoughPart, DoughPlan, FormSize, OvenPlan, PartUse, Plan, ShapePlan, TrayChill,
};
use super::bench::{HandsAtTheBench, bench_words, hands_at_the_bench, tempering_after_wait, up, workable_after};
use super::{ChillForm, ColdPlace, Job, Kitchen};
use crate::clock::{RelayInput, plan_relay};
use crate::cold::{
    Bench, ChillAnswer, ChillQuestion, Piece, Support, Target, Window, Wrap, chill, disc_of, tempering_minutes,
};
use crate::dough::{
    Character, Composition, Formula, Keeping, WeighRules, divide_into_mixes, keeping, mixing_temperatures,
    rolled_density, spread_tendency,
};
use crate::error::{InputError, InputErrors};
use crate::geometry::Outline;
use crate::oven::{BakeSetting, bake_practice};
use crate::shape::{Demand, DemandAnswer, LatticeTable, Layout, Spacing, TrayAnswer, demand_to_dough, fill_trays};
use crate::units::{Density, Length, Mass, Span, Temperature};

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

/// Plans one job whose dough is mixed by itself: [`plan_with`] without others.
pub fn plan(job: &Job, formula: &Formula, outline: &Outline, kitchen: &Kitchen) -> Result<Plan, InputErrors> {
    plan_with(job, formula, outline, kitchen, &[])
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
    also: &[AlsoMixed],
) -> Result<Plan, InputErrors> {
    let composition = formula.composition();
    let Some(window) = Window::of(&composition) else {
        return Err(InputError::refused("formula", "most of the fat in this dough stays liquid: it can be neither rolled nor sliced; use a fat that is firm in the cold").into());
    };
    let density = rolled_density(&composition);
    let oven = oven_plan(job, formula, outline, kitchen)?;
    let piece = outline.area().mass_at(job.thickness(), density);
    let (table, layout_fault) = sheet_table(job, outline, kitchen)?;
    let baked = demand_of(job, kitchen, &table, piece, density, job.baked_pieces());
    let demand = demand_to_dough(&baked)?;
    let frozen = frozen_dough(job, &baked)?;
    let trays = fill_trays(outline, job.baked_pieces(), oven.growth.1, kitchen.trays(), &job.input().tray_layout)?;
    let mut shape = shape_plan(job, kitchen, demand, trays);
    shape.reasons.extend(layout_fault.map(|why| format!("The layout you kept is not used: {why}. Nest it again.")));
    let parts = parts_of(job, &shape.demand, frozen, also);
    let dough = dough_plan(job, formula, kitchen, &shape.demand, parts, piece, density, composition)?;
    let mut cold = cold_plan(job, kitchen, &dough, &shape.demand, &window, keeping(formula))?;
    let hands = hands_at_the_bench(job, kitchen, &shape);
    cold.workable_after = workable_after(job, kitchen, &cold, &dough.composition, hands.longest());
    cold.reasons.extend(bench_words(&cold, hands.longest()));
    let clock = clock_plan(job, kitchen, &dough, &shape, &cold, &oven, hands);
    cold.tempering = tempering_after_wait(&cold, &clock, &dough.composition, kitchen);
    Ok(Plan { dough, cold, shape, oven, clock })
}

/// The job's sheets: rows of its cutter, and the layout kept from nesting while it still holds.
fn sheet_table(job: &Job, outline: &Outline, kitchen: &Kitchen) -> Result<(LatticeTable, Option<String>), InputErrors> {
    let (width, longest) = (kitchen.trays().width(), kitchen.trays().length());
    let input = job.input();
    let rows = LatticeTable::for_turning(outline, width, longest, job.spacing(), input.turning)?;
    if input.layout.is_empty() {
        return Ok((rows, None));
    }
    Ok(match rows.clone().with_layout(&input.layout, job.spacing()) {
        Ok(table) => (table, None),
        Err(fault) => (rows, Some(fault)),
    })
}

fn demand_of<'a>(
    job: &Job,
    kitchen: &Kitchen,
    table: &'a LatticeTable,
    piece: Mass,
    density: Density,
    pieces: u32,
) -> Demand<'a> {
    Demand {
        table,
        piece,
        pieces,
        thickness: job.thickness(),
        density,
        width: kitchen.trays().width(),
        longest: kitchen.trays().length(),
        mix_limit: kitchen.mixer().most(density).0,
        rules: job.rolling(),
    }
}

/// The dough station alone: what is weighed and mixed, without the cold, the trays and the clock.
///
/// Fails as [`plan_with`] does where sheet or mixes are at fault.
pub fn plan_dough(
    job: &Job,
    formula: &Formula,
    outline: &Outline,
    kitchen: &Kitchen,
    also: &[AlsoMixed],
) -> Result<DoughPlan, InputErrors> {
    let composition = formula.composition();
    let density = rolled_density(&composition);
    let piece = outline.area().mass_at(job.thickness(), density);
    let (table, _) = sheet_table(job, outline, kitchen)?;
    let baked = demand_of(job, kitchen, &table, piece, density, job.baked_pieces());
    let demand = demand_to_dough(&baked)?;
    let frozen = frozen_dough(job, &baked)?;
    let parts = parts_of(job, &demand, frozen, also);
    dough_plan(job, formula, kitchen, &demand, parts, piece, density, composition)
}

fn frozen_dough(job: &Job, baked: &Demand) -> Result<Option<Mass>, InputErrors> {
    Ok(match job.input().freeze_pieces {
        0 => None,
        pieces => Some(demand_to_dough(&Demand { pieces, ..*baked })?.dough),
    })
}

/// The dough that a job takes in all, for the baked and the frozen pieces: what another job must mix for it.
pub fn dough_of(job: &Job, formula: &Formula, outline: &Outline, kitchen: &Kitchen) -> Result<Mass, InputErrors> {
    let density = rolled_density(&formula.composition());
    let piece = outline.area().mass_at(job.thickness(), density);
    let (table, _) = sheet_table(job, outline, kitchen)?;
    let dough = |pieces: u32| -> Result<f64, InputErrors> {
        if pieces == 0 {
            return Ok(0.0);
        }
        Ok(demand_to_dough(&demand_of(job, kitchen, &table, piece, density, pieces))?.dough.g())
    };
    Ok(Mass::new_g(dough(job.baked_pieces())? + dough(job.input().freeze_pieces)?))
}

/// The most pieces of a job's cutter and thickness that so much dough yields; zero when it is not enough for one.
pub fn pieces_from(
    dough: Mass,
    job: &Job,
    formula: &Formula,
    outline: &Outline,
    kitchen: &Kitchen,
) -> Result<u32, InputErrors> {
    let density = rolled_density(&formula.composition());
    let piece = outline.area().mass_at(job.thickness(), density);
    let (table, _) = sheet_table(job, outline, kitchen)?;
    let enough = |pieces: u32| {
        demand_to_dough(&demand_of(job, kitchen, &table, piece, density, pieces)).is_ok_and(|d| d.dough <= dough)
    };
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

fn oven_plan(job: &Job, formula: &Formula, outline: &Outline, kitchen: &Kitchen) -> Result<OvenPlan, InputErrors> {
    let setting = BakeSetting::new(job.input().oven_c, kitchen.ovens().fan)?;
    let (w, h) = outline.extent();
    let mut practice = bake_practice(job.thickness(), setting, &spread_tendency(formula));
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
    if let Some(fault) = &trays.fault {
        reasons.push(format!(
            "The tray you laid is not used: {fault}, now that they need {:.0} mm. Lay it again.",
            trays.gap.mm()
        ));
    }
    reasons.push(format!("{:.0} mm is kept between pieces on the tray, room for what they grow.", trays.gap.mm()));
    ShapePlan { demand, sheet_width: kitchen.trays().width(), rods_owned, trays, reasons }
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
    let piece = match job.chill_form() {
        ChillForm::Disc { thickness } => disc_of(first.mass, thickness, density),
        ChillForm::Sheets => Piece::Sheet { thickness: job.thickness() },
    };
    let place = job.input().chill_place;
    let answer = chill(&chill_question(kitchen, dough, piece, place)?);
    if let Some(never) = &answer.never {
        return Err(InputError::refused("chill_place", never.clone()).into());
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
    reasons.push(if kitchen.known(place).air_taught {
        format!("The range is what readings have left open of this {}.", place.word())
    } else {
        "The range is from an air film a fifth weaker or a quarter stronger than assumed.".to_owned()
    });
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
        tray_chill: TrayChill { place: tray_place, start: warm, answer: tray_answer },
        keeping,
        reasons,
    })
}

/// The dough out of the bowl, as it is put into the cold to be rolled: [`question_of`] a plan's dough.
pub(super) fn chill_question(
    kitchen: &Kitchen,
    dough: &DoughPlan,
    piece: Piece,
    place: ColdPlace,
) -> Result<ChillQuestion, InputErrors> {
    question_of(kitchen, &dough.composition, piece, dough.temperature, place)
}

/// A piece of a dough put into one of the kitchen's cold places, to be rolled, or sliced if it is a log or a bar.
///
/// Discs and balls lie wrapped on the shelf; sheets between their papers on a tray that was at room temperature.
pub fn question_of(
    kitchen: &Kitchen,
    composition: &Composition,
    piece: Piece,
    start: Temperature,
    place: ColdPlace,
) -> Result<ChillQuestion, InputErrors> {
    let support = match piece {
        Piece::Sheet { .. } => Support::Tray { kind: kitchen.tray_kind(), start: kitchen.room() },
        _ => Support::Rack,
    };
    let target = match piece {
        Piece::Log { .. } | Piece::Bar { .. } => Target::Slicing,
        _ => Target::Rolling,
    };
    ChillQuestion::new(composition.clone(), piece, Wrap::Wrapped, support, start.c(), kitchen.place(place), target)
}

fn at_ready(answer: &ChillAnswer) -> Option<Temperature> {
    let ready = answer.ready_after?;
    answer.curve.iter().find(|s| s.after >= ready).map(|s| s.mean)
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
    let latest = |answer: &ChillAnswer| answer.ready_between.map(|(_, late)| late).or(answer.ready_after).map_or(0, up);
    let chill_min = latest(&cold.answer).max(cold.workable_after.map_or(0, up));
    let input = RelayInput {
        mixes: shape.demand.mixes,
        // Where other dough is mixed with this one, its mixes are made before and after, and count here.
        mix_min: up(Span::new_min(
            (WEIGH_MIN + method.minutes()) * (f64::from(dough.mixes.count) / f64::from(shape.demand.mixes)).max(1.0),
        )),
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

fn pieces(n: u32) -> String {
    if n == 1 { "1 piece".to_owned() } else { format!("{n} pieces") }
}

pub(super) fn plain(v: f64) -> String {
    format!("{v:.2}").trim_end_matches('0').trim_end_matches('.').to_owned()
}

pub(super) fn grouped(v: f64) -> String {
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
