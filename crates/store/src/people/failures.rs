//! Failures to come in, by what they have in common.

use rusqlite::{Connection, OptionalExtension};

use crate::error::StoreError;

/// How often it failed, and when last.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Failures {
    /// How often in a row.
    pub count: i64,
    /// When last.
    pub last_ms: i64,
}

/// Those of a key.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of(conn: &Connection, key: &str) -> Result<Option<Failures>, StoreError> {
    let sql = "SELECT failures, last_ms FROM failed_sign_in WHERE key = ?1";
    let read = |row: &rusqlite::Row<'_>| Ok(Failures { count: row.get(0)?, last_ms: row.get(1)? });
    Ok(conn.prepare_cached(sql)?.query_row([key], read).optional()?)
}

/// Writes down how often it failed.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn set(conn: &Connection, key: &str, to: Failures) -> Result<(), StoreError> {
    let sql = "INSERT OR REPLACE INTO failed_sign_in (key, failures, last_ms) VALUES (?1, ?2, ?3)";
    conn.prepare_cached(sql)?.execute((key, to.count, to.last_ms))?;
    Ok(())
}

/// Forgets those of a key.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn forget(conn: &Connection, key: &str) -> Result<(), StoreError> {
    conn.prepare_cached("DELETE FROM failed_sign_in WHERE key = ?1")?.execute([key])?;
    Ok(())
}

/// Forgets what was last before a time, so that the list does not grow for ever.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn forget_before(conn: &Connection, ms: i64) -> Result<(), StoreError> {
    conn.prepare_cached("DELETE FROM failed_sign_in WHERE last_ms < ?1")?.execute([ms])?;
    Ok(())
}
