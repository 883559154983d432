//! How even a rolled sheet is: thickness read at points of a grid, the map between them, and where it is thin or thick.

use crate::error::{Checks, InputError, InputErrors};
use crate::geometry::between_points;
use crate::units::Length;
use serde::{Deserialize, Serialize};

/// Grids no finer than this are filled in at a bench, each way.
pub const MOST_READINGS_A_SIDE: u32 = 8;
/// So many sheets of a job are measured at most.
pub const MOST_SHEETS_MEASURED: usize = 24;
/// A spot counts as thin or thick when it is off by more than this, of the thickness wanted. Our own choice: half of what
/// puts two pieces into different size classes on a tray.
const OFF_SHARE: f64 = 0.06;
/// Cells of the map, each way.
const MAP_CELLS: u32 = 24;

/// Thickness read at the middles of the cells of a grid; some may be empty.
#[derive(Debug, Clone, PartialEq)]
pub struct SheetReadings {
    columns: u32,
    rows: u32,
    read: Vec<Option<Length>>,
}

/// Thickness read on one sheet, at the middles of the cells of a grid; the only door to [`SheetReadings`].
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, utoipa::ToSchema)]
#[schema(as = ReadingsBody)]
#[serde(deny_unknown_fields)]
pub struct ReadingsInput {
    /// Across the sheet, 1 to 8.
    pub columns: u32,
    /// Along the sheet, 1 to 8.
    pub rows: u32,
    /// Row by row, 0.5 to 40, null where nothing was read.
    pub read_mm: Vec<Option<f64>>,
}

impl ReadingsInput {
    /// The readings, checked.
    pub fn checked(&self) -> Result<SheetReadings, InputErrors> {
        SheetReadings::new(self.columns, self.rows, &self.read_mm)
    }
}

impl SheetReadings {
    /// A grid of 1 to 8 each way, read row by row; readings of 0.5 to 40 mm.
    pub fn new(columns: u32, rows: u32, read_mm: &[Option<f64>]) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        let most = f64::from(MOST_READINGS_A_SIDE);
        checks.range("columns", f64::from(columns), 1.0, most, "columns");
        checks.range("rows", f64::from(rows), 1.0, most, "rows");
        checks.finish(())?;
        let wanted = (columns * rows) as usize;
        if read_mm.len() != wanted {
            return Err(InputError::refused(
                "read_mm",
                format!(
                    "A {columns} × {rows} grid needs {wanted} readings (blanks count). You have {}.",
                    read_mm.len()
                ),
            )
            .into());
        }
        let mut checks = Checks::new();
        for (i, read) in read_mm.iter().enumerate() {
            if let Some(mm) = read {
                checks.range(&format!("read_mm[{i}]"), *mm, 0.5, 40.0, "mm");
            }
        }
        checks.finish(())?;
        Ok(Self { columns, rows, read: read_mm.iter().map(|r| r.map(Length::new_mm)).collect() })
    }

    /// Across the sheet.
    #[must_use]
    pub fn columns(&self) -> u32 {
        self.columns
    }

    /// Along the sheet.
    #[must_use]
    pub fn rows(&self) -> u32 {
        self.rows
    }

    /// Row by row.
    #[must_use]
    pub fn read(&self) -> &[Option<Length>] {
        &self.read
    }
}

/// What a spot is against the thickness wanted.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SpotIs {
    /// Thinner.
    Thin,
    /// As wanted.
    Even,
    /// Thicker.
    Thick,
}

/// How even a sheet is.
#[derive(Debug, Clone, PartialEq)]
pub struct Evenness {
    /// Of all readings.
    pub mean: Length,
    /// The thinnest reading.
    pub least: Length,
    /// The thickest reading.
    pub most: Length,
    /// What each reading is, row by row; `None` where nothing was read.
    pub spots: Vec<Option<SpotIs>>,
    /// The map between them, row by row.
    pub map: Vec<Length>,
    /// Cells of the map each way.
    pub map_cells: u32,
}

impl Evenness {
    /// The map's thickness at a place, by shares of the sheet's width and length.
    #[must_use]
    pub fn at(&self, across: f64, along: f64) -> Length {
        let cell = |share: f64| -> usize {
            #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "held between 0 and 24")]
            let cell = (share * f64::from(self.map_cells)).clamp(0.0, f64::from(self.map_cells - 1)) as usize;
            cell
        };
        self.map[cell(along) * self.map_cells as usize + cell(across)]
    }
}

/// Judges a sheet's readings; `None` while nothing was read.
///
/// The map between the points is their mean with weights that fall off with the square of the distance (Shepard 1968, from
/// memory), which passes through every reading and never beyond them. It approximates: a ridge between two points is not seen.
#[must_use]
pub fn judge_evenness(readings: &SheetReadings, wanted: Length, width: Length, length: Length) -> Option<Evenness> {
    let points: Vec<(f64, f64, f64)> = (0u32..)
        .zip(&readings.read)
        .filter_map(|(i, read)| {
            let (column, row) = (i % readings.columns, i / readings.columns);
            read.map(|r| {
                let at = |k: u32, n: u32, whole: f64| (f64::from(k) + 0.5) / f64::from(n) * whole;
                (at(column, readings.columns, width.mm()), at(row, readings.rows, length.mm()), r.mm())
            })
        })
        .collect();
    let all = readings.read.iter().flatten();
    let least = all.clone().copied().min_by(|a, b| a.mm().total_cmp(&b.mm()))?;
    let most = all.clone().copied().max_by(|a, b| a.mm().total_cmp(&b.mm()))?;
    let count = u32::try_from(points.len()).unwrap_or(u32::MAX);
    let mean = Length::new_mm(points.iter().map(|p| p.2).sum::<f64>() / f64::from(count));
    let is = |read: Length| {
        let off = read.mm() / wanted.mm() - 1.0;
        if off < -OFF_SHARE {
            SpotIs::Thin
        } else if off > OFF_SHARE {
            SpotIs::Thick
        } else {
            SpotIs::Even
        }
    };
    let map = (0..MAP_CELLS * MAP_CELLS)
        .map(|i| {
            let (x, y) = (f64::from(i % MAP_CELLS) + 0.5, f64::from(i / MAP_CELLS) + 0.5);
            let cells = f64::from(MAP_CELLS);
            let (x, y) = (x / cells * width.mm(), y / cells * length.mm());
            Length::new_mm(between_points(&points, x, y).unwrap_or(mean.mm()))
        })
        .collect();
    Some(Evenness {
        mean,
        least,
        most,
        spots: readings.read.iter().map(|r| r.map(is)).collect(),
        map,
        map_cells: MAP_CELLS,
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn mm(v: f64) -> Length {
        Length::new_mm(v)
    }

    fn judged(columns: u32, rows: u32, read: &[Option<f64>]) -> Option<Evenness> {
        judge_evenness(&SheetReadings::new(columns, rows, read).unwrap(), mm(6.0), mm(310.0), mm(306.0))
    }

    #[test]
    fn thin_and_thick_spots_are_told_where_they_are() {
        let e = judged(3, 2, &[Some(6.0), Some(5.5), None, Some(6.3), Some(6.5), Some(6.1)]).unwrap();
        assert_eq!(
            e.spots,
            vec![
                Some(SpotIs::Even),
                Some(SpotIs::Thin),
                None,
                Some(SpotIs::Even),
                Some(SpotIs::Thick),
                Some(SpotIs::Even)
            ]
        );
        // By hand: (6.0 + 5.5 + 6.3 + 6.5 + 6.1) / 5.
        assert!((e.mean.mm() - 6.08).abs() < 1e-9 && e.least == mm(5.5) && e.most == mm(6.5));
    }

    #[test]
    fn the_map_passes_near_its_readings_and_is_flat_where_they_are_alike() {
        let e = judged(2, 1, &[Some(5.0), Some(7.0)]).unwrap();
        let at = |x: u32, y: u32| e.map[(y * e.map_cells + x) as usize].mm();
        assert_eq!((e.at(0.22, 0.47).mm(), e.at(1.0, 1.0).mm()), (at(5, 11), at(23, 23)));
        assert!(at(5, 11) < 5.2 && at(18, 11) > 6.8);
        let middle = f64::midpoint(at(11, 11), at(12, 11));
        assert!((middle - 6.0).abs() < 1e-6, "{middle}");
        let flat = judged(4, 3, &[Some(6.2); 12]).unwrap();
        assert!(flat.map.iter().all(|m| (m.mm() - 6.2).abs() < 1e-9));
    }

    #[test]
    fn what_was_not_read_is_not_judged_and_what_cannot_be_read_is_refused() {
        assert!(judged(4, 3, &[None; 12]).is_none());
        let said = |columns, rows, read: &[Option<f64>]| {
            SheetReadings::new(columns, rows, read).unwrap_err().all()[0].field().to_owned()
        };
        assert_eq!(said(9, 1, &[None; 9]), "columns");
        assert_eq!(said(2, 2, &[None; 3]), "read_mm");
        assert_eq!(said(2, 1, &[None, Some(f64::NAN)]), "read_mm[1]");
        assert_eq!(said(2, 1, &[Some(60.0), None]), "read_mm[0]");
    }

    proptest! {
        #[test]
        fn the_map_never_goes_beyond_its_readings(read in prop::collection::vec(prop::option::of(3.0..9.0_f64), 12)) {
            prop_assume!(read.iter().any(Option::is_some));
            let e = judged(4, 3, &read).unwrap();
            let sound = |m: &Length| m.mm() >= e.least.mm() - 1e-9 && m.mm() <= e.most.mm() + 1e-9;
            prop_assert!(e.map.iter().all(sound) && sound(&e.mean));
        }
    }
}
