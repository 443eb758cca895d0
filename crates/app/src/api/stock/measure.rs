//! The person's own containers.

use axum::extract::State;
use axum::http::StatusCode;
use serde::Deserialize;
use utoipa::ToSchema;
use zymarch_farm::command::{Add, Change, Remove, Restore};
use zymarch_farm::stock::measure::{self, Measure, MeasureFields, VolumeAnswer, VolumeRequest};
use zymarch_store::id::{MeasureId, SiteId};

use crate::http::body::{Body, Caller, Id, NewId};
use crate::http::problem::{ApiError, Refusals};
use crate::state::{Answer, App, Written};

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
pub(crate) async fn volume(State(app): State<App>, Body(body): Body<VolumeRequest>) -> Answer<VolumeAnswer> {
    app.ask(move |tx| measure::volume(tx, body)).await
}

/// The containers of a site
#[utoipa::path(get, operation_id = "measure_list", tag = "measure", path = "/api/sites/{site}/measures", params(("site" = SiteId, Path)), responses(
    (status = 200, body = Vec<Measure>),
    Refusals,
))]
pub(crate) async fn list(State(app): State<App>, Id(id): Id<SiteId>) -> Answer<Vec<Measure>> {
    app.ask(move |tx| measure::list(tx, id)).await
}

/// A new container
#[utoipa::path(post, operation_id = "measure_create", tag = "measure", path = "/api/sites/{site}/measures", params(("site" = SiteId, Path), ("id" = Option<MeasureId>, Query)), request_body = MeasureFields, responses(
    (status = 201, body = Measure),
    Refusals,
))]
pub(crate) async fn create(
    State(app): State<App>,
    Caller(who): Caller,
    Id(id): Id<SiteId>,
    NewId(new): NewId<MeasureId>,
    Body(what): Body<MeasureFields>,
) -> Result<(StatusCode, Written<Measure>), ApiError> {
    Ok((
        StatusCode::CREATED,
        app.act(move |tx| measure::add(tx, &who, Add { site: id, id: new, what })).await?,
    ))
}

/// Change a container, and those counted in it
#[utoipa::path(put, operation_id = "measure_change", tag = "measure", path = "/api/measures/{id}", params(("id" = MeasureId, Path)), request_body = MeasureChange, responses(
    (status = 200, body = Measure),
    Refusals,
))]
pub(crate) async fn change(
    State(app): State<App>,
    Caller(who): Caller,
    Id(id): Id<MeasureId>,
    Body(body): Body<MeasureChange>,
) -> Answer<Measure> {
    app.act(move |tx| measure::change(tx, &who, Change { id, version: body.version, to: body.measure })).await
}

/// Remove a container; it can be brought back
#[utoipa::path(delete, operation_id = "measure_remove", tag = "measure", path = "/api/measures/{id}", params(("id" = MeasureId, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(crate) async fn remove(
    State(app): State<App>,
    Caller(who): Caller,
    Id(id): Id<MeasureId>,
) -> Result<StatusCode, ApiError> {
    app.farm.act(move |tx| measure::remove(tx, &who, Remove(id))).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Bring a removed container back
#[utoipa::path(post, operation_id = "measure_restore", tag = "measure", path = "/api/measures/{id}/restore", params(("id" = MeasureId, Path)), responses(
    (status = 200, body = Measure),
    Refusals,
))]
pub(crate) async fn restore(
    State(app): State<App>,
    Caller(who): Caller,
    Id(id): Id<MeasureId>,
) -> Answer<Measure> {
    app.act(move |tx| measure::restore(tx, &who, Restore(id))).await
}
