//! Cutter outlines from SVG files and back.
//!
//! The largest closed outline is the cutting edge. What lies within it and belongs to the same path is a hole; what is drawn
//! within it by itself is embossing, which does not cut, and is left out. Sizes are true:
//! user units are 1/96 inch unless the file states physical sizes (SVG 2, 8.9 Units; CSS Values 4, 6.2).

use super::Outline;
use super::ring::{MOST_POINTS, ring_holds};
use super::svg_safe::safe_part;
use crate::error::InputError;
use crate::units::Length;
use kurbo::{BezPath, PathEl};
use std::fmt::Write as _;
use usvg::tiny_skia_path::PathSegment;

const FIELD: &str = "svg";
/// SVG 2 and CSS: 96 user units to the inch.
const MM_PER_UNIT: f64 = 25.4 / 96.0;
/// Curves are flattened to within this.
const FLAT_MM: f64 = 0.1;
/// No path of a file may be larger.
const LARGEST_MM: f64 = 20_000.0;
/// A path whose ends are no further apart than this counts as closed (our own choice: the width of a tin edge).
const CLOSED_MM: f64 = 0.3;

/// Reads the cutting edge out of an SVG file, at true size or scaled to `width`.
///
/// Refuses, saying why: a file over 1 MB, one that is not SVG, that carries a document type, entities, scripts or
/// references to other files, and outlines that are open or that [`Outline::new`] refuses.
pub fn read_svg(text: &str, width: Option<Length>) -> Result<Outline, InputError> {
    let safe = safe_part(text)?;
    let options = usvg::Options::default();
    let tree = usvg::Tree::from_str(&safe, &options)
        .map_err(|e| InputError::refused(FIELD, format!("Can’t read this file as SVG: {e}")))?;
    let mut found = Found::default();
    collect(tree.root(), &mut found, 0)?;
    let Some(points) = found.largest else {
        let reason = if found.open {
            "The outline is open. Join its ends."
        } else {
            "No visible outline in this file. It needs one closed path or shape."
        };
        return Err(InputError::refused(FIELD, reason));
    };
    let scale = match width {
        None => 1.0,
        Some(width) => {
            let (low, high) = points.iter().fold((f64::MAX, f64::MIN), |(l, h), p| (l.min(p.0), h.max(p.0)));
            if high - low < 1e-6 {
                return Err(InputError::refused(FIELD, "The outline has no width. Redraw it."));
            }
            width.mm() / (high - low)
        }
    };
    let scaled = |ring: &[(f64, f64)]| ring.iter().map(|p| (p.0 * scale, p.1 * scale)).collect::<Vec<_>>();
    let holes: Vec<Vec<(f64, f64)>> = found.holes.iter().map(|hole| scaled(hole)).collect();
    Outline::with_holes(&scaled(&points), &holes).map_err(|e| InputError::new(FIELD, e.problem().clone()))
}

/// Writes an outline as an SVG file at true size, readable by [`read_svg`].
#[must_use]
pub fn write_svg(outline: &Outline, title: &str) -> String {
    let (width, height) = (outline.extent().0.mm(), outline.extent().1.mm());
    let mut path = String::new();
    for ring in std::iter::once(outline.points()).chain(outline.holes()) {
        for (i, (x, y)) in ring.iter().enumerate() {
            let _ = write!(path, "{}{:.3} {:.3}", if i == 0 { "M" } else { " L" }, x + width / 2.0, y + height / 2.0);
        }
        path.push_str(" Z");
    }
    let title = title.replace('&', "&amp;").replace('<', "&lt;").replace('>', "&gt;");
    format!(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{width:.3}mm\" height=\"{height:.3}mm\" \
         viewBox=\"0 0 {width:.3} {height:.3}\"><title>{title}</title>\
         <path d=\"{path}\" fill=\"none\" stroke=\"black\" stroke-width=\"0.3\"/></svg>\n"
    )
}

#[derive(Default)]
struct Found {
    largest: Option<Vec<(f64, f64)>>,
    largest_area: f64,
    holes: Vec<Vec<(f64, f64)>>,
    open: bool,
    points: usize,
}

fn collect(group: &usvg::Group, found: &mut Found, depth: usize) -> Result<(), InputError> {
    if depth > 200 {
        return Err(InputError::refused(FIELD, "Too many groups inside groups (200 at most). Save it as plain SVG."));
    }
    for node in group.children() {
        match node {
            usvg::Node::Group(inner) => collect(inner, found, depth + 1)?,
            // What is neither filled nor drawn is a background of the page, not an edge.
            usvg::Node::Path(path) if path.is_visible() && (path.fill().is_some() || path.stroke().is_some()) => {
                read_path(path, found)?;
            }
            usvg::Node::Path(_) => {}
            usvg::Node::Image(_) | usvg::Node::Text(_) => {}
        }
    }
    Ok(())
}

fn read_path(path: &usvg::Path, found: &mut Found) -> Result<(), InputError> {
    let at = path.abs_transform();
    let map = |p: usvg::tiny_skia_path::Point| -> (f64, f64) {
        let (x, y) = (f64::from(p.x), f64::from(p.y));
        (
            (f64::from(at.sx) * x + f64::from(at.kx) * y + f64::from(at.tx)) * MM_PER_UNIT,
            (f64::from(at.ky) * x + f64::from(at.sy) * y + f64::from(at.ty)) * MM_PER_UNIT,
        )
    };
    let mut bez = BezPath::new();
    for segment in path.data().segments() {
        match segment {
            PathSegment::MoveTo(p) => bez.move_to(map(p)),
            PathSegment::LineTo(p) => bez.line_to(map(p)),
            PathSegment::QuadTo(a, p) => bez.quad_to(map(a), map(p)),
            PathSegment::CubicTo(a, b, p) => bez.curve_to(map(a), map(b), map(p)),
            PathSegment::Close => bez.close_path(),
        }
    }
    // Curves of that size would be broken into millions of pieces, and no cutter has them.
    let size = kurbo::Shape::bounding_box(&bez);
    if !(size.width() <= LARGEST_MM && size.height() <= LARGEST_MM) {
        return Err(InputError::refused(FIELD, "A path is over 20 m wide. Check the file’s units."));
    }
    let mut ring: Vec<(f64, f64)> = Vec::new();
    let mut over = false;
    let mut closed_rings: Vec<Vec<(f64, f64)>> = Vec::new();
    let mut done = |ring: &mut Vec<(f64, f64)>, closed: bool| {
        if ring.len() >= 3 {
            let (first, last) = (ring[0], ring[ring.len() - 1]);
            if closed || (first.0 - last.0).hypot(first.1 - last.1) <= CLOSED_MM {
                closed_rings.push(std::mem::take(ring));
            } else {
                found.open = true;
            }
        } else if ring.len() == 2 {
            found.open = true;
        }
        ring.clear();
    };
    let mut flattened: usize = found.points;
    kurbo::flatten(bez.iter(), FLAT_MM / 2.0, |el| match el {
        PathEl::MoveTo(p) => {
            done(&mut ring, false);
            ring.push((p.x, p.y));
        }
        PathEl::LineTo(p) => {
            flattened += 1;
            over |= flattened > 20 * MOST_POINTS;
            if !over {
                ring.push((p.x, p.y));
            }
        }
        PathEl::ClosePath => done(&mut ring, true),
        PathEl::QuadTo(..) | PathEl::CurveTo(..) => {}
    });
    done(&mut ring, false);
    found.points = flattened;
    closed_rings.sort_by(|a, b| shoelace(b).abs().total_cmp(&shoelace(a).abs()));
    let mut rings = closed_rings.into_iter();
    if let Some(outer) = rings.next().filter(|ring| shoelace(ring).abs() > found.largest_area) {
        found.largest_area = shoelace(&outer).abs();
        let mut holes: Vec<Vec<(f64, f64)>> = Vec::new();
        for ring in rings {
            // A ring within a hole is an island, which no cutter holds.
            if ring_holds(&outer, ring[0]) && !holes.iter().any(|hole| ring_holds(hole, ring[0])) {
                holes.push(ring);
            }
        }
        found.holes = holes;
        found.largest = Some(outer);
    }
    if over {
        return Err(InputError::refused(
            FIELD,
            format!("The file is too detailed: over {} points. Simplify it.", 20 * MOST_POINTS),
        ));
    }
    Ok(())
}

fn shoelace(points: &[(f64, f64)]) -> f64 {
    let n = points.len();
    (0..n).map(|i| points[i].0 * points[(i + 1) % n].1 - points[(i + 1) % n].0 * points[i].1).sum::<f64>() / 2.0
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    fn svg(body: &str) -> String {
        format!(
            "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"100mm\" height=\"100mm\" viewBox=\"0 0 100 100\">{body}</svg>"
        )
    }

    // Dialects of drawing programs: basic shapes, style attributes, groups with transforms, relative paths, units.
    #[rstest]
    #[case::rect("<rect x='10' y='10' width='60' height='30'/>", 60.0, 30.0)]
    #[case::circle("<circle cx='50' cy='50' r='30'/>", 60.0, 60.0)]
    #[case::relative("<path d='m10 10h60v30h-60z' fill='none' stroke='#000'/>", 60.0, 30.0)]
    #[case::scaled_group(
        "<g transform='scale(.5)'><g transform='translate(20 20)'><rect width='120' height='60'/></g></g>",
        60.0,
        30.0
    )]
    #[case::turned("<rect width='60' height='30' transform='rotate(90 50 50)'/>", 30.0, 60.0)]
    #[case::styled("<path style='fill:none;stroke:#00f' d='M10,10 L70,10 L70,40 L10,40 Z'/>", 60.0, 30.0)]
    #[case::used("<defs><rect id='a' width='60' height='30'/></defs><use href='#a' x='5'/>", 60.0, 30.0)]
    #[case::largest("<circle cx='50' cy='50' r='6'/><rect x='10' y='10' width='60' height='30'/>", 60.0, 30.0)]
    #[case::nearly_closed("<path d='M10 10 L70 10 L70 40 L10 40 L10 10.1' fill='none' stroke='#000'/>", 60.0, 30.0)]
    fn good_files_come_out_at_true_size(#[case] body: &str, #[case] width: f64, #[case] height: f64) {
        let outline = read_svg(&svg(body), None).unwrap();
        let (w, h) = outline.extent();
        assert!((w.mm() - width).abs() < 0.1 && (h.mm() - height).abs() < 0.1, "{w:?} x {h:?}");
    }

    /// Whole files as drawing programs of several kinds write them, all of a piece 60 mm wide and 30 mm high.
    #[rstest]
    #[case::inches_and_a_box(
        "<svg xmlns='http://www.w3.org/2000/svg' width='4in' height='2in' viewBox='0 0 101.6 50.8'><path d='M1 1h60v30H1z'/></svg>"
    )]
    #[case::centimetres(
        "<svg xmlns='http://www.w3.org/2000/svg' width='10cm' height='10cm' viewBox='0 0 1000 1000'><rect width='600' height='300'/></svg>"
    )]
    #[case::points(
        "<svg xmlns='http://www.w3.org/2000/svg' width='283.4646pt' height='283.4646pt' viewBox='0 0 100 100'><rect width='60' height='30'/></svg>"
    )]
    #[case::a_box_that_does_not_begin_at_nought(
        "<svg xmlns='http://www.w3.org/2000/svg' width='100mm' height='100mm' viewBox='-50 -50 100 100'><rect x='-30' y='-15' width='60' height='30'/></svg>"
    )]
    #[case::foreign_names(
        "<?xml version='1.0' encoding='UTF-8'?><svg xmlns='http://www.w3.org/2000/svg' xmlns:draw='urn:some-program' width='100mm' height='100mm' viewBox='0 0 100 100'><draw:page zoom='2'/><g draw:layer='Cut'><path draw:nodes='cc' d='M0 0h60v30h-60z'/></g></svg>"
    )]
    #[case::a_style_sheet(
        "<svg xmlns='http://www.w3.org/2000/svg' width='100mm' height='100mm' viewBox='0 0 100 100'><style>.a{fill:none;stroke:#00f;stroke-width:.1}</style><path class='a' d='M0 0L60 0 60 30 0 30Z'/></svg>"
    )]
    #[case::many_transforms(
        "<svg xmlns='http://www.w3.org/2000/svg' width='100mm' height='100mm' viewBox='0 0 100 100'><g transform='matrix(0 1 -1 0 80 5)'><g transform='translate(3) scale(.5 .5)'><rect width='60' height='120' transform='skewX(0)'/></g></g></svg>"
    )]
    #[case::nested(
        "<svg xmlns='http://www.w3.org/2000/svg' width='100mm' height='100mm' viewBox='0 0 100 100'><svg x='5' y='5' width='60' height='30' viewBox='0 0 6 3'><rect width='6' height='3'/></svg></svg>"
    )]
    #[case::symbol(
        "<svg xmlns='http://www.w3.org/2000/svg' width='100mm' height='100mm' viewBox='0 0 100 100'><symbol id='s' viewBox='0 0 2 1'><rect width='2' height='1'/></symbol><use href='#s' x='9' y='9' width='60' height='30'/></svg>"
    )]
    #[case::arcs(
        "<svg xmlns='http://www.w3.org/2000/svg' width='100mm' height='100mm' viewBox='0 0 100 100'><path d='M10 50a30 15 0 1 0 60 0a30 15 0 1 0-60 0z' fill='none' stroke='red'/></svg>"
    )]
    #[case::numbers_run_together(
        "<svg xmlns='http://www.w3.org/2000/svg' width='100mm' height='100mm' viewBox='0 0 100 100'><path d='M10,10l60-0-0,30-6e1.0z'/></svg>"
    )]
    #[case::polygon(
        "<svg xmlns='http://www.w3.org/2000/svg' width='100mm' height='100mm' viewBox='0 0 100 100'><polygon points='10,10 70,10 70,40 10,40'/></svg>"
    )]
    #[case::a_hidden_copy(
        "<svg xmlns='http://www.w3.org/2000/svg' width='100mm' height='100mm' viewBox='0 0 100 100'><rect width='90' height='90' display='none'/><rect width='60' height='30'/></svg>"
    )]
    fn files_of_many_drawing_programs_come_out_at_true_size(#[case] text: &str) {
        let (w, h) = read_svg(text, None).unwrap().extent();
        assert!((w.mm() - 60.0).abs() < 0.1 && (h.mm() - 30.0).abs() < 0.1, "{w:?} x {h:?}");
    }

    /// Files made to hurt: each is answered, none hangs or brings the program down.
    #[rstest]
    #[case::entities_within_entities(
        "<!DOCTYPE svg [<!ENTITY a 'aa'><!ENTITY b '&a;&a;&a;&a;&a;&a;'><!ENTITY c '&b;&b;&b;&b;&b;'>]><svg xmlns='http://www.w3.org/2000/svg'>&c;</svg>"
    )]
    #[case::outer_entity(
        "<!DOCTYPE svg [<!ENTITY x SYSTEM 'file:///etc/passwd'>]><svg xmlns='http://www.w3.org/2000/svg'>&x;</svg>"
    )]
    #[case::use_of_itself(
        "<svg xmlns='http://www.w3.org/2000/svg' width='9' height='9'><g id='a'><use href='#a'/></g></svg>"
    )]
    #[case::uses_of_each_other(
        "<svg xmlns='http://www.w3.org/2000/svg' width='9' height='9'><defs><g id='a'><use href='#b'/></g><g id='b'><use href='#a'/></g></defs><use href='#a'/></svg>"
    )]
    #[case::no_box(
        "<svg xmlns='http://www.w3.org/2000/svg' width='0' height='0' viewBox='0 0 0 0'><rect width='60' height='30'/></svg>"
    )]
    #[case::nan_box(
        "<svg xmlns='http://www.w3.org/2000/svg' width='NaN' height='inf' viewBox='NaN NaN NaN NaN'><rect width='60' height='30'/></svg>"
    )]
    #[case::singular(
        "<svg xmlns='http://www.w3.org/2000/svg' width='100mm' height='100mm' viewBox='0 0 100 100'><g transform='scale(0)'><rect width='60' height='30'/></g></svg>"
    )]
    #[case::huge_transform(
        "<svg xmlns='http://www.w3.org/2000/svg' width='100mm' height='100mm' viewBox='0 0 100 100'><g transform='scale(1e30)'><rect width='60' height='30'/></g></svg>"
    )]
    #[case::foreign(
        "<svg xmlns='http://www.w3.org/2000/svg' width='9' height='9'><foreignObject><body xmlns='http://www.w3.org/1999/xhtml'/></foreignObject></svg>"
    )]
    #[case::a_scripted_link(
        "<svg xmlns='http://www.w3.org/2000/svg' xmlns:xlink='http://www.w3.org/1999/xlink' width='9' height='9'><a xlink:href='javascript:x()'><rect width='9' height='9'/></a></svg>"
    )]
    #[case::imported_style(
        "<svg xmlns='http://www.w3.org/2000/svg' width='100mm' height='100mm'><style>@import 'http://x.test/a.css';</style></svg>"
    )]
    #[case::broken_path(
        "<svg xmlns='http://www.w3.org/2000/svg' width='100mm' height='100mm'><path d='M0 0 L'/></svg>"
    )]
    fn files_made_to_hurt_are_answered(#[case] text: &str) {
        assert!(read_svg(text, None).is_err(), "{:?}", read_svg(text, None));
    }

    #[test]
    fn an_outline_of_a_hundred_thousand_corners_is_refused_by_its_points() {
        let corners: Vec<String> = (0..100_000)
            .map(|i| {
                let a = f64::from(i) / 100_000.0 * std::f64::consts::TAU;
                format!("{:.3} {:.3}", 50.0 + 40.0 * a.cos(), 50.0 + 40.0 * a.sin())
            })
            .collect();
        let said = read_svg(&svg(&format!("<path d='M{}Z'/>", corners.join("L"))), None).unwrap_err().to_string();
        assert!(said.contains("points") || said.contains("1 MB"), "{said}");
    }

    #[test]
    fn rings_of_one_path_are_holes_and_others_embossing() {
        let both = svg("<path d='M0 0H60V60H0Z M20 20V40H40V20Z'/><circle cx='10' cy='10' r='4'/>");
        let outline = read_svg(&both, None).unwrap();
        assert_eq!(outline.holes().len(), 1);
        assert!((outline.area().mm2() - 3200.0).abs() < 0.5, "{:?}", outline.area());
        let again = read_svg(&write_svg(&outline, "Square ring"), None).unwrap();
        assert!((again.area().mm2() - outline.area().mm2()).abs() < 0.5);
        // An island in a hole is left out; a hole over the rim is refused.
        let island = svg("<path d='M0 0H60V60H0Z M10 10V50H50V10Z M20 20H40V40H20Z'/>");
        assert_eq!(read_svg(&island, None).unwrap().holes().len(), 1);
        let over = svg("<path d='M0 0H60V60H0Z M30 30V90H50V30Z'/>");
        assert!(read_svg(&over, None).unwrap_err().to_string().contains("Hole 1"));
    }

    #[test]
    fn user_units_without_a_physical_size_are_a_ninety_sixth_of_an_inch() {
        let text =
            "<svg xmlns='http://www.w3.org/2000/svg' width='400' height='400'><rect width='192' height='96'/></svg>";
        let (w, h) = read_svg(text, None).unwrap().extent();
        assert!((w.mm() - 50.8).abs() < 0.01 && (h.mm() - 25.4).abs() < 0.01);
    }

    #[test]
    fn it_scales_to_a_stated_width_and_survives_a_round_trip() {
        let drawn = svg("<path d='M10 50 C 10 20 60 10 60 50 S 30 80 10 50 Z'/>");
        let outline = read_svg(&drawn, Some(Length::new_mm(68.0))).unwrap();
        assert!((outline.extent().0.mm() - 68.0).abs() < 1e-6);
        let again = read_svg(&write_svg(&outline, "a <leaf> & more"), None).unwrap();
        assert!((again.area().mm2() / outline.area().mm2() - 1.0).abs() < 1e-3);
    }

    #[rstest]
    #[case::not_xml("hello", "Can\u{2019}t read")]
    #[case::empty("", "Can\u{2019}t read")]
    #[case::other_root("<html/>", "isn\u{2019}t an SVG")]
    #[case::entity("<!DOCTYPE svg [<!ENTITY a \"aaaa\">]><svg xmlns='http://www.w3.org/2000/svg'/>", "entities")]
    #[case::script("<svg xmlns='http://www.w3.org/2000/svg'><script>1</script></svg>", "script")]
    #[case::handler("<svg xmlns='http://www.w3.org/2000/svg' onload='x()'/>", "script")]
    #[case::external(
        "<svg xmlns='http://www.w3.org/2000/svg' width='10' height='10'><image href='file:///etc/passwd'/></svg>",
        "another file"
    )]
    #[case::remote(
        "<svg xmlns='http://www.w3.org/2000/svg' width='10' height='10'><use href='http://x.test/a.svg#b'/></svg>",
        "another file"
    )]
    #[case::style_url(
        "<svg xmlns='http://www.w3.org/2000/svg' width='10' height='10'><rect style='fill:url(http://x.test/)' width='9' height='9'/></svg>",
        "another file"
    )]
    #[case::nothing("<svg xmlns='http://www.w3.org/2000/svg' width='10' height='10'/>", "No visible outline")]
    fn hostile_or_empty_files_are_refused(#[case] text: &str, #[case] reason: &str) {
        let said = read_svg(text, None).unwrap_err().to_string();
        assert!(said.contains(reason), "{said}");
    }

    #[rstest]
    #[case::open("<path d='M10 10 L70 10 L70 40' fill='none' stroke='#000'/>", "open")]
    #[case::crossing("<path d='M10 10 L70 40 L70 10 L10 40 Z'/>", "crosses itself")]
    #[case::small("<rect width='7' height='30'/>", "8 to 400 mm")]
    #[case::huge("<rect width='900' height='900'/>", "8 to 400 mm")]
    #[case::nan("<path d='MNaN 10 L70 10 L70 40 Z'/>", "")]
    #[case::infinite("<rect width='1e300' height='1e300'/>", "")]
    fn outlines_no_cutter_can_have_are_refused(#[case] body: &str, #[case] reason: &str) {
        let said = read_svg(&svg(body), None).unwrap_err().to_string();
        assert!(said.contains(reason), "{said}");
    }

    #[test]
    fn a_big_file_and_a_deep_one_are_refused() {
        assert!(read_svg(&svg(&" ".repeat(1_000_001)), None).unwrap_err().to_string().contains("1 MB"));
        let deep = format!("{}{}", "<g>".repeat(5000), "</g>".repeat(5000));
        assert!(read_svg(&svg(&deep), None).is_err());
    }
}
