//! The command line.

use clap::{Parser, Subcommand, ValueEnum};
use ready_slab_core::clock::DayInput;
use ready_slab_core::cold::ProbeInput;
use ready_slab_core::error::InputErrors;
use ready_slab_core::geometry::{PaperSize, read_svg};
use ready_slab_core::ledger::PhotoCutter;
use ready_slab_core::units::{Length, Share};
use ready_slab_server::problem::{ApiError, parse};
use ready_slab_server::wire::{
    BakePhotoQuery, BakeRequest, ChillRequest, PhotoFoundView, ScheduleResult, SheetRequest,
};
use ready_slab_server::{Options, description, device, run};
use ready_slab_store::{back_up_file, check_file, export_file, import, restore};
use rustix::fs::Mode;
use std::io::{IsTerminal as _, Read as _, Write as _};
use std::net::SocketAddr;
use std::path::{Path, PathBuf};
use std::process::ExitCode;
use tracing_subscriber::filter::{LevelFilter, Targets};
use tracing_subscriber::layer::SubscriberExt;
use tracing_subscriber::util::SubscriberInitExt;

/// Planner for cut-out and icebox cookies.
#[derive(Parser)]
#[command(name = "ready-slab", version)]
struct Arguments {
    #[command(subcommand)]
    command: Command,
}

#[derive(Subcommand)]
enum Command {
    /// Run the web app.
    Serve {
        /// Bakery file. Created if missing.
        #[arg(long, default_value = "ready-slab.db")]
        db: PathBuf,
        /// Address to listen on. Off this machine, each device connects with a code shown at startup.
        #[arg(long, default_value = "127.0.0.1:8420")]
        listen: SocketAddr,
        /// Certificate file (PEM) for HTTPS.
        #[arg(long, value_name = "FILE", requires = "key")]
        cert: Option<PathBuf>,
        /// Key file (PEM) for the certificate.
        #[arg(long, value_name = "FILE", requires = "cert")]
        key: Option<PathBuf>,
        /// Skip codes: anyone on the network can read, change and delete everything.
        #[arg(long)]
        open: bool,
        /// Fill an empty bakery with the demo.
        #[arg(long)]
        demo: bool,
        /// Another host name the server answers to. Repeat for more.
        #[arg(long = "allow-host", value_name = "NAME")]
        allow_hosts: Vec<String>,
        /// Folder for the daily and pre-update backups. Default: next to the bakery file.
        #[arg(long, value_name = "FOLDER")]
        backups: Option<PathBuf>,
        /// Number of daily backups to keep.
        #[arg(long, default_value_t = 7, value_parser = clap::value_parser!(u16).range(1..=1000))]
        keep: u16,
    },
    /// Copy the bakery to a new file. Safe while it's running.
    Backup {
        /// File to create.
        file: PathBuf,
        /// Bakery file.
        #[arg(long, default_value = "ready-slab.db")]
        db: PathBuf,
    },
    /// Check a bakery file or backup and list what's in it. Changes nothing.
    Check {
        /// File to check.
        file: PathBuf,
    },
    /// Replace the bakery file with a backup. The old file is kept next to it. Stop the server first.
    Restore {
        /// Backup file.
        file: PathBuf,
        /// The bakery file.
        #[arg(long, default_value = "ready-slab.db")]
        db: PathBuf,
    },
    /// Export everything to a ZIP of JSON Lines, CSV and SVG (docs/keeping.md). Safe while it's running.
    Export {
        /// Archive to create.
        file: PathBuf,
        /// The bakery file.
        #[arg(long, default_value = "ready-slab.db")]
        db: PathBuf,
    },
    /// Replace the bakery file with an exported archive. The old file is kept next to it. Stop the server first.
    Import {
        /// Archive to import.
        file: PathBuf,
        /// The bakery file.
        #[arg(long, default_value = "ready-slab.db")]
        db: PathBuf,
    },
    /// Answer one question: JSON on standard input, JSON on standard output, as in the compute endpoints.
    Compute {
        /// What to calculate.
        what: Question,
    },
    /// Measure cookies on white paper from a photo. Prints JSON, as the API does (docs/ledger.md).
    Measure {
        /// Photo (JPEG, PNG or WebP).
        photo: PathBuf,
        /// Paper size.
        #[arg(long, value_enum, default_value_t = Paper::A4)]
        paper: Paper,
        /// Thickness of the cookies, mm.
        #[arg(long, default_value_t = 0.0)]
        thickness_mm: f64,
        /// Cutter used: an SVG file at true size, or FILE=WIDTH in mm. Repeat for more.
        #[arg(long = "cutter", value_name = "FILE[=WIDTH]")]
        cutters: Vec<String>,
        /// Forecast spread, percent of the width.
        #[arg(long, default_value_t = 3.0)]
        spread_percent: f64,
        /// Corners of the paper in order, as fractions of the photo: 8 numbers separated by commas. Default: found in the photo.
        #[arg(long)]
        corners: Option<String>,
        /// Spots with a cookie that wasn't found, in mm on the paper: x,y,x,y…
        #[arg(long)]
        pointed_mm: Option<String>,
    },
    /// Run a simulated thermometer: simulate a dough and send readings to the server like a real device. Holds them while offline.
    Probe {
        /// Server address.
        #[arg(long, default_value = "http://127.0.0.1:8420")]
        server: String,
        /// Number of the dough in the fridge.
        #[arg(long)]
        chill: i64,
        /// Random seed.
        #[arg(long, default_value_t = ProbeInput::default().seed)]
        seed: u32,
        /// Noise per reading, K.
        #[arg(long, default_value_t = ProbeInput::default().noise_k)]
        noise_k: f64,
        /// Fraction of readings lost.
        #[arg(long, default_value_t = ProbeInput::default().drop_out)]
        drop_out: f64,
        /// True heat-transfer factor of the places.
        #[arg(long, default_value_t = ProbeInput::default().film_factor)]
        film_factor: f64,
        /// True air temperature offset of the places, K.
        #[arg(long, default_value_t = ProbeInput::default().air_off_k, allow_negative_numbers = true)]
        air_off_k: f64,
        /// Seconds between readings, in simulated time.
        #[arg(long, default_value_t = ProbeInput::default().every_s)]
        every_s: f64,
        /// Stop after this many readings. Default: until the dough is taken out.
        #[arg(long)]
        count: Option<u32>,
    },
    /// Check that a server is up. Exits with 0 if it is.
    Health {
        /// The server.
        #[arg(long, default_value = "http://127.0.0.1:8420")]
        server: String,
    },
    /// Print the API description (OpenAPI 3.1).
    Openapi,
}

#[derive(Clone, Copy, ValueEnum)]
enum Question {
    /// When dough is ready in the fridge or freezer.
    Chill,
    /// How cookies fit on a sheet.
    Sheet,
    /// When a cookie is done, how far it spreads and how it looks.
    Bake,
    /// A day's schedule for people, mixers, fridge and freezer space, trays, ovens and cooling spaces.
    Schedule,
}

#[derive(Clone, Copy, ValueEnum)]
enum Paper {
    /// 210 × 297 mm.
    A4,
    /// 8½ × 11 in.
    Letter,
}

/// What lies on a photo.
fn measured(photo: &Path, query: &BakePhotoQuery, cutters: &[String], spread_percent: f64) -> Result<String, ApiError> {
    let unread = |path: &Path| {
        let path = path.display().to_string();
        move |e: std::io::Error| ApiError::Unreadable(format!("{path}: {e}"))
    };
    let mut outlines = vec![];
    for cutter in cutters {
        let (file, width) = match cutter.rsplit_once('=').map(|(file, width)| (file, width.parse::<f64>())) {
            Some((file, Ok(width))) => {
                (file, Some(Length::from_mm(width).map_err(|e| ApiError::Unreadable(e.to_string()))?))
            }
            _ => (cutter.as_str(), None),
        };
        let svg = std::fs::read_to_string(file).map_err(unread(Path::new(file)))?;
        outlines.push(read_svg(&svg, width).map_err(InputErrors::from)?);
    }
    let file = std::fs::read(photo).map_err(unread(photo))?;
    let spread = Share::new(spread_percent / 100.0);
    let forms = outlines.iter().map(|outline| PhotoCutter { outline, spread }).collect();
    let found = query.measure(&file, forms, Length::new_mm(0.0))?;
    serde_json::to_string_pretty(&PhotoFoundView::from(&found)).map_err(|_| ApiError::Broken)
}

/// Largest question read from standard input.
const MOST_INPUT_BYTES: u64 = 2_500_000;

fn compute(what: Question) -> Result<String, ApiError> {
    let mut input = Vec::new();
    std::io::stdin()
        .lock()
        .take(MOST_INPUT_BYTES + 1)
        .read_to_end(&mut input)
        .map_err(|e| ApiError::Unreadable(e.to_string()))?;
    if u64::try_from(input.len()).unwrap_or(u64::MAX) > MOST_INPUT_BYTES {
        return Err(ApiError::TooLarge { limit_bytes: 2_500_000 });
    }
    let json = match what {
        Question::Chill => serde_json::to_string_pretty(&parse::<ChillRequest>(&input)?.answer()?),
        Question::Sheet => serde_json::to_string_pretty(&parse::<SheetRequest>(&input)?.answer()?),
        Question::Schedule => serde_json::to_string_pretty(&ScheduleResult::of(&parse::<DayInput>(&input)?)?),
        Question::Bake => serde_json::to_string_pretty(&parse::<BakeRequest>(&input)?.answer()?),
    };
    json.map_err(|_| ApiError::Broken)
}

fn print(text: &str) -> ExitCode {
    match writeln!(std::io::stdout().lock(), "{text}") {
        Ok(()) => ExitCode::SUCCESS,
        Err(_) => ExitCode::FAILURE,
    }
}

/// An answer as JSON, or what is wrong with the question.
fn answered(answer: Result<String, ApiError>) -> ExitCode {
    match answer {
        Ok(json) => print(&json),
        Err(error) => {
            print(&serde_json::to_string_pretty(&error.problem()).unwrap_or_default());
            ExitCode::from(2)
        }
    }
}

/// Where a person looks, one quiet line for what went wrong and nothing else; where the log is piped on, all of it as JSON.
fn log() {
    let people = std::io::stderr().is_terminal();
    let usual = if people { "warn" } else { "info,sqlx=warn" };
    let asked = std::env::var("RUST_LOG").ok().and_then(|said| said.parse::<Targets>().ok());
    let filter = asked.unwrap_or_else(|| usual.parse().expect("what is usual reads"));
    let log = tracing_subscriber::fmt().with_max_level(LevelFilter::TRACE).with_writer(std::io::stderr);
    if people {
        log.compact().with_target(false).without_time().finish().with(filter).init();
    } else {
        log.json().finish().with(filter).init();
    }
}

fn ended(result: Result<(), impl std::fmt::Display>) -> ExitCode {
    match result {
        Ok(()) => ExitCode::SUCCESS,
        Err(error) => {
            eprintln!("ready-slab: {error}");
            ExitCode::FAILURE
        }
    }
}

/// Where what was there is now.
fn put_aside(aside: Option<PathBuf>) -> String {
    aside.map_or_else(String::new, |aside| format!(" The old file is now {}.", aside.display()))
}

fn waited_for<T>(work: impl Future<Output = T>) -> T {
    actix_web::rt::System::new().block_on(work)
}

fn main() -> ExitCode {
    log();
    // What is made is for whoever runs it: bakeries, backups, archives and their folders (umask(2)).
    rustix::process::umask(Mode::from_bits_truncate(0o077));
    match Arguments::parse().command {
        Command::Serve { db, listen, cert, key, open, demo, allow_hosts, backups, keep } => {
            let options =
                Options { db, listen, demo, allow_hosts, backups, keep: keep.into(), open, tls: cert.zip(key) };
            ended(actix_web::rt::System::new().block_on(run(options)))
        }
        Command::Backup { file, db } => ended(waited_for(back_up_file(&db, &file)).map(|()| {
            println!("Copied {} to {}.", db.display(), file.display());
        })),
        Command::Check { file } => match waited_for(check_file(&file)) {
            Ok(found) if found.whole() => {
                let holds: Vec<String> = found.holds.iter().map(|(what, many)| format!("{many} {what}")).collect();
                print(&format!("{} is OK: {}.", file.display(), holds.join(", ")))
            }
            Ok(found) => {
                eprintln!("ready-slab: {} is damaged:\n{}", file.display(), found.faults.join("\n"));
                ExitCode::FAILURE
            }
            Err(error) => ended(Err(error)),
        },
        Command::Restore { file, db } => ended(waited_for(restore(&file, &db, chrono::Utc::now())).map(|aside| {
            println!("Restored {} from {}.{}", db.display(), file.display(), put_aside(aside));
        })),
        Command::Export { file, db } => ended(waited_for(export_file(&db, &file, chrono::Utc::now())).map(|()| {
            println!("Exported {} to {}.", db.display(), file.display());
        })),
        Command::Import { file, db } => ended(waited_for(import(&file, &db, chrono::Utc::now())).map(|aside| {
            println!("Imported {} into {}.{}", file.display(), db.display(), put_aside(aside));
        })),
        Command::Compute { what } => answered(compute(what)),
        Command::Measure { photo, paper, thickness_mm, cutters, spread_percent, corners, pointed_mm } => {
            let paper = match paper {
                Paper::A4 => PaperSize::A4,
                Paper::Letter => PaperSize::Letter,
            };
            let query = BakePhotoQuery { paper, corners, thickness_mm: Some(thickness_mm), pointed_mm };
            answered(measured(&photo, &query, &cutters, spread_percent))
        }
        Command::Probe { server, chill, seed, noise_k, drop_out, film_factor, air_off_k, every_s, count } => {
            let kind = ProbeInput { seed, noise_k, drop_out, film_factor, air_off_k, every_s };
            ended(device::play(&server, chill, kind, count))
        }
        Command::Health { server } => ended(device::health(&server).map(|said| println!("{said}"))),
        Command::Openapi => print(&description().to_pretty_json().unwrap_or_default()),
    }
}
