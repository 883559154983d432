//! A picture of a piece's inside: the temperature of every cell of its cross-section, moment by moment.

use super::grid::Grid;
use super::piece::{Piece, Support};
use super::report::ChillQuestion;
use super::solver::Body;
use super::thermal::Thermal;
use crate::units::{Length, Span, Temperature};

/// What the columns of a section are.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[schema(as = SectionWord)]
#[serde(rename_all = "snake_case")]
pub enum SectionKind {
    /// One column that stands for the whole width.
    Slab,
    /// Columns from the middle outward, alike on both sides.
    Halved,
    /// Rings from the middle outward; one layer.
    Rings,
}

/// The inside at one moment.
#[derive(Debug, Clone, PartialEq)]
pub struct Frame {
    /// Since it was put where it is.
    pub after: Span,
    /// Layer by layer from below, each from the middle outward.
    pub layers: Vec<Vec<Temperature>>,
}

/// The inside of a piece over time.
#[derive(Debug, Clone, PartialEq)]
pub struct Section {
    /// How to read the columns.
    pub kind: SectionKind,
    /// Whole width of the section; for a slab, none is meant.
    pub width: Option<Length>,
    /// Whole height.
    pub height: Length,
    /// In order of time, the start first.
    pub frames: Vec<Frame>,
}

/// The inside of the question's piece at `frames` moments (2 at least) evenly spread from the start to `until`.
#[must_use]
pub fn section(question: &ChillQuestion, until: Span, frames: u32) -> Section {
    let thermal = Thermal::new(&question.composition, question.start, question.place.air());
    let alike = matches!(question.support, Support::Rack);
    let mut body = Body::new(&thermal, question.piece, question.wrap, question.start, alike);
    let grid = Grid::new(question.piece, alike, 1);
    let layers = |cells: &[f64]| -> Vec<Vec<Temperature>> {
        let layer = |j: usize| (0..grid.nx).map(|i| Temperature::new_c(cells[i * grid.ny + j])).collect();
        let solved: Vec<Vec<Temperature>> = (0..grid.ny).map(layer).collect();
        if grid.mirrored && grid.ny > 1 { solved.iter().rev().chain(&solved).cloned().collect() } else { solved }
    };
    let spacing = until.s() / f64::from(frames.max(2) - 1);
    let start = layers(&vec![question.start.c(); grid.nx * grid.ny]);
    let mut found = vec![Frame { after: Span::new_s(0.0), layers: start }];
    let mut next = spacing;
    body.leave_watched(question.place.air(), question.place.film(), question.support, until, |s, cells| {
        if s.after.s() >= next - 1e-6 {
            found.push(Frame { after: s.after, layers: layers(cells) });
            while next <= s.after.s() + 1e-6 {
                next += spacing;
            }
        }
        false
    });
    let (kind, width, height) = match question.piece {
        Piece::Sheet { thickness } => (SectionKind::Slab, None, thickness),
        Piece::Stack { thickness, count } => (SectionKind::Slab, None, thickness * f64::from(count)),
        Piece::Disc { thickness, diameter } => (SectionKind::Halved, Some(diameter), thickness),
        Piece::Ball { diameter } => (SectionKind::Halved, Some(diameter), diameter),
        Piece::Sphere { diameter } | Piece::Log { diameter } => (SectionKind::Rings, Some(diameter), diameter),
        Piece::Bar { width, height } => (SectionKind::Halved, Some(width), height),
    };
    Section { kind, width, height, frames: found }
}

#[cfg(test)]
mod tests {
    use super::super::{Place, Target, TrayKind, Wrap, chill_briefly};
    use super::*;
    use crate::dough::{Composition, FatKind};

    fn question(piece: Piece, support: Support) -> ChillQuestion {
        let b = Composition::from_analysis(0.1457, 0.2018, 0.0575, 0.5799, 0.0035, 0.0116, FatKind::Butter).unwrap();
        ChillQuestion::new(b, piece, Wrap::Wrapped, support, 20.5, Place::new(4.0, 7.0).unwrap(), Target::Rolling)
            .unwrap()
    }

    #[test]
    fn the_hottest_cell_of_every_frame_is_the_core_of_the_run() {
        let mm = Length::new_mm;
        for piece in [
            Piece::Disc { thickness: mm(22.0), diameter: mm(180.0) },
            Piece::Log { diameter: mm(50.0) },
            Piece::Sphere { diameter: mm(40.0) },
            Piece::Bar { width: mm(60.0), height: mm(35.0) },
            Piece::Stack { thickness: mm(6.0), count: 3 },
        ] {
            let q = question(piece, Support::Rack);
            let s = section(&q, Span::new_min(60.0), 13);
            assert_eq!(s.frames.len(), 13, "{piece:?}");
            let run = chill_briefly(&q).curve;
            for frame in &s.frames {
                let cells = || frame.layers.iter().flatten().map(|t| t.c());
                let hottest = cells().fold(f64::MIN, f64::max);
                if let Some(same) = run.iter().find(|r| (r.after.s() - frame.after.s()).abs() < 1e-6) {
                    assert!((same.warmest.c() - hottest).abs() < 1e-9);
                    let coldest = cells().fold(f64::MAX, f64::min);
                    assert!((same.coldest.c() - coldest).abs() < 1e-9);
                }
            }
            let last = &s.frames[12].layers;
            assert!(last.iter().all(|layer| layer.len() == last[0].len()));
            // Alike above and below where it lies on a rack.
            if last.len() > 1 {
                assert!((last[0][0].c() - last[last.len() - 1][0].c()).abs() < 0.05);
            }
        }
    }

    #[test]
    fn a_sheet_on_a_warm_tray_is_warmer_below() {
        let tray = Support::Tray { kind: TrayKind::Steel, start: Temperature::new_c(21.0) };
        let s = section(&question(Piece::Sheet { thickness: Length::new_mm(6.0) }, tray), Span::new_min(6.0), 4);
        let layers = &s.frames[3].layers;
        assert!(layers[0][0] > layers[layers.len() - 1][0]);
        assert_eq!((s.kind, s.width), (SectionKind::Slab, None));
    }
}
