//! Codes that let somebody in, once, for as long as they hold.

use rusqlite::{Connection, OptionalExtension, Row, named_params};

use super::session::Hash;
use crate::error::StoreError;
use crate::id::{CodeId, PersonId};

/// A code that was made and not spent.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Code {
    /// Key.
    pub id: CodeId,
    /// Whom it lets in.
    pub person: PersonId,
    /// When it was made.
    pub made_ms: i64,
    /// Until when it holds.
    pub ends_ms: i64,
}

/// A new one.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn insert(conn: &Connection, code: &Hash, made_by: &str, new: &Code) -> Result<(), StoreError> {
    let sql = "INSERT INTO sign_in_code (id, code, person_id, made_by, made_ms, ends_ms)
               VALUES (:id, :code, :person, :by, :made, :ends)";
    conn.prepare_cached(sql)?.execute(named_params! {
        ":id": new.id, ":code": code, ":person": new.person, ":by": made_by, ":made": new.made_ms,
        ":ends": new.ends_ms,
    })?;
    Ok(())
}

const COLUMNS: &str = "id, person_id, made_ms, ends_ms";

/// The one of these letters, if it was not spent and still holds.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_letters(conn: &Connection, code: &Hash, now_ms: i64) -> Result<Option<Code>, StoreError> {
    let sql =
        format!("SELECT {COLUMNS} FROM sign_in_code WHERE code = ?1 AND spent_ms IS NULL AND ends_ms > ?2");
    Ok(conn.prepare_cached(&sql)?.query_row((code, now_ms), from_row).optional()?)
}

/// Those that were not spent and still hold.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn open(conn: &Connection, now_ms: i64) -> Result<Vec<Code>, StoreError> {
    let sql = format!("SELECT {COLUMNS} FROM sign_in_code WHERE spent_ms IS NULL AND ends_ms > ?1");
    let mut statement = conn.prepare_cached(&sql)?;
    let rows = statement.query_map([now_ms], from_row)?;
    Ok(rows.collect::<Result<_, _>>()?)
}

/// Spends one.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn spend(conn: &Connection, id: CodeId, now_ms: i64) -> Result<(), StoreError> {
    conn.prepare_cached("UPDATE sign_in_code SET spent_ms = ?2 WHERE id = ?1")?.execute((id, now_ms))?;
    Ok(())
}

/// Withdraws all of somebody: a new code is the only one. Says whether there was any.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn withdraw(conn: &Connection, person: PersonId, now_ms: i64) -> Result<bool, StoreError> {
    let sql = "UPDATE sign_in_code SET spent_ms = ?2
               WHERE person_id = ?1 AND spent_ms IS NULL AND ends_ms > ?2";
    Ok(conn.prepare_cached(sql)?.execute((person, now_ms))? > 0)
}

fn from_row(row: &Row<'_>) -> rusqlite::Result<Code> {
    Ok(Code {
        id: row.get("id")?,
        person: row.get("person_id")?,
        made_ms: row.get("made_ms")?,
        ends_ms: row.get("ends_ms")?,
    })
}
