//! What somebody knew of a heap when they did something to it, and whether what others did
//! meanwhile stands in the way.

use std::collections::BTreeSet;

use zymarch_core::base::fault::{Fault, FaultCode, Faults};
use zymarch_core::build::clash::{Did, clash};
use zymarch_store::heap::HeapRow;
use zymarch_store::id::EntryId;
use zymarch_store::log::{self, About, Body, Entry};

use crate::Transaction;

/// What somebody knew of a heap.
#[derive(Debug, Clone, Copy)]
pub(super) struct Knew<'a> {
    /// The entry that the farm told them last; none where they do it after whatever there is.
    pub(super) after: Option<EntryId>,
    /// What they did themselves since, told the farm or not.
    pub(super) mine: &'a [EntryId],
}

/// That something can be done to a heap beside what others did meanwhile. `is_same` tells of what
/// was done whether it is this very thing: two who tick off the same layer do not contradict
/// each other.
///
/// # Errors
/// [`FaultCode::Stale`]: somebody has to say which of the two it was.
pub(super) fn meets(
    tx: &Transaction<'_>,
    heap: &HeapRow,
    knew: Knew<'_>,
    did: Did,
    is_same: impl Fn(&Body) -> bool,
) -> Result<(), Faults> {
    let Some(after) = knew.after.filter(|after| *after != heap.head) else { return Ok(()) };
    let all = log::of(tx.conn, About::Heap(heap.id))?;
    let written = |entry: &Entry| (entry.recorded_ms, entry.id);
    // Who knew of nothing here, as of a heap begun elsewhere, has seen nothing.
    let seen_to = all.iter().find(|entry| entry.id == after).map(written);
    let is_unseen = |entry: &Entry| Some(written(entry)) > seen_to && !knew.mine.contains(&entry.id);
    // What was only read or seen, and what takes such a thing back, stands in nobody's way.
    let of_tending: BTreeSet<EntryId> =
        all.iter().filter(|entry| entry.kind().is_of_tending()).map(|entry| entry.id).collect();
    let unseen: BTreeSet<EntryId> =
        all.iter().filter(|entry| is_unseen(entry)).map(|entry| entry.id).collect();
    for entry in log::those_that_stand(all).iter().filter(|entry| unseen.contains(&entry.id)) {
        // What was done and taken back again was never seen.
        if entry.takes_back.is_some_and(|back| unseen.contains(&back) || of_tending.contains(&back)) {
            continue;
        }
        if told(&entry.body).is_some_and(|other| clash(did, other)) && !is_same(&entry.body) {
            let fault = Fault::new(FaultCode::Stale).with("kind", "heap");
            return Err(fault.with("current", heap.head.to_string()).with("given", after.to_string()).into());
        }
    }
    Ok(())
}

/// What an entry did, as far as it can stand in another's way.
const fn told(body: &Body) -> Option<Did> {
    Some(match body {
        Body::Laid(laid) => Did::Laid { at: laid.at as usize },
        Body::Planned { from, .. } => Did::Planned { from: *from as usize },
        Body::Ended { from } => Did::Ended { from: *from as usize },
        Body::Undone => Did::TookBack,
        Body::StockTaken | Body::StockReturned => Did::Supplied,
        _ => return None,
    })
}
