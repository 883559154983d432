//! What is to be said about a photo, beside its figures.

use super::{MOST_TILT_DEG, PhotoMeasures};
use crate::geometry::PlaceOnPiece;
use crate::oven::{EdgeColour, Shade, index_of_look, shade_of};
use crate::units::Share;

/// Something to be minded about a photo or what it shows.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum PhotoNote {
    /// So many lie over the paper's edge and were left out.
    OverTheEdge(u32),
    /// So many lay against another and were parted.
    Touching(u32),
    /// So many fit no cutter of the job.
    NoCutter(u32),
    /// The paper is as white as the camera can tell.
    BurntOut,
    /// At so many of the places pointed at there is nothing to be told from paper.
    NothingAt(u32),
    /// The camera looked further aside than is measured well.
    Aside,
    /// So many of all pieces are dark at the same place.
    Dark {
        /// So many.
        of: u32,
        /// Of so many whose cutter is known.
        all: u32,
        /// Where, as the cutter was drawn.
        place: PlaceOnPiece,
        /// At a point of the cutter.
        at_point: bool,
    },
}

fn count(n: usize) -> u32 {
    u32::try_from(n).unwrap_or(u32::MAX)
}

impl PhotoMeasures {
    /// What is to be said.
    #[must_use]
    pub fn notes(&self) -> Vec<PhotoNote> {
        let touching = count(self.pieces.iter().filter(|p| p.was_touching).count());
        let known = self.pieces.iter().filter(|p| p.cutter.is_some());
        let all = count(known.clone().count());
        let unknown = count(self.pieces.len()) - all;
        let mut found = vec![];
        found.extend((self.tilt_deg > MOST_TILT_DEG).then_some(PhotoNote::Aside));
        found.extend(self.burnt_out.then_some(PhotoNote::BurntOut));
        found.extend((self.over_the_edge > 0).then_some(PhotoNote::OverTheEdge(self.over_the_edge)));
        found.extend((!self.nothing_at.is_empty()).then(|| PhotoNote::NothingAt(count(self.nothing_at.len()))));
        found.extend((touching > 0).then_some(PhotoNote::Touching(touching)));
        found.extend((all > 0 && unknown > 0).then_some(PhotoNote::NoCutter(unknown)));
        // Each place of each piece once; what is in the middle is what was put in.
        let mut places: Vec<(PlaceOnPiece, bool, u32)> = vec![];
        for piece in known {
            let mut of_it: Vec<(PlaceOnPiece, bool)> = vec![];
            for dark in piece.dark.iter().filter(|d| d.at_edge || d.at_point) {
                let Some(place) = dark.place.filter(|p| *p != PlaceOnPiece::Middle) else { continue };
                if !of_it.iter().any(|(p, _)| *p == place) {
                    of_it.push((place, dark.at_point));
                }
            }
            for (place, at_point) in of_it {
                match places.iter_mut().find(|(p, ..)| *p == place) {
                    Some((_, point, n)) => (*point, *n) = (*point || at_point, *n + 1),
                    None => places.push((place, at_point, 1)),
                }
            }
        }
        places.sort_by_key(|(.., n)| std::cmp::Reverse(*n));
        found.extend(places.into_iter().map(|(place, at_point, of)| PhotoNote::Dark { of, all, place, at_point }));
        found
    }

    /// The middle of the growths along the cutter, of pieces whose cutter is known.
    #[must_use]
    pub fn spread(&self) -> Option<Share> {
        let mut grown: Vec<f64> = self.pieces.iter().filter_map(|p| p.grown.map(|g| g.along.value())).collect();
        grown.sort_by(f64::total_cmp);
        let (low, high) = (grown.get(grown.len().saturating_sub(1) / 2)?, grown.get(grown.len() / 2)?);
        Some(Share::new(f64::midpoint(*low, *high)))
    }

    /// The edges as bakers name them, by their mean colour; of a cocoa dough it tells nothing.
    #[must_use]
    pub fn edge_colour(&self) -> Option<EdgeColour> {
        Some(match shade_of(index_of_look(self.edge()?)) {
            Shade::Raw => EdgeColour::Pale,
            Shade::Edge(colour) => colour,
            Shade::Burnt => EdgeColour::Brown,
        })
    }

    /// The mean colour of the edges, L*, a* and b*.
    fn edge(&self) -> Option<[f64; 3]> {
        let edges: Vec<[f64; 3]> = self.pieces.iter().filter_map(|p| p.edge).collect();
        let n = f64::from(count(edges.len()));
        (n > 0.0).then(|| [0, 1, 2].map(|k| edges.iter().map(|e| e[k]).sum::<f64>() / n))
    }
}
