//! The one thing most worth measuring next: what would make the forecast's ranges narrowest.

use super::BakeRecord;
use crate::oven::{BakeKnowledge, NINE_OF_TEN, SPREAD_NOISE, TIME_MEASURED, TIME_NOISE, TIME_UNMEASURED, WIDTH_NOISE};
use crate::units::Share;

/// What to measure next.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Worth {
    /// Some pieces of a tray, and its minutes: nothing is recorded of this dough. Half the range of its spread now, and after that, of itself.
    FirstTray(Share, Share),
    /// The oven, with a thermometer: half the range of times now, and after that, of itself.
    Oven(Share, Share),
    /// The minutes of a tray: none of so many bakes has them. Half the range of times now, and after that.
    Minutes(u32, Share, Share),
    /// Widths of another tray: half the range of the spread now, and after that.
    Widths(Share, Share),
    /// Thicknesses: nobody has measured one.
    Thicknesses,
    /// Another tray like the last: the ranges are as narrow as trays are alike.
    AnotherTray,
}

/// Less than this of a range saved is not worth the trouble. Our own choice.
const SAVES: f64 = 0.85;

/// What is left of a deviation once something of another was seen beside it.
fn after(sd: f64, noise: f64) -> f64 {
    1.0 / (1.0 / (sd * sd) + 1.0 / (noise * noise)).sqrt()
}

/// What is most worth measuring next, where a thermometer was read in the oven or not. `spread` is what is
/// forecast of a round.
#[must_use]
pub fn worth_measuring(
    records: &[&BakeRecord],
    learnt: Option<&BakeKnowledge>,
    oven_read: bool,
    spread: Share,
) -> Worth {
    let known = learnt.copied().unwrap_or(BakeKnowledge::NONE);
    let dough = known.dough;
    let half = |sd: f64| Share::new(NINE_OF_TEN * sd);
    // Of the spread itself, what one tray measured tells it to.
    let tray = SPREAD_NOISE.hypot(WIDTH_NOISE / spread.value().max(0.01));
    let spreads = (dough.spread_sd, after(dough.spread_sd, tray));
    if records.is_empty() {
        return Worth::FirstTray(half(spreads.0), half(spreads.1));
    }
    let now = known.time_sd(if oven_read { TIME_MEASURED } else { TIME_UNMEASURED }).hypot(TIME_NOISE);
    // What is read in the oven counts instead of what bakes taught of it.
    let read = BakeKnowledge { oven: None, dough }.time_sd(TIME_MEASURED).hypot(TIME_NOISE);
    let noted = after(now, TIME_NOISE).hypot(TIME_NOISE);
    let mut options = vec![];
    if !oven_read {
        options.push((read / now, Worth::Oven(half(now), half(read))));
    }
    if records.iter().all(|r| r.baked().is_none()) {
        let n = u32::try_from(records.len()).unwrap_or(u32::MAX);
        options.push((noted / now, Worth::Minutes(n, half(now), half(noted))));
    }
    options.push((spreads.1 / spreads.0, Worth::Widths(half(spreads.0), half(spreads.1))));
    let best = options.into_iter().min_by(|a, b| a.0.total_cmp(&b.0)).filter(|(left, _)| *left < SAVES);
    match best {
        Some((_, worth)) => worth,
        None if records.iter().all(|r| r.thicknesses().is_empty()) => Worth::Thicknesses,
        None => Worth::AnotherTray,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::oven::{DoughKnowledge, EdgeColour, OvenKnowledge};
    use crate::units::{Length, TemperatureDifference};

    fn record(minutes: Option<f64>, thick: &[f64]) -> BakeRecord {
        let mm = Length::new_mm;
        BakeRecord::new(mm(65.0), mm(6.0), &[67.0, 67.4], thick, minutes, EdgeColour::JustGolden, "").unwrap()
    }

    fn worth(records: &[BakeRecord], learnt: Option<BakeKnowledge>, read: bool) -> Worth {
        let records: Vec<&BakeRecord> = records.iter().collect();
        worth_measuring(&records, learnt.as_ref(), read, Share::new(0.03))
    }

    #[test]
    fn first_a_tray_then_its_minutes_then_what_is_still_unsure() {
        let Worth::FirstTray(before, then) = worth(&[], None, false) else { panic!("a first tray") };
        assert!(before.value() > 0.7 && then.value() < 0.45, "{before:?} {then:?}");
        // Widths alone say nothing of the time; a minute noted says more than a thermometer.
        let dough = DoughKnowledge { spread_sd: 0.15, records: 1, ..DoughKnowledge::NONE };
        let one = BakeKnowledge { oven: None, dough };
        assert!(matches!(worth(&[record(None, &[])], Some(one), false), Worth::Minutes(1, ..)));
        // Many bakes with minutes have taught both: thicknesses are left, then nothing.
        let taught = BakeKnowledge {
            oven: Some(OvenKnowledge {
                offset: TemperatureDifference::new_k(-8.0),
                offset_sd: TemperatureDifference::new_k(3.0),
                heat: None,
                records: 9,
            }),
            dough: DoughKnowledge { spread_sd: 0.05, time_sd: 0.04, records: 9, ..DoughKnowledge::NONE },
        };
        assert_eq!(worth(&[record(Some(11.0), &[])], Some(taught), false), Worth::Thicknesses);
        assert_eq!(worth(&[record(Some(11.0), &[6.5])], Some(taught), true), Worth::AnotherTray);
    }

    #[test]
    fn an_oven_that_nobody_read_is_worth_a_thermometer_once_trays_are_measured() {
        let taught = BakeKnowledge {
            oven: None,
            dough: DoughKnowledge { spread_sd: 0.1, time_sd: 0.06, records: 2, ..DoughKnowledge::NONE },
        };
        let Worth::Oven(now, read) = worth(&[record(Some(11.0), &[])], Some(taught), false) else { panic!("the oven") };
        assert!(read.value() < 0.6 * now.value());
    }
}
