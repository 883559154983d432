//! What follows from the table, the conditions and the model.

use super::*;
use crate::cold::TrayKind;
use crate::dough::{Formula, LineInput, Pantry};
use crate::geometry::{Builtin, BuiltinKind};
use crate::job::{AsBaked, Job, JobInput, Kitchen, KitchenInput};
use crate::oven::{EdgeColour, TrayLiner};
use crate::units::{Length, Span, Temperature};
use chrono::NaiveDate;

fn baked(change: impl FnOnce(&mut JobInput, &mut KitchenInput)) -> AsBaked {
    let lines = [("butter", 100.0), ("sugar", 80.0), ("flour-ap", 150.0), ("egg", 22.0), ("salt", 1.0)];
    let lines: Vec<LineInput> = lines.iter().map(|l| (*l).into()).collect();
    let ready = NaiveDate::from_ymd_opt(2026, 12, 5).unwrap().and_hms_opt(14, 0, 0).unwrap();
    let (mut job, mut kitchen) = (JobInput::usual("Gulls", 1, 1, ready), KitchenInput::usual());
    change(&mut job, &mut kitchen);
    AsBaked {
        job: Job::new(job).unwrap(),
        formula: Formula::new("Dough", &lines, Pantry::built_in()).unwrap(),
        outline: Builtin::new(BuiltinKind::Round, 65.0, 0.0).unwrap().outline().unwrap(),
        kitchen: Kitchen::new(kitchen).unwrap(),
        start: Temperature::new_c(6.0),
    }
}

fn record(widths: &[f64], minutes: Option<f64>, edge: EdgeColour) -> BakeRecord {
    BakeRecord::new(Length::new_mm(65.0), Length::new_mm(6.0), widths, &[], minutes, edge, "").unwrap()
}

fn weighed(seen: &[Seen], baked: &AsBaked, record: &BakeRecord, clues: &[(Cause, bool)]) -> Causes {
    let expected = (Span::new_min(10.0), Span::new_min(13.0));
    let baked = baked.weighed_by(record, expected);
    causes(&CauseAsked { seen, baked: Some(&baked), record, learnt: None, clues }).unwrap()
}

fn of(found: &Causes, cause: Cause) -> &Suspect {
    found.suspects.iter().find(|s| s.cause == cause).unwrap()
}

#[test]
fn every_symptom_has_its_suspects_and_shares_are_together_one() {
    let (baked, record) = (baked(|_, _| {}), record(&[68.0], None, EdgeColour::JustGolden));
    for seen in Seen::ALL {
        assert!(
            seen.suspects().len() > 1 && seen.suspects().iter().all(|(_, step)| (1..=5).contains(step)),
            "{seen:?}"
        );
        let found = weighed(&[seen], &baked, &record, &[]);
        let whole: f64 = found.suspects.iter().map(|s| s.share.value()).sum::<f64>() + found.another.value();
        assert!((whole - 1.0).abs() < 1e-9, "{seen:?}");
        assert!(found.suspects.is_sorted_by(|a, b| a.share >= b.share));
        assert!(found.test.is_some());
    }
    let none = causes(&CauseAsked { seen: &[], baked: None, record: &record, learnt: None, clues: &[] });
    assert_eq!(none.unwrap_err().all()[0].field(), "seen");
}

#[test]
fn conditions_speak_for_what_they_hold_and_against_what_they_lack() {
    let record = record(&[70.0, 70.4], None, EdgeColour::JustGolden);
    let on = |liner| baked(|job, _| job.oven.liner = liner);
    let seen = [Seen::SpreadTooFar];
    let share = |baked: &AsBaked, cause| of(&weighed(&seen, baked, &record, &[]), cause).share.value();
    let (greased, paper) = (on(TrayLiner::Greased), on(TrayLiner::Parchment));
    assert!(share(&greased, Cause::SlipperyTray) > 3.0 * share(&paper, Cause::SlipperyTray));
    let dark = baked(|_, k| k.trays.tray_kind = TrayKind::Steel);
    let under = |b: &AsBaked| of(&weighed(&[Seen::UnderDark], b, &record, &[]), Cause::DarkTray).share.value();
    assert!(under(&dark) > 0.5 && under(&paper) < 0.2, "{} {}", under(&dark), under(&paper));
    // No leavener, butter alone: what the table knows of them is told as speaking against them.
    let found = weighed(&seen, &paper, &record, &[]);
    assert!(of(&found, Cause::Leavener).evidence.contains(&Evidence::Fact(Fact::Leavener(false), false)));
    assert!(of(&found, Cause::Leavener).share.value() < 0.03, "{found:#?}");
}

#[test]
fn the_model_tells_a_cool_oven_by_pale_edges_and_a_clue_moves_what_it_is_about() {
    let baked = baked(|_, _| {});
    let seen = [Seen::SpreadTooFar];
    let far = [73.0, 73.4, 72.8];
    let pale = weighed(&seen, &baked, &record(&far, Some(12.0), EdgeColour::Pale), &[]);
    let brown = weighed(&seen, &baked, &record(&far, Some(12.0), EdgeColour::Golden), &[]);
    assert!(of(&pale, Cause::OvenCool).share > of(&brown, Cause::OvenCool).share, "{pale:#?}");
    let before = of(&pale, Cause::FlourShort).share;
    let after = weighed(&seen, &baked, &record(&far, Some(12.0), EdgeColour::Pale), &[(Cause::FlourShort, true)]);
    assert!(of(&after, Cause::FlourShort).share > before);
    assert!(of(&after, Cause::FlourShort).evidence.contains(&Evidence::Clue(true)));
    let not = weighed(&seen, &baked, &record(&far, Some(12.0), EdgeColour::Pale), &[(Cause::FlourShort, false)]);
    assert!(of(&not, Cause::FlourShort).share < before);
    // What came out is more than forecast, and what explains it says how much of that.
    assert!(pale.came_out.unwrap() > pale.forecast.unwrap());
    assert!(of(&pale, Cause::WarmPieces).explains.unwrap().value() > 0.02, "{pale:#?}");
}

#[test]
fn two_things_seen_at_once_point_to_what_is_behind_both() {
    let (baked, record) = (baked(|_, _| {}), record(&[68.0], None, EdgeColour::Pale));
    let both = weighed(&[Seen::SpreadTooFar, Seen::Pale], &baked, &record, &[]);
    assert_eq!(both.suspects[0].cause, Cause::OvenCool, "{:?}", both.suspects);
    assert!(
        of(&both, Cause::OvenCool).share
            > of(&weighed(&[Seen::SpreadTooFar], &baked, &record, &[]), Cause::OvenCool).share
    );
}

#[test]
fn a_test_reads_itself_out() {
    let baked = baked(|_, _| {});
    let brown = record(&[66.0, 66.4, 65.7], Some(11.0), EdgeColour::Brown);
    let test = weighed(&[Seen::SpreadTooFar], &baked, &brown, &[(Cause::SheetThin, true)]).test.unwrap();
    assert_eq!(test.tell, Tell::Beside, "{test:?}");
    let wider = |cause: Cause| test.expects.iter().find(|e| e.cause == cause).unwrap().wider.unwrap();
    let from = test.from.unwrap();
    // What comes out as one of the two would have it makes that one the likelier of them.
    for (one, other) in [(test.of, from), (from, test.of)] {
        let after = test.after(Found::Wider(wider(one)));
        let share = |cause: Cause| after.iter().find(|(c, _)| *c == cause).unwrap().1.value();
        let before = |cause: Cause| test.expects.iter().find(|e| e.cause == cause).unwrap().share.value();
        assert!(share(one) / share(other) > before(one) / before(other), "{one:?} {other:?}");
        assert!(after.iter().map(|(_, s)| s.value()).sum::<f64>() < 1.0);
    }
    // By hand: it helped, or it did not.
    let hand = weighed(&[Seen::Cracks], &baked, &record(&[66.0], None, EdgeColour::Pale), &[]).test.unwrap();
    assert_eq!((hand.tell, hand.of), (Tell::ByHand, Cause::BelowWindow));
    let (yes, no) = (hand.after(Found::Helped(true)), hand.after(Found::Helped(false)));
    assert_eq!(yes[0].0, Cause::BelowWindow);
    assert_eq!(no[0].0, Cause::FlourHeavy);
}
