//! What was noted of comings and goings. It only grows.

use rusqlite::{Connection, named_params};
use zymarch_core::people::SecurityKind;

use crate::error::StoreError;
use crate::id::PersonId;
use crate::own;

/// Something that was noted.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Noted {
    /// When.
    pub at_ms: i64,
    /// What.
    pub kind: SecurityKind,
    /// Who did it, if it is known.
    pub person: Option<PersonId>,
    /// Whom it was done to, if anybody.
    pub about: Option<PersonId>,
    /// What the device calls itself.
    pub device: String,
    /// Where it came from; empty for the machine itself.
    pub address: String,
}

/// Notes something.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn note(conn: &Connection, new: &Noted) -> Result<(), StoreError> {
    let sql = "INSERT INTO security_entry (at_ms, kind, person, about, device, address)
               VALUES (:at, :kind, :person, :about, :device, :address)";
    conn.prepare_cached(sql)?.execute(named_params! {
        ":at": new.at_ms, ":kind": new.kind.as_str(), ":person": new.person, ":about": new.about,
        ":device": new.device, ":address": new.address,
    })?;
    Ok(())
}

/// What was noted last, newest on top.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn latest(conn: &Connection, most: usize) -> Result<Vec<Noted>, StoreError> {
    let sql = "SELECT at_ms, kind, person, about, device, address
               FROM security_entry ORDER BY id DESC LIMIT ?1";
    let mut statement = conn.prepare_cached(sql)?;
    let rows = statement.query_map([i64::try_from(most).unwrap_or(i64::MAX)], |row| {
        Ok(Noted {
            at_ms: row.get("at_ms")?,
            kind: own::word(row, "kind", SecurityKind::parse)?,
            person: row.get("person")?,
            about: row.get("about")?,
            device: row.get("device")?,
            address: row.get("address")?,
        })
    })?;
    Ok(rows.collect::<Result<_, _>>()?)
}
