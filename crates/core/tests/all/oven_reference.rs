//! The bake from a formula of the pantry to the forecast, against practice, published flour-test cookies and the facts of the trade.
//!
//! The model's own cases, steps and balances are checked beside it (`oven/bake/reference.rs`); here the whole way is, as a baker goes it.

use proptest::prelude::*;
use ready_slab_core::air::standard_pressure_pa;
use ready_slab_core::dough::{Formula, LineInput, Pantry};
use ready_slab_core::oven::{
    BakeEnd, BakeFit, BakeForecast, BakePiece, DoneBy, EdgeColour, OvenDough, OvenSetup, TrayCover, TrayLiner,
    TrayMaterial, cools_after, forecast, forecast_at, simulate,
};
use ready_slab_core::units::{Length, Share, Span, Temperature};
use rstest::rstest;
use serde_json::Value;

fn formula(lines: &[(&str, f64)]) -> Formula {
    let lines: Vec<LineInput> = lines.iter().map(|l| (*l).into()).collect();
    Formula::new("Test", &lines, Pantry::built_in()).unwrap()
}

fn dough_with(lines: &[(&str, f64)], air: f64) -> OvenDough {
    OvenDough::of(&formula(lines), air).unwrap()
}

fn dough(lines: &[(&str, f64)]) -> OvenDough {
    dough_with(lines, 0.08)
}

const CUT: [(&str, f64); 5] = [("butter", 100.0), ("sugar", 90.0), ("flour-ap", 170.0), ("egg", 22.0), ("salt", 1.0)];

fn cut_and(more: &[(&str, f64)]) -> OvenDough {
    let mut lines: Vec<(&str, f64)> = CUT.to_vec();
    for (name, g) in more {
        match lines.iter_mut().find(|l| l.0 == *name) {
            Some(line) => line.1 += g,
            None => lines.push((name, *g)),
        }
    }
    lines.retain(|l| l.1 > 0.0);
    dough(&lines)
}

fn piece(thickness_mm: f64, across_mm: f64, start_c: f64) -> BakePiece {
    BakePiece {
        thickness: Length::new_mm(thickness_mm),
        radius: Length::new_mm(across_mm / 2.0),
        start: Temperature::new_c(start_c),
        firm_as_at: Temperature::new_c(start_c),
        wait: Span::new_s(0.0),
    }
}

const GOLDEN: BakeEnd = BakeEnd::Colour(EdgeColour::JustGolden);

fn baked(dough: &OvenDough, piece: &BakePiece, oven: &OvenSetup) -> BakeForecast {
    forecast(dough, piece, oven, &BakeFit::NONE, GOLDEN).unwrap()
}

fn base(dough: &OvenDough) -> BakeForecast {
    baked(dough, &piece(6.0, 65.0, 6.0), &OvenSetup::usual(175.0, false))
}

/// The pantry's key for an ingredient of the rows, by the protein of the row's flour.
fn key(name: &str, protein: f64) -> &str {
    match name {
        "flour" if protein < 8.0 => "flour-rice",
        "flour" if protein < 10.0 => "flour-pastry",
        "flour" if protein > 12.0 => "flour-bread",
        "flour" => "flour-ap",
        "caster" => "sugar-caster",
        "powdered" => "sugar-powdered",
        "brown" => "sugar-brown",
        "cornsyrup" => "corn-syrup",
        "nutmeal" => "almond-meal",
        "chips" => "chocolate",
        "milkpowder" => "milk-powder",
        "bakingpowder" => "baking-powder",
        "soda" => "baking-soda",
        "ammonium" => "bakers-ammonia",
        other => other,
    }
}

fn figure(f: &BakeForecast, name: &str) -> f64 {
    match name {
        "min" => f.bake.min(),
        "spread" => 100.0 * f.spread.value(),
        "th" => f.thickness.mm(),
        "under" => f.under_colour,
        "loss" => 100.0 * f.loss.value(),
        "dens" => f.density.kg_m3(),
        other => panic!("{other}"),
    }
}

fn row_bake(row: &Value) -> BakeForecast {
    let of = |from: &Value, key: &str, usual: f64| from[key].as_f64().unwrap_or(usual);
    let protein = of(row, "protein", 10.5);
    let lines: Vec<(&str, f64)> =
        row["recipe_g"].as_object().unwrap().iter().map(|(n, g)| (key(n, protein), g.as_f64().unwrap())).collect();
    let dough = dough_with(&lines, of(row, "air", 0.08));
    let (p, o) = (&row["piece"], &row["oven"]);
    let mut oven = OvenSetup::usual(of(o, "T", 175.0), of(o, "fan", 0.0) > 0.5);
    if o["tray"] == "dark" {
        oven.tray = TrayMaterial::Dark;
    }
    oven.liner = match o["liner"].as_str() {
        Some("greased") => TrayLiner::Greased,
        Some("bare") => TrayLiner::Bare,
        _ => TrayLiner::Parchment,
    };
    if let Some(cover) = o["cover"].as_f64() {
        oven.cover = TrayCover::Share(Share::new(cover));
    }
    oven.tray_start = Temperature::new_c(of(o, "Ttray0", 22.0));
    let piece = piece(of(p, "h", 6.0), of(p, "D", 65.0), of(p, "T0", 6.0));
    if let Some(at) = row["at"].as_f64() {
        return forecast_at(&dough, &piece, &oven, &BakeFit::NONE, Span::new_min(at)).unwrap();
    }
    let colour = match row["level"].as_str() {
        Some("pale") => Some(EdgeColour::Pale),
        Some("golden") => Some(EdgeColour::Golden),
        Some("just golden") => Some(EdgeColour::JustGolden),
        _ => None,
    };
    let end = match (colour, row["soft"] == true) {
        (Some(colour), true) => BakeEnd::Soft(colour),
        (Some(colour), false) => BakeEnd::Colour(colour),
        (None, true) => BakeEnd::Soft(EdgeColour::Pale),
        (None, false) => BakeEnd::Dull,
    };
    forecast(&dough, &piece, &oven, &BakeFit::NONE, end).unwrap()
}

/// Rows of practice (common practice, no source; flour-test cookies published, from memory) with the pantry's own ingredients. The prototype,
/// with its own analyses, has 125 of 145 figures inside. One of them is a soft cocoa cut-out that is taken out nearly raw, which an end by its chosen colour
/// does not meet.
#[test]
fn rows_of_practice_hold_with_the_pantrys_ingredients() {
    let rows: Vec<Value> = serde_json::from_str(include_str!("bake/practice_rows.json")).unwrap();
    let (mut inside, mut all, mut missed) = (0, 0, Vec::new());
    for row in &rows {
        let f = row_bake(row);
        for (of, band) in row["bands"].as_object().unwrap() {
            let (least, most) = (band[0].as_f64().unwrap(), band[1].as_f64().unwrap());
            all += 1;
            if (least..=most).contains(&figure(&f, of)) {
                inside += 1;
            } else {
                missed.push(format!("{} {of} {:.2} of {least} to {most}", row["id"], figure(&f, of)));
            }
        }
    }
    assert_eq!(all, 145);
    assert!(inside >= 124, "{inside} inside; missed: {missed:#?}");
}

/// The sugar-snap cookie of AACC International 10-50 and the wire-cut cookie of 10-53 (formulas and baking from memory), end to end: widths, heights and
/// losses as published for soft wheat flour, from memory. Strong flour spreads a good deal less (Gaines and others, from memory).
#[test]
fn flour_test_cookies_come_out_as_published() {
    let snap = |flour: &str| {
        dough_with(
            &[
                (flour, 225.0),
                ("sugar", 130.0),
                ("shortening", 64.0),
                ("baking-soda", 2.5),
                ("salt", 2.1),
                ("dextrose", 2.14),
                ("water", 46.9),
            ],
            0.06,
        )
    };
    let mut oven = OvenSetup::usual(205.0, false);
    (oven.liner, oven.cover) = (TrayLiner::Greased, TrayCover::Share(Share::new(0.3)));
    let at = |dough: &OvenDough, oven: &OvenSetup, min: f64| {
        forecast_at(dough, &piece(7.0, 60.0, 21.0), oven, &BakeFit::NONE, Span::new_min(min)).unwrap()
    };
    let (soft, strong) = (at(&snap("flour-pastry"), &oven, 10.0), at(&snap("flour-bread"), &oven, 10.0));
    // W about 80 to 88 mm of a 60 mm disc, T 9 to 11.5 mm.
    assert!((0.33..0.47).contains(&soft.spread.value()), "{:?}", soft.spread);
    assert!((9.0..11.5).contains(&soft.thickness.mm()), "{:?}", soft.thickness);
    assert!((0.11..0.14).contains(&soft.loss.value()), "{:?}", soft.loss);
    assert!(strong.spread.value() < soft.spread.value() - 0.05, "{:?}", strong.spread);
    let wire_cut = dough_with(
        &[
            ("flour-pastry", 225.0),
            ("sugar-caster", 72.0),
            ("sugar-brown", 22.5),
            ("milk-powder", 2.3),
            ("salt", 2.8),
            ("baking-soda", 2.3),
            ("bakers-ammonia", 1.1),
            ("shortening", 90.0),
            ("corn-syrup", 3.4),
            ("water", 49.5),
        ],
        0.06,
    );
    oven.liner = TrayLiner::Bare;
    let wire = at(&wire_cut, &oven, 11.0);
    assert!((0.27..0.40).contains(&wire.spread.value()), "{:?}", wire.spread);
    assert!((10.0..11.5).contains(&wire.thickness.mm()), "{:?}", wire.thickness);
}

/// Eight everyday recipes with the time that is said of them: common practice, no source.
#[rstest]
#[case("butter cut-outs", &CUT, [6.0, 65.0, 6.0, 175.0], GOLDEN, (9.0, 13.0))]
#[case("1 : 1 : 3 cut-outs", &[("butter", 100.0), ("sugar", 100.0), ("flour-ap", 300.0), ("egg", 25.0)], [5.0, 70.0, 6.0, 175.0], GOLDEN, (8.0, 12.0))]
#[case("shortbread fingers", &[("butter", 100.0), ("sugar", 50.0), ("flour-ap", 150.0), ("salt", 1.0)], [12.0, 37.5, 10.0, 160.0], GOLDEN, (20.0, 30.0))]
#[case("icebox slices", &[("butter", 225.0), ("sugar", 150.0), ("egg", 50.0), ("flour-ap", 310.0)], [7.0, 45.0, 6.0, 175.0], GOLDEN, (9.0, 13.0))]
#[case("nut sable", &[("butter", 100.0), ("sugar-powdered", 60.0), ("flour-ap", 130.0), ("almond-meal", 50.0), ("egg", 12.0)], [3.5, 50.0, 6.0, 175.0], GOLDEN, (6.5, 9.5))]
#[case("spiced brown cut-outs", &[("flour-ap", 258.0), ("butter", 125.0), ("sugar-brown", 150.0), ("milk", 30.0), ("baking-powder", 4.0)], [4.0, 60.0, 6.0, 175.0], BakeEnd::Colour(EdgeColour::Golden), (9.0, 14.0))]
#[case("soft dropped ones", &[("butter", 100.0), ("sugar", 65.0), ("sugar-brown", 65.0), ("flour-ap", 130.0), ("egg", 45.0), ("baking-soda", 1.3)], [19.0, 44.0, 18.0, 180.0], BakeEnd::Soft(EdgeColour::Golden), (9.0, 14.0))]
#[case("chocolate cut-outs", &[("butter", 113.0), ("shortening", 100.0), ("sugar", 250.0), ("egg", 100.0), ("flour-ap", 440.0), ("cocoa", 60.0), ("baking-powder", 6.0)], [6.35, 70.0, 5.0, 190.0], BakeEnd::Dull, (6.0, 9.5))]
fn everyday_recipes_take_as_long_as_bakers_say(
    #[case] what: &str,
    #[case] lines: &[(&str, f64)],
    #[case] sizes: [f64; 4],
    #[case] end: BakeEnd,
    #[case] said: (f64, f64),
) {
    let [high, across, start, oven] = sizes;
    let oven = OvenSetup::usual(oven, false);
    let f = forecast(&dough(lines), &piece(high, across, start), &oven, &BakeFit::NONE, end).unwrap();
    assert!((said.0..=said.1).contains(&f.bake.min()), "{what}: {}", f.bake.min());
}

#[rstest]
#[case(6.0, 65.0, 175.0, false)]
#[case(3.0, 30.0, 205.0, true)]
#[case(20.0, 120.0, 160.0, false)]
fn heat_and_water_are_not_lost(#[case] high: f64, #[case] across: f64, #[case] oven: f64, #[case] fan: bool) {
    let b = simulate(&dough(&CUT), &piece(high, across, 6.0), &OvenSetup::usual(oven, fan), &BakeFit::NONE, 900.0);
    assert!((b.heat_in / b.heat_kept - 1.0).abs() < 0.005, "{b:?}");
    assert!((b.water_out / b.water_gone - 1.0).abs() < 0.005, "{b:?}");
}

#[test]
fn a_plain_bake_goes_as_bakers_know_it() {
    let f = base(&dough(&CUT));
    assert!(f.rim_colour > f.middle_colour, "the rim is darker than the middle");
    assert!((8.0..35.0).contains(&f.under_colour), "the underside is light brown");
    assert!(f.dull_after.unwrap() < f.bake, "the middle is dull before it is done");
    assert!((0.06..0.12).contains(&f.loss.value()), "it loses 6 to 12 %");
    // A chilled cut-out holds its shape and comes out higher than it went in.
    assert!((0.01..0.08).contains(&f.spread.value()) && f.thickness.mm() > 6.0, "{:?} {:?}", f.spread, f.thickness);
    assert!((650.0..900.0).contains(&f.density.kg_m3()), "{:?}", f.density);
    let oven = OvenSetup::usual(175.0, false);
    let to = [45.0, 24.0].map(Temperature::new_c);
    let tray = cools_after(&dough(&CUT), &piece(6.0, 65.0, 6.0), &oven, &f, to);
    assert!((4.0..15.0).contains(&tray[0].unwrap().min()), "soft when hot");
    let end = BakeEnd::Colour(EdgeColour::Brown);
    let brown = forecast(&dough(&CUT), &piece(6.0, 65.0, 6.0), &oven, &BakeFit::NONE, end).unwrap();
    let takes = (brown.bake - f.bake).min();
    assert!((1.5..5.0).contains(&takes), "from just golden to brown in {takes} min");
}

/// Directions that every baker knows: common practice, no source.
#[rstest]
#[case("flour up", cut_and(&[("flour-ap", 25.0)]), -1.0)]
#[case("sugar up", cut_and(&[("sugar", 18.0)]), 1.0)]
#[case("butter up", cut_and(&[("butter", 20.0)]), 1.0)]
#[case("water up", cut_and(&[("water", 5.0)]), 1.0)]
#[case("half the sugar powdered", cut_and(&[("sugar", -45.0), ("sugar-powdered", 46.5)]), -1.0)]
#[case("10% of the flour as cornstarch", cut_and(&[("flour-ap", -17.0), ("cornstarch", 17.0)]), -1.0)]
#[case("caster sugar", cut_and(&[("sugar", -90.0), ("sugar-caster", 90.0)]), 1.0)]
#[case("coarse sugar", cut_and(&[("sugar", -90.0), ("sugar-raw", 90.0)]), -1.0)]
#[case("yolk for egg", cut_and(&[("egg", -22.0), ("yolk", 22.0)]), -1.0)]
#[case("no egg, as much water", cut_and(&[("egg", -22.0), ("water", 17.0)]), 1.0)]
#[case("baking powder", cut_and(&[("baking-powder", 1.3)]), 1.0)]
#[case("soda", cut_and(&[("baking-soda", 0.85)]), 1.0)]
#[case("soda used up by cream of tartar", cut_and(&[("baking-soda", 0.85), ("cream-of-tartar", 1.9)]), 1.0)]
#[case("stronger flour", cut_and(&[("flour-ap", -170.0), ("flour-bread", 170.0)]), -1.0)]
#[case("softer flour", cut_and(&[("flour-ap", -170.0), ("flour-pastry", 170.0)]), 1.0)]
fn spread_answers_the_formula(#[case] what: &str, #[case] changed: OvenDough, #[case] up: f64) {
    let (before, after) = (base(&dough(&CUT)).spread.value(), base(&changed).spread.value());
    assert!((after - before) * up > 0.001, "{what}: {before} to {after}");
}

#[test]
fn acid_takes_the_soda_that_would_loosen_and_brown() {
    let (soda, tamed) =
        (cut_and(&[("baking-soda", 0.85)]), cut_and(&[("baking-soda", 0.85), ("cream-of-tartar", 1.9)]));
    assert!(soda.parts().soda_percent > 0.45 && tamed.parts().soda_percent < 0.01);
    assert!(tamed.parts().gas_mol_kg > 0.0, "it lifts all the same");
    assert!(base(&tamed).spread < base(&soda).spread && base(&tamed).bake > base(&soda).bake);
}

#[test]
fn colour_answers_what_browns() {
    let (cold, plain) = (piece(6.0, 65.0, 6.0), OvenSetup::usual(175.0, false));
    let done = base(&dough(&CUT));
    let rim = |d: &OvenDough| forecast_at(d, &cold, &plain, &BakeFit::NONE, done.bake).unwrap().rim_colour;
    assert!(rim(&cut_and(&[("baking-soda", 0.85)])) > done.rim_colour + 3.0);
    assert!(rim(&cut_and(&[("sugar", -15.0), ("honey", 15.0)])) > done.rim_colour + 3.0);
    assert!(rim(&cut_and(&[("sugar", -90.0), ("sugar-brown", 90.0)])) > done.rim_colour + 1.0);
    assert!(rim(&cut_and(&[("egg", -22.0), ("water", 17.0)])) < done.rim_colour - 3.0, "without egg it browns late");
}

/// A cut-out of other proportions, within what bakers make.
fn any_dough() -> impl Strategy<Value = OvenDough> {
    (75.0..130.0f64, 60.0..120.0f64, 150.0..230.0f64, 10.0..35.0f64, 0.05..0.10f64).prop_map(
        |(butter, sugar, flour, egg, air)| {
            dough_with(&[("butter", butter), ("sugar", sugar), ("flour-ap", flour), ("egg", egg), ("salt", 1.0)], air)
        },
    )
}

/// A chilled piece and the oven it goes into.
fn any_bake() -> impl Strategy<Value = (OvenDough, BakePiece, OvenSetup)> {
    (any_dough(), 4.0..10.0f64, 30.0..110.0f64, 2.0..14.0f64, 155.0..195.0f64, any::<bool>()).prop_map(
        |(dough, high, across, start, oven, fan)| (dough, piece(high, across, start), OvenSetup::usual(oven, fan)),
    )
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 24, ..ProptestConfig::default() })]

    /// Directions of the levers, whatever the dough, the piece and the oven: common practice, no source.
    #[test]
    fn levers_point_the_way_bakers_know((dough, piece, oven) in any_bake()) {
        let found = baked(&dough, &piece, &oven);
        let with = |change: &dyn Fn(&mut OvenSetup)| {
            let mut other = oven;
            change(&mut other);
            baked(&dough, &piece, &other)
        };
        let hotter = with(&|o| o.air = Temperature::new_c(o.air.c() + 12.0));
        prop_assert!(hotter.bake < found.bake, "a hotter oven is quicker");
        prop_assert!(hotter.spread.value() < found.spread.value() + 2e-4, "and spreads no more");
        let lower = with(&|o| o.cover = TrayCover::Share(Share::new(0.2)));
        let fuller = with(&|o| o.cover = TrayCover::Share(Share::new(0.6)));
        prop_assert!(lower.bake < fuller.bake && lower.under_colour > fuller.under_colour, "a full tray is slow and pale beneath");
        let dark = with(&|o| o.tray = TrayMaterial::Dark);
        prop_assert!(dark.under_colour > found.under_colour, "a dark tray browns beneath");
        let insulated = with(&|o| o.tray = TrayMaterial::Insulated);
        prop_assert!(insulated.under_colour < found.under_colour);
        let greased = with(&|o| o.liner = TrayLiner::Greased);
        prop_assert!(greased.spread > found.spread);
        let high = with(&|o| o.pressure_pa = standard_pressure_pa(1600.0));
        prop_assert!(high.spread > found.spread && high.thickness > found.thickness, "thin air widens and lifts");
        let of = |other: BakePiece| baked(&dough, &other, &oven);
        let warm = Temperature::new_c(piece.start.c() + 8.0);
        prop_assert!(of(BakePiece { start: warm, firm_as_at: warm, ..piece }).spread > found.spread, "warm dough runs");
        prop_assert!(of(BakePiece { wait: Span::new_min(12.0), ..piece }).spread > found.spread, "so does what waited");
        prop_assert!(of(BakePiece { firm_as_at: warm, ..piece }).spread >= found.spread, "and what has not set yet");
        prop_assert!(of(BakePiece { thickness: piece.thickness * 1.3, ..piece }).bake > found.bake, "thick takes longer");
        prop_assert!(of(BakePiece { radius: piece.radius * 1.4, ..piece }).bake > found.bake, "wide takes longer");
    }

    /// Whatever goes in, what comes out is a figure.
    #[test]
    fn every_forecast_is_sound((dough, piece, oven) in any_bake(), level in 0usize..4) {
        let end = BakeEnd::Colour(EdgeColour::ALL[level]);
        let f = forecast(&dough, &piece, &oven, &BakeFit::NONE, end).unwrap();
        prop_assert!(f.done_by != DoneBy::Never || f.bake.min() > 49.0);
        prop_assert!((0.0..1.5).contains(&f.spread.value()) && (1.0..60.0).contains(&f.thickness.mm()));
        prop_assert!((200.0..1400.0).contains(&f.density.kg_m3()) && (0.0..0.25).contains(&f.loss.value()));
        for index in [f.rim_colour, f.middle_colour, f.under_colour] {
            prop_assert!((0.0..=100.0).contains(&index));
        }
    }
}
