//! Searches for layouts: on threads of their own, few at a time, stopped when nobody listens any more.

use crate::heavy::{Heavy, Turn, apart};
use crate::problem::ApiError;
use ready_slab_core::error::InputErrors;
use ready_slab_core::shape::{NestQuestion, Nested, Nester};
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use std::time::{Duration, Instant};
use tokio::sync::{mpsc, watch};

/// What a search says.
#[derive(Debug)]
pub enum Said {
    /// A better layout.
    Better(Box<Nested>),
    /// One of its threads has come to an end: whether nothing more could be won.
    Ended {
        /// Else its time was up or it was stopped.
        exhausted: bool,
    },
}

/// Lets searches run.
#[derive(Clone)]
pub struct Searches {
    heavy: Heavy,
    closing: watch::Receiver<bool>,
}

/// A search that is running; it stops when this is dropped.
pub struct Search {
    /// The layout to begin with.
    pub first: Nested,
    /// When it began.
    pub began: Instant,
    /// How many of its threads still search.
    pub running: usize,
    /// Set once the server is about to stop.
    pub closing: watch::Receiver<bool>,
    heard: mpsc::UnboundedReceiver<Said>,
    stop: Arc<AtomicBool>,
    _turn: Arc<Turn>,
}

impl Drop for Search {
    fn drop(&mut self) {
        self.stop.store(true, Ordering::Relaxed);
    }
}

impl Search {
    /// What it says next.
    pub async fn next(&mut self) -> Option<Said> {
        self.heard.recv().await
    }
}

impl Searches {
    /// Searches end when `closing` says so.
    pub fn new(closing: watch::Receiver<bool>, heavy: Heavy) -> Self {
        Self { heavy, closing }
    }

    /// Begins a search of at most so many seconds.
    ///
    /// Fails when the question cannot be laid out, and when as many searches as the machine bears go on for longer than
    /// one is willing to wait.
    pub async fn begin(&self, question: NestQuestion, seconds: f64, seed: u32) -> Result<Search, ApiError> {
        let turn = Arc::new(self.heavy.turn().await?);
        let began = Instant::now();
        let until = began + Duration::from_secs_f64(seconds);
        let seeds = [u64::from(seed) * 2, u64::from(seed) * 2 + 1];
        let nesters = actix_web::web::block(move || {
            let first = Nester::new(question, seeds[0])?;
            let other = first.with_seed(seeds[1]);
            Ok::<_, InputErrors>([first, other])
        })
        .await??;
        let first = nesters[0].best().clone();
        let stop = Arc::new(AtomicBool::new(false));
        let (tell, heard) = mpsc::unbounded_channel();
        let running = nesters.len();
        for mut nester in nesters {
            let (tell, stop, turn) = (tell.clone(), stop.clone(), turn.clone());
            apart(move || {
                // Its turn ends with its last thread, also where nobody listens any more.
                let _turn = turn;
                let over = || stop.load(Ordering::Relaxed) || Instant::now() >= until;
                // Nobody may be listening any more; then `stop` is set as well.
                nester.improve(&|_| over(), &mut |nested| drop(tell.send(Said::Better(Box::new(nested.clone())))));
                drop(tell.send(Said::Ended { exhausted: !over() }));
            });
        }
        Ok(Search { first, began, running, closing: self.closing.clone(), heard, stop, _turn: turn })
    }
}
