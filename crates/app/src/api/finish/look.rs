//! What is asked of finishing: how far compost goes, what went where, heaps beside each other.

use serde::Deserialize;
use utoipa::ToSchema;
use zymarch_core::people::Deed;
use zymarch_farm::access::Wished as _;
use zymarch_farm::finish;
use zymarch_farm::finish::compare::{self, Comparison};
use zymarch_farm::finish::harvest::{self, HarvestOutlook};
use zymarch_farm::finish::trace::{self, Chain};
use zymarch_formats::apply::{ApplyAnswer, ApplyRequest};
use zymarch_store::id::{CompostId, GroundId, HeapId, LotId};

use crate::http::asking::Asking;
use crate::http::body::{Body, DocumentBody, Id};
use crate::http::problem::Refusals;
use crate::state::Answer;

/// How much compost a use needs, and how far what there is goes: the same answer as `zymarch apply`
#[utoipa::path(post, operation_id = "finish_apply", tag = "finish", path = "/api/apply", request_body = ApplyRequest, responses(
    (status = 200, body = ApplyAnswer),
    Refusals,
))]
pub(crate) async fn apply(asking: Asking, body: DocumentBody<ApplyRequest>) -> Answer<ApplyAnswer> {
    asking.reckon(move |catalogue| body.told(|sent| finish::apply(catalogue, sent))).await
}

/// What a heap should give, and what the site got of what was expected
#[utoipa::path(get, operation_id = "heap_harvest_outlook", tag = "finish", path = "/api/heaps/{id}/harvest", params(("id" = HeapId, Path)), responses(
    (status = 200, body = HarvestOutlook),
    Refusals,
))]
pub(crate) async fn outlook(asking: Asking, Id(id): Id<HeapId>) -> Answer<HarvestOutlook> {
    asking.ask(Deed::Look.of(id), move |tx, _| harvest::outlook(tx, id)).await
}

/// Every bed that a lot reached
#[utoipa::path(get, operation_id = "lot_chain", tag = "finish", path = "/api/lots/{id}/chain", params(("id" = LotId, Path)), responses(
    (status = 200, body = Chain),
    Refusals,
))]
pub(crate) async fn of_lot(asking: Asking, Id(id): Id<LotId>) -> Answer<Chain> {
    asking.ask(Deed::Look.of(id), move |tx, _| trace::of_lot(tx, id)).await
}

/// What some compost was made of, and where it went
#[utoipa::path(get, operation_id = "compost_chain", tag = "finish", path = "/api/compost/{id}/chain", params(("id" = CompostId, Path)), responses(
    (status = 200, body = Chain),
    Refusals,
))]
pub(crate) async fn of_compost(asking: Asking, Id(id): Id<CompostId>) -> Answer<Chain> {
    asking.ask(Deed::Look.of(id), move |tx, _| trace::of_compost(tx, id)).await
}

/// What a place got, and what that was made of
#[utoipa::path(get, operation_id = "ground_chain", tag = "finish", path = "/api/grounds/{id}/chain", params(("id" = GroundId, Path)), responses(
    (status = 200, body = Chain),
    Refusals,
))]
pub(crate) async fn of_ground(asking: Asking, Id(id): Id<GroundId>) -> Answer<Chain> {
    asking.ask(Deed::Look.of(id), move |tx, _| trace::of_ground(tx, id)).await
}

/// Heaps to be compared.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct CompareRequest {
    /// Which, of one site or of several; eight at most.
    heaps: Vec<HeapId>,
}

/// Heaps beside each other: what differed most, and which did best
#[utoipa::path(post, operation_id = "heap_compare", tag = "finish", path = "/api/compare", request_body = CompareRequest, responses(
    (status = 200, body = Comparison),
    Refusals,
))]
pub(crate) async fn compared(asking: Asking, Body(body): Body<CompareRequest>) -> Answer<Comparison> {
    // Each has to be of a site that whoever asks sees.
    let wish = body.heaps.iter().fold(Deed::Look.anywhere(), |wish, id| wish.and(Some(*id)));
    asking.ask(wish, move |tx, _| compare::compare(tx, body.heaps)).await
}
