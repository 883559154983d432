//! The search behind a nesting: pieces may overlap while it runs and are moved, one after another, to where they overlap
//! least, pairs that stay in each other's way weighing more and more (guided local search). Collisions are found by
//! jagua-rs in 32-bit numbers; how deep two pieces lie in each other is estimated from discs inside them. Neither is a
//! proof: the proof is [`super::proof`], in 64-bit numbers, on the outlines themselves.

#![expect(
    clippy::cast_possible_truncation,
    reason = "the collision engine reckons in 32-bit numbers; a proof in 64-bit numbers follows"
)]

use super::ground::{Ground, SURROGATE, SearchShape, Spot};
use crate::shape::spacing::Turning;
use jagua_rs::collision_detection::hazards::collector::BasicHazardCollector;
use jagua_rs::collision_detection::hazards::filter::NoFilter;
use jagua_rs::collision_detection::hazards::{HazKey, Hazard, HazardEntity};
use jagua_rs::collision_detection::{CDEConfig, CDEngine};
use jagua_rs::geometry::geo_enums::GeoPosition;
use jagua_rs::geometry::geo_traits::{Transformable, TransformableFrom};
use jagua_rs::geometry::primitives::{Point, SPolygon};
use rand::RngExt as _;
use rand_pcg::Pcg64Mcg;
use std::sync::Arc;

const CONFIG: CDEConfig = CDEConfig { quadtree_depth: 5, cd_threshold: 16, item_surrogate_config: SURROGATE };
/// What can be in the way.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
enum Thing {
    Piece(u32),
    Held(u32),
    Outside,
}

impl HazardEntity for Thing {
    fn scope(&self) -> GeoPosition {
        match self {
            Self::Outside => GeoPosition::Exterior,
            Self::Piece(_) | Self::Held(_) => GeoPosition::Interior,
        }
    }

    fn is_dynamic(&self) -> bool {
        matches!(self, Self::Piece(_))
    }
}

#[derive(Debug, Clone)]
struct Piece {
    kind: usize,
    spot: Spot,
    shape: Arc<SPolygon>,
    key: HazKey,
}

/// All pieces at one moment, to return to.
#[derive(Debug, Clone)]
pub(super) struct Snapshot {
    kinds: Vec<usize>,
    spots: Vec<Spot>,
    pub overlap: f32,
}

/// The sheet, what lies fixed on it, and the pieces that are being moved.
pub(super) struct Arena<'a> {
    shapes: &'a [SearchShape],
    ground: Ground,
    cde: CDEngine<Thing>,
    held: Vec<Arc<SPolygon>>,
    held_kinds: Vec<usize>,
    pieces: Vec<Piece>,
    /// Of each piece with all after it, with the outside and with the held.
    overlaps: Overlaps,
    /// How many places have been looked at.
    pub looked_at: u64,
    buffers: Vec<Option<SPolygon>>,
    collector: BasicHazardCollector<Thing>,
}

/// Overlaps and their weights by pair: pieces first, then the outside, then the held.
#[derive(Debug, Clone, Default)]
struct Overlaps {
    width: usize,
    depth: Vec<f32>,
    weight: Vec<f32>,
}

impl Overlaps {
    fn new(pieces: usize, held: usize) -> Self {
        let width = pieces + 1 + held;
        Self { width, depth: vec![0.0; pieces * width], weight: vec![1.0; pieces * width] }
    }

    fn index(&self, pieces: usize, a: u32, b: Thing) -> usize {
        let a = a as usize;
        match b {
            Thing::Piece(b) => {
                let b = b as usize;
                let (low, high) = if a < b { (a, b) } else { (b, a) };
                low * self.width + high
            }
            Thing::Outside => a * self.width + pieces,
            Thing::Held(h) => a * self.width + pieces + 1 + h as usize,
        }
    }
}

impl<'a> Arena<'a> {
    pub fn new(shapes: &'a [SearchShape], ground: Ground, held: &[(usize, Spot)]) -> Option<Self> {
        let polygon = SPolygon::new(ground.points.iter().map(|p| Point(p.0, p.1)).collect()).ok()?;
        let held_shapes: Vec<Arc<SPolygon>> = held
            .iter()
            .map(|(kind, spot)| Arc::new(shapes[*kind].base.transform_clone(&spot.transformation())))
            .collect();
        let bbox = polygon.bbox().inflate_to_square();
        let mut hazards = vec![Hazard::new(Thing::Outside, Arc::new(polygon))];
        hazards.extend((0u32..).zip(&held_shapes).map(|(i, s)| Hazard::new(Thing::Held(i), s.clone())));
        Some(Self {
            shapes,
            ground,
            cde: CDEngine::new(bbox, hazards, CONFIG),
            held: held_shapes,
            held_kinds: held.iter().map(|h| h.0).collect(),
            pieces: Vec::new(),
            overlaps: Overlaps::default(),
            looked_at: 0,
            buffers: shapes.iter().map(|s| Some(s.base.clone())).collect(),
            collector: BasicHazardCollector::new(),
        })
    }

    pub fn len(&self) -> usize {
        self.pieces.len()
    }

    pub fn placed(&self) -> Vec<(usize, Spot)> {
        self.pieces.iter().map(|p| (p.kind, p.spot)).collect()
    }

    /// Whether a piece could lie here without touching anything.
    pub fn is_free(&mut self, kind: usize, spot: Spot) -> bool {
        self.looked_at += 1;
        let at = spot.transformation();
        let shape = &self.shapes[kind];
        if self.cde.detect_surrogate_collision(shape.surrogate(), &at, &NoFilter) {
            return false;
        }
        let mut buffer = self.buffers[kind].take().unwrap_or_else(|| shape.base.clone());
        buffer.transform_from(&shape.base, &at);
        let free = !self.cde.detect_poly_collision(&buffer, &NoFilter);
        self.buffers[kind] = Some(buffer);
        free
    }

    fn register(&mut self, kind: usize, spot: Spot, number: u32) -> Piece {
        let shape = Arc::new(self.shapes[kind].base.transform_clone(&spot.transformation()));
        self.cde.register_hazard(Hazard::new(Thing::Piece(number), shape.clone()));
        let key = self.cde.haz_key(&Thing::Piece(number)).expect("a piece just laid is known");
        Piece { kind, spot, shape, key }
    }

    /// Lays one more piece, overlapping or not.
    pub fn add(&mut self, kind: usize, spot: Spot) {
        let number = self.pieces.len() as u32;
        let piece = self.register(kind, spot, number);
        self.pieces.push(piece);
    }

    /// Takes a piece away; the last one takes its number.
    pub fn remove(&mut self, index: usize) {
        let last = self.pieces.len() - 1;
        self.cde.deregister_hazard_by_key(self.pieces[index].key);
        if index != last {
            self.cde.deregister_hazard_by_key(self.pieces[last].key);
        }
        let moved = self.pieces.pop().expect("there is a piece to take away");
        if index != last {
            self.pieces[index] = self.register(moved.kind, moved.spot, index as u32);
        }
    }

    pub fn snapshot(&self) -> Snapshot {
        Snapshot {
            kinds: self.pieces.iter().map(|p| p.kind).collect(),
            spots: self.pieces.iter().map(|p| p.spot).collect(),
            overlap: self.total(),
        }
    }

    /// Lays the pieces as they were; the weights stay.
    pub fn set(&mut self, to: &Snapshot) {
        while self.pieces.len() > to.kinds.len() {
            self.remove(self.pieces.len() - 1);
        }
        for (i, (kind, spot)) in to.kinds.iter().zip(&to.spots).enumerate() {
            if i < self.pieces.len() {
                if self.pieces[i].kind != *kind || self.pieces[i].spot != *spot {
                    self.cde.deregister_hazard_by_key(self.pieces[i].key);
                    self.pieces[i] = self.register(*kind, *spot, i as u32);
                }
            } else {
                self.add(*kind, *spot);
            }
        }
    }

    fn total(&self) -> f32 {
        self.overlaps.depth.iter().sum()
    }

    /// How deep a shape lies in a thing, about in millimetres times a size.
    fn depth(&self, kind: usize, shape: &SPolygon, thing: Thing) -> f32 {
        match thing {
            Thing::Outside => {
                let out = self.ground.depth_outside(shape);
                let own = &self.shapes[kind];
                (out * own.diameter + 1e-3).sqrt() * own.weight * own.weight
            }
            Thing::Piece(other) => {
                let other = &self.pieces[other as usize];
                self.pair_depth(kind, shape, other.kind, &other.shape)
            }
            Thing::Held(other) => {
                self.pair_depth(kind, shape, self.held_kinds[other as usize], &self.held[other as usize])
            }
        }
    }

    fn pair_depth(&self, kind: usize, shape: &SPolygon, other_kind: usize, other: &SPolygon) -> f32 {
        let (own, others) = (&self.shapes[kind], &self.shapes[other_kind]);
        let soft = 0.01 * own.diameter.max(others.diameter);
        let mut sum = 0.0;
        for a in &shape.surrogate().poles {
            for b in &other.surrogate().poles {
                let apart2 = (a.center.0 - b.center.0).powi(2) + (a.center.1 - b.center.1).powi(2);
                let deep = a.radius + b.radius - apart2.sqrt();
                // Discs that no longer touch still pull a little, less with distance.
                let felt = if deep >= soft { deep } else { soft * soft / (2.0 * soft - deep) };
                sum += felt * a.radius.min(b.radius);
            }
        }
        (sum + soft * soft).sqrt() * own.weight * others.weight
    }

    /// Fresh overlaps and weights for all pieces.
    pub fn start_weighing(&mut self) {
        self.overlaps = Overlaps::new(self.pieces.len(), self.held.len());
        for i in 0..self.pieces.len() {
            self.measure(i);
        }
    }

    fn colliding(&mut self, index: usize) -> Vec<Thing> {
        self.collector.clear();
        let piece = &self.pieces[index];
        self.cde.collect_poly_collisions(&piece.shape, &piece.key, &mut self.collector);
        self.collector.iter().map(|(_, e)| *e).collect()
    }

    fn measure(&mut self, index: usize) {
        let n = self.pieces.len();
        let number = index as u32;
        for other in 0..n as u32 {
            if other != number {
                let at = self.overlaps.index(n, number, Thing::Piece(other));
                self.overlaps.depth[at] = 0.0;
            }
        }
        for rest in n..self.overlaps.width {
            self.overlaps.depth[index * self.overlaps.width + rest] = 0.0;
        }
        for thing in self.colliding(index) {
            let piece = &self.pieces[index];
            let depth = self.depth(piece.kind, &piece.shape, thing);
            let at = self.overlaps.index(n, number, thing);
            self.overlaps.depth[at] = depth;
        }
    }

    fn overlap_of(&self, index: usize, weighted: bool) -> f32 {
        let n = self.pieces.len();
        let of = |at: usize| self.overlaps.depth[at] * if weighted { self.overlaps.weight[at] } else { 1.0 };
        let with_pieces: f32 = (0..n as u32)
            .filter(|o| *o != index as u32)
            .map(|o| of(self.overlaps.index(n, index as u32, Thing::Piece(o))))
            .sum();
        let rest: f32 = (n..self.overlaps.width).map(|r| of(index * self.overlaps.width + r)).sum();
        with_pieces + rest
    }

    /// The weighted overlap of a piece were it here, or infinity once it is found to be no less than `bound`.
    fn overlap_at(&mut self, index: usize, spot: Spot, bound: f32) -> f32 {
        self.looked_at += 1;
        let kind = self.pieces[index].kind;
        let key = self.pieces[index].key;
        let n = self.pieces.len();
        let mut buffer = self.buffers[kind].take().unwrap_or_else(|| self.shapes[kind].base.clone());
        buffer.transform_from(&self.shapes[kind].base, &spot.transformation());
        let mut collector = std::mem::take(&mut self.collector);
        collector.clear();
        let mut sum = 0.0;
        let mut count = |thing: Thing| {
            let at = self.overlaps.index(n, index as u32, thing);
            sum += self.overlaps.weight[at] * self.depth(kind, &buffer, thing);
            sum >= bound
        };
        let over = self.cde.collect_surrogate_collisions_until(&buffer, &key, &mut collector, &mut count)
            || self.cde.collect_poly_collisions_until(&buffer, &key, &mut collector, &mut count);
        self.collector = collector;
        self.buffers[kind] = Some(buffer);
        if over { f32::INFINITY } else { sum }
    }

    /// A spot for a new piece where it overlaps least, from `tries` at random and some sliding.
    pub fn least_overlapping(&mut self, kind: usize, tries: usize, rng: &mut Pcg64Mcg) -> Spot {
        let first = self.any_spot(kind, rng);
        self.add(kind, first);
        let index = self.pieces.len() - 1;
        self.overlaps = Overlaps::new(self.pieces.len(), self.held.len());
        let (spot, _) = self.search(index, f32::INFINITY, tries, 0, rng);
        self.remove(index);
        spot
    }

    pub fn any_spot(&self, kind: usize, rng: &mut Pcg64Mcg) -> Spot {
        let (low, high) = (self.ground.low, self.ground.high);
        let turn = self.shapes[kind].any_turn(rng);
        let (sin, cos) = turn.sin_cos();
        // Only spots where the box of the turned shape lies within the ground's.
        let (mut least, mut most) = ((f32::MAX, f32::MAX), (f32::MIN, f32::MIN));
        for i in &self.shapes[kind].surrogate().convex_hull_indices {
            let p = self.shapes[kind].base.vertices()[*i];
            let (x, y) = (p.0 * cos - p.1 * sin, p.0 * sin + p.1 * cos);
            least = (least.0.min(x), least.1.min(y));
            most = (most.0.max(x), most.1.max(y));
        }
        let within = |low: f32, high: f32, rng: &mut Pcg64Mcg| {
            if high > low { rng.random_range(low..high) } else { f32::midpoint(low, high) }
        };
        Spot {
            x: within(low.0 - least.0, high.0 - most.0, rng),
            y: within(low.1 - least.1, high.1 - most.1, rng),
            turn,
        }
    }

    fn near(&self, kind: usize, spot: Spot, rng: &mut Pcg64Mcg) -> Spot {
        let shape = &self.shapes[kind];
        let reach = shape.diameter * 0.25;
        let turn = match shape.turning {
            Turning::Free if rng.random_bool(0.5) => spot.turn + rng.random_range(-0.35..0.35),
            _ if rng.random_bool(0.3) => shape.any_turn(rng),
            _ => spot.turn,
        };
        Spot { x: spot.x + rng.random_range(-reach..reach), y: spot.y + rng.random_range(-reach..reach), turn }
    }

    /// Where a piece overlaps least, found at random over the ground and around where it is, then by sliding and turning
    /// the three best.
    fn search(&mut self, index: usize, bound: f32, anywhere: usize, around: usize, rng: &mut Pcg64Mcg) -> (Spot, f32) {
        let kind = self.pieces[index].kind;
        let here = self.pieces[index].spot;
        let mut best: Vec<(f32, Spot)> = vec![(bound, here)];
        if bound.is_infinite() {
            best[0].0 = self.overlap_at(index, here, f32::INFINITY);
        }
        for i in 0..anywhere + around {
            let spot = if i < anywhere { self.any_spot(kind, rng) } else { self.near(kind, here, rng) };
            let limit = if best.len() < 3 { f32::INFINITY } else { best[best.len() - 1].0 };
            let found = self.overlap_at(index, spot, limit);
            if found < limit {
                best.push((found, spot));
                best.sort_by(|a, b| a.0.total_cmp(&b.0));
                best.truncate(3);
            }
            if best[0].0 <= 0.0 {
                break;
            }
        }
        let diameter = self.shapes[kind].diameter;
        for found in &mut best {
            *found = self.slide(index, *found, diameter * 0.2, diameter * 0.004, rng);
            if found.0 <= 0.0 {
                return (found.1, 0.0);
            }
        }
        best.sort_by(|a, b| a.0.total_cmp(&b.0));
        let last = self.slide(index, best[0], diameter * 0.008, diameter * 0.0008, rng);
        (last.1, last.0)
    }

    /// Slides and turns a piece by steps that grow with luck and shrink without, until they are small.
    fn slide(&mut self, index: usize, from: (f32, Spot), step: f32, least: f32, rng: &mut Pcg64Mcg) -> (f32, Spot) {
        let (mut overlap, mut spot) = from;
        let (mut dx, mut dy) = (step, step);
        let free = self.shapes[self.pieces[index].kind].turning == Turning::Free;
        let radius = self.shapes[self.pieces[index].kind].diameter / 2.0;
        let mut turn = if free { step / radius } else { 0.0 };
        while (dx.max(dy) > least || turn * radius > least) && overlap > 0.0 {
            let tries: [Spot; 2] = if free && rng.random_bool(0.34) {
                [Spot { turn: spot.turn + turn, ..spot }, Spot { turn: spot.turn - turn, ..spot }]
            } else {
                match rng.random_range(0..4) {
                    0 => [Spot { x: spot.x + dx, ..spot }, Spot { x: spot.x - dx, ..spot }],
                    1 => [Spot { y: spot.y + dy, ..spot }, Spot { y: spot.y - dy, ..spot }],
                    2 => [
                        Spot { x: spot.x + dx, y: spot.y + dy, ..spot },
                        Spot { x: spot.x - dx, y: spot.y - dy, ..spot },
                    ],
                    _ => [
                        Spot { x: spot.x - dx, y: spot.y + dy, ..spot },
                        Spot { x: spot.x + dx, y: spot.y - dy, ..spot },
                    ],
                }
            };
            let turned = tries[0].turn != spot.turn;
            let (moved_x, moved_y) = (tries[0].x != spot.x, tries[0].y != spot.y);
            let mut better = false;
            for at in tries {
                let found = self.overlap_at(index, at, overlap);
                if found < overlap {
                    (overlap, spot, better) = (found, at, true);
                }
            }
            let factor = if better { 1.1 } else { 0.5 };
            if turned {
                turn *= factor;
            }
            if moved_x {
                dx *= if moved_y { f32::sqrt(factor) } else { factor };
            }
            if moved_y {
                dy *= if moved_x { f32::sqrt(factor) } else { factor };
            }
        }
        (overlap, spot)
    }

    fn move_to(&mut self, index: usize, spot: Spot) {
        self.cde.deregister_hazard_by_key(self.pieces[index].key);
        self.pieces[index] = self.register(self.pieces[index].kind, spot, index as u32);
        self.measure(index);
    }

    fn weigh_more(&mut self) {
        let most = self.overlaps.depth.iter().copied().fold(0.0, f32::max).max(1e-12);
        for (depth, weight) in self.overlaps.depth.iter().zip(&mut self.overlaps.weight) {
            if *depth > 0.0 {
                *weight *= 1.2 + 0.8 * depth / most;
            } else {
                *weight = (*weight * 0.95).max(1.0);
            }
        }
    }

    /// Moves overlapping pieces until none overlaps; `false` when it gave up or was stopped, with the pieces where they
    /// overlapped least.
    pub fn separate(&mut self, effort: Effort, rng: &mut Pcg64Mcg, stop: &dyn Fn(u64) -> bool) -> bool {
        self.start_weighing();
        let mut best = self.snapshot();
        let mut strikes = 0;
        while strikes < effort.strikes {
            let before = best.overlap;
            let mut without_gain = 0;
            while without_gain < effort.rounds {
                let mut order: Vec<usize> =
                    (0..self.pieces.len()).filter(|i| self.overlap_of(*i, false) > 0.0).collect();
                if order.is_empty() {
                    return true;
                }
                for i in (1..order.len()).rev() {
                    order.swap(i, rng.random_range(0..=i));
                }
                for index in order {
                    let now = self.overlap_of(index, true);
                    if now <= 0.0 {
                        continue;
                    }
                    let (spot, found) = self.search(index, now, effort.anywhere, effort.around, rng);
                    if found < now {
                        self.move_to(index, spot);
                    }
                    if stop(self.looked_at) {
                        self.set(&best);
                        return false;
                    }
                }
                let total = self.total();
                if total <= 0.0 {
                    return true;
                }
                if total < best.overlap {
                    without_gain = if total < 0.98 * best.overlap { 0 } else { without_gain + 1 };
                    best = self.snapshot();
                } else {
                    without_gain += 1;
                }
                self.weigh_more();
            }
            strikes = if best.overlap < 0.98 * before { 0 } else { strikes + 1 };
            let weights = self.overlaps.clone();
            self.set(&best);
            self.overlaps = weights;
            for i in 0..self.pieces.len() {
                self.measure(i);
            }
        }
        self.set(&best);
        false
    }
}

/// How hard a separation tries.
#[derive(Debug, Clone, Copy)]
pub(super) struct Effort {
    pub strikes: u32,
    pub rounds: u32,
    pub anywhere: usize,
    pub around: usize,
}
