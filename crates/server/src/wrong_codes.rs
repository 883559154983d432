//! Wrong codes by where they came from: each is answered slowly, the more the slower, and keeps nobody else waiting.

use crate::problem::{ApiError, TURNED_AWAY_FOR};
use std::collections::HashMap;
use std::net::IpAddr;
use std::sync::{Mutex, MutexGuard, PoisonError};
use std::time::{Duration, Instant};

/// Wrong codes are counted together for a network of this length of IPv6: a household has as many addresses as it likes (RFC 6177).
const IPV6_NETWORK: u32 = 64;
/// After so many wrong ones from one address within ten minutes no more are looked at. Our own choice.
const MOST_WRONG: u32 = 1000;
/// So many wrong ones of one address wait for their answers; the others are answered at once that there are too many.
const MOST_WAITING: u32 = 16;
/// The answer to the tenth wrong one, and to all after it, takes ten times as long as that to the first.
const SLOWEST: u32 = 10;
/// So many addresses are kept in mind.
const MOST_ADDRESSES: usize = 10_000;

/// An address, or the network that is one household's.
#[must_use]
pub fn network_of(ip: IpAddr) -> IpAddr {
    match ip {
        IpAddr::V6(six) => match six.to_ipv4_mapped() {
            Some(four) => IpAddr::V4(four),
            None => IpAddr::V6((six.to_bits() >> (128 - IPV6_NETWORK) << (128 - IPV6_NETWORK)).into()),
        },
        four => four,
    }
}

const TOO_MANY: ApiError = ApiError::TooMany("Too many wrong codes. Try again in 10 minutes.");

/// Who gave wrong codes, and how often.
#[derive(Debug)]
pub struct WrongCodes {
    pause: Duration,
    by: Mutex<HashMap<IpAddr, Tries>>,
}

#[derive(Debug)]
struct Tries {
    wrong: u32,
    waiting: u32,
    last: Instant,
}

impl WrongCodes {
    /// None yet; the first of an address waits so long.
    #[must_use]
    pub fn new(pause: Duration) -> Self {
        Self { pause, by: Mutex::default() }
    }

    /// Fails where no more is taken from an address.
    pub fn bears(&self, from: IpAddr) -> Result<(), ApiError> {
        let mut by = held(&self.by);
        by.retain(|_, tries| tries.waiting > 0 || tries.last.elapsed() < TURNED_AWAY_FOR);
        match by.get(&from) {
            Some(tries) if tries.wrong >= MOST_WRONG => Err(TOO_MANY),
            _ => Ok(()),
        }
    }

    /// Counts one; it is answered once it has waited.
    ///
    /// Fails where too many of that address wait already.
    pub fn one_more(&self, from: IpAddr) -> Result<Waits<'_>, ApiError> {
        let mut by = held(&self.by);
        if by.len() >= MOST_ADDRESSES && !by.contains_key(&from) {
            return Err(TOO_MANY);
        }
        let tries = by.entry(from).or_insert_with(|| Tries { wrong: 0, waiting: 0, last: Instant::now() });
        tries.wrong += 1;
        tries.last = Instant::now();
        if tries.waiting >= MOST_WAITING {
            return Err(TOO_MANY);
        }
        tries.waiting += 1;
        Ok(Waits { codes: self, from, pause: self.pause * tries.wrong.min(SLOWEST) })
    }
}

/// One who waits for the answer to a wrong code, until this is dropped.
#[derive(Debug)]
pub struct Waits<'a> {
    codes: &'a WrongCodes,
    from: IpAddr,
    pause: Duration,
}

impl Waits<'_> {
    /// So long.
    #[must_use]
    pub fn pause(&self) -> Duration {
        self.pause
    }
}

impl Drop for Waits<'_> {
    fn drop(&mut self) {
        if let Some(tries) = held(&self.codes.by).get_mut(&self.from) {
            tries.waiting -= 1;
        }
    }
}

/// What a lock guards; nobody holds one while something is waited for.
pub(crate) fn held<T>(lock: &Mutex<T>) -> MutexGuard<'_, T> {
    lock.lock().unwrap_or_else(PoisonError::into_inner)
}
