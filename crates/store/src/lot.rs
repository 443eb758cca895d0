//! Stock: amounts of materials on hand.

use rusqlite::{Connection, OptionalExtension, Row, named_params};
use zymarch_core::stock::Own;

use crate::error::{StoreError, versioned};
use crate::held::{self, Held};
use crate::id::{LotId, SiteId};
use crate::lot_event::{self, Change, EventKind};
use crate::own;

/// An amount of a material on hand.
#[derive(Debug, Clone, PartialEq)]
pub struct Lot {
    /// Key.
    pub id: LotId,
    /// What it is.
    pub fields: NewLot,
    /// Counts changes.
    pub version: i64,
    /// When it was first written down, RFC 3339.
    pub created_at: String,
}

/// What a lot is.
#[derive(Debug, Clone, PartialEq)]
pub struct NewLot {
    /// Id in the reference table.
    pub material: String,
    /// The person's own name for it.
    pub label: Option<String>,
    /// How much there is.
    pub held: Held,
    /// Figures in place of the book's.
    pub own: Own,
    /// The day it was gathered; the day it was written down if not said.
    pub gathered_on: Option<String>,
    /// What one of its unit costs, in the farm's own money.
    pub price: Option<f64>,
}

const OF_SITE: &str = "
    SELECT id, material, label, amount, unit, measure_id, moisture, nitrogen, c_n, ash, lignin,
           density_kg_l, settle, chopped, gathered_on, price, version, created_at
    FROM lot
    WHERE site_id = :site AND removed_at IS NULL
    ORDER BY id";

/// The stock of a site, in the order it was written down.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_site(conn: &Connection, site: SiteId) -> Result<Vec<Lot>, StoreError> {
    let mut statement = conn.prepare_cached(OF_SITE)?;
    let rows = statement.query_map(named_params! { ":site": site }, from_row)?;
    Ok(rows.collect::<Result<_, _>>()?)
}

const GET: &str = "
    SELECT id, material, label, amount, unit, measure_id, moisture, nitrogen, c_n, ash, lignin,
           density_kg_l, settle, chopped, gathered_on, price, version, created_at
    FROM lot
    WHERE id = :id AND removed_at IS NULL";

/// One lot.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none, or it was removed.
pub fn get(conn: &Connection, id: LotId) -> Result<Lot, StoreError> {
    conn.prepare_cached(GET)?
        .query_row(named_params! { ":id": id }, from_row)
        .optional()?
        .ok_or(StoreError::NotFound { kind: "lot" })
}

const INSERT: &str = "
    INSERT INTO lot (site_id, material, label, amount, unit, measure_id, moisture, nitrogen, c_n, ash,
                     lignin, density_kg_l, settle, chopped, gathered_on, price, created_at,
                     updated_at)
    VALUES (:site, :material, :label, :amount, :unit, :measure, :moisture, :nitrogen, :c_n, :ash,
            :lignin, :density, :settle, :chopped, :gathered, :price, :now, :now)
    RETURNING id";

/// A new lot.
///
/// # Errors
/// [`StoreError::DanglingReference`] if its measure or site does not exist.
pub fn insert(conn: &Connection, site: SiteId, new: &NewLot, now: &str) -> Result<Lot, StoreError> {
    let (amount, unit, measure) = new.held.columns();
    let id = conn.prepare_cached(INSERT)?.query_row(
        named_params! {
            ":site": site, ":material": new.material, ":label": new.label,
            ":amount": amount, ":unit": unit, ":measure": measure,
            ":moisture": own::share(new.own.moisture), ":nitrogen": own::share(new.own.nitrogen),
            ":c_n": new.own.c_n, ":ash": own::share(new.own.ash), ":lignin": own::share(new.own.lignin),
            ":density": new.own.density_kg_l, ":settle": new.own.settle, ":chopped": new.own.chopped,
            ":gathered": new.gathered_on, ":price": new.price, ":now": now,
        },
        |row| row.get(0),
    )?;
    let start = Change { kind: EventKind::Start, delta: amount, litres: 0.0, taker: None, note: None };
    lot_event::append(conn, id, new.held, &start, now)?;
    get(conn, id)
}

const UPDATE: &str = "
    UPDATE lot
    SET material = :material, label = :label, amount = :amount, unit = :unit, measure_id = :measure,
        moisture = :moisture, nitrogen = :nitrogen, c_n = :c_n, ash = :ash, lignin = :lignin,
        density_kg_l = :density, settle = :settle, chopped = :chopped, gathered_on = :gathered,
        price = :price, version = version + 1, updated_at = :now
    WHERE id = :id AND version = :version AND removed_at IS NULL
    RETURNING id";

/// Changes a lot that was read at a version.
///
/// # Errors
/// [`StoreError::NotFound`], [`StoreError::Stale`], [`StoreError::DanglingReference`].
pub fn update(
    conn: &Connection,
    id: LotId,
    version: i64,
    new: &NewLot,
    now: &str,
) -> Result<Lot, StoreError> {
    let before = held::of_lot(conn, id).ok();
    let (amount, unit, measure) = new.held.columns();
    let changed: Option<LotId> = conn
        .prepare_cached(UPDATE)?
        .query_row(
            named_params! {
                ":id": id, ":version": version, ":material": new.material, ":label": new.label,
                ":amount": amount, ":unit": unit, ":measure": measure,
                ":moisture": own::share(new.own.moisture), ":nitrogen": own::share(new.own.nitrogen),
                ":c_n": new.own.c_n, ":ash": own::share(new.own.ash), ":lignin": own::share(new.own.lignin),
                ":density": new.own.density_kg_l, ":settle": new.own.settle, ":chopped": new.own.chopped,
                ":gathered": new.gathered_on, ":price": new.price, ":now": now,
            },
            |row| row.get(0),
        )
        .optional()?;
    versioned(changed, "lot", version, || current_version(conn, id))?;
    if before != Some(new.held) {
        let delta = before.filter(|held| held.is_alike(new.held)).map_or(0.0, |held| amount - held.amount());
        let count = Change { kind: EventKind::Count, delta, litres: 0.0, taker: None, note: None };
        lot_event::append(conn, id, new.held, &count, now)?;
    }
    get(conn, id)
}

const REMOVE: &str = "
    UPDATE lot
    SET removed_at = :now, version = version + 1
    WHERE id = :id AND removed_at IS NULL";

/// Removes a lot; it can be brought back.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none, or it was removed already.
pub fn remove(conn: &Connection, id: LotId, now: &str) -> Result<(), StoreError> {
    match conn.prepare_cached(REMOVE)?.execute(named_params! { ":id": id, ":now": now })? {
        0 => Err(StoreError::NotFound { kind: "lot" }),
        _ => Ok(()),
    }
}

const RESTORE: &str = "
    UPDATE lot
    SET removed_at = NULL, version = version + 1
    WHERE id = :id AND removed_at IS NOT NULL";

/// Brings a removed lot back. One that is there already stays as it is.
///
/// # Errors
/// [`StoreError::NotFound`] if there never was one.
pub fn restore(conn: &Connection, id: LotId) -> Result<Lot, StoreError> {
    conn.prepare_cached(RESTORE)?.execute(named_params! { ":id": id })?;
    get(conn, id)
}

/// The site a lot is at, removed or not.
///
/// # Errors
/// [`StoreError::NotFound`] if there never was one.
pub fn site_of(conn: &Connection, id: LotId) -> Result<SiteId, StoreError> {
    conn.query_row("SELECT site_id FROM lot WHERE id = ?1", [id], |row| row.get(0))
        .optional()?
        .ok_or(StoreError::NotFound { kind: "lot" })
}

/// Sets the day a lot was gathered, as a delivery to an empty one does.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn set_gathered_on(conn: &Connection, id: LotId, day: &str) -> Result<(), StoreError> {
    conn.execute("UPDATE lot SET gathered_on = ?2 WHERE id = ?1", (id, day))?;
    Ok(())
}

fn current_version(conn: &Connection, id: LotId) -> rusqlite::Result<Option<i64>> {
    conn.query_row("SELECT version FROM lot WHERE id = ?1 AND removed_at IS NULL", [id], |row| row.get(0))
        .optional()
}

fn from_row(row: &Row<'_>) -> rusqlite::Result<Lot> {
    Ok(Lot {
        id: row.get("id")?,
        fields: NewLot {
            material: row.get("material")?,
            label: row.get("label")?,
            held: Held::from_row(row)?,
            own: own::from_row(row)?,
            gathered_on: row.get("gathered_on")?,
            price: row.get("price")?,
        },
        version: row.get("version")?,
        created_at: row.get("created_at")?,
    })
}
