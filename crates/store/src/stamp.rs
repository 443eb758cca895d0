//! Counters that grow when something changes that others keep a copy of.

use rusqlite::Connection;

use crate::error::StoreError;

/// Grows whenever a material or method of a person's own is changed.
///
/// Read within a transaction it says whether a copy made earlier is still what this
/// transaction sees, so that a copy can neither be late nor early.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_catalogue(conn: &Connection) -> Result<i64, StoreError> {
    Ok(conn
        .prepare_cached("SELECT value FROM stamp WHERE of = 'catalogue'")?
        .query_row([], |row| row.get(0))?)
}
