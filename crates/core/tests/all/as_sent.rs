//! What is kept and sent comes back as it went, and what is no such thing is refused by name. The names are a contract: files that were
//! exported, and the store, hold them.

use ready_slab_core::cold::Piece;
use ready_slab_core::finish::Finish;
use ready_slab_core::job::{JobInput, Making};
use ready_slab_core::shape::{LogForm, Portion, Spoon};
use ready_slab_core::units::{Length, Mass};
use serde::Serialize;
use serde::de::DeserializeOwned;
use serde_json::{Value, json};
use std::fmt::Debug;

use crate::bakehouse::job_input;

fn comes_back<T: Serialize + DeserializeOwned + PartialEq + Debug>(value: &T, as_sent: &Value) {
    let sent = serde_json::to_value(value).unwrap();
    assert_eq!(&sent, as_sent);
    assert_eq!(&serde_json::from_value::<T>(sent).unwrap(), value);
}

fn mm(v: f64) -> Length {
    Length::new_mm(v)
}

fn g(v: f64) -> Mass {
    Mass::new_g(v)
}

#[test]
fn ways_of_making_come_back_as_they_went() {
    comes_back(&Making::Cut, &json!({"kind": "cut"}));
    comes_back(
        &Making::sliced(LogForm::Oblong { height_to_width: 0.5 }, mm(60.0)),
        &json!({"kind": "sliced", "form": "oblong", "height_to_width": 0.5, "width_mm": 60.0, "longest_mm": 300.0, "ends_kept": false}),
    );
    let portion = Making::Portioned;
    comes_back(&portion(Portion::Ball { mass: g(25.0) }), &json!({"kind": "ball", "mass_g": 25.0}));
    comes_back(&portion(Portion::Scoop { number: 60, weighs: None }), &json!({"kind": "scoop", "scoop": 60}));
    comes_back(
        &portion(Portion::Spoon { spoon: Spoon::Teaspoon, heaped: true, weighs: Some(g(9.0)) }),
        &json!({"kind": "spoon", "spoon": "teaspoon", "heaped": true, "mass_g": 9.0}),
    );
    comes_back(
        &portion(Portion::Stamped { across: mm(60.0), thickness: mm(8.0), relief: mm(1.5) }),
        &json!({"kind": "stamped", "across_mm": 60.0, "thickness_mm": 8.0, "deep_mm": 1.5}),
    );
    comes_back(
        &portion(Portion::Thumbprint { mass: g(20.0), dent: mm(15.0), deep: mm(6.0) }),
        &json!({"kind": "thumbprint", "mass_g": 20.0, "dent_mm": 15.0, "deep_mm": 6.0}),
    );
    comes_back(
        &portion(Portion::Figure { parts: vec![g(20.0), g(4.0), g(4.0)] }),
        &json!({"kind": "figure", "parts_g": [20.0, 4.0, 4.0]}),
    );
}

#[test]
fn what_is_left_out_of_a_way_is_the_usual_one() {
    let read = |v: Value| serde_json::from_value::<Making>(v).unwrap();
    // What one of another scoop weighs is unsaid again by a null.
    let unsaid = read(json!({"kind": "scoop", "scoop": 60, "mass_g": null}));
    assert_eq!(unsaid, Making::Portioned(Portion::Scoop { number: 60, weighs: None }));
    let Making::Sliced { form, width, .. } = read(json!({"kind": "sliced", "form": "round"})) else {
        panic!("not sliced")
    };
    assert_eq!((form, width), (LogForm::Round, ready_slab_core::shape::USUAL_LOG_ACROSS));
    assert_eq!(read(json!({"kind": "ball"})), Making::Portioned(Portion::Ball { mass: Portion::USUAL_BALL }));
}

#[test]
fn what_is_no_way_of_making_is_refused_by_its_name() {
    let refused = |v: Value| serde_json::from_value::<Making>(v).unwrap_err().to_string();
    assert!(refused(json!({"kind": "plaited"})).contains("plaited"));
    assert!(refused(json!({"kind": "sliced", "form": "round", "wide_mm": 40})).contains("wide_mm"));
    assert!(refused(json!({"kind": "sliced", "form": "heart"})).contains("heart"));
}

#[test]
fn pieces_in_the_cold_come_back_as_they_went() {
    for (piece, as_sent) in [
        (Piece::Sheet { thickness: mm(6.0) }, json!({"kind": "sheet", "thickness_mm": 6.0})),
        (
            Piece::Disc { thickness: mm(22.0), diameter: mm(180.0) },
            json!({"kind": "disc", "thickness_mm": 22.0, "diameter_mm": 180.0}),
        ),
    ] {
        comes_back(&piece, &as_sent);
    }
}

#[test]
fn a_job_comes_back_as_it_went_and_an_old_one_is_read_with_what_is_usual() {
    let job = job_input();
    let sent = serde_json::to_value(&job).unwrap();
    assert_eq!(serde_json::from_value::<JobInput>(sent.clone()).unwrap(), job);
    // A job kept before portions, liners and finishes were known holds none of them.
    let Value::Object(mut old) = sent else { panic!("no object") };
    for later in ["making", "bake_end", "liner", "finishes", "sheet", "turning", "mixed", "tints", "flour_rest_min"] {
        assert!(old.remove(later).is_some(), "{later}");
    }
    assert_eq!(serde_json::from_value::<JobInput>(Value::Object(old)).unwrap(), job);
}

#[test]
fn a_finish_without_figures_is_the_usual_one_and_comes_back_with_them() {
    for kind in [
        "coarse_sugar",
        "powdered_sugar",
        "water_glaze",
        "spirit_glaze",
        "dip",
        "drizzle",
        "jam",
        "chocolate_filling",
        "icing",
        "royal",
        "royal_fresh",
        "fondant",
        "buttercream",
        "coarse_sugar_after",
        "glaze_drizzle",
        "glaze_dip",
        "jam_baked",
    ] {
        let coat: Finish = serde_json::from_value(json!({ "kind": kind })).unwrap();
        let sent = serde_json::to_value(&coat).unwrap();
        assert_eq!(sent["kind"], kind);
        assert_eq!(serde_json::from_value::<Finish>(sent).unwrap(), coat);
    }
    let glaze: Finish = serde_json::from_value(json!({"kind": "water_glaze", "film_mm": 1.5})).unwrap();
    assert_eq!(serde_json::to_value(glaze).unwrap()["film_mm"], 1.5);
    assert!(serde_json::from_value::<Finish>(json!({"kind": "tar"})).unwrap_err().to_string().contains("tar"));
}
