//! What every request can reach.

use std::net::IpAddr;

use std::marker::PhantomData;

use axum::http::header::CONTENT_TYPE;
use axum::response::{IntoResponse, Response};
use serde::Serialize;
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
}

/// What a handler answers.
pub(crate) type Answer<T> = Result<Written<T>, ApiError>;

/// An answer, written out already: a long one is not written on the threads that wait for
/// all requests.
#[derive(Debug)]
pub(crate) struct Written<T> {
    json: Vec<u8>,
    of: PhantomData<fn() -> T>,
}

impl<T: Serialize> Written<T> {
    /// # Errors
    /// A defect: an answer that cannot be written.
    fn new(answer: &T) -> Result<Self, Faults> {
        let broken = |error: serde_json::Error| Fault::new(FaultCode::Broken).with("why", error.to_string());
        Ok(Self { json: serde_json::to_vec(answer).map_err(broken)?, of: PhantomData })
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
    pub fn new(farm: Farm, demo: bool, at: IpAddr) -> Self {
        Self { farm, demo, at, scale: Scale::default() }
    }

    /// The answer to a question about the records.
    pub(crate) async fn ask<T: Serialize + 'static>(
        &self,
        ask: impl FnOnce(&Transaction<'_>) -> Result<T, Faults> + Send + 'static,
    ) -> Answer<T> {
        Ok(self.farm.ask(move |tx| Written::new(&ask(tx)?)).await?)
    }

    /// The outcome of a command.
    pub(crate) async fn act<T: Serialize + 'static>(
        &self,
        act: impl FnOnce(&mut Transaction<'_>) -> Result<T, Faults> + Send + 'static,
    ) -> Answer<T> {
        Ok(self.farm.act(move |tx| Written::new(&act(tx)?)).await?)
    }

    /// The answer to a document that asks nothing of the records but the catalogue.
    pub(crate) async fn reckon<T: Serialize + 'static>(
        &self,
        of: impl FnOnce(&Catalogue) -> Result<T, Faults> + Send + 'static,
    ) -> Answer<T> {
        self.ask(move |tx| of(tx.catalogue())).await
    }
}
