//! Compost that was taken out of heaps, where it went, and what laboratories found, as they stand.

use rusqlite::{Connection, OptionalExtension, Row, ToSql};
use zymarch_core::log::EntryKind;

use crate::error::StoreError;
use crate::id::{CompostId, EntryId, GroundId, HeapId, LotId, SiteId};
use crate::log::{About, Applied, Body, Found};

/// Compost that was taken out of a heap.
#[derive(Debug, Clone, PartialEq)]
pub struct Compost {
    /// Key.
    pub id: CompostId,
    /// The farm or plot.
    pub site: SiteId,
    /// The heap.
    pub heap: HeapId,
    /// What it is called.
    pub name: String,
    /// When it was taken out, milliseconds since 1970.
    pub harvested_ms: i64,
    /// How much it was then [L].
    pub taken_l: f64,
    /// How much is left [L].
    pub litres: f64,
    /// What a litre weighs [kg/L].
    pub density_kg_l: f64,
    /// Water, share of fresh mass [-].
    pub moisture: f64,
    /// Through which mesh [mm].
    pub mesh_mm: Option<f64>,
    /// The lot that its rejects became, and how much they were [L].
    pub rejects: Option<(LotId, f64)>,
    /// What all of the heap should have given [L].
    pub expected_l: Option<f64>,
    /// Whether that was all of the heap.
    pub is_last: bool,
    /// Whether the heap was ready then, as far as was recorded.
    pub was_ready: bool,
    /// Counts entries.
    pub version: i64,
}

const SELECT: &str = "
    SELECT id, site_id, heap_id, name, harvested_ms, taken_l, litres, density_kg_l, moisture, mesh_mm, rejects_lot,
           rejects_l, expected_l, is_last, was_ready, version
    FROM compost";

fn many(conn: &Connection, and: &str, key: &dyn ToSql) -> Result<Vec<Compost>, StoreError> {
    let sql = format!("{SELECT} WHERE {and} ORDER BY harvested_ms DESC, id DESC");
    let mut statement = conn.prepare_cached(&sql)?;
    let rows = statement.query_map([key], from_row)?;
    Ok(rows.collect::<Result<_, _>>()?)
}

/// The compost of a site, taken out last first.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_site(conn: &Connection, site: SiteId) -> Result<Vec<Compost>, StoreError> {
    many(conn, "site_id = ?1", &site)
}

/// What was taken out of a heap, last first.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_heap(conn: &Connection, heap: HeapId) -> Result<Vec<Compost>, StoreError> {
    many(conn, "heap_id = ?1", &heap)
}

/// What a lot of rejects was screened out of, if it was.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_rejects(conn: &Connection, lot: LotId) -> Result<Option<Compost>, StoreError> {
    Ok(many(conn, "rejects_lot = ?1", &lot)?.into_iter().next())
}

/// One.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none, or its harvest was taken back.
pub fn get(conn: &Connection, id: CompostId) -> Result<Compost, StoreError> {
    let found = conn.prepare_cached(&format!("{SELECT} WHERE id = ?1"))?.query_row([id], from_row);
    found.optional()?.ok_or(StoreError::NotFound { kind: "compost" })
}

/// Compost that went somewhere.
#[derive(Debug, Clone, PartialEq)]
pub struct Went {
    /// Its entry.
    pub id: EntryId,
    /// Which compost.
    pub compost: CompostId,
    /// When, milliseconds since 1970.
    pub at_ms: i64,
    /// How much, where and for what.
    pub applied: Applied,
}

fn went(conn: &Connection, and: &str, key: &dyn ToSql) -> Result<Vec<Went>, StoreError> {
    let sql = format!("SELECT id, compost_id, at_ms, body FROM applied WHERE {and} ORDER BY at_ms, id");
    let mut statement = conn.prepare_cached(&sql)?;
    let mut rows = statement.query([key])?;
    let mut all = Vec::new();
    while let Some(row) = rows.next()? {
        let body: String = row.get("body")?;
        let Body::Applied(applied) = Body::from_json(EntryKind::Applied, &body)? else { continue };
        let (id, compost, at_ms) = (row.get("id")?, row.get("compost_id")?, row.get("at_ms")?);
        all.push(Went { id, compost, at_ms, applied });
    }
    Ok(all)
}

/// Where compost went, in order.
///
/// # Errors
/// [`StoreError::Sqlite`], [`StoreError::Unreadable`].
pub fn went_from(conn: &Connection, compost: CompostId) -> Result<Vec<Went>, StoreError> {
    went(conn, "compost_id = ?1", &compost)
}

/// What a place got, in order.
///
/// # Errors
/// [`StoreError::Sqlite`], [`StoreError::Unreadable`].
pub fn went_to(conn: &Connection, ground: GroundId) -> Result<Vec<Went>, StoreError> {
    went(conn, "ground_id = ?1", &ground)
}

/// All that went anywhere at a site, in order.
///
/// # Errors
/// [`StoreError::Sqlite`], [`StoreError::Unreadable`].
pub fn went_at(conn: &Connection, site: SiteId) -> Result<Vec<Went>, StoreError> {
    went(conn, "site_id = ?1", &site)
}

/// What laboratories found in something, the newest sample first: entries with what they say.
///
/// # Errors
/// [`StoreError::Sqlite`], [`StoreError::Unreadable`].
pub fn results(conn: &Connection, about: About) -> Result<Vec<(EntryId, Found)>, StoreError> {
    let (subject, key) = about.columns();
    let mut statement = conn.prepare_cached(
        "SELECT id, body FROM lab_result WHERE subject = ?1 AND subject_id = ?2 ORDER BY made_on DESC, id DESC",
    )?;
    let mut rows = statement.query([subject, key.as_str()])?;
    let mut all = Vec::new();
    while let Some(row) = rows.next()? {
        let body: String = row.get("body")?;
        if let Body::LabResult(found) = Body::from_json(EntryKind::LabResult, &body)? {
            all.push((row.get("id")?, found));
        }
    }
    Ok(all)
}

fn from_row(row: &Row<'_>) -> rusqlite::Result<Compost> {
    let lot: Option<LotId> = row.get("rejects_lot")?;
    Ok(Compost {
        id: row.get("id")?,
        site: row.get("site_id")?,
        heap: row.get("heap_id")?,
        name: row.get("name")?,
        harvested_ms: row.get("harvested_ms")?,
        taken_l: row.get("taken_l")?,
        litres: row.get("litres")?,
        density_kg_l: row.get("density_kg_l")?,
        moisture: row.get("moisture")?,
        mesh_mm: row.get("mesh_mm")?,
        rejects: lot.zip(row.get("rejects_l")?),
        expected_l: row.get("expected_l")?,
        is_last: row.get("is_last")?,
        was_ready: row.get("was_ready")?,
        version: row.get("version")?,
    })
}
