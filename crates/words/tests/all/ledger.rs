//! What is said of causes, trials and of what is worth measuring.

use ready_slab_core::ledger::{
    Cause, CauseTest, EvenMeasure, Evidence, Fact, Found, Seen, Tell, TrialVerdict, WithCause, Worth,
};
use ready_slab_core::oven::TrayLiner;
use ready_slab_core::units::{Length, Share, Temperature};
use ready_slab_words::{Name, Say, System, causes, trial_verdict};

fn mm(v: f64) -> Length {
    Length::from_mm(v).unwrap()
}

fn share(v: f64) -> Share {
    Share::from_value(v).unwrap()
}

fn metric(s: &ready_slab_words::Sentence) -> String {
    s.text(System::Metric)
}

#[test]
fn every_cause_has_a_name_a_question_a_test_and_a_remedy() {
    for seen in Seen::ALL {
        assert!(!seen.name().is_empty());
        for (cause, _) in seen.suspects() {
            let (name, asks, remedy) = (cause.name(), metric(&causes::asks(*cause)), metric(&causes::remedy(*cause)));
            let test =
                CauseTest { of: *cause, from: None, tell: Tell::ByHand, expects: vec![], pieces: 3, sd: mm(0.3) };
            let test = metric(&test.say());
            assert!(
                asks.ends_with('?') && test.ends_with('.') && remedy.ends_with('.'),
                "{cause:?}: {asks} {test} {remedy}"
            );
            assert!(
                name.chars().next().unwrap().is_lowercase() && !name.ends_with('.'),
                "it stands in a sentence: {name}"
            );
            // A temperature in words would be in one system only.
            for said in [name, &asks, &test, &remedy] {
                assert!(!said.contains("degree") && !said.contains('\u{b0}'), "{said}");
            }
        }
    }
}

fn beside(of: Cause) -> CauseTest {
    let expects = vec![
        WithCause { cause: of, share: share(0.4), wider: Some(mm(10.0) - mm(11.0)) },
        WithCause { cause: Cause::FlourShort, share: share(0.3), wider: Some(mm(10.0) - mm(10.2)) },
    ];
    CauseTest { of, from: Some(Cause::FlourShort), tell: Tell::Beside, expects, pieces: 5, sd: mm(0.2) }
}

#[test]
fn a_test_beside_others_says_how_many_and_in_either_system() {
    let warm = beside(Cause::WarmPieces).say();
    assert_eq!(
        metric(&warm),
        "Freeze 5 cookies of the next tray for 10 min before it goes in. Measure them and 5 others."
    );
    let cool = beside(Cause::OvenCool).say();
    assert_eq!(
        metric(&cool),
        "Bake the next tray 15\u{b0} hotter. Measure 5 of its cookies and 5 from a tray baked as before."
    );
    assert!(cool.text(System::Us).contains("27\u{b0}"), "{}", cool.text(System::Us));
}

#[test]
fn what_a_test_came_to_is_told_with_what_it_was_before_and_what_helps() {
    let test = beside(Cause::WarmPieces);
    let yes = metric(&causes::came_to(&test, Found::Wider(mm(10.0) - mm(11.0))));
    assert!(yes.starts_with("Most likely now: cookies went in warm, "), "{yes}");
    assert!(yes.ends_with("Chill the cut tray until firm. Use a cold tray."), "{yes}");
    let no = metric(&causes::came_to(&test, Found::Wider(mm(10.0) - mm(10.2))));
    assert!(no.starts_with("Most likely now: too little flour"), "{no}");
}

#[test]
fn evidence_is_told_as_it_stands_in_the_record() {
    for (evidence, says, speaks_for) in [
        (Evidence::Usual(5), "the usual first suspect", None),
        (Evidence::Fact(Fact::Leavener(false), false), "has no leavening", Some(false)),
        (Evidence::Fact(Fact::Liner(TrayLiner::Greased), true), "baked on greased tray", Some(true)),
        (Evidence::Fact(Fact::WentInAt(Temperature::from_c(16.0).unwrap()), true), "went in at 16 \u{b0}C", Some(true)),
        (Evidence::Fact(Fact::Rolls(2), true), "scraps re-rolled 2 times", Some(true)),
        (Evidence::Spread(share(0.032), true), "would give 3.2% spread: closer to yours", Some(true)),
        (Evidence::Edge(false), "would fit your edge color worse", Some(false)),
        (Evidence::Clue(true), "matches what you saw", Some(true)),
    ] {
        assert_eq!((metric(&evidence.say()).as_str(), causes::speaks_for(&evidence)), (says, speaks_for));
    }
}

#[test]
fn a_trial_is_told_by_the_names_of_its_ways() {
    let ways = ["as usual".to_owned(), "half powdered".to_owned()];
    let says = |v: TrialVerdict, measure| metric(&trial_verdict(&v, &ways, measure));
    let less =
        TrialVerdict::Differs { way: 1, by: mm(10.0) - mm(10.9), between: (mm(10.0) - mm(11.3), mm(10.0) - mm(10.5)) };
    assert_eq!(
        says(less, EvenMeasure::Width),
        "half powdered is 0.9 mm narrower than as usual (likely 0.5 to 1.3 mm)."
    );
    let more = TrialVerdict::Differs { way: 1, by: mm(0.4), between: (mm(0.2), mm(0.6)) };
    assert!(says(more, EvenMeasure::Thickness).contains("0.4 mm thicker than"));
    assert_eq!(
        says(TrialVerdict::Alike { way: 1, at_most: mm(0.7) }, EvenMeasure::Width),
        "No difference seen between half powdered and as usual. If there is one, it\u{2019}s under 0.7 mm."
    );
    assert!(says(TrialVerdict::TooFew(44), EvenMeasure::Width).ends_with("you need 44 cookies of each version."));
}

#[test]
fn what_is_worth_measuring_says_what_it_brings() {
    let says = |w: Worth| metric(&w.say());
    assert!(says(Worth::Oven(share(0.31), share(0.2))).ends_with("\u{b1}31% to about \u{b1}20%."));
    assert!(says(Worth::Minutes(3, share(0.3), share(0.2))).contains("none of your 3 bakes has them"));
    for worth in [
        Worth::Thicknesses,
        Worth::AnotherTray,
        Worth::FirstTray(share(0.8), share(0.4)),
        Worth::Widths(share(0.5), share(0.3)),
    ] {
        assert!(says(worth).ends_with('.'));
    }
}
