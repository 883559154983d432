//! More ways in which bakers work: logs of dough that chilled as a lump, dough from the freezer, sheets cut on the tray's paper, stamped, spooned and
//! pricked pieces, long logs. Figures beside them are common practice without a source unless one is named.

use crate::bakehouse::{job_input, kitchen_input, lemon_thyme, planned, round, usual as plan_of};
use ready_slab_core::clock::{Lane, Step};
use ready_slab_core::dough::{Formula, LineInput, Pantry};
use ready_slab_core::job::{
    ChillFor, DoughForm, Job, JobInput, Kitchen, Making, PieceReason, Plan, Reason, Thaw, WhenLate, marbled,
    piece_outline,
};
use ready_slab_core::shape::{Bent, LogForm, Portion, Spoon};
use ready_slab_core::units::{Density, Length, Mass};
use rstest::rstest;

fn minutes(plan: &Plan, step: Step) -> Vec<i64> {
    plan.clock.relay.tasks.iter().filter(|t| t.step == step).map(|t| t.end_min - t.start_min).collect()
}

fn mm(v: f64) -> Length {
    Length::new_mm(v)
}

/// A job planned with its piece as it lies on the tray.
fn made(input: JobInput) -> Plan {
    let outline = piece_outline(&Job::new(input.clone()).unwrap(), &lemon_thyme(), &round(65.0)).unwrap();
    planned(input, kitchen_input(), &lemon_thyme(), &outline).unwrap()
}

fn log() -> JobInput {
    job_input().with(|j| j.shape.making = Making::sliced(LogForm::Round, mm(45.0)))
}

fn hour_before(job: &JobInput, plan: &Plan, step: Step) -> (u32, i64) {
    use chrono::Timelike;
    let at = plan.clock.relay.tasks.iter().find(|t| t.step == step).unwrap().start_min;
    let local = plan.clock.zone.after(job.order.ready_by, at);
    (local.hour(), (job.order.ready_by.date() - local.date()).num_days())
}

#[test]
fn a_log_of_dough_that_chilled_as_a_lump_chills_twice_one_after_the_other() {
    let at_once = plan_of(log());
    let plan = plan_of(log().with(|j| j.cold.bulk_for = ChillFor::Ready));
    let of = |step| plan.clock.relay.tasks.iter().filter(move |t| t.step == step).collect::<Vec<_>>();
    let (mix, bulk, form, chill) = (of(Step::Mix), of(Step::BulkChill), of(Step::Form), of(Step::Chill));
    assert!(mix[0].end_min <= bulk[0].start_min && bulk[0].end_min <= form[0].start_min);
    assert_eq!(form[0].end_min, chill[0].start_min);
    assert!(plan.clock.relay.start_min < at_once.clock.relay.start_min, "it is begun sooner");
    // Formed firm, it is ready sooner than one formed soft.
    let bulk = plan.cold.bulk.as_ref().unwrap();
    assert!((10.0..=20.0).contains(&bulk.formed.c()), "{bulk:?}");
    let ready = |p: &Plan| p.cold.answer.ready_after.unwrap().min();
    assert!(ready(&plan) < ready(&at_once), "{} against {}", ready(&plan), ready(&at_once));
    assert!(at_once.cold.bulk.is_none() && minutes(&at_once, Step::BulkChill).is_empty());
}

#[test]
fn a_lump_that_stays_overnight_before_its_logs_are_formed_goes_in_in_the_evening() {
    let job = log().with(|j| j.cold.bulk_for = ChillFor::Overnight);
    let plan = plan_of(job.clone());
    let (hour, days) = hour_before(&job, &plan, Step::BulkChill);
    assert!(days == 1 && (15..=21).contains(&hour), "{hour} o'clock, {days} days before");
    // 8 to 48 h, rest 20 to 60 min.
    assert!(minutes(&plan, Step::BulkChill).iter().all(|m| *m >= 8 * 60));
    let rest = plan.cold.bulk.as_ref().unwrap().rest_min;
    assert!((15..=70).contains(&rest), "{rest} min on the bench");
    // Cut pieces and portions have no such lump.
    assert!(plan_of(job_input().with(|j| j.cold.bulk_for = ChillFor::Ready)).cold.bulk.is_none());
}

#[test]
fn a_disc_from_the_freezer_thaws_overnight_in_the_fridge_or_within_the_hour_and_a_half_on_the_bench() {
    let frozen = |way| {
        job_input().with(|j| {
            j.cold.thaws = Some(way);
            j.cold.dough_form = DoughForm::Disc;
        })
    };
    // 45 to 90 min a disc on the bench.
    let bench = plan_of(frozen(Thaw::Bench));
    let thaw = bench.cold.thaw.unwrap();
    assert!((35.0..=90.0).contains(&thaw.span.min()), "{} min", thaw.span.min());
    assert!(minutes(&bench, Step::Mix).is_empty() && minutes(&bench, Step::Form).is_empty(), "nothing is mixed");
    assert!(minutes(&bench, Step::Thaw).iter().all(|m| *m >= thaw.span.min_up()));
    assert!(bench.clock.relay.tasks.iter().filter(|t| t.step == Step::Thaw).all(|t| t.lane == Lane::Cooling));
    let job = frozen(Thaw::Fridge);
    let fridge = plan_of(job.clone());
    assert!(minutes(&fridge, Step::Thaw).iter().all(|m| *m >= 8 * 60));
    let (hour, days) = hour_before(&job, &fridge, Step::Thaw);
    assert!(days == 1 && (15..=21).contains(&hour), "{hour} o'clock");
    // Rest 5 to 15 min as any hard disc.
    assert!((3.0..=25.0).contains(&fridge.cold.thaw.unwrap().span.min()));
    for plan in [&bench, &fridge] {
        assert!(plan.cold.means.0.contains(&Reason::NeverTwice) && plan.cold.flour_rest.min() == 0.0);
    }
    // Where its start has passed, the bench is what is left; it is neither rolled first nor put into the freezer.
    assert!(fridge.clock.when_late.contains(&WhenLate::ThawOnTheBench));
    let other = |w: &WhenLate| matches!(w, WhenLate::InTheFreezer | WhenLate::AsSheets);
    assert!(!bench.clock.when_late.iter().chain(&fridge.clock.when_late).any(other));
    // Portions that are formed of fresh dough do not come from a frozen disc.
    let balls = Making::Portioned(Portion::Ball { mass: Mass::new_g(25.0) });
    assert!(plan_of(frozen(Thaw::Bench).with(|j| j.shape.making = balls)).cold.thaw.is_none());
}

#[test]
fn a_sheet_cut_on_the_trays_paper_is_its_tray_and_nothing_is_moved() {
    let (usual, plan) = (plan_of(job_input()), plan_of(job_input().with(|j| j.shape.cut_in_place = true)));
    // 15 to 25 mm apart, as on the tray.
    let gap = plan.shape.demand.rolls[0].layout.least_gap.unwrap().mm();
    assert!((15.0..=30.0).contains(&gap), "{gap} mm");
    let sheets: u32 = plan.shape.demand.rolls.iter().map(|r| r.sheets).sum();
    assert_eq!(plan.shape.trays.fill.iter().sum::<u32>(), 48);
    assert!(plan.shape.trays.fill.len() <= usize::try_from(sheets).unwrap(), "every sheet is a tray");
    assert_eq!(plan.shape.trays.layout, plan.shape.demand.rolls[0].layout);
    // Wide gaps take more dough; hands are saved at 3 s a piece.
    assert!(plan.dough.dough > usual.dough.dough);
    assert!(plan.shape.reasons.iter().any(|r| matches!(r, Reason::Piece(PieceReason::CutInPlace { .. }))));
    assert!(!usual.shape.reasons.iter().any(|r| matches!(r, Reason::Piece(PieceReason::CutInPlace { .. }))));
    // A log knows no such thing.
    assert!(!Job::new(log().with(|j| j.shape.cut_in_place = true)).unwrap().cut_in_place());
}

#[test]
fn cutting_and_moving_take_the_hands_that_bakers_take() {
    // Roll a sheet 4 min, cut 6 s and move 3 s a piece, pull the scrap a minute a sheet: 48 pieces of one sheet and its re-rolls, 15 to 30 min.
    let hands: i64 = minutes(&plan_of(job_input()), Step::Cut).iter().sum();
    assert!((14..=32).contains(&hands), "{hands} min");
    let pricked: i64 = minutes(&plan_of(job_input().with(|j| j.shape.pricked = true)), Step::Cut).iter().sum();
    assert!(pricked > hands && pricked < hands + 6, "{pricked} against {hands}");
}

#[test]
fn thick_bars_are_told_to_be_pricked_and_thin_pieces_are_not() {
    let bar = |pricked| {
        let (width, length, depth) = (mm(200.0), mm(200.0), mm(14.0));
        let making =
            Making::Portioned(Portion::TrayBar { width, length, depth, corner: mm(20.0), columns: 4, rows: 6 });
        made(job_input().with(|j| {
            j.shape.making = making;
            j.order.pieces = 24;
            j.shape.pricked = pricked;
        }))
    };
    let told = |p: &Plan, wanted: fn(&Reason) -> bool| p.shape.reasons.iter().any(wanted);
    assert!(told(&bar(false), |r| matches!(r, Reason::Piece(PieceReason::ThickNotPricked))));
    // It tells when it is cut: warm where it is short or crisp.
    let oven = |r: &Reason| bar(true).oven.reasons.contains(r);
    assert!(
        oven(&Reason::Piece(PieceReason::PanEdgesAhead))
            && (oven(&Reason::Piece(PieceReason::CutWarm)) != oven(&Reason::Piece(PieceReason::CutCold)))
    );
    // By hand: a bar of 50 by 33.3 mm holds 3.3 squares of 22.5 mm.
    assert!(told(&bar(true), |r| matches!(r, Reason::Piece(PieceReason::PrickedSoOften { times: 3, .. }))));
    assert!(!told(&plan_of(job_input()), |r| matches!(r, Reason::Piece(PieceReason::ThickNotPricked))));
}

#[test]
fn a_relief_is_judged_by_the_spread_and_by_what_lifts_it() {
    let stamped = || {
        job_input().with(|j| {
            j.shape.making =
                Making::Portioned(Portion::Stamped { across: mm(60.0), thickness: mm(8.0), relief: mm(1.5) })
        })
    };
    let plan = made(stamped());
    assert!((plan.oven.question.piece.thickness.mm() - 7.25).abs() < 0.3, "{:?}", plan.oven.question.piece);
    let (spread, warnings) = (plan.oven.expected.spread.1.value(), &plan.oven.warnings);
    let holds = warnings.iter().any(|r| matches!(r, Reason::Piece(PieceReason::ReliefHolds { .. })));
    let fades = warnings.iter().any(|r| matches!(r, Reason::Piece(PieceReason::ReliefFades { .. })));
    assert_eq!((holds, fades), (spread < 0.08, spread >= 0.08), "{spread}");
    // 6 s to roll the ball, 5 to stamp it: 48 in 9 min.
    let hands: i64 = plan
        .clock
        .relay
        .tasks
        .iter()
        .filter(|t| t.lane == Lane::Hands && matches!(t.step, Step::Form | Step::Cut))
        .map(|t| t.end_min - t.start_min)
        .sum();
    assert!((8..=14).contains(&hands), "{hands} min");
    let lines: [LineInput; 4] =
        [("butter", 200.0).into(), ("sugar", 100.0).into(), ("flour-ap", 300.0).into(), ("baking-powder", 6.0).into()];
    let lifted = Formula::new("Lifted", &lines, Pantry::built_in()).unwrap();
    let outline = piece_outline(&Job::new(stamped()).unwrap(), &lifted, &round(65.0)).unwrap();
    let lifted = planned(stamped(), kitchen_input(), &lifted, &outline).unwrap();
    assert!(
        lifted.oven.warnings.contains(&Reason::Piece(PieceReason::PowderLiftsTheRelief))
            && !warnings.contains(&Reason::Piece(PieceReason::PowderLiftsTheRelief))
    );
}

#[rstest]
#[case(Portion::Rope { across: mm(10.0), length: mm(240.0), bent: Bent::Knot }, Some(Reason::Piece(PieceReason::CrossingsBakeLast)))]
#[case(Portion::Rope { across: mm(12.0), length: mm(100.0), bent: Bent::Crescent }, Some(Reason::Piece(PieceReason::ThinEndsAhead)))]
#[case(Portion::Rope { across: mm(12.0), length: mm(100.0), bent: Bent::Straight }, None)]
#[case(Portion::Figure { parts: vec![Mass::new_g(20.0), Mass::new_g(12.0), Mass::new_g(2.0)] }, Some(Reason::Piece(PieceReason::SmallPartsAhead)))]
fn what_is_thicker_in_places_is_warned_of(#[case] portion: Portion, #[case] warned: Option<Reason>) {
    let plan = made(job_input().with(|j| {
        j.shape.making = Making::Portioned(portion);
        j.order.pieces = 24;
    }));
    let about = [
        Reason::Piece(PieceReason::CrossingsBakeLast),
        Reason::Piece(PieceReason::ThinEndsAhead),
        Reason::Piece(PieceReason::SmallPartsAhead),
    ];
    let found: Vec<&Reason> = plan.oven.warnings.iter().filter(|r| about.contains(r)).collect();
    assert_eq!(found, warned.iter().collect::<Vec<_>>());
}

#[test]
fn long_logs_are_fewer_and_kept_ends_are_baked() {
    let of = |longest: f64, ends_kept| {
        let making = Making::Sliced { form: LogForm::Round, width: mm(45.0), longest: mm(longest), ends_kept };
        plan_of(job_input().with(|j| {
            j.shape.making = making;
            j.order.pieces = 160;
        }))
    };
    // By hand: 160 slices of 6 mm are 960 mm; of 290 mm usable four logs, of 490 two.
    let (short, long) = (of(300.0, false), of(500.0, false));
    assert_eq!((short.shape.demand.rolls[0].sheets, long.shape.demand.rolls[0].sheets), (4, 2));
    let (trimmed, kept) = (of(500.0, false), of(500.0, true));
    assert!(kept.dough.dough < trimmed.dough.dough);
    let fault = |longest: f64| {
        let making = Making::Sliced { form: LogForm::Round, width: mm(45.0), longest: mm(longest), ends_kept: false };
        Job::new(job_input().with(|j| j.shape.making = making)).unwrap_err().all()[0].field().to_owned()
    };
    assert_eq!(fault(600.0), "making.longest_mm");
}

#[test]
fn spoonfuls_are_planned_by_their_grams() {
    let spoon = |weighs| {
        let making = Making::Portioned(Portion::Spoon { spoon: Spoon::Tablespoon, heaped: false, weighs });
        made(job_input().with(|j| j.shape.making = making)).dough.piece.g()
    };
    // 14.8 mL at nine to nine and a half tenths of some 1.2 g/mL.
    assert!((14.8 * 0.9 * 1.05..=14.8 * 0.95 * 1.3).contains(&spoon(None)), "{}", spoon(None));
    assert!((spoon(Some(Mass::new_g(21.0))) - 21.0).abs() < 1e-9);
}

#[test]
fn scraps_of_two_doughs_give_what_their_masses_give() {
    let (job, kitchen) = (Job::new(job_input()).unwrap(), Kitchen::new(kitchen_input()).unwrap());
    let density = Density::new_kg_m3(1200.0);
    let of = |own: f64, other: f64| {
        marbled(&job, &round(65.0), &kitchen, (Mass::new_g(own), density), (Mass::new_g(other), density)).unwrap()
    };
    // By hand: 300 g at 1.2 g/mL and 6 mm are 417 cm2, 204 mm square: two rows of two or three rounds of 65 mm, 23.9 g each.
    let found = of(200.0, 100.0);
    assert!((4..=9).contains(&found.pieces) && (found.piece.g() - 23.9).abs() < 0.1, "{found:?}");
    assert!((found.other.value() - 1.0 / 3.0).abs() < 1e-9);
    assert!((found.piece.g() * f64::from(found.pieces) + found.left.g() - 300.0).abs() < 1e-6, "masses add");
    assert_eq!(of(6.0, 6.0).pieces, 0, "too little for one is none");
    // Scraps are cut on the bench, however the sheet was.
    let in_place = Job::new(job_input().with(|j| j.shape.cut_in_place = true)).unwrap();
    let both = (Mass::new_g(150.0), density);
    assert!(marbled(&in_place, &round(65.0), &kitchen, both, both).unwrap().pieces >= 4);
    let fault = |job: JobInput, own: f64| {
        let job = Job::new(job).unwrap();
        let both = (Mass::new_g(own), density);
        marbled(&job, &round(65.0), &kitchen, both, (Mass::new_g(100.0), density)).unwrap_err().all()[0]
            .field()
            .to_owned()
    };
    assert_eq!((fault(job_input(), 1.0), fault(log(), 100.0)), ("own_g".into(), "making".into()));
}
