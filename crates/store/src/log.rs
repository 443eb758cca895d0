//! The one log: everything that happened, in entries that are only ever added.
//!
//! An entry bears an id that its writer gave it, so that sending it twice changes
//! nothing; it says what it is about, what happened and when, when it was written
//! down, by whom and on which device, and which entry it takes back, if any. The
//! file itself refuses to change or delete one. What stands is a projection (see
//! [`projection`](crate::projection)), made of these in the order in which they happened.

mod body;
mod finish;

use rusqlite::{Connection, OptionalExtension, Row};
use uuid::Uuid;
use zymarch_core::log::{EntryKind, Subject, standing};

pub use body::{
    Begun, Body, Laid, Moved, Portion, Readings, Set, SortedOut, Step, Taken, Taker, Tending, Tested,
};
pub use finish::{Applied, Found, Harvested, Rejects, Stored};

use crate::error::StoreError;
use crate::id::{BatchId, CompostId, EntryId, GroundId, HeapId, LotId, SiteId, SortedOutId, TestId};
use crate::own;

/// What an entry is about, with its key.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum About {
    /// A lot.
    Lot(LotId),
    /// A test.
    Test(TestId),
    /// A batch.
    Batch(BatchId),
    /// A heap.
    Heap(HeapId),
    /// Something sorted out.
    SortedOut(SortedOutId),
    /// A site itself: its weather.
    Site(SiteId),
    /// Compost that was taken out of a heap.
    Compost(CompostId),
    /// A place that compost goes to.
    Ground(GroundId),
}

impl About {
    /// What kind of thing.
    #[must_use]
    pub const fn subject(self) -> Subject {
        match self {
            Self::Lot(_) => Subject::Lot,
            Self::Test(_) => Subject::Test,
            Self::Batch(_) => Subject::Batch,
            Self::Heap(_) => Subject::Heap,
            Self::SortedOut(_) => Subject::SortedOut,
            Self::Site(_) => Subject::Site,
            Self::Compost(_) => Subject::Compost,
            Self::Ground(_) => Subject::Ground,
        }
    }

    /// Its key.
    #[must_use]
    pub const fn key(self) -> Uuid {
        match self {
            Self::Lot(LotId(id))
            | Self::Test(TestId(id))
            | Self::Batch(BatchId(id))
            | Self::Heap(HeapId(id))
            | Self::SortedOut(SortedOutId(id))
            | Self::Site(SiteId(id))
            | Self::Compost(CompostId(id))
            | Self::Ground(GroundId(id)) => id,
        }
    }

    pub(crate) const fn new(subject: Subject, id: Uuid) -> Self {
        match subject {
            Subject::Lot => Self::Lot(LotId(id)),
            Subject::Test => Self::Test(TestId(id)),
            Subject::Batch => Self::Batch(BatchId(id)),
            Subject::Heap => Self::Heap(HeapId(id)),
            Subject::SortedOut => Self::SortedOut(SortedOutId(id)),
            Subject::Site => Self::Site(SiteId(id)),
            Subject::Compost => Self::Compost(CompostId(id)),
            Subject::Ground => Self::Ground(GroundId(id)),
        }
    }

    pub(crate) fn columns(self) -> (&'static str, String) {
        (self.subject().as_str(), self.key().hyphenated().to_string())
    }
}

/// Something that happened.
#[derive(Debug, Clone, PartialEq)]
pub struct Entry {
    /// Given by whoever wrote it.
    pub id: EntryId,
    /// The farm or plot.
    pub site: SiteId,
    /// What it is about.
    pub about: About,
    /// When it happened, milliseconds since 1970, UTC.
    pub at_ms: i64,
    /// When it was written down here.
    pub recorded_ms: i64,
    /// By whom.
    pub person: String,
    /// On which device.
    pub device: String,
    /// What happened.
    pub body: Body,
    /// The entry it takes back, if any.
    pub takes_back: Option<EntryId>,
}

impl Entry {
    /// What happened, as a word.
    #[must_use]
    pub const fn kind(&self) -> EntryKind {
        self.body.kind()
    }

    /// Its place in the order in which things happened.
    #[must_use]
    pub const fn order(&self) -> (i64, EntryId) {
        (self.at_ms, self.id)
    }
}

const COLUMNS: &str =
    "id, site_id, subject, subject_id, kind, at_ms, recorded_ms, person, device, body, takes_back";

/// One entry; none if there is none of that id.
///
/// # Errors
/// [`StoreError::Sqlite`], [`StoreError::Unreadable`].
pub fn get(conn: &Connection, id: EntryId) -> Result<Option<Entry>, StoreError> {
    let sql = format!("SELECT {COLUMNS} FROM entry WHERE id = ?1");
    conn.prepare_cached(&sql)?.query_row([id], |row| Ok(from_row(row))).optional()?.transpose()
}

/// When something was last done to a subject [ms]; none if nothing was. What was only read or seen may lie
/// anywhere between.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn last_done_to(conn: &Connection, about: About) -> Result<Option<i64>, StoreError> {
    let (subject, id) = about.columns();
    let sql = "SELECT kind, at_ms FROM entry WHERE subject = ?1 AND subject_id = ?2 ORDER BY at_ms DESC";
    let mut statement = conn.prepare_cached(sql)?;
    let mut rows = statement.query([subject, id.as_str()])?;
    while let Some(row) = rows.next()? {
        if !own::word(row, "kind", EntryKind::parse)?.is_of_tending() {
            return Ok(Some(row.get("at_ms")?));
        }
    }
    Ok(None)
}

/// The entries that take one back.
///
/// # Errors
/// [`StoreError::Sqlite`], [`StoreError::Unreadable`].
pub fn taking_back(conn: &Connection, entry: EntryId) -> Result<Vec<Entry>, StoreError> {
    let sql = format!("SELECT {COLUMNS} FROM entry WHERE takes_back = ?1 ORDER BY at_ms, id");
    let mut statement = conn.prepare_cached(&sql)?;
    let rows = statement.query_map([entry], |row| Ok(from_row(row)))?;
    rows.map(|row| row?).collect()
}

/// All that happened to something, in the order in which it happened.
///
/// # Errors
/// [`StoreError::Sqlite`], [`StoreError::Unreadable`].
pub fn of(conn: &Connection, about: About) -> Result<Vec<Entry>, StoreError> {
    let (subject, id) = about.columns();
    let sql =
        format!("SELECT {COLUMNS} FROM entry WHERE subject = ?1 AND subject_id = ?2 ORDER BY at_ms, id");
    let mut statement = conn.prepare_cached(&sql)?;
    let rows = statement.query_map([subject, id.as_str()], |row| Ok(from_row(row)))?;
    rows.map(|row| row?).collect()
}

/// What was done to something, in the order in which it happened, without what was only read or seen: of a
/// heap that stood for a season that is hundreds of entries less.
///
/// # Errors
/// [`StoreError::Sqlite`], [`StoreError::Unreadable`].
pub fn done_to(conn: &Connection, about: About) -> Result<Vec<Entry>, StoreError> {
    let (subject, id) = about.columns();
    let kinds: Vec<String> = EntryKind::ALL
        .iter()
        .filter(|kind| !kind.is_of_tending())
        .map(|kind| format!("'{}'", kind.as_str()))
        .collect();
    let sql = format!(
        "SELECT {COLUMNS} FROM entry WHERE subject = ?1 AND subject_id = ?2 AND kind IN ({}) ORDER BY at_ms, id",
        kinds.join(", ")
    );
    let mut statement = conn.prepare_cached(&sql)?;
    let rows = statement.query_map([subject, id.as_str()], |row| Ok(from_row(row)))?;
    rows.map(|row| row?).collect()
}

/// How many entries there are of something: grows with each.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn count(conn: &Connection, about: About) -> Result<i64, StoreError> {
    let (subject, id) = about.columns();
    let sql = "SELECT count(*) FROM entry WHERE subject = ?1 AND subject_id = ?2";
    Ok(conn.prepare_cached(sql)?.query_row([subject, id.as_str()], |row| row.get(0))?)
}

/// What happened to something at one time, taken back or not.
///
/// # Errors
/// [`StoreError::Sqlite`], [`StoreError::Unreadable`].
pub fn at(conn: &Connection, about: About, at_ms: i64) -> Result<Vec<Entry>, StoreError> {
    let (subject, id) = about.columns();
    let sql = format!(
        "SELECT {COLUMNS} FROM entry WHERE subject = ?1 AND subject_id = ?2 AND at_ms = ?3 ORDER BY id"
    );
    let mut statement = conn.prepare_cached(&sql)?;
    let rows = statement.query_map((subject, id.as_str(), at_ms), |row| Ok(from_row(row)))?;
    rows.map(|row| row?).collect()
}

/// Of entries in order, those that no other takes back.
#[must_use]
pub fn those_that_stand(entries: Vec<Entry>) -> Vec<Entry> {
    let links: Vec<_> = entries.iter().map(|entry| (entry.id, entry.takes_back)).collect();
    let stands = standing(&links);
    entries.into_iter().zip(stands).filter(|(_, stands)| *stands).map(|(entry, _)| entry).collect()
}

/// The entry that took a record off its list, if one did and stands.
///
/// # Errors
/// [`StoreError::NotFound`] if there never was one.
pub fn removal(conn: &Connection, about: About, kind: &'static str) -> Result<Option<Entry>, StoreError> {
    let entries = of(conn, about)?;
    if entries.is_empty() {
        return Err(StoreError::NotFound { kind });
    }
    Ok(those_that_stand(entries).into_iter().rev().find(|entry| entry.body == Body::Removed))
}

/// What a batch or heap took from each lot and gave back, and still stands.
///
/// # Errors
/// [`StoreError::Sqlite`], [`StoreError::Unreadable`].
pub fn taken_by(conn: &Connection, taker: Taker) -> Result<Vec<(LotId, Taken)>, StoreError> {
    let lots: Vec<LotId> = {
        let mut statement = conn.prepare_cached(
            "SELECT DISTINCT subject_id FROM entry
             WHERE subject = 'lot' AND kind = 'taken' AND json_extract(body, '$.by.id') = ?1
             ORDER BY subject_id",
        )?;
        let rows = statement.query_map([taker.key().hyphenated().to_string()], |row| row.get(0))?;
        rows.collect::<Result<_, _>>()?
    };
    let mut taken = Vec::new();
    for lot in lots {
        let entries = those_that_stand(of(conn, About::Lot(lot))?);
        taken.extend(entries.into_iter().filter_map(|entry| match entry.body {
            Body::Taken(of) if of.by == taker => Some((lot, of)),
            _ => None,
        }));
    }
    Ok(taken)
}

fn from_row(row: &Row<'_>) -> Result<Entry, StoreError> {
    let kind = own::word(row, "kind", EntryKind::parse)?;
    let subject = own::word(row, "subject", Subject::parse)?;
    let key: EntryId = row.get("subject_id")?;
    let body: String = row.get("body")?;
    Ok(Entry {
        id: row.get("id")?,
        site: row.get("site_id")?,
        about: About::new(subject, key.0),
        at_ms: row.get("at_ms")?,
        recorded_ms: row.get("recorded_ms")?,
        person: row.get("person")?,
        device: row.get("device")?,
        body: Body::from_json(kind, &body)?,
        takes_back: row.get("takes_back")?,
    })
}
