//! Where an oven is hotter: slices of bread or spoonfuls of sugar laid over a rack, and how each came out.

use super::EdgeColour;
use super::bake::{index, integral_of, kelvin_an_e_fold};
use super::colour::screen_colour;
use super::reason::{OvenSide, Reason};
use crate::error::{Checks, InputError, InputErrors};
use crate::geometry::between_points;
use crate::units::TemperatureDifference;
use serde::{Deserialize, Serialize};

/// Cells a map has at most each way.
pub const MOST_SPOTS_A_SIDE: u32 = 6;
/// Weaker than this, from the coolest to the hottest cell, it is not worth turning a tray for. Our own choice: about what makes
/// a twentieth of a bake.
const WORTH_A_TURN_K: f64 = 4.0;
/// Integrals of browning of the five shades: where the bake model calls a rim pale, just golden, golden and brown, and twice brown.
const TOASTED: [f64; 5] = [
    integral_of(EdgeColour::Pale),
    integral_of(EdgeColour::JustGolden),
    integral_of(EdgeColour::Golden),
    integral_of(EdgeColour::Brown),
    2.0 * integral_of(EdgeColour::Brown),
];

/// What was laid over the rack.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SpotTest {
    /// Slices of white bread, toasted until the middle ones are golden.
    Bread,
    /// Spoonfuls of granulated sugar on paper, about 190 degC.
    Sugar,
}

impl SpotTest {
    /// How its shades look on a screen, the palest first.
    #[must_use]
    pub fn looks(self) -> [String; 5] {
        TOASTED.map(|integral| screen_colour(index(integral), false))
    }

    /// How hot the surface in a cell of a shade was against that in one of the middle shade.
    fn hotter_k(self, shade: u8) -> f64 {
        let at = usize::from(shade.clamp(1, 5)) - 1;
        match self {
            Self::Bread => kelvin_an_e_fold() * (TOASTED[at] / TOASTED[2]).ln(),
            // Sucrose melts about 186 degC and colours within ten degrees above. From memory; it depends on how long it lies.
            Self::Sugar => [-8.0, -3.0, 0.0, 6.0, 14.0][at],
        }
    }
}

/// A map of the oven's hot spots as it was read.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[schema(as = HotSpotsBody)]
#[serde(deny_unknown_fields)]
pub struct HotSpotsInput {
    /// What was laid over the rack.
    pub test: SpotTest,
    /// From left to right, 1 to 6.
    pub columns: u32,
    /// From the back to the door, 1 to 6.
    pub rows: u32,
    /// 1 the palest to 5 the darkest, null where nothing lay; row by row.
    pub shades: Vec<Option<u8>>,
}

impl HotSpotsInput {
    /// The map, checked as [`HotSpots::new`] does.
    pub fn checked(&self) -> Result<HotSpots, InputErrors> {
        HotSpots::new(self.test, self.columns, self.rows, &self.shades)
    }
}

/// A map of an oven: one shade a cell as one looks in at the door, the back row first; some may be empty.
#[derive(Debug, Clone, PartialEq)]
pub struct HotSpots {
    test: SpotTest,
    columns: u32,
    rows: u32,
    shades: Vec<Option<u8>>,
}

impl HotSpots {
    /// A map of 1 to 6 cells each way, with shades of 1 (palest) to 5 (darkest).
    pub fn new(test: SpotTest, columns: u32, rows: u32, shades: &[Option<u8>]) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        let most = f64::from(MOST_SPOTS_A_SIDE);
        checks.range("hot_spots.columns", f64::from(columns), 1.0, most, "columns");
        checks.range("hot_spots.rows", f64::from(rows), 1.0, most, "rows");
        checks.finish(())?;
        let wanted = (columns * rows) as usize;
        if shades.len() != wanted {
            let why = format!("A {columns} × {rows} map needs {wanted} shades. You have {}.", shades.len());
            return Err(InputError::refused("hot_spots.shades", why).into());
        }
        let mut checks = Checks::new();
        for (i, shade) in shades.iter().enumerate() {
            if let Some(shade) = shade {
                checks.range(&format!("hot_spots.shades[{i}]"), f64::from(*shade), 1.0, 5.0, "palest to darkest");
            }
        }
        checks.finish(())?;
        Ok(Self { test, columns, rows, shades: shades.to_vec() })
    }

    /// What was laid over the rack.
    #[must_use]
    pub fn test(&self) -> SpotTest {
        self.test
    }

    /// Cells from left to right, and from the back to the door.
    #[must_use]
    pub fn size(&self) -> (u32, u32) {
        (self.columns, self.rows)
    }

    /// Row by row from the back.
    #[must_use]
    pub fn shades(&self) -> &[Option<u8>] {
        &self.shades
    }

    /// How much hotter surfaces in each cell are than in all of them on the whole; `None` where nothing lay.
    #[must_use]
    pub fn hotter(&self) -> Vec<Option<TemperatureDifference>> {
        let each: Vec<Option<f64>> = self.shades.iter().map(|s| s.map(|s| self.test.hotter_k(s))).collect();
        let known: Vec<f64> = each.iter().flatten().copied().collect();
        let count = f64::from(u32::try_from(known.len().max(1)).unwrap_or(u32::MAX));
        let mean = known.iter().sum::<f64>() / count;
        each.into_iter().map(|k| k.map(|k| TemperatureDifference::new_k(k - mean))).collect()
    }

    /// How much hotter surfaces at a place of a tray are, by shares of its way from left to right and from the back to the door; straight
    /// between the middles of the cells, the outermost ones held. A cell where nothing lay has what lies between the others.
    #[must_use]
    pub fn hotter_at(&self, across: f64, down: f64) -> TemperatureDifference {
        let all = self.hotter();
        let known: Vec<(f64, f64, f64)> = (0u32..)
            .zip(&all)
            .filter_map(|(i, k)| k.map(|k| (f64::from(i % self.columns), f64::from(i / self.columns), k.k())))
            .collect();
        let cell = |column: u32, row: u32| match all[(row * self.columns + column) as usize] {
            Some(k) => k.k(),
            None => between_points(&known, f64::from(column), f64::from(row)).unwrap_or(0.0),
        };
        let between = |share: f64, n: u32| -> (u32, u32, f64) {
            let at = (share * f64::from(n) - 0.5).clamp(0.0, f64::from(n - 1));
            #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "0 to 5")]
            let low = at.floor() as u32;
            (low, (low + 1).min(n - 1), at - f64::from(low))
        };
        let (c0, c1, cx) = between(across, self.columns);
        let (r0, r1, ry) = between(down, self.rows);
        let row = |r: u32| cell(c0, r) + (cell(c1, r) - cell(c0, r)) * cx;
        TemperatureDifference::new_k(row(r0) + (row(r1) - row(r0)) * ry)
    }

    /// From the coolest to the hottest cell.
    #[must_use]
    pub fn range(&self) -> TemperatureDifference {
        let known: Vec<f64> = self.hotter().into_iter().flatten().map(|k| k.k()).collect();
        let most = known.iter().copied().fold(f64::NEG_INFINITY, f64::max);
        let least = known.iter().copied().fold(f64::INFINITY, f64::min);
        TemperatureDifference::new_k((most - least).max(0.0))
    }

    /// Which side is hotter; `None` where it is even enough.
    #[must_use]
    pub fn advice(&self) -> Option<Reason> {
        if self.range().k() < WORTH_A_TURN_K {
            return None;
        }
        let end = |x: f64, y: f64| self.hotter_at(x, y).k();
        let along = (end(1.0, 0.5) - end(0.0, 0.5), end(0.5, 0.0) - end(0.5, 1.0));
        let within = self.range() * 0.5;
        if along.0.abs() < 0.5 * WORTH_A_TURN_K && along.1.abs() < 0.5 * WORTH_A_TURN_K {
            return Some(Reason::NoSideIsHotter { within });
        }
        let side = match along {
            (x, y) if x.abs() >= y.abs() && x > 0.0 => OvenSide::Right,
            (x, y) if x.abs() >= y.abs() => OvenSide::Left,
            (_, y) if y > 0.0 => OvenSide::Back,
            _ => OvenSide::Door,
        };
        Some(Reason::SideIsHotter { side, within })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn map(shades: &[u8]) -> HotSpots {
        let shades: Vec<Option<u8>> = shades.iter().map(|s| Some(*s)).collect();
        HotSpots::new(SpotTest::Bread, 3, 2, &shades).unwrap()
    }

    #[test]
    fn darker_bread_lay_hotter_and_the_whole_is_no_hotter_than_itself() {
        let spots = map(&[3, 3, 4, 2, 3, 4]);
        let each: Vec<f64> = spots.hotter().into_iter().map(|k| k.unwrap().k()).collect();
        assert!(each.iter().sum::<f64>().abs() < 1e-9);
        // By hand: e-fold at 150 degC is 8.314 x 423.15 x 423.15 / 124000 = 12.01 K; brown over golden is ln 2.
        assert!((each[2] - each[1] - 12.006 * 2.0_f64.ln()).abs() < 0.01, "{each:?}");
        // Brown over straw is ln (0.90 / 0.22), 16.9 K; half of it either way.
        let Some(Reason::SideIsHotter { side: OvenSide::Right, within }) = spots.advice() else { panic!("{spots:?}") };
        assert!((within.k() - 8.46).abs() < 0.01, "{within:?}");
    }

    #[test]
    fn between_cells_it_goes_straight_and_beyond_them_it_holds() {
        let spots = map(&[2, 3, 4, 2, 3, 4]);
        let at = |x: f64| spots.hotter_at(x, 0.5).k();
        assert!((at(1.0 / 3.0) - f64::midpoint(at(1.0 / 6.0), at(0.5))).abs() < 1e-9);
        assert_eq!(at(0.0), at(1.0 / 6.0));
        assert!(at(0.9) > at(0.1));
    }

    #[test]
    fn where_nothing_lay_the_others_are_asked() {
        let two = HotSpots::new(SpotTest::Bread, 1, 3, &[Some(3), None, Some(5)]).unwrap();
        let at = |y: f64| two.hotter_at(0.5, y).k();
        assert!((at(0.5) - f64::midpoint(at(0.0), at(1.0))).abs() < 1e-9);
        assert!(matches!(two.advice(), Some(Reason::SideIsHotter { side: OvenSide::Door, .. })));
    }

    #[test]
    fn an_even_oven_asks_for_nothing_and_one_hot_in_the_middle_for_no_turn() {
        assert!(map(&[3; 6]).advice().is_none());
        let middle = HotSpots::new(SpotTest::Sugar, 3, 1, &[Some(2), Some(5), Some(2)]).unwrap();
        assert!(matches!(middle.advice(), Some(Reason::NoSideIsHotter { .. })));
        let back = HotSpots::new(SpotTest::Sugar, 1, 2, &[Some(4), Some(2)]).unwrap();
        assert!(matches!(back.advice(), Some(Reason::SideIsHotter { side: OvenSide::Back, .. })));
    }

    #[test]
    fn what_is_no_map_is_refused_by_its_field() {
        let said =
            |c, r, s: &[Option<u8>]| HotSpots::new(SpotTest::Bread, c, r, s).unwrap_err().all()[0].field().to_owned();
        assert_eq!(said(9, 1, &[None; 9]), "hot_spots.columns");
        assert_eq!(said(2, 2, &[None; 3]), "hot_spots.shades");
        assert_eq!(said(2, 1, &[None, Some(6)]), "hot_spots.shades[1]");
        assert!(HotSpots::new(SpotTest::Bread, 2, 1, &[None, None]).unwrap().advice().is_none());
    }
}
