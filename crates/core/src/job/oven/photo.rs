//! What is expected of a job's pieces on a photo.

use crate::job::answers::OvenPlan;
use crate::oven::look_lab;
use crate::units::{Length, Share};

/// A piece that the forecast does not reach is straw in the middle and golden at its edge, as colour indices. Common practice, no source.
const LOOKS: (f64, f64) = (10.0, 30.0);

/// How a job's pieces are expected to come out.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OnPhoto {
    /// Growth across the longer side.
    pub spread: Share,
    /// How thick they are when cold.
    pub thickness: Length,
    /// Colour of the middle, L*, a* and b*.
    pub middle: [f64; 3],
    /// Of the edge.
    pub edge: [f64; 3],
}

impl OvenPlan {
    /// As forecast; where nothing is forecast the middle of what is expected, as thick as they went in.
    #[must_use]
    pub fn on_photo(&self) -> OnPhoto {
        let (least, most) = self.spread_across();
        let forecast = self.forecast.as_ref();
        let (middle, edge) = forecast.map_or(LOOKS, |f| (f.middle_colour, f.rim_colour));
        OnPhoto {
            spread: Share::new(f64::midpoint(least.value(), most.value())),
            thickness: forecast.map_or(self.thickness, |f| f.thickness),
            middle: look_lab(middle, self.hides_colour),
            edge: look_lab(edge, self.hides_colour),
        }
    }
}
