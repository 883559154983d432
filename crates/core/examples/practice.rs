//! Prints everyday figures of ten whole jobs and of 31 doughs over the map, to be set beside what bakers take: the tables of docs/practice.md.

use chrono::NaiveDate;
use ready_slab_core::dough::{Character, Formula, LineInput, MixMethod, Pantry};
use ready_slab_core::geometry::{Builtin, BuiltinKind};
use ready_slab_core::job::{ColdPlace, DoughForm, Job, JobInput, Kitchen, KitchenInput, Making, plan};
use ready_slab_core::oven::StandardSpread;
use ready_slab_core::shape::{LogForm, Portion};
use ready_slab_core::units::{Length, Mass};

type Lines = Vec<(&'static str, f64)>;

fn formula(lines: &[(&str, f64)]) -> Formula {
    let lines: Vec<LineInput> = lines.iter().map(|l| (*l).into()).collect();
    Formula::new("Dough", &lines, Pantry::built_in()).expect("a dough")
}

fn classic() -> Lines {
    vec![("flour-ap", 375.0), ("butter", 227.0), ("sugar", 200.0), ("egg", 50.0), ("baking-powder", 4.6)]
}

fn short() -> Lines {
    vec![("flour-ap", 340.0), ("butter", 227.0), ("sugar", 113.0), ("salt", 3.0)]
}

fn icebox() -> Lines {
    vec![("flour-ap", 312.0), ("butter", 227.0), ("sugar", 130.0), ("yolk", 36.0), ("salt", 3.0)]
}

fn spiced() -> Lines {
    vec![("flour-ap", 417.0), ("butter", 185.0), ("sugar-brown", 110.0), ("honey", 100.0), ("egg", 50.0)]
}

/// A job and its kitchen, and how long a baker takes for it all told, hours. Common practice, no source.
type Whole = (&'static str, Lines, JobInput, KitchenInput, &'static str);

fn jobs() -> Vec<Whole> {
    let ready = NaiveDate::from_ymd_opt(2026, 12, 5).and_then(|d| d.and_hms_opt(14, 0, 0)).expect("a time");
    let usual = || JobInput::usual("Job", 1, 1, ready);
    let kitchen = KitchenInput::usual;
    let ball = |g: f64| Making::Portioned(Portion::Ball { mass: Mass::new_g(g) });
    let log = || Making::sliced(LogForm::Round, Length::new_mm(50.0));
    vec![
        ("24 stars of 65 mm, disc in the fridge", classic(), usual(), kitchen(), "2"),
        (
            "24 stars, rolled first, fridge",
            classic(),
            usual().with(|j| j.cold.dough_form = DoughForm::Sheets),
            kitchen(),
            "1\u{be}",
        ),
        (
            "24 stars, disc in the freezer",
            classic(),
            usual().with(|j| {
                j.cold.chill_place = ColdPlace::Freezer;
                j.cold.tray_chill_place = ColdPlace::Freezer;
            }),
            kitchen(),
            "1\u{bd} to 1\u{be}",
        ),
        ("24 stars, room at 27 \u{b0}C", classic(), usual(), kitchen().with(|k| k.house.room_c = 27.0), "2 to 2\u{bd}"),
        ("48 stars, two trays at a time", classic(), usual().with(|j| j.order.pieces = 48), kitchen(), "2\u{bd} to 3"),
        (
            "24 shortbreads of 8 mm, rubbed in",
            short(),
            usual().with(|j| {
                j.shape.thickness_mm = 8.0;
                j.oven.oven_c = 165.0;
                j.dough.method = MixMethod::RubbedIn;
            }),
            kitchen(),
            "2 to 2\u{bd}",
        ),
        (
            "40 slices of 7 mm from a log of 50 mm, fridge",
            icebox(),
            usual().with(|j| {
                j.order.pieces = 40;
                j.shape.thickness_mm = 7.0;
                j.shape.making = log();
            }),
            kitchen(),
            "3\u{bd} to 5",
        ),
        (
            "40 slices, log in the freezer",
            icebox(),
            usual().with(|j| {
                j.order.pieces = 40;
                j.shape.thickness_mm = 7.0;
                j.shape.making = log();
                j.cold.chill_place = ColdPlace::Freezer;
            }),
            kitchen(),
            "2 to 2\u{bd}",
        ),
        (
            "36 balls of 25 g",
            vec![("flour-ap", 280.0), ("butter", 227.0), ("sugar", 200.0), ("egg", 50.0)],
            usual().with(|j| {
                j.order.pieces = 36;
                j.shape.making = ball(25.0);
            }),
            kitchen(),
            "1\u{bd} to 2",
        ),
        (
            "30 spiced figures of 5 mm",
            spiced(),
            usual().with(|j| {
                j.order.pieces = 30;
                j.shape.thickness_mm = 5.0;
            }),
            kitchen(),
            "2 to 2\u{bd}",
        ),
    ]
}

fn map() -> Vec<(String, Lines)> {
    let mut all = vec![];
    for sugar in [0.3, 0.6, 0.9, 1.3, 1.8] {
        for flour in [1.0, 1.3, 1.65, 2.0, 2.5] {
            let of = format!("1 : {sugar} : {flour}, an egg");
            all.push((
                of,
                vec![("flour-ap", 227.0 * flour), ("butter", 227.0), ("sugar", 227.0 * sugar), ("egg", 50.0)],
            ));
        }
    }
    let with = |more: &[(&'static str, f64)], without: &str| -> Lines {
        classic().into_iter().filter(|l| l.0 != without).chain(more.iter().copied()).collect()
    };
    all.push((
        "classic, 50 g of its flour cocoa".to_owned(),
        with(&[("flour-ap", -50.0 + 375.0), ("cocoa", 50.0)], "flour-ap"),
    ));
    all.push((
        "classic, a fifth of its flour starch".to_owned(),
        with(&[("flour-ap", 300.0), ("cornstarch", 75.0)], "flour-ap"),
    ));
    all.push(("classic with shortening".to_owned(), with(&[("shortening", 200.0)], "butter")));
    all.push(("classic without egg".to_owned(), with(&[], "egg")));
    all.push(("short dough".to_owned(), short()));
    all.push(("spiced with honey".to_owned(), spiced()));
    all
}

fn main() {
    println!("job\tminutes all told\tchill\tbake, middle\tleast\tmost\tbakers, h");
    for (name, lines, job, kitchen, bakers) in jobs() {
        let outline = Builtin::new(BuiltinKind::Round, 65.0, 0.0).expect("a round").outline().expect("its outline");
        let job = Job::new(job).expect("a job");
        let kitchen = Kitchen::new(kitchen).expect("a kitchen");
        match plan(&job, &formula(&lines), &outline, &kitchen) {
            Ok(p) => {
                let all = -p.clock.relay.start_min;
                let e = &p.oven.expected;
                println!(
                    "{name}\t{all}\t{}\t{:.0}\t{:.1}\t{:.1}\t{bakers}",
                    p.clock.chill_min,
                    (e.bake.0.min() * e.bake.1.min()).sqrt(),
                    e.bake.0.min(),
                    e.bake.1.min()
                );
            }
            Err(why) => println!("{name}\t{why}"),
        }
    }
    println!("\ndough\tin the hand\tspread of a round of 65 mm");
    for (name, lines) in map() {
        let formula = formula(&lines);
        let spread = StandardSpread::of(&formula);
        println!(
            "{name}\t{:?}\t{:?}, {:.0} %",
            Character::of(&formula).handling.verdict,
            spread.judgement.verdict,
            100.0 * spread.across.value()
        );
    }
}
