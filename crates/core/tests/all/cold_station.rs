//! The cold station's answers for a job: other ways, a closer look, advice, what was learnt.

use crate::bakehouse::{job_input, kitchen_input, lemon_thyme, planned, round, usual};
use ready_slab_core::cold::{Lies, Never, Piece, PlaceKnowledge, Reading, Side, Spot, Target, chill_briefly, fit};
use ready_slab_core::error::Problem;
use ready_slab_core::job::{
    Advice, AdviceCaution, Because, BenchWork, ColdPlace, Enough, Followed, Headline, Job, Kitchen, LaidAt, Making,
    Measure, Plan, PowerState, Reason, Trouble, Way, WaySizes, When, Whereabouts, advise, follow, one_way, plan,
    question_of_way, ways,
};
use ready_slab_core::safety::Caution;
use ready_slab_core::shape::{LogForm, Portion};
use ready_slab_core::units::{Length, Mass, Span, Temperature, TemperatureDifference};
use rstest::rstest;

fn kitchen() -> Kitchen {
    Kitchen::new(kitchen_input()).unwrap()
}

fn job() -> Job {
    Job::new(job_input()).unwrap()
}

fn all_ways(sizes: &WaySizes) -> Vec<Way> {
    ways(&job(), &kitchen(), &usual(job_input()), sizes).unwrap()
}

fn way<'a>(of: &'a [Way], key: &str) -> &'a Way {
    of.iter().find(|w| w.key == key).unwrap_or_else(|| panic!("no {key}"))
}

fn ready_min(way: &Way) -> f64 {
    way.answer.ready_after.unwrap().min()
}

#[test]
fn the_ways_hold_the_one_chosen_and_agree_with_it() {
    let plan = usual(job_input());
    let all = all_ways(&WaySizes::default());
    assert_eq!(all.len(), 12);
    let chosen: Vec<_> = all.iter().filter(|w| w.chosen).collect();
    assert_eq!(chosen.iter().map(|w| w.key.as_str()).collect::<Vec<_>>(), ["disc-fridge"]);
    assert_eq!(chosen[0].answer.ready_after, plan.cold.answer.ready_after);
    assert!(all.windows(2).all(|w| ready_min(&w[0]) <= ready_min(&w[1])), "the quickest first");
}

#[test]
fn a_quarter_of_an_hour_and_overnight_are_both_right() {
    // Common practice, no source: a sheet is ready in minutes, a disc in a quarter to half an hour, a ball takes over an
    // hour; a 50 mm log 3 to 4 h in the fridge or about 1 h in the freezer, to slice; after a night all but slices must rest.
    let all = all_ways(&WaySizes::default());
    assert!(ready_min(way(&all, "sheets-fridge")) < 15.0);
    assert!((10.0..40.0).contains(&ready_min(way(&all, "disc-fridge"))));
    assert!(ready_min(way(&all, "ball-fridge")) > 60.0);
    assert!((90.0..240.0).contains(&ready_min(way(&all, "log-fridge"))), "{}", ready_min(way(&all, "log-fridge")));
    assert!((35.0..75.0).contains(&ready_min(way(&all, "log-freezer"))), "{}", ready_min(way(&all, "log-freezer")));
    let rest = |key: &str| way(&all, key).after_night.unwrap().min();
    assert!(rest("ball-fridge") > rest("disc-fridge") && rest("disc-fridge") > rest("sheets-fridge"));
    assert!(rest("sheets-fridge") > 0.0 && rest("log-fridge") == 0.0 && rest("log-freezer") > 0.0);
    // Hands: what is rolled before the chill need not be rolled after it.
    let hands = |key: &str| way(&all, key).hands;
    assert!(hands("sheets-fridge").0 > hands("ball-fridge").0 && hands("ball-fridge").1 > hands("sheets-fridge").1);
}

#[test]
fn spells_follow_one_another_and_change_where_the_answer_says() {
    for w in all_ways(&WaySizes::default()) {
        let spells = &w.spells;
        assert_eq!(spells[0].from.s(), 0.0, "{}", w.key);
        assert!(
            spells.windows(2).all(|p| p[0].to == Some(p[1].from) && p[0].from < p[1].from),
            "{}: {spells:?}",
            w.key
        );
        assert!(spells.last().unwrap().to.is_none());
        let (ready, past) = (w.answer.ready_after.unwrap(), w.answer.past_after);
        match spells.iter().find(|s| s.side == Side::Ready) {
            Some(spell) => assert_eq!((spell.from, spell.to), (ready, past), "{}", w.key),
            // A ball in the freezer: its rim is too hard before its middle is firm.
            None => assert!(past == Some(ready) && w.key == "ball-freezer", "{}", w.key),
        }
    }
}

#[rstest]
#[case::disc(|mm| WaySizes { disc: Some(Length::new_mm(mm)), ..WaySizes::default() }, "disc-fridge")]
#[case::log(|mm| WaySizes { log: Length::new_mm(mm), ..WaySizes::default() }, "log-fridge")]
#[case::bar(|mm| WaySizes { bar: (Length::new_mm(60.0), Length::new_mm(mm)), ..WaySizes::default() }, "bar-freezer")]
fn a_thicker_piece_is_later_and_sizes_out_of_range_are_named(#[case] sizes: fn(f64) -> WaySizes, #[case] key: &str) {
    let times: Vec<f64> = [16.0, 24.0, 40.0, 70.0].map(|mm| ready_min(way(&all_ways(&sizes(mm)), key))).to_vec();
    assert!(times.windows(2).all(|w| w[0] < w[1]), "{times:?}");
    let errors = ways(&job(), &kitchen(), &usual(job_input()), &sizes(300.0)).unwrap_err();
    assert!(errors.all()[0].field().ends_with("_mm"), "{errors}");
}

#[test]
fn a_closer_look_at_a_way_is_its_own_run() {
    let plan = usual(job_input());
    let all = all_ways(&WaySizes::default());
    let bar = way(&all, "bar-fridge");
    let question = question_of_way(&Job::new(job_input()).unwrap(), &kitchen(), &plan, bar).unwrap();
    assert_eq!(chill_briefly(&question).ready_after, bar.answer.ready_after);
    assert!(matches!(question.target(), Target::Slicing));
    let one = |key| one_way(&job(), &kitchen(), &plan, &WaySizes::default(), key).unwrap();
    assert_eq!(one(Some("bar-fridge")).unwrap().answer.ready_after, bar.answer.ready_after);
    assert_eq!(one(None).unwrap().key, "disc-fridge");
    assert!(one(Some("cube")).is_none());
}

fn advice(trouble: Trouble) -> Advice {
    let (job, dough, cutter) = (job(), lemon_thyme(), round(65.0));
    let replan = |kitchen: &Kitchen| plan(&job, &dough, &cutter, kitchen);
    advise(&job, &kitchen(), &usual(job_input()), trouble, &replan).unwrap()
}

fn takes(advice: &Advice, what: fn(&Measure) -> bool) -> f64 {
    let found = advice.remedies.iter().find(|r| what(&r.what)).unwrap_or_else(|| panic!("none such: {advice:?}"));
    found.takes.unwrap_or_else(|| panic!("it takes no time: {advice:?}")).min()
}

#[test]
fn too_warm_now_is_answered_with_minutes_for_each_way_out() {
    let a = advice(Trouble::TooWarm { core: Temperature::new_c(22.0) });
    let Headline::TooWarm { by, core, target: Target::Rolling, to } = a.headline else { panic!("{a:?}") };
    assert!(core.c() == 22.0 && (by.k() - (core - to).k()).abs() < 1e-9 && (by.k() - 4.3).abs() < 0.05, "{a:?}");
    let in_fridge = takes(&a, |m| matches!(m, Measure::AsItIs(ColdPlace::Fridge)));
    assert!(takes(&a, |m| matches!(m, Measure::AsItIs(ColdPlace::Freezer))) < in_fridge);
    assert!(takes(&a, |m| matches!(m, Measure::Pressed { to } if to.mm() == 11.0)) < in_fridge);
    // A tray cold enough for a minute is no cure: fat sets over minutes.
    let tray = a.remedies.iter().find(|r| r.what == Measure::OnAFrozenTray).unwrap();
    assert!(
        tray.takes.is_none_or(|t| t.min() < 10.0)
            && (tray.takes.is_some() || matches!(tray.why[0], Because::NotFirmEnough { .. })),
        "{tray:?}"
    );
    assert!(
        a.remedies
            .windows(2)
            .all(|w| w[0].takes.unwrap_or(Span::new_min(1e4)) <= w[1].takes.unwrap_or(Span::new_min(1e4)))
    );
    assert!(a.caution.is_none());
    let hot = advice(Trouble::TooWarm { core: Temperature::new_c(29.0) });
    assert!(matches!(hot.caution, Some(AdviceCaution::FatHasRun(above)) if above.c() < 29.0));
    let not = advice(Trouble::TooWarm { core: Temperature::new_c(14.0) });
    assert!(matches!(not.headline, Headline::NotTooWarm { .. }) && not.remedies.is_empty());
}

#[test]
fn too_hard_is_rested_and_halves_rest_shorter() {
    let a = advice(Trouble::TooHard { dough: Temperature::new_c(4.0) });
    // Common practice, no source: a few minutes up to half an hour.
    let whole = takes(&a, |m| matches!(m, Measure::RestOnTheBench { .. }));
    assert!((4.0..30.0).contains(&whole), "{whole}");
    assert!(takes(&a, |m| matches!(m, Measure::SplitInTwo { .. })) < whole);
    assert!(advice(Trouble::TooHard { dough: Temperature::new_c(14.0) }).remedies.is_empty());
}

#[test]
fn a_hot_room_shortens_the_bench_and_a_frozen_tray_lengthens_it() {
    let hot = advice(Trouble::WarmRoom { room: Temperature::new_c(29.0) });
    let Headline::Lasts { room, work: BenchWork::Sheet(thickness), .. } = hot.headline else { panic!("{hot:?}") };
    assert_eq!((room.c(), thickness.mm()), (29.0, 6.0));
    assert!(hot.remedies.iter().any(|r| r.what == Measure::CutOnAFrozenTray));
    assert!(hot.caution.is_some());
    let errors =
        advise(&job(), &kitchen(), &usual(job_input()), Trouble::WarmRoom { room: Temperature::new_c(60.0) }, &|k| {
            plan(&job(), &lemon_thyme(), &round(65.0), k)
        })
        .unwrap_err();
    assert_eq!(errors.all()[0].field(), "room_c");
}

#[test]
fn a_full_fridge_has_four_ways_round_it() {
    let a = advice(Trouble::NoSpace);
    let ways: [fn(&Measure) -> bool; 5] = [
        |m| matches!(m, Measure::TakeTurns { .. }),
        |m| matches!(m, Measure::Stacked { .. }),
        |m| *m == Measure::FreezerInstead,
        |m| *m == Measure::CoolBox,
        |m| matches!(m, Measure::Cellar { .. }),
    ];
    assert!(ways.iter().all(|way| a.remedies.iter().any(|r| way(&r.what))), "{a:?}");
}

#[test]
fn without_power_a_shut_fridge_keeps_the_dough_for_some_hours() {
    let out =
        |hours: f64| advice(Trouble::PowerOut { ago: Span::new_min(hours * 60.0), dough: Temperature::new_c(4.0) });
    // USDA FSIS, from memory: a shut fridge keeps food cold for about four hours.
    assert!(
        out(1.0).remedies.iter().any(|r| matches!(r.what, Measure::BakeBy { when: When::In(_) })),
        "{:?}",
        out(1.0)
    );
    assert!(out(11.0).remedies.iter().any(|r| matches!(r.what, Measure::ThrowItOut { .. })), "{:?}", out(11.0));
    assert_eq!(out(1.0).caution, Some(AdviceCaution::Raw(Caution::PowerOff)));
}

/// Advice for a job made another way.
fn advice_for(making: Making, trouble: Trouble) -> (Plan, Advice) {
    let input = job_input().with(|j| j.shape.making = making);
    let (job, plan_of) = (Job::new(input.clone()).unwrap(), usual(input));
    let replan = |kitchen: &Kitchen| plan(&job, &lemon_thyme(), &round(65.0), kitchen);
    let found = advise(&job, &kitchen(), &plan_of, trouble, &replan).unwrap();
    (plan_of, found)
}

#[test]
fn an_outage_is_followed_for_as_long_as_it_lasts_in_fridge_and_freezer() {
    let out = |place: ColdPlace, hours: f64, dough_c: f64| {
        let input = job_input().with(|j| j.cold.chill_place = place);
        let (job, plan_of) = (Job::new(input.clone()).unwrap(), usual(input));
        let trouble = Trouble::PowerOut { ago: Span::new_min(hours * 60.0), dough: Temperature::new_c(dough_c) };
        let replan = |kitchen: &Kitchen| plan(&job, &lemon_thyme(), &round(65.0), kitchen);
        advise(&job, &kitchen(), &plan_of, trouble, &replan).unwrap()
    };
    // After three days nothing that was cold is, and nobody is told that it is.
    for (place, dough_c) in [(ColdPlace::Fridge, 4.0), (ColdPlace::Freezer, -18.0)] {
        let a = out(place, 72.0, dough_c);
        assert!(matches!(a.remedies[0].what, Measure::ThrowItOut { .. }), "{a:?}");
        assert!(!a.remedies.iter().any(|r| matches!(r.what, Measure::StaysCold { .. })), "{a:?}");
        assert!(matches!(a.headline, Headline::PowerIsOff { state: PowerState::Spent, .. }), "{a:?}");
    }
    // A shut freezer after a day still is cold (USDA FSIS, from memory: a full one for two days).
    let a = out(ColdPlace::Freezer, 12.0, -18.0);
    assert!(!a.remedies.iter().any(|r| matches!(r.what, Measure::ThrowItOut { .. })), "{a:?}");
    // The two-hour limit is where it says: an hour before it there is an hour left.
    let until = |hours: f64| {
        let a = out(ColdPlace::Fridge, hours, 4.0);
        let ends = |m: &Measure| matches!(m, Measure::BakeBy { .. } | Measure::ThrowItOut { .. });
        a.remedies.iter().map(|r| r.what).find(ends).unwrap()
    };
    assert!(matches!(until(1.0), Measure::BakeBy { when: When::In(_) }), "{:?}", until(1.0));
    assert!(matches!(until(4.0), Measure::ThrowItOut { .. }), "{:?}", until(4.0));
    // Dough that went in warm has been out of the cold all along.
    let warm = out(ColdPlace::Fridge, 2.5, 20.0).remedies[0].what;
    assert!(matches!(warm, Measure::ThrowItOut { limit, .. } if limit.min() == 120.0), "{warm:?}");
}

#[test]
fn a_log_is_advised_by_the_knife_and_a_portion_by_the_oven() {
    let log = Making::sliced(LogForm::Round, Length::new_mm(50.0));
    let c = |c: f64| Temperature::new_c(c);
    // From the fridge a log slices: it is not too cold, and needs no rest.
    let (plan_of, cold) = advice_for(log.clone(), Trouble::TooHard { dough: c(4.0) });
    assert!(matches!(cold.headline, Headline::NotTooCold { .. }) && cold.remedies.is_empty(), "{cold:?}");
    let (_, warm) = advice_for(log.clone(), Trouble::TooWarm { core: c(14.0) });
    assert!(matches!(warm.headline, Headline::TooWarm { target: Target::Slicing, .. }), "{warm:?}");
    let of_a_sheet = |m: &Measure| matches!(m, Measure::OnAFrozenTray | Measure::RolledBetweenPapers { .. });
    assert!(!warm.remedies.iter().any(|r| of_a_sheet(&r.what)), "{warm:?}");
    // What the plan says of a night is what the ways say.
    let ways_say = ways(
        &Job::new(job_input().with(|j| j.shape.making = log.clone())).unwrap(),
        &kitchen(),
        &plan_of,
        &WaySizes::default(),
    )
    .unwrap();
    assert_eq!(plan_of.cold.tempering_after_night, way(&ways_say, "log-fridge").after_night);
    assert!(
        plan_of.cold.bench <= plan_of.cold.bench_longest,
        "{:?} {:?}",
        plan_of.cold.bench,
        plan_of.cold.bench_longest
    );
    let (_, room) = advice_for(log, Trouble::WarmRoom { room: c(30.0) });
    assert!(matches!(room.headline, Headline::Lasts { work: BenchWork::Slicing, .. }), "{room:?}");
    let cuts = |m: &Measure| matches!(m, Measure::CutOnAFrozenTray | Measure::RollBeforeTheChill);
    assert!(!room.remedies.iter().any(|r| cuts(&r.what)), "{room:?}");
    let ball = Making::Portioned(Portion::Ball { mass: Mass::new_g(20.0) });
    let (plan_of, hard) = advice_for(ball.clone(), Trouble::TooHard { dough: c(-18.0) });
    assert!(plan_of.cold.tray_chill.is_none() && matches!(hard.headline, Headline::AsFirmAsItMay { .. }), "{hard:?}");
    let (_, full) = advice_for(ball, Trouble::NoSpace);
    assert!(matches!(full.headline, Headline::MustGetTo { .. }), "{full:?}");
}

#[test]
fn no_advice_makes_a_cooling_out_of_a_warming_or_cuts_no_pieces() {
    let cold_bowl = job_input().with(|j| j.dough.dough_c = Some(12.0));
    let plan_of = usual(cold_bowl.clone());
    let job = Job::new(cold_bowl).unwrap();
    let replan = |kitchen: &Kitchen| plan(&job, &lemon_thyme(), &round(65.0), kitchen);
    let a = advise(&job, &kitchen(), &plan_of, Trouble::NoSpace, &replan).unwrap();
    assert!(matches!(a.headline, Headline::NoColdNeeded { .. }), "{a:?}");
    for room in [24.0, 30.0, 36.0, 40.0] {
        let a = advice(Trouble::WarmRoom { room: Temperature::new_c(room) });
        let none = |b: &Because| matches!(b, Because::LastsOnTheBench { enough: Enough::Cut(0), .. });
        assert!(!a.remedies.iter().any(|r| r.why.iter().any(none)), "{a:?}");
    }
}

#[test]
fn what_readings_taught_of_the_fridge_moves_the_plan_and_its_range() {
    let (job, dough, cutter) = (job(), lemon_thyme(), round(65.0));
    let plain = usual(job_input());
    let question = question_of_way(
        &Job::new(job_input()).unwrap(),
        &kitchen(),
        &plain,
        way(&all_ways(&WaySizes::default()), "disc-fridge"),
    )
    .unwrap();
    let run = chill_briefly(&question).curve;
    // Half a degree warmer and more than expected, all along: a weak fridge.
    let readings: Vec<Reading> = run
        .iter()
        .filter(|s| s.after.min() > 4.0)
        .step_by(40)
        .map(|s| Reading {
            after: s.after,
            shows: s.warmest + TemperatureDifference::new_k(0.02 * s.after.min()),
            spot: Spot::Core,
        })
        .collect();
    assert!(readings.len() > 4, "{}", readings.len());
    let learnt = fit(&question, &readings, &PlaceKnowledge::default()).unwrap().place;
    let taught = kitchen().knowing(learnt, PlaceKnowledge::default());
    let after = plan(&job, &dough, &cutter, &taught).unwrap();
    assert!(after.cold.answer.ready_after > plain.cold.answer.ready_after);
    let wide = |p: &Plan| {
        let (a, b) = p.cold.answer.ready_between.unwrap();
        (b - a) / p.cold.answer.ready_after.unwrap()
    };
    assert!(wide(&after) < wide(&plain), "{} {}", wide(&after), wide(&plain));
    assert!(after.cold.reasons.contains(&Reason::RangeOfReadings { place: ColdPlace::Fridge }));
    assert_eq!(taught.place(ColdPlace::Freezer), kitchen().place(ColdPlace::Freezer));
}

#[test]
fn a_followed_piece_begins_as_the_plan_and_goes_on_over_the_bench() {
    let plan = usual(job_input());
    let put = |place, minutes: f64| LaidAt { place, from: Span::new_min(minutes), before: PlaceKnowledge::default() };
    let followed = |puts| Followed {
        composition: plan.dough.composition.clone(),
        piece: plan.cold.form.piece,
        target: Target::Rolling,
        start: plan.dough.temperature,
        flour_rests: Span::new_s(0.0),
        puts,
    };
    let fridge = put(Whereabouts::Cold(ColdPlace::Fridge), 0.0);
    let live = follow(&kitchen(), &followed(vec![fridge])).unwrap().live(&[]).unwrap();
    let (a, b) = (live.ready_after.unwrap().min(), plan.cold.answer.ready_after.unwrap().min());
    assert!((a - b).abs() < 0.1, "{a} {b}");
    let out = follow(&kitchen(), &followed(vec![fridge, put(Whereabouts::Bench, 35.0)])).unwrap().live(&[]).unwrap();
    assert!(out.past_after.unwrap().min() > 36.0);
    assert!(matches!(plan.cold.form.piece, Piece::Disc { .. }));
}

#[test]
fn an_unreachable_target_says_never_with_the_figures() {
    // A log is sliced at 12.6 degC (common practice): no fridge at 15 gets it there.
    let warm = kitchen_input().with(|k| k.cold.fridge_c = 15.0);
    let making = Making::sliced(LogForm::Round, Length::new_mm(50.0));
    let job = job_input().with(|j| {
        j.shape.making = making;
        j.cold.chill_place = ColdPlace::Fridge;
    });
    let errors = planned(job, warm, &lemon_thyme(), &round(65.0)).unwrap_err();
    assert_eq!(errors.all()[0].field(), "chill_place");
    let Problem::NeverReady(never) = errors.all()[0].problem() else { panic!("{errors}") };
    let Never::PlaceIsAt { lies: Lies::In(ColdPlace::Fridge), air, core } = never else { panic!("{never:?}") };
    assert!(air.c() == 15.0 && core.c() < 15.0, "{never:?}");
}
