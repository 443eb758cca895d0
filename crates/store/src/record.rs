//! What all records that a person edits have in common: a version that counts
//! changes, a change refused when it was made to an older one, removing that hides.

use rusqlite::{Connection, OptionalExtension, ToSql};

use crate::error::{StoreError, name_taken};

/// A table of records.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Records {
    /// The table, which is also what a record is called.
    pub(crate) table: &'static str,
}

impl Records {
    /// What became of a change that went by version: one row, or the reason why not.
    pub(crate) fn changed(
        self,
        conn: &Connection,
        rows: usize,
        id: &dyn ToSql,
        given: i64,
    ) -> Result<(), StoreError> {
        if rows > 0 {
            return Ok(());
        }
        match self.version(conn, id)? {
            Some(current) => Err(StoreError::Stale { kind: self.table, current, given }),
            None => Err(StoreError::NotFound { kind: self.table }),
        }
    }

    /// The version of a record that is there.
    pub(crate) fn version(self, conn: &Connection, id: &dyn ToSql) -> Result<Option<i64>, StoreError> {
        let sql = format!("SELECT version FROM {} WHERE id = ?1 AND removed_at IS NULL", self.table);
        Ok(conn.prepare_cached(&sql)?.query_row([id], |row| row.get(0)).optional()?)
    }

    /// Whether there is, or ever was, one of that key.
    pub(crate) fn was_ever(self, conn: &Connection, id: &dyn ToSql) -> Result<bool, StoreError> {
        let sql = format!("SELECT EXISTS (SELECT 1 FROM {} WHERE id = ?1)", self.table);
        Ok(conn.prepare_cached(&sql)?.query_row([id], |row| row.get(0))?)
    }

    /// Hides a record; it can be brought back.
    pub(crate) fn remove(self, conn: &Connection, id: &dyn ToSql, now: &str) -> Result<(), StoreError> {
        let sql = format!(
            "UPDATE {} SET removed_at = ?2, version = version + 1 WHERE id = ?1 AND removed_at IS NULL",
            self.table
        );
        match conn.prepare_cached(&sql)?.execute([id, &now])? {
            0 => Err(StoreError::NotFound { kind: self.table }),
            _ => Ok(()),
        }
    }

    /// Brings a record back; says whether it was away. `name` is what it may be called twice by then.
    pub(crate) fn restore(self, conn: &Connection, id: &dyn ToSql, name: &str) -> Result<bool, StoreError> {
        let sql = format!(
            "UPDATE {} SET removed_at = NULL, version = version + 1 WHERE id = ?1 AND removed_at IS NOT NULL",
            self.table
        );
        let rows =
            conn.prepare_cached(&sql)?.execute([id]).map_err(|error| name_taken(error, self.table, name))?;
        Ok(rows > 0)
    }
}
