//! One look at a farm, or one change of it: all of it or nothing.

use std::sync::Arc;

use jiff::Timestamp;
use jiff::civil::Date;
use jiff::tz::TimeZone;
use zymarch_core::base::fault::{FaultCode, Faults};
use zymarch_core::catalogue::Catalogue;
use zymarch_core::mix::confidence::KeptDraws;
use zymarch_store::Connection;
use zymarch_store::id::{EntryId, SiteId};
use zymarch_store::log::{self, About, Body, Entry};
use zymarch_store::{Appended, append, append_all, material, method};

use crate::build::heap::HeapListed;
use crate::kept::KeptOfSites;
use crate::plan::batch::BatchListed;
use crate::stock::on_hand::Stock;
use crate::tend::today::{KeptToday, Prepared};
use crate::tend::{KeptCourses, KeptJudgements, KeptSeries};
use crate::who::Who;

/// What a command or a query works in: the records in one view of them, the time,
/// and the materials and methods as they are in that view.
#[derive(Debug)]
pub struct Transaction<'a> {
    /// The records.
    pub(crate) conn: &'a Connection,
    /// The time.
    pub(crate) now: Timestamp,
    /// The day it is at the farm.
    pub(crate) today: Date,
    /// The zone by whose clock days are told.
    pub(crate) zone: TimeZone,
    /// Materials and methods, a person's own among them.
    pub(crate) catalogue: Arc<Catalogue>,
    /// What was reckoned lately.
    pub(crate) kept: Arc<Kept>,
    /// Whether it only looks: what it finds is then so for everybody.
    pub(crate) only_reads: bool,
}

/// What was reckoned lately and holds for as long as nothing of it changes.
#[derive(Debug, Default)]
pub(crate) struct Kept {
    /// What was drawn of the ranges of figures.
    pub(crate) draws: KeptDraws,
    /// The stock of sites.
    pub(crate) stock: KeptOfSites<Stock>,
    /// Their batches.
    pub(crate) batches: KeptOfSites<Vec<BatchListed>>,
    /// Their heaps.
    pub(crate) heaps: KeptOfSites<Vec<HeapListed>>,
    /// What is to be prepared there.
    pub(crate) prepared: KeptOfSites<Prepared>,
    /// What is to be done there.
    pub(crate) today: KeptToday,
    /// The temperatures of heaps.
    pub(crate) series: KeptSeries,
    /// What heaps are expected to do.
    pub(crate) courses: KeptCourses,
    /// What was judged of them.
    pub(crate) judged: KeptJudgements,
}

/// An entry that is to be written down.
pub(crate) struct Writing {
    /// Its id, if the writer gave one.
    pub(crate) id: Option<EntryId>,
    /// The site.
    pub(crate) site: SiteId,
    /// What it is about.
    pub(crate) about: About,
    /// When it happened; if not said, when whoever did it says that they did, and else now.
    pub(crate) at: Option<Timestamp>,
    /// What happened.
    pub(crate) body: Body,
    /// The entry it takes back.
    pub(crate) takes_back: Option<EntryId>,
    /// No sooner than this [ms]: what takes another back comes after it.
    pub(crate) not_before_ms: i64,
    /// Whether it was written down when it happened, elsewhere.
    pub(crate) was_recorded_then: bool,
}

impl Writing {
    /// Something that happens now.
    pub(crate) const fn now(site: SiteId, about: About, body: Body) -> Self {
        Self {
            id: None,
            site,
            about,
            at: None,
            body,
            takes_back: None,
            not_before_ms: i64::MIN,
            was_recorded_then: false,
        }
    }

    /// An entry that takes another back.
    pub(crate) const fn undone(of: &Entry) -> Self {
        Self {
            id: None,
            site: of.site,
            about: of.about,
            at: None,
            body: Body::Undone,
            takes_back: Some(of.id),
            not_before_ms: of.at_ms + 1,
            was_recorded_then: false,
        }
    }
}

impl<'a> Transaction<'a> {
    /// A transaction on a connection, at a time, with nothing kept from before.
    #[must_use]
    pub fn new(conn: &'a Connection, (now, today): (Timestamp, Date), catalogue: Arc<Catalogue>) -> Self {
        let (kept, zone) = (Arc::default(), TimeZone::UTC);
        Self { conn, now, today, zone, catalogue, kept, only_reads: false }
    }

    /// The same, where the clock shows another time.
    #[must_use]
    pub fn in_zone(self, zone: TimeZone) -> Self {
        Self { zone, ..self }
    }

    /// The same with what was reckoned lately; what only reads may add to that.
    pub(crate) fn with(self, kept: Arc<Kept>, only_reads: bool) -> Self {
        Self { kept, only_reads, ..self }
    }

    /// The time.
    #[must_use]
    pub const fn now(&self) -> Timestamp {
        self.now
    }

    /// The day it is at the farm.
    #[must_use]
    pub const fn today(&self) -> Date {
        self.today
    }

    /// Materials and methods, as they are in this view.
    #[must_use]
    pub fn catalogue(&self) -> &Catalogue {
        &self.catalogue
    }

    /// The same, to be held on to: as long as nothing of it changes, it is the same one.
    #[must_use]
    pub fn shared_catalogue(&self) -> Arc<Catalogue> {
        Arc::clone(&self.catalogue)
    }

    /// What was drawn lately, so that it is not drawn again at every tap.
    #[must_use]
    pub fn draws(&self) -> &KeptDraws {
        &self.kept.draws
    }

    /// Reads materials and methods anew, after they were changed in this transaction.
    pub(crate) fn read_catalogue(&mut self) -> Result<(), Faults> {
        self.catalogue = Arc::new(Catalogue::with_own(material::ever(self.conn)?, method::ever(self.conn)?));
        Ok(())
    }

    /// The time, RFC 3339.
    pub(crate) fn now_text(&self) -> String {
        self.now.to_string()
    }

    /// Whether an entry of that id is there already, and is the same: sent again, it is written once.
    ///
    /// # Errors
    /// Something else was written down under that id.
    pub(crate) fn was_sent(
        &self,
        id: Option<EntryId>,
        about: About,
        is_same: impl FnOnce(&Body) -> bool,
    ) -> Result<Option<EntryId>, Faults> {
        let known = id.map(|id| log::get(self.conn, id)).transpose()?.flatten();
        match known {
            None => Ok(None),
            Some(known) if known.about == about && is_same(&known.body) => Ok(Some(known.id)),
            Some(_) => Err(Faults::one("entry", FaultCode::EntryTaken)),
        }
    }

    /// Writes an entry down. What is done happens after all that was done before, whatever a clock says; what
    /// is read or seen happened when it did.
    ///
    /// # Errors
    /// Another entry of that id, or the records.
    pub(crate) fn write(&mut self, who: &Who, of: Writing) -> Result<(EntryId, Appended), Faults> {
        let entry = self.entry(who, of)?;
        Ok((entry.id, append(self.conn, &entry)?))
    }

    /// Writes many entries of one thing down, and brings what stands of it up to date once.
    ///
    /// # Errors
    /// As [`Self::write`].
    pub(crate) fn write_all(&mut self, who: &Who, all: Vec<Writing>) -> Result<(), Faults> {
        let entries = all.into_iter().map(|of| self.entry(who, of)).collect::<Result<Vec<_>, _>>()?;
        Ok(append_all(self.conn, &entries)?)
    }

    fn entry(&self, who: &Who, of: Writing) -> Result<Entry, Faults> {
        let id = of.id.unwrap_or_else(EntryId::fresh);
        let now_ms = self.now.as_millisecond();
        let is_seen = of.body.kind().is_of_tending();
        let last_ms = if is_seen { None } else { log::last_done_to(self.conn, of.about)? };
        let said_ms = of.at.or(who.done_at).map_or(now_ms, |at| at.as_millisecond().min(now_ms));
        let at_ms = last_ms.map_or(said_ms, |last| said_ms.max(last + 1)).max(of.not_before_ms);
        Ok(Entry {
            id,
            site: of.site,
            about: of.about,
            at_ms,
            recorded_ms: if of.was_recorded_then { at_ms } else { now_ms },
            person: who.person.map(|id| id.to_string()).unwrap_or_default(),
            device: who.device.clone(),
            body: of.body,
            takes_back: of.takes_back,
        })
    }
}

/// A time of the log as it is sent: RFC 3339.
pub(crate) fn at_text(ms: i64) -> String {
    Timestamp::from_millisecond(ms).map(|at| at.to_string()).unwrap_or_default()
}
