//! Something read at a heap, seen or done: written down, put right, taken back.
//!
//! Every act bears an id that its writer gave it, so that a phone may send it twice. It happened when its
//! writer says, and may arrive late, in any order.

use jiff::Timestamp;
use serde::Deserialize;
use utoipa::ToSchema;
use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::log::EntryKind;
use zymarch_core::tend::entry::{LONGEST_NOTE, Tended};
use zymarch_store::heap::{self, HeapRow};
use zymarch_store::id::{EntryId, HeapId};
use zymarch_store::item::Item;
use zymarch_store::log::{self, About, Body, Entry, Tending};

use super::photo::{PhotoSent, kept};
use crate::build::supply;
use crate::plan::BatchPart;
use crate::plan::part::checked_all;
use crate::transaction::Writing;
use crate::{Transaction, Who};

/// Something read at a heap, seen or done.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TendRequest {
    /// Its id, if whoever writes it gives one; sent twice it is written once.
    #[serde(default)]
    pub entry: Option<EntryId>,
    /// When it was, if not just now, RFC 3339.
    #[serde(default)]
    #[schema(value_type = Option<String>, format = DateTime)]
    pub at: Option<Timestamp>,
    /// What.
    pub what: Tended<BatchPart>,
    /// The person's words.
    #[serde(default)]
    pub note: Option<String>,
    /// Of a photo: itself.
    #[serde(default)]
    pub photo: Option<PhotoSent>,
    /// The entry that this puts right, which is taken back.
    #[serde(default)]
    pub instead_of: Option<EntryId>,
}

/// Takes an entry back, or brings one back that was.
#[derive(Debug, Clone, Default, PartialEq, Eq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BackRequest {
    /// The id of doing so, if whoever does it gives one; sent twice it is done once.
    #[serde(default)]
    pub entry: Option<EntryId>,
}

/// A phone's clock may be so far ahead [ms].
const AHEAD_MS: i64 = 10 * 60_000;
/// What was read on the way to the first layer belongs to the heap [ms].
const BEFORE_MS: i64 = 3_600_000;

/// Writes an entry of tending down.
///
/// # Errors
/// Every field that cannot be; a time after now or before the heap was begun; an id that is taken.
pub fn tend(
    tx: &mut Transaction<'_>,
    who: &Who,
    (id, request): (HeapId, TendRequest),
) -> Result<EntryId, Faults> {
    let heap = heap::row(tx.conn, id)?;
    let body = read(tx, &heap, &request).map(|of| Body::Tended(Box::new(of)));
    if let Some(entry) = request.entry
        && let Some(known) = log::get(tx.conn, entry)?
    {
        // Sent again after its lot was taken off the list it could not be read anew, and is written all the same.
        let says_same = body.as_ref().map_or(known.kind() == request.what.kind(), |body| known.body == *body);
        let is_same = known.about == About::Heap(id) && says_same;
        return if is_same { Ok(entry) } else { Err(Faults::one("entry", FaultCode::EntryTaken)) };
    }
    let body = body?;
    let photo = request.photo.as_ref().map(kept).transpose()?;
    if (body.kind() == EntryKind::Photo) != photo.is_some() {
        return Err(Faults::one("photo", FaultCode::PhotoMissing));
    }
    let at = when(tx, who, &heap, request.at)?;
    if let Some(wrong) = request.instead_of {
        let wrong = of_heap(tx, id, wrong)?;
        if is_standing(tx, id, wrong.id)? {
            tx.write(who, Writing::undone(&wrong))?;
        }
    }
    let writing = Writing::now(heap.site, About::Heap(id), body);
    let (entry, _) = tx.write(who, Writing { id: request.entry, at: Some(at), ..writing })?;
    if let Some(photo) = photo {
        zymarch_store::reading::keep_photo(tx.conn, entry, &photo)?;
    }
    supply::follow(tx, who, id)?;
    Ok(entry)
}

/// What is said, checked, with what was put in as it is kept.
fn read(tx: &Transaction<'_>, heap: &HeapRow, request: &TendRequest) -> Result<Tending, Faults> {
    let at = At::ROOT.key("what");
    let mut found = request.what.faults(&at);
    let note = request.note.as_deref().map(str::trim).filter(|note| !note.is_empty());
    if note.is_some_and(|note| note.chars().count() > LONGEST_NOTE) {
        found.push(Fault::of("note", FaultCode::TooLong).with("most", LONGEST_NOTE));
    }
    if note.is_none() && request.what == Tended::Note {
        found.push(Fault::of("note", FaultCode::EmptyName));
    }
    Faults::or(found, || ())?;
    let list = at.key("items");
    let what: Tended<Item> =
        request.what.clone().with_items(|items| checked_all(tx, heap.site, items, &list))?;
    Ok(Tending { what, note: note.map(str::to_owned) })
}

fn when(tx: &Transaction<'_>, who: &Who, heap: &HeapRow, at: Option<Timestamp>) -> Result<Timestamp, Faults> {
    checked_time(tx, heap, at.or(who.done_at).unwrap_or(tx.now))
        .map_err(|fault| At::ROOT.key("at").put(fault).into())
}

/// A time at which something may have happened to a heap: not after now, but for a clock that is a little
/// ahead, and not before it was begun.
pub(super) fn checked_time(tx: &Transaction<'_>, heap: &HeapRow, at: Timestamp) -> Result<Timestamp, Fault> {
    let ms = at.as_millisecond();
    if ms > tx.now.as_millisecond() + AHEAD_MS {
        return Err(Fault::new(FaultCode::InFuture));
    }
    if ms < heap.begun_ms - BEFORE_MS {
        let begun = crate::transaction::at_text(heap.begun_ms);
        return Err(Fault::new(FaultCode::BeforeBegun).with("begun", begun));
    }
    Ok(at.min(tx.now))
}

/// An entry of tending this heap.
fn of_heap(tx: &Transaction<'_>, heap: HeapId, id: EntryId) -> Result<Entry, Faults> {
    let none = || Fault::new(FaultCode::NotFound).with("kind", "entry");
    let entry = log::get(tx.conn, id)?.filter(|entry| entry.about == About::Heap(heap)).ok_or_else(none)?;
    if entry.kind().is_of_tending() {
        return Ok(entry);
    }
    Err(Fault::new(FaultCode::NotUndoable).into())
}

fn is_standing(tx: &Transaction<'_>, heap: HeapId, id: EntryId) -> Result<bool, Faults> {
    let standing = log::those_that_stand(log::of(tx.conn, About::Heap(heap))?);
    Ok(standing.iter().any(|entry| entry.id == id))
}

/// Takes an entry back; what it had put in goes back to stock, and of a pack all readings are out.
///
/// # Errors
/// There is no such entry of this heap, or it is one of build day.
pub fn take_back(
    tx: &mut Transaction<'_>,
    who: &Who,
    (id, entry, of): (HeapId, EntryId, BackRequest),
) -> Result<(), Faults> {
    heap::row(tx.conn, id)?;
    let entry = of_heap(tx, id, entry)?;
    if is_standing(tx, id, entry.id)? {
        tx.write(who, Writing { id: of.entry, ..Writing::undone(&entry) })?;
        supply::follow(tx, who, id)?;
    }
    Ok(())
}

/// Brings an entry back that was taken back.
///
/// # Errors
/// As [`take_back`].
pub fn bring_back(
    tx: &mut Transaction<'_>,
    who: &Who,
    (id, entry, of): (HeapId, EntryId, BackRequest),
) -> Result<(), Faults> {
    heap::row(tx.conn, id)?;
    let entry = of_heap(tx, id, entry)?;
    let standing = log::those_that_stand(log::of(tx.conn, About::Heap(id))?);
    let back = standing.into_iter().filter(|other| other.takes_back == Some(entry.id));
    let all: Vec<Entry> = back.collect();
    for (nth, back) in all.iter().enumerate() {
        let id = of.entry.filter(|_| nth == 0);
        tx.write(who, Writing { id, ..Writing::undone(back) })?;
    }
    if !all.is_empty() {
        supply::follow(tx, who, id)?;
    }
    Ok(())
}
