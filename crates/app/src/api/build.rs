//! Heaps on build day. What is written is answered with the heap as it then stands.

use axum::http::StatusCode;
use zymarch_core::people::Deed;
use zymarch_farm::access::Wished as _;
use zymarch_farm::build;
use zymarch_farm::build::act::{self, AnewRequest, HeapAct, LayRequest};
use zymarch_farm::build::built::{self, BuiltRequest};
use zymarch_farm::build::heap::{self, Heap, HeapListed};
use zymarch_farm::build::supply::{self, HeapTake};
use zymarch_farm::command::{Remove, Restore};
use zymarch_store::id::{BatchId, HeapId, SiteId};

use crate::http::asking::Asking;
use crate::http::body::{Body, Id, NewId};
use crate::http::problem::{ApiError, Refusals};
use crate::state::{Answer, Written};

/// The heaps of a site, last changed first
#[utoipa::path(get, operation_id = "heap_list", tag = "heap", path = "/api/sites/{site}/heaps", params(("site" = SiteId, Path)), responses(
    (status = 200, body = Vec<HeapListed>),
    Refusals,
))]
pub(super) async fn list(asking: Asking, Id(id): Id<SiteId>) -> Answer<Vec<HeapListed>> {
    let name = format!("heaps {id}");
    asking.kept(Deed::Look.of(id), name, move |tx| heap::list(tx, id), |all| all).await
}

/// One heap
#[utoipa::path(get, operation_id = "heap_get", tag = "heap", path = "/api/heaps/{id}", params(("id" = HeapId, Path)), responses(
    (status = 200, body = Heap),
    Refusals,
))]
pub(super) async fn get(asking: Asking, Id(id): Id<HeapId>) -> Answer<Heap> {
    asking.ask(Deed::Look.of(id), move |tx, _| heap::get(tx, id)).await
}

/// The heap that a batch would be begun as, for whoever begins it without signal
#[utoipa::path(get, operation_id = "heap_ahead", tag = "heap", path = "/api/batches/{id}/heap", params(("id" = BatchId, Path)), responses(
    (status = 200, body = Heap),
    Refusals,
))]
pub(super) async fn ahead(asking: Asking, Id(id): Id<BatchId>) -> Answer<Heap> {
    asking.ask(Deed::Look.of(id), move |tx, _| build::ahead(tx, id)).await
}

/// Begin to build a batch; one that is being built already goes on
#[utoipa::path(post, operation_id = "heap_begin", tag = "heap", path = "/api/batches/{id}/build", params(("id" = BatchId, Path)), responses(
    (status = 201, body = Heap),
    Refusals,
))]
pub(super) async fn begin(
    asking: Asking,
    Id(id): Id<BatchId>,
    NewId(new): NewId<HeapId>,
) -> Result<(StatusCode, Written<Heap>), ApiError> {
    let heap =
        asking.did(Deed::Work.of(id).new(new), move |tx, who| build::begin(tx, who, (id, new))).await?;
    Ok((StatusCode::CREATED, asking.ask(Deed::Look.of(id), move |tx, _| heap::get(tx, heap)).await?))
}

/// Write a heap down that stands already, built by the recipe of a batch
#[utoipa::path(post, operation_id = "heap_built", tag = "heap", path = "/api/batches/{id}/built", params(("id" = BatchId, Path)), request_body = BuiltRequest, responses(
    (status = 201, body = Heap),
    Refusals,
))]
pub(super) async fn built(
    asking: Asking,
    Id(id): Id<BatchId>,
    NewId(new): NewId<HeapId>,
    Body(body): Body<BuiltRequest>,
) -> Result<(StatusCode, Written<Heap>), ApiError> {
    let heap =
        asking.did(Deed::Work.of(id).new(new), move |tx, who| built::built(tx, who, (id, new, body))).await?;
    Ok((StatusCode::CREATED, asking.ask(Deed::Look.of(id), move |tx, _| heap::get(tx, heap)).await?))
}

/// Tick a step off, with what really went in
#[utoipa::path(post, operation_id = "heap_lay", tag = "heap", path = "/api/heaps/{id}/lay", params(("id" = HeapId, Path)), request_body = LayRequest, responses(
    (status = 200, body = Heap),
    Refusals,
))]
pub(super) async fn lay(asking: Asking, Id(id): Id<HeapId>, Body(body): Body<LayRequest>) -> Answer<Heap> {
    let heap = asking.did(Deed::Work.of(id), move |tx, who| act::lay(tx, who, (id, body))).await?;
    asking.ask(Deed::Look.of(id), move |tx, _| heap::get(tx, heap)).await
}

/// Plan the rest of a heap anew, so that it ends within its windows
#[utoipa::path(post, operation_id = "heap_plan_anew", tag = "heap", path = "/api/heaps/{id}/anew", params(("id" = HeapId, Path)), request_body = AnewRequest, responses(
    (status = 200, body = Heap),
    Refusals,
))]
pub(super) async fn plan_anew(
    asking: Asking,
    Id(id): Id<HeapId>,
    Body(body): Body<AnewRequest>,
) -> Answer<Heap> {
    // The solver works while nobody waits to write.
    if let Some(proposal) =
        asking.looked(Deed::Work.of(id), move |tx, _| act::propose(tx, (id, body))).await?
    {
        asking.did(Deed::Work.of(id), move |tx, who| act::plan_anew(tx, who, proposal)).await?;
    }
    asking.ask(Deed::Look.of(id), move |tx, _| heap::get(tx, id)).await
}

/// End a heap where it stands; what was planned beyond it is left out
#[utoipa::path(post, operation_id = "heap_end", tag = "heap", path = "/api/heaps/{id}/end", params(("id" = HeapId, Path)), request_body = HeapAct, responses(
    (status = 200, body = Heap),
    Refusals,
))]
pub(super) async fn end(asking: Asking, Id(id): Id<HeapId>, Body(body): Body<HeapAct>) -> Answer<Heap> {
    let heap = asking.did(Deed::Work.of(id), move |tx, who| act::end(tx, who, (id, body))).await?;
    asking.ask(Deed::Look.of(id), move |tx, _| heap::get(tx, heap)).await
}

/// Undo what was done last
#[utoipa::path(post, operation_id = "heap_undo", tag = "heap", path = "/api/heaps/{id}/undo", params(("id" = HeapId, Path)), request_body = HeapAct, responses(
    (status = 200, body = Heap),
    Refusals,
))]
pub(super) async fn undo(asking: Asking, Id(id): Id<HeapId>, Body(body): Body<HeapAct>) -> Answer<Heap> {
    let heap = asking.did(Deed::Work.of(id), move |tx, who| act::undo(tx, who, (id, body))).await?;
    asking.ask(Deed::Look.of(id), move |tx, _| heap::get(tx, heap)).await
}

/// Remove a heap, and give back what it took; it can be brought back
#[utoipa::path(delete, operation_id = "heap_remove", tag = "heap", path = "/api/heaps/{id}", params(("id" = HeapId, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(super) async fn remove(asking: Asking, Id(id): Id<HeapId>) -> Result<StatusCode, ApiError> {
    asking.done(Deed::Work.of(id), move |tx, who| act::remove(tx, who, Remove(id))).await
}

/// Bring a removed heap back
#[utoipa::path(post, operation_id = "heap_restore", tag = "heap", path = "/api/heaps/{id}/restore", params(("id" = HeapId, Path)), responses(
    (status = 200, body = Heap),
    Refusals,
))]
pub(super) async fn restore(asking: Asking, Id(id): Id<HeapId>) -> Answer<Heap> {
    let heap = asking.did(Deed::Work.of(id), move |tx, who| act::restore(tx, who, Restore(id))).await?;
    asking.ask(Deed::Look.of(id), move |tx, _| heap::get(tx, heap)).await
}

/// Take what truly went into a heap from stock; from then on stock follows what is put right
#[utoipa::path(post, operation_id = "heap_take", tag = "heap", path = "/api/heaps/{id}/take", params(("id" = HeapId, Path)), request_body = HeapTake, responses(
    (status = 200, body = Heap),
    Refusals,
))]
pub(super) async fn take(asking: Asking, Id(id): Id<HeapId>, Body(body): Body<HeapTake>) -> Answer<Heap> {
    let heap = asking.did(Deed::Work.of(id), move |tx, who| supply::take(tx, who, (id, body))).await?;
    asking.ask(Deed::Look.of(id), move |tx, _| heap::get(tx, heap)).await
}

/// Give back to stock what a heap took
#[utoipa::path(post, operation_id = "heap_give_back", tag = "heap", path = "/api/heaps/{id}/give-back", params(("id" = HeapId, Path)), request_body = HeapTake, responses(
    (status = 200, body = Heap),
    Refusals,
))]
pub(super) async fn give_back(
    asking: Asking,
    Id(id): Id<HeapId>,
    Body(body): Body<HeapTake>,
) -> Answer<Heap> {
    let heap = asking.did(Deed::Work.of(id), move |tx, who| supply::give_back(tx, who, (id, body))).await?;
    asking.ask(Deed::Look.of(id), move |tx, _| heap::get(tx, heap)).await
}
