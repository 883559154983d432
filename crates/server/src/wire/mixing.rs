//! The mixing sheet, the correction at the bowl, sizes, cost and label on the wire.

use super::{SentenceView, say, say_all, view};
use ready_slab_core::dough::{
    Beside, BowlNote, Correction, Cost, Formula, LabelItem, LineCost, MixMethod, MixPlan, MixStep, MixesLearnt,
    MixingSheet, Pantry, SiftWhy, Sized, TintPortion, label_text,
};
use ready_slab_core::job::{DoughPart, Job, PanFill, PartUse};
use ready_slab_core::units::Mass;
use ready_slab_store::StoredMixNote;
use ready_slab_words::{FLOUR_KEPT_ASIDE, Say, System, bowl_caution, dough_part, mix_step, sift_why};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

view! {
    /// Something that goes into a step.
    pub struct TakeView(name: String, mass: Mass, beside: Option<Beside>) {
        /// Name, with what is done to it first.
        name: String = name,
        /// How much.
        mass_g: f64 = mass.g(),
        /// Cups, spoons, sticks or eggs that come near it.
        beside: Option<String> = beside.map(|b| b.say().text(System::Metric)),
    }
}

view! {
    /// One step at the bowl.
    pub struct MixStepView(s: &MixStep) {
        let (title, what, stop) = mix_step(s);
        let named = |name: &Option<String>| name.clone().unwrap_or_else(|| FLOUR_KEPT_ASIDE.to_owned());

        /// Its name.
        title: String = title.to_owned(),
        /// Least time; null where time says nothing.
        least_min: Option<f64> = s.minutes.map(|m| m.0),
        /// Most time.
        most_min: Option<f64> = s.minutes.map(|m| m.1),
        /// What goes in.
        takes: Vec<TakeView> = s.takes.iter().map(|t| TakeView::new(named(&t.name), t.mass, t.beside)).collect(),
        /// What to do.
        what: SentenceView = what.into(),
        /// When to stop.
        stop: String = stop.to_owned(),
        /// Scrape bowl and bottom after it.
        scrape: bool = s.scrape,
    }
}

view! {
    /// Something to sift and why.
    pub struct SiftView(name: &str, why: SiftWhy) {
        /// What.
        name: String = name.to_owned(),
        /// Why.
        why: String = sift_why(why).to_owned(),
    }
}

view! {
    /// A portion to colour.
    pub struct TintView(t: &TintPortion) {
        /// The colour.
        name: String = t.name.clone(),
        /// Dough of it in one mix.
        dough_g: f64 = t.dough.g(),
        /// Paste to begin with.
        paste_g: f64 = t.paste.g(),
    }
}

view! {
    /// A part of the dough.
    pub struct PartView(p: &DoughPart) {
        let part_use = match p.part_use {
            PartUse::Bake => "bake",
            PartUse::Freeze => "freeze",
            PartUse::OtherJob => "other_job",
        };

        /// `bake`, `freeze` or `other_job`.
        part_use: String = part_use.to_owned(),
        /// Its name.
        name: String = dough_part(p),
        /// Pieces.
        pieces: u32 = p.pieces,
        /// Dough.
        dough_g: f64 = p.dough.g(),
    }
}

view! {
    /// What hangs by the mixer.
    pub struct MixingView(
        sheet: &MixingSheet,
        mixes: &MixPlan,
        method: MixMethod,
        version: u32,
        notes: &[StoredMixNote],
        learnt: Option<MixesLearnt>,
    ) {
        let t = &sheet.temperatures;
        let flour = mixes.formula.role_mass(ready_slab_core::dough::Role::Flour) * (mixes.each / mixes.formula.total());

        /// The formula's name.
        formula: String = mixes.formula.name().to_owned(),
        /// Its version.
        version: u32 = version,
        /// How it is mixed.
        method: MixMethod = method,
        /// How many mixes.
        mixes: u32 = mixes.count,
        /// Dough in each.
        mix_g: f64 = mixes.each.g(),
        /// Flour in each, by formula.
        flour_g: f64 = flour.g(),
        /// Flour kept aside in each.
        held_back_g: f64 = mixes.weights.iter().map(|w| w.held_back.g()).sum(),
        /// Butter and other fats when they go in.
        fats_c: f64 = t.fats.c(),
        /// Eggs and liquids.
        wet_c: f64 = t.wet.c(),
        /// All else.
        dry_c: f64 = t.dry.c(),
        /// The dough out of the bowl.
        dough_c: f64 = t.dough.c(),
        /// What the method wants.
        dough_least_c: f64 = sheet.dough_between.0.c(),
        /// What the method wants.
        dough_most_c: f64 = sheet.dough_between.1.c(),
        /// Whether it is reached.
        reached: bool = t.reached,
        /// Why these temperatures.
        reasons: Vec<SentenceView> = say_all(&t.reasons),
        /// What is sifted.
        sift: Vec<SiftView> = sheet.sift.iter().map(|(name, why)| SiftView::new(name, *why)).collect(),
        /// Steps in order.
        steps: Vec<MixStepView> = sheet.steps.iter().map(Into::into).collect(),
        /// Portions to colour.
        tints: Vec<TintView> = sheet.tints.iter().map(Into::into).collect(),
        /// Cautions.
        cautions: Vec<String> = sheet.cautions.iter().map(|c| bowl_caution(*c).to_owned()).collect(),
        /// Notes on mixes of this job.
        notes: Vec<MixNoteView> = notes.iter().map(Into::into).collect(),
        /// What the mixes of this formula asked for, in all jobs.
        learnt: Option<LearntView> = learnt.map(Into::into),
    }
}

view! {
    /// What mixes asked for, on the mean.
    pub struct LearntView(l: MixesLearnt) {
        /// How many.
        mixes: usize = l.mixes,
        /// Flour added (less what was kept aside and not used), of the flour.
        flour_percent: f64 = l.flour_percent,
        /// Water added, of the flour.
        water_percent: f64 = l.water_percent,
    }
}

view! {
    /// What to do about it.
    pub struct CorrectionView(c: &Correction, name: Option<String>, added_before: Mass) {
        /// Key of what to add; null when adding would be wrong.
        add: Option<String> = c.add.map(str::to_owned),
        /// Its name.
        add_name: Option<String> = name,
        /// How much now.
        amount_g: f64 = c.amount.g(),
        /// What may be added in all.
        limit_g: f64 = c.limit.g(),
        /// What went in before.
        added_before_g: f64 = added_before.g(),
        /// In a sentence.
        say: SentenceView = say(&c.say),
        /// Why.
        reasons: Vec<SentenceView> = say_all(&c.reasons),
    }
}

view! {
    /// A kept note.
    pub struct MixNoteView(stored: &StoredMixNote) {
        let n = &stored.kept;

        /// Its number.
        id: i64 = stored.id.0,
        /// Local time.
        noted_at: String = n.noted_at.clone(),
        /// Version of the formula that was mixed.
        formula_version: u32 = n.formula_version,
        /// The note.
        #[serde(flatten)]
        body: BowlNote = n.note.clone(),
    }
}

view! {
    /// A size with what set it.
    pub struct SizedView(sized: &Sized, formula: &Formula, job: &Job, pieces: u32, pan: Option<PanFill>) {
        /// Dough in all.
        dough_g: f64 = sized.dough.g(),
        /// The written formula times this.
        factor: f64 = sized.factor,
        /// What runs out first.
        scarce: Option<String> = sized.scarce.as_ref().map(|i| i.name.to_string()),
        /// What stays over of what is on hand.
        over: Vec<TakeView> =
            sized.over.iter().map(|(i, m)| TakeView::new(i.name.to_string(), *m, None)).collect(),
        /// Pieces of this job's make that it yields.
        pieces: u32 = pieces,
        /// Of those, as many kept in the freezer as the job has there, with one left to bake.
        freeze_pieces: u32 = job.frozen_of(pieces),
        /// Pans of a bar that it comes nearest to filling; null for other pieces.
        pans: Option<u32> = pan.map(|p| p.pans),
        /// How thick it lies in them.
        pan_depth_mm: Option<f64> = pan.map(|p| p.depth.mm()),
        /// What to weigh in all.
        weights: Vec<TakeView> = formula
            .lines()
            .iter()
            .map(|l| (l.ingredient(), l.mass() * sized.factor))
                .map(|(i, m)| TakeView::new(i.name.to_string(), m, i.household.beside(m)))
            .collect(),
    }
}

view! {
    /// One line's cost.
    pub struct LineCostView(l: &LineCost, pantry: &Pantry) {
        /// Key.
        ingredient: String = l.ingredient.key.to_string(),
        /// Name.
        name: String = l.ingredient.name.to_string(),
        /// In the dough.
        mass_g: f64 = l.mass.g(),
        /// A kilogram; null where no price is known.
        price_per_kg: Option<f64> = pantry.price_per_kg(&l.ingredient.key),
        /// In the dough; null where no price is known.
        cost: Option<f64> = l.cost,
    }
}

view! {
    /// One name on a label.
    pub struct LabelItemView(i: &LabelItem) {
        /// As it is written.
        name: String = i.name.clone(),
        /// Of the dough as mixed.
        percent: f64 = 100.0 * i.share.value(),
        /// Allergens in it.
        allergens: Vec<String> = i.allergens.clone(),
    }
}

view! {
    /// Cost and label of a job's dough.
    pub struct LabelView(
        cost: &Cost,
        items: &[LabelItem],
        pantry: &Pantry,
        currency: &str,
        pieces: u32,
        allergens: Vec<String>,
    ) {
        let unpriced = cost.lines.iter().filter(|l| l.cost.is_none());
        let without_price = unpriced.map(|l| l.ingredient.name.to_string()).collect::<Vec<_>>();

        /// Money sign.
        currency: String = currency.to_owned(),
        /// By line.
        lines: Vec<LineCostView> = cost.lines.iter().map(|l| LineCostView::new(l, pantry)).collect(),
        /// Of all lines with a price, for the whole dough.
        cost: f64 = cost.known,
        /// The same for one piece; null while any price is unknown.
        cost_a_piece: Option<f64> = without_price.is_empty().then(|| cost.known / f64::from(pieces.max(1))),
        /// Share of the dough's mass that has a price.
        priced_percent: f64 = 100.0 * cost.priced.value(),
        /// Names without a price.
        without_price: Vec<String> = without_price,
        /// Pieces the dough is for.
        pieces: u32 = pieces,
        /// The label, in descending weight.
        items: Vec<LabelItemView> = items.iter().map(Into::into).collect(),
        /// The label as one text, allergens in capitals.
        text: String = label_text(items),
        /// Allergens by themselves.
        allergens: Vec<String> = allergens,
    }
}
