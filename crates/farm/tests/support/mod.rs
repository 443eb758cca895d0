//! The demo farm in memory, with commands done to it as a person would.
#![allow(dead_code)]

use std::sync::Arc;

use jiff::Timestamp;
use zymarch_core::base::fault::{FaultCode, Faults};
use zymarch_core::catalogue::Catalogue;
use zymarch_farm::build::built::{BuiltRequest, built};
use zymarch_farm::plan::batch;
use zymarch_farm::stock::{lot, on_hand, site};
use zymarch_farm::{Transaction, Who, load};
use zymarch_store::id::{BatchId, HeapId, LotId, SiteId};
use zymarch_store::projection::{Checked, check};
use zymarch_store::{Connection, material, method, up_to_date};

/// The path and code of the first thing that was refused.
pub fn refused<T: std::fmt::Debug>(answer: Result<T, Faults>) -> (String, FaultCode) {
    let fault = answer.expect_err("refused").0.remove(0);
    (fault.path.to_string(), fault.code)
}

/// A farm in memory.
pub struct Place {
    pub conn: Connection,
    /// Minutes since the farm was begun.
    pub minutes: i64,
}

const BEGUN: &str = "2026-03-14T08:00:00Z";

impl Place {
    pub fn demo() -> Self {
        let mut conn = Connection::open_in_memory().expect("opens");
        up_to_date(&mut conn).expect("migrates");
        let folder = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/");
        let file = |name: &str| std::fs::read(format!("{folder}{name}"));
        let farm = zymarch_formats::farm::read(file).expect("is sound");
        let mut place = Self { conn, minutes: 0 };
        place.act(|tx, who| load::first(tx, who, farm)).expect("loads");
        place
    }

    pub fn now(&self) -> Timestamp {
        let begun: Timestamp = BEGUN.parse().expect("a time");
        begun + jiff::Span::new().minutes(self.minutes)
    }

    /// One transaction: kept if it is answered, gone if it is refused.
    pub fn act<T, E>(
        &mut self,
        act: impl FnOnce(&mut Transaction<'_>, &Who) -> Result<T, E>,
    ) -> Result<T, E> {
        self.minutes += 1;
        let now = self.now();
        self.conn.execute_batch("SAVEPOINT act").expect("begins");
        let own = (material::ever(&self.conn), method::ever(&self.conn));
        let catalogue = Catalogue::with_own(own.0.expect("reads"), own.1.expect("reads"));
        let today = now.to_zoned(jiff::tz::TimeZone::UTC).date();
        let mut tx = Transaction::new(&self.conn, (now, today), Arc::new(catalogue));
        let done = act(&mut tx, &Who::local("tests"));
        let end = if done.is_ok() { "RELEASE act" } else { "ROLLBACK TO act; RELEASE act" };
        self.conn.execute_batch(end).expect("ends");
        done
    }

    pub fn site(&mut self) -> SiteId {
        self.act(|tx, _| site::list(tx)).expect("reads")[0].id
    }

    pub fn batch(&mut self, name: &str) -> BatchId {
        let site = self.site();
        let batches = self.act(|tx, _| batch::list(tx, site)).expect("reads");
        batches.iter().find(|listed| listed.batch.fields.name == name).expect("is there").batch.id
    }

    /// A heap of a batch that was built so many days ago; the log is empty since.
    pub fn built(&mut self, name: &str, days: i64) -> HeapId {
        let batch = self.batch(name);
        let at = self.now() - jiff::Span::new().hours(24 * days);
        self.act(|tx, who| built(tx, who, (batch, None, BuiltRequest { at }))).expect("is written down")
    }

    pub fn lots(&mut self) -> Vec<lot::Lot> {
        let site = self.site();
        self.act(|tx, _| on_hand::stock(tx, site)).expect("reads").lots.clone()
    }

    pub fn amount(&mut self, id: LotId) -> f64 {
        self.lots().iter().find(|lot| lot.id == id).expect("is there").fields.amount
    }

    /// What stands, made anew from the log in a copy.
    pub fn checked(&self) -> Checked {
        self.conn.execute_batch("SAVEPOINT anew").expect("begins");
        let checked = check(&self.conn).expect("reads");
        self.conn.execute_batch("ROLLBACK TO anew; RELEASE anew").expect("ends");
        checked
    }
}
