//! Puts the server together and runs it until it is told to stop.

use crate::access::{Access, Reached, let_through};
use crate::bakeries::{Bakeries, Bakery, demo_beside, which};
use crate::description::description;
use crate::guard::{AllowedHosts, guard};
use crate::problem::ApiError;
use crate::routes::{BODY_LIMIT_BYTES, Description, configure};
use crate::wire::{grouped, in_letters};
use crate::{demo, embed};
use actix_web::body::MessageBody;
use actix_web::dev::{ServiceFactory, ServiceRequest, ServiceResponse};
use actix_web::middleware::{Compress, Next, from_fn};
use actix_web::{App, HttpMessage as _, HttpServer, web};
use chrono::{DateTime, NaiveTime, TimeDelta, Utc};
use ready_slab_core::clock::Zone;
use ready_slab_store::{Backups, Lock, Role, Store, StoreError, Why, remove_left_over};
use rustls::ServerConfig;
use rustls::pki_types::pem::PemObject as _;
use rustls::pki_types::{CertificateDer, PrivateKeyDer};
use std::io::IsTerminal as _;
use std::net::{IpAddr, SocketAddr, TcpListener, UdpSocket};
use std::os::unix::fs::PermissionsExt as _;
use std::path::{Path, PathBuf};
use std::sync::Arc;
use std::time::Duration;
use tracing_actix_web::TracingLogger;
use utoipa::OpenApi as _;
use utoipa_actix_web::AppExt as _;

/// How to serve.
#[derive(Debug, Clone)]
pub struct Options {
    /// The bakery file.
    pub db: PathBuf,
    /// Where to listen.
    pub listen: SocketAddr,
    /// Whether an empty bakery is filled with the demo.
    pub demo: bool,
    /// Further names under which the server is addressed.
    pub allow_hosts: Vec<String>,
    /// Where backups lie; beside the bakery file when absent.
    pub backups: Option<PathBuf>,
    /// So many of those made by themselves are kept.
    pub keep: usize,
    /// Whether everybody on the network is let in.
    pub open: bool,
    /// Files of a certificate and its key, for HTTPS.
    pub tls: Option<(PathBuf, PathBuf)>,
}

/// The application with all routes, on a bakery and the demo beside it.
pub fn application(
    bakeries: Bakeries,
    hosts: AllowedHosts,
) -> App<
    impl ServiceFactory<
        ServiceRequest,
        Config = (),
        Response = ServiceResponse<impl MessageBody + use<>>,
        Error = actix_web::Error,
        InitError = (),
    > + use<>,
> {
    let (app, _) = App::new().into_utoipa_app().openapi(Description::openapi()).configure(configure).split_for_parts();
    app.app_data(web::Data::new(bakeries.access().clone()))
        .app_data(web::Data::new(bakeries.heavy()))
        .app_data(web::Data::new(bakeries))
        .app_data(web::Data::new(hosts))
        .app_data(web::PayloadConfig::new(BODY_LIMIT_BYTES))
        .app_data(
            web::PathConfig::default()
                .error_handler(|_, request| ApiError::NoSuchPath(request.path().to_owned()).into()),
        )
        .route("/api/openapi.json", web::get().to(|| async { web::Json(description()) }))
        .default_service(web::to(embed::serve))
        .wrap(from_fn(tell_of_changes))
        .wrap(from_fn(which))
        .wrap(Compress::default())
        .wrap(from_fn(let_through))
        .wrap(from_fn(guard))
        .wrap(TracingLogger::default())
}

/// Every change of anything may change what the live board shows.
async fn tell_of_changes(
    request: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<impl MessageBody + 'static>, actix_web::Error> {
    let changes = !request.method().is_safe();
    let board = request.extensions().get::<Bakery>().map(|b| b.board.clone());
    let response = next.call(request).await?;
    if changes
        && response.status().is_success()
        && let Some(board) = board
    {
        board.touch();
    }
    Ok(response)
}

/// How often it is looked whether a day has begun.
const LOOKS: Duration = Duration::from_secs(600);

/// One backup each day of the kitchen's clock on which the program runs. One that fails is told in the log and tried again.
async fn daily(store: Store, backups: Backups) {
    loop {
        if let Err(error) = today(&store, &backups, Utc::now()).await {
            tracing::error!(%error, "backup failed");
        }
        match store.thin_readings(Utc::now() - THINNED_AFTER, THINNED_WITHIN_K, THINNED_AT_A_TIME).await {
            Ok(0) => {}
            Ok(readings) => {
                tracing::info!(readings, "readings thinned out")
            }
            Err(error) => tracing::error!(%error, "couldn’t thin out readings"),
        }
        match store.pack_readings(Utc::now() - PACKED_AFTER, THINNED_AT_A_TIME).await {
            Ok(0) => {}
            Ok(pieces) => tracing::info!(pieces, "old readings packed"),
            Err(error) => tracing::error!(%error, "couldn’t pack old readings"),
        }
        tokio::time::sleep(LOOKS).await;
    }
}

/// A month after a piece has ended nobody accepts its readings any more; its curve can be drawn again within what a good thermometer shows. Our own choice.
const THINNED_AFTER: TimeDelta = TimeDelta::days(30);
const THINNED_WITHIN_K: f64 = 0.1;
/// A season after, hardly anybody looks at them: they take a row a piece. Our own choice.
const PACKED_AFTER: TimeDelta = TimeDelta::days(120);
/// So many pieces at each look, so that nothing waits for it.
const THINNED_AT_A_TIME: u32 = 100;

async fn today(store: &Store, backups: &Backups, now: DateTime<Utc>) -> Result<(), StoreError> {
    let zone = store.kitchen().await?.zone();
    let midnight = zone.nearest(zone.shown(now).date().and_time(NaiveTime::MIN));
    if !backups.made_since(midnight)? {
        let made = backups.make(store, now, Why::Day).await?;
        tracing::info!(file = %made.file.display(), bytes = made.bytes, "backup");
    }
    Ok(())
}

/// Resolves when the process is told to stop.
async fn told_to_stop() -> std::io::Result<()> {
    let mut terminate = tokio::signal::unix::signal(tokio::signal::unix::SignalKind::terminate())?;
    tokio::select! {
        interrupted = tokio::signal::ctrl_c() => interrupted,
        _ = terminate.recv() => Ok(()),
    }
}

/// Serves until a signal comes, then finishes what is running and closes the file.
pub async fn run(options: Options) -> Result<(), Box<dyn std::error::Error>> {
    // Held until after the file is closed.
    let _lock = Lock::of(&options.db)?;
    let backups = Backups::of(&options.db, options.backups.clone(), options.keep);
    backups.remove_left_over()?;
    remove_left_over();
    if let Some(kept) = backups.before_migration(&options.db, chrono::Utc::now()).await? {
        tracing::info!(file = %kept.display(), "updating the bakery file; the old one is saved as a backup");
    }
    let store = Store::open(&options.db).await?;
    let served = serve(options, store.clone(), backups).await;
    store.close().await;
    served
}

/// A wrong code keeps the next one waiting so long: a guess a second. Our own choice.
const WRONG_CODE_WAITS: Duration = Duration::from_secs(1);

/// As it stands in an address.
fn host(ip: IpAddr) -> String {
    match ip {
        IpAddr::V4(ip) => ip.to_string(),
        IpAddr::V6(ip) => format!("[{ip}]"),
    }
}

/// How a device on the network calls this machine. Where it listens on all of its addresses, the one by which it would reach others.
fn reached_at(scheme: &str, bound: SocketAddr) -> String {
    let outward = || {
        // Nothing is sent: only the way is looked for (192.0.2.1 is kept for examples, RFC 5737).
        let socket = UdpSocket::bind(("0.0.0.0", 0)).ok()?;
        socket.connect(("192.0.2.1", 9)).ok()?;
        Some(socket.local_addr().ok()?.ip())
    };
    let ip = if bound.ip().is_unspecified() { outward().unwrap_or(bound.ip()) } else { bound.ip() };
    format!("{scheme}://{}:{}", host(ip), bound.port())
}

/// What a file of a certificate or a key is wrong in.
#[derive(Debug, thiserror::Error)]
#[error("{}: {why}", file.display())]
struct BadCertificate {
    file: PathBuf,
    why: String,
}

/// Bits of a file's mode (chmod(2)): its group or others may write it; others may read it.
const WRITTEN_BY_OTHERS: u32 = 0o022;
const READ_BY_ALL: u32 = 0o004;

/// TLS 1.2 and 1.3 (RFC 5246, RFC 8446) with a certificate and its key, both PEM (RFC 7468).
fn tls(certificate: &Path, key: &Path) -> Result<ServerConfig, BadCertificate> {
    let bad = |file: &Path, why: &dyn std::fmt::Display| BadCertificate { file: file.to_owned(), why: why.to_string() };
    // Whoever may write it can be this machine to everybody (as of keys of SSH, ssh_config(5), from memory).
    let mode = std::fs::metadata(key).map_err(|e| bad(key, &e))?.permissions().mode();
    if mode & WRITTEN_BY_OTHERS != 0 {
        return Err(bad(key, &"others than its owner may write this key: chmod 600 it"));
    }
    if mode & READ_BY_ALL != 0 {
        tracing::warn!(key = %key.display(), "everybody on this machine may read the key: chmod 600 it");
    }
    let chain = CertificateDer::pem_file_iter(certificate).and_then(Iterator::collect::<Result<Vec<_>, _>>);
    let chain = chain.map_err(|e| bad(certificate, &e))?;
    let secret = PrivateKeyDer::from_pem_file(key).map_err(|e| bad(key, &e))?;
    let provider = Arc::new(rustls::crypto::ring::default_provider());
    let versions = ServerConfig::builder_with_provider(provider).with_safe_default_protocol_versions();
    let versions = versions.map_err(|e| bad(certificate, &e))?;
    versions.with_no_client_auth().with_single_cert(chain, secret).map_err(|e| bad(certificate, &e))
}

/// Says on standard output how a device is let in.
fn tell_how_to_get_in(access: &Access, open: bool) -> Result<(), ApiError> {
    if open {
        println!("No code needed: anyone on this network can read, change and delete everything.");
        return Ok(());
    }
    let code = access.make_code(Role::Full)?;
    println!(
        "To connect a device, open {}/pair on it within 10 minutes and enter {}.",
        access.address(),
        grouped(&code)
    );
    if std::io::stdout().is_terminal()
        && let Some(picture) = in_letters(access, &code)
    {
        println!("Or scan this with its camera:\n{picture}");
    }
    Ok(())
}

async fn serve(options: Options, store: Store, backups: Backups) -> Result<(), Box<dyn std::error::Error>> {
    // Where this machine is, until somebody says where the kitchen is.
    let zone = iana_time_zone::get_timezone().ok().filter(|z| Zone::named(z).is_ok());
    let zone = zone.unwrap_or_else(|| Zone::UTC.name().to_owned());
    if options.demo {
        demo::fill(&store, &zone, chrono::Utc::now()).await?;
    } else {
        demo::ensure_kitchen(&store).await?;
    }
    store.settle_zone(&zone).await?;
    let listener = TcpListener::bind(options.listen)?;
    let bound = listener.local_addr()?;
    let loopback = bound.ip().is_loopback();
    let tls = options.tls.as_ref().map(|(certificate, key)| tls(certificate, key)).transpose()?;
    let scheme = if tls.is_some() { "https" } else { "http" };
    let address = if loopback { String::new() } else { reached_at(scheme, bound) };
    let reached = Reached { open: loopback || options.open, secure: tls.is_some(), address };
    let access = Access::new(store.clone(), reached, WRONG_CODE_WAITS);
    let bakeries =
        Bakeries::new(store, Some(demo_beside(&options.db))).kept_safe(backups.clone()).guarded(access.clone());
    bakeries.own().board.tend_probes().await?;
    bakeries.open_left().await?;
    // A bakery of an older program, or one whose last bake could not be learnt from at once.
    bakeries.own().learn().await;
    let for_workers = bakeries.clone();
    let mut hosts = options.allow_hosts.clone();
    if !loopback && !bound.ip().is_unspecified() {
        hosts.push(host(bound.ip()));
    }
    let hosts = AllowedHosts::new(&hosts).and_numbers(bound.ip().is_unspecified()).by_tls(tls.is_some());
    let server = HttpServer::new(move || application(for_workers.clone(), hosts.clone()))
        .workers(2)
        // An answer goes out at once; waiting to fill a packet cost 40 ms on loopback.
        .tcp_nodelay(true)
        .shutdown_timeout(10)
        .disable_signals();
    let server = match tls {
        Some(tls) => server.listen_rustls_0_23(listener, tls)?,
        None => server.listen(listener)?,
    };
    // The lines meant for people, on standard output; logs go to standard error.
    println!("Ready Slab is running at {scheme}://{bound}/");
    if !loopback {
        tell_how_to_get_in(&access, options.open)?;
    }
    let daily = actix_web::rt::spawn(daily(bakeries.own().store.clone(), backups));
    let server = server.run();
    let handle = server.handle();
    let hushed = bakeries.clone();
    actix_web::rt::spawn(async move {
        if let Err(error) = told_to_stop().await {
            tracing::error!(%error, "can’t listen for signals");
            return;
        }
        // Streams never end by themselves, and would hold the server up.
        hushed.hush().await;
        handle.stop(true).await;
    });
    server.await?;
    daily.abort();
    bakeries.close().await;
    tracing::info!("stopped; bakery file closed");
    Ok(())
}
