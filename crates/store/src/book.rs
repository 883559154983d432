//! The whole book of bakes: looked through by name, dough, colour and date, a page at a time.

use crate::error::StoreError;
use crate::records::RecordRow;
use crate::rows::word;
use crate::store::Store;
use crate::things::{RecordId, StoredRecord};
use chrono::NaiveDate;
use ready_slab_core::ledger::AgainstExpected;
use ready_slab_core::oven::EdgeColour;
use sqlx::sqlite::SqliteRow;
use sqlx::{FromRow, QueryBuilder, Row as _, Sqlite};

/// What records are looked for.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct BookWanted {
    /// Part of the name of the job or of its dough, or of the notes; all where empty.
    pub named: String,
    /// With this edge.
    pub edge: Option<EdgeColour>,
    /// That spread as expected, or less, or more.
    pub spread: Option<AgainstExpected>,
    /// From this day on.
    pub from_day: Option<NaiveDate>,
    /// Until this day.
    pub to_day: Option<NaiveDate>,
    /// So many are left out.
    pub from: usize,
    /// So many at most.
    pub most: usize,
}

/// A record with what it is called.
#[derive(Debug, Clone, PartialEq)]
pub struct BookRecord {
    /// The record.
    pub stored: StoredRecord,
    /// Its job's name; nothing where the job is gone.
    pub job: Option<String>,
    /// Its dough's name.
    pub formula: Option<String>,
}

/// The records of one page.
#[derive(Debug, Clone, PartialEq)]
pub struct BookPage {
    /// The newest first.
    pub records: Vec<BookRecord>,
    /// How many there are in all.
    pub total: usize,
}

struct BookRow {
    record: RecordRow,
    job_name: Option<String>,
    formula_name: Option<String>,
}

impl<'r> FromRow<'r, SqliteRow> for BookRow {
    fn from_row(row: &'r SqliteRow) -> Result<Self, sqlx::Error> {
        Ok(Self {
            record: RecordRow::from_row(row)?,
            job_name: row.try_get("job_name")?,
            formula_name: row.try_get("formula_name")?,
        })
    }
}

impl BookWanted {
    fn push(&self, query: &mut QueryBuilder<Sqlite>) {
        query.push(" FROM bake_record r WHERE r.struck_at IS NULL");
        let named = self.named.trim();
        if !named.is_empty() {
            let escaped = named.replace('\\', "\\\\").replace('%', "\\%").replace('_', "\\_");
            let like = format!("%{escaped}%");
            // Jobs and doughs of that name are few; each is looked up once, not once a record.
            query.push(" AND (r.job_id IN (SELECT id FROM job WHERE name LIKE ").push_bind(like.clone());
            query
                .push(" ESCAPE '\\') OR r.formula_id IN (SELECT id FROM formula WHERE name LIKE ")
                .push_bind(like.clone());
            query.push(" ESCAPE '\\') OR r.notes LIKE ").push_bind(like).push(" ESCAPE '\\')");
        }
        if let Some(edge) = self.edge {
            query.push(" AND r.edge_colour = ").push_bind(word(edge));
        }
        if let Some(spread) = self.spread {
            query.push(" AND r.spread_against = ").push_bind(word(spread));
        }
        if let Some(day) = self.from_day {
            query.push(" AND r.recorded_at >= ").push_bind(day.to_string());
        }
        if let Some(day) = self.to_day.and_then(|d| d.succ_opt()) {
            query.push(" AND r.recorded_at < ").push_bind(day.to_string());
        }
    }
}

impl Store {
    /// One record of it.
    pub async fn book_record(&self, id: RecordId) -> Result<BookRecord, StoreError> {
        let stored = self.record(id).await?;
        let name = async |sql: &'static str, id: i64| -> Result<Option<String>, StoreError> {
            let found: Option<(String,)> =
                sqlx::query_as(sql).bind(id).fetch_optional(&mut *self.conn().await?).await?;
            Ok(found.map(|(name,)| name))
        };
        let job = name("SELECT name FROM job WHERE id = ?", stored.kept.job_id.0).await?;
        let formula = match stored.kept.formula_id {
            Some(id) => name("SELECT name FROM formula WHERE id = ?", id.0).await?,
            None => None,
        };
        Ok(BookRecord { stored, job, formula })
    }

    /// A page of the book.
    pub async fn book(&self, wanted: &BookWanted) -> Result<BookPage, StoreError> {
        let number = |n: usize| i64::try_from(n).unwrap_or(i64::MAX);
        let mut count = QueryBuilder::new("SELECT COUNT(*)");
        wanted.push(&mut count);
        let (total,): (i64,) = count.build_query_as().fetch_one(&mut *self.conn().await?).await?;
        // Which they are is found in the index alone; only the rows of the page are read.
        let mut page = QueryBuilder::new(
            "SELECT r.*, EXISTS (SELECT 1 FROM record_photo WHERE record_id = r.id) AS has_photo, j.name AS job_name, f.name AS formula_name \
             FROM bake_record r LEFT JOIN job j ON j.id = r.job_id LEFT JOIN formula f ON f.id = r.formula_id WHERE r.id IN (SELECT r.id",
        );
        wanted.push(&mut page);
        page.push(" ORDER BY r.recorded_at DESC, r.id DESC LIMIT ").push_bind(number(wanted.most));
        page.push(" OFFSET ").push_bind(number(wanted.from));
        page.push(") ORDER BY r.recorded_at DESC, r.id DESC");
        let rows: Vec<BookRow> = page.build_query_as().fetch_all(&mut *self.conn().await?).await?;
        let pantry = self.pantry().await?;
        let records = rows.into_iter().map(|row| {
            let stored = row.record.into_core(&pantry)?;
            Ok(BookRecord { stored, job: row.job_name, formula: row.formula_name })
        });
        Ok(BookPage {
            records: records.collect::<Result<_, StoreError>>()?,
            total: usize::try_from(total).unwrap_or(0),
        })
    }
}
