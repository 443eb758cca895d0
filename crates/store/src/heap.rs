//! Heaps: batches as they are built, and what was done on build day.

use rusqlite::{Connection, OptionalExtension, Row, named_params};
use zymarch_core::heap::Shape;
use zymarch_core::layers::Role;

use crate::error::{StoreError, versioned};
use crate::id::{BatchId, HeapId, SiteId};
use crate::item::{Item, Items};
use crate::{own, shape};

const ITEMS: Items = Items { of: "heap" };

/// A heap.
#[derive(Debug, Clone, PartialEq)]
pub struct Heap {
    /// Key.
    pub id: HeapId,
    /// The farm or plot it stands on.
    pub site: SiteId,
    /// What it is.
    pub fields: NewHeap,
    /// Counts changes.
    pub version: i64,
    /// When what went in was taken from stock, if it was.
    pub taken_at: Option<String>,
    /// What was done, in order; the first is the plan it was begun by.
    pub acts: Vec<Act>,
}

/// What a heap is.
#[derive(Debug, Clone, PartialEq)]
pub struct NewHeap {
    /// The batch it is built of.
    pub batch: Option<BatchId>,
    /// What it is called.
    pub name: String,
    /// Its shape.
    pub shape: Shape,
    /// The way it is composted.
    pub method: Option<String>,
    /// What may go in.
    pub items: Vec<Item>,
}

/// Something done on build day.
#[derive(Debug, Clone, PartialEq)]
pub struct Act {
    /// Whether it was laid or planned.
    pub is_laid: bool,
    /// The step that was laid, or the first one planned.
    pub from_step: u32,
    /// The step laid, or all that are to come.
    pub steps: Vec<Step>,
    /// When, RFC 3339.
    pub made_at: String,
}

/// A layer or a load.
#[derive(Debug, Clone, PartialEq)]
pub struct Step {
    /// What it is for.
    pub role: Role,
    /// Which repeat or load, from 1.
    pub cycle: Option<u32>,
    /// Places of items, with how much in their unit.
    pub portions: Vec<(u32, f64)>,
    /// Water [L].
    pub water_l: f64,
    /// What is no part of the mix [L].
    pub beside_l: f64,
}

const COLUMNS: &str = "id, site_id, batch_id, name, shape, length_cm, width_cm, top_cm, diameter_cm,
           height_cm, columns, method, taken_at, version";

/// The heaps of a site, last changed first.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_site(conn: &Connection, site: SiteId) -> Result<Vec<Heap>, StoreError> {
    let mut statement = conn.prepare_cached(&format!(
        "SELECT {COLUMNS} FROM heap WHERE site_id = :site AND removed_at IS NULL ORDER BY updated_at DESC, id DESC"
    ))?;
    let rows = statement.query_map(named_params! { ":site": site }, from_row)?;
    let mut heaps = rows.collect::<Result<Vec<_>, _>>()?;
    heaps.iter_mut().try_for_each(|heap| fill(conn, heap))?;
    Ok(heaps)
}

/// One heap.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none, or it was removed.
pub fn get(conn: &Connection, id: HeapId) -> Result<Heap, StoreError> {
    let mut heap = conn
        .prepare_cached(&format!("SELECT {COLUMNS} FROM heap WHERE id = :id AND removed_at IS NULL"))?
        .query_row(named_params! { ":id": id }, from_row)
        .optional()?
        .ok_or(StoreError::NotFound { kind: "heap" })?;
    fill(conn, &mut heap)?;
    Ok(heap)
}

fn fill(conn: &Connection, heap: &mut Heap) -> Result<(), StoreError> {
    heap.fields.items = ITEMS.of(conn, heap.id.0)?;
    heap.acts = acts(conn, heap.id)?;
    Ok(())
}

const INSERT: &str = "
    INSERT INTO heap (site_id, batch_id, name, shape, length_cm, width_cm, top_cm, diameter_cm,
                      height_cm, columns, method, created_at, updated_at)
    VALUES (:site, :batch, :name, :shape, :length, :width, :top, :diameter, :height, :columns, :method,
            :now, :now)
    RETURNING id";

/// A new heap, with the plan it is begun by.
///
/// # Errors
/// [`StoreError::DanglingReference`] if a lot or measure does not exist.
pub fn insert(
    conn: &Connection,
    site: SiteId,
    new: &NewHeap,
    plan: &[Step],
    now: &str,
) -> Result<Heap, StoreError> {
    let sides = new.shape.sides();
    let id: HeapId = conn.prepare_cached(INSERT)?.query_row(
        named_params! {
            ":site": site, ":batch": new.batch, ":name": new.name, ":shape": new.shape.kind().as_str(),
            ":length": sides.length_cm, ":width": sides.width_cm, ":top": sides.top_cm,
            ":diameter": sides.diameter_cm, ":height": sides.height_cm, ":columns": sides.columns,
            ":method": new.method, ":now": now,
        },
        |row| row.get(0),
    )?;
    ITEMS.insert(conn, id.0, 0, &new.items)?;
    let plan = Act { is_laid: false, from_step: 0, steps: plan.to_vec(), made_at: now.to_owned() };
    insert_act(conn, id, &plan)?;
    get(conn, id)
}

/// Notes what was done, with the items that nobody had planned.
///
/// # Errors
/// [`StoreError::NotFound`], [`StoreError::Stale`], [`StoreError::DanglingReference`].
pub fn add_act(
    conn: &Connection,
    id: HeapId,
    version: i64,
    act: &Act,
    new_items: &[Item],
) -> Result<Heap, StoreError> {
    touch(conn, id, version, &act.made_at)?;
    let had = ITEMS.of(conn, id.0)?.len();
    ITEMS.insert(conn, id.0, had, new_items)?;
    insert_act(conn, id, act)?;
    get(conn, id)
}

const UNDO: &str = "
    DELETE FROM heap_act
    WHERE id = (SELECT max(id) FROM heap_act WHERE heap_id = :id)
      AND id > (SELECT min(id) FROM heap_act WHERE heap_id = :id)";

/// Undoes what was done last; the plan it was begun by stays.
///
/// # Errors
/// [`StoreError::NotFound`] if there is no such heap, or nothing to undo;
/// [`StoreError::Stale`].
pub fn undo(conn: &Connection, id: HeapId, version: i64, now: &str) -> Result<Heap, StoreError> {
    touch(conn, id, version, now)?;
    match conn.prepare_cached(UNDO)?.execute(named_params! { ":id": id })? {
        0 => Err(StoreError::NotFound { kind: "step to undo" }),
        _ => get(conn, id),
    }
}

const SET_TAKEN: &str = "
    UPDATE heap
    SET taken_at = :taken, version = version + 1
    WHERE id = :id AND version = :version AND removed_at IS NULL
    RETURNING id";

/// Notes that what went into a heap was taken from stock, or given back.
///
/// # Errors
/// [`StoreError::NotFound`], [`StoreError::Stale`].
pub fn set_taken(
    conn: &Connection,
    id: HeapId,
    version: i64,
    taken_at: Option<&str>,
) -> Result<Heap, StoreError> {
    let changed: Option<HeapId> = conn
        .prepare_cached(SET_TAKEN)?
        .query_row(named_params! { ":id": id, ":version": version, ":taken": taken_at }, |row| row.get(0))
        .optional()?;
    at_version(conn, changed, id, version)?;
    get(conn, id)
}

/// Whether a heap built of a batch took what went in.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn has_taken(conn: &Connection, batch: BatchId) -> Result<bool, StoreError> {
    let sql = "SELECT EXISTS (SELECT 1 FROM heap WHERE batch_id = ?1 AND taken_at IS NOT NULL AND removed_at IS NULL)";
    Ok(conn.prepare_cached(sql)?.query_row([batch], |row| row.get(0))?)
}

const REMOVE: &str = "
    UPDATE heap SET removed_at = :now, version = version + 1 WHERE id = :id AND removed_at IS NULL";

/// Removes a heap; it can be brought back.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none, or it was removed already.
pub fn remove(conn: &Connection, id: HeapId, now: &str) -> Result<(), StoreError> {
    match conn.prepare_cached(REMOVE)?.execute(named_params! { ":id": id, ":now": now })? {
        0 => Err(StoreError::NotFound { kind: "heap" }),
        _ => Ok(()),
    }
}

/// Brings a removed heap back. One that is there already stays as it is.
///
/// # Errors
/// [`StoreError::NotFound`] if there never was one.
pub fn restore(conn: &Connection, id: HeapId) -> Result<Heap, StoreError> {
    conn.prepare_cached(
        "UPDATE heap SET removed_at = NULL, version = version + 1 WHERE id = :id AND removed_at IS NOT NULL",
    )?
    .execute(named_params! { ":id": id })?;
    get(conn, id)
}

const TOUCH: &str = "
    UPDATE heap
    SET version = version + 1, updated_at = :now
    WHERE id = :id AND version = :version AND removed_at IS NULL
    RETURNING id";

fn touch(conn: &Connection, id: HeapId, version: i64, now: &str) -> Result<(), StoreError> {
    let changed: Option<HeapId> = conn
        .prepare_cached(TOUCH)?
        .query_row(named_params! { ":id": id, ":version": version, ":now": now }, |row| row.get(0))
        .optional()?;
    at_version(conn, changed, id, version)
}

fn at_version(
    conn: &Connection,
    changed: Option<HeapId>,
    id: HeapId,
    version: i64,
) -> Result<(), StoreError> {
    versioned(changed, "heap", version, || {
        conn.query_row("SELECT version FROM heap WHERE id = ?1 AND removed_at IS NULL", [id], |row| {
            row.get(0)
        })
        .optional()
    })
    .map(|_| ())
}

const INSERT_ACT: &str = "
    INSERT INTO heap_act (heap_id, kind, from_step, made_at) VALUES (:heap, :kind, :from, :made_at)
    RETURNING id";

const INSERT_STEP: &str = "
    INSERT INTO heap_step (act_id, position, role, cycle, water_l, beside_l)
    VALUES (:act, :position, :role, :cycle, :water, :beside)";

const INSERT_PORTION: &str = "
    INSERT INTO heap_portion (act_id, position, place, item, amount)
    VALUES (:act, :position, :place, :item, :amount)";

fn insert_act(conn: &Connection, heap: HeapId, act: &Act) -> Result<(), StoreError> {
    let id: i64 = conn.prepare_cached(INSERT_ACT)?.query_row(
        named_params! {
            ":heap": heap, ":kind": if act.is_laid { "laid" } else { "planned" },
            ":from": act.from_step, ":made_at": act.made_at,
        },
        |row| row.get(0),
    )?;
    for (position, step) in (0_i64..).zip(&act.steps) {
        conn.prepare_cached(INSERT_STEP)?.execute(named_params! {
            ":act": id, ":position": position, ":role": step.role.as_str(), ":cycle": step.cycle,
            ":water": step.water_l, ":beside": step.beside_l,
        })?;
        for (place, &(item, amount)) in (0_i64..).zip(&step.portions) {
            conn.prepare_cached(INSERT_PORTION)?.execute(named_params! {
                ":act": id, ":position": position, ":place": place, ":item": item, ":amount": amount,
            })?;
        }
    }
    Ok(())
}

const STEPS: &str = "
    SELECT act.id AS act, act.kind, act.from_step, act.made_at,
           step.position, step.role, step.cycle, step.water_l, step.beside_l,
           portion.item, portion.amount
    FROM heap_act act
    LEFT JOIN heap_step step ON step.act_id = act.id
    LEFT JOIN heap_portion portion ON portion.act_id = step.act_id AND portion.position = step.position
    WHERE act.heap_id = :heap
    ORDER BY act.id, step.position, portion.place";

fn acts(conn: &Connection, heap: HeapId) -> Result<Vec<Act>, StoreError> {
    let mut statement = conn.prepare_cached(STEPS)?;
    let mut rows = statement.query(named_params! { ":heap": heap })?;
    let mut acts: Vec<(i64, Act)> = Vec::new();
    while let Some(row) = rows.next()? {
        let id: i64 = row.get("act")?;
        if acts.last().is_none_or(|(last, _)| *last != id) {
            let act = Act {
                is_laid: row.get::<_, String>("kind")? == "laid",
                from_step: row.get("from_step")?,
                steps: Vec::new(),
                made_at: row.get("made_at")?,
            };
            acts.push((id, act));
        }
        let Some((_, act)) = acts.last_mut() else { continue };
        let Some(position) = row.get::<_, Option<u32>>("position")? else { continue };
        if act.steps.len() == position as usize {
            act.steps.push(Step {
                role: own::word(row, "role", Role::parse)?,
                cycle: row.get("cycle")?,
                portions: Vec::new(),
                water_l: row.get("water_l")?,
                beside_l: row.get("beside_l")?,
            });
        }
        let portion = row.get::<_, Option<u32>>("item")?.zip(row.get("amount")?);
        if let Some(step) = act.steps.last_mut() {
            step.portions.extend(portion);
        }
    }
    Ok(acts.into_iter().map(|(_, act)| act).collect())
}

fn from_row(row: &Row<'_>) -> rusqlite::Result<Heap> {
    Ok(Heap {
        id: row.get("id")?,
        site: row.get("site_id")?,
        fields: NewHeap {
            batch: row.get("batch_id")?,
            name: row.get("name")?,
            shape: shape::from_row(row)?,
            method: row.get("method")?,
            items: Vec::new(),
        },
        version: row.get("version")?,
        taken_at: row.get("taken_at")?,
        acts: Vec::new(),
    })
}
