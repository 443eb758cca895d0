//! What every request can reach.

use std::any::Any;
use std::marker::PhantomData;
use std::net::IpAddr;
use std::num::NonZero;
use std::sync::{Arc, Mutex};

use axum::body::Bytes;
use axum::http::header::CONTENT_TYPE;
use axum::response::{IntoResponse, Response};
use serde::Serialize;
use tokio::sync::{Semaphore, SemaphorePermit};
use zymarch_core::base::fault::{Fault, FaultCode, Faults};
use zymarch_core::catalogue::Catalogue;
use zymarch_farm::{Farm, Transaction};

use crate::device::Scale;
use crate::http::problem::ApiError;

/// What every request can reach.
#[derive(Debug, Clone)]
pub struct App {
    /// The farm.
    pub farm: Farm,
    /// The address it listens on, which is its own name.
    pub at: IpAddr,
    /// Whether this is the demo farm.
    pub demo: bool,
    /// The simulated hanging scale.
    pub scale: Scale,
    /// Lists as they were written last.
    lists: Lists,
    /// Mixes that may be searched for at once: as many as there are cores.
    searches: Arc<Semaphore>,
}

/// Lists as they were written last, each with its name and what it was written from.
#[derive(Debug, Clone, Default)]
struct Lists(Arc<Mutex<Vec<(String, From, Bytes)>>>);

/// What a list was written from: as long as it is the same one, so is the list.
type From = Arc<dyn Any + Send + Sync>;

/// Lists kept at the same time.
const MOST_LISTS: usize = 40;

impl Lists {
    /// What was written of that name, if it was from just this.
    fn again(&self, name: &str, from: &From) -> Option<Bytes> {
        let lists = self.0.lock().ok()?;
        let (.., json) = lists.iter().find(|(of, was, _)| of == name && Arc::ptr_eq(was, from))?;
        Some(json.clone())
    }

    /// Keeps what was written, in place of what was of that name before.
    fn keep(&self, name: String, from: From, written: Result<Bytes, Faults>) -> Result<Bytes, Faults> {
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
    const fn again(json: Bytes) -> Self {
        Self { json, of: PhantomData }
    }
}

/// A question or a command, and its answer written out.
type Asked = Box<dyn FnOnce(&Transaction<'_>) -> Result<Bytes, Faults> + Send>;
type Done = Box<dyn FnOnce(&mut Transaction<'_>) -> Result<Bytes, Faults> + Send>;

/// # Errors
/// A defect: an answer that cannot be written.
fn json<T: Serialize>(answer: &T) -> Result<Bytes, Faults> {
    let broken = |error: serde_json::Error| Fault::new(FaultCode::Broken).with("why", error.to_string());
    Ok(serde_json::to_vec(answer).map_err(broken)?.into())
}

impl<T> IntoResponse for Written<T> {
    fn into_response(self) -> Response {
        ([(CONTENT_TYPE, "application/json")], self.json).into_response()
    }
}

impl App {
    /// An application over a farm.
    #[must_use]
    pub fn new(farm: Farm, demo: bool, at: IpAddr) -> Self {
        let cores = std::thread::available_parallelism().map_or(1, NonZero::get);
        let searches = Arc::new(Semaphore::new(cores));
        Self { farm, demo, at, scale: Scale::default(), lists: Lists::default(), searches }
    }

    /// The answer to a question about the records.
    pub(crate) async fn ask<T: Serialize + 'static>(
        &self,
        ask: impl FnOnce(&Transaction<'_>) -> Result<T, Faults> + Send + 'static,
    ) -> Answer<T> {
        self.written(Box::new(move |tx| json(&ask(tx)?))).await
    }

    /// Whatever is asked, it comes here as one kind of question, so that the way from here is compiled once.
    async fn written<T>(&self, ask: Asked) -> Answer<T> {
        Ok(Written::again(self.farm.ask(ask).await?))
    }

    /// The answer to a question that takes long: so many at once, and the rest waits its turn
    /// without holding up what is quick.
    pub(crate) async fn search<T: Serialize + 'static>(
        &self,
        ask: impl FnOnce(&Transaction<'_>) -> Result<T, Faults> + Send + 'static,
    ) -> Answer<T> {
        let _turn = self.turn().await;
        self.ask(ask).await
    }

    /// A turn to do what takes long, for as long as it is held.
    pub(crate) async fn turn(&self) -> Option<SemaphorePermit<'_>> {
        self.searches.acquire().await.ok()
    }

    /// The outcome of a command.
    pub(crate) async fn act<T: Serialize + 'static>(
        &self,
        act: impl FnOnce(&mut Transaction<'_>) -> Result<T, Faults> + Send + 'static,
    ) -> Answer<T> {
        let act: Done = Box::new(move |tx| json(&act(tx)?));
        Ok(Written::again(self.farm.act(act).await?))
    }

    /// A list that hangs on the catalogue alone: written once for as long as nothing of it changes.
    pub(crate) async fn list_once<T: Serialize + 'static>(
        &self,
        name: &'static str,
        list: impl FnOnce(&Transaction<'_>) -> Result<T, Faults> + Send + 'static,
    ) -> Answer<T> {
        let lists = self.lists.clone();
        let answer = move |tx: &Transaction<'_>| {
            let from: From = tx.shared_catalogue();
            lists.again(name, &from).map_or_else(|| lists.keep(name.into(), from, json(&list(tx)?)), Ok)
        };
        self.written(Box::new(answer)).await
    }

    /// What something that is kept is written as: written once for as long as it is the same one.
    pub(crate) async fn kept<T: Serialize + 'static, K: Send + Sync + 'static>(
        &self,
        name: String,
        of: impl FnOnce(&Transaction<'_>) -> Result<Arc<K>, Faults> + Send + 'static,
        shown: impl FnOnce(&K) -> &T + Send + 'static,
    ) -> Answer<T> {
        let lists = self.lists.clone();
        let answer = move |tx: &Transaction<'_>| {
            let kept = of(tx)?;
            let from: From = kept.clone();
            lists.again(&name, &from).map_or_else(|| lists.keep(name, from, json(shown(&kept))), Ok)
        };
        self.written(Box::new(answer)).await
    }

    /// The answer to a document that asks nothing of the records but the catalogue.
    pub(crate) async fn reckon<T: Serialize + 'static>(
        &self,
        of: impl FnOnce(&Catalogue) -> Result<T, Faults> + Send + 'static,
    ) -> Answer<T> {
        self.ask(move |tx| of(tx.catalogue())).await
    }
}
