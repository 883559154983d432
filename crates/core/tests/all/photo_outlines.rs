//! Outlines read from photos whose truth is known: rendered here as a camera would see them, tilted, shadowed and noisy.

use image::codecs::jpeg::JpegEncoder;
use image::{GrayImage, Luma};
use imageproc::geometric_transformations::Projection;
use rand::{RngExt as _, SeedableRng as _};
use ready_slab_core::geometry::{DarkEdge, Outline, PaperSize, Placement, outline_from_photo, read_svg};
use rstest::rstest;

type Points = Vec<(f64, f64)>;

/// What a camera makes of a paper with something dark on it.
struct Camera {
    /// The paper's corners in the picture, px.
    corners: [(f32, f32); 4],
    size: (u32, u32),
    /// How much darker it gets across the picture, and how much the picture is noisy (of 255).
    shadow: f32,
    noise: f32,
}

const STRAIGHT: Camera = Camera {
    corners: [(200.0, 150.0), (1250.0, 150.0), (1250.0, 1635.0), (200.0, 1635.0)],
    size: (1450, 1800),
    shadow: 0.0,
    noise: 0.0,
};
const TILTED: Camera = Camera {
    corners: [(330.0, 260.0), (1180.0, 190.0), (1370.0, 1600.0), (140.0, 1710.0)],
    size: (1500, 1850),
    shadow: 0.0,
    noise: 0.0,
};

fn inside(ring: &[(f64, f64)], p: (f64, f64)) -> bool {
    let mut within = false;
    for (i, a) in ring.iter().enumerate() {
        let b = ring[(i + 1) % ring.len()];
        if (a.1 > p.1) != (b.1 > p.1) && p.0 < (b.0 - a.0) * (p.1 - a.1) / (b.1 - a.1) + a.0 {
            within = !within;
        }
    }
    within
}

fn to_line(ring: &[(f64, f64)], p: (f64, f64)) -> f64 {
    ring.iter().enumerate().fold(f64::MAX, |least, (i, a)| {
        let b = ring[(i + 1) % ring.len()];
        let (dx, dy) = (b.0 - a.0, b.1 - a.1);
        let t = (((p.0 - a.0) * dx + (p.1 - a.1) * dy) / (dx * dx + dy * dy).max(1e-12)).clamp(0.0, 1.0);
        least.min((p.0 - a.0 - t * dx).hypot(p.1 - a.1 - t * dy))
    })
}

impl Camera {
    /// A JPEG of an A4 paper on a brown table, dark where `dark` says, in millimetres of the paper.
    fn photo(&self, paper: (f32, f32), truth: &[(f64, f64)], dark: &dyn Fn((f64, f64)) -> bool) -> Vec<u8> {
        let fold = |f: fn(f64, f64) -> f64, s: f64| truth.iter().fold((s, s), |m, p| (f(m.0, p.0), f(m.1, p.1)));
        let (low, high) = (fold(f64::min, f64::MAX), fold(f64::max, f64::MIN));
        let near = |p: (f64, f64)| p.0 > low.0 - 3.0 && p.1 > low.1 - 3.0 && p.0 < high.0 + 3.0 && p.1 < high.1 + 3.0;
        let mm = [(0.0, 0.0), (paper.0, 0.0), paper, (0.0, paper.1)];
        let onto_paper = Projection::from_control_points(self.corners, mm).unwrap();
        let mut rng = rand_pcg::Pcg64Mcg::seed_from_u64(7);
        let picture = GrayImage::from_fn(self.size.0, self.size.1, |x, y| {
            // Four looks to a pixel, as light falls on its whole face.
            let mut light = 0.0;
            for (sx, sy) in [(0.25, 0.25), (0.75, 0.25), (0.25, 0.75), (0.75, 0.75)] {
                #[expect(clippy::cast_precision_loss, reason = "pixels")]
                let p = onto_paper * (x as f32 + sx, y as f32 + sy);
                let on = p.0 >= 0.0 && p.1 >= 0.0 && p.0 <= paper.0 && p.1 <= paper.1;
                light += if !on {
                    95.0
                } else if near((f64::from(p.0), f64::from(p.1))) && dark((f64::from(p.0), f64::from(p.1))) {
                    55.0
                } else {
                    228.0
                };
            }
            #[expect(clippy::cast_precision_loss, reason = "pixels")]
            let across = (x as f32 / self.size.0 as f32 + y as f32 / self.size.1 as f32) / 2.0;
            let noise = rng.random_range(-self.noise..=self.noise);
            let value = light / 4.0 * (1.0 - self.shadow * across) + noise;
            #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "clamped to a byte")]
            Luma([value.clamp(0.0, 255.0) as u8])
        });
        let mut file = Vec::new();
        JpegEncoder::new_with_quality(&mut file, 85).encode_image(&picture).unwrap();
        file
    }

    fn shares(&self) -> [(f64, f64); 4] {
        self.corners.map(|(x, y)| (f64::from(x) / f64::from(self.size.0), f64::from(y) / f64::from(self.size.1)))
    }
}

fn demo(name: &str) -> Outline {
    let path = format!("{}/../../demo/cutters/{name}.svg", env!("CARGO_MANIFEST_DIR"));
    read_svg(&std::fs::read_to_string(path).unwrap(), None).unwrap()
}

/// The farthest that either outline lies from the other.
fn apart(a: &[(f64, f64)], b: &[(f64, f64)]) -> f64 {
    let one_way = |a: &[(f64, f64)], b: &[(f64, f64)]| a.iter().map(|p| to_line(b, *p)).fold(0.0, f64::max);
    one_way(a, b).max(one_way(b, a))
}

/// The outline as it lies on the paper.
fn on_paper(name: &str) -> (Outline, Points) {
    let outline = demo(name);
    let placed = outline.placed(Placement { x_mm: 104.0, y_mm: 140.0, turn_deg: 24.0 });
    (outline, placed)
}

#[rstest]
#[case::straight("gull", Camera { ..STRAIGHT })]
#[case::tilted("gull", Camera { ..TILTED })]
#[case::shadowed("fish", Camera { shadow: 0.55, ..TILTED })]
#[case::noisy("sailboat", Camera { noise: 28.0, ..TILTED })]
#[case::all_of_it("lighthouse", Camera { shadow: 0.5, noise: 20.0, ..TILTED })]
fn a_solid_form_is_found_within_a_millimetre(#[case] name: &str, #[case] camera: Camera) {
    let (_, truth) = on_paper(name);
    let file = camera.photo((210.0, 297.0), &truth, &|p| inside(&truth, p));
    let found = outline_from_photo(&file, camera.shares(), PaperSize::A4, DarkEdge::Outside).unwrap();
    let at = Placement { x_mm: found.centre_mm.0, y_mm: found.centre_mm.1, turn_deg: 0.0 };
    let off = apart(&found.outline.placed(at), &truth);
    assert!(off < 1.0, "{name}: {off:.2} mm off");
}

#[rstest]
#[case::outside(DarkEdge::Outside, 0.9)]
#[case::middle(DarkEdge::Middle, 0.0)]
#[case::inside(DarkEdge::Inside, -0.9)]
fn a_pencil_line_is_read_at_the_edge_that_is_asked_for(#[case] edge: DarkEdge, #[case] beyond: f64) {
    let (_, truth) = on_paper("buoy");
    let camera = Camera { shadow: 0.4, noise: 12.0, ..TILTED };
    let file = camera.photo((210.0, 297.0), &truth, &|p| to_line(&truth, p) < 0.9);
    let found = outline_from_photo(&file, camera.shares(), PaperSize::A4, edge).unwrap();
    let at = Placement { x_mm: found.centre_mm.0, y_mm: found.centre_mm.1, turn_deg: 0.0 };
    let points = found.outline.placed(at);
    let off: f64 = points
        .iter()
        .map(|p| {
            let d = to_line(&truth, *p);
            let signed = if inside(&truth, *p) { -d } else { d };
            (signed - beyond).abs()
        })
        .fold(0.0, f64::max);
    assert!(off < 1.0, "{off:.2} mm off");
}

#[test]
fn the_paper_may_lie_across_and_be_of_the_other_size() {
    let (outline, _) = on_paper("anchor");
    let truth = outline.placed(Placement { x_mm: 150.0, y_mm: 100.0, turn_deg: 0.0 });
    let camera = Camera {
        corners: [(120.0, 200.0), (1700.0, 160.0), (1640.0, 1330.0), (180.0, 1380.0)],
        size: (1800, 1500),
        shadow: 0.2,
        noise: 5.0,
    };
    let file = camera.photo((279.4, 215.9), &truth, &|p| inside(&truth, p));
    let found = outline_from_photo(&file, camera.shares(), PaperSize::Letter, DarkEdge::Outside).unwrap();
    assert!((found.paper_mm.0 - 279.4).abs() < 1e-9);
    let (w, h) = (found.outline.extent(), outline.extent());
    assert!((w.0.mm() - h.0.mm()).abs() < 1.0 && (w.1.mm() - h.1.mm()).abs() < 1.0);
    // Twice the size is what one gets who says the wrong paper: the size shown is the check.
    let wrong = outline_from_photo(&file, camera.shares(), PaperSize::A4, DarkEdge::Outside).unwrap();
    assert!((wrong.outline.extent().0.mm() / h.0.mm() - 297.0 / 279.4).abs() < 0.02);
}

#[test]
fn what_is_no_photo_of_an_outline_is_refused_with_what_to_do() {
    let said = |file: &[u8], corners: [(f64, f64); 4], edge| {
        outline_from_photo(file, corners, PaperSize::A4, edge).unwrap_err().to_string()
    };
    let square = [(0.1, 0.1), (0.9, 0.1), (0.9, 0.9), (0.1, 0.9)];
    assert!(said(b"not a picture", square, DarkEdge::Outside).contains("JPEG, PNG or WebP"));
    assert!(said(&vec![0; 6_000_001], square, DarkEdge::Outside).contains("6 MB"));
    let blank = STRAIGHT.photo((210.0, 297.0), &[], &|_| false);
    assert!(said(&blank, STRAIGHT.shares(), DarkEdge::Outside).contains("No closed outline"));
    let crossed = [(0.1, 0.1), (0.9, 0.9), (0.9, 0.1), (0.1, 0.9)];
    assert!(said(&blank, crossed, DarkEdge::Outside).contains("order"));
    assert!(
        said(&blank, [(f64::NAN, 0.1), square[1], square[2], square[3]], DarkEdge::Outside).contains("corners[0].x")
    );
    let (_, truth) = on_paper("buoy");
    // A line with a gap of a centimetre.
    let gap = truth[0];
    let open =
        STRAIGHT.photo((210.0, 297.0), &truth, &|p| to_line(&truth, p) < 0.6 && (p.0 - gap.0).hypot(p.1 - gap.1) > 5.0);
    assert!(said(&open, STRAIGHT.shares(), DarkEdge::Outside).contains("isn\u{2019}t closed"));
    let solid = STRAIGHT.photo((210.0, 297.0), &truth, &|p| inside(&truth, p) && to_line(&truth, p) < 200.0);
    let inner = outline_from_photo(&solid, STRAIGHT.shares(), PaperSize::A4, DarkEdge::Inside);
    assert!(inner.is_err() || inner.unwrap().outline.extent().0.mm() > 8.0);
}

#[test]
fn a_picture_that_says_it_is_huge_is_not_unpacked() {
    // A PNG whose header declares 60,000 by 60,000 pixels and holds none of them.
    let mut file = vec![0x89, b'P', b'N', b'G', 0x0d, 0x0a, 0x1a, 0x0a, 0, 0, 0, 13];
    let mut chunk = b"IHDR".to_vec();
    chunk.extend(60_000_u32.to_be_bytes());
    chunk.extend(60_000_u32.to_be_bytes());
    chunk.extend([8, 0, 0, 0, 0]);
    let crc = chunk.iter().fold(u32::MAX, |crc, b| {
        (0..8).fold(crc ^ u32::from(*b), |c, _| if c & 1 == 1 { (c >> 1) ^ 0xEDB8_8320 } else { c >> 1 })
    });
    file.extend(&chunk);
    file.extend((!crc).to_be_bytes());
    let corners = [(0.0, 0.0), (1.0, 0.0), (1.0, 1.0), (0.0, 1.0)];
    let said = outline_from_photo(&file, corners, PaperSize::A4, DarkEdge::Outside).unwrap_err().to_string();
    assert!(said.contains("over 12000 pixels"), "{said}");
}
