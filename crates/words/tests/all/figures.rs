//! Figures as the browser writes them: both read one file of cases, so that a text in metric or US units is the same whoever wrote it.

use ready_slab_words::{Figure, Joint, Quantity, System};
use serde_json::Value;

const CASES: &str = include_str!("../../../../web/src/drawing/figures.json");

fn figure(case: &Value) -> Figure {
    let quantity = match case["quantity"].as_str().unwrap() {
        "length" => Quantity::Length,
        "mass" => Quantity::Mass,
        "temperature" => Quantity::Temperature,
        "setting" => Quantity::Setting,
        "difference" => Quantity::Difference,
        "span" => Quantity::Span,
        "share" => Quantity::Share,
        other => panic!("{other}"),
    };
    let joint = if case["joint"] == "to" { Joint::To } else { Joint::By };
    Figure {
        quantity,
        value: case["value"].as_f64().unwrap(),
        and: case["and"].as_f64().map(|other| (joint, other)),
        places: usize::try_from(case["places"].as_u64().unwrap()).unwrap(),
    }
}

#[test]
fn figures_are_written_as_the_browser_writes_them() {
    let cases: Vec<Value> = serde_json::from_str(CASES).unwrap();
    assert!(cases.len() > 20);
    for case in &cases {
        let figure = figure(case);
        assert_eq!(figure.text(System::Metric), case["metric"].as_str().unwrap(), "{case}");
        assert_eq!(figure.text(System::Us), case["us"].as_str().unwrap(), "{case}");
    }
}
