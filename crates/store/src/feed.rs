//! Calendar feeds: secret addresses from which a calendar fetches the tasks of a site.
//!
//! What a feed is known by is never kept here, only its SHA-256.

use rusqlite::{Connection, OptionalExtension, params};

use crate::error::StoreError;
use crate::id::{PersonId, SiteId};
use crate::people::session::Hash;

/// A feed.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Feed {
    /// Of which site.
    pub site: SiteId,
    /// Whose; none from before there were people.
    pub person: Option<PersonId>,
    /// When it was made [ms].
    pub made_ms: i64,
}

/// A new feed in place of all that somebody had of that site.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn make(conn: &Connection, secret: &Hash, new: &Feed) -> Result<(), StoreError> {
    end(conn, new.site, new.person, new.made_ms)?;
    let sql = "INSERT INTO calendar_feed (secret, site_id, person_id, made_ms) VALUES (?1, ?2, ?3, ?4)";
    conn.prepare_cached(sql)?.execute(params![secret, new.site, new.person, new.made_ms])?;
    Ok(())
}

/// Ends what somebody has of a site.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn end(conn: &Connection, site: SiteId, person: Option<PersonId>, now_ms: i64) -> Result<(), StoreError> {
    let sql = "UPDATE calendar_feed SET ended_ms = ?3
               WHERE site_id = ?1 AND person_id IS ?2 AND ended_ms IS NULL";
    conn.prepare_cached(sql)?.execute(params![site, person, now_ms])?;
    Ok(())
}

/// The feed that is known by a secret, unless it was ended.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_secret(conn: &Connection, secret: &Hash) -> Result<Option<Feed>, StoreError> {
    let sql = "SELECT site_id, person_id, made_ms FROM calendar_feed WHERE secret = ?1 AND ended_ms IS NULL";
    let row =
        |row: &rusqlite::Row<'_>| Ok(Feed { site: row.get(0)?, person: row.get(1)?, made_ms: row.get(2)? });
    Ok(conn.prepare_cached(sql)?.query_row([secret], row).optional()?)
}

/// When somebody's feed of a site was made [ms], if they have one.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn made_ms(conn: &Connection, site: SiteId, person: Option<PersonId>) -> Result<Option<i64>, StoreError> {
    let sql = "SELECT made_ms FROM calendar_feed
               WHERE site_id = ?1 AND person_id IS ?2 AND ended_ms IS NULL";
    Ok(conn.prepare_cached(sql)?.query_row(params![site, person], |row| row.get(0)).optional()?)
}
