//! Which site something is of, whether it is still there or not.

use rusqlite::{Connection, OptionalExtension};
use uuid::Uuid;

use crate::error::StoreError;
use crate::id::{
    BatchId, CompostId, EntryId, GroundId, HeapId, LotId, MeasureId, SiteId, SortedOutId, TestId,
};

/// Something that is of a site.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Thing {
    /// The site itself.
    Site(SiteId),
    /// A container.
    Measure(MeasureId),
    /// A lot.
    Lot(LotId),
    /// A test on a lot.
    Test(TestId),
    /// Something sorted out.
    SortedOut(SortedOutId),
    /// A batch.
    Batch(BatchId),
    /// A heap.
    Heap(HeapId),
    /// An entry of the log.
    Entry(EntryId),
    /// Compost that was taken out of a heap.
    Compost(CompostId),
    /// A place that compost goes to.
    Ground(GroundId),
}

impl Thing {
    /// What it is called where it is not found.
    #[must_use]
    pub const fn kind(self) -> &'static str {
        match self {
            Self::Site(_) => "site",
            Self::Measure(_) => "measure",
            Self::Lot(_) => "lot",
            Self::Test(_) => "test",
            Self::SortedOut(_) => "sorted-out",
            Self::Batch(_) => "batch",
            Self::Heap(_) => "heap",
            Self::Entry(_) => "entry",
            Self::Compost(_) => "compost",
            Self::Ground(_) => "ground",
        }
    }

    /// Where it is looked for: a record by its key, or what is only in the log by its first entry.
    fn place(self) -> (&'static str, Uuid) {
        const OF_SUBJECT: [&str; 4] = [
            "SELECT site_id FROM entry WHERE subject = 'test' AND subject_id = ?1 LIMIT 1",
            "SELECT site_id FROM entry WHERE subject = 'sorted-out' AND subject_id = ?1 LIMIT 1",
            "SELECT site_id FROM entry WHERE subject = 'heap' AND subject_id = ?1 LIMIT 1",
            "SELECT site_id FROM entry WHERE subject = 'compost' AND subject_id = ?1 LIMIT 1",
        ];
        match self {
            Self::Site(id) => ("SELECT id FROM site WHERE id = ?1", id.0),
            Self::Measure(id) => ("SELECT site_id FROM measure WHERE id = ?1", id.0),
            Self::Lot(id) => ("SELECT site_id FROM lot WHERE id = ?1", id.0),
            Self::Batch(id) => ("SELECT site_id FROM batch WHERE id = ?1", id.0),
            Self::Entry(id) => ("SELECT site_id FROM entry WHERE id = ?1", id.0),
            Self::Test(id) => (OF_SUBJECT[0], id.0),
            Self::SortedOut(id) => (OF_SUBJECT[1], id.0),
            Self::Heap(id) => (OF_SUBJECT[2], id.0),
            Self::Compost(id) => (OF_SUBJECT[3], id.0),
            Self::Ground(id) => ("SELECT site_id FROM ground WHERE id = ?1", id.0),
        }
    }
}

/// The site that something is, or ever was, of; none if there never was such a thing.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn site_of(conn: &Connection, thing: Thing) -> Result<Option<SiteId>, StoreError> {
    let (sql, id) = thing.place();
    Ok(conn.prepare_cached(sql)?.query_row([id.hyphenated().to_string()], |row| row.get(0)).optional()?)
}

macro_rules! things {
    ($($id:ident => $thing:ident),* $(,)?) => {$(
        impl From<$id> for Thing {
            fn from(id: $id) -> Self {
                Self::$thing(id)
            }
        }
    )*};
}

things! {
    SiteId => Site, MeasureId => Measure, LotId => Lot, TestId => Test, SortedOutId => SortedOut,
    BatchId => Batch, HeapId => Heap, EntryId => Entry, CompostId => Compost, GroundId => Ground,
}
