//! Readings of pieces that ended long ago, a row a piece instead of a row a reading. They read as the others do; a piece that is followed again has them
//! back in their table.

use crate::cold::{ReadingRow, written};
use crate::error::StoreError;
use crate::rows::list;
use crate::store::Store;
use crate::things::{ChillId, StoredReading};
use chrono::{DateTime, Utc};

/// A reading as a packed row holds it: number, moment, degrees Celsius, spot, whether a stand-in showed it.
type Packed = (i64, String, f64, String, bool);

impl Store {
    /// Packs the readings of pieces that have ended before a moment and were thinned, at most so many pieces: how many were packed.
    pub async fn pack_readings(&self, before: DateTime<Utc>, most: u32) -> Result<usize, StoreError> {
        let ids: Vec<(i64,)> = sqlx::query_as(
            "SELECT id FROM chill WHERE ended_at < ? AND readings_taken IS NOT NULL
             AND EXISTS (SELECT 1 FROM reading WHERE chill_id = chill.id) ORDER BY ended_at LIMIT ?",
        )
        .bind(written(before))
        .bind(most)
        .fetch_all(&mut *self.conn().await?)
        .await?;
        for (id,) in &ids {
            let w = self.begin(None).await?;
            let all = w.reading_rows(ChillId(*id)).await?;
            let packed: Vec<Packed> =
                all.into_iter().map(|r| (r.id, r.read_at, r.shows_c, r.spot, r.simulated)).collect();
            sqlx::query("INSERT OR REPLACE INTO packed_readings (chill_id, readings) VALUES (?, ?)")
                .bind(id)
                .bind(serde_json::to_string(&packed).expect("readings serialise"))
                .execute(&mut *w.conn().await?)
                .await?;
            sqlx::query("DELETE FROM reading WHERE chill_id = ?").bind(id).execute(&mut *w.conn().await?).await?;
            w.commit().await?;
        }
        Ok(ids.len())
    }

    /// All readings of a piece as rows, wherever they lie, in the order of their time.
    pub(crate) async fn reading_rows(&self, id: ChillId) -> Result<Vec<ReadingRow>, StoreError> {
        let mut rows: Vec<ReadingRow> =
            sqlx::query_as("SELECT id, read_at, shows_c, spot, simulated FROM reading WHERE chill_id = ?")
                .bind(id.0)
                .fetch_all(&mut *self.conn().await?)
                .await?;
        rows.extend(self.packed(id).await?);
        rows.sort_by(|a, b| (&a.read_at, a.id).cmp(&(&b.read_at, b.id)));
        Ok(rows)
    }

    async fn packed(&self, id: ChillId) -> Result<Vec<ReadingRow>, StoreError> {
        let found: Option<(String,)> = sqlx::query_as("SELECT readings FROM packed_readings WHERE chill_id = ?")
            .bind(id.0)
            .fetch_optional(&mut *self.conn().await?)
            .await?;
        let Some((text,)) = found else { return Ok(vec![]) };
        let packed: Vec<Packed> = list("readings of a piece", id.0, &text)?;
        let row = |(id, read_at, shows_c, spot, simulated)| ReadingRow { id, read_at, shows_c, spot, simulated };
        Ok(packed.into_iter().map(row).collect())
    }

    /// Puts packed readings of a piece back into their table, within the transaction that this store is in.
    pub(crate) async fn unpack(&self, id: ChillId) -> Result<(), StoreError> {
        let packed = self.packed(id).await?;
        if packed.is_empty() {
            return Ok(());
        }
        for r in packed {
            sqlx::query(
                "INSERT INTO reading (id, chill_id, read_at, shows_c, spot, simulated) VALUES (?, ?, ?, ?, ?, ?)",
            )
            .bind(r.id)
            .bind(id.0)
            .bind(r.read_at)
            .bind(r.shows_c)
            .bind(r.spot)
            .bind(r.simulated)
            .execute(&mut *self.conn().await?)
            .await?;
        }
        sqlx::query("DELETE FROM packed_readings WHERE chill_id = ?")
            .bind(id.0)
            .execute(&mut *self.conn().await?)
            .await?;
        Ok(())
    }

    /// The piece whose packed readings hold one of this number.
    pub(crate) async fn packed_with(&self, reading: i64) -> Result<Option<ChillId>, StoreError> {
        let found: Option<(i64,)> = sqlx::query_as(
            "SELECT chill_id FROM packed_readings WHERE EXISTS
             (SELECT 1 FROM json_each(packed_readings.readings) WHERE json_extract(value, '$[0]') = ?)",
        )
        .bind(reading)
        .fetch_optional(&mut *self.conn().await?)
        .await?;
        Ok(found.map(|(id,)| ChillId(id)))
    }

    /// Readings of a piece in the order of their time, however they came and wherever they lie.
    pub async fn readings(&self, id: ChillId) -> Result<Vec<StoredReading>, StoreError> {
        self.reading_rows(id).await?.into_iter().map(ReadingRow::into_core).collect()
    }
}
