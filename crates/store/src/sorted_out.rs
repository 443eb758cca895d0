//! What was sorted out and not used, as it stands.

use rusqlite::{Connection, OptionalExtension, Row};

use crate::error::StoreError;
use crate::id::{SiteId, SortedOutId};
use crate::log::SortedOut;

/// A record of something sorted out.
#[derive(Debug, Clone, PartialEq)]
pub struct SortedOutRow {
    /// Key.
    pub id: SortedOutId,
    /// The farm or plot.
    pub site: SiteId,
    /// What it is.
    pub fields: SortedOut,
}

const COLUMNS: &str = "id, site_id, material, label, kg, went_to, made_on";

/// What was sorted out at a site, newest first.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_site(conn: &Connection, site: SiteId) -> Result<Vec<SortedOutRow>, StoreError> {
    let sql = format!("SELECT {COLUMNS} FROM sorted_out WHERE site_id = ?1 ORDER BY made_on DESC, id DESC");
    let mut statement = conn.prepare_cached(&sql)?;
    let rows = statement.query_map([site], from_row)?;
    Ok(rows.collect::<Result<_, _>>()?)
}

/// One record.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none, or it was removed.
pub fn get(conn: &Connection, id: SortedOutId) -> Result<SortedOutRow, StoreError> {
    conn.prepare_cached(&format!("SELECT {COLUMNS} FROM sorted_out WHERE id = ?1"))?
        .query_row([id], from_row)
        .optional()?
        .ok_or(StoreError::NotFound { kind: "sorted-out" })
}

fn from_row(row: &Row<'_>) -> rusqlite::Result<SortedOutRow> {
    Ok(SortedOutRow {
        id: row.get("id")?,
        site: row.get("site_id")?,
        fields: SortedOut {
            material: row.get("material")?,
            label: row.get("label")?,
            kg: row.get("kg")?,
            went_to: row.get("went_to")?,
            made_on: row.get("made_on")?,
        },
    })
}
