//! A drawing at true size on sheets of paper laid edge to edge.

use crate::geometry::PaperSize;
use crate::units::Length;

/// Rim that household printers cannot print on, mm. Common practice, no source.
pub const PRINT_MARGIN: Length = Length::new_mm(10.0);
/// By which neighbouring pages show the same, to be glued. Our own choice: a strip of tape is 12 to 19 mm wide.
pub const PAGE_OVERLAP: Length = Length::new_mm(10.0);
/// Kept free at the foot of a page for its name and the check line.
pub const PAGE_FOOT: Length = Length::new_mm(14.0);
/// The line that is measured to see that the printer did not scale.
pub const CHECK_LINE: Length = Length::new_mm(100.0);

/// A page's window on the drawing.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Tile {
    /// Counted from the left, from 0.
    pub column: u32,
    /// Counted from the top, from 0.
    pub row: u32,
    /// Of the drawing, where the window's upper left corner lies.
    pub left: Length,
    /// Of the drawing, where the window's upper left corner lies.
    pub top: Length,
    /// Of the window.
    pub width: Length,
    /// Of the window.
    pub height: Length,
}

impl Tile {
    /// Its name for putting the pages together: a letter for the row, a number for the column.
    #[must_use]
    pub fn name(&self) -> String {
        let letter = char::from_u32(u32::from(b'A') + self.row % 26).unwrap_or('?');
        format!("{letter}{}", self.column + 1)
    }
}

/// The pages for a drawing, row by row. Each neighbour repeats [`PAGE_OVERLAP`] of the one before.
#[must_use]
pub fn tiles(width: Length, length: Length, paper: PaperSize) -> Vec<Tile> {
    let (page_w, page_h) = paper.extent();
    let window_w = page_w.mm() - 2.0 * PRINT_MARGIN.mm();
    let window_h = page_h.mm() - 2.0 * PRINT_MARGIN.mm() - PAGE_FOOT.mm();
    let count = |whole: f64, window: f64| -> u32 {
        let further = ((whole - window) / (window - PAGE_OVERLAP.mm()) - 1e-9).ceil().max(0.0);
        #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a few pages")]
        let pages = further.min(100.0) as u32 + 1;
        pages
    };
    let (columns, rows) = (count(width.mm(), window_w), count(length.mm(), window_h));
    let at = |i: u32, window: f64| f64::from(i) * (window - PAGE_OVERLAP.mm());
    (0..rows)
        .flat_map(|row| (0..columns).map(move |column| (column, row)))
        .map(|(column, row)| Tile {
            column,
            row,
            left: Length::new_mm(at(column, window_w)),
            top: Length::new_mm(at(row, window_h)),
            width: Length::new_mm(window_w.min(width.mm() - at(column, window_w))),
            height: Length::new_mm(window_h.min(length.mm() - at(row, window_h))),
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    #[test]
    fn a_small_drawing_takes_one_page_and_a_tray_takes_four_of_either_paper() {
        let mm = Length::new_mm;
        assert_eq!(tiles(mm(150.0), mm(200.0), PaperSize::A4).len(), 1);
        assert_eq!(tiles(mm(310.0), mm(440.0), PaperSize::A4).len(), 4);
        assert_eq!(tiles(mm(310.0), mm(440.0), PaperSize::Letter).len(), 4);
        assert_eq!(tiles(mm(310.0), mm(440.0), PaperSize::A4)[3].name(), "B2");
    }

    #[test]
    fn papers_have_the_sizes_of_their_standards() {
        // ISO 216 A4; ANSI size A is 8 1/2 by 11 in of 25.4 mm.
        assert_eq!(PaperSize::A4.extent().1.mm(), 297.0);
        let (w, h) = PaperSize::Letter.extent();
        assert!((w.mm() - 8.5 * 25.4).abs() < 1e-9 && (h.mm() - 11.0 * 25.4).abs() < 1e-9);
    }

    proptest! {
        #[test]
        fn every_point_of_a_drawing_is_on_a_page_and_every_seam_is_doubled(
            w in 40.0..1200.0_f64, l in 40.0..1200.0_f64, x in 0.0..1.0_f64, y in 0.0..1.0_f64,
        ) {
            let pages = tiles(Length::new_mm(w), Length::new_mm(l), PaperSize::A4);
            let (px, py) = (x * w, y * l);
            let on = pages.iter().filter(|t| {
                px >= t.left.mm() && px <= (t.left + t.width).mm() + 1e-9 && py >= t.top.mm() && py <= (t.top + t.height).mm() + 1e-9
            });
            prop_assert!(on.count() >= 1);
            for pair in pages.windows(2).filter(|p| p[0].row == p[1].row) {
                prop_assert!(((pair[0].left + pair[0].width) - pair[1].left).mm() >= PAGE_OVERLAP.mm() - 1e-9);
            }
            prop_assert!(pages.iter().all(|t| t.width.mm() > 0.0 && t.height.mm() > 0.0));
        }
    }
}
