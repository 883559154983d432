//! Whole jobs: what must hold of every plan, and how plans answer when one thing changes.

use crate::bakehouse::{formula, job_input, kitchen_input, lemon_thyme, planned, round, usual};
use proptest::prelude::*;
use ready_slab_core::clock::{Lane, Step};
use ready_slab_core::cold::Piece;
use ready_slab_core::dough::Formula;
use ready_slab_core::error::InputErrors;
use ready_slab_core::geometry::{Builtin, BuiltinKind, Outline, clearance_mm, read_svg};
use ready_slab_core::job::{
    ChillFor, ColdPlace, DoughForm, Job, JobInput, Kitchen, KitchenInput, Making, Plan, Reason, WhenLate,
    sheet_choices, usually_wanted,
};
use ready_slab_core::shape::LogForm;
use ready_slab_core::units::Length;
use rstest::rstest;

fn demo_cutter(name: &str, across: f64) -> Outline {
    let path = format!("{}/../../demo/cutters/{name}.svg", env!("CARGO_MANIFEST_DIR"));
    read_svg(&std::fs::read_to_string(path).unwrap(), Some(Length::new_mm(across))).unwrap()
}

/// What holds of every plan, whatever was asked.
fn assert_sound(plan: &Plan, job: &JobInput, kitchen: &KitchenInput, cutter: &Outline) {
    let demand = &plan.shape.demand;
    assert_eq!(demand.rolls.iter().map(|r| r.pieces).sum::<u32>(), job.order.pieces, "all pieces are cut");
    assert_eq!(plan.shape.trays.fill.iter().sum::<u32>(), job.order.pieces, "all pieces lie on trays");
    assert!(plan.dough.mixes.each.g() <= kitchen.mixing.mixer_limit_g + 1e-6, "a mix fits the mixer");
    let mixed = plan.dough.mixes.each.g() * f64::from(plan.dough.mixes.count);
    assert!((mixed - plan.dough.dough.g()).abs() < 1e-6, "the mixes are the dough");
    let weighed: f64 = plan.dough.mixes.weights.iter().map(|w| w.mass.g()).sum();
    assert!((weighed - plan.dough.mixes.each.g()).abs() < 0.5 * 20.0, "the weights are the mix, to the gram each");
    assert!(plan.dough.dough.g() >= f64::from(job.order.pieces) * plan.dough.piece.g(), "no piece out of nothing");
    for roll in &demand.rolls {
        assert!(roll.form.extent().1.mm() <= kitchen.trays.tray_length_mm.max(kitchen.trays.tray_width_mm) + 1e-6);
        let placed: Vec<_> = roll.layout.pieces.iter().map(|p| cutter.placed(*p)).collect();
        let (w, h) = cutter.extent();
        for (i, a) in placed.iter().enumerate() {
            for (j, b) in placed.iter().enumerate().skip(i + 1) {
                let (p, q) = (roll.layout.pieces[i], roll.layout.pieces[j]);
                if (p.x_mm - q.x_mm).hypot(p.y_mm - q.y_mm) < w.mm().hypot(h.mm()) + job.shape.web_mm {
                    assert!(clearance_mm(a, b) >= job.shape.web_mm - 0.05, "the web is held");
                }
            }
        }
    }
    let relay = &plan.clock.relay;
    assert!(relay.tasks.iter().all(|t| t.start_min <= t.end_min && t.end_min <= 0), "nothing after the wanted time");
    assert!(relay.tasks.iter().any(|t| t.end_min == 0), "the last thing ends at the wanted time");
    let hands: Vec<_> = relay.tasks.iter().filter(|t| t.lane == Lane::Hands).collect();
    for (i, a) in hands.iter().enumerate() {
        for b in &hands[i + 1..] {
            assert!(a.end_min <= b.start_min || b.end_min <= a.start_min, "one pair of hands");
        }
    }
    let ready = plan.cold.answer.ready_after.unwrap().min();
    for chill in relay.tasks.iter().filter(|t| t.step == Step::Chill) {
        let stays = f64::from(i32::try_from(chill.end_min - chill.start_min).unwrap());
        assert!(stays >= ready - 1e-6, "nothing is taken out before it is ready");
    }
    let (low, high) = plan.cold.answer.ready_between.unwrap();
    assert!(low.min() <= ready && ready <= high.min(), "ready lies in its band");
    let window = plan.cold.window;
    assert!(window.rolls_from < window.rolls_to && window.rolls_to < window.tacky_to);
    assert!(plan.oven.baked_width().0 <= plan.oven.baked_width().1);
    assert!(plan.shape.trays.gap.mm() >= kitchen.trays.least_gap_mm - 1e-9);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(40))]
    #[test]
    fn every_plan_is_sound(
        pieces in 1u32..160,
        thickness in 3.0f64..12.0,
        web in 0.5f64..8.0,
        rerolls in 0u32..3,
        disc in any::<bool>(),
        freezer in any::<bool>(),
        cutter in 0usize..7,
        across in 25.0f64..110.0,
        limit in 400.0f64..4000.0,
        trays in 1u32..6,
        racks in 1u32..3,
        room in 16.0f64..28.0,
    ) {
        let outline = Builtin::new(BuiltinKind::ALL[cutter], across, across * 0.6 + 8.0).unwrap().outline().unwrap();
        let job = job_input().with(|j| { j.order.pieces = pieces; j.shape.thickness_mm = thickness; j.shape.web_mm = web; j.shape.rerolls = rerolls; j.cold.dough_form = if disc { DoughForm::Disc } else { DoughForm::Sheets }; j.cold.chill_place = if freezer { ColdPlace::Freezer } else { ColdPlace::Fridge }; });
        let kitchen = kitchen_input().with(|k| { k.mixing.mixer_limit_g = limit; k.trays.trays_owned = trays; k.oven.racks_per_oven = racks; k.house.room_c = room; });
        if let Ok(plan) = planned(job.clone(), kitchen.clone(), &lemon_thyme(), &outline) {
            assert_sound(&plan, &job, &kitchen, &outline);
        }
    }
}

#[rstest]
#[case("gull", 96.0)]
#[case("sailboat", 62.0)]
#[case("anchor", 60.0)]
#[case("fish", 84.0)]
#[case("buoy", 50.0)]
#[case("lighthouse", 48.0)]
fn every_cutter_of_the_demo_makes_a_sound_plan(#[case] name: &str, #[case] across: f64) {
    let cutter = demo_cutter(name, across);
    let plan = planned(job_input(), kitchen_input(), &lemon_thyme(), &cutter).unwrap();
    assert_sound(&plan, &job_input(), &kitchen_input(), &cutter);
    // No layout may hold more than the area does.
    for roll in &plan.shape.demand.rolls {
        let pieces = f64::from(u32::try_from(roll.layout.pieces.len()).unwrap());
        assert!(pieces * cutter.area().mm2() <= roll.form.area().mm2());
    }
}

#[test]
fn another_sheet_that_is_offered_needs_as_much_less_as_it_says() {
    let (formula, kitchen) = (lemon_thyme(), Kitchen::new(kitchen_input()).unwrap());
    let mut offered = 0;
    for (name, across) in [("gull", 96.0), ("sailboat", 62.0), ("fish", 84.0)] {
        let cutter = demo_cutter(name, across);
        let job = Job::new(job_input()).unwrap();
        let own = planned(job_input(), kitchen_input(), &formula, &cutter).unwrap();
        for choice in sheet_choices(&job, &formula, &cutter, &kitchen).unwrap() {
            let wanted = job_input().with(|j| {
                j.shape.sheet = choice.sheet;
                j.shape.sheet_width_mm = choice.width.map(Length::mm);
            });
            let taken = planned(wanted, kitchen_input(), &formula, &cutter).unwrap();
            assert!((taken.dough.dough.g() - choice.dough.g()).abs() < 1e-6, "{name} {choice:?}");
            assert!((own.dough.dough.g() - taken.dough.dough.g() - choice.saves.g()).abs() < 1e-6);
            assert!(choice.saved.value() >= 0.01);
            offered += 1;
        }
    }
    assert!(offered > 0, "a default sheet of the tray's width is not the best for every cutter");
    let sliced = Making::sliced(LogForm::Round, Length::new_mm(45.0));
    let logs = Job::new(job_input().with(|j| j.shape.making = sliced)).unwrap();
    assert_eq!(sheet_choices(&logs, &formula, &round(60.0), &kitchen).unwrap(), vec![]);
}

#[test]
fn thicker_pieces_take_more_dough_and_longer_everywhere() {
    let (thin, thick) = (usual(job_input()), usual(job_input().with(|j| j.shape.thickness_mm = 9.0)));
    assert!(thick.dough.dough > thin.dough.dough);
    let tray = |p: &Plan| p.cold.tray_chill.as_ref().unwrap().answer.ready_after;
    assert!(tray(&thick) > tray(&thin));
    assert!(thick.oven.expected.bake.1 > thin.oven.expected.bake.1);
    // With the same time in the cold it is begun sooner; left to the forecast a thin sheet, which warms sooner, waits the longer to get colder.
    let start = |thickness_mm| {
        usual(job_input().with(|j| {
            j.shape.thickness_mm = thickness_mm;
            j.cold.dough_for = Some(ChillFor::Exactly);
        }))
        .clock
        .relay
        .start_min
    };
    assert!(start(9.0) < start(6.0));
}

#[test]
fn a_thicker_disc_takes_longer_and_the_freezer_less() {
    let ready = |job| usual(job).cold.answer.ready_after.unwrap();
    let usual_disc = ready(job_input());
    assert!(ready(job_input().with(|j| j.cold.disc_mm = 35.0)) > usual_disc);
    assert!(ready(job_input().with(|j| j.cold.chill_place = ColdPlace::Freezer)) < usual_disc);
    assert!(ready(job_input().with(|j| j.cold.dough_form = DoughForm::Sheets)) < usual_disc);
}

#[test]
fn a_measured_dough_takes_the_place_of_the_computed_one() {
    let (computed, warm) = (usual(job_input()), usual(job_input().with(|j| j.dough.dough_c = Some(25.0))));
    assert!(!computed.dough.temperature_measured && warm.dough.temperature_measured);
    assert_eq!(warm.dough.temperature.c(), 25.0);
    assert!(warm.cold.answer.ready_after > computed.cold.answer.ready_after);
    // A dough already cold enough is ready at once.
    let cold = usual(job_input().with(|j| j.dough.dough_c = Some(14.0)));
    assert_eq!(cold.cold.answer.ready_after.unwrap().s(), 0.0);
}

#[test]
fn a_warm_room_shortens_the_time_on_the_bench_and_the_plan_rolls_in_parts() {
    let at = |room_c| {
        planned(job_input(), kitchen_input().with(|k| k.house.room_c = room_c), &lemon_thyme(), &round(65.0)).unwrap()
    };
    let (cool, warm) = (at(23.0), at(29.0));
    assert!(warm.cold.bench.unwrap() < cool.cold.bench.unwrap());
    assert!(warm.cold.bench_longest.unwrap() < cool.cold.bench_longest.unwrap());
    // What one tray needs is rolled, the rest stays in the cold; nobody chills it beyond ready for that.
    assert!(warm.cold.reasons.iter().any(|r| matches!(r, Reason::RollInParts { bench, hands, .. } if bench < hands)));
    assert!(warm.clock.chill_min <= warm.cold.answer.told().unwrap().latest);
    // In a room inside the window the sheet never gets too warm.
    assert_eq!(at(17.0).cold.bench, None);
}

#[test]
fn more_trays_or_ovens_never_start_earlier() {
    let start = |kitchen| {
        let job = job_input().with(|j| j.order.pieces = 90);
        planned(job, kitchen, &lemon_thyme(), &round(65.0)).unwrap().clock.relay.start_min
    };
    let one = start(kitchen_input().with(|k| k.trays.trays_owned = 2));
    assert!(start(kitchen_input().with(|k| k.trays.trays_owned = 6)) >= one);
    assert!(
        start(kitchen_input().with(|k| {
            k.trays.trays_owned = 6;
            k.oven.ovens = 2;
        })) >= one
    );
}

#[test]
fn spread_follows_the_rim_and_the_balance_of_the_dough() {
    let soft = formula(&[("flour-ap", 200.0), ("butter", 100.0), ("sugar", 100.0), ("egg", 25.0)]);
    let firm = formula(&[("flour-ap", 300.0), ("butter", 100.0), ("sugar", 100.0), ("egg", 25.0)]);
    let of = |f: &Formula, cutter: &Outline| planned(job_input(), kitchen_input(), f, cutter).unwrap().oven;
    // Common practice, no source: chilled, 1:1:3 spreads 0-4 %, 1:1:2 2-8 %, of a round.
    let round = round(65.0);
    let spread = |f: &Formula| 100.0 * of(f, &round).forecast.unwrap().spread.value();
    assert!((0.0..4.0).contains(&spread(&firm)), "{}", spread(&firm));
    assert!((2.0..8.0).contains(&spread(&soft)), "{}", spread(&soft));
    // The band lies around the forecast, and nobody who has not baked it is told it closely.
    let band = of(&soft, &round).expected.spread;
    assert!(100.0 * band.0.value() < 0.7 * spread(&soft) && 100.0 * band.1.value() > 1.3 * spread(&soft));
    // A slender outline of the same width grows less: its rim stands for a smaller disc.
    assert!(of(&soft, &demo_cutter("gull", 65.0)).growth.1 < of(&soft, &round).growth.1);
}

#[test]
fn what_cannot_be_planned_is_said_by_field() {
    let said = |result: Result<Plan, InputErrors>| {
        let errors = result.expect_err("it cannot be planned");
        (errors.all()[0].field().to_owned(), errors.to_string())
    };
    let oil = formula(&[("flour-ap", 300.0), ("oil", 100.0), ("sugar", 100.0)]);
    let (field, text) = said(planned(job_input(), kitchen_input(), &oil, &round(65.0)));
    assert_eq!(field, "formula");
    assert!(text.contains("stays liquid"));
    let (field, text) = said(planned(job_input(), kitchen_input(), &lemon_thyme(), &round(390.0)));
    assert_eq!(field, "cutter");
    assert!(text.contains("fit the sheet"));
    let (field, _) = said(planned(
        job_input().with(|j| j.order.pieces = 20_000),
        kitchen_input().with(|k| k.mixing.mixer_limit_g = 100.0),
        &lemon_thyme(),
        &round(65.0),
    ));
    assert_eq!(field, "pieces");
    // A log is sliced at about 12.6 degC or colder: a fridge at 15 never gets it there.
    let warm_fridge = kitchen_input().with(|k| k.cold.fridge_c = 15.0);
    let making = Making::sliced(LogForm::Round, Length::new_mm(50.0));
    let job = job_input().with(|j| {
        j.shape.making = making;
        j.cold.chill_place = ColdPlace::Fridge;
    });
    let (field, text) = said(planned(job, warm_fridge, &lemon_thyme(), &round(65.0)));
    assert_eq!(field, "chill_place");
    assert!(text.contains("won\u{2019}t get ready there"), "{text}");
}

#[test]
fn ten_thousand_pieces_are_planned_and_quickly_enough_to_wait_for() {
    let kitchen = kitchen_input().with(|k| k.mixing.mixer_limit_g = 20_000.0);
    let plan = planned(job_input().with(|j| j.order.pieces = 10_000), kitchen, &lemon_thyme(), &round(40.0)).unwrap();
    assert_eq!(plan.shape.trays.fill.iter().sum::<u32>(), 10_000);
    assert!(plan.shape.trays.rounds > 10);
}

#[test]
fn the_dough_can_be_had_ready_when_it_is_wanted() {
    use ready_slab_core::job::wanted_ways;
    use ready_slab_core::units::Span;
    let (job, kitchen) = (Job::new(job_input()).unwrap(), Kitchen::new(kitchen_input()).unwrap());
    let plan = usual(job_input());
    let ways = |minutes| wanted_ways(&job, &kitchen, &plan, Span::new_min(minutes)).unwrap();
    // Common practice, no source: a disc takes the fridge half an hour or so, a sheet ten minutes; half a minute is no way.
    let hour = ways(60.0);
    assert_eq!(hour.iter().filter(|w| w.makes_it).count(), 4);
    assert!(matches!(hour[0].piece, Piece::Disc { .. }) && hour[0].place == ColdPlace::Fridge, "{hour:?}");
    let soon = ways(20.0);
    let disc = soon.iter().find(|w| matches!(w.piece, Piece::Disc { .. }) && w.place == ColdPlace::Fridge).unwrap();
    assert!(!disc.makes_it && disc.thickest.is_some_and(|t| t.mm() < 22.0 && t.mm() >= 10.0), "{disc:?}");
    assert!(soon.iter().any(|w| w.makes_it && matches!(w.piece, Piece::Sheet { .. })), "{soon:?}");
    assert!(wanted_ways(&job, &kitchen, &plan, Span::new_min(0.0)).is_err());
}

#[test]
fn a_new_job_is_made_like_another_without_what_was_that_ones_alone() {
    let now = job_input().order.ready_by;
    let wanted = usually_wanted(now);
    assert_eq!(wanted.to_string(), "2026-11-29 12:00:00");
    // As most are, it can be planned at once.
    let usual_one = JobInput::usual("New job", 1, 1, wanted);
    assert_eq!(usual(usual_one).dough.parts[0].pieces, 24);
    let before = job_input().with(|j| {
        j.dough.dough_c = Some(19.0);
        j.oven.goes_in_c = Some(5.0);
        j.order.freeze_pieces = 8;
        j.order.formula_version = Some(2);
        j.order.dough_with = Some(3);
        j.order.lot_of = Some(4);
        j.shape.thickness_mm = 8.0;
    });
    let next = before.again("Terns", wanted);
    assert_eq!((next.order.name.as_str(), next.shape.thickness_mm, next.order.pieces), ("Terns", 8.0, 48));
    let none =
        (next.dough.dough_c, next.oven.goes_in_c, next.order.formula_version, next.order.dough_with, next.order.lot_of);
    assert_eq!((none, next.order.freeze_pieces), ((None, None, None, None, None), 0));
    // At least one is baked, however few are ordered.
    let job = Job::new(before).unwrap();
    assert_eq!([1, 5, 9, 60].map(|pieces| job.frozen_of(pieces)), [0, 4, 8, 8]);
}

#[test]
fn what_is_left_when_the_start_has_passed_is_what_the_job_does_not_do_yet() {
    let left = |input: JobInput| usual(input).clock.when_late;
    assert_eq!(left(job_input()), [WhenLate::Later, WhenLate::InTheFreezer, WhenLate::AsSheets]);
    let cold = job_input().with(|j| {
        j.cold.chill_place = ColdPlace::Freezer;
        j.cold.dough_form = DoughForm::Sheets;
    });
    assert_eq!(left(cold), [WhenLate::Later]);
}
