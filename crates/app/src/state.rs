//! What every request can reach.

use std::sync::{Arc, RwLock};

use zymarch_core::catalogue::Catalogue;
use zymarch_store::{Store, StoreError, material, method};

use crate::clock::Clock;
use crate::device::Scale;

/// What every request can reach.
#[derive(Debug, Clone)]
pub struct App {
    /// The farm's records.
    pub store: Store,
    /// The time.
    pub clock: Clock,
    /// Whether this is the demo farm.
    pub demo: bool,
    /// The simulated hanging scale.
    pub scale: Scale,
    catalogue: Arc<RwLock<Arc<Catalogue>>>,
}

impl App {
    /// An application over a store, its materials read once.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn new(store: Store, clock: Clock, demo: bool) -> Result<Self, StoreError> {
        let app = Self { store, clock, demo, scale: Scale::default(), catalogue: Arc::default() };
        app.read_own().await?;
        Ok(app)
    }

    /// The materials and ways of composting, as they are now.
    #[must_use]
    pub fn catalogue(&self) -> Arc<Catalogue> {
        Arc::clone(&self.catalogue.read().expect("no writer panics while it holds this"))
    }

    /// Reads the person's own materials and ways anew, after they were changed.
    ///
    /// # Errors
    /// [`StoreError`].
    pub async fn read_own(&self) -> Result<(), StoreError> {
        let (own, methods) =
            self.store.read(|conn| Ok::<_, StoreError>((material::ever(conn)?, method::ever(conn)?))).await?;
        *self.catalogue.write().expect("no reader panics while it holds this") =
            Arc::new(Catalogue::with_own(own, methods));
        Ok(())
    }
}
