//! Logs and bars: mass, length, size, slice and number of slices belong together; any two follow from the other three.

use crate::error::{Checks, InputError, InputErrors, Problem};
use crate::units::{Area, Density, Length, Mass, Span};
use serde::{Deserialize, Serialize};
use std::f64::consts::PI;

/// Across a log that nobody has sized yet. Common practice, no source.
pub const USUAL_LOG_ACROSS: Length = Length::new_mm(48.0);

/// Cut off at each end, where a log is ragged. Common practice, no source.
pub const LOG_TRIM: Length = Length::new_mm(5.0);
/// Logs and bars are made no longer until somebody says otherwise: so much lies across a shelf. Common practice, no source.
pub const USUAL_LONGEST_LOG: Length = Length::new_mm(300.0);
/// Shelves and knives take logs from here to there. Common practice, no source.
pub const LONGEST_LOG_MM: (f64, f64) = (100.0, 500.0);
/// A last slice of at least this share of the others is a slice; a thinner one joins the ends. Common practice, no source.
pub const LAST_SLICE: f64 = 0.8;
/// A soft round log that lies is turned so often, or it gets a flat. Common practice, no source.
const TURN_EVERY: Span = Span::new_min(15.0);

const MASS_G: (f64, f64) = (10.0, 200_000.0);
const LENGTH_MM: (f64, f64) = (20.0, 3000.0);
const ACROSS_MM: (f64, f64) = (8.0, 250.0);
const THICKNESS_MM: (f64, f64) = (1.0, 60.0);
const MOST_SLICES: u32 = 2000;

/// The outline of a log's section, without its size.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum LogForm {
    /// A circle.
    Round,
    /// A square.
    Square,
    /// A rectangle, so many times as high as wide.
    Oblong {
        /// Height over width, 0.1 to 10.
        height_to_width: f64,
    },
    /// Half a circle on its flat.
    HalfRound,
    /// A triangle on its base, so many times as high as wide.
    Wedge {
        /// Height over width, 0.1 to 10.
        height_to_width: f64,
    },
}

/// The outline of a log's section.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[schema(as = LogFormWord)]
#[serde(rename_all = "snake_case")]
pub enum LogKind {
    /// A circle.
    Round,
    /// A square.
    Square,
    /// A rectangle.
    Oblong,
    /// Half a circle on its flat.
    HalfRound,
    /// A triangle on its base.
    Wedge,
}

impl LogKind {
    /// The section, so many times as high as wide where it can be.
    #[must_use]
    pub const fn with_height(self, height_to_width: f64) -> LogForm {
        match self {
            Self::Round => LogForm::Round,
            Self::Square => LogForm::Square,
            Self::Oblong => LogForm::Oblong { height_to_width },
            Self::HalfRound => LogForm::HalfRound,
            Self::Wedge => LogForm::Wedge { height_to_width },
        }
    }
}

impl LogForm {
    /// Its kind.
    #[must_use]
    pub const fn kind(self) -> LogKind {
        match self {
            Self::Round => LogKind::Round,
            Self::Square => LogKind::Square,
            Self::Oblong { .. } => LogKind::Oblong,
            Self::HalfRound => LogKind::HalfRound,
            Self::Wedge { .. } => LogKind::Wedge,
        }
    }

    /// How many times as high as wide, where that is given.
    #[must_use]
    pub const fn height_to_width(self) -> Option<f64> {
        match self {
            Self::Oblong { height_to_width } | Self::Wedge { height_to_width } => Some(height_to_width),
            _ => None,
        }
    }

    /// The same with its proportion checked.
    pub fn checked(self) -> Result<Self, InputErrors> {
        let mut checks = Checks::new();
        if let Self::Oblong { height_to_width } | Self::Wedge { height_to_width } = self {
            checks.range("height_to_width", height_to_width, 0.1, 10.0, "times its width");
        }
        checks.finish(self)
    }

    /// Area over the square of the width.
    fn fullness(self) -> f64 {
        match self {
            Self::Round => PI / 4.0,
            Self::Square => 1.0,
            Self::Oblong { height_to_width } => height_to_width,
            Self::HalfRound => PI / 8.0,
            Self::Wedge { height_to_width } => height_to_width / 2.0,
        }
    }

    /// Area of a section so wide.
    #[must_use]
    pub fn area(self, width: Length) -> Area {
        Area::new_mm2(self.fullness() * width.mm() * width.mm())
    }

    /// Height of a section so wide.
    #[must_use]
    pub fn height(self, width: Length) -> Length {
        match self {
            Self::Round | Self::Square => width,
            Self::HalfRound => width * 0.5,
            Self::Oblong { height_to_width } | Self::Wedge { height_to_width } => width * height_to_width,
        }
    }

    /// Width of a section of an area.
    fn width(self, area_mm2: f64) -> f64 {
        (area_mm2 / self.fullness()).sqrt()
    }

    /// How often a soft log of this form must be turned while it gets firm; `None` where it lies on a flat.
    #[must_use]
    pub fn turned_every(self) -> Option<Span> {
        matches!(self, Self::Round).then_some(TURN_EVERY)
    }
}

/// What is known of a log: three of mass, length, width, slice and slices, with a section whose proportion is known. Where it is not, its height
/// is one more: three of mass, length, width and height settle an oblong or a wedge, and a slice divides it.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct LogGiven {
    /// Its mass, 10 g to 200 kg.
    pub mass: Option<Mass>,
    /// Its length, 20 to 3000 mm.
    pub length: Option<Length>,
    /// Width of its section, 8 to 250 mm.
    pub width: Option<Length>,
    /// Height of its section, 8 to 250 mm; in place of its proportion.
    pub height: Option<Length>,
    /// Thickness of a slice, 1 to 60 mm.
    pub slice: Option<Length>,
    /// Number of slices, 1 to 2000.
    pub slices: Option<u32>,
}

/// Dough in a log that one hand rolls with ease. Common practice, no source.
const USUAL_LOG: Mass = Mass::new_g(600.0);

impl LogGiven {
    /// The same; where nothing is said, as much of a mix as one hand rolls, as thick as logs are, in slices of this thickness; where only the
    /// bar is said, in such slices.
    #[must_use]
    pub fn or_usual(self, form: LogForm, mix: Mass, slice: Length) -> Self {
        if self != Self::default() {
            let bar = form.height_to_width().is_some()
                && [self.mass.is_some(), self.length.is_some(), self.width.is_some(), self.height.is_some()]
                    .into_iter()
                    .filter(|known| *known)
                    .count()
                    == 3;
            let divided = self.slice.is_some() || self.slices.is_some();
            return if bar && !divided { Self { slice: Some(slice), ..self } } else { self };
        }
        let mass = Mass::new_g(mix.g().min(USUAL_LOG.g()).round());
        Self { mass: Some(mass), width: Some(USUAL_LOG_ACROSS), slice: Some(slice), ..Self::default() }
    }

    /// Which are known, as the fields that carry them.
    #[must_use]
    pub fn known(&self) -> Vec<&'static str> {
        let all = [
            (self.mass.is_some(), "mass_g"),
            (self.length.is_some(), "length_mm"),
            (self.width.is_some(), "width_mm"),
            (self.height.is_some(), "height_mm"),
            (self.slice.is_some(), "slice_mm"),
            (self.slices.is_some(), "slices"),
        ];
        all.into_iter().filter(|(known, _)| *known).map(|(_, field)| field).collect()
    }
}

/// A log, with where the knife goes.
#[derive(Debug, Clone, PartialEq)]
pub struct Log {
    /// Its mass, ends and all.
    pub mass: Mass,
    /// Its length, ends and all.
    pub length: Length,
    /// Width of its section.
    pub width: Length,
    /// Height of its section.
    pub height: Length,
    /// Thickness of a slice.
    pub slice: Length,
    /// Number of slices.
    pub slices: u32,
    /// A last slice that is thinner than the others but counts.
    pub short_last: Option<Length>,
    /// What is left before the far trim and joins the ends.
    pub rest: Length,
    /// Mass of a whole slice.
    pub slice_mass: Mass,
    /// Mass of both ends and the rest.
    pub ends: Mass,
    /// Where the knife goes, from one end.
    pub cuts: Vec<Length>,
}

/// Where a height is given, or an oblong's or wedge's mass, length and width: its section, and what is left to be solved with it.
fn settled(
    form: LogForm,
    given: &LogGiven,
    trim: Length,
    density: Density,
) -> Result<(LogForm, LogGiven), InputErrors> {
    let left = LogGiven { height: None, ..*given };
    if form.height_to_width().is_none() {
        let Some(height) = given.height else { return Ok((form, left)) };
        if given.width.is_some() {
            return Err(InputError::refused("given", "Width and height follow each other here. Type only one.").into());
        }
        let wide = if matches!(form, LogForm::HalfRound) { 2.0 } else { 1.0 };
        return Ok((form, LogGiven { width: Some(height * wide), ..left }));
    }
    let mut checks = Checks::new();
    for (field, value) in [("height_mm", given.height), ("width_mm", given.width), ("length_mm", given.length)] {
        let (least, most) = if field == "length_mm" { LENGTH_MM } else { ACROSS_MM };
        value.iter().for_each(|v| checks.range(field, v.mm(), least, most, "mm"));
    }
    checks.finish(())?;
    // Area over width times height.
    let full = form.kind().with_height(1.0).fullness();
    let by_slices = || Some(given.slice? * f64::from(given.slices?) + trim * 2.0);
    let length = given.length.or_else(by_slices);
    let section = |m: Mass, l: Length| m.g() * 1e6 / density.kg_m3() / l.mm() / full;
    let (wide, high, solved) = match (given.width, given.height, given.mass, length) {
        (Some(w), Some(h), ..) => (w.mm(), h.mm(), left),
        (None, Some(h), Some(m), Some(l)) => (section(m, l) / h.mm(), h.mm(), LogGiven { mass: None, ..left }),
        (Some(w), None, Some(m), Some(l)) => (w.mm(), section(m, l) / w.mm(), LogGiven { mass: None, ..left }),
        (None, Some(_), ..) => {
            return Err(
                InputError::refused("given", "With a height, also type the width, or the weight and length.").into()
            );
        }
        (_, None, ..) => return Ok((form, left)),
    };
    let width = Length::from_mm(wide).map_err(|_| InputError::new("width_mm", Problem::NotFinite))?;
    Ok((form.kind().with_height(high / wide), LogGiven { width: Some(width), ..solved }))
}

/// Solves a log for the measures that are not given; so much is cut off at each end.
///
/// Fails, naming the field, where not exactly three are given, where the three do not determine the others, and where one of
/// them comes out of its range. A last slice counts from 80 % of the others' thickness.
pub fn solve_log(form: LogForm, given: &LogGiven, trim: Length, density: Density) -> Result<Log, InputErrors> {
    let (form, given) = settled(form, given, trim, density)?;
    let form = form.checked()?;
    let count = [given.mass.is_some(), given.length.is_some(), given.width.is_some(), given.slice.is_some()]
        .into_iter()
        .chain([given.slices.is_some()])
        .filter(|&g| g)
        .count();
    if count != 3 {
        let why =
            format!("Type 3 of these: weight, length, width, slice thickness, number of slices. You have {count}.");
        return Err(InputError::refused("given", why).into());
    }
    let (mut mass, mut length, mut width) =
        (given.mass.map(Mass::g), given.length.map(Length::mm), given.width.map(Length::mm));
    let mut slice = given.slice.map(Length::mm);
    let mut slices = given.slices;
    check(mass, length, width, slice, slices)?;
    let ends = 2.0 * trim.mm();
    // One pass finds what follows from what is given, the next what follows from that.
    for _ in 0..2 {
        match (length, slice, slices) {
            (None, Some(t), Some(n)) => length = Some(t * f64::from(n) + ends),
            (Some(l), None, Some(n)) => slice = Some((l - ends) / f64::from(n)),
            _ => {}
        }
        match (mass, length, width) {
            (None, Some(l), Some(w)) => {
                mass = Some(form.area(Length::new_mm(w)).mass_at(Length::new_mm(l), density).g())
            }
            (Some(m), None, Some(w)) => {
                length = Some(m * 1e6 / density.kg_m3() / form.area(Length::new_mm(w)).mm2());
            }
            (Some(m), Some(l), None) => width = Some(form.width(m * 1e6 / density.kg_m3() / l)),
            _ => {}
        }
    }
    if let (Some(l), Some(t), None) = (length, slice, slices) {
        slices = Some(sliced(l - ends, t).0);
    }
    check(mass, length, width, slice, slices)?;
    let (Some(mass), Some(length), Some(width), Some(slice), Some(slices)) = (mass, length, width, slice, slices)
    else {
        let why = "Those three already fix each other. Choose a different one to type.";
        return Err(InputError::refused("given", why).into());
    };
    let (_, short_last) = if given.slices.is_some() { (slices, None) } else { sliced(length - ends, slice) };
    let whole = slices - u32::from(short_last.is_some());
    let width = Length::new_mm(width);
    let area = form.area(width);
    let cut = f64::from(whole) * slice + short_last.unwrap_or(0.0);
    let mut cuts: Vec<Length> = (0..=whole).map(|i| trim + Length::new_mm(slice) * f64::from(i)).collect();
    cuts.extend(short_last.map(|last| trim + Length::new_mm(f64::from(whole) * slice + last)));
    Ok(Log {
        mass: Mass::new_g(mass),
        length: Length::new_mm(length),
        width,
        height: form.height(width),
        slice: Length::new_mm(slice),
        slices,
        short_last: short_last.map(Length::new_mm),
        rest: Length::new_mm((length - ends - cut).max(0.0)),
        slice_mass: area.mass_at(Length::new_mm(slice), density),
        ends: area.mass_at(Length::new_mm((length - cut).max(0.0)), density),
        cuts,
    })
}

/// Slices of a length, and the last one where it is thinner and counts.
fn sliced(usable_mm: f64, slice_mm: f64) -> (u32, Option<f64>) {
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "in range where it is used")]
    let whole = (usable_mm.max(0.0) / slice_mm + 1e-9).floor().min(1e6) as u32;
    let rest = usable_mm - f64::from(whole) * slice_mm;
    if rest >= LAST_SLICE * slice_mm - 1e-9 { (whole + 1, Some(rest)) } else { (whole, None) }
}

fn check(
    mass: Option<f64>,
    length: Option<f64>,
    width: Option<f64>,
    slice: Option<f64>,
    slices: Option<u32>,
) -> Result<(), InputErrors> {
    let mut checks = Checks::new();
    for (field, value, (low, high), unit) in [
        ("mass_g", mass, MASS_G, "g"),
        ("length_mm", length, LENGTH_MM, "mm"),
        ("width_mm", width, ACROSS_MM, "mm"),
        ("slice_mm", slice, THICKNESS_MM, "mm"),
        ("slices", slices.map(f64::from), (1.0, f64::from(MOST_SLICES)), "slices"),
    ] {
        if let Some(value) = value {
            checks.range(field, value, low, high, unit);
        }
    }
    checks.finish(())
}

/// A batch divided into logs of one mass that are no longer than `longest`, 100 to 500 mm: how many, and the mass of each.
///
/// Fails, naming the field, for a batch or a length out of range.
pub fn divide_batch(
    form: LogForm,
    batch: Mass,
    width: Length,
    longest: Length,
    density: Density,
) -> Result<(u32, Mass), InputErrors> {
    let form = form.checked()?;
    let mut checks = Checks::new();
    checks.range("longest_mm", longest.mm(), LONGEST_LOG_MM.0, LONGEST_LOG_MM.1, "mm");
    checks.finish(())?;
    check(Some(batch.g()), None, Some(width.mm()), None, None)?;
    let whole_mm = batch.g() * 1e6 / density.kg_m3() / form.area(width).mm2();
    #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "a batch in range, an area in range")]
    let logs = (whole_mm / longest.mm() - 1e-9).ceil().max(1.0) as u32;
    Ok((logs, batch * (1.0 / f64::from(logs))))
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;
    use rstest::rstest;

    fn density() -> Density {
        Density::new_kg_m3(1210.0)
    }

    fn mm(v: f64) -> Option<Length> {
        Some(Length::new_mm(v))
    }

    fn round(given: LogGiven) -> Log {
        solve_log(LogForm::Round, &given, LOG_TRIM, density()).unwrap()
    }

    #[test]
    fn a_log_of_which_nothing_is_said_is_as_large_as_one_hand_rolls() {
        let (slice, usual) = (Length::new_mm(7.0), LogGiven::default());
        let found = usual.or_usual(LogForm::Round, Mass::new_g(1450.4), slice);
        assert_eq!((found.known(), found.mass), (vec!["mass_g", "width_mm", "slice_mm"], Some(Mass::new_g(600.0))));
        assert_eq!(usual.or_usual(LogForm::Round, Mass::new_g(412.3), slice).mass, Some(Mass::new_g(412.0)));
        let said = LogGiven { slices: Some(12), ..usual };
        assert_eq!(said.or_usual(LogForm::Round, Mass::new_g(412.3), slice), said);
    }

    /// Worked by hand: 450 g / 1.21 g/cm3 / (pi 4.8^2 / 4 cm2) = 20.55 cm; 195.5 mm hold 32 slices of 6 mm and 3.5 mm.
    #[test]
    fn a_round_log_of_450_g_gives_32_slices() {
        let log =
            round(LogGiven { mass: Some(Mass::new_g(450.0)), width: mm(48.0), slice: mm(6.0), ..LogGiven::default() });
        assert!((log.length.mm() - 205.5).abs() < 0.05, "{log:?}");
        assert_eq!((log.slices, log.short_last), (32, None));
        assert!((log.rest.mm() - 3.5).abs() < 0.05);
        assert_eq!((log.cuts.len(), log.cuts[0].mm(), log.cuts[32].mm()), (33, 5.0, 197.0));
        assert!((log.slice_mass.g() * 32.0 + log.ends.g() - 450.0).abs() < 1e-9);
        assert_eq!(LogForm::Round.turned_every(), Some(TURN_EVERY));
    }

    /// By hand: 25 mm^2 pi / 8 for half a round 25 wide, 30 x 20 / 2 for a wedge.
    #[rstest]
    #[case(LogForm::Square, 40.0, 1600.0, 40.0)]
    #[case(LogForm::Oblong { height_to_width: 0.5 }, 60.0, 1800.0, 30.0)]
    #[case(LogForm::HalfRound, 25.0, 245.44, 12.5)]
    #[case(LogForm::Wedge { height_to_width: 2.0 / 3.0 }, 30.0, 300.0, 20.0)]
    fn sections_have_their_area_and_height(
        #[case] form: LogForm,
        #[case] width: f64,
        #[case] mm2: f64,
        #[case] high: f64,
    ) {
        let width = Length::new_mm(width);
        assert!((form.area(width).mm2() - mm2).abs() < 0.01 && (form.height(width).mm() - high).abs() < 1e-9);
        assert!((form.width(form.area(width).mm2()) - width.mm()).abs() < 1e-9);
    }

    #[test]
    fn a_last_slice_counts_from_four_fifths_on() {
        let log =
            |length| round(LogGiven { length: mm(length), width: mm(50.0), slice: mm(10.0), ..LogGiven::default() });
        let (short, counts) = (log(10.0 + 57.9), log(10.0 + 58.0));
        assert_eq!((short.slices, short.short_last, counts.slices), (5, None, 6));
        assert!((counts.short_last.unwrap().mm() - 8.0).abs() < 1e-9 && counts.rest.mm() < 1e-9);
        assert!((counts.cuts.last().unwrap().mm() - 63.0).abs() < 1e-9);
    }

    /// By hand: 600 g / 1.21 are 495.9 mL; 60 mm by 33.06 mm by 250 mm.
    #[test]
    fn three_of_mass_length_width_and_height_settle_a_bar_and_a_slice_divides_it() {
        let oblong = LogForm::Oblong { height_to_width: 1.0 };
        let (mass, length, width, height) = (Some(Mass::new_g(600.0)), mm(250.0), mm(60.0), mm(33.058));
        let none = LogGiven::default();
        for given in [
            LogGiven { mass, length, width, ..none },
            LogGiven { mass, length, height, ..none },
            LogGiven { mass, width, height, ..none },
            LogGiven { length, width, height, ..none },
        ] {
            let given = given.or_usual(oblong, Mass::new_g(2000.0), Length::new_mm(6.0));
            let bar = solve_log(oblong, &given, LOG_TRIM, density()).unwrap();
            let close = |a: f64, b: f64| (a - b).abs() < 0.05;
            assert!(close(bar.mass.g(), 600.0) && close(bar.length.mm(), 250.0), "{given:?}: {bar:?}");
            assert!(close(bar.width.mm(), 60.0) && close(bar.height.mm(), 33.06) && bar.slices == 40, "{bar:?}");
        }
        let said = |form, given: LogGiven| {
            let given = given.or_usual(form, Mass::new_g(2000.0), Length::new_mm(6.0));
            solve_log(form, &given, LOG_TRIM, density()).unwrap_err().to_string()
        };
        assert!(said(oblong, LogGiven { height, slice: mm(6.0), slices: Some(12), ..none }).contains("height"));
        assert!(said(LogForm::Round, LogGiven { mass, width, height, ..none }).contains(""));
        // Of a half-round, its height says its width.
        let half = LogGiven { height: mm(25.0), length, slice: mm(6.0), ..none };
        let half = solve_log(LogForm::HalfRound, &half, LOG_TRIM, density()).unwrap();
        assert!((half.width.mm() - 50.0).abs() < 1e-9);
    }

    #[test]
    fn kept_ends_are_slices_too() {
        let given = LogGiven { length: mm(300.0), width: mm(45.0), slice: mm(6.0), ..LogGiven::default() };
        let kept = solve_log(LogForm::Round, &given, Length::new_mm(0.0), density()).unwrap();
        assert_eq!((kept.slices, round(given).slices), (50, 48));
        assert!(kept.ends.g() < 1e-9 && kept.cuts[0].mm() == 0.0);
    }

    #[test]
    fn twelve_slices_of_a_given_thickness_ask_for_their_width() {
        // By hand: 12 x 8 + 10 = 106 mm; 300 g / 1.21 / 10.6 cm = 23.39 cm2, 54.6 mm across.
        let log =
            round(LogGiven { mass: Some(Mass::new_g(300.0)), slice: mm(8.0), slices: Some(12), ..LogGiven::default() });
        assert!((log.length.mm() - 106.0).abs() < 1e-9 && (log.width.mm() - 54.57).abs() < 0.02, "{log:?}");
    }

    #[rstest]
    #[case::too_few(LogGiven { mass: Some(Mass::new_g(300.0)), ..LogGiven::default() }, "given", "You have 1")]
    #[case::idle(LogGiven { mass: Some(Mass::new_g(300.0)), length: mm(200.0), width: mm(40.0), ..LogGiven::default() }, "given", "Choose a different one")]
    #[case::thin(LogGiven { mass: Some(Mass::new_g(300.0)), width: mm(3.0), slice: mm(6.0), ..LogGiven::default() }, "width_mm", "8 to 250")]
    #[case::long(LogGiven { mass: Some(Mass::new_g(90_000.0)), width: mm(20.0), slice: mm(6.0), ..LogGiven::default() }, "length_mm", "20 to 3000")]
    #[case::all_ends(LogGiven { length: mm(20.0), width: mm(40.0), slice: mm(30.0), ..LogGiven::default() }, "slices", "1 to 2000")]
    fn what_cannot_be_solved_says_why(#[case] given: LogGiven, #[case] field: &str, #[case] said: &str) {
        let errors = solve_log(LogForm::Round, &given, LOG_TRIM, density()).unwrap_err();
        let error = &errors.all()[0];
        let text = format!("{} {}", error.problem(), error.problem().accepted());
        assert_eq!(error.field(), field);
        assert!(text.contains(said), "{text}");
    }

    #[test]
    fn a_batch_is_divided_into_equal_logs_no_longer_than_the_shelf() {
        let divided = |batch: f64| {
            divide_batch(LogForm::Round, Mass::new_g(batch), Length::new_mm(48.0), Length::new_mm(300.0), density())
                .unwrap()
        };
        // By hand: 656.9 g are 300 mm of it.
        assert_eq!(divided(650.0), (1, Mass::new_g(650.0)));
        let (logs, each) = divided(1500.0);
        assert_eq!(logs, 3);
        assert!((each.g() - 500.0).abs() < 1e-9);
    }

    proptest! {
        // From 30 mm across: five thin slices of a half-round of 20 mm weigh less than the 10 g a log has at least.
        #[test]
        fn whatever_three_are_given_the_log_is_the_same(
            width in 30.0f64..90.0, slice in 3.0f64..15.0, slices in 5u32..60, form in 0usize..4,
        ) {
            let form = [LogForm::Round, LogForm::Square, LogForm::HalfRound, LogForm::Oblong { height_to_width: 0.6 }][form];
            let solve = |given: LogGiven| solve_log(form, &given, LOG_TRIM, density()).unwrap();
            let first = solve(LogGiven { width: mm(width), slice: mm(slice), slices: Some(slices), ..LogGiven::default() });
            let (mass, length) = (Some(first.mass), Some(first.length));
            for given in [
                LogGiven { mass, slice: mm(slice), slices: Some(slices), ..LogGiven::default() },
                LogGiven { mass, width: mm(width), slices: Some(slices), ..LogGiven::default() },
                LogGiven { mass, width: mm(width), slice: mm(slice), ..LogGiven::default() },
                LogGiven { length, width: mm(width), slice: mm(slice), ..LogGiven::default() },
                LogGiven { mass, length, slice: mm(slice), ..LogGiven::default() },
                LogGiven { mass, length, slices: Some(slices), ..LogGiven::default() },
            ] {
                let log = solve(given);
                prop_assert_eq!(log.slices, slices);
                prop_assert!((log.mass.g() / first.mass.g() - 1.0).abs() < 1e-9);
                prop_assert!((log.length.mm() - first.length.mm()).abs() < 1e-6);
                prop_assert!((log.width.mm() - width).abs() < 1e-6 && (log.slice.mm() - slice).abs() < 1e-6);
                prop_assert!((log.slice_mass.g() * f64::from(slices) + log.ends.g() - log.mass.g()).abs() < 1e-6);
            }
        }
    }
}
