//! Nesting against geometry that is not its own: exact distances by the geo crate, bounds from the mathematics of packing,
//! and what any baker would expect of it.

use geo::{Distance as _, Euclidean, LineString, Polygon};
use proptest::prelude::*;
use ready_slab_core::geometry::{Builtin, BuiltinKind, Outline, Placement, read_svg};
use ready_slab_core::shape::{
    LatticeTable, NestCutter, NestPiece, NestQuestion, Nested, Nester, SheetForm, Spacing, Turning, measure_layout,
};
use ready_slab_core::units::Length;

fn demo(name: &str) -> Outline {
    let path = format!("{}/../../demo/cutters/{name}.svg", env!("CARGO_MANIFEST_DIR"));
    read_svg(&std::fs::read_to_string(path).unwrap(), None).unwrap()
}

fn round(diameter: f64) -> Outline {
    Builtin::new(BuiltinKind::Round, diameter, 0.0).unwrap().outline().unwrap()
}

fn cutter(outline: &Outline, wanted: Option<u32>) -> NestCutter {
    NestCutter { outline: outline.clone(), turning: Turning::Free, wanted }
}

fn question(cutters: Vec<NestCutter>, sheet: SheetForm, web: f64, edge: f64) -> NestQuestion {
    NestQuestion::new(cutters, sheet, Spacing::new(web, edge).unwrap()).unwrap()
}

/// All layouts found while so many places are looked at.
fn searched(question: NestQuestion, seed: u64, looks: u64) -> Vec<Nested> {
    let mut nester = Nester::new(question, seed).unwrap();
    let mut found = vec![nester.best().clone()];
    nester.improve(&|n| n >= looks, &mut |nested| found.push(nested.clone()));
    found
}

fn polygon(outline: &Outline, at: Placement) -> Polygon<f64> {
    Polygon::new(LineString::from(outline.placed(at)), vec![])
}

/// The smallest distance between any two pieces and to the sheet's box, by the geo crate.
fn gaps_by_geo(question: &NestQuestion, nested: &Nested) -> (f64, f64) {
    let placed: Vec<Polygon<f64>> =
        nested.pieces.iter().map(|p| polygon(&question.cutters()[p.cutter].outline, p.at)).collect();
    let rim = LineString::from({
        let mut rim = question.sheet().rim();
        rim.push(rim[0]);
        rim
    });
    let mut least = (f64::INFINITY, f64::INFINITY);
    for (i, a) in placed.iter().enumerate() {
        least.1 = least.1.min(Euclidean.distance(a.exterior(), &rim));
        for b in &placed[i + 1..] {
            least.0 = least.0.min(Euclidean.distance(a, b));
        }
    }
    least
}

#[test]
fn web_and_edge_are_kept_to_a_twentieth_of_a_millimetre_by_another_library_s_reckoning() {
    let sheets = [
        SheetForm::oblong(220.0, 260.0, 0.0).unwrap(),
        SheetForm::oblong(220.0, 260.0, 30.0).unwrap(),
        SheetForm::round(250.0).unwrap(),
        SheetForm::oval(210.0, 280.0).unwrap(),
    ];
    for sheet in sheets {
        for (name, web, edge) in [("gull", 3.0, 4.0), ("sailboat", 2.0, 0.0), ("anchor", 4.0, 8.0)] {
            let outline = demo(name);
            let q = question(vec![cutter(&outline, None)], sheet, web, edge);
            for nested in searched(q.clone(), 1, 40_000) {
                let (gap, rim) = gaps_by_geo(&q, &nested);
                assert!(gap >= web - 0.05, "{name} on {sheet:?}: {gap} against a web of {web}");
                assert!(rim >= edge - 0.05, "{name} on {sheet:?}: {rim} against an edge of {edge}");
                assert!((nested.least_gap.map_or(gap, |g| g.mm()) - gap).abs() < 1e-6);
            }
        }
    }
}

#[test]
fn several_cutters_lie_together_and_then_on_a_shorter_sheet() {
    let wanted = [("gull", 8), ("sailboat", 6), ("anchor", 6)];
    let cutters = wanted.iter().map(|(name, n)| cutter(&demo(name), Some(*n))).collect();
    let q = question(cutters, SheetForm::oblong(300.0, 400.0, 0.0).unwrap(), 3.0, 4.0);
    let found = searched(q.clone(), 0, 60_000);
    let (first, last) = (&found[0], &found[found.len() - 1]);
    assert_eq!(last.counts, vec![8, 6, 6]);
    assert_eq!(last.missing, vec![0, 0, 0]);
    assert!(last.used.mm() < first.used.mm() - 5.0, "{:?} after {:?}", last.used, first.used);
    let (gap, _) = gaps_by_geo(&q, last);
    assert!(gap >= 2.95);
    // Every piece is cut once, rows from the top.
    assert_eq!(last.rows[0], 0);
    assert!(last.rows.windows(2).all(|w| w[0] < w[1]) && last.rows.iter().all(|r| *r < last.pieces.len()));
}

#[test]
fn never_fewer_than_grid_and_lattice_and_never_more_than_the_area() {
    for name in ["gull", "fish", "buoy", "lighthouse"] {
        let outline = demo(name);
        let spacing = Spacing::new(3.0, 3.0).unwrap();
        let sheet = SheetForm::oblong(250.0, 300.0, 0.0).unwrap();
        let table = LatticeTable::for_sheet(&outline, Length::new_mm(250.0), Length::new_mm(300.0), spacing).unwrap();
        let (w, h) = outline.extent();
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a count")]
        let along = |sheet: f64, piece: Length| ((sheet - 6.0 + 3.0) / (piece.mm() + 3.0)).floor() as usize;
        let grid = along(250.0, w) * along(300.0, h);
        let q = question(vec![cutter(&outline, None)], sheet, 3.0, 3.0);
        let bound = q.area_bound();
        for nested in searched(q, 3, 20_000) {
            let n = nested.pieces.len();
            assert!(n >= table.count(Length::new_mm(300.0)) && n >= grid && n <= bound, "{name}: {n}, bound {bound}");
        }
    }
}

#[test]
fn rounds_keep_within_what_circles_can_be_packed_to() {
    // Groemer's inequality (H. Groemer, Math. Z. 73, 1960; from memory): a convex region of area A and perimeter P holds
    // at most 2 A / (sqrt(3) d^2) + P / (2 d) + 1 points that keep a distance d.
    let (diameter, web, edge) = (48.0, 2.0, 3.0);
    for sheet in [SheetForm::oblong(300.0, 400.0, 0.0).unwrap(), SheetForm::round(380.0).unwrap()] {
        let (w, l) = sheet.extent();
        let inset = diameter / 2.0 + edge;
        // Chords lie inside the circle by up to 0.05 mm, so what is packed is that much smaller.
        let d = diameter + web - 0.11;
        let (area, perimeter) = match sheet {
            SheetForm::Round { .. } => {
                let r = w.mm() / 2.0 - inset + 0.06;
                (std::f64::consts::PI * r * r, 2.0 * std::f64::consts::PI * r)
            }
            _ => {
                let (w, l) = (w.mm() - 2.0 * inset + 0.12, l.mm() - 2.0 * inset + 0.12);
                (w * l, 2.0 * (w + l))
            }
        };
        let most = 2.0 * area / (3.0_f64.sqrt() * d * d) + perimeter / (2.0 * d) + 1.0;
        let q = question(vec![cutter(&round(diameter), None)], sheet, web, edge);
        let best = searched(q, 2, 60_000).pop().unwrap();
        #[expect(clippy::cast_precision_loss, reason = "a count of pieces")]
        let n = best.pieces.len() as f64;
        assert!(n <= most, "{n} rounds against at most {most}");
        assert!(n >= 0.8 * most, "{n} rounds of at most {most}: poorly packed");
    }
}

#[test]
fn the_same_seed_gives_the_same_layouts_and_more_time_only_adds_to_them() {
    let q = question(vec![cutter(&demo("sailboat"), None)], SheetForm::oblong(240.0, 260.0, 0.0).unwrap(), 3.0, 3.0);
    let (short, again, long) = (searched(q.clone(), 5, 8_000), searched(q.clone(), 5, 8_000), searched(q, 5, 40_000));
    assert_eq!(short, again);
    assert!(long.len() >= short.len());
    assert_eq!(long[..short.len()], short[..]);
    assert!(long.windows(2).all(|w| w[1].beats(&w[0])));
}

#[test]
fn a_cutter_drawn_elsewhere_or_upside_down_lies_as_many_times() {
    let outline = demo("fish");
    let moved: Vec<_> = outline.points().iter().map(|p| (p.0 + 71.0, p.1 - 33.0)).collect();
    let turned: Vec<_> = outline.points().iter().map(|p| (-p.0, -p.1)).collect();
    let sheet = SheetForm::oblong(250.0, 300.0, 0.0).unwrap();
    let count =
        |o: &Outline| Nester::new(question(vec![cutter(o, None)], sheet, 3.0, 3.0), 1).unwrap().best().pieces.len();
    let plain = count(&outline);
    assert_eq!(count(&Outline::new(&moved).unwrap()), plain);
    assert_eq!(count(&Outline::new(&turned).unwrap()), plain);
    // A sheet laid the other way round is the same sheet.
    let across = SheetForm::oblong(300.0, 250.0, 0.0).unwrap();
    assert_eq!(
        Nester::new(question(vec![cutter(&outline, None)], across, 3.0, 3.0), 1).unwrap().best().pieces.len(),
        plain
    );
}

#[test]
fn a_textured_face_is_turned_only_as_far_as_it_may_be() {
    let outline = demo("lighthouse");
    let sheet = SheetForm::oblong(240.0, 300.0, 0.0).unwrap();
    for (turning, allowed) in [(Turning::Fixed, &[0.0][..]), (Turning::HalfTurn, &[0.0, 180.0][..])] {
        let only = NestCutter { outline: outline.clone(), turning, wanted: None };
        for nested in searched(question(vec![only], sheet, 3.0, 3.0), 1, 20_000) {
            assert!(!nested.pieces.is_empty());
            for piece in &nested.pieces {
                assert!(allowed.contains(&piece.at.turn_deg), "{} among {allowed:?}", piece.at.turn_deg);
            }
        }
    }
}

#[test]
fn held_pieces_stay_where_they_were_put_and_the_rest_goes_around_them() {
    let outline = demo("buoy");
    let q = question(vec![cutter(&outline, None)], SheetForm::oblong(240.0, 260.0, 0.0).unwrap(), 3.0, 3.0);
    let held = vec![
        NestPiece { cutter: 0, at: Placement { x_mm: 120.0, y_mm: 130.0, turn_deg: 37.0 } },
        NestPiece { cutter: 0, at: Placement { x_mm: 60.0, y_mm: 60.0, turn_deg: 200.0 } },
    ];
    let first = Nester::new(q.clone(), 1).unwrap().best().pieces.clone();
    for start in [vec![], first] {
        let q = q.clone().starting_from(held.clone(), start).unwrap();
        for nested in searched(q.clone(), 1, 20_000) {
            assert!(held.iter().all(|h| nested.pieces.contains(h)));
            assert!(nested.pieces.len() > 6);
            assert!(gaps_by_geo(&q, &nested).0 >= 2.95);
        }
    }
}

#[test]
fn a_hand_s_layout_is_measured_piece_by_piece() {
    let outline = round(50.0);
    let q = question(vec![cutter(&outline, None)], SheetForm::oblong(200.0, 200.0, 0.0).unwrap(), 3.0, 4.0);
    let at = |x_mm: f64, y_mm: f64| NestPiece { cutter: 0, at: Placement { x_mm, y_mm, turn_deg: 0.0 } };
    let gaps = measure_layout(&q, &[at(30.0, 30.0), at(82.0, 30.0), at(30.0, 150.0), at(180.0, 150.0)]);
    assert_eq!(gaps[0].too_near, vec![1]);
    assert!((gaps[0].nearest.unwrap().0.mm() - 2.0).abs() < 0.01);
    assert!(gaps[2].is_sound() && gaps[2].nearest.is_none() && (gaps[2].rim.mm() - 5.0).abs() < 0.06);
    assert!(gaps[3].over_rim && gaps[3].rim.mm() == 0.0);
}

#[test]
fn what_cannot_be_laid_out_is_refused_with_its_reason() {
    let spacing = Spacing::new(3.0, 4.0).unwrap();
    let sheet = SheetForm::oblong(60.0, 60.0, 0.0).unwrap();
    let said = NestQuestion::new(vec![cutter(&round(55.0), None)], sheet, spacing).unwrap_err().to_string();
    assert!(said.contains("fit the sheet"), "{said}");
    assert!(Spacing::new(0.0, 4.0).unwrap_err().to_string().contains("web_mm"));
    let two = vec![cutter(&round(20.0), None), cutter(&round(20.0), Some(3))];
    assert!(NestQuestion::new(two, sheet, spacing).unwrap_err().to_string().contains("number of cookies for each"));
    let q = question(vec![cutter(&round(20.0), None)], sheet, 3.0, 4.0);
    let beyond = NestPiece { cutter: 0, at: Placement { x_mm: 5.0, y_mm: 30.0, turn_deg: 0.0 } };
    assert!(q.clone().starting_from(vec![beyond], vec![]).unwrap_err().to_string().contains("margin"));
    let nowhere = NestPiece { cutter: 7, at: Placement { x_mm: f64::NAN, y_mm: 30.0, turn_deg: 0.0 } };
    assert!(q.starting_from(vec![nowhere], vec![]).is_err());
}

#[test]
fn ten_thousand_pieces_are_laid_in_rows_and_what_does_not_fit_is_counted() {
    let small = cutter(&round(10.0), Some(10_000));
    let q = question(vec![small], SheetForm::oblong(310.0, 440.0, 0.0).unwrap(), 1.0, 3.0);
    let nested = searched(q, 1, 1_000_000).pop().unwrap();
    assert!(nested.pieces.len() > 900);
    assert_eq!(nested.counts[0] + nested.missing[0], 10_000);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(12))]
    #[test]
    fn any_star_on_any_sheet_keeps_its_web(
        arms in 3_u32..8, inner in 0.35..0.9_f64, size in 18.0..40.0_f64,
        web in 0.5..8.0_f64, edge in 0.0..10.0_f64, width in 130.0..240.0_f64, seed in 0_u64..9,
    ) {
        let points: Vec<(f64, f64)> = (0..2 * arms)
            .map(|i| {
                let r = if i % 2 == 0 { size } else { size * inner };
                let a = f64::from(i) * std::f64::consts::PI / f64::from(arms);
                (r * a.cos(), r * a.sin())
            })
            .collect();
        let outline = Outline::new(&points).unwrap();
        let q = question(vec![cutter(&outline, None)], SheetForm::oblong(width, 200.0, 12.0).unwrap(), web, edge);
        for nested in searched(q.clone(), seed, 6_000) {
            let (gap, rim) = gaps_by_geo(&q, &nested);
            prop_assert!(gap >= web - 0.05 && rim >= edge - 0.05, "{gap} {rim}");
        }
    }
}
