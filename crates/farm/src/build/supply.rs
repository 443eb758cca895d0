//! What truly went into a heap, taken from stock and given back.

use serde::Deserialize;
use utoipa::ToSchema;
use zymarch_core::base::fault::{Fault, FaultCode, Faults};
use zymarch_core::build::clash::Did;
use zymarch_store::batch;
use zymarch_store::heap::{self, HeapRow};
use zymarch_store::id::{EntryId, HeapId};
use zymarch_store::log::{self, About, Body, Taker};

use super::knew::{Knew, meets};
use super::standing::{went_in, went_in_since};
use crate::plan::batch::return_stock;
use crate::stock::taken::{nothing_taken, settle};
use crate::transaction::Writing;
use crate::{Transaction, Who};

/// Takes what truly went into a heap from stock, or gives it back.
#[derive(Debug, Clone, Default, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HeapTake {
    /// Its id, if whoever writes it gives one; sent twice it is done once.
    #[serde(default)]
    pub entry: Option<EntryId>,
    /// The entry that the farm told its writer last; left out, it is done after whatever there is.
    #[serde(default)]
    pub after: Option<EntryId>,
    /// What its writer did to the heap since, told or not.
    #[serde(default)]
    pub mine: Vec<EntryId>,
    /// Where a lot holds less than went in: take what is there.
    #[serde(default)]
    pub what_is_there: bool,
}

/// The heap, if that can be done to it; none if it was done before, and is only sent again.
fn current(tx: &Transaction<'_>, id: HeapId, of: &HeapTake, body: &Body) -> Result<Option<HeapRow>, Faults> {
    if let Some(entry) = of.entry
        && let Some(known) = log::get(tx.conn, entry)?
    {
        let is_same = known.about == About::Heap(id) && known.body == *body;
        return if is_same { Ok(None) } else { Err(Faults::one("entry", FaultCode::EntryTaken)) };
    }
    let row = heap::row(tx.conn, id)?;
    let knew = Knew { after: of.after, mine: &of.mine };
    // Two who took it both took it once.
    meets(tx, &row, knew, Did::Supplied, |other| other == body)?;
    Ok(Some(row))
}

/// Takes what truly went into a heap from stock; from then on stock follows what is put right.
///
/// # Errors
/// It was taken already; every item whose lot holds too little.
pub fn take(tx: &mut Transaction<'_>, who: &Who, (id, of): (HeapId, HeapTake)) -> Result<HeapId, Faults> {
    let Some(row) = current(tx, id, &of, &Body::StockTaken)? else { return Ok(id) };
    if row.taken_ms.is_some() {
        return Err(Fault::new(FaultCode::TakenAlready).into());
    }
    // What the batch took by its recipe is what went in, or near it: it is not taken twice.
    let batch = row.batch.and_then(|id| batch::get(tx.conn, id).ok());
    if let Some(batch) = batch.filter(|batch| batch.taken_ms.is_some()) {
        return_stock(tx, who, &batch)?;
    }
    tx.write(who, Writing { id: of.entry, ..Writing::now(row.site, About::Heap(id), Body::StockTaken) })?;
    let heap = heap::get(tx.conn, id)?;
    let items = [went_in(&heap), went_in_since(&heap)].concat();
    settle(tx, who, (Taker::Heap(id), row.site), &items, of.what_is_there)?;
    Ok(id)
}

/// Gives back to stock what a heap took when it was built; what was put in since came from stock, whatever
/// was done on build day.
///
/// # Errors
/// Nothing was taken.
pub fn give_back(
    tx: &mut Transaction<'_>,
    who: &Who,
    (id, of): (HeapId, HeapTake),
) -> Result<HeapId, Faults> {
    let Some(row) = current(tx, id, &of, &Body::StockReturned)? else { return Ok(id) };
    if row.taken_ms.is_none() {
        return Err(nothing_taken().into());
    }
    let since = went_in_since(&heap::get(tx.conn, id)?);
    settle(tx, who, (Taker::Heap(id), row.site), &since, true)?;
    tx.write(who, Writing { id: of.entry, ..Writing::now(row.site, About::Heap(id), Body::StockReturned) })?;
    Ok(id)
}

/// Gives everything that a heap has back to stock.
pub(super) fn settle_none(tx: &mut Transaction<'_>, who: &Who, row: &HeapRow) -> Result<(), Faults> {
    settle(tx, who, (Taker::Heap(row.id), row.site), &[], true)
}

/// Stock follows a heap that took from it: what was put right, undone or brought
/// back is so there as well, as far as it is there. Only what differs moves.
pub(crate) fn follow(tx: &mut Transaction<'_>, who: &Who, id: HeapId) -> Result<(), Faults> {
    let row = heap::row(tx.conn, id)?;
    let heap = heap::get(tx.conn, id)?;
    let mut items = went_in_since(&heap);
    if row.taken_ms.is_some() {
        items.extend(went_in(&heap));
    } else if items.is_empty() && log::taken_by(tx.conn, Taker::Heap(id))?.is_empty() {
        return Ok(());
    }
    settle(tx, who, (Taker::Heap(id), row.site), &items, true)
}
