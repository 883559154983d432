//! Jobs on the wire.

use super::view;
use ready_slab_core::job::JobInput;
use ready_slab_store::StoredJob;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

view! {
    /// A job with its number.
    pub struct JobView(stored: &StoredJob) {
        /// Its number.
        id: i64 = stored.id.0,
        /// How often it has changed; a change names the one it was made from in `If-Match`.
        revision: i64 = stored.revision,
        /// Cut lots of one key may share a sheet; null where its pieces are sliced or portioned.
        sheet_key: Option<String> = stored.sheet_key(),
        /// The job.
        #[serde(flatten)]
        body: JobInput = stored.job.input().clone(),
    }
}

/// Jobs, and how many there are.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct JobsView {
    /// Those wanted from today on first, the soonest first; then the earlier ones, the latest first; the lots of all of them after them.
    pub jobs: Vec<JobView>,
    /// How many there are in all, without lots.
    pub total: usize,
    /// How many of them are wanted from today on.
    pub coming: usize,
    /// Those of them that do not read as sound values; they can be deleted.
    pub damaged: Vec<DamagedView>,
}

/// A thing that does not read as a sound value.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct DamagedView {
    /// Its number.
    pub id: i64,
    /// What is wrong with it.
    pub why: String,
}
