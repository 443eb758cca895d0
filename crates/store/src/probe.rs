//! Probes: devices that write temperatures of one heap, or the air of one site, down by themselves.
//!
//! What a probe holds to be known by is never kept here, only its SHA-256.

use rusqlite::{Connection, OptionalExtension, Row, named_params, params};
use uuid::Uuid;
use zymarch_core::log::Subject;

use crate::error::StoreError;
use crate::id::{ProbeId, SiteId};
use crate::log::About;
use crate::own;
use crate::people::session::Hash;

/// A probe.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Probe {
    /// Key.
    pub id: ProbeId,
    /// The site it is of.
    pub site: SiteId,
    /// What it stands in.
    pub about: About,
    /// What people call it.
    pub name: String,
    /// Whether it is a stand-in.
    pub is_simulated: bool,
    /// When it was written down.
    pub made_ms: i64,
    /// When it sent something last.
    pub seen_ms: Option<i64>,
    /// When it was cut off, if it was.
    pub ended_ms: Option<i64>,
}

const COLUMNS: &str = "id, site_id, subject, subject_id, name, is_simulated, made_ms, seen_ms, ended_ms";

/// A new one.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn insert(conn: &Connection, token: &Hash, new: &Probe) -> Result<(), StoreError> {
    let (subject, id) = new.about.columns();
    let sql = "INSERT INTO probe (id, site_id, subject, subject_id, name, token, is_simulated, made_ms)
               VALUES (:id, :site, :subject, :subject_id, :name, :token, :simulated, :made)";
    conn.prepare_cached(sql)?.execute(named_params! {
        ":id": new.id, ":site": new.site, ":subject": subject, ":subject_id": id, ":name": new.name,
        ":token": token, ":simulated": new.is_simulated, ":made": new.made_ms,
    })?;
    Ok(())
}

/// The one that is known by a token, unless it was cut off.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_token(conn: &Connection, token: &Hash) -> Result<Option<Probe>, StoreError> {
    let sql = format!("SELECT {COLUMNS} FROM probe WHERE token = ?1 AND ended_ms IS NULL");
    Ok(conn.prepare_cached(&sql)?.query_row([token], from_row).optional()?)
}

/// One, cut off or not.
///
/// # Errors
/// [`StoreError::NotFound`].
pub fn get(conn: &Connection, id: ProbeId) -> Result<Probe, StoreError> {
    conn.prepare_cached(&format!("SELECT {COLUMNS} FROM probe WHERE id = ?1"))?
        .query_row([id], from_row)
        .optional()?
        .ok_or(StoreError::NotFound { kind: "probe" })
}

/// All that stand or stood in something, oldest first.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of(conn: &Connection, about: About) -> Result<Vec<Probe>, StoreError> {
    let sql = format!("SELECT {COLUMNS} FROM probe WHERE subject_id = ?1 ORDER BY made_ms, id");
    let mut statement = conn.prepare_cached(&sql)?;
    let rows = statement.query_map([about.columns().1], from_row)?;
    Ok(rows.collect::<Result<_, _>>()?)
}

/// Notes that one sent something.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn seen(conn: &Connection, id: ProbeId, now_ms: i64) -> Result<(), StoreError> {
    conn.prepare_cached("UPDATE probe SET seen_ms = ?2 WHERE id = ?1")?.execute(params![id, now_ms])?;
    Ok(())
}

/// Cuts one off.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn end(conn: &Connection, id: ProbeId, now_ms: i64) -> Result<(), StoreError> {
    let sql = "UPDATE probe SET ended_ms = ?2 WHERE id = ?1 AND ended_ms IS NULL";
    conn.prepare_cached(sql)?.execute(params![id, now_ms])?;
    Ok(())
}

fn from_row(row: &Row<'_>) -> rusqlite::Result<Probe> {
    let key: ProbeId = row.get("subject_id")?;
    let subject: Subject = own::word(row, "subject", Subject::parse)?;
    let key: Uuid = key.0;
    Ok(Probe {
        id: row.get("id")?,
        site: row.get("site_id")?,
        about: About::new(subject, key),
        name: row.get("name")?,
        is_simulated: row.get("is_simulated")?,
        made_ms: row.get("made_ms")?,
        seen_ms: row.get("seen_ms")?,
        ended_ms: row.get("ended_ms")?,
    })
}
