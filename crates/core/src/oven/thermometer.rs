//! A thermometer in the oven: what its readings say of the oven at a setting, and a stand-in for one.

use super::reason::Reason;
use crate::error::{Checks, InputError, InputErrors};
use crate::units::{Span, Temperature, TemperatureDifference};

/// Readings of one test at most.
pub const MOST_OVEN_READINGS: usize = 720;
/// It has heated up when it has once come within this of where it then holds. Common practice: an oven's own lamp goes out about there.
const HEATED_WITHIN_K: f64 = 8.0;
/// A fall of so much between readings of up to two minutes is the door. Our own choice, beyond what a thermostat makes.
const DOOR_FALLS_K: f64 = 8.0;
const DOOR_WITHIN_MIN: f64 = 2.0;
/// Held for less than this, nothing is said of it: a thermostat's swing takes five minutes and more. Common practice, no source.
const LEAST_HELD_MIN: f64 = 8.0;

/// A reading of a thermometer in the oven, unchecked.
#[derive(Debug, Clone, Copy, PartialEq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[schema(as = OvenReadBody)]
#[serde(deny_unknown_fields)]
pub struct OvenReading {
    /// Since the oven was switched on, 0 to 360.
    pub after_min: f64,
    /// What it shows, 0 to 350.
    pub shows_c: f64,
}

/// What a test says of an oven at a setting.
#[derive(Debug, Clone, PartialEq)]
pub struct OvenTest {
    /// Until it had heated up; nothing where it never did.
    pub preheat: Option<Span>,
    /// On the whole, once it had.
    pub holds: Temperature,
    /// From its mean to where it turns, half of top to bottom.
    pub swing: TemperatureDifference,
    /// After the door was opened: how far it fell.
    pub door_dip: Option<TemperatureDifference>,
    /// And until no more than a third of that was missing.
    pub recovery: Option<Span>,
    /// What it says.
    pub reasons: Vec<Reason>,
}

/// What a test's readings say; `set_c` is where the oven was set.
///
/// Fails for fewer than ten readings or more than 720, for readings that go back in time, lie beyond 0 to 350 degC or 6 h, and for a test too
/// short to say where the oven holds.
pub fn judge_oven(set_c: f64, readings: &[OvenReading]) -> Result<OvenTest, InputErrors> {
    let mut checks = Checks::new();
    checks.range("set_c", set_c, 100.0, 260.0, "\u{b0}C");
    #[expect(clippy::cast_precision_loss, reason = "a few hundred")]
    checks.range("readings", readings.len() as f64, 10.0, MOST_OVEN_READINGS as f64, "readings");
    checks.finish(())?;
    let mut checks = Checks::new();
    for (i, r) in readings.iter().enumerate() {
        checks.range(&format!("readings[{i}].shows_c"), r.shows_c, 0.0, 350.0, "\u{b0}C");
        checks.range(&format!("readings[{i}].after_min"), r.after_min, 0.0, 360.0, "min");
        if i > 0 && r.after_min <= readings[i - 1].after_min {
            checks.push(InputError::refused(
                format!("readings[{i}].after_min"),
                "This time isn’t later than the one before. Put the readings in order.",
            ));
        }
    }
    checks.finish(())?;
    let door = first_fall(readings);
    // Where it holds is read before the door was opened, from the last half of that.
    let before = &readings[..door.unwrap_or(readings.len())];
    let (first, last) = (before[0].after_min, before[before.len() - 1].after_min);
    let late = mean_of(before.iter().filter(|r| r.after_min >= f64::midpoint(first, last)));
    let heated = before.iter().position(|r| r.shows_c >= late - HEATED_WITHIN_K).unwrap_or(0);
    let held: Vec<&OvenReading> = before.iter().skip(heated + usize::from(heated > 0)).collect();
    let held_min = held.last().map_or(0.0, |l| l.after_min - before[heated].after_min);
    if held_min < LEAST_HELD_MIN {
        let why = format!(
            "It held steady only {held_min:.0} min. Log at least {LEAST_HELD_MIN:.0} min after preheating, with the door shut."
        );
        return Err(InputError::refused("readings", why).into());
    }
    let holds = mean_of(held.iter().copied());
    let top = held.iter().map(|r| r.shows_c).fold(f64::NEG_INFINITY, f64::max);
    let low = held.iter().map(|r| r.shows_c).fold(f64::INFINITY, f64::min);
    let swing = 0.5 * (top - low);
    // One that was warm when it was read first tells nothing of how long it takes.
    let preheat = (heated > 0 && before[0].shows_c < 0.5 * holds).then(|| Span::new_min(before[heated].after_min));
    let (door_dip, recovery) = door.map_or((None, None), |at| after_door(&readings[at - 1..], holds));
    let mut reasons = vec![Reason::OvenHolds {
        set: Temperature::new_c(set_c),
        holds: Temperature::new_c(holds),
        swings: (Temperature::new_c(low), Temperature::new_c(top)),
    }];
    if let Some(preheat) = preheat {
        reasons.push(Reason::HeatedUp { after: preheat });
    }
    if let (Some(dip), Some(recovery)) = (door_dip, recovery) {
        reasons.push(Reason::DoorFell { by: dip, back_after: recovery });
    }
    Ok(OvenTest {
        preheat,
        holds: Temperature::new_c(holds),
        swing: TemperatureDifference::new_k(swing),
        door_dip,
        recovery,
        reasons,
    })
}

fn mean_of<'a>(readings: impl Iterator<Item = &'a OvenReading>) -> f64 {
    let (sum, count) = readings.fold((0.0, 0.0), |(sum, count), r| (sum + r.shows_c, count + 1.0));
    if count > 0.0 { sum / count } else { 0.0 }
}

/// The first reading after the door was opened; `None` where it stayed shut.
fn first_fall(readings: &[OvenReading]) -> Option<usize> {
    (1..readings.len()).find(|&i| {
        let (a, b) = (readings[i - 1], readings[i]);
        b.after_min - a.after_min <= DOOR_WITHIN_MIN && a.shows_c - b.shows_c >= DOOR_FALLS_K
    })
}

/// How far it fell with the door and how long the better part of that took; the first reading is the last before it.
fn after_door(readings: &[OvenReading], holds: f64) -> (Option<TemperatureDifference>, Option<Span>) {
    let Some(lowest) = readings.iter().min_by(|a, b| a.shows_c.total_cmp(&b.shows_c)) else { return (None, None) };
    let dip = holds - lowest.shows_c;
    if dip < DOOR_FALLS_K {
        return (None, None);
    }
    let back =
        readings.iter().find(|r| r.after_min > lowest.after_min && r.shows_c >= holds - dip / std::f64::consts::E);
    (Some(TemperatureDifference::new_k(dip)), back.map(|r| Span::new_min(r.after_min - lowest.after_min)))
}

/// A stand-in thermometer in an oven that ships with the product: an oven of its own, with a thermostat that switches late.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OvenStandIn {
    /// How far it holds from its setting, at 175 degC; it grows with the setting.
    pub off: TemperatureDifference,
    /// When its door is opened for half a minute.
    pub door_at: Span,
    /// It reads so often.
    pub every: Span,
    /// It reads for so long.
    pub lasts: Span,
}

impl OvenStandIn {
    /// One that runs cool by 9 degC, whose door is opened after 40 minutes.
    pub const DEMO: Self = Self {
        off: TemperatureDifference::new_k(-9.0),
        door_at: Span::new_min(40.0),
        every: Span::new_s(20.0),
        lasts: Span::new_min(52.0),
    };

    /// What it reads at a setting in a room, from when it is switched on.
    ///
    /// Its air warms by a heater of 2.4 kW against the walls' loss, the thermostat switches 4 degC either side of where it holds, and the
    /// thermometer follows with 20 s. Made-up figures of a household oven.
    #[must_use]
    pub fn reads(&self, set: Temperature, room: Temperature) -> Vec<OvenReading> {
        // Air and walls of 11 kJ/K, walls and door lose 5.5 W/K.
        let (heater_w, loses_w_k, holds_j_k) = (2400.0, 5.5, 11_000.0);
        let holds = set.c() + self.off.k() * (set.c() - room.c()) / (175.0 - room.c()).max(1.0);
        let (mut air, mut shows, mut on) = (room.c(), room.c(), true);
        let dt = 1.0;
        let mut found = Vec::new();
        let (mut now, mut next) = (0.0, 0.0);
        while now <= self.lasts.s() {
            if now >= next {
                found.push(OvenReading {
                    after_min: now / 60.0,
                    // It shows half degrees.
                    shows_c: (2.0 * shows).round() / 2.0,
                });
                next += self.every.s();
            }
            if air > holds + 4.0 {
                on = false;
            } else if air < holds - 4.0 {
                on = true;
            }
            let door = now >= self.door_at.s() && now < self.door_at.s() + 30.0;
            let loses = loses_w_k + if door { 70.0 } else { 0.0 };
            air += dt * (if on { heater_w } else { 0.0 } - loses * (air - room.c())) / holds_j_k;
            shows += dt * (air - shows) / 20.0;
            now += dt;
        }
        found
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn at(min: f64, c: f64) -> OvenReading {
        OvenReading { after_min: min, shows_c: c }
    }

    fn c(v: f64) -> Temperature {
        Temperature::new_c(v)
    }

    #[test]
    fn a_written_down_test_is_read_as_a_baker_would() {
        // Up in ten minutes, then between 160 and 172 every six minutes, the door at 28 min, back at 31.
        let mut readings: Vec<OvenReading> = (0..10).map(|m| at(f64::from(m), 20.0 + 14.5 * f64::from(m))).collect();
        let swings = [160.0, 164.0, 168.0, 172.0, 168.0, 164.0];
        readings.extend((10..28).zip(swings.iter().cycle()).map(|(m, c)| at(f64::from(m), *c)));
        readings.extend([at(28.0, 136.0), at(29.0, 150.0), at(30.0, 156.0), at(31.0, 165.0)]);
        let test = judge_oven(175.0, &readings).unwrap();
        assert!((test.holds.c() - 166.0).abs() < 0.5, "{test:?}");
        assert_eq!(test.swing.k(), 6.0);
        assert_eq!(test.preheat.map(|p| p.min().round()), Some(10.0));
        assert!((test.door_dip.unwrap().k() - 30.0).abs() < 0.5);
        // 30 / e = 11: two minutes later it is back at 156, ten under where it holds.
        assert_eq!(test.recovery.map(|r| r.min().round()), Some(2.0));
        let Reason::OvenHolds { set, holds, .. } = &test.reasons[0] else { panic!("{:?}", test.reasons) };
        assert!(((*holds - *set).k() + 9.0).abs() < 0.5, "{holds:?}");
    }

    #[test]
    fn the_stand_in_runs_cool_swings_and_recovers() {
        let oven = OvenStandIn::DEMO;
        let test = judge_oven(175.0, &oven.reads(c(175.0), c(22.0))).unwrap();
        assert!((test.holds.c() - 166.0).abs() < 2.5, "{test:?}");
        assert!((2.0..8.0).contains(&test.swing.k()), "{test:?}");
        // Common practice: a household oven takes 10 to 20 minutes, its door costs 10 to 40 degrees and one to four minutes.
        assert!((8.0..20.0).contains(&test.preheat.unwrap().min()), "{test:?}");
        assert!(
            (10.0..45.0).contains(&test.door_dip.unwrap().k()) && (0.5..4.0).contains(&test.recovery.unwrap().min()),
            "{test:?}"
        );
    }

    #[test]
    fn a_test_that_says_nothing_is_refused() {
        let said = |readings: &[OvenReading]| judge_oven(175.0, readings).unwrap_err().all()[0].field().to_owned();
        assert_eq!(said(&[at(0.0, 20.0)]), "readings");
        let short: Vec<OvenReading> = (0..12).map(|i| at(f64::from(i) / 4.0, 165.0)).collect();
        assert_eq!(said(&short), "readings");
        let mut back: Vec<OvenReading> = (0..12).map(|i| at(f64::from(i), 165.0)).collect();
        back[5] = at(3.0, 165.0);
        assert_eq!(said(&back), "readings[5].after_min");
        back[5] = at(5.0, 900.0);
        assert_eq!(said(&back), "readings[5].shows_c");
        let fine: Vec<OvenReading> = (0..12).map(|i| at(f64::from(i), 165.0)).collect();
        assert_eq!(judge_oven(60.0, &fine).unwrap_err().all()[0].field(), "set_c");
        // It was hot when the first was read: nothing is said of how long that took.
        assert_eq!(judge_oven(175.0, &fine).unwrap().preheat, None);
    }

    proptest! {
        #[test]
        fn any_stand_in_is_found_where_it_holds(off in -25.0..20.0_f64, set in 150.0..200.0_f64) {
            let oven = OvenStandIn { off: TemperatureDifference::new_k(off), ..OvenStandIn::DEMO };
            let test = judge_oven(set, &oven.reads(c(set), c(22.0))).unwrap();
            let holds = set + off * (set - 22.0) / 153.0;
            prop_assert!((test.holds.c() - holds).abs() < 3.0, "{} {holds}", test.holds.c());
        }
    }
}
