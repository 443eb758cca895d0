//! What was sorted out and not used, so that it can be shown that it was.

use rusqlite::{Connection, OptionalExtension, Row, named_params};

use crate::error::StoreError;
use crate::id::{SiteId, SortedOutId};

/// A record of something sorted out.
#[derive(Debug, Clone, PartialEq)]
pub struct SortedOut {
    /// Key.
    pub id: SortedOutId,
    /// What it is.
    pub fields: NewSortedOut,
}

/// What was sorted out.
#[derive(Debug, Clone, PartialEq)]
pub struct NewSortedOut {
    /// Id of the material.
    pub material: String,
    /// The person's own name for it.
    pub label: Option<String>,
    /// How much [kg], if it was weighed.
    pub kg: Option<f64>,
    /// Where it went, in the person's words.
    pub went_to: Option<String>,
    /// The day.
    pub made_on: String,
}

const OF_SITE: &str = "
    SELECT id, material, label, kg, went_to, made_on
    FROM sorted_out
    WHERE site_id = :site AND removed_at IS NULL
    ORDER BY made_on DESC, id DESC";

/// What was sorted out at a site, newest first.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_site(conn: &Connection, site: SiteId) -> Result<Vec<SortedOut>, StoreError> {
    let mut statement = conn.prepare_cached(OF_SITE)?;
    let rows = statement.query_map(named_params! { ":site": site }, from_row)?;
    Ok(rows.collect::<Result<_, _>>()?)
}

const INSERT: &str = "
    INSERT INTO sorted_out (site_id, material, label, kg, went_to, made_on, created_at)
    VALUES (:site, :material, :label, :kg, :went_to, :made_on, :now)
    RETURNING id, material, label, kg, went_to, made_on";

/// A new record.
///
/// # Errors
/// [`StoreError::DanglingReference`] if the site does not exist.
pub fn insert(
    conn: &Connection,
    site: SiteId,
    new: &NewSortedOut,
    now: &str,
) -> Result<SortedOut, StoreError> {
    Ok(conn.prepare_cached(INSERT)?.query_row(
        named_params! {
            ":site": site, ":material": new.material, ":label": new.label, ":kg": new.kg,
            ":went_to": new.went_to, ":made_on": new.made_on, ":now": now,
        },
        from_row,
    )?)
}

/// Removes a record; it can be brought back.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none, or it was removed already.
pub fn remove(conn: &Connection, id: SortedOutId, now: &str) -> Result<(), StoreError> {
    let sql = "UPDATE sorted_out SET removed_at = ?2 WHERE id = ?1 AND removed_at IS NULL";
    match conn.prepare_cached(sql)?.execute((id, now))? {
        0 => Err(StoreError::NotFound { kind: "record" }),
        _ => Ok(()),
    }
}

/// Brings a removed record back. One that is there already stays as it is.
///
/// # Errors
/// [`StoreError::NotFound`] if there never was one.
pub fn restore(conn: &Connection, id: SortedOutId) -> Result<SortedOut, StoreError> {
    conn.execute("UPDATE sorted_out SET removed_at = NULL WHERE id = ?1", [id])?;
    conn.query_row(
        "SELECT id, material, label, kg, went_to, made_on FROM sorted_out WHERE id = ?1",
        [id],
        from_row,
    )
    .optional()?
    .ok_or(StoreError::NotFound { kind: "record" })
}

fn from_row(row: &Row<'_>) -> rusqlite::Result<SortedOut> {
    Ok(SortedOut {
        id: row.get("id")?,
        fields: NewSortedOut {
            material: row.get("material")?,
            label: row.get("label")?,
            kg: row.get("kg")?,
            went_to: row.get("went_to")?,
            made_on: row.get("made_on")?,
        },
    })
}
