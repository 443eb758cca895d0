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
    of(conn, "catalogue")
}

/// Grows whenever the stock of a site is changed, or what its figures lean on: a lot, how much there is
/// of it, a test, a measure, the climate.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_stock(conn: &Connection) -> Result<i64, StoreError> {
    of(conn, "stock")
}

/// Grows whenever a batch of any site is changed, or what is done for it.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_batches(conn: &Connection) -> Result<i64, StoreError> {
    of(conn, "batch")
}

/// Grows whenever a heap of any site is changed, which every entry about it does.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_heaps(conn: &Connection) -> Result<i64, StoreError> {
    of(conn, "heap")
}

fn of(conn: &Connection, what: &str) -> Result<i64, StoreError> {
    Ok(conn.prepare_cached("SELECT value FROM stamp WHERE of = ?1")?.query_row([what], |row| row.get(0))?)
}
