//! Cutters.

use super::{bytes, read};
use crate::bakeries::Of;
use crate::heavy::Heavy;
use crate::problem::{ApiError, Problem, Query};
use crate::wire::{CutterView, FormView, NewCutter, PhotoQuery, PhotoView};
use actix_web::http::header;
use actix_web::{HttpResponse, delete, get, post, web};
use ready_slab_core::error::InputErrors;
use ready_slab_core::geometry::{PHOTO_LIMIT_BYTES, write_svg};
use ready_slab_store::{CutterId, Store, StoredCutter};

/// All cutters by name.
#[utoipa::path(tag = "cutters", operation_id = "cutters_list", responses((status = 200, body = Vec<CutterView>)))]
#[get("/api/cutters")]
pub async fn list(store: Of<Store>) -> Result<web::Json<Vec<CutterView>>, ApiError> {
    Ok(web::Json(store.cutters().await?.iter().map(Into::into).collect()))
}

/// The built-in forms, as they look.
#[utoipa::path(tag = "cutters", operation_id = "cutters_forms", responses((status = 200, body = Vec<FormView>)))]
#[get("/api/cutters/forms")]
pub async fn forms() -> Result<web::Json<Vec<FormView>>, ApiError> {
    Ok(web::Json(crate::wire::cutter_forms()?))
}

/// Puts a cutter on the shelf: a built-in form, or the outline of an SVG file.
#[utoipa::path(tag = "cutters", operation_id = "cutters_add", request_body = NewCutter, responses((status = 200, body = CutterView), (status = 413, body = Problem), (status = 422, body = Problem)))]
#[post("/api/cutters")]
pub async fn add(
    heavy: web::Data<Heavy>,
    store: Of<Store>,
    payload: web::Payload,
) -> Result<web::Json<CutterView>, ApiError> {
    let new: NewCutter = read(payload).await?;
    // Reading a file and measuring its neck take a moment; other requests go on meanwhile.
    let (name, origin, outline) = heavy.run(move || new.build()).await??;
    let id = store.add_cutter(&name, &origin, &outline, &format!("new cutter {name}")).await?;
    Ok(web::Json((&store.cutter(id).await?).into()))
}

/// Reads a cutter and measures it without putting it on the shelf; its number is 0.
#[utoipa::path(tag = "cutters", operation_id = "cutters_look", request_body = NewCutter, responses((status = 200, body = CutterView), (status = 413, body = Problem), (status = 422, body = Problem)))]
#[post("/api/cutters/look")]
pub async fn look(heavy: web::Data<Heavy>, payload: web::Payload) -> Result<web::Json<CutterView>, ApiError> {
    let new: NewCutter = read(payload).await?;
    let seen = heavy.run(move || {
        let (name, origin, outline) = new.build()?;
        let neck = outline.narrowest_neck();
        Ok::<_, InputErrors>(StoredCutter { id: CutterId(0), name, origin, outline, neck })
    });
    Ok(web::Json((&seen.await??).into()))
}

/// Reads an outline from a photo of a cutter, or of its pencil outline, on a sheet of paper. Nothing is kept: what was found
/// is shown, and added as an outline once it is approved.
#[utoipa::path(
    tag = "cutters", operation_id = "cutters_from_photo", params(PhotoQuery),
    request_body(content = Vec<u8>, content_type = "image/jpeg", description = "A JPEG, PNG or WebP of at most 6 MB and 40 million pixels"),
    responses((status = 200, body = PhotoView), (status = 413, body = Problem), (status = 422, body = Problem))
)]
#[post("/api/cutters/photo")]
pub async fn from_photo(
    heavy: web::Data<Heavy>,
    query: Query<PhotoQuery>,
    payload: web::Payload,
) -> Result<web::Json<PhotoView>, ApiError> {
    let file = bytes(payload, PHOTO_LIMIT_BYTES).await?;
    Ok(web::Json(heavy.run(move || query.answer(&file)).await??))
}

/// Takes a cutter off the shelf.
#[utoipa::path(tag = "cutters", operation_id = "cutters_delete", responses((status = 204), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[delete("/api/cutters/{id}")]
pub async fn delete(store: Of<Store>, id: web::Path<i64>) -> Result<HttpResponse, ApiError> {
    let id = CutterId(*id);
    let name = store.cutter(id).await?.name;
    store.delete_cutter(id, &format!("cutter {name} removed")).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// A cutter as an SVG file at true size.
#[utoipa::path(tag = "cutters", operation_id = "cutters_as_svg", responses((status = 200, content_type = "image/svg+xml", body = String), (status = 404, body = Problem)))]
#[get("/api/cutters/{id}/outline.svg")]
pub async fn as_svg(store: Of<Store>, id: web::Path<i64>) -> Result<HttpResponse, ApiError> {
    let cutter = store.cutter(CutterId(*id)).await?;
    Ok(HttpResponse::Ok()
        .content_type("image/svg+xml")
        .insert_header((header::CONTENT_DISPOSITION, "attachment; filename=\"cutter.svg\""))
        .body(write_svg(&cutter.outline, &cutter.name)))
}
