//! Heaps, as the log has them: the list from what stands, one of them with all of its acts.

use rusqlite::{Connection, OptionalExtension, Row, named_params};

use crate::error::StoreError;
use crate::id::{BatchId, EntryId, HeapId, LotId, SiteId};
use crate::log::{self, About, Body, Entry};
use crate::projection::HeapStand;

/// A heap at a glance.
#[derive(Debug, Clone, PartialEq)]
pub struct HeapRow {
    /// Key.
    pub id: HeapId,
    /// The farm or plot it stands on.
    pub site: SiteId,
    /// The batch it is built of.
    pub batch: Option<BatchId>,
    /// What it is called.
    pub name: String,
    /// The method it is composted by.
    pub method: Option<String>,
    /// When it was begun, milliseconds since 1970.
    pub begun_ms: i64,
    /// When something was last done.
    pub changed_ms: i64,
    /// When what went in was taken from stock, if it was.
    pub taken_ms: Option<i64>,
    /// The entry written down last.
    pub head: EntryId,
    /// Counts entries.
    pub version: i64,
    /// How many steps were laid.
    pub laid: u32,
    /// How many there are in all.
    pub planned: u32,
    /// When the last of them was laid, milliseconds since 1970.
    pub built_ms: Option<i64>,
    /// When all of it was taken out, milliseconds since 1970.
    pub emptied_ms: Option<i64>,
}

impl HeapRow {
    /// Whether it was built, and some of it is left.
    #[must_use]
    pub const fn stands(&self) -> bool {
        self.built_ms.is_some() && self.emptied_ms.is_none()
    }
}

/// A heap with what was done.
#[derive(Debug, Clone, PartialEq)]
pub struct Heap {
    /// At a glance.
    pub row: HeapRow,
    /// As its entries leave it.
    pub stand: HeapStand,
    /// The last act that can be taken back, if there is one.
    pub last_act: Option<EntryId>,
    /// What was done to it and stands, in its order.
    pub entries: Vec<Entry>,
}

const COLUMNS: &str = "id, site_id, batch_id, name, method, begun_ms, changed_ms, taken_ms, head, version, laid, planned, built_ms, emptied_ms";

/// The heaps of a site, last changed first.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_site(conn: &Connection, site: SiteId) -> Result<Vec<HeapRow>, StoreError> {
    let sql = format!("SELECT {COLUMNS} FROM heap WHERE site_id = :site ORDER BY changed_ms DESC, head DESC");
    let mut statement = conn.prepare_cached(&sql)?;
    let rows = statement.query_map(named_params! { ":site": site }, from_row)?;
    Ok(rows.collect::<Result<_, _>>()?)
}

/// One heap at a glance.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none, or it was taken off the list.
pub fn row(conn: &Connection, id: HeapId) -> Result<HeapRow, StoreError> {
    conn.prepare_cached(&format!("SELECT {COLUMNS} FROM heap WHERE id = :id"))?
        .query_row(named_params! { ":id": id }, from_row)
        .optional()?
        .ok_or(StoreError::NotFound { kind: "heap" })
}

/// One heap with what was done.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none, or it was taken off the list.
pub fn get(conn: &Connection, id: HeapId) -> Result<Heap, StoreError> {
    let row = row(conn, id)?;
    let entries = log::those_that_stand(log::of(conn, About::Heap(id))?);
    let stand = HeapStand::of(&entries).ok_or(StoreError::NotFound { kind: "heap" })?;
    let last_act = entries.iter().rev().find(|entry| is_act(entry)).map(|entry| entry.id);
    Ok(Heap { row, stand, last_act, entries })
}

/// One heap as it was built, whatever was read and seen of it since.
///
/// # Errors
/// [`StoreError::NotFound`] if it was not begun.
pub fn as_built(conn: &Connection, row: HeapRow) -> Result<Heap, StoreError> {
    let entries = log::those_that_stand(log::done_to(conn, About::Heap(row.id))?);
    let stand = HeapStand::of(&entries).ok_or(StoreError::NotFound { kind: "heap" })?;
    Ok(Heap { row, stand, last_act: None, entries })
}

/// Whether a heap built of a batch took what went in.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn has_taken(conn: &Connection, batch: BatchId) -> Result<bool, StoreError> {
    let sql = "SELECT EXISTS (SELECT 1 FROM heap WHERE batch_id = ?1 AND taken_ms IS NOT NULL)";
    Ok(conn.prepare_cached(sql)?.query_row([batch], |row| row.get(0))?)
}

/// Heaps whose log names a lot, whether any of it truly went in or not.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn that_name(conn: &Connection, lot: LotId) -> Result<Vec<HeapId>, StoreError> {
    let mut statement = conn.prepare_cached(
        "SELECT DISTINCT subject_id FROM entry
         WHERE subject = 'heap' AND kind IN ('begun', 'laid', 'add', 'feed') AND instr(body, ?1) > 0
         ORDER BY subject_id",
    )?;
    let rows = statement.query_map([lot.0.hyphenated().to_string()], |row| row.get(0))?;
    Ok(rows.collect::<Result<_, _>>()?)
}

fn is_act(entry: &Entry) -> bool {
    matches!(entry.body, Body::Laid(_) | Body::Planned { .. } | Body::Ended { .. })
}

fn from_row(row: &Row<'_>) -> rusqlite::Result<HeapRow> {
    Ok(HeapRow {
        id: row.get("id")?,
        site: row.get("site_id")?,
        batch: row.get("batch_id")?,
        name: row.get("name")?,
        method: row.get("method")?,
        begun_ms: row.get("begun_ms")?,
        changed_ms: row.get("changed_ms")?,
        taken_ms: row.get("taken_ms")?,
        head: row.get("head")?,
        version: row.get("version")?,
        laid: row.get("laid")?,
        planned: row.get("planned")?,
        built_ms: row.get("built_ms")?,
        emptied_ms: row.get("emptied_ms")?,
    })
}
