//! Stock: lots as records, each with how much the log says there is.

use rusqlite::{Connection, OptionalExtension, Row, named_params};
use zymarch_core::stock::Own;

use crate::error::StoreError;
use crate::held::Held;
use crate::id::{LotId, SiteId};
use crate::own;
use crate::record::Records;

const LOTS: Records = Records { table: "lot" };

/// A lot.
#[derive(Debug, Clone, PartialEq)]
pub struct Lot {
    /// Key.
    pub id: LotId,
    /// The farm or plot.
    pub site: SiteId,
    /// What it is.
    pub fields: LotFields,
    /// How much there is, by the log.
    pub held: Held,
    /// The day it was gathered, by the log.
    pub gathered_on: Option<String>,
    /// Counts changes of what it is.
    pub version: i64,
    /// When it was first written down, RFC 3339.
    pub created_at: String,
}

/// What a lot is, but for how much there is of it.
#[derive(Debug, Clone, PartialEq)]
pub struct LotFields {
    /// Id of the material.
    pub material: String,
    /// The person's own name for it.
    pub label: Option<String>,
    /// Figures in place of the book's.
    pub own: Own,
    /// What one of its unit costs, in the farm's own money.
    pub price: Option<f64>,
}

const SELECT: &str = "
    SELECT lot.id, lot.site_id, material, label, moisture, nitrogen, c_n, ash, lignin, density_kg_l, settle,
           chopped, price, version, created_at, amount, unit, measure_id, gathered_on
    FROM lot JOIN lot_stock ON lot_stock.lot_id = lot.id";

/// The stock of a site, in the order it was written down.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_site(conn: &Connection, site: SiteId) -> Result<Vec<Lot>, StoreError> {
    let sql = format!("{SELECT} WHERE lot.site_id = ?1 AND removed_at IS NULL ORDER BY lot.id");
    let mut statement = conn.prepare_cached(&sql)?;
    let rows = statement.query_map([site], from_row)?;
    Ok(rows.collect::<Result<_, _>>()?)
}

/// One lot.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none, or it was removed.
pub fn get(conn: &Connection, id: LotId) -> Result<Lot, StoreError> {
    one(conn, id, "AND removed_at IS NULL")
}

/// One lot, removed or not: what a batch gives back must not be lost.
///
/// # Errors
/// [`StoreError::NotFound`] if there never was one.
pub fn ever(conn: &Connection, id: LotId) -> Result<Lot, StoreError> {
    one(conn, id, "")
}

fn one(conn: &Connection, id: LotId, and: &str) -> Result<Lot, StoreError> {
    conn.prepare_cached(&format!("{SELECT} WHERE lot.id = ?1 {and}"))?
        .query_row([id], from_row)
        .optional()?
        .ok_or(StoreError::NotFound { kind: "lot" })
}

/// Whether there is, or ever was, one of that key.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn was_ever(conn: &Connection, id: LotId) -> Result<bool, StoreError> {
    LOTS.was_ever(conn, &id)
}

const INSERT: &str = "
    INSERT INTO lot (id, site_id, material, label, moisture, nitrogen, c_n, ash, lignin, density_kg_l, settle,
                     chopped, price, created_at, updated_at)
    VALUES (:id, :site, :material, :label, :moisture, :nitrogen, :c_n, :ash, :lignin, :density, :settle,
            :chopped, :price, :now, :now)";

/// A new lot; how much there is of it is for the log to say.
///
/// # Errors
/// [`StoreError::DanglingReference`] if its site does not exist.
pub fn insert(
    conn: &Connection,
    id: LotId,
    site: SiteId,
    new: &LotFields,
    now: &str,
) -> Result<(), StoreError> {
    conn.prepare_cached(INSERT)?.execute(named_params! {
        ":id": id, ":site": site, ":material": new.material, ":label": new.label,
        ":moisture": own::share(new.own.moisture), ":nitrogen": own::share(new.own.nitrogen),
        ":c_n": new.own.c_n, ":ash": own::share(new.own.ash), ":lignin": own::share(new.own.lignin),
        ":density": new.own.density_kg_l, ":settle": new.own.settle, ":chopped": new.own.chopped,
        ":price": new.price, ":now": now,
    })?;
    Ok(())
}

const UPDATE: &str = "
    UPDATE lot
    SET material = :material, label = :label, moisture = :moisture, nitrogen = :nitrogen, c_n = :c_n,
        ash = :ash, lignin = :lignin, density_kg_l = :density, settle = :settle, chopped = :chopped,
        price = :price, version = version + 1, updated_at = :now
    WHERE id = :id AND version = :version AND removed_at IS NULL";

/// Changes what a lot is, as it was read at a version.
///
/// # Errors
/// [`StoreError::NotFound`], [`StoreError::Stale`].
pub fn update(
    conn: &Connection,
    id: LotId,
    version: i64,
    new: &LotFields,
    now: &str,
) -> Result<(), StoreError> {
    let rows = conn.prepare_cached(UPDATE)?.execute(named_params! {
        ":id": id, ":version": version, ":material": new.material, ":label": new.label,
        ":moisture": own::share(new.own.moisture), ":nitrogen": own::share(new.own.nitrogen),
        ":c_n": new.own.c_n, ":ash": own::share(new.own.ash), ":lignin": own::share(new.own.lignin),
        ":density": new.own.density_kg_l, ":settle": new.own.settle, ":chopped": new.own.chopped,
        ":price": new.price, ":now": now,
    })?;
    LOTS.changed(conn, rows, &id, version)
}

/// Removes a lot; it can be brought back.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none, or it was removed already.
pub fn remove(conn: &Connection, id: LotId, now: &str) -> Result<(), StoreError> {
    LOTS.remove(conn, &id, now)
}

/// Brings a removed lot back. One that is there already stays as it is.
///
/// # Errors
/// [`StoreError::NotFound`] if there never was one.
pub fn restore(conn: &Connection, id: LotId) -> Result<Lot, StoreError> {
    LOTS.restore(conn, &id, "")?;
    get(conn, id)
}

fn from_row(row: &Row<'_>) -> rusqlite::Result<Lot> {
    Ok(Lot {
        id: row.get("id")?,
        site: row.get("site_id")?,
        fields: LotFields {
            material: row.get("material")?,
            label: row.get("label")?,
            own: own::from_row(row)?,
            price: row.get("price")?,
        },
        held: Held::from_row(row)?,
        gathered_on: row.get("gathered_on")?,
        version: row.get("version")?,
        created_at: row.get("created_at")?,
    })
}
