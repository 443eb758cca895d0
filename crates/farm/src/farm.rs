//! The records of a farm, open: where every command and every query begins.

use std::any::Any;
use std::pin::Pin;
use std::sync::{Arc, Mutex};

use zymarch_core::base::fault::{Fault, FaultCode, Faults};
use zymarch_core::catalogue::Catalogue;
use zymarch_store::{Connection, Store, StoreError, material, method, stamp};

use crate::clock::Clock;
use crate::transaction::{Kept, Transaction};

/// Materials and methods, and the stamp of the records they were read at.
type Listed = (i64, Arc<Catalogue>);

/// What a query or a command answers, whatever it is. The threads, the pools and the transactions that it
/// goes through are compiled once, and not once for each of a hundred kinds of answers.
type Found = Box<dyn Any + Send>;
type Ask = Box<dyn FnOnce(&Transaction<'_>) -> Result<Found, Faults> + Send>;
type Act = Box<dyn FnOnce(&mut Transaction<'_>) -> Result<Found, Faults> + Send>;
type Done<'a> = Pin<Box<dyn Future<Output = Result<Found, Faults>> + Send + 'a>>;

fn boxed<T: Send + 'static>(found: T) -> Found {
    Box::new(found)
}

fn unboxed<T: 'static>(found: Found) -> Result<T, Faults> {
    let other = |_| Fault::new(FaultCode::Broken).with("why", "another type");
    Ok(*found.downcast::<T>().map_err(other)?)
}

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
        unboxed(self.reads(Box::new(move |tx| ask(tx).map(boxed))).await?)
    }

    /// Does what a command says, all of it or nothing. Once this answers, it is on disk.
    ///
    /// # Errors
    /// What `act` refuses, and then nothing was written; or that the records are busy.
    pub async fn act<T: Send + 'static>(
        &self,
        act: impl FnOnce(&mut Transaction<'_>) -> Result<T, Faults> + Send + 'static,
    ) -> Result<T, Faults> {
        unboxed(self.writes(Box::new(move |tx| act(tx).map(boxed))).await?)
    }

    fn reads(&self, ask: Ask) -> Done<'_> {
        let farm = self.clone();
        Box::pin(self.store.read(move |conn| ask(&farm.transaction(conn, true)?)))
    }

    fn writes(&self, act: Act) -> Done<'_> {
        let farm = self.clone();
        Box::pin(self.store.write(move |conn| act(&mut farm.transaction(conn, false)?)))
    }

    fn transaction<'a>(&self, conn: &'a Connection, only_reads: bool) -> Result<Transaction<'a>, Faults> {
        let kept = Arc::clone(&self.kept);
        let transaction = Transaction::new(conn, self.clock.now(), self.catalogue(conn)?);
        Ok(transaction.with(kept, only_reads).in_zone(self.clock.zone()))
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
