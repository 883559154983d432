//! Backups on the wire.

use super::view;
use chrono::{DateTime, Utc};
use ready_slab_core::clock::{MINUTE_FORMAT, Zone};
use ready_slab_core::job::Kitchen;
use ready_slab_store::{Backup, Backups};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

view! {
    /// A backup that is kept.
    pub struct BackupView(backup: &Backup, zone: Zone) {
        /// Its file, without the folder.
        file: String = backup.file.file_name().map(|n| n.to_string_lossy().into_owned()).unwrap_or_default(),
        /// When it was made, local time.
        made_at: String = zone.shown(backup.made_at).format(MINUTE_FORMAT).to_string(),
        /// Its size.
        bytes: u64 = backup.bytes,
    }
}

view! {
    /// The backups that are kept.
    pub struct BackupsView(backups: &Backups, all: &[Backup], zone: Zone) {
        /// Where they lie.
        folder: String = backups.folder().display().to_string(),
        /// So many daily ones are kept.
        keep: usize = backups.keep(),
        /// Each, the newest first.
        all: Vec<BackupView> = all.iter().map(|b| BackupView::new(b, zone)).collect(),
    }
}

/// What a backup that is taken away is called: letters that every system takes, and the time of the kitchen's clock.
pub fn backup_name(kitchen: &Kitchen, now: DateTime<Utc>, ending: &str) -> String {
    let plain = |c: char| if c.is_ascii_alphanumeric() { c.to_ascii_lowercase() } else { '-' };
    let name: String = kitchen.input().house.name.chars().map(plain).take(60).collect();
    let name = name.trim_matches('-');
    let name = if name.is_empty() { "bakery" } else { name };
    format!("{name}-{}.{ending}", kitchen.zone().shown(now).format("%Y-%m-%d-%H%M"))
}
