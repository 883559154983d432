//! The power is off: how warm a shut fridge or freezer and the dough in it are by now, and what may still be done with it.

use super::{Advice, At, ColdPlace, Remedy, degrees, words};
use crate::cold::{Side, left_through};
use crate::error::InputErrors;
use crate::job::chill::first_chill;
use crate::safety::{COLD, COLD_RULE, out_of_the_cold};
use crate::units::{Span, Temperature};

/// A shut fridge or freezer takes on the room's temperature with about this time scale, min. Between an empty fridge (4 h)
/// and a full one (15 h); a full freezer is slower still. Common practice, no source.
const SHUT_FRIDGE_MIN: f64 = 8.0 * 60.0;
const SHUT_FREEZER_MIN: f64 = 30.0 * 60.0;
/// Length of the steps in which its warming is followed, min, and how far it is looked ahead from now.
const STEP_MIN: f64 = 20.0;
const AHEAD_MIN: f64 = 12.0 * 60.0;

impl At<'_> {
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
        let relative = |moment: Span| {
            if moment > ago { format!("in {}", words(moment - ago)) } else { format!("{} ago", words(ago - moment)) }
        };
        let spent = until.is_some_and(|until| until <= ago);
        let headline = format!(
            "Shut, the {} is at about {} by now, and the dough at {}: it {}.",
            place.word(),
            degrees(air_at(ago.min())),
            degrees(now.mean),
            match side {
                _ if spent => "has been out of the cold for too long".to_owned(),
                Side::TooCold => "is too cold still, so it must rest first".to_owned(),
                Side::Ready => format!("{} now", working.does),
                Side::TooWarm => "is too warm to work".to_owned(),
            }
        );
        let mut remedies = Vec::new();
        match (above, until) {
            (Some(above), Some(until)) => remedies.push(Remedy {
                what: if spent {
                    format!("Throw it out: its {} above 5\u{b0} ended {}", words(limit), relative(until))
                } else {
                    format!("Bake it {} at the latest", relative(until))
                },
                takes: None,
                why: format!(
                    "It {} above 5\u{b0} {}; {} of that in all is the usual limit.",
                    if above > ago { "will be" } else { "went" },
                    relative(above),
                    words(limit)
                ),
            }),
            (Some(above), None) => remedies.push(Remedy {
                what: format!("It has {} above 5\u{b0} left of its {}", words(limit - out), words(limit)),
                takes: None,
                why: format!("It is above 5\u{b0} since {}, as long as the door stays shut.", relative(above)),
            }),
            (None, _) => remedies.push(Remedy {
                what: format!("It stays below 5\u{b0} for at least {} from now", words(end - ago)),
                takes: None,
                why: "As long as nobody opens the door.".to_owned(),
            }),
        }
        if !spent {
            remedies.push(Remedy {
                what: "Keep the door shut".to_owned(),
                takes: None,
                why: "Opening it once lets in what an hour shut would.".to_owned(),
            });
            if let Some(too_warm) = too_warm.filter(|_| side != Side::TooWarm) {
                remedies.push(Remedy {
                    what: format!("It can be worked from there until {} from now", words(too_warm - ago)),
                    takes: None,
                    why: "After that it is too warm even out of the shut door.".to_owned(),
                });
            }
            remedies.push(Remedy {
                what: "With ice or a neighbour's fridge at hand, move it now".to_owned(),
                takes: None,
                why: "A cool box full of ice packs stays below 5\u{b0} for most of a day.".to_owned(),
            });
        }
        Ok(Advice {
            headline,
            remedies,
            caution: Some(format!(
                "A shut fridge keeps food cold for about four hours, a full freezer for two days (USDA Food Safety and Inspection Service, from memory). Put a thermometer in before you trust it; when in doubt, throw it out. {COLD_RULE}"
            )),
        })
    }
}
