//! What a new job is asked for, and how it is set until somebody says otherwise.

use crate::dough::{RecipeSays, Starter};
use crate::finish::Finish;
use crate::job::settings::job::JobInput;
use crate::job::settings::making::Making;
use chrono::NaiveDateTime;

/// A slice of a log, mm, until somebody says. Common practice, no source.
const USUAL_SLICE_MM: f64 = 7.0;

/// What a new job is asked for.
#[derive(Debug, Clone)]
pub struct Asked<'a> {
    /// What it is called.
    pub name: &'a str,
    /// Number of its formula.
    pub formula_id: i64,
    /// Number of its cutter.
    pub cutter_id: i64,
    /// How its pieces are made.
    pub making: Making,
    /// How many; as most are when nobody said.
    pub pieces: Option<u32>,
    /// How thick; as usual for the way they are made when nobody said.
    pub thickness_mm: Option<f64>,
    /// For when.
    pub ready_by: NaiveDateTime,
    /// What goes onto or between its pieces; those of the job it is like where there are none.
    pub finishes: Vec<Finish>,
    /// The basic dough it is of, which knows how it is usually mixed, rolled and baked.
    pub of: Option<&'a Starter>,
    /// What its recipe says of method, thickness, oven and pieces, as far as that was not refused.
    pub says: RecipeSays,
    /// The job whose settings it takes, where somebody asked for that.
    pub like: Option<&'a JobInput>,
    /// The rolling guides of the kitchen.
    pub rods_mm: &'a [f64],
}

/// A usual thickness goes to a rolling guide this near, mm: 6 mm is 1/4 in where the guides are of inches, and 7 mm lies between two of millimetres. Our own
/// choice.
const NEAR_A_GUIDE_MM: f64 = 0.8;

/// A thickness as the kitchen's rolling guides have it, where one is near.
fn by_guide(thickness_mm: f64, rods_mm: &[f64]) -> f64 {
    let off = |rod: &f64| (rod - thickness_mm).abs();
    let nearest = rods_mm.iter().copied().min_by(|a, b| off(a).total_cmp(&off(b)));
    nearest.filter(|rod| off(rod) <= NEAR_A_GUIDE_MM).unwrap_or(thickness_mm)
}

impl Asked<'_> {
    /// The new job.
    #[must_use]
    pub fn input(self) -> JobInput {
        let base = match self.like {
            Some(like) => like.again(self.name, self.ready_by).with(|j| {
                j.order.formula_id = self.formula_id;
                j.order.cutter_id = self.cutter_id;
            }),
            None => JobInput::usual(self.name, self.formula_id, self.cutter_id, self.ready_by),
        };
        let usually = match (&self.making, self.of) {
            (Making::Sliced { .. }, None) => USUAL_SLICE_MM,
            (Making::Sliced { .. }, Some(of)) if of.suits != crate::dough::Suits::Log => USUAL_SLICE_MM,
            (_, Some(of)) => of.thickness_mm,
            (_, None) => base.shape.thickness_mm,
        };
        let (method, oven_c) = self.of.map_or((base.dough.method, base.oven.oven_c), |of| (of.method, of.oven_c));
        let (method, oven_c) = (self.says.method.unwrap_or(method), self.says.oven.unwrap_or(oven_c));
        let usually = self.says.thickness.unwrap_or_else(|| by_guide(usually, self.rods_mm));
        // A job like another is made and set like it; what is asked for here goes before.
        let same_way = self.like.is_some_and(|like| like.shape.making == self.making);
        base.with(|j| {
            j.order.pieces = self.pieces.or(self.says.pieces).unwrap_or(j.order.pieces);
            j.shape.thickness_mm = self.thickness_mm.unwrap_or(if same_way { j.shape.thickness_mm } else { usually });
            if self.like.is_none() {
                (j.dough.method, j.oven.oven_c) = (method, oven_c);
            }
            j.shape.making = self.making;
            if !self.finishes.is_empty() {
                j.finish.finishes = self.finishes;
            }
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::shape::{LogForm, Portion, USUAL_LOG_ACROSS};

    fn asked(making: Making) -> Asked<'static> {
        let ready_by = NaiveDateTime::parse_from_str("2026-11-28T14:00", crate::clock::MINUTE_FORMAT).expect("a time");
        Asked {
            name: "Hearts",
            formula_id: 1,
            cutter_id: 2,
            making,
            pieces: None,
            thickness_mm: None,
            ready_by,
            finishes: vec![],
            of: None,
            says: RecipeSays::default(),
            like: None,
            rods_mm: &[3.0, 5.0, 6.0, 8.0, 10.0],
        }
    }

    #[test]
    fn a_usual_thickness_is_that_of_the_nearest_guide() {
        let us = [3.175, 4.7625, 6.35, 9.525, 12.7];
        let thick =
            |of, rods_mm| Asked { of: Starter::of(of), rods_mm, ..asked(Making::Cut) }.input().shape.thickness_mm;
        // Common practice: 1/4 in where the guides are of inches, 6 mm where they are of millimetres.
        assert_eq!((thick("holds-its-shape", &us), thick("holds-its-shape", &[5.0, 6.0, 8.0])), (6.35, 6.0));
        // Between two guides, or with none, it stays as it is.
        assert_eq!((thick("short-and-tender", &us), thick("short-and-tender", &[])), (8.0, 8.0));
        let says = RecipeSays { thickness: Some(6.0), ..RecipeSays::default() };
        assert_eq!(Asked { says, rods_mm: &us, ..asked(Making::Cut) }.input().shape.thickness_mm, 6.0);
    }

    #[test]
    fn what_its_recipe_says_becomes_the_job_unless_somebody_says_otherwise() {
        let says = RecipeSays {
            method: Some(crate::dough::MixMethod::Pulsed),
            thickness: Some(4.8),
            oven: Some(163.0),
            pieces: Some(36),
            ..RecipeSays::default()
        };
        let job = Asked { says, pieces: None, thickness_mm: None, ..asked(Making::Cut) }.input();
        assert_eq!(
            (job.dough.method, job.shape.thickness_mm, job.oven.oven_c, job.order.pieces),
            (crate::dough::MixMethod::Pulsed, 4.8, 163.0, 36)
        );
        let own = Asked { says, pieces: Some(12), thickness_mm: Some(8.0), ..asked(Making::Cut) }.input();
        assert_eq!((own.shape.thickness_mm, own.order.pieces), (8.0, 12));
    }

    #[test]
    fn what_nobody_said_is_as_most_do_it() {
        let log = Making::sliced(LogForm::Round, USUAL_LOG_ACROSS);
        assert_eq!(asked(Making::Cut).input().shape.thickness_mm, 6.0);
        assert_eq!(asked(log).input().shape.thickness_mm, USUAL_SLICE_MM);
        let short = Asked { of: Starter::of("short-and-tender"), ..asked(Making::Cut) }.input();
        assert_eq!((short.shape.thickness_mm, short.oven.oven_c), (8.0, 165.0));
    }

    #[test]
    fn only_a_job_asked_to_be_like_another_takes_its_settings_and_never_its_layout() {
        let balls = Making::Portioned(Portion::Ball { mass: Portion::USUAL_BALL });
        let other = asked(Making::Cut).input().with(|j| {
            j.shape.thickness_mm = 4.0;
            j.shape.rerolls = 0;
            j.oven.oven_c = 190.0;
            j.dough.dough_c = Some(25.0);
        });
        let like = Asked { like: Some(&other), pieces: Some(12), ..asked(Making::Cut) }.input();
        assert_eq!(
            (like.shape.thickness_mm, like.shape.rerolls, like.oven.oven_c, like.dough.dough_c, like.order.pieces),
            (4.0, 0, 190.0, None, 12)
        );
        let portions = Asked { like: Some(&other), ..asked(balls.clone()) }.input();
        assert_eq!((portions.shape.making, portions.oven.oven_c), (balls, 190.0));
    }
}
