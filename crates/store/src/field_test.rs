//! Tests on lots, as they stand.

use rusqlite::{Connection, OptionalExtension, Row};
use zymarch_core::stock::field_test::TestKind;

use crate::error::StoreError;
use crate::id::{LotId, SiteId, TestId};
use crate::own;

/// A test on a lot.
#[derive(Debug, Clone, PartialEq)]
pub struct FieldTest {
    /// Key.
    pub id: TestId,
    /// The farm or plot.
    pub site: SiteId,
    /// On which lot.
    pub lot: LotId,
    /// Which test.
    pub kind: TestKind,
    /// The day it was made; of a bean test, the day it was sown.
    pub made_on: String,
    /// What was read, as JSON.
    pub readings: String,
    /// Counts entries.
    pub version: i64,
}

const COLUMNS: &str = "id, site_id, lot_id, kind, made_on, readings, version";

/// The tests of a lot, newest first.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_lot(conn: &Connection, lot: LotId) -> Result<Vec<FieldTest>, StoreError> {
    many(conn, "lot_id", &lot)
}

/// The tests of all lots of a site, newest first.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_site(conn: &Connection, site: SiteId) -> Result<Vec<FieldTest>, StoreError> {
    many(conn, "site_id", &site)
}

fn many(conn: &Connection, column: &str, key: &dyn rusqlite::ToSql) -> Result<Vec<FieldTest>, StoreError> {
    let sql = format!("SELECT {COLUMNS} FROM field_test WHERE {column} = ?1 ORDER BY made_on DESC, id DESC");
    let mut statement = conn.prepare_cached(&sql)?;
    let rows = statement.query_map([key], from_row)?;
    Ok(rows.collect::<Result<_, _>>()?)
}

/// The weighings of all lots of a material that a site has, newest first: their density stands in for
/// one another's.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn weighed(conn: &Connection, site: SiteId, material: &str) -> Result<Vec<FieldTest>, StoreError> {
    let sql = format!(
        "SELECT {COLUMNS} FROM field_test WHERE kind = 'weigh' AND lot_id IN
           (SELECT id FROM lot WHERE site_id = ?1 AND material = ?2 AND removed_at IS NULL)
         ORDER BY made_on DESC, id DESC"
    );
    let mut statement = conn.prepare_cached(&sql)?;
    let rows = statement.query_map((site, material), from_row)?;
    Ok(rows.collect::<Result<_, _>>()?)
}

/// One test.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none, or it was removed.
pub fn get(conn: &Connection, id: TestId) -> Result<FieldTest, StoreError> {
    let sql = format!("SELECT {COLUMNS} FROM field_test WHERE id = ?1");
    conn.prepare_cached(&sql)?
        .query_row([id], from_row)
        .optional()?
        .ok_or(StoreError::NotFound { kind: "test" })
}

fn from_row(row: &Row<'_>) -> rusqlite::Result<FieldTest> {
    Ok(FieldTest {
        id: row.get("id")?,
        site: row.get("site_id")?,
        lot: row.get("lot_id")?,
        kind: own::word(row, "kind", TestKind::parse)?,
        made_on: row.get("made_on")?,
        readings: row.get("readings")?,
        version: row.get("version")?,
    })
}
