//! What comes to a lot and what goes from it.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::base::quantity;
use zymarch_core::base::words::closed_list;
use zymarch_core::stock::ledger::Balance;
use zymarch_store::held::Held;
use zymarch_store::id::{EntryId, LotId, MeasureId};
use zymarch_store::log::{self, About, Body, Entry, Moved, Taker};
use zymarch_store::projection::movement;
use zymarch_store::{StoreError, batch, heap, lot};

use super::Known;
use super::lot::Lot;
use crate::people::person_of;
use crate::transaction::{Writing, at_text};
use crate::words::{self, Unit};
use crate::{Transaction, Who};

closed_list! {
    /// What happened to a lot.
    LotEventKind {
        /// It came to the farm.
        Came = "came",
        /// More of it came.
        Delivered = "delivered",
        /// Some was used otherwise.
        Used = "used",
        /// Some spoiled.
        Spoiled = "spoiled",
        /// It was counted anew.
        Counted = "counted",
        /// The day it was gathered was put right.
        Gathered = "gathered",
        /// A batch took some.
        BatchTook = "batch-took",
        /// A heap took some.
        HeapTook = "heap-took",
        /// A batch or heap gave some back.
        GivenBack = "given-back",
    }
}

closed_list! {
    /// What a person notes of a lot.
    LotAct {
        /// More came.
        Delivered = "delivered",
        /// Some was used otherwise.
        Used = "used",
        /// Some spoiled.
        Spoiled = "spoiled",
    }
}

/// One entry of a lot's history.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LotEvent {
    /// Its id.
    pub id: EntryId,
    /// When, RFC 3339.
    pub at: String,
    /// What.
    pub kind: LotEventKind,
    /// By how much it changed, in `unit`.
    pub delta: f64,
    /// What was left afterwards.
    pub amount: f64,
    /// How the amount was said then.
    pub unit: Unit,
    /// The measure it was counted in then.
    pub measure_id: Option<MeasureId>,
    /// The batch or heap that took it or gave it back, if it is still there.
    pub taker: Option<String>,
    /// The person's words.
    pub note: Option<String>,
    /// Who wrote it down, as they are called now; none where nobody signed in.
    pub by: Option<String>,
    /// On which device, as it calls itself; empty if it does not.
    pub device: String,
    /// Whether it may be taken back by itself.
    pub can_be_undone: bool,
}

/// Something that came or went.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LotEventFields {
    /// Its id, if whoever writes it gives one; sent twice it counts once.
    #[serde(default)]
    pub entry: Option<EntryId>,
    /// What happened.
    pub kind: LotAct,
    /// How much, in the lot's unit, above zero.
    pub amount: f64,
    /// The person's words.
    #[serde(default)]
    pub note: Option<String>,
}

/// The history of a lot, newest first.
///
/// # Errors
/// There is no such lot.
pub fn list(tx: &Transaction<'_>, id: LotId) -> Result<Vec<LotEvent>, Faults> {
    lot::get(tx.conn, id)?;
    let mut balance = Balance::nothing();
    let mut events = Vec::new();
    for entry in log::those_that_stand(log::of(tx.conn, About::Lot(id))?) {
        let Some(movement) = movement(&entry) else { continue };
        let before = balance.clone();
        balance = balance.after(movement);
        let delta = if before.unit == balance.unit { balance.amount - before.amount } else { balance.amount };
        let (amount, unit, measure_id) = words::amount(Held::new(balance.amount, balance.unit));
        let Some((kind, taker, note)) = told(&entry, delta) else { continue };
        events.push(LotEvent {
            id: entry.id,
            at: at_text(entry.at_ms),
            kind,
            delta,
            amount,
            unit,
            measure_id,
            taker: taker.and_then(|taker| name_of(tx, taker).transpose()).transpose()?,
            note,
            by: person_of(tx, &entry.person)?,
            device: entry.device.clone(),
            can_be_undone: entry.kind().is_undoable_alone(),
        });
    }
    events.reverse();
    Ok(events)
}

fn told(entry: &Entry, delta: f64) -> Option<(LotEventKind, Option<Taker>, Option<String>)> {
    let note = |moved: &Moved| moved.note.clone();
    Some(match &entry.body {
        Body::Came(_) => (LotEventKind::Came, None, None),
        Body::Delivered(of) => (LotEventKind::Delivered, None, note(of)),
        Body::Used(of) => (LotEventKind::Used, None, note(of)),
        Body::Spoiled(of) => (LotEventKind::Spoiled, None, note(of)),
        Body::Counted(_) => (LotEventKind::Counted, None, None),
        Body::Gathered { .. } => (LotEventKind::Gathered, None, None),
        Body::Taken(of) => {
            let kind = match of.by {
                _ if delta > 0.0 => LotEventKind::GivenBack,
                Taker::Batch(_) => LotEventKind::BatchTook,
                Taker::Heap(_) => LotEventKind::HeapTook,
            };
            (kind, Some(of.by), note(&of.moved))
        }
        _ => return None,
    })
}

fn name_of(tx: &Transaction<'_>, taker: Taker) -> Result<Option<String>, StoreError> {
    let name = match taker {
        Taker::Batch(id) => batch::get(tx.conn, id).map(|batch| batch.fields.name),
        Taker::Heap(id) => heap::row(tx.conn, id).map(|heap| heap.name),
    };
    match name {
        Err(StoreError::NotFound { .. }) => Ok(None),
        name => name.map(Some),
    }
}

/// Notes that more came, or that some was used or spoiled.
///
/// # Errors
/// An amount that is none, or more than there is.
pub fn note(
    tx: &mut Transaction<'_>,
    who: &Who,
    (id, fields): (LotId, LotEventFields),
) -> Result<Lot, Faults> {
    let at = At::ROOT.key("amount");
    let amount = quantity::amount(fields.amount).map_err(|fault| at.put(fault))?;
    if amount <= 0.0 {
        return Err(at.fault(FaultCode::NotAboveZero).into());
    }
    let note = words::label("note", fields.note.as_deref())?;
    let lot = lot::get(tx.conn, id)?;
    if let Some(entry) = fields.entry
        && let Some(known) = log::get(tx.conn, entry)?
    {
        let is_same = known.about == About::Lot(id) && known.kind().as_str() == fields.kind.as_str();
        return if is_same { Lot::read(tx, id) } else { Err(Faults::one("entry", FaultCode::EntryTaken)) };
    }
    let left = lot.held.amount();
    let comes = fields.kind == LotAct::Delivered;
    if !comes && amount > left + 1e-6 {
        return Err(at.fault(FaultCode::NotEnough).with("left", left).into());
    }
    let by = if comes { amount } else { -amount.min(left) };
    let one = zymarch_store::lot::Lot { held: lot.held.with_amount(by.abs()), ..lot.clone() };
    let item = Known::of(tx, lot.site)?.item(&one)?;
    let moved = Moved {
        held: lot.held.with_amount(by),
        litres: item.volume_l().copysign(by),
        kg: item.wet_mass_kg.copysign(by),
        on: comes.then(|| tx.today.to_string()),
        note,
    };
    let body = match fields.kind {
        LotAct::Delivered => Body::Delivered(moved),
        LotAct::Used => Body::Used(moved),
        LotAct::Spoiled => Body::Spoiled(moved),
    };
    tx.write(who, Writing { id: fields.entry, ..Writing::now(lot.site, About::Lot(id), body) })?;
    Lot::read(tx, id)
}

/// Takes an entry back, and its change of the amount with it.
///
/// # Errors
/// There is none that stands, it cannot be taken back by itself, or what it brought was used since.
pub fn undo(tx: &mut Transaction<'_>, who: &Who, id: EntryId) -> Result<Lot, Faults> {
    let missing = || Fault::new(FaultCode::NotFound).with("kind", "entry");
    let entry = log::get(tx.conn, id)?.ok_or_else(missing)?;
    let About::Lot(lot) = entry.about else { return Err(missing().into()) };
    let stand = log::those_that_stand(log::of(tx.conn, entry.about)?);
    if stand.iter().all(|one| one.id != id) {
        return Err(missing().into());
    }
    if !entry.kind().is_undoable_alone() {
        return Err(Fault::new(FaultCode::NotUndoable).into());
    }
    if let Body::Delivered(of) = &entry.body {
        let left = lot::get(tx.conn, lot)?.held;
        if left.unit() == of.held.unit() && of.held.amount() > left.amount() + 1e-6 {
            return Err(Fault::of("amount", FaultCode::NotEnough).with("left", left.amount()).into());
        }
    }
    tx.write(who, Writing::undone(&entry))?;
    Lot::read(tx, lot)
}
