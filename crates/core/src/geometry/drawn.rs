//! Forms that are drawn: figures, letters and numbers, our own drawings. A drawing is areas and strokes of a width, put together to one
//! outline and scaled to its size.

use super::Outline;
use crate::error::InputError;
use crate::units::Length;
use geo::{Area as _, BooleanOps, BoundingRect, Buffer, LineString, MultiPolygon, Polygon, Simplify};
use kurbo::{BezPath, PathEl};

/// Curves are flat to within this, as a share of the drawing's 100 units.
const FLAT: f64 = 0.04;
/// Holes narrower than this close up in the bake, and no tin has them, mm. Common practice, no source.
const SMALLEST_HOLE_MM: f64 = 4.0;
/// Half the width of a letter's strokes, in units of which the strokes' middle lines are 100 high: bold enough to be moved. Our own choice.
const LETTER_HALF: f64 = 10.5;

/// A part of a drawing, y downwards.
#[derive(Debug, Clone, Copy)]
pub(super) enum Part {
    /// Inside of a closed path.
    Area(&'static str),
    /// Along a path, so wide to either side, round at its ends.
    Stroke(&'static str, f64),
}

pub(super) const HEART: &[Part] = &[Part::Area(
    "M50 92 C22 68 0 50 0 27 C0 10 13 0 27 0 C38 0 46 6 50 16 C54 6 62 0 73 0 C87 0 100 10 100 27 C100 50 78 68 50 92 Z",
)];
pub(super) const STAR: &[Part] = &[Part::Area(
    "M50 0 L63.2 31.8 L97.6 34.5 L71.4 56.9 L79.4 90.5 L50 72.5 L20.6 90.5 L28.6 56.9 L2.4 34.5 L36.8 31.8 Z",
)];
pub(super) const TREE: &[Part] = &[
    Part::Area("M50 0 L74 34 L64 34 L86 66 L74 66 L98 98 L2 98 L26 66 L14 66 L36 34 L26 34 Z"),
    Part::Area("M40 96 L60 96 L60 116 L40 116 Z"),
];
pub(super) const FIGURE: &[Part] = &[
    Part::Stroke("M50 18 L50 19", 18.0),
    Part::Stroke("M50 42 L50 70", 15.0),
    Part::Stroke("M13 50 L87 50", 9.5),
    Part::Stroke("M44 74 L31 112", 10.5),
    Part::Stroke("M56 74 L69 112", 10.5),
];
pub(super) const CRESCENT: &[Part] =
    &[Part::Stroke("M14 20 C14 66 86 66 86 20", 9.0), Part::Stroke("M20 36 C32 62 68 62 80 36", 13.0)];
pub(super) const MITTEN: &[Part] = &[
    Part::Stroke("M56 30 L56 72", 28.0),
    Part::Stroke("M18 54 L38 78", 11.0),
    Part::Area("M26 88 L86 88 L86 116 L26 116 Z"),
];
pub(super) const LEAF: &[Part] =
    &[Part::Area("M50 0 C92 28 92 74 50 104 C8 74 8 28 50 0 Z"), Part::Stroke("M50 100 C50 108 54 114 60 120", 5.0)];

/// The middle lines of a capital letter or a figure; nothing for any other sign.
fn letter(sign: char) -> Option<&'static str> {
    Some(match sign {
        'A' => "M0 100 L32 0 L64 100 M13 68 L51 68",
        'B' => "M0 0 L0 100 L36 100 C72 100 72 50 36 50 L0 50 M36 50 C64 50 64 0 34 0 L0 0",
        'C' => "M60 18 C42 -8 0 -6 0 50 C0 106 42 108 60 82",
        'D' => "M0 0 L0 100 L24 100 C76 100 76 0 24 0 Z",
        'E' => "M56 0 L0 0 L0 100 L56 100 M0 50 L46 50",
        'F' => "M56 0 L0 0 L0 100 M0 50 L46 50",
        'G' => "M60 18 C42 -8 0 -6 0 50 C0 108 62 112 62 60 L38 60",
        'H' => "M0 0 L0 100 M62 0 L62 100 M0 50 L62 50",
        'I' => "M0 0 L0 100",
        'J' => "M50 0 L50 68 C50 110 2 110 0 72",
        'K' => "M0 0 L0 100 M60 0 L2 58 M22 40 L62 100",
        'L' => "M0 0 L0 100 L54 100",
        'M' => "M0 100 L0 0 L38 58 L76 0 L76 100",
        'N' => "M0 100 L0 0 L64 100 L64 0",
        'O' => "M36 0 C-12 0 -12 100 36 100 C84 100 84 0 36 0 Z",
        'P' => "M0 100 L0 0 L32 0 C72 0 72 58 32 58 L0 58",
        'Q' => "M36 0 C-12 0 -12 100 36 100 C84 100 84 0 36 0 Z M44 72 L70 104",
        'R' => "M0 100 L0 0 L32 0 C72 0 72 56 32 56 L0 56 M28 56 L62 100",
        'S' => "M58 16 C46 -6 0 -4 0 25 C0 60 60 42 60 74 C60 106 10 106 0 84",
        'T' => "M0 0 L68 0 M34 0 L34 100",
        'U' => "M0 0 L0 62 C0 112 64 112 64 62 L64 0",
        'V' => "M0 0 L34 100 L68 0",
        'W' => "M0 0 L24 100 L48 24 L72 100 L96 0",
        'X' => "M0 0 L64 100 M64 0 L0 100",
        'Y' => "M0 0 L34 50 L68 0 M34 50 L34 100",
        'Z' => "M0 0 L62 0 L0 100 L62 100",
        '0' => "M32 0 C-12 0 -12 100 32 100 C76 100 76 0 32 0 Z",
        '1' => "M0 24 L28 0 L28 100",
        '2' => "M2 24 C4 -10 60 -8 58 28 C56 52 8 72 0 100 L62 100",
        '3' => "M2 14 C20 -8 58 -4 56 24 C55 42 38 47 24 47 C42 47 60 54 60 74 C60 106 14 106 0 84",
        '4' => "M48 100 L48 0 L0 70 L66 70",
        '5' => "M56 0 L8 0 L4 46 C24 32 60 38 60 70 C60 106 14 108 0 86",
        '6' => "M52 4 C20 4 0 30 0 66 C0 112 62 110 62 70 C62 32 12 32 2 62",
        '7' => "M0 0 L60 0 L22 100",
        '8' => "M32 46 C-4 46 0 0 32 0 C64 0 68 46 32 46 C-14 46 -12 100 32 100 C76 100 78 46 32 46 Z",
        '9' => "M10 96 C42 96 62 70 62 34 C62 -12 0 -10 0 30 C0 68 50 68 60 38",
        _ => return None,
    })
}

/// A capital letter or a figure as high as `height`; a small letter counts as its capital.
///
/// Fails on any other sign, naming it.
pub(super) fn letter_outline(sign: char, height: Length) -> Result<Outline, InputError> {
    let capital = sign.to_ascii_uppercase();
    let Some(path) = letter(capital) else {
        return Err(InputError::refused("letter", format!("Can\u{2019}t draw “{sign}”. Use A to Z or 0 to 9.")));
    };
    let drawing = put_together(&[Part::Stroke(path, LETTER_HALF)]);
    scaled(&drawing, |_, high| height.mm() / high)
}

/// A drawing as wide as `width`.
pub(super) fn figure_outline(parts: &[Part], width: Length) -> Result<Outline, InputError> {
    scaled(&put_together(parts), |wide, _| width.mm() / wide)
}

fn put_together(parts: &[Part]) -> MultiPolygon<f64> {
    let areas: Vec<MultiPolygon<f64>> = parts
        .iter()
        .map(|part| match part {
            Part::Area(path) => {
                MultiPolygon::new(lines(path).into_iter().map(|ring| Polygon::new(ring, vec![])).collect())
            }
            Part::Stroke(path, half) => geo::MultiLineString::new(lines(path)).buffer(*half),
        })
        .collect();
    areas.into_iter().fold(MultiPolygon::new(vec![]), |all, one| all.union(&one))
}

fn lines(path: &str) -> Vec<LineString<f64>> {
    let path = BezPath::from_svg(path).expect("our own drawings read");
    let mut all: Vec<Vec<(f64, f64)>> = vec![];
    kurbo::flatten(path.iter(), FLAT, |el| match el {
        PathEl::MoveTo(p) => all.push(vec![(p.x, p.y)]),
        PathEl::LineTo(p) => {
            if let Some(line) = all.last_mut() {
                line.push((p.x, p.y));
            }
        }
        PathEl::ClosePath => {
            if let Some(line) = all.last_mut() {
                line.push(line[0]);
            }
        }
        PathEl::QuadTo(..) | PathEl::CurveTo(..) => unreachable!("flattened"),
    });
    all.into_iter().map(LineString::from).collect()
}

fn scaled(drawing: &MultiPolygon<f64>, by: impl Fn(f64, f64) -> f64) -> Result<Outline, InputError> {
    let largest = drawing.iter().max_by(|a, b| a.unsigned_area().total_cmp(&b.unsigned_area()));
    let piece = largest.expect("a drawing has an area").simplify(FLAT);
    let around = piece.bounding_rect().expect("a drawing has an extent");
    let scale = by(around.width(), around.height());
    let ring =
        |line: &LineString<f64>| -> Vec<(f64, f64)> { line.coords().map(|c| (c.x * scale, c.y * scale)).collect() };
    let wide_enough = |hole: &&LineString<f64>| {
        hole.bounding_rect().is_some_and(|b| b.width().min(b.height()) * scale >= SMALLEST_HOLE_MM)
    };
    let holes: Vec<Vec<(f64, f64)>> = piece.interiors().iter().filter(wide_enough).map(ring).collect();
    Outline::with_holes(&ring(piece.exterior()), &holes)
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Holes of the capitals and figures: as anybody writes them.
    #[test]
    fn letters_have_the_holes_that_people_write() {
        for sign in ('A'..='Z').chain('0'..='9') {
            let outline = letter_outline(sign, Length::new_mm(80.0)).unwrap();
            let holes = match sign {
                'B' | '8' => 2,
                'A' | 'D' | 'O' | 'P' | 'Q' | 'R' | '0' | '4' | '6' | '9' => 1,
                _ => 0,
            };
            assert_eq!(outline.holes().len(), holes, "{sign}");
            let (wide, high) = outline.extent();
            assert!((high.mm() - 80.0).abs() < 0.2, "{sign} is {high:?} high");
            assert!(wide.mm() > 12.0 && wide.mm() < 85.0, "{sign} is {wide:?} wide");
        }
    }

    #[test]
    fn a_small_letter_keeps_no_hole_that_closes_up_and_strokes_that_hold() {
        let small = letter_outline('a', Length::new_mm(22.0)).unwrap();
        assert!(small.holes().is_empty());
        // The wall of an O is a sixth of its height: 12 mm of a 70 mm one, which holds together when it is moved; 7 mm of a 40 mm one.
        let wall = |high| letter_outline('O', Length::new_mm(high)).unwrap().narrowest_neck().unwrap().mm();
        assert!((wall(70.0) - 12.1).abs() < 0.6, "{}", wall(70.0));
        assert!((wall(40.0) - 6.9).abs() < 0.5, "{}", wall(40.0));
    }

    #[test]
    fn what_is_no_letter_is_refused_by_its_sign() {
        let refused = letter_outline('ß', Length::new_mm(60.0)).unwrap_err();
        assert!(refused.problem().to_string().contains('ß') && refused.field() == "letter");
    }

    #[test]
    fn mirrored_figures_are_mirrored() {
        for parts in [HEART, STAR, TREE, FIGURE, CRESCENT] {
            let outline = figure_outline(parts, Length::new_mm(80.0)).unwrap();
            let (area, other) = (outline.area().mm2(), outline.mirrored().unwrap());
            let both: MultiPolygon<f64> = outline.polygon().intersection(other.polygon());
            assert!(both.unsigned_area() / area > 0.99, "{:.3}", both.unsigned_area() / area);
        }
    }
}
