//! The stock of a site, reckoned, and kept for as long as nothing of it changes.

use std::sync::{Arc, Mutex};

use jiff::civil::Date;
use zymarch_core::base::fault::Faults;
use zymarch_core::catalogue::Catalogue;
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

/// The stock of sites as it was reckoned last.
#[derive(Debug, Default)]
pub(crate) struct KeptStock(Mutex<Option<Seen>>);

/// What was kept, and of which state of the records, which materials and which day.
#[derive(Debug)]
struct Seen {
    stamp: i64,
    catalogue: Arc<Catalogue>,
    today: Date,
    sites: Vec<(SiteId, Arc<Stock>)>,
}

impl Seen {
    fn is_of(&self, stamp: i64, tx: &Transaction<'_>) -> bool {
        self.stamp == stamp && self.today == tx.today && Arc::ptr_eq(&self.catalogue, &tx.catalogue)
    }
}

/// Sites whose stock is kept at the same time.
const MOST_SITES: usize = 40;

/// The stock of a site, reckoned: what spoils first on top. As long as nothing of it changes it is
/// the same one.
///
/// # Errors
/// There is no such site.
pub fn stock(tx: &Transaction<'_>, site: SiteId) -> Result<Arc<Stock>, Faults> {
    let stamp = stamp::of_stock(tx.conn)?;
    if let Ok(kept) = tx.kept.stock.0.lock()
        && let Some(seen) = kept.as_ref().filter(|seen| seen.is_of(stamp, tx))
        && let Some((_, stock)) = seen.sites.iter().find(|(id, _)| *id == site)
    {
        return Ok(Arc::clone(stock));
    }
    let stock = Arc::new(reckoned(tx, site)?);
    // What a command has changed may yet come to nothing, and its stamp be another's then.
    if tx.only_reads
        && let Ok(mut kept) = tx.kept.stock.0.lock()
    {
        if kept.as_ref().is_none_or(|seen| !seen.is_of(stamp, tx)) {
            let (catalogue, today) = (tx.shared_catalogue(), tx.today);
            *kept = Some(Seen { stamp, catalogue, today, sites: Vec::new() });
        }
        if let Some(seen) = kept.as_mut().filter(|seen| seen.sites.len() < MOST_SITES) {
            seen.sites.push((site, Arc::clone(&stock)));
        }
    }
    Ok(stock)
}

fn reckoned(tx: &Transaction<'_>, site: SiteId) -> Result<Stock, Faults> {
    let lots = lot::of_site(tx.conn, site)?;
    let known = Known::of_all(tx, site, &lots)?;
    let mut all = lots.into_iter().map(|lot| Lot::new(lot, &known)).collect::<Result<Vec<_>, _>>()?;
    all.sort_by_key(|(lot, _)| lot.days_left.filter(|_| lot.fields.amount > 0.0).unwrap_or(i64::MAX));
    let (lots, items) = all.into_iter().unzip();
    Ok(Stock { lots, items })
}
