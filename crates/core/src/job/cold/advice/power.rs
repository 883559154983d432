//! The power is off: how warm a shut fridge or freezer and the dough in it are by now, and what may still be done with it.

use super::{Advice, AdviceCaution, Because, Case, ColdPlace, Headline, Measure, PowerState, Remedy, When};
use crate::cold::{Side, left_through};
use crate::error::InputErrors;
use crate::job::cold::chill_question::first_chill;
use crate::safety::{COLD, Caution, out_of_the_cold};
use crate::units::{Span, Temperature};

/// A shut fridge or freezer takes on the room's temperature with about this time scale, min. Between an empty fridge (4 h)
/// and a full one (15 h); a full freezer is slower still. Common practice, no source.
const SHUT_FRIDGE_MIN: f64 = 8.0 * 60.0;
const SHUT_FREEZER_MIN: f64 = 30.0 * 60.0;
/// Length of the steps in which its warming is followed, min, and how far it is looked ahead from now.
const STEP_MIN: f64 = 20.0;
const AHEAD_MIN: f64 = 12.0 * 60.0;

impl Case<'_> {
    pub(super) fn power_out(&self, ago: Span, dough: Temperature) -> Result<Advice, InputErrors> {
        let (kitchen, plan) = (self.kitchen, self.plan);
        let (place, piece) = (plan.cold.place, plan.cold.form.piece);
        let air = kitchen.place(place).air();
        let scale = match place {
            ColdPlace::Fridge => SHUT_FRIDGE_MIN,
            ColdPlace::Freezer => SHUT_FREEZER_MIN,
        };
        let air_at = |minutes: f64| {
            Temperature::new_c(kitchen.room().c() + (air.c() - kitchen.room().c()) * (-minutes / scale).exp())
        };
        // All of the outage so far, and half a day from now on.
        let end = Span::new_min(ago.min() + AHEAD_MIN);
        let question = first_chill(self.job, kitchen, &plan.dough, piece, place)?.starting(dough);
        let curve = left_through(&question, Span::new_min(STEP_MIN), end, |after| air_at(after.min()));
        let at = |moment: Span| *curve.iter().find(|s| s.after >= moment).unwrap_or(&curve[curve.len() - 1]);
        let now = at(ago);
        let limit = out_of_the_cold(kitchen.room());
        // Time above 5 degC in all, whether it went in warm or got warm since.
        let mut out = Span::new_s(0.0);
        let (mut above, mut until) = (None, None);
        for pair in curve.windows(2) {
            if pair[1].warmest > COLD {
                above = above.or(Some(pair[0].after));
                out = out + (pair[1].after - pair[0].after);
                if out >= limit && until.is_none() {
                    until = Some(pair[1].after);
                }
            }
        }
        let window = plan.cold.window;
        let working = self.working();
        let (side, _) = window.feels_at(plan.cold.target, &now, false);
        let too_warm = curve.iter().skip_while(|s| s.after < ago).find(|s| s.felt > working.to).map(|s| s.after);
        let relative = |moment: Span| if moment > ago { When::In(moment - ago) } else { When::Ago(ago - moment) };
        let spent = until.is_some_and(|until| until <= ago);
        let headline = Headline::PowerIsOff {
            place,
            air: air_at(ago.min()),
            dough: now.mean,
            state: match side {
                _ if spent => PowerState::Spent,
                Side::TooCold => PowerState::TooCold,
                Side::Ready => PowerState::Ready(plan.cold.target),
                Side::TooWarm => PowerState::TooWarm,
            },
        };
        let remedy = |what: Measure, why: Because| Remedy { what, takes: None, why: vec![why] };
        let mut remedies = vec![match (above, until) {
            (Some(above), Some(until)) => remedy(
                if spent {
                    Measure::ThrowItOut { limit, ended: relative(until) }
                } else {
                    Measure::BakeBy { when: relative(until) }
                },
                Because::AboveTheLine { will_be: above > ago, when: relative(above), limit },
            ),
            (Some(above), None) => {
                remedy(Measure::HasLeft { left: limit - out, of: limit }, Because::AboveSince { when: relative(above) })
            }
            (None, _) => remedy(Measure::StaysCold { at_least: end - ago }, Because::NobodyOpens),
        }];
        if !spent {
            remedies.push(remedy(Measure::KeepTheDoorShut, Because::OpeningCosts));
            if let Some(too_warm) = too_warm.filter(|_| side != Side::TooWarm) {
                remedies.push(remedy(Measure::WorkUntil { from_now: too_warm - ago }, Because::TooWarmAfterThat));
            }
            remedies.push(remedy(Measure::MoveItNow, Because::BoxLastsADay));
        }
        Ok(Advice { headline, remedies, caution: Some(AdviceCaution::Raw(Caution::PowerOff)) })
    }
}
