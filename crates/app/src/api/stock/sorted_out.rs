//! What was sorted out and not used.

use axum::extract::State;
use axum::http::StatusCode;
use zymarch_farm::command::{Add, Remove, Restore};
use zymarch_farm::stock::sorted_out::{self, SortedOut, SortedOutFields};
use zymarch_store::id::{SiteId, SortedOutId};

use crate::http::body::{Body, Caller, Id, NewId};
use crate::http::problem::{ApiError, Refusals};
use crate::state::{Answer, App, Written};

/// What was sorted out at a site, newest first
#[utoipa::path(get, operation_id = "sorted_out_list", tag = "sorted-out", path = "/api/sites/{site}/sorted-out", params(("site" = SiteId, Path)), responses(
    (status = 200, body = Vec<SortedOut>),
    Refusals,
))]
pub(crate) async fn list(State(app): State<App>, Id(id): Id<SiteId>) -> Answer<Vec<SortedOut>> {
    app.ask(move |tx| sorted_out::list(tx, id)).await
}

/// Record that something was sorted out and not used
#[utoipa::path(post, operation_id = "sorted_out_create", tag = "sorted-out", path = "/api/sites/{site}/sorted-out", params(("site" = SiteId, Path), ("id" = Option<SortedOutId>, Query)), request_body = SortedOutFields, responses(
    (status = 201, body = SortedOut),
    Refusals,
))]
pub(crate) async fn create(
    State(app): State<App>,
    Caller(who): Caller,
    Id(id): Id<SiteId>,
    NewId(new): NewId<SortedOutId>,
    Body(what): Body<SortedOutFields>,
) -> Result<(StatusCode, Written<SortedOut>), ApiError> {
    Ok((
        StatusCode::CREATED,
        app.act(move |tx| sorted_out::add(tx, &who, Add { site: id, id: new, what })).await?,
    ))
}

/// Remove a record; it can be brought back
#[utoipa::path(delete, operation_id = "sorted_out_remove", tag = "sorted-out", path = "/api/sorted-out/{id}", params(("id" = SortedOutId, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(crate) async fn remove(
    State(app): State<App>,
    Caller(who): Caller,
    Id(id): Id<SortedOutId>,
) -> Result<StatusCode, ApiError> {
    app.farm.act(move |tx| sorted_out::remove(tx, &who, Remove(id))).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Bring a removed record back
#[utoipa::path(post, operation_id = "sorted_out_restore", tag = "sorted-out", path = "/api/sorted-out/{id}/restore", params(("id" = SortedOutId, Path)), responses(
    (status = 200, body = SortedOut),
    Refusals,
))]
pub(crate) async fn restore(
    State(app): State<App>,
    Caller(who): Caller,
    Id(id): Id<SortedOutId>,
) -> Answer<SortedOut> {
    app.act(move |tx| sorted_out::restore(tx, &who, Restore(id))).await
}
