//! What was sorted out and not used.

use axum::http::StatusCode;
use zymarch_core::people::Deed;
use zymarch_farm::access::Wished as _;
use zymarch_farm::command::{Add, Remove, Restore};
use zymarch_farm::stock::sorted_out::{self, SortedOut, SortedOutFields};
use zymarch_store::id::{SiteId, SortedOutId};

use crate::http::asking::Asking;
use crate::http::body::{Body, Id, NewId};
use crate::http::problem::{ApiError, Refusals};
use crate::state::{Answer, Written};

/// What was sorted out at a site, newest first
#[utoipa::path(get, operation_id = "sorted_out_list", tag = "sorted-out", path = "/api/sites/{site}/sorted-out", params(("site" = SiteId, Path)), responses(
    (status = 200, body = Vec<SortedOut>),
    Refusals,
))]
pub(crate) async fn list(asking: Asking, Id(id): Id<SiteId>) -> Answer<Vec<SortedOut>> {
    asking.ask(Deed::Look.of(id), move |tx, _| sorted_out::list(tx, id)).await
}

/// Record that something was sorted out and not used
#[utoipa::path(post, operation_id = "sorted_out_create", tag = "sorted-out", path = "/api/sites/{site}/sorted-out", params(("site" = SiteId, Path), ("id" = Option<SortedOutId>, Query)), request_body = SortedOutFields, responses(
    (status = 201, body = SortedOut),
    Refusals,
))]
pub(crate) async fn create(
    asking: Asking,
    Id(id): Id<SiteId>,
    NewId(new): NewId<SortedOutId>,
    Body(what): Body<SortedOutFields>,
) -> Result<(StatusCode, Written<SortedOut>), ApiError> {
    Ok((
        StatusCode::CREATED,
        asking
            .act(Deed::Work.of(id).new(new), move |tx, who| {
                sorted_out::add(tx, who, Add { site: id, id: new, what })
            })
            .await?,
    ))
}

/// Remove a record; it can be brought back
#[utoipa::path(delete, operation_id = "sorted_out_remove", tag = "sorted-out", path = "/api/sorted-out/{id}", params(("id" = SortedOutId, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(crate) async fn remove(asking: Asking, Id(id): Id<SortedOutId>) -> Result<StatusCode, ApiError> {
    asking.done(Deed::Work.of(id), move |tx, who| sorted_out::remove(tx, who, Remove(id))).await
}

/// Bring a removed record back
#[utoipa::path(post, operation_id = "sorted_out_restore", tag = "sorted-out", path = "/api/sorted-out/{id}/restore", params(("id" = SortedOutId, Path)), responses(
    (status = 200, body = SortedOut),
    Refusals,
))]
pub(crate) async fn restore(asking: Asking, Id(id): Id<SortedOutId>) -> Answer<SortedOut> {
    asking.act(Deed::Work.of(id), move |tx, who| sorted_out::restore(tx, who, Restore(id))).await
}
