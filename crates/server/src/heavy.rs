//! Work that takes long: little of it at a time, each on a thread that lets others go first, so that a plan or a press is answered as if it were quiet.
//! Whoever comes first has his turn first; nobody waits for ever.

use crate::problem::ApiError;
use std::sync::Arc;
use std::sync::atomic::{AtomicUsize, Ordering};
use std::time::Duration;
use tokio::sync::{OwnedSemaphorePermit, Semaphore, oneshot};

/// So much at a time at least; where the machine has more cores, as many as those. A search or the levers run on two threads each. Our own choice.
const LEAST_AT_A_TIME: usize = 2;
/// So many wait for their turn; more are refused at once.
const MOST_WAITING: usize = 12;
/// So long each waits.
const WAITS: Duration = Duration::from_secs(10);
/// How far it stands back (setpriority(2): 0 is usual, 19 the furthest).
const STANDS_BACK: i32 = 5;

/// Gives turns. Clones share them.
#[derive(Clone)]
pub struct Heavy {
    free: Arc<Semaphore>,
    waiting: Arc<AtomicUsize>,
}

/// The right to compute; it ends when this is dropped.
#[derive(Debug)]
pub struct Turn(#[expect(dead_code, reason = "it is held")] OwnedSemaphorePermit);

impl Default for Heavy {
    fn default() -> Self {
        Self::new(std::thread::available_parallelism().map_or(0, usize::from).max(LEAST_AT_A_TIME))
    }
}

/// One who waits, counted until he does no more, also where he has gone away.
struct Waits(Arc<AtomicUsize>);

impl Drop for Waits {
    fn drop(&mut self) {
        self.0.fetch_sub(1, Ordering::Relaxed);
    }
}

const BUSY: ApiError = ApiError::Busy("This machine is busy calculating. Try again in a moment.");

impl Heavy {
    /// Gives so many turns at a time.
    #[must_use]
    pub fn new(at_a_time: usize) -> Self {
        Self { free: Arc::new(Semaphore::new(at_a_time)), waiting: Arc::default() }
    }

    /// Waits for a turn.
    ///
    /// Fails where too many wait, and after a while.
    pub async fn turn(&self) -> Result<Turn, ApiError> {
        if let Ok(permit) = self.free.clone().try_acquire_owned() {
            return Ok(Turn(permit));
        }
        let before = self.waiting.fetch_add(1, Ordering::Relaxed);
        let _waits = Waits(self.waiting.clone());
        if before >= MOST_WAITING {
            return Err(BUSY);
        }
        match tokio::time::timeout(WAITS, self.free.clone().acquire_owned()).await {
            Ok(Ok(permit)) => Ok(Turn(permit)),
            _ => Err(BUSY),
        }
    }

    /// Computes something when its turn has come. Whoever goes away while he waits takes no turn.
    pub async fn run<T: Send + 'static>(&self, work: impl FnOnce() -> T + Send + 'static) -> Result<T, ApiError> {
        let turn = self.turn().await?;
        let (tell, told) = oneshot::channel();
        apart(move || {
            // Nobody may be listening any more.
            let _ = tell.send(work());
            drop(turn);
        });
        told.await.map_err(|_| ApiError::Broken)
    }
}

/// On a thread of its own that lets others go first.
pub fn apart(work: impl FnOnce() + Send + 'static) {
    std::thread::spawn(move || {
        // Of this thread alone. Where it cannot be, it is as quick as the others.
        if let Err(error) = rustix::process::setpriority_process(None, STANDS_BACK) {
            tracing::debug!(%error, "a computation does not stand back");
        }
        work();
    });
}
