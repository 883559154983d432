//! Baked pieces measured from a photo; the photo is kept with its record, and can be removed.

use super::bytes;
use crate::bakeries::Of;
use crate::board::Board;
use crate::heavy::Heavy;
use crate::problem::{ApiError, Problem, Query};
use crate::whole::{Family, WholeJob};
use crate::wire::{BakePhotoQuery, BakePhotoView, MadeUpPhotoQuery, PhotoFoundView, photo_file};
use actix_web::http::header;
use actix_web::{HttpResponse, delete, get, post, web};
use ready_slab_core::error::InputErrors;
use ready_slab_core::geometry::Outline;
use ready_slab_core::job::OnPhoto;
use ready_slab_core::ledger::{BAKE_PHOTO_LIMIT_BYTES, PhotoCutter, PhotoMeasures};
use ready_slab_store::{JobId, RecordId, RecordPhoto, Store};

/// What may lie on the sheet: the pieces of a job and of its lots, as they are expected.
struct Expected {
    cutters: Vec<(String, Outline)>,
    pieces: OnPhoto,
}

impl Expected {
    async fn of(store: &Store, board: &Board, id: JobId) -> Result<Self, ApiError> {
        let planned = board.planned(id).await?;
        let whole = &planned.whole;
        let mut cutters = vec![(whole.cutter.name.clone(), whole.cutter.outline.clone())];
        for lot in Family::of(store, &whole.stored).await?.all {
            if lot.id != id {
                let lot = WholeJob::read(store, lot.id).await?;
                cutters.push((lot.cutter.name, lot.cutter.outline));
            }
        }
        Ok(Self { cutters, pieces: planned.plan.oven.on_photo() })
    }

    fn measure(&self, query: &BakePhotoQuery, file: &[u8]) -> Result<PhotoMeasures, InputErrors> {
        let cutters = self.cutters.iter().map(|(_, outline)| PhotoCutter { outline, spread: self.pieces.spread });
        query.measure(file, cutters.collect(), self.pieces.thickness)
    }

    fn names(&self) -> Vec<String> {
        self.cutters.iter().map(|(name, _)| name.clone()).collect()
    }
}

/// Measures baked pieces of a job that lie on a sheet of paper. Nothing is kept: what was found is shown over the paper and approved.
#[utoipa::path(
    tag = "records", operation_id = "photo_measure", params(("id" = i64, Path), BakePhotoQuery),
    request_body(content = Vec<u8>, content_type = "image/jpeg", description = "A JPEG, PNG or WebP of at most 25 MB and 40 million pixels"),
    responses((status = 200, body = BakePhotoView), (status = 404, body = Problem), (status = 413, body = Problem), (status = 422, body = Problem))
)]
#[post("/api/jobs/{id}/photo")]
pub async fn measure(
    store: Of<Store>,
    board: Of<Board>,
    heavy: web::Data<Heavy>,
    id: web::Path<i64>,
    query: Query<BakePhotoQuery>,
    payload: web::Payload,
) -> Result<web::Json<BakePhotoView>, ApiError> {
    let file = bytes(payload, BAKE_PHOTO_LIMIT_BYTES).await?;
    let expected = Expected::of(&store, &board, JobId(*id)).await?;
    let found = heavy.run(move || BakePhotoView::new(&expected.measure(&query, &file)?, expected.names())).await??;
    Ok(web::Json(found))
}

/// A photo as the camera's stand-in makes it: some pieces of the job on a sheet of paper, about as they are forecast.
#[utoipa::path(tag = "records", operation_id = "photo_made_up", params(("id" = i64, Path), MadeUpPhotoQuery), responses((status = 200, content_type = "image/jpeg", body = Vec<u8>), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[get("/api/jobs/{id}/photo/made-up")]
pub async fn made_up(
    board: Of<Board>,
    heavy: web::Data<Heavy>,
    id: web::Path<i64>,
    query: Query<MadeUpPhotoQuery>,
) -> Result<HttpResponse, ApiError> {
    let planned = board.planned(JobId(*id)).await?;
    let file = heavy.run(move || query.photo(&planned.plan.oven.on_photo(), &planned.whole.cutter.outline)).await??;
    Ok(HttpResponse::Ok().content_type("image/jpeg").body(file))
}

/// Keeps the photo that a record was measured by: the paper from above, with nothing else that was in the file, and what was found on it.
#[utoipa::path(
    tag = "records", operation_id = "photo_keep", params(("id" = i64, Path), BakePhotoQuery),
    request_body(content = Vec<u8>, content_type = "image/jpeg", description = "A JPEG, PNG or WebP of at most 25 MB and 40 million pixels"),
    responses((status = 200, body = PhotoFoundView), (status = 404, body = Problem), (status = 413, body = Problem), (status = 422, body = Problem))
)]
#[post("/api/records/{id}/photo")]
pub async fn keep(
    store: Of<Store>,
    board: Of<Board>,
    heavy: web::Data<Heavy>,
    id: web::Path<i64>,
    query: Query<BakePhotoQuery>,
    payload: web::Payload,
) -> Result<web::Json<PhotoFoundView>, ApiError> {
    let id = RecordId(*id);
    let job = store.record(id).await?.kept.job_id;
    let file = bytes(payload, BAKE_PHOTO_LIMIT_BYTES).await?;
    let expected = Expected::of(&store, &board, job).await?;
    let (view, jpeg) = heavy
        .run(move || {
            let found = expected.measure(&query, &file)?;
            Ok::<_, InputErrors>((PhotoFoundView::from(&found), photo_file(&found)?))
        })
        .await??;
    let found = serde_json::to_string(&view).map_err(|_| ApiError::Broken)?;
    store.keep_photo(id, &RecordPhoto { jpeg, found }).await?;
    Ok(web::Json(view))
}

/// What was found on the photo of a record.
#[utoipa::path(tag = "records", operation_id = "photo_found", params(("id" = i64, Path)), responses((status = 200, body = PhotoFoundView), (status = 404, body = Problem)))]
#[get("/api/records/{id}/photo")]
pub async fn kept_found(store: Of<Store>, id: web::Path<i64>) -> Result<web::Json<PhotoFoundView>, ApiError> {
    let kept = store.photo(RecordId(*id)).await?;
    Ok(web::Json(serde_json::from_str(&kept.found).map_err(|_| ApiError::Broken)?))
}

/// The photo of a record: the paper from straight above.
#[utoipa::path(tag = "records", operation_id = "photo_file", params(("id" = i64, Path)), responses((status = 200, content_type = "image/jpeg", body = Vec<u8>), (status = 404, body = Problem)))]
#[get("/api/records/{id}/photo.jpg")]
pub async fn kept_file(store: Of<Store>, id: web::Path<i64>) -> Result<HttpResponse, ApiError> {
    let kept = store.photo(RecordId(*id)).await?;
    let mut answer = HttpResponse::Ok();
    answer.content_type("image/jpeg").insert_header((header::CACHE_CONTROL, "no-cache"));
    Ok(answer.body(kept.jpeg))
}

/// Removes the photo of a record; what was measured stays.
#[utoipa::path(tag = "records", operation_id = "photo_remove", params(("id" = i64, Path)), responses((status = 204), (status = 404, body = Problem)))]
#[delete("/api/records/{id}/photo")]
pub async fn remove(store: Of<Store>, id: web::Path<i64>) -> Result<HttpResponse, ApiError> {
    store.remove_photo(RecordId(*id)).await?;
    Ok(HttpResponse::NoContent().finish())
}
