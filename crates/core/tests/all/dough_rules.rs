//! The dough's rules over the whole pantry and over formulas of many kinds. Facts of the trade are common practice, no
//! source, unless one is named.

use proptest::prelude::*;
use ready_slab_core::dough::{
    Added, Bite, BowlQuestion, Character, EggClass, FatKind, Feel, Formula, Handling, Kind, Lever, LineInput,
    MixMethod, MixPlan, MixerLimits, OnHand, Pantry, Reason, Role, SizeBy, Squeeze, WeighRules, correct, cost_of,
    difference, divide_into_mixes, heat_balance, label, mixing_sheet, mixing_temperatures, packing, rolled_density,
    size_dough, spread_tendency,
};
use ready_slab_core::oven::StandardSpread;
use ready_slab_core::units::{Density, Mass, Temperature};
use rstest::rstest;

fn formula(lines: &[(&str, f64)]) -> Formula {
    let lines: Vec<LineInput> = lines.iter().map(|l| (*l).into()).collect();
    Formula::new("Test", &lines, Pantry::built_in()).unwrap()
}

/// A cut-out with everything that levers turn.
fn cut_out() -> Formula {
    formula(&[
        ("flour-ap", 500.0),
        ("cornstarch", 40.0),
        ("butter", 250.0),
        ("sugar", 200.0),
        ("egg", 60.0),
        ("milk", 20.0),
        ("baking-powder", 4.0),
        ("salt", 6.0),
    ])
}

const SHORT: &[(&str, f64)] = &[("flour-ap", 300.0), ("butter", 200.0), ("sugar", 100.0), ("salt", 2.0)];
const HOLDS: &[(&str, f64)] = &[("flour-ap", 300.0), ("butter", 100.0), ("sugar", 100.0), ("egg", 25.0)];
const SWEET: &[(&str, f64)] = &[("flour-ap", 300.0), ("butter", 100.0), ("sugar", 200.0), ("egg", 25.0)];
const SLICED: &[(&str, f64)] =
    &[("flour-ap", 280.0), ("butter", 170.0), ("sugar-powdered", 110.0), ("yolk", 18.0), ("salt", 2.0)];
const PIPED: &[(&str, f64)] =
    &[("flour-ap", 250.0), ("butter", 225.0), ("sugar-powdered", 110.0), ("egg", 50.0), ("vanilla", 4.0)];
const DROPPED: &[(&str, f64)] = &[
    ("flour-ap", 280.0),
    ("butter", 225.0),
    ("sugar", 150.0),
    ("sugar-brown", 150.0),
    ("egg", 100.0),
    ("baking-soda", 4.0),
];
const GINGER: &[(&str, f64)] = &[
    ("flour-ap", 400.0),
    ("butter", 110.0),
    ("sugar-brown", 110.0),
    ("molasses", 110.0),
    ("egg", 50.0),
    ("ginger", 6.0),
    ("baking-soda", 2.0),
];

#[rstest]
#[case::short(SHORT, Handling::Right, Bite::Snaps)]
#[case::holds(HOLDS, Handling::Firm, Bite::Firm)]
#[case::sweet(SWEET, Handling::Right, Bite::Firm)]
#[case::sliced(SLICED, Handling::Right, Bite::Tender)]
#[case::piped(PIPED, Handling::Soft, Bite::VeryShort)]
#[case::dropped(DROPPED, Handling::Pipeable, Bite::VeryShort)]
fn known_doughs_handle_and_bite_as_they_are_known(
    #[case] lines: &[(&str, f64)],
    #[case] hand: Handling,
    #[case] bite: Bite,
) {
    let c = Character::of(&formula(lines));
    let bites = [Bite::Firm, Bite::Snaps, Bite::Tender, Bite::VeryShort];
    assert_eq!(c.handling.verdict, hand, "packing {}", packing(&formula(lines)));
    // The bite is told within one step: bakers argue about it more than about the hand.
    let at = |bite: Bite| bites.iter().position(|b| *b == bite).unwrap();
    assert!(at(c.tenderness.verdict).abs_diff(at(bite)) <= 1, "{:?} for {bite:?}", c.tenderness.verdict);
}

#[test]
fn doughs_spread_in_the_order_bakers_give() {
    let middle = |lines| {
        let (low, high) = spread_tendency(&formula(lines)).range;
        f64::midpoint(low.value(), high.value())
    };
    let (holds, sliced, sweet, dropped) = (middle(HOLDS), middle(SLICED), middle(SWEET), middle(DROPPED));
    assert!(holds < sliced && sliced < sweet && sweet < dropped, "{holds} {sliced} {sweet} {dropped}");
    assert!((0.002..0.05).contains(&holds) && dropped > 0.25);
}

#[test]
fn molasses_honey_and_soda_brown_sooner_than_plain_sugar() {
    let level = |lines| Character::of(&formula(lines)).browning.level;
    assert!(level(GINGER) > level(SWEET) && level(DROPPED) > level(SHORT));
}

#[test]
fn every_judgement_has_a_reason_and_lies_on_its_scale() {
    for lines in [SHORT, HOLDS, SWEET, SLICED, PIPED, DROPPED, GINGER] {
        let c = Character::of(&formula(lines));
        let spread = StandardSpread::of(&formula(lines));
        let levels = [c.handling.level, spread.judgement.level, c.browning.level, c.tenderness.level];
        assert!(levels.iter().all(|level| (0.0..=1.0).contains(level)), "{levels:?}");
        let reasons = [
            c.handling.reasons.len(),
            c.browning.reasons.len(),
            c.tenderness.reasons.len(),
            spread.judgement.reasons.len(),
        ];
        assert!(reasons.iter().all(|n| *n > 0), "{reasons:?}");
        assert!((1050.0..1400.0).contains(&c.density.kg_m3()), "{:?}", c.density);
        assert!(spread.range.0.value() < spread.range.1.value());
    }
    // The scale tells doughs apart in the order every baker has them: common practice, no source.
    let of = |lines| Character::of(&formula(lines));
    let spreads = [HOLDS, SWEET, DROPPED].map(|lines| StandardSpread::of(&formula(lines)).judgement.level);
    assert!(spreads[0] < spreads[1] && spreads[1] < spreads[2], "{spreads:?}");
    let browns = [SHORT, HOLDS, GINGER].map(|lines| of(lines).browning.level);
    assert!(browns[0] < browns[2] && browns[1] < browns[2], "{browns:?}");
}

fn grams_of(f: &Formula, part: fn(&ready_slab_core::dough::Ingredient) -> f64) -> f64 {
    f.lines().iter().map(|l| l.mass().g() * part(l.ingredient()) / 100.0).sum()
}

fn swap(from: &str, to: &str) -> Lever {
    Lever::Swap { from: from.to_owned(), to: to.to_owned(), share_percent: 100.0 }
}

/// Pulls a swap and takes it back, and checks that all grams return.
fn there_and_back(from: &str, to: &str) -> Formula {
    let there = swap(from, to).pull(&cut_out(), Pantry::built_in()).unwrap_or_else(|e| panic!("{from} to {to}: {e}"));
    let stood_before = cut_out().mass_of(to).g();
    let share_percent = 100.0 * (1.0 - stood_before / there.formula.mass_of(to).g());
    let back = Lever::Swap { from: to.to_owned(), to: from.to_owned(), share_percent };
    let back = back.pull(&there.formula, Pantry::built_in());
    let back = back.unwrap_or_else(|e| panic!("{to} back to {from}: {e}")).formula;
    for line in cut_out().lines() {
        let key = &line.ingredient().key;
        let (a, b) = (back.mass_of(key).g(), line.mass().g());
        assert!((a - b).abs() < 0.02, "{from} to {to} and back: {key} {b} became {a}");
    }
    assert!(!there.changes.is_empty() && there.reasons.len() >= 2);
    there.formula
}

fn keys(test: impl Fn(&ready_slab_core::dough::Ingredient) -> bool) -> Vec<String> {
    Pantry::built_in().all().iter().filter(|i| test(i)).map(|i| i.key.to_string()).collect()
}

#[test]
fn butter_becomes_any_fat_with_the_same_fat_in_the_dough_and_comes_back() {
    let fat = |f: &Formula| grams_of(f, |i| i.analysis.fat);
    let water = |f: &Formula| grams_of(f, |i| if i.kind == Kind::Salt { 0.0 } else { i.analysis.water });
    let others = keys(|i| i.kind == Kind::Fat && i.key != "butter" && i.key != "spread");
    assert!(others.len() >= 9);
    for to in others {
        let there = there_and_back("butter", &to);
        assert!((fat(&there) - fat(&cut_out())).abs() < 1e-6, "{to}");
        assert!((water(&there) - water(&cut_out())).abs() < 1e-6, "{to}");
    }
    // A spread of 60 % fat brings more water than can be taken away: flour takes it up, and fat still stays.
    let soft = swap("butter", "spread").pull(&cut_out(), Pantry::built_in()).unwrap();
    assert!((fat(&soft.formula) - fat(&cut_out())).abs() < 1e-6);
    assert!(soft.formula.mass_of("flour-ap") > cut_out().mass_of("flour-ap"));
    assert!(soft.reasons.contains(&Reason::FatStaysFlourDrinks), "{:?}", soft.reasons);
}

#[test]
fn sugar_becomes_any_sugar_or_syrup_with_the_same_sweetness_and_comes_back() {
    let sugars = |f: &Formula| grams_of(f, |i| i.analysis.sugars);
    let others = keys(|i| i.role() == Role::Sugar && i.key != "sugar");
    assert!(others.len() >= 10);
    for to in others {
        // Light corn syrup is a third sugar: it would bring more water than any flour here takes up.
        if to == "corn-syrup" {
            continue;
        }
        let there = there_and_back("sugar", &to);
        assert!((sugars(&there) - sugars(&cut_out())).abs() < 1e-6, "{to}");
    }
}

#[test]
fn flour_becomes_any_dry_powder_that_binds_as_much_and_comes_back() {
    let fat = |f: &Formula| grams_of(f, |i| i.analysis.fat);
    let mut tried = 0;
    for to in keys(|i| matches!(i.kind, Kind::Flour | Kind::Starch | Kind::Cocoa) && i.key != "flour-ap") {
        let there = there_and_back("flour-ap", &to);
        assert!((fat(&there) - fat(&cut_out())).abs() < 1e-6, "{to}");
        tried += 1;
    }
    assert!(tried >= 14);
}

#[test]
fn a_tenth_of_the_flour_as_starch_or_cocoa_changes_what_bakers_say_it_changes() {
    let pull = |to: &str| {
        let lever = Lever::Swap { from: "flour-ap".into(), to: to.into(), share_percent: 10.0 };
        lever.pull(&cut_out(), Pantry::built_in()).unwrap().formula
    };
    let tender = |f: &Formula| Character::of(f).tenderness.level;
    assert!(tender(&pull("cornstarch")) > tender(&cut_out()), "starch makes it shorter");
    assert!(Character::of(&pull("cocoa")).browning.reasons.contains(&Reason::CocoaHides));
    // A third of cocoa is fibre that holds water: it firms a dough, and yet it is rolled.
    assert!((1.0..1.15).contains(&(packing(&pull("cocoa")) / packing(&cut_out()))), "it gets firmer");
}

#[rstest]
#[case("egg", "yolk")]
#[case("egg", "white")]
fn egg_parts_stand_in_for_each_other(#[case] from: &str, #[case] to: &str) {
    let there = there_and_back(from, to);
    let water = |f: &Formula| grams_of(f, |i| i.analysis.water);
    assert!((water(&there) - water(&cut_out())).abs() < 0.3);
}

#[test]
fn height_and_damp_act_the_more_the_more_there_is_of_them() {
    let at = |metres| Lever::Altitude { metres }.pull(&cut_out(), Pantry::built_in()).unwrap().formula;
    let damp =
        |humidity_percent| Lever::DampAir { humidity_percent }.pull(&cut_out(), Pantry::built_in()).unwrap().formula;
    let mut last = (f64::MAX, 0.0, 0.0);
    for metres in [900.0, 1500.0, 2200.0, 3000.0, 4000.0] {
        let f = at(metres);
        let now = (f.mass_of("baking-powder").g(), f.mass_of("flour-ap").g(), f.mass_of("water").g());
        assert!(now.0 < last.0 && now.1 > last.1 && now.2 >= last.2, "{metres}: {now:?}");
        last = now;
    }
    let flour: Vec<f64> = [30.0, 45.0, 55.0, 65.0, 80.0].map(|h| damp(h).mass_of("flour-ap").g()).to_vec();
    assert!(flour.windows(2).all(|w| w[0] < w[1]), "{flour:?}");
    assert!((flour[2] - 500.0).abs() < 1e-9);
}

#[test]
fn what_the_bowl_asked_for_is_weighed_from_the_start() {
    let lever = Lever::FromTheBowl { flour_percent: 2.0, water_percent: 0.5 };
    let f = lever.pull(&cut_out(), Pantry::built_in()).unwrap().formula;
    // 2 % and half a per cent of 540 g of flour.
    assert!((f.mass_of("flour-ap").g() - 510.8).abs() < 1e-9 && (f.mass_of("water").g() - 2.7).abs() < 1e-9);
    let less =
        Lever::FromTheBowl { flour_percent: -2.0, water_percent: 0.0 }.pull(&f, Pantry::built_in()).unwrap().formula;
    assert!(less.mass_of("flour-ap") < f.mass_of("flour-ap"));
}

#[test]
fn a_difference_names_what_came_went_and_changed_once_each() {
    let before = formula(&[("flour-ap", 300.0), ("butter", 100.0), ("sugar", 50.0), ("sugar", 50.0)]);
    let after = formula(&[("flour-ap", 320.0), ("butter", 100.0), ("honey", 80.0)]);
    let found: Vec<(String, f64, f64)> =
        difference(&before, &after).iter().map(|c| (c.ingredient.key.to_string(), c.before.g(), c.after.g())).collect();
    assert_eq!(
        found,
        [("flour-ap".to_owned(), 300.0, 320.0), ("honey".to_owned(), 0.0, 80.0), ("sugar".to_owned(), 100.0, 0.0)]
    );
    assert!(difference(&before, &before).is_empty());
}

const DENSITY: Density = Density::new_kg_m3(1210.0);

fn mixes(f: &Formula, dough: f64, limit: f64, rules: &WeighRules) -> MixPlan {
    let limits = MixerLimits { dough: Mass::new_g(limit), bowl_ml: None };
    divide_into_mixes(f, Mass::new_g(dough), limits, DENSITY, rules)
}

#[test]
fn the_sheet_of_every_method_takes_every_ingredient_once_and_ends_with_a_dough_that_is_right() {
    for lines in [SHORT, HOLDS, SWEET, SLICED, PIPED, DROPPED, GINGER] {
        let f = formula(lines);
        let plan = mixes(&f, f.total().g(), 5000.0, &WeighRules::plain());
        for method in MixMethod::ALL {
            let sheet = mixing_sheet(&plan, method, &[], Temperature::new_c(22.0), Temperature::new_c(4.0));
            for weighed in &plan.weights {
                let taken: Vec<f64> = sheet
                    .steps
                    .iter()
                    .flat_map(|s| &s.takes)
                    .filter(|t| t.name.as_ref().is_some_and(|name| name.starts_with(weighed.ingredient.name.as_ref())))
                    .map(|t| t.mass.g())
                    .collect();
                assert_eq!(taken, [weighed.mass.g()], "{} {method:?}", weighed.ingredient.key);
            }
            assert!(sheet.steps.iter().any(|s| s.work.ends_right()));
            let minutes: f64 = sheet.steps.iter().filter_map(|s| s.minutes).map(|m| m.1).sum();
            assert!((1.0..20.0).contains(&minutes), "{method:?}: {minutes} min at the mixer");
        }
    }
}

#[test]
fn following_the_bowls_advice_ends_at_its_limit() {
    let f = cut_out();
    let mix = f.total();
    let (weights, reasons, warnings) = (vec![], vec![], vec![]);
    let mixes = MixPlan { count: 1, each: mix, weights, formula: f, reasons, warnings };
    for (feel, squeeze) in [(Feel::TooSticky, Squeeze::Clings), (Feel::DryWontGather, Squeeze::Crumbles)] {
        let (mut flour, mut liquid) = (0.0, 0.0);
        let mut times = 0;
        loop {
            let added = Added { flour: Mass::new_g(flour), liquid: Mass::new_g(liquid) };
            let question = BowlQuestion { mix: 1, feel, squeeze, dough_c: None };
            let c = correct(&mixes, MixMethod::JustCombined, &question, added).unwrap();
            let Some(add) = c.add else { break };
            if add == "flour-ap" {
                flour += c.amount.g()
            } else {
                liquid += c.amount.g()
            }
            times += 1;
            assert!(times < 20, "{feel:?} never ends");
        }
        // At most 6 % of the flour, or three spoons of 15 g to 600 g of dough; rounding to the gram.
        assert!(flour <= 0.06 * 540.0 + 1.0 && liquid <= 3.0 * 15.0 * mix.g() / 600.0 + 1.0, "{flour} {liquid}");
        assert!(times >= 3);
    }
}

#[test]
fn the_label_of_any_formula_is_whole_and_its_cost_grows_with_it() {
    let prices: Vec<(String, f64)> = keys(|_| true).into_iter().map(|key| (key, 2.5)).collect();
    let pantry = Pantry::with(vec![], prices).unwrap();
    for lines in [SHORT, HOLDS, SWEET, SLICED, PIPED, DROPPED, GINGER] {
        let f = formula(lines);
        let items = label(&f);
        assert!((items.iter().map(|i| i.share.value()).sum::<f64>() - 1.0).abs() < 1e-9);
        assert!(items.windows(2).all(|w| w[0].share.value() >= w[1].share.value()));
        let named: Vec<&String> = items.iter().flat_map(|i| &i.allergens).collect();
        assert!(f.allergens().iter().all(|a| named.contains(&a)));
        // All at 2.50 a kilogram: a kilogram of any dough costs 2.50.
        assert!((cost_of(&f, Mass::new_g(1000.0), &pantry).known - 2.5).abs() < 1e-9);
        assert!((cost_of(&f, Mass::new_g(3000.0), &pantry).known - 7.5).abs() < 1e-9);
    }
}

#[test]
fn oil_never_gets_firm_and_it_is_said() {
    let f = formula(&[("flour-ap", 300.0), ("butter", 50.0), ("oil", 80.0), ("sugar", 100.0)]);
    let c = Character::of(&f);
    assert_eq!(c.main_fat, Some(FatKind::Liquid));
    assert!(
        c.handling.reasons.iter().any(|r| matches!(r, Reason::FatStaysLiquid { share } if share.value() > 0.5)),
        "{:?}",
        c.handling.reasons
    );
}

proptest! {
    #[test]
    fn whole_eggs_are_whole_and_the_dough_is_never_much_more_nor_any_less(
        dough in 200.0f64..6000.0, limit in 400.0f64..3000.0, class in 0usize..9
    ) {
        let class = EggClass::ALL[class];
        let rules = WeighRules::new(0.1, 0.1, 0.0, Some(class)).unwrap();
        let f = cut_out();
        let plan = mixes(&f, dough, limit, &rules);
        let all = plan.each.g() * f64::from(plan.count);
        prop_assert!(all >= dough - 1e-6 && all <= dough * 1.08 + 1e-6, "{all} of {dough}");
        prop_assert!(plan.each.g() <= limit + 1e-6);
        let egg = plan.weights.iter().find(|w| w.ingredient.key == "egg").unwrap().mass.g();
        let count = egg / class.whole().g();
        // Less than half an egg is weighed, and it is said.
        prop_assert!((count - count.round()).abs() < 0.01 || plan.reasons.iter().any(|r| matches!(r, Reason::LessThanHalfAnEgg { .. })), "{count}");
    }

    #[test]
    fn what_is_on_hand_is_never_exceeded(butter in 50.0f64..2000.0, egg in 10.0f64..400.0, flour in 100.0f64..4000.0) {
        let f = cut_out();
        let hand = [("butter", butter), ("egg", egg), ("flour-ap", flour)];
        let by = SizeBy::OnHand {
            on_hand: hand.iter().map(|(k, g)| OnHand { ingredient: (*k).to_owned(), mass: Mass::new_g(*g) }).collect(),
        };
        let sized = size_dough(&f, &by).unwrap();
        let scarce = sized.scarce.unwrap().key.to_string();
        for (key, there) in hand {
            let used = f.mass_of(key).g() * sized.factor;
            prop_assert!(used <= there + 1e-9);
            if key == scarce { prop_assert!((used - there).abs() < 1e-9) }
        }
        // Two may be equally scarce: what is left over is what is not used up.
        let left = hand.iter().filter(|(key, there)| there - f.mass_of(key).g() * sized.factor > 1e-6).count();
        prop_assert_eq!(sized.over.len(), left);
    }

    #[test]
    fn a_flour_share_kept_aside_is_part_of_what_was_weighed(hold in 0.0f64..20.0, dough in 300.0f64..3000.0) {
        let rules = WeighRules::new(1.0, 0.1, hold, None).unwrap();
        let plan = mixes(&cut_out(), dough, 5000.0, &rules);
        for w in &plan.weights {
            prop_assert!(w.held_back.g() <= w.mass.g() * 0.2 + 1.0);
            if w.ingredient.key != "flour-ap" { prop_assert_eq!(w.held_back.g(), 0.0) }
        }
    }

    #[test]
    fn butter_and_flour_are_never_asked_to_be_what_a_kitchen_cannot_make_them(room in 8.0f64..38.0, fridge in 1.0f64..8.0, which in 0usize..3) {
        let method = MixMethod::ALL[which];
        let (f, room_t, fridge_t) = (cut_out(), Temperature::new_c(room), Temperature::new_c(fridge));
        let m = mixing_temperatures(&f, method, room_t, fridge_t);
        let (low, high) = method.butter_between();
        prop_assert!(m.fats.c() <= high.c() + 1e-9 && (m.fats.c() >= low.c() - 1e-9 || m.fats.c() >= room.min(low.c()) - 1e-9));
        for t in [m.wet, m.dry] {
            prop_assert!(t.c() >= fridge - 1e-9 && t.c() <= room.max(30.0) + 1e-9, "{t:?}");
        }
        if m.reached {
            let (low, high) = method.dough_between();
            prop_assert!(m.dough.c() >= low.c() - 0.1 && m.dough.c() <= high.c() + 0.1);
        }
        prop_assert!((heat_balance(&f, method, m.fats, m.wet, m.dry).c() - m.dough.c()).abs() < 1e-6);
    }

    #[test]
    fn a_formula_is_the_same_dough_whatever_the_batch(times in 0.05f64..40.0) {
        let one = cut_out();
        let lines: Vec<LineInput> =
            one.lines().iter().map(|l| (l.ingredient().key.as_ref(), l.mass().g() * times).into()).collect();
        let many = Formula::new("Test", &lines, Pantry::built_in()).unwrap();
        let (a, b) = (Character::of(&one), Character::of(&many));
        prop_assert!(a.distance(&b) < 1e-9);
        prop_assert_eq!(a.handling.verdict, b.handling.verdict);
        prop_assert_eq!(StandardSpread::of(&one).judgement.verdict, StandardSpread::of(&many).judgement.verdict);
        prop_assert!((packing(&one) - packing(&many)).abs() < 1e-9);
        prop_assert!((rolled_density(&one.composition(), MixMethod::JustCombined).kg_m3() - rolled_density(&many.composition(), MixMethod::JustCombined).kg_m3()).abs() < 1e-6);
    }

    #[test]
    fn more_flour_is_always_firmer_and_spreads_less(more in 5.0f64..200.0) {
        let with = |extra: f64| {
            let lines: Vec<LineInput> = cut_out()
                .lines()
                .iter()
                .map(|l| {
                    let key = l.ingredient().key.as_ref();
                    (key, l.mass().g() + if key == "flour-ap" { extra } else { 0.0 }).into()
                })
                .collect();
            Formula::new("Test", &lines, Pantry::built_in()).unwrap()
        };
        let (plain, floury) = (with(0.0), with(more));
        prop_assert!(packing(&floury) > packing(&plain));
        prop_assert!(spread_tendency(&floury).range.1.value() <= spread_tendency(&plain).range.1.value() + 1e-12);
    }
}
