//! Devices that were let in: kept outside the undo history, and in no copy of the bakery.

use crate::cold::{moment, written};
use crate::error::StoreError;
use crate::from_row::row;
use crate::store::Store;
use chrono::{DateTime, Utc};

const THING: &str = "device";

/// Identifies a device.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct DeviceId(pub i64);

/// What a device may do.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Role {
    /// All.
    Full,
    /// Read, and note what happens at the bench: runs, readings, records.
    Bench,
    /// Write readings, and nothing else.
    Thermometer,
}

impl Role {
    const ALL: [(Self, &str); 3] = [(Self::Full, "full"), (Self::Bench, "bench"), (Self::Thermometer, "thermometer")];

    fn word(self) -> &'static str {
        Self::ALL.iter().find(|(role, _)| *role == self).map_or("", |(_, word)| word)
    }
}

/// A device that was let in.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct StoredDevice {
    /// Its number.
    pub id: DeviceId,
    /// What it is called.
    pub name: String,
    /// What it may do.
    pub role: Role,
    /// When it was let in.
    pub let_in_at: DateTime<Utc>,
    /// When it last asked for something, to some minutes.
    pub seen_at: Option<DateTime<Utc>>,
}

row! {
    struct DeviceRow {
        id: i64,
        name: String,
        role: String,
        let_in_at: String,
        seen_at: Option<String>,
    }
}

impl DeviceRow {
    fn into_device(self) -> Result<StoredDevice, StoreError> {
        let id = self.id;
        let role = Role::ALL.iter().find(|(_, word)| *word == self.role).map(|(role, _)| *role);
        Ok(StoredDevice {
            id: DeviceId(id),
            name: self.name,
            role: role.ok_or_else(|| StoreError::Damaged {
                thing: THING,
                id,
                why: "its role is unknown".to_owned(),
            })?,
            let_in_at: moment(THING, id, &self.let_in_at)?,
            seen_at: self.seen_at.map(|at| moment(THING, id, &at)).transpose()?,
        })
    }
}

impl Store {
    /// Lets a device in that shows what has this hash.
    pub async fn let_in(
        &self,
        name: &str,
        role: Role,
        token_hash: &str,
        at: DateTime<Utc>,
    ) -> Result<DeviceId, StoreError> {
        let w = self.begin(None).await?;
        let id = w.next(THING).await?;
        sqlx::query("INSERT INTO device (id, name, role, token_hash, let_in_at) VALUES (?, ?, ?, ?, ?)")
            .bind(id)
            .bind(name)
            .bind(role.word())
            .bind(token_hash)
            .bind(written(at))
            .execute(&mut *w.conn().await?)
            .await?;
        w.commit().await?;
        Ok(DeviceId(id))
    }

    /// All devices, as they were let in.
    pub async fn devices(&self) -> Result<Vec<StoredDevice>, StoreError> {
        let rows: Vec<DeviceRow> = sqlx::query_as("SELECT id, name, role, let_in_at, seen_at FROM device ORDER BY id")
            .fetch_all(&mut *self.conn().await?)
            .await?;
        rows.into_iter().map(DeviceRow::into_device).collect()
    }

    /// The device that shows what has this hash.
    pub async fn device_showing(&self, token_hash: &str) -> Result<Option<StoredDevice>, StoreError> {
        let row: Option<DeviceRow> =
            sqlx::query_as("SELECT id, name, role, let_in_at, seen_at FROM device WHERE token_hash = ?")
                .bind(token_hash)
                .fetch_optional(&mut *self.conn().await?)
                .await?;
        row.map(DeviceRow::into_device).transpose()
    }

    /// Calls a device something else.
    pub async fn rename_device(&self, id: DeviceId, name: &str) -> Result<(), StoreError> {
        self.of_device(id, sqlx::query("UPDATE device SET name = ? WHERE id = ?").bind(name.to_owned()).bind(id.0))
            .await
    }

    /// Notes that a device was there.
    pub async fn device_seen(&self, id: DeviceId, at: DateTime<Utc>) -> Result<(), StoreError> {
        self.of_device(id, sqlx::query("UPDATE device SET seen_at = ? WHERE id = ?").bind(written(at)).bind(id.0)).await
    }

    /// Shuts a device out again.
    pub async fn shut_out(&self, id: DeviceId) -> Result<(), StoreError> {
        self.of_device(id, sqlx::query("DELETE FROM device WHERE id = ?").bind(id.0)).await
    }

    async fn of_device(
        &self,
        id: DeviceId,
        change: sqlx::query::Query<'_, sqlx::Sqlite, sqlx::sqlite::SqliteArguments>,
    ) -> Result<(), StoreError> {
        let w = self.begin(None).await?;
        let changed = change.execute(&mut *w.conn().await?).await?.rows_affected();
        if changed == 0 {
            return Err(StoreError::NotFound { thing: THING, id: id.0 });
        }
        w.commit().await
    }
}
