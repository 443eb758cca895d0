//! The records of a farm, open: where every command and every query begins.

use std::sync::{Arc, Mutex};

use zymarch_core::base::fault::Faults;
use zymarch_core::catalogue::Catalogue;
use zymarch_store::{Connection, Store, StoreError, material, method, stamp};

use crate::clock::Clock;
use crate::transaction::{Kept, Transaction};

/// Materials and methods, and the stamp of the records they were read at.
type Listed = (i64, Arc<Catalogue>);

/// The records of a farm, open.
#[derive(Debug, Clone)]
pub struct Farm {
    store: Store,
    clock: Clock,
    listed: Arc<Mutex<Option<Listed>>>,
    kept: Arc<Kept>,
}

impl Farm {
    /// A farm over a store.
    #[must_use]
    pub fn new(store: Store, clock: Clock) -> Self {
        Self { store, clock, listed: Arc::default(), kept: Arc::default() }
    }

    /// The time.
    #[must_use]
    pub const fn clock(&self) -> Clock {
        self.clock
    }

    /// Answers a query, in one view of the records that no writer changes meanwhile.
    ///
    /// # Errors
    /// What `ask` refuses, or that the records cannot be read.
    pub async fn ask<T: Send + 'static>(
        &self,
        ask: impl FnOnce(&Transaction<'_>) -> Result<T, Faults> + Send + 'static,
    ) -> Result<T, Faults> {
        let farm = self.clone();
        self.store.read(move |conn| ask(&farm.transaction(conn, true)?)).await
    }

    /// Does what a command says, all of it or nothing. Once this answers, it is on disk.
    ///
    /// # Errors
    /// What `act` refuses, and then nothing was written; or that the records are busy.
    pub async fn act<T: Send + 'static>(
        &self,
        act: impl FnOnce(&mut Transaction<'_>) -> Result<T, Faults> + Send + 'static,
    ) -> Result<T, Faults> {
        let farm = self.clone();
        self.store.write(move |conn| act(&mut farm.transaction(conn, false)?)).await
    }

    fn transaction<'a>(&self, conn: &'a Connection, only_reads: bool) -> Result<Transaction<'a>, Faults> {
        let kept = Arc::clone(&self.kept);
        let transaction = Transaction::new(conn, self.clock.now(), self.catalogue(conn)?);
        Ok(transaction.with(kept, only_reads))
    }

    /// The catalogue of this view of the records: read anew only when its stamp has moved.
    fn catalogue(&self, conn: &Connection) -> Result<Arc<Catalogue>, StoreError> {
        let stamp = stamp::of_catalogue(conn)?;
        if let Ok(kept) = self.listed.lock()
            && let Some((at, catalogue)) = kept.as_ref()
            && *at == stamp
        {
            return Ok(Arc::clone(catalogue));
        }
        let read = Arc::new(Catalogue::with_own(material::ever(conn)?, method::ever(conn)?));
        if let Ok(mut kept) = self.listed.lock() {
            *kept = Some((stamp, Arc::clone(&read)));
        }
        Ok(read)
    }
}
