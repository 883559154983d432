//! Who is let in. On loopback everybody who is at this machine; on a network a device shows what it was given when it was let in with a code, and a
//! thermometer the token it was given.

use crate::front;
use crate::paths::{Pattern, in_any_bakery, named, routed};
use crate::problem::ApiError;
use crate::wrong_codes::{WrongCodes, held, network_of};
use actix_web::body::{BodySize, BoxBody, EitherBody, MessageBody};
use actix_web::cookie::{Cookie, SameSite, time};
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::http::{Method, header};
use actix_web::middleware::Next;
use actix_web::{HttpMessage as _, HttpResponse, ResponseError as _, web};
use chrono::{TimeDelta, Utc};
use ready_slab_store::{DeviceId, Role, Store, StoreError, StoredDevice};
use sha2::{Digest as _, Sha256};
use std::net::IpAddr;
use std::pin::Pin;
use std::sync::{Arc, Mutex};
use std::task::{Context, Poll};
use std::time::{Duration, Instant};
use tokio::sync::watch;

/// What a device that was let in shows.
const COOKIE: &str = "ready-slab-device";
/// It is kept by the browser for so long; browsers keep none for more than 400 days (RFC 6265bis, from memory).
const COOKIE_DAYS: i64 = 400;
/// A code is good for so long: as the issue of access has it.
pub const CODE_GOOD_FOR: Duration = Duration::from_secs(600);
/// Digits of a code: a million million of them, so that a flood of guesses ends nobody's code and still finds none. At 20,000 guesses a second, which is
/// more than this program answers, ten minutes find one of 80,000 codes.
const CODE_DIGITS: usize = 12;
/// When a device was there is noted no oftener than this.
const SEEN_EVERY: TimeDelta = TimeDelta::minutes(5);

/// What a device that may note what happens at the bench asks for beside reading.
const BENCH: [Pattern; 43] = [
    ("POST", "/api/runs"),
    ("POST", "/api/runs/*/events"),
    ("POST", "/api/runs/*/end"),
    ("POST", "/api/jobs/*/records"),
    ("DELETE", "/api/records/*"),
    ("POST", "/api/records/*/test"),
    ("POST", "/api/tries/*/noted"),
    ("DELETE", "/api/tries/*/noted"),
    ("POST", "/api/callipers"),
    ("POST", "/api/jobs/*/photo"),
    ("POST", "/api/records/*/photo"),
    ("DELETE", "/api/records/*/photo"),
    ("POST", "/api/records/*/put-back"),
    ("POST", "/api/jobs/*/chills"),
    ("POST", "/api/chills/*/move"),
    ("POST", "/api/chills/*/unmove"),
    ("POST", "/api/chills/*/end"),
    ("POST", "/api/chills/*/reopen"),
    ("POST", "/api/chills/*/readings"),
    ("PUT", "/api/chills/*/probe"),
    ("DELETE", "/api/chills/*/probe"),
    ("DELETE", "/api/readings/*"),
    ("PUT", "/api/places/*/use"),
    ("POST", "/api/jobs/*/touches"),
    ("DELETE", "/api/touches/*"),
    ("POST", "/api/jobs/*/bowl"),
    ("POST", "/api/jobs/*/bowl/advice"),
    ("DELETE", "/api/bowl/*"),
    ("POST", "/api/bowl/*/put-back"),
    // What only computes.
    ("POST", "/api/jobs/*/size"),
    ("POST", "/api/jobs/*/nest"),
    ("POST", "/api/jobs/*/nest/measure"),
    ("POST", "/api/jobs/new/plan"),
    ("POST", "/api/jobs/read-back"),
    ("POST", "/api/recipes/read"),
    ("POST", "/api/cutters/look"),
    ("POST", "/api/cutters/photo"),
    ("POST", "/api/units/parse"),
    // A schedule may be asked to search for half a minute: that is planning.
    ("POST", "/api/compute/chill"),
    ("POST", "/api/compute/sheet"),
    ("POST", "/api/compute/bake"),
    ("POST", "/api/compute/oven-test"),
    ("POST", "/api/compute/hot-spots"),
];

/// What only a device that may do all may read.
const FULL_ONLY: [Pattern; 4] =
    [("GET", "/api/backups"), ("GET", "/api/backups/now"), ("GET", "/api/backups/archive"), ("GET", "/api/devices")];

const THERMOMETER: [Pattern; 1] = [("POST", "/api/chills/*/readings")];

/// What answers to whoever asks.
const ANYBODY: [Pattern; 1] = [("POST", "/api/pair")];

/// Whether a role covers a request.
#[must_use]
pub fn may(role: Role, method: &Method, path: &str) -> bool {
    let path = in_any_bakery(path);
    match role {
        Role::Full => true,
        Role::Bench if *method == Method::GET => !named(&FULL_ONLY, method, path),
        Role::Bench => named(&BENCH, method, path),
        Role::Thermometer => named(&THERMOMETER, method, path),
    }
}

/// A code with which one device can be let in.
struct Code {
    digits: String,
    role: Role,
    until: Instant,
}

struct Inner {
    /// Nobody is asked who he is.
    open: bool,
    /// What is shown goes over a line that nobody else reads.
    secure: bool,
    store: Store,
    /// Where a device finds this machine.
    address: String,
    code: Mutex<Option<Code>>,
    /// Wrong codes, by where they came from.
    wrong: WrongCodes,
    /// Told when somebody is shut out.
    shut_out: watch::Sender<u64>,
}

/// Knows who is let in. Clones share it.
#[derive(Clone)]
pub struct Access(Arc<Inner>);

/// How a bakery is reached.
#[derive(Debug, Clone)]
pub struct Reached {
    /// Everybody who reaches it is let in.
    pub open: bool,
    /// By TLS.
    pub secure: bool,
    /// Where, as a device on the network calls it, such as `http://192.168.1.5:8420`.
    pub address: String,
}

fn hex(bytes: &[u8]) -> String {
    bytes.iter().map(|b| format!("{b:02x}")).collect()
}

/// What is kept of what a device shows.
fn hash(token: &str) -> String {
    hex(&Sha256::digest(token.as_bytes()))
}

/// 256 bits that nobody can guess.
fn token() -> Result<String, ApiError> {
    let mut bytes = [0_u8; 32];
    getrandom::fill(&mut bytes).map_err(|_| ApiError::Broken)?;
    Ok(hex(&bytes))
}

fn digits() -> Result<String, ApiError> {
    let mut found = String::new();
    while found.len() < CODE_DIGITS {
        let mut byte = [0_u8];
        getrandom::fill(&mut byte).map_err(|_| ApiError::Broken)?;
        // 250 is the last multiple of ten: each digit is as likely.
        if byte[0] < 250 {
            found.push(char::from(b'0' + byte[0] % 10));
        }
    }
    Ok(found)
}

/// Whether two texts are alike, in a time that does not tell how far.
fn alike(a: &str, b: &str) -> bool {
    hash(a) == hash(b)
}

impl Access {
    /// Of a bakery.
    #[must_use]
    pub fn new(store: Store, reached: Reached, pause: Duration) -> Self {
        let Reached { open, secure, address } = reached;
        let (shut_out, _) = watch::channel(0);
        Self(Arc::new(Inner {
            open,
            secure,
            store,
            address,
            code: Mutex::new(None),
            wrong: WrongCodes::new(pause),
            shut_out,
        }))
    }

    /// Of one that everybody reaches who can.
    #[must_use]
    pub fn open(store: Store) -> Self {
        let reached = Reached { open: true, secure: false, address: String::new() };
        Self::new(store, reached, Duration::ZERO)
    }

    /// Whether nobody is asked who he is.
    #[must_use]
    pub fn is_open(&self) -> bool {
        self.0.open
    }

    /// Where a device finds this machine.
    #[must_use]
    pub fn address(&self) -> &str {
        &self.0.address
    }

    /// Makes a code; one that was made before is good no more.
    pub fn make_code(&self, role: Role) -> Result<String, ApiError> {
        let code = Code { digits: digits()?, role, until: Instant::now() + CODE_GOOD_FOR };
        let made = code.digits.clone();
        *held(&self.0.code) = Some(code);
        Ok(made)
    }

    /// Lets nobody in with the code that was made last.
    pub fn drop_code(&self) {
        *held(&self.0.code) = None;
    }

    /// The role that a code gives; it is used up by that.
    fn used(&self, given: &str) -> Result<Role, ApiError> {
        let mut code = held(&self.0.code);
        let good = code.take_if(|c| Instant::now() < c.until && alike(&c.digits, given));
        match (good, &*code) {
            (Some(good), _) => Ok(good.role),
            (None, Some(other)) if Instant::now() < other.until => Err(ApiError::Forbidden("Wrong code. Try again.")),
            _ => Err(ApiError::Forbidden(
                "No code is active. Make one under Kitchen on a connected device, or restart Ready Slab.",
            )),
        }
    }

    /// Lets a device in that has the code: what it is to show from now on. Who gives wrong ones waits for each answer, longer each time, and keeps
    /// nobody else waiting; whoever is at this machine itself (`from` nowhere) is not slowed.
    pub async fn pair(
        &self,
        given: &str,
        name: &str,
        from: Option<IpAddr>,
    ) -> Result<(StoredDevice, Cookie<'static>), ApiError> {
        let given: String = given.chars().filter(char::is_ascii_digit).collect();
        let from = from.filter(|ip| !ip.is_loopback()).map(network_of);
        if let Some(from) = from {
            self.0.wrong.bears(from)?;
        }
        let role = match self.used(&given) {
            Ok(role) => role,
            Err(refused) => {
                tracing::warn!("wrong code entered");
                if let Some(from) = from {
                    let waits = self.0.wrong.one_more(from)?;
                    tokio::time::sleep(waits.pause()).await;
                }
                return Err(refused);
            }
        };
        let token = token()?;
        let id = self.0.store.let_in(name, role, &hash(&token), Utc::now()).await?;
        let device = self.known(&token).await?.filter(|d| d.id == id).ok_or(ApiError::Broken)?;
        tracing::info!(device = id.0, name, "device connected");
        Ok((device, self.cookie(token)))
    }

    fn cookie(&self, value: String) -> Cookie<'static> {
        Cookie::build(COOKIE, value)
            .path("/")
            .http_only(true)
            .same_site(SameSite::Strict)
            .secure(self.0.secure)
            .max_age(time::Duration::days(COOKIE_DAYS))
            .finish()
    }

    /// Lets a thermometer in: what it is to show. It is told once.
    pub async fn thermometer(&self, name: &str) -> Result<String, ApiError> {
        let token = token()?;
        self.0.store.let_in(name, Role::Thermometer, &hash(&token), Utc::now()).await?;
        Ok(token)
    }

    /// Shuts a device out; what it listens to ends.
    pub async fn shut_out(&self, id: DeviceId) -> Result<(), ApiError> {
        self.0.store.shut_out(id).await?;
        self.0.shut_out.send_modify(|n| *n += 1);
        Ok(())
    }

    async fn known(&self, token: &str) -> Result<Option<StoredDevice>, StoreError> {
        self.0.store.device_showing(&hash(token)).await
    }

    /// Whether a device is still let in.
    async fn is_in(&self, id: DeviceId) -> bool {
        self.0.store.devices().await.is_ok_and(|all| all.iter().any(|d| d.id == id))
    }

    /// Resolves when a device is shut out.
    async fn shut(self, id: DeviceId) {
        let mut told = self.0.shut_out.subscribe();
        while self.is_in(id).await {
            if told.changed().await.is_err() {
                return;
            }
        }
    }

    /// Who asks, where that is to be known.
    async fn asks(&self, request: &ServiceRequest) -> Result<StoredDevice, ApiError> {
        let bearer = (request.headers().get(header::AUTHORIZATION))
            .and_then(|v| v.to_str().ok())
            .and_then(|v| v.strip_prefix("Bearer "))
            .map(|t| t.trim().to_owned());
        let shown = request.cookie(COOKIE).map(|c| c.value().to_owned());
        let (token, by_cookie) = match (bearer, shown) {
            (Some(token), _) => (token, false),
            (None, Some(token)) => (token, true),
            (None, None) => return Err(ApiError::NotLetIn),
        };
        let device = self.known(&token).await?.ok_or(ApiError::NotLetIn)?;
        // A token that was read off a thermometer opens no page.
        if by_cookie == (device.role == Role::Thermometer) {
            return Err(ApiError::NotLetIn);
        }
        if !may(device.role, request.method(), routed(request)) {
            return Err(ApiError::Forbidden(match device.role {
                Role::Thermometer => "This token can only send readings.",
                _ => "This device has bench access. Change plans on a device with full access.",
            }));
        }
        let now = Utc::now();
        if device.seen_at.is_none_or(|at| now - at > SEEN_EVERY) {
            // A file that can only be read is read all the same.
            if let Err(error) = self.0.store.device_seen(device.id, now).await {
                tracing::warn!(%error, "couldn’t record when a device was last seen");
            }
        }
        Ok(device)
    }
}

/// Whether a path is of a file of the front end, or the page on which a device is let in.
fn of_the_page(path: &str) -> bool {
    path == "/pair" || (path != "/index.html" && front::is_file(path))
}

/// Lets through who is let in.
pub async fn let_through(
    request: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<EitherBody<BoxBody>>, actix_web::Error> {
    let refused = |request: ServiceRequest, error: ApiError| {
        Ok(request.into_response(error.error_response()).map_into_right_body())
    };
    let Some(access) = request.app_data::<web::Data<Access>>().map(|a| a.get_ref().clone()) else {
        return refused(request, ApiError::Broken);
    };
    let path = routed(&request).to_owned();
    if access.is_open() || of_the_page(&path) || named(&ANYBODY, request.method(), &path) {
        return Ok(next.call(request).await?.map_into_boxed_body().map_into_left_body());
    }
    match access.asks(&request).await {
        Ok(device) => {
            let id = device.id;
            request.extensions_mut().insert(device);
            let response = next.call(request).await?.map_into_boxed_body();
            let kind = response.headers().get(header::CONTENT_TYPE).and_then(|v| v.to_str().ok());
            let streams = kind.is_some_and(|k| k.starts_with("text/event-stream"));
            let response = if streams {
                let ended = Box::pin(access.shut(id));
                response.map_body(|_, body| BoxBody::new(Watched { body, ended }))
            } else {
                response
            };
            Ok(response.map_into_left_body())
        }
        // Whoever wants to see a page is shown how to be let in, and comes back to it.
        Err(ApiError::NotLetIn) if !path.starts_with("/api") && *request.method() == Method::GET => {
            let to: String = form_urlencoded::byte_serialize(request.path().as_bytes()).collect();
            let there = HttpResponse::SeeOther().insert_header((header::LOCATION, format!("/pair?to={to}"))).finish();
            Ok(request.into_response(there).map_into_right_body())
        }
        Err(error) => refused(request, error),
    }
}

/// What is streamed to a device until it is shut out.
struct Watched {
    body: BoxBody,
    ended: Pin<Box<dyn Future<Output = ()>>>,
}

impl MessageBody for Watched {
    type Error = <BoxBody as MessageBody>::Error;

    fn size(&self) -> BodySize {
        self.body.size()
    }

    fn poll_next(mut self: Pin<&mut Self>, cx: &mut Context<'_>) -> Poll<Option<Result<web::Bytes, Self::Error>>> {
        if self.ended.as_mut().poll(cx).is_ready() {
            return Poll::Ready(None);
        }
        Pin::new(&mut self.body).poll_next(cx)
    }
}
