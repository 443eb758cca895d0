//! Saved batches: a recipe with a name, and the heap it is meant for.

use rusqlite::{Connection, OptionalExtension, Row, named_params};
use zymarch_core::heap::Shape;

use crate::error::{StoreError, is_taken, versioned};
use crate::id::{BatchId, SiteId};
use crate::item::{Item, Items};
use crate::shape;

const ITEMS: Items = Items { of: "batch" };

/// A saved batch.
#[derive(Debug, Clone, PartialEq)]
pub struct Batch {
    /// Key.
    pub id: BatchId,
    /// What it is.
    pub fields: NewBatch,
    /// Counts changes.
    pub version: i64,
    /// When it was first saved, RFC 3339.
    pub created_at: String,
    /// When it was last saved.
    pub updated_at: String,
    /// When its amounts were taken from stock, if they were.
    pub taken_at: Option<String>,
}

/// What a batch is.
#[derive(Debug, Clone, PartialEq)]
pub struct NewBatch {
    /// What it is called.
    pub name: String,
    /// Water added [L].
    pub water_l: f64,
    /// The heap it is meant for.
    pub shape: Shape,
    /// The way it is composted, an id of the core's list.
    pub method: Option<String>,
    /// The day it is to be built.
    pub build_on: Option<String>,
    /// What is to help it begin, ids of the core's list.
    pub starters: Vec<String>,
    /// What goes in, in order.
    pub items: Vec<Item>,
}

const OF_SITE: &str = "
    SELECT id, name, water_l, shape, length_cm, width_cm, top_cm, diameter_cm, height_cm, columns,
           method, build_on, starters, version, created_at, updated_at, taken_at
    FROM batch
    WHERE site_id = :site AND removed_at IS NULL
    ORDER BY updated_at DESC, id DESC";

/// The batches of a site, last saved first.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_site(conn: &Connection, site: SiteId) -> Result<Vec<Batch>, StoreError> {
    let mut statement = conn.prepare_cached(OF_SITE)?;
    let rows = statement.query_map(named_params! { ":site": site }, from_row)?;
    let mut batches = rows.collect::<Result<Vec<_>, _>>()?;
    for batch in &mut batches {
        batch.fields.items = ITEMS.of(conn, batch.id.0)?;
    }
    Ok(batches)
}

const GET: &str = "
    SELECT id, name, water_l, shape, length_cm, width_cm, top_cm, diameter_cm, height_cm, columns,
           method, build_on, starters, version, created_at, updated_at, taken_at
    FROM batch
    WHERE id = :id AND removed_at IS NULL";

/// One batch.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none, or it was removed.
pub fn get(conn: &Connection, id: BatchId) -> Result<Batch, StoreError> {
    let mut batch = conn
        .prepare_cached(GET)?
        .query_row(named_params! { ":id": id }, from_row)
        .optional()?
        .ok_or(StoreError::NotFound { kind: "batch" })?;
    batch.fields.items = ITEMS.of(conn, id.0)?;
    Ok(batch)
}

/// The farm or plot a batch belongs to.
///
/// # Errors
/// [`StoreError::NotFound`] if there is no such batch.
pub fn site_of(conn: &Connection, id: BatchId) -> Result<SiteId, StoreError> {
    conn.query_row("SELECT site_id FROM batch WHERE id = ?1", [id], |row| row.get(0))
        .optional()?
        .ok_or(StoreError::NotFound { kind: "batch" })
}

const INSERT: &str = "
    INSERT INTO batch (site_id, name, water_l, shape, length_cm, width_cm, top_cm, diameter_cm,
                       height_cm, columns, method, build_on, starters, created_at, updated_at)
    VALUES (:site, :name, :water, :shape, :length, :width, :top, :diameter, :height, :columns, :method,
            :build_on, :starters, :now, :now)
    RETURNING id";

/// A new batch.
///
/// # Errors
/// [`StoreError::NameTaken`] if the site has one of that name;
/// [`StoreError::DanglingReference`] if a lot or measure does not exist.
pub fn insert(conn: &Connection, site: SiteId, new: &NewBatch, now: &str) -> Result<Batch, StoreError> {
    let sides = new.shape.sides();
    let id: BatchId = conn
        .prepare_cached(INSERT)?
        .query_row(
            named_params! {
                ":site": site, ":name": new.name, ":water": new.water_l, ":shape": new.shape.kind().as_str(),
                ":length": sides.length_cm, ":width": sides.width_cm, ":top": sides.top_cm,
                ":diameter": sides.diameter_cm, ":height": sides.height_cm, ":columns": sides.columns,
                ":method": new.method, ":build_on": new.build_on, ":starters": new.starters.join(";"), ":now": now,
            },
            |row| row.get(0),
        )
        .map_err(|error| taken(error, &new.name))?;
    ITEMS.insert(conn, id.0, 0, &new.items)?;
    get(conn, id)
}

const UPDATE: &str = "
    UPDATE batch
    SET name = :name, water_l = :water, shape = :shape, length_cm = :length, width_cm = :width,
        top_cm = :top, diameter_cm = :diameter, height_cm = :height, columns = :columns, method = :method,
        build_on = :build_on, starters = :starters, version = version + 1, updated_at = :now
    WHERE id = :id AND version = :version AND removed_at IS NULL
    RETURNING id";

/// Changes a batch that was read at a version.
///
/// # Errors
/// [`StoreError::NotFound`], [`StoreError::Stale`], [`StoreError::NameTaken`],
/// [`StoreError::DanglingReference`].
pub fn update(
    conn: &Connection,
    id: BatchId,
    version: i64,
    new: &NewBatch,
    now: &str,
) -> Result<Batch, StoreError> {
    let sides = new.shape.sides();
    let changed: Option<BatchId> = conn
        .prepare_cached(UPDATE)?
        .query_row(
            named_params! {
                ":id": id, ":version": version, ":name": new.name, ":water": new.water_l,
                ":shape": new.shape.kind().as_str(), ":length": sides.length_cm, ":width": sides.width_cm,
                ":top": sides.top_cm, ":diameter": sides.diameter_cm, ":height": sides.height_cm,
                ":columns": sides.columns, ":method": new.method, ":build_on": new.build_on, ":starters": new.starters.join(";"), ":now": now,
            },
            |row| row.get(0),
        )
        .optional()
        .map_err(|error| taken(error, &new.name))?;
    versioned(changed, "batch", version, || {
        conn.query_row("SELECT version FROM batch WHERE id = ?1 AND removed_at IS NULL", [id], |row| {
            row.get(0)
        })
        .optional()
    })?;
    ITEMS.clear(conn, id.0)?;
    ITEMS.insert(conn, id.0, 0, &new.items)?;
    get(conn, id)
}

const REMOVE: &str = "
    UPDATE batch
    SET removed_at = :now, version = version + 1
    WHERE id = :id AND removed_at IS NULL";

/// Removes a batch; it can be brought back.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none, or it was removed already.
pub fn remove(conn: &Connection, id: BatchId, now: &str) -> Result<(), StoreError> {
    match conn.prepare_cached(REMOVE)?.execute(named_params! { ":id": id, ":now": now })? {
        0 => Err(StoreError::NotFound { kind: "batch" }),
        _ => Ok(()),
    }
}

const RESTORE: &str = "
    UPDATE batch
    SET removed_at = NULL, version = version + 1
    WHERE id = :id AND removed_at IS NOT NULL";

/// Brings a removed batch back. One that is there already stays as it is.
///
/// # Errors
/// [`StoreError::NotFound`] if there never was one; [`StoreError::NameTaken`]
/// if another took its name meanwhile.
pub fn restore(conn: &Connection, id: BatchId) -> Result<Batch, StoreError> {
    conn.prepare_cached(RESTORE)?
        .execute(named_params! { ":id": id })
        .map_err(|error| taken(error, "that name"))?;
    get(conn, id)
}

const SET_TAKEN: &str = "
    UPDATE batch
    SET taken_at = :taken, version = version + 1
    WHERE id = :id AND version = :version AND removed_at IS NULL
    RETURNING id";

/// Notes that the amounts of a batch were taken from stock, or given back.
///
/// # Errors
/// [`StoreError::NotFound`], [`StoreError::Stale`].
pub fn set_taken(
    conn: &Connection,
    id: BatchId,
    version: i64,
    taken_at: Option<&str>,
) -> Result<Batch, StoreError> {
    let changed: Option<BatchId> = conn
        .prepare_cached(SET_TAKEN)?
        .query_row(named_params! { ":id": id, ":version": version, ":taken": taken_at }, |row| row.get(0))
        .optional()?;
    versioned(changed, "batch", version, || {
        conn.query_row("SELECT version FROM batch WHERE id = ?1 AND removed_at IS NULL", [id], |row| {
            row.get(0)
        })
        .optional()
    })?;
    get(conn, id)
}

fn words(text: &str) -> Vec<String> {
    text.split(';').filter(|word| !word.is_empty()).map(str::to_owned).collect()
}

fn taken(error: rusqlite::Error, name: &str) -> StoreError {
    if is_taken(&error) {
        StoreError::NameTaken { kind: "batch", name: name.to_owned() }
    } else {
        error.into()
    }
}

fn from_row(row: &Row<'_>) -> rusqlite::Result<Batch> {
    let shape = shape::from_row(row)?;
    Ok(Batch {
        id: row.get("id")?,
        fields: NewBatch {
            name: row.get("name")?,
            water_l: row.get("water_l")?,
            shape,
            method: row.get("method")?,
            build_on: row.get("build_on")?,
            starters: words(&row.get::<_, String>("starters")?),
            items: Vec::new(),
        },
        version: row.get("version")?,
        created_at: row.get("created_at")?,
        updated_at: row.get("updated_at")?,
        taken_at: row.get("taken_at")?,
    })
}
