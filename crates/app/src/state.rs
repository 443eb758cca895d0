//! What every request can reach.

use axum::Json;
use zymarch_core::base::fault::Faults;
use zymarch_core::catalogue::Catalogue;
use zymarch_farm::{Farm, Transaction};

use crate::device::Scale;
use crate::http::problem::ApiError;

/// What every request can reach.
#[derive(Debug, Clone)]
pub struct App {
    /// The farm.
    pub farm: Farm,
    /// Whether this is the demo farm.
    pub demo: bool,
    /// The simulated hanging scale.
    pub scale: Scale,
}

/// What a handler answers.
pub(crate) type Answer<T> = Result<Json<T>, ApiError>;

impl App {
    /// An application over a farm.
    #[must_use]
    pub fn new(farm: Farm, demo: bool) -> Self {
        Self { farm, demo, scale: Scale::default() }
    }

    /// The answer to a question about the records.
    pub(crate) async fn ask<T: Send + 'static>(
        &self,
        ask: impl FnOnce(&Transaction<'_>) -> Result<T, Faults> + Send + 'static,
    ) -> Answer<T> {
        Ok(Json(self.farm.ask(ask).await?))
    }

    /// The outcome of a command.
    pub(crate) async fn act<T: Send + 'static>(
        &self,
        act: impl FnOnce(&mut Transaction<'_>) -> Result<T, Faults> + Send + 'static,
    ) -> Answer<T> {
        Ok(Json(self.farm.act(act).await?))
    }

    /// The answer to a document that asks nothing of the records but the catalogue.
    pub(crate) async fn reckon<T: Send + 'static>(
        &self,
        of: impl FnOnce(&Catalogue) -> Result<T, Faults> + Send + 'static,
    ) -> Answer<T> {
        self.ask(move |tx| of(tx.catalogue())).await
    }
}
