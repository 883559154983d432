//! Formulas with their versions, and the pantry they are made from.

use crate::edits::Change;
use crate::error::StoreError;
use crate::row::{Key, Row, Thing};
use crate::rows_dough::{FormulaRow, LineRow, PantryRow, VersionRow};
use crate::store::{Store, now};
use crate::things::{FormulaId, FormulaVersion, PantryId, StoredEntry, StoredFormula};
use ready_slab_core::dough::{Formula, Ingredient, Pantry};

impl Store {
    /// The bakery's own entries: ingredients and prices.
    pub async fn entries(&self) -> Result<Vec<StoredEntry>, StoreError> {
        let rows: Vec<PantryRow> =
            sqlx::query_as("SELECT * FROM pantry ORDER BY id").fetch_all(&mut *self.conn().await?).await?;
        rows.into_iter().map(PantryRow::into_core).collect()
    }

    /// All ingredients with what they cost.
    pub async fn pantry(&self) -> Result<Pantry, StoreError> {
        let entries = self.entries().await?;
        let prices = entries.iter().filter_map(|e| e.price_per_kg.map(|p| (e.key.clone(), p))).collect();
        Pantry::with(entries.into_iter().filter_map(|e| e.own).collect(), prices)
            .map_err(|e| StoreError::damaged("pantry", 0, &e.into()))
    }

    /// Puts an ingredient of the bakery's own into the pantry. `make` is given the key it will have.
    pub async fn add_ingredient<E: From<StoreError>>(
        &self,
        make: impl FnOnce(String) -> Result<Ingredient, E>,
        label: &str,
    ) -> Result<String, E> {
        let w = self.begin(None).await?;
        let id = w.next(Thing::Pantry.word()).await?;
        let key = format!("own-{id}");
        let own = make(key.clone())?;
        w.note(label, vec![Change::put(Row::Pantry(PantryRow::of(id, &key, Some(&own), None)))]).await?;
        w.commit().await?;
        Ok(key)
    }

    async fn entry(&self, key: &str) -> Result<Option<StoredEntry>, StoreError> {
        Ok(self.entries().await?.into_iter().find(|e| e.key == key))
    }

    /// Keeps an own ingredient under its key.
    pub async fn save_ingredient(&self, own: &Ingredient, label: &str) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        let found = w.entry(&own.key).await?.filter(|e| e.own.is_some());
        let entry = found.ok_or(StoreError::NotFound { thing: "own ingredient", id: 0 })?;
        let row = PantryRow::of(entry.id.0, &own.key, Some(own), entry.price_per_kg);
        w.note(label, vec![Change::put(Row::Pantry(row))]).await?;
        w.commit().await
    }

    /// Takes an own ingredient out of the pantry; refuses while a formula or one of its versions uses it.
    pub async fn delete_ingredient(&self, key: &str, label: &str) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        let found = w.entry(key).await?.filter(|e| e.own.is_some());
        let entry = found.ok_or(StoreError::NotFound { thing: "own ingredient", id: 0 })?;
        let (count,): (i64,) = sqlx::query_as(
            "SELECT COUNT(DISTINCT v.formula_id) FROM formula_version AS v, json_each(v.lines) AS l \
             WHERE json_extract(l.value, '$.ingredient') = ?",
        )
        .bind(key)
        .fetch_one(&mut *w.conn().await?)
        .await?;
        if count > 0 {
            let by =
                if count == 1 { "recipe or an earlier version of it" } else { "recipes or their earlier versions" };
            return Err(StoreError::InUse { thing: "ingredient", by, count });
        }
        w.note(label, vec![Change::Remove(Key { thing: Thing::Pantry, id: entry.id.0 })]).await?;
        w.commit().await
    }

    /// Keeps the price of an ingredient, or forgets it.
    pub async fn save_price(&self, key: &str, price_per_kg: Option<f64>, label: &str) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        let change = match (w.entry(key).await?, price_per_kg) {
            (Some(entry), None) if entry.own.is_none() => Change::Remove(Key { thing: Thing::Pantry, id: entry.id.0 }),
            (Some(entry), price) => Change::put(Row::Pantry(PantryRow::of(entry.id.0, key, entry.own.as_ref(), price))),
            (None, None) => return Ok(()),
            (None, price) => {
                let id = w.next(Thing::Pantry.word()).await?;
                Change::put(Row::Pantry(PantryRow::of(id, key, None, price)))
            }
        };
        w.note(label, vec![change]).await?;
        w.commit().await
    }

    /// The number of an entry, for tests and links.
    pub async fn entry_id(&self, key: &str) -> Result<Option<PantryId>, StoreError> {
        Ok(self.entry(key).await?.map(|e| e.id))
    }

    /// All formulas by name.
    pub async fn formulas(&self) -> Result<Vec<StoredFormula>, StoreError> {
        let pantry = self.pantry().await?;
        let heads: Vec<(i64, String, Option<String>, u32, i64)> = sqlx::query_as(
            "SELECT f.id, f.name, f.says, (SELECT COALESCE(MAX(v.number), 1) FROM formula_version AS v WHERE v.formula_id = f.id), \
             (SELECT COALESCE(MAX(r.number), 0) FROM revision AS r WHERE r.thing = 'formula' AND r.thing_id = f.id) \
             FROM formula AS f ORDER BY f.name, f.id",
        )
        .fetch_all(&mut *self.conn().await?)
        .await?;
        let lines: Vec<(i64, String, f64, String)> = sqlx::query_as(
            "SELECT formula_id, ingredient, grams, note FROM formula_line ORDER BY formula_id, position",
        )
        .fetch_all(&mut *self.conn().await?)
        .await?;
        heads
            .into_iter()
            .map(|(id, name, says, version, revision)| {
                let own = lines.iter().filter(|l| l.0 == id);
                let lines = own.map(|l| LineRow { ingredient: l.1.clone(), grams: l.2, note: l.3.clone() }).collect();
                FormulaRow { id, name, lines, says }.into_core(version, revision, &pantry)
            })
            .collect()
    }

    async fn newest(&self, id: FormulaId) -> Result<u32, StoreError> {
        let (number,): (u32,) =
            sqlx::query_as("SELECT COALESCE(MAX(number), 1) FROM formula_version WHERE formula_id = ?")
                .bind(id.0)
                .fetch_one(&mut *self.conn().await?)
                .await?;
        Ok(number)
    }

    /// One formula, as it stands.
    pub async fn formula(&self, id: FormulaId) -> Result<StoredFormula, StoreError> {
        let pantry = self.pantry().await?;
        match self.one(Thing::Formula, id.0).await? {
            Row::Formula(row) => {
                row.into_core(self.newest(id).await?, self.revision(Thing::Formula, id.0).await?, &pantry)
            }
            _ => Err(StoreError::NotFound { thing: "formula", id: id.0 }),
        }
    }

    /// A formula as it was at a revision, where that is still known.
    pub async fn formula_at_revision(&self, id: FormulaId, revision: i64) -> Result<Option<StoredFormula>, StoreError> {
        let pantry = self.pantry().await?;
        match self.at_revision(Thing::Formula, id.0, revision).await? {
            Some(Row::Formula(row)) => row.into_core(0, revision, &pantry).map(Some),
            _ => Ok(None),
        }
    }

    /// A formula as it was at a version, or as it stands where none is asked for.
    pub async fn formula_at(&self, id: FormulaId, version: Option<u32>) -> Result<StoredFormula, StoreError> {
        let Some(number) = version else { return self.formula(id).await };
        let row: Option<VersionRow> =
            sqlx::query_as("SELECT * FROM formula_version WHERE formula_id = ? AND number = ?")
                .bind(id.0)
                .bind(number)
                .fetch_optional(&mut *self.conn().await?)
                .await?;
        match row {
            Some(row) => {
                let found = row.into_core(&self.pantry().await?)?;
                let revision = self.revision(Thing::Formula, id.0).await?;
                Ok(StoredFormula { id, formula: found.formula, version: found.number, revision })
            }
            // A version that an undo took away: the formula as it stands is the nearest to it.
            None => self.formula(id).await,
        }
    }

    /// All versions of a formula, the latest first.
    pub async fn versions(&self, id: FormulaId) -> Result<Vec<FormulaVersion>, StoreError> {
        self.one(Thing::Formula, id.0).await?;
        let pantry = self.pantry().await?;
        let rows: Vec<VersionRow> =
            sqlx::query_as("SELECT * FROM formula_version WHERE formula_id = ? ORDER BY number DESC")
                .bind(id.0)
                .fetch_all(&mut *self.conn().await?)
                .await?;
        rows.into_iter().map(|r| r.into_core(&pantry)).collect()
    }

    /// Puts a formula on the shelf, as its first version.
    pub async fn add_formula(&self, formula: &Formula, label: &str) -> Result<FormulaId, StoreError> {
        let w = self.begin(None).await?;
        let id = w.next(Thing::Formula.word()).await?;
        let version = w.version(id, formula).await?;
        w.note(label, vec![Change::put(Row::Formula(FormulaRow::of(id, formula))), version]).await?;
        w.commit().await?;
        Ok(FormulaId(id))
    }

    /// Keeps a formula under its number, as a further version.
    pub async fn save_formula(&self, id: FormulaId, formula: &Formula, label: &str) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        w.one(Thing::Formula, id.0).await?;
        let version = w.version(id.0, formula).await?;
        w.note(label, vec![Change::put(Row::Formula(FormulaRow::of(id.0, formula))), version]).await?;
        w.commit().await
    }

    /// Takes a formula off the shelf with its versions; refuses while a job uses it. What was found of it stays, for it to come
    /// back to.
    pub async fn delete_formula(&self, id: FormulaId, label: &str) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        w.one(Thing::Formula, id.0).await?;
        w.unused("formula", "SELECT COUNT(*) FROM job WHERE formula_id = ?", id.0).await?;
        let ids: Vec<(i64,)> =
            sqlx::query_as("SELECT id FROM formula_version WHERE formula_id = ? ORDER BY number DESC")
                .bind(id.0)
                .fetch_all(&mut *w.conn().await?)
                .await?;
        let mut changes: Vec<Change> =
            ids.into_iter().map(|(id,)| Change::Remove(Key { thing: Thing::Version, id })).collect();
        changes.push(Change::Remove(Key { thing: Thing::Formula, id: id.0 }));
        w.note(label, changes).await?;
        w.commit().await
    }

    /// The next version's number of a formula; like all numbers, never given out twice.
    pub(crate) async fn next_version(&self, formula_id: i64) -> Result<u32, StoreError> {
        let number = self.next(&format!("version of recipe {formula_id}")).await?;
        u32::try_from(number).map_err(|e| StoreError::Damaged { thing: "formula", id: formula_id, why: e.to_string() })
    }

    async fn version(&self, formula_id: i64, formula: &Formula) -> Result<Change, StoreError> {
        let number = self.next_version(formula_id).await?;
        let id = self.next(Thing::Version.word()).await?;
        Ok(Change::put(Row::Version(VersionRow::of(id, formula_id, number, &now(), formula))))
    }
}
