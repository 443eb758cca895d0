//! Places that compost goes to, and what was found in their soil.

use axum::http::StatusCode;
use serde::Deserialize;
use utoipa::ToSchema;
use zymarch_core::people::Deed;
use zymarch_farm::access::Wished as _;
use zymarch_farm::command::{Add, Change, Remove, Restore};
use zymarch_farm::finish::ground::{self, GroundFields, GroundTold};
use zymarch_farm::finish::lab::{self, LabRequest, Sample};
use zymarch_farm::{Transaction, Who};
use zymarch_store::id::{EntryId, GroundId, SiteId};

use crate::http::asking::Asking;
use crate::http::body::{Body, Id, NewId};
use crate::http::problem::{ApiError, Refusals};
use crate::state::{Answer, Written};

/// A change of a place that was read at a version.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct GroundChange {
    /// The version that was read.
    version: i64,
    /// What it is now.
    ground: GroundFields,
}

/// The places of a site, with what each got
#[utoipa::path(get, operation_id = "ground_list", tag = "finish", path = "/api/sites/{site}/grounds", params(("site" = SiteId, Path)), responses(
    (status = 200, body = Vec<GroundTold>),
    Refusals,
))]
pub(crate) async fn list(asking: Asking, Id(id): Id<SiteId>) -> Answer<Vec<GroundTold>> {
    asking.ask(Deed::Look.of(id), move |tx, _| ground::list(tx, id)).await
}

/// A new place
#[utoipa::path(post, operation_id = "ground_create", tag = "finish", path = "/api/sites/{site}/grounds", params(("site" = SiteId, Path), ("id" = Option<GroundId>, Query)), request_body = GroundFields, responses(
    (status = 201, body = GroundTold),
    Refusals,
))]
pub(crate) async fn create(
    asking: Asking,
    Id(id): Id<SiteId>,
    NewId(new): NewId<GroundId>,
    Body(what): Body<GroundFields>,
) -> Result<(StatusCode, Written<GroundTold>), ApiError> {
    let wish = Deed::Work.of(id).new(new);
    let told = asking.act(wish, move |tx, who| ground::add(tx, who, Add { site: id, id: new, what }));
    Ok((StatusCode::CREATED, told.await?))
}

/// Change a place
#[utoipa::path(put, operation_id = "ground_change", tag = "finish", path = "/api/grounds/{id}", params(("id" = GroundId, Path)), request_body = GroundChange, responses(
    (status = 200, body = GroundTold),
    Refusals,
))]
pub(crate) async fn change(
    asking: Asking,
    Id(id): Id<GroundId>,
    Body(body): Body<GroundChange>,
) -> Answer<GroundTold> {
    let change = Change { id, version: body.version, to: body.ground };
    asking.act(Deed::Work.of(id), move |tx, who| ground::change(tx, who, change)).await
}

/// Remove a place; it can be brought back
#[utoipa::path(delete, operation_id = "ground_remove", tag = "finish", path = "/api/grounds/{id}", params(("id" = GroundId, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(crate) async fn remove(asking: Asking, Id(id): Id<GroundId>) -> Result<StatusCode, ApiError> {
    asking.done(Deed::Work.of(id), move |tx, who| ground::remove(tx, who, Remove(id))).await
}

/// Bring a removed place back
#[utoipa::path(post, operation_id = "ground_restore", tag = "finish", path = "/api/grounds/{id}/restore", params(("id" = GroundId, Path)), responses(
    (status = 200, body = GroundTold),
    Refusals,
))]
pub(crate) async fn restore(asking: Asking, Id(id): Id<GroundId>) -> Answer<GroundTold> {
    asking.act(Deed::Work.of(id), move |tx, who| ground::restore(tx, who, Restore(id))).await
}

/// Write down what a laboratory or a kit found in the soil of a place
#[utoipa::path(post, operation_id = "ground_found", tag = "finish", path = "/api/grounds/{id}/results", params(("id" = GroundId, Path)), request_body = LabRequest, responses(
    (status = 200, body = GroundTold),
    Refusals,
))]
pub(crate) async fn found(
    asking: Asking,
    Id(id): Id<GroundId>,
    Body(body): Body<LabRequest>,
) -> Answer<GroundTold> {
    let act = move |tx: &mut Transaction<'_>, who: &Who| {
        lab::note(tx, who, (Sample::Soil(id), body))?;
        ground::get(tx, id)
    };
    asking.act(Deed::Work.of(id), act).await
}

/// Take a result of the soil of a place back
#[utoipa::path(delete, operation_id = "ground_take_back", tag = "finish", path = "/api/grounds/{id}/log/{entry}", params(("id" = GroundId, Path), ("entry" = EntryId, Path)), responses(
    (status = 200, body = GroundTold),
    Refusals,
))]
pub(crate) async fn take_back(
    asking: Asking,
    Id((id, entry)): Id<(GroundId, EntryId)>,
) -> Answer<GroundTold> {
    let act = move |tx: &mut Transaction<'_>, who: &Who| {
        lab::take_back(tx, who, (Sample::Soil(id), entry))?;
        ground::get(tx, id)
    };
    asking.act(Deed::Work.of(id), act).await
}
