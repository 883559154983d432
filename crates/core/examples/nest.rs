//! The nesting bench set: how many pieces lie on a sheet after 0.1, 2 and 10 s, on two threads. Prints JSON with the
//! outlines as they are searched with, so that `bench/nest_against_reference.py` sets another packer the same task.
//!
//! `cargo run --release -p ready-slab-core --example nest -- 10 [name ...]`

use ready_slab_core::geometry::{Builtin, BuiltinKind, Outline, read_svg};
use ready_slab_core::shape::{NestCutter, NestQuestion, Nester, SheetForm, Spacing, Turning};
use std::sync::Mutex;
use std::time::Instant;

const WIDTH_MM: f64 = 300.0;
const LENGTH_MM: f64 = 400.0;
const WEB_MM: f64 = 3.0;
const EDGE_MM: f64 = 3.0;

fn star() -> Outline {
    let points: Vec<(f64, f64)> = (0..10)
        .map(|i| {
            let r = if i % 2 == 0 { 32.0 } else { 14.0 };
            let a = f64::from(i) * 36.0_f64.to_radians();
            (r * a.sin(), -r * a.cos())
        })
        .collect();
    Outline::new(&points).expect("a star is an outline")
}

fn crescent() -> Outline {
    let mut points: Vec<(f64, f64)> =
        (-12..=12).map(|i| f64::from(i) * 11.0_f64.to_radians()).map(|a| (30.0 * a.sin(), -30.0 * a.cos())).collect();
    points.extend(
        (-11..=11).rev().map(|i| f64::from(i) * 9.0_f64.to_radians()).map(|a| (21.0 * a.sin(), 6.0 - 23.0 * a.cos())),
    );
    Outline::new(&points).expect("a crescent is an outline")
}

fn instances() -> Vec<(String, Outline)> {
    let demo = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/cutters");
    let mut found: Vec<(String, Outline)> = ["gull", "sailboat", "anchor", "fish", "buoy", "lighthouse"]
        .iter()
        .map(|name| {
            let text = std::fs::read_to_string(format!("{demo}/{name}.svg")).expect("the demo cutters are there");
            ((*name).to_owned(), read_svg(&text, None).expect("the demo cutters are sound"))
        })
        .collect();
    found.push(("star".into(), star()));
    found.push(("crescent".into(), crescent()));
    let petal = Builtin::new(BuiltinKind::Petal, 58.0, 0.0).expect("58 mm is a size").outline();
    found.push(("petal".into(), petal.expect("a petal is an outline")));
    let pennant = Outline::new(&[(0.0, 0.0), (74.0, 16.0), (0.0, 38.0)]);
    found.push(("pennant".into(), pennant.expect("a pennant is an outline")));
    found
}

fn main() {
    let mut args = std::env::args().skip(1);
    let seconds: f64 = args.next().and_then(|s| s.parse().ok()).unwrap_or(10.0);
    let only: Vec<String> = args.collect();
    let mut all = serde_json::Map::new();
    for (name, outline) in instances() {
        if !only.is_empty() && !only.contains(&name) {
            continue;
        }
        let sheet = SheetForm::oblong(WIDTH_MM, LENGTH_MM, 0.0).expect("a sheet");
        let spacing = Spacing::new(WEB_MM, EDGE_MM).expect("a spacing");
        let cutter = NestCutter { outline: outline.clone(), turning: Turning::Free, wanted: None };
        let question = NestQuestion::new(vec![cutter], sheet, spacing).expect("the cutter fits");
        let reached: Mutex<Vec<(f64, usize)>> = Mutex::new(vec![]);
        let start = Instant::now();
        std::thread::scope(|scope| {
            for seed in 0..2 {
                let (question, reached) = (question.clone(), &reached);
                scope.spawn(move || {
                    let note = |count: usize| {
                        let mut reached = reached.lock().expect("no thread panics");
                        if reached.last().is_none_or(|(_, n)| *n < count) {
                            reached.push((start.elapsed().as_secs_f64(), count));
                        }
                    };
                    let mut nester = Nester::new(question, seed).expect("a first layout");
                    note(nester.best().pieces.len());
                    nester.improve(&|_| start.elapsed().as_secs_f64() > seconds, &mut |n| note(n.pieces.len()));
                });
            }
        });
        let reached = reached.into_inner().expect("no thread panics");
        let at = |s: f64| reached.iter().filter(|(t, _)| *t <= s).map(|(_, n)| *n).next_back().unwrap_or(0);
        let steps: Vec<String> = reached.iter().map(|(t, n)| format!("{n} at {t:.3} s")).collect();
        eprintln!("{name:<11} {}", steps.join(", "));
        all.insert(
            name,
            serde_json::json!({
                "outline": outline.points(), "web_mm": WEB_MM, "edge_mm": EDGE_MM, "width_mm": WIDTH_MM,
                "length_mm": LENGTH_MM, "first_s": reached[0].0, "at_0_1_s": at(0.1), "at_2_s": at(2.0), "at_10_s": at(10.0),
            }),
        );
    }
    println!("{}", serde_json::Value::Object(all));
}
