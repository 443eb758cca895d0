//! Saved batches.

use axum::extract::State;
use axum::http::StatusCode;
use serde::Deserialize;
use utoipa::ToSchema;
use zymarch_farm::command::{Add, Change, Remove, Restore};
use zymarch_farm::plan::batch::{self, Batch, BatchFields, BatchListed, TakeRequest};
use zymarch_store::id::{BatchId, SiteId};

use crate::http::body::{Body, Caller, Id, NewId};
use crate::http::problem::{ApiError, Refusals};
use crate::state::{Answer, App, Written};

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
pub(crate) async fn list(State(app): State<App>, Id(id): Id<SiteId>) -> Answer<Vec<BatchListed>> {
    app.ask(move |tx| batch::list(tx, id)).await
}

/// A new batch
#[utoipa::path(post, operation_id = "batch_create", tag = "batch", path = "/api/sites/{site}/batches", params(("site" = SiteId, Path), ("id" = Option<BatchId>, Query)), request_body = BatchFields, responses(
    (status = 201, body = Batch),
    Refusals,
))]
pub(crate) async fn create(
    State(app): State<App>,
    Caller(who): Caller,
    Id(id): Id<SiteId>,
    NewId(new): NewId<BatchId>,
    Body(what): Body<BatchFields>,
) -> Result<(StatusCode, Written<Batch>), ApiError> {
    Ok((StatusCode::CREATED, app.act(move |tx| batch::add(tx, &who, Add { site: id, id: new, what })).await?))
}

/// One batch
#[utoipa::path(get, operation_id = "batch_get", tag = "batch", path = "/api/batches/{id}", params(("id" = BatchId, Path)), responses(
    (status = 200, body = Batch),
    Refusals,
))]
pub(crate) async fn get(State(app): State<App>, Id(id): Id<BatchId>) -> Answer<Batch> {
    app.ask(move |tx| batch::get(tx, id)).await
}

/// Change a batch
#[utoipa::path(put, operation_id = "batch_change", tag = "batch", path = "/api/batches/{id}", params(("id" = BatchId, Path)), request_body = BatchChange, responses(
    (status = 200, body = Batch),
    Refusals,
))]
pub(crate) async fn change(
    State(app): State<App>,
    Caller(who): Caller,
    Id(id): Id<BatchId>,
    Body(body): Body<BatchChange>,
) -> Answer<Batch> {
    app.act(move |tx| batch::change(tx, &who, Change { id, version: body.version, to: body.batch })).await
}

/// Remove a batch, and give back what it took; it can be brought back
#[utoipa::path(delete, operation_id = "batch_remove", tag = "batch", path = "/api/batches/{id}", params(("id" = BatchId, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(crate) async fn remove(
    State(app): State<App>,
    Caller(who): Caller,
    Id(id): Id<BatchId>,
) -> Result<StatusCode, ApiError> {
    app.farm.act(move |tx| batch::remove(tx, &who, Remove(id))).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Bring a removed batch back; what it had taken is taken again, as far as it is there
#[utoipa::path(post, operation_id = "batch_restore", tag = "batch", path = "/api/batches/{id}/restore", params(("id" = BatchId, Path)), responses(
    (status = 200, body = Batch),
    Refusals,
))]
pub(crate) async fn restore(
    State(app): State<App>,
    Caller(who): Caller,
    Id(id): Id<BatchId>,
) -> Answer<Batch> {
    app.act(move |tx| batch::restore(tx, &who, Restore(id))).await
}

/// Take the amounts of a batch from stock
#[utoipa::path(post, operation_id = "batch_take", tag = "batch", path = "/api/batches/{id}/take", params(("id" = BatchId, Path)), request_body = TakeRequest, responses(
    (status = 200, body = Batch),
    Refusals,
))]
pub(crate) async fn take(
    State(app): State<App>,
    Caller(who): Caller,
    Id(id): Id<BatchId>,
    Body(body): Body<TakeRequest>,
) -> Answer<Batch> {
    app.act(move |tx| batch::take(tx, &who, (id, body))).await
}

/// Give the amounts of a batch back to stock
#[utoipa::path(post, operation_id = "batch_give_back", tag = "batch", path = "/api/batches/{id}/give-back", params(("id" = BatchId, Path)), request_body = TakeRequest, responses(
    (status = 200, body = Batch),
    Refusals,
))]
pub(crate) async fn give_back(
    State(app): State<App>,
    Caller(who): Caller,
    Id(id): Id<BatchId>,
    Body(body): Body<TakeRequest>,
) -> Answer<Batch> {
    app.act(move |tx| batch::give_back(tx, &who, (id, body))).await
}
