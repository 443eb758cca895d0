//! Farms and plots, each with its own stock, measures and batches.

use rusqlite::{Connection, OptionalExtension, Row, named_params};
use zymarch_core::stock::climate::{Climate, Month};

use crate::error::StoreError;
use crate::id::SiteId;
use crate::record::Records;

const SITES: Records = Records { table: "site" };

/// A farm or plot.
#[derive(Debug, Clone, PartialEq)]
pub struct Site {
    /// Key.
    pub id: SiteId,
    /// What it is.
    pub fields: NewSite,
    /// Counts changes.
    pub version: i64,
}

/// What a site is.
#[derive(Debug, Clone, PartialEq)]
pub struct NewSite {
    /// What people call it.
    pub name: String,
    /// Above the sea [m].
    pub altitude_m: Option<f64>,
    /// What a year is like there.
    pub climate: Option<Climate>,
}

impl NewSite {
    /// A site of which nothing but the name is known.
    pub fn named(name: impl Into<String>) -> Self {
        Self { name: name.into(), altitude_m: None, climate: None }
    }
}

const ALL: &str = "
    SELECT id, name, altitude_m, version
    FROM site
    WHERE removed_at IS NULL
    ORDER BY created_at, id";

/// Every site, oldest first.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn all(conn: &Connection) -> Result<Vec<Site>, StoreError> {
    let mut statement = conn.prepare_cached(ALL)?;
    let rows = statement.query_map([], from_row)?;
    let mut sites = rows.collect::<Result<Vec<_>, _>>()?;
    for site in &mut sites {
        site.fields.climate = climate(conn, site.id)?;
    }
    Ok(sites)
}

const GET: &str = "
    SELECT id, name, altitude_m, version
    FROM site
    WHERE id = :id AND removed_at IS NULL";

/// One site.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none of that key, or it was removed.
pub fn get(conn: &Connection, id: SiteId) -> Result<Site, StoreError> {
    let mut site = conn
        .prepare_cached(GET)?
        .query_row(named_params! { ":id": id }, from_row)
        .optional()?
        .ok_or(StoreError::NotFound { kind: "site" })?;
    site.fields.climate = climate(conn, id)?;
    Ok(site)
}

const INSERT: &str = "
    INSERT INTO site (id, name, altitude_m, created_at)
    VALUES (:id, :name, :altitude, :now)";

/// A new site.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn insert(conn: &Connection, id: SiteId, new: &NewSite, now: &str) -> Result<Site, StoreError> {
    conn.prepare_cached(INSERT)?
        .execute(named_params! { ":id": id, ":name": new.name, ":altitude": new.altitude_m, ":now": now })?;
    set_climate(conn, id, new.climate.as_ref())?;
    get(conn, id)
}

/// Whether there is, or ever was, one of that key.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn was_ever(conn: &Connection, id: SiteId) -> Result<bool, StoreError> {
    SITES.was_ever(conn, &id)
}

const UPDATE: &str = "
    UPDATE site
    SET name = :name, altitude_m = :altitude, version = version + 1
    WHERE id = :id AND version = :version AND removed_at IS NULL";

/// Changes a site that was read at a version.
///
/// # Errors
/// [`StoreError::NotFound`], [`StoreError::Stale`].
pub fn update(conn: &Connection, id: SiteId, version: i64, new: &NewSite) -> Result<Site, StoreError> {
    let rows = conn.prepare_cached(UPDATE)?.execute(
        named_params! { ":id": id, ":version": version, ":name": new.name, ":altitude": new.altitude_m },
    )?;
    SITES.changed(conn, rows, &id, version)?;
    set_climate(conn, id, new.climate.as_ref())?;
    get(conn, id)
}

const REMOVE: &str = "
    UPDATE site
    SET removed_at = :now, version = version + 1
    WHERE id = :id AND removed_at IS NULL AND (SELECT count(*) FROM site WHERE removed_at IS NULL) > 1";

/// Removes a site, with all that is at it; it can be brought back.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none; [`StoreError::LastOne`] if it is the only one.
pub fn remove(conn: &Connection, id: SiteId, now: &str) -> Result<(), StoreError> {
    get(conn, id)?;
    match conn.prepare_cached(REMOVE)?.execute(named_params! { ":id": id, ":now": now })? {
        0 => Err(StoreError::LastOne { kind: "site" }),
        _ => Ok(()),
    }
}

/// Brings a removed site back. One that is there already stays as it is.
///
/// # Errors
/// [`StoreError::NotFound`] if there never was one.
pub fn restore(conn: &Connection, id: SiteId) -> Result<Site, StoreError> {
    SITES.restore(conn, &id, "")?;
    get(conn, id)
}

const CLIMATE: &str = "
    SELECT mean_c, swing_c, rain_mm
    FROM site_month
    WHERE site_id = :site
    ORDER BY month";

fn climate(conn: &Connection, site: SiteId) -> Result<Option<Climate>, StoreError> {
    let mut statement = conn.prepare_cached(CLIMATE)?;
    let rows = statement.query_map(named_params! { ":site": site }, |row| {
        Ok(Month { mean_c: row.get("mean_c")?, swing_c: row.get("swing_c")?, rain_mm: row.get("rain_mm")? })
    })?;
    let months: Vec<Month> = rows.collect::<Result<_, _>>()?;
    // All twelve or none, as they are written.
    Ok(<[Month; 12]>::try_from(months).ok().map(Climate))
}

const INSERT_MONTH: &str = "
    INSERT INTO site_month (site_id, month, mean_c, swing_c, rain_mm)
    VALUES (:site, :month, :mean, :swing, :rain)";

fn set_climate(conn: &Connection, site: SiteId, climate: Option<&Climate>) -> Result<(), StoreError> {
    conn.execute("DELETE FROM site_month WHERE site_id = ?1", [site])?;
    let mut statement = conn.prepare_cached(INSERT_MONTH)?;
    for (month, of) in (1_i64..).zip(climate.iter().flat_map(|climate| climate.0)) {
        statement.execute(named_params! {
            ":site": site, ":month": month, ":mean": of.mean_c, ":swing": of.swing_c, ":rain": of.rain_mm,
        })?;
    }
    Ok(())
}

fn from_row(row: &Row<'_>) -> rusqlite::Result<Site> {
    Ok(Site {
        id: row.get("id")?,
        fields: NewSite { name: row.get("name")?, altitude_m: row.get("altitude_m")?, climate: None },
        version: row.get("version")?,
    })
}
