//! Bakes and notes at the bowl: facts of the day, kept as they happen, outside the undo history. One that is struck out stays and
//! can be put back.

use crate::document::{JobRow, KitchenRow};
use crate::error::StoreError;
use crate::from_row::row;
use crate::rows::{CutterRow, from_word, list, text, word};
use crate::rows_dough::{FormulaRow, MixNoteRow};
use crate::store::{Store, now};
use crate::things::{
    AsBaked, FormulaId, JobId, MixNoteId, Moved, NewMixNote, NewRecord, RecordId, RecordPhoto, RunId, StoredJob,
    StoredMixNote, StoredRecord,
};
use ready_slab_core::dough::Pantry;
use ready_slab_core::job::keep_version_with;
use ready_slab_core::ledger::{BakeRecord, CUT_ALIKE_MM};
use ready_slab_core::units::{Length, Share, Span, Temperature};
use serde::{Deserialize, Serialize};

const RECORD: &str = "bake";
const NOTE: &str = "batch note";
/// So many records are looked at for evenness: more points than a chart shows well.
const MOST_ALIKE: i64 = 200;

/// What a bake was baked with, as JSON beside its record.
#[derive(Serialize, Deserialize)]
struct AsBakedJson {
    job: JobRow,
    formula: FormulaRow,
    piece: CutterRow,
    kitchen: KitchenRow,
    start_c: f64,
}

impl AsBakedJson {
    fn of(baked: &AsBaked) -> Self {
        Self {
            job: JobRow::of(0, &baked.job.clone().alone()),
            formula: FormulaRow::of(0, &baked.formula),
            piece: CutterRow::beside("piece", "made", &baked.outline),
            kitchen: KitchenRow::of(&baked.kitchen),
            start_c: baked.start.c(),
        }
    }

    fn text(&self) -> String {
        serde_json::to_string(self).expect("rows serialise")
    }

    fn read(text: &str, pantry: &Pantry) -> Option<AsBaked> {
        let json: Self = serde_json::from_str(text).ok()?;
        Some(AsBaked {
            job: json.job.into_core().ok()?.job,
            formula: json.formula.into_core(0, 0, pantry).ok()?.formula,
            outline: json.piece.into_core().ok()?.outline,
            kitchen: json.kitchen.into_core().ok()?,
            start: Temperature::from_c(json.start_c).ok()?,
        })
    }
}

row! {
    pub(crate) struct RecordRow {
        id: i64,
        job_id: i64,
        recorded_at: String,
        cut_width_mm: f64,
        cut_thickness_mm: f64,
        widths_mm: String,
        thicknesses_mm: String,
        baked_min: Option<f64>,
        edge_colour: String,
        notes: String,
        expected_bake_least_min: f64,
        expected_bake_most_min: f64,
        expected_spread_least_share: f64,
        expected_spread_most_share: f64,
        formula_id: Option<i64>,
        formula_version: Option<u32>,
        as_baked: Option<String>,
        run_id: Option<i64>,
        tray: Option<u32>,
        spread_against: String,
        struck_at: Option<String>,
        left_out: bool,
        moved: Option<String>,
        has_photo: bool,
    }
}

/// Six figures as they are kept; nothing where they are none.
fn moved_from(text: &str) -> Option<Moved> {
    let minutes: [f64; 6] = serde_json::from_str(text).ok()?;
    let [a, b, c, d, e, f] = minutes.map(|m| (m.is_finite() && m >= 0.0).then(|| Span::new_min(m)));
    Some(Moved { before: [a?, b?, c?], after: [d?, e?, f?] })
}

/// A record and whether it has a photo.
macro_rules! records {
    ($rest:literal) => {
        concat!(
            "SELECT bake_record.*, EXISTS (SELECT 1 FROM record_photo WHERE record_id = bake_record.id) AS has_photo FROM bake_record WHERE ",
            $rest
        )
    };
}

impl RecordRow {
    fn of(id: i64, new: &NewRecord) -> Self {
        let mm = |l: &[Length]| text(&l.iter().map(|l| l.mm()).collect::<Vec<_>>());
        Self {
            id,
            job_id: new.job_id.0,
            recorded_at: new.recorded_at.clone(),
            cut_width_mm: new.record.cut_width().mm(),
            cut_thickness_mm: new.record.cut_thickness().mm(),
            widths_mm: mm(new.record.widths()),
            thicknesses_mm: mm(new.record.thicknesses()),
            baked_min: new.record.baked().map(Span::min),
            edge_colour: word(new.record.edge()),
            notes: new.record.notes().to_owned(),
            expected_bake_least_min: new.expected_bake.0.min(),
            expected_bake_most_min: new.expected_bake.1.min(),
            expected_spread_least_share: new.expected_spread.0.value(),
            expected_spread_most_share: new.expected_spread.1.value(),
            formula_id: new.formula_id.map(|f| f.0),
            formula_version: new.formula_version,
            as_baked: new.as_baked.as_ref().map(|b| AsBakedJson::of(b).text()),
            run_id: new.of_run.map(|(run, _)| run.0),
            tray: new.of_run.map(|(_, tray)| tray),
            spread_against: word(new.record.findings().spread_against(new.expected_spread)),
            struck_at: None,
            left_out: false,
            moved: None,
            has_photo: false,
        }
    }

    pub(crate) fn into_core(self, pantry: &Pantry) -> Result<StoredRecord, StoreError> {
        let id = self.id;
        let finite = |v: f64| if v.is_finite() { v } else { 0.0 };
        let record = BakeRecord::new(
            Length::new_mm(finite(self.cut_width_mm)),
            Length::new_mm(finite(self.cut_thickness_mm)),
            &list::<f64>("bake", id, &self.widths_mm)?,
            &list::<f64>("bake", id, &self.thicknesses_mm)?,
            self.baked_min,
            from_word("bake", id, &self.edge_colour)?,
            &self.notes,
        )
        .map_err(|e| StoreError::damaged("bake", id, &e))?;
        let span = |v: f64| Span::new_min(finite(v));
        let share = |v: f64| Share::new(finite(v));
        Ok(StoredRecord {
            id: RecordId(id),
            struck: self.struck_at.is_some(),
            has_photo: self.has_photo,
            left_out: self.left_out,
            moved: self.moved.as_deref().and_then(moved_from),
            kept: NewRecord {
                job_id: JobId(self.job_id),
                recorded_at: self.recorded_at,
                formula_id: self.formula_id.map(FormulaId),
                formula_version: self.formula_version,
                // What can no longer be read (an ingredient that is gone) leaves a record without its conditions.
                as_baked: self.as_baked.as_deref().and_then(|text| AsBakedJson::read(text, pantry)),
                record,
                expected_bake: (span(self.expected_bake_least_min), span(self.expected_bake_most_min)),
                expected_spread: (share(self.expected_spread_least_share), share(self.expected_spread_most_share)),
                of_run: self.run_id.map(RunId).zip(self.tray),
            },
        })
    }
}

impl Store {
    /// Records of a job, the latest first; not those struck out.
    pub async fn records(&self, job: JobId) -> Result<Vec<StoredRecord>, StoreError> {
        let rows: Vec<RecordRow> =
            sqlx::query_as(records!("job_id = ? AND struck_at IS NULL ORDER BY recorded_at DESC, id DESC"))
                .bind(job.0)
                .fetch_all(&mut *self.conn().await?)
                .await?;
        self.whole_records(rows).await
    }

    /// The newest records of the kitchen, whatever has become of their jobs; not those struck out.
    pub async fn newest_records(&self, most: usize) -> Result<Vec<StoredRecord>, StoreError> {
        let rows: Vec<RecordRow> =
            sqlx::query_as(records!("struck_at IS NULL ORDER BY recorded_at DESC, id DESC LIMIT ?"))
                .bind(i64::try_from(most).unwrap_or(i64::MAX))
                .fetch_all(&mut *self.conn().await?)
                .await?;
        self.whole_records(rows).await
    }

    /// The numbers of the newest records that may teach, the newest first: neither struck out nor left out, with what they were baked with.
    pub async fn teaching_records(&self, most: usize) -> Result<Vec<RecordId>, StoreError> {
        let rows: Vec<(i64,)> = sqlx::query_as(
            "SELECT id FROM bake_record WHERE struck_at IS NULL AND left_out = 0 AND as_baked IS NOT NULL AND formula_id IS NOT NULL \
             ORDER BY recorded_at DESC, id DESC LIMIT ?",
        )
        .bind(i64::try_from(most).unwrap_or(i64::MAX))
        .fetch_all(&mut *self.conn().await?)
        .await?;
        Ok(rows.into_iter().map(|(id,)| RecordId(id)).collect())
    }

    /// Leaves a record out of what bakes teach, or puts it back.
    pub async fn leave_record_out(&self, id: RecordId, left_out: bool) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        w.record(id).await?;
        sqlx::query("UPDATE bake_record SET left_out = ? WHERE id = ?")
            .bind(left_out)
            .bind(id.0)
            .execute(&mut *w.conn().await?)
            .await?;
        w.commit().await
    }

    /// Keeps what a record moved.
    pub async fn record_moved(&self, id: RecordId, moved: &Moved) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        let minutes: Vec<f64> = moved.before.iter().chain(&moved.after).map(|s| s.min()).collect();
        sqlx::query("UPDATE bake_record SET moved = ? WHERE id = ?")
            .bind(text(&minutes))
            .bind(id.0)
            .execute(&mut *w.conn().await?)
            .await?;
        w.commit().await
    }

    /// Records of the dough of a job that were cut like its last one (`CUT_ALIKE_MM`), the oldest first; the newest few hundred.
    pub async fn records_like(&self, job: JobId) -> Result<Vec<StoredRecord>, StoreError> {
        let formula = self.job(job).await?.formula_id();
        let Some(last) = self.records(job).await?.into_iter().next() else { return Ok(vec![]) };
        let (width, thickness) = (last.kept.record.cut_width().mm(), last.kept.record.cut_thickness().mm());
        let mut rows: Vec<RecordRow> = sqlx::query_as(records!(
            "formula_id = ? AND struck_at IS NULL AND ABS(cut_width_mm - ?) < ? AND ABS(cut_thickness_mm - ?) < ? \
             ORDER BY recorded_at DESC, id DESC LIMIT ?"
        ))
        .bind(formula.0)
        .bind(width)
        .bind(CUT_ALIKE_MM.0)
        .bind(thickness)
        .bind(CUT_ALIKE_MM.1)
        .bind(MOST_ALIKE)
        .fetch_all(&mut *self.conn().await?)
        .await?;
        rows.reverse();
        self.whole_records(rows).await
    }

    /// One record, also if it was struck out.
    pub async fn record(&self, id: RecordId) -> Result<StoredRecord, StoreError> {
        let rows: Vec<RecordRow> =
            sqlx::query_as(records!("id = ?")).bind(id.0).fetch_all(&mut *self.conn().await?).await?;
        self.whole_records(rows).await?.pop().ok_or(StoreError::NotFound { thing: RECORD, id: id.0 })
    }

    async fn whole_records(&self, rows: Vec<RecordRow>) -> Result<Vec<StoredRecord>, StoreError> {
        let pantry = self.pantry().await?;
        rows.into_iter().map(|r| r.into_core(&pantry)).collect()
    }

    /// Keeps the photo that a record was measured by, in place of any other.
    pub async fn keep_photo(&self, id: RecordId, photo: &RecordPhoto) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        w.record(id).await?;
        sqlx::query("INSERT OR REPLACE INTO record_photo (record_id, jpeg, found) VALUES (?, ?, ?)")
            .bind(id.0)
            .bind(&photo.jpeg)
            .bind(&photo.found)
            .execute(&mut *w.conn().await?)
            .await?;
        w.commit().await
    }

    /// The photo of a record.
    pub async fn photo(&self, id: RecordId) -> Result<RecordPhoto, StoreError> {
        let row: Option<(Vec<u8>, String)> = sqlx::query_as("SELECT jpeg, found FROM record_photo WHERE record_id = ?")
            .bind(id.0)
            .fetch_optional(&mut *self.conn().await?)
            .await?;
        let (jpeg, found) = row.ok_or(StoreError::NotFound { thing: "photo of bake", id: id.0 })?;
        Ok(RecordPhoto { jpeg, found })
    }

    /// Removes the photo of a record; the record stays.
    pub async fn remove_photo(&self, id: RecordId) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        let done = sqlx::query("DELETE FROM record_photo WHERE record_id = ?")
            .bind(id.0)
            .execute(&mut *w.conn().await?)
            .await?;
        if done.rows_affected() == 0 {
            return Err(StoreError::NotFound { thing: "photo of bake", id: id.0 });
        }
        w.commit().await
    }

    /// Keeps a record with the version of the formula that was baked. With `own_bake` (not a trial) the job and all whose dough
    /// came out of the same mixes keep that version from then on.
    pub async fn add_record(&self, record: &NewRecord, own_bake: bool) -> Result<RecordId, StoreError> {
        let w = self.begin(None).await?;
        let job = w.job(record.job_id).await?;
        let version = match job.formula_version() {
            Some(version) => version,
            None => w.formula(job.formula_id()).await?.version,
        };
        let kept = NewRecord { formula_id: Some(job.formula_id()), formula_version: Some(version), ..record.clone() };
        let id = w.keep_record(&kept).await?;
        let near: Vec<JobId> = std::iter::once(job.id).chain(job.dough_with()).chain(job.lot_of()).collect();
        let jobs = if own_bake { w.related_jobs(&near).await? } else { vec![] };
        let keep = keep_version_with(&job.kin(), &jobs.iter().map(StoredJob::kin).collect::<Vec<_>>());
        if !keep.is_empty() {
            let kept = jobs.into_iter().filter(|j| keep.contains(&j.id.0));
            let kept: Vec<StoredJob> = kept.map(|j| StoredJob { job: j.job.keeping_version(version), ..j }).collect();
            w.save_jobs(&kept, &format!("version {version} saved because you baked it")).await?;
        }
        w.commit().await?;
        Ok(id)
    }

    /// Keeps records that were made elsewhere, all of them or none; no version is kept for them.
    pub async fn add_records(&self, records: &[NewRecord]) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        for record in records {
            w.job(record.job_id).await?;
            w.keep_record(record).await?;
        }
        w.commit().await
    }

    pub(crate) async fn keep_record(&self, record: &NewRecord) -> Result<RecordId, StoreError> {
        let id = self.next(RECORD).await?;
        let r = RecordRow::of(id, record);
        sqlx::query(
            "INSERT INTO bake_record (id, job_id, recorded_at, cut_width_mm, cut_thickness_mm, widths_mm, \
             thicknesses_mm, baked_min, edge_colour, notes, expected_bake_least_min, expected_bake_most_min, \
             expected_spread_least_share, expected_spread_most_share, formula_id, formula_version, as_baked, run_id, tray, spread_against) \
             VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
        )
        .bind(r.id)
        .bind(r.job_id)
        .bind(&r.recorded_at)
        .bind(r.cut_width_mm)
        .bind(r.cut_thickness_mm)
        .bind(&r.widths_mm)
        .bind(&r.thicknesses_mm)
        .bind(r.baked_min)
        .bind(&r.edge_colour)
        .bind(&r.notes)
        .bind(r.expected_bake_least_min)
        .bind(r.expected_bake_most_min)
        .bind(r.expected_spread_least_share)
        .bind(r.expected_spread_most_share)
        .bind(r.formula_id)
        .bind(r.formula_version)
        .bind(&r.as_baked)
        .bind(r.run_id)
        .bind(r.tray)
        .bind(&r.spread_against)
        .execute(&mut *self.conn().await?)
        .await?;
        Ok(RecordId(id))
    }

    /// Strikes a record out, or puts it back.
    pub async fn strike_record(&self, id: RecordId, struck: bool) -> Result<(), StoreError> {
        self.strike(RECORD, "UPDATE bake_record SET struck_at = ? WHERE id = ?", id.0, struck).await
    }

    /// Strikes a note out, or puts it back.
    pub async fn strike_mix_note(&self, id: MixNoteId, struck: bool) -> Result<(), StoreError> {
        self.strike(NOTE, "UPDATE mix_note SET struck_at = ? WHERE id = ?", id.0, struck).await
    }

    async fn strike(&self, thing: &'static str, query: &'static str, id: i64, struck: bool) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        let done =
            sqlx::query(query).bind(struck.then(now)).bind(id).execute(&mut *w.conn().await?).await?.rows_affected();
        if done == 0 {
            return Err(StoreError::NotFound { thing, id });
        }
        w.commit().await
    }

    /// Notes on the mixes of a job, in the order they were made; not those struck out.
    pub async fn mix_notes(&self, job: JobId) -> Result<Vec<StoredMixNote>, StoreError> {
        let rows: Vec<MixNoteRow> =
            sqlx::query_as("SELECT * FROM mix_note WHERE job_id = ? AND struck_at IS NULL ORDER BY noted_at, id")
                .bind(job.0)
                .fetch_all(&mut *self.conn().await?)
                .await?;
        rows.into_iter().map(MixNoteRow::into_core).collect()
    }

    /// Notes on the mixes of a formula in all jobs; not those struck out.
    pub async fn mix_notes_of(&self, formula: FormulaId) -> Result<Vec<StoredMixNote>, StoreError> {
        let rows: Vec<MixNoteRow> =
            sqlx::query_as("SELECT * FROM mix_note WHERE formula_id = ? AND struck_at IS NULL ORDER BY noted_at, id")
                .bind(formula.0)
                .fetch_all(&mut *self.conn().await?)
                .await?;
        rows.into_iter().map(MixNoteRow::into_core).collect()
    }

    /// Keeps a note on a mix.
    pub async fn add_mix_note(&self, note: &NewMixNote) -> Result<MixNoteId, StoreError> {
        let w = self.begin(None).await?;
        w.job(note.job_id).await?;
        let id = w.next(NOTE).await?;
        let n = MixNoteRow::of(id, note);
        sqlx::query(
            "INSERT INTO mix_note (id, job_id, formula_id, formula_version, noted_at, mix, feel, squeeze, ingredient, \
             grams, left_over_g, flour_g, dough_c) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
        )
        .bind(n.id)
        .bind(n.job_id)
        .bind(n.formula_id)
        .bind(n.formula_version)
        .bind(&n.noted_at)
        .bind(n.mix)
        .bind(&n.feel)
        .bind(&n.squeeze)
        .bind(&n.ingredient)
        .bind(n.grams)
        .bind(n.left_over_g)
        .bind(n.flour_g)
        .bind(n.dough_c)
        .execute(&mut *w.conn().await?)
        .await?;
        w.commit().await?;
        Ok(MixNoteId(id))
    }
}
