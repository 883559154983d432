//! All that a simulation of a followed piece needs, on the wire, so that a stand-in device can be a program of its own.

use super::PurposeWord;
use super::compute::SupportBody;
use super::live::{moment, written};
use super::plan::PieceWire;
use chrono::{DateTime, Utc};
use ready_slab_core::cold::{LiveStay, Place, PlaceKnowledge, Support, Tracked, Wrap};
use ready_slab_core::dough::Composition;
use ready_slab_core::dough::FatKind;
use ready_slab_core::error::{InputError, InputErrors, Problem};
use ready_slab_core::units::Span;
use ready_slab_store::StoredChill;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A fat's share.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct FatShare {
    /// Which.
    pub kind: FatKind,
    /// Of all fat, 0 to 1.
    pub share: f64,
}

/// A place of a followed piece, as it is set.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct StayPhysics {
    /// Since when, minutes of the piece's clock.
    pub from_min: f64,
    /// Its air.
    pub air_c: f64,
    /// Its film, radiation included.
    pub film_w_m2k: f64,
    /// On what.
    pub support: SupportBody,
}

/// All that a simulation of a followed piece needs, for stand-in devices.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PhysicsView {
    /// Mass fraction.
    pub water: f64,
    /// Mass fraction.
    pub fat: f64,
    /// Mass fraction.
    pub protein: f64,
    /// Mass fraction, without fibre.
    pub carbohydrate: f64,
    /// Mass fraction.
    pub ash: f64,
    /// Mass fraction.
    pub fibre: f64,
    /// Of the carbohydrate, where known.
    pub sugars: Option<f64>,
    /// Dry flour, where known.
    pub flour_solids: Option<f64>,
    /// What the fat is made of.
    pub fats: Vec<FatShare>,
    /// Its form.
    pub piece: PieceWire,
    /// What is round it.
    pub wrap: Wrap,
    /// What it is for.
    pub purpose: PurposeWord,
    /// All of it when it went in.
    pub start_c: f64,
    /// How much faster than ours its clock runs.
    pub clock_speed: f64,
    /// When it went in, UTC.
    pub put_in_at: String,
    /// Whether it is followed no more.
    pub ended: bool,
    /// Its places.
    pub stays: Vec<StayPhysics>,
}

impl PhysicsView {
    /// A followed piece as a simulation takes it.
    pub fn new(stored: &StoredChill, tracked: &Tracked) -> Self {
        let c = tracked.composition();
        let (ash, fibre) = c.ash_and_fibre();
        Self {
            water: c.water(),
            fat: c.fat(),
            protein: c.protein(),
            carbohydrate: c.carbohydrate(),
            ash,
            fibre,
            sugars: c.sugars(),
            flour_solids: c.flour_solids(),
            fats: c.fats().iter().map(|&(kind, share)| FatShare { kind, share }).collect(),
            piece: stored.kept.piece.into(),
            wrap: tracked.wrap(),
            purpose: stored.kept.purpose.into(),
            start_c: stored.kept.start.c(),
            clock_speed: stored.kept.clock_speed,
            put_in_at: written(stored.kept.put_in_at),
            ended: stored.ended_at.is_some(),
            stays: tracked
                .stays()
                .iter()
                .map(|s| StayPhysics {
                    from_min: s.from.min(),
                    air_c: s.place.air().c(),
                    film_w_m2k: s.place.film().w_m2k(),
                    support: match s.support {
                        Support::Rack => SupportBody::Rack,
                        Support::Tray { kind, start } => SupportBody::Tray { tray: kind, start_c: start.c() },
                        Support::Bench { bench } => SupportBody::Bench { bench_c: bench.c() },
                    },
                })
                .collect(),
        }
    }

    /// The piece as the core follows it.
    pub fn tracked(&self) -> Result<Tracked, InputErrors> {
        let kind = self.fats.first().map_or(FatKind::Butter, |f| f.kind);
        let mut dough = Composition::from_analysis(
            self.water,
            self.fat,
            self.protein,
            self.carbohydrate,
            self.ash,
            self.fibre,
            kind,
        )?
        .with_fats(self.fats.iter().map(|f| (f.kind, f.share)).collect())?;
        if let (Some(sugars), Some(flour)) = (self.sugars, self.flour_solids) {
            dough = dough.with_sugars(sugars, flour)?;
        }
        let stays = self
            .stays
            .iter()
            .map(|s| {
                Ok(LiveStay {
                    from: Span::from_s(s.from_min * 60.0)
                        .map_err(|_| InputErrors::from(InputError::new("stays", Problem::NotFinite)))?,
                    place: Place::new(s.air_c, s.film_w_m2k)?,
                    support: s.support.support()?,
                    before: PlaceKnowledge::default(),
                })
            })
            .collect::<Result<Vec<_>, InputErrors>>()?;
        let wrap: Wrap = self.wrap;
        Tracked::new(dough, self.piece.piece()?, wrap, self.start_c, self.purpose.into(), stays)
    }

    /// Time by the piece's clock at a moment.
    pub fn elapsed(&self, to: DateTime<Utc>) -> Result<Span, InputErrors> {
        let from = moment("put_in_at", &self.put_in_at)?;
        #[expect(clippy::cast_precision_loss, reason = "days at most")]
        let ms = to.signed_duration_since(from).num_milliseconds().max(0) as f64;
        Ok(Span::new_s(ms / 1000.0 * self.clock_speed))
    }
}
