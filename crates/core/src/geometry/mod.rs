//! Closed outlines in millimetres: what a cutter's edge looks like from above. Knows no station.

mod builtin;
mod drawn;
mod hole;
mod joined;
mod narrow;
mod neck;
mod outline;
mod paper;
mod photo;
mod picture;
mod ring;
mod scatter;
mod svg;
mod svg_safe;

pub use builtin::{Builtin, BuiltinKind};
pub use joined::{Strand, strand, union_of_rounds};
pub use narrow::{NarrowKind, NarrowPart, PlaceOnPiece, narrow_parts};
pub use outline::{Outline, Placement, ThinNeck, neck_warning};
pub use paper::PaperSize;
pub(crate) use photo::check_corners;
pub use photo::{DarkEdge, PHOTO_LIMIT_BYTES, PhotoReading, outline_from_photo};
pub(crate) use picture::{from_above, read_picture};
pub use ring::clearance_mm;
pub(crate) use ring::{
    bounds, distance_to_ring, edge_distance, evenly, length, offset_ring, ring_holds, signed_area, smoothed,
};
pub(crate) use scatter::{between_points, straight_between};
pub use svg::{read_svg, write_svg};
