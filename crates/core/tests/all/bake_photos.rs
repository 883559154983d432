//! Photos of baked pieces whose truth is known: made up as a camera would see them, tilted, shadowed, tinted, blurred and noisy.

use palette::color_difference::Ciede2000;
use palette::white_point::D65;
use ready_slab_camera::{MadeUpPhoto, MadeUpPiece, made_up_photo};
use ready_slab_core::geometry::{Builtin, BuiltinKind, Outline, PaperSize, PlaceOnPiece, Placement, read_svg};
use ready_slab_core::ledger::{PhotoAsked, PhotoCutter, PhotoMeasures, measure_photo};
use ready_slab_core::units::{Length, Share};
use rstest::rstest;

const PALE: [f64; 3] = [78.0, 4.0, 26.0];
const GOLDEN: [f64; 3] = [66.0, 11.0, 37.0];
const COCOA: [f64; 3] = [34.0, 11.0, 14.0];
const THICK_MM: f64 = 7.0;

fn gull() -> Outline {
    read_svg(include_str!("../../../../demo/cutters/gull.svg"), Some(Length::new_mm(80.0))).unwrap()
}

fn builtin(kind: BuiltinKind, width_mm: f64) -> Outline {
    Builtin::new(kind, width_mm, width_mm).unwrap().outline().unwrap()
}

fn apart(a: [f64; 3], b: [f64; 3]) -> f64 {
    #[expect(clippy::cast_possible_truncation, reason = "a colour")]
    let of = |c: [f64; 3]| {
        let [l, a, b] = c.map(|v| v as f32);
        palette::Lab::<D65, f32>::new(l, a, b)
    };
    f64::from(of(a).difference(of(b)))
}

/// A piece of a cutter as it came out: the outline grown all round by a share of its width, lying somewhere.
fn piece(cutter: &Outline, spread: f64, (x_mm, y_mm): (f64, f64), turn_deg: f64) -> MadeUpPiece {
    let (w, h) = cutter.extent();
    let margin = Length::new_mm(0.5 * spread * w.mm().max(h.mm()));
    let grown = Outline::new(&cutter.spread_by(margin)).unwrap();
    let ring = grown.placed(Placement { x_mm, y_mm, turn_deg });
    MadeUpPiece { ring, thickness_mm: THICK_MM, middle: PALE, edge: GOLDEN, dark: vec![] }
}

fn asked<'a>(cutters: &[(&'a Outline, f64)]) -> PhotoAsked<'a> {
    PhotoAsked {
        paper: PaperSize::A4,
        corners: None,
        cutters: cutters.iter().map(|(outline, s)| PhotoCutter { outline, spread: Share::new(*s) }).collect(),
        thickness: Length::new_mm(THICK_MM),
        pointed: vec![],
    }
}

fn measured(photo: &MadeUpPhoto, asked: &PhotoAsked) -> PhotoMeasures {
    measure_photo(&made_up_photo(photo).unwrap().file, asked).unwrap_or_else(|e| panic!("{e:?}: {photo:?}"))
}

/// Six gulls on a sheet that lies across.
fn gulls(spread: f64) -> Vec<MadeUpPiece> {
    let cutter = gull();
    let places = [(55.0, 50.0), (150.0, 55.0), (245.0, 50.0), (55.0, 150.0), (150.0, 155.0), (245.0, 150.0)];
    places
        .into_iter()
        .zip([0.0, 20.0, 75.0, 140.0, 200.0, 310.0])
        .map(|(at, turn)| piece(&cutter, spread, at, turn))
        .collect()
}

#[rstest]
#[case(0.0, 0.0, 0.0, 0.015)]
#[case(8.0, 40.0, 0.3, 0.015)]
#[case(15.0, 200.0, 0.4, 0.015)]
#[case(15.0, 90.0, 0.0, 0.015)]
#[case(25.0, 300.0, 0.3, 0.03)]
#[case(25.0, 10.0, 0.5, 0.03)]
fn gulls_are_as_wide_as_they_are(
    #[case] tilt_deg: f64,
    #[case] around_deg: f64,
    #[case] shadow: f64,
    #[case] within: f64,
) {
    let cutter = gull();
    let photo = MadeUpPhoto { pieces: gulls(0.05), tilt_deg, around_deg, shadow, ..MadeUpPhoto::plain(PaperSize::A4) };
    let found = measured(&photo, &asked(&[(&cutter, 0.03)]));
    assert_eq!(found.pieces.len(), 6);
    let (w, _) = cutter.extent();
    for p in &found.pieces {
        let true_mm = w.mm() * 1.05;
        let off = p.width.mm() / true_mm - 1.0;
        assert!(off.abs() < within, "{off} at {tilt_deg}");
        assert!(apart(p.middle.unwrap(), PALE) < 3.0 && apart(p.edge.unwrap(), GOLDEN) < 5.0);
    }
}

/// Rounds and stars of two sizes from one dough; every piece is told by its own cutter.
#[rstest]
#[case::a_warm_lamp(MadeUpPhoto { light: [1.0, 0.82, 0.60], tilt_deg: 12.0, ..MadeUpPhoto::plain(PaperSize::A4) })]
#[case::a_blue_window(MadeUpPhoto { light: [0.72, 0.86, 1.0], tilt_deg: 10.0, around_deg: 200.0, shadow: 0.5, ..MadeUpPhoto::plain(PaperSize::A4) })]
#[case::blurred_and_noisy(MadeUpPhoto { blur_px: 3.0, noise: 9.0, tilt_deg: 14.0, around_deg: 310.0, ..MadeUpPhoto::plain(PaperSize::A4) })]
#[case::a_small_picture(MadeUpPhoto { size_px: (1000, 750), noise: 4.0, ..MadeUpPhoto::plain(PaperSize::A4) })]
#[case::upright_letter(MadeUpPhoto { lies_across: false, size_px: (1200, 1600), tilt_deg: 15.0, roll_deg: -8.0, ..MadeUpPhoto::plain(PaperSize::Letter) })]
#[case::a_short_lens(MadeUpPhoto { focal: 0.58, tilt_deg: 15.0, around_deg: 150.0, ..MadeUpPhoto::plain(PaperSize::A4) })]
#[case::a_long_lens(MadeUpPhoto { focal: 1.1, tilt_deg: 15.0, around_deg: 30.0, ..MadeUpPhoto::plain(PaperSize::A4) })]
fn two_sizes_of_two_forms_are_told_apart_and_measured(#[case] photo: MadeUpPhoto) {
    let forms = [
        builtin(BuiltinKind::Round, 38.0),
        builtin(BuiltinKind::Round, 55.0),
        builtin(BuiltinKind::Star, 50.0),
        builtin(BuiltinKind::Star, 70.0),
    ];
    let spread = 0.06;
    let (w, h) = photo.paper_mm();
    let (across, along) = ([0.27, 0.73], [0.18, 0.5, 0.82]);
    let truth: Vec<(usize, MadeUpPiece)> = (0..6_u32)
        .map(|i| {
            let at = usize::try_from(i).unwrap();
            let (s, l) = (across[at % 2], along[at / 2]);
            let place = if w > h { (w * l, h * s) } else { (w * s, h * l) };
            (at % 4, piece(&forms[at % 4], spread, place, 25.0 * f64::from(i)))
        })
        .collect();
    let photo = MadeUpPhoto { pieces: truth.iter().map(|t| t.1.clone()).collect(), ..photo };
    let asked = PhotoAsked { paper: photo.paper, ..asked(&forms.each_ref().map(|f| (f, 0.04))) };
    let found = measured(&photo, &asked);
    assert_eq!(found.pieces.len(), truth.len());
    for (form, piece) in &truth {
        let mid = middle(&piece.ring);
        let it =
            found.pieces.iter().min_by(|a, b| far(middle(&a.ring), mid).total_cmp(&far(middle(&b.ring), mid))).unwrap();
        let width = forms[*form].extent().0.mm().max(forms[*form].extent().1.mm()) * (1.0 + spread);
        assert_eq!(it.cutter.map(|c| c.0), Some(*form));
        assert!((it.width.mm() / width - 1.0).abs() < 0.015);
        assert!(apart(it.middle.unwrap(), PALE) < 3.0 && apart(it.edge.unwrap(), GOLDEN) < 5.0);
    }
}

/// The middle of the box around a ring.
fn middle(ring: &[(f64, f64)]) -> (f64, f64) {
    let of = |f: fn(&(f64, f64)) -> f64| {
        let (low, high) = ring.iter().map(f).fold((f64::MAX, f64::MIN), |(l, h), v| (l.min(v), h.max(v)));
        f64::midpoint(low, high)
    };
    (of(|p| p.0), of(|p| p.1))
}

fn far(a: (f64, f64), b: (f64, f64)) -> f64 {
    (a.0 - b.0).hypot(a.1 - b.1)
}

#[test]
fn pieces_that_touch_are_parted() {
    let cutter = builtin(BuiltinKind::Round, 55.0);
    let at = |x, y| piece(&cutter, 0.05, (x, y), 0.0);
    // 57.75 mm wide each: two overlap by half a millimetre, three lie against each other.
    let pieces =
        vec![at(50.0, 50.0), at(107.25, 50.0), at(200.0, 60.0), at(257.0, 62.0), at(229.0, 111.0), at(80.0, 150.0)];
    let photo = MadeUpPhoto { pieces, ..MadeUpPhoto::plain(PaperSize::A4) };
    let found = measured(&photo, &asked(&[(&cutter, 0.05)]));
    assert_eq!(found.pieces.len(), 6);
    assert_eq!(found.pieces.iter().filter(|p| p.was_touching).count(), 5);
    for p in &found.pieces {
        assert!((p.width.mm() / 57.75 - 1.0).abs() < 0.025, "{}", p.width.mm());
    }
}

#[test]
fn dark_dough_on_a_light_table_and_pale_dough_are_found_by_their_edges() {
    let cutter = builtin(BuiltinKind::Scalloped, 60.0);
    let of = |middle, edge, at| MadeUpPiece { middle, edge, ..piece(&cutter, 0.04, at, 10.0) };
    let sesame = [44.0, 1.0, 3.0];
    let pieces = vec![
        of(COCOA, [31.0, 11.0, 13.0], (60.0, 60.0)),
        of(sesame, [40.0, 2.0, 5.0], (150.0, 60.0)),
        of([84.0, 1.0, 18.0], [82.0, 3.0, 22.0], (235.0, 60.0)),
        of([52.0, 14.0, 33.0], [40.0, 14.0, 26.0], (100.0, 150.0)),
    ];
    let photo = MadeUpPhoto { pieces, tilt_deg: 10.0, shadow: 0.4, ..MadeUpPhoto::plain(PaperSize::A4) };
    let found = measured(&photo, &asked(&[(&cutter, 0.04)]));
    assert_eq!(found.pieces.len(), 4);
    for (p, truth) in found.pieces.iter().zip(&photo.pieces) {
        assert!((p.width.mm() / 62.4 - 1.0).abs() < 0.015);
        assert!(apart(p.middle.unwrap(), truth.middle) < 3.0 && apart(p.edge.unwrap(), truth.edge) < 5.0);
    }
}

#[test]
fn what_burnt_is_told_by_where_it_is_on_the_piece() {
    let cutter = builtin(BuiltinKind::Star, 70.0);
    let mut star = piece(&cutter, 0.03, (100.0, 100.0), 40.0);
    // The top point of the star as it was drawn, turned with it, and a raisin in the middle.
    let (sin, cos) = 40.0_f64.to_radians().sin_cos();
    let tip = (100.0 + 31.0 * sin, 100.0 - 31.0 * cos);
    star.dark = vec![(tip, 3.0), ((100.0, 100.0), 2.5)];
    let photo = MadeUpPhoto { pieces: vec![star], ..MadeUpPhoto::plain(PaperSize::A4) };
    let found = measured(&photo, &asked(&[(&cutter, 0.03)]));
    let dark = &found.pieces[0].dark;
    assert_eq!(dark.len(), 2, "{dark:?}");
    let at_point = dark.iter().find(|d| d.at_point).unwrap();
    assert!(far(at_point.at, tip) < 1.5, "{at_point:?} {tip:?}");
    let raisin = dark.iter().find(|d| !d.at_point).unwrap();
    assert!(!raisin.at_edge && far(raisin.at, (100.0, 100.0)) < 1.0);
    assert_eq!(raisin.place, Some(PlaceOnPiece::Middle));
}

#[test]
fn what_was_not_found_can_be_pointed_at() {
    let cutter = builtin(BuiltinKind::Round, 50.0);
    let pale = [91.0, 0.0, 8.0];
    let meringue = MadeUpPiece { middle: pale, edge: pale, ..piece(&cutter, 0.0, (200.0, 100.0), 0.0) };
    let photo = MadeUpPhoto {
        pieces: vec![piece(&cutter, 0.0, (80.0, 100.0), 0.0), meringue],
        ..MadeUpPhoto::plain(PaperSize::A4)
    };
    let once = asked(&[(&cutter, 0.0)]);
    assert_eq!(measured(&photo, &once).pieces.len(), 1);
    let again = measured(&photo, &PhotoAsked { pointed: vec![(203.0, 98.0), (20.0, 20.0)], ..once });
    assert_eq!((again.pieces.len(), again.nothing_at), (2, vec![(20.0, 20.0)]));
    assert!((again.pieces[1].width.mm() / 50.0 - 1.0).abs() < 0.02, "{}", again.pieces[1].width.mm());
}

/// An APP1 segment (Exif 2.3: TIFF in little-endian order) that says how the camera was held, and its focal length as on film.
fn with_exif(file: &[u8], orientation: u8, focal_35mm: u8) -> Vec<u8> {
    let entry = |tag: u16, kind: u8, value: u8| {
        let [low, high] = tag.to_le_bytes();
        [low, high, kind, 0, 1, 0, 0, 0, value, 0, 0, 0]
    };
    // The first directory: how it was held, and where the second is, 38 bytes from the start.
    let mut tiff = b"II*\0\x08\0\0\0\x02\0".to_vec();
    tiff.extend(entry(0x0112, 3, orientation));
    tiff.extend(entry(0x8769, 4, 38));
    tiff.extend([0; 4]);
    tiff.extend([1, 0]);
    tiff.extend(entry(0xa405, 3, focal_35mm));
    tiff.extend([0; 4]);
    let mut found = file[..2].to_vec();
    found.extend([0xff, 0xe1]);
    found.extend(u16::try_from(tiff.len() + 8).unwrap().to_be_bytes());
    found.extend(b"Exif\0\0");
    found.extend(tiff);
    found.extend(&file[2..]);
    found
}

#[test]
fn a_picture_that_was_held_upright_is_read_upright_and_its_lens_is_believed() {
    let cutter = builtin(BuiltinKind::Round, 60.0);
    let pieces = vec![piece(&cutter, 0.0, (60.0, 60.0), 0.0)];
    let photo = MadeUpPhoto { pieces, tilt_deg: 0.0, focal: 0.6, ..MadeUpPhoto::plain(PaperSize::A4) };
    let made = made_up_photo(&photo).unwrap();
    let asked = asked(&[(&cutter, 0.0)]);
    let plain = measure_photo(&made.file, &asked).unwrap();
    // Held so that its top is at the right (orientation 6): it is turned by a quarter, and the paper lies upright.
    let held = measure_photo(&with_exif(&made.file, 6, 26), &asked).unwrap();
    assert_eq!((plain.paper_mm, held.paper_mm), ((297.0, 210.0), (210.0, 297.0)));
    assert!((held.pieces[0].width.mm() / 60.0 - 1.0).abs() < 0.006);
    // From straight above only the file tells how far away it was: 0.6 of the diagonal is 26 mm of 43.3.
    let high = |m: &PhotoMeasures| m.camera_height.mm();
    assert!((high(&plain) / high(&held) - 0.7 / 0.6).abs() < 0.02, "{} {}", high(&plain), high(&held));
    // Its corners may be shown instead of being looked for.
    let shown = measure_photo(&made.file, &PhotoAsked { corners: Some(made.corners), ..asked }).unwrap();
    assert!((shown.pieces[0].width.mm() - plain.pieces[0].width.mm()).abs() < 0.2);
}

#[test]
fn what_cannot_be_measured_is_refused_with_what_to_do() {
    let cutter = builtin(BuiltinKind::Round, 60.0);
    let asked = asked(&[(&cutter, 0.0)]);
    let refused = |file: &[u8], asked: &PhotoAsked| {
        let errors = measure_photo(file, asked).unwrap_err();
        (errors.all()[0].field().to_owned(), errors.to_string())
    };
    let says = |(field, text): (String, String), wanted: (&str, &str)| {
        assert!(field == wanted.0 && text.contains(wanted.1), "{field}: {text}");
    };
    let plain =
        MadeUpPhoto { pieces: vec![piece(&cutter, 0.0, (80.0, 100.0), 0.0)], ..MadeUpPhoto::plain(PaperSize::A4) };
    let file = |photo: &MadeUpPhoto| made_up_photo(photo).unwrap().file;
    let good = file(&plain);
    says(
        refused(&file(&MadeUpPhoto { has_paper: false, ..plain.clone() }), &asked),
        ("corners", "Can\u{2019}t find the paper"),
    );
    says(refused(&file(&MadeUpPhoto { pieces: vec![], ..plain.clone() }), &asked), ("photo", "No cookies found"));
    says(refused(&file(&MadeUpPhoto { tilt_deg: 36.0, ..plain.clone() }), &asked), ("photo", "Hold it straight above"));
    says(refused(&good, &PhotoAsked { paper: PaperSize::Letter, ..asked.clone() }), ("paper", "other paper size"));
    says(refused(&good[..good.len() / 2], &asked), ("photo", "incomplete"));
    says(refused(b"\0\0\0\x18ftypheic\0\0\0\0mif1heic", &asked), ("photo", "HEIC"));
    says(refused(b"%PDF-1.7 no picture at all", &asked), ("photo", "Can\u{2019}t read"));
    let thick = PhotoAsked { thickness: Length::new_mm(60.0), ..asked.clone() };
    says(refused(&good, &thick), ("thickness_mm", "40"));
    // Nothing but noise where paper is said to be.
    let noise = PhotoAsked { corners: Some([(0.2, 0.2), (0.8, 0.2), (0.8, 0.8), (0.2, 0.8)]), ..asked };
    says(
        refused(&file(&MadeUpPhoto { noise: 400.0, ..plain }), &noise),
        ("photo", "doesn\u{2019}t look like white paper"),
    );
}
