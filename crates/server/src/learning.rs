//! What recorded bakes teach: as soon as they are recorded, without anybody's press.

use crate::heavy::Heavy;
use crate::problem::ApiError;
use actix_web::web;
use ready_slab_core::error::InputErrors;
use ready_slab_core::oven::{BakeSeen, BakesFitted, MOST_FITTED, learn_bakes};
use ready_slab_store::{FormulaId, Store, StoredRecord};

/// The newest recorded bakes of all formulas; a first formula is counted first.
pub struct Book {
    /// The formulas of its bakes, by their number in what was seen.
    pub formulas: Vec<FormulaId>,
    /// Bakes that teach, with what was seen of each.
    pub seen: Vec<(StoredRecord, BakeSeen)>,
    /// Bakes that somebody has left out.
    pub left_out: Vec<StoredRecord>,
    /// Baked with what the forecast does not reach.
    pub beyond: Vec<StoredRecord>,
    /// Without what they were baked with: they teach nothing.
    pub incomplete: Vec<StoredRecord>,
}

impl Book {
    /// Reads the newest of a bakery.
    pub async fn read(store: &Store, first: Option<FormulaId>) -> Result<Self, ApiError> {
        let all = store.newest_records(MOST_FITTED).await?;
        Ok(web::block(move || {
            let mut book = Self {
                formulas: first.into_iter().collect(),
                seen: vec![],
                left_out: vec![],
                beyond: vec![],
                incomplete: vec![],
            };
            for record in all {
                book.take(record);
            }
            book
        })
        .await?)
    }

    fn take(&mut self, record: StoredRecord) {
        if record.left_out {
            self.left_out.push(record);
            return;
        }
        let (Some(baked), Some(formula)) = (&record.kept.as_baked, record.kept.formula_id) else {
            self.incomplete.push(record);
            return;
        };
        let number = self.formulas.iter().position(|f| *f == formula).unwrap_or_else(|| {
            self.formulas.push(formula);
            self.formulas.len() - 1
        });
        match baked.seen(number, &record.kept.record) {
            Some(one) => self.seen.push((record, one)),
            None => self.beyond.push(record),
        }
    }

    /// What they teach; nothing where there are none.
    pub fn learn(&self) -> Result<Option<BakesFitted>, InputErrors> {
        learn_bakes(&self.seen.iter().map(|(_, seen)| seen.clone()).collect::<Vec<_>>())
    }
}

/// Learns from the recorded bakes, where what is known does not rest on just them. Whether it did.
///
/// Fails where too much is being computed; what is known stays as it was then, and is made good the next time.
pub async fn learn_anew(heavy: &Heavy, store: &Store) -> Result<bool, ApiError> {
    let wanted = store.teaching_records(MOST_FITTED).await?;
    if wanted == store.taught_by().await? {
        return Ok(false);
    }
    let book = Book::read(store, None).await?;
    let formulas = book.formulas.clone();
    let Some(found) = heavy.run(move || book.learn()).await?? else {
        store.forget_bakes().await?;
        return Ok(true);
    };
    // Those that were never baked take what all have in common.
    let others = store.formulas().await?.into_iter().map(|f| f.id).filter(|id| !formulas.contains(id));
    let all: Vec<FormulaId> = formulas.iter().copied().chain(others).collect();
    let taught: Vec<_> = all.into_iter().enumerate().map(|(i, id)| (id, found.of(i).dough)).collect();
    store.teach_by_bakes(&found.oven, &taught, &wanted).await?;
    Ok(true)
}

/// The same after a bake was kept, struck out or left out: that is done already, and what it teaches is made good at the next look where it cannot be now.
pub async fn learn_after(heavy: &Heavy, store: &Store) -> bool {
    match learn_anew(heavy, store).await {
        Ok(learnt) => learnt,
        Err(error) => {
            tracing::warn!(%error, "bakes will be used at the next look");
            false
        }
    }
}
