//! The mixing sheet, the correction at the bowl, sizes, cost and label on the wire.

use super::{SentenceView, say, say_all};
use ready_slab_core::dough::BowlNote;
use ready_slab_core::dough::MixMethod;
use ready_slab_core::dough::{
    Correction, Cost, LabelItem, Learnt, MixPlan, MixStep, MixingSheet, SizeBy, Sized, label_text,
};
use ready_slab_core::error::{InputError, InputErrors, Problem};
use ready_slab_core::job::{DoughPart, PanFill, PartUse};
use ready_slab_core::units::Mass;
use ready_slab_store::StoredMixNote;
use ready_slab_words::{FLOUR_KEPT_ASIDE, bowl_caution, dough_part, mix_step, sift_why};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Something that goes into a step.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TakeView {
    /// Name, with what is done to it first.
    pub name: String,
    /// How much.
    pub mass_g: f64,
}

/// One step at the bowl.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct MixStepView {
    /// Its name.
    pub title: String,
    /// Least time; null where time says nothing.
    pub least_min: Option<f64>,
    /// Most time.
    pub most_min: Option<f64>,
    /// What goes in.
    pub takes: Vec<TakeView>,
    /// What to do.
    pub what: SentenceView,
    /// When to stop.
    pub stop: String,
    /// Scrape bowl and bottom after it.
    pub scrape: bool,
}

/// Something to sift and why.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SiftView {
    /// What.
    pub name: String,
    /// Why.
    pub why: String,
}

/// A portion to colour.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct TintView {
    /// The colour.
    pub name: String,
    /// Dough of it in one mix.
    pub dough_g: f64,
    /// Paste to begin with.
    pub paste_g: f64,
}

/// A part of the dough.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct PartView {
    /// `bake`, `freeze` or `other_job`.
    pub part_use: String,
    /// Its name.
    pub name: String,
    /// Pieces.
    pub pieces: u32,
    /// Dough.
    pub dough_g: f64,
}

impl From<&DoughPart> for PartView {
    fn from(p: &DoughPart) -> Self {
        let part_use = match p.part_use {
            PartUse::Bake => "bake",
            PartUse::Freeze => "freeze",
            PartUse::OtherJob => "other_job",
        };
        Self { part_use: part_use.to_owned(), name: dough_part(p), pieces: p.pieces, dough_g: p.dough.g() }
    }
}

/// What hangs by the mixer.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct MixingView {
    /// The formula's name.
    pub formula: String,
    /// Its version.
    pub version: u32,
    /// How it is mixed.
    pub method: MixMethod,
    /// How many mixes.
    pub mixes: u32,
    /// Dough in each.
    pub mix_g: f64,
    /// Flour in each, by formula.
    pub flour_g: f64,
    /// Flour kept aside in each.
    pub held_back_g: f64,
    /// Butter and other fats when they go in.
    pub fats_c: f64,
    /// Eggs and liquids.
    pub wet_c: f64,
    /// All else.
    pub dry_c: f64,
    /// The dough out of the bowl.
    pub dough_c: f64,
    /// What the method wants.
    pub dough_least_c: f64,
    /// What the method wants.
    pub dough_most_c: f64,
    /// Whether it is reached.
    pub reached: bool,
    /// Why these temperatures.
    pub reasons: Vec<SentenceView>,
    /// What is sifted.
    pub sift: Vec<SiftView>,
    /// Steps in order.
    pub steps: Vec<MixStepView>,
    /// Portions to colour.
    pub tints: Vec<TintView>,
    /// Cautions.
    pub cautions: Vec<String>,
    /// Notes on mixes of this job.
    pub notes: Vec<MixNoteView>,
    /// What the mixes of this formula asked for, in all jobs.
    pub learnt: Option<LearntView>,
}

fn step(s: &MixStep) -> MixStepView {
    let (title, what, stop) = mix_step(s);
    let named = |name: &Option<String>| name.clone().unwrap_or_else(|| FLOUR_KEPT_ASIDE.to_owned());
    MixStepView {
        title: title.to_owned(),
        least_min: s.minutes.map(|m| m.0),
        most_min: s.minutes.map(|m| m.1),
        takes: s.takes.iter().map(|(name, mass)| TakeView { name: named(name), mass_g: mass.g() }).collect(),
        what: what.into(),
        stop: stop.to_owned(),
        scrape: s.scrape,
    }
}

impl MixingView {
    /// The sheet as sent.
    pub fn new(
        sheet: &MixingSheet,
        mixes: &MixPlan,
        method: MixMethod,
        version: u32,
        notes: &[StoredMixNote],
        learnt: Option<Learnt>,
    ) -> Self {
        let t = &sheet.temperatures;
        let flour = mixes.formula.role_mass(ready_slab_core::dough::Role::Flour) * (mixes.each / mixes.formula.total());
        Self {
            formula: mixes.formula.name().to_owned(),
            version,
            method,
            mixes: mixes.count,
            mix_g: mixes.each.g(),
            flour_g: flour.g(),
            held_back_g: mixes.weights.iter().map(|w| w.held_back.g()).sum(),
            fats_c: t.fats.c(),
            wet_c: t.wet.c(),
            dry_c: t.dry.c(),
            dough_c: t.dough.c(),
            dough_least_c: sheet.dough_between.0.c(),
            dough_most_c: sheet.dough_between.1.c(),
            reached: t.reached,
            reasons: say_all(&t.reasons),
            sift: sheet
                .sift
                .iter()
                .map(|(name, why)| SiftView { name: name.clone(), why: sift_why(*why).to_owned() })
                .collect(),
            steps: sheet.steps.iter().map(step).collect(),
            tints: sheet
                .tints
                .iter()
                .map(|t| TintView { name: t.name.clone(), dough_g: t.dough.g(), paste_g: t.paste.g() })
                .collect(),
            cautions: sheet.cautions.iter().map(|c| bowl_caution(*c).to_owned()).collect(),
            notes: notes.iter().map(Into::into).collect(),
            learnt: learnt.map(|l| LearntView {
                mixes: l.mixes,
                flour_percent: l.flour_percent,
                water_percent: l.water_percent,
            }),
        }
    }
}

/// What mixes asked for, on the mean.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LearntView {
    /// How many.
    pub mixes: usize,
    /// Flour added (less what was kept aside and not used), of the flour.
    pub flour_percent: f64,
    /// Water added, of the flour.
    pub water_percent: f64,
}

/// What to do about it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct CorrectionView {
    /// Key of what to add; null when adding would be wrong.
    pub add: Option<String>,
    /// Its name.
    pub add_name: Option<String>,
    /// How much now.
    pub amount_g: f64,
    /// What may be added in all.
    pub limit_g: f64,
    /// What went in before.
    pub added_before_g: f64,
    /// In a sentence.
    pub say: SentenceView,
    /// Why.
    pub reasons: Vec<SentenceView>,
}

impl CorrectionView {
    /// The correction as sent.
    pub fn new(c: &Correction, name: Option<String>, added_before: Mass) -> Self {
        Self {
            add: c.add.map(str::to_owned),
            add_name: name,
            amount_g: c.amount.g(),
            limit_g: c.limit.g(),
            added_before_g: added_before.g(),
            say: say(&c.say),
            reasons: say_all(&c.reasons),
        }
    }
}

/// A kept note.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct MixNoteView {
    /// Its number.
    pub id: i64,
    /// Local time.
    pub noted_at: String,
    /// Version of the formula that was mixed.
    pub formula_version: u32,
    /// The note.
    #[serde(flatten)]
    pub body: BowlNote,
}

impl From<&StoredMixNote> for MixNoteView {
    fn from(stored: &StoredMixNote) -> Self {
        let n = &stored.kept;
        Self { id: stored.id.0, noted_at: n.noted_at.clone(), formula_version: n.formula_version, body: n.note.clone() }
    }
}

/// Something on hand.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OnHandBody {
    /// Key.
    pub ingredient: String,
    /// How much there is.
    pub grams: f64,
}

/// By what a dough is to be sized.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "by", rename_all = "snake_case", deny_unknown_fields)]
pub enum SizeRequest {
    /// Grams of dough, 20 to 200,000.
    Dough {
        /// Dough.
        dough_g: f64,
    },
    /// The written formula times this, 0.01 to 1,000.
    Factor {
        /// Times.
        factor: f64,
    },
    /// What is there; the scarcest sets the size.
    OnHand {
        /// Things of the formula.
        on_hand: Vec<OnHandBody>,
    },
}

impl SizeRequest {
    /// The core's question.
    pub fn by(&self) -> Result<SizeBy, InputErrors> {
        let finite = |field: String, g: f64| {
            Mass::from_g(g).map_err(|_| InputErrors::from(InputError::new(field, Problem::NotFinite)))
        };
        Ok(match self {
            Self::Dough { dough_g } => SizeBy::Dough(finite("dough_g".to_owned(), *dough_g)?),
            Self::Factor { factor } => SizeBy::Factor(*factor),
            Self::OnHand { on_hand } => {
                let mut things = Vec::with_capacity(on_hand.len());
                for (i, thing) in on_hand.iter().enumerate() {
                    things.push((thing.ingredient.clone(), finite(format!("on_hand[{i}].grams"), thing.grams)?));
                }
                SizeBy::OnHand(things)
            }
        })
    }
}

/// A size with what set it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SizedView {
    /// Dough in all.
    pub dough_g: f64,
    /// The written formula times this.
    pub factor: f64,
    /// What runs out first.
    pub scarce: Option<String>,
    /// What stays over of what is on hand.
    pub over: Vec<TakeView>,
    /// Pieces of this job's make that it yields.
    pub pieces: u32,
    /// Pans of a bar that it comes nearest to filling; null for other pieces.
    pub pans: Option<u32>,
    /// How thick it lies in them.
    pub pan_depth_mm: Option<f64>,
    /// What to weigh in all.
    pub weights: Vec<TakeView>,
}

impl SizedView {
    /// A size as sent.
    pub fn new(sized: &Sized, formula: &ready_slab_core::dough::Formula, pieces: u32, pan: Option<PanFill>) -> Self {
        Self {
            dough_g: sized.dough.g(),
            factor: sized.factor,
            scarce: sized.scarce.as_ref().map(|i| i.name.to_string()),
            over: sized.over.iter().map(|(i, m)| TakeView { name: i.name.to_string(), mass_g: m.g() }).collect(),
            pieces,
            pans: pan.map(|p| p.pans),
            pan_depth_mm: pan.map(|p| p.depth.mm()),
            weights: formula
                .lines()
                .iter()
                .map(|l| TakeView { name: l.ingredient().name.to_string(), mass_g: l.mass().g() * sized.factor })
                .collect(),
        }
    }
}

/// One line's cost.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LineCostView {
    /// Key.
    pub ingredient: String,
    /// Name.
    pub name: String,
    /// In the dough.
    pub mass_g: f64,
    /// A kilogram; null where no price is known.
    pub price_per_kg: Option<f64>,
    /// In the dough; null where no price is known.
    pub cost: Option<f64>,
}

/// One name on a label.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LabelItemView {
    /// As it is written.
    pub name: String,
    /// Of the dough as mixed.
    pub percent: f64,
    /// Allergens in it.
    pub allergens: Vec<String>,
}

/// Cost and label of a job's dough.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LabelView {
    /// Money sign.
    pub currency: String,
    /// By line.
    pub lines: Vec<LineCostView>,
    /// Of all lines with a price, for the whole dough.
    pub cost: f64,
    /// The same for one piece; null while any price is unknown.
    pub cost_a_piece: Option<f64>,
    /// Share of the dough's mass that has a price.
    pub priced_percent: f64,
    /// Names without a price.
    pub without_price: Vec<String>,
    /// Pieces the dough is for.
    pub pieces: u32,
    /// The label, in descending weight.
    pub items: Vec<LabelItemView>,
    /// The label as one text, allergens in capitals.
    pub text: String,
    /// Allergens by themselves.
    pub allergens: Vec<String>,
}

impl LabelView {
    /// Cost and label as sent.
    pub fn new(
        cost: &Cost,
        items: &[LabelItem],
        pantry: &ready_slab_core::dough::Pantry,
        currency: &str,
        pieces: u32,
        allergens: Vec<String>,
    ) -> Self {
        let without_price: Vec<String> =
            cost.lines.iter().filter(|l| l.cost.is_none()).map(|l| l.ingredient.name.to_string()).collect();
        Self {
            currency: currency.to_owned(),
            lines: cost
                .lines
                .iter()
                .map(|l| LineCostView {
                    ingredient: l.ingredient.key.to_string(),
                    name: l.ingredient.name.to_string(),
                    mass_g: l.mass.g(),
                    price_per_kg: pantry.price_per_kg(&l.ingredient.key),
                    cost: l.cost,
                })
                .collect(),
            cost: cost.known,
            cost_a_piece: without_price.is_empty().then(|| cost.known / f64::from(pieces.max(1))),
            priced_percent: 100.0 * cost.priced.value(),
            without_price,
            pieces,
            items: items
                .iter()
                .map(|i| LabelItemView {
                    name: i.name.clone(),
                    percent: 100.0 * i.share.value(),
                    allergens: i.allergens.clone(),
                })
                .collect(),
            text: label_text(items),
            allergens,
        }
    }
}
