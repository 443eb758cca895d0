//! Tests on lots, as they were read.

use rusqlite::{Connection, OptionalExtension, Row, named_params};
use zymarch_core::field_test::TestKind;

use crate::error::{StoreError, versioned};
use crate::id::{FieldTestId, LotId, SiteId};
use crate::own;

/// A test on a lot.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct FieldTest {
    /// Key.
    pub id: FieldTestId,
    /// On which lot.
    pub lot: LotId,
    /// What it is.
    pub fields: NewFieldTest,
    /// Counts changes.
    pub version: i64,
}

/// What a test is.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct NewFieldTest {
    /// Which test.
    pub kind: TestKind,
    /// The day it was made; of a bean test, the day it was sown.
    pub made_on: String,
    /// What was read, as JSON.
    pub readings: String,
}

const COLUMNS: &str = "field_test.id, lot_id, field_test.kind, made_on, readings, field_test.version";

/// The tests of a lot, newest first.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_lot(conn: &Connection, lot: LotId) -> Result<Vec<FieldTest>, StoreError> {
    many(conn, "WHERE lot_id = ?1 AND field_test.removed_at IS NULL", lot)
}

/// The tests of all lots of a site, newest first.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_site(conn: &Connection, site: SiteId) -> Result<Vec<FieldTest>, StoreError> {
    many(
        conn,
        "JOIN lot ON lot.id = field_test.lot_id WHERE lot.site_id = ?1 AND field_test.removed_at IS NULL",
        site,
    )
}

fn many(conn: &Connection, which: &str, key: impl rusqlite::ToSql) -> Result<Vec<FieldTest>, StoreError> {
    let sql = format!("SELECT {COLUMNS} FROM field_test {which} ORDER BY made_on DESC, field_test.id DESC");
    let mut statement = conn.prepare_cached(&sql)?;
    let rows = statement.query_map([key], from_row)?;
    Ok(rows.collect::<Result<_, _>>()?)
}

/// One test.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none, or it was removed.
pub fn get(conn: &Connection, id: FieldTestId) -> Result<FieldTest, StoreError> {
    let sql = format!("SELECT {COLUMNS} FROM field_test WHERE id = ?1 AND removed_at IS NULL");
    conn.prepare_cached(&sql)?
        .query_row([id], from_row)
        .optional()?
        .ok_or(StoreError::NotFound { kind: "test" })
}

const INSERT: &str = "
    INSERT INTO field_test (lot_id, kind, made_on, readings, created_at, updated_at)
    VALUES (:lot, :kind, :made_on, :readings, :now, :now)
    RETURNING id";

/// A new test.
///
/// # Errors
/// [`StoreError::DanglingReference`] if the lot does not exist.
pub fn insert(conn: &Connection, lot: LotId, new: &NewFieldTest, now: &str) -> Result<FieldTest, StoreError> {
    let id = conn.prepare_cached(INSERT)?.query_row(
        named_params! {
            ":lot": lot, ":kind": new.kind.as_str(), ":made_on": new.made_on, ":readings": new.readings,
            ":now": now,
        },
        |row| row.get(0),
    )?;
    get(conn, id)
}

const UPDATE: &str = "
    UPDATE field_test
    SET kind = :kind, made_on = :made_on, readings = :readings, version = version + 1, updated_at = :now
    WHERE id = :id AND version = :version AND removed_at IS NULL
    RETURNING id";

/// Changes a test that was read at a version: a further weighing, a count of beans.
///
/// # Errors
/// [`StoreError::NotFound`], [`StoreError::Stale`].
pub fn update(
    conn: &Connection,
    id: FieldTestId,
    version: i64,
    new: &NewFieldTest,
    now: &str,
) -> Result<FieldTest, StoreError> {
    let changed: Option<FieldTestId> = conn
        .prepare_cached(UPDATE)?
        .query_row(
            named_params! {
                ":id": id, ":version": version, ":kind": new.kind.as_str(), ":made_on": new.made_on,
                ":readings": new.readings, ":now": now,
            },
            |row| row.get(0),
        )
        .optional()?;
    versioned(changed, "test", version, || {
        conn.query_row("SELECT version FROM field_test WHERE id = ?1 AND removed_at IS NULL", [id], |row| {
            row.get(0)
        })
        .optional()
    })?;
    get(conn, id)
}

/// Removes a test, and its figures with it; it can be brought back.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none, or it was removed already.
pub fn remove(conn: &Connection, id: FieldTestId, now: &str) -> Result<(), StoreError> {
    let sql =
        "UPDATE field_test SET removed_at = ?2, version = version + 1 WHERE id = ?1 AND removed_at IS NULL";
    match conn.prepare_cached(sql)?.execute((id, now))? {
        0 => Err(StoreError::NotFound { kind: "test" }),
        _ => Ok(()),
    }
}

/// Brings a removed test back. One that is there already stays as it is.
///
/// # Errors
/// [`StoreError::NotFound`] if there never was one.
pub fn restore(conn: &Connection, id: FieldTestId) -> Result<FieldTest, StoreError> {
    let sql = "UPDATE field_test SET removed_at = NULL, version = version + 1 WHERE id = ?1 AND removed_at IS NOT NULL";
    conn.prepare_cached(sql)?.execute([id])?;
    get(conn, id)
}

fn from_row(row: &Row<'_>) -> rusqlite::Result<FieldTest> {
    Ok(FieldTest {
        id: row.get("id")?,
        lot: row.get("lot_id")?,
        fields: NewFieldTest {
            kind: own::word(row, "kind", TestKind::parse)?,
            made_on: row.get("made_on")?,
            readings: row.get("readings")?,
        },
        version: row.get("version")?,
    })
}
