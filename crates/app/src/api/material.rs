//! The reference table.

use axum::Json;
use zymarch_core::material;
use zymarch_formats::material::Material;

/// Every material of the reference table
#[utoipa::path(get, operation_id = "material_list", tag = "material", path = "/api/materials", responses((status = 200, body = Vec<Material>)))]
pub(super) async fn list() -> Json<Vec<Material>> {
    Json(material::all().iter().map(Material::from).collect())
}
