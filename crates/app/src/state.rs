//! What every request can reach.

use std::any::Any;
use std::io;
use std::marker::PhantomData;
use std::num::NonZero;
use std::sync::{Arc, Mutex};

use axum::body::Bytes;
use axum::http::header::CONTENT_TYPE;
use axum::response::{IntoResponse, Response};
use serde::Serialize;
use tokio::sync::Semaphore;
use zymarch_core::base::fault::{Fault, FaultCode, Faults};
use zymarch_farm::Farm;
use zymarch_farm::access::Gate;

use crate::device::Scale;
use crate::http::problem::ApiError;
use crate::http::ways::Ways;

/// What every request can reach.
#[derive(Debug, Clone)]
pub struct App {
    /// The farm, behind its gate.
    pub(crate) gate: Gate,
    /// How it is reached, and by what names.
    pub(crate) ways: Ways,
    /// Whether this is the demo farm.
    pub(crate) demo: bool,
    /// The simulated hanging scale.
    pub(crate) scale: Scale,
    /// Answers as they were written last.
    pub(crate) lists: Lists,
    /// Mixes that may be searched for at once: as many as there are cores.
    pub(crate) searches: Arc<Semaphore>,
}

/// Answers as they were written last, each with its name and what it was written from.
#[derive(Debug, Clone, Default)]
pub(crate) struct Lists(Arc<Mutex<Vec<(String, From, Bytes)>>>);

/// What a list was written from: as long as it is the same one, so is the list.
pub(crate) type From = Arc<dyn Any + Send + Sync>;

/// Answers kept at the same time.
const MOST_LISTS: usize = 60;

impl Lists {
    /// What was written of that name, if it was from just this.
    pub(crate) fn again(&self, name: &str, from: &From) -> Option<Bytes> {
        let mut lists = self.0.lock().ok()?;
        let place = lists.iter().position(|(of, was, _)| of == name && Arc::ptr_eq(was, from))?;
        // What is asked for again stays longest.
        let list = lists.remove(place);
        let json = list.2.clone();
        lists.push(list);
        Some(json)
    }

    /// Keeps what was written, in place of what was of that name before.
    pub(crate) fn keep(
        &self,
        name: String,
        from: From,
        written: Result<Bytes, Faults>,
    ) -> Result<Bytes, Faults> {
        let json = written?;
        if let Ok(mut lists) = self.0.lock() {
            lists.retain(|(of, ..)| *of != name);
            if lists.len() >= MOST_LISTS {
                lists.remove(0);
            }
            lists.push((name, from, json.clone()));
        }
        Ok(json)
    }
}

/// What a handler answers.
pub(crate) type Answer<T> = Result<Written<T>, ApiError>;

/// An answer, written out already: a long one is not written on the threads that wait for
/// all requests.
#[derive(Debug)]
pub(crate) struct Written<T> {
    json: Bytes,
    of: PhantomData<fn() -> T>,
}

impl<T> Written<T> {
    /// What was written before.
    pub(crate) const fn again(json: Bytes) -> Self {
        Self { json, of: PhantomData }
    }
}

/// # Errors
/// A defect: an answer that cannot be written.
pub(crate) fn json<T: Serialize>(answer: &T) -> Result<Bytes, Faults> {
    let broken = |error: serde_json::Error| Fault::new(FaultCode::Broken).with("why", error.to_string());
    // What a tap on the bench is answered fills half of it: most answers need no more room asked for.
    let mut json = Json(Vec::with_capacity(32 * 1024));
    serde_json::to_writer(&mut json, answer).map_err(broken)?;
    json.0.shrink_to_fit();
    Ok(json.0.into())
}

/// Where an answer is written. It comes in thousands of pieces of a few letters, most of them one: those
/// are put down where they are made.
struct Json(Vec<u8>);

impl io::Write for Json {
    #[inline]
    fn write_all(&mut self, piece: &[u8]) -> io::Result<()> {
        match piece {
            [letter] => self.0.push(*letter),
            _ => self.0.extend_from_slice(piece),
        }
        Ok(())
    }

    fn write(&mut self, piece: &[u8]) -> io::Result<usize> {
        self.write_all(piece).map(|()| piece.len())
    }

    fn flush(&mut self) -> io::Result<()> {
        Ok(())
    }
}

impl<T> IntoResponse for Written<T> {
    fn into_response(self) -> Response {
        ([(CONTENT_TYPE, "application/json")], self.json).into_response()
    }
}

impl App {
    /// An application over a farm.
    #[must_use]
    pub fn new(farm: Farm, demo: bool, ways: Ways) -> Self {
        let cores = std::thread::available_parallelism().map_or(1, NonZero::get);
        let searches = Arc::new(Semaphore::new(cores));
        let gate = Gate::new(farm);
        Self { gate, demo, ways, scale: Scale::default(), lists: Lists::default(), searches }
    }
}
