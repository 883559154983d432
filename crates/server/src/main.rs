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

/// Plans, chills, cuts and bakes cold butter doughs.
#[derive(Parser)]
#[command(name = "ready-slab", version)]
struct Arguments {
    #[command(subcommand)]
    command: Command,
}

#[derive(Subcommand)]
enum Command {
    /// Serves the bakery to a browser.
    Serve {
        /// The bakery file; made when it is not there.
        #[arg(long, default_value = "ready-slab.db")]
        db: PathBuf,
        /// Where to listen. On other than loopback each device is let in with a code that is told at the start.
        #[arg(long, default_value = "127.0.0.1:8420")]
        listen: SocketAddr,
        /// A certificate (PEM) with which everything is served by HTTPS.
        #[arg(long, value_name = "FILE", requires = "key")]
        cert: Option<PathBuf>,
        /// Its key (PEM).
        #[arg(long, value_name = "FILE", requires = "cert")]
        key: Option<PathBuf>,
        /// Asks nobody who he is, on whatever network: everybody there can read, change and delete all of the bakery.
        #[arg(long)]
        open: bool,
        /// Fills an empty bakery with the demo.
        #[arg(long)]
        demo: bool,
        /// A further name under which the server is addressed, such as a tablet's name for this machine; may be repeated.
        #[arg(long = "allow-host", value_name = "NAME")]
        allow_hosts: Vec<String>,
        /// The folder of the backups that are made each day and before an update; beside the bakery file when absent.
        #[arg(long, value_name = "FOLDER")]
        backups: Option<PathBuf>,
        /// So many daily backups are kept.
        #[arg(long, default_value_t = 7, value_parser = clap::value_parser!(u16).range(1..=1000))]
        keep: u16,
    },
    /// Copies the bakery into a new file, also while it is served.
    Backup {
        /// The file to be made.
        file: PathBuf,
        /// The bakery file.
        #[arg(long, default_value = "ready-slab.db")]
        db: PathBuf,
    },
    /// Looks whether a bakery file, or a backup of one, is whole, and tells what it holds. Changes nothing.
    Check {
        /// The file.
        file: PathBuf,
    },
    /// Puts a backup in the place of the bakery file; what was there is kept beside it. The program must not be serving it.
    Restore {
        /// The backup.
        file: PathBuf,
        /// The bakery file.
        #[arg(long, default_value = "ready-slab.db")]
        db: PathBuf,
    },
    /// Writes the whole bakery, also while it is served, as one open archive: a ZIP of JSON lines, CSV and SVG (docs/keeping.md).
    Export {
        /// The archive to be made.
        file: PathBuf,
        /// The bakery file.
        #[arg(long, default_value = "ready-slab.db")]
        db: PathBuf,
    },
    /// Reads such an archive in the place of the bakery file; what was there is kept beside it. The program must not be serving it.
    Import {
        /// The archive.
        file: PathBuf,
        /// The bakery file.
        #[arg(long, default_value = "ready-slab.db")]
        db: PathBuf,
    },
    /// Answers one question from standard input on standard output, in the JSON of the compute endpoints.
    Compute {
        /// Which question.
        what: Question,
    },
    /// Measures baked pieces on a sheet of paper from a photo, and prints what was found as JSON, as the API tells it (docs/ledger.md).
    Measure {
        /// A JPEG, PNG or WebP.
        photo: PathBuf,
        /// The paper.
        #[arg(long, value_enum, default_value_t = Paper::A4)]
        paper: Paper,
        /// How thick the pieces are, mm.
        #[arg(long, default_value_t = 0.0)]
        thickness_mm: f64,
        /// A cutter that may be there: an SVG file at true size, or FILE=WIDTH for another width, mm; may be repeated.
        #[arg(long = "cutter", value_name = "FILE[=WIDTH]")]
        cutters: Vec<String>,
        /// How much pieces are expected to have grown across, percent.
        #[arg(long, default_value_t = 3.0)]
        spread_percent: f64,
        /// The paper's corners as shares of the picture, going round: eight numbers with commas between. Looked for when absent.
        #[arg(long)]
        corners: Option<String>,
        /// Places with a piece that was not found, mm on the paper: x and y in turn with commas between.
        #[arg(long)]
        pointed_mm: Option<String>,
    },
    /// Plays a thermometer that is left in a followed piece: simulates the piece and posts readings to the server, as any other
    /// device would. Keeps them while the connection is lost.
    Probe {
        /// The server.
        #[arg(long, default_value = "http://127.0.0.1:8420")]
        server: String,
        /// The number of the followed piece.
        #[arg(long)]
        chill: i64,
        /// All chances follow from it.
        #[arg(long, default_value_t = ProbeInput::default().seed)]
        seed: u32,
        /// Noise of one reading, K.
        #[arg(long, default_value_t = ProbeInput::default().noise_k)]
        noise_k: f64,
        /// Share of readings lost.
        #[arg(long, default_value_t = ProbeInput::default().drop_out)]
        drop_out: f64,
        /// What really multiplies the film of the places.
        #[arg(long, default_value_t = ProbeInput::default().film_factor)]
        film_factor: f64,
        /// What the air of the places is really off by, K.
        #[arg(long, default_value_t = ProbeInput::default().air_off_k, allow_negative_numbers = true)]
        air_off_k: f64,
        /// From one reading to the next by the piece's clock, s.
        #[arg(long, default_value_t = ProbeInput::default().every_s)]
        every_s: f64,
        /// Stops after so many readings; goes on while the piece is followed when absent.
        #[arg(long)]
        count: Option<u32>,
    },
    /// Asks a server whether it is well, and ends with 0 where it is.
    Health {
        /// The server.
        #[arg(long, default_value = "http://127.0.0.1:8420")]
        server: String,
    },
    /// Prints the description of the API (OpenAPI 3.1).
    Openapi,
}

#[derive(Clone, Copy, ValueEnum)]
enum Question {
    /// When a piece is ready in the cold.
    Chill,
    /// How pieces lie on a sheet.
    Sheet,
    /// When a piece is baked, how far it spreads and how it looks.
    Bake,
    /// A day's work over hands, mixers, cold places, trays, ovens and cooling places.
    Schedule,
}

#[derive(Clone, Copy, ValueEnum)]
enum Paper {
    /// 210 by 297 mm.
    A4,
    /// 8 1/2 by 11 in.
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
    aside.map_or_else(String::new, |aside| format!(" What was there is {} now.", aside.display()))
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
            println!("{} is a copy of {}.", file.display(), db.display());
        })),
        Command::Check { file } => match waited_for(check_file(&file)) {
            Ok(found) if found.whole() => {
                let holds: Vec<String> = found.holds.iter().map(|(what, many)| format!("{many} {what}")).collect();
                print(&format!("{} is whole: {}.", file.display(), holds.join(", ")))
            }
            Ok(found) => {
                eprintln!("ready-slab: {} is not whole:\n{}", file.display(), found.faults.join("\n"));
                ExitCode::FAILURE
            }
            Err(error) => ended(Err(error)),
        },
        Command::Restore { file, db } => ended(waited_for(restore(&file, &db, chrono::Utc::now())).map(|aside| {
            println!("{} is {} again.{}", db.display(), file.display(), put_aside(aside));
        })),
        Command::Export { file, db } => ended(waited_for(export_file(&db, &file, chrono::Utc::now())).map(|()| {
            println!("{} holds all of {}.", file.display(), db.display());
        })),
        Command::Import { file, db } => ended(waited_for(import(&file, &db, chrono::Utc::now())).map(|aside| {
            println!("{} holds all of {}.{}", db.display(), file.display(), put_aside(aside));
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
