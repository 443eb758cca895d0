//! A heap that stands already, built by its recipe before anybody wrote it down.

use jiff::Timestamp;
use serde::Deserialize;
use utoipa::ToSchema;
use zymarch_core::base::fault::{FaultCode, Faults};
use zymarch_store::id::{BatchId, HeapId, SiteId};
use zymarch_store::log::{About, Body, Laid};
use zymarch_store::{batch, heap};

use super::begin::{fresh, planned_of};
use crate::plan::batch::BatchFields;
use crate::transaction::Writing;
use crate::{Transaction, Who};

/// A heap that stands already.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BuiltRequest {
    /// When its last layer was laid, RFC 3339.
    #[schema(value_type = String, format = DateTime)]
    pub at: Timestamp,
}

/// Heaps older than this are compost [ms].
const OLDEST_MS: i64 = 730 * 86_400_000;

/// Writes a heap down that was built by the recipe of a batch, each layer as it was planned.
///
/// # Errors
/// It is to be built in days to come, or was so long ago that it is none any more.
pub fn built(
    tx: &mut Transaction<'_>,
    who: &Who,
    (batch, id, of): (BatchId, Option<HeapId>, BuiltRequest),
) -> Result<HeapId, Faults> {
    if of.at > tx.now {
        return Err(Faults::one("at", FaultCode::InFuture));
    }
    if tx.now.as_millisecond() - of.at.as_millisecond() > OLDEST_MS {
        return Err(Faults::one("at", FaultCode::TooFarAway));
    }
    // It was so from the first layer on, whoever writes it down now.
    let then = Who { done_at: Some(of.at), ..who.clone() };
    let batch = batch::get(tx.conn, batch)?;
    let others = heap::of_site(tx.conn, batch.site)?;
    // Sent again it is there already.
    if let Some(known) = others.iter().find(|heap| Some(heap.id) == id) {
        return Ok(known.id);
    }
    let heap = fresh(tx, &then, (&batch, &others, id))?;
    lay_all(tx, &then, heap, of.at)?;
    Ok(heap)
}

/// Writes a heap down that was built by a recipe that is no batch.
pub(crate) fn without_batch(
    tx: &mut Transaction<'_>,
    who: &Who,
    (site, fields, at): (SiteId, BatchFields, Timestamp),
) -> Result<HeapId, Faults> {
    let then = Who { done_at: Some(at), ..who.clone() };
    let begun = planned_of(tx, &fields.checked(tx, site)?)?;
    let heap = HeapId::fresh();
    tx.write(&then, Writing::now(site, About::Heap(heap), Body::Begun(begun)))?;
    lay_all(tx, &then, heap, at)?;
    Ok(heap)
}

/// Lays what is to come of a heap as it was planned.
fn lay_all(tx: &mut Transaction<'_>, then: &Who, heap: HeapId, at: Timestamp) -> Result<(), Faults> {
    let standing = heap::get(tx.conn, heap)?;
    let first = standing.stand.laid.len();
    let lay = |(nth, step): (usize, _)| {
        let body = Body::Laid(Laid { at: (first + nth) as u32, step, items: Vec::new() });
        // One after the other, each a moment later.
        let not_before_ms = at.as_millisecond() + nth as i64 + 1;
        Writing { not_before_ms, ..Writing::now(standing.row.site, About::Heap(heap), body) }
    };
    let laid = standing.stand.rest().iter().cloned().enumerate().map(lay).collect();
    tx.write_all(then, laid)
}
