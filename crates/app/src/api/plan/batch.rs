//! Saved batches.

use axum::http::StatusCode;
use serde::Deserialize;
use utoipa::ToSchema;
use zymarch_core::people::Deed;
use zymarch_farm::access::Wished as _;
use zymarch_farm::command::{Add, Change, Remove, Restore};
use zymarch_farm::plan::batch::{self, Batch, BatchFields, BatchListed, TakeRequest};
use zymarch_store::id::{BatchId, SiteId};

use crate::http::asking::Asking;
use crate::http::body::{Body, Id, NewId};
use crate::http::problem::{ApiError, Refusals};
use crate::state::{Answer, Written};

/// A change of a batch that was read at a version.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct BatchChange {
    /// The version that was read.
    version: i64,
    /// What it is now.
    batch: BatchFields,
}

/// The batches of a site, last saved first
#[utoipa::path(get, operation_id = "batch_list", tag = "batch", path = "/api/sites/{site}/batches", params(("site" = SiteId, Path)), responses(
    (status = 200, body = Vec<BatchListed>),
    Refusals,
))]
pub(crate) async fn list(asking: Asking, Id(id): Id<SiteId>) -> Answer<Vec<BatchListed>> {
    let name = format!("batches {id}");
    asking.kept(Deed::Look.of(id), name, move |tx| batch::list(tx, id), |all| all).await
}

/// A new batch
#[utoipa::path(post, operation_id = "batch_create", tag = "batch", path = "/api/sites/{site}/batches", params(("site" = SiteId, Path), ("id" = Option<BatchId>, Query)), request_body = BatchFields, responses(
    (status = 201, body = Batch),
    Refusals,
))]
pub(crate) async fn create(
    asking: Asking,
    Id(id): Id<SiteId>,
    NewId(new): NewId<BatchId>,
    Body(what): Body<BatchFields>,
) -> Result<(StatusCode, Written<Batch>), ApiError> {
    Ok((
        StatusCode::CREATED,
        asking
            .act(Deed::Work.of(id).new(new), move |tx, who| {
                batch::add(tx, who, Add { site: id, id: new, what })
            })
            .await?,
    ))
}

/// One batch
#[utoipa::path(get, operation_id = "batch_get", tag = "batch", path = "/api/batches/{id}", params(("id" = BatchId, Path)), responses(
    (status = 200, body = Batch),
    Refusals,
))]
pub(crate) async fn get(asking: Asking, Id(id): Id<BatchId>) -> Answer<Batch> {
    asking.ask(Deed::Look.of(id), move |tx, _| batch::get(tx, id)).await
}

/// Change a batch
#[utoipa::path(put, operation_id = "batch_change", tag = "batch", path = "/api/batches/{id}", params(("id" = BatchId, Path)), request_body = BatchChange, responses(
    (status = 200, body = Batch),
    Refusals,
))]
pub(crate) async fn change(
    asking: Asking,
    Id(id): Id<BatchId>,
    Body(body): Body<BatchChange>,
) -> Answer<Batch> {
    asking
        .act(Deed::Work.of(id), move |tx, who| {
            batch::change(tx, who, Change { id, version: body.version, to: body.batch })
        })
        .await
}

/// Remove a batch, and give back what it took; it can be brought back
#[utoipa::path(delete, operation_id = "batch_remove", tag = "batch", path = "/api/batches/{id}", params(("id" = BatchId, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(crate) async fn remove(asking: Asking, Id(id): Id<BatchId>) -> Result<StatusCode, ApiError> {
    asking.done(Deed::Work.of(id), move |tx, who| batch::remove(tx, who, Remove(id))).await
}

/// Bring a removed batch back; what it had taken is taken again, as far as it is there
#[utoipa::path(post, operation_id = "batch_restore", tag = "batch", path = "/api/batches/{id}/restore", params(("id" = BatchId, Path)), responses(
    (status = 200, body = Batch),
    Refusals,
))]
pub(crate) async fn restore(asking: Asking, Id(id): Id<BatchId>) -> Answer<Batch> {
    asking.act(Deed::Work.of(id), move |tx, who| batch::restore(tx, who, Restore(id))).await
}

/// Take the amounts of a batch from stock
#[utoipa::path(post, operation_id = "batch_take", tag = "batch", path = "/api/batches/{id}/take", params(("id" = BatchId, Path)), request_body = TakeRequest, responses(
    (status = 200, body = Batch),
    Refusals,
))]
pub(crate) async fn take(
    asking: Asking,
    Id(id): Id<BatchId>,
    Body(body): Body<TakeRequest>,
) -> Answer<Batch> {
    asking.act(Deed::Work.of(id), move |tx, who| batch::take(tx, who, (id, body))).await
}

/// Give the amounts of a batch back to stock
#[utoipa::path(post, operation_id = "batch_give_back", tag = "batch", path = "/api/batches/{id}/give-back", params(("id" = BatchId, Path)), request_body = TakeRequest, responses(
    (status = 200, body = Batch),
    Refusals,
))]
pub(crate) async fn give_back(
    asking: Asking,
    Id(id): Id<BatchId>,
    Body(body): Body<TakeRequest>,
) -> Answer<Batch> {
    asking.act(Deed::Work.of(id), move |tx, who| batch::give_back(tx, who, (id, body))).await
}
