//! Drawings at true size: as SVG in one piece, as PDF on pages to be laid edge to edge. Pages have their name, marks along
//! their seams and a line of 100 mm to check that the printer did not scale.

#![expect(clippy::cast_possible_truncation, reason = "PDF numbers are 32-bit; a page is a few hundred millimetres")]

use pdf_writer::{Content, Finish as _, Name, Pdf, Rect, Ref, Str};
use ready_slab_core::geometry::PaperSize;
use ready_slab_core::shape::{CHECK_LINE, PAGE_OVERLAP, PRINT_MARGIN, Tile, tiles};
use ready_slab_core::units::Length;
use std::fmt::Write as _;

/// A point is a seventy-second of an inch (ISO 32000-1, 8.3.2.3).
const POINTS_PER_MM: f64 = 72.0 / 25.4;
const FONT: Name = Name(b"F1");

/// A drawing in millimetres, its upper left corner at 0, 0.
#[derive(Debug, Clone)]
pub struct Drawing {
    /// What it is, for the foot of each page.
    pub name: String,
    /// Across.
    pub width_mm: f64,
    /// Along.
    pub length_mm: f64,
    /// Its own rim, drawn thin.
    pub rim: bool,
    /// Closed outlines.
    pub outlines: Vec<Vec<(f64, f64)>>,
    /// Open lines, from and to.
    pub lines: Vec<[(f64, f64); 2]>,
    /// Words: where their foot begins, and what.
    pub words: Vec<((f64, f64), String)>,
}

/// One SVG of true size.
pub fn svg(drawing: &Drawing) -> String {
    let (w, l) = (drawing.width_mm, drawing.length_mm);
    let mut text = format!(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{w:.2}mm\" height=\"{l:.2}mm\" viewBox=\"0 0 {w:.2} {l:.2}\">\n\
         <title>{}</title>\n<g fill=\"none\" stroke=\"#000\" stroke-width=\"0.3\">\n",
        escaped(&drawing.name)
    );
    // Writing to a string cannot fail.
    if drawing.rim {
        let _ = writeln!(text, "<rect width=\"{w:.2}\" height=\"{l:.2}\" stroke-width=\"0.2\"/>");
    }
    for outline in &drawing.outlines {
        let corners: Vec<String> = outline.iter().map(|p| format!("{:.3} {:.3}", p.0, p.1)).collect();
        let _ = writeln!(text, "<path d=\"M{}Z\"/>", corners.join("L"));
    }
    for [a, b] in &drawing.lines {
        let _ = writeln!(text, "<path d=\"M{:.3} {:.3}L{:.3} {:.3}\"/>", a.0, a.1, b.0, b.1);
    }
    text.push_str("</g>\n<g font-family=\"sans-serif\" font-size=\"3.5\">\n");
    for ((x, y), word) in &drawing.words {
        let _ = writeln!(text, "<text x=\"{x:.2}\" y=\"{y:.2}\">{}</text>", escaped(word));
    }
    text.push_str("</g>\n</svg>\n");
    text
}

fn escaped(text: &str) -> String {
    text.replace('&', "&amp;").replace('<', "&lt;").replace('>', "&gt;")
}

/// The PDF, page by page.
pub fn pdf(drawing: &Drawing, paper: PaperSize) -> Vec<u8> {
    let pages = tiles(Length::new_mm(drawing.width_mm), Length::new_mm(drawing.length_mm), paper);
    let (page_w, page_h) = (points(paper.extent().0.mm()), points(paper.extent().1.mm()));
    let mut pdf = Pdf::new();
    let (catalog, tree, font) = (Ref::new(1), Ref::new(2), Ref::new(3));
    let count = i32::try_from(pages.len()).unwrap_or(i32::MAX);
    let page_ref = |i: i32| Ref::new(4 + 2 * i);
    let content_ref = |i: i32| Ref::new(5 + 2 * i);
    pdf.catalog(catalog).pages(tree);
    pdf.pages(tree).kids((0..count).map(page_ref)).count(count);
    pdf.type1_font(font).base_font(Name(b"Helvetica")).encoding_predefined(Name(b"WinAnsiEncoding"));
    for (i, tile) in (0..count).zip(&pages) {
        let mut page = pdf.page(page_ref(i));
        page.media_box(Rect::new(0.0, 0.0, page_w, page_h)).parent(tree).contents(content_ref(i));
        page.resources().fonts().pair(FONT, font);
        page.finish();
        pdf.stream(content_ref(i), &page_content(drawing, tile, pages.len(), paper).finish());
    }
    pdf.finish()
}

fn points(mm: f64) -> f32 {
    (mm * POINTS_PER_MM) as f32
}

fn page_content(drawing: &Drawing, tile: &Tile, of: usize, paper: PaperSize) -> Content {
    let page_h = paper.extent().1.mm();
    let margin = PRINT_MARGIN.mm();
    // Page coordinates run upward from the lower left corner.
    let to_page = |p: (f64, f64)| -> (f32, f32) {
        (points(margin + p.0 - tile.left.mm()), points(page_h - margin - (p.1 - tile.top.mm())))
    };
    let mut c = Content::new();
    c.save_state();
    let (left, top) = to_page((tile.left.mm(), tile.top.mm()));
    let (w, h) = (points(tile.width.mm()), points(tile.height.mm()));
    c.rect(left, top - h, w, h).clip_nonzero().end_path();
    if drawing.rim {
        let (x, y) = to_page((0.0, drawing.length_mm));
        c.set_line_width(points(0.2)).rect(x, y, points(drawing.width_mm), points(drawing.length_mm)).stroke();
    }
    c.set_line_width(points(0.3));
    for outline in &drawing.outlines {
        for (i, p) in outline.iter().enumerate() {
            let (x, y) = to_page(*p);
            if i == 0 {
                c.move_to(x, y)
            } else {
                c.line_to(x, y)
            };
        }
        c.close_and_stroke();
    }
    for [a, b] in &drawing.lines {
        let (from, to) = (to_page(*a), to_page(*b));
        c.move_to(from.0, from.1).line_to(to.0, to.1).stroke();
    }
    for (at, word) in &drawing.words {
        let (x, y) = to_page(*at);
        show(&mut c, x, y, 9.0, word);
    }
    c.restore_state();
    seams(&mut c, drawing, tile, &to_page);
    // The foot: which page it is, and the line to check.
    let foot = margin + 2.0;
    let name = if of == 1 { drawing.name.clone() } else { format!("{}  page {} of {of}", drawing.name, tile.name()) };
    show(&mut c, points(margin), points(foot + 5.5), 10.0, &name);
    let check = CHECK_LINE.mm();
    c.set_line_width(points(0.3));
    c.move_to(points(margin), points(foot)).line_to(points(margin + check), points(foot)).stroke();
    for end in [margin, margin + check] {
        c.move_to(points(end), points(foot - 1.5)).line_to(points(end), points(foot + 1.5)).stroke();
    }
    show(
        &mut c,
        points(margin + check + 3.0),
        points(foot - 1.0),
        9.0,
        "This line is 100 mm. If not, reprint at 100% scale.",
    );
    c
}

/// Dashed lines where the next page begins, with a cross in the middle of each strip, so that pages can be laid over one another.
fn seams(c: &mut Content, drawing: &Drawing, tile: &Tile, to_page: &dyn Fn((f64, f64)) -> (f32, f32)) {
    let (left, top) = (tile.left.mm(), tile.top.mm());
    let (right, bottom) = (left + tile.width.mm(), top + tile.height.mm());
    let lap = PAGE_OVERLAP.mm();
    let mut upright = vec![];
    if tile.column > 0 {
        upright.push(left);
        upright.push(left + lap);
    }
    if right < drawing.width_mm - 1e-6 {
        upright.push(right - lap);
        upright.push(right);
    }
    let mut level = vec![];
    if tile.row > 0 {
        level.push(top);
        level.push(top + lap);
    }
    if bottom < drawing.length_mm - 1e-6 {
        level.push(bottom - lap);
        level.push(bottom);
    }
    c.save_state();
    c.set_line_width(points(0.15)).set_stroke_gray(0.45).set_dash_pattern([3.0, 3.0], 0.0);
    for x in &upright {
        let (from, to) = (to_page((*x, top)), to_page((*x, bottom)));
        c.move_to(from.0, from.1).line_to(to.0, to.1).stroke();
    }
    for y in &level {
        let (from, to) = (to_page((left, *y)), to_page((right, *y)));
        c.move_to(from.0, from.1).line_to(to.0, to.1).stroke();
    }
    c.set_dash_pattern([], 0.0).set_stroke_gray(0.0).set_line_width(points(0.25));
    let arm = points(3.0);
    let mut cross = |at: (f64, f64)| {
        let (x, y) = to_page(at);
        c.move_to(x - arm, y).line_to(x + arm, y).move_to(x, y - arm).line_to(x, y + arm).stroke();
    };
    for pair in upright.chunks(2) {
        cross((f64::midpoint(pair[0], pair[1]), f64::midpoint(top, bottom)));
    }
    for pair in level.chunks(2) {
        cross((f64::midpoint(left, right), f64::midpoint(pair[0], pair[1])));
    }
    c.restore_state();
}

fn show(c: &mut Content, x: f32, y: f32, size: f32, text: &str) {
    // WinAnsi holds the Latin letters; what it does not hold is shown as a question mark.
    let bytes: Vec<u8> = text.chars().map(|ch| u8::try_from(u32::from(ch)).unwrap_or(b'?')).collect();
    c.begin_text().set_font(FONT, size).next_line(x, y).show(Str(&bytes)).end_text();
}
