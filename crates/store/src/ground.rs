//! Places that compost goes to: beds, fields, trees, as a person writes them down.

use rusqlite::{Connection, OptionalExtension, Row, named_params};
use zymarch_core::finish::restrict::GroundKind;

use crate::error::{StoreError, name_taken};
use crate::id::{GroundId, SiteId};
use crate::own;
use crate::record::Records;

const GROUNDS: Records = Records { table: "ground" };

/// A place that compost goes to.
#[derive(Debug, Clone, PartialEq)]
pub struct Ground {
    /// Key.
    pub id: GroundId,
    /// The farm or plot.
    pub site: SiteId,
    /// What it is.
    pub fields: NewGround,
    /// Counts changes.
    pub version: i64,
}

/// What a place is.
#[derive(Debug, Clone, PartialEq)]
pub struct NewGround {
    /// What people call it.
    pub name: String,
    /// A bed, a field, trees.
    pub kind: GroundKind,
    /// How large [m²], where it is ground.
    pub area_m2: Option<f64>,
    /// How many, of pits and trees.
    pub count: Option<f64>,
    /// What grows there, in the person's words.
    pub crop: Option<String>,
    /// Whether what is eaten touches the soil or its splash.
    pub touches_soil: bool,
    /// Whether it is eaten raw.
    pub is_eaten_raw: bool,
    /// The day it is to be harvested.
    pub harvest_on: Option<String>,
}

const SELECT: &str = "
    SELECT id, site_id, name, kind, area_m2, count, crop, touches_soil, is_eaten_raw, harvest_on, version
    FROM ground";

/// The places of a site, by name.
///
/// # Errors
/// [`StoreError::Sqlite`], [`StoreError::Unreadable`].
pub fn of_site(conn: &Connection, site: SiteId) -> Result<Vec<Ground>, StoreError> {
    let sql = format!("{SELECT} WHERE site_id = ?1 AND removed_at IS NULL ORDER BY name, id");
    let mut statement = conn.prepare_cached(&sql)?;
    let rows = statement.query_map([site], from_row)?;
    Ok(rows.collect::<Result<_, _>>()?)
}

/// One place.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none, or it was removed.
pub fn get(conn: &Connection, id: GroundId) -> Result<Ground, StoreError> {
    one(conn, id, "AND removed_at IS NULL")
}

/// One place, removed or not: where compost went is not forgotten.
///
/// # Errors
/// [`StoreError::NotFound`] if there never was one.
pub fn ever(conn: &Connection, id: GroundId) -> Result<Ground, StoreError> {
    one(conn, id, "")
}

fn one(conn: &Connection, id: GroundId, and: &str) -> Result<Ground, StoreError> {
    let found = conn
        .prepare_cached(&format!("{SELECT} WHERE id = ?1 {and}"))?
        .query_row([id], from_row)
        .optional()?;
    found.ok_or(StoreError::NotFound { kind: "ground" })
}

/// Whether there is, or ever was, one of that key.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn was_ever(conn: &Connection, id: GroundId) -> Result<bool, StoreError> {
    GROUNDS.was_ever(conn, &id)
}

const INSERT: &str = "
    INSERT INTO ground (id, site_id, name, kind, area_m2, count, crop, touches_soil, is_eaten_raw, harvest_on,
                        created_at, updated_at)
    VALUES (:id, :site, :name, :kind, :area, :count, :crop, :touches, :raw, :harvest, :now, :now)";

/// A new place.
///
/// # Errors
/// [`StoreError::NameTaken`] if the site has one of that name.
pub fn insert(
    conn: &Connection,
    (id, site): (GroundId, SiteId),
    new: &NewGround,
    now: &str,
) -> Result<(), StoreError> {
    let done = conn.prepare_cached(INSERT)?.execute(named_params! {
        ":id": id, ":site": site, ":name": new.name, ":kind": new.kind.as_str(), ":area": new.area_m2,
        ":count": new.count, ":crop": new.crop, ":touches": new.touches_soil, ":raw": new.is_eaten_raw,
        ":harvest": new.harvest_on, ":now": now,
    });
    done.map(drop).map_err(|error| name_taken(error, "ground", &new.name))
}

const UPDATE: &str = "
    UPDATE ground
    SET name = :name, kind = :kind, area_m2 = :area, count = :count, crop = :crop, touches_soil = :touches,
        is_eaten_raw = :raw, harvest_on = :harvest, version = version + 1, updated_at = :now
    WHERE id = :id AND version = :version AND removed_at IS NULL";

/// Changes a place, as it was read at a version.
///
/// # Errors
/// [`StoreError::NotFound`], [`StoreError::Stale`], [`StoreError::NameTaken`].
pub fn update(
    conn: &Connection,
    (id, version): (GroundId, i64),
    new: &NewGround,
    now: &str,
) -> Result<(), StoreError> {
    let done = conn.prepare_cached(UPDATE)?.execute(named_params! {
        ":id": id, ":version": version, ":name": new.name, ":kind": new.kind.as_str(), ":area": new.area_m2,
        ":count": new.count, ":crop": new.crop, ":touches": new.touches_soil, ":raw": new.is_eaten_raw,
        ":harvest": new.harvest_on, ":now": now,
    });
    GROUNDS.changed(conn, done.map_err(|error| name_taken(error, "ground", &new.name))?, &id, version)
}

/// Removes a place; it can be brought back.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none, or it was removed already.
pub fn remove(conn: &Connection, id: GroundId, now: &str) -> Result<(), StoreError> {
    GROUNDS.remove(conn, &id, now)
}

/// Brings a removed place back. One that is there already stays as it is.
///
/// # Errors
/// [`StoreError::NotFound`] if there never was one; [`StoreError::NameTaken`] if another has its name by now.
pub fn restore(conn: &Connection, id: GroundId) -> Result<(), StoreError> {
    let name = ever(conn, id)?.fields.name;
    GROUNDS.restore(conn, &id, &name).map(drop)
}

fn from_row(row: &Row<'_>) -> rusqlite::Result<Ground> {
    Ok(Ground {
        id: row.get("id")?,
        site: row.get("site_id")?,
        fields: NewGround {
            name: row.get("name")?,
            kind: own::word(row, "kind", GroundKind::parse)?,
            area_m2: row.get("area_m2")?,
            count: row.get("count")?,
            crop: row.get("crop")?,
            touches_soil: row.get("touches_soil")?,
            is_eaten_raw: row.get("is_eaten_raw")?,
            harvest_on: row.get("harvest_on")?,
        },
        version: row.get("version")?,
    })
}
