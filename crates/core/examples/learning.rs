//! What bakes teach, over made-up kitchens whose truth is known: how far the forecast's middle is off afterwards, how wide its ranges are, and how often
//! the next bake lies within them. The table of docs/ledger.md. `cargo run --release --example learning [KITCHENS]`.

use rand::{RngExt as _, SeedableRng as _};
use rand_pcg::Pcg64Mcg;
use ready_slab_core::dough::{Formula, LineInput, Pantry};
use ready_slab_core::oven::{
    BakeEnd, BakeFit, BakeForecast, BakeKnowledge, BakePiece, BakeRange, BakeSeen, EdgeColour, OvenDoubt, OvenDough,
    OvenSetup, Practice, forecast, learn_bakes,
};
use ready_slab_core::units::{Length, Share, Span, Temperature, TemperatureDifference};
use std::error::Error;

type Fault = Box<dyn Error + Send + Sync>;

/// What kitchens are made up.
#[derive(Clone, Copy, PartialEq)]
enum Kind {
    /// As unsure as before any bake.
    Usual,
    /// The oven 25 K off, to either side.
    OvenOff,
    /// The recipe spreads a third of the forecast.
    Third,
    /// One record of four is of another world: 1.7 times as long, spread twice as far.
    OddTray,
    /// Trays differ twice as much from each other as is usual.
    Rough,
    /// The same after twelve bakes.
    RoughTwelve,
    /// Six bakes of one recipe and two of another, both half again as far spread: the baker rolls thinner than he says.
    SecondRecipe,
}

const KINDS: [(Kind, &str); 7] = [
    (Kind::Usual, "as before any bake"),
    (Kind::OvenOff, "oven 25 K off"),
    (Kind::Third, "spreads a third"),
    (Kind::OddTray, "one tray of four odd"),
    (Kind::Rough, "trays differ twice as much"),
    (Kind::RoughTwelve, "the same, twelve bakes"),
    (Kind::SecondRecipe, "two bakes of a second recipe"),
];

const BAKES: [(f64, f64, f64); 4] = [(6.0, 65.0, 175.0), (6.0, 65.0, 190.0), (4.0, 45.0, 175.0), (8.0, 65.0, 165.0)];

fn dough() -> Result<OvenDough, Fault> {
    let lines = [("butter", 100.0), ("sugar", 90.0), ("flour-ap", 170.0), ("egg", 22.0), ("salt", 1.0)];
    let lines: Vec<LineInput> = lines.iter().map(|l| (*l).into()).collect();
    Ok(OvenDough::of(&Formula::new("Test", &lines, Pantry::built_in())?, 0.08)?)
}

struct Bell(Pcg64Mcg);

impl Bell {
    /// Twelve even numbers added up are near enough a bell of deviation 1.
    fn ring(&mut self) -> f64 {
        (0..12).map(|_| self.0.random::<f64>()).sum::<f64>() - 6.0
    }
}

struct Kitchen {
    dough: OvenDough,
    bell: Bell,
    noise: f64,
}

impl Kitchen {
    fn bake(&self, of: (f64, f64, f64), fit: &BakeFit) -> Result<(BakePiece, OvenSetup, BakeForecast), Fault> {
        let start = Temperature::from_c(6.0)?;
        let piece = BakePiece {
            thickness: Length::from_mm(of.0)?,
            radius: Length::from_mm(of.1 / 2.0)?,
            start,
            firm_as_at: start,
            wait: Span::from_s(0.0)?,
        };
        let oven = OvenSetup::usual(of.2, false);
        let found = forecast(&self.dough, &piece, &oven, fit, BakeEnd::Colour(EdgeColour::JustGolden))?;
        Ok((piece, oven, found))
    }

    fn recorded(&mut self, formula: usize, of: (f64, f64, f64), fit: &BakeFit) -> Result<BakeSeen, Fault> {
        let (piece, oven, found) = self.bake(of, fit)?;
        let (time, spread) = (self.noise * 0.05 * self.bell.ring(), self.noise * 0.006 * self.bell.ring());
        Ok(BakeSeen {
            formula,
            dough: self.dough.clone(),
            piece,
            oven,
            measured: None,
            end: BakeEnd::Colour(EdgeColour::JustGolden),
            bake: Some(found.bake * time.exp()),
            spread: Share::from_value(found.spread.value() + spread)?,
        })
    }
}

/// Of one kitchen: how far the middle is off (time, spread over width), half the width of the ranges, and whether the next lay within.
struct Row {
    off: [f64; 2],
    half: [f64; 2],
    within: [bool; 2],
}

fn kitchen(kind: Kind, seed: u64) -> Result<Row, Fault> {
    let mut k = Kitchen { dough: dough()?, bell: Bell(Pcg64Mcg::seed_from_u64(seed)), noise: 1.0 };
    let side = if k.bell.ring() > 0.0 { 1.0 } else { -1.0 };
    let mut truth = BakeFit {
        offset: TemperatureDifference::from_k(if kind == Kind::OvenOff { 25.0 * side } else { 15.0 * k.bell.ring() })?,
        heat: 1.0,
        spread: (0.5 * k.bell.ring()).exp(),
        time: (0.1 * k.bell.ring()).exp(),
        browning: (0.25 * k.bell.ring()).exp(),
    };
    if kind == Kind::Third {
        truth.spread = 1.0 / 3.0;
    }
    if matches!(kind, Kind::Rough | Kind::RoughTwelve) {
        k.noise = 2.0;
    }
    let mut seen = vec![];
    let mut asked = 0;
    if kind == Kind::SecondRecipe {
        truth.spread = 1.5 * (0.1 * k.bell.ring()).exp();
        for of in BAKES.into_iter().chain(BAKES).take(6) {
            seen.push(k.recorded(0, of, &truth)?);
        }
        truth.spread = 1.5 * (0.1 * k.bell.ring()).exp();
        truth.time = (0.1 * k.bell.ring()).exp();
        truth.browning = (0.25 * k.bell.ring()).exp();
        for of in BAKES.into_iter().take(2) {
            seen.push(k.recorded(1, of, &truth)?);
        }
        asked = 1;
    } else {
        let rounds = if kind == Kind::RoughTwelve { 3 } else { 1 };
        for of in BAKES.into_iter().cycle().take(4 * rounds) {
            seen.push(k.recorded(0, of, &truth)?);
        }
    }
    if kind == Kind::OddTray {
        let odd = &mut seen[1];
        odd.bake = odd.bake.map(|t| t * 1.7);
        odd.spread = Share::from_value(odd.spread.value() * 2.0 + 0.05)?;
    }
    let found: BakeKnowledge = learn_bakes(&seen)?.ok_or("nothing was learnt")?.of(asked);
    let nothing = TemperatureDifference::from_k(0.0)?;
    let (_, _, told) = k.bake(BAKES[0], &found.fit(nothing))?;
    let (_, _, really) = k.bake(BAKES[0], &truth)?;
    let practice = Practice { bake: (told.bake, told.bake), spread: (told.spread, told.spread) };
    let range = BakeRange::of(&told, &found, OvenDoubt { measured: false, swing: 0.0 }, &practice, false);
    let next = k.recorded(0, BAKES[0], &truth)?;
    let time = next.bake.ok_or("no time")?;
    Ok(Row {
        off: [(told.bake / really.bake).ln(), told.spread.value() - really.spread.value()],
        half: [0.5 * (range.bake.1 / range.bake.0).ln(), 0.5 * (range.spread.1.value() - range.spread.0.value())],
        within: [
            range.bake.0 <= time && time <= range.bake.1,
            range.spread.0 <= next.spread && next.spread <= range.spread.1,
        ],
    })
}

#[expect(clippy::cast_precision_loss, reason = "some hundred kitchens")]
fn main() -> Result<(), Fault> {
    let count: u64 = std::env::args().nth(1).map_or(Ok(200), |n| n.parse())?;
    println!("| {count} kitchens each | time: bias, off, half range, within | spread: bias, off, half range, within |");
    println!("|---|---|---|");
    for (kind, name) in KINDS {
        let half =
            |from: u64| (from..count).step_by(2).map(|seed| kitchen(kind, seed)).collect::<Result<Vec<Row>, Fault>>();
        let rows = std::thread::scope(|scope| {
            let other = scope.spawn(|| half(1));
            let mut rows = half(0)?;
            rows.extend(other.join().map_err(|_| "a kitchen broke down")??);
            Ok::<_, Fault>(rows)
        })?;
        let n = rows.len() as f64;
        let column = |i: usize| {
            let bias = rows.iter().map(|r| r.off[i]).sum::<f64>() / n;
            let off = (rows.iter().map(|r| r.off[i] * r.off[i]).sum::<f64>() / n).sqrt();
            let half = rows.iter().map(|r| r.half[i]).sum::<f64>() / n;
            let within = rows.iter().filter(|r| r.within[i]).count() as f64 / n;
            format!("{:+.1} %, {:.1} %, {:.1} %, {:.0} %", 100.0 * bias, 100.0 * off, 100.0 * half, 100.0 * within)
        };
        println!("| {name} | {} | {} |", column(0), column(1));
    }
    Ok(())
}
