//! Backups of the bakery: when the last was made and where, one made now, one to be taken away.

use crate::bakeries::Bakeries;
use crate::heavy::{Heavy, apart};
use crate::problem::{ApiError, Problem};
use crate::wire::{BackupsView, backup_name};
use actix_web::body::SizedStream;
use actix_web::http::header::{CACHE_CONTROL, CONTENT_DISPOSITION, ContentEncoding};
use actix_web::{HttpResponse, HttpResponseBuilder, get, post, web};
use chrono::Utc;
use futures_util::{Stream, StreamExt as _, stream};
use ready_slab_store::{InPieces, Taken, Why};
use std::io::{Read as _, Write};
use tokio::sync::mpsc;

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
pub async fn make(heavy: web::Data<Heavy>, bakeries: web::Data<Bakeries>) -> Result<web::Json<BackupsView>, ApiError> {
    let _turn = heavy.turn().await?;
    bakeries.backups()?.make(&bakeries.own().store, Utc::now(), Why::Asked).await?;
    shown(&bakeries).await
}

/// The whole bakery as one file of SQLite, as it stands now, to be taken away.
#[utoipa::path(tag = "backups", operation_id = "backups_take", responses((status = 200, content_type = "application/vnd.sqlite3", body = Vec<u8>), (status = 507, body = Problem)))]
#[get("/api/backups/now")]
pub async fn take(heavy: web::Data<Heavy>, bakeries: web::Data<Bakeries>) -> Result<HttpResponse, ApiError> {
    let store = &bakeries.own().store;
    let name = backup_name(&store.kitchen().await?, Utc::now(), "db");
    let _turn = heavy.turn().await?;
    let taken = store.taken_away().await?;
    Ok(attached("application/vnd.sqlite3", &name).body(SizedStream::new(taken.bytes, in_pieces(taken))))
}

/// The whole bakery as an open archive, as it stands now: a ZIP of JSON lines, CSV and SVG. It goes out as it is packed, and is given up when nobody reads it.
#[utoipa::path(tag = "backups", operation_id = "backups_archive", responses((status = 200, content_type = "application/zip", body = Vec<u8>), (status = 507, body = Problem)))]
#[get("/api/backups/archive")]
pub async fn archive(heavy: web::Data<Heavy>, bakeries: web::Data<Bakeries>) -> Result<HttpResponse, ApiError> {
    let (store, now) = (bakeries.own().store.clone(), Utc::now());
    let name = backup_name(&store.kitchen().await?, now, "zip");
    let turn = heavy.turn().await?;
    let (send, mut packed) = mpsc::channel(PIECES_WAIT);
    apart(move || {
        let made = tokio::runtime::Builder::new_current_thread().enable_all().build();
        let made = made
            .map_err(|_| ApiError::Broken)
            .and_then(|runtime| Ok(runtime.block_on(store.export_into(sent(send.clone()), now))?));
        if let Err(error) = made {
            // What has gone out already breaks off: no archive is whole without its end.
            let _ = send.blocking_send(Err(error));
        }
        drop(turn);
    });
    // What is wrong before anything goes out is told as any other fault.
    let first: web::Bytes = packed.recv().await.ok_or(ApiError::Broken)??;
    let rest = stream::unfold(packed, |mut packed| async move { Some((packed.recv().await?, packed)) });
    let all = stream::once(async move { Ok::<_, ApiError>(first) }).chain(rest);
    Ok(attached("application/zip", &name).streaming(all))
}

/// A file to be kept.
fn attached(kind: &str, name: &str) -> HttpResponseBuilder {
    let mut response = HttpResponse::Ok();
    response
        .content_type(kind)
        .insert_header((CACHE_CONTROL, "no-store"))
        // It is packed already, or large: it goes out as it is.
        .insert_header(ContentEncoding::Identity)
        .insert_header((CONTENT_DISPOSITION, format!("attachment; filename=\"{name}\"")));
    response
}

/// So many pieces wait to be sent.
const PIECES_WAIT: usize = 8;

/// What is packed, on its way out.
fn sent(to: mpsc::Sender<Result<web::Bytes, ApiError>>) -> impl Write + Send + 'static {
    InPieces::new(PIECE_BYTES, move |piece| {
        to.blocking_send(Ok(piece.into())).map_err(|_| std::io::Error::other("nobody reads it any more"))
    })
}

/// Bytes that are read and sent at a time.
const PIECE_BYTES: usize = 64 * 1024;

/// A file bit by bit, so that a large bakery does not lie in memory whole; it is gone when its last bytes are sent, or nobody waits for them.
fn in_pieces(taken: Taken) -> impl Stream<Item = Result<web::Bytes, std::io::Error>> {
    stream::try_unfold(taken, |mut taken| async move {
        let read = web::block(move || {
            let mut piece = vec![0; PIECE_BYTES];
            let read = taken.file.read(&mut piece)?;
            piece.truncate(read);
            Ok::<_, std::io::Error>((piece, taken))
        });
        let (piece, taken) = read.await.map_err(std::io::Error::other)??;
        Ok((!piece.is_empty()).then(|| (web::Bytes::from(piece), taken)))
    })
}
