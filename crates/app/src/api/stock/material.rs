//! The reference table, materials of a person's own beside it, and files of them.

use axum::http::StatusCode;
use axum::http::header::{CONTENT_DISPOSITION, CONTENT_TYPE};
use axum::response::IntoResponse;
use serde::Deserialize;
use utoipa::IntoParams;
use zymarch_core::people::Deed;
use zymarch_farm::access::Wished as _;
use zymarch_farm::command::{Change, Remove, Restore};
use zymarch_farm::stock::material::{self, Listed, MaterialChange, MaterialCheck, Named};
use zymarch_farm::stock::material_file::{self, ImportAnswer, ImportRequest};
use zymarch_formats::material::MaterialFields;

use crate::http::asking::Asking;
use crate::http::body::{Body, Id, Question};
use crate::http::problem::{ApiError, Refusals};
use crate::state::{Answer, Written};

/// Which materials go into a file.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub(crate) struct Which {
    /// Only a person's own, without the reference table.
    #[serde(default)]
    own: bool,
}

/// Every material: a person's own first, then the reference table
#[utoipa::path(get, operation_id = "material_list", tag = "material", path = "/api/materials", responses(
    (status = 200, body = Vec<Listed>),
    Refusals,
))]
pub(crate) async fn list(asking: Asking) -> Answer<Vec<Listed>> {
    asking.list_once("materials", material::list).await
}

/// What every material is called, without its figures
#[utoipa::path(get, operation_id = "material_names", tag = "material", path = "/api/materials/names", responses(
    (status = 200, body = Vec<Named>),
    Refusals,
))]
pub(crate) async fn names(asking: Asking) -> Answer<Vec<Named>> {
    asking.list_once("names", material::names).await
}

/// What a row of figures comes to
#[utoipa::path(post, operation_id = "material_check", tag = "material", path = "/api/materials/check", request_body = MaterialFields, responses(
    (status = 200, body = MaterialCheck),
    Refusals,
))]
pub(crate) async fn check(asking: Asking, Body(body): Body<MaterialFields>) -> Answer<MaterialCheck> {
    asking.reckon(move |_| material::check(&body)).await
}

/// A new material of one's own
#[utoipa::path(post, operation_id = "material_create", tag = "material", path = "/api/materials", request_body = MaterialFields, responses(
    (status = 201, body = Listed),
    Refusals,
))]
pub(crate) async fn create(
    asking: Asking,
    Body(body): Body<MaterialFields>,
) -> Result<(StatusCode, Written<Listed>), ApiError> {
    Ok((
        StatusCode::CREATED,
        asking.act(Deed::Book.anywhere(), move |tx, who| material::add(tx, who, body)).await?,
    ))
}

/// Change a material of one's own
#[utoipa::path(put, operation_id = "material_change", tag = "material", path = "/api/materials/{id}", params(("id" = String, Path)), request_body = MaterialChange, responses(
    (status = 200, body = Listed),
    Refusals,
))]
pub(crate) async fn change(
    asking: Asking,
    Id(id): Id<String>,
    Body(body): Body<MaterialChange>,
) -> Answer<Listed> {
    asking
        .act(Deed::Book.anywhere(), move |tx, who| {
            material::change(tx, who, Change { id, version: body.version, to: body.material })
        })
        .await
}

/// Remove a material of one's own; it can be brought back, and lots of it stay
#[utoipa::path(delete, operation_id = "material_remove", tag = "material", path = "/api/materials/{id}", params(("id" = String, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(crate) async fn remove(asking: Asking, Id(id): Id<String>) -> Result<StatusCode, ApiError> {
    asking.done(Deed::Book.anywhere(), move |tx, who| material::remove(tx, who, Remove(id))).await
}

/// Bring a removed material back
#[utoipa::path(post, operation_id = "material_restore", tag = "material", path = "/api/materials/{id}/restore", params(("id" = String, Path)), responses(
    (status = 200, body = Listed),
    Refusals,
))]
pub(crate) async fn restore(asking: Asking, Id(id): Id<String>) -> Answer<Listed> {
    asking.act(Deed::Book.anywhere(), move |tx, who| material::restore(tx, who, Restore(id))).await
}

/// Materials as CSV
#[utoipa::path(get, operation_id = "material_file", tag = "material", path = "/api/materials.csv", params(Which), responses(
    (status = 200, body = String, content_type = "text/csv"),
    Refusals,
))]
pub(crate) async fn export(
    asking: Asking,
    Question(which): Question<Which>,
) -> Result<impl IntoResponse, ApiError> {
    let text =
        asking.looked(Deed::Look.anywhere(), move |tx, _| material_file::export(tx, which.own)).await?;
    let name = if which.own { "my-materials.csv" } else { "materials.csv" };
    Ok((
        [
            (CONTENT_TYPE, "text/csv; charset=utf-8".to_owned()),
            (CONTENT_DISPOSITION, format!("attachment; filename=\"{name}\"")),
        ],
        text,
    ))
}

/// Look at a file of materials, or take it in: all of it or nothing
#[utoipa::path(post, operation_id = "material_import", tag = "material", path = "/api/materials/import", request_body = ImportRequest, responses(
    (status = 200, body = ImportAnswer),
    Refusals,
))]
pub(crate) async fn import(asking: Asking, Body(body): Body<ImportRequest>) -> Answer<ImportAnswer> {
    asking.act(Deed::Book.anywhere(), move |tx, who| material_file::import(tx, who, &body)).await
}
