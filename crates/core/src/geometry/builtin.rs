//! Cutters with a formula for an outline. Sizes are across, as a tin cutter is sold.

use super::{Outline, drawn};
use crate::error::{InputError, InputErrors};
use crate::units::Length;
use serde::{Deserialize, Serialize};
use std::f64::consts::TAU;

/// The built-in forms.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BuiltinKind {
    /// A circle.
    Round,
    /// An ellipse.
    Oval,
    /// A square.
    Square,
    /// An oblong.
    Oblong,
    /// A circle with twelve scallops.
    Scalloped,
    /// A regular hexagon, width from flat to flat.
    Hexagon,
    /// A flower of five petals.
    Petal,
    /// A circle with a round hole, whose size takes the place of the height.
    Ring,
    /// A heart.
    Heart,
    /// A star of five points.
    Star,
    /// A fir.
    Tree,
    /// A gingerbread figure.
    Figure,
    /// A crescent.
    Crescent,
    /// A mitten.
    Mitten,
    /// A leaf with its stalk.
    Leaf,
    /// A capital letter or a figure, as high as its width says.
    Letter,
}

impl BuiltinKind {
    /// All of them, in the order they are offered.
    pub const ALL: [Self; 16] = [
        Self::Round,
        Self::Scalloped,
        Self::Heart,
        Self::Star,
        Self::Tree,
        Self::Figure,
        Self::Oval,
        Self::Square,
        Self::Oblong,
        Self::Hexagon,
        Self::Petal,
        Self::Leaf,
        Self::Mitten,
        Self::Crescent,
        Self::Ring,
        Self::Letter,
    ];

    /// What it is usually sold as, across, mm; a letter, high. Common practice, no source.
    #[must_use]
    pub const fn usual_mm(self) -> f64 {
        match self {
            Self::Figure | Self::Tree | Self::Leaf => 70.0,
            Self::Crescent | Self::Heart | Self::Star | Self::Mitten => 75.0,
            Self::Letter => 80.0,
            _ => 65.0,
        }
    }

    /// The second size of a form that has two, as it usually is sold, mm: an oval and an oblong seven tenths as long, a ring's hole four tenths
    /// of it. Common practice, no source.
    #[must_use]
    pub fn usual_second_mm(self) -> Option<f64> {
        let of = if matches!(self, Self::Ring) { 0.4 } else { 0.7 };
        self.takes_height().then(|| of * self.usual_mm())
    }

    /// Whether a height is needed besides the width.
    #[must_use]
    pub const fn takes_height(self) -> bool {
        matches!(self, Self::Oval | Self::Oblong | Self::Ring)
    }
}

/// A built-in cutter of a size.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Builtin {
    kind: BuiltinKind,
    letter: Option<char>,
    width: Length,
    height: Length,
}

impl Builtin {
    /// A cutter `width` across, and `height` along where the form has two sizes (else `height` is not looked at).
    pub fn new(kind: BuiltinKind, width_mm: f64, height_mm: f64) -> Result<Self, InputErrors> {
        let mut checks = crate::error::Checks::new();
        let (least, most) = super::outline::EXTENT_MM;
        checks.range("width_mm", width_mm, least, most, "mm");
        if kind.takes_height() {
            checks.range("height_mm", height_mm, least, most, "mm");
        }
        checks.finish(())?;
        let height = if kind.takes_height() { height_mm } else { width_mm };
        Ok(Self { kind, letter: None, width: Length::new_mm(width_mm), height: Length::new_mm(height) })
    }

    /// A form in the size it is usually sold in; of letters an A.
    pub fn usual(kind: BuiltinKind) -> Result<Self, InputErrors> {
        let across = kind.usual_mm();
        Ok(Self::new(kind, across, kind.usual_second_mm().unwrap_or(across))?.of_letter('A'))
    }

    /// The same of another letter or figure; no matter for any other form.
    #[must_use]
    pub fn of_letter(self, letter: char) -> Self {
        Self { letter: Some(letter), ..self }
    }

    /// Its outline, flat to within 0.1 mm of the true curve.
    pub fn outline(&self) -> Result<Outline, InputError> {
        let (a, b) = (self.width.mm() / 2.0, self.height.mm() / 2.0);
        let around = |n: u32, at: &dyn Fn(f64) -> (f64, f64)| -> Vec<(f64, f64)> {
            (0..n).map(|i| at(f64::from(i) / f64::from(n) * TAU)).collect()
        };
        // Sagitta s of a chord on radius r: n = pi / acos(1 - s/r); 0.05 mm keeps well inside 0.1 mm.
        let chords = |r: f64| -> u32 {
            #[expect(clippy::cast_possible_truncation, clippy::cast_sign_loss, reason = "between 24 and 360")]
            let n = (TAU / 2.0 / (1.0 - 0.05 / r).acos()).ceil().clamp(24.0, 360.0) as u32;
            n.next_multiple_of(12)
        };
        let drawn = |parts| drawn::figure_outline(parts, self.width);
        let points = match self.kind {
            BuiltinKind::Heart => return drawn(drawn::HEART),
            BuiltinKind::Star => return drawn(drawn::STAR),
            BuiltinKind::Tree => return drawn(drawn::TREE),
            BuiltinKind::Figure => return drawn(drawn::FIGURE),
            BuiltinKind::Crescent => return drawn(drawn::CRESCENT),
            BuiltinKind::Mitten => return drawn(drawn::MITTEN),
            BuiltinKind::Leaf => return drawn(drawn::LEAF),
            BuiltinKind::Letter => {
                let Some(letter) = self.letter else {
                    return Err(InputError::refused("letter", "which letter from A to Z, or figure from 0 to 9?"));
                };
                return drawn::letter_outline(letter, self.width);
            }
            BuiltinKind::Round | BuiltinKind::Oval => around(chords(a.max(b)), &|t| (a * t.cos(), b * t.sin())),
            BuiltinKind::Ring => {
                let hole = around(chords(b), &|t| (b * t.cos(), b * t.sin()));
                return Outline::with_holes(&around(chords(a), &|t| (a * t.cos(), a * t.sin())), &[hole]);
            }
            BuiltinKind::Square | BuiltinKind::Oblong => vec![(-a, -b), (a, -b), (a, b), (-a, b)],
            BuiltinKind::Hexagon => {
                let r = a / (TAU / 12.0).cos();
                around(6, &|t| (r * (t + TAU / 12.0).cos(), r * (t + TAU / 12.0).sin()))
            }
            BuiltinKind::Scalloped => around(144, &|t| {
                let r = a * (0.95 + 0.05 * (12.0 * t).cos());
                (r * t.cos(), r * t.sin())
            }),
            BuiltinKind::Petal => {
                let flower = around(180, &|t| {
                    let r = 0.78 + 0.22 * (5.0 * t).cos();
                    (r * t.cos(), r * t.sin())
                });
                let (low, high) = flower.iter().fold((f64::MAX, f64::MIN), |(l, h), p| (l.min(p.0), h.max(p.0)));
                let scale = 2.0 * a / (high - low);
                flower.iter().map(|p| (p.0 * scale, p.1 * scale)).collect()
            }
        };
        Outline::new(&points)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    fn every_form_is_as_wide_as_it_says() {
        for kind in BuiltinKind::ALL.into_iter().filter(|kind| *kind != BuiltinKind::Letter) {
            let outline = Builtin::new(kind, 60.0, 40.0).unwrap().outline().unwrap();
            assert!((outline.extent().0.mm() - 60.0).abs() < 0.15, "{:?} {:?}", kind, outline.extent());
        }
    }

    #[test]
    fn a_round_has_the_area_of_a_circle() {
        let outline = Builtin::new(BuiltinKind::Round, 65.0, 0.0).unwrap().outline().unwrap();
        let circle = std::f64::consts::PI * 32.5 * 32.5;
        assert!((outline.area().mm2() / circle - 1.0).abs() < 0.005);
    }

    #[test]
    fn sizes_no_cutter_has_are_refused() {
        assert!(Builtin::new(BuiltinKind::Round, 3.0, 0.0).is_err());
        assert!(Builtin::new(BuiltinKind::Oval, 60.0, f64::NAN).is_err());
    }

    #[test]
    fn every_form_has_a_usual_size_and_a_letter_wants_its_sign() {
        for kind in BuiltinKind::ALL {
            assert!(Builtin::usual(kind).unwrap().outline().is_ok(), "{kind:?}");
        }
        let unsaid = Builtin::new(BuiltinKind::Letter, 60.0, 0.0).unwrap();
        assert_eq!(unsaid.outline().unwrap_err().field(), "letter");
        assert!(unsaid.of_letter('k').outline().is_ok());
    }
}
