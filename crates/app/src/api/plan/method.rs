//! Methods, those of the book and a person's own.

use axum::http::StatusCode;
use serde::Deserialize;
use utoipa::ToSchema;
use zymarch_core::people::Deed;
use zymarch_farm::access::Wished as _;
use zymarch_farm::command::{Change, Remove, Restore};
use zymarch_farm::plan::method::{self, ListedMethod, MethodCopy};
use zymarch_formats::method::MethodFields;

use crate::http::asking::Asking;
use crate::http::body::{Body, Id};
use crate::http::problem::{ApiError, Refusals};
use crate::state::{Answer, Written};

/// A change of a method that was read at a version.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct MethodChange {
    /// The version that was read.
    version: i64,
    /// What it is now.
    method: MethodFields,
}

/// The methods: a person's own first, then those of the book
#[utoipa::path(get, operation_id = "method_list", tag = "method", path = "/api/methods", responses(
    (status = 200, body = Vec<ListedMethod>),
    Refusals,
))]
pub(crate) async fn list(asking: Asking) -> Answer<Vec<ListedMethod>> {
    asking.list_once("methods", method::list).await
}

/// A copy of a method, changed
#[utoipa::path(post, operation_id = "method_copy", tag = "method", path = "/api/methods", request_body = MethodCopy, responses(
    (status = 201, body = ListedMethod),
    Refusals,
))]
pub(crate) async fn copy(
    asking: Asking,
    Body(body): Body<MethodCopy>,
) -> Result<(StatusCode, Written<ListedMethod>), ApiError> {
    Ok((
        StatusCode::CREATED,
        asking.act(Deed::Book.anywhere(), move |tx, who| method::copy(tx, who, body)).await?,
    ))
}

/// Change a method of one's own
#[utoipa::path(put, operation_id = "method_change", tag = "method", path = "/api/methods/{id}", params(("id" = String, Path)), request_body = MethodChange, responses(
    (status = 200, body = ListedMethod),
    Refusals,
))]
pub(crate) async fn change(
    asking: Asking,
    Id(id): Id<String>,
    Body(body): Body<MethodChange>,
) -> Answer<ListedMethod> {
    asking
        .act(Deed::Book.anywhere(), move |tx, who| {
            method::change(tx, who, Change { id, version: body.version, to: body.method })
        })
        .await
}

/// Remove a method of one's own; it can be brought back, and batches by it keep it
#[utoipa::path(delete, operation_id = "method_remove", tag = "method", path = "/api/methods/{id}", params(("id" = String, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(crate) async fn remove(asking: Asking, Id(id): Id<String>) -> Result<StatusCode, ApiError> {
    asking.done(Deed::Book.anywhere(), move |tx, who| method::remove(tx, who, Remove(id))).await
}

/// Bring a removed method back
#[utoipa::path(post, operation_id = "method_restore", tag = "method", path = "/api/methods/{id}/restore", params(("id" = String, Path)), responses(
    (status = 200, body = ListedMethod),
    Refusals,
))]
pub(crate) async fn restore(asking: Asking, Id(id): Id<String>) -> Answer<ListedMethod> {
    asking.act(Deed::Book.anywhere(), move |tx, who| method::restore(tx, who, Restore(id))).await
}
