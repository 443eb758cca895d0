//! What was reckoned of a site and holds for as long as nothing of it changes.

use std::sync::{Arc, Mutex};

use jiff::civil::Date;
use zymarch_core::base::fault::Faults;
use zymarch_core::catalogue::Catalogue;
use zymarch_store::id::SiteId;

use crate::Transaction;

/// Sites of which the same thing is kept at the same time.
const MOST_SITES: usize = 40;

/// One thing of each site, as it was reckoned last.
#[derive(Debug)]
pub(crate) struct KeptOfSites<T>(Mutex<Option<Seen<T>>>);

impl<T> Default for KeptOfSites<T> {
    fn default() -> Self {
        Self(Mutex::new(None))
    }
}

/// What was kept, and of which state of the records, which materials and which day.
#[derive(Debug)]
struct Seen<T> {
    stamps: [i64; 2],
    catalogue: Arc<Catalogue>,
    today: Date,
    sites: Vec<(SiteId, Arc<T>)>,
}

impl<T> Seen<T> {
    fn is_of(&self, stamps: [i64; 2], tx: &Transaction<'_>) -> bool {
        self.stamps == stamps && self.today == tx.today && Arc::ptr_eq(&self.catalogue, &tx.catalogue)
    }
}

impl<T> KeptOfSites<T> {
    /// That of a site: as long as the records that it leans on, by their [stamps](zymarch_store::stamp), the
    /// materials and the day are the same it is the same one.
    ///
    /// # Errors
    /// What it cannot be reckoned for.
    pub(crate) fn of(
        &self,
        tx: &Transaction<'_>,
        stamps: [i64; 2],
        site: SiteId,
        reckoned: impl FnOnce() -> Result<T, Faults>,
    ) -> Result<Arc<T>, Faults> {
        if let Ok(kept) = self.0.lock()
            && let Some(seen) = kept.as_ref().filter(|seen| seen.is_of(stamps, tx))
            && let Some((_, one)) = seen.sites.iter().find(|(id, _)| *id == site)
        {
            return Ok(Arc::clone(one));
        }
        let one = Arc::new(reckoned()?);
        // What a command has changed may yet come to nothing, and its stamp be another's then.
        if tx.only_reads
            && let Ok(mut kept) = self.0.lock()
        {
            if kept.as_ref().is_none_or(|seen| !seen.is_of(stamps, tx)) {
                let (catalogue, today) = (tx.shared_catalogue(), tx.today);
                *kept = Some(Seen { stamps, catalogue, today, sites: Vec::new() });
            }
            if let Some(seen) = kept.as_mut().filter(|seen| seen.sites.len() < MOST_SITES) {
                seen.sites.push((site, Arc::clone(&one)));
            }
        }
        Ok(one)
    }
}
