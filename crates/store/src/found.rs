//! Jobs among thousands: by what they have to do with another, by their date, by their name, a page at a time.

use crate::document::JobRow;
use crate::error::StoreError;
use crate::store::Store;
use crate::tables::job_rows;
use crate::things::{JobId, StoredJob};
use chrono::{Days, NaiveDate};
use sqlx::{QueryBuilder, Sqlite};

/// The jobs of one page.
#[derive(Debug, Clone, PartialEq)]
pub struct JobPage {
    /// Those asked for, in their order; each with its lots after all of them.
    pub jobs: Vec<StoredJob>,
    /// How many there are in all, without lots.
    pub total: usize,
    /// How many of them are wanted from today on: those come first.
    pub coming: usize,
    /// Those of them that do not read as sound values, and why.
    pub damaged: Vec<(JobId, String)>,
}

/// What jobs are looked for.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct JobsWanted {
    /// Those wanted from this day on come first, the soonest first; then the earlier ones, the latest first.
    pub today: NaiveDate,
    /// Part of the name of the job, its recipe or its cutter; all where empty.
    pub named: String,
    /// So many are left out.
    pub from: usize,
    /// So many at most.
    pub most: usize,
}

/// What a job is asked for among others; `?1` is the pattern of a name, or null.
macro_rules! asked {
    () => {
        "lot_of IS NULL AND (?1 IS NULL OR name LIKE ?1 ESCAPE '\\' \
         OR formula_id IN (SELECT id FROM formula WHERE name LIKE ?1 ESCAPE '\\') \
         OR cutter_id IN (SELECT id FROM cutter WHERE name LIKE ?1 ESCAPE '\\'))"
    };
}

fn number(n: usize) -> i64 {
    i64::try_from(n).unwrap_or(i64::MAX)
}

/// A text that a name may hold, as a pattern of SQL.
fn pattern(named: &str) -> Option<String> {
    let escaped = named.trim().replace('\\', "\\\\").replace('%', "\\%").replace('_', "\\_");
    (!escaped.is_empty()).then(|| format!("%{escaped}%"))
}

/// Those that read as sound values, and what is wrong with the others: one row must not take all others away.
fn core(rows: Vec<JobRow>) -> (Vec<StoredJob>, Vec<(JobId, String)>) {
    let (mut sound, mut damaged) = (vec![], vec![]);
    for row in rows {
        let id = JobId(row.id);
        match row.into_core() {
            Ok(job) => sound.push(job),
            Err(error) => {
                tracing::warn!(job = id.0, %error, "a job is left out");
                damaged.push((id, error.to_string()));
            }
        }
    }
    (sound, damaged)
}

impl Store {
    /// Jobs with one of these numbers, their lots, and those whose dough is mixed with one of them; the soonest first.
    pub async fn related_jobs(&self, ids: &[JobId]) -> Result<Vec<StoredJob>, StoreError> {
        let mut query: QueryBuilder<Sqlite> = QueryBuilder::new(job_rows!());
        for (i, column) in ["id", "lot_of", "dough_with"].into_iter().enumerate() {
            query.push(if i == 0 { " WHERE job." } else { " OR job." }).push(column).push(" IN (");
            let mut all = query.separated(", ");
            ids.iter().for_each(|id| {
                all.push_bind(id.0);
            });
            query.push(")");
        }
        query.push(" ORDER BY ready_by, id");
        Ok(core(query.build_query_as().fetch_all(&mut *self.conn().await?).await?).0)
    }

    /// Jobs wanted on a date, with their lots; the soonest first.
    pub async fn jobs_on(&self, date: NaiveDate) -> Result<Vec<StoredJob>, StoreError> {
        let rows = sqlx::query_as(concat!(
            job_rows!(),
            " WHERE job.id IN (SELECT id FROM job WHERE ready_by >= ?1 AND ready_by < ?2 AND lot_of IS NULL) \
             OR job.lot_of IN (SELECT id FROM job WHERE ready_by >= ?1 AND ready_by < ?2 AND lot_of IS NULL) ORDER BY ready_by, id"
        ));
        let next = date.checked_add_days(Days::new(1)).unwrap_or(date);
        Ok(core(rows.bind(date.to_string()).bind(next.to_string()).fetch_all(&mut *self.conn().await?).await?).0)
    }

    /// When jobs are wanted from a day on, and what they are called, without lots; the soonest first.
    pub async fn dates_from(&self, day: NaiveDate, most: usize) -> Result<Vec<(NaiveDate, String)>, StoreError> {
        let rows: Vec<(i64, String, String)> = sqlx::query_as(
            "SELECT id, ready_by, name FROM job WHERE ready_by >= ? AND lot_of IS NULL ORDER BY ready_by, id LIMIT ?",
        )
        .bind(day.to_string())
        .bind(number(most))
        .fetch_all(&mut *self.conn().await?)
        .await?;
        let date = |(id, ready_by, name): (i64, String, String)| {
            let day = ready_by.get(..10).and_then(|d| d.parse().ok());
            let damaged = || StoreError::Damaged { thing: "job", id, why: format!("{ready_by} is no time") };
            Ok((day.ok_or_else(damaged)?, name))
        };
        rows.into_iter().map(date).collect()
    }

    /// Whether there is any job.
    pub async fn has_jobs(&self) -> Result<bool, StoreError> {
        Ok(sqlx::query_scalar("SELECT EXISTS (SELECT 1 FROM job)").fetch_one(&mut *self.conn().await?).await?)
    }

    /// A page of jobs.
    pub async fn job_page(&self, wanted: &JobsWanted) -> Result<JobPage, StoreError> {
        let (named, today) = (pattern(&wanted.named), wanted.today.to_string());
        let mut conn = self.conn().await?;
        let (total, coming): (i64, i64) =
            sqlx::query_as(concat!("SELECT COUNT(*), COALESCE(SUM(ready_by >= ?2), 0) FROM job WHERE ", asked!()))
                .bind(&named)
                .bind(&today)
                .fetch_one(&mut *conn)
                .await?;
        let (from, most) = (number(wanted.from), number(wanted.most));
        let of_it: Vec<JobRow> = sqlx::query_as(concat!(
            job_rows!(),
            " WHERE ",
            asked!(),
            " AND ready_by >= ?2 ORDER BY ready_by, id LIMIT ?3 OFFSET ?4"
        ))
        .bind(&named)
        .bind(&today)
        .bind(most)
        .bind(from)
        .fetch_all(&mut *conn)
        .await?;
        let rest = most - number(of_it.len());
        let (mut jobs, mut damaged) = core(of_it);
        if rest > 0 {
            let earlier: Vec<JobRow> = sqlx::query_as(concat!(
                job_rows!(),
                " WHERE ",
                asked!(),
                " AND ready_by < ?2 ORDER BY ready_by DESC, id DESC LIMIT ?3 OFFSET ?4"
            ))
            .bind(&named)
            .bind(&today)
            .bind(rest)
            .bind((from - coming).max(0))
            .fetch_all(&mut *conn)
            .await?;
            let (sound, more) = core(earlier);
            jobs.extend(sound);
            damaged.extend(more);
        }
        drop(conn);
        let leads: Vec<JobId> = jobs.iter().map(|j| j.id).collect();
        let lots = self.related_jobs(&leads).await?;
        jobs.extend(lots.into_iter().filter(|j| j.lot_of().is_some_and(|lead| leads.contains(&lead))));
        let count = |n: i64| usize::try_from(n).unwrap_or(0);
        Ok(JobPage { jobs, total: count(total), coming: count(coming), damaged })
    }
}
