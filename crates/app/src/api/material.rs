//! The reference table, and materials of a person's own beside it.

use axum::Json;
use axum::extract::{Path, State};
use axum::http::StatusCode;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_formats::material::{Doubt, Material, MaterialFields, doubts};
use zymarch_store::material::{self, OwnMaterial};

use crate::http::body::Body;
use crate::http::problem::{ApiError, Refusals};
use crate::state::App;

/// A material, and the version of a person's own.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct Listed {
    /// Counts changes; none for a row of the reference table.
    version: Option<i64>,
    #[serde(flatten)]
    material: Material,
}

/// What a row of figures comes to, before it is written down.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct MaterialCheck {
    /// The id it would have.
    id: String,
    /// What in its figures cannot be true, or hardly.
    doubts: Vec<Doubt>,
}

/// A change of a material that was read at a version.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct MaterialChange {
    /// The version that was read.
    version: i64,
    /// What it is now; its id is left out of account.
    material: MaterialFields,
}

impl From<&OwnMaterial> for Listed {
    fn from(own: &OwnMaterial) -> Self {
        Self { version: Some(own.version), material: Material::from(&own.material) }
    }
}

/// Every material: a person's own first, then the reference table
#[utoipa::path(get, operation_id = "material_list", tag = "material", path = "/api/materials", responses((status = 200, body = Vec<Listed>)))]
pub(super) async fn list(State(state): State<App>) -> Result<Json<Vec<Listed>>, ApiError> {
    let own = state.store.read(|conn| material::all(conn)).await?;
    let book = zymarch_core::material::all().iter();
    let book = book.map(|row| Listed { version: None, material: Material::from(row) });
    Ok(Json(own.iter().map(Listed::from).chain(book).collect()))
}

/// What a row of figures comes to
#[utoipa::path(post, operation_id = "material_check", tag = "material", path = "/api/materials/check", request_body = MaterialFields, responses(
    (status = 200, body = MaterialCheck),
    Refusals,
))]
pub(super) async fn check(Body(body): Body<MaterialFields>) -> Result<Json<MaterialCheck>, ApiError> {
    let material = body.checked()?;
    Ok(Json(MaterialCheck { doubts: doubts(&material), id: material.id }))
}

/// A new material of one's own
#[utoipa::path(post, operation_id = "material_create", tag = "material", path = "/api/materials", request_body = MaterialFields, responses(
    (status = 201, body = Listed),
    Refusals,
))]
pub(super) async fn create(
    State(state): State<App>,
    Body(body): Body<MaterialFields>,
) -> Result<(StatusCode, Json<Listed>), ApiError> {
    let (new, now) = (body.checked()?, state.clock.now());
    let own = state.store.write(move |conn| material::insert(conn, &new, &now)).await?;
    state.read_own().await?;
    Ok((StatusCode::CREATED, Json(Listed::from(&own))))
}

/// Change a material of one's own
#[utoipa::path(put, operation_id = "material_change", tag = "material", path = "/api/materials/{id}", params(("id" = String, Path)), request_body = MaterialChange, responses(
    (status = 200, body = Listed),
    Refusals,
))]
pub(super) async fn change(
    State(state): State<App>,
    Path(id): Path<String>,
    Body(body): Body<MaterialChange>,
) -> Result<Json<Listed>, ApiError> {
    let (new, now) = (MaterialFields { id, ..body.material }.checked()?, state.clock.now());
    let own = state.store.write(move |conn| material::update(conn, body.version, &new, &now)).await?;
    state.read_own().await?;
    Ok(Json(Listed::from(&own)))
}

/// Remove a material of one's own; it can be brought back, and lots of it stay
#[utoipa::path(delete, operation_id = "material_remove", tag = "material", path = "/api/materials/{id}", params(("id" = String, Path)), responses(
    (status = 204),
    Refusals,
))]
pub(super) async fn remove(State(state): State<App>, Path(id): Path<String>) -> Result<StatusCode, ApiError> {
    let now = state.clock.now();
    state.store.write(move |conn| material::remove(conn, &id, &now)).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Bring a removed material back
#[utoipa::path(post, operation_id = "material_restore", tag = "material", path = "/api/materials/{id}/restore", params(("id" = String, Path)), responses(
    (status = 200, body = Listed),
    Refusals,
))]
pub(super) async fn restore(
    State(state): State<App>,
    Path(id): Path<String>,
) -> Result<Json<Listed>, ApiError> {
    let own = state.store.write(move |conn| material::restore(conn, &id)).await?;
    state.read_own().await?;
    Ok(Json(Listed::from(&own)))
}
