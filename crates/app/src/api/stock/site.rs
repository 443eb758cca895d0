//! Farms and plots.

use axum::http::StatusCode;
use serde::Deserialize;
use utoipa::ToSchema;
use zymarch_core::people::Deed;
use zymarch_farm::access::Wished as _;
use zymarch_farm::command::{Change, Remove, Restore};
use zymarch_farm::stock::site::{self, Site, SiteFields};
use zymarch_store::id::SiteId;

use crate::http::asking::Asking;
use crate::http::body::{Body, Id, NewId};
use crate::http::problem::{ApiError, Refusals};
use crate::state::{Answer, Written};

/// A change of a site that was read at a version.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct SiteChange {
    /// The version that was read.
    version: i64,
    /// What it is now.
    site: SiteFields,
}

/// Every site
#[utoipa::path(get, operation_id = "site_list", tag = "site", path = "/api/sites", responses(
    (status = 200, body = Vec<Site>),
    Refusals,
))]
pub(crate) async fn list(asking: Asking) -> Answer<Vec<Site>> {
    asking.ask(Deed::Look.anywhere(), site::seen_by).await
}

/// A new site, with the two containers nearly everyone has
#[utoipa::path(post, operation_id = "site_create", tag = "site", path = "/api/sites", params(("id" = Option<SiteId>, Query)), request_body = SiteFields, responses(
    (status = 201, body = Site),
    Refusals,
))]
pub(crate) async fn create(
    asking: Asking,
    NewId(new): NewId<SiteId>,
    Body(body): Body<SiteFields>,
) -> Result<(StatusCode, Written<Site>), ApiError> {
    Ok((
        StatusCode::CREATED,
        asking.act(Deed::Keep.anywhere().new(new), move |tx, who| site::add(tx, who, (new, body))).await?,
    ))
}

/// Change a site
#[utoipa::path(put, operation_id = "site_change", tag = "site", path = "/api/sites/{id}", params(("id" = SiteId, Path)), request_body = SiteChange, responses(
    (status = 200, body = Site),
    Refusals,
))]
pub(crate) async fn change(asking: Asking, Id(id): Id<SiteId>, Body(body): Body<SiteChange>) -> Answer<Site> {
    asking
        .act(Deed::Keep.of(id), move |tx, who| {
            site::change(tx, who, Change { id, version: body.version, to: body.site })
        })
        .await
}

/// Remove a site and all that is at it; it can be brought back
#[utoipa::path(delete, operation_id = "site_remove", tag = "site", path = "/api/sites/{id}", params(("id" = SiteId, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(crate) async fn remove(asking: Asking, Id(id): Id<SiteId>) -> Result<StatusCode, ApiError> {
    asking.done(Deed::Keep.of(id), move |tx, who| site::remove(tx, who, Remove(id))).await
}

/// Bring a removed site back
#[utoipa::path(post, operation_id = "site_restore", tag = "site", path = "/api/sites/{id}/restore", params(("id" = SiteId, Path)), responses(
    (status = 200, body = Site),
    Refusals,
))]
pub(crate) async fn restore(asking: Asking, Id(id): Id<SiteId>) -> Answer<Site> {
    asking.act(Deed::Keep.of(id), move |tx, who| site::restore(tx, who, Restore(id))).await
}
