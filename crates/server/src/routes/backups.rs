//! Backups of the bakery: when the last was made and where, one made now, one to be taken away.

use crate::bakeries::Bakeries;
use crate::problem::{ApiError, Problem};
use crate::wire::{BackupsView, backup_name};
use actix_web::http::header::{CACHE_CONTROL, CONTENT_DISPOSITION};
use actix_web::{HttpResponse, get, post, web};
use chrono::Utc;
use ready_slab_store::Why;

async fn shown(bakeries: &Bakeries) -> Result<web::Json<BackupsView>, ApiError> {
    let zone = bakeries.own().store.kitchen().await?.zone();
    let backups = bakeries.backups()?;
    Ok(web::Json(BackupsView::new(backups, &backups.list()?, zone)))
}

/// The backups that are kept, the newest first, and where they lie.
#[utoipa::path(tag = "backups", operation_id = "backups_show", responses((status = 200, body = BackupsView)))]
#[get("/api/backups")]
pub async fn show(bakeries: web::Data<Bakeries>) -> Result<web::Json<BackupsView>, ApiError> {
    shown(&bakeries).await
}

/// Makes one now.
#[utoipa::path(tag = "backups", operation_id = "backups_make", responses((status = 200, body = BackupsView), (status = 507, body = Problem)))]
#[post("/api/backups")]
pub async fn make(bakeries: web::Data<Bakeries>) -> Result<web::Json<BackupsView>, ApiError> {
    bakeries.backups()?.make(&bakeries.own().store, Utc::now(), Why::Asked).await?;
    shown(&bakeries).await
}

/// The whole bakery as one file of SQLite, as it stands now, to be taken away.
#[utoipa::path(tag = "backups", operation_id = "backups_take", responses((status = 200, content_type = "application/vnd.sqlite3", body = Vec<u8>), (status = 507, body = Problem)))]
#[get("/api/backups/now")]
pub async fn take(bakeries: web::Data<Bakeries>) -> Result<HttpResponse, ApiError> {
    let store = &bakeries.own().store;
    let name = backup_name(&store.kitchen().await?, Utc::now());
    let bytes = bakeries.backups()?.taken_away(store).await?;
    Ok(HttpResponse::Ok()
        .content_type("application/vnd.sqlite3")
        .insert_header((CACHE_CONTROL, "no-store"))
        .insert_header((CONTENT_DISPOSITION, format!("attachment; filename=\"{name}\"")))
        .body(bytes))
}
