//! From a run to what the baker asks: when it is done, how far it has spread, how it looks.

use super::colour::{Shade, index, integral_of, shade_of};
use super::cooling::{Hot, cools};
use super::dough::OvenDough;
use super::end::BakeEnd;
use super::limits::{BakeWarning, check_bake};
use super::run::{DULL, Record, SET, Until, run};
use super::setup::{BakeFit, BakePiece, OvenSetup};
use crate::error::InputErrors;
use crate::units::{Density, Length, Share, Span, Temperature};
use serde::{Deserialize, Serialize};

/// A middle that may stay soft is dull by this much more water activity, at once. Assumed.
const DULL_SOFT: f64 = 0.15;
/// The colour integral that ends a run of a dough whose colour tells nothing.
const SOME_COLOUR: f64 = 0.02;
/// A forecast goes on for so much of its own time, to be drawn.
const DRAWN_PAST: f64 = 0.25;
/// The fat has let go when less than this is solid.
const LET_GO: f64 = 0.02;

impl BakeEnd {
    /// What to look for, by what the forecast says of this piece at its end: rim and underside are told as they will be seen, not as
    /// the word of the end alone would have them.
    #[must_use]
    pub fn look_for(self, forecast: Option<&BakeForecast>) -> LookFor {
        let seen = forecast.filter(|f| f.done_by != DoneBy::Never && self != Self::Dull);
        LookFor { end: self, seen: seen.map(|f| (shade_of(f.rim_colour), shade_of(f.under_colour))) }
    }
}

/// What to look for at the oven.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LookFor {
    /// What ends the bake.
    pub end: BakeEnd,
    /// Rim and underside as forecast at its end; nothing where nothing is forecast, or where no colour tells.
    pub seen: Option<(Shade, Shade)>,
}

/// What is asked of a bake that is to end: the rim's colour integral, and whether the middle need not be set.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Asked {
    pub colour: Option<f64>,
    pub soft: bool,
}

impl Asked {
    /// What an end asks. Of a dough whose cocoa hides its colour the same: the eye cannot see it, the clock can.
    fn of(end: BakeEnd) -> Self {
        match end {
            BakeEnd::Colour(colour) => Self { colour: Some(integral_of(colour)), soft: false },
            BakeEnd::Soft(colour) => Self { colour: Some(integral_of(colour)), soft: true },
            BakeEnd::Dull => Self { colour: None, soft: false },
        }
    }
}

/// What decided when it was done.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum DoneBy {
    /// The rim's colour came last.
    Rim,
    /// The dull surface came last.
    Dull,
    /// Setting came last.
    Set,
    /// It was asked at a time.
    Time,
    /// It is not done within 50 min.
    Never,
}

/// The look of a piece from the side.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Profile {
    /// Its middle stands higher than its rim.
    Domed,
    /// Level.
    Flat,
    /// Its rim stands higher than its middle.
    Sunken,
}

/// One moment of a bake.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct BakeSample {
    /// Since it went in; negative while it waits.
    pub after: Span,
    /// Middle of the piece.
    pub core: Temperature,
    /// Surface above the middle and above the rim.
    pub top: (Temperature, Temperature),
    /// The tray under it.
    pub tray: Temperature,
    /// Of the width as cut.
    pub spread: Share,
    /// Colour index of rim, middle and underside, 0 raw to 100 burnt.
    pub colour: [f64; 3],
    /// Set, of the middle.
    pub set: Share,
    /// Solid, of the fat.
    pub solid_fat: Share,
}

/// What is forecast of one piece.
#[derive(Debug, Clone, PartialEq)]
pub struct BakeForecast {
    /// In the oven until it is as told; [`DoneBy::Never`] tells it as it is after 50 min, and has no minutes.
    pub bake: Span,
    /// What decided it.
    pub done_by: DoneBy,
    /// Growth across, of the width of a round as cut.
    pub spread: Share,
    /// Once it has cooled.
    pub thickness: Length,
    /// As it leaves the oven.
    pub thickness_hot: Length,
    /// Once it has cooled, over all of it.
    pub density: Density,
    /// From the side.
    pub profile: Profile,
    /// Colour index of the rim, 0 raw to 100 burnt.
    pub rim_colour: f64,
    /// Of the middle.
    pub middle_colour: f64,
    /// Of the underside.
    pub under_colour: f64,
    /// Middle of the piece.
    pub core: Temperature,
    /// Of the mass as it went in.
    pub loss: Share,
    /// When the rim has its colour, the middle is dull, the middle is set, the fat has let go.
    pub rim_after: Option<Span>,
    /// When the middle no longer shines.
    pub dull_after: Option<Span>,
    /// When the middle is set.
    pub set_after: Option<Span>,
    /// When the fat has let go.
    pub fat_after: Option<Span>,
    /// As it comes out.
    pub(super) hot: Hot,
    /// The run, every 2 s.
    pub curve: Vec<BakeSample>,
    /// What to mind.
    pub warnings: Vec<BakeWarning>,
}

impl BakeForecast {
    /// Outward growth of a piece at its rim: a round of its dough, `radius` from the middle, grows there in proportion.
    #[must_use]
    pub fn growth(&self, piece: &BakePiece) -> Length {
        piece.radius * self.spread.value()
    }
}

/// Forecasts a bake to its end.
///
/// Fails, naming what and the range, where [`check_bake`] does.
pub fn forecast(
    dough: &OvenDough,
    piece: &BakePiece,
    oven: &OvenSetup,
    fit: &BakeFit,
    end: BakeEnd,
) -> Result<BakeForecast, InputErrors> {
    let warnings = check_bake(dough, piece, oven)?;
    let found = unchecked::<10>(dough, piece, oven, fit, Asked::of(end), &Until::LAST, warnings);
    Ok(lifted::<10>(found, dough, piece, oven, fit))
}

/// Of the width that baking powder adds in a run so much stays, the rest goes into height: its second gas comes when the rim has begun to set. Common
/// practice, no source; the doughs of tests/data/practice_rows.json. Soda widens as it does in the run.
const POWDER_SIDEWAYS: f64 = 0.4;

/// A forecast with what its baking powder widens less and lifts more.
fn lifted<const N: usize>(
    found: BakeForecast,
    dough: &OvenDough,
    piece: &BakePiece,
    oven: &OvenSetup,
    fit: &BakeFit,
) -> BakeForecast {
    let wide = found.spread.value();
    let narrower = without_powder::<N>(dough, piece, oven, fit, wide);
    if narrower >= wide {
        return found;
    }
    let (lifts, of_it) = (((1.0 + wide) / (1.0 + narrower)).powi(2), narrower / wide);
    let curve = found.curve.iter().map(|s| BakeSample { spread: Share::new(s.spread.value() * of_it), ..*s }).collect();
    BakeForecast {
        spread: Share::new(narrower),
        thickness: found.thickness * lifts,
        thickness_hot: found.thickness_hot * lifts,
        hot: Hot { wide: 1.0 + narrower, height_m: found.hot.height_m * lifts, ..found.hot },
        curve,
        ..found
    }
}

/// A spread of a dough with its powder, told by one of the same without it.
fn without_powder<const N: usize>(
    dough: &OvenDough,
    piece: &BakePiece,
    oven: &OvenSetup,
    fit: &BakeFit,
    wide: f64,
) -> f64 {
    let Some(plain) = dough.without_powder() else { return wide };
    let (records, _) = run::<N>(&plain, piece, oven, fit, &Until { still: true, ..Until::LAST });
    let without = records.last().map_or(0.0, |r| r.wide - 1.0);
    if without >= wide { wide } else { without + POWDER_SIDEWAYS * (wide - without) }
}

/// The same without asking what the model knows, in cells and steps of another fineness.
pub(super) fn unchecked<const N: usize>(
    dough: &OvenDough,
    piece: &BakePiece,
    oven: &OvenSetup,
    fit: &BakeFit,
    asked: Asked,
    steps: &Until,
    warnings: Vec<BakeWarning>,
) -> BakeForecast {
    let until = Until { colour: asked.colour.unwrap_or(SOME_COLOUR), past: DRAWN_PAST, ..*steps };
    let (records, _) = run::<N>(dough, piece, oven, fit, &until);
    read_off(&records, &Read { dough, piece, fit, asked: Some(asked), at: None }, warnings)
}

/// The same without asking what the model knows, and no further than to its end: what cannot be drawn can be learnt from.
pub(super) fn brief<const N: usize>(
    dough: &OvenDough,
    piece: &BakePiece,
    oven: &OvenSetup,
    fit: &BakeFit,
    end: BakeEnd,
) -> BakeForecast {
    let asked = Asked::of(end);
    let until = Until { colour: asked.colour.unwrap_or(SOME_COLOUR), ..Until::LAST };
    let (records, _) = run::<N>(dough, piece, oven, fit, &until);
    let found = read_off(&records, &Read { dough, piece, fit, asked: Some(asked), at: None }, vec![]);
    lifted::<N>(found, dough, piece, oven, fit)
}

/// Forecasts a bake that is ended after so long, at most 50 min.
///
/// Fails as [`forecast`] does.
pub fn forecast_at(
    dough: &OvenDough,
    piece: &BakePiece,
    oven: &OvenSetup,
    fit: &BakeFit,
    after: Span,
) -> Result<BakeForecast, InputErrors> {
    let warnings = check_bake(dough, piece, oven)?;
    let found = BakeForecast { warnings, ..read_at::<10>(dough, piece, oven, fit, after, &Until::LAST) };
    Ok(lifted::<10>(found, dough, piece, oven, fit))
}

/// The same without asking what the model knows, in cells and steps of another fineness.
pub(super) fn read_at<const N: usize>(
    dough: &OvenDough,
    piece: &BakePiece,
    oven: &OvenSetup,
    fit: &BakeFit,
    after: Span,
    steps: &Until,
) -> BakeForecast {
    // Two samples more, to read between.
    let until = Until { most_s: (after.s() / fit.time + 4.0).min(steps.most_s), ..*steps };
    let (records, _) = run::<N>(dough, piece, oven, fit, &until);
    read_off(&records, &Read { dough, piece, fit, asked: None, at: Some(after) }, vec![])
}

/// The first moment a value passes a limit, straight between samples.
fn crossing(records: &[Record], limit: f64, up: bool, value: impl Fn(&Record) -> f64) -> Option<f64> {
    let past = |r: &Record| if up { value(r) >= limit } else { value(r) <= limit };
    let at = records.iter().position(past)?;
    if at == 0 {
        return Some(records[0].after_s);
    }
    let (a, b) = (&records[at - 1], &records[at]);
    Some(a.after_s + (b.after_s - a.after_s) * (limit - value(a)) / (value(b) - value(a)))
}

/// A value at a moment, straight between samples, the ends held.
fn value_at(records: &[Record], after_s: f64, value: impl Fn(&Record) -> f64) -> f64 {
    let at = records.partition_point(|r| r.after_s <= after_s);
    if at == 0 || at == records.len() {
        return value(&records[at.min(records.len() - 1)]);
    }
    let (a, b) = (&records[at - 1], &records[at]);
    value(a) + (value(b) - value(a)) * (after_s - a.after_s) / (b.after_s - a.after_s)
}

/// What a run is read off for.
struct Read<'a> {
    dough: &'a OvenDough,
    piece: &'a BakePiece,
    fit: &'a BakeFit,
    asked: Option<Asked>,
    at: Option<Span>,
}

/// When what happens, by the model's own clock.
struct Marks {
    rim: Option<Option<f64>>,
    dull: Option<f64>,
    set: Option<f64>,
}

impl Marks {
    fn of(records: &[Record], asked: Option<Asked>) -> Self {
        let dull = if asked.is_some_and(|a| a.soft) {
            crossing(records, DULL.0 + DULL_SOFT, false, |r| r.activity_top)
        } else {
            crossing(records, DULL.0, false, |r| r.activity_top).map(|s| s + DULL.1)
        };
        Self {
            rim: asked.and_then(|a| a.colour).map(|c| crossing(records, c, true, |r| r.colour[0])),
            dull,
            set: crossing(records, SET, true, |r| r.set[0]),
        }
    }

    /// The last of what is asked, and which it is; the first of equals, as the colour is what one looks at.
    fn done(&self, soft: bool) -> Option<(f64, DoneBy)> {
        let never = f64::INFINITY;
        let asked = [
            (self.rim.map_or(0.0, |r| r.unwrap_or(never)), DoneBy::Rim),
            (self.dull.unwrap_or(never), DoneBy::Dull),
            (if soft { 0.0 } else { self.set.unwrap_or(never) }, DoneBy::Set),
        ];
        let last = asked.iter().fold(asked[0], |best, one| if one.0 > best.0 { *one } else { best });
        last.0.is_finite().then_some(last)
    }
}

fn read_off(records: &[Record], read: &Read<'_>, warnings: Vec<BakeWarning>) -> BakeForecast {
    let soft = read.asked.is_some_and(|a| a.soft);
    let marks = Marks::of(records, read.asked);
    // What was learnt of its time stretches the model's clock.
    let told = |model_s: f64| Span::new_s(model_s * read.fit.time);
    let last = records.last().map_or(0.0, |r| r.after_s);
    let (model_s, done_by) = match read.at {
        Some(at) => (at.s() / read.fit.time, DoneBy::Time),
        None => marks.done(soft).filter(|d| d.0 <= Until::LAST.most_s).unwrap_or((last, DoneBy::Never)),
    };
    let of = |value: fn(&Record) -> f64| value_at(records, model_s, value);
    let (middle, edge) = (of(|r| r.height_cold_m[1]), of(|r| r.height_cold_m[2]));
    let (wide, height_mm, loss) = (of(|r| r.wide), 1000.0 * of(|r| r.height_cold_m[0]), of(|r| r.loss));
    let laid = read.dough.solid_density() * (1.0 - read.dough.parts().air);
    BakeForecast {
        bake: told(model_s),
        done_by,
        spread: Share::new(wide - 1.0),
        thickness: Length::new_mm(height_mm),
        thickness_hot: Length::new_mm(1000.0 * of(|r| r.height_m)),
        density: Density::new_kg_m3(laid * read.piece.thickness.mm() * (1.0 - loss) / (wide * wide * height_mm)),
        // A tenth of the height is seen at once. Our own choice.
        profile: if middle > 1.1 * edge {
            Profile::Domed
        } else if edge > 1.1 * middle {
            Profile::Sunken
        } else {
            Profile::Flat
        },
        rim_colour: index(of(|r| r.colour[0])),
        middle_colour: index(of(|r| r.colour[1])),
        under_colour: index(of(|r| r.colour[2])),
        core: Temperature::new_c(of(|r| r.core_c)),
        loss: Share::new(loss),
        rim_after: marks.rim.flatten().map(told),
        dull_after: marks.dull.map(told),
        set_after: marks.set.map(told),
        fat_after: crossing(records, LET_GO, false, |r| r.solid_fat).map(told),
        hot: Hot { mean_c: of(|r| r.mean_c), tray_c: of(|r| r.tray_c), wide, height_m: of(|r| r.height_m), loss },
        curve: records.iter().map(|r| sample(r, read.fit.time)).collect(),
        warnings,
    }
}

fn sample(r: &Record, time: f64) -> BakeSample {
    BakeSample {
        after: Span::new_s(r.after_s * time),
        core: Temperature::new_c(r.core_c),
        top: (Temperature::new_c(r.top_c[0]), Temperature::new_c(r.top_c[1])),
        tray: Temperature::new_c(r.tray_c),
        spread: Share::new(r.wide - 1.0),
        colour: r.colour.map(index),
        set: Share::new(r.set[0]),
        solid_fat: Share::new(r.solid_fat),
    }
}

/// On its tray after a forecast bake, until its middle has come down to each of `to`, the warmest first: how long, `None` when not
/// within 90 min.
#[must_use]
pub fn cools_after(
    dough: &OvenDough,
    piece: &BakePiece,
    oven: &OvenSetup,
    found: &BakeForecast,
    to: [Temperature; 2],
) -> [Option<Span>; 2] {
    cools(dough, piece, oven, &found.hot, to)
}

/// How far a piece grows until nothing of it moves any more, of the width of a round as cut, and what to mind: a third of a forecast's work.
///
/// Fails as [`forecast`] does.
pub fn spread_until_set(
    dough: &OvenDough,
    piece: &BakePiece,
    oven: &OvenSetup,
    fit: &BakeFit,
) -> Result<(Share, Vec<BakeWarning>), InputErrors> {
    let warnings = check_bake(dough, piece, oven)?;
    let (records, _) = run::<10>(dough, piece, oven, fit, &Until { still: true, ..Until::LAST });
    let wide = records.last().map_or(0.0, |r| r.wide - 1.0);
    Ok((Share::new(without_powder::<10>(dough, piece, oven, fit, wide)), warnings))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::dough::{Formula, LineInput, Pantry};
    use crate::oven::EdgeColour;
    use crate::units::TemperatureDifference;
    use rstest::rstest;

    fn formula(lines: &[(&str, f64)]) -> Formula {
        let lines: Vec<LineInput> = lines.iter().map(|l| (*l).into()).collect();
        Formula::new("Test", &lines, Pantry::built_in()).unwrap()
    }

    fn cut_out() -> OvenDough {
        let lines = [("butter", 100.0), ("sugar", 90.0), ("flour-ap", 170.0), ("egg", 22.0), ("salt", 1.0)];
        OvenDough::of(&formula(&lines), 0.08).unwrap()
    }

    fn piece() -> BakePiece {
        BakePiece {
            thickness: Length::new_mm(6.0),
            radius: Length::new_mm(32.5),
            start: Temperature::new_c(6.0),
            firm_as_at: Temperature::new_c(6.0),
            wait: Span::new_s(0.0),
        }
    }

    fn rim() -> BakeEnd {
        BakeEnd::Colour(EdgeColour::JustGolden)
    }

    /// The pantry's butter and flour are a little other than the model's (case B01 of the prototype); the forecast hardly moves.
    #[test]
    fn a_pantry_formula_bakes_like_the_table_of_the_model() {
        let f = forecast(&cut_out(), &piece(), &OvenSetup::usual(175.0, false), &BakeFit::NONE, rim()).unwrap();
        assert!((f.bake.min() / 11.29 - 1.0).abs() < 0.06, "{}", f.bake.min());
        assert!((100.0 * f.spread.value() - 3.61).abs() < 1.0, "{:?}", f.spread);
        assert!((f.thickness.mm() / 7.23 - 1.0).abs() < 0.03, "{:?}", f.thickness);
        assert_eq!(f.done_by, DoneBy::Rim);
        assert!(f.fat_after.unwrap() < f.set_after.unwrap() && f.set_after.unwrap() < f.bake);
        assert!(f.rim_colour > f.middle_colour);
    }

    #[test]
    fn what_is_not_done_in_fifty_minutes_has_no_end() {
        let f = forecast(
            &cut_out(),
            &BakePiece { thickness: Length::new_mm(25.0), ..piece() },
            &OvenSetup::usual(140.0, false),
            &BakeFit { browning: 0.3, ..BakeFit::NONE },
            BakeEnd::Colour(EdgeColour::Brown),
        )
        .unwrap();
        assert_eq!((f.done_by, f.rim_after), (DoneBy::Never, None));
        assert!((f.bake.min() - 50.0).abs() < 0.1);
    }

    #[test]
    fn a_dough_that_takes_longer_takes_all_of_it_longer() {
        let oven = OvenSetup::usual(175.0, false);
        let of = |time: f64| forecast(&cut_out(), &piece(), &oven, &BakeFit { time, ..BakeFit::NONE }, rim()).unwrap();
        let (as_told, longer) = (of(1.0), of(1.3));
        assert!((longer.bake / as_told.bake - 1.3).abs() < 1e-9 && longer.spread == as_told.spread);
        let at =
            forecast_at(&cut_out(), &piece(), &oven, &BakeFit { time: 1.3, ..BakeFit::NONE }, longer.bake).unwrap();
        assert!((at.rim_colour - as_told.rim_colour).abs() < 0.01);
    }

    #[test]
    fn a_time_that_was_asked_is_told_as_it_is() {
        let oven = OvenSetup::usual(175.0, false);
        let done = forecast(&cut_out(), &piece(), &oven, &BakeFit::NONE, rim()).unwrap();
        let at = forecast_at(&cut_out(), &piece(), &oven, &BakeFit::NONE, done.bake).unwrap();
        assert!((at.rim_colour - done.rim_colour).abs() < 0.01 && at.done_by == DoneBy::Time);
    }

    /// The full run gone on with in the room is the proof; common practice: 4 to 15 min on the tray before it can be lifted.
    #[rstest]
    #[case(3.0, 65.0)]
    #[case(6.0, 65.0)]
    #[case(12.0, 40.0)]
    #[case(6.0, 120.0)]
    fn it_is_soft_when_hot_and_cools_as_the_full_run_has_it(#[case] high: f64, #[case] across: f64) {
        let oven = OvenSetup::usual(175.0, false);
        let piece = BakePiece { thickness: Length::new_mm(high), radius: Length::new_mm(across / 2.0), ..piece() };
        let done = forecast(&cut_out(), &piece, &oven, &BakeFit::NONE, rim()).unwrap();
        let to = [45.0, 24.0].map(Temperature::new_c);
        let [lifts, packs] = cools_after(&cut_out(), &piece, &oven, &done, to).map(|t| t.unwrap().min());
        assert!((3.0..20.0).contains(&lifts), "{lifts}");
        let out_s = done.bake.s();
        let until = Until { most_s: out_s + 5400.0, out_s, cooled_c: 24.0, ..Until::LAST };
        let (records, _) = run::<10>(&cut_out(), &piece, &oven, &BakeFit::NONE, &until);
        let after: Vec<Record> = records.into_iter().filter(|r| r.after_s >= out_s).collect();
        let full = |c: f64| (crossing(&after, c, false, |r| r.core_c).unwrap() - out_s) / 60.0;
        assert!(
            (lifts / full(45.0) - 1.0).abs() < 0.15 && (packs / full(24.0) - 1.0).abs() < 0.15,
            "{lifts} {} {packs} {}",
            full(45.0),
            full(24.0)
        );
    }

    #[rstest]
    #[case(|p: &mut BakePiece, _: &mut OvenSetup| p.thickness = Length::new_mm(0.5), "thickness_mm")]
    #[case(|p: &mut BakePiece, _: &mut OvenSetup| p.thickness = Length::new_mm(40.0), "thickness_mm")]
    #[case(|p: &mut BakePiece, _: &mut OvenSetup| p.radius = Length::new_mm(150.0), "across_mm")]
    #[case(|p: &mut BakePiece, _: &mut OvenSetup| p.start = Temperature::new_c(40.0), "dough_c")]
    #[case(|_: &mut BakePiece, o: &mut OvenSetup| o.air = Temperature::new_c(60.0), "oven_c")]
    #[case(|_: &mut BakePiece, o: &mut OvenSetup| o.air = Temperature::new_c(400.0), "oven_c")]
    #[case(|_: &mut BakePiece, o: &mut OvenSetup| o.tray_start = Temperature::new_c(120.0), "tray_c")]
    #[case(|_: &mut BakePiece, o: &mut OvenSetup| o.pressure_pa = crate::air::standard_pressure_pa(3200.0), "altitude_m")]
    fn what_the_model_does_not_know_is_refused(
        #[case] change: fn(&mut BakePiece, &mut OvenSetup),
        #[case] field: &str,
    ) {
        let (mut piece, mut oven) = (piece(), OvenSetup::usual(175.0, false));
        change(&mut piece, &mut oven);
        let errors = forecast(&cut_out(), &piece, &oven, &BakeFit::NONE, rim()).unwrap_err();
        assert_eq!(errors.all()[0].field(), field);
    }

    #[test]
    fn a_dough_without_flour_is_refused() {
        let lines = [("butter", 30.0), ("sugar", 100.0), ("egg", 10.0), ("flour-ap", 0.5)];
        let dough = OvenDough::of(&formula(&lines), 0.08).unwrap();
        let errors = forecast(&dough, &piece(), &OvenSetup::usual(175.0, false), &BakeFit::NONE, rim()).unwrap_err();
        assert!(errors.all().iter().any(|e| e.field() == "flour"), "{errors}");
    }

    #[rstest]
    #[case(&[("almond-meal", 200.0), ("sugar", 150.0), ("white", 60.0), ("flour-ap", 30.0), ("butter", 20.0)], "nuts")]
    #[case(&[("peanut-butter", 130.0), ("butter", 60.0), ("sugar", 150.0), ("egg", 50.0), ("flour-ap", 170.0)], "nuts")]
    #[case(&[("butter", 60.0), ("sugar-powdered", 100.0), ("white", 60.0), ("flour-ap", 50.0)], "flour")]
    fn what_is_no_cookie_dough_is_refused(#[case] lines: &[(&str, f64)], #[case] field: &str) {
        let dough = OvenDough::of(&formula(lines), 0.06).unwrap();
        let errors = forecast(&dough, &piece(), &OvenSetup::usual(175.0, false), &BakeFit::NONE, rim()).unwrap_err();
        assert!(errors.all().iter().any(|e| e.field() == field), "{errors}");
    }

    #[test]
    fn a_cool_oven_is_not_asked_below_what_the_model_knows() {
        let offset = BakeFit { offset: TemperatureDifference::new_k(-12.0), ..BakeFit::NONE };
        let f = forecast(&cut_out(), &piece(), &OvenSetup::usual(175.0, false), &offset, rim()).unwrap();
        assert!(f.bake.min() > 12.0);
    }
}
