//! A connection of its own to a file, which is closed before anything else is done with the file.

use crate::error::StoreError;
use sqlx::sqlite::SqliteConnectOptions;
use sqlx::{ConnectOptions, Connection, SqliteConnection};
use std::path::Path;

/// Works on a file and closes it, also where the work fails. A connection that is only dropped is closed later, by a thread of its own: it would roll
/// back, and take away the journal of whoever made a file of that name meanwhile.
pub(crate) async fn connected<T>(
    options: SqliteConnectOptions,
    work: impl AsyncFnOnce(&mut SqliteConnection) -> Result<T, StoreError>,
) -> Result<T, StoreError> {
    let mut conn = options.connect().await?;
    let done = work(&mut conn).await;
    let closed = conn.close().await;
    let done = done?;
    closed?;
    Ok(done)
}

/// What a file of somebody else says is not run.
pub(crate) fn looked_at(file: &Path) -> SqliteConnectOptions {
    SqliteConnectOptions::new().filename(file).read_only(true).pragma("trusted_schema", "OFF")
}
