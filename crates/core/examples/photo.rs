//! How long a photo of twelve megapixels takes to be measured: twelve gulls, tilted, shadowed and noisy. `cargo run --release --example photo`.

use ready_slab_camera::{MadeUpPhoto, MadeUpPiece, made_up_photo};
use ready_slab_core::geometry::{Outline, PaperSize, Placement, read_svg};
use ready_slab_core::ledger::{PhotoAsked, PhotoCutter, measure_photo};
use ready_slab_core::units::{Length, Share};
use std::error::Error;
use std::time::Instant;

fn main() -> Result<(), Box<dyn Error>> {
    let gull = read_svg(include_str!("../../../demo/cutters/gull.svg"), Some(Length::new_mm(62.0)))?;
    let grown = Outline::new(&gull.spread_by(Length::new_mm(1.5)))?;
    let pieces = (0..12_u32).map(|i| {
        let at = Placement {
            x_mm: 40.0 + 72.0 * f64::from(i % 4),
            y_mm: 38.0 + 66.0 * f64::from(i / 4),
            turn_deg: 29.0 * f64::from(i),
        };
        let (middle, edge) = ([78.0, 4.0, 26.0], [66.0, 11.0, 37.0]);
        MadeUpPiece { ring: grown.placed(at), thickness_mm: 7.0, middle, edge, dark: vec![] }
    });
    let photo = MadeUpPhoto {
        pieces: pieces.collect(),
        size_px: (4000, 3000),
        tilt_deg: 12.0,
        shadow: 0.4,
        noise: 5.0,
        ..MadeUpPhoto::plain(PaperSize::A4)
    };
    let file = made_up_photo(&photo)?.file;
    let asked = PhotoAsked {
        paper: PaperSize::A4,
        corners: None,
        cutters: vec![PhotoCutter { outline: &gull, spread: Share::new(0.04) }],
        thickness: Length::new_mm(7.0),
        pointed: vec![],
    };
    for _ in 0..3 {
        let start = Instant::now();
        let found = measure_photo(&file, &asked)?;
        println!(
            "{} pieces of {} MB in {:.0} ms",
            found.pieces.len(),
            file.len() / 1_000_000,
            start.elapsed().as_secs_f64() * 1e3
        );
    }
    Ok(())
}
