//! What is said and asked of the lines of a recipe.

use crate::figure::{grams_fine, number, percent};
use crate::names::Name;
use crate::sentence::{Say, Sentence, listed, said};
use ready_slab_core::recipe::{Ask, LeftOut, ReadBy, Settle};
use ready_slab_core::units::Share;

fn quoted(text: &str) -> String {
    format!("\u{201c}{text}\u{201d}")
}

impl Say for ReadBy {
    fn say(&self) -> Sentence {
        match self {
            Self::YouSaidItIs { name } => said!["You said it is ", name, "."],
            Self::YouSaidGrams { mass } => said!["You said ", grams_fine(*mass), "."],
            Self::YouSaidAsRead => "You said it is right as it was read.".into(),
            Self::ReadAs { name } => said!["Read as ", name, "."],
            Self::TakenAsUnsalted => "Taken as unsalted, since it does not say.".into(),
            Self::BoardNotCounted => "What is for the board is not counted.".into(),
            Self::MiddleTaken { of } => said!["Of ", of, " the middle is taken."],
            Self::LevelTaken { word } => said!["It says ", *word, "; a level measure is taken."],
            Self::WeightOfACup { way } => said!["Its weight is that of a cup ", way.name(), "."],
            Self::WeightCounts { said, other } => said![said, " and ", other, " agree; the weight counts."],
            Self::SaysTheSame { other } => said![other, " says the same."],
            // What is written in ounces is told in grams to everybody: that is what is asked of it.
            Self::Weighs { said, mass } => {
                said![said, " is ", number(mass.g(), usize::from(mass.g() < 100.0)), "\u{a0}g."]
            }
            Self::PinchTakenAs { word, name, mass } => {
                said!["A ", *word, " of ", name, " is taken as ", grams_fine(*mass), "."]
            }
            Self::MeasureWeighs { word, name, way: Some(way), mass } => {
                said!["A ", *word, " of ", name, ", ", way.name(), ", is ", grams_fine(*mass), "."]
            }
            Self::MeasureWeighs { word, name, way: None, mass } => {
                said!["A ", *word, " of ", name, " is ", grams_fine(*mass), "."]
            }
            Self::StickWeighs { name, mass } => said!["A stick of ", name, " is ", grams_fine(*mass), "."],
            Self::EggWeighs { name, class, mass } => {
                said!["One ", name, " of size ", class.name(), " is ", grams_fine(*mass), "."]
            }
            Self::OneTakenAs { mass } => said!["That of one is taken as ", grams_fine(*mass), "."],
            Self::AsTheFileHasIt => "As the file has it.".into(),
            Self::HeardAs { said, is } => said![quoted(said), " is taken as ", *is, "."],
        }
    }
}

impl Say for Ask {
    fn say(&self) -> Sentence {
        match self {
            Self::LineTooLong { most } => {
                said!["The line is longer than ", *most, " characters; one ingredient to a line, please."]
            }
            Self::CornFlour => "Corn flour is the starch to one baker and ground maize to another. Which is it?".into(),
            Self::TwoThings { first, other } => said![
                "Two things on one line: ",
                first,
                " and ",
                other,
                ". Which is it? Put the other on a line of its own.",
            ],
            Self::NotKnown { word, name } => said![quoted(word), " is not known here. Is it ", name, "?"],
            Self::NotInThePantry { name } => {
                said![quoted(name), " is not in the pantry. Which ingredient is it?"]
            }
            Self::TwoAmounts { second } => said![
                "Two amounts on one line: ",
                quoted(second),
                " comes after the first. Put it on a line of its own.",
            ],
            Self::Several { names } => said![
                listed(names),
                " on one line. Which is it? Put the other",
                if names.len() > 2 { "s, each" } else { "" },
                " on a line of its own.",
            ],
            Self::HowMuch { name, to_taste: true } => said!["How much ", name, " is to your taste?"],
            Self::HowMuch { name, to_taste: false } => said!["How much ", name, "?"],
            Self::OutsideAnyDough => "That is far less or far more than any dough holds. What does it weigh?".into(),
            Self::MinusBefore => "There is a minus before the number. Is it a dash, or is something taken away?".into(),
            Self::TwoNumbers { text, large, small } => said![
                quoted(text),
                " is ",
                number(*large, 3),
                " to one reader and ",
                number(*small, 3),
                " to another. What does it weigh?",
            ],
            Self::GramsOfThat { name } => said!["What is the weight of that ", name, "?"],
            Self::GramsOfAMeasure { word, name } => said!["What does a ", word, " of ", name, " weigh?"],
            Self::GramsInAContainer { word, name } => said!["What does the ", name, " in a ", word, " weigh?"],
            Self::GramsEach { said, name } => said!["What is the weight of ", said, " ", name, "?"],
            Self::GramsOfAStick { name } => said!["What does a stick of ", name, " weigh?"],
            Self::GramsOf { said, name } => said!["What is the weight of ", said, " of ", name, "?"],
            Self::Disagrees { said, name, mass, other, apart } => said![
                said,
                " of ",
                name,
                " is ",
                grams_fine(*mass),
                ", but the line also says ",
                other,
                " (",
                if *apart > 0.0 { "+" } else { "" },
                percent(Share::new(*apart), 0),
                "). Which is right?",
            ],
            Self::NothingLeft { name } => said!["That leaves nothing of the ", name, ". What does it weigh?"],
            Self::NotUnderstood { text } => {
                said![quoted(text), " is not understood. Which ingredient is it, and what does it weigh?"]
            }
            Self::Unlikely { name, mass, flour, most } => said![
                grams_fine(*mass),
                " of ",
                name,
                " to ",
                grams_fine(*flour),
                " of flour is ",
                percent(Share::new(*mass / *flour), 0),
                "; no dough holds more than ",
                percent(*most, 0),
                ". Is it right?",
            ],
            Self::NoFlour { name, mass } => said![grams_fine(*mass), " of ", name, " and no flour. Is it right?"],
        }
    }
}

impl Say for LeftOut {
    fn say(&self) -> Sentence {
        match self {
            Self::ByYou => "You left it out.".into(),
            Self::NoIngredient => "A size, a heat or a time: no ingredient.".into(),
            Self::ForTheFinish => "For rolling, dusting or the finish: it is not part of the dough. What goes onto the pieces is planned under Finish.".into(),
            Self::ForTheBoard => "For dusting the board: not part of the dough.".into(),
            Self::Under { section } => said!["Under ", quoted(section), ": not part of the dough."],
        }
    }
}

impl Say for Settle {
    fn say(&self) -> Sentence {
        match self {
            Self::Is { name } => name.into(),
            Self::Weighs { mass, by: None } => grams_fine(*mass).into(),
            Self::Weighs { mass, by: Some(by) } => said![grams_fine(*mass), " (", by, ")"],
            Self::ADash => "A dash: the amount is right".into(),
            Self::ItIsRight => "It is right".into(),
            Self::NoIngredient => "Not an ingredient".into(),
        }
    }
}
