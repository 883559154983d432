//! The plain grid and the two-way lattice: rows of one cutter, each row alike or turned half round, shifted so that they
//! nest. The floor below which no later nesting may fall.
//!
//! For one sheet width all layouts are searched once; the table then tells for every count of pieces the shortest
//! sheet that holds them, so that yields are a look-up.

use super::layout::in_cutting_order;
use super::layout::{Layout, in_rows, least_gap};
use super::nest::{KeptFault, kept_layout_fault};
use super::rows::{Candidate, Extent, Member, Turned, candidates, extent_of, plain_grid, stretched};
use super::spacing::{Spacing, Turning, WEB_STEPS_MM, larger_than_sheet};
use crate::error::InputError;
use crate::geometry::{Outline, Placement};
use crate::units::Length;

/// Directions tried, degrees.
const TURNS_DEG: [f64; 4] = [0.0, 45.0, 90.0, 135.0];

impl Turning {
    /// The directions searched, each with whether rows run along the sheet's length (which turns all by a quarter).
    fn searched(self) -> Vec<(f64, bool)> {
        match self {
            Self::Free => TURNS_DEG.iter().flat_map(|t| [(*t, false), (*t, true)]).collect(),
            Self::HalfTurn | Self::Fixed => vec![(0.0, false), (270.0, true)],
        }
    }
}
/// Shifts of the second row tried, as shares of the pitch, for usual and for many small pieces.
const SHIFTS: [(f64, u32); 3] = [(120.0, 24), (500.0, 12), (f64::INFINITY, 6)];
/// More pieces than this on one sheet are not laid out.
const MOST_PIECES: usize = 6000;

/// The best layouts of one cutter for one sheet width, by count.
#[derive(Debug, Clone)]
pub struct LatticeTable {
    outline: Outline,
    width: Length,
    longest: Length,
    edge: Length,
    /// Extents of the outline in each turn searched.
    extents: Vec<(f64, Extent)>,
    /// `shortest[n - 1]`: shortest length for n pieces and how; the kept layout where there is no candidate.
    shortest: Vec<(f64, Option<Candidate>)>,
    /// A nested layout, by how far along the sheet its pieces reach.
    kept: Vec<(f64, Placement)>,
}

/// A piece laid out in row coordinates.
struct Laid {
    along: f64,
    across: f64,
    turn_deg: f64,
}

impl LatticeTable {
    /// Searches all layouts on sheets `width` wide and up to `longest` long, webs held as [`WEB_STEPS_MM`] says.
    ///
    /// Fails when not even one piece fits.
    pub fn for_sheet(outline: &Outline, width: Length, longest: Length, spacing: Spacing) -> Result<Self, InputError> {
        Self::for_turning(outline, width, longest, spacing, Turning::Free)
    }

    /// The same for a cutter that may not be turned at will.
    pub fn for_turning(
        outline: &Outline,
        width: Length,
        longest: Length,
        spacing: Spacing,
        turning: Turning,
    ) -> Result<Self, InputError> {
        let webs: Vec<f64> = WEB_STEPS_MM.iter().copied().filter(|w| *w >= spacing.web().mm() - 1e-9).collect();
        Self::search(outline, width, longest, spacing.edge(), &webs, turning)
    }

    /// The same with exactly `gap` between pieces, for trays.
    pub fn with_gap(
        outline: &Outline,
        width: Length,
        longest: Length,
        edge: Length,
        gap: Length,
    ) -> Result<Self, InputError> {
        Self::search(outline, width, longest, edge, &[gap.mm()], Turning::Free)
    }

    fn search(
        outline: &Outline,
        width: Length,
        longest: Length,
        edge: Length,
        webs: &[f64],
        turning: Turning,
    ) -> Result<Self, InputError> {
        let mut table =
            Self { outline: outline.clone(), width, longest, edge, extents: vec![], shortest: vec![], kept: vec![] };
        let searched = turning.searched();
        for turn in searched.iter().flat_map(|(t, _)| [*t, (t + 180.0) % 360.0]) {
            if !table.extents.iter().any(|(known, _)| *known == turn) {
                table.extents.push((turn, extent_of(outline, turn)));
            }
        }
        let mut directions: Vec<f64> = searched.iter().map(|(t, _)| *t).collect();
        directions.dedup();
        let most = width.mm() * longest.mm() / outline.area().mm2();
        let shifts = SHIFTS.iter().find(|(limit, _)| most <= *limit).map_or(6, |(_, n)| *n);
        let mut lengths = Vec::new();
        for &web in webs {
            let grown = outline.grown(Length::new_mm(web / 2.0));
            for turn in directions.iter().copied() {
                let up = Turned::new(&grown, turn);
                let down = Turned::new(&grown, turn + 180.0);
                let mut found = candidates(&up, &down, shifts, turning != Turning::Fixed);
                let extent = table.extent(turn);
                for span in [width.mm(), longest.mm()] {
                    let room = span - 2.0 * edge.mm() - (extent.along.1 - extent.along.0);
                    stretched(&up, &down, (room, web), turning != Turning::Fixed, &mut found);
                }
                found.push(plain_grid(extent, turn, web));
                for candidate in found {
                    for (_, rows_along_length) in searched.iter().copied().filter(|(t, _)| *t == turn) {
                        let candidate = Candidate { rows_along_length, ..candidate };
                        table.try_candidate(&candidate, longest.mm(), &mut lengths);
                    }
                }
            }
        }
        if table.shortest.is_empty() {
            return Err(InputError::refused("cutter", larger_than_sheet(outline, (width, longest), edge)));
        }
        table.leave_one_out();
        Ok(table)
    }

    /// A layout of n + 1 pieces is one of n with a piece left out.
    fn leave_one_out(&mut self) {
        for n in (1..self.shortest.len()).rev() {
            if self.shortest[n].0 < self.shortest[n - 1].0 {
                self.shortest[n - 1] = self.shortest[n];
            }
        }
    }

    /// The table with a nested layout besides the rows: its first n pieces along the sheet stand for n.
    ///
    /// Fails when the layout does not keep web and edge on a sheet of this width, as measured anew.
    pub fn with_layout(mut self, pieces: &[Placement], spacing: Spacing, turning: Turning) -> Result<Self, KeptFault> {
        let proof = kept_layout_fault(&self.outline, self.width, self.longest, spacing, turning, pieces);
        if let Some(fault) = proof {
            return Err(fault);
        }
        let edge = spacing.edge().mm();
        let mut kept: Vec<(f64, Placement)> = pieces
            .iter()
            .map(|p| {
                let lowest = self.outline.placed(*p).iter().map(|q| q.1).fold(f64::MIN, f64::max);
                (lowest + edge, *p)
            })
            .collect();
        kept.sort_by(|a, b| a.0.total_cmp(&b.0));
        for (i, (length, _)) in kept.iter().enumerate() {
            if i == self.shortest.len() {
                self.shortest.push((*length, None));
            } else if *length < self.shortest[i].0 - 1e-9 {
                self.shortest[i] = (*length, None);
            }
        }
        self.leave_one_out();
        self.kept = kept;
        Ok(self)
    }

    fn try_candidate(&mut self, candidate: &Candidate, longest: f64, lengths: &mut Vec<f64>) {
        lengths.clear();
        let laid = self.lay(candidate, longest, |length| lengths.push(length));
        if laid.is_none() {
            return;
        }
        lengths.sort_by(f64::total_cmp);
        for (i, &length) in lengths.iter().enumerate() {
            if i == self.shortest.len() {
                self.shortest.push((length, Some(*candidate)));
            } else if length < self.shortest[i].0 - 1e-9 {
                self.shortest[i] = (length, Some(*candidate));
            }
        }
    }

    /// Lays a candidate out on a sheet of `longest`; `needs` hears the sheet length each piece needs.
    fn lay(&self, candidate: &Candidate, longest: f64, mut needs: impl FnMut(f64)) -> Option<Vec<Laid>> {
        let edge = self.edge.mm();
        let (along, across) =
            if candidate.rows_along_length { (longest, self.width.mm()) } else { (self.width.mm(), longest) };
        let extents = |row: &[Option<Member>; 2]| -> [Option<(Member, Extent)>; 2] {
            row.map(|m| m.map(|m| (m, self.extent(m.turn_deg))))
        };
        let rows = [extents(&candidate.first), extents(&candidate.second)];
        let row_low = |row: &[Option<(Member, Extent)>; 2]| {
            row.iter().flatten().map(|(m, e)| m.across + e.across.0).fold(f64::INFINITY, f64::min)
        };
        let row_high = |row: &[Option<(Member, Extent)>; 2]| {
            row.iter().flatten().map(|(m, e)| m.across + e.across.1).fold(f64::NEG_INFINITY, f64::max)
        };
        let (lead, lead_extent) = rows[0][0]?;
        let start = edge - lead.along - lead_extent.along.0;
        let mut at = edge - row_low(&rows[0]);
        let mut kind = 0;
        let mut laid = Vec::new();
        while at + row_high(&rows[kind]) <= across - edge + 1e-9 {
            let from = start + if kind == 1 { candidate.shift } else { 0.0 } - candidate.pitch * 2.0;
            let mut step = 0.0;
            loop {
                let origin = from + step * candidate.pitch;
                if origin > along {
                    break;
                }
                for (member, extent) in rows[kind].iter().flatten() {
                    let u = origin + member.along;
                    if u + extent.along.0 >= edge - 1e-9 && u + extent.along.1 <= along - edge + 1e-9 {
                        let v = at + member.across;
                        let reach = if candidate.rows_along_length { u + extent.along.1 } else { v + extent.across.1 };
                        needs(reach + edge);
                        laid.push(Laid { along: u, across: v, turn_deg: member.turn_deg });
                        if laid.len() > MOST_PIECES {
                            return None;
                        }
                    }
                }
                step += 1.0;
            }
            at += if kind == 0 { candidate.down_first } else { candidate.down_second };
            kind = 1 - kind;
        }
        Some(laid)
    }

    fn extent(&self, turn_deg: f64) -> Extent {
        let known = self.extents.iter().find(|(turn, _)| *turn == turn_deg);
        known.map_or_else(|| extent_of(&self.outline, turn_deg), |(_, extent)| *extent)
    }

    /// The most pieces a sheet of this length holds.
    #[must_use]
    pub fn count(&self, length: Length) -> usize {
        self.shortest.partition_point(|(needed, _)| *needed <= length.mm() + 1e-9)
    }

    /// The shortest sheet that holds so many; `None` when none searched does.
    #[must_use]
    pub fn shortest_for(&self, pieces: usize) -> Option<Length> {
        let (needed, _) = self.shortest.get(pieces.checked_sub(1)?)?;
        Some(Length::new_mm(*needed))
    }

    /// The most pieces any sheet searched holds.
    #[must_use]
    pub fn most(&self) -> usize {
        self.shortest.len()
    }

    /// The layout of the most pieces on a sheet of this length, proved by exact polygon distance.
    #[must_use]
    pub fn layout(&self, length: Length) -> Layout {
        let count = self.count(length);
        if count == 0 {
            return Layout { pieces: vec![], length: Length::new_mm(0.0), least_gap: None, nested: false };
        }
        let (needed, candidate) = self.shortest[count - 1];
        let Some(candidate) = candidate else {
            let mut pieces: Vec<Placement> = self.kept.iter().take(count).map(|(_, p)| *p).collect();
            in_cutting_order(&mut pieces, |p| (*p, &self.outline));
            let least_gap = least_gap(&self.outline, &pieces);
            return Layout { pieces, length: Length::new_mm(needed), least_gap, nested: true };
        };
        // Laid on the whole sheet, as it was searched: a row may reach beyond the shorter one with only some of its pieces.
        let mut pieces: Vec<(f64, Placement)> = Vec::new();
        let mut lengths = Vec::new();
        let laid = self.lay(&candidate, self.longest.mm(), |l| lengths.push(l)).unwrap_or_default();
        for (piece, length) in laid.into_iter().zip(lengths) {
            let placement = if candidate.rows_along_length {
                // A quarter turn of the row frame, not a mirror image.
                Placement {
                    x_mm: self.width.mm() - piece.across,
                    y_mm: piece.along,
                    turn_deg: (piece.turn_deg + 90.0) % 360.0,
                }
            } else {
                Placement { x_mm: piece.along, y_mm: piece.across, turn_deg: piece.turn_deg % 360.0 }
            };
            pieces.push((length, placement));
        }
        pieces.sort_by(|a, b| a.0.total_cmp(&b.0));
        pieces.truncate(count);
        let mut pieces: Vec<Placement> = pieces.into_iter().map(|(_, p)| p).collect();
        in_rows(&mut pieces);
        let least_gap = least_gap(&self.outline, &pieces);
        Layout { pieces, length: Length::new_mm(needed), least_gap, nested: false }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::{Builtin, BuiltinKind, clearance_mm};
    use proptest::prelude::*;

    fn mm(v: f64) -> Length {
        Length::new_mm(v)
    }

    fn round(d: f64) -> Outline {
        Builtin::new(BuiltinKind::Round, d, 0.0).unwrap().outline().unwrap()
    }

    fn triangle() -> Outline {
        Outline::new(&[(0.0, 0.0), (60.0, 0.0), (30.0, 50.0)]).unwrap()
    }

    fn table(outline: &Outline, web: f64) -> LatticeTable {
        LatticeTable::for_sheet(outline, mm(310.0), mm(440.0), Spacing::new(web, 4.0).unwrap()).unwrap()
    }

    fn assert_sound(outline: &Outline, table: &LatticeTable, length: f64, web: f64) {
        let layout = table.layout(mm(length));
        assert_eq!(layout.pieces.len(), table.count(mm(length)));
        if let Some(gap) = layout.least_gap {
            assert!(gap.mm() >= web - 0.05, "{gap:?} against a web of {web}");
        }
        // The proof in full, without measuring pairs that lie alike only once.
        let placed: Vec<_> = layout.pieces.iter().map(|p| outline.placed(*p)).collect();
        for (i, a) in placed.iter().enumerate() {
            for (x, y) in a {
                assert!(
                    *x >= 4.0 - 1e-6 && *x <= 306.0 + 1e-6 && *y >= 4.0 - 1e-6 && *y <= length - 4.0 + 1e-6,
                    "{x},{y}"
                );
            }
            for (j, b) in placed.iter().enumerate().skip(i + 1) {
                let (p, q) = (layout.pieces[i], layout.pieces[j]);
                if (p.x_mm - q.x_mm).hypot(p.y_mm - q.y_mm) < 150.0 {
                    assert!(clearance_mm(a, b) >= web - 0.05);
                }
            }
        }
    }

    #[test]
    fn rounds_lie_in_a_hexagonal_lattice_near_its_density() {
        let outline = round(30.0);
        let t = table(&outline, 0.5);
        let count = t.count(mm(440.0));
        // Geometry: hexagonal packing of circles has density pi/sqrt(12) = 0.9069; here of circles grown by half the web
        // on a sheet grown by it, and no layout may exceed the area bound.
        let grown = std::f64::consts::PI * 15.25_f64.powi(2);
        let area = (310.0 - 8.0 + 0.5) * (440.0 - 8.0 + 0.5);
        let density = f64::from(u32::try_from(count).unwrap()) * grown / area;
        assert!(density < 0.9069 && density > 0.82, "{count} rounds, density {density}");
        assert_sound(&outline, &t, 440.0, 0.5);
    }

    /// Geometry: rounds of 60 mm, 2 mm apart, 3 mm of edge on 360 by 280 mm. Rows of five, (354 - 60) / 4.5 = 65.3 mm apart and every
    /// other set in by half of that, lie sqrt(62^2 - 32.7^2) = 52.7 mm below each other: five rows take 60 + 4 * 52.7 = 271 of 274 mm.
    #[test]
    fn a_lattice_is_stretched_where_that_holds_more() {
        let outline = round(60.0);
        let spacing = Spacing::new(2.0, 3.0).unwrap();
        for (width, length) in [(360.0, 280.0), (280.0, 360.0)] {
            let t = LatticeTable::for_sheet(&outline, mm(width), mm(length), spacing).unwrap();
            assert_eq!(t.count(mm(length)), 25, "{width} by {length}");
            let layout = t.layout(mm(length));
            assert!(layout.pieces.len() == 25 && layout.least_gap.unwrap().mm() >= 1.95);
        }
    }

    #[test]
    fn a_kept_layout_holds_only_while_its_cutter_may_lie_so() {
        let spacing = Spacing::new(3.0, 4.0).unwrap();
        let rows = table(&triangle(), 3.0);
        let at = |turn_deg: f64| [Placement { x_mm: 100.0, y_mm: 100.0, turn_deg }];
        for (turn, turning, holds) in [
            (90.0, Turning::Free, true),
            (90.0, Turning::HalfTurn, false),
            (180.0, Turning::HalfTurn, true),
            (180.0, Turning::Fixed, false),
            (359.8, Turning::Fixed, true),
        ] {
            let kept = rows.clone().with_layout(&at(turn), spacing, turning);
            assert_eq!(kept.is_ok(), holds, "{turn} {turning:?}");
            assert!(kept.err().is_none_or(|why| matches!(why, KeptFault::Turned { pieces: 1, .. })));
        }
    }

    #[test]
    fn triangles_turn_to_nest() {
        let outline = triangle();
        let t = table(&outline, 3.0);
        // Upright only, a plain grid holds 4 x 8.
        assert!(t.count(mm(440.0)) > 52, "{}", t.count(mm(440.0)));
        assert_sound(&outline, &t, 440.0, 3.0);
    }

    #[test]
    fn it_is_never_below_the_plain_grid() {
        for (w, h) in [(65.0, 65.0), (30.0, 90.0), (120.0, 40.0), (200.0, 150.0)] {
            let outline = Builtin::new(BuiltinKind::Oblong, w, h).unwrap().outline().unwrap();
            let grid =
                |w: f64, h: f64| ((302.0_f64 + 2.0) / (w + 2.0)).floor() * ((432.0_f64 + 2.0) / (h + 2.0)).floor();
            let count = f64::from(u32::try_from(table(&outline, 2.0).count(mm(440.0))).unwrap());
            assert!(count >= grid(w, h).max(grid(h, w)), "{w} x {h}: {count}");
        }
    }

    /// A random search once found a layout that counted 9 pieces on a shorter sheet and laid 6: the last row reached beyond
    /// the sheet with one of its two members, and was left out whole.
    #[test]
    fn a_row_that_reaches_beyond_the_sheet_with_some_of_its_pieces_keeps_the_others() {
        let corners =
            [(39.8, 14.9), (11.9, 16.1), (-16.4, 41.7), (-26.1, 4.3), (-25.9, -17.4), (15.4, -38.1), (16.4, -20.5)];
        let outline = Outline::new(&corners).unwrap();
        let t = table(&outline, 0.5);
        for length in (100..440).step_by(7) {
            assert_sound(&outline, &t, f64::from(length), 0.5);
        }
    }

    #[test]
    fn a_cutter_larger_than_the_sheet_is_refused_with_both_sizes() {
        let error =
            LatticeTable::for_sheet(&round(390.0), mm(310.0), mm(440.0), Spacing::new(3.0, 4.0).unwrap()).unwrap_err();
        assert!(error.to_string().contains("390") && error.to_string().contains("310"));
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(48))]
        #[test]
        fn a_finer_web_never_fits_fewer(a in 0.5f64..10.0, b in 0.5f64..10.0, width in 25.0f64..110.0, kind in 0usize..7) {
            let outline = Builtin::new(BuiltinKind::ALL[kind], width, width * 0.7).unwrap().outline().unwrap();
            let (fine, coarse) = (a.min(b), a.max(b));
            let (t, u) = (table(&outline, fine), table(&outline, coarse));
            for length in [120.0, 250.0, 440.0] {
                prop_assert!(t.count(mm(length)) >= u.count(mm(length)));
            }
        }

        #[test]
        fn every_layout_keeps_its_web_and_rim(web in 0.5f64..10.0, points in proptest::collection::vec((20.0f64..45.0, 0.0f64..1.0), 5..11), length in 150.0f64..440.0) {
            // A star-shaped outline of random corners.
            let n = f64::from(u32::try_from(points.len()).unwrap());
            let corners: Vec<_> = points.iter().zip(0u32..).map(|((r, j), i)| {
                let a = (f64::from(i) + 0.8 * j) / n * std::f64::consts::TAU;
                (r * a.cos(), r * a.sin())
            }).collect();
            if let Ok(outline) = Outline::new(&corners) {
                let t = table(&outline, web);
                assert_sound(&outline, &t, length, web);
            }
        }

        #[test]
        fn a_longer_sheet_never_holds_fewer(width in 20.0f64..120.0, a in 60.0f64..440.0, b in 60.0f64..440.0) {
            let t = table(&round(width), 3.0);
            prop_assert!(t.count(mm(a.min(b))) <= t.count(mm(a.max(b))));
        }
    }
}
