//! Rows of one cutter and how they lie below each other: each alike or turned half round, shifted, alternating, or stretched.

use super::profile::Profile;
use crate::geometry::{Outline, Placement};

#[derive(Debug, Clone, Copy)]
pub(super) struct Member {
    pub(super) along: f64,
    pub(super) across: f64,
    pub(super) turn_deg: f64,
}

#[derive(Debug, Clone, Copy)]
pub(super) struct Candidate {
    pub(super) rows_along_length: bool,
    /// Up to two members per row kind; the second may be absent.
    pub(super) first: [Option<Member>; 2],
    pub(super) second: [Option<Member>; 2],
    pub(super) pitch: f64,
    pub(super) down_first: f64,
    pub(super) down_second: f64,
    pub(super) shift: f64,
}

/// Extent of the true outline about its centre in one direction of turning.
#[derive(Debug, Clone, Copy)]
pub(super) struct Extent {
    pub(super) along: (f64, f64),
    pub(super) across: (f64, f64),
}

/// The outline as it is searched with: grown by half the web, turned, and its half-turned twin.
pub(super) struct Turned {
    pub(super) turn_deg: f64,
    /// Bands across the row, extents along it.
    pub(super) along: Profile,
    /// Bands along the row, extents across it.
    pub(super) across: Profile,
}

pub(super) fn extent_of(outline: &Outline, turn_deg: f64) -> Extent {
    let placed = outline.placed(Placement { x_mm: 0.0, y_mm: 0.0, turn_deg });
    placed.iter().fold(Extent { along: (f64::MAX, f64::MIN), across: (f64::MAX, f64::MIN) }, |e, p| Extent {
        along: (e.along.0.min(p.0), e.along.1.max(p.0)),
        across: (e.across.0.min(p.1), e.across.1.max(p.1)),
    })
}

impl Turned {
    pub(super) fn new(grown: &[(f64, f64)], turn_deg: f64) -> Self {
        let (sin, cos) = turn_deg.to_radians().sin_cos();
        let turned: Vec<(f64, f64)> = grown.iter().map(|p| (p.0 * cos - p.1 * sin, p.0 * sin + p.1 * cos)).collect();
        let swapped: Vec<(f64, f64)> = turned.iter().map(|p| (p.1, p.0)).collect();
        Self { turn_deg: turn_deg.rem_euclid(360.0), along: Profile::new(&swapped), across: Profile::new(&turned) }
    }
}

/// A row's members with the shapes they are searched with.
pub(super) type Row<'a> = [Option<(Member, &'a Turned)>; 2];

pub(super) fn candidates(up: &Turned, down: &Turned, shifts: u32, half_turns: bool) -> Vec<Candidate> {
    let single = |t: &'_ Turned| Member { along: 0.0, across: 0.0, turn_deg: t.turn_deg };
    let row_up: Row = [Some((single(up), up)), None];
    let row_down: Row = [Some((single(down), down)), None];
    let pitch = up.along.slide(&up.along, 0.0);
    let mut found = Vec::new();
    stack(&row_up, &row_up, pitch, shifts, &mut found);
    if !half_turns {
        return found;
    }
    stack(&row_up, &row_down, pitch, shifts, &mut found);
    // Up and down alternate within a row, the turned one moved across the row where that makes the pair shortest.
    let height = up.across.slide(&up.across, 0.0);
    let pair = |across: f64| {
        let there = up.along.slide(&down.along, across);
        let back = down.along.slide(&up.along, -across);
        (there, (there + back).max(pitch))
    };
    let best = (-4..=4)
        .map(|i| f64::from(i) / 8.0 * height)
        .map(|across| (across, pair(across)))
        .filter(|(_, (there, _))| there.is_finite())
        .min_by(|a, b| (a.1.1 * (height + a.0.abs())).total_cmp(&(b.1.1 * (height + b.0.abs()))));
    if let Some((across, (there, period))) = best
        && period < 2.0 * pitch - 0.5
    {
        let row: Row = [Some((single(up), up)), Some((Member { along: there, across, turn_deg: down.turn_deg }, down))];
        stack(&row, &row, period, shifts, &mut found);
    }
    found
}

/// Outlines are grown by chords, which lie within the arc by up to this share of what they are grown by: two that meet aslant at their
/// corners would lie so much nearer than the web.
const CHORDS: f64 = 0.005;

/// Rows stretched until they fill the room between the first and the last middle (and the web between them): further apart in the row, every other row set in
/// by half of that, they lie closer below each other. Of k pieces in each row, or k and k - 1 by turns.
pub(super) fn stretched(
    up: &Turned,
    down: &Turned,
    (room, web): (f64, f64),
    half_turns: bool,
    found: &mut Vec<Candidate>,
) {
    let single = |t: &'_ Turned| Member { along: 0.0, across: 0.0, turn_deg: t.turn_deg };
    let row_up: Row = [Some((single(up), up)), None];
    let row_down: Row = [Some((single(down), down)), None];
    let pitch = up.along.slide(&up.along, 0.0);
    if room < pitch || !pitch.is_finite() || pitch <= 0.0 {
        return;
    }
    let alike = (room / pitch - 0.5 + 1e-9).floor() + 0.5;
    let by_turns = (room / pitch + 1e-9).floor();
    let from = found.len();
    for gaps in [alike, by_turns] {
        let wider = room / gaps;
        if gaps < 1.0 || wider <= pitch + 1e-9 {
            continue;
        }
        stack_at(&row_up, &row_up, wider, 0.5 * wider, found);
        if half_turns {
            stack_at(&row_up, &row_down, wider, 0.5 * wider, found);
        }
    }
    for candidate in &mut found[from..] {
        candidate.down_first += CHORDS * web;
        candidate.down_second += CHORDS * web;
    }
}

/// Box beside box: the plain grid, exact where the boxes just fit.
pub(super) fn plain_grid(extent: Extent, turn_deg: f64, web: f64) -> Candidate {
    let row = [Some(Member { along: 0.0, across: 0.0, turn_deg }), None];
    let down = extent.across.1 - extent.across.0 + web;
    Candidate {
        rows_along_length: false,
        first: row,
        second: row,
        pitch: extent.along.1 - extent.along.0 + web,
        down_first: down,
        down_second: down,
        shift: 0.0,
    }
}

/// All shifts of `second` rows against `first` rows.
pub(super) fn stack(first: &Row, second: &Row, pitch: f64, shifts: u32, found: &mut Vec<Candidate>) {
    for i in 0..shifts {
        stack_at(first, second, pitch, pitch * f64::from(i) / f64::from(shifts), found);
    }
}

/// One shift of them.
pub(super) fn stack_at(first: &Row, second: &Row, pitch: f64, shift: f64, found: &mut Vec<Candidate>) {
    let members = |row: &Row| row.map(|m| m.map(|(member, _)| member));
    let own = down(first, first, 0.0, pitch);
    let down_first = down(first, second, shift, pitch);
    let down_second = down(second, first, -shift, pitch).max(own - down_first);
    if !down_first.is_finite() || !down_second.is_finite() || down_first <= 0.0 || down_second <= 0.0 {
        return;
    }
    found.push(Candidate {
        rows_along_length: false,
        first: members(first),
        second: members(second),
        pitch,
        down_first,
        down_second,
        shift,
    });
}

/// How far below `upper` a `lower` row shifted by `shift` must lie.
pub(super) fn down(upper: &Row, lower: &Row, shift: f64, pitch: f64) -> f64 {
    let mut most = f64::NEG_INFINITY;
    for (a, shape_a) in upper.iter().flatten() {
        for (b, shape_b) in lower.iter().flatten() {
            let offset = (shift + b.along - a.along).rem_euclid(pitch);
            for copy in [-2.0, -1.0, 0.0, 1.0] {
                let slide = shape_a.across.slide(&shape_b.across, offset + copy * pitch);
                most = most.max(slide + a.across - b.across);
            }
        }
    }
    most
}
