//! Lots that are not cut: logs and portions, planned whole; and several lots of one job together.

use crate::bakehouse::{job_input, kitchen_input, lemon_thyme, planned, round, usual};
use ready_slab_core::clock::Step;
use ready_slab_core::cold::{Piece, Target};
use ready_slab_core::dough::{MixMethod, rolled_density};
use ready_slab_core::job::{
    GoesIn, Job, JobInput, KeptPiece, KeptSheet, Kin, Kitchen, Left, LotPlan, Making, OnSheets, PieceReason, Plan,
    Reason, SharedSheets, WaySizes, Whereabouts, changed_with, check_lot, check_shared_dough, dough_of, goes_along,
    keep_version_with, left_of, mixed_with, pan_fill, piece_outline, piece_size, pieces_from, plan_date,
    portion_outline, together, ways,
};
use ready_slab_core::shape::{Bent, LogForm, MixedFault, Portion, SheetKind};
use ready_slab_core::units::{Density, Length, Mass, Temperature};
use rstest::rstest;

fn mm(v: f64) -> Length {
    Length::new_mm(v)
}

fn kitchen() -> Kitchen {
    Kitchen::new(kitchen_input()).unwrap()
}

fn lot(making: Making, pieces: u32, thickness_mm: f64) -> Job {
    Job::new(job_input().with(|j| {
        j.shape.making = making;
        j.order.pieces = pieces;
        j.shape.thickness_mm = thickness_mm;
    }))
    .unwrap()
}

fn plan_of(job: &Job) -> Plan {
    let formula = lemon_thyme();
    let outline = piece_outline(job, &formula, &round(65.0)).unwrap();
    planned(job.input().clone(), kitchen_input(), &formula, &outline).unwrap()
}

fn log(pieces: u32) -> Job {
    lot(Making::sliced(LogForm::Round, mm(48.0)), pieces, 6.0)
}

#[test]
fn sixty_slices_take_two_logs_of_thirty() {
    let job = log(60);
    let plan = plan_of(&job);
    let density = rolled_density(&lemon_thyme().composition(), MixMethod::JustCombined).kg_m3();
    // By hand: 290 usable mm hold 48 slices of 6 mm, so 60 take two logs of 30, each 190 mm with its trimmed ends.
    let roll = &plan.shape.demand.rolls[0];
    assert_eq!((roll.sheets, roll.form.extent().1.mm()), (2, 190.0));
    let each = std::f64::consts::PI / 4.0 * 48.0 * 48.0 * 190.0 * density / 1e6;
    assert!((roll.mass.g() - each).abs() < 1e-6);
    assert!((plan.shape.demand.dough.g() - 2.0 * each * 1.03).abs() < 1e-6);
    assert_eq!((plan.cold.form.piece, plan.cold.form.count), (Piece::Log { diameter: mm(48.0) }, 2));
    // Slices lie on trays as rounds of 48 mm and go straight into the oven.
    assert_eq!(plan.shape.trays.fill.iter().sum::<u32>(), 60);
    assert!((plan.oven.width.mm() - 48.0).abs() < 0.1);
    assert!(plan.clock.relay.tasks.iter().filter(|t| t.step == Step::TrayChill).all(|t| !t.why.is_empty()));
}

#[test]
fn thirty_balls_weigh_thirty_balls_and_a_reserve() {
    let job = lot(Making::Portioned(Portion::Ball { mass: Mass::new_g(30.0) }), 30, 6.0);
    let plan = plan_of(&job);
    assert!((plan.shape.demand.dough.g() - 30.0 * 30.0 * 1.03).abs() < 1e-6);
    assert_eq!((plan.cold.form.count, plan.dough.piece.g()), (30, 30.0));
    // A ball stands for a disc of its own volume, half as high as the ball.
    let Piece::Sphere { diameter } = plan.cold.form.piece else { panic!("{:?}", plan.cold.form.piece) };
    let formula = lemon_thyme();
    let outline = piece_outline(&job, &formula, &round(65.0)).unwrap();
    let size = piece_size(&job, &outline, rolled_density(&formula.composition(), MixMethod::JustCombined)).unwrap();
    assert!((size.thickness.mm() - diameter.mm() / 2.0).abs() < 0.01, "{size:?} {diameter:?}");
}

#[test]
fn squares_of_a_tray_come_by_the_whole_tray() {
    let bar =
        Portion::TrayBar { width: mm(310.0), length: mm(440.0), depth: mm(15.0), corner: mm(0.0), columns: 4, rows: 6 };
    let plan = plan_of(&lot(Making::Portioned(bar), 30, 6.0));
    let roll = &plan.shape.demand.rolls[0];
    assert_eq!((roll.sheets, plan.shape.trays.fill.clone()), (2, vec![24, 6]));
    let density = rolled_density(&lemon_thyme().composition(), MixMethod::JustCombined).kg_m3();
    assert!((roll.mass.g() - 310.0 * 440.0 * 15.0 * density / 1e6).abs() < 1e-6);
    assert_eq!(plan.shape.trays.layout.pieces.len(), 24);
}

/// The walls of a pan hold the bar; one that is larger than the tray is refused by the side that is too long; and what a batch fills
/// is told as a thickness (common practice, no source: a pan is filled, not counted).
#[test]
fn a_bar_fills_its_pan_and_does_not_spread() {
    let bar = |width, length| Portion::TrayBar {
        width: mm(width),
        length: mm(length),
        depth: mm(15.0),
        corner: mm(0.0),
        columns: 4,
        rows: 6,
    };
    let job = lot(Making::Portioned(bar(310.0, 440.0)), 24, 6.0);
    let plan = plan_of(&job);
    assert_eq!((plan.oven.growth.1.mm(), plan.oven.expected.spread.1.value()), (0.0, 0.0));
    assert!(plan.oven.reasons.contains(&Reason::Piece(PieceReason::FillsItsPan)));
    for (width, length, field) in [(330.0, 440.0, "making.width_mm"), (310.0, 457.0, "making.length_mm")] {
        let large = lot(Making::Portioned(bar(width, length)), 24, 6.0);
        let formula = lemon_thyme();
        let outline = piece_outline(&large, &formula, &round(65.0)).unwrap();
        let refused = planned(large.input().clone(), kitchen_input(), &formula, &outline).unwrap_err();
        assert_eq!(refused.all()[0].field(), field, "{refused}");
    }
    // Either way round is well.
    plan_of(&lot(Making::Portioned(bar(440.0, 310.0)), 24, 6.0));
    let pan = plan.shape.demand.rolls[0].mass;
    let little = pan_fill(pan * 0.96, &job, &lemon_thyme()).unwrap();
    assert!(little.pans == 1 && (little.depth.mm() - 14.4).abs() < 0.01, "{little:?}");
    let two = pan_fill(pan * 2.2, &job, &lemon_thyme()).unwrap();
    assert!(two.pans == 2 && (two.depth.mm() - 16.5).abs() < 0.01, "{two:?}");
    assert_eq!(pan_fill(pan, &log(60), &lemon_thyme()), None);
}

/// A figure is shaped part by part and a rope is rolled and bent: both take longer than a ball of their mass. Common practice, no source.
#[test]
fn shaping_takes_as_long_as_its_parts() {
    let forms = |portion: Portion| {
        let plan = plan_of(&lot(Making::Portioned(portion), 24, 6.0));
        plan.clock.relay.tasks.iter().filter(|t| t.step == Step::Form).map(|t| t.end_min - t.start_min).sum::<i64>()
    };
    let ball = forms(Portion::Ball { mass: Mass::new_g(24.0) });
    assert_eq!(ball, 3);
    assert_eq!(forms(Portion::Figure { parts: [12.0, 6.0, 6.0].map(Mass::new_g).to_vec() }), 18);
    assert_eq!(forms(Portion::Rope { across: mm(12.0), length: mm(90.0), bent: Bent::Straight }), 8);
    // 20 s to roll one out, 20 more to knot it.
    assert_eq!(forms(Portion::Rope { across: mm(12.0), length: mm(240.0), bent: Bent::Knot }), 16);
}

/// Common practice, no source: a ring's middle line is as long as its rope; a crescent of a rope of 100 mm lies 75 to 90 mm wide; a knot of 240 mm
/// about 100 by 77 mm.
#[test]
fn a_rope_lies_on_the_tray_as_it_is_bent() {
    let density = Density::new_kg_m3(1210.0);
    let of = |length: f64, bent| {
        let rope = Portion::Rope { across: mm(12.0), length: mm(length), bent };
        let outline = portion_outline(&rope, density).unwrap();
        let (w, h) = outline.extent();
        (w.mm(), h.mm(), outline)
    };
    let (w, h, ring) = of(120.0, Bent::Ring);
    assert!(
        (w - (120.0 / std::f64::consts::PI + 12.0)).abs() < 0.2 && (w - h).abs() < 0.2 && ring.holes().len() == 1,
        "{w} {h}"
    );
    // Bending loses no dough: a ring's area is its rope's.
    assert!((ring.area().mm2() - 120.0 * 12.0).abs() < 8.0, "{}", ring.area().mm2());
    let (w, h, crescent) = of(100.0, Bent::Crescent);
    assert!((75.0..90.0).contains(&w) && (30.0..45.0).contains(&h), "{w} {h}");
    assert!((0.75..1.0).contains(&(crescent.area().mm2() / 1200.0)));
    let (w, h, knot) = of(240.0, Bent::Knot);
    assert!((w - 100.8).abs() < 0.5 && (70.0..78.0).contains(&h) && knot.holes().len() == 1, "{w} {h}");
}

#[test]
fn a_figures_parts_lie_where_they_touch_and_its_thickest_decides() {
    let density = Density::new_kg_m3(1210.0);
    let bear = Portion::Figure { parts: [20.0, 8.0, 2.0, 2.0].map(Mass::new_g).to_vec() };
    let outline = portion_outline(&bear, density).unwrap();
    let (w, h) = outline.extent();
    // In a row its balls would be 31.6 + 23.3 + 14.7 + 14.7 mm; put together it is higher than wide, its ears a little wider apart than its body.
    assert!(h > w && (36.0..46.0).contains(&w.mm()) && (50.0..80.0).contains(&h.mm()), "{w:?} {h:?}");
    let job = lot(Making::Portioned(bear), 12, 6.0);
    let size = piece_size(&job, &outline, density).unwrap();
    assert!((size.thickness.mm() - 31.6 / 2.0).abs() < 0.2, "{:?}", size.thickness);
}

#[rstest]
#[case(log(60))]
#[case(lot(Making::sliced(LogForm::HalfRound, mm(50.0)), 40, 7.0))]
#[case(lot(Making::sliced(LogForm::Wedge { height_to_width: 0.8 }, mm(50.0)), 40, 7.0))]
#[case(lot(Making::sliced(LogForm::Oblong { height_to_width: 0.6 }, mm(60.0)), 40, 7.0))]
#[case(lot(Making::Portioned(Portion::Scoop { number: 40, weighs: None }), 36, 6.0))]
#[case(lot(Making::Portioned(Portion::Rope { across: mm(12.0), length: mm(90.0), bent: Bent::Straight }), 36, 6.0))]
#[case(lot(Making::Portioned(Portion::Rope { across: mm(12.0), length: mm(100.0), bent: Bent::Crescent }), 36, 6.0))]
#[case(lot(Making::Portioned(Portion::Rope { across: mm(12.0), length: mm(120.0), bent: Bent::Ring }), 36, 6.0))]
#[case(lot(Making::Portioned(Portion::Thumbprint { mass: Mass::new_g(25.0), dent: mm(20.0), deep: mm(8.0) }), 36, 6.0))]
#[case(lot(Making::Portioned(Portion::Pressed { mass: Mass::new_g(25.0), thickness: mm(8.0) }), 36, 6.0))]
fn every_way_of_making_is_planned_whole(#[case] job: Job) {
    let plan = plan_of(&job);
    let (formula, kitchen) = (lemon_thyme(), kitchen());
    let outline = piece_outline(&job, &formula, &round(65.0)).unwrap();
    // The dough accounts for itself, and what it yields is what was asked.
    let d = &plan.shape.demand;
    let cut = plan.dough.piece.g() * f64::from(job.input().order.pieces);
    assert!((d.dough.g() - d.reserve.g() - d.left.g() - cut).abs() < 1e-6);
    assert!(d.left.g() > -1e-9);
    let dough = dough_of(&job, &formula, &outline, &kitchen, None).unwrap();
    let back = pieces_from(dough + Mass::new_g(1e-6), &job, &formula, &outline, &kitchen).unwrap();
    assert!(back >= job.input().order.pieces, "{back}");
    // Its mass is its outline at its height.
    let size = piece_size(&job, &outline, plan.dough.density).unwrap();
    assert!((outline.area().mass_at(size.thickness, plan.dough.density).g() - size.mass.g()).abs() < 1e-6);
    // The ways to chill it are its own form in both places, one of them the plan's.
    let found = ways(&job, &kitchen, &plan, &WaySizes::default()).unwrap();
    assert_eq!((found.len(), found.iter().filter(|w| w.chosen).count()), (2, 1));
}

#[test]
fn sizes_no_hand_makes_are_named() {
    let fault = |making| {
        let all = Job::new(job_input().with(|j| j.shape.making = making)).unwrap_err();
        all.all()[0].field().to_owned()
    };
    assert_eq!(fault(Making::sliced(LogForm::Round, mm(300.0))), "making.width_mm");
    assert_eq!(fault(Making::Portioned(Portion::Scoop { number: 1, weighs: None })), "making.scoop");
}

#[test]
fn lots_of_one_job_share_hands_and_oven_and_like_pieces_a_tray() {
    let (rounds, slices) = (lot(Making::Cut, 20, 6.0), log(20));
    let thick = lot(Making::Cut, 10, 12.0);
    let plans = [usual(rounds.input().clone()), plan_of(&slices), plan_of(&thick)];
    let lots: Vec<LotPlan> = [&rounds, &slices, &thick]
        .into_iter()
        .zip(&plans)
        .enumerate()
        .map(|(i, (job, plan))| LotPlan { job, plan, mixed_by: (i > 0).then_some(0) })
        .collect();
    let found = together(&kitchen(), &lots, plan_date(&kitchen(), &lots, None).relay, vec![]);
    // 6 mm slices are done a little before 6 mm rounds; 12 mm take longer by more than 12 %.
    assert_eq!(found.classes.iter().map(|c| c.lots.clone()).collect::<Vec<_>>(), vec![vec![1, 0], vec![2]]);
    assert!(
        found.reasons.iter().any(|r| matches!(r, Reason::MayShareATray { lots, .. } if lots.len() == 2)),
        "{:?}",
        found.reasons
    );
    // Another dough never lies on the same tray.
    let apart: Vec<LotPlan> = lots.iter().map(|l| LotPlan { mixed_by: None, ..*l }).collect();
    assert_eq!(together(&kitchen(), &apart, plan_date(&kitchen(), &apart, None).relay, vec![]).classes.len(), 3);
    // The lots begin no later together than the latest alone, and are all done at the wanted time.
    let alone = plans.iter().map(|p| p.clock.relay.start_min).min().unwrap();
    assert!(found.relay.start_min <= alone);
    assert_eq!(found.relay.tasks.iter().map(|t| t.end_min).max(), Some(0));
    let mixes = found.relay.tasks.iter().filter(|t| t.step == Step::Mix).map(|t| t.lot).collect::<Vec<_>>();
    assert!(mixes.iter().all(|&lot| lot == 0), "one dough, mixed by the first lot: {mixes:?}");
}

#[test]
fn a_sheet_is_no_larger_than_the_tray_the_paper_or_what_is_set() {
    let first = |job: JobInput| usual(job).shape.demand.rolls[0].clone();
    let full = first(job_input());
    let small = first(job_input().with(|j| {
        j.shape.sheet_width_mm = Some(250.0);
        j.shape.sheet_length_mm = Some(300.0);
    }));
    assert!(small.form.extent().0.mm() <= 250.0 && small.form.extent().1.mm() <= 300.0 && small.sheets > full.sheets);
    let wide = first(job_input().with(|j| j.shape.sheet_width_mm = Some(900.0)));
    assert_eq!(wide.form.extent().0.mm(), 310.0, "the tray takes no wider one");
}

#[rstest]
#[case(SheetKind::Round)]
#[case(SheetKind::Oval)]
fn round_and_oval_sheets_are_planned_with_re_rolls(#[case] sheet: SheetKind) {
    let plan = usual(job_input().with(|j| j.shape.sheet = sheet));
    let d = &plan.shape.demand;
    assert_eq!(d.rolls.iter().map(|r| r.pieces).sum::<u32>(), 48);
    assert!(d.rolls.len() > 1, "their scrap is rolled again");
    for roll in &d.rolls {
        // A gram is a gram: the form's area at 6 mm is the dough on it.
        let mass = roll.form.area().mass_at(mm(6.0), plan.dough.density);
        assert!((mass.g() - roll.mass.g()).abs() < 0.01, "{roll:?}");
        assert!(roll.layout.least_gap.is_none_or(|g| g.mm() >= 2.95));
    }
}

#[test]
fn what_is_not_said_of_a_piece_is_as_the_plan_has_it() {
    let cold = |place| Whereabouts::Cold(place);
    let cut = usual(job_input());
    let job = Job::new(job_input()).unwrap();
    let first = GoesIn::default().as_planned(&job, &cut);
    assert_eq!((first.purpose, first.piece), (Target::Rolling, cut.cold.form.piece));
    assert_eq!((first.place, first.start), (cold(cut.cold.place), cut.dough.temperature));
    // For the oven it is the cut pieces on their tray.
    let again = GoesIn { purpose: Some(Target::Oven), ..GoesIn::default() }.as_planned(&job, &cut);
    let tray = cut.cold.tray_chill.as_ref().unwrap();
    assert_eq!((again.piece, again.start), (Piece::Sheet { thickness: job.thickness() }, tray.start));
    assert_eq!(again.place, cold(tray.place));
    // A log is chilled to be sliced, portions for the oven; what is said counts.
    let sliced = GoesIn::default().as_planned(&log(60), &plan_of(&log(60)));
    assert_eq!((sliced.purpose, sliced.piece), (Target::Slicing, Piece::Log { diameter: mm(48.0) }));
    let balls = lot(Making::Portioned(Portion::Ball { mass: Mass::new_g(30.0) }), 30, 6.0);
    assert_eq!(GoesIn::default().as_planned(&balls, &plan_of(&balls)).purpose, Target::Oven);
    let said = GoesIn { place: Some(Whereabouts::Bench), start: Some(Temperature::new_c(9.0)), ..GoesIn::default() };
    let went = said.as_planned(&job, &cut);
    assert_eq!((went.place, went.start.c()), (Whereabouts::Bench, 9.0));
}

/// Job and formula by number; lots of job 1, with nobody mixed.
fn kin(job: i64, formula: i64) -> Kin {
    Kin { job, formula, version: None, lot_of: (job != 1).then_some(1), dough_with: None }
}

// By hand: the rule is that one dough is mixed once.
#[test]
fn lots_of_one_formula_at_one_version_are_mixed_with_the_first_of_them() {
    let old = Kin { version: Some(2), ..kin(4, 7) };
    let outside = Kin { dough_with: Some(90), ..kin(5, 9) };
    let stale = Kin { dough_with: Some(1), ..kin(6, 10) };
    let family = [kin(1, 7), kin(2, 8), kin(3, 7), old, outside, stale, kin(7, 8)];
    assert_eq!(mixed_with(&family), [None, None, Some(1), None, Some(90), None, Some(2)]);
    let lead = Kin { dough_with: Some(90), ..kin(1, 7) };
    assert_eq!(mixed_with(&[lead, kin(2, 7)]), [Some(90), Some(1)]);
}

#[test]
fn a_bake_keeps_the_version_for_all_that_was_in_its_bowl() {
    let outside = Kin { lot_of: None, dough_with: Some(1), ..kin(8, 7) };
    let stranger = Kin { lot_of: None, ..kin(9, 7) };
    let pinned = Kin { version: Some(2), ..kin(4, 7) };
    let all = [kin(1, 7), kin(2, 8), kin(3, 7), pinned, outside, stranger];
    assert_eq!(keep_version_with(&kin(1, 7), &all), [1, 3, 8]);
    assert_eq!(keep_version_with(&stranger, &all), [9]);
    assert!(keep_version_with(&pinned, &all).is_empty());
}

#[rstest]
#[case(kin(2, 7), true, kin(1, 7), "mixed")]
#[case(kin(1, 7), false, kin(1, 7), "lot_of")]
#[case(kin(2, 7), false, kin(3, 7), "lot_of")]
#[case(kin(1, 7), false, Kin { lot_of: None, ..kin(9, 7) }, "lot_of")]
fn who_may_be_no_lot(#[case] own: Kin, #[case] sheets: bool, #[case] lead: Kin, #[case] field: &str) {
    let all = [kin(1, 7), kin(2, 7), kin(3, 7)];
    let faults = check_lot(&own, sheets, &lead, &all).unwrap_err();
    assert_eq!(faults.all()[0].field(), field);
    assert!(check_lot(&kin(4, 8), false, &kin(1, 7), &all).is_ok());
}

#[rstest]
#[case(kin(1, 7), kin(1, 7))]
#[case(kin(2, 7), Kin { dough_with: Some(1), ..kin(3, 7) })]
#[case(kin(2, 7), kin(1, 8))]
#[case(kin(5, 7), kin(1, 7))]
fn whose_dough_is_not_shared(#[case] own: Kin, #[case] with: Kin) {
    let all = [kin(1, 7), Kin { dough_with: Some(5), ..kin(4, 7) }];
    assert_eq!(check_shared_dough(&own, &with, &all).unwrap_err().all()[0].field(), "dough_with");
    assert!(check_shared_dough(&kin(2, 7), &kin(1, 7), &all).is_ok());
}

#[test]
fn a_job_goes_with_its_lots_and_what_was_shared_with_them_ends() {
    let all = [kin(1, 7), kin(2, 7), kin(3, 8), Kin { lot_of: None, dough_with: Some(2), ..kin(9, 7) }];
    let gone = goes_along(1, &all);
    assert_eq!(gone, [3, 2, 1]);
    assert_eq!(left_of(&all[3], std::iter::empty(), &gone), Left { dough_with: None, keeps_sheets: true });
    // A lot alone goes alone; the sheets that held its pieces go with it.
    let gone = goes_along(3, &all);
    assert_eq!(gone, [3]);
    assert_eq!(left_of(&all[0], [1, 3].into_iter(), &gone), Left { dough_with: None, keeps_sheets: false });
    assert_eq!(left_of(&all[3], [9].into_iter(), &gone), Left { dough_with: Some(2), keeps_sheets: true });
}

#[test]
fn shared_sheets_say_what_no_longer_holds() {
    let outline = round(60.0);
    let lot = |number: i64, formula: i64| {
        let input = job_input().with(|j| {
            j.order.pieces = 1;
            j.order.name = format!("lot {number}");
        });
        OnSheets { kin: kin(number, formula), job: Job::new(input).unwrap(), outline: outline.clone() }
    };
    let at = |job_id: i64, x_mm: f64| KeptPiece { job_id, x_mm, y_mm: 60.0, turn_deg: 0.0 };
    let sheet = KeptSheet { length_mm: 120.0, pieces: vec![at(1, 60.0), at(2, 160.0)] };
    let shared = SharedSheets { lots: vec![lot(1, 7), lot(2, 7)], sheets: vec![sheet.clone()] };
    let kitchen = Kitchen::new(kitchen_input()).unwrap();
    // Two equal rounds: half each.
    let own = shared.share(2, &kitchen).unwrap().unwrap();
    assert!((own.share.value() - 0.5).abs() < 1e-9 && own.pieces == 1);
    assert!(shared.share(3, &kitchen).is_none());
    let other = SharedSheets { lots: vec![lot(1, 7), lot(2, 8)], sheets: vec![sheet.clone()] };
    assert_eq!(other.share(1, &kitchen), Some(Err(MixedFault::NotAlike("lot 2".to_owned()))));
    let gone = SharedSheets { lots: vec![lot(1, 7)], sheets: vec![sheet] };
    assert_eq!(gone.share(1, &kitchen), Some(Err(MixedFault::LotGone)));
}

#[test]
fn a_change_of_one_lot_takes_along_what_has_to_follow() {
    let job = |formula_id: i64, lot_of: Option<i64>, dough_with: Option<i64>| {
        Job::new(job_input().with(|j| {
            j.order.formula_id = formula_id;
            j.order.lot_of = lot_of;
            j.order.dough_with = dough_with;
        }))
        .unwrap()
    };
    let family = [(1, job(7, None, None)), (2, job(7, Some(1), Some(1))), (3, job(8, Some(1), None))];
    let numbers = |changed: &[(i64, Job)]| changed.iter().map(|(n, _)| *n).collect::<Vec<_>>();
    // More pieces concern nobody else.
    let more = Job::new(family[1].1.input().clone().with(|j| j.order.pieces = 60)).unwrap();
    assert_eq!(numbers(&changed_with(&family, 2, &more).unwrap()), [2]);
    // All are wanted at one time.
    let ready_by = job_input().order.ready_by + chrono::Days::new(1);
    let later = Job::new(family[2].1.input().clone().with(|j| j.order.ready_by = ready_by)).unwrap();
    let changed = changed_with(&family, 3, &later).unwrap();
    assert!(numbers(&changed) == [1, 2, 3] && changed.iter().all(|(_, j)| j.input().order.ready_by == ready_by));
    // The first lot takes another dough: the second mixes its own from then on.
    let changed = changed_with(&family, 1, &job(9, None, None)).unwrap();
    assert_eq!((numbers(&changed), changed[1].1.input().order.dough_with), (vec![1, 2], None));
    // One that joins is wanted when they are, and mixed with those of its dough.
    let joins = Job::new(job_input().with(|j| {
        j.order.ready_by = ready_by;
        j.order.lot_of = Some(1);
        j.order.formula_id = 8;
    }))
    .unwrap();
    let changed = changed_with(&family, 4, &joins).unwrap();
    assert_eq!((numbers(&changed), changed[0].1.input().order.dough_with), (vec![4], Some(3)));
    assert_eq!(changed[0].1.input().order.ready_by, job_input().order.ready_by);
    // A job without lots changes by itself.
    assert_eq!(numbers(&changed_with(&family[..1], 1, &later).unwrap()), [1]);
}
