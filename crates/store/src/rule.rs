//! What a site follows where practitioners differ, and what its place asks for.

use rusqlite::{Connection, OptionalExtension, named_params};
use zymarch_core::tend::hygiene::LocalRule;
use zymarch_core::tend::school::SchoolId;

use crate::error::StoreError;
use crate::id::SiteId;

/// What a site follows.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct SiteRule {
    /// Answers that were chosen in place of the usual ones.
    pub schools: Vec<SchoolId>,
    /// What its place asks for beyond the criteria of heat.
    pub local: LocalRule,
    /// Counts changes; 0 of one that never was.
    pub version: i64,
}

/// What a site follows; of one that never chose, nothing of its own.
///
/// # Errors
/// [`StoreError::Sqlite`], [`StoreError::Unreadable`].
pub fn of(conn: &Connection, site: SiteId) -> Result<SiteRule, StoreError> {
    let sql = "SELECT schools, local_rule, version FROM site_rule WHERE site_id = ?1";
    let kept: Option<(String, String, i64)> = conn
        .prepare_cached(sql)?
        .query_row([site], |row| Ok((row.get(0)?, row.get(1)?, row.get(2)?)))
        .optional()?;
    let Some((schools, local, version)) = kept else { return Ok(SiteRule::default()) };
    let unreadable = |error: serde_json::Error| StoreError::Unreadable(error.to_string());
    Ok(SiteRule {
        schools: serde_json::from_str(&schools).map_err(unreadable)?,
        local: serde_json::from_str(&local).map_err(unreadable)?,
        version,
    })
}

/// Writes down what a site follows; `new.version` is the one that was read.
///
/// # Errors
/// [`StoreError::Stale`] if it was changed since.
pub fn set(conn: &Connection, site: SiteId, new: &SiteRule) -> Result<SiteRule, StoreError> {
    let unreadable = |error: serde_json::Error| StoreError::Unreadable(error.to_string());
    let schools = serde_json::to_string(&new.schools).map_err(unreadable)?;
    let local = serde_json::to_string(&new.local).map_err(unreadable)?;
    let there = of(conn, site)?.version;
    if there != new.version {
        return Err(StoreError::Stale { kind: "site-rule", current: there, given: new.version });
    }
    let sql = "INSERT INTO site_rule (site_id, schools, local_rule) VALUES (:site, :schools, :local)
               ON CONFLICT (site_id) DO UPDATE SET
                   schools = excluded.schools, local_rule = excluded.local_rule, version = version + 1";
    conn.prepare_cached(sql)?
        .execute(named_params! { ":site": site, ":schools": schools, ":local": local })?;
    of(conn, site)
}
