//! Farms and plots, each with its own stock, measures and batches.

use rusqlite::{Connection, OptionalExtension, Row, named_params};

use crate::error::StoreError;
use crate::id::SiteId;

/// A farm or plot.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Site {
    /// Key.
    pub id: SiteId,
    /// What people call it.
    pub name: String,
}

const ALL: &str = "
    SELECT id, name
    FROM site
    ORDER BY id";

/// Every site, oldest first.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn all(conn: &Connection) -> Result<Vec<Site>, StoreError> {
    let mut statement = conn.prepare_cached(ALL)?;
    let rows = statement.query_map([], from_row)?;
    Ok(rows.collect::<Result<_, _>>()?)
}

const GET: &str = "
    SELECT id, name
    FROM site
    WHERE id = :id";

/// One site.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none of that key.
pub fn get(conn: &Connection, id: SiteId) -> Result<Site, StoreError> {
    conn.prepare_cached(GET)?
        .query_row(named_params! { ":id": id }, from_row)
        .optional()?
        .ok_or(StoreError::NotFound { kind: "site" })
}

const INSERT: &str = "
    INSERT INTO site (name, created_at)
    VALUES (:name, :now)
    RETURNING id, name";

/// A new site.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn insert(conn: &Connection, name: &str, now: &str) -> Result<Site, StoreError> {
    Ok(conn.prepare_cached(INSERT)?.query_row(named_params! { ":name": name, ":now": now }, from_row)?)
}

const RENAME: &str = "
    UPDATE site
    SET name = :name
    WHERE id = :id
    RETURNING id, name";

/// Gives a site another name.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none of that key.
pub fn rename(conn: &Connection, id: SiteId, name: &str) -> Result<Site, StoreError> {
    conn.prepare_cached(RENAME)?
        .query_row(named_params! { ":id": id, ":name": name }, from_row)
        .optional()?
        .ok_or(StoreError::NotFound { kind: "site" })
}

fn from_row(row: &Row<'_>) -> rusqlite::Result<Site> {
    Ok(Site { id: row.get("id")?, name: row.get("name")? })
}
