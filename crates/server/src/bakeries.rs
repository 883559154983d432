//! The bakery that is served, and beside it the demo: a bakery of its own, in a file of its own, under `/demo`, that is there once somebody has
//! asked for it and can be removed whole.

use crate::access::Access;
use crate::board::Board;
use crate::demo;
use crate::heavy::Heavy;
use crate::learning::learn_after;
use crate::paths::DEMO;
use crate::problem::ApiError;
use crate::searches::Searches;
use actix_web::body::{EitherBody, MessageBody};
use actix_web::dev::{Payload, ServiceRequest, ServiceResponse};
use actix_web::http::Uri;
use actix_web::http::header;
use actix_web::http::uri::PathAndQuery;
use actix_web::middleware::Next;
use actix_web::{FromRequest, HttpMessage, HttpRequest, HttpResponse, ResponseError, web};
use ready_slab_store::{Backups, Lock, Store};
use std::future::{Ready, ready};
use std::ops::Deref;
use std::path::{Path, PathBuf};
use std::sync::Arc;
use tokio::sync::RwLock;

/// A bakery that is open.
#[derive(Clone)]
pub struct Bakery {
    /// What it keeps.
    pub store: Store,
    /// Its live board.
    pub board: Board,
    /// What is searched for it.
    pub searches: Searches,
    heavy: Heavy,
}

impl Bakery {
    /// Opens what belongs to a store.
    pub fn new(store: Store, heavy: Heavy) -> Self {
        let board = Board::new(store.clone());
        let searches = Searches::new(board.closing(), heavy.clone());
        Self { store, board, searches, heavy }
    }

    /// Learns from bakes that nobody has learnt from yet.
    pub async fn learn(&self) {
        learn_after(&self.heavy, &self.store).await;
    }

    /// Ends its streams, then closes its file.
    pub async fn close(&self) {
        self.board.close();
        self.store.close().await;
    }
}

/// Clones share it.
#[derive(Clone)]
pub struct Bakeries {
    open: Arc<Inner>,
    backups: Option<Backups>,
    access: Access,
}

/// The demo, and the lock on its file.
struct Demo {
    bakery: Bakery,
    _lock: Lock,
}

struct Inner {
    own: Bakery,
    demo_file: Option<PathBuf>,
    demo: RwLock<Option<Demo>>,
    heavy: Heavy,
}

impl Bakeries {
    /// The bakery to be served; a demo beside it would lie in `demo_file`.
    pub fn new(own: Store, demo_file: Option<PathBuf>) -> Self {
        let access = Access::open(own.clone());
        let heavy = Heavy::default();
        let own = Bakery::new(own, heavy.clone());
        Self { open: Arc::new(Inner { own, demo_file, demo: RwLock::default(), heavy }), backups: None, access }
    }

    /// The same, with a place for backups of the own one.
    #[must_use]
    pub fn kept_safe(self, backups: Backups) -> Self {
        Self { backups: Some(backups), ..self }
    }

    /// The same, for whom it lets in.
    #[must_use]
    pub fn guarded(self, access: Access) -> Self {
        Self { access, ..self }
    }

    /// Whom it lets in.
    pub fn access(&self) -> &Access {
        &self.access
    }

    /// Where backups of the own bakery lie.
    pub fn backups(&self) -> Result<&Backups, ApiError> {
        self.backups.as_ref().ok_or_else(|| ApiError::NoSuchPath("a place for backups".to_owned()))
    }

    /// Who gives turns to what takes long.
    pub fn heavy(&self) -> Heavy {
        self.open.heavy.clone()
    }

    /// The bakery itself.
    pub fn own(&self) -> &Bakery {
        &self.open.own
    }

    /// The demo, where it is there.
    pub async fn demo(&self) -> Option<Bakery> {
        self.open.demo.read().await.as_ref().map(|demo| demo.bakery.clone())
    }

    /// Opens the demo that an earlier run has left.
    pub async fn open_left(&self) -> Result<(), ApiError> {
        if self.open.demo_file.as_ref().is_some_and(|file| file.exists()) {
            self.open_demo().await?;
        }
        Ok(())
    }

    /// Opens the demo, and makes it where it is not there yet.
    pub async fn open_demo(&self) -> Result<(), ApiError> {
        let mut demo = self.open.demo.write().await;
        if demo.is_some() {
            return Ok(());
        }
        let file =
            self.open.demo_file.as_ref().ok_or_else(|| ApiError::NoSuchPath("a place for the demo".to_owned()))?;
        let zone = self.open.own.store.kitchen().await?.zone();
        let lock = Lock::of(file)?;
        let bakery = Bakery::new(Store::open(file).await?, self.open.heavy.clone());
        demo::fill(&bakery.store, zone.name(), chrono::Utc::now()).await?;
        bakery.board.tend_probes().await?;
        bakery.learn().await;
        *demo = Some(Demo { bakery, _lock: lock });
        Ok(())
    }

    /// Removes the demo with its file.
    pub async fn remove_demo(&self) -> Result<(), ApiError> {
        let mut demo = self.open.demo.write().await;
        if let Some(demo) = demo.take() {
            demo.bakery.close().await;
            self.open.demo_file.as_deref().map_or(Ok(()), remove)?;
        }
        Ok(())
    }

    /// Ends all streams.
    pub async fn hush(&self) {
        self.open.own.board.close();
        if let Some(demo) = self.demo().await {
            demo.board.close();
        }
    }

    /// Closes all files.
    pub async fn close(&self) {
        self.open.own.close().await;
        if let Some(demo) = self.open.demo.write().await.take() {
            demo.bakery.close().await;
        }
    }
}

/// Where the demo beside a bakery file lies.
pub fn demo_beside(db: &Path) -> PathBuf {
    db.with_extension("demo.db")
}

/// A bakery file and what SQLite keeps beside it.
fn remove(file: &Path) -> Result<(), ApiError> {
    for tail in ["", "-wal", "-shm", "-lock"] {
        let mut name = file.as_os_str().to_owned();
        name.push(tail);
        match std::fs::remove_file(&name) {
            Err(error) if error.kind() != std::io::ErrorKind::NotFound => {
                tracing::error!(%error, "couldn’t remove the demo’s file");
                return Err(ApiError::Broken);
            }
            _ => {}
        }
    }
    Ok(())
}

/// What a request works with: the store, board or searches of the bakery it names.
pub struct Of<T>(T);

impl<T> Deref for Of<T> {
    type Target = T;

    fn deref(&self) -> &T {
        &self.0
    }
}

impl<T> Of<T> {
    /// The thing itself.
    pub fn into_inner(self) -> T {
        self.0
    }
}

/// A part of an open bakery.
pub trait PartOfBakery: Clone + 'static {
    /// The part.
    fn of(bakery: &Bakery) -> Self;
}

impl PartOfBakery for Store {
    fn of(bakery: &Bakery) -> Self {
        bakery.store.clone()
    }
}

impl PartOfBakery for Board {
    fn of(bakery: &Bakery) -> Self {
        bakery.board.clone()
    }
}

impl PartOfBakery for Searches {
    fn of(bakery: &Bakery) -> Self {
        bakery.searches.clone()
    }
}

impl<T: PartOfBakery> FromRequest for Of<T> {
    type Error = ApiError;
    type Future = Ready<Result<Self, ApiError>>;

    fn from_request(request: &HttpRequest, _: &mut Payload) -> Self::Future {
        ready(request.extensions().get::<Bakery>().map(|b| Self(T::of(b))).ok_or(ApiError::Broken))
    }
}

/// Finds the bakery a request names. The demo's requests go the ways of all others, without their `/demo`.
pub async fn which(
    mut request: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<EitherBody<impl MessageBody>>, actix_web::Error> {
    let Some(bakeries) = request.app_data::<web::Data<Bakeries>>().cloned() else {
        return Ok(request.into_response(ApiError::Broken.error_response()).map_into_right_body());
    };
    let rest =
        request.path().strip_prefix(DEMO).filter(|rest| rest.is_empty() || rest.starts_with('/')).map(str::to_owned);
    let bakery = match rest {
        None => bakeries.own().clone(),
        Some(rest) => match bakeries.demo().await {
            Some(demo) => {
                without_prefix(&mut request, &rest);
                demo
            }
            None if rest.starts_with("/api") => {
                let error = ApiError::NoSuchPath(request.path().to_owned());
                return Ok(request.into_response(error.error_response()).map_into_right_body());
            }
            // Whoever comes back to a demo that was removed is taken home.
            None => {
                let home = HttpResponse::SeeOther().insert_header((header::LOCATION, "/")).finish();
                return Ok(request.into_response(home).map_into_right_body());
            }
        },
    };
    request.extensions_mut().insert(bakery);
    Ok(next.call(request).await?.map_into_left_body())
}

fn without_prefix(request: &mut ServiceRequest, rest: &str) {
    let path = if rest.is_empty() { "/" } else { rest };
    let query = request.query_string();
    let whole = if query.is_empty() { path.to_owned() } else { format!("{path}?{query}") };
    let mut parts = request.uri().clone().into_parts();
    parts.path_and_query = PathAndQuery::try_from(whole).ok();
    if let Ok(uri) = Uri::from_parts(parts) {
        request.match_info_mut().get_mut().update(&uri);
        request.head_mut().uri = uri;
    }
}
