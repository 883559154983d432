//! The stand-in thermometer as a device of its own: it knows the server only by its address, and posts readings as any other.

use crate::board::next_step;
use crate::problem::Problem;
use crate::wire::{PhysicsView, ReadingBody, ReadingsTaken, written};
use chrono::{TimeDelta, Utc};
use ready_slab_core::cold::ProbeInput;
use ready_slab_core::cold::Spot;
use serde::de::DeserializeOwned;
use std::collections::VecDeque;
use std::time::Duration;

/// So long for an answer, so long between two attempts, and so many readings are kept meanwhile.
const ANSWER: Duration = Duration::from_secs(5);
const AGAIN: Duration = Duration::from_secs(1);
const MOST_KEPT: usize = 1000;
/// Attempts to reach the server before the first answer.
const MOST_ATTEMPTS: u32 = 30;

/// Why it stopped before its time.
#[derive(Debug, thiserror::Error)]
pub enum DeviceError {
    /// Nobody answers there.
    #[error("No answer from {0}: {1}")]
    NoAnswer(String, String),
    /// The server refused.
    #[error("The server refused: {0}")]
    Refused(String),
    /// What was asked for cannot be.
    #[error(transparent)]
    Input(#[from] ready_slab_core::error::InputErrors),
}

/// Asks a server whether it is well: what it says. One that does not know who asks is running.
pub fn health(server: &str) -> Result<String, DeviceError> {
    let asked = minreq::get(format!("{server}/api/health")).with_timeout(ANSWER.as_secs()).send();
    let answer = asked.map_err(|e| DeviceError::NoAnswer(server.to_owned(), e.to_string()))?;
    match answer.status_code {
        200 => Ok(format!("{server} is up.")),
        401 => Ok(format!("{server} is up. Connect this device for details.")),
        other => Err(DeviceError::Refused(format!("{server} answered {other}"))),
    }
}

enum Trouble {
    Lost(String),
    Refused(String),
}

impl From<minreq::Error> for Trouble {
    fn from(error: minreq::Error) -> Self {
        Self::Lost(error.to_string())
    }
}

struct Line {
    server: String,
    chill: i64,
}

impl Line {
    fn answer<T: DeserializeOwned>(asked: minreq::Request) -> Result<T, Trouble> {
        let response = asked.with_timeout(ANSWER.as_secs()).send()?;
        if (200..300).contains(&response.status_code) {
            return Ok(response.json()?);
        }
        let problem: Problem = response.json()?;
        let fields: Vec<String> = problem.errors.iter().map(|e| format!("{} {}", e.field, e.message)).collect();
        Err(Trouble::Refused(if fields.is_empty() { problem.detail } else { fields.join("; ") }))
    }

    fn physics(&self) -> Result<PhysicsView, Trouble> {
        Self::answer(minreq::get(format!("{}/api/chills/{}/physics", self.server, self.chill)))
    }

    fn post(&self, readings: &[ReadingBody]) -> Result<ReadingsTaken, Trouble> {
        let path = format!("{}/api/chills/{}/readings", self.server, self.chill);
        Self::answer(minreq::post(path).with_json(&readings)?)
    }
}

/// Plays the thermometer until the piece is followed no more, or `count` readings were taken.
pub fn play(server: &str, chill: i64, kind: ProbeInput, count: Option<u32>) -> Result<(), DeviceError> {
    let kind = kind.kind()?;
    let line = Line { server: server.trim_end_matches('/').to_owned(), chill };
    let mut known: Option<PhysicsView> = None;
    let mut waiting: VecDeque<ReadingBody> = VecDeque::new();
    let (mut taken, mut attempts) = (0, 0);
    while count.is_none_or(|most| taken < most) {
        // It may have been moved since; without an answer it is taken to lie where it lay.
        match line.physics() {
            Ok(physics) => known = Some(physics),
            Err(Trouble::Refused(why)) => return Err(DeviceError::Refused(why)),
            Err(Trouble::Lost(why)) if known.is_none() => {
                attempts += 1;
                if attempts >= MOST_ATTEMPTS {
                    return Err(DeviceError::NoAnswer(line.server, why));
                }
                std::thread::sleep(AGAIN);
            }
            Err(Trouble::Lost(_)) => {}
        }
        let Some(physics) = &known else { continue };
        if physics.ended {
            break;
        }
        let now = Utc::now();
        let elapsed = physics.elapsed(now)?;
        let Some(after) = next_step(elapsed, physics.clock_speed, kind) else { break };
        let wait_s = (after - elapsed).s() / physics.clock_speed;
        std::thread::sleep(Duration::from_secs_f64(wait_s.max(0.0)));
        #[expect(clippy::cast_possible_truncation, reason = "an hour at most")]
        let at = now + TimeDelta::milliseconds((wait_s * 1000.0) as i64);
        let Some(reading) = kind.shows(&physics.tracked()?, after)? else {
            println!("{} lost", written(at));
            continue;
        };
        taken += 1;
        println!("{} {:.2} C", written(at), reading.shows.c());
        if waiting.len() >= MOST_KEPT {
            waiting.pop_front();
        }
        waiting.push_back(ReadingBody {
            shows_c: reading.shows.c(),
            spot: Spot::Core,
            read_at: Some(written(at)),
            simulated: true,
        });
        match line.post(waiting.make_contiguous()) {
            Ok(_) => waiting.clear(),
            Err(Trouble::Refused(why)) => {
                eprintln!("refused: {why}");
                waiting.clear();
            }
            Err(Trouble::Lost(why)) => eprintln!("{} readings waiting for a connection: {why}", waiting.len()),
        }
    }
    if waiting.is_empty() {
        return Ok(());
    }
    match line.post(waiting.make_contiguous()) {
        Ok(_) => Ok(()),
        Err(Trouble::Lost(why)) => Err(DeviceError::NoAnswer(line.server, why)),
        Err(Trouble::Refused(why)) => Err(DeviceError::Refused(why)),
    }
}
