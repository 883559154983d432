//! Finishes on the wire.

use super::{SentenceView, say, say_all, view};
use ready_slab_core::finish::{CoatPart, CoatPlan, ColourPart, Packing, SpiritLeft, UsePart};
use ready_slab_core::job::FinishPlan;
use ready_slab_core::units::Span;
use ready_slab_words::{coat, coat_stuff, coat_use};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

view! {
    /// A part of what is mixed for a finish.
    pub struct CoatPartView(p: &CoatPart) {
        /// What.
        name: String = coat_stuff(p.stuff).to_owned(),
        /// In all.
        mass_g: f64 = p.mass.g(),
    }
}

view! {
    /// A part of an icing by its use.
    pub struct UsePartView(p: &UsePart) {
        let (name, right_when) = coat_use(p.what);

        /// For what.
        name: String = name.to_owned(),
        /// How it is known to be right.
        right_when: String = right_when.to_owned(),
        /// All of it, with the water that thins it.
        mass_g: f64 = p.mass.g(),
        /// Of that, water stirred in when it is set aside.
        thinner_g: f64 = p.thinner.g(),
    }
}

view! {
    /// A coloured portion of a finish.
    pub struct ColourPartView(p: &ColourPart) {
        /// The colour.
        name: String = p.name.clone(),
        /// Of the finish.
        mass_g: f64 = p.mass.g(),
        /// Paste to begin with.
        paste_g: f64 = p.paste.g(),
    }
}

view! {
    /// How a lot is stacked and packed.
    pub struct PackingView(p: &Packing) {
        /// Pieces on each other, at most.
        on_each_other: u32 = p.on_each_other,
        /// Whether paper lies between them.
        paper_between: bool = p.paper_between,
        /// Papers for all of them.
        papers: u32 = p.papers,
        /// After the last of it is put on; null where they only have to be cool.
        after_min: Option<f64> = p.after.map(Span::min),
        /// The same in one layer with a fan, where that is sooner.
        one_layer_after_min: Option<f64> = p.one_layer_after.map(Span::min),
        /// What decides.
        reason: SentenceView = say(&p.reason),
    }
}

view! {
    /// What a finish takes.
    pub struct CoatView(c: &CoatPlan) {
        let (name, when) = coat(c.coat);
        let work = c.coat.work();

        /// What it is called.
        name: String = name.to_owned(),
        /// On each piece, or between two.
        each_g: f64 = c.each.g(),
        /// To be made.
        total_g: f64 = c.total.g(),
        /// Of what.
        parts: Vec<CoatPartView> = c.parts.iter().map(Into::into).collect(),
        /// Of an icing that is used in two ways, each.
        uses: Vec<UsePartView> = c.uses.iter().map(Into::into).collect(),
        /// Whether portions of it can be coloured.
        takes_colour: bool = c.coat.takes_colour(),
        /// Portions of it that are coloured.
        colours: Vec<ColourPartView> = c.colours.iter().map(Into::into).collect(),
        /// Whether it goes on before the bake.
        before_the_bake: bool = work.before_the_bake,
        /// Until it is dry to the touch.
        touch_min: f64 = work.touch.min(),
        /// Until it is dry through.
        dry_min: f64 = work.dries.min(),
        /// How many are finished: pieces, or pairs of them.
        count: u32 = c.count,
        /// When it goes on.
        when: String = when.to_owned(),
        /// How the figures come about.
        reason: SentenceView = say(&c.reason),
        /// What to mind.
        cautions: Vec<SentenceView> = say_all(&c.cautions),
    }
}

view! {
    /// What is left of the dough's alcohol.
    pub struct SpiritView(s: &SpiritLeft) {
        /// In a piece as it is mixed.
        mixed_g: f64 = s.mixed.g(),
        /// After the bake, at least.
        left_least_g: f64 = s.left.0.g(),
        /// After the bake, at most.
        left_most_g: f64 = s.left.1.g(),
        /// By what.
        reason: SentenceView = say(&s.reason),
    }
}

view! {
    /// Finish and keeping of a lot.
    pub struct FinishView(f: &FinishPlan) {
        let k = &f.keeping;

        /// Pieces that are baked.
        pieces: u32 = f.piece.pieces,
        /// Top of a piece as baked.
        top_cm2: f64 = f.piece.top.mm2() / 100.0,
        /// What each finish takes, in the order of the job's.
        coats: Vec<CoatView> = f.coats.iter().map(CoatView::from).collect(),
        /// In a tin, days, the careful end.
        tin_least_days: f64 = k.tin_days.0,
        /// In a tin, days, the usual end.
        tin_most_days: f64 = k.tin_days.1,
        /// Frozen, months, the careful end; null where it does not freeze well.
        freezer_least_months: Option<f64> = k.freezer_months.map(|m| m.0),
        /// Frozen, months, the usual end; null where it does not freeze well.
        freezer_most_months: Option<f64> = k.freezer_months.map(|m| m.1),
        /// How they are stacked and packed.
        packing: PackingView = PackingView::from(&f.packing),
        /// Whether it has to stand in the cold.
        in_the_cold: bool = k.in_the_cold,
        /// Why.
        reasons: Vec<SentenceView> = say_all(&k.reasons),
        /// Alcohol; null of a dough without any.
        spirit: Option<SpiritView> = f.spirit.as_ref().map(Into::into),
    }
}
