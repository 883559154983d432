//! One of every kind of sentence, with figures as a bakehouse has them.

mod bench;
mod day;
mod plan;

pub use bench::bench;
pub use day::day;
pub use plan::{levers, plan};
use ready_slab_core::clock::{ChillWaits, Held, MoreChill};
use ready_slab_core::cold::{ColdPlace, Feeling, Lies, Never, Target, WaterState};
use ready_slab_core::dough::{
    self, BalancePart, Beside, Bite, Browning, CupWay, Difference, EggClass, FatKind, Handling, MixStep, MixWork, Part,
    SCHOOLS, Spoons, SpreadCause, Standing, Texture,
};
use ready_slab_core::error::{InputError, Problem};
use ready_slab_core::finish;
use ready_slab_core::geometry::{NarrowKind, PlaceOnPiece, neck_warning};
use ready_slab_core::job::{
    self, AdviceCaution, Because, BenchWork, Enough, Headline, Measure, Notch, PartsAhead, PotCaution, PowerState,
    ReadSoFar, ReadingNote, Setting, When, WhenLate, Whereabouts,
};
use ready_slab_core::oven::{
    self, BakeEnd, BakeWarning, DoneBy, EdgeColour, LookFor, OvenSide, Profile, Shade, TrayLiner, TrayMaterial,
};
use ready_slab_core::recipe::{Ask, LeftOut, ReadBy, Settle};
use ready_slab_core::safety::Caution;
use ready_slab_core::shape::{KeptFault, MixedFault, Pattern, PatternKind, SheetForm, build_pattern};
use ready_slab_core::units::{Area, Density, Length, Mass, Share, Span, Temperature, TemperatureDifference};
use ready_slab_words::{
    Say, Sentence, all, difference, marbled_steps, mix_step, notch, pattern_steps, spread_beside, turn, when_late, why,
};

fn mm(v: f64) -> Length {
    Length::new_mm(v)
}

fn g(v: f64) -> Mass {
    Mass::new_g(v)
}

fn c(v: f64) -> Temperature {
    Temperature::new_c(v)
}

fn k(v: f64) -> TemperatureDifference {
    TemperatureDifference::new_k(v)
}

fn min(v: f64) -> Span {
    Span::new_min(v)
}

fn part(v: f64) -> Share {
    Share::new(v)
}

fn butter() -> String {
    "unsalted butter".to_owned()
}

pub fn dough() -> Vec<Sentence> {
    use dough::Reason as R;
    let spread = |cause, by| R::SpreadChanged { cause, by: part(by) };
    let schools = |nearest: usize, standing, more: f64, to_the_letter| R::AmongSchools {
        nearest: SCHOOLS[nearest],
        standing,
        more_flour: part(more),
        to_the_letter,
    };
    let class = EggClass::UsLarge;
    let egg = "whole egg".to_owned();
    let reasons = vec![
        R::BalanceSpreads { flour_to_rest: 0.894, range: (part(0.02), part(0.081)) },
        spread(SpreadCause::PowderedSugar(part(0.5)), -0.152),
        spread(SpreadCause::Starch(part(0.1)), -0.18),
        spread(SpreadCause::Wet(part(0.17)), 0.33),
        spread(SpreadCause::Dry(part(0.11)), -0.25),
        spread(SpreadCause::Powder(part(0.0076)), 0.61),
        spread(SpreadCause::Soda(part(0.005)), 1.7),
        R::Packed { handling: Handling::Firm, packing: part(0.85) },
        R::Packed { handling: Handling::Right, packing: part(0.78) },
        R::Packed { handling: Handling::Soft, packing: part(0.66) },
        R::Packed { handling: Handling::Pipeable, packing: part(0.5) },
        R::WaterToFlour { water: part(0.182) },
        R::FatStaysLiquid { share: part(0.42) },
        R::FatToFlour { fat: part(0.48) },
        R::Toughens { protein: part(0.103) },
        R::CrispBySugar { sugar: part(0.53) },
        R::Eats { texture: Texture::Chewy },
        R::Sugars { share: part(0.236) },
        R::LateWithoutEgg,
        R::BrownsEarly { share: part(0.061), pace: 2.1 },
        R::SodaBrowns,
        R::CocoaHides,
        R::FatBringsSalt { fat: "Salted butter".to_owned(), added: g(3.0) },
        R::Salty { salt: part(0.04), from: part(0.025) },
        R::LittleStrength { protein: part(0.03) },
        R::LiquidColour,
        R::MuchPowder { powder: part(0.04), from: part(0.03) },
        R::MuchSoda { soda: part(0.027), from: part(0.02) },
        R::MoreSugarThanFlour { sugar: g(260.0), flour: g(200.0) },
        schools(0, Standing::CutOut, 0.0, true),
        schools(0, Standing::SoftCutOut, -0.12, false),
        schools(3, Standing::ShortAndTender, 0.08, false),
        R::Keeps { egg: true, fresh: false, nuts: true },
        R::Keeps { egg: true, fresh: false, nuts: false },
        R::Keeps { egg: false, fresh: true, nuts: true },
        R::Keeps { egg: false, fresh: true, nuts: false },
        R::Keeps { egg: false, fresh: false, nuts: true },
        R::Keeps { egg: false, fresh: false, nuts: false },
        R::WouldLeaveTheBowl { butter: c(18.0), rest: c(23.0), dough: c(21.94), wanted: (c(18.0), c(21.0)) },
        R::PartGoesIn { part: Part::Fats, colder: true, at: c(16.0) },
        R::PartGoesIn { part: Part::Wet, colder: false, at: c(28.0) },
        R::PartGoesIn { part: Part::Dry, colder: true, at: c(12.0) },
        R::StillOff { by: k(3.4) },
        R::StillOff { by: k(-1.2) },
        R::EqualMixes { by_bowl: true, limit: g(1210.0), count: 2 },
        R::EqualMixes { by_bowl: false, limit: g(1200.0), count: 3 },
        R::MuchForOneBowl { times: 3.04 },
        R::MoreForWholeEggs { more: g(52.0), egg: egg.clone(), count: 1, class },
        R::LessThanHalfAnEgg { egg: egg.clone(), mass: g(14.0) },
        R::EggsTaken { egg, count: 2, class, mass: g(100.0), instead_of: g(88.0) },
        R::TooLittleForTheScale { mass: g(0.25), step: g(1.0), spoons: Some(Spoons::Pinch) },
        R::TooLittleForTheScale { mass: g(2.2), step: g(5.0), spoons: None },
        R::LeaveIt,
        R::HandfulHolds,
        R::AddNothingChill,
        R::WarmFat,
        R::WarmerThanWanted { dough: c(25.3), at_most: c(21.0) },
        R::NoMoreFlour,
        R::FlourWentIn { mass: g(26.0), at_most: part(0.06) },
        R::AddFlour { mass: g(9.0) },
        R::FlourAtATime { share: part(0.02), flour: g(430.0) },
        R::StopAt { mass: g(26.0), share: part(0.06) },
        R::NoMoreLiquid,
        R::LiquidWentIn { mass: g(70.0), spoons: 3.0 },
        R::AddLiquid { mass: g(12.0), with: "egg" },
        R::AddLiquid { mass: g(12.0), with: "milk" },
        R::SpoonToDough { spoon: g(15.0), dough: g(600.0) },
        R::UsualCauseOfDry,
        R::Becomes { share: part(0.5), from: butter(), to: "shortening".to_owned() },
        R::FatWaterSaltStay,
        R::FatWaterStayLessSalt,
        R::FatStaysFlourDrinks,
        R::SameSugars,
        R::WaterFatStay,
        R::BindsAsMuch,
        R::GramForGram { from: "vanilla".to_owned(), to: "Lemon zest".to_owned() },
        R::EggInstead { mass: g(60.0), before: g(50.0) },
        R::ButterGivesWay,
        R::FatChanged { by: part(-0.2) },
        R::AirAt { metres: 1900.0, kpa: 80.5, boils: c(93.7) },
        R::TooLowToChange { metres: 900.0 },
        R::HighUp,
        R::FlourHolds { humidity: part(0.75), more_water: part(0.017) },
        R::DampFlourWeighed,
        R::AsTheBowlAsked,
    ];
    let differences = [
        Difference::Part(BalancePart::Water, part(0.021)),
        Difference::Part(BalancePart::Fat, part(-0.03)),
        Difference::Part(BalancePart::Sugar, part(0.05)),
        Difference::Part(BalancePart::DrySolids, part(-0.016)),
        Difference::MainFat(FatKind::Shortening, FatKind::Butter),
        Difference::Cocoa(part(0.052)),
        Difference::Cocoa(part(-0.052)),
        Difference::Strength(part(0.103), part(0.085)),
        Difference::Strength(part(0.06), part(0.103)),
        Difference::Handling(Handling::Soft, Handling::Right),
        Difference::Browning(Browning::Fast, Browning::Golden),
        Difference::Bite(Bite::Snaps, Bite::Tender),
        Difference::None,
    ];
    let steps = [
        MixWork::WeighDry,
        MixWork::Cream { light: true, fats: c(18.0) },
        MixWork::Cream { light: false, fats: c(18.0) },
        MixWork::RubIn { fats: c(6.0), dice: mm(10.0) },
        MixWork::Pulse { fats: c(6.0), dice: mm(10.0) },
        MixWork::Toast { oven: c(175.0), cools: Span::new_min(30.0) },
        MixWork::Wet { egg: true, over_crumbs: false, at: c(20.0) },
        MixWork::Wet { egg: false, over_crumbs: true, at: c(4.0) },
        MixWork::Gather,
        MixWork::Flour,
        MixWork::KeptAside,
        MixWork::Pieces { nuts: true, fruit: true },
        MixWork::Tint,
        MixWork::Check,
    ]
    .map(|work| {
        let (title, what, stop) = mix_step(&MixStep { work, minutes: None, takes: vec![], scrape: false });
        Sentence::from(title).then(if title.ends_with('?') { " " } else { ". " }).then(what).then(" ").then(stop)
    });
    let spoons = [Spoons::Pinch, Spoons::TeaspoonEighths(1), Spoons::TeaspoonEighths(12), Spoons::TablespoonHalves(3)];
    let cups = |tablespoons, filled| Beside::Cups { tablespoons, filled };
    let measures = [
        Beside::EachHalves(2),
        Beside::EachHalves(3),
        Beside::Sticks { tablespoons: 18 },
        Beside::Sticks { tablespoons: 5 },
        cups(50, Some(CupWay::Spooned)),
        cups(16, None),
        cups(6, Some(CupWay::Packed)),
        cups(3, None),
    ];
    let beside = differences.iter().map(|d| difference(d, "Lemon-thyme"));
    let spread = [(part(0.12), part(0.05)), (part(0.021), part(0.05))].map(spread_beside);
    all(&reasons)
        .into_iter()
        .chain(beside)
        .chain(spread)
        .chain(steps)
        .chain(all(&spoons))
        .chain(all(&measures))
        .collect()
}

pub fn cold() -> Vec<Sentence> {
    let never = [
        Never::LiquidFat,
        Never::PlaceIsAt { lies: Lies::In(ColdPlace::Fridge), air: c(15.0), core: c(12.2) },
        Never::PlaceIsAt { lies: Lies::OnTheBench, air: c(24.0), core: c(17.7) },
        Never::PlaceIsAt { lies: Lies::Somewhere, air: c(19.0), core: c(17.7) },
        Never::NotWithinADay { core: c(12.4) },
        Never::TooColdAlready { mean: c(-3.2) },
        Never::TooCoolToSoften { air: c(4.0) },
        Never::GettingWarmer { mean: c(21.6) },
        Never::RimFirst,
    ];
    let water = [
        WaterState::Unfrozen { freezing: Some(c(-60.0)) },
        WaterState::Unfrozen { freezing: Some(c(-24.0)) },
        WaterState::Unfrozen { freezing: None },
        WaterState::Freezes { freezing: c(-8.3) },
    ];
    let here =
        |readings| ReadSoFar { place: Whereabouts::Cold(ColdPlace::Fridge), readings, takes_heat: 1.18, air: c(3.6) };
    let notes = [
        ReadingNote::NoneHere,
        ReadingNote::SoFar(here(1)),
        ReadingNote::SoFar(here(4)),
        ReadingNote::DoesNotFit { shows: c(36.0) },
        ReadingNote::SetAsideInAll(5),
    ];
    let waits = |slow_min, more| ChillWaits { ready_min: 32, slow_min, more };
    let chills = [
        waits(6, None),
        waits(6, Some((12, MoreChill::Flour { at_least_min: 50 }))),
        waits(6, Some((82, MoreChill::Asked { at_least_min: 120 }))),
        waits(6, Some((862, MoreChill::Overnight))),
        ChillWaits { ready_min: 0, slow_min: 0, more: Some((480, MoreChill::Overnight)) },
    ];
    [all(&never), all(&water), all(&notes), all(&chills)].concat()
}

pub fn advice() -> Vec<Sentence> {
    let headlines = [
        Headline::NotTooWarm { core: c(14.0), target: Target::Rolling, to: c(18.8) },
        Headline::TooWarm { by: k(3.2), core: c(22.0), target: Target::Slicing, to: c(18.8) },
        Headline::NotTooCold { dough: c(14.0), target: Target::Rolling, from: c(10.6) },
        Headline::AsFirmAsItMay { dough: c(-18.0) },
        Headline::TooCold { by: k(6.6), dough: c(4.0), target: Target::Rolling, from: c(10.6) },
        Headline::Lasts { room: c(29.0), work: BenchWork::Sheet(mm(6.35)), just_ready: min(6.0), coldest: min(104.0) },
        Headline::Lasts { room: c(29.0), work: BenchWork::Slicing, just_ready: min(6.0), coldest: min(120.0) },
        Headline::LastsAlways { room: c(17.0), work: BenchWork::LayingOut },
        Headline::MustGetTo { pieces: 1, mass: g(689.0), from: c(21.9), to: c(18.8) },
        Headline::NoColdNeeded { at: c(12.0), target: Target::Oven },
    ];
    let states = [PowerState::Spent, PowerState::TooCold, PowerState::Ready(Target::Rolling), PowerState::TooWarm]
        .map(|state| Headline::PowerIsOff { place: ColdPlace::Freezer, air: c(-11.2), dough: c(-12.4), state });
    let measures = [
        Measure::AsItIs(ColdPlace::Fridge),
        Measure::Pressed { to: mm(11.0) },
        Measure::RolledBetweenPapers { to: mm(6.0) },
        Measure::OnAFrozenTray,
        Measure::RestOnTheBench { room: c(23.0) },
        Measure::SplitInTwo { room: c(23.0) },
        Measure::WarmerSpot,
        Measure::NoOvenNoMicrowave,
        Measure::LeavesTheBowl { at: c(25.4), ready: Some(min(46.0)) },
        Measure::LeavesTheBowl { at: c(25.4), ready: None },
        Measure::LeaveInTheCold { place: ColdPlace::Fridge, until: Some(min(104.0)) },
        Measure::LeaveInTheCold { place: ColdPlace::Fridge, until: None },
        Measure::CutOnAFrozenTray,
        Measure::RollBeforeTheChill,
        Measure::TakeTurns { sheets: 3 },
        Measure::Stacked { sheets: 4, high: mm(24.0) },
        Measure::FreezerInstead,
        Measure::CoolBox,
        Measure::Cellar { at: c(12.0) },
        Measure::ThrowItOut { limit: min(120.0), ended: When::Ago(min(75.0)) },
        Measure::BakeBy { when: When::In(min(60.0)) },
        Measure::HasLeft { left: min(45.0), of: min(120.0) },
        Measure::StaysCold { at_least: min(720.0) },
        Measure::KeepTheDoorShut,
        Measure::WorkUntil { from_now: min(30.0) },
        Measure::MoveItNow,
    ];
    let because = [
        Because::TooColdFrom(min(104.0)),
        Because::NothingMeanwhile,
        Because::QuicklyTooMuch,
        Because::HalfAsThick,
        Because::SoftRollsBetweenPapers,
        Because::NotFirmEnough { firmest: c(19.4) },
        Because::CutThereUntil(min(9.0)),
        Because::CutThere,
        Because::TurnItOnce(Target::Slicing),
        Because::TurnItOnce(Target::Rolling),
        Because::HalvesInTurn,
        Because::RoomIsColder { room: c(9.0) },
        Because::RimMelts,
        Because::AsTheKitchenIsSet { dough: c(21.9), ready: Some(min(32.0)) },
        Because::LastsOnTheBench { span: min(11.0), enough: Enough::None },
        Because::LastsOnTheBench { span: min(11.0), enough: Enough::Cut(30) },
        Because::LastsOnTheBench { span: min(11.0), enough: Enough::Sliced(90) },
        Because::LastsOnTheBench { span: min(11.0), enough: Enough::LaidOut(60) },
        Because::SheetLasts { span: min(22.0), else_only: Some(min(6.0)) },
        Because::SheetLasts { span: min(22.0), else_only: None },
        Because::LastsAsLongAsNeeded,
        Because::OnlyCuttingHurries,
        Because::EachSheetNeeds(min(8.0)),
        Because::InnerOnesLast,
        Because::SetAClock,
        Because::BoxAt { at: c(6.0) },
        Because::NoColdPlace,
        Because::AboveTheLine { will_be: true, when: When::In(min(40.0)), limit: min(120.0) },
        Because::AboveTheLine { will_be: false, when: When::Ago(min(40.0)), limit: min(60.0) },
        Because::AboveSince { when: When::Ago(min(40.0)) },
        Because::AboveSince { when: When::In(min(40.0)) },
        Because::NobodyOpens,
        Because::OpeningCosts,
        Because::TooWarmAfterThat,
        Because::BoxLastsADay,
    ];
    let cautions = [
        AdviceCaution::FatHasRun(c(26.3)),
        AdviceCaution::Raw(Caution::ColdRule),
        AdviceCaution::Raw(Caution::NoTasting { egg: true }),
        AdviceCaution::Raw(Caution::NoTasting { egg: false }),
        AdviceCaution::Raw(Caution::PowerOff),
    ];
    [all(&headlines), all(&states), all(&measures), all(&because), all(&cautions)].concat()
}

pub fn shape() -> Vec<Sentence> {
    let kept = [
        KeptFault::Turned { pieces: 1, as_drawn: true },
        KeptFault::Turned { pieces: 3, as_drawn: false },
        KeptFault::LargerThanSheet,
        KeptFault::IntoTheRim(1),
        KeptFault::IntoTheRim(2),
        KeptFault::TooNear(1),
        KeptFault::TooNear(4),
    ];
    let mixed = [
        MixedFault::LongerThanTheTray(1),
        MixedFault::CutterTooLarge(2),
        MixedFault::TooNear { sheet: 1, pieces: 2 },
        MixedFault::OtherCount { held: 18, wanted: 19 },
        MixedFault::LotGone,
        MixedFault::NotAlike("Boxes of buoys".to_owned()),
    ];
    let kinds = [PatternKind::Checkerboard, PatternKind::Pinwheel, PatternKind::Bullseye, PatternKind::Stripes];
    let built = kinds.iter().flat_map(|kind| {
        let density = Density::new_kg_m3(1200.0);
        pattern_steps(&build_pattern(Pattern::usual(*kind), mm(200.0), [density, density]).unwrap())
    });
    let neck = neck_warning(mm(5.2)).unwrap().say();
    [all(&kept), all(&mixed)].concat().into_iter().chain(built).chain(marbled_steps(job::GRAIN)).chain([neck]).collect()
}

pub fn oven() -> Vec<Sentence> {
    use oven::Reason as R;
    let warnings = [
        BakeWarning::Slumps,
        BakeWarning::SoftWithSoda,
        BakeWarning::SyrupWithSoda,
        BakeWarning::Cocoa,
        BakeWarning::Fat,
        BakeWarning::High,
        BakeWarning::Ammonia,
        BakeWarning::Thin,
        BakeWarning::Pieces,
        BakeWarning::UnknownLeavener,
        BakeWarning::Cover,
        BakeWarning::Powdered,
    ];
    let reasons = [
        R::PracticeTimes { minutes: (min(8.0), min(14.0)), thickness: mm(6.0), at: c(175.0) },
        R::FanBakesLike { set: c(160.0), like: c(180.0) },
        R::TimesStretch { at: c(190.0), by: (part(0.714), part(0.875)) },
        R::WideRanges,
        R::ThinBrownsFast,
        R::StandardGrows {
            thickness: mm(6.0),
            across: mm(65.0),
            chilled: c(6.0),
            oven: c(175.0),
            by: mm(1.2),
            spread: part(0.036),
        },
        R::StandardUnknown,
        R::OvenHolds { set: c(175.0), holds: c(166.0), swings: (c(160.0), c(172.0)) },
        R::HeatedUp { after: min(14.0) },
        R::DoorFell { by: k(28.0), back_after: min(2.4) },
        R::SideIsHotter { side: OvenSide::Right, within: k(8.46) },
        R::SideIsHotter { side: OvenSide::Door, within: k(6.0) },
        R::NoSideIsHotter { within: k(7.0) },
    ];
    let colours = [EdgeColour::Pale, EdgeColour::JustGolden, EdgeColour::Golden, EdgeColour::Brown];
    let ends = colours.map(BakeEnd::Colour).into_iter().chain([BakeEnd::Dull, BakeEnd::Soft(EdgeColour::Golden)]);
    let looks = ends.flat_map(|end| {
        let gold = Shade::Edge(EdgeColour::Golden);
        [None, Some((gold, Shade::Edge(EdgeColour::Brown))), Some((gold, gold))].map(|seen| LookFor { end, seen }.say())
    });
    [all(&warnings), all(&reasons)].concat().into_iter().chain(looks).collect()
}

pub fn finish() -> Vec<Sentence> {
    use finish::{Coat, FillingKind, PiledBy as P, Reason as R};
    let piled = all(&[
        P::Texture(Texture::Soft),
        P::Texture(Texture::Crisp),
        P::Coat(Coat::usual_buttercream()),
        P::Coat(Coat::usual_filling(FillingKind::Jam)),
        P::Coat(Coat::Drizzle),
    ]);
    let (top, round) = (Area::new_mm2(3318.0), Area::new_mm2(8040.0));
    let reasons = all(&[
        R::SugarOnTop { mass_a_cm2: g(0.03), top },
        R::SugarAllRound { mass_a_cm2: g(0.01), round },
        R::GlazeFilm { film: mm(0.5), top, density_g_ml: 1.478, sugar_parts: 7.0, spirit: false },
        R::GlazeFilm { film: mm(0.5), top, density_g_ml: 1.478, sugar_parts: 7.0, spirit: true },
        R::DipFilm { film: mm(1.0), part: part(0.5), round },
        R::DeepEnough { least: g(200.0) },
        R::EnoughToMix { least: g(90.0), goes_on: g(6.9) },
        R::InEachDent { each: g(2.0) },
        R::JamBurns,
        R::Lines { wide: mm(2.0), high: mm(0.8), apart: mm(10.0), top },
        R::Layer { layer: mm(2.0), over: top, rim: mm(3.0), density_g_ml: 1.33 },
        R::LineAndFlood { line: g(1.06), round: mm(236.0), flood: g(9.67), film: mm(1.75) },
        R::RolledOn { film: mm(2.5), top, density_g_ml: 1.4, more: part(0.3) },
        R::SpreadOn { film: mm(4.0), top, density_g_ml: 1.05 },
        R::RawWhite,
        R::EggOnTheLabel,
        R::CreamedGoSoft,
        R::IcedInLayers,
        R::DustedInLayers,
        R::JamGoesSticky,
        R::ChocolateBlooms,
        R::UnusualGlaze { usual: (6.0, 8.0) },
        R::SpiritStays,
        R::MeltedBurnsAndHoldsMilk,
        R::ChocolateHoldsMilk,
        R::OddOneLeft,
        R::CreamInTheCold,
        R::ButterIsMilk,
        R::Eats { texture: Texture::Soft },
        R::Eats { texture: Texture::Crisp },
        R::NutsGoStale,
        R::CoatDrawsMoisture,
        R::FilledGoSoft,
        R::FreezePlain,
        R::TableBeginsLater { from: min(15.0), left: part(0.4), bake: min(10.0) },
        R::LeftByTheTable { bake: min(22.0), left: part(0.376) },
    ]);
    piled.into_iter().chain(reasons).collect()
}

pub fn clock() -> Vec<Sentence> {
    let chill = ChillWaits { ready_min: 29, slow_min: 6, more: Some((10, MoreChill::Flour { at_least_min: 45 })) };
    let held = [
        Held::AnotherHeat,
        Held::OvenWanted,
        Held::CoolingPlaceWanted,
        Held::TrayWanted,
        Held::LongerOnItsTray { longer_min: 4 },
        Held::Chill(chill),
        Held::HandsBusy { longer_min: 11 },
        Held::TooCold,
    ];
    let both = why(&[Held::Chill(chill), Held::HandsBusy { longer_min: 11 }]).unwrap();
    let late = when_late(&[
        WhenLate::Later,
        WhenLate::ThawOnTheBench,
        WhenLate::InTheFreezer,
        WhenLate::QuickerFinish,
        WhenLate::AsSheets,
    ]);
    all(&held).into_iter().chain([both, late]).collect()
}

pub fn recipe() -> Vec<Sentence> {
    use ready_slab_core::dough::CupWay;
    let name = || "all-purpose flour".to_owned();
    let read = [
        ReadBy::YouSaidItIs { name: name() },
        ReadBy::YouSaidGrams { mass: g(250.0) },
        ReadBy::YouSaidAsRead,
        ReadBy::ReadAs { name: name() },
        ReadBy::TakenAsUnsalted,
        ReadBy::BoardNotCounted,
        ReadBy::MiddleTaken { of: "2 to 3 tbsp".to_owned() },
        ReadBy::LevelTaken { word: "heaped" },
        ReadBy::WeightOfACup { way: CupWay::Scooped },
        ReadBy::WeightCounts { said: "2 cup".to_owned(), other: "9 oz".to_owned() },
        ReadBy::SaysTheSame { other: "8 oz".to_owned() },
        ReadBy::Weighs { said: "8 oz".to_owned(), mass: g(226.8) },
        ReadBy::PinchTakenAs { word: "pinch", name: "salt".to_owned(), mass: g(0.36) },
        ReadBy::MeasureWeighs { word: "cup", name: name(), way: Some(CupWay::Spooned), mass: g(125.0) },
        ReadBy::MeasureWeighs { word: "tsp", name: "vanilla".to_owned(), way: None, mass: g(4.2) },
        ReadBy::StickWeighs { name: butter(), mass: g(113.4) },
        ReadBy::EggWeighs { name: "egg".to_owned(), class: EggClass::EuMedium, mass: g(50.0) },
        ReadBy::OneTakenAs { mass: g(60.0) },
        ReadBy::AsTheFileHasIt,
        ReadBy::HeardAs { said: "flower".to_owned(), is: "flour" },
    ];
    let asks = [
        Ask::LineTooLong { most: 300 },
        Ask::CornFlour,
        Ask::TwoThings { first: butter(), other: "margarine".to_owned() },
        Ask::NotKnown { word: "oomph".to_owned(), name: name() },
        Ask::NotInThePantry { name: "moon dust".to_owned() },
        Ask::TwoAmounts { second: "1 tsp salt".to_owned() },
        Ask::Several { names: vec!["Whole egg".to_owned(), "Vanilla".to_owned()] },
        Ask::Several { names: vec!["Whole egg".to_owned(), "Vanilla".to_owned(), "Salt".to_owned()] },
        Ask::HowMuch { name: "salt".to_owned(), to_taste: true },
        Ask::HowMuch { name: "salt".to_owned(), to_taste: false },
        Ask::OutsideAnyDough,
        Ask::MinusBefore,
        Ask::TwoNumbers { text: "1,200".to_owned(), large: 1200.0, small: 1.2 },
        Ask::GramsOfThat { name: "honey".to_owned() },
        Ask::GramsOfAMeasure { word: "knob".to_owned(), name: butter() },
        Ask::GramsInAContainer { word: "packet".to_owned(), name: butter() },
        Ask::GramsEach { said: "2".to_owned(), name: butter() },
        Ask::GramsOfAStick { name: "honey".to_owned() },
        Ask::GramsOf { said: "1 cup".to_owned(), name: "lemon zest".to_owned() },
        Ask::Disagrees {
            said: "2 cup".to_owned(),
            name: name(),
            mass: g(250.0),
            other: "400 grams".to_owned(),
            apart: 0.6,
        },
        Ask::NothingLeft { name: name() },
        Ask::NotUnderstood { text: "the usual".to_owned() },
        Ask::Unlikely { name: "salt".to_owned(), mass: g(60.0), flour: g(300.0), most: part(0.05) },
        Ask::NoFlour { name: "baking soda".to_owned(), mass: g(120.0) },
    ];
    let left_out = [
        LeftOut::ByYou,
        LeftOut::NoIngredient,
        LeftOut::ForTheFinish,
        LeftOut::ForTheBoard,
        LeftOut::Under { section: "For the icing".to_owned() },
    ];
    let settle = [
        Settle::Is { name: "Cornstarch".to_owned() },
        Settle::Weighs { mass: g(250.0), by: None },
        Settle::Weighs { mass: g(250.0), by: Some("2 cup".to_owned()) },
        Settle::ADash,
        Settle::ItIsRight,
        Settle::NoIngredient,
    ];
    let problems = [
        Problem::OutOfRange { value: 400.0, min: 140.0, max: 220.0, unit: "\u{b0}C" },
        Problem::OutOfRange { value: 375.0, min: 140.0, max: 220.0, unit: "\u{b0}C" },
        Problem::OutOfRange { value: 900.0, min: 5.0, max: 600.0, unit: "mm" },
        Problem::OutOfRange { value: 0.001, min: 0.01, max: 200_000.0, unit: "g" },
        Problem::OutOfRange { value: 120.0, min: 1.0, max: 100.0, unit: "% of the dough" },
        Problem::OutOfRange { value: 9.0, min: 1.0, max: 6.0, unit: "columns" },
        Problem::NeverReady(Never::PlaceIsAt { lies: Lies::In(ColdPlace::Fridge), air: c(15.0), core: c(12.2) }),
        Problem::Missing { wanted: "a name" },
    ];
    [all(&read), all(&asks), all(&left_out), all(&settle), all(&problems)].concat()
}
