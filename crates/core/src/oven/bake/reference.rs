//! The model against the cases that settled its equations, the rows of practice it was calibrated to, its own balances and its steps.
//!
//! `cases.json` holds inputs and full-precision results of the prototype; `practice_rows.json` bands of practice and what the prototype was fitted
//! to (docs/oven.md).

use super::dough::{OvenDough, OvenDoughParts};
use super::forecast::{Asked, BakeForecast, DoneBy, read_at, unchecked};
use super::run::Until;
use super::setup::{BakeFit, BakePiece, OvenSetup, TrayCover, TrayLiner, TrayMaterial};
use crate::air::standard_pressure_pa;
use crate::dough::FatKind;
use crate::units::{Length, Share, Span, Temperature, TemperatureDifference};
use serde_json::Value;

/// Water, fat, flour, starch, sugar, other, pieces, reducing sugars, egg's protein: shares of an ingredient's mass, as the cases have them.
fn ingredient(name: &str) -> [f64; 9] {
    match name {
        "butter" => [0.16, 0.815, 0.0, 0.0, 0.0, 0.025, 0.0, 0.004, 0.0],
        "shortening" => [0.0, 1.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0],
        "flour" => [0.125, 0.01, 0.865, 0.0, 0.0, 0.0, 0.0, 0.002, 0.0],
        "cornstarch" => [0.11, 0.0, 0.0, 0.89, 0.0, 0.0, 0.0, 0.0, 0.0],
        "sugar" | "caster" => [0.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 0.0],
        "powdered" => [0.002, 0.0, 0.0, 0.03, 0.968, 0.0, 0.0, 0.0, 0.0],
        "brown" => [0.02, 0.0, 0.0, 0.0, 0.96, 0.02, 0.0, 0.035, 0.0],
        "honey" => [0.17, 0.0, 0.0, 0.0, 0.82, 0.01, 0.0, 0.75, 0.0],
        "dextrose" => [0.09, 0.0, 0.0, 0.0, 0.91, 0.0, 0.0, 0.91, 0.0],
        "cornsyrup" => [0.29, 0.0, 0.0, 0.0, 0.71, 0.0, 0.0, 0.35, 0.0],
        "egg" => [0.76, 0.095, 0.0, 0.0, 0.0, 0.145, 0.0, 0.003, 0.125],
        "yolk" => [0.52, 0.27, 0.0, 0.0, 0.0, 0.21, 0.0, 0.002, 0.16],
        "milk" => [0.88, 0.035, 0.0, 0.0, 0.0, 0.085, 0.0, 0.048, 0.0],
        "milkpowder" => [0.03, 0.01, 0.0, 0.0, 0.0, 0.96, 0.0, 0.20, 0.0],
        "water" => [1.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0],
        "cocoa" => [0.03, 0.12, 0.84, 0.0, 0.01, 0.0, 0.0, 0.004, 0.0],
        "nutmeal" => [0.05, 0.16, 0.45, 0.0, 0.04, 0.03, 0.27, 0.002, 0.0],
        "chips" => [0.01, 0.0, 0.0, 0.0, 0.0, 0.0, 0.99, 0.0, 0.0],
        "salt" | "soda" | "ammonium" => [0.0, 0.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0],
        "bakingpowder" => [0.05, 0.0, 0.0, 0.30, 0.0, 0.65, 0.0, 0.0, 0.0],
        other => panic!("{other} is not in the cases"),
    }
}

/// Crystal, m, and dissolved share.
fn crystal(name: &str) -> Option<(f64, f64)> {
    Some(match name {
        "sugar" => (0.000_45, 0.15),
        "caster" => (0.000_25, 0.25),
        "powdered" => (0.000_03, 0.60),
        "brown" => (0.000_35, 0.25),
        "honey" | "dextrose" | "cornsyrup" => (0.000_03, 1.0),
        _ => return None,
    })
}

/// Grams of soda that a gram uses up.
fn acid(name: &str) -> f64 {
    match name {
        "brown" => 0.001,
        "honey" => 0.012,
        "cocoa" => 0.03,
        _ => 0.0,
    }
}

fn dough(recipe: &Value, air: f64, protein_percent: f64) -> OvenDough {
    let recipe: Vec<(&str, f64)> =
        recipe.as_object().unwrap().iter().map(|(name, g)| (name.as_str(), g.as_f64().unwrap())).collect();
    let total: f64 = recipe.iter().map(|r| r.1).sum();
    let grams = |wanted: &str| recipe.iter().filter(|r| r.0 == wanted).map(|r| r.1).sum::<f64>();
    let mut a = [0.0; 9];
    let (mut sugar, mut undissolved, mut crystals, mut used_up) = (0.0, 0.0, 0.0, 0.0);
    for (name, g) in &recipe {
        let parts = ingredient(name);
        for (sum, part) in a.iter_mut().zip(parts) {
            *sum += part * g / total;
        }
        if let Some((m, dissolved)) = crystal(name) {
            let own = g * parts[4];
            sugar += own;
            undissolved += own * (1.0 - dissolved);
            crystals += own * (1.0 - dissolved) * m;
        }
        used_up += g * acid(name);
    }
    let fat = a[1] * total;
    let (butter, shortening) = (grams("butter") * 0.815 / fat, grams("shortening") / fat);
    OvenDough::new(OvenDoughParts {
        water: a[0],
        fat: a[1],
        flour: a[2],
        starch: a[3],
        sugar: a[4],
        other: a[5],
        pieces: a[6],
        reducing: a[7],
        egg_protein: a[8],
        protein_percent,
        fats: vec![
            (FatKind::Butter, butter),
            (FatKind::Shortening, shortening),
            (FatKind::Liquid, 1.0 - butter - shortening),
        ],
        air,
        gas_mol_kg: (grams("soda") * 11.9 * 0.6 + grams("bakingpowder") * 1.9 + grams("ammonium") * 20.0) / total,
        soda_percent: 100.0 * (grams("soda") - used_up).max(0.0) / grams("flour"),
        crystal_m: crystals / undissolved,
        dissolved: (1.0 - undissolved / sugar).min(1.9 * a[0] / a[4]),
        powdered: grams("powdered") * 0.968 / sugar,
    })
    .unwrap()
}

/// One case or row: what goes in.
struct Set {
    dough: OvenDough,
    piece: BakePiece,
    oven: OvenSetup,
    fit: BakeFit,
    asked: Asked,
    at: Option<Span>,
}

impl Set {
    fn new(dough: OvenDough, piece: &Value, oven: &Value, end: &Value, fit: &Value) -> Self {
        let of = |from: &Value, key: &str, usual: f64| from[key].as_f64().unwrap_or(usual);
        let mut setup = OvenSetup::usual(of(oven, "T", 175.0), of(oven, "fan", 0.0) > 0.5);
        setup.tray = match oven["tray"].as_str() {
            None => TrayMaterial::Light,
            Some("dark") => TrayMaterial::Dark,
            Some("heavy") => TrayMaterial::Heavy,
            Some(other) => panic!("{other}"),
        };
        setup.liner = match oven["liner"].as_str() {
            None => TrayLiner::Parchment,
            Some("bare") => TrayLiner::Bare,
            Some("greased") => TrayLiner::Greased,
            Some("silicone") => TrayLiner::Silicone,
            Some(other) => panic!("{other}"),
        };
        if let Some(cover) = oven["cover"].as_f64() {
            setup.cover = TrayCover::Share(Share::new(cover));
        }
        setup.tray_start = Temperature::new_c(of(oven, "Ttray0", 22.0));
        setup.pressure_pa = standard_pressure_pa(of(oven, "altitude", 0.0));
        let colour = match &end["level"] {
            Value::String(word) => Some(match word.as_str() {
                "pale" => 0.08,
                "just golden" => 0.22,
                "golden" => 0.45,
                "brown" => 0.90,
                other => panic!("{other}"),
            }),
            // Of cocoa hardly any colour is asked.
            other => other.as_f64(),
        };
        let learnt = |i: usize, usual: f64| fit[i].as_f64().unwrap_or(usual);
        Self {
            dough,
            piece: BakePiece {
                thickness: Length::new_mm(of(piece, "h", 6.0)),
                radius: Length::new_mm(of(piece, "D", 65.0) / 2.0),
                start: Temperature::new_c(of(piece, "T0", 6.0)),
                firm_as_at: Temperature::new_c(of(piece, "T0", 6.0)),
                wait: Span::new_s(of(piece, "wait", 0.0)),
            },
            oven: setup,
            fit: BakeFit {
                offset: TemperatureDifference::new_k(learnt(0, 0.0)),
                heat: learnt(1, 1.0),
                spread: learnt(2, 1.0),
                ..BakeFit::NONE
            },
            asked: Asked { colour, soft: end["soft"] == true },
            at: end["at"].as_f64().map(Span::new_min),
        }
    }

    fn bake<const N: usize>(&self, steps: &Until) -> BakeForecast {
        match self.at {
            Some(at) => read_at::<N>(&self.dough, &self.piece, &self.oven, &self.fit, at, steps),
            None => unchecked::<N>(&self.dough, &self.piece, &self.oven, &self.fit, self.asked, steps, vec![]),
        }
    }
}

fn cases() -> Vec<(Value, Set)> {
    let all: Vec<Value> = serde_json::from_str(include_str!("../../../tests/all/bake/cases.json")).unwrap();
    all.into_iter()
        .map(|c| {
            let (air, protein) = (c["dough"]["air"].as_f64().unwrap(), c["dough"]["protein"].as_f64().unwrap());
            let set = Set::new(dough(&c["recipe_g"], air, protein), &c["piece"], &c["oven"], &c["end"], &c["fit"]);
            (c, set)
        })
        .collect()
}

fn rows() -> Vec<(Value, Set)> {
    let all: Vec<Value> = serde_json::from_str(include_str!("../../../tests/all/bake/practice_rows.json")).unwrap();
    all.into_iter()
        .map(|r| {
            let (air, protein) = (r["air"].as_f64().unwrap(), r["protein"].as_f64().unwrap());
            let set = Set::new(dough(&r["recipe_g"], air, protein), &r["piece"], &r["oven"], &r, &Value::Null);
            (r, set)
        })
        .collect()
}

/// What is told, by the names of the cases.
fn told(f: &BakeForecast, name: &str) -> f64 {
    match name {
        "min" => f.bake.min(),
        "spread" => 100.0 * f.spread.value(),
        "th" => f.thickness.mm(),
        "th_hot" => f.thickness_hot.mm(),
        "edge" => f.rim_colour,
        "centre" => f.middle_colour,
        "under" => f.under_colour,
        "core" => f.core.c(),
        "loss" => 100.0 * f.loss.value(),
        "dens" => f.density.kg_m3(),
        "tset" => f.set_after.map_or(0.0, Span::min),
        "tdry" => f.dull_after.map_or(0.0, Span::min),
        other => panic!("{other}"),
    }
}

#[test]
fn every_reference_case_is_met_within_half_a_per_cent() {
    let all = cases();
    assert_eq!(all.len(), 30);
    for (case, set) in &all {
        let (name, f) = (case["name"].as_str().unwrap(), set.bake::<10>(&Until::LAST));
        assert_eq!(f.done_by == DoneBy::Never, case["result"]["min"].is_null(), "{name}");
        for of in ["min", "spread", "th", "th_hot", "edge", "centre", "under", "core", "loss", "dens", "tset", "tdry"] {
            let Some(wanted) = case["result"][of].as_f64() else { continue };
            let asked = of != "tset" || !set.asked.soft;
            if asked && !(set.at.is_some() && of.starts_with('t') && of != "th" && of != "th_hot") {
                let found = told(&f, of);
                assert!((found - wanted).abs() <= 0.005 * wanted.abs(), "{name}: {of} {found} against {wanted}");
            }
        }
    }
}

/// A figure of a row outside its band.
#[derive(Debug, PartialEq, Eq, PartialOrd, Ord)]
struct Miss(String, String);

fn misses(bakes: &[(Value, BakeForecast)]) -> (Vec<Miss>, usize) {
    let (mut found, mut figures) = (Vec::new(), 0);
    for (row, f) in bakes {
        for (of, band) in row["bands"].as_object().unwrap() {
            let (least, most) = (band[0].as_f64().unwrap(), band[1].as_f64().unwrap());
            figures += 1;
            if !(least..=most).contains(&told(f, of)) {
                found.push(Miss(row["id"].as_str().unwrap().to_owned(), of.clone()));
            }
        }
    }
    found.sort();
    (found, figures)
}

/// Figures of rows that the model misses, as docs/oven.md lists them. A band is never widened; a figure that comes to lie within leaves the list.
const KNOWN_MISSES: [(&str, &str); 20] = [
    ("almond-disc", "spread"),
    ("butter-ball", "min"),
    ("chocice9.5", "spread"),
    ("choc5-soft", "min"),
    ("crescent-170", "min"),
    ("drop35-cold", "min"),
    ("drop35-cold", "spread"),
    ("cinnamon-ball", "th"),
    ("honey-rolled8", "spread"),
    ("honey12.7-163", "spread"),
    ("icebox15-165", "spread"),
    ("icebox6.35-190", "min"),
    ("inclusions20-soft", "min"),
    ("roll3-40mm", "min"),
    ("short-dough-6", "spread"),
    ("short-fingers12", "dens"),
    ("snap-at-3min", "spread"),
    ("soda5-170", "min"),
    ("soda5-170", "spread"),
    ("wire-cut", "loss"),
];

/// Common practice, no source, but for the flour-test cookies (published, from memory): each row says which.
#[test]
fn rows_of_practice_lie_within_their_bands_but_for_the_misses_told() {
    let bakes: Vec<(Value, BakeForecast)> =
        rows().into_iter().map(|(row, set)| (row, set.bake::<10>(&Until::LAST))).collect();
    assert_eq!(bakes.len(), 67);
    let (found, figures) = misses(&bakes);
    let mut known: Vec<Miss> = KNOWN_MISSES.iter().map(|(a, b)| Miss((*a).to_owned(), (*b).to_owned())).collect();
    known.sort();
    assert_eq!((found, figures), (known, 145));
}

/// The limits of the prototype's own error study (docs/oven.md), over all rows: half the step, and the inner cells halved.
#[test]
fn finer_steps_and_cells_move_the_forecast_no_further_than_told() {
    let halved = Until { fineness: 0.20, most_step_s: 0.3, ..Until::LAST };
    let figures = ["min", "spread", "th", "under", "loss"];
    let (by_step, by_cells) = ([0.40, 2.0, 0.7, 4.2, 0.3], [1.9, 4.0, 0.9, 8.4, 3.5]);
    for (row, set) in rows() {
        let name = row["id"].as_str().unwrap();
        let coarse = set.bake::<10>(&Until::LAST);
        let finer = [(set.bake::<10>(&halved), by_step), (set.bake::<18>(&Until::LAST), by_cells)];
        for (fine, most_percent) in &finer {
            for (of, most) in figures.iter().zip(most_percent) {
                let (a, b) = (told(&coarse, of), told(fine, of));
                // Of a spread that nobody can measure, a hundredth of a point is no error.
                let off = 100.0 * (a - b).abs() / a.abs().max(0.6);
                assert!(off <= *most, "{name}: {of} {a} {b}, {off} %");
            }
        }
    }
}
