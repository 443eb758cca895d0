//! Methods, those of the book and a person's own.

use axum::extract::State;
use axum::http::StatusCode;
use serde::Deserialize;
use utoipa::ToSchema;
use zymarch_farm::command::{Change, Remove, Restore};
use zymarch_farm::plan::method::{self, ListedMethod, MethodCopy};
use zymarch_formats::method::MethodFields;

use crate::http::body::{Body, Caller, Id};
use crate::http::problem::{ApiError, Refusals};
use crate::state::{Answer, App, Written};

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
pub(crate) async fn list(State(app): State<App>) -> Answer<Vec<ListedMethod>> {
    app.list_once("methods", method::list).await
}

/// A copy of a method, changed
#[utoipa::path(post, operation_id = "method_copy", tag = "method", path = "/api/methods", request_body = MethodCopy, responses(
    (status = 201, body = ListedMethod),
    Refusals,
))]
pub(crate) async fn copy(
    State(app): State<App>,
    Caller(who): Caller,
    Body(body): Body<MethodCopy>,
) -> Result<(StatusCode, Written<ListedMethod>), ApiError> {
    Ok((StatusCode::CREATED, app.act(move |tx| method::copy(tx, &who, body)).await?))
}

/// Change a method of one's own
#[utoipa::path(put, operation_id = "method_change", tag = "method", path = "/api/methods/{id}", params(("id" = String, Path)), request_body = MethodChange, responses(
    (status = 200, body = ListedMethod),
    Refusals,
))]
pub(crate) async fn change(
    State(app): State<App>,
    Caller(who): Caller,
    Id(id): Id<String>,
    Body(body): Body<MethodChange>,
) -> Answer<ListedMethod> {
    app.act(move |tx| method::change(tx, &who, Change { id, version: body.version, to: body.method })).await
}

/// Remove a method of one's own; it can be brought back, and batches by it keep it
#[utoipa::path(delete, operation_id = "method_remove", tag = "method", path = "/api/methods/{id}", params(("id" = String, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(crate) async fn remove(
    State(app): State<App>,
    Caller(who): Caller,
    Id(id): Id<String>,
) -> Result<StatusCode, ApiError> {
    app.farm.act(move |tx| method::remove(tx, &who, Remove(id))).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Bring a removed method back
#[utoipa::path(post, operation_id = "method_restore", tag = "method", path = "/api/methods/{id}/restore", params(("id" = String, Path)), responses(
    (status = 200, body = ListedMethod),
    Refusals,
))]
pub(crate) async fn restore(
    State(app): State<App>,
    Caller(who): Caller,
    Id(id): Id<String>,
) -> Answer<ListedMethod> {
    app.act(move |tx| method::restore(tx, &who, Restore(id))).await
}
