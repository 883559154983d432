//! The relay by hand, and sound in every case.

use super::*;
use crate::clock::{ChillWaits, DayKitchen, DayPlace};
use proptest::prelude::*;

fn lot(trays: usize) -> RelayLot {
    RelayLot {
        mixes: 2,
        mixed_by: None,
        mix_min: 12,
        form_min: 4,
        bulk_min: 0,
        thaws: false,
        dough_place: DayPlace::Fridge,
        tray_place: DayPlace::Freezer,
        chill_min: 30,
        cut_min: vec![6; trays],
        tray_chill_min: 12,
        bake_min: 14,
        oven_c: 175.0,
        cool_min: 8,
        rack_min: 0,
        finish_min: vec![],
        dry_min: 0,
        pack_min: vec![],
        wanted_before_min: 0,
        warm: false,
        rests: vec![],
        chill_why: None,
    }
}

fn input(trays: usize, owned: u32) -> RelayInput {
    RelayInput { lots: vec![lot(trays)], kitchen: kitchen(owned, 1, 1) }
}

fn kitchen(trays: u32, ovens: u32, racks_per_oven: u32) -> DayKitchen {
    DayKitchen {
        hands: 1,
        mixers: 1,
        fridge_slots: 6,
        freezer_slots: 14,
        trays,
        ovens,
        racks_per_oven,
        preheat_min: 20,
        temp_change_min: OTHER_HEAT_MIN,
        rechill_min: 0,
        cooling_slots: 14,
    }
}

const OTHER_HEAT_MIN: i32 = 10;

fn plan(input: &RelayInput) -> Relay {
    plan_relay(input, PlanBudget { seconds: 0.004, seed: 1 })
}

fn overlap(a: &RelayTask, b: &RelayTask) -> bool {
    a.start_min < b.end_min && b.start_min < a.end_min
}

fn assert_sound(input: &RelayInput, relay: &Relay) {
    for (i, a) in relay.tasks.iter().enumerate() {
        for b in &relay.tasks[i + 1..] {
            if a.lane == Lane::Hands && b.lane == Lane::Hands {
                assert!(!overlap(a, b), "one pair of hands: {a:?} {b:?}");
            }
            if a.lane == Lane::Oven && b.lane == Lane::Oven && a.oven == b.oven && overlap(a, b) {
                assert_eq!((a.start_min, a.end_min), (b.start_min, b.end_min), "the door opens only between loads");
            }
        }
    }
    let number = |n: usize| u32::try_from(n).unwrap();
    let of = |step, lot: usize, tray: usize| {
        let same = |t: &&RelayTask| t.step == step && t.lot == number(lot) && t.tray == Some(number(tray));
        relay.tasks.iter().find(same)
    };
    let trays: Vec<(usize, usize)> = (input.lots.iter().enumerate())
        .flat_map(|(lot, l)| (0..l.cut_min.len()).map(move |tray| (lot, tray)))
        .collect();
    for &(at, tray) in &trays {
        let lot = &input.lots[at];
        let (cut, bake) = (of(Step::Cut, at, tray).unwrap(), of(Step::Bake, at, tray).unwrap());
        let cool = of(Step::Cool, at, tray).unwrap();
        let chilled = of(Step::TrayChill, at, tray).map_or((cut.end_min, cut.end_min), |c| (c.start_min, c.end_min));
        assert!(cut.end_min == chilled.0 && chilled.1 == bake.start_min && bake.end_min == cool.start_min);
        assert!(chilled.1 - chilled.0 >= lot.tray_chill_min);
        assert_eq!(bake.end_min - bake.start_min, lot.bake_min);
        assert!(cool.end_min <= 0);
        // Trays on the go at any moment never exceed those owned.
        let busy = trays.iter().filter(|&&(lot, other)| {
            of(Step::Cut, lot, other).unwrap().start_min <= cut.start_min
                && of(Step::Cool, lot, other).unwrap().end_min > cut.start_min
        });
        assert!(busy.count() <= usize::try_from(input.kitchen.trays).unwrap());
    }
    for (a, b) in relay.tasks.iter().flat_map(|a| relay.tasks.iter().map(move |b| (a, b))) {
        let heat = |t: &RelayTask| input.lots[usize::try_from(t.lot).unwrap()].oven_c.round();
        let baked = a.step == Step::Bake && b.step == Step::Bake && a.oven == b.oven;
        if baked && a.end_min <= b.start_min && (heat(a) - heat(b)).abs() > 0.5 {
            assert!(b.start_min - a.end_min >= i64::from(OTHER_HEAT_MIN), "{a:?} {b:?}");
        }
    }
    for chill in relay.tasks.iter().filter(|t| t.step == Step::Chill) {
        let lot = &input.lots[usize::try_from(chill.lot).unwrap()];
        let rest = relay.tasks.iter().find(|t| t.step == Step::Rest && (t.lot, t.mix) == (chill.lot, chill.mix));
        let rested = rest.map_or(0, |r| r.end_min - r.start_min);
        assert_eq!(rest.map_or(chill.end_min, |r| r.start_min), chill.end_min, "it rests when it comes out");
        assert!(chill.end_min - chill.start_min + rested >= lot.chill_min);
        if chill.end_min - chill.start_min > lot.chill_min {
            assert!(!chill.why.is_empty(), "every wait says why: {chill:?}");
        }
        let mixed = lot.mixed_by.map_or(chill.lot, number);
        let ends = relay.tasks.iter().filter(|t| t.step == Step::Mix && t.lot == mixed).map(|t| t.end_min);
        assert!(ends.min().unwrap() <= chill.start_min, "no dough is chilled before the first of it is mixed");
    }
}

#[test]
fn a_relay_ends_at_the_wanted_time_and_keeps_one_pair_of_hands() {
    let i = input(4, 4);
    let relay = plan(&i);
    assert_sound(&i, &relay);
    assert_eq!(relay.tasks.iter().map(|t| t.end_min).max(), Some(0));
    // By hand: four bakes of 14 back to back end at -8, so the first goes in at -64; cut before it -76 to -82.
    let first = relay.tasks.iter().find(|t| t.step == Step::Bake).unwrap();
    assert_eq!((first.start_min, first.end_min), (-64, -50));
}

#[test]
fn two_lots_share_hands_and_oven_and_wait_for_another_heat() {
    let hot = RelayLot { oven_c: 190.0, ..lot(1) };
    let i = RelayInput { lots: vec![lot(1), hot], ..input(1, 4) };
    let relay = plan(&i);
    assert_sound(&i, &relay);
    let bakes: Vec<_> = relay.tasks.iter().filter(|t| t.step == Step::Bake).map(|t| (t.lot, t.start_min)).collect();
    // By hand: the second bakes -22 to -8; the first has to be out 10 min before, so it goes in at -46.
    assert_eq!(bakes, vec![(0, -46), (1, -22)]);
    assert!(relay.tasks.iter().any(|t| t.why.contains(&Held::AnotherHeat)));
}

#[test]
fn two_lots_in_two_ovens_at_one_minute_are_each_heated_for() {
    let hot = RelayLot { oven_c: 190.0, ..lot(1) };
    let i = RelayInput { lots: vec![lot(1), hot], kitchen: kitchen(4, 2, 1) };
    let relay = plan(&i);
    let heats: Vec<_> = relay.tasks.iter().filter(|t| t.step == Step::Preheat).map(|t| (t.oven, t.lot)).collect();
    let bakes: Vec<_> = relay.tasks.iter().filter(|t| t.step == Step::Bake).map(|t| (t.oven, t.lot)).collect();
    assert_eq!(bakes.len(), 2);
    assert!(bakes.iter().all(|b| heats.contains(b)), "{bakes:?} heated as {heats:?}");
}

#[test]
fn dough_that_waits_past_its_window_rests_before_it_is_cut_and_all_is_cool_when_it_is_wanted() {
    let slow = ChillWaits { ready_min: 25, slow_min: 5, more: None };
    // It has to stay in the cold until it is too cold.
    let one = RelayLot { cut_min: vec![25; 4], rests: vec![(30, 9)], rack_min: 25, chill_why: Some(slow), ..lot(4) };
    let i = RelayInput { lots: vec![one], ..input(4, 4) };
    let relay = plan(&i);
    assert_sound(&i, &relay);
    let rests: Vec<_> = relay.tasks.iter().filter(|t| t.step == Step::Rest).collect();
    assert!(rests.iter().any(|r| r.end_min - r.start_min == 9), "{:?}", relay.tasks);
    let last = relay.tasks.iter().filter(|t| t.step == Step::CoolOnRack).map(|t| t.end_min).max();
    assert_eq!(last, Some(0));
    assert!(relay.tasks.iter().filter(|t| t.step == Step::Chill).all(|t| t.why.first() == Some(&Held::Chill(slow))));
}

#[test]
fn pieces_are_iced_once_they_are_cool_and_dry_before_they_are_packed() {
    let iced = RelayLot { rack_min: 25, finish_min: vec![20; 2], dry_min: 600, pack_min: vec![3; 2], ..lot(2) };
    let i = RelayInput { lots: vec![iced], ..input(2, 4) };
    let relay = plan(&i);
    assert_sound(&i, &relay);
    let of = |step, tray| relay.tasks.iter().find(|t| t.step == step && t.tray == Some(tray)).unwrap();
    for tray in [0, 1] {
        let (rack, finish, dry, pack) =
            (of(Step::CoolOnRack, tray), of(Step::Finish, tray), of(Step::Dry, tray), of(Step::Pack, tray));
        assert!(rack.end_min <= finish.start_min && finish.end_min == dry.start_min, "{tray}");
        assert!(dry.end_min - dry.start_min >= 600 && dry.end_min <= pack.start_min, "{tray}");
    }
    // By hand: the last is packed from -3 to 0, so it is dry from -603 and iced from -623.
    assert_eq!((of(Step::Finish, 1).start_min, of(Step::Pack, 1).end_min), (-623, 0));
}

#[test]
fn what_is_wanted_warm_comes_out_at_the_wanted_time() {
    let i = RelayInput { lots: vec![RelayLot { warm: true, rack_min: 25, ..lot(1) }], ..input(1, 4) };
    let relay = plan(&i);
    let bake = relay.tasks.iter().find(|t| t.step == Step::Bake).unwrap();
    assert_eq!((bake.end_min, relay.tasks.iter().map(|t| t.end_min).max()), (0, Some(33)));
}

#[test]
fn fewer_trays_start_earlier() {
    let (two, four) = (plan(&input(6, 2)), plan(&input(6, 4)));
    assert!(two.start_min < four.start_min);
    assert!(two.tasks.iter().any(|t| t.why.contains(&Held::TrayWanted)));
}

proptest! {
    #[test]
    fn every_relay_is_sound(trays in 1usize..14, owned in 1u32..8, racks in 1u32..4, ovens in 1u32..3, mixes in 1u32..4, bake in 5i64..30, cut in 1i64..20, chill in 0i64..90, rack in 0i64..40, past in 0i64..60, rest in 0i64..20, finish in 0i64..15, dry in 0i64..200) {
        let rests = if rest > 0 { vec![(chill + past, rest)] } else { vec![] };
        let one = RelayLot { mixes, bake_min: bake, cut_min: vec![cut; trays], chill_min: chill, rack_min: rack, rests, finish_min: vec![finish; trays], dry_min: dry, ..lot(trays) };
        let i = RelayInput { lots: vec![one], kitchen: kitchen(owned, ovens, racks) };
        assert_sound(&i, &plan(&i));
    }

    #[test]
    fn every_relay_of_several_lots_is_sound(trays in prop::collection::vec((1usize..5, 0i64..20, 150f64..200.0, prop::bool::ANY), 2..5), owned in 1u32..6, racks in 1u32..3, ovens in 1u32..3) {
        let lots = trays.iter().enumerate().map(|(i, &(n, chill, oven_c, shared))| RelayLot {
            tray_chill_min: chill,
            oven_c,
            mixed_by: (shared && i > 0 && !trays[0].3).then_some(0),
            ..lot(n)
        });
        let i = RelayInput { lots: lots.collect(), kitchen: kitchen(owned, ovens, racks) };
        assert_sound(&i, &plan(&i));
    }
}

#[test]
fn a_lump_chills_between_the_bowl_and_the_forming_also_where_another_lot_mixes_it() {
    let cut = RelayLot { mixes: 1, ..lot(2) };
    let logs = RelayLot { mixes: 0, mixed_by: Some(0), bulk_min: 45, ..lot(1) };
    let relay = plan(&RelayInput { lots: vec![cut, logs], ..input(2, 4) });
    let of = |step: Step, lot: u32| relay.tasks.iter().filter(|t| t.step == step && t.lot == lot).collect::<Vec<_>>();
    let (lump, form) = (of(Step::BulkChill, 1), of(Step::Form, 1));
    assert_eq!((lump.len(), lump[0].end_min - lump[0].start_min, lump[0].end_min), (1, 45, form[0].start_min));
    assert!(of(Step::BulkChill, 0).is_empty());
    // The mix of the first lot is there when the lump of the second goes in.
    assert!(of(Step::Mix, 0).iter().all(|mix| mix.end_min <= lump[0].start_min));
    // Alone, the lump lies between its own mix and its forming.
    let alone = plan(&RelayInput { lots: vec![RelayLot { mixes: 1, bulk_min: 45, ..lot(1) }], ..input(1, 4) });
    let end = |step: Step| alone.tasks.iter().find(|t| t.step == step).unwrap().end_min;
    let start = |step: Step| alone.tasks.iter().find(|t| t.step == step).unwrap().start_min;
    assert!(end(Step::Mix) <= start(Step::BulkChill) && end(Step::BulkChill) == start(Step::Form));
}
