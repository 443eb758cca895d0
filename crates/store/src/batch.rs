//! Saved batches: a recipe with a name, and the heap it is meant for.

use rusqlite::{Connection, OptionalExtension, Row, named_params};
use zymarch_core::plan::heap::Shape;

use crate::error::{StoreError, name_taken};
use crate::id::{BatchId, SiteId};
use crate::item::{self, Item};
use crate::record::Records;
use crate::shape;

const BATCHES: Records = Records { table: "batch" };

/// A saved batch.
#[derive(Debug, Clone, PartialEq)]
pub struct Batch {
    /// Key.
    pub id: BatchId,
    /// The farm or plot.
    pub site: SiteId,
    /// What it is.
    pub fields: BatchFields,
    /// Counts changes.
    pub version: i64,
    /// When it was first saved, RFC 3339.
    pub created_at: String,
    /// When it was last saved.
    pub updated_at: String,
    /// When its amounts were taken from stock, by the log, milliseconds since 1970.
    pub taken_ms: Option<i64>,
}

/// What a batch is.
#[derive(Debug, Clone, PartialEq)]
pub struct BatchFields {
    /// What it is called.
    pub name: String,
    /// Water added [L].
    pub water_l: f64,
    /// The heap it is meant for.
    pub shape: Shape,
    /// How many of them alike hold it.
    pub heaps: u32,
    /// The method it is composted by.
    pub method: Option<String>,
    /// The day it is to be built.
    pub build_on: Option<String>,
    /// What is to help it begin, ids of the core's list.
    pub starters: Vec<String>,
    /// What goes in, in order.
    pub items: Vec<Item>,
}

const SELECT: &str = "
    SELECT id, site_id, name, water_l, shape, length_cm, width_cm, top_cm, diameter_cm, height_cm, columns, heaps,
           method, build_on, starters, version, created_at, updated_at, taken_ms
    FROM batch LEFT JOIN batch_stock ON batch_stock.batch_id = batch.id";

/// The batches of a site, last saved first.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_site(conn: &Connection, site: SiteId) -> Result<Vec<Batch>, StoreError> {
    let sql = format!("{SELECT} WHERE site_id = ?1 AND removed_at IS NULL ORDER BY updated_at DESC, id DESC");
    let mut statement = conn.prepare_cached(&sql)?;
    let rows = statement.query_map([site], from_row)?;
    let mut batches = rows.collect::<Result<Vec<_>, _>>()?;
    let mut items = item::of_site(conn, site)?;
    for batch in &mut batches {
        batch.fields.items = items.remove(&batch.id).unwrap_or_default();
    }
    Ok(batches)
}

/// One batch.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none, or it was removed.
pub fn get(conn: &Connection, id: BatchId) -> Result<Batch, StoreError> {
    let mut batch = conn
        .prepare_cached(&format!("{SELECT} WHERE id = ?1 AND removed_at IS NULL"))?
        .query_row([id], from_row)
        .optional()?
        .ok_or(StoreError::NotFound { kind: "batch" })?;
    batch.fields.items = item::of_batch(conn, id)?;
    Ok(batch)
}

/// Whether there is, or ever was, one of that key.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn was_ever(conn: &Connection, id: BatchId) -> Result<bool, StoreError> {
    BATCHES.was_ever(conn, &id)
}

const INSERT: &str = "
    INSERT INTO batch (id, site_id, name, water_l, shape, length_cm, width_cm, top_cm, diameter_cm, height_cm,
                       columns, heaps, method, build_on, starters, created_at, updated_at)
    VALUES (:id, :site, :name, :water, :shape, :length, :width, :top, :diameter, :height, :columns, :heaps, :method,
            :build_on, :starters, :now, :now)";

/// A new batch.
///
/// # Errors
/// [`StoreError::NameTaken`] if the site has one of that name;
/// [`StoreError::DanglingReference`] if a lot or measure does not exist.
pub fn insert(
    conn: &Connection,
    id: BatchId,
    site: SiteId,
    new: &BatchFields,
    now: &str,
) -> Result<Batch, StoreError> {
    let sides = new.shape.sides();
    conn.prepare_cached(INSERT)?
        .execute(named_params! {
            ":id": id, ":site": site, ":name": new.name, ":water": new.water_l,
            ":shape": new.shape.kind().as_str(), ":length": sides.length_cm, ":width": sides.width_cm,
            ":top": sides.top_cm, ":diameter": sides.diameter_cm, ":height": sides.height_cm,
            ":columns": sides.columns, ":heaps": new.heaps, ":method": new.method, ":build_on": new.build_on,
            ":starters": new.starters.join(";"), ":now": now,
        })
        .map_err(|error| name_taken(error, "batch", &new.name))?;
    item::set(conn, id, &new.items)?;
    get(conn, id)
}

const UPDATE: &str = "
    UPDATE batch
    SET name = :name, water_l = :water, shape = :shape, length_cm = :length, width_cm = :width, top_cm = :top,
        diameter_cm = :diameter, height_cm = :height, columns = :columns, heaps = :heaps, method = :method,
        build_on = :build_on, starters = :starters, version = version + 1, updated_at = :now
    WHERE id = :id AND version = :version AND removed_at IS NULL";

/// Changes a batch that was read at a version.
///
/// # Errors
/// [`StoreError::NotFound`], [`StoreError::Stale`], [`StoreError::NameTaken`],
/// [`StoreError::DanglingReference`].
pub fn update(
    conn: &Connection,
    id: BatchId,
    version: i64,
    new: &BatchFields,
    now: &str,
) -> Result<Batch, StoreError> {
    let sides = new.shape.sides();
    let rows = conn
        .prepare_cached(UPDATE)?
        .execute(named_params! {
            ":id": id, ":version": version, ":name": new.name, ":water": new.water_l,
            ":shape": new.shape.kind().as_str(), ":length": sides.length_cm, ":width": sides.width_cm,
            ":top": sides.top_cm, ":diameter": sides.diameter_cm, ":height": sides.height_cm,
            ":columns": sides.columns, ":heaps": new.heaps, ":method": new.method, ":build_on": new.build_on,
            ":starters": new.starters.join(";"), ":now": now,
        })
        .map_err(|error| name_taken(error, "batch", &new.name))?;
    BATCHES.changed(conn, rows, &id, version)?;
    item::set(conn, id, &new.items)?;
    get(conn, id)
}

/// Counts a change that the log made: amounts taken from stock, or given back.
///
/// # Errors
/// [`StoreError::NotFound`], [`StoreError::Stale`].
pub fn touch(conn: &Connection, id: BatchId, version: i64) -> Result<(), StoreError> {
    let sql = "UPDATE batch SET version = version + 1 WHERE id = ?1 AND version = ?2 AND removed_at IS NULL";
    let rows = conn.prepare_cached(sql)?.execute((id, version))?;
    BATCHES.changed(conn, rows, &id, version)
}

/// Removes a batch; it can be brought back.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none, or it was removed already.
pub fn remove(conn: &Connection, id: BatchId, now: &str) -> Result<(), StoreError> {
    BATCHES.remove(conn, &id, now)
}

/// Brings a removed batch back; says whether it was away.
///
/// # Errors
/// [`StoreError::NotFound`] if there never was one; [`StoreError::NameTaken`]
/// if another took its name meanwhile.
pub fn restore(conn: &Connection, id: BatchId) -> Result<(Batch, bool), StoreError> {
    let name: Option<String> =
        conn.query_row("SELECT name FROM batch WHERE id = ?1", [id], |row| row.get(0)).optional()?;
    let was_away = BATCHES.restore(conn, &id, &name.unwrap_or_default())?;
    Ok((get(conn, id)?, was_away))
}

fn words(text: &str) -> Vec<String> {
    text.split(';').filter(|word| !word.is_empty()).map(str::to_owned).collect()
}

fn from_row(row: &Row<'_>) -> rusqlite::Result<Batch> {
    Ok(Batch {
        id: row.get("id")?,
        site: row.get("site_id")?,
        fields: BatchFields {
            name: row.get("name")?,
            water_l: row.get("water_l")?,
            shape: shape::from_row(row)?,
            heaps: row.get("heaps")?,
            method: row.get("method")?,
            build_on: row.get("build_on")?,
            starters: words(&row.get::<_, String>("starters")?),
            items: Vec::new(),
        },
        version: row.get("version")?,
        created_at: row.get("created_at")?,
        updated_at: row.get("updated_at")?,
        taken_ms: row.get("taken_ms")?,
    })
}

/// What of a batch's preparing is done, as words of its tasks.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn done(conn: &Connection, id: BatchId) -> Result<Vec<String>, StoreError> {
    let sql = "SELECT task FROM batch_done WHERE batch_id = ?1 ORDER BY task";
    let mut statement = conn.prepare_cached(sql)?;
    let tasks = statement.query_map([id], |row| row.get(0))?;
    Ok(tasks.collect::<Result<_, _>>()?)
}

/// The same of all batches of a site, batch by batch.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn done_at(conn: &Connection, site: SiteId) -> Result<Vec<(BatchId, String)>, StoreError> {
    let sql = "SELECT batch_done.batch_id, task FROM batch_done JOIN batch ON batch.id = batch_done.batch_id
               WHERE site_id = ?1 ORDER BY batch_done.batch_id, task";
    let mut statement = conn.prepare_cached(sql)?;
    let rows = statement.query_map([site], |row| Ok((row.get(0)?, row.get(1)?)))?;
    Ok(rows.collect::<Result<_, _>>()?)
}

/// Ticks a task of a batch's preparing off, or takes that back.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn set_done(
    conn: &Connection,
    id: BatchId,
    (task, done_ms): (&str, Option<i64>),
) -> Result<(), StoreError> {
    let changed = match done_ms {
        Some(ms) => conn
            .prepare_cached("INSERT OR IGNORE INTO batch_done (batch_id, task, done_ms) VALUES (?1, ?2, ?3)")?
            .execute(rusqlite::params![id, task, ms]),
        None => conn
            .prepare_cached("DELETE FROM batch_done WHERE batch_id = ?1 AND task = ?2")?
            .execute(rusqlite::params![id, task]),
    };
    changed?;
    Ok(())
}
