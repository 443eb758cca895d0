//! How much there is of each lot.

use rusqlite::{Connection, named_params};
use zymarch_core::stock::ledger::{Balance, Movement};

use super::Standing;
use crate::error::StoreError;
use crate::held::Held;
use crate::id::{LotId, MeasureId};
use crate::log::{Body, Entry, Moved};

const PUT: &str = "
    INSERT INTO lot_stock (lot_id, amount, unit, measure_id, litres_each, gathered_on)
    VALUES (:lot, :amount, :unit, :measure, :litres_each, :gathered)";

pub(super) fn refresh(conn: &Connection, lot: LotId, standing: &Standing) -> Result<(), StoreError> {
    conn.prepare_cached("DELETE FROM lot_stock WHERE lot_id = ?1")?.execute([lot])?;
    if standing.entries.is_empty() {
        return Ok(());
    }
    let balance = Balance::of(standing.entries.iter().filter_map(movement));
    let (amount, unit, measure) = Held::new(balance.amount, balance.unit).columns();
    conn.prepare_cached(PUT)?.execute(named_params! {
        ":lot": lot, ":amount": amount, ":unit": unit, ":measure": measure,
        ":litres_each": balance.litres_each, ":gathered": balance.gathered_on,
    })?;
    Ok(())
}

/// What an entry does to how much there is.
#[must_use]
pub fn movement(entry: &Entry) -> Option<Movement<MeasureId>> {
    let moved = |of: &Moved| Movement::Moved {
        by: of.held.amount(),
        unit: of.held.unit(),
        litres: of.litres,
        kg: of.kg,
        fresh_on: of.on.clone(),
    };
    match &entry.body {
        Body::Came(set) | Body::Counted(set) => Some(Movement::Set {
            amount: set.held.amount(),
            unit: set.held.unit(),
            litres_each: set.litres_each,
            gathered_on: set.gathered_on.clone(),
        }),
        Body::Delivered(of) | Body::Used(of) | Body::Spoiled(of) => Some(moved(of)),
        Body::Taken(of) => Some(moved(&of.moved)),
        Body::Gathered { on } => Some(Movement::Gathered { on: on.clone() }),
        _ => None,
    }
}
