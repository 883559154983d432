//! The search for better layouts: one piece more, then a shorter sheet.

use super::engine::{Arena, Effort, Snapshot};
use super::first;
use super::ground::{SearchShape, Spot};
use super::holes::InHoles;
use super::nested::Nested;
use super::proof::Laid;
use super::question::{MOST_SEARCHED, NestPiece, NestQuestion};
use crate::error::{InputError, InputErrors};
use crate::geometry::Placement;
use crate::shape::sheet::SheetForm;
use crate::units::Length;
use rand::{RngExt as _, SeedableRng as _};
use rand_pcg::Pcg64Mcg;

/// Tried on the bench set: many looks for each piece and few rounds, or the other way about. Even seeds take the first.
const EFFORTS: [Effort; 2] = [
    Effort { strikes: 2, rounds: 40, anywhere: 32, around: 16 },
    Effort { strikes: 2, rounds: 100, anywhere: 12, around: 10 },
];
/// Shares by which a finished sheet is made shorter, the first ones first.
const SHORTER: [f64; 4] = [0.02, 0.01, 0.004, 0.002];

/// Searches one sheet. The sequence of layouts depends on question and seed alone; a longer search only goes further along it.
pub struct Nester {
    question: NestQuestion,
    shapes: Vec<SearchShape>,
    rng: Pcg64Mcg,
    effort: Effort,
    best: Nested,
    /// What goes into holes, and the best layout with it.
    in_holes: Option<(InHoles, Nested)>,
}

impl Nester {
    /// The first layout, at once: from rows, or what was given to start from with the room it leaves filled.
    ///
    /// Fails when a cutter is larger than the sheet.
    pub fn new(question: NestQuestion, seed: u64) -> Result<Self, InputErrors> {
        let Some(holes) = question.holes.then(|| InHoles::find(&question)).flatten() else {
            return Self::without_holes(question, seed);
        };
        let mut found = Self::without_holes(holes.without(), seed)?;
        let shown = holes.filled(&found.best);
        found.in_holes = Some((holes, shown));
        Ok(found)
    }

    fn without_holes(question: NestQuestion, seed: u64) -> Result<Self, InputErrors> {
        let mut pieces: Vec<NestPiece> = question.held.iter().chain(&question.start).copied().collect();
        if question.start.is_empty() && question.held.is_empty() {
            let rows = first::rows(&question);
            if let Some(best) = Nested::proved(&question, rows.clone()) {
                return Ok(Self::with(question, seed, best));
            }
        }
        if question.start.is_empty() {
            let mut laid = Laid::new(&question);
            for piece in &question.held {
                laid.try_add(&question, *piece);
            }
            let mut counts = counts_of(&question, &pieces);
            for piece in first::rows(&question) {
                let wanted = question.cutters[piece.cutter].wanted.unwrap_or(u32::MAX);
                if counts[piece.cutter] < wanted && laid.try_add(&question, piece) {
                    counts[piece.cutter] += 1;
                    pieces.push(piece);
                }
            }
        }
        let best = Nested::proved(&question, pieces).ok_or_else(|| {
            InputError::refused(
                "held",
                "Some locked cookies are too close together or too near the edge. Move or unlock them.",
            )
        })?;
        Ok(Self::with(question, seed, best))
    }

    fn with(question: NestQuestion, seed: u64, best: Nested) -> Self {
        let effort = EFFORTS[usize::from(seed % 2 == 1)];
        Self { question, shapes: vec![], rng: Pcg64Mcg::seed_from_u64(seed), effort, best, in_holes: None }
    }

    /// The same layout to begin with, searched from another way.
    #[must_use]
    pub fn with_seed(&self, seed: u64) -> Self {
        Self { in_holes: self.in_holes.clone(), ..Self::with(self.question.clone(), seed, self.best.clone()) }
    }

    /// The best layout so far.
    #[must_use]
    pub fn best(&self) -> &Nested {
        self.in_holes.as_ref().map_or(&self.best, |(_, shown)| shown)
    }

    /// Searches until `stop` (which hears how many places have been looked at) or nothing more can be won; `better` hears
    /// each better layout.
    pub fn improve(&mut self, stop: &dyn Fn(u64) -> bool, better: &mut dyn FnMut(&Nested)) {
        match self.in_holes.take() {
            None => self.search(stop, better),
            Some((holes, _)) => {
                self.search(stop, &mut |nested| better(&holes.filled(nested)));
                let shown = holes.filled(&self.best);
                self.in_holes = Some((holes, shown));
            }
        }
    }

    fn search(&mut self, stop: &dyn Fn(u64) -> bool, better: &mut dyn FnMut(&Nested)) {
        if self.best.pieces.len() > MOST_SEARCHED {
            return;
        }
        let Some(ground) = first::ground_of(&self.question, self.question.sheet) else { return };
        let held: Vec<(usize, Spot)> = self.question.held.iter().map(|p| (p.cutter, spot(p.at))).collect();
        let shapes: Option<Vec<SearchShape>> =
            self.question.cutters.iter().map(|c| first::shape_of(&self.question, c)).collect();
        // An outline the engine cannot take keeps its rows.
        let Some(shapes) = shapes else { return };
        self.shapes.clone_from(&shapes);
        let Some(mut arena) = Arena::new(&shapes, ground, &held) else { return };
        self.lay(&mut arena);
        if self.scatter(&mut arena, stop) {
            self.take(&arena, better);
        }
        self.add_pieces(&mut arena, stop, better);
        while self.best.missing.iter().any(|m| *m > 0)
            && self.best.pieces.len() < MOST_SEARCHED
            && !stop(arena.looked_at)
        {
            self.add_pieces(&mut arena, stop, better);
        }
        if self.best.missing.iter().all(|m| *m == 0) && self.question.cutters.iter().all(|c| c.wanted.is_some()) {
            self.shorten(&shapes, &held, stop, better);
        }
    }

    fn lay(&self, arena: &mut Arena) {
        while arena.len() > 0 {
            arena.remove(arena.len() - 1);
        }
        for piece in self.best.pieces.iter().filter(|p| !self.question.held.contains(p)) {
            arena.add(piece.cutter, spot(piece.at));
        }
    }

    /// Looks for free spots for what is missing, the largest first, without moving anything. Whether any was found.
    fn scatter(&mut self, arena: &mut Arena, stop: &dyn Fn(u64) -> bool) -> bool {
        let mut found = false;
        for cutter in self.largest_first() {
            let mut left = self.lacking(arena, cutter);
            let mut misses = 0;
            while left > 0 && misses < 150 && arena.len() < MOST_SEARCHED && !stop(arena.looked_at) {
                let spot = arena.any_spot(cutter, &mut self.rng);
                if arena.is_free(cutter, spot) {
                    arena.add(cutter, spot);
                    (left, misses, found) = (left - 1, 0, true);
                } else {
                    misses += 1;
                }
            }
        }
        found
    }

    fn largest_first(&self) -> Vec<usize> {
        let mut order: Vec<usize> = (0..self.shapes.len()).collect();
        order.sort_by(|a, b| self.shapes[*b].area().total_cmp(&self.shapes[*a].area()));
        order
    }

    fn lacking(&self, arena: &Arena, cutter: usize) -> u32 {
        let held = self.question.held.iter().filter(|p| p.cutter == cutter).count();
        let on = held + arena.placed().iter().filter(|(c, _)| *c == cutter).count();
        let wanted = self.question.cutters[cutter].wanted.unwrap_or(u32::MAX);
        wanted.saturating_sub(u32::try_from(on).unwrap_or(u32::MAX))
    }

    /// Takes over what lies in the arena when it is proved and better.
    fn take(&mut self, arena: &Arena, better: &mut dyn FnMut(&Nested)) -> bool {
        let laid = arena.placed().into_iter().map(|(cutter, spot)| NestPiece { cutter, at: placement(spot) });
        let pieces: Vec<NestPiece> = self.question.held.iter().copied().chain(laid).collect();
        let Some(nested) = Nested::proved(&self.question, pieces) else { return false };
        let beats = nested.beats(&self.best);
        if beats {
            self.best = nested;
            better(&self.best);
        }
        beats
    }

    /// One piece more than fits, pushed apart; again from where it came nearest, shaken, or afresh.
    fn add_pieces(&mut self, arena: &mut Arena, stop: &dyn Fn(u64) -> bool, better: &mut dyn FnMut(&Nested)) {
        let bound = self.question.area_bound();
        for cutter in self.largest_first() {
            let mut nearest: Option<Snapshot> = None;
            let mut tries = 0;
            let only = self.question.cutters[cutter].wanted.is_none();
            while self.best.pieces.len() < bound.min(MOST_SEARCHED) && !stop(arena.looked_at) {
                // Among several cutters a smaller one may still fit where this one no longer does.
                if !only && tries >= 6 {
                    break;
                }
                tries += 1;
                match &nearest {
                    Some(near) if tries % 3 != 1 => {
                        arena.set(near);
                        self.shake(arena);
                    }
                    _ => {
                        self.lay(arena);
                        if self.lacking(arena, cutter) == 0 {
                            break;
                        }
                        let spot = arena.least_overlapping(cutter, 60, &mut self.rng);
                        arena.add(cutter, spot);
                    }
                }
                if arena.separate(self.effort, &mut self.rng, stop) {
                    // A piece that found its room may have left some for another.
                    self.scatter(arena, stop);
                    if self.take(arena, better) {
                        (nearest, tries) = (None, 0);
                    }
                } else {
                    let now = arena.snapshot();
                    if nearest.as_ref().is_none_or(|n| n.overlap * 1.05 > now.overlap) {
                        nearest = Some(now);
                    }
                }
            }
        }
    }

    /// Throws one to three pieces somewhere else.
    fn shake(&mut self, arena: &mut Arena) {
        for _ in 0..self.rng.random_range(1..=3) {
            let index = self.rng.random_range(0..arena.len());
            let (kind, _) = arena.placed()[index];
            arena.remove(index);
            let spot = arena.any_spot(kind, &mut self.rng);
            arena.add(kind, spot);
        }
    }

    /// All that is wanted lies on the sheet: the same pieces on less of its length.
    fn shorten(
        &mut self,
        shapes: &[SearchShape],
        held: &[(usize, Spot)],
        stop: &dyn Fn(u64) -> bool,
        better: &mut dyn FnMut(&Nested),
    ) {
        let SheetForm::Oblong { width, corner, .. } = self.question.sheet else { return };
        let mut looked_at = 0;
        let mut step = 0;
        let mut failed = 0;
        while !stop(looked_at) && step < SHORTER.len() {
            let length = self.best.used.mm() * (1.0 - SHORTER[step]);
            let corner = Length::new_mm(corner.mm().min(length / 2.0));
            let sheet = SheetForm::Oblong { width, length: Length::new_mm(length), corner };
            let Some(ground) = first::ground_of(&self.question, sheet) else { return };
            let Some(mut arena) = Arena::new(shapes, ground.clone(), held) else { return };
            arena.looked_at = looked_at;
            for piece in self.best.pieces.iter().filter(|p| !self.question.held.contains(p)) {
                let mut at = spot(piece.at);
                if !ground.takes(&shapes[piece.cutter], at) {
                    at = arena.least_overlapping(piece.cutter, 24, &mut self.rng);
                }
                arena.add(piece.cutter, at);
            }
            if failed > 0 {
                self.shake(&mut arena);
            }
            let apart = arena.separate(self.effort, &mut self.rng, stop);
            looked_at = arena.looked_at;
            if apart && self.take(&arena, better) {
                (step, failed) = (step.saturating_sub(1), 0);
            } else {
                failed += 1;
                if failed > 2 {
                    (step, failed) = (step + 1, 0);
                }
            }
        }
    }
}

fn counts_of(question: &NestQuestion, pieces: &[NestPiece]) -> Vec<u32> {
    let mut counts = vec![0u32; question.cutters.len()];
    for piece in pieces {
        counts[piece.cutter] += 1;
    }
    counts
}

#[expect(clippy::cast_possible_truncation, reason = "the search reckons in 32-bit numbers")]
fn spot(at: Placement) -> Spot {
    Spot { x: at.x_mm as f32, y: at.y_mm as f32, turn: at.turn_deg.to_radians() as f32 }
}

fn placement(spot: Spot) -> Placement {
    let turn_deg = f64::from(spot.turn).to_degrees().rem_euclid(360.0);
    // Half and quarter turns are meant exactly; 32-bit radians are off by a hair.
    let quarter = (turn_deg / 90.0).round() * 90.0;
    let turn_deg = if (turn_deg - quarter).abs() < 1e-4 { quarter.rem_euclid(360.0) } else { turn_deg };
    Placement { x_mm: f64::from(spot.x), y_mm: f64::from(spot.y), turn_deg }
}
