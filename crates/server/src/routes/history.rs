//! Undo and redo: one history for the bakery, in the order in which things were done.

use crate::bakeries::Of;
use crate::problem::{ApiError, Problem, Query, StaleField};
use crate::wire::SentenceView;
use actix_web::{get, post, web};
use ready_slab_store::{EditSummary, Store};
use ready_slab_words::{Sentence, System};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

/// One edit in words.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct EditView {
    /// Its number.
    pub id: i64,
    /// When, UTC.
    pub at: String,
    /// What was done.
    pub label: SentenceView,
}

impl From<EditSummary> for EditView {
    fn from(edit: EditSummary) -> Self {
        Self { id: edit.id, at: edit.at, label: Sentence::read(&edit.label).into() }
    }
}

/// What undo and redo would do now.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct HistoryView {
    /// To be taken back next.
    pub undo: Option<EditView>,
    /// To be done again next.
    pub redo: Option<EditView>,
}

/// The edit that was taken back or done again, if any, and what comes next.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct StepView {
    /// The edit; null when there was none.
    pub edit: Option<EditView>,
    /// What comes next.
    pub history: HistoryView,
}

async fn now(store: &Store) -> Result<HistoryView, ApiError> {
    let history = store.history().await?;
    Ok(HistoryView { undo: history.undo.map(Into::into), redo: history.redo.map(Into::into) })
}

/// What undo and redo would do now.
#[utoipa::path(tag = "history", operation_id = "history_show", responses((status = 200, body = HistoryView)))]
#[get("/api/history")]
pub async fn show(store: Of<Store>) -> Result<web::Json<HistoryView>, ApiError> {
    Ok(web::Json(now(&store).await?))
}

/// Which edit is meant.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct UndoQuery {
    /// The edit that was shown as the next to be taken back; the latest when absent.
    pub edit: Option<i64>,
}

/// Takes back the latest edit. Where another was meant, since somebody edited meanwhile, it says so (412) and takes back nothing.
#[utoipa::path(tag = "history", operation_id = "history_undo", params(UndoQuery), responses((status = 200, body = StepView), (status = 412, body = Problem)))]
#[post("/api/undo")]
pub async fn undo(store: Of<Store>, query: Query<UndoQuery>) -> Result<web::Json<StepView>, ApiError> {
    let w = store.begin(None).await?;
    let latest = w.history().await?.undo;
    if let (Some(meant), Some(latest)) = (query.edit, &latest)
        && meant != latest.id
    {
        let is = serde_json::Value::String(Sentence::read(&latest.label).text(System::Metric));
        let field = StaleField { field: "edit".to_owned(), was: None, is: is.clone(), wanted: meant.into() };
        return Err(ApiError::Stale { fields: vec![field], current: is, revision: latest.id });
    }
    let edit = w.undo().await?.map(Into::into);
    w.commit().await?;
    Ok(web::Json(StepView { edit, history: now(&store).await? }))
}

/// Does the latest undone edit again.
#[utoipa::path(tag = "history", operation_id = "history_redo", responses((status = 200, body = StepView)))]
#[post("/api/redo")]
pub async fn redo(store: Of<Store>) -> Result<web::Json<StepView>, ApiError> {
    let edit = store.redo().await?.map(Into::into);
    Ok(web::Json(StepView { edit, history: now(&store).await? }))
}
