//! A heap that stands already, built by its recipe before anybody wrote it down.

use jiff::Timestamp;
use serde::Deserialize;
use utoipa::ToSchema;
use zymarch_core::base::fault::{FaultCode, Faults};
use zymarch_store::heap;
use zymarch_store::id::{BatchId, HeapId};
use zymarch_store::log::{About, Body, Laid};

use super::begin;
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
    let heap = begin(tx, &then, (batch, id))?;
    let standing = heap::get(tx.conn, heap)?;
    let rest = standing.stand.rest().to_vec();
    let first = standing.stand.laid.len();
    let laid = rest.into_iter().enumerate().map(|(nth, step)| {
        let body = Body::Laid(Laid { at: (first + nth) as u32, step, items: Vec::new() });
        Writing {
            not_before_ms: of.at.as_millisecond() + nth as i64 + 1,
            ..Writing::now(standing.row.site, About::Heap(heap), body)
        }
    });
    let laid = laid.collect();
    tx.write_all(&then, laid)?;
    Ok(heap)
}
