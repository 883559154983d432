//! What a bake's conditions say of causes, as they stand in job, dough and kitchen.

use crate::cold::TrayKind;
use crate::dough::{FatKind, Kind, MixMethod, Role};
use crate::job::oven::as_baked::AsBaked;
use crate::ledger::{BakeRecord, BakedSo, Cause, Fact, Says};
use crate::oven::{OvenDough, TrayLiner};
use crate::units::{Share, Span};

/// What a cause cannot do without and is not in the dough; what it cannot do without and is not in the record, which may be as planned and not as it was;
/// what makes it less likely, and likelier. Our own choice, all of these.
const NEVER: f64 = 0.01;
const HARDLY: f64 = 0.15;
const LESS: f64 = 0.4;
const MORE: f64 = 2.5;

impl AsBaked {
    /// What it was baked with, as causes are weighed by it; `expected` is the time in the oven that was, least and most.
    #[must_use]
    pub fn weighed_by(&self, record: &BakeRecord, expected: (Span, Span)) -> BakedSo {
        let seen = self.seen(0, record);
        let says = facts(self, record, expected, seen.as_ref().map(|s| &s.dough));
        BakedSo { seen, across: self.of_a_round(record), says }
    }
}

/// What a bake's conditions say. Limits are common practice without a source.
fn facts(baked: &AsBaked, record: &BakeRecord, expected: (Span, Span), dough: Option<&OvenDough>) -> Vec<Says> {
    let (job, kitchen, formula) = (baked.job.input(), baked.kitchen.input(), &baked.formula);
    let mut found = vec![];
    let mut says = |cause: Cause, fact: Fact, times: f64| found.push(Says { cause, fact, times });
    let either = |yes: bool, more: f64, less: f64| if yes { more } else { less };

    let c = baked.start.c();
    let went = Fact::WentInAt(baked.start);
    says(
        Cause::WarmPieces,
        went,
        if c > 14.0 {
            MORE
        } else if c < 0.0 {
            LESS
        } else {
            1.0
        },
    );
    says(
        Cause::ColdPieces,
        went,
        if c < 0.0 {
            MORE
        } else if c > 8.0 {
            LESS
        } else {
            1.0
        },
    );

    let slides = matches!(job.oven.liner, TrayLiner::Greased | TrayLiner::Foil | TrayLiner::Silicone);
    says(Cause::SlipperyTray, Fact::Liner(job.oven.liner), either(slides, MORE, HARDLY));
    says(Cause::InsulatedTray, Fact::Liner(job.oven.liner), either(job.oven.liner == TrayLiner::Silicone, MORE, 1.0));
    says(
        Cause::DarkTray,
        Fact::Tray(kitchen.trays.tray_kind),
        either(kitchen.trays.tray_kind == TrayKind::Steel, MORE, HARDLY),
    );

    if let Some(dough) = dough {
        let fats = dough.parts().fats.iter();
        let soft =
            fats.filter(|(kind, _)| matches!(kind, FatKind::Margarine | FatKind::Liquid)).map(|(_, share)| share);
        let soft: f64 = soft.sum();
        // Egg and flour bring some oil into every dough.
        says(Cause::SoftFat, Fact::SoftFat(Share::new(soft)), either(soft > 0.25, MORE, NEVER));
    }

    let leavened = formula.kind_mass(Kind::Leavener).g() > 0.0;
    says(Cause::Leavener, Fact::Leavener(leavened), either(leavened, 1.5, NEVER));

    let flour = formula.role_mass(Role::Flour).g().max(1.0);
    let sugar = formula.role_mass(Role::Sugar).g() / flour;
    // A third of flour's mass by 1:2:3, to half of it.
    says(
        Cause::MuchSugar,
        Fact::SugarOverFlour(Share::new(sugar)),
        if sugar > 0.6 {
            MORE
        } else if sugar < 0.45 {
            LESS
        } else {
            1.0
        },
    );

    let creamed = job.dough.method == MixMethod::LightAndFluffy;
    says(Cause::MuchAir, Fact::Mixed(job.dough.method), either(creamed, MORE, LESS));

    let egg = formula.kind_mass(Kind::Egg).g() > 0.0;
    says(Cause::LittleToBrown, Fact::Egg(egg), either(egg, LESS, MORE));
    says(Cause::Short, Fact::Egg(egg), either(egg, LESS, MORE));
    let fat = formula.role_mass(Role::Fat).g() / flour;
    says(Cause::Short, Fact::FatOverFlour(Share::new(fat)), either(fat > 0.7, 1.5, 0.7));

    says(Cause::Rerolled, Fact::Rolls(job.shape.rerolls), either(job.shape.rerolls > 0, 1.5, HARDLY));
    says(Cause::ScrapsLeft, Fact::Rolls(job.shape.rerolls), either(job.shape.rerolls == 0, MORE, 1.0));

    let draws = formula.kind_mass(Kind::Syrup).g() > 0.0;
    says(Cause::DrawsWater, Fact::DrawsWater(draws), either(draws, MORE, LESS));

    if let Some(minutes) = record.baked() {
        let longer = minutes - expected.1;
        says(Cause::BakedLong, Fact::Longer(longer), either(longer.min() > 0.5, MORE, LESS));
    }
    if !kitchen.oven.oven_readings.is_empty() {
        says(Cause::OvenCool, Fact::OvenMeasured, LESS);
        says(Cause::OvenHot, Fact::OvenMeasured, LESS);
    }
    found.retain(|s| (s.times - 1.0).abs() > 1e-9);
    found
}
