//! A stand-in for a thermometer that is left in the dough: noisy, with drop-outs, in places that are not quite as they are set.

use super::fit::{PlaceKnowledge, Reading, Spot};
use super::live::Tracked;
use crate::error::{Checks, InputErrors};
use crate::units::{Span, TemperatureDifference};
use rand::{RngExt as _, SeedableRng as _};
use rand_distr::StandardNormal;
use rand_pcg::Pcg64Mcg;

/// What the stand-in is like.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct ProbeKind {
    /// All its chances follow from this.
    pub seed: u64,
    /// Noise of one reading (standard deviation).
    pub noise: TemperatureDifference,
    /// Share of readings that are lost, 0 to 0.9.
    pub drop_out: f64,
    /// What really multiplies the film of the places.
    pub film_factor: f64,
    /// What the air of the places is really off by.
    pub air_off: TemperatureDifference,
    /// Time from one reading to the next, by the dough's clock.
    pub every: Span,
}

/// The stand-in thermometer, as it is asked for; the only door to [`ProbeKind`].
#[derive(Debug, Clone, Copy, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[schema(as = ProbeBody)]
#[serde(deny_unknown_fields, default)]
pub struct ProbeInput {
    /// All its chances follow from this.
    pub seed: u32,
    /// Noise of one reading, 0 to 5.
    pub noise_k: f64,
    /// Share of readings lost, 0 to 0.9.
    pub drop_out: f64,
    /// What really multiplies the film, 0.3 to 3.
    pub film_factor: f64,
    /// What the air is really off by, -8 to 8.
    pub air_off_k: f64,
    /// From one reading to the next by the piece's clock, 5 to 3600.
    pub every_s: f64,
}

impl Default for ProbeInput {
    /// A cheap probe in a fridge that is a little stronger and a little warmer than its dial says.
    fn default() -> Self {
        Self { seed: 1, noise_k: 0.3, drop_out: 0.1, film_factor: 1.15, air_off_k: 0.6, every_s: 120.0 }
    }
}

impl ProbeInput {
    /// The stand-in, checked.
    pub fn kind(self) -> Result<ProbeKind, InputErrors> {
        let mut checks = Checks::new();
        checks.range("noise_k", self.noise_k, 0.0, 5.0, "K");
        checks.range("drop_out", self.drop_out, 0.0, 0.9, "of the readings");
        checks.range("film_factor", self.film_factor, 0.3, 3.0, "times");
        checks.range("air_off_k", self.air_off_k, -8.0, 8.0, "K");
        checks.range("every_s", self.every_s, 5.0, 3600.0, "s");
        checks.finish(())?;
        Ok(ProbeKind {
            seed: self.seed.into(),
            noise: TemperatureDifference::new_k(self.noise_k),
            drop_out: self.drop_out,
            film_factor: self.film_factor,
            air_off: TemperatureDifference::new_k(self.air_off_k),
            every: Span::new_s(self.every_s),
        })
    }
}

impl From<ProbeKind> for ProbeInput {
    fn from(kind: ProbeKind) -> Self {
        Self {
            seed: u32::try_from(kind.seed).unwrap_or(u32::MAX),
            noise_k: kind.noise.k(),
            drop_out: kind.drop_out,
            film_factor: kind.film_factor,
            air_off_k: kind.air_off.k(),
            every_s: kind.every.s(),
        }
    }
}

impl ProbeKind {
    /// What it shows of a piece at a moment; `None` when this reading is lost. Each moment has its own chance, so asking
    /// twice answers alike, whoever asks and however often it was started anew.
    ///
    /// Fails where the piece's places do, when they are off by so much.
    pub fn shows(&self, piece: &Tracked, after: Span) -> Result<Option<Reading>, InputErrors> {
        #[expect(
            clippy::cast_possible_truncation,
            clippy::cast_sign_loss,
            reason = "weeks at most, and not before the start"
        )]
        let step = (after.s().max(0.0) / self.every.s()).round() as u64;
        let mut chance = Pcg64Mcg::seed_from_u64(self.seed ^ step.wrapping_mul(0x2545_f491_4f6c_dd1d));
        if chance.random_bool(self.drop_out) {
            return Ok(None);
        }
        let really = PlaceKnowledge {
            ln_film: (self.film_factor.ln(), 0.0),
            air: (self.air_off, TemperatureDifference::new_k(0.0)),
            ..PlaceKnowledge::default()
        };
        let truth = piece.really(&really)?.live(&[])?;
        let shows = truth.shows(after, Spot::Core) + self.noise * chance.sample::<f64, _>(StandardNormal);
        Ok(Some(Reading { after, shows, spot: Spot::Core }))
    }
}

#[cfg(test)]
mod tests {
    use super::super::{LiveStay, Piece, Place, Support, Target, Wrap};
    use super::*;
    use crate::dough::{Composition, FatKind};
    use crate::units::Length;

    fn piece() -> Tracked {
        let dough =
            Composition::from_analysis(0.1457, 0.2018, 0.0575, 0.5799, 0.0035, 0.0116, FatKind::Butter).unwrap();
        let stay = LiveStay {
            from: Span::new_s(0.0),
            place: Place::new(4.0, 7.0).unwrap(),
            support: Support::Rack,
            before: PlaceKnowledge::default(),
        };
        let disc = Piece::Disc { thickness: Length::new_mm(22.0), diameter: Length::new_mm(180.0) };
        Tracked::new(dough, disc, Wrap::Wrapped, 20.5, Target::Rolling, vec![stay]).unwrap()
    }

    fn kind() -> ProbeKind {
        let k = TemperatureDifference::new_k;
        ProbeKind {
            seed: 7,
            noise: k(0.3),
            drop_out: 0.2,
            film_factor: 1.3,
            air_off: k(1.0),
            every: Span::new_min(2.0),
        }
    }

    fn seen(kind: ProbeKind, count: u32) -> Vec<Reading> {
        (1..=count).filter_map(|i| kind.shows(&piece(), Span::new_min(2.0 * f64::from(i))).unwrap()).collect()
    }

    #[test]
    fn it_shows_the_same_when_asked_again_and_loses_its_share() {
        let first = seen(kind(), 100);
        assert_eq!(first, seen(kind(), 100));
        assert!(first.len() > 65 && first.len() < 93, "{} of 100 at a share of 0.8", first.len());
        assert_ne!(first, seen(ProbeKind { seed: 8, ..kind() }, 100));
    }

    #[test]
    fn its_noise_is_as_said_about_the_truth_of_its_places() {
        let kind = ProbeKind { drop_out: 0.0, ..kind() };
        let quiet = ProbeKind { noise: TemperatureDifference::new_k(0.0), ..kind };
        let off: Vec<f64> =
            seen(kind, 100).iter().zip(seen(quiet, 100)).map(|(a, b)| (a.shows - b.shows).k()).collect();
        let rms = (off.iter().map(|d| d * d).sum::<f64>() / 100.0).sqrt();
        assert!((rms - 0.3).abs() < 0.07, "{rms}");
    }

    #[test]
    fn the_fit_finds_the_place_it_stands_in() {
        let readings = seen(ProbeKind { drop_out: 0.1, film_factor: 1.15, ..kind() }, 30);
        let fit = &piece().live(&readings).unwrap().fits[0];
        let within = |(mean, sd): (f64, f64), truth: f64| (mean - truth).abs() < 2.0 * sd;
        assert!(within(fit.place.ln_film, 1.15_f64.ln()), "{fit:?}");
        assert!(within((fit.place.air.0.k(), fit.place.air.1.k()), 1.0), "{fit:?}");
    }

    #[test]
    fn impossible_kinds_are_refused_by_name() {
        let bad = ProbeInput { drop_out: 1.5, every_s: f64::NAN, ..ProbeInput::default() };
        let errors = bad.kind().unwrap_err();
        let fields: Vec<_> = errors.all().iter().map(crate::error::InputError::field).collect();
        assert_eq!(fields, ["drop_out", "every_s"]);
    }
}
