//! Every sentence, read through in both systems of units: one snapshot a station, metric first, US units beneath where they differ.

use crate::said::{advice, bench, clock, cold, day, dough, finish, levers, oven, plan, recipe, shape};
use ready_slab_core::units::{Share, TemperatureDifference};
use ready_slab_words::{Part, Say, Sentence, System, all};

fn told(sentences: &[Sentence]) -> String {
    let lines = sentences.iter().map(|s| {
        let (metric, us) = (s.text(System::Metric), s.text(System::Us));
        if metric == us { metric } else { format!("{metric}\n    {us}") }
    });
    lines.collect::<Vec<_>>().join("\n")
}

/// A length, a mass or a temperature that stands in the words themselves would be told in metric units to everybody.
fn hidden_quantity(text: &str) -> bool {
    let after_number = |unit: &str| {
        text.match_indices(unit).any(|(at, _)| {
            let ends = text[at + unit.len()..].chars().next().is_none_or(|c| !c.is_alphanumeric() && c != '/');
            ends && text[..at].trim_end().ends_with(|c: char| c.is_ascii_digit())
        })
    };
    [" mm", " cm", " g", " kg", "\u{b0}"].into_iter().any(after_number)
}

fn check(name: &str, sentences: &[Sentence]) {
    for sentence in sentences {
        let text = sentence.text(System::Metric);
        assert!(!text.trim().is_empty() && !text.contains("  ") && text == text.trim(), "{name}: {text:?}");
        for part in sentence.parts() {
            if let Part::Text(words) = part {
                // What was typed in Fahrenheit is told in the degrees that were asked for.
                let meant = words.contains("if Fahrenheit is meant");
                assert!(meant || !hidden_quantity(words), "{name}: a quantity in the words of {text:?}");
            }
        }
        assert_eq!(Sentence::read(&text).text(System::Metric), text, "{name}: braces in {text:?}");
    }
    insta::assert_snapshot!(name, told(sentences));
}

#[test]
fn dough_reads_well() {
    check("dough", &dough());
}

#[test]
fn cold_reads_well() {
    check("cold", &cold());
}

#[test]
fn advice_reads_well() {
    check("advice", &advice());
}

#[test]
fn bench_reads_well() {
    check("bench", &bench());
}

#[test]
fn shape_reads_well() {
    check("shape", &shape());
}

#[test]
fn oven_reads_well() {
    check("oven", &oven());
}

#[test]
fn evenness_reads_well() {
    use ready_slab_core::ledger::{EvenMeasure, Evenness as E, NoChance, Signal};
    let (width, thickness, share) = (EvenMeasure::Width, EvenMeasure::Thickness, Share::new(0.56));
    let tolerance = ready_slab_core::units::Length::from_mm(0.5).unwrap();
    let comes_to = [
        E::Within(width, share),
        E::Within(thickness, share),
        E::Trays(width, share),
        E::Days(thickness, share),
        E::Beyond(Share::new(0.001), tolerance),
        E::Beyond(Share::new(0.034), tolerance),
        E::Beyond(Share::new(0.34), tolerance),
        E::CouldKeep,
        E::CouldNotKeep,
    ];
    let signals = [Signal::Above, Signal::Below, Signal::OneSide, Signal::Rises, Signal::Falls, Signal::TwoOfThree];
    let kinds: [fn(Signal) -> NoChance; 3] =
        [|s| NoChance::Mean(EvenMeasure::Width, s), |s| NoChance::Mean(EvenMeasure::Thickness, s), NoChance::Range];
    let no_chance: Vec<NoChance> = kinds.iter().flat_map(|of| signals.map(of)).collect();
    check("evenness", &[all(&comes_to), all(&no_chance)].concat());
}

#[test]
fn lessons_read_well() {
    use ready_slab_core::oven::Lesson as L;
    let k = TemperatureDifference::new_k;
    let oven = |offset, measured| L::Oven { offset: k(offset), sd: k(4.0), measured };
    let share = Share::new(0.12);
    let lessons = [
        oven(-9.0, false),
        oven(7.4, true),
        oven(0.6, false),
        L::Measured,
        L::Heats(1.2, share),
        L::Heats(0.8, share),
        L::Spreads(0.5, share),
        L::Spreads(1.03, share),
        L::Spreads(1.49, share),
        L::Spreads(2.0, share),
        L::Takes(1.15),
        L::Takes(0.85),
        L::Browns(1.3),
        L::Browns(0.8),
        L::AllSpread(1.4),
        L::NothingOfIt,
        L::Differ(1.8, 1.2),
        L::Held { times: (8, 7), spreads: (8, 8) },
        L::Held { times: (0, 0), spreads: (2, 1) },
    ];
    check("lessons", &all(&lessons));
}

#[test]
fn a_photo_reads_well() {
    use ready_slab_core::geometry::PlaceOnPiece;
    use ready_slab_core::ledger::PhotoNote as N;
    let dark = |of, at_point| N::Dark { of, all: 6, place: PlaceOnPiece::UpperLeft, at_point };
    let one = [N::OverTheEdge(1), N::Touching(1), N::NoCutter(1), N::NothingAt(1), dark(1, false), dark(6, true)];
    let more = [N::OverTheEdge(3), N::Touching(2), N::NoCutter(2), N::NothingAt(2), N::BurntOut, N::Aside];
    check("photo", &[all(&one), all(&more)].concat());
}

#[test]
fn plan_reads_well() {
    check("plan", &[plan(), levers()].concat());
}

#[test]
fn finish_reads_well() {
    check("finish", &finish());
}

#[test]
fn clock_reads_well() {
    check("clock", &clock());
}

#[test]
fn the_day_reads_well() {
    check("day", &day());
}

#[test]
fn recipe_reads_well() {
    check("recipe", &recipe());
}

#[test]
fn whole_sentences_end_as_sentences() {
    let whole = [dough(), plan()].concat();
    for said in whole {
        let text = said.text(System::Metric);
        let begins = text.starts_with(char::is_uppercase);
        assert!(!begins || text.ends_with(['.', '?']), "{text}");
    }
    // Several things at once are each said.
    let two = all(&[ready_slab_core::safety::Caution::ColdRule, ready_slab_core::safety::Caution::PowerOff]);
    assert!(two[1].text(System::Us).ends_with(&two[0].text(System::Us)));
    assert!(ready_slab_core::safety::Caution::ColdRule.say().text(System::Us).contains("at 41\u{b0}F or below"));
}

/// What stands beside every finish is the same in both systems, so it may hold no quantity of either.
#[test]
fn when_a_finish_goes_on_is_told_without_figures() {
    use ready_slab_core::finish::{Coat, FillingKind, GlazeWay, SugarCoat};
    let fillings = [FillingKind::Jam, FillingKind::Chocolate, FillingKind::Icing].map(Coat::usual_filling);
    let all = [
        Coat::Sugar(SugarCoat::Coarse),
        Coat::Sugar(SugarCoat::Powdered),
        Coat::Sugar(SugarCoat::CoarseAfter),
        Coat::usual_glaze(GlazeWay::Spread, false),
        Coat::usual_glaze(GlazeWay::Spread, true),
        Coat::usual_glaze(GlazeWay::Drizzled, false),
        Coat::usual_glaze(GlazeWay::Dipped, false),
        Coat::usual_jam_baked(),
        Coat::usual_dip(),
        Coat::Drizzle,
        Coat::usual_royal(false),
        Coat::usual_royal(true),
        Coat::usual_fondant(),
        Coat::usual_buttercream(),
    ];
    let mut names = Vec::new();
    for coat in all.into_iter().chain(fillings) {
        let (name, when) = ready_slab_words::coat(coat);
        assert!(!hidden_quantity(name) && !hidden_quantity(when), "{name}: {when}");
        names.push(name);
    }
    names.sort_unstable();
    names.dedup();
    assert_eq!(names.len(), 17, "two finishes go by one name");
}
