//! The person's own containers.

use axum::http::StatusCode;
use serde::Deserialize;
use utoipa::ToSchema;
use zymarch_core::people::Deed;
use zymarch_farm::access::Wished as _;
use zymarch_farm::command::{Add, Change, Remove, Restore};
use zymarch_farm::stock::measure::{self, Measure, MeasureFields, VolumeAnswer, VolumeRequest};
use zymarch_store::id::{MeasureId, SiteId};

use crate::http::asking::Asking;
use crate::http::body::{Body, Id, NewId};
use crate::http::problem::{ApiError, Refusals};
use crate::state::{Answer, Written};

/// A change of a container that was read at a version.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(crate) struct MeasureChange {
    /// The version that was read.
    version: i64,
    /// What it is now.
    measure: MeasureFields,
}

/// What a container would hold
#[utoipa::path(post, operation_id = "measure_volume", tag = "measure", path = "/api/measures/volume", request_body = VolumeRequest, responses(
    (status = 200, body = VolumeAnswer),
    Refusals,
))]
pub(crate) async fn volume(asking: Asking, Body(body): Body<VolumeRequest>) -> Answer<VolumeAnswer> {
    asking.ask(Deed::Look.anywhere(), move |tx, _| measure::volume(tx, body)).await
}

/// The containers of a site
#[utoipa::path(get, operation_id = "measure_list", tag = "measure", path = "/api/sites/{site}/measures", params(("site" = SiteId, Path)), responses(
    (status = 200, body = Vec<Measure>),
    Refusals,
))]
pub(crate) async fn list(asking: Asking, Id(id): Id<SiteId>) -> Answer<Vec<Measure>> {
    asking.ask(Deed::Look.of(id), move |tx, _| measure::list(tx, id)).await
}

/// A new container
#[utoipa::path(post, operation_id = "measure_create", tag = "measure", path = "/api/sites/{site}/measures", params(("site" = SiteId, Path), ("id" = Option<MeasureId>, Query)), request_body = MeasureFields, responses(
    (status = 201, body = Measure),
    Refusals,
))]
pub(crate) async fn create(
    asking: Asking,
    Id(id): Id<SiteId>,
    NewId(new): NewId<MeasureId>,
    Body(what): Body<MeasureFields>,
) -> Result<(StatusCode, Written<Measure>), ApiError> {
    Ok((
        StatusCode::CREATED,
        asking
            .act(Deed::Work.of(id).new(new), move |tx, who| {
                measure::add(tx, who, Add { site: id, id: new, what })
            })
            .await?,
    ))
}

/// Change a container, and those counted in it
#[utoipa::path(put, operation_id = "measure_change", tag = "measure", path = "/api/measures/{id}", params(("id" = MeasureId, Path)), request_body = MeasureChange, responses(
    (status = 200, body = Measure),
    Refusals,
))]
pub(crate) async fn change(
    asking: Asking,
    Id(id): Id<MeasureId>,
    Body(body): Body<MeasureChange>,
) -> Answer<Measure> {
    asking
        .act(Deed::Work.of(id), move |tx, who| {
            measure::change(tx, who, Change { id, version: body.version, to: body.measure })
        })
        .await
}

/// Remove a container; it can be brought back
#[utoipa::path(delete, operation_id = "measure_remove", tag = "measure", path = "/api/measures/{id}", params(("id" = MeasureId, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(crate) async fn remove(asking: Asking, Id(id): Id<MeasureId>) -> Result<StatusCode, ApiError> {
    asking.done(Deed::Work.of(id), move |tx, who| measure::remove(tx, who, Remove(id))).await
}

/// Bring a removed container back
#[utoipa::path(post, operation_id = "measure_restore", tag = "measure", path = "/api/measures/{id}/restore", params(("id" = MeasureId, Path)), responses(
    (status = 200, body = Measure),
    Refusals,
))]
pub(crate) async fn restore(asking: Asking, Id(id): Id<MeasureId>) -> Answer<Measure> {
    asking.act(Deed::Work.of(id), move |tx, who| measure::restore(tx, who, Restore(id))).await
}
