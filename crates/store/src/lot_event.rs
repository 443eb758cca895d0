//! What came to a lot and what went from it: its small history.
//!
//! The lot's own amount is what is left; each event says how it came to be so.
//! What a batch or a heap took is found here again when it is given back.

use rusqlite::{Connection, OptionalExtension, Row, named_params};

use crate::error::StoreError;
use crate::held::{self, Held};
use crate::id::{BatchId, HeapId, LotEventId, LotId};
use crate::own;

/// What happened.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum EventKind {
    /// It was written down.
    Start,
    /// More came.
    Delivery,
    /// Some was used otherwise.
    Use,
    /// Some spoiled.
    Spoiled,
    /// It was counted anew.
    Count,
    /// A batch took some.
    Batch,
    /// A batch gave it back.
    GiveBack,
}

impl EventKind {
    const ALL: [Self; 7] =
        [Self::Start, Self::Delivery, Self::Use, Self::Spoiled, Self::Count, Self::Batch, Self::GiveBack];

    /// The word used in the file and the open formats.
    #[must_use]
    pub const fn as_str(self) -> &'static str {
        match self {
            Self::Start => "start",
            Self::Delivery => "delivery",
            Self::Use => "use",
            Self::Spoiled => "spoiled",
            Self::Count => "count",
            Self::Batch => "batch",
            Self::GiveBack => "give-back",
        }
    }

    fn parse(word: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|kind| kind.as_str() == word)
    }

    /// Whether a person may take it back by itself.
    #[must_use]
    pub const fn can_be_undone(self) -> bool {
        matches!(self, Self::Delivery | Self::Use | Self::Spoiled)
    }
}

/// What takes from stock, and gives back.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Taker {
    /// A batch, by its recipe.
    Batch(BatchId),
    /// A heap, by what went into it.
    Heap(HeapId),
}

impl Taker {
    const fn columns(self) -> (Option<BatchId>, Option<HeapId>) {
        match self {
            Self::Batch(id) => (Some(id), None),
            Self::Heap(id) => (None, Some(id)),
        }
    }
}

/// One entry of a lot's history.
#[derive(Debug, Clone, PartialEq)]
pub struct LotEvent {
    /// Key.
    pub id: LotEventId,
    /// Of which lot.
    pub lot: LotId,
    /// When, RFC 3339.
    pub at: String,
    /// What happened.
    pub kind: EventKind,
    /// By how much it changed, in the unit of `left`.
    pub delta: f64,
    /// What was left afterwards, in the unit the lot had then.
    pub left: Held,
    /// The change in loose litres.
    pub litres: f64,
    /// What took it or gave it back.
    pub taker: Option<Taker>,
    /// The person's words.
    pub note: Option<String>,
}

/// A change of a lot's amount, in the lot's unit.
#[derive(Debug, Clone, PartialEq)]
pub struct Change {
    /// What happened.
    pub kind: EventKind,
    /// By how much, below zero for what goes.
    pub delta: f64,
    /// The same in loose litres.
    pub litres: f64,
    /// What is behind it.
    pub taker: Option<Taker>,
    /// The person's words.
    pub note: Option<String>,
}

const OF_LOT: &str = "
    SELECT id, lot_id, at, kind, delta, amount, unit, measure_id, litres, batch_id, heap_id, note
    FROM lot_event
    WHERE lot_id = :lot
    ORDER BY id DESC";

/// The history of a lot, newest first.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_lot(conn: &Connection, lot: LotId) -> Result<Vec<LotEvent>, StoreError> {
    let mut statement = conn.prepare_cached(OF_LOT)?;
    let rows = statement.query_map(named_params! { ":lot": lot }, from_row)?;
    Ok(rows.collect::<Result<_, _>>()?)
}

const OF_TAKER: &str = "
    SELECT id, lot_id, at, kind, delta, amount, unit, measure_id, litres, batch_id, heap_id, note
    FROM lot_event
    WHERE batch_id = :batch OR heap_id = :heap
    ORDER BY id";

/// What a batch or a heap took and gave back, oldest first.
///
/// # Errors
/// [`StoreError::Sqlite`].
pub fn of_taker(conn: &Connection, taker: Taker) -> Result<Vec<LotEvent>, StoreError> {
    let (batch, heap) = taker.columns();
    let mut statement = conn.prepare_cached(OF_TAKER)?;
    let rows = statement.query_map(named_params! { ":batch": batch, ":heap": heap }, from_row)?;
    Ok(rows.collect::<Result<_, _>>()?)
}

/// Changes what is left of a lot and says why. A removed lot changes too: what
/// a batch gives back must not be lost.
///
/// # Errors
/// [`StoreError::NotFound`] if there never was such a lot;
/// [`StoreError::NotEnough`] if less than nothing would be left.
pub fn change(conn: &Connection, lot: LotId, change: &Change, now: &str) -> Result<(), StoreError> {
    let held = held::of_lot(conn, lot)?;
    let left = held.amount() + change.delta;
    // Tenths do not add up exactly in binary.
    let left = if left.abs() < 1e-9 { 0.0 } else { left };
    if left < 0.0 {
        return Err(StoreError::NotEnough { left: held.amount() });
    }
    conn.prepare_cached("UPDATE lot SET amount = ?2, version = version + 1, updated_at = ?3 WHERE id = ?1")?
        .execute((lot, left, now))?;
    append(conn, lot, held.with_amount(left), change, now)
}

/// Takes an entry back, and its change of the amount with it; says of which lot.
///
/// # Errors
/// [`StoreError::NotFound`] if there is none that can be; [`StoreError::NotEnough`].
pub fn undo(conn: &Connection, id: LotEventId, now: &str) -> Result<LotId, StoreError> {
    let event = conn
        .query_row(
            "SELECT id, lot_id, at, kind, delta, amount, unit, measure_id, litres, batch_id, heap_id, note
             FROM lot_event WHERE id = ?1",
            [id],
            from_row,
        )
        .optional()?
        .filter(|event| event.kind.can_be_undone())
        .ok_or(StoreError::NotFound { kind: "entry that can be undone" })?;
    let held = held::of_lot(conn, event.lot)?;
    // Counted in something else since: the entry no longer fits the amount.
    if held.columns().1 != event.left.columns().1 || held.columns().2 != event.left.columns().2 {
        return Err(StoreError::NotFound { kind: "entry in the unit of this lot" });
    }
    let left = held.amount() - event.delta;
    if left < -1e-9 {
        return Err(StoreError::NotEnough { left: held.amount() });
    }
    conn.execute("DELETE FROM lot_event WHERE id = ?1", [id])?;
    conn.execute(
        "UPDATE lot SET amount = ?2, version = version + 1, updated_at = ?3 WHERE id = ?1",
        (event.lot, left.max(0.0), now),
    )?;
    Ok(event.lot)
}

const MERGE: &str = "
    UPDATE lot_event
    SET delta = delta + :delta, amount = :amount, litres = litres + :litres, at = :now
    WHERE id = (SELECT max(id) FROM lot_event WHERE lot_id = :lot) AND kind = 'count' AND unit = :unit
      AND measure_id IS :measure AND substr(at, 1, 13) = substr(:now, 1, 13)";

const APPEND: &str = "
    INSERT INTO lot_event (lot_id, at, kind, delta, amount, unit, measure_id, litres, batch_id, heap_id,
                           note)
    VALUES (:lot, :now, :kind, :delta, :amount, :unit, :measure, :litres, :batch, :heap, :note)";

/// Writes an entry. Counting anew within the same hour is one entry.
pub(crate) fn append(
    conn: &Connection,
    lot: LotId,
    left: Held,
    change: &Change,
    now: &str,
) -> Result<(), StoreError> {
    let (amount, unit, measure) = left.columns();
    if change.kind == EventKind::Count {
        let merged = conn.prepare_cached(MERGE)?.execute(named_params! {
            ":lot": lot, ":delta": change.delta, ":amount": amount, ":litres": change.litres,
            ":unit": unit, ":measure": measure, ":now": now,
        })?;
        if merged > 0 {
            return Ok(());
        }
    }
    let (batch, heap) = change.taker.map_or((None, None), Taker::columns);
    conn.prepare_cached(APPEND)?.execute(named_params! {
        ":lot": lot, ":now": now, ":kind": change.kind.as_str(), ":delta": change.delta, ":amount": amount,
        ":unit": unit, ":measure": measure, ":litres": change.litres, ":batch": batch,
        ":heap": heap, ":note": change.note,
    })?;
    Ok(())
}

fn from_row(row: &Row<'_>) -> rusqlite::Result<LotEvent> {
    let (batch, heap): (Option<BatchId>, Option<HeapId>) = (row.get("batch_id")?, row.get("heap_id")?);
    Ok(LotEvent {
        id: row.get("id")?,
        lot: row.get("lot_id")?,
        at: row.get("at")?,
        kind: own::word(row, "kind", EventKind::parse)?,
        delta: row.get("delta")?,
        left: Held::from_row(row)?,
        litres: row.get("litres")?,
        taker: batch.map(Taker::Batch).or(heap.map(Taker::Heap)),
        note: row.get("note")?,
    })
}
