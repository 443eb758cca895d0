//! The person's own containers.

use rusqlite::{Connection, OptionalExtension, Row, named_params};

use crate::error::{StoreError, is_taken, versioned};
use crate::id::{LotId, MeasureId, SiteId};

/// A container.
#[derive(Debug, Clone, PartialEq)]
pub struct Measure {
    /// Key.
    pub id: MeasureId,
    /// What it is.
    pub fields: NewMeasure,
    /// Counts changes.
    pub version: i64,
}

/// What a container is.
#[derive(Debug, Clone, PartialEq)]
pub struct NewMeasure {
    /// One of them: "barrow".
    pub name: String,
    /// Many of them: "barrows".
    pub plural: String,
    /// What one holds [L].
    pub litres: f64,
    /// Sign it is drawn with.
    pub glyph: String,
}

const OF_SITE: &str = "
    SELECT id, name, plural, litres, glyph, version
    FROM measure
    WHERE site_id = :site
    ORDER BY id";

/// The containers of a site, in the order they were made.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_site(conn: &Connection, site: SiteId) -> Result<Vec<Measure>, StoreError> {
    let mut statement = conn.prepare_cached(OF_SITE)?;
    let rows = statement.query_map(named_params! { ":site": site }, from_row)?;
    Ok(rows.collect::<Result<_, _>>()?)
}

const BESIDE_LOT: &str = "
    SELECT measure.id, name, plural, litres, glyph, measure.version
    FROM measure
    JOIN lot ON lot.site_id = measure.site_id
    WHERE lot.id = :lot
    ORDER BY measure.id";

/// The containers of the site a lot is at.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn beside_lot(conn: &Connection, lot: LotId) -> Result<Vec<Measure>, StoreError> {
    let mut statement = conn.prepare_cached(BESIDE_LOT)?;
    let rows = statement.query_map(named_params! { ":lot": lot }, from_row)?;
    Ok(rows.collect::<Result<_, _>>()?)
}

/// The site a container is at.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none of that key.
pub fn site_of(conn: &Connection, id: MeasureId) -> Result<SiteId, StoreError> {
    conn.query_row("SELECT site_id FROM measure WHERE id = ?1", [id], |row| row.get(0))
        .optional()?
        .ok_or(StoreError::NotFound { kind: "measure" })
}

const INSERT: &str = "
    INSERT INTO measure (site_id, name, plural, litres, glyph, created_at, updated_at)
    VALUES (:site, :name, :plural, :litres, :glyph, :now, :now)
    RETURNING id, name, plural, litres, glyph, version";

/// A new container.
///
/// # Errors
/// [`StoreError::NameTaken`] if the site has one of that name.
pub fn insert(conn: &Connection, site: SiteId, new: &NewMeasure, now: &str) -> Result<Measure, StoreError> {
    conn.prepare_cached(INSERT)?
        .query_row(
            named_params! {
                ":site": site, ":name": new.name, ":plural": new.plural,
                ":litres": new.litres, ":glyph": new.glyph, ":now": now,
            },
            from_row,
        )
        .map_err(|error| taken(error, &new.name))
}

const UPDATE: &str = "
    UPDATE measure
    SET name = :name, plural = :plural, litres = :litres, glyph = :glyph,
        version = version + 1, updated_at = :now
    WHERE id = :id AND version = :version
    RETURNING id, name, plural, litres, glyph, version";

/// Changes a container that was read at a version.
///
/// # Errors
/// [`StoreError::NotFound`], [`StoreError::Stale`], [`StoreError::NameTaken`].
pub fn update(
    conn: &Connection,
    id: MeasureId,
    version: i64,
    new: &NewMeasure,
    now: &str,
) -> Result<Measure, StoreError> {
    let changed = conn
        .prepare_cached(UPDATE)?
        .query_row(
            named_params! {
                ":id": id, ":version": version, ":name": new.name, ":plural": new.plural,
                ":litres": new.litres, ":glyph": new.glyph, ":now": now,
            },
            from_row,
        )
        .optional()
        .map_err(|error| taken(error, &new.name))?;
    versioned(changed, "measure", version, || {
        conn.query_row("SELECT version FROM measure WHERE id = ?1", [id], |row| row.get(0)).optional()
    })
}

fn taken(error: rusqlite::Error, name: &str) -> StoreError {
    if is_taken(&error) {
        StoreError::NameTaken { kind: "measure", name: name.to_owned() }
    } else {
        error.into()
    }
}

fn from_row(row: &Row<'_>) -> rusqlite::Result<Measure> {
    Ok(Measure {
        id: row.get("id")?,
        fields: NewMeasure {
            name: row.get("name")?,
            plural: row.get("plural")?,
            litres: row.get("litres")?,
            glyph: row.get("glyph")?,
        },
        version: row.get("version")?,
    })
}
