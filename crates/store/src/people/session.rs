//! Devices that people signed in on.
//!
//! What a device holds to be known by is never kept here, only its SHA-256: a copy of the
//! file lets nobody in.

use rusqlite::{Connection, OptionalExtension, Row, named_params};

use crate::error::StoreError;
use crate::id::{PersonId, SessionId};

/// SHA-256 of what somebody holds to be known by.
pub type Hash = [u8; 32];

/// A device that somebody signed in on.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Session {
    /// Key.
    pub id: SessionId,
    /// Whose it is.
    pub person: PersonId,
    /// What it calls itself.
    pub device: String,
    /// When they signed in.
    pub begun_ms: i64,
    /// When it was seen last, to the hour.
    pub seen_ms: i64,
    /// When it ends, whatever happens.
    pub ends_ms: i64,
}

/// A device that does not come for so long must sign in again [ms]. Outdoors, with wet hands and without
/// signal, nobody types a passphrase every day; whoever loses a phone has it cut off.
pub const IDLE_MS: i64 = 30 * 24 * 3_600_000;

impl Session {
    /// Whether it lets somebody in at a time.
    #[must_use]
    pub const fn holds(&self, now_ms: i64) -> bool {
        now_ms < self.ends_ms && now_ms < self.seen_ms.saturating_add(IDLE_MS)
    }
}

const COLUMNS: &str = "session.id, person_id, device, begun_ms, seen_ms, ends_ms";

/// A new one.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn insert(conn: &Connection, token: &Hash, new: &Session) -> Result<(), StoreError> {
    let sql = "INSERT INTO session (id, token, person_id, device, begun_ms, seen_ms, ends_ms)
               VALUES (:id, :token, :person, :device, :begun, :seen, :ends)";
    conn.prepare_cached(sql)?.execute(named_params! {
        ":id": new.id, ":token": token, ":person": new.person, ":device": new.device,
        ":begun": new.begun_ms, ":seen": new.seen_ms, ":ends": new.ends_ms,
    })?;
    Ok(())
}

/// The one that is known by a token, unless it was ended.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_token(conn: &Connection, token: &Hash) -> Result<Option<Session>, StoreError> {
    let sql = format!("SELECT {COLUMNS} FROM session WHERE token = ?1 AND ended_ms IS NULL");
    Ok(conn.prepare_cached(&sql)?.query_row([token], from_row).optional()?)
}

/// One that was not ended.
///
/// # Errors
/// [`StoreError::NotFound`].
pub fn get(conn: &Connection, id: SessionId) -> Result<Session, StoreError> {
    conn.prepare_cached(&format!("SELECT {COLUMNS} FROM session WHERE id = ?1 AND ended_ms IS NULL"))?
        .query_row([id], from_row)
        .optional()?
        .ok_or(StoreError::NotFound { kind: "session" })
}

/// Those of everybody that were not ended, seen last on top.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn all(conn: &Connection) -> Result<Vec<Session>, StoreError> {
    let sql = format!("SELECT {COLUMNS} FROM session WHERE ended_ms IS NULL ORDER BY seen_ms DESC, id");
    let mut statement = conn.prepare_cached(&sql)?;
    let rows = statement.query_map([], from_row)?;
    Ok(rows.collect::<Result<_, _>>()?)
}

/// Notes that one was seen.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn seen(conn: &Connection, id: SessionId, now_ms: i64) -> Result<(), StoreError> {
    let sql = "UPDATE session SET seen_ms = max(seen_ms, ?2) WHERE id = ?1";
    conn.prepare_cached(sql)?.execute((id, now_ms))?;
    Ok(())
}

/// Ends one.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn end(conn: &Connection, id: SessionId, now_ms: i64) -> Result<(), StoreError> {
    let sql = "UPDATE session SET ended_ms = ?2 WHERE id = ?1 AND ended_ms IS NULL";
    conn.prepare_cached(sql)?.execute((id, now_ms))?;
    Ok(())
}

/// Ends all of somebody, but for one that stays; how many there were.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn end_all(
    conn: &Connection,
    person: PersonId,
    but: Option<SessionId>,
    now_ms: i64,
) -> Result<usize, StoreError> {
    let sql = "UPDATE session SET ended_ms = ?3
               WHERE person_id = ?1 AND ended_ms IS NULL AND (?2 IS NULL OR id <> ?2)";
    Ok(conn.prepare_cached(sql)?.execute((person, but, now_ms))?)
}

fn from_row(row: &Row<'_>) -> rusqlite::Result<Session> {
    Ok(Session {
        id: row.get("id")?,
        person: row.get("person_id")?,
        device: row.get("device")?,
        begun_ms: row.get("begun_ms")?,
        seen_ms: row.get("seen_ms")?,
        ends_ms: row.get("ends_ms")?,
    })
}
