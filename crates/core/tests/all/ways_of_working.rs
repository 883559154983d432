//! Whole jobs as different bakers do them, each with figures of common practice beside it. Where no source is named the figures are
//! common practice without one.

use crate::bakehouse::{job_input, kitchen_input, lemon_thyme, planned, round, usual as plan_of};
use ready_slab_core::clock::{Held, Step};
use ready_slab_core::cold::{Feeling, Piece, Target};
use ready_slab_core::finish::{Coat, FillingKind, Finish, GlazeWay, SugarCoat};
use ready_slab_core::job::{
    ChillFor, ColdPlace, DoughForm, GoesIn, Job, JobInput, Kitchen, Making, Plan, ReadyMeans, Reason, WaySizes,
    WhenLate, piece_outline, ways,
};
use ready_slab_core::shape::{Bent, LogForm, Portion};
use ready_slab_core::units::{Length, Mass};
use rstest::rstest;
use serde_json::Value;

fn minutes(plan: &Plan, step: Step) -> Vec<i64> {
    plan.clock.relay.tasks.iter().filter(|t| t.step == step).map(|t| t.end_min - t.start_min).collect()
}

fn has(plan: &Plan, wanted: impl Fn(&Reason) -> bool) -> bool {
    plan.cold.means.0.iter().chain(&plan.cold.means.1).any(wanted)
}

/// What the clock shows when the first of a step begins, hour and minute.
fn begins(job: &JobInput, plan: &Plan, step: Step) -> (u32, u32, i64) {
    use chrono::Timelike;
    let at = plan.clock.relay.tasks.iter().filter(|t| t.step == step).map(|t| t.start_min).min().unwrap();
    let local = plan.clock.zone.after(job.order.ready_by, at);
    (local.hour(), local.minute(), (job.order.ready_by.date() - local.date()).num_days())
}

#[test]
fn no_chill_at_all_costs_no_minute_and_says_what_it_does() {
    let chilled = plan_of(job_input());
    let at_once = job_input().with(|j| {
        j.cold.dough_for = Some(ChillFor::No);
        j.cold.pieces_for = Some(ChillFor::No);
    });
    let plan = plan_of(at_once);
    assert!(minutes(&plan, Step::Form).is_empty(), "nothing is pressed for the cold");
    assert!(minutes(&plan, Step::Chill).iter().all(|m| *m < 60), "it lies only while the hands are busy");
    assert_eq!((plan.clock.chill_min, plan.clock.lot.tray_chill_min), (0, 0));
    assert!(plan.clock.relay.start_min > chilled.clock.relay.start_min + 30, "it is begun later");
    assert!(has(&plan, |r| matches!(r, Reason::NotChilled { feels: Feeling::Tacky, .. })), "{:?}", plan.cold.means);
    assert!(has(&plan, |r| matches!(r, Reason::PiecesNotChilled { .. })));
    // Warm pieces spread a little more, of a dough with butter 1 to flour 3 by single points (common practice: 'a little').
    let spread = |p: &Plan| p.oven.forecast.as_ref().unwrap().spread.value() * 65.0 / 2.0;
    let more = spread(&plan) - spread(&chilled);
    assert!((0.0..3.0).contains(&more), "{more} mm more all round");
}

#[test]
fn quickest_good_way_rolls_soft_and_chills_the_pieces_on_their_tray() {
    // Fridge 10 to 15 min, freezer 5 to 10, of 6 mm that went in soft; the forecast allows for its slow end.
    for (place, from, to) in [(ColdPlace::Fridge, 10, 40), (ColdPlace::Freezer, 5, 20)] {
        let plan = plan_of(job_input().with(|j| {
            j.cold.dough_for = Some(ChillFor::No);
            j.cold.tray_chill_place = place;
        }));
        let min = plan.clock.lot.tray_chill_min;
        assert!((from..=to).contains(&min), "{place:?}: {min} min");
        assert_eq!(plan.clock.chill_min, 0);
        // They go in firm to the touch.
        let tray = plan.cold.tray_chill.as_ref().unwrap();
        assert!(tray.out.felt.c() < plan.cold.window.oven_ready.c() + 0.1 && tray.start.c() > 17.0);
    }
}

#[test]
fn sheets_rolled_first_are_cold_in_a_quarter_of_an_hour_and_stacked_ones_take_longer() {
    let of = |stack| {
        plan_of(job_input().with(|j| {
            j.cold.dough_form = DoughForm::Sheets;
            j.cold.sheet_stack = stack;
            j.order.pieces = 96;
        }))
    };
    let (one, two) = (of(1), of(2));
    // 13 to 20 min a sheet in the fridge.
    let ready = |p: &Plan| p.cold.answer.told().unwrap().ready;
    assert!((10..=25).contains(&ready(&one)), "{}", ready(&one));
    assert!(matches!(two.cold.form.piece, Piece::Stack { count: 2, .. }));
    assert!(ready(&two) > ready(&one) * 3 / 2, "{} against {}", ready(&two), ready(&one));
    assert_eq!(two.cold.form.count, one.cold.form.count.div_ceil(2));
}

#[test]
fn a_lump_overnight_is_mixed_the_evening_before_and_rests_before_it_is_rolled() {
    let job = job_input().with(|j| {
        j.cold.dough_form = DoughForm::Lump;
        j.cold.dough_for = Some(ChillFor::Overnight);
    });
    let plan = plan_of(job.clone());
    assert!(matches!(plan.cold.form.piece, Piece::Ball { .. }));
    let in_the_cold = plan.clock.chill_min;
    assert!((8 * 60..=48 * 60).contains(&in_the_cold), "{in_the_cold} min");
    let (hour, _, days) = begins(&job, &plan, Step::Chill);
    assert!(days == 1 && (15..22).contains(&hour), "in at {hour} h, {days} days before");
    // It comes out hard and rests 20 to 60 min as a lump; a little more is left to a cold kitchen.
    let rests = minutes(&plan, Step::Rest);
    assert!(!rests.is_empty() && rests.iter().all(|m| (15..=120).contains(m)), "{rests:?}");
    assert!(has(&plan, |r| matches!(r, Reason::ChilledOvernight { .. })));
    let chills = plan.clock.relay.tasks.iter().filter(|t| t.step == Step::Chill);
    for chill in chills {
        assert!(chill.why.iter().any(|why| matches!(why, Held::Chill(_))), "a night says why: {chill:?}");
    }
}

#[test]
fn an_evening_order_waits_from_the_evening_before_all_the_same() {
    let late = job_input().with(|j| {
        j.order.ready_by = job_input().order.ready_by.date().and_hms_opt(21, 0, 0).unwrap();
        j.cold.dough_for = Some(ChillFor::Overnight);
    });
    let plan = plan_of(late.clone());
    let (hour, _, days) = begins(&late, &plan, Step::Chill);
    assert!(days == 1 && (15..22).contains(&hour), "in at {hour} h, {days} days before");
}

#[test]
fn a_recipe_that_says_twenty_minutes_is_taken_at_its_word() {
    let plan = plan_of(job_input().with(|j| {
        j.cold.dough_for = Some(ChillFor::Exactly);
        j.cold.dough_for_min = 20.0;
    }));
    assert_eq!(plan.clock.chill_min, 20);
    // A 22 mm disc is not ready after 20 min (it takes 20 to 45): it says so, and how it feels then.
    let told = plan.cold.means.0.iter().find_map(|r| match r {
        Reason::ChilledFor { span, feels, ready: Some(ready), .. } => Some((*span, *feels, *ready)),
        _ => None,
    });
    let (span, feels, ready) = told.unwrap();
    assert!((span.min() - 20.0).abs() < 0.5 && ready.min() > 20.0);
    assert!(matches!(feels, Feeling::Tacky | Feeling::StillSetting), "{feels:?}");
    // At least two hours is two hours, though it is ready sooner; then it is hard and rests 5 to 15 min.
    let long = plan_of(job_input().with(|j| {
        j.cold.dough_for = Some(ChillFor::AtLeast);
        j.cold.dough_for_min = 150.0;
    }));
    assert_eq!(long.clock.chill_min, 150);
    let rests = minutes(&long, Step::Rest);
    assert!(rests.iter().any(|m| (3..=20).contains(m)), "{rests:?}");
}

#[test]
fn portions_come_from_a_bowl_that_was_half_an_hour_in_the_cold() {
    let ball = Making::Portioned(Portion::Ball { mass: Mass::new_g(20.0) });
    let bowl = job_input().with(|j| {
        j.shape.making = ball.clone();
        j.cold.dough_for = Some(ChillFor::Exactly);
        j.cold.dough_for_min = 30.0;
        j.cold.tray_chill_place = ColdPlace::Fridge;
    });
    let plan = plan_of(bowl.clone());
    assert!(matches!(plan.cold.form.piece, Piece::Ball { .. }), "the bowl goes in first: {:?}", plan.cold.form);
    assert_eq!(plan.clock.chill_min, 30);
    assert!(plan.cold.tray_chill.is_none(), "they may go straight in");
    // 48 balls at 6 s each are some 5 min of hands, after the bowl and not before.
    let hands: i64 = minutes(&plan, Step::Cut).iter().sum();
    assert!((4..=9).contains(&hands), "{hands} min");
    // Put back for ten minutes they are colder.
    let again = plan_of(bowl.with(|j| {
        j.cold.pieces_for = Some(ChillFor::Exactly);
        j.cold.pieces_for_min = 10.0;
    }));
    let tray = again.cold.tray_chill.as_ref().unwrap();
    assert_eq!(again.clock.lot.tray_chill_min, 10);
    assert!(tray.out.mean < plan.cold.out.mean + (plan.cold.out.mean - tray.out.mean) && tray.out.mean < tray.start);
    // Without the bowl's chill the portions are what goes in first, as before.
    let at_once = plan_of(job_input().with(|j| j.shape.making = ball));
    assert!(matches!(at_once.cold.form.piece, Piece::Sphere { .. }) && at_once.cold.tray_chill.is_none());
}

/// 48 pieces of a rope of 10 by 200 mm, twisted from a bowl that was half an hour in the cold: 20 s to roll one out and 20 to twist it, so some 32 min of
/// hands; each some 18 to 20 g; they lie about 90 mm long and two strands wide, and go in soft, which is what lets them bend.
#[test]
fn twisted_ropes_come_soft_from_a_chilled_bowl_and_take_the_hands_of_half_an_hour() {
    let twist = Portion::Rope { across: Length::new_mm(10.0), length: Length::new_mm(200.0), bent: Bent::Twist };
    let input = job_input().with(|j| {
        j.shape.making = Making::Portioned(twist);
        j.cold.dough_for = Some(ChillFor::Exactly);
        j.cold.dough_for_min = 30.0;
    });
    let outline = piece_outline(&Job::new(input.clone()).unwrap(), &lemon_thyme(), &round(65.0)).unwrap();
    let plan = planned(input, kitchen_input(), &lemon_thyme(), &outline).unwrap();
    let hands: i64 = minutes(&plan, Step::Cut).iter().sum();
    assert!((30..=38).contains(&hands), "{hands} min");
    assert!((17.0..21.0).contains(&plan.dough.piece.g()), "{}", plan.dough.piece.g());
    assert!((88.0..92.0).contains(&plan.oven.width.mm()), "{:?}", plan.oven.width);
    assert!(plan.cold.out.mean.c() > 12.0, "firm rope breaks where it is bent: {:?}", plan.cold.out);
    assert!(plan.shape.trays.fill.len() >= 2, "{:?}", plan.shape.trays.fill);
}

#[test]
fn a_log_twice_as_thick_takes_three_to_four_times_as_long() {
    let log = |across: f64| {
        let making = Making::sliced(LogForm::Round, Length::new_mm(across));
        plan_of(job_input().with(|j| {
            j.shape.making = making;
            j.cold.chill_place = ColdPlace::Fridge;
        }))
    };
    let (thin, thick) = (log(30.0), log(60.0));
    let ready = |p: &Plan| p.cold.answer.ready_after.unwrap().min();
    // Heat has twice as far to go through half the surface per mass: between 2 (film alone) and 4 (dough alone) times.
    let times = ready(&thick) / ready(&thin);
    assert!((2.0..=4.0).contains(&times), "{times}");
    // Two to four hours in the fridge for one of 50 to 60 mm.
    assert!((100.0..=260.0).contains(&ready(&thick)), "{} min", ready(&thick));
    assert!(thick.cold.tray_chill.is_none(), "slices of a firm log go straight in");
}

#[test]
fn a_bar_in_a_pan_needs_no_cold() {
    let bar = Making::Portioned(Portion::TrayBar {
        width: Length::new_mm(200.0),
        length: Length::new_mm(200.0),
        depth: Length::new_mm(12.0),
        corner: Length::new_mm(0.0),
        columns: 4,
        rows: 6,
    });
    let plan = plan_of(job_input().with(|j| {
        j.shape.making = bar;
        j.order.pieces = 24;
        j.cold.pieces_for = Some(ChillFor::No);
    }));
    assert_eq!(plan.clock.chill_min, 0);
    assert!(minutes(&plan, Step::Chill).is_empty() && minutes(&plan, Step::TrayChill).is_empty());
    // 12 mm takes 20 to 25 min at 175 degrees.
    let (least, most) = plan.oven.expected.bake;
    assert!(least.min() < 27.0 && most.min() > 18.0, "{least:?} to {most:?}");
}

#[rstest]
#[case("dough_for_min", job_input().with(|j| j.cold.dough_for_min = 0.0))]
#[case("pieces_for_min", job_input().with(|j| j.cold.pieces_for_min = 5_000.0))]
#[case("sheet_stack", job_input().with(|j| j.cold.sheet_stack = 9))]
fn what_cannot_be_is_refused_by_its_name(#[case] field: &str, #[case] input: JobInput) {
    let faults = Job::new(input).unwrap_err();
    assert_eq!(faults.all()[0].field(), field, "{faults}");
}

#[test]
fn a_place_that_never_makes_it_firm_stops_only_a_plan_that_waits_for_it() {
    let mild = |dough_for| {
        let kitchen = kitchen_input().with(|k| k.cold.fridge_c = 14.0);
        planned(
            job_input().with(|j| {
                j.cold.dough_for = dough_for;
                j.cold.tray_chill_place = ColdPlace::Freezer;
                j.shape.making = Making::sliced(LogForm::Round, Length::new_mm(50.0));
            }),
            kitchen,
            &lemon_thyme(),
            &round(65.0),
        )
    };
    assert!(mild(None).is_err(), "a log never slices at 12 degrees");
    assert!(mild(Some(ChillFor::Exactly)).is_ok() && mild(Some(ChillFor::No)).is_ok());
}

#[test]
fn a_slow_oven_and_a_hot_one_are_planned_by_common_practice_and_say_so() {
    // 6 mm: some 35 to 50 min at 120 degrees, three to six at 240. The forecast reaches from 140 to 220.
    for (oven_c, least, most) in [(120.0, 30.0, 60.0), (240.0, 3.0, 8.0)] {
        let plan = plan_of(job_input().with(|j| j.oven.oven_c = oven_c));
        assert!(plan.oven.forecast.is_none());
        assert!(plan.oven.warnings.iter().any(|r| matches!(r, Reason::BeyondTheForecast { .. })), "{oven_c}");
        let (from, to) = plan.oven.expected.practice.bake;
        assert!(from.min() >= least - 1.0 && to.min() <= most + 1.0 && from < to, "{oven_c}: {from:?} to {to:?}");
    }
    // What practice states falls with the heat without a jump, over all that may be set.
    let slow_end = |oven_c: f64| plan_of(job_input().with(|j| j.oven.oven_c = oven_c)).oven.expected.bake.1.min();
    let outside: Vec<f64> = [100.0, 110.0, 120.0, 130.0].map(slow_end).to_vec();
    assert!(outside.windows(2).all(|w| w[0] > w[1]), "{outside:?}");
}

#[test]
fn a_small_oven_is_warned_of_where_it_bakes() {
    let plan = |small_oven| {
        planned(job_input(), kitchen_input().with(|k| k.oven.small_oven = small_oven), &lemon_thyme(), &round(65.0))
            .unwrap()
    };
    assert!(
        plan(true).oven.warnings.contains(&Reason::SmallOven)
            && !plan(false).oven.warnings.contains(&Reason::SmallOven)
    );
}

#[test]
fn iced_and_packed_by_noon_is_iced_the_day_before_and_dries_through_the_night() {
    let noon = job_input().order.ready_by.date().and_hms_opt(12, 0, 0).unwrap();
    let job = job_input().with(|j| {
        j.order.ready_by = noon;
        j.order.ready_means = Some(ReadyMeans::Packed);
        j.finish.finishes = vec![Coat::usual_royal(false).into()];
        j.order.pieces = 24;
    });
    let plan = plan_of(job.clone());
    // Dry through in 8 to 12 h: nothing shorter is packed.
    let dry = minutes(&plan, Step::Dry);
    assert!(!dry.is_empty() && dry.iter().all(|m| *m >= 8 * 60), "{dry:?}");
    // 24 pieces at a minute each: a line and its flood.
    let hands: i64 = minutes(&plan, Step::Finish).iter().sum();
    assert!((20..=50).contains(&hands), "{hands} min");
    // Nobody ices at night: the last is done before ten in the evening, after all are cool.
    use chrono::Timelike;
    let of = |step| plan.clock.relay.tasks.iter().filter(move |t| t.step == step);
    let iced = of(Step::Finish).map(|t| t.end_min).max().unwrap();
    let at = plan.clock.zone.after(noon, iced);
    assert!(at.date() < noon.date() && (8..=22).contains(&at.hour()), "iced by {at}");
    for finish in of(Step::Finish) {
        let cool = of(Step::CoolOnRack).find(|c| c.tray == finish.tray).unwrap();
        assert!(cool.end_min <= finish.start_min, "{finish:?}");
    }
    assert_eq!(of(Step::Pack).map(|t| t.end_min).max(), Some(0));
    assert!(plan.clock.when_late.contains(&WhenLate::QuickerFinish), "what dries sooner is offered where it is late");
    // Of the same pieces, chocolate is dry within the hour: begun the same day.
    let dipped = plan_of(job.with(|j| {
        j.finish.finishes = vec![Coat::usual_dip().into()];
        j.order.ready_means = None;
    }));
    assert!(dipped.clock.relay.start_min > -8 * 60, "{}", dipped.clock.relay.start_min);
}

#[test]
fn ready_means_what_is_said() {
    let start = |ready_means, finishes: Vec<Finish>| {
        plan_of(job_input().with(|j| {
            j.order.ready_means = ready_means;
            j.finish.finishes = finishes;
        }))
        .clock
        .relay
        .start_min
    };
    let glazed = || vec![Finish::from(Coat::usual_glaze(GlazeWay::Spread, false))];
    let (out, cool) = (start(Some(ReadyMeans::Out), glazed()), start(Some(ReadyMeans::Cool), glazed()));
    let (finished, packed) = (start(Some(ReadyMeans::Finished), glazed()), start(Some(ReadyMeans::Packed), glazed()));
    assert!(out > cool && cool > finished && finished >= packed, "{out} {cool} {finished} {packed}");
    // Dry to the touch is hours before dry through: 1 to 2 h against a night.
    let touch = start(Some(ReadyMeans::TouchDry), glazed());
    assert!(cool > touch && touch - finished > 5 * 60, "{touch} against {finished}");
    // Until somebody says: cool where they stay plain or sugar went on before the bake, else finished and dry.
    assert_eq!(start(None, vec![]), start(Some(ReadyMeans::Cool), vec![]));
    assert_eq!(start(None, glazed()), finished);
    let sugared = plan_of(job_input().with(|j| j.finish.finishes = vec![Coat::Sugar(SugarCoat::Coarse).into()]));
    assert!(sugared.clock.relay.tasks.iter().all(|t| t.step != Step::Finish));
    // Pressed on before the bake, it takes its seconds at the tray.
    let cut = |p: &Plan| minutes(p, Step::Cut).iter().sum::<i64>();
    assert!(cut(&sugared) > cut(&plan_of(job_input())));
}

/// Taken, each way is what the plan then has: the form that goes in first, where, and that it is chilled.
#[rstest]
#[case(job_input())]
#[case(job_input().with(|j| j.cold.dough_for = Some(ChillFor::No)))]
#[case(job_input().with(|j| j.shape.making = Making::Portioned(Portion::Ball { mass: Mass::new_g(20.0) })))]
#[case(job_input().with(|j| j.shape.making = Making::sliced(LogForm::Round, Length::new_mm(40.0))))]
fn a_way_that_is_taken_is_the_plan(#[case] input: JobInput) {
    let (job, kitchen) = (Job::new(input.clone()).unwrap(), Kitchen::new(kitchen_input()).unwrap());
    let found = ways(&job, &kitchen, &plan_of(input.clone()), &WaySizes::default()).unwrap();
    let mut taken = 0;
    for way in found.iter().filter(|way| way.answer.never.is_none()) {
        let Some(change) = way.take else { continue };
        let mut sent = serde_json::to_value(&input).unwrap();
        let Value::Object(changes) = serde_json::to_value(change).unwrap() else { panic!("no object") };
        for (field, value) in changes {
            sent[field] = value;
        }
        let plan = plan_of(serde_json::from_value(sent).unwrap());
        // A stack holds no more sheets than there are.
        if !matches!(way.piece, Piece::Stack { .. }) {
            assert_eq!(plan.cold.form.piece, way.piece, "{}", way.key);
        }
        assert_eq!((plan.cold.place, plan.cold.stays), (way.place, ChillFor::Ready), "{}", way.key);
        taken += 1;
    }
    assert!(taken >= 2, "{:?}", found.iter().map(|w| &w.key).collect::<Vec<_>>());
    let chosen = found.iter().filter(|way| way.chosen).count();
    assert_eq!(chosen, usize::from(input.cold.dough_for != Some(ChillFor::No)), "what is not chilled is nobody's way");
}

#[test]
fn portions_of_a_chilled_bowl_are_followed_as_what_they_are() {
    let input = job_input().with(|j| {
        j.shape.making = Making::Portioned(Portion::Ball { mass: Mass::new_g(20.0) });
        j.cold.dough_for = Some(ChillFor::Exactly);
        j.cold.dough_for_min = 30.0;
        j.cold.pieces_for = Some(ChillFor::Exactly);
    });
    let (job, plan) = (Job::new(input.clone()).unwrap(), plan_of(input));
    // The bowl goes in to be portioned; what comes of it goes in as balls on their tray.
    let bowl = GoesIn::default().as_planned(&job, &plan);
    assert_eq!((bowl.purpose, bowl.piece), (Target::Rolling, plan.cold.form.piece));
    let balls = GoesIn { purpose: Some(Target::Oven), ..GoesIn::default() }.as_planned(&job, &plan);
    assert!(matches!(balls.piece, Piece::Sphere { .. }), "{balls:?}");
    assert_eq!(balls.start, plan.cold.tray_chill.as_ref().unwrap().start);
}

#[test]
fn a_pair_that_is_filled_takes_the_hands_of_one() {
    let hands = |coat: Coat| {
        minutes(&plan_of(job_input().with(|j| j.finish.finishes = vec![coat.into()])), Step::Finish).iter().sum::<i64>()
    };
    // 24 pairs at 12 s are 5 min, not ten; trays are rounded up each by itself.
    let filled = hands(Coat::usual_filling(FillingKind::Jam));
    assert!((5..=8).contains(&filled), "{filled}");
}

#[test]
fn what_goes_on_half_of_them_takes_half_the_hands_and_half_the_icing() {
    let royal = |pieces| Finish { pieces, ..Coat::usual_royal(false).into() };
    let hands = |finish: Finish| {
        let plan = plan_of(job_input().with(|j| j.finish.finishes = vec![finish]));
        (minutes(&plan, Step::Finish).iter().sum::<i64>(), plan.finish.coats[0].total.g())
    };
    let ((all_min, all_g), (half_min, half_g)) = (hands(royal(None)), hands(royal(Some(24))));
    // 48 pieces at a minute each, or 24 of them.
    assert!((48..=52).contains(&all_min) && (24..=28).contains(&half_min), "{all_min} {half_min}");
    assert!((half_g * 2.0 - all_g).abs() < 1e-6);
}
