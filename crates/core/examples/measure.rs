//! Prints median times of the core's parts, for `bench/run.mjs`: `cargo run --release -p ready-slab-core --example measure`.

#[path = "../tests/all/bakehouse/mod.rs"]
#[expect(dead_code, reason = "what the tests share; two of its parts are measured here")]
mod bakehouse;

use ready_slab_core::cold::{
    ChillQuestion, Piece, Place, PlaceKnowledge, Reading, Spot, Support, Target, Wrap, chill_briefly, section,
};
use ready_slab_core::dough::{Composition, FatKind, Formula, Pantry};
use ready_slab_core::geometry::{Outline, read_svg};
use ready_slab_core::job::{
    ColdPlace, Followed, Job, Kitchen, LaidAt, Plan, WaySizes, Whereabouts, bake_levers, follow, plan, question_of_way,
    wanted_ways, ways,
};
use ready_slab_core::recipe::{ReadSettings, read_recipe};
use ready_slab_core::shape::{LatticeTable, Spacing, TrayRules, fill_trays};
use ready_slab_core::units::{Length, Span, Temperature, TemperatureDifference};
use std::error::Error;
use std::time::Instant;

fn median_ms(mut work: impl FnMut()) -> f64 {
    let mut times: Vec<f64> = (0..21)
        .map(|_| {
            let start = Instant::now();
            work();
            start.elapsed().as_secs_f64() * 1000.0
        })
        .collect();
    times.sort_by(f64::total_cmp);
    times[times.len() / 2]
}

fn gull() -> Result<Outline, Box<dyn Error>> {
    let svg = include_str!("../../../demo/cutters/gull.svg");
    Ok(read_svg(svg, Some(Length::new_mm(96.0)))?)
}

/// The neck of an outline with as many points as are accepted, all of them points of a star.
fn neck() -> Result<(), Box<dyn Error>> {
    let corner = |i: i32| {
        let (turn, r) = (std::f64::consts::TAU * f64::from(i) / 5000.0, if i % 2 == 0 { 45.0 } else { 41.0 });
        (r * turn.cos(), r * turn.sin())
    };
    let points: Vec<(f64, f64)> = (0..5000).map(corner).collect();
    let star = Outline::new(&points)?;
    println!(
        "outline of 5,000 points, checked\t{:.2}",
        median_ms(|| drop(std::hint::black_box(Outline::new(&points))))
    );
    println!(
        "its narrowest neck\t{:.2}",
        median_ms(|| {
            std::hint::black_box(star.narrowest_neck());
        })
    );
    Ok(())
}

/// One bake, a thin and a wide one, the widest there is, and all levers of one.
fn bakes(job: &Job, plan: &Plan) -> Result<(), Box<dyn Error>> {
    let question = &plan.oven.question;
    let sized = |high: f64, across: f64, oven_c: f64| {
        let mut other = question.clone();
        (other.piece.thickness, other.piece.radius) = (Length::new_mm(high), Length::new_mm(across / 2.0));
        other.oven.air = Temperature::new_c(oven_c);
        other
    };
    let all = [
        ("oven, one bake", question.clone()),
        ("oven, one bake of 3 mm", sized(3.0, 65.0, 175.0)),
        ("oven, one bake of 18 x 180 mm at 155", sized(18.0, 180.0, 155.0)),
    ];
    for (name, question) in all {
        println!("{name}\t{:.2}", median_ms(|| drop(std::hint::black_box(question.answer()))));
    }
    let planned = question.answer()?.bake;
    let board = || {
        let levers = bake_levers(question, None, &plan.dough.mixes.formula, job.input().dough.method);
        levers.map(|all| all.iter().map(|l| l.effect(planned)).collect::<Vec<_>>())
    };
    println!("oven, all levers on one thread\t{:.2}", median_ms(|| drop(std::hint::black_box(board()))));
    Ok(())
}

/// What each view of the cold station computes beside the plan.
fn cold_screens(job: &Job, kitchen: &Kitchen, plan: &Plan) -> Result<(), Box<dyn Error>> {
    let sizes = WaySizes::default();
    let all = || ways(job, kitchen, plan, &sizes);
    println!("cold, all twelve other ways with their states\t{:.2}", median_ms(|| drop(std::hint::black_box(all()))));
    bakes(job, plan)?;
    let found = all()?;
    let chosen = found.iter().find(|w| w.chosen).ok_or("the chosen way")?;
    let question = question_of_way(job, kitchen, plan, chosen)?;
    let inside = || section(&question, Span::new_min(95.0), 36);
    println!("cold, the inside of one of them\t{:.2}", median_ms(|| drop(std::hint::black_box(inside()))));
    let screen = || (all(), inside());
    println!("cold, the whole screen of other ways\t{:.2}", median_ms(|| drop(std::hint::black_box(screen()))));
    let wanted = || wanted_ways(job, kitchen, plan, Span::new_min(20.0));
    println!("cold, ways to have it ready at a time\t{:.2}", median_ms(|| drop(std::hint::black_box(wanted()))));
    let followed = Followed {
        composition: plan.dough.composition.clone(),
        piece: plan.cold.form.piece,
        target: Target::Rolling,
        start: plan.dough.temperature,
        flour_rests: Span::new_s(0.0),
        puts: vec![LaidAt {
            place: Whereabouts::Cold(ColdPlace::Fridge),
            from: Span::new_min(0.0),
            before: PlaceKnowledge::default(),
        }],
    };
    let piece = follow(kitchen, &followed)?;
    let run = piece.live(&[])?;
    for count in [1, 12, 100] {
        let shown = |i: i32| {
            let after = Span::new_min(0.7 * f64::from(i + 1));
            // Half a degree below what was expected, in turns a little more and less.
            let shows = run.shows(after, Spot::Core) + TemperatureDifference::new_k(-0.5 - 0.2 * f64::from(i % 3 - 1));
            Reading { after, shows, spot: Spot::Core }
        };
        let readings: Vec<Reading> = (0..count).map(shown).collect();
        let fitted = || piece.live(&readings);
        println!(
            "cold, a followed disc refitted to {count} readings\t{:.2}",
            median_ms(|| drop(std::hint::black_box(fitted())))
        );
    }
    Ok(())
}

fn main() -> Result<(), Box<dyn Error>> {
    neck()?;
    let mm = Length::new_mm;
    let b = Composition::from_analysis(0.1457, 0.2018, 0.0575, 0.5799, 0.0035, 0.0116, FatKind::Butter)?;
    let fridge = Place::new(4.0, 7.0)?;
    for (name, piece) in [
        ("chill run, 6 mm sheet", Piece::Sheet { thickness: mm(6.0) }),
        ("chill run, 22 mm disc", Piece::Disc { thickness: mm(22.0), diameter: mm(180.0) }),
        ("chill run, 100 mm ball", Piece::Ball { diameter: mm(100.0) }),
    ] {
        let question =
            ChillQuestion::new(b.clone(), piece, Wrap::Wrapped, Support::Rack, 20.5, fridge, Target::Rolling)?;
        println!("{name}\t{:.2}", median_ms(|| drop(std::hint::black_box(chill_briefly(&question)))));
    }
    for (name, piece, film, air) in [
        ("chill run, 50 mm log", Piece::Log { diameter: mm(50.0) }, 7.0, 4.0),
        ("chill run, 60 x 35 mm bar, fan fridge", Piece::Bar { width: mm(60.0), height: mm(35.0) }, 14.0, 2.0),
    ] {
        let place = Place::new(air, film)?;
        let question =
            ChillQuestion::new(b.clone(), piece, Wrap::Wrapped, Support::Rack, 20.5, place, Target::Slicing)?;
        println!("{name}\t{:.2}", median_ms(|| drop(std::hint::black_box(chill_briefly(&question)))));
    }
    let outline = gull()?;
    println!(
        "narrowest neck of a cutter\t{:.2}",
        median_ms(|| {
            std::hint::black_box(outline.narrowest_neck());
        })
    );
    let spacing = Spacing::new(3.0, 4.0)?;
    println!(
        "sheet layouts, all lengths of one width\t{:.2}",
        median_ms(|| drop(std::hint::black_box(LatticeTable::for_sheet(&outline, mm(310.0), mm(440.0), spacing))))
    );
    let trays = TrayRules::new(310.0, 440.0, 4, 25.0)?;
    let recipe = include_str!("twenty_lines.txt");
    println!(
        "a recipe of twenty lines, read\t{:.2}",
        median_ms(|| {
            drop(std::hint::black_box(read_recipe(recipe, Pantry::built_in(), &ReadSettings::default(), &[])));
        })
    );
    println!(
        "tray layout\t{:.2}",
        median_ms(|| drop(std::hint::black_box(fill_trays(&outline, 48, mm(2.4), &trays, &[]))))
    );
    let lines = [
        ("flour-ap", 430.0),
        ("cornstarch", 30.0),
        ("butter", 225.0),
        ("sugar-caster", 190.0),
        ("egg", 50.0),
        ("lemon-zest", 6.0),
        ("thyme", 3.0),
        ("salt", 3.0),
    ];
    let formula = Formula::new("Lemon-thyme", &lines.map(Into::into), Pantry::built_in())?;
    let kitchen = Kitchen::new(bakehouse::kitchen_input())?;
    let job = Job::new(bakehouse::job_input())?;
    println!("full plan\t{:.2}", median_ms(|| drop(std::hint::black_box(plan(&job, &formula, &outline, &kitchen)))));
    cold_screens(&job, &kitchen, &plan(&job, &formula, &outline, &kitchen)?)
}
