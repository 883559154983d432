//! The basic doughs: each is what it is named for, and the forecast knows it.

use ready_slab_core::dough::{Character, Handling, KnownFor, STARTERS, Standing, Suits, packing};
use ready_slab_core::oven::{
    BakeEnd, BakeFit, BakePiece, EdgeColour, OvenDough, OvenSetup, Spreading, StandardSpread, forecast,
};
use ready_slab_core::units::{Length, Span, Temperature};

/// What is rolled and cut can be, and what the forecast says of it needs no warning: it stands on the first screen of a new bakery.
#[test]
fn a_basic_dough_is_what_it_is_for_and_inside_what_the_forecast_knows() {
    for s in &STARTERS {
        let formula = s.formula();
        let character = Character::of(&formula);
        let piece = BakePiece {
            thickness: Length::new_mm(s.thickness_mm),
            radius: Length::new_mm(30.0),
            start: Temperature::new_c(6.0),
            firm_as_at: Temperature::new_c(6.0),
            wait: Span::new_s(0.0),
        };
        let dough = OvenDough::of(&formula, s.method.air()).unwrap();
        let end = BakeEnd::Colour(EdgeColour::JustGolden);
        let told = forecast(&dough, &piece, &OvenSetup::usual(s.oven_c, false), &BakeFit::NONE, end).unwrap();
        let handles = character.handling.verdict;
        let suits = match s.suits {
            Suits::Cutter => handles == Handling::Right,
            Suits::Log => matches!(handles, Handling::Right | Handling::Soft),
            Suits::Balls => handles == Handling::Soft,
        };
        assert!(suits, "{}: {handles:?}, packed {:.3}", s.name, packing(&formula));
        assert!(character.standing != Standing::Piped && character.standing != Standing::Dry, "{}", s.name);
        assert_eq!((character.warnings, told.warnings), (vec![], vec![]), "{}", s.name);
        let spread = StandardSpread::of(&formula).judgement.verdict;
        let told = match s.known_for {
            // What is named for its edges keeps them, what is said to spread wide does.
            KnownFor::Shape | KnownFor::ShortAndTender | KnownFor::CleanSlices => {
                matches!(spread, Spreading::Hardly | Spreading::ALittle)
            }
            KnownFor::SweetAndRich => matches!(spread, Spreading::Spreads | Spreading::Far),
            KnownFor::SweetAndCrisp | KnownFor::SoftAndRich | KnownFor::Figures => spread != Spreading::Far,
        };
        assert!(told, "{}: {spread:?}", s.name);
    }
}
