//! All that a simulation of a followed piece needs, on the wire, so that a stand-in device can be a program of its own.

use super::PurposeWord;
use super::live::{moment, written};
use super::view;
use chrono::{DateTime, Utc};
use ready_slab_core::cold::{LiveStay, Piece, Place, PlaceKnowledge, Support, Tracked, Wrap};
use ready_slab_core::dough::{Composition, FatKind};
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

view! {
    /// A place of a followed piece, as it is set.
    pub struct StayPhysics(s: &LiveStay) {
        /// Since when, minutes of the piece's clock.
        from_min: f64 = s.from.min(),
        /// Its air.
        air_c: f64 = s.place.air().c(),
        /// Its film, radiation included.
        film_w_m2k: f64 = s.place.film().w_m2k(),
        /// On what.
        support: Support = s.support,
    }
}

view! {
    /// All that a simulation of a followed piece needs, for stand-in devices.
    pub struct PhysicsView(stored: &StoredChill, tracked: &Tracked) {
        let c = tracked.composition();
        let (ash, fibre) = c.ash_and_fibre();

        /// Mass fraction.
        water: f64 = c.water(),
        /// Mass fraction.
        fat: f64 = c.fat(),
        /// Mass fraction.
        protein: f64 = c.protein(),
        /// Mass fraction, without fibre.
        carbohydrate: f64 = c.carbohydrate(),
        /// Mass fraction.
        ash: f64 = ash,
        /// Mass fraction.
        fibre: f64 = fibre,
        /// Of the carbohydrate, where known.
        sugars: Option<f64> = c.sugars(),
        /// Dry flour, where known.
        flour_solids: Option<f64> = c.flour_solids(),
        /// What the fat is made of.
        fats: Vec<FatShare> = c.fats().iter().map(|&(kind, share)| FatShare { kind, share }).collect(),
        /// Its form.
        piece: Piece = stored.kept.piece,
        /// What is round it.
        wrap: Wrap = tracked.wrap(),
        /// What it is for.
        purpose: PurposeWord = stored.kept.purpose.into(),
        /// All of it when it went in.
        start_c: f64 = stored.kept.start.c(),
        /// How much faster than ours its clock runs.
        clock_speed: f64 = stored.kept.clock_speed,
        /// When it went in, UTC.
        put_in_at: String = written(stored.kept.put_in_at),
        /// Whether it is followed no more.
        ended: bool = stored.ended_at.is_some(),
        /// Its places.
        stays: Vec<StayPhysics> = tracked.stays().iter().map(Into::into).collect(),
    }
}

impl PhysicsView {
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
                    support: s.support.checked()?,
                    before: PlaceKnowledge::default(),
                })
            })
            .collect::<Result<Vec<_>, InputErrors>>()?;
        Tracked::new(dough, self.piece.checked()?, self.wrap, self.start_c, self.purpose.into(), stays)
    }

    /// Time by the piece's clock at a moment.
    pub fn elapsed(&self, to: DateTime<Utc>) -> Result<Span, InputErrors> {
        let from = moment("put_in_at", &self.put_in_at)?;
        #[expect(clippy::cast_precision_loss, reason = "days at most")]
        let ms = to.signed_duration_since(from).num_milliseconds().max(0) as f64;
        Ok(Span::new_s(ms / 1000.0 * self.clock_speed))
    }
}
