//! The stock of a site, reckoned, and kept for as long as nothing of it changes.

use std::sync::Arc;

use zymarch_core::base::fault::Faults;
use zymarch_core::mix::Item;
use zymarch_store::id::{LotId, SiteId};
use zymarch_store::{lot, stamp};

use super::Known;
use super::lot::Lot;
use crate::Transaction;

/// The stock of a site: what spoils first on top.
#[derive(Debug)]
pub struct Stock {
    /// The lots, as they are shown.
    pub lots: Vec<Lot>,
    /// The same as items that can be summed.
    pub(crate) items: Vec<Item>,
}

impl Stock {
    /// A lot, and what it comes to.
    pub(crate) fn find(&self, id: LotId) -> Option<(&Lot, &Item)> {
        self.each().find(|(lot, _)| lot.id == id)
    }

    /// Every lot, and what it comes to.
    pub(crate) fn each(&self) -> impl Iterator<Item = (&Lot, &Item)> {
        self.lots.iter().zip(&self.items)
    }
}

/// The stock of a site, reckoned: what spoils first on top. As long as nothing of it changes it is
/// the same one.
///
/// # Errors
/// There is no such site.
pub fn stock(tx: &Transaction<'_>, site: SiteId) -> Result<Arc<Stock>, Faults> {
    let stamps = [stamp::of_stock(tx.conn)?, 0];
    tx.kept.stock.of(tx, stamps, site, || reckoned(tx, site))
}

fn reckoned(tx: &Transaction<'_>, site: SiteId) -> Result<Stock, Faults> {
    let lots = lot::of_site(tx.conn, site)?;
    let known = Known::of_all(tx, site, &lots)?;
    let mut all = lots.into_iter().map(|lot| Lot::new(lot, &known)).collect::<Result<Vec<_>, _>>()?;
    all.sort_by_key(|(lot, _)| lot.days_left.filter(|_| lot.fields.amount > 0.0).unwrap_or(i64::MAX));
    let (lots, items) = all.into_iter().unzip();
    Ok(Stock { lots, items })
}
